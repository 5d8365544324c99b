#include <algorithm>
#include <deque>
#include <set>

#include "number/input_error.h"
#include "number/numeral.h"
#include "train/train.h"

namespace echappe {
namespace {

/// Lays out parts and meshes from the input, one concern a function.
class Builder {
public:
    Builder(const TrainInput& input, Joined joined) : m_input(input), m_joined(joined) {}

    Network build() {
        if (m_input.arbors.empty() && m_joined == Joined::some) return {};  // an empty bench
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
    Joined m_joined;
    Network m_net;
    std::vector<std::vector<size_t>> m_driven;  ///< parts of each arbor that can be driven

    static std::string place(size_t i) { return "arbors[" + std::to_string(i) + "]"; }

    std::string ids() const {
        std::string text;
        for (const std::string& id : m_net.arbors) text += (text.empty() ? "" : ", ") + in_quotes(id);
        return "one of " + text;
    }

    void take_id(size_t i) {
        const ArborInput& arbor = m_input.arbors[i];
        if (arbor.id.empty()) throw InputError(place(i) + ".id", "an empty text", "a short name");
        if (m_net.arbor(arbor.id) != m_net.arbors.size())
            throw InputError(place(i) + ".id", in_quotes(arbor.id) + " a second time", "an id used once");
        m_net.arbors.push_back(arbor.id);
    }

    void add_part(size_t i, const std::string& name, const std::string& where, Count count, bool drives) {
        const std::string full = m_input.arbors[i].id + "." + name;
        if (m_net.part(full) != m_net.parts.size())
            throw InputError(where, in_quotes(name) + " a second time", "a name used once on the arbor");
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
            throw InputError(place(i) + ".coaxial_with", in_quotes(*arbor.coaxial_with), "the id of another arbor");
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
            throw InputError(place(i) + ".wheel", "nothing, although it drives " + in_quotes(arbor.drives->front()), "4 to 1000");
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
            if (arbor == m_net.arbors.size()) throw InputError(where, in_quotes(target), ids());
            if (m_driven[arbor].empty())
                throw InputError(place(arbor) + ".pinion", "nothing, although " + in_quotes(m_net.parts[wheel].name) + " drives it",
                                 "4 to 200");
            if (m_driven[arbor].size() > 1)
                throw InputError(where, in_quotes(target),
                                 "one of its pinions by name, as in " + in_quotes(m_net.parts[m_driven[arbor].front()].name));
            pinion = m_driven[arbor].front();
        }
        const size_t driven = m_net.parts[pinion].arbor;
        if (m_net.parts[pinion].drives) throw InputError(where, in_quotes(target), "an arbor or a pinion, not a wheel");
        for (const Mesh& other : m_net.meshes)
            if (m_net.parts[other.pinion].arbor == driven)
                throw InputError(where, in_quotes(target) + ", which " + in_quotes(m_net.parts[other.wheel].name) + " drives already",
                                 "arbors that are driven once");
        m_net.meshes.push_back({wheel, pinion});
    }

    void find_reference() {
        m_net.reference = m_net.arbor(m_input.reference.arbor);
        if (m_net.reference == m_net.arbors.size()) throw InputError("reference.arbor", in_quotes(m_input.reference.arbor), ids());
        if (m_input.reference.period_s.num() <= 0)
            throw InputError("reference.period_s", m_input.reference.period_s.to_string(true), "a number above 0");
    }

    /// Walks outwards from the reference. An arbor met twice closes a ring.
    void find_paths() {
        std::vector<bool>& reached = m_net.joined;
        reached.assign(m_net.arbors.size(), false);
        m_net.path.resize(m_net.arbors.size());
        walk(m_net.reference, reached);
        // Trains that stand apart must not close on themselves either.
        std::vector<bool> anywhere = reached;
        for (size_t i = 0; i < anywhere.size(); ++i)
            if (!anywhere[i]) {
                if (m_joined == Joined::all)
                    throw InputError(
                        place(i),
                        in_quotes(m_net.arbors[i]) + ", which no wheel joins to the reference " + in_quotes(m_net.arbors[m_net.reference]),
                        "arbors joined to it");
                walk(i, anywhere);
            }
        for (size_t i = 0; i < reached.size(); ++i)
            if (!reached[i]) m_net.path[i].clear();
    }

    void walk(size_t from_arbor, std::vector<bool>& reached) {
        std::set<size_t> walked;
        std::deque<size_t> next{from_arbor};
        reached[from_arbor] = true;
        for (; !next.empty(); next.pop_front()) {
            for (size_t m = 0; m < m_net.meshes.size(); ++m) {
                const size_t from = m_net.parts[m_net.meshes[m].wheel].arbor;
                const size_t to = m_net.parts[m_net.meshes[m].pinion].arbor;
                if ((from != next.front() && to != next.front()) || !walked.insert(m).second) continue;
                const size_t other = from == next.front() ? to : from;
                if (reached[other])
                    throw InputError(place(to), in_quotes(m_net.arbors[to]) + " in a ring of wheels",
                                     "a train that does not close on itself");
                reached[other] = true;
                m_net.path[other] = m_net.path[next.front()];
                m_net.path[other].push_back({m, from == next.front() ? 1 : -1});
                next.push_back(other);
            }
        }
    }

    void find_escape() {
        if (!m_input.escape_arbor) return;
        const size_t arbor = m_net.arbor(*m_input.escape_arbor);
        if (arbor == m_net.arbors.size()) throw InputError("escape_arbor", in_quotes(*m_input.escape_arbor), ids());
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

Network network_of(const TrainInput& input, Joined joined) { return Builder(input, joined).build(); }

TrainInput with_meshes_told(TrainInput train) {
    const Network network = network_of(train, Joined::some);
    for (ArborInput& arbor : train.arbors) {
        if (arbor.wheel.present()) arbor.drives.emplace();
        else arbor.drives.reset();
        for (WheelInput& wheel : arbor.wheels) wheel.drives.clear();
    }
    std::vector<Mesh> meshes = network.meshes;
    std::sort(meshes.begin(), meshes.end(),
              [&](const Mesh& a, const Mesh& b) { return network.parts[a.pinion].arbor < network.parts[b.pinion].arbor; });
    for (const Mesh& mesh : meshes) {
        const Network::Part& wheel = network.parts[mesh.wheel];
        const Network::Part& pinion = network.parts[mesh.pinion];
        const ArborInput& driven = train.arbors[pinion.arbor];
        const size_t pinions = driven.pinions.size() + (driven.pinion.present() ? 1 : 0);
        const std::string target = pinions > 1 ? pinion.name : driven.id;
        ArborInput& driving = train.arbors[wheel.arbor];
        const std::string name = wheel.name.substr(driving.id.size() + 1);
        if (name == "wheel" && driving.wheel.present()) driving.drives->push_back(target);
        for (WheelInput& extra : driving.wheels)
            if (extra.name == name) extra.drives.push_back(target);
    }
    return train;
}

namespace {

/// What is left of a train when some arbors are taken away with all their meshes.
TrainInput only(TrainInput train, const Network& network, const std::vector<bool>& stays) {
    train = with_meshes_told(std::move(train));
    const auto gone = [&](const std::string& target) { return !stays[network.arbor(target.substr(0, target.find('.')))]; };
    std::vector<ArborInput> arbors;
    for (size_t i = 0; i < train.arbors.size(); ++i) {
        if (!stays[i]) continue;
        ArborInput arbor = std::move(train.arbors[i]);
        if (arbor.drives) std::erase_if(*arbor.drives, gone);
        // A wheel of what is taken away goes too: left idle it would pass for the escape wheel.
        std::erase_if(arbor.wheels, [&](WheelInput& wheel) { return std::erase_if(wheel.drives, gone) > 0 && wheel.drives.empty(); });
        if (arbor.coaxial_with && gone(*arbor.coaxial_with)) arbor.coaxial_with.reset();
        arbors.push_back(std::move(arbor));
    }
    train.arbors = std::move(arbors);
    if (train.escape_arbor && gone(*train.escape_arbor)) train.escape_arbor.reset();
    return train;
}

}  // namespace

TrainInput joined_part(const TrainInput& input) {
    const Network network = network_of(input, Joined::some);
    return only(input, network, network.joined);
}

TrainInput known_part(const TrainInput& input) {
    const Network network = network_of(input, Joined::some);
    std::vector<bool> known = network.joined;
    const auto counted = [&](const Network::Step& step) {
        const Mesh& mesh = network.meshes[step.mesh];
        return network.parts[mesh.wheel].count.known() && network.parts[mesh.pinion].count.known();
    };
    for (size_t i = 0; i < known.size(); ++i) known[i] = known[i] && std::all_of(network.path[i].begin(), network.path[i].end(), counted);
    TrainInput out = only(input, network, known);
    if (network.escape_part && !network.parts[*network.escape_part].count.known()) out.escape_arbor.reset();
    return out;
}

Rational period_of(const Network& network, const Rational& reference_period_s, size_t arbor) {
    if (!network.joined[arbor])
        throw InputError("arbors[" + std::to_string(arbor) + "]",
                         in_quotes(network.arbors[arbor]) + ", which no wheel joins to the reference", "an arbor joined to it");
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
