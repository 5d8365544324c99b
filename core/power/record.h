#pragma once

#include <array>
#include <variant>

#include "workings/calculation.h"

namespace echappe {

/// What became of a spring that was kept or replaced: the workshop's own evidence between the two schools.
struct SpringOutcome {
    std::string date;
    std::string decision;    ///< "kept", "replaced"
    std::string school;      ///< by which it was decided: "ratio", "torque"
    std::string came_of_it;  ///< weeks later; empty: not known yet
    static const Record& record();
};

/// A weight on its line. Lengths in mm.
struct WeightDrive {
    std::optional<double> drum_diameter_mm;
    std::optional<double> line_diameter_mm;
    std::optional<double> weight_kg;
    long long moving_pulleys = 0;
    std::optional<double> drum_length_mm;
    std::optional<double> room_mm;  ///< for the weight to fall
    std::optional<double> least_weight_kg;
    static const Record& record();
};

/// A strip of spring and the barrel it lies in.
struct StripInBarrel {
    std::optional<double> barrel_bore_mm;
    std::optional<double> arbor_mm;  ///< of the barrel, where the strip coils on it
    std::optional<double> barrel_height_mm;
    std::optional<double> width_mm;
    std::optional<double> thickness_mm;
    std::optional<double> length_mm;
    std::optional<double> opened_diameter_mm;
    std::optional<std::string> end;
    bool cracked = false;
    static const Record& record();
};

struct SpringDrive {
    StripInBarrel strip;
    static const Record& record();
};

struct FuseeDrive {
    StripInBarrel strip;
    std::optional<double> barrel_diameter_mm;  ///< outside, where the line lies
    std::optional<double> line_diameter_mm;    ///< of the line; of a chain the height of its links
    std::optional<double> chain_thickness_mm;  ///< across its links
    std::optional<double> large_diameter_mm;   ///< of the cone, to the middle of the line
    std::optional<double> small_diameter_mm;
    std::vector<double> cone_mm;  ///< diameters of the fusee to the middle of the line, each turn from the small end
    static const Record& record();
};

/// Rewound every few minutes: at the first arbor, between two rewinds.
struct RewoundDrive {
    std::optional<double> rewind_minutes;
    std::optional<double> torque_wound_N_mm;
    std::optional<double> torque_before_N_mm;  ///< just before the next rewind
    std::optional<double> continuity_ohm;
    std::optional<double> continuity_wanted_ohm;
    std::optional<double> insulation_Mohm;
    std::optional<double> contact_gf;
    static const Record& record();
};

using DriveKind = std::variant<WeightDrive, SpringDrive, FuseeDrive, RewoundDrive>;

/// What drives one train, as measured.
struct DriveRecord {
    std::string train;
    DriveKind is;
    std::optional<double> line_direction_deg;  ///< where line or chain leaves drum or cone; absent: a line hangs down
    // Torque, at the first arbor of the train.
    std::optional<double> least_N_mm;                ///< that just keeps the movement going
    std::vector<std::array<double, 2>> torque_down;  ///< [turns from let down, N mm], driving
    std::vector<std::array<double, 2>> torque_up;    ///< the same, being wound
    std::vector<std::string> steps_done;             ///< of the assembly, by their ids
    std::vector<SpringOutcome> outcomes;
    template <class Kind>
    const Kind* as() const {
        return std::get_if<Kind>(&is);
    }
    template <class Kind>
    Kind* as() {
        return std::get_if<Kind>(&is);
    }
    /// The strip of a going barrel or of a fusee's; nullptr where no spring drives.
    const StripInBarrel* strip() const;
    static const Record& record();
};
/// "weight", "spring", "fusee", "rewound".
const std::string& word_of(const DriveKind& kind);
/// The kind of this word, with nothing measured yet. Throws InputError.
DriveKind drive_kind(const std::string& word);

/// The power's part of a job.
struct PowerRecord {
    std::vector<DriveRecord> drives;
    static const Record& record();
};

/// A step of putting a drive together, with its caution where it can hurt.
struct DriveStep {
    std::string id;
    std::string words;
    std::string caution;
};
/// In the order of the work.
const std::vector<DriveStep>& drive_steps(const DriveKind& kind);

}  // namespace echappe
