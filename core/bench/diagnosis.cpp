#include "bench/diagnosis.h"

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <set>

#include "exchange/whole_file.h"
#include "number/input_error.h"
#include "number/units.h"
#include "train/record.h"
#include "train/written_words.h"

namespace echappe {
namespace {

constexpr const char* diagnosis_source = "Bayes' rule; entropy after C. Shannon (1948); tables by workshop judgement (data/diagnosis.json)";
constexpr double table_weighs_jobs = 40;

/// A chance of nothing would settle it for ever: judgements are not so sure.
double chance(const std::map<std::string, double>& given, double otherwise, const std::string& cause) {
    const auto at = given.find(cause);
    return at == given.end() ? otherwise : at->second;
}

double entropy_bits(const std::vector<double>& p) {
    double sum = 0;
    for (const double one : p)
        if (one > 0) sum -= one * std::log2(one);
    return sum;
}

bool can_be(const DiagnosisCause& cause, const DiagnosedMovement& movement) {
    const auto fits = [&](const char* key, const std::string& is) {
        const auto at = cause.only.find(key);
        return is.empty() || at == cause.only.end() || std::find(at->second.begin(), at->second.end(), is) != at->second.end();
    };
    return fits("drive", movement.drive) && fits("escapement", movement.escapement) && fits("strike", movement.strike);
}

/// Refused where no cause of the tables is bound to such a word and the product knows no such thing.
void must_know(const char* key, const std::string& is, const DiagnosisTables& tables) {
    if (is.empty()) return;
    std::set<std::string> known = {"none"};
    if (std::string(key) == "drive") known = {"weight", "spring", "fusee", "rewound"};
    if (std::string(key) == "escapement") known.insert(escapements().begin(), escapements().end());
    for (const DiagnosisCause& cause : tables.causes)
        if (const auto at = cause.only.find(key); at != cause.only.end()) known.insert(at->second.begin(), at->second.end());
    if (known.contains(is)) return;
    std::string takes;
    for (const std::string& one : known) takes += (takes.empty() ? "" : ", ") + one;
    throw InputError(std::string("movement.") + key, "\"" + is + "\"", "one of " + takes + "; or nothing, where it is not known");
}

std::string ids_of(const auto& rows) {
    std::string ids;
    for (const auto& row : rows) ids += (ids.empty() ? "" : ", ") + row.id;
    return ids;
}

int comes_apart(const std::string& what) { return what == "plates" ? 3 : what == "pallets" ? 2 : what == "hands" ? 1 : 0; }

class Weighing {
public:
    Weighing(const DiagnoseInput& in, const DiagnosisTables& tables) : m_in(in), m_tables(tables) {}

    DiagnoseResult run() {
        begin();
        for (const std::string& id : m_in.symptoms) see(id);
        for (const TestDone& test : m_in.tests) take(test);
        weigh_pairs();
        normalise();
        out.entropy_bits = entropy_bits(probabilities());
        choose_test();
        std::stable_sort(out.causes.begin(), out.causes.end(),
                         [](const CauseNow& a, const CauseNow& b) { return a.probability > b.probability; });
        say();
        if (m_in.list) out.symptoms = m_tables.symptoms, out.tests = m_tables.tests;
        return std::move(out);
    }

private:
    const DiagnoseInput& m_in;
    const DiagnosisTables& m_tables;
    DiagnoseResult out;

    void begin() {
        must_know("drive", m_in.movement.drive, m_tables);
        must_know("escapement", m_in.movement.escapement, m_tables);
        must_know("strike", m_in.movement.strike, m_tables);
        double all = 0, table = 0;
        std::map<std::string, long long> jobs;
        for (const CauseFound& found : m_in.found) {
            if (!m_tables.cause(found.cause)) throw InputError("found", "\"" + found.cause + "\"", "a cause: " + ids_of(m_tables.causes));
            jobs[found.cause] += found.jobs;
        }
        for (const DiagnosisCause& cause : m_tables.causes)
            if (can_be(cause, m_in.movement)) {
                all += static_cast<double>(jobs[cause.id]), table += cause.prior;
                out.causes.push_back({cause.id, cause.words, cause.prior, 0, 0, {}, cause.station, cause.why, cause.mend, cause.undo});
            }
        if (out.causes.empty() || !(table > 0))
            throw InputError("movement", "one that nothing can be wrong with", "a drive, an escapement and a strike of the tables");
        for (CauseNow& cause : out.causes) {
            const double before = cause.prior / table;
            const double after = (before * table_weighs_jobs + static_cast<double>(jobs[cause.id])) / (table_weighs_jobs + all);
            // The table's own sum stays, so that what was taken off is seen.
            cause.prior_moved = (after - before) * table, cause.prior = after * table, cause.probability = after;
        }
    }
    void weigh(const std::string& id, const std::map<std::string, double>& given, double otherwise) {
        for (CauseNow& cause : out.causes) {
            const double factor = chance(given, otherwise, cause.id);
            cause.probability *= factor;
            cause.because.push_back({id, factor});
        }
    }
    /// One symptom or test: the chance of each of its results (a symptom has one, that it is seen) by the cause's place, and whether the
    /// table speaks of that cause. Laid out once: every two causes are weighed by it.
    struct Evidence {
        struct Result {
            std::vector<double> chance;
            std::vector<bool> told;
        };
        std::vector<Result> results;
        size_t came = 0;
        bool symptom = false;
    };
    Evidence::Result laid_out(const std::map<std::string, double>& given, double otherwise) const {
        Evidence::Result row;
        for (const CauseNow& cause : out.causes) {
            row.chance.push_back(chance(given, otherwise, cause.id));
            row.told.push_back(given.contains(cause.id));
        }
        return row;
    }
    std::vector<Evidence> all_evidence() const {
        std::vector<Evidence> all;
        for (const std::string& id : m_in.symptoms) {
            const DiagnosisSymptom& symptom = *m_tables.symptom(id);
            all.push_back({{laid_out(symptom.given, symptom.otherwise)}, 0, true});
        }
        for (const TestDone& done : m_in.tests) {
            Evidence tried;
            for (const DiagnosisResult& result : m_tables.test(done.id)->results) {
                if (result.id == done.result) tried.came = tried.results.size();
                tried.results.push_back(laid_out(result.given, result.otherwise));
            }
            all.push_back(std::move(tried));
        }
        return all;
    }
    /// How likely all that was seen and tried is with both at work; of one and the same, with it alone. A symptom is seen when either makes
    /// it seen; a test comes out by the one that the table speaks of, where of both by the larger chance.
    static double likely(const std::vector<Evidence>& all, size_t one, size_t other) {
        double product = 1;
        for (const Evidence& each : all) {
            if (each.symptom) {
                const std::vector<double>& seen = each.results.front().chance;
                product *= one == other ? seen[one] : 1 - (1 - seen[one]) * (1 - seen[other]);
                continue;
            }
            double sum = 0, came = 0;
            for (size_t r = 0; r < each.results.size(); ++r) {
                const Evidence::Result& result = each.results[r];
                const double p = result.chance[one], q = result.chance[other];
                const double both = result.told[one] == result.told[other] ? std::max(p, q) : result.told[one] ? p : q;
                sum += both;
                if (r == each.came) came = both;
            }
            product *= sum > 0 ? came / sum : 0;
        }
        return product;
    }
    /// Before the single ones are brought to 1: both kinds are weighed against each other.
    void weigh_pairs() {
        constexpr double two_for_one = 0.25;  // before anything is seen
        const std::vector<Evidence> evidence = all_evidence();
        size_t first = 0;
        double sum = 0, pairs = 0;
        for (size_t i = 0; i < out.causes.size(); ++i) {
            sum += out.causes[i].probability;
            if (out.causes[i].probability > out.causes[first].probability) first = i;
        }
        const double evidence_first = likely(evidence, first, first);
        struct Pair {
            const CauseNow *one, *other;
            double prior, evidence;
        };
        std::vector<Pair> all;
        for (size_t i = 0; i < out.causes.size(); ++i)
            for (size_t k = i + 1; k < out.causes.size(); ++k) {
                const CauseNow &one = out.causes[i], &other = out.causes[k];
                all.push_back({&one, &other, one.prior * other.prior, likely(evidence, i, k)});
                pairs += all.back().prior;
            }
        if (!(pairs > 0)) return;
        for (Pair& pair : all) pair.prior *= two_for_one / pairs, sum += pair.prior * pair.evidence;
        std::stable_sort(all.begin(), all.end(), [](const Pair& a, const Pair& b) { return a.prior * a.evidence > b.prior * b.evidence; });
        constexpr size_t told = 3;
        constexpr double explains_more = 5, likely_enough = 0.1;
        for (const Pair& pair : all) {
            const double probability = pair.prior * pair.evidence / sum;
            if (out.two.size() == told || probability < likely_enough) break;
            if (pair.evidence < explains_more * evidence_first) continue;
            out.two.push_back({{pair.one->id, pair.other->id}, pair.one->words + ", and " + pair.other->words, probability});
        }
    }
    void see(const std::string& id) {
        const DiagnosisSymptom* symptom = m_tables.symptom(id);
        if (!symptom) throw InputError("symptoms", "\"" + id + "\"", "one of " + ids_of(m_tables.symptoms));
        if (std::count(m_in.symptoms.begin(), m_in.symptoms.end(), id) > 1)
            throw InputError("symptoms", "\"" + id + "\" twice", "each once");
        weigh(id, symptom->given, symptom->otherwise);
    }
    void take(const TestDone& done) {
        const DiagnosisTest* test = m_tables.test(done.id);
        if (!test) throw InputError("tests", "\"" + done.id + "\"", "one of " + ids_of(m_tables.tests));
        if (std::count_if(m_in.tests.begin(), m_in.tests.end(), [&](const TestDone& one) { return one.id == done.id; }) > 1)
            throw InputError("tests", "\"" + done.id + "\" twice", "each once, with what came of it last");
        for (const DiagnosisResult& result : test->results)
            if (result.id == done.result) return weigh(done.id, result.given, result.otherwise);
        throw InputError("tests", "\"" + done.result + "\" of \"" + done.id + "\"", "one of " + ids_of(test->results));
    }
    void normalise() {
        double sum = 0;
        for (const CauseNow& cause : out.causes) sum += cause.probability;
        if (!(sum > 0))
            throw InputError("tests", "results that no cause of the tables gives", "other results, or a cause of your own in the tables");
        for (CauseNow& cause : out.causes) cause.probability /= sum;
    }
    std::vector<double> probabilities() const {
        std::vector<double> p;
        for (const CauseNow& cause : out.causes) p.push_back(cause.probability);
        return p;
    }
    double drop_of(const DiagnosisTest& test) const {
        double after = 0;
        for (const DiagnosisResult& result : test.results) {
            std::vector<double> p;
            double sum = 0;
            for (const CauseNow& cause : out.causes) {
                p.push_back(cause.probability * chance(result.given, result.otherwise, cause.id));
                sum += p.back();
            }
            if (!(sum > 0)) continue;
            for (double& one : p) one /= sum;
            after += sum * entropy_bits(p);
        }
        return std::max(0.0, out.entropy_bits - after);
    }
    void choose_test() {
        const auto done = [&](const std::string& id) {
            return std::any_of(m_in.tests.begin(), m_in.tests.end(), [&](const TestDone& one) { return one.id == id; });
        };
        std::vector<NextTest> all;
        for (const DiagnosisTest& test : m_tables.tests)
            if (!done(test.id)) all.push_back({test.id, test.words, test.how, drop_of(test), test.minutes, test.apart, test.station});
        if (all.empty()) return;
        const auto value = [](const NextTest& of) { return of.expected_entropy_drop_bits / std::max(of.minutes, 1.0); };
        double best = 0;
        for (const NextTest& one : all) {
            best = std::max(best, value(one));
            if (!out.tells_most || one.expected_entropy_drop_bits > out.tells_most->expected_entropy_drop_bits) out.tells_most = one;
        }
        // Within a factor of two chances are not so sure: what leaves the movement as it is goes before.
        for (const NextTest& one : all) {
            if (value(one) < best / 2) continue;
            const auto rank = [&](const NextTest& of) { return std::pair(comes_apart(of.apart), -value(of)); };
            if (!out.next_test || rank(one) < rank(*out.next_test)) out.next_test = one;
        }
    }
    /// What the first cause leaves over, and what would explain it.
    std::string also() const {
        const CauseNow& first = out.causes.front();
        const std::vector<std::string>& both = out.two.front().ids;
        const bool with_it = std::find(both.begin(), both.end(), first.id) != both.end();
        if (!with_it) return " Two at once explain more: " + out.two.front().words + ".";
        std::string left;
        for (const std::string& id : m_in.symptoms)
            if (const DiagnosisSymptom& symptom = *m_tables.symptom(id); !symptom.given.contains(first.id))
                left += (left.empty() ? "" : "; ") + symptom.words;
        const std::string& other = both[both.front() == first.id ? 1 : 0];
        return (left.empty() ? " Not all is explained by that." : " That does not explain: " + left + ".") +
               " Perhaps two at once: see too whether " + m_tables.cause(other)->words + ".";
    }
    void say() {
        const CauseNow& first = out.causes.front();
        constexpr double sure = 0.8, likely = 0.4;
        const std::string share = " (" + print_fixed(100 * first.probability, 0) + " %)";
        out.verdict = first.probability >= sure     ? written::capital(first.words) + share + ". " + first.mend
                      : first.probability >= likely ? "Likely: " + first.words + share + ". Settle it before anything is mended."
                                                    : "Not settled yet. The likeliest: " + first.words + share + ".";
        if (!out.two.empty()) out.verdict += also();
        if (first.probability >= sure || first.undo) return;
        // What can be taken back goes before what cannot.
        constexpr double worth = 0.1;
        for (const CauseNow& cause : out.causes)
            if (cause.undo && cause.probability > worth) {
                out.verdict += " Before any metal is touched, see whether " + cause.words + ": " + print_fixed(100 * cause.probability, 0) +
                               " %, and its mend can be undone.";
                return;
            }
    }
};

}  // namespace

DiagnoseResult diagnose(const DiagnoseInput& in, const DiagnosisTables& tables) { return Weighing(in, tables).run(); }

DiagnoseResult diagnose(const DiagnoseInput& in) {
    if (in.tables.empty()) return diagnose(in, shipped_diagnosis());
    if (!std::filesystem::is_regular_file(in.tables)) throw InputError("tables", "\"" + in.tables + "\"", "a file that is there");
    return diagnose(in, diagnosis_from_json(read_text(in.tables), shipped_diagnosis()));
}

std::vector<Working> explain_diagnosis(const DiagnoseInput&, const DiagnoseResult& out) {
    const CauseNow& first = out.causes.front();
    std::vector<Term> terms = {given("P", "before, " + first.words, first.prior, "")};
    for (const EvidenceFactor& one : first.because) terms.push_back(given("f", one.id + ", given that", one.factor, ""));
    std::vector<Working> list = {
        work_out("weight of the likeliest", "w = P × f × …, before all are brought to 1", terms, "", diagnosis_source, [](auto x) {
            double product = 1;
            for (const double one : x) product *= one;
            return product;
        })};
    list.back().notes.push_back(out.verdict);
    constexpr size_t told = 5;
    for (size_t i = 0; i < std::min(told, out.causes.size()); ++i)
        list.back().notes.push_back(print_fixed(100 * out.causes[i].probability, 1) + " %: " + out.causes[i].words + ". " +
                                    out.causes[i].why);
    if (out.next_test)
        list.back().notes.push_back("Next: " + out.next_test->words + " About " + print_fixed(out.next_test->minutes, 0) + " min.");
    return list;
}

const Record& DiagnosisSymptom::record() {
    using Out = DiagnosisSymptom;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "of the symptom")
                                     .add("words", &Out::words, "", "as people say it")
                                     .add("given", &Out::given, "", "how often each of these causes makes it seen")
                                     .add("otherwise", &Out::otherwise, "", "how often any other does");
    return record;
}

const Record& DiagnosisResult::record() {
    using Out = DiagnosisResult;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "of the result")
                                     .add("words", &Out::words, "", "what is seen")
                                     .add("given", &Out::given, "", "its chance with each of these causes")
                                     .add("otherwise", &Out::otherwise, "", "its chance with any other");
    return record;
}

const Record& DiagnosisTest::record() {
    using Out = DiagnosisTest;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "of the test")
                                     .add("words", &Out::words, "", "what is asked")
                                     .add("how", &Out::how, "", "how it is done")
                                     .add("minutes", &Out::minutes, "min", "that it takes, with what must come apart")
                                     .add("apart", &Out::apart, "", "what must: hands, pallets or plates; empty: nothing")
                                     .add("station", &Out::station, "", "where it is measured")
                                     .add("results", &Out::results, "", "what may come of it");
    return record;
}

const Record& TestDone::record() {
    using In = TestDone;
    static const Record record = Fields<In>()
                                     .add("id", &In::id, "", "of the test")
                                     .required()
                                     .add("result", &In::result, "", "what came of it, by its id")
                                     .required();
    return record;
}

const Record& DiagnosedMovement::record() {
    using In = DiagnosedMovement;
    static const Record record = Fields<In>()
                                     .add("drive", &In::drive, "", "weight, spring, fusee or rewound; empty: not told")
                                     .add("escapement", &In::escapement, "", "deadbeat, recoil, lever, pin; empty: not told")
                                     .add("strike", &In::strike, "", "rack, countwheel or none; empty: not told");
    return record;
}

const Record& CauseFound::record() {
    using In = CauseFound;
    static const Record record = Fields<In>()
                                     .add("cause", &In::cause, "", "by its id")
                                     .required()
                                     .add("jobs", &In::jobs, "", "in which it was found", between(0, 1000000))
                                     .required();
    return record;
}

const Record& DiagnoseInput::record() {
    using In = DiagnoseInput;
    static const Record record = Fields<In>()
                                     .add("symptoms", &In::symptoms, "", "what is seen or heard, by their ids; those not named say nothing")
                                     .add("tests", &In::tests, "", "that were done")
                                     .add("movement", &In::movement, "", "causes that cannot be in it are taken off")
                                     .add("found", &In::found, "", "causes that were found in the workshop's own jobs")
                                     .add("list", &In::list, "", "gives all symptoms and tests as well")
                                     .add("tables", &In::tables, "", "path of a file of one's own, read over the tables that ship");
    return record;
}

const Record& EvidenceFactor::record() {
    using Out = EvidenceFactor;
    static const Record record =
        Fields<Out>().add("id", &Out::id, "", "symptom or test").add("factor", &Out::factor, "", "chance of it with this cause");
    return record;
}

const Record& CauseNow::record() {
    using Out = CauseNow;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "of the cause")
                                     .add("words", &Out::words, "", "what is wrong")
                                     .add("prior", &Out::prior, "", "before anything was seen")
                                     .add("prior_moved", &Out::prior_moved, "", "by how much one's own jobs moved that")
                                     .add("probability", &Out::probability, "", "now; all add up to 1")
                                     .add("because", &Out::because, "", "what speaks for and against it")
                                     .add("station", &Out::station, "", "where it is measured")
                                     .add("why", &Out::why, "", "how it comes to that")
                                     .add("mend", &Out::mend, "", "what puts it right")
                                     .add("undo", &Out::undo, "", "that takes no metal and can be taken back");
    return record;
}

const Record& TwoCauses::record() {
    using Out = TwoCauses;
    static const Record record = Fields<Out>()
                                     .add("ids", &Out::ids, "", "of both")
                                     .add("words", &Out::words, "", "the same in words")
                                     .add("probability", &Out::probability, "", "among all single causes and all pairs");
    return record;
}

const Record& NextTest::record() {
    using Out = NextTest;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "of the test")
                                     .add("words", &Out::words, "", "what is asked")
                                     .add("how", &Out::how, "", "how it is done")
                                     .add("expected_entropy_drop_bits", &Out::expected_entropy_drop_bits, "", "that it is expected to tell")
                                     .add("minutes", &Out::minutes, "min", "that it takes, with what must come apart")
                                     .add("apart", &Out::apart, "", "what must: hands, pallets or plates; empty: nothing")
                                     .add("station", &Out::station, "", "where it is measured");
    return record;
}

const Record& DiagnoseResult::record() {
    using Out = DiagnoseResult;
    static const Record record = Fields<Out>()
                                     .add("causes", &Out::causes, "", "the likeliest first")
                                     .add("two", &Out::two, "", "pairs that explain more than the likeliest does")
                                     .add("next_test", &Out::next_test, "", "most for its minutes, where least must come apart")
                                     .add("tells_most", &Out::tells_most, "", "the one of the largest drop")
                                     .add("entropy_bits", &Out::entropy_bits, "", "that are still open")
                                     .add("verdict", &Out::verdict, "", "in words")
                                     .add("symptoms", &Out::symptoms, "", "all of them, with `list`")
                                     .add("tests", &Out::tests, "", "all of them, with `list`");
    return record;
}

const Calculation& diagnose_calculation() {
    static const Calculation calculation = declare<DiagnoseInput, DiagnoseResult>(
        "diagnose", "From what is seen, heard and tried to what is wrong with a movement, and the test to make next.", diagnosis_source,
        [](const DiagnoseInput& in) { return diagnose(in); }, explain_diagnosis);
    return calculation;
}

}  // namespace echappe
