#include "stations/power/power_station.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <algorithm>
#include <cmath>

#include "document/today.h"
#include "drawing/words.h"
#include "number/input_error.h"
#include "number/units.h"
#include "power/edits.h"
#include "sheet/plot.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double drive_share = 0.52;  ///< of the width; the torque has the rest
constexpr double upper_share = 0.56;  ///< of the height; the flow has the rest

/// The figures of a drive, in the order in which they are taken.
const std::vector<std::string>& fields_of(const DriveRecord& drive) {
    static const std::vector<std::string> weight = {"drum_diameter_mm", "line_diameter_mm", "weight_kg",       "moving_pulleys",
                                                    "drum_length_mm",   "room_mm",          "least_weight_kg", "line_direction_deg"};
    static const std::vector<std::string> spring = {"barrel_bore_mm", "arbor_mm",  "barrel_height_mm",   "width_mm",
                                                    "thickness_mm",   "length_mm", "opened_diameter_mm", "end",
                                                    "cracked",        "least_N_mm"};
    static const std::vector<std::string> fusee = {"barrel_bore_mm",
                                                   "arbor_mm",
                                                   "barrel_height_mm",
                                                   "width_mm",
                                                   "thickness_mm",
                                                   "length_mm",
                                                   "opened_diameter_mm",
                                                   "end",
                                                   "barrel_diameter_mm",
                                                   "line_diameter_mm",
                                                   "chain_thickness_mm",
                                                   "line_direction_deg",
                                                   "large_diameter_mm",
                                                   "small_diameter_mm",
                                                   "cracked",
                                                   "least_N_mm"};
    static const std::vector<std::string> rewound = {"rewind_minutes", "torque_wound_N_mm",     "torque_before_N_mm", "least_N_mm",
                                                     "continuity_ohm", "continuity_wanted_ohm", "insulation_Mohm",    "contact_gf"};
    if (drive.as<RewoundDrive>()) return rewound;
    return drive.as<WeightDrive>() ? weight : drive.as<SpringDrive>() ? spring : fusee;
}

/// Of those, what stands on the drawing.
std::vector<std::string> drawn_fields_of(const DriveRecord& drive) {
    std::vector<std::string> drawn = fields_of(drive);
    for (const char* not_drawn : {"end", "cracked", "least_N_mm", "line_direction_deg"}) std::erase(drawn, not_drawn);
    return drawn;
}

/// Nothing waits for these.
bool may_stay(const std::string& field) {
    static const std::vector<std::string> all = {"drum_length_mm", "least_weight_kg", "opened_diameter_mm",    "chain_thickness_mm",
                                                 "continuity_ohm", "insulation_Mohm", "continuity_wanted_ohm", "contact_gf"};
    return std::find(all.begin(), all.end(), field) != all.end();
}

}  // namespace

PowerStation::PowerStation(const Workbench& bench)
    : CardStation(bench.document, {}, nullptr), m_workshop(bench.workshop), m_line(bench.line), m_plot(new TorquePlot(this)) {
    setAccessibleName(words("Power"));
    place_plot();
    connect(&m_document, &Document::changed, this, &PowerStation::refresh);
    connect(&m_document.selection(), &Selection::changed, this, &PowerStation::refresh);
}

const DerivedDrive* PowerStation::power() const {
    const TrainList* train = m_document.selection().train();
    for (const DerivedDrive& power : m_document.derived().power.drives)
        if (train && power.train == train->id) return &power;
    return m_document.derived().power.drives.empty() ? nullptr : &m_document.derived().power.drives.front();
}

DrawnSizes PowerStation::own_sizes() const {
    const DerivedDrive* now = power();
    if (!now) return {};
    const std::vector<std::string> fields = drawn_fields_of(now->drive);
    DrawnSizes drawn = drawn_from(lines_of(DriveRecord::record(), &now->drive, fields), fields, typed_into_drive());
    for (DrawnSize& size : drawn) size.may_stay = may_stay(size.line.field);
    return drawn;
}

void PowerStation::showEvent(QShowEvent*) { refresh(); }

void PowerStation::refresh() {
    if (!isVisible()) return;
    const DerivedDrive* now = power();
    const std::string kind = now ? word_of(now->drive.is) : "";
    if (kind != m_kind) {
        m_kind = kind;
        m_wound = 1;
        m_card->set_tabs(now ? tabs() : std::vector<SumCard::Tab>());
    }
    m_card->show_part(now ? words(m_document.job().train.name_of_arbor(now->arbor)) + words(", drive") : QString());
    m_plot->setVisible(now && !now->torque.empty());
    if (m_plot->isVisible()) m_plot->show_run(*now);
    update();
}

PowerStation::Rooms PowerStation::rooms() const {
    const double wide = width() - SumCard::wide;
    constexpr double flow_high = 276;  ///< what the flow of power needs below
    const double high = std::min(height() * upper_share, height() - flow_high);
    return {QRectF(16, 0, wide * drive_share - 16, high), QRectF(wide * drive_share + 10, 0, wide * (1 - drive_share) - 30, high),
            QRectF(16, high, wide - 32, height() - high)};
}

void PowerStation::place_plot() {
    constexpr double heads_high = 52;
    // Never without room: the plot paints itself whenever its size changes, shown or not.
    const QRectF at = rooms().torque.adjusted(-6, heads_high, 6, -verdict_high - 4);
    put(*m_plot, at.united(QRectF(at.topLeft(), QSizeF(80, 80))));
}

void PowerStation::lay_out() {
    CardStation::lay_out();
    place_plot();
}

QList<PrintTable> PowerStation::print_tables() {
    QList<PrintTable> tables = CardStation::print_tables();
    const DerivedDrive* now = power();
    if (!now || now->drive.torque_down.empty()) return tables;
    PrintTable log{words("Torque, letting down"), {{words("turns from let down"), words("N mm")}}};
    for (const auto& [turns, torque] : now->drive.torque_down)
        log.rows << QStringList{words(print_short(turns, 4)), words(print_short(torque, 4))};
    return tables << log;
}

void PowerStation::paint_over(QPainter& painter) {
    if (m_plot->isHidden()) return;
    paint_plot(painter, *m_plot);
}

void PowerStation::changeEvent(QEvent* event) {
    if (event->type() == QEvent::StyleChange) m_plot->retheme(theme());
    Canvas::changeEvent(event);
}

SumAnswer PowerStation::measured() const {
    SumAnswer answer;
    const DerivedDrive* now = power();
    if (!now) return answer;
    answer.asked = lines_of(DriveRecord::record(), &now->drive, fields_of(now->drive));
    if (now->verdict) answer.found.push_back({"verdict", "", now->verdict->reason, "", ""});
    if (!now->missing.empty()) answer.found.push_back({"missing", "", "To be given: " + now->missing + ".", "", ""});
    if (now->log) {
        answer.found.push_back({"mean", "mean torque over the run", print_short(now->log->mean_N_mm, 4), "N mm", ""});
        answer.found.push_back({"flatness", "flatness, (most − least) ÷ mean", print_fixed(100 * now->log->flatness, 0), "%", ""});
        if (now->log->hysteresis)
            answer.found.push_back(
                {"hysteresis", "lost between winding and driving", print_fixed(100 * *now->log->hysteresis, 0), "%", ""});
        answer.found.push_back({"energy", "energy of one run", print_short(now->log->energy_J, 3), "J", ""});
    }
    for (const std::string& look : now->look_at) answer.found.push_back({"look", "", "Look first at: " + look, "", ""});
    for (const DriveWarning& warning : now->warnings) answer.found.push_back({"warning", "", warning.sentence, "", ""});
    for (const std::string& wear : now->wear) answer.found.push_back({"wear", "", wear, "", ""});
    const bool weight = now->drive.as<WeightDrive>();
    answer.found.push_back(
        {"caution", "",
         now->rewind ? now->rewind->cautions.front()
         : weight    ? "A falling weight breaks feet and floors: hook it last, with the click seen to hold, and stand aside."
                     : "A wound spring is stored energy. Let down with a key that fits, hand in a glove, eyes covered; never open a "
                       "wound barrel. In doubt leave it to someone practised.",
         "", ""});
    answer.fault = now->fault;
    return answer;
}

std::optional<SpringMatchResult> PowerStation::strips() const {
    const DerivedDrive* now = power();
    return now ? strips_for(*now, m_workshop.stock().strips) : std::nullopt;
}

SumAnswer PowerStation::ranked() const {
    SumAnswer answer;
    const auto match = strips();
    if (!match) {
        answer.fault = "Strips are ranked once barrel, arbor, height and a torque are known.";
        return answer;
    }
    answer.found.push_back({"wanted_N_mm", "wanted at the barrel: " + match->wanted_from, print_short(match->wanted_N_mm, 4), "N mm", ""});
    for (const SchoolOfSprings& school : match->schools)
        answer.found.push_back({"school", "", "The old spring, by " + school.school + ": " + school.verdict + ". " + school.why, "", ""});
    for (const EqualStrip& equal : match->equal)
        answer.found.push_back({"equal", "",
                                "The same torque from " + print_fixed(equal.width_mm, 1) + " mm wide: " +
                                    print_fixed(equal.thickness_mm, 3) + " mm thick, " + print_fixed(equal.length_mm, 0) + " mm long.",
                                "", ""});
    constexpr size_t shown = 7;
    for (size_t i = 0; i < match->ranked.size() && i < shown; ++i) {
        const MatchedStrip& m = match->ranked[i];
        answer.found.push_back({"strip", "",
                                m.id + ", " + print_short(m.width_mm) + " × " + print_short(m.thickness_mm) + " × " +
                                    print_fixed(m.length_mm, 0) + " mm: " + m.verdict + ". " + m.reason,
                                "", ""});
    }
    return answer;
}

std::vector<SumCard::Tab> PowerStation::tabs() {
    const auto part = [this] { return power() ? power()->arbor + ".drive" : std::string(); };
    const auto facts = [this] {
        std::map<std::string, double> known;
        const DerivedDrive* now = power();
        if (!now) return known;
        known = numbers_of(DriveRecord::record(), &now->drive);
        if (now->drive.as<WeightDrive>() && now->turns) known["turns"] = *now->turns;
        if (now->drive.as<FuseeDrive>() && now->turns) known["fusee_turns"] = *now->turns;
        if (now->turns) known["turns_needed"] = *now->turns;
        return known;
    };
    const auto sum = [&](const QString& name, const Calculation& calculation) {
        return SumCard::of_sum(m_document, name, calculation, part, facts);
    };
    std::vector<SumCard::Tab> list = {{words("as measured"), words("Click a figure to type it; empty takes it out."),
                                       [this] { return measured(); }, typed_into_drive(),
                                       [this] { return power() ? drawn_fields_of(power()->drive) : std::vector<std::string>(); }}};
    const DriveRecord* drive = power() ? &power()->drive : nullptr;
    if (!drive || drive->as<RewoundDrive>()) {
        list.push_back(assembly());
        return list;
    }
    if (drive->as<WeightDrive>()) {
        list.push_back(sum(words("weight"), weight_drive_calculation()));
        list.push_back(assembly());
        return list;
    }
    list.push_back({words("strips"), words("Strips of the drawer, nearest to the torque wanted first."), [this] { return ranked(); }, {}});
    list.push_back(sum(words("room"), spring_size_calculation()));
    list.push_back(sum(words("torque"), spring_torque_calculation()));
    if (drive->as<FuseeDrive>()) {
        list.push_back(cone_table());
        list.push_back(sum(words("new cone"), fusee_calculation()));
    }
    list.push_back(assembly());
    list.push_back(outcomes());
    return list;
}

SumCard::Take PowerStation::typed_for_drive(
    std::function<void(DriveRecord&, const std::string& field, const std::string& word)> type) const {
    return SumCard::typed_into_part<PowerRecord>(m_document,
                                                 [this, type](PowerRecord& record, const std::string& field, const std::string& word) {
                                                     const std::string train = power()->train;
                                                     for (DriveRecord& drive : record.drives)
                                                         if (drive.train == train) return type(drive, field, word);
                                                 });
}

SumCard::Take PowerStation::typed_into_drive() const {
    return typed_for_drive([](DriveRecord& drive, const std::string& field, const std::string& word) {
        type_into_record(DriveRecord::record(), &drive, field, word);
    });
}

/// The order of putting it together, a tick for each step, its caution where it can hurt.
SumCard::Tab PowerStation::assembly() const {
    return {words("assembly"), words("Step by step; local rules and practised hands come first. Click ticks."),
            [this] {
                SumAnswer answer;
                if (!power()) return answer;
                const DriveRecord& drive = power()->drive;
                for (const DriveStep& step : drive_steps(drive.is)) {
                    const bool done = std::find(drive.steps_done.begin(), drive.steps_done.end(), step.id) != drive.steps_done.end();
                    answer.found.push_back({step.id, "", step.words, "", done ? "done" : "open"});
                    if (!step.caution.empty()) answer.found.push_back({"caution", "", step.caution, "", "caution"});
                }
                return answer;
            },
            typed_for_drive([](DriveRecord& drive, const std::string& step, const std::string& word) {
                std::erase(drive.steps_done, step);
                if (!word.empty()) drive.steps_done.push_back(step);
            })};
}

/// What was decided about the old spring, and what came of it: the workshop's own evidence.
SumCard::Tab PowerStation::outcomes() const {
    return {words("outcome"),
            words("Kept or replaced, by which school; and weeks later what came of it. Type kept ratio, kept torque, replaced torque."),
            [this] {
                SumAnswer answer;
                if (!power()) return answer;
                const auto& outcomes = power()->drive.outcomes;
                for (size_t i = 0; i < outcomes.size(); ++i) {
                    const SpringOutcome& o = outcomes[i];
                    answer.asked.push_back({std::to_string(i), o.date + ", " + o.decision + " by " + o.school + ": what came of it",
                                            o.came_of_it, "", o.came_of_it.empty() ? "unknown" : "job"});
                }
                answer.asked.push_back({"new", "decided today", "", "", "unknown"});
                return answer;
            },
            typed_for_drive([](DriveRecord& drive, const std::string& field, const std::string& word) {
                auto& all = drive.outcomes;
                if (field != "new") {
                    all.at(std::stoul(field)).came_of_it = word;
                    return;
                }
                const size_t space = word.find(' ');
                const std::string decision = word.substr(0, space), school = space == std::string::npos ? "torque" : word.substr(space + 1);
                if ((decision != "kept" && decision != "replaced") || (school != "ratio" && school != "torque"))
                    throw InputError("decided today", "\"" + word + "\"", "kept or replaced, then ratio or torque");
                all.push_back({today(), decision, school, ""});
            })};
}

/// The cone that is there, what its spring makes of it, and the cone that the spring wants, for the lathe.
SumCard::Tab PowerStation::cone_table() const {
    return {
        words("cone"),
        words("Diameters to the middle of the line, each turn from the small end: measured as [21, 22.4, …]; beside them what this spring "
              "wants."),
        [this] {
            SumAnswer answer;
            const DerivedDrive* now = power();
            if (!now || !now->drive.as<FuseeDrive>()) return answer;
            answer.asked = lines_of(DriveRecord::record(), &now->drive, {"cone_mm"});
            if (answer.asked.front().text.size() > 24)
                answer.asked.front().text = std::to_string(now->drive.as<FuseeDrive>()->cone_mm.size()) + " read";
            if (now->set_up) {
                answer.found.push_back({"set_up", "", now->set_up_advice, "", ""});
                answer.found.push_back({"suits", "", now->set_up->verdict, "", ""});
                if (now->set_up->wants_set_up_N_mm)
                    answer.found.push_back({"wants", "",
                                            "For 1.75 times the least this cone wants " + print_short(*now->set_up->wants_set_up_N_mm, 3) +
                                                " N mm at the barrel at set-up, and " + print_short(*now->set_up->wants_per_turn_N_mm, 3) +
                                                " N mm more each turn.",
                                            "", ""});
            }
            if (!now->fusee) return answer;
            answer.found.push_back({"line", "chain or line that works", print_fixed(now->fusee->line_length_mm, 0), "mm", ""});
            answer.found.push_back({"wraps", "and for the wraps", print_fixed(now->fusee->wraps_mm, 0), "mm", ""});
            answer.found.push_back({"pitch", "groove pitch", print_fixed(now->fusee->groove_pitch_mm, 2), "mm", ""});
            for (size_t q = 0; q < now->fusee->radii_mm.size(); ++q) {
                const std::string there =
                    now->cone_measured && q < now->cone_mm.size() ? "  (is " + print_fixed(2 * now->cone_mm[q], 2) + ")" : "";
                answer.found.push_back({"turn", print_fixed(static_cast<double>(q) / 4, 2) + " turns, diameter" + there,
                                        print_fixed(2 * now->fusee->radii_mm[q], 2), "mm", ""});
            }
            return answer;
        },
        typed_into_drive()};
}

void PowerStation::wind_to(double share) {
    m_wound = std::clamp(share, 0.0, 1.0);
    m_plot->show_wound(m_wound);
    update();
}

QList<Action> PowerStation::make_actions() {
    constexpr double step = 0.05;
    return CardStation::make_actions() +
           QList<Action>{{"power.wind", words("Wind it on"), {Qt::Key_Left}, [this] { wind_to(m_wound + step); }},
                         {"power.unwind", words("Let it down"), {Qt::Key_Right}, [this] { wind_to(m_wound - step); }},
                         {"power.wound", words("Wound"), {Qt::Key_Home}, [this] { wind_to(1); }},
                         {"power.run-down", words("Run down"), {Qt::Key_End}, [this] { wind_to(0); }},
                         {"power.write",
                          words("Write the torque log as CSV…"),
                          {},
                          [this] { emit csv_wanted(words("torque.csv"), torque_csv()); },
                          words("&Rate")}};
}

/// Throws InputError without a drive.
std::string PowerStation::torque_csv() const {
    const DerivedDrive* now = power();
    if (!now) throw InputError("drive", "none", "a drive with a torque log: Ctrl+5");
    return torque_to_csv(now->drive);
}

bool PowerStation::reads(const std::string& header) const { return header.find("down_N_mm") != std::string::npos; }

size_t PowerStation::read_table(Job& job, const std::string& csv) {
    const DerivedDrive* now = power();
    if (!now) throw InputError("drive", "none", "a drive for its torque: Ctrl+5");
    size_t kept = 0;
    for (DriveRecord& drive : job.power.drives)
        if (drive.train == now->train) kept = keep_torque_csv(drive, csv);
    return kept;
}

std::vector<Scene> PowerStation::scenes() {
    return {{"power-fusee", "waiting-room", [this] { card().show_sum(1), wind_to(0.6); }}, {"power-weight", "tide-house"}};
}

void PowerStation::mousePressEvent(QMouseEvent* event) {
    m_dragging = event->button() == Qt::LeftButton && m_picture.contains(event->position());
    if (!m_dragging) Canvas::mousePressEvent(event);
}

void PowerStation::mouseMoveEvent(QMouseEvent* event) {
    if (!m_dragging) return Canvas::mouseMoveEvent(event);
    // Down lets down, as a weight falls.
    wind_to(1 - (event->position().y() - m_picture.top()) / m_picture.height());
}

void PowerStation::mouseReleaseEvent(QMouseEvent*) { m_dragging = false; }

void PowerStation::paint_nothing(QPainter& painter) {
    const Theme& t = inks(painter);
    Column page(painter, QRectF(22, 40, 460, 200));
    page.head(words("No drive yet"), t.ink);
    page.says(words("Say what drives the train, then give its sizes:"), t.steel, Type::text);
    Flow kinds(painter, QRectF(22, 0, width() - SumCard::wide - 44.0, height()), page.y() + 26, 26);
    for (const auto& [kind, name] :
         {std::pair{"weight", words("a weight")}, std::pair{"spring", words("a spring in a going barrel")},
          std::pair{"fusee", words("a spring and fusee")}, std::pair{"rewound", words("rewound every few minutes")}})
        place({QString("begin:") + kind,
               kinds.say(name, t.blued, Type::figure, true),
               [this, k = std::string(kind)] { begin_with(k); },
               {},
               {}});
}

void PowerStation::begin_with(const std::string& kind) {
    const TrainList* train = m_document.selection().train();
    if (!train) return;
    m_document.edit(begin_drive(train->id, kind));
}

void PowerStation::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.ground);
    const DerivedDrive* now = power();
    m_picture = {};
    if (!now) return paint_nothing(painter);
    const Rooms here = rooms();
    paint_drive(painter, *now, here.drive);
    write_torque(painter, *now, here.torque);
    painter.fillRect(QRectF(here.flow.left(), here.flow.top(), here.flow.width(), 1), t.rule);
    paint_flow(painter, *now, here.flow);
}

}  // namespace echappe
