#pragma once

#include "exchange/step.h"
#include "workings/record.h"

namespace echappe {

/// A part as it is given out beside its figures.
struct PartFiles {
    std::optional<std::string> svg, dxf, step;
    static const Record& record();
};
/// The one that `format` names: "points" none. Throws InputError.
PartFiles part_files(const std::string& format, const Drawing& drawing, const FlatPart& part);

/// Of a part that has nothing but its outline and holes: a layer each, its arbor marked.
Drawing drawing_of(const FlatPart& part);

/// The choice of it.
template <class In>
Fields<In>& add_part_format(Fields<In>& fields) {
    return fields.add("format", &In::format, "", "figures only, or a drawing as well")
        .choices({"points", "svg", "dxf", "step"})
        .because("figures first; a drawing when it is asked for");
}

}  // namespace echappe
