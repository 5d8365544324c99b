#include "train/hands.h"

#include "number/units.h"

#include <algorithm>

namespace echappe {
namespace {

Rational days(const char* decimal) { return Rational::parse(decimal) * Rational(86400); }

}  // namespace

const std::vector<NamedPeriod>& named_periods() {
    static const char* const j2000 = "mean value, J2000";
    static const std::vector<NamedPeriod> periods = {
        {"seconds", "seconds hand, one minute", Rational(60), "definition"},
        {"minutes", "minute hand, one hour", Rational(3600), "definition"},
        {"hours", "hour hand, twelve hours", Rational(43200), "definition"},
        {"alarm", "alarm disc, twelve hours", Rational(43200), "definition"},
        {"day", "24-hour hand, one day", Rational(86400), "definition"},
        {"week", "day of the week, seven days", days("7"), "definition"},
        {"date", "date disc, 31 days", days("31"), "definition"},
        {"tide", "tide, 12 h 25 min 14.2 s", Rational::parse("44714.2"), "half a mean lunar day"},
        {"lunar-day", "mean lunar day, 24 h 50 min 28.3 s", days("1.035050"), j2000},
        {"sidereal-day", "sidereal day, 23 h 56 min 4.1 s", days("0.99726957"), j2000},
        {"moon", "phase of the moon, synodic month of 29.530588853 d", days("29.530588853"), j2000},
        {"moon-double", "two moons on one disc, 59.061177706 d", days("59.061177706"), j2000},
        {"sidereal-month", "sidereal month, 27.321661547 d", days("27.321661547"), j2000},
        {"tropical-year", "tropical year, 365.24219 d", days("365.24219"), j2000},
        {"civil-year", "year of 365 days", days("365"), "definition"},
    };
    return periods;
}

std::vector<std::string> named_period_ids() {
    std::vector<std::string> ids;
    for (const NamedPeriod& period : named_periods()) ids.push_back(period.id);
    return ids;
}

const NamedPeriod* find_period(const std::string& id) {
    const auto& all = named_periods();
    const auto at = std::find_if(all.begin(), all.end(), [&](const NamedPeriod& p) { return p.id == id; });
    return at == all.end() ? nullptr : &*at;
}

std::string gain_in_words(double s_per_year) {
    constexpr double unseen_s = 0.05;
    const double size = std::abs(s_per_year);
    if (size < unseen_s) return "keeps time exactly";
    // To a tenth of a second, or to a minute where hours are told.
    const double told = size < 3600 ? std::round(size * 10) / 10 : std::round(size / 60) * 60;
    return (s_per_year > 0 ? "gains " : "loses ") + print_span(told) + " a year";
}

}  // namespace echappe
