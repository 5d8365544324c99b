#include "train/quantities.h"

#include <algorithm>
#include <cmath>

#include "number/units.h"
#include "train/hands.h"
#include "train/module_fit.h"

namespace echappe {
namespace {

Quantity quantity(const std::string& arbor, const std::string& name, std::string text, std::string unit, Known known) {
    Quantity q;
    q.arbor = arbor;
    q.name = name;
    q.text = std::move(text);
    q.unit = std::move(unit);
    q.known = known;
    q.state = word_for(known);
    return q;
}

void add_length(const Unit& unit, std::vector<Quantity>& out, const std::string& arbor, const std::string& name, const Measured& mm,
                Known known, std::optional<Working> working) {
    const int decimals = mm.u > 0 ? std::clamp(decimals_for(mm.u / unit.base_per_unit), 2, 4) : unit.symbol == "in" ? 4 : 3;
    Quantity q = quantity(arbor, name, print_in(mm.value, unit, decimals, false), std::string(unit.symbol), known);
    if (mm.u > 0) q.u_text = "± " + print_in(mm.u, unit, decimals, false);
    q.working = std::move(working);
    out.push_back(std::move(q));
}

std::string percent(double weight) { return weight > 0.999 ? ">99.9 %" : print_fixed(100 * weight, weight > 0.99 ? 1 : 0) + " %"; }

void add_count(const TrainRecord& record, std::vector<Quantity>& out, const std::string& arbor, const std::string& part,
               const std::string& name, const std::string& unit, const DerivedCount& count) {
    if (!count.count.present()) return;
    Quantity q = quantity(arbor, name, count.count.known() ? std::to_string(count.count.value) : "?", unit, count.known);
    if (count.known == Known::missing && count.count.known()) q.u_text = percent(count.weight) + " sure";
    if (count.doubted && count.known == Known::assumed) q.u_text = "doubted, " + percent(count.weight);
    if (count.known == Known::derived) q.u_text = "chosen, " + percent(count.weight);
    for (const CountTaken* taken : record.counts_of(arbor + "." + part)) q.taken.push_back(TrainRecord::told_of_count(*taken));
    out.push_back(std::move(q));
}

/// Module by weighted least squares of the mesh's readings, written as the readings' terms.
std::optional<Working> module_working(const TrainRecord& record, const DerivedMesh& mesh) {
    std::vector<Evidence> readings;
    std::vector<std::string> words;
    std::vector<MeshSize> sizes;
    for (const Measurement& m : record.measurements) {
        const QuantityKey& key = m.evidence.key;
        const bool here =
            (key.declared().of == EvidenceKind::Of::mesh && key.wheel_of == mesh.wheel_of && key.pinion_of == mesh.pinion_of) ||
            (key.kind.starts_with("wheel_") && key.kind.ends_with("_diameter_mm") && key.arbor == mesh.wheel_of) ||
            (key.kind.starts_with("pinion_") && key.kind.ends_with("_diameter_mm") && key.arbor == mesh.pinion_of);
        if (!here || m.left_out) continue;
        readings.push_back(m.evidence);
        sizes.push_back(mesh_size(key.kind, mesh.form, mesh.wheel, mesh.pinion));
        words.push_back(record.name_of_quantity(key) + ", ÷ " + print_short(sizes.back().per_module, 6));
    }
    if (readings.empty()) return {};
    return echappe::module_working("module, " + record.name_of_arbor(mesh.wheel_of) + " to " + record.name_of_arbor(mesh.pinion_of),
                                   readings, words, sizes);
}

void add_mesh(const TrainRecord& record, const Unit& length, const DerivedMesh& mesh, const std::string& arbor,
              std::vector<Quantity>& out) {
    const bool drives = mesh.wheel_of == arbor;
    const std::string to = " to " + record.name_of_arbor(drives ? mesh.pinion_of : mesh.wheel_of);
    const std::string other = record.name_of_arbor(drives ? mesh.pinion_of : mesh.wheel_of);
    const bool read = mesh.module_known == Known::measured;
    add_length(length, out, arbor, "module, " + other, mesh.module_mm, read ? Known::derived : Known::assumed,
               module_working(record, mesh));
    const auto workings = explain_geometry(mesh.geometry(), mesh.sizes);
    if (mesh.measured_centre_mm) add_length(length, out, arbor, "distance" + to, *mesh.measured_centre_mm, Known::measured, {});
    add_length(length, out, arbor, mesh.measured_centre_mm ? "  the teeth want" : "distance" + to,
               {mesh.sizes.centre_distance_mm, mesh.module_mm.u * static_cast<double>(mesh.wheel + mesh.pinion) / 2}, Known::derived,
               workings[0]);
    const std::string driven = mesh.pinion >= driven_wheel_leaves ? "driven" : "pinion";
    const PartSizes& part = drives ? mesh.sizes.wheel : mesh.sizes.pinion;
    add_length(length, out, arbor, drives ? "wheel, over the tips" : driven + ", over the tips",
               {part.outside_diameter_mm, mesh.module_mm.u * part.outside_diameter_mm / mesh.module_mm.value}, Known::derived,
               workings[drives ? 1 : 3]);
    add_length(length, out, arbor, drives ? "wheel, depth of cut" : driven + ", depth of cut", {part.depth_of_cut_mm, 0}, Known::derived,
               workings[drives ? 2 : 4]);
}

Quantity hand_gain(const TrainRecord& record, const DerivedArbor& arbor) {
    const double off = *arbor.hand_s_per_year;
    const bool long_one = std::abs(off) >= 600;
    Quantity q =
        quantity(arbor.id, off < 0 && long_one ? "hand loses in a year" : "hand gains in a year",
                 long_one ? print_span(std::round(std::abs(off) / 60) * 60) : print_fixed(off, 1), long_one ? "" : "s", arbor.period_known);
    const NamedPeriod& shown = *find_period(*record.arbor(arbor.id)->hand);
    q.working = work_out("hand gains in a year", "G = Y (H ÷ T − 1)",
                         {{"Y", "a year of 365.2422 days", {365.2422 * 86400, 0}, "s", 0},
                          {"H", shown.words, {shown.period_s.to_double(), 0}, "s", 0},
                          {"T", "its turn by this train", {*arbor.period_s, 0}, "s", 0}},
                         "s", shown.source, [](auto x) { return x[0] * (x[1] / x[2] - 1); });
    return q;
}

}  // namespace

const Record& Quantity::record() {
    static const Record record = Fields<Quantity>()
                                     .add("arbor", &Quantity::arbor, "", "the arbor")
                                     .add("name", &Quantity::name, "", "what")
                                     .add("value", &Quantity::text, "", "with as many figures as it deserves")
                                     .add("unit", &Quantity::unit, "", "its unit")
                                     .add("u", &Quantity::u_text, "", "its standard uncertainty or how sure it is")
                                     .add("state", &Quantity::state, "", "measured, derived, assumed or missing");
    return record;
}

std::vector<Quantity> quantities_of(const TrainRecord& record, const DerivedTrain& derived, const Unit& length, const TrainInput& known,
                                    const TrainResult* train) {
    std::vector<Quantity> out;
    const std::vector<Working> periods = train ? explain_train(known, *train) : std::vector<Working>();
    for (const DerivedArbor& arbor : derived.arbors) {
        add_count(record, out, arbor.id, "wheel", "wheel", "teeth", arbor.wheel);
        // Wheels drive wheels in slow branches: nobody calls one of ninety a pinion.
        const bool driven_wheel = arbor.pinion.count.known() && arbor.pinion.count.value >= driven_wheel_leaves;
        add_count(record, out, arbor.id, "pinion", driven_wheel ? "driven wheel" : "pinion", driven_wheel ? "teeth" : "leaves",
                  arbor.pinion);
        if (arbor.period_s) {
            Quantity q = quantity(arbor.id, "time of a turn", print_span(*arbor.period_s), "", arbor.period_known);
            for (const Working& working : periods)
                if (working.about == arbor.id) q.working = working;
            out.push_back(std::move(q));
        }
        if (arbor.hand_s_per_year) out.push_back(hand_gain(record, arbor));
        for (const DerivedMesh& mesh : derived.meshes)
            if (mesh.wheel_of == arbor.id || mesh.pinion_of == arbor.id) add_mesh(record, length, mesh, arbor.id, out);
        if (record.escape_arbor == arbor.id && record.escapement)
            out.push_back(quantity(arbor.id, "escapement", *record.escapement, "", Known::measured));
        if (record.escape_arbor == arbor.id && derived.beats_per_hour) {
            Quantity q = quantity(arbor.id, "beats", print_short(*derived.beats_per_hour, 8), "an hour", arbor.period_known);
            if (!periods.empty()) q.working = periods.back();
            out.push_back(std::move(q));
        }
    }
    return out;
}

std::vector<Measurable> measurables_of(const TrainRecord& record, const DerivedTrain& derived) {
    std::vector<Measurable> out;
    const auto offer = [&](QuantityKey key) {
        const bool taken = std::any_of(record.measurements.begin(), record.measurements.end(),
                                       [&](const Measurement& m) { return m.evidence.key == key && !m.left_out; });
        out.push_back({key, record.name_of_quantity(key), key.declared().how, taken});
    };
    if (derived.restore && derived.restore->next_measurement) {
        offer(derived.restore->next_measurement->key);
        if (derived.restore->next_measurement->then) offer(*derived.restore->next_measurement->then);
    }
    for (const DerivedMesh& mesh : derived.meshes) {
        const JobArbor& wheel = *record.arbor(mesh.wheel_of);
        const JobArbor& pinion = *record.arbor(mesh.pinion_of);
        if (wheel.train.wheel.known()) offer({"wheel_outside_diameter_mm", mesh.wheel_of, {}, {}});
        if (pinion.train.pinion.known()) offer({"pinion_outside_diameter_mm", mesh.pinion_of, {}, {}});
        offer({"centre_distance_mm", {}, mesh.wheel_of, mesh.pinion_of});
        offer({"module_mm", {}, mesh.wheel_of, mesh.pinion_of});
        if (wheel.train.wheel.known()) offer({"wheel_root_diameter_mm", mesh.wheel_of, {}, {}});
        if (pinion.train.pinion.known()) offer({"pinion_root_diameter_mm", mesh.pinion_of, {}, {}});
    }
    if (record.escape_arbor) {
        offer({"beats_per_hour", {}, {}, {}});
        offer({"pendulum_length_mm", {}, {}, {}});
    }
    const auto rarer = [&](const char* kind, const std::string& arbor) { offer({kind, arbor, {}, {}}); };
    for (const JobArbor& arbor : record.arbors) {
        const std::string& id = arbor.train.id;
        if (arbor.train.wheel.present() && (!arbor.train.wheel.known() || arbor.wheel_trust)) rarer("wheel_fragment_deg", id);
        if (id != record.reference.arbor) rarer("period_s", id);
        if (id != record.reference.arbor) rarer("direction", id);
    }
    if (record.winding_turns && !record.arbors.empty()) rarer("run_s", record.arbors.front().train.id);
    if (record.escape_arbor) offer({"case_length_mm", {}, {}, {}});
    std::vector<Measurable> once;
    for (Measurable& m : out)
        if (std::none_of(once.begin(), once.end(), [&](const Measurable& o) { return o.key == m.key; })) once.push_back(std::move(m));
    // What is still open first; within each the solver's proposal stays in front.
    std::stable_partition(once.begin(), once.end(), [](const Measurable& m) { return !m.taken; });
    return once;
}

}  // namespace echappe
