#include "simulate/practice.h"

#include <algorithm>
#include <cmath>
#include <random>

#include "escapement/round.h"
#include "number/constants.h"
#include "oscillator/crutch_setting.h"
#include "pivots/tilt.h"
#include "power/torque_curve.h"
#include "train/restore_model.h"
#include "workings/record_json.h"

namespace echappe {

const Record& HiddenMesh::record() {
    using In = HiddenMesh;
    static const Record record = Fields<In>()
                                     .add("wheel_of", &In::wheel_of, "", "arbor of the wheel")
                                     .required()
                                     .add("pinion_of", &In::pinion_of, "", "arbor of the pinion")
                                     .required()
                                     .add("module_mm", &In::module_mm, "mm", "true module", above(0, 50))
                                     .required()
                                     .add("centre_error_mm", &In::centre_error_mm, "mm", "how far the holes are off", between(-10, 10));
    return record;
}

const Record& HiddenHole::record() {
    using In = HiddenHole;
    static const Record record = Fields<In>()
                                     .add("arbor", &In::arbor, "", "whose pivot")
                                     .required()
                                     .add("plate", &In::plate, "", "which plate")
                                     .choices(plate_names())
                                     .required()
                                     .add("pivot_mm", &In::pivot_mm, "mm", "pivot; 0: it is lost", between(0, 100))
                                     .add("original_mm", &In::original_mm, "mm", "hole before it wore", above(0, 100))
                                     .required()
                                     .add("worn_mm", &In::worn_mm, "mm", "what the wall gave way", between(0, 20))
                                     .add("worn_deg", &In::worn_deg, "deg", "which way, seen from the dial", between(-360, 360))
                                     .add("dirt_mm", &In::dirt_mm, "mm", "reads smaller by this until pegged", between(0, 5));
    return record;
}

const Record& HiddenArbor::record() {
    using In = HiddenArbor;
    static const Record record = Fields<In>()
                                     .add("arbor", &In::arbor, "", "which")
                                     .required()
                                     .add("tir_mm", &In::tir_mm, "mm", "runout", between(0, 10))
                                     .add("high_deg", &In::high_deg, "deg", "where the high side stands", between(-360, 360))
                                     .add("plates_mm", &In::plates_mm, "mm", "between the plates", between(0, 1000))
                                     .add("shoulders_mm", &In::shoulders_mm, "mm", "over the shoulders", between(0, 1000));
    return record;
}

const Record& HiddenRate::record() {
    using In = HiddenRate;
    static const Record record =
        Fields<In>()
            .add("s_per_day", &In::s_per_day, "s/d", "as it was found, positive gains", between(-20000, 20000))
            .add("s_per_day_per_K", &In::s_per_day_per_K, "s/d/K", "positive gains when warmer", between(-100, 100))
            .add("s_per_day_per_unit", &In::s_per_day_per_unit, "s/d", "by a turn of the nut, or a mm of the pins", between(0, 1e5))
            .add("room_C", &In::room_C, "°C", "mean of the room", between(-60, 80))
            .add("day_C", &In::day_C, "°C", "that it swings about it in a day", between(0, 40))
            .add("noise_s", &In::noise_s, "s", "of one look", between(0, 1e4));
    return record;
}

const Record& HiddenFigure::record() {
    using In = HiddenFigure;
    static const Record record = Fields<In>()
                                     .add("of", &In::of, "", "part of the job and field")
                                     .required()
                                     .add("value", &In::value, "", "as it is")
                                     .add("u", &In::u, "", "of a reading", between(0, 1e6))
                                     .add("step", &In::step, "", "that is read", between(0, 1e6));
    return record;
}

const Record& HiddenSoundFault::record() {
    using In = HiddenSoundFault;
    static const Record record = Fields<In>()
                                     .add("kind", &In::kind, "", "wave: an eccentric wheel; tooth: a short one of the escape wheel")
                                     .choices({"wave", "tooth"})
                                     .add("arbor", &In::arbor, "", "that makes it")
                                     .required()
                                     .add("amplitude_ms", &In::amplitude_ms, "ms", "to one side; a tooth: how late", between(-1e4, 1e4))
                                     .add("short_mm", &In::short_mm, "mm", "of a tooth, where the pallets were told", between(-1, 1))
                                     .add("phase_deg", &In::phase_deg, "deg", "at the beginning", between(-360, 360));
    return record;
}

const Record& HiddenSound::record() {
    using In = HiddenSound;
    static const Record record =
        Fields<In>()
            .add("off_deg", &In::off_deg, "deg", "by which it is out of beat: positive lets off late to the right", between(-90, 90))
            .add("swing_deg", &In::swing_deg, "deg", "to one side", above(0, 360))
            .required()
            .add("let_off_deg", &In::let_off_deg, "deg", "swing at which it lets off", between(0, 90))
            .add("let_off_deg_per_mm", &In::let_off_deg_per_mm, "deg", "more of it with the pallets a millimetre nearer",
                 between(-1000, 1000))
            .add("pallets", &In::pallets, "", "as they are: their action tells let-offs and short teeth")
            .add("lift_angle_deg", &In::lift_angle_deg, "deg", "of a lever", above(0, 180))
            .add("jitter_ms", &In::jitter_ms, "ms", "of each beat for itself", between(0, 100))
            .add("wander_ms", &In::wander_ms, "ms", "of each beat, that later ones keep", between(0, 100))
            .add("noise", &In::noise, "", "against a tick", between(0, 100))
            .add("faults", &In::faults, "", "what comes back");
    return record;
}

const Record& HiddenStrikeSound::record() {
    using In = HiddenStrikeSound;
    static const Record record = Fields<In>()
                                     .add("bells_Hz", &In::bells_Hz, "Hz", "strongest tone of each bell or gong; two: two hammers")
                                     .required()
                                     .add("seconds_per_blow", &In::seconds_per_blow, "s", "from blow to blow", between(0.2, 60))
                                     .required()
                                     .add("decay_s", &In::decay_s, "s", "until a bell is heard at 1/e", between(0.1, 60))
                                     .add("uneven", &In::uneven, "", "of the seconds between blows, as a share", between(0, 0.3))
                                     .add("noise", &In::noise, "", "of the room against a blow", between(0, 1))
                                     .add("ticks", &In::ticks, "", "of the going train against a blow", between(0, 1));
    return record;
}

const Record& HiddenMovement::record() {
    using In = HiddenMovement;
    static const Record record =
        Fields<In>()
            .add("format", &In::format, "", "says what this file is")
            .choices({"echappe practice"})
            .required()
            .add("seed", &In::seed, "", "of the instruments' noise", between(0, 1e9))
            .include(&In::train)
            .add("meshes", &In::meshes, "", "true modules")
            .required()
            .add("forms", &In::forms, "", "forms of the meshes that are not of the clock's school")
            .add("pendulum_length_mm", &In::pendulum_length_mm, "mm", "true length; 0: no pendulum", between(0, 1e5))
            .add("holes", &In::holes, "", "true pivots and holes")
            .add("shafts", &In::shafts, "", "true arbors by themselves")
            .add("plates_mm", &In::plates_mm, "mm", "thickness by plate", above(0, 100))
            .add("torque", &In::torque, "", "[[turns from let down, N mm], …] at the first arbor, driving")
            .add("torque_friction", &In::torque_friction, "", "lost each way", between(0, 0.5))
            .add("least_N_mm", &In::least_N_mm, "N mm", "that just keeps it going; 0: not known", between(0, 1e7))
            .add("rate", &In::rate, "", "how the clock keeps time")
            .add("sound", &In::sound, "", "how it sounds")
            .add("strike", &In::strike, "", "what is wrong with how it counts")
            .add("strike_sound", &In::strike_sound, "", "how its strike sounds")
            .add("figures", &In::figures, "", "that smaller instruments read")
            .add("gauge_step_mm", &In::gauge_step_mm, "mm", "steps of the gauges for pivots and holes", above(0, 1));
    return record;
}

std::optional<double> HiddenMovement::truth(const QuantityKey& key) const {
    if (key.kind == "pendulum_length_mm" && pendulum_length_mm > 0) return pendulum_length_mm;
    RestoreInput whole;
    whole.train = train;
    whole.forms = forms;
    const restore::Model model(whole, restore::Model::For::a_job);
    const auto mesh = model.mesh_of(key);
    if (!mesh) return {};
    const auto counts = model.known_counts();
    const Mesh& pair = model.network().meshes[*mesh];
    for (const HiddenMesh& hidden : meshes) {
        if (hidden.wheel_of + "-" + hidden.pinion_of != model.mesh_name(*mesh)) continue;
        const double size = model.size(key.kind, *mesh, counts[pair.wheel], counts[pair.pinion]).at(hidden.module_mm);
        return key.kind == "centre_distance_mm" ? size + hidden.centre_error_mm : size;
    }
    return {};
}

const HiddenArbor* HiddenMovement::shaft(const std::string& arbor) const {
    for (const HiddenArbor& shaft : shafts)
        if (shaft.arbor == arbor) return &shaft;
    return nullptr;
}

std::optional<double> HiddenMovement::truth(const SurveyQuestion& question, bool pegged) const {
    const auto there = [](double value) { return value > 0 ? std::optional(value) : std::nullopt; };
    if (question.subject.starts_with("plate.")) {
        if (question.field != "thickness_mm") return {};
        const auto at = plates_mm.find(question.subject.substr(6));
        return at == plates_mm.end() ? std::nullopt : std::optional(at->second);
    }
    if (const HiddenArbor* shaft_here = shaft(question.subject)) {
        if (question.field == "tir_mm") return shaft_here->tir_mm;
        if (question.field == "plates_mm") return there(shaft_here->plates_mm);
        return question.field == "shoulders_mm" ? there(shaft_here->shoulders_mm) : std::nullopt;
    }
    for (const HiddenHole& hole : holes) {
        if (hole.arbor + "." + hole.plate != question.subject) continue;
        const double dirt = pegged ? 0 : hole.dirt_mm;
        if (question.field == "pivot_mm") return there(hole.pivot_mm);
        if (question.field == "hole_min_mm") return hole.original_mm - dirt;
        if (question.field == "hole_max_mm") return hole.original_mm + hole.worn_mm - dirt;
        if (question.field == "wear_direction_deg") return hole.worn_deg;
        if (question.field == "sway_mm") return sway_of(hole);
    }
    return {};
}

/// How far the arbor's other end sways where the other plate was: as its pivot leans in the worn hole.
std::optional<double> HiddenMovement::sway_of(const HiddenHole& hole) const {
    const auto thickness = plates_mm.find(hole.plate);
    const HiddenArbor* arbor = shaft(hole.arbor);
    if (hole.pivot_mm <= 0 || !arbor || arbor->plates_mm <= 0 || thickness == plates_mm.end()) return {};
    const double lean = tilt_in_hole(hole.pivot_mm, hole.original_mm + hole.worn_mm, thickness->second);
    return 2 * arbor->plates_mm * std::tan(lean);
}

HiddenMovement practice_from_text(const std::string& text) {
    HiddenMovement movement;
    const auto faults = read_json(text, HiddenMovement::record(), &movement);
    if (!faults.empty()) throw faults.front();
    return movement;
}

std::optional<double> SimulatedCalliper::read(const QuantityKey& key, std::uint64_t turn) const {
    const auto truth = m_movement.truth(key);
    if (!truth || key.kind == "module_mm" || key.kind == "pendulum_length_mm") return {};
    return std::round((*truth + noise_mm * noise(name_of(key), turn)) / resolution_mm) * resolution_mm;
}

std::optional<double> SimulatedCalliper::read(const SurveyQuestion& question, bool pegged, std::uint64_t turn) const {
    const auto truth = m_movement.truth(question, pegged);
    if (!truth) return {};
    const double by_chance = noise(question.subject + " " + std::string(question.field), turn);
    if (question.field == "wear_direction_deg") {
        constexpr double step_deg = 5;
        return std::fmod(std::round((*truth + step_deg * by_chance) / step_deg) * step_deg + 720, 360);
    }
    // A pin gauge or micrometer on a pivot repeats better than calliper jaws over a wheel.
    const double step = m_movement.gauge_step_mm;
    const double gauge_noise_mm = 0.4 * step;
    // The largest pin of the set that enters: never larger than the hole.
    if (question.field == "hole_min_mm") return std::max(0.0, std::floor(*truth / step + 1e-6) * step);
    return std::max(0.0, std::round((*truth + gauge_noise_mm * by_chance) / step) * step);
}

std::optional<double> SimulatedCalliper::indicator_mm(const std::string& arbor, double angle_deg) const {
    const HiddenArbor* shaft = m_movement.shaft(arbor);
    if (!shaft) return {};
    return shaft->tir_mm / 2 * std::cos((angle_deg - shaft->high_deg) * rad_per_deg);
}

std::optional<double> SimulatedCalliper::torque(double turns, bool winding, std::uint64_t turn) const {
    if (m_movement.torque.size() < 2) return {};
    const TorqueCurve curve = TorqueCurve::through(m_movement.torque, "torque");
    if (turns < curve.begin() || turns > curve.end()) return {};
    const double friction = m_movement.torque_friction;
    const double truth = curve.at(turns) * (winding ? (1 + friction) / (1 - friction) : 1);
    constexpr double gauge_noise = 0.008;  // of the reading: a lever gauge held by hand
    const double reading = truth * (1 + gauge_noise * noise((winding ? "winding " : "driving ") + std::to_string(turns), turn));
    // Three figures: what a dial of that size shows.
    const double step = std::pow(10, std::floor(std::log10(reading)) - 2);
    return std::round(reading / step) * step;
}

std::optional<double> SimulatedCalliper::least_torque(std::uint64_t turn) const {
    if (m_movement.least_N_mm <= 0) return {};
    constexpr double trial_noise = 0.02;
    const double reading = m_movement.least_N_mm * (1 + trial_noise * noise("least torque", turn));
    const double step = std::pow(10, std::floor(std::log10(reading)) - 1);
    return std::round(reading / step) * step;
}

namespace {

/// What something that was done really does to the rate, s/d.
double changed_by(const HiddenRate& truth, const RateEvent& event) {
    const bool usual = event.means.empty() || event.means == "nut" || event.means == "pins";
    return usual ? event.amount * truth.s_per_day_per_unit : event.expected_s_per_day.value_or(0);
}

}  // namespace

Struck SimulatedCalliper::strikes(const StrikeRecord& strike, const Strike& at) const {
    std::vector<StrikeFault> left = m_movement.strike;
    std::erase_if(left, [&](const StrikeFault& fault) {
        return std::find(strike.mended.begin(), strike.mended.end(), fault) != strike.mended.end();
    });
    constexpr long long day = 24;
    // A count wheel goes on from strike to strike: as it was when it was heard first.
    const double first = strike.heard.empty() ? at.hour : strike.heard.front().hour;
    const auto from = static_cast<long long>(std::floor(first));
    const auto all = strike_sequence({strike.kind, strike.scheme, strike.blows, left, from, day}).sequence;
    for (const StruckHour& one : all)
        if (std::abs(one.hour - at.hour) < 1e-6) return {one.strikes, one.early};
    return {};
}

std::optional<StrikingInput> SimulatedCalliper::striking(const StrikeRecord& strike, const Strike& at, std::uint64_t turn) const {
    if (!m_movement.strike_sound) return {};
    constexpr long long listened_to = 26;  // more than any hour has
    const HiddenStrikeSound& sound = *m_movement.strike_sound;
    const Struck struck = strikes(strike, at);
    StrikingInput in;
    in.blows = struck.strikes.value_or(listened_to);
    in.early = struck.early;
    in.runs_on = !struck.strikes;
    in.bells_Hz = sound.bells_Hz;
    in.sample_rate_Hz = 12000;  // enough for these bells, and heard at once
    in.seconds_per_blow = sound.seconds_per_blow;
    in.pair_s = 0.3 * sound.seconds_per_blow;
    in.decay_s = sound.decay_s;
    in.uneven = sound.uneven, in.noise = sound.noise, in.ticks = sound.ticks;
    in.seed = m_movement.seed * 1000 + static_cast<long long>(std::llround(100 * at.hour)) + static_cast<long long>(turn);
    return in;
}

std::optional<TickingInput> SimulatedCalliper::ticking(const RateLog& log, double pallets_nearer_mm, std::uint64_t turn) const {
    if (!m_movement.sound) return {};
    const HiddenSound& sound = *m_movement.sound;
    const TrainResult train = run_train(m_movement.train);
    if (!train.beats_per_hour) return {};
    TickingInput in;
    in.beats_per_hour = *train.beats_per_hour;
    in.seed = m_movement.seed * 1000 + static_cast<long long>(turn);
    double off_deg = sound.off_deg;
    if (m_movement.rate) in.rate_s_per_day = m_movement.rate->s_per_day;
    for (const RateEvent& event : log.events) {
        if (event.means == "beat") off_deg += event.amount;
        else if (m_movement.rate) in.rate_s_per_day += changed_by(*m_movement.rate, event);
    }
    std::optional<EscapementAction> pallets;
    if (sound.pallets) pallets = nearer(action_of(*sound.pallets), pallets_nearer_mm);
    const auto least = pallets ? beat_of(*pallets).least_rad : std::nullopt;
    if (pallets && !least) return {};  // it trips, or is caught
    // The interval after the let-off to the right is the shorter where it comes late.
    const double let_off_deg =
        least ? *least / rad_per_deg : std::max(0.0, sound.let_off_deg + sound.let_off_deg_per_mm * pallets_nearer_mm);
    // It does not go on any more with less swing than it lets off with on both sides.
    if (let_off_deg + std::abs(off_deg) >= sound.swing_deg) return {};
    in.beat_error_ms = -1000 * limp_s(off_deg, let_off_deg, sound.swing_deg, in.beats_per_hour);
    in.jitter_ms = sound.jitter_ms, in.wander_ms = sound.wander_ms, in.noise = sound.noise;
    if (sound.lift_angle_deg) in.lift_angle_deg = sound.lift_angle_deg, in.amplitude_deg = sound.swing_deg;
    for (const HiddenSoundFault& fault : sound.faults)
        for (const ArborResult& arbor : train.arbors)
            if (arbor.id == fault.arbor) {
                const auto early = pallets && fault.short_mm != 0
                                       ? early_ms_per_mm_short(*pallets, sound.swing_deg * rad_per_deg, in.beats_per_hour)
                                       : std::nullopt;
                const double late_ms = early ? -*early * fault.short_mm : fault.amplitude_ms;
                in.faults.push_back({fault.kind, std::abs(arbor.period_s), late_ms, fault.phase_deg});
            }
    return in;
}

std::optional<RateObservation> SimulatedCalliper::look(const RateLog& log, double reference_s, std::uint64_t turn) const {
    if (!m_movement.rate) return {};
    const HiddenRate& truth = *m_movement.rate;
    constexpr double warmest = 15.0 / 24;  // of the day
    RateObservation last{reference_s, reference_s, {}};
    for (const RateObservation& look : log.looks)
        if (&look == &log.looks.front() || look.reference_s > last.reference_s) last = look;
    if (last.reference_s >= reference_s && !log.looks.empty()) return {};
    // Everything done so far works in the rate; the day's warmth is summed over the time in between.
    const auto warmth = [&](double from, double to) {
        const auto sum = [&](double t) { return truth.day_C * day_s / (2 * pi) * std::sin(2 * pi * (t / day_s - warmest)); };
        return (sum(to) - sum(from)) / day_s;
    };
    double gained = truth.s_per_day_per_K * warmth(last.reference_s, reference_s);
    double rate = truth.s_per_day, at = last.reference_s;
    std::vector<RateEvent> events = log.events;
    std::sort(events.begin(), events.end(), [](const auto& a, const auto& b) { return a.reference_s < b.reference_s; });
    for (const RateEvent& event : events) {
        if (event.reference_s > at && event.reference_s < reference_s) {
            gained += rate * (event.reference_s - at) / day_s;
            at = event.reference_s;
        }
        if (event.reference_s < reference_s) rate += changed_by(truth, event);
    }
    gained += rate * (reference_s - at) / day_s;
    RateObservation look;
    look.reference_s = reference_s;
    const std::string when = "look " + std::to_string(static_cast<long long>(reference_s));
    look.shown_s = last.shown_s + (reference_s - last.reference_s) + gained + truth.noise_s * noise(when, turn);
    look.shown_s = std::round(look.shown_s * 10) / 10;
    const double thermometer_C = 0.2;
    look.temperature_C = std::round(10 * (truth.room_C + truth.day_C * std::cos(2 * pi * (reference_s / day_s - warmest)) +
                                          thermometer_C * noise(when + " C", turn))) /
                         10;
    return look;
}

std::optional<double> SimulatedCalliper::figure(const std::string& of, std::uint64_t turn) const {
    for (const HiddenFigure& hidden : m_movement.figures) {
        if (hidden.of != of) continue;
        const double read = hidden.value + hidden.u * noise(of, turn);
        return hidden.step > 0 ? hidden.step * std::round(read / hidden.step) : read;
    }
    return {};
}

double SimulatedCalliper::noise(const std::string& what, std::uint64_t turn) const {
    // FNV-1a of the quantity's name: the same on every machine, unlike std::hash.
    std::uint64_t hash = 14695981039346656037ULL ^ static_cast<std::uint64_t>(m_movement.seed);
    for (const char c : what + "#" + std::to_string(turn)) hash = (hash ^ static_cast<unsigned char>(c)) * 1099511628211ULL;
    std::mt19937_64 engine(hash);
    // Sum of twelve uniforms: Gaussian to well under the resolution, and the same with every standard library.
    double sum = -6;
    for (int i = 0; i < 12; ++i) sum += static_cast<double>(engine() >> 11) * 0x1.0p-53;
    return sum;
}

double SimulatedCalliper::next_look_s(const RateLog& log) {
    constexpr double half_day_s = 43200, morning_s = 8 * 3600;
    constexpr double first_day_s = 1794297600;  ///< 10 November 2026, the demo's own calendar
    double last = first_day_s - half_day_s;
    for (const RateObservation& look : log.looks) last = std::max(last, look.reference_s);
    for (const RateEvent& event : log.events) last = std::max(last, event.reference_s);
    return std::ceil((last + half_day_s - morning_s) / half_day_s) * half_day_s + morning_s;
}

}  // namespace echappe
