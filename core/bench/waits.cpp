#include "bench/waits.h"

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <iomanip>
#include <sstream>

#include "number/input_error.h"

namespace echappe {
namespace {

constexpr const char* wait_takes =
    "hours, days or weeks, or a day to come, and what for: \"3 d, the lacquer\", \"2026-12-04 16:00, the bush\"";

using Minutes = std::chrono::sys_time<std::chrono::minutes>;

std::optional<Minutes> time_of(const std::string& when) {
    int year = 0, hour = 0, minute = 0;
    unsigned month = 0, day = 0;
    if (std::sscanf(when.c_str(), "%d-%u-%u %d:%d", &year, &month, &day, &hour, &minute) < 3) return {};
    const std::chrono::year_month_day date{std::chrono::year(year), std::chrono::month(month), std::chrono::day(day)};
    if (!date.ok() || hour < 0 || hour > 24 || minute < 0 || minute > 59) return {};
    return std::chrono::sys_days(date) + std::chrono::hours(hour) + std::chrono::minutes(minute);
}

/// "3 d", "4 h", "2 weeks" in minutes.
std::optional<double> span_of(const std::string& words) {
    std::istringstream text(words);
    double count = 0;
    std::string unit;
    if (!(text >> count >> unit) || count <= 0) return {};
    constexpr double hour = 60, day = 24 * hour, most_days = 3660;
    const double each = unit == "h" || unit.starts_with("hour")                     ? hour
                        : unit == "d" || unit.starts_with("day")                    ? day
                        : unit == "w" || unit.starts_with("week")                   ? 7 * day
                        : unit == "min" || unit == "m" || unit.starts_with("minut") ? 1
                                                                                    : 0;
    if (each == 0 || count * each > most_days * day) return {};
    return count * each;
}

std::string trimmed(const std::string& words) {
    const size_t from = words.find_first_not_of(' '), to = words.find_last_not_of(' ');
    return from == std::string::npos ? std::string() : words.substr(from, to - from + 1);
}

}  // namespace

bool is_time(const std::string& when) { return time_of(when).has_value(); }

std::optional<double> time_s(const std::string& when) {
    const auto time = time_of(when);
    constexpr double minute_s = 60;
    return time ? std::optional(static_cast<double>(time->time_since_epoch().count()) * minute_s) : std::nullopt;
}

double minutes_between(const std::string& from, const std::string& to) {
    const auto a = time_of(from), b = time_of(to);
    return a && b ? std::max(0.0, static_cast<double>((*b - *a).count())) : 0;
}

std::string later(const std::string& from, double minutes) {
    const auto begun = time_of(from);
    if (!begun) return {};
    const Minutes ends = *begun + std::chrono::minutes(static_cast<long long>(minutes));
    const auto day = std::chrono::floor<std::chrono::days>(ends);
    const std::chrono::year_month_day date(day);
    const std::chrono::hh_mm_ss clock(ends - day);
    std::ostringstream out;
    out << std::setfill('0') << std::setw(4) << static_cast<int>(date.year()) << '-' << std::setw(2) << static_cast<unsigned>(date.month())
        << '-' << std::setw(2) << static_cast<unsigned>(date.day()) << ' ' << std::setw(2) << clock.hours().count() << ':' << std::setw(2)
        << clock.minutes().count();
    return out.str();
}

StepMark wait_from(const std::string& step, const std::string& now, const std::string& words) {
    constexpr size_t day = 10;
    StepMark mark;
    mark.step = step, mark.state = "waits", mark.date = now.substr(0, day), mark.because = "what it needs";
    const size_t comma = words.find(',');
    const std::string first = trimmed(words.substr(0, comma)), rest = comma == std::string::npos ? "" : trimmed(words.substr(comma + 1));
    if (first.empty()) throw InputError("wait", "nothing", wait_takes);
    if (const auto span = span_of(first)) mark.until = later(now, *span);
    else if (is_time(first)) mark.until = first;
    else if (first.front() >= '0' && first.front() <= '9') throw InputError("wait", "\"" + first + "\"", wait_takes);
    else mark.because = trimmed(words);
    if (!mark.until.empty() && !rest.empty()) mark.because = rest;
    if (!mark.until.empty() && minutes_between(now, mark.until.size() > day ? mark.until : mark.until + " 23:59") <= 0)
        throw InputError("wait", "\"" + first + "\", which is past", wait_takes);
    return mark;
}

}  // namespace echappe
