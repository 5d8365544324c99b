#include "hands/sheets.h"

#include "number/units.h"

namespace echappe {

SumAnswer hands_friction_sheet(const HandsRecord& record, const DerivedHands& d) {
    std::vector<std::string> fields = {"kind"};
    const std::string& kind = record.friction.kind;
    if (kind == "leaf") fields.insert(fields.end(), {"length_mm", "width_mm", "thickness_mm", "flattened_mm", "radius_mm", "faces"});
    if (kind == "coil") fields.insert(fields.end(), {"wire_mm", "coil_mm", "turns", "compressed_mm", "radius_mm", "faces"});
    if (kind == "pinched") fields.insert(fields.end(), {"force_N", "radius_mm"});
    fields.insert(fields.end(), {"friction", "slips_at_g", "torque_N_mm", "hand_g", "hand_centre_mm", "hand_length_mm", "most_N_mm"});
    SumAnswer answer;
    answer.asked = lines_of(HandsRecord::record(), &record, fields);
    Found found(answer);
    if (!d.friction) {
        found.sentence("begin",
                       "Hang a thread on the level minute hand's tip and add weight until it just slips, or give the spring's sizes.");
        return answer;
    }
    found.says("slips at", d.friction->torque_N_mm, "N mm", 2);
    found.says("the heaviest hand level", d.friction->hand_N_mm, "N mm", 2);
    found.says("times that", d.friction->times, "", 1);
    found.says("on a thread at its tip", d.friction->thread_g, "g", 1);
    found.sentence("verdict", d.friction->verdict);
    return answer;
}

SumAnswer hands_room_sheet(const HandsRecord& record, const DerivedHands& d) {
    SumAnswer answer;
    answer.asked = lines_of(HandsRecord::record(), &record,
                            {"arbor_mm", "cannon_bore_mm", "cannon_mm", "hour_bore_mm", "hour_mm", "hour_height_mm", "minute_height_mm",
                             "hand_thickness_mm", "glass_height_mm", "end_shake_mm"});
    Found found(answer);
    for (const std::vector<HandsRoom>* rooms : {&d.pipes, &d.heights})
        for (const HandsRoom& room : *rooms) {
            found.says(room.between, room.mm, "mm", 2);
            found.sentence(room.between, room.words + ".");
        }
    for (const std::string& oil : d.oil) found.sentence("oil", oil);
    return answer;
}

}  // namespace echappe
