#pragma once

#include <array>
#include <cstddef>
#include <vector>

namespace echappe {

/// Torque over turns, straight between readings; N mm over turns.
class TorqueCurve {
public:
    /// A spring that follows Hooke's law from here on, without an end.
    static TorqueCurve line(double at_zero_N_mm, double per_turn_N_mm);
    /// Readings [turns, N mm] by rising turns, torque above 0. Throws InputError with this field's name.
    static TorqueCurve through(const std::vector<std::array<double, 2>>& readings, const char* field);

    double at(double turns) const;
    /// ∫ M dn from 0, in N mm × turns; exact for the straight pieces.
    double work_to(double turns) const;
    /// The turns at which that much work was done; exact, the inverse of work_to.
    double turns_for(double work) const;
    /// Last turn that was read; infinite for a line.
    double end() const { return m_open ? infinite : m_points.back()[0]; }
    double begin() const { return m_points.front()[0]; }

private:
    static constexpr double infinite = 1e300;
    size_t piece_at(double turns) const;
    double slope(size_t piece) const;
    std::vector<std::array<double, 2>> m_points;  ///< turns, torque
    bool m_open = false;                          ///< the last piece goes on
};

}  // namespace echappe
