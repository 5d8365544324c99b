#include "oscillator/gravity.h"

#include <cmath>

#include "number/constants.h"

namespace echappe {

double normal_gravity_m_s2(double latitude_deg, double altitude_m) {
    // WGS 84 (NIMA TR8350.2, 2000): equatorial gravity, Somigliana's constant, first eccentricity squared.
    constexpr double equator = 9.7803253359;
    constexpr double k = 0.00193185265241;
    constexpr double e2 = 0.00669437999013;
    constexpr double free_air_per_m = 3.086e-6;
    const double s = std::sin(latitude_deg * rad_per_deg);
    return equator * (1 + k * s * s) / std::sqrt(1 - e2 * s * s) - free_air_per_m * altitude_m;
}

}  // namespace echappe
