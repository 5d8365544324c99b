#pragma once

#include <QObject>
#include <QString>
#include <QUndoStack>
#include <functional>
#include <memory>

#include "document/file_watch.h"
#include "document/open_job.h"
#include "document/selection.h"
#include "document/weigher.h"
#include "drawing/words.h"
#include "job/file.h"
#include "number/input_error.h"
#include "stock/stock.h"
#include "topic.h"
#include "workings/edit.h"

namespace echappe {

/// The file to be saved over is not the one that was opened.
class FileChanged : public InputError {
public:
    FileChanged(const QString& path, const FileStamp& opened, const FileStamp& now);
    QString sentence;  ///< with both dates
};

/// The one job on the bench: its value, what follows from it, and its history.
/// Views read and send intent; they never hold a copy.
class Document : public QObject {
    Q_OBJECT
public:
    explicit Document(QObject* parent = nullptr);
    ~Document() override;

    const Job& job() const { return *m_open.job; }
    const Derived& derived() const { return m_derived; }
    /// Rises with every change of job, derivation or drawers.
    std::uint64_t revision() const { return m_revision; }
    /// Rises whenever another job is laid on the bench: what was begun under an earlier number belongs to that job.
    std::uint64_t generation() const { return m_generation; }
    const QString& path() const { return m_open.path; }
    /// The folder in which the job's pictures lie.
    const QString& pictures() const { return m_open.pictures; }
    QString display_name() const;
    /// Why nothing can be changed or saved here, else empty.
    const QString& read_only() const { return m_open.read_only; }
    /// What stands wrong until it is put right, a sentence each: no journal can be written, open for reading only, the file is not
    /// what it was when it was opened.
    QStringList standing() const;
    bool dirty() const { return !m_undo.isClean(); }
    QUndoStack* undo_stack() { return &m_undo; }

    Selection& selection() { return m_selection; }
    const Selection& selection() const { return m_selection; }

    /// Makes a new job value under this name. Nothing happens when the value stays the same. It lies in the journal before anybody
    /// is told of it. `beside` goes along with it, with true when the edit is done and with false when it is undone: a part that
    /// leaves the drawer. Throws InputError where the job is open for reading only, and what `change` or the derivation throws; the
    /// job then stays as it was. Edits of one `session` that follow each other are one step of undo; none is left where they lead
    /// back to where the session began.
    void edit(const QString& name, const std::function<void(Job&)>& change, const std::function<void(bool)>& beside = {}, int session = -1);

    /// A number for the edits that are to be one step of undo.
    int begin_session() { return ++m_sessions; }
    /// The same, of one topic's part.
    template <class Part>
    void edit(const Edit<Part>& named, const std::function<void(bool)>& beside = {}, int session = -1) {
        edit(
            words(named.name), [&](Job& job) { named.change(job.*member_of<Part>); }, beside, session);
    }
    /// The same, of several parts at once.
    void edit(const Edit<Job>& named, const std::function<void(bool)>& beside = {}, int session = -1) {
        edit(words(named.name), named.change, beside, session);
    }
    void judge(const std::string& finding, const QString& verdict, const QString& reason);

    /// A file that another window has is opened for reading.
    void open(const QString& path);
    void open_demo(const QString& name);
    /// An empty bench; then this movement on it, as an edit: it is not saved yet and lies in the journal.
    void begin(const Job& job);
    /// Throws FileChanged when the file is not the one that was opened, unless told to replace it; InputError when it cannot be
    /// written. The pictures go along; those that the job names and that could not be found are returned.
    QStringList save_as(const QString& path, bool replace = false);
    /// Puts back what an earlier run left behind unsaved, over the file as it is: undo drops it. Where the file was saved later, or
    /// another window has it, it comes back as a job without a name. Throws InputError when it cannot be kept here: then it stays
    /// where it lies.
    void recover(const Journal::Entry& entry);
    /// The unsaved edits are not wanted: nothing of them is left behind.
    void drop_edits() { m_open.journal->clear(); }
    const Journal& journal() const { return *m_open.journal; }
    const std::optional<SimulatedCalliper>& calliper() const { return m_open.calliper; }

    /// The workshop's drawers, as the plans of holes need them.
    void use_stock(const Stock& stock);

    Weigher& weigher() { return m_weigher; }
    const Weigher& weigher() const { return m_weigher; }
    /// Weighs what is lost, now.
    void weigh();

signals:
    void changed();
    /// Another job lies there.
    void opened();
    void standing_changed();
    void told(const QString& sentence, bool fault);

private:
    friend class EditCommand;
    std::shared_ptr<const Job> work_out(std::shared_ptr<const Job> job);
    void show();
    void lay(OpenJob next);
    void journal_fails(const QString& why);
    void put(const std::shared_ptr<const Job>& job);
    void keep_journal(const Job& before);
    void look_at_file();

    OpenJob m_open;
    std::uint64_t m_generation = 0;
    Derived m_derived;
    FileWatch m_watch;
    QString m_on_disk;  ///< what was seen of the file that is not as it was opened, else empty
    Selection m_selection;
    std::uint64_t m_revision = 0;
    QUndoStack m_undo;
    int m_sessions = 0;
    Stock m_stock;
    bool m_same_stock = false;  ///< since the last derivation
    Weigher m_weigher;
};

/// The job that lay on the bench when this was made. A sheet, a search, a recording hands its edits over by it: they reach that job
/// and no other.
class JobHeld {
public:
    explicit JobHeld(Document& document) : m_document(&document), m_generation(document.generation()) {}
    bool still() const { return m_document->generation() == m_generation; }
    /// Throws InputError where another job lies there by now: what was found for the one is not written into the other.
    Document& document() const;

private:
    Document* m_document;
    std::uint64_t m_generation;
};

}  // namespace echappe
