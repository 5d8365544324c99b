#include "instruments/sound_source.h"

#include <QAudioDevice>
#include <QAudioSource>
#include <QFileInfo>
#include <QMediaDevices>
#include <algorithm>
#include <chrono>
#include <cmath>
#include <condition_variable>
#include <mutex>
#include <thread>
#include <vector>

#include "number/input_error.h"
#include "sound/sound.h"

namespace echappe {
namespace {

using Clock = std::chrono::steady_clock;

class SimulatedPickup final : public SoundSource {
public:
    SimulatedPickup(const TickingInput& movement, std::optional<double> hurried_s)
        : m_rate_Hz(static_cast<double>(movement.sample_rate_Hz)), m_ticking(movement), m_hurried_s(hurried_s), m_begun(Clock::now()) {}
    QString name() const override { return QObject::tr("simulated pickup"); }
    double rate_Hz() const override { return m_rate_Hz; }
    bool read(std::span<float> out) override {
        if (stopped() || (m_hurried_s && m_made_s >= *m_hurried_s)) return false;
        m_ticking.next(out);
        m_made_s += static_cast<double>(out.size()) / m_rate_Hz;
        if (!m_hurried_s)
            std::this_thread::sleep_until(m_begun + std::chrono::duration_cast<Clock::duration>(std::chrono::duration<double>(m_made_s)));
        return !stopped();
    }
    bool keeps_time() const override { return true; }
    std::optional<bool> even_is_right(const Beat& heard) const override {
        const std::vector<double>& beats = m_ticking.beat_times_s();
        if (beats.empty()) return {};
        // The beat that fell nearest; the first of all falls to the right.
        const auto after = std::lower_bound(beats.begin(), beats.end(), heard.at_s);
        auto nearest = after;
        if (after == beats.end() || (after != beats.begin() && heard.at_s - *(after - 1) < *after - heard.at_s)) --nearest;
        return ((nearest - beats.begin()) - heard.number) % 2 == 0;
    }

private:
    double m_rate_Hz;
    Ticking m_ticking;
    std::optional<double> m_hurried_s;
    Clock::time_point m_begun;
    double m_made_s = 0;
};

class Recording final : public SoundSource {
public:
    explicit Recording(const QString& path) : m_name(QFileInfo(path).fileName()), m_sound(open_sound(path.toStdString(), "recording")) {}
    QString name() const override { return m_name; }
    double rate_Hz() const override { return m_sound->rate_Hz(); }
    bool read(std::span<float> out) override {
        if (stopped() || m_at >= static_cast<long long>(m_sound->samples())) return false;
        m_sound->read(m_at, out);
        m_at += static_cast<long long>(out.size());
        return true;
    }

private:
    QString m_name;
    std::unique_ptr<Sound> m_sound;
    long long m_at = 0;
};

/// Writes what comes from a device into a queue; the device lives with the window's thread.
class Queue final : public QIODevice {
public:
    Queue() { open(QIODevice::WriteOnly); }
    bool take(std::span<float> out, const std::function<bool()>& stopped) {
        std::unique_lock lock(m_lock);
        m_more.wait(lock, [&] { return m_samples.size() >= out.size() || stopped(); });
        if (m_samples.size() < out.size()) return false;
        std::copy_n(m_samples.begin(), out.size(), out.begin());
        m_samples.erase(m_samples.begin(), m_samples.begin() + static_cast<std::ptrdiff_t>(out.size()));
        return true;
    }
    void wake() { m_more.notify_all(); }

protected:
    qint64 readData(char*, qint64) override { return -1; }
    qint64 writeData(const char* data, qint64 bytes) override {
        const auto count = static_cast<size_t>(bytes) / sizeof(float);
        const std::lock_guard lock(m_lock);
        const auto* samples = reinterpret_cast<const float*>(data);
        m_samples.insert(m_samples.end(), samples, samples + count);
        // Nobody has listened for a minute: the oldest goes.
        constexpr size_t most = 60 * 48000;
        if (m_samples.size() > most) m_samples.erase(m_samples.begin(), m_samples.end() - most);
        m_more.notify_all();
        return bytes;
    }

private:
    std::mutex m_lock;
    std::condition_variable m_more;
    std::vector<float> m_samples;
};

class Microphone final : public SoundSource {
public:
    explicit Microphone(const QAudioDevice& device) : m_name(device.description()) {
        QAudioFormat format = device.preferredFormat();
        format.setChannelCount(1);
        format.setSampleFormat(QAudioFormat::Float);
        if (!device.isFormatSupported(format)) format.setSampleRate(48000);
        if (!device.isFormatSupported(format))
            throw InputError("device", m_name.toStdString(), "a microphone or pickup that records one channel at 48 000 Hz");
        m_rate_Hz = format.sampleRate();
        m_source = std::make_unique<QAudioSource>(device, format);
        m_source->start(&m_queue);
        if (m_source->error() != QAudio::NoError) throw InputError("device", m_name.toStdString(), "a device that no other program holds");
    }
    ~Microphone() override { m_source->stop(); }
    QString name() const override { return m_name; }
    double rate_Hz() const override { return m_rate_Hz; }
    bool read(std::span<float> out) override {
        return m_queue.take(out, [this] { return stopped(); });
    }
    void stop() override {
        SoundSource::stop();
        m_queue.wake();
    }

private:
    QString m_name;
    double m_rate_Hz = 48000;
    Queue m_queue;
    std::unique_ptr<QAudioSource> m_source;
};

}  // namespace

std::unique_ptr<SoundSource> simulated_pickup(const TickingInput& movement, std::optional<double> hurried_s) {
    return std::make_unique<SimulatedPickup>(movement, hurried_s);
}

std::unique_ptr<SoundSource> recording(const QString& path) { return std::make_unique<Recording>(path); }

QStringList sound_devices() {
    QStringList names;
    for (const QAudioDevice& device : QMediaDevices::audioInputs()) names << device.description();
    return names;
}

std::unique_ptr<SoundSource> sound_device(const QString& name) {
    for (const QAudioDevice& device : QMediaDevices::audioInputs())
        if (device.description() == name) return std::make_unique<Microphone>(device);
    throw InputError("device", name.toStdString(), "one that is plugged in; S shows the next");
}

}  // namespace echappe
