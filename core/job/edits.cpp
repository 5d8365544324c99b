#include "job/edits.h"

#include "cards/hole_done.h"
#include "exchange/file_names.h"
#include "job/kinds.h"
#include "workings/record_json.h"

namespace echappe {

Edit<Job> retitle(const std::map<std::string, std::string>& changed) {
    return {"Title, owner and maker", [changed](Job& job) {
                for (const auto& [field, words] : changed) {
                    // What was agreed may have lines; all else stands on one.
                    if (field == "scope") job.scope = words;
                    else read_word(*Job::record().find(field), one_line(words), &job);
                }
            }};
}

Edit<Job> photograph_whole(const std::string& photo) {
    return {"Photo of the whole", [=](Job& job) { job.photo = photo; }};
}

Edit<Job> show_other_unit() {
    return {"Change the unit shown", [](Job& job) { job.length.symbol = job.length.symbol == "mm" ? "in" : "mm"; }};
}

Edit<Job> begin_of_kind(const std::string& kind) {
    return {"Begin from a kind of movement", [fresh = begin_from(kind)](Job& job) {
                job.train = fresh.train;
                job.teeth = fresh.teeth;
                job.power = fresh.power;
                job.oscillator = fresh.oscillator;
            }};
}

Edit<Job> write_train_down(const WrittenDown& was, const WrittenDown& is) {
    return {"Write the train down", [=](Job& job) {
                job.train = written_onto(was.train, is.train, job.train);
                if (was.forms != is.forms) job.teeth.forms = is.forms;
            }};
}

Edit<Job> judge_finding(const Judgement& judgement) {
    return {judgement.verdict == "overruled" ? "Overrule a finding" : "Accept a finding", [=](Job& job) {
                std::erase_if(job.judgements, [&](const Judgement& old) { return old.finding == judgement.finding; });
                if (!judgement.verdict.empty()) job.judgements.push_back(judgement);
            }};
}

Edit<Job> card_step_done(const DerivedCard& card, const CardStep& step, const StepDone& done) {
    return {(done.read_mm ? "Reading: " : "Done: ") + step.words, [=](Job& job) {
                end_step(done.card, done.step, done.read_mm, done.date, done.minutes).change(job.cards);
                if (done.taken_from) take_stock(done.card, *done.taken_from).change(job.cards);
                tell_pivots(card, done.step, job.survey.pivots);
            }};
}

Edit<Job> card_step_open_again(const DerivedCard& card) {
    return {"Step open again", [card](Job& job) {
                take_back(card.id).change(job.cards);
                if (card.kind == "bush" && card.finished()) reopen_hole(card, job.survey.pivots);
            }};
}

}  // namespace echappe
