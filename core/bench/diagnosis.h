#pragma once

#include <map>

#include "workings/calculation.h"

namespace echappe {

/// What may be wrong with a movement.
struct DiagnosisCause {
    std::string id, words;
    double prior = 0;  ///< before anything was looked at
    std::string station, why, mend;
    bool undo = false;                                     ///< the mend takes no metal and can be taken back: setting, cleaning, shifting
    std::map<std::string, std::vector<std::string>> only;  ///< "drive": ["weight"]: it cannot be in another
};

/// What people see or hear: how often, for each cause that makes it seen; `otherwise` for the rest.
struct DiagnosisSymptom {
    std::string id, words;
    std::map<std::string, double> given;
    double otherwise = 0;
    static const Record& record();
};

struct DiagnosisResult {
    std::string id, words;
    std::map<std::string, double> given;
    double otherwise = 0;
    static const Record& record();
};

/// Something to be tried or looked at, with what may come of it: for every cause the chances of its results add up to one.
struct DiagnosisTest {
    std::string id, words, how;
    double minutes = 0;  ///< with what must come apart for it
    std::string apart;   ///< that is "hands", "pallets" or "plates"; empty: nothing
    std::string station;
    std::vector<DiagnosisResult> results;
    static const Record& record();
};

/// The tables of data/diagnosis.json. A workshop's own file is read over them: what it names again is replaced.
struct DiagnosisTables {
    std::vector<DiagnosisCause> causes;
    std::vector<DiagnosisSymptom> symptoms;
    std::vector<DiagnosisTest> tests;
    const DiagnosisCause* cause(const std::string& id) const;
    const DiagnosisSymptom* symptom(const std::string& id) const;
    const DiagnosisTest* test(const std::string& id) const;
};
const DiagnosisTables& shipped_diagnosis();
/// Throws InputError that names the row.
DiagnosisTables diagnosis_from_json(const std::string& text, DiagnosisTables over = {});

struct TestDone {
    std::string id, result;
    static const Record& record();
};

/// What the movement is; empty: not told, and nothing is taken off.
struct DiagnosedMovement {
    std::string drive, escapement, strike;
    static const Record& record();
};

/// How often a cause was found in the workshop's own jobs.
struct CauseFound {
    std::string cause;
    long long jobs = 0;
    static const Record& record();
};

struct DiagnoseInput {
    std::vector<std::string> symptoms;
    std::vector<TestDone> tests;
    DiagnosedMovement movement;
    std::vector<CauseFound> found;
    bool list = false;
    std::string tables;  ///< path of the workshop's own
    static const Record& record();
};

/// P(evidence | cause).
struct EvidenceFactor {
    std::string id;
    double factor = 0;
    static const Record& record();
};

struct CauseNow {
    std::string id, words;
    double prior = 0;        ///< with the workshop's own jobs in it
    double prior_moved = 0;  ///< by how much those moved it
    double probability = 0;
    std::vector<EvidenceFactor> because;
    std::string station, why, mend;
    bool undo = false;  ///< the mend takes no metal and can be taken back
    static const Record& record();
};

/// Two that are at work together.
struct TwoCauses {
    std::vector<std::string> ids;
    std::string words;
    double probability = 0;  ///< among all single causes and all pairs
    static const Record& record();
};

struct NextTest {
    std::string id, words, how;
    double expected_entropy_drop_bits = 0;
    double minutes = 0;
    std::string apart;
    std::string station;
    static const Record& record();
};

struct DiagnoseResult {
    std::vector<CauseNow> causes;        ///< the likeliest first
    std::vector<TwoCauses> two;          ///< that make the evidence five times as likely as the first does, or more; three at most
    std::optional<NextTest> next_test;   ///< most for its minutes, where nothing or little need come apart
    std::optional<NextTest> tells_most;  ///< the largest drop of all, whatever it takes
    double entropy_bits = 0;
    std::string verdict;
    std::vector<DiagnosisSymptom> symptoms;  ///< with `list`
    std::vector<DiagnosisTest> tests;
    static const Record& record();
};

/// One cause is at work; symptoms and tests are independent of each other once it is known; symptoms that are not named say nothing.
/// Beside that, every two are weighed together: a symptom is seen when either makes it seen, a test comes out by the one that speaks
/// louder of it; two at once are taken to be a quarter as likely as one, before anything is seen.
/// The next test is the one of the most expected drop for its minutes; of those within a factor of two of it, the one for which least
/// must come apart. Bayes' rule; own jobs are counted into the priors as a Dirichlet's, the table weighing as much as forty jobs. Throws
/// InputError.
DiagnoseResult diagnose(const DiagnoseInput& input);
DiagnoseResult diagnose(const DiagnoseInput& input, const DiagnosisTables& tables);
std::vector<Working> explain_diagnosis(const DiagnoseInput& input, const DiagnoseResult& result);
const Calculation& diagnose_calculation();

}  // namespace echappe
