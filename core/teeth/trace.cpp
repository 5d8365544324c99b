#include "teeth/trace.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "teeth/form.h"

namespace echappe {
namespace {

constexpr const char* trace_source = "flanks read off where the outline crosses circles about the arbor";
constexpr double scatter_worth_a_word_modules = 0.03;

/// Where an outline crosses a circle, and whether it climbs there.
struct Crossing {
    double angle;
    bool outwards;
};

std::vector<Crossing> crossings_of(const std::vector<Point>& outline, double radius) {
    std::vector<Crossing> list;
    for (size_t i = 0; i < outline.size(); ++i) {
        const Point& a = outline[i];
        const Point& b = outline[(i + 1) % outline.size()];
        const bool outwards = radius_of(a) < radius && radius_of(b) >= radius;
        const bool inwards = radius_of(a) >= radius && radius_of(b) < radius;
        if (!outwards && !inwards) continue;
        // |a + s (b − a)| = radius
        const double dx = b[0] - a[0];
        const double dy = b[1] - a[1];
        const double A = dx * dx + dy * dy;
        const double B = a[0] * dx + a[1] * dy;
        const double C = a[0] * a[0] + a[1] * a[1] - radius * radius;
        const double root = std::sqrt(std::max(0.0, B * B - A * C));
        const double s = outwards ? (-B + root) / A : (-B - root) / A;
        list.push_back({std::atan2(a[1] + s * dy, a[0] + s * dx), outwards});
    }
    return list;
}

struct Width {
    double middle;
    double half;
};

/// Every tooth's width at a radius: from where an anticlockwise outline climbs to where it next falls.
std::vector<Width> widths_at(const std::vector<std::vector<Point>>& outlines, double radius, double pitch) {
    std::vector<Width> widths;
    for (const auto& outline : outlines) {
        const std::vector<Crossing> list = crossings_of(outline, radius);
        for (size_t i = 0; i < list.size(); ++i) {
            const Crossing& next = list[(i + 1) % list.size()];
            if (!list[i].outwards || next.outwards) continue;
            const double across = std::remainder(next.angle - list[i].angle, 2 * pi);
            if (across > 0 && across < pitch) widths.push_back({list[i].angle + across / 2, across / 2});
        }
    }
    return widths;
}

struct Level {
    double radius;
    double half;
    double scatter;
    std::vector<Width> widths;
};

Level level_at(const std::vector<std::vector<Point>>& outlines, double radius, double pitch) {
    Level level{radius, 0, 0, widths_at(outlines, radius, pitch)};
    double squares = 0;
    for (const Width& w : level.widths) level.half += w.half / static_cast<double>(level.widths.size());
    for (const Width& w : level.widths) squares += (w.half - level.half) * (w.half - level.half);
    if (level.widths.size() > 1) level.scatter = std::sqrt(squares / static_cast<double>(level.widths.size() - 1));
    return level;
}

/// Most that a tooth's middle moves from level to level, the mean of all teeth taken with its sign.
double lean_of(const std::vector<Level>& levels, double pitch) {
    const Level& low = levels.front();
    double most = 0;
    for (const Level& level : levels) {
        double sum = 0;
        size_t paired = 0;
        for (const Width& w : level.widths)
            for (const Width& base : low.widths) {
                const double off = std::remainder(w.middle - base.middle, 2 * pi);
                if (std::abs(off) > pitch / 2) continue;
                sum += off;
                ++paired;
            }
        if (paired > 0) most = std::max(most, std::abs(sum / static_cast<double>(paired)) * level.radius);
    }
    return most;
}

std::vector<std::vector<Point>> anticlockwise(std::vector<std::vector<Point>> outlines) {
    for (auto& outline : outlines)
        if (area_mm2(outline) < 0) std::reverse(outline.begin(), outline.end());
    return outlines;
}

}  // namespace

const Record& TraceInput::record() {
    using In = TraceInput;
    static const Record record =
        Fields<In>()
            .add("outlines", &In::outlines, "mm", "closed outlines about the arbor at 0, 0: a whole wheel or single teeth")
            .add("file", &In::file, "", "DXF with polylines, or CSV with x_mm,y_mm, instead of outlines")
            .add("teeth", &In::teeth, "", "of the whole wheel", between(4, 1000))
            .required()
            .add("module_mm", &In::module_mm, "mm", "pitch diameter per tooth", between(0.01, 50))
            .required()
            .add("levels", &In::levels, "", "circles at which the teeth are read", between(8, 400))
            .because("finer than a photograph's grain");
    return record;
}

const Record& TraceResult::record() {
    using Out = TraceResult;
    static const Record record = Fields<Out>()
                                     .add("half", &Out::half, "module", "half a tooth from root to tip, for wheel_half or pinion_half")
                                     .add("teeth_seen", &Out::teeth_seen, "", "teeth read at the pitch circle")
                                     .add("addendum_mm", &Out::addendum_mm, "mm", "tip above the pitch circle")
                                     .add("dedendum_mm", &Out::dedendum_mm, "mm", "root below it")
                                     .add("thickness_mm", &Out::thickness_mm, "mm", "along the pitch circle")
                                     .add("scatter_um", &Out::scatter_um, "µm", "standard deviation of a flank from tooth to tooth")
                                     .add("lean_um", &Out::lean_um, "µm", "most that the middle wanders between root and tip")
                                     .add("warnings", &Out::warnings, "", "what to look at");
    return record;
}

TraceResult trace_tooth(const TraceInput& in) {
    const auto outlines = anticlockwise(in.outlines);
    const double pitch = 2 * pi / static_cast<double>(in.teeth);
    const double R = in.module_mm * static_cast<double>(in.teeth) / 2;
    double root = INFINITY;
    double tip = 0;
    for (const auto& outline : outlines)
        for (const Point& p : outline) {
            root = std::min(root, radius_of(p));
            tip = std::max(tip, radius_of(p));
        }
    if (!(root < R && R < tip))
        throw InputError("outlines", outlines.empty() ? "nothing" : "radii " + print_fixed(root, 3) + " to " + print_fixed(tip, 3) + " mm",
                         "teeth that stand across the pitch circle of " + print_fixed(R, 3) + " mm, about the arbor at 0, 0");
    // Just inside the lowest and the highest point the circles are cut by stray points only.
    const double low = root + 0.02 * (tip - root);
    const double high = tip - 0.01 * (tip - root);
    std::vector<Level> levels;
    for (long long i = 0; i <= in.levels; ++i) {
        const double radius = low + (high - low) * static_cast<double>(i) / static_cast<double>(in.levels);
        Level level = level_at(outlines, radius, pitch);
        if (!level.widths.empty()) levels.push_back(std::move(level));
    }
    const Level at_pitch = level_at(outlines, R, pitch);
    if (levels.size() < 3 || at_pitch.widths.empty())
        throw InputError("outlines", std::to_string(at_pitch.widths.size()) + " teeth at the pitch circle",
                         "at least one tooth with both flanks");
    TraceResult out;
    out.teeth_seen = static_cast<long long>(at_pitch.widths.size());
    out.addendum_mm = tip - R;
    out.dedendum_mm = R - root;
    out.thickness_mm = 2 * R * at_pitch.half;
    out.half.push_back(polar_point(root / in.module_mm, levels.front().half));
    for (const Level& level : levels) {
        out.half.push_back(polar_point(level.radius / in.module_mm, level.half));
        out.scatter_um = std::max(out.scatter_um, 1000 * level.scatter * level.radius);
    }
    out.half.push_back({tip / in.module_mm, 0});
    out.lean_um = 1000 * lean_of(levels, pitch);
    if (out.teeth_seen > in.teeth)
        throw InputError("teeth", std::to_string(in.teeth), std::to_string(out.teeth_seen) + ", as the outline has at the pitch circle");
    if (out.scatter_um > 1000 * scatter_worth_a_word_modules * in.module_mm)
        out.warnings.push_back("The teeth differ by " + print_fixed(out.scatter_um, 0) + " µm: leave bent and worn ones out of the trace.");
    if (out.lean_um > 1000 * scatter_worth_a_word_modules * in.module_mm)
        out.warnings.push_back("The teeth lean by " + print_fixed(out.lean_um, 0) +
                               " µm: one flank is worn, or 0, 0 is not the arbor. The form is made symmetric.");
    return out;
}

std::vector<Working> explain_trace(const TraceInput& in, const TraceResult& out) {
    const Term r{"r",
                 "half the angle of a tooth at the pitch circle",
                 {out.thickness_mm / (in.module_mm * static_cast<double>(in.teeth)), 0},
                 "rad",
                 0};
    const Term m{"m", "module", {in.module_mm, 0}, "mm", 0};
    const Term N{"N", "teeth", {static_cast<double>(in.teeth), 0}, "", 0};
    Working working =
        work_out("thickness at the pitch circle", "s = m N r", {m, N, r}, "mm", trace_source, [](auto x) { return x[0] * x[1] * x[2]; });
    working.notes.push_back(std::to_string(out.teeth_seen) + " teeth read; they differ by " + print_fixed(out.scatter_um, 1) +
                            " µm and lean by " + print_fixed(out.lean_um, 1) + " µm");
    for (const std::string& warning : out.warnings) working.notes.push_back(warning);
    return {working};
}

}  // namespace echappe
