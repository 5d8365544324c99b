#include "escapement/simulation.h"

#include <cmath>

#include "escapement/fields.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/solve.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr double gravity = 9.80665;
constexpr double widest_swing = 60 * rad_per_deg;
constexpr const char* simulation_source = "statics of point and face with Coulomb friction; swing kept where the work of a beat is π E ÷ Q";

enum class On { lock, impulse };

/// Torque on the pallets from a tooth that touches them at `tip`, positive anticlockwise, the pallets moving that way (`way` +1) or the
/// other. Nothing where friction holds it fast.
std::optional<double> torque_through(Vector tip, Vector normal, double centre_mm, double way, double torque, double friction) {
    const Vector arm = tip - Vector{0, centre_mm};
    normal = 1 / length(normal) * normal;
    // Into the pallet: the way a tooth that is driven clockwise pushes.
    if (cross(tip, normal) > 0) normal = -1 * normal;
    // The tooth's speed against the pallet's, for a turn of the pallets by one.
    const Vector of_pallet{-arm.y * way, arm.x * way};
    const Vector round{tip.y, -tip.x};
    const Vector slides = dot(normal, of_pallet) / dot(normal, round) * round - of_pallet;
    const double speed = length(slides);
    const Vector force = speed > 0 ? normal + friction / speed * slides : normal;
    const double holds = -cross(tip, force);
    if (!(holds > 0)) return {};
    return torque / holds * cross(arm, force);
}

/// The same of a tooth on one of its faces; nothing where it does not reach it.
std::optional<double> torque_on_pallets(const EscapementAction& action, const Pallet& pallet, On on, double pallets_rad, double way,
                                        double torque, double friction) {
    const auto tip_rad = on == On::lock ? tip_on_arc(action, pallet) : tip_on_face(action, pallet, pallets_rad);
    if (!tip_rad) return {};
    const Vector tip = spot(action.radius_mm, *tip_rad);
    const Vector arm = tip - Vector{0, action.centre_mm};
    const Vector normal = on == On::lock ? arm : turned(pallet.locking - pallet.let_off, pallets_rad + pi / 2);
    return torque_through(tip, normal, action.centre_mm, way, torque, friction);
}

/// A stretch of the swing with one tooth on one face.
struct Stretch {
    const Pallet* pallet;
    On on;
    double from, to;
};

/// The whole of a period at this semi-arc, from the end of the swing on the anticlockwise side. Angles from the layout's zero.
std::vector<Stretch> stretches(const EscapementAction& action, const EscapementBeat& beat, double semi_arc) {
    const double left = *beat.zero_rad + semi_arc, right = *beat.zero_rad - semi_arc;
    const double entry_end = beat.entry->lets_off.pallets_rad, exit_end = beat.exit->lets_off.pallets_rad;
    if (!action.entry.arc)
        return {{&action.entry, On::impulse, left, entry_end},
                {&action.exit, On::impulse, entry_end, right},
                {&action.exit, On::impulse, right, exit_end},
                {&action.entry, On::impulse, exit_end, left}};
    const double entry_free = beat.entry->unlocks.pallets_rad, exit_free = beat.exit->unlocks.pallets_rad;
    return {{&action.entry, On::lock, left, entry_free},      {&action.entry, On::impulse, entry_free, entry_end},
            {&action.exit, On::lock, entry_end, right},       {&action.exit, On::lock, right, exit_free},
            {&action.exit, On::impulse, exit_free, exit_end}, {&action.entry, On::lock, exit_end, left}};
}

}  // namespace

std::optional<double> energy_per_beat_mJ(const EscapementAction& action, const EscapementBeat& beat, double torque_N_mm, double friction,
                                         double semi_arc_rad) {
    if (!beat.entry || !beat.exit) return {};
    double sum = 0;
    bool held = false;
    for (const Stretch& s : stretches(action, beat, semi_arc_rad)) {
        const double way = s.to > s.from ? 1 : -1;
        const auto torque = [&](double at) {
            const auto now = torque_on_pallets(action, *s.pallet, s.on, at, way, torque_N_mm, friction);
            if (!now) held = true;
            return now.value_or(0);
        };
        // Just inside its ends: a corner belongs to two faces.
        const double inset = 1e-12 * (s.to - s.from);
        if (s.on == On::lock) sum += torque(s.from) * (s.to - s.from);  // an arc about the arbor: the same all along
        else sum += integral(torque, s.from + inset, s.to - inset);
    }
    if (held) return {};
    return sum / 2;
}

std::optional<double> energy_per_beat_mJ(const LeverAction& action, const EscapementBeat& beat, double torque_N_mm, double friction) {
    if (!beat.entry || !beat.exit || beat.state == EscapementState::trips || beat.state == EscapementState::catches) return {};
    const double banked = *beat.least_rad + action.lever.run_deg * rad_per_deg;
    double sum = 0;
    bool held = false;
    for (const LeverPallet* pallet : {&action.entry, &action.exit}) {
        const PalletAction& own = pallet->side < 0 ? *beat.entry : *beat.exit;
        const auto torque = [&](double at) {
            const auto contact = contact_of(action, *pallet, at);
            const auto now = contact ? torque_through(contact->at, contact->normal, action.centre_mm, pallet->side, torque_N_mm, friction)
                                     : std::nullopt;
            if (!now) held = true;
            return now.value_or(0);
        };
        // From the banking to the let-off, piece by piece: corners change from face to face between.
        const double from = *beat.zero_rad - pallet->side * banked, end = own.lets_off.pallets_rad;
        constexpr int pieces = 8;
        const double inset = 1e-12 * (end - from), step = (end - from - 2 * inset) / pieces;
        for (int i = 0; i < pieces; ++i) {
            const double begins = from + inset + i * step;
            sum += integral(torque, begins, begins + step, 1e-9);
        }
    }
    if (held) return {};
    return sum / 2;
}

namespace {

double energy_of_swing_mJ(const EscapementPendulum& p, double semi_arc) {
    return p.mass_kg * gravity * p.length_mm * (1 - std::cos(semi_arc));
}

}  // namespace

SwingKept swing_kept_by(const EscapementAction& action, const EscapementBeat& beat, double torque_N_mm, double friction,
                        const EscapementPendulum& pendulum) {
    if (!beat.entry || !beat.exit || !beat.least_rad) return {};
    const auto work = [&](double arc) { return energy_per_beat_mJ(action, beat, torque_N_mm, friction, arc); };
    const auto spare = [&](double arc) { return work(arc).value_or(-1) - pi * energy_of_swing_mJ(pendulum, arc) / pendulum.Q; };
    SwingKept kept;
    double arc = *beat.least_rad;
    if (spare(arc) >= 0 && spare(widest_swing) <= 0) {
        arc = root_between(spare, arc, widest_swing);
        kept.semi_arc_rad = arc;
    } else if (spare(arc) >= 0) {
        arc = widest_swing;
        kept.semi_arc_rad = arc;
    }
    if (const auto energy = work(arc)) kept.efficiency = *energy / (torque_N_mm * pi / static_cast<double>(action.teeth));
    return kept;
}

namespace {

/// Walks through a period: the events with where the wheel stands, counted from the first one over drops too, and the samples between.
class Period {
public:
    Period(const EscapementSimulationInput& in, const EscapementAction& action, const EscapementBeat& beat, EscapementSimulationResult& out)
        : m_in(in), m_action(action), m_beat(beat), m_out(out) {}

    void walk(double semi_arc) {
        m_semi_arc = semi_arc;
        m_way = -1;
        const std::vector<Stretch> path = stretches(m_action, m_beat, semi_arc);
        for (size_t i = 0; i < path.size(); ++i) {
            const Stretch& s = path[i];
            m_way = s.to > s.from ? 1 : -1;
            const bool falls_here = i > 0 && path[i - 1].pallet != s.pallet;
            const bool falls_next = i + 1 < path.size() && path[i + 1].pallet != s.pallet;
            const bool drives = s.on == On::impulse;
            if (falls_here) {
                m_wheel += path[i - 1].pallet->side < 0 ? m_beat.entry->drop : m_beat.exit->drop;
                tell("land", s, s.from);
            } else if (m_action.entry.arc && drives) {
                tell("unlock", s, s.from);
            }
            go(s);
            if (drives && falls_next) tell("let off", s, s.to);
            else if (!m_action.entry.arc && (falls_here || i + 1 == path.size())) tell("recoil", s, s.to);
        }
    }

private:
    double deg(double pallets) const { return (pallets - *m_beat.zero_rad) / rad_per_deg; }

    void tell(const char* what, const Stretch& s, double pallets) {
        if (m_out.events.empty()) {
            for (EscapementSample& sample : m_out.samples) sample.wheel_deg -= m_wheel / rad_per_deg;
            m_wheel = 0;
        }
        const double at_s = time_s(pallets);
        if (m_out.events.empty()) m_first_s = m_last_s = at_s;
        m_out.events.push_back({what, s.pallet->side < 0 ? "entry" : "exit", deg(pallets), m_wheel / rad_per_deg, at_s - m_first_s});
    }

    /// Of a harmonic swing from its end on the anticlockwise side, never before the event before.
    double time_s(double pallets) {
        const double period_s = 2 * pi * std::sqrt(m_in.pendulum.length_mm / 1000 / gravity);
        const double phase = std::acos(std::clamp((pallets - *m_beat.zero_rad) / m_semi_arc, -1.0, 1.0));
        double at_s = period_s * (m_way < 0 ? phase : 2 * pi - phase) / (2 * pi);
        constexpr double rounding_s = 1e-9;
        while (at_s < m_last_s - rounding_s) at_s += period_s;
        return m_last_s = at_s;
    }

    void go(const Stretch& s) {
        const double way = s.to > s.from ? 1 : -1;
        // Just inside its ends: a corner belongs to two faces.
        const auto inside = [&](double at) { return at + 1e-12 * (s.from + s.to - 2 * at); };
        const auto tip = [&](double at) {
            return (s.on == On::impulse ? tip_on_face(m_action, *s.pallet, inside(at)) : tip_on_arc(m_action, *s.pallet)).value_or(0);
        };
        const double from = tip(s.from);
        for (long long k = 0; k <= m_in.steps; ++k) {
            const double at = s.from + (s.to - s.from) * static_cast<double>(k) / static_cast<double>(m_in.steps);
            const auto torque = torque_on_pallets(m_action, *s.pallet, s.on, inside(at), way, m_in.torque_N_mm, m_in.friction);
            m_out.samples.push_back({deg(at), (m_wheel + tip(at) - from) / rad_per_deg, torque.value_or(0)});
        }
        m_wheel += tip(s.to) - from;
    }

    const EscapementSimulationInput& m_in;
    const EscapementAction& m_action;
    const EscapementBeat& m_beat;
    EscapementSimulationResult& m_out;
    double m_wheel = 0;  ///< turned so far, rad
    double m_semi_arc = 0, m_way = -1;
    double m_first_s = 0, m_last_s = 0;
};

std::string in_words(const EscapementSimulationResult& out) {
    if (!out.energy_per_beat_uJ) return "Does not come round: it " + out.state + ".";
    const std::string work =
        print_short(*out.energy_per_beat_uJ, 3) + " µJ a beat, " + print_short(100 * *out.efficiency, 2) + " % of what the wheel gives";
    if (!out.semi_arc_deg)
        return work + " at the least swing of " + print_fixed(*out.least_semi_arc_deg, 2) + "°: less than the pendulum loses, it stops.";
    return "Keeps up " + print_short(*out.semi_arc_deg, 3) + "° to each side, " +
           print_short(*out.semi_arc_deg - *out.least_semi_arc_deg, 2) + "° more than it needs; " + work + ".";
}

}  // namespace

EscapementSimulationResult simulate_escapement(const EscapementSimulationInput& in) {
    const EscapementAction action = action_of(in.escapement);
    const EscapementBeat beat = beat_of(action);
    EscapementSimulationResult out;
    out.state = word_for(beat.state);
    if (beat.state == EscapementState::runs) {
        out.least_semi_arc_deg = *beat.least_rad / rad_per_deg;
        const SwingKept kept = swing_kept_by(action, beat, in.torque_N_mm, in.friction, in.pendulum);
        if (!kept.efficiency) throw InputError("friction", print_short(in.friction, 9), "less: it holds the tooth fast on the face");
        if (kept.semi_arc_rad && *kept.semi_arc_rad >= widest_swing)
            throw InputError("torque_N_mm", print_short(in.torque_N_mm, 9), "a torque that keeps up a swing of less than 60° to each side");
        if (kept.semi_arc_rad) out.semi_arc_deg = *kept.semi_arc_rad / rad_per_deg;
        else out.state = word_for(EscapementState::does_not_unlock);
        const double arc = kept.semi_arc_rad.value_or(*beat.least_rad);
        out.efficiency = kept.efficiency;
        out.energy_per_beat_uJ = 1000 * *kept.efficiency * in.torque_N_mm * pi / static_cast<double>(action.teeth);
        Period(in, action, beat, out).walk(arc);
    }
    out.verdict = in_words(out);
    return out;
}

std::vector<Working> explain_escapement_simulation(const EscapementSimulationInput& in, const EscapementSimulationResult& out) {
    if (!out.energy_per_beat_uJ) return {};
    std::vector<Working> list = {work_out("share of the wheel's work that the pendulum gets", "η = W E ÷ (1000 M π)",
                                          {given("W", "work of a beat on the pendulum, friction taken off", *out.energy_per_beat_uJ, "µJ"),
                                           given("E", "teeth", static_cast<double>(in.escapement.teeth), ""),
                                           given("M", "torque at the escape wheel", in.torque_N_mm, "N mm")},
                                          "", simulation_source, [](auto x) { return x[0] * x[1] / (x[2] * (1000 * pi)); })};
    if (out.semi_arc_deg)
        list.push_back(
            work_out("what a beat loses at the swing that is kept", "W = π m g l (1 − cos θ) ÷ Q",
                     {given("m", "mass", in.pendulum.mass_kg, "kg"), given("l", "length", in.pendulum.length_mm, "mm"),
                      given("θ", "swing to one side", *out.semi_arc_deg, "deg"), given("Q", "quality of the swing", in.pendulum.Q, "")},
                     "µJ", simulation_source, [](auto x) {
                         using std::cos;
                         return x[0] * x[1] * (1000 * pi * gravity) * (1.0 - cos(x[2] * rad_per_deg)) / x[3];
                     }));
    list.back().notes = {out.verdict};
    return list;
}

const Record& EscapementPendulum::record() {
    using In = EscapementPendulum;
    static const Record record = Fields<In>()
                                     .add("mass_kg", &In::mass_kg, "kg", "of the pendulum", above(0, 1e5))
                                     .required()
                                     .add("length_mm", &In::length_mm, "mm", "of the simple pendulum", above(0, 1e6))
                                     .required()
                                     .add("Q", &In::Q, "", "quality, 1 000 to 15 000", above(0, 1e9))
                                     .because("a lens bob on a spring in a closed case; a heavy bob on a good suspension has more");
    return record;
}

const Record& EscapementSimulationInput::record() {
    using In = EscapementSimulationInput;
    static const Record record = [] {
        Fields<In> fields;
        fields.add("escapement", &In::escapement, "", "by its layout").required();
        fields.add("torque_N_mm", &In::torque_N_mm, "N mm", "at the escape wheel", above(0, 1e6)).required();
        add_friction(fields).add("pendulum", &In::pendulum, "", "what it keeps swinging").required();
        fields.add("steps", &In::steps, "", "samples of each stretch of the swing", between(2, 5000))
            .because("a curve drawn from them is smooth");
        return Record(fields);
    }();
    return record;
}

const Record& EscapementEvent::record() {
    using Out = EscapementEvent;
    static const Record record =
        Fields<Out>()
            .add("what", &Out::what, "", "unlock, let off, land, or recoil: its end")
            .add("pallet", &Out::pallet, "", "entry or exit")
            .add("pallets_deg", &Out::pallets_deg, "deg", "where the pallets stand, anticlockwise")
            .add("wheel_deg", &Out::wheel_deg, "deg", "turn of the wheel since the first event, clockwise")
            .add("time_s", &Out::time_s, "s", "since the first event, of a harmonic swing of that length; the wheel's fall takes none");
    return record;
}

const Record& EscapementSample::record() {
    using Out = EscapementSample;
    static const Record record = Fields<Out>()
                                     .add("pallets_deg", &Out::pallets_deg, "deg", "where the pallets stand, anticlockwise")
                                     .add("wheel_deg", &Out::wheel_deg, "deg", "turn of the wheel since the first event, clockwise")
                                     .add("torque_N_mm", &Out::torque_N_mm, "N mm", "on the pallets, positive anticlockwise");
    return record;
}

const Record& EscapementSimulationResult::record() {
    using Out = EscapementSimulationResult;
    static const Record record = Fields<Out>()
                                     .add("state", &Out::state, "", "runs, trips, catches or does not unlock")
                                     .add("energy_per_beat_uJ", &Out::energy_per_beat_uJ, "µJ",
                                          "to the pendulum, friction taken off, at the swing kept or else the least")
                                     .add("efficiency", &Out::efficiency, "", "of torque × π ÷ teeth")
                                     .add("semi_arc_deg", &Out::semi_arc_deg, "deg", "swing to each side that it keeps up")
                                     .add("least_semi_arc_deg", &Out::least_semi_arc_deg, "deg", "least swing that lets off on both")
                                     .add("events", &Out::events, "", "of one period")
                                     .add("samples", &Out::samples, "", "between them")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& escapement_simulation_calculation() {
    static const Calculation calculation = declare<EscapementSimulationInput, EscapementSimulationResult>(
        "escapement.simulate", "Work of the escape wheel on the pendulum over a beat, and the swing that it keeps up.", simulation_source,
        simulate_escapement, explain_escapement_simulation);
    return calculation;
}

}  // namespace echappe
