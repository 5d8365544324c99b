#pragma once

#include <rapidcheck.h>

#include <set>

#include "teeth/record.h"
#include "train/record.h"

namespace movements {

struct Movement {
    echappe::TrainRecord train;
    echappe::TeethRecord teeth;
};

/// Any movement that a job may hold: arbors with several wheels and pinions, branches, trains with their own power, arbors on the
/// axis of others, counts lost, doubted and assumed, hands, what is known of its beat, and names that need marks.
class Maker {
public:
    Movement make() {
        const int arbors = number(1, 9);
        for (int i = 0; i < arbors; ++i) add_arbor(i);
        for (int i = 1; i < arbors; ++i)
            if (chance(80)) drive(static_cast<size_t>(number(0, i - 1)), static_cast<size_t>(i));
        add_lists();
        add_facts();
        return std::move(m_out);
    }

private:
    Movement m_out;
    std::vector<std::string> m_drives;  ///< "wheel" or "extra" of each arbor

    static int number(int low, int high) { return *rc::gen::inRange(low, high + 1); }
    static bool chance(int percent) { return number(1, 100) <= percent; }
    static echappe::Count count(int most) { return chance(20) ? echappe::Count::lost() : echappe::Count(number(4, most)); }

    void add_arbor(int i) {
        static const std::vector<std::string> names = {"Great",      "Centre",          "Third wheel",    "minute",
                                                       "St. Elms",   "Rad \"A\", left", "lantern driven", "Übertrag",
                                                       "4th; upper", "Hand on",         "Off the rail"};
        echappe::JobArbor arbor;
        arbor.train.id = "a" + std::to_string(i);
        if (chance(90))
            arbor.name = names[static_cast<size_t>(number(0, static_cast<int>(names.size()) - 1))] +
                         (chance(70) ? " " + std::string(1, static_cast<char>('A' + i)) : "");
        if (i > 0 && chance(15)) arbor.train.coaxial_with = "a" + std::to_string(number(0, i - 1));
        if (chance(20)) arbor.hand = *rc::gen::element<std::string>("seconds", "hours", "tide", "lunar-day");
        m_out.train.arbors.push_back(arbor);
    }

    void drive(size_t from, size_t to) {
        echappe::JobArbor& wheel = m_out.train.arbors[from];
        echappe::JobArbor& pinion = m_out.train.arbors[to];
        std::string target = pinion.train.id;
        const bool second = chance(15);
        if (!second || chance(50)) {
            pinion.train.pinion = count(200);
            if (pinion.train.pinion.known() && chance(15)) pinion.pinion_trust = number(1, 99) / 100.0;
            if (pinion.train.pinion.known() && chance(10)) pinion.pinion_state = "assumed";
        }
        if (second) {
            pinion.train.pinions.push_back({chance(50) && pinion.train.pinion.present() ? "pinion-2" : "cannon", count(200)});
            target += chance(50) || !pinion.train.pinion.present() ? "." + pinion.train.pinions.front().name : ".pinion";
        }
        if (chance(75)) {
            if (!wheel.train.wheel.present()) {
                wheel.train.wheel = count(1000);
                wheel.train.drives.emplace();
                if (wheel.train.wheel.known() && chance(15)) wheel.wheel_trust = 0.5;
                if (wheel.train.wheel.known() && chance(10)) wheel.wheel_state = "assumed";
            }
            wheel.train.drives->push_back(target);
        } else {
            const size_t place = wheel.train.wheels.size();
            const std::string name = chance(50) ? "wheel-" + std::to_string(place + 2)
                                                : std::string(1, static_cast<char>('p' + static_cast<int>(place))) + " rim";
            wheel.train.wheels.push_back({name, count(1000), {target}});
        }
        if (chance(15)) {
            m_out.teeth.forms.push_back({wheel.train.id, pinion.train.id, {}});
            m_out.teeth.forms.back().form.school = "lantern";
        }
    }

    /// Every arbor in at most one list, and some in a second.
    void add_lists() {
        const int lists = number(0, 3);
        for (int k = 0; k < lists; ++k) {
            echappe::TrainList list;
            list.id = "t" + std::to_string(k);
            list.name = *rc::gen::element<std::string>("Going train", "Strike", "tide", "From the back: left") +
                        (k > 0 ? " " + std::to_string(k) : "");
            for (size_t i = 0; i < m_out.train.arbors.size(); ++i)
                if (chance(100 / lists)) list.arbors.push_back(m_out.train.arbors[i].train.id);
            if (!list.arbors.empty()) m_out.train.trains.push_back(list);
        }
    }

    void add_facts() {
        auto& train = m_out.train;
        const auto any = [&] { return train.arbors[static_cast<size_t>(number(0, static_cast<int>(train.arbors.size()) - 1))].train.id; };
        train.reference.arbor = any();
        train.reference.period_s = echappe::Rational(number(1, 100000), chance(70) ? 1 : number(1, 97));
        if (chance(30)) train.reference.direction = "ccw";
        for (const auto& arbor : train.arbors) {
            const bool idle = arbor.train.wheel.present() && arbor.train.drives && arbor.train.drives->empty();
            if (idle) train.escape_arbor = arbor.train.id;
        }
        echappe::JobArbor& last = train.arbors.back();
        if (chance(60) && !last.train.wheel.present()) {
            last.train.wheel = count(1000);
            last.train.drives.emplace();
            train.escape_arbor = last.train.id;
        }
        if (chance(20)) train.beats_per_tooth = 1;
        if (chance(40)) train.winding_turns = number(1, 4000) / 16.0;
        const auto know = [&](echappe::QuantityKey key, double value, double u) -> echappe::Evidence& {
            echappe::Measurement& m = train.measurements.emplace_back();
            m.id = "m" + std::to_string(train.measurements.size());
            m.evidence = {key, value, u};
            m.instrument = "ear";
            return m.evidence;
        };
        if (chance(40)) know({"beats_per_hour", {}, {}, {}}, number(1000, 30000), chance(50) ? 1 : 0.3);
        if (chance(30)) know({"pendulum_length_mm", {}, {}, {}}, number(10, 99999) / 7.0, chance(50) ? 5 : 1.25);
        if (const std::string id = any(); chance(30) && id != train.reference.arbor)
            know({"period_s", id, {}, {}}, chance(50) ? 60 : number(1, 1000000) / 3.0, 0.5);
        if (train.winding_turns && chance(50))
            know({"run_s", train.arbors.front().train.id, {}, {}}, 3600.0 * number(1, 800), 7200).turns = train.winding_turns;
    }
};

}  // namespace movements
