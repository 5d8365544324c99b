#pragma once

#include <functional>
#include <set>

#include "cards/card.h"

namespace echappe {

/// "1.62 mm"
std::string mm(double value);
/// Arbors, pivots and pinions are made of it.
inline constexpr const char* arbor_steel = "silver steel";

/// A reading beyond the limits of its step.
struct Beyond {
    double read = 0, by = 0;  ///< by: beyond the limit it is out of
    bool over = false;        ///< else under
    operator double() const { return read; }
};

/// Steps of a card one after the other, with what was done and read of each.
class Plan {
public:
    Plan(DerivedCard& card, const PartCard* kept);

    CardStep& step(const std::string& id, const std::string& words, const std::string& tool);
    /// A step that ends with a reading; out of its limits `way_out` says what can be done. Worked to the middle of the limits where they do
    /// not hold the nominal, as of a press fit.
    CardStep& read(const std::string& id, const std::string& words, const std::string& tool, const CardSize& size,
                   const std::function<std::string(const Beyond& read)>& way_out);
    /// What a step was read to, else what it was to be.
    double size_of(const std::string& id) const;
    /// "from the hole as it was read, 1.62 mm"
    std::string from(const std::string& id, const std::string& what) const;
    void divides(CardStep& step, long long divisions, double pitch_radius, const std::optional<DividingHead>& head);
    /// The first step: what is taken from the drawers.
    void stock(const std::string& form, const std::string& material, double size_mm, double width_mm, double length_mm);

private:
    DerivedCard& m_card;
    const PartCard* m_kept;
};

extern const char* const rotating;
extern const char* const hot;

/// "0.03 mm", and to the thousandth where it is less.
std::string mm_off(double value);
/// Turned over or under its limits: take it off, or `under`.
std::function<std::string(const Beyond&)> out_of(const std::string& under);

}  // namespace echappe
