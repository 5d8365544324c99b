#include "beat/beat_analysis.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <future>
#include <numeric>

#include "beat/lever_sound.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "sound/beats_between.h"
#include "sound/evened.h"
#include "sound/tick_search.h"

namespace echappe {
namespace {

const char* source = "matched filter (North, 1943); robust line (Huber, 1964); F test of each arbor's wave";

/// A stretch of the sound as rises of its bands.
Novelty novelty_of(Sound& sound, long long from, long long to) {
    Novelty novelty(sound.rate_Hz());
    std::vector<float> piece(1 << 16);
    for (long long at = from; at < to; at += static_cast<long long>(piece.size())) {
        const size_t count = std::min(piece.size(), static_cast<size_t>(to - at));
        sound.read(at, {piece.data(), count});
        novelty.add({piece.data(), count});
    }
    return novelty;
}

/// Once from end to end, in two halves at the same time.
Novelty novelty_of(Sound& sound) {
    const auto hop = static_cast<long long>(Novelty(sound.rate_Hz()).hop()), all = static_cast<long long>(sound.samples());
    const long long cut = all / 2 / hop * hop;
    auto later = std::async(std::launch::async, [&] { return novelty_of(sound, cut, all); });
    Novelty novelty = novelty_of(sound, 0, std::min(all, cut + hop));
    novelty.join(later.get());
    return novelty;
}

}  // namespace

HeardBeats hear_beats(Sound& sound, double told_beat_s) {
    const Novelty novelty = novelty_of(sound);
    CoarseTicks coarse = search_ticks(novelty, told_beat_s);
    if (auto more = beats_between(sound, coarse, told_beat_s)) coarse = std::move(*more);
    if (coarse.ticks_s.empty())
        throw InputError("file", print_span(sound.seconds()) + " without a beat that stands out",
                         "a recording of eight beats at least, nearer to the movement or longer");
    const std::vector<double>&ticks_s = coarse.ticks_s, &tocks_s = coarse.tocks_s;
    HeardBeats out;
    out.one_sound = coarse.one_sound;
    out.shapes = std::make_unique<TickShapes>(sound, ticks_s, tocks_s);
    std::array<std::vector<double>, 2> looked_s = {ticks_s, tocks_s};
    for (const bool tock : {false, true}) {
        if (out.shapes->uneven()) looked_s[tock] = evened(looked_s[tock]);
        for (double& at_s : looked_s[tock]) at_s += out.shapes->told_after_s(tock);
    }
    const auto locate = [&](const TickShapes& shapes, size_t from, size_t to) {
        std::vector<LocatedTick> located;
        for (size_t i = from; i < to; ++i) located.push_back(shapes.locate(sound, looked_s[i % 2][i / 2], i % 2 == 1));
        return located;
    };
    auto later = std::async(std::launch::async, [&, copy = *out.shapes] { return locate(copy, ticks_s.size(), 2 * ticks_s.size()); });
    std::vector<LocatedTick> all = locate(*out.shapes, 0, ticks_s.size());
    for (const LocatedTick& one : later.get()) all.push_back(one);
    long long first = -1;
    for (size_t i = 0; i < all.size(); ++i) {
        if (!all[i].heard) continue;
        if (first < 0) first = static_cast<long long>(i);
        out.beats.push_back({static_cast<long long>(i) - first, all[i].at_s});
    }
    if (out.beats.size() < 6)
        throw InputError("file", std::to_string(out.beats.size()) + " beats that are alike",
                         "a recording of eight beats at least, nearer to the movement or longer");
    return out;
}

namespace {

/// What it should beat: as told, as its train says, else the usual figure nearest to it, or a whole number.
void name_beats(const BeatsTold& told, const BeatAnalysisInput& in, BeatAnalysisResult& out) {
    constexpr double near = 0.02, of_its_own = 0.08;
    const auto off = [&](double beats) { return std::abs(out.measured_beats_per_hour / beats - 1); };
    const auto& common = common_beats_per_hour();
    const double usual = *std::min_element(common.begin(), common.end(), [&](double a, double b) { return off(a) < off(b); });
    if (told.beats_per_hour && off(*told.beats_per_hour) < of_its_own) {
        out.beats_per_hour = *told.beats_per_hour;
        out.beats_from = in.beats_per_hour ? "told" : "train";
    } else if (off(usual) < near) {
        out.beats_per_hour = usual;
        out.beats_from = "common";
    } else {
        out.beats_per_hour = std::max(1.0, std::round(out.measured_beats_per_hour));
        out.beats_from = "measured";
    }
}

/// Parts of a recording that tell a rate of their own: half a minute and sixty beats each, at most eight.
void cut_in_sections(const std::vector<Beat>& beats, BeatAnalysisResult& out) {
    const double span = beats.back().at_s - beats.front().at_s;
    const auto parts = static_cast<size_t>(std::min({8.0, std::floor(span / 30), std::floor(static_cast<double>(beats.size()) / 60)}));
    if (parts < 2) return;
    for (size_t part = 0; part < parts; ++part) {
        const double from = beats.front().at_s + span * static_cast<double>(part) / static_cast<double>(parts),
                     to = from + span / static_cast<double>(parts);
        std::vector<Beat> some;
        for (const Beat& beat : beats)
            if (beat.at_s >= from && beat.at_s <= to) some.push_back(beat);
        const std::optional<BeatFit> fit = fit_beats(some);
        if (!fit) continue;
        out.sections.push_back({from, to, rate_of_beats(fit->beat_s, out.beats_per_hour), day_s * fit->beat_u_s / fit->beat_s});
    }
    // A line through them, weighed.
    double w = 0, x = 0, y = 0, xx = 0, xy = 0;
    for (const BeatSection& one : out.sections) {
        const double weight = 1 / (one.u_s_per_day * one.u_s_per_day + 1e-12), at = 0.5 * (one.from_s + one.to_s);
        w += weight, x += weight * at, y += weight * one.rate_s_per_day, xx += weight * at * at, xy += weight * at * one.rate_s_per_day;
    }
    const double det = w * xx - x * x;
    if (out.sections.size() < 2 || det <= 0) return;
    const double apart =
        0.5 * (out.sections.back().from_s + out.sections.back().to_s - out.sections.front().from_s - out.sections.front().to_s);
    out.drift_s_per_day = (w * xy - x * y) / det * apart;
    out.drift_u_s_per_day = std::sqrt(w / det) * apart;
    constexpr double stands_out = 3;
    out.drifts = std::abs(out.drift_s_per_day) > stands_out * out.drift_u_s_per_day;
}

std::string in_words(const BeatAnalysisResult& out, const BeatsTold& told) {
    std::string words = std::abs(out.rate_s_per_day) < 2 * out.u_s_per_day ? "It keeps time as far as can be told: "
                        : out.rate_s_per_day > 0                           ? "It gains "
                                                                           : "It loses ";
    words += print_measured(std::abs(out.rate_s_per_day), std::max(out.u_s_per_day, 1e-4)) + " s a day against " +
             print_many(out.beats_per_hour) + " beats an hour";
    if (out.beats_from == "common") words += ", the usual figure nearest to it";
    if (out.beats_from == "measured") words += ", a whole number near it: no usual one is";
    words += ". ";
    if (told.beats_per_hour && out.beats_per_hour != *told.beats_per_hour)
        words += "It should beat " + print_short(*told.beats_per_hour) + " an hour and beats " + print_short(out.measured_beats_per_hour) +
                 ": look whether this is the movement. ";
    if (!out.beat_error_untold.empty()) words += out.beat_error_untold + " ";
    else if (out.longer_beat.empty())
        words += "It is in beat as far as can be told (" + print_measured(out.beat_error_ms, out.beat_error_u_ms) + " ms). ";
    else
        words += "Beat error " + print_measured(out.beat_error_ms, out.beat_error_u_ms) + " ms: the interval after the " + out.longer_beat +
                 " is longer. ";
    if (out.missed > 0) words += std::to_string(out.missed) + " of " + std::to_string(out.beats + out.missed) + " beats were not heard. ";
    for (const Happening& happening : out.happenings) words += happening.words + " ";
    if (out.drifts)
        words += "The rate went " + std::string(out.drift_s_per_day > 0 ? "up" : "down") + " by " +
                 print_measured(std::abs(out.drift_s_per_day), out.drift_u_s_per_day) + " s/d while it was heard. ";
    for (const PeriodicFault& fault : out.periodic_faults) words += fault.words + " ";
    words += out.recorder_u_s_per_day > 0
                 ? "The recorder's own time is in the uncertainty."
                 : "The recorder's own time is not in the uncertainty: most are within 20 to 50 millionths, 2 to 4 s a day, "
                   "unless compared with a better clock.";
    return words;
}

const char* every_second = "Only every second beat is heard: the beat error cannot be told. Put the pickup elsewhere.";

/// Anything up to half a beat, for all that is known.
void leave_beat_error_untold(const std::string& why, BeatAnalysisResult& out) {
    if (!out.beat_error_untold.empty()) return;
    out.beat_error_untold = why;
    out.beat_error_ms = 0;
    out.beat_error_u_ms = 500 * 3600 / out.measured_beats_per_hour;
    out.longer_beat.clear();
}

}  // namespace

std::optional<BeatAnalysisResult> judge_beats(std::vector<Beat> beats, const BeatsTold& told, const BeatAnalysisInput& in, double seconds) {
    // A recorder that gains makes all times long.
    for (Beat& beat : beats) beat.at_s /= 1 + in.recorder_ppm * 1e-6;
    const std::vector<Beat> all = without_lone(beats);
    beats = longest_run(all);
    std::optional<BeatFit> fit = fit_beats(beats);
    if (!fit) return {};
    BeatAnalysisResult out;
    out.beats = static_cast<long long>(beats.size());
    out.periodic_faults = periodic_faults(beats, *fit, told);
    out.turns_looked_for = !told.arbors.empty() || told.any_turn;
    std::vector<double> waves;
    for (const PeriodicFault& fault : out.periodic_faults)
        if (fault.kind == "wave") waves.push_back(fault.period_s);
    // With the waves in it, a recording that ends amid a turn tells the rate as well.
    if (!waves.empty())
        if (const auto better = fit_beats(beats, waves)) fit = better;
    out.measured_beats_per_hour = 3600 / fit->beat_s;
    name_beats(told, in, out);
    out.rate_s_per_day = rate_of_beats(fit->beat_s, out.beats_per_hour);
    out.recorder_u_s_per_day = day_s * in.recorder_u_ppm * 1e-6;
    out.u_s_per_day = std::hypot(day_s * fit->beat_u_s / fit->beat_s, out.recorder_u_s_per_day);
    out.beat_error_ms = 1000 * std::abs(fit->limp_s);
    out.beat_error_u_ms = 1000 * fit->limp_u_s;
    if (out.beat_error_ms > 2 * out.beat_error_u_ms) out.longer_beat = fit->limp_s > 0 ? "tick" : "tock";
    const long long tocks = std::count_if(beats.begin(), beats.end(), [](const Beat& beat) { return beat.number % 2 != 0; });
    const long long fewer = std::min(tocks, out.beats - tocks);
    constexpr long long least = 3;
    if (fewer < least) leave_beat_error_untold(every_second, out);
    else if (std::abs(fit->limp_s) >= 0.5 * fit->beat_s)
        leave_beat_error_untold(
            "Tick and tock lie nearer to each other than half a beat: the beat error cannot be told. Listen whether two things tick.", out);
    out.spread_ms = 1000 * fit->spread_s;
    cut_in_sections(beats, out);
    out.missed = missed_beats(all, fit->beat_s);
    out.seconds = seconds;
    out.happenings = happenings_of(all, fit->beat_s, seconds);
    for (const Beat& beat : beats) out.beat_times_s.push_back(beat.at_s), out.beat_numbers.push_back(beat.number);
    for (const double late_s : fit->late_s) out.late_ms.push_back(1000 * late_s);
    return out;
}

void tell_shapes(const TickShapes& shapes, const BeatAnalysisInput& in, const BeatsTold& told, bool one_sound, BeatAnalysisResult& out) {
    if (out.beat_error_untold.empty()) out.beat_error_u_ms = std::hypot(out.beat_error_u_ms, 1000 * shapes.between_u_s());
    if (one_sound) leave_beat_error_untold(every_second, out);
    if (out.beat_error_ms <= 2 * out.beat_error_u_ms) out.longer_beat.clear();
    if (in.lift_angle_deg) {
        // Tick and tock each; where they differ much, one of the unlockings was not heard and looks too short.
        constexpr double differ = 0.08, read_u_s = 0.0001;  // of where two blows begin
        std::vector<double> times_s;
        for (const bool tock : {false, true}) {
            const auto blows = shapes.has(tock) ? lever_blows(shapes.loudness(tock), *in.lift_angle_deg, 3600 / out.measured_beats_per_hour)
                                                : std::nullopt;
            if (!blows) continue;
            times_s.push_back(blows->drops_s - blows->unlocks_s);
            if (!tock) out.unlocks_ms = 1000 * blows->unlocks_s, out.drops_ms = 1000 * blows->drops_s;
        }
        if (times_s.size() == 2 && std::abs(times_s[0] / times_s[1] - 1) > differ) times_s = {std::max(times_s[0], times_s[1])};
        if (!times_s.empty()) {
            const double t = std::accumulate(times_s.begin(), times_s.end(), 0.0) / static_cast<double>(times_s.size());
            out.amplitude_deg = amplitude_of_lift(*in.lift_angle_deg, t, out.measured_beats_per_hour);
            out.amplitude_u_deg = *out.amplitude_deg * read_u_s / t / std::sqrt(static_cast<double>(times_s.size()));
        }
    }
    out.verdict = in_words(out, told);
}

BeatAnalysisResult analyse_beats(const BeatAnalysisInput& in) {
    BeatsTold told = in.train ? beats_of(*in.train) : BeatsTold{};
    if (in.beats_per_hour) told.beats_per_hour = in.beats_per_hour;
    told.any_turn = in.any_turn;
    const std::unique_ptr<Sound> sound = open_sound(in.file, "file");
    const HeardBeats heard = hear_beats(*sound, told.beat_s());
    std::optional<BeatAnalysisResult> out = judge_beats(heard.beats, told, in, sound->seconds());
    if (!out) throw InputError("file", std::to_string(heard.beats.size()) + " beats", "a recording of eight beats at least");
    out->cut_short = sound->cut_short();
    tell_shapes(*heard.shapes, in, told, heard.one_sound, *out);
    return *out;
}

std::vector<Working> explain_beat_analysis(const BeatAnalysisInput& in, const BeatAnalysisResult& out) {
    std::vector<Working> list = {work_out(
        "rate", "r = 86400 (N ÷ N0 − 1)",
        {{"N", "beats an hour, heard", {out.measured_beats_per_hour, out.measured_beats_per_hour * out.u_s_per_day / day_s}, "", 0},
         {"N0", "beats an hour, as it should be", {out.beats_per_hour, 0}, "", 0}},
        "s/d", source, [](auto x) { return day_s * (x[0] / x[1] - 1); })};
    list.front().notes = {out.verdict};
    if (out.amplitude_deg)
        list.push_back(
            work_out("amplitude of the balance", "A = λ ÷ (2 sin(π t N ÷ 7200))",
                     {{"λ", "lift angle", {*in.lift_angle_deg, 0}, "deg", 0},
                      {"t",
                       "from unlocking to the drop",
                       {std::asin(*in.lift_angle_deg / (2 * *out.amplitude_deg)) * 7200 / (pi * out.measured_beats_per_hour), 0.0001},
                       "s",
                       0},
                      {"N", "beats an hour, heard", {out.measured_beats_per_hour, 0}, "", 0}},
                     "deg", "harmonic swing through the lift, from −λ/2 to λ/2",
                     [](auto x) { return x[0] / (2 * std::sin(pi * x[1] * x[2] / 7200)); }));
    return list;
}

const Record& BeatAnalysisInput::record() {
    using In = BeatAnalysisInput;
    static const Record record =
        Fields<In>()
            .add("file", &In::file, "", "recording: WAV, FLAC or OGG")
            .required()
            .add("beats_per_hour", &In::beats_per_hour, "1/h",
                 "as it should beat; else by the train, else the usual figure nearest to what is heard", above(0, 100000))
            .add("lift_angle_deg", &In::lift_angle_deg, "deg", "of a lever's balance, for its amplitude", above(0, 180))
            .add("train", &In::train, "", "as in train.run: its beats, and its arbors to look for")
            .add("any_turn", &In::any_turn, "", "look for what comes back in any time, though no train is told")
            .because("without the train's own times chance is easily taken for a wheel")
            .add("recorder_ppm", &In::recorder_ppm, "ppm", "millionths by which the recorder's own time gains", between(-10000, 10000))
            .add("recorder_u_ppm", &In::recorder_u_ppm, "ppm", "standard uncertainty of that; 20 to 50 where it was never compared",
                 between(0, 10000));
    return record;
}

const Record& BeatSection::record() {
    using Out = BeatSection;
    static const Record record = Fields<Out>()
                                     .add("from_s", &Out::from_s, "s", "in the recording")
                                     .add("to_s", &Out::to_s, "s", "in the recording")
                                     .add("rate_s_per_day", &Out::rate_s_per_day, "s/d", "positive gains")
                                     .add("u_s_per_day", &Out::u_s_per_day, "s/d", "standard uncertainty");
    return record;
}

const Record& BeatAnalysisResult::record() {
    using Out = BeatAnalysisResult;
    static const Record record =
        Fields<Out>()
            .add("beats_per_hour", &Out::beats_per_hour, "1/h", "as it should be")
            .add("beats_from", &Out::beats_from, "", "how that is known: told, train, common or measured")
            .add("measured_beats_per_hour", &Out::measured_beats_per_hour, "1/h", "as heard")
            .add("rate_s_per_day", &Out::rate_s_per_day, "s/d", "positive gains")
            .add("u_s_per_day", &Out::u_s_per_day, "s/d", "standard uncertainty of the rate")
            .add("beat_error_ms", &Out::beat_error_ms, "ms", "half the difference of two successive beats")
            .add("beat_error_u_ms", &Out::beat_error_u_ms, "ms", "standard uncertainty of that")
            .add("longer_beat", &Out::longer_beat, "",
                 "after which of tick and tock the interval is the longer; the first beat heard is a tick; empty: not told")
            .add("beat_error_untold", &Out::beat_error_untold, "", "why the beat error cannot be told; empty: it can")
            .add("amplitude_deg", &Out::amplitude_deg, "deg", "of a lever's balance to one side")
            .add("amplitude_u_deg", &Out::amplitude_u_deg, "deg", "standard uncertainty of that, the lift angle as told")
            .add("unlocks_ms", &Out::unlocks_ms, "ms", "of a lever's mean tick, from where it is timed")
            .add("drops_ms", &Out::drops_ms, "ms", "the same of its drop")
            .add("spread_ms", &Out::spread_ms, "ms", "standard deviation of a single beat")
            .add("beats", &Out::beats, "", "heard")
            .add("missed", &Out::missed, "", "not heard, between the first and the last that were")
            .add("cut_short", &Out::cut_short, "", "the file ends before its header says it does: heard as far as it goes")
            .add("seconds", &Out::seconds, "s", "of the recording")
            .add("sections", &Out::sections, "", "the rate in parts of the recording")
            .add("drift_s_per_day", &Out::drift_s_per_day, "s/d", "change of the rate from the first part to the last")
            .add("drift_u_s_per_day", &Out::drift_u_s_per_day, "s/d", "standard uncertainty of that")
            .add("drifts", &Out::drifts, "", "the change stands out of three of those")
            .add("recorder_u_s_per_day", &Out::recorder_u_s_per_day, "s/d", "the recorder's part of the rate's uncertainty")
            .add("periodic_faults", &Out::periodic_faults, "", "what comes back, waves by size first")
            .add("happenings", &Out::happenings, "", "what happened while it was heard: it stops, is set going, is hidden")
            .add("turns_looked_for", &Out::turns_looked_for, "", "false: no arbor was told, and nothing that comes back was looked for")
            .add("beat_times_s", &Out::beat_times_s, "s", "where each beat lies in the recording")
            .add("late_ms", &Out::late_ms, "ms", "by how much each is late, against beats that are even but for the beat error")
            .add("beat_numbers", &Out::beat_numbers, "", "of those; numbers left out were not heard")
            .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& beat_analysis_calculation() {
    static const Calculation calculation = declare<BeatAnalysisInput, BeatAnalysisResult>(
        "beat.analyse", "Beats out of a recording: rate, beat error, amplitude of a lever, drift, and what comes back with every arbor.",
        source, analyse_beats, explain_beat_analysis);
    return calculation;
}

}  // namespace echappe
