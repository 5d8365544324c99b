#pragma once

#include <optional>
#include <vector>

#include "escapement/lever.h"

namespace echappe {

/// The slow and obvious second way: outlines of teeth and pallets, the wheel turned on in small steps until they touch and closed in by
/// halving. It knows what the verb prints of the outlines, and nothing of its formulas.
class Contact {
public:
    struct Body {
        std::vector<Vector> outline;  ///< about the pallet arbor; one spot: a pin
        double pin = 0;
    };
    Contact(const LeverResult& told, int teeth, double pin = 0);
    /// A tooth put otherwise than the layout has it; counted from 0.
    std::vector<Vector>& tooth(size_t which) { return m_teeth.at(which); }
    size_t count() const { return m_teeth.size(); }
    double fine = 1;  ///< of the steps of wheel and pallets
    struct Found {
        double lock[2], lift[2], drop[2];
        size_t let_off[2];  ///< teeth of these drops
    };
    /// One swing and a half, the wheel begun with so much of a turn; nothing where it jams.
    std::optional<Found> goes(double wide_deg, double begun_deg = 0) const;
    double span = 2.5;
    /// Whether one pallet stays free of every tooth while the other holds its own from one place of the pallets to another.
    bool stays_free(int holding, double from_deg, double to_deg) const;
    Found swing(double wide_deg, double begun_deg = 0) const;

    /// Which edge of a tooth a pin touches when the wheel rests, counted from its locking corner; the last one is its locking face.
    size_t edge_touched(int body, double pallets) const;

private:
    static bool cross_each_other(Vector a, Vector b, Vector c, Vector d);
    static double distance(Vector p, Vector a, Vector b);
    bool overlap(double pallets, double wheel) const;
    bool overlaps(const Body& body, double pallets, double wheel) const;
    /// Where the wheel touches first between two places; nothing where it does not.
    std::optional<double> first_touch(double pallets, double from, double to, double step) const;
    /// The wheel driven on from a place that is free, or a little behind it, until it rests; not a number where it is caught.
    double rest(double pallets, double from) const;
    /// A heel leaves a pin as the square root of what is left to go: carried on to nothing from three places before it.
    double left_at(double way, double end, double near) const;
    /// Half a swing: where the wheel stands furthest back is where the locking ends, where it leaps is the let-off.
    bool half(double way, double wide, double& wheel, double& begins, double& ends, double& drop) const;

    /// The tooth that stands nearest to the entry: its half of the span before the top.
    size_t held_at_entry(double wheel) const;

    Vector m_arbor;
    std::vector<std::vector<Vector>> m_teeth;
    std::vector<Body> m_bodies;
    double m_reach = 0;  ///< further off than this no tooth touches a pallet
};

}  // namespace echappe
