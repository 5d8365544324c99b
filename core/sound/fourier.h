#pragma once

#include <complex>
#include <memory>
#include <span>
#include <vector>

namespace echappe {

/// Spectra of real samples; KissFFT does the work. One object a length, used over and over, by one thread at a time; a copy is another.
class Fourier {
public:
    /// `length`: even; a power of two is fast.
    explicit Fourier(size_t length);
    Fourier(const Fourier& other) : Fourier(other.m_length) {}
    Fourier& operator=(const Fourier& other) { return *this = Fourier(other.m_length); }
    Fourier(Fourier&&) = default;
    Fourier& operator=(Fourier&&) = default;
    size_t length() const { return m_length; }
    size_t bins() const { return m_length / 2 + 1; }
    /// Of `length` samples into `bins` values.
    void forward(const float* samples, std::complex<float>* spectrum) const;
    /// Back; divided by the length, so that it is the inverse.
    void inverse(const std::complex<float>* spectrum, float* samples) const;

private:
    size_t m_length;
    std::shared_ptr<void> m_forward, m_inverse;
};

/// By hand: std::complex looks after infinities, which takes most of the time.
template <class T>
std::complex<T> product(std::complex<T> a, std::complex<T> b) {
    return {a.real() * b.real() - a.imag() * b.imag(), a.real() * b.imag() + a.imag() * b.real()};
}
/// The least even length that is not less and quick to turn: of twos, threes and fives.
size_t fast_length(size_t least);
/// The least power of two that is not less.
size_t power_of_two(double least);
/// Hann's window.
std::vector<float> hann(size_t length);
/// r(lag) = mean of x(i) x(i + lag) for lags from 0 to `lags` − 1, each by the number of pairs that there are.
std::vector<float> autocorrelation(std::span<const float> x, size_t lags);
/// The middle one; nothing of `x` is left in order. 0 of none.
template <class T>
T median_of(std::vector<T>& x);
extern template float median_of(std::vector<float>&);
extern template double median_of(std::vector<double>&);
/// Standard deviation of what is normal but for outliers: 1.4826 times the median distance from the median (Hampel, 1974).
double robust_spread(std::vector<double> x);

}  // namespace echappe
