#pragma once

#include "escapement/action.h"

namespace echappe {

/// The slow and obvious second way: a wheel of points is turned in small steps until a point is inside a pallet, the pallets are turned
/// in small steps, and every event is closed in by halving. It knows the corners that the verb prints, and nothing of its formulas.
class ContactSearch {
public:
    struct Solid {
        Vector first, last;  ///< of the face: where it begins or the locking corner, and the let-off corner
        double body;         ///< which way the metal lies behind the face, as a turn about the pallet arbor
        bool arc;
        double metal = 0;  ///< +1 where it lies to the left of the face, −1 to its right; found out by the search
    };
    ContactSearch(double radius, double centre, int teeth, Solid entry, Solid exit);

    struct Found {
        double entry_lock, entry_lift, entry_drop, exit_lock, exit_lift, exit_drop, least;
    };
    /// All by events of one swing out and back from `wide`.
    Found run(double wide);
    double wheel_at(double pallets) { return contact(pallets, m_wheel); }

private:
    struct Half {
        double unlock = 0, let_off = 0, drop = 0;
    };
    Half half(double from, double to);
    /// From a little behind where it stood, driven on until a point is stopped by a face or by an arc.
    double contact(double pallets, double wheel) const;
    Vector in_pallets(Turn back, double tip) const;
    /// Above 0 where the point is on the metal's side of the face's line, or of the locking arc. `back`: the pallets', to where they are
    /// drawn.
    double beyond(const Solid& solid, bool face, Turn back, double tip) const;
    static double behind(const Solid& solid, Vector at);
    /// Whether the face, or the arc, is there where the point meets its line.
    bool there(const Solid& solid, bool face, Turn back, double tip) const;

    double m_radius;
    Vector m_arbor;
    int m_teeth;
    Solid m_entry, m_exit;
    double m_wheel = 0;
};

}  // namespace echappe
