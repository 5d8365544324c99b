#pragma once

#include "workings/calculation.h"

namespace echappe {

struct ConcentricPart {
    std::string name;
    std::optional<double> outside_mm, bore_mm;
    std::optional<std::string> fit;  ///< "H7/g6", with the part inside it
    double wall_mm = 0.25;           ///< least
    std::optional<double> length_mm;
    static const Record& record();
};

struct ConcentricInput {
    std::vector<ConcentricPart> parts;  ///< from the inside out
    static const Record& record();
};

struct MadeSize {
    double nominal_mm = 0, max_mm = 0, min_mm = 0;
    static const Record& record();
};
struct ClearanceRange {
    double max_mm = 0, min_mm = 0;
    static const Record& record();
};
struct ConcentricPartResult {
    std::string name;
    std::optional<MadeSize> bore, outside;
    std::optional<double> wall_min_mm;
    std::optional<ClearanceRange> clearance;  ///< to the part inside
    static const Record& record();
};

struct ConcentricResult {
    std::vector<ConcentricPartResult> parts;
    std::vector<std::string> order;  ///< that they are made in: outermost first
    std::vector<std::string> warnings;
    static const Record& record();
};

/// Arbor, pipes and hands that sit on each other: sizes that are not given follow from their neighbours, a free outside is bore + 2 walls
/// + 0.1 mm. Limits by ISO 286. Throws InputError.
ConcentricResult fit_concentric(const ConcentricInput& input);
std::vector<Working> explain_concentric(const ConcentricInput& input, const ConcentricResult& result);
const Calculation& concentric_calculation();

}  // namespace echappe
