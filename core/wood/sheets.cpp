#include "wood/sheets.h"

namespace echappe {

SumAnswer wood_sheet(const WoodRecord& record, const DerivedWood& d, const std::string& wheel_of, const std::string& pinion_of) {
    SumAnswer answer;
    answer.asked = lines_of(WoodRecord::record(), &record,
                            {"made_moisture", "made_humidity", "made_celsius", "now_moisture", "now_humidity", "now_celsius", "wheel_wood",
                             "rings", "plate_wood", "plates", "plate_rings"});
    Found found(answer);
    if (!d.there || !d.fault.empty()) {
        found.sentence("begin", "Tell its moisture, or the room's humidity, as it was when the wheels were round and as it is now.");
        return answer;
    }
    for (const WoodMesh& mesh : d.meshes) {
        if (mesh.wheel_of != wheel_of || mesh.pinion_of != pinion_of) continue;
        found.says("moisture when they were round", mesh.season.made_moisture, "%", 1);
        found.says("moisture now", mesh.season.now_moisture, "%", 1);
        found.says("over the tips, with the grain", mesh.season.along_mm, "mm", 2);
        found.says("and across it", mesh.season.across_mm, "mm", 2);
        found.says("deepest, against then", mesh.deepest_mm, "mm", 2);
        found.says("shallowest", mesh.shallowest_mm, "mm", 2);
        found.sentence("verdict", mesh.season.verdict);
        if (mesh.too_deep())
            found.sentence("deep", "So deep it binds with the grain where it is deepest: leave so much more when it is cut.");
        if (mesh.too_shallow())
            found.sentence("shallow", "So shallow it hardly holds: let the room's air become damper before it is judged.");
    }
    found.sentence("lines", "A braided line on wooden drums and pulleys: wire cuts into them, and wood must run dry.");
    return answer;
}

}  // namespace echappe
