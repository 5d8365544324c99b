#include "exchange/outline_in.h"

#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>
#include <libfccp/csv.h>

#include <fstream>
#include <sstream>

#include "number/input_error.h"

namespace echappe {
namespace {

struct Polylines : DL_CreationAdapter {
    std::vector<std::vector<Point>> outlines;
    void addPolyline(const DL_PolylineData&) override { outlines.emplace_back(); }
    void addVertex(const DL_VertexData& v) override {
        if (!outlines.empty()) outlines.back().push_back({v.x, v.y});
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
    std::ifstream in(path);
    if (!in || !DL_Dxf().in(in, &polylines))
        throw InputError("file", "\"" + path.string() + "\", which cannot be read as DXF", "a DXF file");
    tidy(polylines.outlines);
    if (polylines.outlines.empty())
        throw InputError("file", "no polyline", "a DXF whose outline is a polyline; join single lines and arcs first");
    return polylines.outlines;
}

std::vector<std::vector<Point>> outlines_from_csv(const std::string& text) {
    std::istringstream stream(text);
    std::vector<std::vector<Point>> outlines;
    try {
        io::CSVReader<3, io::trim_chars<' ', '\t'>, io::double_quote_escape<',', '"'>> in("outline", stream);
        in.read_header(io::ignore_extra_column | io::ignore_missing_column, "x_mm", "y_mm", "outline");
        if (!in.has_column("x_mm") || !in.has_column("y_mm")) throw InputError("file", "other columns", "CSV with the columns x_mm, y_mm");
        double x = 0;
        double y = 0;
        std::string name;
        std::string last;
        while (in.read_row(x, y, name)) {
            if (outlines.empty() || name != last) outlines.emplace_back();
            last = name;
            outlines.back().push_back({x, y});
        }
    } catch (const io::error::base& error) {
        throw InputError("file", error.what(), "CSV with the columns x_mm, y_mm and, for several, outline");
    }
    tidy(outlines);
    if (outlines.empty()) throw InputError("file", "fewer than 3 points", "the points of a closed outline");
    return outlines;
}

std::vector<std::vector<Point>> outlines_from_file(const std::filesystem::path& path) {
    if (!std::filesystem::is_regular_file(path)) throw InputError("file", "\"" + path.string() + "\"", "a DXF or CSV file that is there");
    if (path.extension() == ".dxf") return outlines_from_dxf(path);
    if (path.extension() != ".csv") throw InputError("file", "\"" + path.string() + "\"", "a name ending in .dxf or .csv");
    std::ifstream in(path, std::ios::binary);
    std::ostringstream text;
    text << in.rdbuf();
    return outlines_from_csv(text.str());
}

}  // namespace echappe
