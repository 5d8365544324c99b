#include "instruments/sound_source.h"

#include <QAudioDevice>
#include <QAudioSource>
#include <QFileInfo>
#include <QMediaDevices>
#include <algorithm>
#include <chrono>
#include <cmath>
#include <thread>
#include <vector>

#include "drawing/words.h"
#include "instruments/sound_queue.h"
#include "number/input_error.h"
#include "sound/sound.h"

namespace echappe {
namespace {

using Clock = std::chrono::steady_clock;

class SimulatedPickup final : public SoundSource {
public:
    SimulatedPickup(const TickingInput& movement, std::optional<double> hurried_s)
        : m_rate_Hz(static_cast<double>(movement.sample_rate_Hz)), m_ticking(movement), m_hurried_s(hurried_s), m_begun(Clock::now()) {}
    QString name() const override { return words("simulated pickup"); }
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
    QString warning() const override {
        return m_sound->cut_short() ? words("The file is cut short: heard as far as it goes, %1 s.").arg(m_sound->seconds(), 0, 'f', 1)
                                    : QString();
    }
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
        // Only the window's thread hears of it: whoever waits for sound is told.
        QObject::connect(m_source.get(), &QAudioSource::stateChanged, m_source.get(), [this](QAudio::State state) {
            if (state == QAudio::StoppedState && !stopped()) m_queue.end(words("%1 is not there any more.").arg(m_name));
        });
        // A device that was pulled out may just fall silent.
        QObject::connect(&m_devices, &QMediaDevices::audioInputsChanged, m_source.get(), [this, id = device.id()] {
            const auto there = QMediaDevices::audioInputs();
            if (std::none_of(there.begin(), there.end(), [&](const QAudioDevice& one) { return one.id() == id; }))
                m_queue.end(words("%1 was unplugged.").arg(m_name));
        });
        m_source->start(&m_queue);
        if (m_source->error() != QAudio::NoError) throw InputError("device", m_name.toStdString(), "a device that no other program holds");
    }
    ~Microphone() override {
        SoundSource::stop();
        m_source->stop();
    }
    QString name() const override { return m_name; }
    double rate_Hz() const override { return m_rate_Hz; }
    bool read(std::span<float> out) override { return m_queue.take(out); }
    void stop() override {
        SoundSource::stop();
        m_queue.end({});
    }
    QString fault() const override { return m_queue.fault(); }

private:
    QString m_name;
    double m_rate_Hz = 48000;
    SoundQueue m_queue;
    QMediaDevices m_devices;
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
