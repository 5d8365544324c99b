#include "escapement/edits.h"

#include <cmath>

#include "number/units.h"

namespace echappe {

Edit<std::optional<PalletsRecord>> move_pallets(const std::string& bridge, double nearer_mm, const std::string& date) {
    const std::string name =
        std::string("pallets ") + (nearer_mm > 0 ? "nearer by " : "away by ") + print_fixed(std::abs(nearer_mm), 3) + " mm";
    return {name, [=](std::optional<PalletsRecord>& pallets) {
                if (!pallets) pallets.emplace();
                pallets->settings.push_back({date, bridge, nearer_mm, {}, ""});
            }};
}

Edit<std::optional<PalletsRecord>> found_as_seen(const EscapementCauseResult& cause) {
    return {"depth as it is seen", [depth = cause.depth_mm](std::optional<PalletsRecord>& pallets) {
                if (pallets) pallets->depth_mm = depth - moved_since_mm(*pallets);
            }};
}

}  // namespace echappe
