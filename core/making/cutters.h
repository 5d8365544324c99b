#pragma once

#include "teeth/geometry.h"

namespace echappe {

/// A cutter in the workshop's drawer.
struct Cutter {
    std::string id;
    std::string part = "wheel";
    std::string school = "cycloidal-clock";
    double module_mm = 0;
    std::optional<long long> leaves_min = {};  ///< a pinion cutter's range
    std::optional<long long> leaves_max = {};
    long long quantity = 1;
    std::string note = {};
    bool operator==(const Cutter&) const = default;
    static const Record& record();
};

/// Which cutter of a stock comes nearest for one part of a mesh.
struct CutterInput {
    GeometryInput mesh;
    std::string part = "wheel";
    std::vector<Cutter> stock;
    std::string stock_file = {};  ///< a CSV to be read into `stock`
    static const Record& record();
};

/// Farther off a flank is not cut with it: in modules. A fly cutter is made to the gap instead.
inline constexpr double off_at_most_modules = 0.02;

/// What one cutter would make of the part.
struct CutterFit {
    std::string id;
    std::string school;
    double module_mm = 0;
    double shape_error_um = 0;             ///< most that a flank would stand off, anywhere between root and tip
    double thickness_error_um = 0;         ///< of the tooth at the pitch circle; positive: too thick
    double centre_distance_change_mm = 0;  ///< if both parts were cut to this cutter's module instead
    bool suits = true;  ///< the school and the leaves are those it is made for, and it leaves no flank farther off than it may be
    std::string note = {};
    static const Record& record();
};

struct CutterResult {
    std::vector<CutterFit> cutters;  ///< nearest shape first
    static const Record& record();
};

/// Every cutter of the stock for this part by the shape it would leave. The cutter's gap is that of its own module, school and
/// count (a pinion cutter's: the nearest of its range), set to the wanted depth; the error is the difference of the two gaps'
/// half widths at one height above or below the pitch circle, at 64 heights. Cutters with none in the drawer are left out.
/// Throws InputError.
CutterResult nearest_cutters(const CutterInput& input);
std::vector<Working> explain_cutters(const CutterInput& input, const CutterResult& result);

}  // namespace echappe
