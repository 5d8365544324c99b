#pragma once

#include <cmath>

#include "teeth/record.h"
#include "train/evidence.h"
#include "train/mesh_size.h"
#include "train/train.h"
#include "workings/effort.h"

namespace echappe {

struct CountRange {
    long long min = 0;
    long long max = 0;
    bool operator==(const CountRange&) const = default;
    static const Record& record();
};

struct RestoreLimits {
    CountRange wheel{20, 150};
    CountRange pinion{5, 20};
    CountRange pins{4, 24};  ///< of a hammer
    bool operator==(const RestoreLimits&) const = default;
    static const Record& record();
};

/// A count that is there but may not be the maker's: an earlier repair is suspected.
struct DoubtfulCount {
    std::string part;
    double probability = 0.5;  ///< that the count found is the original one
    bool operator==(const DoubtfulCount&) const = default;
    static const Record& record();
};

struct RestoreInput {
    TrainInput train;
    std::vector<std::string> unknown;
    std::vector<DoubtfulCount> doubtful;
    RestoreLimits limits;
    std::vector<Evidence> evidence;
    FormChoice form;  ///< of every mesh that `forms` does not name
    std::vector<MeshForm> forms;
    long long best = 50;
    double gravity_m_s2 = 9.80665;
    std::optional<double> calliper_u_mm;  ///< what the workshop reads an outside diameter to; none: as declared
    std::optional<double> centre_u_mm;    ///< what it reads a centre distance to
    double most_combinations = 4e9;       ///< more are refused
    static const Record& record();
};

struct Strain {
    QuantityKey key;
    double value = 0;
    std::optional<double> predicted;
    double sigma = 0;  ///< (measured − predicted) / u
    /// At over 3 a reading and what follows from the rest disagree, at over 2 they are looked at twice.
    enum class Pull { none, some, much };
    Pull pull() const { return std::abs(sigma) > 3 ? Pull::much : std::abs(sigma) > 2 ? Pull::some : Pull::none; }
    std::optional<std::string> note;
    static const Record& record();
};

struct Candidate {
    std::map<std::string, long long> counts;
    double weight = 0;
    double misfit = 0;
    std::optional<double> beats_per_hour;
    std::map<std::string, double> modules_mm;
    std::map<std::string, double> modules_u_mm;
    std::vector<Strain> strain;
    static const Record& record();
};

struct NextMeasurement {
    QuantityKey key;
    double expected_entropy_drop_bits = 0;
    /// When one reading alone tells little because the mesh has no evidence yet: the reading that should
    /// follow, and what the two are expected to give together.
    std::optional<QuantityKey> then;
    std::optional<double> then_entropy_drop_bits;
    static const Record& record();
};

struct Conflict {
    std::optional<QuantityKey> evidence;    ///< the odd one out; none when no single item reconciles the rest
    std::vector<QuantityKey> alternatives;  ///< further items that would do as well
    std::string reason;
    static const Record& record();
};

struct RestoreResult {
    std::vector<Candidate> candidates;
    long long considered = 0;
    long long fit = 0;     ///< of them that fit the readings: within 3 sigma of the best, and of the readings themselves; a million at most
    bool complete = true;  ///< false when it was stopped: the weights then mean nothing
    double weight_not_listed = 0;
    double entropy_bits = 0;
    std::optional<NextMeasurement> next_measurement;
    std::optional<Conflict> conflict;
    static const Record& record();
};

/// Weighs every combination of the lost counts within the limits against the evidence.
///
/// For each candidate the modules that fit best are found mesh by mesh (linear least squares) and
/// misfit = Σ ((predicted − measured)/u)². Weight = exp(−misfit/2) × a gentle prior (usual pinions, wheels that
/// divide on ordinary plates, similar modules on one arbor), normalised over the whole space: with a flat prior
/// on the logarithm of each module the best-fit misfit is the exact marginal one, since a candidate's module
/// uncertainty is the same fraction of its module.
/// Candidates whose misfit is over 70 above the best weigh under 1e-15 and are not formed, but count as considered.
/// Throws InputError; more than 4e9 combinations are refused. Stopped from outside, it says so in `complete`.
RestoreResult restore_train(const RestoreInput& input, const Effort& effort);
RestoreResult restore_train(const RestoreInput& input);
std::vector<Working> explain_restore(const RestoreInput& input, const RestoreResult& result);
const Calculation& restore_calculation();

/// The fewest candidates, best first, whose weights reach this share (0 to 1) of the whole.
size_t credible_set(const RestoreResult& result, double share);

}  // namespace echappe
