#include "beat/temperature_fit.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"

namespace echappe {
namespace {

constexpr double least_telling_u = 1;  ///< s/d/K: less sure than this says nothing about any rod or spring

/// One stretch: days, kelvin days above its first look, seconds ahead.
struct Columns {
    std::vector<double> day, warm, ahead;
};

Columns columns_of(const TemperatureStretch& stretch) {
    Columns c;
    const RateObservation* before = nullptr;
    double warm = 0;
    for (size_t i = 0; i < stretch.looks.size(); ++i) {
        const RateObservation& look = stretch.looks[i];
        if (!look.temperature_C) continue;
        if (std::find(stretch.misread.begin(), stretch.misread.end(), static_cast<long long>(i)) != stretch.misread.end()) continue;
        const RateObservation& first = stretch.looks.front();
        if (before) warm += (look.reference_s - before->reference_s) / day_s * (*look.temperature_C + *before->temperature_C) / 2;
        c.day.push_back((look.reference_s - first.reference_s) / day_s);
        c.warm.push_back(warm);
        c.ahead.push_back((look.shown_s - first.shown_s) - (look.reference_s - first.reference_s));
        before = &look;
    }
    return c;
}

/// What a line over the days leaves of a column.
std::vector<double> beside_a_line(const std::vector<double>& x, std::vector<double> y) {
    const double n = static_cast<double>(x.size());
    double mx = 0, my = 0, xx = 0, xy = 0;
    for (size_t i = 0; i < x.size(); ++i) mx += x[i] / n, my += y[i] / n;
    for (size_t i = 0; i < x.size(); ++i) xx += (x[i] - mx) * (x[i] - mx), xy += (x[i] - mx) * (y[i] - my);
    for (size_t i = 0; i < x.size(); ++i) y[i] -= my + (xx > 0 ? xy / xx * (x[i] - mx) : 0);
    return y;
}

}  // namespace

std::optional<Measured> fit_temperature(const std::vector<TemperatureStretch>& stretches, double reading_u_s) {
    double ww = 0, wy = 0, yy = 0, points = 0, fitted = 1;
    for (const TemperatureStretch& stretch : stretches) {
        const Columns c = columns_of(stretch);
        if (c.day.size() < 3) continue;
        const std::vector<double> w = beside_a_line(c.day, c.warm), y = beside_a_line(c.day, c.ahead);
        for (size_t i = 0; i < w.size(); ++i) ww += w[i] * w[i], wy += w[i] * y[i], yy += y[i] * y[i];
        points += static_cast<double>(c.day.size());
        fitted += 2;
    }
    if (!(ww > 0)) return {};
    Measured effect{wy / ww, 0};
    const double left = std::max(0.0, yy - wy * wy / ww);
    const double scatter = points > fitted ? std::sqrt(left / (points - fitted)) : 0;
    effect.u = std::max(scatter, reading_u_s) / std::sqrt(ww);
    return effect.u <= least_telling_u ? std::optional(effect) : std::nullopt;
}

}  // namespace echappe
