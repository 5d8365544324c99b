#include <rapidcheck.h>

#include <catch2/catch.hpp>
#include <cmath>

#include "making/depthing.h"
#include "number/input_error.h"
#include "support/demo.h"
#include "topic.h"

using namespace echappe;

TEST_CASE("both arcs cross at the corners of a 3-4-5 triangle, above and below") {
    const DepthingResult out = set_depthing({{{"a", 0, 0, 3}, {"b", 5, 0, 4}}, {}, {}});
    REQUIRE(out.points.size() == 2);
    CHECK(out.points[0][0] == Approx(1.8));
    CHECK(std::abs(out.points[0][1]) == Approx(2.4));
    CHECK(out.points[1][1] == Approx(-out.points[0][1]));
}

TEST_CASE("a point where arcs cross is at the right depth for both neighbours, wherever they stand") {
    CHECK(rc::check("crossings keep both distances", [] {
        const auto place = [] { return static_cast<double>(*rc::gen::inRange(-5000, 5000)) / 100; };
        const DepthingNeighbour a{"a", place(), place(), static_cast<double>(*rc::gen::inRange(1, 6000)) / 100};
        const DepthingNeighbour b{"b", place(), place(), static_cast<double>(*rc::gen::inRange(1, 6000)) / 100};
        RC_PRE(a.x_mm != b.x_mm || a.y_mm != b.y_mm);
        const DepthingResult out = set_depthing({{a, b}, a.x_mm + 1, a.y_mm});
        for (const Point& p : out.points) {
            RC_ASSERT(std::abs(std::hypot(p[0] - a.x_mm, p[1] - a.y_mm) - a.distance_mm) < 1e-6);
            RC_ASSERT(std::abs(std::hypot(p[0] - b.x_mm, p[1] - b.y_mm) - b.distance_mm) < 1e-6);
        }
        RC_ASSERT(out.points.empty() == out.arcs_miss_mm.has_value());
        if (out.points.size() == 2)
            RC_ASSERT(std::hypot(out.points[0][0] - a.x_mm - 1, out.points[0][1] - a.y_mm) <=
                      std::hypot(out.points[1][0] - a.x_mm - 1, out.points[1][1] - a.y_mm));
    }));
}

TEST_CASE("arcs too short or one inside the other say by how much they miss") {
    CHECK(*set_depthing({{{"a", 0, 0, 3}, {"b", 10, 0, 4}}, {}, {}}).arcs_miss_mm == Approx(3));
    CHECK(*set_depthing({{{"a", 0, 0, 9}, {"b", 2, 0, 4}}, {}, {}}).arcs_miss_mm == Approx(3));
    CHECK_THROWS_WITH(set_depthing({{{"a", 1, 1, 9}, {"b", 1, 1, 4}}, {}, {}}), Catch::Contains("never cross"));
    CHECK_THROWS_WITH(set_depthing({{}, {}, {}}), Catch::StartsWith("neighbours: got 0"));
}

TEST_CASE("a hole moved straight towards one neighbour deepens that mesh by as much – moved across it hardly changes") {
    const DepthingResult towards = set_depthing({{{"a", 0, 0, 30}}, 29.9, 0});
    CHECK(towards.effects.front().depth_mm == Approx(0.1));
    CHECK(*towards.off_mm == Approx(0.1));
    const DepthingResult across = set_depthing({{{"a", 0, 0, 30}}, 30, 0.1});
    CHECK(across.effects.front().depth_mm == Approx(-0.1 * 0.1 / 60).epsilon(1e-3));
}

TEST_CASE("the third arbor's hole stands where the arcs of its two meshes cross") {
    Job job = demo::measured_job();
    job.train.arbors[2].train.wheel = 90;
    job.train.arbors[2].train.pinion = 12;
    const Derived derived = derive(job);
    const DepthingInput input = depthing_of(derived.train, "third");
    REQUIRE(input.neighbours.size() == 2);
    const DepthingResult out = set_depthing(input);
    REQUIRE(out.off_mm);
    CHECK(*out.off_mm < 0.1);
    for (const DepthingEffect& effect : out.effects) CHECK(std::abs(effect.depth_mm) < 0.1);
}
