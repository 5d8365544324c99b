#include <benchmark/benchmark.h>

#include <filesystem>
#include <fstream>

#include "beat/listening.h"
#include "parts/template_sheet.h"
#include "report/steps.h"
#include "report/today.h"
#include "sound/ticking.h"

#include "support/demo.h"
#include "teeth/mesh_simulation.h"
#include "topic.h"
#include "train/find.h"

// The figures the issue of this slice names: restore over the full limits under 50 ms, derive() of the demo.

namespace {

using namespace echappe;

void restore_demo_full_limits(benchmark::State& state) {
    RestoreInput input = demo::question(demo::measured_job());
    input.limits = RestoreLimits();
    for (auto _ : state) benchmark::DoNotOptimize(restore_train(input));
}
BENCHMARK(restore_demo_full_limits)->Unit(benchmark::kMillisecond);

void restore_demo_before_measuring_full_limits(benchmark::State& state) {
    RestoreInput input = demo::question(demo::job());
    input.limits = RestoreLimits();
    for (auto _ : state) benchmark::DoNotOptimize(restore_train(input));
}
BENCHMARK(restore_demo_before_measuring_full_limits)->Unit(benchmark::kMillisecond);

void derive_demo(benchmark::State& state) {
    const Job job = demo::job();
    for (auto _ : state) benchmark::DoNotOptimize(derive(job));
}
BENCHMARK(derive_demo)->Unit(benchmark::kMillisecond);

/// A fusee with its torque log, cone and set-up; a watch with its poise; two trains with a strike, an alarm and wood.
void derive_other_demo(benchmark::State& state) {
    const char* const demos[] = {"waiting-room.echappe.json", "watch.echappe.json", "granary.echappe.json"};
    const Job job = job_from_text(demo::text(demos[state.range(0)])).job;
    for (auto _ : state) benchmark::DoNotOptimize(derive(job));
}
BENCHMARK(derive_other_demo)->DenseRange(0, 2)->Unit(benchmark::kMillisecond);

/// As after an edit that leaves the meshes alone: what was simulated stands.
void derive_demo_after_an_edit(benchmark::State& state) {
    const Job job = demo::measured_job();
    Job other = job;
    other.oscillator->Q += 1;
    Derived before = derive(job);
    bool odd = false;
    for (auto _ : state) {
        DeriveAids aids;
        aids.job_before = odd ? &other : &job;
        aids.before = &before;
        before = derive(odd ? job : other, aids);
        odd = !odd;
    }
}
BENCHMARK(derive_demo_after_an_edit)->Unit(benchmark::kMillisecond);

void derive_demo_measured(benchmark::State& state) {
    const Job job = demo::measured_job();
    for (auto _ : state) benchmark::DoNotOptimize(derive(job));
}
BENCHMARK(derive_demo_measured)->Unit(benchmark::kMillisecond);

/// Best 20 near two moons on one disc; argument: stages.
void find_usual_counts(benchmark::State& state) {
    FindInput input;
    input.target = Rational::parse("59.061177706");
    input.stages = state.range(0);
    for (auto _ : state) benchmark::DoNotOptimize(find_trains(input));
}
BENCHMARK(find_usual_counts)->DenseRange(4, 6)->Unit(benchmark::kMillisecond);

void find_wide_counts(benchmark::State& state) {
    FindInput input;
    input.target = Rational::parse("59.061177706");
    input.stages = state.range(0);
    input.wheel = {12, 400};
    input.pinion = {6, 40};
    for (auto _ : state) benchmark::DoNotOptimize(find_trains(input));
}
BENCHMARK(find_wide_counts)->DenseRange(4, 5)->Unit(benchmark::kMillisecond);

void simulate_one_pitch(benchmark::State& state) {
    MeshSimulationInput input;
    input.mesh = {90, 12, 0.6};
    for (auto _ : state) benchmark::DoNotOptimize(simulate_mesh(input));
}
BENCHMARK(simulate_one_pitch)->Unit(benchmark::kMillisecond);

void simulate_in_32_steps(benchmark::State& state) {
    MeshSimulationInput input;
    input.mesh = {90, 12, 0.6};
    input.steps = 32;
    input.flank_points = 100;
    for (auto _ : state) benchmark::DoNotOptimize(simulate_mesh(input));
}
BENCHMARK(simulate_in_32_steps)->Unit(benchmark::kMillisecond);

/// A folder with a thousand jobs: looked through for the first time, and with the index beside them (1 s and 200 ms are wanted).
void bench_of_a_thousand(benchmark::State& state) {
    namespace fs = std::filesystem;
    const fs::path folder = fs::temp_directory_path() / "echappe-thousand";
    fs::create_directories(folder);
    const char* const demos[] = {"tide-house.echappe.json", "waiting-room.echappe.json", "watch.echappe.json", "granary.echappe.json"};
    for (int i = 0; i < 1000; ++i) std::ofstream(folder / ("job" + std::to_string(i) + ".echappe.json")) << demo::text(demos[i % 4]);
    BenchTodayInput in;
    in.folder = folder.string(), in.now = "2026-11-30 10:00";
    const bool indexed = state.range(0) == 1;
    if (indexed) bench_today(in);
    for (auto _ : state) {
        if (!indexed) fs::remove(folder / ".echappe-bench.json");
        benchmark::DoNotOptimize(bench_today(in));
    }
    fs::remove_all(folder);
}
BENCHMARK(bench_of_a_thousand)->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond);

void diagnose_next_test(benchmark::State& state) {
    DiagnoseInput in;
    in.symptoms = {"stops-after-minutes"};
    for (auto _ : state) benchmark::DoNotOptimize(diagnose(in));
}
BENCHMARK(diagnose_next_test)->Unit(benchmark::kMillisecond);

/// The order of work, asked at every change of the job.
void order_of_a_job(benchmark::State& state) {
    const Job job = demo::job();
    const Derived derived = derive(job);
    for (auto _ : state) benchmark::DoNotOptimize(order_of_work(job, derived, "2026-11-30 10:00"));
}
BENCHMARK(order_of_a_job)->Unit(benchmark::kMillisecond);

void templates_of_forty_parts(benchmark::State& state) {
    TemplateInput in;
    for (int i = 0; i < 40; ++i) {
        FlatShape shape;
        shape.width_mm = 20 + 3 * i % 70, shape.height_mm = 15 + 7 * i % 60;
        in.parts.push_back(shape);
    }
    for (auto _ : state) benchmark::DoNotOptimize(template_sheet(in));
}
BENCHMARK(templates_of_forty_parts)->Unit(benchmark::kMillisecond);

}  // namespace

/// Ten minutes at 48 kHz, from the file to the verdict: beats an hour as told.
void ten_minutes_of_sound(benchmark::State& state) {
    TickingInput in;
    in.beats_per_hour = static_cast<double>(state.range(0));
    in.seconds = 600;
    in.jitter_ms = 0.1;
    in.file = "ten-minutes.wav";
    synthesise_beats(in);
    BeatAnalysisInput asked;
    asked.file = in.file;
    for (auto _ : state) benchmark::DoNotOptimize(analyse_beats(asked));
    std::remove(in.file.c_str());
}
BENCHMARK(ten_minutes_of_sound)->Arg(3600)->Arg(28800)->Unit(benchmark::kMillisecond)->UseRealTime();

/// A second of listening, of one that listened for ten minutes.
void second_of_listening(benchmark::State& state) {
    TickingInput in;
    in.beats_per_hour = 18000;
    Ticking clock(in);
    Listening listening(48000, {}, {});
    std::vector<float> piece(960);
    const auto hear = [&](double seconds) {
        for (double heard = 0; heard < seconds; heard += 0.02) clock.next(piece), listening.add(piece);
    };
    hear(600);
    for (auto _ : state) {
        state.PauseTiming();
        std::vector<std::vector<float>> pieces(50, piece);
        for (auto& one : pieces) clock.next(one);
        state.ResumeTiming();
        for (const auto& one : pieces) listening.add(one);
    }
}
BENCHMARK(second_of_listening)->Unit(benchmark::kMillisecond);

BENCHMARK_MAIN();
