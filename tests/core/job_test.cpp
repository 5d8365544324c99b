#include <rapidcheck/catch.h>
#include <sys/stat.h>

#include <filesystem>

#include "report/report.h"
#include "support/demo.h"
#include "support/files.h"
#include "topic.h"
#include "train/question.h"
#include "train/reading.h"
#include "workings/record_json.h"

using namespace echappe;
namespace fs = std::filesystem;

namespace {

std::string text_of(const fs::path& path) {
    std::ifstream in(path);
    std::ostringstream all;
    all << in.rdbuf();
    return all.str();
}

std::string first_fault(const std::string& text) {
    const LoadedJob loaded = job_from_text(text);
    return loaded.faults.empty() ? "" : loaded.faults.front().what();
}

std::string with(std::string text, const std::string& from, const std::string& to) {
    const auto at = text.find(from);
    REQUIRE(at != std::string::npos);
    return text.replace(at, from.size(), to);
}

const Finding* finding(const Derived& derived, const std::string& id) {
    for (const Finding& f : derived.findings)
        if (f.id.starts_with(id)) return &f;
    return nullptr;
}

}  // namespace

TEST_CASE("a job survives the file and comes back the same, byte for byte the second time") {
    const Job job = demo::measured_job();
    const std::string once = job_to_text(job);
    const LoadedJob again = job_from_text(once);
    REQUIRE(again.faults.empty());
    CHECK(again.job == job);
    CHECK(job_to_text(again.job) == once);
}

TEST_CASE("the demo as shipped is sound") {
    const LoadedJob loaded = job_from_text(demo::text("tide-house.echappe.json"));
    CHECK(loaded.faults.empty());
    CHECK_FALSE(loaded.damaged);
    CHECK(loaded.job.title == "Tide-house regulator");
}

TEST_CASE("faults in a job name their place") {
    const std::string good = demo::text("tide-house.echappe.json");
    CHECK(first_fault(with(good, "\"wheel\": 144", "\"wheel\": 2")) == "arbors[0].wheel: got 2, takes 4 to 1000");
    CHECK(first_fault(with(good, "\"title\"", "\"titel\"")) ==
          "titel: got a field it does not know, takes \"title\" (the nearest known name)");
    CHECK_THAT(first_fault(with(good, "\"wheel_of\": \"centre\"", "\"wheel_of\": \"center\"")),
               Catch::StartsWith("measurements[1].wheel_of: got \"center\""));
    CHECK_THAT(first_fault(with(good, "\"id\": \"m2\"", "\"id\": \"m1\"")), Catch::StartsWith("measurements[1].id"));
    CHECK_THAT(first_fault(with(good, "[0, 72]", "[0, 72, 5]")), Catch::StartsWith("arbors[0].position_mm: got 3 numbers"));
    CHECK_THAT(first_fault(with(good, "\"id\": \"third\"", "\"id\": \"centre\"")), Catch::Contains("third"));
    CHECK_THAT(first_fault(with(good, "\"min\": 50", "\"min\": 500")), Catch::StartsWith("limits.wheel"));
}

TEST_CASE("a file from a newer version is told apart from a damaged one") {
    const LoadedJob newer = job_from_text(with(demo::text("tide-house.echappe.json"), "\"schema\": 2", "\"schema\": 3"));
    CHECK(newer.newer);
    CHECK_FALSE(newer.damaged);
    CHECK(newer.job.train.arbors.size() == 6);
    CHECK_THAT(newer.faults.front().what(), Catch::Contains("a newer Echappe wrote this file"));
}

TEST_CASE("of a truncated job all that is complete is read, wherever it was cut") {
    const std::string whole = job_to_text(demo::measured_job());
    size_t best = 0;
    std::string read_before;
    for (size_t cut = 0; cut < whole.size() - 2; cut += 23) {
        const LoadedJob loaded = job_from_text(whole.substr(0, cut));
        REQUIRE(loaded.damaged);
        CHECK(loaded.job.train.measurements.size() >= best);
        best = std::max(best, loaded.job.train.measurements.size());
        const std::string read = job_to_text(loaded.job);
        if (read != read_before) CHECK_NOTHROW(derive(loaded.job));
        read_before = read;
    }
    CHECK(best == demo::measured_job().train.measurements.size());
    CHECK_THAT(job_from_text(whole.substr(0, 500)).faults.front().what(), Catch::Contains("stops being JSON at line"));
}

TEST_CASE("hostile text never crashes and never derives nonsense") {
    const std::string good = demo::text("tide-house.echappe.json");
    rc::prop("bytes changed at random", [&] {
        std::string text = good;
        const int changes = *rc::gen::inRange(1, 12);
        for (int i = 0; i < changes; ++i)
            text[static_cast<size_t>(*rc::gen::inRange(0, static_cast<int>(text.size())))] = static_cast<char>(*rc::gen::inRange(0, 256));
        const LoadedJob loaded = job_from_text(text);
        const Derived derived = derive(loaded.job);
        RC_ASSERT(derived.train.arbors.size() == loaded.job.train.arbors.size());
    });
    for (const char* text : {"", "null", "[]", "{}", "{\"format\":\"echappe job\"}", "\xff\xfe", "{\"arbors\":[{},{},{}]}"})
        CHECK(job_from_text(text).damaged);
    CHECK(job_from_text(std::string(1 << 20, '[')).damaged);
}

TEST_CASE("saving is whole or not at all") {
    const Folder folder;
    const fs::path path = folder.path / "job.echappe.json";
    save_job(path, demo::job());
    CHECK(load_job(path).job == demo::job());
    save_job(path, demo::measured_job());
    CHECK(load_job(path).job == demo::measured_job());
    CHECK(std::distance(fs::directory_iterator(folder.path), fs::directory_iterator()) == 1);
    CHECK_THROWS_AS(save_job(folder.path / "no-such-folder" / "job.json", demo::job()), InputError);
    CHECK_THROWS_AS(load_job(folder.path / "none.json"), InputError);
    const std::string before = text_of(path);
    CHECK_THROWS_AS(save_text("/dev/full/x", "x"), InputError);
    CHECK(text_of(path) == before);
}

TEST_CASE("saving keeps the file's permissions and follows a link") {
    const Folder folder;
    const fs::path path = folder.path / "job.json";
    const fs::path link = folder.path / "link.json";
    save_job(path, demo::job());
    fs::permissions(path, fs::perms::owner_read | fs::perms::owner_write);
    fs::create_symlink(path, link);
    save_job(link, demo::measured_job());
    CHECK(fs::is_symlink(link));
    CHECK(load_job(path).job == demo::measured_job());
    CHECK((fs::status(path).permissions() & fs::perms::all) == (fs::perms::owner_read | fs::perms::owner_write));
}

TEST_CASE("deriving is pure: the same job gives the same report") {
    const JobReport once = job_report({demo::measured_job(), ""});
    const JobReport twice = job_report({demo::measured_job(), ""});
    CHECK(write_json(JobReport::record(), &once, Empty::null) == write_json(JobReport::record(), &twice, Empty::null));
    CHECK(*once.beats_per_hour_exact == "3600/1");
    // 16.3 turns of a wheel that turns once in 12 h.
    CHECK(*once.run_s == Approx(16.3 * 43200));
}

TEST_CASE("what is known is told apart from what follows and what is missing") {
    Job job = demo::job();
    Derived derived = derive(job);
    CHECK(derived.train.arbor("centre")->wheel.known == Known::measured);
    CHECK(derived.train.arbor("third")->wheel.known == Known::missing);
    CHECK(derived.train.arbor("third")->wheel.weight < 0.5);
    job.train.choices = {{"third.wheel", 90, 0.99, ""}, {"third.pinion", 12, 0.99, ""}};
    derived = derive(job);
    CHECK(derived.train.chosen);
    CHECK(derived.train.arbor("third")->wheel.known == Known::derived);
    CHECK(derived.train.arbor("third")->wheel.count.value == 90);
    job.train.arbors[1].wheel_state = "assumed";
    CHECK(derive(job).train.arbor("centre")->wheel.known == Known::assumed);
}

TEST_CASE("an undecided arbor is a caution that says what to measure") {
    const Derived derived = derive(demo::job());
    const Finding* open = finding(derived, "train.undecided");
    REQUIRE(open);
    CHECK(open->severity == "caution");
    CHECK(open->arbor == "third");
    CHECK_THAT(open->reason, Catch::Contains("Measure Centre to Third, centre distance to tell them apart"));
    CHECK(finding(derive(demo::measured_job()), "train.undecided") == nullptr);
}

TEST_CASE("a reading spoiled by 1 mm becomes a finding that names it, and leaving it out reconciles the rest") {
    Job job = demo::measured_job();
    Measurement& spoiled = *std::find_if(job.train.measurements.begin(), job.train.measurements.end(),
                                         [](const Measurement& m) { return m.evidence.key == demo::centre_distance("centre", "third"); });
    spoiled.evidence.value += 1;
    const Derived derived = derive(job);
    const Finding* conflict = finding(derived, "train.conflict");
    REQUIRE(conflict);
    CHECK_THAT(conflict->sentence, Catch::Contains("Centre to Third, centre distance"));
    CHECK(finding(derived, "train.strain:"));
    spoiled.left_out = true;
    CHECK(finding(derive(job), "train.conflict") == nullptr);
    CHECK(finding(derive(job), "train.strain:") == nullptr);
}

TEST_CASE("a pinion under 6 leaves and holes too near are told") {
    Job job = demo::job();
    job.train.arbors[2].train.pinion = 5;
    job.train.arbors[2].train.wheel = 90;
    job.train.arbors[2].name = "Third";
    CHECK(finding(derive(job), "train.few-leaves:centre-third"));
    job = demo::measured_job();
    for (Measurement& m : job.train.measurements)
        if (m.evidence.key == demo::centre_distance("centre", "third")) {
            m.evidence.value -= 1;
            m.evidence.u = 0.05;
        }
    job.train.choices = {{"third.wheel", 90, 1, ""}, {"third.pinion", 12, 1, ""}};
    CHECK(finding(derive(job), "train.clash:centre-third"));
}

TEST_CASE("a mesh without a reading, or with counts not chosen, says not to cut yet") {
    Job job = demo::job();
    const auto cautions = [](const Job& j) {
        const Derived derived = derive(j);
        return derived.making.of(*derived.train.mesh("third", "escape")).cautions;
    };
    REQUIRE(cautions(job).size() == 2);
    CHECK_THAT(cautions(job).front(), Catch::Contains("the module is assumed"));
    job = demo::measured_job();
    REQUIRE(cautions(job).size() == 1);
    CHECK_THAT(cautions(job).front(), Catch::Contains("was not chosen"));
    job.train.choices = {{"third.wheel", 90, 1, ""}, {"third.pinion", 12, 1, ""}};
    CHECK(cautions(job).empty());
}

TEST_CASE("a judged finding keeps its verdict and goes to the end") {
    Job job = demo::job();
    job.train.arbors[1].train.pinion = 5;
    job.judgements = {{"train.undecided", "overruled", "the owner wants 90", "2026-11-23"}};
    const Derived derived = derive(job);
    CHECK(derived.findings.back().id == "train.undecided");
    CHECK(derived.findings.back().verdict == "overruled");
}

TEST_CASE("arbors without a known hole are laid out at their centre distance") {
    Job job = demo::measured_job();
    for (JobArbor& arbor : job.train.arbors) arbor.position_mm.clear();
    const Derived derived = derive(job);
    for (const DerivedMesh& mesh : derived.train.meshes) {
        const DerivedArbor& a = *derived.train.arbor(mesh.wheel_of);
        const DerivedArbor& b = *derived.train.arbor(mesh.pinion_of);
        CHECK(std::hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm) == Approx(mesh.centre_distance_mm));
        CHECK(b.position_assumed);
    }
}

TEST_CASE("every figure has a unit or says its time, and every derived one explains itself") {
    for (const Quantity& quantity : derive(demo::measured_job()).train.quantities) {
        INFO(quantity.arbor << " " << quantity.name);
        CHECK((!quantity.unit.empty() || quantity.name == "time of a turn" || quantity.name == "escapement" ||
               quantity.name.starts_with("hand ")));
        if (quantity.known == Known::derived && quantity.name != "time of a turn" && quantity.name != "beats")
            CHECK(quantity.working.has_value());
    }
}

TEST_CASE("a mesh half a module shallow or deep is told, the worst first, and one within its uncertainty is not") {
    const auto depths_of = [](double deep_mm, double u) {
        Job job = demo::job();
        demo::measure(job, demo::wheel_diameter("great"), 0.02);
        demo::measure(job, demo::pinion_diameter("centre"), 0.02);
        std::erase_if(job.train.measurements, [](const Measurement& m) { return m.evidence.key.kind == "centre_distance_mm"; });
        demo::measure(job, demo::centre_distance("great", "centre"), u, -deep_mm);
        std::vector<std::string> told;
        for (const Finding& finding : derive(job).findings)
            if (finding.is("making.depth")) told.push_back(finding.sentence + finding.reason);
        return told;
    };
    CHECK(depths_of(0, 0.05).empty());
    const auto shallow = depths_of(-0.45, 0.05);
    REQUIRE(shallow.size() == 1);
    CHECK(shallow.front().find("Great wheel and Centre pinion stand too far apart") == 0);
    CHECK(shallow.front().find("too shallow") != std::string::npos);
    const auto deep = depths_of(0.35, 0.05);
    REQUIRE(deep.size() == 1);
    CHECK(deep.front().find("too deep") != std::string::npos);
    // The same reading taken with a rule says nothing: its uncertainty excuses it.
    CHECK(depths_of(-0.45, 0.6).empty());
}

TEST_CASE("a job in inches shows inches of the same length") {
    Job job = demo::measured_job();
    const auto text = [](const Job& j, const std::string& name) {
        for (const Quantity& q : derive(j).train.quantities)
            if (q.arbor == "third" && q.name == name) return std::stod(q.text);
        return 0.0;
    };
    const double mm = text(job, "wheel, over the tips");
    job.length.symbol = "in";
    CHECK(text(job, "wheel, over the tips") == Approx(mm / 25.4).margin(0.0006));
}

TEST_CASE("more lost counts than can be weighed within a keystroke are told, and taken once they were weighed") {
    Job job = demo::measured_job();
    job.train.arbors[1].train.wheel = Count::lost();
    job.train.limits = RestoreLimits();
    const Derived open = derive(job);
    CHECK(open.train.problem.empty());
    REQUIRE(open.train.to_weigh);
    CHECK(*open.train.to_weigh == 131LL * 131 * 16);
    CHECK_FALSE(open.train.restore);
    const WeighedTrain weighed{question_of(restore_input(job.train, job.teeth)), restore_train(restore_input(job.train, job.teeth))};
    const Derived known = derive(job, {&weighed});
    CHECK_FALSE(known.train.to_weigh);
    REQUIRE(known.train.restore);
    CHECK(known.train.restore->candidates.front().counts.at("third.wheel") == 90);
    // Another question is not answered by it.
    job.train.measurements.pop_back();
    CHECK(derive(job, {&weighed}).train.to_weigh);
}

TEST_CASE("more combinations than can be weighed at all are refused with what would cut them down") {
    Job job = demo::measured_job();
    for (const size_t arbor : {0, 1, 3}) job.train.arbors[arbor].train.wheel = Count::lost();
    job.train.arbors[3].train.pinion = Count::lost();
    job.train.limits = RestoreLimits();
    const Derived derived = derive(job);
    CHECK(derived.train.problem.empty());
    CHECK(derived.train.too_many);
    const auto told =
        std::find_if(derived.findings.begin(), derived.findings.end(), [](const Finding& f) { return f.id == "train.too-many"; });
    REQUIRE(told != derived.findings.end());
    CHECK_THAT(told->reason, Catch::Contains("narrow the limits"));
    CHECK(derived.train.arbors.size() == 6);
}

TEST_CASE("what is typed for a reading becomes the evidence it means") {
    const Job job = demo::job();
    const auto read = [&](const char* kind, const char* text) {
        return read_evidence(job.train, job.length, {kind, "third", {}, {}}, text);
    };
    CHECK(read("direction", " Right ").direction == "cw");
    CHECK(read("direction", "l").direction == "ccw");
    CHECK_THROWS_WITH(read("direction", "up"), Catch::Contains("takes right or left"));
    const Evidence fragment = read("wheel_fragment_deg", "11 / 44,0±0.4");
    CHECK(fragment.teeth == 11);
    CHECK(fragment.value == 44);
    CHECK(fragment.u == 0.4);
    CHECK_THROWS_WITH(read("wheel_fragment_deg", "44"), Catch::Contains("tooth spaces / degrees"));
    CHECK_THROWS_WITH(read("wheel_fragment_deg", "2.5/44"), Catch::Contains("tooth spaces / degrees"));
    const Evidence run = read("run_s", "195.5 h");
    CHECK(run.value == Approx(195.5 * 3600));
    CHECK(run.turns == 16.3);
    CHECK(read("wheel_outside_diameter_mm", "1.5in").value == Approx(38.1));
    CHECK(read("wheel_outside_diameter_mm", "38.1").u == 0.02);
    CHECK_THROWS_WITH(read("wheel_outside_diameter_mm", "-3"), Catch::Contains("a number above 0"));
}

TEST_CASE("a doubted count is shown as found, with what the rest thinks of it") {
    Job job = demo::measured_job();
    job.train.arbors[2].train.wheel = 90;
    job.train.arbors[2].train.pinion = 12;
    job.train.arbors[3].train.pinion = 10;  // a repairer's
    job.train.arbors[3].pinion_trust = 0.5;
    const Derived derived = derive(job);
    REQUIRE(derived.train.restore);
    CHECK(derived.train.restore->candidates.front().counts.at("escape.pinion") == 12);
    CHECK(derived.train.arbor("escape")->pinion.doubted);
    CHECK(derived.train.arbor("escape")->pinion.count.value == 12);
    CHECK(job_from_text(job_to_text(job)).job == job);
}

TEST_CASE("a train that cannot be worked out says why instead of failing") {
    Job job = demo::job();
    job.train.arbors[1].train.pinion = Count();
    const Derived derived = derive(job);
    CHECK_THAT(derived.train.problem, Catch::StartsWith("arbors[1].pinion"));
    CHECK(finding(derived, "train.problem"));
}

TEST_CASE("the simulated calliper reads the truth with its noise and resolution, the same each time") {
    const SimulatedCalliper calliper(demo::truth());
    const QuantityKey key = demo::centre_distance("centre", "third");
    const double truth = *demo::truth().truth(key);
    CHECK(truth == Approx(35.12));
    double sum = 0, squares = 0;
    constexpr int readings = 2000;
    for (std::uint64_t i = 0; i < readings; ++i) {
        const double reading = *calliper.read(key, i);
        CHECK(reading == *calliper.read(key, i));
        CHECK(std::abs(std::remainder(reading, 0.01)) < 1e-9);
        sum += reading - truth;
        squares += (reading - truth) * (reading - truth);
    }
    CHECK(std::abs(sum / readings) < 0.001);
    // Noise of 0.010 and rounding of 0.01/√12 together.
    CHECK(std::sqrt(squares / readings) == Approx(0.0104).margin(0.0006));
    CHECK_FALSE(calliper.read({"module_mm", {}, "centre", "third"}, 0).has_value());
    CHECK_FALSE(calliper.read(demo::wheel_diameter("nothing"), 0).has_value());
}

TEST_CASE("the demo's four readings, taken where the solver asks, settle the lost arbor") {
    Job job = demo::job();
    const SimulatedCalliper calliper(demo::truth());
    for (int i = 0; i < 4; ++i) {
        const auto next = derive(job).train.restore->next_measurement;
        if (!next) break;
        const auto reading = calliper.read(next->key, 0);
        REQUIRE(reading.has_value());
        job.train.measurements.push_back({"s" + std::to_string(i), {next->key, *reading, 0.05}, "", "", "", false});
    }
    const RestoreResult out = *derive(job).train.restore;
    CHECK(out.candidates.front().counts.at("third.wheel") == 90);
    CHECK(out.candidates.front().counts.at("third.pinion") == 12);
    CHECK(out.candidates.front().weight > 0.99);
}

TEST_CASE("a question for trains is read as it is said at the bench") {
    Job job = demo::job();
    job.train.arbors[2].train.wheel = 90;
    job.train.arbors[2].train.pinion = 12;
    const TrainQuestion plain = read_train_question(job.train, "60");
    CHECK(plain.from == "centre");
    CHECK(plain.to == "escape");
    CHECK(plain.find.stages == 2);
    CHECK(plain.find.target == Rational(60));
    CHECK(plain.wheels == std::vector<std::string>{"centre.wheel", "third.wheel"});
    CHECK(plain.find.wheel == job.train.limits.wheel);
    // What is there now: 96/12 × 90/12.
    CHECK(read_train_question(job.train, "now").find.target == Rational(60));
    const TrainQuestion tide =
        read_train_question(job.train, "tide from Great, new, stages 3, teeth 24–90, hunting, ppm 5, even 1.5, use 64");
    CHECK(tide.to.empty());
    CHECK(tide.find.driver_period_s == Rational(43200));
    CHECK(tide.find.stages == 3);
    CHECK(tide.find.wheel == CountRange{24, 90});
    CHECK(tide.find.pinion == CountRange{24, 90});
    CHECK(tide.find.hunting_only);
    CHECK(tide.find.must_wheels == std::vector<long long>{64});
    CHECK(*tide.find.evenness_at_most == 1.5);
    const auto refused = [&](const char* text, const char* why) {
        CHECK_THROWS_WITH(read_train_question(job.train, text), Catch::Contains(why));
    };
    refused("", "got nothing");
    refused("60 from attic", "takes the name of an arbor");
    refused("60 from escape to centre", "the first drives the second");
    refused("60 wobbly", "\"wobbly\"");
    refused("60 rank beauty", "evenness, teeth");
    const TrainQuestion ranked = read_train_question(job.train, "60 cutters 1 exclude 3 rank evenness");
    CHECK(ranked.find.distinct_pinions_at_most == 1);
    CHECK(ranked.find.exclude_factors == std::vector<long long>{3});
    CHECK(ranked.find.rank == "evenness");
    refused("tide teeth 90-20", "\"90-20\"");
    refused("tide stages", "nothing after");
    refused("tide new stages 9", "1 to 6");
    job.train.arbors[1].train.pinion = Count::lost();
    refused("tide from great", "arbors[1].pinion");
}

namespace {

Job taken(Job job, const TrainQuestion& question, const FindResult& result, const FoundTrain& train) {
    job.train = with_train(job.train, question, result, train);
    return job;
}

}  // namespace

TEST_CASE("a train that is taken is in the job as it was shown: the chain keeps its ratio, the branch its hand") {
    Job job = demo::job();
    job.train.arbors[2].train.wheel = 90;
    job.train.arbors[2].train.pinion = 12;
    const TrainQuestion other = read_train_question(job.train, "60 leaves 8-10");
    const FindResult trains = find_trains(other.find);
    const Derived changed = derive(taken(job, other, trains, trains.solutions.front()));
    CHECK(*changed.train.beats_per_hour == 3600);
    CHECK(changed.train.arbor("escape")->pinion.count.value <= 10);

    const TrainQuestion tide = read_train_question(job.train, "tide from great new");
    const FindResult found = find_trains(tide.find);
    const Job with = taken(job, tide, found, found.solutions.front());
    CHECK(with.train.arbors.size() == job.train.arbors.size() + 2);
    CHECK(job_from_text(job_to_text(with)).faults.empty());
    CHECK(job_from_text(job_to_text(with)).job == with);
    const Derived derived = derive(with);
    REQUIRE(derived.train.problem.empty());
    const DerivedArbor& hand = derived.train.arbors.back();
    CHECK(*hand.period_s == Approx(44714.2).epsilon(1e-6));
    // The found error in ppm is what the hand is off in a year of 31 556 926 s, the other way for a slower hand.
    CHECK(*hand.hand_s_per_year == Approx(-found.solutions.front().error_ppm * 31.556926).epsilon(1e-3));
    CHECK(*derived.train.beats_per_hour == 3600);
    // A second branch from the same arbor finds room for its names.
    const Job twice = taken(with, tide, found, found.solutions.front());
    CHECK(derive(twice).train.problem.empty());
    // And stands on the plate, clear of the first arbor's hole.
    CHECK(std::abs(hand.x_mm) < 80);
    CHECK(hand.y_mm > 0);
}

TEST_CASE("the tide hand as found drifts most of a tide in a month's reckoning, and its own branch is repaired to keep it") {
    Job job = demo::job();
    job.train.arbors[2].train.wheel = 90;
    job.train.arbors[2].train.pinion = 12;
    // 12 h × 57/64 × 87/75 = 12.3975 h, against 12 h 25 min 14.2 s: 82.7 s in each turn.
    const Derived found = derive(job);
    const double year_s = 365.2422 * 86400;
    CHECK(*found.train.arbor("tide")->hand_s_per_year == Approx(year_s * (44714.2 / (12 * 3600 * 57. / 64 * 87 / 75) - 1)));
    const auto drifts = [](const Derived& derived) {
        return std::count_if(derived.findings.begin(), derived.findings.end(), [](const Finding& f) { return f.id == "train.hand:tide"; });
    };
    CHECK(drifts(found) == 1);

    const TrainQuestion tide = read_train_question(job.train, "tide");
    CHECK(tide.from == "great");
    CHECK(tide.to == "tide");
    CHECK(tide.find.stages == 2);
    const FindResult trains = find_trains(tide.find);
    const Job mended = taken(job, tide, trains, trains.solutions.front());
    CHECK(mended.train.arbors.size() == job.train.arbors.size());
    const Derived derived = derive(mended);
    REQUIRE(derived.train.problem.empty());
    CHECK(std::abs(*derived.train.arbor("tide")->hand_s_per_year) < 60);
    CHECK(drifts(derived) == 0);
    CHECK(*derived.train.beats_per_hour == 3600);
    CHECK_THROWS_WITH(read_train_question(job.train, "tide stages 3"), Catch::Contains("which the hand's branch has"));
    CHECK(read_train_question(job.train, "tide stages 3 new").to.empty());
}

TEST_CASE("a tide train that must fit stands between the holes that are there, with cutters of the drawer") {
    const Job job = demo::job();
    const std::vector<double> cutters = {0.45, 0.5, 0.55, 0.6, 0.65, 0.7};
    const TrainQuestion fit = read_train_question(job.train, "tide fit", {cutters, {}});
    const FindResult found = find_trains(fit.find);
    REQUIRE(!found.solutions.empty());
    const double distance[] = {std::hypot(30., 57.6 - 72), std::hypot(30., 57.6 - 24.6)};
    for (const FoundTrain& train : found.solutions)
        for (size_t i = 0; i < 2; ++i) {
            const double module = 2 * distance[i] / static_cast<double>(train.stages[i].wheel + train.stages[i].pinion);
            const auto near = [&](double cutter) { return std::abs(distance[i] - distance[i] / module * cutter) < 0.101 * cutter; };
            CHECK(std::any_of(cutters.begin(), cutters.end(), near));
        }
    CHECK_THROWS_WITH(read_train_question(job.train, "tide fit"), Catch::Contains("wheel cutters"));
    CHECK_THROWS_WITH(read_train_question(job.train, "tide new fit", {cutters, {}}), Catch::Contains("a new branch has none yet"));
}

TEST_CASE("motion work goes on the arbor of one hour: the hour hand on its axis keeps time exactly, both meshes at one distance") {
    Job job = demo::measured_job();
    job.train.arbors[2].train.wheel = 90;
    job.train.arbors[2].train.pinion = 12;
    const TrainQuestion motion = read_train_question(job.train, "motion");
    CHECK(motion.from == "centre");
    const FindResult found = answer_train_question(motion, {});
    REQUIRE(found.solutions.size() > 5);
    for (const FoundTrain& train : found.solutions)
        CHECK(train.stages[0].wheel * train.stages[1].wheel == 12 * train.stages[0].pinion * train.stages[1].pinion);
    for (const FoundTrain& train : {found.solutions.front(), found.solutions.back()}) {
        const Job with = taken(job, motion, found, train);
        CHECK(job_from_text(job_to_text(with)).faults.empty());
        const Derived derived = derive(with);
        INFO(derived.train.problem);
        REQUIRE(derived.train.problem.empty());
        CHECK(*derived.train.arbor("hour")->period_s == 12 * 3600);
        CHECK(*derived.train.arbor("hour")->hand_s_per_year == 0);
        CHECK(derived.train.arbor("hour")->x_mm == derived.train.arbor("centre")->x_mm);
        CHECK(derived.train.mesh("minute", "hour")->sizes.centre_distance_mm ==
              Approx(derived.train.mesh("centre", "minute")->sizes.centre_distance_mm));
        // Centre and hour hand are one axis: the minute wheel is depthed from it once.
        CHECK(depthing_of(derived.train, "minute").neighbours.size() == 1);
        CHECK(set_depthing(depthing_of(derived.train, "minute")).effects.size() == 1);
        CHECK(with.train.trains.back().arbors == std::vector<std::string>{"centre", "minute", "hour"});
    }
    CHECK(read_train_question(job.train, "motion 24").motion->ratio == 24);
    CHECK_THROWS_WITH(read_train_question(job.train, "motion from third"), Catch::Contains("once in an hour"));
}

TEST_CASE("the job's dividing head says how each count is divided, and the finder keeps to it when asked") {
    Job job = demo::job();
    job.train.arbors[2].train.wheel = 90;
    job.train.arbors[2].train.pinion = 12;
    const Derived derived = derive(job);
    // 60 turns for a whole turn: 90 teeth want two thirds of a turn each, 12 leaves five turns.
    const auto made = [](const Derived& d) { return d.making.of(*d.train.mesh("third", "escape")); };
    CHECK(made(derived).wheel_dividing == "10 holes of 15");
    CHECK(made(derived).pinion_dividing == "5 turns");
    const TrainMeans head{{}, [&](long long count) { return divides_exactly(*job.making.dividing_head, count); }};
    const TrainQuestion indexed = read_train_question(job.train, "tide from great new indexed", head);
    for (const FoundTrain& train : find_trains(indexed.find).solutions)
        for (const Stage& stage : train.stages) {
            CHECK(divides_exactly(*job.making.dividing_head, stage.wheel));
            CHECK(divides_exactly(*job.making.dividing_head, stage.pinion));
        }
    CHECK_FALSE(divides_exactly(*job.making.dividing_head, 109));
    // A head without a circle of holes is told; the blanks stand.
    job.making.dividing_head->plates = {{}};
    CHECK(finding(derive(job), "making.dividing-head"));
    CHECK(made(derive(job)).wheel_blank);
    job.making.dividing_head.reset();
    CHECK(made(derive(job)).wheel_dividing.empty());
    CHECK_THROWS_WITH(read_train_question(job.train, "tide from great new indexed"), Catch::Contains("dividing_head"));
}
