#include "train/find.h"

#include <algorithm>
#include <boost/multiprecision/cpp_int.hpp>
#include <chrono>
#include <cmath>
#include <numeric>
#include <set>

#include "number/input_error.h"
#include "number/units.h"
#include "train/hands.h"
#include "train/products.h"

namespace echappe {
namespace {

using Big = boost::multiprecision::cpp_int;
using Product = Products::Product;
using Counts = Products::Counts;
using Clock = std::chrono::steady_clock;

constexpr const char* find_source = "windows on the product of wheels for each product of pinions; decided on whole numbers";
constexpr double days_per_year = 365.2422;
/// Distinct products of pinions that are kept; 96 MB.
constexpr size_t most_products = 12'000'000;
constexpr long double first_window = 1e-16L;
constexpr long double widening = 16;

Big big(int128 value) {
    constexpr long long piece = 1LL << 62;
    return (Big(static_cast<long long>(value / piece / piece)) * piece + static_cast<long long>(value / piece % piece)) * piece +
           static_cast<long long>(value % piece);
}

Counts allowed(const CountRange& range, const std::vector<long long>& only, const char* field) {
    if (range.min > range.max) throw InputError(field, std::to_string(range.min) + " to " + std::to_string(range.max), "min not above max");
    Counts counts;
    if (only.empty())
        for (long long count = range.min; count <= range.max; ++count) counts.push_back(count);
    for (const long long count : only)
        if (count >= range.min && count <= range.max) counts.push_back(count);
    std::sort(counts.begin(), counts.end());
    counts.erase(std::unique(counts.begin(), counts.end()), counts.end());
    return counts;
}

Product product_of(const Counts& counts) {
    return std::accumulate(counts.begin(), counts.end(), Product{1}, [](Product p, long long c) { return p * static_cast<Product>(c); });
}

/// |W/P ÷ target − 1|, held so that two of them compare exactly.
struct Error {
    long double near = 0;  ///< as a number, good to 1e-18 of the ratio
    Big above;             ///< |W den − num P|
    Product below = 1;     ///< P; the common num is left out
    bool operator<(const Error& other) const { return above * other.below < other.above * below; }
    bool operator==(const Error& other) const { return above * other.below == other.above * below; }
};

struct Solution {
    Error error;
    bool over = false;  ///< ratio above the target
    long long sum = 0;
    Counts wheels;   ///< descending
    Counts pinions;  ///< descending
    bool operator<(const Solution& other) const {
        if (!(error == other.error)) return error < other.error;
        return std::tie(sum, wheels, pinions) < std::tie(other.sum, other.wheels, other.pinions);
    }
};

/// Largest wheel with largest pinion: no other pairing has more even ratios.
std::vector<Stage> paired(const Counts& wheels, const Counts& pinions) {
    std::vector<Stage> stages;
    for (size_t i = 0; i < wheels.size(); ++i) stages.push_back({wheels[i], pinions[i]});
    return stages;
}

double evenness_of(const std::vector<Stage>& stages) {
    double low = INFINITY;
    double high = 0;
    for (const Stage& stage : stages) {
        const double ratio = static_cast<double>(stage.wheel) / static_cast<double>(stage.pinion);
        low = std::min(low, ratio);
        high = std::max(high, ratio);
    }
    return high / low;
}

long long distinct(const Counts& descending) {
    return static_cast<long long>(std::set<long long>(descending.begin(), descending.end()).size());
}

class Finder {
public:
    Finder(const FindInput& input, const Rational& target, const Effort& effort, const std::function<void(const FindResult&)>& partial)
        : m_input(input),
          m_effort(effort),
          m_partial(partial),
          m_num(big(target.num())),
          m_den(big(target.den())),
          m_target(m_num.convert_to<long double>() / m_den.convert_to<long double>()),
          m_wheels(allowed(input.wheel, input.wheel_counts, "wheel"), free_of(input.must_wheels, "must_wheels")),
          m_pinions(allowed(input.pinion, input.pinion_counts, "pinion"), free_of(input.must_pinions, "must_pinions")),
          m_must_wheel(product_of(input.must_wheels)),
          m_must_pinion(product_of(input.must_pinions)),
          m_filtered(input.hunting_only || !input.exclude_factors.empty() || input.distinct_pinions_at_most || input.evenness_at_most ||
                     input.stage_sum || !input.stage_sums.empty()) {
        m_result.target_exact = target.to_string();
        m_result.target = target.to_double();
        if (input.tolerance_ppm) {
            const Rational tolerance = Rational::from_decimal(*input.tolerance_ppm) / Rational(1'000'000);
            m_tolerance_num = big(tolerance.num());
            m_tolerance_den = big(tolerance.den());
        }
        for (Products* products : {&m_wheels, &m_pinions})
            products->stop_when([this] {
                watch(0);
                return m_ended;
            });
    }

    FindResult run() {
        m_result.considered =
            multisets(m_wheels, m_input.wheel, m_input.wheel_counts) * multisets(m_pinions, m_input.pinion, m_input.pinion_counts);
        if (!m_wheels.empty() && !m_pinions.empty()) {
            if (m_input.tolerance_ppm) search_within();
            else search_best();
        }
        return finish();
    }

private:
    const FindInput& m_input;
    const Effort& m_effort;
    const std::function<void(const FindResult&)>& m_partial;
    Big m_num, m_den, m_tolerance_num, m_tolerance_den;
    long double m_target;
    Products m_wheels;
    Products m_pinions;
    Product m_must_wheel;
    Product m_must_pinion;
    bool m_filtered;
    FindResult m_result;
    std::set<Solution> m_best;
    std::uint64_t m_count = 0;
    bool m_ended = false;
    Clock::time_point m_start = Clock::now();
    Clock::time_point m_told = m_start;

    int free_of(const std::vector<long long>& must, const char* field) const {
        const auto rest = m_input.stages - static_cast<long long>(must.size());
        if (rest < 0)
            throw InputError(field, std::to_string(must.size()) + " counts",
                             "at most as many as stages, " + std::to_string(m_input.stages));
        return static_cast<int>(rest);
    }

    static double multisets(const Products& products, const CountRange& range, const std::vector<long long>& only) {
        const auto kinds = static_cast<double>(allowed(range, only, "").size());
        double ways = 1;
        for (int i = 0; i < products.size(); ++i) ways *= (kinds + i) / (i + 1);
        return ways;
    }

    size_t wanted() const { return static_cast<size_t>(m_input.best); }

    /// Products of the free pinions for which the free wheels can reach a ratio within `relative` (1 and more: all of them).
    std::vector<Product> pinion_products(long double relative) const {
        if (relative >= 1) relative = INFINITY;
        const long double per_pinion = m_target * static_cast<long double>(m_must_pinion) / static_cast<long double>(m_must_wheel);
        const long double low = static_cast<long double>(m_wheels.least()) / per_pinion / (1 + relative);
        const long double high = relative > 1 ? 1e19L : static_cast<long double>(m_wheels.most()) / per_pinion / (1 - relative);
        const auto whole = [](long double x) { return static_cast<Product>(std::clamp(x, 0.0L, 1.8e19L)); };
        try {
            return m_pinions.distinct(whole(low * (1 - 1e-15L)), whole(high * (1 + 1e-15L) + 1), most_products);
        } catch (const std::length_error&) {
            throw InputError("pinion",
                             std::to_string(m_input.pinion.min) + " to " + std::to_string(m_input.pinion.max) + " in " +
                                 std::to_string(m_input.stages) + " stages (over " + print_many(static_cast<double>(most_products)) +
                                 " different products)",
                             "a narrower range, or fewer stages");
        }
    }

    void search_within() {
        const long double relative = static_cast<long double>(*m_input.tolerance_ppm) * 1e-6L;
        sweep(pinion_products(relative), relative);
    }

    /// Wider and wider until enough are inside, or all is.
    void search_best() {
        const std::vector<Product> products = pinion_products(1);
        for (long double relative = first_window; !m_ended;) {
            m_best.clear();
            if (sweep(products, relative)) return;
            // A window takes in whole integers and so a little more than it must: the list is complete only when its
            // last lies inside. A full list bounds the window that will do.
            const bool full = m_best.size() >= wanted();
            if (full && m_best.rbegin()->error.near <= relative) return;
            relative = full ? m_best.rbegin()->error.near * (1 + 1e-12L) : relative * widening;
        }
    }

    /// One pass over the products of pinions; true when no window cut anything off.
    bool sweep(const std::vector<Product>& products, long double relative) {
        bool all = true;
        for (size_t i = 0; i < products.size() && !m_ended; ++i) {
            if ((i & 255) == 0) watch(static_cast<double>(i) / static_cast<double>(products.size()));
            all = window(products[i], relative) && all;
        }
        return all;
    }

    /// Looks at every product of wheels that may go with this one of pinions; true when the window held all of them.
    bool window(Product free_pinions, long double relative) {
        const Product pinions = free_pinions * m_must_pinion;
        const long double middle = m_target * static_cast<long double>(pinions) / static_cast<long double>(m_must_wheel);
        if (!m_input.tolerance_ppm && m_best.size() >= wanted()) relative = std::min(relative, m_best.rbegin()->error.near * (1 + 1e-12L));
        // Wide by a hair: what is inside is decided on whole numbers.
        const long double hair = 1e-18L * middle;
        const long double low = std::floor(middle * (1 - relative) - hair);
        const long double high = std::ceil(middle * (1 + relative) + hair);
        const auto least = static_cast<long double>(m_wheels.least());
        const auto most = static_cast<long double>(m_wheels.most());
        const bool all = low <= least && high >= most;
        if (high < least || low > most) return all;
        m_wheels.each_within(static_cast<Product>(std::max(low, least)), static_cast<Product>(std::min(high, most)), [&](Product wheels) {
            consider(wheels, free_pinions);
            if ((++m_looked & 1023) == 0) watch(0);
            return !m_ended;
        });
        return all;
    }
    std::uint64_t m_looked = 0;

    void consider(Product free_wheels, Product free_pinions) {
        const Product pinions = free_pinions * m_must_pinion;
        const Big left = Big(free_wheels) * m_must_wheel * m_den;
        const Big right = m_num * pinions;
        Error error{0, left > right ? Big(left - right) : Big(right - left), pinions};
        if (m_input.tolerance_ppm && error.above * m_tolerance_den > m_tolerance_num * right) return;
        error.near = error.above.convert_to<long double>() / right.convert_to<long double>();
        if (m_input.tolerance_ppm && !m_filtered) m_count += m_wheels.ways(free_wheels) * m_pinions.ways(free_pinions);
        else if (m_filtered && m_input.tolerance_ppm) return enumerate(free_wheels, free_pinions, error, left > right);
        if (hopeless(error, free_wheels, free_pinions)) return;
        enumerate(free_wheels, free_pinions, error, left > right);
    }

    /// Not better than the last of a full list: by its error, or by the least sum that counts of these products can have.
    bool hopeless(const Error& error, Product wheels, Product pinions) const {
        if (m_best.size() < wanted()) return false;
        const Solution& last = *m_best.rbegin();
        if (last.error < error) return true;
        if (error < last.error) return false;
        const auto least_sum = [](Product product, int size) {
            return size == 0 ? 0.0 : size * std::pow(static_cast<double>(product), 1.0 / size);
        };
        const double must = static_cast<double>(std::accumulate(m_input.must_wheels.begin(), m_input.must_wheels.end(), 0LL) +
                                                std::accumulate(m_input.must_pinions.begin(), m_input.must_pinions.end(), 0LL));
        return least_sum(wheels, m_wheels.size()) + least_sum(pinions, m_pinions.size()) + must > static_cast<double>(last.sum) + 1e-6;
    }

    void enumerate(Product free_wheels, Product free_pinions, const Error& error, bool over) {
        m_wheels.each_multiset(free_wheels, [&](const Counts& wheels) {
            m_pinions.each_multiset(free_pinions, [&](const Counts& pinions) {
                if ((++m_looked & 1023) == 0) watch(0);
                keep(wheels, pinions, error, over);
                return !m_ended;
            });
            return !m_ended;
        });
    }

    void keep(const Counts& wheels, const Counts& pinions, const Error& error, bool over) {
        Solution solution{error, over, 0, wheels, pinions};
        solution.wheels.insert(solution.wheels.end(), m_input.must_wheels.begin(), m_input.must_wheels.end());
        solution.pinions.insert(solution.pinions.end(), m_input.must_pinions.begin(), m_input.must_pinions.end());
        std::sort(solution.wheels.begin(), solution.wheels.end(), std::greater<>());
        std::sort(solution.pinions.begin(), solution.pinions.end(), std::greater<>());
        if (m_filtered && !wished(solution)) return;
        if (m_filtered && m_input.tolerance_ppm) ++m_count;
        solution.sum = std::accumulate(solution.wheels.begin(), solution.wheels.end(), 0LL) +
                       std::accumulate(solution.pinions.begin(), solution.pinions.end(), 0LL);
        if (m_best.size() >= wanted() && !(solution < *m_best.rbegin())) return;
        m_best.insert(std::move(solution));
        if (m_best.size() > wanted()) m_best.erase(std::prev(m_best.end()));
    }

    /// As even as can be; where holes fix the sums, as these want it, none when they cannot be met.
    std::vector<Stage> arranged(const Solution& solution) const {
        if (m_input.stage_sums.empty()) return paired(solution.wheels, solution.pinions);
        Counts wheels = solution.wheels;
        Counts pinions = solution.pinions;
        std::vector<Stage> stages;
        return fitted(wheels, pinions, stages) ? stages : std::vector<Stage>();
    }

    /// Takes a wheel and a pinion for the next stage, and puts them back when the rest cannot be met.
    bool fitted(Counts& wheels, Counts& pinions, std::vector<Stage>& stages) const {
        if (wheels.empty()) return true;
        const std::vector<long long>& sums = m_input.stage_sums[stages.size()];
        for (size_t w = 0; w < wheels.size(); ++w)
            for (size_t p = 0; p < pinions.size(); ++p) {
                const Stage stage{wheels[w], pinions[p]};
                if (std::find(sums.begin(), sums.end(), stage.wheel + stage.pinion) == sums.end()) continue;
                wheels.erase(wheels.begin() + static_cast<std::ptrdiff_t>(w));
                pinions.erase(pinions.begin() + static_cast<std::ptrdiff_t>(p));
                stages.push_back(stage);
                if (fitted(wheels, pinions, stages)) return true;
                stages.pop_back();
                wheels.insert(wheels.begin() + static_cast<std::ptrdiff_t>(w), stage.wheel);
                pinions.insert(pinions.begin() + static_cast<std::ptrdiff_t>(p), stage.pinion);
            }
        return false;
    }

    bool wished(const Solution& solution) const {
        const std::vector<Stage> stages = arranged(solution);
        if (stages.empty()) return false;
        if (m_input.distinct_pinions_at_most && distinct(solution.pinions) > *m_input.distinct_pinions_at_most) return false;
        if (m_input.evenness_at_most && evenness_of(stages) > *m_input.evenness_at_most) return false;
        return std::all_of(stages.begin(), stages.end(), [&](const Stage& stage) {
            const long long common = std::gcd(stage.wheel, stage.pinion);
            const long long sum = stage.wheel + stage.pinion;
            const bool shares = std::any_of(m_input.exclude_factors.begin(), m_input.exclude_factors.end(),
                                            [&](long long factor) { return common % factor == 0; });
            return !(m_input.hunting_only && common != 1) && !shares &&
                   !(m_input.stage_sum && (sum < m_input.stage_sum->min || sum > m_input.stage_sum->max));
        });
    }

    /// Ends in time, tells progress and what is there so far.
    void watch(double done) {
        const auto now = Clock::now();
        const double elapsed = std::chrono::duration<double>(now - m_start).count();
        if (m_effort.stopped()) end("stopped");
        else if (m_input.time_limit_s && elapsed > *m_input.time_limit_s)
            end("the time limit of " + print_short(*m_input.time_limit_s) + " s");
        if (now - m_told < std::chrono::milliseconds(100)) return;
        m_told = now;
        if (done > m_done) m_effort.tell(m_done = done);
        if (m_partial) m_partial(finish());
    }
    double m_done = 0;

    void end(const std::string& why) {
        m_ended = true;
        m_result.complete = false;
        m_result.ended = why;
    }

    FindResult finish() const {
        FindResult out = m_result;
        if (m_input.tolerance_ppm) out.count_within_tolerance = static_cast<long long>(m_count);
        for (const Solution& solution : m_best) out.solutions.push_back(shown(solution));
        rank(out.solutions);
        out.elapsed_s = std::chrono::duration<double>(Clock::now() - m_start).count();
        return out;
    }

    FoundTrain shown(const Solution& solution) const {
        FoundTrain out;
        out.wheels.assign(solution.wheels.rbegin(), solution.wheels.rend());
        out.pinions.assign(solution.pinions.rbegin(), solution.pinions.rend());
        out.stages = arranged(solution);
        const Product wheels = product_of(solution.wheels);
        const Product pinions = product_of(solution.pinions);
        const Product common = std::gcd(wheels, pinions);
        out.ratio_exact = std::to_string(wheels / common) + "/" + std::to_string(pinions / common);
        out.ratio = static_cast<double>(wheels) / static_cast<double>(pinions);
        const auto error = static_cast<double>(solution.over ? solution.error.near : -solution.error.near);
        out.error_ppm = error * 1e6;
        out.error_s_per_day = error * 86400;
        if (solution.error.above != 0) out.years_per_day = 1 / (std::abs(error) * days_per_year);
        out.evenness = evenness_of(out.stages);
        for (const Stage& stage : out.stages) out.hunting_stages += std::gcd(stage.wheel, stage.pinion) == 1 ? 1 : 0;
        out.distinct_pinions = distinct(solution.pinions);
        out.sum = solution.sum;
        return out;
    }

    /// Another order of the same list; error decides between equals.
    void rank(std::vector<FoundTrain>& list) const {
        const auto by = [&](auto figure) {
            std::stable_sort(list.begin(), list.end(), [&](const FoundTrain& a, const FoundTrain& b) { return figure(a) < figure(b); });
        };
        if (m_input.rank == "evenness") by([](const FoundTrain& t) { return t.evenness; });
        if (m_input.rank == "teeth") by([](const FoundTrain& t) { return t.sum; });
        if (m_input.rank == "hunting") by([](const FoundTrain& t) { return -t.hunting_stages; });
        if (m_input.rank == "cutters") by([](const FoundTrain& t) { return t.distinct_pinions; });
    }
};

/// The ratio that is looked for, and whether the pinions drive.
std::pair<Rational, bool> target_of(const FindInput& input) {
    if (input.target.num() > 0) {
        if (input.hand) throw InputError("hand", "\"" + *input.hand + "\" beside a target", "one of the two");
        return {input.target, false};
    }
    if (!input.hand) throw InputError("target", "nothing", "a ratio above 0, or a hand with driver_period_s");
    if (input.driver_period_s.num() <= 0) throw InputError("driver_period_s", "nothing", "the period of the arbor that drives the hand");
    const Rational hand = find_period(*input.hand)->period_s;
    const bool slower = hand > input.driver_period_s;
    return {slower ? hand / input.driver_period_s : input.driver_period_s / hand, slower};
}

}  // namespace

FindResult find_trains(const FindInput& input) { return find_trains(input, {}, {}); }

FindResult find_trains(const FindInput& input, const Effort& effort, const std::function<void(const FindResult&)>& partial) {
    if (input.stages < 1 || input.stages > 6) throw InputError("stages", std::to_string(input.stages), "1 to 6");
    if (!input.stage_sums.empty() && input.stage_sums.size() != static_cast<size_t>(input.stages))
        throw InputError("stage_sums", std::to_string(input.stage_sums.size()) + " lists",
                         "one for each of " + std::to_string(input.stages) + " stages");
    const auto [target, pinions_drive] = target_of(input);
    Finder finder(input, target, effort, partial);
    FindResult out = finder.run();
    out.pinions_drive = pinions_drive;
    effort.tell(1);
    return out;
}

std::vector<Working> explain_find(const FindInput& input, const FindResult& out) {
    std::vector<Working> workings;
    for (const FoundTrain& train : out.solutions) {
        Working working;
        working.formula = "ratio = product of wheels ÷ product of pinions = " + train.ratio_exact;
        for (const Stage& stage : train.stages)
            working.name += (working.name.empty() ? "" : " × ") + std::to_string(stage.wheel) + "/" + std::to_string(stage.pinion);
        working.terms = {{"target", "asked for", {out.target, 0}, "", 0}};
        working.result = {train.ratio, 0};
        working.source = find_source;
        working.notes.push_back("error " + print_short(train.error_ppm, 4) + " ppm, " + print_short(train.error_s_per_day, 4) +
                                " s a day, " +
                                (train.years_per_day ? "one day in " + print_short(*train.years_per_day, 3) + " years" : "exact"));
        workings.push_back(std::move(working));
        if (workings.size() == 10) break;
    }
    if (!workings.empty() && input.tolerance_ppm)
        workings.back().notes.push_back(std::to_string(*out.count_within_tolerance) + " within " + print_short(*input.tolerance_ppm) +
                                        " ppm, " + (out.complete ? "all of them" : "not all looked at: " + out.ended));
    return workings;
}

const Calculation& find_calculation() {
    static const Calculation calculation = declare<FindInput, FindResult>(
        "train.find", "Trains for a ratio: every one within a tolerance, or the best.", find_source, find_trains, explain_find);
    return calculation;
}

}  // namespace echappe
