#include "teeth/form_choice.h"

#include <algorithm>

#include "number/input_error.h"

namespace echappe {

const std::vector<School>& schools() {
    static const std::vector<School> list = {
        {"cycloidal-clock", "cycloidal",
         "Clock practice since the eighteenth century: radial pinion flanks, the wheel's tip an epicycloid."},
        {"cycloidal-watch", "cycloidal, watch",
         "The same curves with the leaf taken from a table of the workshop's own: watches stand their leaves higher."},
        {"lantern", "lantern", "Round trundles between two shrouds: wooden clocks, early and cheap movements, turret work."},
        {"involute-20", "involute 20°", "Factory wheels and later repairs, cut with gear hobs; forgiving of depth, heavier on few leaves."},
        {"traced", "traced", "A form of its own, taken from the part itself; where no trace was taken the clock form stands in."},
    };
    return list;
}

std::vector<std::string> school_ids() {
    std::vector<std::string> ids;
    for (const School& school : schools()) ids.push_back(school.id);
    return ids;
}

const School& school_of(const std::string& id) {
    const auto at = std::find_if(schools().begin(), schools().end(), [&](const School& school) { return id == school.id; });
    if (at != schools().end()) return *at;
    std::string all;
    for (const School& school : schools()) all += (all.empty() ? "" : ", ") + std::string(school.id);
    throw InputError("school", "\"" + id + "\"", all);
}

const Record& LeafShape::record() {
    using In = LeafShape;
    static const Record record = Fields<In>()
                                     .add("addendum_m", &In::addendum_m, "module", "leaf above the pitch circle", above(0, 3))
                                     .required()
                                     .add("thickness_m", &In::thickness_m, "module", "along the pitch circle", above(0, 3))
                                     .required()
                                     .add("tip_radius_m", &In::tip_radius_m, "module", "of each side's rounding", above(0, 100))
                                     .required();
    return record;
}

const Record& FormChoice::record() {
    using In = FormChoice;
    static const Record record =
        Fields<In>()
            .add("school", &In::school, "", "form of tooth")
            .choices(school_ids())
            .because("most wheels of clocks are cut so")
            .add("trundle_diameter_mm", &In::trundle_diameter_mm, "mm", "of a lantern pinion; default 1.1 modules", above(0, 100))
            .add("pinion_profile_shift", &In::pinion_profile_shift, "module", "of an involute pinion; default what avoids undercut",
                 between(-1, 1))
            .add("leaf", &In::leaf, "", "shape of a watch pinion's leaf; default the highest of the clock table")
            .add("wheel_half", &In::wheel_half, "module", "traced wheel tooth: half of it from root to tip, its middle on +x")
            .add("pinion_half", &In::pinion_half, "module", "traced leaf, in the same way");
    return record;
}

}  // namespace echappe
