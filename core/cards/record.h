#pragma once

#include <optional>
#include <string>
#include <vector>

#include "making/concentric.h"
#include "parts/flat_shape.h"
#include "parts/turned.h"

namespace echappe {

/// What was read when a step was done.
struct CardReading {
    std::string step;
    double value_mm = 0;
    std::string date;
    static const Record& record();
};

/// A division that was cut, or cut in the wrong place.
struct CardTick {
    long long tooth = 1;
    bool spoilt = false;
    static const Record& record();
};

/// What a step really took.
struct CardTime {
    std::string step;
    double minutes = 0;
    static const Record& record();
};

/// What forbade a part and was overruled.
struct CardOverruled {
    std::string step;
    std::string because, date;
    static const Record& record();
};

/// What was done at one part that is made. What is to be done follows from the job.
struct PartCard {
    std::string id;                 ///< "wheel:third.wheel", "bush:centre.front"
    std::vector<std::string> done;  ///< steps, in the order they were done
    std::vector<CardReading> readings;
    std::vector<CardTick> ticks;  ///< in the order they were cut
    std::vector<CardTime> times;
    std::string taken_from;  ///< id of the length in the drawer that it was made from
    std::vector<CardOverruled> overruled;
    static const Record& record();
    /// The last reading of a step.
    const CardReading* reading(const std::string& step) const;
    bool is_done(const std::string& step) const;
    const CardOverruled* overruling(const std::string& step) const;
};

/// Feet, pillars or studs that must be of one length.
struct EqualPieces {
    long long pieces = 3;
    std::optional<double> wanted_mm;  ///< length
    double limit_mm = 0.01;
    static const Record& record();
};

/// Holes on a circle, with what screws into them.
struct CircleOfHoles {
    long long count = 3;
    std::optional<double> radius_mm;
    double start_deg = 90;
    std::optional<double> through_mm;         ///< diameter; absent: by its thread
    std::optional<std::string> thread;        ///< "BA 8"
    std::string plate;                        ///< "front", "back": what lies in the way there is looked at; empty: none of them
    double middle_x_mm = 0, middle_y_mm = 0;  ///< on that plate
    static const Record& record();
};

/// Arbor, pipes and hands on each other.
struct ConcentricSet {
    std::vector<ConcentricPart> parts;
    static const Record& record();
};

/// A part that another station draws: snail, rack, count wheel, cam, pallets.
struct DrawnPart {
    std::string of = "snail";
    static const Record& record();
};

/// A spring that is cut from strip or wire.
struct SpringPiece {
    std::string spring = "click";
    std::optional<double> strip_thick_mm, strip_wide_mm, strip_long_mm;
    static const Record& record();
};

using BegunKind = std::variant<TurnedShape, FlatShape, ConcentricSet, CircleOfHoles, EqualPieces, DrawnPart, SpringPiece>;

/// A part that is to be made though nothing in the job decided it.
struct BegunPart {
    std::string id;    ///< "1", "2": told apart by it
    std::string name;  ///< "dial foot"
    BegunKind is;
    template <class Kind>
    const Kind* as() const {
        return std::get_if<Kind>(&is);
    }
    static const Record& record();
};
/// "turned", "flat", "set", "holes", "equal", "drawn", "spring".
const std::string& word_of(const BegunKind& kind);

/// Which way a wheel's teeth are mended, where it was chosen.
struct WayChosen {
    std::string part;  ///< "tide-1.wheel"
    std::string way;   ///< "let in", "ring", "new wheel"
    std::string because, date;
    static const Record& record();
};

/// The cards' part of a job: those at which something was done, and the parts that were begun by hand.
struct CardsRecord {
    std::vector<PartCard> cards;
    std::vector<BegunPart> begun;
    std::vector<WayChosen> ways;
    static const Record& record();
    const PartCard* card(const std::string& id) const;
    const BegunPart* begun_part(const std::string& id) const;
    const WayChosen* way_of(const std::string& part) const;
};

}  // namespace echappe
