#include "parts/equal_set.h"

#include <algorithm>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* equal_set_source = "workshop practice: all to the shortest, on one setting of the stop";

std::string in_words(const EqualSetInput& in, const EqualSetResult& out) {
    if (out.equal) return "Equal, within " + print_fixed(in.limit_mm, 3) + " mm.";
    std::string words;
    if (!out.take_off.empty()) {
        words = in.wanted_mm ? "Set the stop to " + print_fixed(out.target_mm, 2) + " mm"
                             : "Set the stop by piece " + std::to_string(out.stop_by) + ", " + print_fixed(out.shortest_mm, 2) + " mm";
        words += ", and leave it there. Take off";
        for (const SetPiece& piece : out.take_off)
            words += std::string(&piece == &out.take_off.front() ? "" : ",") + " " + print_fixed(piece.take_off_mm, 2) + " mm of piece " +
                     std::to_string(piece.piece);
        words += ".";
    }
    for (const ShortPiece& piece : out.too_short)
        words += std::string(words.empty() ? "" : " ") + "Piece " + std::to_string(piece.piece) + " is " + print_fixed(piece.short_mm, 2) +
                 " mm short: make it anew, or pack it with a washer. Do not cut the others to it.";
    return words;
}

}  // namespace

EqualSetResult equal_set(const EqualSetInput& in) {
    if (in.lengths_mm.empty()) throw InputError("lengths_mm", "nothing", "the length of each, as it was read");
    EqualSetResult out;
    const auto shortest = std::min_element(in.lengths_mm.begin(), in.lengths_mm.end());
    out.shortest_mm = *shortest;
    out.stop_by = shortest - in.lengths_mm.begin() + 1;
    out.spread_mm = *std::max_element(in.lengths_mm.begin(), in.lengths_mm.end()) - out.shortest_mm;
    out.target_mm = in.wanted_mm.value_or(out.shortest_mm);
    constexpr double hair = 1e-9;
    for (size_t i = 0; i < in.lengths_mm.size(); ++i) {
        const double over = in.lengths_mm[i] - out.target_mm;
        if (over > in.limit_mm + hair) out.take_off.push_back({static_cast<long long>(i) + 1, over});
        else if (-over > in.limit_mm + hair) out.too_short.push_back({static_cast<long long>(i) + 1, -over});
    }
    std::stable_sort(out.take_off.begin(), out.take_off.end(),
                     [](const SetPiece& a, const SetPiece& b) { return a.take_off_mm > b.take_off_mm; });
    out.equal = out.take_off.empty() && out.too_short.empty();
    out.verdict = in_words(in, out);
    return out;
}

std::vector<Working> explain_equal_set(const EqualSetInput& in, const EqualSetResult& out) {
    const double longest = out.shortest_mm + out.spread_mm;
    std::vector<Working> list = {
        work_out("spread", "s = longest − shortest",
                 {given("longest", "of the set", longest, "mm"), given("shortest", "of the set", out.shortest_mm, "mm")}, "mm",
                 equal_set_source, [](auto x) { return x[0] - x[1]; })};
    list.back().notes.push_back(out.verdict);
    list.back().notes.push_back(std::to_string(in.lengths_mm.size()) + " pieces were read.");
    return list;
}

const Record& EqualSetInput::record() {
    using In = EqualSetInput;
    static const Record record = Fields<In>()
                                     .add("lengths_mm", &In::lengths_mm, "mm", "of each, as it was read", above(0, 5000))
                                     .required()
                                     .add("limit_mm", &In::limit_mm, "mm", "that may stay between them", between(0, 10))
                                     .because("a calliper reads no finer")
                                     .add("wanted_mm", &In::wanted_mm, "mm", "their length; none: all to the shortest", above(0, 5000));
    return record;
}

const Record& ShortPiece::record() {
    using Out = ShortPiece;
    static const Record record = Fields<Out>()
                                     .add("piece", &Out::piece, "", "of the set, counted from 1")
                                     .add("short_mm", &Out::short_mm, "mm", "that it wants of the length");
    return record;
}

const Record& SetPiece::record() {
    using Out = SetPiece;
    static const Record record = Fields<Out>()
                                     .add("piece", &Out::piece, "", "of the set, counted from 1")
                                     .add("take_off_mm", &Out::take_off_mm, "mm", "that it has over");
    return record;
}

const Record& EqualSetResult::record() {
    using Out = EqualSetResult;
    static const Record record = Fields<Out>()
                                     .add("shortest_mm", &Out::shortest_mm, "mm", "of the set")
                                     .add("target_mm", &Out::target_mm, "mm", "that all are brought to")
                                     .add("stop_by", &Out::stop_by, "", "piece that the lathe's stop is set by")
                                     .add("spread_mm", &Out::spread_mm, "mm", "longest less shortest")
                                     .add("take_off", &Out::take_off, "", "of those that are too long, the longest first")
                                     .add("too_short", &Out::too_short, "", "shorter than wanted: made anew or packed")
                                     .add("equal", &Out::equal, "", "they are")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& equal_set_calculation() {
    static const Calculation calculation = declare<EqualSetInput, EqualSetResult>(
        "set.equal", "Feet, pillars or studs that must be equal: the shortest, and what to take off the others.", equal_set_source,
        equal_set, explain_equal_set);
    return calculation;
}

}  // namespace echappe
