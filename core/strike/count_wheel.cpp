#include "strike/count_wheel.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* count_wheel_source = "a unit for every blow, 360° ÷ units";

// As usual where nothing was decided.
constexpr double usual_slot = 0.6;    // of a unit at the rim
constexpr double usual_depth = 0.08;  // of the diameter
constexpr double usual_bore = 0.12;   // of the diameter
constexpr double arc_step_deg = 1.5;

/// What it is cut to.
struct Sizes {
    double radius, slot, depth, bore;
};
Sizes sizes_of(const CountWheelInput& in, double unit_deg) {
    const double diameter = *in.diameter_mm, unit = diameter / 2 * unit_deg * rad_per_deg;
    return {diameter / 2, in.slot_width_mm.value_or(usual_slot * unit), in.depth_mm.value_or(usual_depth * diameter),
            in.bore_mm.value_or(usual_bore * diameter)};
}

/// Half of a slot as the wheel's turn at the rim.
double half_slot_rad(const Sizes& sizes) { return std::asin(sizes.slot / 2 / sizes.radius); }

/// Rim, and down into each slot and up again, with sides that are parallel.
std::vector<Point> outline_of(const Sizes& sizes, const std::vector<CountWheelGroup>& groups) {
    std::vector<Point> outline;
    const double half = half_slot_rad(sizes), floor = std::sqrt(sizes.radius * sizes.radius - sizes.slot * sizes.slot / 4) - sizes.depth;
    double from = half;
    for (const CountWheelGroup& group : groups) {
        const double middle = group.slot_deg * rad_per_deg, to = middle - half;
        const int pieces = std::max(1, static_cast<int>(std::ceil((to - from) / (arc_step_deg * rad_per_deg))));
        for (int i = 0; i <= pieces; ++i) {
            const double at = from + (to - from) * i / pieces;
            outline.push_back({sizes.radius * std::cos(at), sizes.radius * std::sin(at)});
        }
        for (const double side : {-0.5, 0.5})
            outline.push_back({floor * std::cos(middle) - side * sizes.slot * std::sin(middle),
                               floor * std::sin(middle) + side * sizes.slot * std::cos(middle)});
        from = middle + half;
    }
    return outline;
}

void draw(const CountWheelInput& in, CountWheelResult& out) {
    const Sizes sizes = sizes_of(in, out.unit_deg);
    const double unit = sizes.radius * out.unit_deg * rad_per_deg;
    out.unit_mm = unit;
    if (sizes.bore / 2 + sizes.depth >= sizes.radius)
        throw InputError("depth_mm", print_short(sizes.depth),
                         "less than the " + print_short(sizes.radius - sizes.bore / 2, 4) + " mm between the bore and the rim");
    double shortest = 360;
    for (const CountWheelGroup& group : out.groups) shortest = std::min(shortest, group.to_deg - group.from_deg);
    // From slot to slot as the chord; one strike alone has all the rim, and its slot at most the radius.
    const double widest = std::min(sizes.radius, 2 * sizes.radius * std::sin(std::min(shortest / 2, 90.0) * rad_per_deg));
    if (sizes.slot >= widest)
        throw InputError("slot_width_mm", print_short(sizes.slot),
                         "less than " + print_short(widest, 4) + ": no rim is left between the two nearest slots");
    out.least_land_mm = sizes.radius * (shortest * rad_per_deg - 2 * half_slot_rad(sizes));
    // The detent stands in the middle; a slot that reaches a unit to one side takes it a blow early.
    out.widest_slot_mm = 2 * sizes.radius * std::sin(std::min(out.unit_deg * rad_per_deg, pi / 2));
    out.detent_lift_mm = sizes.depth;
    out.outline = outline_of(sizes, out.groups);
    if (sizes.slot > 0.9 * unit)
        out.warnings.push_back("The slots are nearly a unit wide: a detent with a little play falls a blow early.");
    if (sizes.depth < 0.6 * sizes.slot) out.warnings.push_back("Slots so shallow hardly hold the detent: it may ride out and run on.");
}

}  // namespace

CountWheelResult count_wheel(const CountWheelInput& in) {
    const std::vector<long long> blows = blows_of(in.scheme, in.blows);
    CountWheelResult out;
    out.blows_total = std::accumulate(blows.begin(), blows.end(), 0LL);
    out.units = out.blows_total + static_cast<long long>(blows.size()) * in.slot_units;
    out.unit_deg = 360.0 / static_cast<double>(out.units);
    long long stands = 0;
    for (const long long one : blows) {
        // By the whole count of units: rounding does not add up.
        const auto deg = [&](long long at) { return 360.0 * static_cast<double>(at) / static_cast<double>(out.units); };
        const long long next = stands + one + in.slot_units;
        out.groups.push_back({one, deg(stands), deg(next), deg(next)});
        stands = next;
    }
    if (in.diameter_mm) {
        draw(in, out);
        out.files = part_files(in.format, drawing_of(in, out), solid_of(in, out));
    } else if (in.format != "points") {
        throw InputError("diameter_mm", "nothing", "the diameter of the wheel, to draw it");
    }
    return out;
}

double turned_deg(const CountWheelResult& wheel, long long blows) {
    long long left = blows % wheel.blows_total;
    for (const CountWheelGroup& group : wheel.groups) {
        if (left < group.blows) return group.from_deg + static_cast<double>(left) * wheel.unit_deg;
        left -= group.blows;
    }
    return 0;
}

FlatPart solid_of(const CountWheelInput& in, const CountWheelResult& out) {
    FlatPart part{"count wheel of " + std::to_string(out.units) + " units", out.outline, {}, {}, in.thickness_mm};
    if (const double bore = sizes_of(in, out.unit_deg).bore; bore > 0) part.holes.push_back({{0, 0}, bore / 2});
    return part;
}

Drawing drawing_of(const CountWheelInput& in, const CountWheelResult& out) {
    const FlatPart part = solid_of(in, out);
    DrawingLayer bore{"bore", {}, part.holes, {{0, 0}}}, slots{"slots", {}, {}, {}, DrawingLayer::Of::mark};
    const double radius = *in.diameter_mm / 2;
    for (const CountWheelGroup& group : out.groups)
        slots.marks.push_back({radius * std::cos(group.slot_deg * rad_per_deg), radius * std::sin(group.slot_deg * rad_per_deg)});
    return {part.title, {{"outline", {part.outline}, {}, {}}, bore, slots}};
}

std::vector<Working> explain_count_wheel(const CountWheelInput& in, const CountWheelResult& out) {
    std::vector<Working> list = {work_out("a unit of the wheel's turn", "u = 360° ÷ (b + s n)",
                                          {given("b", "blows once round", static_cast<double>(out.blows_total), ""),
                                           given("s", "further units of a slot", static_cast<double>(in.slot_units), ""),
                                           given("n", "slots", static_cast<double>(out.groups.size()), "")},
                                          "deg", count_wheel_source, [](auto x) { return 360 / (x[0] + x[1] * x[2]); })};
    list.back().notes.push_back(
        "Measure an old wheel from slot to slot before anything is filed: with units of its slots of their own it is divided otherwise.");
    for (const std::string& warning : out.warnings) list.back().notes.push_back(warning);
    return list;
}

const Record& CountWheelInput::record() {
    using In = CountWheelInput;
    static const Record record = [] {
        Fields<In> fields;
        add_scheme(fields)
            .add("slot_units", &In::slot_units, "", "further units that each slot takes", between(0, 20))
            .add("diameter_mm", &In::diameter_mm, "mm", "over the rim", above(0, 5000))
            .add("slot_width_mm", &In::slot_width_mm, "mm", "of each slot; usual: 0.6 of a unit", above(0, 500))
            .add("depth_mm", &In::depth_mm, "mm", "of each slot", above(0, 500))
            .add("bore_mm", &In::bore_mm, "mm", "for its arbor or stud", between(0, 500))
            .add("thickness_mm", &In::thickness_mm, "mm", "of the wheel", above(0, 100))
            .because("plate as it is sold for such wheels");
        return Record(add_part_format(fields));
    }();
    return record;
}

const Record& CountWheelGroup::record() {
    using Out = CountWheelGroup;
    static const Record record = Fields<Out>()
                                     .add("blows", &Out::blows, "", "of this strike")
                                     .add("from_deg", &Out::from_deg, "deg", "middle of the slot before it")
                                     .add("to_deg", &Out::to_deg, "deg", "middle of the slot after it")
                                     .add("slot_deg", &Out::slot_deg, "deg", "the same: where that slot is cut");
    return record;
}

const Record& CountWheelResult::record() {
    using Out = CountWheelResult;
    static const Record record = Fields<Out>()
                                     .add("blows_total", &Out::blows_total, "", "once round")
                                     .add("units", &Out::units, "", "the wheel is divided into")
                                     .add("unit_deg", &Out::unit_deg, "deg", "of the wheel's turn")
                                     .add("groups", &Out::groups, "", "in the order struck")
                                     .add("unit_mm", &Out::unit_mm, "mm", "a unit at the rim")
                                     .add("least_land_mm", &Out::least_land_mm, "mm", "of rim between the two nearest slots")
                                     .add("widest_slot_mm", &Out::widest_slot_mm, "mm", "before the detent falls a blow early")
                                     .add("detent_lift_mm", &Out::detent_lift_mm, "mm", "out of a slot onto the rim")
                                     .add("outline", &Out::outline, "mm", "anticlockwise, the first strike from +x on")
                                     .add("warnings", &Out::warnings, "", "what speaks against it")
                                     .include(&Out::files);
    return record;
}

const Calculation& count_wheel_calculation() {
    static const Calculation calculation = declare<CountWheelInput, CountWheelResult>(
        "strike.countwheel", "Count wheel: its units, where each slot stands, and the wheel to be cut.", count_wheel_source, count_wheel,
        explain_count_wheel);
    return calculation;
}

}  // namespace echappe
