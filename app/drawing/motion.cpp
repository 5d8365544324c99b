#include "drawing/motion.h"

#include <algorithm>
#include <array>

namespace echappe {
namespace {

constexpr std::array<double, 8> speeds = {0.01, 0.1, 1, 10, 60, 600, 3600, 21600};
constexpr std::array<const char*, 8> words = {"1/100 speed", "1/10 speed", "true speed",       "10 times",
                                              "60 times",    "600 times",  "an hour a second", "six hours a second"};
constexpr int frame_ms = 16;

}  // namespace

Motion::Motion(QObject* parent) : QObject(parent) {
    m_timer.setInterval(frame_ms);
    m_timer.setTimerType(Qt::PreciseTimer);
    connect(&m_timer, &QTimer::timeout, this, [this] {
        m_seconds += static_cast<double>(m_clock.restart()) / 1000 * speed();
        emit moved();
    });
}

double Motion::speed() const { return speeds[static_cast<size_t>(m_speed)]; }
QString Motion::speed_text() const { return words[static_cast<size_t>(m_speed)]; }

void Motion::toggle() {
    if (m_timer.isActive()) {
        m_timer.stop();
    } else {
        m_clock.start();
        m_timer.start();
    }
    emit moved();
}

void Motion::change_speed(int by) {
    m_speed = std::clamp(m_speed + by, 0, static_cast<int>(speeds.size()) - 1);
    emit moved();
}

void Motion::step(double seconds) {
    m_seconds += seconds;
    emit moved();
}

}  // namespace echappe
