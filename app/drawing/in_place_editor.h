#pragma once

#include <QLineEdit>
#include <functional>

namespace echappe {

/// A line of text over a figure in a picture: Return takes it, Escape or a click elsewhere leaves things as they are.
class InPlaceEditor : public QLineEdit {
    Q_OBJECT
public:
    explicit InPlaceEditor(QWidget* parent);

    /// Opens over the middle of `at`. `take` may throw InputError: the line then stays open and the fault is told.
    void ask(const QRectF& at, const QString& text, std::function<void(const QString&)> take);

signals:
    void refused(const QString& sentence);

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    void close_line();
    std::function<void(const QString&)> m_take;
};

}  // namespace echappe
