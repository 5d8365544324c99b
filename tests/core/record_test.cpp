#include <catch2/catch.hpp>

#include "workings/record_json.h"

using namespace echappe;

namespace {

struct Leaf {
    long long count = 7;
    std::optional<double> size_mm;
    static const Record& record() {
        static const Record r = Fields<Leaf>()
                                    .add("count", &Leaf::count, "", "how many", between(4, 200))
                                    .add("size_mm", &Leaf::size_mm, "mm", "size", above(0));
        return r;
    }
};

struct Sample {
    double angle_deg = 1.5;
    std::string form = "round";
    bool oiled = false;
    Count wheel;
    Rational ratio{1};
    Leaf leaf;
    std::vector<Leaf> leaves;
    std::vector<std::string> names;
    std::map<std::string, double> sizes;
    std::vector<std::array<double, 2>> points;
    static const Record& record() {
        static const Record r = Fields<Sample>()
                                    .add("angle_deg", &Sample::angle_deg, "deg", "an angle", between(-10, 10))
                                    .add("form", &Sample::form, "", "a form")
                                    .choices({"round", "square"})
                                    .add("oiled", &Sample::oiled, "", "oiled or not")
                                    .add("wheel", &Sample::wheel, "", "teeth", between(4, 1000))
                                    .add("ratio", &Sample::ratio, "", "a ratio", above(0))
                                    .add("leaf", &Sample::leaf, "", "one leaf")
                                    .add("leaves", &Sample::leaves, "", "several")
                                    .add("names", &Sample::names, "", "names")
                                    .add("sizes", &Sample::sizes, "", "sizes")
                                    .add("points", &Sample::points, "", "points");
        return r;
    }
};

std::vector<std::string> faults_of(const std::string& text) {
    Sample sample;
    std::vector<std::string> sentences;
    for (const InputError& fault : read_json(text, Sample::record(), &sample)) sentences.emplace_back(fault.what());
    return sentences;
}

std::string fault(const std::string& text) {
    const auto all = faults_of(text);
    return all.empty() ? "" : all.front();
}

}  // namespace

TEST_CASE("a declared struct survives writing and reading") {
    Sample sample;
    sample.angle_deg = 0.1 + 0.2;
    sample.form = "square";
    sample.oiled = true;
    sample.wheel = 96;
    sample.ratio = Rational(1, 3);
    sample.leaf = {12, 0.65};
    sample.leaves = {{8, {}}, {10, 1e-9}};
    sample.names = {"a \"quoted\" name", "naïve"};
    sample.sizes = {{"a", 1.5}};
    sample.points = {{1, 2}, {-3.25, 0}};
    const std::string text = write_json(Sample::record(), &sample, Empty::left_out);
    Sample again;
    REQUIRE(read_json(text, Sample::record(), &again).empty());
    CHECK(again.angle_deg == sample.angle_deg);
    CHECK(again.ratio == sample.ratio);
    CHECK(*again.leaves[1].size_mm == 1e-9);
    CHECK(write_json(Sample::record(), &again, Empty::left_out) == text);
}

TEST_CASE("a fault names its place, what it got and what it takes") {
    CHECK(fault(R"({"leaves":[{"count":8},{"count":2}]})") == "leaves[1].count: got 2, takes 4 to 200");
    CHECK(fault(R"({"leaf":{"size_mm":0}})") == "leaf.size_mm: got 0, takes a number above 0");
    CHECK(fault(R"({"angle_deg":"wide"})") == "angle_deg: got \"wide\", takes -10 to 10");
    CHECK(fault(R"({"form":"oval"})") == "form: got \"oval\", takes \"round\", \"square\"");
    CHECK(fault(R"({"leaf":{"count":8.5}})") == "leaf.count: got 8.5, takes 4 to 200");
    CHECK(fault(R"({"oiled":1})") == "oiled: got 1, takes true or false");
    CHECK(fault(R"({"leaves":{}})") == "leaves: got an object, takes a list");
    CHECK(fault(R"({"ratio":"1/0"})") == "ratio: got \"1/0\", takes a decimal number or a fraction num/den");
    CHECK(fault(R"({"points":[[1,2,3]]})") == "points[0]: got a list, takes a point [x, y]");
    CHECK(fault(R"([1])") == "input: got a list, takes an object");
}

TEST_CASE("an unknown field names the nearest known one") {
    CHECK(fault(R"({"angel_deg":1})") == "angel_deg: got a field it does not know, takes \"angle_deg\" (the nearest known name)");
    CHECK(fault(R"({"leaf":{"cuont":8}})") == "leaf.cuont: got a field it does not know, takes \"count\" (the nearest known name)");
}

TEST_CASE("all faults are found at once and the sound fields are still read") {
    Sample sample;
    const auto faults = read_json(R"({"angle_deg":99,"form":"square","wheel":1,"leaf":{"count":12}})", Sample::record(), &sample);
    CHECK(faults.size() == 2);
    CHECK(sample.form == "square");
    CHECK(sample.leaf.count == 12);
    CHECK(sample.angle_deg == 1.5);
}

TEST_CASE("text that is not JSON is told with line and column") {
    CHECK(fault("{\n  \"form\": ,\n}") == "input: got text that stops being JSON at line 2, column 11, takes a complete JSON object");
    CHECK_THAT(fault(""), Catch::Contains("line 1"));
    CHECK_THAT(fault("{} trailing"), Catch::Contains("stops being JSON"));
    CHECK_THAT(fault(R"({"angle_deg":1e999})"), Catch::Contains("too large"));
    CHECK_THAT(fault(R"({"form":"round","form":"square"})"), Catch::Contains("the same name twice"));
    CHECK_THAT(fault(std::string(100000, '[')), Catch::Contains("nesting deeper"));
}

TEST_CASE("a lost count is null and an absent one is left out") {
    Sample sample;
    REQUIRE(read_json(R"({"wheel":null})", Sample::record(), &sample).empty());
    CHECK(sample.wheel == Count::lost());
    CHECK_THAT(write_json(Sample::record(), &sample, Empty::left_out), Catch::Contains("\"wheel\": null"));
    sample.wheel = Count();
    CHECK_THAT(write_json(Sample::record(), &sample, Empty::left_out), !Catch::Contains("wheel"));
}

TEST_CASE("no number that is not finite leaves the core") {
    Sample sample;
    sample.angle_deg = std::numeric_limits<double>::quiet_NaN();
    CHECK_THROWS_AS(write_json(Sample::record(), &sample, Empty::null), std::logic_error);
    CHECK_FALSE(between(0, 1).holds(sample.angle_deg));
    CHECK_FALSE(any_number().holds(sample.angle_deg));
}

TEST_CASE("a word on the command line may carry a unit") {
    Leaf leaf;
    read_word(*Leaf::record().find("size_mm"), "1/8in", &leaf);
    CHECK(*leaf.size_mm == Approx(3.175));
    read_word(*Leaf::record().find("count"), "12", &leaf);
    CHECK(leaf.count == 12);
    CHECK_THROWS_WITH(read_word(*Leaf::record().find("count"), "twelve", &leaf), "count: got \"twelve\", takes 4 to 200");
    CHECK_THROWS_WITH(read_word(*Leaf::record().find("size_mm"), "-1", &leaf), "size_mm: got -1.0, takes a number above 0");
}
