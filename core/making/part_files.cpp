#include "making/part_files.h"

namespace echappe {

PartFiles part_files(const std::string& format, const Drawing& drawing, const FlatPart& part) {
    PartFiles files;
    if (format == "svg") files.svg = to_svg(drawing);
    if (format == "dxf") files.dxf = to_dxf(drawing);
    if (format == "step") files.step = to_step(part);
    return files;
}

Drawing drawing_of(const FlatPart& part) { return {part.title, {{"outline", {part.outline}, {}, {}}, {"bore", {}, part.holes, {{0, 0}}}}}; }

const Record& PartFiles::record() {
    using Out = PartFiles;
    static const Record record =
        Fields<Out>()
            .add("svg", &Out::svg, "", "the drawing as SVG at true size")
            .add("dxf", &Out::dxf, "", "the drawing as DXF in mm, a layer each for outline, openings, bore and circles")
            .add("step", &Out::step, "", "the part as a STEP solid in mm");
    return record;
}

}  // namespace echappe
