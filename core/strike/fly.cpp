#include "strike/fly.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* fly_source = "drag of flat vanes that go round; motion in air by its square";
constexpr double N_mm_per_N_m = 1000;

/// Torque of the air over ω², N mm s², by the sizes alone.
double air_of(const FlyInput& in) {
    const double outer = in.outer_mm / 1000, inner = in.inner_mm / 1000, width = in.width_mm / 1000;
    return N_mm_per_N_m * 0.5 * in.air_kg_m3 * in.drag * static_cast<double>(in.vanes) * width * (std::pow(outer, 4) - std::pow(inner, 4)) /
           4;
}

double speed_of(double seconds_per_blow, double turns_per_blow) { return 2 * pi * turns_per_blow / seconds_per_blow; }

std::string in_words(const FlyInput& in, const FlyResult& out) {
    std::string words = print_fixed(out.seconds_per_blow, 2) + " s from blow to blow, the fly at " + print_fixed(out.rpm, 0) + " a minute.";
    if (!in.timed_s) words += " By its sizes alone: time a few blows, and it is put right.";
    if (out.wanted_width_mm)
        words += " For " + print_fixed(*in.wanted_s, 2) + " s vanes " + print_fixed(*out.wanted_width_mm, 1) + " mm wide, or " +
                 print_short(*out.wanted_torque, 3) + " N mm at its arbor.";
    if (out.wanted_width_mm && *out.wanted_width_mm > in.outer_mm)
        words += " Vanes that wide are longer than the fly is across: change its torque or its train, not its vanes.";
    return words + " It must slip on its arbor as the train is stopped: fixed, it breaks teeth; loose, it lets the train run away.";
}

}  // namespace

FlyResult fly(const FlyInput& in) {
    if (in.inner_mm >= in.outer_mm)
        throw InputError("inner_mm", print_short(in.inner_mm), "less than the outer edge's " + print_short(in.outer_mm) + " mm");
    FlyResult out;
    out.air_N_mm_s2 = air_of(in);
    if (in.timed_s) {
        const double speed = speed_of(*in.timed_s, in.turns_per_blow);
        const double timed = in.timed_torque_N_mm.value_or(in.torque_N_mm) / (speed * speed);
        out.times_by_sizes = timed / out.air_N_mm_s2;
        out.air_N_mm_s2 = timed;
    }
    const double speed = std::sqrt(in.torque_N_mm / out.air_N_mm_s2);
    out.rpm = speed * 60 / (2 * pi);
    out.seconds_per_blow = 2 * pi * in.turns_per_blow / speed;
    // ω = ω∞ tanh(t T ÷ (I ω∞)); 1 N mm = 1e6 g mm²/s².
    constexpr double share = 0.75, g_mm2_s2 = 1e6;
    if (in.inertia_g_mm2) out.run_up_s = std::atanh(share) * *in.inertia_g_mm2 * speed / (in.torque_N_mm * g_mm2_s2);
    if (in.wanted_s) {
        const double wanted = speed_of(*in.wanted_s, in.turns_per_blow);
        out.wanted_torque = out.air_N_mm_s2 * wanted * wanted;
        out.wanted_width_mm = in.width_mm * in.torque_N_mm / *out.wanted_torque;
    }
    out.verdict = in_words(in, out);
    return out;
}

std::vector<Working> explain_fly(const FlyInput& in, const FlyResult& out) {
    std::vector<Working> list = {
        work_out("speed in balance with the air", "ω = √(T ÷ k)",
                 {given("T", "torque at the fly", in.torque_N_mm, "N·mm"), given("k", "of the air", out.air_N_mm_s2, "N·mm·s²")}, "rad/s",
                 fly_source, [](auto x) { return std::sqrt(x[0] / x[1]); }),
        work_out("from blow to blow", "t = 2π f ÷ ω",
                 {given("f", "the fly's turns a blow", in.turns_per_blow, ""), given("ω", "speed", out.rpm * 2 * pi / 60, "rad/s")}, "s",
                 fly_source, [](auto x) { return 2 * pi * x[0] / x[1]; })};
    list.back().notes.push_back(out.verdict);
    return list;
}

const Record& FlyInput::record() {
    using In = FlyInput;
    static const Record record =
        Fields<In>()
            .add("torque_N_mm", &In::torque_N_mm, "N·mm", "at the fly's arbor, friction taken off", above(0, 1e6))
            .required()
            .add("turns_per_blow", &In::turns_per_blow, "", "of the fly", above(0, 10000))
            .required()
            .add("outer_mm", &In::outer_mm, "mm", "arbor to the outer edges of the vanes", above(0, 2000))
            .required()
            .add("inner_mm", &In::inner_mm, "mm", "arbor to their inner edges", between(0, 2000))
            .add("width_mm", &In::width_mm, "mm", "of a vane, along the arbor", above(0, 2000))
            .required()
            .add("vanes", &In::vanes, "", "of the fly", between(1, 8))
            .because("two are usual")
            .add("drag", &In::drag, "", "coefficient of a flat vane", above(0, 5))
            .because("a plate square to the wind")
            .add("air_kg_m3", &In::air_kg_m3, "kg/m³", "of the air", above(0, 10))
            .because("at the sea, 20 °C")
            .add("inertia_g_mm2", &In::inertia_g_mm2, "g·mm²", "of what turns, at the fly's arbor", above(0, 1e12))
            .add("timed_s", &In::timed_s, "s", "from blow to blow, as it was timed", above(0, 600))
            .add("timed_torque_N_mm", &In::timed_torque_N_mm, "N·mm", "at that time, where it was another", above(0, 1e6))
            .add("wanted_s", &In::wanted_s, "s", "from blow to blow, as it should be", above(0, 600));
    return record;
}

const Record& FlyResult::record() {
    using Out = FlyResult;
    static const Record record = Fields<Out>()
                                     .add("rpm", &Out::rpm, "1/min", "of the fly")
                                     .add("seconds_per_blow", &Out::seconds_per_blow, "s", "from blow to blow")
                                     .add("air_N_mm_s2", &Out::air_N_mm_s2, "N·mm·s²", "torque of the air over the speed's square")
                                     .add("run_up_s", &Out::run_up_s, "s", "to three quarters of its speed")
                                     .add("times_by_sizes", &Out::times_by_sizes, "", "the air as timed, over what the sizes say")
                                     .add("wanted_width_mm", &Out::wanted_width_mm, "mm", "of the vanes, for the time wanted")
                                     .add("wanted_torque", &Out::wanted_torque, "N·mm", "or at the fly's arbor")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& fly_calculation() {
    static const Calculation calculation = declare<FlyInput, FlyResult>(
        "strike.fly", "A fly against the air: seconds from blow to blow, and the vanes for another time.", fly_source, fly, explain_fly);
    return calculation;
}

}  // namespace echappe
