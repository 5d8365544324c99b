#include "document/document.h"

#include <QDateTime>
#include <QFile>
#include <QFileInfo>
#include <algorithm>

#include "document/folders.h"
#include "document/pictures.h"
#include "document/today.h"
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

QString resource_text(const QString& path) {
    QFile file(path);
    return file.open(QIODevice::ReadOnly) ? QString::fromUtf8(file.readAll()) : QString();
}

}  // namespace

Document::Document(QObject* parent) : QObject(parent), m_job(std::make_shared<Job>()) {
    connect(&m_undo, &QUndoStack::cleanChanged, this, [this](bool clean) {
        if (clean) m_journal.clear();
    });
    connect(&m_undo, &QUndoStack::cleanChanged, this, &Document::changed);
    connect(&m_weigher, &Weigher::answered, this, [this] { show(m_job); });
    connect(&m_weigher, &Weigher::failed, this, [this](const QString& why) { emit told(why, true); });
}

QString Document::display_name() const {
    if (!m_job->title.empty()) return QString::fromStdString(m_job->title);
    return m_path.isEmpty() ? tr("Untitled job") : QFileInfo(m_path).fileName();
}

void Document::show(std::shared_ptr<const Job> job) {
    const std::shared_ptr<const Job> before = std::exchange(m_job, std::move(job));
    try {
        m_derived = derive(*m_job, {m_weigher.answer(), &m_stock, before.get(), &m_derived, m_same_stock});
    } catch (const std::exception& error) {
        // What was derived before is spent: it is made anew from the job that stays.
        m_job = before;
        m_selection.follow(m_job->train);
        m_derived = derive(*m_job, {m_weigher.answer(), &m_stock});
        throw InputError("job", std::string("what cannot be worked out (") + error.what() + ")", "values of ordinary size");
    }
    m_same_stock = true;
    ++m_revision;
    m_selection.follow(m_job->train);
    if (m_derived.train.to_weigh) weigh();
    else m_weigher.stop();
    emit changed();
}

void Document::weigh() { m_weigher.start(restore_input(m_job->train, m_job->teeth, striking_train(m_job->strike))); }

/// Before the edit is told: what is seen to be kept is kept.
void Document::keep_journal(const Job& before) {
    try {
        if (m_journal.begun() && m_journal_fault.isEmpty() && m_journal.changes_kept() < journal_lines)
            m_journal.add(changes_between(Job::record(), &before, m_job.get()));
        else m_journal.keep({canonical(m_path), m_demo, m_stamp}, QString::fromStdString(job_to_text(*m_job)));
        journal_fails({});
    } catch (const std::exception& error) {
        journal_fails(error.what());
    }
}

/// Said for as long as it is so: every edit tries again.
void Document::journal_fails(const QString& why) {
    if (!why.isEmpty()) emit told(tr("The journal could not be written: %1").arg(why), true);
    if (m_journal_fault == why) return;
    m_journal_fault = why;
    emit standing_changed();
}

QStringList Document::standing() const {
    QStringList list;
    if (!m_journal_fault.isEmpty()) list << tr("Edits are not safe from a crash, save often. %1").arg(m_journal_fault);
    if (!m_read_only.isEmpty()) list << m_read_only;
    return list;
}

void Document::put(std::shared_ptr<const Job> job) {
    const std::shared_ptr<const Job> before = m_job;
    show(std::move(job));
    keep_journal(*before);
}

void Document::use_stock(const Stock& stock) {
    m_stock = stock;
    m_same_stock = false;
    show(m_job);
}

void Document::edit(const QString& name, const std::function<void(Job&)>& change, const std::function<void(bool)>& beside, int session) {
    auto after = std::make_shared<Job>(*m_job);
    change(*after);
    if (*after == *m_job) return;
    write_diary(after->bench.diary, now_in_words(), name.toStdString());
    if (!m_read_only.isEmpty()) throw InputError("job", "an edit, and it is open for reading only", "a copy: Ctrl+Shift+S saves one");
    const std::shared_ptr<const Job> before = m_job;
    put(after);
    try {
        if (beside) beside(true);
    } catch (...) {
        put(before);
        throw;
    }
    m_undo.push(new EditCommand(*this, name, before, m_job, beside, session));
}

void Document::take(const LoadedJob& loaded, const QString& path, const FileStamp& stamp) {
    m_undo.clear();
    m_journal.clear();
    m_journal_fault.clear();
    m_calliper.reset();
    m_demo.clear();
    m_weigher.forget();
    // A damaged file is opened as a copy without a name: saving can never overwrite what is left of it.
    m_path = loaded.damaged ? QString() : path;
    m_stamp = m_path.isEmpty() ? FileStamp() : stamp;
    m_read_only = loaded.newer ? tr("A newer Echappe wrote this file: it is open for reading only.") : QString();
    if (m_path.isEmpty()) m_lock.let_go();
    else if (!m_lock.take(m_path)) {
        m_lock.let_go();
        m_read_only = tr("Open for reading only: %1 has this file. Ctrl+Shift+S saves a copy; opened again once that is closed it can be "
                         "changed.")
                          .arg(JobLock::holder(m_path));
    }
    const auto job = std::make_shared<Job>(loaded.job);
    m_selection.begin(job->train);
    emit opened();
    show(job);
    emit m_selection.changed();
    emit standing_changed();
    if (!m_read_only.isEmpty()) emit told(m_read_only, true);
    else if (loaded.damaged)
        emit told(tr("This file is damaged; what could be read is open as a copy. First fault: %1").arg(loaded.faults.front().what()),
                  true);
}

void Document::open(const QString& path) {
    const std::string text = read_text(path.toStdString());
    take(job_from_text(text), path, {true, QFileInfo(path).lastModified().toSecsSinceEpoch(), content_hash(text)});
}

void Document::begin(const Job& job) {
    take({}, {}, {});
    edit(tr("Begin"), [&](Job& on_the_bench) { on_the_bench = job; });
    m_selection.begin(m_job->train);
    emit m_selection.changed();
}

void Document::open_demo(const QString& name) {
    const QString text = resource_text(":/demo/" + name + ".echappe.json");
    if (text.isEmpty()) throw InputError("demo", in_quotes(name.toStdString()), "tide-house, waiting-room, watch or granary");
    take(job_from_text(text.toStdString()), {}, {});
    take_instruments(name);
}

/// The instruments that read a demo's hidden movement.
void Document::take_instruments(const QString& demo) {
    const QString practice = resource_text(":/demo/" + demo + ".practice.json");
    if (practice.isEmpty()) return;
    m_demo = demo;
    m_calliper.emplace(practice_from_text(practice.toStdString()));
    emit changed();
}

FileChanged::FileChanged(const QString& path, const FileStamp& opened, const FileStamp& now)
    : InputError("file", "\"" + path.toStdString() + "\", which is not the one that was opened", "another name, or leave to replace it") {
    const auto date = [](const FileStamp& stamp) {
        return QDateTime::fromSecsSinceEpoch(stamp.modified_s).toString("yyyy-MM-dd HH:mm:ss");
    };
    const QString was = opened.there ? QObject::tr("Opened here as it was written on %1.").arg(date(opened))
                                     : QObject::tr("There was no such file when this job was opened.");
    sentence = was + "\n" +
               (now.there ? QObject::tr("The file there now was written on %1: saving would replace it.").arg(date(now))
                          : QObject::tr("The file is no longer there."));
}

void Document::save_as(const QString& path, bool replace) {
    if (m_job->schema > newest_schema) throw InputError("file", "a job from a newer Echappe", "a job this version can write");
    const bool same_file = !m_path.isEmpty() && canonical(path) == canonical(m_path);
    if (same_file && !m_read_only.isEmpty())
        throw InputError("file", "\"" + path.toStdString() + "\", which is open here for reading only", "another name");
    if (const FileStamp now = stamp_of(path.toStdString()); same_file && !replace && !now.same_content(m_stamp))
        throw FileChanged(path, m_stamp, now);
    JobLock lock;
    if (!same_file && !lock.take(path))
        throw InputError("file", "\"" + path.toStdString() + "\", which " + JobLock::holder(path).toStdString() + " has open",
                         "another name");
    const std::string text = job_to_text(*m_job);
    copy_pictures(*m_job, pictures_folder(m_path), pictures_folder(path));
    save_text(path.toStdString(), text);
    if (!same_file) m_lock = std::move(lock);
    m_path = path;
    m_read_only.clear();
    m_stamp = {true, QFileInfo(path).lastModified().toSecsSinceEpoch(), content_hash(text)};
    m_undo.setClean();
    m_journal.clear();
    journal_fails({});
    emit standing_changed();
    emit changed();
}

void Document::recover(const Journal::Entry& entry) {
    const Journal::Claim claim(entry);
    if (!claim.held()) throw InputError("journal", "work that another window has taken up meanwhile", "another from the list");
    if (entry.job_text.isEmpty())
        throw InputError("journal", "nothing that can be read", "a look at \"" + entry.file.toStdString() + "\", or throwing it away");
    const LoadedJob kept = job_from_text(entry.job_text.toStdString());
    const QString path = entry.about.job_path;
    const FileStamp now = path.isEmpty() ? FileStamp() : stamp_of(path.toStdString());
    LoadedJob before;
    try {
        if (now.there) before.job = load_job(path.toStdString()).job;
    } catch (const InputError&) {
        // What cannot be read has gone on, too: below.
    }
    // The file may have gone on without these edits, or belong to another window: then they must not be saved over it.
    const bool file_went_on = now.there && !now.same_content(entry.about.base);
    const bool ours = canonical(m_path) == path && m_read_only.isEmpty();
    const bool as_copy = file_went_on || (!path.isEmpty() && !ours && !JobLock().take(path));
    take(before, as_copy ? QString() : path, entry.about.base);
    edit(tr("Put back after a crash"), [&](Job& job) { job = kept.job; });
    if (!entry.about.demo.isEmpty()) take_instruments(entry.about.demo);
    m_selection.begin(m_job->train);
    show(m_job);
    if (!m_journal_fault.isEmpty())
        throw InputError("journal", m_journal_fault.toStdString(), "room for it; what was left stays where it lies");
    Journal::discard(entry);
    const QString when = entry.last.toString("yyyy-MM-dd HH:mm");
    emit told(as_copy ? tr("The edits of %1 are back as a job without a name: %2.")
                            .arg(when, file_went_on ? tr("the file was saved after them") : tr("another window has the file"))
                      : tr("The edits of %1 are back. Save to keep them, undo to drop them.").arg(when),
              as_copy);
}

void Document::judge(const std::string& finding, const QString& verdict, const QString& reason) {
    edit(verdict == "overruled" ? tr("Overrule a finding") : tr("Accept a finding"), [&](Job& job) {
        std::erase_if(job.judgements, [&](const Judgement& j) { return j.finding == finding; });
        if (!verdict.isEmpty()) job.judgements.push_back({finding, verdict.toStdString(), reason.toStdString(), today()});
    });
}

}  // namespace echappe
