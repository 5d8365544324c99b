#include "strike/record.h"

#include <cmath>
#include <sstream>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

const char* const takes = "hours and what was counted, as in \"5: 4, 6: 5, 7: runs on\"";

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

/// "12½", "12.5", "12"; the minutes of "12:30" are cut off before.
double hour_in(std::string text, const std::string& whole) {
    double part = 0;
    for (const auto& [sign, share] : {std::pair{"¼", 0.25}, {"½", 0.5}, {"¾", 0.75}})
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
    HeardStrike one{hour_in(hour, words) + minutes / 60, {}};
    if (strikes == "runs on") return one;
    const double count = number_in(strikes, words);
    if (count < 0 || count != std::floor(count)) throw InputError("heard", words, takes);
    one.strikes = static_cast<long long>(count);
    return one;
}

}  // namespace

std::vector<HeardStrike> heard_from_words(const std::string& words) {
    std::vector<HeardStrike> heard;
    std::istringstream list(words);
    for (std::string one; std::getline(list, one, ',');)
        if (!trimmed(one).empty()) heard.push_back(one_heard(trimmed(one)));
    return heard;
}

std::string words_of(const std::vector<HeardStrike>& heard) {
    std::string words;
    for (const HeardStrike& one : heard)
        words += (words.empty() ? "" : ", ") + print_short(one.hour, 6) + ": " +
                 (one.strikes ? std::to_string(*one.strikes) : std::string("runs on"));
    return words;
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
            .add("diameter_mm", &In::diameter_mm, "mm", "of the count wheel", above(0, 5000))
            .add("slot_width_mm", &In::slot_width_mm, "mm", "of its slots", above(0, 500))
            .add("depth_mm", &In::depth_mm, "mm", "of its slots", above(0, 500))
            .add("bore_mm", &In::bore_mm, "mm", "of count wheel or snail", between(0, 500))
            .add("tooth_pitch_deg", &In::tooth_pitch_deg, "deg", "of the rack about its arbor", above(0, 30))
            .add("tail_mm", &In::tail_mm, "mm", "rack arbor to the tail's pin", above(0, 1000))
            .add("centre_distance_mm", &In::centre_distance_mm, "mm", "rack arbor to the snail's", above(0, 2000))
            .add("largest_mm", &In::largest_mm, "mm", "radius of the step for one", above(0, 500))
            .add("pin_diameter_mm", &In::pin_diameter_mm, "mm", "of the tail's pin", between(0, 50))
            .add("measured_mm", &In::measured_mm, "mm", "radii of the snail's steps, from one on", between(0, 500));
        return Record(fields);
    }();
    return record;
}

}  // namespace echappe
