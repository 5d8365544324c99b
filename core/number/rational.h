#pragma once

#include <compare>
#include <stdexcept>
#include <string>
#include <string_view>

namespace echappe {

__extension__ typedef __int128 int128;

/// The exact answer needs more than 127 bits. It is reported, never wrapped.
class RationalOverflow : public std::overflow_error {
public:
    RationalOverflow() : std::overflow_error("the exact fraction is beyond 127 bits") {}
};

/// An exact fraction in lowest terms with a positive denominator. Every operation is checked:
/// it gives the exact result or throws RationalOverflow. Periods of arbors are kept in these,
/// so that "keeps time exactly" is a fact and not a rounding.
class Rational {
public:
    constexpr Rational() = default;
    Rational(long long whole) : m_num(whole) {}
    /// Throws std::domain_error for a zero denominator.
    Rational(int128 num, int128 den);

    /// Reads "45", "-7.25", "1e3", "22/7" or "44714.2/3600" exactly as the decimal stands. Throws InputError.
    static Rational parse(std::string_view text, const std::string& field = "fraction");
    /// The shortest decimal that reads back as this double, taken as exact: 0.1 gives 1/10.
    static Rational from_decimal(double value);

    int128 num() const { return m_num; }
    int128 den() const { return m_den; }
    /// Nearest double (correct to 1 ulp of each part, so within 2e-16 relative).
    double to_double() const;
    /// "num/den", or "num" alone when whole and `whole_alone`.
    std::string to_string(bool whole_alone = false) const;

    Rational operator-() const;
    Rational operator+(const Rational& other) const;
    Rational operator-(const Rational& other) const;
    Rational operator*(const Rational& other) const;
    /// Throws std::domain_error when dividing by zero.
    Rational operator/(const Rational& other) const;
    bool operator==(const Rational& other) const = default;
    std::strong_ordering operator<=>(const Rational& other) const;

private:
    int128 m_num = 0;
    int128 m_den = 1;
};

}  // namespace echappe
