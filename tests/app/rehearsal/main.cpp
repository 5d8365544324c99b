#include <unistd.h>

#include <QApplication>
#include <QDir>
#include <QKeyEvent>
#include <QTimer>
#include <algorithm>
#include <random>

#include "document/bench_hand.h"
#include "document/today.h"
#include "instruments/calliper_line.h"
#include "rehearsal/walk.h"
#include "shell/application.h"
#include "shell/main_window.h"
#include "survey/edits.h"
#include "train/edits.h"

// The real window left working until a test kills it.
//   once              one reading on the demo
//   walk FOLDER SEED STEPS   see walk.h
//   FOLDER SEED       edits on all stations, saves, opens the other jobs of the folder, takes up what an earlier run left
// Each job counts its edits in its note. What is confirmed is told on standard output, a line each: "kept NAME 17", "saved NAME 17".

namespace {

using namespace echappe;

void say(const std::string& words) {
    const std::string line = words + "\n";
    if (write(STDOUT_FILENO, line.data(), line.size()) < 0) QApplication::quit();
}

int count_of(const Job& job) { return QString::fromStdString(job.note).toInt(); }

class Worker : public QObject {
public:
    Worker(const QString& folder, unsigned seed) : m_folder(folder), m_random(seed) {
        m_window.show();
        for (const Journal::Entry& entry : Journal::left_behind()) take_up(entry);
        if (m_window.document().path().isEmpty()) open_another();
        say("ready");
        auto* clock = new QTimer(this);
        connect(clock, &QTimer::timeout, this, &Worker::step);
        clock->start(0);
    }

private:
    Document& document() { return m_window.document(); }
    std::string name() { return QFileInfo(document().path()).fileName().toStdString(); }
    int pick(int from, int to) { return std::uniform_int_distribution<int>(from, to)(m_random); }

    void take_up(const Journal::Entry& entry) {
        if (document().dirty()) save();
        m_window.take_up(entry);
        // What comes back without a name is older than its file: it is seen and dropped.
        if (document().path().isEmpty()) document().undo_stack()->setClean();
        else say("kept " + name() + " " + std::to_string(count_of(document().job())));
    }

    void open_another() {
        if (document().dirty()) save();
        const QStringList jobs = QDir(m_folder).entryList({"*.json"}, QDir::Files, QDir::Name);
        m_window.open_file(m_folder + "/" + jobs[pick(0, static_cast<int>(jobs.size()) - 1)]);
    }

    void save() {
        document().save_as(document().path());
        say("saved " + name() + " " + std::to_string(count_of(document().job())));
    }

    void type(const QString& text) {
        QLineEdit& line = m_window.calliper().line();
        line.clear();
        line.insert(text);
        QKeyEvent enter(QEvent::KeyPress, Qt::Key_Return, Qt::NoModifier);
        QApplication::sendEvent(&line, &enter);
    }

    /// Something that belongs to the station, and then the count in the note.
    void edit() {
        m_window.show_station(station_rows()[static_cast<size_t>(pick(0, 5))].id);
        document().selection().climb(pick(-2, 2));
        switch (pick(0, 4)) {
            case 0:
                type(QString::number(1 + pick(0, 900) / 1000.0));
                break;
            case 1:
                document().edit(peg_plate(document().derived().pivots, pick(0, 1) ? "front" : "back"));
                break;
            case 2:
                document().edit("part", [n = pick(0, 99)](Job& job) {
                    job.survey.tally.push_back({"part " + std::to_string(n), "E", "out", ""});
                });
                break;
            case 3:
                document().edit("fewer parts", [](Job& job) {
                    if (!job.survey.tally.empty()) job.survey.tally.erase(job.survey.tally.begin());
                });
                break;
            default:
                document().edit("to be taken back", [](Job& job) { job.owner += "?"; });
                document().undo_stack()->undo();
        }
        document().edit("count", [](Job& job) { job.note = std::to_string(count_of(job) + 1); });
        say("kept " + name() + " " + std::to_string(count_of(document().job())));
    }

    void step() {
        const int what = pick(0, 99);
        if (what < 80) edit();
        else if (what < 93) save();
        else open_another();
    }

    MainWindow m_window;
    QString m_folder;
    std::mt19937 m_random;
};

void read_once(MainWindow& window) {
    window.document().edit(
        store_reading(window.document().job().train, {window.calliper().asked()->key, 35.12, 0.05}, fresh_id(), taken_with("calliper")));
    say("kept");
}

}  // namespace

int main(int argc, char** argv) {
    Application application(argc, argv);
    if (argc > 4) return walk(argv[2], static_cast<unsigned>(std::stoul(argv[3])), std::stoi(argv[4]));
    if (argc > 2) {
        Worker worker(argv[1], static_cast<unsigned>(std::stoul(argv[2])));
        return QApplication::exec();
    }
    MainWindow window;
    window.open_demo("tide-house");
    window.show();
    QTimer::singleShot(0, &window, [&] { read_once(window); });
    return QApplication::exec();
}
