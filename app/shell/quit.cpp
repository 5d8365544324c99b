#include "shell/quit.h"

#include <QApplication>

#include "shell/main_window.h"

namespace echappe {

void quit() {
    QList<MainWindow*> windows;
    for (QWidget* widget : QApplication::topLevelWidgets())
        if (auto* window = qobject_cast<MainWindow*>(widget); window && window->isVisible()) windows << window;
    for (MainWindow* window : windows)
        if (!window->jobs().may_leave()) return;
    for (MainWindow* window : windows) {
        window->jobs().let_go();
        window->close();
    }
}

}  // namespace echappe
