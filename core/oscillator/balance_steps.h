#pragma once

#include <vector>

#include "oscillator/record.h"

namespace echappe {

/// A step of taking a balance out and putting it in again, with its caution where something can be hurt.
struct BalanceStep {
    std::string id;
    std::string words;
    std::string caution;
};
/// In the order of the work, with what is known of this balance.
std::vector<BalanceStep> balance_steps(const Balance& balance);

/// Travel of the end-shake screw, mm, by its pitch and the part of a turn it was given; nothing where one of them is not known.
std::optional<double> end_shake_mm(const Balance& balance);
/// What a millimetre more of working strip does to the rate, s/d: the period goes with the root of the length. Nothing without it.
std::optional<double> strip_s_per_day_per_mm(const Balance& balance);

}  // namespace echappe
