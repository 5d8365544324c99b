#include "power/power_chain.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

// Notation: M torque, n and N counts, η efficiency, E energy, Q quality of the oscillator, θ semi-arc or amplitude.

namespace echappe {
namespace {

constexpr const char* power_chain_source = "work through a train; an oscillator of quality Q loses 2π E ÷ Q a period";

/// The meshes from the arbor where the power comes in to the escape wheel, in order.
std::vector<size_t> way_of_power(const Network& network, size_t from, size_t to) {
    std::vector<size_t> way;
    for (size_t at = to; at != from;) {
        const auto mesh =
            std::find_if(network.meshes.begin(), network.meshes.end(), [&](const Mesh& m) { return network.parts[m.pinion].arbor == at; });
        if (mesh == network.meshes.end() || way.size() > network.meshes.size())
            throw InputError("from_arbor", "\"" + network.arbors[from] + "\"", "an arbor that drives the escape wheel");
        way.push_back(static_cast<size_t>(mesh - network.meshes.begin()));
        at = network.parts[mesh->wheel].arbor;
    }
    return {way.rbegin(), way.rend()};
}

size_t first_arbor(const PowerChainInput& in, const Network& network, size_t escape) {
    if (in.from_arbor) {
        const size_t from = network.arbor(*in.from_arbor);
        if (from == network.arbors.size()) throw InputError("from_arbor", "\"" + *in.from_arbor + "\"", "an arbor of the train");
        return from;
    }
    size_t at = escape;
    for (size_t guard = 0; guard <= network.meshes.size(); ++guard) {
        const auto mesh =
            std::find_if(network.meshes.begin(), network.meshes.end(), [&](const Mesh& m) { return network.parts[m.pinion].arbor == at; });
        if (mesh == network.meshes.end()) break;
        at = network.parts[mesh->wheel].arbor;
    }
    return at;
}

const PowerMesh* told_of(const PowerChainInput& in, const std::string& wheel_of, const std::string& pinion_of) {
    for (const PowerMesh& mesh : in.meshes)
        if (mesh.wheel_of == wheel_of && mesh.pinion_of == pinion_of) return &mesh;
    return nullptr;
}

double pivot_of(const PowerChainInput& in, const std::string& arbor) {
    for (const PowerPivots& pivots : in.pivots)
        if (pivots.arbor == arbor) return pivots.diameter_mm;
    return 0;
}

void check_names(const PowerChainInput& in, const Network& network) {
    for (size_t i = 0; i < in.meshes.size(); ++i) {
        const auto there = std::any_of(network.meshes.begin(), network.meshes.end(), [&](const Mesh& m) {
            return network.arbors[network.parts[m.wheel].arbor] == in.meshes[i].wheel_of &&
                   network.arbors[network.parts[m.pinion].arbor] == in.meshes[i].pinion_of;
        });
        if (!there)
            throw InputError("meshes[" + std::to_string(i) + "]", in.meshes[i].wheel_of + " and " + in.meshes[i].pinion_of,
                             "a wheel and a pinion that mesh");
    }
    for (size_t i = 0; i < in.pivots.size(); ++i)
        if (network.arbor(in.pivots[i].arbor) == network.arbors.size())
            throw InputError("pivots[" + std::to_string(i) + "].arbor", "\"" + in.pivots[i].arbor + "\"", "an arbor of the train");
}

/// Energy of a swing to this side, J.
double energy_of(const PowerOscillator& o, double angle_deg, double omega) {
    if (o.kind == "pendulum") return *o.mass_kg * o.gravity_m_s2 * *o.length_mm / 1000 * (1 - std::cos(angle_deg * rad_per_deg));
    return *o.inertia_kg_m2 * omega * omega * std::pow(angle_deg * rad_per_deg, 2) / 2;
}

/// The swing with this energy; a pendulum cannot swing past the top.
double swing_with(const PowerOscillator& o, double energy, double omega) {
    if (o.kind == "pendulum")
        return std::acos(std::clamp(1 - energy / (*o.mass_kg * o.gravity_m_s2 * *o.length_mm / 1000), -1.0, 1.0)) / rad_per_deg;
    return std::sqrt(2 * energy / (*o.inertia_kg_m2 * omega * omega)) / rad_per_deg;
}

void check(const PowerOscillator& o) {
    if (o.kind == "pendulum" && !(o.mass_kg && o.length_mm))
        throw InputError(o.mass_kg ? "oscillator.length_mm" : "oscillator.mass_kg", "nothing", "mass_kg and length_mm of the pendulum");
    if (o.kind == "balance" && !o.inertia_kg_m2) throw InputError("oscillator.inertia_kg_m2", "nothing", "the balance's inertia");
}

void judge(const PowerChainInput& in, PowerChainResult& out, double omega) {
    const PowerOscillator& o = in.oscillator;
    const double at_end = o.escapement_efficiency_end.value_or(o.escapement_efficiency);
    const auto swing = [&](double per_beat, double efficiency) { return swing_with(o, per_beat * efficiency * o.Q / pi, omega); };
    out.energy_kept_J = out.energy_per_beat_J * o.escapement_efficiency * o.Q / pi;
    (o.kind == "pendulum" ? out.semi_arc_deg : out.amplitude_deg) = swing(out.energy_per_beat_J, o.escapement_efficiency);
    (o.kind == "pendulum" ? out.semi_arc_end_deg : out.amplitude_end_deg) = swing(out.energy_end_per_beat_J, at_end);
    const double start = swing(out.energy_per_beat_J, o.escapement_efficiency);
    const double end = swing(out.energy_end_per_beat_J, at_end);
    const std::string told =
        "Expected swing " + print_short(start, 2) + "° to each side at the start, " + print_short(end, 2) + "° at the end";
    constexpr double banking_deg = 330;
    if (o.kind == "balance" && start > banking_deg)
        out.verdict =
            told +
            ": by these figures it would knock the banking. Check the figures first, the assumed efficiency too. Then fit a weaker spring.";
    if (!o.needed_deg) {
        if (out.verdict.empty()) out.verdict = told + ". Say what swing is needed, and the margin follows.";
        return;
    }
    const double needed = energy_of(o, *o.needed_deg, omega);
    const double kept_end = out.energy_end_per_beat_J * at_end * o.Q / pi;
    out.margin = kept_end / needed;
    if (*out.margin > 0) out.least_torque_N_mm = in.torque_end_N_mm.value_or(in.torque_N_mm) / *out.margin;
    if (!out.verdict.empty()) return;
    // Told by the arc: the energy goes with its square, and four times of that is an ordinary clock's twice the arc.
    // A balance has its own bound, the banking.
    const double wide = *o.needed_deg > 0 && o.kind == "pendulum" ? start / *o.needed_deg : 0;
    const std::string times = print_times(end / *o.needed_deg) + " times the " + print_short(*o.needed_deg, 3) + " deg that it needs";
    if (*out.margin < 1) out.verdict = told + ": too weak, " + times + ". Look for the worst mesh and dry pivots before a stronger drive.";
    else if (*out.margin < weak_margin) out.verdict = told + ": weak, " + times + ". Clean and oil first; then the drive.";
    else if (wide > wide_swing)
        out.verdict = told + ": it swings wide, " + times +
                      ". First see whether weight and spring are the clock's own. An original weight stays with the clock.";
    else out.verdict = told + ": right, " + times + ".";
}

}  // namespace

const Record& PowerMesh::record() {
    using In = PowerMesh;
    static const Record record = Fields<In>()
                                     .add("wheel_of", &In::wheel_of, "", "arbor of the wheel")
                                     .required()
                                     .add("pinion_of", &In::pinion_of, "", "arbor of the pinion")
                                     .required()
                                     .add("efficiency", &In::efficiency, "", "work passed on, as from mesh.simulate", above(0, 1))
                                     .add("module_mm", &In::module_mm, "mm", "of the teeth", above(0, 100))
                                     .add("tooth_width_mm", &In::tooth_width_mm, "mm", "of the thinner part", above(0, 500));
    return record;
}

const Record& PowerPivots::record() {
    using In = PowerPivots;
    static const Record record = Fields<In>()
                                     .add("arbor", &In::arbor, "", "whose pivots")
                                     .required()
                                     .add("diameter_mm", &In::diameter_mm, "mm", "of its pivots", above(0, 100))
                                     .required();
    return record;
}

const Record& PowerOscillator::record() {
    using In = PowerOscillator;
    static const Record record =
        Fields<In>()
            .add("kind", &In::kind, "", "what swings")
            .choices({"pendulum", "balance"})
            .because("most clocks have one")
            .add("mass_kg", &In::mass_kg, "kg", "of the pendulum", above(0, 1e5))
            .add("length_mm", &In::length_mm, "mm", "of the simple pendulum", above(0, 1e6))
            .because("it beats seconds")
            .add("inertia_kg_m2", &In::inertia_kg_m2, "kg m²", "of the balance", above(0, 1))
            .add("Q", &In::Q, "", "quality: pendulum 1 000 to 15 000, balance 150 to 300", above(0, 1e9))
            .because("an ordinary pendulum with a lens bob; a balance has far less")
            .add("escapement_efficiency", &In::escapement_efficiency, "", "deadbeat and lever 0.3 to 0.5, recoil 0.2 to 0.35", above(0, 1))
            .because("the middle of what deadbeat and lever give, until the escapement is known")
            .add("escapement_efficiency_end", &In::escapement_efficiency_end, "", "at the end of the run; absent: the same", above(0, 1))
            .add("needed_deg", &In::needed_deg, "deg", "least swing to one side: pendulum to unlock, balance to keep its rate",
                 above(0, 350))
            .add("gravity_m_s2", &In::gravity_m_s2, "m/s²", "at the place", between(0.1, 100))
            .because("the standard value; places differ by up to 0.03");
    return record;
}

const Record& PowerChainInput::record() {
    using In = PowerChainInput;
    static const Record record =
        Fields<In>()
            .include(&In::train)
            .add("from_arbor", &In::from_arbor, "", "where the power comes in; absent: the arbor that nothing drives")
            .add("torque_N_mm", &In::torque_N_mm, "N mm", "there, at the start of the run", above(0, 1e8))
            .required()
            .add("torque_end_N_mm", &In::torque_end_N_mm, "N mm", "and at its end", above(0, 1e8))
            .add("efficiency", &In::efficiency, "", "of a mesh not listed", above(0, 1))
            .because("cycloidal teeth in good depth with oiled pivots lose 3 to 7 %")
            .add("meshes", &In::meshes, "", "what is known of single meshes")
            .add("pivots", &In::pivots, "", "diameters; without, their friction is in the efficiency")
            .add("friction", &In::friction, "", "of pivots in their holes", between(0, 1))
            .because("oiled brass on steel")
            .add("oscillator", &In::oscillator, "", "what the escapement keeps swinging")
            .required();
    return record;
}

const Record& PowerAtArbor::record() {
    using Out = PowerAtArbor;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "arbor")
                                     .add("torque_N_mm", &Out::torque_N_mm, "N mm", "that it has to pass on, at the start")
                                     .add("torque_end_N_mm", &Out::torque_end_N_mm, "N mm", "at the end of the run")
                                     .add("power_W", &Out::power_W, "W", "at the start")
                                     .add("lost_share", &Out::lost_share, "", "of what the arbor before had")
                                     .add("pivot_friction_N_mm", &Out::pivot_friction_N_mm, "N mm", "of its two pivots")
                                     .add("tooth_load_N", &Out::tooth_load_N, "N", "on its pinion")
                                     .add("load_per_width_N_mm", &Out::load_per_width_N_mm, "N/mm", "for each mm of tooth width");
    return record;
}

const Record& PowerChainResult::record() {
    using Out = PowerChainResult;
    static const Record record =
        Fields<Out>()
            .add("arbors", &Out::arbors, "", "from the power to the escape wheel")
            .add("efficiency", &Out::efficiency, "", "of the whole train")
            .add("energy_per_beat_J", &Out::energy_per_beat_J, "J", "at the escape wheel, at the start")
            .add("energy_end_per_beat_J", &Out::energy_end_per_beat_J, "J", "and at the end")
            .add("energy_kept_J", &Out::energy_kept_J, "J", "swinging, at the start")
            .add("semi_arc_deg", &Out::semi_arc_deg, "deg", "of the pendulum, at the start")
            .add("semi_arc_end_deg", &Out::semi_arc_end_deg, "deg", "and at the end")
            .add("amplitude_deg", &Out::amplitude_deg, "deg", "of the balance, at the start")
            .add("amplitude_end_deg", &Out::amplitude_end_deg, "deg", "and at the end")
            .add("margin", &Out::margin, "", "energy at the end ÷ energy for the needed swing")
            .add("least_torque_N_mm", &Out::least_torque_N_mm, "N mm", "at the start of the train, that keeps the needed swing")
            .add("verdict", &Out::verdict, "", "in words");
    return record;
}

double usual_escapement_efficiency(const std::string& escapement) {
    if (escapement == "recoil") return 0.28;
    if (escapement == "verge") return 0.2;
    return escapement == "cylinder" || escapement == "pin-pallet" ? 0.3 : 0.4;
}

PowerChainResult power_chain(const PowerChainInput& in) {
    check(in.oscillator);
    const Network network = network_of(in.train);
    if (!network.escape_part) throw InputError("escape_arbor", "nothing", "the arbor of the escape wheel");
    check_names(in, network);
    const size_t escape = network.parts[*network.escape_part].arbor;
    const auto period = periods(network, in.train.reference.period_s);
    const auto count = [&](size_t part) {
        if (!network.parts[part].count.known()) throw InputError(network.parts[part].place, "a lost count", "a count: restore it first");
        return static_cast<double>(network.parts[part].count.value);
    };
    // A spring that has run down drives nothing: there is no share of nothing.
    const double end_share = in.torque_N_mm > 0 ? in.torque_end_N_mm.value_or(in.torque_N_mm) / in.torque_N_mm : 0;
    PowerChainResult out;
    const auto add = [&](size_t arbor, double torque) -> PowerAtArbor& {
        PowerAtArbor& at = out.arbors.emplace_back();
        at.id = network.arbors[arbor];
        at.torque_N_mm = torque;
        at.power_W = torque / 1000 * 2 * pi / std::abs(period[arbor].to_double());
        return at;
    };
    const size_t from = first_arbor(in, network, escape);
    double torque = in.torque_N_mm;
    add(from, torque);
    const std::vector<size_t> way = way_of_power(network, from, escape);
    double load_before = 0;
    for (size_t k = 0; k < way.size(); ++k) {
        const Mesh& mesh = network.meshes[way[k]];
        const size_t arbor = network.parts[mesh.pinion].arbor;
        const PowerMesh* known = told_of(in, network.arbors[network.parts[mesh.wheel].arbor], network.arbors[arbor]);
        const double leaves = count(mesh.pinion);
        const double ideal = torque * leaves / count(mesh.wheel);
        torque = ideal * (known ? known->efficiency.value_or(in.efficiency) : in.efficiency);
        PowerAtArbor& at = add(arbor, torque);
        double load = 0;
        if (known && known->module_mm) {
            load = torque / (leaves * *known->module_mm / 2);
            at.tooth_load_N = load;
            if (known->tooth_width_mm) at.load_per_width_N_mm = load / *known->tooth_width_mm;
        }
        // The wheel of this arbor pushes back on it about square to its pinion: so much for a load not known in direction.
        const Mesh* next = k + 1 < way.size() ? &network.meshes[way[k + 1]] : nullptr;
        const PowerMesh* ahead = next ? told_of(in, network.arbors[arbor], network.arbors[network.parts[next->pinion].arbor]) : nullptr;
        load_before = ahead && ahead->module_mm ? torque / (count(next->wheel) * *ahead->module_mm / 2) : 0;
        at.pivot_friction_N_mm = in.friction * pivot_of(in, at.id) / 2 * std::hypot(load, load_before);
        at.torque_N_mm = torque = std::max(0.0, torque - at.pivot_friction_N_mm);
        at.power_W = torque / 1000 * 2 * pi / std::abs(period[arbor].to_double());
        at.lost_share = ideal > 0 ? 1 - torque / ideal : 0;
    }
    for (PowerAtArbor& at : out.arbors) at.torque_end_N_mm = at.torque_N_mm * end_share;
    const double beats_a_turn = count(*network.escape_part) * static_cast<double>(in.train.beats_per_tooth);
    out.energy_per_beat_J = torque / 1000 * 2 * pi / beats_a_turn;
    out.energy_end_per_beat_J = out.energy_per_beat_J * end_share;
    out.efficiency = out.arbors.front().power_W > 0 ? out.arbors.back().power_W / out.arbors.front().power_W : 0;
    const double beat_s = std::abs(period[escape].to_double()) / beats_a_turn;
    judge(in, out, pi / beat_s);
    return out;
}

std::vector<Working> explain_power_chain(const PowerChainInput& in, const PowerChainResult& out) {
    const Term M{"M", "torque at the escape wheel", {out.arbors.back().torque_N_mm / 1000, 0}, "N m", 0};
    const double beats = out.arbors.back().torque_N_mm > 0 ? out.arbors.back().torque_N_mm / 1000 * 2 * pi / out.energy_per_beat_J : 0;
    const Term E{"E", "energy a beat", {out.energy_per_beat_J, 0}, "J", 0};
    Working kept = work_out("energy that swings", "W = η E Q ÷ π",
                            {{"η", "escapement's efficiency", {in.oscillator.escapement_efficiency, 0}, "", 0},
                             E,
                             {"Q", "quality", {in.oscillator.Q, 0}, "", 0}},
                            "J", power_chain_source, [](auto x) { return x[0] * x[1] * x[2] / pi; });
    kept.notes = {out.verdict};
    std::vector<Working> list;
    if (beats > 0)
        list.push_back(work_out("energy a beat", "E = 2 π M ÷ z", {M, {"z", "beats in a turn of the escape wheel", {beats, 0}, "", 0}}, "J",
                                power_chain_source, [](auto x) { return 2 * pi * x[0] / x[1]; }));
    list.push_back(kept);
    return list;
}

const Calculation& power_chain_calculation() {
    static const Calculation calculation =
        declare<PowerChainInput, PowerChainResult>("power.chain", "Where the power goes, from the great wheel to the swing it keeps up.",
                                                   power_chain_source, power_chain, explain_power_chain);
    return calculation;
}

}  // namespace echappe
