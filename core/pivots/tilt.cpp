#include "pivots/tilt.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* tilt_source = "a strip of width d leaning against two opposite edges of a slot D wide and t long";

}  // namespace

const Record& TiltInput::record() {
    using In = TiltInput;
    static const Record record =
        Fields<In>()
            .add("pivot_mm", &In::pivot_mm, "mm", "pivot at its bearing length", above(0, 100))
            .add("hole_mm", &In::hole_mm, "mm", "hole", above(0, 100))
            .add("tilt_deg", &In::tilt_deg, "deg", "lean each way with the other end free", between(0, 60))
            .because("the middle of the 2 to 5 degrees that its followers use")
            .add("thickness_mm", &In::thickness_mm, "mm", "length of the straight hole: plate less oil sink", above(0, 100))
            .required()
            .add("free_end_mm", &In::free_end_mm, "mm", "from the hole to where the sway is watched", above(0, 1000));
    return record;
}

const Record& TiltResult::record() {
    using Out = TiltResult;
    static const Record record = Fields<Out>()
                                     .add("pivot_mm", &Out::pivot_mm, "mm", "pivot")
                                     .add("hole_mm", &Out::hole_mm, "mm", "hole")
                                     .add("tilt_deg", &Out::tilt_deg, "deg", "lean each way")
                                     .add("clearance_mm", &Out::clearance_mm, "mm", "hole less pivot")
                                     .add("sway_mm", &Out::sway_mm, "mm", "from side to side at the free end");
    return record;
}

double hole_for_tilt(double d, double alpha, double t) { return (d + t * std::sin(alpha)) / std::cos(alpha); }

// D cos α − t sin α is √(D² + t²) cos(α + φ) with tan φ = t ÷ D.
double tilt_in_hole(double d, double D, double t) { return std::max(0.0, std::acos(d / std::hypot(D, t)) - std::atan2(t, D)); }

TiltResult tilt_test(const TiltInput& in) {
    const int given = in.pivot_mm.has_value() + in.hole_mm.has_value() + in.tilt_deg.has_value();
    if (given != 2) throw InputError("pivot_mm", std::to_string(given) + " of pivot_mm, hole_mm and tilt_deg", "just two of them");
    const double t = in.thickness_mm;
    TiltResult out;
    if (!in.hole_mm) {
        out = {*in.pivot_mm, hole_for_tilt(*in.pivot_mm, *in.tilt_deg * rad_per_deg, t), *in.tilt_deg};
    } else if (!in.tilt_deg) {
        if (*in.hole_mm < *in.pivot_mm)
            throw InputError("hole_mm", print_short(*in.hole_mm, 9), "at least the pivot, " + print_short(*in.pivot_mm, 9));
        out = {*in.pivot_mm, *in.hole_mm, tilt_in_hole(*in.pivot_mm, *in.hole_mm, t) / rad_per_deg};
    } else {
        const double alpha = *in.tilt_deg * rad_per_deg;
        out = {*in.hole_mm * std::cos(alpha) - t * std::sin(alpha), *in.hole_mm, *in.tilt_deg};
        if (out.pivot_mm <= 0)
            throw InputError("tilt_deg", print_short(*in.tilt_deg, 9), "a lean that this hole allows some pivot: a smaller one");
    }
    out.clearance_mm = out.hole_mm - out.pivot_mm;
    if (in.free_end_mm) out.sway_mm = 2 * *in.free_end_mm * std::tan(out.tilt_deg * rad_per_deg);
    return out;
}

std::vector<Working> explain_tilt(const TiltInput& in, const TiltResult& out) {
    const Term d{"d", "pivot", {out.pivot_mm, 0}, "mm", 0};
    const Term t{"t", "straight length of the hole", {in.thickness_mm, 0}, "mm", 0};
    const Term a{"α", "lean each way", {out.tilt_deg * rad_per_deg, 0}, "rad", 0};
    Working working = work_out("hole", "D = (d + t sin α) ÷ cos α", {d, t, a}, "mm", tilt_source,
                               [](auto x) { return (x[0] + x[1] * std::sin(x[2])) / std::cos(x[2]); });
    working.notes.push_back("leans " + print_fixed(out.tilt_deg, 2) + "° each way, clearance " + print_fixed(out.clearance_mm, 3) + " mm");
    if (out.sway_mm) working.notes.push_back("sways " + print_fixed(*out.sway_mm, 2) + " mm from side to side at the free end");
    return {working};
}

const Calculation& tilt_calculation() {
    static const Calculation calculation =
        declare<TiltInput, TiltResult>("pivot.tilt", "Pivot, hole or lean from the other two: how far an arbor wobbles in one hole.",
                                       tilt_source, tilt_test, explain_tilt);
    return calculation;
}

}  // namespace echappe
