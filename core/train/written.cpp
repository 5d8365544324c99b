#include "train/written.h"

#include <algorithm>
#include <boost/regex/pending/unicode_iterator.hpp>
#include <set>

#include "number/input_error.h"
#include "number/numeral.h"
#include "train/derive.h"
#include "train/hands.h"
#include "train/written_items.h"

namespace echappe {
namespace {

using namespace written;

/// Where the text stops being UTF-8. What is no letter could not be kept in a file.
std::optional<size_t> first_foreign_byte(std::string_view text) {
    using Letters = boost::u8_to_u32_iterator<std::string::const_iterator>;
    // With a letter after it, one that is cut at the end is found where it stands.
    const std::string whole = std::string(text) + " ";
    auto at = whole.begin();
    try {
        while (at != whole.end()) {
            Letters letter(at, at, whole.end());
            static_cast<void>(*letter);
            at = (++letter).base();
        }
    } catch (const std::out_of_range&) {
        return static_cast<size_t>(at - whole.begin());
    }
    return {};
}

/// An arbor of a train as it stands in the text; `def` is the one it is counted in.
struct Entry {
    ArborItem item;
    size_t def = 0;
};

struct List {
    std::string name;
    bool quoted = false;
    bool off_ladder = false;
    std::optional<Reference> from;
    std::vector<Entry> entries;
};

/// An arbor that is counted in the text.
struct Definition {
    const ArborItem* item = nullptr;
    size_t list = 0;
    size_t place = 0;  ///< in its list
    std::string name;  ///< as written, or its usual one
    JobArbor arbor;
    bool known_again = false;
};

std::string joined(const std::vector<Word>& words) {
    std::string text;
    for (const Word& word : words) text += (text.empty() ? "" : " ") + word.text;
    return text;
}

/// Letters and digits of the name; no point, for parts are told by it.
std::string id_for(const std::string& name, const std::set<std::string>& taken) {
    std::string id;
    for (const char c : lower(name)) {
        const bool keeps = std::isalnum(static_cast<unsigned char>(c)) != 0 || static_cast<unsigned char>(c) >= 0x80;
        if (keeps) id += c;
        else if (!id.empty() && id.back() != '-') id += '-';
    }
    while (!id.empty() && id.back() == '-') id.pop_back();
    if (id.empty()) id = "arbor";
    std::string fresh = id;
    for (int i = 2; taken.contains(fresh); ++i) fresh = id + "-" + std::to_string(i);
    return fresh;
}

const char* ordinal(size_t place) {
    static constexpr const char* words[] = {"first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth", "tenth"};
    return place < std::size(words) ? words[place] : nullptr;
}

class Builder {
public:
    Builder(const TrainRecord& before, const TeethRecord& teeth) : m_before(before), m_teeth(teeth) {}

    Written build(std::string_view text) {
        if (const auto at = first_foreign_byte(text)) {
            m_out.train = m_before;
            m_out.forms = m_teeth.forms;
            m_out.faults.push_back({*at, 1, "a byte that is part of no letter", "text as UTF-8"});
            return std::move(m_out);
        }
        for (const Statement& statement : statements_of(text)) read(statement);
        take_names();
        know_again();
        take_counts();
        take_drives();
        finish();
        std::stable_sort(m_out.faults.begin(), m_out.faults.end(), [](const auto& a, const auto& b) { return a.at < b.at; });
        return std::move(m_out);
    }

private:
    const TrainRecord& m_before;
    const TeethRecord& m_teeth;
    Written m_out;
    std::vector<List> m_lists;
    std::vector<ItemRead> m_facts;
    std::vector<Definition> m_defs;
    std::vector<std::pair<size_t, size_t>> m_meshes;  ///< definitions: wheel of, pinion of

    /// What is done with one item: a fault is noted, the item passed over.
    template <class Do>
    bool attempt(const Do& work) {
        try {
            work();
            return true;
        } catch (const Fault& fault) {
            m_out.faults.push_back(fault.fault);
            return false;
        }
    }

    void read(const Statement& statement) {
        List list;
        attempt([&] { read_head(statement, list); });
        for (const Item& item : statement.items)
            attempt([&] {
                ItemRead read = read_item(item);
                if (auto* arbor = std::get_if<ArborItem>(&read)) list.entries.push_back({std::move(*arbor), 0});
                else m_facts.push_back(std::move(read));
            });
        if (!list.entries.empty()) m_lists.push_back(std::move(list));
    }

    static void read_head(const Statement& statement, List& list) {
        if (!statement.headed) return;
        const auto& head = statement.head;
        const auto from = std::find_if(head.begin(), head.end(), [](const Word& w) { return w.says("from"); });
        const std::vector<Word> name(head.begin(), from);
        list.quoted = std::any_of(name.begin(), name.end(), [](const Word& w) { return w.is == Word::Is::quoted; });
        list.name = joined(name);
        list.off_ladder = !list.quoted && lower(list.name) == "off the ladder";
        if (head.empty())
            refuse(statement.items.empty() ? 0 : statement.items.front().at, 0, "a colon without a name",
                   "the name of the train, as in strike: 84, 8/78");
        for (const Word& word : name)
            if (word.is == Word::Is::number || word.is == Word::Is::sign)
                refuse(word, "the name of a train, or from and a wheel, before the colon");
        if (from == head.end()) return;
        if (from + 1 == head.end()) refuse(*from, "an arbor and its wheel, as in from centre 64");
        list.from = Reference{{from + 1, head.end()}};
    }

    // ---- names ----

    /// What it is usually called where it stands.
    std::string usual_name(const List& list, size_t index, size_t place) const {
        const bool last = place + 1 == list.entries.size();
        const ArborItem& item = list.entries[place].item;
        if (item.hand && index > 0) return capital(*item.hand) + " hand";
        const bool power = !list.from && !list.off_ladder;
        if (power && place == 0) return index == 0 ? "Great" : list.name + " great";
        if (index == 0 && last) return "Escape";
        if (index == 0 && place == 1) return "Centre";
        const char* word = ordinal(place);
        const std::string number = word ? word : std::to_string(place + 1) + ".";
        return capital(index == 0 ? number : list.name + " " + number);
    }

    void take_names() {
        std::set<std::string> taken;
        for (size_t i = 0; i < m_lists.size(); ++i) {
            List& list = m_lists[i];
            const ArborItem& last = list.entries.back().item;
            if (list.name.empty() && list.from) list.name = last.hand ? capital(*last.hand) : "From " + joined(list.from->words);
            else if (list.name.empty()) list.name = i == 0 ? "Going train" : "Train " + std::to_string(i + 1);
            else if (!list.quoted) list.name = capital(list.name);
            for (size_t k = 0; k < list.entries.size(); ++k) {
                ArborItem& item = list.entries[k].item;
                if (!item.counted) continue;
                Definition def{&item, i, k, item.name, {}, false};
                if (item.name.empty()) def.name = usual_name(list, i, k);
                else if (!item.quoted) def.name = capital(item.name);
                const bool fresh = taken.insert(lower(def.name)).second;
                if (!fresh && item.name.empty()) {
                    int n = 2;
                    while (!taken.insert(lower(def.name + " " + std::to_string(n))).second) ++n;
                    def.name += " " + std::to_string(n);
                } else if (!fresh) {
                    m_out.faults.push_back({item.at, item.end - item.at, in_quotes(item.name) + " a second time", "a name used once"});
                    item.counted = false;
                    continue;
                }
                list.entries[k].def = m_defs.size();
                m_defs.push_back(std::move(def));
            }
        }
    }

    // ---- what was there before ----

    const TrainList* list_before(size_t index) const {
        const List& list = m_lists[index];
        for (const TrainList& there : m_before.trains)
            if (lower(there.name.empty() ? there.id : there.name) == lower(list.name)) return &there;
        return nullptr;
    }

    void know_again() {
        std::set<std::string> taken;
        const auto take = [&](Definition& def, const JobArbor& there) {
            def.arbor = there;
            def.known_again = true;
            taken.insert(there.train.id);
        };
        for (const auto* arbors : {&m_before.arbors, &m_before.gone})
            for (Definition& def : m_defs)
                for (const JobArbor& there : *arbors) {
                    if (def.known_again || taken.contains(there.train.id)) continue;
                    if (lower(there.called()) == lower(def.name) || lower(there.train.id) == lower(def.name)) take(def, there);
                }
        for (Definition& def : m_defs) {
            const TrainList* list = def.known_again ? nullptr : list_before(def.list);
            if (!list || list->arbors.size() != m_lists[def.list].entries.size()) continue;
            const JobArbor* there = m_before.arbor(list->arbors[def.place]);
            if (!there || taken.contains(there->train.id)) continue;
            take(def, *there);
            def.arbor.name = def.name;
        }
        for (const JobArbor& there : m_before.gone) taken.insert(there.train.id);
        for (Definition& def : m_defs) {
            if (def.known_again) continue;
            def.arbor.train.id = id_for(def.name, taken);
            def.arbor.name = def.name;
            taken.insert(def.arbor.train.id);
        }
    }

    // ---- counts ----

    static void check(const CountItem& count, bool driven) {
        const Range& range = count_range(driven);
        if (count.count.known() && !range.holds(static_cast<double>(count.count.value)))
            refuse(count.word, range.sentence() + (driven ? " leaves" : " teeth"));
    }

    void take_counts() {
        for (Definition& def : m_defs) {
            ArborInput& train = def.arbor.train;
            train.pinion = train.wheel = Count();
            train.pinions.clear(), train.wheels.clear();
            train.drives.reset(), train.coaxial_with.reset();
            def.arbor.pinion_trust.reset(), def.arbor.wheel_trust.reset();
            def.arbor.pinion_state = def.arbor.wheel_state = "counted";
            def.arbor.hand = def.item->hand;
            attempt([&] { take_counts_of(def); });
            if (train.wheel.present()) train.drives.emplace();
        }
    }

    void take_counts_of(Definition& def) {
        const ArborItem& item = *def.item;
        const List& list = m_lists[def.list];
        if (item.slash) {
            take_side(def, item.driven, true);
            take_side(def, item.driving, false);
            return;
        }
        const bool power = !list.from && !list.off_ladder && def.place == 0;
        const bool last = def.place + 1 == list.entries.size();
        if (!power && !last) refuse(item.driven.front().word, "pinion/wheel, as in 12/96; 12/ for a pinion alone, /96 for a wheel alone");
        take_side(def, item.driven, !power);
    }

    static void take_side(Definition& def, const std::vector<CountItem>& counts, bool driven) {
        ArborInput& train = def.arbor.train;
        for (size_t i = 0; i < counts.size(); ++i) {
            const CountItem& count = counts[i];
            if (!count.count.present()) continue;
            check(count, driven);
            if (i == 0) {
                (driven ? train.pinion : train.wheel) = count.count;
                (driven ? def.arbor.pinion_trust : def.arbor.wheel_trust) = count.trust;
                if (count.assumed) (driven ? def.arbor.pinion_state : def.arbor.wheel_state) = "assumed";
                continue;
            }
            if (count.trust || count.assumed)
                refuse(count.word, "a count that is known or lost: only the first on its side can be doubted");
            std::string name = count.name.empty() ? (driven ? "pinion-" : "wheel-") + std::to_string(i + 1) : count.name;
            std::replace(name.begin(), name.end(), '.', '-');
            const auto same = [&](const auto& other) { return other.name == name; };
            if (name == "wheel" || name == "pinion" || std::any_of(train.wheels.begin(), train.wheels.end(), same) ||
                std::any_of(train.pinions.begin(), train.pinions.end(), same))
                refuse(count.word, "a name of its own for each count beside the first");
            if (driven) train.pinions.push_back({name, count.count});
            else train.wheels.push_back({name, count.count, {}});
        }
    }

    // ---- what drives what ----

    /// By what it is called in this text, else in the job, else by its id.
    std::optional<size_t> find_def(const std::string& name) const {
        const std::string wanted = lower(name);
        const auto by = [&](const auto& called) -> std::optional<size_t> {
            for (size_t i = 0; i < m_defs.size(); ++i)
                if (lower(called(m_defs[i])) == wanted) return i;
            return {};
        };
        if (const auto at = by([](const Definition& def) { return def.name; })) return at;
        if (const auto at = by([](const Definition& def) { return def.arbor.called(); })) return at;
        return by([](const Definition& def) { return def.arbor.train.id; });
    }

    size_t def_of(const Reference& reference) const {
        if (const auto def = find_def(joined(reference.words))) return *def;
        refuse(reference.at(), reference.length(), in_quotes(joined(reference.words)), "the name of an arbor in this text");
    }

    /// An arbor, and which of its wheels: the name of one, empty for the first.
    std::pair<size_t, std::string> wheel_of(const Reference& reference) const {
        const auto& words = reference.words;
        if (const auto def = find_def(joined(words))) return {*def, ""};
        for (size_t split = words.size() - 1; split > 0; --split) {
            const auto def = find_def(joined({words.begin(), words.begin() + static_cast<std::ptrdiff_t>(split)}));
            if (!def) continue;
            const std::vector<Word> told(words.begin() + static_cast<std::ptrdiff_t>(split), words.end());
            return {*def, wheel_told(m_defs[*def].arbor, told)};
        }
        return {def_of(reference), ""};
    }

    static std::string wheel_told(const JobArbor& arbor, const std::vector<Word>& told) {
        const std::string name = joined(told);
        const auto teeth = told.size() == 1 ? read_whole(told.front().text) : std::nullopt;
        if (teeth && arbor.train.wheel == Count(*teeth)) return "";
        for (const WheelInput& wheel : arbor.train.wheels)
            if (wheel.name == name || (teeth && wheel.teeth == Count(*teeth))) return wheel.name;
        refuse(told.front().at, told.back().end() - told.front().at, in_quotes(name),
               "a wheel of " + arbor.called() + ", by its count or its name");
    }

    void take_drives() {
        for (List& list : m_lists)
            for (size_t k = 0; k < list.entries.size(); ++k)
                if (!list.entries[k].item.counted) resolve(list.entries[k]);
        for (size_t i = 0; i < m_lists.size(); ++i)
            for (size_t k = 0; k < m_lists[i].entries.size(); ++k)
                if (m_lists[i].entries[k].item.counted) attempt([&] { drive(m_lists[i], k); });
    }

    /// An arbor that is only named here.
    void resolve(Entry& entry) {
        const auto def = find_def(entry.item.name);
        entry.def = def.value_or(m_defs.size());
        const bool told =
            std::any_of(m_out.faults.begin(), m_out.faults.end(), [&](const WrittenFault& f) { return f.at == entry.item.at; });
        if (!def && !told)
            m_out.faults.push_back({entry.item.at, entry.item.end - entry.item.at, in_quotes(entry.item.name),
                                    "counts behind it, as in centre 12/96, or the name of an arbor in this text"});
    }

    void drive(const List& list, size_t place) {
        const Entry& entry = list.entries[place];
        const ArborItem& item = entry.item;
        Definition& def = m_defs[entry.def];
        if (item.on) def.arbor.train.coaxial_with = m_defs[def_of(*item.on)].arbor.train.id;
        std::optional<std::pair<size_t, std::string>> driver;
        if (item.driven_by) driver = wheel_of(*item.driven_by);
        else if (item.apart) driver.reset();
        else if (place > 0 && list.entries[place - 1].def < m_defs.size()) driver = {list.entries[place - 1].def, ""};
        else if (place == 0 && list.from) driver = wheel_of(*list.from);
        if (!driver) return;
        mesh(m_defs[driver->first], driver->second, def);
        m_meshes.emplace_back(driver->first, entry.def);
    }

    static void mesh(Definition& from, const std::string& wheel, Definition& to) {
        const ArborInput& driven = to.arbor.train;
        const auto at = to.item->at, length = to.item->end - to.item->at;
        std::string target = driven.id;
        if (to.item->by) {
            target += "." + to.item->by->text;
        } else if (driven.pinion.present()) {
            if (!driven.pinions.empty()) target += ".pinion";
        } else if (driven.pinions.empty()) {
            refuse(at, length, "no pinion, although " + from.arbor.called() + " would drive it",
                   "pinion/wheel, as in 12/96, or apart before it");
        } else if (driven.pinions.size() > 1) {
            target += "." + driven.pinions.front().name;
        }
        if (to.item->by && to.item->by->text != "pinion" &&
            std::none_of(driven.pinions.begin(), driven.pinions.end(), [&](const PinionInput& p) { return p.name == to.item->by->text; }))
            refuse(*to.item->by, "the name of one of its pinions");
        if (wheel.empty() && !from.arbor.train.wheel.present())
            refuse(at, length, "no wheel on " + from.arbor.called() + " to drive it",
                   "a wheel there, as in 12/96, or apart before this one");
        if (wheel.empty()) return from.arbor.train.drives->push_back(target);
        for (WheelInput& extra : from.arbor.train.wheels)
            if (extra.name == wheel) extra.drives.push_back(target);
    }

    // ---- the whole ----

    void finish() {
        TrainRecord& train = m_out.train;
        train = m_before;
        train.arbors.clear(), train.trains.clear();
        for (const Definition& def : m_defs) train.arbors.push_back(def.arbor);
        keep_order();
        for (size_t i = 0; i < m_lists.size(); ++i) take_list(i);
        take_gone();
        take_facts();
        take_forms();
        tell_meshes();
    }

    void keep_order() {
        auto& arbors = m_out.train.arbors;
        const auto place = [&](const JobArbor& arbor) { return m_before.arbor(arbor.train.id) - m_before.arbors.data(); };
        const bool same = arbors.size() == m_before.arbors.size() && std::all_of(arbors.begin(), arbors.end(), [&](const JobArbor& a) {
                              return m_before.arbor(a.train.id) != nullptr;
                          });
        if (same) std::sort(arbors.begin(), arbors.end(), [&](const JobArbor& a, const JobArbor& b) { return place(a) < place(b); });
    }

    void take_list(size_t index) {
        const List& list = m_lists[index];
        if (list.off_ladder) return;
        TrainList out;
        std::set<std::string> taken;
        for (const TrainList& other : m_out.train.trains) taken.insert(other.id);
        const TrainList* before = list_before(index);
        if (before && !taken.contains(before->id)) out = *before;
        else out.id = index == 0 && !taken.contains("going") ? "going" : id_for(list.name, taken), out.name = list.name;
        out.arbors.clear();
        if (list.from) attempt([&] { out.arbors.push_back(m_defs[wheel_of(*list.from).first].arbor.train.id); });
        for (const Entry& entry : list.entries)
            if (entry.def < m_defs.size()) out.arbors.push_back(m_defs[entry.def].arbor.train.id);
        m_out.train.trains.push_back(std::move(out));
    }

    void take_gone() {
        TrainRecord& train = m_out.train;
        for (const JobArbor& was : m_before.arbors) {
            if (train.arbor(was.train.id)) continue;
            std::erase_if(train.gone, [&](const JobArbor& old) { return old.train.id == was.train.id; });
            train.gone.push_back(was);
        }
        std::erase_if(train.gone, [&](const JobArbor& old) { return train.arbor(old.train.id) != nullptr; });
        std::erase_if(train.choices, [&](const Choice& choice) { return !train.arbor(choice.part.substr(0, choice.part.find('.'))); });
    }

    /// What the text says when it says nothing.
    void usual_facts() {
        TrainRecord& train = m_out.train;
        train.reference = {};
        train.escape_arbor.reset();
        train.beats_per_tooth = 2;
        train.winding_turns.reset();
        if (m_defs.empty()) return;
        const auto centre = find_def("centre");
        const auto second = std::find_if(m_defs.begin(), m_defs.end(), [](const Definition& d) { return d.list == 0 && d.place == 1; });
        train.reference.arbor = (centre ? m_defs[*centre] : second != m_defs.end() ? *second : m_defs.front()).arbor.train.id;
        if (const auto escape = usual_escape(train)) train.escape_arbor = *escape;
    }

    void take_facts() {
        usual_facts();
        std::erase_if(m_out.train.measurements, [](const Measurement& m) { return writes(m); });
        bool period_told = false;
        for (const ItemRead& fact : m_facts)
            attempt([&] {
                if (const auto* period = std::get_if<PeriodFact>(&fact)) {
                    const std::string id = m_defs[def_of(period->arbor)].arbor.train.id;
                    if (period_told) return void(know({"period_s", id, {}, {}}, period->value_s, period->u));
                    m_out.train.reference = {id, period->period_s, period->left ? "ccw" : "cw"};
                    period_told = true;
                } else {
                    take_fact(fact);
                }
            });
    }

    void take_fact(const ItemRead& fact) {
        TrainRecord& train = m_out.train;
        if (const auto* beats = std::get_if<BeatsFact>(&fact)) know({"beats_per_hour", {}, {}, {}}, beats->per_hour, beats->u);
        if (const auto* pendulum = std::get_if<PendulumFact>(&fact)) know({"pendulum_length_mm", {}, {}, {}}, pendulum->mm, pendulum->u);
        if (std::get_if<OneBeatFact>(&fact)) train.beats_per_tooth = 1;
        if (const auto* hand = std::get_if<HandFact>(&fact)) take_hand(*hand);
        if (const auto* run = std::get_if<RunFact>(&fact)) {
            train.winding_turns = run->turns;
            if (run->run_s && !train.arbors.empty())
                know({"run_s", train.arbors.front().train.id, {}, {}}, *run->run_s, run->u).turns = run->turns;
        }
        if (const auto* escape = std::get_if<EscapeFact>(&fact)) {
            train.escape_arbor.reset();
            if (escape->arbor) {
                const Definition& def = m_defs[def_of(*escape->arbor)];
                const ArborInput& arbor = def.arbor.train;
                const bool idle =
                    (arbor.wheel.present() && arbor.drives->empty()) ||
                    std::any_of(arbor.wheels.begin(), arbor.wheels.end(), [](const WheelInput& w) { return w.drives.empty(); });
                if (!idle)
                    refuse(escape->arbor->at(), escape->arbor->length(), in_quotes(joined(escape->arbor->words)),
                           "an arbor with a wheel that drives no pinion");
                train.escape_arbor = arbor.id;
            }
        }
    }

    void take_hand(const HandFact& fact) {
        const std::string id = m_defs[def_of(fact.arbor)].arbor.train.id;
        for (JobArbor& arbor : m_out.train.arbors)
            if (arbor.train.id == id) arbor.hand = fact.hand;
        if (id != m_out.train.reference.arbor) know({"period_s", id, {}, {}}, find_period(fact.hand)->period_s.to_double(), {});
    }

    Evidence& know(const QuantityKey& key, double value, std::optional<double> u) {
        auto& all = m_out.train.measurements;
        Measurement fresh;
        fresh.evidence = {key, value, u.value_or(key.declared().workshop_u)};
        fresh.instrument = "written down";
        const auto before = std::find_if(m_before.measurements.begin(), m_before.measurements.end(), [&](const Measurement& m) {
            return m.evidence.key == key && writes(m) && m.evidence.value == value && m.evidence.u == fresh.evidence.u;
        });
        if (before != m_before.measurements.end()) fresh = *before;
        else fresh.id = free_id(key);
        std::erase_if(all, [&](const Measurement& m) { return m.evidence.key == key && !m.left_out; });
        // Where it stood before, for a job that says the same is the same.
        size_t at = all.size();
        if (before != m_before.measurements.end()) {
            at = 0;
            for (auto m = m_before.measurements.begin(); m != before; ++m)
                at += static_cast<size_t>(std::count_if(all.begin(), all.end(), [&](const Measurement& kept) { return kept.id == m->id; }));
        }
        return all.insert(all.begin() + static_cast<std::ptrdiff_t>(at), fresh)->evidence;
    }
    std::string free_id(const QuantityKey& key) const {
        std::set<std::string> taken;
        for (const auto* all : {&m_before.measurements, &m_out.train.measurements})
            for (const Measurement& m : *all) taken.insert(m.id);
        return id_for("written " + key.id(), taken);
    }

    void take_forms() {
        m_out.forms = m_teeth.forms;
        const auto form_of = [&](size_t wheel, size_t pinion) {
            return std::find_if(m_out.forms.begin(), m_out.forms.end(), [&](const MeshForm& f) {
                return f.wheel_of == m_defs[wheel].arbor.train.id && f.pinion_of == m_defs[pinion].arbor.train.id;
            });
        };
        std::erase_if(m_out.forms, [&](const MeshForm& form) {
            return std::none_of(m_meshes.begin(), m_meshes.end(), [&](const auto& mesh) {
                return form.wheel_of == m_defs[mesh.first].arbor.train.id && form.pinion_of == m_defs[mesh.second].arbor.train.id;
            });
        });
        for (const auto& [wheel, pinion] : m_meshes) {
            const auto there = form_of(wheel, pinion);
            const bool is_lantern = there != m_out.forms.end() && there->form.school == "lantern";
            if (m_defs[pinion].item->lantern == is_lantern) continue;
            if (there != m_out.forms.end()) m_out.forms.erase(there);
            if (m_defs[pinion].item->lantern)
                m_out.forms.push_back({m_defs[wheel].arbor.train.id, m_defs[pinion].arbor.train.id, {"lantern"}});
        }
    }

    void tell_meshes() {
        if (m_defs.empty()) return;
        try {
            m_out.train = with_meshes_told(m_out.train);
        } catch (const InputError& error) {
            const auto odd = std::find_if(m_defs.begin(), m_defs.end(), [](const Definition& d) { return d.item->driven_by.has_value(); });
            const ArborItem& item = odd == m_defs.end() ? *m_defs.front().item : *odd->item;
            const bool told = !m_out.faults.empty();
            if (!told) m_out.faults.push_back({item.at, item.end - item.at, error.got(), error.accepts()});
        }
    }

    /// Whether the text tells this reading.
    static bool writes(const Measurement& m) {
        static const std::set<std::string> kinds = {"beats_per_hour", "pendulum_length_mm", "period_s", "run_s"};
        return !m.left_out && kinds.contains(m.evidence.key.kind);
    }
};

}  // namespace

std::optional<std::string> usual_escape(const TrainRecord& train) {
    if (train.trains.empty() || train.trains.front().arbors.empty()) return {};
    const JobArbor* last = train.arbor(train.trains.front().arbors.back());
    if (!last || !last->train.wheel.present() || !last->train.drives || !last->train.drives->empty()) return {};
    return last->train.id;
}

Written read_written(std::string_view text, const TrainRecord& before, const TeethRecord& teeth) {
    return Builder(before, teeth).build(text);
}

TrainRecord with_meshes_told(TrainRecord train) {
    const TrainInput told = with_meshes_told(written_train(train));
    for (size_t i = 0; i < train.arbors.size(); ++i) train.arbors[i].train = told.arbors[i];
    return train;
}

}  // namespace echappe
