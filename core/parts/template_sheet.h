#pragma once

#include "parts/flat_shape.h"

namespace echappe {

struct TemplateInput {
    std::vector<FlatShape> parts;
    double sheet_width_mm = 210, sheet_height_mm = 297;
    double margin_mm = 14;  ///< that the printer leaves white, and the check scales stand in
    double gap_mm = 4;      ///< between parts, for the saw
    std::string format = "points";
    static const Record& record();
};

/// Where a part lies on its sheet.
struct TemplatePlace {
    long long part = 1;  ///< of the list, counted from 1
    long long sheet = 1;
    double x_mm = 0, y_mm = 0;  ///< of its lower left corner, from the sheet's
    bool turned = false;        ///< by a quarter, anticlockwise
    bool tiled = false;         ///< one of several sheets that are glued together at their crosses
    static const Record& record();
};

struct TemplateResult {
    long long sheets = 0;
    std::vector<TemplatePlace> places;
    double used_percent = 0;  ///< of the sheets' area
    std::vector<std::string> svg;
    static const Record& record();
};

/// Flat parts laid beside each other at 1:1 to be glued on and sawn: the largest first, each as low and as far left as it goes without
/// coming nearer to another than the gap (outlines grown by half of it, by Clipper). A check scale of 100 mm stands at the foot and at the
/// left. A part larger than a sheet is cut over several, which overlap by a centimetre and meet at crosses. Throws InputError.
TemplateResult template_sheet(const TemplateInput& input);
/// The same of parts that are drawn already.
std::vector<TemplatePlace> lay_out(const std::vector<FlatPart>& parts, const TemplateInput& sheet);
/// One sheet with its check scales, a layer for each.
Drawing template_drawing(const std::vector<FlatPart>& parts, const std::vector<TemplatePlace>& places, const TemplateInput& sheet,
                         long long which);
std::vector<Working> explain_template(const TemplateInput& input, const TemplateResult& result);
const Calculation& template_calculation();

}  // namespace echappe
