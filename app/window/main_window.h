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
    void open_file(const QString& path);
    void open_demo(const QString& name);
    /// Puts back what a crashed run left; true when there was something. When a file was asked for, only that file's.
    bool recover(const QString& only_path = {});
    Finder* open_finder();
    /// By the ending: .svg, .dxf, .pdf at once, .step beside the window.
    void export_to(const QString& path);
    bool save_to(const QString& path);
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
