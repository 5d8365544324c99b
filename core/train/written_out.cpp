#include <algorithm>
#include <map>
#include <set>

#include "number/numeral.h"
#include "number/units.h"
#include "train/derive.h"
#include "train/hands.h"
#include "train/typed_count.h"
#include "train/written.h"
#include "train/written_words.h"

namespace echappe {
namespace {

using namespace written;

/// Whether the text is cut into these very words again, none of them one that means something.
bool plain(const std::string& name) {
    static const std::set<std::string> reserved = {"lantern", "apart", "on", "by", "driven", "from", "assumed"};
    const auto statements = statements_of(name);
    if (statements.size() != 1 || statements[0].headed || statements[0].items.size() != 1) return false;
    std::string again;
    for (const Word& word : statements[0].items[0].words) {
        if (word.is != Word::Is::name || reserved.contains(lower(word.text))) return false;
        again += (again.empty() ? "" : " ") + word.text;
    }
    return again == name;
}

/// "tide wheel" for "Tide wheel": the first letter is made large again in reading.
std::string written_name(const std::string& name) {
    const bool large = !name.empty() && name[0] >= 'A' && name[0] <= 'Z';
    if (!large || !plain(name) || lower(name) == "off the ladder") return in_written_marks(name);
    return lower(name.substr(0, 1)) + name.substr(1);
}

std::string part_name(const std::string& name) { return plain(name) ? name : in_written_marks(name); }

/// How an arbor is driven.
struct Driver {
    std::string arbor;
    std::string wheel;   ///< empty: its first
    std::string pinion;  ///< that is driven; empty: the one it is by itself
};

class TextWriter {
public:
    TextWriter(const TrainRecord& train, const TeethRecord& teeth) : m_train(with_meshes_told(train)), m_teeth(teeth) {
        find_drivers();
        name_arbors();
    }

    std::string write() {
        for (size_t i = 0; i < m_train.trains.size(); ++i) list(m_train.trains[i], i);
        std::vector<std::string> rest;
        for (const JobArbor& arbor : m_train.arbors)
            if (!m_defined.contains(arbor.train.id)) rest.push_back(arbor.train.id);
        if (!rest.empty()) statement("off the ladder", rest, false);
        facts();
        return m_text;
    }

private:
    TrainRecord m_train;
    const TeethRecord& m_teeth;
    std::map<std::string, Driver> m_drivers;
    std::map<std::string, std::string> m_names;  ///< as they are written
    std::set<std::string> m_defined;
    std::string m_text;

    void find_drivers() {
        const Network network = network_of(written_train(m_train), Joined::some);
        for (const Mesh& mesh : network.meshes) {
            const Network::Part& wheel = network.parts[mesh.wheel];
            const Network::Part& pinion = network.parts[mesh.pinion];
            const ArborInput& driving = m_train.arbors[wheel.arbor].train;
            const ArborInput& driven = m_train.arbors[pinion.arbor].train;
            Driver driver{driving.id, wheel.name.substr(driving.id.size() + 1), pinion.name.substr(driven.id.size() + 1)};
            if (driver.wheel == "wheel" && driving.wheel.present()) driver.wheel.clear();
            const std::string usual = driven.pinion.present() ? "pinion" : driven.pinions.front().name;
            if (driver.pinion == usual) driver.pinion.clear();
            m_drivers[driven.id] = driver;
        }
    }

    void name_arbors() {
        for (const JobArbor& arbor : m_train.arbors) {
            const std::string name = lower(arbor.called());
            const bool clear = std::none_of(m_train.arbors.begin(), m_train.arbors.end(), [&](const JobArbor& other) {
                return &other != &arbor && (lower(other.called()) == name || lower(other.train.id) == name);
            });
            m_names[arbor.train.id] = clear && !arbor.name.empty() ? written_name(arbor.name) : in_written_marks(arbor.train.id);
        }
    }

    std::string reference(const std::string& arbor, const std::string& wheel) const {
        const std::string& name = m_names.at(arbor);
        if (wheel.empty()) return name;
        const ArborInput& input = m_train.arbor(arbor)->train;
        for (size_t i = 0; i < input.wheels.size(); ++i) {
            if (input.wheels[i].name != wheel) continue;
            const Count& teeth = input.wheels[i].teeth;
            const auto same =
                std::count_if(input.wheels.begin(), input.wheels.end(), [&](const WheelInput& w) { return w.teeth == teeth; });
            const bool alone = teeth.known() && same == 1 && !(input.wheel == teeth);
            if (alone && usual_part(wheel, "wheel-", i)) return name + " " + std::to_string(teeth.value);
        }
        return name + " " + part_name(wheel);
    }

    static bool usual_part(const std::string& name, const std::string& side, size_t place) {
        return name == side + std::to_string(place + 2);
    }

    void list(const TrainList& train, size_t index) {
        const std::string& name = train.name.empty() ? train.id : train.name;
        std::vector<std::string> arbors = train.arbors;
        std::string head = index == 0 && name == "Going train" ? "" : written_name(name);
        const bool branch = arbors.size() > 1 && m_defined.contains(arbors[0]) && !m_defined.contains(arbors[1]) &&
                            m_drivers.contains(arbors[1]) && m_drivers[arbors[1]].arbor == arbors[0];
        if (branch) {
            const std::string from = reference(arbors[0], m_drivers[arbors[1]].wheel);
            head = (lower(name) == lower("from " + from) ? "" : written_name(name) + " ") + "from " + from;
            arbors.erase(arbors.begin());
        }
        statement(head, arbors, branch);
    }

    void statement(const std::string& head, const std::vector<std::string>& arbors, bool branch) {
        std::string text;
        for (size_t i = 0; i < arbors.size(); ++i) {
            const bool power = i == 0 && !branch && head != "off the ladder";
            const std::string before = i > 0 ? arbors[i - 1] : branch ? m_drivers[arbors[0]].arbor : "";
            const std::string wheel = i == 0 && branch ? m_drivers[arbors[0]].wheel : "";
            text += (text.empty() ? "" : ", ") + item(arbors[i], power, i + 1 == arbors.size(), before, wheel);
        }
        if (text.empty()) return;
        m_text += (m_text.empty() ? "" : "\n") + (head.empty() ? "" : head + ": ") + text;
    }

    std::string item(const std::string& id, bool power, bool last, const std::string& before, const std::string& wheel_before) {
        const std::string& name = m_names.at(id);
        if (!m_defined.insert(id).second) return name;
        const JobArbor& arbor = *m_train.arbor(id);
        const std::string driven = side(arbor, true), driving = side(arbor, false);
        const bool lone = power ? driven.empty() && !driving.empty() : last && driving.empty() && !driven.empty();
        const auto driver = m_drivers.find(id);
        std::string text = driver == m_drivers.end() && !before.empty() ? "apart " : "";
        text += written_before_on(arbor, name) + (lantern(id) ? " lantern " : " ") + (lone ? driven + driving : driven + "/" + driving);
        if (arbor.hand && !hand_is_known(arbor)) text += " " + *arbor.hand + " hand";
        if (arbor.train.coaxial_with) text += " on " + m_names.at(*arbor.train.coaxial_with);
        if (driver == m_drivers.end()) return text;
        if (driver->second.arbor != before || driver->second.wheel != wheel_before)
            text += " driven by " + reference(driver->second.arbor, driver->second.wheel);
        if (!driver->second.pinion.empty())
            text += " by " + (driver->second.pinion.find(' ') == std::string::npos ? part_name(driver->second.pinion)
                                                                                   : in_written_marks(driver->second.pinion));
        return text;
    }

    /// A name that ends in "hand" would be read as the hand itself, where "on" follows and no other hand.
    std::string written_before_on(const JobArbor& arbor, const std::string& name) const {
        const bool hand_follows = arbor.hand && !hand_is_known(arbor);
        return arbor.train.coaxial_with && !hand_follows && name.ends_with(" hand") ? in_written_marks(arbor.name) : name;
    }

    bool lantern(const std::string& id) const {
        const auto driver = m_drivers.find(id);
        return driver != m_drivers.end() && m_teeth.form_of(driver->second.arbor, id).school == "lantern";
    }

    static std::string side(const JobArbor& arbor, bool driven) {
        const Count& first = driven ? arbor.train.pinion : arbor.train.wheel;
        const auto& trust = driven ? arbor.pinion_trust : arbor.wheel_trust;
        const std::string& state = driven ? arbor.pinion_state : arbor.wheel_state;
        std::string text = write_count({first, first.known() ? trust : std::nullopt, first.known() && state == "assumed"});
        const auto more = [&](const std::string& name, const Count& count, const std::string& side, size_t i) {
            text +=
                (text.empty() ? "+ " : " + ") + (usual_part(name, side, i) ? "" : part_name(name) + " ") + write_count({count, {}, false});
        };
        if (driven)
            for (size_t i = 0; i < arbor.train.pinions.size(); ++i)
                more(arbor.train.pinions[i].name, arbor.train.pinions[i].leaves, "pinion-", i);
        else
            for (size_t i = 0; i < arbor.train.wheels.size(); ++i)
                more(arbor.train.wheels[i].name, arbor.train.wheels[i].teeth, "wheel-", i);
        return text;
    }

    /// Whether its hand is known to keep time, and not only what it is to show.
    bool hand_is_known(const JobArbor& arbor) const {
        const NamedPeriod* shows = arbor.hand ? find_period(*arbor.hand) : nullptr;
        return shows && arbor.train.id != m_train.reference.arbor &&
               std::any_of(m_train.measurements.begin(), m_train.measurements.end(), [&](const Measurement& m) {
                   return !m.left_out && m.evidence.key == QuantityKey{"period_s", arbor.train.id, {}, {}} &&
                          m.evidence.value == shows->period_s.to_double() && m.evidence.u == m.evidence.key.declared().workshop_u;
               });
    }

    // ---- what is known ----

    void facts() {
        std::vector<std::string> all;
        if (m_names.contains(m_train.reference.arbor))
            all.push_back(m_names[m_train.reference.arbor] + " " + span(m_train.reference.period_s) +
                          (m_train.reference.direction == "ccw" ? " turning left" : ""));
        for (const JobArbor& arbor : m_train.arbors)
            if (hand_is_known(arbor)) all.push_back(*arbor.hand + " hand on " + m_names[arbor.train.id]);
        if (const std::string run = turns(); !run.empty()) all.push_back(run);
        for (const Measurement& m : m_train.measurements)
            if (const std::string text = reading(m); !text.empty()) all.push_back(text);
        if (m_train.beats_per_tooth == 1) all.emplace_back("one beat a tooth");
        if (const auto usual = usual_escape(m_train); usual != m_train.escape_arbor)
            all.push_back(m_train.escape_arbor ? "escape on " + m_names[*m_train.escape_arbor] : "no escapement");
        std::string line;
        for (const std::string& fact : all) line += (line.empty() ? "" : ", ") + fact;
        if (!line.empty()) m_text += (m_text.empty() ? "" : "\n") + line;
    }

    static std::string span(const Rational& period_s) {
        for (const auto& [seconds, unit] : {std::pair(3600, " h"), std::pair(60, " min")})
            if (const Rational turns = period_s / Rational(seconds); turns.den() == 1) return turns.to_string(true) + unit;
        return period_s.to_string(true) + " s";
    }

    /// In the largest unit that loses nothing.
    static std::string exact_span(double s, double u, bool with_u) {
        for (const auto& [seconds, unit] :
             {std::pair(86400.0, " d"), std::pair(3600.0, " h"), std::pair(60.0, " min"), std::pair(1.0, " s")})
            if (s / seconds * seconds == s && u / seconds * seconds == u && (s >= seconds || seconds == 1))
                return print_plain(s / seconds) + (with_u ? " ± " + print_plain(u / seconds) : "") + unit;
        return {};
    }

    std::string turns() const {
        if (!m_train.winding_turns) return {};
        std::string run;
        for (const Measurement& m : m_train.measurements)
            if (written_run(m))
                run = exact_span(m.evidence.value, m.evidence.u, m.evidence.u != m.evidence.key.declared().workshop_u) + " from ";
        return run + print_plain(*m_train.winding_turns) + " turns";
    }
    bool written_run(const Measurement& m) const {
        return !m.left_out && m.evidence.key.kind == "run_s" && m.evidence.turns == m_train.winding_turns && m_train.winding_turns &&
               m.evidence.key.arbor == m_train.arbors.front().train.id;
    }

    std::string reading(const Measurement& m) const {
        if (m.left_out) return {};
        const Evidence& e = m.evidence;
        const std::string u = e.u == e.key.declared().workshop_u ? "" : " ± " + print_plain(e.u);
        if (e.key.kind == "beats_per_hour") return print_plain(e.value) + u + " beats";
        if (e.key.kind == "pendulum_length_mm") return "pendulum " + print_plain(e.value) + u + " mm";
        if (e.key.kind != "period_s" || !m_names.contains(*e.key.arbor) || *e.key.arbor == m_train.reference.arbor) return {};
        if (hand_is_known(*m_train.arbor(*e.key.arbor))) return {};
        return m_names.at(*e.key.arbor) + " " + print_plain(e.value) + u + " s";
    }
};

}  // namespace

std::string in_written_marks(const std::string& name) {
    std::string text = "\"";
    for (const char c : name) text += c == '"' ? std::string("\"\"") : std::string(1, c == '\n' ? ' ' : c);
    return text + "\"";
}

std::string write_down(const TrainRecord& train, const TeethRecord& teeth) { return TextWriter(train, teeth).write(); }

}  // namespace echappe
