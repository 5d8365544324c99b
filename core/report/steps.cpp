#include "report/steps.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "bench/waits.h"
#include "job/derived.h"
#include "number/constants.h"
#include "number/units.h"
#include "power/record.h"
#include "report/gathered.h"
#include "report/known.h"
#include "report/oil_plan.h"
#include "workings/found.h"

namespace echappe {
namespace {

constexpr double day_minutes = 24 * 60;

/// Builds the list: each step after those that are named, and all that went before a stage.
class Order {
public:
    Order(const Job& job, const Derived& derived, const std::string& now, const std::vector<TimeTaken>& times)
        : m_job(job), m_derived(derived), m_now(now), m_times(times) {}

    JobOrder run() {
        out.oil = oil_plan(m_job, m_derived);
        receive();
        take_apart();
        look_over();
        decide();
        make_and_mend();
        put_together();
        try_and_hand_over();
        mark();
        hold_up();
        out.ready = readiness();
        out.stops = stops_of(m_job, m_derived);
        moves();
        sum_up();
        return std::move(out);
    }

private:
    const Job& m_job;
    const Derived& m_derived;
    const std::string m_now;
    const std::vector<TimeTaken>& m_times;
    JobOrder out;
    std::vector<std::string> m_stage;  ///< what the next stage comes after

    struct Step {
        std::string id, words, because, station;
        double minutes = 10;
        bool done = false;  ///< as the job shows
        std::string caution = {};
        std::vector<std::string> after = {};
    };
    void add(const Step& step) {
        JobStep made;
        made.id = step.id, made.words = step.words, made.because = step.because, made.station = step.station;
        made.minutes = step.minutes, made.caution = step.caution;
        made.after = step.after.empty() ? m_stage : step.after;
        if (step.done) made.state = "done", made.by_itself = true;
        out.steps.push_back(std::move(made));
        m_added.push_back(step.id);
    }
    std::vector<std::string> m_added;
    /// What is added from here on comes after all that was added since the last stage.
    void stage() {
        if (!m_added.empty()) m_stage = m_added;
        m_added.clear();
    }

    bool safety(const std::string& id) const {
        const SafetyRecord* step = m_job.survey.step(id);
        return step && step->done;
    }
    bool any_tally() const { return !m_job.survey.tally.empty(); }

    void receive() {
        add({"receive", "Receive it: who, what, in which state, pictures", "Photograph it now: you will need it to put it back.", "survey",
             20, !m_job.title.empty() && (!m_job.bench.received.empty() || !m_job.photo.empty())});
        add({"scope",
             "Agree what is to be done, and what not",
             "Signed with its date.",
             "bench",
             15,
             !m_job.scope.empty(),
             {},
             {"receive"}});
        stage();
        add({"look", "Look it over as it stands, before anything is undone", "What is missing, and earlier repairs.", "survey", 40,
             !m_job.survey.conditions.empty() || any_tally()});
        let_down();
        add({"swing-off",
             "Pendulum off or balance locked",
             "Nothing swings while it is turned over.",
             "survey",
             4,
             safety("swing"),
             {},
             {"look"}});
        stage();
    }
    /// What drives a train, or may: its drive where it was entered.
    struct PowerSource {
        std::string id, name;
        const DriveRecord* drive = nullptr;
    };
    /// Trains that no other drives, and what must have power of its own though nobody wrote its train down.
    std::vector<PowerSource> sources() const {
        std::vector<PowerSource> all;
        const auto& drives = m_job.power.drives;
        const auto drive_of = [&](const std::string& train) {
            return found(drives, [&](const DriveRecord& one) { return one.train == train; });
        };
        // A branch begins on an arbor that has its power already.
        std::set<std::string> powered;
        for (const TrainList& list : m_job.train.trains) {
            const bool driven = !list.arbors.empty() &&
                                (powered.contains(list.arbors.front()) || found(m_derived.train.meshes, [&](const DerivedMesh& mesh) {
                                     return mesh.pinion_of == list.arbors.front();
                                 }));
            powered.insert(list.arbors.begin(), list.arbors.end());
            if (!driven || drive_of(list.id)) all.push_back({list.id, list.name.empty() ? list.id : list.name, drive_of(list.id)});
        }
        for (const DriveRecord& drive : drives)
            if (!found(all, [&](const PowerSource& one) { return one.id == drive.train; }))
                all.push_back({drive.train, drive.train, &drive});
        const auto named = [&](const char* what) {
            return found(all, [&](const PowerSource& one) {
                       return one.id.find(what) != std::string::npos || one.name.find(what) != std::string::npos;
                   }) != nullptr;
        };
        // A strike or an alarm that is known and has no train written down is driven all the same.
        if (m_job.strike && all.size() < 2 && !named("strike")) all.push_back({"strike", "strike", nullptr});
        if (m_job.alarm && !named("alarm")) all.push_back({"alarm", "alarm", nullptr});
        return all;
    }
    /// Each source of power by its name until it was said to be down. What is not known to be a weight counts as a wound spring.
    void let_down() {
        std::vector<std::string> each;
        for (const PowerSource& source : sources()) {
            const bool weight = source.drive && source.drive->as<WeightDrive>();
            const bool rewound = source.drive && source.drive->as<RewoundDrive>();
            Step step{"let-down:" + source.id, {}, {}, "survey", 8, safety("power"), weight ? "weights" : "springs", {"look"}};
            std::string name = source.name;
            std::transform(name.begin(), name.end(), name.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
            if (name.ends_with(" train")) name.resize(name.size() - 6);
            const std::string train = name + " train";
            if (weight) {
                step.words = "Take the weight off the " + train;
                step.because = "Hold it while the line is unhooked: it falls.";
            } else if (rewound) {
                step.words = "Cut the current to the " + train + ", then let it run down";
                step.because = "It rewinds itself as long as it has current.";
            } else {
                step.words = "Let down the " + name + " spring";
                step.because = source.drive && source.drive->as<FuseeDrive>()
                                   ? "The set-up stays on the barrel when the chain is off: note its turns, then let that down too."
                               : source.drive ? "It can break fingers. Let it down by its click, with a key that fits."
                                              : "Its drive was not entered. Take it as wound until its great wheel feels slack.";
                step.because += turns_that_may_be_left(source.id);
            }
            each.push_back(step.id);
            add(step);
        }
        if (each.empty()) each = {"look"};
        add({"let-down", "Power off every train: feel each great wheel slack", "Before a hand goes in.", "survey", 4, safety("power"),
             "springs", each});
    }
    /// As far as the job knows: a whole winding, and of a fusee what was set up besides.
    std::string turns_that_may_be_left(const std::string& train) const {
        const DerivedDrive* drive = found(m_derived.power.drives, [&](const DerivedDrive& one) { return one.train == train; });
        if (!drive || !drive->turns) return "";
        std::string words = " Up to " + print_fixed(*drive->turns, 1) + " turns may be on it";
        if (drive->set_up_found) words += ", and " + print_fixed(*drive->set_up_found, 1) + " of set-up under them";
        return words + ": count them as they go.";
    }
    void take_apart() {
        add({"dismantle", "Take it apart, the largest risk first, tray by tray", "Parts are counted, and which way each sat.", "survey", 60,
             any_tally()});
        stage();
        add({"clean", "Clean and dry all of it", "Nothing is measured through dirt.", "bench", 60, false, "solvents"});
        stage();
        const auto& holes = m_job.survey.pivots.holes;
        add({"peg", "Peg every hole until the wood stays white", "A hole is measured when it is clean.", "pivots", 30,
             !holes.empty() && std::all_of(holes.begin(), holes.end(), [](const HoleRecord& hole) { return hole.pegged; })});
        stage();
    }
    void look_over() {
        const auto& plates = m_job.survey.pivots.plates;
        const bool watch = is_watch(m_job);
        add({"plates", watch ? "Plates flat, bridges and cocks seated on their steady pins" : "Plates flat, pillars straight",
             watch ? "A cock that does not seat tilts its jewel." : "Holes bored between bent plates are out of line.", "pivots", 15,
             std::any_of(plates.begin(), plates.end(), [](const PlateRecord& plate) { return plate.flatness_mm || plate.pillar_out_mm; })});
        const auto& trials = m_job.survey.trials;
        add({"alone", "Each arbor alone between the plates", "Two that bind are found one by one.", "survey", 30,
             std::any_of(trials.begin(), trials.end(), [](const TrialRecord& trial) { return trial.arbors.size() == 1; })});
        const auto& derived = m_derived.pivots.holes;
        add({"measure", "Measure holes, pivots and wheels", "What is decided follows from it.", "pivots", 60,
             !derived.empty() &&
                 std::all_of(derived.begin(), derived.end(), [](const DerivedHole& hole) { return !hole.decision.empty(); })});
        if (m_job.oscillator && m_job.oscillator->as<Balance>())
            add({"balance", "Look at the balance: pivots round and bright, spring flat and centred, roller fast",
                 "A worn pivot shows as want of poise.", "beat", 20,
                 !m_job.oscillator->as<Balance>()->positions.empty() || !m_job.oscillator->as<Balance>()->steps_done.empty()});
        stage();
    }
    bool counts_open() const {
        return m_derived.train.to_weigh || m_derived.train.too_many || (m_derived.train.restore && !m_derived.train.chosen);
    }
    void decide() {
        add({"decide", "Decide what is made, mended and left",
             counts_open() ? "A lost count is not chosen yet." : "Each finding accepted or overruled, with its reason.",
             counts_open() ? "train" : "bench", 30,
             !counts_open() && (!m_derived.cards.cards.empty() || m_derived.pivots.holes_to_do > 0)});
        if (!m_job.bench.alternatives.empty())
            add({"worth", "Choose: repair, replace, leave, or stop here", "Hours, parts and harm stand side by side.", "bench", 20,
                 std::any_of(m_job.bench.alternatives.begin(), m_job.bench.alternatives.end(),
                             [](const Alternative& one) { return one.chosen; })});
        stage();
    }
    void make_and_mend() {
        for (const DerivedHole& hole : m_derived.pivots.holes) {
            if (hole.decision.empty() || hole.decision == "leave" || hole.decision == "repivot-first") continue;
            if (m_derived.cards.card("bush:" + hole.id)) continue;
            add({"hole:" + hole.id, hole.name + ": " + hole.decision, hole.reason, "pivots", 25, hole.record.done});
        }
        for (const DerivedCard& card : m_derived.cards.cards) {
            Step step{"make:" + card.id, "Make: " + card.name, card.because, "make", card.minutes, card.finished(), "machines"};
            for (const std::string& before : card.waits_for) step.after.push_back("make:" + before);
            if (!step.after.empty()) step.after.insert(step.after.end(), m_stage.begin(), m_stage.end());
            add(step);
        }
        for (const WoodMesh& mesh : m_derived.wood.meshes)
            if (mesh.too_deep() || mesh.too_shallow())
                add({"wood:" + mesh.name, "Let the wood come to rest: " + mesh.name, "It binds or skips in this air.", "teeth", 5});
        stage();
    }
    void put_together() {
        const auto& trials = m_job.survey.trials;
        const size_t whole = m_job.train.arbors.size();
        add({"trial", "Trial assembly of the finished pieces", "Before anything is polished or lacquered.", "survey", 40,
             std::any_of(trials.begin(), trials.end(), [&](const TrialRecord& trial) {
                 return trial.free && trial.end_shake && trial.arbors.size() + 1 >= whole && whole > 1;
             })});
        stage();
        const bool watch = is_watch(m_job), gilt = watch || (m_job.train.plate && m_job.train.plate->gilt());
        if (gilt) {
            // Gilding is thinner than any polish, and lacquer belongs on no watch.
            add({"polish", "Brighten screws and steel only; wash the gilding and leave it",
                 "Gilding is microns thick: polish takes it off.", "bench", 30});
            stage();
        } else {
            finish_brass();
        }
        add({"wash", "Clean all of it once more, and peg every hole", "Polish and swarf left in it grind its pivots.", "bench", 30, false,
             "solvents"});
        stage();
        for (const DriveRecord& drive : m_job.power.drives) {
            const auto& steps = drive_steps(drive.is);
            if (drive.as<WeightDrive>()) continue;
            add({"drive:" + drive.train, "Grease the spring along its whole length and put its drive together: " + drive.train,
                 "Its steps stand at Power.", "power", 40, !steps.empty() && drive.steps_done.size() >= steps.size(), "springs"});
        }
        stage();
        const auto& tally = m_job.survey.tally;
        add({"assemble", "Put it together, from the biggest to the smallest", "Parts taken out = put back + replaced.", "survey", 60,
             !tally.empty() && std::all_of(tally.begin(), tally.end(),
                                           [](const TallyLine& line) { return line.state == "back" || line.state == "replaced"; })});
        stage();
        if (m_job.strike)
            add({"strike-set", "Set the strike as it is drawn", "One leaf off, and it warns or locks wrongly.", "strike", 30,
                 m_derived.strike_train.together && m_derived.strike_train.together->right});
        add({"oil", "Oil and grease by the plan, and leave dry what must stay dry", "None may run down the plate.", "bench", 25,
             !out.oil.empty() &&
                 std::all_of(out.oil.begin(), out.oil.end(), [](const OilPlace& place) { return place.done || place.what == "dry"; })});
        stage();
    }
    void finish_brass() {
        add({"polish", "Polish as its neighbours are", "No edge rounded, no mark of a maker taken away.", "bench", 60});
        add({"lacquer",
             "Peg the holes, lacquer, and open the holes again with a smooth broach",
             "Lacquer shrinks holes, and stops an electric contact.",
             "bench",
             30,
             false,
             "solvents",
             {"polish"}});
        stage();
    }
    void try_and_hand_over() {
        add({"beat", "Set it in beat, level and firm", "Out of beat it wastes its swing, and stops sooner.", "beat", 15, false});
        stage();
        const auto& runs = m_job.bench.runs;
        add({"run", "On test for a day", "Every stop is noted with where the hands stood.", "bench", 10, readiness().days >= 1});
        stage();
        const RateFitResult* rate = m_derived.beat.now();
        const double within = m_job.bench.promised_rate_s.value_or(30);
        add({"regulate", "Regulate", "By the rate log: nut, pins or screws.", "beat", 30,
             rate && std::abs(rate->rate_s_per_day) <= within});
        stage();
        add({"week", "A week on test with its log", "Rate steady, no stop.", "bench", 10, readiness().ready});
        stage();
        if (!runs.empty() && runs.back().ended.empty()) waits("week", runs.back().begun);
        add({"hand-over", "Into its case, handed over, with the next service", "Three to five years.", "bench", 60,
             !m_job.bench.closed.empty(), m_job.power.drives.empty() ? "" : "weights"});
    }
    /// A run that is on holds up what it is for.
    void waits(const std::string& id, const std::string& begun) {
        for (JobStep& step : out.steps)
            if (step.id == id && step.state == "open")
                step.state = "waits", step.waits_for = "a week on test", step.until = later(begun, 7 * day_minutes);
    }

    /// What was ticked by hand, passed over, or waits.
    void mark() {
        for (JobStep& step : out.steps) {
            // Overruled at the Survey, with its reason there: passed over, and not done.
            const SafetyRecord* overruled = step.id.starts_with("let-down") ? m_job.survey.step("power")
                                            : step.id == "swing-off"        ? m_job.survey.step("swing")
                                                                            : nullptr;
            if (overruled && !overruled->done) step.state = "passed", step.because = overruled->because;
            // Cards have learnt their own minutes.
            if (const auto took = learnt_minutes("bench", kind_of_step(step.id), m_times); took && !step.id.starts_with("make:"))
                step.minutes = *took, step.learnt = true;
            const StepMark* mark = m_job.bench.mark(step.id);
            if (!mark || step.by_itself) continue;
            step.state = mark->state;
            if (mark->minutes) step.minutes = *mark->minutes;
            if (mark->state != "waits") continue;
            step.waits_for = mark->because, step.until = mark->until;
            // The wait is over: what it was for can be done.
            if (!mark->until.empty() && mark->until <= m_now)
                step.state = "open", step.because = "It waited for " + mark->because + ", until " + mark->until + ".";
        }
    }
    ReadyResult readiness() const {
        ReadyResult ready;
        const auto& runs = m_job.bench.runs;
        if (runs.empty()) {
            ready.verdict = m_job.bench.closed.empty()
                                ? "No run on test yet: stand it rigid and level, weights with room to fall, and begin one."
                                : "It went home without a run on test.";
            return ready;
        }
        const TestRun& run = runs.back();
        const std::string since = run.stops.empty() ? run.begun : run.stops.back().at;
        ready.days = minutes_between(since, run.ended.empty() ? m_now : run.ended) / day_minutes;
        const RateFitResult* rate = m_derived.beat.now();
        const double within = m_job.bench.promised_rate_s.value_or(30);
        const bool steady = rate && std::abs(rate->rate_s_per_day) <= within + 2 * rate->u_s_per_day;
        constexpr double week = 7;
        ready.ready = ready.days >= week && steady;
        ready.verdict = print_fixed(ready.days, 1) + " days without a stop";
        if (!run.stops.empty()) ready.verdict += ", " + std::to_string(run.stops.size()) + " stops before";
        ready.verdict += rate ? ", " + print_fixed(rate->rate_s_per_day, 1) + " s a day, promised within " + print_fixed(within, 0)
                              : ", its rate is not in the log";
        ready.verdict += ready.ready ? ": ready." : ready.days < week ? ": a week is wanted." : ": regulate it first.";
        if (!run.level || !run.firm) ready.verdict += " It was not said to stand level and firm.";
        ready.gathered = gathered_on(run, m_job.rate_log);
        return ready;
    }

    /// Out from what is loose and sprung to what is deep; back from the biggest to the smallest.
    void moves() {
        const auto line = [&](const std::string& part) {
            return found(m_job.survey.tally, [&](const TallyLine& one) { return one.name == part; });
        };
        const auto move = [&](const std::string& part, const std::string& words) {
            const TallyLine* told = line(part);
            return PartMove{part, words, told != nullptr, told && told->state != "out"};
        };
        std::vector<PartMove> outer = {
            move("Hands", "Pin or nut first, lifted straight, from the minute hand down; washers and which way each faced."),
            move("Dial", "Its feet are pinned from behind; pins are all alike and none goes back in another's place."),
            move("Motion work", "Cannon, minute and hour wheel; the thin washer under the spring is easily lost.")};
        if (m_job.strike)
            outer.push_back(move("Rack, snail and levers", "Springs let off with a hand over them; each spring with its screw."));
        outer.push_back(move("Pallets and cock", "The escape wheel runs off if there is power left: none may be left."));
        std::vector<std::pair<double, std::string>> arbors;
        for (const JobArbor& arbor : m_job.train.arbors) {
            double size = 0;
            for (const DerivedMesh& mesh : m_derived.train.meshes)
                if (mesh.wheel_of == arbor.train.id) size = std::max(size, mesh.sizes.wheel.outside_diameter_mm);
            arbors.emplace_back(size, arbor.called());
        }
        std::stable_sort(arbors.begin(), arbors.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
        out.taking_out = outer;
        for (const auto& [size, arbor] : arbors) out.taking_out.push_back(move(arbor, way_of(arbor)));
        for (auto at = arbors.rbegin(); at != arbors.rend(); ++at) out.putting_back.push_back(move(at->second, way_of(at->second)));
        out.putting_back.push_back(
            move("Top plate", "Pillar by pillar, from the great wheel on; a pivot that is forced is bent. None is pressed."));
        for (auto at = outer.rbegin(); at != outer.rend(); ++at) out.putting_back.push_back(*at);
    }
    std::string way_of(const std::string& called) const {
        for (const JobArbor& arbor : m_job.train.arbors)
            if (arbor.called() == called)
                if (const auto way = m_derived.survey.way_up.find(arbor.train.id); way != m_derived.survey.way_up.end()) return way->second;
        return "Which end faces the dial is marked before it is out.";
    }

    /// What waits holds up all that comes after it; what must be before a step stands above it.
    void hold_up() {
        std::set<std::string> held;
        for (JobStep& step : out.steps) {
            step.held_up = std::any_of(step.after.begin(), step.after.end(), [&](const std::string& id) { return held.contains(id); });
            if (step.held_up || step.state == "waits") held.insert(step.id);
        }
    }
    void sum_up() {
        for (const JobStep& step : out.steps)
            if (!step.over()) out.minutes_left += step.minutes;
        out.cautions = m_job.bench.dangers;
        const bool begun = std::any_of(out.steps.begin(), out.steps.end(),
                                       [](const JobStep& step) { return step.over() && step.id != "receive" && step.id != "scope"; });
        const bool running = !m_job.bench.runs.empty() && m_job.bench.runs.back().ended.empty();
        out.state = !m_job.bench.closed.empty() ? "closed"
                    : running                   ? "on test"
                    : out.ready.ready           ? "ready"
                    : !out.next()               ? "waits"
                    : begun                     ? "in work"
                                                : "received";
    }
};

}  // namespace

JobOrder order_of_work(const Job& job, const Derived& derived, const std::string& now, const std::vector<TimeTaken>& times) {
    return Order(job, derived, now, times).run();
}

std::string kind_of_step(const std::string& id) { return id.substr(0, id.find(':')); }

const JobStep* JobOrder::step(const std::string& id) const {
    return found(steps, [&](const JobStep& one) { return one.id == id; });
}

const JobStep* JobOrder::next() const {
    return found(steps, [&](const JobStep& one) {
        return one.state == "open" && !one.held_up && std::all_of(one.after.begin(), one.after.end(), [&](const std::string& id) {
                   const JobStep* before = step(id);
                   return !before || before->over();
               });
    });
}

const Record& JobStep::record() {
    using Out = JobStep;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "of the step")
                                     .add("words", &Out::words, "", "what is done")
                                     .add("because", &Out::because, "", "why it is there")
                                     .add("station", &Out::station, "", "where")
                                     .add("after", &Out::after, "", "steps that must be before it")
                                     .add("minutes", &Out::minutes, "min", "expected, or that it took")
                                     .add("learnt", &Out::learnt, "", "its minutes are what such steps took before")
                                     .add("state", &Out::state, "", "open, done, passed or waits")
                                     .add("by_itself", &Out::by_itself, "", "done, as the job shows at another station")
                                     .add("held_up", &Out::held_up, "", "something waits that must be before it, however far")
                                     .add("waits_for", &Out::waits_for, "", "what it waits for")
                                     .add("until", &Out::until, "", "when that ends")
                                     .add("caution", &Out::caution, "", "what can hurt, by its id");
    return record;
}

const Record& PartMove::record() {
    using Out = PartMove;
    static const Record record = Fields<Out>()
                                     .add("part", &Out::part, "", "by its name")
                                     .add("words", &Out::words, "", "how, and what is easily lost")
                                     .add("out", &Out::out, "", "it was taken out")
                                     .add("back", &Out::back, "", "it is in again, or replaced");
    return record;
}

const Record& OilPlace::record() {
    using Out = OilPlace;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "of the place")
                                     .add("words", &Out::words, "", "which it is")
                                     .add("what", &Out::what, "", "oil, grease or dry")
                                     .add("mm3", &Out::mm3, "mm³", "as much as half to two thirds of its sink holds")
                                     .add("how", &Out::how, "", "how much, and why")
                                     .add("plate", &Out::plate, "", "front or back")
                                     .add("x_mm", &Out::x_mm, "mm", "on the plate, seen from the dial")
                                     .add("y_mm", &Out::y_mm, "mm", "on the plate")
                                     .add("done", &Out::done, "", "it has it");
    return record;
}

const Record& ReadyResult::record() {
    using Out = ReadyResult;
    static const Record record = Fields<Out>()
                                     .add("ready", &Out::ready, "", "it can go home")
                                     .add("days", &Out::days, "d", "without a stop")
                                     .add("verdict", &Out::verdict, "", "in words")
                                     .add("gathered", &Out::gathered, "", "looks, warmth and what was heard of that run");
    return record;
}

const Record& JobOrder::record() {
    using Out = JobOrder;
    static const Record record = Fields<Out>()
                                     .add("state", &Out::state, "", "received, in work, waits, on test, ready or closed")
                                     .add("steps", &Out::steps, "", "in their order")
                                     .add("minutes_left", &Out::minutes_left, "min", "work left")
                                     .add("taking_out", &Out::taking_out, "", "parts in the order in which they come out")
                                     .add("putting_back", &Out::putting_back, "", "and go back")
                                     .add("oil", &Out::oil, "", "what gets oil or grease, and what stays dry")
                                     .add("ready", &Out::ready, "", "what the run on test says")
                                     .add("stops", &Out::stops, "", "what its stops on test have in common")
                                     .add("cautions", &Out::cautions, "", "that belong on its first look, by their ids");
    return record;
}

}  // namespace echappe
