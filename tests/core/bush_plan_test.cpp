#include <rapidcheck.h>
#include <catch2/catch.hpp>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "stock/stock.h"

using namespace echappe;

namespace {

/// A drawer with every bore in steps of 0.1 mm, two outsides and four heights.
std::vector<Bush> fitted_drawer() {
    std::vector<Bush> drawer;
    for (int bore = 5; bore <= 40; ++bore)
        for (const double wall : {1.0, 1.6})
            for (const double height : {1.2, 1.6, 2.2, 3.0})
                drawer.push_back({"D" + std::to_string(drawer.size()), bore / 10.0, bore / 10.0 + 2 * wall, height, 3});
    return drawer;
}

/// The regulator's centre arbor, front: oval, walked down to the right.
BushPlanInput worn() {
    BushPlanInput in;
    in.pivot_mm = 1.62;
    in.hole_max_mm = 1.98;
    in.hole_min_mm = 1.79;
    in.wear_direction_deg = -35;
    in.plate_mm = 2.4;
    in.stock = fitted_drawer();
    return in;
}

BushPlanInput any_hole() {
    BushPlanInput in = worn();
    in.pivot_mm = *rc::gen::inRange(20, 300) / 100.0;
    in.hole_min_mm = in.pivot_mm + *rc::gen::inRange(0, 60) / 100.0;
    in.hole_max_mm = in.hole_min_mm + *rc::gen::inRange(0, 60) / 100.0;
    in.plate_mm = *rc::gen::inRange(40, 400) / 100.0;
    in.wear_direction_deg = *rc::gen::inRange(-180, 180);
    in.method = *rc::gen::element(std::string("broach-up"), std::string("fit-direct"));
    return in;
}

}  // namespace

TEST_CASE("an oval hole is bushed, on the centre where the pivot once ran") {
    const BushPlanResult plan = plan_bush(worn());
    CHECK(plan.decision == "bush");
    CHECK(std::hypot(plan.offset_mm.x, plan.offset_mm.y) == Approx((1.98 - 1.79) / 2));
    // Back from where the pivot walked to: up to the left.
    CHECK(plan.offset_mm.x < 0);
    CHECK(plan.offset_mm.y > 0);
    CHECK(plan.reason.starts_with("Oval by 0.19 mm"));
    CHECK(plan.reason.ends_with("The bush goes 0.09 mm to the original centre."));
}

TEST_CASE("a hole worn by a pivot pushed one way gives its first centre back") {
    REQUIRE(rc::check([] {
        // Built the slow way: the union of the first hole and the pivot's path is measured for its largest size.
        const double original = *rc::gen::inRange(50, 400) / 100.0;
        const double walked = *rc::gen::inRange(1, 80) / 100.0;
        const double way = *rc::gen::inRange(0, 360) * rad_per_deg;
        const double far = original / 2 + walked;  // worn end
        const double near = -original / 2;         // end that stands
        const double middle = (far + near) / 2;    // where a gauge finds the hole's middle, along the way
        const Wear wear = wear_of(far - near, original, way / rad_per_deg);
        RC_ASSERT(std::abs(middle * std::cos(way) + wear.to_centre.x) < 1e-12);
        RC_ASSERT(std::abs(middle * std::sin(way) + wear.to_centre.y) < 1e-12);
    }));
}

TEST_CASE("no oval hole is ever closed, and no bush goes to the worn centre when the first one is known") {
    REQUIRE(rc::check([] {
        const BushPlanInput in = any_hole();
        const BushPlanResult plan = plan_bush(in);
        const double oval = in.hole_max_mm - in.hole_min_mm;
        if (oval >= 0.05) RC_ASSERT(plan.decision != "close");
        RC_PRE(plan.bush.has_value() && oval > 0);
        RC_ASSERT(std::hypot(plan.offset_mm.x, plan.offset_mm.y) > 0);
    }));
}

TEST_CASE("reamers climb to the outside less the interference, by 0.6 mm at most") {
    REQUIRE(rc::check([] {
        const BushPlanInput in = any_hole();
        const BushPlanResult plan = plan_bush(in);
        RC_PRE(plan.bush.has_value());
        RC_ASSERT(plan.reamers_mm.size() >= 2u);
        double below = in.hole_max_mm;
        for (const double size : plan.reamers_mm) {
            RC_ASSERT(size > below);
            RC_ASSERT(size - below <= 0.6 + 1e-9);
            below = size;
        }
        RC_ASSERT(std::abs(below - (plan.bush->outside_mm - *plan.press_fit_mm)) < 1e-12);
    }));
}

TEST_CASE("a chosen bush cleans up the worn hole, stands flush, and no other of the drawer suits its method better") {
    REQUIRE(rc::check([] {
        const BushPlanInput in = any_hole();
        const BushPlanResult plan = plan_bush(in);
        RC_PRE(plan.bush.has_value());
        const double reach = in.hole_max_mm - in.hole_min_mm / 2;  // of the worn hole, from the first centre
        RC_ASSERT(plan.bush->outside_mm / 2 >= reach + 0.1 - 1e-9);
        bool flush = false;
        for (const Bush& other : in.stock) {
            if (other.outside_mm / 2 < reach + 0.1 - 1e-9 || other.height_mm > in.plate_mm + 1e-9) continue;
            flush = true;
            const double wanted = in.pivot_mm + clearance_by(in.clearance, in.pivot_mm, other.height_mm);
            if (in.method == "broach-up") {
                RC_ASSERT(plan.bush->bore_mm <= in.pivot_mm + 1e-9);
                if (other.bore_mm <= in.pivot_mm + 1e-9) RC_ASSERT(other.bore_mm <= plan.bush->bore_mm + 1e-9);
            } else {
                const bool rattles = other.bore_mm - in.pivot_mm > in.leave_factor * (wanted - in.pivot_mm);
                if (!rattles) RC_ASSERT(std::abs(plan.bush->bore_mm - wanted) <= std::abs(other.bore_mm - wanted) + 1e-8);
            }
            if (other.bore_mm == plan.bush->bore_mm) RC_ASSERT(other.height_mm <= plan.bush->height_mm);
        }
        if (flush) RC_ASSERT(plan.bush->height_mm <= in.plate_mm + 1e-9);
    }));
}

TEST_CASE("the two methods differ by the bore they begin with") {
    BushPlanInput in = worn();
    in.method = "broach-up";
    CHECK(plan_bush(in).bush->bore_mm == Approx(1.6));
    CHECK(*plan_bush(in).broach_to_mm == Approx(1.62 + 0.06 * 1.62));
    in.method = "fit-direct";
    CHECK(plan_bush(in).bush->bore_mm == Approx(1.7));
    CHECK(plan_bush(in).broach_passes == 1);  // from 1.70 to 1.717
}

TEST_CASE("a hole within the school's clearance is left") {
    BushPlanInput in = worn();
    in.hole_max_mm = 1.73;
    in.hole_min_mm = 1.72;
    CHECK(plan_bush(in).decision == "leave");
    CHECK_FALSE(plan_bush(in).bush);
    CHECK(plan_bush(in).clearance_mm == Approx(0.11));
}

TEST_CASE("a watch's round hole in a thin plate is closed – the same in a thick plate is bushed") {
    BushPlanInput in = worn();
    in.pivot_mm = 0.30;
    in.hole_max_mm = in.hole_min_mm = 0.36;
    in.plate_mm = 0.5;
    in.clearance = {"fraction", 0.06, 0.012, 4};
    CHECK(plan_bush(in).decision == "close");
    CHECK(*plan_bush(in).broach_to_mm == Approx(0.318));
    in.plate_mm = 2.0;
    CHECK(plan_bush(in).decision == "bush");
}

TEST_CASE("nothing is decided from a hole that was not pegged, or that reads smaller than its pivot") {
    BushPlanInput in = worn();
    in.pegged = false;
    CHECK(plan_bush(in).decision == "clean");
    in.pegged = true;
    in.hole_min_mm = 1.55;
    CHECK(plan_bush(in).decision == "clean");
    CHECK_FALSE(plan_bush(in).bush);
}

TEST_CASE("a scored pivot is seen to before a bush is fitted to it") {
    BushPlanInput in = worn();
    in.pivot_state = "scored";
    CHECK(plan_bush(in).decision == "repivot-first");
    CHECK(plan_bush(in).reamers_mm.empty());
}

TEST_CASE("a hole too large for every bush of the drawer is plugged") {
    BushPlanInput in = worn();
    in.hole_max_mm = 4.4;
    in.hole_min_mm = 4.0;
    CHECK(plan_bush(in).decision == "plug");
    CHECK_FALSE(plan_bush(in).bush);
    in.stock.clear();
    CHECK(plan_bush(in).decision == "bush");
    CHECK(plan_bush(in).warnings.front().find("order one of") != std::string::npos);
}

TEST_CASE("a bush set off the centre by an earlier hand is found out by the depth of its meshes, however good its hole") {
    BushPlanInput in = worn();
    in.hole_max_mm = in.hole_min_mm = 1.70;
    CHECK(plan_bush(in).decision == "leave");
    in.old_bush_off_mm = Offset{0.16, -0.12};
    const BushPlanResult plan = plan_bush(in);
    CHECK(plan.decision == "bush");
    CHECK(plan.offset_mm.x == 0.16);
    CHECK(plan.bush->outside_mm / 2 >= 0.2 + 0.85 + 0.1 - 1e-9);
}

TEST_CASE("a bush near the plate's edge and a punch near a stud are warned of") {
    BushPlanInput in = worn();
    in.edge_mm = 3.0;
    in.free_radius_mm = 2.0;
    const BushPlanResult plan = plan_bush(in);
    CHECK(*plan.edge_left_mm == Approx(3.0 - plan.bush->outside_mm / 2));
    CHECK(plan.warnings.size() == 2);
    CHECK(*plan.punch_mm == Approx(4.0));
}

TEST_CASE("an oval hole whose way is not known gets no offset and says so") {
    BushPlanInput in = worn();
    in.wear_direction_deg.reset();
    const BushPlanResult plan = plan_bush(in);
    CHECK(plan.offset_mm.x == 0);
    CHECK(plan.warnings.back().find("the offset cannot be told") != std::string::npos);
}

TEST_CASE("reamers of the drawer are taken where they serve, and what is not there is named") {
    std::vector<std::string> missing;
    // 1.98 to 2.5 or less, to 3.1 or less, to 3.77: three passes of 0.6 cannot; four of the drawer can.
    const auto ladder = reamer_ladder(1.98, 3.77, {2.0, 2.5, 3.0, 3.25, 3.75, 4.0}, &missing);
    REQUIRE(ladder.size() == 4);
    CHECK(ladder[0] == 2.5);
    CHECK(ladder[1] == 3.0);
    CHECK(ladder[2] == 3.25);
    CHECK(ladder[3] == Approx(3.77));
    REQUIRE(missing.size() == 1);
    CHECK(missing[0] == "No reamer of 3.77 mm in the drawer: the press fit needs it.");
}

TEST_CASE("a ladder through any drawer climbs by 0.6 mm at most and ends at the seat, or says that it cannot") {
    REQUIRE(rc::check([] {
        std::vector<double> own;
        for (const int size : *rc::gen::container<std::vector<int>>(rc::gen::inRange(100, 700))) own.push_back(size / 100.0);
        if (own.empty()) return;
        const double hole = *rc::gen::inRange(80, 300) / 100.0;
        const double seat = hole + *rc::gen::inRange(20, 300) / 100.0;
        std::vector<std::string> missing;
        const auto ladder = reamer_ladder(hole, seat, own, &missing);
        double below = hole;
        for (const double size : ladder) {
            RC_ASSERT(size > below);
            RC_ASSERT(size - below <= 0.6 + 1e-9);
            below = size;
        }
        RC_ASSERT(std::abs(below - seat) < 0.0111);
        if (!missing.empty()) return;
        for (const double size : ladder) RC_ASSERT(std::find(own.begin(), own.end(), size) != own.end());
    }));
}

TEST_CASE("three schools really differ") {
    const ClearanceResult got = compare_clearances({1.62, 2.4, {}});
    REQUIRE(got.schools.size() == 3);
    CHECK(got.schools[0].clearance_mm == Approx(0.1718).margin(0.001));  // 4° through 2.4 mm
    CHECK(got.schools[1].clearance_mm == Approx(0.0972));
    CHECK(got.schools[2].clearance_mm == Approx(0.05));
    CHECK(got.schools[0].tilt_deg == Approx(4));
}

TEST_CASE("one mesh pushes its two arbors equally hard and opposite ways") {
    REQUIRE(rc::check([] {
        const double line = *rc::gen::inRange(0, 360);
        const bool left = *rc::gen::arbitrary<bool>();
        const double pressure = *rc::gen::inRange(0, 30);
        const PushResult driver = push_on_arbor({left ? "ccw" : "cw", {{"b", false, line, 20, pressure}}, 1});
        const PushResult driven = push_on_arbor({left ? "cw" : "ccw", {{"a", true, line + 180, 4, pressure}}, 1});
        RC_ASSERT(std::abs(angle_between_deg(driver.direction_deg, driven.direction_deg) - 180) < 1e-9);
    }));
}

TEST_CASE("a pinion right of the wheel that drives it anticlockwise is pushed up, and by its teeth outwards") {
    // The wheel on the left turns anticlockwise: its teeth rise at the pitch point. The pinion itself turns clockwise.
    CHECK(push_on_arbor({"cw", {{"wheel", true, 180, 4, 0}}, 1}).direction_deg == Approx(90));
    const double leaning = push_on_arbor({"cw", {{"wheel", true, 180, 4, 20}}, 1}).direction_deg;
    CHECK(leaning == Approx(70));
    CHECK(way_in_words(90) == "up");
    CHECK(way_in_words(-40) == "down and to the right");
}

TEST_CASE("an arbor is pushed harder by its pinion than by its wheel, as its radii have it") {
    const PushResult both = push_on_arbor({"cw", {{"below", true, 180, 4, 0}, {"above", false, 0, 20, 0}}, 1});
    CHECK(both.shares[0].share / both.shares[1].share == Approx(5));
    // Both push up: the pinion's share and the wheel's reaction on the other side.
    CHECK(both.direction_deg == Approx(90));
    CHECK(both.torque_arm_mm == Approx(1 / (1.0 / 4 + 1.0 / 20)));
}

TEST_CASE("bushes and reamers come back from their CSV as they were written") {
    const std::vector<Bush> bushes = {{"A,1", 1.6, 3.8, 2.2, 4}, {"B", 0.35, 1.5, 0.6, 0}};
    CHECK(bushes_from_csv(bushes_to_csv(bushes)) == bushes);
    CHECK(bushes_from_csv("id,bore_mm,outside_mm,height_mm\nX,1,3,2\n").front().quantity == 1);
    const std::vector<Reamer> reamers = {{"R1", 2.35}, {"R2", 3.77}};
    CHECK(reamers_from_csv(reamers_to_csv(reamers)) == reamers);
    CHECK_THROWS_WITH(bushes_from_csv("id,bore_mm,outside_mm,height_mm\nX,3,2,2\n"),
                      "row 2, outside_mm: got \"2\", takes more than the bore, 3");
}

TEST_CASE("the lean does not make a low bush of a nearer bore out of a tall plate") {
    // Once a 1.2 mm bush was chosen for a plate of 2.4 mm: its own height asks for less clearance, which came nearer to its bore.
    BushPlanInput in = worn();
    in.clearance.school = "tilt";
    in.method = "fit-direct";
    const BushPlanResult plan = plan_bush(in);
    REQUIRE(plan.bush);
    CHECK(plan.bush->height_mm == Approx(2.2));
    CHECK(plan.bush->bore_mm == Approx(1.8));
    CHECK(plan.wanted_clearance_mm < clearance_by(in.clearance, in.pivot_mm, in.plate_mm));
}

TEST_CASE("two bushes as near are told apart by height, then by what they leave of the plate") {
    BushPlanInput in = worn();
    in.method = "broach-up";
    in.stock = {{"low", 1.6, 4.0, 1.6, 1}, {"tall and wide", 1.6, 4.6, 2.2, 1}, {"tall", 1.6, 4.0, 2.2, 1}};
    CHECK(plan_bush(in).bush->id == "tall");
    in.stock.pop_back();
    CHECK(plan_bush(in).bush->id == "tall and wide");
}

TEST_CASE("when every bush that fits is too tall the lowest is taken and faced down") {
    BushPlanInput in = worn();
    in.stock = {{"tall", 1.6, 4.0, 4.0, 1}, {"less tall", 1.6, 4.0, 3.0, 1}};
    const BushPlanResult plan = plan_bush(in);
    REQUIRE(plan.bush);
    CHECK(plan.bush->id == "less tall");
    CHECK_THAT(plan.warnings.front(), Catch::Contains("face it down to 2.40 mm"));
}

TEST_CASE("the oil sink leaves a bearing as long as the pivot is thick") {
    BushPlanInput in = worn();
    for (const double plate : {1.8, 2.0, 2.4, 4.0}) {
        in.plate_mm = plate;
        const BushPlanResult plan = plan_bush(in);
        REQUIRE(plan.sink_depth_mm);
        CHECK(plate - *plan.sink_depth_mm >= in.pivot_mm - 1e-12);
    }
    in.plate_mm = 1.5;
    CHECK_FALSE(plan_bush(in).sink_depth_mm);
}
