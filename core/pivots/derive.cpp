#include "pivots/derive.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <unordered_map>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "teeth/mesh_simulation.h"
#include "train/mesh_index.h"

namespace echappe {
namespace {

std::string to_hundredths(double value) { return print_fixed(value, 2) + " mm"; }

/// Rims on one plate that a bush must keep away from: of pillars and of the other holes, from left to right.
class Rims {
public:
    Rims(const TrainRecord& movement, const std::vector<DerivedHole>& holes, const std::vector<HoleReadings>& readings,
         const std::string& plate) {
        constexpr double hole_radius_mm = 1;  ///< of one that was not measured
        if (movement.plate)
            for (const auto& pillar : movement.plate->pillars) m_rims.push_back({pillar[0], pillar[1], movement.plate->pillar_mm / 2});
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
std::optional<double> room_round(const TrainRecord& movement, const Rims& rims, const HolePlace& hole) {
    const double room = rims.room_at(hole.x_mm, hole.y_mm,
                                     movement.plate && !movement.plate->assumed ? movement.plate->room_at(hole.x_mm, hole.y_mm) : INFINITY);
    if (!std::isfinite(room) || room <= 0) return {};
    return room;
}

/// What the depth of each mesh of its arbor becomes when the hole's middle moves by (x, y).
void effects_of(const MeshIndex& index, double x, double y, bool off, DerivedHole& hole) {
    for (const DerivedMesh* mesh : index.meshes_of(hole.arbor)) {
        const DerivedArbor& other = index.arbor(mesh->wheel_of == hole.arbor ? mesh->pinion_of : mesh->wheel_of);
        const double apart = std::hypot(hole.x_mm - other.x_mm, hole.y_mm - other.y_mm);
        if (apart == 0) continue;
        const double deeper = -(x * (hole.x_mm - other.x_mm) + y * (hole.y_mm - other.y_mm)) / apart;
        hole.effects.push_back({mesh->wheel_of, mesh->pinion_of, deeper, off ? deeper : deeper / 2, 0, mesh->module_mm.value});
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
std::vector<DerivedHole> lay_holes(const TrainRecord& movement, const DerivedTrain& train) {
    std::vector<DerivedHole> holes;
    holes.reserve(2 * train.arbors.size());
    for (const std::string& plate : plate_names())
        for (size_t i = 0; i < train.arbors.size(); ++i) {
            const DerivedArbor& arbor = train.arbors[i];
            if (movement.arbors[i].train.coaxial_with) continue;
            static_cast<HolePlace&>(holes.emplace_back()) = {arbor.id + "." + plate,
                                                             arbor.id,
                                                             plate,
                                                             arbor.name + ", " + plate,
                                                             plate == "back" ? arbor.back_x_mm : arbor.x_mm,
                                                             plate == "back" ? arbor.back_y_mm : arbor.y_mm};
        }
    return holes;
}

/// What the survey says of each hole, in their order.
std::vector<HoleReadings> readings_of(const PivotsRecord& pivots, const TrainRecord& movement, const BushedBefore& before,
                                      const std::vector<DerivedHole>& holes) {
    std::unordered_map<std::string, const HoleRecord*> records;
    for (const HoleRecord& record : pivots.holes) records[record.id()] = &record;
    std::unordered_map<std::string, const ArborRecord*> arbors;
    for (const ArborRecord& record : pivots.arbors) arbors[record.arbor] = &record;
    std::vector<HoleReadings> readings;
    readings.reserve(holes.size());
    for (const HolePlace& hole : holes) {
        HoleReadings& now = readings.emplace_back();
        if (const auto record = records.find(hole.id); record != records.end()) now.record = *record->second;
        now.old_bush = before.holes.contains(hole.id);
        now.record.arbor = hole.arbor;
        now.record.plate = hole.plate;
        const PlateRecord* whole = pivots.plate(hole.plate);
        now.thickness_mm = now.record.thickness_mm ? now.record.thickness_mm : whole ? whole->thickness_mm : std::nullopt;
        if (const auto arbor = arbors.find(hole.arbor); arbor != arbors.end()) now.plates_mm = arbor->second->plates_mm;
    }
    for (const std::string& plate : plate_names()) {
        const Rims rims(movement, holes, readings, plate);
        for (size_t i = 0; i < holes.size(); ++i)
            if (holes[i].plate == plate)
                readings[i].edge_mm = readings[i].record.edge_mm ? readings[i].record.edge_mm : room_round(movement, rims, holes[i]);
    }
    return readings;
}

/// Where the pivot stands now, from where it stood: the whole of the wear; the middle of the worn hole is half-way.
void effects_of(const MeshIndex& index, DerivedHole& hole) {
    const HoleRecord& r = hole.record;
    if (r.old_off_x_mm && r.old_off_y_mm) return effects_of(index, -*r.old_off_x_mm, -*r.old_off_y_mm, true, hole);
    if (!hole.wear_deg || !r.hole_max_mm || !r.hole_min_mm) return;
    const double worn = std::max(0.0, *r.hole_max_mm - r.original_mm.value_or(*r.hole_min_mm));
    const double way = *hole.wear_deg * rad_per_deg;
    effects_of(index, worn * std::cos(way), worn * std::sin(way), false, hole);
}

/// The mesh that lost or gained most depth for its size.
void ask_for_depth(const DerivedHole& hole, BushPlanInput& in) {
    in.depth_lost_mm.reset();
    in.module_mm.reset();
    double worst = 0;
    for (const HoleEffect& effect : hole.effects) {
        if (effect.module_mm <= 0) continue;
        const double share = std::abs(effect.as_worn_mm) / effect.module_mm;
        if (share > worst) worst = share, in.depth_lost_mm = effect.as_worn_mm, in.module_mm = effect.module_mm;
    }
    // To a micrometre: a last digit of some other reading need not plan the hole anew.
    for (auto* value : {&in.depth_lost_mm, &in.module_mm})
        if (*value) **value = std::round(**value * 1000) / 1000;
}

/// All that follows for one hole from where it is and what was read of it.
void derive_hole(const MeshIndex& index, BushPlanInput& in, DerivedHole& hole, DerivedHole& before) {
    hole.wear_read = hole.record.wear_direction_deg.has_value();
    hole.wear_deg = hole.wear_read ? hole.record.wear_direction_deg : hole.push_deg;
    if (hole.wear_read && hole.push_deg) hole.off_push_deg = angle_between_deg(*hole.wear_deg, *hole.push_deg);
    effects_of(index, hole);
    ask_for_depth(hole, in);
    plan_hole(in, hole, before);
    if (!hole.plan) hole.effects.clear();
    wobble_of(hole);
    decide_hole(hole);
}

/// The holes alone.
void derive_holes(const PivotsRecord& record, const TrainRecord& movement, const DerivedTrain& train, const DerivedMaking& making,
                  const DrivePulls& pulls, const BushedBefore& bushed, const BushDrawer& drawer, Earlier<DerivedPivots> earlier,
                  DerivedPivots& out) {
    const MeshIndex index(train);
    out.rules = {record.clearance, record.method, record.interference_mm};
    std::vector<DerivedHole> old;
    // What was chosen from another drawer does not hold.
    if (earlier.value && drawer.as_before) old = std::move(earlier.value->holes);
    const bool same_places = earlier.same_train && !old.empty();
    const bool stand = same_places && out.rules == earlier.value->rules;
    auto& holes = out.holes;
    if (same_places) holes.swap(old);
    else holes = lay_holes(movement, train);
    std::vector<HoleReadings> readings = readings_of(record, movement, bushed, holes);
    const Pushes pushes = pushes_on_pivots(record, movement, pulls, index, train, making);
    for (size_t i = 0; i < holes.size(); ++i)
        if (const auto push = pushes.find(holes[i].arbor); push != pushes.end())
            readings[i].push_deg = holes[i].plate == "back" ? push->second.back_deg : push->second.front_deg;
    BushPlanInput in;
    in.clearance = out.rules.clearance;
    in.method = out.rules.method;
    in.interference_mm = out.rules.interference_mm;
    if (drawer.bushes) {
        in.stock = *drawer.bushes;
        in.own_reamers_mm = drawer.reamers_mm;
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
        out.holes_to_do += work;
        out.holes_done += work && hole.record.done;
    }
}

void know_wheels(const TrainRecord& movement, const DerivedTrain& train, const std::optional<PalletsRecord>& pallets, DerivedPivots& out) {
    for (const DerivedArbor& arbor : train.arbors)
        if (arbor.wheel_radius_mm > 0 && movement.escape_arbor != arbor.id) out.wheel_radius_mm[arbor.id] = arbor.wheel_radius_mm;
    if (movement.escape_arbor && pallets && pallets->tip_diameter_mm)
        out.wheel_radius_mm[*movement.escape_arbor] = *pallets->tip_diameter_mm / 2;
}

void derive_arbor_readings(const PivotsRecord& pivots, const TrainRecord& movement, const DerivedTrain& train, DerivedPivots& out) {
    for (const ArborRecord& record : pivots.arbors) {
        const DerivedArbor* arbor = train.arbor(record.arbor);
        if (!arbor) continue;
        if (record.tir_mm) {
            ArborRunoutInput in;
            in.tir_mm = *record.tir_mm;
            in.tir_before_mm = record.tir_before_mm;
            in.arbor = movement.escape_arbor == record.arbor ? "escape" : "train";
            in.hardened = record.hardened;
            if (const auto known = out.wheel_radius_mm.find(record.arbor); known != out.wheel_radius_mm.end())
                in.wheel_radius_mm = known->second;
            in.period_s = arbor->period_s;
            for (const DerivedMesh& mesh : train.meshes)
                if ((mesh.wheel_of == record.arbor || mesh.pinion_of == record.arbor) && mesh.module_mm.value > 0)
                    in.module_mm = std::min(in.module_mm.value_or(INFINITY), mesh.module_mm.value);
            out.runout[record.arbor] = arbor_runout(in);
        }
        if (record.plates_mm && record.shoulders_mm &&
            !(pivots.end_shake_least_mm && pivots.end_shake_most_mm && *pivots.end_shake_least_mm > *pivots.end_shake_most_mm))
            out.end_shake[record.arbor] =
                end_shake({*record.plates_mm, *record.shoulders_mm, pivots.end_shake_least_mm, pivots.end_shake_most_mm, {}});
    }
}

void derive_shopping(const BushDrawer& drawer, DerivedPivots& out) {
    std::map<std::string, long long> wanted;
    std::map<std::string, long long> anew;
    for (const DerivedHole& hole : out.holes) {
        if (hole.decision != "bush" || hole.record.done || hole.record.bush || !hole.plan) continue;
        if (hole.plan->bush) ++wanted[hole.plan->bush->id];
        else if (!hole.plan->warnings.empty())
            ++anew["for " + hole.name + ": outside from " + to_hundredths(hole.plan->wanted_outside_mm) + ", bore for a pivot of " +
                   to_hundredths(*hole.record.pivot_mm)];
    }
    for (const auto& [id, count] : wanted)
        for (const Bush& bush : *drawer.bushes)
            if (bush.id == id && bush.quantity < count) out.shopping.push_back({id, count, bush.quantity});
    for (const auto& [words, count] : anew) out.shopping.push_back({words, count, 0});
}

/// A hole worn where nothing pushed it has another story: a bent arbor, an old bush off centre, or a reading turned round.
void judge_hole(const DerivedHole& hole, std::vector<Finding>& out) {
    constexpr double across_the_push_deg = 60;
    if (!hole.plan || hole.plan->decision != "bush" || !hole.off_push_deg || *hole.off_push_deg <= across_the_push_deg) return;
    const bool turned = *hole.off_push_deg > 180 - across_the_push_deg;
    out.push_back({"pivots.push:" + hole.id, "caution", hole.name + " hole: worn where the train does not push it.",
                   "It reads worn " + way_in_words(*hole.wear_deg) + "; the train pushes it " + way_in_words(*hole.push_deg) + ". " +
                       (turned ? "The end of the long axis may be read the wrong way round."
                               : "Look for a bent arbor or an earlier bush off centre, and read the direction again."),
                   hole.arbor, "", hole.id});
}

/// Two ways to one figure: the sway of the free end, and the gauge.
void judge_wobble(const DerivedHole& hole, std::vector<Finding>& out) {
    constexpr double believed_mm = 0.06;  ///< gauge, sway over the plates' distance and thickness, each at its usual uncertainty
    if (!hole.wobble || !hole.record.hole_max_mm || std::abs(hole.wobble->hole_mm - *hole.record.hole_max_mm) <= believed_mm) return;
    out.push_back({"pivots.wobble:" + hole.id, "caution", hole.name + " hole: wobble and gauge disagree.",
                   "The free end's sway says " + to_hundredths(hole.wobble->hole_mm) + ", the gauge " +
                       to_hundredths(*hole.record.hole_max_mm) + ". A tapered hole, a bent pivot or a misread: take both again.",
                   hole.arbor, "", hole.id});
}

}  // namespace

DerivedPivots derive_pivots(const PivotsRecord& record, const TrainRecord& movement, const DerivedTrain& train, const DerivedMaking& making,
                            const DrivePulls& pulls, const std::optional<PalletsRecord>& pallets, const BushedBefore& bushed,
                            const BushDrawer& drawer, Earlier<DerivedPivots> earlier) {
    DerivedPivots out;
    derive_holes(record, movement, train, making, pulls, bushed, drawer, earlier, out);
    know_wheels(movement, train, pallets, out);
    derive_arbor_readings(record, movement, train, out);
    derive_shopping(drawer, out);
    return out;
}

std::vector<Finding> findings_of_pivots(const DerivedPivots& derived) {
    std::vector<Finding> out;
    for (const DerivedHole& hole : derived.holes) {
        judge_hole(hole, out);
        judge_wobble(hole, out);
    }
    return out;
}

const Record& ShoppingLine::record() {
    using Out = ShoppingLine;
    static const Record record = Fields<Out>()
                                     .add("words", &Out::words, "", "bush, or the sizes of one")
                                     .add("wanted", &Out::wanted, "", "by the plans")
                                     .add("there", &Out::there, "", "in the drawer");
    return record;
}

const DerivedHole* DerivedPivots::hole(const std::string& id) const {
    const auto at = std::find_if(holes.begin(), holes.end(), [&](const DerivedHole& h) { return h.id == id; });
    return at == holes.end() ? nullptr : &*at;
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

std::vector<SimulatedEffect> simulate_effects(const DerivedTrain& train, const DerivedHole& hole) {
    constexpr size_t most_meshes = 4;  ///< a great wheel with a dozen branches: the first ones are told
    constexpr long long coarse = 120;  // steps a pitch: as few as are looked at
    std::vector<SimulatedEffect> list;
    for (size_t i = 0; i < hole.effects.size() && i < most_meshes; ++i) {
        const HoleEffect& effect = hole.effects[i];
        const DerivedMesh& mesh = *train.mesh(effect.wheel_of, effect.pinion_of);
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
