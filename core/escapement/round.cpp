#include "escapement/round.h"

#include <algorithm>
#include <cmath>

#include "escapement/lever.h"
#include "escapement/words.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* round_source = "contact of each tooth with the pallets, exact";

/// A tooth as it stands about the arbor: the wheel whose teeth all are like it, and how far it is ahead of its place, rad.
template <class Action>
struct OwnTooth {
    Action wheel;
    double ahead = 0;
};

/// The middle of its tip carried off by `by`, in a frame with its place in the division at the top.
OwnTooth<EscapementAction> own_tooth(EscapementAction wheel, double short_mm, double place, Vector by) {
    const Vector tip = spot(wheel.radius_mm - short_mm, place) + by;
    wheel.radius_mm = length(tip);
    return {wheel, angle_of(tip)};
}

/// Short at both corners alike.
OwnTooth<LeverAction> own_tooth(LeverAction wheel, double short_mm, double place, Vector by) {
    LeverTooth& tooth = wheel.tooth;
    const Vector toe = spot(tooth.toe - short_mm, place) + by, heel = spot(tooth.heel - short_mm, place - tooth.width) + by;
    const double ahead = angle_of(toe);
    tooth.toe = length(toe), tooth.heel = length(heel);
    tooth.width = wrapped(ahead - angle_of(heel));
    tooth.undercut += place - ahead;
    return {wheel, ahead};
}

template <class Action>
std::vector<OwnTooth<Action>> teeth_of(const Action& action, const WheelFaults& faults) {
    std::vector<OwnTooth<Action>> teeth;
    for (long long i = 0; i < action.teeth; ++i) {
        double short_mm = 0, place = 0;
        for (const BadTooth& bad : faults.teeth)
            if (bad.tooth == i + 1) short_mm += bad.short_mm, place += bad.bent_deg * rad_per_deg;
        // Tooth 1 at the top, the next ones follow anticlockwise; all carried off by the wheel's own middle.
        const double from_high = static_cast<double>(i + 1 - faults.eccentric_tooth) * action.pitch_rad();
        teeth.push_back(own_tooth(action, short_mm, place, spot(faults.eccentric_mm, from_high)));
    }
    return teeth;
}

void carry(Pallet& pallet, Vector by) {
    for (Vector* corner : {&pallet.locking, &pallet.let_off}) *corner = *corner + by;
}
void carry(LeverPallet& pallet, Vector by) {
    for (Vector* corner : {&pallet.locking, &pallet.let_off, &pallet.middle}) *corner = *corner + by;
}

template <class Action>
Action with_pallets_off(Action action, const WheelFaults& faults) {
    const Vector by{faults.pallets_right_mm, faults.pallets_up_mm};
    carry(action.entry, by), carry(action.exit, by);
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
LeverPallet worn(const LeverPallet& pallet, double pit_mm) {
    LeverPallet out = pallet;
    if (pit_mm == 0) return out;
    if (pallet.pin) {
        out.radius = std::max(0.0, pallet.radius - pit_mm);
        return out;
    }
    const Vector across{-pallet.face.y, pallet.face.x};
    const double way = dot(across, pallet.let_off - pallet.locking) > 0 ? pit_mm : -pit_mm;
    out.locking = out.locking + way / length(across) * across;
    return out;
}

/// How far the pallets turn to each side; a lever to its bankings, which are set for the usual tooth.
double banked_of(const EscapementAction&) { return pi; }
double banked_of(const LeverAction& action) {
    const auto entry = let_off_of(action, action.entry), exit = let_off_of(action, action.exit);
    return entry && exit ? (exit->pallets_rad - entry->pallets_rad) / 2 + action.lever.run_deg * rad_per_deg : 0;
}
/// The usual tooth's middle between the two let-offs.
template <class Action>
double zero_of(const Action& action) {
    const auto entry = let_off_of(action, action.entry), exit = let_off_of(action, action.exit);
    return entry && exit ? (exit->pallets_rad + entry->pallets_rad) / 2 : 0;
}

/// What a pallet does with one tooth, rad; nothing where a corner or a face is never reached.
struct One {
    std::optional<double> lock, drop, lets_off;
};
struct Both {
    One entry, exit;
    double clear = pi;  ///< of the pallet that let this tooth off, from its back
};

template <class Action>
class Round {
public:
    Round(const Action& action, const WheelFaults& faults)
        : m_action(with_pallets_off(action, faults)),
          m_zero(zero_of(m_action)),
          m_banked(banked_of(m_action)),
          m_teeth(teeth_of(m_action, faults)),
          m_entry(worn(m_action.entry, faults.entry_pit_mm)),
          m_exit(worn(m_action.exit, faults.exit_pit_mm)) {}

    /// The clearance of the backs closely only as far as it is less than `least` or than what is left elsewhere.
    std::vector<Both> walk(double least) const {
        std::vector<Both> all(m_teeth.size());
        for (size_t i = 0; i < m_teeth.size(); ++i) {
            // As tooth i is let off by the entry, the one that lands on the exit is span − ½ places ahead; as it is let off by the
            // exit, the one that lands on the entry is span + ½ behind.
            meet(i, m_action.entry, -std::llround(m_action.span - 0.5), m_exit, m_action.exit, all, &Both::entry, &Both::exit, least);
            meet(i, m_action.exit, std::llround(m_action.span + 0.5), m_entry, m_action.entry, all, &Both::exit, &Both::entry, least);
        }
        return all;
    }
    /// The wheel driven back before it unlocks, rad.
    double entry_climb() const { return climb(m_action.entry, m_entry, m_action.exit); }
    double exit_climb() const { return climb(m_action.exit, m_exit, m_action.entry); }

private:
    template <class Face>
    double climb(const Face& face, const Face& pitted, const Face& before) const {
        const auto lands_as = let_off_of(m_action, before);
        // Where nothing locks the recoil drives the tooth out of it.
        if (!lands_as || (locks(m_action) && !unlocking_of(m_action, face))) return 0;
        const auto whole = landing_of(m_action, face, lands_as->pallets_rad), deep = landing_of(m_action, pitted, lands_as->pallets_rad);
        return whole && deep ? std::max(0.0, *deep - *whole) : 0;
    }

    template <class Face>
    /// `least`: of what is left, of all teeth so far.
    void meet(size_t tooth, const Face& lets_off, long long on, const Face& lands_on, const Face& whole, std::vector<Both>& all,
              One Both::*from, One Both::*to, [[maybe_unused]] double& least) const {
        const auto count = static_cast<long long>(m_teeth.size());
        const auto next = static_cast<size_t>(((static_cast<long long>(tooth) + on) % count + count) % count);
        const OwnTooth<Action>&gone = m_teeth[tooth], &held = m_teeth[next];
        const auto end = let_off_of(gone.wheel, lets_off);
        if (!end) return;
        (all[tooth].*from).lets_off = end->pallets_rad;
        const auto lands = landing_of(held.wheel, lands_on, end->pallets_rad);
        if (!lands) return;
        const double ahead = static_cast<double>(on) * m_action.pitch_rad() + gone.ahead - held.ahead;
        (all[tooth].*from).drop = *lands + ahead - end->tip_rad;
        if (const auto free = unlocking_of(held.wheel, whole))
            (all[next].*to).lock = whole.side * wrapped(free->pallets_rad - end->pallets_rad);
        // Where any tooth trips or is caught already, the backs do not matter.
        if constexpr (std::is_same_v<Action, LeverAction>) {
            least = std::min({least, *(all[tooth].*from).drop, (all[next].*to).lock.value_or(-1)});
            if (least <= 0) return;
            const double banked = m_zero - whole.side * m_banked;
            all[tooth].clear = std::min(all[tooth].clear, clear_behind({held.wheel, whole, gone.wheel, lets_off, ahead}, banked, least));
            least = std::min(least, all[tooth].clear);
        }
    }

    Action m_action;
    double m_zero = 0, m_banked = 0;
    std::vector<OwnTooth<Action>> m_teeth;
    std::decay_t<decltype(Action::entry)> m_entry, m_exit;
};

/// What is left of a tooth's locks and drops, rad; below 0 where one is gone or nothing is met.
double left_of(const Both& both, bool arcs) {
    double least = both.clear;
    for (const One* one : {&both.entry, &both.exit}) {
        least = std::min(least, one->drop.value_or(-1));
        if (arcs) least = std::min(least, one->lock.value_or(-1));
    }
    return least;
}

std::string state_of(const Both& both, bool arcs) {
    for (const One* one : {&both.entry, &both.exit})
        if (!one->drop || (arcs && one->lock.value_or(-1) <= 0)) return word_for(EscapementState::trips);
    if (both.clear <= 0) return word_for(EscapementState::catches);
    for (const One* one : {&both.entry, &both.exit})
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
Ends ends_of(const std::vector<Both>& teeth) {
    std::vector<double> entries, exits;
    for (const Both& both : teeth) {
        if (!both.entry.lets_off || !both.exit.lets_off) return {0, 0, 0, 0, false};
        entries.push_back(*both.entry.lets_off), exits.push_back(*both.exit.lets_off);
    }
    std::sort(entries.begin(), entries.end()), std::sort(exits.begin(), exits.end());
    const size_t middle = entries.size() / 2;
    return {entries.front(), exits.back(), entries[middle], exits[middle], true};
}

/// The swing of what drives the pallets while they stand there; nothing where fork and roller were not told, or pass each other by.
std::optional<double> swing_at(const EscapementAction&, double pallets) { return pallets; }
std::optional<double> swing_at(const LeverAction& action, double pallets) try {
    const LeverAndBalance& link = action.lever;
    if (!link.staff_mm || !link.impulse_pin_mm) return {};
    return std::copysign(balance_turn_rad(*link.staff_mm, *link.impulse_pin_mm, std::abs(pallets)), pallets);
} catch (const InputError&) {
    return {};
}

/// The least swing that lets every tooth off.
std::optional<double> least_of(const EscapementAction&, const Ends& ends) { return ends.least(); }
std::optional<double> least_of(const LeverAction& action, const Ends&) { return swing_at(action, banked_of(action)); }

/// Time of a let-off after the middle of a harmonic swing, ms; nothing where it does not swing so far.
template <class Action>
std::optional<double> after_middle_ms(const Action& action, double pallets, double swing, double beats_per_hour) {
    const auto at = swing_at(action, pallets);
    if (!at || std::abs(*at) >= swing) return {};
    return 3.6e6 / beats_per_hour / pi * std::asin(*at / swing);
}

/// The least of what must stay above 0, all round.
template <class Action>
double margin_of(const Action& action, const WheelFaults& faults, std::optional<double> swing) {
    const Action placed = with_pallets_off(action, faults);
    constexpr double nothing = 1e-6;  // only whether anything is left is asked
    const std::vector<Both> teeth = Round<Action>(action, faults).walk(nothing);
    double least = pi;
    for (const Both& both : teeth) least = std::min(least, left_of(both, locks(action)));
    const Ends ends = ends_of(teeth);
    if (!ends.all) return -1;
    least = std::min(least, banked_of(placed) - ends.least());
    if (const auto needed = least_of(placed, ends); swing && needed) least = std::min(least, *swing - *needed);
    return least;
}

/// The tooth that spoils it, where all of them pass without what is wrong with single teeth: it is put right, and nothing is moved.
std::string tooth_to_mend(const WheelFaults& faults, long long worst) {
    const auto bad = std::find_if(faults.teeth.begin(), faults.teeth.end(), [&](const BadTooth& one) { return one.tooth == worst; });
    const BadTooth& tooth = bad != faults.teeth.end() ? *bad : faults.teeth.front();
    const std::string name = " Tooth " + std::to_string(tooth.tooth);
    if (tooth.bent_deg != 0)
        return name + " is bent " + print_fixed(std::abs(tooth.bent_deg), 1) + "° " + (tooth.bent_deg > 0 ? "forward" : "back") +
               ": straighten it. Leave the pallets where they are.";
    if (tooth.short_mm < 0)
        return name + " is " + print_fixed(-tooth.short_mm, 3) + " mm too long: top it to the others. Leave the pallets where they are.";
    return name + " is " + print_fixed(tooth.short_mm, 3) +
           " mm short: a new tooth, or all of them topped to it and the depth set anew. Pallets moved for one tooth spoil the others.";
}

std::string in_words(const EscapementRoundResult& out, double semi_arc_deg, const std::string& tooth_first, bool pitted) {
    const std::string tooth = "Tooth " + std::to_string(out.worst_tooth);
    std::string words;
    if (out.state == "trips") words = tooth + " lands beyond a locking face, and the train trips there once a turn.";
    else if (out.state == "catches") words = tooth + " has no drop left and is caught once a turn.";
    else if (out.state == "does not unlock")
        words = semi_arc_deg < out.least_semi_arc_deg.value_or(0)
                    ? "A tooth wants " + print_fixed(*out.least_semi_arc_deg, 2) + "° of swing and there are " +
                          print_fixed(semi_arc_deg, 2) + "°."
                    : "A tooth is let off only beyond the banking: the lever stops there once a turn. Look for a long tooth, or a wheel "
                      "out of round.";
    else if (out.alike) words = pitted ? "Runs, with worn faces." : "Runs, all teeth alike.";
    else words = "Runs all round; tooth " + std::to_string(out.worst_tooth) + " has the least to spare.";
    if (out.entry_climb_deg > 0 || out.exit_climb_deg > 0)
        words += " Out of the pits the wheel is driven back by " + print_fixed(std::max(out.entry_climb_deg, out.exit_climb_deg), 2) +
                 "° at every beat: stone the face, or move the wheel along its arbor to a fresh place.";
    if (!tooth_first.empty()) return words + tooth_first;
    if (!out.depth_window_mm) return words + " No depth lets all teeth pass. Put the wheel right first.";
    return words + room_in_words((*out.depth_window_mm)[0], (*out.depth_window_mm)[1], 0);
}

template <class Action>
void tell_teeth(const Action& now, const std::vector<Both>& teeth, std::optional<double> swing, std::optional<double> beats_per_hour,
                EscapementRoundResult& out) {
    const Ends ends = ends_of(teeth);
    const bool arcs = locks(now);
    const auto deg = [](const std::optional<double>& angle) { return angle ? std::optional(*angle / rad_per_deg) : std::nullopt; };
    const auto late = [&](double side, const std::optional<double>& at, double usual) -> std::optional<double> {
        if (!at || !ends.all || !swing || !beats_per_hour) return {};
        const auto own = after_middle_ms(now, side * (*at - ends.zero()), *swing, *beats_per_hour);
        const auto middle = after_middle_ms(now, side * (usual - ends.zero()), *swing, *beats_per_hour);
        return own && middle ? std::optional(*own - *middle) : std::nullopt;
    };
    double least = 2 * pi;
    for (size_t i = 0; i < teeth.size(); ++i) {
        const Both& both = teeth[i];
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
    out.alike = std::all_of(teeth.begin(), teeth.end(), [&](const Both& one) {
        constexpr double rounding = 1e-9;
        return std::abs(left_of(one, arcs) - left_of(teeth.front(), arcs)) < rounding;
    });
    if (!ends.all) return;
    const auto needed = least_of(now, ends);
    out.least_semi_arc_deg = deg(needed);
    if (out.state != "runs") return;
    if (ends.least() > banked_of(now) || (swing && needed && *swing < *needed)) out.state = word_for(EscapementState::does_not_unlock);
}

/// A single bad tooth that keeps a wheel from passing which passes without it.
template <class Action>
std::string mend_first(const Action& now, const WheelFaults& faults, std::optional<double> swing, const EscapementRoundResult& out) {
    if (out.state == word_for(EscapementState::runs) || faults.teeth.empty()) return {};
    WheelFaults others = faults;
    others.teeth.clear();
    return margin_of(now, others, swing) > 0 ? tooth_to_mend(faults, out.worst_tooth) : std::string();
}

template <class Action>
EscapementRoundResult once_round(const Action& now, const WheelFaults& faults, std::optional<double> swing,
                                 std::optional<double> beats_per_hour, double reach_mm) {
    const Round<Action> round(now, faults);
    EscapementRoundResult out;
    tell_teeth(with_pallets_off(now, faults), round.walk(pi), swing, beats_per_hour, out);
    out.entry_climb_deg = round.entry_climb() / rad_per_deg, out.exit_climb_deg = round.exit_climb() / rad_per_deg;
    const auto window = window_of([&](double depth) { return margin_of(nearer(now, depth), faults, swing); }, reach_mm);
    if (window) out.depth_window_mm = {window->low_mm, window->high_mm};
    out.verdict = in_words(out, swing.value_or(0) / rad_per_deg, mend_first(now, faults, swing, out),
                           faults.entry_pit_mm > 0 || faults.exit_pit_mm > 0);
    return out;
}

/// The same tooth longer by a little, and shorter.
template <class Action>
std::optional<double> early_per_mm(const Action& now, double semi_arc_rad, double beats_per_hour) {
    const EscapementBeat beat = beat_of(now);
    if (!beat.zero_rad) return {};
    // A short tooth leaves the corner before the others do.
    constexpr double little_mm = 1e-3;
    double early = 0;
    for (const auto* pallet : {&now.entry, &now.exit}) {
        const auto lets_off_ms = [&](double short_mm) -> std::optional<double> {
            const auto end = let_off_of(own_tooth(now, short_mm, 0, {}).wheel, *pallet);
            if (!end) return {};
            return after_middle_ms(now, pallet->side * (end->pallets_rad - *beat.zero_rad), semi_arc_rad, beats_per_hour);
        };
        const auto longer = lets_off_ms(-little_mm), shorter = lets_off_ms(little_mm);
        if (!longer || !shorter) return {};
        early += (*longer - *shorter) / (2 * little_mm) / 2;
    }
    return early > 0 ? std::optional(early) : std::nullopt;
}

AnyAction action_of(const EscapementRoundInput& in) {
    const int told = (in.escapement ? 1 : 0) + (in.lever ? 1 : 0) + (in.pin ? 1 : 0);
    if (told != 1) throw InputError("escapement", std::to_string(told) + " layouts", "just one of `escapement`, `lever` and `pin`");
    if (in.escapement) return action_of(*in.escapement);
    return in.lever ? action_of(*in.lever) : action_of(*in.pin);
}

}  // namespace

EscapementRoundResult escapement_round(const AnyAction& now, const WheelFaults& faults, std::optional<double> swing,
                                       std::optional<double> beats_per_hour) {
    return std::visit(
        [&](const auto& one) {
            for (const BadTooth& bad : faults.teeth)
                if (bad.tooth < 1 || bad.tooth > one.teeth)
                    throw InputError("tooth", std::to_string(bad.tooth), "1 to " + std::to_string(one.teeth));
            return once_round(one, faults, swing, beats_per_hour, tip_radius_mm(now) / 8);
        },
        now);
}

EscapementRoundResult escapement_round(const EscapementRoundInput& in) {
    const auto swing = in.semi_arc_deg ? std::optional(*in.semi_arc_deg * rad_per_deg) : std::nullopt;
    return escapement_round(action_of(in), in.faults, swing, in.beats_per_hour);
}

std::optional<double> early_ms_per_mm_short(const AnyAction& now, double semi_arc_rad, double beats_per_hour) {
    return std::visit([&](const auto& one) { return early_per_mm(one, semi_arc_rad, beats_per_hour); }, now);
}

std::vector<Working> explain_escapement_round(const EscapementRoundInput& in, const EscapementRoundResult& out) {
    std::vector<Working> list = {work_out("an eccentric wheel moves its tips in and out by", "d = 2 e",
                                          {given("e", "eccentric", in.faults.eccentric_mm, "mm")}, "mm", round_source,
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
    static const Record record =
        Fields<In>()
            .add("escapement", &In::escapement, "", "layout of a pendulum's pallets")
            .add("lever", &In::lever, "", "or of club teeth and stones")
            .add("pin", &In::pin, "", "or of pins on a lever")
            .add("faults", &In::faults, "", "what is not as laid out")
            .add("semi_arc_deg", &In::semi_arc_deg, "deg", "swing to each side, of pendulum or balance", between(0, 350))
            .add("beats_per_hour", &In::beats_per_hour, "1/h", "for the times of the let-offs", above(0, 1e6));
    return record;
}

const Record& ToothOnPallets::record() {
    using Out = ToothOnPallets;
    static const Record record =
        Fields<Out>()
            .add("tooth", &Out::tooth, "", "as they come to the pallets")
            .add("entry_lock_deg", &Out::entry_lock_deg, "deg", "where it lands on the entry")
            .add("entry_drop_deg", &Out::entry_drop_deg, "deg", "drop after the entry lets it off, until a tooth lands on the exit")
            .add("exit_lock_deg", &Out::exit_lock_deg, "deg", "where it lands on the exit")
            .add("exit_drop_deg", &Out::exit_drop_deg, "deg", "drop after the exit lets it off, until a tooth lands on the entry")
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
        "Once round the escape wheel: locks, drops and let-offs of every tooth, with an eccentric wheel, bad teeth and pits.", round_source,
        escapement_round, explain_escapement_round);
    return calculation;
}

}  // namespace echappe
