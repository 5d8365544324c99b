#include "ladder/ladder.h"

#include <QApplication>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <algorithm>

#include "drawing/words.h"
#include "number/units.h"
#include "sheet/marks.h"
#include "theme/theme.h"
#include "train/structure.h"

namespace echappe {
namespace {

constexpr double top = 44;
constexpr double bottom = 50;
constexpr int widest = 224, narrowest = 132;
constexpr double roomy = 190;  ///< less than that says less
constexpr double most_step = 150, least_step = 62;

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
    setAccessibleName(words("Ladder"));
    const auto refresh = [this] {
        Content now = content();
        if (now == m_content) return;
        m_content = std::move(now);
        scroll_to_subject();
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
    if (derived.train.beats_per_hour) content.beats = words("%1 beats an hour").arg(words(print_short(*derived.train.beats_per_hour, 7)));
    if (derived.train.run_s) content.run = words("runs %1").arg(words(print_span(*derived.train.run_s)));
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
    if (!arbor.direction.empty()) {
        const bool right = arbor.direction == "cw";
        rung.direction = right ? words("turns right") : words("turns left");
        rung.way = right ? words("right") : words("left");
    }
    rung.subject = arbor.id == m_document.selection().subject();
    const ArborInput& written = m_document.job().train.arbor(arbor.id)->train;
    if (written.wheel.is == Count::Is::lost || written.pinion.is == Count::Is::lost)
        rung.marks << (m_document.derived().train.chosen ? words("chosen") : words("lost"));
    int open = 0;
    for (const Finding& finding : m_document.derived().findings) {
        if (finding.arbor != arbor.id || !finding.verdict.empty()) continue;
        if (open++ == 0) rung.worst = finding.severity;
    }
    if (open > 0) rung.marks << (open == 1 ? words("1 finding") : words("%1 findings").arg(open));
    return rung;
}

void Ladder::set_wide(double window) {
    constexpr double share = 0.13;
    m_wide = std::clamp(static_cast<int>(window * share), narrowest, widest);
    fix_size();
}

double Ladder::step() const {
    const double even = (height() - top - bottom) / static_cast<double>(std::max<size_t>(1, m_content.rungs.size()));
    return std::clamp(even, least_step, most_step);
}

double Ladder::most_scrolled() const {
    return std::max(0.0, step() * static_cast<double>(m_content.rungs.size()) - (height() - top - bottom));
}

/// Far enough that the selected rung is seen.
void Ladder::scroll_to_subject() {
    for (size_t i = 0; i < m_content.rungs.size(); ++i) {
        if (!m_content.rungs[i].subject) continue;
        const double low = step() * static_cast<double>(i), high = low + step();
        m_scrolled = std::clamp(m_scrolled, high - (height() - top - bottom), low);
    }
    m_scrolled = std::clamp(m_scrolled, 0.0, most_scrolled());
}

void Ladder::wheelEvent(QWheelEvent* event) {
    m_scrolled = std::clamp(m_scrolled + event->angleDelta().y() / 2.0, 0.0, most_scrolled());
    update();
}

void Ladder::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.sheet);
    painter.fillRect(QRectF(width() - 1, 0, 1, height()), t.rule);
    if (m_content.rungs.empty()) {
        write_wrapped(painter, type(Type::text), t.steel, {18, 30}, width() - 36,
                      words("The train stands here as it is written down, rung by rung as the power climbs."));
        return;
    }
    paint_head(painter);
    painter.save();
    painter.setClipRect(QRectF(0, top - 4, width(), height() - top - bottom + 8));
    double y = height() - bottom + m_scrolled;
    for (const Rung& rung : m_content.rungs) {
        paint_rung(painter, rung, {6, y - step() + 4, width() - 12.0, step() - 8});
        y -= step();
    }
    painter.restore();
    if (m_dragging) paint_held(painter);
    const auto foot = [&](double above, const QString& words) {
        const QFont font = type_to_fit(Type::text, false, words, width() - 24);
        write(painter, font, t.blued, {14, height() - above}, elided(font, words, width() - 20));
    };
    const double room = width() - 20;
    const bool whole = width_of(type(Type::note), m_content.beats) < room;
    foot(30, whole ? m_content.beats : m_content.beats.section(' ', 0, 0) + words(" / h"));
    foot(13, brief(m_content.run, room));
}

void Ladder::paint_head(QPainter& painter) {
    const Theme& t = inks(painter);
    const QString beside = m_content.several ? words("other train →") : words("power climbs ↑");
    const double wide = width_of(type(Type::note), beside);
    const QFont bold = type(Type::note, true);
    // Where there is no room for both, what can be done goes before what is known.
    const bool both = wide + width_of(bold, m_content.train) + 44 < width();
    if (both || !m_content.several)
        write(painter, bold, t.steel, {14, 27}, elided(bold, m_content.train, width() - 24 - (both ? wide + 12 : 0)));
    if (both || m_content.several) write(painter, type(Type::note), m_content.several ? t.blued : t.steel, {width() - 14.0, 27}, beside, 1);
    if (m_content.several)
        place({"other train",
               QRectF(width() - wide - 22, 10, wide + 16, 26),
               [this] { m_document.selection().next_train(); },
               words("%1 is shown; shows the next train (→)").arg(m_content.train),
               {}});
}

/// The wheel as a disc to the common scale, the pinion over its edge, each with its count.
void Ladder::paint_discs(QPainter& painter, const Rung& rung, QPointF centre, double radius) {
    const Theme& t = inks(painter);
    const bool narrow = width() < roomy;
    double half = 0;  // of the wheel's count
    if (rung.wheel.count.present()) {
        const bool missing = rung.wheel.known == Known::missing;
        painter.setPen(rim_pen(rung.wheel.known, t.brass));
        painter.setBrush(missing ? QBrush(Qt::NoBrush) : QBrush(t.pale_brass));
        painter.drawEllipse(centre, radius, radius);
        const QString count = count_text(rung.wheel.count, rung.wheel.known);
        const QFont font = type_to_fit(narrow ? Type::figure : Type::head, true, count, 2 * radius - 10);
        half = write(painter, font, missing ? t.brass_ink : t.ink, centre + QPointF(0, 6), count, 0) / 2;
    }
    if (!rung.pinion.count.present()) return;
    const bool missing = rung.pinion.known == Known::missing;
    const QPointF at = centre + QPointF(std::max(radius * 0.78 + 4, half + 9), std::min(radius * 0.62 + 5, step() / 2 - 17));
    painter.setPen(rim_pen(rung.pinion.known, t.steel));
    painter.setBrush(!missing ? t.steel : rung.subject && !t.dark ? QColor(Qt::white) : t.sheet);
    painter.drawEllipse(at, 12, 12);
    write(painter, type(Type::note, true), missing ? t.steel : t.sheet, at + QPointF(0, 4),
          count_text(rung.pinion.count, rung.pinion.known), 0);
}

void Ladder::paint_rung(QPainter& painter, const Rung& rung, const QRectF& room) {
    const Theme& t = inks(painter);
    const bool narrow = width() < roomy;
    if (rung.subject) {
        painter.setPen(QPen(t.blued, 1.5));
        painter.setBrush(t.dark ? t.ground : QColor(Qt::white));
        painter.drawRoundedRect(room, 4, 4);
    }
    const double largest = width() * (narrow ? 0.17 : 0.205);
    const QPointF centre(largest + (narrow ? 12 : 18), room.center().y());
    const double radius = std::clamp(rung.radius_mm * largest / m_content.largest_mm, std::min(17.0, largest), room.height() / 2 - 3);
    paint_discs(painter, rung, centre, radius);
    const double text_x = centre.x() + largest + (narrow ? 13 : 14), room_beside = width() - text_x - 7;
    constexpr double line_height = 17;
    const bool low = room.height() < 4 * line_height + 4;
    const auto say = [&](double y, const QString& words, const QColor& ink, Type size, bool bold = false) {
        const QFont font = type_to_fit(size, bold, words, room_beside);
        write(painter, font, ink, {text_x, y}, elided(font, words, room_beside));
    };
    double line = room.center().y() - (low ? 8 : 22);
    say(line, rung.name, rung.subject ? t.blued : t.ink, Type::text, true);
    if (!rung.period.isEmpty())
        say(line += line_height + 1, brief(rung.period, room_beside), rung.period_open ? t.brass_ink : t.blued, Type::text);
    const auto fits = [&](const QString& words) { return width_of(type(Type::note), words) <= room_beside; };
    if (!rung.direction.isEmpty() && !low) say(line += line_height, fits(rung.direction) ? rung.direction : rung.way, t.steel, Type::note);
    const QString marks = rung.marks.join(" · ");
    const QColor ink = rung.worst.empty() ? t.steel : t.severity(rung.worst);
    const bool tall = room.height() > 6 * line_height;
    for (const QString& mark : fits(marks) || !tall ? QStringList(marks) : rung.marks)
        if (!low || rung.period.isEmpty()) say(line += line_height, mark, ink, Type::note);
    place({"rung:" + words(rung.arbor),
           room,
           [this, id = rung.arbor] { m_document.selection().select(id); },
           QStringList({rung.name, rung.period, rung.direction, rung.marks.join(" · ")}).join("\n").simplified(),
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
    const Theme& t = inks(painter);
    if (const auto drop = drop_at(m_held, m_hand.y())) {
        painter.setPen(QPen(t.blued, 3));
        painter.drawLine(QPointF(10, drop->y), QPointF(width() - 10.0, drop->y));
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
