#pragma once

#include <cstdint>
#include <functional>
#include <span>
#include <vector>

namespace echappe {

/// The products of `size` counts taken from a list, order ignored and each count as often as wanted (multisets).
/// Products are 64-bit: 1000^6 is the largest a train of six stages can have.
class Products {
public:
    using Product = std::uint64_t;
    using Counts = std::vector<long long>;

    /// `counts` ascending and without doubles, each 1 to 1000; size 0 to 6. Size 0 has the one product 1.
    Products(Counts counts, int size);

    Product least() const { return m_least; }
    Product most() const { return m_most; }
    int size() const { return m_size; }
    bool empty() const { return m_size > 0 && m_counts.empty(); }

    /// Asked between short pieces of long work: once it answers true, what was asked ends early with an unfinished answer.
    void stop_when(std::function<bool()> stopped) { m_stopped = std::move(stopped); }

    /// Every distinct product within low to high, ascending. Throws std::length_error beyond `at_most` of them.
    std::vector<Product> distinct(Product low, Product high, size_t at_most) const;

    /// Calls `take` with every distinct product within low to high, ascending, in runs of bounded memory; ends early when
    /// `take` answers false. It may also be called with integers that no multiset has (`ways` 0). The cost is that of walking the
    /// half-products or of testing every integer, whichever is less.
    void each_within(Product low, Product high, const std::function<bool(Product)>& take) const;

    /// Whether it has no prime factor that no count has: a quick first sieve.
    bool may_be(Product product) const;

    /// Calls `take` with every multiset that has this product, counts descending, until it answers false.
    void each_multiset(Product product, const std::function<bool(const Counts&)>& take) const;
    /// How many multisets have this product.
    std::uint64_t ways(Product product) const;

private:
    /// Divides by an odd prime with one multiplication: q = W·inverse is W/p exactly when q ≤ limit.
    struct Prime {
        Product inverse;
        Product limit;
    };
    Counts m_counts;
    int m_size;
    Product m_least = 1;
    Product m_most = 1;
    bool m_even = false;  ///< 2 is among the primes
    std::function<bool()> m_stopped;
    std::vector<Prime> m_primes;
    mutable std::vector<Product> m_lower;  ///< distinct products of half the counts, made when first needed
    mutable std::vector<Product> m_upper;

    std::vector<Product> grown(const std::vector<Product>& list, Product least, Product most, size_t at_most) const;
    void each_integer(Product low, Product high, const std::function<bool(Product)>& take) const;
    void each_pair(Product low, Product high, const std::function<bool(Product)>& take) const;
    bool collect(Product from, Product to, std::vector<Product>& hits) const;
    /// The counts that divide it, descending.
    Counts divisors(Product product) const;
    bool split(Product product, int size, std::span<const long long> from, Counts& chosen,
               const std::function<bool(const Counts&)>& take) const;
    std::uint64_t count(Product product, int size, std::span<const long long> from) const;
};

}  // namespace echappe
