#include "strike/scheme.h"

#include <cmath>
#include <numeric>

#include "number/input_error.h"

namespace echappe {
long long hours_on_dial(const std::string& scheme, const std::vector<long long>& custom) {
    return scheme == "hours-24" ? 24 : scheme == "custom" ? static_cast<long long>(custom.size()) : 12;
}

std::string words_of_time(double hour) {
    constexpr long long an_hour = 60;
    const long long all = std::llround(an_hour * hour), whole = all / an_hour, minutes = all % an_hour;
    constexpr long long two_figures = 10;
    return std::to_string(whole) + (minutes == 0 ? " o'clock" : (minutes < two_figures ? ":0" : ":") + std::to_string(minutes));
}

long long strikes_an_hour(const std::string& scheme) {
    return scheme == "quarters" ? 4 : scheme == "hours-and-halves" || scheme == "hours-repeated" ? 2 : 1;
}

long long blows_in_half_a_day(const std::string& scheme, const std::vector<long long>& custom) {
    const std::vector<long long> blows = blows_of(scheme, custom);
    const long long all = std::accumulate(blows.begin(), blows.end(), 0LL);
    constexpr long long half = 12;
    const long long round = static_cast<long long>(blows.size()) / strikes_an_hour(scheme);
    return all * half / round;
}

const std::vector<std::string>& schemes() {
    static const std::vector<std::string> all = {"hours", "hours-24", "hours-and-halves", "hours-repeated", "quarters", "custom"};
    return all;
}

std::vector<long long> blows_of(const std::string& scheme, const std::vector<long long>& custom) {
    if (scheme == "custom") {
        if (custom.empty()) throw InputError("blows", "none", "the blows of a custom scheme, in the order struck");
        constexpr long long most = 1000;
        for (const long long one : custom)
            if (one < 1 || one > most) throw InputError("blows", std::to_string(one), "1 to " + std::to_string(most) + " each");
        return custom;
    }
    if (!custom.empty()) throw InputError("blows", std::to_string(custom.size()) + " of them", "none, or the scheme \"custom\"");
    if (scheme == "quarters") return {1, 2, 3, 4};
    std::vector<long long> all;
    for (long long hour = 1; hour <= hours_on_dial(scheme, custom); ++hour) {
        all.push_back(hour);
        if (scheme == "hours-and-halves") all.push_back(1);
        if (scheme == "hours-repeated") all.push_back(hour);
    }
    return all;
}

std::vector<Strike> strikes_from(const std::string& scheme, const std::vector<long long>& custom, long long from, long long hours) {
    const long long dial = hours_on_dial(scheme, custom);
    if (from < 1 || from > dial) throw InputError("from", std::to_string(from), "an hour of its dial, 1 to " + std::to_string(dial));
    std::vector<Strike> all;
    for (long long i = 0; i < hours; ++i) {
        const long long hour = (from - 1 + i) % dial + 1;
        const auto at = static_cast<double>(hour);
        const auto index = static_cast<size_t>(hour - 1);
        if (scheme == "quarters") {
            all.push_back({at, 3});
            for (size_t quarter = 0; quarter < 3; ++quarter) all.push_back({at + 0.25 * static_cast<double>(quarter + 1), quarter});
        } else if (strikes_an_hour(scheme) == 2) {
            constexpr double repeated_after_h = 2.0 / 60;
            all.push_back({at, 2 * index});
            all.push_back({at + (scheme == "hours-repeated" ? repeated_after_h : 0.5), 2 * index + 1});
        } else {
            all.push_back({at, index});
        }
    }
    return all;
}

}  // namespace echappe
