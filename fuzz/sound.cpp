#include <algorithm>
#include <cmath>
#include <vector>

#include "beat/beat_analysis.h"
#include "in_memory.h"
#include "sound/blows.h"
#include "sound/sound.h"

using namespace echappe;
using namespace echappe::fuzz;

// A file of sound from anywhere, its head above all: WAV, FLAC, OGG. It is heard, or told in a sentence; what it claims of itself is
// not believed.
extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string path = in_memory(data, size);
    bool short_enough = false;
    answered([&] {
        const auto sound = open_sound(path, "file");
        must(sound->rate_Hz() >= least_rate_Hz && sound->rate_Hz() <= most_rate_Hz, "the rate is one that can be heard");
        must(sound->samples() > 0, "there is a sample");
        std::vector<float> piece(256);
        const auto samples = static_cast<long long>(sound->samples());
        for (const long long from : {-10LL, 0LL, samples / 2, samples - 5, samples + 5}) {
            sound->read(from, piece);
            must(std::all_of(piece.begin(), piece.end(), [](float x) { return std::isfinite(x); }), "samples are finite");
        }
        // What is longer takes its time, and is heard in the same way.
        short_enough = sound->samples() < 400000;
    });
    if (!short_enough) return 0;
    answered([&] {
        BeatAnalysisInput in;
        in.file = path;
        must(std::isfinite(analyse_beats(in).rate_s_per_day), "a rate is finite");
    });
    answered([&] {
        BlowsInput in;
        in.file = path;
        must(listen_to_strike(in).blows.size() < 100000, "blows are counted");
    });
    return 0;
}
