#pragma once

#include "power/mainspring.h"

namespace echappe {

/// A strip in the drawer.
struct Strip {
    std::string id;
    double width_mm = 0;
    double thickness_mm = 0;
    double length_mm = 0;  ///< longest that can be had
    std::string end = "hole";
    double modulus_N_mm2 = 205000;
    long long quantity = 1;
    bool operator==(const Strip&) const = default;
    static const Record& record();
};

/// The spring that was in the barrel.
struct OldSpring {
    double width_mm = 0;
    double thickness_mm = 0;
    double length_mm = 0;
    double factor = 1;                         ///< of its torque against modern steel of the same size: 0.75 to 0.9 when old
    std::optional<double> opened_diameter_mm;  ///< of its coils, out of the barrel
    bool cracked = false;
    static const Record& record();
};

struct SpringMatchInput {
    double barrel_bore_mm = 0;
    double arbor_mm = 0;
    double barrel_height_mm = 0;         ///< inside
    double turns_needed = 0;             ///< going turns of one run
    std::optional<double> set_up_turns;  ///< below the going turns; absent: no stop work, the top turns go
    std::optional<double> least_N_mm;    ///< at the barrel, that just keeps the movement going
    std::optional<double> mean_N_mm;     ///< measured of the old spring over the going turns
    std::optional<OldSpring> old;
    double friction = 0.15;
    double opens_to = 2.5;           ///< barrel bores that a new strip opens to
    std::optional<std::string> end;  ///< hook that the barrel asks for
    std::vector<Strip> stock;
    std::string stock_file;
    static const Record& record();
};

struct MatchedStrip {
    std::string id;
    double width_mm = 0;
    double thickness_mm = 0;
    double length_mm = 0;
    double torque_start_N_mm = 0;  ///< wound
    double torque_end_N_mm = 0;    ///< at the end of the run
    double torque_mean_N_mm = 0;
    double times = 0;  ///< mean ÷ wanted
    double turns = 0;
    double fill = 0;
    double stress_N_mm2 = 0;
    std::string verdict;  ///< "right", "weak", "strong", "overdriving", "too few turns", "too wide", "other end"
    std::string reason;
    static const Record& record();
};

/// A modern strip that would give what is wanted, whether it can be had or not: thickness and length traded against the width.
struct EqualStrip {
    double width_mm = 0;
    double thickness_mm = 0;
    double length_mm = 0;  ///< half of the free area
    double stress_N_mm2 = 0;
    static const Record& record();
};

/// One way of judging the old spring.
struct SchoolOfSprings {
    std::string school;
    std::string verdict;
    std::string why;
    static const Record& record();
};

struct SpringMatchResult {
    double wanted_N_mm = 0;   ///< mean over the going turns
    std::string wanted_from;  ///< what it was taken from
    std::optional<double> old_mean_N_mm;
    std::vector<SchoolOfSprings> schools;
    std::vector<EqualStrip> equal;     ///< the widest the barrel takes first
    std::vector<MatchedStrip> ranked;  ///< nearest to what is wanted first, those that do not fit last
    static const Record& record();
};

/// For each strip the length between 40 and 60 % of the free area whose mean torque over the going turns comes nearest, by a search to
/// 0.1 mm. Torque counts from the free coil, `opens_to` bores wide. Throws InputError.
SpringMatchResult match_spring(const SpringMatchInput& input);
std::vector<Working> explain_spring_match(const SpringMatchInput& input, const SpringMatchResult& result);
const Calculation& spring_match_calculation();

}  // namespace echappe
