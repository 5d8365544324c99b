#include "report/oil_plan.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "job/new_job.h"
#include "number/constants.h"
#include "power/record.h"
#include "support/demo.h"
#include "topic.h"

using namespace echappe;

namespace {

/// What stays in a sink round its pivot: the bowl cut into slices, each less the pivot, where it is wider than that.
double sink_by_slices(double pivot, double plate) {
    const double half_wide = pivot / 2 + std::min(pivot, 1.25), deep = std::min({pivot / 2, plate / 3, 0.8});
    const double ball = (half_wide * half_wide + deep * deep) / (2 * deep);
    constexpr int slices = 10000;
    double sum = 0;
    for (int i = 0; i < slices; ++i) {
        const double z = deep * (i + 0.5) / slices, r2 = 2 * ball * z - z * z;
        sum += std::max(0.0, pi * (r2 - pivot * pivot / 4)) * deep / slices;
    }
    return sum;
}

const OilPlace* place(const std::vector<OilPlace>& plan, const std::string& id) {
    const auto at = std::find_if(plan.begin(), plan.end(), [&](const OilPlace& one) { return one.id == id; });
    return at == plan.end() ? nullptr : &*at;
}

}  // namespace

TEST_CASE("every hole gets more than half and less than two thirds of what its bowl holds round the pivot") {
    int filled = 0;
    for (const char* name : {"tide-house", "waiting-room", "watch"}) {
        const Job job = demo::job(name);
        const Derived derived = derive(job);
        const std::vector<OilPlace> plan = oil_plan(job, derived);
        for (const DerivedHole& hole : derived.pivots.holes) {
            INFO(name << " " << hole.id);
            const OilPlace* at = place(plan, hole.id);
            REQUIRE(at);
            CHECK(at->what == "oil");
            CHECK(at->plate == hole.plate);
            const bool measured = hole.record.pivot_mm && hole.thickness_mm;
            REQUIRE(at->mm3.has_value() == measured);
            if (!measured) continue;
            ++filled;
            const double whole = sink_by_slices(*hole.record.pivot_mm, *hole.thickness_mm);
            CHECK(*at->mm3 > 0.5 * whole);
            CHECK(*at->mm3 < 2.0 / 3 * whole);
        }
    }
    CHECK(filled > 10);
}

TEST_CASE("of a movement that was only written down no drop is guessed: what is to be measured for it is said") {
    const Job job = new_job("84, 7/80, 8/75, 7/32");
    const Derived derived = derive(job);
    const std::vector<OilPlace> plan = oil_plan(job, derived);
    REQUIRE(derived.pivots.holes.size() == 8);
    for (const DerivedHole& hole : derived.pivots.holes) {
        const OilPlace* at = place(plan, hole.id);
        CHECK(at->what == "oil");
        CHECK_FALSE(at->mm3);
        CHECK_THAT(at->how, Catch::Contains("once its pivot is measured"));
        CHECK_THAT(at->how, !Catch::Contains("mm³"));
    }
}

TEST_CASE("steel in wood runs dry, at every hole") {
    const Job job = demo::job("granary");
    const Derived derived = derive(job);
    const std::vector<OilPlace> plan = oil_plan(job, derived);
    REQUIRE_FALSE(derived.pivots.holes.empty());
    for (const DerivedHole& hole : derived.pivots.holes) {
        CHECK(place(plan, hole.id)->what == "dry");
        CHECK_FALSE(place(plan, hole.id)->mm3);
    }
}

TEST_CASE("a weight leaves no spring to grease, a fusee has a chain that is wiped and left, a strike a fly that is not oiled") {
    for (const char* name : {"tide-house", "waiting-room", "watch", "granary"}) {
        const Job job = demo::job(name);
        const std::vector<OilPlace> plan = oil_plan(job, derive(job));
        INFO(name);
        for (const DriveRecord& drive : job.power.drives) {
            CHECK((place(plan, "spring:" + drive.train) != nullptr) == (drive.as<SpringDrive>() || drive.as<FuseeDrive>()));
            CHECK((place(plan, "chain:" + drive.train) != nullptr) == (drive.as<FuseeDrive>() != nullptr));
            CHECK(place(plan, "click:" + drive.train) != nullptr);
        }
        CHECK((place(plan, "strike:fly") != nullptr) == job.strike.has_value());
        if (job.strike) CHECK(place(plan, "strike:fly")->what == "dry");
        // Teeth are dry in every school.
        CHECK(place(plan, "teeth")->what == "dry");
    }
}

TEST_CASE("a train that is rewound by a current has contacts that stay dry and no mainspring to grease") {
    Job job = demo::job();
    job.power.drives.front().is = RewoundDrive();
    const std::string train = job.power.drives.front().train;
    const std::vector<OilPlace> plan = oil_plan(job, derive(job));
    CHECK_FALSE(place(plan, "spring:" + train));
    CHECK_FALSE(place(plan, "barrel:" + train));
    REQUIRE(place(plan, "contacts"));
    CHECK(place(plan, "contacts")->what == "dry");
}

TEST_CASE("what was oiled is ticked and nothing else") {
    Job job = demo::job();
    job.bench.oiled = {"pallets"};
    for (const OilPlace& one : oil_plan(job, derive(job))) CHECK(one.done == (one.id == "pallets"));
}
