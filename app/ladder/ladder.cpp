#include "ladder/ladder.h"

#include <QApplication>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <algorithm>

#include "number/units.h"
#include "sheet/marks.h"
#include "theme/theme.h"
#include "train/structure.h"

namespace echappe {
namespace {

constexpr double top = 44;
constexpr double bottom = 50;
constexpr double largest_disc = 46;
constexpr double disc_x = 64;
constexpr double text_x = 124;

/// Dashes for what is not there, thin for what is assumed, full for what is counted.
QPen rim_pen(Known known, const QColor& colour) {
    QPen pen(colour, known == Known::assumed ? 1 : 1.5);
    if (known == Known::missing) pen.setDashPattern({4, 3});
    return pen;
}

QString count_text(const Count& count, Known known) {
    if (!count.known()) return "?";
    return QString::number(count.value) + (known == Known::missing ? "?" : "");
}

/// A span of time without its last parts, where it has no room: the workings tell all of it.
QString brief(QString span, double room) {
    while (width_of(type(Type::note), span) > room && span.contains(' ')) span = span.section(' ', 0, -3) + QString::fromUtf8("…");
    return span;
}

}  // namespace

Ladder::Ladder(Document& document, QWidget* parent) : Canvas(parent), m_document(document) {
    fix_size();
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Ladder"));
    const auto refresh = [this] {
        Content now = content();
        if (now == m_content) return;
        m_content = std::move(now);
        update();
    };
    connect(&document, &Document::changed, this, refresh);
    connect(&document.selection(), &Selection::changed, this, refresh);
}

Ladder::Content Ladder::content() const {
    Content content;
    const TrainList* train = m_document.selection().train();
    if (!train) return content;
    const Derived& derived = m_document.derived();
    content.train = words(train->name).toUpper();
    content.several = m_document.job().train.trains.size() > 1;
    for (const DerivedArbor& arbor : derived.train.arbors) content.largest_mm = std::max(content.largest_mm, arbor.wheel_radius_mm);
    for (const std::string& id : train->arbors)
        if (const DerivedArbor* arbor = derived.train.arbor(id)) content.rungs.push_back(rung_of(*arbor));
    if (derived.train.beats_per_hour) content.beats = tr("%1 beats an hour").arg(words(print_short(*derived.train.beats_per_hour, 7)));
    if (derived.train.run_s) content.run = tr("runs %1").arg(words(print_span(*derived.train.run_s)));
    return content;
}

Ladder::Rung Ladder::rung_of(const DerivedArbor& arbor) const {
    Rung rung;
    rung.arbor = arbor.id;
    rung.name = words(arbor.name);
    rung.wheel = {arbor.wheel.count, arbor.wheel.known};
    rung.pinion = {arbor.pinion.count, arbor.pinion.known};
    rung.radius_mm = arbor.wheel_radius_mm;
    if (arbor.period_s) rung.period = words(print_span(*arbor.period_s));
    rung.period_open = arbor.period_known == Known::missing;
    if (!arbor.direction.empty()) rung.direction = arbor.direction == "cw" ? tr("turns right ↻") : tr("turns left ↺");
    rung.subject = arbor.id == m_document.selection().subject();
    const ArborInput& written = m_document.job().train.arbor(arbor.id)->train;
    if (written.wheel.is == Count::Is::lost || written.pinion.is == Count::Is::lost)
        rung.marks = m_document.derived().train.chosen ? tr("chosen") : tr("lost");
    int open = 0;
    for (const Finding& finding : m_document.derived().findings) {
        if (finding.arbor != arbor.id || !finding.verdict.empty()) continue;
        if (open++ == 0) rung.worst = finding.severity;
    }
    if (open > 0) rung.marks += (rung.marks.isEmpty() ? "" : " · ") + (open == 1 ? tr("1 finding") : tr("%1 findings").arg(open));
    return rung;
}

void Ladder::paint(QPainter& painter) {
    const Theme& t = theme();
    painter.fillRect(rect(), t.sheet);
    painter.fillRect(QRectF(width() - 1, 0, 1, height()), t.rule);
    if (m_content.rungs.empty()) {
        write_wrapped(painter, type(Type::text), t.steel, {18, 30}, width() - 36,
                      tr("The train stands here as it is written down, rung by rung as the power climbs."));
        return;
    }
    write(painter, type(Type::note, true), t.steel, {18, 27}, m_content.train);
    write(painter, type(Type::note), m_content.several ? t.blued : t.steel, {206.0, 27},
          m_content.several ? tr("other train →") : tr("power climbs ↑"), 1);
    if (m_content.several)
        place(
            {"other train", QRectF(110, 10, 104, 26), [this] { m_document.selection().next_train(); }, tr("Shows the next train (→)"), {}});
    const double step = std::min(150.0, (height() - top - bottom) / static_cast<double>(m_content.rungs.size()));
    double y = height() - bottom;
    for (const Rung& rung : m_content.rungs) {
        paint_rung(painter, rung, {6, y - step + 4, 212, step - 8}, largest_disc / m_content.largest_mm);
        y -= step;
    }
    if (m_dragging) paint_held(painter);
    write(painter, type(Type::text), t.blued, {18, height() - 30.0}, m_content.beats);
    write(painter, type(Type::text), t.blued, {18, height() - 13.0}, m_content.run);
}

void Ladder::paint_rung(QPainter& painter, const Rung& rung, const QRectF& room, double mm_to_px) {
    const Theme& t = theme();
    if (rung.subject) {
        painter.setPen(QPen(t.blued, 1.5));
        painter.setBrush(t.dark ? t.ground : QColor(Qt::white));
        painter.drawRoundedRect(room, 4, 4);
    }
    const double middle = room.center().y();
    const double radius = std::clamp(rung.radius_mm * mm_to_px, 17.0, room.height() / 2 - 3);
    const QPointF centre(disc_x, middle);
    if (rung.wheel.count.present()) {
        const bool missing = rung.wheel.known == Known::missing;
        painter.setPen(rim_pen(rung.wheel.known, t.brass));
        painter.setBrush(missing ? QBrush(Qt::NoBrush) : QBrush(t.pale_brass));
        painter.drawEllipse(centre, radius, radius);
        write(painter, type(Type::head, true), missing ? t.brass_ink : t.ink, centre + QPointF(0, 7),
              count_text(rung.wheel.count, rung.wheel.known), 0);
    }
    if (rung.pinion.count.present()) {
        const bool missing = rung.pinion.known == Known::missing;
        const QPointF at = centre + QPointF(radius * 0.78 + 4, radius * 0.62 + 4);
        painter.setPen(rim_pen(rung.pinion.known, t.steel));
        painter.setBrush(!missing ? t.steel : rung.subject && !t.dark ? QColor(Qt::white) : t.sheet);
        painter.drawEllipse(at, 12, 12);
        write(painter, type(Type::note, true), missing ? t.steel : t.sheet, at + QPointF(0, 4),
              count_text(rung.pinion.count, rung.pinion.known), 0);
    }
    const double line_height = 17;
    double line = middle - 22;
    const double room_beside = width() - text_x - 14;
    const QFont name = type_to_fit(Type::text, true, rung.name, room_beside);
    write(painter, name, rung.subject ? t.blued : t.ink, {text_x, line}, elided(name, rung.name, room_beside));
    if (!rung.period.isEmpty()) {
        const QString period = brief(rung.period, room_beside);
        write(painter, type_to_fit(Type::text, false, period, room_beside), rung.period_open ? t.brass_ink : t.blued,
              {text_x, line += line_height + 1}, period);
    }
    if (!rung.direction.isEmpty()) write(painter, type(Type::note), t.steel, {text_x, line += line_height}, rung.direction);
    write(painter, type(Type::note), rung.worst.empty() ? t.steel : t.severity(rung.worst), {text_x, line + line_height}, rung.marks);
    place({"rung:" + words(rung.arbor),
           room,
           [this, id = rung.arbor] { m_document.selection().select(id); },
           {},
           {},
           {},
           rung.name,
           rung.subject,
           true});
}

std::optional<Ladder::Drop> Ladder::drop_at(const std::string& held, double y) const {
    for (const Rung& rung : m_content.rungs) {
        const QRectF room = place_of("rung:" + words(rung.arbor));
        if (y < room.top() || y > room.bottom() || rung.arbor == held) continue;
        const bool above = y < room.center().y();
        return Drop{rung.arbor, above, above ? room.top() - 4 : room.bottom() + 4};
    }
    return {};
}

/// Where it would go, and its name at the hand.
void Ladder::paint_held(QPainter& painter) {
    const Theme& t = theme();
    if (const auto drop = drop_at(m_held, m_hand.y())) {
        painter.setPen(QPen(t.blued, 3));
        painter.drawLine(QPointF(10, drop->y), QPointF(214, drop->y));
    }
    on_paper(painter, type(Type::text, true), t.blued, m_hand + QPointF(0, -10), words(m_document.job().train.name_of_arbor(m_held)));
}

void Ladder::mousePressEvent(QMouseEvent* event) {
    m_held.clear();
    if (event->button() == Qt::LeftButton)
        for (const Rung& rung : m_content.rungs)
            if (place_of("rung:" + words(rung.arbor)).contains(event->position())) m_held = rung.arbor;
    m_held_from = event->position();
    Canvas::mousePressEvent(event);
}

void Ladder::mouseMoveEvent(QMouseEvent* event) {
    if (m_held.empty() || !(event->buttons() & Qt::LeftButton)) return Canvas::mouseMoveEvent(event);
    m_hand = event->position();
    m_dragging = m_dragging || (m_hand - m_held_from).manhattanLength() > QApplication::startDragDistance();
    update();
}

void Ladder::mouseReleaseEvent(QMouseEvent* event) {
    const std::string held = std::exchange(m_held, {});
    const bool dragged = std::exchange(m_dragging, false);
    update();
    if (!dragged) return Canvas::mouseReleaseEvent(event);
    const auto drop = drop_at(held, event->position().y());
    if (!drop) return;
    attempt([&] {
        const TrainRecord& train = m_document.job().train;
        m_document.edit(drop->above ? move_above(train, held, drop->beside) : move_below(train, held, drop->beside));
        m_document.selection().select(held);
    });
}

void Ladder::fill_menu(QMenu& menu, const Place* place, const QPointF& at) {
    Canvas::fill_menu(menu, place, at);
    emit menu_wanted(&menu);
}

void Ladder::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Up) m_document.selection().climb(1);
    else if (event->key() == Qt::Key_Down) m_document.selection().climb(-1);
    else if (event->key() == Qt::Key_Right) m_document.selection().next_train();
    else QWidget::keyPressEvent(event);
}

}  // namespace echappe
