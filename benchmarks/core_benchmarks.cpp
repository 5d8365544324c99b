#include <benchmark/benchmark.h>

#include "job/derived.h"
#include "support/demo.h"

// The figures the issue of this slice names: restore over the full limits under 50 ms, derive() of the demo.

namespace {

using namespace echappe;

void restore_demo_full_limits(benchmark::State& state) {
    RestoreInput input = restore_input(demo::measured_job());
    input.limits = RestoreLimits();
    for (auto _ : state) benchmark::DoNotOptimize(restore_train(input));
}
BENCHMARK(restore_demo_full_limits)->Unit(benchmark::kMillisecond);

void restore_demo_before_measuring_full_limits(benchmark::State& state) {
    RestoreInput input = restore_input(demo::job());
    input.limits = RestoreLimits();
    for (auto _ : state) benchmark::DoNotOptimize(restore_train(input));
}
BENCHMARK(restore_demo_before_measuring_full_limits)->Unit(benchmark::kMillisecond);

void derive_demo(benchmark::State& state) {
    const Job job = demo::job();
    for (auto _ : state) benchmark::DoNotOptimize(derive(job));
}
BENCHMARK(derive_demo)->Unit(benchmark::kMillisecond);

void derive_demo_measured(benchmark::State& state) {
    const Job job = demo::measured_job();
    for (auto _ : state) benchmark::DoNotOptimize(derive(job));
}
BENCHMARK(derive_demo_measured)->Unit(benchmark::kMillisecond);

}  // namespace

BENCHMARK_MAIN();
