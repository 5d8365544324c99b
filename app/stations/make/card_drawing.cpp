#include "stations/make/card_drawing.h"

#include <QPainterPath>
#include <algorithm>
#include <cmath>
#include <numbers>
#include <set>

#include "drawing/words.h"
#include "sheet/marks.h"

namespace echappe {
namespace {

bool of_steel(const DerivedCard& card) {
    const std::string& material = card.stock ? card.stock->material : card.kind;
    return material.find("steel") != std::string::npos || card.kind == "pinion" || card.kind == "arbor" || card.kind == "pivot" ||
           card.kind == "straighten";
}

QColor metal_of(const DerivedCard& card, const Theme& inks) { return of_steel(card) ? inks.steel : inks.pale_brass; }

/// Both halves of a turned part's section, mm, y downwards.
QPainterPath section(const TurnedShape& shape) {
    const std::vector<Point> half = half_section(shape);
    QPolygonF above, below;
    for (const Point& at : half) above << QPointF(at[0], -at[1]), below << QPointF(at[0], at[1]);
    QPainterPath path;
    path.addPolygon(above), path.closeSubpath();
    path.addPolygon(below), path.closeSubpath();
    return path;
}

QPainterPath flat_path(const FlatPart& part) {
    QPainterPath path;
    const auto add = [&](const std::vector<Point>& outline) {
        QPolygonF polygon;
        for (const Point& at : outline) polygon << QPointF(at[0], -at[1]);
        path.addPolygon(polygon);
        path.closeSubpath();
    };
    add(part.outline);
    for (const auto& opening : part.openings) add(opening);
    for (const auto& hole : part.holes) path.addEllipse(QPointF(hole.centre[0], -hole.centre[1]), hole.radius_mm, hole.radius_mm);
    return path;
}

/// The path as large as the room takes it, and how many pixels a millimetre is.
double fit(const QPainterPath& path, const QRectF& room, QTransform& to) {
    const QRectF box = path.boundingRect();
    const double px = std::min(room.width() / std::max(box.width(), 0.1), room.height() / std::max(box.height(), 0.1));
    to = QTransform::fromTranslate(room.center().x() - box.center().x() * px, room.center().y() - box.center().y() * px).scale(px, px);
    return px;
}

class Large {
public:
    Large(QPainter& painter, const QRectF& room, const DerivedCard& card, const LengthUnit& unit, Dimensions* sizes)
        : m_painter(painter), m_room(room), m_card(card), m_unit(unit), m_next(card.next()), m_sizes(sizes) {}

    void turned();
    void flat();
    void circle();
    void set();
    void face();

private:
    void fly(const QRectF& room);
    QPainter& m_painter;
    QRectF m_room;
    const DerivedCard& m_card;
    const LengthUnit& m_unit;
    const CardStep* m_next;
    Dimensions* m_sizes;  ///< those that are typed on it; none: they are only told

    /// A size that is typed stands here; false where it is none.
    bool typed(const QString& id, QPointF at) {
        if (!m_sizes || !m_sizes->has(id)) return false;
        m_sizes->in(id, at);
        return true;
    }
    QString length(double mm, bool finely = false) const {
        return words(m_unit.write(mm, finely ? m_unit.toothed() : m_unit.turned(), false));
    }
    bool now(const std::string& step) const { return m_next && m_next->id == step; }
    /// Read, done or to come.
    QColor ink_of(const std::string& step) const {
        const CardStep* of = m_card.step(step);
        if (now(step)) return inks(m_painter).blued;
        return !of ? inks(m_painter).ink : !of->right ? inks(m_painter).ruby : of->done ? inks(m_painter).verdigris : inks(m_painter).steel;
    }
    double size_of(const std::string& step, double otherwise) const {
        const CardStep* of = m_card.step(step);
        return of && of->read_mm ? *of->read_mm : otherwise;
    }
    /// How large it is drawn, and in what its sizes are told.
    void scale(double px) {
        scale_bar(m_painter, {m_room.right() - 120, m_room.bottom() - 6}, px, 90);
        write(m_painter, type(Type::note), inks(m_painter).steel, {m_room.left(), m_room.bottom() - 2},
              words("sizes in %1").arg(words(m_unit.symbol)));
    }
};

void Large::turned() {
    const Theme& t = inks(m_painter);
    TurnedInput in;
    in.shape = *m_card.turned;
    const TurnedResult part = turn_part(in);
    QTransform to;
    const QRectF room = m_room.adjusted(30, 40, -30, -46);
    const double px = fit(section(in.shape), room, to);
    if (m_sizes) m_sizes->lie_at(to);
    m_painter.setPen(QPen(t.ink, 1.2));
    m_painter.setBrush(metal_of(m_card, t));
    m_painter.drawPath(to.map(section(in.shape)));
    m_painter.setPen(QPen(t.steel, 0.8, Qt::DashDotLine));
    m_painter.drawLine(to.map(QPointF(-3 / px * 4, 0)), to.map(QPointF(part.length_mm + 12 / px, 0)));
    const double under = to.map(QPointF(0, part.largest_mm / 2)).y() + 16;
    for (size_t i = 0; i < part.lands.size(); ++i) {
        const TurnedLandResult& land = part.lands[i];
        const std::string step = "land-" + std::to_string(i + 1);
        const QColor ink = ink_of(step);
        const QRectF at = to.mapRect(QRectF(land.from_mm, -land.nominal_mm / 2, land.to_mm - land.from_mm, land.nominal_mm));
        if (now(step)) {
            m_painter.setPen(QPen(ink, 2.4));
            m_painter.setBrush(Qt::NoBrush);
            m_painter.drawRect(at);
        }
        // Names of neighbours stand at two heights, so that they do not run into each other.
        const double high = at.top() - (i % 2 ? 26 : 8);
        const QPointF across(at.center().x(), std::max(high, m_room.top() + 12));
        if (now(step) || !typed(QString("lands[%1].diameter_mm").arg(i), across))
            on_paper(m_painter, type(now(step) ? Type::figure : Type::text, now(step)), ink, across,
                     QString("⌀ %1").arg(length(size_of(step, land.nominal_mm))));
        const double y = under + (i % 2 ? 16 : 0);
        dimension_line(m_painter, {at.left(), y}, {at.right(), y}, t.steel, 3);
        if (!typed(QString("lands[%1].length_mm").arg(i), {at.center().x(), y + 5}))
            on_paper(m_painter, type(Type::note), t.ink, {at.center().x(), y + 4}, length(land.to_mm - land.from_mm));
    }
    if (in.shape.bore_mm)
        on_paper(m_painter, type(Type::text, now("bore")), ink_of("bore"), to.map(QPointF(part.length_mm / 2, 0)) + QPointF(0, 5),
                 words("bore %1").arg(length(size_of("bore", *in.shape.bore_mm))));
    scale(px);
}

void Large::flat() {
    const Theme& t = inks(m_painter);
    const QPainterPath path = flat_path(*m_card.flat);
    QTransform to;
    const double px = fit(path, m_room.adjusted(60, 12, -20, -46), to);
    if (m_sizes) m_sizes->lie_at(to);
    QPainterPath odd = to.map(path);
    odd.setFillRule(Qt::OddEvenFill);
    m_painter.setPen(QPen(now("saw") || now("file") ? t.blued : t.ink, now("saw") || now("file") ? 2.2 : 1.2));
    m_painter.setBrush(metal_of(m_card, t));
    m_painter.drawPath(odd);
    const QRectF box = path.boundingRect(), at = to.mapRect(box);
    dimension(m_painter, {at.left(), at.bottom() + 16}, {at.right(), at.bottom() + 16}, length(size_of("width", box.width())),
              ink_of("width"));
    dimension(m_painter, {at.left() - 16, at.bottom()}, {at.left() - 16, at.top()}, length(size_of("height", box.height())),
              ink_of("height"));
    size_t which = 0;
    for (const auto& hole : m_card.flat->holes) {
        const QPointF middle = to.map(QPointF(hole.centre[0], -hole.centre[1]));
        if (m_sizes) {
            const QString of = QString("holes[%1].").arg(which);
            m_sizes->group(words("hole %1").arg(which + 1), middle, {of + "x_mm", of + "y_mm", of + "diameter_mm"});
        }
        ++which;
        cross(m_painter, middle, 4, QPen(now("drill") ? t.blued : t.ink, 1));
        constexpr double roomy = 26;
        if (now("drill") || hole.radius_mm * 2 * px > roomy)
            on_paper(m_painter, type(Type::note), ink_of("drill"), middle + QPointF(0, -hole.radius_mm * px - 4),
                     length(2 * hole.radius_mm));
    }
    scale(px);
}

void Large::circle() {
    const Theme& t = inks(m_painter);
    const double whole = m_card.outside_mm, px = (std::min(m_room.width(), m_room.height()) - 40) / whole;
    const QPointF middle = m_room.center();
    // What lies there already: wheels behind it, pivot holes.
    m_painter.save();
    m_painter.setClipRect(m_room);
    m_painter.setBrush(Qt::NoBrush);
    m_painter.setPen(QPen(t.brass, 0.8));
    for (const auto& there : m_card.in_the_way)
        m_painter.drawEllipse(middle + QPointF(there.centre[0], -there.centre[1]) * px, there.radius_mm * px, there.radius_mm * px);
    m_painter.restore();
    const CardStep* drill = m_card.step("drill");
    const double hole = drill && drill->size ? drill->size->nominal_mm / 2 * px : 4;
    const double r = std::hypot(m_card.circle.front().x_mm, m_card.circle.front().y_mm) * px;
    m_painter.setBrush(Qt::NoBrush);
    m_painter.setPen(QPen(now("mark") ? t.blued : t.steel, now("mark") ? 2 : 1, Qt::DashDotLine));
    m_painter.drawEllipse(middle, r, r);
    cross(m_painter, middle, 8, QPen(t.ink, 1));
    const auto at = [&](size_t i) { return middle + QPointF(m_card.circle[i].x_mm, -m_card.circle[i].y_mm) * px; };
    for (size_t i = 0; i < m_card.circle.size(); ++i) {
        m_painter.setPen(QPen(now("drill") || now("tap") ? t.blued : t.ink, 1.4));
        m_painter.setBrush(t.sheet);
        m_painter.drawEllipse(at(i), hole, hole);
        const HoleOnCircle& point = m_card.circle[i];
        on_paper(m_painter, type(Type::note), t.ink, at(i) + QPointF(0, -hole - 6),
                 QString("%1:  %2, %3").arg(i + 1).arg(length(point.x_mm), length(point.y_mm)));
    }
    if (m_card.circle.size() > 1) {
        const CardStep* mark = m_card.step("mark");
        if (mark && mark->size) dimension(m_painter, at(0), at(1), length(mark->size->nominal_mm), ink_of("mark"));
    }
    on_paper(m_painter, type(Type::text), t.steel, middle + QPointF(0, 24), words("radius %1").arg(length(r / px)));
    scale(px);
}

/// Cut through: each part of the set a pair of bars about the axis, the one that is made now in colour.
void Large::set() {
    const Theme& t = inks(m_painter);
    const ConcentricResult& set = *m_card.set;
    const double largest = set.parts.back().outside->nominal_mm;
    const double px = (m_room.height() - 60) / largest, middle = m_room.center().y();
    const auto count = static_cast<double>(set.parts.size());
    const double left = m_room.left() + 20, wide = m_room.width() - 270;
    for (size_t i = 0; i < set.parts.size(); ++i) {
        const ConcentricPartResult& part = set.parts[i];
        const bool mine = i == m_card.set_part;
        // The inner ones stand out further.
        const double right = left + wide * (1 - 0.7 * static_cast<double>(i) / count);
        const double outer = part.outside->nominal_mm / 2 * px, inner = part.bore ? part.bore->nominal_mm / 2 * px : 0;
        m_painter.setPen(QPen(mine ? t.blued : t.ink, mine ? 2.2 : 1));
        m_painter.setBrush(mine ? t.pale_brass : t.sheet);
        if (inner > 0) {
            m_painter.drawRect(QRectF(left, middle - outer, right - left, outer - inner));
            m_painter.drawRect(QRectF(left, middle + inner, right - left, outer - inner));
        } else {
            m_painter.drawRect(QRectF(left, middle - outer, right - left, 2 * outer));
        }
        const QString sizes = part.bore ? words("bore %1, outside %2").arg(length(part.bore->nominal_mm), length(part.outside->nominal_mm))
                                        : words("outside %1").arg(length(part.outside->nominal_mm));
        const double y = middle - outer + (inner > 0 ? (outer - inner) / 2 : outer) + 4;
        write(m_painter, type(Type::note, mine), mine ? t.blued : t.ink, {left + wide + 14, y},
              elided(type(Type::note, mine), words(part.name) + ": " + sizes, 250));
        m_painter.setPen(QPen(t.steel, 0.6));
        m_painter.drawLine(QPointF(right, y - 4), QPointF(left + wide + 10, y - 4));
    }
    m_painter.setPen(QPen(t.steel, 0.8, Qt::DashDotLine));
    m_painter.drawLine(QPointF(left - 10, middle), QPointF(left + wide + 8, middle));
    scale(px);
}

/// The cutter that is ground to the gap, tip up, as large as there is room, with what is read of it.
void Large::fly(const QRectF& room) {
    const Theme& t = inks(m_painter);
    const FlyCutterResult& cutter = *m_card.fly;
    const double px = std::min(room.width() / (cutter.top_width_mm * 1.5), (room.height() - 90) / (cutter.ground_mm * 1.3));
    const QPointF tip(room.center().x(), room.top() + 46);
    QPolygonF edge;
    for (const Point& p : cutter.profile) edge << tip + QPointF(p[0], p[1]) * px;
    const double shank = tip.y() + cutter.ground_mm * 1.25 * px;
    edge << QPointF(edge.back().x(), shank) << QPointF(edge.front().x(), shank);
    m_painter.setPen(QPen(t.blued, 2));
    m_painter.setBrush(t.steel);
    m_painter.drawPolygon(edge);
    const auto across = [&](double wide_mm, double y) {
        dimension(m_painter, {tip.x() - wide_mm / 2 * px, y}, {tip.x() + wide_mm / 2 * px, y}, length(wide_mm, true), t.ink);
    };
    across(cutter.tip_width_mm, tip.y() - 14);
    across(cutter.top_width_mm, shank + 16);
    const double x = tip.x() + cutter.top_width_mm / 2 * px + 22;
    dimension(m_painter, {x, tip.y()}, {x, tip.y() + cutter.ground_mm * px}, length(cutter.ground_mm, true), t.ink);
    write(m_painter, type(Type::note), t.steel, {room.center().x(), room.top() + 12}, words("fly cutter, ground to the gap"), 0);
}

/// From the front, its diameters as circles to scale.
void Large::face() {
    if (now("depth") && m_card.fly) return fly(m_room.adjusted(0, 0, -60, -8));
    const Theme& t = inks(m_painter);
    // Steps that make a diameter of the part itself.
    static const std::set<std::string> diameters = {"blank",        "bore",       "outside", "rim",    "seat",       "ring",
                                                    "ring-outside", "ream",       "broach",  "body",   "turn-front", "turn-back",
                                                    "pivot-front",  "pivot-back", "clean",   "burnish"};
    double largest = 0;
    for (const CardStep& step : m_card.steps)
        if (step.size && diameters.contains(step.id)) largest = std::max(largest, step.read_mm.value_or(step.size->nominal_mm));
    if (largest <= 0) return;
    const double px = (std::min(m_room.height(), 0.7 * m_room.width()) - 24) / largest;
    const QPointF middle(m_room.left() + largest / 2 * px + 12, m_room.center().y());
    const auto ring = [&](double diameter, const QPen& pen) {
        m_painter.setPen(pen);
        m_painter.drawEllipse(middle, diameter / 2 * px, diameter / 2 * px);
    };
    m_painter.setBrush(Qt::NoBrush);
    for (const CardStep& step : m_card.steps) {
        if (!step.size || !diameters.contains(step.id) || &step == m_next) continue;
        ring(step.read_mm.value_or(step.size->nominal_mm), step.done ? QPen(t.verdigris, 1.4) : QPen(t.steel, 0.8, Qt::DashLine));
    }
    cross(m_painter, middle, 7, QPen(t.ink, 1));
    if (m_next && m_next->size && diameters.contains(m_next->id)) {
        const double r = m_next->size->nominal_mm / 2 * px;
        ring(m_next->size->nominal_mm, QPen(t.blued, 2.6));
        dimension_line(m_painter, middle - QPointF(r, 0), middle + QPointF(r, 0), t.blued, 5);
        on_paper(m_painter, type(Type::figure, true), t.blued, middle + QPointF(0, -9), length(m_next->size->nominal_mm, true));
    } else if (now("depth") && m_next->size && m_card.step("outside")) {
        // What the cutter takes, from the outside in.
        const double outside = size_of("outside", m_card.step("outside")->size->nominal_mm);
        ring(outside - 2 * m_next->size->nominal_mm, QPen(t.blued, 2.6));
        on_paper(m_painter, type(Type::figure, true), t.blued, middle + QPointF(0, -9),
                 words("%1 deep").arg(length(m_next->size->nominal_mm, true)));
    }
    scale(px);
}

}  // namespace

void paint_small(QPainter& painter, const QRectF& room, const DerivedCard& card, const QColor& ink, bool waits) {
    const Theme& t = inks(painter);
    painter.setPen(QPen(ink, 1.3, waits ? Qt::DashLine : Qt::SolidLine));
    painter.setBrush(metal_of(card, t));
    if (card.turned || card.flat) {
        const QPainterPath path = card.turned ? section(*card.turned) : flat_path(*card.flat);
        QTransform to;
        fit(path, room.adjusted(3, 3, -3, -3), to);
        QPainterPath drawn = to.map(path);
        drawn.setFillRule(Qt::OddEvenFill);
        painter.drawPath(drawn);
        return;
    }
    const double r = std::min(room.width(), room.height()) / 2 - 3;
    const QPointF middle = room.center();
    if (card.kind == "arbor" || card.kind == "straighten" || card.kind == "pivot") {
        painter.drawRect(QRectF(middle.x() - 0.7 * r, middle.y() - 0.22 * r, 1.4 * r, 0.44 * r));
        painter.drawRect(QRectF(middle.x() - r, middle.y() - 0.09 * r, 0.3 * r, 0.18 * r));
        painter.drawRect(QRectF(middle.x() + 0.7 * r, middle.y() - 0.09 * r, 0.3 * r, 0.18 * r));
        return;
    }
    if (card.kind == "equal") {
        for (const double x : {-0.7, 0.0, 0.7})
            painter.drawRect(QRectF(middle.x() + x * r - 0.16 * r, middle.y() - 0.7 * r, 0.32 * r, 1.4 * r));
        return;
    }
    painter.drawEllipse(middle, r, r);
    painter.setBrush(t.ground);
    if (card.kind == "ring" || card.kind == "bush" || (card.set && card.set_part > 0)) painter.drawEllipse(middle, 0.68 * r, 0.68 * r);
    for (const HoleOnCircle& hole : card.circle) {
        const double far = std::hypot(hole.x_mm, hole.y_mm);
        painter.drawEllipse(middle + QPointF(hole.x_mm, -hole.y_mm) / far * 0.66 * r, 2.2, 2.2);
    }
}

void paint_large(QPainter& painter, const QRectF& room, const DerivedCard& card, const LengthUnit& unit, Dimensions* sizes) {
    Large large(painter, room, card, unit, sizes);
    if (card.turned) large.turned();
    else if (card.flat) large.flat();
    else if (!card.circle.empty()) large.circle();
    else if (card.set) large.set();
    else large.face();
}

}  // namespace echappe
