#include "stations/strike/count_picture.h"

#include <QPainterPath>
#include <QTransform>
#include <algorithm>
#include <cmath>

#include "drawing/lettering.h"
#include "number/constants.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double click_px = 11;  // half of a spot that answers

template <class Number>
bool tried(const std::vector<StrikeFault>& faults, const char* what, std::optional<Number> StrikeFault::*which, long long number) {
    return std::any_of(faults.begin(), faults.end(), [&](const StrikeFault& one) { return one.what == what && one.*which == number; });
}

QPolygonF outline_of(const std::vector<Point>& points, double px) {
    QPolygonF out;
    for (const Point& p : points) out << QPointF(p[0] * px, -p[1] * px);
    return out;
}

QRectF spot_at(QPointF at) { return {at - QPointF(click_px, click_px), QSizeF(2 * click_px, 2 * click_px)}; }

/// The detent's arm from its arbor at the right, its beak over the top of the wheel: `tip` is the beak's end.
QRectF paint_detent(QPainter& painter, QPointF tip, double radius, bool locked, bool late) {
    const Theme& t = inks(painter);
    const QPointF arbor(tip.x() + 1.15 * radius, tip.y() - 0.08 * radius - (locked ? 0 : 4)), elbow(tip.x(), tip.y() - 0.14 * radius);
    for (const auto& [ink, wide] : {std::pair{late ? t.ruby : t.ink, 9.0}, {t.steel, 7.0}}) {
        painter.setPen(QPen(ink, wide, Qt::SolidLine, Qt::RoundCap, Qt::MiterJoin));
        painter.drawLine(arbor, elbow);
        painter.setPen(QPen(ink, wide - 2, Qt::SolidLine, Qt::FlatCap));
        painter.drawLine(elbow, tip);
    }
    painter.setPen(QPen(t.ink, 1.4));
    painter.setBrush(t.sheet);
    painter.drawEllipse(arbor, 5, 5);
    return QRectF(QPointF(elbow.x() + click_px, elbow.y() - click_px), QPointF(arbor.x() + click_px, elbow.y() + click_px));
}

/// The pallet that gathers a tooth with each turn: its nose in the rack, or turned away where it is locked.
void paint_gathering(QPainter& painter, QPointF at, bool in_rack) {
    const Theme& t = inks(painter);
    const QPointF nose = in_rack ? QPointF(-17, 3) : QPointF(4, -17), side = in_rack ? QPointF(0, 5) : QPointF(5, 0);
    painter.setPen(QPen(t.brass, 1));
    painter.setBrush(t.pale_brass);
    painter.drawPolygon(QPolygonF({at + side, at + nose, at - side}));
    painter.drawEllipse(at, 8, 8);
    painter.setPen(QPen(t.ink, 1.2));
    painter.setBrush(t.sheet);
    painter.drawEllipse(at, 3, 3);
}

}  // namespace

WheelSpots paint_count_wheel(QPainter& painter, const QRectF& room, const CountWheelResult& wheel, const CountWheelInput& sizes,
                             const std::vector<StrikeFault>& faults, long long blows, bool locked, Dimensions& dimensions) {
    const Theme& t = inks(painter);
    const double radius_mm = *sizes.diameter_mm / 2, px = std::min(room.width() / 2.6, room.height() / 2.4) / radius_mm;
    const double radius = radius_mm * px, depth = wheel.detent_lift_mm.value_or(0) * px;
    const QPointF middle(room.center().x(), room.bottom() - radius - 6);
    // It turns clockwise, what is under the detent stands at the top.
    const double turn = turned_deg(wheel, blows);
    const auto at = [&](double deg, double r) {
        const double a = (90 + deg - turn) * rad_per_deg;
        return middle + QPointF(r * std::cos(a), -r * std::sin(a));
    };
    QTransform stands;
    stands.translate(middle.x(), middle.y());
    stands.rotate(turn - 90);
    painter.setPen(QPen(t.brass, 1));
    painter.setBrush(t.pale_brass);
    painter.drawPolygon(stands.map(outline_of(wheel.outline, px)));
    painter.setBrush(t.ground);
    painter.drawEllipse(middle, 0.06 * radius, 0.06 * radius);
    std::vector<StrikeSpot> spots;
    for (size_t i = 0; i < wheel.groups.size(); ++i) {
        const CountWheelGroup& group = wheel.groups[i];
        const auto slot = static_cast<long long>(i) + 1;
        if (tried(faults, "slot wide", &StrikeFault::slot, slot)) {
            painter.setPen(QPen(t.amber, 4, Qt::SolidLine, Qt::FlatCap));
            for (double back = 0; back <= 1; back += 0.1)
                painter.drawLine(at(group.slot_deg - back * wheel.unit_deg, radius),
                                 at(group.slot_deg - back * wheel.unit_deg, radius - depth));
        }
        if (tried(faults, "slot shallow", &StrikeFault::slot, slot)) {
            painter.setPen(QPen(t.ruby, 5, Qt::SolidLine, Qt::FlatCap));
            painter.drawLine(at(group.slot_deg, radius), at(group.slot_deg, radius - depth));
        }
        // A number where there is room for it.
        const double between = (group.to_deg - group.from_deg) * rad_per_deg * (radius - depth - 12);
        if (between > 12)
            write(painter, type(Type::note, true), t.brass_ink,
                  at((group.from_deg + group.to_deg) / 2, radius - depth - 12) + QPointF(0, 5), QString::number(group.blows), 0);
        spots.push_back({spot_at(at(group.slot_deg, radius - depth / 2)), slot});
    }
    dimensions.at("slot_width_mm", middle + QPointF(0.06 * radius, -radius + 0.3 * depth));
    dimensions.at("depth_mm", middle + QPointF(0.06 * radius, -radius + depth));
    dimensions.at("diameter_mm", middle + radius * QPointF(0.94, -0.34));
    dimensions.at("bore_mm", middle + QPointF(0.06 * radius, 0));
    const bool late = std::any_of(faults.begin(), faults.end(), [](const StrikeFault& fault) { return fault.what == "detent late"; });
    return {spots, paint_detent(painter, middle - QPointF(0, locked ? radius - depth + 1 : radius), radius, locked, late)};
}

RackSpots paint_rack(QPainter& painter, const QRectF& room, const SnailResult& snail, const SnailInput& sizes,
                     const std::vector<StrikeFault>& faults, const RackStand& stand, Dimensions& dimensions) {
    const Theme& t = inks(painter);
    const double tail_mm = sizes.tail_mm, centre_mm = centre_or_usual_mm(sizes);
    const double sector_mm = 0.95 * tail_mm, wide_mm = sizes.largest_mm + centre_mm + sector_mm;
    // The sector goes up and down by about half of its radius.
    const double high_mm = 2 * std::max(1.15 * sizes.largest_mm, 0.5 * sector_mm);
    const double px = std::min(room.width() * 0.94 / wide_mm, room.height() * 0.96 / high_mm);
    const double left = room.center().x() - wide_mm * px / 2;
    const QPointF snail_at(left + sizes.largest_mm * px, room.center().y()), rack_at = snail_at + QPointF(centre_mm * px, 0);
    const double pitch = sizes.tooth_pitch_deg * rad_per_deg;
    const QPointF pin = rack_at + tail_mm * px * QPointF(-std::cos(stand.tail_rad), -std::sin(stand.tail_rad));
    // The snail is shown with this step under the tail's pin.
    const QPointF to_pin = pin - snail_at;
    const double sector_deg = 360.0 / static_cast<double>(snail.steps.size());
    const double towards = std::atan2(-to_pin.y(), to_pin.x()) / rad_per_deg,
                 turn = towards - (static_cast<double>(stand.step) + 0.5) * sector_deg;
    QTransform stands;
    stands.translate(snail_at.x(), snail_at.y());
    stands.rotate(-turn);
    painter.setPen(QPen(t.brass, 1));
    painter.setBrush(t.pale_brass);
    painter.drawPolygon(stands.map(outline_of(snail.outline, px)));
    painter.setBrush(t.ground);
    painter.drawEllipse(snail_at, 5, 5);
    RackSpots spots;
    for (const SnailStep& step : snail.steps) {
        // Its number inside where there is room, else outside, else nowhere.
        const double a = (turn + (static_cast<double>(step.hour) - 0.5) * sector_deg) * rad_per_deg, radius = step.radius_mm * px;
        constexpr double wide = 19, in = 12, out = 11;
        const bool inside = (radius - in) * sector_deg * rad_per_deg > wide, outside = (radius + out) * sector_deg * rad_per_deg > wide;
        const double r = inside ? radius - in : radius + out;
        const QPointF at = snail_at + QPointF(r * std::cos(a), -r * std::sin(a));
        const bool off = tried(faults, "step off", &StrikeFault::hour, step.hour);
        if (inside || outside)
            write(painter, type(Type::note, true), off ? t.ruby : t.brass_ink, at + QPointF(0, 5), QString::number(step.hour), 0);
        spots.steps.push_back({spot_at(at), step.hour});
    }
    // Tail, and the sector of teeth on the other side; tooth 1 is gathered last.
    for (const auto& [ink, wide] : {std::pair{t.ink, 9.0}, {t.steel, 7.0}}) {
        painter.setPen(QPen(ink, wide, Qt::SolidLine, Qt::RoundCap));
        painter.drawLine(rack_at, pin);
    }
    painter.setPen(QPen(t.ink, 1.2));
    painter.setBrush(t.sheet);
    painter.drawEllipse(pin, std::max(3.0, sizes.pin_diameter_mm / 2 * px), std::max(3.0, sizes.pin_diameter_mm / 2 * px));
    const auto teeth = static_cast<long long>(snail.steps.size()) + 2;
    // As it falls the teeth go up past the gathering pallet, the first one first; that one is gathered last.
    constexpr double pallet_rad = 6 * rad_per_deg;
    const double home = pallet_rad + static_cast<double>(stand.left_to_gather) * pitch, tooth_px = std::min(12.0, sector_mm * px * pitch);
    const auto on_sector = [&](double number, double r) {
        const double a = home - number * pitch;
        return rack_at + r * QPointF(std::cos(a), -std::sin(a));
    };
    QPainterPath blade(rack_at);
    const double rim = sector_mm * px;
    for (double k = -0.5; k <= static_cast<double>(teeth) + 0.5; k += 0.5) blade.lineTo(on_sector(k, rim));
    blade.closeSubpath();
    painter.setPen(QPen(t.ink, 1));
    painter.setBrush(t.steel);
    painter.drawPath(blade);
    for (long long tooth = 1; tooth <= teeth; ++tooth) {
        const auto number = static_cast<double>(tooth) - 0.5;
        const bool lost = tried(faults, "tooth lost", &StrikeFault::tooth, tooth);
        const QPolygonF shape({on_sector(number - 0.45, rim), on_sector(number - 0.1, rim + tooth_px), on_sector(number + 0.45, rim)});
        painter.setPen(QPen(lost ? t.ruby : t.ink, lost ? 1.6 : 1, lost ? Qt::DotLine : Qt::SolidLine));
        painter.setBrush(lost ? QBrush(Qt::NoBrush) : QBrush(t.steel));
        painter.drawPolygon(shape);
        spots.teeth.push_back({QRectF(shape.boundingRect()).adjusted(-2, -2, 2, 2), tooth});
    }
    painter.setPen(QPen(t.ink, 1.4));
    painter.setBrush(t.sheet);
    painter.drawEllipse(rack_at, 5, 5);
    dimensions.at("tooth_pitch_deg", on_sector(1.5, rim + tooth_px));
    dimensions.at("centre_distance_mm", rack_at);
    dimensions.at("tail_mm", (rack_at + pin) / 2);
    dimensions.at("pin_diameter_mm", pin);
    dimensions.at("largest_mm", snail_at + QPointF(0, snail.steps.front().radius_mm * px * 0.9));
    dimensions.at("bore_mm", snail_at + QPointF(4, 3));
    paint_gathering(painter, rack_at + (rim + tooth_px + 11) * QPointF(std::cos(pallet_rad), -std::sin(pallet_rad)), !stand.locked);
    return spots;
}

}  // namespace echappe
