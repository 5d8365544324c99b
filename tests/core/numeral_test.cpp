#include <rapidcheck/catch.h>

#include <clocale>
#include <cmath>
#include <cstdlib>
#include <filesystem>
#include <functional>

#include "beat/readings.h"
#include "exchange/drawing.h"
#include "exchange/outline_in.h"
#include "job/file.h"
#include "number/numeral.h"
#include "number/units.h"
#include "power/readings.h"
#include "stock/stock.h"
#include "support/demo.h"
#include "survey/round.h"
#include "survey/trials.h"
#include "topic.h"
#include "train/question.h"
#include "train/reading.h"
#include "workings/record_json.h"

using namespace echappe;

namespace {

/// One way in for a figure, and what it kept of the text; an InputError is its other answer.
struct Entry {
    std::string name;
    std::function<double(const std::string&)> read;
};

const Job& tide_house() {
    static const Job job = demo::job();
    return job;
}

std::string cell(const std::string& text) { return "\"" + text + "\""; }

void add_tables(std::vector<Entry>& all) {
    all.push_back({"holes.csv", [](const std::string& text) {
                       Job job = tide_house();
                       keep_survey_csv(job.survey.pivots, job.train, "arbor,plate,pivot_mm\ngreat,front," + cell(text) + "\n");
                       return job.survey.pivots.hole("great.front")->pivot_mm.value();
                   }});
    all.push_back({"looks.csv", [](const std::string& text) {
                       RateLog log;
                       keep_looks_csv(log, "reference_s,shown_s\n1794297600," + cell(text) + "\n");
                       return log.looks.at(0).shown_s;
                   }});
    all.push_back({"torque.csv", [](const std::string& text) {
                       DriveRecord drive;
                       keep_torque_csv(drive, "turns,down_N_mm\n1," + cell(text) + "\n");
                       return drive.torque_down.at(0)[1];
                   }});
    all.push_back(
        {"cutters.csv", [](const std::string& text) {
             return cutters_from_csv("id,part,school,module_mm,quantity\na,wheel,cycloidal-clock," + cell(text) + ",1\n").at(0).module_mm;
         }});
    all.push_back({"bushes.csv", [](const std::string& text) {
                       return bushes_from_csv("id,bore_mm,outside_mm,height_mm,quantity\na," + cell(text) + ",90,2,1\n").at(0).bore_mm;
                   }});
    all.push_back({"reamers.csv",
                   [](const std::string& text) { return reamers_from_csv("id,diameter_mm\na," + cell(text) + "\n").at(0).diameter_mm; }});
    all.push_back({"outline.csv", [](const std::string& text) {
                       return outlines_from_csv("x_mm,y_mm\n0,0\n1,0\n" + cell(text) + ",1\n").at(0).at(2)[0];
                   }});
}

/// Every way in for a figure: the line of each kind of question, the sums, the tables, the command line.
std::vector<Entry> entries() {
    static const Derived derived = derive(tide_house());
    std::vector<Entry> all;
    for (const Unit& unit : units())
        all.push_back({"a reading in " + std::string(unit.symbol),
                       [&unit](const std::string& text) { return parse_reading(text, unit, "x").value; }});
    for (const Measurable& m : derived.train.measurables)
        all.push_back(
            {m.name, [&m](const std::string& text) { return read_evidence(tide_house().train, tide_house().length, m.key, text).value; }});
    for (const SurveyQuestion& question : survey_round(tide_house().survey, tide_house().train, tide_house().length, derived.pivots))
        all.push_back({name_of(tide_house().train, question), [question](const std::string& text) {
                           return read_survey(tide_house().train, tide_house().length, question, text);
                       }});
    all.push_back({"a look at the clock", [](const std::string& text) { return read_look(text, 1.7e9).shown_s; }});
    all.push_back({"the warmth of a look", [](const std::string& text) { return *read_look("+1 " + text + "C", 1.7e9).temperature_C; }});
    all.push_back({"the coast of a trial", [](const std::string& text) { return read_coast(text); }});
    all.push_back({"ppm of a train", [](const std::string& text) {
                       return *read_train_question(tide_house().train, "60 ppm " + text, {}).find.tolerance_ppm;
                   }});
    all.push_back({"an exact ratio", [](const std::string& text) { return Rational::parse(text, "x").to_double(); }});
    add_tables(all);
    return all;
}

/// The value kept, nothing when it was refused.
std::optional<double> kept(const Entry& entry, const std::string& text) {
    try {
        return entry.read(text);
    } catch (const InputError&) {
        return {};
    } catch (const std::logic_error&) {
        return {};  // an empty cell: nothing was kept
    }
}

/// What is typed on the line, put into a job.
std::vector<std::pair<std::string, std::function<void(Job&, const std::string&)>>> edits() {
    static const Derived derived = derive(tide_house());
    std::vector<std::pair<std::string, std::function<void(Job&, const std::string&)>>> all;
    for (const Measurable& m : derived.train.measurables)
        all.push_back({m.name, [&m](Job& job, const std::string& text) {
                           const Evidence evidence = read_evidence(job.train, job.length, m.key, text);
                           job.train.measurements.push_back({"typed", evidence, "", "", "", false});
                       }});
    for (const SurveyQuestion& question : survey_round(tide_house().survey, tide_house().train, tide_house().length, derived.pivots))
        all.push_back({name_of(tide_house().train, question), [question](Job& job, const std::string& text) {
                           keep_survey_reading(job.survey.pivots, question, read_survey(job.train, job.length, question, text));
                       }});
    all.push_back({"a look", [](Job& job, const std::string& text) { job.rate_log.looks.push_back(read_look(text, 1.7e9)); }});
    all.push_back({"a torque", [](Job& job, const std::string& text) {
                       const double torque = parse_reading(text, base_unit(Dimension::torque), "torque").value;
                       keep_torque(job.power.drives.front(), {1, true, false, {}}, torque);
                       keep_torque(job.power.drives.front(), {0, false, true, {}}, torque);
                   }});
    all.push_back({"a coast", [](Job& job, const std::string& text) {
                       TrialRecord trial;
                       trial.arbors = {"great"};
                       trial.coast_s = read_coast(text);
                       keep_trial(job.survey, trial);
                   }});
    return all;
}

}  // namespace

TEST_CASE("no entry takes a figure that is not finite") {
    for (const Entry& entry : entries())
        for (const char* text : {"nan", "NaN", "-nan", "nan(1)", "inf", "-inf", "Infinity", "1e999", "-1e999", "1e308 m", "1e308±1e308 m",
                                 "9e307/1e-300", "0x10", "1e309", "nan s", "+nan", "inf:00"}) {
            INFO(entry.name << " given " << text);
            CHECK_FALSE(kept(entry, text));
        }
}

TEST_CASE("whatever is typed, what an entry keeps is finite") {
    const auto all = entries();
    CHECK(rc::check([&] {
        static const std::vector<std::string> pieces = {"nan", "inf", "1e999", "e308", "1e308", "±", "+-", "/",     "-",
                                                        "+",   ".",   ",",     " ",    "0",     "7", "38", "m",     "in",
                                                        "d",   "°",   "h",     ":",    "C",     "e", "00", "\u00a0"};
        std::string text;
        for (const std::string& piece : *rc::gen::container<std::vector<std::string>>(rc::gen::elementOf(pieces))) text += piece;
        for (const Entry& entry : all)
            if (const auto value = kept(entry, text)) RC_ASSERT(std::isfinite(*value));
    }));
}

TEST_CASE("what an entry keeps is saved and read back without a fault") {
    for (const auto& [name, keep] : edits())
        for (const char* text : {"0",     "-1",          "1e-300",   "1e-9",  "0.35",   "35.12±1e8", "35.12±1e-9",
                                 "99",    "360",         "1000",     "1e6",   "1e9",    "1e12",      "1e15",
                                 "1e300", "1e300±1e300", "999/1e-9", "1/1e9", "+86400", "23:59:59",  "2026-11-27 08:00 +12.4 80C"}) {
            Job job = tide_house();
            try {
                keep(job, text);
            } catch (const InputError&) {
                continue;
            }
            INFO(name << " given " << text);
            const LoadedJob back = job_from_text(job_to_text(job));
            CHECK(back.faults.empty());
            CHECK(job_to_text(back.job) == job_to_text(job));
        }
}

TEST_CASE("a decimal comma is a decimal point in every entry") {
    // Tables, lines and questions: whatever takes the one takes the other, as the same figure.
    int taken = 0;
    for (const Entry& entry : entries())
        for (const auto& [point, comma] : {std::pair("35.12", "35,12"), std::pair("0.5", ",5"), std::pair("1.50", "1,50")}) {
            INFO(entry.name << " given " << comma);
            const auto with_point = kept(entry, point);
            CHECK(with_point == kept(entry, comma));
            taken += with_point.has_value();
        }
    CHECK(taken > 40);
}

TEST_CASE("a reading pasted with a line end, a no-break space, a unit or a typographic minus is read") {
    const Unit& mm = *find_unit("mm", Dimension::length);
    for (const char* text : {"35.12\n", "\r\n35.12\r\n", "35.12\u00a0mm", "\ufeff35.12", "35,12\u202fmm\n", "\t35.12 mm", "35.12\u2028"}) {
        INFO(text);
        CHECK(parse_reading(text, mm, "x").value == 35.12);
    }
    CHECK(parse_reading("\u22120.35 mm", mm, "x").value == -0.35);
    CHECK(parse_reading("-1 3/8 in", mm, "x").value == Approx(-34.925));
    // Two readings are not one.
    CHECK_THROWS_AS(parse_reading("35.12\n36.00", mm, "x"), InputError);
    CHECK_THROWS_AS(parse_reading("35 12", mm, "x"), InputError);
}

TEST_CASE("ten thousand letters are refused in one short sentence that ends within a letter's bounds") {
    const std::string letters(10000, 'x');
    try {
        parse_reading(letters, *find_unit("mm", Dimension::length), "third wheel");
        FAIL("taken");
    } catch (const InputError& error) {
        CHECK(std::string(error.what()).size() < 300);
        CHECK_THAT(error.what(), Catch::Contains("…"));
    }
    CHECK(shortened("µµµ", 3) == "µ…");
    CHECK(shortened("µ", 2) == "µ");
    CHECK(InputError("x", letters, "y").got().size() < 300);
}

TEST_CASE("whole numbers have digits only") {
    CHECK(read_whole("96") == 96);
    CHECK(read_whole(" -3 ") == -3);
    CHECK(read_whole("999999999999999999") == 999999999999999999);
    for (const char* text : {"", "-", "1e3", "9.0", "1000000000000000000", "nan", "0x1", "12 34"}) {
        INFO(text);
        CHECK_FALSE(read_whole(text));
    }
}

TEST_CASE("a table written with decimal commas parts its columns at semicolons") {
    const auto bushes = bushes_from_csv("id;bore_mm;outside_mm;height_mm;quantity\nB 1;1,25;3;2,5;4\n");
    REQUIRE(bushes.size() == 1);
    CHECK(bushes.front().bore_mm == 1.25);
    CHECK(bushes.front().height_mm == 2.5);
    // A note with a semicolon is quoted, and read back as it was.
    auto cutters = cutters_from_csv("id,part,school,module_mm,quantity,note\na,wheel,cycloidal-clock,0.6,1,\"worn; sharpen\"\n");
    REQUIRE(cutters.size() == 1);
    CHECK(cutters_from_csv(cutters_to_csv(cutters)).front().note == "worn; sharpen");
}

TEST_CASE("figures are printed with a point though the system's language has a comma") {
    // The language is made here: a machine has none of its own until somebody asks for it.
    std::string folder = (std::filesystem::temp_directory_path() / "echappe-language-XXXXXX").string();
    REQUIRE(mkdtemp(folder.data()));
    REQUIRE(std::system(("localedef -i de_DE -f UTF-8 " + folder + "/de_DE.UTF-8 > /dev/null 2>&1").c_str()) >= 0);
    setenv("LOCPATH", folder.c_str(), 1);
    REQUIRE(std::setlocale(LC_NUMERIC, "de_DE.UTF-8"));
    char comma[8];
    std::snprintf(comma, sizeof comma, "%.1f", 0.5);
    const std::string fixed = print_fixed(35.12, 2);
    const std::string brief = print_short(1234.5);
    Drawing drawing;
    drawing.layers.push_back({"a", {}, {}, {}});
    drawing.layers.back().circles.push_back({{0.5, 0.25}, 1.5});
    const std::string svg = to_svg(drawing);
    const std::string dxf = to_dxf(drawing);
    const double read = parse_reading("35.12", *find_unit("mm", Dimension::length), "x").value;
    std::setlocale(LC_NUMERIC, "C");
    std::filesystem::remove_all(folder);
    CHECK(std::string(comma) == "0,5");  // the language was really in force
    CHECK(fixed == "35.12");
    CHECK(brief == "1234.5");
    CHECK(read == 35.12);
    CHECK_THAT(svg, Catch::Contains("1.5") && !Catch::Contains("1,5"));
    CHECK_THAT(dxf, Catch::Contains("1.5") && !Catch::Contains("1,5"));
}
