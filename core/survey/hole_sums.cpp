#include "survey/hole_sums.h"

#include <algorithm>
#include <cmath>

#include "number/input_error.h"
#include "pivots/arbor_taper.h"
#include "pivots/curled_bush.h"
#include "pivots/pivot_strength.h"
#include "pivots/repivot.h"
#include "workings/record_json.h"

namespace echappe {
namespace {

const DerivedMesh* power_comes_by(const DerivedTrain& train, const std::string& arbor) {
    for (const DerivedMesh& mesh : train.meshes)
        if (mesh.pinion_of == arbor) return &mesh;
    for (const DerivedMesh& mesh : train.meshes)
        if (mesh.wheel_of == arbor) return &mesh;
    return nullptr;
}

}  // namespace

const std::vector<const Calculation*>& bench_sums() {
    static const std::vector<const Calculation*> all = {
        &pivot_strength_calculation(), &repivot_calculation(),    &end_shake_calculation(),  &arbor_runout_calculation(),
        &arbor_taper_calculation(),    &hub_repair_calculation(), &curled_bush_calculation()};
    return all;
}

std::map<std::string, double> facts_of_hole(const PivotsRecord& record, const DerivedPivots& pivots, const DerivedTrain& train,
                                            const DerivedPower& power, const std::string& id) {
    std::map<std::string, double> facts;
    const auto know = [&](const char* name, const std::optional<double>& value) {
        if (value) facts[name] = *value;
    };
    const DerivedHole* hole = pivots.hole(id);
    if (!hole) return facts;
    know("pivot_mm", hole->record.pivot_mm);
    know("plate_mm", hole->thickness_mm);
    if (hole->plan) know("clearance_mm", hole->plan->wanted_clearance_mm);
    if (const ArborRecord* arbor = record.arbor(hole->arbor)) {
        know("plates_mm", arbor->plates_mm);
        know("shoulders_mm", arbor->shoulders_mm);
        know("tir_mm", arbor->tir_mm);
        know("tir_before_mm", arbor->tir_before_mm);
    }
    if (record.end_shake_least_mm) know("least_mm", *record.end_shake_least_mm);
    if (record.end_shake_most_mm) know("most_mm", *record.end_shake_most_mm);
    if (const DerivedArbor* arbor = train.arbor(hole->arbor)) {
        if (const auto known = pivots.wheel_radius_mm.find(arbor->id); known != pivots.wheel_radius_mm.end())
            know("wheel_radius_mm", known->second);
        if (arbor->turns_per_s != 0) know("period_s", 1 / std::abs(arbor->turns_per_s));
    }
    for (const DerivedDrive& drive : power.drives)
        if (drive.chain)
            for (const PowerAtArbor& at : drive.chain->arbors)
                if (at.id == hole->arbor) know("torque_N_mm", at.torque_N_mm);
    const DerivedMesh* comes_by = power_comes_by(train, hole->arbor);
    if (!comes_by) return facts;
    const bool by_pinion = comes_by->pinion_of == hole->arbor;
    know("pitch_radius_mm", (by_pinion ? comes_by->sizes.pinion : comes_by->sizes.wheel).pitch_diameter_mm / 2);
    // Where wheel and pinion stand on the arbor, from this pivot, as far as that was read.
    const ArborRecord* read = record.arbor(hole->arbor);
    const auto from_here = [&](const std::optional<double>& from_front_mm) -> std::optional<double> {
        if (!read || !read->plates_mm || !from_front_mm) return {};
        const double share = std::clamp(*from_front_mm / *read->plates_mm, 0.0, 1.0);
        return hole->plate == "front" ? share : 1 - share;
    };
    if (!read) return facts;
    know("load_at", from_here(by_pinion ? read->pinion_from_front_mm : read->wheel_from_front_mm));
    const auto other = from_here(by_pinion ? read->wheel_from_front_mm : read->pinion_from_front_mm);
    for (const DerivedMesh& mesh : train.meshes)
        if (other && by_pinion && mesh.wheel_of == hole->arbor && !facts.contains("other_at")) {
            know("other_at", other);
            know("other_radius_mm", mesh.sizes.wheel.pitch_diameter_mm / 2);
        }
    return facts;
}

std::vector<std::string> typed_into(const PivotsRecord& record, const std::string& sum, const std::string& part) {
    for (const BenchSum& kept : record.sums)
        if (kept.sum == sum && kept.part == part) return kept.typed;
    return {};
}

void type_into(PivotsRecord& record, const Calculation& sum, const std::string& part, const std::string& name, const std::string& word) {
    const Field* field = sum.input->find(name);
    if (!field) throw InputError(name, "a field that " + sum.verb + " has not", sum.input->nearest(name));
    if (!word.empty()) read_typed(*field, word, sum.make_input().get());
    auto& sums = record.sums;
    auto at = std::find_if(sums.begin(), sums.end(), [&](const BenchSum& kept) { return kept.sum == sum.verb && kept.part == part; });
    if (at == sums.end()) at = sums.insert(sums.end(), {sum.verb, part, {}});
    std::erase_if(at->typed, [&](const std::string& line) { return line.starts_with(name + "="); });
    if (!word.empty()) at->typed.push_back(name + "=" + word);
    if (at->typed.empty()) sums.erase(at);
}

}  // namespace echappe
