#include "job/new_job.h"

#include "exchange/whole_file.h"
#include "number/input_error.h"
#include "train/places.h"

namespace echappe {
namespace {

/// The text of the trains, and where each one's counts begin in it.
struct Composed {
    std::string text;
    std::vector<size_t> begins;
};

Composed compose(const NewJobInput& in) {
    Composed out;
    if (!in.text.empty()) out.text = in.text;
    for (const NewTrain& train : in.trains) {
        if (!out.text.empty()) out.text += "\n";
        if (!train.name.empty()) out.text += in_written_marks(train.name) + ": ";
        out.begins.push_back(out.text.size());
        out.text += train.counts;
    }
    return out;
}

[[noreturn]] void refuse(const NewJobInput& in, const Composed& composed, const WrittenFault& fault) {
    std::string field = "text";
    for (size_t i = 0; i < composed.begins.size(); ++i)
        if (fault.at >= composed.begins[i]) field = "trains[" + std::to_string(i) + "].counts";
    if (in.hand && fault.at >= composed.text.size()) field = "hand";
    throw InputError(field, fault.got, fault.accepts);
}

}  // namespace

const Record& NewTrain::record() {
    using In = NewTrain;
    static const Record record = Fields<In>()
                                     .add("name", &In::name, "", "what the train is called: going, strike")
                                     .add("counts", &In::counts, "", "from the power up: 144, 12/96, ?/?, 12/30")
                                     .required();
    return record;
}

const Record& NewJobInput::record() {
    using In = NewJobInput;
    static const Record record = Fields<In>()
                                     .add("title", &In::title, "", "of the job")
                                     .add("trains", &In::trains, "", "the going train first")
                                     .add("text", &In::text, "", "or the whole movement as it is written down, a line or ; for each train")
                                     .add("hand", &In::hand, "", "an arbor of known period: centre 1h, 90min")
                                     .add("beats_per_hour", &In::beats_per_hour, "1/h", "known of it", above(0, 1e9))
                                     .add("holes", &In::holes, "", "file of the holes: CSV (arbor, x_mm, y_mm) or DXF, a layer an arbor");
    return record;
}

Job new_job(const NewJobInput& in) {
    const Composed composed = compose(in);
    std::string text = composed.text;
    if (in.hand) {
        // A time alone is of the arbor that is usually known.
        const bool time_alone = !in.hand->empty() && in.hand->front() >= '0' && in.hand->front() <= '9';
        const Written plain = read_written(composed.text);
        const JobArbor* usual = plain.train.arbor(plain.train.reference.arbor);
        text += "\n" + (time_alone && usual ? in_written_marks(usual->called()) + " " : "") + *in.hand;
    }
    Written written = read_written(text);
    if (!written.faults.empty()) refuse(in, composed, written.faults.front());
    if (written.train.arbors.empty())
        throw InputError(in.trains.empty() ? "text" : "trains", "no arbor", "counts, as in 144, 12/96, 10/75, 12/30");
    Job job;
    job.title = in.title;
    job.train = std::move(written.train);
    job.teeth.forms = std::move(written.forms);
    if (in.holes.ends_with(".dxf")) keep_places_dxf(job.train, in.holes);
    else if (!in.holes.empty()) keep_places_csv(job.train, read_text(in.holes));
    if (in.beats_per_hour) {
        Measurement beats;
        beats.id = "written-beats";
        beats.evidence.key.kind = "beats_per_hour";
        beats.evidence.value = *in.beats_per_hour;
        beats.evidence.u = beats.evidence.key.declared().workshop_u;
        beats.instrument = "written down";
        job.train.measurements.push_back(beats);
    }
    return job;
}

Job new_job(const std::string& text) {
    NewJobInput in;
    in.text = text;
    return new_job(in);
}

const Calculation& new_job_calculation() {
    static const Calculation calculation = declare<NewJobInput, Job>(
        "job.new", "A job file of a movement as it is written down, for job.check and the window.", "docs/written-trains.md",
        [](const NewJobInput& in) { return new_job(in); }, [](const NewJobInput&, const Job&) { return std::vector<Working>(); });
    return calculation;
}

}  // namespace echappe
