#include <cmath>
#include <fstream>

#include "cli/ask.h"

// The verbs of pivots, holes and arbors: names of the contract, figures known from elsewhere, and refusals in one line.

namespace {

using nlohmann::json;

json worn_hole() {
    return {{"pivot_mm", 1.62},
            {"hole_max_mm", 1.98},
            {"hole_min_mm", 1.79},
            {"wear_direction_deg", 0},
            {"plate_mm", 2.4},
            {"stock",
             {{{"id", "a"}, {"bore_mm", 1.6}, {"outside_mm", 3.8}, {"height_mm", 2.2}},
              {{"id", "b"}, {"bore_mm", 1.7}, {"outside_mm", 3.8}, {"height_mm", 2.2}},
              {{"id", "c"}, {"bore_mm", 1.7}, {"outside_mm", 3.8}, {"height_mm", 3.0}}}}};
}

}  // namespace

TEST_CASE("pivot.tilt gives the third of pivot, hole and lean under the names of the contract") {
    const json out = answer("pivot.tilt", {{"pivot_mm", 1}, {"tilt_deg", 4}, {"thickness_mm", 2}});
    // By hand: (1 + 2 × 0.0697565) ÷ 0.9975641.
    CHECK(out["hole_mm"].get<double>() == Approx(1.142295).margin(1e-6));
    CHECK(out["clearance_mm"].get<double>() == Approx(0.142295).margin(1e-6));
    CHECK(out["pivot_mm"] == 1);
    CHECK(out["tilt_deg"] == 4);
}

TEST_CASE("pivot.tilt refuses a hole under its pivot and one figure alone") {
    CHECK(refusal("pivot.tilt", {{"pivot_mm", 2}, {"hole_mm", 1.9}, {"thickness_mm", 2}}) ==
          "hole_mm: got 1.9, takes at least the pivot, 2");
    CHECK_THAT(refusal("pivot.tilt", {{"pivot_mm", 2}, {"thickness_mm", 2}}), Catch::Contains("just two of them"));
}

TEST_CASE("bush.plan answers with every name of the contract") {
    const json out = answer("bush.plan", worn_hole());
    CHECK(out["decision"] == "bush");
    CHECK(out["reason"].is_string());
    for (const char* name : {"id", "bore_mm", "outside_mm", "height_mm"}) CHECK(out["bush"].contains(name));
    CHECK(out["offset_mm"]["x"].get<double>() == Approx(-0.095));
    CHECK(out["offset_mm"]["y"].get<double>() == Approx(0).margin(1e-12));
    CHECK(out["reamers_mm"].back().get<double>() == Approx(3.77));
    CHECK(out["warnings"].is_array());
}

TEST_CASE("bush.plan takes the bore by its method") {
    json in = worn_hole();
    in["method"] = "broach-up";
    CHECK(answer("bush.plan", in)["bush"]["id"] == "a");
    in["method"] = "fit-direct";
    CHECK(answer("bush.plan", in)["bush"]["id"] == "b");
}

TEST_CASE("bush.plan takes its stock from a list or from a CSV file, with the same answer") {
    json in = worn_hole();
    const json from_list = answer("bush.plan", in);
    const std::string path = "/tmp/echappe-bushes-test.csv";
    std::ofstream(path) << "id,bore_mm,outside_mm,height_mm,quantity\na,1.6,3.8,2.2,1\nb,1.7,3.8,2.2,1\nc,1.7,3.8,3.0,1\n";
    in["stock"] = path;
    CHECK(answer("bush.plan", in) == from_list);
    in["stock"] = "/nowhere/bushes.csv";
    CHECK_THAT(refusal("bush.plan", in), Catch::StartsWith("stock: got \"/nowhere/bushes.csv\""));
}

TEST_CASE("bush.plan holds no bush unless the decision is to bush") {
    json in = worn_hole();
    in["hole_max_mm"] = 1.73;
    in["hole_min_mm"] = 1.72;
    const json left = answer("bush.plan", in);
    CHECK(left["decision"] == "leave");
    CHECK(left["bush"].is_null());
    in["pivot_state"] = "tapered";
    CHECK(answer("bush.plan", in)["decision"] == "repivot-first");
}

TEST_CASE("bush.plan counts a bush with none in the drawer as not there") {
    json in = worn_hole();
    for (json& bush : in["stock"]) bush["quantity"] = 0;
    const json out = answer("bush.plan", in);
    CHECK(out["decision"] == "bush");
    CHECK(out["bush"].is_null());
}

TEST_CASE("bush.plan refuses what no hole can be") {
    json in = worn_hole();
    in["hole_min_mm"] = 2.1;
    CHECK(refusal("bush.plan", in) == "hole_min_mm: got 2.1, takes at most hole_max_mm, 1.98");
    in = worn_hole();
    in["stock"][1]["outside_mm"] = 1.2;
    CHECK_THAT(refusal("bush.plan", in), Catch::StartsWith("stock[1].outside_mm: got 1.2"));
    in = worn_hole();
    in["method"] = "by eye";
    CHECK_THAT(refusal("bush.plan", in), Catch::StartsWith("method: got \"by eye\""));
}

TEST_CASE("bush.plan turns the offset with the way of the wear") {
    json in = worn_hole();
    for (const int way : {0, 45, 90, 180, 270}) {
        in["wear_direction_deg"] = way;
        const json offset = answer("bush.plan", in)["offset_mm"];
        const double x = offset["x"];
        const double y = offset["y"];
        CHECK(std::hypot(x, y) == Approx(0.095));
        CHECK(x * std::cos(way * std::acos(-1.0) / 180) + y * std::sin(way * std::acos(-1.0) / 180) == Approx(-0.095));
    }
}

TEST_CASE("arbor.taper gives the angle of the rest and stages from the thin end") {
    const json out = answer("arbor.taper", {{"large_diameter_mm", 3}, {"small_diameter_mm", 1}, {"length_mm", 10}});
    CHECK(out["compound_angle_deg"].get<double>() == Approx(5.710593));  // atan 0.1
    CHECK(out["stages"].front()["from_mm"] == 0);
    CHECK(out["stages"].back()["to_mm"].get<double>() == Approx(10));
}

TEST_CASE("arbor.runout halves the reading and judges it") {
    const json out = answer("arbor.runout", {{"tir_mm", 0.15}, {"arbor", "escape"}});
    CHECK(out["eccentricity_mm"].get<double>() == Approx(0.075));
    CHECK(out["verdict"] == "straighten");
}

TEST_CASE("the other verbs of the bench answer plain questions") {
    CHECK(answer("pivot.endshake", {{"plates_mm", 40}, {"shoulders_mm", 39.8}})["verdict"] == "right");
    CHECK(answer("bush.curl", {{"pivot_mm", 6}, {"plate_mm", 18}, {"clearance_mm", 0}})["strip_length_mm"].get<double>() ==
          Approx(20.420352));
    CHECK(answer("pivot.repivot", {{"pivot_mm", 1}, {"arbor_mm", 3}})["drill_mm"].get<double>() == Approx(1.1));
    CHECK(answer("pivot.push", {{"direction", "cw"}, {"meshes", {{{"line_deg", 180}, {"radius_mm", 4}}}}})["direction_deg"].get<double>() ==
          Approx(90));
    CHECK(answer("pivot.clearance", {{"pivot_mm", 2}, {"length_mm", 2}})["schools"].size() == 3);
    CHECK(answer("hub.repair",
                 {{"arbor_mm", 4}, {"hub_mm", 4.2}, {"length_mm", 3}, {"torque_N_mm", 50}, {"joint", "soft solder"}})["sleeve"] == false);
    // 32 × 10 N × 2 mm ÷ (π × 1 mm³), by hand.
    CHECK(answer("pivot.strength", {{"pivot_mm", 1}, {"length_mm", 2}, {"torque_N_mm", 40}, {"pitch_radius_mm", 4}})["stress_N_mm2"]
              .get<double>() == Approx(203.71833 / 4));
}
