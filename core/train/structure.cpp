#include "train/structure.h"

#include <algorithm>
#include <set>

#include "number/input_error.h"
#include "number/numeral.h"
#include "train/derive.h"
#include "train/hands.h"
#include "train/written.h"

namespace echappe {
namespace {

/// Where an arbor is driven from: the list of targets of one wheel, and the place in it.
struct DrivenAt {
    std::vector<std::string>* drives = nullptr;
    size_t place = 0;
    JobArbor* driver = nullptr;
};

/// A movement that is being changed, every mesh told by its wheel.
class Structure {
public:
    explicit Structure(TrainRecord& record) : m_record(record) { m_record = with_meshes_told(m_record); }

    JobArbor& arbor(const std::string& id) {
        for (JobArbor& arbor : m_record.arbors)
            if (arbor.train.id == id) return arbor;
        throw InputError("arbor", in_quotes(id), "an arbor of this movement");
    }

    /// With its id still free.
    JobArbor fresh(std::string name) const {
        std::set<std::string> taken;
        for (const auto* all : {&m_record.arbors, &m_record.gone})
            for (const JobArbor& arbor : *all) taken.insert(arbor.train.id);
        JobArbor out;
        out.name = std::move(name);
        for (int i = 1; out.train.id.empty() || taken.contains(out.train.id); ++i) out.train.id = "arbor-" + std::to_string(i);
        return out;
    }

    /// The first usual name that nothing bears.
    std::string free_name(const std::string& first) const {
        static const char* const usual[] = {"Centre", "Third", "Fourth", "Fifth", "Sixth", "Seventh", "Eighth"};
        const auto taken = [&](const std::string& name) {
            return std::any_of(m_record.arbors.begin(), m_record.arbors.end(),
                               [&](const JobArbor& arbor) { return arbor.called() == name; });
        };
        if (!first.empty() && !taken(first)) return first;
        for (const char* name : usual)
            if (!taken(name)) return name;
        int n = 9;
        while (taken("Arbor " + std::to_string(n))) ++n;
        return "Arbor " + std::to_string(n);
    }

    std::optional<DrivenAt> driven_at(const std::string& id) {
        const auto of = [&](std::vector<std::string>& drives, JobArbor& driver) -> std::optional<DrivenAt> {
            for (size_t i = 0; i < drives.size(); ++i)
                if (drives[i].substr(0, drives[i].find('.')) == id) return DrivenAt{&drives, i, &driver};
            return {};
        };
        for (JobArbor& driver : m_record.arbors) {
            if (driver.train.drives)
                if (const auto at = of(*driver.train.drives, driver)) return at;
            for (WheelInput& wheel : driver.train.wheels)
                if (const auto at = of(wheel.drives, driver)) return at;
        }
        return {};
    }

    static void need_wheel(JobArbor& arbor) {
        if (!arbor.train.wheel.present()) arbor.train.wheel = Count::lost();
        if (!arbor.train.drives) arbor.train.drives.emplace();
    }
    static void need_pinion(JobArbor& arbor) {
        if (!arbor.train.pinion.present() && arbor.train.pinions.empty()) arbor.train.pinion = Count::lost();
    }
    /// How a wheel names it.
    static std::string target(const JobArbor& arbor) {
        const bool several = arbor.train.pinions.size() + (arbor.train.pinion.present() ? 1 : 0) > 1;
        if (!several) return arbor.train.id;
        return arbor.train.id + (arbor.train.pinion.present() ? ".pinion" : "." + arbor.train.pinions.front().name);
    }

    void put(JobArbor arbor, const std::string& beside, bool after) {
        auto at = std::find_if(m_record.arbors.begin(), m_record.arbors.end(), [&](const JobArbor& a) { return a.train.id == beside; });
        if (after && at != m_record.arbors.end()) ++at;
        m_record.arbors.insert(at, std::move(arbor));
    }

    TrainList* list(const std::string& id) {
        for (TrainList& train : m_record.trains)
            if (train.id == id) return &train;
        return nullptr;
    }
    void put_in_list(const std::string& train, const std::string& id, const std::string& beside, bool after) {
        TrainList* there = list(train);
        if (!there) return;
        auto at = std::find(there->arbors.begin(), there->arbors.end(), beside);
        if (after && at != there->arbors.end()) ++at;
        there->arbors.insert(at, id);
    }

    std::string free_train_id(const std::string& wanted) const {
        std::string id = wanted;
        for (int i = 2; std::any_of(m_record.trains.begin(), m_record.trains.end(), [&](const TrainList& t) { return t.id == id; }); ++i)
            id = wanted + "-" + std::to_string(i);
        return id;
    }

    static std::string free_wheel_name(const JobArbor& arbor) {
        const auto taken = [&](const std::string& name) {
            return std::any_of(arbor.train.wheels.begin(), arbor.train.wheels.end(), [&](const WheelInput& w) { return w.name == name; });
        };
        for (size_t n = arbor.train.wheels.size() + 2;; ++n)
            if (const std::string name = "wheel-" + std::to_string(n); !taken(name)) return name;
    }

    static bool idle_wheel(const JobArbor& arbor) {
        return (arbor.train.wheel.present() && (!arbor.train.drives || arbor.train.drives->empty())) ||
               std::any_of(arbor.train.wheels.begin(), arbor.train.wheels.end(), [](const WheelInput& w) { return w.drives.empty(); });
    }

private:
    TrainRecord& m_record;
};

void throw_unless_there(const TrainRecord& record, const std::string& arbor) {
    if (!record.arbor(arbor)) throw InputError("arbor", in_quotes(arbor), "an arbor of this movement");
}

/// The arbor above it in this train, which its own wheel drives.
std::optional<std::string> next_in(const TrainRecord& record, const std::string& train, const JobArbor& arbor) {
    for (const TrainList& list : record.trains) {
        if (list.id != train) continue;
        const auto at = std::find(list.arbors.begin(), list.arbors.end(), arbor.train.id);
        if (at == list.arbors.end() || at + 1 == list.arbors.end()) return {};
        for (const std::string& target : arbor.train.drives.value_or(std::vector<std::string>()))
            if (target.substr(0, target.find('.')) == *(at + 1)) return *(at + 1);
    }
    return {};
}

void above(TrainRecord& record, const std::string& train, const std::string& id) {
    Structure s(record);
    JobArbor& below = s.arbor(id);
    const bool was_escape = record.escape_arbor == id;
    Structure::need_wheel(below);
    JobArbor fresh = s.fresh(s.free_name(was_escape ? "" : "Centre"));
    fresh.train.pinion = Count::lost();
    fresh.train.wheel = Count::lost();
    fresh.train.drives.emplace();
    if (const auto next = next_in(record, train, below)) {
        const DrivenAt at = *s.driven_at(*next);
        fresh.train.drives->push_back((*at.drives)[at.place]);
        (*at.drives)[at.place] = fresh.train.id;
    } else {
        below.train.drives->push_back(fresh.train.id);
        if (was_escape) record.escape_arbor = fresh.train.id;
    }
    const std::string fresh_id = fresh.train.id;
    s.put(std::move(fresh), id, true);
    s.put_in_list(train, fresh_id, id, true);
}

void below(TrainRecord& record, const std::string& train, const std::string& id) {
    Structure s(record);
    const auto driver = s.driven_at(id);
    JobArbor fresh = s.fresh(s.free_name(driver ? "" : "Great"));
    JobArbor& above = s.arbor(id);
    Structure::need_pinion(above);
    fresh.train.wheel = Count::lost();
    fresh.train.drives = {Structure::target(above)};
    if (driver) {
        fresh.train.pinion = Count::lost();
        fresh.train.drives = {(*driver->drives)[driver->place]};
        (*driver->drives)[driver->place] = fresh.train.id;
    }
    const std::string fresh_id = fresh.train.id;
    s.put(std::move(fresh), id, false);
    s.put_in_list(train, fresh_id, id, false);
}

void branch(TrainRecord& record, const std::string& id) {
    Structure s(record);
    JobArbor& from = s.arbor(id);
    JobArbor fresh = s.fresh(s.free_name(from.called() + " branch"));
    fresh.train.pinion = Count::lost();
    const std::string fresh_id = fresh.train.id;
    const bool idle = from.train.wheel.present() && from.train.drives && from.train.drives->empty() && record.escape_arbor != id;
    if (idle) from.train.drives->push_back(fresh_id);
    else from.train.wheels.push_back({Structure::free_wheel_name(from), Count::lost(), {fresh_id}});
    const std::string called = from.called();
    s.put(std::move(fresh), id, true);
    record.trains.push_back({s.free_train_id("from-" + id), "From " + called, {id, fresh_id}});
}

/// The turn that was known is told of another arbor: as it follows from the counts, else as it was.
void tell_turn_of(TrainRecord& record, std::string id) {
    for (const JobArbor& other : record.arbors)
        if (id.empty() && other.train.id != record.reference.arbor) id = other.train.id;
    const Network network = network_of(known_part(written_train(record)), Joined::some);
    ReferenceInput& turn = record.reference;
    if (const size_t at = network.arbor(id); at < network.arbors.size()) {
        try {
            turn.period_s = period_of(network, turn.period_s, at);
            if (network.path[at].size() % 2 == 1) turn.direction = turn.direction == "cw" ? "ccw" : "cw";
        } catch (const RationalOverflow&) {
            // Beyond what can be exact: the turn stays, to be told anew.
        }
    }
    turn.arbor = id;
}

void away(TrainRecord& record, const std::string& id) {
    Structure s(record);
    JobArbor gone = s.arbor(id);
    std::vector<std::string> targets = gone.train.drives.value_or(std::vector<std::string>());
    for (const WheelInput& wheel : gone.train.wheels) targets.insert(targets.end(), wheel.drives.begin(), wheel.drives.end());
    const auto driver = s.driven_at(id);
    if (record.reference.arbor == id)
        tell_turn_of(record, driver             ? driver->driver->train.id
                             : !targets.empty() ? targets.front().substr(0, targets.front().find('.'))
                                                : "");
    if (driver) {
        auto& drives = *driver->drives;
        drives.erase(drives.begin() + static_cast<std::ptrdiff_t>(driver->place));
        drives.insert(drives.begin() + static_cast<std::ptrdiff_t>(driver->place), targets.begin(), targets.end());
        if (record.escape_arbor == id)
            record.escape_arbor = Structure::idle_wheel(*driver->driver) ? std::optional(driver->driver->train.id) : std::nullopt;
    } else if (record.escape_arbor == id) {
        record.escape_arbor.reset();
    }
    gone.train.drives.reset();
    for (WheelInput& wheel : gone.train.wheels) wheel.drives.clear();
    std::erase_if(record.arbors, [&](const JobArbor& arbor) { return arbor.train.id == id; });
    for (JobArbor& arbor : record.arbors)
        if (arbor.train.coaxial_with == id) arbor.train.coaxial_with.reset();
    for (TrainList& train : record.trains) std::erase(train.arbors, id);
    std::erase_if(record.trains, [](const TrainList& train) { return train.arbors.empty(); });
    std::erase_if(record.choices, [&](const Choice& choice) { return choice.part.starts_with(id + "."); });
    std::erase_if(record.gone, [&](const JobArbor& arbor) { return arbor.train.id == id; });
    record.gone.push_back(std::move(gone));
    if (record.arbors.empty()) record.reference = {};
}

/// The train in whose list the arbor stands with others above it, or where it stands at all.
std::string list_of(const TrainRecord& record, const std::string& id) {
    std::string found;
    for (const TrainList& list : record.trains) {
        const auto at = std::find(list.arbors.begin(), list.arbors.end(), id);
        if (at == list.arbors.end()) continue;
        if (found.empty()) found = list.id;
        // At the root of a branch it only lends the branch its turn.
        if (at != list.arbors.begin()) return list.id;
    }
    return found;
}

/// Out of its mesh with what drives it and with the next of its train, which are joined; its branches stay on it.
void unlink(TrainRecord& record, const std::string& id) {
    Structure s(record);
    JobArbor& arbor = s.arbor(id);
    const std::string from = list_of(record, id);
    const auto driver = s.driven_at(id);
    const auto next = next_in(record, from, arbor);
    std::vector<std::string> joined;
    if (next) {
        const DrivenAt at = *s.driven_at(*next);
        joined = {(*at.drives)[at.place]};
        at.drives->erase(at.drives->begin() + static_cast<std::ptrdiff_t>(at.place));
    }
    if (driver) {
        auto& drives = *driver->drives;
        drives.erase(drives.begin() + static_cast<std::ptrdiff_t>(driver->place));
        drives.insert(drives.begin() + static_cast<std::ptrdiff_t>(driver->place), joined.begin(), joined.end());
    }
    if (record.escape_arbor == id)
        record.escape_arbor = driver && Structure::idle_wheel(*driver->driver) ? std::optional(driver->driver->train.id) : std::nullopt;
    // The root of its branches it stays.
    for (TrainList& train : record.trains)
        if (train.id == from || (!train.arbors.empty() && train.arbors.front() != id)) std::erase(train.arbors, id);
    std::erase_if(record.trains, [](const TrainList& train) { return train.arbors.empty(); });
}

/// Whether one turns the other, by whatever is between.
bool turns(Structure& s, const std::string& one, std::string other) {
    for (size_t steps = 0; steps < 1000; ++steps) {
        if (other == one) return true;
        const auto driver = s.driven_at(other);
        if (!driver) return false;
        other = driver->driver->train.id;
    }
    return false;
}

void link_above(TrainRecord& record, const std::string& id, const std::string& beside) {
    Structure s(record);
    JobArbor& arbor = s.arbor(id);
    JobArbor& below = s.arbor(beside);
    const std::string train = list_of(record, beside);
    Structure::need_wheel(below);
    Structure::need_pinion(arbor);
    if (const auto next = next_in(record, train, below)) {
        Structure::need_wheel(arbor);
        const DrivenAt at = *s.driven_at(*next);
        arbor.train.drives->insert(arbor.train.drives->begin(), (*at.drives)[at.place]);
        (*at.drives)[at.place] = Structure::target(arbor);
    } else {
        below.train.drives->push_back(Structure::target(arbor));
        if (record.escape_arbor == beside) {
            Structure::need_wheel(arbor);
            record.escape_arbor = Structure::idle_wheel(arbor) ? std::optional(id) : std::nullopt;
        }
    }
    s.put_in_list(train, id, beside, true);
}

void link_below(TrainRecord& record, const std::string& id, const std::string& beside) {
    Structure s(record);
    JobArbor& arbor = s.arbor(id);
    JobArbor& above = s.arbor(beside);
    const auto driver = s.driven_at(beside);
    Structure::need_wheel(arbor);
    Structure::need_pinion(above);
    if (driver) {
        Structure::need_pinion(arbor);
        const std::string target = (*driver->drives)[driver->place];
        (*driver->drives)[driver->place] = Structure::target(arbor);
        arbor.train.drives->insert(arbor.train.drives->begin(), target);
    } else {
        arbor.train.drives->insert(arbor.train.drives->begin(), Structure::target(above));
    }
    s.put_in_list(list_of(record, beside), id, beside, false);
}

/// In its own copy: what is refused leaves nothing half done.
Edit<TrainRecord> moved(const TrainRecord& record, const std::string& arbor, const std::string& beside, bool above) {
    for (const std::string& one : {arbor, beside})
        if (!record.arbor(one)) throw InputError("arbor", in_quotes(one), "an arbor of this movement");
    const auto move = [=](TrainRecord& out) {
        TrainRecord trial = out;
        unlink(trial, arbor);
        Structure s(trial);
        if (turns(s, arbor, beside))
            throw InputError("move", record.name_of_arbor(beside) + (arbor == beside ? ", itself" : ", which it turns"),
                             "an arbor that " + record.name_of_arbor(arbor) + " does not turn");
        above ? link_above(trial, arbor, beside) : link_below(trial, arbor, beside);
        out = std::move(trial);
    };
    TrainRecord trial = record;
    move(trial);
    return {record.name_of_arbor(arbor) + (above ? " above " : " below ") + record.name_of_arbor(beside), move};
}

std::string checked_name(std::string name, const char* what) {
    name = as_typed(name);
    if (name.empty()) throw InputError("name", "nothing", std::string("a word for the ") + what);
    constexpr size_t longest = 120;
    if (name.size() > longest) throw InputError("name", in_quotes(name), "up to " + std::to_string(longest) + " letters");
    return name;
}

}  // namespace

Edit<TrainRecord> add_above(const TrainRecord& record, const std::string& train, const std::string& arbor) {
    throw_unless_there(record, arbor);
    return {"An arbor above " + record.name_of_arbor(arbor), [=](TrainRecord& out) { above(out, train, arbor); }};
}

Edit<TrainRecord> add_below(const TrainRecord& record, const std::string& train, const std::string& arbor) {
    throw_unless_there(record, arbor);
    return {"An arbor below " + record.name_of_arbor(arbor), [=](TrainRecord& out) { below(out, train, arbor); }};
}

Edit<TrainRecord> add_branch(const TrainRecord& record, const std::string& arbor) {
    throw_unless_there(record, arbor);
    return {"A branch from " + record.name_of_arbor(arbor), [=](TrainRecord& out) { branch(out, arbor); }};
}

Edit<TrainRecord> add_train(const TrainRecord&, const std::string& name) {
    const std::string called = checked_name(name, "train");
    return {"The train " + called, [=](TrainRecord& out) {
                Structure s(out);
                JobArbor great = s.fresh(s.free_name(out.arbors.empty() ? "Great" : called + " great"));
                great.train.wheel = Count::lost();
                great.train.drives.emplace();
                out.trains.push_back({s.free_train_id(out.trains.empty() ? "going" : "train"), called, {great.train.id}});
                if (out.arbors.empty()) out.reference = {great.train.id, Rational(3600), "cw"};
                out.arbors.push_back(std::move(great));
            }};
}

Edit<TrainRecord> take_away(const TrainRecord& record, const std::string& arbor) {
    throw_unless_there(record, arbor);
    return {"Take away " + record.name_of_arbor(arbor), [=](TrainRecord& out) { away(out, arbor); }};
}

Edit<TrainRecord> move_above(const TrainRecord& record, const std::string& arbor, const std::string& beside) {
    return moved(record, arbor, beside, true);
}

Edit<TrainRecord> move_below(const TrainRecord& record, const std::string& arbor, const std::string& beside) {
    return moved(record, arbor, beside, false);
}

Edit<TrainRecord> set_escapement(const std::string& kind) {
    const std::string word = lower(as_typed(kind));
    if (!word.empty() && std::find(escapements().begin(), escapements().end(), word) == escapements().end())
        throw InputError("escapement", in_quotes(kind), listed(escapements()));
    return {word.empty() ? "Escapement not known" : "Escapement: " + word,
            [=](TrainRecord& out) { out.escapement = word.empty() ? std::nullopt : std::optional(word); }};
}

std::vector<std::string> driven_by(const TrainRecord& record, const std::string& arbor) {
    std::vector<std::string> names;
    const TrainInput told = with_meshes_told(written_train(record));
    for (const ArborInput& one : told.arbors) {
        if (one.id != arbor) continue;
        std::vector<std::string> targets = one.drives.value_or(std::vector<std::string>());
        for (const WheelInput& wheel : one.wheels) targets.insert(targets.end(), wheel.drives.begin(), wheel.drives.end());
        for (const std::string& target : targets) names.push_back(record.name_of_arbor(target.substr(0, target.find('.'))));
    }
    return names;
}

Edit<TrainRecord> rename_arbor(const TrainRecord& record, const std::string& arbor, const std::string& name) {
    throw_unless_there(record, arbor);
    const std::string called = checked_name(name, "arbor");
    return {"Call " + record.name_of_arbor(arbor) + " " + called, [=](TrainRecord& out) {
                for (JobArbor& one : out.arbors)
                    if (one.train.id == arbor) one.name = called;
            }};
}

Edit<TrainRecord> rename_train(const TrainRecord&, const std::string& train, const std::string& name) {
    const std::string called = checked_name(name, "train");
    return {"Call the train " + called, [=](TrainRecord& out) {
                for (TrainList& list : out.trains)
                    if (list.id == train) list.name = called;
            }};
}

Edit<TrainRecord> add_wheel(const TrainRecord& record, const std::string& arbor) {
    throw_unless_there(record, arbor);
    return {"Another wheel on " + record.name_of_arbor(arbor), [=](TrainRecord& out) {
                Structure s(out);
                JobArbor& one = s.arbor(arbor);
                if (!one.train.wheel.present()) return Structure::need_wheel(one);
                one.train.wheels.push_back({Structure::free_wheel_name(one), Count::lost(), {}});
            }};
}

Edit<TrainRecord> set_hand(const TrainRecord& record, const std::string& arbor, const std::string& shows) {
    throw_unless_there(record, arbor);
    const std::string id = as_typed(shows);
    if (!id.empty() && !find_period(id)) throw InputError("hand", in_quotes(shows), listed(named_period_ids()));
    return {id.empty() ? "No hand on " + record.name_of_arbor(arbor) : "A hand on " + record.name_of_arbor(arbor) + ": " + id,
            [=](TrainRecord& out) {
                for (JobArbor& one : out.arbors)
                    if (one.train.id == arbor) one.hand = id.empty() ? std::nullopt : std::optional(id);
            }};
}

Edit<TrainRecord> set_period(const TrainRecord& record, const std::string& arbor, const std::string& text) {
    throw_unless_there(record, arbor);
    // The words are those of the written train.
    const Written read = read_written("\"one\" 60\n\"one\" " + text);
    if (!read.faults.empty() || read.train.arbors.size() != 1 || !read.train.measurements.empty() || as_typed(text).empty())
        throw InputError("turn", in_quotes(text), "a time, as in 1 h, 90 min, 60 s; and left where it turns left");
    ReferenceInput known = read.train.reference;
    known.arbor = arbor;
    return {record.name_of_arbor(arbor) + " turns in " + as_typed(text), [=](TrainRecord& out) { out.reference = known; }};
}

Edit<TrainRecord> set_escape(const TrainRecord& record, const std::string& arbor) {
    throw_unless_there(record, arbor);
    return {"The escape wheel is on " + record.name_of_arbor(arbor), [=](TrainRecord& out) {
                Structure s(out);
                JobArbor& one = s.arbor(arbor);
                if (!one.train.wheel.present() && one.train.wheels.empty()) Structure::need_wheel(one);
                if (!Structure::idle_wheel(one))
                    throw InputError("escape wheel", one.called() + ", whose wheel drives a pinion",
                                     "an arbor with a wheel that drives none");
                out.escape_arbor = arbor;
            }};
}

Edit<TrainRecord> set_winding(const std::string& text) {
    const std::string typed = as_typed(text);
    const auto turns = read_number(typed);
    const Range& range = TrainRecord::record().find("winding_turns")->range;
    if (!typed.empty() && (!turns || !range.holds(*turns))) throw InputError("turns", in_quotes(typed), range.sentence() + ", or nothing");
    return {"Turns of winding", [=](TrainRecord& out) { out.winding_turns = turns; }};
}

}  // namespace echappe
