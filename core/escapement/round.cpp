#include "escapement/round.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "escapement/words.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr double pi = std::numbers::pi;
constexpr double rad = pi / 180;
constexpr const char* source = "contact of each tooth's own tip with the pallets, exact";

/// A tip as it stands about the arbor.
struct Tip {
    double radius = 0;
    double ahead = 0;  ///< of its place in the division, rad
};

std::vector<Tip> tips_of(const EscapementAction& action, const WheelFaults& faults) {
    std::vector<Tip> tips;
    const double pitch = action.pitch_rad();
    for (long long i = 0; i < action.teeth; ++i) {
        double radius = action.radius_mm, place = 0;
        for (const BadTooth& bad : faults.teeth)
            if (bad.tooth == i + 1) radius -= bad.short_mm, place += bad.bent_deg * rad;
        // Tooth 1 at the top, the next ones follow anticlockwise; all carried off by the wheel's own middle.
        const double from_high = static_cast<double>(i + 1 - faults.eccentric_tooth) * pitch;
        const Vector tip = spot(radius, place) + spot(faults.eccentric_mm, from_high);
        tips.push_back({length(tip), angle_of(tip)});
    }
    return tips;
}

EscapementAction with_pallets_off(EscapementAction action, const WheelFaults& faults) {
    const Vector by{faults.pallets_right_mm, faults.pallets_up_mm};
    for (Pallet* pallet : {&action.entry, &action.exit}) {
        pallet->locking = pallet->locking + by;
        pallet->let_off = pallet->let_off + by;
    }
    return action;
}

/// The face where it is worn, seen by a tooth that lands.
Pallet worn(const Pallet& pallet, double pit_mm) {
    Pallet out = pallet;
    if (pit_mm == 0) return out;
    // Into the metal: of an arc towards or away from its arbor, of a straight face square to it.
    const Vector along = pallet.locking - pallet.let_off;
    Vector in = pallet.arc ? pallet.side / length(pallet.locking) * pallet.locking : pit_mm / length(along) * Vector{along.y, -along.x};
    if (pallet.arc) in = pit_mm * in;
    else if (in.y < 0) in = -1 * in;
    out.locking = out.locking + in;
    if (!pallet.arc) out.let_off = out.let_off + in;
    return out;
}

/// One wheel of its own radius for each tooth: the contacts are those of the whole wheel.
EscapementAction seen_by(const EscapementAction& action, const Tip& tip) {
    EscapementAction own = action;
    own.radius_mm = tip.radius;
    return own;
}

class Round {
public:
    Round(const EscapementAction& action, const WheelFaults& faults)
        : m_action(with_pallets_off(action, faults)),
          m_tips(tips_of(m_action, faults)),
          m_entry(worn(m_action.entry, faults.entry_pit_mm)),
          m_exit(worn(m_action.exit, faults.exit_pit_mm)) {}

    /// What a pallet does with one tooth, rad; nothing where a corner or a face is never reached.
    struct One {
        std::optional<double> lock, drop, lets_off;
    };
    struct Both {
        One entry, exit;
    };

    std::vector<Both> walk() const {
        std::vector<Both> all(m_tips.size());
        for (size_t i = 0; i < m_tips.size(); ++i) {
            // As tooth i is let off by the entry, the one that lands on the exit is span − ½ places ahead; as it is let off by the
            // exit, the one that lands on the entry is span + ½ behind.
            meet(i, m_action.entry, -std::llround(m_action.span - 0.5), m_exit, m_action.exit, all, &Both::entry, &Both::exit);
            meet(i, m_action.exit, std::llround(m_action.span + 0.5), m_entry, m_action.entry, all, &Both::exit, &Both::entry);
        }
        return all;
    }
    /// The wheel driven back before it unlocks, rad.
    double climb(const Pallet& pallet, const Pallet& pitted) const {
        if (!pallet.arc) return 0;
        const auto whole = tip_on_arc(m_action, pallet), deep = tip_on_arc(m_action, pitted);
        return whole && deep ? std::max(0.0, *deep - *whole) : 0;
    }
    double entry_climb() const { return climb(m_action.entry, m_entry); }
    double exit_climb() const { return climb(m_action.exit, m_exit); }
    const EscapementAction& action() const { return m_action; }

private:
    void meet(size_t tooth, const Pallet& lets_off, long long on, const Pallet& lands_on, const Pallet& whole, std::vector<Both>& all,
              One Both::*from, One Both::*to) const {
        const auto count = static_cast<long long>(m_tips.size());
        const auto next = static_cast<size_t>(((static_cast<long long>(tooth) + on) % count + count) % count);
        const auto end = corner_on_tips(seen_by(m_action, m_tips[tooth]), lets_off, lets_off.let_off);
        if (!end) return;
        (all[tooth].*from).lets_off = end->pallets_rad;
        const EscapementAction landing = seen_by(m_action, m_tips[next]);
        const auto lands = whole.arc ? tip_on_arc(landing, lands_on) : tip_on_face(landing, lands_on, end->pallets_rad);
        if (!lands) return;
        const double places = static_cast<double>(on) * m_action.pitch_rad();
        (all[tooth].*from).drop = (*lands - m_tips[next].ahead + places) - (end->tip_rad - m_tips[tooth].ahead);
        if (!whole.arc) return;
        if (const auto free = corner_on_tips(landing, whole, whole.locking))
            (all[next].*to).lock = whole.side * wrapped(free->pallets_rad - end->pallets_rad);
    }

    EscapementAction m_action;
    std::vector<Tip> m_tips;
    Pallet m_entry, m_exit;
};

/// What is left of a tooth's locks and drops, rad; below 0 where one is gone or nothing is met.
double left_of(const Round::Both& both, bool arcs) {
    double least = pi;
    for (const Round::One* one : {&both.entry, &both.exit}) {
        least = std::min(least, one->drop.value_or(-1));
        if (arcs) least = std::min(least, one->lock.value_or(-1));
    }
    return least;
}

std::string state_of(const Round::Both& both, bool arcs) {
    for (const Round::One* one : {&both.entry, &both.exit})
        if (!one->drop || (arcs && one->lock.value_or(-1) <= 0)) return word_for(EscapementState::trips);
    for (const Round::One* one : {&both.entry, &both.exit})
        if (*one->drop <= 0) return word_for(EscapementState::catches);
    return word_for(EscapementState::runs);
}

struct Ends {
    double entry = 0, exit = 0;                ///< widest let-offs of any tooth
    double entry_middle = 0, exit_middle = 0;  ///< as most teeth have them
    bool all = true;
    double zero() const { return (entry_middle + exit_middle) / 2; }
    double least() const { return std::max(zero() - entry, exit - zero()); }
};
Ends ends_of(const std::vector<Round::Both>& teeth) {
    std::vector<double> entries, exits;
    for (const Round::Both& both : teeth) {
        if (!both.entry.lets_off || !both.exit.lets_off) return {0, 0, 0, 0, false};
        entries.push_back(*both.entry.lets_off), exits.push_back(*both.exit.lets_off);
    }
    std::sort(entries.begin(), entries.end()), std::sort(exits.begin(), exits.end());
    const size_t middle = entries.size() / 2;
    return {entries.front(), exits.back(), entries[middle], exits[middle], true};
}

/// Time of a let-off after the middle of a harmonic swing, ms; nothing where it does not swing so far.
std::optional<double> after_middle_ms(double pallets, double swing, double beats_per_hour) {
    if (std::abs(pallets) >= swing) return {};
    return 3.6e6 / beats_per_hour / pi * std::asin(pallets / swing);
}

/// The least of what must stay above 0, all round.
double margin_of(const EscapementAction& action, const WheelFaults& faults, std::optional<double> swing) {
    const Round round(action, faults);
    const std::vector<Round::Both> teeth = round.walk();
    double least = pi;
    for (const Round::Both& both : teeth) least = std::min(least, left_of(both, action.entry.arc));
    const Ends ends = ends_of(teeth);
    if (!ends.all) return -1;
    if (swing) least = std::min(least, *swing - ends.least());
    return least;
}

std::string in_words(const EscapementRoundResult& out, double semi_arc_deg) {
    const std::string tooth = "Tooth " + std::to_string(out.worst_tooth);
    std::string words;
    if (out.state == "trips") words = tooth + " lands beyond a locking face, and the train trips there once a turn.";
    else if (out.state == "catches") words = tooth + " has no drop left and is caught once a turn.";
    else if (out.state == "does not unlock")
        words =
            "A tooth wants " + print_fixed(*out.least_semi_arc_deg, 2) + "° of swing and there are " + print_fixed(semi_arc_deg, 2) + "°.";
    else if (out.alike) words = "Runs, all teeth alike.";
    else words = "Runs all round; tooth " + std::to_string(out.worst_tooth) + " has the least to spare.";
    if (out.entry_climb_deg > 0 || out.exit_climb_deg > 0)
        words += " Out of the pits the wheel is driven back by " + print_fixed(std::max(out.entry_climb_deg, out.exit_climb_deg), 2) +
                 "° at every beat: stone the face, or move the wheel along its arbor to a fresh place.";
    if (!out.depth_window_mm) return words + " At no depth do all teeth pass: put the wheel right first.";
    return words + room_in_words((*out.depth_window_mm)[0], (*out.depth_window_mm)[1], 0);
}

void tell_teeth(const std::vector<Round::Both>& teeth, bool arcs, std::optional<double> swing, std::optional<double> beats_per_hour,
                EscapementRoundResult& out) {
    const Ends ends = ends_of(teeth);
    const auto deg = [](const std::optional<double>& angle) { return angle ? std::optional(*angle / rad) : std::nullopt; };
    const auto late = [&](double side, const std::optional<double>& at, double usual) -> std::optional<double> {
        if (!at || !ends.all || !swing || !beats_per_hour) return {};
        const auto own = after_middle_ms(side * (*at - ends.zero()), *swing, *beats_per_hour);
        const auto middle = after_middle_ms(side * (usual - ends.zero()), *swing, *beats_per_hour);
        return own && middle ? std::optional(*own - *middle) : std::nullopt;
    };
    double least = 2 * pi;
    for (size_t i = 0; i < teeth.size(); ++i) {
        const Round::Both& both = teeth[i];
        ToothOnPallets one;
        one.tooth = static_cast<long long>(i) + 1;
        one.entry_lock_deg = deg(both.entry.lock), one.exit_lock_deg = deg(both.exit.lock);
        one.entry_drop_deg = deg(both.entry.drop), one.exit_drop_deg = deg(both.exit.drop);
        one.entry_late_ms = late(-1, both.entry.lets_off, ends.entry_middle);
        one.exit_late_ms = late(1, both.exit.lets_off, ends.exit_middle);
        one.state = state_of(both, arcs);
        if (const double left = left_of(both, arcs); left < least) least = left, out.worst_tooth = one.tooth, out.state = one.state;
        out.teeth.push_back(std::move(one));
    }
    out.alike = std::all_of(teeth.begin(), teeth.end(), [&](const Round::Both& one) {
        constexpr double rounding = 1e-9;
        return std::abs(left_of(one, arcs) - left_of(teeth.front(), arcs)) < rounding;
    });
    if (!ends.all) return;
    out.least_semi_arc_deg = ends.least() / rad;
    if (out.state == "runs" && swing && *swing < *out.least_semi_arc_deg * rad) out.state = word_for(EscapementState::does_not_unlock);
}

}  // namespace

EscapementRoundResult escapement_round(const EscapementAction& now, const WheelFaults& faults, std::optional<double> swing,
                                       std::optional<double> beats_per_hour) {
    for (const BadTooth& bad : faults.teeth)
        if (bad.tooth < 1 || bad.tooth > now.teeth)
            throw InputError("tooth", std::to_string(bad.tooth), "1 to " + std::to_string(now.teeth));
    const Round round(now, faults);
    EscapementRoundResult out;
    tell_teeth(round.walk(), now.entry.arc, swing, beats_per_hour, out);
    out.entry_climb_deg = round.entry_climb() / rad, out.exit_climb_deg = round.exit_climb() / rad;
    const auto window = window_of([&](double depth) { return margin_of(nearer(now, depth), faults, swing); }, now.radius_mm / 8);
    if (window) out.depth_window_mm = {window->low_mm, window->high_mm};
    out.verdict = in_words(out, swing.value_or(0) / rad);
    return out;
}

EscapementRoundResult escapement_round(const EscapementRoundInput& in) {
    const auto swing = in.semi_arc_deg ? std::optional(*in.semi_arc_deg * rad) : std::nullopt;
    return escapement_round(action_of(in.escapement), in.faults, swing, in.beats_per_hour);
}

std::optional<double> early_ms_per_mm_short(const EscapementAction& now, double semi_arc_rad, double beats_per_hour) {
    const EscapementBeat beat = beat_of(now);
    if (!beat.zero_rad) return {};
    // A short tooth leaves the corner before the others do.
    constexpr double little_mm = 1e-3;
    double early = 0;
    for (const Pallet* pallet : {&now.entry, &now.exit}) {
        const auto lets_off_ms = [&](double radius) -> std::optional<double> {
            const auto end = corner_on_tips(seen_by(now, {radius, 0}), *pallet, pallet->let_off);
            if (!end) return {};
            return after_middle_ms(pallet->side * (end->pallets_rad - *beat.zero_rad), semi_arc_rad, beats_per_hour);
        };
        const auto longer = lets_off_ms(now.radius_mm + little_mm), shorter = lets_off_ms(now.radius_mm - little_mm);
        if (!longer || !shorter) return {};
        early += (*longer - *shorter) / (2 * little_mm) / 2;
    }
    return early > 0 ? std::optional(early) : std::nullopt;
}

std::vector<Working> explain_escapement_round(const EscapementRoundInput& in, const EscapementRoundResult& out) {
    std::vector<Working> list = {work_out("an eccentric wheel moves its tips in and out by", "d = 2 e",
                                          {given("e", "eccentric", in.faults.eccentric_mm, "mm")}, "mm", source,
                                          [](auto x) { return 2 * x[0]; })};
    list.back().notes = {out.verdict};
    return list;
}

const Record& BadTooth::record() {
    using In = BadTooth;
    static const Record record =
        Fields<In>()
            .add("tooth", &In::tooth, "", "counted as they come to the pallets", between(1, 400))
            .because("the first that was marked")
            .add("short_mm", &In::short_mm, "mm", "negative: too long", between(-10, 10))
            .add("bent_deg", &In::bent_deg, "deg", "forward, as the wheel turns; negative: back", between(-30, 30));
    return record;
}

const Record& WheelFaults::record() {
    using In = WheelFaults;
    static const Record record =
        Fields<In>()
            .add("eccentric_mm", &In::eccentric_mm, "mm", "of the wheel on its arbor: half of what its tips run out", between(0, 10))
            .add("eccentric_tooth", &In::eccentric_tooth, "", "that stands furthest out", between(1, 400))
            .because("the first that was marked")
            .add("pallets_up_mm", &In::pallets_up_mm, "mm", "of the pallets on their arbor, away from the wheel", between(-10, 10))
            .add("pallets_right_mm", &In::pallets_right_mm, "mm", "of the pallets on their arbor, to the exit's side", between(-10, 10))
            .add("entry_pit_mm", &In::entry_pit_mm, "mm", "worn into the entry where teeth land", between(0, 5))
            .add("exit_pit_mm", &In::exit_pit_mm, "mm", "worn into the exit where teeth land", between(0, 5))
            .add("teeth", &In::teeth, "", "that are not as the others");
    return record;
}

const Record& EscapementRoundInput::record() {
    using In = EscapementRoundInput;
    static const Record record = Fields<In>()
                                     .add("escapement", &In::escapement, "", "its layout")
                                     .required()
                                     .add("faults", &In::faults, "", "what is not as laid out")
                                     .add("semi_arc_deg", &In::semi_arc_deg, "deg", "swing to each side", between(0, 90))
                                     .add("beats_per_hour", &In::beats_per_hour, "1/h", "for the times of the let-offs", above(0, 1e6));
    return record;
}

const Record& ToothOnPallets::record() {
    using Out = ToothOnPallets;
    static const Record record = Fields<Out>()
                                     .add("tooth", &Out::tooth, "", "as they come to the pallets")
                                     .add("entry_lock_deg", &Out::entry_lock_deg, "deg", "where it lands on the entry")
                                     .add("entry_drop_deg", &Out::entry_drop_deg, "deg", "wheel's free turn after the entry lets it off")
                                     .add("exit_lock_deg", &Out::exit_lock_deg, "deg", "where it lands on the exit")
                                     .add("exit_drop_deg", &Out::exit_drop_deg, "deg", "wheel's free turn after the exit lets it off")
                                     .add("entry_late_ms", &Out::entry_late_ms, "ms", "its let-off against those of the other teeth")
                                     .add("exit_late_ms", &Out::exit_late_ms, "ms", "its let-off against those of the other teeth")
                                     .add("state", &Out::state, "", "runs, trips or catches");
    return record;
}

const Record& EscapementRoundResult::record() {
    using Out = EscapementRoundResult;
    static const Record record = Fields<Out>()
                                     .add("teeth", &Out::teeth, "", "one after the other")
                                     .add("state", &Out::state, "", "of the worst: runs, trips, catches or does not unlock")
                                     .add("worst_tooth", &Out::worst_tooth, "", "with the least to spare")
                                     .add("alike", &Out::alike, "", "no tooth does otherwise than the others")
                                     .add("entry_climb_deg", &Out::entry_climb_deg, "deg", "the wheel driven back out of the entry's pit")
                                     .add("exit_climb_deg", &Out::exit_climb_deg, "deg", "and out of the exit's")
                                     .add("least_semi_arc_deg", &Out::least_semi_arc_deg, "deg", "that lets every tooth off")
                                     .add("depth_window_mm", &Out::depth_window_mm, "mm", "changes of depth between which all teeth pass")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& escapement_round_calculation() {
    static const Calculation calculation = declare<EscapementRoundInput, EscapementRoundResult>(
        "escapement.round",
        "Once round the escape wheel: locks, drops and let-offs of every tooth, with an eccentric wheel, bad teeth and pits.", source,
        escapement_round, explain_escapement_round);
    return calculation;
}

}  // namespace echappe
