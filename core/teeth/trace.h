#pragma once

#include "teeth/form_choice.h"
#include "workings/calculation.h"

namespace echappe {

/// The outline of a wheel or pinion as it was traced or measured, arbor at the origin, mm.
struct TraceInput {
    std::vector<std::vector<Point>> outlines;  ///< closed; a whole wheel, or single teeth each closed through its gap bottoms
    std::string file;                          ///< DXF or CSV to be read into `outlines`
    long long teeth = 0;                       ///< of the whole wheel
    double module_mm = 0;
    long long levels = 60;
    static const Record& record();
};

struct TraceResult {
    std::vector<Point> half;  ///< in modules, root to tip, the tooth's middle on +x: as `wheel_half` or `pinion_half`
    long long teeth_seen = 0;
    double addendum_mm = 0;
    double dedendum_mm = 0;
    double thickness_mm = 0;  ///< along the pitch circle
    double scatter_um = 0;    ///< standard deviation of a flank from tooth to tooth, the largest of all levels
    double lean_um = 0;       ///< most that the teeth's middle wanders between root and tip: one flank worn, or a bent tooth
    std::vector<std::string> warnings;
    static const Record& record();
};

/// One tooth that stands for all: at each of `levels` radii the widths of every tooth are read off and averaged, so that
/// noise falls with the square root of the teeth; made symmetric about its middle. Throws InputError.
TraceResult trace_tooth(const TraceInput& input);
std::vector<Working> explain_trace(const TraceInput& input, const TraceResult& result);

}  // namespace echappe
