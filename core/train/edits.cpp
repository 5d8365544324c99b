#include "train/edits.h"

#include <algorithm>

#include "number/input_error.h"
#include "number/numeral.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr double doubted_trust = 0.5;  ///< of a count followed by a question mark

struct TypedCount {
    Count count;
    std::optional<double> trust;
};

std::string_view trimmed(std::string_view text) {
    const auto from = text.find_first_not_of(' ');
    return from == std::string_view::npos ? std::string_view() : text.substr(from, text.find_last_not_of(' ') - from + 1);
}

/// Turns "12", "?", "12?" or "12 80%" into a count and how far it is trusted.
TypedCount read_count(const std::string& typed, const std::string& part) {
    const std::string text = as_typed(typed);
    if (text == "?") return {Count::lost(), {}};
    const long long most = part.ends_with(".pinion") ? 200 : 1000;
    const auto refused = [&] {
        return InputError(
            part, in_quotes(text),
            "4 to " + std::to_string(most) + ", ? when it is lost, 96? when it is doubted, 96 80% when it is trusted that far");
    };
    constexpr size_t digits = 4;
    const size_t behind = std::min(text.find_first_not_of("0123456789"), text.size());
    const long long count = behind > digits ? 0 : read_whole(text.substr(0, behind)).value_or(0);
    if (count < 4 || count > most) throw refused();
    const std::string_view doubt = trimmed(std::string_view(text).substr(behind));
    if (doubt.empty()) return {count, {}};
    if (doubt == "?") return {count, doubted_trust};
    const auto percent = read_whole(trimmed(doubt.substr(0, doubt.size() - 1)));
    if (!doubt.ends_with('%') || !percent || *percent < 1 || *percent > 99) throw refused();
    return {count, static_cast<double>(*percent) / 100};
}

std::string with_space(std::string part) {
    std::replace(part.begin(), part.end(), '.', ' ');
    return part;
}

}  // namespace

Edit<TrainRecord> store_reading(const TrainRecord& record, const Evidence& evidence, const std::string& instrument, const std::string& id,
                                const std::string& date) {
    return {"Reading: " + record.name_of_quantity(evidence.key), [=](TrainRecord& train) {
                std::erase_if(train.measurements, [&](const Measurement& m) { return m.evidence.key == evidence.key; });
                train.measurements.push_back({id, evidence, instrument, date, "", false});
            }};
}

Edit<TrainRecord> leave_out(const QuantityKey& key, bool out) {
    return {out ? "Leave out a reading" : "Believe a reading again", [=](TrainRecord& train) {
                for (Measurement& m : train.measurements)
                    if (m.evidence.key == key) m.left_out = out;
            }};
}

Edit<TrainRecord> choose(const DerivedTrain& derived, size_t rank, const std::string& date) {
    if (!derived.restore || rank >= derived.restore->candidates.size()) return {"Choose", [](TrainRecord&) {}};
    const Candidate candidate = derived.restore->candidates[rank];
    return {"Choose " + counts_in_words(candidate), [=](TrainRecord& train) {
                train.choices.clear();
                for (const auto& [part, count] : candidate.counts) train.choices.push_back({part, count, candidate.weight, date});
            }};
}

Edit<TrainRecord> withdraw_choice() {
    return {"Withdraw the choice", [](TrainRecord& train) { train.choices.clear(); }};
}

namespace {

/// A count of an arbor by its name, and how far it is trusted where that is kept.
struct CountPlace {
    Count* count = nullptr;
    std::optional<double>* trust = nullptr;
};

CountPlace place_of(TrainRecord& record, const std::string& part) {
    const std::string name = part.substr(std::min(part.find('.') + 1, part.size()));
    for (JobArbor& arbor : record.arbors) {
        if (arbor.train.id + "." + name != part) continue;
        if (name == "wheel") return {&arbor.train.wheel, &arbor.wheel_trust};
        if (name == "pinion") return {&arbor.train.pinion, &arbor.pinion_trust};
        for (WheelInput& wheel : arbor.train.wheels)
            if (wheel.name == name) return {&wheel.teeth, nullptr};
        for (PinionInput& pinion : arbor.train.pinions)
            if (pinion.name == name) return {&pinion.leaves, nullptr};
    }
    return {};
}

}  // namespace

Edit<TrainRecord> set_count(const std::string& part, const std::string& text) {
    const TypedCount typed = read_count(text, part);
    return {with_space(part) + " to " + std::string(trimmed(text)), [=](TrainRecord& train) {
                const CountPlace place = place_of(train, part);
                if (!place.count) return;
                if (typed.trust && !place.trust)
                    throw InputError(part, in_quotes(text),
                                     "a count without a doubt: only the first on its side of an arbor can be doubted");
                // A wheel that was not there drives nothing, until that is said.
                for (JobArbor& arbor : train.arbors)
                    if (&arbor.train.wheel == place.count && !place.count->present()) arbor.train.drives.emplace();
                *place.count = typed.count;
                if (place.trust) *place.trust = typed.trust;
                std::erase_if(train.choices, [&](const Choice& choice) { return choice.part == part; });
            }};
}

std::string count_as_typed(const TrainRecord& record, const std::string& part) {
    TrainRecord copy = record;
    const CountPlace place = place_of(copy, part);
    if (!place.count || !place.count->present()) return {};
    if (!place.count->known()) return "?";
    const std::string number = std::to_string(place.count->value);
    if (!place.trust || !*place.trust) return number;
    return **place.trust == doubted_trust ? number + "?" : number + " " + print_short(100 * **place.trust) + "%";
}

}  // namespace echappe
