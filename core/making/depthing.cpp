#include "making/depthing.h"

#include <algorithm>
#include <cmath>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* depthing_source = "two circles, each about a hole with the distance its teeth want";

double distance(const DepthingNeighbour& n, double x, double y) { return std::hypot(x - n.x_mm, y - n.y_mm); }

/// Notation: d between the holes, r and s the distances wanted, a from the first hole along d, h across it.
std::vector<Point> crossings(const DepthingNeighbour& p, const DepthingNeighbour& q, std::optional<double>& miss) {
    const double d = std::hypot(q.x_mm - p.x_mm, q.y_mm - p.y_mm);
    const double r = p.distance_mm;
    const double s = q.distance_mm;
    const double a = (d * d + r * r - s * s) / (2 * d);
    const double squared = r * r - a * a;
    if (squared < 0) {
        miss = d > r + s ? d - r - s : std::abs(r - s) - d;
        return {};
    }
    const double h = std::sqrt(squared);
    const double ux = (q.x_mm - p.x_mm) / d;
    const double uy = (q.y_mm - p.y_mm) / d;
    const double x = p.x_mm + a * ux;
    const double y = p.y_mm + a * uy;
    return {{x - h * uy, y + h * ux}, {x + h * uy, y - h * ux}};
}

/// On the one arc, straight out from its middle through the hole.
std::vector<Point> nearest_on_arc(const DepthingNeighbour& n, double x, double y) {
    const double far = distance(n, x, y);
    if (far == 0) return {{n.x_mm + n.distance_mm, n.y_mm}};
    return {{n.x_mm + (x - n.x_mm) * n.distance_mm / far, n.y_mm + (y - n.y_mm) * n.distance_mm / far}};
}

}  // namespace

const Record& DepthingNeighbour::record() {
    using In = DepthingNeighbour;
    static const Record record = Fields<In>()
                                     .add("id", &In::id, "", "which arbor")
                                     .add("x_mm", &In::x_mm, "mm", "its hole, seen from the dial", between(-10000, 10000))
                                     .required()
                                     .add("y_mm", &In::y_mm, "mm", "its hole", between(-10000, 10000))
                                     .required()
                                     .add("distance_mm", &In::distance_mm, "mm", "centre distance the teeth want", above(0, 10000))
                                     .required();
    return record;
}

const Record& DepthingInput::record() {
    using In = DepthingInput;
    static const Record record =
        Fields<In>()
            .add("neighbours", &In::neighbours, "", "one or two holes that stand, with the distances to set")
            .required()
            .add("hole_x_mm", &In::hole_x_mm, "mm", "the hole as it is, or as it would be moved", between(-10000, 10000))
            .add("hole_y_mm", &In::hole_y_mm, "mm", "the same", between(-10000, 10000));
    return record;
}

const Record& DepthingEffect::record() {
    using Out = DepthingEffect;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "which neighbour")
                                     .add("distance_mm", &Out::distance_mm, "mm", "from the hole to it")
                                     .add("depth_mm", &Out::depth_mm, "mm", "what is too deep; negative: too shallow");
    return record;
}

const Record& DepthingResult::record() {
    using Out = DepthingResult;
    static const Record record = Fields<Out>()
                                     .add("points", &Out::points, "mm", "where the arcs cross, the nearer to the hole first")
                                     .add("effects", &Out::effects, "", "what the hole does to each mesh")
                                     .add("off_mm", &Out::off_mm, "mm", "from the hole to the first point")
                                     .add("arcs_miss_mm", &Out::arcs_miss_mm, "mm", "how far arcs that do not cross stay apart");
    return record;
}

DepthingResult set_depthing(const DepthingInput& in) {
    const auto& list = in.neighbours;
    if (list.empty() || list.size() > 2) throw InputError("neighbours", std::to_string(list.size()), "1 or 2 holes that stand");
    const bool two = list.size() == 2;
    if (two && list[0].x_mm == list[1].x_mm && list[0].y_mm == list[1].y_mm)
        throw InputError("neighbours[1]", "the place of neighbours[0]", "another hole: about one middle the arcs never cross");
    const bool hole = in.hole_x_mm && in.hole_y_mm;
    DepthingResult out;
    if (two) out.points = crossings(list[0], list[1], out.arcs_miss_mm);
    else if (hole) out.points = nearest_on_arc(list[0], *in.hole_x_mm, *in.hole_y_mm);
    if (!hole) return out;
    const auto off = [&](const Point& p) { return std::hypot(p[0] - *in.hole_x_mm, p[1] - *in.hole_y_mm); };
    std::stable_sort(out.points.begin(), out.points.end(), [&](const Point& a, const Point& b) { return off(a) < off(b); });
    if (!out.points.empty()) out.off_mm = off(out.points.front());
    for (const DepthingNeighbour& n : list) {
        const double now = distance(n, *in.hole_x_mm, *in.hole_y_mm);
        out.effects.push_back({n.id, now, n.distance_mm - now});
    }
    return out;
}

std::vector<Working> explain_depthing(const DepthingInput& in, const DepthingResult& out) {
    if (in.neighbours.size() < 2) return {};
    const DepthingNeighbour& p = in.neighbours[0];
    const DepthingNeighbour& q = in.neighbours[1];
    const Term d{"d", "between the two holes", {std::hypot(q.x_mm - p.x_mm, q.y_mm - p.y_mm), 0}, "mm", 0};
    const Term r{"r", "to set from the first", {p.distance_mm, 0}, "mm", 0};
    const Term s{"s", "to set from the second", {q.distance_mm, 0}, "mm", 0};
    Working working = work_out("crossing, along the line from the first hole", "a = (d × d + r × r − s × s) ÷ (2 d)", {d, r, s}, "mm",
                               depthing_source, [](auto x) { return (x[0] * x[0] + x[1] * x[1] - x[2] * x[2]) / (2 * x[0]); });
    for (const Point& point : out.points)
        working.notes.push_back("at " + print_fixed(point[0], 3) + ", " + print_fixed(point[1], 3) + " mm");
    if (out.arcs_miss_mm) working.notes.push_back("the arcs do not cross: they miss by " + print_fixed(*out.arcs_miss_mm, 3) + " mm");
    for (const DepthingEffect& effect : out.effects)
        working.notes.push_back(effect.id + ": the hole stands " + print_fixed(std::abs(effect.depth_mm), 3) + " mm too " +
                                (effect.depth_mm < 0 ? "far" : "near"));
    return {working};
}

const Calculation& depthing_calculation() {
    static const Calculation calculation = declare<DepthingInput, DepthingResult>(
        "depthing.set", "Distances to set from one or two holes, where the arcs cross, and what a moved hole does to each mesh.",
        depthing_source, set_depthing, explain_depthing);
    return calculation;
}

}  // namespace echappe
