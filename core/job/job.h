#pragma once

#include "job/drive.h"
#include "job/oscillator_record.h"
#include "job/survey.h"
#include "making/dividing.h"
#include "making/wheel_blank.h"
#include "train/restore.h"

namespace echappe {

/// The document: what is known of one movement and what was decided. Plain values; everything else is derived.

struct JobArbor {
    ArborInput train;
    std::string name;
    std::string pinion_state = "counted";
    std::string wheel_state = "counted";
    std::optional<double> pinion_trust;  ///< probability that the count found is the maker's; none: not doubted
    std::optional<double> wheel_trust;
    std::optional<std::string> hand;  ///< what its hand shows, by the name of a period
    std::vector<double> position_mm;  ///< x, y of the hole on the plate, seen from the dial; empty: not known
    static const Record& record();
};

struct Measurement {
    std::string id;
    Evidence evidence;
    std::string instrument;
    std::string date;
    std::string note;
    bool left_out = false;  ///< kept, but not believed
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

struct Judgement {
    std::string finding;
    std::string verdict;
    std::string reason;
    std::string date;
    static const Record& record();
};

/// What was decided about the blank of one wheel, by its part: "third.wheel".
struct PartBlank {
    std::string part;
    BlankChoice choice;
    static const Record& record();
};

/// A chain of arbors from the power to the escape wheel, as the ladder shows it.
struct TrainList {
    std::string id;
    std::string name;
    std::vector<std::string> arbors;
    static const Record& record();
};

struct Plate {
    double width_mm = 0;
    double height_mm = 0;
    std::string shape = "arched";  ///< or "round", inscribed in width and height
    double pillar_mm = 9;          ///< diameter of a pillar
    std::vector<std::array<double, 2>> pillars;
    static const Record& record();
    /// From a point to the edge; negative outside.
    double room_at(double x_mm, double y_mm) const;
};

struct Job {
    std::string format = "echappe job";
    long long schema = 1;
    std::string title;
    std::string number;
    std::string place;
    std::string maker;
    std::string owner;
    std::string workshop;
    std::string note;
    std::string length_unit = "mm";
    std::vector<TrainList> trains;
    std::vector<JobArbor> arbors;
    ReferenceInput reference;
    std::optional<std::string> escape_arbor;
    long long beats_per_tooth = 2;
    std::optional<double> winding_turns;
    RestoreLimits limits;
    std::vector<MeshForm> forms;  ///< of meshes that are not of the clock's school
    std::vector<PartBlank> blanks;
    std::optional<Plate> plate;
    std::optional<DividingHead> dividing_head;
    std::vector<Measurement> measurements;
    std::vector<Choice> choices;
    std::vector<Judgement> judgements;
    Survey survey;
    std::vector<DriveRecord> drives;
    std::optional<OscillatorRecord> oscillator;
    RateLog rate_log;
    static const Record& record();

    const JobArbor* arbor(const std::string& id) const;
    /// The form of a mesh: what was set, else the clock's.
    FormChoice form_of(const std::string& wheel_of, const std::string& pinion_of) const;
    /// What was decided about a part's blank; all by rule when nothing was.
    BlankChoice blank_of(const std::string& part) const;
    const Choice* choice(const std::string& part) const;
    /// Decimals that matter in a length shown in the job's unit: one more under a watch's plate.
    int length_decimals() const;
    std::string name_of_arbor(const std::string& id) const;
    /// "centre to third, centre distance", with the arbors' names.
    std::string name_of_quantity(QuantityKey key) const;
    bool operator==(const Job& other) const;
};

/// The newest layout of the file that this version writes.
inline constexpr long long newest_schema = 1;

}  // namespace echappe
