#include "cards/hole_done.h"

#include <algorithm>

namespace echappe {
namespace {

/// "bush:centre.front": the hole's record.
HoleRecord& hole_of(const DerivedCard& card, PivotsRecord& pivots) {
    const std::string hole = card.id.substr(card.id.find(':') + 1);
    const size_t dot = hole.rfind('.');
    return pivots.hole_at(hole.substr(0, dot), hole.substr(dot + 1));
}

}  // namespace

void tell_pivots(const DerivedCard& card, const std::string& step, PivotsRecord& pivots) {
    if (card.kind != "bush") return;
    if (std::all_of(card.steps.begin(), card.steps.end(), [&](const CardStep& one) { return one.done || one.id == step; }))
        hole_of(card, pivots).done = true;
}

void reopen_hole(const DerivedCard& card, PivotsRecord& pivots) { hole_of(card, pivots).done = false; }

}  // namespace echappe
