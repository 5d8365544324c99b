#include "sound/noise.h"

#include <boost/random/normal_distribution.hpp>

namespace echappe {

double normal(std::mt19937_64& chance) { return boost::random::normal_distribution<double>(0, 1)(chance); }

}  // namespace echappe
