#include "shell/main_window.h"

#include <QCloseEvent>
#include <QDragEnterEvent>
#include <QHBoxLayout>
#include <QMimeData>
#include <QVBoxLayout>
#include <memory>

#include "drawing/words.h"
#include "instruments/typing.h"
#include "ladder/ladder.h"
#include "shell/application.h"
#include "shell/fitting.h"
#include "shell/menus.h"
#include "shell/notice_strip.h"
#include "shell/stations_bar.h"
#include "shell/window_actions.h"
#include "theme/theme.h"
#include "workings/workings_panel.h"

namespace echappe {

MainWindow::MainWindow(QWidget* parent)
    : QMainWindow(parent),
      m_calliper(new CalliperLine(m_document)),
      m_jobs(m_document, *m_calliper, *this),
      m_out({m_document, *m_workshop, m_motion, *m_calliper}, m_jobs),
      m_bar(new StationsBar(m_document)),
      m_ladder(new Ladder(m_document)),
      m_stack(new QStackedWidget),
      m_workings(new WorkingsPanel(m_document)),
      m_sheets(new SheetDesk(*this)) {
    for (const StationRow& row : station_rows()) add_station(row, {m_document, *m_workshop, m_motion, *m_calliper});
    m_out.set_stations(m_stations);
    lay_out();
    m_fitting = new Fitting(*this, *m_ladder, *m_workings);
    Fitting::order_focus({m_bar, m_ladder}, m_stations, {&m_workings->sheet(), &m_calliper->line()});
    join();
    m_actions = window_actions(*this);
    build_menus(*this, m_actions);
    show_station("train");
}

void MainWindow::add_station(const StationRow& row, const Workbench& bench) {
    Station* station = row.make(bench);
    m_stack->addWidget(station);
    m_stations << station;
    m_ids << row.id;
    connect(station, &Station::told, m_calliper, &CalliperLine::tell);
    connect(station, &Station::quantity_wanted, m_calliper, &CalliperLine::ask);
    connect(station, &Station::drawers_wanted, m_sheets, &SheetDesk::open_stock);
    connect(station, &Station::file_wanted, this, [this](const QString& path) { m_jobs.guarded([&] { m_jobs.open_instead(path); }); });
    connect(station, &Station::demo_wanted, this, [this](const QString& name) { m_jobs.guarded([&] { m_jobs.demo_instead(name); }); });
    connect(station, &Station::round_changed, this, &MainWindow::follow_round);
    connect(station, &Station::station_wanted, this, &MainWindow::show_station);
    connect(station, &Station::csv_wanted, this,
            [this](const QString& name, const std::string& csv) { m_jobs.guarded([&] { m_out.write_csv(name, csv); }); });
    connect(station, &Station::pdf_wanted, this,
            [this](const Printout& what) { m_jobs.guarded([&] { m_out.write_pages(what.name, {what}); }); });
}

void MainWindow::lay_out() {
    auto* middle = new QHBoxLayout;
    middle->setSpacing(0);
    middle->addWidget(m_ladder);
    middle->addWidget(m_stack, 1);
    middle->addWidget(m_workings);
    auto* column = new QVBoxLayout;
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* notices = new NoticeStrip(m_document);
    connect(notices, &NoticeStrip::save_elsewhere_wanted, this, [this] { m_jobs.guarded([this] { m_jobs.save_as(); }); });
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
}

/// Every panel takes values and sends intent; here they are wired together.
void MainWindow::join() {
    new Typing(*m_calliper);
    m_calliper->ask_picture_first([this](const QKeyEvent& key) { return shown().answers(key); });
    if (auto* application = qobject_cast<Application*>(qApp))
        connect(application, &Application::told, m_calliper, [this](const QString& sentence) { m_calliper->tell(sentence, true); });
    connect(m_bar, &StationsBar::chosen, this, &MainWindow::show_station);
    connect(m_bar, &StationsBar::finder_wanted, m_sheets, &SheetDesk::open_finder);
    connect(m_bar, &StationsBar::title_wanted, &m_jobs, &JobDesk::ask_title);
    connect(m_calliper, &CalliperLine::station_key, this, [this](QKeyEvent* key) { QCoreApplication::sendEvent(&shown(), key); });
    connect(m_calliper, &CalliperLine::left, this, [this] {
        shown().setFocus();
        m_calliper->tell(
            words(
                "Tab leads through the picture, what lies beside it, the workings, the line, the stations and the ladder; Enter does it."),
            false);
    });
    connect(m_fitting, &Fitting::told, m_calliper, &CalliperLine::tell);
    connect(m_ladder, &Ladder::menu_wanted, this, [this](QMenu* menu) {
        for (Station* one : m_stations) one->fill_subject_menu(*menu);
    });
    connect(m_ladder, &Ladder::told, m_calliper, &CalliperLine::tell);
    connect(m_bar, &StationsBar::told, m_calliper, &CalliperLine::tell);
    connect(&m_workings->sheet(), &WorkingsSheet::told, m_calliper, &CalliperLine::tell);
    connect(m_calliper, &CalliperLine::station_wanted, this, &MainWindow::show_round_of);
    connect(&m_out, &OutDesk::window_wanted, this, [this](const QString& path) {
        m_jobs.guarded([&] {
            auto other = std::make_unique<MainWindow>();
            other->open_file(path);
            other->setAttribute(Qt::WA_DeleteOnClose);
            other.release()->show();
        });
    });
    connect(&m_out, &OutDesk::station_wanted, this, [this](Station* station) { show_station(m_ids[m_stations.indexOf(station)]); });
    m_document.use_stock(m_workshop->stock());
    connect(m_workshop.get(), &Workshop::changed, this, [this] { m_document.use_stock(m_workshop->stock()); });
    connect(&m_workings->sheet(), &WorkingsSheet::overrule_wanted, m_sheets, &SheetDesk::ask_overrule);
    connect(&m_document, &Document::told, m_calliper, &CalliperLine::tell);
    connect(&m_document, &Document::changed, this, &MainWindow::follow_round);
    const auto retitle = [this] { setWindowTitle(m_document.display_name() + (m_document.dirty() ? " •" : "") + " – Echappe"); };
    connect(&m_document, &Document::changed, this, retitle);
    retitle();
}

Station* MainWindow::station(const QString& id) const {
    const auto at = m_ids.indexOf(id);
    return at < 0 ? nullptr : m_stations[at];
}

Station& MainWindow::shown() const { return *static_cast<Station*>(m_stack->currentWidget()); }

void MainWindow::show_station(const QString& id) {
    Station* wanted = station(id);
    if (!wanted) return;
    m_stack->setCurrentWidget(wanted);
    m_bar->show_station(id);
    m_out.show_station(wanted);
    follow_round();
    m_fitting->show_workings(wanted->beside_workings());
    wanted->setFocus();
}

/// What the line asks for is what the station that is shown has to ask, as things stand.
void MainWindow::follow_round() {
    ReadingRound* round = shown().round();
    ReadingRound& wanted = round ? *round : m_calliper->solver();
    if (&wanted != &m_calliper->round()) m_calliper->take(wanted);
    m_calliper->show_who_takes_figures();
}

/// The station where these readings are asked for: the one that is shown, where it asks for them too.
void MainWindow::show_round_of(ReadingRound* round) {
    const auto asks = [&](const Station& one) { return one.asks_for(*round, m_calliper->solver()); };
    if (asks(shown())) return;
    for (qsizetype i = 0; i < m_stations.size(); ++i)
        if (asks(*m_stations[i])) return show_station(m_ids[i]);
}

void MainWindow::do_at(Station* station, const Action& action) {
    const bool here = !station || station == &shown();
    if (!here) show_station(m_ids[m_stations.indexOf(station)]);
    if (!action.can()) return m_calliper->tell(words("%1: not possible as things stand.").arg(action.words), true);
    here ? m_jobs.guarded(action.go) : station->come_for(action.go);
}

/// A key that nobody took where the focus is belongs to the station that is shown.
void MainWindow::keyPressEvent(QKeyEvent* event) {
    if (m_passing_key || shown().isAncestorOf(focusWidget()) || shown().hasFocus()) return QMainWindow::keyPressEvent(event);
    m_passing_key = true;
    QCoreApplication::sendEvent(&shown(), event);
    m_passing_key = false;
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!m_jobs.may_leave()) return event->ignore();
    m_document.drop_edits();
    m_fitting->remember(m_ids.value(m_stations.indexOf(&shown())));
    event->accept();
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    QStringList paths;
    for (const QUrl& dropped : event->mimeData()->urls()) paths << dropped.toLocalFile();
    m_out.take_files(paths);
}

}  // namespace echappe
