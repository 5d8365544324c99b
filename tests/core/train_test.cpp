#include <rapidcheck/catch.h>

#include "number/input_error.h"
#include "train/train.h"

using namespace echappe;

namespace {

ArborInput arbor(const std::string& id, Count pinion, Count wheel) {
    ArborInput a;
    a.id = id;
    a.pinion = pinion;
    a.wheel = wheel;
    return a;
}

TrainInput regulator() {
    TrainInput in;
    in.arbors = {arbor("great", {}, 144), arbor("centre", 12, 96), arbor("third", 12, 90), arbor("escape", 12, 30)};
    in.reference = {"centre", Rational(3600), "cw"};
    in.escape_arbor = "escape";
    return in;
}

std::string refusal(const TrainInput& in) {
    try {
        run_train(in);
    } catch (const InputError& error) {
        return error.what();
    }
    return "";
}

}  // namespace

TEST_CASE("a seconds regulator of 96/12, 90/12 and 30 teeth beats 3600 an hour exactly") {
    const TrainResult out = run_train(regulator());
    CHECK(*out.beats_per_hour_exact == "3600/1");
    CHECK(out.arbors[3].period_s_exact == Rational(60));
    CHECK(out.arbors[2].period_s_exact == Rational(450));
    CHECK(out.arbors[0].period_s_exact == Rational(43200));
}

TEST_CASE("neighbouring arbors turn opposite ways") {
    const TrainResult out = run_train(regulator());
    CHECK(out.arbors[0].direction == "ccw");
    CHECK(out.arbors[1].direction == "cw");
    CHECK(out.arbors[2].direction == "ccw");
    CHECK(out.arbors[3].direction == "cw");
}

TEST_CASE("a watch of 80/10, 75/10, 80/8 and 15 teeth beats 18000") {
    TrainInput in;
    in.arbors = {arbor("centre", {}, 80), arbor("third", 10, 75), arbor("fourth", 10, 80), arbor("escape", 8, 15)};
    in.reference.arbor = "centre";
    in.escape_arbor = "escape";
    const TrainResult out = run_train(in);
    CHECK(*out.beats_per_hour == 18000);
    CHECK(out.arbors[2].period_s == 60);
}

TEST_CASE("motion work of 36/12 and 40/10 turns the hour wheel once in twelve hours, the same way as the minute hand") {
    TrainInput in;
    in.arbors = {arbor("centre", {}, {}), arbor("minute", 36, 10), arbor("hour", 40, {})};
    in.arbors[0].wheels = {{"cannon", 12, {"minute"}}};
    in.arbors[2].coaxial_with = "centre";
    in.arbors[1].drives = {{"hour"}};
    in.reference.arbor = "centre";
    const TrainResult out = run_train(in);
    CHECK(out.arbors[2].period_s_exact == Rational(43200));
    CHECK(out.arbors[2].direction == "cw");
    CHECK_FALSE(out.beats_per_hour.has_value());
}

TEST_CASE("an arbor may drive two, each at its own speed") {
    TrainInput in = regulator();
    in.arbors.push_back(arbor("tide", 20, {}));
    in.arbors[1].wheel = Count();
    in.arbors[1].wheels = {{"wheel", 96, {"third"}}, {"tide", 50, {"tide.pinion"}}};
    const TrainResult out = run_train(in);
    CHECK(*out.beats_per_hour == 3600);
    CHECK(out.arbors[4].period_s_exact == Rational(1440));
}

TEST_CASE("a decimal period is the exact decimal") {
    TrainInput in = regulator();
    in.reference.period_s = Rational::parse("3590.17");
    CHECK(run_train(in).arbors[3].period_s_exact == Rational(359017, 6000));
}

TEST_CASE("trains that cannot be are refused with the place") {
    TrainInput in = regulator();
    in.arbors[3].id = "third";
    CHECK(refusal(in) == "arbors[3].id: got \"third\" a second time, takes an id used once");
    in = regulator();
    in.arbors[2].wheel = Count::lost();
    CHECK(refusal(in) == "arbors[2].wheel: got null, takes 4 to 1000");
    in = regulator();
    in.arbors[2].pinion = Count();
    CHECK(refusal(in) == "arbors[2].pinion: got nothing, although \"centre.wheel\" drives it, takes 4 to 200");
    in = regulator();
    in.arbors[2].drives = {{"fifth"}};
    CHECK_THAT(refusal(in), Catch::StartsWith("arbors[2].drives[0]: got \"fifth\""));
    in = regulator();
    in.reference.arbor = "center";
    CHECK_THAT(refusal(in), Catch::StartsWith("reference.arbor: got \"center\""));
    in = regulator();
    in.arbors[0].drives = {{"centre", "third"}};
    in.arbors[1].drives = {{"third"}};
    CHECK_THAT(refusal(in), Catch::Contains("driven once"));
    in = regulator();
    in.arbors.push_back(arbor("loose", 10, 40));
    CHECK_THAT(refusal(in), Catch::Contains("no wheel joins to the reference"));
    in = regulator();
    in.escape_arbor = "centre";
    in.arbors[1].drives = {{"third"}};
    CHECK_THAT(refusal(in), Catch::Contains("escape arbor"));
    CHECK_THAT(refusal(TrainInput()), Catch::StartsWith("arbors: got an empty list"));
}

TEST_CASE("a ring of wheels is refused") {
    TrainInput in;
    in.arbors = {arbor("a", 10, 40), arbor("b", 10, 40), arbor("c", 10, 40)};
    in.arbors[2].drives = {{"a"}};
    in.reference.arbor = "a";
    CHECK_THAT(refusal(in), Catch::Contains("ring"));
}

TEST_CASE("a train whose exact ratio needs more than 127 bits is refused, not rounded") {
    TrainInput in;
    in.arbors.push_back(arbor("a0", {}, 997));
    for (int i = 1; i < 20; ++i) in.arbors.push_back(arbor("a" + std::to_string(i), 199, 997));
    in.reference.arbor = "a0";
    CHECK_THAT(refusal(in), Catch::Contains("127 bits"));
}

TEST_CASE("periods scale with the reference and turns are their inverse") {
    rc::prop("n/N by n/N, whatever the counts", [] {
        const long long N = *rc::gen::inRange(20, 300);
        const long long n = *rc::gen::inRange(6, 60);
        const long long k = *rc::gen::inRange(1, 50);
        TrainInput in;
        in.arbors = {arbor("a", {}, N), arbor("b", n, {})};
        in.reference = {"a", Rational(60 * k), "ccw"};
        const TrainResult out = run_train(in);
        RC_ASSERT(out.arbors[1].period_s_exact * Rational(N) == Rational(60 * k * n));
        RC_ASSERT(std::abs(out.arbors[1].turns_per_hour * out.arbors[1].period_s - 3600) < 1e-9);
        RC_ASSERT(out.arbors[1].direction == "cw");
    });
    rc::prop("told from the driven end it comes out the same", [] {
        const long long N = *rc::gen::inRange(20, 300);
        const long long n = *rc::gen::inRange(6, 60);
        TrainInput in;
        in.arbors = {arbor("a", {}, N), arbor("b", n, {})};
        in.reference = {"b", Rational(60), "cw"};
        RC_ASSERT(run_train(in).arbors[0].period_s_exact == Rational(60 * N, n));
    });
}

TEST_CASE("the workings of a period name the mesh and the exact fraction") {
    const TrainInput in = regulator();
    const auto workings = explain_train(in, run_train(in));
    REQUIRE(workings.size() == 4);
    CHECK(workings.back().name == "beats per hour");
    CHECK(workings[1].substituted() == "T = 3600 × 12 ÷ 96");
    CHECK_THAT(workings[1].notes.front(), Catch::Contains("450/1 s, turns ccw"));
}
