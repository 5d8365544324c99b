#include "shell/out_desk.h"

#include <QApplication>
#include <QBuffer>
#include <QClipboard>
#include <QFileDialog>
#include <QFileInfo>
#include <QPrintPreviewDialog>
#include <QPrinter>
#include <QSvgGenerator>
#include <QToolBar>
#include <QToolButton>

#include "drawing/words.h"
#include "exchange/file_names.h"
#include "exchange/whole_file.h"
#include "job/file.h"
#include "number/input_error.h"

namespace echappe {

namespace {
const QString csv_kinds = "CSV (*.csv)";

/// As a file is called: "third-wheel".
QString name_of_part(const QString& part) { return QString::fromStdString(file_name_of(part.toStdString(), "part")); }

/// The toolkit's preview is made for the mouse: here Tab leads through its buttons, and the key that opened it prints.
void open_to_keys(QPrintPreviewDialog& preview) {
    preview.setWindowTitle(words("Before it is printed: Ctrl+P prints, Tab leads to the buttons, Esc goes back"));
    const auto buttons = preview.findChildren<QToolButton*>();
    for (QToolButton* button : buttons) button->setFocusPolicy(Qt::StrongFocus);
    auto* bar = preview.findChild<QToolBar*>();
    if (!bar || bar->actions().isEmpty()) return;
    QAction* print = bar->actions().constLast();
    print->setShortcut(QKeySequence::Print);
    if (QWidget* button = bar->widgetForAction(print)) button->setFocus();
}
}  // namespace

Station* OutDesk::writer(const QString& ending) const {
    if (m_shown && !m_shown->writes(ending).isEmpty()) return m_shown;
    for (Station* station : m_stations)
        if (station->writes_from_anywhere() && !station->writes(ending).isEmpty()) return station;
    throw InputError("export", "\"" + ending.toStdString() + "\"", "a name ending in .svg, .dxf, .step or .pdf");
}

/// A solid takes a second or two: it is made beside the window.
void OutDesk::export_solid(const QString& path, const Station& station) {
    m_bench.line.tell(words("Making the solid for %1…").arg(path), false);
    const auto written = [this](const QString& sentence, bool fault) {
        m_bench.line.tell(sentence, fault);
        emit solid_written();
    };
    m_exporter.send(
        [path, written, part = station.solid()](const std::stop_token&, const Errand::Tell& tell) {
            save_text(path.toStdString(), to_step(part));
            tell([path, written] { written(words("Written: %1").arg(path), false); });
        },
        [written](const QString& why) { written(why, true); });
}

void OutDesk::export_to(const QString& path) {
    if (path.endsWith(".pdf")) {
        write_pdf(path, words(m_bench.document.job().title), printouts(false));
        return m_bench.line.tell(words("Written: %1").arg(path), false);
    }
    Station* station = writer(QFileInfo(path).suffix());
    if (path.endsWith(".step")) return export_solid(path, *station);
    station->write_to(path);
    m_bench.line.tell(words("Written: %1").arg(path), false);
}

void OutDesk::ask_export(const QString& ending) {
    const QString name = name_of_part(writer(ending)->writes(ending));
    const QString path = m_jobs.ask_path(words("Export"), name + "." + ending, "." + ending, {});
    if (!path.isEmpty()) export_to(path);
}

std::vector<Printout> OutDesk::printouts(bool whole_job) const {
    std::vector<Printout> parts;
    for (Station* station : m_stations)
        if (whole_job ? station->shows_something() : station == m_shown) parts.push_back(station->printed());
    return parts;
}

void OutDesk::ask_pdf(bool whole_job) {
    const auto parts = printouts(whole_job);
    write_pages(whole_job ? m_bench.document.display_name() : parts.front().name, parts);
}

void OutDesk::write_pages(QString name, const std::vector<Printout>& parts) {
    const QString path = m_jobs.ask_path(words("Write as PDF"), name_of_part(name) + ".pdf", ".pdf", {});
    if (path.isEmpty()) return;
    write_pdf(path, words(m_bench.document.job().title), parts);
    m_bench.line.tell(words("Written: %1").arg(path), false);
}

void OutDesk::print(bool whole_job) {
    const auto parts = printouts(whole_job);
    if (parts.empty()) throw InputError("print", "a job in which no station has anything to show yet", "a movement that is written down");
    QPrinter printer(QPrinter::HighResolution);
    const QString title = words(m_bench.document.job().title);
    // As the first part lies, from the start: the preview shows every page in one form.
    printer.setPageOrientation(parts.front().way);
    QPrintPreviewDialog preview(&printer, m_shown->window());
    preview.resize(m_shown->window()->size() * 0.9);
    connect(&preview, &QPrintPreviewDialog::paintRequested, this, [&](QPrinter* on) { print_on(*on, title, parts); });
    open_to_keys(preview);
    preview.exec();
}

void OutDesk::write_picture(const QString& path) {
    const QSize size = m_shown->rect().size();
    QBuffer bytes;
    bytes.open(QIODevice::WriteOnly);
    if (path.endsWith(".svg")) {
        QSvgGenerator svg;
        svg.setOutputDevice(&bytes);
        svg.setSize(size);
        svg.setViewBox(QRect(QPoint(), size));
        svg.setTitle(words(m_bench.document.job().title));
        QPainter painter(&svg);
        m_shown->paint_on_paper(painter);
        painter.end();
    } else if (path.endsWith(".png")) {
        m_shown->grab().save(&bytes, "PNG");
    } else {
        throw InputError("picture", "\"" + path.toStdString() + "\"", "a name ending in .png or .svg");
    }
    save_text(path.toStdString(), bytes.data().toStdString());
    m_bench.line.tell(words("Written: %1").arg(path), false);
}

void OutDesk::ask_picture() {
    const QString path =
        m_jobs.ask_path(words("Write the picture"), name_of_part(m_shown->accessibleName()) + ".png", {}, words("Pictures (*.png *.svg)"));
    if (!path.isEmpty()) write_picture(path);
}

void OutDesk::copy_picture() {
    QApplication::clipboard()->setPixmap(m_shown->grab());
    m_bench.line.tell(words("The picture is on the clipboard."), false);
}

void OutDesk::write_csv(const QString& name, const std::string& csv) {
    const QString path = m_jobs.ask_path(words("Write"), name, ".csv", csv_kinds);
    if (path.isEmpty()) return;
    save_text(path.toStdString(), csv);
    m_bench.line.tell(words("Written: %1").arg(path), false);
}

void OutDesk::ask_readings(QWidget* window) {
    const QString path = QFileDialog::getOpenFileName(window, words("Readings"), {}, words("Tables and drawings (*.csv *.dxf)"));
    if (!path.isEmpty()) take_file(path);
}

void OutDesk::import_readings(const QString& path) {
    const std::string csv = read_text(path.toStdString());
    const std::string header = csv.substr(0, csv.find('\n'));
    const auto reader = std::find_if(m_stations.begin(), m_stations.end(), [&](const Station* station) { return station->reads(header); });
    if (reader == m_stations.end())
        throw InputError(
            "header", header.empty() ? "nothing" : header.substr(0, 60),
            "columns of holes (arbor, plate, … or arbor, x_mm, y_mm), torque (turns, down_N_mm, …) or looks (reference_s, shown_s, …)");
    keep_from(path, [&](Job& job) { return (*reader)->read_table(job, csv); });
}

/// Keeps what one of the stations reads of a file, as one edit that is told.
void OutDesk::keep_from(const QString& path, const std::function<size_t(Job&)>& read) {
    size_t kept = 0;
    m_bench.document.edit(words("Readings from %1").arg(QFileInfo(path).fileName()), [&](Job& job) { kept = read(job); });
    m_bench.line.tell(words("%1 readings kept from %2.").arg(kept).arg(path), false);
}

void OutDesk::read_drawing(const QString& path) {
    const auto reader =
        std::find_if(m_stations.begin(), m_stations.end(), [](const Station* station) { return station->reads_drawings(); });
    if (reader == m_stations.end()) throw InputError("file", "a drawing", "a table of readings, .csv");
    keep_from(path, [&](Job& job) { return (*reader)->read_drawing(job, path); });
}

Station* OutDesk::taker_of(const QString& path, QString (Station::*place)() const, const QString& question) {
    if (m_shown && !(m_shown->*place)().isEmpty()) return m_shown;
    QList<Station*> takers;
    QStringList answers = {words("Leave it")};
    for (Station* station : m_stations) {
        const QString there = (station->*place)();
        if (there.isEmpty()) continue;
        takers << station;
        answers << there;
    }
    if (takers.isEmpty()) return nullptr;
    const int answer = m_jobs.ask(words("A file was dropped"), question.arg(QFileInfo(path).fileName()), answers);
    if (answer == 0) return nullptr;
    emit station_wanted(takers[answer - 1]);
    return takers[answer - 1];
}

void OutDesk::take_file(const QString& path) {
    const QString ending = QFileInfo(path).suffix().toLower();
    if (ending == "csv") return import_readings(path);
    if (ending == "dxf") return read_drawing(path);
    if (ending == "png" || ending == "jpg" || ending == "jpeg") {
        if (Station* taker = taker_of(path, &Station::place_for_pictures, words("What is %1 a picture of?"))) taker->take_picture(path);
        return;
    }
    if (ending == "wav" || ending == "flac" || ending == "ogg") {
        if (Station* taker = taker_of(path, &Station::listens_for, words("What is to be heard in %1?"))) taker->take_sound(path);
        return;
    }
    // What is damaged opens as far as it can be read; where that is nothing, it is no job.
    const LoadedJob looked = load_job(path.toStdString());
    if (!looked.faults.empty() && looked.job == Job())
        throw InputError("file", std::string("nothing of a job in it (") + looked.faults.front().what() + ")",
                         "a job (.echappe.json), a table, a drawing, a picture or a recording");
    if (m_jobs.may_drop_edits()) m_jobs.open_file(path);
}

void OutDesk::take_files(const QStringList& paths) {
    QStringList faults;
    bool job_taken = false;
    for (const QString& path : paths) try {
            const bool job = path.endsWith(".json");
            if (job && job_taken) {
                emit window_wanted(path);
                continue;
            }
            take_file(path);
            job_taken = job_taken || job;
        } catch (const std::exception& error) {
            faults << QFileInfo(path).fileName() + ": " + fault_in_words(error);
        }
    if (!faults.isEmpty()) m_bench.line.tell(faults.join("\n"), true);
}

}  // namespace echappe
