#include "teeth/form.h"

#include <cmath>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {

Point polar_point(double radius, double angle) { return {radius * std::cos(angle), radius * std::sin(angle)}; }

MeshForms mesh_forms(const GeometryInput& in, bool arc, long long steps) {
    if (in.trundle_diameter_mm && in.school != "lantern")
        throw InputError("trundle_diameter_mm", print_short(*in.trundle_diameter_mm), "nothing: only a lantern pinion has trundles");
    if (in.pinion_profile_shift && in.school != "involute-20")
        throw InputError("pinion_profile_shift", print_short(*in.pinion_profile_shift), "nothing: only involute teeth are shifted");
    if (in.school == "lantern") {
        const double trundle = in.trundle_diameter_mm ? *in.trundle_diameter_mm / in.module_mm : usual_trundle;
        if (trundle >= 2 * std::sin(3.14159265358979323846 / static_cast<double>(in.pinion)) * static_cast<double>(in.pinion) / 2)
            throw InputError("trundle_diameter_mm", print_short(trundle * in.module_mm), "less than the distance between two trundles");
        return lantern_forms(in.wheel, in.pinion, trundle, steps);
    }
    if (in.school == "involute-20") return involute_forms(in.wheel, in.pinion, in.pinion_profile_shift, steps);
    return {cycloidal_wheel_form(in.wheel, in.pinion, arc, steps), cycloidal_pinion_form(in.wheel, in.pinion, steps)};
}

}  // namespace echappe
