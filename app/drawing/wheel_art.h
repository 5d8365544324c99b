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
    /// An escape wheel as it is cut, a tip on +x; it turns clockwise. Where it turns the other way as seen, it is turned over.
    static QPainterPath escape_wheel(const EscapeWheelResult& wheel);
    /// One of which only count and size are known, with the teeth of a deadbeat.
    static const QPainterPath& escape_wheel(long long teeth, double radius_mm);
};

}  // namespace echappe
