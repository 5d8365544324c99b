#pragma once

#include <QMainWindow>
#include <QStackedWidget>

#include "document/document.h"
#include "document/workshop.h"
#include "drawing/motion.h"

class QMenu;

namespace echappe {

class PivotsStation;
class BeatStation;
class PowerStation;
class SurveyStation;
class CalliperLine;
class Finder;
class LeftWorkSheet;
class NoticeStrip;
class Ladder;
class StationsBar;
class StockSheet;
class TeethStation;
class TrainStation;
class WorkingsPanel;

/// In the order of the work, as along the top.
enum class Station { survey, train, teeth, pivots, power, beat };

/// Assembles the window; every panel takes values and sends intent, this wires them together.
class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    explicit MainWindow(QWidget* parent = nullptr);

    Document& document() { return m_document; }
    Motion& motion() { return m_motion; }
    Ladder& ladder() { return *m_ladder; }
    TrainStation& train() { return *m_train; }
    TeethStation& teeth() { return *m_teeth; }
    PivotsStation& pivots() { return *m_pivots; }
    SurveyStation& survey() { return *m_survey; }
    PowerStation& power() { return *m_power; }
    BeatStation& beat() { return *m_beat; }
    WorkingsPanel& workings() { return *m_workings; }
    CalliperLine& calliper() { return *m_calliper; }
    Workshop& workshop() { return m_workshop; }
    /// The drawers of cutters, plates and leaves.
    StockSheet* open_stock();
    void show_station(Station station);
    void set_dark(bool dark);
    /// Opens it, and asks about what an earlier run left of it unsaved. Throws InputError.
    void open_file(const QString& path);
    void open_demo(const QString& name);
    /// The unsaved work of earlier runs, of one file or all, for the user to take up or leave; nullptr when there is none.
    LeftWorkSheet* offer_left_work(const QString& only_path = {});
    void take_up(const Journal::Entry& entry);
    Finder* open_finder();
    /// By the ending: .svg, .dxf, .pdf at once, .step beside the window.
    void export_to(const QString& path);
    /// Asks where the file is not the one that was opened; offers another place where it cannot be written. True when it is saved.
    bool save_to(const QString& path);
    /// What was typed anywhere and not kept, each with what for.
    QStringList unkept() const;
    /// Torque, looks at the clock or holes, by the columns of the CSV. Throws InputError.
    void import_readings(const QString& path);

signals:
    void solid_written();

protected:
    void closeEvent(QCloseEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    void build_menus();
    void build_job_menu();
    void build_edit_menu();
    void build_view_menu();
    void build_measure_menu();
    void build_holes_menu();
    void build_rate_menu();
    void write_csv(const QString& name, const std::string& csv);
    QString ask_path(const QString& title, const QString& name, const QString& ending, const QString& kinds);
    int ask(const QString& title, const QString& sentence, const QStringList& answers);
    bool save_elsewhere_after(const QString& sentence);
    void forget_unkept();
    QAction* add(QMenu* menu, const QString& name, const QKeySequence& keys, const std::function<void()>& action);
    void export_solid(const QString& path);
    void guarded(const std::function<void()>& action);
    bool may_drop_edits();
    bool save();
    bool save_as();
    void ask_export(const QString& ending);
    void ask_overrule(const std::string& finding);
    void remember(const QString& path);
    void refill_recent();
    void retitle();

    Document m_document;
    Workshop m_workshop;
    Motion m_motion;
    StationsBar* m_bar;
    Ladder* m_ladder;
    QStackedWidget* m_stations;
    TrainStation* m_train;
    TeethStation* m_teeth;
    PivotsStation* m_pivots;
    SurveyStation* m_survey;
    PowerStation* m_power;
    BeatStation* m_beat;
    bool m_folded = false;  ///< the workings, by hand
    WorkingsPanel* m_workings;
    CalliperLine* m_calliper;
    QMenu* m_recent = nullptr;
    std::jthread m_exporter;  ///< last: it must end before what it reports to
};

}  // namespace echappe
