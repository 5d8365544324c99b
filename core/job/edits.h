#pragma once

#include "cards/derive.h"
#include "job/job.h"
#include "train/written.h"
#include "workings/edit.h"

namespace echappe {

// The named changes of what belongs to no topic, or to several at once.

/// What is known of a job besides its movement, by the field's name: "title", "owner". Only what was changed is told.
Edit<Job> retitle(const std::map<std::string, std::string>& changed);
/// A picture of the whole, by its file's name in the job's folder of pictures.
Edit<Job> photograph_whole(const std::string& photo);
/// Millimetres or inches: the other.
Edit<Job> show_other_unit();
/// Arbors, hands, drive and escapement of a kind of movement, with every count open. Throws InputError.
Edit<Job> begin_of_kind(const std::string& kind);
/// A movement as it is written down: what leads from what was written before to what is written now.
struct WrittenDown {
    TrainRecord train;
    std::vector<MeshForm> forms;
};
Edit<Job> write_train_down(const WrittenDown& was, const WrittenDown& is);
/// Overruled or accepted with a reason; an empty verdict: open again.
Edit<Job> judge_finding(const Judgement& judgement);

/// A step of a card as it was done.
struct StepDone {
    std::string card, step;
    std::optional<double> read_mm;
    std::string date;
    std::optional<double> minutes;
    std::optional<std::string> taken_from;  ///< the length in the drawer that its metal came from
};
/// The card's step, and the hole where the card is a bush's and this was its last.
Edit<Job> card_step_done(const DerivedCard& card, const CardStep& step, const StepDone& done);
/// The last step that was done, and the hole where that ended it.
Edit<Job> card_step_open_again(const DerivedCard& card);

}  // namespace echappe
