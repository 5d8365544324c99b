#include "shell/job_desk.h"

#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>

#include "document/recent.h"
#include "drawing/unkept.h"
#include "drawing/words.h"
#include "exchange/file_names.h"
#include "number/input_error.h"
#include "shell/job_sheet.h"
#include "shell/left_work_sheet.h"

namespace echappe {
namespace {

constexpr int recent_kept = 8;
const QString filter = "Echappe jobs (*.echappe.json);;All files (*)";

QList<Unkept*> entries_in(const QWidget& window) {
    QList<Unkept*> entries;
    for (QWidget* widget : window.findChildren<QWidget*>())
        if (auto* entry = dynamic_cast<Unkept*>(widget)) entries << entry;
    return entries;
}

}  // namespace

JobDesk::JobDesk(Document& document, CalliperLine& line, QWidget& window)
    : m_document(document), m_line(line), m_window(window), m_recent(words("Open again")) {
    refill_recent();
    // What was typed belongs to the job that it was typed for.
    connect(&document, &Document::opened, this, &JobDesk::forget_unkept);
}

void JobDesk::ask_open() {
    const QString path = may_drop_edits() ? QFileDialog::getOpenFileName(&m_window, words("Open a job"), jobs_folder(), filter) : QString();
    if (!path.isEmpty()) open_file(path);
}

void JobDesk::guarded(const std::function<void()>& action) {
    try {
        action();
    } catch (const std::exception& error) {
        m_line.tell(fault_in_words(error), true);
    }
}

QString JobDesk::free_path(const QString& title, const QString& ending) {
    const std::string name = file_name_of(title.toStdString(), "job");
    return QString::fromStdString(free_name(jobs_folder().toStdString(), name, ending.toStdString()).string());
}

QString JobDesk::ask_path(const QString& title, const QString& name, const QString& ending, const QString& kinds) {
    const QString path = QFileDialog::getSaveFileName(&m_window, title, QDir(jobs_folder()).filePath(name), kinds);
    const QString own = ending == ".echappe.json" ? ".json" : ending;
    if (path.isEmpty() || path.endsWith(own)) return path;
    const QString whole = path + ending;
    if (QFileInfo::exists(whole) && ask(title, words("%1 is there already.").arg(whole), {words("Cancel"), words("Replace it")}) != 1)
        return {};
    return whole;
}

int JobDesk::ask(const QString& title, const QString& sentence, const QStringList& answers, int usual) {
    QMessageBox box(QMessageBox::NoIcon, title, sentence, QMessageBox::NoButton, &m_window);
    QList<QPushButton*> buttons;
    for (const QString& answer : answers) buttons << box.addButton(answer, QMessageBox::ActionRole);
    box.setEscapeButton(buttons.front());
    box.setDefaultButton(buttons[usual]);
    box.exec();
    // Closed without a word it is as Escape.
    return std::max(0, static_cast<int>(buttons.indexOf(static_cast<QPushButton*>(box.clickedButton()))));
}

void JobDesk::open_file(const QString& path) {
    m_document.open(path);
    if (!m_document.path().isEmpty()) remember(path);
    if (m_window.isVisible()) offer_left_work(path);
}

void JobDesk::open_demo(const QString& name) { m_document.open_demo(name); }

void JobDesk::open_instead(const QString& path) {
    if (path.isEmpty()) return ask_open();
    if (may_drop_edits()) open_file(path);
}

void JobDesk::demo_instead(const QString& name) {
    if (may_drop_edits()) open_demo(name);
}

JobSheet* JobDesk::ask_title() {
    auto* sheet = new JobSheet(m_document, &m_window);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    connect(&m_document, &Document::opened, sheet, &QDialog::reject);
    sheet->open();
    return sheet;
}

void JobDesk::new_job() {
    if (!may_drop_edits()) return;
    Job job;
    const Settings kept;
    job.workshop = kept.value("workshop").toString().toStdString();
    job.length.symbol = kept.value("unit", "mm").toString() == "in" ? "in" : "mm";
    begin(job);
}

void JobDesk::revert() {
    const QString path = m_document.path();
    if (path.isEmpty()) throw InputError("revert", "a job that was never saved", "a job with a file; undo takes back single steps");
    if (!m_document.dirty()) return m_line.tell(words("It is as it was saved."), false);
    if (ask(words("Revert"), words("Back to %1 as it was saved? What was done since is dropped.").arg(path),
            {words("Cancel"), words("Revert")}) != 1)
        return;
    m_document.open(path);
}

void JobDesk::begin(const Job& job) { m_document.begin(job); }

LeftWorkSheet* JobDesk::offer_left_work(const QString& only_path) {
    auto entries = Journal::left_behind(only_path);
    if (entries.empty()) return nullptr;
    auto* sheet = new LeftWorkSheet(std::move(entries), &m_window);
    connect(&sheet->slips(), &LeftWorkSlips::taken_up, this, [this](const Journal::Entry& entry) { guarded([&] { take_up(entry); }); });
    sheet->open();
    return sheet;
}

void JobDesk::take_up(const Journal::Entry& entry) {
    if (!may_drop_edits()) return;
    m_document.recover(entry);
}

bool JobDesk::save_to(const QString& path) {
    QStringList missing;
    try {
        missing = m_document.save_as(path);
    } catch (const FileChanged& changed) {
        const int answer = ask(words("The file has changed"), path + "\n\n" + changed.sentence,
                               {words("Cancel"), words("Save elsewhere…"), words("Replace it")});
        if (answer != 2) return answer == 1 && save_as();
        try {
            missing = m_document.save_as(path, true);
        } catch (const InputError& error) {
            return save_elsewhere_after(fault_in_words(error));
        }
    } catch (const InputError& error) {
        return save_elsewhere_after(fault_in_words(error));
    }
    remember(path);
    if (missing.isEmpty()) m_line.tell(words("Saved: %1").arg(path), false);
    else m_line.tell(words("Saved: %1. Not found, and so not saved with it: %2.").arg(path, missing.join(", ")), true);
    return true;
}

bool JobDesk::save_elsewhere_after(const QString& sentence) {
    m_line.tell(words("Not saved. %1").arg(sentence), true);
    return ask(words("Not saved"), sentence, {words("Cancel"), words("Save elsewhere…")}) == 1 && save_as();
}

bool JobDesk::save() { return m_document.path().isEmpty() ? save_as() : save_to(m_document.path()); }

bool JobDesk::save_as() {
    // What is open proposes its own name; a new job one that nothing has yet.
    const QString ending = ".echappe.json";
    const QString path =
        ask_path(words("Save the job"), m_document.path().isEmpty() ? free_path(m_document.display_name(), ending) : m_document.path(),
                 ending, filter);
    return !path.isEmpty() && save_to(path);
}

QStringList JobDesk::unkept() const {
    QStringList list = m_line.unkept();
    for (const Unkept* entry : entries_in(m_window)) list += entry->unkept();
    return list;
}

void JobDesk::forget_unkept() {
    m_line.forget_unkept();
    for (Unkept* entry : entries_in(m_window)) entry->forget_unkept();
}

bool JobDesk::may_drop_edits() {
    if (!ask_before_dropping()) return false;
    forget_unkept();
    return true;
}

bool JobDesk::may_leave() {
    bool may = m_let_go;
    if (!may) guarded([&] { may = ask_before_dropping(); });
    return may;
}

bool JobDesk::ask_before_dropping() {
    if (const QStringList typed = unkept(); !typed.isEmpty()) {
        const QString sentence = words("Typed and not kept:\n\n%1").arg(typed.join("\n"));
        if (ask(words("Not kept"), sentence, {words("Go back to it"), words("Drop it")}) != 1) return m_line.back_to_unkept(), false;
    }
    if (!m_document.dirty()) return true;
    const int answer = ask(words("Not saved"), words("%1 has edits that are not saved.").arg(m_document.display_name()),
                           {words("Cancel"), words("Save"), words("Drop the edits")}, 1);
    return answer == 2 || (answer == 1 && save());
}

void JobDesk::remember(const QString& path) {
    QStringList recent = recent_jobs();
    recent.removeAll(path);
    recent.prepend(path);
    Settings().setValue("recent", recent.mid(0, recent_kept));
    refill_recent();
}

void JobDesk::refill_recent() {
    m_recent.clear();
    for (const QString& path : recent_jobs()) {
        const QFileInfo file(path);
        // An ampersand in a name is no key.
        const QString shown = QString(file.fileName() + words(", in ") + file.dir().path()).replace("&", "&&");
        m_recent.addAction(shown, this, [this, path] { guarded([&] { open_instead(path); }); });
    }
    m_recent.setEnabled(!m_recent.isEmpty());
    m_recent.addSeparator();
    m_recent.addAction(words("Forget these"), this, [this] {
        Settings().remove("recent");
        refill_recent();
    });
}

}  // namespace echappe
