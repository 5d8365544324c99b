#include "making/dividing.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <set>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* dividing_source = "k ÷ N turns of the crank per division, on whole holes";
constexpr size_t compound_at_most = 20;

/// a/c1 + b/c2 = k/N on two circles of one plate, the second forwards or back.
void find_compound(const DividingInput& in, const std::vector<long long>& plate, std::vector<CompoundMove>& out) {
    const long long k = in.head.worm_ratio;
    const long long N = in.divisions;
    for (const long long one : plate)
        for (const long long two : plate) {
            if (one == two) continue;
            for (long long holes = -two + 1; holes < two && out.size() < compound_at_most; ++holes) {
                if (holes == 0) continue;
                // First circle's holes in all: one × (k/N − holes/two), a whole number or not.
                const long long above = one * (k * two - holes * N);
                const long long below = N * two;
                if (above < 0 || above % below != 0) continue;
                const long long first = above / below;
                if (first % one == 0) continue;
                out.push_back({one, first / one, first % one, two, holes});
            }
        }
}

NearestMove nearest(const DividingInput& in, const std::set<long long>& circles) {
    const auto k = static_cast<double>(in.head.worm_ratio);
    const auto N = static_cast<double>(in.divisions);
    NearestMove best;
    best.cumulative_error_deg = INFINITY;
    for (const long long circle : circles) {
        const long long in_all = std::llround(k / N * static_cast<double>(circle));
        const double error = (static_cast<double>(in_all) / static_cast<double>(circle) * N / k - 1) * 360;
        if (std::abs(error) >= std::abs(best.cumulative_error_deg)) continue;
        best = {circle, in_all / circle, in_all % circle, error, error / N, {}};
    }
    // The last tooth stands off by all but one of the errors; against its first neighbour.
    if (in.pitch_radius_mm > 0)
        best.worst_tooth_um = std::abs(best.cumulative_error_deg) * (N - 1) / N * pi / 180 * in.pitch_radius_mm * 1000;
    return best;
}

}  // namespace

const Record& DividingHead::record() {
    using In = DividingHead;
    static const Record record = Fields<In>()
                                     .add("worm_ratio", &In::worm_ratio, "", "turns of the crank per turn of the work", between(1, 1000))
                                     .because("lathes' dividing heads mostly have 60; 40 and 90 are common")
                                     .add("plates", &In::plates, "", "circles of holes, a list for each plate", between(2, 1000))
                                     .required();
    return record;
}

const Record& DividingInput::record() {
    using In = DividingInput;
    static const Record record =
        Fields<In>()
            .add("divisions", &In::divisions, "", "teeth to cut", between(2, 1000))
            .required()
            .include(&In::head)
            .add("pitch_radius_mm", &In::pitch_radius_mm, "mm", "of the wheel, to tell an error in µm", between(0, 1000));
    return record;
}

const Record& CrankMove::record() {
    using Out = CrankMove;
    static const Record record = Fields<Out>()
                                     .add("circle", &Out::circle, "", "holes in the circle")
                                     .add("turns", &Out::turns, "", "whole turns of the crank")
                                     .add("holes", &Out::holes, "", "and holes further");
    return record;
}

const Record& CompoundMove::record() {
    using Out = CompoundMove;
    static const Record record = Fields<Out>()
                                     .add("circle", &Out::circle, "", "first circle")
                                     .add("turns", &Out::turns, "", "whole turns of the crank")
                                     .add("holes", &Out::holes, "", "and holes further on the first circle")
                                     .add("second_circle", &Out::second_circle, "", "second circle of the same plate")
                                     .add("second_holes", &Out::second_holes, "", "holes on it; negative: back");
    return record;
}

const Record& NearestMove::record() {
    using Out = NearestMove;
    static const Record record =
        Fields<Out>()
            .add("circle", &Out::circle, "", "holes in the circle")
            .add("turns", &Out::turns, "", "whole turns of the crank")
            .add("holes", &Out::holes, "", "and holes further")
            .add("cumulative_error_deg", &Out::cumulative_error_deg, "deg", "at the work over all divisions; positive: too far")
            .add("error_per_tooth_deg", &Out::error_per_tooth_deg, "deg", "at the work for each division")
            .add("worst_tooth_um", &Out::worst_tooth_um, "µm", "the last gap against the first, at the pitch circle");
    return record;
}

const Record& DividingResult::record() {
    using Out = DividingResult;
    static const Record record = Fields<Out>()
                                     .add("exact", &Out::exact, "", "every circle that gives it exactly")
                                     .add("direct", &Out::direct, "", "circles that divide the work without the worm")
                                     .add("compound", &Out::compound, "", "two circles of a plate, when no single one does")
                                     .add("nearest", &Out::nearest, "", "when nothing is exact");
    return record;
}

DividingResult plan_dividing(const DividingInput& in) {
    std::set<long long> circles;
    for (const auto& plate : in.head.plates) circles.insert(plate.begin(), plate.end());
    if (circles.empty()) throw InputError("plates", "no circle of holes", "at least one, as in [[15, 16, 17, 18, 19, 20]]");
    DividingResult out;
    for (const long long circle : circles) {
        if (in.head.worm_ratio * circle % in.divisions == 0) {
            const long long in_all = in.head.worm_ratio * circle / in.divisions;
            out.exact.push_back({circle, in_all / circle, in_all % circle});
        }
        if (circle % in.divisions == 0) out.direct.push_back(circle);
    }
    if (!out.exact.empty()) return out;
    for (const auto& plate : in.head.plates) find_compound(in, plate, out.compound);
    if (out.compound.empty() && out.direct.empty()) out.nearest = nearest(in, circles);
    return out;
}

std::string dividing_in_words(const DividingInput& in, const DividingResult& out) {
    const auto move = [](long long turns, long long holes, long long circle) {
        std::string words = turns > 0 ? std::to_string(turns) + (turns == 1 ? " turn" : " turns") : "";
        if (holes > 0)
            words +=
                (words.empty() ? "" : " ") + std::to_string(holes) + (holes == 1 ? " hole of " : " holes of ") + std::to_string(circle);
        return words;
    };
    if (!out.exact.empty()) return move(out.exact.front().turns, out.exact.front().holes, out.exact.front().circle);
    if (!out.direct.empty())
        return "direct, every " + std::to_string(out.direct.front() / in.divisions) + " of " + std::to_string(out.direct.front());
    if (!out.compound.empty()) {
        const CompoundMove& m = out.compound.front();
        return move(m.turns, m.holes, m.circle) + (m.second_holes < 0 ? " − " : " + ") + std::to_string(std::abs(m.second_holes)) + " of " +
               std::to_string(m.second_circle);
    }
    return "not exact: " + move(out.nearest->turns, out.nearest->holes, out.nearest->circle) + ", off " +
           print_short(std::abs(out.nearest->cumulative_error_deg), 2) + "°";
}

bool divides_exactly(const DividingHead& head, long long divisions) {
    for (const auto& plate : head.plates)
        for (const long long circle : plate)
            if (head.worm_ratio * circle % divisions == 0 || circle % divisions == 0) return true;
    return false;
}

std::vector<Working> explain_dividing(const DividingInput& in, const DividingResult& out) {
    const Term k{"k", "turns of the crank per turn of the work", {static_cast<double>(in.head.worm_ratio), 0}, "", 0};
    const Term N{"N", "divisions", {static_cast<double>(in.divisions), 0}, "", 0};
    Working working = work_out("turns per division", "t = k ÷ N", {k, N}, "turn", dividing_source, [](auto x) { return x[0] / x[1]; });
    for (const CrankMove& move : out.exact)
        working.notes.push_back("circle of " + std::to_string(move.circle) + ": " + std::to_string(move.turns) + " turns and " +
                                std::to_string(move.holes) + " holes, exactly");
    for (const long long circle : out.direct)
        working.notes.push_back("direct: every " + std::to_string(circle / in.divisions) + " holes of the circle of " +
                                std::to_string(circle));
    for (const CompoundMove& move : out.compound)
        working.notes.push_back("compound: " + std::to_string(move.turns) + " turns and " + std::to_string(move.holes) + " holes of " +
                                std::to_string(move.circle) + ", then " + std::to_string(std::abs(move.second_holes)) + " holes of " +
                                std::to_string(move.second_circle) + (move.second_holes < 0 ? " back" : " on"));
    if (out.nearest)
        working.notes.push_back("nothing is exact; nearest: " + std::to_string(out.nearest->turns) + " turns and " +
                                std::to_string(out.nearest->holes) + " holes of " + std::to_string(out.nearest->circle) + ", off by " +
                                print_short(out.nearest->cumulative_error_deg, 3) + " deg after all divisions");
    return {working};
}

const Calculation& dividing_calculation() {
    static const Calculation calculation =
        declare<DividingInput, DividingResult>("divide.plan", "Turns and holes of a dividing head for a count: exact, compound or nearest.",
                                               dividing_source, plan_dividing, explain_dividing);
    return calculation;
}

}  // namespace echappe
