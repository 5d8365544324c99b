#pragma once

#include <optional>
#include <variant>

#include "number/rational.h"
#include "train/typed_count.h"
#include "train/written.h"
#include "train/written_words.h"

namespace echappe::written {

/// A count as written, and the name of one that is not the first on its side.
struct CountItem : TypedCount {
    Word word;
    std::string name;
};

/// An arbor, and a wheel of it where one is told: "great tide", "centre 64".
struct Reference {
    std::vector<Word> words;
    size_t at() const { return words.front().at; }
    size_t length() const { return words.back().end() - words.front().at; }
};

/// "third lantern 8/64 + 30, seconds hand on centre": an arbor and how it is driven.
struct ArborItem {
    size_t at = 0;
    size_t end = 0;
    std::string name;
    bool quoted = false;   ///< the name is to stand as it is
    bool counted = false;  ///< else it names an arbor that stands elsewhere
    bool slash = false;    ///< which side is which is told
    bool lantern = false;
    bool apart = false;  ///< no wheel drives it
    std::vector<CountItem> driven;
    std::vector<CountItem> driving;
    std::optional<std::string> hand;
    std::optional<Reference> on;         ///< turns on the axis of
    std::optional<Reference> driven_by;  ///< another than the one before it
    std::optional<Word> by;              ///< which of its pinions is driven
};

struct PeriodFact {
    Reference arbor;
    Rational period_s;
    double value_s = 0;
    std::optional<double> u;
    bool left = false;
};
struct HandFact {
    std::string hand;
    Reference arbor;
};
struct BeatsFact {
    double per_hour = 0;
    std::optional<double> u;
};
struct PendulumFact {
    double mm = 0;
    std::optional<double> u;
};
struct RunFact {
    double turns = 0;
    std::optional<double> run_s;
    std::optional<double> u;
};
struct EscapeFact {
    std::optional<Reference> arbor;  ///< none: there is none
};
struct OneBeatFact {};

using ItemRead = std::variant<ArborItem, PeriodFact, HandFact, BeatsFact, PendulumFact, RunFact, EscapeFact, OneBeatFact>;

/// Thrown where a word cannot be read.
struct Fault {
    WrittenFault fault;
};
[[noreturn]] void refuse(const Word& word, const std::string& accepts);
[[noreturn]] void refuse(size_t at, size_t length, const std::string& got, const std::string& accepts);

/// The count that stands there; `at` is moved behind it. Throws Fault.
TypedCount count_at(const std::vector<Word>& words, size_t& at);
/// What stands between two commas. Throws Fault.
ItemRead read_item(const Item& item);

/// Whether a hand shows that.
bool is_hand(const std::vector<Word>& words);
/// "seconds" for "seconds", "second" and "Seconds": the id of a named period. Throws Fault.
std::string hand_of(const std::vector<Word>& words);

}  // namespace echappe::written
