// Involute teeth of 20°: later repairs and factory wheels. Shifted pinion and wheel, equal and opposite, keep the centre distance.
#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/solve.h"
#include "number/units.h"
#include "teeth/form.h"

namespace echappe {
namespace {

const double pressure = 20 * pi / 180;
constexpr double addendum = 1.0;
constexpr double dedendum = 1.25;

double involute(double angle) { return std::tan(angle) - angle; }

ToothForm part(long long count, double shift, long long steps) {
    ToothForm form;
    form.count = count;
    form.profile_shift = shift;
    form.thickness = pi / 2 + 2 * shift * std::tan(pressure);
    form.addendum = addendum + shift;
    form.dedendum = dedendum - shift;
    const double r = form.pitch_radius();
    const double base = r * std::cos(pressure);
    const double half_thickness = form.thickness / (2 * r);
    const auto half_angle = [&](double radius) {
        return half_thickness + involute(pressure) - involute(std::acos(std::min(1.0, base / radius)));
    };
    // Pointed before the tip: the flanks meet lower.
    if (half_angle(form.outside_radius()) < 0) {
        form.addendum = root_between(half_angle, r, form.outside_radius()) - r;
        form.warnings.push_back("Pointed: the flanks of " + std::to_string(count) + " shifted by " + print_short(shift, 3) +
                                " m meet below the full height.");
    }
    const double from = std::max(base, form.root_radius());
    const double to = form.outside_radius();
    for (long long i = 0; i <= steps; ++i) {
        // Evenly in the roll angle: points crowd where the involute leaves its base circle.
        const auto roll = [&](double radius) { return std::sqrt(std::max(0.0, radius * radius / (base * base) - 1)); };
        const double at = roll(from) + (roll(to) - roll(from)) * static_cast<double>(i) / static_cast<double>(steps);
        const double radius = base * std::sqrt(1 + at * at);
        form.half.push_back(polar_point(radius, half_angle(radius)));
    }
    const double land = std::max(0.0, half_angle(to));
    for (int i = 1; i <= 4; ++i) form.half.push_back(polar_point(to, land * (4 - i) / 4));
    if (static_cast<double>(count) < undercut_leaves * (1 - shift) - 1e-9)
        form.warnings.push_back(std::to_string(count) + " involute teeth are undercut when generated; a profile shift of " +
                                print_short((undercut_leaves - static_cast<double>(count)) / undercut_leaves, 3) + " m avoids it.");
    return form;
}

}  // namespace

MeshForms involute_forms(long long wheel, long long pinion, std::optional<double> pinion_shift, long long steps) {
    const double wanted = std::max(0.0, (undercut_leaves - static_cast<double>(pinion)) / undercut_leaves);
    const double shift = pinion_shift.value_or(wanted);
    return {part(wheel, -shift, steps), part(pinion, shift, steps)};
}

}  // namespace echappe
