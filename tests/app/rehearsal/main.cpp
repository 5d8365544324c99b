#include <unistd.h>

#include <QApplication>
#include <QTimer>

#include "instruments/calliper_line.h"
#include "window/main_window.h"

namespace {

using namespace echappe;

/// One edit after the other through the real window's document; each is told on standard output once it is confirmed.
void edit_for_ever(MainWindow& window) {
    auto* clock = new QTimer(&window);
    QObject::connect(clock, &QTimer::timeout, &window, [&window, n = 0]() mutable {
        ++n;
        const SurveyQuestion question{"centre.front", "hole_max_mm", "centre", "hole", "", "mm"};
        window.document().keep_survey_reading(question, 1.7 + n / 1000.0);
        // A list that grows and an edit taken back lie between the readings.
        if (n % 5 == 0)
            window.document().edit("part", [n](Job& job) { job.survey.tally.push_back({"part " + std::to_string(n), "E", "out", ""}); });
        if (n % 7 == 0) {
            window.document().set_pegged({"great.front"}, false);
            window.document().undo_stack()->undo();
        }
        const std::string line = std::to_string(n) + "\n";
        if (write(STDOUT_FILENO, line.data(), line.size()) < 0) QApplication::quit();
    });
    clock->start(0);
}

}  // namespace

// The real window with one unsaved reading, or with "edits" reading on and on, left running until a test kills it.
int main(int argc, char** argv) {
    QApplication application(argc, argv);
    MainWindow window;
    window.open_demo("tide-house");
    window.show();
    if (argc > 1) edit_for_ever(window);
    else
        QTimer::singleShot(0, &window, [&] { window.document().store_reading({window.calliper().asked()->key, 35.12, 0.05}, "calliper"); });
    return QApplication::exec();
}
