#include <algorithm>
#include <deque>
#include <set>

#include "number/input_error.h"
#include "train/train.h"

namespace echappe {
namespace {

std::string quoted(const std::string& word) { return "\"" + word + "\""; }

/// Lays out parts and meshes from the input, one concern a function.
class Builder {
public:
    explicit Builder(const TrainInput& input) : m_input(input) {}

    Network build() {
        if (m_input.arbors.empty()) throw InputError("arbors", "an empty list", "at least one arbor");
        for (size_t i = 0; i < m_input.arbors.size(); ++i) take_id(i);
        for (size_t i = 0; i < m_input.arbors.size(); ++i) take_parts(i);
        for (size_t i = 0; i < m_input.arbors.size(); ++i) take_drives(i);
        find_reference();
        find_paths();
        find_escape();
        return std::move(m_net);
    }

private:
    const TrainInput& m_input;
    Network m_net;
    std::vector<std::vector<size_t>> m_driven;  ///< parts of each arbor that can be driven

    static std::string place(size_t i) { return "arbors[" + std::to_string(i) + "]"; }

    std::string ids() const {
        std::string text;
        for (const std::string& id : m_net.arbors) text += (text.empty() ? "" : ", ") + quoted(id);
        return "one of " + text;
    }

    void take_id(size_t i) {
        const ArborInput& arbor = m_input.arbors[i];
        if (arbor.id.empty()) throw InputError(place(i) + ".id", "an empty text", "a short name");
        if (m_net.arbor(arbor.id) != m_net.arbors.size())
            throw InputError(place(i) + ".id", quoted(arbor.id) + " a second time", "an id used once");
        m_net.arbors.push_back(arbor.id);
    }

    void add_part(size_t i, const std::string& name, const std::string& where, Count count, bool drives) {
        const std::string full = m_input.arbors[i].id + "." + name;
        if (m_net.part(full) != m_net.parts.size())
            throw InputError(where, quoted(name) + " a second time", "a name used once on the arbor");
        m_net.parts.push_back({full, where, i, count, drives});
        if (!drives) m_driven[i].push_back(m_net.parts.size() - 1);
    }

    void take_parts(size_t i) {
        m_driven.resize(m_input.arbors.size());
        const ArborInput& arbor = m_input.arbors[i];
        if (arbor.pinion.present()) add_part(i, "pinion", place(i) + ".pinion", arbor.pinion, false);
        if (arbor.wheel.present()) add_part(i, "wheel", place(i) + ".wheel", arbor.wheel, true);
        for (size_t k = 0; k < arbor.pinions.size(); ++k)
            add_part(i, arbor.pinions[k].name, place(i) + ".pinions[" + std::to_string(k) + "].leaves", arbor.pinions[k].leaves, false);
        for (size_t k = 0; k < arbor.wheels.size(); ++k)
            add_part(i, arbor.wheels[k].name, place(i) + ".wheels[" + std::to_string(k) + "].teeth", arbor.wheels[k].teeth, true);
        if (arbor.coaxial_with &&
            std::none_of(m_input.arbors.begin(), m_input.arbors.end(), [&](const ArborInput& a) { return a.id == *arbor.coaxial_with; }))
            throw InputError(place(i) + ".coaxial_with", quoted(*arbor.coaxial_with), "the id of another arbor");
    }

    bool named_by_another(size_t target) const {
        const std::string& id = m_input.arbors[target].id;
        const auto names = [&](const std::vector<std::string>& drives) {
            return std::any_of(drives.begin(), drives.end(), [&](const std::string& d) { return d == id || d.starts_with(id + "."); });
        };
        return std::any_of(m_input.arbors.begin(), m_input.arbors.end(), [&](const ArborInput& arbor) {
            return (arbor.drives && names(*arbor.drives)) ||
                   std::any_of(arbor.wheels.begin(), arbor.wheels.end(), [&](const WheelInput& w) { return names(w.drives); });
        });
    }

    void take_drives(size_t i) {
        const ArborInput& arbor = m_input.arbors[i];
        if (arbor.drives && !arbor.drives->empty() && !arbor.wheel.present())
            throw InputError(place(i) + ".wheel", "nothing, although it drives " + quoted(arbor.drives->front()), "4 to 1000");
        if (arbor.wheel.present()) {
            const size_t wheel = m_net.part(arbor.id + ".wheel");
            if (arbor.drives) {
                for (size_t k = 0; k < arbor.drives->size(); ++k)
                    mesh(wheel, (*arbor.drives)[k], place(i) + ".drives[" + std::to_string(k) + "]");
            } else if (arbor.id != m_input.escape_arbor && i + 1 < m_input.arbors.size() && !m_input.arbors[i + 1].coaxial_with &&
                       !named_by_another(i + 1)) {
                mesh(wheel, m_input.arbors[i + 1].id, place(i) + ".drives");
            }
        }
        for (size_t w = 0; w < arbor.wheels.size(); ++w)
            for (size_t k = 0; k < arbor.wheels[w].drives.size(); ++k)
                mesh(m_net.part(arbor.id + "." + arbor.wheels[w].name), arbor.wheels[w].drives[k],
                     place(i) + ".wheels[" + std::to_string(w) + "].drives[" + std::to_string(k) + "]");
    }

    void mesh(size_t wheel, const std::string& target, const std::string& where) {
        size_t pinion = m_net.part(target);
        if (pinion == m_net.parts.size()) {
            const size_t arbor = m_net.arbor(target);
            if (arbor == m_net.arbors.size()) throw InputError(where, quoted(target), ids());
            if (m_driven[arbor].empty())
                throw InputError(place(arbor) + ".pinion", "nothing, although " + quoted(m_net.parts[wheel].name) + " drives it",
                                 "4 to 200");
            if (m_driven[arbor].size() > 1)
                throw InputError(where, quoted(target),
                                 "one of its pinions by name, as in " + quoted(m_net.parts[m_driven[arbor].front()].name));
            pinion = m_driven[arbor].front();
        }
        const size_t driven = m_net.parts[pinion].arbor;
        if (m_net.parts[pinion].drives) throw InputError(where, quoted(target), "an arbor or a pinion, not a wheel");
        for (const Mesh& other : m_net.meshes)
            if (m_net.parts[other.pinion].arbor == driven)
                throw InputError(where, quoted(target) + ", which " + quoted(m_net.parts[other.wheel].name) + " drives already",
                                 "arbors that are driven once");
        m_net.meshes.push_back({wheel, pinion});
    }

    void find_reference() {
        m_net.reference = m_net.arbor(m_input.reference.arbor);
        if (m_net.reference == m_net.arbors.size()) throw InputError("reference.arbor", quoted(m_input.reference.arbor), ids());
        if (m_input.reference.period_s.num() <= 0)
            throw InputError("reference.period_s", m_input.reference.period_s.to_string(true), "a number above 0");
    }

    /// Walks outwards from the reference. An arbor met twice closes a ring.
    void find_paths() {
        std::vector<bool> reached(m_net.arbors.size(), false);
        m_net.path.resize(m_net.arbors.size());
        std::set<size_t> walked;
        std::deque<size_t> next{m_net.reference};
        reached[m_net.reference] = true;
        for (; !next.empty(); next.pop_front()) {
            for (size_t m = 0; m < m_net.meshes.size(); ++m) {
                const size_t from = m_net.parts[m_net.meshes[m].wheel].arbor;
                const size_t to = m_net.parts[m_net.meshes[m].pinion].arbor;
                if ((from != next.front() && to != next.front()) || !walked.insert(m).second) continue;
                const size_t other = from == next.front() ? to : from;
                if (reached[other])
                    throw InputError(place(to), quoted(m_net.arbors[to]) + " in a ring of wheels", "a train that does not close on itself");
                reached[other] = true;
                m_net.path[other] = m_net.path[next.front()];
                m_net.path[other].push_back({m, from == next.front() ? 1 : -1});
                next.push_back(other);
            }
        }
        for (size_t i = 0; i < reached.size(); ++i)
            if (!reached[i])
                throw InputError(
                    place(i), quoted(m_net.arbors[i]) + ", which no wheel joins to the reference " + quoted(m_net.arbors[m_net.reference]),
                    "arbors joined to it");
    }

    void find_escape() {
        if (!m_input.escape_arbor) return;
        const size_t arbor = m_net.arbor(*m_input.escape_arbor);
        if (arbor == m_net.arbors.size()) throw InputError("escape_arbor", quoted(*m_input.escape_arbor), ids());
        for (size_t p = 0; p < m_net.parts.size(); ++p) {
            const bool driving = std::any_of(m_net.meshes.begin(), m_net.meshes.end(), [&](const Mesh& m) { return m.wheel == p; });
            if (m_net.parts[p].arbor == arbor && m_net.parts[p].drives && !driving) m_net.escape_part = p;
        }
        if (!m_net.escape_part)
            throw InputError(place(arbor) + ".wheel", "nothing, although it is the escape arbor", "4 to 1000 teeth that drive no pinion");
    }
};

Rational count_of(const Network& network, size_t part) {
    const Network::Part& p = network.parts[part];
    if (!p.count.known()) throw InputError(p.place, "null", p.drives ? "4 to 1000" : "4 to 200");
    return Rational(p.count.value);
}

}  // namespace

size_t Network::arbor(const std::string& id) const {
    return static_cast<size_t>(std::find(arbors.begin(), arbors.end(), id) - arbors.begin());
}

size_t Network::part(const std::string& name) const {
    return static_cast<size_t>(std::find_if(parts.begin(), parts.end(), [&](const Part& p) { return p.name == name; }) - parts.begin());
}

Network network_of(const TrainInput& input) { return Builder(input).build(); }

Rational period_of(const Network& network, const Rational& reference_period_s, size_t arbor) {
    Rational period = reference_period_s;
    for (const auto& step : network.path[arbor]) {
        const Rational ratio = count_of(network, network.meshes[step.mesh].pinion) / count_of(network, network.meshes[step.mesh].wheel);
        period = step.sense > 0 ? period * ratio : period / ratio;
    }
    return period;
}

std::vector<Rational> periods(const Network& network, const Rational& reference_period_s) {
    std::vector<Rational> result;
    for (size_t arbor = 0; arbor < network.path.size(); ++arbor) result.push_back(period_of(network, reference_period_s, arbor));
    return result;
}

Rational beats_per_hour(const Network& network, const std::vector<Rational>& period, long long beats_per_tooth) {
    return Rational(3600) / period[network.parts[*network.escape_part].arbor] * count_of(network, *network.escape_part) *
           Rational(beats_per_tooth);
}

}  // namespace echappe
