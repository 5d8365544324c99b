// Holes of a movement from tables and drawings.
#include "exchange/circles_in.h"
#include "exchange/csv_sheet.h"
#include "number/numeral.h"
#include "train/places.h"

namespace echappe {
namespace {

constexpr double farthest_mm = 1e4;

JobArbor* arbor_called(TrainRecord& record, const std::string& name) {
    const JobArbor* found = record.arbor_called(name);
    return found ? &record.arbors[static_cast<size_t>(found - record.arbors.data())] : nullptr;
}

std::string names_of(const TrainRecord& record) {
    std::vector<std::string> names;
    for (const JobArbor& arbor : record.arbors) names.push_back(arbor.called());
    return listed(names);
}

}  // namespace

size_t keep_places_csv(TrainRecord& record, const std::string& csv) {
    static const std::array<const char*, 5> columns = {"arbor", "x_mm", "y_mm", "back_x_mm", "back_y_mm"};
    Sheet<5> sheet(csv, columns, 3);
    TrainRecord out = record;
    size_t kept = 0;
    while (const auto row = sheet.next()) {
        JobArbor* arbor = arbor_called(out, (*row)[0]);
        if (!arbor) throw InputError(sheet.place(0), in_quotes((*row)[0]), names_of(record));
        const auto number = [&](size_t column) { return sheet.number(*row, column, -farthest_mm, farthest_mm); };
        arbor->position_mm = {number(1), number(2)};
        arbor->back_mm.clear();
        if (!(*row)[3].empty() || !(*row)[4].empty()) arbor->back_mm = {number(3), number(4)};
        ++kept;
    }
    record = std::move(out);
    return kept;
}

size_t keep_places_dxf(TrainRecord& record, const std::string& path) {
    const std::vector<DrawnCircle> circles = circles_from_dxf(path);
    size_t kept = 0;
    for (const DrawnCircle& circle : circles) {
        const std::string layer = as_typed(circle.layer);
        const bool back = lower(layer).ends_with(" back");
        JobArbor* arbor = arbor_called(record, back ? as_typed(layer.substr(0, layer.size() - 5)) : layer);
        if (!arbor) continue;
        (back ? arbor->back_mm : arbor->position_mm) = {circle.middle[0], circle.middle[1]};
        ++kept;
    }
    if (kept == 0)
        throw InputError("file", std::to_string(circles.size()) + " circles, on no layer that bears an arbor's name",
                         "each hole on a layer of its arbor: " + names_of(record) + "; and \"centre back\" for the back plate");
    return kept;
}

}  // namespace echappe
