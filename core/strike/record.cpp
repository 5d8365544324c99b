#include "strike/record.h"

#include <cmath>
#include <sstream>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

const char* const takes = "hours and what was counted, as in \"5: 4, 6: 5, 7: runs on\"; \"5: 1+4\" where one of them fell at the warning";

std::string trimmed(const std::string& text) {
    const size_t from = text.find_first_not_of(" \t"), to = text.find_last_not_of(" \t.");
    return from == std::string::npos ? "" : text.substr(from, to - from + 1);
}

double number_in(const std::string& text, const std::string& whole) try {
    size_t used = 0;
    const double value = std::stod(text, &used);
    if (used != text.size()) throw InputError("heard", whole, takes);
    return value;
} catch (const std::logic_error&) {
    throw InputError("heard", whole, takes);
}

constexpr std::pair<const char*, double> parts_of_an_hour[] = {{"¼", 0.25}, {"½", 0.5}, {"¾", 0.75}};

/// "12", "12½", "5:02".
std::string hour_in_words(double hour) {
    const std::string whole = std::to_string(static_cast<long long>(hour));
    for (const auto& [sign, share] : parts_of_an_hour)
        if (std::abs(hour - std::floor(hour) - share) < 1e-6) return whole + sign;
    return hour == std::floor(hour) ? whole : words_of_time(hour);
}

/// "12½", "12.5", "12"; the minutes of "12:30" are cut off before.
double hour_in(std::string text, const std::string& whole) {
    double part = 0;
    for (const auto& [sign, share] : parts_of_an_hour)
        if (const size_t at = text.find(sign); at != std::string::npos) text.erase(at, std::string(sign).size()), part = share;
    return number_in(text, whole) + part;
}

HeardStrike one_heard(const std::string& words) {
    const size_t last = words.rfind(':');
    if (last == std::string::npos) throw InputError("heard", words, takes);
    std::string hour = trimmed(words.substr(0, last));
    const std::string strikes = trimmed(words.substr(last + 1));
    double minutes = 0;
    if (const size_t colon = hour.find(':'); colon != std::string::npos)
        minutes = number_in(hour.substr(colon + 1), words), hour = hour.substr(0, colon);
    return heard_blows(hour_in(hour, words) + minutes / 60, strikes);
}

}  // namespace

HeardStrike heard_blows(double hour, const std::string& words) {
    HeardStrike one{hour, {}};
    const std::string strikes = trimmed(words);
    if (strikes == "runs on" || strikes == "0") return one;
    const auto count = [&](const std::string& text) {
        const double read = number_in(trimmed(text), words);
        if (read < 0 || read != std::floor(read) || read > 1000) throw InputError("heard", words, takes);
        return static_cast<long long>(read);
    };
    const size_t plus = strikes.find('+');
    if (plus == std::string::npos) one.strikes = count(strikes);
    else one.early = count(strikes.substr(0, plus)), one.strikes = *one.early + count(strikes.substr(plus + 1));
    return one;
}

std::vector<HeardStrike> heard_from_words(const std::string& words) {
    std::vector<HeardStrike> heard;
    std::istringstream list(words);
    for (std::string one; std::getline(list, one, ',');)
        if (!trimmed(one).empty()) heard.push_back(one_heard(trimmed(one)));
    return heard;
}

std::string words_of(const std::vector<HeardStrike>& heard) {
    std::string words;
    for (const HeardStrike& one : heard) words += (words.empty() ? "" : ", ") + hour_in_words(one.hour) + ": " + blows_in_words(one);
    return words;
}

std::string blows_in_words(const HeardStrike& heard) {
    if (!heard.strikes) return "runs on";
    const long long early = heard.early.value_or(0);
    return (heard.early ? std::to_string(early) + "+" : "") + std::to_string(*heard.strikes - early);
}

StrikingTrain striking_train(const std::optional<StrikeRecord>& strike) {
    StrikingTrain train;
    if (!strike || !strike->pin_arbor) return train;
    train.pin_arbor = *strike->pin_arbor;
    if (strike->pins) train.pins = Count(*strike->pins);
    train.gathering = strike->gathering, train.whole = strike->whole;
    try {
        train.blows_per_12h = blows_in_half_a_day(strike->scheme, strike->blows);
    } catch (const InputError&) {
        // A scheme of its own that has no blows yet: the usual one.
    }
    return train;
}

bool StrikeRecord::operator==(const StrikeRecord& other) const { return same(record(), this, &other); }

const Record& StrikeRecord::record() {
    using In = StrikeRecord;
    static const Record record = [] {
        Fields<In> fields;
        fields.add("kind", &In::kind, "", "what counts the hours").choices({"countwheel", "rack"}).because("the older of the two");
        add_scheme(fields)
            .add("faults", &In::faults, "", "what is thought to be wrong, or tried")
            .add("heard", &In::heard, "", "what was counted, hour by hour")
            .add("slot_units", &In::slot_units, "", "further units of each slot of a count wheel", between(0, 20))
            .label("further units of each slot")
            .add("diameter_mm", &In::diameter_mm, "mm", "of the count wheel", above(0, 5000))
            .label("count wheel Ø")
            .add("slot_width_mm", &In::slot_width_mm, "mm", "of its slots", above(0, 500))
            .label("slot width")
            .add("depth_mm", &In::depth_mm, "mm", "of its slots", above(0, 500))
            .label("slot depth")
            .add("bore_mm", &In::bore_mm, "mm", "of count wheel or snail", between(0, 500))
            .label("bore")
            .add("tooth_pitch_deg", &In::tooth_pitch_deg, "deg", "of the rack about its arbor", above(0, 30))
            .label("rack tooth pitch")
            .add("tail_mm", &In::tail_mm, "mm", "rack arbor to the tail's pin", above(0, 1000))
            .label("tail, arbor to pin")
            .add("centre_distance_mm", &In::centre_distance_mm, "mm", "rack arbor to the snail's", above(0, 2000))
            .label("rack to snail")
            .add("largest_mm", &In::largest_mm, "mm", "radius of the step for one", above(0, 500))
            .label("step for one, radius")
            .add("pin_diameter_mm", &In::pin_diameter_mm, "mm", "of the tail's pin", between(0, 50))
            .label("tail pin Ø")
            .add("measured_mm", &In::measured_mm, "mm", "radii of the snail's steps, from one on", between(0, 500))
            .label("steps as measured")
            .add("rack_radius_mm", &In::rack_radius_mm, "mm", "of the rack, over its teeth", above(0, 1000))
            .label("rack, over its teeth")
            .add("rack_tooth_mm", &In::rack_tooth_mm, "mm", "depth of its teeth", above(0, 50))
            .label("tooth depth")
            .add("rack_hub_mm", &In::rack_hub_mm, "mm", "diameter of its hub", above(0, 200))
            .label("hub Ø")
            .add("rack_bore_mm", &In::rack_bore_mm, "mm", "for its stud", between(0, 100))
            .label("bore for its stud")
            .add("rack_tail_deg", &In::rack_tail_deg, "deg", "from the middle of its teeth to its tail", between(0, 360))
            .label("teeth to tail")
            .add("mended", &In::mended, "", "faults that were put right")
            .add("pin_arbor", &In::pin_arbor, "", "arbor of the train that carries the hammer's pins")
            .add("pins", &In::pins, "", "on it; empty: not counted, or lost", between(1, 200))
            .add("gathering", &In::gathering, "", "arbors that turn just once a blow")
            .add("whole", &In::whole, "", "arbors that lock or warn: a whole number of turns a blow")
            .add("locking", &In::locking, "", "the one of them that locks")
            .add("warning", &In::warning, "", "the one of them that warns")
            .add("fly", &In::fly, "", "arbor of the fly")
            .add("locked_by", &In::locked_by, "", "what the detent stops the locking arbor by")
            .choices({"hoop", "pin", "cam"})
            .because("the commonest of old work")
            .add("hammers", &In::hammers, "", "two: each blow is a pair, on two bells", between(1, 2))
            .because("one bell")
            .add("seconds_per_blow", &In::seconds_per_blow, "s", "from blow to blow, as timed", above(0, 60))
            .label("blow to blow")
            .add("great_turns", &In::great_turns, "", "of the train's first arbor for a winding", above(0, 1e6))
            .label("turns for a winding")
            .add("hammer_falls_in_deg", &In::hammer_falls_in_deg, "deg", "turn of the pin wheel from locked to the hammer's next fall",
                 between(0, 360))
            .label("locked to the hammer's fall")
            .add("warning_run_deg", &In::warning_run_deg, "deg", "turn of the warning wheel from locked to its piece", between(0, 360))
            .label("warning run");
        return Record(fields);
    }();
    return record;
}

}  // namespace echappe
