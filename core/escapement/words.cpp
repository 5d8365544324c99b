#include "escapement/words.h"

#include "number/units.h"

namespace echappe {

std::string room_in_words(double low, double high, double depth_mm) {
    const auto mm = [](double length) { return print_fixed(length, 3) + " mm"; };
    if (depth_mm > low && depth_mm < high)
        return " It may come nearer by " + mm(high - depth_mm) + " or go away by " + mm(depth_mm - low) + ".";
    const double by = depth_mm >= high ? depth_mm - (low + high) / 2 : (low + high) / 2 - depth_mm;
    return (depth_mm >= high ? " Take the pallets away by " : " Bring the pallets nearer by ") + mm(by) +
           ", to the middle of a window of " + mm(high - low) + ".";
}

std::vector<double> pair_of(Vector at) { return {at.x, at.y}; }

}  // namespace echappe
