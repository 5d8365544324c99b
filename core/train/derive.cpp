#include "train/derive.h"

#include <algorithm>
#include <cmath>

#include "number/input_error.h"
#include "train/hands.h"
#include "train/layout.h"
#include "train/quantities.h"
#include "train/restore_model.h"
#include "workings/record_json.h"

namespace echappe {
namespace {

constexpr double module_without_evidence_mm = 0.8;
/// Combinations that are weighed within a keystroke (measured: 33 ms for all of them without any evidence).
constexpr long long most_while_typing = 60'000;
constexpr double seconds_per_year = 365.2422 * 86400;
constexpr double worth_a_thought = 0.05;
constexpr double escape_mm_per_tooth = 0.55;  ///< radius an escape wheel is drawn with, a sign of its count
constexpr double escape_of_driver = 0.75;     ///< and no more than this part of the wheel that drives it
constexpr double drawn_module_mm = 0.55;      ///< of a wheel in no mesh
constexpr double usual_teeth = 72;            ///< a lost wheel is drawn with, while nothing tells its count
constexpr double usual_leaves = 8;
constexpr double usual_escape_teeth = 30;

/// The candidate that agrees with every choice, else the likeliest.
void pick_candidate(const TrainRecord& record, DerivedTrain& derived) {
    const auto& candidates = derived.restore->candidates;
    if (candidates.empty()) return;
    derived.shown_candidate = 0;
    for (size_t i = 0; i < candidates.size(); ++i) {
        const bool chosen = std::all_of(candidates[i].counts.begin(), candidates[i].counts.end(), [&](const auto& part) {
            const Choice* choice = record.choice(part.first);
            return choice && choice->count == part.second;
        });
        if (!chosen) continue;
        derived.shown_candidate = i;
        derived.chosen = true;
    }
}

DerivedCount derived_count(const TrainRecord& record, const DerivedTrain& derived, const std::string& part, Count written,
                           const std::string& state, bool doubted) {
    if (!written.present()) return {};
    if (written.known() && !doubted) return {written, state == "counted" ? Known::measured : Known::assumed, 1};
    if (const Choice* choice = record.choice(part)) return {Count(choice->count), Known::derived, choice->weight, doubted};
    const DerivedCount open = doubted ? DerivedCount{written, Known::assumed, 0, true} : DerivedCount{Count::lost(), Known::missing, 0};
    if (!derived.shown_candidate) return open;
    const Candidate& candidate = derived.restore->candidates[*derived.shown_candidate];
    const auto at = candidate.counts.find(part);
    if (at == candidate.counts.end()) return open;
    return {Count(at->second), doubted ? Known::assumed : Known::missing, candidate.weight, doubted};
}

}  // namespace

TrainInput shown_train(const TrainRecord& record, const DerivedTrain& derived) {
    TrainInput train = written_train(record);
    for (ArborInput& arbor : train.arbors) {
        const auto fill = [&](Count& count, const std::string& name) {
            const JobArbor& written = *record.arbor(arbor.id);
            const bool doubted = (name == "wheel" && written.wheel_trust) || (name == "pinion" && written.pinion_trust);
            if (count.present()) count = derived_count(record, derived, arbor.id + "." + name, count, "counted", doubted).count;
        };
        fill(arbor.wheel, "wheel");
        fill(arbor.pinion, "pinion");
        for (WheelInput& wheel : arbor.wheels) fill(wheel.teeth, wheel.name);
        for (PinionInput& pinion : arbor.pinions) fill(pinion.leaves, pinion.name);
    }
    return train;
}

namespace {

bool all_known(const TrainInput& train) {
    const Network network = network_of(train);
    return std::all_of(network.parts.begin(), network.parts.end(), [](const auto& part) { return part.count.known(); });
}

void derive_arbors(const TrainRecord& record, DerivedTrain& derived) {
    for (const JobArbor& arbor : record.arbors) {
        DerivedArbor out;
        out.id = arbor.train.id;
        out.name = record.name_of_arbor(out.id);
        out.wheel = derived_count(record, derived, out.id + ".wheel", arbor.train.wheel, arbor.wheel_state, arbor.wheel_trust.has_value());
        out.pinion =
            derived_count(record, derived, out.id + ".pinion", arbor.train.pinion, arbor.pinion_state, arbor.pinion_trust.has_value());
        derived.arbors.push_back(std::move(out));
    }
}

bool lost(const DerivedCount& count) { return count.count.present() && count.known == Known::missing; }

void derive_motion(const TrainRecord& record, const TrainResult& train, DerivedTrain& derived) {
    for (const ArborResult& turns : train.arbors) {
        DerivedArbor& arbor = *std::find_if(derived.arbors.begin(), derived.arbors.end(), [&](const auto& a) { return a.id == turns.id; });
        arbor.period_s = turns.period_s;
        arbor.direction = turns.direction;
        arbor.turns_per_s = (arbor.direction == "cw" ? -1 : 1) / *arbor.period_s;
        const bool open = lost(arbor.wheel) || lost(arbor.pinion);
        arbor.period_known = arbor.id == record.reference.arbor           ? Known::assumed
                             : open && derived.restore && !derived.chosen ? Known::missing
                                                                          : Known::derived;
        const auto& shows = record.arbor(turns.id)->hand;
        const NamedPeriod* hand = shows ? find_period(*shows) : nullptr;
        if (!hand) continue;
        arbor.hand = hand->words;
        const Rational off = hand->period_s / turns.period_s_exact - Rational(1);
        arbor.hand_s_per_year = off.to_double() * seconds_per_year;
    }
    derived.beats_per_hour = train.beats_per_hour;
    derived.beats_per_hour_exact = train.beats_per_hour_exact;
    if (record.winding_turns && !derived.arbors.empty() && derived.arbors.front().period_s)
        derived.run_s = *record.winding_turns * *derived.arbors.front().period_s;
}

/// What the places of the two holes on the plate leave for these counts: good enough to draw, not to cut.
std::optional<double> module_between_holes(const TrainRecord& record, const DerivedMesh& mesh) {
    const auto& a = record.arbor(mesh.wheel_of)->position_mm;
    const auto& b = record.arbor(mesh.pinion_of)->position_mm;
    if (a.size() != 2 || b.size() != 2 || a == b) return {};
    return 2 * std::hypot(a[0] - b[0], a[1] - b[1]) / static_cast<double>(mesh.wheel + mesh.pinion);
}

/// Cannon and hour wheel turn on one axis: the second mesh has the first one's centre distance.
std::optional<double> module_on_shared_axis(const TrainRecord& record, const DerivedTrain& derived, const DerivedMesh& mesh) {
    for (const DerivedMesh& first : derived.meshes)
        if (first.pinion_of == mesh.wheel_of && record.arbor(mesh.pinion_of)->train.coaxial_with == first.wheel_of)
            return first.module_mm.value * static_cast<double>(first.wheel + first.pinion) / static_cast<double>(mesh.wheel + mesh.pinion);
    return {};
}

/// What was measured between the two holes of a mesh.
std::optional<Measured> measured_centre(const restore::Model& model, const std::string& wheel_of, const std::string& pinion_of) {
    std::optional<Measured> found;
    for (const Evidence& item : model.input().evidence)
        if (item.key.kind == "centre_distance_mm" && item.key.wheel_of == wheel_of && item.key.pinion_of == pinion_of)
            found = Measured{item.value, item.u};
    return found;
}

DerivedMesh derive_mesh(const TrainRecord& record, const restore::Model& model, const restore::MeshFit& fit, size_t m,
                        double like_the_others, const DerivedTrain& derived) {
    const Network& network = model.network();
    const auto [wheel, pinion] = model.arbors_of(m);
    DerivedMesh mesh;
    mesh.wheel_of = network.arbors[wheel];
    mesh.pinion_of = network.arbors[pinion];
    mesh.wheel_part = network.parts[network.meshes[m].wheel].name;
    mesh.pinion_part = network.parts[network.meshes[m].pinion].name;
    mesh.wheel = network.parts[network.meshes[m].wheel].count.value;
    mesh.pinion = network.parts[network.meshes[m].pinion].count.value;
    double assumed = module_between_holes(record, mesh).value_or(like_the_others);
    if (const auto shared = module_on_shared_axis(record, derived, mesh)) assumed = *shared;
    mesh.module_mm = fit.any ? Measured{fit.module_mm, fit.u_mm} : Measured{assumed, 0};
    mesh.module_known = fit.any ? Known::measured : Known::assumed;
    mesh.form = model.form(m);
    mesh.sizes = tooth_geometry(mesh.geometry());
    mesh.centre_distance_mm = mesh.sizes.centre_distance_mm;
    if (const auto read = measured_centre(model, mesh.wheel_of, mesh.pinion_of)) {
        mesh.measured_centre_mm = read;
        mesh.centre_distance_mm = read->value;
        mesh.centre_known = Known::measured;
        const double u = std::hypot(read->u, mesh.module_mm.u * static_cast<double>(mesh.wheel + mesh.pinion) / 2);
        mesh.depth_mm = Measured{mesh.sizes.centre_distance_mm - read->value, u};
    }
    return mesh;
}

/// Where no tooth was measured: a usual one, or what has the largest wheel go on the plate.
double unread_module(const TrainRecord& record, const Network& network) {
    if (!record.plate) return module_without_evidence_mm;
    double most = usual_teeth;
    for (const Network::Part& part : network.parts)
        if (part.drives && part.count.known()) most = std::max(most, static_cast<double>(part.count.value));
    constexpr double share = 0.22;  // of the plate that its largest wheel takes to one side
    return 2 * share * std::min(record.plate->width_mm, record.plate->height_mm) / most;
}

void derive_meshes(const TrainRecord& record, const restore::Model& model, DerivedTrain& derived) {
    const Network& network = model.network();
    const auto counts = model.known_counts();
    const auto known = [&](size_t part) { return network.parts[part].count.known(); };
    std::vector<restore::MeshFit> fits(network.meshes.size());
    double sum = 0;
    int read = 0;
    for (size_t m = 0; m < network.meshes.size(); ++m) {
        if (!known(network.meshes[m].wheel) || !known(network.meshes[m].pinion)) continue;
        fits[m] = model.fit_mesh(m, counts[network.meshes[m].wheel], counts[network.meshes[m].pinion]);
        sum += fits[m].module_mm;
        read += fits[m].any ? 1 : 0;
    }
    const double like_the_others = read > 0 ? sum / read : unread_module(record, network);
    for (size_t m = 0; m < network.meshes.size(); ++m) {
        const auto [wheel, pinion] = model.arbors_of(m);
        if (!known(network.meshes[m].wheel) || !known(network.meshes[m].pinion)) {
            const auto between = measured_centre(model, network.arbors[wheel], network.arbors[pinion]);
            derived.open_meshes.push_back({network.arbors[wheel], network.arbors[pinion],
                                           between ? between->value : like_the_others * (usual_teeth + usual_leaves) / 2});
            continue;
        }
        DerivedMesh mesh = derive_mesh(record, model, fits[m], m, like_the_others, derived);
        if (mesh.wheel_part == mesh.wheel_of + ".wheel") derived.arbors[wheel].wheel_module_mm = mesh.module_mm.value;
        derived.meshes.push_back(std::move(mesh));
    }
    if (derived.open_meshes.empty()) derived.strain = model.strains(counts, fits);
}

/// The lost wheels, as large as each candidate has them.
void derive_ghosts(DerivedTrain& derived) {
    const RestoreResult& restore = *derived.restore;
    for (size_t i = 0; i < restore.candidates.size(); ++i) {
        const Candidate& candidate = restore.candidates[i];
        if (candidate.weight > worth_a_thought) ++derived.in_the_running;
        for (const auto& [part, teeth] : candidate.counts) {
            if (!part.ends_with(".wheel")) continue;
            const std::string id = part.substr(0, part.find('.'));
            double module = derived.arbor(id)->wheel_module_mm;
            for (const auto& [mesh, m] : candidate.modules_mm)
                if (mesh.starts_with(id + "-")) module = m;
            derived.ghosts.push_back({id, i, teeth, module * static_cast<double>(teeth) / 2, candidate.weight});
        }
    }
    if (restore.next_measurement)
        derived.next_bits =
            std::max(restore.next_measurement->expected_entropy_drop_bits, restore.next_measurement->then_entropy_drop_bits.value_or(0));
}

void derive_radii(const TrainRecord& record, DerivedTrain& derived) {
    for (DerivedArbor& arbor : derived.arbors) {
        const bool open = arbor.wheel.count.present() && !arbor.wheel.count.known();
        const bool escape = record.escape_arbor == arbor.id && arbor.wheel_module_mm == 0;
        const auto teeth = open ? (escape ? usual_escape_teeth : usual_teeth) : static_cast<double>(arbor.wheel.count.value);
        arbor.wheel_radius_mm =
            teeth * (escape ? escape_mm_per_tooth : (arbor.wheel_module_mm > 0 ? arbor.wheel_module_mm : drawn_module_mm) / 2);
    }
    for (DerivedArbor& arbor : derived.arbors) {
        if (record.escape_arbor != arbor.id || arbor.wheel_module_mm != 0) continue;
        for (const DerivedMesh& mesh : derived.meshes)
            if (mesh.pinion_of == arbor.id && mesh.wheel > 0)
                arbor.wheel_radius_mm = std::min(arbor.wheel_radius_mm, escape_of_driver * mesh.sizes.wheel.pitch_diameter_mm / 2);
    }
}

}  // namespace

const DerivedArbor* DerivedTrain::arbor(const std::string& id) const {
    const auto at = std::find_if(arbors.begin(), arbors.end(), [&](const DerivedArbor& a) { return a.id == id; });
    return at == arbors.end() ? nullptr : &*at;
}

const DerivedMesh* DerivedTrain::mesh(const std::string& wheel_of, const std::string& pinion_of) const {
    const auto at = std::find_if(meshes.begin(), meshes.end(),
                                 [&](const DerivedMesh& m) { return m.wheel_of == wheel_of && m.pinion_of == pinion_of; });
    return at == meshes.end() ? nullptr : &*at;
}

std::vector<const DerivedMesh*> DerivedTrain::meshes_of(const std::string& arbor) const {
    std::vector<const DerivedMesh*> list;
    for (const DerivedMesh& mesh : meshes)
        if (mesh.wheel_of == arbor || mesh.pinion_of == arbor) list.push_back(&mesh);
    return list;
}

std::string counts_in_words(const Candidate& candidate) {
    std::string wheels;
    std::string pinions;
    for (const auto& [part, count] : candidate.counts) (part.ends_with(".pinion") ? pinions : wheels) += " / " + std::to_string(count);
    return (wheels + pinions).substr(3);
}

TrainInput written_train(const TrainRecord& record) {
    TrainInput train;
    for (const JobArbor& arbor : record.arbors) train.arbors.push_back(arbor.train);
    train.reference = record.reference;
    train.escape_arbor = record.escape_arbor;
    train.beats_per_tooth = record.beats_per_tooth;
    return train;
}

namespace {

/// Of the whole movement, trains with their own power too.
RestoreInput whole_input(const TrainRecord& record, const TeethRecord& teeth) {
    RestoreInput input;
    input.train = written_train(record);
    for (const JobArbor& arbor : record.arbors) {
        if (arbor.wheel_trust && arbor.train.wheel.known()) input.doubtful.push_back({arbor.train.id + ".wheel", *arbor.wheel_trust});
        if (arbor.pinion_trust && arbor.train.pinion.known()) input.doubtful.push_back({arbor.train.id + ".pinion", *arbor.pinion_trust});
    }
    input.limits = record.limits;
    input.forms = teeth.forms;
    for (const Measurement& m : record.measurements)
        if (!m.left_out) input.evidence.push_back(m.evidence);
    return input;
}

/// What is asked of the part that keeps time: with what is found the rest of the train is worked out.
RestoreInput timed_input(RestoreInput input) {
    const Network network = network_of(input.train, Joined::some);
    const bool all = std::all_of(network.joined.begin(), network.joined.end(), [](bool joined) { return joined; });
    std::erase_if(input.doubtful, [&](const DoubtfulCount& d) { return !network.joined[network.parts[network.part(d.part)].arbor]; });
    if (!all) input.train = joined_part(input.train);
    return restore::Model(input, restore::Model::For::a_job).input();
}

}  // namespace

namespace {

/// Lost or doubted, and not chosen.
bool open(const TrainRecord& record, const RestoreInput& asked) {
    const Network network = network_of(asked.train);
    const auto chosen = [&](const std::string& part) { return record.choice(part) != nullptr; };
    return std::any_of(network.parts.begin(), network.parts.end(),
                       [&](const auto& part) { return !part.count.known() && !chosen(part.name); }) ||
           std::any_of(asked.doubtful.begin(), asked.doubtful.end(), [&](const DoubtfulCount& doubt) { return !chosen(doubt.part); });
}

bool asks(const RestoreInput& input) { return !all_known(input.train) || !input.doubtful.empty(); }

/// Of the trains of a movement the one that is open: the timekeeping goes first.
RestoreInput open_input(const TrainRecord& record, const RestoreInput& whole, const StrikingTrain& strike) {
    RestoreInput timed = timed_input(whole);
    if (strike.pin_arbor.empty() || open(record, timed)) return timed;
    auto striking = striking_question(whole, strike);
    if (!striking) return timed;
    RestoreInput of_it = restore::Model(*striking, restore::Model::For::a_job).input();
    return asks(of_it) ? of_it : timed;
}

}  // namespace

RestoreInput restore_input(const TrainRecord& record, const TeethRecord& teeth, const StrikingTrain& strike) {
    return open_input(record, whole_input(record, teeth), strike);
}

std::string question_of(const RestoreInput& input) { return write_json(RestoreInput::record(), &input, Empty::left_out); }

namespace {

/// Weighs what is lost, where that is worth the time it takes.
void derive_lost(const TrainRecord& record, const RestoreInput& asked, const WeighedTrain* weighed, DerivedTrain& derived) {
    if (!asks(asked)) return;
    const long long combinations = restore::Model(asked, restore::Model::For::a_job).space();
    if (static_cast<double>(combinations) > asked.most_combinations) derived.too_many = combinations;
    else if (weighed && weighed->question == question_of(asked)) derived.restore = weighed->answer;
    else if (combinations <= most_while_typing) derived.restore = restore_train(asked);
    else derived.to_weigh = combinations;
    if (derived.restore) pick_candidate(record, derived);
}

}  // namespace

DerivedTrain derive_train(const TrainRecord& record, const TeethRecord& teeth, const LengthUnit& length, const StrikingTrain& strike,
                          const WeighedTrain* weighed) {
    DerivedTrain derived;
    if (record.arbors.empty()) return derived;
    TrainInput known;
    std::optional<TrainResult> train;
    try {
        RestoreInput input = whole_input(record, teeth);
        derive_lost(record, open_input(record, input, strike), weighed, derived);
        derive_arbors(record, derived);
        input.train = shown_train(record, derived);
        input.doubtful.clear();
        known = known_part(input.train);
        train = run_train(known);
        derive_motion(record, *train, derived);
        derive_meshes(record, restore::Model(input, restore::Model::For::a_job), derived);
        lay_out(record, derived);
        derive_radii(record, derived);
        if (derived.restore) derive_ghosts(derived);
    } catch (const std::exception& error) {
        derived.problem = error.what();
        if (derived.arbors.empty()) derive_arbors(record, derived);
    }
    if (derived.problem.empty()) derived.quantities = quantities_of(record, derived, length.unit(), known, train ? &*train : nullptr);
    derived.measurables = measurables_of(record, derived);
    return derived;
}

}  // namespace echappe
