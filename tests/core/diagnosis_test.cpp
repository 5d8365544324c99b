#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "bench/diagnosis.h"
#include "number/input_error.h"

using namespace echappe;

namespace {

/// Two causes, one symptom, two tests: small enough for a sheet of paper.
const char* const small = R"({
  "causes": [{"id": "dirt", "words": "dirt", "prior": 0.75}, {"id": "wear", "words": "wear", "prior": 0.25, "only": {"drive": ["weight"]}}],
  "symptoms": [{"id": "stops", "words": "stops", "given": {"dirt": 0.2, "wear": 0.8}, "otherwise": 0.1}],
  "tests": [{"id": "look", "words": "Bright?", "minutes": 2, "results": [
              {"id": "yes", "given": {"dirt": 0.1, "wear": 0.9}, "otherwise": 0.5}, {"id": "no", "given": {"dirt": 0.9, "wear": 0.1}, "otherwise": 0.5}]},
            {"id": "listen", "words": "Quiet?", "minutes": 1, "results": [
              {"id": "yes", "given": {"dirt": 0.4, "wear": 0.6}, "otherwise": 0.5}, {"id": "no", "given": {"dirt": 0.6, "wear": 0.4}, "otherwise": 0.5}]}]
})";

const CauseNow& cause(const DiagnoseResult& out, const std::string& id) {
    for (const CauseNow& one : out.causes)
        if (one.id == id) return one;
    FAIL(id);
    return out.causes.front();
}

double bits(double p) { return p <= 0 || p >= 1 ? 0 : -p * std::log2(p) - (1 - p) * std::log2(1 - p); }

/// Follows the tests that are proposed, each answered as it mostly comes out where this is wrong; how many it took until that
/// cause stands first with two thirds or more.
int tests_until_found(DiagnoseInput in, const std::string& truth, int most) {
    for (int done = 0; done <= most; ++done) {
        const DiagnoseResult now = diagnose(in);
        if (now.causes.front().id == truth && now.causes.front().probability > 2.0 / 3) return done;
        REQUIRE(now.next_test);
        const DiagnosisTest& test = *shipped_diagnosis().test(now.next_test->id);
        const DiagnosisResult* likeliest = nullptr;
        double best = -1;
        for (const DiagnosisResult& result : test.results) {
            const auto at = result.given.find(truth);
            const double p = at == result.given.end() ? result.otherwise : at->second;
            if (p > best) best = p, likeliest = &result;
        }
        in.tests.push_back({test.id, likeliest->id});
    }
    return most + 1;
}

}  // namespace

TEST_CASE("what is seen moves the chances as Bayes' rule has it, worked out on paper") {
    const DiagnosisTables tables = diagnosis_from_json(small);
    DiagnoseInput in;
    in.symptoms = {"stops"};
    DiagnoseResult out = diagnose(in, tables);
    // 0.75 × 0.2 : 0.25 × 0.8 = 0.15 : 0.20
    CHECK(cause(out, "wear").probability == Approx(0.20 / 0.35));
    CHECK(out.causes.front().id == "wear");
    CHECK(out.causes.front().because.front().factor == Approx(0.8));
    const double p = 0.2 / 0.35, yes = 0.9 * p + 0.1 * (1 - p);
    const double after = yes * bits(0.9 * p / yes) + (1 - yes) * bits(0.1 * p / (1 - yes));
    CHECK(out.next_test->id == "look");
    CHECK(out.next_test->expected_entropy_drop_bits == Approx(bits(p) - after));
    in.tests = {{"look", "no"}};
    out = diagnose(in, tables);
    CHECK(cause(out, "dirt").probability == Approx(0.15 * 0.9 / (0.15 * 0.9 + 0.2 * 0.1)));
    CHECK(out.next_test->id == "listen");
    // What was done is not proposed again; when nothing is left, nothing is.
    in.tests.push_back({"listen", "yes"});
    CHECK_FALSE(diagnose(in, tables).next_test);
    // A cause that cannot be in this movement is taken off.
    in.movement.drive = "spring";
    CHECK(diagnose(in, tables).causes.size() == 1);
    CHECK(diagnose(in, tables).causes.front().probability == Approx(1));
}

TEST_CASE("the order in which tests were done does not matter, and chances always add up to one") {
    const DiagnosisTables& tables = shipped_diagnosis();
    std::mt19937 chance(21);
    for (int round = 0; round < 40; ++round) {
        DiagnoseInput in;
        in.symptoms = {tables.symptoms[chance() % tables.symptoms.size()].id};
        for (int i = 0; i < 3; ++i) {
            const DiagnosisTest& test = tables.tests[chance() % tables.tests.size()];
            if (std::any_of(in.tests.begin(), in.tests.end(), [&](const TestDone& one) { return one.id == test.id; })) continue;
            in.tests.push_back({test.id, test.results[chance() % test.results.size()].id});
        }
        const DiagnoseResult one = diagnose(in);
        std::reverse(in.tests.begin(), in.tests.end());
        const DiagnoseResult other = diagnose(in);
        double sum = 0;
        for (const CauseNow& now : one.causes) {
            sum += now.probability;
            CHECK(now.probability == Approx(cause(other, now.id).probability).margin(1e-12));
        }
        CHECK(sum == Approx(1));
        CHECK(one.next_test->expected_entropy_drop_bits >= 0);
    }
}

TEST_CASE("the tables have what a bench meets, every chance adds up, and each cause can be seen and told") {
    const DiagnosisTables& tables = shipped_diagnosis();
    CHECK(tables.causes.size() >= 40);
    CHECK(tables.symptoms.size() >= 12);
    CHECK(tables.tests.size() >= 30);
    double prior = 0;
    for (const DiagnosisCause& one : tables.causes) {
        INFO(one.id);
        prior += one.prior;
        CHECK_FALSE(one.why.empty());
        CHECK_FALSE(one.mend.empty());
        CHECK(std::any_of(tables.symptoms.begin(), tables.symptoms.end(),
                          [&](const DiagnosisSymptom& s) { return s.given.contains(one.id); }));
        CHECK(std::any_of(tables.tests.begin(), tables.tests.end(),
                          [&](const DiagnosisTest& t) { return t.results.front().given.contains(one.id); }));
    }
    CHECK(prior == Approx(1).margin(1e-6));
    for (const DiagnosisTest& test : tables.tests) CHECK_FALSE(test.how.empty());
}

TEST_CASE("runs for minutes and stops: at most four tests lead to the pallets that are too deep") {
    DiagnoseInput in;
    in.symptoms = {"stops-after-minutes"};
    in.movement = {"weight", "deadbeat", "none"};
    CHECK(tests_until_found(in, "pallets-deep", 6) <= 4);
}

TEST_CASE("a rack that strikes one too few leads to its bent tail, and a stop with the hands to the wheel that is there") {
    DiagnoseInput strike;
    strike.symptoms = {"strikes-few"};
    strike.movement = {"fusee", "recoil", "rack"};
    CHECK(tests_until_found(strike, "rack-tail", 6) <= 4);
    DiagnoseInput hands;
    hands.symptoms = {"stops-same-hands"};
    hands.movement = {"weight", "deadbeat", "none"};
    CHECK(tests_until_found(hands, "hands-foul", 6) <= 4);
    CHECK(tests_until_found(hands, "tooth-bent", 8) <= 6);
}

TEST_CASE("own jobs shift what is expected, by how much is said, and the more the more there were") {
    DiagnoseInput in;
    in.found = {{"case-sways", 4}};
    const DiagnoseResult few = diagnose(in);
    in.found = {{"case-sways", 40}};
    const DiagnoseResult many = diagnose(in);
    const double table = shipped_diagnosis().cause("case-sways")->prior;
    CHECK(cause(few, "case-sways").prior > table);
    CHECK(cause(many, "case-sways").prior > cause(few, "case-sways").prior);
    CHECK(cause(many, "case-sways").prior == Approx((table * 40 + 40) / 80).margin(1e-4));
    CHECK(cause(many, "case-sways").prior_moved == Approx(cause(many, "case-sways").prior - table).margin(1e-6));
    CHECK(cause(many, "old-oil").prior_moved < 0);
}

TEST_CASE("what cannot be is said with what it takes") {
    DiagnoseInput in;
    in.symptoms = {"sings"};
    CHECK_THROWS_WITH(diagnose(in), Catch::StartsWith("symptoms: got \"sings\""));
    in.symptoms = {"limps", "limps"};
    CHECK_THROWS_AS(diagnose(in), InputError);
    in.symptoms.clear(), in.tests = {{"in-beat", "maybe"}};
    CHECK_THROWS_WITH(diagnose(in), Catch::Contains("one of yes, no"));
    CHECK_THROWS_AS(diagnosis_from_json("{"), InputError);
    CHECK_THROWS_WITH(
        diagnosis_from_json(
            R"({"tests": [{"id": "a", "words": "a", "minutes": 1, "results": [{"id": "x", "otherwise": 0.5}, {"id": "y", "otherwise": 0.6}]}]})"),
        Catch::Contains("add up to 1.1"));
    // A file of one's own is read over the tables.
    const DiagnosisTables own =
        diagnosis_from_json(R"({"causes": [{"id": "old-oil", "words": "tar", "prior": 0.3}]})", shipped_diagnosis());
    CHECK(own.cause("old-oil")->words == "tar");
    CHECK(own.causes.size() == shipped_diagnosis().causes.size());
}
