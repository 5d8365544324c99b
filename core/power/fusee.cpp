#include "power/fusee.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

// Notation: M torque of the barrel, T of the fusee, θ and φ their turns, Rb barrel radius with half the line, ρ radius of the cone.

namespace echappe {
namespace {

constexpr const char* fusee_source = "line tension M ÷ Rb on the radius ρ; work of the barrel = work of the fusee";
constexpr double quarter = 0.25;

TorqueCurve curve_of(const FuseeInput& in) {
    const bool straight = in.torque_set_up_N_mm && in.torque_per_turn_N_mm;
    if (straight == !in.torque_curve.empty())
        throw InputError("torque_curve", straight ? "a curve and a straight spring" : "nothing",
                         "torque_set_up_N_mm with torque_per_turn_N_mm, or a measured torque_curve");
    return straight ? TorqueCurve::line(*in.torque_set_up_N_mm, *in.torque_per_turn_N_mm)
                    : TorqueCurve::through(in.torque_curve, "torque_curve");
}

std::string mm(double value) { return print_fixed(value, 2) + " mm"; }

void warn(const FuseeInput& in, const TorqueCurve& curve, FuseeResult& out) {
    if (out.barrel_turns > curve.end())
        throw InputError("torque_curve", "readings to " + print_short(curve.end()) + " turns",
                         "readings to the " + print_fixed(out.barrel_turns, 2) + " turns this fusee winds");
    constexpr double thin = 3;  // lines
    if (out.small_diameter_mm < thin * in.line_diameter_mm)
        out.warnings.push_back("The small end is only " + mm(out.small_diameter_mm) + ": the line bends sharply there and breaks.");
    constexpr double steep = 2.5;
    if (out.large_diameter_mm > steep * out.small_diameter_mm)
        out.warnings.push_back("The cone is steep, " + mm(out.large_diameter_mm) + " to " + mm(out.small_diameter_mm) +
                               ": more set-up makes it flatter.");
}

}  // namespace

const Record& FuseeInput::record() {
    using In = FuseeInput;
    static const Record record =
        Fields<In>()
            .add("torque_set_up_N_mm", &In::torque_set_up_N_mm, "N mm", "of the barrel at the set-up", above(0, 1e6))
            .add("torque_per_turn_N_mm", &In::torque_per_turn_N_mm, "N mm", "more for each turn of the barrel", between(0, 1e6))
            .add("torque_curve", &In::torque_curve, "", "measured instead: [[turns from the set-up, N mm], …]")
            .add("barrel_diameter_mm", &In::barrel_diameter_mm, "mm", "outside, where the line lies", above(0, 1000))
            .required()
            .add("line_diameter_mm", &In::line_diameter_mm, "mm", "of gut or wire; thickness of a chain", above(0, 50))
            .required()
            .add("chain_thickness_mm", &In::chain_thickness_mm, "mm", "across a chain's links: the pitch of the groove goes by it",
                 above(0, 100))
            .add("fusee_turns", &In::fusee_turns, "", "of the groove that work", above(0.25, 100))
            .required()
            .add("large_diameter_mm", &In::large_diameter_mm, "mm", "to the middle of the line; absent: as many turns as the barrel",
                 above(0, 1000))
            .add("groove_pitch_mm", &In::groove_pitch_mm, "mm", "along the arbor", above(0, 100))
            .add("wraps", &In::wraps, "", "of line that stay on the barrel", between(0, 10))
            .because("the hook is spared and the line cannot slip");
    return record;
}

const Record& FuseeResult::record() {
    using Out = FuseeResult;
    static const Record record =
        Fields<Out>()
            .add("level_torque_N_mm", &Out::level_torque_N_mm, "N mm", "at the fusee, all the way")
            .add("radii_mm", &Out::radii_mm, "mm", "each quarter turn from the small end, to the middle of the line")
            .add("line_length_mm", &Out::line_length_mm, "mm", "that works")
            .add("wraps_mm", &Out::wraps_mm, "mm", "added to it, on the barrel")
            .add("barrel_turns", &Out::barrel_turns, "", "from the set-up to wound")
            .add("large_diameter_mm", &Out::large_diameter_mm, "mm", "to the middle of the line")
            .add("small_diameter_mm", &Out::small_diameter_mm, "mm", "to the middle of the line")
            .add("groove_pitch_mm", &Out::groove_pitch_mm, "mm", "along the arbor")
            .add("cone_length_mm", &Out::cone_length_mm, "mm", "of the grooves")
            .add("torque_wound_N_mm", &Out::torque_wound_N_mm, "N mm", "of the barrel, fully wound")
            .add("energy_J", &Out::energy_J, "J", "of one winding")
            .add("taken", &Out::taken, "", "what stood for what was not given")
            .add("warnings", &Out::warnings, "", "what to look at");
    return record;
}

std::vector<double> cone_between(double large_mm, double small_mm, double turns) {
    const auto quarters = static_cast<size_t>(std::max(1.0, std::round(4 * turns)));
    std::vector<double> radii;
    const double at_small = 1 / (small_mm * small_mm), at_large = 1 / (large_mm * large_mm);
    for (size_t q = 0; q <= quarters; ++q) {
        const double share = static_cast<double>(q) / static_cast<double>(quarters);
        radii.push_back(1 / std::sqrt(at_small + (at_large - at_small) * share));
    }
    return radii;
}

std::vector<double> cone_from_readings(const std::vector<double>& diameters_mm) {
    std::vector<double> radii;
    constexpr int quarters = 4;
    for (size_t i = 0; i + 1 < diameters_mm.size(); ++i)
        for (int q = 0; q < quarters; ++q) radii.push_back((diameters_mm[i] + (diameters_mm[i + 1] - diameters_mm[i]) * q / quarters) / 2);
    if (!diameters_mm.empty()) radii.push_back(diameters_mm.back() / 2);
    return radii;
}

std::vector<double> barrel_turns_along(const std::vector<double>& radii_mm, double barrel_radius_mm) {
    std::vector<double> turns = {0};
    for (size_t i = 1; i < radii_mm.size(); ++i) turns.push_back(turns.back() + (radii_mm[i] + radii_mm[i - 1]) / 2 / 4 / barrel_radius_mm);
    return turns;
}

namespace {

/// A cone much wider than its barrel is none that anyone made: rather ask than go on with it.
void ask_for_the_cone(const FuseeInput& in, const TorqueCurve& curve, const FuseeResult& out) {
    constexpr double widest = 1.5;  ///< barrels
    const double Rb = (in.barrel_diameter_mm + in.line_diameter_mm) / 2;
    const double large = 2 * out.level_torque_N_mm * Rb / curve.at(0);
    if (large > widest * in.barrel_diameter_mm)
        throw InputError("large_diameter_mm",
                         "nothing, and this spring would want a cone of " + print_fixed(large, 0) + " mm beside a barrel of " +
                             print_fixed(in.barrel_diameter_mm, 0) + " mm",
                         "the cone's large diameter, to the middle of the line");
}

}  // namespace

FuseeResult fusee_profile(const FuseeInput& in) {
    const TorqueCurve curve = curve_of(in);
    const double Rb = (in.barrel_diameter_mm + in.line_diameter_mm) / 2;
    FuseeResult out;
    if (in.large_diameter_mm) {
        out.level_torque_N_mm = curve.at(0) * *in.large_diameter_mm / 2 / Rb;
        out.barrel_turns = curve.turns_for(out.level_torque_N_mm * in.fusee_turns);
    } else {
        out.barrel_turns = in.fusee_turns;
        out.level_torque_N_mm = curve.work_to(out.barrel_turns) / in.fusee_turns;
        ask_for_the_cone(in, curve, out);
        out.taken =
            "No large diameter given: taken so that the barrel turns as often as the fusee, " + print_short(in.fusee_turns) + " times.";
    }
    const double T = out.level_torque_N_mm;
    const auto radius_at = [&](double from_small) { return T * Rb / curve.at(curve.turns_for(T * (in.fusee_turns - from_small))); };
    for (int i = 0; i * quarter <= in.fusee_turns + 1e-9; ++i) out.radii_mm.push_back(radius_at(std::min(i * quarter, in.fusee_turns)));
    out.small_diameter_mm = 2 * radius_at(0);
    out.large_diameter_mm = 2 * radius_at(in.fusee_turns);
    out.line_length_mm = 2 * pi * Rb * out.barrel_turns;
    out.wraps_mm = 2 * pi * Rb * in.wraps;
    constexpr double land = 1.2;  // lines to a groove: a fifth of the line stands between two
    out.groove_pitch_mm = in.groove_pitch_mm.value_or(land * in.chain_thickness_mm.value_or(in.line_diameter_mm));
    out.cone_length_mm = out.groove_pitch_mm * in.fusee_turns;
    out.torque_wound_N_mm = curve.at(out.barrel_turns);
    out.energy_J = T * in.fusee_turns * 2 * pi / 1000;
    warn(in, curve, out);
    return out;
}

std::vector<Working> explain_fusee(const FuseeInput& in, const FuseeResult& out) {
    const Term Rb{"Rb", "barrel radius with half the line", {(in.barrel_diameter_mm + in.line_diameter_mm) / 2, 0}, "mm", 0};
    const Term wound{"M", "torque of the barrel, wound", {out.torque_wound_N_mm, 0}, "N mm", 0};
    const Term T{"T", "level torque", {out.level_torque_N_mm, 0}, "N mm", 0};
    Working small =
        work_out("radius at the small end", "ρ = T Rb ÷ M", {T, Rb, wound}, "mm", fusee_source, [](auto x) { return x[0] * x[1] / x[2]; });
    small.notes = out.warnings;
    if (!out.taken.empty()) small.notes.push_back(out.taken);
    small.notes.push_back(
        "A broken line or a slipped click lets the train run away and strips teeth: lock it before you wind or let down.");
    return {small, work_out("line that works", "s = 2 π Rb θ", {Rb, {"θ", "turns of the barrel", {out.barrel_turns, 0}, "", 0}}, "mm",
                            fusee_source, [](auto x) { return 2 * pi * x[0] * x[1]; })};
}

const Calculation& fusee_calculation() {
    static const Calculation calculation =
        declare<FuseeInput, FuseeResult>("fusee.profile", "The cone that makes a spring's torque level, with its line and grooves.",
                                         fusee_source, fusee_profile, explain_fusee);
    return calculation;
}

const Record& FuseeSetUpInput::record() {
    using In = FuseeSetUpInput;
    static const Record record =
        Fields<In>()
            .add("radii_mm", &In::radii_mm, "mm", "each quarter turn from the small end, to the middle of the line", above(0, 500))
            .required()
            .add("torque_curve", &In::torque_curve, "", "of the barrel: [[turns from let down, N mm], …]")
            .required()
            .add("barrel_diameter_mm", &In::barrel_diameter_mm, "mm", "outside, where the line lies", above(0, 1000))
            .required()
            .add("line_diameter_mm", &In::line_diameter_mm, "mm", "of the line", above(0, 50))
            .required()
            .add("level_N_mm", &In::level_N_mm, "N mm", "wanted at the fusee: then the spring for this cone is told", above(0, 1e7));
    return record;
}

const Record& FuseeSetUpResult::record() {
    using Out = FuseeSetUpResult;
    static const Record record =
        Fields<Out>()
            .add("set_up_turns", &Out::set_up_turns, "", "of the barrel from let down, line on the large end")
            .add("flatness", &Out::flatness, "", "(max − min) ÷ mean of the fusee's torque")
            .add("mean_torque_N_mm", &Out::mean_torque_N_mm, "N mm", "at the fusee")
            .add("torque_N_mm", &Out::torque_N_mm, "N mm", "at the fusee, each quarter turn from the small end")
            .add("barrel_turns", &Out::barrel_turns, "", "from the set-up to wound")
            .add("wanted_set_up_turns", &Out::wanted_set_up_turns, "", "torque at set-up ÷ torque per turn that this cone was cut for")
            .add("wants_set_up_N_mm", &Out::wants_set_up_N_mm, "N mm", "of the barrel at set-up, for the level torque asked")
            .add("wants_per_turn_N_mm", &Out::wants_per_turn_N_mm, "N mm", "and more for each turn of it")
            .add("set_up_turns_now", &Out::set_up_turns_now, "", "the same of this spring at that set-up")
            .add("verdict", &Out::verdict, "", "in words");
    return record;
}

namespace {

struct Levelled {
    double mean = 0;
    double flatness = 0;
    std::vector<double> torque;  ///< from the large end
};

Levelled with_set_up(double set_up, const TorqueCurve& curve, const std::vector<double>& radii, const std::vector<double>& turns,
                     double Rb) {
    Levelled level;
    for (size_t i = 0; i < radii.size(); ++i) level.torque.push_back(curve.at(set_up + turns[i]) * radii[i] / Rb);
    const auto [low, high] = std::minmax_element(level.torque.begin(), level.torque.end());
    for (const double torque : level.torque) level.mean += torque / static_cast<double>(level.torque.size());
    level.flatness = (*high - *low) / level.mean;
    return level;
}

/// Least squares line through 1 ÷ ρ over the barrel's turns: its intercept over its slope.
double wanted_set_up(const std::vector<double>& radii, const std::vector<double>& turns) {
    double n = 0, sx = 0, sy = 0, sxx = 0, sxy = 0;
    for (size_t i = 0; i < radii.size(); ++i) {
        const double y = 1 / radii[i];
        n += 1, sx += turns[i], sy += y, sxx += turns[i] * turns[i], sxy += turns[i] * y;
    }
    const double slope = (n * sxy - sx * sy) / (n * sxx - sx * sx);
    constexpr double no_slope = 1e-9;
    return slope > no_slope ? (sy - slope * sx) / n / slope : 0;
}

}  // namespace

FuseeSetUpResult fusee_set_up(const FuseeSetUpInput& in) {
    constexpr size_t fewest = 3;
    if (in.radii_mm.size() < fewest)
        throw InputError("radii_mm", std::to_string(in.radii_mm.size()) + " radii", "3 or more, each quarter turn");
    const TorqueCurve curve = TorqueCurve::through(in.torque_curve, "torque_curve");
    const double Rb = (in.barrel_diameter_mm + in.line_diameter_mm) / 2;
    const std::vector<double> radii(in.radii_mm.rbegin(), in.radii_mm.rend());
    const std::vector<double> turns = barrel_turns_along(radii, Rb);
    const double most = curve.end() - turns.back();
    if (most < curve.begin())
        throw InputError("torque_curve", "readings over " + print_short(curve.end() - curve.begin()) + " turns",
                         "at least the " + print_fixed(turns.back(), 2) + " turns this cone winds");
    constexpr int steps = 80;  // the flatness has one valley, its kinks a good deal wider than this
    const auto flatness = [&](double s) { return with_set_up(s, curve, radii, turns, Rb).flatness; };
    double best = curve.begin();
    for (int i = 0; i <= steps; ++i) {
        const double s = curve.begin() + (most - curve.begin()) * i / steps;
        if (flatness(s) < flatness(best) - 1e-12) best = s;
    }
    // Down to the kink between the two neighbours of the best step.
    constexpr double fine = 1e-5;
    double step = (most - curve.begin()) / steps;
    while (step > fine) {
        for (const double s : {best - step, best + step})
            if (s >= curve.begin() && s <= most && flatness(s) < flatness(best)) best = s;
        step /= 2;
    }
    const Levelled level = with_set_up(best, curve, radii, turns, Rb);
    FuseeSetUpResult out;
    out.set_up_turns = best;
    out.flatness = level.flatness;
    out.mean_torque_N_mm = level.mean;
    out.torque_N_mm.assign(level.torque.rbegin(), level.torque.rend());
    out.barrel_turns = turns.back();
    out.wanted_set_up_turns = wanted_set_up(radii, turns);
    if (in.level_N_mm && out.wanted_set_up_turns > 0) {
        // Level torque T at the large end: M = T Rb ÷ ρ there, and that over its turns from no torque is the rise.
        out.wants_set_up_N_mm = *in.level_N_mm * Rb / radii.front();
        out.wants_per_turn_N_mm = *out.wants_set_up_N_mm / out.wanted_set_up_turns;
    }
    const double per_turn = (curve.at(best + turns.back()) - curve.at(best)) / turns.back();
    constexpr double no_slope = 1e-9;
    out.set_up_turns_now = per_turn > no_slope ? curve.at(best) / per_turn : 0;
    constexpr double level_within = 0.06, fair_within = 0.15;
    const std::string swing = print_fixed(100 * out.flatness, 0) + " %";
    out.verdict = out.flatness <= level_within ? "This spring suits this fusee: level within " + swing + "."
                  : out.flatness <= fair_within
                      ? "Fair: the torque swings by " + swing + " at the best set-up."
                      : "This spring does not suit this fusee: even at the best set-up the torque swings by " + swing + ".";
    return out;
}

std::vector<Working> explain_fusee_set_up(const FuseeSetUpInput& in, const FuseeSetUpResult& out) {
    const Term Rb{"Rb", "barrel radius with half the line", {(in.barrel_diameter_mm + in.line_diameter_mm) / 2, 0}, "mm", 0};
    const double at_end = out.torque_N_mm.back() * Rb.value.value / in.radii_mm.back();
    Working torque = work_out("torque at the large end", "T = M ρ ÷ Rb",
                              {{"M", "torque of the barrel at the set-up", {at_end, 0}, "N mm", 0},
                               {"ρ", "radius at the large end", {in.radii_mm.back(), 0}, "mm", 0},
                               Rb},
                              "N mm", fusee_source, [](auto x) { return x[0] * x[1] / x[2]; });
    torque.notes = {out.verdict, "Set it up with the train locked; let it off under control."};
    return {torque};
}

const Calculation& fusee_set_up_calculation() {
    static const Calculation calculation = declare<FuseeSetUpInput, FuseeSetUpResult>(
        "fusee.setup", "How far to set up a spring for a cone that is there, and how level it can be.", fusee_source, fusee_set_up,
        explain_fusee_set_up);
    return calculation;
}

}  // namespace echappe
