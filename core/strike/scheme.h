#pragma once

#include <string>
#include <vector>

#include "workings/record.h"

namespace echappe {

/// What a strike counts: "hours", "hours-24" (a dial of 24 hours), "hours-and-halves" (a single blow at the half), "hours-repeated" (again
/// two minutes later), "quarters" (1, 2, 3 and 4 once an hour), "custom".
const std::vector<std::string>& schemes();

/// Blows of each strike in the order struck, over once round a count wheel; one o'clock, or the first quarter, is first. `custom`: of
/// that scheme. Throws InputError.
std::vector<long long> blows_of(const std::string& scheme, const std::vector<long long>& custom);

/// Hours until the strikes begin anew: 12, 24, or as many as a custom scheme has strikes.
long long hours_on_dial(const std::string& scheme, const std::vector<long long>& custom);
/// Times that it strikes in an hour.
long long strikes_an_hour(const std::string& scheme);
/// Blows of all strikes in twelve hours. Throws InputError.
long long blows_in_half_a_day(const std::string& scheme, const std::vector<long long>& custom);
/// "5 o'clock", "12:30".
std::string words_of_time(double hour);

/// A strike by the time it falls at.
struct Strike {
    double hour = 1;   ///< 1 to below 13 (25 of a dial of 24 hours): 12.5 is half past twelve
    size_t group = 0;  ///< which of the blows above
};
/// Strikes of so many hours from an hour on, that hour's own first. A custom scheme strikes once an hour and counts its strikes as hours.
std::vector<Strike> strikes_from(const std::string& scheme, const std::vector<long long>& custom, long long from, long long hours);

/// `scheme` and `blows`, as every verb of the strike takes them.
template <class In>
Fields<In>& add_scheme(Fields<In>& fields) {
    return fields.add("scheme", &In::scheme, "", "what is struck: quarters are 1, 2, 3 and 4 in an hour")
        .choices(schemes())
        .because("most strikes count hours alone")
        .add("blows", &In::blows, "", "of a custom scheme, in the order struck");
}

}  // namespace echappe
