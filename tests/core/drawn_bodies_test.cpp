#include <catch2/catch.hpp>

#include "number/input_error.h"
#include "oscillator/drawn_bodies.h"

using namespace echappe;

TEST_CASE("a pendulum without measured parts is drawn with a rod and a bob, one that has them with its own") {
    Pendulum pendulum;
    REQUIRE(drawn_bodies(pendulum).size() == 2);
    CHECK(drawn_bodies(pendulum)[0].part.shape == "rod");
    CHECK(drawn_bodies(pendulum)[1].part.shape == "lens");
    PendulumPart jar;
    jar.name = "jar";
    jar.shape = "cylinder";
    pendulum.parts = {jar};
    const auto bodies = drawn_bodies(pendulum);
    REQUIRE(bodies.size() == 2);
    CHECK(bodies[0].part.shape == "rod");
    CHECK_FALSE(bodies[0].begun);
    CHECK(bodies[1].part.name == "jar");
    CHECK(bodies[1].begun);
}

TEST_CASE("the first size typed of a bob begins it, an empty one begins nothing, and a wrong one changes nothing") {
    Pendulum pendulum;
    type_into_body(pendulum, 1, "diameter_mm", "");
    CHECK(pendulum.parts.empty());
    CHECK_THROWS_AS(type_into_body(pendulum, 1, "diameter_mm", "-3"), InputError);
    CHECK(pendulum.parts.empty());
    type_into_body(pendulum, 1, "diameter_mm", "3 1/2 in");
    REQUIRE(pendulum.parts.size() == 1);
    CHECK(pendulum.parts.front().name == "bob");
    CHECK(*pendulum.parts.front().diameter_mm == Approx(88.9));
    // The rod that waits keeps the first place, and the bob its own: the next size goes to the same body.
    type_into_body(pendulum, 1, "mass_kg", "1.2");
    REQUIRE(pendulum.parts.size() == 1);
    CHECK(*pendulum.parts.front().mass_kg == Approx(1.2));
    type_into_body(pendulum, 0, "length_mm", "700");
    REQUIRE(pendulum.parts.size() == 2);
    CHECK(pendulum.parts.front().shape == "rod");
    type_into_body(pendulum, 1, "thickness_mm", "30");
    CHECK(*pendulum.parts.back().thickness_mm == Approx(30));
}

TEST_CASE("a rod is asked its length and its end, a lens its thickness and its middle, a point only where it is and what it weighs") {
    for (const auto& [shape, field] :
         {std::pair{"rod", "length_mm"}, {"lens", "thickness_mm"}, {"disc", "centre_mm"}, {"cylinder", "top_mm"}}) {
        const auto& sizes = sizes_of_body(shape);
        CHECK(std::count(sizes.begin(), sizes.end(), field) == 1);
    }
    CHECK(sizes_of_body("point") == std::vector<std::string>{"centre_mm", "mass_kg"});
}
