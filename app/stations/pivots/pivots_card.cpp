#include <cmath>

#include "number/units.h"
#include "stations/pivots/pivots_station.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double margin = 18;

}  // namespace

void PivotsStation::paint_card(QPainter& painter, const QRectF& room) {
    const Theme& t = theme();
    painter.fillRect(room, t.sheet);
    painter.fillRect(QRectF(room.left(), 0, 1, height()), t.rule);
    const DerivedHole* now = hole();
    if (!now) return;
    const QRectF inner = room.adjusted(margin, 0, -margin, 0);
    double y = paint_decision(painter, *now, inner, 22);
    y = paint_figures(painter, *now, inner, y);
    y = paint_schools(painter, *now, inner, y);
    y = paint_meshes(painter, *now, inner, y);
    paint_notes(painter, *now, inner, y);
    write(painter, word_font(8), t.steel, {inner.left(), height() - 24.0},
          legend({"pivots.ream", "pivots.take", "pivots.finish", "pivots.between"}, " · "));
    write(painter, word_font(8), t.steel, {inner.left(), height() - 9.0},
          legend({"pivots.school", "pivots.method", "pivots.next"}, " · ") + tr(" · Ctrl+P sheet"));
}

double PivotsStation::paint_decision(QPainter& painter, const DerivedHole& hole, const QRectF& room, double y) {
    const Theme& t = theme();
    const QString head = words(words_for_decision(hole.decision));
    write(painter, figure_font(16), PlateArt::ink(hole.decision), {room.left(), y + 12}, head.left(1).toUpper() + head.mid(1));
    if (hole.record.done) write(painter, word_font(9.5, true), t.verdigris, {room.right(), y + 10}, tr("done"), 1);
    y += 24;
    y += write_wrapped(painter, word_font(9.5), t.ink, {room.left(), y}, room.width(), words(hole.reason)) + 8;
    // What it is decided to be; a click decides otherwise, with a reason.
    double x = room.left();
    const std::pair<const char*, const char*> choices[] = {{"leave", "leave"}, {"clean", "clean"}, {"close", "close"},
                                                           {"bush", "bush"},   {"plug", "plug"},   {"repivot-first", "pivot first"}};
    for (const auto& [decision, word] : choices) {
        const bool on = hole.decision == decision;
        const double wide = write(painter, word_font(9, on), on ? PlateArt::ink(hole.decision) : t.blued, {x, y + 11}, word);
        if (on) painter.fillRect(QRectF(x, y + 15, wide, 2), PlateArt::ink(hole.decision));
        place({QString("decide:") + decision,
               QRectF(x - 3, y - 4, wide + 6, 22),
               [this, d = std::string(decision)] { attempt([&] { overrule(d); }); },
               tr("Decide so; the reason is asked and kept"),
               {}});
        x += wide + 13;
    }
    if (hole.by_hand && hole.plan) {
        y += 22;
        const double wide = write(painter, word_font(8.5), t.blued, {room.left(), y + 11},
                                  tr("overruled; the readings say: %1").arg(words(words_for_decision(hole.plan->decision))));
        place({"follow", QRectF(room.left(), y - 2, wide, 18), [this] { overrule({}); }, tr("Back to what the readings say"), {}});
    }
    return y + 30;
}

double PivotsStation::paint_figures(QPainter& painter, const DerivedHole& hole, const QRectF& room, double y) {
    const Theme& t = theme();
    const QString unit = words(m_document.job().length.symbol);
    const auto row = [&](const QString& name, const QString& value, const QString& note, const QColor& colour, bool in_unit = true) {
        constexpr double unit_from_right = 84;
        write(painter, word_font(9), t.steel, {room.left(), y + 13}, name);
        write(painter, word_font(8), t.steel, {room.right(), y + 13}, note, 1);
        if (in_unit) write(painter, word_font(8.5), t.steel, {room.right() - unit_from_right, y + 13}, unit);
        write(painter, figure_font(12), colour, {room.right() - unit_from_right - 4, y + 13}, value, 1);
        painter.fillRect(QRectF(room.left(), y + 19, room.width(), 1), t.rule);
        y += 22;
    };
    const HoleRecord& r = hole.record;
    const auto doubtful = [&](const char* field) { return std::find(r.doubtful.begin(), r.doubtful.end(), field) != r.doubtful.end(); };
    const auto or_dash = [&](const std::optional<double>& mm) { return mm ? length(*mm) : QString("–"); };
    row(tr("pivot"), or_dash(r.pivot_mm), r.pivot_mm ? words(r.pivot_state) : tr("missing"), t.ink);
    row(tr("hole"), or_dash(r.hole_max_mm) + " × " + or_dash(r.hole_min_mm),
        doubtful("hole_max_mm") ? tr("doubtful")
        : r.pegged              ? tr("pegged")
                                : tr("not pegged"),
        t.ink);
    row(tr("plate"), or_dash(hole.thickness_mm), r.thickness_mm ? tr("here") : tr("plate's"), t.ink);
    if (hole.wobble) row(tr("by wobble"), length(hole.wobble->hole_mm), tr("leans %1°").arg(hole.wobble->tilt_deg, 0, 'f', 1), t.ink);
    if (!hole.plan) return y + 8;
    const BushPlanResult& plan = *hole.plan;
    if (hole.decision == "bush" && plan.bush) {
        row(tr("bush"), words(plan.bush->id), r.bush ? tr("taken") : tr("%1 there").arg(plan.bush->quantity), t.blued, false);
        row(tr("bore · ⌀"), length(plan.bush->bore_mm) + " · " + length(plan.bush->outside_mm), {}, t.blued);
        row(tr("height"), length(plan.bush->height_mm), plan.bush->height_mm > *hole.thickness_mm ? tr("face down") : tr("flush"), t.blued);
        row(tr("wall left"), length(*plan.wall_mm), tr("round it"), t.blued);
    }
    if (hole.decision != "leave" && plan.broach_to_mm)
        row(tr("open to"), length(*plan.broach_to_mm), tr("+%1").arg(length(*plan.broach_to_mm - *r.pivot_mm)), t.blued);
    if (hole.decision != "leave" && plan.sink_depth_mm)
        row(tr("oil sink"), length(*plan.sink_diameter_mm) + " · " + length(*plan.sink_depth_mm), tr("⌀ · deep"), t.blued);
    return y + 10;
}

double PivotsStation::paint_schools(QPainter& painter, const DerivedHole& hole, const QRectF& room, double y) {
    const Theme& t = theme();
    const auto clearances = clearances_of(hole);
    if (clearances.empty()) return y;
    write(painter, word_font(8.5, true), t.steel, {room.left(), y + 8},
          tr("CLEARANCE, THREE SCHOOLS, %1").arg(words(m_document.job().length.symbol)));
    y += 16;
    for (const SchoolClearance& school : clearances) {
        const bool on = school.school == m_document.job().survey.pivots.clearance.school;
        const QRectF line(room.left() - 6, y, room.width() + 12, 22);
        if (on) painter.fillRect(QRectF(line.left(), line.top() + 2, 3, line.height() - 4), t.blued);
        write(painter, word_font(9, on), on ? t.ink : t.steel, {room.left() + 4, y + 15}, words(school.words));
        write(painter, word_font(8), t.steel, {room.right() - 86, y + 15}, tr("leans %1°").arg(school.tilt_deg, 0, 'f', 1), 1);
        write(painter, figure_font(11, on), on ? t.ink : t.steel, {room.right(), y + 15}, length(school.clearance_mm), 1);
        place({"school:" + words(school.school),
               line,
               [this, id = school.school] {
                   m_document.edit(tr("School of clearance"), [&](Job& job) { job.survey.pivots.clearance.school = id; });
               },
               words(school.why),
               {}});
        y += 22;
    }
    const bool up = m_document.job().survey.pivots.method == "broach-up";
    const double wide = write(painter, word_font(8.5), t.blued, {room.left() + 4, y + 13},
                              up ? tr("under-size bush, broached up (M)") : tr("nearest bore, fitted direct (M)"));
    place({"method",
           QRectF(room.left(), y, wide + 8, 18),
           [this] { other_method(); },
           tr("Largest bore the pivot does not enter, broached open; or the nearest bore fitted as it is"),
           {}});
    return y + 28;
}

double PivotsStation::paint_meshes(QPainter& painter, const DerivedHole& hole, const QRectF& room, double y) {
    if (hole.effects.empty()) return y;
    const Theme& t = theme();
    write(painter, word_font(8.5, true), t.steel, {room.left(), y + 8},
          tr("DEPTH OF THE MESHES, %1").arg(words(m_document.job().length.symbol)));
    write(painter, word_font(8), t.steel, {room.right(), y + 8}, tr("now · worn · true"), 1);
    y += 14;
    const auto& simulated = effects(hole);
    constexpr size_t most = 4;
    for (size_t i = 0; i < hole.effects.size() && i < most; ++i) {
        const HoleEffect& effect = hole.effects[i];
        const QString name =
            words(m_document.job().train.name_of_arbor(effect.wheel_of) + " – " + m_document.job().train.name_of_arbor(effect.pinion_of));
        write(painter, word_font(9), t.ink, {room.left(), y + 14}, name);
        const auto ink_for = [&](size_t which) {
            if (simulated.size() <= 3 * i + which) return t.steel;
            const std::string& verdict = simulated[3 * i + which].verdict;
            return verdict == "runs" ? t.verdigris : t.ruby;
        };
        double x = room.right();
        const double figures[] = {effect.at_true_mm, effect.at_worn_centre_mm, effect.as_worn_mm};
        for (size_t k = 0; k < 3; ++k) {
            const QString text = (figures[k] > 0.004 ? "+" : "") + length(figures[k]);
            x -= write(painter, figure_font(10, k == 2), ink_for(2 - k), {x, y + 14}, text, 1) + 12;
        }
        QString hint = tr("+ too deep, − too shallow");
        for (size_t k = 0; k < 3 && 3 * i + k < simulated.size(); ++k) {
            const SimulatedEffect& s = simulated[3 * i + k];
            hint += "\n" + words(s.when) +
                    tr(": speed swings %1 %, contact begins %2° before the line of centres; %3")
                        .arg(100 * s.speed_swing, 0, 'f', 1)
                        .arg(s.before_centre_deg, 0, 'f', 1)
                        .arg(words(s.verdict));
        }
        place({"effect:" + QString::number(i), QRectF(room.left(), y, room.width(), 20), {}, hint, {}});
        y += 21;
    }
    return y + 10;
}

double PivotsStation::paint_notes(QPainter& painter, const DerivedHole& hole, const QRectF& room, double y) {
    const Theme& t = theme();
    const double floor = height() - 44.0;
    const auto note = [&](const QString& text, const QColor& colour) {
        if (y > floor - 24) return;
        const double from = y;
        y += write_wrapped(painter, word_font(9), t.ink, {room.left() + 10, y}, room.width() - 10, text) + 5;
        painter.fillRect(QRectF(room.left(), from + 1, 3, y - from - 5), colour);
    };
    if (hole.plan)
        for (const std::string& warning : hole.plan->warnings) note(words(warning), t.amber);
    for (const Finding& finding : m_document.derived().findings)
        if (finding.arbor == hole.arbor && finding.verdict.empty() && (finding.part == hole.id || finding.is("survey.trial")))
            note(words(finding.sentence + " " + finding.reason), t.severity(finding.severity));
    const DerivedPivots& pivots = m_document.derived().pivots;
    if (const auto at = pivots.end_shake.find(hole.arbor); at != pivots.end_shake.end())
        note(words(at->second.reason), at->second.verdict == "right" ? t.verdigris : t.amber);
    if (const auto at = pivots.runout.find(hole.arbor); at != pivots.runout.end() && at->second.verdict != "true")
        note(words(at->second.reason), t.ruby);
    size_t redone = 0;
    for (const HoleEvent& event : m_document.job().survey.pivots.log) redone += event.hole == hole.id && event.again;
    for (const HoleEvent& event : m_document.job().survey.pivots.log)
        if (event.hole == hole.id && event.again && --redone == 0)
            note(tr("Done again, %1: %2").arg(words(event.date), words(event.because)), t.steel);
    return y;
}

}  // namespace echappe
