#include <algorithm>

#include "drawing/words.h"
#include "number/input_error.h"
#include "number/units.h"
#include "oscillator/balance_steps.h"
#include "oscillator/beat_setting.h"
#include "oscillator/compensation.h"
#include "oscillator/decay.h"
#include "oscillator/drawn_bodies.h"
#include "oscillator/hairspring_choice.h"
#include "oscillator/pendulum_design.h"
#include "oscillator/swing_typed.h"
#include "oscillator/torsion.h"
#include "stations/beat/beat_station.h"
#include "survey/hole_sums.h"

namespace echappe {
namespace {

const std::vector<std::string>& fields_of(const OscillatorRecord& o) {
    static const std::vector<std::string> pendulum = {
        "swing_deg", "needed_deg",   "rod",        "nut_pitch_mm", "tray_mm",       "mass_kg",
        "Q",         "latitude_deg", "altitude_m", "gravity_m_s2", "case_width_mm", "escapement_efficiency"};
    static const std::vector<std::string> balance = {"swing_deg",   "needed_deg",           "inertia_kg_m2", "pins_to_stud_mm",
                                                     "overhang_mm", "division_mm",          "beat_error_ms", "longer_beat",
                                                     "Q",           "escapement_efficiency"};
    return o.as<Pendulum>() ? pendulum : balance;
}

/// Of those, what stands on the drawing.
const std::vector<std::string>& drawn_fields_of(const OscillatorRecord& o) {
    static const std::vector<std::string> pendulum = {"swing_deg", "rod", "nut_pitch_mm", "tray_mm", "mass_kg", "case_width_mm"};
    static const std::vector<std::string> balance = {"swing_deg",   "pins_to_stud_mm", "overhang_mm",
                                                     "division_mm", "beat_error_ms",   "inertia_kg_m2"};
    return o.as<Pendulum>() ? pendulum : balance;
}

const std::vector<std::string>& fields_of_part(const std::string& shape) {
    static const std::vector<std::string> upright = {"shape",     "length_mm", "diameter_mm",  "top_mm",
                                                     "centre_mm", "mass_kg",   "density_kg_m3"};
    static const std::vector<std::string> flat = {"shape",     "diameter_mm", "thickness_mm", "top_mm",
                                                  "centre_mm", "mass_kg",     "density_kg_m3"};
    static const std::vector<std::string> point = {"shape", "centre_mm", "mass_kg"};
    return shape == "rod" || shape == "cylinder" ? upright : shape == "point" ? point : flat;
}

std::vector<std::string> names_of(const Record& record) {
    std::vector<std::string> names;
    for (const Field& field : record.fields()) names.push_back(field.name);
    return names;
}

void found(SumAnswer& answer, const std::string& words_of_it, double value, int decimals, const std::string& unit) {
    answer.found.push_back({words_of_it, words_of_it, print_fixed(value, decimals), unit, ""});
}

const std::vector<std::string>& position_names() {
    static const std::vector<std::string> all = {"dial up", "dial down", "12 down", "3 down", "6 down", "9 down"};
    return all;
}

/// "+4", "−3.5 270": the rate, and the amplitude there.
PositionRate read_position(const std::string& position, const std::string& word) {
    const size_t space = word.find(' ');
    PositionRate rate;
    rate.position = position;
    rate.rate_s_per_day = parse_reading(word.substr(0, space), base_unit(Dimension::number), position).value;
    if (space != std::string::npos) {
        const double amplitude = parse_reading(word.substr(space + 1), base_unit(Dimension::number), position + ", amplitude").value;
        if (!(amplitude > 0 && amplitude < 360))
            throw InputError(position + ", amplitude", word.substr(space + 1), "degrees from 0 to 360");
        rate.amplitude_deg = amplitude;
    }
    return rate;
}

}  // namespace

SumAnswer BeatStation::measured() const {
    SumAnswer answer;
    if (!oscillator()) return answer;
    const OscillatorRecord& o = *oscillator();
    answer.asked = lines_of(OscillatorRecord::record(), &o, fields_of(o));
    if (const auto& p = swings().pendulum) {
        found(answer, "gravity", p->gravity_m_s2, 5, "m/s²");
        found(answer, "the arc loses", p->circular_error_s_per_day, 1, "s/d");
        found(answer, "1 mm of length", p->s_per_day_per_mm, 1, "s/d");
        found(answer, "a kelvin, by the rod", p->temperature_s_per_day_per_K, 2, "s/d");
    }
    if (const auto& b = swings().balance) {
        if (b->s_per_day_per_mm_of_spring) found(answer, "1 mm of spring", *b->s_per_day_per_mm_of_spring, 0, "s/d");
        if (b->energy_J) found(answer, "energy that swings", in_microjoule(*b->energy_J), 1, "µJ");
    }
    const bool pendulum = o.as<Pendulum>();
    answer.asked.push_back(
        {"add", pendulum ? "another part: its name and shape, as in bob lens" : "another pair of screws: mg of each, mm from the staff", "",
         "", "unknown"});
    if (!swings().unfinished.empty()) answer.found.push_back({"unfinished", "", swings().unfinished, "", ""});
    answer.fault = swings().fault;
    return answer;
}

void BeatStation::add_to(OscillatorRecord& o, const std::string& word) const {
    const size_t space = word.find(' ');
    const std::string first = word.substr(0, space), second = space == std::string::npos ? "" : word.substr(space + 1);
    if (auto* pendulum = o.as<Pendulum>()) {
        PendulumPart part;
        part.name = first;
        type_into_record(PendulumPart::record(), &part, "shape", second.empty() ? "nothing" : second);
        pendulum->parts.push_back(part);
        return;
    }
    BalanceScrews pair;
    type_into_record(BalanceScrews::record(), &pair, "mass_mg", first.empty() ? "nothing" : first);
    type_into_record(BalanceScrews::record(), &pair, "radius_mm", second.empty() ? "nothing" : second);
    o.as<Balance>()->screws.push_back(pair);
}

std::map<std::string, double> BeatStation::facts() const {
    std::map<std::string, double> known;
    if (!oscillator()) return known;
    const OscillatorRecord& o = *oscillator();
    known = numbers_of(OscillatorRecord::record(), &o);
    if (const auto& beats = m_document.derived().train.beats_per_hour) known["beats_per_hour"] = *beats;
    if (o.swing_deg) known[o.as<Balance>() ? "amplitude_deg" : "semi_arc_deg"] = *o.swing_deg;
    if (swings().pendulum) known["length_mm"] = swings().pendulum->length_mm;
    const auto* b = o.as<Balance>();
    if (b && whole_spring(*b)) {
        known["width_mm"] = b->spring->width_mm;
        known["thickness_mm"] = b->spring->thickness_mm;
        known["length_mm"] = b->spring->length_mm + b->pins_to_stud_mm.value_or(0) + b->overhang_mm.value_or(0);
    }
    if (b && !b->inertia_kg_m2 && swings().wheel) known["inertia_kg_m2"] = swings().wheel->inertia_kg_m2;
    else if (b && !b->inertia_kg_m2 && swings().balance) known["inertia_kg_m2"] = swings().balance->inertia_kg_m2;
    for (const DerivedDrive& power : m_document.derived().power.drives)
        if (power.chain) known["energy_per_beat_J"] = power.chain->energy_end_per_beat_J;
    return known;
}

SumCard::Tab BeatStation::part_tab(size_t part) const {
    const auto& parts = oscillator()->as<Pendulum>()->parts;
    const std::string name = parts[part].name.empty() ? "part " + std::to_string(part + 1) : parts[part].name;
    return {words(name), words("One body of the pendulum, where it was measured. Lengths go down from the suspension."),
            [this, part] {
                SumAnswer answer;
                const auto* pendulum = oscillator()->as<Pendulum>();
                if (!pendulum || part >= pendulum->parts.size()) return answer;
                const PendulumPart& here = pendulum->parts[part];
                answer.asked = lines_of(PendulumPart::record(), &here, fields_of_part(here.shape));
                if (const auto& whole = swings().compound) {
                    found(answer, "equivalent length", whole->equivalent_length_mm, 2, "mm");
                    found(answer, "mass of all", whole->mass_kg, 3, "kg");
                    found(answer, "the air loses", whole->buoyancy_s_per_day, 1, "s/d");
                    found(answer, "1 g half-way down gains", whole->s_per_day_per_g_at_middle, 2, "s/d");
                    answer.found.push_back({"way", "", whole->which_way, "", ""});
                }
                answer.fault = swings().fault;
                return answer;
            },
            SumCard::typed_into_part<std::optional<OscillatorRecord>>(
                m_document,
                [part](std::optional<OscillatorRecord>& swings, const std::string& field, const std::string& word) {
                    type_into_record(PendulumPart::record(), &swings->as<Pendulum>()->parts.at(part), field, word);
                }),
            [shape = parts[part].shape] { return sizes_of_body(shape); }};
}

SumCard::Tab BeatStation::positions_tab(const QString& name, const QString& sentence, std::vector<PositionRate> Balance::*list) {
    SumCard::Tab tab{name, sentence,
                     [this, list] {
                         SumAnswer answer;
                         const auto* balance = oscillator()->as<Balance>();
                         if (!balance) return answer;
                         for (const std::string& position : position_names()) {
                             SumLine line{position, position, "", "", "unknown"};
                             for (const PositionRate& p : balance->*list)
                                 if (p.position == position) {
                                     line.text = print_fixed(p.rate_s_per_day, 1) + " s/d";
                                     if (p.amplitude_deg) line.text += " at " + print_fixed(*p.amplitude_deg, 0) + "°";
                                     line.from = "job";
                                 }
                             answer.asked.push_back(line);
                         }
                         if (const auto& poise = swings().poise) {
                             answer.found.push_back({"verdict", "", poise->verdict, "", ""});
                             if (poise->poise_s_per_day)
                                 answer.found.push_back({"want of poise", "want of poise",
                                                         print_measured(*poise->poise_s_per_day, *poise->poise_u_s_per_day), "s/d", ""});
                             if (poise->flat_less_vertical_s_per_day)
                                 found(answer, "flat less standing", *poise->flat_less_vertical_s_per_day, 1, "s/d");
                         }
                         answer.fault = swings().fault;
                         return answer;
                     },
                     SumCard::typed_into_part<std::optional<OscillatorRecord>>(
                         m_document, [list](std::optional<OscillatorRecord>& swings, const std::string& position, const std::string& word) {
                             auto& positions = swings->as<Balance>()->*list;
                             std::optional<PositionRate> read;
                             if (!word.empty()) read = read_position(position, word);
                             std::erase_if(positions, [&](const PositionRate& old) { return old.position == position; });
                             if (read) positions.push_back(*read);
                         })};
    tab.listed = true;
    return tab;
}

SumCard::Tab BeatStation::measured_tab() const {
    return {words("as measured"), words("Click a figure to type it; empty takes it out."), [this] { return measured(); },
            SumCard::typed_into_part<std::optional<OscillatorRecord>>(
                m_document,
                [this](std::optional<OscillatorRecord>& there, const std::string& field, const std::string& word) {
                    if (field == "add") return word.empty() ? void() : add_to(*there, word);
                    type_with_swings(OscillatorRecord::record(), &*there, field, word, swings().bob_mm());
                    // Who types it has measured it; what ships is assumed.
                    if (field == "Q") there->Q_measured = true;
                }),
            [this] { return oscillator() ? drawn_fields_of(*oscillator()) : std::vector<std::string>(); }};
}

/// Taking the balance out and putting it in, a tick for each step.
SumCard::Tab BeatStation::balance_tab() {
    static const std::vector<std::string> fields = {"overhang_mm", "shake_screw_pitch_mm", "shake_turns"};
    return {words("out and in"), words("The balance out and in again, step by step. Click ticks."),
            [this] {
                SumAnswer answer;
                const auto* balance = oscillator()->as<Balance>();
                if (!balance) return answer;
                answer.asked = lines_of(Balance::record(), balance, fields);
                for (const BalanceStep& step : balance_steps(*balance)) {
                    const auto& all = balance->steps_done;
                    const bool done = std::find(all.begin(), all.end(), step.id) != all.end();
                    answer.found.push_back({step.id, "", step.words, "", done ? "done" : "open"});
                    if (!step.caution.empty()) answer.found.push_back({"caution", "", step.caution, "", "caution"});
                }
                return answer;
            },
            SumCard::typed_into_part<std::optional<OscillatorRecord>>(
                m_document, [](std::optional<OscillatorRecord>& swings, const std::string& field, const std::string& word) {
                    Balance& balance = *swings->as<Balance>();
                    if (std::find(fields.begin(), fields.end(), field) != fields.end())
                        return type_into_record(Balance::record(), &balance, field, word);
                    std::erase(balance.steps_done, field);
                    if (!word.empty()) balance.steps_done.push_back(field);
                })};
}

SumCard::Tab BeatStation::sum_tab(const QString& name, const Calculation& sum) {
    return SumCard::of_sum(
        m_document, name, sum, [] { return std::string("oscillator"); }, [this] { return facts(); });
}

/// The spring it hangs on, as it is drawn.
SumCard::Tab BeatStation::suspension_tab() {
    return SumCard::of_sum(
        m_document, words("suspension"), suspension_calculation(), [] { return std::string("suspension"); },
        [this] {
            std::map<std::string, double> known;
            const Pendulum* pendulum = oscillator() ? oscillator()->as<Pendulum>() : nullptr;
            if (!pendulum) return known;
            if (pendulum->suspension) known = numbers_of(SuspensionSpring::record(), &*pendulum->suspension);
            const auto& compound = swings().compound;
            if (pendulum->mass_kg || compound) known["mass_kg"] = compound ? compound->mass_kg : *pendulum->mass_kg;
            if (oscillator()->swing_deg) known["swing_deg"] = *oscillator()->swing_deg;
            if (swings().pendulum) known["pendulum_mm"] = swings().pendulum->length_mm;
            return known;
        });
}

template <class Nested>
SumCard::Tab BeatStation::nested_tab(const QString& name, const QString& sentence, std::optional<Nested> Balance::*member,
                                     std::function<void(SumAnswer&)> tell) const {
    return {name, sentence,
            [this, member, tell] {
                SumAnswer answer;
                const auto* balance = oscillator()->as<Balance>();
                const std::optional<Nested> there = balance ? balance->*member : std::nullopt;
                const Nested part = there.value_or(Nested());
                answer.asked = lines_of(Nested::record(), &part, names_of(Nested::record()));
                for (SumLine& line : answer.asked)
                    if (!there) line.text.clear(), line.from = "unknown";
                if (tell) tell(answer);
                answer.fault = swings().fault;
                return answer;
            },
            SumCard::typed_into_part<std::optional<OscillatorRecord>>(
                m_document, [member](std::optional<OscillatorRecord>& swings, const std::string& field, const std::string& word) {
                    auto& there = swings->as<Balance>()->*member;
                    Nested part = there.value_or(Nested());
                    type_into_record(Nested::record(), &part, field, word);
                    there = part;
                })};
}

SumCard::Tab BeatStation::wheel_tab() const {
    return nested_tab(words("wheel"), words("The balance as drawn: rim, arms, hub. Its screws are counted in."), &Balance::wheel,
                      [this](SumAnswer& answer) {
                          const auto& wheel = swings().wheel;
                          if (!wheel) return;
                          found(answer, "inertia by its sizes", in_mg_cm2(wheel->inertia_kg_m2), 3, "mg cm²");
                          found(answer, "of that the screws", in_mg_cm2(wheel->screws_kg_m2), 3, "mg cm²");
                          found(answer, "mass", 1000 * wheel->mass_g, 0, "mg");
                          found(answer, "1 mg more in the rim loses", wheel->s_per_day_per_mg_rim, 0, "s/d");
                      });
}

SumCard::Tab BeatStation::screws_tab() const {
    return {words("screws"), words("The first pair of screws: both are moved alike, or the balance is out of poise."),
            [this] {
                SumAnswer answer;
                const auto* balance = oscillator()->as<Balance>();
                if (!balance || balance->screws.empty()) return answer;
                answer.asked = lines_of(BalanceScrews::record(), &balance->screws.front(), {"mass_mg", "radius_mm", "pitch_mm"});
                return answer;
            },
            SumCard::typed_into_part<std::optional<OscillatorRecord>>(
                m_document, [](std::optional<OscillatorRecord>& swings, const std::string& field, const std::string& word) {
                    type_into_record(BalanceScrews::record(), &swings->as<Balance>()->screws.at(0), field, word);
                })};
}

/// From the top down: what it hangs on, the bodies, then what hangs and moves. What no body was begun for may stay.
DrawnSizes BeatStation::sizes_of_pendulum(const Pendulum& pendulum) const {
    DrawnSizes sizes;
    const auto add = [&](DrawnSizes more, bool may_stay) {
        for (DrawnSize& size : more) {
            size.may_stay = size.may_stay || may_stay;
            sizes.push_back(std::move(size));
        }
    };
    const SuspensionSpring strip = pendulum.suspension.value_or(SuspensionSpring());
    const auto take_strip = SumCard::typed_into_part<std::optional<OscillatorRecord>>(
        m_document, [](std::optional<OscillatorRecord>& swings, const std::string& field, const std::string& word) {
            type_into_part(swings->as<Pendulum>()->suspension, field, word);
        });
    static const std::vector<std::string> of_strip = {"length_mm", "width_mm", "thickness_mm"};
    add(drawn_from(lines_of(SuspensionSpring::record(), &strip, of_strip), of_strip, take_strip, "suspension."), true);
    const std::vector<DrawnBody> bodies = drawn_bodies(pendulum);
    for (size_t i = 0; i < bodies.size(); ++i) {
        const PendulumPart& body = bodies[i].part;
        const auto take = SumCard::typed_into_part<std::optional<OscillatorRecord>>(
            m_document, [i](std::optional<OscillatorRecord>& swings, const std::string& field, const std::string& word) {
                type_into_body(*swings->as<Pendulum>(), i, field, word);
            });
        const auto& fields = sizes_of_body(body.shape);
        const bool upright = body.shape == "rod" || body.shape == "cylinder";
        const bool either = upright ? body.centre_mm.has_value() : body.top_mm.has_value();
        DrawnSizes own = drawn_from(lines_of(PendulumPart::record(), &body, fields), fields, take, QString("part.%1.").arg(i),
                                    body.name.empty() ? words("part %1").arg(i + 1) : words(body.name));
        // Where its weight is told its sizes need no density, and where its other end is known this one follows.
        for (DrawnSize& size : own)
            size.may_stay = (either && (size.line.field == "top_mm" || size.line.field == "centre_mm")) || size.line.field == "mass_kg";
        add(std::move(own), !bodies[i].begun);
    }
    const SumCard::Tab whole = measured_tab();
    const std::vector<SumLine> lines = measured().asked;
    const auto of_whole = [&](std::vector<std::string> fields, bool may_stay) { add(drawn_from(lines, fields, whole.take), may_stay); };
    if (pendulum.parts.empty()) of_whole({"mass_kg"}, true);
    of_whole({"nut_pitch_mm", "swing_deg"}, false);
    of_whole({"case_width_mm", "tray_mm", "rod"}, true);
    return sizes;
}

DrawnSizes BeatStation::sizes_of_balance(const Balance& balance) const {
    DrawnSizes sizes;
    const auto add = [&](const SumCard::Tab& tab, const char* of, std::vector<std::string> fields, bool may_stay) {
        DrawnSizes own = drawn_from(tab.answer().asked, fields, tab.take, of);
        for (DrawnSize& size : own) size.may_stay = may_stay, sizes.push_back(size);
    };
    const SumCard::Tab whole = measured_tab();
    add(nested_tab({}, {}, &Balance::spring), "spring.", {"length_mm", "width_mm", "thickness_mm"}, false);
    add(whole, "", {"pins_to_stud_mm", "swing_deg", "beat_error_ms"}, false);
    add(whole, "", {"overhang_mm", "division_mm"}, true);
    const bool whole_wheel_wanted = balance.wheel.has_value();
    add(nested_tab({}, {}, &Balance::wheel), "wheel.", {"rim_outside_mm", "rim_inside_mm", "rim_height_mm", "arm_width_mm", "hub_mm"},
        !whole_wheel_wanted);
    if (!balance.screws.empty()) add(screws_tab(), "screws.", {"mass_mg", "radius_mm", "pitch_mm"}, true);
    if (!whole_wheel_wanted) add(whole, "", {"inertia_kg_m2"}, true);
    return sizes;
}

DrawnSizes BeatStation::own_sizes() const {
    if (!oscillator()) return {};
    if (const auto* pendulum = oscillator()->as<Pendulum>()) return sizes_of_pendulum(*pendulum);
    return sizes_of_balance(*oscillator()->as<Balance>());
}

std::vector<SumCard::Tab> BeatStation::tabs() {
    std::vector<SumCard::Tab> list = {measured_tab()};
    if (const auto* pendulum = oscillator()->as<Pendulum>()) {
        for (size_t part = 0; part < pendulum->parts.size(); ++part) list.push_back(part_tab(part));
        list.push_back(suspension_tab());
        list.push_back(sum_tab(words("warmth"), compensation_calculation()));
        list.push_back(sum_tab(words("a new one"), pendulum_design_calculation()));
        list.push_back(sum_tab(words("torsion"), torsion_calculation()));
        list.push_back(sum_tab(words("Q"), decay_calculation()));
        return list;
    }
    list.push_back(nested_tab(words("spring"), words("The hairspring, its length from collet to pins."), &Balance::spring));
    list.push_back(wheel_tab());
    if (!oscillator()->as<Balance>()->screws.empty()) list.push_back(screws_tab());
    list.push_back(
        positions_tab(words("poise"),
                      words("The rate held still in each position, the dial's hour that is down; its amplitude after it: +4 270. With "
                            "the pendant at 12, 12 down is pendant down, 3 down right, 6 down up, 9 down left."),
                      &Balance::positions));
    list.push_back(
        positions_tab(words("let down"),
                      words("The same positions once more, let down until it swings at least 40° less: that tells which side is heavy."),
                      &Balance::let_down));
    list.push_back(balance_tab());
    list.push_back(sum_tab(words("in beat"), beat_setting_calculation()));
    list.push_back(sum_tab(words("a new spring"), hairspring_choice_calculation()));
    list.push_back(sum_tab(words("Q"), decay_calculation()));
    return list;
}

}  // namespace echappe
