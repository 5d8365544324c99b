#include <catch2/catch.hpp>

#include "making/wheel_blank.h"
#include "number/input_error.h"

using namespace echappe;

namespace {

BlankInput blank(const std::string& school, const std::string& part) {
    BlankInput in{{24, 8, 0.8, {school}}, part};
    in.format = "step";
    return in;
}

}  // namespace

#ifdef ECHAPPE_STEP

TEST_CASE("a STEP solid read back has the volume of its outline times its thickness, within 0.1 %") {
    for (const std::string school : {"cycloidal-clock", "involute-20", "lantern"}) {
        INFO(school);
        BlankInput in = blank(school, "wheel");
        const BlankResult out = plan_blank(in);
        REQUIRE(out.files.step);
        CHECK(step_volume_mm3(*out.files.step) == Approx(out.area_mm2 * out.thickness_mm).epsilon(0.001));
    }
}

TEST_CASE("a pinion's STEP solid is as long as its leaves, and a bore takes its cylinder out of it") {
    BlankInput in = blank("cycloidal-clock", "pinion");
    in.choice.thickness_mm = 5;
    const double solid = step_volume_mm3(*plan_blank(in).files.step);
    CHECK(solid == Approx(plan_blank(in).volume_mm3).epsilon(0.001));
    in.choice.bore_mm = 1.5;
    CHECK(solid - step_volume_mm3(*plan_blank(in).files.step) == Approx(3.14159265 * 1.5 * 1.5 / 4 * 5).epsilon(0.001));
}

TEST_CASE("a text that is no STEP has no volume") {
    CHECK_THROWS_WITH(step_volume_mm3("wheel of 90"), Catch::StartsWith("step: got no solid"));
}

#else

TEST_CASE("without the component STEP is refused with what to do instead") {
    CHECK_FALSE(step_available());
    CHECK_THROWS_WITH(plan_blank(blank("cycloidal-clock", "wheel")), Catch::Contains("takes dxf or svg"));
}

#endif
