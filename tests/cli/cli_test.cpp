#include "cli/ask.h"
#include "number/input_error.h"
#include "verbs.h"
#include "workings/record_json.h"

// The command line's contract: JSON and 0, or one line that names the field and 2.

namespace {

using nlohmann::json;

json regulator() {
    return {{"arbors",
             {{{"id", "great"}, {"wheel", 144}},
              {{"id", "centre"}, {"pinion", 12}, {"wheel", 96}},
              {{"id", "third"}, {"pinion", 12}, {"wheel", 90}},
              {{"id", "escape"}, {"pinion", 12}, {"wheel", 30}}}},
            {"reference", {{"arbor", "centre"}, {"period_s", 3600}}},
            {"escape_arbor", "escape"}};
}

json lost() {
    json in = regulator();
    in["arbors"][2] = {{"id", "third"}, {"pinion", nullptr}, {"wheel", nullptr}};
    in["evidence"] = {{{"kind", "beats_per_hour"}, {"value", 3600}, {"u", 0.5}},
                      {{"kind", "module_mm"}, {"wheel_of", "centre"}, {"pinion_of", "third"}, {"value", 0.65}, {"u", 0.003}},
                      {{"kind", "centre_distance_mm"}, {"wheel_of", "centre"}, {"pinion_of", "third"}, {"value", 35.1}, {"u", 0.05}}};
    return in;
}

}  // namespace

TEST_CASE("list names every verb with one sentence") {
    const Ran ran = cli("list");
    CHECK(ran.exit == 0);
    for (const char* verb : {"train.run", "train.restore", "tooth.geometry", "tooth.profile", "pendulum", "job.report", "job.check"})
        CHECK_THAT(ran.out, Catch::Contains(verb));
    CHECK(std::count(ran.out.begin(), ran.out.end(), '\n') == static_cast<long>(echappe::verbs().size()));
}

TEST_CASE("the version is that of the changelog's first entry") {
    const std::string changes = read_file(SOURCE_FOLDER "/CHANGELOG.md"), heading = "\n## ";
    const size_t at = changes.find(heading) + heading.size();
    CHECK(cli("--version").out == "echappe " + changes.substr(at, changes.find(',', at) - at) + "\n");
    CHECK(cli("--version").exit == 0);
}

TEST_CASE("help tells every input with unit, range and default, every output, and the source") {
    const Ran ran = cli("help pendulum");
    CHECK(ran.exit == 0);
    CHECK_THAT(ran.out, Catch::Contains("length_mm [mm] (0.01 to 1000000)"));
    CHECK_THAT(ran.out, Catch::Contains("semi_arc_deg [deg] (0 to 170) default 0"));
    CHECK_THAT(ran.out, Catch::Contains("circular_error_s_per_day [s/d]"));
    CHECK_THAT(ran.out, Catch::Contains("source\n  exact pendulum"));
    for (const echappe::Calculation* verb : echappe::verbs()) CHECK(cli("help " + verb->verb).exit == 0);
    // Asked either way, as the manual says.
    CHECK(cli("pendulum --help").out == ran.out);
    CHECK(cli("pendulum --length-mm 994 -h").out == ran.out);
}

TEST_CASE("train.run gives exact periods, directions and beats") {
    const json out = answer("train.run", regulator());
    CHECK(out["beats_per_hour"] == 3600);
    CHECK(out["beats_per_hour_exact"] == "3600/1");
    CHECK(out["arbors"][2]["id"] == "third");
    CHECK(out["arbors"][2]["period_s"] == 450);
    CHECK(out["arbors"][2]["period_s_exact"] == "450/1");
    CHECK(out["arbors"][2]["turns_per_hour"] == 8);
    CHECK(out["arbors"][2]["direction"] == "ccw");
}

TEST_CASE("train.run refuses what cannot be with the place, counted from 0") {
    json in = regulator();
    in["arbors"][1]["pinion"] = 0;
    CHECK(refusal("train.run", in) == "arbors[1].pinion: got 0, takes 4 to 200");
    in = regulator();
    in["arbors"][1]["pinoin"] = 12;
    CHECK(refusal("train.run", in) == "arbors[1].pinoin: got a field it does not know, takes \"pinion\" (the nearest known name)");
    in = regulator();
    in["arbors"][1]["pinion"] = nullptr;
    CHECK(refusal("train.run", in) == "arbors[1].pinion: got null, takes 4 to 200");
    in = regulator();
    in.erase("reference");
    CHECK_THAT(refusal("train.run", in), Catch::StartsWith("reference: got nothing"));
    in = regulator();
    in["beats_per_tooth"] = 3;
    CHECK(refusal("train.run", in) == "beats_per_tooth: got 3, takes 1 to 2");
}

TEST_CASE("train.restore lists weighed candidates with strain, modules and the next measurement") {
    const json out = answer("train.restore", lost());
    CHECK(out["considered"] == 131 * 16);
    const json& first = out["candidates"][0];
    CHECK(first["counts"] == json({{"third.pinion", 12}, {"third.wheel", 90}}));
    CHECK(first["weight"].get<double>() > 0.99);
    CHECK(first["beats_per_hour"] == 3600);
    CHECK(first["modules_mm"]["centre-third"].get<double>() == Approx(0.65));
    CHECK(first["strain"].size() == 3);
    CHECK(first["strain"][0].contains("sigma"));
    CHECK(out["conflict"].is_null());
    CHECK(out.contains("next_measurement"));
    CHECK(out.contains("weight_not_listed"));
}

TEST_CASE("train.restore takes absent counts named in unknown, limits and best") {
    json in = lost();
    in["arbors"][2] = {{"id", "third"}};
    in["unknown"] = {"third.wheel", "third.pinion"};
    in["limits"] = {{"wheel", {{"min", 80}, {"max", 100}}}, {"pinion", {{"min", 10}, {"max", 12}}}};
    in["best"] = 1;
    const json out = answer("train.restore", in);
    CHECK(out["considered"] == 21 * 3);
    CHECK(out["candidates"].size() == 1);
}

TEST_CASE("train.restore refuses evidence without a positive uncertainty") {
    json in = lost();
    in["evidence"][0]["u"] = 0;
    CHECK(refusal("train.restore", in) == "evidence[0].u: got 0, takes more than 0 to 1000000000");
    in = lost();
    in["evidence"][2]["kind"] = "center_distance_mm";
    CHECK_THAT(refusal("train.restore", in), Catch::StartsWith("evidence[2].kind: got \"center_distance_mm\", takes"));
}

TEST_CASE("flat inputs are options in kebab case and may carry a unit") {
    const json out = answer("tooth.geometry --wheel 64 --pinion 8 --module-mm 1");
    CHECK(out["centre_distance_mm"] == 36);
    CHECK(out["wheel"]["theoretical_addendum_mm"].get<double>() == Approx(1.552).margin(0.0005));
    for (const char* part : {"wheel", "pinion"})
        for (const char* size : {"pitch_diameter_mm", "outside_diameter_mm", "root_diameter_mm", "addendum_mm", "dedendum_mm",
                                 "thickness_mm", "depth_of_cut_mm"})
            CHECK(out[part].contains(size));
    CHECK(answer("pendulum --length-mm 39.118in")["length_mm"].get<double>() == Approx(993.5972));
    CHECK(answer("pendulum --beats-per-hour=3600 --altitude-m -100 --latitude-deg 52")["gravity_m_s2"].get<double>() > 9.8);
}

TEST_CASE("unknown words name the nearest known") {
    CHECK(refusal("pendulum --beats-per-huor 3600") ==
          "beats_per_huor: got an option it does not know, takes --beats-per-hour (the nearest known)");
    CHECK(refusal("pendulm") == "verb: got \"pendulm\", takes \"pendulum\" (the nearest known); all with: echappe-cli list");
    CHECK_THAT(refusal("help tooth.geomtry"), Catch::Contains("tooth.geometry"));
    CHECK_THAT(refusal("pendulum --beats-per-hour"), Catch::StartsWith("options: got"));
    CHECK_THAT(refusal("tooth.geometry --wheel 64 --pinion 8"), Catch::StartsWith("module_mm: got nothing"));
    CHECK_THAT(refusal("pendulum --input /no/such/file"), Catch::Contains("which cannot be read"));
    CHECK_THAT(refusal("pendulum", "a word"), Catch::StartsWith("input: got"));
}

TEST_CASE("tooth.profile gives a closed outline, and SVG or DXF that can be taken out as they are") {
    const json out = answer("tooth.profile --wheel 90 --pinion 12 --module-mm 0.6 --part pinion --points-per-flank 8");
    CHECK(out["outline"].size() % 12 == 0);
    CHECK(out["svg"].is_null());
    const Ran svg = cli("tooth.profile --wheel 90 --pinion 12 --module-mm 0.6 --format svg --take svg");
    CHECK(svg.exit == 0);
    CHECK_THAT(svg.out, Catch::StartsWith("<?xml"));
    const Ran dxf = cli("tooth.profile --wheel 90 --pinion 12 --module-mm 0.6 --format dxf --take dxf");
    CHECK_THAT(dxf.out, Catch::Contains("POLYLINE") && Catch::Contains("EOF"));
    CHECK_THAT(refusal("tooth.profile --wheel 90 --pinion 12 --module-mm 0.6 --format pdf"),
               Catch::Contains("\"points\", \"svg\", \"dxf\""));
    CHECK_THAT(refusal("tooth.profile --wheel 90 --pinion 12 --module-mm 0.6 --take swg"), Catch::Contains("\"svg\" (the nearest output)"));
}

TEST_CASE("numbers read back as the same double") {
    const json out = answer("pendulum --period-s 1.1 --semi-arc-deg 3.3");
    const json again = json::parse(out.dump());
    CHECK(again == out);
    CHECK(out["period_s"].get<double>() == 1.1);
}

TEST_CASE("the option workings tells formula, numbers, result and source instead") {
    const Ran ran = cli("tooth.geometry --wheel 96 --pinion 12 --module-mm 0.65 --workings");
    CHECK(ran.exit == 0);
    CHECK_THAT(ran.out, Catch::Contains("C = m (N + n) ÷ 2") && Catch::Contains("C = 0.65 × (96 + 12) ÷ 2") &&
                            Catch::Contains("= 35.1 mm") && Catch::Contains("source: BS 978-2"));
}

TEST_CASE("job.report derives the demo and job.check finds it sound") {
    const std::string demo = std::string(DEMO_FOLDER) + "/tide-house.echappe.json";
    const json report = answer("job.report --input " + demo);
    CHECK(report["title"] == "Tide-house regulator");
    CHECK(report["candidates"].size() >= 4);
    CHECK(report["findings"][0]["id"] == "train.undecided");
    CHECK(report["next_measurement"]["kind"] == "centre_distance_mm");
    const json check = answer("job.check " + demo);
    CHECK(check["lost_counts"] == 2);
    CHECK(check["arbors"] == 6);
}

TEST_CASE("job.check tells every fault's place, a line each") {
    json job = json::parse(read_file(std::string(DEMO_FOLDER) + "/tide-house.echappe.json"));
    job["arbors"][0]["wheel"] = 2;
    job["measurements"][0]["u"] = -1;
    job["titel"] = "x";
    const Ran ran = cli("job.check --input -", job.dump());
    CHECK(ran.exit == 2);
    CHECK(ran.out.empty());
    CHECK_THAT(ran.err, Catch::Contains("arbors[0].wheel: got 2") && Catch::Contains("measurements[0].u: got -1") &&
                            Catch::Contains("titel: got a field"));
    CHECK(std::count(ran.err.begin(), ran.err.end(), '\n') == 3);
    job = json::parse(read_file(std::string(DEMO_FOLDER) + "/tide-house.echappe.json"));
    job["trains"][0]["arbors"][0] = "grand";
    CHECK_THAT(refusal("job.check", job), Catch::StartsWith("trains[0].arbors[0]: got \"grand\""));
}

TEST_CASE("nonsense on standard input is one plain line, whatever the verb") {
    const std::vector<std::string> nonsense = {"", "{", "[]", "null", "{\"a\":1}", "{\"arbors\":7}", "\xff"};
    const auto says_what_to_do = [](const std::string& line) {
        CHECK_THAT(line, Catch::Contains(": got ") && Catch::Contains(", takes "));
    };
    size_t turn = 0;
    for (const echappe::Calculation* verb : echappe::verbs()) {
        for (const std::string& text : nonsense) {
            INFO(verb->verb << " " << text);
            const auto faults = echappe::read_json(text, *verb->input, verb->make_input().get());
            REQUIRE_FALSE(faults.empty());
            says_what_to_do(faults.front().what());
        }
        // By the program one of them each, in turn: it takes its line from there.
        const std::string& text = nonsense[turn++ % nonsense.size()];
        INFO(verb->verb << " " << text);
        const Ran ran = cli(verb->verb + " --input -", text);
        CHECK(ran.exit == 2);
        CHECK(ran.out.empty());
        says_what_to_do(ran.err);
    }
}
