#include "teeth/form.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "teeth/cycloidal.h"

namespace echappe {

Point polar_point(double radius, double angle) { return {radius * std::cos(angle), radius * std::sin(angle)}; }

double radius_of(const Point& p) { return std::hypot(p[0], p[1]); }

double half_angle_at(const ToothForm& form, double radius) {
    const auto angle_of = [](const Point& p) { return std::atan2(p[1], p[0]); };
    const auto above = std::partition_point(form.half.begin(), form.half.end(),
                                            [&](const Point& p) { return p[0] * p[0] + p[1] * p[1] < radius * radius; });
    if (above == form.half.begin()) return angle_of(form.half.front());
    if (above == form.half.end()) return 0;
    const double from = radius_of(*(above - 1));
    const double to = radius_of(*above);
    const double share = to > from ? (radius - from) / (to - from) : 0;
    return angle_of(*(above - 1)) + share * (angle_of(*above) - angle_of(*(above - 1)));
}

MeshForms mesh_forms(const GeometryInput& in, bool arc, long long steps) {
    if (in.form.trundle_diameter_mm && in.form.school != "lantern")
        throw InputError("trundle_diameter_mm", print_short(*in.form.trundle_diameter_mm), "nothing: only a lantern pinion has trundles");
    if (in.form.pinion_profile_shift && in.form.school != "involute-20")
        throw InputError("pinion_profile_shift", print_short(*in.form.pinion_profile_shift), "nothing: only involute teeth are shifted");
    if (in.form.leaf && in.form.school != "cycloidal-watch")
        throw InputError("leaf", "a leaf", "nothing: only watch pinions take theirs from a table");
    if ((!in.form.wheel_half.empty() || !in.form.pinion_half.empty()) && in.form.school != "traced")
        throw InputError(in.form.wheel_half.empty() ? "pinion_half" : "wheel_half", "a trace", "nothing: the school is not \"traced\"");
    if (in.form.school == "lantern") {
        const double trundle = in.form.trundle_diameter_mm ? *in.form.trundle_diameter_mm / in.module_mm : usual_trundle;
        if (trundle >= 2 * std::sin(pi / static_cast<double>(in.pinion)) * static_cast<double>(in.pinion) / 2)
            throw InputError("trundle_diameter_mm", print_short(trundle * in.module_mm), "less than the distance between two trundles");
        return lantern_forms(in.wheel, in.pinion, trundle, steps);
    }
    if (in.form.school == "involute-20") return involute_forms(in.wheel, in.pinion, in.form.pinion_profile_shift, steps);
    const LeafShape clock = cycloidal::leaf_form(in.pinion);
    const LeafShape leaf = in.form.school == "cycloidal-watch" ? in.form.leaf.value_or(cycloidal::highest_leaf(in.pinion)) : clock;
    MeshForms forms{cycloidal_wheel_form(in.wheel, in.pinion, arc, steps), cycloidal_pinion_form(in.wheel, in.pinion, leaf, steps)};
    if (in.form.school == "traced") {
        if (!in.form.wheel_half.empty()) forms.wheel = traced_form(in.form.wheel_half, in.wheel, "wheel_half", steps);
        if (!in.form.pinion_half.empty()) forms.pinion = traced_form(in.form.pinion_half, in.pinion, "pinion_half", steps);
    }
    return forms;
}

}  // namespace echappe
