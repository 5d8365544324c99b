#include "cards/stores.h"

#include <algorithm>
#include <cmath>

namespace echappe {
namespace {

constexpr double hair = 1e-9;

bool round_form(const std::string& form) { return form == "rod" || form == "wire" || form == "tube"; }

bool holds(const Bar& bar, const BarWanted& wanted) {
    if (bar.material != wanted.material || bar.form != wanted.form) return false;
    constexpr double thicker_rod = 1.5, thicker_sheet = 1.1;
    const double most = (round_form(bar.form) ? thicker_rod : thicker_sheet) * wanted.size_mm;
    // A spring is as thick as it is rolled: within what a strip's thickness varies by.
    constexpr double as_rolled = 0.03;
    if (wanted.as_it_is && std::abs(bar.size_mm - wanted.size_mm) > as_rolled * wanted.size_mm) return false;
    if (!wanted.as_it_is && (bar.size_mm < wanted.size_mm - hair || bar.size_mm > std::max(most, wanted.size_mm + 0.5))) return false;
    if (round_form(bar.form)) return bar.length_mm >= wanted.length_mm - hair;
    const auto lies = [&](double wide, double along) { return bar.width_mm >= wide - hair && bar.length_mm >= along - hair; };
    return lies(wanted.width_mm, wanted.length_mm) || lies(wanted.length_mm, wanted.width_mm);
}

}  // namespace

const Bar* bar_for(const BarWanted& wanted, const std::vector<Bar>& metal) {
    const Bar* best = nullptr;
    for (const Bar& bar : metal)
        if (holds(bar, wanted) &&
            (!best || bar.size_mm < best->size_mm - hair || (bar.size_mm < best->size_mm + hair && bar.length_mm < best->length_mm)))
            best = &bar;
    return best;
}

std::vector<Bar> taken_from(std::vector<Bar> metal, const std::string& id, const BarWanted& wanted) {
    const auto at = std::find_if(metal.begin(), metal.end(), [&](const Bar& bar) { return bar.id == id; });
    if (at == metal.end()) return metal;
    const double before = at->length_mm;
    // Sheet is cut across along its length, so that what is left stays a rectangle.
    const bool across = round_form(at->form) || at->width_mm >= wanted.width_mm - hair;
    at->length_mm = std::max(0.0, at->length_mm - (across ? wanted.length_mm : wanted.width_mm));
    if (at->price && before > 0) at->price = *at->price * at->length_mm / before;
    if (at->length_mm <= hair) metal.erase(at);
    return metal;
}

std::vector<Bar> given_back(std::vector<Bar> metal, const Bar& before, const BarWanted& wanted) {
    const std::vector<Bar> rest = taken_from({before}, before.id, wanted);
    const double cut = before.length_mm - (rest.empty() ? 0 : rest.front().length_mm);
    const double paid = before.price.value_or(0) - (rest.empty() ? 0 : rest.front().price.value_or(0));
    const auto at = std::find_if(metal.begin(), metal.end(), [&](const Bar& bar) { return bar.id == before.id; });
    const bool gone = at == metal.end();
    Bar& bar = gone ? metal.emplace_back(before) : *at;
    if (gone) bar.length_mm = 0, bar.price = before.price ? std::optional(0.0) : std::nullopt;
    bar.length_mm += cut;
    if (bar.price) *bar.price += paid;
    return metal;
}

}  // namespace echappe
