#include "cards/plan.h"

#include <cmath>

#include "number/constants.h"
#include "number/units.h"
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
}

void Plan::stock(const std::string& form, const std::string& of, double size_mm, double width_mm, double length_mm) {
    CardStock stock;
    stock.form = form, stock.material = of, stock.size_mm = size_mm, stock.width_mm = width_mm, stock.length_mm = length_mm;
    const bool round = form == "rod" || form == "wire" || form == "tube";
    const double area = round ? pi * size_mm * size_mm / 4 : size_mm * width_mm;
    stock.mass_g = area * length_mm * material(of).density_kg_m3 * 1e-6;
    m_card.stock = stock;
    const std::string size = round ? print_short(size_mm, 3) + " mm " + form
                                   : form + " of " + print_short(size_mm, 3) + " mm, " + print_fixed(width_mm, 0) + " wide";
    step("take", "Take " + print_fixed(length_mm, 0) + " mm of " + of + ", " + size, "saw");
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
