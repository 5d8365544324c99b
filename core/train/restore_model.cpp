#include "train/restore_model.h"

#include <algorithm>
#include <cmath>

#include "number/input_error.h"
#include "number/units.h"
#include "oscillator/pendulum.h"

namespace echappe::restore {
namespace {

double square(double x) { return x * x; }

/// Largest prime factor: a count divides on ordinary plates (circles up to about 50 holes, simple worms) when it is small.
long long largest_prime(long long n) {
    long long largest = 1;
    for (long long p = 2; p * p <= n; ++p)
        for (; n % p == 0; n /= p) largest = p;
    return n > 1 ? n : largest;
}

bool usual_pinion(long long leaves) {
    static constexpr long long usual[] = {6, 7, 8, 10, 12, 16};
    return std::find(std::begin(usual), std::end(usual), leaves) != std::end(usual);
}

/// A count that another part already gives under `unknown` becomes lost, wherever it was written.
void lose(ArborInput& arbor, const std::string& part) {
    if (part == "wheel") arbor.wheel = Count::lost();
    if (part == "pinion") arbor.pinion = Count::lost();
    for (WheelInput& wheel : arbor.wheels)
        if (wheel.name == part) wheel.teeth = Count::lost();
    for (PinionInput& pinion : arbor.pinions)
        if (pinion.name == part) pinion.leaves = Count::lost();
}

/// No reading outweighs it: what does not stand where it locks is no strike.
constexpr double impossible_sigma = 1000;

/// Fractions of counts up to five meshes deep that are not whole differ from whole ones by more than this.
bool turns_as_asked(const Evidence& asked, double turns) {
    constexpr double same = 1e-9;
    return std::abs(turns - asked.turns.value_or(std::max(1.0, std::round(turns)))) < same * turns;
}

bool names_a_part(const ArborInput& arbor, const std::string& part) {
    return part == "wheel" || part == "pinion" ||
           std::any_of(arbor.wheels.begin(), arbor.wheels.end(), [&](const auto& w) { return w.name == part; }) ||
           std::any_of(arbor.pinions.begin(), arbor.pinions.end(), [&](const auto& p) { return p.name == part; });
}

}  // namespace

Model::Model(const RestoreInput& input, For use) : m_input(input), m_reference_s(input.train.reference.period_s.to_double()) {
    mark_unknown();
    m_network = network_of(m_input.train, use == For::a_job ? Joined::some : Joined::all);
    for (size_t p = 0; p < m_network.parts.size(); ++p) {
        if (m_network.parts[p].count.known()) continue;
        const bool wheel = m_network.parts[p].drives;
        // Pins of a hammer are counted like teeth and are far fewer.
        const bool pins = m_network.parts[p].name.ends_with(".pins");
        m_unknowns.push_back({p, pins ? m_input.limits.pins : wheel ? m_input.limits.wheel : m_input.limits.pinion, {}, 0, 0});
    }
    doubt();
    if (m_unknowns.empty() && use == For::solving)
        throw InputError("unknown", "no lost count", "at least one count that is null or named here");
    for (const auto& [name, range] :
         {std::pair<const char*, CountRange>{"limits.wheel", m_input.limits.wheel}, {"limits.pinion", m_input.limits.pinion}})
        if (range.min > range.max)
            throw InputError(name, std::to_string(range.min) + " to " + std::to_string(range.max), "min not above max");
    if (use == For::solving && static_cast<double>(space()) > m_input.most_combinations)
        throw InputError(
            "limits",
            print_short(static_cast<double>(space()), 2) + " combinations of the " + std::to_string(m_unknowns.size()) + " lost counts",
            "up to " + print_short(m_input.most_combinations, 2) + ": narrow the limits, or count one of the lost parts by its mate");
    choose_forms(use);
    if (use == For::a_job) pass_over_what_speaks_of_nothing();
    sort_evidence();
    weigh_counts();
    find_neighbours();
}

void Model::pass_over_what_speaks_of_nothing() {
    const auto speaks = [&](const Evidence& evidence) {
        try {
            check(evidence, "evidence");
        } catch (const InputError&) {
            return false;
        }
        const EvidenceKind::Of of = evidence.key.declared().of;
        const bool of_a_turn = of == EvidenceKind::Of::movement || evidence.key.kind == "period_s" || evidence.key.kind == "run_s" ||
                               evidence.key.kind == "direction" || evidence.key.kind == "whole_turns";
        const size_t arbor = of == EvidenceKind::Of::movement ? m_network.parts[*m_network.escape_part].arbor
                             : of_a_turn                      ? m_network.arbor(*evidence.key.arbor)
                                                              : 0;
        return !of_a_turn || m_network.joined[arbor];
    };
    std::erase_if(m_input.evidence, [&](const Evidence& evidence) { return !speaks(evidence); });
    std::erase_if(m_input.forms, [&](const MeshForm& form) { return !mesh_of({"centre_distance_mm", {}, form.wheel_of, form.pinion_of}); });
}

void Model::choose_forms(For use) {
    m_forms.assign(m_network.meshes.size(), m_input.form);
    for (size_t i = 0; i < m_input.forms.size(); ++i) {
        const MeshForm& given = m_input.forms[i];
        const auto mesh = mesh_of({"centre_distance_mm", {}, given.wheel_of, given.pinion_of});
        if (!mesh && use == For::a_job) continue;
        if (!mesh)
            throw InputError("forms[" + std::to_string(i) + "]", "\"" + given.wheel_of + "\" driving \"" + given.pinion_of + "\"",
                             "a mesh of the train");
        m_forms[*mesh] = given.form;
        // A trace is of one count: where that is lost there is none.
        const auto known = [&](size_t part) { return m_network.parts[part].count.known(); };
        if (!known(m_network.meshes[*mesh].wheel)) m_forms[*mesh].wheel_half.clear();
        if (!known(m_network.meshes[*mesh].pinion)) m_forms[*mesh].pinion_half.clear();
    }
}

void Model::mark_unknown() {
    for (size_t i = 0; i < m_input.unknown.size(); ++i) {
        const std::string& name = m_input.unknown[i];
        const auto dot = name.find('.');
        const auto arbor = std::find_if(m_input.train.arbors.begin(), m_input.train.arbors.end(),
                                        [&](const ArborInput& a) { return a.id == name.substr(0, dot); });
        if (dot == std::string::npos || arbor == m_input.train.arbors.end() || !names_a_part(*arbor, name.substr(dot + 1)))
            throw InputError("unknown[" + std::to_string(i) + "]", "\"" + name + "\"",
                             "a part of an arbor, as in \"" + m_input.train.arbors.front().id + ".wheel\"");
        lose(*arbor, name.substr(dot + 1));
    }
}

/// A doubted count is searched like a lost one, with its own probability; the others share what is left.
void Model::doubt() {
    for (size_t i = 0; i < m_input.doubtful.size(); ++i) {
        const DoubtfulCount& doubtful = m_input.doubtful[i];
        const size_t part = m_network.part(doubtful.part);
        const std::string place = "doubtful[" + std::to_string(i) + "].part";
        if (part == m_network.parts.size())
            throw InputError(place, "\"" + doubtful.part + "\"", "a part of the train, as in \"third.wheel\"");
        if (!m_network.parts[part].count.known())
            throw InputError(place, "\"" + doubtful.part + "\", whose count is not there",
                             "a part with a count: a lost one needs no doubt");
        const long long found = m_network.parts[part].count.value;
        CountRange range = m_network.parts[part].drives ? m_input.limits.wheel : m_input.limits.pinion;
        range = {std::min(range.min, found), std::max(range.max, found)};
        const double others = std::max(1.0, static_cast<double>(range.max - range.min));
        m_unknowns.push_back({part, range, found, std::log(doubtful.probability), std::log((1 - doubtful.probability) / others)});
        m_network.parts[part].count = Count::lost();
    }
}

long long Model::space() const {
    double size = 1;
    for (const Unknown& unknown : m_unknowns) size *= static_cast<double>(unknown.range.max - unknown.range.min + 1);
    return size < 9e18 ? static_cast<long long>(size) : 9'000'000'000'000'000'000LL;
}

void Model::check(const Evidence& evidence, const std::string& place) const {
    if (const auto fault = fault_of(evidence, place)) throw *fault;
    const QuantityKey& key = evidence.key;
    const EvidenceKind::Of of = key.declared().of;
    const auto known_arbor = [&](const std::string& id, const std::string& field) {
        if (m_network.arbor(id) == m_network.arbors.size()) throw InputError(place + "." + field, "\"" + id + "\"", "the id of an arbor");
    };
    if (of == EvidenceKind::Of::arbor) known_arbor(*key.arbor, "arbor");
    if (of == EvidenceKind::Of::mesh) {
        known_arbor(*key.wheel_of, "wheel_of");
        known_arbor(*key.pinion_of, "pinion_of");
        if (!mesh_of(key))
            throw InputError(place + ".pinion_of", "\"" + *key.pinion_of + "\"", "an arbor that \"" + *key.wheel_of + "\" drives");
    }
    if (of == EvidenceKind::Of::movement && !m_network.escape_part)
        throw InputError(place + ".kind", "\"" + key.kind + "\" without an escape_arbor", "escape_arbor in the train");
    if (key.kind == "wheel_fragment_deg" && fragment_part(key) == m_network.parts.size())
        throw InputError(place + ".arbor", "\"" + *key.arbor + "\"", "an arbor with a wheel");
    if (key.kind.ends_with("_diameter_mm") && !mesh_of(key)) {
        const bool escape = m_network.escape_part && m_network.parts[*m_network.escape_part].arbor == m_network.arbor(*key.arbor);
        if (!(escape && key.kind.starts_with("wheel")))
            throw InputError(place + ".arbor", "\"" + *key.arbor + "\"", "an arbor with such a part in a mesh");
    }
}

void Model::sort_evidence() {
    m_mesh_evidence.resize(m_network.meshes.size());
    for (size_t i = 0; i < m_input.evidence.size(); ++i) {
        const Evidence& evidence = m_input.evidence[i];
        check(evidence, "evidence[" + std::to_string(i) + "]");
        if (const auto mesh = mesh_of(evidence.key)) m_mesh_evidence[*mesh].push_back(evidence);
        else if (!evidence.key.kind.ends_with("_diameter_mm") && evidence.key.kind != "direction") m_rates.push_back(evidence);
    }
}

std::pair<size_t, size_t> Model::arbors_of(size_t mesh) const {
    return {m_network.parts[m_network.meshes[mesh].wheel].arbor, m_network.parts[m_network.meshes[mesh].pinion].arbor};
}

std::string Model::mesh_name(size_t mesh) const {
    const auto [wheel, pinion] = arbors_of(mesh);
    return m_network.arbors[wheel] + "-" + m_network.arbors[pinion];
}

std::optional<size_t> Model::mesh_of(const QuantityKey& key) const {
    const bool by_wheel = key.kind.starts_with("wheel_") && key.kind.ends_with("_diameter_mm");
    const bool by_pinion = key.kind.starts_with("pinion_") && key.kind.ends_with("_diameter_mm");
    for (size_t m = 0; m < m_network.meshes.size(); ++m) {
        const auto [wheel, pinion] = arbors_of(m);
        if (key.wheel_of && key.pinion_of && m_network.arbors[wheel] == key.wheel_of && m_network.arbors[pinion] == key.pinion_of) return m;
        // Several wheels on one arbor: `pinion_of` says which is meant, else the first.
        if (by_wheel && m_network.arbors[wheel] == key.arbor && (!key.pinion_of || m_network.arbors[pinion] == key.pinion_of)) return m;
        if (by_pinion && m_network.arbors[pinion] == key.arbor) return m;
    }
    return {};
}

Model::Counts Model::known_counts() const {
    Counts counts;
    for (const auto& part : m_network.parts) counts.push_back(part.count.value);
    return counts;
}

MeshFit Model::fit_mesh(size_t mesh, long long wheel, long long pinion) const {
    MeshFit fit;
    double kk = 0;
    double kx = 0;
    for (const Evidence& item : m_mesh_evidence[mesh]) {
        const auto [k, fixed] = size(item.key.kind, mesh, wheel, pinion);
        const double w = 1 / square(item.u);
        kk += k * k * w;
        kx += k * (item.value - fixed) * w;
    }
    if (kk == 0) return fit;
    fit.any = true;
    fit.module_mm = kx / kk;
    fit.u_mm = 1 / std::sqrt(kk);
    // Summed again from the residuals: xx − kx²/kk loses all figures when the fit is good.
    for (const Evidence& item : m_mesh_evidence[mesh])
        fit.misfit += square((size(item.key.kind, mesh, wheel, pinion).at(fit.module_mm) - item.value) / item.u);
    return fit;
}

double Model::period(size_t arbor, const Counts& counts) const {
    double value = m_reference_s;
    for (const auto& step : m_network.path[arbor]) {
        const auto N = static_cast<double>(counts[m_network.meshes[step.mesh].wheel]);
        const auto n = static_cast<double>(counts[m_network.meshes[step.mesh].pinion]);
        value *= step.sense > 0 ? n / N : N / n;
    }
    return value;
}

std::optional<double> Model::beats(const Counts& counts) const {
    if (!m_network.escape_part) return {};
    const size_t escape = *m_network.escape_part;
    return 3600 / period(m_network.parts[escape].arbor, counts) * static_cast<double>(counts[escape] * m_input.train.beats_per_tooth);
}

size_t Model::fragment_part(const QuantityKey& key) const {
    if (const auto mesh = mesh_of({"wheel_outside_diameter_mm", key.arbor, {}, key.pinion_of})) return m_network.meshes[*mesh].wheel;
    const bool escape = m_network.escape_part && m_network.parts[*m_network.escape_part].arbor == m_network.arbor(*key.arbor);
    return escape ? *m_network.escape_part : m_network.parts.size();
}

double Model::predicted_rate(const Evidence& evidence, const Counts& counts) const {
    const std::string& kind = evidence.key.kind;
    if (kind == "whole_turns") return m_reference_s / period(m_network.arbor(*evidence.key.arbor), counts);
    if (kind == "period_s") return period(m_network.arbor(*evidence.key.arbor), counts);
    if (kind == "run_s") return *evidence.turns * period(m_network.arbor(*evidence.key.arbor), counts);
    if (kind == "wheel_fragment_deg")
        return 360 * static_cast<double>(*evidence.teeth) / static_cast<double>(counts[fragment_part(evidence.key)]);
    if (kind == "beats_per_hour") return *beats(counts);
    return pendulum_length_mm(7200 / *beats(counts), 0, m_input.gravity_m_s2);
}

double Model::rate_sigma(const Evidence& evidence, const Counts& counts) const {
    if (evidence.key.kind == "whole_turns") return turns_as_asked(evidence, predicted_rate(evidence, counts)) ? 0 : impossible_sigma;
    const double sigma = (predicted_rate(evidence, counts) - evidence.value) / evidence.u;
    // A bound: only a pendulum longer than the case strains it.
    return evidence.key.kind == "case_length_mm" ? std::max(0.0, sigma) : sigma;
}

std::vector<size_t> Model::parts_of(const Evidence& evidence) const {
    if (evidence.key.kind == "wheel_fragment_deg") return {fragment_part(evidence.key)};
    std::vector<size_t> parts;
    const bool beat = evidence.key.declared().of == EvidenceKind::Of::movement;
    const size_t arbor = beat ? m_network.parts[*m_network.escape_part].arbor : m_network.arbor(*evidence.key.arbor);
    for (const auto& step : m_network.path[arbor]) {
        parts.push_back(m_network.meshes[step.mesh].wheel);
        parts.push_back(m_network.meshes[step.mesh].pinion);
    }
    if (beat) parts.push_back(*m_network.escape_part);
    return parts;
}

bool Model::has_beat() const {
    return std::any_of(m_rates.begin(), m_rates.end(),
                       [](const Evidence& e) { return e.key.kind == "beats_per_hour" || e.key.kind == "pendulum_length_mm"; });
}

std::string Model::direction_of(size_t arbor) const {
    const bool same = m_network.path[arbor].size() % 2 == 0;
    const bool cw = (m_input.train.reference.direction == "cw") == same;
    return cw ? "cw" : "ccw";
}

std::optional<Evidence> Model::wrong_direction() const {
    for (const Evidence& item : m_input.evidence)
        if (item.key.kind == "direction" && direction_of(m_network.arbor(*item.key.arbor)) != *item.direction) return item;
    return {};
}

bool Model::mesh_ready(size_t mesh, const std::vector<bool>& known) const {
    return known[m_network.meshes[mesh].wheel] && known[m_network.meshes[mesh].pinion];
}

double Model::log_prior(const Counts& counts, const std::vector<MeshFit>& fits) const {
    double sum = 0;
    for (size_t u = 0; u < m_unknowns.size(); ++u)
        sum += m_log_counts[u][static_cast<size_t>(counts[m_unknowns[u].part] - m_unknowns[u].range.min)];
    // Modules of neighbouring meshes on one arbor are within a third of each other more often than not.
    constexpr double spread = 0.35;
    for (const auto& [a, b] : m_neighbours)
        if (fits[a].any && fits[b].any) sum -= square(std::log(fits[a].module_mm / fits[b].module_mm) / spread) / 4;
    return sum;
}

void Model::weigh_counts() {
    // Gentle on purpose: factors of 2, so that one reading of two sigma outweighs them.
    for (const Unknown& unknown : m_unknowns) {
        std::vector<double>& logs = m_log_counts.emplace_back();
        for (long long count = unknown.range.min; count <= unknown.range.max; ++count) {
            const bool usual = m_network.parts[unknown.part].drives ? largest_prime(count) <= 13 : usual_pinion(count);
            logs.push_back(unknown.found == count ? unknown.log_found : unknown.log_other - (usual ? 0 : std::log(2.0)));
        }
    }
}

void Model::find_neighbours() {
    for (const Unknown& unknown : m_unknowns) {
        const size_t arbor = m_network.parts[unknown.part].arbor;
        for (size_t a = 0; a < m_network.meshes.size(); ++a)
            for (size_t b = 0; b < m_network.meshes.size(); ++b)
                if (arbors_of(a).second == arbor && arbors_of(b).first == arbor) m_neighbours.emplace_back(a, b);
    }
}

std::vector<Strain> Model::strains(const Counts& counts, const std::vector<MeshFit>& fits) const {
    std::vector<Strain> list;
    for (const Evidence& item : m_input.evidence) {
        Strain strain{item.key, item.value, {}, 0, {}};
        if (const auto mesh = mesh_of(item.key)) {
            const Mesh& pair = m_network.meshes[*mesh];
            strain.predicted = size(item.key.kind, *mesh, counts[pair.wheel], counts[pair.pinion]).at(fits[*mesh].module_mm);
        } else if (item.key.kind.ends_with("_diameter_mm")) {
            strain.note = "an escape wheel's outside diameter says nothing of a module";
        } else if (item.key.kind == "direction") {
            strain.note = "must turn " + *item.direction + ", this train turns it " + direction_of(m_network.arbor(*item.key.arbor));
        } else if (item.key.kind == "whole_turns") {
            const double turns = predicted_rate(item, counts);
            strain.note =
                "must turn " + (item.turns ? print_short(*item.turns) : std::string("whole")) + ", turns " + print_short(turns, 5);
            strain.sigma = -rate_sigma(item, counts);
        } else {
            strain.predicted = predicted_rate(item, counts);
            if (item.key.kind == "case_length_mm" && *strain.predicted <= item.value) strain.note = "a bound, kept";
            strain.sigma = -rate_sigma(item, counts);
        }
        if (mesh_of(item.key)) strain.sigma = (item.value - *strain.predicted) / item.u;
        list.push_back(std::move(strain));
    }
    return list;
}

}  // namespace echappe::restore
