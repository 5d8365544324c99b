#include "document/document.h"

#include <QDate>
#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QImageReader>
#include <QRegularExpression>
#include <QUuid>
#include <algorithm>

#include "document/folders.h"
#include "drawing/words.h"
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
                std::function<void(bool)> beside)
        : QUndoCommand(name), m_document(document), m_before(std::move(before)), m_after(std::move(after)), m_beside(std::move(beside)) {}
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
            emit m_document.told(QString::fromUtf8(error.what()), true);
        }
    }
    Document& m_document;
    std::shared_ptr<const Job> m_before;
    std::shared_ptr<const Job> m_after;
    std::function<void(bool)> m_beside;
    bool m_done = true;
};

namespace {

constexpr size_t journal_lines = 400;  ///< then the job is kept whole again

QString canonical(const QString& path) { return path.isEmpty() ? path : QString::fromStdString(behind_links(path.toStdString()).string()); }

QString pictures_beside(const QString& path) {
    const QFileInfo file(path);
    return file.absolutePath() + "/" + file.fileName().section('.', 0, 0) + ".pictures";
}

std::string today() { return QDate::currentDate().toString(Qt::ISODate).toStdString(); }

std::string fresh_id() { return QUuid::createUuid().toString(QUuid::Id128).left(8).toStdString(); }

QString resource_text(const QString& path) {
    QFile file(path);
    return file.open(QIODevice::ReadOnly) ? QString::fromUtf8(file.readAll()) : QString();
}

constexpr double doubted_trust = 0.5;  ///< of a count followed by a question mark

struct TypedCount {
    Count count;
    std::optional<double> trust;
};

/// Turns "12", "?", "12?" or "12 80%" into a count and how far it is trusted.
TypedCount read_count(const QString& text, const std::string& part) {
    const bool wheel = !part.ends_with(".pinion");
    const QString word = QString::fromStdString(as_typed(text.toStdString()));
    if (word == "?") return {Count::lost(), {}};
    static const QRegularExpression form("^(\\d{1,4})\\s*(\\?|(\\d{1,2})\\s*%)?$");
    const QRegularExpressionMatch match = form.match(word);
    const long long value = read_whole(match.captured(1).toStdString()).value_or(0);
    const double percent = read_number(match.captured(3).toStdString()).value_or(0);
    const bool trust_wrong = !match.captured(3).isEmpty() && percent < 1;
    if (!match.hasMatch() || trust_wrong || value < 4 || value > (wheel ? 1000 : 200))
        throw InputError(part, in_quotes(word.toStdString()),
                         std::string(wheel ? "4 to 1000" : "4 to 200") +
                             ", ? when it is lost, 96? when it is doubted, 96 80% when it is trusted that far");
    if (match.captured(2).isEmpty()) return {value, {}};
    return {value, match.captured(3).isEmpty() ? doubted_trust : percent / 100};
}

}  // namespace

Document::Document(QObject* parent) : QObject(parent), m_job(std::make_shared<Job>()) {
    connect(&m_undo, &QUndoStack::cleanChanged, this, [this](bool clean) {
        if (clean) m_journal.clear();
    });
    connect(&m_undo, &QUndoStack::cleanChanged, this, &Document::changed);
}

QString Document::display_name() const {
    if (!m_job->title.empty()) return QString::fromStdString(m_job->title);
    return m_path.isEmpty() ? tr("Untitled job") : QFileInfo(m_path).fileName();
}

void Document::show(std::shared_ptr<const Job> job) {
    const std::shared_ptr<const Job> before = std::exchange(m_job, std::move(job));
    try {
        m_derived = derive(*m_job, {m_weighed ? &*m_weighed : nullptr, &m_stock, before.get(), &m_derived, m_same_stock});
    } catch (const std::exception& error) {
        // What was derived before is spent: it is made anew from the job that stays.
        m_job = before;
        m_derived = derive(*m_job, {m_weighed ? &*m_weighed : nullptr, &m_stock});
        throw InputError("job", std::string("what cannot be worked out (") + error.what() + ")", "values of ordinary size");
    }
    m_same_stock = true;
    ++m_revision;
    if (!m_job->train.arbor(m_subject)) m_subject = m_job->train.arbors.empty() ? "" : m_job->train.arbors.front().train.id;
    if (m_derived.train.to_weigh) weigh();
    else stop_weighing();
    emit changed();
}

void Document::stop_weighing() {
    if (!m_weigher.joinable()) return;
    m_weigher.request_stop();
    m_weigher.join();
    m_weigher = {};
    ++m_weighing_run;  // what it still had to report is of no interest
    emit weighing_moved();
}

void Document::weigh() {
    stop_weighing();
    m_weighing_done = 0;
    const std::uint64_t run = ++m_weighing_run;
    m_weigher = std::jthread([this, run, input = restore_input(m_job->train, m_job->teeth)](const std::stop_token& stop) {
        const auto report = [this, run](double done) {
            QMetaObject::invokeMethod(this, [this, run, done] {
                if (run != m_weighing_run || done < m_weighing_done + 0.004) return;
                m_weighing_done = done;
                emit weighing_moved();
            });
        };
        try {
            const WeighedTrain answer{question_of(input), restore_train(input, {stop, report})};
            if (!answer.answer.complete) return;
            QMetaObject::invokeMethod(this, [this, run, answer] { weighed(run, answer); });
        } catch (const std::exception& error) {
            QMetaObject::invokeMethod(this, [this, run, why = QString::fromUtf8(error.what())] {
                if (run != m_weighing_run) return;
                stop_weighing();
                emit told(why, true);
            });
        }
    });
    emit weighing_moved();
}

void Document::weighed(std::uint64_t run, const WeighedTrain& answer) {
    if (run != m_weighing_run) return;
    m_weighed = answer;
    show(m_job);
}

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

void Document::edit(const QString& name, const std::function<void(Job&)>& change, const std::function<void(bool)>& beside) {
    auto after = std::make_shared<Job>(*m_job);
    change(*after);
    if (*after == *m_job) return;
    if (!m_read_only.isEmpty()) throw InputError("job", "an edit, and it is open for reading only", "a copy: Ctrl+Shift+S saves one");
    const std::shared_ptr<const Job> before = m_job;
    put(after);
    try {
        if (beside) beside(true);
    } catch (...) {
        put(before);
        throw;
    }
    m_undo.push(new EditCommand(*this, name, before, m_job, beside));
}

void Document::select(const std::string& arbor) {
    if (arbor == m_subject || !m_job->train.arbor(arbor)) return;
    m_subject = arbor;
    follow_subject();
    emit subject_changed();
}

void Document::select_hole(const std::string& arbor, const std::string& plate) {
    if (!m_job->train.arbor(arbor) || (arbor == m_subject && plate == m_plate)) return;
    m_plate = plate;
    m_subject = arbor;
    follow_subject();
    emit subject_changed();
}

const TrainList* Document::train() const {
    return m_job->train.trains.empty() ? nullptr : &m_job->train.trains[std::min(m_train, m_job->train.trains.size() - 1)];
}

/// The ladder stays where it is while the subject is on it, else goes to the first train that has it.
void Document::follow_subject() {
    const auto has = [&](const TrainList& list) {
        return std::find(list.arbors.begin(), list.arbors.end(), m_subject) != list.arbors.end();
    };
    if (const TrainList* shown = train(); !shown || has(*shown)) return;
    const auto at = std::find_if(m_job->train.trains.begin(), m_job->train.trains.end(), has);
    if (at != m_job->train.trains.end()) m_train = static_cast<size_t>(at - m_job->train.trains.begin());
}

void Document::next_train() {
    if (m_job->train.trains.size() < 2) return;
    m_train = (m_train + 1) % m_job->train.trains.size();
    if (train()->arbors.empty()) return;
    m_subject = train()->arbors.back();
    emit subject_changed();
}

void Document::climb(int rungs) {
    if (!train()) return;
    const auto& rungs_of = train()->arbors;
    const auto at = std::find(rungs_of.begin(), rungs_of.end(), m_subject) - rungs_of.begin();
    const auto last = static_cast<std::ptrdiff_t>(rungs_of.size()) - 1;
    select(rungs_of[static_cast<size_t>(std::clamp<std::ptrdiff_t>(at + rungs, 0, last))]);
}

void Document::take(const LoadedJob& loaded, const QString& path, const FileStamp& stamp) {
    m_undo.clear();
    m_journal.clear();
    m_journal_fault.clear();
    m_calliper.reset();
    m_demo.clear();
    m_weighed.reset();
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
    m_subject.clear();
    m_train = 0;
    for (const JobArbor& arbor : loaded.job.train.arbors)
        if (arbor.train.wheel.is == Count::Is::lost || arbor.train.pinion.is == Count::Is::lost) m_subject = arbor.train.id;
    show(std::make_shared<Job>(loaded.job));
    emit subject_changed();
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

void Document::open_demo(const QString& name) {
    const QString text = resource_text(":/demo/" + name + ".echappe.json");
    if (text.isEmpty()) throw InputError("demo", in_quotes(name.toStdString()), "tide-house, saloon or watch");
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
    copy_pictures(pictures_folder(), pictures_beside(path));
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
    m_subject.clear();
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

void Document::store_reading(const Evidence& evidence, const QString& instrument) {
    const QString name = QString::fromStdString(m_job->train.name_of_quantity(evidence.key));
    edit(tr("Reading: %1").arg(name), [&](Job& job) {
        std::erase_if(job.train.measurements, [&](const Measurement& m) { return m.evidence.key == evidence.key; });
        job.train.measurements.push_back({fresh_id(), evidence, instrument.toStdString(), today(), "", false});
    });
}

void Document::remove_reading(const std::string& id) {
    edit(tr("Remove a reading"),
         [&](Job& job) { std::erase_if(job.train.measurements, [&](const Measurement& m) { return m.id == id; }); });
}

void Document::leave_out(const QuantityKey& key, bool out) {
    edit(out ? tr("Leave out a reading") : tr("Believe a reading again"), [&](Job& job) {
        for (Measurement& m : job.train.measurements)
            if (m.evidence.key == key) m.left_out = out;
    });
}

void Document::choose_candidate(size_t index) {
    if (!m_derived.train.restore || index >= m_derived.train.restore->candidates.size()) return;
    const Candidate candidate = m_derived.train.restore->candidates[index];
    edit(tr("Choose %1").arg(QString::fromStdString(counts_in_words(candidate))), [&](Job& job) {
        job.train.choices.clear();
        for (const auto& [part, count] : candidate.counts) job.train.choices.push_back({part, count, candidate.weight, today()});
    });
}

void Document::withdraw_choice() {
    edit(tr("Withdraw the choice"), [](Job& job) { job.train.choices.clear(); });
}

void Document::set_count(const std::string& part, const QString& text) {
    const TypedCount typed = read_count(text, part);
    const std::string arbor = part.substr(0, part.find('.'));
    const bool wheel = part.ends_with(".wheel");
    edit(tr("%1 to %2").arg(QString::fromStdString(part).replace('.', ' '), text.trimmed()), [&](Job& job) {
        for (JobArbor& a : job.train.arbors)
            if (a.train.id == arbor) {
                (wheel ? a.train.wheel : a.train.pinion) = typed.count;
                (wheel ? a.wheel_trust : a.pinion_trust) = typed.trust;
            }
        std::erase_if(job.train.choices, [&](const Choice& choice) { return choice.part == part; });
    });
}

QString Document::count_text(const std::string& part) const {
    const JobArbor* arbor = m_job->train.arbor(part.substr(0, part.find('.')));
    if (!arbor) return {};
    const bool wheel = part.ends_with(".wheel");
    const Count& count = wheel ? arbor->train.wheel : arbor->train.pinion;
    const std::optional<double>& trust = wheel ? arbor->wheel_trust : arbor->pinion_trust;
    if (!count.present()) return {};
    if (!count.known()) return "?";
    const QString number = QString::number(count.value);
    return !trust ? number : *trust == doubted_trust ? number + "?" : number + " " + words(print_short(100 * *trust)) + "%";
}

void Document::set_form(const DerivedMesh& mesh, const FormChoice& form) {
    GeometryInput geometry = mesh.geometry();
    geometry.form = form;
    tooth_geometry(geometry);
    const MeshForm chosen{mesh.wheel_of, mesh.pinion_of, form};
    edit(tr("Teeth of %1: %2").arg(QString::fromStdString(mesh.name()), school_of(form.school).words), [&](Job& job) {
        std::erase_if(job.teeth.forms, [&](const MeshForm& f) { return f.wheel_of == chosen.wheel_of && f.pinion_of == chosen.pinion_of; });
        if (!(form == FormChoice())) job.teeth.forms.push_back(chosen);
    });
}

void Document::set_blank(const std::string& part, const BlankChoice& choice) {
    edit(tr("Blank of %1").arg(QString::fromStdString(part).replace('.', ' ')), [&](Job& job) {
        std::erase_if(job.making.blanks, [&](const PartBlank& blank) { return blank.part == part; });
        if (!(choice == BlankChoice())) job.making.blanks.push_back({part, choice});
    });
}

void Document::judge(const std::string& finding, const QString& verdict, const QString& reason) {
    edit(verdict == "overruled" ? tr("Overrule a finding") : tr("Accept a finding"), [&](Job& job) {
        std::erase_if(job.judgements, [&](const Judgement& j) { return j.finding == finding; });
        if (!verdict.isEmpty()) job.judgements.push_back({finding, verdict.toStdString(), reason.toStdString(), today()});
    });
}

void Document::keep_survey_reading(const SurveyQuestion& question, double value) {
    edit(tr("Reading: %1").arg(QString::fromStdString(name_of(m_job->train, question))),
         [&](Job& job) { echappe::keep_survey_reading(job.survey.pivots, question, value); });
}

void Document::cannot_be_measured(const SurveyQuestion& question) {
    edit(tr("Cannot be measured: %1").arg(QString::fromStdString(name_of(m_job->train, question))),
         [&](Job& job) { echappe::cannot_be_measured(job.survey.pivots, question); });
}

void Document::set_pegged(const std::vector<std::string>& holes, bool pegged) {
    edit(pegged ? tr("Pegged clean") : tr("Not pegged"), [&](Job& job) {
        for (const std::string& hole : holes) echappe::set_pegged(job.survey.pivots, hole, pegged);
    });
}

void Document::peg_plate(const std::string& plate) {
    std::vector<std::string> holes;
    bool all = true;
    for (const DerivedHole& hole : m_derived.pivots.holes) {
        if (hole.plate != plate) continue;
        holes.push_back(hole.id);
        all = all && hole.record.pegged;
    }
    set_pegged(holes, !all);
}

void Document::require_safe() const {
    if (!m_derived.survey.safe)
        throw InputError("safety", "steps that are neither ticked nor overruled",
                         "them first: S ticks the next one, Shift+S overrules it with a reason");
}

void Document::toggle_earlier(const Spot& spot, const EarlierWork& work) {
    require_safe();
    edit(tr("%1, earlier: %2").arg(QString::fromStdString(spot.name), QString::fromStdString(work.words)),
         [&](Job& job) { echappe::toggle_earlier(job.survey, spot.part, work.id, today()); });
}

void Document::set_condition(const Spot& spot, const std::string& verdict) {
    require_safe();
    edit(tr("%1: %2").arg(QString::fromStdString(spot.name), verdict.empty() ? tr("not looked at") : QString::fromStdString(verdict)),
         [&](Job& job) { echappe::set_condition(job.survey, spot.part, verdict, today()); });
}

void Document::decide_hole(const DerivedHole& hole, const std::string& decision, const QString& because) {
    edit(tr("Decide %1").arg(QString::fromStdString(hole.name)),
         [&](Job& job) { decide_by_hand(job.survey.pivots, hole.id, decision, because.toStdString(), today()); });
}

void Document::set_done(const DerivedHole& hole, bool done, const QString& because) {
    edit((done ? tr("Done: %1") : tr("Again: %1")).arg(QString::fromStdString(hole.name)),
         [&](Job& job) { echappe::set_done(job.survey.pivots, hole.id, done, because.toStdString(), today()); });
}

void Document::keep_trial(TrialRecord trial) {
    trial.date = today();
    edit(tr("Trial in the plates"), [&](Job& job) { echappe::keep_trial(job.survey, trial); });
}

void Document::tick_safety(const std::string& step, const QString& because) {
    edit(because.isEmpty() ? tr("Tick a step of safety") : tr("Overrule a step of safety"), [&](Job& job) {
        std::erase_if(job.survey.safety, [&](const SafetyRecord& s) { return s.step == step; });
        job.survey.safety.push_back({step, because.isEmpty(), because.toStdString(), today()});
    });
}

QString Document::pictures_folder() const { return m_path.isEmpty() ? state_folder() + "/pictures" : pictures_beside(m_path); }

QString Document::keep_picture(const QString& path, const QString& name) {
    if (QImageReader(path).size().isEmpty())
        throw InputError("photo", "\"" + path.toStdString() + "\", which is no picture", "a PNG or JPEG file");
    const QString kept =
        QString(name).replace('.', '-') + "-" + QString::fromStdString(fresh_id()) + "." + QFileInfo(path).suffix().toLower();
    QDir().mkpath(pictures_folder());
    save_text((pictures_folder() + "/" + kept).toStdString(), read_text(path.toStdString()));
    return kept;
}

/// A job saved elsewhere takes its pictures along; what lies at the old place stays there.
void Document::copy_pictures(const QString& from, const QString& to) const {
    if (from == to) return;
    for (const ConditionRecord& condition : m_job->survey.conditions) {
        const QString name = QString::fromStdString(condition.photo);
        // One that is gone already is nobody's fault now: the record still names it.
        if (name.isEmpty() || !QFile::exists(from + "/" + name) || QFile::exists(to + "/" + name)) continue;
        QDir().mkpath(to);
        save_text((to + "/" + name).toStdString(), read_text((from + "/" + name).toStdString()));
    }
}

}  // namespace echappe
