#include "drawing/in_place_editor.h"

#include <QKeyEvent>
#include <cmath>
#include <exception>

#include "drawing/canvas.h"
#include "drawing/words.h"
#include "theme/theme.h"

namespace echappe {

InPlaceEditor::InPlaceEditor(QWidget* parent) : QLineEdit(parent) {
    hide();
    wear(*this, Type::head, true);
    setAlignment(Qt::AlignCenter);
    setMaxLength(longest_entry);
    connect(this, &QLineEdit::textEdited, this, [this](const QString& typed) {
        if (typed.size() >= longest_entry) emit refused(words("Cut after %1 letters: there is no room for more here.").arg(longest_entry));
    });
}

void InPlaceEditor::ask(const QString& what, const QRectF& at, const QString& text, std::function<void(const QString&)> take) {
    leave();
    // The place is the canvas's, the line the screen's.
    const double scale = interface_scale();
    const int high = static_cast<int>(std::lround(32 * scale));
    const int wide = static_cast<int>(std::lround(std::max(68.0, at.width() + 24) * scale));
    QRect box((at.center() * scale).toPoint() - QPoint(wide / 2, high / 2), QSize(wide, high));
    const QRect room = parentWidget()->rect().adjusted(4, 4, -4, -4);
    box.moveLeft(std::clamp(box.left(), room.left(), std::max(room.left(), room.right() - wide)));
    box.moveTop(std::clamp(box.top(), room.top(), std::max(room.top(), room.bottom() - high)));
    m_take = std::move(take);
    m_what = what;
    setAccessibleName(what);
    // In a centred line the toolkit hides what is asked as soon as the line has the focus.
    constexpr int room_for_words = 160;
    setAlignment(box.width() < room_for_words ? Qt::AlignCenter : Qt::AlignLeft | Qt::AlignVCenter);
    setPlaceholderText(what);
    m_stood = text;
    m_asking = true;
    setGeometry(box);
    const auto typed = m_unkept.find(what);
    setText(typed != m_unkept.end() ? typed->second : text);
    if (typed != m_unkept.end()) m_unkept.erase(typed);
    selectAll();
    show();
    raise();
    setFocus();
}

void InPlaceEditor::leave() {
    if (!m_asking) return;
    if (pending()) {
        m_unkept[m_what] = text();
        emit refused(words("Typed for %1 and not kept: %2. It stands there when that is asked again.").arg(m_what, text().left(40)));
    }
    m_asking = false;
    hide();
    emit closed();
}

QStringList InPlaceEditor::unkept() const {
    QStringList list;
    for (const auto& [what, typed] : m_unkept) list << what + ": " + typed.left(40);
    if (pending()) list << m_what + ": " + text().left(40);
    return list;
}

void InPlaceEditor::forget_unkept() {
    m_unkept.clear();
    m_asking = false;
    m_take = {};
    clear();
    hide();
}

void InPlaceEditor::close_line() {
    m_asking = false;
    hide();
    parentWidget()->setFocus();
    emit closed();
}

void InPlaceEditor::keep() {
    // A key that comes when nothing is asked any more belongs to no question.
    if (!m_asking) return;
    // What stands there may be shown rounded: unchanged it is left as it is.
    if (!m_stood.isEmpty() && text() == m_stood) return close_line();
    // While it is being kept it is not left, whatever the edit moves.
    m_asking = false;
    try {
        m_take(text());
        close_line();
    } catch (const std::exception& error) {
        m_asking = true;
        emit refused(fault_in_words(error));
    }
}

void InPlaceEditor::keyPressEvent(QKeyEvent* event) {
    // Return and Escape belong to the line alone: passed on they would act on the picture.
    if (event->key() == Qt::Key_Escape) return close_line();
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) return keep();
    QLineEdit::keyPressEvent(event);
}

/// An instrument may end its reading with Tab, and the toolkit would go to another widget.
bool InPlaceEditor::event(QEvent* event) {
    if (event->type() == QEvent::KeyPress)
        if (const int key = static_cast<QKeyEvent*>(event)->key(); key == Qt::Key_Tab || key == Qt::Key_Backtab) {
            keep();
            auto* canvas = qobject_cast<Canvas*>(parentWidget());
            if (!m_asking && canvas) canvas->lead_on(key == Qt::Key_Tab ? 1 : -1);
            return true;
        }
    return QLineEdit::event(event);
}

void InPlaceEditor::focusOutEvent(QFocusEvent* event) {
    QLineEdit::focusOutEvent(event);
    // Another window in front, or a menu: one comes back to the line.
    if (event->reason() != Qt::ActiveWindowFocusReason && event->reason() != Qt::PopupFocusReason &&
        event->reason() != Qt::MenuBarFocusReason)
        leave();
}

}  // namespace echappe
