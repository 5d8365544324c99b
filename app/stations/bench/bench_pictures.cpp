// The pictures of the Bench station: the order of work, parts out and in, oil, what is wrong.
#include <algorithm>
#include <cmath>

#include "bench/cautions.h"
#include "document/today.h"
#include "drawing/plate_art.h"
#include "drawing/words.h"
#include "number/units.h"
#include "report/known.h"
#include "sheet/marks.h"
#include "stations/bench/bench_station.h"
#include "theme/theme.h"

namespace echappe {
namespace {

/// Half of the picture, as long as the steps' words want it.
double room_of_steps(double wide) { return std::clamp(0.5 * wide, 330.0, 430.0); }

QColor ink_of(const JobStep& step, const Theme& t) {
    return step.state == "done" ? t.verdigris : step.state == "waits" ? t.amber : step.state == "passed" ? t.steel : t.ink;
}

/// A drop, its point upwards.
void drop(QPainter& painter, QPointF at, double r, const QColor& ink, bool filled) {
    QPainterPath path(at - QPointF(0, 1.7 * r));
    path.cubicTo(at + QPointF(0.5 * r, -0.8 * r), at + QPointF(r, -0.4 * r), at + QPointF(r, 0.15 * r));
    path.arcTo(QRectF(at.x() - r, at.y() - 0.85 * r, 2 * r, 2 * r), 0, -180);
    path.cubicTo(at + QPointF(-r, -0.4 * r), at + QPointF(-0.5 * r, -0.8 * r), at - QPointF(0, 1.7 * r));
    painter.setPen(QPen(ink, 1.4));
    painter.setBrush(filled ? QBrush(ink) : Qt::NoBrush);
    painter.drawPath(path);
}

}  // namespace

QString BenchStation::wait_in_words(const JobStep& step) {
    return step.until.empty() ? words("It waits for %1.").arg(words(step.waits_for))
                              : words("It waits for %1, until %2.").arg(words(step.waits_for), words(step.until));
}

void BenchStation::write_pictures(QPainter& painter) {
    const Theme& t = inks(painter);
    Flow flow(painter, QRectF(18, 0, width() - 36.0, top_px), 26, 22);
    for (const auto& [id, picture, name] :
         {std::tuple("bench.order", Picture::order, words("This job")),
          std::tuple("bench.parts", Picture::parts, words("Parts out and in")), std::tuple("bench.oil", Picture::oil, words("Oil")),
          std::tuple("bench.diagnosis", Picture::diagnosis, words("What is wrong")),
          std::tuple("bench.jobs", Picture::jobs, words("All jobs"))}) {
        const bool shown = picture == m_picture;
        place({QString("picture:") + id, flow.say(name, shown ? t.ink : t.blued, Type::text, shown, shown),
               [this, picture = picture] { show_picture(picture); }, name});
    }
}

void BenchStation::paint(QPainter& painter) {
    painter.fillRect(rect(), inks(painter).ground);
    // Waits end by the clock.
    if (m_order_at != now_in_words()) m_order_of.reset();
    m_card->setVisible(m_picture == Picture::order);
    switch (m_picture) {
        case Picture::order:
            paint_order(painter);
            break;
        case Picture::parts:
            paint_parts(painter);
            break;
        case Picture::oil:
            paint_oil(painter);
            break;
        case Picture::diagnosis:
            paint_diagnosis(painter);
            break;
        case Picture::jobs:
            paint_jobs(painter);
            break;
    }
    write_pictures(painter);
}

/// The steps as a chain at the left, the one that is next large.
void BenchStation::paint_order(QPainter& painter) {
    const double steps_wide = room_of_steps(wide());
    const Theme& t = inks(painter);
    const JobStep* now = step();
    painter.save();
    painter.setClipRect(QRectF(0, top_px, steps_wide, height() - top_px));
    double y = top_px + 18 - m_scrolled;
    const double x = 30;
    for (const JobStep& one : order().steps) {
        const bool chosen = &one == now;
        constexpr double high = 26;
        // The thread runs on; a wait is a gap in it.
        painter.setPen(QPen(ink_of(one, t), 1.2, one.state == "waits" ? Qt::DotLine : Qt::SolidLine));
        if (&one != &order().steps.back()) painter.drawLine(QPointF(x, y + 6), QPointF(x, y + high - 6));
        painter.setBrush(one.state == "done" ? QBrush(t.verdigris) : chosen ? QBrush(t.blued) : QBrush(t.ground));
        painter.setPen(QPen(chosen ? t.blued : ink_of(one, t), 1.5));
        painter.drawEllipse(QPointF(x, y), chosen ? 7 : 5, chosen ? 7 : 5);
        if (one.state == "passed") painter.drawLine(QPointF(x - 4, y + 4), QPointF(x + 4, y - 4));
        const QFont font = type(Type::note, chosen);
        const QString minutes = one.over() ? QString() : words("%1 min").arg(words(print_fixed(one.minutes, 0)));
        const double room = steps_wide - x - 40 - width_of(type(Type::note), minutes);
        write(painter, font, chosen ? t.blued : ink_of(one, t), {x + 16, y + 5}, elided(font, words(one.words), room));
        if (!minutes.isEmpty()) write(painter, type(Type::note), t.steel, {steps_wide - 10, y + 5}, minutes, 1);
        if (y > top_px && y < height())
            place({"step:" + words(one.id), QRectF(8, y - 12, steps_wide - 12, high), [this, id = one.id] { m_step = id, update(); },
                   words(one.because)});
        y += high;
    }
    m_long = y + m_scrolled;
    painter.restore();
    painter.setPen(QPen(t.steel, 0.6));
    painter.drawLine(QPointF(steps_wide, top_px + 6), QPointF(steps_wide, height() - 14));
    const QRectF room(steps_wide + 22, top_px + 12, wide() - steps_wide - 40, height() - top_px - 24);
    if (now) return paint_step_large(painter, room, *now);
    Column page(painter, room);
    page.head(record().closed.empty() ? words("Nothing can be done now") : words("Handed over, %1").arg(words(record().closed)), t.ink);
    bool waits = false;
    for (const JobStep& one : order().steps) {
        if (one.state != "waits" || !page.holds(60)) continue;
        waits = true;
        page.gap(6);
        page.says(words(one.words), t.ink, Type::figure);
        page.says(wait_in_words(one), t.amber, Type::text);
    }
    if (waits) return void(page.says(words("It goes on by itself then. B opens it now."), t.steel));
    page.says(words(order().ready.verdict), t.steel, Type::text);
    if (record().closed.empty()) return;
    page.gap(6);
    page.says(record().next_service.empty() ? words("Next service: in three to five years; its date goes on the sheet “job”.")
                                            : words("Next service: %1.").arg(words(record().next_service)),
              t.ink, Type::text);
    page.gap(6);
    page.section(words("PAPERS"));
    for (const char* id : {"bench.report", "bench.sheet"})
        for (const Action& action : actions())
            if (action.id == id)
                place({"paper:" + action.id, page.line(action.words, t.blued, Type::text), [this, id] { act_on(id); }, action.words});
}

void BenchStation::paint_step_large(QPainter& painter, const QRectF& room, const JobStep& one) {
    const Theme& t = inks(painter);
    Column page(painter, room);
    page.section(&one == order().next() ? words("NEXT") : words("THIS STEP"),
                 words("%1 h to go").arg(words(print_fixed(order().minutes_left / 60, 1))));
    page.gap(4);
    page.says(words(one.words), t.ink, Type::great, true);
    page.gap(4);
    page.says(words(one.because), t.steel, Type::figure);
    page.gap(6);
    if (one.state == "waits") page.says(wait_in_words(one), t.amber, Type::text);
    else if (one.state == "done")
        page.says(one.by_itself ? words("Done: the job shows it at its station.") : words("Done."), t.verdigris, Type::text);
    else
        page.says((one.learnt ? words("about %1 min, as it took before") : words("about %1 min")).arg(words(print_fixed(one.minutes, 0))),
                  t.ink, Type::text);
    for (const std::string& id : one.after)
        if (const JobStep* before = order().step(id); before && !before->over())
            page.says(words("Before it: %1").arg(words(before->words)), t.amber, Type::text);
    if (!one.station.empty() && one.station != "bench")
        place({"station:" + words(one.station),
               page.line(words("Do it at %1").arg(words(one.station).left(1).toUpper() + words(one.station).mid(1)), t.blued, Type::text),
               [this, id = one.station] { emit station_wanted(words(id)); }, words("there")});
    if (const Caution* hurts = caution(one.caution)) {
        page.gap(8);
        page.remark(words(hurts->in_words()), t.ruby);
    }
    for (const std::string& id : order().cautions)
        if (const Caution* danger = caution(id); danger && danger->id != one.caution)
            page.gap(6), page.remark(words(danger->in_words()), t.ruby);
    page.gap(10);
    page.says(legend({"bench.done", "bench.pass", "bench.wait", "bench.undo", "bench.go"}), t.steel);
    page.gap(14);
    page.section(words("ON TEST"), words(order().state));
    page.says(words(order().ready.verdict), order().ready.ready ? t.verdigris : t.ink, Type::text);
    if (!order().ready.gathered.empty()) page.says(words(order().ready.gathered), t.steel, Type::text);
    page.line(legend({"bench.run", "bench.stop"}), t.steel);
    if (!page.holds(90)) return;
    // What this clock may have in it that hurts: said once, shown from then on.
    page.gap(12);
    page.section(words("HAS IT ONE OF THESE?"));
    Flow flow(painter, QRectF(room.left(), 0, room.width(), height()), page.y() + 20, 16);
    for (const char* id : {"mercury", "luminous", "mains", "lead", "dial-paint", "fire-gilding", "insecticide"}) {
        const bool there = std::find(record().dangers.begin(), record().dangers.end(), id) != record().dangers.end();
        const Caution* danger = caution(id);
        place({QString("danger:") + id, flow.say(words(danger->name), there ? t.ruby : t.blued, Type::note, there, there),
               [this, id = std::string(id), there] { m_document.edit(note_danger(id, !there)); }, words(danger->why)});
    }
}

double BenchStation::paint_moves(QPainter& painter, const QRectF& room, const QString& head, const std::vector<PartMove>& moves,
                                 bool back) {
    const Theme& t = inks(painter);
    Column page(painter, room.adjusted(0, 0, 0, 4000));
    page.section(head);
    const double top = page.y();
    page.go_to(top - m_scrolled);
    for (const PartMove& move : moves) {
        const bool over = back ? move.back : move.out;
        // What does not stand whole in the room is scrolled to.
        constexpr double high = 56;
        if (page.y() < top || page.y() + high > room.bottom()) {
            page.gap(high - 12);
            continue;
        }
        page.step(words(move.part), over ? Column::Tick::done : Column::Tick::open, !over);
        page.says(words(move.words), t.steel, Type::note, false, 24);
        page.gap(2);
    }
    return page.y() + m_scrolled;
}

void BenchStation::paint_parts(QPainter& painter) {
    const double half = wide() / 2, high = height() - top_px - 46;
    const double out =
        paint_moves(painter, QRectF(20, top_px + 12, half - 34, high), words("OUT, THE LARGEST RISK FIRST"), order().taking_out, false);
    const double back =
        paint_moves(painter, QRectF(half + 10, top_px + 12, half - 34, high), words("BACK, FROM THE BIGGEST"), order().putting_back, true);
    m_long = std::max(out, back);
    const QString more = m_long - m_scrolled > height() ? words("  More below: turn the wheel.") : QString();
    write(painter, type(Type::note), inks(painter).steel, {20, height() - 12.0},
          words("Trays and what is taken out are noted at Survey; it ticks itself here.") + more);
}

/// The wheels between the plates, faint: they say which hole is which.
void BenchStation::paint_wheels_behind(QPainter& painter, const PlateMap& map, const std::string& plate) {
    const Theme& t = inks(painter);
    QColor pale = t.pale_brass;
    pale.setAlphaF(0.22F);
    painter.setPen(QPen(t.rule, 1));
    painter.setBrush(pale);
    for (const DerivedHole& hole : m_document.derived().pivots.holes) {
        if (hole.plate != plate) continue;
        const DerivedArbor* arbor = m_document.derived().train.arbor(hole.arbor);
        const double radius = arbor ? arbor->wheel_radius_mm * map.px_per_mm : 0;
        if (radius > 0) painter.drawEllipse(map.at(hole.x_mm, hole.y_mm), radius, radius);
    }
}

/// Both plates with a drop where oil goes, and the list beside them.
void BenchStation::paint_oil(QPainter& painter) {
    const Theme& t = inks(painter);
    const auto& oil = order().oil;
    const OilPlace* next = nullptr;
    for (const OilPlace& one : oil)
        if (!next && !one.done && one.what != "dry") next = &one;
    const double list_wide = 330, plates = wide() - list_wide - 30;
    for (const bool back : {false, true}) {
        const QRectF room(20 + (back ? plates / 2 : 0), top_px + 34, plates / 2 - 16, height() - top_px - 80);
        write(painter, type(Type::note), t.steel, room.topLeft() - QPointF(0, 10), back ? words("back plate") : words("front plate"));
        const PlateMap map = PlateArt::fitted(m_document.job(), m_document.derived(), room, false);
        PlateArt::paint(painter, m_document.job(), map);
        const std::string plate = back ? "back" : "front";
        paint_wheels_behind(painter, map, plate);
        PlateArt::Labels labels;
        for (const OilPlace& one : oil)
            if (one.plate == plate) labels.keep_clear(QRectF(map.at(one.x_mm, one.y_mm) - QPointF(9, 15), QSizeF(18, 24)));
        for (const OilPlace& one : oil) {
            if (one.plate != plate) continue;
            const QPointF at = map.at(one.x_mm, one.y_mm);
            const QColor ink = one.what == "dry" ? t.ruby : one.done ? t.verdigris : &one == next ? t.blued : t.brass;
            // As large as the drop it wants, drawn many times; the least where that is not known.
            const double r = std::clamp(4 * std::cbrt(one.mm3.value_or(0)), 3.5, 11.0);
            if (one.what == "dry") cross(painter, at, 5, QPen(ink, 1.6));
            else drop(painter, at, &one == next ? r + 2 : r, ink, one.done);
            place({"oil:" + words(one.id), QRectF(at.x() - 9, at.y() - 12, 18, 22),
                   [this, id = one.id, was = one.done] { m_document.edit(oil_place(id, !was)); }, words(one.words + ". " + one.how)});
            // Its place is the plate's: the arbor's name says the rest.
            const QString name = words(one.words).section(", " + words(plate), 0, 0);
            labels.write_beside(painter, at, 9, room, name, &one == next ? t.blued : t.ink, {}, t.steel);
        }
    }
    Column page(painter, QRectF(wide() - list_wide, top_px + 12, list_wide - 14, height() - top_px - 30));
    const auto left = std::count_if(oil.begin(), oil.end(), [](const OilPlace& one) { return !one.done && one.what != "dry"; });
    page.section(words("OIL AND GREASE"), words("%1 to go").arg(left));
    if (next) {
        page.says(words(next->words), t.blued, Type::head, true);
        page.says(words(next->how), t.ink, Type::text);
        page.line(legend({"bench.done", "bench.undo"}), t.steel);
        page.gap(8);
    }
    for (const OilPlace& one : oil) {
        if (!one.plate.empty() || one.what == "dry") continue;
        if (!page.holds(60)) break;
        const QRectF at = page.step(words(one.words + ": " + one.what), one.done ? Column::Tick::done : Column::Tick::open, &one == next);
        place({"oil:" + words(one.id), at, [this, id = one.id, was = one.done] { m_document.edit(oil_place(id, !was)); }, words(one.how)});
    }
    page.gap(8);
    page.section(words("DRY"));
    for (const OilPlace& one : oil) {
        if (one.what != "dry" || !one.plate.empty()) continue;
        if (!page.holds(34)) break;
        page.line(words(one.words), t.ruby, Type::text);
        page.says(words(one.how), t.steel);
    }
}

void BenchStation::paint_symptoms(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    Column page(painter, room);
    page.section(words("WHAT IS SEEN OR HEARD"));
    for (const DiagnosisSymptom& symptom : shipped_diagnosis().symptoms) {
        if (!page.holds(21)) break;
        const bool seen = std::find(record().symptoms.begin(), record().symptoms.end(), symptom.id) != record().symptoms.end();
        const QRectF at = page.line((seen ? words("● ") : words("○ ")) + words(symptom.words), seen ? t.ink : t.steel, Type::note, seen);
        place({"symptom:" + words(symptom.id), at,
               [this, id = symptom.id, seen] { m_document.edit(seen ? unsee_symptom(id) : see_symptom(id)); }, words(symptom.words)});
    }
}

void BenchStation::paint_causes(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    Column page(painter, room);
    const DiagnoseResult& out = diagnosis();
    page.section(words("WHAT IT MAY BE"));
    constexpr size_t shown = 8;
    for (size_t i = 0; i < std::min(shown, out.causes.size()) && page.holds(200); ++i) {
        const CauseNow& cause = out.causes[i];
        const QRectF at = page.line(words("%1 %  %2").arg(words(print_fixed(100 * cause.probability, 0)), words(cause.words)), t.ink,
                                    i == 0 ? Type::figure : Type::text, i == 0);
        // The bar under its words is as long as it is likely.
        painter.fillRect(QRectF(room.left(), at.bottom() - 1, room.width() * cause.probability, 3), i == 0 ? t.brass : t.steel);
        place({"cause:" + words(cause.id), at, [this, id = cause.id] { m_document.edit(cause_found(id)); },
               words(cause.why + " " + cause.mend)});
        page.gap(3);
    }
    page.gap(4);
    page.says(words(out.verdict + " " + out.causes.front().why), t.steel, Type::text);
    if (!record().cause.empty())
        if (const DiagnosisCause* found = shipped_diagnosis().cause(record().cause))
            page.says(words("Found: %1").arg(words(found->words)), t.verdigris, Type::text, true);
    if (const StopsResult& stops = order().stops; stops.used > 0) page.remark(words(stops.verdict), stops.culprit ? t.brass : t.steel);
    page.gap(8);
    if (!out.next_test) return;
    const DiagnosisTest* test = shipped_diagnosis().test(out.next_test->id);
    const QString apart = test->apart == "plates"    ? words(", plates apart")
                          : test->apart == "pallets" ? words(", pallets off")
                          : test->apart == "hands"   ? words(", hands off")
                                                     : QString();
    page.section(words("NEXT TEST"), words("about %1 min").arg(words(print_fixed(test->minutes, 0))) + apart);
    page.says(words(test->words), t.blued, Type::head, true);
    page.says(words(test->how), t.ink, Type::text);
    for (size_t i = 0; i < test->results.size(); ++i) {
        const QRectF at = page.line(words("%1  %2").arg(i + 1).arg(words(test->results[i].words)), t.blued, Type::text);
        place({QString("answer:%1").arg(i + 1), at, [this, i] { answer(i); }, words(test->results[i].words)});
    }
    const auto known = known_by_job(m_document.job(), m_document.derived());
    if (!known.empty() && page.holds(40)) page.says(words("The job itself answered %1 tests already.").arg(known.size()), t.steel);
    for (const TestDone& done : record().tests) {
        const DiagnosisTest* tried = shipped_diagnosis().test(done.id);
        if (!tried || !page.holds(24)) continue;
        const QRectF at = page.line(words("%1 %2").arg(words(tried->words), words(done.result)), t.steel);
        place(
            {"tried:" + words(done.id), at, [this, id = done.id] { m_document.edit(test_done(id, "")); }, words("a click takes it back")});
    }
}

void BenchStation::paint_diagnosis(QPainter& painter) {
    const double left = std::min(410.0, 0.42 * wide());
    paint_symptoms(painter, QRectF(20, top_px + 12, left - 30, height() - top_px - 24));
    paint_causes(painter, QRectF(left + 10, top_px + 12, wide() - left - 30, height() - top_px - 24));
}

}  // namespace echappe
