#include "report/papers.h"

#include <algorithm>
#include <boost/archive/iterators/base64_from_binary.hpp>
#include <boost/archive/iterators/transform_width.hpp>
#include <filesystem>
#include <map>
#include <set>

#include "bench/cautions.h"
#include "exchange/whole_file.h"
#include "number/units.h"
#include "topic.h"

namespace echappe {
namespace {

constexpr const char* papers_source = "the job's own record";

std::string base64(const std::string& bytes) {
    using namespace boost::archive::iterators;
    using Coded = base64_from_binary<transform_width<std::string::const_iterator, 6, 8>>;
    std::string out(Coded(bytes.begin()), Coded(bytes.end()));
    return out.append((3 - bytes.size() % 3) % 3, '=');
}

const char* const style =
    "@page{size:A4;margin:18mm}body{font-family:'Liberation Sans',Arial,sans-serif;color:#16222E;font-size:10.5pt;line-heig"
    "ht:1.42}h1{font-size:19pt;margin:0 0 1mm}h2{font-size:12.5pt;margin:8mm 0 2mm;border-bottom:.3mm solid #9C7A2B;padding"
    "-bottom:1mm}p{margin:0 0 2mm}table{border-collapse:collapse;width:100%}td,th{text-align:left;vertical-align:top;paddin"
    "g:1.1mm 3mm 1.1mm 0;border-bottom:.15mm solid #C8CFD4}th{font-weight:600;color:#5E6B76}td.n,th.n{text-align:right}ul{m"
    "argin:0;padding-left:5mm}li{margin:0 0 1mm}.small{color:#5E6B76;font-size:9pt}.danger{border-left:1.2mm solid #A8232F;"
    "padding:1mm 3mm;margin:2mm 0}img{max-width:100%;max-height:90mm;margin:2mm 0}.sign{margin-top:14mm;display:flex;gap:14"
    "mm}.sign div{flex:1;border-top:.2mm solid #16222E;padding-top:1mm;color:#5E6B76;font-size:9pt}tr{page-break-inside:avo"
    "id}@media screen{body{max-width:172mm;margin:14mm auto}}";

class Paper {
public:
    Paper(const JobSheetInput& in, const Derived& derived, const JobOrder& order)
        : m_in(in), m_job(in.job), m_derived(derived), m_order(order) {}

    JobSheetResult run() {
        head();
        dangers();
        if (m_in.paper == "condition" || m_in.paper == "job sheet") condition();
        if (m_in.paper == "estimate" || m_in.paper == "job sheet") estimate();
        if (m_in.paper == "done" || m_in.paper == "job sheet") done();
        if (m_in.paper == "job sheet") open_steps();
        if (colleague()) figures();
        if (m_in.paper == "job sheet" && colleague()) diary();
        after();
        m_out.html = "<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>" + escaped(m_job.title) + "</title><style>" +
                     style + "</style></head><body>\n" + m_html + "</body></html>\n";
        return std::move(m_out);
    }

private:
    const JobSheetInput& m_in;
    const Job& m_job;
    const Derived& m_derived;
    const JobOrder& m_order;
    JobSheetResult m_out;
    std::string m_html;

    bool colleague() const { return m_in.reader == "colleague"; }
    void h2(const std::string& words) { m_html += "<h2>" + escaped(words) + "</h2>\n"; }
    void p(const std::string& words, const char* of = "") {
        m_html += "<p" + std::string(*of ? " class=\"" + std::string(of) + "\"" : "") + ">" + escaped(words) + "</p>\n";
    }
    void list(const std::vector<std::string>& lines) {
        if (lines.empty()) return;
        m_html += "<ul>";
        for (const std::string& line : lines) m_html += "<li>" + escaped(line) + "</li>";
        m_html += "</ul>\n";
    }
    void row(const std::vector<std::string>& cells, bool top = false, size_t figures_from = 99) {
        m_html += "<tr>";
        for (size_t i = 0; i < cells.size(); ++i)
            m_html += std::string(top ? "<th" : "<td") + (i >= figures_from ? " class=\"n\">" : ">") + escaped(cells[i]) +
                      (top ? "</th>" : "</td>");
        m_html += "</tr>\n";
    }
    void missing(const std::string& what) { m_out.missing.push_back(what); }
    std::string money(double sum) const { return print_fixed(sum, 2); }
    std::string length(double mm) const { return m_job.length.write(mm, m_job.length.turned()); }

    void picture(const std::string& file) {
        if (file.empty() || m_in.pictures_folder.empty()) return;
        const auto path = std::filesystem::path(m_in.pictures_folder) / std::filesystem::path(file).filename();
        if (!std::filesystem::is_regular_file(path)) return missing("the picture " + file);
        const std::string kind = path.extension() == ".png" ? "png" : "jpeg";
        m_html += "<img alt=\"\" src=\"data:image/" + kind + ";base64," + base64(read_text(path)) + "\">\n";
    }
    void head() {
        static const std::map<std::string, std::string> titles = {
            {"job sheet", "Job sheet"}, {"estimate", "Estimate"}, {"condition", "Condition report"}, {"done", "What was done, and why"}};
        p(m_job.workshop + (m_in.now.empty() ? "" : ", " + m_in.now.substr(0, 10)), "small");
        m_html += "<h1>" + escaped(titles.at(m_in.paper)) + "</h1>\n";
        p(m_job.title + (m_job.number.empty() ? "" : ", job " + m_job.number));
        std::string whose;
        const auto add = [&](const std::string& words, const std::string& what) {
            if (!what.empty()) whose += (whose.empty() ? "" : ". ") + words + what;
        };
        add("For ", m_job.owner), add("Maker: ", m_job.maker), add("From ", m_job.place), add("Received ", m_job.bench.received),
            add("Promised ", m_job.bench.promised);
        if (!whose.empty()) p(whose + ".");
        if (m_job.owner.empty()) missing("the owner");
        picture(m_job.photo);
        if (!m_job.note.empty()) p(m_job.note);
    }
    void dangers() {
        for (const std::string& id : m_job.bench.dangers)
            if (const Caution* one = caution(id))
                m_html +=
                    "<div class=\"danger\"><b>" + escaped(one->name) + ".</b> " + escaped(one->why + " " + one->what_to_do) + "</div>\n";
    }
    /// Readings of our own work in hand are no finding of the clock's.
    static bool slip_of_the_workshop(const std::string& finding) { return finding.starts_with("cards.out:"); }
    static bool slip_in_the_diary(const std::string& line) {
        return line.starts_with("Cut in the wrong place") || line.starts_with("Step open again") || line.starts_with("Tooth open again");
    }
    /// What was read of a hole or an arbor that is not as it should be; empty: nothing.
    std::string read_of(const std::string& part) const {
        if (const DerivedHole* hole = m_derived.pivots.hole(part)) {
            const HoleRecord& read = hole->record;
            constexpr double oval_mm = 0.03;
            const bool oval = read.hole_max_mm && read.hole_min_mm && *read.hole_max_mm - *read.hole_min_mm > oval_mm;
            return oval ? length(*read.hole_max_mm) + " by " + length(*read.hole_min_mm) : "";
        }
        const std::string arbor = part.substr(0, part.find('.'));
        const ArborRecord* record = m_job.survey.pivots.arbor(arbor);
        const bool bent = part.ends_with(".arbor") && record && record->tir_mm && m_derived.pivots.runout.contains(arbor);
        return bent ? "it swings by " + length(*record->tir_mm) : "";
    }
    /// Worn holes, pivots and arbors as they were read, in words an owner knows, where nobody had marked them.
    void found_of_pivots(std::vector<std::string>& lines, const std::set<std::string>& told_of) const {
        for (const DerivedHole& hole : m_derived.pivots.holes) {
            const std::string& state = hole.record.pivot_state;
            if (!state.empty() && state != pivot_states().front()) lines.push_back(hole.name + ": the pivot is " + state + ".");
            if (told_of.contains(hole.id)) continue;
            const std::string oval = read_of(hole.id);
            if (!oval.empty()) lines.push_back(hole.name + ": the hole is worn oval, " + oval + ".");
            else if (hole.decision == "bush" || hole.decision == "close" || hole.decision == "plug")
                lines.push_back(hole.name + ": the hole is worn.");
        }
        for (const auto& [arbor, runout] : m_derived.pivots.runout)
            if (const ArborRecord* record = m_job.survey.pivots.arbor(arbor);
                runout.verdict == "straighten" && record && record->tir_mm && !told_of.contains(arbor + ".arbor"))
                lines.push_back(m_job.train.name_of_arbor(arbor) + ": the arbor is bent, and swings by " + length(*record->tir_mm) + ".");
    }
    void found_lost(std::vector<std::string>& lines) const {
        for (const JobArbor& arbor : m_job.train.arbors) {
            const auto lost = [&](const Count& count, const char* part) {
                return count.is == Count::Is::lost || m_job.train.choice(arbor.train.id + part);
            };
            const bool wheel = lost(arbor.train.wheel, ".wheel"), pinion = lost(arbor.train.pinion, ".pinion");
            if (wheel || pinion)
                lines.push_back(arbor.called() + (wheel && pinion ? ": the arbor is lost, with its wheel and pinion."
                                                  : wheel         ? ": the wheel is lost."
                                                                  : ": the pinion is lost."));
        }
    }
    void condition() {
        h2("As it was found");
        // A part once, with what was seen and what was read of it.
        std::vector<std::string> lines;
        std::set<std::string> told_of;
        for (const Spot& spot : m_derived.survey.spots)
            if (!spot.verdict.empty() && (!spot.severity.empty() || colleague())) {
                const ConditionRecord* told = m_job.survey.condition(spot.part);
                const std::string read = read_of(spot.part);
                lines.push_back(spot.name + ": " + spot.verdict + (read.empty() ? "" : ", " + read) +
                                (told && !told->note.empty() ? ". " + told->note : "."));
                told_of.insert(spot.part);
            }
        found_of_pivots(lines, told_of);
        found_lost(lines);
        if (lines.empty()) p("Nothing was noted that is not in order."), missing("what the survey found");
        list(lines);
        if (!m_derived.survey.earlier.empty()) {
            h2("Earlier repairs");
            std::vector<std::string> earlier;
            for (const SurveyLine& line : m_derived.survey.earlier)
                earlier.push_back(line.sentence + (line.reason.empty() ? "" : ". " + line.reason));
            list(earlier);
        }
        if (!colleague()) return;
        h2("Judgements");
        std::vector<std::string> judged;
        for (const Finding& finding : m_derived.findings)
            if (!slip_of_the_workshop(finding.id))
                judged.push_back(finding.sentence + " " + finding.reason + (finding.verdict.empty() ? "" : " (" + finding.verdict + ")"));
        list(judged);
    }
    /// What is expected, from least to most, and what nobody has priced yet.
    void labour() {
        constexpr double hour = 60, least = 0.8, most = 1.5;
        const double hours = m_order.minutes_left / hour;
        const std::string range = print_fixed(least * hours, 1) + " to " + print_fixed(most * hours, 1) + " hours";
        p("Work still to be done: " + print_fixed(hours, 1) + " hours; it may be " + range + ".");
        double parts = 0;
        std::vector<std::string> unpriced;
        for (const DerivedCard& card : m_derived.cards.cards) {
            const CardStep* take = card.step("take");
            if (!card.stock || !take || take->done) continue;
            if (card.stock->price) parts += *card.stock->price;
            else unpriced.push_back(card.name);
        }
        if (const auto price = m_derived.cards.hour_price) {
            const double work = hours * *price;
            p("At " + money(*price) + " an hour: " + money(work) + (parts > 0 ? ", and material for " + money(parts) : "") + ". Together " +
              money(work + parts) + "; from " + money(least * work + parts) + " to " + money(most * work + parts) + ".");
        } else {
            if (parts > 0) p("Material: " + money(parts) + ".");
            missing("the price of an hour");
        }
        if (!unpriced.empty()) {
            std::string names;
            for (const std::string& name : unpriced) names += (names.empty() ? "" : "; ") + name;
            p("Not priced yet: the material for " + names + ".");
        }
        p("This is what we expect, and no promise. What is found on the way is told before it is done.");
    }
    void estimate() {
        h2("What is proposed");
        if (!m_job.scope.empty()) p("Agreed: " + m_job.scope);
        else missing("the agreed scope");
        for (const ScopeChange& change : m_job.bench.scope_changes)
            p(change.date + ": " + change.words + (change.agreed_by.empty() ? "" : " Agreed by " + change.agreed_by + "."));
        if (!m_job.bench.alternatives.empty()) {
            m_html += "<table width=\"100%\" cellpadding=\"3\" cellspacing=\"0\">";
            row({"about", "way", "harm to what is original", "hours", "parts"}, true, 3);
            for (const Alternative& one : m_job.bench.alternatives)
                row({one.of, one.way + (one.chosen ? " – chosen" + (one.because.empty() ? "" : ": " + one.because) : ""), one.harm,
                     print_fixed(one.hours, 1), money(one.parts_cost)},
                    false, 3);
            m_html += "</table>\n";
        }
        labour();
        if (m_in.paper == "estimate") m_html += "<div class=\"sign\"><div>agreed, date</div><div>owner</div><div>workshop</div></div>\n";
    }
    /// As an owner is told it; empty: a step of the workshop's own.
    std::string done_in_words(const JobStep& step) const {
        static const std::map<std::string, std::string> words = {{"dismantle", "Taken apart."},
                                                                 {"clean", "Cleaned and dried."},
                                                                 {"plates", "Plates looked over."},
                                                                 {"measure", "Holes, pivots and wheels measured."},
                                                                 {"balance", "Balance looked over."},
                                                                 {"polish", "Finished as its neighbours are."},
                                                                 {"lacquer", "Lacquered."},
                                                                 {"assemble", "Put together."},
                                                                 {"strike-set", "The strike set."},
                                                                 {"oil", "Oiled and greased."},
                                                                 {"beat", "Set in beat."},
                                                                 {"run", "On test for a day."},
                                                                 {"week", "On test for a week."},
                                                                 {"regulate", "Regulated."}};
        if (const auto at = words.find(step.id); at != words.end()) return at->second;
        const auto rest = [&](const char* from) { return step.words.substr(std::min(step.words.size(), std::string(from).size())); };
        if (step.id.starts_with("make:")) return rest("Make: ") + ": made or mended.";
        if (step.id.starts_with("hole:")) return step.words + ": done.";
        if (step.id.starts_with("drive:")) return "The spring greased and its drive put together.";
        return {};
    }
    void done() {
        h2("What was done");
        std::vector<std::string> lines;
        for (const JobStep& step : m_order.steps)
            if (step.state == "done" && step.id != "receive" && step.id != "scope") {
                if (colleague()) lines.push_back(step.words + (step.because.empty() ? "" : ". " + step.because));
                else if (const std::string told = done_in_words(step); !told.empty()) lines.push_back(told);
            } else if (step.state == "passed") {
                const StepMark* mark = m_job.bench.mark(step.id);
                lines.push_back("Not done: " + step.words + (mark && !mark->because.empty() ? ". " + mark->because : ""));
            }
        list(lines);
        if (lines.empty()) p("Nothing yet.");
        if (!m_job.bench.cause.empty())
            if (const DiagnosisCause* cause = shipped_diagnosis().cause(m_job.bench.cause))
                p("What was wrong: " + cause->words + ". " + cause->why);
        if (const RateFitResult* rate = m_derived.beat.now())
            p("It " + std::string(rate->rate_s_per_day >= 0 ? "gains " : "loses ") + print_fixed(std::abs(rate->rate_s_per_day), 1) +
              " s a day.");
        if (!m_job.bench.runs.empty()) p("On test: " + m_order.ready.verdict);
        for (const DiaryLine& line : m_job.bench.diary)
            if (line.noted && !slip_in_the_diary(line.what)) p(line.when + ": " + line.what), picture(line.photo);
    }
    void open_steps() {
        h2("Order of work");
        m_html += "<table width=\"100%\" cellpadding=\"3\" cellspacing=\"0\">";
        row({"", "step", "because", "min"}, true, 3);
        for (const JobStep& step : m_order.steps)
            row({step.state == "done"     ? "✓"
                 : step.state == "passed" ? "–"
                 : step.state == "waits"  ? "…"
                                          : "☐",
                 step.words,
                 step.state == "waits" ? "waits for " + step.waits_for + (step.until.empty() ? "" : ", until " + step.until) : step.because,
                 print_fixed(step.minutes, 0)},
                false, 3);
        m_html += "</table>\n";
    }
    void figures() {
        if (!m_derived.train.arbors.empty()) {
            h2("Train");
            m_html += "<table width=\"100%\" cellpadding=\"3\" cellspacing=\"0\">";
            row({"arbor", "pinion", "wheel", "one turn"}, true);
            for (const JobArbor& arbor : m_job.train.arbors) {
                const DerivedArbor* now = m_derived.train.arbor(arbor.train.id);
                const auto count = [](const Count& of) { return of.known() ? std::to_string(of.value) : std::string(); };
                row({arbor.called(), count(arbor.train.pinion), count(arbor.train.wheel),
                     now && now->period_s ? print_span(*now->period_s) : ""});
            }
            m_html += "</table>\n";
        }
        if (m_derived.pivots.holes.empty()) return;
        h2("Holes");
        m_html += "<table width=\"100%\" cellpadding=\"3\" cellspacing=\"0\">";
        row({"hole", "pivot", "hole", "decision", "because"}, true);
        for (const DerivedHole& hole : m_derived.pivots.holes) {
            const HoleRecord& r = hole.record;
            row({hole.name, r.pivot_mm ? length(*r.pivot_mm) : "",
                 r.hole_max_mm ? length(*r.hole_max_mm) + (r.hole_min_mm ? " × " + length(*r.hole_min_mm) : "") : "",
                 hole.decision + (r.done ? ", done" : ""), hole.reason});
        }
        m_html += "</table>\n";
    }
    void diary() {
        if (m_job.bench.diary.empty()) return;
        h2("Diary");
        m_html += "<table width=\"100%\" cellpadding=\"3\" cellspacing=\"0\">";
        for (const DiaryLine& line : m_job.bench.diary)
            if (!slip_in_the_diary(line.what))
                row({line.when, line.what + (line.times > 1 ? " (" + std::to_string(line.times) + " times)" : "")});
        m_html += "</table>\n";
    }
    void after() {
        if (m_in.paper != "done" && m_in.paper != "job sheet") return;
        h2("What comes next");
        if (!m_job.bench.next_service.empty()) p("Next service due: " + m_job.bench.next_service + ".");
        else p("A clock wants its next service after three to five years, before its oil is dry.");
        std::vector<std::string> lines = {"Wind it fully and always at the same time; stop where it stops.",
                                          "Never turn its hands back past a strike.",
                                          "When it stops: note where its hands stand, and ask before you start it again."};
        if (std::any_of(m_job.power.drives.begin(), m_job.power.drives.end(),
                        [](const DriveRecord& drive) { return drive.as<WeightDrive>(); }))
            lines.push_back("Its weights stay with it; nothing heavier is hung in their place.");
        list(lines);
    }
};

}  // namespace

std::string escaped(const std::string& text) {
    std::string out;
    for (const char c : text) {
        if (c == '&') out += "&amp;";
        else if (c == '<') out += "&lt;";
        else if (c == '>') out += "&gt;";
        else if (c == '"') out += "&quot;";
        else if (c == '\n') out += "<br>";
        else out += c;
    }
    return out;
}

JobSheetResult job_sheet(const JobSheetInput& in, const Derived& derived, const JobOrder& order) { return Paper(in, derived, order).run(); }

JobSheetResult job_sheet(const JobSheetInput& in) {
    Stock stock;
    DeriveAids aids;
    if (!in.stock_folder.empty()) stock = load_stock(in.stock_folder), aids.stock = &stock;
    const Derived derived = derive(in.job, aids);
    return job_sheet(in, derived, order_of_work(in.job, derived, in.now));
}

std::vector<Working> explain_job_sheet(const JobSheetInput& in, const JobSheetResult& out) {
    std::vector<Working> list = {work_out("letters", "n of the paper", {given("n", "in it", static_cast<double>(out.html.size()), "")}, "",
                                          papers_source, [](auto x) { return x[0]; })};
    list.back().notes.push_back(in.paper + " for the " + in.reader + ".");
    for (const std::string& what : out.missing) list.back().notes.push_back("Missing: " + what + ".");
    return list;
}

const Record& JobSheetInput::record() {
    using In = JobSheetInput;
    static const Record record =
        Fields<In>()
            .include(&In::job)
            .add("paper", &In::paper, "", "which one")
            .choices({"job sheet", "estimate", "condition", "done"})
            .because("all of it on one paper")
            .add("reader", &In::reader, "", "in plain words, or with every figure")
            .choices({"owner", "colleague"})
            .because("papers mostly go to the owner")
            .add("now", &In::now, "", "\"2026-11-30 10:42\"")
            .add("stock_folder", &In::stock_folder, "", "folder of the drawers' CSV files")
            .add("pictures_folder", &In::pictures_folder, "", "beside the job: pictures that are there go into the file");
    return record;
}

const Record& JobSheetResult::record() {
    using Out = JobSheetResult;
    static const Record record = Fields<Out>()
                                     .add("html", &Out::html, "", "one file, pictures inside")
                                     .add("missing", &Out::missing, "", "what the paper would want and the job does not have");
    return record;
}

const Calculation& job_sheet_calculation() {
    static const Calculation calculation = [] {
        Calculation sheet = declare<JobSheetInput, JobSheetResult>(
            "job.sheet",
            "A paper of a job for its owner or a colleague: condition, estimate, what was done and why, the whole job sheet; HTML.",
            papers_source, [](const JobSheetInput& in) { return job_sheet(in); }, explain_job_sheet);
        sheet.every_fault = true;
        return sheet;
    }();
    return calculation;
}

}  // namespace echappe
