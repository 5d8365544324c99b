#include "bench/stops.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* stops_source = "Bayes' rule over the arbor and its place; the hands as a measure of every arbor's turn";
constexpr double dial_s = static_cast<double>(half_a_day_s);
constexpr double wide_fault = 0.02;   // of a turn: a bent tooth is not a point
constexpr double widest_read = 0.25;  // of a turn: read no better than that, the hands tell nothing of an arbor

/// Of values given by their logarithms.
double log_of_sum(const std::vector<double>& logs) {
    const double most = *std::max_element(logs.begin(), logs.end());
    double sum = 0;
    for (const double one : logs) sum += std::exp(one - most);
    return most + std::log(sum);
}

/// Logarithm of how likely these parts of a turn are if all came from one place, wherever that is, against places anywhere.
double log_likelihood(const std::vector<double>& turns, double spread) {
    constexpr int places = 720;
    std::vector<double> of_place(places);
    for (int i = 0; i < places; ++i)
        for (const double turn : turns) {
            double density = 0;
            const double off = std::remainder(turn - static_cast<double>(i) / places, 1.0);
            for (const double round : {-1.0, 0.0, 1.0})
                density += std::exp(-std::pow((off + round) / spread, 2) / 2) / (spread * std::sqrt(2 * pi));
            of_place[static_cast<size_t>(i)] += std::log(std::max(density, std::numeric_limits<double>::min()));
        }
    return log_of_sum(of_place) - std::log(places);
}

struct Stood {
    double at = 0, spread = 0;
};
/// The middle of parts of a turn, and the largest distance from it.
Stood middle_of(const std::vector<double>& turns) {
    double x = 0, y = 0;
    for (const double turn : turns) x += std::cos(2 * pi * turn), y += std::sin(2 * pi * turn);
    Stood out;
    out.at = std::atan2(y, x) / (2 * pi);
    for (const double turn : turns) out.spread = std::max(out.spread, std::abs(std::remainder(turn - out.at, 1.0)));
    if (out.at < 0) out.at += 1;
    return out;
}

/// Hands that nobody saw are left empty, or "?".
bool was_read(const TestStop& stop) { return !stop.hands.empty() && stop.hands != "?"; }

/// It comes round in whole turns while the hands go once round the dial.
bool told_by_hands(double period_s) {
    const double turns = dial_s / period_s;
    return std::abs(turns - std::round(turns)) < 1e-6 * turns;
}

/// What turns together always stands alike together: one suspect.
std::vector<SlowArbor> alike_as_one(const std::vector<SlowArbor>& arbors) {
    std::vector<SlowArbor> out;
    for (const SlowArbor& arbor : arbors) {
        const auto same =
            std::find_if(out.begin(), out.end(), [&](const SlowArbor& one) { return std::abs(one.period_s / arbor.period_s - 1) < 1e-9; });
        if (same == out.end()) out.push_back(arbor);
        else same->name += " or " + arbor.name;
    }
    return out;
}

std::string in_words(const StopsResult& out) {
    const std::string stops = std::to_string(out.used) + " stops";
    if (out.used == 0) return "Note where the hands stand when it stops: they tell where every arbor stood.";
    if (out.used == 1) return "One stop tells nothing yet; the next one will.";
    if (out.culprit) {
        const StopCulprit& first = out.arbors.front();
        return "At all of " + stops + " " + first.name + " stood alike, within " + print_fixed(360 * first.spread, 0) +
               "° of its turn: look at it there for a bent tooth, a burr, dirt, a bent pivot, or what it touches.";
    }
    if (out.no_pattern > 0.8)
        return stops + " without a pattern among the arbors that the hands can tell; those that turn in a few minutes they cannot.";
    return stops + " do not tell yet; likeliest " + out.arbors.front().name + ", " + print_fixed(100 * out.arbors.front().probability, 0) +
           " %.";
}

}  // namespace

double hands_s(const std::string& words, const std::string& field) {
    const size_t colon = words.find(':');
    const auto whole = [&](const std::string& part) {
        return !part.empty() && part.size() <= 2 && std::all_of(part.begin(), part.end(), [](char c) { return c >= '0' && c <= '9'; })
                   ? std::stoi(part)
                   : -1;
    };
    const int hour = colon == std::string::npos ? -1 : whole(words.substr(0, colon)),
              minute = colon == std::string::npos ? -1 : whole(words.substr(colon + 1));
    if (hour < 0 || hour > 24 || minute < 0 || minute > 59) throw InputError(field, "\"" + words + "\"", "where the hands stood, as 3:20");
    return std::fmod(3600.0 * hour + 60.0 * minute, dial_s);
}

/// To how many minutes the hands were read, by what all the readings are multiples of.
double read_to_min(const std::vector<double>& stood_s) {
    for (const double minutes : {30.0, 15.0, 10.0, 5.0})
        if (stood_s.size() > 1 &&
            std::all_of(stood_s.begin(), stood_s.end(), [&](double at) { return std::fmod(at / 60, minutes) < 1e-6; }))
            return minutes;
    return 1;
}

StopsResult stops_pattern(const StopsInput& in) {
    StopsResult out;
    std::vector<double> stood;
    for (size_t i = 0; i < in.stops.size(); ++i)
        if (was_read(in.stops[i])) stood.push_back(hands_s(in.stops[i].hands, "stops[" + std::to_string(i) + "].hands"));
    out.used = static_cast<long long>(stood.size());
    const double steps_min = read_to_min(stood);
    constexpr double seen = 0.5;  // between two strokes, by eye
    out.reading_min = in.reading_min.value_or(steps_min > 1 ? steps_min / std::sqrt(12.0) : seen);
    std::vector<double> logs = {0};  // of what has no pattern, then of each arbor
    for (const SlowArbor& arbor : alike_as_one(in.arbors)) {
        if (!told_by_hands(arbor.period_s)) continue;
        const double spread = std::hypot(60 * out.reading_min / arbor.period_s, wide_fault);
        if (spread > widest_read) continue;
        std::vector<double> turns;
        for (const double at : stood) turns.push_back(std::fmod(at / arbor.period_s, 1.0));
        const Stood where = middle_of(turns);
        out.arbors.push_back({arbor.id, arbor.name, 0, where.at, where.spread});
        logs.push_back(log_likelihood(turns, spread));
    }
    if (out.arbors.empty()) {
        out.verdict = !in.reading_min && steps_min > 1
                          ? "The hands were read to " + print_short(steps_min) +
                                " min: too coarse to tell one arbor from another. Read them to the minute at the next stops."
                          : "No arbor here comes round with the hands slowly enough to be told by them.";
        return out;
    }
    // Half of the belief before is that there is none.
    for (size_t i = 1; i < logs.size(); ++i) logs[i] -= std::log(static_cast<double>(out.arbors.size()));
    const double all = log_of_sum(logs);
    out.no_pattern = std::exp(logs[0] - all);
    for (size_t i = 0; i < out.arbors.size(); ++i) out.arbors[i].probability = std::exp(logs[i + 1] - all);
    std::stable_sort(out.arbors.begin(), out.arbors.end(), [](const auto& a, const auto& b) { return a.probability > b.probability; });
    constexpr double sure = 0.8;
    if (out.used > 1 && out.arbors.front().probability > sure) out.culprit = out.arbors.front().arbor;
    out.verdict = in_words(out);
    if (!in.reading_min && steps_min > 1 && !out.culprit)
        out.verdict += " The hands were read to " + print_short(steps_min) + " min; read to the minute they tell more.";
    return out;
}

const Record& SlowArbor::record() {
    using In = SlowArbor;
    static const Record record = Fields<In>()
                                     .add("id", &In::id, "", "of the arbor")
                                     .required()
                                     .add("name", &In::name, "", "in words")
                                     .add("period_s", &In::period_s, "s", "of a turn", above(0, 1e9))
                                     .required();
    return record;
}

const Record& StopsInput::record() {
    using In = StopsInput;
    static const Record record = Fields<In>()
                                     .add("stops", &In::stops, "", "as they were noted")
                                     .required()
                                     .add("arbors", &In::arbors, "", "that turn with the hands")
                                     .required()
                                     .add("reading_min", &In::reading_min, "min", "to which the hands are read", above(0, 30))
                                     .because("by what all readings are multiples of; read to the minute, half a minute");
    return record;
}

const Record& StopCulprit::record() {
    using Out = StopCulprit;
    static const Record record = Fields<Out>()
                                     .add("arbor", &Out::arbor, "", "id")
                                     .add("name", &Out::name, "", "in words")
                                     .add("probability", &Out::probability, "", "that it stops the movement")
                                     .add("stood_at", &Out::stood_at, "", "of a turn from where it stands at twelve")
                                     .add("spread", &Out::spread, "", "of a turn: the stop that lies furthest from it");
    return record;
}

const Record& StopsResult::record() {
    using Out = StopsResult;
    static const Record record = Fields<Out>()
                                     .add("arbors", &Out::arbors, "", "the likeliest first")
                                     .add("reading_min", &Out::reading_min, "min", "standard deviation of a reading")
                                     .add("no_pattern", &Out::no_pattern, "", "probability that they fall as they please")
                                     .add("used", &Out::used, "", "stops whose hands were read")
                                     .add("culprit", &Out::culprit, "", "an arbor that has it with four in five")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

namespace {

std::vector<Working> explain_stops(const StopsInput& in, const StopsResult& out) {
    const auto last = std::find_if(in.stops.rbegin(), in.stops.rend(), was_read);
    if (!out.culprit || last == in.stops.rend()) return {};
    const StopCulprit& first = out.arbors.front();
    double period = 0;
    for (const SlowArbor& arbor : in.arbors)
        if (arbor.id == first.arbor) period = arbor.period_s;
    return {work_out("turns of it to the last stop", "n = t ÷ T",
                     {{"t", "from twelve to where the hands stood", {hands_s(last->hands, "stops"), 0}, "s", 0},
                      {"T", "of a turn", {period, 0}, "s", 0}},
                     "", stops_source, [](auto x) { return x[0] / x[1]; })};
}

}  // namespace

const Calculation& stops_calculation() {
    static const Calculation calculation =
        declare<StopsInput, StopsResult>("bench.stops", "Which arbor stood alike whenever it stopped, by where the hands stood.",
                                         stops_source, stops_pattern, explain_stops);
    return calculation;
}

}  // namespace echappe
