#include "stations/survey/survey_station.h"

#include <QKeyEvent>
#include <algorithm>
#include <cmath>

#include "document/pictures.h"
#include "document/today.h"
#include "drawing/words.h"
#include "number/input_error.h"
#include "print/hole_sheet.h"
#include "survey/edits.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double column_width = 306;
constexpr double list_width = 96;  ///< beside a plate: what has no place on it
constexpr size_t labels_shown = 40;

}  // namespace

SurveyStation::SurveyStation(const Workbench& bench)
    : Station(bench.document, nullptr), m_motion(bench.motion), m_line_below(bench.line), m_editor(new InPlaceEditor(this)) {
    setAccessibleName(words("Survey"));
    m_editor->setAccessibleName(words("note"));
    connect(m_editor, &InPlaceEditor::refused, this, [this](const QString& sentence) { emit told(sentence, true); });
    connect(&m_document, &Document::changed, this, qOverload<>(&QWidget::update));
    connect(&m_document.selection(), &Selection::changed, this, [this] {
        // The round moved on: the hole it asks for is the spot.
        const Spot* now = spot();
        if (!now || now->arbor != m_document.selection().subject() || (now->kind == "hole" && now->part != m_document.selection().hole()))
            m_spot = m_document.selection().hole();
        update();
    });
    connect(&m_motion, &Motion::moved, this, [this] {
        if (isVisible() && !m_indicated.empty()) turn_arbor(0);
    });
}

const Spot* SurveyStation::spot() const {
    const auto& spots = m_document.derived().survey.spots;
    const auto at = std::find_if(spots.begin(), spots.end(), [&](const Spot& s) { return s.part == m_spot; });
    if (at != spots.end()) return &*at;
    const auto hole = std::find_if(spots.begin(), spots.end(), [&](const Spot& s) { return s.part == m_document.selection().hole(); });
    return hole != spots.end() ? &*hole : spots.empty() ? nullptr : &spots.front();
}

void SurveyStation::go_to(const std::string& part) {
    m_spot = part;
    m_editor->leave();
    const Spot* now = spot();
    if (now && now->kind == "hole") m_document.selection().select_hole(now->arbor, now->plate);
    else if (now && !now->arbor.empty()) m_document.selection().select(now->arbor);
    m_spot = part;
    update();
}

void SurveyStation::next_open() {
    const auto& spots = m_document.derived().survey.spots;
    const Spot* now = spot();
    if (!now) return;
    const auto from = static_cast<size_t>(now - spots.data());
    for (size_t i = 1; i <= spots.size(); ++i)
        if (const Spot& next = spots[(from + i) % spots.size()]; next.verdict.empty()) return go_to(next.part);
    go_to(spots[(from + 1) % spots.size()].part);
}

void SurveyStation::write_note() {
    const Spot* now = spot();
    if (!now) return;
    const ConditionRecord* condition = m_document.job().survey.condition(now->part);
    m_editor->ask(words("%1, note").arg(words(now->name)), QRectF(width() - column_width + 12, 34, column_width - 28, 26),
                  condition ? words(condition->note) : QString(),
                  [this, part = now->part](const QString& note) { m_document.edit(note_condition(part, note.trimmed().toStdString())); });
    m_editor->setPlaceholderText(words("a word about it"));
}

QString SurveyStation::place_for_pictures() const {
    const Spot* now = spot();
    return now ? words(now->name) : QString();
}

void SurveyStation::add_photo(const QString& path) {
    const Spot* now = spot();
    if (!now) return;
    const std::string part = now->part;
    const QString kept = keep_picture(m_document.pictures(), path, words(part));
    const QString name = words(now->name);
    m_document.edit(photograph(part, name.toStdString(), kept.toStdString()));
    emit told(words("The picture is kept with %1. Ctrl+Z takes it back.").arg(name), false);
}

std::vector<SurveyStation::Word> SurveyStation::vocabulary(const Spot& spot, const Theme& t) {
    const ConditionRecord* condition = m_document.job().survey.condition(spot.part);
    std::vector<Word> list;
    if (m_earlier) {
        const std::vector<std::string> noted = condition ? condition->earlier : std::vector<std::string>();
        for (const EarlierWork& work : earlier_works_for(spot.kind))
            list.push_back({work.key, "earlier:" + words(work.id), words(work.words), t.blued,
                            std::find(noted.begin(), noted.end(), work.id) != noted.end(), words(work.why), [this, spot, work] {
                                m_document.edit(note_earlier(m_document.derived().survey, spot, work, today()));
                                emit told(words(spot.name + ": " + work.words + ". " + work.why), false);
                            }});
        return list;
    }
    for (const ConditionWord& word : conditions_for(spot.kind))
        list.push_back({word.key,
                        "verdict:" + words(word.id),
                        words(word.words),
                        word.severity.empty() ? t.verdigris : t.severity(word.severity),
                        condition && condition->verdict == word.id,
                        {},
                        [this, spot, word] {
                            m_document.edit(judge_condition(m_document.derived().survey, spot, word.id, today()));
                            emit told(words(spot.name + ": " + word.words), false);
                            // What is in order needs no more; a fault may want its teeth, a note or a photo first.
                            if (word.severity.empty()) next_open();
                        }});
    return list;
}

bool SurveyStation::word_key(const QString& letter) {
    const Spot* now = spot();
    if (!now || letter.size() != 1) return false;
    for (const Word& word : vocabulary(*now, theme())) {
        if (QChar(word.key) != letter[0]) continue;
        m_spot = now->part;
        attempt(word.say);
        return true;
    }
    return false;
}

void SurveyStation::show_earlier(bool shown) {
    m_earlier = shown;
    update();
}

void SurveyStation::safety_key(bool overrule) {
    const auto& steps = safety_steps();
    const auto open =
        std::find_if(steps.begin(), steps.end(), [&](const SafetyStep& step) { return !m_document.job().survey.step(step.id); });
    if (open == steps.end()) return;
    if (!overrule) return m_document.edit(tick_safety(open->id, "", today()));
    m_editor->ask(words("step of safety passed over, %1").arg(words(open->id)),
                  QRectF(width() - column_width + 12, 34, column_width - 28, 26), {}, [this, id = open->id](const QString& because) {
                      if (because.trimmed().isEmpty())
                          throw InputError("because", "nothing", "why this step is passed over: it stays with the job");
                      m_document.edit(tick_safety(id, because.trimmed().toStdString(), today()));
                  });
    m_editor->setPlaceholderText(words("passed over, because…"));
}

void SurveyStation::toggle_tooth(long long tooth) {
    const Spot* now = spot();
    if (!now) return;
    const std::string part = m_document.selection().subject() + ".wheel";
    m_document.edit(mark_tooth(part, tooth));
    m_spot = part;
}

void SurveyStation::type_teeth() {
    const DerivedArbor* arbor = m_document.derived().train.arbor(m_document.selection().subject());
    const long long count = arbor ? teeth_of(*arbor) : 0;
    if (count == 0) return emit told(words("No wheel with a count is on this arbor."), true);
    QStringList marked;
    const std::string part = arbor->id + ".wheel";
    if (const ConditionRecord* condition = m_document.job().survey.condition(part))
        for (const long long tooth : condition->teeth) marked << QString::number(tooth);
    m_editor->ask(words("%1 wheel, damaged teeth").arg(words(arbor->name)), m_wheel_caption, marked.join(" "),
                  [this, part, count](const QString& typed) {
                      m_document.edit(mark_teeth(part, count, typed.toStdString()));
                      m_spot = part;
                  });
    m_editor->setPlaceholderText(words("teeth 17 18, 40-42"));
}

/// Along the spots, round and round.
void SurveyStation::step(int by) {
    const auto& spots = m_document.derived().survey.spots;
    const Spot* now = spot();
    if (!now) return;
    const auto count = static_cast<std::ptrdiff_t>(spots.size());
    go_to(spots[static_cast<size_t>((now - spots.data() + by + count) % count)].part);
}

void SurveyStation::peg(bool whole_plate) {
    const Spot* now = spot();
    if (!now || now->kind != "hole") return;
    if (whole_plate) return m_document.edit(peg_plate(m_document.derived().pivots, now->plate));
    const HoleRecord* hole = m_document.job().survey.pivots.hole(now->part);
    m_document.edit(peg_hole(now->part, !(hole && hole->pegged)));
}

void SurveyStation::survey_anew() {
    m_document.edit(echappe::survey_anew());
    m_line_below.plates().begin();
}

QList<Action> SurveyStation::make_actions() {
    const QString menu = words("&Holes");
    const auto plates = [this] { return !m_parts; };
    const auto unsafe = [this] { return !m_parts && !m_document.derived().survey.safe; };
    const auto climb = [this](int by) {
        return [this, by] {
            m_spot.clear();
            m_document.selection().climb(by);
        };
    };
    const auto clear = [this] {
        if (const Spot* now = spot()) m_document.edit(judge_condition(m_document.derived().survey, *now, "", today()));
    };
    QList<Action> list = {
        {"survey.parts",
         words("Parts by their trays"),
         {Qt::Key_Y, words("Ctrl+Shift+P")},
         [this] { show_parts(!m_parts || just_come()); },
         menu,
         words("parts"),
         {},
         true},
        {"survey.earlier",
         words("Earlier repairs"),
         {Qt::Key_E},
         [this] { show_earlier(!m_earlier); },
         menu,
         words("earlier repairs"),
         plates},
        {"survey.note", words("Note at the spot…"), {Qt::Key_Slash}, [this] { write_note(); }, menu, words("note"), plates},
        {"survey.teeth", words("Damaged teeth by their numbers…"), {Qt::SHIFT | Qt::Key_T}, [this] { type_teeth(); }, menu, {}, plates},
        {"survey.anew", words("Survey the plates anew"), {}, [this] { survey_anew(); }, menu}};
    list += tally_actions();
    list += {{"survey.tick", words("Tick the next step of safety"), {Qt::Key_S}, [this] { safety_key(false); }, {}, {}, unsafe},
             {"survey.pass-over",
              words("Pass over the next step of safety, with a reason"),
              {Qt::SHIFT | Qt::Key_S},
              [this] { safety_key(true); },
              {},
              {},
              unsafe},
             {"survey.up", words("Up the ladder"), {Qt::Key_Up}, climb(1)},
             {"survey.down", words("Down the ladder"), {Qt::Key_Down}, climb(-1)},
             {"survey.before", words("The spot before"), {Qt::Key_Left}, [this] { step(-1); }},
             {"survey.after", words("The next spot"), {Qt::Key_Right}, [this] { step(1); }},
             {"survey.next", words("The next spot without a verdict"), {Qt::Key_Return}, [this] { next_open(); }, {}, words("next")},
             {"survey.clear", words("Not looked at"), {Qt::Key_Delete}, clear},
             {"survey.turn", words("Turn the arbor under the indicator"), {Qt::Key_I}, [this] { turn_arbor(15); }},
             {"survey.peg", words("Pegged clean, or not"), {Qt::Key_P}, [this] { peg(false); }, {}, words("pegged")},
             {"survey.peg-plate", words("The whole plate pegged clean"), {Qt::SHIFT | Qt::Key_P}, [this] { peg(true); }}};
    return list;
}

/// The letters of a spot's own vocabulary.
bool SurveyStation::other_key(QKeyEvent& event) {
    const bool plain = !(event.modifiers() & (Qt::ControlModifier | Qt::AltModifier));
    return plain && word_key(event.text());
}

Printout SurveyStation::printed() { return survey_sheet(m_document.job(), m_document.derived()); }

std::vector<Scene> SurveyStation::scenes() {
    return {{"survey", {}, [this] { m_document.selection().select_hole("centre", "front"), go_to("centre.wheel"); }},
            {"survey-earlier", {}, [this] { show_earlier(true); }, {}, [this] { show_earlier(false); }},
            {"survey-parts", {}, [this] { show_parts(true); }, {}, [this] { show_parts(false); }}};
}

QColor SurveyStation::ink_of(const Spot& spot, const Theme& t) const {
    if (m_earlier) return spot.earlier.empty() ? t.steel : t.blued;
    if (spot.verdict.empty()) return t.steel;
    return spot.severity.empty() ? t.verdigris : t.severity(spot.severity);
}

QString SurveyStation::word_of(const Spot& spot) const {
    if (m_earlier) return words(spot.earlier);
    if (!spot.verdict.empty()) return words(spot.verdict);
    return spot.measured ? words("measured") : words("not looked at");
}

void SurveyStation::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.ground);
    if (m_document.derived().survey.spots.empty() || m_document.derived().train.arbors.empty()) {
        write(painter, type(Type::head, true), t.ink, {22, 60}, words("Nothing to survey yet"));
        write_wrapped(
            painter, type(Type::text), t.steel, {22, 78}, 460,
            words("Open a job with Ctrl+O, or the demo from the Job menu: its plates, holes and wheels are the places to judge."));
        return;
    }
    const Spot* now = spot();
    m_shown = now ? now->part : "";
    const double left = width() - column_width;
    if (m_parts) {
        paint_parts(painter, QRectF(18, 12, left - 36, height() - 24));
    } else {
        const double plates_high = std::clamp(height() * 0.55, 230.0, 540.0);
        const double plate_wide = (left - 52) / 2;
        paint_plate(painter, "front", QRectF(16, 40, plate_wide, plates_high - 40));
        paint_plate(painter, "back", QRectF(36 + plate_wide, 40, plate_wide, plates_high - 40));
        painter.fillRect(QRectF(16, plates_high + 10, left - 32, 1), t.rule);
        paint_arbor(painter, QRectF(16, plates_high + 12, left - 32, height() - plates_high - 16));
    }
    paint_column(painter, QRectF(left, 0, column_width, height()));
}

/// Looked at: filled; not yet: dotted. A fault has a ring. Among earlier repairs those that were touched are filled.
void SurveyStation::paint_spot(QPainter& painter, const Spot& spot, QPointF at, double radius) {
    const Theme& t = inks(painter);
    if (m_shown == spot.part) {
        painter.setPen(QPen(t.blued, 1.6));
        painter.setBrush(t.dark ? t.ground : QColor(Qt::white));
        painter.drawEllipse(at, radius + 8, radius + 8);
    }
    const QColor ink = ink_of(spot, t);
    const bool seen = m_earlier ? !spot.earlier.empty() : !spot.verdict.empty();
    const bool ringed = !m_earlier && !spot.severity.empty();
    const bool dotted = !m_earlier && spot.pegged;
    const int variant = (seen ? 1 : 0) + (ringed ? 2 : 0) + (dotted ? 4 : 0);
    PlateArt::stamp(painter, {PlateArt::Sign::spot, variant, radius, ink.rgba()}, at, radius + 6, [&](QPainter& into, QPointF middle) {
        into.setPen(QPen(ink, 1.5, seen ? Qt::SolidLine : Qt::DotLine));
        into.setBrush(seen ? ink : t.sheet);
        into.drawEllipse(middle, radius, radius);
        if (ringed) {
            into.setBrush(Qt::NoBrush);
            into.drawEllipse(middle, radius + 3.5, radius + 3.5);
        }
        if (!dotted) return;
        into.setPen(Qt::NoPen);
        into.setBrush(seen ? t.sheet : t.ink);
        into.drawEllipse(middle, radius * 0.35, radius * 0.35);
    });
    place({"spot:" + words(spot.part),
           QRectF(at - QPointF(radius + 6, radius + 6), QSizeF(2 * radius + 12, 2 * radius + 12)),
           [this, part = spot.part] { go_to(part); },
           {},
           {},
           [this, part = spot.part] {
               const auto& spots = m_document.derived().survey.spots;
               const auto here = std::find_if(spots.begin(), spots.end(), [&](const Spot& s) { return s.part == part; });
               if (here == spots.end()) return QString();
               return words(here->name) + ": " + word_of(*here);
           },
           {},
           m_shown == spot.part,
           true});
}

void SurveyStation::paint_plate(QPainter& painter, const std::string& plate, const QRectF& room) {
    const Theme& t = inks(painter);
    const bool behind = plate == "back";
    const auto& spots = m_document.derived().survey.spots;
    write(painter, type(Type::note, true), t.steel, {room.left() + 2, room.top() - 14}, PlateArt::title(behind, room.width()));
    const PlateMap map = PlateArt::fitted(m_document.job(), m_document.derived(), room.adjusted(0, 0, -list_width, 0), behind);
    PlateArt::paint(painter, m_document.job(), map);
    const bool named = m_document.derived().pivots.holes.size() <= labels_shown;
    PlateArt::Labels labels;
    const auto here = [&](const Spot& s) { return s.plate == plate && (s.kind == "hole" || s.kind == "pillar"); };
    for (const Spot& s : spots)
        if (here(s)) labels.keep_clear(QRectF(map.at(s.x_mm, s.y_mm) - QPointF(10, 10), QSizeF(20, 20)));
    for (const Spot& s : spots) {
        if (!here(s)) continue;
        const QPointF at = map.at(s.x_mm, s.y_mm);
        paint_spot(painter, s, at, named ? (s.kind == "pillar" ? 5 : 7) : 4);
        const bool selected = m_shown == s.part;
        if (s.kind == "pillar" || (!named && !selected)) continue;
        // A dashed ring says that it was not looked at: the words at every spot would hide the plate.
        const bool said = selected || m_earlier || s.measured || !s.verdict.empty();
        labels.write_beside(painter, at, selected ? 13 : 9, room.adjusted(-12, -2, -list_width + 6, 12),
                            words(m_document.job().train.name_of_arbor(s.arbor)), selected ? t.blued : t.ink, said ? word_of(s) : QString(),
                            ink_of(s, t));
    }
    // What has no place on the plan stands in a list beside the plate it is reached from.
    double y = room.top() + 12;
    const double x = room.right() - 86;
    for (const Spot& s : spots) {
        const bool listed =
            behind ? s.part == "plate.back" || s.kind == "pallets" || s.kind == "drive" : s.part == "plate.front" || s.kind == "hand";
        if (!listed) continue;
        paint_spot(painter, s, {x, y}, 6);
        const bool selected = m_shown == s.part;
        write(painter, type(Type::note, true), selected ? t.blued : t.ink, {x + 16, y - 1},
              s.kind == "drive"   ? words("Drive")
              : s.kind == "plate" ? words("Plate")
                                  : elided(type(Type::note, true), words(s.name), list_width - 12));
        constexpr double below = 26;
        y += below + std::max(14.0, write_wrapped(painter, type(Type::note), ink_of(s, t), {x + 16, y + 1}, list_width - 12, word_of(s)));
    }
}

}  // namespace echappe
