#include "pivots/curled_bush.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* curled_bush_source = "developed length of a curled strip; moisture movement of hardwoods";
constexpr double tangential_per_percent = 0.0025;
constexpr double radial_per_percent = 0.0013;
constexpr double grip_mm = 0.05;     ///< the bush is this much larger than its hole in the wood
constexpr double taper_share = 0.3;  ///< of the bush's height

}  // namespace

const Record& CurledBushInput::record() {
    using In = CurledBushInput;
    static const Record record =
        Fields<In>()
            .add("pivot_mm", &In::pivot_mm, "mm", "finished pivot", above(0, 100))
            .required()
            .add("sheet_mm", &In::sheet_mm, "mm", "thickness of the plate brass", above(0, 5))
            .because("curls round a small mandrel without cracking")
            .add("plate_mm", &In::plate_mm, "mm", "thickness of the wooden plate", above(0, 200))
            .required()
            .add("clearance_mm", &In::clearance_mm, "mm", "bore less pivot", between(0, 5))
            .because("wood moves with the season, so the bush is left freer than in brass")
            .add("taper_deg", &In::taper_deg, "deg", "of the entering end, each side", between(0, 20))
            .because("it enters by itself and then holds")
            .add("sawn", &In::sawn, "", "how the plate's width runs in the tree")
            .choices({"tangential", "radial"})
            .because("most boards are sawn so, and it is the worse of the two")
            .add("moisture_change_percent", &In::moisture_change_percent, "", "of the wood, from now to the season it must run in",
                 between(-20, 20))
            .add("across_grain_mm", &In::across_grain_mm, "mm", "distance of two holes, across the grain", above(0, 5000));
    return record;
}

const Record& CurledBushResult::record() {
    using Out = CurledBushResult;
    static const Record record = Fields<Out>()
                                     .add("mandrel_mm", &Out::mandrel_mm, "mm", "to curl round: the finished bore")
                                     .add("strip_length_mm", &Out::strip_length_mm, "mm", "cut to, joint butted")
                                     .add("strip_width_mm", &Out::strip_width_mm, "mm", "the plate's thickness")
                                     .add("outside_mm", &Out::outside_mm, "mm", "of the curled bush")
                                     .add("entering_mm", &Out::entering_mm, "mm", "tapered end")
                                     .add("hole_mm", &Out::hole_mm, "mm", "to bore in the plate")
                                     .add("holes_move_mm", &Out::holes_move_mm, "mm", "apart across the grain at the other moisture")
                                     .add("hole_across_mm", &Out::hole_across_mm, "mm", "bored hole across the grain at the other moisture")
                                     .add("notes", &Out::notes, "", "how it is fitted");
    return record;
}

CurledBushResult curl_bush(const CurledBushInput& in) {
    CurledBushResult out;
    out.mandrel_mm = in.pivot_mm + in.clearance_mm;
    out.strip_length_mm = pi * (out.mandrel_mm + in.sheet_mm);
    out.strip_width_mm = in.plate_mm;
    out.outside_mm = out.mandrel_mm + 2 * in.sheet_mm;
    out.entering_mm = out.outside_mm - 2 * taper_share * in.plate_mm * std::tan(in.taper_deg * pi / 180);
    if (out.entering_mm <= out.mandrel_mm)
        throw InputError("taper_deg", print_short(in.taper_deg, 9), "a taper that leaves some of the sheet at the entering end");
    out.hole_mm = out.outside_mm - grip_mm;
    const double swells = in.moisture_change_percent * (in.sawn == "tangential" ? tangential_per_percent : radial_per_percent);
    out.hole_across_mm = out.hole_mm * (1 + swells);
    if (in.across_grain_mm) out.holes_move_mm = *in.across_grain_mm * swells;
    out.notes = {"From the inside of the plate, tapered end first; press an old one out inwards, on a wooden anvil.",
                 "The joint of the curl stands away from where the pivot is pushed."};
    if (in.moisture_change_percent < 0)
        out.notes.push_back("Drier wood lets the holes come nearer across the grain: the mesh grows deeper.");
    if (in.moisture_change_percent > 0)
        out.notes.push_back("Wetter wood moves the holes apart across the grain: the mesh grows shallower.");
    return out;
}

std::vector<Working> explain_curled_bush(const CurledBushInput& in, const CurledBushResult& out) {
    Working strip =
        work_out("strip", "L = π (d + s)", {{"d", "mandrel", {out.mandrel_mm, 0}, "mm", 0}, {"s", "sheet", {in.sheet_mm, 0}, "mm", 0}},
                 "mm", curled_bush_source, [](auto x) { return pi * (x[0] + x[1]); });
    strip.notes = out.notes;
    return {strip};
}

const Calculation& curled_bush_calculation() {
    static const Calculation calculation = declare<CurledBushInput, CurledBushResult>(
        "bush.curl", "A bush of curled sheet brass for a wooden plate, and what moisture does to the holes.", curled_bush_source, curl_bush,
        explain_curled_bush);
    return calculation;
}

}  // namespace echappe
