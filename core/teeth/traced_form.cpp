// A tooth taken from the part itself: half of it, in modules, from the bottom of the gap to the tip.
#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "teeth/form.h"

namespace echappe {
namespace {

void check(const std::vector<Point>& half, long long count, const std::string& field) {
    const double R = static_cast<double>(count) / 2;
    if (half.size() < 3) throw InputError(field, std::to_string(half.size()) + " points", "at least 3, from the root to the tip");
    for (size_t i = 0; i < half.size(); ++i) {
        const std::string place = field + "[" + std::to_string(i) + "]";
        const double angle = std::atan2(half[i][1], half[i][0]);
        if (angle < -1e-9 || angle > pi / static_cast<double>(count) + 1e-9)
            throw InputError(place, print_fixed(angle * 180 / pi, 2) + "° from the tooth's middle",
                             "0 to " + print_fixed(180.0 / static_cast<double>(count), 2) + "°, half a pitch");
        if (i > 0 && radius_of(half[i]) < radius_of(half[i - 1]) - 1e-6)
            throw InputError(place, "a point nearer the arbor than the one before", "points that climb from the root to the tip");
    }
    if (radius_of(half.front()) >= R || radius_of(half.back()) <= R)
        throw InputError(field,
                         "radii " + print_short(radius_of(half.front()), 4) + " to " + print_short(radius_of(half.back()), 4) + " modules",
                         "points on both sides of the pitch circle, " + print_short(R, 4) + " modules");
}

/// No step longer than the height over `steps`: contact is looked for at points. Straight in polar coordinates, so that a
/// radial flank stays radial.
std::vector<Point> filled(const std::vector<Point>& half, long long steps) {
    const double longest = (radius_of(half.back()) - radius_of(half.front())) / static_cast<double>(steps);
    std::vector<Point> out{half.front()};
    for (size_t i = 1; i < half.size(); ++i) {
        const double r = radius_of(half[i - 1]);
        const double a = std::atan2(half[i - 1][1], half[i - 1][0]);
        const double dr = radius_of(half[i]) - r;
        const double da = std::atan2(half[i][1], half[i][0]) - a;
        const auto pieces = static_cast<int>(std::ceil(std::hypot(dr, r * da) / longest));
        for (int k = 1; k < pieces; ++k) out.push_back(polar_point(r + dr * k / pieces, a + da * k / pieces));
        out.push_back(half[i]);
    }
    return out;
}

}  // namespace

ToothForm traced_form(const std::vector<Point>& half, long long count, const std::string& field, long long steps) {
    check(half, count, field);
    ToothForm form;
    form.count = count;
    const double R = form.pitch_radius();
    form.half = half;
    if (half.back()[1] > 1e-12) form.half.push_back({radius_of(half.back()), 0});
    form.half = filled(form.half, steps);
    form.addendum = radius_of(half.back()) - R;
    form.dedendum = R - radius_of(half.front());
    form.thickness = 2 * R * half_angle_at(form, R);
    return form;
}

}  // namespace echappe
