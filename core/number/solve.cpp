#include "number/solve.h"

#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <boost/math/tools/minima.hpp>
#include <boost/math/tools/toms748_solve.hpp>
#include <cstdint>

namespace echappe {

double root_between(const std::function<double(double)>& of, double low, double high) {
    constexpr int bits = 52;
    std::uintmax_t tries = 200;
    const auto [below, above] = boost::math::tools::toms748_solve(of, low, high, boost::math::tools::eps_tolerance<double>(bits), tries);
    return below + (above - below) / 2;
}

Lowest lowest_between(const std::function<double(double)>& of, double low, double high, int bits) {
    const auto [at, value] = boost::math::tools::brent_find_minima(of, low, high, bits);
    return {at, value};
}

double integral(const std::function<double(double)>& of, double from, double to, double tolerance) {
    constexpr unsigned halvings = 15;
    return boost::math::quadrature::gauss_kronrod<double, 15>::integrate(of, from, to, halvings, tolerance);
}

}  // namespace echappe
