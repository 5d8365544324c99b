#include "stations/beat/beats_round.h"

#include <algorithm>
#include <cmath>

#include "drawing/wheel_art.h"
#include "drawing/words.h"
#include "number/constants.h"
#include "number/units.h"
#include "sheet/marks.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double circle = 0.72;        ///< of the room, where a beat in time lies
constexpr double latest_reach = 0.25;  ///< of the room, for the latest
constexpr size_t most_shown = 3000;

}  // namespace

BeatsRound::BeatsRound(QPainter& painter, const QRectF& room, const BeatAnalysisResult& told, const LaidRound& wheel,
                       const EscapeWheelResult* escape)
    : m_painter(painter),
      m_told(told),
      m_wheel(wheel),
      m_escape(escape),
      m_places(places_of(told, wheel)),
      m_centre(room.center()),
      m_radius(std::min(room.width(), room.height()) / 2) {
    const double most = most_late_ms(told, m_places);
    m_px_per_ms = latest_reach * m_radius / most;
    m_ring_ms = round_below(most);
}

QPointF BeatsRound::at(double turn, double late_ms) const {
    const double out = circle * m_radius + std::clamp(late_ms * m_px_per_ms, -latest_reach * m_radius, (1 - circle) * m_radius);
    return m_centre + QPointF(out * std::sin(2 * pi * turn), -out * std::cos(2 * pi * turn));
}

void BeatsRound::paint() {
    m_painter.setRenderHint(QPainter::Antialiasing);
    paint_wheel();
    paint_rings();
    paint_beats();
    paint_middle();
}

void BeatsRound::paint_wheel() {
    const Theme& t = inks(m_painter);
    const double radius = (circle - latest_reach - 0.02) * m_radius;
    m_painter.save();
    m_painter.translate(m_centre);
    m_painter.setPen(QPen(t.brass, 1));
    m_painter.setBrush(t.pale_brass);
    if (m_wheel.escape && m_wheel.teeth > 1) {
        QTransform upright;
        upright.rotate(-90).scale(1, -1);
        if (m_escape) {
            const double scale = 2 * radius / m_escape->outside_diameter_mm;
            m_painter.drawPath(upright.scale(scale, scale).map(WheelArt::escape_wheel(*m_escape)));
        } else {
            m_painter.drawPath(upright.map(WheelArt::escape_wheel(m_wheel.teeth, radius)));
        }
    } else {
        QPainterPath ring;
        ring.addEllipse(QPointF(), radius, radius);
        ring.addEllipse(QPointF(), 0.82 * radius, 0.82 * radius);
        m_painter.drawPath(ring);
        for (long long tooth = 0; tooth < m_wheel.teeth; ++tooth) {
            const double a = 2 * pi * static_cast<double>(tooth) / static_cast<double>(m_wheel.teeth);
            m_painter.drawLine(radius * QPointF(std::sin(a), -std::cos(a)), 1.04 * radius * QPointF(std::sin(a), -std::cos(a)));
        }
    }
    m_painter.restore();
}

/// The circle of what is in time, and one each way with its size.
void BeatsRound::paint_rings() {
    const Theme& t = inks(m_painter);
    m_painter.setBrush(Qt::NoBrush);
    const double radius = circle * m_radius, ring = m_ring_ms * m_px_per_ms;
    m_painter.setPen(QPen(t.steel, 1.2));
    m_painter.drawEllipse(m_centre, radius, radius);
    if (m_places.empty()) return;
    m_painter.setPen(QPen(t.rule, 1, Qt::DashLine));
    for (const double side : {-1.0, 1.0}) m_painter.drawEllipse(m_centre, radius + side * ring, radius + side * ring);
}

void BeatsRound::write_sizes() {
    if (m_places.empty()) return;
    const Theme& t = inks(m_painter);
    const double radius = circle * m_radius, ring = m_ring_ms * m_px_per_ms;
    const QString size = words(print_short(m_ring_ms, 2));
    // At the top, or where a bad tooth stands there, at the foot.
    constexpr double near_top = 0.06;
    const bool taken = std::any_of(m_places.begin(), m_places.end(),
                                   [](const TurnPlace& place) { return place.bad && std::abs(std::remainder(place.turn, 1)) < near_top; });
    const double way = taken ? 1 : -1;
    on_paper(m_painter, type(Type::note), t.steel, m_centre + QPointF(0, way * (radius + ring) + 4), words("%1 ms late").arg(size));
    on_paper(m_painter, type(Type::note), t.steel, m_centre + QPointF(0, way * (radius - ring) + 4), words("%1 ms early").arg(size));
}

void BeatsRound::paint_beats() {
    const Theme& t = inks(m_painter);
    const size_t count = m_told.late_ms.size(), first = count > most_shown ? count - most_shown : 0;
    QPolygonF old, fresh;
    const double fresh_from_s = count ? m_told.beat_times_s.back() - m_wheel.period_s : 0;
    for (size_t i = first; i < count; ++i)
        (m_told.beat_times_s[i] > fresh_from_s ? fresh : old)
            << at(m_wheel.turn_of(m_told.beat_numbers[i], m_told.beat_times_s[i]), m_told.late_ms[i]);
    QColor faint = t.steel;
    faint.setAlphaF(0.45f);
    m_painter.setPen(QPen(faint, 3, Qt::SolidLine, Qt::RoundCap));
    m_painter.drawPoints(old);
    m_painter.setPen(QPen(t.blued, 4.5, Qt::SolidLine, Qt::RoundCap));
    m_painter.drawPoints(fresh);
}

/// The middle of every place, over all turns: what is left when chance is out.
void BeatsRound::paint_middle() {
    const Theme& t = inks(m_painter);
    if (m_places.size() < 3) return;
    m_painter.setPen(QPen(t.verdigris, 2));
    m_painter.setBrush(Qt::NoBrush);
    // Where a part of the turn was not heard yet, there is no line.
    const double step = 1.5 / static_cast<double>(m_wheel.places());
    for (size_t i = 0; i < m_places.size(); ++i) {
        const TurnPlace &here = m_places[i], &next = m_places[(i + 1) % m_places.size()];
        const double on = next.turn - here.turn + (next.turn < here.turn ? 1 : 0);
        if (on < step) m_painter.drawLine(at(here.turn, here.late_ms), at(next.turn, next.late_ms));
    }
    for (const TurnPlace& place : m_places) {
        if (!place.bad) continue;
        m_painter.setPen(QPen(t.ruby, 2.4));
        m_painter.drawEllipse(at(place.turn, place.late_ms), 8, 8);
    }
}

void BeatsRound::paint_hand(double turn) {
    m_painter.setPen(QPen(inks(m_painter).blued, 1.6));
    m_painter.drawLine(m_centre + 0.1 * (at(turn, 0) - m_centre), at(turn, 0));
}

namespace {

/// Where milliseconds and loudness lie in its room.
struct Hills {
    static constexpr double from_ms = -20, to_ms = 30;
    const QRectF& room;
    double middle() const { return room.center().y() - 6; }
    double high() const { return room.height() / 2 - 12; }
    double x(double ms) const { return room.left() + (ms - from_ms) / (to_ms - from_ms) * room.width(); }
};

}  // namespace

void paint_tick_and_tock(QPainter& painter, const QRectF& room, const TickShapes::Loudness* tick, const TickShapes::Loudness* tock) {
    const Theme& t = inks(painter);
    const Hills hills{room};
    painter.setRenderHint(QPainter::Antialiasing);
    for (const bool below : {false, true}) {
        const TickShapes::Loudness* shape = below ? tock : tick;
        if (!shape || shape->level.empty()) continue;
        const double most = std::max(1e-9, static_cast<double>(*std::max_element(shape->level.begin(), shape->level.end())));
        QPolygonF hill;
        hill << QPointF(room.left(), hills.middle());
        const double step_ms = (Hills::to_ms - Hills::from_ms) / std::max(50.0, room.width());
        for (double ms = Hills::from_ms; ms < Hills::to_ms; ms += step_ms) {
            const double from = shape->at + ms / 1000 * shape->per_s, to = from + step_ms / 1000 * shape->per_s + 1;
            double level = 0;
            for (double i = std::max(0.0, from); i < std::min(to, static_cast<double>(shape->level.size())); ++i)
                level = std::max(level, static_cast<double>(shape->level[static_cast<size_t>(i)]));
            hill << QPointF(hills.x(ms), hills.middle() + (below ? 1 : -1) * level / most * hills.high());
        }
        hill << QPointF(room.right(), hills.middle());
        QColor fill = below ? t.brass : t.blued;
        painter.setPen(QPen(fill, 1.2));
        fill.setAlphaF(0.3f);
        painter.setBrush(fill);
        painter.drawPolygon(hill);
    }
    painter.setPen(QPen(t.steel, 1));
    painter.drawLine(QPointF(room.left(), hills.middle()), QPointF(room.right(), hills.middle()));
    for (double ms = Hills::from_ms; ms <= Hills::to_ms; ms += 10)
        painter.drawLine(QPointF(hills.x(ms), hills.middle() - 3), QPointF(hills.x(ms), hills.middle() + 3));
}

void write_tick_and_tock(QPainter& painter, const QRectF& room, const BeatAnalysisResult& told, const std::optional<double>& impulse_ms) {
    const Theme& t = inks(painter);
    const Hills hills{room};
    write(painter, type(Type::note, true), t.blued, {room.left(), hills.middle() - hills.high() + 12}, words("tick"));
    write(painter, type(Type::note, true), t.brass_ink, {room.left(), hills.middle() + hills.high()}, words("tock"));
    for (double ms = Hills::from_ms; ms <= Hills::to_ms; ms += 10) {
        const bool last = ms == Hills::to_ms;
        write(painter, type(Type::note), t.steel, {hills.x(ms), room.bottom() + 4},
              words(print_fixed(ms, 0)) + (last ? words(" ms") : QString()), last ? 1 : 0);
    }
    const auto mark = [&](double ms, const QColor& ink, const QString& word, double high) {
        if (ms < Hills::from_ms || ms > Hills::to_ms) return;
        painter.setPen(QPen(ink, 1.2, Qt::DashLine));
        painter.drawLine(QPointF(hills.x(ms), room.top() + high + 4), QPointF(hills.x(ms), hills.middle() + hills.high()));
        write(painter, type(Type::note), ink, {hills.x(ms), room.top() + high}, word, 0);
    };
    if (told.unlocks_ms) {
        mark(*told.unlocks_ms, t.verdigris, words("unlocks"), 10);
        mark(*told.drops_ms, t.verdigris, words("drops"), 10);
    }
    // Beside what is heard, what the action has: from the drop back.
    if (impulse_ms) mark(told.drops_ms.value_or(0) - *impulse_ms, t.steel, words("unlocks, as laid out"), told.unlocks_ms ? 22 : 10);
}

}  // namespace echappe
