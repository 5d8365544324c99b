#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "number/units.h"
#include "stations/power/power_station.h"
#include "theme/theme.h"

namespace echappe {

void PowerStation::paint_drive(QPainter& painter, const DerivedDrive& power, const QRectF& room) {
    const Theme& t = theme();
    const DriveRecord& drive = power.drive;
    const QString title = drive.as<WeightDrive>()   ? tr("WEIGHT AND LINE")
                          : drive.as<SpringDrive>() ? tr("SPRING IN ITS BARREL")
                          : drive.as<FuseeDrive>()  ? tr("BARREL AND FUSEE")
                                                    : tr("REWOUND EVERY FEW MINUTES");
    write(painter, word_font(8.5, true), t.steel, {room.left() + 2, room.top() + 26}, title);
    const double turns = power.turns.value_or(0);
    constexpr double roomy = 240;
    write(painter, word_font(9), t.steel, {room.left() + 2, room.top() + 42},
          room.width() > roomy ? tr("drag it, or ← winds and → lets down") : tr("drag it, or ← winds, → lets down"));
    m_picture = room.adjusted(0, 56, 0, -44);
    if (const auto* weight = drive.as<WeightDrive>()) paint_weight(painter, power, *weight, m_picture);
    if (drive.as<SpringDrive>()) paint_spring(painter, power, m_picture);
    if (const auto* fusee = drive.as<FuseeDrive>()) paint_fusee(painter, power, *fusee, m_picture);
    if (const auto* rewound = drive.as<RewoundDrive>()) paint_rewind(painter, power, *rewound, m_picture);
    if (turns > 0)
        write(painter, figure_font(13), t.blued, {room.left() + 2, room.bottom() - 14},
              tr("%1 of %2 turns left").arg(m_wound * turns, 0, 'f', 1).arg(turns, 0, 'f', 1));
}

void PowerStation::paint_weight(QPainter& painter, const DerivedDrive& power, const WeightDrive& drive, const QRectF& room) {
    const Theme& t = theme();
    if (!power.weight) {
        write_wrapped(painter, word_font(10.5), t.steel, room.topLeft() + QPointF(2, 10), room.width() - 20,
                      tr("To be given: %1.").arg(words(power.missing)));
        return;
    }
    const WeightDriveResult& w = *power.weight;
    const double space_mm = std::max(drive.room_mm.value_or(w.fall_mm), w.fall_mm);
    const double drum = std::clamp(*drive.drum_diameter_mm * 0.75, 26.0, 54.0);
    const QPointF axis(room.left() + room.width() * 0.38, room.top() + drum / 2 + 6);
    const double top = axis.y() + drum / 2 + 26;
    const double px = (room.bottom() - 52 - top) / space_mm;
    const double fallen = (1 - m_wound) * w.fall_mm;
    // The room it has, and what one winding takes of it.
    const double scale_x = room.left() + 14;
    painter.setPen(QPen(t.steel, 1));
    painter.drawLine(QPointF(scale_x, top), QPointF(scale_x, top + space_mm * px));
    const QColor fits = w.fall_mm <= space_mm + 1e-9 && w.warnings.empty() ? t.verdigris : t.amber;
    painter.fillRect(QRectF(scale_x - 3, top, 6, w.fall_mm * px), fits);
    // Beside their marks, but below where a short scale would have them run into the weight.
    const bool short_scale = space_mm * px < 120;
    write(painter, word_font(9), t.ink, {scale_x + 10, short_scale ? room.bottom() - 24 : top + w.fall_mm * px - 4},
          tr("falls %1 mm").arg(w.fall_mm, 0, 'f', 0));
    if (drive.room_mm)
        write(painter, word_font(8.5), t.steel, {scale_x + 10, short_scale ? room.bottom() - 10 : top + *drive.room_mm * px + 12},
              tr("room %1 mm").arg(*drive.room_mm, 0, 'f', 0));
    // Drum, wound line over it.
    painter.setPen(QPen(t.brass, 1.2));
    painter.setBrush(t.pale_brass);
    painter.drawEllipse(axis, drum / 2, drum / 2);
    painter.setPen(QPen(t.ink, 1.4));
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(axis, drum / 2 + 2.5, drum / 2 + 2.5);
    painter.setBrush(t.steel);
    painter.drawEllipse(axis, 3, 3);
    const double y = top + fallen * px;
    const bool pulley = drive.moving_pulleys > 0;
    const double line_x = axis.x() + drum / 2 + 2.5;
    const double body_x = pulley ? line_x + 11 : line_x;
    painter.setPen(QPen(t.ink, 1.4));
    painter.drawLine(QPointF(line_x, axis.y()), QPointF(line_x, y));
    if (pulley) {
        painter.drawLine(QPointF(line_x + 22, room.top() - 4), QPointF(line_x + 22, y));
        painter.drawLine(QPointF(line_x + 14, room.top() - 4), QPointF(line_x + 30, room.top() - 4));
        painter.setBrush(t.sheet);
        painter.drawEllipse(QPointF(body_x, y), 11, 11);
    }
    const QRectF body(body_x - 15, y + (pulley ? 14 : 2), 30, 46);
    painter.setPen(QPen(t.brass, 1.2));
    painter.setBrush(t.pale_brass);
    painter.drawRoundedRect(body, 4, 4);
    write(painter, figure_font(13), t.ink, {body.right() + 10, body.center().y() + 2}, tr("%1 kg").arg(*drive.weight_kg, 0, 'f', 2));
    if (w.weight_least_kg)
        write_wrapped(painter, word_font(9.5, true), w.judged == WeightVerdict::right ? t.verdigris : t.amber,
                      {body.right() + 10, body.center().y() + 7}, room.right() - body.right() - 10,
                      tr("%1 to %2 kg is right").arg(*w.weight_least_kg, 0, 'f', 2).arg(*w.weight_most_kg, 0, 'f', 2));
    write(painter, word_font(9), t.ink, {axis.x() + drum / 2 + 44, axis.y() + 4},
          tr("drum ⌀ %1 mm").arg(*drive.drum_diameter_mm, 0, 'f', 1));
    if (w.layers > 1)
        write(painter, word_font(8.5), t.amber, {axis.x() + drum / 2 + 44, axis.y() + 19}, tr("%1 layers of line").arg(w.layers));
}

void PowerStation::paint_barrel(QPainter& painter, const DerivedDrive& power, QPointF middle, double radius) {
    const Theme& t = theme();
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
    const Coils coils = coils_wound(in, wound);
    const double px = radius / (in.barrel_bore_mm / 2);
    painter.setPen(QPen(t.blued, std::clamp(in.thickness_mm * px * 0.55, 0.7, 2.2)));
    painter.setBrush(Qt::NoBrush);
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
    // What goes over from one pack to the other.
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
    painter.setPen(QPen(t.ink, 1));
    painter.setBrush(t.steel);
    painter.drawEllipse(middle, in.arbor_mm / 2 * px, in.arbor_mm / 2 * px);
    painter.setBrush(t.sheet);
    const double square = in.arbor_mm / 2 * px * 0.45;
    painter.drawRect(QRectF(middle - QPointF(square, square), QSizeF(2 * square, 2 * square)));
}

void PowerStation::paint_spring(QPainter& painter, const DerivedDrive& power, const QRectF& room) {
    const Theme& t = theme();
    const double radius = std::min(room.width(), room.height()) / 2 * 0.84;
    paint_barrel(painter, power, {room.left() + radius * 1.14, room.center().y()}, radius);
    if (!power.spring) {
        write_wrapped(painter, word_font(10.5), t.steel, room.topLeft() + QPointF(2, 4), room.width() - 20,
                      tr("To be given: %1.").arg(words(power.missing)));
        return;
    }
    const double x = room.left() + radius * 2.34;
    double y = room.center().y() - 58;
    const auto figure = [&](const QString& value, const QString& name, const QColor& ink) {
        write(painter, figure_font(13), ink, {x, y}, value);
        write(painter, word_font(8.5), t.steel, {x, y + 14}, name);
        y += 40;
    };
    const SpringSizeResult& s = *power.spring;
    const bool enough = !power.turns || s.turns >= *power.turns;
    figure(QString::number(s.turns, 'f', 1), tr("turns it gives"), enough ? t.ink : t.ruby);
    figure(tr("%1 %").arg(100 * s.fill, 0, 'f', 0), tr("of the room"), s.fill >= 0.45 && s.fill <= 0.6 ? t.ink : t.amber);
    figure(tr("%1 mm").arg(s.length_mm, 0, 'f', 0), tr("of strip"), t.ink);
}

void PowerStation::paint_fusee(QPainter& painter, const DerivedDrive& power, const FuseeDrive& drive, const QRectF& room) {
    const Theme& t = theme();
    const double radius = std::min(room.width() * 0.25, room.height() * 0.34);
    const QPointF barrel(room.left() + radius * 1.16, room.center().y() - 10);
    paint_barrel(painter, power, barrel, radius);
    if (power.cone_mm.size() < 2) {
        write_wrapped(painter, word_font(10), t.steel, {room.left() + radius * 2.6, room.top() + 8}, room.width() - radius * 2.6,
                      tr("The fusee's ends and the barrel's outside give its picture."));
        return;
    }
    // The cone from the side, standing on its great wheel: the radii a quarter turn apart, small end up.
    const double px = radius * 1.09 / (*drive.barrel_diameter_mm / 2);
    const auto quarters = static_cast<double>(power.cone_mm.size() - 1);
    const double pitch = std::min(9.0, room.height() * 0.6 / (quarters / 4)) / 4;
    const double large = power.cone_mm.back() * px;
    const QPointF top(room.right() - large - 18, room.center().y() - 14 - quarters * pitch / 2);
    const double foot = top.y() + quarters * pitch;
    QPolygonF cone;
    for (size_t q = 0; q < power.cone_mm.size(); ++q) cone << top + QPointF(power.cone_mm[q] * px, static_cast<double>(q) * pitch);
    for (size_t q = power.cone_mm.size(); q-- > 0;) cone << top + QPointF(-power.cone_mm[q] * px, static_cast<double>(q) * pitch);
    painter.setPen(QPen(t.brass, 1));
    painter.setBrush(t.pale_brass);
    painter.drawRect(QRectF(top.x() - large * 1.25, foot, large * 2.5, 9));
    painter.setPen(QPen(t.brass, 1.2, power.cone_measured ? Qt::SolidLine : Qt::DashLine));
    painter.drawPolygon(cone);
    painter.setPen(QPen(t.brass, 0.8));
    for (size_t q = 4; q < power.cone_mm.size(); q += 4) {
        const QPointF at = top + QPointF(0, static_cast<double>(q) * pitch);
        painter.drawLine(at - QPointF(power.cone_mm[q] * px, 0), at + QPointF(power.cone_mm[q] * px, 0));
    }
    painter.setPen(QPen(t.ink, 1));
    painter.setBrush(t.steel);
    painter.drawRect(QRectF(top.x() - 5, top.y() - 18, 10, 18));
    // Wound, the chain lies on the cone up to its small end; run down it has gone over to the barrel.
    const double run_quarters = (1 - m_wound) * quarters;
    const auto next = static_cast<size_t>(std::ceil(run_quarters));
    painter.setPen(QPen(t.ink, 2));
    for (size_t q = power.cone_mm.size() - 1; q >= next && q > 0; --q) {
        const QPointF at = top + QPointF(0, static_cast<double>(q) * pitch);
        if (q % 4 == 0 || q == next) painter.drawLine(at - QPointF(power.cone_mm[q] * px, 0), at + QPointF(power.cone_mm[q] * px, 0));
    }
    const double here = power.cone_mm[std::min(next, power.cone_mm.size() - 1)] * px;
    painter.drawLine(QPointF(top.x() - here, top.y() + run_quarters * pitch), barrel + QPointF(radius * 1.13 * 0.8, -radius * 1.13 * 0.6));
    // What lies on the barrel by now, turn by turn round it.
    const double on_barrel = power.barrel_along[std::min(next, power.barrel_along.size() - 1)];
    for (int turn = 0; on_barrel - turn > 0.01; ++turn) {
        const double ring = radius * 1.13 + 1.6 * turn;
        painter.drawArc(QRectF(barrel - QPointF(ring, ring), QSizeF(2 * ring, 2 * ring)), 37 * 16,
                        static_cast<int>(std::min(1.0, on_barrel - turn) * 360 * 16));
    }
    write(painter, word_font(9), t.steel, {barrel.x(), barrel.y() + radius * 1.13 + 28},
          tr("%1 turns of chain on it").arg(on_barrel, 0, 'f', 1), 0);
    // The stop arm comes in at the small end.
    painter.setPen(QPen(m_wound > 0.999 ? t.ruby : t.steel, 2));
    painter.drawLine(top + QPointF(here + 26, -6), top + QPointF(m_wound > 0.999 ? 6 : 16, -6));
    write(painter, word_font(8.5), m_wound > 0.999 ? t.ruby : t.steel, top + QPointF(here + 30, -2),
          m_wound > 0.999 ? tr("stops") : tr("stop"));
    write(painter, word_font(9), t.steel, {top.x(), foot + 24},
          tr("⌀ %1 to %2 mm").arg(2 * power.cone_mm.back(), 0, 'f', 1).arg(2 * power.cone_mm.front(), 0, 'f', 1) +
              (power.cone_measured ? QString() : tr(", as a straight spring wants")),
          0);
}

/// Torque from one rewind to the next, as a saw, and how often.
void PowerStation::paint_rewind(QPainter& painter, const DerivedDrive& power, const RewoundDrive& drive, const QRectF& room) {
    const Theme& t = theme();
    if (!power.rewind) {
        write_wrapped(painter, word_font(10.5), t.steel, room.topLeft() + QPointF(2, 10), room.width() - 20,
                      tr("To be given: %1.").arg(words(power.missing)));
        return;
    }
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
    write(painter, figure_font(15), t.ink, {box.left(), box.bottom() + 30}, tr("every %1 min").arg(*drive.rewind_minutes, 0, 'f', 1));
    write(painter, word_font(9), t.steel, {box.left(), box.bottom() + 46},
          tr("%1 J each time, %2 J a day")
              .arg(words(print_short(power.rewind->energy_J, 3)), words(print_short(power.rewind->energy_day_J, 3))));
    double y = box.bottom() + 58;
    for (const RewindCheck& check : power.rewind->checked)
        y +=
            write_wrapped(painter, word_font(9.5), check.forbids ? t.ruby : t.ink, {box.left(), y}, box.width(), words(check.sentence)) + 4;
}

}  // namespace echappe
