#include "escapement/edits.h"

#include <cmath>

#include "number/units.h"

namespace echappe {

Edit<std::optional<PalletsRecord>> move_pallets(const std::string& bridge, double nearer_mm, const std::string& date,
                                                const std::optional<double>& expected_deg) {
    const std::string name =
        std::string("pallets ") + (nearer_mm > 0 ? "nearer by " : "away by ") + print_fixed(std::abs(nearer_mm), 3) + " mm";
    return {name, [=](std::optional<PalletsRecord>& pallets) {
                if (!pallets) pallets.emplace();
                PalletsSetting setting;
                setting.date = date, setting.bridge = bridge, setting.nearer_mm = nearer_mm, setting.expected_deg = expected_deg;
                pallets->settings.push_back(setting);
            }};
}

Edit<std::optional<PalletsRecord>> found_as_seen(const EscapementCauseResult& cause) {
    return {"depth as it is seen", [depth = cause.depth_mm](std::optional<PalletsRecord>& pallets) {
                if (pallets) pallets->depth_mm = depth - moved_since_mm(*pallets);
            }};
}

}  // namespace echappe
