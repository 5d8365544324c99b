/// How well real ticks are heard: laid at times that are known, condition by condition.
///     hearing [FOLDER [SEEDS [CONDITION]]]
/// FOLDER: recordings and their ticks.csv, else those that ship. SEEDS: so many laid by chance of each condition, without and with the
/// beats told. CONDITION: only those whose name holds it. With HEARING_TALKS in the environment every recording is told by itself.
#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <future>

#include "beat/beat_analysis.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "support/shelf.h"

using namespace echappe;
using namespace echappe::support;

namespace {

using Clock = std::chrono::steady_clock;

/// Where a tick begins is seen in its picture no better than that.
constexpr double begins_seen_u_ms = 2;

struct Row {
    long long recordings = 0, laid = 0, found = 0, false_ones = 0, told = 0, silent = 0;
    long long rate_in = 0, rate_of = 0, limp_in = 0, limp_of = 0, wrong = 0, faults = 0;
    double seconds = 0, sound_s = 0;

    void add(const Row& other) {
        recordings += other.recordings, laid += other.laid, found += other.found, false_ones += other.false_ones, told += other.told;
        silent += other.silent, rate_in += other.rate_in, rate_of += other.rate_of, limp_in += other.limp_in, limp_of += other.limp_of;
        wrong += other.wrong, faults += other.faults, seconds += other.seconds, sound_s += other.sound_s;
    }
    void print(const std::string& what) const {
        const auto share = [](long long part, long long of) {
            return 100.0 * static_cast<double>(part) / std::max(1.0, static_cast<double>(of));
        };
        std::printf("%-44s %5.1f%% %5.2f%% %4lld/%-4lld %4lld/%-4lld %3lld/%-4lld %4lld %5lld %7.1f\n", what.c_str(), share(found, laid),
                    share(false_ones, told), rate_in, rate_of, limp_in, limp_of, silent, recordings, wrong, faults,
                    1000 * seconds / sound_s);
        std::fflush(stdout);
    }
};

struct Bank {
    std::vector<RealTick> ticks;
    std::vector<std::vector<float>> room;
    bool talks = getenv("HEARING_TALKS") != nullptr;
};

struct Condition {
    std::string name;
    Shelf shelf;
};

/// A wheel of sixty teeth and three slower ones: what a train of these beats could have.
std::vector<TurningArbor> arbors_of(double beat_s) {
    std::vector<TurningArbor> arbors;
    double period_s = 60 * beat_s;
    for (const char* id : {"escape", "third", "centre", "great"}) {
        arbors.push_back({id, id, period_s, 30});
        period_s *= 7.5;
    }
    return arbors;
}

void judge(const HeardBeats& heard, const Shelf& shelf, const ShelfSound& laid, const BeatsTold& movement, bool talks, Row& row) {
    const auto out = judge_beats(heard.beats, movement, {});
    if (!out) return;
    BeatAnalysisResult told = *out;
    tell_shapes(*heard.shapes, {}, movement, heard.one_sound, told);
    const double off = told.measured_beats_per_hour / (3600 * shelf.beats_per_s) - 1, rate = day_s * off - shelf.rate_s_per_day;
    if (talks)
        std::printf("    limp %.2f, told %.2f +- %.2f ms (%s), rate off %.2f +- %.2f, %s and %s\n", shelf.limp_ms, told.beat_error_ms,
                    told.beat_error_u_ms, heard.shapes->uneven() ? "by rises" : "by waves", rate, told.u_s_per_day, laid.of_ticks.c_str(),
                    laid.of_tocks.c_str());
    row.faults += !told.periodic_faults.empty();
    if (talks)
        for (const PeriodicFault& fault : told.periodic_faults) std::printf("    fault: %s\n", fault.words.c_str());
    constexpr double another_beat = 0.02;
    if (std::abs(off) > another_beat) {
        ++row.wrong;
        return;
    }
    ++row.rate_of;
    row.rate_in += std::abs(rate) <= 2 * told.u_s_per_day;
    if (!told.beat_error_untold.empty()) return;
    ++row.limp_of;
    row.limp_in += std::abs(told.beat_error_ms - shelf.limp_ms) <= 2 * std::hypot(told.beat_error_u_ms, begins_seen_u_ms);
}

Row hear(const Shelf& shelf, bool told, const Bank& bank) {
    const ShelfSound laid = lay(shelf, bank.ticks, bank.room);
    BeatsTold movement;
    if (told) {
        movement.beats_per_hour = 3600 * shelf.beats_per_s;
        movement.arbors = arbors_of(1 / shelf.beats_per_s);
        movement.escape_arbor = "escape", movement.escape_teeth = 30;
    }
    Row row;
    ++row.recordings;
    row.sound_s += shelf.seconds;
    std::vector<double> times_s;
    const auto begin = Clock::now();
    try {
        const HeardBeats heard = hear_beats(*laid.sound, movement.beat_s());
        for (const Beat& beat : heard.beats) times_s.push_back(beat.at_s);
        judge(heard, shelf, laid, movement, bank.talks, row);
    } catch (const InputError& error) {
        ++row.silent;
        if (bank.talks) std::printf("    silent: %s\n", error.what());
    }
    row.seconds += std::chrono::duration<double>(Clock::now() - begin).count();
    const Score one = score(laid, times_s, 1 / shelf.beats_per_s);
    row.laid += one.laid, row.found += one.found, row.false_ones += one.false_ones, row.told += one.told;
    if (bank.talks)
        std::printf("    seed %u, told %d: laid %lld, found %lld, false %lld\n", shelf.seed, told, one.laid, one.found, one.false_ones);
    return row;
}

std::vector<Condition> all_conditions() {
    std::vector<Condition> all;
    const auto put = [&](double speed, const char* what, const Shelf& shelf) {
        char name[80];
        std::snprintf(name, sizeof name, "%4.1f a second, %s", speed, what);
        all.push_back({name, shelf});
    };
    const auto shelf_of = [](double speed, double loudness, double weakest_dB, double rate_s_per_day) {
        Shelf shelf;
        shelf.beats_per_s = speed, shelf.seconds = std::max(30.0, 40 / speed);
        shelf.loudness = loudness, shelf.weakest_dB = weakest_dB, shelf.rate_s_per_day = rate_s_per_day;
        return shelf;
    };
    for (const double speed : {0.3, 0.5, 1.0, 2.0, 4.0, 5.0, 8.0, 10.0}) {
        put(speed, "alike, 30 dB", shelf_of(speed, 1, 30, 25));
        put(speed, "1 : 3, 20 dB", shelf_of(speed, 3, 20, 25));
        put(speed, "1 : 20, 12 dB", shelf_of(speed, 20, 12, 25));
        put(speed, "alike, 12 dB", shelf_of(speed, 1, 12, 25));
    }
    for (const double speed : {1.0, 2.0, 5.0}) {
        const auto with = [&](const char* what, auto change) {
            Shelf shelf = shelf_of(speed, 3, 20, -40);
            change(shelf);
            put(speed, what, shelf);
        };
        with("an echoing room", [](Shelf& s) { s.echo = 1; });
        with("hiss", [](Shelf& s) { s.hiss = true; });
        with("the same piece", [](Shelf& s) { s.one_tick = true; });
        with("limps by a tenth", [&](Shelf& s) { s.limp_ms = 100 / speed; });
        with("a fifth missing", [](Shelf& s) { s.missing = 0.2; });
        with("3 ms of jitter", [](Shelf& s) { s.jitter_ms = 3; });
        with("8 kHz", [](Shelf& s) { s.rate_Hz = 8000; });
    }
    return all;
}

/// Without and with the beats told, at the same time.
Row row_of(const Shelf& shelf, unsigned first_seed, unsigned seeds, const Bank& bank) {
    const auto half = [&](bool told) {
        Row row;
        for (unsigned seed = 0; seed < seeds; ++seed) {
            Shelf one = shelf;
            one.seed = first_seed + 7919 * seed;
            row.add(hear(one, told, bank));
        }
        return row;
    };
    auto later = std::async(std::launch::async, half, true);
    Row row = half(false);
    row.add(later.get());
    return row;
}

}  // namespace

int main(int argc, char** argv) {
    const std::string folder = argc > 1 ? argv[1] : REAL_FOLDER;
    const unsigned seeds = argc > 2 ? static_cast<unsigned>(std::atoi(argv[2])) : 6;
    const std::string only = argc > 3 ? argv[3] : "";
    const Bank bank{real_ticks(folder), real_room(REAL_FOLDER)};
    std::printf("%-44s %6s %6s %9s %9s %8s %5s %5s %7s\n", "condition", "recall", "false", "rate2u", "limp2u", "silent", "wrong", "faults",
                "ms/s");
    Row all;
    unsigned first_seed = 1;
    for (const auto& [name, shelf] : all_conditions()) {
        // Other recordings in each.
        first_seed += 104729;
        if (name.find(only) == std::string::npos) continue;
        const Row row = row_of(shelf, first_seed, seeds, bank);
        row.print(name);
        all.add(row);
    }
    all.print("all");
}
