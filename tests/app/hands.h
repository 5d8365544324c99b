#pragma once

#include <QApplication>
#include <QFileDialog>
#include <QLineEdit>
#include <QMessageBox>
#include <QPushButton>
#include <QTimer>
#include <deque>
#include <functional>

/// What a person does with the questions that come up, one after the other, each when it is there.
class Hands : public QObject {
public:
    Hands() {
        connect(&m_clock, &QTimer::timeout, this, [this] {
            if (!m_steps.empty() && m_steps.front()()) m_steps.pop_front();
        });
        m_clock.start(20);
    }
    /// Presses the button with these words in the next question; Escape when it has none.
    Hands& press(const QString& words) {
        m_steps.push_back([this, words] {
            auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
            if (!box || !box->isVisible()) return false;
            asked = box->text();
            for (QAbstractButton* button : box->buttons())
                if (button->text() == words) return button->click(), true;
            return box->reject(), true;
        });
        return *this;
    }
    /// Types a name into the next file dialog and takes it.
    Hands& name_file(const QString& path) {
        m_steps.push_back([path] {
            auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
            if (!dialog || !dialog->isVisible()) return false;
            dialog->findChild<QLineEdit*>()->setText(path);
            static_cast<QDialog*>(dialog)->accept();
            return true;
        });
        return *this;
    }
    QString asked;  ///< by the question that was answered last

private:
    QTimer m_clock;
    std::deque<std::function<bool()>> m_steps;
};
