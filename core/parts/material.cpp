#include "parts/material.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"

namespace echappe {

const std::vector<Material>& materials() {
    static const char* const chips = "Chips are sharp: a brush, not fingers.";
    static const char* const wood = "Fine dust of hardwoods harms the lungs: a mask, and draw it off.";
    static const std::vector<Material> all = {
        {"engraving brass", 8500, 97000, 300, 70, false, "plates, wheels, cocks, bushes", chips},
        {"cast brass", 8450, 95000, 150, 60, false, "wheels and rings as old ones were: hammered hard before it is turned", chips},
        {"gilding bronze", 8800, 115000, 200, 50, false, "cases and hands that are gilt", chips},
        {"phosphor bronze", 8850, 110000, 450, 40, false, "bushes that bear much, springs", chips},
        {"nickel silver", 8700, 130000, 350, 40, false, "dials, bimetals, screws that shall not rust", chips},
        {"silver steel", 7850, 205000, 350, 20, true, "arbors, pinions, pivots, punches: turned soft, then hardened and tempered", chips},
        {"gauge plate", 7850, 205000, 400, 18, true, "pallets, racks and levers: ground flat, turned and filed soft, then hardened", chips},
        {"blue steel", 7850, 205000, 1000, 12, false, "pivots and small arbors: hardened and tempered as it comes", chips},
        {"mild steel", 7850, 205000, 250, 25, false, "brackets, studs, screws that bear little", chips},
        {"spring steel", 7850, 205000, 1500, 10, false, "clicks, suspension and detent springs",
         "It cuts: file its edges, cover the eyes."},
        {"oak", 700, 11000, 60, 300, false, "plates of wooden movements", wood},
        {"cherry", 600, 10000, 60, 300, false, "wooden wheels", wood},
        {"apple", 750, 9000, 60, 300, false, "wooden wheels and pinions", wood},
        {"boxwood", 950, 10000, 90, 300, false, "pinions, rollers, let-in teeth", wood},
        {"lignum vitae", 1230, 14000, 110, 200, false, "bushes that oil themselves", wood},
    };
    return all;
}

const Material& material(const std::string& id, const std::string& field) {
    for (const Material& one : materials())
        if (one.id == id) return one;
    std::string ids;
    for (const Material& one : materials()) ids += (ids.empty() ? "" : ", ") + one.id;
    throw InputError(field, "\"" + id + "\"", "one of " + ids);
}

std::vector<std::string> material_ids() {
    std::vector<std::string> ids;
    for (const Material& one : materials()) ids.push_back(one.id);
    return ids;
}

namespace {

/// Cutting speed against turning; feed, mm a turn.
struct Pace {
    double speed, feed_mm;
};
Pace pace_of(Cutting with) {
    switch (with) {
        case Cutting::drilling:
            return {0.8, 0};
        case Cutting::reaming:
            return {0.3, 0};
        case Cutting::parting:
            return {0.4, 0.02};
        case Cutting::tapping:
            return {0.15, 0};
        case Cutting::fly_cutting:
            return {1.2, 0.01};
        case Cutting::turning:
            break;
    }
    return {1, 0.04};
}
/// Tempered steel under carbide or a stone goes slower than soft steel under high-speed steel.
constexpr double hard_speed = 0.6;

}  // namespace

double cutting_rpm(const Material& of, Cutting with, double diameter_mm, bool hard) {
    constexpr double most = 4000, fine = 50, slow = 200, finer = 10;
    const double speed = of.cutting_m_min * pace_of(with).speed * (hard ? hard_speed : 1);
    const double exact = std::min(most, 1000 * speed / (pi * std::max(diameter_mm, 0.1)));
    const double step = exact < slow ? finer : fine;
    return step * std::max(1.0, std::round(exact / step));
}

double feed_mm(const Material& of, Cutting with, double diameter_mm) {
    const bool steel = of.density_kg_m3 > 7000 && of.cutting_m_min < 30;
    const double of_steel = steel ? 0.7 : 1;
    if (with == Cutting::drilling) return std::clamp(0.02 * diameter_mm, 0.005, 0.15) * of_steel;
    if (with == Cutting::reaming) return std::clamp(0.04 * diameter_mm, 0.02, 0.3) * of_steel;
    return pace_of(with).feed_mm * of_steel;
}

}  // namespace echappe
