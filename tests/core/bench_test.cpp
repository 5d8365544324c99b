#include <catch2/catch.hpp>
#include <chrono>
#include <cmath>
#include <filesystem>
#include <fstream>
#include <random>

#include "bench/cautions.h"
#include "bench/waits.h"
#include "job/file.h"
#include "job/new_job.h"
#include "number/input_error.h"
#include "number/share.h"
#include "report/bench_sheets.h"
#include "report/gathered.h"
#include "report/job_steps.h"
#include "report/papers.h"
#include "report/today.h"
#include "support/demo.h"
#include "support/files.h"
#include "topic.h"

using namespace echappe;

namespace {

const char* const this_morning = "2026-11-30 10:00";

std::vector<Job> jobs() {
    std::vector<Job> all;
    for (const char* name : {"tide-house", "waiting-room", "watch", "granary"})
        all.push_back(job_from_text(demo::text(std::string(name) + ".echappe.json")).job);
    all.push_back(new_job("great 96, centre 8/84, third 7/78, escape 7/30; centre 1 h; 8022.86 beats"));
    return all;
}

JobOrder order(const Job& job, const std::string& when = this_morning) { return order_of_work(job, derive(job), when); }

void put(const Folder& folder, const std::string& name, const std::string& text) {
    std::ofstream(folder / (name + ".echappe.json")) << text;
}

BenchToday look(const Folder& folder, const std::string& words = {}, bool keep = true) {
    BenchTodayInput in;
    in.folder = folder.path.string(), in.now = this_morning, in.words = words, in.keep_index = keep;
    return bench_today(in);
}

}  // namespace

TEST_CASE("the order of work never sets a step before one that must be before it, whatever was done already") {
    std::mt19937 chance(9);
    for (const Job& begun : jobs())
        for (int round = 0; round < 3; ++round) {
            Job job = begun;
            const JobOrder first = order(job);
            // Every id once, and each "after" names a step that is there and stands above.
            std::set<std::string> above;
            for (const JobStep& step : first.steps) {
                INFO(job.title << ": " << step.id);
                for (const std::string& before : step.after) CHECK((above.contains(before) || !first.step(before)));
                CHECK(above.insert(step.id).second);
            }
            // Some are passed over before anybody begins.
            for (const JobStep& step : first.steps)
                if (chance() % 6 == 0) mark_step({step.id, "passed", "not wanted", "2026-11-30", "", {}}).change(job.bench);
            std::set<std::string> over;
            for (const JobStep& step : order(job).steps)
                if (step.over()) over.insert(step.id);
            for (size_t guard = 0; guard <= first.steps.size(); ++guard) {
                const JobOrder at = order(job);
                const JobStep* next = at.next();
                if (!next) break;
                for (const std::string& before : next->after) CHECK((over.contains(before) || !at.step(before)));
                over.insert(next->id);
                mark_step({next->id, "done", "", "2026-11-30", "", {}}).change(job.bench);
            }
            const JobOrder last = order(job);
            // What is still open stands behind a wait.
            const bool waits = std::any_of(last.steps.begin(), last.steps.end(), [](const JobStep& step) { return step.state == "waits"; });
            CHECK((waits || std::all_of(last.steps.begin(), last.steps.end(), [](const JobStep& step) { return step.over(); })));
        }
}

TEST_CASE("what was done at another station ticks itself, and no power is left before hands go in") {
    Job job = jobs().back();
    const JobOrder bare = order(job);
    CHECK(bare.step("let-down")->state == "open");
    CHECK(bare.step("dismantle")->after.size() >= 2);
    CHECK(bare.next()->id == "receive");
    // Overruled is not done.
    job.survey.safety.push_back({"power", false, "It has no power: the spring is out.", ""});
    CHECK(order(job).step("let-down")->state == "passed");
    CHECK(order(job).step("let-down")->because == "It has no power: the spring is out.");
    job.survey.safety.front().done = true;
    CHECK(order(job).step("let-down")->by_itself);
    job.survey.tally.push_back({"Hands", "A", "out", ""});
    CHECK(order(job).step("dismantle")->by_itself);
    job.survey.tally.front().state = "back";
    CHECK(order(job).step("assemble")->by_itself);
    // A hole that is done at the Pivots is done here.
    Job tide = jobs().front();
    const JobOrder open = order(tide);
    const JobStep* hole = nullptr;
    for (const JobStep& step : open.steps)
        if (step.id.starts_with("hole:") && !step.over()) hole = &step;
    REQUIRE(hole);
    const std::string id = hole->id.substr(5);
    tide.survey.pivots.hole_at(id.substr(0, id.rfind('.')), id.substr(id.rfind('.') + 1)).done = true;
    CHECK(order(tide).step("hole:" + id)->by_itself);
}

TEST_CASE("a wait ends at its hour, and until then another step is next") {
    Job job = jobs().back();
    mark_step({"receive", "done", "", "", "", {}}).change(job.bench);
    mark_step({"scope", "waits", "the owner's word", "2026-11-30", "2026-12-02 12:00", {}}).change(job.bench);
    const JobOrder waits = order(job);
    CHECK(waits.step("scope")->state == "waits");
    CHECK(!waits.next());
    CHECK(waits.state == "waits");
    CHECK(order(job, "2026-12-02 11:59").step("scope")->state == "waits");
    CHECK(order(job, "2026-12-02 12:00").step("scope")->state == "open");
    unmark_step("scope").change(job.bench);
    CHECK(order(job).next()->id == "scope");
}

TEST_CASE("a week without a stop and a steady rate is ready, a stop begins it anew") {
    Job job = jobs().front();
    begin_run("2026-11-20 09:00", "on its wall").change(job.bench);
    CHECK(order(job).ready.days == Approx(10 + 1.0 / 24));
    CHECK(order(job).state == "on test");
    note_stop("2026-11-28 10:00", "3:20", "").change(job.bench);
    CHECK(order(job).ready.days == Approx(2));
    CHECK_FALSE(order(job).ready.ready);
    CHECK_THAT(order(job).ready.verdict, Catch::Contains("1 stops before"));
    // It waits for its week from where it was begun, over the end of a month and of a leap year's February.
    job.bench.runs.clear();
    begin_run("2028-02-26 09:30", "").change(job.bench);
    CHECK(order(job, "2028-02-27 09:30").step("week")->until == "2028-03-04 09:30");
    end_run("2028-02-29 09:30").change(job.bench);
    CHECK(order(job, "2029-01-01 00:00").ready.days == Approx(3));
    CHECK_THROWS_AS(note_stop("", "", "").change(job.bench), InputError);
}

TEST_CASE("what must stay dry stands in the oil plan with the rest") {
    const JobOrder tide = order(jobs().front());
    std::set<std::string> ids;
    for (const OilPlace& place : tide.oil) CHECK(ids.insert(place.id).second);
    CHECK(ids.contains("teeth"));
    CHECK(ids.contains("pallets"));
    const JobOrder watch = order(jobs()[2]);
    CHECK(std::any_of(watch.oil.begin(), watch.oil.end(), [](const OilPlace& place) { return place.id == "fork" && place.what == "dry"; }));
    const JobOrder wood = order(jobs()[3]);
    CHECK(
        std::any_of(wood.oil.begin(), wood.oil.end(), [](const OilPlace& place) { return place.id == "pulleys" && place.what == "dry"; }));
    // All ticked but what stays dry, the step is done.
    Job job = jobs().front();
    for (const OilPlace& place : tide.oil)
        if (place.what != "dry") oil_place(place.id, true).change(job.bench);
    CHECK(order(job).step("oil")->by_itself);
}

TEST_CASE("parts go back in the order of their size, and come out the other way round") {
    const JobOrder tide = order(jobs().front());
    const auto at = [](const std::vector<PartMove>& list, const std::string& part) {
        return std::find_if(list.begin(), list.end(), [&](const PartMove& move) { return move.part == part; }) - list.begin();
    };
    CHECK(at(tide.putting_back, "Great") < at(tide.putting_back, "Escape"));
    CHECK(at(tide.taking_out, "Hands") < at(tide.taking_out, "Great"));
    CHECK(tide.taking_out.size() + 1 == tide.putting_back.size());
}

TEST_CASE("the interval of a share is the exact one") {
    // C. Clopper and E. Pearson: none of ten, 95 % on one side: 1 − 0.05^(1/10).
    CHECK(share_interval(0, 10)[1] == Approx(1 - std::pow(0.05, 0.1)));
    CHECK(share_interval(0, 10)[0] == 0);
    CHECK(share_interval(10, 10)[0] == Approx(std::pow(0.05, 0.1)));
    // The binomial's own tail, summed.
    const double least = share_interval(3, 12)[0];
    double tail = 0, choose = 1;
    for (int k = 0; k <= 12; ++k) {
        if (k >= 3) tail += choose * std::pow(least, k) * std::pow(1 - least, 12 - k);
        choose = choose * (12 - k) / (k + 1);
    }
    CHECK(tail == Approx(0.05));
    CHECK(share_interval(0, 0) == std::array<double, 2>{0, 1});
}

TEST_CASE("a folder of jobs tells what can be done today, and a damaged file stops nothing") {
    const Folder folder;
    auto all = jobs();
    for (size_t i = 0; i < all.size(); ++i) {
        all[i].bench.promised = i == 1 ? "2026-11-10" : i == 3 ? "2026-12-05" : "";
        put(folder, "job" + std::to_string(i), job_to_text(all[i]));
    }
    put(folder, "broken", "{\"format\": \"echappe job\", ");
    const BenchToday today = look(folder);
    CHECK(today.jobs.size() == 6);
    CHECK(today.damaged == 1);
    // The granary waits for the millers, and so does all that comes after.
    REQUIRE(today.today.size() == 4);
    CHECK(today.today.front().promised == "2026-11-10");
    CHECK(today.today.front().late);
    CHECK_FALSE(today.today[1].late);
    // Found by any word in it.
    CHECK(look(folder, "ferry").jobs.size() <= 1);
    CHECK(look(folder, "Tide regulator").jobs.size() == 1);
    CHECK(look(folder, "nowhere").jobs.empty());
    // The index knows a changed file again.
    all[0].title = "Another name";
    put(folder, "job0", job_to_text(all[0]));
    CHECK(look(folder, "another name").jobs.size() == 1);
    std::filesystem::remove(folder.path / "job1.echappe.json");
    CHECK(look(folder).jobs.size() == 5);
    // A wait that has ended is none, though the file is as it was.
    Job waits = jobs().back();
    mark_step({"receive", "done", "", "", "", {}}).change(waits.bench);
    mark_step({"scope", "waits", "a word", "", "2026-12-01 08:00", {}}).change(waits.bench);
    put(folder, "waits", job_to_text(waits));
    BenchTodayInput later;
    later.folder = folder.path.string(), later.now = this_morning, later.words = "";
    const auto waiting = [&](const std::string& when) {
        later.now = when;
        const BenchToday at = bench_today(later);
        return std::any_of(at.waiting.begin(), at.waiting.end(), [](const JobOnBench& job) { return job.file == "waits.echappe.json"; });
    };
    CHECK(waiting(this_morning));
    CHECK(waiting("2026-12-01 07:59"));
    CHECK_FALSE(waiting("2026-12-01 08:00"));
    std::filesystem::remove(folder.path / "waits.echappe.json");
    // Spoilt, it is made anew.
    std::ofstream(folder.path / ".echappe-bench.json") << "{";
    CHECK(look(folder).jobs.size() == 5);
    BenchTodayInput none;
    none.folder = "/nowhere";
    CHECK_THROWS_WITH(bench_today(none), Catch::StartsWith("folder"));
}

TEST_CASE("a thousand jobs are listed within a second once they were looked at") {
    const Folder folder;
    const std::string text = job_to_text(jobs().back());
    for (int i = 0; i < 1000; ++i) put(folder, "job" + std::to_string(i), text);
    look(folder);
    const auto begun = std::chrono::steady_clock::now();
    CHECK(look(folder).today.size() == 1000);
    // Generous for a busy machine: the benchmark has the figure.
    CHECK(std::chrono::steady_clock::now() - begun < std::chrono::seconds(3));
}

TEST_CASE("what came of the workshop's rules is counted over all jobs") {
    const Folder folder;
    for (int i = 0; i < 8; ++i) {
        Job job = jobs().back();
        job.bench.outcomes.push_back({"2026-06-01", "closed hole", i < 2, 40, ""});
        put(folder, "job" + std::to_string(i), job_to_text(job));
    }
    const BenchToday today = look(folder);
    REQUIRE(today.evidence.size() == 1);
    CHECK(today.evidence.front().failed == 2);
    CHECK(today.evidence.front().held == 6);
    CHECK(today.evidence.front().failed_least < 0.25);
    CHECK(today.evidence.front().failed_most > 0.25);
    // Of all jobs, whatever is looked for among them.
    CHECK(look(folder, "nowhere").jobs.empty());
    CHECK(look(folder, "nowhere").evidence.front().failed == 2);
}

TEST_CASE("edits of one kind within the hour are one line of the diary") {
    std::vector<DiaryLine> diary;
    for (int tooth = 1; tooth <= 12; ++tooth)
        write_diary(diary, "2026-11-30 10:" + std::to_string(10 + tooth), "Tooth " + std::to_string(tooth));
    CHECK(diary.size() == 1);
    CHECK(diary.front().times == 12);
    CHECK(diary.front().what == "Tooth 12");
    write_diary(diary, "2026-11-30 11:05", "Tooth 13");
    write_diary(diary, "2026-11-30 11:06", "Scope changed");
    CHECK(diary.size() == 3);
}

TEST_CASE("a paper of a job is one file in plain words, and nothing that was typed becomes part of the page") {
    for (const Job& job : jobs())
        for (const char* paper : {"job sheet", "estimate", "condition", "done"})
            for (const char* reader : {"owner", "colleague"}) {
                JobSheetInput in;
                in.job = job, in.paper = paper, in.reader = reader, in.now = this_morning;
                const std::string html = job_sheet(in).html;
                CHECK(html.starts_with("<!DOCTYPE html>"));
                CHECK(html.find("</html>") != std::string::npos);
                CHECK(html.find(" src=\"http") == std::string::npos);
            }
    Job job = jobs().back();
    job.title = "A <clock> & \"more\"", job.bench.dangers = {"mercury"};
    JobSheetInput in;
    in.job = job;
    const std::string html = job_sheet(in).html;
    CHECK(html.find("<clock>") == std::string::npos);
    CHECK(html.find("A &lt;clock&gt; &amp; &quot;more&quot;") != std::string::npos);
    CHECK(html.find(caution("mercury")->what_to_do.substr(0, 20)) != std::string::npos);
}

TEST_CASE("every caution says what to do and leaves the last word to local rules") {
    CHECK(cautions().size() >= 11);
    for (const Caution& one : cautions()) CHECK_THAT(one.what_to_do, Catch::EndsWith("Local rules and qualified practice first."));
    for (const Job& job : jobs())
        for (const JobStep& step : order(job).steps)
            if (!step.caution.empty()) CHECK(caution(step.caution));
}

TEST_CASE("what is typed on the bench's sheets goes where it belongs, and what cannot be is said") {
    Job job = jobs().back();
    type_into_bench(job, "outcome", "closed hole: failed, 26 weeks");
    type_into_bench(job, "outcome", "old spring kept: held");
    REQUIRE(job.bench.outcomes.size() == 2);
    CHECK(job.bench.outcomes[0].failed);
    CHECK(job.bench.outcomes[0].weeks == 26);
    CHECK_FALSE(job.bench.outcomes[1].failed);
    CHECK_THROWS_WITH(type_into_bench(job, "outcome", "it runs"), Catch::StartsWith("outcome"));
    type_into_bench(job, "new way", "the strike's spring");
    type_into_bench(job, "new way", "the strike's spring");
    type_into_bench(job, "way.1.hours", "2.5");
    type_into_bench(job, "way.1.chosen", "true");
    type_into_bench(job, "way.2.way", "leave");
    type_into_bench(job, "way.2.chosen", "true");
    // Of ways about the same one is chosen.
    CHECK_FALSE(job.bench.alternatives[0].chosen);
    CHECK(job.bench.alternatives[1].chosen);
    CHECK(job.bench.alternatives[1].way == "leave");
    CHECK_THROWS_AS(type_into_bench(job, "way.2.way", "wish"), InputError);
    CHECK_THROWS_AS(type_into_bench(job, "promised_rate_s", "soon"), InputError);
    mark_step({"scope", "waits", "x", "", "", {}}).change(job.bench);
    type_into_bench(job, "wait.scope.until", "2026-12-24 10:00");
    CHECK(job.bench.mark("scope")->until == "2026-12-24 10:00");
    const JobOrder at = order(job);
    CHECK_FALSE(bench_worth_sheet(job, at).found.empty());
    CHECK_FALSE(bench_job_sheet(job, at).asked.empty());
}

TEST_CASE("a wait is said in hours, days or by its date, with what it is for, and never ends in the past") {
    CHECK(wait_from("glue", this_morning, "4 h, glue").until == "2026-11-30 14:00");
    CHECK(wait_from("glue", this_morning, "4 h, glue").because == "glue");
    CHECK(wait_from("lacquer", this_morning, "3 days").until == "2026-12-03 10:00");
    CHECK(wait_from("bush", this_morning, "2026-12-04, the bush").until == "2026-12-04");
    CHECK(wait_from("bush", this_morning, "2026-11-30 16:30").until == "2026-11-30 16:30");
    CHECK(wait_from("scope", this_morning, "the owner's word").until.empty());
    CHECK(wait_from("scope", this_morning, "the owner's word, by letter").because == "the owner's word, by letter");
    for (const char* wrong : {"", "2026-11-29", "2026-13-01", "3 moons", "0 h"})
        CHECK_THROWS_AS(wait_from("x", this_morning, wrong), InputError);
}

TEST_CASE("minutes of a step are the middle one of what such steps took in this workshop") {
    const Job job = demo::job();
    const Derived derived = derive(job);
    const std::vector<TimeTaken> times = {
        {"bench", "receive", 12}, {"bench", "receive", 30}, {"bench", "receive", 18}, {"wheel", "receive", 99}};
    const JobOrder usual = order_of_work(job, derived, this_morning), learnt = order_of_work(job, derived, this_morning, times);
    const auto by_id = [](const JobOrder& order) {
        return std::find_if(order.steps.begin(), order.steps.end(), [](const JobStep& one) { return one.id == "receive"; });
    };
    REQUIRE(by_id(learnt) != learnt.steps.end());
    CHECK(by_id(learnt)->minutes == 18);
    CHECK(by_id(learnt)->learnt);
    CHECK_FALSE(by_id(usual)->learnt);
}

TEST_CASE("a look through the folder that is stopped tells what it saw, and goes on from there") {
    const Folder folder;
    for (int i = 0; i < 40; ++i) {
        Job job = demo::job();
        job.title = "Clock " + std::to_string(i);
        save_job(folder / ("clock-" + std::to_string(100 + i) + ".echappe.json"), job);
    }
    BenchTodayInput in;
    in.folder = folder.path.string(), in.now = this_morning;
    std::stop_source enough;
    LookAids aids;
    aids.stop = enough.get_token();
    size_t of_all = 0;
    aids.seen = [&](size_t seen, size_t of) {
        of_all = of;
        if (seen == 15) enough.request_stop();
    };
    CHECK(bench_today(in, aids).jobs.size() == 15);
    CHECK(of_all == 40);
    CHECK(bench_today(in).jobs.size() == 40);
}

TEST_CASE("what waits holds up all that comes after it, however far, though steps between were done already") {
    Job job = demo::job("granary");
    const JobOrder waits = order(job);
    REQUIRE(waits.step("dismantle")->state == "waits");
    REQUIRE(waits.step("peg"));
    mark_step({"clean", "done", "", "", "", {}}).change(job.bench);
    mark_step({"peg", "done", "", "", "", {}}).change(job.bench);
    const JobOrder held = order(job);
    for (const JobStep& step : held.steps)
        if (&step > held.step("dismantle")) CHECK(step.held_up);
    if (const JobStep* next = held.next()) CHECK(next < held.step("dismantle"));
    CHECK_FALSE(held.step("receive")->held_up);
}

TEST_CASE("a run on test gathers what the rate log has of its time, and nothing from before it") {
    TestRun run;
    run.begun = "2026-11-20 09:00", run.ended = "2026-11-22 09:00";
    RateLog log;
    const double begun = *time_s(run.begun);
    CHECK(begun == 1795165200);  // by another calendar: date -u -d "2026-11-20 09:00" +%s
    log.looks = {{begun - 3600, begun - 3600, 3.0}, {begun + 3600, begun + 3601, 14.0}, {begun + 90000, begun + 90002, 17.5}};
    HeardRate heard;
    heard.reference_s = begun + 90000, heard.rate_s_per_day = -12.5, heard.beat_error_ms = 4;
    log.heard = {heard};
    const std::string words = gathered_on(run, log);
    CHECK_THAT(words, Catch::Contains("Looked at 2 times, 14.0 to 17.5"));
    CHECK_THAT(words, Catch::Contains("12.5"));
    log.looks.resize(1), log.heard.clear();
    CHECK(gathered_on(run, log).empty());
}

TEST_CASE("of a clock that went home nobody is told to begin a run on test") {
    Job job = demo::job();
    job.bench.runs.clear();
    CHECK_THAT(order(job).ready.verdict, Catch::Contains("begin one"));
    close_job("2026-11-30", "").change(job.bench);
    CHECK_THAT(order(job).ready.verdict, Catch::Contains("without a run on test"));
}
