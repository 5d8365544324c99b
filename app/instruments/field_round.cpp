#include "instruments/field_round.h"

#include "drawing/words.h"
#include "number/input_error.h"
#include "number/units.h"
#include "strike/sheets.h"
#include "workings/sum.h"

namespace echappe {
namespace {

/// A part of the job that may be missing: typed into, it begins.
template <class R>
FieldRound::Part part_of(const char* id, std::optional<R> Job::*member) {
    return {
        id, R::record(), [member](const Job& job) { return job.*member ? static_cast<const void*>(&*(job.*member)) : nullptr; },
        [](Document& document, const QString& name, const std::string& field, const std::string& word) {
            document.edit(Edit<std::optional<R>>{name.toStdString(), [&](std::optional<R>& part) { type_into_part(part, field, word); }});
        }};
}

}  // namespace

bool FieldRound::taken(size_t which) const {
    const void* now = m_part.now(m_document.job());
    return now && !lines_of(m_part.record, now, {m_readings[which].field}).front().text.empty();
}

size_t FieldRound::at() const {
    if (m_at) return *m_at;
    for (size_t i = 0; i < m_readings.size(); ++i)
        if (!taken(i)) return i;
    return 0;
}

std::optional<ReadingRound::Asked> FieldRound::asked() const {
    const void* now = m_part.now(m_document.job());
    if (!now) return {};
    const Reading& reading = m_readings[at()];
    const SumLine line = lines_of(m_part.record, now, {reading.field}).front();
    Asked asked;
    asked.name = reading.name;
    asked.id = words(m_part.id + "." + reading.field);
    asked.typed_as = words(line.unit);
    asked.how = reading.how;
    asked.whole = reading.whole;
    if (!line.text.empty()) asked.note = words("taken already, %1; a new reading replaces it").arg(words(line.text));
    return asked;
}

void FieldRound::go_to(const std::string& field) {
    for (size_t i = 0; i < m_readings.size(); ++i)
        if (m_readings[i].field == field) m_at = i;
}

std::function<void()> FieldRound::hold() {
    if (!asked()) return {};
    m_at = at();
    return [this, at = m_at] { m_at = at; };
}

void FieldRound::step(int by) {
    const auto count = static_cast<std::ptrdiff_t>(m_readings.size());
    m_at = static_cast<size_t>((static_cast<std::ptrdiff_t>(at()) + by + count) % count);
}

QString FieldRound::keep(const QString& text, bool) {
    const Reading reading = m_readings[at()];
    m_part.take(m_document, words("Reading: %1").arg(reading.name), reading.field, text.trimmed().toStdString());
    m_at.reset();
    return words("Kept: %1, %2. Undo with Ctrl+Z.").arg(reading.name, text.trimmed());
}

QString FieldRound::simulated() {
    const std::string of = m_part.id + "." + m_readings[at()].field;
    if (!m_document.calliper() || !m_document.calliper()->figure(of, 0))
        throw InputError("instrument", "none here", "the demo's, or your own: type the reading");
    constexpr int figures = 4;
    return words(print_short(*m_document.calliper()->figure(of, m_turn[of]++), figures));
}

FieldRound hands_round(Document& document) {
    return {document,
            part_of("hands", &Job::hands),
            words("thread and weight"),
            words("reads the hidden movement, ±0.1 g"),
            {{"slips_at_g", words("weight at the minute hand's tip, just slipping"),
              words("Set the minute hand level, hang a thread on its tip and add weight until it just goes down. The clock stands still "
                    "meanwhile.")},
             {"hand_g", words("the minute hand, weighed"), words("Take it off and weigh it.")},
             {"hand_length_mm", words("minute hand, hole to tip"), words("From the middle of its hole to where the thread hung.")},
             {"hand_centre_mm", words("minute hand, hole to where it balances"),
              words("Lay it across an edge until it balances, and measure from the middle of its hole.")},
             {"cannon_mm", words("cannon, outside"), words("Jaws where the hour pipe runs.")},
             {"hour_bore_mm", words("hour pipe, bore"), words("Pin gauges, the largest that goes through.")},
             {"hour_height_mm", words("hour hand over the dial"), words("Depth gauge from the dial to the hand's under side.")},
             {"minute_height_mm", words("minute hand over the dial"), words("Depth gauge from the dial to the hand's under side.")},
             {"glass_height_mm", words("glass over the dial"), words("A strip of card bent up between them, with the door shut.")}}};
}

FieldRound together_round(Document& document) {
    return {document,
            part_of("strike", &Job::strike),
            words("angle, by eye"),
            words("of the hidden movement, ±1°"),
            {{"hammer_falls_in_deg", words("pin wheel, locked to the hammer's next fall"),
              words("Let it lock, then turn the pin wheel on by hand until the hammer falls; count the angle by its teeth.")},
             {"warning_run_deg", words("warning wheel, locked to its piece"),
              words("Let it lock, lift to the warning and see how far the warning wheel runs until its pin is caught.")}}};
}

FieldRound alarm_round(Document& document) {
    return {document,
            part_of("alarm", &Job::alarm),
            words("calliper and gauge"),
            words("of the hidden movement, ±0.02 mm"),
            {{"radius_mm", words("alarm's cam, radius of its high part"), words("Across the cam and its bore, less half of the bore.")},
             {"drop_mm", words("alarm's cam, depth of its drop"), words("Depth gauge from the corner to the foot.")},
             {"force_N", words("follower on the cam"), words("A thread and weights on the follower's end until it just lifts.")},
             {"holds_N_mm", words("friction by which the cam is set"),
              words("A thread round the setting's pipe or on its hand: weight times radius at which it just turns.")}}};
}

FieldRound wood_round(Document& document) {
    return {document,
            part_of("wood", &Job::wood),
            words("moisture meter"),
            words("of the hidden movement, ±0.3 %"),
            {{"now_moisture", words("moisture of the wood"),
              words("Both pins across the grain, at three places out of the sun; a meter is set for its kind of wood.")},
             {"now_humidity", words("humidity of the room"), words("Where the clock hangs, after an hour.")},
             {"now_celsius", words("warmth of the room"), words("Where the clock hangs.")}}};
}

}  // namespace echappe
