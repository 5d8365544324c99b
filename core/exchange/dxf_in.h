#pragma once

// Included by .cpp files only: the DXF library is not light.

#include <dxflib/dl_creationadapter.h>

#include <filesystem>

namespace echappe {

/// Beyond any part of a clock, mm; a drawing in another unit is seen by its size before that.
inline constexpr double farthest_in_drawing_mm = 1e6;

/// Hands over what a DXF draws. Throws InputError for what is none.
void read_dxf(const std::filesystem::path& path, DL_CreationAdapter& into);

}  // namespace echappe
