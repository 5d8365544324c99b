#include "strike/strike_train.h"

#include <algorithm>
#include <cmath>

#include "number/input_error.h"
#include "number/numeral.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* strike_train_source = "exact fractions of the counts";
constexpr double half_days_a_day = 2;

/// Counts and what is asked of them, by place.
class StrikeTrain {
public:
    explicit StrikeTrain(const StrikeTrainInput& in) : m_network(network_of(train_of(in))), m_pins(in.pins) {
        for (const Network::Part& part : m_network.parts)
            if (!part.count.known()) throw InputError(part.place, "a lost count", "its count; lost ones are found with the train");
        for (const std::string& id : in.gathering) m_asked.push_back({place_of(id, "gathering"), true});
        for (const std::string& id : in.whole) m_asked.push_back({place_of(id, "whole"), false});
        if (in.fly) place_of(*in.fly, "fly");
    }

    /// Asked of one arbor: just one turn a blow, or any whole number.
    struct Asked {
        size_t arbor;
        bool once;
    };
    const std::vector<Asked>& asked() const { return m_asked; }
    const Network& network() const { return m_network; }

    size_t place_of(const std::string& id, const char* field) const {
        const size_t at = m_network.arbor(id);
        if (at == m_network.arbors.size()) throw InputError(field, id, "the id of one of the arbors");
        return at;
    }
    /// Without regard to the way it turns: periods are counted in blows.
    Rational turns(size_t arbor) const {
        const Rational period = period_of(m_network, Rational(m_pins), arbor);
        return Rational(1) / (period.num() < 0 ? -period : period);
    }
    bool right(const Asked& asked) const {
        const Rational now = turns(asked.arbor);
        return asked.once ? now == Rational(1) : now.den() == 1;
    }

    std::vector<StrikeMend> mends(const Asked& asked) {
        std::vector<bool> before;
        for (const Asked& one : m_asked) before.push_back(right(one));
        std::vector<StrikeMend> all;
        const auto try_count = [&](long long& count, long long least, long long most, const std::string& arbor, const std::string& part) {
            const long long held = count;
            // Beyond twice or half of what it is, it would be another wheel.
            for (long long other = std::max(least, held / 2); other <= std::min(most, 2 * held); ++other) {
                count = other;
                if (other != held && right(asked) && all_that_were(before)) all.push_back({arbor, part, other});
            }
            count = held;
        };
        for (const Network::Step step : m_network.path[asked.arbor])
            for (const size_t index : {m_network.meshes[step.mesh].wheel, m_network.meshes[step.mesh].pinion}) {
                Network::Part& part = m_network.parts[index];
                const std::string& arbor = m_network.arbors[part.arbor];
                const std::string own = part.name.rfind(arbor + ".", 0) == 0 ? part.name.substr(arbor.size() + 1) : part.name;
                try_count(part.count.value, 4, part.drives ? 1000 : 200, arbor, own);
            }
        try_count(m_pins, 2, 60, m_network.arbors[m_network.reference], "pins");
        return all;
    }

private:
    static TrainInput train_of(const StrikeTrainInput& in) {
        if (std::none_of(in.arbors.begin(), in.arbors.end(), [&](const ArborInput& arbor) { return arbor.id == in.pin_arbor; }))
            throw InputError("pin_arbor", in_quotes(in.pin_arbor), "the id of one of the arbors");
        TrainInput train;
        train.arbors = in.arbors;
        train.reference.arbor = in.pin_arbor;
        return train;
    }
    bool all_that_were(const std::vector<bool>& before) const {
        for (size_t i = 0; i < m_asked.size(); ++i)
            if (before[i] && !right(m_asked[i])) return false;
        return true;
    }

    Network m_network;
    long long m_pins = 0;
    std::vector<Asked> m_asked;
};

StrikeTrainFault fault_of(StrikeTrain& train, const StrikeTrain::Asked& asked) {
    const std::string turns = train.turns(asked.arbor).to_string();
    StrikeTrainFault fault{
        train.network().arbors[asked.arbor],
        asked.once ? "It turns " + turns + " a blow and not once: the gathering pallet would not stand where it locks."
                   : "It turns " + turns + " a blow, which is not whole: after some blows its pin is no longer where it must lock.",
        train.mends(asked)};
    return fault;
}

std::string in_words(const StrikeTrainInput& in, const StrikeTrainResult& out) {
    std::string words = out.faults.empty() ? "Every arbor that locks stands after each blow where it stood before."
                                           : std::to_string(out.faults.size()) + " of its arbors cannot lock after every blow.";
    if (out.days) words += " It runs " + print_fixed(*out.days, 2) + " days.";
    // A longcase of 64, 8/56, 7/49, 7 has 1120 at 3 s a blow and 1680 at 2.
    constexpr double slow_rpm = 60, fast_rpm = 2500;
    if (out.fly_rpm && *out.fly_rpm < slow_rpm) words += " So slow a fly hardly brakes: look at its arbor's counts.";
    if (out.fly_rpm && *out.fly_rpm > fast_rpm) words += " So fast a fly is heard, and wears its pivots.";
    if (in.gathering.empty() && in.whole.empty()) words += " Nothing was asked of its locking and warning arbors.";
    return words;
}

}  // namespace

StrikeTrainResult strike_train(const StrikeTrainInput& in) {
    if (in.great_turns && in.days)
        throw InputError("days", print_short(*in.days), "nothing where `great_turns` is told: one follows from the other");
    StrikeTrain train(in);
    StrikeTrainResult out;
    const auto& arbors = train.network().arbors;
    for (size_t i = 0; i < arbors.size(); ++i) out.turns_per_blow.push_back({arbors[i], train.turns(i).to_string()});
    for (const StrikeTrain::Asked& asked : train.asked())
        if (!train.right(asked)) out.faults.push_back(fault_of(train, asked));
    const double each_day = half_days_a_day * static_cast<double>(in.blows_per_12h) * train.turns(0).to_double();
    if (in.great_turns) out.days = *in.great_turns / each_day;
    if (in.days) out.great_turns = *in.days * each_day;
    if (in.fly) out.fly_rpm = train.turns(train.place_of(*in.fly, "fly")).to_double() / in.seconds_per_blow * 60;
    out.verdict = in_words(in, out);
    return out;
}

std::vector<Working> explain_strike_train(const StrikeTrainInput& in, const StrikeTrainResult& out) {
    const StrikeTrain train(in);
    std::vector<Working> list = {work_out("turns of the pin wheel for a blow", "t = 1 ÷ p",
                                          {given("p", "pins", static_cast<double>(in.pins), "")}, "", strike_train_source,
                                          [](auto x) { return 1 / x[0]; })};
    list.push_back(work_out("great wheel's turns in a day", "T = 2 b t",
                            {given("b", "blows in twelve hours", static_cast<double>(in.blows_per_12h), ""),
                             given("t", "its turns a blow", train.turns(0).to_double(), "")},
                            "", strike_train_source, [](auto x) { return half_days_a_day * x[0] * x[1]; }));
    if (in.fly)
        list.push_back(work_out("fly", "n = 60 f ÷ s",
                                {given("f", "its turns a blow", train.turns(train.place_of(*in.fly, "fly")).to_double(), ""),
                                 given("s", "seconds a blow", in.seconds_per_blow, "s")},
                                "1/min", strike_train_source, [](auto x) { return 60 * x[0] / x[1]; }));
    list.back().notes.push_back(out.verdict);
    return list;
}

const Record& StrikeTrainInput::record() {
    using In = StrikeTrainInput;
    static const Record record = Fields<In>()
                                     .add("arbors", &In::arbors, "", "the arbors, in the order of the power")
                                     .required()
                                     .add("pin_arbor", &In::pin_arbor, "", "that carries the pins for the hammer")
                                     .required()
                                     .add("pins", &In::pins, "", "on it", between(1, 200))
                                     .required()
                                     .add("gathering", &In::gathering, "", "arbors that must turn just once a blow")
                                     .add("whole", &In::whole, "", "arbors that lock or warn: a whole number of turns a blow")
                                     .add("fly", &In::fly, "", "arbor of the fly")
                                     .add("seconds_per_blow", &In::seconds_per_blow, "s", "from blow to blow", above(0, 60))
                                     .because("a strike that can be counted")
                                     .add("blows_per_12h", &In::blows_per_12h, "", "of all strikes together", between(1, 100000))
                                     .because("hours alone")
                                     .add("great_turns", &In::great_turns, "", "of the first arbor that the power gives", above(0, 1e6))
                                     .add("days", &In::days, "d", "or that it shall run", above(0, 10000));
    return record;
}

const Record& TurnsPerBlow::record() {
    using Out = TurnsPerBlow;
    static const Record record =
        Fields<Out>().add("id", &Out::id, "", "arbor").add("turns", &Out::turns, "", "a blow, as an exact fraction");
    return record;
}

const Record& StrikeMend::record() {
    using Out = StrikeMend;
    static const Record record = Fields<Out>()
                                     .add("arbor", &Out::arbor, "", "of the count")
                                     .add("part", &Out::part, "", "wheel, pinion, a named one, or pins")
                                     .add("count", &Out::count, "", "that would be right");
    return record;
}

const Record& StrikeTrainFault::record() {
    using Out = StrikeTrainFault;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "arbor")
                                     .add("reason", &Out::reason, "", "what is wrong with it")
                                     .add("mend", &Out::mend, "", "single counts that would put it right and upset nothing");
    return record;
}

const Record& StrikeTrainResult::record() {
    using Out = StrikeTrainResult;
    static const Record record = Fields<Out>()
                                     .add("turns_per_blow", &Out::turns_per_blow, "", "of every arbor")
                                     .add("faults", &Out::faults, "", "arbors that do not turn as they must")
                                     .add("days", &Out::days, "d", "that it runs")
                                     .add("great_turns", &Out::great_turns, "", "of the first arbor that it needs")
                                     .add("fly_rpm", &Out::fly_rpm, "1/min", "of the fly")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& strike_train_calculation() {
    static const Calculation calculation = declare<StrikeTrainInput, StrikeTrainResult>(
        "strike.train", "A striking train: turns of every arbor for a blow, what cannot lock, how long it runs and how fast the fly turns.",
        strike_train_source, strike_train, explain_strike_train);
    return calculation;
}

}  // namespace echappe
