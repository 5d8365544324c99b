#include "strike/heard.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* heard_source = "Bayes' rule over strikes stepped blow by blow";
constexpr double single = 1, two = 0.1, none = 0.3, out_of_step = 4;  // how likely before anything is heard, against each other
constexpr long long a_day = 24;
constexpr size_t told_at_most = 8;
constexpr size_t listed_faults = 60;  // as many single faults as are put in pairs

/// Strikes by their place after the first one heard.
struct Listened {
    long long from = 1;
    long long hours = 1;
    std::vector<size_t> at;  ///< of each that was heard
};

/// Where each strike that was heard stands in the sequence that begins with the first one's hour. Throws InputError.
Listened listened_to(const StrikeHeardInput& in) {
    if (in.heard.empty()) throw InputError("heard", "nothing", "what was counted, hour by hour");
    Listened out;
    out.from = static_cast<long long>(std::floor(in.heard.front().hour));
    const std::vector<Strike> day = strikes_from(in.scheme, in.blows, out.from, 2 * a_day);
    size_t at = 0;
    for (const HeardStrike& one : in.heard) {
        while (at < day.size() && std::abs(day[at].hour - one.hour) > 1e-6) ++at;
        if (at == day.size())
            throw InputError("hour", print_short(one.hour, 6), "an hour that is struck, after the one before it and within two days");
        out.at.push_back(at++);
    }
    const size_t an_hour = day.size() / (2 * static_cast<size_t>(a_day));
    out.hours = static_cast<long long>(out.at.back() / an_hour) + 1;
    return out;
}

/// Those that both kinds can have.
std::vector<StrikeFault> with_the_warning(std::vector<StrikeFault> all) {
    for (const char* what : {"warning short", "mesh off"}) all.push_back({what, {}, {}, {}, {}});
    return all;
}

std::vector<StrikeFault> single_faults(const StrikeHeardInput& in, const std::vector<long long>& blows) {
    std::vector<StrikeFault> all;
    const auto groups = static_cast<long long>(blows.size());
    if (in.kind == "countwheel") {
        for (long long slot = 1; slot <= groups; ++slot)
            for (const char* what : {"slot wide", "slot shallow"}) all.push_back({what, slot, {}, {}, {}});
        all.push_back({"detent late", {}, {}, {}, {}});
        return all;
    }
    const long long most = *std::max_element(blows.begin(), blows.end());
    for (long long tooth = 1; tooth <= most; ++tooth) all.push_back({"tooth lost", {}, tooth, {}, {}});
    for (const long long teeth : {-3, -2, -1, 1, 2, 3}) all.push_back({"tail bent", {}, {}, {}, teeth});
    for (long long step = 1; step <= most; ++step)
        for (const long long teeth : {-1, 1}) all.push_back({"step off", {}, {}, step, teeth});
    return all;
}

std::string words_of(const Struck& struck, const char* strikes, const char* runs_on) {
    if (!struck.strikes) return runs_on;
    const std::string all = std::string(strikes) + " " + std::to_string(*struck.strikes);
    return struck.early == 0 ? all
                             : all + ", " + (struck.early == struck.strikes ? "all" : std::to_string(struck.early)) + " at the warning";
}

/// Some faults, what they would strike from the first hour heard to a day beyond the last, and how likely that is.
struct Weighed {
    std::vector<StrikeFault> faults;
    std::vector<Struck> strikes;
    double weight = 0;
};

class Weighing {
public:
    explicit Weighing(const StrikeHeardInput& in)
        : m_in(in),
          m_listened(listened_to(in)),
          m_blows(blows_of(in.scheme, in.blows)),
          m_times(strikes_from(in.scheme, in.blows, m_listened.from, m_listened.hours + a_day)) {
        weigh({}, none);
        const std::vector<StrikeFault> faults = with_the_warning(single_faults(in, m_blows));
        const auto each = 1.0 / static_cast<double>(faults.size());
        for (const StrikeFault& fault : faults) weigh({fault}, single * each);
        const std::vector<StrikeFault> hands = hands_set();
        const double each_hand = 1.0 / static_cast<double>(hands.size());
        for (const StrikeFault& hand : hands) {
            weigh({hand}, (in.kind == "countwheel" ? out_of_step : single) * each_hand);
            for (const StrikeFault& fault : faults) weigh({fault, hand}, two * each * each_hand);
        }
        // What one fault explains wholly, two need not.
        if (!m_explained && faults.size() <= listed_faults)
            for (size_t i = 0; i < faults.size(); ++i)
                for (size_t k = i + 1; k < faults.size(); ++k) weigh({faults[i], faults[k]}, 2 * two * each * each);
        double sum = 0;
        for (const Weighed& one : m_all) sum += one.weight;
        for (Weighed& one : m_all) one.weight /= sum;
        std::stable_sort(m_all.begin(), m_all.end(), [](const Weighed& x, const Weighed& y) { return x.weight > y.weight; });
    }

    /// The likeliest, in words.
    std::vector<StrikeCause> causes() const {
        std::vector<StrikeCause> all;
        for (const Weighed& one : m_all) {
            if (all.size() == told_at_most) break;
            all.push_back(in_words(one));
        }
        return all;
    }

    /// The hour of the next day whose strike tells most, by the entropy of what is expected there.
    std::optional<StrikeTest> next() const {
        std::optional<StrikeTest> best;
        const size_t last = m_listened.at.back();
        const auto an_hour = static_cast<double>(m_times.size()) / static_cast<double>(m_listened.hours + a_day);
        for (size_t at = last + 1; at < m_times.size(); ++at) {
            std::map<std::pair<long long, long long>, double> expected;
            for (const Weighed& one : m_all) {
                constexpr double never = 1e-6;  // the rest tells nothing that is heard
                if (one.weight < never) break;
                expected[{one.strikes[at].strikes.value_or(0), one.strikes[at].early}] += one.weight;
            }
            double bits = 0;
            for (const auto& [strikes, share] : expected) bits -= share * std::log2(share);
            constexpr double worth = 0.05;
            if (bits < worth || (best && bits <= best->bits + 1e-9)) continue;
            const double after = static_cast<double>(at - last) / an_hour;
            best = StrikeTest{m_times[at].hour, std::llround(after), bits, words_of_test(at)};
        }
        return best;
    }

private:
    /// Every strike that it may stand ready for but the right one.
    std::vector<StrikeFault> hands_set() const {
        std::vector<StrikeFault> all;
        for (size_t group = 0; group < m_blows.size(); ++group)
            if (group != m_times.front().group) all.push_back({"hand set", {}, {}, hour_of_group(m_in.scheme, group), {}});
        return all;
    }
    void weigh(std::vector<StrikeFault> faults, double prior) {
        StrikeSequenceInput run;
        run.kind = m_in.kind, run.scheme = m_in.scheme, run.faults = std::move(faults);
        Weighed one{{}, struck_at(run, m_blows, m_times), prior};
        constexpr double ways = 12;  // a miscount may come out as any
        for (size_t i = 0; i < m_in.heard.size(); ++i)
            one.weight *= m_in.heard[i].is(one.strikes[m_listened.at[i]]) ? 1 - m_in.miscount : m_in.miscount / ways;
        size_t explains = 0;
        for (size_t i = 0; i < m_in.heard.size(); ++i) explains += m_in.heard[i].is(one.strikes[m_listened.at[i]]);
        m_explained = m_explained || explains == m_in.heard.size();
        one.faults = std::move(run.faults);
        m_all.push_back(std::move(one));
    }
    StrikeCause in_words(const Weighed& one) const {
        StrikeCause cause;
        cause.faults = one.faults;
        cause.words = words_of_all(one);
        cause.probability = one.weight;
        std::string not_so;
        for (size_t i = 0; i < m_in.heard.size(); ++i) {
            const Struck& would = one.strikes[m_listened.at[i]];
            if (m_in.heard[i].is(would)) ++cause.explains;
            else if (not_so.empty())
                not_so = "; at " + words_of_time(m_times[m_listened.at[i]].hour) + " it would " + words_of(would, "strike", "run on");
        }
        cause.mend = mend_of(one.faults);
        cause.because = "It explains " + std::to_string(cause.explains) + " of " + std::to_string(m_in.heard.size()) + not_so + ".";
        return cause;
    }
    /// First what can be undone.
    std::string mend_of(const std::vector<StrikeFault>& faults) const {
        const auto hand = std::find_if(faults.begin(), faults.end(), [](const StrikeFault& one) { return one.what == "hand set"; });
        if (hand == faults.end()) return faults.empty() ? "" : mend_of_metal(faults.front());
        std::string words = m_in.kind == "rack" ? set_the_hands(*hand) : strike_on(*hand);
        if (faults.size() > 1) words += " Then hear a whole round before any metal is touched.";
        return words;
    }
    /// Strikes that are still to be let off until it stands where the hand does.
    size_t strikes_behind(const StrikeFault& hand) const {
        const size_t all = m_blows.size();
        return (m_times.front().group + all - ready_for(m_in.scheme, hand, all)) % all;
    }
    std::string strike_on(const StrikeFault& hand) const {
        const size_t on = strikes_behind(hand), back = m_blows.size() - on;
        std::string words = "Lift the detent by hand and let it strike out, " + times(on) + "; that touches no metal.";
        if (back < on) words += " Or keep it from striking " + times(back) + ", by holding the lifting piece off as the hand passes.";
        return words + " If it falls out of step again, look for what lets it: a slot, the detent, or a spring left to run down.";
    }
    std::string set_the_hands(const StrikeFault& hand) const {
        const double behind = static_cast<double>(strikes_behind(hand)) / static_cast<double>(strikes_an_hour(m_in.scheme));
        if (m_in.scheme == "quarters") return "Set the minute hand on its square by as many quarters as it is out.";
        const bool half = behind != std::floor(behind);
        return (half ? std::string("The minute hand stands half a turn out on its square; set it round. ") : std::string()) +
               "Move the hour hand on its pipe to the hour that it struck; a rack counts what its snail shows.";
    }
    static std::string times(size_t many) { return many == 1 ? "once" : std::to_string(many) + " times"; }
    static std::string mend_of_metal(const StrikeFault& fault) {
        if (fault.what == "warning short" || fault.what == "mesh off") return "Turn the wheels to each other by a tooth; nothing is filed.";
        if (fault.what == "detent late") return "Look at the detent and its spring: clean, free, and bent back before any slot is touched.";
        return "Let it strike round by hand and watch that one before any metal is touched.";
    }
    static std::string words_of_all(const Weighed& one) {
        if (one.faults.empty()) return "it is sound, and was miscounted";
        std::string words;
        for (const StrikeFault& fault : one.faults) words += (words.empty() ? "" : ", and ") + words_of(fault);
        return words;
    }
    std::string words_of_test(size_t at) const {
        std::string words = "Listen at " + words_of_time(m_times[at].hour) + ":";
        constexpr double worth = 0.04;
        for (size_t i = 0; i < std::min<size_t>(m_all.size(), 4); ++i) {
            if (i > 1 && m_all[i].weight < worth) break;
            words += (i == 0 ? " it " : "; it ") + words_of(m_all[i].strikes[at], "strikes", "runs on") + " if " + words_of_all(m_all[i]);
        }
        return words + ".";
    }

    const StrikeHeardInput& m_in;
    Listened m_listened;
    std::vector<long long> m_blows;
    std::vector<Strike> m_times;
    std::vector<Weighed> m_all;
    bool m_explained = false;  ///< by one of them, all that was heard
};

/// The one thing to do, with its reason.
std::string in_words(const StrikeHeardResult& out) {
    const StrikeCause& first = out.causes.front();
    constexpr double sure = 0.9;
    if (first.faults.empty()) return "Nothing is wrong by what was heard.";
    std::string words = "Most likely " + first.words + ". " + first.mend;
    if (first.probability < sure && out.next) words += " " + out.next->words;
    return words;
}

}  // namespace

StrikeHeardResult strike_heard(const StrikeHeardInput& in) {
    const Weighing weighing(in);
    StrikeHeardResult out;
    out.causes = weighing.causes();
    out.next = weighing.next();
    out.verdict = in_words(out);
    return out;
}

std::vector<Working> explain_strike_heard(const StrikeHeardInput& in, const StrikeHeardResult& out) {
    std::vector<Working> list = {work_out("a strike that was counted wrong", "p = chance of a miscount",
                                          {given("p", "of each", in.miscount, "")}, "", heard_source, [](auto x) { return x[0]; })};
    for (const StrikeCause& cause : out.causes)
        list.back().notes.push_back(print_fixed(100 * cause.probability, 1) + " %: " + cause.words + ". " + cause.because);
    return list;
}

const Record& HeardStrike::record() {
    using In = HeardStrike;
    static const Record record = Fields<In>()
                                     .add("hour", &In::hour, "h", "12.5 is half past twelve", between(1, 1000))
                                     .required()
                                     .add("strikes", &In::strikes, "", "blows that were counted; null: it ran on", between(0, 1000))
                                     .add("early", &In::early, "", "of them at the warning; null: nobody looked", between(0, 1000));
    return record;
}

const Record& StrikeHeardInput::record() {
    using In = StrikeHeardInput;
    static const Record record = [] {
        Fields<In> fields;
        fields.add("kind", &In::kind, "", "what counts").choices({"countwheel", "rack"}).because("the older of the two");
        add_scheme(fields)
            .add("heard", &In::heard, "", "what was counted, in its order; hours between may be missing")
            .required()
            .add("miscount", &In::miscount, "", "chance that a strike was counted wrong", between(0, 0.5))
            .because("one in fifty, by ear");
        return Record(fields);
    }();
    return record;
}

const Record& StrikeCause::record() {
    using Out = StrikeCause;
    static const Record record = Fields<Out>()
                                     .add("faults", &Out::faults, "", "that together would strike so; none: it is sound")
                                     .add("words", &Out::words, "", "the same in words")
                                     .add("probability", &Out::probability, "", "of all that were weighed")
                                     .add("explains", &Out::explains, "", "strikes of those that were heard")
                                     .add("because", &Out::because, "", "what speaks for it and against it")
                                     .add("mend", &Out::mend, "", "what to do about it, what can be undone first");
    return record;
}

const Record& StrikeTest::record() {
    using Out = StrikeTest;
    static const Record record = Fields<Out>()
                                     .add("hour", &Out::hour, "h", "to listen to")
                                     .add("after_hours", &Out::after_hours, "h", "after the last one that was heard")
                                     .add("bits", &Out::bits, "bit", "expected of it")
                                     .add("words", &Out::words, "", "what each cause would strike");
    return record;
}

const Record& StrikeHeardResult::record() {
    using Out = StrikeHeardResult;
    static const Record record = Fields<Out>()
                                     .add("causes", &Out::causes, "", "the likeliest first, eight at most")
                                     .add("next", &Out::next, "", "the hour that tells them apart best")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& strike_heard_calculation() {
    static const Calculation calculation =
        declare<StrikeHeardInput, StrikeHeardResult>("strike.heard", "From what was counted hour by hour to what is wrong with the strike.",
                                                     heard_source, strike_heard, explain_strike_heard);
    return calculation;
}

}  // namespace echappe
