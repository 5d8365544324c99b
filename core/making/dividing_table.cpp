#include "making/dividing_table.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* dividing_table_source = "k ÷ N turns of the crank for each division, counted from the first, to the nearest hole";
constexpr double turn_deg = 360;

/// Holes from the first division to this one, to the nearest whole one.
long long holes_to(const DividingInput& in, long long circle, long long division) {
    const long long N = in.divisions, all = 2 * division * in.head.worm_ratio * circle;
    return (all + N) / (2 * N);
}

double error_deg(const DividingInput& in, long long circle, long long division) {
    const double stands = static_cast<double>(holes_to(in, circle, division)) / static_cast<double>(circle * in.head.worm_ratio);
    return turn_deg * (stands - static_cast<double>(division) / static_cast<double>(in.divisions));
}

double worst(const DividingInput& in, long long circle) {
    double most = 0;
    for (long long i = 0; i < in.divisions; ++i) most = std::max(most, std::abs(error_deg(in, circle, i)));
    return most;
}

std::set<long long> circles_of(const DividingHead& head) {
    std::set<long long> all;
    for (const auto& plate : head.plates) all.insert(plate.begin(), plate.end());
    if (all.empty()) throw InputError("plates", "none", "the circles of holes, a list for each plate");
    return all;
}

long long circle_for(const DividingTableInput& in) {
    const std::set<long long> all = circles_of(in.dividing.head);
    if (in.circle) {
        if (!all.contains(*in.circle)) throw InputError("circle", std::to_string(*in.circle), "one of the plates' circles");
        return *in.circle;
    }
    const DividingResult plan = plan_dividing(in.dividing);
    if (!plan.exact.empty()) return plan.exact.front().circle;
    return *std::min_element(all.begin(), all.end(),
                             [&](long long a, long long b) { return worst(in.dividing, a) < worst(in.dividing, b); });
}

/// What an error does to a tooth, by its share of the pitch. Workshop practice.
std::string judged(double percent) {
    constexpr double unseen = 1, felt = 2;
    const std::string share = print_fixed(percent, 1) + " % of it";
    if (percent < unseen) return share + ": no tooth shows it";
    return share + (percent < felt ? ": it will do for a slow wheel" : ": too much, take another plate or a divided disc");
}

std::string holes_in_words(long long turns, long long holes) {
    const std::string t = turns == 0 ? "" : std::to_string(turns) + (turns == 1 ? " turn" : " turns");
    const std::string h = holes == 0 ? "" : std::to_string(holes) + (holes == 1 ? " hole" : " holes");
    return t + (t.empty() || h.empty() ? "" : " and ") + h;
}

std::string in_words(const DividingTableResult& out) {
    if (out.second_circle) {
        const DividingRow& move = out.rows[1];
        return "Circles of " + std::to_string(out.circle) + " and " + std::to_string(*out.second_circle) +
               " of one plate: " + holes_in_words(move.turns, move.holes) + " of the first, then the plate let go, " +
               holes_in_words(0, std::abs(out.second_holes)) + (out.second_holes < 0 ? " back" : " on") +
               " of the second, each time, exactly.";
    }
    const std::string circle = "Circle of " + std::to_string(out.circle) + ": ";
    if (out.even) {
        const DividingRow& move = out.rows[1];
        return circle + holes_in_words(move.turns, move.holes) + " each time" + (out.exact ? ", exactly." : ".");
    }
    std::string words =
        circle + "not even: go by the table. No division stands off by more than " + print_fixed(60 * out.worst_deg, 1) + "′";
    if (out.worst_um) words += ", no pitch by more than " + print_fixed(*out.worst_um, 0) + " µm, " + judged(out.worst_percent.value_or(0));
    return words + "; errors do not add up.";
}

}  // namespace

namespace {

/// The same two moves each time.
DividingTableResult by_two_circles(const DividingInput& in, const CompoundMove& move) {
    DividingTableResult out;
    out.circle = move.circle, out.second_circle = move.second_circle, out.second_holes = move.second_holes;
    out.even = out.exact = true;
    for (long long i = 0; i < in.divisions; ++i)
        out.rows.push_back({i + 1, i == 0 ? 0 : move.turns, i == 0 ? 0 : move.holes, i * move.holes % move.circle, 0});
    out.worst_um = 0, out.worst_percent = 0;
    out.verdict = in_words(out);
    return out;
}

}  // namespace

DividingTableResult dividing_table(const DividingTableInput& in) {
    DividingTableResult out;
    if (!in.circle) {
        circles_of(in.dividing.head);
        const DividingResult plan = plan_dividing(in.dividing);
        if (plan.exact.empty() && !plan.compound.empty()) return by_two_circles(in.dividing, plan.compound.front());
    }
    out.circle = circle_for(in);
    const DividingInput& d = in.dividing;
    long long before = 0;
    double error_before = error_deg(d, out.circle, d.divisions - 1);
    out.even = true;
    for (long long i = 0; i < d.divisions; ++i) {
        const long long stands = holes_to(d, out.circle, i), move = stands - before;
        const double error = error_deg(d, out.circle, i);
        out.rows.push_back({i + 1, move / out.circle, move % out.circle, stands % out.circle, error});
        out.worst_deg = std::max(out.worst_deg, std::abs(error));
        out.worst_pitch_deg = std::max(out.worst_pitch_deg, std::abs(error - error_before));
        if (i > 1) out.even = out.even && move == out.rows[1].turns * out.circle + out.rows[1].holes;
        before = stands, error_before = error;
    }
    constexpr double no_error_deg = 1e-9;
    out.exact = out.worst_deg < no_error_deg;
    constexpr double whole_percent = 100;
    out.worst_percent = whole_percent * out.worst_pitch_deg * static_cast<double>(d.divisions) / turn_deg;
    if (d.pitch_radius_mm > 0) out.worst_um = out.worst_pitch_deg * pi / 180 * d.pitch_radius_mm * 1000;
    out.verdict = in_words(out);
    return out;
}

std::vector<Working> explain_dividing_table(const DividingTableInput& in, const DividingTableResult& out) {
    std::vector<Working> list = {work_out("turns of the crank for a division", "t = k ÷ N",
                                          {given("k", "worm", static_cast<double>(in.dividing.head.worm_ratio), ""),
                                           given("N", "divisions", static_cast<double>(in.dividing.divisions), "")},
                                          "", dividing_table_source, [](auto x) { return x[0] / x[1]; })};
    list.back().notes.push_back(out.verdict);
    return list;
}

const Record& DividingTableInput::record() {
    using In = DividingTableInput;
    static const Record record = Fields<In>()
                                     .include(&In::dividing)
                                     .add("circle", &In::circle, "", "of holes; empty: an exact one, else the best", between(2, 1000));
    return record;
}

const Record& DividingRow::record() {
    using Out = DividingRow;
    static const Record record = Fields<Out>()
                                     .add("tooth", &Out::tooth, "", "counted from 1")
                                     .add("turns", &Out::turns, "", "whole turns on from the one before")
                                     .add("holes", &Out::holes, "", "and holes")
                                     .add("hole", &Out::hole, "", "of the circle that the pin then stands in; the first is 0")
                                     .add("error_deg", &Out::error_deg, "deg", "at the work; positive: too far");
    return record;
}

const Record& DividingTableResult::record() {
    using Out = DividingTableResult;
    static const Record record = Fields<Out>()
                                     .add("circle", &Out::circle, "", "of holes")
                                     .add("exact", &Out::exact, "", "every division in its place")
                                     .add("even", &Out::even, "", "every move the same")
                                     .add("rows", &Out::rows, "", "division by division")
                                     .add("worst_deg", &Out::worst_deg, "deg", "of any division, at the work")
                                     .add("worst_pitch_deg", &Out::worst_pitch_deg, "deg", "of one division against the next")
                                     .add("worst_um", &Out::worst_um, "µm", "of a pitch, at the pitch circle")
                                     .add("second_circle", &Out::second_circle, "", "of the same plate, where two together divide exactly")
                                     .add("second_holes", &Out::second_holes, "", "on it each time; negative: back")
                                     .add("worst_percent", &Out::worst_percent, "%", "of a pitch, of its length")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& dividing_table_calculation() {
    static const Calculation calculation = declare<DividingTableInput, DividingTableResult>(
        "divide.table", "A dividing head's moves tooth by tooth, errors that do not add up.", dividing_table_source, dividing_table,
        explain_dividing_table);
    return calculation;
}

}  // namespace echappe
