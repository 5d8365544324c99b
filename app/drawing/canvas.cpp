#include "drawing/canvas.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QToolTip>
#include <exception>

namespace echappe {

Canvas::Canvas(QWidget* parent) : QWidget(parent) {
    setMouseTracking(true);
    setAttribute(Qt::WA_OpaquePaintEvent);
}

void Canvas::attempt(const std::function<void()>& action) {
    try {
        action();
    } catch (const std::exception& error) {
        emit told(QString::fromUtf8(error.what()), true);
    }
}

void Canvas::paintEvent(QPaintEvent*) {
    m_places.clear();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    paint(painter);
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

void Canvas::mousePressEvent(QMouseEvent* event) {
    const Place* place = event->button() == Qt::LeftButton ? at(event->position()) : nullptr;
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
    attempt([&] { taken = answer(event); });
    return taken;
}

bool Canvas::answer(QEvent* event) {
    // Tab is a key like others where the picture has a use for it; elsewhere it leads on, as the toolkit has it.
    if (event->type() == QEvent::KeyPress) {
        auto* key = static_cast<QKeyEvent*>(event);
        if (key->key() == Qt::Key_Tab || key->key() == Qt::Key_Backtab) {
            keyPressEvent(key);
            if (key->isAccepted()) return true;
            key->accept();
        }
    }
    if (event->type() != QEvent::ToolTip) return QWidget::event(event);
    const auto* help = static_cast<QHelpEvent*>(event);
    const Place* place = at(help->pos());
    const QString hint = !place ? QString() : place->hint_when_asked ? place->hint_when_asked() : place->hint;
    if (!hint.isEmpty()) QToolTip::showText(help->globalPos(), hint, this);
    else QToolTip::hideText();
    return true;
}

}  // namespace echappe
