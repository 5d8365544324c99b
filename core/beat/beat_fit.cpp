#include "beat/beat_fit.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/least_squares.h"
#include "sound/fourier.h"

namespace echappe {
namespace {

/// Columns: 1, number (centred and scaled), ± for tick and tock, then cosine and sine of each wave.
Eigen::MatrixXd columns_of(const std::vector<Beat>& beats, const std::vector<double>& periods_s, double middle, double span) {
    Eigen::MatrixXd a(static_cast<Eigen::Index>(beats.size()), static_cast<Eigen::Index>(3 + 2 * periods_s.size()));
    for (Eigen::Index i = 0; i < a.rows(); ++i) {
        const Beat& beat = beats[static_cast<size_t>(i)];
        a(i, 0) = 1;
        a(i, 1) = (static_cast<double>(beat.number) - middle) / span;
        a(i, 2) = beat.number % 2 == 0 ? -0.5 : 0.5;
        for (size_t w = 0; w < periods_s.size(); ++w) {
            const double turn = 2 * pi * (beat.at_s - beats.front().at_s) / periods_s[w];
            a(i, static_cast<Eigen::Index>(3 + 2 * w)) = std::cos(turn);
            a(i, static_cast<Eigen::Index>(4 + 2 * w)) = std::sin(turn);
        }
    }
    return a;
}

std::vector<double> to_list(const Eigen::VectorXd& x) { return {x.data(), x.data() + x.size()}; }

/// Which share of the unevenness later beats keep, by the spectrum of the residuals (Whittle, 1953): beats each for itself have the same
/// power everywhere, kept steps have it at the low frequencies, 1 ÷ (4 sin² (ω ÷ 2)). Every share is weighed by its likelihood, so that
/// few beats do not promise more than they can tell: the mean variance of the slope.
double wandering_variance(const std::vector<Beat>& beats, const BeatFit& fit) {
    const auto numbers = static_cast<size_t>(beats.back().number - beats.front().number + 1);
    const Fourier fourier(fast_length(numbers));
    std::vector<float> left(fourier.length(), 0);
    for (size_t i = 0; i < beats.size(); ++i)
        if (!fit.out[i])
            left[static_cast<size_t>(beats[i].number - beats.front().number)] = static_cast<float>(fit.left_s[i] / fit.spread_s);
    std::vector<std::complex<float>> spectrum(fourier.bins());
    fourier.forward(left.data(), spectrum.data());
    std::vector<double> power, grows;
    // The line took the lowest frequency, the limp the highest.
    for (size_t bin = 2; bin + 1 < spectrum.size(); ++bin) {
        power.push_back(std::norm(spectrum[bin]) / static_cast<double>(beats.size()) + 1e-12);
        grows.push_back(1 / (4 * std::pow(std::sin(pi * static_cast<double>(bin) / static_cast<double>(fourier.length())), 2)));
    }
    const auto n = static_cast<double>(beats.size()), span = static_cast<double>(numbers - 1);
    struct Share {
        double likelihood, slope;
    };
    std::vector<Share> shares;
    // From where a wandering weighs a tenth of the scatter in the slope.
    const double weighs = 10 / (n * span);
    for (int k = -1; k <= 48; ++k) {
        const double ratio = k < 0 ? 0 : 0.1 * weighs * std::pow(10.0, k / 6.0);
        double scale = 0, logs = 0;
        for (size_t i = 0; i < power.size(); ++i) scale += power[i] / (1 + ratio * grows[i]), logs += std::log(1 + ratio * grows[i]);
        scale /= static_cast<double>(power.size());
        const double each = scale * fit.spread_s * fit.spread_s;
        shares.push_back(
            {-static_cast<double>(power.size()) * std::log(scale) - logs, each * (12 / (n * span * span) + 1.2 * ratio / span)});
    }
    const double best = std::max_element(shares.begin(), shares.end(), [](const Share& a, const Share& b) {
                            return a.likelihood < b.likelihood;
                        })->likelihood;
    double variance = 0, sum = 0;
    for (const Share& share : shares) {
        const double weight = std::exp(share.likelihood - best);
        sum += weight, variance += weight * share.slope;
    }
    return variance / sum;
}

/// Long-run variance of the scores (Newey and West, 1987), Bartlett's weights over a quarter power of the beats, times two.
double slope_variance(const Eigen::MatrixXd& a, const Eigen::VectorXd& left, const Eigen::VectorXd& weight) {
    const Eigen::Index n = a.rows(), columns = a.cols();
    const Eigen::MatrixXd bread = pseudo_inverse(a.transpose() * weight.asDiagonal() * a);
    Eigen::MatrixXd scores = a;
    for (Eigen::Index i = 0; i < n; ++i) scores.row(i) *= weight(i) * left(i);
    Eigen::MatrixXd meat = scores.transpose() * scores;
    const auto lags = std::min<Eigen::Index>(n / 3, static_cast<Eigen::Index>(2 * std::pow(static_cast<double>(n), 1.0 / 3)) + 1);
    for (Eigen::Index lag = 1; lag <= lags; ++lag) {
        const double share = 1 - static_cast<double>(lag) / static_cast<double>(lags + 1);
        const Eigen::MatrixXd cross = scores.topRows(n - lag).transpose() * scores.bottomRows(n - lag);
        meat += share * (cross + cross.transpose());
    }
    const Eigen::MatrixXd all =
        bread * meat * bread * (static_cast<double>(n) / static_cast<double>(std::max<Eigen::Index>(1, n - columns)));
    return std::max(0.0, all(1, 1));
}

}  // namespace

double rate_of_beats(double beat_s, double beats_per_hour) { return day_s * (3600 / beats_per_hour / beat_s - 1); }

std::optional<BeatFit> fit_beats(const std::vector<Beat>& beats, const std::vector<double>& wave_periods_s) {
    const auto columns = static_cast<Eigen::Index>(3 + 2 * wave_periods_s.size());
    if (static_cast<Eigen::Index>(beats.size()) < 3 + columns) return {};
    const double middle = 0.5 * static_cast<double>(beats.front().number + beats.back().number);
    const double span = 0.5 * static_cast<double>(beats.back().number - beats.front().number);
    if (span <= 0) return {};
    const Eigen::MatrixXd a = columns_of(beats, wave_periods_s, middle, span);
    Eigen::VectorXd t(a.rows());
    for (Eigen::Index i = 0; i < t.size(); ++i) t(i) = beats[static_cast<size_t>(i)].at_s;
    Eigen::VectorXd weight = Eigen::VectorXd::Ones(a.rows()), x, left;
    BeatFit out;
    constexpr double huber = 1.5, far_off = 4, least_spread_s = 1e-9;
    for (int round = 0; round < 12; ++round) {
        const Eigen::MatrixXd normal = a.transpose() * weight.asDiagonal() * a;
        // The first rounds are for finding what lies far off; limp is not told where every heard beat is of one kind.
        x = least_squares(normal, a.transpose() * weight.asDiagonal() * t);
        left = t - a * x;
        out.spread_s = std::max(least_spread_s, robust_spread(to_list(left)));
        for (Eigen::Index i = 0; i < left.size(); ++i) {
            const double off = std::abs(left(i)) / out.spread_s;
            weight(i) = off > 2 * far_off ? 0 : off > huber ? huber / off : 1;
        }
    }
    out.beat_s = x(1) / span;
    out.first_s = x(0) - x(1) * middle / span;
    out.limp_s = x(2);
    const Eigen::VectorXd without = t - a.leftCols(3) * x.head(3);
    out.left_s = to_list(left);
    out.late_s = to_list(without);
    for (Eigen::Index i = 0; i < left.size(); ++i) out.out.push_back(std::abs(left(i)) > far_off * out.spread_s);
    const auto n = static_cast<double>(beats.size());
    out.beat_u_s = std::sqrt(std::max(slope_variance(a, left, weight) / (span * span), wandering_variance(beats, out)));
    out.limp_u_s = 2 * out.spread_s / std::sqrt(n);
    return out;
}

}  // namespace echappe
