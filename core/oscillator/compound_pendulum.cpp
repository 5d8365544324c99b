#include "oscillator/compound_pendulum.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "oscillator/gravity.h"
#include "oscillator/pendulum.h"

namespace echappe {
namespace {

constexpr const char* compound_pendulum_source = "compound pendulum (Huygens, 1673): l = I ÷ (M d); parallel axes (Steiner)";

const std::vector<std::string>& shapes() {
    static const std::vector<std::string> all = {"rod", "cylinder", "disc", "lens", "point"};
    return all;
}

double size(const std::optional<double>& mm, const std::string& place, const char* name, const std::string& shape) {
    if (!mm) throw InputError(place + "." + name, "nothing", "a size: a " + shape + " has one");
    return *mm / 1000;
}

/// Two spherical caps base to base, spun about their common axis.
PartShape lens(double diameter, double thickness, const std::string& place) {
    const double a = diameter / 2;
    const double h = thickness / 2;
    if (h > a) throw InputError(place + ".thickness_mm", print_short(2000 * h), "at most the diameter, " + print_short(2000 * a));
    const double R = (a * a + h * h) / (2 * h);
    const double cap = pi * h * h * (3 * R - h) / 3;
    const double spin = pi / 2 * (4 * R * R * h * h * h / 3 - R * std::pow(h, 4) + std::pow(h, 5) / 5);
    return {2 * cap, spin / cap, 2000 * a};
}

struct Body {
    double mass = 0, volume = 0, middle = 0, inertia = 0;
};

Body body_of(const PendulumPart& part, const std::string& place) {
    const PartShape shape = shape_of(part, place);
    if (part.mass_kg.has_value() == part.density_kg_m3.has_value())
        throw InputError(place + ".mass_kg", part.mass_kg ? "a mass and a density" : "nothing", "mass_kg or density_kg_m3");
    if (part.density_kg_m3 && shape.volume_m3 == 0)
        throw InputError(place + ".mass_kg", "a density for a point", "mass_kg: a point has no volume");
    if (part.top_mm.has_value() == part.centre_mm.has_value())
        throw InputError(place + ".centre_mm", part.top_mm ? "both top_mm and centre_mm" : "nothing",
                         "top_mm or centre_mm below the suspension");
    Body body;
    body.mass = part.mass_kg ? *part.mass_kg : *part.density_kg_m3 * shape.volume_m3;
    body.volume = shape.volume_m3;
    body.middle = (part.centre_mm ? *part.centre_mm : *part.top_mm + shape.height_mm / 2) / 1000;
    body.inertia = body.mass * (shape.inertia_per_kg_m2 + body.middle * body.middle);
    return body;
}

double gravity_of(const CompoundPendulumInput& in) {
    if (in.gravity_m_s2 && in.latitude_deg)
        throw InputError("gravity_m_s2", "a gravity and a place", "either gravity_m_s2 or latitude_deg");
    if (in.latitude_deg) return normal_gravity_m_s2(*in.latitude_deg, in.altitude_m.value_or(0));
    return in.gravity_m_s2.value_or(standard_gravity_m_s2);
}

struct Whole {
    double mass = 0, moment = 0, lifted = 0, inertia = 0;
    /// Equivalent length in a vacuum or in air, m.
    double length(bool air) const { return inertia / (moment - (air ? lifted : 0)); }
};

}  // namespace

PartShape shape_of(const PendulumPart& part, const std::string& place) {
    if (part.shape == "point") return {};
    const double d = size(part.diameter_mm, place, "diameter_mm", part.shape);
    if (part.shape == "disc") {
        const double t = size(part.thickness_mm, place, "thickness_mm", part.shape);
        return {pi * d * d / 4 * t, d * d / 8, 1000 * d};
    }
    if (part.shape == "lens") return lens(d, size(part.thickness_mm, place, "thickness_mm", part.shape), place);
    const double length = size(part.length_mm, place, "length_mm", part.shape);
    return {pi * d * d / 4 * length, length * length / 12 + d * d / 16, 1000 * length};
}

const Record& PendulumPart::record() {
    using In = PendulumPart;
    static const Record record =
        Fields<In>()
            .add("name", &In::name, "", "what it is")
            .add("shape", &In::shape, "", "rod and cylinder stand upright, disc and lens lie in the swing's plane")
            .choices(shapes())
            .because("until it is said what it is")
            .add("length_mm", &In::length_mm, "mm", "of a rod or cylinder", above(0, 1e5))
            .label("length")
            .add("diameter_mm", &In::diameter_mm, "mm", "of rod, cylinder, disc, lens", above(0, 1e5))
            .label("Ø")
            .add("thickness_mm", &In::thickness_mm, "mm", "of a disc or lens, front to back", above(0, 1e5))
            .label("thickness")
            .add("top_mm", &In::top_mm, "mm", "upper end, below the suspension", between(-1e5, 1e5))
            .label("top at")
            .add("centre_mm", &In::centre_mm, "mm", "middle, below the suspension", between(-1e5, 1e5))
            .label("middle at")
            .add("mass_kg", &In::mass_kg, "kg", "mass", above(0, 1e5))
            .label("weight")
            .add("density_kg_m3", &In::density_kg_m3, "kg/m³", "brass 8500, steel 7850, lead 11300, pine 500", above(0, 3e4))
            .label("density")
            .because("most rims are of brass");
    return record;
}

const Record& CompoundPendulumInput::record() {
    using In = CompoundPendulumInput;
    static const Record record = Fields<In>()
                                     .add("parts", &In::parts, "", "rod, bob, nut and what else swings")
                                     .required()
                                     .add("gravity_m_s2", &In::gravity_m_s2, "m/s²", "local gravity", between(0.1, 100))
                                     .add("latitude_deg", &In::latitude_deg, "deg", "latitude of the place", between(-90, 90))
                                     .add("altitude_m", &In::altitude_m, "m", "height above the sea", between(-500, 9000))
                                     .add("air", &In::air, "", "count the air's buoyancy")
                                     .add("air_kg_m3", &In::air_kg_m3, "kg/m³", "density of the air", between(0, 2))
                                     .because("dry air at 15 °C near the sea")
                                     .add("semi_arc_deg", &In::semi_arc_deg, "deg", "swing to one side", between(0, 170))
                                     .because("a deadbeat's usual swing; a recoil swings 3 or more")
                                     .add("add_mass_kg", &In::add_mass_kg, "kg", "laid on a tray", between(0, 1000))
                                     .add("add_at_mm", &In::add_at_mm, "mm", "tray below the suspension", between(0, 1e5));
    return record;
}

const Record& CompoundPendulumResult::record() {
    using Out = CompoundPendulumResult;
    static const Record record = Fields<Out>()
                                     .add("equivalent_length_mm", &Out::equivalent_length_mm, "mm", "simple pendulum that beats the same")
                                     .add("mass_kg", &Out::mass_kg, "kg", "of all parts")
                                     .add("centre_of_mass_mm", &Out::centre_of_mass_mm, "mm", "below the suspension")
                                     .add("inertia_kg_m2", &Out::inertia_kg_m2, "kg m²", "about the suspension")
                                     .add("beats_per_hour", &Out::beats_per_hour, "1/h", "beats in an hour")
                                     .add("period_s", &Out::period_s, "s", "two beats")
                                     .add("gravity_m_s2", &Out::gravity_m_s2, "m/s²", "gravity used")
                                     .add("buoyancy_s_per_day", &Out::buoyancy_s_per_day, "s/d", "lost in air by buoyancy alone, positive")
                                     .add("add_s_per_day", &Out::add_s_per_day, "s/d", "by the mass on the tray: positive gains")
                                     .add("s_per_day_per_g_at_middle", &Out::s_per_day_per_g_at_middle, "s/d/g",
                                          "gained by a gram half-way down the equivalent length")
                                     .add("which_way", &Out::which_way, "", "in words");
    return record;
}

CompoundPendulumResult compound_pendulum(const CompoundPendulumInput& in) {
    if (in.parts.empty()) throw InputError("parts", "none", "a rod and a bob at least");
    if (in.add_mass_kg.has_value() != in.add_at_mm.has_value())
        throw InputError(in.add_mass_kg ? "add_at_mm" : "add_mass_kg", "nothing", "both: how much is laid on, and where");
    Whole whole;
    for (size_t i = 0; i < in.parts.size(); ++i) {
        const Body body = body_of(in.parts[i], "parts[" + std::to_string(i) + "]");
        whole.mass += body.mass;
        whole.moment += body.mass * body.middle;
        whole.lifted += in.air_kg_m3 * body.volume * body.middle;
        whole.inertia += body.inertia;
    }
    if (!(whole.moment - (in.air ? whole.lifted : 0) > 0)) throw InputError("parts", "no weight below the suspension", "a body that hangs");
    CompoundPendulumResult out;
    out.gravity_m_s2 = gravity_of(in);
    const auto period = [&](double length_m) { return pendulum_period_s(1000 * length_m, in.semi_arc_deg, out.gravity_m_s2); };
    const auto with = [&](double kg, double at_m) {
        Whole more = whole;
        more.moment += kg * at_m;
        more.inertia += kg * at_m * at_m;
        return day_s * (period(whole.length(in.air)) / period(more.length(in.air)) - 1);
    };
    out.mass_kg = whole.mass;
    out.centre_of_mass_mm = 1000 * whole.moment / whole.mass;
    out.inertia_kg_m2 = whole.inertia;
    out.equivalent_length_mm = 1000 * whole.length(false);
    out.period_s = period(whole.length(in.air));
    out.beats_per_hour = 7200 / out.period_s;
    out.buoyancy_s_per_day = day_s * (1 - period(whole.length(false)) / period(whole.length(true)));
    if (in.add_mass_kg) out.add_s_per_day = with(*in.add_mass_kg, *in.add_at_mm / 1000);
    constexpr double gram = 0.001;
    out.s_per_day_per_g_at_middle = with(gram, whole.length(in.air) / 2);
    out.which_way = "Mass laid on above " + print_fixed(out.equivalent_length_mm, 1) +
                    " mm below the suspension gains, most half-way down; below that it loses.";
    return out;
}

std::vector<Working> explain_compound_pendulum(const CompoundPendulumInput&, const CompoundPendulumResult& out) {
    Working length = work_out("equivalent length", "l = I ÷ (M d)",
                              {{"I", "moment of inertia about the suspension", {out.inertia_kg_m2, 0}, "kg m²", 0},
                               {"M", "mass", {out.mass_kg, 0}, "kg", 0},
                               {"d", "centre of mass below the suspension", {out.centre_of_mass_mm / 1000, 0}, "m", 0}},
                              "m", compound_pendulum_source, [](auto x) { return x[0] / (x[1] * x[2]); });
    length.notes = {out.which_way};
    return {length};
}

const Calculation& compound_pendulum_calculation() {
    static const Calculation calculation = declare<CompoundPendulumInput, CompoundPendulumResult>(
        "pendulum.compound", "A pendulum from its parts: length, beats, and what a weight on a tray does.", compound_pendulum_source,
        compound_pendulum, explain_compound_pendulum);
    return calculation;
}

}  // namespace echappe
