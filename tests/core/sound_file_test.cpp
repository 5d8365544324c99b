#include <catch2/catch.hpp>
#include <cmath>

#include "beat/beat_analysis.h"
#include "exchange/whole_file.h"
#include "number/input_error.h"
#include "sound/blows.h"
#include "sound/sound.h"
#include "sound/striking.h"
#include "sound/ticking.h"
#include "support/files.h"

using namespace echappe;

namespace {

/// The beat of a clock with half seconds, in a file with so many samples a second.
std::string ticks(const Folder& folder, const std::string& name, long long rate_Hz, double seconds = 20) {
    TickingInput in;
    in.beats_per_hour = 7200;
    in.seconds = seconds;
    in.sample_rate_Hz = rate_Hz;
    in.file = (folder / name).string();
    synthesise_beats(in);
    return in.file;
}

/// Noise where the recorder makes too few samples for any synthesis.
std::string hiss(const Folder& folder, double rate_Hz) {
    std::vector<float> samples(static_cast<size_t>(rate_Hz * 5));
    unsigned state = 1;
    for (float& x : samples) x = static_cast<float>((state = state * 1664525u + 1013904223u) >> 16) / 65536.0f - 0.5f;
    const std::string file = (folder / (std::to_string(static_cast<int>(rate_Hz)) + ".wav")).string();
    save_sound(file, rate_Hz, samples, "file");
    return file;
}

std::string without_its_end(const std::string& file, double share) {
    const std::string all = read_text(file);
    save_text(file, all.substr(0, static_cast<size_t>(static_cast<double>(all.size()) * share)));
    return file;
}

}  // namespace

TEST_CASE("a recording of a thousand samples a second or less is refused and not died of") {
    const Folder folder;
    for (const double rate_Hz : {1.0, 8.0, 100.0, 500.0, 888.0, 1000.0, 3999.0}) {
        INFO(rate_Hz);
        BeatAnalysisInput beats;
        beats.file = hiss(folder, rate_Hz);
        CHECK_THROWS_WITH(analyse_beats(beats), Catch::Contains("samples a second"));
        BlowsInput blows;
        blows.file = beats.file;
        CHECK_THROWS_WITH(listen_to_strike(blows), Catch::Contains("samples a second"));
    }
}

TEST_CASE("from four thousand samples a second on a beat is heard, by its rate to a second a day") {
    const Folder folder;
    for (const long long rate_Hz : {8000LL, 11025LL, 16000LL, 96000LL}) {
        INFO(rate_Hz);
        BeatAnalysisInput in;
        in.file = ticks(folder, std::to_string(rate_Hz) + ".wav", rate_Hz, 40);
        const BeatAnalysisResult heard = analyse_beats(in);
        CHECK(heard.beats_per_hour == 7200);
        CHECK(heard.rate_s_per_day == Approx(0).margin(1));
        CHECK_FALSE(heard.cut_short);
    }
}

TEST_CASE("a file that ends before its header says so is heard as far as it goes, and that is said") {
    const Folder folder;
    for (const char* name : {"a.wav", "a.flac", "a.ogg"}) {
        INFO(name);
        const std::string file = ticks(folder, name, 44100);
        CHECK_FALSE(open_sound(file, "file")->cut_short());
        BeatAnalysisInput in;
        in.file = without_its_end(file, 0.6);
        const BeatAnalysisResult heard = analyse_beats(in);
        CHECK(heard.cut_short);
        CHECK(heard.beats_per_hour == 7200);
        CHECK(heard.seconds < 16);
        CHECK(heard.seconds > 6);
    }
}

TEST_CASE("a strike whose file is cut short may have struck on, and its verdict says so") {
    const Folder folder;
    StrikingInput striking;
    striking.bells_Hz = {523};
    striking.blows = 6;
    striking.file = (folder / "six.wav").string();
    synthesise_strike(striking);
    BlowsInput in;
    in.file = striking.file;
    CHECK(listen_to_strike(in).strikes == 6);
    in.file = without_its_end(striking.file, 0.55);
    const BlowsResult heard = listen_to_strike(in);
    CHECK(heard.cut_short);
    CHECK(heard.blows.size() < 6);
    CHECK(heard.verdict.find("cut short") != std::string::npos);
}

TEST_CASE("a recorder that could not go back to write the length is not called cut short") {
    const Folder folder;
    const std::string file = ticks(folder, "stream.wav", 44100, 12);
    std::string bytes = read_text(file);
    for (size_t i = 4; i < 8; ++i) bytes[i] = '\xff';
    save_text(file, bytes);
    CHECK_FALSE(open_sound(file, "file")->cut_short());
}

TEST_CASE("a FLAC that claims days of sound it has not got is measured and not believed") {
    const Folder folder;
    const std::string file = ticks(folder, "lie.flac", 44100, 12);
    std::string bytes = read_text(file);
    // The count of samples in its STREAMINFO: the last 36 bits of bytes 18 to 25.
    bytes[21] = static_cast<char>(bytes[21] | 0x0f);
    for (size_t i = 22; i < 26; ++i) bytes[i] = '\xff';
    save_text(file, bytes);
    const auto sound = open_sound(file, "file");
    CHECK(sound->cut_short());
    CHECK(sound->seconds() == Approx(12).margin(0.2));
}
