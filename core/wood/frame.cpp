#include "wood/frame.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* frame_source = "three points make a plane; geometry";
constexpr double usual_bears_mm = 0.3;

}  // namespace

WoodFrameResult wood_frame(const WoodFrameInput& in) {
    if (in.corners_mm.size() != 4)
        throw InputError("corners_mm", std::to_string(in.corners_mm.size()) + " heights", "four, in their order round the frame");
    const auto& h = in.corners_mm;
    WoodFrameResult out;
    const double twist = h[0] + h[2] - h[1] - h[3];
    out.twist_mm = std::abs(twist);
    out.shim_mm = out.twist_mm;
    // The pair that stands higher is free of the table: under the higher of its corners goes the shim.
    const size_t first = twist > 0 ? 0 : 1;
    out.corner = static_cast<long long>((h[first] >= h[first + 2] ? first : first + 2) + 1);
    if (in.wide_mm && in.high_mm) out.twist_deg = std::atan(out.twist_mm / std::min(*in.wide_mm, *in.high_mm)) * 180 / pi;
    const double bears = in.bears_mm.value_or(usual_bears_mm);
    out.verdict =
        out.twist_mm <= bears
            ? "Flat within what its arbors bear."
            : "Twisted by " + print_fixed(out.twist_mm, 2) + " mm: a shim of that thickness under corner " + std::to_string(out.corner) +
                  ", of hard wood, grain with the frame's. Hang the weights first: a frame that twists under them is shimmed as it stands "
                  "loaded. Loose joints are glued, thin glue drawn through by gentle vacuum; never nailed.";
    return out;
}

std::vector<Working> explain_wood_frame(const WoodFrameInput& in, const WoodFrameResult& out) {
    const auto& h = in.corners_mm;
    std::vector<Working> list = {work_out("twist", "t = |h₁ + h₃ − h₂ − h₄|",
                                          {given("h₁", "corner 1", h[0], "mm"), given("h₂", "corner 2", h[1], "mm"),
                                           given("h₃", "corner 3", h[2], "mm"), given("h₄", "corner 4", h[3], "mm")},
                                          "mm", frame_source, [](auto x) { return std::abs(x[0] + x[2] - x[1] - x[3]); })};
    list.back().notes.push_back(out.verdict);
    return list;
}

const Record& WoodFrameInput::record() {
    using In = WoodFrameInput;
    static const Record record =
        Fields<In>()
            .add("corners_mm", &In::corners_mm, "mm", "heights over a flat table, in their order round it", between(-100, 1000))
            .required()
            .add("wide_mm", &In::wide_mm, "mm", "of the frame, between those corners", above(0, 10000))
            .add("high_mm", &In::high_mm, "mm", "of the frame, between those corners", above(0, 10000))
            .add("bears_mm", &In::bears_mm, "mm", "twist that its arbors bear; empty: 0.3", above(0, 100));
    return record;
}

const Record& WoodFrameResult::record() {
    using Out = WoodFrameResult;
    static const Record record = Fields<Out>()
                                     .add("twist_mm", &Out::twist_mm, "mm", "of one corner out of the plane of the others")
                                     .add("shim_mm", &Out::shim_mm, "mm", "under the corner that stands free")
                                     .add("corner", &Out::corner, "", "which, 1 to 4")
                                     .add("twist_deg", &Out::twist_deg, "deg", "over its shorter side")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& wood_frame_calculation() {
    static const Calculation calculation =
        declare<WoodFrameInput, WoodFrameResult>("wood.frame", "A wooden frame that is twisted: by how much, and the shim that sets it.",
                                                 frame_source, wood_frame, explain_wood_frame);
    return calculation;
}

}  // namespace echappe
