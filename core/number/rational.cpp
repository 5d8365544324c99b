#include "number/rational.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <utility>

#include "number/input_error.h"
#include "number/numeral.h"

namespace echappe {
namespace {

int128 checked_mul(int128 a, int128 b) {
    int128 product = 0;
    if (__builtin_mul_overflow(a, b, &product)) throw RationalOverflow();
    return product;
}

int128 checked_add(int128 a, int128 b) {
    int128 sum = 0;
    if (__builtin_add_overflow(a, b, &sum)) throw RationalOverflow();
    return sum;
}

int128 magnitude(int128 value) { return value < 0 ? checked_mul(value, -1) : value; }

int128 gcd(int128 a, int128 b) {
    while (b != 0) a = std::exchange(b, a % b);
    return a;
}

std::string digits(int128 value) {
    if (value == 0) return "0";
    const bool negative = value < 0;
    std::string text;
    for (; value != 0; value /= 10) {
        const int digit = static_cast<int>(value % 10);
        text.push_back(static_cast<char>('0' + (digit < 0 ? -digit : digit)));
    }
    if (negative) text.push_back('-');
    std::reverse(text.begin(), text.end());
    return text;
}

int128 power_of_ten(int exponent) {
    int128 power = 1;
    for (int i = 0; i < exponent; ++i) power = checked_mul(power, 10);
    return power;
}

/// A decimal numeral with optional fraction and exponent, exactly; false when it is not one.
bool read_decimal(std::string_view text, Rational& out) {
    bool negative = false;
    bool any = false;
    int scale = 0;
    int128 mantissa = 0;
    size_t i = 0;
    if (i < text.size() && (text[i] == '+' || text[i] == '-')) negative = text[i++] == '-';
    bool fraction = false;
    for (; i < text.size(); ++i) {
        if ((text[i] == '.' || text[i] == ',') && !fraction) {
            fraction = true;
            continue;
        }
        if (text[i] < '0' || text[i] > '9') break;
        mantissa = checked_add(checked_mul(mantissa, 10), text[i] - '0');
        any = true;
        scale += fraction ? 1 : 0;
    }
    int exponent = 0;
    if (any && i < text.size() && (text[i] == 'e' || text[i] == 'E')) {
        ++i;
        if (i < text.size() && text[i] == '+') ++i;
        const auto [end, error] = std::from_chars(text.data() + i, text.data() + text.size(), exponent);
        if (error != std::errc()) return false;
        i = static_cast<size_t>(end - text.data());
    }
    if (!any || i != text.size()) return false;
    exponent -= scale;
    if (mantissa == 0) exponent = 0;
    // 38 digits are all that 127 bits hold.
    if (std::abs(exponent) > 60) throw RationalOverflow();
    if (negative) mantissa = -mantissa;
    out = exponent >= 0 ? Rational(checked_mul(mantissa, power_of_ten(exponent)), 1) : Rational(mantissa, power_of_ten(-exponent));
    return true;
}

}  // namespace

Rational::Rational(int128 num, int128 den) {
    if (den == 0) throw std::domain_error("a fraction with denominator 0");
    if (den < 0) {
        num = checked_mul(num, -1);
        den = checked_mul(den, -1);
    }
    const int128 common = gcd(magnitude(num), den);
    m_num = num / common;
    m_den = den / common;
}

Rational Rational::parse(std::string_view text, const std::string& field) {
    const std::string accepts = "a decimal number or a fraction num/den";
    const auto slash = text.find('/');
    Rational above;
    Rational below(1);
    try {
        if (read_decimal(text.substr(0, slash), above) &&
            (slash == std::string_view::npos || read_decimal(text.substr(slash + 1), below)) && below.num() != 0)
            return above / below;
    } catch (const RationalOverflow&) {
        throw InputError(field, in_quotes(text), "a fraction whose parts stay under 38 digits");
    }
    throw InputError(field, in_quotes(text), accepts);
}

Rational Rational::from_decimal(double value) {
    std::array<char, 32> buffer{};
    const auto end = std::to_chars(buffer.data(), buffer.data() + buffer.size(), value).ptr;
    return parse(std::string_view(buffer.data(), static_cast<size_t>(end - buffer.data())));
}

double Rational::to_double() const { return static_cast<double>(m_num) / static_cast<double>(m_den); }

std::string Rational::to_string(bool whole_alone) const {
    if (whole_alone && m_den == 1) return digits(m_num);
    return digits(m_num) + "/" + digits(m_den);
}

Rational Rational::operator-() const { return Rational(checked_mul(m_num, -1), m_den); }

Rational Rational::operator+(const Rational& other) const {
    const int128 common = gcd(m_den, other.m_den);
    const int128 scale = other.m_den / common;
    return Rational(checked_add(checked_mul(m_num, scale), checked_mul(other.m_num, m_den / common)), checked_mul(m_den, scale));
}

Rational Rational::operator-(const Rational& other) const { return *this + (-other); }

Rational Rational::operator*(const Rational& other) const {
    // Cancel across first, so that only a result that is really too large overflows.
    const int128 a = std::max<int128>(gcd(magnitude(m_num), other.m_den), 1);
    const int128 b = std::max<int128>(gcd(magnitude(other.m_num), m_den), 1);
    return Rational(checked_mul(m_num / a, other.m_num / b), checked_mul(m_den / b, other.m_den / a));
}

Rational Rational::operator/(const Rational& other) const {
    if (other.m_num == 0) throw std::domain_error("division of a fraction by 0");
    return *this * Rational(other.m_den, other.m_num);
}

std::strong_ordering Rational::operator<=>(const Rational& other) const {
    const int128 sign = (*this - other).m_num;
    return sign < 0 ? std::strong_ordering::less : sign > 0 ? std::strong_ordering::greater : std::strong_ordering::equal;
}

}  // namespace echappe
