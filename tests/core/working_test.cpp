#include <catch2/catch.hpp>

#include "workings/working.h"

using namespace echappe;

namespace {

Working module_from_distance(double u_distance) {
    return work_out(
        "module", "m = 2 C ÷ (N + n)",
        {{"C", "centre distance", {35.12, u_distance}, "mm", 0}, {"N", "wheel", {96, 0}, "", 0}, {"n", "pinion", {12, 0}, "", 0}}, "mm",
        "pitch circles touch", [](auto x) { return 2 * x[0] / (x[1] + x[2]); });
}

}  // namespace

TEST_CASE("a working shows its formula with the numbers put in") {
    const Working w = module_from_distance(0.05);
    CHECK(w.substituted() == "m = 2 × 35.12 ÷ (96 + 12)");
    CHECK(w.result.value == Approx(0.650370).epsilon(1e-6));
    CHECK_THAT(w.in_words(), Catch::Contains("source: pitch circles touch"));
    CHECK_THAT(w.in_words(), Catch::Contains("most of the ± comes from: centre distance"));
}

TEST_CASE("the uncertainty of a quotient follows the law of propagation") {
    // dm = 2 dC / 108, by hand.
    const Working w = module_from_distance(0.054);
    CHECK(w.result.u == Approx(0.001).epsilon(1e-7));
    CHECK(w.terms[0].sensitivity == Approx(2.0 / 108).epsilon(1e-8));
    CHECK(w.terms[1].sensitivity == Approx(-2 * 35.12 / (108.0 * 108.0)).epsilon(1e-7));
}

TEST_CASE("exact terms leave no largest contributor") {
    CHECK(module_from_distance(0).largest_contributor() == nullptr);
    CHECK(module_from_distance(0.05).largest_contributor()->symbol == "C");
}

TEST_CASE("the term with the larger share is named, not the one with the larger uncertainty") {
    const Working w = work_out("area", "A = a b", {{"a", "long", {100, 0.5}, "mm", 0}, {"b", "short", {1, 0.1}, "mm", 0}}, "mm²", "",
                               [](auto x) { return x[0] * x[1]; });
    CHECK(w.largest_contributor()->symbol == "b");
    CHECK(w.result.u == Approx(std::hypot(0.5 * 1, 0.1 * 100)));
}
