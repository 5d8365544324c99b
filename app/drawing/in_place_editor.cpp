#include "drawing/in_place_editor.h"

#include <QKeyEvent>

#include "number/input_error.h"
#include "theme/theme.h"

namespace echappe {

InPlaceEditor::InPlaceEditor(QWidget* parent) : QLineEdit(parent) {
    hide();
    setFont(figure_font(15));
    setAlignment(Qt::AlignCenter);
    connect(this, &QLineEdit::editingFinished, this, &QWidget::hide);
}

void InPlaceEditor::ask(const QRectF& at, const QString& text, std::function<void(const QString&)> take) {
    constexpr int high = 32;
    const int wide = std::max(68, static_cast<int>(at.width()) + 24);
    QRect box(at.center().toPoint() - QPoint(wide / 2, high / 2), QSize(wide, high));
    const QRect room = parentWidget()->rect().adjusted(4, 4, -4, -4);
    box.moveLeft(std::clamp(box.left(), room.left(), std::max(room.left(), room.right() - wide)));
    box.moveTop(std::clamp(box.top(), room.top(), std::max(room.top(), room.bottom() - high)));
    m_take = std::move(take);
    setGeometry(box);
    setText(text);
    selectAll();
    show();
    raise();
    setFocus();
}

void InPlaceEditor::close_line() {
    hide();
    parentWidget()->setFocus();
}

void InPlaceEditor::keyPressEvent(QKeyEvent* event) {
    // Return and Escape belong to the line alone: passed on they would act on the picture.
    if (event->key() == Qt::Key_Escape) return close_line();
    if (event->key() != Qt::Key_Return && event->key() != Qt::Key_Enter) return QLineEdit::keyPressEvent(event);
    try {
        m_take(text());
        close_line();
    } catch (const InputError& error) {
        emit refused(error.what());
    }
}

}  // namespace echappe
