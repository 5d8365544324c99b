#include "report/report.h"

#include "report/report_strike.h"

#include <algorithm>

#include "job/file.h"
#include "job/migrate.h"

namespace echappe {
namespace {

constexpr size_t candidates_told = 12;

std::vector<Working> explain_report(const ReportInput& input, const JobReport&) {
    std::vector<Working> workings;
    for (const Quantity& quantity : derive(input.job).train.quantities)
        if (quantity.working) workings.push_back(*quantity.working);
    return workings;
}

std::vector<Working> explain_check(const Job&, const JobSummary&) { return {}; }

/// The first fault that reading the fields alone does not find.
void require_sound(const Job& job) {
    const LoadedJob again = job_from_text(job_to_text(job));
    if (!again.faults.empty()) throw again.faults.front();
}

}  // namespace

const Record& ReportMesh::record() {
    using Out = ReportMesh;
    static const Record record = Fields<Out>()
                                     .add("wheel_of", &Out::wheel_of, "", "arbor of the wheel")
                                     .add("pinion_of", &Out::pinion_of, "", "arbor of the pinion")
                                     .add("wheel", &Out::wheel, "", "teeth shown")
                                     .add("pinion", &Out::pinion, "", "leaves shown")
                                     .add("module_mm", &Out::module_mm, "mm", "module")
                                     .add("module_u_mm", &Out::module_u_mm, "mm", "its standard uncertainty")
                                     .add("module_state", &Out::module_state, "", "measured or assumed")
                                     .add("measured_centre_distance_mm", &Out::measured_centre_distance_mm, "mm", "between the holes")
                                     .add("sizes", &Out::sizes, "", "as tooth.geometry");
    return record;
}

const Record& ReportHole::record() {
    using Out = ReportHole;
    static const Record record = Fields<Out>()
                                     .add("hole", &Out::hole, "", "as in \"centre.front\"")
                                     .add("decision", &Out::decision, "", "by hand, or as it follows; empty: not measured")
                                     .add("reason", &Out::reason, "", "why")
                                     .add("done", &Out::done, "", "finished")
                                     .add("pivot_mm", &Out::pivot_mm, "mm", "pivot")
                                     .add("push_deg", &Out::push_deg, "deg", "where the train presses it, seen from the dial")
                                     .add("wear_deg", &Out::wear_deg, "deg", "where it walked to: read, else the push")
                                     .add("plan", &Out::plan, "", "as bush.plan")
                                     .add("effects", &Out::effects, "", "what its wear does to the depth of each mesh")
                                     .add("simulated", &Out::simulated, "", "the meshes at those depths, simulated");
    return record;
}

const Record& ReportInput::record() {
    using In = ReportInput;
    static const Record record =
        Fields<In>().include(&In::job).add("stock_folder", &In::stock_folder, "", "folder of the drawers' CSV files, for the bushes");
    return record;
}

namespace {

Record& growing_record() {
    using Out = JobReport;
    static Record record = Fields<Out>()
                               .add("title", &Out::title, "", "the job")
                               .add("beats_per_hour", &Out::beats_per_hour, "1/h", "under the shown counts")
                               .add("beats_per_hour_exact", &Out::beats_per_hour_exact, "1/h", "the same as num/den")
                               .add("run_s", &Out::run_s, "s", "from wound to run down")
                               .add("quantities", &Out::quantities, "", "every figure of every arbor")
                               .add("meshes", &Out::meshes, "", "every mesh with its sizes")
                               .add("strain", &Out::strain, "", "every reading against the shown counts")
                               .add("candidates", &Out::candidates, "", "for lost counts, the first twelve")
                               .add("considered", &Out::considered, "", "combinations weighed")
                               .add("next_measurement", &Out::next_measurement, "", "the reading that tells most")
                               .add("conflict", &Out::conflict, "", "the reading no candidate fits")
                               .add("holes", &Out::holes, "", "every hole, decided and planned")
                               .add("needed", &Out::needed, "", "what wants a decision or work, in order")
                               .add("earlier", &Out::earlier, "", "earlier repairs")
                               .add("shopping", &Out::shopping, "", "bushes that are wanted and not there")
                               .add("drives", &Out::drives, "", "what drives, and where it goes")
                               .add("rate", &Out::rate, "", "of the log, and what to do")
                               .add("strike", &Out::strike, "", "its day, what was heard, its train")
                               .add("alarm", &Out::alarm, "", "its cams, and how long it rings")
                               .add("hands", &Out::hands, "", "what carries them, and their room")
                               .add("wood", &Out::wood, "", "of wooden wheels, each mesh in this season")
                               .add("cards", &Out::cards, "", "parts that are to be made, step by step")
                               .add("findings", &Out::findings, "", "the judgements");
    return record;
}

}  // namespace

const Record& JobReport::record() { return growing_record(); }

void JobReport::declare_part(const std::string& id, const std::string& meaning, Part empty) {
    growing_record().append(field_of_part(id, meaning, Fields<JobReport>::offset_of(&JobReport::others), std::move(empty)));
}

const Record& ReportDrive::record() {
    using Out = ReportDrive;
    static const Record record = Fields<Out>()
                                     .add("train", &Out::train, "", "which it drives")
                                     .add("kind", &Out::kind, "", "weight, spring or fusee")
                                     .add("torque_start_N_mm", &Out::torque_start_N_mm, "N mm", "at the first arbor, wound")
                                     .add("torque_end_N_mm", &Out::torque_end_N_mm, "N mm", "at the end of the run")
                                     .add("torque_from", &Out::torque_from, "", "what it was taken from")
                                     .add("least_N_mm", &Out::least_N_mm, "N mm", "that just keeps it going")
                                     .add("verdict", &Out::verdict, "", "under, right, strong or overdriving")
                                     .add("reason", &Out::reason, "", "why")
                                     .add("weight", &Out::weight, "", "fall, line, verdict")
                                     .add("spring", &Out::spring, "", "turns and room")
                                     .add("log", &Out::log, "", "of the torque")
                                     .add("fusee", &Out::fusee, "", "the cone that the spring wants, by the log")
                                     .add("set_up", &Out::set_up, "", "of the cone that is there, with that spring")
                                     .add("rewind", &Out::rewind, "", "a drive that is wound again every few minutes")
                                     .add("chain", &Out::chain, "", "to the swing it keeps up")
                                     .add("look_at", &Out::look_at, "", "where the cause is, the likeliest first")
                                     .add("wear", &Out::wear, "", "teeth that bear more than their metal should");
    return record;
}

const Record& ReportRate::record() {
    using Out = ReportRate;
    static const Record record =
        Fields<Out>()
            .add("now", &Out::now, "", "since the last change")
            .add("by_sizes_s_per_day", &Out::by_sizes_s_per_day, "s/d", "what the oscillator's sizes alone would have it keep")
            .add("per_K", &Out::per_K, "s/d/K", "of the rate, as read: positive gains when warmer")
            .add("per_K_u", &Out::per_K_u, "s/d/K", "its standard uncertainty")
            .add("means", &Out::means, "", "what can be done to the rate, the usual one first")
            .add("advice", &Out::advice, "", "in words")
            .add("outcomes", &Out::outcomes, "", "what came of each change, in order")
            .add("poise", &Out::poise, "", "of a balance, from its positions");
    return record;
}

namespace {

ReportDrive told(const DerivedDrive& power) {
    ReportDrive out;
    out.train = power.train;
    out.kind = word_of(power.drive.is);
    if (!power.torque.empty()) {
        out.torque_start_N_mm = power.torque.front()[1];
        out.torque_end_N_mm = power.torque.back()[1];
    }
    out.torque_from = words_for(power.torque_from);
    out.least_N_mm = power.least_N_mm;
    if (power.verdict) out.verdict = power.verdict->word;
    out.reason = power.verdict ? power.verdict->reason : !power.missing.empty() ? "To be given: " + power.missing + "." : power.fault;
    out.weight = power.weight;
    out.spring = power.spring;
    out.log = power.log;
    out.fusee = power.fusee;
    out.set_up = power.set_up;
    out.rewind = power.rewind;
    out.look_at = power.look_at;
    out.wear = power.wear;
    out.chain = power.chain;
    return out;
}

ReportRate told(const DerivedBeat& beat, const DerivedOscillator& swings) {
    ReportRate out;
    if (!beat.stretches.empty()) out.now = beat.stretches.back().fit;
    out.by_sizes_s_per_day = swings.by_sizes_s_per_day;
    if (beat.per_K) out.per_K = beat.per_K->value, out.per_K_u = beat.per_K->u;
    out.means = beat.means;
    out.advice = beat.advice;
    for (const RateStretch& stretch : beat.stretches)
        if (stretch.began_with) out.outcomes.push_back(stretch.began_with->what + ". " + outcome_in_words(stretch));
    out.poise = swings.poise;
    return out;
}

}  // namespace

const Record& JobSummary::record() {
    using Out = JobSummary;
    static const Record record = Fields<Out>()
                                     .add("title", &Out::title, "", "the job")
                                     .add("schema", &Out::schema, "", "layout of the file")
                                     .add("arbors", &Out::arbors, "", "how many arbors")
                                     .add("lost_counts", &Out::lost_counts, "", "how many counts are lost")
                                     .add("measurements", &Out::measurements, "", "how many readings")
                                     .add("choices", &Out::choices, "", "how many lost counts were decided");
    return record;
}

JobReport job_report(const ReportInput& input) {
    require_sound(input.job);
    Job job = input.job;
    migrate(job);
    Stock stock;
    if (!input.stock_folder.empty()) stock = load_stock(input.stock_folder);
    DeriveAids aids;
    aids.stock = &stock;
    Derived derived = derive(job, aids);
    JobReport report;
    report.title = job.title;
    report.beats_per_hour = derived.train.beats_per_hour;
    report.beats_per_hour_exact = derived.train.beats_per_hour_exact;
    report.run_s = derived.train.run_s;
    for (const DerivedMesh& mesh : derived.train.meshes) {
        ReportMesh out{
            mesh.wheel_of, mesh.pinion_of, mesh.wheel, mesh.pinion, mesh.module_mm.value, mesh.module_mm.u, word_for(mesh.module_known), {},
            mesh.sizes};
        if (mesh.measured_centre_mm) out.measured_centre_distance_mm = mesh.measured_centre_mm->value;
        report.meshes.push_back(std::move(out));
    }
    if (derived.train.restore) {
        report.candidates = std::move(derived.train.restore->candidates);
        report.candidates.resize(std::min(report.candidates.size(), candidates_told));
        report.considered = derived.train.restore->considered;
        report.next_measurement = derived.train.restore->next_measurement;
        report.conflict = derived.train.restore->conflict;
    }
    for (const DerivedHole& hole : derived.pivots.holes)
        report.holes.push_back({hole.id, hole.decision, hole.reason, hole.record.done, hole.record.pivot_mm, hole.push_deg, hole.wear_deg,
                                hole.plan, hole.effects, simulate_effects(derived.train, hole)});
    report.needed = std::move(derived.survey.needed);
    report.earlier = std::move(derived.survey.earlier);
    report.shopping = std::move(derived.pivots.shopping);
    for (const DerivedDrive& power : derived.power.drives) report.drives.push_back(told(power));
    if (!derived.beat.looks.empty()) report.rate = told(derived.beat, derived.oscillator);
    tell_strike(derived, report);
    report.quantities = std::move(derived.train.quantities);
    report.strain = std::move(derived.train.strain);
    report.findings = std::move(derived.findings);
    report.others = std::move(derived.others);
    return report;
}

JobSummary job_check(const Job& job) {
    require_sound(job);
    JobSummary summary{job.title,
                       job.schema,
                       static_cast<long long>(job.train.arbors.size()),
                       0,
                       static_cast<long long>(job.train.measurements.size()),
                       static_cast<long long>(job.train.choices.size())};
    for (const auto& part : network_of(written_train(job.train), Joined::some).parts) summary.lost_counts += part.count.known() ? 0 : 1;
    return summary;
}

const Calculation& job_report_calculation() {
    static const Calculation calculation = declare<ReportInput, JobReport>(
        "job.report", "Everything derived from a job file, with the findings.", "docs/formulas.md", job_report, explain_report);
    return calculation;
}

const Calculation& job_check_calculation() {
    static const Calculation calculation = [] {
        Calculation check = declare<Job, JobSummary>("job.check", "Whether a job file is sound; else every fault's place.",
                                                     "docs/file-format.md", job_check, explain_check);
        check.every_fault = true;
        return check;
    }();
    return calculation;
}

}  // namespace echappe
