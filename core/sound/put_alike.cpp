#include "sound/put_alike.h"

#include <algorithm>
#include <cmath>

namespace echappe {

namespace {

/// Where it first rises clearly.
long long beginning_of(const std::vector<float>& rises) {
    constexpr float clearly = 0.3f;  // of its steepest
    const float top = *std::max_element(rises.begin(), rises.end());
    return std::find_if(rises.begin(), rises.end(), [&](float x) { return x >= clearly * top; }) - rises.begin();
}

/// How far its rises lie apart: variance in steps.
double spread_of(const std::vector<float>& rises) {
    constexpr float noise = 0.1f;  // of its steepest
    const float least = noise * *std::max_element(rises.begin(), rises.end());
    double all = 0, mean = 0, square = 0;
    for (size_t i = 0; i < rises.size(); ++i) {
        const double x = std::max(0.0f, rises[i] - least), at = static_cast<double>(i);
        all += x, mean += x * at, square += x * at * at;
    }
    return all > 0 ? std::max(0.0, square / all - mean * mean / (all * all)) : 0;
}

}  // namespace

PutAlike put_alike_by(const std::vector<float>& first, const std::vector<float>& second, double begins_u, size_t reach) {
    constexpr double impacts = 4, same = 0.999;
    const auto rises = [](float x) { return std::max(0.0, static_cast<double>(x)); };
    double energy[2] = {0, 0};
    for (const float x : first) energy[0] += rises(x) * rises(x);
    for (const float x : second) energy[1] += rises(x) * rises(x);
    const double size = std::sqrt(energy[0] * energy[1]);
    PutAlike out;
    if (size <= 0) return out;
    const long long begins = beginning_of(second) - beginning_of(first), steps = static_cast<long long>(reach);
    const auto length = static_cast<long long>(std::min(first.size(), second.size()));
    double all = 0, mean = 0, square = 0, most = 0;
    for (long long shift = begins - steps; shift <= begins + steps; ++shift) {
        double sum = 0;
        const double off = static_cast<double>(shift - begins) / begins_u;
        for (long long i = std::max(0LL, -shift); i < std::min(length, length - shift); ++i)
            sum += rises(first[static_cast<size_t>(i)]) * rises(second[static_cast<size_t>(i + shift)]);
        const double like = std::min(same, sum / size), at = static_cast<double>(shift);
        const double weight = std::exp(-0.5 * off * off) * std::pow(1 - like * like, -0.5 * impacts);
        most = std::max(most, like);
        all += weight, mean += weight * at, square += weight * at * at;
    }
    out.shift = mean / all;
    constexpr double step = 1.0 / 12;  // variance of what lies anywhere within a step
    const double unlike = (1 - most * most) * (spread_of(first) + spread_of(second));
    out.u = std::sqrt(std::max(0.0, square / all - out.shift * out.shift) + unlike + step);
    return out;
}

}  // namespace echappe
