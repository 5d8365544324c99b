#pragma once

#include "workings/calculation.h"

namespace echappe {

/// A small spring or weight that something winds again every few minutes: an electric rewind, or a remontoire off the going train.
struct RewindInput {
    double minutes = 0;                        ///< from one rewind to the next
    double arbor_turns = 0;                    ///< of the arbor it drives, in that time
    double torque_wound_N_mm = 0;              ///< there, just wound
    std::optional<double> torque_before_N_mm;  ///< and just before it winds again; absent: a weight, the same
    std::optional<double> least_N_mm;          ///< that just keeps the movement going
    std::optional<double> days_stored;         ///< that a remontoire's own drive lasts
    // Electrical checks, dead and disconnected.
    std::optional<double> continuity_ohm;
    std::optional<double> continuity_wanted_ohm;  ///< of the coil, by its label or its twin
    std::optional<double> insulation_Mohm;
    std::optional<double> contact_gf;  ///< pressure of the contacts
    static const Record& record();
};

/// What a reading says; one that forbids is to be mended before the drive is connected.
struct RewindCheck {
    std::string sentence;
    bool forbids = false;
};

struct RewindResult {
    double mean_N_mm = 0;
    double flatness = 0;  ///< (wound − before) ÷ mean
    double energy_J = 0;  ///< of one rewind
    double energy_day_J = 0;
    double rewinds_a_day = 0;
    std::optional<double> times;  ///< mean ÷ least that runs
    std::string verdict;
    std::vector<std::string> checks;  ///< what the readings say
    std::vector<std::string> cautions;
    std::vector<RewindCheck> checked;  ///< the checks, with what they forbid
    static const Record& record();
};

/// Work = mean torque × angle, the torque falling evenly. Insulation of 1 MΩ and a coil within 15 % of what it should be are taken
/// as sound (workshop practice, at low voltage; what the law asks where mains come in is for a licensed electrician).
RewindResult rewind_drive(const RewindInput& input);
std::vector<Working> explain_rewind(const RewindInput& input, const RewindResult& result);
const Calculation& rewind_calculation();

}  // namespace echappe
