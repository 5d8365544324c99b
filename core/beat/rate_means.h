#pragma once

#include "oscillator/derive.h"

namespace echappe {

/// Something a craftsman can do to the rate: the rating nut, grams on a tray, the regulator's pins, a pair of screws.
/// Amounts are in its own unit, positive meant to gain.
struct RateMeans {
    std::string id;                 ///< "nut", "tray", "pins", "screws.0"
    std::string name;               ///< "rating nut"
    std::string unit;               ///< "turn", "g", "mm"
    double step = 0;                ///< the least that is worth doing
    double most = 0;                ///< either way, in the picture
    double s_per_day_per_unit = 0;  ///< gained, by the sizes or as it answered
    bool learnt = false;            ///< from what the last changes did, not from the sizes
    std::string gains;              ///< a positive amount in words: "up: the bob higher, faster"
    std::string loses;
    bool gains_taken_off = false;          ///< a positive amount means taking a weight off
    std::optional<double> advised;         ///< that brings the rate right, to the nearest step
    std::optional<double> left_s_per_day;  ///< the rate expected then
    std::string advice;
    std::optional<double> left_u_s_per_day = {};  ///< of the fit, of setting it, and of what a unit does
    static const Record& record();
};

/// What there is to do on this clock, by its sizes. `beats_per_hour` as the train wants.
std::vector<RateMeans> rate_means(const OscillatorRecord& oscillator, double beats_per_hour);

/// The change of rate, s/d, positive gains: exact by the sizes (a period against a period), in proportion where it was learnt.
/// Throws InputError when the amount takes more than there is.
double rate_change(const OscillatorRecord& oscillator, double beats_per_hour, const RateMeans& means, double amount);
/// The amount that changes the rate by so much: the inverse, by the secant method to 1e-9 of a unit.
double amount_for(const OscillatorRecord& oscillator, double beats_per_hour, const RateMeans& means, double s_per_day);

/// "⅜ turn of the rating nut", "12.5 g", "140 µm", "140 µm (0.4 divisions)".
std::string amount_in_words(const OscillatorRecord& oscillator, const RateMeans& means, double amount);
/// With its way: "⅜ turn, up: the bob higher, faster".
std::string change_in_words(const OscillatorRecord& oscillator, const RateMeans& means, double amount);

}  // namespace echappe
