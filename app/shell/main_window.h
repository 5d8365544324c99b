#pragma once

#include <QMainWindow>
#include <QStackedWidget>

#include "shell/job_desk.h"
#include "shell/out_desk.h"
#include "shell/sheet_desk.h"
#include "shell/station.h"

namespace echappe {

class Fitting;
class Ladder;
class LeftWorkSheet;
class StationsBar;
class WorkingsPanel;

/// Assembles the window: the bar, the ladder, the stations, the workings and the line, and the menus from what they can do.
class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    explicit MainWindow(QWidget* parent = nullptr);

    Document& document() { return m_document; }
    Motion& motion() { return m_motion; }
    Workshop& workshop() { return *m_workshop; }
    CalliperLine& calliper() { return *m_calliper; }
    Ladder& ladder() { return *m_ladder; }
    WorkingsPanel& workings() { return *m_workings; }
    JobDesk& jobs() { return m_jobs; }
    OutDesk& out() { return m_out; }

    /// By its id; nullptr when there is none.
    Station* station(const QString& id) const;
    Station& shown() const;
    void show_station(const QString& id);
    const QList<Station*>& stations() const { return m_stations; }
    /// Does it, with its station in front; what cannot be done is said.
    void do_at(Station* station, const Action& action);
    /// What can be done whatever station is shown.
    const QList<Action>& own_actions() const { return m_actions; }
    Fitting& fitting() { return *m_fitting; }
    SheetDesk& sheets() { return *m_sheets; }

    void open_file(const QString& path) { m_jobs.open_file(path); }
    void open_demo(const QString& name) { m_jobs.open_demo(name); }
    LeftWorkSheet* offer_left_work(const QString& only_path = {}) { return m_jobs.offer_left_work(only_path); }
    void take_up(const Journal::Entry& entry) { m_jobs.take_up(entry); }
    bool save_to(const QString& path) { return m_jobs.save_to(path); }
    QStringList unkept() const { return m_jobs.unkept(); }
    void export_to(const QString& path) { m_out.export_to(path); }
    void import_readings(const QString& path) { m_out.import_readings(path); }

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void closeEvent(QCloseEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    void lay_out();
    void join();
    void add_station(const StationRow& row, const Workbench& bench);
    void follow_round();
    void show_round_of(ReadingRound* round);

    Document m_document;
    std::shared_ptr<Workshop> m_workshop = Workshop::shared();  ///< of all windows
    Motion m_motion;
    CalliperLine* m_calliper;
    JobDesk m_jobs;
    OutDesk m_out;
    StationsBar* m_bar;
    Ladder* m_ladder;
    QStackedWidget* m_stack;
    QList<Station*> m_stations;
    QStringList m_ids;
    WorkingsPanel* m_workings;
    SheetDesk* m_sheets;
    Fitting* m_fitting = nullptr;
    QList<Action> m_actions;  ///< of the window itself
    bool m_passing_key = false;
};

}  // namespace echappe
