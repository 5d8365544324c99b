#include "power/spring_match.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/solve.h"
#include "number/units.h"
#include "power/enough.h"
#include "power/torque_log.h"

namespace echappe {
namespace {

constexpr const char* spring_match_source = "bending of the strip over the going turns, against a measured torque";
constexpr double side_room = 0.03;  ///< of the barrel's height, that the strip is narrower; 3 to 5 % are usual
constexpr double least_side_room_mm = 0.1;
constexpr double narrowest_share = 0.8;  ///< of the width that the barrel takes; workshop practice

double widest_strip_mm(const SpringMatchInput& in) {
    return in.barrel_height_mm - std::max(least_side_room_mm, side_room * in.barrel_height_mm);
}
constexpr double least_offered_fill = 0.40;
constexpr double most_offered_fill = 0.60;
constexpr double near_enough = 0.15;
constexpr double ratio_rule = 2.0;  ///< bores that an old coil should open to

struct Drive {
    double start = 0, end = 0, turns = 0, fill = 0, stress = 0;
    double mean() const { return (start + end) / 2; }
};

/// A strip of this length as it drives over the going turns.
Drive drive_of(const SpringMatchInput& in, const Strip& strip, double length_mm) {
    const SpringSizeResult size = spring_size({in.barrel_bore_mm, in.arbor_mm, strip.thickness_mm, length_mm, {}, {}, {}, 1});
    const double free_coils = length_mm / (pi * in.opens_to * in.barrel_bore_mm);
    const double low = in.set_up_turns.value_or(std::max(0.0, size.turns - in.turns_needed));
    const auto bent = [&](double wound) { return std::max(0.0, size.coils_unwound + wound - free_coils); };
    const double rate = spring_rate_N_mm(strip.width_mm, strip.thickness_mm, length_mm, strip.modulus_N_mm2);
    const double top = std::min(size.turns, low + in.turns_needed);
    Drive drive;
    drive.start = rate * bent(top) * (1 - in.friction);
    drive.end = rate * bent(low) * (1 - in.friction);
    drive.turns = size.turns - in.set_up_turns.value_or(0);
    drive.fill = size.fill;
    drive.stress = 6 * rate * bent(size.turns) / (strip.width_mm * strip.thickness_mm * strip.thickness_mm);
    return drive;
}

double area_mm2(const SpringMatchInput& in) { return pi / 4 * (in.barrel_bore_mm * in.barrel_bore_mm - in.arbor_mm * in.arbor_mm); }

/// The length that comes nearest to what is wanted among those that give the turns; without such, the one with most turns.
double best_length(const SpringMatchInput& in, const Strip& strip, double wanted) {
    const double most = std::min(strip.length_mm, most_offered_fill * area_mm2(in) / strip.thickness_mm);
    const double least = std::min(most, least_offered_fill * area_mm2(in) / strip.thickness_mm);
    constexpr int steps = 60;
    const auto worse = [&](const Drive& a, const Drive& b) {
        const bool a_goes = a.turns >= in.turns_needed, b_goes = b.turns >= in.turns_needed;
        if (a_goes != b_goes) return b_goes;
        return a_goes ? std::abs(a.mean() - wanted) > std::abs(b.mean() - wanted) : a.turns < b.turns;
    };
    double best = most;
    for (int i = 0; i < steps; ++i) {
        const double length = least + (most - least) * i / steps;
        if (worse(drive_of(in, strip, best), drive_of(in, strip, length))) best = length;
    }
    constexpr double fine_mm = 0.1;
    for (double step = (most - least) / steps; step > fine_mm; step /= 2)
        for (const double length : {best - step, best + step})
            if (length >= least && length <= most && worse(drive_of(in, strip, best), drive_of(in, strip, length))) best = length;
    return best;
}

void judge(const SpringMatchInput& in, const Strip& strip, MatchedStrip& out) {
    const double most_width = widest_strip_mm(in);
    const std::string times = print_times(out.times) + " times the torque wanted";
    if (out.width_mm > most_width) {
        out.verdict = "too wide";
        out.reason =
            print_short(out.width_mm) + " mm where the barrel takes " + print_fixed(most_width, 1) + " mm: it would rub the cover.";
    } else if (out.width_mm < narrowest_share * most_width) {
        out.verdict = "too narrow";
        out.reason = print_short(out.width_mm) + " mm in a barrel with room for " + print_fixed(most_width, 1) +
                     ": it wanders, its coils climb over each other and rub.";
    } else if (in.end && strip.end != *in.end) {
        out.verdict = "other end";
        out.reason = "It ends in a " + strip.end + " and the barrel asks for a " + *in.end + ".";
    } else if (out.turns < in.turns_needed) {
        out.verdict = "too few turns";
        out.reason =
            print_fixed(out.turns, 2) + " turns where " + print_fixed(in.turns_needed, 2) + " are needed: thinner strip gives more.";
    } else if (out.stress_N_mm2 > set_strip_N_mm2) {
        out.verdict = "overstressed";
        out.reason = print_fixed(out.stress_N_mm2, 0) + " N/mm² fully wound, over " + print_short(set_strip_N_mm2) +
                     ": it goes on setting or breaks; thinner or longer.";
    } else if (in.least_N_mm && out.torque_end_N_mm < end_times * *in.least_N_mm) {
        out.verdict = "weak";
        out.reason = print_short(out.torque_end_N_mm, 3) + " N mm at the end of the run, " +
                     print_times(out.torque_end_N_mm / *in.least_N_mm) + " times the least that runs: 1.2 are wanted there.";
    } else if (out.times > overdriving_times) {
        out.verdict = "overdriving";
        out.reason = times + ": it would wear great wheel and pinions.";
    } else if (std::abs(out.times - 1) <= near_enough) {
        out.verdict = "right";
        out.reason = times + ", " + print_fixed(out.turns, 1) + " turns.";
    } else {
        out.verdict = out.times > 1 ? "strong" : "weak";
        out.reason = times + (out.times > 1 ? ": a thinner one spares the train." : ": a thicker one, or this one shorter.");
    }
}

int rank_of(const std::string& verdict) {
    if (verdict == "right") return 0;
    if (verdict == "weak" || verdict == "strong") return 1;
    if (verdict == "overdriving") return 2;
    return 3;
}

std::optional<double> old_mean(const SpringMatchInput& in) {
    if (in.mean_N_mm) return in.mean_N_mm;
    if (!in.old) return {};
    const Strip strip{"", in.old->width_mm, in.old->thickness_mm, in.old->length_mm, "", 205000, 1};
    return drive_of(in, strip, in.old->length_mm).mean() * in.old->factor;
}

/// At the end of the run, where its sizes tell it; a mean that was measured tells no end.
std::optional<double> old_end(const SpringMatchInput& in) {
    if (in.mean_N_mm || !in.old) return {};
    Strip strip;
    strip.width_mm = in.old->width_mm;
    strip.thickness_mm = in.old->thickness_mm;
    return drive_of(in, strip, in.old->length_mm).end * in.old->factor;
}

void want(const SpringMatchInput& in, SpringMatchResult& out) {
    out.old_mean_N_mm = old_mean(in);
    if (in.least_N_mm) {
        out.wanted_N_mm = wanted_torque(*in.least_N_mm);
        out.wanted_from = "1.75 times the least torque that runs";
    } else if (out.old_mean_N_mm) {
        out.wanted_N_mm = *out.old_mean_N_mm;
        out.wanted_from = in.mean_N_mm ? "the old spring, as measured" : "the old spring, by its sizes";
    } else {
        throw InputError("least_N_mm", "nothing", "least_N_mm that runs, mean_N_mm of the old spring, or its sizes in old");
    }
}

void judge_old(const SpringMatchInput& in, SpringMatchResult& out) {
    if (in.old && in.old->cracked) {
        out.schools.push_back({"both", "replace", "It is cracked: it will break, and take teeth with it."});
        return;
    }
    if (in.old && in.old->opened_diameter_mm) {
        const double opens = *in.old->opened_diameter_mm / in.barrel_bore_mm;
        out.schools.push_back({"how far it opens", opens < ratio_rule ? "replace" : "keep",
                               "Its coils open to " + print_fixed(opens, 1) + " bores; " + print_short(ratio_rule) + " to 3 are asked."});
    }
    if (in.least_N_mm && out.old_mean_N_mm) {
        const DriveVerdict judged = judge_drive(*out.old_mean_N_mm, old_end(in).value_or(*out.old_mean_N_mm), *in.least_N_mm);
        const bool keep = judged.word == "right" || judged.word == "strong";
        out.schools.push_back({in.mean_N_mm ? "torque, measured" : "torque, by its sizes", keep ? "keep" : "replace", judged.reason});
    }
}

/// Thickness that gives the torque wanted at half the free area: torque rises all the way with it.
std::optional<EqualStrip> equal_strip(const SpringMatchInput& in, double width, double wanted) {
    const auto of = [&](double thickness) { return Strip{"", width, thickness, area_mm2(in) / 2 / thickness, "", 205000, 1}; };
    const auto mean = [&](double thickness) { return drive_of(in, of(thickness), of(thickness).length_mm).mean(); };
    // Of the room between arbor and wall: thinner or thicker is no mainspring.
    const double room = (in.barrel_bore_mm - in.arbor_mm) / 2;
    const double low = room / 500, high = room / 8;
    if (mean(low) > wanted || mean(high) < wanted) return {};
    const Strip strip = of(root_between([&](double thickness) { return mean(thickness) - wanted; }, low, high));
    const Drive drive = drive_of(in, strip, strip.length_mm);
    if (drive.turns < in.turns_needed) return {};
    return EqualStrip{width, strip.thickness_mm, strip.length_mm, drive.stress};
}

void trade_off(const SpringMatchInput& in, SpringMatchResult& out) {
    const double widest = widest_strip_mm(in);
    for (const double share : {1.0, 0.9, 0.8})
        if (const auto equal = equal_strip(in, widest * share, out.wanted_N_mm)) out.equal.push_back(*equal);
}

}  // namespace

const Record& EqualStrip::record() {
    using Out = EqualStrip;
    static const Record record = Fields<Out>()
                                     .add("width_mm", &Out::width_mm, "mm", "of the strip")
                                     .add("thickness_mm", &Out::thickness_mm, "mm", "that gives the torque wanted")
                                     .add("length_mm", &Out::length_mm, "mm", "half of the free area")
                                     .add("stress_N_mm2", &Out::stress_N_mm2, "N/mm²", "fully wound");
    return record;
}

const Record& Strip::record() {
    using In = Strip;
    static const Record record = Fields<In>()
                                     .add("id", &In::id, "", "in the drawer")
                                     .required()
                                     .add("width_mm", &In::width_mm, "mm", "of the strip", above(0, 500))
                                     .required()
                                     .add("thickness_mm", &In::thickness_mm, "mm", "of the strip", above(0, 10))
                                     .required()
                                     .add("length_mm", &In::length_mm, "mm", "longest that can be had", above(0, 1e6))
                                     .required()
                                     .add("end", &In::end, "", "how its outer end is made")
                                     .add("modulus_N_mm2", &In::modulus_N_mm2, "N/mm²", "of its steel", above(0, 1e6))
                                     .because("carbon spring steel; nickel alloys have 180 000 to 220 000")
                                     .add("quantity", &In::quantity, "", "in the drawer", between(0, 1e6))
                                     .because("a line of the drawer stands for one piece");
    return record;
}

const Record& OldSpring::record() {
    using In = OldSpring;
    static const Record record =
        Fields<In>()
            .add("width_mm", &In::width_mm, "mm", "of the strip", above(0, 500))
            .required()
            .add("thickness_mm", &In::thickness_mm, "mm", "of the strip", above(0, 10))
            .required()
            .add("length_mm", &In::length_mm, "mm", "of the strip", above(0, 1e6))
            .required()
            .add("factor", &In::factor, "", "of its torque against modern steel of the same size", above(0, 2))
            .because("taken as sound until it is measured; a tired or old spring gives less")
            .add("opened_diameter_mm", &In::opened_diameter_mm, "mm", "of its coils, out of the barrel", above(0, 1e4))
            .add("cracked", &In::cracked, "", "seen under the loupe");
    return record;
}

const Record& SpringMatchInput::record() {
    using In = SpringMatchInput;
    static const Record record =
        Fields<In>()
            .add("barrel_bore_mm", &In::barrel_bore_mm, "mm", "diameter inside the barrel", above(0, 1000))
            .required()
            .add("arbor_mm", &In::arbor_mm, "mm", "diameter of its arbor", above(0, 1000))
            .required()
            .add("barrel_height_mm", &In::barrel_height_mm, "mm", "inside, floor to cover", above(0, 1000))
            .required()
            .add("turns_needed", &In::turns_needed, "", "of the barrel for one run", above(0, 200))
            .required()
            .add("set_up_turns", &In::set_up_turns, "", "below the going turns; absent: the top turns go", between(0, 100))
            .add("least_N_mm", &In::least_N_mm, "N mm", "at the barrel, that just keeps the movement going", above(0, 1e6))
            .add("mean_N_mm", &In::mean_N_mm, "N mm", "measured of the old spring over the going turns", above(0, 1e6))
            .add("old", &In::old, "", "the spring that was in it")
            .add("friction", &In::friction, "", "share lost between the coils", between(0, 0.9))
            .because("greased coils lose 0.10 to 0.25")
            .add("opens_to", &In::opens_to, "", "bores that a new strip opens to", above(1, 20))
            .because("a set spring opens less, a fresh one to 2 to 3 bores")
            .add("end", &In::end, "", "that the barrel asks for: hole, loop, T")
            .add("stock", &In::stock, "", "strips, here or the path of a CSV")
            .or_file(&In::stock_file)
            .required();
    return record;
}

const Record& MatchedStrip::record() {
    using Out = MatchedStrip;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "in the drawer")
                                     .add("width_mm", &Out::width_mm, "mm", "of the strip")
                                     .add("thickness_mm", &Out::thickness_mm, "mm", "of the strip")
                                     .add("length_mm", &Out::length_mm, "mm", "to cut it to")
                                     .add("torque_start_N_mm", &Out::torque_start_N_mm, "N mm", "at the start of the run")
                                     .add("torque_end_N_mm", &Out::torque_end_N_mm, "N mm", "at its end")
                                     .add("torque_mean_N_mm", &Out::torque_mean_N_mm, "N mm", "over the going turns")
                                     .add("times", &Out::times, "", "mean ÷ wanted")
                                     .add("turns", &Out::turns, "", "there are, above the set-up")
                                     .add("fill", &Out::fill, "", "of the free area, 0 to 1")
                                     .add("stress_N_mm2", &Out::stress_N_mm2, "N/mm²", "fully wound")
                                     .add("verdict", &Out::verdict, "", "in a word")
                                     .add("reason", &Out::reason, "", "why");
    return record;
}

const Record& SchoolOfSprings::record() {
    using Out = SchoolOfSprings;
    static const Record record = Fields<Out>()
                                     .add("school", &Out::school, "", "judges by")
                                     .add("verdict", &Out::verdict, "", "keep or replace")
                                     .add("why", &Out::why, "", "its reason");
    return record;
}

const Record& SpringMatchResult::record() {
    using Out = SpringMatchResult;
    static const Record record = Fields<Out>()
                                     .add("wanted_N_mm", &Out::wanted_N_mm, "N mm", "mean torque over the going turns")
                                     .add("wanted_from", &Out::wanted_from, "", "what it was taken from")
                                     .add("old_mean_N_mm", &Out::old_mean_N_mm, "N mm", "of the old spring")
                                     .add("schools", &Out::schools, "", "how the old spring is judged")
                                     .add("equal", &Out::equal, "", "strips that would give the torque wanted, by their width")
                                     .add("ranked", &Out::ranked, "", "strips, nearest to what is wanted first");
    return record;
}

SpringMatchResult match_spring(const SpringMatchInput& in) {
    if (in.arbor_mm >= in.barrel_bore_mm)
        throw InputError("arbor_mm", print_short(in.arbor_mm), "less than the barrel's bore, " + print_short(in.barrel_bore_mm));
    SpringMatchResult out;
    want(in, out);
    judge_old(in, out);
    trade_off(in, out);
    for (const Strip& strip : in.stock) {
        if (strip.quantity < 1) continue;
        MatchedStrip& m = out.ranked.emplace_back();
        m.id = strip.id;
        m.width_mm = strip.width_mm;
        m.thickness_mm = strip.thickness_mm;
        m.length_mm = best_length(in, strip, out.wanted_N_mm);
        const Drive drive = drive_of(in, strip, m.length_mm);
        m.torque_start_N_mm = drive.start;
        m.torque_end_N_mm = drive.end;
        m.torque_mean_N_mm = drive.mean();
        m.times = drive.mean() / out.wanted_N_mm;
        m.turns = drive.turns;
        m.fill = drive.fill;
        m.stress_N_mm2 = drive.stress;
        judge(in, strip, m);
    }
    std::stable_sort(out.ranked.begin(), out.ranked.end(), [](const MatchedStrip& a, const MatchedStrip& b) {
        const int ra = rank_of(a.verdict), rb = rank_of(b.verdict);
        return ra != rb ? ra < rb : std::abs(std::log(std::max(a.times, 1e-9))) < std::abs(std::log(std::max(b.times, 1e-9)));
    });
    return out;
}

std::vector<Working> explain_spring_match(const SpringMatchInput& in, const SpringMatchResult& out) {
    Working wanted;
    wanted.name = "torque wanted";
    wanted.formula = out.wanted_from;
    wanted.result = {out.wanted_N_mm, 0};
    wanted.unit = "N mm";
    wanted.source = spring_match_source;
    for (const SchoolOfSprings& school : out.schools)
        wanted.notes.push_back("By " + school.school + ": " + school.verdict + ". " + school.why);
    if (!out.ranked.empty()) wanted.notes.push_back(out.ranked.front().id + ": " + out.ranked.front().reason);
    wanted.notes.push_back(
        "A wound spring is stored energy: let down with a key that fits, hand in a glove, eyes covered; never open a wound barrel.");
    (void)in;
    return {wanted};
}

}  // namespace echappe
