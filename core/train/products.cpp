#include "train/products.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace echappe {
namespace {

using Product = Products::Product;
using Counts = Products::Counts;

Product power(Product base, int exponent) {
    Product result = 1;
    for (int i = 0; i < exponent; ++i) result *= base;
    return result;
}

void sort_unique(std::vector<Product>& list) {
    std::sort(list.begin(), list.end());
    list.erase(std::unique(list.begin(), list.end()), list.end());
}

/// Newton's iteration doubles the right bits: five steps from 5 bits give all 64.
Product inverse_modulo_2_64(Product odd) {
    Product inverse = odd * 3 ^ 2;
    for (int i = 0; i < 5; ++i) inverse *= 2 - odd * inverse;
    return inverse;
}

/// A pair of half-products costs about this many times less than testing one integer (measured: 1 ns against 12 ns).
constexpr double pairs_per_integer = 12;
/// Runs of at most about this many products are collected and sorted at a time.
constexpr size_t run_most = 1'000'000;

}  // namespace

Products::Products(Counts counts, int size) : m_counts(std::move(counts)), m_size(size) {
    if (m_counts.empty()) return;
    m_least = power(static_cast<Product>(m_counts.front()), size);
    m_most = power(static_cast<Product>(m_counts.back()), size);
    std::vector<bool> divides(static_cast<size_t>(m_counts.back()) + 1, false);
    for (long long count : m_counts)
        for (long long p = 2; p <= count; ++p)
            for (; count % p == 0; count /= p) divides[static_cast<size_t>(p)] = true;
    m_even = divides.size() > 2 && divides[2];
    for (size_t p = 3; p < divides.size(); p += 2)
        if (divides[p]) m_primes.push_back({inverse_modulo_2_64(p), ~Product{0} / p});
}

/// The products of one count more, each once. Those of one count come sorted already; runs of like length are merged two by two.
std::vector<Product> Products::grown(const std::vector<Product>& list, Product least, Product most, size_t at_most) const {
    std::vector<std::vector<Product>> runs;
    const auto merge_last = [&] {
        std::vector<Product> merged;
        const auto& a = runs[runs.size() - 2];
        const auto& b = runs.back();
        merged.reserve(a.size() + b.size());
        std::set_union(a.begin(), a.end(), b.begin(), b.end(), std::back_inserter(merged));
        if (merged.size() > at_most) throw std::length_error("products");
        runs.pop_back();
        runs.back() = std::move(merged);
    };
    for (const long long count : m_counts) {
        if (m_stopped && m_stopped()) return {};
        const auto factor = static_cast<Product>(count);
        const auto from = std::lower_bound(list.begin(), list.end(), least / factor + (least % factor != 0));
        const auto to = std::upper_bound(from, list.end(), most / factor);
        auto& run = runs.emplace_back(static_cast<size_t>(to - from));
        std::transform(from, to, run.begin(), [&](Product product) { return product * factor; });
        while (runs.size() > 1 && runs.back().size() >= runs[runs.size() - 2].size()) merge_last();
    }
    while (runs.size() > 1) merge_last();
    return runs.empty() ? std::vector<Product>() : std::move(runs.front());
}

std::vector<Product> Products::distinct(Product low, Product high, size_t at_most) const {
    std::vector<Product> list{1};
    if (m_counts.empty()) return m_size == 0 && low <= 1 && high >= 1 ? list : std::vector<Product>();
    const auto front = static_cast<Product>(m_counts.front());
    const auto back = static_cast<Product>(m_counts.back());
    for (int level = 1; level <= m_size; ++level) {
        // What the remaining counts can still make of it bounds each level.
        const Product most_rest = power(back, m_size - level);
        list = grown(list, low / most_rest, high / power(front, m_size - level), at_most);
        if (list.size() > at_most) throw std::length_error("products");
    }
    std::erase_if(list, [&](Product p) { return p < low || p > high; });
    return list;
}

bool Products::may_be(Product product) const {
    if (m_even) product >>= __builtin_ctzll(product);
    for (const Prime& prime : m_primes) {
        for (Product quotient = product * prime.inverse; quotient <= prime.limit; quotient = product * prime.inverse) product = quotient;
        if (product == 1) return true;
    }
    return product == 1;
}

void Products::each_within(Product low, Product high, const std::function<bool(Product)>& take) const {
    low = std::max(low, m_least);
    high = std::min(high, m_most);
    if (empty() || low > high) return;
    const auto half = [&](int size) {
        double multisets = 1;
        for (int i = 0; i < size; ++i) multisets *= static_cast<double>(m_counts.size() + static_cast<size_t>(i)) / (i + 1);
        return multisets;
    };
    const double pairs = half(m_size / 2) + half(m_size - m_size / 2);
    if (static_cast<double>(high - low) * pairs_per_integer <= pairs) each_integer(low, high, take);
    else each_pair(low, high, take);
}

void Products::each_integer(Product low, Product high, const std::function<bool(Product)>& take) const {
    for (Product product = low; product <= high; ++product)
        if (may_be(product) && !take(product)) return;
}

void Products::each_pair(Product low, Product high, const std::function<bool(Product)>& take) const {
    if (m_upper.empty()) {
        constexpr size_t any = static_cast<size_t>(-1) / 8;
        const auto half = [&](int size) {
            Products products(m_counts, size);
            products.stop_when(m_stopped);
            return products.distinct(0, ~Product{0}, any);
        };
        m_lower = half(m_size / 2);
        m_upper = half(m_size - m_size / 2);
    }
    // Ranges still to walk, the lowest last; one that holds too many pairs is cut in two.
    std::vector<std::pair<Product, Product>> ranges{{low, high}};
    std::vector<Product> hits;
    while (!ranges.empty()) {
        const auto [from, to] = ranges.back();
        ranges.pop_back();
        if (!collect(from, to, hits) && from < to) {
            const auto middle =
                std::clamp(static_cast<Product>(std::sqrt(static_cast<double>(from)) * std::sqrt(static_cast<double>(to))), from, to - 1);
            ranges.emplace_back(middle + 1, to);
            ranges.emplace_back(from, middle);
            continue;
        }
        sort_unique(hits);
        for (const Product product : hits)
            if (!take(product)) return;
    }
}

/// Two pointers: as the lower half grows, the upper halves that fit slide down. False when there are too many pairs.
bool Products::collect(Product from, Product to, std::vector<Product>& hits) const {
    hits.clear();
    size_t above = m_upper.size();  // first upper product that is too large
    size_t inside = m_upper.size();
    for (const Product lower : m_lower) {
        while (above > 0 && m_upper[above - 1] * lower > to) --above;
        inside = std::min(inside, above);
        while (inside > 0 && m_upper[inside - 1] * lower >= from) --inside;
        if (from < to && hits.size() + (above - inside) > run_most) return false;
        for (size_t i = inside; i < above; ++i) hits.push_back(m_upper[i] * lower);
    }
    return true;
}

Counts Products::divisors(Product product) const {
    Counts list;
    for (auto count = m_counts.rbegin(); count != m_counts.rend(); ++count)
        if (product % static_cast<Product>(*count) == 0) list.push_back(*count);
    return list;
}

/// `from` descending: the largest that is left must be at least the root of what is left of the product.
bool Products::split(Product product, int size, std::span<const long long> from, Counts& chosen,
                     const std::function<bool(const Counts&)>& take) const {
    if (size == 0) return product != 1 || take(chosen);
    const auto least_rest = power(static_cast<Product>(m_counts.front()), size - 1);
    for (; !from.empty(); from = from.subspan(1)) {
        const auto count = static_cast<Product>(from.front());
        if (power(count, size) < product) break;
        if (product % count != 0 || product / count < least_rest) continue;
        chosen.push_back(from.front());
        const bool more = split(product / count, size - 1, from, chosen, take);
        chosen.pop_back();
        if (!more) return false;
    }
    return true;
}

void Products::each_multiset(Product product, const std::function<bool(const Counts&)>& take) const {
    Counts chosen;
    const Counts from = divisors(product);
    split(product, m_size, from, chosen, take);
}

std::uint64_t Products::count(Product product, int size, std::span<const long long> from) const {
    if (size == 0) return product == 1 ? 1 : 0;
    if (size == 1) return std::binary_search(from.rbegin(), from.rend(), static_cast<long long>(product)) ? 1 : 0;
    const auto least_rest = power(static_cast<Product>(m_counts.front()), size - 1);
    std::uint64_t sum = 0;
    for (; !from.empty(); from = from.subspan(1)) {
        const auto value = static_cast<Product>(from.front());
        if (power(value, size) < product) break;
        if (product % value == 0 && product / value >= least_rest) sum += count(product / value, size - 1, from);
    }
    return sum;
}

std::uint64_t Products::ways(Product product) const {
    const Counts from = divisors(product);
    return count(product, m_size, from);
}

}  // namespace echappe
