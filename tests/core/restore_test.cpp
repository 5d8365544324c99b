#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "job/derived.h"
#include "number/input_error.h"
#include "support/demo.h"
#include "train/next_measurement.h"
#include "train/restore.h"

using namespace echappe;

namespace {

long long wheel(const Candidate& c) { return c.counts.at("third.wheel"); }
long long pinion(const Candidate& c) { return c.counts.at("third.pinion"); }

RestoreResult solve(const Job& job) { return restore_train(restore_input(job.train, job.teeth)); }

RestoreInput full_limits(const Job& job) {
    RestoreInput input = restore_input(job.train, job.teeth);
    input.limits = RestoreLimits();
    return input;
}

}  // namespace

TEST_CASE("before any size is taken the four trains that keep time are told to be equal") {
    const RestoreResult out = solve(demo::job());
    REQUIRE(out.candidates.size() >= 4);
    std::vector<std::pair<long long, long long>> four;
    for (size_t i = 0; i < 4; ++i) four.emplace_back(pinion(out.candidates[i]), wheel(out.candidates[i]));
    std::sort(four.begin(), four.end());
    CHECK(four == std::vector<std::pair<long long, long long>>{{8, 60}, {10, 75}, {12, 90}, {14, 105}});
    for (size_t i = 0; i < 4; ++i) CHECK(out.candidates[i].weight < 0.35);
    CHECK(out.entropy_bits > 1.8);
    REQUIRE(out.next_measurement.has_value());
    CHECK(out.next_measurement->expected_entropy_drop_bits > 1);
    CHECK(out.next_measurement->key.kind == "centre_distance_mm");
    CHECK_FALSE(out.conflict.has_value());
}

TEST_CASE("after the measurements the lost arbor is 90 and 12, and every reading agrees") {
    const RestoreResult out = solve(demo::measured_job());
    CHECK(wheel(out.candidates.front()) == 90);
    CHECK(pinion(out.candidates.front()) == 12);
    CHECK(out.candidates.front().weight > 0.999);
    CHECK(out.candidates.front().beats_per_hour == Approx(3600));
    CHECK(out.candidates.front().modules_mm.at("centre-third") == Approx(0.65).margin(0.001));
    CHECK(out.candidates.front().modules_mm.at("third-escape") == Approx(0.6).margin(0.001));
    for (const Strain& strain : out.candidates.front().strain) CHECK(std::abs(strain.sigma) < 1);
    CHECK_FALSE(out.conflict.has_value());
}

TEST_CASE("one reading spoiled by 1 mm is named as the odd one out") {
    for (const QuantityKey& spoiled : {demo::centre_distance("centre", "third"), demo::centre_distance("third", "escape"),
                                       demo::wheel_diameter("centre"), demo::pinion_diameter("escape")}) {
        for (const double by : {1.0, -1.0}) {
            INFO(name_of(spoiled) << " by " << by);
            Job job = demo::measured_job();
            for (Measurement& m : job.train.measurements)
                if (m.evidence.key == spoiled) m.evidence.value += by;
            const RestoreResult out = solve(job);
            REQUIRE(out.conflict.has_value());
            REQUIRE(out.conflict->evidence.has_value());
            CHECK(name_of(*out.conflict->evidence) == name_of(spoiled));
            CHECK_THAT(out.conflict->reason, Catch::Contains("measure that again"));
        }
    }
}

TEST_CASE("weights are a probability over all that was considered") {
    RestoreInput input = full_limits(demo::job());
    input.best = 3;
    const RestoreResult out = restore_train(input);
    CHECK(out.considered == 131 * 16);
    double sum = out.weight_not_listed;
    for (const Candidate& c : out.candidates) sum += c.weight;
    CHECK(sum == Approx(1).epsilon(1e-12));
    CHECK(out.candidates.size() == 3);
    for (size_t i = 1; i < out.candidates.size(); ++i) CHECK(out.candidates[i - 1].weight >= out.candidates[i].weight);
}

TEST_CASE("misfit is the sum of the squared strains") {
    const RestoreResult out = solve(demo::measured_job());
    for (const Candidate& c : out.candidates) {
        double sum = 0;
        for (const Strain& strain : c.strain) sum += strain.sigma * strain.sigma;
        CHECK(c.misfit == Approx(sum).margin(1e-9));
    }
}

TEST_CASE("the pruned search gives the weights of the plain sum over every pair of counts") {
    // The slow and obvious way: every pair, no pruning, module by scanning.
    Job job = demo::job();
    demo::measure(job, demo::centre_distance("centre", "third"), 0.3);
    const RestoreResult out = restore_train(full_limits(job));
    const double distance = job.train.measurements.back().evidence.value;
    const auto badness = [&](long long n, long long N) {
        const double beats = 96.0 / static_cast<double>(n) * static_cast<double>(N) / 12 * 60;
        double best = 1e300;
        for (double m = 0.60; m < 0.70; m += 0.00001) {
            const double C = m * static_cast<double>(96 + n) / 2;
            best = std::min(best, std::pow((m - 0.651) / 0.003, 2) + std::pow((C - distance) / 0.3, 2));
        }
        return best + std::pow((beats - 3600) / 0.5, 2);
    };
    for (const Candidate& c : out.candidates) {
        if (c.weight < 1e-6) continue;
        CHECK(c.misfit == Approx(badness(pinion(c), wheel(c))).margin(1e-3));
    }
    // 10/75 and 12/90 are both usual: the prior does not part them, so the weights go by misfit alone.
    const auto find = [&](long long n) {
        return *std::find_if(out.candidates.begin(), out.candidates.end(), [&](const Candidate& c) { return pinion(c) == n; });
    };
    CHECK(std::log(find(12).weight / find(10).weight) == Approx((badness(10, 75) - badness(12, 90)) / 2).margin(1e-3));
}

TEST_CASE("the 90 % set holds the truth in about 90 % of movements") {
    std::mt19937 random(20261123);
    std::normal_distribution<double> noise;
    const std::vector<long long> leaves = {7, 8, 10, 12, 14};
    int inside = 0;
    double expected = 0;
    constexpr int movements = 400;
    for (int i = 0; i < movements; ++i) {
        const long long n = leaves[random() % leaves.size()];
        const long long N = std::uniform_int_distribution<long long>(48, 120)(random);
        const double m1 = std::uniform_real_distribution<double>(0.45, 0.9)(random);
        const double m2 = m1 * std::uniform_real_distribution<double>(0.85, 1.1)(random);
        Job job = demo::job();
        job.train.measurements.clear();
        job.train.limits = {{40, 130}, {6, 16}};
        const double beats = 96.0 / static_cast<double>(n) * static_cast<double>(N) / 12 * 60;
        constexpr double u_beats = 60, u_distance = 0.4, u_module = 0.006;
        const auto read = [&](const QuantityKey& key, double truth, double u) {
            job.train.measurements.push_back(
                {"r" + std::to_string(job.train.measurements.size()), {key, truth + u * noise(random), u}, "", "", "", false});
        };
        read({"beats_per_hour", {}, {}, {}}, beats, u_beats);
        read(demo::centre_distance("centre", "third"), m1 * static_cast<double>(96 + n) / 2, u_distance);
        read({"module_mm", {}, "centre", "third"}, m1, u_module);
        read(demo::centre_distance("third", "escape"), m2 * static_cast<double>(N + 12) / 2, u_distance);
        read({"module_mm", {}, "third", "escape"}, m2, u_module);
        RestoreInput input = restore_input(job.train, job.teeth);
        input.best = 4000;
        const RestoreResult out = restore_train(input);
        const size_t set = credible_set(out, 0.9);
        double held = 0;
        for (size_t k = 0; k < set; ++k) {
            held += out.candidates[k].weight;
            if (pinion(out.candidates[k]) == n && wheel(out.candidates[k]) == N) ++inside;
        }
        expected += held;
    }
    // The set's own weight is a little over 0.9, since candidates come whole. Three sigma of a count of 400 is 4.5 %.
    const double share = static_cast<double>(inside) / movements;
    INFO("inside " << share << ", promised " << expected / movements);
    CHECK(share > 0.855);
    CHECK(std::abs(share - expected / movements) < 0.045);
}

TEST_CASE("two lost counts on different arbors are found from the sizes") {
    Job job = demo::measured_job();
    job.train.arbors[2].train.wheel = 90;
    job.train.arbors[2].train.pinion = Count::lost();
    job.train.arbors[1].train.wheel = Count::lost();
    std::erase_if(job.train.measurements, [](const Measurement& m) { return m.evidence.key.kind == "wheel_outside_diameter_mm"; });
    job.train.measurements.push_back(
        {"third", {demo::pinion_diameter("third"), *demo::truth().truth(demo::pinion_diameter("third")), 0.02}, "", "", "", false});
    const RestoreResult out = solve(job);
    CHECK(out.candidates.front().counts.at("centre.wheel") == 96);
    CHECK(out.candidates.front().counts.at("third.pinion") == 12);
}

TEST_CASE("a lost arbor and two lost counts elsewhere are weighed together") {
    Job job = demo::measured_job();
    job.train.arbors[0].train.wheel = Count::lost();
    job.train.arbors[3].train.pinion = Count::lost();
    demo::measure(job, demo::centre_distance("great", "centre"), 0.05);
    demo::measure(job, demo::pinion_diameter("centre"), 0.02);
    std::erase_if(job.train.measurements, [](const Measurement& m) { return m.evidence.key == demo::pinion_diameter("escape"); });
    const RestoreInput input = full_limits(job);
    const RestoreResult out = restore_train(input);
    CHECK(out.considered == 131LL * 16 * 131 * 16);
    CHECK(wheel(out.candidates.front()) == 90);
    CHECK(out.candidates.front().counts.at("great.wheel") == Approx(144).margin(2));
    CHECK(out.candidates.front().counts.at("escape.pinion") == 12);
}

TEST_CASE("a lost pendulum's length tells the beat") {
    Job job = demo::job();
    job.train.measurements.front().evidence = {{"pendulum_length_mm", {}, {}, {}}, 994, 3};
    const RestoreResult out = solve(job);
    CHECK(out.candidates.front().beats_per_hour == Approx(3600).margin(10));
}

TEST_CASE("an escape wheel's diameter is listed but strains nothing") {
    Job job = demo::job();
    job.train.measurements.push_back({"e", {demo::wheel_diameter("escape"), 33.1, 0.02}, "", "", "", false});
    const RestoreResult out = solve(job);
    const Strain& strain = out.candidates.front().strain.back();
    CHECK(strain.sigma == 0);
    CHECK_FALSE(strain.predicted.has_value());
    CHECK_THAT(*strain.note, Catch::Contains("nothing of a module"));
}

TEST_CASE("a mesh without any reading asks for two in a row") {
    Job job = demo::job();
    std::erase_if(job.train.measurements, [](const Measurement& m) { return m.id == "m2"; });
    const RestoreResult out = solve(job);
    REQUIRE(out.next_measurement.has_value());
    REQUIRE(out.next_measurement->then.has_value());
    CHECK(*out.next_measurement->then_entropy_drop_bits > 1);
    CHECK(*out.next_measurement->then_entropy_drop_bits > out.next_measurement->expected_entropy_drop_bits);
}

TEST_CASE("what a reading should leave is said in counts: of four two are parted cleanly, of many the few that stay") {
    CHECK(leaves_in_words(2, 1) == "it should leave 2 of the 4");
    CHECK(leaves_in_words(2, 1.5) == "it should leave 1 or 2 of the 4");
    CHECK(leaves_in_words(1, 1) == "it should settle it");
    CHECK(leaves_in_words(std::log2(131), std::log2(131.0 / 3)) == "it should leave about 3 of 131");
    CHECK(leaves_in_words(3, 0) == "it should leave 8 of the 8");
}

TEST_CASE("a reading that parts two equal candidates cleanly is worth one bit") {
    CHECK(restore::information_bits({{0.5, 10, 0.1}, {0.5, 20, 0.1}}) == Approx(1).margin(1e-4));
    CHECK(restore::information_bits({{0.25, 0, 0.1}, {0.25, 5, 0.1}, {0.25, 9, 0.1}, {0.25, 30, 0.1}}) == Approx(2).margin(1e-4));
    CHECK(restore::information_bits({{0.5, 10, 0.1}, {0.5, 10, 0.1}}) == Approx(0).margin(1e-4));
    CHECK(restore::information_bits({{1, 10, 0.1}}) == 0);
    // Two that are told apart are one bit, however much sharper one of them is, or both than what lies between them.
    CHECK(restore::information_bits({{0.5, 0, 1e-4}, {0.5, 1000, 100}}) == Approx(1).margin(1e-4));
    CHECK(restore::information_bits({{0.5, 0, 1e-6}, {0.5, 1, 1e-6}}) == Approx(1).margin(1e-4));
    const double near = restore::information_bits({{0.5, 10, 1}, {0.5, 11, 1}});
    const double far = restore::information_bits({{0.5, 10, 1}, {0.5, 13, 1}});
    CHECK(near > 0);
    CHECK(near < far);
    CHECK(far < 1);
}

TEST_CASE("evidence that cannot be is refused with its place") {
    const auto refusal = [](const Evidence& evidence) {
        RestoreInput input = restore_input(demo::job().train, demo::job().teeth);
        input.evidence = {evidence};
        try {
            restore_train(input);
        } catch (const InputError& error) {
            return std::string(error.what());
        }
        return std::string();
    };
    CHECK_THAT(refusal({{"centre_distance_mm", {}, "great", "escape"}, 30, 0.1}),
               Catch::StartsWith("evidence[0].pinion_of: got \"escape\""));
    CHECK_THAT(refusal({{"period_s", {}, {}, {}}, 30, 0.1}), Catch::StartsWith("evidence[0].arbor: got nothing"));
    CHECK_THAT(refusal({{"wheel_outside_diameter_mm", "fifth", {}, {}}, 30, 0.1}), Catch::Contains("\"fifth\""));
    CHECK_THAT(refusal({{"pinion_outside_diameter_mm", "great", {}, {}}, 30, 0.1}), Catch::Contains("such a part"));
}

TEST_CASE("unknown parts and impossible limits are refused") {
    RestoreInput input = restore_input(demo::job().train, demo::job().teeth);
    input.unknown = {"third.whel"};
    CHECK_THROWS_WITH(restore_train(input), Catch::StartsWith("unknown[0]: got \"third.whel\""));
    input = restore_input(demo::job().train, demo::job().teeth);
    input.limits.wheel = {100, 50};
    CHECK_THROWS_WITH(restore_train(input), "limits.wheel: got 100 to 50, takes min not above max");
    input = restore_input(demo::job().train, demo::job().teeth);
    for (ArborInput& arbor : input.train.arbors) {
        if (arbor.wheel.present()) arbor.wheel = Count::lost();
        if (arbor.pinion.present()) arbor.pinion = Count::lost();
    }
    CHECK_THROWS_WITH(restore_train(input), Catch::Contains("lost counts") && Catch::Contains("narrow the limits"));
    Job whole = demo::job();
    whole.train.arbors[2].train.wheel = 90;
    whole.train.arbors[2].train.pinion = 12;
    CHECK_THROWS_WITH(solve(whole), Catch::StartsWith("unknown: got no lost count"));
}

TEST_CASE("a count listed as unknown is lost whether it was written or not") {
    Job job = demo::measured_job();
    RestoreInput input = restore_input(job.train, job.teeth);
    input.train.arbors[2].wheel = 75;
    input.train.arbors[2].pinion = Count();
    input.unknown = {"third.wheel", "third.pinion"};
    CHECK(wheel(restore_train(input).candidates.front()) == 90);
}
