#include "pivots/record.h"

#include <cmath>

#include "workings/found.h"

namespace echappe {
const std::vector<std::string>& plate_names() {
    static const std::vector<std::string> names = {"front", "back"};
    return names;
}

const Record& HoleRecord::record() {
    using In = HoleRecord;
    static const Record record =
        Fields<In>()
            .add("arbor", &In::arbor, "", "whose pivot runs in it")
            .required()
            .add("plate", &In::plate, "", "front is the dial's side")
            .choices(plate_names())
            .required()
            .add("pegged", &In::pegged, "", "pegged clean before it was measured")
            .add("pivot_mm", &In::pivot_mm, "mm", "pivot at its bearing length", above(0, 100))
            .add("pivot_state", &In::pivot_state, "", "how the pivot looks")
            .choices(pivot_states())
            .because("a bush is fitted to a finished pivot")
            .add("hole_max_mm", &In::hole_max_mm, "mm", "hole, largest diameter", above(0, 100))
            .add("hole_max_by", &In::hole_max_by, "", "how the long axis was read: sway of the pivot, pin and gap, or straight across")
            .choices({"", "sway", "pin and gap", "across"})
            .add("hole_min_mm", &In::hole_min_mm, "mm", "hole, smallest diameter", above(0, 100))
            .add("wear_direction_deg", &In::wear_direction_deg, "deg",
                 "where the pivot walked to, anticlockwise from +x seen from the dial", between(-360, 360))
            .add("original_mm", &In::original_mm, "mm", "the hole before it wore, where known", above(0, 100))
            .add("thickness_mm", &In::thickness_mm, "mm", "plate at this hole; absent: the plate's", above(0, 100))
            .add("edge_mm", &In::edge_mm, "mm", "to the plate's edge or the next hole's rim; absent: from the plan", above(0, 1000))
            .add("free_radius_mm", &In::free_radius_mm, "mm", "free round the hole, for the punch", above(0, 1000))
            .add("sway_mm", &In::sway_mm, "mm", "of the arbor's other end, side to side", between(0, 200))
            .add("old_off_x_mm", &In::old_off_x_mm, "mm", "an earlier bush: to the centre the teeth want, to the right", between(-20, 20))
            .add("old_off_y_mm", &In::old_off_y_mm, "mm", "the same, upwards", between(-20, 20))
            .add("doubtful", &In::doubtful, "", "readings taken before it was pegged")
            .add("cannot", &In::cannot, "", "readings that cannot be taken")
            .add("decided", &In::decided, "", "decided by hand, instead of what follows")
            .choices(hole_decisions())
            .add("because", &In::because, "", "why")
            .add("bush", &In::bush, "", "taken from the drawer")
            .add("reamed_mm", &In::reamed_mm, "mm", "passes ticked", above(0, 100))
            .add("done", &In::done, "", "finished");
    return record;
}

const Record& ArborRecord::record() {
    using In = ArborRecord;
    static const Record record =
        Fields<In>()
            .add("arbor", &In::arbor, "", "which")
            .required()
            .add("tir_mm", &In::tir_mm, "mm", "total indicator reading over a turn", between(0, 50))
            .add("tir_before_mm", &In::tir_before_mm, "mm", "the same before it was trued", between(0, 50))
            .add("plates_mm", &In::plates_mm, "mm", "between the plates here", above(0, 2000))
            .add("shoulders_mm", &In::shoulders_mm, "mm", "from shoulder to shoulder", above(0, 2000))
            .add("wheel_from_front_mm", &In::wheel_from_front_mm, "mm", "middle of the wheel from the front plate", between(-500, 2000))
            .add("pinion_from_front_mm", &In::pinion_from_front_mm, "mm", "middle of the pinion's bearing from the front plate",
                 between(-500, 2000))
            .add("line_from_front_mm", &In::line_from_front_mm, "mm", "middle of the line or chain from the front plate",
                 between(-500, 2000))
            .add("hardened", &In::hardened, "", "hard all through")
            .add("cannot", &In::cannot, "", "readings that cannot be taken");
    return record;
}

const Record& PlateRecord::record() {
    using In = PlateRecord;
    static const Record record =
        Fields<In>()
            .add("plate", &In::plate, "", "which")
            .choices(plate_names())
            .required()
            .add("thickness_mm", &In::thickness_mm, "mm", "thickness", above(0, 200))
            .add("flatness_mm", &In::flatness_mm, "mm", "light under a straight edge, at its widest", between(0, 50))
            .add("pillar_out_mm", &In::pillar_out_mm, "mm", "worst pillar, out of square over its length", between(0, 50))
            .add("cannot", &In::cannot, "", "readings that cannot be taken");
    return record;
}

const Record& BenchSum::record() {
    using In = BenchSum;
    static const Record record = Fields<In>()
                                     .add("sum", &In::sum, "", "a verb of the command line")
                                     .required()
                                     .add("part", &In::part, "", "hole or arbor it is for")
                                     .required()
                                     .add("typed", &In::typed, "", "fields over what is known, as in \"length_mm=2.4\"");
    return record;
}

const Record& HoleEvent::record() {
    using In = HoleEvent;
    static const Record record = Fields<In>()
                                     .add("hole", &In::hole, "", "as in \"centre.front\"")
                                     .required()
                                     .add("what", &In::what, "", "what was done")
                                     .required()
                                     .add("because", &In::because, "", "why")
                                     .add("date", &In::date, "", "when")
                                     .add("again", &In::again, "", "the hole went back on the list");
    return record;
}

const Record& PivotsRecord::record() {
    using In = PivotsRecord;
    static const Record record =
        Fields<In>()
            .add("clearance", &In::clearance, "", "school of clearance of this job")
            .add("method", &In::method, "", "how a bush is chosen")
            .choices({"broach-up", "fit-direct"})
            .because("the least brass is cut")
            .add("interference_mm", &In::interference_mm, "mm", "press fit of a bush", between(0, 0.2))
            .because("holds in brass without spreading a thin plate")
            .add("end_shake_least_mm", &In::end_shake_least_mm, "mm", "least wanted; absent: usual between such plates", between(0, 10))
            .add("end_shake_most_mm", &In::end_shake_most_mm, "mm", "most wanted; absent: usual between such plates", above(0, 10))
            .add("plates", &In::plates, "", "the plates")
            .add("holes", &In::holes, "", "pivots and their holes")
            .add("arbors", &In::arbors, "", "arbors by themselves")
            .add("sums", &In::sums, "", "sums of the bench, kept with their part")
            .add("log", &In::log, "", "what was done to the holes");
    return record;
}

const HoleRecord* PivotsRecord::hole(const std::string& id) const {
    return found(holes, [&](const HoleRecord& h) {
        return id.size() == h.arbor.size() + h.plate.size() + 1 && id.starts_with(h.arbor) && id.ends_with(h.plate);
    });
}
const ArborRecord* PivotsRecord::arbor(const std::string& id) const {
    return found(arbors, [&](const ArborRecord& a) { return a.arbor == id; });
}
const PlateRecord* PivotsRecord::plate(const std::string& name) const {
    return found(plates, [&](const PlateRecord& p) { return p.plate == name; });
}

HoleRecord& PivotsRecord::hole_at(const std::string& arbor, const std::string& plate) {
    if (auto* hole = found(holes, [&](const HoleRecord& h) { return h.arbor == arbor && h.plate == plate; })) return *hole;
    HoleRecord fresh;
    fresh.arbor = arbor;
    fresh.plate = plate;
    return holes.emplace_back(std::move(fresh));
}
ArborRecord& PivotsRecord::arbor_at(const std::string& arbor) {
    if (auto* at = found(arbors, [&](const ArborRecord& a) { return a.arbor == arbor; })) return *at;
    ArborRecord fresh;
    fresh.arbor = arbor;
    return arbors.emplace_back(std::move(fresh));
}
PlateRecord& PivotsRecord::plate_at(const std::string& plate) {
    if (auto* at = found(plates, [&](const PlateRecord& p) { return p.plate == plate; })) return *at;
    PlateRecord fresh;
    fresh.plate = plate;
    return plates.emplace_back(std::move(fresh));
}

double seen_from_behind_deg(double direction_deg) { return std::fmod(540 - direction_deg, 360); }

}  // namespace echappe
