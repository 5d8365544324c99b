#include "teeth/mesh_simulation.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <deque>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/solve.h"
#include "number/units.h"
#include "teeth/contact.h"

namespace echappe {
namespace {

constexpr const char* mesh_simulation_source = "contact of the two actual profiles, tooth by tooth; dry friction at the contact";
constexpr size_t leaf_steps_a_point = 10;
constexpr double touching_modules = 4e-6;  ///< pairs this close to the one that holds touch: twice the arithmetic's noise
constexpr double butt_modules = 0.05;      ///< a tooth that enters this far behind its leaf's tip strikes it
constexpr double drop_arcmin = 3;          ///< smaller falls are not felt
constexpr double no_play_modules = 0.001;  ///< under this negative play is the arithmetic's
constexpr double tight_modules = 0.02;
constexpr double rough_spread = 0.15;  ///< swing of speed that is felt and heard
constexpr double speed_known = 1e-3;   ///< by the flanks' normal
constexpr int pairs_each_side = 3;
constexpr long long least_stands = 120;  ///< a pitch: with the leaps found where they are, within 1 % of what 3600 give
constexpr long long beside = 2;          ///< stands on each side, over which a smooth speed is taken
constexpr int most_leaps = 8;            ///< between two stands

double arcmin(double rad) { return rad * 180 / pi * 60; }

class Simulation {
public:
    explicit Simulation(const MeshSimulationInput& in)
        : m_in(in),
          m_pair(mesh_forms(in.mesh, in.flank == "arc", in.flank_points), in.mesh.module_mm, in.wear_step_mm,
                 leaf_steps_a_point * static_cast<size_t>(in.flank_points)),
          m_teeth(static_cast<double>(in.mesh.wheel)),
          m_leaves(static_cast<double>(in.mesh.pinion)),
          m_wheel_pitch(2 * pi / m_teeth),
          m_leaf_pitch(2 * pi / m_leaves),
          m_distance(in.mesh.module_mm * (m_teeth + m_leaves) / 2 - in.depth_error_mm) {}

    MeshSimulationResult run() {
        const long long pitches = m_in.span == "turn" ? m_in.mesh.pinion : m_in.span == "wheel" ? m_in.mesh.wheel : 1;
        // What is judged is looked at as finely however few stands are asked for.
        const long long finer = std::max(1LL, (least_stands + m_in.steps - 1) / m_in.steps);
        const long long count = m_in.steps * finer * pitches;
        m_step = m_wheel_pitch / static_cast<double>(m_in.steps * finer);
        MeshSimulationResult out;
        out.centre_distance_mm = m_distance;
        std::deque<Hold> trail;
        for (long long i = -beside; i < count + beside; ++i) {
            trail.push_back(hold(m_step * static_cast<double>(i)));
            if (trail.size() <= 2 * beside) continue;
            consider(trail, (i - beside) % finer == 0, out);
            trail.pop_front();
        }
        look_closely(Extreme(m_slowest), 1);
        look_closely(Extreme(m_fastest), -1);
        finish(out);
        return out;
    }

private:
    const MeshSimulationInput& m_in;
    ContactPair m_pair;
    double m_teeth, m_leaves, m_wheel_pitch, m_leaf_pitch, m_distance;
    double m_step = 0;
    bool m_lost = false;  ///< at some stand no tooth reaches a leaf
    double m_touching = 0;
    double m_least_play = INFINITY;
    double m_work_in = 0;
    double m_work_out = 0;
    double m_stands = 0;
    struct Extreme {
        double speed, wheel;
    };
    Extreme m_slowest{INFINITY, 0}, m_fastest{0, 0};            ///< speeds
    double m_least_error = INFINITY, m_most_error = -INFINITY;  ///< rad
    struct Engaged {
        double stand;  ///< of the pair's tooth
        double leaf;   ///< of its leaf
        double y;
    };
    std::vector<Engaged> m_engaged;

    /// How the pinion is held at one stand of the wheel.
    struct Hold {
        double wheel = 0;  ///< how far it has turned
        bool any = false;
        long long tooth = 0;
        double pinion = 0;  ///< how far it has turned
        Contact contact{};
        double play = INFINITY;
        long long middle = 0;                                              ///< the tooth nearest the line of centres
        std::array<std::optional<double>, 2 * pairs_each_side + 1> wants;  ///< of the teeth round it: where each would hold the pinion

        std::optional<double> want_of(long long which) const {
            const long long place = which - middle + pairs_each_side;
            return place < 0 || place > 2 * pairs_each_side ? std::nullopt : wants[static_cast<size_t>(place)];
        }
    };

    Hold m_before;  ///< the last stand at which a tooth held

    long long nearest_tooth(double wheel) const { return -std::llround(wheel / m_wheel_pitch); }

    ContactPair::Stand stand_of(long long tooth, double wheel) const {
        const double nominal = wheel * m_teeth / m_leaves;
        ContactPair::Stand stand{wheel + static_cast<double>(tooth) * m_wheel_pitch, m_distance};
        if (tooth % m_in.mesh.wheel == 0) {
            stand.tooth_angle += m_in.bent_tooth_mm / (m_in.mesh.module_mm * m_teeth / 2);
            stand.shorter_mm = m_in.short_tooth_mm;
        }
        // A round wheel that was stretched: near the line of centres its teeth stand as if its middle had moved so.
        const double oval = m_in.wheel_oval_mm / 4;
        stand.wheel_centre = {m_in.wheel_eccentricity_mm * std::cos(wheel) + oval * std::cos(2 * wheel),
                              m_in.wheel_eccentricity_mm * std::sin(wheel) + oval * std::sin(2 * wheel)};
        stand.pinion_offset = {m_in.pinion_eccentricity_mm * std::cos(nominal), -m_in.pinion_eccentricity_mm * std::sin(nominal)};
        return stand;
    }

    Hold hold(double wheel) const {
        Hold out;
        out.wheel = wheel;
        const long long middle = nearest_tooth(wheel);
        out.middle = middle;
        for (long long k = -pairs_each_side; k <= pairs_each_side; ++k) {
            const long long tooth = middle + k;
            const ContactPair::Stand stand = stand_of(tooth, wheel);
            const auto contact = m_pair.push(stand);
            if (!contact) continue;
            const double pinion = contact->leaf_angle - static_cast<double>(tooth) * m_leaf_pitch;
            out.wants[static_cast<size_t>(k + pairs_each_side)] = pinion;
            if (out.any && pinion <= out.pinion) continue;
            out.any = true;
            out.tooth = tooth;
            out.pinion = pinion;
            out.contact = *contact;
        }
        // The leaf behind can only meet the teeth next to the line of centres.
        for (long long k = -1; k <= 1 && out.any; ++k) {
            const long long tooth = middle + k;
            const auto room = m_pair.room(stand_of(tooth, wheel));
            if (room) out.play = std::min(out.play, *room - static_cast<double>(tooth - 1) * m_leaf_pitch - out.pinion);
        }
        return out;
    }

    /// The middle one of some stands in a row.
    void consider(const std::deque<Hold>& trail, bool told, MeshSimulationResult& out) {
        const Hold& now = trail[beside];
        if (trail[beside - 1].any) m_before = trail[beside - 1];
        if (!now.any) {
            m_lost = true;
            return;
        }
        look_for_butting(now, m_before, out);
        look_between(m_before, now, out);
        const std::optional<double> by_way = speed_in(trail);
        by_way ? see(now, *by_way) : see(now);
        take(now);
        const double speed = by_way.value_or(speed_at(now));
        if (told) out.samples.push_back(sample_of(now, speed));
    }

    /// A tooth that comes into reach must find its leaf's tip ahead of it: where the others hold the pinion or, when they let go of
    /// it, where they left it.
    void look_for_butting(const Hold& now, const Hold& before, MeshSimulationResult& out) const {
        const double tolerance = butt_modules / (m_leaves / 2);
        for (long long tooth = now.middle - pairs_each_side; tooth <= now.middle + pairs_each_side; ++tooth) {
            const auto want = now.want_of(tooth);
            if (!want || before.want_of(tooth)) continue;
            double others = before.any ? before.pinion + m_step * m_teeth / m_leaves : -INFINITY;
            for (long long other = now.middle - pairs_each_side; other <= now.middle + pairs_each_side; ++other)
                if (const auto held = now.want_of(other); other != tooth && held) others = std::max(others, *held);
            if (others > -INFINITY && *want > others + tolerance) out.butts = true;
        }
    }

    /// Whether this tooth touches its leaf too, as near as makes no corner in the pinion's speed.
    bool still_touches(long long tooth, const Hold& now) const {
        constexpr double smooth_modules = 2 * touching_modules;
        const auto want = now.want_of(tooth);
        return tooth == now.tooth || (want && *want > now.pinion - smooth_modules / (m_leaves / 2));
    }

    double error_of(const Hold& hold) const { return hold.pinion - hold.wheel * m_teeth / m_leaves; }
    double across_wheel(const Contact& c, double fx, double fy) const { return c.x * fy - c.y * fx; }
    double across_pinion(const Contact& c, double fx, double fy) const { return (m_distance - c.x) * fy + c.y * fx; }
    /// Pinion's speed over the wheel's. What pushes along the flanks' normal moves along it: nothing is taken from one stand to the next.
    double ratio_at(const Contact& c) const { return across_wheel(c, c.nx, c.ny) / across_pinion(c, c.nx, c.ny); }
    double speed_at(const Hold& hold) const {
        const double ratio = ratio_at(hold.contact);
        return ratio > 0 ? ratio * m_leaves / m_teeth : 0;
    }
    /// By the way that was gone, where nothing happens beside it: smoother than the normal, which is as good as the points of the flanks.
    std::optional<double> speed_in(const std::deque<Hold>& trail) const {
        for (size_t i = 1; i < trail.size(); ++i)
            if (!trail[i - 1].any || !trail[i].any || leaps(trail[i - 1], trail[i])) return {};
        const double by_way =
            (trail.back().pinion - trail.front().pinion) / (trail.back().wheel - trail.front().wheel) * m_leaves / m_teeth;
        return std::abs(by_way - speed_at(trail[beside])) < speed_known ? std::optional(by_way) : std::nullopt;
    }
    MeshSample sample_of(const Hold& now, double speed) const {
        const Contact& c = now.contact;
        return {now.wheel * 180 / pi,
                now.pinion * 180 / pi,
                arcmin(error_of(now)),
                speed,
                c.x,
                c.y,
                std::atan2(c.y, m_distance - c.x) * 180 / pi,
                now.tooth};
    }

    /// The contact leaps from one stand to the other: to another tooth, or to another place of the same.
    bool leaps(const Hold& from, const Hold& to) const {
        constexpr double apart_modules = 0.15;  // several times what it creeps between two stands
        if (to.tooth != from.tooth) return !still_touches(from.tooth, to);
        return std::hypot(to.contact.x - from.contact.x, to.contact.y - from.contact.y) > apart_modules * m_in.mesh.module_mm;
    }

    /// A leap within one pair: off the edge of a worn step, or on to it.
    bool at_a_step(const Hold& from, const Hold& to) const {
        return m_in.wear_step_mm > 0 && arcmin(std::abs(error_of(from) - error_of(to))) > drop_arcmin;
    }

    /// Leaps between two stands, each found where it happens: what runs up to it and what begins with it are looked at there, for the
    /// speed is most or least at a pair's two ends.
    void look_between(Hold from, const Hold& to, MeshSimulationResult& out) {
        if (!from.any) return;
        const double fine = m_wheel_pitch * 1e-6;
        for (int leap = 0; leap < most_leaps; ++leap) {
            const bool other_tooth = to.tooth != from.tooth, leapt = leaps(from, to);
            if (!leapt && !at_a_step(from, to)) return;
            Hold low = from, high = to;
            while (high.wheel - low.wheel > fine) {
                const Hold middle = hold((low.wheel + high.wheel) / 2);
                if (!middle.any) return;
                const bool before = leapt && other_tooth ? middle.tooth != low.tooth
                                    : leapt              ? leaps(low, middle)
                                            : std::abs(error_of(low) - error_of(middle)) > std::abs(error_of(middle) - error_of(high));
                (before ? high : low) = middle;
            }
            // From pair to pair the pinion only falls; at a step it is lifted too.
            const double fall = leapt ? error_of(low) - error_of(high) : std::abs(error_of(low) - error_of(high));
            if (arcmin(fall) > drop_arcmin) out.drop_arcmin = std::max(out.drop_arcmin, arcmin(fall));
            see(low);
            see(high);
            from = high;
        }
    }

    /// What is most and least over the span.
    void see(const Hold& now) {
        // By the normal alone: what is no more beyond the others than that is known to be is not beyond them.
        const double speed = speed_at(now);
        if (speed < m_slowest.speed - speed_known || speed > m_fastest.speed + speed_known) see(now, speed);
        else see(now, 0);
    }
    void see(const Hold& now, double speed) {
        if (speed > 0 && speed < m_slowest.speed) m_slowest = {speed, now.wheel};
        if (speed > m_fastest.speed) m_fastest = {speed, now.wheel};
        m_least_error = std::min(m_least_error, error_of(now));
        m_most_error = std::max(m_most_error, error_of(now));
        m_least_play = std::min(m_least_play, now.play);
        m_engaged.push_back({now.wheel + static_cast<double>(now.tooth) * m_wheel_pitch, now.contact.leaf_angle, now.contact.y});
    }

    /// Where a corner comes to bear the speed turns between two stands: it is looked for there.
    void look_closely(const Extreme& found, double sign) {
        if (!(found.speed > 0) || !std::isfinite(found.speed)) return;
        const auto speed = [&](double wheel) -> double {
            const Hold now = hold(wheel);
            if (!now.any) return INFINITY;
            see(now);
            const double there = speed_at(now);
            return there > 0 ? sign * there : INFINITY;
        };
        constexpr int bits = 12;
        for (const double side : {-m_step, m_step})
            lowest_between(speed, std::min(found.wheel, found.wheel + side), std::max(found.wheel, found.wheel + side), bits);
    }

    /// What is a mean over the span.
    void take(const Hold& now) {
        add_work(now.contact);
        m_stands += 1;
        const double touching = touching_modules / (m_leaves / 2);
        for (const auto& want : now.wants)
            if (want && *want > now.pinion - touching) m_touching += 1;
    }

    /// Friction against the sliding, at this stand.
    void add_work(const Contact& c) {
        const double ratio = ratio_at(c);
        if (!(ratio > 0)) return;
        double sx = -c.y * (1 + ratio);
        double sy = c.x - ratio * (m_distance - c.x);
        const double sliding = std::hypot(sx, sy);
        if (sliding > 0) {
            sx /= sliding;
            sy /= sliding;
        }
        const double fx = c.nx + m_in.friction * sx;
        const double fy = c.ny + m_in.friction * sy;
        const double out = across_pinion(c, fx, fy);
        m_work_in += out > 0 ? across_wheel(c, fx, fy) / out : INFINITY;
        m_work_out += ratio;
    }

    void finish(MeshSimulationResult& out) {
        const double module = m_in.mesh.module_mm;
        if (!out.samples.empty()) {
            const double middle = arcmin(m_least_error + m_most_error) / 2;
            for (MeshSample& sample : out.samples) sample.error_arcmin -= middle;
            out.transmission_error_arcmin = arcmin(m_most_error - m_least_error);
            out.velocity_ratio_spread = m_fastest.speed > 0 ? m_fastest.speed / m_slowest.speed - 1 : 0;
            out.contact_ratio = m_touching / m_stands;
            out.backlash_mm = std::isfinite(m_least_play) ? m_least_play * module * m_leaves / 2 : 0;
            out.efficiency = m_work_in > 0 && std::isfinite(m_work_in) ? m_work_out / m_work_in : 0;
            out.engagement_before_centre_deg = engagement() * 180 / pi;
        }
        const GeometryResult sizes = tooth_geometry(m_in.mesh);
        out.tip_clearance_mm = m_distance - std::max(sizes.wheel.outside_diameter_mm + sizes.pinion.root_diameter_mm,
                                                     sizes.pinion.outside_diameter_mm + sizes.wheel.root_diameter_mm) /
                                                2;
        // Between trundles there is no root to strike.
        if (sizes.trundle_diameter_mm)
            out.tip_clearance_mm = m_distance - (sizes.pinion.outside_diameter_mm + sizes.wheel.root_diameter_mm) / 2;
        out.binds = out.backlash_mm < -no_play_modules * m_in.mesh.module_mm || out.tip_clearance_mm < 0 ||
                    (!out.samples.empty() && out.efficiency <= 0);
        out.verdict = verdict(out);
    }

    /// From where a pair first holds to where its contact crosses the line of centres, as the pinion turns.
    double engagement() {
        std::sort(m_engaged.begin(), m_engaged.end(), [](const Engaged& a, const Engaged& b) { return a.stand < b.stand; });
        if (m_engaged.front().y >= 0) return 0;
        for (const Engaged& e : m_engaged)
            if (e.y >= 0) return e.leaf - m_engaged.front().leaf;
        return m_engaged.back().leaf - m_engaged.front().leaf;
    }

    std::string verdict(const MeshSimulationResult& out) const {
        if (out.samples.empty() || (m_lost && !out.butts)) return "does not reach: at some stand no tooth touches a leaf";
        if (out.butts) return "butts: a tooth meets its leaf tip to tip; the train would lock";
        if (out.tip_clearance_mm < 0) return "binds: a tip strikes the bottom of its gap";
        if (out.efficiency <= 0) return "binds: at a step or a corner friction holds it";
        if (out.binds) return "binds: no play between the flanks";
        if (out.drop_arcmin > 0 && m_in.wear_step_mm > 0)
            return "rough: the pinion leaps " + print_fixed(out.drop_arcmin, 0) + "′ at the worn step or from one tooth to the next";
        if (out.drop_arcmin > 0) return "rough: the pinion falls " + print_fixed(out.drop_arcmin, 0) + "′ from one tooth to the next";
        if (out.velocity_ratio_spread > rough_spread)
            return "rough: the pinion's speed swings by " + print_fixed(100 * out.velocity_ratio_spread, 0) + " % from tooth to tooth";
        if (out.backlash_mm < tight_modules * m_in.mesh.module_mm) return "tight: no play to speak of between the flanks";
        if (out.efficiency < 0.85) return "heavy: only " + print_fixed(100 * out.efficiency, 0) + " % of the work comes through";
        return "runs";
    }
};

}  // namespace

const Record& MeshSimulationInput::record() {
    using In = MeshSimulationInput;
    static const Record record =
        Fields<In>()
            .include(&In::mesh)
            .add("flank", &In::flank, "", "wheel's curve: the true epicycloid or the standard's arc")
            .choices({"epicycloid", "arc"})
            .because("what a generating or true cutter gives; the standard's arc is a few hundredths of a module off")
            .add("depth_error_mm", &In::depth_error_mm, "mm", "how much too deep the holes stand; negative: too shallow", between(-50, 50))
            .add("friction", &In::friction, "", "coefficient: oiled brass on steel 0.10–0.15, dry 0.2–0.3", between(0, 1))
            .because("oiled brass on steel")
            .add("steps", &In::steps, "", "stands per pitch", between(8, 5000))
            .because("what is judged is looked at in 120 or more, whatever is asked for here")
            .add("wheel_eccentricity_mm", &In::wheel_eccentricity_mm, "mm", "half the wheel's runout", between(0, 50))
            .add("pinion_eccentricity_mm", &In::pinion_eccentricity_mm, "mm", "half the pinion's runout", between(0, 50))
            .add("wheel_oval_mm", &In::wheel_oval_mm, "mm", "the wheel's widest less its narrowest diameter, as wood goes by the season",
                 between(0, 50))
            .add("bent_tooth_mm", &In::bent_tooth_mm, "mm", "one tooth leads by this at the pitch circle; negative: lags", between(-50, 50))
            .add("short_tooth_mm", &In::short_tooth_mm, "mm", "the same tooth is this much lower", between(0, 50))
            .add("wear_step_mm", &In::wear_step_mm, "mm", "depth worn into the leaves' driven flanks inside the pitch circle",
                 between(0, 50))
            .add("span", &In::span, "", "what is run through")
            .choices({"pitch", "turn", "wheel"})
            .because("every pitch of sound teeth is alike");
    return record;
}

const Record& MeshSample::record() {
    using Out = MeshSample;
    static const Record record =
        Fields<Out>()
            .add("wheel_deg", &Out::wheel_deg, "deg", "how far the wheel has turned")
            .add("pinion_deg", &Out::pinion_deg, "deg", "and the pinion")
            .add("error_arcmin", &Out::error_arcmin, "arcmin", "of the pinion against a steady ratio")
            .add("velocity_ratio", &Out::velocity_ratio, "", "pinion's speed against the steady one")
            .add("contact_x_mm", &Out::contact_x_mm, "mm", "contact, from the wheel's centre towards the pinion's")
            .add("contact_deg", &Out::contact_deg, "deg", "of the touching point about the pinion; negative before the line")
            .add("contact_y_mm", &Out::contact_y_mm, "mm", "beside the line of centres; negative before it")
            .add("tooth", &Out::tooth, "", "which tooth pushes");
    return record;
}

const Record& MeshSimulationResult::record() {
    using Out = MeshSimulationResult;
    static const Record record =
        Fields<Out>()
            .add("velocity_ratio_spread", &Out::velocity_ratio_spread, "", "fastest ÷ slowest − 1 of the pinion")
            .add("transmission_error_arcmin", &Out::transmission_error_arcmin, "arcmin", "of the pinion, peak to peak")
            .add("engagement_before_centre_deg", &Out::engagement_before_centre_deg, "deg",
                 "turn of the pinion from a pair's first contact to the line of centres")
            .add("contact_ratio", &Out::contact_ratio, "", "pairs in touch, on average")
            .add("backlash_mm", &Out::backlash_mm, "mm", "least play on the pinion's pitch circle")
            .add("tip_clearance_mm", &Out::tip_clearance_mm, "mm", "the smaller of the two")
            .add("butts", &Out::butts, "", "tip meets tip")
            .add("binds", &Out::binds, "", "no play, no clearance, or friction holds it")
            .add("efficiency", &Out::efficiency, "", "work out ÷ work in over the span")
            .add("drop_arcmin", &Out::drop_arcmin, "arcmin", "largest fall of the pinion from one tooth to the next")
            .add("centre_distance_mm", &Out::centre_distance_mm, "mm", "as simulated")
            .add("verdict", &Out::verdict, "", "in words")
            .add("samples", &Out::samples, "", "stand by stand");
    return record;
}

MeshSimulationResult simulate_mesh(const MeshSimulationInput& input) {
    const double least = input.mesh.module_mm * static_cast<double>(input.mesh.wheel + input.mesh.pinion) / 2;
    if (input.depth_error_mm >= least)
        throw InputError("depth_error_mm", print_short(input.depth_error_mm), "less than the centre distance");
    return Simulation(input).run();
}

std::optional<DepthWindow> good_depths(const MeshSimulationInput& input, const Effort& effort) {
    constexpr double from = -1, to = 0.6, step = 0.05, fine = 0.002;
    const double module = input.mesh.module_mm;
    const auto runs = [&](double modules) {
        MeshSimulationInput at = input;
        at.depth_error_mm = modules * module;
        return simulate_mesh(at).verdict == "runs";
    };
    // The run of good depths nearest to none.
    std::optional<std::pair<double, double>> best;
    std::optional<std::pair<double, double>> now;
    const int steps = static_cast<int>(std::lround((to - from) / step));
    for (int i = 0; i <= steps + 1 && !effort.stopped(); ++i) {
        const double depth = from + step * i;
        if (i <= steps && runs(depth)) {
            now = now ? std::pair(now->first, depth) : std::pair(depth, depth);
        } else if (now) {
            const auto away = [](const std::pair<double, double>& w) { return w.first > 0 ? w.first : w.second < 0 ? -w.second : 0; };
            if (!best || away(*now) < away(*best)) best = now;
            now.reset();
        }
        effort.tell(static_cast<double>(i) / (steps + 1));
    }
    if (!best || effort.stopped()) return {};
    const auto edge = [&](double good, double bad) {
        while (std::abs(good - bad) > fine) (runs((good + bad) / 2) ? good : bad) = (good + bad) / 2;
        return good * module;
    };
    return DepthWindow{edge(best->first, best->first - step), edge(best->second, best->second + step)};
}

std::vector<Working> explain_mesh(const MeshSimulationInput& in, const MeshSimulationResult& out) {
    const auto said = [](const std::string& name, const std::string& formula, double value, const std::string& unit, std::string note) {
        Working working;
        working.name = name;
        working.formula = formula;
        working.result = {value, 0};
        working.unit = unit;
        working.source = mesh_simulation_source;
        if (!note.empty()) working.notes.push_back(std::move(note));
        return working;
    };
    return {
        said("verdict: " + out.verdict, "C = m (N + n) ÷ 2 − depth error", out.centre_distance_mm, "mm", ""),
        said("velocity ratio, spread", "fastest ÷ slowest − 1", out.velocity_ratio_spread, "", "of the pinion while one pair touches"),
        said("transmission error", "pinion's angle − wheel's × N ÷ n, peak to peak", out.transmission_error_arcmin, "arcmin", ""),
        said("engagement before the line of centres", "pinion's turn from first contact to the line", out.engagement_before_centre_deg,
             "deg", "contact before the line pushes the teeth into each other: more friction, most with few leaves"),
        said("contact ratio", "pairs in touch, on average", out.contact_ratio, "", "of rigid teeth"),
        said("efficiency", "work out ÷ work in, friction " + print_short(in.friction), out.efficiency, "", ""),
    };
}

const Calculation& mesh_simulation_calculation() {
    static const Calculation calculation = declare<MeshSimulationInput, MeshSimulationResult>(
        "mesh.simulate", "A wheel and its pinion turned in real contact: ratio, error, engagement, play, efficiency.",
        mesh_simulation_source, simulate_mesh, explain_mesh);
    return calculation;
}

}  // namespace echappe
