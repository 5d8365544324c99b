#include "sound/fourier.h"

#include <kissfft/kiss_fftr.h>
#include <algorithm>
#include <cmath>

#include "number/constants.h"

namespace echappe {

Fourier::Fourier(size_t length)
    : m_length(length),
      m_forward(kiss_fftr_alloc(static_cast<int>(length), 0, nullptr, nullptr), kiss_fft_free),
      m_inverse(kiss_fftr_alloc(static_cast<int>(length), 1, nullptr, nullptr), kiss_fft_free) {}

void Fourier::forward(const float* samples, std::complex<float>* spectrum) const {
    kiss_fftr(static_cast<kiss_fftr_cfg>(m_forward.get()), samples, reinterpret_cast<kiss_fft_cpx*>(spectrum));
}

void Fourier::inverse(const std::complex<float>* spectrum, float* samples) const {
    kiss_fftri(static_cast<kiss_fftr_cfg>(m_inverse.get()), reinterpret_cast<const kiss_fft_cpx*>(spectrum), samples);
    const float scale = 1.0f / static_cast<float>(m_length);
    for (size_t i = 0; i < m_length; ++i) samples[i] *= scale;
}

size_t fast_length(size_t least) { return static_cast<size_t>(2 * kiss_fft_next_fast_size(static_cast<int>((least + 1) / 2))); }

size_t power_of_two(double least) {
    size_t size = 2;
    while (static_cast<double>(size) < least) size *= 2;
    return size;
}

std::vector<float> hann(size_t length) {
    std::vector<float> window(length);
    for (size_t i = 0; i < length; ++i)
        window[i] = static_cast<float>(0.5 - 0.5 * std::cos(2 * pi * (static_cast<double>(i) + 0.5) / static_cast<double>(length)));
    return window;
}

std::vector<float> autocorrelation(std::span<const float> x, size_t lags) {
    lags = std::min(lags, x.size());
    const Fourier fourier(power_of_two(static_cast<double>(x.size() + lags)));
    std::vector<float> padded(fourier.length(), 0);
    std::copy(x.begin(), x.end(), padded.begin());
    std::vector<std::complex<float>> spectrum(fourier.bins());
    fourier.forward(padded.data(), spectrum.data());
    for (auto& bin : spectrum) bin = std::norm(bin);
    fourier.inverse(spectrum.data(), padded.data());
    padded.resize(lags);
    for (size_t lag = 0; lag < lags; ++lag) padded[lag] /= static_cast<float>(x.size() - lag);
    return padded;
}

template <class T>
T median_of(std::vector<T>& x) {
    if (x.empty()) return 0;
    const auto middle = x.begin() + static_cast<std::ptrdiff_t>(x.size() / 2);
    std::nth_element(x.begin(), middle, x.end());
    return *middle;
}
template float median_of(std::vector<float>&);
template double median_of(std::vector<double>&);

double robust_spread(std::vector<double> x) {
    const double middle = median_of(x);
    for (double& one : x) one = std::abs(one - middle);
    return 1.4826 * median_of(x);
}

}  // namespace echappe
