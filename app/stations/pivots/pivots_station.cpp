#include "stations/pivots/pivots_station.h"

#include <QKeyEvent>
#include <QTimer>
#include <algorithm>
#include <cmath>

#include "document/today.h"
#include "number/input_error.h"
#include "number/units.h"
#include "pivots/hole_steps.h"
#include "print/hole_sheet.h"
#include "survey/edits.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double card_width = 306;
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
      m_between(new BetweenView(bench.document, this)) {
    setAccessibleName(tr("Pivots"));
    m_editor->setAccessibleName(tr("reason"));
    connect(m_editor, &InPlaceEditor::refused, this, [this](const QString& sentence) { emit told(sentence, true); });
    m_between->hide();
    connect(m_between, &BetweenView::told, this, &PivotsStation::told);
    connect(m_between, &BetweenView::left, this, [this] { show_between(false); });
    connect(&m_document, &Document::changed, this, qOverload<>(&QWidget::update));
    connect(&m_document.selection(), &Selection::changed, this, [this] {
        m_editor->leave();
        update();
    });
}

QString PivotsStation::length(double mm, int more) const {
    const Unit& unit = *find_unit(m_document.job().length.symbol, Dimension::length);
    return words(print_in(mm, unit, m_document.job().length_decimals() + more, false));
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
    const DerivedHole hole_now = *now;
    const auto count_down = [&workshop = m_workshop, id](bool taken) {
        Stock stock = workshop.stock();
        for (Bush& bush : stock.bushes)
            if (bush.id == id) bush.quantity = std::max(0LL, bush.quantity + (taken ? -1 : 1));
        workshop.set_stock(stock);
    };
    // The job first, then the drawer: its plan keeps this bush, whatever the drawer has left.
    m_document.edit(
        tr("Take bush %1").arg(words(id)), [&](Job& job) { job.survey.pivots.hole_at(hole_now.arbor, hole_now.plate).bush = id; },
        count_down);
    emit told(tr("Bush %1 is taken from the drawer.").arg(words(id)), false);
}

void PivotsStation::next_school() {
    m_document.edit(tr("School of clearance"), [](Job& job) {
        std::string& school = job.survey.pivots.clearance.school;
        school = school == "tilt" ? "fraction" : school == "fraction" ? "table" : "tilt";
    });
}

void PivotsStation::other_method() {
    m_document.edit(tr("How a bush is chosen"),
                    [](Job& job) { job.survey.pivots.method = job.survey.pivots.method == "broach-up" ? "fit-direct" : "broach-up"; });
}

void PivotsStation::overrule(const std::string& decision) {
    const DerivedHole* now = hole();
    if (!now) return;
    if (decision == (now->plan ? now->plan->decision : "") || decision.empty()) {
        if (now->by_hand) m_document.edit(decide_hole(*now, "", "back to what the readings say", today()));
        return;
    }
    const QRectF at = place_of("decide:" + words(decision));
    const QString stands = now->by_hand ? words(now->record.because) : QString();
    m_editor->ask(tr("%1, %2 because").arg(words(now->name), words(words_for_decision(decision))),
                  QRectF(width() - card_width + 10, at.isNull() ? 80 : at.top(), card_width - 24, 26), stands,
                  [this, decision, id = now->id](const QString& because) {
                      if (const DerivedHole* then = m_document.derived().pivots.hole(id))
                          m_document.edit(decide_hole(*then, decision, because.toStdString(), today()));
                  });
    m_editor->setPlaceholderText(tr("%1 because… (kept)").arg(words(words_for_decision(decision))));
}

void PivotsStation::tick() {
    if (const DerivedHole* now = hole())
        m_document.edit(tr("Pass reamed"), [&, then = *now](Job& job) { tick_pass(job.survey.pivots, then); });
}

void PivotsStation::finish_or_redo() {
    const DerivedHole* now = hole();
    if (!now || now->decision.empty()) return;
    if (!now->record.done) return m_document.edit(mark_done(*now, true, "", today()));
    m_editor->ask(tr("%1, again because").arg(words(now->name)), QRectF(width() - card_width + 10, 70, card_width - 24, 26), {},
                  [this, id = now->id](const QString& because) {
                      if (const DerivedHole* then = m_document.derived().pivots.hole(id))
                          m_document.edit(mark_done(*then, false, because.toStdString(), today()));
                  });
    m_editor->setPlaceholderText(tr("again, because… (kept)"));
}

void PivotsStation::trial(bool runs) {
    if (m_document.selection().subject().empty()) return;
    m_document.edit(trial_made({{m_document.selection().subject()}, runs, runs, {}, {}, "", ""}, today()));
    emit told(runs ? tr("Kept: spins freely alone between the plates, end shake felt.")
                   : tr("Kept: does not run; its holes are back on the list."),
              !runs);
}

void PivotsStation::show_between(bool shown) {
    m_between->setVisible(shown);
    if (!shown) return setFocus();
    m_between->setGeometry(rect());
    m_between->refresh();
    m_between->setFocus();
}

void PivotsStation::resizeEvent(QResizeEvent*) { m_between->setGeometry(rect()); }

QList<Action> PivotsStation::make_actions() {
    const QString menu = tr("&Holes");
    const auto end = [this](const char* plate) {
        return [this, plate] { m_document.selection().select_hole(m_document.selection().subject(), plate); };
    };
    const auto untick = [this] {
        m_document.edit(tr("Pass not reamed"), [&](Job& job) { untick_pass(job.survey.pivots, m_document.selection().hole()); });
    };
    const auto peg = [this] {
        if (const DerivedHole* now = hole()) m_document.edit(peg_hole(now->id, !now->record.pegged));
    };
    const auto peg_plate = [this] {
        if (const DerivedHole* now = hole()) m_document.edit(echappe::peg_plate(m_document.derived().pivots, now->plate));
    };
    return climbing() +
           QList<Action>{
               {"pivots.front", tr("The front hole"), {Qt::Key_Left}, end("front")},
               {"pivots.back", tr("The back hole"), {Qt::Key_Right}, end("back")},
               {"pivots.take", tr("Take the planned bush from the drawer"), {Qt::Key_T}, [this] { take_bush(); }, menu, tr("take bush")},
               {"pivots.ream", tr("Tick the next reamer"), {Qt::Key_R}, [this] { tick(); }, menu, tr("reamed")},
               {"pivots.unream", tr("Pass not reamed"), {Qt::SHIFT | Qt::Key_R}, untick},
               {"pivots.finish", tr("Done, or to be done again"), {Qt::Key_D}, [this] { finish_or_redo(); }, menu, tr("done")},
               {"pivots.next",
                tr("The next hole with work"),
                {Qt::Key_Return, Qt::Key_Tab, tr("Ctrl+H")},
                [this] { next_open(); },
                menu,
                tr("next")},
               {"pivots.school", tr("School of clearance: the next"), {Qt::Key_C}, [this] { next_school(); }, menu, tr("school")},
               {"pivots.method", tr("Bushes: fitted direct, or broached up"), {Qt::Key_M}, [this] { other_method(); }, menu, tr("method")},
               {"pivots.peg", tr("Pegged clean, or not"), {Qt::Key_P}, peg},
               {"pivots.peg-plate", tr("The whole plate pegged clean"), {Qt::SHIFT | Qt::Key_P}, peg_plate},
               {"pivots.between",
                tr("Between the plates: end shake, trials, sums"),
                {Qt::Key_E, tr("Ctrl+Shift+B")},
                [this] { show_between(!between_shown() || just_come()); },
                menu,
                tr("between plates"),
                {},
                true},
               {"pivots.runs", tr("Runs freely alone between the plates"), {Qt::Key_F}, [this] { trial(true); }, menu},
               {"pivots.stuck", tr("Does not run: its holes back on the list"), {Qt::SHIFT | Qt::Key_F}, [this] { trial(false); }, menu},
               {"pivots.write",
                tr("Write the holes as CSV…"),
                {},
                [this] { emit csv_wanted(tr("holes.csv"), survey_to_csv(m_document.derived().pivots)); },
                menu}};
}

void PivotsStation::write_to(const QString& path) { print_hole_sheet(path, m_document.job(), m_document.derived()); }

bool PivotsStation::reads(const std::string& header) const { return header.find("arbor") != std::string::npos; }

size_t PivotsStation::read_table(Job& job, const std::string& csv) { return keep_survey_csv(job.survey.pivots, job.train, csv); }

std::vector<Scene> PivotsStation::scenes() {
    const auto undo_twice = [this] {
        for (int i = 0; i < 2; ++i) m_document.undo_stack()->undo();
    };
    const auto a_while = [waited = 0]() mutable { return ++waited > 6; };
    return {{"pivots", {}, [this] { m_document.selection().select_hole("centre", "front"), tick(), tick(); }, a_while, undo_twice},
            {"pivots-between",
             {},
             [this] { m_document.selection().select_hole("escape", "front"), show_between(true); },
             {},
             [this] { show_between(false); }},
            {"pivots-watch", "watch", [this] { m_document.selection().select_hole("third", "front"); }, a_while}};
}

void PivotsStation::paint(QPainter& painter) {
    const Theme& t = theme();
    painter.fillRect(rect(), t.ground);
    const DerivedPivots& pivots = m_document.derived().pivots;
    if (pivots.holes.empty()) {
        write(painter, figure_font(18), t.ink, {22, 60}, tr("No holes yet"));
        write_wrapped(painter, word_font(11), t.steel, {22, 78}, 460,
                      tr("Open a job with Ctrl+O, or the demo from the Job menu; its arbors bring their holes."));
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
    const Theme& t = theme();
    const bool behind = plate == "back";
    const DerivedPivots& pivots = m_document.derived().pivots;
    write(painter, word_font(8.5, true), t.steel, {room.left() + 2, room.top() - 14}, PlateArt::title(behind, room.width()));
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
               }});
        if (!named && !selected) continue;
        const QString what = (hole.record.done ? tr("done · ") : QString()) + words(words_for_decision(hole.decision));
        labels.write_beside(painter, at, selected ? 14 : 8, room.adjusted(-12, -2, 12, 12),
                            words(m_document.job().train.name_of_arbor(hole.arbor)), selected ? t.blued : t.ink, what,
                            hole.record.done ? t.steel : PlateArt::ink(hole.decision));
    }
}

void PivotsStation::paint_progress(QPainter& painter, const QRectF& room) {
    const DerivedPivots& pivots = m_document.derived().pivots;
    const Theme& t = theme();
    const auto measured =
        std::count_if(pivots.holes.begin(), pivots.holes.end(), [](const DerivedHole& hole) { return hole.plan.has_value(); });
    const bool begun = pivots.holes_to_do > 0;
    write(painter, figure_font(17), t.ink, {room.center().x(), room.top() + 24},
          begun ? tr("%1 of %2").arg(pivots.holes_done).arg(pivots.holes_to_do) : tr("%1 of %2").arg(measured).arg(pivots.holes.size()), 0);
    write(painter, word_font(8.5), t.steel, {room.center().x(), room.top() + 42}, begun ? tr("holes done") : tr("measured"), 0);
    if (!pivots.shopping.empty()) {
        QStringList lines;
        for (const ShoppingLine& line : pivots.shopping)
            lines << tr("%1: %2 wanted, %3 there").arg(words(line.words)).arg(line.wanted).arg(line.there);
        write(painter, word_font(8.5), t.amber, {room.center().x(), room.top() + 62}, tr("%1 to order").arg(lines.size()), 0);
        place({"shopping", QRectF(room.left(), room.top() + 48, room.width(), 20), {}, lines.join("\n"), {}});
    }
}

void PivotsStation::paint_large(QPainter& painter, const DerivedHole& hole, const QRectF& room) {
    const Theme& t = theme();
    const bool behind = hole.plate == "back";
    write(painter, word_font(8.5, true), t.steel, {room.left() + 2, room.top() + 18}, words(hole.name).toUpper() + tr(" HOLE"));
    if (!hole.plan) {
        QStringList missing;
        for (const std::string& field : hole.missing) missing << words(words_for_reading(field));
        const bool lost = std::find(hole.record.cannot.begin(), hole.record.cannot.end(), "pivot_mm") != hole.record.cannot.end();
        write_wrapped(painter, word_font(10.5), t.steel, {room.left() + 2, room.top() + 34}, room.width() - 20,
                      hole.fault.empty()
                          ? lost ? tr("The arbor is lost: its pivot is made to this hole once the hole is sound. Read hole and plate.")
                                 : tr("To be measured: %1. Type a figure: the line below takes it.").arg(missing.join("; "))
                          : words(hole.fault));
        return;
    }
    const double times = exaggeration(hole);
    write(painter, word_font(8.5), t.steel, {room.left() + 2, room.top() + 34},
          (times > 1 ? tr("wear drawn × %1").arg(times) : tr("wear to scale")) + (behind ? tr(", as seen from behind") : ""));
    const BushPlanResult& plan = *hole.plan;
    const double widest =
        std::max({plan.bush ? plan.bush->outside_mm : 0.0, hole.asked->hole_max_mm + 2 * times * plan.worn_mm, hole.asked->pivot_mm * 1.6});
    const double px = std::min(room.width() - 30, room.height() - 76) / widest;
    PlateMap view;
    view.mirrored = behind;
    paint_true_and_worn(painter, hole, room, px, times, view);
    if (plan.decision == "bush" || plan.decision == "plug") paint_offset(painter, hole, room);
}

void PivotsStation::paint_true_and_worn(QPainter& painter, const DerivedHole& hole, const QRectF& room, double px, double times,
                                        const PlateMap& view) {
    const Theme& t = theme();
    const QPointF middle(room.left() + room.width() * 0.5, room.top() + 40 + (room.height() - 72) / 2);
    const BushPlanResult& plan = *hole.plan;
    const double original = hole.asked->original_mm.value_or(hole.asked->hole_min_mm);
    const bool off = hole.asked->old_bush_off_mm.has_value();
    // Positions from the true centre: the hole as it was made round it, walked by the wear; an old bush stands off whole.
    QPointF walk = view.way(hole.wear_deg.value_or(0)) * plan.worn_mm * px * times;
    QPointF hole_at(0, 0);
    if (off) {
        hole_at = QPointF(view.mirrored ? plan.offset_mm.x : -plan.offset_mm.x, plan.offset_mm.y) * px * times;
        walk = {0, 0};
    }
    const QPointF half = walk / 2;
    const QPointF centre = middle - half - hole_at / 2;
    if (plan.bush) {
        QPen bush(t.blued, 1.4, Qt::DashLine);
        painter.setPen(bush);
        painter.setBrush(Qt::NoBrush);
        const double radius = plan.bush->outside_mm / 2 * px;
        painter.drawEllipse(centre, radius, radius);
        write(painter, word_font(9), t.blued, centre + QPointF(radius * 0.72 + 6, -radius * 0.72),
              tr("bush ⌀ %1 %2").arg(length(plan.bush->outside_mm), words(m_document.job().length.symbol)));
    }
    painter.setPen(QPen(t.brass, 1.8));
    painter.setBrush(t.sheet);
    painter.drawPath(PlateArt::worn_hole(centre + hole_at, original / 2 * px, walk));
    if (plan.worn_mm > 0.01 && !off) {
        painter.setPen(QPen(t.steel, 0.9, Qt::DotLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(centre, original / 2 * px, original / 2 * px);
    }
    // The pivot lies where it is pushed: against the worn end.
    const double play = std::max(0.0, original - hole.asked->pivot_mm) / 2 * px;
    QColor steel = t.steel;
    steel.setAlphaF(0.45f);
    painter.setBrush(steel);
    painter.setPen(QPen(t.ink, 0.9));
    const QPointF pivot = centre + hole_at + walk + (hole.wear_deg ? view.way(*hole.wear_deg) * play : QPointF());
    painter.drawEllipse(pivot, hole.asked->pivot_mm / 2 * px, hole.asked->pivot_mm / 2 * px);
    const auto cross = [&](QPointF at, const QColor& colour, double size) {
        painter.setPen(QPen(colour, 1.8));
        painter.drawLine(at - QPointF(size, 0), at + QPointF(size, 0));
        painter.drawLine(at - QPointF(0, size), at + QPointF(0, size));
    };
    const bool apart = plan.worn_mm > 0.01 || off;
    if (apart) {
        const QPointF worn_at = centre + hole_at + half;
        cross(worn_at, t.brass_ink, 7);
        const QPointF away = worn_at - centre;
        const double side = away.x() >= 0 ? 1 : -1;
        write(painter, word_font(9), t.brass_ink, worn_at + QPointF(side * 10, away.y() >= 0 ? 16 : -8), off ? tr("as bushed") : tr("worn"),
              side > 0 ? -1 : 1);
        write(painter, word_font(9, true), t.blued, centre + QPointF(-side * 12, away.y() >= 0 ? -8 : 16), tr("true centre"),
              side > 0 ? 1 : -1);
    }
    cross(centre, t.blued, 9);
    if (hole.push_deg) {
        const QPointF way = view.way(*hole.push_deg);
        const double from = std::max(plan.bush ? plan.bush->outside_mm / 2 * px : 0, (original / 2 + plan.worn_mm * times) * px) + 6;
        const QPointF a = centre + way * from;
        const QPointF b = centre + way * (from + 34);
        painter.setPen(QPen(t.steel, 1.6));
        painter.drawLine(a, b);
        const QPointF side(-way.y(), way.x());
        painter.setBrush(t.steel);
        painter.drawPolygon(QPolygonF({b, b - way * 9 + side * 4, b - way * 9 - side * 4}));
        const QString text = tr("the train pushes");
        const double wide = width_of(word_font(8.5), text);
        QPointF word = b + way * 6 +
                       QPointF(way.x() > 0.3    ? 0
                               : way.x() < -0.3 ? -wide
                                                : -wide / 2,
                               way.y() > 0.3    ? 10
                               : way.y() < -0.3 ? -2
                                                : 4);
        word.setX(std::clamp(word.x(), room.left() + 2, std::max(room.left() + 2, room.right() - wide)));
        // Pushed back into the picture it stands above the arrow, not on it.
        if (way.x() < -0.3 && word.x() + wide > b.x()) word.ry() -= 16;
        write(painter, word_font(8.5), t.steel, word, text);
    }
}

void PivotsStation::paint_offset(QPainter& painter, const DerivedHole& hole, const QRectF& room) {
    const Offset move = table_move(hole);
    const Theme& t = theme();
    const QPointF at(room.left() + 2, room.bottom() - 8);
    const QFont bold = word_font(10, true);
    if (std::hypot(move.x, move.y) < 0.005) {
        write(painter, bold, t.blued, at, tr("centre on the hole as it is"));
        return;
    }
    const QString how = tr("inside up on the mill: table ");
    const QString way = words(move_in_words(move));
    const bool one_line = width_of(bold, how + way) < room.width();
    write(painter, bold, t.blued, one_line ? at : at - QPointF(0, 16), one_line ? how + way : how);
    if (!one_line) write(painter, bold, t.blued, at, way);
    place({"offset",
           QRectF(at.x(), at.y() - 30, room.width(), 34),
           {},
           tr("From the middle of the worn hole under the spindle. The plate lies inside up, its top away from you."),
           {}});
}

void PivotsStation::paint_reamers(QPainter& painter, const DerivedHole& hole, const QRectF& room) {
    const Theme& t = theme();
    if (!hole.plan) return;
    if (hole.plan->reamers_mm.empty() || hole.decision != "bush") return paint_steps(painter, hole, room);
    const BushPlanResult& plan = *hole.plan;
    write(painter, word_font(8.5, true), t.steel, {room.left(), room.top() + 18},
          tr("REAMERS, %1").arg(words(m_document.job().length.symbol)));
    const double foot = room.bottom() - 54;
    const double high = foot - room.top() - 66;
    const auto count = static_cast<double>(plan.reamers_mm.size());
    const double step = std::min(64.0, room.width() / count);
    const double base = hole.asked->hole_max_mm;
    for (size_t i = 0; i < plan.reamers_mm.size(); ++i) {
        const double size = plan.reamers_mm[i];
        const bool ticked = i < hole.record.reamed_mm.size();
        const bool now = i == hole.record.reamed_mm.size() && !hole.record.done;
        const double tall = high * (0.3 + 0.7 * (size - base) / std::max(1e-6, plan.reamers_mm.back() - base));
        const QRectF bar(room.left() + static_cast<double>(i) * step + 2, foot - tall, step - 8, tall);
        painter.setPen(QPen(now ? t.blued : t.brass, now ? 2.2 : 1));
        painter.setBrush(ticked ? t.pale_brass : t.sheet);
        painter.drawRect(bar);
        write(painter,
              figure_font(step < 50 ? (now ? 11 : 9.5)
                          : now     ? 14
                                    : 11.5,
                          now),
              t.ink, {bar.center().x(), bar.top() - 8}, length(size), 0);
        if (now) write(painter, word_font(9, true), t.blued, {bar.center().x(), bar.bottom() - 12}, tr("now"), 0);
        if (ticked) {
            painter.setPen(QPen(t.verdigris, 2.6));
            const QPointF c = bar.center();
            painter.drawPolyline(QPolygonF({c + QPointF(-9, 0), c + QPointF(-2, 7), c + QPointF(10, -9)}));
        }
        place({"pass:" + QString::number(i),
               bar.adjusted(0, -24, 0, 0),
               [this, now, ticked] {
                   if (now) tick();
                   else if (ticked)
                       m_document.edit(tr("Pass not reamed"),
                                       [&](Job& job) { untick_pass(job.survey.pivots, m_document.selection().hole()); });
               },
               now ? tr("Tick it when it is reamed (R)") : QString(),
               {}});
    }
    const QString unit = words(m_document.job().length.symbol);
    write(painter, word_font(8.5), t.steel, {room.left(), foot + 18},
          tr("press fit %1 %2").arg(length(m_document.job().survey.pivots.interference_mm), unit));
    const QString broach =
        plan.broach_passes > 0
            ? tr("broach %1 to %2 %3, pivot tried often").arg(length(plan.bush->bore_mm), length(*plan.broach_to_mm), unit)
            : tr("bore as it comes, %1 %2").arg(length(plan.bush->bore_mm), unit);
    write_wrapped(painter, word_font(8.5), t.steel, {room.left(), foot + 22}, room.width() + 16, broach);
}

/// A hole that is not reamed has its work told in order.
void PivotsStation::paint_steps(QPainter& painter, const DerivedHole& hole, const QRectF& room) {
    const Theme& t = theme();
    const std::vector<std::string> steps = steps_for_hole(hole.decision, *hole.asked, *hole.plan);
    if (steps.empty()) return;
    write(painter, word_font(8.5, true), t.steel, {room.left(), room.top() + 18}, tr("IN THIS ORDER"));
    double y = room.top() + 32;
    for (size_t i = 0; i < steps.size(); ++i) {
        write(painter, figure_font(11), t.blued, {room.left(), y + 13}, QString::number(i + 1));
        y += write_wrapped(painter, word_font(9.5), t.ink, {room.left() + 20, y}, room.width() - 20, words(steps[i])) + 7;
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
