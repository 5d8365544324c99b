#include "stations/bench/bench_station.h"

#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QWheelEvent>
#include <algorithm>

#include "bench/cautions.h"
#include "bench/waits.h"
#include "document/folders.h"
#include "document/pictures.h"
#include "document/settings.h"
#include "document/today.h"
#include "drawing/words.h"
#include "exchange/archive.h"
#include "exchange/file_names.h"
#include "exchange/whole_file.h"
#include "number/units.h"
#include "print/html_pages.h"
#include "report/bench_sheets.h"
#include "report/job_archive.h"
#include "report/known.h"

namespace echappe {
namespace {

/// The demos lie on a bench of their own, with some that went home behind them.
QString demo_bench() {
    const QString folder = data_folder() + "/demo-bench";
    QDir().mkpath(folder);
    for (const char* where : {":/demo", ":/demo/closed"})
        for (const QString& file : QDir(where).entryList({"*.echappe.json"})) {
            const QString to = folder + "/" + file;
            if (!QFile::exists(to) && QFile::copy(QString(where) + "/" + file, to))
                QFile::setPermissions(to, QFile::ReadOwner | QFile::WriteOwner);
        }
    return folder;
}

}  // namespace

BenchStation::BenchStation(const Workbench& bench)
    : CardStation(bench.document, {}, nullptr), m_workshop(bench.workshop), m_line(bench.line), m_editor(new InPlaceEditor(this)) {
    setAccessibleName(words("Bench"));
    m_card->set_tabs(tabs());
    connect(&m_document, &Document::changed, this, &BenchStation::refresh);
    connect(&m_document, &Document::opened, this, [this] { m_clock.restart(); });
}

std::vector<SumCard::Tab> BenchStation::tabs() {
    const auto take = [this](const QString& name, const std::string& field, const std::string& word) {
        m_document.edit(typed_on_bench(name.toStdString(), field, word));
    };
    return {{words("job"), words("Received, promised, its test run and what came of it."),
             [this] { return bench_job_sheet(m_document.job(), order()); }, take},
            {words("worth"), words("Repair, replace, leave or stop here: hours, parts and harm side by side."),
             [this] { return bench_worth_sheet(m_document.job(), order()); }, take},
            {words("diary"), words("What was done, by itself, and what you note."), [this] { return bench_diary_sheet(record()); },
             [this](const QString&, const std::string&, const std::string& word) { m_document.edit(note_in_diary(now_in_words(), word)); }},
            {words("rules"), words("What came of the workshop's rules over all jobs."), [this] { return bench_rules_sheet(m_today); }, {}}};
}

void BenchStation::showEvent(QShowEvent*) { refresh(); }

void BenchStation::refresh() {
    if (!isVisible()) return;
    m_card->show_part(m_document.display_name());
    update();
}

const JobOrder& BenchStation::order() const {
    if (m_order_of != m_document.revision()) {
        m_order_at = now_in_words();
        m_order = order_of_work(m_document.job(), m_document.derived(), m_order_at, m_workshop.stock().times);
        m_order_of = m_document.revision();
    }
    return m_order;
}

const DiagnoseResult& BenchStation::diagnosis() const {
    if (m_diagnosis_of != m_document.revision()) {
        DiagnoseInput in;
        in.symptoms = record().symptoms, in.tests = record().tests, in.movement = movement_of(m_document.job());
        // What was tried by hand goes before what the job knows.
        for (const TestDone& known : known_by_job(m_document.job(), m_document.derived()))
            if (std::none_of(in.tests.begin(), in.tests.end(), [&](const TestDone& one) { return one.id == known.id; }))
                in.tests.push_back(known);
        for (const CauseFound& found : m_today.found)
            if (shipped_diagnosis().cause(found.cause)) in.found.push_back(found);
        try {
            m_diagnosis = diagnose(in);
        } catch (const InputError&) {
            // A file of another version may name what is not in these tables: without it.
            in.symptoms.clear(), in.tests.clear(), in.found.clear();
            m_diagnosis = diagnose(in);
        }
        m_diagnosis_of = m_document.revision();
    }
    return m_diagnosis;
}

void BenchStation::show_picture(Picture picture) {
    m_picture = picture;
    m_scrolled = 0;
    if (picture == Picture::jobs && !m_looking) look_through(m_words);
    refresh();
    // Which keys are the picture's own is another matter now.
    emit round_changed();
}

const JobStep* BenchStation::step() const {
    if (const JobStep* chosen = order().step(m_step)) return chosen;
    return order().next();
}

void BenchStation::done() {
    if (m_picture == Picture::oil) {
        for (const OilPlace& place : order().oil)
            if (!place.done && place.what != "dry") return m_document.edit(oil_place(place.id, true));
        return;
    }
    const JobStep* now = step();
    if (!now && !record().closed.empty()) return emit told(words("It is handed over."), false);
    if (!now) return emit told(words("Nothing can be done now: all that is left waits. Each line says until when."), false);
    if (now->by_itself) return emit told(words("It is done already: the job shows it at its station."), false);
    const std::string id = now->id;
    for (const std::string& before : now->after)
        if (const JobStep* first = order().step(before); first && !first->over())
            return emit told(words("Before it: %1.").arg(words(first->words)), true);
    if (id == "hand-over") m_document.edit(close_job(echappe::today(), {}));
    else end_step(id);
    m_step.clear();
    // What only time can tell was said by hand: it is said what time has told.
    if ((id == "run" || id == "week") && !order().ready.ready)
        emit told(words("Ticked by hand. %1").arg(words(order().ready.verdict)), true);
}

/// How long it took goes to the drawers' times, and out of them again when it is undone.
void BenchStation::end_step(const std::string& id) {
    const std::optional<double> minutes = m_clock.minutes();
    const auto mark = mark_step({id, "done", "", echappe::today(), "", minutes});
    if (!minutes) return m_document.edit(mark);
    m_document.edit(mark, [&workshop = m_workshop, took = TimeTaken{"bench", kind_of_step(id), *minutes}](bool done) {
        // Minutes alone are no reason to keep a step from being done: drawers that cannot be written are told where they are opened.
        if (workshop.fault().isEmpty()) workshop.change([&](Stock& stock) { learn(stock.times, took, done); });
    });
}

void BenchStation::pass_over() {
    const JobStep* now = step();
    if (!now || now->over()) return;
    m_document.edit(mark_step({now->id, "passed", "not wanted on this one", echappe::today(), "", {}}));
    m_step.clear();
}

/// What is asked on the picture, at the left under the names of the pictures.
void BenchStation::ask(const QString& what, const QString& stands, const std::function<void(const QString&)>& take) {
    constexpr double wide_px = 300, high_px = 28;
    m_editor->ask(what, QRectF(20, top_px + 4, std::min(wide_px, wide() - 40), high_px), stands, take);
    emit told(words("%1. Enter keeps it, Esc leaves it.").arg(what), false);
}

void BenchStation::wait() {
    const JobStep* now = step();
    if (!now || now->over()) return;
    ask(words("%1: for how long or until when, and for what, as 3 d, the lacquer").arg(words(now->words)), words("1 d, what it needs"),
        [this, id = now->id](const QString& said) {
            m_document.edit(mark_step(wait_from(id, now_in_words(), said.toStdString())));
            m_step.clear();
            emit told(wait_in_words(*order().step(id)), false);
        });
}

void BenchStation::undo_step() {
    if (m_picture == Picture::oil) {
        if (!record().oiled.empty()) m_document.edit(oil_place(record().oiled.back(), false));
        return;
    }
    if (!m_step.empty() && record().mark(m_step)) return m_document.edit(unmark_step(m_step));
    if (!record().marks.empty()) m_document.edit(unmark_step(record().marks.back().step));
}

void BenchStation::answer(size_t result) {
    if (m_picture != Picture::diagnosis || !diagnosis().next_test) return;
    const DiagnosisTest* test = shipped_diagnosis().test(diagnosis().next_test->id);
    if (test && result < test->results.size()) m_document.edit(test_done(test->id, test->results[result].id));
}

void BenchStation::go(int by) {
    const auto& steps = order().steps;
    if (steps.empty()) return;
    const JobStep* now = step();
    const auto at = now ? now - steps.data() : 0, count = static_cast<std::ptrdiff_t>(steps.size());
    m_step = steps[static_cast<size_t>((at + by + count) % count)].id;
    update();
}

QString BenchStation::folder() const {
    const QString kept = Settings().value("bench/folder").toString();
    if (!kept.isEmpty() && QDir(kept).exists()) return kept;
    const QString path = m_document.path();
    return path.isEmpty() ? demo_bench() : QFileInfo(path).absolutePath();
}

void BenchStation::look_through(const QString& words_wanted) {
    m_words = words_wanted;
    m_looking = true;
    BenchTodayInput in;
    in.folder = folder().toStdString(), in.now = now_in_words(), in.words = words_wanted.toStdString();
    m_seen = 0;
    m_looker.send(
        [this, in, times = m_workshop.stock().times](const std::stop_token& stop, const Errand::Tell& tell) {
            LookAids aids{stop, {}, times};
            aids.seen = [this, &tell](size_t count, size_t of) {
                constexpr size_t now_and_then = 8;
                if (count % now_and_then == 0) tell([this, count, of] { m_seen = count, m_to_see = of, update(); });
            };
            const auto seen = std::make_shared<BenchToday>(bench_today(in, aids));
            tell([this, seen] { take_look(std::move(*seen)); });
        },
        [this](const QString& why) {
            take_look({});
            emit told(why, true);
        });
    update();
}

void BenchStation::take_look(BenchToday seen) {
    m_today = std::move(seen);
    m_looking = false;
    m_diagnosis_of.reset();
    m_card->show_sum(m_card->shown());
    update();
}

void BenchStation::ask_folder() {
    const QString chosen = QFileDialog::getExistingDirectory(this, words("Folder of job files"), folder());
    if (chosen.isEmpty()) return;
    Settings().setValue("bench/folder", chosen);
    look_through();
}

/// As a page for a browser, or as pages: by the ending that is chosen.
void BenchStation::write_paper(const std::string& paper, const std::string& reader) {
    const QString name = words(file_name_of((m_document.display_name() + " " + words(paper)).toStdString(), paper)) + ".pdf";
    const QString path = QFileDialog::getSaveFileName(this, words("Write"), name, words("Pages (*.pdf);;Page for a browser (*.html)"));
    if (path.isEmpty()) return;
    emit told(write_paper_to(path, paper, reader), false);
}

QString BenchStation::write_paper_to(const QString& path, const std::string& paper, const std::string& reader) {
    JobSheetInput in;
    in.job = m_document.job(), in.paper = paper, in.reader = reader, in.now = now_in_words();
    in.pictures_folder = m_document.pictures().toStdString();
    const JobSheetResult sheet = job_sheet(in, m_document.derived(), order());
    if (path.endsWith(".pdf")) write_html_pdf(path, words(sheet.html));
    else save_text(path.toStdString(), sheet.html);
    return sheet.missing.empty() ? words("Written: %1").arg(path)
                                 : words("Written: %1. Missing in it: %2.").arg(path, words(sheet.missing.front()));
}

void BenchStation::write_job_archive() {
    if (m_document.path().isEmpty() || m_document.dirty())
        return emit told(words("Save it first (Ctrl+S): the archive takes the file as it lies there."), true);
    const QString path = QFileDialog::getSaveFileName(
        this, words("Archive"),
        QFileInfo(m_document.path()).absolutePath() + "/" + words(job_stem(QFileInfo(m_document.path()).fileName().toStdString())) + ".zip",
        words("Archive (*.zip)"));
    if (path.isEmpty()) return;
    write_archive(path.toStdString(), job_with_pictures(m_document.path().toStdString()));
    emit told(words("Written: %1").arg(path), false);
}

void BenchStation::unpack_archive() {
    const QString path = QFileDialog::getOpenFileName(this, words("Archive of a job"), {}, words("Archive (*.zip)"));
    if (path.isEmpty()) return;
    const QString to = QFileDialog::getExistingDirectory(this, words("Unpack it into"), QFileInfo(path).absolutePath());
    if (!to.isEmpty()) emit file_wanted(QString::fromStdString(unpack_job(path.toStdString(), to.toStdString()).job.string()));
}

void BenchStation::find_job() {
    show_picture(Picture::jobs);
    constexpr double wide_px = 260, high_px = 28;
    m_editor->ask(words("words that are in the job"), QRectF(width() - wide_px - 16, top_px - high_px - 6, wide_px, high_px), m_words,
                  [this](const QString& words_wanted) { look_through(words_wanted.trimmed()); });
}

void BenchStation::begin_or_end_run() {
    const bool runs = !record().runs.empty() && record().runs.back().ended.empty();
    m_document.edit(runs ? end_run(now_in_words()) : begin_run(now_in_words(), "on its wall"));
    emit told(runs ? words("Test run ended.") : words("Test run begun: level, firm, weights with room to fall? Say so on the sheet."),
              false);
}

void BenchStation::note_stop() {
    if (record().runs.empty() || !record().runs.back().ended.empty()) return emit told(words("No run is on test: R begins one."), true);
    ask(words("Where the hands stood, as 3:20; empty where nobody saw"), {}, [this](const QString& said) {
        const std::string hands = said.trimmed().toStdString();
        if (!hands.empty()) hands_s(hands, "hands");
        m_document.edit(echappe::note_stop(now_in_words(), hands.empty() ? "?" : hands, ""));
        emit told(words(order().stops.verdict), false);
    });
}

/// A picture between the lines of the diary; it lies with the job's other pictures.
void BenchStation::take_picture(const QString& path) {
    const QString kept = keep_picture(m_document.pictures(), path, words("diary"));
    m_document.edit(picture_in_diary(now_in_words(), kept.toStdString()));
    emit told(words("The picture is in the diary."), false);
}

void BenchStation::ask_picture() {
    const QString path = QFileDialog::getOpenFileName(this, words("A picture for the diary"), {}, words("Pictures (*.png *.jpg *.jpeg)"));
    if (!path.isEmpty()) take_picture(path);
}

QList<Action> BenchStation::picture_actions() {
    QList<Action> list;
    struct Named {
        const char* id;
        Picture picture;
        QString words;
        Qt::Key key;
    };
    for (const Named& row : {Named{"bench.order", Picture::order, words("This job, in its order"), Qt::Key_J},
                             Named{"bench.parts", Picture::parts, words("Parts out and back in"), Qt::Key_P},
                             Named{"bench.oil", Picture::oil, words("Where oil goes, and where not"), Qt::Key_O},
                             Named{"bench.diagnosis", Picture::diagnosis, words("What is wrong with it"), Qt::Key_D},
                             Named{"bench.jobs", Picture::jobs, words("All jobs"), Qt::Key_A}})
        list << Action{row.id, row.words, {row.key}, [this, picture = row.picture] { show_picture(picture); }};
    return list;
}

QList<Action> BenchStation::step_actions() {
    const auto steps = [this] { return m_picture == Picture::order; };
    const auto ticks = [this] { return m_picture == Picture::order || m_picture == Picture::oil; };
    const auto tests = [this] { return m_picture == Picture::diagnosis; };
    QList<Action> list = {
        {"bench.done", words("On: the step is done"), {Qt::Key_Return, Qt::Key_Enter}, [this] { done(); }, {}, words("done"), ticks},
        {"bench.undo", words("Open again"), {Qt::Key_B}, [this] { undo_step(); }, {}, words("open again"), ticks},
        {"bench.pass", words("Passed over"), {Qt::Key_X}, [this] { pass_over(); }, {}, words("pass over"), steps},
        {"bench.wait", words("It waits"), {Qt::Key_W}, [this] { wait(); }, {}, words("wait"), steps},
        {"bench.down", words("The step below"), {Qt::Key_Down}, [this] { go(1); }, {}, {}, steps},
        {"bench.up", words("The step above"), {Qt::Key_Up}, [this] { go(-1); }, {}, {}, steps},
        {"bench.go",
         words("To the station where it is done"),
         {Qt::Key_G},
         [this] {
             if (const JobStep* now = step()) emit station_wanted(words(now->station));
         },
         {},
         words("to its station"),
         steps}};
    const std::array keys = {Qt::Key_1, Qt::Key_2, Qt::Key_3, Qt::Key_4};
    for (size_t i = 0; i < keys.size(); ++i)
        list << Action{QString("bench.answer-%1").arg(i + 1),
                       words("Answer %1 to the test").arg(i + 1),
                       {keys[i]},
                       [this, i] { answer(i); },
                       {},
                       {},
                       tests};
    return list;
}

QList<Action> BenchStation::make_actions() {
    QList<Action> list;
    for (const Action& action : CardStation::make_actions())
        if (action.id.startsWith("sheet.")) list << action;
    list += picture_actions() + step_actions();
    list += {{"bench.run", words("A test run begins or ends"), {Qt::Key_R}, [this] { begin_or_end_run(); }, {}, words("test run")},
             {"bench.stop", words("It was found standing"), {Qt::Key_S}, [this] { note_stop(); }, {}, words("a stop")},
             {"bench.folder", words("Another folder of jobs…"), {}, [this] { ask_folder(); }},
             {"bench.find", words("Find jobs by any word in them"), {Qt::Key_F}, [this] { find_job(); }},
             {"bench.archive", words("The job and its pictures into one archive…"), {}, [this] { write_job_archive(); }},
             {"bench.unpack", words("A job out of its archive…"), {}, [this] { unpack_archive(); }},
             {"bench.look", words("Look through the folder again"), {}, [this] { look_through(m_words); }},
             {"bench.enough",
              words("Stop looking through the folder"),
              {Qt::Key_Escape},
              [this] { m_looker.hasten(); },
              {},
              words("enough"),
              [this] { return m_looking; }},
             {"bench.picture", words("A picture into the diary…"), {Qt::Key_I}, [this] { ask_picture(); }}};
    for (const auto& [id, paper, reader, name] :
         {std::tuple("bench.sheet", "job sheet", "colleague", words("Job sheet, with every figure…")),
          std::tuple("bench.condition", "condition", "owner", words("Condition report for the owner…")),
          std::tuple("bench.estimate", "estimate", "owner", words("Estimate for the owner…")),
          std::tuple("bench.report", "done", "owner", words("What was done, for the owner…"))})
        list << Action{id, name, {}, [this, paper = std::string(paper), reader = std::string(reader)] { write_paper(paper, reader); }};
    return list;
}

void BenchStation::wheelEvent(QWheelEvent* event) {
    m_scrolled = std::clamp(m_scrolled - event->angleDelta().y() / 2.0, 0.0, std::max(0.0, m_long - height() + 60));
    update();
}

std::vector<Scene> BenchStation::scenes() {
    const auto to = [this](Picture picture) { return [this, picture] { show_picture(picture); }; };
    const auto stops = [this] {
        m_document.edit(see_symptom("stops-after-minutes"));
        show_picture(Picture::diagnosis);
    };
    return {{"bench-order", "tide-house", to(Picture::order)},
            {"bench-oil", {}, to(Picture::oil)},
            {"bench-diagnosis", {}, stops},
            {"bench-jobs", {}, to(Picture::jobs), [this] { return !m_looking; }, [this] { show_picture(Picture::order); }}};
}

}  // namespace echappe
