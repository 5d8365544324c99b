// The declarations of the blank's fields.
#include "making/wheel_blank.h"

namespace echappe {

const Record& BlankChoice::record() {
    using In = BlankChoice;
    static const Record record =
        Fields<In>()
            .add("thickness_mm", &In::thickness_mm, "mm",
                 "of a wheel, default 2.5 modules and at least 0.1; of a cut pinion, default 6 modules", above(0, 100))
            .add("bore_mm", &In::bore_mm, "mm",
                 "the wheel's hole; default arbor + 2 modules of collet wall, at least 1 mm on a clock wheel", above(0, 500))
            .add("arbor_mm", &In::arbor_mm, "mm", "arbor under the collet; default 3 modules", above(0, 200))
            .add("arms", &In::arms, "", "3 to 8; 0 leaves it solid; default by its diameter", between(0, 8))
            .add("rim_mm", &In::rim_mm, "mm", "rim below the roots; default 2.25 modules", above(0, 500))
            .add("hub_diameter_mm", &In::hub_diameter_mm, "mm", "default bore + 3 modules, at least bore + 3 mm on a clock wheel",
                 above(0, 1000))
            .add("arm_at_rim_mm", &In::arm_at_rim_mm, "mm", "width of an arm where it meets the rim; default the rim's", above(0, 500))
            .add("corner_mm", &In::corner_mm, "mm",
                 "radius of saw or file in the corners of the crossings; default 0.5, at most a quarter of an arm", between(0, 50))
            .add("arm_at_hub_mm", &In::arm_at_hub_mm, "mm", "where it meets the hub; default 1.4 times that at the rim", above(0, 500))
            .add("density_kg_m3", &In::density_kg_m3, "kg/m³", "engraving brass 8500, steel 7850, boxwood 900", between(50, 25000))
            .because("most wheels are of engraving brass");
    return record;
}

const Record& BlankInput::record() {
    using In = BlankInput;
    static const Record record = [] {
        Fields<In> fields;
        fields.include(&In::mesh)
            .add("part", &In::part, "", "which of the two; a large driven part is blanked like a wheel")
            .choices({"wheel", "pinion"})
            .because("a wheel is cut more often than a pinion")
            .include(&In::choice);
        add_part_format(fields)
            .add("points_per_flank", &In::points_per_flank, "", "points on the curve of each flank", between(4, 1000))
            .because("within a micrometre of the curve at a clock's modules");
        return Record(fields);
    }();
    return record;
}

const Record& BlankResult::record() {
    using Out = BlankResult;
    static const Record record =
        Fields<Out>()
            .add("outside_diameter_mm", &Out::outside_diameter_mm, "mm", "turn the blank to this")
            .add("depth_of_cut_mm", &Out::depth_of_cut_mm, "mm", "from the tip to the root")
            .add("thickness_mm", &Out::thickness_mm, "mm", "of the wheel")
            .add("bore_mm", &Out::bore_mm, "mm", "its hole")
            .add("arbor_mm", &Out::arbor_mm, "mm", "under the collet; 0 for a pinion cut from the solid")
            .add("collet_seat_mm", &Out::collet_seat_mm, "mm", "what the collet's seat is turned to: bore + 0.01, a light drive")
            .add("collet_shoulder_mm", &Out::collet_shoulder_mm, "mm", "the collet's shoulder behind the wheel")
            .add("arms", &Out::arms, "", "0: left solid")
            .add("rim_mm", &Out::rim_mm, "mm", "below the roots")
            .add("hub_diameter_mm", &Out::hub_diameter_mm, "mm", "where the arms begin")
            .add("arm_at_rim_mm", &Out::arm_at_rim_mm, "mm", "width of an arm there")
            .add("arm_at_hub_mm", &Out::arm_at_hub_mm, "mm", "width of an arm there")
            .add("corner_mm", &Out::corner_mm, "mm", "radius in the corners of the crossings")
            .add("crossings", &Out::crossings, "mm", "closed outlines of the openings")
            .add("area_mm2", &Out::area_mm2, "mm²", "of the crossed wheel")
            .add("volume_mm3", &Out::volume_mm3, "mm³", "area × thickness")
            .add("mass_g", &Out::mass_g, "g", "crossed out")
            .add("solid_mass_g", &Out::solid_mass_g, "g", "before")
            .add("saved_percent", &Out::saved_percent, "%", "of the mass")
            .add("inertia_g_mm2", &Out::inertia_g_mm2, "g·mm²", "about the arbor, crossed out")
            .add("solid_inertia_g_mm2", &Out::solid_inertia_g_mm2, "g·mm²", "before")
            .add("inertia_saved_percent", &Out::inertia_saved_percent, "%", "of the inertia")
            .add("warnings", &Out::warnings, "", "what to look at")
            .include(&Out::files);
    return record;
}

}  // namespace echappe
