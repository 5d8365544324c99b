#pragma once

#include "workings/record.h"

namespace echappe {

// Fields that calculations and the job's record of pallets share, declared once.

template <class In>
Fields<In>& add_span(Fields<In>& fields) {
    return fields.add("span", &In::span, "", "pitches between the pallets, a half number", between(1.5, 60))
        .because("usual over thirty teeth");
}

template <class In>
Fields<In>& add_school(Fields<In>& fields) {
    return fields.add("school", &In::school, "", "equal arms of the impulse, or equal locking radii")
        .choices({"circular", "equidistant"})
        .because("most are cut so: impulse to both pallets alike");
}

template <class In>
Fields<In>& add_depth(Fields<In>& fields) {
    return fields.add("depth_change_mm", &In::depth_change_mm, "mm", "pallet arbor nearer to the wheel; negative: away",
                      between(-500, 500));
}

template <class In>
Fields<In>& add_friction(Fields<In>& fields) {
    return fields.add("friction", &In::friction, "", "coefficient on the faces: oiled 0.10 to 0.15, dry 0.2 to 0.3", between(0, 1))
        .because("oiled, not fresh");
}

}  // namespace echappe
