#include "train/next_measurement.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/units.h"

namespace echappe::restore {
namespace {

/// Below this a reading is not worth the walk to the bench.
constexpr double worth_bits = 0.01;

struct Option {
    QuantityKey key;
    std::optional<size_t> mesh;
    double u;
};

/// What is thought of a mesh's module before any reading of it: like its neighbours', within 30 %.
MeshFit before_any_reading(const std::vector<MeshFit>& fits) {
    double sum = 0;
    int count = 0;
    for (const MeshFit& fit : fits) {
        if (!fit.any) continue;
        sum += fit.module_mm;
        ++count;
    }
    // No mesh has a reading: clocks have 0.3 to 1.5 mm.
    return count > 0 ? MeshFit{true, sum / count, 0.3 * sum / count, 0} : MeshFit{true, 0.8, 0.4, 0};
}

class Chooser {
public:
    Chooser(const Model& model, const std::vector<Weighed>& candidates) : m_model(model), m_candidates(candidates) {}

    std::optional<NextMeasurement> choose() const {
        const std::vector<Option> all = options();
        std::optional<NextMeasurement> best;
        for (const Option& option : all) {
            const double bits = information_bits(predictions(option, {}));
            if (!best || bits > best->expected_entropy_drop_bits) best = NextMeasurement{option.key, bits, {}, {}};
        }
        // A mesh without any reading tells nothing by its first one: look one further.
        if (best && best->expected_entropy_drop_bits < 0.2) {
            for (const Option& first : all) look_further(first, all, best);
        }
        if (!best || std::max(best->expected_entropy_drop_bits, best->then_entropy_drop_bits.value_or(0)) < worth_bits) return {};
        return best;
    }

private:
    const Model& m_model;
    const std::vector<Weighed>& m_candidates;

    void look_further(const Option& first, const std::vector<Option>& all, std::optional<NextMeasurement>& best) const {
        if (!first.mesh || fresh_mesh(*first.mesh) == false) return;
        for (const Option& second : all) {
            if (second.mesh != first.mesh || second.key == first.key) continue;
            const double alone = information_bits(predictions(first, {}));
            const double both = alone + information_bits(predictions(second, first));
            if (both > std::max(best->then_entropy_drop_bits.value_or(0), best->expected_entropy_drop_bits) + 1e-9)
                best = NextMeasurement{first.key, alone, second.key, both};
        }
    }

    bool fresh_mesh(size_t mesh) const { return !m_candidates.front().fits->at(mesh).any; }

    /// Not taken yet, or taken coarsely.
    bool open(const QuantityKey& key, double u) const {
        return std::none_of(m_model.input().evidence.begin(), m_model.input().evidence.end(),
                            [&](const Evidence& e) { return e.key == key && e.u <= 2 * u; });
    }

    std::vector<Option> options() const {
        std::vector<Option> list;
        const auto offer = [&](QuantityKey key, std::optional<size_t> mesh, std::optional<double> u) {
            const double by_workshop = u.value_or(key.declared().workshop_u);
            if (open(key, by_workshop)) list.push_back({std::move(key), mesh, by_workshop});
        };
        const Network& net = m_model.network();
        for (size_t m = 0; m < net.meshes.size(); ++m) {
            const auto [wheel, pinion] = m_model.arbors_of(m);
            const std::string& w = net.arbors[wheel];
            const std::string& p = net.arbors[pinion];
            if (net.parts[net.meshes[m].wheel].count.known())
                offer({"wheel_outside_diameter_mm", w, {}, {}}, m, m_model.input().calliper_u_mm);
            if (net.parts[net.meshes[m].pinion].count.known())
                offer({"pinion_outside_diameter_mm", p, {}, {}}, m, m_model.input().calliper_u_mm);
            offer({"centre_distance_mm", {}, w, p}, m, m_model.input().centre_u_mm);
        }
        if (!m_model.has_beat() && net.escape_part) offer({"pendulum_length_mm", {}, {}, {}}, {}, {});
        return list;
    }

    /// The reading's distribution under each candidate; with `before`, as if that had been read already at its
    /// most likely value.
    std::vector<Prediction> predictions(const Option& option, const std::optional<Option>& before) const {
        std::vector<Prediction> list;
        std::optional<double> read_before;
        for (const Weighed& candidate : m_candidates) {
            if (!option.mesh) {
                list.push_back({candidate.weight, m_model.predicted_rate({option.key, 1, 1}, *candidate.counts), option.u});
                continue;
            }
            const Mesh& mesh = m_model.network().meshes[*option.mesh];
            const long long N = (*candidate.counts)[mesh.wheel];
            const long long n = (*candidate.counts)[mesh.pinion];
            MeshFit fit = candidate.fits->at(*option.mesh);
            if (!fit.any) fit = before_any_reading(*candidate.fits);
            if (before) {
                const MeshSize size = m_model.size(before->key.kind, *option.mesh, N, n);
                if (!read_before) read_before = size.at(fit.module_mm);
                fit.module_mm = size.module_of(*read_before);
                fit.u_mm = before->u / size.per_module;
            }
            const MeshSize size = m_model.size(option.key.kind, *option.mesh, N, n);
            list.push_back({candidate.weight, size.at(fit.module_mm), std::hypot(size.per_module * fit.u_mm, option.u)});
        }
        return list;
    }
};

}  // namespace

// I = h(y) − Σ w h(y|c), with h of a Gaussian = ½ log2(2πe σ²) and h(y) = −∫ p log2 p dy on a grid.
double information_bits(const std::vector<Prediction>& predictions) {
    double total = 0;
    double narrowest = INFINITY;
    double low = INFINITY;
    double high = -INFINITY;
    constexpr double reach = 6;
    for (const Prediction& p : predictions) {
        total += p.weight;
        narrowest = std::min(narrowest, p.sigma);
        low = std::min(low, p.mean - reach * p.sigma);
        high = std::max(high, p.mean + reach * p.sigma);
    }
    if (predictions.size() < 2 || !(total > 0) || !(high > low)) return 0;
    // Half a sigma steps integrate a Gaussian to 1e-8; a ceiling keeps odd mixtures affordable.
    const size_t points = static_cast<size_t>(std::clamp((high - low) / (narrowest / 2), 64.0, 20000.0));
    const double step = (high - low) / static_cast<double>(points);
    std::vector<double> density(points + 1, 0.0);
    double within = 0, between = 0;
    for (const Prediction& p : predictions) {
        const double weight = p.weight / total;
        if (weight > 0) between -= weight * std::log2(weight);
        within += weight * 0.5 * std::log2(2 * pi * std::exp(1.0) * p.sigma * p.sigma);
        // From the place nearest the mean outwards, each from the one before it: on even steps the ratio of two neighbours falls by one
        // factor, and exp is what costs here. Outwards it is never above 1, however coarse the steps are.
        const auto middle = std::min(points, static_cast<size_t>(std::lround((p.mean - low) / step)));
        const auto on_each_side = std::min(points, static_cast<size_t>(reach * p.sigma / step) + 1);
        const double z = (low + static_cast<double>(middle) * step - p.mean) / p.sigma, dz = step / p.sigma, falls = std::exp(-dz * dz);
        const double top = weight / (p.sigma * std::sqrt(2 * pi)) * std::exp(-z * z / 2);
        density[middle] += top;
        double here = top, ratio = std::exp(-dz * (dz / 2 + z));
        for (size_t i = middle + 1; i <= std::min(points, middle + on_each_side); ++i, ratio *= falls) density[i] += here *= ratio;
        here = top, ratio = std::exp(-dz * (dz / 2 - z));
        for (size_t i = 1; i <= std::min(middle, on_each_side); ++i, ratio *= falls) density[middle - i] += here *= ratio;
    }
    double all = 0;
    for (const double d : density)
        if (d > 0) all -= d * std::log2(d) * step;
    // Steps too coarse for the sharpest tell too much; nothing tells more than which one it is.
    return std::clamp(all - within, 0.0, between);
}

std::optional<NextMeasurement> next_measurement(const Model& model, const std::vector<Weighed>& candidates) {
    if (candidates.size() < 2) return {};
    return Chooser(model, candidates).choose();
}

}  // namespace echappe::restore

namespace echappe {

std::string leaves_in_words(double entropy_bits, double drop_bits) {
    const double open = std::exp2(entropy_bits), left = std::exp2(std::max(0.0, entropy_bits - drop_bits));
    constexpr double nearly = 0.15, few = 9.5;
    const auto whole = [](double value) { return print_fixed(std::max(1.0, std::round(value)), 0); };
    const std::string of = whole(std::max(2.0, open));
    if (left < 1 + nearly) return "it should settle it";
    if (open >= few) return "it should leave about " + whole(left) + " of " + of;
    const double low = std::floor(left + nearly);
    const bool between = left - low > nearly;
    return "it should leave " + whole(low) + (between ? " or " + whole(low + 1) : "") + " of the " + of;
}

}  // namespace echappe
