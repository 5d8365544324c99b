#pragma once

#include "exchange/drawing.h"
#include "teeth/geometry.h"

namespace echappe {

/// One tooth, leaf or trundle of a mesh, sizes in modules. This is where the schools differ; outlines, sizes and the
/// simulation all come from it.
struct ToothForm {
    long long count = 0;
    double addendum = 0;
    double dedendum = 0;
    double thickness = 0;   ///< along the pitch circle
    double tip_radius = 0;  ///< of the rounding; 0: none
    std::optional<double> theoretical_addendum;
    double profile_shift = 0;  ///< involute only
    double trundle = 0;        ///< diameter; above 0: the pinion has trundles instead of leaves
    /// Upper half of the tooth whose middle is on +x: from where the flank leaves the straight radial part to the tip on
    /// the axis. Below its first point the flank runs radially to the root. Empty for trundles.
    std::vector<Point> half;
    std::vector<std::string> warnings;
    std::string remark;  ///< how its height was settled, where there was a choice

    double pitch_radius() const { return static_cast<double>(count) / 2; }
    double outside_radius() const { return pitch_radius() + addendum; }
    double root_radius() const { return pitch_radius() - dedendum; }
};

struct MeshForms {
    ToothForm wheel;
    ToothForm pinion;
};

/// Both parts of a mesh in its school. `arc`: the standard's arc for a cycloidal wheel instead of the true epicycloid.
/// `steps`: points on each curve. Throws InputError for trundles where there are none.
MeshForms mesh_forms(const GeometryInput& input, bool arc, long long steps);

// The schools, one file each.
/// Epicycloid over radial flank of a generating circle half the pinion (BS 978 part 2, 1952, has its arc), in modules.
ToothForm cycloidal_wheel_form(long long wheel, long long pinion, bool arc, long long steps);
ToothForm cycloidal_pinion_form(long long wheel, long long pinion, const LeafShape& leaf, long long steps);
/// `half` in modules; `field` names it in errors. Throws InputError.
ToothForm traced_form(const std::vector<Point>& half, long long count, const std::string& field, long long steps);
/// Trundles of this diameter in modules; the wheel's flank is the parallel to the epicycloid at half of it (Camus 1733). The offset
/// is exact; where it would cross itself the tooth ends. Throws InputError for trundles that leave no tooth.
MeshForms lantern_forms(long long wheel, long long pinion, double trundle, long long steps);
/// Involute of 20 degrees; without a shift the pinion gets what avoids undercut, the wheel its opposite (ISO 53, ISO 21771). Exact.
MeshForms involute_forms(long long wheel, long long pinion, std::optional<double> pinion_shift, long long steps);

/// Trundle diameter in modules that practice takes when none is given.
inline constexpr double usual_trundle = 1.1;
/// Below this many leaves a 20° rack cuts into the flank: 2 ÷ sin² 20°.
inline constexpr double undercut_leaves = 17.097;

/// Half the angle a tooth or leaf takes at a radius in modules: along its flank, 0 above its tip, below its root as at it.
double half_angle_at(const ToothForm& form, double radius);

Point polar_point(double radius, double angle);
/// From the arbor.
double radius_of(const Point& p);

}  // namespace echappe
