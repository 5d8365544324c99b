#pragma once

#include "workings/calculation.h"

namespace echappe {

/// Heights of a frame's corners over a flat table, in their order round it.
struct WoodFrameInput {
    std::vector<double> corners_mm;          ///< four
    std::optional<double> wide_mm, high_mm;  ///< of the frame, between those corners
    std::optional<double> bears_mm;          ///< twist that its arbors bear; empty: 0.3 mm
    static const Record& record();
};

struct WoodFrameResult {
    double twist_mm = 0;   ///< of one corner out of the plane of the other three
    double shim_mm = 0;    ///< under the corner that stands free
    long long corner = 0;  ///< which: 1 to 4
    std::optional<double> twist_deg;
    std::string verdict;
    static const Record& record();
};

/// Of four heights three make a plane; what is left is the twist, (h₁ + h₃) − (h₂ + h₄). A shim of half of it under each of the two low
/// corners, or of the whole under one, sets the frame on all four. Throws InputError.
WoodFrameResult wood_frame(const WoodFrameInput& input);
std::vector<Working> explain_wood_frame(const WoodFrameInput& input, const WoodFrameResult& result);
const Calculation& wood_frame_calculation();

}  // namespace echappe
