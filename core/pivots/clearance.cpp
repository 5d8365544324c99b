#include "pivots/clearance.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "pivots/tilt.h"

namespace echappe {
namespace {

constexpr const char* clearance_source = "three schools of workshop practice; the lean by the geometry of a pivot in a straight hole";

struct Step {
    double up_to_mm;
    double clearance_mm;
};
/// Side shake by size of pivot: sizes that go well, kept as a table by those who would not work it out. Practice, not a standard.
constexpr Step table[] = {{0.15, 0.010}, {0.3, 0.015}, {0.6, 0.020}, {1.0, 0.030},     {2.0, 0.050},
                          {3.0, 0.070},  {5.0, 0.100}, {8.0, 0.150}, {INFINITY, 0.200}};

double by_table(double pivot_mm) {
    return std::find_if(std::begin(table), std::end(table), [&](const Step& step) { return pivot_mm <= step.up_to_mm; })->clearance_mm;
}

/// Play that a thick bearing runs well with: under 6 mm what the choice says, above it the middle of the loose running fit
/// H11/c11 (ISO 286), which is 0.145 mm at 6 mm, where the usual ceiling stands.
double ceiling_of(const ClearanceChoice& choice, double pivot_mm) {
    constexpr double usual_up_to_mm = 6;
    constexpr Step loose_running[] = {{10, 0.17}, {18, 0.205}, {30, 0.24}, {50, 0.29}, {INFINITY, 0.33}};
    if (pivot_mm <= usual_up_to_mm) return choice.ceiling_mm;
    const double loose = std::find_if(std::begin(loose_running), std::end(loose_running), [&](const Step& s) {
                             return pivot_mm <= s.up_to_mm;
                         })->clearance_mm;
    return std::max(choice.ceiling_mm, loose);
}

}  // namespace

const Record& ClearanceChoice::record() {
    using In = ClearanceChoice;
    static const Record record =
        Fields<In>()
            .add("school", &In::school, "", "what the clearance goes by")
            .choices({"fraction", "tilt", "table"})
            .because("it needs nothing but the pivot; the others are shown beside it")
            .add("fraction", &In::fraction, "", "of the pivot; 0.04 to 0.10 is usual", between(0.005, 0.5))
            .because("the middle of what its followers use")
            .add("floor_mm", &In::floor_mm, "mm", "least by the fraction: clocks 0.02, watches 0.01 to 0.015", between(0, 1))
            .because("under it oil has no room and dirt binds")
            .add("ceiling_mm", &In::ceiling_mm, "mm", "most by the fraction: clocks 0.15, a watch's barrel 0.02 to 0.03", above(0, 1))
            .because(
                "what runs well does not grow with a thick pivot; under 6 mm only, above it the loose running fit of ISO 286 is allowed")
            .add("tilt_deg", &In::tilt_deg, "deg", "lean each way", between(0.1, 15))
            .because("the middle of the 2 to 5 degrees that its followers use");
    return record;
}

const Record& ClearanceInput::record() {
    using In = ClearanceInput;
    static const Record record =
        Fields<In>()
            .add("pivot_mm", &In::pivot_mm, "mm", "finished pivot", above(0, 100))
            .required()
            .add("length_mm", &In::length_mm, "mm", "bearing length: plate or bush, less the oil sink", above(0, 100))
            .required()
            .add("clearance", &In::clearance, "", "the school picked, with its figure");
    return record;
}

const Record& SchoolClearance::record() {
    using Out = SchoolClearance;
    static const Record record = Fields<Out>()
                                     .add("school", &Out::school, "", "id")
                                     .add("words", &Out::words, "", "with its figure")
                                     .add("clearance_mm", &Out::clearance_mm, "mm", "hole less pivot")
                                     .add("hole_mm", &Out::hole_mm, "mm", "hole")
                                     .add("tilt_deg", &Out::tilt_deg, "deg", "lean it allows each way")
                                     .add("why", &Out::why, "", "what its followers say");
    return record;
}

const Record& ClearanceResult::record() {
    using Out = ClearanceResult;
    static const Record record = Fields<Out>()
                                     .add("clearance_mm", &Out::clearance_mm, "mm", "by the school picked")
                                     .add("schools", &Out::schools, "", "what each school says of this hole");
    return record;
}

double clearance_by(const ClearanceChoice& choice, double pivot_mm, double length_mm) {
    if (choice.school == "fraction") return std::max(choice.floor_mm, std::min(ceiling_of(choice, pivot_mm), choice.fraction * pivot_mm));
    if (choice.school == "tilt") return hole_for_tilt(pivot_mm, choice.tilt_deg * rad_per_deg, length_mm) - pivot_mm;
    if (choice.school == "table") return by_table(pivot_mm);
    throw InputError("clearance.school", "\"" + choice.school + "\"", "fraction, tilt or table");
}

std::string words_for(const ClearanceChoice& choice) {
    if (choice.school == "fraction") return print_short(100 * choice.fraction, 3) + " % of the pivot";
    if (choice.school == "tilt") return "lean of " + print_short(choice.tilt_deg, 3) + "°";
    return "table by size";
}

ClearanceResult compare_clearances(const ClearanceInput& in) {
    ClearanceResult out;
    out.clearance_mm = clearance_by(in.clearance, in.pivot_mm, in.length_mm);
    for (const auto& [school, why] : {std::pair{"tilt", "what the hand feels: a long bearing needs more room for the same freedom"},
                                      std::pair{"fraction", "what the oil needs: room in proportion to the pivot, never under the floor"},
                                      std::pair{"table", "what was seen to run well, whatever the plate"}}) {
        ClearanceChoice choice = in.clearance;
        choice.school = school;
        const double room = clearance_by(choice, in.pivot_mm, in.length_mm);
        out.schools.push_back({school, words_for(choice), room, in.pivot_mm + room,
                               tilt_in_hole(in.pivot_mm, in.pivot_mm + room, in.length_mm) / rad_per_deg, why});
    }
    return out;
}

std::vector<Working> explain_clearances(const ClearanceInput& in, const ClearanceResult& out) {
    std::vector<Working> list;
    for (const SchoolClearance& school : out.schools) {
        const Term d{"d", "pivot", {in.pivot_mm, 0}, "mm", 0};
        Working working = work_out("hole by the " + school.words, "D = d + s", {d, {"s", "clearance", {school.clearance_mm, 0}, "mm", 0}},
                                   "mm", clearance_source, [](auto x) { return x[0] + x[1]; });
        working.notes = {school.why, "lets the arbor lean " + print_fixed(school.tilt_deg, 1) + "° each way"};
        list.push_back(std::move(working));
    }
    return list;
}

const Calculation& clearance_calculation() {
    static const Calculation calculation = declare<ClearanceInput, ClearanceResult>(
        "pivot.clearance", "What each school of clearance gives for one pivot, and how far the arbor then leans.", clearance_source,
        compare_clearances, explain_clearances);
    return calculation;
}

}  // namespace echappe
