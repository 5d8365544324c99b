#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <stdexcept>

#include "exchange/outline_in.h"
#include "job/file.h"
#include "power/power_chain.h"
#include "stock/stock.h"
#include "support/demo.h"
#include "support/files.h"
#include "topic.h"
#include "workings/record_json.h"

using namespace echappe;

// What random jobs, tables and readings brought down: each find stays mended.

namespace {

PowerChainInput chain_with(double torque) {
    PowerChainInput in;
    in.train.arbors.resize(2);
    in.train.arbors[0].id = "great";
    in.train.arbors[0].wheel = 96;
    in.train.arbors[1].id = "escape";
    in.train.arbors[1].pinion = 8;
    in.train.arbors[1].wheel = 30;
    in.train.reference = {"escape", 60, "cw"};
    in.train.escape_arbor = "escape";
    in.torque_N_mm = torque;
    in.torque_end_N_mm = torque;
    in.oscillator.mass_kg = 1;
    in.oscillator.length_mm = 250;
    in.oscillator.needed_deg = 2;
    return in;
}

}  // namespace

TEST_CASE("a job with a drive and no train yet is derived") {
    Job job = demo::job("waiting-room");
    REQUIRE_FALSE(job.power.drives.empty());
    job.train.trains.clear();
    const Derived derived = derive(job);
    CHECK(derived.faults.empty());
    CHECK_FALSE(derived.power.drives.empty());
    CHECK_FALSE(derived.power.drives.front().chain);
}

TEST_CASE("a drive that gives nothing keeps nothing swinging, and no share of nothing is told") {
    const PowerChainResult out = power_chain(chain_with(0));
    for (const PowerAtArbor& at : out.arbors) CHECK(at.lost_share == 0);
    CHECK(out.efficiency == 0);
    CHECK(out.semi_arc_deg == 0.0);
    CHECK_FALSE(out.least_torque_N_mm);
    CHECK_NOTHROW(write_json(PowerChainResult::record(), &out, Empty::null));
    // As it goes to nothing everything goes with it.
    CHECK(power_chain(chain_with(1e-9)).energy_per_beat_J < 1e-9);
}

TEST_CASE("a result that is not finite is named by its field when it is refused") {
    PowerAtArbor at;
    at.lost_share = NAN;
    CHECK_THROWS_WITH(write_json(PowerAtArbor::record(), &at, Empty::null), Catch::Contains("lost_share"));
}

TEST_CASE("a drawing that claims more points than it has is refused in a sentence") {
    const Folder folder;
    for (const char* count : {"999999999", "-5", "2147483647", "nan", "999999999x", " 99999999 1"}) {
        INFO(count);
        const auto path = folder / "claims.dxf";
        save_text(path, "  0\nSECTION\n  2\nENTITIES\n  0\nLWPOLYLINE\n 90\n" + std::string(count) +
                            "\n 10\n0.0\n 20\n0.0\n  0\nENDSEC\n  0\nEOF\n");
        CHECK_THROWS_AS(outlines_from_dxf(path), InputError);
    }
}

TEST_CASE("a job that was damaged anywhere is opened as far as it can be read") {
    // Every part taken out, every number made another: none of it stops the derivation.
    const std::string text = demo::text("watch.echappe.json");
    for (const auto& [from, to] :
         {std::pair("\"trains\"", "\"brains\""), std::pair("\"arbors\"", "\"harbours\""), std::pair("\"drives\"", "\"dives\""),
          std::pair("18000", "-18000"), std::pair("\"oscillator\"", "\"oscillators\"")}) {
        std::string spoilt = text;
        const auto at = spoilt.find(from);
        if (at == std::string::npos) continue;
        spoilt.replace(at, std::string(from).size(), to);
        const LoadedJob loaded = job_from_text(spoilt);
        INFO(from);
        CHECK(derive(loaded.job).faults.empty());
    }
}

TEST_CASE("a table whose last line ends as other systems end their lines is read as it is written again") {
    const std::vector<StockLeaf> read = leaves_from_csv("id,addendum_m,thickness_m,tip_radius_m,note\r\nround,0.8,1.05,0.5,half\ra leaf\r");
    REQUIRE(read.size() == 1);
    CHECK(read.front().note == "half a leaf");
    CHECK(leaves_from_csv(leaves_to_csv(read)) == read);
}
