#include "sheet/drawn_size.h"

#include <algorithm>

#include "drawing/words.h"

namespace echappe {

DrawnSizes drawn_from(const std::vector<SumLine>& lines, const std::vector<std::string>& fields, const TakeFigure& take, const QString& of,
                      const QString& name) {
    DrawnSizes sizes;
    for (const std::string& field : fields)
        for (const SumLine& line : lines) {
            if (line.field != field) continue;
            const QString label = words(line.label());
            sizes.push_back({of + words(field), name.isEmpty() ? label : name + " " + label, line, take});
        }
    return sizes;
}

DrawnSizes sizes_in(const LengthUnit& unit, DrawnSizes sizes) {
    if (unit.symbol == base_unit(Dimension::length).symbol) return sizes;
    for (DrawnSize& size : sizes) {
        size.take = [unit, line = size.line, take = size.take](const QString& name, const std::string& field, const std::string& word) {
            take(name, field, typed_in(unit, line, word));
        };
        size.line = told_in(unit, size.line);
    }
    return sizes;
}

QString DrawnSize::said() const { return words(line.choices.empty() ? line.text : echappe::said(line.text)); }

const DrawnSize* size_by(const DrawnSizes& sizes, const QString& id) {
    const auto at = std::find_if(sizes.begin(), sizes.end(), [&](const DrawnSize& size) { return size.id == id; });
    return at == sizes.end() ? nullptr : &*at;
}

}  // namespace echappe
