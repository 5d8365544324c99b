#pragma once

#include <optional>

#include "workings/calculation.h"

namespace echappe {

/// A driving count on an arbor that has several.
struct WheelInput {
    std::string name;
    Count teeth;
    std::vector<std::string> drives;
    bool operator==(const WheelInput&) const = default;
    static const Record& record();
};

/// A driven count on an arbor that has several.
struct PinionInput {
    std::string name;
    Count leaves;
    bool operator==(const PinionInput&) const = default;
    static const Record& record();
};

struct ArborInput {
    std::string id;
    Count pinion;
    Count wheel;
    std::optional<std::vector<std::string>> drives;
    std::vector<WheelInput> wheels;
    std::vector<PinionInput> pinions;
    std::optional<std::string> coaxial_with;
    static const Record& record();
};

struct ReferenceInput {
    std::string arbor;
    Rational period_s{3600};
    std::string direction = "cw";
    bool operator==(const ReferenceInput&) const = default;
    static const Record& record();
};

struct TrainInput {
    std::vector<ArborInput> arbors;
    ReferenceInput reference;
    std::optional<std::string> escape_arbor;
    long long beats_per_tooth = 2;
    static const Record& record();
};

struct ArborResult {
    std::string id;
    double period_s = 0;
    Rational period_s_exact;
    std::string period_text;
    double turns_per_hour = 0;
    std::string direction;
    static const Record& record();
};

struct TrainResult {
    std::optional<double> beats_per_hour;
    std::optional<std::string> beats_per_hour_exact;
    std::vector<ArborResult> arbors;
    static const Record& record();
};

/// One wheel driving one pinion; indices into Network::counts.
struct Mesh {
    size_t wheel;
    size_t pinion;
};

/// The arbors and their meshes, checked: every id once, no ring, every arbor reached from the reference.
struct Network {
    struct Part {
        std::string name;   ///< "third.wheel", "minute.cannon"
        std::string place;  ///< where it stands in the input: "arbors[2].wheel"
        size_t arbor;
        Count count;
        bool drives;
    };
    std::vector<std::string> arbors;
    std::vector<Part> parts;
    std::vector<Mesh> meshes;
    /// How each arbor's period follows from the reference's: a chain of meshes, with +1 when the arbor is
    /// driven (period × n/N) and −1 when it drives (period × N/n).
    struct Step {
        size_t mesh;
        int sense;
    };
    std::vector<std::vector<Step>> path;
    std::vector<bool> joined;  ///< whether meshes lead from the reference to each arbor
    size_t reference = 0;
    std::optional<size_t> escape_part;

    size_t arbor(const std::string& id) const;   ///< arbors.size() when there is none
    size_t part(const std::string& name) const;  ///< parts.size() when there is none
};

/// Whether every arbor must be joined to the reference by wheels, or trains with their own power may stand beside it.
enum class Joined { all, some };
/// Checks the input and lays out the meshes. Throws InputError that names the place.
Network network_of(const TrainInput& input, Joined joined = Joined::all);
/// The arbors that wheels join to the reference, every mesh told by its wheel.
TrainInput joined_part(const TrainInput& input);
/// Those of them to which counted meshes lead; the escapement only where its count is known.
TrainInput known_part(const TrainInput& input);
/// The same train with every mesh told by its wheel, in the order of the arbors that are driven.
TrainInput with_meshes_told(TrainInput train);
/// Exact period of one arbor; it must be joined, and all counts on the way to it known. Throws InputError, RationalOverflow.
Rational period_of(const Network& network, const Rational& reference_period_s, size_t arbor);
/// Exact period of every arbor; all counts on the way must be known. Throws RationalOverflow.
std::vector<Rational> periods(const Network& network, const Rational& reference_period_s);
/// Beats per hour = 3600 / period of the escape arbor × escape teeth × beats a tooth, exactly.
Rational beats_per_hour(const Network& network, const std::vector<Rational>& period, long long beats_per_tooth);

/// Periods, directions and beats of a train, exact as fractions of whole numbers (Camus 1733): a mesh turns n/N times as slow and
/// the other way. Checked against the periods multiplied out by hand. Throws InputError, RationalOverflow.
TrainResult run_train(const TrainInput& input);
std::vector<Working> explain_train(const TrainInput& input, const TrainResult& result);
const Calculation& train_calculation();

}  // namespace echappe
