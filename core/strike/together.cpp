#include "strike/together.h"

#include <algorithm>
#include <cmath>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* together_source = "exact fractions of the counts; where a strike must stand: workshop practice";
constexpr double turn_deg = 360;
// Part of a pitch that is still to go when the hammer has just fallen, and the least of it.
constexpr double just_fallen = 0.92, still_fallen = 0.75;
constexpr double half_turn_deg = 180, about_half_deg = 70;

/// The chain behind the pin wheel, and where its arbors stand to each other.
class Standing {
public:
    explicit Standing(const StrikeTogetherInput& in) : m_in(in), m_network(network_of(train_of(in))) {
        for (const Network::Part& part : m_network.parts)
            if (!part.count.known()) throw InputError(part.place, "a lost count", "its count; lost ones are found with the train");
        m_locking = place(in.locking, "locking");
        if (in.warning) m_warning = place(*in.warning, "warning");
        for (const size_t arbor : {m_locking, m_warning.value_or(m_locking)})
            for (const Network::Step& step : m_network.path[arbor])
                if (step.sense < 0) throw InputError("locking", m_network.arbors[arbor], "an arbor behind the pin wheel, towards the fly");
        if (m_locking == m_network.reference) throw InputError("locking", in.locking, "an arbor behind the pin wheel");
    }

    /// Turns for a blow.
    double turns(size_t arbor) const {
        const Rational period = period_of(m_network, Rational(m_in.pins), arbor);
        return std::abs(1 / period.to_double());
    }
    size_t locking() const { return m_locking; }
    std::optional<size_t> warning() const { return m_warning; }

    /// A mesh between two arbors, and what one leaf of it moves the further by, as part of a blow.
    struct Step {
        size_t mesh;
        double blow;
    };
    std::vector<Step> to_locking() const { return steps(0, m_network.path[m_locking].size(), m_locking); }
    /// Between locking and warning arbor, whichever lies further.
    std::vector<Step> between() const {
        const auto& lock = m_network.path[m_locking];
        const auto& warn = m_network.path[*m_warning];
        const size_t shared = std::min(lock.size(), warn.size());
        for (size_t i = 0; i < shared; ++i)
            if (lock[i].mesh != warn[i].mesh) throw InputError("warning", *m_in.warning, "an arbor in one chain with the locking arbor");
        return steps(shared, std::max(lock.size(), warn.size()), lock.size() > warn.size() ? m_locking : *m_warning);
    }
    bool warning_is_further() const { return m_network.path[*m_warning].size() > m_network.path[m_locking].size(); }
    StrikeMove move(const Step& step, long long leaves) const {
        const Mesh& mesh = m_network.meshes[step.mesh];
        StrikeMove out;
        out.wheel_of = m_network.arbors[m_network.parts[mesh.wheel].arbor];
        out.pinion_of = m_network.arbors[m_network.parts[mesh.pinion].arbor];
        out.leaves = leaves;
        return out;
    }
    long long leaves(const Step& step) const { return m_network.parts[m_network.meshes[step.mesh].pinion].count.value; }

private:
    static TrainInput train_of(const StrikeTogetherInput& in) {
        TrainInput train;
        train.arbors = in.arbors;
        train.reference.arbor = in.pin_arbor;
        return train;
    }
    size_t place(const std::string& id, const char* field) const {
        const size_t at = m_network.arbor(id);
        if (at == m_network.arbors.size()) throw InputError(field, id, "the id of one of the arbors");
        return at;
    }
    std::vector<Step> steps(size_t from, size_t to, size_t arbor) const {
        std::vector<Step> all;
        for (size_t i = from; i < to; ++i) {
            const size_t mesh = m_network.path[arbor][i].mesh;
            const Network::Part& pinion = m_network.parts[m_network.meshes[mesh].pinion];
            all.push_back({mesh, 1 / (static_cast<double>(pinion.count.value) * turns(pinion.arbor))});
        }
        return all;
    }

    const StrikeTogetherInput& m_in;
    Network m_network;
    size_t m_locking = 0;
    std::optional<size_t> m_warning;
};

double between_0_and_1(double x) { return x - std::floor(x); }

/// The fewest leaves, at one mesh, that bring `now` (in blows) nearest to `wanted`, where it may stand anywhere from `least` on.
std::optional<std::pair<StrikeMove, double>> best_move(const Standing& standing, const std::vector<Standing::Step>& steps, double now,
                                                       double sense, double round, const std::function<double(double)>& off) {
    std::optional<std::pair<StrikeMove, double>> best;
    double best_cost = INFINITY;
    for (const Standing::Step& step : steps)
        for (long long leaves = -standing.leaves(step) / 2; leaves <= standing.leaves(step) / 2; ++leaves) {
            if (leaves == 0) continue;
            const double then = round * between_0_and_1((now + sense * static_cast<double>(leaves) * step.blow) / round);
            // Off first; of equals the fewer leaves.
            constexpr double a_leaf = 1e-4;
            const double cost = std::abs(off(then)) + a_leaf * static_cast<double>(std::abs(leaves));
            if (cost < best_cost) best_cost = cost, best = {standing.move(step, leaves), then};
        }
    return best;
}

/// 0 inside the range, else how far outside.
double outside(double value, double from, double to) { return value < from ? value - from : value > to ? value - to : 0; }

void move_hammer(const StrikeTogetherInput& in, const Standing& standing, StrikeTogetherResult& out) {
    if (!in.hammer_falls_in_deg) return;
    const double now = *in.hammer_falls_in_deg / out.pitch_deg, from = out.hammer_from_deg / out.pitch_deg;
    if (now > 1 + 1e-9)
        throw InputError("hammer_falls_in_deg", print_short(*in.hammer_falls_in_deg),
                         "up to a pitch of the pins, " + print_short(out.pitch_deg, 4) + "°");
    out.hammer_right = outside(now, from, 1) == 0;
    if (out.hammer_right) return;
    const auto off = [&](double then) { return outside(then, from, 1) != 0 ? then - just_fallen : 0.01 * (then - just_fallen); };
    if (auto best = best_move(standing, standing.to_locking(), now, 1, 1, off)) {
        best->first.for_what = "hammer";
        best->first.left_deg = outside(best->second, from, 1) * out.pitch_deg;
        out.moves.push_back(best->first);
    }
}

void move_warning(const StrikeTogetherInput& in, const Standing& standing, StrikeTogetherResult& out) {
    if (!in.warning_run_deg || !standing.warning()) return;
    out.warning_right = outside(*in.warning_run_deg, *out.warning_from_deg, *out.warning_to_deg) == 0;
    if (out.warning_right) return;
    const double turns = standing.turns(*standing.warning());
    const double now = *in.warning_run_deg / turn_deg / turns, whole_turn = 1 / turns;
    const auto off = [&](double then) { return then * turns - half_turn_deg / turn_deg; };
    // On with the warning wheel its pin is nearer to the piece; on with the locking wheel it is locked sooner, and the run is longer.
    const double sense = standing.warning_is_further() ? -1 : 1;
    if (auto best = best_move(standing, standing.between(), now, sense, whole_turn, off)) {
        best->first.for_what = "warning";
        best->first.left_deg = off(best->second) * turn_deg;
        out.moves.push_back(best->first);
    }
}

std::string called(const StrikeTogetherInput& in, const std::string& id) {
    const auto name = in.names.find(id);
    return name == in.names.end() ? id : name->second;
}

std::string in_words(const StrikeTogetherInput& in, const StrikeMove& move) {
    const std::string wheel = called(in, move.wheel_of), pinion = called(in, move.pinion_of);
    const long long many = std::abs(move.leaves);
    return "Part " + wheel + " and " + pinion + ", and turn " + pinion + " " + (move.leaves > 0 ? "on" : "back") + " by " +
           (many == 1 ? "a leaf" : std::to_string(many) + " leaves") + ": the " + move.for_what +
           (std::abs(move.left_deg) < 1 ? " stands right then."
                                        : " is " + print_fixed(std::abs(move.left_deg), 0) + "° off then, the nearest that teeth allow.");
}

void say(const StrikeTogetherInput& in, StrikeTogetherResult& out) {
    out.marks.push_back((in.hammers == 2 ? "Of the two hammers the one that falls last has just fallen: the pin wheel has "
                                         : "The hammer has just fallen: the pin wheel has ") +
                        print_fixed(out.hammer_from_deg, 0) + "° to " + print_fixed(out.hammer_to_deg, 0) +
                        "° to go to its next fall, and " + (in.hammers == 2 ? "both tails hang" : "the tail hangs") +
                        " clear of the next pin.");
    const std::string how = in.locked_by == "pin"   ? "its pin against the detent"
                            : in.locked_by == "cam" ? "the detent down at the cam's low"
                                                    : "the detent in the middle of its hoop's gap";
    out.marks.push_back(called(in, in.locking) + " is locked: " + how + ", or the gathering pallet clear of the rack.");
    if (out.warning_wanted_deg)
        out.marks.push_back("The pin of " + called(in, *in.warning) + " is about half a turn from its piece: it runs " +
                            print_fixed(*out.warning_blow, 2) + " of a blow at the warning and is caught.");
    if (!in.hammer_falls_in_deg && !in.warning_run_deg) {
        out.verdict = "Look at it locked, before the plates are pinned: how far the pin wheel and the warning wheel have to go.";
        return;
    }
    out.verdict = out.right ? "It stands right: the plates can be pinned." : "";
    for (const StrikeMove& move : out.moves) out.verdict += (out.verdict.empty() ? "" : " ") + in_words(in, move);
}

}  // namespace

StrikeTogetherResult strike_together(const StrikeTogetherInput& in) {
    const Standing standing(in);
    StrikeTogetherResult out;
    out.pitch_deg = turn_deg / static_cast<double>(in.pins);
    double run_blow = 0;
    if (standing.warning()) {
        const double turns = standing.turns(*standing.warning());
        out.warning_wanted_deg = half_turn_deg;
        out.warning_from_deg = half_turn_deg - about_half_deg, out.warning_to_deg = half_turn_deg + about_half_deg;
        run_blow = half_turn_deg / turn_deg / turns;
        out.warning_blow = run_blow;
        double finest = INFINITY;
        for (const Standing::Step& step : standing.between()) finest = std::min(finest, step.blow * turns * turn_deg);
        if (std::isfinite(finest)) out.warning_step_deg = finest;
    }
    // Nothing may be lifted while it runs to the warning.
    const double lifted = in.lift_deg ? *in.lift_deg / out.pitch_deg + run_blow : 0;
    if (lifted >= 1)
        throw InputError(
            "lift_deg", print_short(*in.lift_deg),
            "less than a pitch of the pins without the run at the warning, " + print_short((1 - run_blow) * out.pitch_deg, 4) + "°");
    out.hammer_from_deg = std::max(still_fallen, lifted) * out.pitch_deg, out.hammer_to_deg = out.pitch_deg;
    out.hammer_usual_deg = std::max(just_fallen, lifted) * out.pitch_deg;
    double finest = INFINITY;
    for (const Standing::Step& step : standing.to_locking()) finest = std::min(finest, step.blow * out.pitch_deg);
    out.hammer_step_deg = finest;
    move_hammer(in, standing, out);
    move_warning(in, standing, out);
    out.right = out.hammer_right && out.warning_right;
    say(in, out);
    return out;
}

std::vector<Working> explain_strike_together(const StrikeTogetherInput& in, const StrikeTogetherResult& out) {
    std::vector<Working> list = {work_out("pitch of the pins", "p = 360° ÷ n", {given("n", "pins", static_cast<double>(in.pins), "")},
                                          "deg", together_source, [](auto x) { return turn_deg / x[0]; })};
    for (const std::string& mark : out.marks) list.back().notes.push_back(mark);
    list.back().notes.push_back(out.verdict);
    return list;
}

const Record& StrikeTogetherInput::record() {
    using In = StrikeTogetherInput;
    static const Record record =
        Fields<In>()
            .add("arbors", &In::arbors, "", "the arbors, in the order of the power")
            .required()
            .add("pin_arbor", &In::pin_arbor, "", "that carries the pins for the hammer")
            .required()
            .add("pins", &In::pins, "", "on it", between(1, 200))
            .required()
            .add("locking", &In::locking, "", "arbor that locks")
            .required()
            .add("warning", &In::warning, "", "arbor whose pin is caught at the warning")
            .add("locked_by", &In::locked_by, "", "what the detent stops it by")
            .choices({"hoop", "pin", "cam"})
            .because("the commonest of old work")
            .add("hammers", &In::hammers, "", "two: each blow is a pair; the angle is of the one that falls last", between(1, 2))
            .because("one bell")
            .add("hammer_falls_in_deg", &In::hammer_falls_in_deg, "deg",
                 "turn of the pin wheel from locked to the hammer's next fall, as seen", between(0, 360))
            .add("warning_run_deg", &In::warning_run_deg, "deg", "turn of the warning wheel from locked to its piece, as seen",
                 between(0, 360))
            .add("lift_deg", &In::lift_deg, "deg", "turn of the pin wheel while a pin lifts the hammer", above(0, 360));
    return record;
}

const Record& StrikeMove::record() {
    using Out = StrikeMove;
    static const Record record = Fields<Out>()
                                     .add("wheel_of", &Out::wheel_of, "", "of the mesh that is parted")
                                     .add("pinion_of", &Out::pinion_of, "", "and the arbor that is turned")
                                     .add("leaves", &Out::leaves, "", "that it goes on in its own direction; negative: back")
                                     .add("for_what", &Out::for_what, "", "hammer or warning")
                                     .add("left_deg", &Out::left_deg, "deg", "that this stands off after the move");
    return record;
}

const Record& StrikeTogetherResult::record() {
    using Out = StrikeTogetherResult;
    static const Record record =
        Fields<Out>()
            .add("pitch_deg", &Out::pitch_deg, "deg", "from pin to pin")
            .add("hammer_from_deg", &Out::hammer_from_deg, "deg", "least turn of the pin wheel to the next fall")
            .add("hammer_to_deg", &Out::hammer_to_deg, "deg", "and the most")
            .add("warning_wanted_deg", &Out::warning_wanted_deg, "deg", "run of the warning wheel")
            .add("warning_blow", &Out::warning_blow, "", "that run, as part of a blow")
            .add("hammer_step_deg", &Out::hammer_step_deg, "deg", "that a leaf of the finest mesh moves the pins by")
            .add("warning_step_deg", &Out::warning_step_deg, "deg", "and the warning wheel")
            .add("moves", &Out::moves, "", "in their order")
            .add("marks", &Out::marks, "", "to look for before the plates close")
            .add("right", &Out::right, "", "by what was seen")
            .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& strike_together_calculation() {
    static const Calculation calculation = declare<StrikeTogetherInput, StrikeTogetherResult>(
        "strike.together", "How the wheels of a strike must stand when the plates close, and the leaf to move where they do not.",
        together_source, strike_together, explain_strike_together);
    return calculation;
}

}  // namespace echappe
