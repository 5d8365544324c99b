#pragma once

#include "escapement/any_action.h"
#include "escapement/layout.h"

namespace echappe {

/// What a craftsman sees of pallets while they stand somewhere: figures as far as they were read, else words.
struct PalletsSeen {
    std::optional<double> entry_lock_deg, exit_lock_deg, entry_drop_deg, exit_drop_deg;
    std::optional<double> least_deg;    ///< swing to each side with which it just still lets off, as it dies away
    std::string entry_word, exit_word;  ///< "lands on the slope", "hardly locks", "hardly drops", "caught"; empty: nothing
    bool operator==(const PalletsSeen&) const = default;
    bool empty() const;
    static const Record& record();
};
/// The same after the pallets were moved.
struct PalletsSeenLater {
    double moved_mm = 0;  ///< nearer since the first readings
    PalletsSeen seen;
    static const Record& record();
};
/// What the words mean as figures: which, and how sure, deg. Workshop practice.
struct SeenWord {
    const char* word;
    bool lock;  ///< else the drop
    double deg, u_deg;
};
const std::vector<SeenWord>& seen_words();

/// What is seen of an escapement that is laid out so, first and after every move.
struct EscapementCauseInput {
    EscapementChoice escapement;
    PalletsSeen seen;
    std::vector<PalletsSeenLater> later;
    double reading_u_deg = 0.25;  ///< standard uncertainty of each
    double apart_u_mm = 0.05;     ///< how far pallets are usually off their layout, one from the other
    double moved_since_mm = 0;    ///< nearer, from the first readings until now
    std::optional<double> semi_arc_deg;
    static const Record& record();
};

struct EscapementCauseResult {
    double depth_mm = 0;  ///< nearer to the wheel than the layout, now
    double depth_u_mm = 0;
    double apart_mm = 0;  ///< the pallets farther from each other than in the layout
    double apart_u_mm = 0;
    double misfit = 0;  ///< sum of squares over their uncertainties
    std::optional<std::vector<double>> depth_window_mm;
    std::optional<double> aim_mm;                  ///< depth at which they should stand, from the layout
    std::optional<double> away_mm;                 ///< to that; negative: nearer
    double entry_drop_deg = 0, exit_drop_deg = 0;  ///< that are left there
    std::string verdict;
    static const Record& record();
};

/// Where pallets of this layout and opening should stand: as the layout has them, where that leaves every drop at least half a degree and
/// every lock as much (or what the layout itself leaves, where that is less); else as near to it as does. For a recoil that is as deep as
/// leaves a safe drop, for pallets that lock as shallow as leaves a safe lock. Where no depth leaves both, where the least of them is most.
/// `from_mm`: where words alone tell how they stand, the least move from there that leaves both. Nothing where it runs nowhere.
std::optional<double> depth_to_aim_at(const AnyAction& layout, double opened_mm, const std::optional<EscapementWindow>& window,
                                      std::optional<double> from_mm = {});

/// Depth and opening that explain best what was read, by least squares (Gauss and Newton) with the opening near the layout's; standard
/// uncertainties by the curvature there. Throws InputError without a reading, or where none of them can be of this layout.
EscapementCauseResult cause_of(const EscapementCauseInput& input);
/// The same of an action that is laid out already.
EscapementCauseResult cause_of(const AnyAction& layout, const EscapementCauseInput& input);
std::vector<Working> explain_escapement_cause(const EscapementCauseInput& input, const EscapementCauseResult& result);
const Calculation& escapement_cause_calculation();

}  // namespace echappe
