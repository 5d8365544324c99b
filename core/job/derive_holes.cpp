#include <algorithm>
#include <cmath>
#include <numbers>
#include <set>
#include <unordered_map>

#include "job/derived.h"
#include "job/mesh_index.h"
#include "job/stock.h"
#include "number/input_error.h"
#include "number/units.h"
#include "teeth/mesh_simulation.h"

namespace echappe {
namespace {

constexpr double rad_per_deg = std::numbers::pi / 180;

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

std::optional<double> push_of(const MeshIndex& index, const DerivedArbor& arbor, const std::set<std::string>& power) {
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

/// Rims on one plate that a bush must keep away from: of pillars and of the other holes, from left to right.
class Rims {
public:
    Rims(const Job& job, const std::vector<DerivedHole>& holes, const std::vector<HoleReadings>& readings, const std::string& plate) {
        constexpr double hole_radius_mm = 1;  ///< of one that was not measured
        if (job.plate)
            for (const auto& pillar : job.plate->pillars) m_rims.push_back({pillar[0], pillar[1], job.plate->pillar_mm / 2});
        for (size_t i = 0; i < holes.size(); ++i)
            if (holes[i].plate == plate)
                m_rims.push_back({holes[i].x_mm, holes[i].y_mm, readings[i].record.hole_max_mm.value_or(2 * hole_radius_mm) / 2});
        std::sort(m_rims.begin(), m_rims.end(), [](const Rim& a, const Rim& b) { return a.x_mm < b.x_mm; });
        for (const Rim& rim : m_rims) m_widest_mm = std::max(m_widest_mm, rim.radius_mm);
    }
    /// From a hole's middle to the nearest of them, no more than `room`.
    double room_at(double x_mm, double y_mm, double room) const {
        const auto middle = std::lower_bound(m_rims.begin(), m_rims.end(), x_mm, [](const Rim& rim, double x) { return rim.x_mm < x; });
        const auto take = [&](const Rim& rim) {
            const double apart = std::hypot(rim.x_mm - x_mm, rim.y_mm - y_mm);
            if (apart > 0) room = std::min(room, apart - rim.radius_mm);
        };
        // Outwards to both sides, until even the widest rim would lie too far away.
        for (auto rim = middle; rim != m_rims.end() && rim->x_mm - x_mm - m_widest_mm < room; ++rim) take(*rim);
        for (auto rim = middle; rim != m_rims.begin() && x_mm - (rim - 1)->x_mm - m_widest_mm < room; --rim) take(*(rim - 1));
        return room;
    }

private:
    struct Rim {
        double x_mm, y_mm, radius_mm;
    };
    std::vector<Rim> m_rims;
    double m_widest_mm = 0;
};

/// From the hole's middle to the nearest edge of the plate or rim of a pillar or another hole.
std::optional<double> room_round(const Job& job, const Rims& rims, const HolePlace& hole) {
    const double room = rims.room_at(hole.x_mm, hole.y_mm, job.plate ? job.plate->room_at(hole.x_mm, hole.y_mm) : INFINITY);
    if (!std::isfinite(room) || room <= 0) return {};
    return room;
}

void effects_of(const MeshIndex& index, DerivedHole& hole) {
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

/// `in` carries the drawer from hole to hole: it is copied once, not 500 times. The plan of `before` stands when it was asked the same.
void plan_hole(BushPlanInput& in, DerivedHole& hole, DerivedHole& before) {
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
    in.old_bush = hole.old_bush;
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
    if (before.asked && before.record.bush == r.bush && same(BushPlanInput::record(), &*hole.asked, &*before.asked)) {
        hole.plan = std::move(before.plan);
        hole.fault = std::move(before.fault);
        return;
    }
    auto taken = taken_for(in, r);
    if (taken) in.stock.swap(*taken);
    try {
        hole.plan = plan_bush(in);
    } catch (const InputError& error) {
        hole.fault = error.what();
    }
    if (taken) in.stock.swap(*taken);
}

/// What the wobble test says of the hole: its lean along the worn way shows the largest diameter.
void wobble_of(DerivedHole& hole) {
    if (!hole.record.sway_mm || !hole.record.pivot_mm || !hole.thickness_mm || !hole.plates_mm) return;
    const double lean = std::atan(*hole.record.sway_mm / 2 / *hole.plates_mm);
    constexpr double most = 60 * rad_per_deg;
    if (lean < most) hole.wobble = tilt_test({*hole.record.pivot_mm, {}, lean / rad_per_deg, *hole.thickness_mm, *hole.plates_mm});
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

/// Where the train puts its holes, plate by plate.
std::vector<DerivedHole> lay_holes(const Job& job, const MeshIndex& index, const Derived& derived) {
    const auto power = on_the_way_of_power(job, derived);
    std::vector<std::optional<double>> pushes;
    for (const DerivedArbor& arbor : derived.arbors) pushes.push_back(push_of(index, arbor, power));
    std::vector<DerivedHole> holes;
    holes.reserve(2 * derived.arbors.size());
    for (const std::string& plate : plate_names())
        for (size_t i = 0; i < derived.arbors.size(); ++i) {
            const DerivedArbor& arbor = derived.arbors[i];
            if (job.arbors[i].train.coaxial_with) continue;
            static_cast<HolePlace&>(holes.emplace_back()) = {
                arbor.id + "." + plate, arbor.id, plate, arbor.name + ", " + plate, arbor.x_mm, arbor.y_mm, pushes[i]};
        }
    return holes;
}

/// What the survey says of each hole, in their order.
std::vector<HoleReadings> readings_of(const Job& job, const std::vector<DerivedHole>& holes) {
    std::unordered_map<std::string, const HoleRecord*> records;
    for (const HoleRecord& record : job.survey.holes) records[record.id()] = &record;
    std::unordered_map<std::string, const ArborRecord*> arbors;
    for (const ArborRecord& record : job.survey.arbors) arbors[record.arbor] = &record;
    std::set<std::string> bushed;
    for (const ConditionRecord& condition : job.survey.conditions)
        if (condition.verdict == "bushed") bushed.insert(condition.part);
    std::vector<HoleReadings> readings;
    readings.reserve(holes.size());
    for (const HolePlace& hole : holes) {
        HoleReadings& now = readings.emplace_back();
        if (const auto record = records.find(hole.id); record != records.end()) now.record = *record->second;
        now.old_bush = bushed.contains(hole.id);
        now.record.arbor = hole.arbor;
        now.record.plate = hole.plate;
        const PlateRecord* whole = job.survey.plate(hole.plate);
        now.thickness_mm = now.record.thickness_mm ? now.record.thickness_mm : whole ? whole->thickness_mm : std::nullopt;
        if (const auto arbor = arbors.find(hole.arbor); arbor != arbors.end()) now.plates_mm = arbor->second->plates_mm;
    }
    for (const std::string& plate : plate_names()) {
        const Rims rims(job, holes, readings, plate);
        for (size_t i = 0; i < holes.size(); ++i)
            if (holes[i].plate == plate)
                readings[i].edge_mm = readings[i].record.edge_mm ? readings[i].record.edge_mm : room_round(job, rims, holes[i]);
    }
    return readings;
}

/// All that follows for one hole from where it is and what was read of it.
void derive_hole(const MeshIndex& index, BushPlanInput& in, DerivedHole& hole, DerivedHole& before) {
    hole.wear_read = hole.record.wear_direction_deg.has_value();
    hole.wear_deg = hole.wear_read ? hole.record.wear_direction_deg : hole.push_deg;
    if (hole.wear_read && hole.push_deg) hole.off_push_deg = angle_between_deg(*hole.wear_deg, *hole.push_deg);
    plan_hole(in, hole, before);
    if (hole.plan) effects_of(index, hole);
    wobble_of(hole);
    decide_hole(hole);
}

}  // namespace

void derive_holes(const Job& job, const Stock* stock, const MeshIndex& index, Derived& derived, DerivedSurvey& before, bool same_train) {
    DerivedSurvey& survey = derived.survey;
    survey.rules = {job.survey.clearance, job.survey.method, job.survey.interference_mm};
    std::vector<DerivedHole> old = std::move(before.holes);
    const bool same_places = same_train && !old.empty();
    const bool stand = same_places && survey.rules == before.rules;
    auto& holes = survey.holes;
    if (same_places) holes.swap(old);
    else holes = lay_holes(job, index, derived);
    std::vector<HoleReadings> readings = readings_of(job, holes);
    BushPlanInput in;
    in.clearance = survey.rules.clearance;
    in.method = survey.rules.method;
    in.interference_mm = survey.rules.interference_mm;
    if (stock) {
        in.stock = stock->bushes;
        in.own_reamers_mm = stock->reamer_sizes();
    }
    for (size_t i = 0; i < holes.size(); ++i) {
        DerivedHole& hole = holes[i];
        if (stand && static_cast<const HoleReadings&>(hole) == readings[i]) continue;
        DerivedHole was;
        if (same_places) {
            was = std::move(hole);
            hole = DerivedHole();
            static_cast<HolePlace&>(hole) = was;
        } else if (i < old.size() && old[i].id == hole.id) {
            was = std::move(old[i]);
        }
        static_cast<HoleReadings&>(hole) = std::move(readings[i]);
        derive_hole(index, in, hole, was);
    }
    for (const DerivedHole& hole : holes) {
        const bool work = hole.decision == "bush" || hole.decision == "plug" || hole.decision == "close";
        survey.holes_to_do += work;
        survey.holes_done += work && hole.record.done;
    }
}

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

std::vector<SchoolClearance> clearances_of(const DerivedHole& hole) {
    if (!hole.plan) return {};
    return compare_clearances({hole.asked->pivot_mm, hole.asked->plate_mm, hole.asked->clearance}).schools;
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
