#include <algorithm>

#include "report/report.h"
#include "topic.h"

namespace echappe {
namespace {

/// Every topic a row. What its derivation reads is in its signature.
std::vector<Topic>& all() {
    static std::vector<Topic> rows = {
        {"train", "train", derived_by(derive_train), found_by(findings_of_train)},
        {"making", "making", derived_by(derive_making), found_by(findings_of_making)},
        {"oscillator", "oscillator", derived_by(derive_oscillator), {}},
        {"escapement", "escapement", derived_by(derive_escapement), found_by(findings_of_escapement)},
        {"strike", "strike", derived_by(derive_strike), found_by(findings_of_strike)},
        {"strike-train", "strike's train", derived_by(derive_strike_train), found_by(findings_of_strike_train)},
        {"alarm", "alarm", derived_by(derive_alarm), found_by(findings_of_alarm)},
        {"hands", "hands", derived_by(derive_hands), found_by(findings_of_hands)},
        {"wood", "wood", derived_by(derive_wood), found_by(findings_of_wood)},
        {"rate", "rate", derived_by(derive_beat), found_by(findings_of_beat)},
        {"pivots", "holes", derived_by(derive_pivots), found_by(findings_of_pivots)},
        {"power", "power", derived_by(derive_power), found_by(findings_of_power)},
        {"cards", "cards", derived_by(derive_cards), found_by(findings_of_cards)},
        {"survey", "survey", derived_by(derive_survey), found_by(findings_of_survey)},
    };
    return rows;
}

/// Faults first, then cautions, then notes; what was judged last.
int rank(const Finding& finding) {
    return !finding.verdict.empty() ? 3 : finding.severity == "fault" ? 0 : finding.severity == "caution" ? 1 : 2;
}

void find_all(Deriving& pass) {
    Derived& derived = pass.out();
    const Job& job = pass.job();
    for (const Topic& topic : all()) try {
            if (!topic.findings) continue;
            for (Finding& finding : topic.findings(pass)) derived.findings.push_back(std::move(finding));
        } catch (const std::exception& error) {
            derived.faults.push_back({"findings", error.what()});
        }
    for (const TopicFault& fault : derived.faults) {
        const auto row = std::find_if(all().begin(), all().end(), [&](const Topic& topic) { return topic.id == fault.topic; });
        derived.findings.push_back({fault.topic + ".not-derived", "fault",
                                    "The " + (row == all().end() ? fault.topic : row->words) + " cannot be worked out; the rest stands.",
                                    fault.sentence, job.train.reference.arbor, ""});
    }
    for (Finding& finding : derived.findings)
        for (const Judgement& judgement : job.judgements)
            if (judgement.finding == finding.id) finding.verdict = judgement.verdict;
    std::stable_sort(derived.findings.begin(), derived.findings.end(),
                     [](const Finding& a, const Finding& b) { return rank(a) < rank(b); });
}

}  // namespace

const std::vector<Topic>& topics() { return all(); }

void add_topic(Topic topic, Part in_job, Part derived) {
    Job::declare_part(topic.id, topic.words, std::move(in_job));
    JobReport::declare_part(topic.id, topic.words, std::move(derived));
    all().push_back(std::move(topic));
}

Derived derive(const Job& job, const DeriveAids& aids) {
    Derived derived;
    Deriving pass(job, aids, derived);
    for (const Topic& topic : all()) topic.derive(pass, topic.id);
    find_all(pass);
    return derived;
}

}  // namespace echappe
