#include "train/structure.h"

#include <catch2/catch.hpp>

#include "job/file.h"
#include "job/new_job.h"
#include "support/changes.h"
#include "support/demo.h"
#include "topic.h"
#include "train/counting.h"
#include "train/edits.h"

using namespace echappe;

namespace {

Job changed(Job job, const Edit<TrainRecord>& edit) {
    edit.change(job.train);
    return job;
}

std::string ids_of(const TrainRecord& train) {
    std::string all;
    for (const std::string& id : train.trains.front().arbors) all += (all.empty() ? "" : " ") + train.name_of_arbor(id);
    return all;
}

std::string text_of(const Job& job) { return write_down(job.train, job.teeth); }

}  // namespace

TEST_CASE("an arbor put between two is driven by the one and drives the other") {
    const Job job = new_job("144, 12/96, 12/30");
    const Job more = changed(job, add_above(job.train, "going", "centre"));
    CHECK(ids_of(more.train) == "Great Centre Third Escape");
    CHECK(text_of(more) == "great 144, centre 12/96, third ?/?, escape 12/30\ncentre 1 h");
    CHECK(more.train.escape_arbor == "escape");
    // Once counted it keeps time as a train written so from the beginning.
    Job counted = changed(more, set_count(more.train.trains[0].arbors[2] + ".wheel", "90"));
    counted = changed(counted, set_count(more.train.trains[0].arbors[2] + ".pinion", "12"));
    CHECK(derive(counted).train.beats_per_hour == 3600);
}

TEST_CASE("above the escape wheel the new arbor carries it") {
    const Job job = new_job("144, 12/96, 12/30");
    const Job more = changed(job, add_above(job.train, "going", "escape"));
    CHECK(text_of(more) == "great 144, centre 12/96, escape 12/30, third ?/?\ncentre 1 h");
    CHECK(more.train.escape_arbor == more.train.trains[0].arbors.back());
}

TEST_CASE("below the great wheel the power comes in anew") {
    const Job job = new_job("144, 12/96, 12/30");
    const Job more = changed(job, add_below(job.train, "going", "great"));
    CHECK(more.train.trains[0].arbors.size() == 4);
    CHECK(more.train.arbor("great")->train.pinion == Count::lost());
    CHECK(text_of(more).starts_with("third ?, great ?/144, centre 12/96"));
    CHECK(derive(more).train.problem.empty());
}

TEST_CASE("what is taken away joins what it parted, and is kept with its readings") {
    Job job = new_job("144, 12/96, 12/90, 12/30");
    job.train.measurements.push_back({"d", {{"centre_distance_mm", {}, "centre", "third"}, 35.1, 0.05}, "calliper", "", "", false});
    CHECK(driven_by(job.train, "third") == std::vector<std::string>{"Escape"});
    const Job less = changed(job, take_away(job.train, "third"));
    CHECK(text_of(less) == "great 144, centre 12/96, escape 12/30\ncentre 1 h");
    CHECK(less.train.gone.front().train.wheel == Count(90));
    CHECK(less.train.measurements.size() == 1);
    CHECK(job_from_text(job_to_text(less)).faults.empty());
}

TEST_CASE("the arbor whose turn is known hands it on when it goes: the beat of the rest stays") {
    const Job job = new_job("144, 12/96, 12/90, 12/30");
    const Job less = changed(job, take_away(job.train, "centre"));
    CHECK(less.train.reference.arbor == "great");
    CHECK(less.train.reference.period_s == Rational(12 * 3600));
    CHECK(less.train.reference.direction == "ccw");
}

TEST_CASE("a branch begins a train of its own on the ladder, by a wheel of its own") {
    const Job job = new_job("144, 12/96, 12/90, 12/30");
    const Job more = changed(job, add_branch(job.train, "centre"));
    REQUIRE(more.train.trains.size() == 2);
    CHECK(more.train.trains[1].name == "From Centre");
    CHECK(more.train.arbor("centre")->train.wheels.size() == 1);
    CHECK(derive(more).train.beats_per_hour == 3600);
}

TEST_CASE("a hand, a turn and an escape wheel are told where they are, in words that can be refused") {
    const Job job = new_job("144, 12/96, 12/90, 12/30");
    CHECK(changed(job, set_hand(job.train, "escape", "seconds")).train.arbor("escape")->hand == "seconds");
    CHECK_THROWS_AS(set_hand(job.train, "escape", "noon"), InputError);
    const Job slow = changed(job, set_period(job.train, "great", "6 h left"));
    CHECK(slow.train.reference.arbor == "great");
    CHECK(slow.train.reference.period_s == Rational(6 * 3600));
    CHECK(slow.train.reference.direction == "ccw");
    for (const char* wrong : {"", "soon", "1", "-1 h", "1 h, 144", "0 s"})
        CHECK_THROWS_AS(set_period(job.train, "great", wrong), InputError);
    CHECK_THROWS_AS(changed(job, set_escape(job.train, "centre")), InputError);
    CHECK_THROWS_AS(take_away(job.train, "nobody"), InputError);
    CHECK_THROWS_AS(rename_arbor(job.train, "great", "  "), InputError);
    CHECK(changed(job, set_winding("16.3")).train.winding_turns == 16.3);
    CHECK_THROWS_AS(set_winding("many"), InputError);
}

TEST_CASE("a count is read in one way, whoever types it, and is as large as its side of the arbor takes") {
    for (const char* text : {"96", "?", "96?", "96 80%", "96 7%", "96 12.5%", "96 assumed", "96? assumed"})
        CHECK(write_count(read_count("a.wheel", text)) == text);
    CHECK(read_count("a.wheel", " 96 ").count == Count(96));
    for (const char* wrong : {"", "x", "96 x", "96%", "96 0%", "96 100%", "96/12", "96, 12", "9 6", "-96", "96.5", "96??"})
        CHECK_THROWS_AS(read_count("a.wheel", wrong), InputError);
    Job job = new_job("144 + tide 64, 12 + cannon 10/96, 12/30");
    const auto put = [&](const char* part, const char* text) { set_count(part, text).change(job.train); };
    CHECK_THROWS_AS(put("centre.cannon", "500"), InputError);
    put("great.tide", "500");
    CHECK(job.train.arbor("great")->train.wheels[0].teeth == Count(500));
    CHECK_THROWS_AS(put("great.wheel", "3"), InputError);
    CHECK_THROWS_AS(put("great.tide", "64?"), InputError);
    put("great.wheel", "144 assumed");
    CHECK(count_as_typed(job.train, "great.wheel") == "144 assumed");
    put("great.wheel", "144");
    CHECK(job.train.arbor("great")->wheel_state == "counted");
    CHECK(job_from_text(job_to_text(job)).faults.empty());
}

TEST_CASE("counted again alike a count agrees, otherwise it is doubted once, and a further wheel is taken as it is counted") {
    const Job job = new_job("144 + tide 64, 12/96?, 12/30");
    const auto round = counting_round(job.train);
    const auto again = [&](const char* part, const char* text) {
        return count_again(*std::find_if(round.begin(), round.end(), [&](const CountQuestion& q) { return q.part == part; }), text);
    };
    const auto after = [&](const char* part, const char* text) { return count_as_typed(changed(job, again(part, text).edit).train, part); };
    CHECK(again("great.wheel", "144").agrees);
    CHECK(after("great.wheel", "144") == "144");
    CHECK(after("great.wheel", "143") == "143?");
    CHECK(after("great.wheel", "143 80%") == "143 80%");
    CHECK(after("centre.wheel", "95") == "95");
    CHECK(after("centre.wheel", "96") == "96");
    CHECK(after("great.tide", "65") == "65");
    CHECK_FALSE(again("great.tide", "65").agrees);
}

TEST_CASE("any twenty-five changes of structure leave a job that is whole, derives and reads back the same") {
    int done = 0;
    REQUIRE(rc::check("a hundred times twenty-five", [&] {
        Job job = *rc::gen::arbitrary<bool>() ? demo::job() : Job();
        for (int i = 0; i < 25; ++i) {
            const auto edit = movements::any_change(job.train, i);
            if (!edit) continue;
            Job after = job;
            try {
                edit->change(after.train);
            } catch (const InputError&) {
                continue;  // refused with a word: the job is as it was
            }
            RC_LOG() << edit->name << "\n";
            const LoadedJob again = job_from_text(job_to_text(after));
            RC_ASSERT(again.faults.empty());
            RC_ASSERT(again.job == after);
            if (i % 5 == 0) {
                const std::string problem = derive(after).train.problem;
                RC_LOG() << problem << "\n";
                RC_ASSERT(problem.empty());
            }
            if (i % 5 == 0) {
                const Written back = read_written(text_of(after), after.train, after.teeth);
                RC_LOG() << text_of(after) << "\n";
                for (const WrittenFault& fault : back.faults)
                    RC_LOG() << "at " << fault.at << ": " << fault.got << ", " << fault.accepts << "\n";
                RC_ASSERT(back.faults.empty());
            }
            job = std::move(after);
            ++done;
        }
    }));
    CHECK(done >= 1000);
}

namespace {

/// "great > centre, third": what each drives, from the power up.
std::string told(const TrainRecord& train) {
    std::string out;
    for (const TrainList& list : train.trains) {
        out += out.empty() ? "" : "; ";
        for (const std::string& id : list.arbors) out += (id == list.arbors.front() ? "" : " > ") + train.name_of_arbor(id);
    }
    return out;
}

}  // namespace

TEST_CASE("an arbor goes elsewhere with its counts – what it drove is driven by what drove it, and back again is where it began") {
    Job job = new_job("great 144, centre 12/96, third 12/90, escape 12/30\nstrike: strike great 84, pin 8/78, fly 7");
    const auto id = [&](const char* name) { return job.train.arbor_called(name)->train.id; };
    Job moved = changed(job, move_above(job.train, id("centre"), id("third")));
    CHECK(told(moved.train) == "Great > Third > Centre > Escape; Strike great > Pin > Fly");
    CHECK(moved.train.arbor(id("centre"))->train.wheel.value == 96);
    CHECK(moved.train.escape_arbor == id("escape"));
    CHECK(job_from_text(job_to_text(moved)).faults.empty());
    const Job back = changed(moved, move_below(moved.train, id("centre"), id("third")));
    CHECK(told(back.train) == told(job.train));
    // To another train, where the fly was the last.
    const Job across = changed(job, move_above(job.train, id("third"), id("pin")));
    CHECK(told(across.train) == "Great > Centre > Escape; Strike great > Pin > Third > Fly");
    CHECK(job_from_text(job_to_text(across)).faults.empty());
    // What drove nothing before drives now; the escape wheel is where the train ends.
    const Job lower = changed(job, move_below(job.train, id("escape"), id("great")));
    CHECK(told(lower.train) == "Escape > Great > Centre > Third; Strike great > Pin > Fly");
    CHECK(lower.train.escape_arbor == id("third"));
    CHECK_THROWS_AS(move_above(job.train, id("centre"), id("centre")), InputError);
}

TEST_CASE("a branch goes along with the arbor it is on, which cannot be moved into its own branch") {
    Job job = new_job("great 144, centre 12/96+64, third 12/90, escape 12/30\nfrom centre 64: 57/75, 87 tide hand");
    const auto id = [&](const char* name) { return job.train.arbor_called(name)->train.id; };
    const std::string hand = job.train.arbors.back().train.id;
    const Job moved = changed(job, move_above(job.train, id("centre"), id("third")));
    CHECK(told(moved.train).starts_with("Great > Third > Centre > Escape; Centre > "));
    CHECK(job_from_text(job_to_text(moved)).faults.empty());
    CHECK_THROWS_AS(move_above(job.train, id("centre"), hand), InputError);
}

TEST_CASE("every count keeps who took it, when and with what – counted again it has two lines, and the same typed over keeps one") {
    Job job = new_job("144, 12/96, 12/?, 12/30");
    const Taken first = {"Nell Tern", "2026-11-28", "by eye"}, second = {"Nell Tern", "2026-11-29", "photo"};
    const auto question = [&] {
        const auto round = counting_round(job.train);
        return *std::find_if(round.begin(), round.end(), [](const CountQuestion& q) { return q.words.starts_with("Third wheel"); });
    };
    count_again(question(), "90", first).edit.change(job.train);
    count_again(question(), "90", second).edit.change(job.train);
    const auto taken = job.train.counts_of(question().part);
    REQUIRE(taken.size() == 2);
    CHECK(TrainRecord::told_of_count(*taken[0]) == "90, by eye, by Nell Tern, 2026-11-28");
    CHECK(taken[1]->taken == second);
    TrainRecord before = job.train, now = job.train;
    set_count(question().part, "91").change(now);
    note_counts(now, before, first);
    CHECK(now.counts_of(question().part).back()->count == 91);
    CHECK(now.counts_of(question().part).size() == 2);
    note_counts(before, before, first);
    CHECK(before.counts_of(question().part).size() == 2);
    count_again(question(), "?", first).edit.change(job.train);
    CHECK(job.train.counts_of(question().part).size() == 2);
}
