#pragma once

#include <optional>
#include <string>
#include <vector>

#include "workings/record.h"

namespace echappe {

/// The pallets moved once, and what came of it.
struct PalletsSetting {
    std::string date;
    std::string bridge = "both";  ///< which end of the pallet arbor: "both", "front", "back"
    double nearer_mm = 0;         ///< to the wheel; negative: away
    std::optional<double> swing_deg;
    std::string came_of_it;
    static const Record& record();
};

/// Escape wheel and pallets as they are laid out, and where they stand. Plain values.
struct PalletsRecord {
    std::optional<double> tip_diameter_mm;  ///< of the escape wheel
    double span = 7.5;
    std::string school = "circular";
    std::optional<double> lock_deg;
    std::optional<double> lift_deg;
    std::optional<double> drop_deg;
    double depth_mm = 0;  ///< nearer to the wheel than the layout, as found
    double friction = 0.15;
    /// As they are seen now, before the first of the settings below.
    std::optional<double> seen_entry_lock_deg, seen_exit_lock_deg, seen_entry_drop_deg, seen_exit_drop_deg;
    double seen_u_deg = 0.25;
    std::vector<PalletsSetting> settings;
    static const Record& record();
    bool operator==(const PalletsRecord& other) const;
};

/// How much nearer than the layout the middle of the pallets stands now: as found, and every setting since. One end moved alone
/// moves the middle by half.
double depth_now_mm(const PalletsRecord& record);

}  // namespace echappe
