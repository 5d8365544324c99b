#include "oscillator/balance_wheel.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr double kg_m2_per_kg_mm2 = 1e-6;
constexpr const char* balance_wheel_source = "moments of inertia of ring, bar, cylinder and point; parallel axes (Steiner)";

void check(const BalanceWheel& wheel) {
    if (!(wheel.rim_height_mm > 0)) throw InputError("wheel.rim_height_mm", print_short(wheel.rim_height_mm), "a size above 0");
    if (wheel.rim_inside_mm >= wheel.rim_outside_mm)
        throw InputError("wheel.rim_inside_mm", print_short(wheel.rim_inside_mm),
                         "less than the outside, " + print_short(wheel.rim_outside_mm));
    if (wheel.hub_mm >= wheel.rim_inside_mm)
        throw InputError("wheel.hub_mm", print_short(wheel.hub_mm), "less than the rim's inside, " + print_short(wheel.rim_inside_mm));
}

struct Mass {
    double kg = 0, kg_m2 = 0;
};

double kg_of(double mm3, double density) { return mm3 * 1e-9 * density; }

Mass ring(double outside_mm, double inside_mm, double height_mm, double density) {
    const double R2 = outside_mm * outside_mm / 4, r2 = inside_mm * inside_mm / 4;
    const double kg = kg_of(pi * (R2 - r2) * height_mm, density);
    return {kg, kg * (R2 + r2) / 2 * kg_m2_per_kg_mm2};
}

Mass arms_of(const BalanceWheel& wheel) {
    const double from = wheel.hub_mm / 2, to = wheel.rim_inside_mm / 2;
    const double long_mm = to - from, middle = (from + to) / 2, w = wheel.arm_width_mm;
    const double kg = kg_of(long_mm * w * wheel.arm_height_mm, wheel.density_kg_m3) * static_cast<double>(wheel.arms);
    return {kg, kg * ((long_mm * long_mm + w * w) / 12 + middle * middle) * kg_m2_per_kg_mm2};
}

}  // namespace

const Record& BalanceWheel::record() {
    using In = BalanceWheel;
    static const Record record = Fields<In>()
                                     .add("rim_outside_mm", &In::rim_outside_mm, "mm", "diameter of the rim, above 0", between(0, 500))
                                     .label("rim Ø outside")
                                     .required()
                                     .add("rim_inside_mm", &In::rim_inside_mm, "mm", "diameter inside the rim", between(0, 500))
                                     .label("rim Ø inside")
                                     .required()
                                     .add("rim_height_mm", &In::rim_height_mm, "mm", "along the staff, above 0", between(0, 100))
                                     .label("rim height")
                                     .required()
                                     .add("arms", &In::arms, "", "from the hub to the rim", between(0, 12))
                                     .because("most balances have two")
                                     .add("arm_width_mm", &In::arm_width_mm, "mm", "of an arm", between(0, 100))
                                     .label("arm width")
                                     .add("arm_height_mm", &In::arm_height_mm, "mm", "of an arm, along the staff", between(0, 100))
                                     .add("hub_mm", &In::hub_mm, "mm", "diameter of the hub; 0 none", between(0, 500))
                                     .label("hub Ø")
                                     .add("hub_height_mm", &In::hub_height_mm, "mm", "of the hub, along the staff", between(0, 100))
                                     .add("density_kg_m3", &In::density_kg_m3, "kg/m³", "brass 8500, steel 7850", above(0, 25000))
                                     .because("most rims are of brass");
    return record;
}

const Record& BalanceWheelInput::record() {
    using In = BalanceWheelInput;
    static const Record record = Fields<In>().include(&In::wheel).add("screws", &In::screws, "", "pairs in the rim");
    return record;
}

const Record& BalanceWheelResult::record() {
    using Out = BalanceWheelResult;
    static const Record record =
        Fields<Out>()
            .add("inertia_kg_m2", &Out::inertia_kg_m2, "kg m²", "of all")
            .add("mass_g", &Out::mass_g, "g", "of all")
            .add("rim_kg_m2", &Out::rim_kg_m2, "kg m²", "of the rim")
            .add("arms_kg_m2", &Out::arms_kg_m2, "kg m²", "of the arms")
            .add("hub_kg_m2", &Out::hub_kg_m2, "kg m²", "of the hub")
            .add("screws_kg_m2", &Out::screws_kg_m2, "kg m²", "of the screws")
            .add("gyration_mm", &Out::gyration_mm, "mm", "radius at which all its mass would do the same")
            .add("s_per_day_per_mg_rim", &Out::s_per_day_per_mg_rim, "s/d/mg", "lost by a milligram more in the rim, positive");
    return record;
}

BalanceWheelResult balance_wheel(const BalanceWheelInput& in) {
    const BalanceWheel& wheel = in.wheel;
    check(wheel);
    const Mass rim = ring(wheel.rim_outside_mm, wheel.rim_inside_mm, wheel.rim_height_mm, wheel.density_kg_m3);
    const Mass arms = arms_of(wheel);
    const Mass hub = ring(wheel.hub_mm, 0, wheel.hub_height_mm, wheel.density_kg_m3);
    Mass screws;
    for (const BalanceScrews& pair : in.screws) {
        const double kg = 2 * pair.mass_mg * 1e-6;
        const double r = pair.radius_mm + pair.move_mm;
        screws.kg += kg;
        screws.kg_m2 += kg * r * r * kg_m2_per_kg_mm2;
    }
    BalanceWheelResult out;
    out.rim_kg_m2 = rim.kg_m2;
    out.arms_kg_m2 = arms.kg_m2;
    out.hub_kg_m2 = hub.kg_m2;
    out.screws_kg_m2 = screws.kg_m2;
    out.inertia_kg_m2 = rim.kg_m2 + arms.kg_m2 + hub.kg_m2 + screws.kg_m2;
    const double kg = rim.kg + arms.kg + hub.kg + screws.kg;
    out.mass_g = 1000 * kg;
    out.gyration_mm = std::sqrt(out.inertia_kg_m2 / kg / kg_m2_per_kg_mm2);
    const double middle = (wheel.rim_outside_mm + wheel.rim_inside_mm) / 4;
    const double more = 1e-6 * middle * middle * kg_m2_per_kg_mm2;
    out.s_per_day_per_mg_rim = day_s * (1 - std::sqrt(out.inertia_kg_m2 / (out.inertia_kg_m2 + more)));
    return out;
}

std::vector<Working> explain_balance_wheel(const BalanceWheelInput&, const BalanceWheelResult& out) {
    return {work_out("inertia", "I = rim + arms + hub + screws",
                     {{"rim", "½ m (R² + r²)", {out.rim_kg_m2, 0}, "kg m²", 0},
                      {"arms", "m ((l² + w²) ÷ 12 + middle²)", {out.arms_kg_m2, 0}, "kg m²", 0},
                      {"hub", "½ m R²", {out.hub_kg_m2, 0}, "kg m²", 0},
                      {"screws", "2 m r² a pair", {out.screws_kg_m2, 0}, "kg m²", 0}},
                     "kg m²", balance_wheel_source, [](auto x) { return x[0] + x[1] + x[2] + x[3]; })};
}

const Calculation& balance_wheel_calculation() {
    static const Calculation calculation =
        declare<BalanceWheelInput, BalanceWheelResult>("balance.inertia", "The inertia of a balance from its rim, arms, hub and screws.",
                                                       balance_wheel_source, balance_wheel, explain_balance_wheel);
    return calculation;
}

}  // namespace echappe
