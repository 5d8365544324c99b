#pragma once

#include <string>
#include <vector>

#include "escapement/action.h"

namespace echappe {

// What the calculations of escapements tell alike.

/// The room that there is in depth: how far nearer and away it may go, or how far to the middle of the window.
std::string room_in_words(double low_mm, double high_mm, double depth_mm);
/// As results list a point: [x, y].
std::vector<double> pair_of(Vector at);

}  // namespace echappe
