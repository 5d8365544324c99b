#include "pivots/bush_plan.h"

#include <algorithm>
#include <cmath>
#include <tuple>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* bush_plan_source = "workshop practice: seat on the original centre, wall, height and press fit; wear by geometry";

// Limits of practice. A reading with pin gauges is good to about 0.01 mm: what is below it cannot be called oval.
constexpr double round_floor_mm = 0.01;
constexpr double round_fraction = 0.015;  ///< of the pivot
constexpr double oval_fraction = 0.5;     ///< of the wanted clearance: left, where nothing is known of the mesh's depth
constexpr double clock_gauge_u_mm = 0.008, watch_gauge_u_mm = 0.003;  ///< pin gauges in steps of 0.02 and 0.005 mm, and their feel
constexpr double finest_gauges_mm = 0.6;
constexpr double surely = 2;               ///< standard uncertainties
constexpr double depth_fraction = 0.08;    ///< of the module: a mesh that lost more depth runs noticeably worse
constexpr double closing_fraction = 0.25;  ///< excess over the wanted hole that a punch can bring in, of the pivot
constexpr double closing_most_mm = 0.10;
constexpr double closing_plate_mm = 1.2;  ///< in a thicker plate only the mouth of the hole closes
constexpr double clean_up_mm = 0.1;       ///< the seat must cut all round
constexpr double edge_wanted_mm = 1.5;
constexpr double thin_wall_mm = 0.4;
constexpr double punch_overhang_mm = 0.3;  ///< the punch's face beyond the bush's rim
constexpr double press_fit_share = 0.011;  ///< of the outside: 0.03 mm is for clock bushes, a small one of 0.9 mm stands 0.01
constexpr double broach_pass_mm = 0.02;
constexpr double off_centre_mm = 0.05;  ///< an old bush further off than this spoils the depth
constexpr double narrowest_bore = 0.7;  ///< of the pivot
constexpr double tiny_mm = 1e-9;

/// Lengths in words; a watch's pivot asks for a decimal more.
struct InWords {
    int decimals;
    explicit InWords(const BushPlanInput& in) : decimals(in.pivot_mm < 0.6 ? 3 : 2) {}
    std::string operator()(double value) const { return print_fixed(value, decimals) + " mm"; }
};

double limit_of_round(double pivot_mm) { return std::max(round_floor_mm, round_fraction * pivot_mm); }

/// What a difference of two diameters may be off, twice its standard uncertainty.
double may_be_off(const BushPlanInput& in) {
    return surely * std::sqrt(2.0) * in.reading_u_mm.value_or(in.pivot_mm < finest_gauges_mm ? watch_gauge_u_mm : clock_gauge_u_mm);
}

/// The most ovality that is left. Where the depth of the worst mesh is known that decides, and ovality only once it is as much as the play
/// that is wanted; else half of that: the pivot walks in it, and the wear goes on faster than in a round hole.
double oval_left(const BushPlanInput& in, double wanted_mm) {
    const bool depth_known = in.depth_lost_mm && in.module_mm;
    return std::max(limit_of_round(in.pivot_mm), (depth_known ? 1 : oval_fraction) * wanted_mm);
}

/// By how much the lost depth is beyond what is left.
double depth_beyond(const BushPlanInput& in) {
    return in.depth_lost_mm && in.module_mm ? std::abs(*in.depth_lost_mm) - depth_fraction * *in.module_mm : -1;
}

void check(const BushPlanInput& in) {
    if (in.hole_min_mm > in.hole_max_mm + tiny_mm)
        throw InputError("hole_min_mm", print_short(in.hole_min_mm, 9), "at most hole_max_mm, " + print_short(in.hole_max_mm, 9));
    if (in.original_mm && *in.original_mm > in.hole_max_mm + tiny_mm)
        throw InputError("original_mm", print_short(*in.original_mm, 9), "at most hole_max_mm, " + print_short(in.hole_max_mm, 9));
    for (size_t i = 0; i < in.stock.size(); ++i)
        if (in.stock[i].outside_mm <= in.stock[i].bore_mm)
            throw InputError("stock[" + std::to_string(i) + "].outside_mm", print_short(in.stock[i].outside_mm, 9),
                             "more than its bore, " + print_short(in.stock[i].bore_mm, 9));
}

/// Through the bush when one is chosen, through the plate before.
double wanted_clearance(const BushPlanInput& in, double length_mm) { return clearance_by(in.clearance, in.pivot_mm, length_mm); }

double old_bush_off(const BushPlanInput& in) { return in.old_bush_off_mm ? std::hypot(in.old_bush_off_mm->x, in.old_bush_off_mm->y) : 0; }

/// Where the new seat's middle goes, from the middle of the hole as it is.
double seat_off(const BushPlanInput& in, const BushPlanResult& out) { return in.old_bush_off_mm ? old_bush_off(in) : out.worn_mm / 2; }

/// Round enough, little enough too large, and in a plate thin enough that a punch brings the metal in.
bool could_be_closed(const BushPlanInput& in, const BushPlanResult& out, double excess_mm) {
    return out.ovality_mm <= std::max(limit_of_round(in.pivot_mm), may_be_off(in) / surely) + tiny_mm &&
           excess_mm <= std::min(closing_most_mm, closing_fraction * in.pivot_mm) && in.plate_mm <= closing_plate_mm && !in.old_bush;
}

/// For the least bush that cleans up the hole, with enough plate round it.
bool has_room(const BushPlanInput& in, const BushPlanResult& out) {
    return !in.edge_mm || *in.edge_mm - out.wanted_outside_mm / 2 >= edge_wanted_mm;
}

/// A round hole that is bushed or closed for its play alone may be good by another school: said, since metal that is gone is gone.
std::string good_by_others(const BushPlanInput& in, double play_mm) {
    std::string schools;
    for (const SchoolClearance& school : compare_clearances({in.pivot_mm, in.plate_mm, in.clearance}).schools)
        if (school.school != in.clearance.school && play_mm <= in.leave_factor * school.clearance_mm + tiny_mm)
            schools += (schools.empty() ? "By the " : " and by the ") + school.words;
    return schools.empty() ? "" : " " + schools + " it would be left: while its meshes stand in depth, that is a choice too.";
}

/// What must be done, and why, before any bush is looked for.
void decide(const BushPlanInput& in, BushPlanResult& out) {
    const InWords mm(in);
    const double play = in.hole_max_mm - in.pivot_mm;
    const double limit = in.leave_factor * out.wanted_clearance_mm;
    const double excess = play - out.wanted_clearance_mm, off = may_be_off(in);
    if (in.pivot_state != pivot_states().front()) {
        out.decision = "repivot-first";
        out.reason = "The pivot is " + in.pivot_state + ": a bush must fit the finished pivot, so polish or re-pivot first.";
    } else if (!in.pegged) {
        out.decision = "clean";
        out.reason = "Not pegged clean: dirt or lacquer in the hole gives false readings. Peg it and measure again.";
    } else if (in.hole_min_mm < in.pivot_mm - tiny_mm) {
        out.decision = "clean";
        out.reason = "The hole reads " + mm(in.pivot_mm - in.hole_min_mm) +
                     " smaller than the pivot that ran in it: dirt, lacquer or a misread. Clean it and measure again.";
    } else if (old_bush_off(in) > off_centre_mm) {
        out.decision = "bush";
        out.reason = "An earlier bush stands " + mm(old_bush_off(in)) + " off the original centre: bush anew where the teeth want it.";
    } else if (out.ovality_mm > oval_left(in, out.wanted_clearance_mm) + off) {
        out.decision = "bush";
        out.reason = "Oval by " + mm(out.ovality_mm) + " ± " + mm(off / surely) + ": up to " + mm(oval_left(in, out.wanted_clearance_mm)) +
                     " would be left, and an oval hole cannot be closed. The bush goes " + mm(out.worn_mm / 2) + " to the original centre.";
    } else if (depth_beyond(in) > off / 2) {
        out.decision = "bush";
        out.reason = "The wear takes a mesh " + mm(std::abs(*in.depth_lost_mm)) +
                     (*in.depth_lost_mm < 0 ? " out of its depth; up to " : " deeper; up to ") + mm(depth_fraction * *in.module_mm) +
                     " is left. The bush goes " + mm(out.worn_mm / 2) + " to the original centre.";
    } else if (play <= limit + off) {
        out.decision = "leave";
        out.reason = "Side shake " + mm(play) + "; up to " + mm(limit) + " is good by the " + words_for(in.clearance) + ".";
        const bool doubted =
            play > limit + tiny_mm || depth_beyond(in) > 0 || out.ovality_mm > oval_left(in, out.wanted_clearance_mm) + tiny_mm;
        if (doubted) {
            out.reason = "Side shake " + mm(play) + " ± " + mm(off / surely) + " where up to " + mm(limit) + " is good, oval by " +
                         mm(out.ovality_mm) +
                         ": these readings cannot tell whether that is too much. Leave it: metal that is cut away cannot be put back.";
            out.warnings.push_back(
                "Read pivot and hole again, each three times, with gauges in finer steps: the long axis by the sway of the pivot.");
        }
    } else if (could_be_closed(in, out, excess)) {
        out.decision = "close";
        out.reason = "Round, only " + mm(excess) + " too large, in a plate of " + mm(in.plate_mm) +
                     ": a round punch on a flat stump closes it." + good_by_others(in, play);
    } else {
        out.decision = "bush";
        out.reason = "Side shake " + mm(play) + " where " + mm(out.wanted_clearance_mm) + " is wanted: more than closing can bring in." +
                     good_by_others(in, play);
    }
}

using Drawer = std::vector<const Bush*>;

/// There is one, and its bore can become the finished hole: not so wide that it rattles, not so narrow that it is mostly drilled away.
bool of_use(const BushPlanInput& in, double clearance_mm, const Bush& bush) {
    if (bush.quantity <= 0 || bush.bore_mm < narrowest_bore * in.pivot_mm) return false;
    if (in.method == "broach-up") return bush.bore_mm <= in.pivot_mm + tiny_mm;
    // Wider than what would have been left as it was is no bush.
    return bush.bore_mm <= in.pivot_mm + in.leave_factor * clearance_mm + tiny_mm;
}

/// Bushes whose seat cleans up the worn hole and that do not stand proud; when all of those are too tall, the lowest of them.
Drawer that_fit_the_plate(const BushPlanInput& in, const BushPlanResult& out, bool& too_tall) {
    Drawer fit;
    for (const Bush& bush : in.stock)
        if (bush.outside_mm >= out.wanted_outside_mm - tiny_mm && of_use(in, out.wanted_clearance_mm, bush)) fit.push_back(&bush);
    Drawer flush;
    std::copy_if(fit.begin(), fit.end(), std::back_inserter(flush), [&](auto* b) { return b->height_mm <= in.plate_mm + tiny_mm; });
    too_tall = flush.empty() && !fit.empty();
    if (!too_tall) return flush;
    const double lowest =
        (*std::min_element(fit.begin(), fit.end(), [](auto* a, auto* b) { return a->height_mm < b->height_mm; }))->height_mm;
    std::erase_if(fit, [&](const Bush* bush) { return bush->height_mm > lowest; });
    return fit;
}

/// The best by the method: first the bore, then the taller, then the one that takes less of the plate.
std::optional<Bush> best_bush(const BushPlanInput& in, double clearance_mm, const Drawer& fit) {
    const auto rank = [&](const Bush& bush) {
        double off = in.pivot_mm - bush.bore_mm;
        if (in.method == "fit-direct") {
            // Of two as near, the smaller bore: it can still be opened.
            const double away = bush.bore_mm - in.pivot_mm - clearance_mm;
            off = std::abs(away) + (away > 0 ? tiny_mm : 0);
        }
        return std::tuple(off, -bush.height_mm, bush.outside_mm);
    };
    const Bush* best = nullptr;
    for (const Bush* bush : fit)
        if (!best || rank(*bush) < rank(*best)) best = bush;
    if (!best) return {};
    return *best;
}

/// A punch's mark stays for good: a bush goes before closing: one of the drawer, and where there is known to be room
/// one that is ordered.
void prefer_a_bush(const BushPlanInput& in, BushPlanResult& out) {
    if (!has_room(in, out)) return;
    bool too_tall = false;
    if (!in.edge_mm && (that_fit_the_plate(in, out, too_tall).empty() || too_tall)) {
        const InWords mm(in);
        out.warnings.push_back("A bush spares the mark. Measure the room round the hole and order one of bore up to " + mm(in.pivot_mm) +
                               ", outside from " + mm(out.wanted_outside_mm) + ", height up to " + mm(in.plate_mm) + ".");
        return;
    }
    out.decision = "bush";
    out.reason = "Round, " + InWords(in)(in.hole_max_mm - in.pivot_mm - out.wanted_clearance_mm) +
                 " too large: a punch would close it, but its mark stays for good, and there is room for a bush." +
                 good_by_others(in, in.hole_max_mm - in.pivot_mm);
}

void choose_bush(const BushPlanInput& in, BushPlanResult& out) {
    const InWords mm(in);
    bool too_tall = false;
    const Drawer fit = that_fit_the_plate(in, out, too_tall);
    if (fit.empty() &&
        std::any_of(in.stock.begin(), in.stock.end(), [&](const Bush& b) { return of_use(in, out.wanted_clearance_mm, b); })) {
        out.decision = "plug";
        out.reason = "No bush of this bore in the drawer is wide enough for the worn hole (" + mm(out.wanted_outside_mm) +
                     " outside): bore it out, fit a turned plug, and drill anew on the original centre.";
        return;
    }
    out.bush = best_bush(in, out.wanted_clearance_mm, fit);
    if (!out.bush) {
        out.warnings.push_back(
            "No bush in the drawer suits: order one of bore " +
            (in.method == "broach-up" ? "up to " + mm(in.pivot_mm) : "about " + mm(in.pivot_mm + out.wanted_clearance_mm)) +
            ", outside from " + mm(out.wanted_outside_mm) + ", height up to " + mm(in.plate_mm) + ".");
        return;
    }
    if (too_tall) out.warnings.push_back("Every bush that fits is taller than the plate: face it down to " + mm(in.plate_mm) + ".");
    if (out.bush->bore_mm < in.pivot_mm - 0.5)
        out.warnings.push_back("The bore is " + mm(in.pivot_mm - out.bush->bore_mm) + " under the pivot: drill before broaching.");
}

/// Sizes that follow from the bush: seat, hole, walls.
void fit_bush(const BushPlanInput& in, BushPlanResult& out) {
    const InWords mm(in);
    const Bush& bush = *out.bush;
    const double height = std::min(bush.height_mm, in.plate_mm);
    out.wanted_clearance_mm = wanted_clearance(in, height);
    out.broach_to_mm = std::max(bush.bore_mm, in.pivot_mm + out.wanted_clearance_mm);
    out.broach_passes = static_cast<long long>(std::ceil((*out.broach_to_mm - bush.bore_mm) / broach_pass_mm - tiny_mm));
    std::vector<std::string> missing;
    out.press_fit_mm = std::min(in.interference_mm, press_fit_share * bush.outside_mm);
    out.reamers_mm = reamer_ladder(in.hole_max_mm, bush.outside_mm - *out.press_fit_mm, in.own_reamers_mm, &missing);
    out.warnings.insert(out.warnings.end(), missing.begin(), missing.end());
    if (out.reamers_mm.size() > 4)
        out.warnings.push_back(std::to_string(out.reamers_mm.size()) + " passes: drill or bore the first ones to save the reamers.");
    out.wall_mm = (bush.outside_mm - *out.broach_to_mm) / 2;
    out.clean_up_mm = bush.outside_mm / 2 - seat_off(in, out) - in.hole_max_mm / 2;
    if (*out.wall_mm < thin_wall_mm) out.warnings.push_back("The bush's wall is only " + mm(*out.wall_mm) + " after broaching.");
    if (in.edge_mm) {
        out.edge_left_mm = *in.edge_mm - bush.outside_mm / 2;
        if (*out.edge_left_mm < edge_wanted_mm)
            out.warnings.push_back("Only " + mm(*out.edge_left_mm) + " to the plate's edge or the next hole; " + mm(edge_wanted_mm) +
                                   " is wanted.");
    }
    out.punch_mm = bush.outside_mm + 2 * punch_overhang_mm;
    if (in.free_radius_mm && 2 * *in.free_radius_mm < *out.punch_mm) {
        out.punch_mm = std::min(*out.punch_mm, 2 * *in.free_radius_mm);
        out.warnings.push_back(
            *out.punch_mm < bush.outside_mm
                ? "Only " + mm(*in.free_radius_mm) + " is free round the hole: the punch cannot cover the bush, take out what stands near."
                : "Only " + mm(*in.free_radius_mm) + " is free round the hole: use a punch of " + mm(*out.punch_mm) + ".");
    }
}

/// A spherical cap 2.25 pivots wide and a third of that deep, but a bearing as long as the pivot is thick stays.
void sink_for_oil(const BushPlanInput& in, BushPlanResult& out) {
    const double depth = std::min(2.25 * in.pivot_mm / 3, in.plate_mm - in.pivot_mm);
    if (depth <= 0) return;
    out.sink_depth_mm = depth;
    out.sink_diameter_mm = 2.25 * in.pivot_mm;
}

}  // namespace

const std::vector<std::string>& hole_decisions() {
    static const std::vector<std::string> all = {"leave", "clean", "close", "bush", "plug", "repivot-first"};
    return all;
}

const std::vector<std::string>& pivot_states() {
    static const std::vector<std::string> all = {"polished", "scored", "tapered", "bent", "mushroomed", "rusted"};
    return all;
}

std::string words_for_decision(const std::string& decision) {
    if (decision == "leave") return "leave it";
    if (decision == "clean") return "clean and recheck";
    if (decision == "close") return "close it";
    if (decision == "bush") return "bush it";
    if (decision == "plug") return "plug it";
    return decision == "repivot-first" ? "see to the pivot first" : "not measured yet";
}

BushPlanResult plan_bush(const BushPlanInput& in) {
    const InWords mm(in);
    check(in);
    BushPlanResult out;
    out.ovality_mm = in.hole_max_mm - in.hole_min_mm;
    const Wear wear = wear_of(in.hole_max_mm, in.original_mm.value_or(in.hole_min_mm), in.wear_direction_deg.value_or(0));
    out.worn_mm = wear.worn_mm;
    out.wanted_outside_mm = 2 * seat_off(in, out) + in.hole_max_mm + 2 * clean_up_mm;
    out.wanted_clearance_mm = wanted_clearance(in, in.plate_mm);
    out.clearance_mm = in.hole_max_mm - in.pivot_mm;
    decide(in, out);
    // Which end of the long axis the pivot walked to is not known: rather no offset than half a chance of a wrong one.
    if (in.old_bush_off_mm) out.offset_mm = *in.old_bush_off_mm;
    else if (in.wear_direction_deg) out.offset_mm = wear.to_centre;
    if (out.decision == "close") prefer_a_bush(in, out);
    if (out.decision == "bush") choose_bush(in, out);
    if (out.bush) fit_bush(in, out);
    if (out.decision == "bush" || out.decision == "plug" || out.decision == "close") {
        if (!out.broach_to_mm) out.broach_to_mm = in.pivot_mm + out.wanted_clearance_mm;
        out.clearance_mm = *out.broach_to_mm - in.pivot_mm;
        sink_for_oil(in, out);
        if (out.decision != "close" && !in.wear_direction_deg && !in.old_bush_off_mm && wear.offset_mm > round_floor_mm / 2)
            out.warnings.push_back("The way the pivot walked is not given: the original centre lies " + mm(wear.offset_mm) +
                                   " back along the long axis, and the offset cannot be told.");
    }
    if (out.decision == "close")
        out.warnings.push_back(
            "A closed hole cannot be opened to what it was, and the next hand will call the punch's mark a fault. Check the end shake "
            "after "
            "broaching, and take the burr off both sides.");
    return out;
}

namespace {

constexpr double largest_step_mm = 0.6;

/// Fewest passes through the drawer's sizes from the hole to the seat, the steps as even as can be; empty when they do not reach.
std::vector<double> through_the_drawer(double hole_mm, double final_mm, std::vector<double> sizes) {
    std::erase_if(sizes, [&](double size) { return size <= hole_mm + tiny_mm || size >= final_mm - tiny_mm; });
    std::sort(sizes.begin(), sizes.end());
    sizes.push_back(final_mm);
    struct Way {
        size_t passes = SIZE_MAX;
        double squares = INFINITY;  ///< of the steps: least when they are even
        size_t from = SIZE_MAX;
    };
    std::vector<Way> ways(sizes.size());
    for (size_t i = 0; i < sizes.size(); ++i) {
        const auto take = [&](size_t passes, double squares, double below, size_t from) {
            const double step = sizes[i] - below;
            if (step > largest_step_mm + tiny_mm || passes == SIZE_MAX) return;
            // The seat takes two passes at least: the last one must cut light.
            if (i + 1 == sizes.size() && passes == 0 && sizes.size() > 1) return;
            const Way way{passes + 1, squares + step * step, from};
            if (std::tie(way.passes, way.squares) < std::tie(ways[i].passes, ways[i].squares)) ways[i] = way;
        };
        take(0, 0, hole_mm, SIZE_MAX);
        for (size_t k = 0; k < i; ++k) take(ways[k].passes, ways[k].squares, sizes[k], k);
    }
    std::vector<double> ladder;
    if (ways.back().passes == SIZE_MAX) return ladder;
    for (size_t at = sizes.size() - 1; at != SIZE_MAX; at = ways[at].from) ladder.insert(ladder.begin(), sizes[at]);
    return ladder;
}

}  // namespace

std::vector<double> reamer_ladder(double hole_mm, double final_mm, const std::vector<double>& own_mm, std::vector<std::string>* missing) {
    constexpr double seat_tolerance_mm = 0.011;  ///< interference stays within 0.02 to 0.04 about the usual 0.03
    const auto passes = std::max(2.0, std::ceil((final_mm - hole_mm) / largest_step_mm - tiny_mm));
    std::vector<double> even;
    for (double pass = 1; pass < passes; ++pass) even.push_back(hole_mm + (final_mm - hole_mm) * pass / passes);
    even.push_back(final_mm);
    if (own_mm.empty()) return even;
    const auto tell = [&](const std::string& words) {
        if (missing) missing->push_back(words);
    };
    double seat = final_mm;
    const auto nearest =
        std::min_element(own_mm.begin(), own_mm.end(), [&](double a, double b) { return std::abs(a - final_mm) < std::abs(b - final_mm); });
    if (std::abs(*nearest - final_mm) <= seat_tolerance_mm) seat = *nearest;
    else tell("No reamer of " + print_fixed(final_mm, 2) + " mm in the drawer: the press fit needs it.");
    const std::vector<double> ladder = through_the_drawer(hole_mm, seat, own_mm);
    if (!ladder.empty()) return ladder;
    tell("The reamers in the drawer leave steps of over " + print_fixed(largest_step_mm, 1) + " mm: bore the sizes between.");
    return even;
}

std::vector<Working> explain_bush_plan(const BushPlanInput& in, const BushPlanResult& out) {
    std::vector<Working> list;
    const Term most{"M", "hole, largest", {in.hole_max_mm, 0}, "mm", 0};
    const Term pivot{"d", "pivot", {in.pivot_mm, 0}, "mm", 0};
    const Term original{"o",
                        in.original_mm ? "hole before it wore" : "hole, smallest: it stands for the original",
                        {in.original_mm.value_or(in.hole_min_mm), 0},
                        "mm",
                        0};
    Working shake = work_out("side shake now", "s = M − d", {most, pivot}, "mm", bush_plan_source, [](auto x) { return x[0] - x[1]; });
    shake.notes = {words_for_decision(out.decision) + ": " + out.reason};
    list.push_back(std::move(shake));
    Working offset = work_out("back to the original centre", "e = (M − o) ÷ 2", {most, original}, "mm", bush_plan_source,
                              [](auto x) { return (x[0] - x[1]) / 2; });
    if (in.wear_direction_deg)
        offset.notes = {"from the middle of the worn hole " + way_in_words(*in.wear_direction_deg + 180) + ": x " +
                        print_fixed(out.offset_mm.x, 3) + ", y " + print_fixed(out.offset_mm.y, 3) + " mm"};
    list.push_back(std::move(offset));
    if (out.broach_to_mm)
        list.push_back(
            work_out("finished hole", "D = d + s",
                     {pivot, {"s", "clearance by the " + words_for(in.clearance), {*out.broach_to_mm - in.pivot_mm, 0}, "mm", 0}}, "mm",
                     bush_plan_source, [](auto x) { return x[0] + x[1]; }));
    if (!out.bush) return list;
    Working seat = work_out("last reamer", "R = B − i",
                            {{"B", "bush " + out.bush->id + ", outside", {out.bush->outside_mm, 0}, "mm", 0},
                             {"i", "press fit", {*out.press_fit_mm, 0}, "mm", 0}},
                            "mm", bush_plan_source, [](auto x) { return x[0] - x[1]; });
    seat.notes = {"the seat cuts " + print_fixed(*out.clean_up_mm, 2) + " mm beyond the worn hole where it is thinnest",
                  "the bush's wall is " + print_fixed(*out.wall_mm, 2) + " mm round the finished hole"};
    list.push_back(std::move(seat));
    for (const std::string& warning : out.warnings) list.back().notes.push_back(warning);
    return list;
}

}  // namespace echappe
