#include "instruments/reading_round.h"

#include <QKeyEvent>
#include <algorithm>

#include "document/bench_hand.h"
#include "document/today.h"
#include "drawing/words.h"
#include "instruments/no_instrument.h"
#include "number/input_error.h"
#include "number/numeral.h"
#include "number/units.h"
#include "survey/edits.h"
#include "train/edits.h"
#include "train/next_measurement.h"
#include "train/reading.h"

namespace echappe {
namespace {

QString length(const Job& job, double mm) { return words(job.length.write(mm, job.length_decimals(), false)); }

QString instrument_for(const SurveyQuestion& question) {
    if (question.field == "tir_mm") return words("dial indicator");
    if (question.field == "hole_max_mm") return question.pivot_mm ? words("indicator on the pivot") : words("graticule");
    return question.field == "hole_min_mm" ? words("pin gauges") : words("calliper");
}

}  // namespace

const Measurable* SolverRound::measurable() const {
    const auto& all = m_document.derived().train.measurables;
    if (m_wanted)
        for (const Measurable& m : all)
            if (m.key == *m_wanted) return &m;
    return all.empty() ? nullptr : &all.front();
}

std::optional<ReadingRound::Asked> SolverRound::asked() const {
    const Measurable* now = measurable();
    if (!now) return {};
    Asked asked{words(now->name), words(now->how), words(typed_as(m_document.job().length, now->key)), {}};
    asked.id = words(name_of(now->key));
    if (now->key.kind == "direction") asked.letters = "rlcRLC";
    const auto& restore = m_document.derived().train.restore;
    if (restore && restore->next_measurement && now->key == restore->next_measurement->key)
        asked.note = words("Measure this next: %1")
                         .arg(words(leaves_in_words(restore->entropy_bits, m_document.derived().train.next_bits.value_or(0))));
    else if (now->taken) asked.note = words("taken already; a new reading replaces it");
    return asked;
}

std::function<void()> SolverRound::hold() {
    const Measurable* now = measurable();
    if (!now) return {};
    m_wanted = now->key;
    return [this, key = now->key] { ask(key); };
}

void SolverRound::step(int by) {
    const auto& all = m_document.derived().train.measurables;
    const Measurable* now = measurable();
    if (!now) return;
    const auto count = static_cast<std::ptrdiff_t>(all.size());
    const std::ptrdiff_t at = (now - all.data() + by + count) % count;
    m_wanted = all[static_cast<size_t>(at)].key;
}

QString SolverRound::keep(const QString& text, bool simulated) {
    const Measurable now = *measurable();
    const Evidence reading = read_evidence(m_document.job().train, m_document.job().length, now.key, text.toStdString());
    m_wanted.reset();
    m_document.edit(
        echappe::store_reading(m_document.job().train, reading, fresh_id(), taken_with(simulated ? "calliper, simulated" : "calliper")));
    const QString kept = reading.value > 0 ? words(print_short(reading.value, 7) + " " + now.key.unit()) : text.trimmed();
    return words("Kept: %1 %2. Undo with Ctrl+Z.").arg(words(now.name), kept);
}

QString SolverRound::simulated() {
    const Measurable* now = measurable();
    if (!now || !m_document.calliper()) throw no_instrument();
    const auto reading = m_document.calliper()->read(now->key, m_turn[now->key]++);
    if (!reading) throw InputError(now->name, "a calliper", "another instrument; Tab picks another reading");
    return length(m_document.job(), *reading);
}

const std::vector<SurveyQuestion>& PlateRound::round() const {
    if (m_round_of != m_document.revision()) {
        m_round = survey_round(m_document.job().survey, m_document.job().train, m_document.job().length, m_document.derived().pivots);
        m_round_of = m_document.revision();
    }
    return m_round;
}

const SurveyQuestion* PlateRound::question() const {
    const auto& all = round();
    if (m_at) {
        const auto at = std::find(all.begin(), all.end(), *m_at);
        if (at != all.end()) return &*at;
    }
    const auto open = std::find_if(all.begin(), all.end(), [](const SurveyQuestion& q) { return !q.taken && !q.cannot; });
    return open != all.end() ? &*open : all.empty() ? nullptr : &all.front();
}

DrawnSizes PlateRound::sizes(const std::vector<std::string>& subjects) const {
    DrawnSizes sizes;
    const Job& job = m_document.job();
    for (const SurveyQuestion& question : round()) {
        if (std::find(subjects.begin(), subjects.end(), question.subject) == subjects.end()) continue;
        const auto take = [this, question](const QString&, const std::string&, const std::string& word) {
            const TrainRecord& movement = m_document.job().train;
            if (word == "n" || word == "N") return m_document.edit(leave_unmeasured(movement, question));
            const double value = read_survey(movement, m_document.job().length, question, word);
            const Taken taken = taken_with(instrument_for(question).toStdString());
            m_document.edit(keep_reading(movement, question, value, taken, way_of_reading(question, word)));
        };
        const QString id = words(question.subject + "." + std::string(question.field));
        sizes.push_back({id, words(std::string(question.words)), line_of(job.survey.pivots, question), take, question.cannot});
    }
    return sizes;
}

void PlateRound::go_to(const std::string& subject) {
    if (m_showing) return;
    const auto& all = round();
    if (const SurveyQuestion* now = question(); now && now->subject == subject) return;
    const SurveyQuestion* first = nullptr;
    for (const SurveyQuestion& q : all) {
        if (q.subject != subject) continue;
        if (!first) first = &q;
        if (q.taken || q.cannot) continue;
        m_at = q;
        return;
    }
    if (first) m_at = *first;
}

std::optional<ReadingRound::Asked> PlateRound::asked() const {
    const SurveyQuestion* now = question();
    if (!now) return {};
    Asked asked{words(name_of(m_document.job().train, *now)), words(std::string(now->how)), words(std::string(now->typed_as)), {}};
    asked.id = words(now->subject + "." + std::string(now->field));
    const HoleRecord* hole = m_document.job().survey.pivots.hole(now->subject);
    const bool of_the_hole = now->field.starts_with("hole_") || now->field.starts_with("wear_");
    if (now->subject.starts_with("plate.") && now->field == "thickness_mm") {
        asked.note = words("P and Enter here marks every hole of this plate as pegged clean");
    } else if (of_the_hole && !(hole && hole->pegged)) {
        asked.note = words("not pegged yet: the reading will be marked doubtful. P and Enter when it is pegged clean, PP this whole plate");
        asked.warns = true;
    } else if (now->expected && !now->taken) {
        const bool behind = now->subject.ends_with(".back");
        const double seen = behind ? seen_from_behind_deg(*now->expected) : *now->expected;
        asked.note = words("the train pushes it %1: Enter alone takes that").arg(words(way_in_words(seen)));
    } else if (now->taken) {
        asked.note = words("taken already; a new reading replaces it");
    } else if (now->cannot) {
        asked.note = words("marked as not to be measured");
    }
    return asked;
}

std::function<void()> PlateRound::hold() {
    const SurveyQuestion* now = question();
    if (!now) return {};
    m_at = *now;
    return [this, at = *now] {
        m_at = at;
        show_subject();
    };
}

void PlateRound::show_subject() {
    const SurveyQuestion* now = question();
    if (!now) return;
    m_showing = true;
    if (now->subject.ends_with(".front") || now->subject.ends_with(".back"))
        m_document.selection().select_hole(now->arbor, now->subject.substr(now->subject.rfind('.') + 1));
    else if (!now->arbor.empty()) m_document.selection().select(now->arbor);
    m_showing = false;
}

void PlateRound::step(int by) {
    const auto& all = round();
    const SurveyQuestion* now = question();
    if (!now) return;
    const auto count = static_cast<std::ptrdiff_t>(all.size());
    m_at = all[static_cast<size_t>((now - all.data() + by + count) % count)];
    show_subject();
}

/// To the next reading that is open, from here on and then from the start; where none is, simply to the next.
void PlateRound::go_on() {
    const auto& all = round();
    const SurveyQuestion* now = question();
    if (!now) return;
    const auto from = static_cast<size_t>(now - all.data());
    for (size_t i = 1; i <= all.size(); ++i) {
        const SurveyQuestion& next = all[(from + i) % all.size()];
        if (next.taken || next.cannot) continue;
        m_at = next;
        return show_subject();
    }
    step(1);
}

/// A word instead of a reading: it cannot be taken, the hole is pegged, the whole plate is. What was done, or nothing for another
/// word.
QString PlateRound::keep_word(const QString& word, const SurveyQuestion& now) {
    const QString name = words(name_of(m_document.job().train, now));
    if (word == "n") {
        m_at = now;
        m_document.edit(leave_unmeasured(m_document.job().train, now));
        go_on();
        return words("Cannot be measured: %1. Undo with Ctrl+Z.").arg(name);
    }
    const bool at_a_plate = now.subject.find('.') != std::string::npos;
    if ((word != "p" && word != "pp") || !at_a_plate) return {};
    m_at = now;
    const HoleRecord* hole = m_document.job().survey.pivots.hole(now.subject);
    const QString plate = words(now.subject.substr(now.subject.rfind('.') + 1));
    // At the head of a plate's round the whole plate was pegged.
    if (word == "pp" || now.subject.starts_with("plate.")) {
        m_document.edit(peg_plate(m_document.derived().pivots, plate.toStdString()));
        return words("The whole %1 plate: pegged clean, or not where all were. Undo with Ctrl+Z.").arg(plate);
    }
    const bool pegged = !(hole && hole->pegged);
    m_document.edit(peg_hole(now.subject, pegged));
    return (pegged ? words("Pegged clean: %1. Undo with Ctrl+Z.") : words("Not pegged: %1. Undo with Ctrl+Z."))
        .arg(name.section(QString::fromUtf8(" · "), 0, 0));
}

QString PlateRound::keep(const QString& text, bool simulated) {
    const SurveyQuestion now = *question();
    const QString word = words(as_typed(text.toStdString())).toLower();
    if (const QString done = keep_word(word, now); !done.isEmpty()) return done;
    if (word.isEmpty() && !now.expected)
        throw InputError(name_of(m_document.job().train, now), "nothing",
                         "the reading; N and Enter when it cannot be measured, Tab to pass on");
    const double value = read_survey(m_document.job().train, m_document.job().length, now, text.toStdString());
    m_at = now;
    const QString with = instrument() + (simulated ? words(", simulated") : QString());
    m_document.edit(
        keep_reading(m_document.job().train, now, value, taken_with(with.toStdString()), way_of_reading(now, text.toStdString())));
    m_kept.push_back(now);
    const bool way = now.field == "wear_direction_deg";
    const QString kept = way ? words(way_in_words(now.subject.ends_with(".back") ? seen_from_behind_deg(value) : value))
                             : length(m_document.job(), value) + " " + words(m_document.job().length.symbol);
    go_on();
    return words("Kept: %1 %2. Undo with Ctrl+Z.").arg(words(name_of(m_document.job().train, now)), kept);
}

bool PlateRound::takes_nothing() const {
    const SurveyQuestion* now = question();
    return now && now->expected;
}

QString PlateRound::simulated() {
    const SurveyQuestion* now = question();
    if (!now || !m_document.calliper()) throw no_instrument();
    const HoleRecord* hole = m_document.job().survey.pivots.hole(now->subject);
    const auto reading = m_document.calliper()->read(*now, hole && hole->pegged, m_turn[now->subject + std::string(now->field)]++);
    if (!reading) throw InputError(name_of(m_document.job().train, *now), "nothing there to measure", "N and Enter: cannot be measured");
    // The indicator on the pivot reads its sway; without a pivot the graticule reads straight across.
    if (now->field == "hole_max_mm" && now->pivot_mm)
        return words("sway %1").arg(length(m_document.job(), std::max(0.0, *reading - *now->pivot_mm)));
    if (now->field != "wear_direction_deg") return length(m_document.job(), *reading);
    return words(print_short(now->subject.ends_with(".back") ? seen_from_behind_deg(*reading) : *reading));
}

QString PlateRound::instrument() const {
    const SurveyQuestion* now = question();
    return now ? instrument_for(*now) : words("calliper");
}

bool PlateRound::follow_job() {
    const size_t before = m_kept.size();
    for (; !m_kept.empty(); m_kept.pop_back()) {
        const auto& all = round();
        const auto at = std::find(all.begin(), all.end(), m_kept.back());
        if (at == all.end()) continue;
        if (at->taken) break;
        m_at = *at;
    }
    return m_kept.size() < before;
}

void PlateRound::follow_subject() { go_to(m_document.selection().hole()); }

bool PlateRound::key_on_empty_line(int key) {
    if (key != Qt::Key_Left || !question()) return false;
    step(-1);
    return true;
}

}  // namespace echappe
