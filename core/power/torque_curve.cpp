#include "power/torque_curve.h"

#include <cmath>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {

TorqueCurve TorqueCurve::line(double at_zero, double per_turn) {
    TorqueCurve curve;
    curve.m_points = {{0, at_zero}, {1, at_zero + per_turn}};
    curve.m_open = true;
    return curve;
}

TorqueCurve TorqueCurve::through(const std::vector<std::array<double, 2>>& readings, const char* field) {
    if (readings.size() < 2) throw InputError(field, std::to_string(readings.size()) + " readings", "at least 2: [[turns, N mm], …]");
    for (size_t i = 0; i < readings.size(); ++i) {
        const std::string place = std::string(field) + "[" + std::to_string(i) + "]";
        if (!(readings[i][1] > 0)) throw InputError(place, print_short(readings[i][1]) + " N mm", "a torque above 0");
        if (i > 0 && !(readings[i][0] > readings[i - 1][0]))
            throw InputError(place, print_short(readings[i][0]) + " turns", "more turns than the reading before");
    }
    TorqueCurve curve;
    curve.m_points = readings;
    return curve;
}

size_t TorqueCurve::piece_at(double turns) const {
    size_t piece = 0;
    while (piece + 2 < m_points.size() && turns > m_points[piece + 1][0]) ++piece;
    return piece;
}

double TorqueCurve::slope(size_t i) const { return (m_points[i + 1][1] - m_points[i][1]) / (m_points[i + 1][0] - m_points[i][0]); }

double TorqueCurve::at(double turns) const {
    const size_t piece = piece_at(turns);
    return m_points[piece][1] + slope(piece) * (turns - m_points[piece][0]);
}

double TorqueCurve::work_to(double turns) const {
    const auto within = [&](size_t piece, double to) {
        const double n = to - m_points[piece][0];
        return n * (m_points[piece][1] + slope(piece) * n / 2);
    };
    // From turn 0 on: the first piece reaches back to it.
    double work = -within(0, 0);
    const size_t last = piece_at(turns);
    for (size_t piece = 0; piece < last; ++piece) work += within(piece, m_points[piece + 1][0]);
    return work + within(last, turns);
}

double TorqueCurve::turns_for(double work) const {
    size_t piece = 0;
    while (piece + 2 < m_points.size() && work > work_to(m_points[piece + 1][0])) ++piece;
    const double rest = work - work_to(m_points[piece][0]);
    const double m = m_points[piece][1];
    const double c = slope(piece);
    // c n²/2 + m n = rest, in the form that keeps its digits when c is small.
    return m_points[piece][0] + 2 * rest / (m + std::sqrt(std::max(0.0, m * m + 2 * c * rest)));
}

}  // namespace echappe
