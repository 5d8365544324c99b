#include "beat/readings.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>

#include "exchange/csv_sheet.h"
#include "number/constants.h"

namespace echappe {
namespace {

constexpr const char* takes =
    "seconds ahead of the reference as in +12.4, or a date and a time first, or reference and clock as in 14:03:20 14:03:26";

/// "12.4", "1:05.5", "14:03:20" in seconds; none for another word.
std::optional<double> seconds_of(const std::string& word) {
    double total = 0;
    size_t from = 0;
    int parts = 0;
    while (from <= word.size()) {
        const size_t colon = std::min(word.find(':', from), word.size());
        const auto part = read_number(std::string_view(word).substr(from, colon - from));
        if (!part || !(*part >= 0) || (parts > 0 && *part >= 60)) return {};
        total = total * 60 + *part;
        from = colon + 1;
        if (++parts > 3) return {};
    }
    return total;
}

long long colons(const std::string& word) { return std::count(word.begin(), word.end(), ':'); }

/// A time of day: hours and minutes at least.
std::optional<double> day_time(const std::string& word) {
    if (colons(word) == 1) return seconds_of(word + ":00");
    return colons(word) == 2 ? seconds_of(word) : std::nullopt;
}

std::optional<double> day_of(const std::string& word) {
    int year = 0;
    unsigned month = 0, day = 0;
    char rest = 0;
    if (std::sscanf(word.c_str(), "%d-%u-%u%c", &year, &month, &day, &rest) != 3) return {};
    const std::chrono::year_month_day date{std::chrono::year(year), std::chrono::month(month), std::chrono::day(day)};
    if (!date.ok()) return {};
    return day_s * static_cast<double>(std::chrono::sys_days(date).time_since_epoch().count());
}

std::chrono::year_month_day date_of(double reference_s) {
    return std::chrono::year_month_day(std::chrono::sys_days(std::chrono::days(static_cast<long long>(std::floor(reference_s / day_s)))));
}

std::string two(long long number) { return (number < 10 ? "0" : "") + std::to_string(number); }

std::string clock_words(double reference_s, bool seconds) {
    const auto of_day = static_cast<long long>(std::floor(reference_s - std::floor(reference_s / day_s) * day_s));
    return two(of_day / 3600) + ":" + two(of_day / 60 % 60) + (seconds ? ":" + two(of_day % 60) : "");
}

std::vector<std::string> words_in(const std::string& text) {
    std::istringstream in(as_typed(text));
    std::vector<std::string> words;
    for (std::string word; in >> word;) words.push_back(word);
    return words;
}

std::optional<double> temperature_of(const std::string& word) {
    size_t end = word.size();
    if (!word.ends_with("C")) return {};
    end -= 1;
    const std::string degree = "°";
    if (end >= degree.size() && word.compare(end - degree.size(), degree.size(), degree) == 0) end -= degree.size();
    return read_number(std::string_view(word).substr(0, end));
}

}  // namespace

RateObservation read_look(const std::string& text, double now_s) {
    const auto refuse = [&] { return InputError("the clock beside the reference", text.empty() ? "nothing" : in_quotes(text), takes); };
    std::vector<std::string> words = words_in(text);
    RateObservation look;
    if (!words.empty())
        if (const auto warm = temperature_of(words.back())) {
            if (!(*warm >= -60 && *warm <= 80)) throw refuse();
            look.temperature_C = warm;
            words.pop_back();
        }
    double day = std::floor(now_s / day_s) * day_s;
    bool dated = false;
    if (!words.empty())
        if (const auto date = day_of(words.front())) day = *date, dated = true, words.erase(words.begin());
    if (words.empty()) throw refuse();
    look.reference_s = now_s;
    if (words.size() == 2 || dated) {
        const auto time = day_time(words.front());
        if (!time || words.size() != 2) throw refuse();
        look.reference_s = day + *time;
        words.erase(words.begin());
        // A second time of day is what the clock shows, over midnight too.
        if (words.front()[0] != '+' && words.front()[0] != '-' && colons(words.front()) == 2) {
            const auto shown = day_time(words.front());
            if (!shown) throw refuse();
            double ahead = day + *shown - look.reference_s;
            ahead -= std::round(ahead / (day_s / 2)) * (day_s / 2);
            look.shown_s = look.reference_s + ahead;
            return look;
        }
    }
    std::string ahead = words.front();
    const bool behind = ahead[0] == '-';
    if (behind || ahead[0] == '+') ahead.erase(0, 1);
    if (ahead.ends_with("s")) ahead.pop_back();
    const auto by = words.size() == 1 ? seconds_of(ahead) : std::nullopt;
    if (!by || *by > day_s) throw refuse();
    look.shown_s = look.reference_s + (behind ? -*by : *by);
    return look;
}

std::string look_in_words(const RateObservation& look) {
    const auto date = date_of(look.reference_s);
    const std::string day = std::to_string(static_cast<int>(date.year())) + "-" + two(static_cast<unsigned>(date.month())) + "-" +
                            two(static_cast<unsigned>(date.day()));
    const double ahead = look.shown_s - look.reference_s;
    std::string words = day + " " + clock_words(look.reference_s, true) + (ahead >= 0 ? " +" : " ") + print_fixed(ahead, 1);
    if (look.temperature_C) words += " " + print_fixed(*look.temperature_C, 1) + "C";
    return words;
}

std::string time_in_words(double reference_s) {
    static const char* months[] = {"Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"};
    const auto date = date_of(reference_s);
    return std::to_string(static_cast<unsigned>(date.day())) + " " + months[static_cast<unsigned>(date.month()) - 1] + " " +
           clock_words(reference_s, false);
}

size_t keep_looks_csv(RateLog& log, const std::string& csv) {
    static const std::array<const char*, 3> columns = {"reference_s", "shown_s", "temperature_C"};
    Sheet<3> sheet(csv, columns);
    constexpr double furthest = 1e12;
    RateLog fresh = log;
    size_t kept = 0;
    while (const auto row = sheet.next()) {
        RateObservation look;
        look.reference_s = sheet.number(*row, 0, -furthest, furthest);
        look.shown_s = sheet.number(*row, 1, -furthest, furthest);
        if (!(*row)[2].empty()) look.temperature_C = sheet.number(*row, 2, -60, 80);
        std::erase_if(fresh.looks, [&](const RateObservation& old) { return old.reference_s == look.reference_s; });
        fresh.looks.push_back(look);
        ++kept;
    }
    log = fresh;
    return kept;
}

std::string looks_to_csv(const RateLog& log) {
    std::string csv = "reference_s,shown_s,temperature_C\n";
    const auto plain = [](double value) { return print_short(value, 15); };
    for (const RateObservation& look : log.looks)
        csv += row_of({plain(look.reference_s), plain(look.shown_s), look.temperature_C ? plain(*look.temperature_C) : ""});
    return csv;
}

}  // namespace echappe
