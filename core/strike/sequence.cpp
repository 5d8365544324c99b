#include "strike/sequence.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <set>
#include <vector>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* sequence_source = "stepped blow by blow";
constexpr long long all_early = 1'000'000;  // more than any strike has

long long number_of(const std::optional<long long>& number, const char* field, const StrikeFault& fault, long long least, long long most) {
    const std::string range = std::to_string(least) + " to " + std::to_string(most);
    if (!number) throw InputError(field, "nothing", "which one is meant by \"" + fault.what + "\": " + range);
    if (*number < least || *number > most) throw InputError(field, std::to_string(*number), range);
    return *number;
}

std::optional<long long> whole(const std::optional<double>& hour) {
    if (hour && *hour != std::floor(*hour)) throw InputError("hour", print_short(*hour), "a whole hour: a step of the snail is meant");
    return hour ? std::optional(static_cast<long long>(*hour)) : std::nullopt;
}

/// The wheel that counts: units, and where a detent falls.
class CountingWheel {
public:
    explicit CountingWheel(std::vector<long long> blows) : m_blows(std::move(blows)) {
        long long at = 0;
        for (const long long one : m_blows) m_begins.push_back(at), at += one;
        m_units = at;
        m_slots.assign(static_cast<size_t>(m_units), false);
        for (const long long begin : m_begins) slot_at(begin) = true;
    }
    /// Slot k is the one after the k-th strike.
    void widen(long long slot) {
        slot_at((after(slot) - 1 + m_units) % m_units) = true;
        m_wide.insert(after(slot) % m_units);
    }
    void fill(long long slot) { slot_at(after(slot)) = false; }
    void come_late() { m_late = true; }
    void stand_before(size_t group) { m_at = m_begins[group]; }
    /// Blows until the detent falls; nothing where it never does.
    std::optional<long long> strike() {
        for (long long blow = 1; blow <= m_units; ++blow) {
            m_at = (m_at + 1) % m_units;
            if (m_slots[static_cast<size_t>(m_at)] && (!m_late || m_wide.contains(m_at))) return blow;
        }
        return {};
    }

private:
    std::vector<bool>::reference slot_at(long long unit) { return m_slots[static_cast<size_t>(unit)]; }
    long long after(long long slot) const { return m_begins[static_cast<size_t>(slot) % m_begins.size()]; }
    std::vector<long long> m_blows, m_begins;
    long long m_units = 0, m_at = 0;
    bool m_late = false;
    std::set<long long> m_wide;  ///< units whose slot was open a unit before
    std::vector<bool> m_slots;   ///< by the unit
};

const std::string of_both = ", hand set, warning short or mesh off";

/// Does not change how much is struck, but when.
bool of_the_warning(const StrikeFault& fault) { return fault.what == "warning short" || fault.what == "mesh off"; }

std::vector<std::optional<long long>> struck_by_wheel(const StrikeSequenceInput& in, const std::vector<long long>& blows,
                                                      const std::vector<Strike>& strikes) {
    const auto groups = static_cast<long long>(blows.size());
    CountingWheel wheel(blows);
    size_t first = strikes.empty() ? 0 : strikes.front().group;
    for (const StrikeFault& fault : in.faults) {
        if (fault.what == "slot wide") wheel.widen(number_of(fault.slot, "slot", fault, 1, groups));
        else if (fault.what == "slot shallow") wheel.fill(number_of(fault.slot, "slot", fault, 1, groups));
        else if (fault.what == "detent late") wheel.come_late();
        else if (fault.what == "hand set") first = ready_for(in.scheme, fault, blows.size());
        else if (!of_the_warning(fault))
            throw InputError("what", fault.what, "a fault of a count wheel: slot wide, slot shallow, detent late" + of_both);
    }
    wheel.stand_before(first);
    std::vector<std::optional<long long>> struck;
    for (size_t i = 0; i < strikes.size(); ++i) struck.push_back(wheel.strike());
    return struck;
}

std::vector<std::optional<long long>> struck_by_rack(const StrikeSequenceInput& in, const std::vector<long long>& blows,
                                                     const std::vector<Strike>& strikes) {
    const long long most = *std::max_element(blows.begin(), blows.end());
    std::vector<long long> lost;
    long long bent = 0;
    size_t behind = 0;
    std::vector<long long> off(static_cast<size_t>(most), 0);  // by the step
    for (const StrikeFault& fault : in.faults) {
        if (fault.what == "tooth lost") lost.push_back(number_of(fault.tooth, "tooth", fault, 1, most));
        else if (fault.what == "step off")
            off[static_cast<size_t>(number_of(whole(fault.hour), "hour", fault, 1, most) - 1)] +=
                number_of(fault.teeth, "teeth", fault, -most, most);
        else if (fault.what == "tail bent") bent += number_of(fault.teeth, "teeth", fault, -most, most);
        else if (fault.what == "hand set")
            behind = (ready_for(in.scheme, fault, blows.size()) + blows.size() - strikes.front().group) % blows.size();
        else if (!of_the_warning(fault))
            throw InputError("what", fault.what, "a fault of a rack: tooth lost, tail bent, step off" + of_both);
    }
    std::vector<std::optional<long long>> struck;
    for (const Strike& strike : strikes) {
        const size_t group = (strike.group + behind) % blows.size();
        const auto step = static_cast<size_t>(blows[group] - 1);
        // At the half the rack is let down by one tooth, whatever its tail and the snail are like.
        const bool half = in.scheme == "hours-and-halves" && group % 2 == 1;
        // Never less than one: the gathering pallet has made its turn before the rack can hold it.
        const long long fallen = half ? 1 : std::max(1LL, blows[group] + bent + off[step]);
        struck.emplace_back(fallen);
        if (std::any_of(lost.begin(), lost.end(), [&](long long tooth) { return tooth <= fallen; })) struck.back().reset();
    }
    return struck;
}

std::string in_words(const StrikeSequenceResult& out) {
    if (out.wrong == 0) return "Strikes right.";
    const auto first = std::find_if(out.sequence.begin(), out.sequence.end(), [](const auto& one) { return !one.right(); });
    return std::to_string(out.wrong) + " of " + std::to_string(out.sequence.size()) + " are wrong, first at " + words_of_time(first->hour) +
           ": " + (first->strikes == first->should ? "" : "it ") +
           (!first->strikes ? std::string("runs on.")
            : first->strikes == first->should
                ? std::to_string(first->early) + " of its blows fall at the warning."
                : "strikes " + std::to_string(*first->strikes) + " and not " + std::to_string(first->should) + ".");
}

}  // namespace

const std::vector<std::string>& strike_faults() {
    static const std::vector<std::string> all = {"slot wide", "slot shallow", "detent late",   "tooth lost", "tail bent",
                                                 "step off",  "hand set",     "warning short", "mesh off"};
    return all;
}

std::string words_of(const StrikeFault& fault) {
    const auto number = [](const auto& one) { return std::to_string(static_cast<long long>(one.value_or(0))); };
    if (fault.what == "slot wide") return "slot " + number(fault.slot) + " of the count wheel is too wide";
    if (fault.what == "slot shallow") return "slot " + number(fault.slot) + " of the count wheel is too shallow";
    if (fault.what == "tooth lost") return "tooth " + number(fault.tooth) + " of the rack is lost, counted from the one gathered last";
    const auto falls = [&] {
        const long long teeth = fault.teeth.value_or(0), many = std::abs(teeth);
        return (many == 1 ? std::string("one tooth") : std::to_string(many) + " teeth") + (teeth > 0 ? " too far" : " short");
    };
    if (fault.what == "tail bent") return "the rack's tail is bent, and the rack falls " + falls();
    if (fault.what == "step off") return "the snail's step for strike " + number(fault.hour) + " lets the rack fall " + falls();
    if (fault.what == "detent late") return "the detent comes late, and finds no slot that is as narrow as it should be";
    if (fault.what == "warning short") return "the run at the warning is too short, and the train is not caught";
    if (fault.what == "mesh off") return "the pin wheel stands a tooth off: the hammer hangs on a pin while the train is locked";
    const bool whole_hour = !fault.hour || *fault.hour == std::floor(*fault.hour);
    return "the strike is out of step: it was ready for " + (whole_hour ? number(fault.hour) : words_of_time(*fault.hour));
}

double hour_of_group(const std::string& scheme, size_t group) {
    // Quarters come round in an hour, and there are four to stand ready for.
    const auto each = static_cast<double>(scheme == "quarters" ? 1 : strikes_an_hour(scheme));
    return 1 + static_cast<double>(group) / each;
}

size_t ready_for(const std::string& scheme, const StrikeFault& fault, size_t groups) {
    const double last = hour_of_group(scheme, groups - 1), least = hour_of_group(scheme, 1) - 1;
    const std::string range =
        "1 to " + print_short(last) + (least < 1 ? " in steps of " + print_short(least) : "") + ", which one it stands ready for";
    if (!fault.hour) throw InputError("hour", "nothing", range);
    const double group = (*fault.hour - 1) / least;
    if (group < 0 || *fault.hour > last || group != std::floor(group)) throw InputError("hour", print_short(*fault.hour), range);
    return static_cast<size_t>(group);
}

std::vector<Struck> struck_at(const StrikeSequenceInput& in, const std::vector<long long>& blows, const std::vector<Strike>& strikes) {
    long long at_warning = 0;
    for (const StrikeFault& fault : in.faults)
        at_warning = std::max(at_warning, fault.what == "warning short" ? all_early : fault.what == "mesh off" ? 1 : 0);
    std::vector<Struck> struck;
    for (const auto& one : in.kind == "rack" ? struck_by_rack(in, blows, strikes) : struck_by_wheel(in, blows, strikes))
        struck.push_back({one, one ? std::min(at_warning, *one) : at_warning > 0 ? 1 : 0});
    return struck;
}

StrikeSequenceResult strike_sequence(const StrikeSequenceInput& in) {
    const std::vector<long long> blows = blows_of(in.scheme, in.blows);
    const std::vector<Strike> strikes = strikes_from(in.scheme, in.blows, in.from, in.hours);
    const auto struck = struck_at(in, blows, strikes);
    StrikeSequenceResult out;
    for (size_t i = 0; i < strikes.size(); ++i) {
        out.sequence.push_back({strikes[i].hour, blows[strikes[i].group], struck[i].strikes, struck[i].early});
        if (!out.sequence.back().right()) ++out.wrong;
    }
    out.verdict = in_words(out);
    return out;
}

std::vector<Working> explain_strike_sequence(const StrikeSequenceInput& in, const StrikeSequenceResult& out) {
    const std::vector<long long> blows = blows_of(in.scheme, in.blows);
    std::vector<Working> list = {work_out("blows once round", "b = sum of all strikes",
                                          {given("b", "blows", static_cast<double>(std::accumulate(blows.begin(), blows.end(), 0LL)), "")},
                                          "", sequence_source, [](auto x) { return x[0]; })};
    for (const StrikeFault& fault : in.faults) list.back().notes.push_back(words_of(fault) + ".");
    list.back().notes.push_back(out.verdict);
    return list;
}

const Record& StrikeFault::record() {
    using In = StrikeFault;
    static const Record record =
        Fields<In>()
            .add("what", &In::what, "", "is wrong")
            .choices(strike_faults())
            .required()
            .add("slot", &In::slot, "", "of a count wheel: the one after that strike, counted from 1")
            .add("tooth", &In::tooth, "", "of a rack: 1 is gathered last")
            .add("hour", &In::hour, "",
                 "that the strike stands ready for as the hand shows the first one, 5.5 half past five; of a step: which one")
            .add("teeth", &In::teeth, "", "that a bent tail or a worn step lets the rack fall further; negative: less far");
    return record;
}

const Record& StrikeSequenceInput::record() {
    using In = StrikeSequenceInput;
    static const Record record = [] {
        Fields<In> fields;
        fields.add("kind", &In::kind, "", "what counts").choices({"countwheel", "rack"}).because("the older of the two");
        add_scheme(fields)
            .add("faults", &In::faults, "", "what is wrong")
            .add("from", &In::from, "", "hour that it begins with", between(1, 1000))
            .because("one o'clock")
            .add("hours", &In::hours, "", "that are stepped through", between(1, 10000))
            .because("once round the dial");
        return Record(fields);
    }();
    return record;
}

const Record& StruckHour::record() {
    using Out = StruckHour;
    static const Record record = Fields<Out>()
                                     .add("hour", &Out::hour, "h", "12.5 is half past twelve")
                                     .add("should", &Out::should, "", "blows")
                                     .add("strikes", &Out::strikes, "", "blows; null: it runs on")
                                     .add("early", &Out::early, "", "of them at the warning");
    return record;
}

const Record& StrikeSequenceResult::record() {
    using Out = StrikeSequenceResult;
    static const Record record = Fields<Out>()
                                     .add("sequence", &Out::sequence, "", "one after the other")
                                     .add("wrong", &Out::wrong, "", "of them")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& strike_sequence_calculation() {
    static const Calculation calculation = declare<StrikeSequenceInput, StrikeSequenceResult>(
        "strike.sequence", "A strike stepped through its hours: what it should strike and what it does with faults in it.", sequence_source,
        strike_sequence, explain_strike_sequence);
    return calculation;
}

}  // namespace echappe
