#include "beat/rate_fit.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* rate_fit_source = "median of slopes (Theil, 1950; Sen, 1968), then least squares without what was misread";
constexpr double misread = 3.5;          ///< robust deviations
constexpr double sigma_of_mad = 1.4826;  ///< of a normal distribution

double median(std::vector<double> values) {
    const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
    std::nth_element(values.begin(), middle, values.end());
    if (values.size() % 2) return *middle;
    return (*middle + *std::max_element(values.begin(), middle)) / 2;
}

/// Days since the first look, and seconds the clock was ahead, less what it was then.
struct Points {
    std::vector<double> x, y;
};

Points points_of(const RateFitInput& in) {
    Points points;
    for (const RateObservation& o : in.observations) {
        points.x.push_back((o.reference_s - in.observations.front().reference_s) / day_s);
        points.y.push_back((o.shown_s - in.observations.front().shown_s) - (o.reference_s - in.observations.front().reference_s));
    }
    return points;
}

struct Line {
    double at_zero = 0;
    double slope = 0;
};

Line median_line(const Points& p) {
    std::vector<double> slopes;
    for (size_t i = 0; i < p.x.size(); ++i)
        for (size_t k = i + 1; k < p.x.size(); ++k)
            if (p.x[i] != p.x[k]) slopes.push_back((p.y[k] - p.y[i]) / (p.x[k] - p.x[i]));
    if (slopes.empty()) throw InputError("observations", "all at one time", "two or more at different times of the reference");
    Line line;
    line.slope = median(slopes);
    std::vector<double> rest;
    for (size_t i = 0; i < p.x.size(); ++i) rest.push_back(p.y[i] - line.slope * p.x[i]);
    line.at_zero = median(rest);
    return line;
}

std::vector<long long> misread_ones(const Points& p, const Line& line, double reading_u) {
    constexpr size_t fewest = 4;  // of three no one can tell which was misread
    if (p.x.size() < fewest) return {};
    std::vector<double> off;
    for (size_t i = 0; i < p.x.size(); ++i) off.push_back(std::abs(p.y[i] - line.at_zero - line.slope * p.x[i]));
    const double scale = std::max(sigma_of_mad * median(off), reading_u);
    std::vector<long long> outliers;
    for (size_t i = 0; i < off.size(); ++i)
        if (off[i] > misread * scale) outliers.push_back(static_cast<long long>(i));
    return outliers;
}

/// Least squares through the points kept; fills rate, uncertainty, offset.
void fit_kept(const Points& p, const RateFitInput& in, RateFitResult& out) {
    const auto kept = [&](size_t i) {
        return std::find(out.outliers.begin(), out.outliers.end(), static_cast<long long>(i)) == out.outliers.end();
    };
    double n = 0, mean_x = 0, mean_y = 0, sxx = 0, sxy = 0, low = 1e300, high = -1e300;
    for (size_t i = 0; i < p.x.size(); ++i)
        if (kept(i)) n += 1, mean_x += p.x[i], mean_y += p.y[i], low = std::min(low, p.x[i]), high = std::max(high, p.x[i]);
    mean_x /= n, mean_y /= n;
    for (size_t i = 0; i < p.x.size(); ++i)
        if (kept(i)) sxx += (p.x[i] - mean_x) * (p.x[i] - mean_x), sxy += (p.x[i] - mean_x) * (p.y[i] - mean_y);
    if (!(sxx > 0)) throw InputError("observations", "all that can be trusted at one time", "two or more at different times");
    out.rate_s_per_day = sxy / sxx;
    out.span_days = high - low;
    double squares = 0;
    for (size_t i = 0; i < p.x.size(); ++i) {
        out.residuals_s.push_back(p.y[i] - mean_y - out.rate_s_per_day * (p.x[i] - mean_x));
        if (kept(i)) squares += out.residuals_s.back() * out.residuals_s.back();
    }
    const double scatter = n > 2 ? std::sqrt(squares / (n - 2)) : 0;
    out.u_s_per_day = std::max(scatter, in.reading_u_s) / std::sqrt(sxx);
    out.offset_s = mean_y - out.rate_s_per_day * mean_x + in.observations.front().shown_s - in.observations.front().reference_s;
}

void conclude(const RateFitInput& in, RateFitResult& out) {
    const bool from_nought = std::abs(out.rate_s_per_day) > 2 * out.u_s_per_day;
    const bool as_wanted = out.u_s_per_day <= in.wanted_u_s_per_day;
    out.conclusive = from_nought || as_wanted;
    if (!as_wanted) out.wait_days = std::max(0.0, std::sqrt(2.0) * in.reading_u_s / in.wanted_u_s_per_day - out.span_days);
    const std::string rate = print_measured(std::abs(out.rate_s_per_day), out.u_s_per_day) + " s/d";
    const std::string way = out.rate_s_per_day > 0 ? "Gains " : "Loses ";
    if (from_nought) out.verdict = way + rate + ".";
    else if (as_wanted)
        out.verdict = "Keeps time within what the readings tell: " + std::string(out.rate_s_per_day < 0 ? "−" : "") + rate + ".";
    else out.verdict = "Too close together to tell: " + std::string(out.rate_s_per_day < 0 ? "−" : "") + rate + ".";
    if (out.wait_days && *out.wait_days > 0) {
        const double hours = *out.wait_days * 24;
        out.verdict += " Look again in " +
                       (hours < 48 ? print_fixed(std::ceil(hours), 0) + " h" : print_fixed(std::ceil(*out.wait_days), 0) + " days") +
                       ": then it is known to " + print_short(in.wanted_u_s_per_day) + " s/d.";
    }
    if (!out.outliers.empty()) {
        out.verdict += out.outliers.size() == 1 ? " Left out: observation" : " Left out: observations";
        for (const long long i : out.outliers) {
            const double off = out.residuals_s[static_cast<size_t>(i)];
            out.verdict += (i == out.outliers.front() ? " " : ", ") + std::to_string(i + 1) + ", " + print_short(std::abs(off), 2) + " s " +
                           (off > 0 ? "ahead of" : "behind") + " the line of the others";
        }
        out.verdict += ": misread, or the clock did not run evenly.";
    }
}

}  // namespace

std::string RateFitResult::way_in_words() const {
    if (std::abs(rate_s_per_day) <= 2 * u_s_per_day) return "not told from nought";
    return rate_s_per_day > 0 ? "gains" : "loses";
}

const Record& RateObservation::record() {
    using In = RateObservation;
    static const Record record = Fields<In>()
                                     .add("reference_s", &In::reference_s, "s", "time of the reference", between(-1e12, 1e12))
                                     .required()
                                     .add("shown_s", &In::shown_s, "s", "what the clock showed then", between(-1e12, 1e12))
                                     .required()
                                     .add("temperature_C", &In::temperature_C, "°C", "of the room", between(-60, 80));
    return record;
}

const Record& RateFitInput::record() {
    using In = RateFitInput;
    static const Record record =
        Fields<In>()
            .add("observations", &In::observations, "", "two or more looks")
            .required()
            .add("reading_u_s", &In::reading_u_s, "s", "standard uncertainty of one look", above(0, 1e4))
            .because("by eye and a seconds hand; 0.1 with a camera or a click")
            .add("wanted_u_s_per_day", &In::wanted_u_s_per_day, "s/d", "how sure the rate should be", above(0, 1e4))
            .because("closer than the clock keeps its rate from day to day");
    return record;
}

const Record& RateFitResult::record() {
    using Out = RateFitResult;
    static const Record record = Fields<Out>()
                                     .add("rate_s_per_day", &Out::rate_s_per_day, "s/d", "positive gains")
                                     .add("u_s_per_day", &Out::u_s_per_day, "s/d", "standard uncertainty")
                                     .add("outliers", &Out::outliers, "", "misread, counted from 0")
                                     .add("offset_s", &Out::offset_s, "s", "ahead of the reference at the first look, by the line")
                                     .add("residuals_s", &Out::residuals_s, "s", "of every look from the line")
                                     .add("span_days", &Out::span_days, "d", "from the first trusted look to the last")
                                     .add("conclusive", &Out::conclusive, "", "told from nought, or as sure as wanted")
                                     .add("wait_days", &Out::wait_days, "d", "until it is as sure as wanted")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

RateFitResult fit_rate(const RateFitInput& in) {
    if (in.observations.size() < 2)
        throw InputError("observations", std::to_string(in.observations.size()), "two or more: a rate needs time between them");
    const Points points = points_of(in);
    RateFitResult out;
    out.outliers = misread_ones(points, median_line(points), in.reading_u_s);
    fit_kept(points, in, out);
    conclude(in, out);
    return out;
}

std::vector<Working> explain_rate_fit(const RateFitInput&, const RateFitResult& out) {
    Working rate;
    rate.name = "rate";
    rate.formula = "slope of (shown − reference) over days";
    rate.result = {out.rate_s_per_day, out.u_s_per_day};
    rate.unit = "s/d";
    rate.source = rate_fit_source;
    rate.notes = {out.verdict};
    return {rate};
}

const Calculation& rate_fit_calculation() {
    static const Calculation calculation =
        declare<RateFitInput, RateFitResult>("rate.fit", "The rate from a log of looks, with its uncertainty, and which were misread.",
                                             rate_fit_source, fit_rate, explain_rate_fit);
    return calculation;
}

}  // namespace echappe
