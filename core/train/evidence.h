#pragma once

#include <optional>
#include <string>
#include <vector>

#include "number/input_error.h"
#include "workings/record.h"

namespace echappe {

/// One kind of evidence, said once: what it speaks of, its unit, what the workshop reads it to and how.
struct EvidenceKind {
    enum class Of { movement, arbor, mesh };
    std::string id;        ///< carries its unit: "centre_distance_mm"
    std::string unit;      ///< "mm", "s", "1/h", "deg", "" for a direction
    Of of;                 ///< what must be named beside it
    std::string words;     ///< "centre distance"; put behind what it is of
    double workshop_u;     ///< standard uncertainty with the workshop's instrument, in `unit`
    std::string how;       ///< how to take it
    bool any_time = true;  ///< can be asked for at the bench; others need more than one number
};
const std::vector<EvidenceKind>& evidence_kinds();

/// Which quantity of a movement a piece of evidence speaks of.
struct QuantityKey {
    std::string kind;
    std::optional<std::string> arbor;
    std::optional<std::string> wheel_of;
    std::optional<std::string> pinion_of;

    bool operator==(const QuantityKey&) const = default;
    auto operator<=>(const QuantityKey&) const = default;  // NOLINT(modernize-use-nullptr): a false positive of clang-tidy 14
    /// "centre_distance_mm:centre-third": kind and ids, no words.
    std::string id() const;
    /// The declaration of its kind. Kinds are checked when evidence is read.
    const EvidenceKind& declared() const;
    const std::string& unit() const { return declared().unit; }
    static const Record& record();
};

/// "centre to third, centre distance", "escape pinion, outside diameter".
std::string name_of(const QuantityKey& key);

struct Evidence {
    QuantityKey key;
    double value = 0;
    double u = 0;                               ///< standard uncertainty, above 0
    std::optional<double> turns = {};           ///< of a run: of the arbor between winding and run down; of whole turns: just so many
    std::optional<long long> teeth = {};        ///< of a fragment: tooth spaces counted
    std::optional<std::string> direction = {};  ///< "cw" or "ccw", seen from the dial
    static const Record& record();
};

/// What this kind needs and the evidence lacks ("evidence[1].turns: got nothing, …"); none when it is whole.
std::optional<InputError> fault_of(const Evidence& evidence, const std::string& place);

}  // namespace echappe
