#pragma once

namespace echappe {

/// Standard gravity, m/s² (CGPM 1901): used where no place is given.
inline constexpr double standard_gravity_m_s2 = 9.80665;

/// Normal gravity at a latitude (degrees, −90 to 90) and a height above the sea (m, −500 to 9000), m/s².
/// Somigliana's formula on the WGS 84 ellipsoid with the free-air gradient; real gravity differs by up to
/// about 0.0005 m/s² (2 s/day) with the rock below.
double normal_gravity_m_s2(double latitude_deg, double altitude_m);

}  // namespace echappe
