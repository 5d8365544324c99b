#pragma once

#include "train/plate.h"
#include "train/restore.h"

namespace echappe {

/// The train's part of a job: what is known of the arbors and their counts, what was measured, and what was decided.

/// Who took a count or a reading, when and with what.
struct Taken {
    std::string by;
    std::string date;
    std::string with;
    bool operator==(const Taken&) const = default;
    /// "by eye, by Nell Tern, 2026-11-28"
    std::string in_words() const;
    static const Record& record();
};

/// A count as it was taken, one line each time: nothing is struck from them.
struct CountTaken {
    std::string part;  ///< "third.wheel"
    long long count = 0;
    Taken taken;
    static const Record& record();
};

struct JobArbor {
    ArborInput train;
    std::string name;
    std::string pinion_state = "counted";
    std::string wheel_state = "counted";
    std::optional<double> pinion_trust;  ///< probability that the count found is the maker's; none: not doubted
    std::optional<double> wheel_trust;
    std::optional<std::string> hand;  ///< what its hand shows, by the name of a period
    std::vector<double> position_mm;  ///< x, y of the hole on the plate, seen from the dial; empty: not known
    std::vector<double> back_mm;      ///< of the one in the back plate, where it is not opposite; empty: opposite
    /// By its name, or its id while it has none.
    const std::string& called() const { return name.empty() ? train.id : name; }
    static const Record& record();
};

struct Measurement {
    std::string id;
    Evidence evidence;
    std::string instrument;
    std::string date;
    std::string note;
    bool left_out = false;  ///< kept, but not believed
    std::string by = {};
    static const Record& record();
};

/// A lost count that was decided.
struct Choice {
    std::string part;
    long long count = 0;
    double weight = 0;
    std::string date;
    static const Record& record();
};

/// A chain of arbors from the power to the escape wheel, as the ladder shows it.
struct TrainList {
    std::string id;
    std::string name;
    std::vector<std::string> arbors;
    static const Record& record();
};

/// Kinds of escapement, by the trade's names.
const std::vector<std::string>& escapements();

struct TrainRecord {
    std::vector<TrainList> trains;
    std::vector<JobArbor> arbors;
    ReferenceInput reference;
    std::optional<std::string> escape_arbor;
    std::optional<std::string> escapement;  ///< what lets the escape wheel go, tooth by tooth
    long long beats_per_tooth = 2;
    std::optional<double> winding_turns;
    RestoreLimits limits;
    std::optional<Plate> plate;
    std::vector<Measurement> measurements;
    std::vector<CountTaken> counts_taken;
    std::vector<Choice> choices;
    std::vector<JobArbor> gone;  ///< taken away: their readings are kept as such, and they come back as they were
    static const Record& record();

    const JobArbor* arbor(const std::string& id) const;
    const Choice* choice(const std::string& part) const;
    /// How a count was taken, the oldest first.
    std::vector<const CountTaken*> counts_of(const std::string& part) const;
    /// "96, by eye, by Nell Tern, 2026-11-28"
    static std::string told_of_count(const CountTaken& count);
    std::string name_of_arbor(const std::string& id) const;
    /// By its name or its id, in any case of letters; nullptr when there is none.
    const JobArbor* arbor_called(const std::string& name) const;
    /// "centre to third, centre distance", with the arbors' names.
    std::string name_of_quantity(QuantityKey key) const;
    /// Decimals that matter in a length shown in this unit: one more under a watch's plate.
    int length_decimals(const std::string& unit) const;
};

}  // namespace echappe
