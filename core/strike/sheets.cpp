#include "strike/sheets.h"

#include "number/units.h"

namespace echappe {

SumAnswer strike_sheet(const StrikeRecord& record, const DerivedStrike& d) {
    SumAnswer answer;
    std::vector<std::string> fields = {"kind", "scheme"};
    if (record.scheme == "custom") fields.push_back("blows");
    answer.asked = lines_of(StrikeRecord::record(), &record, fields);
    answer.fault = d.fault;
    Found found(answer);
    long long wrong = 0, total = 0;
    for (const StruckHour& one : d.day) wrong += one.strikes != one.should, total += one.should;
    if (d.day.empty()) return answer;
    found.says(record.hammers == 2 ? "pairs once round" : "blows once round", static_cast<double>(total), "", 0);
    if (record.faults.empty()) {
        found.sentence("sound", "Nothing is thought to be wrong: it strikes right. Click a slot, a tooth or a step to try a fault.");
        return answer;
    }
    for (const StrikeFault& fault : record.faults) found.sentence("tried", "Tried: " + words_of(fault) + ".");
    found.says("strikes that are wrong", static_cast<double>(wrong), "", 0);
    return answer;
}

SumAnswer strike_heard_sheet(const StrikeRecord& record, const DerivedStrike& d) {
    SumAnswer answer;
    answer.asked.push_back({"heard", "heard: hour and blows", words_of(record.heard), "", record.heard.empty() ? "unknown" : "typed"});
    answer.fault = d.heard_fault;
    Found found(answer);
    if (!d.heard) {
        if (d.heard_fault.empty())
            found.sentence("begin",
                           "Count a few hours by ear and type them: 5: 4, 6: 5, 7: runs on. The hands may be led from hour to hour.");
        return answer;
    }
    found.sentence("verdict", d.heard->verdict);
    const auto heard = static_cast<long long>(record.heard.size());
    // Where all that was heard is right, what could still be wrong at hours that nobody heard is no finding.
    if (!d.heard->causes.empty() && d.heard->causes.front().faults.empty() && d.heard->causes.front().explains == heard) return answer;
    constexpr double worth = 0.005;
    for (const StrikeCause& cause : d.heard->causes) {
        if (cause.probability <= worth) continue;
        const bool all = cause.explains == heard;
        found.sentence("cause", print_fixed(100 * cause.probability, 0) + " %: " + cause.words + "." + (all ? "" : " " + cause.because));
    }
    return answer;
}

SumAnswer strike_part_sheet(const StrikeRecord& record, const DerivedStrike& d) {
    SumAnswer answer;
    Found found(answer);
    answer.fault = d.part_fault;
    const char* const usual = "Drawn and reckoned with usual sizes: measure it before it is cut.";
    if (record.kind == "countwheel") {
        answer.asked = lines_of(StrikeRecord::record(), &record, {"diameter_mm", "slot_width_mm", "depth_mm", "bore_mm", "slot_units"});
        if (!d.wheel) return answer;
        if (!d.measured) found.sentence("usual", usual);
        found.says("a unit", d.wheel->unit_deg, "deg", 4);
        found.says("a unit at the rim", d.wheel->unit_mm, "mm", 3);
        found.says("rim between the nearest slots", d.wheel->least_land_mm, "mm", 2);
        found.says("a slot this wide strikes early", d.wheel->widest_slot_mm, "mm", 2);
        for (const std::string& warning : d.wheel->warnings) found.sentence(warning, warning);
    } else {
        answer.asked =
            lines_of(StrikeRecord::record(), &record,
                     {"tooth_pitch_deg", "tail_mm", "centre_distance_mm", "largest_mm", "pin_diameter_mm", "bore_mm", "measured_mm"});
        if (!d.snail) return answer;
        if (!d.measured) found.sentence("usual", usual);
        for (const SnailStep& step : d.snail->steps) found.says("step for " + std::to_string(step.hour), step.radius_mm, "mm", 3);
        for (const std::string& warning : d.snail->warnings) found.sentence(warning, warning);
    }
    return answer;
}

SumAnswer strike_rack_sheet(const StrikeRecord& record, const DerivedStrike& d) {
    SumAnswer answer;
    answer.asked =
        lines_of(StrikeRecord::record(), &record,
                 {"rack_radius_mm", "rack_tooth_mm", "rack_hub_mm", "rack_bore_mm", "rack_tail_deg", "tooth_pitch_deg", "tail_mm"});
    answer.fault = d.rack_fault;
    Found found(answer);
    if (!d.rack) return answer;
    if (!d.rack_measured) found.sentence("usual", "Reckoned with usual sizes: measure it before it is cut.");
    found.says("teeth, two to spare", static_cast<double>(d.rack_input.sector->teeth), "", 0);
    found.says("from tip to tip", d.rack->chord_mm, "mm", 3);
    found.says("weighs", d.rack->mass_g, "g", 2);
    found.says("falls by", d.rack->pull_g_mm, "g mm", 1);
    for (const std::string& warning : d.rack->warnings) found.sentence(warning, warning);
    return answer;
}

SumAnswer strike_train_sheet(const StrikeRecord& record, const DerivedStrikeTrain& d) {
    SumAnswer answer;
    answer.asked = lines_of(StrikeRecord::record(), &record,
                            {"pin_arbor", "pins", "locking", "warning", "locked_by", "gathering", "whole", "hammers", "fly",
                             "seconds_per_blow", "great_turns"});
    Found found(answer);
    if (!d.there) {
        found.sentence("begin",
                       "Name the arbor with the hammer's pins: a strike's train is written down with the others (Ctrl+W, at the Train).");
        return answer;
    }
    answer.fault = d.fault;
    if (!d.train) return answer;
    for (const TurnsPerBlow& arbor : d.train->turns_per_blow)
        found.sentence(arbor.id, arbor.id + ": " + arbor.turns + " of a turn for a blow");
    for (const StrikeTrainFault& fault : d.train->faults) {
        std::string words = fault.id + ": " + fault.reason;
        for (const StrikeMend& mend : fault.mend)
            words += " " + mend.arbor + ", " + mend.part + " " + std::to_string(mend.count) + " would put it right.";
        found.sentence(fault.id, words);
    }
    found.says("runs", d.train->days, "d", 2);
    if (d.winding) found.sentence("winding", print_fixed(d.winding->turns, 1) + " turns of the first arbor: " + d.winding->because + ".");
    else found.sentence("winding", "Its drive at Power (weight and drum, or spring and barrel) tells how long it runs; or type the turns.");
    found.says("fly", d.train->fly_rpm, "1/min", 0);
    found.sentence("verdict", d.train->verdict);
    return answer;
}

SumAnswer strike_together_sheet(const StrikeRecord& record, const DerivedStrikeTrain& d) {
    SumAnswer answer;
    answer.asked = lines_of(StrikeRecord::record(), &record, {"hammer_falls_in_deg", "warning_run_deg", "pins"});
    answer.fault = d.together_fault;
    Found found(answer);
    if (!d.together) {
        const bool said = record.pin_arbor && record.locking && record.warning;
        if (!said || !record.pins) answer.fault.clear();
        if (!said) found.sentence("begin", "Say which arbor carries the pins, which locks and which warns: click its name.");
        else if (!record.pins) found.sentence("begin", "Type how many pins the pin wheel has.");
        return answer;
    }
    for (const std::string& mark : d.together->marks) found.sentence("mark", mark);
    found.says("a leaf moves the pins by", d.together->hammer_step_deg, "deg", 1);
    found.says("and the warning wheel by", d.together->warning_step_deg, "deg", 0);
    found.sentence("verdict", d.together->verdict);
    found.sentence("hour", record.kind == "rack" ? "To the hour: turn the hands on and let every strike ring out; a rack counts what the "
                                                   "snail shows, and cannot get out of step."
                                                 : "To the hour: lift the detent by hand and let it strike on until it has struck the hour "
                                                   "that the hand shows; never turn hands back past a strike.");
    return answer;
}

std::map<std::string, double> fly_facts(const StrikeRecord& record, const DerivedStrikeTrain& d) {
    std::map<std::string, double> facts;
    if (d.fly_turns) facts["turns_per_blow"] = *d.fly_turns;
    if (record.seconds_per_blow) facts["timed_s"] = *record.seconds_per_blow;
    return facts;
}

void type_into_strike(StrikeRecord& record, const std::string& field, const std::string& word) {
    if (field == "heard") {
        record.heard = heard_from_words(word);
        return;
    }
    type_into_record(StrikeRecord::record(), &record, field, word);
    // What is thought to be wrong with one kind of strike another cannot have.
    if (field == "kind" || field == "scheme") record.faults.clear();
}

}  // namespace echappe
