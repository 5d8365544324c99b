#pragma once

#include <QString>
#include <atomic>
#include <memory>
#include <optional>
#include <span>

#include "beat/beat_fit.h"
#include "sound/ticking.h"

namespace echappe {

/// Where sound comes from while one listens: a microphone, a file, or the stand-in that hears the hidden movement. It is read by a
/// thread of its own.
class SoundSource {
public:
    virtual ~SoundSource() = default;
    virtual QString name() const = 0;
    virtual double rate_Hz() const = 0;
    /// What is wrong with it, though it can be listened to; else empty.
    virtual QString warning() const { return {}; }
    /// Why there is no more, where that is a fault: the device was pulled out. Else empty.
    virtual QString fault() const { return {}; }
    /// Waits until so many samples are there, or it is stopped. False: there is no more.
    virtual bool read(std::span<float> out) = 0;
    /// May be called by another thread: whoever waits goes on.
    virtual void stop() { m_stopped = true; }
    /// Whether its own time is beyond doubt: the stand-in's is.
    virtual bool keeps_time() const { return false; }
    /// Whether the beats with even numbers fall as it swings to the right, or clockwise; nothing where nobody can see it.
    virtual std::optional<bool> even_is_right(const Beat& /*heard*/) const { return {}; }

protected:
    bool stopped() const { return m_stopped; }

private:
    std::atomic<bool> m_stopped = false;
};

/// The hidden movement as a pickup hears it, in true time; `hurried_s`: as fast as it can be made, and no longer than this.
std::unique_ptr<SoundSource> simulated_pickup(const TickingInput& movement, std::optional<double> hurried_s = {});
/// A recording, as fast as it can be read. Throws InputError.
std::unique_ptr<SoundSource> recording(const QString& path);
/// Names of microphones and pickups that are there.
QStringList sound_devices();
/// One of them. Throws InputError when it is gone, or cannot record.
std::unique_ptr<SoundSource> sound_device(const QString& name);

}  // namespace echappe
