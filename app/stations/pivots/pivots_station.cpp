#include "stations/pivots/pivots_station.h"

#include <QKeyEvent>
#include <QTimer>
#include <algorithm>
#include <cmath>

#include "document/today.h"
#include "drawing/words.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "pivots/hole_steps.h"
#include "print/hole_sheet.h"
#include "sheet/marks.h"
#include "survey/edits.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double card_width = 306;
constexpr double sizes_wide = 168;   ///< what is read of a hole, beside its picture
constexpr double wide_gap = 74;      ///< between the plates, for the progress
constexpr size_t labels_shown = 40;  ///< more would be a thicket: then only the selected hole is named
constexpr double seen_walk = 0.28;   ///< of the pivot's radius: from here on a walk is seen without exaggeration

/// 1, 2, 4 or 8: as little as makes the walk seen.
double exaggeration(const DerivedHole& hole) {
    if (!hole.plan) return 1;
    const auto& off = hole.asked->old_bush_off_mm;
    const double walk = off ? std::hypot(off->x, off->y) : hole.plan->worn_mm;
    for (const double times : {1.0, 2.0, 4.0})
        if (walk * times >= seen_walk * hole.asked->pivot_mm) return times;
    return walk > 0.004 ? 8 : 1;
}

}  // namespace

PivotsStation::PivotsStation(const Workbench& bench)
    : Station(bench.document, nullptr),
      m_workshop(bench.workshop),
      m_line(bench.line),
      m_editor(new InPlaceEditor(this)),
      m_between(new BetweenView(bench.document, bench.line.plates(), this)) {
    setAccessibleName(words("Pivots"));
    m_editor->setAccessibleName(words("reason"));
    connect(m_editor, &InPlaceEditor::refused, this, [this](const QString& sentence) { emit told(sentence, true); });
    m_between->hide();
    connect(m_between, &BetweenView::told, this, &PivotsStation::told);
    connect(m_between, &BetweenView::round_changed, this, &PivotsStation::round_changed);
    connect(m_between, &BetweenView::left, this, [this] { show_between(false); });
    connect(&m_document, &Document::changed, this, qOverload<>(&QWidget::update));
    connect(&m_document.selection(), &Selection::changed, this, [this] {
        m_editor->leave();
        update();
    });
}

QString PivotsStation::length(double mm, int more) const {
    return words(m_document.job().length.write(mm, m_document.job().length_decimals() + more, false));
}

ReadingRound* PivotsStation::own_round() const {
    if (between_shown() && m_between->size_round().wanted()) return &m_between->size_round();
    return &m_line.plates();
}

/// Of the selected hole, its pivot and its plate.
DrawnSizes PivotsStation::own_sizes() const {
    const DerivedHole* now = hole();
    if (!now) return {};
    DrawnSizes sizes = m_line.plates().sizes({now->id, "plate." + now->plate});
    std::erase_if(sizes, [](const DrawnSize& size) { return size.line.field == "flatness_mm" || size.line.field == "pillar_out_mm"; });
    return sizes;
}

void PivotsStation::next_open() {
    const auto& holes = m_document.derived().pivots.holes;
    const auto at = std::find_if(holes.begin(), holes.end(), [&](const DerivedHole& h) { return h.id == m_document.selection().hole(); });
    const auto from = static_cast<size_t>(at - holes.begin());
    for (size_t i = 1; i <= holes.size(); ++i) {
        const DerivedHole& next = holes[(from + i) % holes.size()];
        if (next.open()) return m_document.selection().select_hole(next.arbor, next.plate);
    }
}

void PivotsStation::take_bush() {
    const DerivedHole* now = hole();
    if (!now || now->decision != "bush" || !now->plan || !now->plan->bush)
        throw InputError("bush", "a hole without one", "a hole that is to be bushed, with a bush in the drawer");
    if (now->record.bush) throw InputError("bush", *now->record.bush + ", taken already", "a hole whose bush was not taken yet");
    const std::string id = now->plan->bush->id;
    const auto count_down = [&workshop = m_workshop, id](bool taken) {
        workshop.change([&](Stock& stock) {
            for (Bush& bush : stock.bushes)
                if (bush.id == id) bush.quantity = std::max(0LL, bush.quantity + (taken ? -1 : 1));
        });
    };
    // The job first, then the drawer: its plan keeps this bush, whatever the drawer has left.
    m_document.edit(bush_taken(*now, id), count_down);
    emit told(words("Bush %1 is taken from the drawer.").arg(words(id)), false);
}

void PivotsStation::next_school() {
    const std::string& school = m_document.job().survey.pivots.clearance.school;
    m_document.edit(choose_clearance_school(school == "tilt" ? "fraction" : school == "fraction" ? "table" : "tilt"));
}

void PivotsStation::other_method() { m_document.edit(other_bush_method()); }

void PivotsStation::overrule(const std::string& decision) {
    const DerivedHole* now = hole();
    if (!now) return;
    if (decision == (now->plan ? now->plan->decision : "") || decision.empty()) {
        if (now->by_hand) m_document.edit(decide_hole(*now, "", "back to what the readings say", today()));
        return;
    }
    const QRectF at = place_of("decide:" + words(decision));
    const QString stands = now->by_hand ? words(now->record.because) : QString();
    m_editor->ask(words("%1, %2 because").arg(words(now->name), words(words_for_decision(decision))),
                  QRectF(width() - card_width + 10, at.isNull() ? 80 : at.top(), card_width - 24, 26), stands,
                  [this, decision, id = now->id](const QString& because) {
                      if (const DerivedHole* then = m_document.derived().pivots.hole(id))
                          m_document.edit(decide_hole(*then, decision, because.toStdString(), today()));
                  });
    m_editor->setPlaceholderText(words("%1 because… (kept)").arg(words(words_for_decision(decision))));
}

void PivotsStation::tick() {
    if (const DerivedHole* now = hole()) m_document.edit(pass_reamed(*now));
}

void PivotsStation::finish_or_redo() {
    const DerivedHole* now = hole();
    if (!now || now->decision.empty()) return;
    if (!now->record.done) return m_document.edit(mark_done(*now, true, "", today()));
    m_editor->ask(words("%1, again because").arg(words(now->name)), QRectF(width() - card_width + 10, 70, card_width - 24, 26), {},
                  [this, id = now->id](const QString& because) {
                      if (const DerivedHole* then = m_document.derived().pivots.hole(id))
                          m_document.edit(mark_done(*then, false, because.toStdString(), today()));
                  });
    m_editor->setPlaceholderText(words("again, because… (kept)"));
}

void PivotsStation::trial(bool runs) {
    if (m_document.selection().subject().empty()) return;
    m_document.edit(trial_made({{m_document.selection().subject()}, runs, runs, {}, {}, "", ""}, today()));
    emit told(runs ? words("Kept: spins freely alone between the plates, end shake felt.")
                   : words("Kept: does not run; its holes are back on the list."),
              !runs);
}

void PivotsStation::show_between(bool shown) {
    m_between->setVisible(shown);
    if (!shown) return setFocus();
    lay_out();
    m_between->refresh();
    m_between->setFocus();
}

void PivotsStation::lay_out() { put(*m_between, rect()); }

QList<Action> PivotsStation::make_actions() {
    const QString menu = words("&Holes");
    const auto end = [this](const char* plate) {
        return [this, plate] { m_document.selection().select_hole(m_document.selection().subject(), plate); };
    };
    const auto untick = [this] { m_document.edit(pass_not_reamed(m_document.selection().hole())); };
    const auto peg = [this] {
        if (const DerivedHole* now = hole()) m_document.edit(peg_hole(now->id, !now->record.pegged));
    };
    const auto peg_plate = [this] {
        if (const DerivedHole* now = hole()) m_document.edit(echappe::peg_plate(m_document.derived().pivots, now->plate));
    };
    return climbing() +
           QList<Action>{
               {"pivots.front", words("The front hole"), {Qt::Key_Left}, end("front")},
               {"pivots.back", words("The back hole"), {Qt::Key_Right}, end("back")},
               {"pivots.take",
                words("Take the planned bush from the drawer"),
                {Qt::Key_T},
                [this] { take_bush(); },
                menu,
                words("take bush")},
               {"pivots.ream", words("Tick the next reamer"), {Qt::Key_R}, [this] { tick(); }, menu, words("reamed")},
               {"pivots.unream", words("Pass not reamed"), {Qt::SHIFT | Qt::Key_R}, untick},
               {"pivots.finish", words("Done, or to be done again"), {Qt::Key_D}, [this] { finish_or_redo(); }, menu, words("done")},
               {"pivots.next",
                words("The next hole with work"),
                {Qt::Key_Return, words("Ctrl+H")},
                [this] { next_open(); },
                menu,
                words("next")},
               {"pivots.school", words("School of clearance: the next"), {Qt::Key_C}, [this] { next_school(); }, menu, words("school")},
               {"pivots.order",
                words("The work of a bush in its order, or its reamers"),
                {Qt::Key_O},
                [this] { m_order = !m_order, update(); },
                menu,
                words("order")},
               {"pivots.method",
                words("Bushes: fitted direct, or broached up"),
                {Qt::Key_M},
                [this] { other_method(); },
                menu,
                words("method")},
               {"pivots.peg", words("Pegged clean, or not"), {Qt::Key_P}, peg},
               {"pivots.peg-plate", words("The whole plate pegged clean"), {Qt::SHIFT | Qt::Key_P}, peg_plate},
               {"pivots.between",
                words("Between the plates: end shake, trials, sums"),
                {Qt::Key_E, words("Ctrl+Shift+B")},
                [this] { show_between(!between_shown() || just_come()); },
                menu,
                words("between plates"),
                {},
                true},
               {"pivots.runs", words("Runs freely alone between the plates"), {Qt::Key_F}, [this] { trial(true); }, menu},
               {"pivots.stuck", words("Does not run: its holes back on the list"), {Qt::SHIFT | Qt::Key_F}, [this] { trial(false); }, menu},
               {"pivots.write",
                words("Write the holes as CSV…"),
                {},
                [this] { emit csv_wanted(words("holes.csv"), survey_to_csv(m_document.derived().pivots)); },
                menu}};
}

Printout PivotsStation::printed() { return hole_sheet(m_document.job(), m_document.derived()); }

bool PivotsStation::reads(const std::string& header) const { return header.find("arbor") != std::string::npos; }

size_t PivotsStation::read_table(Job& job, const std::string& csv) { return keep_survey_csv(job.survey.pivots, job.train, csv); }

std::vector<Scene> PivotsStation::scenes() {
    const auto undo_twice = [this] {
        for (int i = 0; i < 2; ++i) m_document.undo_stack()->undo();
    };
    const auto a_while = [waited = 0]() mutable { return ++waited > 6; };
    return {{"pivots", {}, [this] { m_document.selection().select_hole("escape", "front"), tick(), tick(); }, a_while, undo_twice},
            {"pivots-between",
             {},
             [this] { m_document.selection().select_hole("escape", "front"), show_between(true); },
             {},
             [this] { show_between(false); }},
            {"pivots-watch", "watch", [this] { m_document.selection().select_hole("third", "front"); }, a_while}};
}

void PivotsStation::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.ground);
    const DerivedPivots& pivots = m_document.derived().pivots;
    if (pivots.holes.empty()) {
        write(painter, type(Type::head, true), t.ink, {22, 60}, words("No holes yet"));
        write_wrapped(painter, type(Type::text), t.steel, {22, 78}, 460,
                      words("Open a job with Ctrl+O, or the demo from the Job menu; its arbors bring their holes."));
        return;
    }
    const double left = width() - card_width;
    const double plates_high = std::clamp(height() * 0.54, 220.0, 520.0);
    const double plate_wide = (left - wide_gap - 28) / 2;
    paint_plate(painter, "front", QRectF(16, 40, plate_wide, plates_high - 40));
    paint_plate(painter, "back", QRectF(16 + plate_wide + wide_gap, 40, plate_wide, plates_high - 40));
    paint_progress(painter, QRectF(16 + plate_wide, 36, wide_gap, 90));
    painter.fillRect(QRectF(16, plates_high + 10, left - 32, 1), t.rule);
    if (const DerivedHole* now = hole()) {
        const double large = std::min(left * 0.56, height() - plates_high + 90);
        paint_large(painter, *now, QRectF(16, plates_high + 12, large, height() - plates_high - 14));
        paint_reamers(painter, *now, QRectF(30 + large, plates_high + 12, left - large - 50, height() - plates_high - 14));
    }
    paint_card(painter, QRectF(left, 0, card_width, height()));
}

void PivotsStation::paint_plate(QPainter& painter, const QString& plate, const QRectF& room) {
    const Theme& t = inks(painter);
    const bool behind = plate == "back";
    const DerivedPivots& pivots = m_document.derived().pivots;
    write(painter, type(Type::note, true), t.steel, {room.left() + 2, room.top() - 14}, PlateArt::title(behind, room.width()));
    const PlateMap map = PlateArt::fitted(m_document.job(), m_document.derived(), room, behind);
    PlateArt::paint(painter, m_document.job(), map);
    const bool named = pivots.holes.size() <= labels_shown;
    PlateArt::Labels labels;
    constexpr double radius = 7;
    for (const DerivedHole& hole : pivots.holes)
        if (hole.plate == plate.toStdString()) labels.keep_clear(QRectF(map.at(hole.x_mm, hole.y_mm) - QPointF(11, 11), QSizeF(22, 22)));
    for (const DerivedHole& hole : pivots.holes) {
        if (hole.plate != plate.toStdString()) continue;
        const QPointF at = map.at(hole.x_mm, hole.y_mm);
        const bool selected = hole.id == m_document.selection().hole();
        if (selected) {
            painter.setPen(QPen(t.blued, 1.6));
            painter.setBrush(t.dark ? t.ground : QColor(Qt::white));
            painter.drawEllipse(at, 17, 17);
        }
        PlateArt::mark(painter, at, named ? radius : 4, hole.decision, hole.record.done);
        place({"hole:" + words(hole.id),
               QRectF(at - QPointF(15, 15), QSizeF(30, 30)),
               [this, hole_arbor = hole.arbor, p = hole.plate] { m_document.selection().select_hole(hole_arbor, p); },
               {},
               {},
               [this, id = hole.id] {
                   const DerivedHole* here = m_document.derived().pivots.hole(id);
                   return here ? words(here->name + ": " + (here->reason.empty() ? "not measured yet" : here->reason)) : QString();
               },
               {},
               selected,
               true});
        if (!named && !selected) continue;
        // A dotted ring says that it is not measured: the word at every hole would hide the plate.
        const bool said = !hole.decision.empty() || selected;
        const QString what =
            said ? (hole.record.done ? words("done · ") : QString()) + words(words_for_decision(hole.decision)) : QString();
        labels.write_beside(painter, at, selected ? 14 : 8, room.adjusted(-12, -2, 12, 12),
                            words(m_document.job().train.name_of_arbor(hole.arbor)), selected ? t.blued : t.ink, what,
                            hole.record.done ? t.steel : PlateArt::ink(hole.decision, t));
    }
}

void PivotsStation::paint_progress(QPainter& painter, const QRectF& room) {
    const DerivedPivots& pivots = m_document.derived().pivots;
    const Theme& t = inks(painter);
    const auto measured =
        std::count_if(pivots.holes.begin(), pivots.holes.end(), [](const DerivedHole& hole) { return hole.plan.has_value(); });
    const bool begun = pivots.holes_to_do > 0;
    write(
        painter, type(Type::head, true), t.ink, {room.center().x(), room.top() + 24},
        begun ? words("%1 of %2").arg(pivots.holes_done).arg(pivots.holes_to_do) : words("%1 of %2").arg(measured).arg(pivots.holes.size()),
        0);
    write(painter, type(Type::note), t.steel, {room.center().x(), room.top() + 42}, begun ? words("holes done") : words("measured"), 0);
    if (!pivots.shopping.empty()) {
        QStringList lines;
        for (const ShoppingLine& line : pivots.shopping)
            lines << words("%1: %2 wanted, %3 there").arg(words(line.words)).arg(line.wanted).arg(line.there);
        write(painter, type(Type::note), t.amber, {room.center().x(), room.top() + 62}, words("%1 to order").arg(lines.size()), 0);
        place({"shopping", QRectF(room.left(), room.top() + 48, room.width(), 20), {}, lines.join("\n"), {}});
    }
}

void PivotsStation::paint_large(QPainter& painter, const DerivedHole& hole, const QRectF& room) {
    const Theme& t = inks(painter);
    Column page(painter, room.adjusted(2, 6, -18, 0));
    page.section(elided(type(Type::note, true), words(hole.name).toUpper() + words(" HOLE"), room.width() - 26));
    if (!hole.plan) return paint_unmeasured(painter, hole, room.adjusted(0, page.y() - room.top(), 0, 0));
    const Enlarged large = enlarged(hole, room.adjusted(0, 0, -sizes_wide, 0));
    page.gap(-4);
    page.line((large.times > 1 ? words("wear drawn × %1").arg(large.times) : words("wear to scale")) +
                  (large.view.mirrored ? words(", as seen from behind") : ""),
              t.steel);
    paint_planned_bush(painter, large);
    paint_hole_and_pivot(painter, large);
    if (large.apart) paint_centres(painter, large);
    cross(painter, large.centre, 9, QPen(t.blued, 1.8));
    if (hole.push_deg) paint_push(painter, large, room.adjusted(0, 0, -sizes_wide, 0));
    if (hole.plan->decision == "bush" || hole.plan->decision == "plug") paint_offset(painter, hole, room);
    write_sizes(painter, hole, large.centre + large.hole_at + large.walk, large.original_mm / 2 * large.px,
                hole.asked->pivot_mm / 2 * large.px, room);
}

/// A hole and its pivot as a sign, with all that is to be read open beside it.
void PivotsStation::paint_unmeasured(QPainter& painter, const DerivedHole& hole, const QRectF& room) {
    const Theme& t = inks(painter);
    Column page(painter, room.adjusted(2, 0, -18, 0));
    const bool lost = std::find(hole.record.cannot.begin(), hole.record.cannot.end(), "pivot_mm") != hole.record.cannot.end();
    if (!hole.fault.empty()) page.says(words(hole.fault), t.steel, Type::text);
    else if (lost)
        page.says(words("The arbor is lost: its pivot is made to this hole once the hole is sound. Read hole and plate."), t.steel,
                  Type::text);
    const QRectF picture(room.left(), page.y() + 6, room.width() - sizes_wide, room.bottom() - page.y() - 18);
    const double radius = std::max(10.0, std::min(picture.width() - 40, picture.height() - 10) / 2), shaft = 0.86 * radius;
    painter.setPen(QPen(t.brass, 1.8, Qt::DashLine));
    painter.setBrush(t.sheet);
    painter.drawEllipse(picture.center(), radius, radius);
    QColor steel = t.steel;
    steel.setAlphaF(lost ? 0.0f : 0.25f);
    painter.setPen(QPen(t.steel, 0.9, Qt::DashLine));
    painter.setBrush(steel);
    painter.drawEllipse(picture.center(), shaft, shaft);
    cross(painter, picture.center(), 9, QPen(t.steel, 1.2));
    write_sizes(painter, hole, picture.center(), radius, shaft, room);
}

/// What is read of hole, pivot and plate, in a column at the right of the picture.
void PivotsStation::write_sizes(QPainter& painter, const DerivedHole& hole, QPointF centre, double hole_px, double pivot_px,
                                const QRectF& room) {
    const DrawnSizes drawn = sizes();
    Dimensions dimensions(painter, drawn, asked_size());
    const QString of = words(hole.id) + ".";
    const auto on = [&](double radius, double deg) {
        return centre + radius * QPointF(std::cos(deg * rad_per_deg), -std::sin(deg * rad_per_deg));
    };
    dimensions.at(of + "pivot_mm", on(pivot_px, 35));
    dimensions.at(of + "hole_min_mm", on(hole_px, 20));
    dimensions.at(of + "hole_max_mm", on(hole_px, 0));
    dimensions.rest();
    constexpr double least_high = 150;
    const double high = std::min(room.height() - 30, std::max(least_high, 34.0 * static_cast<double>(drawn.size())));
    dimensions.lay_out({room.right() - sizes_wide + 10, room.top() + 24, sizes_wide - 16, high});
    place_sizes(painter, dimensions);
}

/// Positions from the true centre: the hole as it was made round it, walked by the wear; an old bush stands off whole.
PivotsStation::Enlarged PivotsStation::enlarged(const DerivedHole& hole, const QRectF& room) {
    Enlarged large{hole};
    const BushPlanResult& plan = *hole.plan;
    large.times = exaggeration(hole);
    large.view.mirrored = hole.plate == "back";
    const double widest = std::max(
        {plan.bush ? plan.bush->outside_mm : 0.0, hole.asked->hole_max_mm + 2 * large.times * plan.worn_mm, hole.asked->pivot_mm * 1.6});
    large.px = std::min(room.width() - 30, room.height() - 76) / widest;
    large.original_mm = hole.asked->original_mm.value_or(hole.asked->hole_min_mm);
    const bool off = hole.asked->old_bush_off_mm.has_value();
    if (off) large.hole_at = QPointF(large.view.mirrored ? plan.offset_mm.x : -plan.offset_mm.x, plan.offset_mm.y) * large.px * large.times;
    else large.walk = large.view.way(hole.wear_deg.value_or(0)) * plan.worn_mm * large.px * large.times;
    large.apart = plan.worn_mm > 0.01 || off;
    const QPointF middle(room.left() + room.width() * 0.5, room.top() + 40 + (room.height() - 72) / 2);
    large.centre = middle - large.walk / 2 - large.hole_at / 2;
    return large;
}

void PivotsStation::paint_planned_bush(QPainter& painter, const Enlarged& large) {
    const auto& bush = large.hole.plan->bush;
    if (!bush) return;
    const Theme& t = inks(painter);
    painter.setPen(QPen(t.blued, 1.4, Qt::DashLine));
    painter.setBrush(Qt::NoBrush);
    const double radius = bush->outside_mm / 2 * large.px;
    painter.drawEllipse(large.centre, radius, radius);
    on_paper(painter, type(Type::note), t.blued, large.centre + QPointF(0, radius - 4),
             words("bush Ø %1 %2").arg(length(bush->outside_mm), words(m_document.job().length.symbol)));
}

void PivotsStation::paint_hole_and_pivot(QPainter& painter, const Enlarged& large) {
    const Theme& t = inks(painter);
    const DerivedHole& hole = large.hole;
    const double radius = large.original_mm / 2 * large.px;
    painter.setPen(QPen(t.brass, 1.8));
    painter.setBrush(t.sheet);
    painter.drawPath(PlateArt::worn_hole(large.centre + large.hole_at, radius, large.walk));
    if (!large.walk.isNull() && large.apart) {
        painter.setPen(QPen(t.steel, 0.9, Qt::DotLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(large.centre, radius, radius);
    }
    // The pivot lies where it is pushed: against the worn end.
    const double play = std::max(0.0, large.original_mm - hole.asked->pivot_mm) / 2 * large.px;
    QColor steel = t.steel;
    steel.setAlphaF(0.45f);
    painter.setBrush(steel);
    painter.setPen(QPen(t.ink, 0.9));
    const QPointF pushed = hole.wear_deg ? large.view.way(*hole.wear_deg) * play : QPointF();
    const double pivot = hole.asked->pivot_mm / 2 * large.px;
    painter.drawEllipse(large.centre + large.hole_at + large.walk + pushed, pivot, pivot);
}

/// Where the hole stands now and where it belongs, each named on its own side.
void PivotsStation::paint_centres(QPainter& painter, const Enlarged& large) {
    const Theme& t = inks(painter);
    const QPointF worn_at = large.centre + large.hole_at + large.walk / 2;
    cross(painter, worn_at, 7, QPen(t.brass_ink, 1.8));
    const QPointF away = worn_at - large.centre;
    const double side = away.x() >= 0 ? 1 : -1;
    write(painter, type(Type::note), t.brass_ink, worn_at + QPointF(side * 10, away.y() >= 0 ? 16 : -8),
          large.hole.asked->old_bush_off_mm ? words("as bushed") : words("worn"), side > 0 ? -1 : 1);
    write(painter, type(Type::note, true), t.blued, large.centre + QPointF(-side * 12, away.y() >= 0 ? -8 : 16), words("true centre"),
          side > 0 ? 1 : -1);
}

void PivotsStation::paint_push(QPainter& painter, const Enlarged& large, const QRectF& room) {
    const Theme& t = inks(painter);
    const BushPlanResult& plan = *large.hole.plan;
    const QPointF way = large.view.way(*large.hole.push_deg);
    const double from =
        std::max(plan.bush ? plan.bush->outside_mm / 2 * large.px : 0, (large.original_mm / 2 + plan.worn_mm * large.times) * large.px) + 6;
    const QPointF a = large.centre + way * from;
    const QPointF b = large.centre + way * (from + 34);
    painter.setPen(QPen(t.steel, 1.6));
    painter.drawLine(a, b);
    const QPointF side(-way.y(), way.x());
    painter.setBrush(t.steel);
    painter.drawPolygon(QPolygonF({b, b - way * 9 + side * 4, b - way * 9 - side * 4}));
    const QString text = words("the train pushes");
    const double wide = width_of(type(Type::note), text);
    // Beside the point of the arrow, on the side it points to.
    const double across = way.x() > 0.3 ? 0 : way.x() < -0.3 ? -wide : -wide / 2;
    const double along = way.y() > 0.3 ? 10 : way.y() < -0.3 ? -2 : 4;
    QPointF word = b + way * 6 + QPointF(across, along);
    word.setX(std::clamp(word.x(), room.left() + 2, std::max(room.left() + 2, room.right() - wide)));
    // Pushed back into the picture it stands above the arrow, not on it.
    if (way.x() < -0.3 && word.x() + wide > b.x()) word.ry() -= 16;
    // Under the heading there is no room above it: then it stands at its side.
    constexpr double heading_high = 52;
    if (word.y() < room.top() + heading_high) word = {b.x() + 9, std::max(b.y() + 4, room.top() + heading_high)};
    write(painter, type(Type::note), t.steel, word, text);
}

void PivotsStation::paint_offset(QPainter& painter, const DerivedHole& hole, const QRectF& room) {
    const Offset move = table_move(hole);
    const Theme& t = inks(painter);
    const QPointF at(room.left() + 2, room.bottom() - 8);
    const QFont bold = type(Type::text, true);
    if (std::hypot(move.x, move.y) < 0.005) {
        write(painter, bold, t.blued, at, words("centre on the hole as it is"));
        return;
    }
    const QString how = words("inside up on the mill: table ");
    const QString way = words(move_in_words(move));
    const bool one_line = width_of(bold, how + way) < room.width();
    write(painter, bold, t.blued, one_line ? at : at - QPointF(0, 16), one_line ? how + way : how);
    if (!one_line) write(painter, bold, t.blued, at, way);
    place({"offset",
           QRectF(at.x(), at.y() - 30, room.width(), 34),
           {},
           words("From the middle of the worn hole under the spindle. The plate lies inside up, its top away from you."),
           {}});
}

void PivotsStation::paint_reamers(QPainter& painter, const DerivedHole& hole, const QRectF& room) {
    if (!hole.plan) return paint_ways_to_read(painter, room);
    if (hole.plan->reamers_mm.empty() || hole.decision != "bush" || m_order) return paint_steps(painter, hole, room);
    const BushPlanResult& plan = *hole.plan;
    const QString unit = words(m_document.job().length.symbol);
    Column(painter, room.adjusted(0, 6, 0, 0)).section(words("REAMERS, %1").arg(unit));
    const double foot = room.bottom() - 54;
    const double high = foot - room.top() - 66;
    const double step = std::min(64.0, room.width() / static_cast<double>(plan.reamers_mm.size()));
    const double base = hole.asked->hole_max_mm;
    for (size_t i = 0; i < plan.reamers_mm.size(); ++i) {
        const double share = (plan.reamers_mm[i] - base) / std::max(1e-6, plan.reamers_mm.back() - base);
        const double tall = high * (0.3 + 0.7 * share);
        paint_pass(painter, hole, i, {room.left() + static_cast<double>(i) * step + 2, foot - tall, step - 8, tall});
    }
    Column page(painter, {room.left(), foot + 4, room.width() + 16, 50});
    page.line(words("press fit %1 %2").arg(length(*plan.press_fit_mm), unit), inks(painter).steel);
    page.gap(-2);
    page.says(plan.broach_passes > 0
                  ? words("broach %1 to %2 %3, pivot tried often").arg(length(plan.bush->bore_mm), length(*plan.broach_to_mm), unit)
                  : words("bore as it comes, %1 %2").arg(length(plan.bush->bore_mm), unit),
              inks(painter).steel);
}

/// How each open reading of a hole is taken.
void PivotsStation::paint_ways_to_read(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    Column page(painter, room.adjusted(0, 6, 0, 0));
    page.section(words("HOW IT IS READ"));
    for (const DrawnSize& size : sizes()) {
        if (!size.open() || size.line.field == "sway_mm" || !page.holds(80)) continue;
        page.says(size.label.left(1).toUpper() + size.label.mid(1), t.ink, Type::text, true);
        page.says(words(size.line.explained()), t.steel);
        page.gap(6);
    }
}

/// A reamer as a bar, higher the wider it is; ticked when it has been through.
void PivotsStation::paint_pass(QPainter& painter, const DerivedHole& hole, size_t pass, const QRectF& bar) {
    const Theme& t = inks(painter);
    const bool ticked = pass < hole.record.reamed_mm.size();
    const bool now = pass == hole.record.reamed_mm.size() && !hole.record.done;
    painter.setPen(QPen(now ? t.blued : t.brass, now ? 2.2 : 1));
    painter.setBrush(ticked ? t.pale_brass : t.sheet);
    painter.drawRect(bar);
    const QString size = length(hole.plan->reamers_mm[pass]);
    write(painter, type_to_fit(now ? Type::head : Type::figure, now, size, bar.width() + 6), t.ink, {bar.center().x(), bar.top() - 8}, size,
          0);
    if (now) write(painter, type(Type::note, true), t.blued, {bar.center().x(), bar.bottom() - 12}, words("now"), 0);
    if (ticked) tick_mark(painter, bar.center(), 9, t.verdigris);
    place({"pass:" + QString::number(pass),
           bar.adjusted(0, -24, 0, 0),
           [this, now, ticked] {
               if (now) return tick();
               if (ticked) m_document.edit(pass_not_reamed(m_document.selection().hole()));
           },
           now ? words("Tick it when it is reamed (R)") : QString(),
           {}});
}

/// A hole that is not reamed has its work told in order.
void PivotsStation::paint_steps(QPainter& painter, const DerivedHole& hole, const QRectF& room) {
    const Theme& t = inks(painter);
    const std::vector<std::string> steps = steps_for_hole(hole.decision, *hole.asked, *hole.plan);
    if (steps.empty()) return;
    Column page(painter, room.adjusted(0, 6, 0, 0));
    page.section(words("IN THIS ORDER"));
    for (size_t i = 0; i < steps.size(); ++i) {
        write(painter, type(Type::figure, true), t.blued, {room.left(), page.y() + 15}, QString::number(i + 1));
        page.says(words(steps[i]), t.ink, Type::text, false, 20);
        page.gap(4);
    }
}

const std::vector<SimulatedEffect>& PivotsStation::effects(const DerivedHole& hole) {
    if (m_effects_of == hole.id && m_effects_at == m_document.revision()) return m_effects;
    m_effects.clear();
    m_effects_of = hole.id;
    m_effects_at = m_document.revision();
    // After the painting of the edit: the simulation takes about ten milliseconds.
    QTimer::singleShot(0, this, [this, at = m_effects_at] {
        const DerivedHole* now = this->hole();
        if (!now || now->id != m_effects_of || at != m_document.revision()) return;
        attempt([&] { m_effects = simulate_effects(m_document.derived().train, *now); });
        update();
    });
    return m_effects;
}

}  // namespace echappe
