#include "oscillator/balance_steps.h"

#include <cmath>

#include "number/constants.h"
#include "number/units.h"

namespace echappe {

std::optional<double> end_shake_mm(const Balance& balance) {
    if (!balance.shake_screw_pitch_mm || !balance.shake_turns) return {};
    return *balance.shake_screw_pitch_mm * *balance.shake_turns;
}

std::optional<double> strip_s_per_day_per_mm(const Balance& balance) {
    if (!balance.spring || !(balance.spring->length_mm > 0)) return {};
    return day_s * (std::sqrt(balance.spring->length_mm / (balance.spring->length_mm + 1)) - 1);
}

std::vector<BalanceStep> balance_steps(const Balance& balance) {
    std::string stands_out = "Measure how much spring stands out beyond the stud before you touch it";
    if (balance.overhang_mm) stands_out += ": " + print_short(*balance.overhang_mm, 3) + " mm";
    std::string comes_back = "As much stands out beyond the stud as before";
    if (const auto per_mm = strip_s_per_day_per_mm(balance))
        comes_back += ": a millimetre less is a millimetre more that works, and " + print_fixed(*per_mm, 0) + " s a day";
    std::string shake = "End shake felt, and set by a part turn of its screw";
    if (const auto mm = end_shake_mm(balance)) shake += ": " + print_short(*mm, 2) + " mm by its pitch";
    return {{"letdown", "Mainspring let down before the balance is touched.",
             "A wound train drives on when the balance is gone: it strips teeth and breaks pivots."},
            {"stands-out", stands_out + ".", ""},
            {"pin", "Taper pin pushed out of the stud from its thin end, the cock held down.", "The pin flies: eyes covered."},
            {"draw", "Balance turned until the spring draws itself out of stud and regulator pins; never pulled.", ""},
            {"out", "Cock and balance lifted straight out; the balance laid flat, nothing on its spring.", ""},
            {"clean", "Pivots and holes clean, pivots seen under a glass, oil in the holes only.", ""},
            {"in", "Balance in, impulse pin in the fork, cock screwed down while the balance is turned and stays free.",
             "A cock screwed down on a pivot beside its hole breaks it."},
            {"shake", shake + ".", ""},
            {"collet", "Collet turned so that at rest the impulse pin stands on the line from staff to pallet arbor.", ""},
            {"spring", "End of the spring through regulator pins and stud, regulator mid-way, coils flat and round, pin pressed home.", ""},
            {"length", comes_back + ".", ""},
            {"rest", "At rest the impulse pin stands on the line: let off to both sides alike by hand.", ""},
            {"starts", "Wound two clicks it starts by itself; if not, it is out of beat, dirty, or the fork is tight.", ""}};
}

}  // namespace echappe
