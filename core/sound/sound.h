#pragma once

#include <memory>
#include <span>
#include <string>
#include <vector>

namespace echappe {

/// Sound of one channel, ±1 at full scale, read piece by piece: what is longer than the memory is never in it as a whole.
class Sound {
public:
    virtual ~Sound() = default;
    virtual double rate_Hz() const = 0;
    /// How many samples there are.
    virtual size_t samples() const = 0;
    /// From a sample on; silence before the first and after the last. Several threads may read.
    virtual void read(long long from, std::span<float> out) = 0;
    /// Whether the file it comes from ends before its header says it does.
    virtual bool cut_short() const { return false; }
    double seconds() const { return static_cast<double>(samples()) / rate_Hz(); }
};

/// Sound that is kept in memory.
class KeptSound final : public Sound {
public:
    KeptSound(double rate_Hz, std::vector<float> samples, bool cut_short = false)
        : m_rate_Hz(rate_Hz), m_samples(std::move(samples)), m_cut_short(cut_short) {}
    bool cut_short() const override { return m_cut_short; }
    double rate_Hz() const override { return m_rate_Hz; }
    size_t samples() const override { return m_samples.size(); }
    void read(long long from, std::span<float> out) override;

private:
    double m_rate_Hz;
    std::vector<float> m_samples;
    bool m_cut_short;
};

/// What is listened to has at least so many samples a second, or a tick is not in it; and no more than any recorder makes.
inline constexpr double least_rate_Hz = 4000, most_rate_Hz = 768000;

/// A file of sound: WAV, FLAC, OGG and what else libsndfile reads; channels are averaged. One that was cut short is read as far as it
/// goes. Throws InputError naming `field` when it cannot be read, when it has no sample, or samples too few or too many a second.
std::unique_ptr<Sound> open_sound(const std::string& path, const std::string& field);

/// Sound of 16 bits by the file's ending: .wav, .flac or .ogg. Clipped at full scale. Written whole or not at all. Throws InputError.
void save_sound(const std::string& path, double rate_Hz, std::span<const float> samples, const std::string& field);

}  // namespace echappe
