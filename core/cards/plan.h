#pragma once

#include <functional>
#include <set>

#include "cards/card.h"
#include "parts/material.h"

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
    /// The first step: what is taken from the drawers. `as_it_is`: its faces are not worked, as a spring's.
    void stock(const std::string& form, const std::string& material, double size_mm, double width_mm, double length_mm,
               bool as_it_is = false);
    /// From this step on, or from the beginning, something bears so much heat and no more.
    void bears(const std::string& what, double bears_C, const std::string& since = {});
    /// A step at a lathe or drill: turns and feed by tool, metal and hardness.
    void speed(CardStep& step, const std::string& material, Cutting with, double diameter_mm, bool hard = false);
    /// Hardened and tempered in one heat; from then on it bears its temper and no more.
    void harden(const std::string& how, double temper_C, const std::string& colour);
    /// Joined by this way, or where that would spoil what is there by what remains; what remains is told. The way that is taken.
    std::string join(const std::string& words, const std::string& wanted, double diameter_mm, double length_mm,
                     const std::optional<double>& torque_N_mm);
    DerivedCard& card() { return m_card; }

private:
    DerivedCard& m_card;
    const PartCard* m_kept;
};

/// The drill that is sold next to this size: by 0.05 mm up to 3, then by 0.1.
double sold_drill_mm(double size_mm);
/// The largest that is sold under it.
double sold_drill_under_mm(double size_mm);
/// What hardened parts are left with on the diameter: 0.1 to 0.3 mm, more where they are slender.
double grinding_allowance_mm(double diameter_mm, double length_mm);
/// Heats, °C: where hard brass begins to soften, tempers by their colour, red.
inline constexpr double hard_brass_C = 300, straw_C = 225, blue_C = 300, cherry_red_C = 780, unknown_temper_C = 230, shellac_C = 80,
                        lacquer_C = 100;
/// Length of an outline, mm.
double perimeter_mm(const std::vector<Point>& outline);
/// Minutes by what is cut, workshop practice: a piercing saw goes some 6 mm² of brass a minute along its line, a file half of that.
double minutes_to_saw(double along_mm, double thickness_mm);
double minutes_to_file(double along_mm, double thickness_mm);
extern const char* const rotating;
extern const char* const hot;

/// "0.03 mm", and to the thousandth where it is less.
std::string mm_off(double value);
/// Turned over or under its limits: take it off, or `under`.
std::function<std::string(const Beyond&)> out_of(const std::string& under);

}  // namespace echappe
