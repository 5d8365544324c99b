#include "exchange/outline_in.h"

#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>
#include <cmath>
#include <cstdlib>
#include <sstream>

#include "exchange/csv_sheet.h"
#include "exchange/whole_file.h"
#include "number/input_error.h"

namespace echappe {
namespace {

/// Beyond any part of a clock; a drawing in another unit is seen by its size before that.
constexpr double farthest_mm = 1e6;

struct Polylines : DL_CreationAdapter {
    std::vector<std::vector<Point>> outlines;
    bool far = false;
    void addPolyline(const DL_PolylineData&) override { outlines.emplace_back(); }
    void addVertex(const DL_VertexData& v) override {
        // Written so that what is no number fails.
        if (!(std::abs(v.x) <= farthest_mm && std::abs(v.y) <= farthest_mm)) far = true;
        else if (!outlines.empty()) outlines.back().push_back({v.x, v.y});
    }
};

/// What the library takes a line for: the whole number at its beginning, 0 without one.
long long number_at_the_start(const std::string& line) { return std::strtoll(line.c_str(), nullptr, 10); }

/// The library makes room for as many points as a whole number of the file says, before it has seen one.
void refuse_false_counts(const std::string& dxf) {
    constexpr long long most = 1'000'000, first_count = 70, last_count = 99;
    std::istringstream lines(dxf);
    for (std::string code, value; std::getline(lines, code) && std::getline(lines, value);) {
        const long long group = number_at_the_start(code);
        const long long count = number_at_the_start(value);
        if (group >= first_count && group <= last_count && (count > most || count < -most))
            throw InputError("file", "a count of " + print_short(static_cast<double>(count)),
                             "a DXF file whose counts are those of its points");
    }
}

/// A last point that repeats the first closes the outline a second time.
void tidy(std::vector<std::vector<Point>>& outlines) {
    for (auto& outline : outlines)
        while (outline.size() > 1 && outline.front() == outline.back()) outline.pop_back();
    std::erase_if(outlines, [](const auto& outline) { return outline.size() < 3; });
}

}  // namespace

std::vector<std::vector<Point>> outlines_from_dxf(const std::filesystem::path& path) {
    Polylines polylines;
    std::istringstream in(read_text(path));
    refuse_false_counts(in.str());
    bool read = false;
    try {
        read = DL_Dxf().in(in, &polylines);
    } catch (const std::exception&) {
        // A count below 0, or more than there is memory for: the library takes what it is told.
    }
    if (!read) throw InputError("file", "\"" + path.string() + "\", which cannot be read as DXF", "a DXF file");
    if (polylines.far) throw InputError("file", "a point that is no number or lies beyond 1 km", "an outline in mm");
    tidy(polylines.outlines);
    if (polylines.outlines.empty())
        throw InputError("file", "no polyline", "a DXF whose outline is a polyline; join single lines and arcs first");
    return polylines.outlines;
}

std::vector<std::vector<Point>> outlines_from_csv(const std::string& text) {
    std::vector<std::vector<Point>> outlines;
    static const std::array<const char*, 3> columns = {"x_mm", "y_mm", "outline"};
    Sheet<3> sheet(text, columns, 2);
    std::string last;
    while (const auto row = sheet.next()) {
        const Point point{sheet.number(*row, 0, -farthest_mm, farthest_mm), sheet.number(*row, 1, -farthest_mm, farthest_mm)};
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
