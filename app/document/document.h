#pragma once

#include <QObject>
#include <QString>
#include <QUndoStack>
#include <functional>
#include <memory>

#include "document/job_lock.h"
#include "document/journal.h"
#include "document/selection.h"
#include "document/weigher.h"
#include "drawing/words.h"
#include "job/file.h"
#include "number/input_error.h"
#include "simulate/practice.h"
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

    const Job& job() const { return *m_job; }
    const Derived& derived() const { return m_derived; }
    /// Rises with every change of job, derivation or drawers.
    std::uint64_t revision() const { return m_revision; }
    const QString& path() const { return m_path; }
    QString display_name() const;
    /// Why nothing can be changed or saved here, else empty.
    const QString& read_only() const { return m_read_only; }
    /// What stands wrong until it is put right, a sentence each: no journal can be written, open for reading only.
    QStringList standing() const;
    bool dirty() const { return !m_undo.isClean(); }
    QUndoStack* undo_stack() { return &m_undo; }

    Selection& selection() { return m_selection; }
    const Selection& selection() const { return m_selection; }

    /// Makes a new job value under this name. Nothing happens when the value stays the same. `beside` goes along with it,
    /// with true when the edit is done and with false when it is undone: a part that leaves the drawer. Throws InputError where
    /// the job is open for reading only, and what `change` or the derivation throws; the job then stays as it was.
    /// Edits of one `session` that follow each other are one step of undo.
    void edit(const QString& name, const std::function<void(Job&)>& change, const std::function<void(bool)>& beside = {}, int session = -1);

    /// A number for the edits that are to be one step of undo.
    int begin_session() { return ++m_sessions; }
    /// The same, of one topic's part.
    template <class Part>
    void edit(const Edit<Part>& named, const std::function<void(bool)>& beside = {}) {
        edit(
            words(named.name), [&](Job& job) { named.change(job.*member_of<Part>); }, beside);
    }
    void judge(const std::string& finding, const QString& verdict, const QString& reason);

    /// A file that another window has is opened for reading.
    void open(const QString& path);
    void open_demo(const QString& name);
    /// An empty bench; then this movement on it, as an edit: it is not saved yet and lies in the journal.
    void begin(const Job& job);
    /// Throws FileChanged when the file is not the one that was opened, unless told to replace it; InputError when it cannot be
    /// written.
    void save_as(const QString& path, bool replace = false);
    /// Puts back what an earlier run left behind unsaved, over the file as it is: undo drops it. Where the file was saved later, or
    /// another window has it, it comes back as a job without a name. Throws InputError when it cannot be kept here: then it stays
    /// where it lies.
    void recover(const Journal::Entry& entry);
    Journal& journal() { return m_journal; }
    const std::optional<SimulatedCalliper>& calliper() const { return m_calliper; }

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
    void show(std::shared_ptr<const Job> job);
    void take(const LoadedJob& loaded, const QString& path, const FileStamp& stamp);
    void take_instruments(const QString& demo);
    void journal_fails(const QString& why);
    void put(std::shared_ptr<const Job> job);
    void keep_journal(const Job& before);

    std::shared_ptr<const Job> m_job;
    Derived m_derived;
    QString m_path;
    QString m_demo;  ///< the demo it was begun on
    QString m_read_only;
    FileStamp m_stamp;  ///< of the file as it was opened or saved
    JobLock m_lock;
    QString m_journal_fault;
    Selection m_selection;
    std::uint64_t m_revision = 0;
    QUndoStack m_undo;
    int m_sessions = 0;
    Journal m_journal;
    Stock m_stock;
    bool m_same_stock = false;  ///< since the last derivation
    std::optional<SimulatedCalliper> m_calliper;
    Weigher m_weigher;
};

}  // namespace echappe
