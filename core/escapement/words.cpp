#include "escapement/words.h"

#include "number/units.h"

#include <cmath>

namespace echappe {

std::string room_in_words(double low, double high, double depth_mm) {
    const auto mm = [](double length) { return print_fixed(length, 3) + " mm"; };
    if (depth_mm > low && depth_mm < high)
        return " It may come nearer by " + mm(high - depth_mm) + " or go away by " + mm(depth_mm - low) + ".";
    // As the layout has them where they run so, else just into the window: a little, and the drops counted again.
    constexpr double just_inside = 0.1;
    const double edge = depth_mm >= high ? high - just_inside * (high - low) : low + just_inside * (high - low);
    const double aim = low < 0 && high > 0 ? 0 : edge;
    return (depth_mm >= aim ? " Take the pallets away by " : " Bring the pallets nearer by ") + mm(std::abs(depth_mm - aim)) +
           (aim == 0 ? ", to where the layout has them." : ", just into where it runs, and count the drops again.");
}

std::vector<double> pair_of(Vector at) { return {at.x, at.y}; }

}  // namespace echappe
