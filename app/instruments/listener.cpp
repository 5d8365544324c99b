#include "instruments/listener.h"

namespace echappe {

void Listener::start(std::unique_ptr<SoundSource> source, const BeatsTold& told, const BeatAnalysisInput& asked) {
    stop();
    m_source = std::move(source);
    {
        const std::lock_guard lock(m_lock);
        m_heard = {};
        m_heard.listening = true;
        m_heard.from = m_source->name();
    }
    m_thread = std::thread([this, told, asked] {
        try {
            Listening listening(m_source->rate_Hz(), told, asked);
            listen(listening);
        } catch (const std::exception& error) {
            const std::lock_guard lock(m_lock);
            m_heard.fault = QString::fromUtf8(error.what());
        }
        const std::lock_guard lock(m_lock);
        if (m_heard.fault.isEmpty()) m_heard.fault = m_source->fault();
        m_heard.listening = false;
    });
}

void Listener::stop() {
    if (m_source) m_source->stop();
    if (m_thread.joinable()) m_thread.join();
    m_source.reset();
}

Heard Listener::heard() const {
    const std::lock_guard lock(m_lock);
    return m_heard;
}

void Listener::listen(Listening& listening) {
    constexpr double piece_s = 0.02, judge_every_s = 1;
    std::vector<float> piece(static_cast<size_t>(piece_s * m_source->rate_Hz()));
    double judged_s = 0;
    while (m_source->read(piece)) {
        listening.add(piece);
        const bool judge = listening.seconds() > judged_s + judge_every_s;
        if (judge) judged_s = listening.seconds();
        tell(listening, judge);
    }
    tell(listening, true);
}

void Listener::tell(const Listening& listening, bool judge) {
    std::shared_ptr<const BeatAnalysisResult> told;
    std::shared_ptr<const TickShapes::Loudness> shapes[2];
    if (judge) {
        if (auto result = listening.judged()) told = std::make_shared<const BeatAnalysisResult>(std::move(*result));
        if (const TickShapes* known = listening.shapes())
            for (const bool tock : {false, true})
                if (known->has(tock)) shapes[tock] = std::make_shared<const TickShapes::Loudness>(known->loudness(tock));
    }
    const std::lock_guard lock(m_lock);
    m_heard.seconds = listening.seconds();
    m_heard.level = listening.level();
    m_heard.beat_s = listening.beat_s();
    if (!listening.beats().empty()) {
        m_heard.last = listening.beats().back();
        m_heard.even_is_right = m_source->even_is_right(*m_heard.last);
    }
    if (told) m_heard.told = told;
    if (shapes[0]) m_heard.tick = shapes[0];
    if (shapes[1]) m_heard.tock = shapes[1];
}

}  // namespace echappe
