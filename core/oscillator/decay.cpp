#include "oscillator/decay.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* decay_source = "damped harmonic swing: θ = θ0 exp(−ω t ÷ 2Q)";

}  // namespace

const Record& DecayInput::record() {
    using In = DecayInput;
    static const Record record = Fields<In>()
                                     .add("start_deg", &In::start_deg, "deg", "swing to one side at the start", above(0, 350))
                                     .required()
                                     .add("end_deg", &In::end_deg, "deg", "and after that time", above(0, 350))
                                     .required()
                                     .add("minutes", &In::minutes, "min", "between the two", above(0, 1e5))
                                     .required()
                                     .add("beats_per_hour", &In::beats_per_hour, "1/h", "of the swing", above(0, 1e6))
                                     .required()
                                     .add("swing_u_deg", &In::swing_u_deg, "deg", "standard uncertainty of a swing read", between(0, 50))
                                     .because("a scale read by eye at a seconds pendulum; a balance is read to 5 or 10");
    return record;
}

const Record& DecayResult::record() {
    using Out = DecayResult;
    static const Record record = Fields<Out>()
                                     .add("Q", &Out::Q, "", "quality of the swing")
                                     .add("u_Q", &Out::u_Q, "", "its standard uncertainty")
                                     .add("half_minutes", &Out::half_minutes, "min", "in which the swing is halved")
                                     .add("lost_a_beat", &Out::lost_a_beat, "", "share of the energy that one beat loses")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

DecayResult quality_by_decay(const DecayInput& in) {
    if (in.end_deg >= in.start_deg)
        throw InputError("end_deg", print_short(in.end_deg),
                         "less than at the start, " + print_short(in.start_deg) + ": the escapement out of it");
    const double omega = pi * in.beats_per_hour / 3600;
    const double died = std::log(in.start_deg / in.end_deg);
    DecayResult out;
    out.Q = omega * in.minutes * 60 / (2 * died);
    out.u_Q = out.Q / died * std::hypot(in.swing_u_deg / in.start_deg, in.swing_u_deg / in.end_deg);
    out.half_minutes = 2 * out.Q * std::log(2) / omega / 60;
    out.lost_a_beat = 1 - std::exp(-pi / out.Q);
    out.verdict = "Q " + print_measured(out.Q, out.u_Q) + ".";
    constexpr double too_loose = 0.15;
    if (out.u_Q > too_loose * out.Q) out.verdict += " Too little died away to tell it well: wait until a third is gone.";
    return out;
}

std::vector<Working> explain_decay(const DecayInput& in, const DecayResult& out) {
    Working quality = work_out("quality", "Q = ω t ÷ (2 ln(θ0 ÷ θ))",
                               {{"ω", "of the swing", {pi * in.beats_per_hour / 3600, 0}, "rad/s", 0},
                                {"t", "time", {60 * in.minutes, 0}, "s", 0},
                                {"θ0", "swing at the start", {in.start_deg, in.swing_u_deg}, "deg", 0},
                                {"θ", "swing at the end", {in.end_deg, in.swing_u_deg}, "deg", 0}},
                               "", decay_source, [](auto x) { return x[0] * x[1] / (2 * std::log(x[2] / x[3])); });
    quality.notes = {out.verdict};
    return {quality};
}

const Calculation& decay_calculation() {
    static const Calculation calculation = declare<DecayInput, DecayResult>("swing.decay", "The quality of a swing from how it dies away.",
                                                                            decay_source, quality_by_decay, explain_decay);
    return calculation;
}

}  // namespace echappe
