#include "rehearsal/walk.h"

#include <unistd.h>

#include <QApplication>
#include <QDir>
#include <QDropEvent>
#include <QKeyEvent>
#include <QLineEdit>
#include <QMessageBox>
#include <QMimeData>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>
#include <algorithm>
#include <cstdlib>
#include <memory>
#include <random>
#include <set>

#include "drawing/in_place_editor.h"
#include "instruments/calliper_line.h"
#include "shell/left_work_sheet.h"
#include "shell/main_window.h"
#include "stations/teeth/stock_sheet.h"

namespace {

using namespace echappe;

void say(const std::string& words) {
    const std::string line = words + "\n";
    if (write(STDOUT_FILENO, line.data(), line.size()) < 0) QApplication::quit();
}

/// The job that lies in a window, by what its title says: "Job 2"; 0: none of the walk's.
int job_in(const MainWindow& window) {
    const QString title = window.windowTitle();
    return title.startsWith("Job ") ? title.mid(4, 1).toInt() : 0;
}

class Walk {
public:
    Walk(const QString& folder, unsigned seed) : m_folder(folder), m_random(seed) {
        QObject::connect(&m_answers, &QTimer::timeout, [this] { answer(); });
        m_answers.start(0);
        for (auto& window : m_windows) {
            window = std::make_unique<MainWindow>();
            window->resize(1280, 800);
            window->show();
        }
        take_up_left_work();
        for (auto& window : m_windows)
            if (job_in(*window) == 0) open_another(*window);
        say("ready");
    }

    void step() {
        m_at = m_windows[static_cast<size_t>(pick(0, 1))].get();
        const int kind = pick(0, 19);
        // What was done, where a fault is looked for.
        if (std::getenv("ECHAPPE_TRACE"))
            say("trace " + std::to_string(m_at == m_windows[1].get()) + " " + std::to_string(kind) + " " +
                m_at->windowTitle().toStdString() + ": " + said().toStdString());
        switch (kind) {
            case 0:
            case 1:
            case 2:
            case 3:
            case 4:
                return add_part();
            case 5:
            case 6:
                return read();
            case 7:
                return open_another(*m_at);
            case 8:
                return press(Qt::Key_S, Qt::ControlModifier);
            case 9:
                return write_train();
            case 10:
                return title_sheet();
            case 11:
                return finder();
            case 12:
                return drawers();
            case 13:
                return recording();
            case 14:
                return take_back();
            case 15:
                return press(static_cast<Qt::Key>(Qt::Key_1 + pick(0, 8)), Qt::ControlModifier);
            case 16:
                return search();
            default:
                return wander();
        }
    }

    /// Nothing of one job in another, nothing twice.
    void look() const {
        for (const auto& window : m_windows) {
            const int here = job_in(*window);
            if (here == 0) continue;
            const Job& job = window->document().job();
            std::set<std::string> seen;
            for (const TallyLine& part : job.survey.tally) {
                if (!part.name.starts_with(std::to_string(here) + "-")) say("fault " + part.name + " in job " + std::to_string(here));
                if (!seen.insert(part.name).second) say("fault " + part.name + " twice in job " + std::to_string(here));
            }
            for (const Measurement& reading : job.train.measurements)
                if (static_cast<int>(reading.evidence.value) / 10 != here && reading.evidence.key.kind != "beats_per_hour")
                    say("fault a reading of " + std::to_string(reading.evidence.value) + " in job " + std::to_string(here));
            if (!job.owner.empty() && job.owner != "owner " + std::to_string(here))
                say("fault " + job.owner + " in job " + std::to_string(here));
        }
    }

private:
    int pick(int from, int to) { return std::uniform_int_distribution<int>(from, to)(m_random); }
    static void settle() {
        QApplication::sendPostedEvents();
        QApplication::processEvents();
    }
    QString said() const { return m_at->calliper().message(); }

    static void key(QWidget* widget, int key, Qt::KeyboardModifiers with = {}, const QString& text = {}) {
        QKeyEvent override(QEvent::ShortcutOverride, key, with, text);
        QApplication::sendEvent(widget, &override);
        QKeyEvent event(QEvent::KeyPress, key, with, text);
        QApplication::sendEvent(widget, &event);
    }
    static void type(QWidget* widget, const QString& text) {
        for (const QChar one : text) key(widget, one.toUpper().unicode(), {}, one);
    }
    /// A key as it is pressed with the window in front: a shortcut of it, else where the focus is.
    void press(Qt::Key code, Qt::KeyboardModifiers with = {}) {
        const QKeySequence pressed(QKeyCombination(with, code));
        for (QAction* action : m_at->findChildren<QAction*>())
            if (action->isEnabled() && action->shortcuts().contains(pressed)) {
                action->trigger();
                return settle();
            }
        QWidget* focus = m_at->focusWidget() ? m_at->focusWidget() : m_at;
        key(focus, code, with, code < Qt::Key_Escape ? QString(QChar(code)).toLower() : QString());
        settle();
    }

    /// Questions are answered as they come: mostly by keeping, now and then by Escape. What is dropped is told before it goes.
    void answer() {
        auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
        if (!box || !box->isVisible()) return;
        const auto button = [&](const char* words) -> QAbstractButton* {
            for (QAbstractButton* one : box->buttons())
                if (one->text() == words) return one;
            return nullptr;
        };
        if (pick(0, 4) == 0) return key(box, Qt::Key_Escape);
        for (const char* words : {"Save", "Drop it", "Replace it"})
            if (QAbstractButton* one = button(words)) return one->click();
        key(box, Qt::Key_Escape);
    }

    void drop(MainWindow& window, const QString& path) {
        QMimeData data;
        data.setUrls({QUrl::fromLocalFile(path)});
        QDragEnterEvent over(QPoint(100, 100), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&window, &over);
        QDropEvent event(QPointF(100, 100), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&window, &event);
        settle();
    }

    void open_another(MainWindow& window) { drop(window, m_folder + QString("/job-%1.json").arg(pick(1, 3))); }

    /// What an earlier run left is taken up and saved; what is older than its file, or a job without one, is left lying.
    void take_up_left_work() {
        for (auto& window : m_windows) {
            LeftWorkSheet* sheet = window->offer_left_work();
            if (!sheet) return;
            sheet->slips().grab();
            const auto& entries = sheet->slips().entries();
            const auto whole = std::find_if(entries.begin(), entries.end(), [](const Journal::Entry& entry) {
                return !entry.about.job_path.isEmpty() && stamp_of(entry.about.job_path.toStdString()).same_content(entry.about.base);
            });
            if (whole == entries.end()) {
                key(&sheet->slips(), Qt::Key_Escape);
                continue;
            }
            sheet->slips().act(QString("take:%1").arg(whole - entries.begin()));
            settle();
            m_at = window.get();
            press(Qt::Key_S, Qt::ControlModifier);
        }
    }

    InPlaceEditor* editor() const {
        for (auto* line : m_at->findChildren<InPlaceEditor*>())
            if (line->isVisible() && line->placeholderText().startsWith("part;")) return line;
        return nullptr;
    }

    void add_part() {
        const int here = job_in(*m_at);
        if (here == 0) return;
        press(Qt::Key_1, Qt::ControlModifier);
        m_at->shown().setFocus();
        key(&m_at->shown(), Qt::Key_A, {}, "a");
        if (!editor()) {
            key(&m_at->shown(), Qt::Key_Y, {}, "y");
            key(&m_at->shown(), Qt::Key_A, {}, "a");
        }
        InPlaceEditor* line = editor();
        if (!line) return;
        const QString name = QString("%1-%2-%3").arg(here).arg(getpid()).arg(++m_serial);
        line->clear();
        type(line, name);
        // Now and then it is left standing, and what is done next goes on beside it.
        if (pick(0, 5) == 0) return;
        key(line, Qt::Key_Return);
        const auto& tally = m_at->document().job().survey.tally;
        if (!line->isVisible() && !tally.empty() && tally.back().name == name.toStdString())
            say("kept " + std::to_string(here) + " " + name.toStdString());
    }

    /// A reading in the band of its job.
    void read() {
        const int here = job_in(*m_at);
        if (here == 0) return;
        press(Qt::Key_2, Qt::ControlModifier);
        press(Qt::Key_F2);
        QLineEdit& line = m_at->calliper().line();
        line.clear();
        type(&line, QString::number(here * 10 + pick(1, 9999) / 1000.0, 'f', 3));
        if (pick(0, 5) != 0) key(&line, Qt::Key_Return);
        settle();
    }

    void write_train() {
        press(Qt::Key_W, Qt::ControlModifier);
        for (auto* paper : m_at->findChildren<QPlainTextEdit*>()) {
            if (!paper->isVisible() || paper->accessibleName() != "the train, written down") continue;
            paper->moveCursor(QTextCursor::End);
            type(paper, " ");
            if (pick(0, 2) == 0) type(paper, "x"), key(paper, Qt::Key_Backspace);
            if (pick(0, 2) == 0) key(paper, Qt::Key_Escape);
        }
        settle();
    }

    QDialog* sheet_with(const QString& entry) const {
        for (auto* sheet : m_at->findChildren<QDialog*>())
            if (sheet->isVisible() && sheet->findChild<QLineEdit*>(entry)) return sheet;
        return nullptr;
    }
    void title_sheet() {
        const int here = job_in(*m_at);
        if (!sheet_with("owner")) press(Qt::Key_I, Qt::ControlModifier);
        QDialog* sheet = sheet_with("owner");
        if (!sheet || here == 0) return;
        auto* owner = sheet->findChild<QLineEdit*>("owner");
        owner->clear();
        type(owner, QString("owner %1").arg(here));
        // Left open as often as not.
        if (pick(0, 1)) key(owner, pick(0, 2) ? Qt::Key_Return : Qt::Key_Escape);
        settle();
    }

    void finder() {
        press(Qt::Key_K, Qt::ControlModifier);
        for (auto* sheet : m_at->findChildren<Finder*>()) {
            type(&sheet->line(), pick(0, 1) ? "arbor" : "reading");
            if (pick(0, 1)) key(&sheet->line(), pick(0, 1) ? Qt::Key_Return : Qt::Key_Escape);
        }
        settle();
    }

    /// The drawer's first bushes are counted up, each by its own window.
    void drawers() {
        press(Qt::Key_W, Qt::ControlModifier | Qt::ShiftModifier);
        auto* sheet = m_at->findChild<StockSheet*>();
        if (!sheet) return;
        const int row = m_at == m_windows[0].get() ? 0 : 1;
        QTableWidgetItem* cell = sheet->bushes().item(row, 4);
        const QString count = QString::number(cell->text().toInt() + 1);
        cell->setText(count);
        if (sheet->said().startsWith("Kept in")) say("drawer " + std::to_string(row) + " " + count.toStdString());
        else say("refused " + sheet->said().toStdString());
        if (pick(0, 1)) key(sheet, Qt::Key_Escape);
        settle();
    }

    void recording() {
        press(pick(0, 1) ? Qt::Key_6 : Qt::Key_7, Qt::ControlModifier);
        drop(*m_at, m_folder + "/ticks.wav");
        if (pick(0, 1)) press(Qt::Key_Escape);
    }

    void search() {
        press(Qt::Key_2, Qt::ControlModifier);
        press(Qt::Key_F, Qt::ControlModifier);
        if (QWidget* focus = m_at->focusWidget(); qobject_cast<QLineEdit*>(focus)) type(focus, "60"), key(focus, Qt::Key_Return);
        settle();
    }

    /// Undo and redo of what was done last: told as gone before it goes.
    void take_back() {
        const int here = job_in(*m_at);
        const std::string name =
            here == 0 || m_at->document().job().survey.tally.empty() ? std::string() : m_at->document().job().survey.tally.back().name;
        if (!name.empty()) say("gone " + std::to_string(here) + " " + name);
        press(Qt::Key_Z, Qt::ControlModifier);
        press(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
        const auto& tally = m_at->document().job().survey.tally;
        if (!name.empty() && std::any_of(tally.begin(), tally.end(), [&](const TallyLine& part) { return part.name == name; }))
            say("kept " + std::to_string(here) + " " + name);
    }

    void wander() {
        constexpr Qt::Key keys[] = {Qt::Key_Up, Qt::Key_Down, Qt::Key_Tab, Qt::Key_Escape, Qt::Key_Space, Qt::Key_BracketLeft, Qt::Key_F2};
        press(keys[pick(0, 6)]);
    }

    QString m_folder;
    std::mt19937 m_random;
    QTimer m_answers;
    std::unique_ptr<MainWindow> m_windows[2];
    MainWindow* m_at = nullptr;
    int m_serial = 0;
};

}  // namespace

int walk(const std::string& folder, unsigned seed, int steps) {
    Walk walk(QString::fromStdString(folder), seed);
    for (int i = 0; i < steps; ++i) {
        walk.step();
        walk.look();
        if (i % 10 == 9) say("steps 10");
    }
    say("over");
    // As a kill would end it: what is unsaved is left.
    _exit(0);
}
