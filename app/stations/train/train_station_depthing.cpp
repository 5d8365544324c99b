// The Train station's plan while an arbor is depthed: the arcs its teeth want, where they cross, and what a moved hole does.
#include <QApplication>
#include <QMouseEvent>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "drawing/words.h"
#include "number/units.h"
#include "stations/train/train_station.h"
#include "theme/theme.h"
#include "train/places.h"

namespace echappe {
namespace {

constexpr double loupe_beside = 640;  ///< narrower than this the loupe stands under the column, not over the plan

}  // namespace

DepthingInput TrainStation::depthing_asked() const {
    DepthingInput input = depthing_of(m_document.derived().train, m_document.selection().subject());
    if (m_moved_mm) {
        input.hole_x_mm = m_moved_mm->x();
        input.hole_y_mm = m_moved_mm->y();
    }
    return input;
}

void TrainStation::show_depthing(bool shown) {
    m_depthing = shown;
    m_moved_mm.reset();
    m_hole_dragged = false;
    if (shown) close_search();
    update();
}

void TrainStation::move_hole(QPointF to_mm) {
    m_moved_mm = to_mm;
    update();
}

void TrainStation::keep_hole() {
    if (!m_moved_mm) return;
    const QPointF to = *m_moved_mm;
    const std::string id = m_document.selection().subject();
    m_moved_mm.reset();
    m_document.edit(set_place(m_document.job().train, id, {std::round(to.x() * 1000) / 1000, std::round(to.y() * 1000) / 1000}));
    update();
}

void TrainStation::paint_depthing(QPainter& painter, const View& view) {
    const Theme& t = inks(painter);
    const double closed = write(painter, type(Type::note), t.blued, {left_column - 8.0, 34}, words("Esc closes"), 1);
    place({"depthing:close", QRectF(left_column - 8 - closed, 20, closed, 18), [this] { show_depthing(false); }, {}, {}});
    const DepthingInput input = depthing_asked();
    Column page = column(painter, 22);
    page.section(words("DEPTHING OF %1").arg(words(m_document.job().train.name_of_arbor(m_document.selection().subject())).toUpper()));
    if (input.neighbours.empty() || !input.hole_x_mm) {
        page.says(words("No mesh of this arbor is known yet: count what is lost or choose a candidate first."), t.steel);
        return;
    }
    const DepthingResult result = set_depthing(input);
    paint_arcs(painter, view, input, result);
    paint_loupe(painter, input, result);
    write_depthing(page, input, result);
}

/// The strokes one scribes, where they cross, and the hole as it is or as it is moved.
void TrainStation::paint_arcs(QPainter& painter, const View& view, const DepthingInput& input, const DepthingResult& result) {
    const Theme& t = inks(painter);
    painter.setBrush(Qt::NoBrush);
    for (const DepthingNeighbour& n : input.neighbours) {
        const QPointF centre = view.at(n.x_mm, n.y_mm);
        const double radius = n.distance_mm * view.px_per_mm;
        painter.setPen(QPen(t.blued, 0.8, Qt::DotLine));
        painter.drawEllipse(centre, radius, radius);
        // The stroke one scribes: a little to both sides of where the stud goes.
        const QPointF to = result.points.empty() ? view.at(*input.hole_x_mm, *input.hole_y_mm)
                                                 : view.at(result.points.front()[0], result.points.front()[1]);
        const double angle = std::atan2(-(to.y() - centre.y()), to.x() - centre.x()) * 180 / M_PI;
        painter.setPen(QPen(t.blued, 2));
        painter.drawArc(QRectF(centre.x() - radius, centre.y() - radius, 2 * radius, 2 * radius), static_cast<int>((angle - 14) * 16),
                        28 * 16);
    }
    for (size_t i = 0; i < result.points.size(); ++i) {
        const QPointF at = view.at(result.points[i][0], result.points[i][1]);
        painter.setPen(QPen(i == 0 ? t.ink : t.steel, i == 0 ? 1.6 : 1));
        painter.drawLine(at - QPointF(7, 7), at + QPointF(7, 7));
        painter.drawLine(at - QPointF(7, -7), at + QPointF(7, -7));
    }
    const QPointF hole = view.at(*input.hole_x_mm, *input.hole_y_mm);
    painter.setPen(QPen(m_moved_mm ? t.amber : t.ink, 1.6));
    painter.drawEllipse(hole, 5, 5);
    place({"hole", QRectF(hole.x() - 10, hole.y() - 10, 20, 20), [] {}, words("Drag the hole to see what a move does"), {}});
}

/// The crossing much enlarged: hundredths of a millimetre cannot be seen on the plan.
void TrainStation::paint_loupe(QPainter& painter, const DepthingInput& input, const DepthingResult& result) {
    if (result.points.empty()) return;
    const Theme& t = inks(painter);
    const bool narrow = width() < loupe_beside;
    const double loupe_px = narrow ? 52 : 66;
    const QPointF middle =
        narrow ? QPointF(left_column - loupe_px - 20, height() - loupe_px - 54) : QPointF(width() - loupe_px - 26, loupe_px + 30);
    const double off = result.off_mm.value_or(0);
    double scale = 1000;  // px per mm
    for (const double step : {500.0, 200.0, 100.0, 50.0, 20.0})
        if (off * scale > loupe_px * 0.7) scale = step;
    painter.save();
    QPainterPath round;
    round.addEllipse(middle, loupe_px, loupe_px);
    painter.setPen(QPen(t.ink, 1.2));
    painter.setBrush(t.sheet);
    painter.drawPath(round);
    painter.setClipPath(round);
    const Point& point = result.points.front();
    painter.setPen(QPen(t.blued, 1.4));
    for (const DepthingNeighbour& n : input.neighbours) {
        // So near, the arc is a line square to the way from its middle.
        const double length = std::hypot(point[0] - n.x_mm, point[1] - n.y_mm);
        const QPointF square((point[1] - n.y_mm) / length, (point[0] - n.x_mm) / length);
        painter.drawLine(middle - square * 2 * loupe_px, middle + square * 2 * loupe_px);
    }
    const QPointF hole = middle + QPointF(*input.hole_x_mm - point[0], -(*input.hole_y_mm - point[1])) * scale;
    painter.setPen(QPen(m_moved_mm ? t.amber : t.ink, 1.6));
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(hole, 7, 7);
    painter.drawLine(hole - QPointF(3, 0), hole + QPointF(3, 0));
    painter.drawLine(hole - QPointF(0, 3), hole + QPointF(0, 3));
    painter.restore();
    const double bar_mm = 30 / scale > 0.5 ? 1 : 30 / scale > 0.2 ? 0.5 : 30 / scale > 0.05 ? 0.1 : 0.05;
    const QPointF from = middle + QPointF(-bar_mm * scale / 2, loupe_px + 10);
    painter.setPen(QPen(t.ink, 1.2));
    painter.drawLine(from, from + QPointF(bar_mm * scale, 0));
    write(painter, type(Type::note), t.ink, from + QPointF(bar_mm * scale / 2, 13), QString::number(bar_mm) + " mm", 0);
}

/// What the depthing tool is set to from each neighbour, and what the hole is off.
void TrainStation::write_depthing(Column& page, const DepthingInput& input, const DepthingResult& result) {
    const Theme& t = page.inks();
    const LengthUnit& unit = m_document.job().length;
    const auto length = [&](double mm, bool symbol = true) { return words(unit.write(mm, unit.toothed(), symbol)); };
    page.gap(4);
    for (size_t i = 0; i < input.neighbours.size(); ++i) {
        const DepthingNeighbour& n = input.neighbours[i];
        page.line(words("set from %1").arg(words(m_document.job().train.name_of_arbor(n.id))), t.steel, Type::text);
        page.head(length(n.distance_mm), t.ink, Type::great);
        page.gap(-4);
        const double depth = result.effects[i].depth_mm;
        const bool right = result.effects[i].right();
        page.line(right ? words("the hole is right") : length(std::abs(depth)) + (depth > 0 ? words(" too deep") : words(" too shallow")),
                  right ? t.verdigris : t.amber, Type::text, true);
        page.gap(12);
    }
    if (result.arcs_miss_mm)
        page.says(
            words("The arcs do not cross: they miss by %1. One of the two modules or counts cannot be.").arg(length(*result.arcs_miss_mm)),
            t.ruby, Type::text, true);
    if (result.off_mm) {
        page.line(input.neighbours.size() == 2 ? words("hole to the crossing") : words("hole to the arc"), t.steel, Type::text);
        page.head(length(*result.off_mm), result.right() ? t.verdigris : t.amber);
    }
    for (size_t i = 0; i < result.points.size() && input.neighbours.size() == 2; ++i)
        page.close_row({i == 0 ? words("cross at") : words("or at"),
                        length(result.points[i][0], false) + "   " + length(result.points[i][1], false),
                        t.blued,
                        {},
                        {},
                        true,
                        Type::text});
    page.gap(4);
    page.says(m_moved_mm ? words("Enter keeps the hole here, Esc puts it back.")
                         : words("Drag the hole to see what a move does to each mesh. Distances follow from the teeth: set the tool on "
                                 "the real pair before you scribe."),
              m_moved_mm ? t.amber : t.steel);
}

void TrainStation::mousePressEvent(QMouseEvent* event) {
    m_hole_dragged = m_depthing && event->button() == Qt::LeftButton && place_of("hole").contains(event->position());
    m_dragged.clear();
    m_dragged_view.reset();
    if (!m_depthing && event->button() == Qt::LeftButton)
        for (const QString& tag : tags())
            if ((tag.startsWith("arbor:") || tag.startsWith("pillar:") || tag.startsWith("plate:")) &&
                place_of(tag).contains(event->position()))
                m_dragged = tag.toStdString(), m_dragged_from = event->position();
    if (!m_hole_dragged) Canvas::mousePressEvent(event);
}

void TrainStation::mouseMoveEvent(QMouseEvent* event) {
    if (!m_dragged.empty() && (event->buttons() & Qt::LeftButton)) {
        const bool far = m_dragged_view || (event->position() - m_dragged_from).manhattanLength() > QApplication::startDragDistance();
        if (!far) return;
        if (!m_dragged_view) m_drag_session = m_document.begin_session();
        return attempt([&] { drag_to(event->position()); });
    }
    if (!m_hole_dragged) return Canvas::mouseMoveEvent(event);
    const View view = view_of_plate();
    const QPointF from_origin = event->position() - view.origin;
    move_hole(QPointF(from_origin.x(), -from_origin.y()) / view.px_per_mm);
}

void TrainStation::mouseReleaseEvent(QMouseEvent* event) {
    m_hole_dragged = false;
    m_dragged.clear();
    m_dragged_view.reset();
    Canvas::mouseReleaseEvent(event);
}

/// Keys of the depthing, while it is shown: they go before the ladder's.
QList<Action> TrainStation::depthing_actions() {
    constexpr double nudge_mm = 0.01;
    const auto shown = [this] { return m_depthing; };
    const auto nudge = [this](double x, double y) {
        return [this, x, y] {
            const DepthingInput input = depthing_asked();
            if (input.hole_x_mm) move_hole({*input.hole_x_mm + x, *input.hole_y_mm + y});
        };
    };
    const auto leave = [this] {
        if (!m_moved_mm) return show_depthing(false);
        m_moved_mm.reset();
        update();
    };
    return {{"depthing.show",
             words("Depthing of the selected arbor"),
             {Qt::Key_D, words("Ctrl+Shift+A")},
             [this] { show_depthing(!m_depthing || just_come()); },
             words("&View")},
            {"depthing.leave", words("The hole back where it was"), {Qt::Key_Escape}, leave, {}, {}, shown},
            {"depthing.keep", words("Keep the hole where it was tried"), {Qt::Key_Return}, [this] { keep_hole(); }, {}, {}, shown},
            {"depthing.left", words("The hole to the left"), {Qt::Key_Left}, nudge(-nudge_mm, 0), {}, {}, shown},
            {"depthing.right", words("The hole to the right"), {Qt::Key_Right}, nudge(nudge_mm, 0), {}, {}, shown},
            {"depthing.up", words("The hole up"), {Qt::Key_Up}, nudge(0, nudge_mm), {}, {}, shown},
            {"depthing.down", words("The hole down"), {Qt::Key_Down}, nudge(0, -nudge_mm), {}, {}, shown}};
}

}  // namespace echappe
