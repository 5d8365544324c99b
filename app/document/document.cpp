#include "document/document.h"

#include <QDateTime>
#include <QFile>
#include <QFileInfo>
#include <algorithm>

#include "document/folders.h"
#include "document/pictures.h"
#include "document/today.h"
#include "drawing/words.h"
#include "exchange/file_names.h"
#include "job/edits.h"
#include "job/pictures.h"
#include "number/input_error.h"
#include "number/numeral.h"
#include "number/units.h"
#include "workings/record_json.h"

namespace echappe {

/// One edit: the job before and after. Values are shared, not copied again. It is made when the edit is done already: what cannot
/// be derived never gets among what can be undone.
class EditCommand : public QUndoCommand {
public:
    EditCommand(Document& document, const QString& name, std::shared_ptr<const Job> before, std::shared_ptr<const Job> after,
                std::function<void(bool)> beside, int session)
        : QUndoCommand(name),
          m_document(document),
          m_before(std::move(before)),
          m_after(std::move(after)),
          m_beside(std::move(beside)),
          m_session(session) {}
    int id() const override { return m_session; }
    const std::shared_ptr<const Job>& before() const { return m_before; }
    bool mergeWith(const QUndoCommand* next) override {
        m_after = static_cast<const EditCommand*>(next)->m_after;
        if (*m_after == *m_before) setObsolete(true);
        return true;
    }
    void undo() override { go(m_before, false); }
    void redo() override {
        if (!std::exchange(m_done, false)) go(m_after, true);
    }

private:
    /// The stack knows no failing: what goes wrong is told.
    void go(const std::shared_ptr<const Job>& to, bool done) {
        try {
            m_document.put(to);
            if (m_beside) m_beside(done);
        } catch (const std::exception& error) {
            emit m_document.told(fault_in_words(error), true);
        }
    }
    Document& m_document;
    std::shared_ptr<const Job> m_before;
    std::shared_ptr<const Job> m_after;
    std::function<void(bool)> m_beside;
    int m_session;
    bool m_done = true;
};

namespace {

constexpr size_t journal_lines = 400;  ///< then the job is kept whole again

QString canonical(const QString& path) { return path.isEmpty() ? path : QString::fromStdString(behind_links(path.toStdString()).string()); }

/// The edit that this session's next one goes on from; none: it is the session's first.
const EditCommand* last_of(const QUndoStack& stack, int session) {
    if (session < 0 || stack.index() == 0) return nullptr;
    const auto* last = static_cast<const EditCommand*>(stack.command(stack.index() - 1));
    return last->id() == session && !stack.isClean() ? last : nullptr;
}

QString clock_of(const QDateTime& time) { return time.toString(time.date() == QDate::currentDate() ? "HH:mm" : "yyyy-MM-dd HH:mm"); }

}  // namespace

Document::Document(QObject* parent) : QObject(parent) {
    m_open.pictures = fresh_pictures_folder();
    connect(&m_undo, &QUndoStack::cleanChanged, this, [this](bool clean) {
        if (clean) m_open.journal->clear();
    });
    connect(&m_undo, &QUndoStack::cleanChanged, this, &Document::changed);
    connect(&m_watch, &FileWatch::moved, this, &Document::look_at_file);
    connect(&m_weigher, &Weigher::answered, this, [this] {
        work_out(m_open.job);
        show();
    });
    connect(&m_weigher, &Weigher::failed, this, [this](const QString& why) { emit told(why, true); });
}

/// What is unsaved is left for the next run: an end of the history is no wish to drop it.
Document::~Document() { m_undo.disconnect(this); }

Document& JobHeld::document() const {
    if (!still())
        throw InputError("job", "what was begun on a job that is no longer on the bench",
                         "that job, opened again: nothing was changed in this one");
    return *m_document;
}

QString Document::display_name() const {
    if (!job().title.empty()) return QString::fromStdString(job().title);
    return path().isEmpty() ? words("Untitled job") : QFileInfo(path()).fileName();
}

/// Takes it for the job, with what follows from it; the one that was there before. Throws, and all stays as it was.
std::shared_ptr<const Job> Document::work_out(std::shared_ptr<const Job> job) {
    const std::shared_ptr<const Job> before = std::exchange(m_open.job, std::move(job));
    try {
        m_derived = derive(*m_open.job, {m_weigher.answer(), &m_stock, before.get(), &m_derived, m_same_stock});
    } catch (const std::exception& error) {
        // What was derived before is spent: it is made anew from the job that stays.
        m_open.job = before;
        m_selection.follow(m_open.job->train);
        m_derived = derive(*m_open.job, {m_weigher.answer(), &m_stock});
        throw InputError("job", std::string("what cannot be worked out (") + error.what() + ")", "values of ordinary size");
    }
    m_same_stock = true;
    return before;
}

/// Tells everybody of what was worked out.
void Document::show() {
    ++m_revision;
    m_selection.follow(job().train);
    if (m_derived.train.to_weigh) weigh();
    else m_weigher.stop();
    emit changed();
}

void Document::weigh() { m_weigher.start(restore_input(job().train, job().teeth, striking_train(job().strike))); }

/// Before the edit is told: what is seen to be kept is kept.
void Document::keep_journal(const Job& before) {
    Journal& journal = *m_open.journal;
    try {
        if (journal.begun() && m_open.journal_fault.isEmpty() && journal.changes_kept() < journal_lines)
            journal.add(patch_between(Job::record(), &before, &job()));
        else journal.keep(m_open.about(), QString::fromStdString(job_to_text(job())));
        journal_fails({});
    } catch (const std::exception& error) {
        journal_fails(error.what());
    }
}

/// Said for as long as it is so: every edit tries again.
void Document::journal_fails(const QString& why) {
    if (!why.isEmpty()) emit told(words("The journal could not be written: %1").arg(why), true);
    if (m_open.journal_fault == why) return;
    m_open.journal_fault = why;
    emit standing_changed();
}

QStringList Document::standing() const {
    QStringList list;
    if (!m_open.journal_fault.isEmpty()) list << words("Edits are not safe from a crash, save often. %1").arg(m_open.journal_fault);
    if (!read_only().isEmpty()) list << read_only();
    if (!m_on_disk.isEmpty()) list << m_on_disk;
    return list;
}

void Document::put(const std::shared_ptr<const Job>& job) {
    const std::shared_ptr<const Job> before = work_out(job);
    keep_journal(*before);
    show();
}

void Document::use_stock(const Stock& stock) {
    m_stock = stock;
    m_same_stock = false;
    work_out(m_open.job);
    show();
}

void Document::edit(const QString& name, const std::function<void(Job&)>& change, const std::function<void(bool)>& beside, int session) {
    auto after = std::make_shared<Job>(job());
    change(*after);
    if (*after == job()) return;
    if (!read_only().isEmpty()) throw InputError("job", "an edit, and it is open for reading only", "a copy: Ctrl+Shift+S saves one");
    // A session is one line of the diary, and no line where it leads back to its beginning.
    const EditCommand* last = last_of(m_undo, session);
    if (last) after->bench.diary = last->before()->bench.diary;
    const bool led_back = last && *after == *last->before();
    if (!led_back) write_diary(after->bench.diary, now_in_words(), name.toStdString());
    const std::shared_ptr<const Job> before = m_open.job;
    put(led_back ? last->before() : after);
    try {
        if (beside) beside(true);
    } catch (...) {
        put(before);
        throw;
    }
    m_undo.push(new EditCommand(*this, name, before, m_open.job, beside, session));
}

/// Another job on the bench. Throws what its derivation throws; then the one that lies there stays.
void Document::lay(OpenJob next) {
    m_weigher.stop();
    m_weigher.forget();
    m_derived = derive(*next.job, {nullptr, &m_stock});
    // The lock of a file that is opened again goes over to what was read of it now.
    if (next.path.isEmpty()) next.lock.let_go();
    else if (m_open.lock.held() && canonical(next.path) == canonical(m_open.path)) next.lock = std::move(m_open.lock);
    else if (!next.lock.take(next.path)) {
        next.lock.let_go();
        next.read_only = words(
                             "Open for reading only: %1 has this file. Ctrl+Shift+S saves a copy; opened again once that is closed it can "
                             "be changed.")
                             .arg(JobLock::holder(next.path));
    }
    {
        const OpenJob before = std::exchange(m_open, std::move(next));
        before.journal->clear();
    }
    ++m_generation;
    ++m_revision;
    m_same_stock = true;
    m_on_disk.clear();
    m_watch.follow(path());
    m_selection.begin(job().train);
    m_undo.clear();
    emit opened();
    show();
    emit m_selection.changed();
    emit standing_changed();
    if (!read_only().isEmpty()) emit told(read_only(), true);
    else if (!m_open.first_fault.isEmpty())
        emit told(words("This file is damaged; what could be read is open as a copy. First fault: %1").arg(m_open.first_fault), true);
}

void Document::open(const QString& path) {
    const std::string text = read_text(path.toStdString());
    lay(OpenJob::of_file(path, job_from_text(text), {true, QFileInfo(path).lastModified().toSecsSinceEpoch(), content_hash(text)}));
}

void Document::begin(const Job& job) {
    lay(OpenJob::nameless());
    edit(words("Begin"), [&](Job& on_the_bench) { on_the_bench = job; });
    m_selection.begin(this->job().train);
    emit m_selection.changed();
}

void Document::open_demo(const QString& name) { lay(OpenJob::of_demo(name)); }

/// The file is looked at when something happened to it, and what is seen is said while it stands.
void Document::look_at_file() {
    if (path().isEmpty()) return;
    const FileStamp now = stamp_of(path().toStdString());
    QString seen;
    if (!now.there) seen = words("The file is no longer there. Saving writes it again.");
    else if (!now.same_content(m_open.stamp))
        seen = words("The file was changed by another program at %1. Saving asks before it replaces it.")
                   .arg(clock_of(QDateTime::fromSecsSinceEpoch(now.modified_s)));
    else if (QFile::permissions(path()).testAnyFlags(QFile::WriteOwner | QFile::WriteGroup | QFile::WriteOther) == false)
        seen = words("The file is write-protected. Save this job elsewhere, or allow it to be written.");
    if (std::exchange(m_on_disk, seen) == seen) return;
    emit standing_changed();
    if (!seen.isEmpty()) emit told(seen, true);
}

FileChanged::FileChanged(const QString& path, const FileStamp& opened, const FileStamp& now)
    : InputError("file", "\"" + path.toStdString() + "\", which is not the one that was opened", "another name, or leave to replace it") {
    const auto date = [](const FileStamp& stamp) {
        return QDateTime::fromSecsSinceEpoch(stamp.modified_s).toString("yyyy-MM-dd HH:mm:ss");
    };
    const QString was = opened.there ? words("Opened here as it was written on %1.").arg(date(opened))
                                     : words("There was no such file when this job was opened.");
    sentence = was + "\n" +
               (now.there ? words("The file there now was written on %1: saving would replace it.").arg(date(now))
                          : words("The file is no longer there."));
}

QStringList Document::save_as(const QString& path, bool replace) {
    if (job().schema > newest_schema) throw InputError("file", "a job from a newer Echappe", "a job this version can write");
    const bool same_file = !m_open.path.isEmpty() && canonical(path) == canonical(m_open.path);
    if (same_file && !read_only().isEmpty())
        throw InputError("file", "\"" + path.toStdString() + "\", which is open here for reading only", "another name");
    if (const FileStamp now = stamp_of(path.toStdString()); same_file && !replace && !now.same_content(m_open.stamp))
        throw FileChanged(path, m_open.stamp, now);
    JobLock lock;
    if (!same_file && !lock.take(path))
        throw InputError("file", "\"" + path.toStdString() + "\", which " + JobLock::holder(path).toStdString() + " has open",
                         "another name");
    const std::string text = job_to_text(job());
    const QFileInfo file(path);
    const QString pictures = file.absolutePath() + "/" + QString::fromStdString(pictures_beside(file.fileName().toStdString()));
    const QStringList missing = copy_pictures(job(), m_open.pictures, pictures);
    save_text(path.toStdString(), text);
    if (!same_file) m_open.lock = std::move(lock);
    m_open.path = path;
    m_open.pictures = pictures;
    m_open.read_only.clear();
    m_open.first_fault.clear();
    m_open.stamp = {true, file.lastModified().toSecsSinceEpoch(), content_hash(text)};
    m_on_disk.clear();
    m_watch.follow(path);
    m_undo.setClean();
    m_open.journal->clear();
    journal_fails({});
    emit standing_changed();
    emit changed();
    return missing;
}

namespace {

/// What is to be put back, and how it lies beside its file.
struct PutBack {
    OpenJob open;
    bool file_went_on = false;
    bool as_copy = false;
};

PutBack put_back(const Journal::Entry& entry, const QString& open_here) {
    const QString path = entry.about.job_path;
    const FileStamp now = path.isEmpty() ? FileStamp() : stamp_of(path.toStdString());
    LoadedJob before;
    try {
        if (now.there) before.job = load_job(path.toStdString()).job;
    } catch (const InputError&) {
        // What cannot be read has gone on, too: below.
    }
    PutBack back;
    // The file may have gone on without these edits, or belong to another window: then they must not be saved over it.
    back.file_went_on = now.there && !now.same_content(entry.about.base);
    back.as_copy = back.file_went_on || (!path.isEmpty() && open_here != path && !JobLock().take(path));
    if (path.isEmpty() || back.as_copy) back.open = OpenJob::nameless(before.job);
    else back.open = OpenJob::of_file(path, before, entry.about.base);
    // Where its pictures lie was noted; journals of earlier versions did not.
    if (!entry.about.pictures.isEmpty()) back.open.pictures = entry.about.pictures;
    else if (path.isEmpty()) back.open.pictures = state_folder() + "/pictures";
    else back.open.pictures = QString::fromStdString(pictures_folder_of(path.toStdString()).string());
    if (!entry.about.demo.isEmpty()) back.open.take_instruments(entry.about.demo);
    return back;
}

}  // namespace

void Document::recover(const Journal::Entry& entry) {
    const Journal::Claim claim(entry);
    if (!claim.held()) throw InputError("journal", "work that another window has taken up meanwhile", "another from the list");
    if (entry.job_text.isEmpty())
        throw InputError("journal", "nothing that can be read", "a look at \"" + entry.file.toStdString() + "\", or throwing it away");
    const LoadedJob kept = job_from_text(entry.job_text.toStdString());
    PutBack back = put_back(entry, read_only().isEmpty() ? canonical(path()) : QString());
    lay(std::move(back.open));
    edit(words("Put back after a crash"), [&](Job& job) { job = kept.job; });
    m_selection.begin(job().train);
    emit m_selection.changed();
    if (!m_open.journal_fault.isEmpty())
        throw InputError("journal", m_open.journal_fault.toStdString(), "room for it; what was left stays where it lies");
    Journal::discard(entry);
    const QString when = entry.last.toString("yyyy-MM-dd HH:mm");
    emit told(back.as_copy
                  ? words("The edits of %1 are back as a job without a name: %2.")
                        .arg(when, back.file_went_on ? words("the file was saved after them") : words("another window has the file"))
                  : words("The edits of %1 are back. Save to keep them, undo to drop them.").arg(when),
              back.as_copy);
}

void Document::judge(const std::string& finding, const QString& verdict, const QString& reason) {
    edit(judge_finding({finding, verdict.toStdString(), reason.toStdString(), today()}));
}

}  // namespace echappe
