#include "survey/round.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <unordered_map>

#include "exchange/csv_sheet.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

struct HoleQuestion {
    const char* field;
    const char* words;
    const char* how;
    std::optional<double> HoleRecord::*reading;
};
constexpr HoleQuestion hole_questions[] = {
    {"pivot_mm", "pivot",
     "Calliper or micrometer across the polished part of the pivot, not at the shoulder; turn it and take the largest.",
     &HoleRecord::pivot_mm},
    {"hole_min_mm", "hole, short axis",
     "Pin gauges: the largest pin that enters straight. It reads the short axis, whichever way it is leaned; that stands for the hole as "
     "it "
     "was made.",
     &HoleRecord::hole_min_mm},
    {"hole_max_mm", "hole, long axis",
     "A round pin cannot read it. Three ways can: an indicator or feeler on the pivot, pushed to and fro along the wear: type sway 0.36, "
     "and "
     "the pivot is added; the largest pin that enters, pushed to the worn end, and the gap left behind it: 1.72 + 0.26; or straight "
     "across, "
     "by graticule or the calliper's small jaws: 1.98.",
     &HoleRecord::hole_max_mm},
    {"wear_direction_deg", "which way it is worn",
     "Where the pivot walked to, as you look at this side of the plate: degrees from the right, anticlockwise, or the hour of a clock "
     "face: 4 h. Enter alone takes the way the train pushes.",
     &HoleRecord::wear_direction_deg}};

/// The double in a record that a question's field names.
std::optional<double>* slot_of(const Record& record, void* object, std::string_view field) {
    const Field* found = record.find(field);
    return found ? std::get<std::optional<double>*>(found->slot(object)) : nullptr;
}

std::pair<std::string, std::string> split(const std::string& id) {
    const auto dot = id.rfind('.');
    return {id.substr(0, dot), dot == std::string::npos ? "" : id.substr(dot + 1)};
}

HoleRecord& hole_of(PivotsRecord& record, const std::string& id) {
    const auto [arbor, plate] = split(id);
    return record.hole_at(arbor, plate);
}

bool listed(const std::vector<std::string>& list, std::string_view word) { return std::find(list.begin(), list.end(), word) != list.end(); }

/// Arbors in the order of the trains from the power up, each once; what is on no train last.
std::vector<std::string> in_order(const TrainRecord& movement) {
    std::vector<std::string> order;
    std::set<std::string> there;
    const auto add = [&](const std::string& id) {
        if (there.insert(id).second) order.push_back(id);
    };
    for (const TrainList& train : movement.trains)
        for (const std::string& id : train.arbors) add(id);
    for (const JobArbor& arbor : movement.arbors) add(arbor.train.id);
    return order;
}

void ask_hole(std::string_view unit, const DerivedHole& hole, std::vector<SurveyQuestion>& round) {
    const HoleRecord& r = hole.record;
    const double oval = r.hole_max_mm && r.hole_min_mm ? *r.hole_max_mm - *r.hole_min_mm : 0;
    constexpr double seen_as_oval_mm = 0.03;
    for (const HoleQuestion& q : hole_questions) {
        const bool way = q.reading == &HoleRecord::wear_direction_deg;
        if (way && oval < seen_as_oval_mm && !r.wear_direction_deg) continue;
        SurveyQuestion question{hole.id, q.field, hole.arbor, q.words, q.how, way ? "deg, or 4 h" : unit};
        question.taken = (r.*q.reading).has_value() && !listed(r.doubtful, q.field);
        question.cannot = listed(r.cannot, q.field);
        if (q.reading == &HoleRecord::hole_max_mm) question.pivot_mm = r.pivot_mm;
        if (way) question.expected = hole.push_deg;
        round.push_back(std::move(question));
    }
}

double read_direction(const SurveyQuestion& question, const std::string& name, const std::string& text) {
    const bool behind = split(question.subject).second == "back";
    std::string word = text;
    const auto hour = word.find_first_of("hH");
    double seen = 0;
    if (hour != std::string::npos) {
        const double h = parse_reading(word.substr(0, hour), base_unit(Dimension::number), name).value;
        if (!(h >= 0 && h <= 12)) throw InputError(name, in_quotes(text), "an hour from 0 to 12, as in 4 h");
        seen = 90 - 30 * h;
    } else {
        seen = parse_reading(word, base_unit(Dimension::angle), name).value;
        if (!(std::abs(seen) <= 360)) throw InputError(name, in_quotes(text), "degrees up to 360, or an hour, as in 4 h");
    }
    const double from_dial = behind ? seen_from_behind_deg(seen) : seen;
    return std::fmod(from_dial + 720, 360);
}

/// How a long axis was read, by the words it is typed in, and what stands in them.
struct AxisReading {
    std::string by;  ///< as HoleRecord::hole_max_by
    std::string first, second;
};
AxisReading read_axis(const std::string& text) {
    const std::string word = as_typed(text);
    const auto figure = word.find_first_of("0123456789+-.,");
    std::string name = word.substr(0, figure);
    name.erase(name.find_last_not_of(' ') + 1);
    if (name == "s" || name == "sway") return {"sway", figure == std::string::npos ? std::string() : word.substr(figure), {}};
    // A plus before a minus or a stroke is a typed ±, and the figure stands alone.
    const auto plus = word.find('+', 1);
    if (plus != std::string::npos && plus + 1 < word.size() && word[plus + 1] != '-' && word[plus + 1] != '/')
        return {"pin and gap", word.substr(0, plus), word.substr(plus + 1)};
    return {"across", word, {}};
}

double long_axis(const LengthUnit& length, const SurveyQuestion& question, const std::string& name, const std::string& text) {
    const AxisReading axis = read_axis(text);
    const auto value = [&](const std::string& part, const char* takes) {
        const double read = parse_reading(part, length.unit(), name).value;
        if (read < 0) throw InputError(name, in_quotes(text), takes);
        return read;
    };
    if (axis.by == "pin and gap") return value(axis.first, "a pin from 0 up") + value(axis.second, "a gap from 0 up");
    if (axis.by != "sway") return parse_reading(axis.first, length.unit(), name).value;
    if (!question.pivot_mm)
        throw InputError(name, in_quotes(text) + " before the pivot", "the pivot's diameter first: the sway is added to it");
    return *question.pivot_mm + value(axis.first, "a sway from 0 up");
}

}  // namespace

std::string way_of_reading(const SurveyQuestion& question, const std::string& text) {
    return question.field == "hole_max_mm" ? read_axis(text).by : std::string();
}

std::string name_of(const TrainRecord& movement, const SurveyQuestion& question) {
    const auto [first, second] = split(question.subject);
    const std::string what = " · " + std::string(question.words);
    if (first == "plate") return (second == "front" ? "Front plate" : "Back plate") + what;
    if (second.empty()) return movement.name_of_arbor(question.subject) + " arbor" + what;
    return movement.name_of_arbor(first) + ", " + second + what;
}

SumLine line_of(const PivotsRecord& record, const SurveyQuestion& question) {
    const auto [first, second] = split(question.subject);
    const std::string field(question.field);
    std::vector<SumLine> lines;
    const auto read = [&](const Record& of, const void* object) {
        if (object) lines = lines_of(of, object, {field});
    };
    if (first == "plate") read(PlateRecord::record(), record.plate(second));
    else if (second.empty()) read(ArborRecord::record(), record.arbor(question.subject));
    else read(HoleRecord::record(), record.hole(question.subject));
    SumLine line = lines.empty() ? SumLine() : lines.front();
    const bool way = field == "wear_direction_deg";
    line.field = field;
    line.words = std::string(question.words) + ": " + std::string(question.how);
    line.unit = way ? "deg" : "mm";
    line.from = !line.text.empty() ? "job" : question.cannot ? "unknown" : "missing";
    if (way && second == "back" && !line.text.empty()) line.text = print_short(seen_from_behind_deg(std::stod(line.text)));
    return line;
}

std::string words_for_reading(std::string_view field) {
    for (const HoleQuestion& question : hole_questions)
        if (field == question.field) return question.words;
    return "thickness of the plate";
}

std::vector<SurveyQuestion> survey_round(const SurveyRecord& record, const TrainRecord& movement, const LengthUnit& length,
                                         const DerivedPivots& pivots) {
    std::vector<SurveyQuestion> round;
    const std::string_view unit = length.unit().symbol;
    /// An arbor with what hangs on it, found once: with hundreds of holes a look-up for each question is felt.
    struct Place {
        std::string arbor;
        const DerivedHole* holes[2] = {nullptr, nullptr};
        const ArborRecord* record = nullptr;
        /// Neither pivot can be measured: the arbor is not there, and has no runout.
        bool lost() const {
            return std::all_of(std::begin(holes), std::end(holes),
                               [](const DerivedHole* hole) { return !hole || listed(hole->record.cannot, "pivot_mm"); });
        }
    };
    std::vector<Place> places;
    std::unordered_map<std::string, size_t> by_name;
    for (std::string& arbor : in_order(movement)) {
        by_name[arbor] = places.size();
        places.emplace_back().arbor = std::move(arbor);
    }
    const auto place_of = [&](const std::string& arbor) {
        const auto at = by_name.find(arbor);
        return at == by_name.end() ? nullptr : &places[at->second];
    };
    const auto& plates = plate_names();
    for (const DerivedHole& hole : pivots.holes)
        if (Place* place = place_of(hole.arbor)) place->holes[hole.plate == plates[0] ? 0 : 1] = &hole;
    for (const ArborRecord& arbor : record.pivots.arbors)
        if (Place* place = place_of(arbor.arbor)) place->record = &arbor;
    const auto cannot_be = [](const auto* of, const char* field) { return of && listed(of->cannot, field); };
    constexpr size_t most_for_an_arbor = 15;
    round.reserve(most_for_an_arbor * places.size() + 5);
    for (size_t side = 0; side < 2; ++side) {
        const PlateRecord* plate = record.pivots.plate(plates[side]);
        round.push_back({"plate." + plates[side], "thickness_mm", "", "thickness",
                         "Calliper across the plate at an edge without burr; it holds for every hole of this plate.", unit,
                         plate && plate->thickness_mm, cannot_be(plate, "thickness_mm")});
        for (const Place& place : places)
            if (place.holes[side]) ask_hole(unit, *place.holes[side], round);
    }
    const auto ask_arbors = [&](const char* field, const char* words, const char* how, std::optional<double> ArborRecord::*reading) {
        for (const Place& place : places)
            if (place.holes[0] && (reading == &ArborRecord::plates_mm || !place.lost()))
                round.push_back({place.arbor, field, place.arbor, words, how, unit, place.record && (place.record->*reading).has_value(),
                                 cannot_be(place.record, field)});
    };
    ask_arbors("tir_mm", "runout (TIR)",
               "Between centres or in a true collet, dial indicator on the arbor beside the wheel: turn once, highest less lowest.",
               &ArborRecord::tir_mm);
    ask_arbors("plates_mm", "between the plates", "Inside jaws between the plates, beside the arbor's holes.", &ArborRecord::plates_mm);
    ask_arbors("shoulders_mm", "from shoulder to shoulder", "Calliper over the two shoulders of the arbor.", &ArborRecord::shoulders_mm);
    for (size_t side = 0; side < 2; ++side) {
        const PlateRecord* plate = record.pivots.plate(plates[side]);
        round.push_back({"plate." + plates[side], "flatness_mm", "", "light under a straight edge",
                         "Straight edge across the plate, several ways: feeler gauges under it where most light shows. 0 when it is flat.",
                         unit, plate && plate->flatness_mm, cannot_be(plate, "flatness_mm")});
        if (side == 0)
            round.push_back({"plate." + plates[side], "pillar_out_mm", "", "worst pillar, out of square",
                             "Square on the plate against each pillar: the widest gap over its length. 0 when all stand straight.", unit,
                             plate && plate->pillar_out_mm, cannot_be(plate, "pillar_out_mm")});
    }
    for (size_t side = 0; side < 2; ++side)
        for (const Place& place : places)
            if (const DerivedHole* hole = place.holes[side]; hole && hole->decision == "bush")
                round.push_back({hole->id, "free_radius_mm", place.arbor, "free round the hole, for the punch",
                                 "From the hole's middle to the nearest part that a punch would strike: a cock, a stud, a pillar.", unit,
                                 hole->record.free_radius_mm.has_value(), listed(hole->record.cannot, "free_radius_mm")});
    const auto worn = [](const DerivedHole* hole) { return hole && hole->plan && hole->plan->decision == "bush"; };
    const auto takes_power = [&](const std::string& arbor) {
        return std::any_of(movement.trains.begin(), movement.trains.end(),
                           [&](const TrainList& train) { return !train.arbors.empty() && train.arbors.front() == arbor; });
    };
    const auto ask_along = [&](const char* field, const char* words, std::optional<double> ArborRecord::*reading, auto has_it) {
        for (const Place& place : places)
            if (!place.lost() && has_it(place.arbor) && (worn(place.holes[0]) || worn(place.holes[1])))
                round.push_back(
                    {place.arbor, field, place.arbor, words,
                     "From the front plate's inner face to the middle of it: what stands nearer a plate presses that pivot more.", unit,
                     place.record && (place.record->*reading).has_value(), cannot_be(place.record, field)});
    };
    ask_along("wheel_from_front_mm", "wheel, from the front plate", &ArborRecord::wheel_from_front_mm, [](const auto&) { return true; });
    ask_along("line_from_front_mm", "line or chain, from the front plate", &ArborRecord::line_from_front_mm, takes_power);
    ask_along("pinion_from_front_mm", "pinion where it is driven, from the front plate", &ArborRecord::pinion_from_front_mm,
              [&](const std::string& arbor) { return !takes_power(arbor); });
    for (size_t side = 0; side < 2; ++side)
        for (const Place& place : places)
            if (const DerivedHole* hole = place.holes[side]; hole && !place.lost())
                round.push_back({hole->id, "sway_mm", place.arbor, "sway of the free end",
                                 "The other end out of its plate: how far it sways from side to side, measured where the other plate was.",
                                 unit, hole->record.sway_mm.has_value(), listed(hole->record.cannot, "sway_mm")});
    return round;
}

double read_survey(const TrainRecord& movement, const LengthUnit& length, const SurveyQuestion& question, const std::string& text) {
    const bool empty = as_typed(text).empty();
    if (empty && question.expected) return *question.expected;
    if (question.field == "wear_direction_deg") return read_direction(question, name_of(movement, question), text);
    const std::string name = name_of(movement, question);
    const double value =
        question.field == "hole_max_mm" ? long_axis(length, question, name, text) : parse_reading(text, length.unit(), name).value;
    const Record& record = question.subject.starts_with("plate.")            ? PlateRecord::record()
                           : question.subject.find('.') == std::string::npos ? ArborRecord::record()
                                                                             : HoleRecord::record();
    const Range& range = record.find(question.field)->range;
    if (!range.holds(value)) throw InputError(name_of(movement, question), in_quotes(text), range.sentence() + " mm");
    return value;
}

void keep_survey_reading(PivotsRecord& record, const SurveyQuestion& question, double value, const std::string& by) {
    const auto [first, second] = split(question.subject);
    if (first == "plate") {
        PlateRecord& plate = record.plate_at(second);
        *slot_of(PlateRecord::record(), &plate, question.field) = value;
        std::erase(plate.cannot, question.field);
    } else if (second.empty()) {
        ArborRecord& arbor = record.arbor_at(question.subject);
        // The reading before the arbor was trued stays beside the one after.
        if (question.field == "tir_mm" && arbor.tir_mm && !arbor.tir_before_mm) arbor.tir_before_mm = arbor.tir_mm;
        *slot_of(ArborRecord::record(), &arbor, question.field) = value;
        std::erase(arbor.cannot, question.field);
    } else {
        HoleRecord& hole = record.hole_at(first, second);
        *slot_of(HoleRecord::record(), &hole, question.field) = value;
        if (question.field == "hole_max_mm") hole.hole_max_by = by;
        std::erase(hole.cannot, question.field);
        std::erase(hole.doubtful, question.field);
        const bool of_the_hole = question.field.starts_with("hole_") || question.field.starts_with("wear_");
        if (of_the_hole && !hole.pegged) hole.doubtful.emplace_back(question.field);
    }
}

void cannot_be_measured(PivotsRecord& record, const SurveyQuestion& question) {
    const auto [first, second] = split(question.subject);
    std::vector<std::string>& cannot = first == "plate" ? record.plate_at(second).cannot
                                       : second.empty() ? record.arbor_at(question.subject).cannot
                                                        : record.hole_at(first, second).cannot;
    if (!listed(cannot, question.field)) cannot.emplace_back(question.field);
}

size_t keep_survey_csv(PivotsRecord& record, const TrainRecord& movement, const std::string& csv) {
    enum { arbor_column, plate_column, first_field };
    const std::array<const char*, 7> columns = {"arbor",       "plate", "pivot_mm", "hole_max_mm", "hole_min_mm", "wear_direction_deg",
                                                "thickness_mm"};
    Sheet<7> sheet(csv, columns);
    PivotsRecord fresh = record;
    size_t kept = 0;
    while (const auto row = sheet.next()) {
        const std::string& arbor = (*row)[arbor_column];
        const std::string& plate = (*row)[plate_column];
        if (!movement.arbor(arbor)) throw InputError(sheet.place(arbor_column), "\"" + arbor + "\"", "the id of an arbor of this job");
        if (!listed(plate_names(), plate)) throw InputError(sheet.place(plate_column), "\"" + plate + "\"", "front or back");
        for (size_t column = first_field; column < columns.size(); ++column) {
            if ((*row)[column].empty()) continue;
            const Range& range = HoleRecord::record().find(columns[column])->range;
            const double value = sheet.number(*row, column, range.min, range.max);
            if (!range.holds(value)) throw InputError(sheet.place(column), "\"" + (*row)[column] + "\"", range.sentence());
            keep_survey_reading(fresh, {arbor + "." + plate, columns[column], arbor, "", "", ""}, value);
            ++kept;
        }
    }
    record = std::move(fresh);
    return kept;
}

void set_pegged(PivotsRecord& record, const std::string& hole, bool pegged) { hole_of(record, hole).pegged = pegged; }

void decide_by_hand(PivotsRecord& record, const std::string& hole, const std::string& decision, const std::string& because,
                    const std::string& date) {
    HoleRecord& there = hole_of(record, hole);
    if (decision.empty()) {
        there.decided.reset();
        there.because.clear();
        record.log.push_back({hole, "as it follows from the readings", because, date, false});
        return;
    }
    if (!listed(hole_decisions(), decision))
        throw InputError("decided", "\"" + decision + "\"", "leave, clean, close, bush, plug or repivot-first");
    if (because.find_first_not_of(" \t") == std::string::npos)
        throw InputError("because", "nothing", "a few words: they are what you will want to read in a year");
    there.decided = decision;
    there.because = because;
    record.log.push_back({hole, "overruled: " + words_for_decision(decision), because, date, false});
}

void tick_pass(PivotsRecord& record, const DerivedHole& hole) {
    HoleRecord& there = hole_of(record, hole.id);
    if (hole.plan && there.reamed_mm.size() < hole.plan->reamers_mm.size())
        there.reamed_mm.push_back(hole.plan->reamers_mm[there.reamed_mm.size()]);
}

void untick_pass(PivotsRecord& record, const std::string& hole) {
    HoleRecord& there = hole_of(record, hole);
    if (!there.reamed_mm.empty()) there.reamed_mm.pop_back();
}

void set_done(PivotsRecord& record, const std::string& hole, bool done, const std::string& because, const std::string& date) {
    HoleRecord& there = hole_of(record, hole);
    if (there.done == done) return;
    if (!done && because.find_first_not_of(" \t") == std::string::npos)
        throw InputError("because", "nothing", "why the hole is done again: it stays in the log");
    there.done = done;
    if (!done) {
        there.reamed_mm.clear();
        there.bush.reset();
    }
    record.log.push_back({hole, done ? "done" : "to be done again", because, date, !done});
}

void keep_trial(SurveyRecord& record, const TrialRecord& trial) {
    auto& trials = record.trials;
    TrialRecord now = trial;
    const auto before = std::find_if(trials.begin(), trials.end(), [&](const TrialRecord& t) { return t.arbors == trial.arbors; });
    if (before != trials.end()) {
        now.coast_before_s = trial.coast_s ? before->coast_s : before->coast_before_s;
        trials.erase(before);
    }
    trials.push_back(now);
    if (trial.free && trial.end_shake) return;
    for (const std::string& arbor : trial.arbors)
        for (const std::string& plate : plate_names())
            if (const HoleRecord* hole = record.pivots.hole(arbor + "." + plate); hole && hole->done)
                set_done(record.pivots, hole->id(), false, "failed its trial in the plates" + (trial.note.empty() ? "" : ": " + trial.note),
                         trial.date);
}

void set_condition(SurveyRecord& record, const std::string& part, const std::string& verdict, const std::string& date) {
    ConditionRecord& condition = record.condition_at(part);
    condition.verdict = verdict;
    condition.date = date;
}

void toggle_earlier(SurveyRecord& record, const std::string& part, const std::string& work, const std::string& date) {
    ConditionRecord& condition = record.condition_at(part);
    if (std::erase(condition.earlier, work) == 0) condition.earlier.push_back(work);
    condition.date = date;
}

std::string survey_to_csv(const DerivedPivots& pivots) {
    std::string out =
        "arbor,plate,pivot_mm,hole_max_mm,hole_min_mm,wear_direction_deg,thickness_mm,decision,bush,offset_x_mm,offset_y_mm,broach_to_mm\n";
    const auto number = [](const std::optional<double>& value) { return value ? print_short(*value, 12) : std::string(); };
    for (const DerivedHole& hole : pivots.holes) {
        const HoleRecord& r = hole.record;
        const auto& plan = hole.plan;
        const bool bush = plan && plan->bush;
        out +=
            row_of({hole.arbor, hole.plate, number(r.pivot_mm), number(r.hole_max_mm), number(r.hole_min_mm), number(r.wear_direction_deg),
                    number(hole.thickness_mm), hole.decision, bush ? plan->bush->id : "", bush ? print_fixed(plan->offset_mm.x, 3) : "",
                    bush ? print_fixed(plan->offset_mm.y, 3) : "", plan ? number(plan->broach_to_mm) : ""});
    }
    return out;
}

}  // namespace echappe
