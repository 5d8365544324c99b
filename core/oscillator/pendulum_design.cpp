#include "oscillator/pendulum_design.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/solve.h"
#include "number/units.h"
#include "oscillator/compensation.h"
#include "oscillator/gravity.h"
#include "oscillator/pendulum.h"

namespace echappe {
namespace {

constexpr double lead_kg_m3 = 11300;
constexpr double clear_mm = 10;  ///< each side: a bob that swings closer is struck when the case is moved
constexpr const char* pendulum_design_source = "compound pendulum (Huygens, 1673), the bob's place solved for the beats; swing W η Q = π E";

double density_of(const std::string& rod) {
    if (rod == "pine") return 500;
    if (rod == "brass") return 8500;
    if (rod == "zinc") return 7140;
    return rod == "invar" ? 8100 : 7850;
}

double half_height(const PendulumDesignInput& in) {
    if (in.bob_shape == "cylinder") {
        if (!in.bob_height_mm) throw InputError("bob_height_mm", "nothing", "the height of a cylinder");
        return *in.bob_height_mm / 2;
    }
    if (!in.bob_thickness_mm) throw InputError("bob_thickness_mm", "nothing", "the thickness of a " + in.bob_shape);
    return in.bob_diameter_mm / 2;
}

PendulumPart bob_of(const PendulumDesignInput& in) {
    PendulumPart bob;
    bob.name = "bob";
    bob.shape = in.bob_shape;
    bob.diameter_mm = in.bob_diameter_mm;
    if (in.bob_shape == "cylinder") bob.length_mm = in.bob_height_mm;
    else bob.thickness_mm = in.bob_thickness_mm;
    if (in.bob_mass_kg) bob.mass_kg = in.bob_mass_kg;
    else bob.density_kg_m3 = lead_kg_m3;
    return bob;
}

/// Rod and bob with the bob's middle here.
CompoundPendulumInput whole(const PendulumDesignInput& in, double centre_mm) {
    PendulumPart rod;
    rod.name = "rod";
    rod.shape = "rod";
    rod.diameter_mm = in.rod_diameter_mm;
    rod.length_mm = centre_mm + half_height(in) + in.rod_below_mm;
    rod.top_mm = 0;
    rod.density_kg_m3 = density_of(in.rod);
    PendulumPart bob = bob_of(in);
    bob.centre_mm = centre_mm;
    CompoundPendulumInput pendulum;
    pendulum.parts = {rod, bob};
    return pendulum;
}

double equivalent_mm(const PendulumDesignInput& in, double centre_mm) {
    return compound_pendulum(whole(in, centre_mm)).equivalent_length_mm;
}

/// Edge of the bob furthest from the middle line, at the end of the swing.
double reach_mm(const PendulumDesignInput& in, double centre_mm) {
    const double angle = in.semi_arc_deg * pi / 180;
    if (in.bob_shape != "cylinder") return centre_mm * std::sin(angle) + in.bob_diameter_mm / 2;
    return (centre_mm + half_height(in)) * std::sin(angle) + in.bob_diameter_mm / 2 * std::cos(angle);
}

void fit_case(const PendulumDesignInput& in, PendulumDesignResult& out) {
    out.swing_width_mm = 2 * reach_mm(in, out.bob_centre_mm);
    if (in.case_width_mm) out.side_room_mm = (*in.case_width_mm - out.swing_width_mm) / 2;
    if (in.case_drop_mm) out.floor_room_mm = *in.case_drop_mm - out.rod_length_mm;
    if (!out.side_room_mm && !out.floor_room_mm) return;
    out.clears = out.side_room_mm.value_or(1) > 0 && out.floor_room_mm.value_or(1) > 0;
    if (out.side_room_mm && *out.side_room_mm < clear_mm)
        out.warnings.push_back(*out.side_room_mm < 0 ? "The bob strikes the case's sides: a smaller bob, or less arc."
                                                     : "Under 10 mm to the case's sides: a move of the case, and it strikes.");
    if (out.floor_room_mm && *out.floor_room_mm < clear_mm)
        out.warnings.push_back(*out.floor_room_mm < 0 ? "The rod stands on the case's floor: less thread below the bob."
                                                      : "Under 10 mm to the case's floor.");
}

void weigh(const PendulumDesignInput& in, double gravity, PendulumDesignResult& out) {
    if (!in.energy_per_beat_J) return;
    // W = η E Q ÷ π keeps swinging; W = m g l (1 − cos θ).
    const double swings = in.escapement_efficiency * *in.energy_per_beat_J * in.Q / pi;
    out.heaviest_kg = swings / (gravity * out.simple_length_mm / 1000 * (1 - std::cos(in.semi_arc_deg * pi / 180)));
    if (out.mass_kg > *out.heaviest_kg)
        out.warnings.push_back("Too heavy for the drive at this arc: at most " + print_short(*out.heaviest_kg, 3) +
                               " kg, or it swings less.");
}

}  // namespace

const Record& PendulumDesignInput::record() {
    using In = PendulumDesignInput;
    static const Record record =
        Fields<In>()
            .add("beats_per_hour", &In::beats_per_hour, "1/h", "that the train wants", above(0, 1e5))
            .required()
            .add("semi_arc_deg", &In::semi_arc_deg, "deg", "swing to one side", above(0, 60))
            .because("a deadbeat's usual swing; a recoil swings 3 or more")
            .add("gravity_m_s2", &In::gravity_m_s2, "m/s²", "local gravity", between(0.1, 100))
            .add("latitude_deg", &In::latitude_deg, "deg", "latitude of the place", between(-90, 90))
            .add("altitude_m", &In::altitude_m, "m", "height above the sea", between(-500, 9000))
            .add("rod", &In::rod, "", "material")
            .choices(rod_materials())
            .because("most rods are of steel")
            .add("rod_diameter_mm", &In::rod_diameter_mm, "mm", "of the rod", above(0, 100))
            .because("of a seconds pendulum")
            .add("rod_below_mm", &In::rod_below_mm, "mm", "thread and rod below the bob", between(0, 1e4))
            .because("room for the nut and its way")
            .add("bob_shape", &In::bob_shape, "", "of the bob")
            .choices({"lens", "disc", "cylinder"})
            .because("most bobs are lenses: they part the air")
            .add("bob_diameter_mm", &In::bob_diameter_mm, "mm", "of the bob", above(0, 2000))
            .required()
            .add("bob_thickness_mm", &In::bob_thickness_mm, "mm", "of a lens or disc, front to back", above(0, 1000))
            .add("bob_height_mm", &In::bob_height_mm, "mm", "of a cylinder", above(0, 2000))
            .add("bob_mass_kg", &In::bob_mass_kg, "kg", "absent: of lead, by its size", above(0, 1e4))
            .add("nut_pitch_mm", &In::nut_pitch_mm, "mm", "of the rating nut", above(0, 10))
            .because("M3 has this pitch")
            .add("nut_range_s_per_day", &In::nut_range_s_per_day, "s/d", "that the thread must reach each way", above(0, 7200))
            .because("lengths that were worked out are off by a minute or two a day")
            .add("case_width_mm", &In::case_width_mm, "mm", "inside, where the bob swings", above(0, 1e4))
            .label("case width at the bob")
            .add("case_drop_mm", &In::case_drop_mm, "mm", "from the suspension to the floor", above(0, 1e5))
            .add("energy_per_beat_J", &In::energy_per_beat_J, "J", "at the escape wheel, as from power.chain", above(0, 100))
            .add("escapement_efficiency", &In::escapement_efficiency, "", "of the escapement", above(0, 1))
            .because("the middle of what deadbeat and lever give; a recoil gives less")
            .add("Q", &In::Q, "", "of the pendulum", above(0, 1e9))
            .because("a lens bob on a spring in a closed case; a heavy bob on a good suspension has more");
    return record;
}

const Record& PendulumDesignResult::record() {
    using Out = PendulumDesignResult;
    static const Record record = Fields<Out>()
                                     .add("simple_length_mm", &Out::simple_length_mm, "mm", "of the simple pendulum that beats so")
                                     .add("bob_centre_mm", &Out::bob_centre_mm, "mm", "below the suspension")
                                     .add("nut_mm", &Out::nut_mm, "mm", "where the bob rests on it, below the suspension")
                                     .add("rod_length_mm", &Out::rod_length_mm, "mm", "from the suspension to its end")
                                     .add("bob_mass_kg", &Out::bob_mass_kg, "kg", "of the bob")
                                     .add("mass_kg", &Out::mass_kg, "kg", "of the pendulum")
                                     .add("nut_turn_s_per_day", &Out::nut_turn_s_per_day, "s/d", "one turn of the nut")
                                     .add("thread_mm", &Out::thread_mm, "mm", "for the range asked, both ways")
                                     .add("swing_width_mm", &Out::swing_width_mm, "mm", "from edge to edge of the moving bob")
                                     .add("side_room_mm", &Out::side_room_mm, "mm", "to the case, each side")
                                     .add("floor_room_mm", &Out::floor_room_mm, "mm", "from the rod's end to the floor")
                                     .add("clears", &Out::clears, "", "the case, as far as its sizes are given")
                                     .add("heaviest_kg", &Out::heaviest_kg, "kg", "that the drive keeps at this arc")
                                     .add("warnings", &Out::warnings, "", "what to look at")
                                     .add("parts", &Out::parts, "", "rod and bob, as pendulum.compound takes them");
    return record;
}

PendulumDesignResult design_pendulum(const PendulumDesignInput& in) {
    PendulumInput beats;
    beats.beats_per_hour = in.beats_per_hour;
    beats.semi_arc_deg = in.semi_arc_deg;
    beats.gravity_m_s2 = in.gravity_m_s2;
    beats.latitude_deg = in.latitude_deg;
    beats.altitude_m = in.altitude_m;
    const PendulumResult simple = pendulum(beats);
    PendulumDesignResult out;
    out.simple_length_mm = simple.length_mm;
    const double half = half_height(in);
    const double L = out.simple_length_mm;
    // A bob lower down swings slower all the way from where its own inertia no longer counts most.
    const double high = 2 * L, low = L / 2;
    const auto off = [&](double centre) { return equivalent_mm(in, centre) - L; };
    if (half > low || !(off(low) < 0) || !(off(high) > 0))
        throw InputError("bob_diameter_mm", print_short(in.bob_diameter_mm),
                         "a bob that is small beside the pendulum's " + print_fixed(L, 0) + " mm, and heavy beside its rod");
    out.bob_centre_mm = root_between(off, low, high);
    out.nut_mm = out.bob_centre_mm + half;
    out.rod_length_mm = out.nut_mm + in.rod_below_mm;
    const CompoundPendulumInput made = whole(in, out.bob_centre_mm);
    const CompoundPendulumResult swings = compound_pendulum(made);
    out.parts = made.parts;
    out.mass_kg = swings.mass_kg;
    out.bob_mass_kg = in.bob_mass_kg.value_or(lead_kg_m3 * shape_of(bob_of(in), "bob").volume_m3);
    // The nut lifts the bob along a rod that stays.
    CompoundPendulumInput lifted = made;
    *lifted.parts[1].centre_mm -= in.nut_pitch_mm;
    out.nut_turn_s_per_day = day_s * (std::sqrt(swings.equivalent_length_mm / compound_pendulum(lifted).equivalent_length_mm) - 1);
    out.thread_mm = 2 * in.nut_range_s_per_day / out.nut_turn_s_per_day * in.nut_pitch_mm;
    if (out.thread_mm > in.rod_below_mm + half)
        out.warnings.push_back("The thread for that range, " + print_fixed(out.thread_mm, 0) +
                               " mm, is longer than what stands below the bob.");
    fit_case(in, out);
    weigh(in, simple.gravity_m_s2, out);
    return out;
}

std::vector<Working> explain_pendulum_design(const PendulumDesignInput& in, const PendulumDesignResult& out) {
    Working place;
    place.name = "bob's middle";
    place.formula = "d where I ÷ (M d) of rod and bob is the simple length";
    place.result = {out.bob_centre_mm, 0};
    place.unit = "mm";
    place.source = pendulum_design_source;
    place.notes = {"simple length " + print_fixed(out.simple_length_mm, 2) + " mm"};
    for (const std::string& warning : out.warnings) place.notes.push_back(warning);
    const double angle = in.semi_arc_deg * pi / 180;
    std::vector<Working> list = {place};
    if (in.bob_shape != "cylinder")
        list.push_back(work_out("width of the swing", "w = 2 (d sin θ + D ÷ 2)",
                                {{"d", "bob's middle", {out.bob_centre_mm, 0}, "mm", 0},
                                 {"θ", "semi-arc", {angle, 0}, "rad", 0},
                                 {"D", "bob", {in.bob_diameter_mm, 0}, "mm", 0}},
                                "mm", "geometry", [](auto x) { return 2 * (x[0] * std::sin(x[1]) + x[2] / 2); }));
    return list;
}

const Calculation& pendulum_design_calculation() {
    static const Calculation calculation = declare<PendulumDesignInput, PendulumDesignResult>(
        "pendulum.design", "A pendulum to replace a lost one: where the bob hangs, rod and thread, whether it clears the case.",
        pendulum_design_source, design_pendulum, explain_pendulum_design);
    return calculation;
}

}  // namespace echappe
