#include "pivots/bush_plan.h"

namespace echappe {

const Record& Bush::record() {
    static const Record record = Fields<Bush>()
                                     .add("id", &Bush::id, "", "as it is marked in the drawer")
                                     .required()
                                     .add("bore_mm", &Bush::bore_mm, "mm", "bore", above(0, 100))
                                     .required()
                                     .add("outside_mm", &Bush::outside_mm, "mm", "outside diameter", above(0, 100))
                                     .required()
                                     .add("height_mm", &Bush::height_mm, "mm", "height", above(0, 100))
                                     .required()
                                     .add("quantity", &Bush::quantity, "", "how many are there", between(0, 100000))
                                     .because("a line of the drawer stands for one piece");
    return record;
}

const Record& BushPlanInput::record() {
    using In = BushPlanInput;
    static const Record record =
        Fields<In>()
            .add("pivot_mm", &In::pivot_mm, "mm", "finished pivot at its bearing length", above(0, 100))
            .required()
            .add("hole_max_mm", &In::hole_max_mm, "mm", "largest diameter of the hole", above(0, 100))
            .required()
            .add("hole_min_mm", &In::hole_min_mm, "mm", "smallest diameter", above(0, 100))
            .required()
            .add("wear_direction_deg", &In::wear_direction_deg, "deg",
                 "where the pivot walked to, anticlockwise from +x seen from the dial", between(-360, 360))
            .add("plate_mm", &In::plate_mm, "mm", "thickness of the plate at the hole", above(0, 100))
            .required()
            .add("clearance", &In::clearance, "", "school of clearance")
            .add("method", &In::method, "", "largest bore the pivot does not enter, broached open; or the nearest bore fitted as it is")
            .choices({"broach-up", "fit-direct"})
            .because("the finished hole is broached to the pivot itself")
            .add("stock", &In::stock, "", "bushes in the drawer: a list, or the path of a CSV file")
            .or_file(&In::stock_file)
            .add("interference_mm", &In::interference_mm, "mm",
                 "what the bush is larger than its seat, at most; 0.02 to 0.04, and 1.1 % of a small bush", between(0, 0.2))
            .because("holds in brass without spreading a thin plate")
            .add("free_radius_mm", &In::free_radius_mm, "mm", "free round the hole, for the punch", above(0, 1000))
            .add("edge_mm", &In::edge_mm, "mm", "from the hole's middle to the plate's edge or the rim of the next hole", above(0, 1000))
            .add("original_mm", &In::original_mm, "mm", "the hole before it wore; absent: the smallest diameter", above(0, 100))
            .add("pivot_state", &In::pivot_state, "", "a bush is fitted to a finished pivot only")
            .choices(pivot_states())
            .because("a bush is fitted to a finished pivot")
            .add("pegged", &In::pegged, "", "the hole was pegged clean before it was measured")
            .add("old_bush", &In::old_bush, "", "an earlier bush sits there")
            .add("old_bush_off_mm", &In::old_bush_off_mm, "mm", "from the old bush's hole to the original centre, by its meshes' depthing")
            .add("leave_factor", &In::leave_factor, "", "clearance up to this many times the school's is left", between(1, 5))
            .because("a hole that is there is not touched for a little more than a new one would be given")
            .add("reading_u_mm", &In::reading_u_mm, "mm", "standard uncertainty of each diameter; empty: 0.008, of a watch's pivot 0.003",
                 above(0, 1))
            .add("own_reamers_mm", &In::own_reamers_mm, "mm", "reamers in the drawer; absent: any size", above(0, 100))
            .add("depth_lost_mm", &In::depth_lost_mm, "mm", "what the wear changes the depth of the worst mesh by", between(-20, 20))
            .add("module_mm", &In::module_mm, "mm", "of that mesh", above(0, 50));
    return record;
}

const Record& BushPlanResult::record() {
    using Out = BushPlanResult;
    static const Record record =
        Fields<Out>()
            .add("decision", &Out::decision, "", "leave, clean, close, bush, plug or repivot-first")
            .add("reason", &Out::reason, "", "why")
            .add("bush", &Out::bush, "", "from the drawer")
            .add("reamers_mm", &Out::reamers_mm, "mm", "one after the other")
            .add("offset_mm", &Out::offset_mm, "mm", "from the middle of the worn hole to the original centre")
            .add("clearance_mm", &Out::clearance_mm, "mm", "hole less pivot, as it will be")
            .add("broach_to_mm", &Out::broach_to_mm, "mm", "finished hole")
            .add("warnings", &Out::warnings, "", "what to look out for")
            .add("wanted_clearance_mm", &Out::wanted_clearance_mm, "mm", "by the school")
            .add("ovality_mm", &Out::ovality_mm, "mm", "hole max less hole min")
            .add("worn_mm", &Out::worn_mm, "mm", "hole max less original")
            .add("wall_mm", &Out::wall_mm, "mm", "of the bush, round the finished hole")
            .add("clean_up_mm", &Out::clean_up_mm, "mm", "what the seat takes beyond the worn hole, at its thinnest")
            .add("edge_left_mm", &Out::edge_left_mm, "mm", "plate left outside the bush")
            .add("punch_mm", &Out::punch_mm, "mm", "face of the punch")
            .add("broach_passes", &Out::broach_passes, "", "of 0.02 mm at most")
            .add("sink_diameter_mm", &Out::sink_diameter_mm, "mm", "oil sink")
            .add("sink_depth_mm", &Out::sink_depth_mm, "mm", "its depth")
            .add("press_fit_mm", &Out::press_fit_mm, "mm", "of the bush in its seat")
            .add("wanted_outside_mm", &Out::wanted_outside_mm, "mm", "least outside diameter that cleans up the worn hole");
    return record;
}

}  // namespace echappe
