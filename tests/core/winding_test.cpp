#include <catch2/catch.hpp>
#include <cmath>

#include "job/file.h"
#include "power/winding.h"
#include "support/demo.h"
#include "topic.h"

using namespace echappe;

TEST_CASE("a weight winds as many turns as it has room to fall, or as one layer of its drum holds") {
    WeightDrive drive;
    CHECK_FALSE(winding_of(drive));
    drive.drum_diameter_mm = 40, drive.line_diameter_mm = 2, drive.room_mm = 1000;
    // Each turn lets it down by the line's own circle.
    CHECK(winding_of(drive)->turns == Approx(1000 / (M_PI * 42)));
    drive.moving_pulleys = 1;
    CHECK(winding_of(drive)->turns == Approx(2000 / (M_PI * 42)));
    drive.drum_length_mm = 16;
    // Eight turns lie beside each other, two of them stay.
    CHECK(winding_of(drive)->turns == Approx(6));
    CHECK(winding_of(drive)->because == "one layer of line on the drum");
    FuseeDrive fusee;
    fusee.cone_mm = {18, 20, 22, 24};
    CHECK(winding_of(fusee)->turns == 3);
    CHECK_FALSE(winding_of(RewoundDrive()));
}

TEST_CASE("a strike runs as many days as its own weight gives, until its turns are counted") {
    Job job = job_from_text(demo::text("granary.echappe.json")).job;
    const DerivedStrikeTrain by_weight = derive(job).strike_train;
    REQUIRE(by_weight.winding);
    // 120 blows in twelve hours, ten pins, a great wheel of 72 on 8: ninety blows to its turn.
    const double a_day = 240.0 / 90, turns = 1300 / (M_PI * 85);
    CHECK(by_weight.winding->turns == Approx(turns));
    CHECK(*by_weight.train->days == Approx(turns / a_day));
    job.strike->great_turns = 3.2;
    CHECK(*derive(job).strike_train.train->days == Approx(3.2 / a_day));
    // The drive of the going train says nothing of the strike.
    job.strike->great_turns.reset();
    std::erase_if(job.power.drives, [](const DriveRecord& drive) { return drive.train == "strike"; });
    CHECK_FALSE(derive(job).strike_train.winding);
    CHECK_FALSE(derive(job).strike_train.train->days);
}
