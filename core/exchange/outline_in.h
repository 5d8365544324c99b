#pragma once

#include <filesystem>

#include "exchange/drawing.h"

namespace echappe {

/// Closed outlines of a DXF: its polylines, curves between two points taken as their chord. Throws InputError.
std::vector<std::vector<Point>> outlines_from_dxf(const std::filesystem::path& path);
/// One outline of a CSV with the columns x_mm and y_mm;
/// where a third column `outline` changes, another begins.
std::vector<std::vector<Point>> outlines_from_csv(const std::string& text);
/// By the file's ending, .dxf or .csv. Throws InputError.
std::vector<std::vector<Point>> outlines_from_file(const std::filesystem::path& path);

}  // namespace echappe
