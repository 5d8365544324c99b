#include <cmath>

#include "exchange/circles_in.h"
#include "exchange/outline_in.h"
#include "in_memory.h"

using namespace echappe;
using namespace echappe::fuzz;

// A drawing that another program wrote: outlines of finite points, or a sentence.
extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string path = in_memory(data, size);
    answered([&] {
        for (const DrawnCircle& circle : circles_from_dxf(path))
            must(std::isfinite(circle.middle[0]) && std::isfinite(circle.middle[1]) && circle.radius_mm >= 0, "circles are finite");
    });
    answered([&] {
        for (const auto& outline : outlines_from_dxf(path))
            for (const Point& point : outline) must(std::isfinite(point[0]) && std::isfinite(point[1]), "points are finite");
    });
    return 0;
}
