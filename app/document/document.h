#pragma once

#include <QObject>
#include <QString>
#include <QUndoStack>
#include <functional>
#include <memory>
#include <thread>

#include "document/job_lock.h"
#include "document/journal.h"
#include "job/file.h"
#include "number/input_error.h"
#include "simulate/practice.h"
#include "stock/stock.h"
#include "survey/round.h"
#include "topic.h"

namespace echappe {

/// The file to be saved over is not the one that was opened.
class FileChanged : public InputError {
public:
    FileChanged(const QString& path, const FileStamp& opened, const FileStamp& now);
    QString sentence;  ///< with both dates
};

/// The one job on the bench: its value, what follows from it, what is selected, and its history.
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

    /// The selected arbor; empty when the job has none.
    const std::string& subject() const { return m_subject; }
    void select(const std::string& arbor);
    /// Which end of the subject is looked at: "front" or "back", and its hole, "centre.front".
    const std::string& plate() const { return m_plate; }
    std::string hole() const { return m_subject + "." + m_plate; }
    void select_hole(const std::string& arbor, const std::string& plate);
    /// The train the ladder shows; nullptr when the job has none.
    const TrainList* train() const;
    /// Shows the job's next train and its top arbor.
    void next_train();
    /// One up or down the ladder.
    void climb(int rungs);

    /// Makes a new job value under this name. Nothing happens when the value stays the same. `beside` goes along with it,
    /// with true when the edit is done and with false when it is undone: a part that leaves the drawer. Throws InputError where
    /// the job is open for reading only, and what `change` or the derivation throws; the job then stays as it was.
    void edit(const QString& name, const std::function<void(Job&)>& change, const std::function<void(bool)>& beside = {});

    /// A file that another window has is opened for reading.
    void open(const QString& path);
    void open_demo(const QString& name);
    /// Throws FileChanged when the file is not the one that was opened, unless told to replace it; InputError when it cannot be
    /// written.
    void save_as(const QString& path, bool replace = false);
    /// Puts back what an earlier run left behind unsaved, over the file as it is: undo drops it. Where the file was saved later, or
    /// another window has it, it comes back as a job without a name. Throws InputError when it cannot be kept here: then it stays
    /// where it lies.
    void recover(const Journal::Entry& entry);
    Journal& journal() { return m_journal; }
    const std::optional<SimulatedCalliper>& calliper() const { return m_calliper; }

    // Edits, each one step of undo.
    void store_reading(const Evidence& evidence, const QString& instrument);
    void remove_reading(const std::string& id);
    void leave_out(const QuantityKey& key, bool out);
    void choose_candidate(size_t index);
    void withdraw_choice();
    /// `part` as in "centre.wheel"; text is a count, "?" when it is lost, "96?" when it is doubted, "96 80%" when it is
    /// trusted that far. Throws InputError.
    void set_count(const std::string& part, const QString& text);
    /// A count of the job as it would be typed: "96", "?", "96 80%"; nothing for a part that is not there.
    QString count_text(const std::string& part) const;
    /// The form of tooth of a mesh. Throws InputError when its sizes cannot be.
    void set_form(const DerivedMesh& mesh, const FormChoice& form);
    void set_blank(const std::string& part, const BlankChoice& choice);
    void judge(const std::string& finding, const QString& verdict, const QString& reason);

    // The survey, each one step of undo.
    void keep_survey_reading(const SurveyQuestion& question, double value);
    void cannot_be_measured(const SurveyQuestion& question);
    void set_pegged(const std::vector<std::string>& holes, bool pegged);
    /// Every hole of a plate; when all were pegged already, none.
    void peg_plate(const std::string& plate);
    void set_condition(const Spot& spot, const std::string& verdict);
    /// Notes what an earlier hand did there, or takes it back.
    void toggle_earlier(const Spot& spot, const EarlierWork& work);
    /// Throws InputError without a reason.
    void decide_hole(const DerivedHole& hole, const std::string& decision, const QString& because);
    void set_done(const DerivedHole& hole, bool done, const QString& because);
    void keep_trial(TrialRecord trial);
    void tick_safety(const std::string& step, const QString& because);
    /// Throws InputError while steps of safety are open.
    void require_safe() const;

    /// Where the job's pictures lie: beside its file, or in the state folder while it has none.
    QString pictures_folder() const;
    /// Copies a picture there under a name of its own and returns it. Throws InputError.
    QString keep_picture(const QString& path, const QString& name);

    /// The workshop's drawers, as the plans of holes need them.
    void use_stock(const Stock& stock);

    // Long work, off the interface thread.
    bool weighing() const { return m_weigher.joinable(); }
    double weighing_done() const { return m_weighing_done; }
    /// Stops it; what is lost stays unweighed until the job changes or it is asked for again.
    void stop_weighing();
    void weigh();

signals:
    void changed();
    void weighing_moved();
    void subject_changed();
    void standing_changed();
    void told(const QString& sentence, bool fault);

private:
    friend class EditCommand;
    void show(std::shared_ptr<const Job> job);
    void take(const LoadedJob& loaded, const QString& path, const FileStamp& stamp);
    void take_instruments(const QString& demo);
    void journal_fails(const QString& why);
    void copy_pictures(const QString& from, const QString& to) const;
    void put(std::shared_ptr<const Job> job);
    void keep_journal(const Job& before);
    void follow_subject();
    void weighed(std::uint64_t run, const WeighedTrain& answer);

    std::shared_ptr<const Job> m_job;
    Derived m_derived;
    QString m_path;
    QString m_demo;  ///< the demo it was begun on
    QString m_read_only;
    FileStamp m_stamp;  ///< of the file as it was opened or saved
    JobLock m_lock;
    QString m_journal_fault;
    std::string m_subject;
    std::string m_plate = "front";
    size_t m_train = 0;
    std::uint64_t m_revision = 0;
    QUndoStack m_undo;
    Journal m_journal;
    Stock m_stock;
    bool m_same_stock = false;  ///< since the last derivation
    std::optional<SimulatedCalliper> m_calliper;
    std::optional<WeighedTrain> m_weighed;
    std::uint64_t m_weighing_run = 0;
    double m_weighing_done = 0;
    std::jthread m_weigher;  ///< last: it must end before what it reports to
};

}  // namespace echappe
