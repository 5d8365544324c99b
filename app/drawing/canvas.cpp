#include "drawing/canvas.h"

#include <QAccessible>
#include <QApplication>
#include <QClipboard>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPaintEvent>
#include <QToolTip>
#include <algorithm>
#include <cmath>
#include <exception>
#include <optional>

#include "drawing/canvas_reader.h"
#include "drawing/glossary.h"
#include "drawing/words.h"

namespace echappe {
namespace {

/// A mouse's event in the house's pixels, told to `take`; whether it was taken goes back to the event as it came.
bool in_house_pixels(QEvent& event, const std::function<bool(QEvent*)>& take) {
    const double scale = interface_scale();
    const auto told = [&](auto mapped) {
        mapped.setAccepted(event.isAccepted());
        const bool taken = take(&mapped);
        event.setAccepted(mapped.isAccepted());
        return taken;
    };
    switch (event.type()) {
        case QEvent::MouseButtonPress:
        case QEvent::MouseButtonRelease:
        case QEvent::MouseButtonDblClick:
        case QEvent::MouseMove: {
            const auto& mouse = static_cast<QMouseEvent&>(event);
            return told(QMouseEvent(mouse.type(), mouse.position() / scale, mouse.scenePosition(), mouse.globalPosition(), mouse.button(),
                                    mouse.buttons(), mouse.modifiers(), mouse.pointingDevice()));
        }
        case QEvent::Wheel: {
            const auto& wheel = static_cast<QWheelEvent&>(event);
            return told(QWheelEvent(wheel.position() / scale, wheel.globalPosition(), wheel.pixelDelta(), wheel.angleDelta(),
                                    wheel.buttons(), wheel.modifiers(), wheel.phase(), wheel.inverted()));
        }
        case QEvent::ContextMenu: {
            const auto& menu = static_cast<QContextMenuEvent&>(event);
            return told(QContextMenuEvent(menu.reason(), (QPointF(menu.pos()) / scale).toPoint(), menu.globalPos(), menu.modifiers()));
        }
        default:
            return take(&event);
    }
}

}  // namespace

Canvas::Canvas(QWidget* parent) : QWidget(parent) {
    setMouseTracking(true);
    setAttribute(Qt::WA_OpaquePaintEvent);
    read_canvases_aloud();
}

int Canvas::width() const { return static_cast<int>(std::ceil(QWidget::width() / interface_scale())); }
int Canvas::height() const { return static_cast<int>(std::ceil(QWidget::height() / interface_scale())); }
QRect Canvas::rect() const { return {0, 0, width(), height()}; }

QRectF Canvas::on_widget(const QRectF& at) const {
    const double scale = interface_scale();
    return {at.topLeft() * scale, at.size() * scale};
}

void Canvas::fix_size() {
    const QSizeF wanted = QSizeF(fixed_size()) * interface_scale();
    if (wanted.width() > 0) setFixedWidth(static_cast<int>(std::lround(wanted.width())));
    if (wanted.height() > 0) setFixedHeight(static_cast<int>(std::lround(wanted.height())));
}

void Canvas::attempt(const std::function<void()>& action) {
    try {
        action();
    } catch (const std::exception& error) {
        emit told(fault_in_words(error), true);
    }
}

void Canvas::paintEvent(QPaintEvent* event) {
    const QStringList before = QAccessible::isActive() ? tags() : QStringList();
    m_places.clear();
    m_readables.clear();
    m_wanted = event->region();
    {
        const TakingDown taking(m_written, interface_scale());
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.scale(interface_scale(), interface_scale());
        paint(painter);
        paint_focus(painter);
    }
    m_wanted = {};
    if (QAccessible::isActive() && before != tags()) {
        QAccessibleEvent changed(this, QAccessible::ObjectReorder);
        QAccessible::updateAccessibility(&changed);
    }
}

void Canvas::resizeEvent(QResizeEvent*) { lay_out(); }

void Canvas::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() != QEvent::StyleChange) return;
    fix_size();
    lay_out();
    update();
}

const Canvas::Place* Canvas::at(const QPointF& point) const {
    // What was painted last lies on top.
    for (auto place = m_places.rbegin(); place != m_places.rend(); ++place)
        if (place->rect.contains(point)) return &*place;
    return nullptr;
}

QRectF Canvas::place_of(const QString& tag) const {
    for (const Place& place : m_places)
        if (place.tag == tag) return place.rect;
    return {};
}

QStringList Canvas::tags() const {
    QStringList list;
    for (const Place& place : m_places) list << place.tag;
    return list;
}

bool Canvas::act(const QString& tag) {
    for (const Place& place : m_places) {
        if (place.tag != tag || !place.click) continue;
        // A copy: the click may repaint and with it replace the places.
        const auto click = place.click;
        click();
        return true;
    }
    return false;
}

bool Canvas::nothing_written_in(const QRectF& box) const {
    return std::none_of(m_written.begin(), m_written.end(), [&](const Lettered& one) { return one.at.intersects(box); });
}

QString Canvas::words_of(const QString& tag) const { return words_in(m_written, place_of(tag)); }
QString Canvas::page() const { return words_in(m_written, rect()); }

Canvas::Readable Canvas::readable(const Place& place) const {
    Readable one{place.tag, place.name, {}, hint_of(place), place.rect, place.click != nullptr, place.chosen, place.selects};
    const auto line = std::find_if(m_written.begin(), m_written.end(),
                                   [&](const Lettered& w) { return w.is_figure() && place.rect.contains(w.at.center()); });
    if (one.name.isEmpty() && line != m_written.end()) {
        one.name = line->name;
        one.value = line->words.mid(line->name.size()).trimmed();
        return one;
    }
    const QString said = words_in(m_written, place.rect);
    if (one.name.isEmpty()) one.name = said;
    else if (!one.name.endsWith(said)) one.value = said;
    if (one.name.isEmpty()) one.name = one.hint.isEmpty() ? place.tag : one.hint;
    return one;
}

const std::vector<Canvas::Readable>& Canvas::readables() const {
    if (m_readables.empty()) m_readables = read();
    return m_readables;
}

std::vector<Canvas::Readable> Canvas::read() const {
    std::vector<Readable> list;
    for (const Place& place : m_places) list.push_back(readable(place));
    std::vector<Lettered> alone;
    const auto lies_in = [](const Lettered& one, const auto& others, auto rect_of) {
        return std::any_of(others.begin(), others.end(), [&](const auto& other) { return rect_of(other).contains(one.at.center()); });
    };
    std::vector<Lettered> figures;
    for (const Lettered& one : m_written)
        if (one.is_figure()) figures.push_back(one);
    for (const Lettered& one : m_written) {
        if (lies_in(one, m_places, [](const Place& place) { return place.rect; })) continue;
        if (!one.is_figure() && lies_in(one, figures, [](const Lettered& line) { return line.at; })) continue;
        alone.push_back(one);
    }
    sort_for_reading(alone);
    for (const Lettered& one : alone) {
        const QString name = one.is_figure() ? one.name : one.words;
        list.push_back({{}, name, one.is_figure() ? one.words.mid(one.name.size()).trimmed() : QString(), {}, one.at});
    }
    return list;
}

const Canvas::Place* Canvas::standing() const {
    if (m_stands_on.isEmpty() || !m_by_keyboard) return nullptr;
    for (const Place& place : m_places)
        if (place.tag == m_stands_on) return &place;
    return nullptr;
}

void Canvas::stand_on(const QString& tag) {
    if (m_stands_on == tag && m_by_keyboard) return;
    m_stands_on = tag;
    m_by_keyboard = true;
    update();
    const Place* place = standing();
    if (!place) return;
    show_place(place->rect);
    const Readable one = readable(*place);
    emit told(one.hint.isEmpty() ? one.name + " " + one.value : one.hint, false);
    QAccessibleEvent focused(this, QAccessible::Focus);
    focused.setChild(static_cast<int>(place - m_places.data()));
    QAccessible::updateAccessibility(&focused);
}

/// From place to place that something can be done with; false at the last.
bool Canvas::step_place(int by) {
    QStringList stops;
    for (const Place& place : m_places)
        if ((place.click || place.double_click) && !place.passed && !stops.contains(place.tag)) stops << place.tag;
    const auto now = stops.indexOf(m_stands_on);
    const auto next = now < 0 ? (by > 0 ? 0 : stops.size() - 1) : now + by;
    if (next < 0 || next >= stops.size()) return false;
    stand_on(stops[next]);
    return true;
}

void Canvas::lead_on(int by) {
    if (m_stands_on.isEmpty()) return;
    const QString kind = m_stands_on.section(':', 0, 0);
    repaint();
    if (step_place(by) && m_stands_on.section(':', 0, 0) == kind) act(m_stands_on);
}

void Canvas::paint_focus(QPainter& painter) const {
    if (!hasFocus()) return;
    const Theme& t = inks(painter);
    painter.fillRect(QRectF(0, 0, width(), 2), t.blued);
    const Place* place = standing();
    if (!place) return;
    const QRectF ring = place->rect.adjusted(-2, -2, 2, 2).intersected(QRectF(rect()).adjusted(2, 3, -2, -2));
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(t.sheet, 5));
    painter.drawRoundedRect(ring, 4, 4);
    painter.setPen(QPen(t.blued, 2.4));
    painter.drawRoundedRect(ring, 4, 4);
}

QString Canvas::to_copy() const {
    QRectF where = rect();
    bool all = true;
    if (const Place* place = standing()) where = place->rect, all = false;
    QStringList lines;
    for (const Lettered& one : m_written)
        if (one.is_figure() && where.contains(one.at.center())) lines << one.name + "\t" + one.figure + "\t" + one.unit;
    if (!lines.isEmpty()) return lines.join("\n");
    return all ? page() : words_in(m_written, where);
}

void Canvas::focusInEvent(QFocusEvent* event) {
    QWidget::focusInEvent(event);
    // Coming by Tab one comes to the first place, or backwards to the last.
    if (event->reason() == Qt::TabFocusReason) step_place(1);
    else if (event->reason() == Qt::BacktabFocusReason) step_place(-1);
    update();
}

void Canvas::focusOutEvent(QFocusEvent* event) {
    QWidget::focusOutEvent(event);
    if (event->reason() == Qt::TabFocusReason || event->reason() == Qt::BacktabFocusReason) m_stands_on.clear();
    update();
}

void Canvas::contextMenuEvent(QContextMenuEvent* event) {
    const bool by_key = event->reason() == QContextMenuEvent::Keyboard;
    const Place* place = by_key ? standing() : at(event->pos());
    const QPointF where = !by_key ? QPointF(event->pos()) : place ? place->rect.center() : QPointF(rect().center());
    auto* menu = new QMenu(this);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    // A copy: what is selected first paints the places anew.
    const std::optional<Place> here = place ? std::optional(*place) : std::nullopt;
    fill_menu(*menu, here ? &*here : nullptr, where);
    if (menu->isEmpty()) return menu->deleteLater();
    menu->popup(by_key ? on_screen(where) : event->globalPos());
}

void Canvas::fill_menu(QMenu& menu, const Place* place, const QPointF& /*at*/) {
    constexpr qsizetype longest = 60;
    if (place) {
        const Readable one = readable(*place);
        menu.setTitle(one.name.left(longest));
        menu.addSection(one.name.left(longest));
        const auto offer = [&](const std::function<void()>& go, const QString& words) {
            if (go) menu.addAction(words, this, [this, go] { attempt(go); });
        };
        if (place->selects) attempt(place->click);
        else offer(place->click, one.hint.isEmpty() ? words("Do it") : one.hint.section('\n', 0, 0).left(longest));
        offer(place->double_click, words("Change it…"));
        const QString copied = one.name + " " + one.value;
        menu.addAction(words("Copy"), this, [copied] { QApplication::clipboard()->setText(copied.simplified()); });
    } else if (!m_written.empty()) {
        menu.addAction(words("Copy what stands here"), this, [this] { QApplication::clipboard()->setText(to_copy()); });
    }
}

void Canvas::mousePressEvent(QMouseEvent* event) {
    const Place* place = event->button() == Qt::LeftButton ? at(event->position()) : nullptr;
    if (m_by_keyboard) update();
    m_by_keyboard = false;
    m_stands_on = place ? place->tag : QString();
    if (!place || !place->click) return QWidget::mousePressEvent(event);
    const auto click = place->click;
    click();
}

void Canvas::mouseDoubleClickEvent(QMouseEvent* event) {
    const Place* place = at(event->position());
    if (!place || !place->double_click) return mousePressEvent(event);
    const auto click = place->double_click;
    click();
}

void Canvas::mouseMoveEvent(QMouseEvent* event) {
    const Place* place = at(event->position());
    setCursor(place && place->click ? Qt::PointingHandCursor : Qt::ArrowCursor);
    QWidget::mouseMoveEvent(event);
}

bool Canvas::event(QEvent* event) {
    bool taken = true;
    attempt([&] { taken = in_house_pixels(*event, [this](QEvent* mapped) { return answer(mapped); }); });
    return taken;
}

/// Tab leads from place to place and on to the next sheet; Enter and Space do what a click does, with Shift what a double click
/// does; Escape goes back to the picture as a whole.
bool Canvas::answer_key(QKeyEvent& key) {
    const bool plain = !(key.modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
    if (key.matches(QKeySequence::Copy)) {
        QApplication::clipboard()->setText(to_copy());
        emit told(words("Copied: %1").arg(to_copy().simplified().left(80)), false);
        return true;
    }
    if (!plain) return false;
    // The toolkit knows the menu key only.
    if (key.key() == Qt::Key_F10 && (key.modifiers() & Qt::ShiftModifier)) {
        QContextMenuEvent menu(QContextMenuEvent::Keyboard, {}, {}, {});
        contextMenuEvent(&menu);
        return true;
    }
    if (key.key() == Qt::Key_Tab || key.key() == Qt::Key_Backtab) return step_place(key.key() == Qt::Key_Tab ? 1 : -1);
    const Place* place = standing();
    if (!place) return false;
    if (key.key() == Qt::Key_Escape) {
        stand_on({});
        return true;
    }
    if (key.key() != Qt::Key_Return && key.key() != Qt::Key_Enter && key.key() != Qt::Key_Space) return false;
    const bool twice = (key.modifiers() & Qt::ShiftModifier) || !place->click;
    const auto go = twice && place->double_click ? place->double_click : place->click;
    if (go) go();
    return true;
}

bool Canvas::answer(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride) {
        // On a place, what would do it is no shortcut of the window.
        const auto& key = static_cast<QKeyEvent&>(*event);
        const bool does = key.key() == Qt::Key_Return || key.key() == Qt::Key_Enter || key.key() == Qt::Key_Space;
        if ((standing() && does) || key.matches(QKeySequence::Copy)) event->accept();
    }
    if (event->type() == QEvent::KeyPress && answer_key(static_cast<QKeyEvent&>(*event))) return true;
    if (event->type() != QEvent::ToolTip) return QWidget::event(event);
    const auto* help = static_cast<QHelpEvent*>(event);
    const Place* place = at(QPointF(help->pos()) / interface_scale());
    QString hint = place ? hint_of(*place) : QString();
    // What has no hint of its own may have a term of the trade in its words.
    for (const Lettered& one : m_written)
        if (hint.isEmpty() && one.at.contains(QPointF(help->pos()) / interface_scale())) hint = meaning_in(one.words);
    if (!hint.isEmpty()) QToolTip::showText(help->globalPos(), hint, this);
    else QToolTip::hideText();
    return true;
}

}  // namespace echappe
