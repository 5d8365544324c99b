#include "power/readings.h"

#include <algorithm>

#include "exchange/csv_sheet.h"

namespace echappe {
namespace {

std::vector<std::array<double, 2>>& readings_of(DriveRecord& drive, bool winding) { return winding ? drive.torque_up : drive.torque_down; }

}  // namespace

std::vector<TorqueQuestion> torque_round(const DriveRecord& drive, std::optional<double> turns) {
    std::vector<TorqueQuestion> round;
    if (!drive.strip() || !turns || *turns <= 0) return round;
    constexpr double many = 10;
    const double step = *turns > many ? 2 : 1;
    const auto taken = [&](double at, bool winding) -> std::optional<double> {
        for (const auto& [there, torque] : winding ? drive.torque_up : drive.torque_down)
            if (there == at) return torque;
        return {};
    };
    std::vector<double> places;
    for (int i = 0; i * step < *turns - step / 2; ++i) places.push_back(i * step);
    places.push_back(*turns);
    for (const double at : places) round.push_back({at, true, false, taken(at, true)});
    for (auto at = places.rbegin(); at != places.rend(); ++at) round.push_back({*at, false, false, taken(*at, false)});
    round.push_back({0, false, true, drive.least_N_mm});
    return round;
}

std::string name_of(const TorqueQuestion& question) {
    if (question.least) return "least torque that keeps it going";
    const std::string turns = print_short(question.turns, 3) + (question.turns == 1 ? " turn" : " turns");
    return (question.winding ? "torque being wound, at " : "torque driving, at ") + (question.turns == 0 ? "let down" : turns);
}

void keep_torque(DriveRecord& drive, const TorqueQuestion& question, double N_mm) {
    if (!DriveRecord::record().find("least_N_mm")->range.holds(N_mm))
        throw InputError(name_of(question), print_short(N_mm), "N mm above 0");
    if (question.least) {
        drive.least_N_mm = N_mm;
        return;
    }
    auto& readings = readings_of(drive, question.winding);
    std::erase_if(readings, [&](const auto& old) { return old[0] == question.turns; });
    readings.push_back({question.turns, N_mm});
    std::sort(readings.begin(), readings.end());
}

size_t keep_torque_csv(DriveRecord& drive, const std::string& csv) {
    static const std::array<const char*, 3> columns = {"turns", "down_N_mm", "up_N_mm"};
    Sheet<3> sheet(csv, columns);
    DriveRecord fresh = drive;
    size_t kept = 0;
    while (const auto row = sheet.next()) {
        const double turns = sheet.number(*row, 0, 0, 1000);
        for (const size_t column : {size_t{1}, size_t{2}}) {
            if ((*row)[column].empty()) continue;
            keep_torque(fresh, {turns, column == 2, false, {}}, sheet.number(*row, column, 1e-6, 1e7));
            ++kept;
        }
    }
    drive = fresh;
    return kept;
}

std::string torque_to_csv(const DriveRecord& drive) {
    std::string csv = "turns,down_N_mm,up_N_mm\n";
    std::map<double, std::array<std::string, 2>> rows;
    for (const auto& [turns, torque] : drive.torque_down) rows[turns][0] = print_short(torque, 9);
    for (const auto& [turns, torque] : drive.torque_up) rows[turns][1] = print_short(torque, 9);
    for (const auto& [turns, row] : rows) csv += row_of({print_short(turns, 9), row[0], row[1]});
    return csv;
}

}  // namespace echappe
