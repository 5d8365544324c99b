#include <catch2/catch.hpp>
#include <cmath>

#include "alarm/derive.h"
#include "alarm/sheets.h"
#include "job/new_job.h"
#include "number/input_error.h"
#include "topic.h"

using namespace echappe;

namespace {

TimeCamInput alarm_cam() {
    TimeCamInput in;
    in.falls_h = {0}, in.radius_mm = 9, in.drop_mm = 2.5;
    return in;
}

/// Height of a round nose's middle over the cam turned on by so many minutes, by trying every point of the outline.
double nose_height_mm(const TimeCamInput& in, double minutes) {
    const double to = 2 * M_PI / in.turn_h * minutes / 60;
    double highest = 0;
    for (double hour = -1; hour < 1; hour += 2e-5) {
        const double angle = 2 * M_PI / in.turn_h * hour - to, r = cam_radius_mm(in, hour);
        const double along = r * std::cos(angle), beside = r * std::sin(angle);
        // The leap of a radial edge has points between too.
        if (in.edge_deg == 0 && std::abs(hour) < 1e-5)
            for (double x = 0; x < in.drop_mm; x += 0.002) {
                const double at = (in.radius_mm - x) * std::cos(to), side = (in.radius_mm - x) * std::sin(to);
                if (std::abs(side) <= in.nose_mm) highest = std::max(highest, at + std::sqrt(in.nose_mm * in.nose_mm - side * side));
            }
        if (std::abs(beside) <= in.nose_mm) highest = std::max(highest, along + std::sqrt(in.nose_mm * in.nose_mm - beside * beside));
    }
    return highest - in.nose_mm;
}

}  // namespace

TEST_CASE("an alarm's cam goes round in twelve hours and lets go where its edge says, with a sharp follower at once") {
    const TimeCamResult out = time_cam(alarm_cam());
    CHECK(out.deg_per_min == Approx(0.5));
    CHECK(out.late_min == Approx(0).margin(1e-12));
    TimeCamInput leaning = alarm_cam();
    leaning.edge_deg = 45, leaning.needed_mm = 1;
    // A millimetre down an edge of 45°: the sine rule in the triangle of arbor, corner and follower, 9 and 8 mm long.
    CHECK(time_cam(leaning).late_min == Approx((std::asin(9 * std::sin(M_PI / 4) / 8) - M_PI / 4) * 180 / M_PI / 0.5));
    leaning.play_deg = 2;
    CHECK(time_cam(leaning).play_min == Approx(2));
}

TEST_CASE("a round nose lets go as late as a slow search over the whole outline finds") {
    for (const double edge : {0.0, 20.0, 40.0})
        for (const double nose : {0.3, 0.8}) {
            TimeCamInput in = alarm_cam();
            in.edge_deg = edge, in.nose_mm = nose, in.needed_mm = 0.6;
            const double late = time_cam(in).late_min;
            // Before it the nose has fallen less than is needed, after it more.
            CAPTURE(edge, nose, late);
            CHECK(nose_height_mm(in, late - 0.1) > 9 - 0.6);
            CHECK(nose_height_mm(in, late + 0.1) < 9 - 0.6);
        }
}

TEST_CASE("a follower is at every minute as high as the slow search finds, and lets go just when the lateness says") {
    for (const double edge : {0.0, 25.0})
        for (const double nose : {0.4, 1.0}) {
            TimeCamInput in = alarm_cam();
            in.edge_deg = edge, in.nose_mm = nose, in.stays_h = 1;
            const double late = time_cam(in).late_min;
            CAPTURE(edge, nose, late);
            CHECK_FALSE(lets_go(in, (late - 0.05) / 60));
            CHECK(lets_go(in, (late + 0.05) / 60));
            CHECK_FALSE(lets_go(in, -0.5));
            for (double minutes = -10; minutes < 30; minutes += 1.3) {
                CAPTURE(minutes);
                CHECK(9 - fallen_mm(in, minutes / 60) == Approx(nose_height_mm(in, minutes)).margin(0.01));
            }
        }
    // A blunt follower on a short stay meets the rise before it lets go.
    TimeCamInput blunt = alarm_cam();
    blunt.nose_mm = 4, blunt.needed_mm = 2.4, blunt.rise_h = 0.4;
    CHECK_THAT(time_cam(blunt).verdict, Catch::Contains("stay down longer"));
    blunt.stays_h = 3;
    CHECK_THAT(time_cam(blunt).verdict, !Catch::Contains("stay down longer"));
}

TEST_CASE("the outline of a cam has at every time the radius that the time says") {
    TimeCamInput in = alarm_cam();
    in.turn_h = 24, in.falls_h = {6}, in.stays_h = 15, in.rise_h = 0.5, in.edge_deg = 10;
    const TimeCamResult out = time_cam(in);
    for (const Point& p : out.outline) {
        const double r = std::hypot(p[0], p[1]);
        double angle = std::atan2(p[1], p[0]);
        if (angle < -1e-9) angle += 2 * M_PI;
        const double hour = angle / (2 * M_PI) * 24;
        // At the corner itself both radii are there.
        if (hour > 1e-6 && hour < 24 - 1e-6) CHECK(cam_radius_mm(in, hour) == Approx(r).epsilon(1e-6));
    }
    // Down from six to nine at night, up from half past.
    CHECK(cam_radius_mm(in, 7) == Approx(6.5));
    CHECK(cam_radius_mm(in, 15.25) == Approx(7.75));
    CHECK(cam_radius_mm(in, 20) == Approx(9));
    REQUIRE(out.steps.size() == 3);
    CHECK(out.steps[1].hour == Approx(21));
    CHECK(out.steps[2].hour == Approx(21.5));
}

TEST_CASE("lifting a follower takes as much work from the cam as it stores and rubs away") {
    TimeCamInput in = alarm_cam();
    in.force_N = 1.2, in.friction = 0, in.rise_h = 3, in.holds_N_mm = 1.5;
    const TimeCamResult out = time_cam(in);
    const double rise_rad = 3.0 / 12 * 2 * M_PI;
    CHECK(*out.drag_N_mm * rise_rad == Approx(1.2 * 2.5));
    CHECK(*out.times == Approx(1.5 / *out.drag_N_mm));
    in.friction = 0.2, in.holds_N_mm = 1;
    const TimeCamResult rubs = time_cam(in);
    CHECK((*rubs.drag_N_mm - *out.drag_N_mm) == Approx(0.2 * 1.2 * (9 - 1.25)));
    CHECK(*rubs.times < 1);
    CHECK_THAT(rubs.verdict, Catch::Contains("turns the cam back"));
}

TEST_CASE("a cam that cannot be is refused in its own terms") {
    TimeCamInput in = alarm_cam();
    in.drop_mm = 9;
    CHECK_THROWS_WITH(time_cam(in), Catch::StartsWith("drop_mm"));
    in = alarm_cam(), in.falls_h = {};
    CHECK_THROWS_WITH(time_cam(in), Catch::StartsWith("falls_h"));
    in.falls_h = {0, 13};
    CHECK_THROWS_WITH(time_cam(in), Catch::StartsWith("falls_h"));
    in.falls_h = {0, 0.5}, in.rise_h = 1;
    CHECK_THROWS_WITH(time_cam(in), Catch::Contains("up to 0.5 h"));
    in = alarm_cam(), in.edge_deg = 50;
    CHECK_THROWS_WITH(time_cam(in), Catch::StartsWith("edge_deg"));
    in = alarm_cam(), in.needed_mm = 3;
    CHECK_THROWS_WITH(time_cam(in), Catch::StartsWith("needed_mm"));
}

TEST_CASE("an alarm rings as many blows as its wheels give, and as long as they last") {
    AlarmRingInput in;
    in.great_turns = 3, in.wheels = {60}, in.pinions = {6}, in.teeth = 15, in.blows_per_s = 10;
    const AlarmRingResult out = alarm_ring(in);
    CHECK(out.blows == Approx(3 * 10 * 15 * 2));
    CHECK(*out.seconds == Approx(90));
    in.great_turns.reset(), in.fall_mm = M_PI * 42 * 3, in.drum_mm = 40, in.rope_mm = 2, in.wanted_s = 45;
    const AlarmRingResult rope = alarm_ring(in);
    CHECK(rope.blows == Approx(out.blows));
    CHECK(*rope.wanted_fall_mm == Approx(*in.fall_mm / 2));
    in.pinions.clear();
    CHECK_THROWS_WITH(alarm_ring(in), Catch::StartsWith("pinions"));
    in = {};
    in.teeth = 15;
    CHECK_THROWS_WITH(alarm_ring(in), Catch::StartsWith("great_turns: got nothing"));
    in.great_turns = 1, in.fall_mm = 10;
    CHECK_THROWS_WITH(alarm_ring(in), Catch::StartsWith("fall_mm"));
}

TEST_CASE("an alarm in a job is drawn with usual sizes until it is measured, and a night that is silent is a cam of 24 hours") {
    Job job = new_job("great 96, 8/84, 7/78, 7/27; centre 1 h");
    CHECK_FALSE(derive(job).alarm.there);
    job.alarm = AlarmRecord();
    const DerivedAlarm usual = derive(job).alarm;
    REQUIRE(usual.cam);
    CHECK_FALSE(usual.measured);
    job.alarm->radius_mm = 8, job.alarm->drop_mm = 2, job.alarm->silent_from_h = 22, job.alarm->silent_to_h = 6;
    job.alarm->repeats_h = {0.25};
    job.alarm->force_N = 2, job.alarm->holds_N_mm = 0.5;
    const Derived told = derive(job);
    CHECK(told.alarm.measured);
    REQUIRE(told.alarm.silent);
    CHECK(told.alarm.cam->steps.size() == 6);
    // Up at two in the morning, down at noon; the outline begins at six.
    CHECK(cam_radius_mm(told.alarm.silent_input, 20) == Approx(8));
    CHECK(cam_radius_mm(told.alarm.silent_input, 6) == Approx(6));
    CHECK(std::any_of(told.findings.begin(), told.findings.end(), [](const Finding& f) { return f.is("alarm.slips"); }));
    CHECK(alarm_cam_sheet(*job.alarm, told.alarm).found.size() > 4);
    job.alarm->teeth = 15;
    CHECK_THAT(alarm_ring_sheet(*job.alarm, derive(job).alarm).fault, Catch::StartsWith("great_turns"));
    job.alarm->drop_mm = 20;
    const DerivedAlarm wrong = derive(job).alarm;
    CHECK_FALSE(wrong.cam_fault.empty());
    CHECK(wrong.cam);
}
