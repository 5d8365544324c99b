#include "instruments/typing.h"

#include <QApplication>
#include <QKeyEvent>
#include <QPlainTextEdit>

#include "instruments/calliper_line.h"

namespace echappe {

Typing::Typing(CalliperLine& line) : QObject(&line), m_line(line) { qApp->installEventFilter(this); }

bool Typing::is_typed(QObject* watched, const QEvent& event) const {
    const auto* widget = qobject_cast<const QWidget*>(watched);
    if (!widget || widget->window() != m_line.window() || qobject_cast<const QLineEdit*>(widget) ||
        qobject_cast<const QPlainTextEdit*>(widget))
        return false;
    if (QApplication::activePopupWidget() || QApplication::activeModalWidget()) return false;
    return m_line.wants(static_cast<const QKeyEvent&>(event));
}

bool Typing::eventFilter(QObject* watched, QEvent* event) {
    // A key first asks whether it is a shortcut: one that is typed is none.
    if (event->type() == QEvent::ShortcutOverride && is_typed(watched, *event)) {
        event->accept();
        return true;
    }
    if (event->type() == QEvent::KeyPress && is_typed(watched, *event)) {
        m_line.take_key(*static_cast<QKeyEvent*>(event));
        return true;
    }
    return QObject::eventFilter(watched, event);
}

}  // namespace echappe
