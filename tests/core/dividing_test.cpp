#include <catch2/catch.hpp>
#include <cmath>
#include <numeric>

#include "making/dividing.h"
#include "number/input_error.h"
#include "train/motion_work.h"

using namespace echappe;

namespace {

const std::vector<std::vector<long long>> three_plates = {{15, 16, 17, 18, 19, 20}, {21, 23, 27, 29, 31, 33}, {37, 39, 41, 43, 47, 49}};

/// Turns of the crank for all divisions, in exact parts of a turn.
bool closes(long long N, long long k, long long turns, long long holes, long long circle) {
    return N * (turns * circle + holes) == k * circle;
}

}  // namespace

TEST_CASE("ninety teeth on a head of 60: two thirds of a turn, on every circle that three divides") {
    const DividingResult out = plan_dividing({90, {60, three_plates}, 0});
    std::vector<long long> circles;
    for (const CrankMove& move : out.exact) {
        circles.push_back(move.circle);
        CHECK(move.turns == 0);
        CHECK(closes(90, 60, move.turns, move.holes, move.circle));
    }
    CHECK(circles == std::vector<long long>{15, 18, 21, 27, 33, 39});
    CHECK_FALSE(out.nearest);
}

TEST_CASE("whatever is called exact comes back to the start after its divisions, and nothing exact is left out") {
    for (long long N = 2; N <= 150; ++N)
        for (const long long k : {40LL, 60LL, 90LL}) {
            const DividingResult out = plan_dividing({N, {k, three_plates}, 0});
            size_t expected = 0;
            for (const auto& plate : three_plates)
                for (const long long circle : plate)
                    for (long long holes = 0; holes < 1000 * circle; ++holes) {
                        if (N * holes > k * circle) break;
                        expected += N * holes == k * circle ? 1 : 0;
                    }
            CHECK(out.exact.size() == expected);
            for (const CrankMove& move : out.exact) CHECK(closes(N, k, move.turns, move.holes, move.circle));
            for (const CompoundMove& move : out.compound) {
                const double all = static_cast<double>(N) *
                                   (static_cast<double>(move.turns) + static_cast<double>(move.holes) / static_cast<double>(move.circle) +
                                    static_cast<double>(move.second_holes) / static_cast<double>(move.second_circle));
                CHECK(all == Approx(static_cast<double>(k)).epsilon(1e-12));
            }
        }
}

TEST_CASE("a prime that no circle holds is told with what it is off at the last tooth") {
    const DividingResult out = plan_dividing({127, {40, three_plates}, 30});
    CHECK(out.exact.empty());
    REQUIRE(out.nearest);
    const NearestMove& move = *out.nearest;
    const double per_turn = 360.0 / 40;
    const double all =
        127 * (static_cast<double>(move.turns) + static_cast<double>(move.holes) / static_cast<double>(move.circle)) * per_turn;
    CHECK(move.cumulative_error_deg == Approx(all - 360));
    CHECK(*move.worst_tooth_um == Approx(std::abs(all - 360) * 126 / 127 * M_PI / 180 * 30000));
    CHECK(plan_dividing({43, {40, three_plates}, 0}).direct == std::vector<long long>{43});
    CHECK_THROWS_WITH(plan_dividing({90, {60, {}}, 0}), Catch::StartsWith("plates: got no circle"));
}

TEST_CASE("motion work: every set found turns the hour hand once in twelve, and brute force finds no other") {
    MotionWorkInput in;
    in.wheel = {24, 60};
    in.pinion = {8, 18};
    in.best = 100000;
    const MotionWorkResult out = find_motion_work(in);
    long long expected = 0;
    for (long long a = 8; a <= 18; ++a)
        for (long long b = 24; b <= 60; ++b)
            for (long long c = 8; c <= 18; ++c)
                for (long long d = 24; d <= 60; ++d) {
                    const double ratio = static_cast<double>(a + b) / static_cast<double>(c + d);
                    expected += b * d == 12 * a * c && std::max(ratio, 1 / ratio) <= 1.5 ? 1 : 0;
                }
    CHECK(out.count == expected);
    for (const MotionWork& set : out.solutions) {
        CHECK(set.minute_wheel * set.hour_wheel == 12 * set.cannon_pinion * set.minute_pinion);
        // m2 ÷ m1 makes both centre distances one.
        CHECK(set.module_ratio * static_cast<double>(set.minute_pinion + set.hour_wheel) ==
              Approx(static_cast<double>(set.cannon_pinion + set.minute_wheel)));
    }
}

TEST_CASE("with one module 15/45 and 12/48 serve: both meshes have sixty teeth in all") {
    MotionWorkInput in;
    in.equal_modules = true;
    in.best = 1000;
    const MotionWorkResult out = find_motion_work(in);
    CHECK(std::any_of(out.solutions.begin(), out.solutions.end(), [](const MotionWork& s) {
        return s.cannon_pinion == 15 && s.minute_wheel == 45 && s.minute_pinion == 12 && s.hour_wheel == 48;
    }));
    for (const MotionWork& set : out.solutions) CHECK(set.cannon_pinion + set.minute_wheel == set.minute_pinion + set.hour_wheel);
    in.ratio = 24;
    in.wheel = {20, 120};
    CHECK(find_motion_work(in).count > 0);
    in.ratio = 12;
    in.equal_modules = false;
    in.stock_modules_mm = {0.5, 0.6};
    for (const MotionWork& set : find_motion_work(in).solutions) {
        const double one = *set.minute_module_mm * static_cast<double>(set.cannon_pinion + set.minute_wheel) / 2;
        const double two = *set.hour_module_mm * static_cast<double>(set.minute_pinion + set.hour_wheel) / 2;
        CHECK(one == Approx(two).epsilon(0.0021));
        CHECK(*set.centre_distance_mm == Approx(one).epsilon(0.002));
    }
}
