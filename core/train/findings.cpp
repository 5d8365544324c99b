#include "train/derive.h"

#include <algorithm>
#include <cmath>

#include "number/units.h"
#include "teeth/cycloidal.h"
#include "train/hands.h"
#include "train/module_fit.h"

namespace echappe {
namespace {

constexpr double believed_sigma = 3;  ///< beyond this a reading and what follows from the rest disagree

std::string mm(double value) { return print_fixed(value, 2) + " mm"; }

std::string lost_arbor(const DerivedTrain& derived) {
    const std::string part = derived.restore->candidates.front().counts.begin()->first;
    return part.substr(0, part.find('.'));
}

/// A time and a rate as they are said, all else with its unit.
std::string told(double value, const QuantityKey& key) {
    if (key.unit() == "s") return print_span(value);
    return print_short(value, 5) + (key.unit() == "1/h" ? " an hour" : " " + key.unit());
}

std::string where(const QuantityKey& key) { return key.arbor ? *key.arbor : key.pinion_of.value_or(""); }

void judge_candidates(const TrainRecord& record, const DerivedTrain& derived, std::vector<Finding>& out) {
    if (!derived.restore || derived.restore->candidates.empty()) return;
    const RestoreResult& restore = *derived.restore;
    if (restore.conflict) {
        const bool named = restore.conflict->evidence.has_value();
        out.push_back({"train.conflict", "fault",
                       named ? "The readings contradict each other: suspect " + record.name_of_quantity(*restore.conflict->evidence) + "."
                             : "The readings contradict each other.",
                       restore.conflict->reason, named ? where(*restore.conflict->evidence) : lost_arbor(derived), ""});
    }
    constexpr double as_good_as_sure = 0.95;
    const bool open =
        restore.conflict ? derived.in_the_running > 1 : restore.fit > 1 && restore.candidates.front().weight < as_good_as_sure;
    if (!derived.chosen && open) {
        const std::string next = restore.next_measurement
                                     ? "Measure " + record.name_of_quantity(restore.next_measurement->key) + " to tell them apart."
                                     : "No further reading with this instrument tells them apart.";
        const std::string sets = restore.conflict
                                     ? "No counts fit every reading; " + std::to_string(derived.in_the_running) + " sets come nearest."
                                     : std::to_string(restore.fit) + " counts still fit.";
        out.push_back({"train.undecided", "caution", sets,
                       "The likeliest has " + print_fixed(100 * restore.candidates.front().weight, 0) + " %. " + next, lost_arbor(derived),
                       ""});
    }
    if (derived.chosen && *derived.shown_candidate != 0)
        out.push_back({"train.unlikely-choice", "caution", "The chosen counts are not the likeliest.",
                       "They weigh " + print_fixed(100 * restore.candidates[*derived.shown_candidate].weight, 1) + " %, the likeliest " +
                           print_fixed(100 * restore.candidates.front().weight, 1) + " %.",
                       lost_arbor(derived), ""});
}

void judge_strain(const TrainRecord& record, const DerivedTrain& derived, std::vector<Finding>& out) {
    for (const Strain& strain : derived.strain) {
        if (strain.pull() != Strain::Pull::much || !strain.predicted) continue;
        out.push_back({"train.strain:" + strain.key.id(), "fault",
                       "Measured and derived disagree: " + record.name_of_quantity(strain.key) + ".",
                       "Measured " + told(strain.value, strain.key) + ", the rest gives " + told(*strain.predicted, strain.key) + ": " +
                           print_fixed(std::abs(strain.sigma), 1) + " times their uncertainty apart.",
                       where(strain.key), ""});
    }
}

/// From the power to the escape wheel every mesh steps up; branches to hands may step down.
bool carries_power(const TrainRecord& record, const DerivedMesh& mesh) {
    const auto place = [](const TrainList& list, const std::string& arbor) {
        return std::find(list.arbors.begin(), list.arbors.end(), arbor) - list.arbors.begin();
    };
    return std::any_of(record.trains.begin(), record.trains.end(), [&](const TrainList& list) {
        const auto wheel = place(list, mesh.wheel_of), end = static_cast<std::ptrdiff_t>(list.arbors.size());
        const bool to_escape = record.escape_arbor && place(list, *record.escape_arbor) != end;
        return to_escape && wheel != end && place(list, mesh.pinion_of) == wheel + 1;
    });
}

void judge_mesh(const TrainRecord& record, const DerivedMesh& mesh, std::vector<Finding>& out) {
    const auto name = [&] { return record.name_of_arbor(mesh.wheel_of) + " to " + record.name_of_arbor(mesh.pinion_of); };
    if (mesh.pinion < cycloidal::fewest_leaves)
        out.push_back({"train.few-leaves:" + mesh.name(), "caution", "A pinion of " + std::to_string(mesh.pinion) + " leaves.",
                       "Under 6 leaves contact begins well before the line of centres and the mesh rubs; the standard has no form for it.",
                       mesh.pinion_of, ""});
    if (mesh.pinion >= mesh.wheel && carries_power(record, mesh))
        out.push_back(
            {"train.steps-down:" + mesh.name(), "fault",
             "A wheel of " + std::to_string(mesh.wheel) + " drives a pinion of " + std::to_string(mesh.pinion) + ", " + name() + ".",
             "From the power to the escape wheel every arbor turns faster than the one before it. Are the two counts the wrong way round?",
             mesh.pinion_of, ""});
    if (!mesh.measured_centre_mm || mesh.module_known != Known::measured) return;
    const double too_deep = mesh.depth_mm->value;
    if (std::abs(too_deep) <= believed_sigma * mesh.depth_mm->u) return;
    if (too_deep > cycloidal::pinion_clearance * mesh.module_mm.value)
        out.push_back({"train.clash:" + mesh.name(), "fault", "Teeth would strike the roots, " + name() + ".",
                       "The holes are " + mm(too_deep) + " nearer than these teeth need; only " +
                           mm(cycloidal::pinion_clearance * mesh.module_mm.value) + " is free under the tip.",
                       mesh.pinion_of, ""});
    else if (-too_deep > mesh.sizes.wheel.addendum_mm)
        out.push_back({"train.apart:" + mesh.name(), "fault", "Teeth would not reach, " + name() + ".",
                       "The holes are " + mm(-too_deep) + " further apart than these teeth need; a tooth is only " +
                           mm(mesh.sizes.wheel.addendum_mm) + " high above the pitch circle.",
                       mesh.pinion_of, ""});
    const double root = mesh.sizes.pinion.root_diameter_mm / mesh.sizes.pinion.pitch_diameter_mm;
    if (root < 0.35)
        out.push_back({"train.undercut:" + mesh.name(), "caution", "Little metal under the leaves, " + name() + ".",
                       "The root is " + print_fixed(100 * root, 0) + " % of the pitch diameter.", mesh.pinion_of, ""});
}

/// Diameters over tips and roots tell forms apart; a distance does not.
void judge_form(const TrainRecord& record, const DerivedMesh& mesh, std::vector<Finding>& out) {
    const std::string& school = mesh.form.school;
    if (school != "cycloidal-clock" && school != "involute-20") return;
    ModuleFitInput input{mesh.wheel, mesh.pinion, mesh.form, {}, {}};
    bool roots = false;
    for (const Measurement& m : record.measurements) {
        const QuantityKey& key = m.evidence.key;
        const bool wheel = key.kind.starts_with("wheel_") && key.arbor == mesh.wheel_of;
        const bool pinion = key.kind.starts_with("pinion_") && key.arbor == mesh.pinion_of;
        if (m.left_out || !(wheel || pinion) || !key.kind.ends_with("_diameter_mm")) continue;
        roots = roots || key.kind.ends_with("root_diameter_mm");
        input.evidence.push_back(m.evidence);
    }
    if (!roots || input.evidence.size() < 2) return;
    const ModuleFitResult fit = fit_module(input);
    constexpr double sure = 0.8;
    const FormOdds& likelier = fit.forms.front();
    if (likelier.school == school || likelier.weight < sure) return;
    out.push_back({"train.form:" + mesh.name(), "caution",
                   "The sizes fit " + std::string(school_of(likelier.school).words) +
                       " teeth better: " + print_fixed(100 * likelier.weight, 0) + " %.",
                   "Tips and roots of " + record.name_of_arbor(mesh.wheel_of) + " to " + record.name_of_arbor(mesh.pinion_of) +
                       " leave a misfit of " + print_fixed(likelier.misfit, 1) + " so, of " + print_fixed(fit.forms.back().misfit, 1) +
                       " as the form that is set. Change the form of this mesh, or read the roots again.",
                   mesh.wheel_of, ""});
}

/// A hand that drifts by more than a twelfth of its dial in a year is seen to be wrong by whoever reads it.
void judge_hand(const TrainRecord& record, const DerivedArbor& arbor, std::vector<Finding>& out) {
    if (!arbor.hand_s_per_year) return;
    const JobArbor& written = *record.arbor(arbor.id);
    const NamedPeriod& shown = *find_period(*written.hand);
    const double off = *arbor.hand_s_per_year;
    if (std::abs(off) <= shown.period_s.to_double() / 12) return;
    out.push_back({"train.hand:" + arbor.id, "caution",
                   arbor.name + (off > 0 ? " gains " : " loses ") + print_span(std::round(std::abs(off) / 60) * 60) + " a year.",
                   "Its train turns it once in " + print_span(*arbor.period_s) + "; it should show " + shown.words +
                       ". The train finder has closer counts: ask it for \"" + *written.hand + "\".",
                   arbor.id, ""});
}

}  // namespace

std::vector<Finding> findings_of_train(const TrainRecord& record, const DerivedTrain& derived) {
    std::vector<Finding> out;
    if (!derived.problem.empty())
        out.push_back({"train.problem", "fault", "The train cannot be worked out.", derived.problem, record.reference.arbor, ""});
    if (derived.to_weigh)
        out.push_back({"train.to-weigh", "note", "What is lost is not weighed yet.",
                       print_many(static_cast<double>(*derived.to_weigh)) +
                           " combinations of the lost counts; a reading of a lost arbor's mesh, or narrower limits, cuts them down.",
                       record.reference.arbor, ""});
    if (derived.too_many)
        out.push_back({"train.too-many", "note", "Too much is lost to be weighed.",
                       "The lost counts may be combined in " + print_many(static_cast<double>(*derived.too_many)) +
                           " ways: count what can be counted, narrow the limits, or take one of the lost parts by "
                           "its mate.",
                       record.reference.arbor, ""});
    judge_candidates(record, derived, out);
    judge_strain(record, derived, out);
    for (const DerivedMesh& mesh : derived.meshes) judge_mesh(record, mesh, out);
    for (const DerivedMesh& mesh : derived.meshes) judge_form(record, mesh, out);
    for (const DerivedArbor& arbor : derived.arbors) judge_hand(record, arbor, out);
    return out;
}

}  // namespace echappe
