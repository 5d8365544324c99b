#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "drawing/words.h"
#include "number/units.h"
#include "stations/power/power_station.h"
#include "theme/theme.h"

namespace echappe {

void PowerStation::paint_drive(QPainter& painter, const DerivedDrive& power, const QRectF& room) {
    const Theme& t = inks(painter);
    const DriveRecord& drive = power.drive;
    const QString title = drive.as<WeightDrive>()   ? words("WEIGHT AND LINE")
                          : drive.as<SpringDrive>() ? words("SPRING IN ITS BARREL")
                          : drive.as<FuseeDrive>()  ? words("BARREL AND FUSEE")
                                                    : words("REWOUND EVERY FEW MINUTES");
    Column page(painter, room.adjusted(2, 14, 0, 0));
    page.section(title);
    page.gap(-4);
    const double turns = power.turns.value_or(0);
    constexpr double roomy = 330;
    page.line(room.width() > roomy ? words("click a size, or F4 walks them · drag winds it") : words("F4 types the sizes"), t.steel);
    const double column = room.width() > roomy ? 152 : 122;
    m_picture = room.adjusted(0, 56, -column, -44);
    const DrawnSizes drawn = sizes();
    Dimensions dimensions(painter, drawn, asked_size());
    if (const auto* weight = drive.as<WeightDrive>()) paint_weight(painter, power, *weight, m_picture, dimensions);
    if (drive.as<SpringDrive>()) paint_spring(painter, power, m_picture, dimensions);
    if (const auto* fusee = drive.as<FuseeDrive>()) paint_fusee(painter, power, *fusee, m_picture, dimensions);
    if (const auto* rewound = drive.as<RewoundDrive>()) paint_rewind(painter, power, *rewound, m_picture, dimensions);
    dimensions.rest();
    dimensions.lay_out({QPointF(m_picture.right() + 14, room.top() + 34), room.bottomRight() - QPointF(0, 34)});
    place_sizes(painter, dimensions);
    if (turns > 0)
        write(painter, type(Type::figure, true), t.blued, {room.left() + 2, room.bottom() - 14},
              words("%1 of %2 turns left").arg(m_wound * turns, 0, 'f', 1).arg(turns, 0, 'f', 1));
}

void PowerStation::write_missing(QPainter& painter, const DerivedDrive& power, const QRectF& room) {
    Column(painter, room.adjusted(2, 10, -18, 0))
        .says(words("To be given: %1.").arg(words(power.missing)), inks(painter).steel, Type::text);
}

/// A weight on its line: the drum above, the fall below it to scale.
struct PowerStation::Fall {
    QRectF room;
    double space_mm;
    double drum;  ///< its diameter in the picture
    QPointF axis;
    double top, px;
};

void PowerStation::paint_weight(QPainter& painter, const DerivedDrive& power, const WeightDrive& drive, const QRectF& room,
                                Dimensions& sizes) {
    if (!power.weight) return write_missing(painter, power, room);
    const Theme& t = inks(painter);
    const WeightDriveResult& w = *power.weight;
    Fall fall{room, std::max(drive.room_mm.value_or(w.fall_mm), w.fall_mm), std::clamp(*drive.drum_diameter_mm * 0.75, 26.0, 54.0), {}, 0,
              1};
    fall.axis = {room.left() + room.width() * 0.38, room.top() + fall.drum / 2 + 6};
    fall.top = fall.axis.y() + fall.drum / 2 + 26;
    fall.px = (room.bottom() - 52 - fall.top) / fall.space_mm;
    paint_fall(painter, fall, w, drive, sizes);
    // Drum, wound line over it.
    painter.setPen(QPen(t.brass, 1.2));
    painter.setBrush(t.pale_brass);
    painter.drawEllipse(fall.axis, fall.drum / 2, fall.drum / 2);
    painter.setPen(QPen(t.ink, 1.4));
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(fall.axis, fall.drum / 2 + 2.5, fall.drum / 2 + 2.5);
    painter.setBrush(t.steel);
    painter.drawEllipse(fall.axis, 3, 3);
    paint_hanging(painter, fall, w, drive, sizes);
    sizes.at("drum_diameter_mm", fall.axis + QPointF(fall.drum / 2, -2));
    sizes.at("drum_length_mm", fall.axis + QPointF(fall.drum * 0.3, 4));
    sizes.at("line_diameter_mm", {fall.axis.x() + fall.drum / 2 + 2.5, fall.axis.y() + 18});
    if (w.layers > 1)
        write(painter, type(Type::note), t.amber, {fall.axis.x() + fall.drum / 2 + 40, fall.axis.y() + 4},
              words("%1 layers of line").arg(w.layers));
}

/// The room it has, and what one winding takes of it.
void PowerStation::paint_fall(QPainter& painter, const Fall& fall, const WeightDriveResult& w, const WeightDrive& drive,
                              Dimensions& sizes) {
    const Theme& t = inks(painter);
    const double x = fall.room.left() + 14;
    painter.setPen(QPen(t.steel, 1));
    painter.drawLine(QPointF(x, fall.top), QPointF(x, fall.top + fall.space_mm * fall.px));
    const bool fits = w.fall_mm <= fall.space_mm + 1e-9 && w.warnings.empty();
    painter.fillRect(QRectF(x - 3, fall.top, 6, w.fall_mm * fall.px), fits ? t.verdigris : t.amber);
    // Beside their marks, but below where a short scale would have them run into the weight.
    const bool short_scale = fall.space_mm * fall.px < 120;
    write(painter, type(Type::note), t.ink, {x + 10, short_scale ? fall.room.bottom() - 24 : fall.top + w.fall_mm * fall.px - 4},
          words("falls %1 mm").arg(w.fall_mm, 0, 'f', 0));
    sizes.at("room_mm", {x + 3, fall.top + drive.room_mm.value_or(fall.space_mm) * fall.px});
}

/// The weight where it has come to, on its line or in the bight of it.
void PowerStation::paint_hanging(QPainter& painter, const Fall& fall, const WeightDriveResult& w, const WeightDrive& drive,
                                 Dimensions& sizes) {
    const Theme& t = inks(painter);
    const double y = fall.top + (1 - m_wound) * w.fall_mm * fall.px;
    const bool pulley = drive.moving_pulleys > 0;
    const double line_x = fall.axis.x() + fall.drum / 2 + 2.5;
    const double body_x = pulley ? line_x + 11 : line_x;
    painter.setPen(QPen(t.ink, 1.4));
    painter.drawLine(QPointF(line_x, fall.axis.y()), QPointF(line_x, y));
    if (pulley) {
        const double seat = fall.room.top() - 4;
        painter.drawLine(QPointF(line_x + 22, seat), QPointF(line_x + 22, y));
        painter.drawLine(QPointF(line_x + 14, seat), QPointF(line_x + 30, seat));
        painter.setBrush(t.sheet);
        painter.drawEllipse(QPointF(body_x, y), 11, 11);
    }
    const QRectF body(body_x - 15, y + (pulley ? 14 : 2), 30, 46);
    painter.setPen(QPen(t.brass, 1.2));
    painter.setBrush(t.pale_brass);
    painter.drawRoundedRect(body, 4, 4);
    sizes.at("weight_kg", {body.right(), body.center().y() - 12});
    sizes.at("least_weight_kg", {body.right(), body.center().y() + 12});
    sizes.at("moving_pulleys", {body_x + 11, pulley ? y : body.top()});
    if (!w.weight_least_kg) return;
    const QString right = words("%1 to %2 kg is right").arg(*w.weight_least_kg, 0, 'f', 2).arg(*w.weight_most_kg, 0, 'f', 2);
    write(painter, type_to_fit(Type::text, true, right, fall.room.width()), w.judged == WeightVerdict::right ? t.verdigris : t.amber,
          {fall.room.left() + 2, fall.room.bottom() + 4}, right);
}

void PowerStation::paint_barrel(QPainter& painter, const DerivedDrive& power, QPointF middle, double radius) {
    const Theme& t = inks(painter);
    painter.setPen(QPen(t.brass, 1.4));
    painter.setBrush(t.pale_brass);
    painter.drawEllipse(middle, radius * 1.09, radius * 1.09);
    painter.setBrush(t.sheet);
    painter.drawEllipse(middle, radius, radius);
    const StripInBarrel* strip = power.drive.strip();
    if (!power.spring || !strip) return;
    SpringSizeInput in;
    in.barrel_bore_mm = *strip->barrel_bore_mm;
    in.arbor_mm = *strip->arbor_mm;
    in.thickness_mm = *strip->thickness_mm;
    in.length_mm = power.spring->length_mm;
    // The top turns go: what is not needed stays wound at the end of the run.
    const double needed = power.barrel_turns.value_or(power.turns.value_or(power.spring->turns));
    const double wound = std::max(0.0, power.spring->turns - (1 - m_wound) * std::min(needed, power.spring->turns));
    const double px = radius / (in.barrel_bore_mm / 2);
    painter.setPen(QPen(t.blued, std::clamp(in.thickness_mm * px * 0.55, 0.7, 2.2)));
    painter.setBrush(Qt::NoBrush);
    paint_coils(painter, in, coils_wound(in, wound), middle, px);
    painter.setPen(QPen(t.ink, 1));
    painter.setBrush(t.steel);
    painter.drawEllipse(middle, in.arbor_mm / 2 * px, in.arbor_mm / 2 * px);
    painter.setBrush(t.sheet);
    const double square = in.arbor_mm / 2 * px * 0.45;
    painter.drawRect(QRectF(middle - QPointF(square, square), QSizeF(2 * square, 2 * square)));
}

/// The pack on the arbor, the pack at the wall, and what goes over from one to the other.
void PowerStation::paint_coils(QPainter& painter, const SpringSizeInput& in, const Coils& coils, QPointF middle, double px) {
    const auto pack = [&](double from_mm, double count, double step_mm) {
        const int whole = static_cast<int>(count);
        for (int i = 0; i <= whole; ++i) {
            const double r = (from_mm + (i + 0.5) * step_mm) * px;
            if (i < whole) painter.drawEllipse(middle, r, r);
            else
                painter.drawArc(QRectF(middle - QPointF(r, r), QSizeF(2 * r, 2 * r)), 90 * 16,
                                static_cast<int>(-(count - whole) * 360 * 16));
        }
    };
    pack(in.arbor_mm / 2, coils.on_arbor, in.thickness_mm);
    pack(in.barrel_bore_mm / 2, coils.at_wall, -in.thickness_mm);
    QPainterPath over;
    constexpr int steps = 40;
    for (int i = 0; i <= steps; ++i) {
        const double share = static_cast<double>(i) / steps;
        const double r = (coils.arbor_radius_mm + (coils.wall_radius_mm - coils.arbor_radius_mm) * share) * px;
        const double angle = 1.57 - share * 3.6;
        const QPointF at = middle + QPointF(std::cos(angle), -std::sin(angle)) * r;
        if (i == 0) over.moveTo(at);
        else over.lineTo(at);
    }
    painter.drawPath(over);
}

void PowerStation::paint_spring(QPainter& painter, const DerivedDrive& power, const QRectF& room, Dimensions& sizes) {
    const Theme& t = inks(painter);
    constexpr double figures_high = 48;
    const double radius = std::min(room.width(), room.height() - figures_high) / 2 * 0.88;
    const QPointF middle(room.left() + std::max(radius * 1.12, room.width() * 0.46), room.top() + radius * 1.08);
    paint_barrel(painter, power, middle, radius);
    sizes.group(words("barrel"), middle + QPointF(radius * 0.75, -radius * 0.7), {"barrel_bore_mm", "barrel_height_mm", "arbor_mm"});
    sizes.group(words("strip"), middle + QPointF(radius * 0.92, radius * 0.2),
                {"width_mm", "thickness_mm", "length_mm", "opened_diameter_mm"});
    if (!power.spring) return write_missing(painter, power, room.adjusted(0, room.height() - figures_high, 0, 0));
    double x = room.left() + 4;
    const auto figure = [&](const QString& value, const QString& name, const QColor& ink) {
        const double y = room.bottom() - figures_high + 22;
        write(painter, type(Type::figure, true), ink, {x, y}, value);
        const double wide = (room.width() - 6) / 3;
        write(painter, type(Type::note), t.steel, {x, y + 15}, elided(type(Type::note), name, wide - 6));
        x += wide;
    };
    const SpringSizeResult& s = *power.spring;
    const bool enough = !power.turns || s.turns >= *power.turns;
    figure(QString::number(s.turns, 'f', 1), words("turns it gives"), enough ? t.ink : t.ruby);
    figure(words("%1 %").arg(100 * s.fill, 0, 'f', 0), words("of the room"), s.fills_well() ? t.ink : t.amber);
    figure(words("%1 mm").arg(s.length_mm, 0, 'f', 0), words("of strip"), t.ink);
}

/// The fusee from the side, standing on its great wheel: the radii a quarter turn apart, small end up.
struct PowerStation::Cone {
    const DerivedDrive& power;
    QPointF top;
    double px, pitch, quarters;
    QPointF barrel;
    double barrel_radius;
    double foot() const { return top.y() + quarters * pitch; }
    double radius(size_t quarter) const { return power.cone_mm[std::min(quarter, power.cone_mm.size() - 1)] * px; }
    QPointF at(double quarter) const { return top + QPointF(0, quarter * pitch); }
};

void PowerStation::paint_fusee(QPainter& painter, const DerivedDrive& power, const FuseeDrive& drive, const QRectF& room,
                               Dimensions& sizes) {
    const Theme& t = inks(painter);
    const double radius = std::min(room.width() * 0.235, room.height() * 0.34);
    const QPointF barrel(room.left() + radius * 1.16, room.center().y() - 10);
    paint_barrel(painter, power, barrel, radius);
    sizes.group(words("barrel"), barrel + QPointF(radius * 0.3, -radius * 1.04),
                {"barrel_bore_mm", "barrel_diameter_mm", "barrel_height_mm", "arbor_mm"});
    sizes.group(words("strip"), barrel + QPointF(radius * 0.9, radius * 0.3),
                {"width_mm", "thickness_mm", "length_mm", "opened_diameter_mm"});
    if (power.cone_mm.size() < 2) {
        write_wrapped(painter, type(Type::text), t.steel, {room.left() + radius * 2.6, room.top() + 8}, room.width() - radius * 2.6,
                      words("The fusee's ends and the barrel's outside give its picture."));
        return;
    }
    Cone cone{power,  {},           radius * 1.09 / (*drive.barrel_diameter_mm / 2), 0, static_cast<double>(power.cone_mm.size() - 1),
              barrel, radius * 1.13};
    cone.pitch = std::min(9.0, room.height() * 0.6 / (cone.quarters / 4)) / 4;
    const double large = cone.radius(power.cone_mm.size() - 1);
    cone.top = {room.right() - large * 1.25 - 4, room.center().y() - 14 - cone.quarters * cone.pitch / 2};
    sizes.group(words("fusee"), cone.at(cone.quarters * 0.8) + QPointF(cone.radius(power.cone_mm.size() - 1) * 0.9, 0),
                {"large_diameter_mm", "small_diameter_mm", "line_diameter_mm", "chain_thickness_mm"});
    paint_cone(painter, cone);
    paint_chain(painter, cone);
    if (!power.cone_measured)
        write(painter, type(Type::note), t.steel, {cone.top.x(), cone.foot() + 24}, words("as a straight spring wants"), 0);
}

void PowerStation::paint_cone(QPainter& painter, const Cone& cone) {
    const Theme& t = inks(painter);
    const size_t count = cone.power.cone_mm.size();
    QPolygonF side;
    for (size_t q = 0; q < count; ++q) side << cone.at(static_cast<double>(q)) + QPointF(cone.radius(q), 0);
    for (size_t q = count; q-- > 0;) side << cone.at(static_cast<double>(q)) - QPointF(cone.radius(q), 0);
    const double large = cone.radius(count - 1);
    painter.setPen(QPen(t.brass, 1));
    painter.setBrush(t.pale_brass);
    painter.drawRect(QRectF(cone.top.x() - large * 1.25, cone.foot(), large * 2.5, 9));
    painter.setPen(QPen(t.brass, 1.2, cone.power.cone_measured ? Qt::SolidLine : Qt::DashLine));
    painter.drawPolygon(side);
    painter.setPen(QPen(t.brass, 0.8));
    for (size_t q = 4; q < count; q += 4) {
        const QPointF at = cone.at(static_cast<double>(q)), out(cone.radius(q), 0);
        painter.drawLine(at - out, at + out);
    }
    painter.setPen(QPen(t.ink, 1));
    painter.setBrush(t.steel);
    painter.drawRect(QRectF(cone.top.x() - 5, cone.top.y() - 18, 10, 18));
}

/// Wound, the chain lies on the cone up to its small end; run down it has gone over to the barrel. The stop arm comes in at the
/// small end.
void PowerStation::paint_chain(QPainter& painter, const Cone& cone) {
    const Theme& t = inks(painter);
    const double run_quarters = (1 - m_wound) * cone.quarters;
    const auto next = static_cast<size_t>(std::ceil(run_quarters));
    painter.setPen(QPen(t.ink, 2));
    for (size_t q = cone.power.cone_mm.size() - 1; q >= next && q > 0; --q) {
        const QPointF at = cone.at(static_cast<double>(q)), out(cone.radius(q), 0);
        if (q % 4 == 0 || q == next) painter.drawLine(at - out, at + out);
    }
    const double here = cone.radius(next);
    painter.drawLine(cone.at(run_quarters) - QPointF(here, 0), cone.barrel + QPointF(0.8, -0.6) * cone.barrel_radius);
    // What lies on the barrel by now, turn by turn round it.
    const double on_barrel = cone.power.barrel_along[std::min(next, cone.power.barrel_along.size() - 1)];
    for (int turn = 0; on_barrel - turn > 0.01; ++turn) {
        const double ring = cone.barrel_radius + 1.6 * turn;
        painter.drawArc(QRectF(cone.barrel - QPointF(ring, ring), QSizeF(2 * ring, 2 * ring)), 37 * 16,
                        static_cast<int>(std::min(1.0, on_barrel - turn) * 360 * 16));
    }
    write(painter, type(Type::note), t.steel, cone.barrel + QPointF(0, cone.barrel_radius + 28),
          words("%1 turns of chain on it").arg(on_barrel, 0, 'f', 1), 0);
    const bool stops = m_wound > 0.999;
    painter.setPen(QPen(stops ? t.ruby : t.steel, 2));
    painter.drawLine(cone.top + QPointF(here + 26, -6), cone.top + QPointF(stops ? 6 : 16, -6));
    write(painter, type(Type::note), stops ? t.ruby : t.steel, cone.top + QPointF(here + 26, -12), stops ? words("stops") : words("stop"),
          1);
}

/// Torque from one rewind to the next, as a saw, and how often.
void PowerStation::paint_rewind(QPainter& painter, const DerivedDrive& power, const RewoundDrive& drive, const QRectF& room,
                                Dimensions& sizes) {
    sizes.group(words("rewinding"), room.topRight() + QPointF(-30, 40), {"rewind_minutes", "torque_wound_N_mm", "torque_before_N_mm"});
    sizes.group(words("coil and contacts"), room.topRight() + QPointF(-30, 90),
                {"continuity_ohm", "continuity_wanted_ohm", "insulation_Mohm", "contact_gf"});
    if (!power.rewind) return write_missing(painter, power, room);
    const Theme& t = inks(painter);
    const QRectF box(room.left() + 8, room.top() + 20, room.width() - 30, room.height() * 0.4);
    constexpr int teeth = 4;
    const double falls = power.rewind->flatness;
    QPainterPath saw(box.bottomLeft());
    for (int i = 0; i < teeth; ++i) {
        const double x0 = box.left() + box.width() * i / teeth, x1 = box.left() + box.width() * (i + 1) / teeth;
        saw.lineTo(x0, box.top());
        saw.lineTo(x1, box.top() + box.height() * std::min(0.9, falls));
    }
    saw.lineTo(box.bottomRight());
    painter.setPen(QPen(t.blued, 2));
    painter.setBrush(t.pale_brass);
    painter.drawPath(saw);
    write(painter, type(Type::head, true), t.ink, {box.left(), box.bottom() + 30},
          words("every %1 min").arg(*drive.rewind_minutes, 0, 'f', 1));
    write(painter, type(Type::note), t.steel, {box.left(), box.bottom() + 46},
          words("%1 J each time, %2 J a day")
              .arg(words(print_short(power.rewind->energy_J, 3)), words(print_short(power.rewind->energy_day_J, 3))));
    double y = box.bottom() + 58;
    for (const RewindCheck& check : power.rewind->checked)
        y += write_wrapped(painter, type(Type::text), check.forbids ? t.ruby : t.ink, {box.left(), y}, box.width(), words(check.sentence)) +
             4;
}

}  // namespace echappe
