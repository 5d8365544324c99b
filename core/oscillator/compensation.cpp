#include "oscillator/compensation.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/solve.h"
#include "number/units.h"

// Notation: α linear expansion, L length of the simple pendulum, h height of the mercury, a its radius, d its middle below the
// suspension, R the jar's bottom below the suspension; a dot over none of them: changes are per kelvin.

namespace echappe {
namespace {

constexpr double mercury_volume_per_K = 181e-6;  ///< at 20 °C
constexpr double mercury_kg_m3 = 13546;          ///< at 20 °C
constexpr const char* compensation_source = "equal growth down and up; mercury as a cylinder, l = d + (h² ÷ 12 + a² ÷ 4) ÷ d";

double jar_per_K(const std::string& jar) { return jar == "steel" ? 11.5e-6 : 8.5e-6; }

constexpr double expansion_u = 0.03;  ///< of an expansion: a bar differs so much from the handbook

double loses_per_K(double length_per_K) { return day_s * length_per_K / 2; }

struct Column {
    double height_mm, middle_mm;
};

/// Where a column of this height stands for the simple length: the larger root of d² − L d + h²/12 + a²/4.
Column column(const CompensationInput& in, double height_mm) {
    const double a = in.jar_bore_mm / 2;
    const double own = height_mm * height_mm / 12 + a * a / 4;
    const double square = in.length_mm * in.length_mm / 4 - own;
    if (square <= 0) throw InputError("mercury_mm", print_short(height_mm), "a column that is shorter than the pendulum");
    return {height_mm, in.length_mm / 2 + std::sqrt(square)};
}

/// Growth of the equivalent length per kelvin, as a share of it.
double grows(const CompensationInput& in, double height_mm) {
    const Column c = column(in, height_mm);
    const double a = in.jar_bore_mm / 2;
    const double jar = jar_per_K(in.jar);
    const double rises = (mercury_volume_per_K - 2 * jar) * c.height_mm;  // of the surface in its jar
    const double bottom = c.middle_mm + c.height_mm / 2;
    const double middle = expansion_per_K(in.rod) * bottom - rises / 2;
    const double own = c.height_mm * c.height_mm / 12 + a * a / 4;
    const double own_grows = c.height_mm * rises / 6 + a * a * jar / 2;
    return (middle * (1 - own / (c.middle_mm * c.middle_mm)) + own_grows / c.middle_mm) / in.length_mm;
}

void by_mercury(const CompensationInput& in, CompensationResult& out) {
    const double highest = in.length_mm / 2;
    if (!(grows(in, highest) < 0)) throw InputError("rod", in.rod, "a rod that mercury can make good");
    const Column c = column(in, root_between([&](double h) { return grows(in, h); }, 1e-6, highest));
    out.mercury_mm = c.height_mm;
    out.mercury_kg = mercury_kg_m3 * pi * in.jar_bore_mm * in.jar_bore_mm / 4 * c.height_mm * 1e-9;
    out.jar_bottom_mm = c.middle_mm + c.height_mm / 2;
    out.u_s_per_day_per_K = expansion_u * out.uncompensated_s_per_day_per_K * std::numbers::sqrt2;
    if (in.mercury_mm) out.s_per_day_per_K = loses_per_K(grows(in, *in.mercury_mm));
    out.cautions.push_back(
        "Mercury gives off poisonous vapour: do not open, heat or top up a jar at the bench. A leak or a refill is for those who are "
        "equipped and licensed for it where you are.");
}

/// Two materials, each off by its own.
double u_of(double down_per_K, double down_mm, double up_per_K, double up_mm, double length_mm) {
    return std::abs(loses_per_K(expansion_u * std::hypot(down_per_K * down_mm, up_per_K * up_mm) / length_mm));
}

void by_bars(const CompensationInput& in, CompensationResult& out) {
    const double down = expansion_per_K(in.rod), up = expansion_per_K(in.up);
    if (up <= down) throw InputError("up", in.up, "a material that grows more than the rod's " + in.rod);
    out.up_mm = in.length_mm * down / (up - down);
    out.down_mm = in.length_mm + *out.up_mm;
    // up = L a ÷ (b − a): a and b each move it by b ÷ (b − a) of their own share.
    out.up_u_mm = *out.up_mm * up / (up - down) * std::hypot(expansion_u, expansion_u);
    const double rises_mm = in.up_mm.value_or(*out.up_mm);
    out.u_s_per_day_per_K = u_of(down, in.length_mm + rises_mm, up, rises_mm, in.length_mm);
    if (in.up_mm) out.s_per_day_per_K = loses_per_K((down * (in.length_mm + *in.up_mm) - up * *in.up_mm) / in.length_mm);
    if (in.kind == "sleeve") {
        if (*out.up_mm > in.length_mm) out.verdict = "The sleeve would be longer than the pendulum: a gridiron, or zinc.";
        return;
    }
    const double room = in.length_mm - in.head_room_mm;
    if (!(room > 0)) throw InputError("head_room_mm", print_short(in.head_room_mm), "less than the pendulum's length");
    const double rises = std::ceil(*out.up_mm / room - 1e-12);
    out.rods = static_cast<long long>(4 * rises + 1);
    out.rod_mm = *out.up_mm / rises;
}

std::string told(const CompensationInput& in, const CompensationResult& out) {
    std::string words = "Without, a kelvin warmer loses " + print_fixed(out.uncompensated_s_per_day_per_K, 2) + " s/d.";
    if (in.kind == "sleeve")
        words += " A " + in.up + " sleeve of " + print_measured(*out.up_mm, *out.up_u_mm) +
                 " mm makes it good: begin long, and trim it by trial.";
    if (in.kind == "gridiron")
        words += " " + std::to_string(*out.rods) + " rods, the rising ones of " + in.up + " " +
                 print_measured(*out.rod_mm, *out.up_u_mm / std::round(*out.up_mm / *out.rod_mm)) +
                 " mm each, by expansions that differ from alloy to alloy: have both metals measured, or leave holes to shift the pins by.";
    if (in.kind == "mercury")
        words += " A column of " + print_fixed(*out.mercury_mm, 1) + " mm makes it good; jar and rod want a little more.";
    if (!out.s_per_day_per_K) return words;
    const double left = *out.s_per_day_per_K;
    const double u = std::max(out.u_s_per_day_per_K, 0.005);
    if (std::abs(left) < u)
        return words + " As found it is compensated, within the " + print_within(u, u) + " s/d that the expansions leave open.";
    return words + " As found a kelvin warmer still " + (left > 0 ? "loses " : "gains ") + print_measured(std::abs(left), u) +
           " s/d: " + (left > 0 ? "too little rises." : "too much rises.");
}

}  // namespace

const std::vector<std::string>& rod_materials() {
    static const std::vector<std::string> all = {"steel", "brass", "invar", "pine", "zinc"};
    return all;
}

double expansion_per_K(const std::string& material) {
    static const std::map<std::string, double> known = {
        {"steel", 11.5e-6}, {"brass", 18.7e-6}, {"invar", 1.2e-6}, {"pine", 4.5e-6}, {"zinc", 30e-6}};
    const auto at = known.find(material);
    if (at == known.end()) throw InputError("material", material, "steel, brass, invar, pine or zinc");
    return at->second;
}

const Record& CompensationInput::record() {
    using In = CompensationInput;
    static const Record record =
        Fields<In>()
            .add("kind", &In::kind, "", "what makes the rod's growth good")
            .choices({"none", "sleeve", "gridiron", "mercury"})
            .because("the simplest that can be made")
            .add("rod", &In::rod, "", "material of the rod, or of a gridiron's falling rods")
            .choices(rod_materials())
            .because("most rods are of steel")
            .add("up", &In::up, "", "material of what rises")
            .choices(rod_materials())
            .because("its growth against steel is well known and it is in every workshop")
            .add("length_mm", &In::length_mm, "mm", "of the simple pendulum", above(0, 1e5))
            .because("it beats seconds")
            .add("head_room_mm", &In::head_room_mm, "mm", "that a gridiron's frame takes off a rising rod", between(0, 1e4))
            .because("crosspieces and pins of a seconds gridiron")
            .add("jar_bore_mm", &In::jar_bore_mm, "mm", "inside diameter of a mercury jar", above(0, 500))
            .because("usual for a seconds pendulum")
            .add("jar", &In::jar, "", "of the mercury")
            .choices({"glass", "steel"})
            .because("most jars are of glass")
            .add("mercury_mm", &In::mercury_mm, "mm", "height of the column as found", above(0, 1e4))
            .add("up_mm", &In::up_mm, "mm", "sleeve, or rising rods one after the other, as found", above(0, 1e5));
    return record;
}

const Record& CompensationResult::record() {
    using Out = CompensationResult;
    static const Record record =
        Fields<Out>()
            .add("uncompensated_s_per_day_per_K", &Out::uncompensated_s_per_day_per_K, "s/d/K", "the rod alone; positive loses when warmer")
            .add("up_mm", &Out::up_mm, "mm", "all that must rise, one after the other")
            .add("down_mm", &Out::down_mm, "mm", "all that hangs, one after the other")
            .add("rods", &Out::rods, "", "of a gridiron")
            .add("rod_mm", &Out::rod_mm, "mm", "each rising rod of it")
            .add("mercury_mm", &Out::mercury_mm, "mm", "height of the column")
            .add("mercury_kg", &Out::mercury_kg, "kg", "mercury in it")
            .add("jar_bottom_mm", &Out::jar_bottom_mm, "mm", "inside, below the suspension")
            .add("s_per_day_per_K", &Out::s_per_day_per_K, "s/d/K", "with what was found; positive loses when warmer")
            .add("u_s_per_day_per_K", &Out::u_s_per_day_per_K, "s/d/K", "standard uncertainty, each expansion known to 3 %")
            .add("up_u_mm", &Out::up_u_mm, "mm", "of what must rise, likewise")
            .add("verdict", &Out::verdict, "", "in words")
            .add("cautions", &Out::cautions, "", "where it can hurt");
    return record;
}

CompensationResult compensate(const CompensationInput& in) {
    CompensationResult out;
    out.uncompensated_s_per_day_per_K = loses_per_K(expansion_per_K(in.rod));
    if (in.kind == "mercury") by_mercury(in, out);
    else if (in.kind != "none") by_bars(in, out);
    if (out.verdict.empty()) out.verdict = told(in, out);
    return out;
}

std::vector<Working> explain_compensation(const CompensationInput& in, const CompensationResult& out) {
    Working rod = work_out("rod alone", "loss = 86400 α ÷ 2", {{"α", in.rod + ", per kelvin", {expansion_per_K(in.rod), 0}, "1/K", 0}},
                           "s/d/K", compensation_source, [](auto x) { return day_s * x[0] / 2; });
    rod.notes = {out.verdict};
    std::vector<Working> list = {rod};
    if (out.up_mm)
        list.push_back(work_out("what must rise", "S = L α ÷ (β − α)",
                                {{"L", "simple pendulum", {in.length_mm, 0}, "mm", 0},
                                 {"α", in.rod, {expansion_per_K(in.rod), 0}, "1/K", 0},
                                 {"β", in.up, {expansion_per_K(in.up), 0}, "1/K", 0}},
                                "mm", compensation_source, [](auto x) { return x[0] * x[1] / (x[2] - x[1]); }));
    if (out.mercury_mm) {
        Working height;
        height.name = "mercury";
        height.formula = "h where d + (h² ÷ 12 + a² ÷ 4) ÷ d does not move with temperature";
        height.result = {*out.mercury_mm, 0};
        height.unit = "mm";
        height.source = compensation_source;
        list.push_back(height);
    }
    return list;
}

const Calculation& compensation_calculation() {
    static const Calculation calculation = declare<CompensationInput, CompensationResult>(
        "pendulum.compensate", "A pendulum that keeps its length when it warms: sleeve, gridiron or mercury.", compensation_source,
        compensate, explain_compensation);
    return calculation;
}

}  // namespace echappe
