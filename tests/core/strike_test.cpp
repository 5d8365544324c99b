#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <numeric>

#include "exchange/step.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "strike/count_wheel.h"
#include "strike/sequence.h"
#include "strike/snail.h"
#include "strike/strike_train.h"
#include "support/dxf_corners.h"

using namespace echappe;

namespace {

std::vector<Point> corners_in(const std::string& dxf, const std::string& layer) { return DxfCorners(dxf, layer).corners(); }

SnailInput bracket() {
    SnailInput in;
    in.tooth_pitch_deg = 1.8, in.tail_mm = 42, in.centre_distance_mm = 46, in.largest_mm = 17.5, in.pin_diameter_mm = 1.2;
    return in;
}

StrikeTrainInput eight_day() {
    StrikeTrainInput in;
    in.arbors.resize(5);
    const char* ids[] = {"great", "pin", "gathering", "warning", "fly"};
    const long long wheels[] = {84, 64, 56, 48, 0}, pinions[] = {0, 8, 8, 7, 6};
    for (size_t i = 0; i < 5; ++i) {
        in.arbors[i].id = ids[i];
        if (wheels[i]) in.arbors[i].wheel = wheels[i];
        if (pinions[i]) in.arbors[i].pinion = pinions[i];
    }
    in.pin_arbor = "pin", in.pins = 8;
    in.gathering = {"gathering"}, in.whole = {"warning"}, in.fly = "fly";
    return in;
}

std::vector<std::optional<long long>> struck(const StrikeSequenceInput& in) {
    std::vector<std::optional<long long>> all;
    for (const StruckHour& one : strike_sequence(in).sequence) all.push_back(one.strikes);
    return all;
}
using AllStruck = std::vector<std::optional<long long>>;

}  // namespace

TEST_CASE("twelve hours are 78 blows, with a single one at each half 90, twenty-four hours 300, quarters ten") {
    const auto total = [](const char* scheme) { return count_wheel({scheme, {}, 0, {}, {}, {}, {}, 2, "points"}).blows_total; };
    CHECK(total("hours") == 78);
    CHECK(total("hours-and-halves") == 90);
    CHECK(total("hours-24") == 300);
    CHECK(total("quarters") == 10);
    CountWheelInput custom;
    custom.scheme = "custom", custom.blows = {3, 1, 4, 1, 5};
    CHECK(count_wheel(custom).blows_total == 14);
}

TEST_CASE("a count wheel turned blow by blow for a day finds a slot after each hour's blows, and never before") {
    for (const char* scheme : {"hours", "hours-and-halves", "quarters", "hours-24"})
        for (const long long slot_units : {0, 1}) {
            CAPTURE(scheme, slot_units);
            CountWheelInput in;
            in.scheme = scheme, in.slot_units = slot_units, in.diameter_mm = 160;
            const CountWheelResult out = count_wheel(in);
            // A detent in the middle of the slots, half a slot wide: the wheel steps a unit, and the detent looks.
            const double half_slot = std::asin(0.3 * *out.unit_mm / 80) / rad_per_deg;
            double at = 0;
            for (int round = 0; round < 2; ++round)
                for (const CountWheelGroup& group : out.groups) {
                    for (long long step = 1; step <= group.blows + slot_units; ++step) {
                        at += out.unit_deg;
                        bool in_slot = false;
                        for (const CountWheelGroup& other : out.groups)
                            in_slot = in_slot || std::abs(std::remainder(at - other.slot_deg, 360)) < half_slot;
                        CHECK(in_slot == (step == group.blows + slot_units));
                    }
                }
            CHECK(at == Approx(720));
            CHECK(out.groups.back().to_deg == 360);
        }
}

TEST_CASE("a count wheel's outline written as DXF has its slots where the table says, to a micrometre, and its solid is as thick") {
    CountWheelInput in;
    in.diameter_mm = 70, in.slot_width_mm = 1.4, in.depth_mm = 5, in.format = "dxf";
    const CountWheelResult out = count_wheel(in);
    const std::vector<Point> corners = corners_in(*out.files.dxf, "outline");
    REQUIRE(corners.size() > out.groups.size());
    // The floor of each slot: two corners below the rim, the slot's width apart, its middle at the angle.
    std::vector<Point> floors;
    for (const Point& p : corners)
        if (std::hypot(p[0], p[1]) < 34) floors.push_back(p);
    REQUIRE(floors.size() == 2 * out.groups.size());
    for (size_t i = 0; i < out.groups.size(); ++i) {
        const Point &a = floors[2 * i], &b = floors[2 * i + 1];
        CHECK(std::hypot(a[0] - b[0], a[1] - b[1]) == Approx(1.4).margin(1e-3));
        const double angle = std::atan2(a[1] + b[1], a[0] + b[0]);
        CHECK(35 * std::abs(std::remainder(angle - out.groups[i].slot_deg * rad_per_deg, 2 * std::numbers::pi)) < 1e-3);
    }
    if (!step_available()) return;
    const double solid = step_volume_mm3(to_step(solid_of(in, out)));
    const double bore = in.bore_mm.value_or(0.12 * 70);
    CHECK(solid == Approx(2 * (area_mm2(out.outline) - std::numbers::pi * bore * bore / 4)).epsilon(1e-3));
}

TEST_CASE("slots that leave no rim between two strikes of one are refused, and a drawing wants a diameter") {
    CountWheelInput in;
    in.scheme = "hours-and-halves", in.diameter_mm = 60, in.slot_width_mm = 2.2;
    CHECK_THROWS_WITH(count_wheel(in), Catch::StartsWith("slot_width_mm: got 2.2"));
    in = {};
    in.format = "svg";
    CHECK_THROWS_WITH(count_wheel(in), Catch::StartsWith("diameter_mm"));
    in = {};
    in.scheme = "custom";
    CHECK_THROWS_WITH(count_wheel(in), Catch::StartsWith("blows"));
    in.scheme = "hours", in.blows = {2};
    CHECK_THROWS_WITH(count_wheel(in), Catch::StartsWith("blows"));
}

TEST_CASE("a rack that falls onto each step of its snail turns by one tooth more, found by turning it until its pin touches") {
    const SnailInput in = bracket();
    const SnailResult out = snail(in);
    REQUIRE(out.steps.size() == 12);
    CHECK(out.steps.front().radius_mm == 17.5);
    // The rack's arbor at 0, 0, the snail's on +x: turned in until the pin's circle meets the step's.
    const auto falls_to = [&](double radius) {
        double free = std::numbers::pi, touches = 0;
        for (int i = 0; i < 80; ++i) {
            const double at = (free + touches) / 2;
            const double away = std::hypot(42 * std::cos(at) - 46, 42 * std::sin(at)) - radius - 0.6;
            (away > 0 ? free : touches) = at;
        }
        return free;
    };
    const double one = falls_to(out.steps[0].radius_mm);
    for (size_t i = 0; i < 12; ++i)
        CHECK((one - falls_to(out.steps[i].radius_mm)) / rad_per_deg == Approx(1.8 * static_cast<double>(i)).margin(1e-9));
    // Its steps are not alike.
    CHECK(out.steps[0].radius_mm - out.steps[1].radius_mm != Approx(out.steps[10].radius_mm - out.steps[11].radius_mm).margin(1e-3));
}

TEST_CASE("without the centre distance the steps are alike: the tail's way for one tooth") {
    SnailInput in = bracket();
    in.centre_distance_mm.reset();
    const SnailResult out = snail(in);
    for (size_t i = 1; i < 12; ++i) CHECK(out.steps[i - 1].radius_mm - out.steps[i].radius_mm == Approx(42 * 1.8 * std::numbers::pi / 180));
    in.largest_mm = 14;
    CHECK_THROWS_WITH(snail(in), Catch::StartsWith("largest_mm"));
}

TEST_CASE("a worn step lets the rack fall too far by part of a tooth, and from half of one on it strikes one more") {
    SnailInput in = bracket();
    for (const SnailStep& step : snail(in).steps) in.measured_mm.push_back(step.radius_mm);
    for (const SnailStep& step : snail(in).steps) {
        CHECK(*step.off_teeth == Approx(0).margin(1e-9));
        CHECK(*step.strikes == step.hour);
    }
    const double high = in.measured_mm[4] - in.measured_mm[5];
    in.measured_mm[4] -= 0.7 * high;
    const SnailResult worn = snail(in);
    CHECK(*worn.steps[4].strikes == 6);
    CHECK(*worn.steps[4].off_teeth == Approx(0.7).margin(0.02));
    CHECK_THAT(worn.warnings.front(), Catch::Contains("The step for 5"));
    in.measured_mm.pop_back();
    CHECK_THROWS_WITH(snail(in), Catch::StartsWith("measured_mm: got 11"));
}

TEST_CASE("a snail as DXF has its steps to a micrometre") {
    SnailInput in = bracket();
    in.format = "dxf";
    const SnailResult out = snail(in);
    const std::vector<Point> corners = corners_in(*out.files.dxf, "outline");
    for (size_t i = 0; i < 12; ++i) {
        const double middle = (static_cast<double>(i) + 0.5) * 30 * rad_per_deg;
        double nearest = 1e9, radius = 0;
        for (const Point& p : corners)
            if (const double off = std::abs(std::remainder(std::atan2(p[1], p[0]) - middle, 2 * std::numbers::pi)); off < nearest)
                nearest = off, radius = std::hypot(p[0], p[1]);
        CHECK(radius == Approx(out.steps[i].radius_mm).margin(1e-3));
    }
}

TEST_CASE("eight pins under a wheel of 64 and a pinion of 8 gather once a blow, and the warning goes eight times round") {
    StrikeTrainInput in = eight_day();
    in.days = 8;
    const StrikeTrainResult out = strike_train(in);
    CHECK(out.faults.empty());
    const char* turns[] = {"1/84", "1/8", "1/1", "8/1", "64/1"};
    for (size_t i = 0; i < 5; ++i) CHECK(out.turns_per_blow[i].turns == turns[i]);
    // 156 blows a day, eight days.
    CHECK(*out.great_turns == Approx(8 * 156 / 84.0));
    CHECK(*out.fly_rpm == Approx(64 * 30));
    in.days.reset(), in.great_turns = 16;
    CHECK(*strike_train(in).days == Approx(16 * 84 / 156.0));
    in.days = 8;
    CHECK_THROWS_WITH(strike_train(in), Catch::StartsWith("days"));
}

TEST_CASE("of a count that is wrong every single mend is found, as trying all counts finds them") {
    StrikeTrainInput in = eight_day();
    in.arbors[2].wheel = 54;
    const StrikeTrainResult out = strike_train(in);
    REQUIRE(out.faults.size() == 1);
    CHECK(out.faults[0].id == "warning");
    const auto right = [](long long pins, long long pin_wheel, long long gathering_pinion, long long gathering_wheel, long long pinion) {
        const bool once = pin_wheel == pins * gathering_pinion;
        return once && (pin_wheel * gathering_wheel) % (pins * gathering_pinion * pinion) == 0;
    };
    std::vector<StrikeMend> all;
    for (long long n = 32; n <= 128; ++n)
        if (right(8, n, 8, 54, 7)) all.push_back({"pin", "wheel", n});
    for (long long n = 4; n <= 16; ++n)
        if (right(8, 64, n, 54, 7)) all.push_back({"gathering", "pinion", n});
    for (long long n = 27; n <= 108; ++n)
        if (right(8, 64, 8, n, 7)) all.push_back({"gathering", "wheel", n});
    for (long long n = 4; n <= 14; ++n)
        if (right(8, 64, 8, 54, n)) all.push_back({"warning", "pinion", n});
    CHECK(all.size() > 3);
    CHECK(out.faults[0].mend == all);
    in.arbors[2].wheel = Count::lost();
    CHECK_THROWS_WITH(strike_train(in), Catch::Contains("arbors[2].wheel"));
    in = eight_day();
    in.gathering = {"nobody"};
    CHECK_THROWS_WITH(strike_train(in), Catch::StartsWith("gathering: got nobody"));
}

TEST_CASE("a sound strike strikes every hour right, of both kinds and every scheme, from any hour on for two days") {
    for (const char* kind : {"countwheel", "rack"})
        for (const char* scheme : {"hours", "hours-and-halves", "quarters", "hours-24"})
            for (const long long from : {1, 7, 12}) {
                StrikeSequenceInput in;
                in.kind = kind, in.scheme = scheme, in.from = from, in.hours = 48;
                const StrikeSequenceResult out = strike_sequence(in);
                CHECK(out.wrong == 0);
                CHECK(std::llround(out.sequence.front().hour) == from);
                if (std::string(scheme) == "hours")
                    for (const StruckHour& one : out.sequence) CHECK(*one.strikes == std::llround(one.hour));
            }
}

TEST_CASE("a slot too wide loses a blow, gives it alone at the next hour, and the strike is an hour behind from then on") {
    StrikeSequenceInput in;
    in.faults = {{"slot wide", 5, {}, {}, {}}};
    CHECK(struck(in) == AllStruck{1, 2, 3, 4, 4, 1, 6, 7, 8, 9, 10, 11});
    // After twelve it comes round again, and loses another.
    in.hours = 24;
    CHECK(struck(in)[17] == 4);
}

TEST_CASE("a slot too shallow runs on into the next hour's blows, and the strike is an hour ahead from then on") {
    StrikeSequenceInput in;
    in.faults = {{"slot shallow", 3, {}, {}, {}}};
    CHECK(struck(in) == AllStruck{1, 2, 7, 5, 6, 7, 8, 9, 10, 11, 12, 1});
}

TEST_CASE("a lost tooth of the rack lets every hour run on that gathers over it, and leaves the smaller ones right") {
    StrikeSequenceInput in;
    in.kind = "rack", in.faults = {{"tooth lost", {}, 9, {}, {}}};
    const AllStruck all = struck(in);
    for (size_t i = 0; i < 12; ++i) CHECK(all[i].has_value() == (i + 1 < 9));
    CHECK_THAT(strike_sequence(in).verdict, Catch::Contains("runs on"));
}

TEST_CASE("a bent tail is so many out at every hour, but never less than one – a hand set wrong keeps its distance") {
    StrikeSequenceInput in;
    in.kind = "rack", in.faults = {{"tail bent", {}, {}, {}, -1}};
    CHECK(struck(in) == AllStruck{1, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11});
    for (const char* kind : {"countwheel", "rack"}) {
        in = {};
        in.kind = kind, in.from = 5, in.hours = 3, in.faults = {{"hand set", {}, {}, 7, {}}};
        CHECK(struck(in) == AllStruck{7, 8, 9});
    }
}

TEST_CASE("faults that a strike cannot have are refused with those that it can") {
    StrikeSequenceInput in;
    in.faults = {{"tooth lost", {}, 3, {}, {}}};
    CHECK_THROWS_WITH(strike_sequence(in), Catch::Contains("slot wide"));
    in.faults = {{"slot wide", 13, {}, {}, {}}};
    CHECK_THROWS_WITH(strike_sequence(in), Catch::StartsWith("slot: got 13"));
    in.kind = "rack", in.faults = {{"tooth lost", {}, {}, {}, {}}};
    CHECK_THROWS_WITH(strike_sequence(in), Catch::StartsWith("tooth: got nothing"));
    in.faults = {}, in.from = 13;
    CHECK_THROWS_WITH(strike_sequence(in), Catch::StartsWith("from: got 13"));
}
