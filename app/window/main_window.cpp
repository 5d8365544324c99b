#include "window/main_window.h"

#include <QCloseEvent>
#include <QDragEnterEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QMenuBar>
#include <QMessageBox>
#include <QMimeData>
#include <QPushButton>
#include <QSettings>
#include <QVBoxLayout>

#include "beat/readings.h"
#include "drawing/in_place_editor.h"
#include "instruments/calliper_line.h"
#include "instruments/typing.h"
#include "ladder/ladder.h"
#include "number/input_error.h"
#include "power/readings.h"
#include "print/hole_sheet.h"
#include "stations/beat/beat_station.h"
#include "stations/pivots/pivots_station.h"
#include "stations/power/power_station.h"
#include "stations/survey/survey_station.h"
#include "stations/teeth/stock_sheet.h"
#include "stations/teeth/teeth_station.h"
#include "stations/train/train_station.h"
#include "theme/theme.h"
#include "window/application.h"
#include "window/finder.h"
#include "window/left_work_sheet.h"
#include "window/notice_strip.h"
#include "window/stations_bar.h"
#include "workings/workings_panel.h"

namespace echappe {
namespace {

constexpr int recent_kept = 8;
const QString filter = "Echappe jobs (*.echappe.json);;All files (*)";
const QString csv_filter = "CSV (*.csv)";

}  // namespace

MainWindow::MainWindow(QWidget* parent)
    : QMainWindow(parent),
      m_bar(new StationsBar(m_document, {tr("Survey"), tr("Train"), tr("Teeth"), tr("Pivots"), tr("Power"), tr("Beat")})),
      m_ladder(new Ladder(m_document)),
      m_stations(new QStackedWidget),
      m_train(new TrainStation(m_document, m_motion)),
      m_teeth(new TeethStation(m_document, m_motion, m_workshop)),
      m_pivots(new PivotsStation(m_document, m_workshop)),
      m_survey(new SurveyStation(m_document, m_motion)),
      m_power(new PowerStation(m_document, m_workshop)),
      m_beat(new BeatStation(m_document, m_motion)),
      m_workings(new WorkingsPanel(m_document)),
      m_calliper(new CalliperLine(m_document)) {
    for (QWidget* station : std::initializer_list<QWidget*>{m_survey, m_train, m_teeth, m_pivots, m_power, m_beat})
        m_stations->addWidget(station);
    auto* middle = new QHBoxLayout;
    middle->setSpacing(0);
    middle->addWidget(m_ladder);
    middle->addWidget(m_stations, 1);
    middle->addWidget(m_workings);
    auto* column = new QVBoxLayout;
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* notices = new NoticeStrip(m_document);
    column->addWidget(m_bar);
    column->addWidget(notices);
    column->addLayout(middle, 1);
    column->addWidget(m_calliper);
    auto* whole = new QWidget;
    whole->setLayout(column);
    setCentralWidget(whole);
    setAcceptDrops(true);
    // Figures are shown one way everywhere, whatever the system's language.
    setLocale(QLocale::c());
    new Typing(*m_calliper);
    connect(notices, &NoticeStrip::save_elsewhere_wanted, this, [this] { guarded([this] { save_as(); }); });
    if (auto* application = qobject_cast<Application*>(qApp))
        connect(application, &Application::told, m_calliper, [this](const QString& sentence) { m_calliper->tell(sentence, true); });
    setMinimumSize(1024, 700);
    resize(1280, 800);
    build_menus();
    connect(m_bar, &StationsBar::chosen, this, [this](int index) { show_station(static_cast<Station>(index)); });
    connect(m_bar, &StationsBar::finder_wanted, this, [this] { open_finder(); });
    connect(m_calliper, &CalliperLine::station_wanted, this, [this](CalliperLine::Asks asks) {
        const Station homes[] = {Station::train, Station::survey, Station::power, Station::beat};
        const bool at_pivots = asks == CalliperLine::Asks::plates && m_stations->currentWidget() == m_pivots;
        if (!at_pivots) show_station(homes[static_cast<int>(asks)]);
    });
    connect(m_train, &TrainStation::quantity_wanted, m_calliper, &CalliperLine::ask);
    const auto tell_cutters = [this] {
        std::vector<double> modules;
        for (const Cutter& cutter : m_workshop.stock().cutters)
            if (cutter.part == "wheel" && cutter.quantity > 0) modules.push_back(cutter.module_mm);
        m_train->search().set_cutters(std::move(modules));
    };
    tell_cutters();
    m_document.use_stock(m_workshop.stock());
    connect(&m_workshop, &Workshop::changed, this, tell_cutters);
    connect(&m_workshop, &Workshop::changed, this, [this] { m_document.use_stock(m_workshop.stock()); });
    connect(m_pivots, &PivotsStation::told, m_calliper, &CalliperLine::tell);
    connect(m_survey, &SurveyStation::told, m_calliper, &CalliperLine::tell);
    connect(m_power, &PowerStation::told, m_calliper, &CalliperLine::tell);
    connect(m_beat, &BeatStation::told, m_calliper, &CalliperLine::tell);
    connect(m_teeth, &TeethStation::stock_wanted, this, [this] { open_stock(); });
    connect(&m_workings->sheet(), &WorkingsSheet::overrule_wanted, this, &MainWindow::ask_overrule);
    connect(&m_document, &Document::told, m_calliper, &CalliperLine::tell);
    connect(&m_document, &Document::changed, this, &MainWindow::retitle);
    retitle();
    show_station(Station::train);
}

QAction* MainWindow::add(QMenu* menu, const QString& name, const QKeySequence& keys, const std::function<void()>& action) {
    auto* made = menu->addAction(name, keys, this, [this, action] { guarded(action); });
    addAction(made);
    return made;
}

/// What cannot be done is said in one sentence; nothing else changes.
void MainWindow::guarded(const std::function<void()>& action) {
    try {
        action();
    } catch (const std::exception& error) {
        m_calliper->tell(QString::fromUtf8(error.what()), true);
    }
}

void MainWindow::build_menus() {
    build_job_menu();
    build_edit_menu();
    build_view_menu();
    build_measure_menu();
    build_holes_menu();
    build_rate_menu();
}

void MainWindow::build_job_menu() {
    QMenu* menu = menuBar()->addMenu(tr("&Job"));
    add(menu, tr("Open…"), QKeySequence::Open, [this] {
        const QString path = may_drop_edits() ? QFileDialog::getOpenFileName(this, tr("Open a job"), {}, filter) : QString();
        if (!path.isEmpty()) open_file(path);
    });
    m_recent = menu->addMenu(tr("Open again"));
    refill_recent();
    add(menu, tr("Demo: Tide-house regulator"), QKeySequence(tr("Ctrl+D")), [this] {
        if (may_drop_edits()) open_demo("tide-house");
    });
    add(menu, tr("Demo: Saloon clock of the ferry Merrow"), QKeySequence(), [this] {
        if (may_drop_edits()) open_demo("saloon");
    });
    add(menu, tr("Demo: Lamplighter's watch"), QKeySequence(), [this] {
        if (may_drop_edits()) open_demo("watch");
    });
    menu->addSeparator();
    add(menu, tr("Save"), QKeySequence::Save, [this] { save(); });
    add(menu, tr("Save as…"), QKeySequence(tr("Ctrl+Shift+S")), [this] { save_as(); });
    add(menu, tr("Unsaved work of earlier runs…"), QKeySequence(), [this] {
        if (!offer_left_work()) m_calliper->tell(tr("No earlier run left anything unsaved."), false);
    });
    menu->addSeparator();
    add(menu, tr("Export the drawn part as SVG…"), QKeySequence(tr("Ctrl+E")), [this] { ask_export("svg"); });
    add(menu, tr("Export the drawn part as DXF…"), QKeySequence(tr("Ctrl+Shift+E")), [this] { ask_export("dxf"); });
    if (step_available())
        add(menu, tr("Export the drawn part as a STEP solid…"), QKeySequence(tr("Ctrl+Alt+E")), [this] { ask_export("step"); });
    // What the station shows: a part at 1:1, the plan of the holes, or the survey.
    add(menu, tr("Print what is shown to PDF…"), QKeySequence::Print, [this] { ask_export("pdf"); });
    menu->addSeparator();
    add(menu, tr("Quit"), QKeySequence::Quit, [this] { close(); });
}

void MainWindow::build_edit_menu() {
    QMenu* menu = menuBar()->addMenu(tr("&Edit"));
    QAction* undo = m_document.undo_stack()->createUndoAction(this, tr("Undo"));
    QAction* redo = m_document.undo_stack()->createRedoAction(this, tr("Redo"));
    undo->setShortcut(QKeySequence::Undo);
    redo->setShortcuts({QKeySequence(tr("Ctrl+Shift+Z")), QKeySequence(tr("Ctrl+Y"))});
    menu->addActions({undo, redo});
    addActions({undo, redo});
    menu->addSeparator();
    add(menu, tr("Change the wheel's count…"), QKeySequence(tr("Ctrl+T")), [this] {
        show_station(Station::train);
        m_train->edit_count(m_document.subject() + ".wheel");
    });
    add(menu, tr("Change the pinion's count…"), QKeySequence(tr("Ctrl+L")), [this] {
        show_station(Station::train);
        m_train->edit_count(m_document.subject() + ".pinion");
    });
    add(menu, tr("Find a train…"), QKeySequence(tr("Ctrl+F")), [this] {
        show_station(Station::train);
        // A hand is asked for by its name.
        const JobArbor* subject = m_document.job().train.arbor(m_document.subject());
        m_train->ask_for_trains(subject && subject->hand ? QString::fromStdString(*subject->hand) : QString());
    });
    add(menu, tr("Choose the likeliest counts"), QKeySequence(tr("Ctrl+Return")), [this] { m_document.choose_candidate(0); });
    add(menu, tr("Stop weighing what is lost"), QKeySequence(tr("Ctrl+Esc")), [this] { m_document.stop_weighing(); });
    add(menu, tr("Withdraw the choice"), QKeySequence(tr("Ctrl+Shift+Return")), [this] { m_document.withdraw_choice(); });
    menu->addSeparator();
    add(menu, tr("Divide with the workshop's plates"), QKeySequence(), [this] {
        const auto head = m_workshop.stock().head();
        if (!head) throw InputError("plates", "none in the drawer", "a dividing plate with its worm ratio: Ctrl+Shift+W");
        m_document.edit(tr("Divide with the workshop's plates"), [&](Job& job) { job.making.dividing_head = head; });
    });
    add(menu, tr("Show lengths in inches or millimetres"), QKeySequence(tr("Ctrl+U")), [this] {
        m_document.edit(tr("Change the unit shown"), [](Job& job) { job.length.symbol = job.length.symbol == "mm" ? "in" : "mm"; });
    });
}

void MainWindow::build_view_menu() {
    QMenu* menu = menuBar()->addMenu(tr("&View"));
    add(menu, tr("Survey"), QKeySequence(tr("Ctrl+1")), [this] { show_station(Station::survey); });
    add(menu, tr("Train"), QKeySequence(tr("Ctrl+2")), [this] { show_station(Station::train); });
    add(menu, tr("Teeth"), QKeySequence(tr("Ctrl+3")), [this] { show_station(Station::teeth); });
    add(menu, tr("Pivots"), QKeySequence(tr("Ctrl+4")), [this] { show_station(Station::pivots); });
    add(menu, tr("Power"), QKeySequence(tr("Ctrl+5")), [this] { show_station(Station::power); });
    add(menu, tr("Beat"), QKeySequence(tr("Ctrl+6")), [this] { show_station(Station::beat); });
    add(menu, tr("The wheel's blank and crossings"), QKeySequence(tr("Ctrl+B")), [this] {
        show_station(Station::teeth);
        m_teeth->show_blank(!m_teeth->blank_shown());
    });
    add(menu, tr("Depthing of the selected arbor"), QKeySequence(tr("Ctrl+Shift+A")), [this] {
        show_station(Station::train);
        m_train->show_depthing(!m_train->depthing_shown());
    });
    add(menu, tr("The workshop's drawers: cutters, plates, leaves…"), QKeySequence(tr("Ctrl+Shift+W")), [this] { open_stock(); });
    menu->addSeparator();
    add(menu, tr("Find…"), QKeySequence(tr("Ctrl+K")), [this] { open_finder(); });
    add(menu, tr("Up the ladder"), QKeySequence(tr("Ctrl+Up")), [this] { m_document.climb(1); });
    add(menu, tr("Down the ladder"), QKeySequence(tr("Ctrl+Down")), [this] { m_document.climb(-1); });
    add(menu, tr("The other train"), QKeySequence(tr("Ctrl+Right")), [this] { m_document.next_train(); });
    add(menu, tr("Fold the workings"), QKeySequence(tr("F4")), [this] {
        m_folded = !m_workings->isHidden();
        m_workings->setVisible(!m_folded);
    });
    add(menu, tr("Light or dark"), QKeySequence(tr("Ctrl+Shift+D")), [this] { set_dark(!theme().dark); });
    menu->addSeparator();
    add(menu, tr("Run or pause the movement"), QKeySequence(Qt::Key_Space), [this] { m_motion.toggle(); });
    add(menu, tr("Slower"), QKeySequence("["), [this] { m_motion.slower(); });
    add(menu, tr("Faster"), QKeySequence("]"), [this] { m_motion.faster(); });
    add(menu, tr("One beat on"), QKeySequence(tr("Shift+Space")), [this] {
        if (const auto beats = m_document.derived().train.beats_per_hour) m_motion.step(3600 / *beats);
    });
}

void MainWindow::build_measure_menu() {
    QMenu* menu = menuBar()->addMenu(tr("&Measure"));
    add(menu, tr("To the calliper line"), QKeySequence(Qt::Key_F2), [this] {
        m_calliper->line().setFocus();
        m_calliper->line().selectAll();
    });
    add(menu, tr("Back to what was typed and not kept"), QKeySequence(tr("Shift+F2")), [this] { m_calliper->back_to_unkept(); });
    add(menu, tr("Read the simulated calliper"), QKeySequence(Qt::Key_F3), [this] { m_calliper->send_simulated(); });
    add(menu, tr("How to take this reading"), QKeySequence(Qt::Key_F1), [this] { m_calliper->explain(); });
    add(menu, tr("Another quantity"), QKeySequence(tr("Ctrl+Tab")), [this] { m_calliper->ask_next(1); });
}

void MainWindow::build_holes_menu() {
    QMenu* menu = menuBar()->addMenu(tr("&Holes"));
    add(menu, tr("Take the planned bush from the drawer\tT"), QKeySequence(), [this] { m_pivots->take_bush(); });
    add(menu, tr("Tick the next reamer\tR"), QKeySequence(), [this] { m_pivots->tick(); });
    add(menu, tr("Done, or to be done again\tD"), QKeySequence(), [this] { m_pivots->finish_or_redo(); });
    add(menu, tr("The next hole with work"), QKeySequence(tr("Ctrl+H")), [this] {
        show_station(Station::pivots);
        m_pivots->next_open();
    });
    add(menu, tr("School of clearance: the next\tC"), QKeySequence(), [this] { m_pivots->next_school(); });
    add(menu, tr("Bushes: fitted direct, or broached up\tM"), QKeySequence(), [this] { m_pivots->other_method(); });
    menu->addSeparator();
    add(menu, tr("Between the plates: end shake, trials, sums"), QKeySequence(tr("Ctrl+Shift+B")), [this] {
        const bool shown = m_pivots->isVisible() && m_pivots->between_shown();
        show_station(Station::pivots);
        m_pivots->show_between(!shown);
    });
    add(menu, tr("Runs freely alone between the plates\tF"), QKeySequence(), [this] { m_pivots->trial(true); });
    add(menu, tr("Does not run: its holes back on the list\tShift+F"), QKeySequence(), [this] { m_pivots->trial(false); });
    menu->addSeparator();
    add(menu, tr("Parts by their trays"), QKeySequence(tr("Ctrl+Shift+P")), [this] {
        show_station(Station::survey);
        m_survey->show_parts(!m_survey->parts_shown());
    });
    add(menu, tr("What earlier hands did\tE"), QKeySequence(), [this] {
        show_station(Station::survey);
        m_survey->show_earlier(!m_survey->earlier_shown());
    });
    add(menu, tr("Note at the spot…\t/"), QKeySequence(), [this] {
        show_station(Station::survey);
        m_survey->write_note();
    });
    add(menu, tr("Survey the plates anew"), QKeySequence(), [this] {
        m_document.edit(tr("Survey the plates anew"), [](Job& job) {
            SurveyRecord fresh;
            fresh.pivots.clearance = job.survey.pivots.clearance;
            fresh.pivots.method = job.survey.pivots.method;
            job.survey = fresh;
        });
        m_calliper->plates().begin();
    });
    add(menu, tr("Read measurements from CSV…"), QKeySequence(), [this] {
        const QString path = QFileDialog::getOpenFileName(this, tr("Readings"), {}, csv_filter);
        if (!path.isEmpty()) import_readings(path);
    });
    add(menu, tr("Write the holes as CSV…"), QKeySequence(),
        [this] { write_csv(tr("holes.csv"), survey_to_csv(m_document.derived().pivots)); });
}

void MainWindow::build_rate_menu() {
    QMenu* menu = menuBar()->addMenu(tr("&Rate"));
    const auto at_beat = [this] { show_station(Station::beat); };
    add(menu, tr("Try what is advised"), QKeySequence(), [this, at_beat] { at_beat(), m_beat->try_advised(); });
    add(menu, tr("Done: keep what was tried"), QKeySequence(), [this, at_beat] { at_beat(), m_beat->keep(); });
    add(menu, tr("Another means: nut, tray, pins, screws"), QKeySequence(), [this, at_beat] { at_beat(), m_beat->next_means(1); });
    add(menu, tr("Take the picked look out"), QKeySequence(), [this] { m_beat->remove_picked_look(); });
    menu->addSeparator();
    add(menu, tr("Write the looks as CSV…"), QKeySequence(),
        [this] { write_csv(tr("looks.csv"), looks_to_csv(m_document.job().rate_log)); });
    add(menu, tr("Write the torque log as CSV…"), QKeySequence(), [this] {
        const DerivedDrive* power = m_power->power();
        if (!power) throw InputError("drive", "none", "a drive with a torque log: Ctrl+5");
        write_csv(tr("torque.csv"), torque_to_csv(power->drive));
    });
}

void MainWindow::write_csv(const QString& name, const std::string& csv) {
    const QString path = ask_path(tr("Write"), name, ".csv", csv_filter);
    if (path.isEmpty()) return;
    save_text(path.toStdString(), csv);
    m_calliper->tell(tr("Written: %1").arg(path), false);
}

/// Where to write, with the ending that belongs there. A name that gets its ending here is another name than the one that was asked
/// about: where that is taken the question is put again.
QString MainWindow::ask_path(const QString& title, const QString& name, const QString& ending, const QString& kinds) {
    const QString path = QFileDialog::getSaveFileName(this, title, name, kinds);
    const QString own = ending == ".echappe.json" ? ".json" : ending;
    if (path.isEmpty() || path.endsWith(own)) return path;
    const QString whole = path + ending;
    if (QFileInfo::exists(whole) && ask(title, tr("%1 is there already.").arg(whole), {tr("Cancel"), tr("Replace it")}) != 1) return {};
    return whole;
}

/// One question with its answers, the first of them safe; which was given.
int MainWindow::ask(const QString& title, const QString& sentence, const QStringList& answers) {
    QMessageBox box(QMessageBox::NoIcon, title, sentence, QMessageBox::NoButton, this);
    std::vector<QAbstractButton*> buttons;
    for (const QString& answer : answers) buttons.push_back(box.addButton(answer, QMessageBox::ActionRole));
    box.setDefaultButton(static_cast<QPushButton*>(buttons.front()));
    box.setEscapeButton(buttons.front());
    box.exec();
    return static_cast<int>(std::find(buttons.begin(), buttons.end(), box.clickedButton()) - buttons.begin());
}

/// A CSV goes where its columns belong: torque, looks at the clock, or holes.
void MainWindow::import_readings(const QString& path) {
    const std::string csv = read_text(path.toStdString());
    const std::string header = csv.substr(0, csv.find('\n'));
    const DerivedDrive* power = m_power->power();
    size_t kept = 0;
    m_document.edit(tr("Readings from %1").arg(QFileInfo(path).fileName()), [&](Job& job) {
        if (header.find("reference_s") != std::string::npos) {
            kept = keep_looks_csv(job.rate_log, csv);
        } else if (header.find("down_N_mm") != std::string::npos) {
            if (!power) throw InputError("drive", "none", "a drive for its torque: Ctrl+5");
            for (DriveRecord& drive : job.power.drives)
                if (drive.train == power->train) kept = keep_torque_csv(drive, csv);
        } else {
            kept = keep_survey_csv(job.survey.pivots, job.train, csv);
        }
    });
    m_calliper->tell(tr("%1 readings kept from %2.").arg(kept).arg(path), false);
}

void MainWindow::show_station(Station station) {
    m_stations->setCurrentIndex(static_cast<int>(station));
    m_bar->show_station(static_cast<int>(station));
    // Holes and spots carry their own card; the round over the plates goes with them.
    const bool plates = station == Station::survey || station == Station::pivots;
    using Asks = CalliperLine::Asks;
    m_calliper->take(plates                      ? Asks::plates
                     : station == Station::power ? Asks::torque
                     : station == Station::beat  ? Asks::looks
                                                 : Asks::train);
    m_workings->setVisible(!plates && station < Station::power && !m_folded);
    m_stations->currentWidget()->setFocus();
}

void MainWindow::set_dark(bool dark) {
    apply_theme(dark);
    for (QWidget* widget : findChildren<QWidget*>()) widget->update();
}

void MainWindow::open_file(const QString& path) {
    m_document.open(path);
    forget_unkept();
    if (!m_document.path().isEmpty()) remember(path);
    if (isVisible()) offer_left_work(path);
}

void MainWindow::open_demo(const QString& name) {
    m_document.open_demo(name);
    forget_unkept();
}

LeftWorkSheet* MainWindow::offer_left_work(const QString& only_path) {
    auto entries = Journal::left_behind(only_path);
    if (entries.empty()) return nullptr;
    auto* sheet = new LeftWorkSheet(std::move(entries), this);
    connect(&sheet->slips(), &LeftWorkSlips::taken_up, this, [this](const Journal::Entry& entry) { guarded([&] { take_up(entry); }); });
    sheet->open();
    return sheet;
}

void MainWindow::take_up(const Journal::Entry& entry) {
    if (!may_drop_edits()) return;
    m_document.recover(entry);
    forget_unkept();
}

Finder* MainWindow::open_finder() {
    std::vector<Finder::Entry> entries;
    for (QAction* action : actions())
        if (!action->text().isEmpty() && action->isEnabled())
            // A station's own plain key stands behind the name: it is told, and not bound for the whole window.
            entries.push_back({action->text().remove('&').section('\t', 0, 0),
                               action->shortcut().toString() + action->text().section('\t', 1), [action] { action->trigger(); }});
    for (const DerivedArbor& arbor : m_document.derived().train.arbors)
        entries.push_back({QString::fromStdString(arbor.name), tr("arbor"), [this, id = arbor.id] { m_document.select(id); }});
    for (const Measurable& m : m_document.derived().train.measurables)
        entries.push_back({QString::fromStdString(m.name), tr("reading"), [this, key = m.key] { m_calliper->ask(key); }});
    auto* finder = new Finder(std::move(entries), this);
    finder->move(mapToGlobal(QPoint((width() - finder->width()) / 2, 110)));
    finder->open();
    return finder;
}

StockSheet* MainWindow::open_stock() {
    auto* sheet = new StockSheet(m_workshop, this);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    sheet->open();
    return sheet;
}

bool MainWindow::save_to(const QString& path) {
    try {
        m_document.save_as(path);
    } catch (const FileChanged& changed) {
        const int answer =
            ask(tr("The file has changed"), path + "\n\n" + changed.sentence, {tr("Save elsewhere…"), tr("Replace it"), tr("Cancel")});
        if (answer != 1) return answer == 0 && save_as();
        try {
            m_document.save_as(path, true);
        } catch (const InputError& error) {
            return save_elsewhere_after(error.what());
        }
    } catch (const InputError& error) {
        return save_elsewhere_after(error.what());
    }
    remember(path);
    m_calliper->tell(tr("Saved: %1").arg(path), false);
    return true;
}

bool MainWindow::save_elsewhere_after(const QString& sentence) {
    m_calliper->tell(tr("Not saved. %1").arg(sentence), true);
    return ask(tr("Not saved"), sentence, {tr("Save elsewhere…"), tr("Cancel")}) == 0 && save_as();
}

bool MainWindow::save() { return m_document.path().isEmpty() ? save_as() : save_to(m_document.path()); }

bool MainWindow::save_as() {
    const QString name = m_document.display_name().toLower().replace(' ', '-').replace('/', '-') + ".echappe.json";
    const QString path = ask_path(tr("Save the job"), name, ".echappe.json", filter);
    return !path.isEmpty() && save_to(path);
}

/// A solid takes a second or two: it is made beside the window.
void MainWindow::export_solid(const QString& path) {
    m_calliper->tell(tr("Making the solid for %1…").arg(path), false);
    m_exporter = std::jthread([this, path, part = m_teeth->solid_part()] {
        QString fault;
        try {
            save_text(path.toStdString(), to_step(part));
        } catch (const std::exception& error) {
            fault = QString::fromUtf8(error.what());
        }
        QMetaObject::invokeMethod(this, [this, path, fault] {
            m_calliper->tell(fault.isEmpty() ? tr("Written: %1").arg(path) : fault, !fault.isEmpty());
            emit solid_written();
        });
    });
}

void MainWindow::export_to(const QString& path) {
    if (path.endsWith(".step")) return export_solid(path);
    const auto shown = static_cast<Station>(m_stations->currentIndex());
    if (path.endsWith(".pdf") && shown == Station::pivots) print_hole_sheet(path, m_document.job(), m_document.derived());
    else if (path.endsWith(".pdf") && shown == Station::survey) print_survey(path, m_document.job(), m_document.derived());
    else m_teeth->export_part(path);
    m_calliper->tell(tr("Written: %1").arg(path), false);
}

void MainWindow::ask_export(const QString& ending) {
    const auto shown = static_cast<Station>(m_stations->currentIndex());
    const bool sheet = ending == "pdf" && (shown == Station::pivots || shown == Station::survey);
    const QString name = sheet ? shown == Station::pivots ? "holes." : "survey." : m_teeth->wheel_selected() ? "wheel." : "pinion.";
    const QString path = ask_path(tr("Export"), name + ending, "." + ending, {});
    if (!path.isEmpty()) export_to(path);
}

void MainWindow::ask_overrule(const std::string& finding) {
    bool said = false;
    QString stands;
    for (const Judgement& judgement : m_document.job().judgements)
        if (judgement.finding == finding) stands = QString::fromStdString(judgement.reason);
    const QString reason =
        QInputDialog::getText(this, tr("Overrule"), tr("Because (kept with the job):"), QLineEdit::Normal, stands, &said);
    if (said && reason.trimmed().isEmpty())
        m_calliper->tell(tr("reason: got nothing, takes a few words: they are what you will want to read in a year"), true);
    else if (said) guarded([&] { m_document.judge(finding, "overruled", reason.trimmed()); });
}

QStringList MainWindow::unkept() const {
    QStringList list = m_calliper->unkept();
    for (const InPlaceEditor* editor : findChildren<InPlaceEditor*>()) list += editor->unkept();
    return list;
}

void MainWindow::forget_unkept() {
    m_calliper->forget_unkept();
    for (InPlaceEditor* editor : findChildren<InPlaceEditor*>()) editor->forget_unkept();
}

bool MainWindow::may_drop_edits() {
    if (const QStringList typed = unkept(); !typed.isEmpty()) {
        const QString sentence = tr("Typed and not kept:\n\n%1").arg(typed.join("\n"));
        if (ask(tr("Not kept"), sentence, {tr("Go back to it"), tr("Drop it")}) != 1) return m_calliper->back_to_unkept(), false;
        forget_unkept();
    }
    if (!m_document.dirty()) return true;
    const int answer = ask(tr("Not saved"), tr("%1 has edits that are not saved.").arg(m_document.display_name()),
                           {tr("Save"), tr("Drop the edits"), tr("Cancel")});
    return answer == 1 || (answer == 0 && save());
}

void MainWindow::remember(const QString& path) {
    QSettings settings;
    QStringList recent = settings.value("recent").toStringList();
    recent.removeAll(path);
    recent.prepend(path);
    settings.setValue("recent", recent.mid(0, recent_kept));
    refill_recent();
}

void MainWindow::refill_recent() {
    m_recent->clear();
    for (const QString& path : QSettings().value("recent").toStringList())
        m_recent->addAction(path, this, [this, path] {
            guarded([&] {
                if (may_drop_edits()) open_file(path);
            });
        });
    m_recent->setEnabled(!m_recent->isEmpty());
}

void MainWindow::retitle() { setWindowTitle(m_document.display_name() + (m_document.dirty() ? " •" : "") + " – Echappe"); }

void MainWindow::closeEvent(QCloseEvent* event) {
    bool close = false;
    guarded([&] { close = may_drop_edits(); });
    if (!close) return event->ignore();
    m_document.journal().clear();
    event->accept();
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    if (event->mimeData()->urls().isEmpty()) return;
    const QString path = event->mimeData()->urls().front().toLocalFile();
    guarded([&] {
        const QString ending = QFileInfo(path).suffix().toLower();
        if (ending == "csv") return import_readings(path);
        if (ending == "png" || ending == "jpg" || ending == "jpeg") {
            show_station(Station::survey);
            return m_survey->add_photo(path);
        }
        if (may_drop_edits()) open_file(path);
    });
}

}  // namespace echappe
