#include "train/written_items.h"

#include <algorithm>

#include "number/input_error.h"
#include "number/numeral.h"
#include "number/units.h"
#include "train/hands.h"

namespace echappe::written {
namespace {

std::string joined(const std::vector<Word>& words, size_t from, size_t to, const char* between = " ") {
    std::string text;
    for (size_t i = from; i < to && i < words.size(); ++i) text += (text.empty() ? "" : between) + words[i].text;
    return text;
}

const Unit* unit_of(const Word& word, Dimension dimension) {
    return word.is == Word::Is::name ? find_unit(lower(word.text), dimension) : nullptr;
}

/// As it stands, and as near as a double comes to it.
struct Number {
    Rational exact;
    double value = 0;
};

/// A number, a fraction, or one behind the other as in 39 1/8; `end` is moved behind it.
std::optional<Number> number_at(const std::vector<Word>& words, size_t& end) {
    if (end >= words.size() || words[end].is != Word::Is::number) return {};
    const auto fraction_at = [&](size_t at) {
        return at + 2 < words.size() && words[at].is == Word::Is::number && words[at + 1].sign('/') && words[at + 2].is == Word::Is::number;
    };
    const auto fraction = [&](size_t at) { return Rational::parse(words[at].text + "/" + words[at + 2].text); };
    try {
        Number number;
        size_t behind = end + 1;
        if (fraction_at(end)) number.exact = fraction(end), behind = end + 3;
        else number.exact = Rational::parse(words[end].text);
        if (behind == end + 1 && fraction_at(behind)) number.exact = number.exact + fraction(behind), behind += 3;
        number.value = number.exact.to_double();
        // As near as a double comes: a fraction of two doubles is a little less so.
        if (behind == end + 1) number.value = read_number(words[end].text).value_or(number.value);
        if (!Range{}.holds(number.value)) refuse(words[end], "a number of ordinary size");
        end = behind;
        return number;
    } catch (const std::exception&) {
        refuse(words[end], "a number of ordinary size");
    }
}

/// What the records take.
double within(double value, double most, const Word& word) {
    if (!above(0, most).holds(value)) refuse(word, above(0, most).sentence());
    return value;
}
constexpr double largest = 1e9;        ///< of a reading and a period, in its base unit
constexpr double most_windings = 1e4;  ///< turns

/// "± 0.5", in the unit that follows.
std::optional<double> uncertainty_at(const std::vector<Word>& words, size_t& end) {
    if (end >= words.size() || words[end].text != "±") return {};
    ++end;
    const auto u = number_at(words, end);
    const Word& word = words[std::min(end, words.size()) - 1];
    if (!u) refuse(word, "a number above 0 behind ±");
    return within(u->value, largest, word);
}

void at_end(const std::vector<Word>& words, size_t end, const std::string& accepts) {
    if (end < words.size()) refuse(words[end], accepts);
}

/// Reads the words of one item, in the order in which they may stand.
class ArborReader {
public:
    explicit ArborReader(const Item& item) : m_words(item.words) {
        m_out.at = item.at;
        m_out.end = item.end;
    }

    ArborItem read() {
        if (m_words.size() > 1 && m_words[0].says("apart")) m_out.apart = true, ++m_at;
        refuse_what_cannot_be();
        name();
        hand_before_count();
        if (at_lantern()) m_out.lantern = true, ++m_at;
        m_out.driven = group();
        if (here('/')) {
            m_out.slash = true;
            ++m_at;
            m_out.driving = group();
        }
        m_out.counted = m_out.slash || !m_out.driven.empty();
        if (m_out.counted && m_at < m_words.size() && m_words[m_at].says("lantern")) m_out.lantern = true, ++m_at;
        while (m_at < m_words.size()) phrase();
        const bool bare = !m_out.counted;
        if (bare && (m_out.lantern || m_out.apart || m_out.hand || m_out.on || m_out.by || m_out.driven_by))
            refuse(m_out.end, 0, "an arbor without a count", "a count, as in 12/96, or ? where it is lost");
        return std::move(m_out);
    }

private:
    const std::vector<Word>& m_words;
    size_t m_at = 0;
    ArborItem m_out;

    bool here(char sign) const { return m_at < m_words.size() && m_words[m_at].sign(sign); }
    bool is_count(size_t at) const { return at < m_words.size() && (m_words[at].is == Word::Is::number || m_words[at].sign('?')); }
    bool at_lantern() const {
        return m_at + 1 < m_words.size() && m_words[m_at].says("lantern") &&
               (is_count(m_at + 1) || m_words[m_at + 1].sign('/') || m_words[m_at + 1].sign('+'));
    }

    /// What the model cannot hold is said before it is taken for a name.
    void refuse_what_cannot_be() const {
        for (size_t i = 0; i + 1 < m_words.size(); ++i)
            for (const char* word : {"internal", "planet", "planetary", "epicyclic", "differential"})
                if (m_words[i].says(word) && is_count(i + 1))
                    refuse(m_words[i], "wheels that turn each other from outside: internal teeth and planets cannot be held yet");
    }

    void name() {
        for (; m_at < m_words.size() && !at_lantern(); ++m_at) {
            const Word& word = m_words[m_at];
            if (word.is != Word::Is::name && word.is != Word::Is::quoted) break;
            m_out.quoted = m_out.quoted || word.is == Word::Is::quoted;
            m_out.name += (m_out.name.empty() ? "" : " ") + word.text;
        }
        if (!m_out.name.empty() && here(':')) ++m_at;
    }

    std::vector<CountItem> group() {
        std::vector<CountItem> counts;
        if (is_count(m_at)) counts.push_back(count({}));
        while (here('+')) {
            ++m_at;
            std::string called;
            for (; m_at < m_words.size() && (m_words[m_at].is == Word::Is::name || m_words[m_at].is == Word::Is::quoted); ++m_at)
                called += (called.empty() ? "" : " ") + m_words[m_at].text;
            if (!is_count(m_at)) refuse_here("a count behind +, as in 96 + 64");
            if (counts.empty()) counts.emplace_back();  // the first on this side is not there
            counts.push_back(count(called));
        }
        return counts;
    }

    CountItem count(const std::string& called) {
        CountItem out;
        out.word = m_words[m_at];
        out.name = called;
        static_cast<TypedCount&>(out) = written::count_at(m_words, m_at);
        return out;
    }

    [[noreturn]] void refuse_here(const std::string& accepts) const {
        if (m_at < m_words.size()) refuse(m_words[m_at], accepts);
        refuse(m_out.end, 0, "nothing", accepts);
    }

    bool at_phrase() const {
        return m_at < m_words.size() && (m_words[m_at].says("on") || m_words[m_at].says("by") || m_words[m_at].says("driven"));
    }
    Reference reference() {
        Reference out;
        for (; m_at < m_words.size() && !at_phrase() && !(at_hand(m_at) && !out.words.empty()); ++m_at) out.words.push_back(m_words[m_at]);
        if (out.words.empty()) refuse_here("the name of an arbor");
        return out;
    }

    void phrase() {
        const Word& word = m_words[m_at];
        if (word.says("on")) {
            ++m_at;
            m_out.on = reference();
        } else if (word.says("driven") && m_at + 1 < m_words.size() && m_words[m_at + 1].says("by")) {
            m_at += 2;
            m_out.driven_by = reference();
        } else if (word.says("by")) {
            ++m_at;
            if (m_at >= m_words.size()) refuse_here("the name of one of its pinions");
            m_out.by = m_words[m_at++];
        } else {
            hand();
        }
    }
    /// Where "hand" stands behind the words from here on; the end where it does not.
    size_t hand_behind(size_t from) const {
        size_t end = from;
        while (end < m_words.size() && m_words[end].is == Word::Is::name && !m_words[end].says("hand") && !m_words[end].says("on")) ++end;
        return end > from && end < m_words.size() && m_words[end].says("hand") ? end : m_words.size();
    }
    /// "seconds hand" and the like begins here.
    bool at_hand(size_t from) const {
        const size_t end = hand_behind(from);
        return end < m_words.size() && shows(from, end);
    }
    bool shows(size_t from, size_t end) const {
        return is_hand({m_words.begin() + static_cast<std::ptrdiff_t>(from), m_words.begin() + static_cast<std::ptrdiff_t>(end)});
    }
    /// "hours hand 72 on centre": what was read as its name is the hand that it carries.
    void hand_before_count() {
        if (m_out.quoted || m_at < 2 || m_at >= m_words.size() || !m_words[m_at - 1].says("hand")) return;
        // An arbor may be called after its hand; "on" tells that the hand itself is meant, another hand that it is not.
        const auto follows = [&](const char* word) {
            return std::any_of(m_words.begin() + static_cast<std::ptrdiff_t>(m_at), m_words.end(),
                               [&](const Word& w) { return w.says(word); });
        };
        if (!follows("on") || follows("hand")) return;
        size_t from = m_at - 1;
        while (from > 0 && m_words[from - 1].is == Word::Is::name) --from;
        if (!shows(from, m_at - 1)) return;
        m_out.hand =
            hand_of({m_words.begin() + static_cast<std::ptrdiff_t>(from), m_words.begin() + static_cast<std::ptrdiff_t>(m_at) - 1});
        m_out.name.clear();
    }
    /// "12/96 centre": the name stands behind, where none stood before; a hand may follow it.
    bool name_behind() {
        if (!m_out.name.empty() || m_out.quoted || at_hand(m_at)) return false;
        if (m_at > 0 && m_words[m_at - 1].end() == m_words[m_at].at) return false;  // 9x6 is no name
        size_t end = m_at;
        while (end < m_words.size() && m_words[end].is == Word::Is::name && !m_words[end].says("hand") && !m_words[end].says("on") &&
               !m_words[end].says("by") && !m_words[end].says("driven") && !(end > m_at && at_hand(end)))
            ++end;
        if (end == m_at || (end < m_words.size() && m_words[end].says("hand"))) return false;
        m_out.name = joined(m_words, m_at, end);
        m_at = end;
        return true;
    }
    void hand() {
        if (name_behind()) return;
        std::vector<Word> shows;
        size_t end = m_at;
        while (end < m_words.size() && m_words[end].is == Word::Is::name && !m_words[end].says("hand")) shows.push_back(m_words[end++]);
        if (end >= m_words.size() || !m_words[end].says("hand") || shows.empty())
            refuse_here("pinion/wheel, as in 12/96, then what hand it carries, as in seconds hand, or on, by or driven by another arbor");
        m_out.hand = hand_of(shows);
        m_at = end + 1;
    }
};

bool only_names(const std::vector<Word>& words) {
    return std::all_of(words.begin(), words.end(), [](const Word& w) { return w.is == Word::Is::name || w.is == Word::Is::quoted; });
}

size_t place_of(const std::vector<Word>& words, std::string_view word) {
    return static_cast<size_t>(std::find_if(words.begin(), words.end(), [&](const Word& w) { return w.says(word); }) - words.begin());
}

/// "3600 ± 0.5 beats", "3600 beats an hour".
std::optional<ItemRead> beats(const std::vector<Word>& words) {
    size_t at = 0;
    if (words[0].is != Word::Is::number) return {};
    const size_t told = place_of(words, "beats");
    if (told == words.size()) return {};
    BeatsFact out;
    const auto number = number_at(words, at);
    out.per_hour = within(number->value, largest, words[0]);
    out.u = uncertainty_at(words, at);
    if (at != told) refuse(words[at], "beats, as in 3600 beats");
    at_end(words, place_of(words, "hour") == words.size() ? told + 1 : place_of(words, "hour") + 1, "nothing more, or an hour");
    return out;
}

/// "pendulum 994 mm".
std::optional<ItemRead> pendulum(const std::vector<Word>& words) {
    if (words.size() < 3 || !words[0].says("pendulum") || !unit_of(words.back(), Dimension::length)) return {};
    PendulumFact out;
    size_t at = 1;
    const auto number = number_at(words, at);
    if (!number) refuse(words[1], "a length, as in pendulum 994 mm");
    const double unit = unit_of(words.back(), Dimension::length)->base_per_unit;
    out.mm = within(number->value * unit, largest, words[1]);
    if (const auto u = uncertainty_at(words, at)) out.u = within(*u * unit, largest, words[at - 1]);
    at_end(words, at + 1, "a length alone, as in pendulum 994 mm");
    return out;
}

/// "8 days from 16 turns", "16 turns".
std::optional<ItemRead> run(const std::vector<Word>& words) {
    if (words.size() < 2 || !(words.back().says("turns") || words.back().says("turn")) || words[0].is != Word::Is::number) return {};
    const std::string takes = "a run as in 8 days from 16 turns, or 16 turns alone";
    RunFact out;
    size_t at = 0;
    auto number = number_at(words, at);
    if (const size_t from = place_of(words, "from"); from < words.size()) {
        const auto u = uncertainty_at(words, at);
        const Unit* unit = at < words.size() ? unit_of(words[at], Dimension::time) : nullptr;
        if (!unit || at + 1 != from) refuse(words[std::min(at, words.size() - 1)], takes);
        out.run_s = within(number->value * unit->base_per_unit, largest, words[0]);
        if (u) out.u = within(*u * unit->base_per_unit, largest, words[at - 1]);
        at = from + 1;
        number = number_at(words, at);
    }
    if (!number || at + 1 != words.size()) refuse(words[std::min(at, words.size() - 1)], takes);
    out.turns = within(number->value, most_windings, words[at - 1]);
    return out;
}

/// "centre 1 h", "centre 5400/7 s turning left".
std::optional<ItemRead> period(const std::vector<Word>& words) {
    PeriodFact out;
    std::vector<Word> rest = words;
    if (rest.back().says("left") || rest.back().says("right")) {
        out.left = rest.back().says("left");
        rest.pop_back();
        if (!rest.empty() && rest.back().says("turning")) rest.pop_back();
    }
    if (rest.size() < 2 || (rest[0].is != Word::Is::name && rest[0].is != Word::Is::quoted)) return {};
    const size_t number =
        static_cast<size_t>(std::find_if(rest.begin(), rest.end(), [](const Word& w) { return w.is == Word::Is::number; }) - rest.begin());
    // "90min" is cut into a number and a name: the unit is the last word.
    const Unit* unit = unit_of(rest.back(), Dimension::time);
    if (number == rest.size() || !unit || !only_names({rest.begin(), rest.begin() + static_cast<std::ptrdiff_t>(number)})) return {};
    size_t at = number;
    const auto turn = number_at(rest, at);
    if (const auto u = uncertainty_at(rest, at)) out.u = within(*u * unit->base_per_unit, largest, rest[at - 1]);
    if (!turn || at + 1 != rest.size()) return {};  // counts, and a word that is a unit too
    out.value_s = within(turn->value * unit->base_per_unit, largest, rest[number]);
    out.arbor.words.assign(rest.begin(), rest.begin() + static_cast<std::ptrdiff_t>(number));
    try {
        out.period_s = turn->exact * Rational::from_decimal(unit->base_per_unit);
    } catch (const RationalOverflow&) {
        refuse(rest[number], "a fraction of fewer digits");
    }
    return out;
}

/// "seconds hand on escape".
std::optional<ItemRead> hand(const std::vector<Word>& words) {
    const size_t at = place_of(words, "hand");
    if (at == 0 || at + 2 >= words.size() || !words[at + 1].says("on") || !only_names(words)) return {};
    HandFact out;
    out.hand = hand_of({words.begin(), words.begin() + static_cast<std::ptrdiff_t>(at)});
    out.arbor.words.assign(words.begin() + static_cast<std::ptrdiff_t>(at) + 2, words.end());
    return out;
}

std::optional<ItemRead> escape(const std::vector<Word>& words) {
    if (words.size() == 2 && words[0].says("no") && words[1].says("escapement")) return EscapeFact{};
    if (words.size() < 3 || !words[0].says("escape") || !words[1].says("on") || !only_names(words)) return {};
    return EscapeFact{Reference{{words.begin() + 2, words.end()}}};
}

std::optional<ItemRead> one_beat(const std::vector<Word>& words) {
    if (joined(words, 0, words.size()) != "one beat a tooth") return {};
    return OneBeatFact{};
}

}  // namespace

void refuse(const Word& word, const std::string& accepts) { refuse(word.at, word.length, in_quotes(word.text), accepts); }

void refuse(size_t at, size_t length, const std::string& got, const std::string& accepts) { throw Fault{{at, length, got, accepts}}; }

TypedCount count_at(const std::vector<Word>& words, size_t& at) {
    const auto sign = [&](char c) { return at < words.size() && words[at].sign(c); };
    const std::string takes = "a whole number of teeth, or ?";
    if (at >= words.size()) refuse(words.empty() ? 0 : words.back().end(), 0, "nothing", takes);
    if (sign('?')) return ++at, TypedCount{Count::lost(), {}, false};
    const auto value = words[at].is == Word::Is::number ? read_whole(words[at].text) : std::nullopt;
    if (!value) refuse(words[at], takes);
    TypedCount out{Count(*value), {}, false};
    ++at;
    if (sign('?')) {
        out.trust = doubted_trust;
        ++at;
    } else if (at + 1 < words.size() && words[at].is == Word::Is::number && words[at + 1].sign('%')) {
        const auto percent = read_number(words[at].text);
        const Range& range = JobArbor::record().find("wheel_trust")->range;
        if (!percent || !range.holds(*percent / 100)) refuse(words[at], "how far the count is trusted, 1 to 99 %");
        out.trust = *percent / 100;
        at += 2;
    }
    if (at < words.size() && words[at].says("assumed")) {
        out.assumed = true;
        ++at;
    }
    return out;
}

bool is_hand(const std::vector<Word>& words) {
    const std::string shows = lower(joined(words, 0, words.size(), "-"));
    return find_period(shows) || find_period(shows + "s");
}

std::string hand_of(const std::vector<Word>& words) {
    const std::string shows = lower(joined(words, 0, words.size(), "-"));
    for (const std::string& id : {shows, shows + "s"})
        if (find_period(id)) return id;
    refuse(words.front().at, words.back().end() - words.front().at, in_quotes(shows), "what a hand shows: " + listed(named_period_ids()));
}

ItemRead read_item(const Item& item) {
    for (const auto fact : {beats, pendulum, run, hand, escape, one_beat, period})
        if (const auto read = fact(item.words)) return *read;
    return ArborReader(item).read();
}

}  // namespace echappe::written
