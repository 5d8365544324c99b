// A wheel for a lantern pinion: the trundle's centre rolls out an epicycloid of the pinion's full pitch radius, and the tooth
// stands off it by the trundle's radius.
#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/solve.h"
#include "number/units.h"
#include "teeth/form.h"

namespace echappe {
namespace {

constexpr double practical_share = 0.95;
constexpr double contact_wanted = 1.1;  ///< pitches: the next trundle must be taken before this one is left
constexpr double root_clearance = 0.25;

/// R wheel's pitch radius, r pinion's; a trundle stood at R on the axis when the wheel had not turned (t = 0) and the tooth
/// that pushes it lies above. t: how far the wheel has turned since.
struct Rolling {
    double R, r, trundle;

    Point centre(double t) const {
        const double turns = (R + r) / r * t;
        return {(R + r) * std::cos(t) - r * std::cos(turns), (R + r) * std::sin(t) - r * std::sin(turns)};
    }
    /// From the trundle's centre towards the point where the pitch circles touch: there is the common normal.
    Point flank(double t) const {
        const Point p = centre(t);
        const Point contact = polar_point(R, t);
        const double length = std::hypot(contact[0] - p[0], contact[1] - p[1]);
        return {p[0] + (contact[0] - p[0]) / length * trundle / 2, p[1] + (contact[1] - p[1]) / length * trundle / 2};
    }
    /// Near its foot the offset curve doubles back inside the trundle where it first stood: the flank begins where it comes
    /// out of that circle.
    double start() const {
        const auto outside_by = [&](double t) {
            const Point p = flank(t);
            return std::hypot(p[0] - R, p[1]) - (trundle / 2 - 1e-12);
        };
        const double low = 1e-3 * trundle / R;
        double high = low;
        while (high < pi / 2 && outside_by(high) < 0) high *= 1.3;
        return outside_by(high) <= 0 ? high : outside_by(low) >= 0 ? low : root_between(outside_by, low, high);
    }
};

/// Where a falling function is 0, or the end that is nearer to it.
double fall_through_zero(double low, double high, const std::function<double(double)>& of) {
    return of(low) <= 0 ? low : of(high) >= 0 ? high : root_between(of, low, high);
}

}  // namespace

MeshForms lantern_forms(long long wheel, long long pinion, double trundle, long long steps) {
    MeshForms forms;
    ToothForm& tooth = forms.wheel;
    tooth.count = wheel;
    tooth.thickness = pi / 2;
    const double R = tooth.pitch_radius();
    const Rolling rolling{R, static_cast<double>(pinion) / 2, trundle};
    // The tooth's middle stands half its thickness above where the first trundle cuts the pitch circle.
    const double middle = 2 * std::asin(trundle / (4 * R)) + pi / (2 * static_cast<double>(wheel));
    const auto radius = [&](double t) { return std::hypot(rolling.flank(t)[0], rolling.flank(t)[1]); };
    const auto angle = [&](double t) { return middle - std::atan2(rolling.flank(t)[1], rolling.flank(t)[0]); };
    const double start = rolling.start();
    const double meet = fall_through_zero(start, pi / 2, angle);
    const double meeting = radius(meet) - R;
    const double needed_t = start + contact_wanted * 2 * pi / static_cast<double>(wheel);
    const double needed = needed_t < meet ? radius(needed_t) - R : INFINITY;
    tooth.theoretical_addendum = meeting;
    tooth.addendum = std::min(practical_share * meeting, needed);
    tooth.remark = needed < practical_share * meeting ? "Tooth no higher than contact over 1.1 pitch needs."
                                                      : "Tooth 0.95 of the height at which its flanks meet.";
    tooth.dedendum = trundle / 2 + root_clearance;
    const double end = fall_through_zero(start, meet, [&](double t) { return R + tooth.addendum - radius(t); });
    // The seat of the first trundle, from its deep side out to where the flank begins.
    const Point foot = rolling.flank(start);
    const double out = std::atan2(foot[1], foot[0] - R);
    constexpr double deep = 150 * pi / 180;
    const long long seat_steps = std::max<long long>(4, steps / 4);
    for (long long i = 0; i < seat_steps; ++i) {
        const double at = deep + (out - deep) * static_cast<double>(i) / static_cast<double>(seat_steps);
        const Point p{R + trundle / 2 * std::cos(at), trundle / 2 * std::sin(at)};
        tooth.half.push_back(polar_point(std::hypot(p[0], p[1]), middle - std::atan2(p[1], p[0])));
    }
    for (long long i = 0; i <= steps; ++i) {
        const double t = start + (end - start) * static_cast<double>(i) / static_cast<double>(steps);
        tooth.half.push_back(polar_point(radius(t), angle(t)));
    }
    const double land = angle(end);
    for (int i = 1; i <= 4; ++i) tooth.half.push_back(polar_point(R + tooth.addendum, land * (4 - i) / 4));

    ToothForm& trundles = forms.pinion;
    trundles.count = pinion;
    trundles.trundle = trundle;
    trundles.thickness = trundle;
    trundles.addendum = trundle / 2;
    trundles.dedendum = trundle / 2;
    trundles.tip_radius = trundle / 2;
    const double chord = static_cast<double>(pinion) * std::sin(pi / static_cast<double>(pinion));
    if (trundle < 1.0 || trundle > 1.25 || trundle >= chord / 2)
        trundles.warnings.push_back("Trundles of " + print_short(trundle, 3) +
                                    " m: practice is 1.0 to 1.25 m and less than half the chord of the pitch (" +
                                    print_short(chord / 2, 3) + " m).");
    if (trundle >= pi / 2)
        trundles.warnings.push_back("No play: the tooth is π/2 m thick, which leaves π/2 m for the trundle and its play.");
    return forms;
}

}  // namespace echappe
