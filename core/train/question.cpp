#include "train/question.h"

#include <algorithm>
#include <cmath>
#include <sstream>

#include "number/numeral.h"
#include "number/units.h"
#include "train/derive.h"
#include "train/hands.h"

namespace echappe {
namespace {

constexpr const char* asked_in = "train";
constexpr const char* asked_as =
    "a ratio, a hand or motion, then from, to, stages, teeth, leaves, ppm, hunting, indexed, even, use, fit, cutters, exclude, rank, new: "
    "as in \"60 from centre "
    "to "
    "escape\" or "
    "\"tide from "
    "great "
    "stages 2 teeth 24-120\"";

bool is_digit(char c) { return c >= '0' && c <= '9'; }

/// In small letters, words apart: a comma before a digit that no letter precedes is a decimal comma, any other parts words.
std::string words_apart(const std::string& text) {
    std::string out = lower(as_typed(text));
    for (size_t i = 0; i < out.size(); ++i) {
        const bool begins = i == 0 || out[i - 1] == ' ' || is_digit(out[i - 1]);
        const bool decimal = out[i] == ',' && begins && i + 1 < out.size() && is_digit(out[i + 1]);
        out[i] = decimal ? '.' : out[i] == ',' || out[i] == ';' ? ' ' : out[i];
    }
    return out;
}

[[noreturn]] void not_asked(const std::string& got) { throw InputError(asked_in, got, asked_as); }

long long whole(const std::string& word) {
    const auto read = word.size() <= 6 ? read_whole(word) : std::nullopt;
    if (!read || *read < 0) not_asked(in_quotes(word));
    return *read;
}

std::string ranking(const std::string& word) {
    for (const char* known : {"error", "evenness", "teeth", "hunting", "cutters"})
        if (word == known) return word;
    throw InputError(asked_in, "rank " + in_quotes(word), "rank error, evenness, teeth, hunting or cutters");
}

CountRange range(std::string word) {
    for (const std::string dash : {"–", ".."})
        if (const auto at = word.find(dash); at != std::string::npos) word.replace(at, dash.size(), "-");
    const auto dash = word.find('-');
    const CountRange out = dash == std::string::npos ? CountRange{whole(word), whole(word)}
                                                     : CountRange{whole(word.substr(0, dash)), whole(word.substr(dash + 1))};
    if (out.min < 4 || out.max > 1000 || out.min > out.max) not_asked(in_quotes(word));
    return out;
}

std::string arbor_named(const TrainRecord& record, const std::string& word) {
    if (const JobArbor* arbor = record.arbor_called(word)) return arbor->train.id;
    throw InputError(asked_in, in_quotes(word), "the name of an arbor of this job");
}

Network network_of_job(const TrainRecord& record) { return network_of(written_train(record), Joined::some); }

/// The chain of meshes from one arbor to the other, each driven by the one before.
void follow_chain(const TrainRecord& record, TrainQuestion& question) {
    const Network network = network_of_job(record);
    std::vector<size_t> chain;
    size_t at = network.arbor(question.to);
    while (network.arbors[at] != question.from) {
        const auto driven = std::find_if(network.meshes.begin(), network.meshes.end(),
                                         [&](const Mesh& mesh) { return network.parts[mesh.pinion].arbor == at; });
        if (driven == network.meshes.end())
            throw InputError(asked_in, "from " + question.from + " to " + question.to, "two arbors of which the first drives the second");
        chain.push_back(static_cast<size_t>(driven - network.meshes.begin()));
        at = network.parts[driven->wheel].arbor;
    }
    std::reverse(chain.begin(), chain.end());
    for (const size_t mesh : chain) {
        question.wheels.push_back(network.parts[network.meshes[mesh].wheel].name);
        question.pinions.push_back(network.parts[network.meshes[mesh].pinion].name);
    }
    question.find.stages = static_cast<long long>(chain.size());
}

/// The branch that carries this hand, from where it leaves the chain to the escape wheel or from the arbor that was named.
void follow_hand(const TrainRecord& record, const std::string& arbor, bool stages_said, TrainQuestion& question) {
    question.to = arbor;
    const long long stages = question.find.stages;
    if (question.from.empty()) {
        const Network network = network_of_job(record);
        const auto in_train = [&](const std::string& id) {
            return !record.trains.empty() && std::find(record.trains.front().arbors.begin(), record.trains.front().arbors.end(), id) !=
                                                 record.trains.front().arbors.end();
        };
        size_t at = network.arbor(arbor);
        for (bool moved = true; moved && (network.arbors[at] == arbor || !in_train(network.arbors[at]));) {
            moved = false;
            for (const Mesh& mesh : network.meshes)
                if (network.parts[mesh.pinion].arbor == at) at = network.parts[mesh.wheel].arbor, moved = true;
        }
        question.from = network.arbors[at];
    }
    follow_chain(record, question);
    if (stages_said && stages != question.find.stages)
        throw InputError(asked_in, std::to_string(stages) + " stages",
                         std::to_string(question.find.stages) + ", which the hand's branch has; say \"new\" for another branch");
}

Rational ratio_now(const TrainRecord& record, const TrainQuestion& question) {
    const Network network = network_of_job(record);
    const auto period = [&](const std::string& id) { return period_of(network, record.reference.period_s, network.arbor(id)); };
    return period(question.from) / period(question.to);
}

void set_count(TrainRecord& record, const std::string& part, long long count) {
    const auto dot = part.find('.');
    const std::string name = part.substr(dot + 1);
    for (JobArbor& arbor : record.arbors) {
        if (arbor.train.id != part.substr(0, dot)) continue;
        if (name == "wheel") arbor.train.wheel = Count(count), arbor.wheel_trust.reset();
        if (name == "pinion") arbor.train.pinion = Count(count), arbor.pinion_trust.reset();
        for (WheelInput& wheel : arbor.train.wheels)
            if (wheel.name == name) wheel.teeth = Count(count);
        for (PinionInput& pinion : arbor.train.pinions)
            if (pinion.name == name) pinion.leaves = Count(count);
    }
    std::erase_if(record.choices, [&](const Choice& choice) { return choice.part == part; });
}

/// For each mesh of the chain the sums of teeth and leaves that its two holes allow with a cutter of the drawer.
void fit_between_holes(const TrainRecord& record, TrainQuestion& question, const std::vector<double>& cutter_modules_mm) {
    if (question.to.empty()) throw InputError(asked_in, "fit for a new branch", "a chain whose holes are there: a new branch has none yet");
    if (cutter_modules_mm.empty()) throw InputError(asked_in, "fit without cutters", "wheel cutters in the workshop's drawer");
    constexpr double within_modules = 0.1;
    for (size_t i = 0; i < question.wheels.size(); ++i) {
        const auto place = [&](const std::string& part) { return record.arbor(part.substr(0, part.find('.')))->position_mm; };
        const auto a = place(question.wheels[i]);
        const auto b = place(question.pinions[i]);
        if (a.size() != 2 || b.size() != 2)
            throw InputError(asked_in, "fit from " + question.wheels[i] + " to " + question.pinions[i],
                             "arbors whose holes are on the plan");
        const double distance = std::hypot(a[0] - b[0], a[1] - b[1]);
        std::vector<long long> sums;
        for (const double module : cutter_modules_mm) {
            const double sum = 2 * distance / module;
            if (std::abs(sum - std::round(sum)) <= 2 * within_modules && sum >= 8 && sum <= 2000) sums.push_back(std::llround(sum));
        }
        question.find.stage_sums.push_back(std::move(sums));
    }
}

/// Only counts that the workshop's dividing head gives exactly.
void only_indexed(const TrainMeans& means, FindInput& find) {
    if (!means.divides) throw InputError(asked_in, "indexed", "a job with a dividing_head: its worm and its plates");
    for (long long count = 4; count <= 1000; ++count)
        if (means.divides(count)) find.wheel_counts.push_back(count);
    find.pinion_counts = find.wheel_counts;
}

std::string fresh_id(const TrainRecord& record, const std::string& wanted) {
    std::string id = wanted;
    for (int i = 2; record.arbor(id); ++i) id = wanted + "-" + std::to_string(i);
    return id;
}

std::string fresh_train(const TrainRecord& record, const std::string& wanted) {
    std::string id = wanted;
    const auto taken = [&](const TrainList& list) { return list.id == id; };
    for (int i = 2; std::any_of(record.trains.begin(), record.trains.end(), taken); ++i) id = wanted + "-" + std::to_string(i);
    return id;
}

/// New arbors behind the driver; the last one carries the hand.
void add_branch(TrainRecord& record, const TrainQuestion& question, const FindResult& result, const FoundTrain& train) {
    struct Pair {
        long long driving, driven;
    };
    std::vector<Pair> meshes;
    for (const Stage& stage : train.stages)
        meshes.push_back(result.pinions_drive ? Pair{stage.pinion, stage.wheel} : Pair{stage.wheel, stage.pinion});
    const std::string& hand = *question.find.hand;
    const bool motion = question.motion.has_value();
    std::vector<std::string> ids;
    for (size_t i = 0; i + 1 < meshes.size(); ++i) ids.push_back(fresh_id(record, motion ? "minute" : hand + "-" + std::to_string(i + 1)));
    ids.push_back(fresh_id(record, motion ? "hour" : hand));
    for (JobArbor& arbor : record.arbors) {
        if (arbor.train.id != question.from) continue;
        std::string name = motion ? "cannon" : hand;
        for (int i = 2;
             std::any_of(arbor.train.wheels.begin(), arbor.train.wheels.end(), [&](const WheelInput& w) { return w.name == name; }); ++i)
            name = (motion ? "cannon-" : hand + "-") + std::to_string(i);
        arbor.train.wheels.push_back({name, Count(meshes.front().driving), {ids.front()}});
    }
    for (size_t i = 0; i < ids.size(); ++i) {
        JobArbor arbor;
        arbor.train.id = ids[i];
        const bool last = i + 1 == ids.size();
        arbor.name = motion ? (last ? "hour hand" : "minute wheel") : last ? hand + " hand" : hand + " " + std::to_string(i + 1);
        if (motion && last) arbor.train.coaxial_with = question.from;
        arbor.name[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(arbor.name[0])));
        arbor.train.pinion = Count(meshes[i].driven);
        arbor.train.drives = std::vector<std::string>();
        if (last) arbor.hand = hand;
        else {
            arbor.train.wheel = Count(meshes[i + 1].driving);
            arbor.train.drives->push_back(ids[i + 1]);
        }
        record.arbors.push_back(std::move(arbor));
    }
    TrainList list{fresh_train(record, motion ? "motion" : hand), motion ? "Motion work" : record.arbors.back().name, {question.from}};
    list.arbors.insert(list.arbors.end(), ids.begin(), ids.end());
    if (!record.trains.empty()) record.trains.push_back(std::move(list));
}

/// Motion work as the finder tells a train: the slow way round, cannon and minute pinion driving.
FoundTrain as_train(const MotionWork& set, long long ratio) {
    FoundTrain train;
    train.stages = {{set.minute_wheel, set.cannon_pinion}, {set.hour_wheel, set.minute_pinion}};
    train.wheels = {std::min(set.minute_wheel, set.hour_wheel), std::max(set.minute_wheel, set.hour_wheel)};
    train.pinions = {std::min(set.cannon_pinion, set.minute_pinion), std::max(set.cannon_pinion, set.minute_pinion)};
    train.ratio = static_cast<double>(ratio);
    train.ratio_exact = std::to_string(ratio);
    train.evenness = set.module_ratio;
    train.distinct_pinions = set.cannon_pinion == set.minute_pinion ? 1 : 2;
    train.sum = set.sum;
    return train;
}

void ask_motion(const TrainRecord& record, TrainQuestion& question, bool counts_said) {
    const Network network = network_of_job(record);
    const Rational turn = period_of(network, record.reference.period_s, network.arbor(question.from));
    if (!(turn == Rational(3600)))
        throw InputError(asked_in, "motion from " + question.from + ", which turns once in " + print_span(turn.to_double()),
                         "the arbor that turns once in an hour and carries the cannon pinion");
    question.find.driver_period_s = turn;
    if (!counts_said) return;
    question.motion->wheel = question.find.wheel;
    question.motion->pinion = question.find.pinion;
}

}  // namespace

FindResult answer_train_question(const TrainQuestion& question, const Effort& effort,
                                 const std::function<void(const FindResult&)>& partial) {
    if (!question.motion) return find_trains(question.find, effort, partial);
    const MotionWorkResult found = find_motion_work(*question.motion);
    FindResult out;
    out.pinions_drive = true;
    out.target = static_cast<double>(question.motion->ratio);
    out.considered = static_cast<double>(found.count);
    for (const MotionWork& set : found.solutions) out.solutions.push_back(as_train(set, question.motion->ratio));
    return out;
}

TrainQuestion read_train_question(const TrainRecord& record, const std::string& text, const TrainMeans& means) {
    TrainQuestion question;
    std::istringstream words(words_apart(text));
    std::string word;
    if (!(words >> word)) not_asked("nothing");
    const bool motion = word == "motion";
    if (motion) question.motion.emplace(), word = "hours";
    const bool branch = find_period(word) != nullptr;
    const bool now = word == "now";
    if (branch) question.find.hand = word;
    else if (!now) question.find.target = Rational::parse(word, asked_in);
    question.find.stages = 2;
    question.find.wheel = branch ? CountRange{24, 120} : record.limits.wheel;
    question.find.pinion = branch ? CountRange{24, 120} : record.limits.pinion;
    bool leaves_said = false;
    bool teeth_said = false;
    bool stages_said = false;
    bool another = false;
    bool fit = false;
    while (words >> word) {
        const auto next = [&] {
            std::string value;
            if (!(words >> value)) not_asked("nothing after " + in_quotes(word));
            return value;
        };
        if (word == "from") question.from = arbor_named(record, next());
        else if (word == "to") question.to = arbor_named(record, next());
        else if (word == "stages" || word == "in") question.find.stages = whole(next()), stages_said = true;
        else if (word == "teeth" || word == "wheels") question.find.wheel = range(next()), teeth_said = true;
        else if (word == "leaves" || word == "pinions") question.find.pinion = range(next()), leaves_said = true;
        else if (word == "ppm") question.find.tolerance_ppm = Rational::parse(next(), asked_in).to_double();
        else if (word == "even") question.find.evenness_at_most = Rational::parse(next(), asked_in).to_double();
        else if (word == "use") question.find.must_wheels.push_back(whole(next()));
        else if (word == "indexed") only_indexed(means, question.find);
        else if (word == "cutters") question.find.distinct_pinions_at_most = whole(next());
        else if (word == "exclude") question.find.exclude_factors.push_back(whole(next()));
        else if (word == "rank") question.find.rank = ranking(next());
        else if (word == "new") another = true;
        else if (word == "fit") fit = true;
        else if (motion && (word == "12" || word == "24"))
            question.motion->ratio = whole(word), question.find.hand = word == "24" ? "day" : "hours";
        else if (word == "hunting") question.find.hunting_only = true;
        else not_asked(in_quotes(word));
    }
    const auto carries = [&](const JobArbor& arbor) { return arbor.hand == question.find.hand; };
    const auto hand = branch && !another ? std::find_if(record.arbors.begin(), record.arbors.end(), carries) : record.arbors.end();
    if (hand != record.arbors.end()) follow_hand(record, hand->train.id, stages_said, question);
    if (question.from.empty()) question.from = record.reference.arbor;
    if (motion) {
        if (!leaves_said) question.find.pinion = question.motion->pinion;
        if (!teeth_said) question.find.wheel = question.motion->wheel;
        ask_motion(record, question, leaves_said || teeth_said);
    } else if (branch) {
        // Slow hands are reached by wheels only: what drives and what is driven may have the same counts.
        if (!leaves_said) question.find.pinion = question.find.wheel;
        const Network network = network_of_job(record);
        question.find.driver_period_s = period_of(network, record.reference.period_s, network.arbor(question.from));
    } else {
        if (question.to.empty()) question.to = record.escape_arbor.value_or("");
        if (!record.arbor(question.to)) not_asked("no arbor to drive");
        follow_chain(record, question);
        if (now) question.find.target = ratio_now(record, question);
    }
    if (fit) fit_between_holes(record, question, means.cutter_modules_mm);
    if (question.find.stages < 1 || question.find.stages > 6)
        throw InputError(asked_in, std::to_string(question.find.stages) + " stages", "1 to 6");
    return question;
}

TrainRecord with_train(const TrainRecord& record, const TrainQuestion& question, const FindResult& result, const FoundTrain& train) {
    TrainRecord out = record;
    if (question.to.empty()) {
        add_branch(out, question, result, train);
        return out;
    }
    for (size_t i = 0; i < train.stages.size() && i < question.wheels.size(); ++i) {
        const Stage& stage = train.stages[i];
        set_count(out, question.wheels[i], result.pinions_drive ? stage.pinion : stage.wheel);
        set_count(out, question.pinions[i], result.pinions_drive ? stage.wheel : stage.pinion);
    }
    return out;
}

std::string train_in_words(const FoundTrain& train, bool pinions_drive) {
    std::string words;
    for (const Stage& stage : train.stages) {
        const auto [driving, driven] = pinions_drive ? std::pair(stage.pinion, stage.wheel) : std::pair(stage.wheel, stage.pinion);
        words += (words.empty() ? "" : " × ") + std::to_string(driving) + "/" + std::to_string(driven);
    }
    return words;
}

Edit<TrainRecord> take_train(const TrainQuestion& question, const FindResult& result, const FoundTrain& train) {
    return {"Take the train " + train_in_words(train, result.pinions_drive),
            [=](TrainRecord& record) { record = with_train(record, question, result, train); }};
}

}  // namespace echappe
