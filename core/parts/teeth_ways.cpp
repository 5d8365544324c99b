#include "parts/teeth_ways.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* teeth_ways_source = "areas of the rim; ways and minutes by workshop practice";
constexpr long long most_side_by_side = 3;
/// Below the roots: a dovetail as it is wanted, the least that holds by its form, a block's slot.
constexpr double dovetail_m = 1.5, least_dovetail_m = 0.8, slot_m = 0.4;
/// That stays of the rim under a dovetail, and under a block or pins.
constexpr double under_dovetail_mm = 1, under_dovetail_m = 1, under_slot_mm = 0.5;
/// More than this share of the teeth is no longer "some".
constexpr long long one_in = 8;

double ring_area(double outside, double inside) { return pi / 4 * (outside * outside - inside * inside); }

/// How a tooth is held in so much rim: by its form, on solder in a shallow slot, or on pins.
void hold(TeethWay& way, double rim_mm, double module_mm) {
    const double room = rim_mm - std::max(under_dovetail_mm, under_dovetail_m * module_mm);
    way.possible = true;
    if (room >= least_dovetail_m * module_mm) {
        way.by = "dovetail", way.deep_mm = std::min(dovetail_m * module_mm, room);
        way.reason = "Only the damaged teeth go: dovetailed, " + print_fixed(rim_mm - way.deep_mm, 2) + " mm of rim left under them.";
    } else if (rim_mm - slot_m * module_mm >= under_slot_mm) {
        way.by = "slot", way.deep_mm = slot_m * module_mm;
        way.reason = "Only the damaged teeth go: the rim has no room for a dovetail, so a block is soft-soldered into a slot of " +
                     print_fixed(way.deep_mm, 2) + " mm.";
    } else {
        way.by = "pins", way.deep_mm = 0;
        way.reason = "Only the damaged teeth go: each on two or three pins drilled into what is left of it, filed to form.";
    }
}

TeethWay let_in(const TeethWaysInput& in, long long damaged) {
    const CutRingInput& w = in.wheel;
    TeethWay out{"let in", false, "", 0, 0, "", 0};
    constexpr double begin = 40, each = 30;
    out.minutes = begin + each * static_cast<double>(damaged);
    const double rim = (w.root_mm - w.rim_inner_mm) / 2;
    const long long run = longest_run(in.damaged, w.teeth);
    hold(out, rim, w.module_mm);
    const double piece = pi * w.module_mm * ((w.outside_mm - w.root_mm) / 2 + out.deep_mm);
    out.keeps_percent = std::max(0.0, 100 * (1 - static_cast<double>(damaged) * piece / ring_area(w.outside_mm, w.rim_inner_mm)));
    const auto no = [&](const std::string& why) { out.possible = false, out.reason = why; };
    if (in.damaged.empty()) no("All teeth are worn: there is nothing to let in beside.");
    else if (run > most_side_by_side)
        no(std::to_string(run) + " teeth side by side are gone: pieces of more than three stand on too little of the rim.");
    else if (damaged > std::max<long long>(most_side_by_side, w.teeth / one_in))
        no(std::to_string(damaged) + " of " + std::to_string(w.teeth) + " teeth: so many are sooner and truer made on a ring.");
    return out;
}

TeethWay ring(const TeethWaysInput& in) {
    const CutRingInput& w = in.wheel;
    const CutRingResult cut = cut_ring(w);
    TeethWay out{"ring", cut.seat_diameter_mm.has_value(), "", 0, 0, "", 0};
    constexpr double begin = 210, each = 1.2;
    out.minutes = begin + each * static_cast<double>(w.teeth);
    if (!out.possible) {
        out.reason = cut.reason;
        return out;
    }
    out.keeps_percent = 100 * ring_area(*cut.seat_diameter_mm, w.rim_inner_mm) / ring_area(w.outside_mm, w.rim_inner_mm);
    out.reason = "Crossings, hub and arbor stay; every tooth is new and of one form.";
    if (cut.margin && *cut.margin < 1) out.possible = false, out.reason = "The joint does not hold the torque there.";
    return out;
}

TeethWay another(const TeethWaysInput& in) {
    constexpr double begin = 270, each = 1.6;
    return {"new wheel",
            true,
            "Nothing of the old wheel goes on working: it is kept with the clock, in a bag with its name.",
            0,
            begin + each * static_cast<double>(in.wheel.teeth),
            "",
            0};
}

}  // namespace

long long longest_run(const std::vector<long long>& damaged, long long teeth) {
    const std::set<long long> all(damaged.begin(), damaged.end());
    if (static_cast<long long>(all.size()) >= teeth) return teeth;
    long long longest = 0;
    for (const long long first : all) {
        long long run = 0;
        while (all.contains((first + run - 1) % teeth + 1)) ++run;
        longest = std::max(longest, run);
    }
    return longest;
}

TeethWaysResult teeth_ways(const TeethWaysInput& in) {
    for (const long long tooth : in.damaged)
        if (tooth < 1 || tooth > in.wheel.teeth)
            throw InputError("damaged", std::to_string(tooth), "teeth from 1 to " + std::to_string(in.wheel.teeth));
    const std::set<long long> all(in.damaged.begin(), in.damaged.end());
    TeethWaysResult out;
    out.ways = {let_in(in, static_cast<long long>(all.size())), ring(in), another(in)};
    // What keeps most goes before, unless it takes longer than twice what comes after.
    const TeethWay* best = nullptr;
    for (const TeethWay& way : out.ways)
        if (way.possible && (!best || best->minutes > 2 * way.minutes)) best = &way;
    out.advised = best->way;
    out.verdict = (best->way == "let in" ? "Let in teeth"
                   : best->way == "ring" ? "A ring on the kept wheel"
                                         : "Another wheel") +
                  std::string(": ") + best->reason;
    return out;
}

std::vector<Working> explain_teeth_ways(const TeethWaysInput& in, const TeethWaysResult& out) {
    std::vector<Working> list = {
        work_out("rim that is there", "A = π ÷ 4 × (D² − d²)",
                 {given("D", "outside", in.wheel.outside_mm, "mm"), given("d", "to the crossings", in.wheel.rim_inner_mm, "mm")}, "mm²",
                 teeth_ways_source, [](auto x) { return ring_area(x[0], x[1]); })};
    for (const TeethWay& way : out.ways)
        list.back().notes.push_back(way.way + ": " +
                                    (way.possible ? "keeps " + print_fixed(way.keeps_percent, 0) + " % of the rim, about " +
                                                        print_fixed(way.minutes, 0) + " minutes. "
                                                  : std::string("no. ")) +
                                    way.reason);
    return list;
}

const Record& TeethWaysInput::record() {
    using In = TeethWaysInput;
    static const Record record = [] {
        Fields<In> fields;
        fields.include(&In::wheel).add("damaged", &In::damaged, "", "teeth, counted from the mark; none: all are worn", between(1, 2000));
        return Record(fields);
    }();
    return record;
}

const Record& TeethWay::record() {
    using Out = TeethWay;
    static const Record record = Fields<Out>()
                                     .add("way", &Out::way, "", "let in, ring or new wheel")
                                     .add("possible", &Out::possible, "", "it can be")
                                     .add("reason", &Out::reason, "", "for it, or why not")
                                     .add("keeps_percent", &Out::keeps_percent, "%", "of the rim's old metal")
                                     .add("minutes", &Out::minutes, "min", "expected")
                                     .add("by", &Out::by, "", "let in: dovetail, slot or pins")
                                     .add("deep_mm", &Out::deep_mm, "mm", "let in: from the roots down");
    return record;
}

const Record& TeethWaysResult::record() {
    using Out = TeethWaysResult;
    static const Record record = Fields<Out>()
                                     .add("ways", &Out::ways, "", "what keeps most of the old wheel first")
                                     .add("advised", &Out::advised, "", "of them")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& teeth_ways_calculation() {
    static const Calculation calculation = declare<TeethWaysInput, TeethWaysResult>(
        "teeth.ways", "Damaged teeth let in, a ring on the kept wheel, or another wheel: what can be, what it keeps, what it takes.",
        teeth_ways_source, teeth_ways, explain_teeth_ways);
    return calculation;
}

}  // namespace echappe
