#pragma once

#include <QPainterPath>

#include "job/derived.h"

namespace echappe {

/// Outlines of wheels and pinions as painter paths in mm, made once for each pair and kept.
/// y runs upwards in them, as on the plate.
class WheelArt {
public:
    /// The wheel of a mesh with its crossings (hub, arms and rim), centre at the origin, a tooth on +x.
    static const QPainterPath& wheel(long long teeth, long long mate, double module_mm, long long points_per_flank, bool crossings);
    /// The teeth up to `each_side` from the one on +x, closed through the centre: for a close view of a mesh.
    static const QPainterPath& wheel_sector(long long teeth, long long mate, double module_mm, long long points_per_flank,
                                            long long each_side);
    static const QPainterPath& pinion(long long mate, long long leaves, double module_mm, long long points_per_flank);
    /// Whether a driven part is drawn as a wheel, of brass and crossed out.
    static bool is_driven_wheel(long long leaves);
    /// An escape wheel's picture: pointed teeth leaning forward. Its form is a sign, not a measure.
    static const QPainterPath& escape_wheel(long long teeth, double radius_mm);
};

}  // namespace echappe
