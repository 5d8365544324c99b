#include <catch2/catch.hpp>
#include <cmath>

#include "making/dividing_table.h"
#include "number/input_error.h"

using namespace echappe;

namespace {

DividingTableInput of(long long divisions) {
    DividingTableInput in;
    in.dividing.divisions = divisions;
    in.dividing.head = {60, {{15, 16, 17, 18, 19, 20}, {21, 23, 27, 29, 31, 33}, {37, 39, 41, 43, 47, 49}}};
    in.dividing.pitch_radius_mm = 20;
    return in;
}

}  // namespace

TEST_CASE("a dividing table's moves sum to the work's turn, for every count, and none stands off by more than half a hole") {
    for (long long divisions = 2; divisions <= 400; ++divisions) {
        const DividingTableResult out = dividing_table(of(divisions));
        CAPTURE(divisions, out.circle);
        REQUIRE(out.rows.size() == static_cast<size_t>(divisions));
        if (out.second_circle) {
            // Two circles of one plate: whole turns in whole numbers, over a common denominator.
            const long long a = out.circle, b = *out.second_circle;
            const DividingRow& move = out.rows[1];
            CHECK(divisions * (move.turns * a * b + move.holes * b + out.second_holes * a) == 60 * a * b);
            const auto plates = of(divisions).dividing.head.plates;
            CHECK(std::any_of(plates.begin(), plates.end(), [&](const auto& plate) {
                return std::count(plate.begin(), plate.end(), a) == 1 && std::count(plate.begin(), plate.end(), b) == 1;
            }));
            CHECK_FALSE(divides_exactly(of(divisions).dividing.head, divisions));
            continue;
        }
        // The crank as it is turned: holes counted one by one, the last move closing the turn.
        long long stands = 0;
        for (const DividingRow& row : out.rows) {
            stands += row.turns * out.circle + row.holes;
            CHECK(row.hole == stands % out.circle);
            const double at = 360.0 * static_cast<double>(stands) / static_cast<double>(60 * out.circle);
            CHECK(at - 360.0 * static_cast<double>(row.tooth - 1) / static_cast<double>(divisions) == Approx(row.error_deg).margin(1e-9));
            CHECK(std::abs(row.error_deg) <= 0.5 * 360 / static_cast<double>(60 * out.circle) + 1e-9);
        }
        CHECK(stands <= 60 * out.circle);
        // What is exact is what the plan finds exact.
        CHECK(out.exact == divides_exactly(of(divisions).dividing.head, divisions));
        if (out.exact) CHECK(out.even);
    }
}

TEST_CASE("a count that no circle gives strays by a hole at most where one move repeated would stray by many") {
    DividingTableInput in = of(127);
    const DividingTableResult out = dividing_table(in);
    CHECK_FALSE(out.exact);
    CHECK_FALSE(out.even);
    const auto repeated = plan_dividing(in.dividing).nearest;
    REQUIRE(repeated);
    CHECK(out.worst_deg < std::abs(repeated->cumulative_error_deg));
    CHECK(*out.worst_um == Approx(out.worst_pitch_deg * M_PI / 180 * 20000));
    CHECK_THAT(out.verdict, Catch::Contains("errors do not add up"));
    CHECK_THAT(dividing_table(of(90)).verdict, Catch::Contains("each time, exactly"));
    in.circle = 49;
    CHECK(dividing_table(in).circle == 49);
    in.circle = 50;
    CHECK_THROWS_WITH(dividing_table(in), Catch::StartsWith("circle: got 50"));
    in.circle.reset(), in.dividing.head.plates.clear();
    CHECK_THROWS_WITH(dividing_table(in), Catch::StartsWith("plates"));
}
