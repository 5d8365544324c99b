#include "exchange/dxf_in.h"

#include <dxflib/dl_dxf.h>
#include <cmath>
#include <cstdlib>
#include <sstream>

#include "exchange/circles_in.h"
#include "exchange/whole_file.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

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

struct Circles : DL_CreationAdapter {
    std::vector<DrawnCircle> circles;
    bool far = false;
    void addCircle(const DL_CircleData& c) override {
        // Written so that what is no number fails.
        const bool near = std::abs(c.cx) <= farthest_in_drawing_mm && std::abs(c.cy) <= farthest_in_drawing_mm && c.radius >= 0 &&
                          c.radius <= farthest_in_drawing_mm;
        if (!near) far = true;
        else circles.push_back({{c.cx, c.cy}, c.radius, attributes.getLayer()});
    }
};

}  // namespace

void read_dxf(const std::filesystem::path& path, DL_CreationAdapter& into) {
    std::istringstream in(read_text(path));
    refuse_false_counts(in.str());
    bool read = false;
    try {
        read = DL_Dxf().in(in, &into);
    } catch (const std::exception&) {
        // A count below 0, or more than there is memory for: the library takes what it is told.
    }
    if (!read) throw InputError("file", "\"" + path.string() + "\", which cannot be read as DXF", "a DXF file");
}

std::vector<DrawnCircle> circles_from_dxf(const std::filesystem::path& path) {
    Circles circles;
    read_dxf(path, circles);
    if (circles.far) throw InputError("file", "a circle that is no number or lies beyond 1 km", "circles in mm");
    if (circles.circles.empty()) throw InputError("file", "no circle", "a DXF whose holes are circles");
    return circles.circles;
}

}  // namespace echappe
