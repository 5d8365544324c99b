#include "exchange/outline_in.h"

#include <cmath>

#include "exchange/arcs.h"
#include "exchange/csv_sheet.h"
#include "exchange/dxf_in.h"
#include "exchange/whole_file.h"
#include "number/input_error.h"

namespace echappe {
namespace {

struct Polylines : DL_CreationAdapter {
    std::vector<std::vector<Bend>> outlines;
    bool far = false;
    void addPolyline(const DL_PolylineData&) override { outlines.emplace_back(); }
    void addVertex(const DL_VertexData& v) override {
        // Written so that what is no number fails.
        if (!(std::abs(v.x) <= farthest_in_drawing_mm && std::abs(v.y) <= farthest_in_drawing_mm)) far = true;
        else if (!outlines.empty()) outlines.back().push_back({{v.x, v.y}, v.bulge});
    }
};

/// A last point that repeats the first closes the outline a second time.
void tidy(std::vector<std::vector<Point>>& outlines) {
    for (auto& outline : outlines)
        while (outline.size() > 1 && outline.front() == outline.back()) outline.pop_back();
    std::erase_if(outlines, [](const auto& outline) { return outline.size() < 3; });
}

}  // namespace

std::vector<std::vector<Point>> outlines_from_dxf(const std::filesystem::path& path) {
    Polylines polylines;
    read_dxf(path, polylines);
    if (polylines.far) throw InputError("file", "a point that is no number or lies beyond 1 km", "an outline in mm");
    // Arcs become chords, a tenth of a micron from them.
    constexpr double chord_error_mm = 1e-4;
    std::vector<std::vector<Point>> outlines;
    for (const auto& bends : polylines.outlines) outlines.push_back(straightened(bends, chord_error_mm));
    tidy(outlines);
    if (outlines.empty()) throw InputError("file", "no polyline", "a DXF whose outline is a polyline; join single lines and arcs first");
    return outlines;
}

std::vector<std::vector<Point>> outlines_from_csv(const std::string& text) {
    std::vector<std::vector<Point>> outlines;
    static const std::array<const char*, 3> columns = {"x_mm", "y_mm", "outline"};
    Sheet<3> sheet(text, columns, 2);
    std::string last;
    while (const auto row = sheet.next()) {
        const Point point{sheet.number(*row, 0, -farthest_in_drawing_mm, farthest_in_drawing_mm),
                          sheet.number(*row, 1, -farthest_in_drawing_mm, farthest_in_drawing_mm)};
        if (outlines.empty() || (*row)[2] != last) outlines.emplace_back();
        last = (*row)[2];
        outlines.back().push_back(point);
    }
    tidy(outlines);
    if (outlines.empty()) throw InputError("file", "fewer than 3 points", "the points of a closed outline");
    return outlines;
}

std::vector<std::vector<Point>> outlines_from_file(const std::filesystem::path& path) {
    if (!std::filesystem::is_regular_file(path)) throw InputError("file", "\"" + path.string() + "\"", "a DXF or CSV file that is there");
    if (path.extension() == ".dxf") return outlines_from_dxf(path);
    if (path.extension() != ".csv") throw InputError("file", "\"" + path.string() + "\"", "a name ending in .dxf or .csv");
    return outlines_from_csv(read_text(path));
}

}  // namespace echappe
