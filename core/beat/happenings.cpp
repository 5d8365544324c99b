#include "beat/happenings.h"

#include <algorithm>
#include <cmath>

#include "number/units.h"
#include "sound/fourier.h"

namespace echappe {
namespace {

/// The usual time from one number to the next.
double usual_beat_s(const std::vector<Beat>& beats) {
    // Of the same kind: a limp does not count.
    std::vector<double> apart;
    for (size_t i = 2; i < beats.size(); ++i)
        if (const long long numbers = beats[i].number - beats[i - 2].number; numbers > 0 && numbers % 2 == 0)
            apart.push_back((beats[i].at_s - beats[i - 2].at_s) / static_cast<double>(numbers));
    return apart.empty() ? 0 : median_of(apart);
}

/// By how much what comes after a silence lies off the beat before it, in beats: the median of those near it, each against its own kind.
double off_after(const std::vector<Beat>& beats, size_t after, double beat_s) {
    constexpr size_t near = 8;
    std::vector<double> off;
    for (size_t i = after > near ? after - near : 0; i < after; ++i)
        for (size_t k = after; k < std::min(beats.size(), after + near); ++k)
            if (const double numbers = (beats[k].at_s - beats[i].at_s) / (2 * beat_s); (beats[k].number - beats[i].number) % 2 == 0)
                off.push_back(2 * std::abs(numbers - std::round(numbers)));
    return off.empty() ? 0 : median_of(off);
}

/// Whether it was set going again before this one: after a long silence, out of the beat that it had.
bool set_going_at(const std::vector<Beat>& beats, size_t after, double beat_s) {
    constexpr double share = 0.04, least_s = 0.012;
    const double silence_s = beats[after].at_s - beats[after - 1].at_s;
    // The rate changes a little meanwhile.
    constexpr double rate = 1e-4;
    return silence_s >= long_silence_s(beat_s) &&
           off_after(beats, after, beat_s) * beat_s > std::max(share * beat_s, least_s) + rate * silence_s;
}

std::string at(double s) { return print_span(std::round(s * 10) / 10); }

}  // namespace

double long_silence_s(double beat_s) { return std::max(8 * beat_s, 3.0); }

std::vector<Happening> happenings_of(const std::vector<Beat>& beats, double beat_s, double seconds) {
    std::vector<Happening> all;
    if (beats.empty()) return all;
    const double silence_s = long_silence_s(beat_s), first_s = beats.front().at_s, last_s = beats.back().at_s;
    if (first_s > silence_s)
        all.push_back({"set going", 0, first_s,
                       "Its first beat is heard at " + at(first_s) + ": it was set going then, or something hid it before."});
    for (size_t i = 1; i < beats.size(); ++i) {
        const double from_s = beats[i - 1].at_s, to_s = beats[i].at_s;
        if (to_s - from_s < silence_s) continue;
        if (set_going_at(beats, i, beat_s))
            all.push_back({"set going again", from_s, to_s,
                           "It is not heard from " + at(from_s) + " to " + at(to_s) +
                               ", and then no longer in its beat: it was set going again, or moved. Only the longer run is judged."});
        else
            all.push_back(
                {"hidden", from_s, to_s,
                 "It is not heard from " + at(from_s) + " to " + at(to_s) + " and goes on in its beat: most likely something hid it."});
    }
    if (seconds - last_s > silence_s)
        all.push_back(
            {"stops", last_s, seconds, "Its last beat is heard at " + at(last_s) + ": it stopped then, or something hides it since."});
    return all;
}

long long missed_beats(const std::vector<Beat>& beats, double beat_s) {
    long long missed = 0;
    for (size_t i = 1; i < beats.size(); ++i)
        if (!set_going_at(beats, i, beat_s)) missed += std::max(0LL, beats[i].number - beats[i - 1].number - 1);
    return missed;
}

std::vector<Beat> without_lone(const std::vector<Beat>& beats) {
    constexpr size_t few = 3, many = 8;
    const double alone_s = 0.5 * long_silence_s(usual_beat_s(beats));
    std::vector<std::vector<Beat>> groups;
    for (const Beat& beat : beats) {
        if (groups.empty() || beat.at_s - groups.back().back().at_s > alone_s) groups.emplace_back();
        groups.back().push_back(beat);
    }
    if (std::none_of(groups.begin(), groups.end(), [](const auto& group) { return group.size() >= many; })) return beats;
    std::vector<Beat> kept;
    for (const std::vector<Beat>& group : groups)
        if (group.size() > few) kept.insert(kept.end(), group.begin(), group.end());
    return kept;
}

std::vector<Beat> longest_run(const std::vector<Beat>& beats) {
    const double beat_s = usual_beat_s(beats);
    if (beat_s <= 0) return beats;
    size_t best_from = 0, best_to = 0, from = 0;
    for (size_t i = 1; i <= beats.size(); ++i) {
        const bool ends = i == beats.size() || set_going_at(beats, i, beat_s);
        if (!ends) continue;
        if (i - from > best_to - best_from) best_from = from, best_to = i;
        from = i;
    }
    return {beats.begin() + static_cast<std::ptrdiff_t>(best_from), beats.begin() + static_cast<std::ptrdiff_t>(best_to)};
}

const Record& Happening::record() {
    using Out = Happening;
    static const Record record =
        Fields<Out>()
            .add("kind", &Out::kind, "", "set going; stops; hidden: not heard for a while; set going again: out of its former beat")
            .add("from_s", &Out::from_s, "s", "in the recording")
            .add("to_s", &Out::to_s, "s", "in the recording")
            .add("words", &Out::words, "", "what happened");
    return record;
}

}  // namespace echappe
