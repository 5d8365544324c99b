#include "exchange/drawing.h"

#include "exchange/whole_file.h"
#include "number/input_error.h"

namespace echappe {

void save_drawing(const std::filesystem::path& path, const Drawing& drawing) {
    if (path.extension() == ".svg") save_text(path, to_svg(drawing));
    else if (path.extension() == ".dxf") save_text(path, to_dxf(drawing));
    else throw InputError("export", "\"" + path.string() + "\"", "a name ending in .svg, .dxf or .pdf");
}

}  // namespace echappe
