#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "exchange/drawing.h"

namespace echappe {

/// A circle of a drawing, mm.
struct DrawnCircle {
    Point middle;
    double radius_mm = 0;
    std::string layer;
};

/// All circles of a DXF, in its order. Throws InputError.
std::vector<DrawnCircle> circles_from_dxf(const std::filesystem::path& path);

}  // namespace echappe
