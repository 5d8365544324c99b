#pragma once

#include <QElapsedTimer>
#include <optional>

namespace echappe {

/// How long the step took that is worked on, from one step's end to the next.
class StepClock {
public:
    StepClock() { m_since.start(); }
    void restart() { m_since.restart(); }
    /// Minutes since the last end, where they can have been work at it; and the next begins.
    std::optional<double> minutes() {
        // Shorter it was ticked afterwards, longer something else was done meanwhile.
        constexpr double least = 0.5, most = 240, minute_ms = 60000;
        const double took = static_cast<double>(m_since.restart()) / minute_ms;
        return took >= least && took <= most ? std::optional(took) : std::nullopt;
    }

private:
    QElapsedTimer m_since;
};

}  // namespace echappe
