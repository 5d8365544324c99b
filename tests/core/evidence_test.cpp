// The rarer kinds of evidence: runs, directions, fragments, bounds, doubted counts, and loss in several places.
#include <catch2/catch.hpp>

#include "job/derived.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "support/demo.h"

using namespace echappe;

namespace {

// Speed is a promise of the release build; sanitizers and coverage are several times slower.
#ifdef NDEBUG
#else
#endif

/// great 96 → centre 8/64 → third 8/60 → escape 8/30 and, from the great wheel, a moon branch 10/40 → 7/118.
RestoreInput branched() {
    RestoreInput input;
    const auto arbor = [](const char* id, Count pinion, Count wheel, std::optional<std::vector<std::string>> drives = {}) {
        ArborInput a;
        a.id = id;
        a.pinion = pinion;
        a.wheel = wheel;
        a.drives = std::move(drives);
        return a;
    };
    input.train.arbors = {
        arbor("great", {}, 96, {{"centre", "idler"}}),      arbor("centre", 8, 64, {{"third"}}), arbor("third", 8, 60, {{"escape"}}),
        arbor("escape", 8, 30, std::vector<std::string>{}), arbor("idler", 12, 40, {{"moon"}}),  arbor("moon", 10, Count())};
    input.train.reference = {"centre", Rational(3600), "cw"};
    input.train.escape_arbor = "escape";
    return input;
}

/// centre to escape 64/8 × 60/8 = 60; the great wheel turns once in 12 h.
constexpr double true_beats = 60 * 30 * 2;
constexpr double great_period_s = 12 * 3600;

long long best(const RestoreResult& out, const char* part) { return out.candidates.front().counts.at(part); }

}  // namespace

TEST_CASE("the run per winding counts a lost great wheel") {
    RestoreInput input = branched();
    input.unknown = {"great.wheel"};
    // 16 turns of the barrel in eight days: 43 200 s a turn, so 96 teeth on 8 leaves.
    Evidence run = demo::of_arbor("run_s", "great", 16 * great_period_s, 3600);
    run.turns = 16;
    input.evidence = {run};
    CHECK(best(restore_train(input), "great.wheel") == 96);
    run.turns.reset();
    input.evidence = {run};
    CHECK_THROWS_WITH(restore_train(input), Catch::StartsWith("evidence[0].turns: got nothing"));
}

TEST_CASE("a fragment of the rim tells the count: n spaces stand over 360 n / N degrees") {
    RestoreInput input = branched();
    input.unknown = {"third.wheel"};
    Evidence fragment = demo::of_arbor("wheel_fragment_deg", "third", 66.0, 0.4);
    fragment.teeth = 11;  // 360 × 11 / 66 = 60 teeth
    input.evidence = {fragment};
    const RestoreResult out = restore_train(input);
    CHECK(best(out, "third.wheel") == 60);
    CHECK(out.candidates.front().strain.front().predicted == Approx(66.0));
    // A half space more or less is a degree and more: the neighbours are all but excluded.
    CHECK(out.candidates.front().weight > 0.5);
}

TEST_CASE("a lost escape wheel is found from the beat") {
    RestoreInput input = branched();
    input.unknown = {"escape.wheel"};
    input.evidence = {{{"beats_per_hour", {}, {}, {}}, true_beats, 1}};
    CHECK(best(restore_train(input), "escape.wheel") == 30);
    input.evidence = {{{"pendulum_length_mm", {}, {}, {}}, 994, 4}};  // the seconds pendulum: 993.6 mm at 9.80665
    CHECK(best(restore_train(input), "escape.wheel") == 30);
}

TEST_CASE("a case that bounds the pendulum excludes slower beats and says nothing of quicker ones") {
    RestoreInput input = branched();
    input.unknown = {"escape.wheel"};
    input.limits.wheel = {15, 60};
    input.evidence = {{{"case_length_mm", {}, {}, {}}, 1000, 5}};
    const RestoreResult out = restore_train(input);
    double slower = 0;
    double quicker = 0;
    for (const Candidate& candidate : out.candidates) (candidate.counts.at("escape.wheel") < 30 ? slower : quicker) += candidate.weight;
    // 29 teeth would want 1063 mm: 13 sigma over.
    CHECK(slower < 1e-6);
    CHECK(quicker == Approx(1).margin(1e-6));
    CHECK(out.entropy_bits > 3);
    CHECK_FALSE(out.conflict);
}

TEST_CASE("no count can turn a hand the other way, so a wrong direction names the missing arbor") {
    RestoreInput input = branched();
    input.unknown = {"idler.wheel"};
    // centre cw, great ccw, idler cw, moon ccw: each mesh turns it round.
    Evidence hand{{"direction", "moon", {}, {}}, 0, 0, {}, {}, "ccw"};
    input.evidence = {hand, demo::of_arbor("period_s", "moon", 12 * 3600 * 12.0 / 96 * 10 / 40, 0.1)};
    RestoreResult out = restore_train(input);
    CHECK_FALSE(out.conflict);
    CHECK(best(out, "idler.wheel") == 40);
    input.evidence.front().direction = "cw";
    out = restore_train(input);
    REQUIRE(out.conflict);
    CHECK(out.conflict->evidence->kind == "direction");
    CHECK_THAT(out.conflict->reason, Catch::Contains("an arbor (or an idle wheel) is missing"));
    CHECK(best(out, "idler.wheel") == 40);
}

TEST_CASE("counts lost in different branches are found each from its own evidence") {
    RestoreInput input = branched();
    input.unknown = {"third.wheel", "moon.pinion", "escape.wheel"};
    Evidence fragment = demo::of_arbor("wheel_fragment_deg", "escape", 72, 1);
    fragment.teeth = 6;  // 30 teeth
    input.evidence = {{{"beats_per_hour", {}, {}, {}}, true_beats, 1},
                      fragment,
                      demo::of_arbor("period_s", "moon", great_period_s * 12 / 96 * 10 / 40, 1)};
    const RestoreResult out = restore_train(input);
    CHECK(out.considered == 131LL * 131 * 16);
    CHECK(best(out, "third.wheel") == 60);
    CHECK(best(out, "moon.pinion") == 10);
    CHECK(best(out, "escape.wheel") == 30);
}

TEST_CASE("three wheels lost at once are all weighed") {
    RestoreInput input = branched();
    input.unknown = {"third.wheel", "centre.wheel", "escape.wheel"};
    input.evidence = {{{"beats_per_hour", {}, {}, {}}, true_beats, 1}};
    const RestoreResult out = restore_train(input);
    CHECK(out.considered == 131LL * 131 * 131);
    // Every candidate listed first keeps time.
    for (size_t i = 0; i < 10; ++i) CHECK(*out.candidates[i].beats_per_hour == Approx(true_beats).margin(3));
}

TEST_CASE("a doubted count yields to the evidence and holds without it") {
    RestoreInput input = branched();
    input.train.arbors[2].wheel = 64;  // a repairer's third wheel: loses an hour in fifteen
    input.doubtful = {{"third.wheel", 0.9}};
    input.evidence = {{{"beats_per_hour", {}, {}, {}}, true_beats, 1}};
    CHECK(best(restore_train(input), "third.wheel") == 60);
    input.evidence.clear();
    const RestoreResult alone = restore_train(input);
    CHECK(best(alone, "third.wheel") == 64);
    // The prior itself: nine tenths for what was found (the rest a little less for unusual counts).
    CHECK(alone.candidates.front().weight == Approx(0.9).margin(0.05));
    input.doubtful = {{"fifth.wheel", 0.9}};
    CHECK_THROWS_WITH(restore_train(input), Catch::StartsWith("doubtful[0].part"));
}

TEST_CASE("long weighing tells how far it is and ends when it is told to") {
    RestoreInput input = branched();
    input.unknown = {"third.wheel", "centre.wheel", "escape.wheel"};
    double last = 0;
    bool rising = true;
    std::stop_source source;
    const auto watch = [&](double done) {
        rising = rising && done >= last;
        last = done;
        if (done > 0.1) source.request_stop();
    };
    CHECK_FALSE(restore_train(input, {source.get_token(), watch}).complete);
    CHECK(rising);
    last = 0;
    input.unknown = {"third.wheel"};
    CHECK(restore_train(input, {{}, [&](double done) { last = done; }}).complete);
    CHECK(last == 1);
}

TEST_CASE("a chord over three tooth spaces tells a module to half a per cent, one over ten does not") {
    const auto short_by = [&](double teeth, double spaces) { return 1 - teeth * std::sin(spaces * pi / teeth) / (spaces * pi); };
    CHECK(short_by(60, 3) == Approx(0.004).margin(0.0005));
    CHECK(short_by(100, 3) == Approx(0.0015).margin(0.0002));
    CHECK(short_by(60, 10) / short_by(60, 3) == Approx(100.0 / 9).epsilon(0.03));
    for (const EvidenceKind& kind : evidence_kinds())
        if (kind.id == "module_mm") CHECK(kind.how.find("three tooth spaces") != std::string::npos);
}
