#include "beat/rate_means.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

/// The part that the nut carries: the heaviest.
size_t bob_of(const CompoundPendulumInput& body) {
    const auto kg = [](const PendulumPart& part) {
        return part.mass_kg.value_or(part.density_kg_m3.value_or(0) * shape_of(part, "parts").volume_m3);
    };
    const auto heaviest =
        std::max_element(body.parts.begin(), body.parts.end(), [&](const auto& a, const auto& b) { return kg(a) < kg(b); });
    return static_cast<size_t>(heaviest - body.parts.begin());
}

double period_of(const CompoundPendulumInput& body) { return compound_pendulum(body).period_s; }

double by_nut(const OscillatorRecord& o, const Pendulum& p, double beats, double turns) {
    CompoundPendulumInput body = pendulum_body_of(o, p, beats);
    const double before = period_of(body);
    PendulumPart& bob = body.parts[bob_of(body)];
    (bob.centre_mm ? *bob.centre_mm : *bob.top_mm) -= turns * *p.nut_pitch_mm;
    return day_s * (before / period_of(body) - 1);
}

double by_tray(const OscillatorRecord& o, const Pendulum& p, double beats, double grams) {
    CompoundPendulumInput body = pendulum_body_of(o, p, beats);
    const double all_g = 1000 * compound_pendulum(body).mass_kg;
    if (-grams >= all_g)
        throw InputError("tray", print_fixed(grams, 1) + " g", "less off than the pendulum's " + print_short(all_g, 4) + " g");
    body.add_mass_kg = grams / 1000;
    body.add_at_mm = *p.tray_mm;
    return *compound_pendulum(body).add_s_per_day;
}

BalanceInput balance_of(const Balance& b, double beats) {
    BalanceInput in;
    in.beats_per_hour = beats;
    if (const Hairspring* spring = whole_spring(b)) in.spring = *spring;
    else in.inertia_kg_m2 = b.inertia_kg_m2 ? b.inertia_kg_m2 : std::optional(balance_wheel({*whole_wheel(b), b.screws}).inertia_kg_m2);
    in.screws = b.screws;
    for (BalanceScrews& pair : in.screws) pair.move_mm = 0;
    return in;
}

double by_pins(const Balance& b, double beats, double mm) {
    BalanceInput in = balance_of(b, beats);
    in.length_change_mm = -mm;
    return balance(in).rate_change_s_per_day;
}

size_t pair_of(const RateMeans& means) { return std::stoul(means.id.substr(means.id.find('.') + 1)); }

double by_screws(const Balance& b, double beats, const RateMeans& means, double amount) {
    BalanceInput in = balance_of(b, beats);
    BalanceScrews& pair = in.screws[pair_of(means)];
    pair.move_mm = -amount * pair.pitch_mm.value_or(1);
    return balance(in).rate_change_s_per_day;
}

RateMeans named(std::string id, std::string name, std::string unit, double step, double most, std::string gains, std::string loses) {
    return {std::move(id), std::move(name), std::move(unit), step, most, 0, false, std::move(gains), std::move(loses), false, {}, {}, {}};
}

std::vector<RateMeans> of_pendulum(const OscillatorRecord& o, const Pendulum& p, double beats) {
    std::vector<RateMeans> list;
    constexpr double eighth = 0.125;
    if (p.nut_pitch_mm)
        list.push_back(named("nut", "rating nut", "turn", eighth, 8, "up: the bob higher, faster", "down: the bob lower, slower"));
    if (p.tray_mm && (p.mass_kg || whole_parts(p))) {
        // Above the centre of swing a weight laid on gains, below it loses.
        RateMeans tray = named("tray", "tray", "g", 0.1, 50, "laid on the tray: faster", "taken off the tray: slower");
        if (by_tray(o, p, beats, 1) < 0)
            tray.gains = "taken off the tray: faster", tray.loses = "laid on the tray: slower", tray.gains_taken_off = true;
        list.push_back(tray);
    }
    return list;
}

std::vector<RateMeans> of_balance(const Balance& b) {
    std::vector<RateMeans> list;
    const Hairspring* spring = whole_spring(b);
    if (spring)
        list.push_back(named("pins", "regulator pins", "mm", 0.01, std::min(3.0, spring->length_mm / 10),
                             "away from the stud: shorter, faster", "towards the stud: longer, slower"));
    if (!spring && !b.inertia_kg_m2 && !whole_wheel(b)) return list;
    for (size_t i = 0; i < b.screws.size(); ++i) {
        const bool threaded = b.screws[i].pitch_mm.has_value();
        const std::string which = b.screws.size() > 1 ? "screws, pair " + std::to_string(i + 1) : "pair of screws";
        list.push_back(named("screws." + std::to_string(i), which, threaded ? "turn" : "mm", threaded ? 0.125 : 0.01, threaded ? 4 : 1,
                             "in, both alike: faster", "out, both alike: slower"));
    }
    return list;
}

std::string turns_in_words(double turns) {
    const double eighths = std::round(std::abs(turns) * 8) / 8;
    const double whole = std::floor(eighths);
    static const char* parts[] = {"", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞"};
    const auto part = static_cast<size_t>(std::lround((eighths - whole) * 8));
    const std::string words = (whole > 0 || part == 0 ? print_fixed(whole, 0) : "") + parts[part];
    return words + (eighths > 0 && eighths <= 1 ? " turn" : " turns");
}

/// True where a positive amount means taking a weight off.
bool takes_off(const RateMeans& means) { return means.gains_taken_off; }

}  // namespace

const Record& RateMeans::record() {
    using Out = RateMeans;
    static const Record record =
        Fields<Out>()
            .add("id", &Out::id, "", "nut, tray, pins, screws.0")
            .add("name", &Out::name, "", "in words")
            .add("unit", &Out::unit, "", "of an amount; positive gains")
            .add("s_per_day_per_unit", &Out::s_per_day_per_unit, "s/d", "gained by one")
            .add("learnt", &Out::learnt, "", "from what the last changes did, not from the sizes")
            .add("advised", &Out::advised, "", "that brings the rate right")
            .add("left_s_per_day", &Out::left_s_per_day, "s/d", "the rate expected then")
            .add("left_u_s_per_day", &Out::left_u_s_per_day, "s/d", "of the fit, of setting it, and of what a unit does")
            .add("advice", &Out::advice, "", "in words");
    return record;
}

std::vector<RateMeans> rate_means(const OscillatorRecord& o, double beats) {
    std::vector<RateMeans> list = o.as<Pendulum>() ? of_pendulum(o, *o.as<Pendulum>(), beats) : of_balance(*o.as<Balance>());
    for (RateMeans& means : list) means.s_per_day_per_unit = rate_change(o, beats, means, means.step) / means.step;
    return list;
}

double rate_change(const OscillatorRecord& o, double beats, const RateMeans& means, double amount) {
    if (amount == 0) return 0;
    if (means.learnt) return means.s_per_day_per_unit * amount;
    if (const auto* p = o.as<Pendulum>())
        return means.id == "nut" ? by_nut(o, *p, beats, amount) : by_tray(o, *p, beats, takes_off(means) ? -amount : amount);
    const Balance& b = *o.as<Balance>();
    return means.id == "pins" ? by_pins(b, beats, amount) : by_screws(b, beats, means, amount);
}

double amount_for(const OscillatorRecord& o, double beats, const RateMeans& means, double wanted) {
    double a = wanted / means.s_per_day_per_unit;
    if (means.learnt) return a;
    double slope = means.s_per_day_per_unit;
    constexpr int most_steps = 30;  // nearly straight: four do
    for (int i = 0; i < most_steps; ++i) {
        const double now = rate_change(o, beats, means, a);
        if (a != 0 && now != 0) slope = now / a;
        const double next = a + (wanted - now) / slope;
        if (std::abs(next - a) < 1e-9) return next;
        a = next;
    }
    return a;
}

std::string amount_in_words(const OscillatorRecord& o, const RateMeans& means, double amount) {
    if (means.unit == "turn") return turns_in_words(amount);
    if (means.unit == "g") return print_fixed(std::abs(amount), 1) + " g";
    std::string microns = print_fixed(1000 * std::abs(amount), 0) + " µm";
    const auto* balance = o.as<Balance>();
    if (means.id != "pins" || !balance || !balance->division_mm) return microns;
    const double divisions = std::abs(amount) / *balance->division_mm;
    return microns + " (" + print_fixed(divisions, 1) + (std::abs(divisions - 1) < 0.05 ? " division)" : " divisions)");
}

std::string change_in_words(const OscillatorRecord& o, const RateMeans& means, double amount) {
    return amount_in_words(o, means, amount) + ", " + (amount >= 0 ? means.gains : means.loses);
}

}  // namespace echappe
