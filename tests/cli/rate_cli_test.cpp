#include <cmath>

#include "cli/ask.h"

// Verbs of what swings and of rewound drives, as a script would ask them.

namespace {

using nlohmann::json;

}  // namespace

TEST_CASE("the new verbs of the swing answer to flat options and refuse in one line") {
    CHECK(answer("pendulum.compensate --kind gridiron")["rods"] == 9);
    CHECK(refusal("pendulum.compensate --kind sleeve --rod brass --up steel").starts_with("up: got steel"));
    const json made = answer("pendulum.design --beats-per-hour 7200 --bob-diameter-mm 70 --bob-thickness-mm 25");
    CHECK(made["bob_centre_mm"].get<double>() > 240);
    CHECK(made["parts"].size() == 2);
    CHECK(refusal("pendulum.design --beats-per-hour 7200").starts_with("bob_diameter_mm"));
    CHECK(answer("balance.beat --beat-error-ms 4 --amplitude-deg 250 --beats-per-hour 18000")["turn_deg"].get<double>() ==
          Approx(250 * std::sin(3.14159265358979 * 0.01)));
    CHECK(answer("balance.spring --inertia-kg-m2 4.5e-9 --beats-per-hour 18000 --width-mm 0.16 --thickness-mm 0.035 --length-mm "
                 "125")["overhang_mm"]
              .get<double>() > 0);
    CHECK(refusal("swing.decay --start-deg 2 --end-deg 3 --minutes 5 --beats-per-hour 3600").starts_with("end_deg: got 3"));
    CHECK(answer("swing.decay --start-deg 2 --end-deg 1 --minutes 20 --beats-per-hour 3600")["half_minutes"].get<double>() == Approx(20));
    CHECK(answer("rewind.drive --minutes 6 --arbor-turns 0.1 --torque-wound-N-mm 40")["rewinds_a_day"] == 240);
}

TEST_CASE("poise and inertia take their lists as JSON, and feed on each other") {
    const json wheel = {{"rim_outside_mm", 14}, {"rim_inside_mm", 12},  {"rim_height_mm", 0.3}, {"arms", 2},
                        {"arm_width_mm", 1},    {"arm_height_mm", 0.25}};
    const json inertia = answer("balance.inertia", wheel);
    json positions = json::array();
    for (const auto& [name, rate] : {std::pair{"12 down", 10.0}, {"3 down", 0.0}, {"6 down", -10.0}, {"9 down", 0.0}})
        positions.push_back({{"position", name}, {"rate_s_per_day", rate}, {"amplitude_deg", 180}});
    const json poise =
        answer("balance.poise", {{"positions", positions}, {"beats_per_hour", 18000}, {"inertia_kg_m2", inertia["inertia_kg_m2"]}});
    CHECK(poise["heavy_deg"].get<double>() == Approx(0).margin(1e-9));
    CHECK(poise["poise_s_per_day"].get<double>() == Approx(10));
}

TEST_CASE("the report of a job tells its means, what came of what was done, and where the power goes wrong") {
    const json watch = answer("job.report " DEMO_FOLDER "/watch.echappe.json");
    CHECK(watch["rate"]["means"][0]["id"] == "pins");
    CHECK(watch["rate"]["means"][0]["advice"].get<std::string>().find("away from the stud") != std::string::npos);
    CHECK(watch["rate"]["poise"]["heavy_deg"].get<double>() == Approx(125).margin(10));
    const json regulator = answer("job.report " DEMO_FOLDER "/tide-house.echappe.json");
    CHECK(regulator["rate"]["outcomes"][0].get<std::string>().find("expected −8.7 s/d, was −8.5") != std::string::npos);
    const json waiting_room = answer("job.report " DEMO_FOLDER "/waiting-room.echappe.json");
    CHECK(waiting_room["drives"][0]["look_at"][0].get<std::string>().find("strip") != std::string::npos);
    CHECK(waiting_room["drives"][0]["set_up"]["wants_per_turn_N_mm"].get<double>() > 0);
    CHECK(waiting_room["drives"][0]["wear"].empty());
}
