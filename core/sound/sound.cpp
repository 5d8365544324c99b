#include "sound/sound.h"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <mutex>
#include <sndfile.hh>

#include "exchange/whole_file.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

/// From a sample on out of what begins at 0; silence outside.
template <class Read>
void read_within(long long from, std::span<float> out, long long samples, const Read& read) {
    std::fill(out.begin(), out.end(), 0.0f);
    const long long first = std::max(0LL, from), last = std::min(samples, from + static_cast<long long>(out.size()));
    if (first < last) read(first, out.subspan(static_cast<size_t>(first - from), static_cast<size_t>(last - first)));
}

constexpr int most_channels = 64;
constexpr double longest_recording_s = 48 * 3600.0;

std::uint32_t little_endian(const std::string& bytes, size_t at) {
    std::uint32_t number = 0;
    for (size_t i = 4; i-- > 0;) number = (number << 8) | static_cast<unsigned char>(bytes[at + i]);
    return number;
}

/// Whether the file is shorter than its own words say: a WAV by the length in its head, an OGG by the mark on its last page (RFC 3533).
/// A length of nothing or of all ones is that of a recorder that could not go back to write it.
bool ends_early(const std::string& path) {
    std::error_code none;
    const auto size = std::filesystem::file_size(path, none);
    std::ifstream in(path, std::ios::binary);
    std::string head(12, '\0');
    if (none || !in.read(head.data(), 12)) return false;
    if (head.starts_with("RIFF")) {
        const std::uint32_t told = little_endian(head, 4);
        // Some leave the last byte off.
        return told != 0 && told < 0xfffffff0 && size + 1 < static_cast<std::uintmax_t>(told) + 8;
    }
    if (!head.starts_with("OggS")) return false;
    constexpr std::uintmax_t longest_page = 65307;
    const std::uintmax_t from = size - std::min(size, 2 * longest_page);
    std::string end(static_cast<size_t>(size - from), '\0');
    in.seekg(static_cast<std::streamoff>(from));
    in.read(end.data(), static_cast<std::streamsize>(end.size()));
    const size_t page = end.rfind("OggS");
    constexpr size_t kind_at = 5;
    constexpr unsigned last_page = 4;
    return page == std::string::npos || page + kind_at >= end.size() || !(static_cast<unsigned char>(end[page + kind_at]) & last_page);
}

class FileOfSound final : public Sound {
public:
    FileOfSound(const std::string& path, const std::string& field) : m_file(path) {
        if (m_file.error() != SF_ERR_NO_ERROR || m_file.channels() < 1)
            throw InputError(field, path, std::string("a WAV, FLAC or OGG file that can be read (") + m_file.strError() + ")");
        if (!(rate_Hz() >= least_rate_Hz && rate_Hz() <= most_rate_Hz))
            throw InputError(field, path + ", " + print_short(rate_Hz(), 9) + " samples a second",
                             "a recording of " + print_short(least_rate_Hz) + " to " + print_short(most_rate_Hz, 6) +
                                 " a second: ticks are not in fewer");
        if (m_file.channels() > most_channels)
            throw InputError(field, path + ", " + std::to_string(m_file.channels()) + " channels",
                             "at most " + std::to_string(most_channels));
        m_samples = m_file.frames();
        const bool whole = reaches(m_samples - 1);
        m_cut_short = !whole || ends_early(path);
        if (!whole) {
            // A look beyond its end may have left the reader where it cannot go on from.
            m_file = SndfileHandle(path);
            m_samples = count_samples();
            m_file = SndfileHandle(path);
        }
        if (m_samples < 1) throw InputError(field, path, "a file with sound in it: there is not one sample");
        m_file.seek(0, SEEK_SET);
        if (seconds() > longest_recording_s)
            throw InputError(field, path + ", " + print_short(seconds() / 3600, 3) + " hours", "a recording of at most 48 hours");
    }
    bool cut_short() const override { return m_cut_short; }
    double rate_Hz() const override { return m_file.samplerate(); }
    bool exact() const { return (m_file.format() & SF_FORMAT_TYPEMASK) != SF_FORMAT_OGG; }
    size_t samples() const override { return static_cast<size_t>(m_samples); }
    void read(long long from, std::span<float> out) override {
        const std::lock_guard lock(m_one_at_a_time);
        read_within(from, out, m_samples, [this](long long first, std::span<float> piece) {
            if (m_at != first) m_file.seek(first, SEEK_SET);
            const auto channels = static_cast<size_t>(m_file.channels());
            if (channels == 1) {
                m_file.readf(piece.data(), static_cast<sf_count_t>(piece.size()));
            } else {
                m_all.assign(piece.size() * channels, 0.0f);
                m_file.readf(m_all.data(), static_cast<sf_count_t>(piece.size()));
                for (size_t i = 0; i < piece.size(); ++i) {
                    float sum = 0;
                    for (size_t c = 0; c < channels; ++c) sum += m_all[i * channels + c];
                    piece[i] = sum / static_cast<float>(channels);
                }
            }
            for (float& one : piece)
                if (!std::isfinite(one)) one = 0;
            m_at = first + static_cast<long long>(piece.size());
        });
    }

private:
    /// A count in a header is only a claim.
    bool reaches(sf_count_t sample) {
        std::vector<float> one(static_cast<size_t>(m_file.channels()));
        return sample >= 0 && m_file.seek(sample, SEEK_SET) == sample && m_file.readf(one.data(), 1) == 1;
    }
    sf_count_t count_samples() {
        constexpr sf_count_t piece = 1 << 14;
        std::vector<float> some(static_cast<size_t>(piece * m_file.channels()));
        if (m_file.seek(0, SEEK_SET) != 0) return 0;
        sf_count_t count = 0;
        for (sf_count_t got = piece; got == piece; count += std::max<sf_count_t>(got, 0)) got = m_file.readf(some.data(), piece);
        return count;
    }

    std::mutex m_one_at_a_time;
    SndfileHandle m_file;
    sf_count_t m_samples = 0;
    bool m_cut_short = false;
    long long m_at = 0;
    std::vector<float> m_all;
};

/// A text that libsndfile writes into.
struct WrittenSound {
    std::string text;
    size_t at = 0;

    static WrittenSound& of(void* self) { return *static_cast<WrittenSound*>(self); }
    static SF_VIRTUAL_IO way() {
        SF_VIRTUAL_IO io{};
        io.get_filelen = [](void* self) { return static_cast<sf_count_t>(of(self).text.size()); };
        io.seek = [](sf_count_t to, int from, void* self) {
            WrittenSound& sound = of(self);
            const auto base = from == SEEK_SET ? 0 : static_cast<sf_count_t>(from == SEEK_CUR ? sound.at : sound.text.size());
            sound.at = static_cast<size_t>(std::max<sf_count_t>(0, base + to));
            return static_cast<sf_count_t>(sound.at);
        };
        io.read = [](void* out, sf_count_t count, void* self) {
            WrittenSound& sound = of(self);
            const size_t left = sound.text.size() - std::min(sound.at, sound.text.size());
            const size_t piece = std::min(static_cast<size_t>(count), left);
            std::memcpy(out, sound.text.data() + sound.at, piece);
            sound.at += piece;
            return static_cast<sf_count_t>(piece);
        };
        io.write = [](const void* in, sf_count_t count, void* self) {
            WrittenSound& sound = of(self);
            const auto piece = static_cast<size_t>(count);
            if (sound.text.size() < sound.at + piece) sound.text.resize(sound.at + piece);
            std::memcpy(sound.text.data() + sound.at, in, piece);
            sound.at += piece;
            return count;
        };
        io.tell = [](void* self) { return static_cast<sf_count_t>(of(self).at); };
        return io;
    }
};

int format_of(const std::string& path, const std::string& field) {
    std::string ending = std::filesystem::path(path).extension().string();
    std::transform(ending.begin(), ending.end(), ending.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    if (ending == ".wav") return SF_FORMAT_WAV | SF_FORMAT_PCM_16;
    if (ending == ".flac") return SF_FORMAT_FLAC | SF_FORMAT_PCM_16;
    if (ending == ".ogg") return SF_FORMAT_OGG | SF_FORMAT_VORBIS;
    throw InputError(field, path, "a name that ends in .wav, .flac or .ogg");
}

}  // namespace

void KeptSound::read(long long from, std::span<float> out) {
    read_within(from, out, static_cast<long long>(m_samples.size()),
                [this](long long first, std::span<float> piece) { std::copy_n(m_samples.begin() + first, piece.size(), piece.begin()); });
}

std::unique_ptr<Sound> open_sound(const std::string& path, const std::string& field) {
    auto file = std::make_unique<FileOfSound>(path, field);
    if (file->exact()) return file;
    // Vorbis does not find its place to the sample again: it is read once from end to end.
    std::vector<float> all(file->samples());
    file->read(0, all);
    return std::make_unique<KeptSound>(file->rate_Hz(), std::move(all), file->cut_short());
}

void save_sound(const std::string& path, double rate_Hz, std::span<const float> samples, const std::string& field) {
    WrittenSound written;
    SF_VIRTUAL_IO way = WrittenSound::way();
    {
        SndfileHandle file(way, &written, SFM_WRITE, format_of(path, field), 1, static_cast<int>(std::lround(rate_Hz)));
        if (file.error() != SF_ERR_NO_ERROR)
            throw InputError(field, print_short(rate_Hz, 9) + " Hz", std::string("a rate of samples that it can hold: ") + file.strError());
        file.command(SFC_SET_CLIPPING, nullptr, SF_TRUE);
        double quality = 0.9;  // of Vorbis, which else smears a tick
        file.command(SFC_SET_VBR_ENCODING_QUALITY, &quality, sizeof quality);
        constexpr size_t piece = 1 << 16;  // Vorbis takes no more at once
        for (size_t at = 0; at < samples.size(); at += piece) {
            const auto count = static_cast<sf_count_t>(std::min(piece, samples.size() - at));
            if (file.writef(samples.data() + at, count) != count)
                throw InputError(field, path, std::string("a file that can be written: ") + file.strError());
        }
    }
    save_text(path, written.text);
}

}  // namespace echappe
