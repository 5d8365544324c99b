#include "making/hole_circle.h"

#include <cmath>

#include "number/constants.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* hole_circle_source = "chords of a circle";

double chord(double radius, long long holes, long long apart) {
    return 2 * radius * std::sin(180 * rad_per_deg * static_cast<double>(apart) / static_cast<double>(holes));
}

}  // namespace

HoleCircleResult hole_circle(const HoleCircleInput& in) {
    HoleCircleResult out;
    for (long long i = 0; i < in.holes; ++i) {
        const double deg = in.start_deg + 360 * static_cast<double>(i) / static_cast<double>(in.holes);
        out.points.push_back({deg, in.radius_mm * std::cos(deg * rad_per_deg), in.radius_mm * std::sin(deg * rad_per_deg)});
    }
    for (long long apart = 1; 2 * apart <= in.holes; ++apart) out.distances.push_back({apart, chord(in.radius_mm, in.holes, apart)});
    if (in.hole_mm && !out.distances.empty()) out.left_mm = out.distances.front().mm - *in.hole_mm;
    out.verdict =
        out.distances.empty() ? "One hole." : "Dividers to " + print_fixed(out.distances.front().mm, 3) + " mm from hole to hole.";
    if (out.left_mm && *out.left_mm < *in.hole_mm / 2)
        out.verdict += *out.left_mm <= 0 ? " The holes run into each other."
                                         : " Little metal is left between them: " + print_fixed(*out.left_mm, 2) + " mm.";
    return out;
}

std::vector<Working> explain_hole_circle(const HoleCircleInput& in, const HoleCircleResult& out) {
    std::vector<Working> list = {
        work_out("from hole to hole", "c = 2 r sin(180° ÷ n)",
                 {given("r", "radius", in.radius_mm, "mm"), given("n", "holes", static_cast<double>(in.holes), "")}, "mm",
                 hole_circle_source, [](auto x) { return 2 * x[0] * std::sin(180 * rad_per_deg / x[1]); })};
    list.back().notes.push_back(out.verdict);
    return list;
}

const Record& HoleCircleInput::record() {
    using In = HoleCircleInput;
    static const Record record = Fields<In>()
                                     .add("holes", &In::holes, "", "on the circle", between(1, 1000))
                                     .required()
                                     .add("radius_mm", &In::radius_mm, "mm", "of the circle", above(0, 5000))
                                     .required()
                                     .add("start_deg", &In::start_deg, "deg", "of the first, anticlockwise from +x", between(-360, 360))
                                     .add("hole_mm", &In::hole_mm, "mm", "diameter of each", above(0, 500));
    return record;
}

const Record& HoleOnCircle::record() {
    using Out = HoleOnCircle;
    static const Record record = Fields<Out>()
                                     .add("deg", &Out::deg, "deg", "anticlockwise from +x")
                                     .add("x_mm", &Out::x_mm, "mm", "from the centre")
                                     .add("y_mm", &Out::y_mm, "mm", "from the centre");
    return record;
}

const Record& HoleDistance::record() {
    using Out = HoleDistance;
    static const Record record =
        Fields<Out>().add("apart", &Out::apart, "", "holes further").add("mm", &Out::mm, "mm", "from middle to middle");
    return record;
}

const Record& HoleCircleResult::record() {
    using Out = HoleCircleResult;
    static const Record record = Fields<Out>()
                                     .add("points", &Out::points, "", "in their order")
                                     .add("distances", &Out::distances, "", "to the neighbour first, up to the one opposite")
                                     .add("left_mm", &Out::left_mm, "mm", "of metal between neighbours")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& hole_circle_calculation() {
    static const Calculation calculation = declare<HoleCircleInput, HoleCircleResult>(
        "hole.circle", "Holes on a circle: where each stands, and the distances between any two.", hole_circle_source, hole_circle,
        explain_hole_circle);
    return calculation;
}

}  // namespace echappe
