#pragma once

#include <map>
#include <unordered_map>

#include "train/restore.h"

namespace echappe::restore {

/// What one mesh's evidence says for given counts: the module that fits best and how badly it fits.
struct MeshFit {
    bool any = false;
    double module_mm = 0;
    double u_mm = 0;
    double misfit = 0;
};

/// The evidence sorted by what it depends on, ready to be weighed candidate by candidate.
/// Notation: N teeth, n leaves, m module; every size of a mesh is m × factor(N, n).
class Model {
public:
    /// What a question must be: one for the solver has something lost, few enough combinations, and evidence of it alone; a job
    /// has what it has, and evidence that speaks of nothing is passed over.
    enum class For { solving, a_job };
    /// Throws InputError.
    explicit Model(const RestoreInput& input, For use = For::solving);

    struct Unknown {
        size_t part;
        CountRange range;
        std::optional<long long> found;  ///< the count that is there, when it is only doubted
        double log_found = 0;            ///< logarithms of its probability, and of each other count's
        double log_other = 0;
    };
    const std::vector<Unknown>& unknowns() const { return m_unknowns; }
    const Network& network() const { return m_network; }
    const RestoreInput& input() const { return m_input; }
    long long space() const;

    /// Counts of all parts for one choice of the unknowns.
    using Counts = std::vector<long long>;
    Counts known_counts() const;

    /// Least squares module of a mesh, from the evidence `without` that index (npos: all).
    MeshFit fit_mesh(size_t mesh, long long wheel, long long pinion) const;
    /// Evidence that hangs on counts alone (a beat, a period, a run, a pendulum, a fragment).
    const std::vector<Evidence>& rates() const { return m_rates; }
    /// (predicted − measured)/u; needs every count that `parts_of` names.
    double rate_sigma(const Evidence& evidence, const Counts& counts) const;
    std::vector<size_t> parts_of(const Evidence& evidence) const;
    /// True when something tells the beat.
    bool has_beat() const;
    /// Evidence of a direction that this train cannot have, whatever its counts.
    std::optional<Evidence> wrong_direction() const;
    /// Whether a mesh's fit is free of this unknown part.
    bool mesh_ready(size_t mesh, const std::vector<bool>& known) const;

    double predicted_rate(const Evidence& evidence, const Counts& counts) const;
    double log_prior(const Counts& counts, const std::vector<MeshFit>& fits) const;
    std::optional<double> beats(const Counts& counts) const;
    std::vector<Strain> strains(const Counts& counts, const std::vector<MeshFit>& fits) const;

    /// A size of this mesh in its form of tooth.
    MeshSize size(const std::string& kind, size_t mesh, long long wheel, long long pinion) const {
        return mesh_size(kind, m_forms[mesh], wheel, pinion);
    }
    const FormChoice& form(size_t mesh) const { return m_forms[mesh]; }
    std::optional<size_t> mesh_of(const QuantityKey& key) const;
    /// "centre-third".
    std::string mesh_name(size_t mesh) const;
    /// Wheel and pinion arbor of a mesh.
    std::pair<size_t, size_t> arbors_of(size_t mesh) const;

private:
    RestoreInput m_input;
    Network m_network;
    std::vector<Unknown> m_unknowns;
    std::vector<std::vector<double>> m_log_counts;        ///< of each unknown: how likely every count is before any evidence
    std::vector<std::pair<size_t, size_t>> m_neighbours;  ///< meshes that meet on an arbor with a lost count, once for each
    std::vector<std::vector<Evidence>> m_mesh_evidence;   ///< by mesh
    std::vector<FormChoice> m_forms;                      ///< by mesh
    std::vector<Evidence> m_rates;
    double m_reference_s;

    double period(size_t arbor, const Counts& counts) const;
    size_t fragment_part(const QuantityKey& key) const;
    std::string direction_of(size_t arbor) const;
    void mark_unknown();
    void doubt();
    void weigh_counts();
    void find_neighbours();
    void sort_evidence();
    void pass_over_what_speaks_of_nothing();
    void choose_forms(For use);
    void check(const Evidence& evidence, const std::string& place) const;
};

}  // namespace echappe::restore
