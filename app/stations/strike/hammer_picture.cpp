#include "stations/strike/hammer_picture.h"

#include <algorithm>
#include <cmath>

#include "drawing/lettering.h"
#include "drawing/words.h"
#include "number/constants.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double falls_at_deg = 140;  ///< where a pin lets the tail go
constexpr double piece_at_deg = 90;   ///< where the lifting piece meets the warning pin

QPointF on(QPointF middle, double r, double deg) { return middle + r * QPointF(std::cos(deg * rad_per_deg), -std::sin(deg * rad_per_deg)); }

bool has(const StrikeRecord& record, const char* what) {
    return std::any_of(record.faults.begin(), record.faults.end(), [&](const StrikeFault& fault) { return fault.what == what; });
}

void paint_wheel(QPainter& painter, QPointF at, double r) {
    const Theme& t = inks(painter);
    painter.setPen(QPen(t.brass, 1));
    painter.setBrush(t.pale_brass);
    painter.drawEllipse(at, r, r);
    painter.setBrush(t.ground);
    painter.drawEllipse(at, 0.72 * r, 0.72 * r);
    painter.setBrush(t.pale_brass);
    painter.drawEllipse(at, 0.2 * r, 0.2 * r);
    for (int spoke = 0; spoke < 4; ++spoke) {
        painter.setPen(QPen(t.brass, 4));
        painter.drawLine(on(at, 0.2 * r, 45 + 90 * spoke), on(at, 0.74 * r, 45 + 90 * spoke));
    }
    painter.setPen(QPen(t.ink, 1.2));
    painter.setBrush(t.sheet);
    painter.drawEllipse(at, 3, 3);
}

void pin(QPainter& painter, QPointF at, const QColor& ink) {
    painter.setPen(QPen(inks(painter).ink, 1));
    painter.setBrush(ink);
    painter.drawEllipse(at, 4, 4);
}

/// Tail, arbor and head; hanging on a pin the head stands off the bell.
void paint_hammer(QPainter& painter, QPointF tail, QPointF arbor, double reach, bool hangs) {
    const Theme& t = inks(painter);
    const double lean = hangs ? 24 : 0;
    const QPointF head = on(arbor, reach, 76 + lean);
    painter.setPen(QPen(hangs ? t.ruby : t.ink, 4, Qt::SolidLine, Qt::RoundCap));
    painter.drawLine(tail, arbor);
    painter.drawLine(arbor, head);
    painter.setBrush(hangs ? t.ruby : t.ink);
    painter.drawEllipse(head, 8, 8);
    painter.setPen(QPen(t.ink, 1.2));
    painter.setBrush(t.sheet);
    painter.drawEllipse(arbor, 4, 4);
    // The bell, where the head stands when it has just fallen.
    const QPointF bell = on(arbor, reach, 76) + QPointF(12, -2);
    painter.setPen(QPen(t.brass, 2.4));
    painter.setBrush(Qt::NoBrush);
    painter.drawArc(QRectF(bell + QPointF(0, -22), QSizeF(56, 44)), 90 * 16, 180 * 16);
    painter.drawLine(bell + QPointF(28, -22), bell + QPointF(28, 22));
}

}  // namespace

std::vector<HammerSpot> paint_hammer_work(QPainter& painter, const QRectF& room, const StrikeRecord& record, bool locked) {
    const Theme& t = inks(painter);
    const double r = std::min(0.27 * room.width(), 0.2 * room.height());
    const QPointF pins_at(room.left() + 0.6 * room.width(), room.top() + 0.47 * room.height());
    const QPointF warns_at(room.left() + 0.6 * room.width(), room.bottom() - 0.72 * r - 8);
    const bool hangs = has(record, "mesh off") && locked, short_run = has(record, "warning short");
    const auto count = std::clamp<long long>(record.pins.value_or(8), 2, 40);
    const double pitch = 360.0 / static_cast<double>(count);

    paint_wheel(painter, pins_at, r);
    constexpr double just_fallen = 0.9, on_the_lift = 0.12;
    for (long long k = 0; k < count; ++k)
        pin(painter, on(pins_at, 0.86 * r, falls_at_deg + ((hangs ? on_the_lift : just_fallen) + static_cast<double>(k)) * pitch),
            hangs && k == 0 ? t.ruby : t.steel);
    const QPointF arbor = on(pins_at, r + 34, falls_at_deg - 6);
    paint_hammer(painter, on(pins_at, 0.86 * r, falls_at_deg + (hangs ? 4 : 0)), arbor, 1.15 * r, hangs);
    // The second hammer of a pair is let go half a pitch after the first, by the pins' other ends.
    if (record.hammers == 2)
        paint_hammer(painter, on(pins_at, 0.86 * r, falls_at_deg + pitch / 2), on(pins_at, r + 34, falls_at_deg + 26), 0.8 * r, false);
    write(painter, type(Type::note), t.steel, pins_at + QPointF(-r - 8, 20), words("pin wheel"), 1);

    const double w = 0.72 * r;
    paint_wheel(painter, warns_at, w);
    constexpr double half_turn = 180, too_short = 14;
    const double run = short_run ? too_short : half_turn;
    pin(painter, on(warns_at, 0.84 * w, piece_at_deg - run), short_run ? t.ruby : locked ? t.steel : t.verdigris);
    // The lifting piece, from its arbor at the right.
    painter.setPen(QPen(t.ink, 4, Qt::SolidLine, Qt::RoundCap, Qt::MiterJoin));
    const QPointF nose = on(warns_at, 0.84 * w, piece_at_deg) - QPointF(0, locked ? 10 : 3), elbow = nose - QPointF(0, 12);
    painter.drawPolyline(QPolygonF({nose, elbow, elbow + QPointF(1.7 * w, 4)}));
    painter.setPen(QPen(t.ink, 1.2));
    painter.setBrush(t.sheet);
    painter.drawEllipse(elbow + QPointF(1.7 * w, 4), 4, 4);
    write(painter, type(Type::note), t.steel, warns_at + QPointF(-w - 8, 6), words("warning"), 1);
    const auto around = [](QPointF at, double half) { return QRectF(at - QPointF(half, half), QSizeF(2 * half, 2 * half)); };
    return {{around(pins_at, r), "mesh off"}, {around(warns_at, w), "warning short"}};
}

}  // namespace echappe
