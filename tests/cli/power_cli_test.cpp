#include <cmath>
#include <numbers>

#include "cli/ask.h"

// The verbs of power, swing and rate: names of the contract, figures known from elsewhere, and refusals in one line.

namespace {

using nlohmann::json;
using std::numbers::pi;

double number(const json& out, const char* field) { return out.at(field).get<double>(); }

}  // namespace

TEST_CASE("spring.size and spring.torque speak under the names of the contract") {
    const json size = answer("spring.size", {{"barrel_bore_mm", 40}, {"arbor_mm", 13}, {"thickness_mm", 0.4}});
    // Half of π (20² − 6.5²) is strip: that over 0.4 mm.
    CHECK(number(size, "length_mm") == Approx(pi * (400 - 42.25) / 0.8));
    CHECK(number(size, "fill") == Approx(0.5));
    CHECK(number(size, "turns") == Approx(number(size, "coils_wound") - number(size, "coils_unwound")));
    CHECK(size.at("warnings").empty());
    CHECK(refusal("spring.size", {{"barrel_bore_mm", 40}, {"arbor_mm", 13}, {"thickness_mm", 0.4}, {"length_mm", 9000}})
              .starts_with("length_mm: got 9000"));
    const json torque = answer("spring.torque", {{"width_mm", 20}, {"thickness_mm", 0.4}, {"length_mm", 1000}, {"turns", 5}});
    // A strip bent to a circle of 200 mm round: E I ÷ radius.
    CHECK(number(torque, "torque_N_mm") == Approx(205000 * 20 * 0.064 / 12 / (200 / (2 * pi))));
    CHECK(number(torque, "stress_N_mm2") == Approx(205000 * 0.2 / (200 / (2 * pi))));
}

TEST_CASE("spring.match takes its strips as a list or as the path of a CSV") {
    json input = {{"barrel_bore_mm", 42}, {"arbor_mm", 14}, {"barrel_height_mm", 23}, {"turns_needed", 4}, {"least_N_mm", 320}};
    input["stock"] = std::string(DEMO_FOLDER) + "/../stock/strips.csv";
    const json from_file = answer("spring.match", input);
    REQUIRE(from_file.at("ranked").size() > 10);
    CHECK(from_file["ranked"][0]["verdict"] == "right");
    CHECK(number(from_file, "wanted_N_mm") == Approx(560));
    input["stock"] = {{{"id", "one"}, {"width_mm", 22}, {"thickness_mm", 0.3}, {"length_mm", 2400}}};
    const json from_list = answer("spring.match", input);
    CHECK(from_list["ranked"][0]["id"] == "one");
    for (const char* field : {"torque_start_N_mm", "torque_end_N_mm", "turns", "stress_N_mm2"})
        CHECK(number(from_list["ranked"][0], field) > 0);
    input["stock"] = "nowhere.csv";
    CHECK(refusal("spring.match", input).starts_with("stock: got"));
}

TEST_CASE("fusee.profile, weight.drive and power.chain keep their energy on the command line too") {
    const json fusee = answer("fusee.profile", {{"torque_set_up_N_mm", 400},
                                                {"torque_per_turn_N_mm", 60},
                                                {"barrel_diameter_mm", 46},
                                                {"line_diameter_mm", 1.4},
                                                {"fusee_turns", 14},
                                                {"large_diameter_mm", 36}});
    const double turns = number(fusee, "barrel_turns");
    CHECK((400 + 60 * turns / 2) * turns == Approx(number(fusee, "level_torque_N_mm") * 14));
    CHECK(fusee.at("radii_mm").size() == 57);
    CHECK(number(fusee, "line_length_mm") == Approx(pi * 47.4 * turns));
    CHECK(refusal("fusee.profile", {{"barrel_diameter_mm", 46}, {"line_diameter_mm", 1}, {"fusee_turns", 9}})
              .starts_with("torque_curve: got nothing"));
    const json weight = answer("weight.drive", {{"drum_diameter_mm", 50}, {"line_diameter_mm", 2}, {"weight_kg", 6}, {"turns", 16}});
    CHECK(number(weight, "torque_N_mm") * 2 * pi * 16 / 1000 == Approx(6 * 9.80665 * number(weight, "fall_mm") / 1000));
    json chain = {{"arbors",
                   {{{"id", "great"}, {"wheel", 96}},
                    {{"id", "centre"}, {"pinion", 8}, {"wheel", 60}},
                    {{"id", "escape"}, {"pinion", 8}, {"wheel", 30}}}},
                  {"reference", {{"arbor", "centre"}, {"period_s", 3600}}},
                  {"escape_arbor", "escape"},
                  {"torque_N_mm", 600},
                  {"efficiency", 1},
                  {"oscillator", {{"Q", 900}, {"mass_kg", 0.3}, {"length_mm", 250}}}};
    const json out = answer("power.chain", chain);
    CHECK(number(out["arbors"][2], "torque_N_mm") == Approx(600.0 / 12 / 7.5));
    CHECK(number(out, "energy_per_beat_J") == Approx(600.0 / 90 / 1000 * 2 * pi / 60));
    CHECK(number(out, "semi_arc_deg") > 0);
    chain["oscillator"].erase("mass_kg");
    CHECK(refusal("power.chain", chain).starts_with("oscillator.mass_kg: got nothing"));
}

TEST_CASE("balance, pendulum.compound and rate.fit answer as the contract names them") {
    const json balance = answer("balance", {{"beats_per_hour", 18000},
                                            {"spring", {{"width_mm", 0.12}, {"thickness_mm", 0.03}, {"length_mm", 90}}},
                                            {"length_change_mm", -0.9}});
    // A hundredth shorter: faster by the root of 100 ÷ 99.
    CHECK(number(balance, "rate_change_s_per_day") == Approx(86400 * (std::sqrt(100.0 / 99) - 1)));
    CHECK(number(balance, "inertia_kg_m2") == Approx(number(balance, "stiffness_N_m_per_rad") * 0.04 / (pi * pi)));
    CHECK(refusal("balance", {{"beats_per_hour", 18000}}).starts_with("inertia_kg_m2: got 1 of"));
    const json compound = answer(
        "pendulum.compound",
        {{"parts", {{{"shape", "point"}, {"centre_mm", 500}, {"mass_kg", 1}}, {{"shape", "point"}, {"centre_mm", 1000}, {"mass_kg", 1}}}}});
    // Two points: (0.25 + 1) ÷ (0.5 + 1).
    CHECK(number(compound, "equivalent_length_mm") == Approx(1250.0 / 1.5));
    CHECK(number(compound, "centre_of_mass_mm") == Approx(750));
    const json rate =
        answer("rate.fit", {{"observations", {{{"reference_s", 0}, {"shown_s", 0}}, {{"reference_s", 172800}, {"shown_s", 172810}}}}});
    CHECK(number(rate, "rate_s_per_day") == Approx(5));
    CHECK(rate.at("outliers").empty());
    CHECK(number(rate, "u_s_per_day") == Approx(0.5 * std::sqrt(2.0) / 2));
}
