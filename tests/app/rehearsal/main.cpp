#include <QApplication>
#include <QTimer>

#include "instruments/calliper_line.h"
#include "window/main_window.h"

// The real window with one unsaved reading, left running until the crash test kills it.
int main(int argc, char** argv) {
    QApplication application(argc, argv);
    echappe::MainWindow window;
    window.open_demo("tide-house");
    window.show();
    QTimer::singleShot(0, &window, [&] { window.document().store_reading({window.calliper().asked()->key, 35.12, 0.05}, "calliper"); });
    return QApplication::exec();
}
