#pragma once

#include <memory>
#include <mutex>
#include <thread>

#include "beat/listening.h"
#include "instruments/sound_source.h"

namespace echappe {

/// What was heard up to a moment.
struct Heard {
    bool listening = false;
    QString from;
    QString fault;
    double seconds = 0;
    double level = 0;  ///< 1 is full scale
    double beat_s = 0;
    std::optional<Beat> last;                        ///< the newest beat
    std::optional<bool> even_is_right;               ///< where the stand-in could see it
    std::shared_ptr<const BeatAnalysisResult> told;  ///< once a second anew
    std::shared_ptr<const TickShapes::Loudness> tick, tock;
};

/// Listens in a thread of its own: nothing that is painted waits for it.
class Listener {
public:
    ~Listener() { stop(); }
    /// Listens anew; what was heard before is forgotten.
    void start(std::unique_ptr<SoundSource> source, const BeatsTold& told, const BeatAnalysisInput& asked);
    /// What was heard stays.
    void stop();
    Heard heard() const;

private:
    void listen(Listening& listening);
    void tell(const Listening& listening, bool judge);

    std::unique_ptr<SoundSource> m_source;
    std::thread m_thread;
    mutable std::mutex m_lock;
    Heard m_heard;
};

}  // namespace echappe
