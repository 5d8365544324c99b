#include "train/restore.h"

#include <algorithm>
#include <cmath>

#include "number/input_error.h"
#include "number/units.h"
#include "train/next_measurement.h"
#include "train/restore_model.h"

namespace echappe {
namespace {

using restore::MeshFit;
using restore::Model;

constexpr const char* restore_source = "least squares by mesh; weights exp(−misfit/2) × prior, normalised (Bayes)";
/// Candidates this much worse than the best weigh under e^-35: not worth forming.
constexpr double hopeless = 70;
/// Kept for listing, for the next measurement and for finding a conflict.
constexpr size_t kept_at_most = 4096;
constexpr size_t close_at_most = 1000000;
constexpr double three_sigma = 9;
/// Progress is told for branches of at least this share of the space.
constexpr double told_share = 1e-3;

struct Found {
    Model::Counts counts;
    std::vector<MeshFit> fits;
    double misfit;
    double log_weight;
};

/// Depth-first over the lost counts; a branch is left as soon as its meshes alone are hopeless.
class Search {
public:
    Search(const Model& model, const Effort& effort)
        : m_model(model), m_effort(effort), m_counts(model.known_counts()), m_fits(model.network().meshes.size()), m_cache(m_fits.size()) {
        order_unknowns();
    }

    void run() {
        std::vector<bool> known;
        for (const auto& part : m_model.network().parts) known.push_back(part.count.known());
        double start = 0;
        for (size_t m = 0; m < m_fits.size(); ++m)
            if (m_model.mesh_ready(m, known)) start += fit(m);
        for (const Evidence& item : m_model.rates())
            if (ready(item, known)) start += rate(item);
        plan(known);
        descend(0, start, 0, 1);
        // Those formed before a better one was met.
        std::erase_if(m_found, [this](const Found& f) { return f.misfit > m_best + hopeless; });
        std::sort(m_found.begin(), m_found.end(), [](const Found& a, const Found& b) { return a.log_weight > b.log_weight; });
    }

    const std::vector<Found>& found() const { return m_found; }
    /// Logarithm of the sum of all weights formed.
    double log_total() const { return m_log_top + std::log(m_total); }
    double best_misfit() const { return m_best; }
    /// Those that no reading speaks against more than against the best, by three sigma in all.
    long long fit() const {
        const double most = std::min(m_best + three_sigma, three_sigma * static_cast<double>(m_model.input().evidence.size()));
        return std::count_if(m_close.begin(), m_close.end(), [&](float misfit) { return misfit <= most; });
    }

private:
    /// One lost count in the order of the search, and what is known once it is set.
    struct Level {
        const Model::Unknown* unknown;
        std::vector<size_t> meshes;
        std::vector<const Evidence*> rates;
    };
    const Model& m_model;
    const Effort& m_effort;
    std::vector<Level> m_levels;
    Model::Counts m_counts;
    std::vector<MeshFit> m_fits;
    std::vector<std::unordered_map<long long, MeshFit>> m_cache;
    std::vector<size_t> m_order;
    std::vector<Found> m_found;
    double m_best = INFINITY;
    double m_log_top = -INFINITY;
    double m_total = 0;  ///< of all weights formed, the largest of which is 1
    double m_best_dropped = -INFINITY;
    std::vector<float> m_close;  ///< misfits of those that may fit

    /// Unknowns that complete a mesh with a known mate first: they cut most.
    void order_unknowns() {
        for (size_t u = 0; u < m_model.unknowns().size(); ++u) m_order.push_back(u);
        const auto open = [&](size_t u) { return m_model.unknowns()[u].range.max - m_model.unknowns()[u].range.min; };
        std::stable_sort(m_order.begin(), m_order.end(), [&](size_t a, size_t b) { return open(a) < open(b); });
    }

    double fit(size_t mesh) {
        const Mesh& m = m_model.network().meshes[mesh];
        const long long wheel = m_counts[m.wheel];
        const long long pinion = m_counts[m.pinion];
        const auto [at, fresh] = m_cache[mesh].try_emplace(wheel * 4096 + pinion);
        if (fresh) at->second = m_model.fit_mesh(mesh, wheel, pinion);
        m_fits[mesh] = at->second;
        return at->second.misfit;
    }

    bool ready(const Evidence& item, const std::vector<bool>& known) const {
        const std::vector<size_t> parts = m_model.parts_of(item);
        return std::all_of(parts.begin(), parts.end(), [&](size_t part) { return known[part]; });
    }

    double rate(const Evidence& item) const {
        const double sigma = m_model.rate_sigma(item, m_counts);
        return sigma * sigma;
    }

    /// What each further count settles, so that the search itself only adds up.
    void plan(std::vector<bool> known) {
        for (const size_t u : m_order) {
            const Model::Unknown& unknown = m_model.unknowns()[u];
            Level level{&unknown, {}, {}};
            const std::vector<bool> before = known;
            known[unknown.part] = true;
            for (size_t m = 0; m < m_fits.size(); ++m)
                if (m_model.mesh_ready(m, known) && !m_model.mesh_ready(m, before)) level.meshes.push_back(m);
            for (const Evidence& item : m_model.rates())
                if (ready(item, known) && !ready(item, before)) level.rates.push_back(&item);
            m_levels.push_back(std::move(level));
        }
    }

    /// `from` and `share`: which part of the whole space this branch is.
    void descend(size_t depth, double misfit, double from, double share) {
        if (misfit > m_best + hopeless || m_effort.stopped()) return;
        if (depth == m_levels.size()) return take(misfit);
        const Level& level = m_levels[depth];
        const CountRange& range = level.unknown->range;
        share /= static_cast<double>(range.max - range.min + 1);
        for (long long count = range.min; count <= range.max; ++count, from += share) {
            m_counts[level.unknown->part] = count;
            double with = misfit;
            for (const size_t mesh : level.meshes) with += fit(mesh);
            for (const Evidence* item : level.rates) with += rate(*item);
            descend(depth + 1, with, from, share);
            if (share > told_share) m_effort.tell(from + share);
        }
    }

    void take(double misfit) {
        if (misfit > m_best + hopeless) return;
        if (misfit < m_best) {
            m_best = misfit;
            std::erase_if(m_close, [&](float other) { return other > m_best + three_sigma; });
        }
        if (misfit <= m_best + three_sigma && m_close.size() < close_at_most) m_close.push_back(static_cast<float>(misfit));
        const double log_weight = -misfit / 2 + m_model.log_prior(m_counts, m_fits);
        if (log_weight > m_log_top) m_total *= std::exp(m_log_top - log_weight), m_log_top = log_weight;
        m_total += std::exp(log_weight - m_log_top);
        if (log_weight < m_best_dropped) return;
        m_found.push_back({m_counts, m_fits, misfit, log_weight});
        if (m_found.size() >= 2 * kept_at_most) {
            const auto middle = m_found.begin() + kept_at_most;
            std::nth_element(m_found.begin(), middle, m_found.end(),
                             [](const Found& a, const Found& b) { return a.log_weight > b.log_weight; });
            m_best_dropped = middle->log_weight;
            m_found.erase(middle, m_found.end());
        }
    }
};

double worst_sigma(const Model& model, const Found& found) {
    double worst = 0;
    for (const Strain& strain : model.strains(found.counts, found.fits)) worst = std::max(worst, std::abs(strain.sigma));
    return worst;
}

/// A candidate that keeps every item within 3 sigma.
bool reconciled(const Model& model, const std::vector<Found>& found) {
    return std::any_of(found.begin(), found.end(), [&](const Found& f) {
        return f.misfit <= 9 * static_cast<double>(model.input().evidence.size()) && worst_sigma(model, f) <= 3;
    });
}

/// Leaves out one item after the other; the one whose loss lets the rest agree best is the odd one.
Conflict find_conflict(const RestoreInput& input, const Effort& effort) {
    struct Without {
        size_t item;
        double misfit;
    };
    std::vector<Without> good;
    for (size_t i = 0; i < input.evidence.size(); ++i) {
        RestoreInput less = input;
        less.evidence.erase(less.evidence.begin() + static_cast<std::ptrdiff_t>(i));
        const Model model(less);
        const Effort quiet{effort.stop, {}};
        Search search(model, quiet);
        search.run();
        effort.tell(0.5 + 0.5 * static_cast<double>(i + 1) / static_cast<double>(input.evidence.size()));
        if (reconciled(model, search.found())) good.push_back({i, search.best_misfit()});
    }
    Conflict conflict;
    if (good.empty()) {
        conflict.reason =
            "No counts fit every reading within three times its uncertainty, and leaving out one alone does not help. Measure again, the "
            "worst "
            "first.";
        return conflict;
    }
    std::sort(good.begin(), good.end(), [](const Without& a, const Without& b) { return a.misfit < b.misfit; });
    const Evidence& odd = input.evidence[good.front().item];
    conflict.evidence = odd.key;
    for (size_t i = 1; i < good.size(); ++i) conflict.alternatives.push_back(input.evidence[good[i].item].key);
    conflict.reason = "No counts fit every reading within three times its uncertainty. Without \"" + name_of(odd.key) + "\" (" +
                      print_short(odd.value) + " " + odd.key.unit() + ") the rest agrees: measure that again.";
    if (!conflict.alternatives.empty())
        conflict.reason += " Leaving out \"" + name_of(conflict.alternatives.front()) + "\" instead would reconcile it as well.";
    return conflict;
}

/// No count turns a hand the other way; only an arbor more or less does.
Conflict direction_conflict(const Evidence& evidence) {
    Conflict conflict;
    conflict.evidence = evidence.key;
    conflict.reason = "\"" + name_of(evidence.key) + "\" must be " + *evidence.direction +
                      ", and this train turns it the other way whatever its counts: an arbor (or an idle wheel) is missing in it, or there "
                      "is one too many. Look for an empty pair of holes; else the direction was noted wrongly.";
    return conflict;
}

Candidate candidate_of(const Model& model, const Found& found, double log_total) {
    Candidate out;
    for (const auto& unknown : model.unknowns()) out.counts[model.network().parts[unknown.part].name] = found.counts[unknown.part];
    out.weight = std::exp(found.log_weight - log_total);
    out.misfit = found.misfit;
    out.beats_per_hour = model.beats(found.counts);
    for (size_t m = 0; m < found.fits.size(); ++m) {
        if (!found.fits[m].any) continue;
        out.modules_mm[model.mesh_name(m)] = found.fits[m].module_mm;
        out.modules_u_mm[model.mesh_name(m)] = found.fits[m].u_mm;
    }
    out.strain = model.strains(found.counts, found.fits);
    return out;
}

std::vector<restore::Weighed> weighed(const Search& search) {
    std::vector<restore::Weighed> list;
    for (const Found& found : search.found()) {
        const double weight = std::exp(found.log_weight - search.log_total());
        if (weight < 1e-6 || list.size() == restore::weighed_at_most) break;
        list.push_back({weight, &found.counts, &found.fits});
    }
    return list;
}

}  // namespace

RestoreResult restore_train(const RestoreInput& input) { return restore_train(input, {}); }

RestoreResult restore_train(const RestoreInput& input, const Effort& effort) {
    const Model model(input);
    // The second half is kept for finding a conflict, which weighs the whole again without each item.
    const Effort first_half{effort.stop, [&effort](double done) { effort.tell(done / 2); }};
    Search search(model, first_half);
    search.run();
    RestoreResult out;
    out.considered = model.space();
    out.fit = search.fit();
    double listed = 0;
    double entropy = 0;
    for (size_t i = 0; i < search.found().size(); ++i) {
        const double weight = std::exp(search.found()[i].log_weight - search.log_total());
        if (weight > 0) entropy -= weight * std::log2(weight);
        if (static_cast<long long>(i) >= input.best) continue;
        out.candidates.push_back(candidate_of(model, search.found()[i], search.log_total()));
        listed += weight;
    }
    out.weight_not_listed = std::max(0.0, 1 - listed);
    if (search.found().size() <= out.candidates.size()) out.weight_not_listed = 0;
    out.entropy_bits = std::max(0.0, entropy);
    out.next_measurement = restore::next_measurement(model, weighed(search));
    if (const auto wrong = model.wrong_direction()) out.conflict = direction_conflict(*wrong);
    else if (!input.evidence.empty() && !reconciled(model, search.found())) out.conflict = find_conflict(input, effort);
    out.complete = !effort.stopped();
    effort.tell(1);
    return out;
}

size_t credible_set(const RestoreResult& result, double share) {
    double sum = 0;
    for (size_t i = 0; i < result.candidates.size(); ++i)
        if ((sum += result.candidates[i].weight) >= share) return i + 1;
    return result.candidates.size();
}

std::vector<Working> explain_restore(const RestoreInput&, const RestoreResult& out) {
    std::vector<Working> workings;
    const size_t shown = std::min<size_t>(out.candidates.size(), 4);
    for (size_t i = 0; i < shown; ++i) {
        const Candidate& candidate = out.candidates[i];
        Working working;
        working.name = "candidate";
        for (const auto& [name, count] : candidate.counts) working.name += ", " + name + " " + std::to_string(count);
        working.formula = "weight = exp(−misfit ÷ 2) × prior ÷ sum over all " + std::to_string(out.considered);
        working.terms = {{"misfit", "sum of (predicted − measured)² ÷ u²", {candidate.misfit, 0}, "", 0}};
        working.result = {candidate.weight, 0};
        working.source = restore_source;
        for (const Strain& strain : candidate.strain)
            working.notes.push_back(name_of(strain.key) + ": measured " + print_short(strain.value) +
                                    (strain.predicted ? ", predicts " + print_short(*strain.predicted) + ", " +
                                                            print_fixed(strain.sigma, 1) + " times its uncertainty off"
                                                      : ", " + *strain.note));
        workings.push_back(std::move(working));
    }
    if (out.next_measurement && !workings.empty())
        workings.back().notes.push_back("measure next: " + name_of(out.next_measurement->key) + ", " +
                                        leaves_in_words(out.entropy_bits, out.next_measurement->expected_entropy_drop_bits));
    if (out.conflict && !workings.empty()) workings.back().notes.push_back(out.conflict->reason);
    return workings;
}

const Calculation& restore_calculation() {
    static const Calculation calculation = declare<RestoreInput, RestoreResult>(
        "train.restore", "Lost counts from what survives: candidates with weights, strain, conflict, best next measurement.",
        restore_source, restore_train, explain_restore);
    return calculation;
}

}  // namespace echappe
