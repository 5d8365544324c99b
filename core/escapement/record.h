#pragma once

#include <optional>
#include <string>
#include <vector>

#include "escapement/cause.h"
#include "escapement/lever_action.h"
#include "escapement/lever_part.h"
#include "escapement/pallets_part.h"
#include "escapement/round.h"
#include "escapement/wheel_part.h"

namespace echappe {

/// Ends of the pallet arbor that can be moved: both alike, or one.
const std::vector<std::string>& bridges();

/// The pallets moved once, and what came of it.
struct PalletsSetting {
    std::string date;
    std::string bridge = "both";         ///< which end of the pallet arbor: "both", "front", "back"
    double nearer_mm = 0;                ///< to the wheel; negative: away
    std::optional<double> expected_deg;  ///< least swing that was expected of it
    std::optional<double> swing_deg;     ///< that came of it
    std::optional<double> least_deg;     ///< with which it just still let off
    std::optional<double> ran_min;       ///< until it stopped; nothing: it runs
    std::optional<double> limp_ms;
    std::string came_of_it;
    static const Record& record();
};

/// Escape wheel and pallets as they are laid out, and where they stand. Plain values.
struct PalletsRecord {
    std::optional<double> tip_diameter_mm;  ///< of the escape wheel
    std::optional<double> span;             ///< as usual for the kind while nobody counted it
    std::optional<std::string> school;      ///< likewise
    std::optional<double> lock_deg;
    std::optional<double> lift_deg;
    std::optional<double> drop_deg;
    double depth_mm = 0;  ///< nearer to the wheel than the layout, as found
    double friction = 0.15;
    // Of a lever's stones and club teeth.
    double draw_deg = 12;
    double tooth_share = 0.4;  ///< of the lift
    double tooth_width_deg = 4;
    // Of pins on a lever.
    std::optional<double> pin_mm;  ///< diameter
    double undercut_deg = 15;      ///< of the teeth's locking faces
    LeverAndBalance lever;
    WheelFaults faults;  ///< what is not as laid out
    // As they are cut.
    EscapeWheelShape wheel;
    PalletsShape body;
    LeverShape lever_body;
    PalletsSeen seen;  ///< before the first of the settings below
    double seen_u_deg = 0.25;
    std::vector<PalletsSetting> settings;
    static const Record& record();
    bool operator==(const PalletsRecord& other) const;
};

/// A half number near a quarter of the teeth, of a lever near a sixth. Usual practice.
double usual_span(const std::string& kind, long long teeth);
/// Equal arms of the impulse; of a lever equal locking radii, whose locks are felt alike. As their verbs begin with.
std::string usual_school(const std::string& kind);

/// How far the middle of the pallets goes when an end is moved: one end alone moves it by half.
double middle_moved_mm(const std::string& bridge, double nearer_mm);
/// And how far one end or both must go to move it so far.
double end_moved_mm(const std::string& bridge, double middle_mm);
/// By all the settings since it was found.
double moved_since_mm(const PalletsRecord& record);

}  // namespace echappe
