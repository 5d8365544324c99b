#include <algorithm>
#include <cmath>
#include <numbers>
#include <set>
#include <unordered_map>

#include "job/derived.h"
#include "job/stock.h"
#include "number/input_error.h"
#include "number/units.h"
#include "teeth/mesh_simulation.h"

namespace echappe {
namespace {

constexpr double rad_per_deg = std::numbers::pi / 180;
constexpr double flat_mm_per_100 = 0.1;  ///< light under a straight edge that is still called flat

std::string mm(double value) { return print_fixed(value, 2) + " mm"; }

/// Arbors and their meshes by name: with hundreds of holes a search through lists would be felt.
struct Index {
    std::unordered_map<std::string, const DerivedArbor*> arbors;
    std::unordered_map<std::string, std::vector<const DerivedMesh*>> meshes;

    explicit Index(const Derived& derived) {
        for (const DerivedArbor& arbor : derived.arbors) arbors[arbor.id] = &arbor;
        for (const DerivedMesh& mesh : derived.meshes) {
            meshes[mesh.wheel_of].push_back(&mesh);
            meshes[mesh.pinion_of].push_back(&mesh);
        }
    }
    const DerivedArbor& arbor(const std::string& id) const { return *arbors.at(id); }
    const std::vector<const DerivedMesh*>& meshes_of(const std::string& arbor) const {
        static const std::vector<const DerivedMesh*> none;
        const auto at = meshes.find(arbor);
        return at == meshes.end() ? none : at->second;
    }
};

/// Arbors that carry power to the escape wheel: a branch to a dial carries next to none.
std::set<std::string> on_the_way_of_power(const Job& job, const Derived& derived) {
    std::set<std::string> way;
    if (!job.escape_arbor) return way;
    way.insert(*job.escape_arbor);
    for (bool grown = true; grown;) {
        grown = false;
        for (const DerivedMesh& mesh : derived.meshes)
            if (way.count(mesh.pinion_of) && way.insert(mesh.wheel_of).second) grown = true;
    }
    return way;
}

/// Mean angle of the push over one pitch after the line of centres: a radial leaf leans half a pitch on the mean, a trundle
/// half of that (the chord of its circle), an involute keeps its angle.
double mean_pressure_deg(const DerivedMesh& mesh) {
    if (mesh.form.school == "involute-20") return 20;
    return (mesh.form.school == "lantern" ? 90.0 : 180.0) / static_cast<double>(std::max(mesh.pinion, 6LL));
}

std::optional<double> push_of(const Index& index, const DerivedArbor& arbor, const std::set<std::string>& power) {
    if (arbor.direction.empty()) return {};
    PushInput push;
    push.direction = arbor.direction;
    for (const DerivedMesh* mesh : index.meshes_of(arbor.id)) {
        const bool driven = mesh->pinion_of == arbor.id;
        const std::string& other = driven ? mesh->wheel_of : mesh->pinion_of;
        if (power.count(arbor.id) && !power.count(other)) continue;
        const DerivedArbor& there = index.arbor(other);
        if (there.x_mm == arbor.x_mm && there.y_mm == arbor.y_mm) continue;
        push.meshes.push_back({other, driven, std::atan2(there.y_mm - arbor.y_mm, there.x_mm - arbor.x_mm) / rad_per_deg,
                               (driven ? mesh->sizes.pinion : mesh->sizes.wheel).pitch_diameter_mm / 2, mean_pressure_deg(*mesh)});
    }
    if (push.meshes.empty()) return {};
    return push_on_arbor(push).direction_deg;
}

struct Round {
    double x, y, radius;
};

/// Rims on one plate that a bush must keep away from.
std::vector<Round> rims_on(const Job& job, const std::vector<DerivedHole>& holes, const std::string& plate) {
    constexpr double hole_radius_mm = 1;
    std::vector<Round> rims;
    if (job.plate)
        for (const auto& pillar : job.plate->pillars) rims.push_back({pillar[0], pillar[1], job.plate->pillar_mm / 2});
    for (const DerivedHole& hole : holes)
        if (hole.plate == plate) rims.push_back({hole.x_mm, hole.y_mm, hole.record.hole_max_mm.value_or(2 * hole_radius_mm) / 2});
    return rims;
}

/// From the hole's middle to the nearest edge of the plate or rim of a pillar or another hole.
std::optional<double> room_round(const Job& job, const std::vector<Round>& rims, const DerivedHole& hole) {
    double room = INFINITY;
    if (job.plate) room = job.plate->room_at(hole.x_mm, hole.y_mm);
    for (const Round& rim : rims) {
        const double dx = rim.x - hole.x_mm;
        const double dy = rim.y - hole.y_mm;
        const double reach = room + rim.radius;
        const double squared = dx * dx + dy * dy;
        if (squared > 0 && (squared < reach * reach)) room = std::sqrt(squared) - rim.radius;
    }
    if (!std::isfinite(room) || room <= 0) return {};
    return room;
}

void effects_of(const Index& index, DerivedHole& hole) {
    const bool off = hole.asked->old_bush_off_mm.has_value();
    if (!off && !hole.wear_deg) return;
    // Where the pivot stands now, from where it stood: the whole of the wear; the middle of the worn hole is half-way.
    const double way = hole.wear_deg.value_or(0) * rad_per_deg;
    const double x = off ? -hole.plan->offset_mm.x : hole.plan->worn_mm * std::cos(way);
    const double y = off ? -hole.plan->offset_mm.y : hole.plan->worn_mm * std::sin(way);
    for (const DerivedMesh* mesh : index.meshes_of(hole.arbor)) {
        const DerivedArbor& other = index.arbor(mesh->wheel_of == hole.arbor ? mesh->pinion_of : mesh->wheel_of);
        const double apart = std::hypot(hole.x_mm - other.x_mm, hole.y_mm - other.y_mm);
        if (apart == 0) continue;
        const double deeper = -(x * (hole.x_mm - other.x_mm) + y * (hole.y_mm - other.y_mm)) / apart;
        hole.effects.push_back({mesh->wheel_of, mesh->pinion_of, deeper, off ? deeper : deeper / 2, 0});
    }
}

/// A bush that was taken for a hole is still its own, though the drawer has it no more.
std::optional<std::vector<Bush>> taken_for(const BushPlanInput& drawer, const HoleRecord& record) {
    if (!record.bush) return {};
    for (Bush bush : drawer.stock)
        if (bush.id == *record.bush) {
            bush.quantity = 1;
            return {{bush}};
        }
    return {};
}

/// `in` carries the drawer from hole to hole: it is copied once, not 500 times.
void plan_hole(const Job& job, BushPlanInput& in, DerivedHole& hole, DerivedHole* before) {
    const HoleRecord& r = hole.record;
    for (const auto& [field, there] :
         {std::pair{"pivot_mm", r.pivot_mm.has_value()}, std::pair{"hole_max_mm", r.hole_max_mm.has_value()},
          std::pair{"hole_min_mm", r.hole_min_mm.has_value()}, std::pair{"thickness_mm", hole.thickness_mm.has_value()}})
        if (!there) hole.missing.push_back(field);
    if (!hole.missing.empty()) return;
    in.pivot_mm = *r.pivot_mm;
    in.hole_max_mm = *r.hole_max_mm;
    in.hole_min_mm = *r.hole_min_mm;
    in.original_mm = r.original_mm;
    in.wear_direction_deg = hole.wear_deg;
    in.plate_mm = *hole.thickness_mm;
    in.free_radius_mm = r.free_radius_mm;
    in.edge_mm = hole.edge_mm;
    in.pivot_state = r.pivot_state;
    in.pegged = r.pegged && r.doubtful.empty();
    const ConditionRecord* condition = job.survey.condition(hole.id);
    in.old_bush = condition && condition->verdict == "bushed";
    in.old_bush_off_mm.reset();
    if (r.old_off_x_mm && r.old_off_y_mm) in.old_bush_off_mm = Offset{*r.old_off_x_mm, *r.old_off_y_mm};
    // The question alone, without the drawer.
    std::vector<Bush> drawer;
    drawer.swap(in.stock);
    std::vector<double> reamers;
    reamers.swap(in.own_reamers_mm);
    hole.asked = in;
    drawer.swap(in.stock);
    reamers.swap(in.own_reamers_mm);
    if (before && before->id == hole.id && before->asked && before->record.bush == r.bush &&
        same(BushPlanInput::record(), &*hole.asked, &*before->asked)) {
        hole.plan = std::move(before->plan);
        hole.clearances = std::move(before->clearances);
        hole.fault = std::move(before->fault);
        return;
    }
    auto taken = taken_for(in, r);
    if (taken) in.stock.swap(*taken);
    try {
        hole.plan = plan_bush(in);
        hole.clearances = compare_clearances({in.pivot_mm, in.plate_mm, in.clearance}).schools;
    } catch (const InputError& error) {
        hole.fault = error.what();
    }
    if (taken) in.stock.swap(*taken);
}

/// What the wobble test says of the hole: its lean along the worn way shows the largest diameter.
void wobble_of(const Job& job, DerivedHole& hole) {
    const ArborRecord* arbor = job.survey.arbor(hole.arbor);
    if (!hole.record.sway_mm || !hole.record.pivot_mm || !hole.thickness_mm || !arbor || !arbor->plates_mm) return;
    const double lean = std::atan(*hole.record.sway_mm / 2 / *arbor->plates_mm);
    constexpr double most = 60 * rad_per_deg;
    if (lean < most) hole.wobble = tilt_test({*hole.record.pivot_mm, {}, lean / rad_per_deg, *hole.thickness_mm, *arbor->plates_mm});
}

void decide_hole(DerivedHole& hole) {
    hole.by_hand = hole.record.decided.has_value();
    if (hole.by_hand) {
        hole.decision = *hole.record.decided;
        hole.reason = "Decided at the bench: " + hole.record.because;
    } else if (hole.plan) {
        hole.decision = hole.plan->decision;
        hole.reason = hole.plan->reason;
        if (hole.decision == "clean" && !hole.record.doubtful.empty() && hole.record.pegged)
            hole.reason = "Pegged now, but measured before: measure it again.";
    }
}

void derive_holes(const Job& job, const Stock* stock, const Index& index, Derived& derived, DerivedSurvey& before) {
    const auto power = on_the_way_of_power(job, derived);
    auto& holes = derived.survey.holes;
    holes.reserve(2 * derived.arbors.size());
    std::map<std::string, const HoleRecord*> records;
    for (const HoleRecord& record : job.survey.holes) records[record.id()] = &record;
    std::vector<std::optional<double>> pushes;
    for (const DerivedArbor& arbor : derived.arbors) pushes.push_back(push_of(index, arbor, power));
    for (const std::string& plate : plate_names()) {
        const PlateRecord* whole = job.survey.plate(plate);
        for (size_t i = 0; i < derived.arbors.size(); ++i) {
            const DerivedArbor& arbor = derived.arbors[i];
            if (job.arbors[i].train.coaxial_with) continue;
            DerivedHole hole;
            hole.id = arbor.id + "." + plate;
            hole.arbor = arbor.id;
            hole.plate = plate;
            hole.name = arbor.name + ", " + plate;
            hole.x_mm = arbor.x_mm;
            hole.y_mm = arbor.y_mm;
            hole.record.arbor = arbor.id;
            hole.record.plate = plate;
            if (const auto at = records.find(hole.id); at != records.end()) hole.record = *at->second;
            hole.push_deg = pushes[i];
            hole.wear_read = hole.record.wear_direction_deg.has_value();
            hole.wear_deg = hole.wear_read ? hole.record.wear_direction_deg : hole.push_deg;
            if (hole.wear_read && hole.push_deg) hole.off_push_deg = angle_between_deg(*hole.wear_deg, *hole.push_deg);
            hole.thickness_mm = hole.record.thickness_mm;
            if (!hole.thickness_mm && whole) hole.thickness_mm = whole->thickness_mm;
            holes.push_back(std::move(hole));
        }
    }
    BushPlanInput in;
    in.clearance = job.survey.clearance;
    in.method = job.survey.method;
    in.interference_mm = job.survey.interference_mm;
    if (stock) {
        in.stock = stock->bushes;
        in.own_reamers_mm = stock->reamer_sizes();
    }
    const std::map<std::string, std::vector<Round>> rims = {{"front", rims_on(job, holes, "front")}, {"back", rims_on(job, holes, "back")}};
    const bool comparable = before.holes.size() == holes.size();
    for (size_t i = 0; i < holes.size(); ++i) {
        DerivedHole& hole = holes[i];
        hole.edge_mm = hole.record.edge_mm ? hole.record.edge_mm : room_round(job, rims.at(hole.plate), hole);
        plan_hole(job, in, hole, comparable ? &before.holes[i] : nullptr);
        if (hole.plan) effects_of(index, hole);
        wobble_of(job, hole);
        decide_hole(hole);
        const bool work = hole.decision == "bush" || hole.decision == "plug" || hole.decision == "close";
        derived.survey.holes_to_do += work;
        derived.survey.holes_done += work && hole.record.done;
    }
}

void derive_arbor_readings(const Job& job, Derived& derived) {
    for (const ArborRecord& record : job.survey.arbors) {
        const DerivedArbor* arbor = derived.arbor(record.arbor);
        if (!arbor) continue;
        if (record.tir_mm) {
            ArborRunoutInput in;
            in.tir_mm = *record.tir_mm;
            in.tir_before_mm = record.tir_before_mm;
            in.arbor = job.escape_arbor == record.arbor ? "escape" : "train";
            in.hardened = record.hardened;
            if (arbor->wheel_radius_mm > 0) in.wheel_radius_mm = arbor->wheel_radius_mm;
            in.period_s = arbor->period_s;
            derived.survey.runout[record.arbor] = arbor_runout(in);
        }
        if (record.plates_mm && record.shoulders_mm && job.survey.end_shake_least_mm <= job.survey.end_shake_most_mm)
            derived.survey.end_shake[record.arbor] =
                end_shake({*record.plates_mm, *record.shoulders_mm, job.survey.end_shake_least_mm, job.survey.end_shake_most_mm, {}});
    }
}

/// "Centre wheel", but not "Tide wheel wheel".
std::string with_kind(const std::string& name, const std::string& kind) { return name.ends_with(kind) ? name : name + " " + kind; }

void derive_spots(const Job& job, Derived& derived) {
    auto& spots = derived.survey.spots;
    spots.reserve(derived.survey.holes.size() + 4 * derived.arbors.size());
    std::map<std::string, const ConditionRecord*> conditions;
    for (const ConditionRecord& condition : job.survey.conditions) conditions[condition.part] = &condition;
    const auto add = [&](Spot spot) {
        if (const auto at = conditions.find(spot.part); at != conditions.end())
            for (const ConditionWord& word : conditions_for(spot.kind))
                if (word.id == at->second->verdict) {
                    spot.verdict = word.words;
                    spot.severity = word.severity;
                }
        spots.push_back(std::move(spot));
    };
    for (const std::string& plate : plate_names())
        add({"plate." + plate, "plate", plate == "front" ? "Front plate" : "Back plate", "", plate, 0, 0, {}, {}, false});
    if (job.plate)
        for (size_t i = 0; i < job.plate->pillars.size(); ++i)
            add({"pillar." + std::to_string(i + 1),
                 "pillar",
                 "Pillar " + std::to_string(i + 1),
                 "",
                 "front",
                 job.plate->pillars[i][0],
                 job.plate->pillars[i][1],
                 {},
                 {}});
    for (const DerivedHole& hole : derived.survey.holes)
        add({hole.id, "hole", hole.name + " hole", hole.arbor, hole.plate, hole.x_mm, hole.y_mm, {}, {}, hole.record.pegged});
    for (const DerivedArbor& arbor : derived.arbors) {
        add({arbor.id, "arbor", arbor.name + " arbor", arbor.id, "", arbor.x_mm, arbor.y_mm, {}, {}, false});
        if (arbor.wheel.count.present())
            add({arbor.id + ".wheel", "wheel", with_kind(arbor.name, "wheel"), arbor.id, "", arbor.x_mm, arbor.y_mm, {}, {}, false});
        if (arbor.pinion.count.present())
            add({arbor.id + ".pinion", "pinion", arbor.name + " pinion", arbor.id, "", arbor.x_mm, arbor.y_mm, {}, {}, false});
        if (arbor.hand || arbor.id == job.reference.arbor)
            add({arbor.id + ".hand", "hand", with_kind(arbor.name, "hand"), arbor.id, "front", arbor.x_mm, arbor.y_mm, {}, {}, false});
    }
    if (!job.trains.empty() && !job.trains.front().arbors.empty()) {
        const std::string& first = job.trains.front().arbors.front();
        add({first + ".drive", "drive", "Drive: spring, line", first, "", 0, 0, {}, {}, false});
    }
    if (job.escape_arbor) add({"pallets", "pallets", "Pallets", *job.escape_arbor, "", 0, 0, {}, {}, false});
}

/// Which way up an arbor goes between the plates, told by what meshes: it cannot be read off a wheel in a tray.
void derive_ways(const Index& index, Derived& derived) {
    for (const DerivedArbor& arbor : derived.arbors) {
        std::string driven_by, drives;
        for (const DerivedMesh* mesh : index.meshes_of(arbor.id)) {
            if (mesh->pinion_of == arbor.id) driven_by = index.arbor(mesh->wheel_of).name;
            else if (drives.empty()) drives = index.arbor(mesh->pinion_of).name;
        }
        if (driven_by.empty() && drives.empty()) continue;
        derived.survey.way_up[arbor.id] = (driven_by.empty() ? "" : "pinion level with the " + with_kind(driven_by, "wheel")) +
                                          (driven_by.empty() || drives.empty() ? "" : ", ") +
                                          (drives.empty() ? "" : "wheel level with the " + with_kind(drives, "pinion"));
    }
}

/// Order of work: safety, then what everything else is measured from, then pivots before their bushes, then teeth and the rest.
void derive_needed(const Job& job, Derived& derived) {
    auto& survey = derived.survey;
    auto& needed = survey.needed;
    survey.safe = true;
    for (const SafetyStep& step : safety_steps())
        if (!job.survey.step(step.id)) {
            survey.safe = false;
            needed.push_back({"safety." + step.id, "", step.words + "?", step.why, "fault"});
        }
    for (const PlateRecord& plate : job.survey.plates) {
        const double length = job.plate ? std::max(job.plate->height_mm, job.plate->width_mm) : 100;
        const double limit = flat_mm_per_100 * length / 100;
        if (plate.flatness_mm && *plate.flatness_mm > limit)
            needed.push_back({"plate." + plate.plate, "", "Flatten the " + plate.plate + " plate",
                              mm(*plate.flatness_mm) + " of light under the straight edge; up to " + mm(limit) + " is called flat.",
                              "fault"});
        if (plate.pillar_out_mm && *plate.pillar_out_mm > limit)
            needed.push_back({"plate." + plate.plate, "", "Straighten the pillars",
                              "One stands " + mm(*plate.pillar_out_mm) + " out of square: holes bored in line would not be.", "fault"});
    }
    const auto spots_of = [&](std::initializer_list<const char*> kinds) {
        for (const Spot& spot : survey.spots) {
            if (spot.severity.empty() || std::none_of(kinds.begin(), kinds.end(), [&](const char* kind) { return spot.kind == kind; }))
                continue;
            // A reading of the indicator says it better than "bent".
            if (spot.kind == "arbor" && survey.runout.contains(spot.arbor)) continue;
            const ConditionRecord* condition = job.survey.condition(spot.part);
            needed.push_back({spot.part, spot.arbor, spot.name + ": " + spot.verdict, condition ? condition->note : "", spot.severity});
        }
    };
    spots_of({"plate", "pillar"});
    for (const auto& [arbor, runout] : survey.runout)
        if (runout.verdict != "true")
            needed.push_back({arbor, arbor, derived.arbor(arbor)->name + " arbor: " + runout.verdict, runout.reason,
                              runout.verdict == "measure again" ? "caution" : "fault"});
    spots_of({"arbor"});
    for (const auto& decision : {"repivot-first", "clean", "plug", "bush", "close"})
        for (const DerivedHole& hole : survey.holes)
            if (hole.decision == decision && hole.open())
                needed.push_back({hole.id, hole.arbor, hole.name + ": " + words_for_decision(decision), hole.reason,
                                  std::string(decision) == "clean" ? "caution" : "fault"});
    spots_of({"wheel", "pinion", "drive", "pallets", "hand"});
    for (const auto& [arbor, shake] : survey.end_shake)
        if (shake.verdict != "right")
            needed.push_back({arbor, arbor, derived.arbor(arbor)->name + ": end shake " + shake.verdict, shake.reason,
                              shake.verdict == "binds" ? "fault" : "caution"});
    for (const TallyLine& line : job.survey.tally)
        if (line.state == "left over")
            needed.push_back({"tally", "", line.name + " is left over",
                              "Taken out, and neither put back nor replaced: where does it belong?", "caution"});
}

void derive_shopping(const Stock* stock, Derived& derived) {
    std::map<std::string, long long> wanted;
    std::map<std::string, long long> anew;
    for (const DerivedHole& hole : derived.survey.holes) {
        if (hole.decision != "bush" || hole.record.done || hole.record.bush || !hole.plan) continue;
        if (hole.plan->bush) ++wanted[hole.plan->bush->id];
        else if (!hole.plan->warnings.empty())
            ++anew["for " + hole.name + ": outside from " + mm(hole.plan->wanted_outside_mm) + ", bore for a pivot of " +
                   mm(*hole.record.pivot_mm)];
    }
    for (const auto& [id, count] : wanted)
        for (const Bush& bush : stock->bushes)
            if (bush.id == id && bush.quantity < count) derived.survey.shopping.push_back({id, count, bush.quantity});
    for (const auto& [words, count] : anew) derived.survey.shopping.push_back({words, count, 0});
}

}  // namespace

const Record& HoleEffect::record() {
    using Out = HoleEffect;
    static const Record record = Fields<Out>()
                                     .add("wheel_of", &Out::wheel_of, "", "arbor of the wheel")
                                     .add("pinion_of", &Out::pinion_of, "", "arbor of the pinion")
                                     .add("as_worn_mm", &Out::as_worn_mm, "mm", "deeper (positive) as it runs now")
                                     .add("at_worn_centre_mm", &Out::at_worn_centre_mm, "mm", "bushed in the middle of the worn hole")
                                     .add("at_true_mm", &Out::at_true_mm, "mm", "bushed on the original centre");
    return record;
}

const Record& Needed::record() {
    using Out = Needed;
    static const Record record = Fields<Out>()
                                     .add("part", &Out::part, "", "what")
                                     .add("arbor", &Out::arbor, "", "on which arbor")
                                     .add("sentence", &Out::sentence, "", "what it wants")
                                     .add("reason", &Out::reason, "", "why")
                                     .add("severity", &Out::severity, "", "fault or caution");
    return record;
}

const Record& ShoppingLine::record() {
    using Out = ShoppingLine;
    static const Record record = Fields<Out>()
                                     .add("words", &Out::words, "", "bush, or the sizes of one")
                                     .add("wanted", &Out::wanted, "", "by the plans")
                                     .add("there", &Out::there, "", "in the drawer");
    return record;
}

const Record& SimulatedEffect::record() {
    using Out = SimulatedEffect;
    static const Record record = Fields<Out>()
                                     .add("wheel_of", &Out::wheel_of, "", "arbor of the wheel")
                                     .add("pinion_of", &Out::pinion_of, "", "arbor of the pinion")
                                     .add("when", &Out::when, "", "which case")
                                     .add("depth_mm", &Out::depth_mm, "mm", "deeper (positive) than the teeth want")
                                     .add("speed_swing", &Out::speed_swing, "", "of the pinion over one pitch")
                                     .add("before_centre_deg", &Out::before_centre_deg, "deg", "contact before the line of centres")
                                     .add("verdict", &Out::verdict, "", "of the mesh");
    return record;
}

const DerivedHole* DerivedSurvey::hole(const std::string& id) const {
    const auto at = std::find_if(holes.begin(), holes.end(), [&](const DerivedHole& h) { return h.id == id; });
    return at == holes.end() ? nullptr : &*at;
}

Offset table_move(const DerivedHole& hole) {
    if (!hole.plan) return {};
    // The plate moves against the way the hole must go. Inside up, the front plate is seen from behind: left and right change places.
    const Offset& to = hole.plan->offset_mm;
    return {hole.plate == "front" ? to.x : -to.x, -to.y};
}

std::string move_in_words(const Offset& move) {
    return std::string(move.x < 0 ? "←" : "→") + " " + print_fixed(std::abs(move.x), 2) + "  " + (move.y < 0 ? "↓" : "↑") + " " +
           print_fixed(std::abs(move.y), 2) + " mm";
}

void derive_survey(const Job& job, const Stock* stock, Derived& derived, DerivedSurvey before) {
    derived.survey = {};
    const Index index(derived);
    derive_holes(job, stock, index, derived, before);
    derive_arbor_readings(job, derived);
    derive_spots(job, derived);
    derive_ways(index, derived);
    derive_needed(job, derived);
    derive_shopping(stock, derived);
}

std::vector<SimulatedEffect> simulate_effects(const Derived& derived, const DerivedHole& hole) {
    constexpr size_t most_meshes = 4;  ///< a great wheel with a dozen branches: the first ones are told
    constexpr long long coarse = 90;   // steps a pitch: the verdict is the same as with 360, in a quarter of the time
    std::vector<SimulatedEffect> list;
    for (size_t i = 0; i < hole.effects.size() && i < most_meshes; ++i) {
        const HoleEffect& effect = hole.effects[i];
        const DerivedMesh& mesh = *derived.mesh(effect.wheel_of, effect.pinion_of);
        for (const auto& [when, depth] :
             {std::pair{"as worn", effect.as_worn_mm}, std::pair{"bushed at the worn centre", effect.at_worn_centre_mm},
              std::pair{"bushed at the true centre", effect.at_true_mm}}) {
            MeshSimulationInput in;
            in.mesh = mesh.geometry();
            in.depth_error_mm = depth;
            in.steps = coarse;
            const MeshSimulationResult got = simulate_mesh(in);
            list.push_back(
                {effect.wheel_of, effect.pinion_of, when, depth, got.velocity_ratio_spread, got.engagement_before_centre_deg, got.verdict});
        }
    }
    return list;
}

}  // namespace echappe
