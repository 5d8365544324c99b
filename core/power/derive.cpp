#include "power/derive.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/solve.h"
#include "number/units.h"
#include "power/enough.h"
#include "power/winding.h"
#include "teeth/mesh_simulation.h"

namespace echappe {
namespace {

/// What a drive is worked out from besides its own record.
struct Sources {
    const TrainRecord& movement;
    const PivotsRecord& pivots;
    const std::optional<OscillatorRecord>& oscillator;
    const DerivedTrain& train;
    const DerivedMaking& making;
    const DerivedOscillator& swings;
    const DerivedEscapement& escapement;
    Earlier<DerivedPower> earlier;
};
constexpr double spring_friction = 0.15;  ///< between the coils, assumed until a torque log is there
constexpr double opens_to_bores = 2.5;    ///< a strip's free coil, the same

/// Work that a mesh passes on, by its leaves: what is usual, until it was simulated.
double usual_efficiency(long long leaves) { return leaves >= 12 ? 0.97 : leaves >= 8 ? 0.95 : 0.93; }

void need(std::string& missing, const std::optional<double>& value, const char* words) {
    if (!value) missing += (missing.empty() ? "" : ", ") + std::string(words);
}

void drive_by_weight(const WeightDrive& drive, const std::string& escapement, DerivedDrive& out) {
    need(out.missing, drive.drum_diameter_mm, "the drum's diameter");
    need(out.missing, drive.line_diameter_mm, "the line's");
    need(out.missing, drive.weight_kg, "the weight");
    if (!out.missing.empty() || !out.turns) return;
    WeightDriveInput in;
    in.drum_diameter_mm = *drive.drum_diameter_mm;
    in.line_diameter_mm = *drive.line_diameter_mm;
    in.weight_kg = *drive.weight_kg;
    in.moving_pulleys = drive.moving_pulleys;
    in.turns = out.turns;
    in.drum_length_mm = drive.drum_length_mm;
    in.room_mm = drive.room_mm;
    in.least_weight_kg = drive.least_weight_kg;
    in.escapement = escapement;
    out.weight = weight_drive(in);
    out.torque = {{0, out.weight->torque_N_mm}, {*out.turns, out.weight->torque_N_mm}};
    out.torque_from = TorqueFrom::weight;
    if (drive.least_weight_kg) out.least_N_mm = out.weight->torque_N_mm * *drive.least_weight_kg / *drive.weight_kg;
}

SpringSizeInput size_input(const StripInBarrel& strip) {
    SpringSizeInput in;
    in.barrel_bore_mm = *strip.barrel_bore_mm;
    in.arbor_mm = *strip.arbor_mm;
    in.thickness_mm = *strip.thickness_mm;
    in.length_mm = strip.length_mm;
    in.width_mm = strip.width_mm;
    return in;
}

/// The run from a log: its top turns, wound first.
void run_by_log(const DriveRecord& drive, DerivedDrive& out) {
    TorqueLogInput in;
    in.down = drive.torque_down;
    in.up = drive.torque_up;
    in.least_N_mm = drive.least_N_mm;
    const TorqueCurve curve = TorqueCurve::through(in.down, "torque_down");
    const double top = curve.end();
    const double low = std::max(curve.begin(), top - out.turns.value_or(top - curve.begin()));
    in.from_turns = low;
    in.to_turns = top;
    out.log = read_torque_log(in);
    out.torque = {{0, curve.at(top)}};
    for (auto reading = in.down.rbegin(); reading != in.down.rend(); ++reading)
        if ((*reading)[0] < top && (*reading)[0] > low) out.torque.push_back({top - (*reading)[0], (*reading)[1]});
    out.torque.push_back({top - low, curve.at(low)});
    out.torque_from = TorqueFrom::log;
}

/// The run from the strip's sizes alone, wound to the top.
void run_by_strip(const StripInBarrel& strip, DerivedDrive& out) {
    if (!out.spring || !strip.width_mm || !out.turns) return;
    const SpringSizeResult& size = *out.spring;
    const double rate = spring_rate_N_mm(*strip.width_mm, *strip.thickness_mm, size.length_mm, 205000);
    const double free = size.length_mm / (pi * opens_to_bores * *strip.barrel_bore_mm);
    const auto torque = [&](double wound) { return std::max(0.0, rate * (size.coils_unwound + wound - free) * (1 - spring_friction)); };
    out.torque = {{0, torque(size.turns)}, {*out.turns, torque(size.turns - *out.turns)}};
    out.torque_from = TorqueFrom::strip;
}

void drive_by_strip(const DriveRecord& drive, const StripInBarrel& strip, DerivedDrive& out) {
    if (drive.torque_down.size() < 2) {
        need(out.missing, strip.barrel_bore_mm, "the barrel's bore");
        need(out.missing, strip.arbor_mm, "its arbor");
        need(out.missing, strip.thickness_mm, "the strip's thickness");
        need(out.missing, strip.width_mm, "its width");
    }
    if (strip.barrel_bore_mm && strip.arbor_mm && strip.thickness_mm) out.spring = spring_size(size_input(strip));
    if (drive.torque_down.size() >= 2) run_by_log(drive, out);
    else if (drive.as<SpringDrive>() && out.missing.empty()) run_by_strip(strip, out);
    else if (out.missing.empty()) out.missing = "the torque at the fusee, turn by turn";
    out.least_N_mm = drive.least_N_mm;
}

/// The torque of the barrel over its own turns, as a straight spring through what the fusee gave: set-up and rise for each turn.
struct Straight {
    double at_set_up_N_mm = 0;
    double per_turn_N_mm = 0;
};

std::optional<Straight> barrel_by_log(const DerivedDrive& out, double barrel_radius_mm) {
    // [turns from wound, N mm] at the fusee; the small end carries the line when wound.
    double n = 0, x = 0, y = 0, xx = 0, xy = 0;
    const double turns = out.barrel_along.back();
    for (const auto& [run, torque] : out.torque) {
        const double quarter = std::min(run * 4, static_cast<double>(out.cone_mm.size() - 1));
        const auto at = static_cast<size_t>(quarter);
        const size_t next = std::min(at + 1, out.cone_mm.size() - 1);
        const double part = quarter - static_cast<double>(at);
        const double rho = out.cone_mm[at] + (out.cone_mm[next] - out.cone_mm[at]) * part;
        const double wound = turns - (out.barrel_along[at] + (out.barrel_along[next] - out.barrel_along[at]) * part);
        const double barrel = torque * barrel_radius_mm / rho;
        n += 1, x += wound, y += barrel, xx += wound * wound, xy += wound * barrel;
    }
    const double spread = xx - x * x / n;
    if (n < 2 || !(spread > 0)) return {};
    Straight line;
    line.per_turn_N_mm = (xy - x * y / n) / spread;
    line.at_set_up_N_mm = y / n - line.per_turn_N_mm * x / n;
    if (line.per_turn_N_mm <= 0 || line.at_set_up_N_mm <= 0) return {};
    return line;
}

/// The cone that is there and the cone that the spring wants.
void drive_by_fusee(const FuseeDrive& drive, DerivedDrive& out) {
    if (!out.turns || !drive.barrel_diameter_mm || !drive.line_diameter_mm) return;
    constexpr size_t enough = 3;
    if (drive.cone_mm.size() >= enough) {
        out.cone_mm = cone_from_readings(drive.cone_mm);
        out.cone_measured = true;
    } else if (drive.large_diameter_mm && drive.small_diameter_mm) {
        out.cone_mm = cone_between(*drive.large_diameter_mm / 2, *drive.small_diameter_mm / 2, *out.turns);
    } else {
        return;
    }
    const double barrel_radius = (*drive.barrel_diameter_mm + *drive.line_diameter_mm) / 2;
    out.barrel_along = barrel_turns_along(out.cone_mm, barrel_radius);
    out.barrel_turns = out.barrel_along.back();
    if (out.spring && *out.barrel_turns > out.spring->turns)
        out.warnings.push_back({"cone-turns", "The fusee wants " + print_fixed(*out.barrel_turns, 1) +
                                                  " turns of its barrel; the strip gives " + print_fixed(out.spring->turns, 1) +
                                                  ": a thinner strip, or the cone was misread."});
    if (out.torque_from != TorqueFrom::log) return;
    const auto line = barrel_by_log(out, barrel_radius);
    if (!line) return;
    FuseeInput wants;
    wants.torque_set_up_N_mm = line->at_set_up_N_mm;
    wants.torque_per_turn_N_mm = line->per_turn_N_mm;
    wants.barrel_diameter_mm = *drive.barrel_diameter_mm;
    wants.line_diameter_mm = *drive.line_diameter_mm;
    wants.chain_thickness_mm = drive.chain_thickness_mm;
    wants.fusee_turns = *out.turns;
    wants.large_diameter_mm = drive.large_diameter_mm ? *drive.large_diameter_mm : 2 * out.cone_mm.back();
    out.fusee = fusee_profile(wants);
    FuseeSetUpInput set_up;
    set_up.radii_mm = out.cone_mm;
    set_up.barrel_diameter_mm = wants.barrel_diameter_mm;
    set_up.line_diameter_mm = wants.line_diameter_mm;
    // From just above no torque to what the barrel has over what the log reached: no set-up can take more turns than the strip gives.
    const double now = line->at_set_up_N_mm / line->per_turn_N_mm;
    constexpr double first = 0.01, beyond = 2;
    const double room = out.spring ? std::max(0.0, out.spring->turns - *out.barrel_turns) : beyond;
    const double last = now + *out.barrel_turns + room;
    set_up.torque_curve = {{first, line->per_turn_N_mm * first}, {last, line->per_turn_N_mm * last}};
    if (out.least_N_mm) set_up.level_N_mm = wanted_torque(*out.least_N_mm);
    out.set_up = fusee_set_up(set_up);
    out.set_up_found = now;
    const double more = out.set_up->set_up_turns - now;
    constexpr double worth_doing = 0.05;
    out.set_up_advice = (std::abs(more) < worth_doing ? "Its set-up is as level as it gets"
                         : more > 0                   ? "Set up " + print_fixed(more, 2) + " turns more"
                                                      : "Set up " + print_fixed(-more, 2) + " turns less") +
                        ": within " + print_fixed(100 * out.set_up->flatness, 0) + " % over the run.";
}

void drive_rewound(const DriveRecord& record, const RewoundDrive& drive, const DerivedTrain& train, DerivedDrive& out) {
    need(out.missing, drive.rewind_minutes, "the minutes from rewind to rewind");
    need(out.missing, drive.torque_wound_N_mm, "the torque just wound");
    const DerivedArbor* arbor = train.arbor(out.arbor);
    if (!arbor || arbor->turns_per_s == 0) need(out.missing, {}, "the train's counts");
    if (!out.missing.empty()) return;
    RewindInput in;
    in.minutes = *drive.rewind_minutes;
    in.arbor_turns = std::abs(arbor->turns_per_s) * 60 * *drive.rewind_minutes;
    in.torque_wound_N_mm = *drive.torque_wound_N_mm;
    in.torque_before_N_mm = drive.torque_before_N_mm;
    in.least_N_mm = record.least_N_mm;
    in.continuity_ohm = drive.continuity_ohm;
    in.continuity_wanted_ohm = drive.continuity_wanted_ohm;
    in.insulation_Mohm = drive.insulation_Mohm;
    in.contact_gf = drive.contact_gf;
    out.rewind = rewind_drive(in);
    out.turns = in.arbor_turns;
    out.torque = {{0, in.torque_wound_N_mm}, {in.arbor_turns, in.torque_before_N_mm.value_or(in.torque_wound_N_mm)}};
    out.torque_from = TorqueFrom::rewinds;
    out.least_N_mm = record.least_N_mm;
}

/// Depth in modules, to the nearest hundredth: efficiency changes by some 0.002 in one, and a reading's last digit need not turn
/// the teeth anew.
double depth_in_modules(const DerivedMesh& mesh) {
    return mesh.depth_mm ? std::round(100 * mesh.depth_mm->value / mesh.module_mm.value) / 100 : 0;
}

/// Work that a mesh passes on at the depth it stands at, by the simulation of its teeth, the same at every module; one that cannot
/// be turned keeps what is usual.
double efficiency_of(const DerivedMesh& mesh, const Sources& from, DerivedPower& out) {
    if (const auto there = out.meshes.find(mesh.name()); there != out.meshes.end()) return there->second.efficiency;
    MeshEfficiency& now = out.meshes[mesh.name()];
    now = {mesh.wheel, mesh.pinion, mesh.form, depth_in_modules(mesh), usual_efficiency(mesh.pinion)};
    if (from.earlier.value)
        for (const auto& [name, old] : from.earlier.value->meshes)
            if (old.wheel == now.wheel && old.pinion == now.pinion && old.form == now.form && old.depth_m == now.depth_m)
                return now.efficiency = old.efficiency;
    MeshSimulationInput in;
    in.mesh = mesh.geometry();
    in.depth_error_mm = now.depth_m * mesh.module_mm.value;
    // A mean over the pitch asks for little: within 0.001 of 400 points.
    in.steps = 120;
    in.flank_points = 100;
    try {
        const MeshSimulationResult turned = simulate_mesh(in);
        if (!turned.butts && !turned.binds && turned.efficiency > 0) now.efficiency = std::min(1.0, turned.efficiency);
    } catch (const InputError&) {
        // Depths far from what the teeth want: the finding of the mesh says so.
    }
    return now.efficiency;
}

/// Mean of the pivots at both ends, where they were measured.
std::optional<double> pivot_of(const PivotsRecord& pivots, const std::string& arbor) {
    double sum = 0, ends = 0;
    for (const std::string& plate : plate_names())
        if (const HoleRecord* hole = pivots.hole(arbor + "." + plate); hole && hole->pivot_mm) sum += *hole->pivot_mm, ends += 1;
    return ends > 0 ? std::optional(sum / ends) : std::nullopt;
}

bool on_the_way(const TrainList& train, const DerivedMesh& mesh) {
    const auto in_train = [&](const std::string& id) {
        return std::find(train.arbors.begin(), train.arbors.end(), id) != train.arbors.end();
    };
    return in_train(mesh.wheel_of) && in_train(mesh.pinion_of);
}

PowerChainInput chain_input(const Sources& from, const TrainList& list, const DerivedDrive& drive, DerivedPower& out) {
    const OscillatorRecord& o = *from.oscillator;
    PowerChainInput in;
    in.train = known_part(shown_train(from.movement, from.train));
    in.from_arbor = drive.arbor;
    for (const DerivedMesh& mesh : from.train.meshes) {
        if (!on_the_way(list, mesh)) continue;
        PowerMesh& told = in.meshes.emplace_back();
        told.wheel_of = mesh.wheel_of;
        told.pinion_of = mesh.pinion_of;
        told.efficiency = efficiency_of(mesh, from, out);
        told.module_mm = mesh.module_mm.value;
        if (const auto& blank = from.making.of(mesh).wheel_blank) told.tooth_width_mm = blank->thickness_mm;
    }
    for (const std::string& arbor : list.arbors)
        if (const auto pivot = pivot_of(from.pivots, arbor)) in.pivots.push_back({arbor, *pivot});
    const auto* pendulum = o.as<Pendulum>();
    in.oscillator.kind = pendulum ? "pendulum" : "balance";
    in.oscillator.Q = o.Q;
    in.oscillator.escapement_efficiency =
        o.escapement_efficiency.value_or(usual_escapement_efficiency(from.movement.escapement.value_or(pendulum ? "recoil" : "lever")));
    in.oscillator.needed_deg = o.needed_deg;
    if (pendulum) in.oscillator.mass_kg = pendulum->mass_kg;
    if (!in.oscillator.mass_kg && from.swings.compound) in.oscillator.mass_kg = from.swings.compound->mass_kg;
    if (from.swings.pendulum) {
        in.oscillator.length_mm = from.swings.pendulum->length_mm;
        in.oscillator.gravity_m_s2 = from.swings.pendulum->gravity_m_s2;
    }
    if (from.swings.balance) in.oscillator.inertia_kg_m2 = from.swings.balance->inertia_kg_m2;
    return in;
}

/// The share that the pallets pass on, by their own simulation: at the start of the run, and at its end. What was given by hand stands.
void simulate_pallets(const Sources& from, PowerChainInput& in, const DerivedDrive& drive) {
    const DerivedEscapement& pallets = from.escapement;
    if (from.oscillator->escapement_efficiency || !pallets.now || pallets.beat.state == EscapementState::trips ||
        pallets.beat.state == EscapementState::catches)
        return;
    const bool pendulum = in.oscillator.kind == "pendulum";
    const auto* anchor = std::get_if<EscapementAction>(&*pallets.now);
    if (const auto* lever = std::get_if<LeverAction>(&*pallets.now); lever && !pendulum) {
        // The lever goes from banking to banking at every swing: its share is the same at every torque.
        if (const auto energy = energy_per_beat_mJ(*lever, pallets.beat, 1, pallets.friction); energy && *energy > 0)
            in.oscillator.escapement_efficiency = *energy / (pi / static_cast<double>(lever->teeth));
        return;
    }
    if (!anchor || !pendulum) return;
    const EscapementPendulum swings{*in.oscillator.mass_kg, *in.oscillator.length_mm, in.oscillator.Q};
    in.torque_N_mm = drive.torque_at(1);
    in.torque_end_N_mm = drive.torque.back()[1];
    const PowerAtArbor at = power_chain(in).arbors.back();
    const SwingKept start = swing_kept_by(*anchor, pallets.beat, at.torque_N_mm, pallets.friction, swings);
    const SwingKept end = swing_kept_by(*anchor, pallets.beat, at.torque_end_N_mm, pallets.friction, swings);
    if (!(start.efficiency.value_or(0) > 0 && end.efficiency.value_or(0) > 0)) return;
    in.oscillator.escapement_efficiency = *start.efficiency;
    in.oscillator.escapement_efficiency_end = *end.efficiency;
    in.oscillator.needed_deg = in.oscillator.needed_deg.value_or(*pallets.beat.least_rad * 180 / pi);
}

void chain_of(const Sources& from, DerivedDrive& drive, DerivedPower& out) {
    if (!from.oscillator || !from.movement.escape_arbor || drive.torque.empty() || from.train.meshes.empty()) return;
    // The flow is worked out for the first train; a job may have a drive and no train yet.
    const auto& trains = from.movement.trains;
    if (trains.empty() || drive.train != trains.front().id) return;
    PowerChainInput in = chain_input(from, trains.front(), drive, out);
    const bool whole = in.train.escape_arbor && std::any_of(in.train.arbors.begin(), in.train.arbors.end(),
                                                            [&](const ArborInput& arbor) { return arbor.id == drive.arbor; });
    if (!whole) return;  // a count on the way is lost
    const bool known =
        from.oscillator->as<Pendulum>() ? in.oscillator.mass_kg && in.oscillator.length_mm : in.oscillator.inertia_kg_m2.has_value();
    if (!known) return;
    simulate_pallets(from, in, drive);
    constexpr int parts = 8;
    in.torque_end_N_mm = drive.torque.back()[1];
    for (int i = 0; i <= parts; ++i) {
        in.torque_N_mm = drive.torque_at(1 - static_cast<double>(i) / parts);
        PowerChainInput here = in;
        const double share = static_cast<double>(i) / parts;
        if (in.oscillator.escapement_efficiency_end)
            here.oscillator.escapement_efficiency =
                (1 - share) * in.oscillator.escapement_efficiency + share * *in.oscillator.escapement_efficiency_end;
        drive.over_run.push_back(power_chain(here));
    }
    drive.chain = drive.over_run.front();
}

/// Teeth that bend more at the root than hard brass bears three times over (a cantilever, loaded where one tooth carries alone:
/// W. Lewis, 1892). What a load wears away no one figure tells: grooves in the leaves do.
void judge_wear(const Sources& from, DerivedDrive& out) {
    if (!out.chain) return;
    // Where it carries alone: half a module over the pitch circle; as thick at the root as at the pitch circle.
    constexpr double high_m = 2.0, root_m = 1.57;
    constexpr double per_load = 6 * high_m / (root_m * root_m);
    constexpr double hard_brass_N_mm2 = 250, times = 3;
    for (size_t i = 1; i < out.chain->arbors.size(); ++i) {
        const PowerAtArbor& at = out.chain->arbors[i];
        const DerivedMesh* mesh = from.train.mesh(out.chain->arbors[i - 1].id, at.id);
        if (!mesh || !at.load_per_width_N_mm) continue;
        const double bends = per_load * *at.load_per_width_N_mm / mesh->module_mm.value;
        if (times * bends <= hard_brass_N_mm2) continue;
        out.wear.push_back(from.movement.name_of_arbor(mesh->wheel_of) + " wheel on " + from.movement.name_of_arbor(at.id) +
                           " pinion: " + print_short(*at.load_per_width_N_mm, 2) + " N on each mm of tooth bend its root with " +
                           print_fixed(bends, 0) + " N/mm²; hard brass yields at about " + print_short(hard_brass_N_mm2) +
                           ", so that less than three times is in hand. Look at the leaves: grooves tell whether it wears.");
    }
}

/// One verdict where the torque and the swing that is reckoned from it say different things: the torque was read against what just keeps
/// it going, the swing follows from losses that are partly assumed.
void agree(DerivedDrive& out) {
    if (!out.verdict || !out.chain || !out.chain->margin) return;
    const double margin = *out.chain->margin;
    const int swing = margin < weak_margin ? -1 : out.chain->semi_arc_deg && margin > wide_swing * wide_swing ? 1 : 0;
    const std::string& word = out.verdict->word;
    const int torque = word == "under" ? -1 : word == "right" ? 0 : 1;
    if (swing == torque) return;
    const bool pendulum = out.chain->semi_arc_deg.has_value();
    const double degrees = pendulum ? *out.chain->semi_arc_deg : *out.chain->amplitude_deg;
    out.chain->verdict = "Expected swing " + print_short(degrees, 2) +
                         "° to each side, by losses that are partly assumed: it alone would be " +
                         (swing < 0   ? "too little"
                          : swing > 0 ? "wide"
                                      : "right") +
                         ". The torque was read, so it decides. Read the swing on the clock.";
}

double lowest_of(const std::vector<std::array<double, 2>>& torque) {
    return (*std::min_element(torque.begin(), torque.end(), [](const auto& a, const auto& b) { return a[1] < b[1]; }))[1];
}

/// Where to look first when the drive is not right.
void look_for_causes(const Sources& from, const DerivedPower& power, DerivedDrive& out) {
    const bool weak = (out.verdict && out.verdict->word == "under") || (out.chain && out.chain->margin && *out.chain->margin < weak_margin);
    const bool strong = (out.verdict && (out.verdict->word == "overdriving" || out.verdict->word == "strong")) ||
                        (out.chain && out.chain->semi_arc_deg && out.chain->margin && *out.chain->margin > wide_swing * wide_swing);
    if (strong && !weak) {
        if (out.drive.as<WeightDrive>())
            out.look_at.push_back(
                "Is the weight the one made for this clock? Keep an original weight. A heavier one that replaced it may go.");
        if (const StripInBarrel* strip = out.drive.strip(); strip && strip->thickness_mm)
            out.look_at.push_back("The strip, " + print_short(*strip->thickness_mm) +
                                  " mm: torque goes with the third power of it, and modern steel drives harder than the old.");
        if (out.set_up && *out.set_up_found > out.set_up->set_up_turns + 0.5)
            out.look_at.push_back("The set-up: " + print_fixed(*out.set_up_found, 1) + " turns where " +
                                  print_fixed(out.set_up->set_up_turns, 1) + " is flattest.");
    }
    if (!weak || strong || !out.chain || out.chain->arbors.size() < 2) return;
    size_t worst = 1;
    for (size_t i = 2; i < out.chain->arbors.size(); ++i)
        if (out.chain->arbors[i].lost_share > out.chain->arbors[worst].lost_share) worst = i;
    const PowerAtArbor& at = out.chain->arbors[worst];
    const DerivedMesh* mesh = from.train.mesh(out.chain->arbors[worst - 1].id, at.id);
    const std::string names = from.movement.name_of_arbor(out.chain->arbors[worst - 1].id) + " and " + from.movement.name_of_arbor(at.id);
    const double friction = at.pivot_friction_N_mm / (at.torque_N_mm + at.pivot_friction_N_mm);
    if (mesh && power.meshes.contains(mesh->name()) && 1 - power.meshes.at(mesh->name()).efficiency > friction)
        out.look_at.push_back("The mesh of " + names + ", which loses most: its depth and its leaves.");
    else out.look_at.push_back("The pivots of " + from.movement.name_of_arbor(at.id) + ", which lose most: polish, clean holes, oil.");
    out.look_at.push_back("Q of the swing: a loose suspension or a dirty escapement takes more than any mesh.");
}

void derive_drive(const Sources& from, const DriveRecord& drive, DerivedPower& power) {
    DerivedDrive& out = power.drives.emplace_back();
    out.train = drive.train;
    out.drive = drive;
    for (const TrainList& train : from.movement.trains)
        if (train.id == drive.train && !train.arbors.empty()) out.arbor = train.arbors.front();
    out.turns = from.movement.winding_turns;
    // The turns that were counted are the going train's; another has its own winding.
    if (!from.movement.trains.empty() && drive.train != from.movement.trains.front().id)
        if (const auto winding = winding_of(drive.is)) out.turns = winding->turns;
    try {
        if (const auto* weight = drive.as<WeightDrive>()) drive_by_weight(*weight, from.movement.escapement.value_or(""), out);
        if (const auto* rewound = drive.as<RewoundDrive>()) drive_rewound(drive, *rewound, from.train, out);
        if (const StripInBarrel* strip = drive.strip()) drive_by_strip(drive, *strip, out);
        if (const auto* fusee = drive.as<FuseeDrive>()) drive_by_fusee(*fusee, out);
        if (!out.turns && !drive.as<RewoundDrive>())
            out.missing += (out.missing.empty() ? "" : ", ") + std::string("the turns of one winding");
        const double most = drive.as<WeightDrive>() ? most_times_of_weight(from.movement.escapement.value_or("")) : most_times;
        if (out.least_N_mm && !out.torque.empty()) {
            double work = 0;
            for (size_t i = 1; i < out.torque.size(); ++i)
                work += (out.torque[i][0] - out.torque[i - 1][0]) * (out.torque[i][1] + out.torque[i - 1][1]) / 2;
            if (const double run = out.torque.back()[0]; run > 0)
                out.verdict = judge_drive(work / run, lowest_of(out.torque), *out.least_N_mm, most);
        }
        if (out.least_N_mm) out.right_N_mm = {least_times * *out.least_N_mm, most * *out.least_N_mm};
        chain_of(from, out, power);
        agree(out);
        judge_wear(from, out);
        look_for_causes(from, power, out);
    } catch (const InputError& error) {
        out.fault = error.what();
    }
}

/// A drive against what the movement wants, by its torque; a weight that has no room to fall.
void judge_power(const DerivedDrive& power, std::vector<Finding>& out) {
    if (!power.fault.empty())
        out.push_back({"power.drive:" + power.train, "fault", "The drive cannot be worked out.", power.fault, power.arbor, ""});
    if (power.verdict && power.verdict->word != "right") {
        const std::string& word = power.verdict->word;
        const std::string sentence = word == "under"    ? "The drive is weak."
                                     : word == "strong" ? "The drive is strong."
                                                        : "The drive overdrives the train.";
        out.push_back(
            {"power.torque:" + power.train, word == "strong" ? "caution" : "fault", sentence, power.verdict->reason, power.arbor, ""});
    }
    for (const DriveWarning& warning : power.warnings)
        out.push_back({"power." + warning.kind + ":" + power.train, "caution", "Sizes of the drive do not go together.", warning.sentence,
                       power.arbor, ""});
    if (!power.wear.empty())
        out.push_back({"power.wear:" + power.train, "caution", "Teeth have less than three times their strength in hand.",
                       power.wear.front(), power.arbor, ""});
    if (power.weight)
        for (size_t i = 0; i < power.weight->faults.size(); ++i)
            out.push_back({"power.weight-" + id_of(power.weight->faults[i]) + ":" + power.train, "caution", "The weight on its line.",
                           power.weight->warnings[i], power.arbor, ""});
}

}  // namespace

std::optional<SpringMatchResult> strips_for(const DerivedDrive& now, const std::vector<Strip>& drawer) {
    const StripInBarrel* there = now.drive.strip();
    if (!there || !now.spring || !there->barrel_height_mm || !now.turns) return {};
    const StripInBarrel& strip = *there;
    SpringMatchInput in;
    in.barrel_bore_mm = *strip.barrel_bore_mm;
    in.arbor_mm = *strip.arbor_mm;
    in.barrel_height_mm = *strip.barrel_height_mm;
    in.turns_needed = *now.turns;
    in.least_N_mm = now.least_N_mm;
    in.end = strip.end;
    if (now.log) in.mean_N_mm = now.log->mean_N_mm;
    if (strip.width_mm && strip.thickness_mm)
        in.old = OldSpring{*strip.width_mm, *strip.thickness_mm, now.spring->length_mm, 1, strip.opened_diameter_mm, strip.cracked};
    if (now.drive.as<FuseeDrive>()) {
        if (!now.barrel_turns) return {};
        // The barrel turns less often than the fusee, and its torque is as much higher.
        const double gear = *now.turns / *now.barrel_turns;
        in.turns_needed = *now.barrel_turns;
        if (in.least_N_mm) *in.least_N_mm *= gear;
        if (in.mean_N_mm) *in.mean_N_mm *= gear;
    }
    in.stock = drawer;
    try {
        return match_spring(in);
    } catch (const InputError&) {
        return {};  // neither least torque nor an old spring: nothing to match
    }
}

std::string words_for(TorqueFrom from) {
    constexpr const char* all[] = {"", "the weight", "the log", "the strip's sizes", "rewind to rewind"};
    return all[static_cast<size_t>(from)];
}

Coils coils_wound(const SpringSizeInput& spring, double turns) {
    const SpringSizeResult size = spring_size(spring);
    const double R = spring.barrel_bore_mm / 2;
    const double r = spring.arbor_mm / 2;
    const double h = spring.thickness_mm;
    const auto at = [&](double on_arbor_mm) {
        Coils coils;
        coils.arbor_radius_mm = std::sqrt(r * r + on_arbor_mm * h / pi);
        coils.wall_radius_mm = std::sqrt(std::max(0.0, R * R - (size.length_mm - on_arbor_mm) * h / pi));
        coils.on_arbor = (coils.arbor_radius_mm - r) / h;
        coils.at_wall = (R - coils.wall_radius_mm) / h;
        return coils;
    };
    const auto short_of = [&](double on_arbor_mm) {
        const Coils coils = at(on_arbor_mm);
        return coils.on_arbor + coils.at_wall - size.coils_unwound - turns;
    };
    if (short_of(0) >= 0) return at(0);
    if (short_of(size.length_mm) <= 0) return at(size.length_mm);
    return at(root_between(short_of, 0, size.length_mm));
}

double DerivedDrive::torque_at(double wound) const {
    if (torque.empty()) return 0;
    const double run = torque.back()[0];
    const double at = (1 - std::clamp(wound, 0.0, 1.0)) * run;
    for (size_t i = 1; i < torque.size(); ++i) {
        const auto& a = torque[i - 1];
        const auto& b = torque[i];
        if (at <= b[0] || i + 1 == torque.size()) return b[0] > a[0] ? a[1] + (b[1] - a[1]) * (at - a[0]) / (b[0] - a[0]) : b[1];
    }
    return torque.front()[1];
}

const PowerChainResult* DerivedDrive::chain_at(double wound) const {
    if (over_run.empty()) return nullptr;
    const double place = (1 - std::clamp(wound, 0.0, 1.0)) * static_cast<double>(over_run.size() - 1);
    return &over_run[static_cast<size_t>(std::lround(place))];
}

DerivedPower derive_power(const PowerRecord& record, const TrainRecord& movement, const PivotsRecord& pivots,
                          const std::optional<OscillatorRecord>& oscillator, const DerivedTrain& train, const DerivedMaking& making,
                          const DerivedOscillator& swings, const DerivedEscapement& escapement, Earlier<DerivedPower> earlier) {
    const Sources from{movement, pivots, oscillator, train, making, swings, escapement, earlier};
    DerivedPower out;
    for (const DriveRecord& drive : record.drives) derive_drive(from, drive, out);
    return out;
}

std::vector<Finding> findings_of_power(const DerivedPower& derived) {
    std::vector<Finding> out;
    for (const DerivedDrive& drive : derived.drives) judge_power(drive, out);
    return out;
}

}  // namespace echappe
