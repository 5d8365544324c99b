/// How well real ticks are heard: laid at times that are known, condition by condition.
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

struct Row {
    long long recordings = 0, laid = 0, found = 0, false_ones = 0, told = 0, silent = 0;
    long long rate_in = 0, rate_of = 0, limp_in = 0, wrong = 0, faults = 0;
    double seconds = 0, sound_s = 0;
};

void add(Row& row, const Shelf& shelf, bool told, const std::vector<RealTick>& ticks, const std::vector<std::vector<float>>& room) {
    const ShelfSound laid = lay(shelf, ticks, room);
    const double beat_s = 1 / shelf.beats_per_s;
    BeatsTold movement;
    if (told) movement.beats_per_hour = 3600 * shelf.beats_per_s;
    ++row.recordings;
    std::vector<double> times_s;
    const auto begin = std::chrono::steady_clock::now();
    try {
        const HeardBeats heard = hear_beats(*laid.sound, movement.beat_s());
        for (const Beat& beat : heard.beats) times_s.push_back(beat.at_s);
        if (auto out = judge_beats(heard.beats, movement, {})) {
            tell_shapes(*heard.shapes, {}, movement, heard.one_sound, *out);
            const double rate = day_s * (out->measured_beats_per_hour / (3600 * shelf.beats_per_s) - 1) - shelf.rate_s_per_day;
            const bool wrong = std::abs(out->measured_beats_per_hour / (3600 * shelf.beats_per_s) - 1) > 0.02;
            row.wrong += wrong;
            if (!wrong) {
                ++row.rate_of;
                row.rate_in += std::abs(rate) <= 2 * out->u_s_per_day;
                row.limp_in += heard.one_sound || std::abs(out->beat_error_ms - shelf.limp_ms) <= 2 * out->beat_error_u_ms + 1e-9;
            }
            row.faults += !out->periodic_faults.empty();
        }
    } catch (const InputError& error) {
        ++row.silent;
        if (getenv("HEARING_TALKS")) std::printf("    silent: %s\n", error.what());
    }
    row.seconds += std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
    row.sound_s += shelf.seconds;
    const Score one = score(laid, times_s, beat_s);
    row.laid += one.laid, row.found += one.found, row.false_ones += one.false_ones, row.told += one.told;
    if (getenv("HEARING_TALKS"))
        std::printf("    seed %u told %d: laid %lld found %lld false %lld\n", shelf.seed, told, one.laid, one.found, one.false_ones);
}

}  // namespace

int main(int argc, char** argv) {
    const std::string folder = argc > 1 ? argv[1] : REAL_FOLDER;
    const unsigned each = argc > 2 ? static_cast<unsigned>(std::atoi(argv[2])) : 6;
    const std::vector<RealTick> ticks = real_ticks(folder);
    const std::vector<std::vector<float>> room = real_room(REAL_FOLDER);
    std::printf("%-44s %6s %6s %6s %6s %6s %6s %6s %6s\n", "condition", "recall", "false", "rate2u", "limp2u", "silent", "wrong", "faults",
                "ms/s");
    std::vector<std::pair<std::string, Shelf>> cases;
    const auto put = [&](const std::string& name, Shelf shelf) { cases.emplace_back(name, shelf); };
    const double speeds[] = {0.3, 0.5, 1, 2, 4, 5, 8, 10};
    for (const double speed : speeds) {
        Shelf shelf;
        shelf.beats_per_s = speed;
        shelf.seconds = std::max(30.0, 40 / speed);
        shelf.weakest_dB = 30;
        shelf.rate_s_per_day = 25;
        char name[80];
        std::snprintf(name, sizeof name, "%4.1f a second, alike, 30 dB", speed);
        put(name, shelf);
        shelf.loudness = 3, shelf.weakest_dB = 20;
        std::snprintf(name, sizeof name, "%4.1f a second, 1 : 3, 20 dB", speed);
        put(name, shelf);
        shelf.loudness = 20, shelf.weakest_dB = 12;
        std::snprintf(name, sizeof name, "%4.1f a second, 1 : 20, 12 dB", speed);
        put(name, shelf);
        shelf.loudness = 1;
        std::snprintf(name, sizeof name, "%4.1f a second, alike, 12 dB", speed);
        put(name, shelf);
    }
    for (const double speed : {1.0, 2.0, 5.0}) {
        Shelf base;
        base.beats_per_s = speed, base.seconds = std::max(30.0, 40 / speed), base.loudness = 3, base.weakest_dB = 20,
        base.rate_s_per_day = -40;
        char name[80];
        const auto with = [&](const char* what, auto change) {
            Shelf shelf = base;
            change(shelf);
            std::snprintf(name, sizeof name, "%4.1f a second, %s", speed, what);
            put(name, shelf);
        };
        with("an echoing room", [](Shelf& s) { s.echo = 1; });
        with("hiss", [](Shelf& s) { s.hiss = true; });
        with("the same piece", [](Shelf& s) { s.one_tick = true; });
        with("limps by a tenth", [&](Shelf& s) { s.limp_ms = 200 / speed / 2; });
        with("a fifth missing", [](Shelf& s) { s.missing = 0.2; });
        with("3 ms of jitter", [](Shelf& s) { s.jitter_ms = 3; });
        with("8 kHz", [](Shelf& s) { s.rate_Hz = 8000; });
    }
    Row all;
    for (const auto& [name, shelf] : cases) {
        if (argc > 3 && name.find(argv[3]) == std::string::npos) continue;
        const auto half = [&, shelf = shelf](bool told) {
            Row row;
            for (unsigned seed = 1; seed <= each; ++seed) {
                Shelf one = shelf;
                one.seed = seed * 7919;
                add(row, one, told, ticks, room);
            }
            return row;
        };
        auto later = std::async(std::launch::async, half, true);
        Row row = half(false);
        const Row other = later.get();
        const auto sum = [](Row& to, const Row& from) {
            to.recordings += from.recordings, to.laid += from.laid, to.found += from.found, to.false_ones += from.false_ones,
                to.told += from.told;
            to.silent += from.silent, to.rate_in += from.rate_in, to.rate_of += from.rate_of, to.limp_in += from.limp_in,
                to.wrong += from.wrong;
            to.faults += from.faults, to.seconds += from.seconds, to.sound_s += from.sound_s;
        };
        const auto print = [](const std::string& what, const Row& r) {
            std::printf("%-44s %5.1f%% %5.2f%% %3lld/%-3lld %3lld/%-3lld %3lld/%-3lld %4lld %4lld %7.1f\n", what.c_str(),
                        100.0 * static_cast<double>(r.found) / std::max(1.0, static_cast<double>(r.laid)),
                        100.0 * static_cast<double>(r.false_ones) / std::max(1.0, static_cast<double>(r.told)), r.rate_in, r.rate_of,
                        r.limp_in, r.rate_of, r.silent, r.recordings, r.wrong, r.faults, 1000 * r.seconds / r.sound_s);
            std::fflush(stdout);
        };
        sum(row, other);
        print(name, row);
        sum(all, row);
    }
    std::printf("%-44s %5.2f%% %5.2f%%  rate %lld/%lld limp %lld/%lld silent %lld/%lld wrong %lld faults %lld\n", "all",
                100.0 * static_cast<double>(all.found) / std::max(1.0, static_cast<double>(all.laid)),
                100.0 * static_cast<double>(all.false_ones) / std::max(1.0, static_cast<double>(all.told)), all.rate_in, all.rate_of,
                all.limp_in, all.rate_of, all.silent, all.recordings, all.wrong, all.faults);
}
