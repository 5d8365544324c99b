#include "drawing/motion.h"

#include <algorithm>
#include <array>
#include <cstdlib>

namespace echappe {
namespace {

constexpr std::array<double, 8> speeds = {0.01, 0.1, 1, 10, 60, 600, 3600, 21600};
constexpr std::array<const char*, 8> speed_words = {"1/100 speed", "1/10 speed", "true speed",       "10 times",
                                                    "60 times",    "600 times",  "an hour a second", "six hours a second"};
// A picture that takes long to paint is painted less often: the machine stays cool and quiet, and free for other work.
constexpr int shortest_frame_ms = 33, longest_frame_ms = 120;
constexpr double share_of_a_core = 0.13;

}  // namespace

Motion::Motion(QObject* parent) : QObject(parent) {
    m_timer.setInterval(shortest_frame_ms);
    m_timer.setTimerType(Qt::PreciseTimer);
    connect(&m_timer, &QTimer::timeout, this, [this] {
        m_seconds += static_cast<double>(m_clock.restart()) / 1000 * speed();
        keep_quiet();
        emit moved();
    });
}

double Motion::speed() const { return speeds[static_cast<size_t>(m_speed)]; }
QString Motion::speed_text() const { return speed_words[static_cast<size_t>(m_speed)]; }

/// By what the last frame took of the processor.
void Motion::keep_quiet() {
    const std::clock_t now = std::clock();
    const double took_ms = 1000.0 * static_cast<double>(now - m_used) / CLOCKS_PER_SEC;
    m_used = now;
    m_took_ms += 0.2 * (took_ms - m_took_ms);
    const int wanted = std::clamp(static_cast<int>(m_took_ms / share_of_a_core), shortest_frame_ms, longest_frame_ms);
    if (std::abs(wanted - m_timer.interval()) > 4) m_timer.setInterval(wanted);
}

void Motion::toggle() {
    if (m_timer.isActive()) {
        m_timer.stop();
    } else {
        m_clock.start();
        m_used = std::clock();
        m_timer.start();
    }
    emit moved();
    emit changed();
}

void Motion::change_speed(int by) {
    m_speed = std::clamp(m_speed + by, 0, static_cast<int>(speeds.size()) - 1);
    emit moved();
    emit changed();
}

void Motion::step(double seconds) {
    m_seconds += seconds;
    emit moved();
    emit changed();
}

}  // namespace echappe
