#pragma once

#include <QString>
#include <functional>
#include <vector>

#include "workings/length_unit.h"
#include "workings/sum.h"

namespace echappe {

/// Makes an edit of this name of what was typed for a field.
using TakeFigure = std::function<void(const QString& name, const std::string& field, const std::string& word)>;

/// A size of a drawing that is typed where it stands: a field of a part of the job, as its sheet declares it. A drawing lists its own
/// in the order of the work; painting, click, keyboard, line and print come from that list.
struct DrawnSize {
    QString id;     ///< where the drawing puts it: "bob.diameter_mm"
    QString label;  ///< as one writes it beside the dimension: "bob Ø"
    SumLine line;
    TakeFigure take;
    bool may_stay = false;  ///< nothing waits for it: the line does not ask for it by itself

    /// As it is said: "8.0", "clockwise".
    QString said() const;
    bool known() const { return !line.text.empty() && line.from != "missing"; }
    bool assumed() const { return known() && line.from == "usual"; }
    bool open() const { return !known() && !may_stay; }
};

using DrawnSizes = std::vector<DrawnSize>;

/// Those fields of a sheet, in this order; `of` goes before their ids, and before their labels where they have a name of their own.
DrawnSizes drawn_from(const std::vector<SumLine>& lines, const std::vector<std::string>& fields, const TakeFigure& take,
                      const QString& of = {}, const QString& name = {});
/// The same with their lengths told, and bare figures taken, in this unit.
DrawnSizes sizes_in(const LengthUnit& unit, DrawnSizes sizes);
/// The one of this id; nullptr: there is none.
const DrawnSize* size_by(const DrawnSizes& sizes, const QString& id);

}  // namespace echappe
