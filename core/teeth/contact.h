#pragma once

#include "teeth/form.h"

namespace echappe {

/// Where a tooth holds its leaf. Coordinates: wheel's centre at the origin, pinion's at (C, 0).
struct Contact {
    double leaf_angle;  ///< rad of the leaf's middle about the pinion's centre, from the line to the wheel, in the driven sense
    double x, y;
    double nx, ny;  ///< unit normal of the two flanks there: the way the leaf is pushed
};

/// The driving side of one tooth as points, and the leaf as a half thickness for every radius; both in mm.
class ContactPair {
public:
    /// `leaf_steps`: of the table of the leaf's width over its radius.
    ContactPair(const MeshForms& forms, double module_mm, double wear_step_mm, size_t leaf_steps);

    struct Stand {
        double tooth_angle;  ///< of the tooth's middle, rad from the line of centres
        double centre_distance_mm;
        double shorter_mm = 0;  ///< this tooth is lower by so much
        Point wheel_centre = {0, 0};
        Point pinion_offset = {0, 0};  ///< of the pinion's own centre from where its arbor turns
    };
    /// How far round the leaf must be so that this tooth does not enter it; none when the tooth does not reach it.
    std::optional<Contact> push(const Stand& stand) const;
    /// How far round the leaf behind this tooth may be at most.
    std::optional<double> room(const Stand& stand) const;

private:
    struct Vertex {
        double radius;        ///< about the wheel's centre
        double along, above;  ///< its direction from there, the tooth's middle on +x
        bool corner;
    };
    std::vector<Vertex> m_driving;  ///< root to tip and on to the other side of the tip
    std::vector<double> m_leaf;     ///< half angle at even steps of radius
    double m_worn_within = 0, m_wear_mm = 0;
    std::vector<double> m_corners;  ///< radii where the leaf has a corner
    double m_leaf_from = 0;
    double m_leaf_to = 0;
    double m_leaf_step = 0;
    double m_reach_from = 0;  ///< nearer the pinion's centre there is nothing to touch
    double m_tip = 0;
    double m_half_width = 0;  ///< rad: no point of a tooth lies further from its middle

    /// `driven`: of the side that is worn.
    double half_angle(double radius, bool driven) const;
    /// Along the leaf's driven flank at this radius, its middle at `leaf_angle`; none at a corner.
    std::optional<Point> leaf_flank(double radius, double leaf_angle) const;
    struct Seen;
    bool in_reach(const Stand& stand, double dx, double dy, double lowered) const;
    template <bool driving>
    std::optional<Contact> extreme(const Stand& stand) const;
};

}  // namespace echappe
