#include "cards/plan.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "number/constants.h"
#include "number/units.h"
#include "parts/joint.h"
#include "parts/material.h"

namespace echappe {

const char* const rotating = "Eyes covered, sleeves tied, no gloves at what turns.";
const char* const hot = "Heat, oil and fumes: eyes and hands covered, a lid by the oil, ventilate. Local rules come first.";

std::string mm(double value) { return print_fixed(value, 2) + " mm"; }

Plan::Plan(DerivedCard& card, const PartCard* kept) : m_card(card), m_kept(kept) {
    if (kept) card.ticks = kept->ticks;
}

CardStep& Plan::step(const std::string& id, const std::string& words, const std::string& tool) {
    CardStep step;
    step.id = id, step.words = words, step.tool = tool;
    step.done = m_kept && m_kept->is_done(id);
    m_card.steps.push_back(std::move(step));
    return m_card.steps.back();
}

CardStep& Plan::read(const std::string& id, const std::string& words, const std::string& tool, const CardSize& size,
                     const std::function<std::string(const Beyond& read)>& way_out) {
    CardStep& out = step(id, words, tool);
    out.size = size, out.reads = true;
    if (!size.only_limit() && (size.nominal_mm > size.max_mm || size.nominal_mm < size.min_mm))
        out.size->nominal_mm = (size.max_mm + size.min_mm) / 2;
    const CardReading* reading = m_kept ? m_kept->reading(id) : nullptr;
    if (!reading) return out;
    // A reading to hundredths meets limits in thousandths.
    constexpr double hair = 5e-4;
    out.read_mm = reading->value_mm;
    out.right = *out.read_mm <= size.max_mm + hair && *out.read_mm >= size.min_mm - hair;
    const bool over = *out.read_mm > size.max_mm;
    out.verdict =
        out.right ? "Within its limits." : way_out({*out.read_mm, over ? *out.read_mm - size.max_mm : size.min_mm - *out.read_mm, over});
    return out;
}

double Plan::size_of(const std::string& id) const {
    const CardStep* step = m_card.step(id);
    return step->read_mm.value_or(step->size->nominal_mm);
}

std::string Plan::from(const std::string& id, const std::string& what) const {
    const CardStep* step = m_card.step(id);
    return step->read_mm ? "from " + what + " as it was read, " + mm(*step->read_mm) : "from the drawing, until " + what + " is read";
}

void Plan::divides(CardStep& step, long long divisions, double pitch_radius, const std::optional<DividingHead>& head) {
    step.divides = true;
    if (head) {
        DividingTableInput in;
        in.dividing.divisions = divisions, in.dividing.head = *head, in.dividing.pitch_radius_mm = pitch_radius;
        m_card.table = dividing_table(in);
    } else {
        // Without a head there is a row for each tooth all the same, to be ticked.
        m_card.table.emplace();
        for (long long tooth = 1; tooth <= divisions; ++tooth) m_card.table->rows.push_back({tooth, 0, 0, 0, 0});
        m_card.table->verdict = "No dividing plates in the drawers: put them in (Ctrl+Shift+W), and the moves stand here.";
    }
    step.done = step.done || !m_card.next_tooth();
    if (head && m_card.table && !m_card.table->exact) m_card.notes.push_back(m_card.table->verdict);
}

namespace {

/// Diameters and thicknesses that are sold. Dealers' lists.
double next_sold(const std::string& form, double size_mm) {
    constexpr double hair = 1e-6;
    static const std::vector<double> sheets = {0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1,  1.2,
                                               1.5, 1.6, 2,   2.5, 3,   4,   5,   6,   8,   10, 12};
    if (form == "sheet" || form == "bar") {
        const auto at = std::lower_bound(sheets.begin(), sheets.end(), size_mm - hair);
        return at != sheets.end() ? *at : std::ceil(size_mm / 5 - hair) * 5;
    }
    constexpr double fine_to = 6, whole_to = 20;
    const double step = size_mm <= fine_to ? 0.5 : size_mm <= whole_to ? 1 : 2;
    return std::ceil(size_mm / step - hair) * step;
}

}  // namespace

void Plan::stock(const std::string& form, const std::string& of, double size_mm, double width_mm, double length_mm, bool as_it_is) {
    CardStock stock;
    // Silver steel is sold as rod; the same steel in sheets is gauge plate.
    stock.form = form, stock.material = form == "sheet" && of == "silver steel" ? "gauge plate" : of;
    stock.size_mm = size_mm, stock.width_mm = width_mm, stock.length_mm = length_mm;
    stock.as_it_is = as_it_is, stock.sold_mm = as_it_is ? size_mm : next_sold(form, size_mm);
    const bool round = form == "rod" || form == "wire" || form == "tube";
    const double area = round ? pi * stock.sold_mm * stock.sold_mm / 4 : stock.sold_mm * width_mm;
    stock.mass_g = area * length_mm * material(of).density_kg_m3 * 1e-6;
    m_card.stock = stock;
    const std::string thick = print_short(stock.sold_mm, 3) + " mm ", along = print_fixed(length_mm, 0);
    step("take",
         round ? "Cut " + along + " mm of " + thick + stock.material + " " + form
               : "Cut a " + along + " × " + print_fixed(width_mm, 0) + " blank from " + thick + stock.material,
         "saw");
}

void Plan::bears(const std::string& what, double bears_C, const std::string& since) { m_card.bears.push_back({what, bears_C, since}); }

void Plan::speed(CardStep& step, const std::string& of, Cutting with, double diameter_mm, bool hard) {
    step.rpm = cutting_rpm(material(of), with, diameter_mm, hard);
    step.feed_mm = feed_mm(material(of), with, diameter_mm);
    step.caution = rotating;
}

void Plan::harden(const std::string& how, double temper_C, const std::string& colour) {
    CardStep& red = step("harden", "Harden: " + print_fixed(cherry_red_C, 0) + " °C, cherry red, " + how + " into oil", "torch, oil");
    red.caution = hot, red.heat_C = cherry_red_C;
    red.check = "One heat for the whole part. A file skates over it.";
    CardStep& temper =
        step("temper", "Temper to " + print_fixed(temper_C, 0) + " °C, " + colour + ", even along it", "brass filings over a flame");
    temper.caution = hot, temper.heat_C = temper_C;
    temper.check = "Scale rubbed off first, so that the colour shows.";
    bears("hardened steel loses its temper", temper_C, "temper");
}

namespace {

std::string joint_in_words(const std::string& way) {
    static const std::map<std::string, std::string> words = {
        {"soft-solder", "soft solder"}, {"silver-solder", "silver solder"}, {"press", "a press fit"}, {"taper-pin", "a taper pin"}};
    const auto at = words.find(way);
    return at == words.end() ? way : at->second;
}

}  // namespace

std::string Plan::join(const std::string& words, const std::string& wanted, double diameter_mm, double length_mm,
                       const std::optional<double>& torque_N_mm) {
    m_card.joints = weigh_joints(diameter_mm, length_mm, torque_N_mm, m_card.bears);
    std::string way = wanted;
    for (const JointWay& one : m_card.joints)
        if (one.way == wanted && !one.possible) {
            way = advised_joint(m_card.joints);
            m_card.notes.push_back("Not by " + joint_in_words(wanted) + ": " + one.reason);
        }
    if (way.empty()) {
        step("decide", "No solder and no adhesive can hold this here: rivets, pins or a press fit", "").check =
            "What was weighed stands below.";
        return way;
    }
    JointInput in;
    in.way = way, in.diameter_mm = diameter_mm, in.length_mm = length_mm, in.torque_N_mm = torque_N_mm;
    in.outside_mm = 2 * diameter_mm, in.interference_mm = 0.01, in.circle_mm = 1.5 * diameter_mm;
    in.pin_mm = std::min(in.pin_mm, diameter_mm / 4);
    const JointResult joint = join_parts(in);
    const JointFiller* filler = joint_filler(way);
    CardStep& fix = step("join", words + " by " + joint_in_words(way), way);
    fix.caution = joint.caution, fix.heat_C = filler ? filler->hot_C : room_C;
    fix.check = "It holds " + print_short(joint.holds_N_mm, 3) + " N mm" +
                (joint.margin ? ", " + print_short(*joint.margin, 3) + " times the torque there." : std::string("."));
    if (!filler) return way;
    if (way == "retainer") {
        bears("retainer lets go", filler->lets_go_C, "join");
        fix.check += " A night to cure before it is cut.";
        return way;
    }
    bears(way == "soft-solder" ? "soft solder lets go" : "silver solder lets go", filler->lets_go_C, "join");
    CardStep& wash = step("flux", "Wash the flux off before anything is cut",
                          way == "soft-solder" ? "hot water for acid flux, alcohol for rosin" : "hot water, or a warm pickle");
    wash.caution = "Flux residue keeps corroding. Soda does not shift the flux of silver solder.";
    return way;
}

void forbid(DerivedCard& card, std::vector<CardStep> steps, const PartCard* kept) {
    for (CardStep& step : steps) {
        step.forbids = true;
        const CardOverruled* overruled = kept ? kept->overruling(step.id) : nullptr;
        step.done = overruled != nullptr;
        if (overruled) step.verdict = "Overruled: " + overruled->because;
    }
    card.steps.insert(card.steps.begin(), std::make_move_iterator(steps.begin()), std::make_move_iterator(steps.end()));
}

double grinding_allowance_mm(double diameter_mm, double length_mm) {
    constexpr double least = 0.1, most = 0.3, slender = 10;
    const double wanted = least + 0.02 * diameter_mm + (length_mm > slender * diameter_mm ? 0.05 : 0);
    return std::clamp(std::round(100 * wanted) / 100, least, most);
}

namespace {

double drill_step_mm(double size_mm) {
    constexpr double fine_to = 3, fine = 0.05, whole = 0.1;
    return size_mm <= fine_to ? fine : whole;
}

}  // namespace

double sold_drill_mm(double size_mm) {
    const double step = drill_step_mm(size_mm);
    return step * std::max(1.0, std::round(size_mm / step));
}

double sold_drill_under_mm(double size_mm) {
    constexpr double hair = 1e-9;
    const double step = drill_step_mm(size_mm);
    return step * std::max(1.0, std::floor(size_mm / step + hair));
}

double perimeter_mm(const std::vector<Point>& outline) {
    double sum = 0;
    for (size_t i = 0; i < outline.size(); ++i) {
        const Point &a = outline[i], &b = outline[(i + 1) % outline.size()];
        sum += std::hypot(b[0] - a[0], b[1] - a[1]);
    }
    return sum;
}

double minutes_to_saw(double along_mm, double thickness_mm) {
    constexpr double begin = 2, mm2_a_minute = 6;
    return begin + along_mm * thickness_mm / mm2_a_minute;
}

double minutes_to_file(double along_mm, double thickness_mm) {
    constexpr double begin = 3, mm2_a_minute = 3;
    return begin + along_mm * thickness_mm / mm2_a_minute;
}

std::string mm_off(double value) {
    constexpr double of_hundredths = 0.02;
    return print_fixed(value, value < of_hundredths ? 3 : 2) + " mm";
}

std::function<std::string(const Beyond&)> out_of(const std::string& under) {
    return [=](const Beyond& read) -> std::string {
        if (read.over) return "Over its largest by " + mm_off(read.by) + ": take it off before anything else is done.";
        return "Under its least by " + mm_off(read.by) + ": " + under;
    };
}

}  // namespace echappe
