#pragma once

#include <QPainterPath>

#include "job/derived.h"

namespace echappe {

/// Outlines of wheels and pinions as painter paths in mm, made once for each pair and kept.
/// y runs upwards in them, as on the plate.
class WheelArt {
public:
    /// One part of a mesh, centre at the origin, a tooth on +x; with a blank its crossings and bore are open.
    static const QPainterPath& part(const GeometryInput& mesh, bool wheel, long long points_per_flank, const BlankResult* blank);
    /// The wheel's teeth up to `each_side` from the one on +x, closed through the centre: for a close view of a mesh.
    static const QPainterPath& wheel_sector(const GeometryInput& mesh, long long points_per_flank, long long each_side);
    /// A lantern pinion's trundles alone.
    static const QPainterPath& trundles(const GeometryInput& mesh);
    /// An escape wheel's picture: pointed teeth leaning forward. Its form is a sign, not a measure.
    static const QPainterPath& escape_wheel(long long teeth, double radius_mm);
};

}  // namespace echappe
