#include "job/findings.h"

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

std::string lost_arbor(const Derived& derived) {
    const std::string part = derived.restore->candidates.front().counts.begin()->first;
    return part.substr(0, part.find('.'));
}

std::string where(const QuantityKey& key) { return key.arbor ? *key.arbor : key.pinion_of.value_or(""); }

void judge_candidates(const Job& job, const Derived& derived, std::vector<Finding>& out) {
    if (!derived.restore || derived.restore->candidates.empty()) return;
    const RestoreResult& restore = *derived.restore;
    const size_t running = derived.in_the_running;
    if (restore.conflict) {
        const bool named = restore.conflict->evidence.has_value();
        out.push_back({"conflict", "fault",
                       named ? "The readings contradict each other: suspect " + job.name_of_quantity(*restore.conflict->evidence) + "."
                             : "The readings contradict each other.",
                       restore.conflict->reason, named ? where(*restore.conflict->evidence) : lost_arbor(derived), ""});
    }
    if (running > 1 && !derived.chosen) {
        const std::string next = restore.next_measurement ? "Measure next: " + job.name_of_quantity(restore.next_measurement->key) + "."
                                                          : "No further reading with this instrument separates them.";
        out.push_back({"undecided", "caution", std::to_string(running) + " sets of counts are still possible.",
                       "The evidence so far does not tell them apart (" + print_fixed(restore.entropy_bits, 1) + " bit open). " + next,
                       lost_arbor(derived), ""});
    }
    if (derived.chosen && *derived.shown_candidate != 0)
        out.push_back({"unlikely-choice", "caution", "The chosen counts are not the likeliest.",
                       "They weigh " + print_fixed(100 * restore.candidates[*derived.shown_candidate].weight, 1) + " %, the likeliest " +
                           print_fixed(100 * restore.candidates.front().weight, 1) + " %.",
                       lost_arbor(derived), ""});
}

void judge_strain(const Job& job, const Derived& derived, std::vector<Finding>& out) {
    for (const Strain& strain : derived.strain) {
        if (std::abs(strain.sigma) <= believed_sigma || !strain.predicted) continue;
        out.push_back({"strain:" + name_of(strain.key), "fault", "Measured and derived disagree: " + job.name_of_quantity(strain.key) + ".",
                       "Measured " + print_short(strain.value) + ", the rest gives " + print_short(*strain.predicted, 5) + " " +
                           strain.key.unit() + ": " + print_fixed(std::abs(strain.sigma), 1) + " sigma apart.",
                       where(strain.key), ""});
    }
}

void judge_mesh(const Job& job, const DerivedMesh& mesh, std::vector<Finding>& out) {
    const auto name = [&] { return job.name_of_arbor(mesh.wheel_of) + " to " + job.name_of_arbor(mesh.pinion_of); };
    if (mesh.pinion < cycloidal::fewest_leaves)
        out.push_back({"few-leaves:" + mesh.name(), "caution", "A pinion of " + std::to_string(mesh.pinion) + " leaves.",
                       "Under 6 leaves contact begins well before the line of centres and the mesh rubs; the standard has no form for it.",
                       mesh.pinion_of, ""});
    if (!mesh.measured_centre_mm || mesh.module_known != Known::measured) return;
    const double too_deep = mesh.depth_mm->value;
    if (std::abs(too_deep) <= believed_sigma * mesh.depth_mm->u) return;
    if (too_deep > cycloidal::pinion_clearance * mesh.module_mm.value)
        out.push_back({"clash:" + mesh.name(), "fault", "Teeth would strike the roots, " + name() + ".",
                       "The holes are " + mm(too_deep) + " nearer than these teeth need; only " +
                           mm(cycloidal::pinion_clearance * mesh.module_mm.value) + " is free under the tip.",
                       mesh.pinion_of, ""});
    else if (-too_deep > mesh.sizes.wheel.addendum_mm)
        out.push_back({"apart:" + mesh.name(), "fault", "Teeth would not reach, " + name() + ".",
                       "The holes are " + mm(-too_deep) + " further apart than these teeth need; a tooth is only " +
                           mm(mesh.sizes.wheel.addendum_mm) + " high above the pitch circle.",
                       mesh.pinion_of, ""});
    const double root = mesh.sizes.pinion.root_diameter_mm / mesh.sizes.pinion.pitch_diameter_mm;
    if (root < 0.35)
        out.push_back({"undercut:" + mesh.name(), "caution", "Little metal under the leaves, " + name() + ".",
                       "The root is " + print_fixed(100 * root, 0) + " % of the pitch diameter.", mesh.pinion_of, ""});
}

/// Diameters over tips and roots tell forms apart; a distance does not.
void judge_form(const Job& job, const DerivedMesh& mesh, std::vector<Finding>& out) {
    const std::string& school = mesh.form.school;
    if (school != "cycloidal-clock" && school != "involute-20") return;
    ModuleFitInput input{mesh.wheel, mesh.pinion, mesh.form, {}, {}};
    bool roots = false;
    for (const Measurement& m : job.measurements) {
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
    out.push_back({"form:" + mesh.name(), "caution",
                   "The sizes fit " + std::string(school_of(likelier.school).words) +
                       " teeth better: " + print_fixed(100 * likelier.weight, 0) + " %.",
                   "Tips and roots of " + job.name_of_arbor(mesh.wheel_of) + " to " + job.name_of_arbor(mesh.pinion_of) +
                       " leave a misfit of " + print_fixed(likelier.misfit, 1) + " so, of " + print_fixed(fit.forms.back().misfit, 1) +
                       " as the form that is set. Change the form of this mesh, or read the roots again.",
                   mesh.wheel_of, ""});
}

/// A hand that drifts by more than a twelfth of its dial in a year is seen to be wrong by whoever reads it.
void judge_hand(const Job& job, const DerivedArbor& arbor, std::vector<Finding>& out) {
    if (!arbor.hand_s_per_year) return;
    const JobArbor& written = *job.arbor(arbor.id);
    const NamedPeriod& shown = *find_period(*written.hand);
    const double off = *arbor.hand_s_per_year;
    if (std::abs(off) <= shown.period_s.to_double() / 12) return;
    out.push_back({"hand:" + arbor.id, "caution",
                   arbor.name + (off > 0 ? " gains " : " loses ") + print_span(std::round(std::abs(off) / 60) * 60) + " a year.",
                   "Its train turns it once in " + print_span(*arbor.period_s) + "; it should show " + shown.words +
                       ". The train finder has closer counts: ask it for \"" + *written.hand + "\".",
                   arbor.id, ""});
}

/// A hole worn where nothing pushed it has another story: a bent arbor, an old bush off centre, or a reading turned round.
void judge_hole(const DerivedHole& hole, std::vector<Finding>& out) {
    constexpr double across_the_push_deg = 60;
    if (!hole.plan || hole.plan->decision != "bush" || !hole.off_push_deg || *hole.off_push_deg <= across_the_push_deg) return;
    const bool turned = *hole.off_push_deg > 180 - across_the_push_deg;
    out.push_back({"push:" + hole.id, "caution", hole.name + " hole: worn where the train does not push it.",
                   "It reads worn " + way_in_words(*hole.wear_deg) + "; the teeth push it " + way_in_words(*hole.push_deg) + ". " +
                       (turned ? "The end of the long axis may be read the wrong way round."
                               : "Look for a bent arbor or an earlier bush off centre, and read the direction again."),
                   hole.arbor, ""});
}

/// Two ways to one figure: the sway of the free end, and the gauge.
void judge_wobble(const DerivedHole& hole, std::vector<Finding>& out) {
    constexpr double believed_mm = 0.06;  ///< gauge, sway over the plates' distance and thickness, each at its usual uncertainty
    if (!hole.wobble || !hole.record.hole_max_mm || std::abs(hole.wobble->hole_mm - *hole.record.hole_max_mm) <= believed_mm) return;
    out.push_back({"wobble:" + hole.id, "caution", hole.name + " hole: wobble and gauge disagree.",
                   "The free end's sway says " + mm(hole.wobble->hole_mm) + ", the gauge " + mm(*hole.record.hole_max_mm) +
                       ". A tapered hole, a bent pivot or a misread: take both again.",
                   hole.arbor, ""});
}

void judge_trial(const Job& job, const TrialRecord& trial, std::vector<Finding>& out) {
    if (trial.free && trial.end_shake) return;
    std::string names;
    for (const std::string& arbor : trial.arbors) names += (names.empty() ? "" : " and ") + job.name_of_arbor(arbor);
    out.push_back({"trial:" + names, "fault", "Does not run in the plates: " + names + ".",
                   std::string(trial.free ? "" : "It does not spin freely. ") + (trial.end_shake ? "" : "No end shake is felt. ") +
                       "Its holes are back on the list." + (trial.note.empty() ? "" : " " + trial.note),
                   trial.arbors.empty() ? "" : trial.arbors.back(), ""});
}

/// A drive against what the movement wants, by its torque; a weight that has no room to fall.
void judge_power(const DerivedPower& power, std::vector<Finding>& out) {
    if (!power.fault.empty())
        out.push_back({"drive:" + power.train, "fault", "The drive cannot be worked out.", power.fault, power.arbor, ""});
    if (power.verdict && power.verdict->word != "right") {
        const std::string& word = power.verdict->word;
        const std::string sentence = word == "under"    ? "The drive is weak."
                                     : word == "strong" ? "The drive is strong."
                                                        : "The drive overdrives the train.";
        out.push_back({"torque:" + power.train, word == "strong" ? "caution" : "fault", sentence, power.verdict->reason, power.arbor, ""});
    }
    for (const std::string& warning : power.warnings)
        out.push_back({"drive-sizes:" + power.train, "caution", "Sizes of the drive do not go together.", warning, power.arbor, ""});
    if (!power.wear.empty())
        out.push_back(
            {"wear:" + power.train, "caution", "Teeth bear more than brass stands for long.", power.wear.front(), power.arbor, ""});
    if (power.weight)
        for (const std::string& warning : power.weight->warnings)
            out.push_back({"weight:" + warning.substr(0, 12), "caution", "The weight on its line.", warning, power.arbor, ""});
}

int rank(const Finding& finding) {
    return !finding.verdict.empty() ? 3 : finding.severity == "fault" ? 0 : finding.severity == "caution" ? 1 : 2;
}

}  // namespace

std::vector<Finding> findings_of(const Job& job, const Derived& derived) {
    std::vector<Finding> out;
    if (!derived.problem.empty())
        out.push_back({"problem", "fault", "The train cannot be worked out.", derived.problem, job.reference.arbor, ""});
    for (const TopicFault& fault : derived.faults)
        out.push_back({"not-derived:" + fault.topic, "fault", "The " + fault.topic + " cannot be worked out; the rest stands.",
                       fault.sentence, job.reference.arbor, ""});
    if (derived.to_weigh)
        out.push_back({"to-weigh", "note", "What is lost is not weighed yet.",
                       print_many(static_cast<double>(*derived.to_weigh)) +
                           " combinations of the lost counts; a reading of a lost arbor's mesh, or narrower limits, cuts them down.",
                       job.reference.arbor, ""});
    judge_candidates(job, derived, out);
    judge_strain(job, derived, out);
    for (const DerivedMesh& mesh : derived.meshes) judge_mesh(job, mesh, out);
    for (const DerivedMesh& mesh : derived.meshes) judge_form(job, mesh, out);
    for (const DerivedArbor& arbor : derived.arbors) judge_hand(job, arbor, out);
    for (const DerivedHole& hole : derived.survey.holes) {
        judge_hole(hole, out);
        judge_wobble(hole, out);
    }
    for (const DerivedPower& power : derived.power) judge_power(power, out);
    for (const TrialRecord& trial : job.survey.trials) judge_trial(job, trial, out);
    for (Finding& finding : out)
        for (const Judgement& judgement : job.judgements)
            if (judgement.finding == finding.id) finding.verdict = judgement.verdict;
    std::stable_sort(out.begin(), out.end(), [](const Finding& a, const Finding& b) { return rank(a) < rank(b); });
    return out;
}

}  // namespace echappe
