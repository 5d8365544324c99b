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
    found.says("blows once round", static_cast<double>(total), "", 0);
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
    constexpr double worth = 0.005;
    for (const StrikeCause& cause : d.heard->causes)
        if (cause.probability > worth)
            found.sentence("cause", print_fixed(100 * cause.probability, 0) + " %: " + cause.words + ". " + cause.because);
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
