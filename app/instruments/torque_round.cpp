#include "instruments/torque_round.h"

#include <QDateTime>
#include <QKeyEvent>
#include <algorithm>

#include "beat/edits.h"
#include "document/today.h"
#include "drawing/words.h"
#include "instruments/no_instrument.h"
#include "number/input_error.h"
#include "number/units.h"
#include "power/edits.h"

namespace echappe {
namespace {}  // namespace

const DriveRecord* TorqueRound::drive() const {
    const TrainList* train = m_document.selection().train();
    for (const DriveRecord& drive : m_document.job().power.drives)
        if (train && drive.train == train->id) return &drive;
    return nullptr;
}

std::vector<TorqueQuestion> TorqueRound::round() const {
    const DriveRecord* now = drive();
    return now ? torque_round(*now, m_document.job().train.winding_turns) : std::vector<TorqueQuestion>();
}

std::optional<TorqueQuestion> TorqueRound::question() const {
    const auto all = round();
    if (m_at)
        if (const auto at = std::find(all.begin(), all.end(), *m_at); at != all.end()) return *at;
    const auto open = std::find_if(all.begin(), all.end(), [](const TorqueQuestion& q) { return !q.taken_N_mm; });
    if (open != all.end()) return *open;
    return all.empty() ? std::nullopt : std::optional(all.front());
}

std::optional<ReadingRound::Asked> TorqueRound::asked() const {
    const auto now = question();
    if (!now) return {};
    Asked asked;
    asked.name = words(name_of(*now));
    asked.id = words(drive()->train + ": " + name_of(*now));
    asked.typed_as = words("N mm");
    asked.how =
        now->least
            ? words("Let the gauge drive the train at the first arbor and take it back until the movement just stops; then a little more.")
            : words(
                  "Gauge on the winding square, click held off by hand for the reading that drives, eyes covered: a gauge that slips "
                  "lets the spring go. Hold it at the turn, read when it stands.");
    if (now->taken_N_mm) asked.note = words("taken already, %1; a new reading replaces it").arg(words(print_short(*now->taken_N_mm, 4)));
    return asked;
}

void TorqueRound::step(int by) {
    const auto all = round();
    const auto now = question();
    if (!now) return;
    const auto at = std::find(all.begin(), all.end(), *now) - all.begin();
    const auto count = static_cast<std::ptrdiff_t>(all.size());
    m_at = all[static_cast<size_t>((at + by + count) % count)];
}

QString TorqueRound::keep(const QString& text, bool) {
    const TorqueQuestion now = *question();
    const double torque = parse_reading(text.toStdString(), base_unit(Dimension::torque), name_of(now)).value;
    const std::string train = drive()->train;
    m_document.edit(torque_read(train, now, torque));
    m_at = now;
    step(1);
    return words("Kept: %1 %2 N mm. Undo with Ctrl+Z.").arg(words(name_of(now)), words(print_short(torque, 4)));
}

QString TorqueRound::simulated() {
    const auto now = question();
    if (!now || !m_document.calliper()) throw no_instrument();
    const std::uint64_t turn = m_turn[name_of(*now)]++;
    const auto reading =
        now->least ? m_document.calliper()->least_torque(turn) : m_document.calliper()->torque(now->turns, now->winding, turn);
    if (!reading) throw InputError(name_of(*now), "a gauge that cannot reach there", "another reading: Tab");
    return words(print_short(*reading, 4));
}

std::function<void()> TorqueRound::hold() {
    m_at = question();
    if (!m_at) return {};
    return [this, at = m_at, train = m_document.selection().train()->id] {
        while (m_document.selection().train() && m_document.selection().train()->id != train && m_document.job().train.trains.size() > 1)
            m_document.selection().next_train();
        m_at = at;
    };
}

bool TorqueRound::key_on_empty_line(int key) {
    if (key != Qt::Key_Left) return false;
    step(-1);
    return true;
}

std::optional<ReadingRound::Asked> LookRound::asked() const {
    Asked asked;
    asked.name = words("the clock beside the reference, ahead of it by");
    asked.typed_as = words("s");
    asked.how = words(
        "Type how far the clock is ahead (−: behind) at this moment, and the room's temperature: +12.4 18.5C. For another time put "
        "date and time first, 2026-11-27 08:00 +12.4; or two times of day, reference and clock.");
    const auto& looks = m_document.derived().beat.looks;
    if (!looks.empty()) asked.note = words("last look %1").arg(words(look_in_words(looks.back())));
    return asked;
}

QString LookRound::keep(const QString& text, bool) {
    const RateObservation look = read_look(text.toStdString(), wall_clock_s());
    m_document.edit(look_taken(look));
    return words("Kept: %1. Undo with Ctrl+Z.").arg(words(look_in_words(look)));
}

QString LookRound::simulated() {
    if (!m_document.calliper()) throw no_instrument();
    const RateLog& log = m_document.job().rate_log;
    const auto look = m_document.calliper()->look(log, SimulatedCalliper::next_look_s(log), m_turn++);
    if (!look) throw no_instrument();
    return words(look_in_words(*look));
}

}  // namespace echappe
