#include <rapidcheck/catch.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>
#include <set>

#include "number/input_error.h"
#include "train/find.h"
#include "train/hands.h"
#include "train/products.h"

using namespace echappe;

namespace {

using Counts = std::vector<long long>;

/// Every multiset of `size` counts, the slow and obvious way.
void multisets(const Counts& counts, size_t from, size_t size, Counts& chosen, std::vector<Counts>& out) {
    if (chosen.size() == size) return out.push_back(chosen);
    for (size_t i = from; i < counts.size(); ++i) {
        chosen.push_back(counts[i]);
        multisets(counts, i, size, chosen, out);
        chosen.pop_back();
    }
}

std::vector<Counts> multisets(long long low, long long high, size_t size) {
    Counts counts(static_cast<size_t>(high - low + 1));
    std::iota(counts.begin(), counts.end(), low);
    std::vector<Counts> out;
    Counts chosen;
    multisets(counts, 0, size, chosen, out);
    return out;
}

Rational ratio(const Counts& wheels, const Counts& pinions) {
    long long of_wheels = 1, of_pinions = 1;
    for (const long long w : wheels) of_wheels *= w;
    for (const long long p : pinions) of_pinions *= p;
    return Rational(of_wheels, of_pinions);
}

struct Brute {
    Rational error;  ///< |ratio/target − 1|
    long long sum;
    Counts wheels, pinions;
};

std::vector<Brute> brute_force(const FindInput& in) {
    std::vector<Brute> all;
    const auto size = static_cast<size_t>(in.stages);
    for (const Counts& wheels : multisets(in.wheel.min, in.wheel.max, size))
        for (const Counts& pinions : multisets(in.pinion.min, in.pinion.max, size)) {
            const Rational off = ratio(wheels, pinions) / in.target - Rational(1);
            const long long sum = std::accumulate(wheels.begin(), wheels.end(), 0LL) + std::accumulate(pinions.begin(), pinions.end(), 0LL);
            all.push_back({off < Rational(0) ? -off : off, sum, wheels, pinions});
        }
    std::stable_sort(all.begin(), all.end(),
                     [](const Brute& a, const Brute& b) { return a.error == b.error ? a.sum < b.sum : a.error < b.error; });
    return all;
}

FindInput small(long long stages) {
    FindInput in;
    in.stages = stages;
    in.wheel = {20, stages == 2 ? 40 : 27};
    in.pinion = {6, stages == 2 ? 13 : 9};
    return in;
}

}  // namespace

TEST_CASE("the finder's best list is that of brute force on every small space tried") {
    rc::prop("best", [] {
        FindInput in = small(*rc::gen::inRange(1, 4));
        in.target = Rational(*rc::gen::inRange(200, 9000), *rc::gen::inRange(1, 97) * 10);
        in.best = *rc::gen::inRange(1, 60);
        const std::vector<Brute> all = brute_force(in);
        const FindResult found = find_trains(in);
        RC_ASSERT(found.complete);
        RC_ASSERT(found.considered == static_cast<double>(all.size()));
        RC_ASSERT(found.solutions.size() == std::min(all.size(), static_cast<size_t>(in.best)));
        for (size_t i = 0; i < found.solutions.size(); ++i) {
            const Rational off = ratio(found.solutions[i].wheels, found.solutions[i].pinions) / in.target - Rational(1);
            RC_ASSERT((off < Rational(0) ? -off : off) == all[i].error);
            RC_ASSERT(found.solutions[i].sum == all[i].sum);
        }
    });
}

TEST_CASE("the finder counts what brute force counts within a tolerance, each set of wheels and pinions once") {
    rc::prop("within", [] {
        FindInput in = small(*rc::gen::inRange(1, 4));
        in.target = Rational(*rc::gen::inRange(200, 4000), 100);
        in.tolerance_ppm = *rc::gen::element(0.0, 100.0, 3000.0, 250000.0);
        in.best = 10000;
        const Rational tolerance = Rational::from_decimal(*in.tolerance_ppm) / Rational(1000000);
        const std::vector<Brute> all = brute_force(in);
        const auto inside = std::count_if(all.begin(), all.end(), [&](const Brute& b) { return b.error <= tolerance; });
        const FindResult found = find_trains(in);
        RC_ASSERT(*found.count_within_tolerance == inside);
        RC_ASSERT(found.solutions.size() == std::min<size_t>(10000, static_cast<size_t>(inside)));
        std::set<std::pair<Counts, Counts>> once;
        for (const FoundTrain& train : found.solutions) once.insert({train.wheels, train.pinions});
        RC_ASSERT(once.size() == found.solutions.size());
    });
}

TEST_CASE("each filter leaves what it says of the whole list and nothing else") {
    FindInput in = small(2);
    in.target = Rational(9);
    in.tolerance_ppm = 50000;
    in.best = 10000;
    const FindResult all = find_trains(in);
    const auto check = [&](const FindInput& filtered, auto wished) {
        const FindResult some = find_trains(filtered);
        const auto expected = std::count_if(all.solutions.begin(), all.solutions.end(), wished);
        CHECK(*some.count_within_tolerance == expected);
        CHECK(expected > 0);
        CHECK(expected < static_cast<std::ptrdiff_t>(all.solutions.size()));
        CHECK(std::all_of(some.solutions.begin(), some.solutions.end(), wished));
    };
    const auto stages = [](auto each) {
        return [each](const FoundTrain& t) { return std::all_of(t.stages.begin(), t.stages.end(), each); };
    };
    FindInput one = in;
    one.hunting_only = true;
    check(one, stages([](const Stage& s) { return std::gcd(s.wheel, s.pinion) == 1; }));
    one = in;
    one.exclude_factors = {2, 3};
    check(one, stages([](const Stage& s) { return std::gcd(s.wheel, s.pinion) % 2 != 0 && std::gcd(s.wheel, s.pinion) % 3 != 0; }));
    one = in;
    one.stage_sum = CountRange{36, 50};
    check(one, stages([](const Stage& s) { return s.wheel + s.pinion >= 36 && s.wheel + s.pinion <= 50; }));
    one = in;
    one.stage_sums = {{36, 40, 44}, {38, 42, 48}};
    // By hand: either wheel with either pinion, either first.
    check(one, [](const FoundTrain& t) {
        const auto has = [](std::initializer_list<long long> list, long long sum) {
            return std::find(list.begin(), list.end(), sum) != list.end();
        };
        for (const size_t w : {0, 1})
            for (const size_t p : {0, 1})
                if (has({36, 40, 44}, t.wheels[w] + t.pinions[p]) && has({38, 42, 48}, t.wheels[1 - w] + t.pinions[1 - p])) return true;
        return false;
    });
    for (const FoundTrain& train : find_trains(one).solutions) CHECK((train.stages[0].wheel + train.stages[0].pinion) % 4 == 0);
    one.stage_sums.pop_back();
    CHECK_THROWS_WITH(find_trains(one), Catch::StartsWith("stage_sums: got 1 lists"));
    one = in;
    one.distinct_pinions_at_most = 1;
    check(one, [](const FoundTrain& t) { return t.pinions[0] == t.pinions[1]; });
    one = in;
    one.evenness_at_most = 1.2;
    check(one, [](const FoundTrain& t) { return t.evenness <= 1.2; });
    one = in;
    one.must_wheels = {30};
    check(one, [](const FoundTrain& t) { return t.wheels[0] == 30 || t.wheels[1] == 30; });
    one = in;
    one.must_wheels = {28, 36};
    one.must_pinions = {12};
    check(one, [](const FoundTrain& t) { return t.wheels == Counts{28, 36} && (t.pinions[0] == 12 || t.pinions[1] == 12); });
    one = in;
    one.wheel_counts = {24, 30, 36, 40};
    one.pinion_counts = {8, 10, 12};
    check(one, [](const FoundTrain& t) {
        const auto in_list = [](const Counts& list, long long c) { return std::count(list.begin(), list.end(), c) > 0; };
        return in_list({24, 30, 36, 40}, t.wheels[0]) && in_list({24, 30, 36, 40}, t.wheels[1]) && in_list({8, 10, 12}, t.pinions[0]) &&
               in_list({8, 10, 12}, t.pinions[1]);
    });
}

TEST_CASE("no other pairing has more even stage ratios, and the largest wheel stands first") {
    FindInput in;
    in.target = Rational(60);
    in.stages = 3;
    in.best = 40;
    for (const FoundTrain& train : find_trains(in).solutions) {
        Counts pinions = train.pinions;
        double best = INFINITY;
        do {
            double low = INFINITY, high = 0;
            for (size_t i = 0; i < pinions.size(); ++i) {
                const double r = static_cast<double>(train.wheels[i]) / static_cast<double>(pinions[i]);
                low = std::min(low, r);
                high = std::max(high, r);
            }
            best = std::min(best, high / low);
        } while (std::next_permutation(pinions.begin(), pinions.end()));
        CHECK(train.evenness == Approx(best));
        CHECK(train.stages.front().wheel == train.wheels.back());
    }
}

TEST_CASE("two moons on one disc: 59.061177706 days by three wheels and pinions") {
    FindInput in;
    in.target = Rational::parse("59.061177706");
    in.stages = 3;
    in.best = 5;
    const FindResult out = find_trains(in);
    REQUIRE(out.solutions.size() == 5);
    for (const FoundTrain& train : out.solutions) {
        // Told thrice, the same: ppm, seconds a day, one day in so many years of 365.2422 days.
        const double relative = train.ratio / 59.061177706 - 1;
        CHECK(train.error_ppm == Approx(relative * 1e6).epsilon(1e-4));
        CHECK(train.error_s_per_day == Approx(relative * 86400).epsilon(1e-4));
        CHECK(*train.years_per_day == Approx(1 / std::abs(relative) / 365.2422).epsilon(1e-4));
        CHECK(std::abs(train.error_ppm) < 2);
    }
    for (size_t i = 1; i < 5; ++i) CHECK(std::abs(out.solutions[i].error_ppm) >= std::abs(out.solutions[i - 1].error_ppm));
}

TEST_CASE("products beyond 64 bits neither wrap nor round") {
    FindInput in;
    in.stages = 6;
    in.wheel = {990, 1000};
    in.pinion = {4, 6};
    // 1000^6 / 4^6, and the same a part in 10^30 less: only exact arithmetic tells them apart.
    in.target = Rational::parse("244140625000000");
    in.tolerance_ppm = 0;
    CHECK(*find_trains(in).count_within_tolerance == 1);
    in.target = Rational::parse("244140624999999.99999999999999999999999");
    CHECK(*find_trains(in).count_within_tolerance == 0);
    in.tolerance_ppm = 1e-15;
    CHECK(*find_trains(in).count_within_tolerance == 1);
}

TEST_CASE("an unreachable ratio gives an empty list that is complete within a tolerance, and the nearest without one") {
    FindInput in = small(1);
    in.target = Rational(500);
    in.tolerance_ppm = 10;
    CHECK(find_trains(in).solutions.empty());
    CHECK(find_trains(in).complete);
    in.tolerance_ppm.reset();
    in.best = 1;
    CHECK(find_trains(in).solutions.front().ratio == Approx(27.0 / 6));
}

TEST_CASE("a hand slower than its driver is found with the pinions driving") {
    FindInput in;
    in.hand = "tide";
    in.driver_period_s = Rational(43200);
    in.stages = 2;
    in.wheel = {20, 120};
    in.pinion = {20, 120};
    const FindResult out = find_trains(in);
    CHECK(out.pinions_drive);
    // 44 714.2 s to 43 200 s.
    CHECK(out.target == Approx(44714.2 / 43200));
    CHECK(std::abs(out.solutions.front().error_ppm) < 1);
    in.hand = "seconds";
    in.driver_period_s = Rational(3600);
    CHECK(find_trains(in).target == 60);
    CHECK_FALSE(find_trains(in).pinions_drive);
}

TEST_CASE("what cannot be asked is refused by name") {
    FindInput in = small(2);
    CHECK_THROWS_WITH(find_trains(in), Catch::StartsWith("target: got nothing"));
    in.hand = "tide";
    CHECK_THROWS_WITH(find_trains(in), Catch::StartsWith("driver_period_s: got nothing"));
    in.target = Rational(5);
    CHECK_THROWS_WITH(find_trains(in), Catch::StartsWith("hand: got \"tide\" beside a target"));
    in.hand.reset();
    in.wheel = {40, 20};
    CHECK_THROWS_WITH(find_trains(in), "wheel: got 40 to 20, takes min not above max");
    in = small(1);
    in.target = Rational(5);
    in.must_wheels = {30, 40};
    CHECK_THROWS_WITH(find_trains(in), Catch::StartsWith("must_wheels: got 2 counts"));
    in.must_wheels.clear();
    in.stages = 7;
    CHECK_THROWS_WITH(find_trains(in), "stages: got 7, takes 1 to 6");
}

TEST_CASE("a long search ends when told to, with what it has, and says that it is not complete") {
    FindInput in;
    in.target = Rational::parse("59.061177706");
    in.stages = 6;
    in.tolerance_ppm = 5000;
    in.time_limit_s = 0.05;
    const FindResult limited = find_trains(in);
    CHECK_FALSE(limited.complete);
    CHECK(limited.ended == "the time limit of 0.05 s");
    CHECK(limited.elapsed_s < 1);
    in.time_limit_s.reset();
    std::stop_source source;
    int told = 0;
    const FindResult stopped = find_trains(in, {source.get_token(), {}}, [&](const FindResult& so_far) {
        CHECK(so_far.solutions.size() <= 20);
        if (++told == 2) source.request_stop();
    });
    CHECK_FALSE(stopped.complete);
    CHECK(stopped.ended == "stopped");
    CHECK(told >= 2);
}

TEST_CASE("a search ends when told to while it still gathers products") {
    FindInput in;
    in.hand = "tide";
    in.driver_period_s = Rational(43200);
    in.stages = 5;
    in.tolerance_ppm = 5000;
    in.wheel = {24, 120};
    in.pinion = {24, 120};
    std::stop_source source;
    int told = 0;
    const FindResult stopped = find_trains(in, {source.get_token(), {}}, [&](const FindResult&) {
        if (++told == 2) source.request_stop();
    });
    CHECK(stopped.ended == "stopped");
    CHECK(stopped.elapsed_s < 2);
}

TEST_CASE("distinct products are those of brute force, and too many are refused") {
    const Products products({7, 8, 9, 10, 12, 14, 15, 16}, 3);
    std::set<std::uint64_t> slow;
    for (const Counts& set : multisets(7, 16, 3)) {
        const auto there = [](long long count) { return count != 11 && count != 13; };
        if (std::all_of(set.begin(), set.end(), there)) slow.insert(static_cast<std::uint64_t>(set[0] * set[1] * set[2]));
    }
    CHECK(products.distinct(0, ~std::uint64_t{0}, 1000) == std::vector<std::uint64_t>(slow.begin(), slow.end()));
    std::erase_if(slow, [](std::uint64_t product) { return product < 700 || product > 1500; });
    CHECK(products.distinct(700, 1500, 1000) == std::vector<std::uint64_t>(slow.begin(), slow.end()));
    CHECK_THROWS_AS(products.distinct(0, ~std::uint64_t{0}, 20), std::length_error);
}

TEST_CASE("products: walking pairs and testing integers meet the same ones, as many ways as there are multisets") {
    Counts counts(40);
    std::iota(counts.begin(), counts.end(), 20);
    for (const int size : {1, 2, 3, 4}) {
        const Products products(counts, size);
        std::map<std::uint64_t, std::uint64_t> slow;
        for (const Counts& set : multisets(20, 59, static_cast<size_t>(size)))
            ++slow[std::accumulate(set.begin(), set.end(), std::uint64_t{1},
                                   [](auto p, auto c) { return p * static_cast<std::uint64_t>(c); })];
        const auto distinct = products.distinct(0, ~std::uint64_t{0}, 10'000'000);
        REQUIRE(distinct.size() == slow.size());
        std::uint64_t wrong = 0;
        size_t at = 0;
        for (const auto& [product, ways] : slow) wrong += distinct[at++] != product || products.ways(product) != ways ? 1 : 0;
        CHECK(wrong == 0);
        for (const std::uint64_t width : {3ULL, 40000ULL, 4000000ULL}) {
            const std::uint64_t low = distinct[distinct.size() / 2];
            std::vector<std::uint64_t> met;
            products.each_within(low, low + width, [&](std::uint64_t p) {
                if (products.ways(p) > 0) met.push_back(p);
                return true;
            });
            CHECK(met == products.distinct(low, low + width, 10'000'000));
        }
    }
}

TEST_CASE("the named periods agree with each other") {
    const auto period = [](const char* id) { return find_period(id)->period_s.to_double(); };
    CHECK(period("moon-double") == Approx(2 * period("moon")).epsilon(1e-10));
    CHECK(period("lunar-day") == Approx(2 * period("tide")).epsilon(3e-6));
    // Synodic and sidereal months differ by one turn of the year: 1/S − 1/T = 1/Y.
    CHECK(1 / (1 / period("sidereal-month") - 1 / period("tropical-year")) == Approx(period("moon")).epsilon(1e-5));
    CHECK(1 / (1 / period("sidereal-day") - 1 / period("tropical-year")) == Approx(86400).epsilon(1e-6));
    CHECK(find_period("nothing") == nullptr);
}
