#include <cmath>

#include "drawing/words.h"
#include "sheet/column.h"
#include "stations/pivots/pivots_station.h"
#include "survey/edits.h"
#include "theme/theme.h"

// The sheet beside the plates: what is decided about the hole, and all that speaks for it.

namespace echappe {
namespace {

constexpr double margin = 18;
constexpr double legend_high = 58;

bool is_doubtful(const HoleRecord& hole, const std::string& field) {
    return std::find(hole.doubtful.begin(), hole.doubtful.end(), field) != hole.doubtful.end();
}

}  // namespace

void PivotsStation::paint_card(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    painter.fillRect(room, t.sheet);
    painter.fillRect(QRectF(room.left(), 0, 1, height()), t.rule);
    const DerivedHole* now = hole();
    if (!now) return;
    Column page(painter, room.adjusted(margin, 14, -margin, -legend_high));
    write_decision(page, painter, *now);
    write_readings(page, *now);
    write_bush(page, *now);
    write_schools(page, painter, *now);
    write_meshes(page, painter, *now);
    write_remarks(page, *now);
    if (page.y() > height() - legend_high) return;
    Column foot(painter, room.adjusted(margin, height() - legend_high, -margin, 0));
    foot.says(legend({"pivots.ream", "pivots.order", "pivots.take", "pivots.finish", "pivots.between", "pivots.school", "pivots.method",
                      "pivots.next"},
                     " · ") +
                  words(" · Ctrl+P sheet"),
              t.steel);
}

void PivotsStation::write_decision(Column& page, QPainter& painter, const DerivedHole& hole) {
    const Theme& t = inks(painter);
    const QColor ink = PlateArt::ink(hole.decision, t);
    const QString head = words(words_for_decision(hole.decision));
    const QRectF at = page.head(head.left(1).toUpper() + head.mid(1), ink);
    if (hole.record.done) write(painter, type(Type::text, true), t.verdigris, {page.right(), at.top() + 15}, words("done"), 1);
    page.says(words(hole.reason), t.ink, Type::text);
    // What it is decided to be; a click decides otherwise, with a reason.
    Flow choices(painter, page.room(), page.y() + 15, 12);
    for (const auto& [decision, word] : {std::pair{"leave", "leave"}, std::pair{"clean", "clean"}, std::pair{"close", "close"},
                                         std::pair{"bush", "bush"}, std::pair{"plug", "plug"}, std::pair{"repivot-first", "pivot first"}}) {
        const bool on = hole.decision == decision;
        place({QString("decide:") + decision,
               choices.say(word, on ? ink : t.blued, Type::note, on, on),
               [this, d = std::string(decision)] { attempt([&] { overrule(d); }); },
               words("Decide so; the reason is asked and kept"),
               {},
               {},
               words("decide: %1").arg(word),
               on});
    }
    page.go_to(choices.baseline() + 12);
    if (hole.by_hand && hole.plan)
        place({"follow",
               page.line(words("overruled; the readings say: %1").arg(words(words_for_decision(hole.plan->decision))), t.blued),
               [this] { overrule({}); },
               words("Back to what the readings say"),
               {}});
    page.gap(6);
}

void PivotsStation::write_readings(Column& page, const DerivedHole& hole) {
    const Theme& t = page.inks();
    const QString unit = words(m_document.job().length.symbol);
    const HoleRecord& r = hole.record;
    const auto or_dash = [&](const std::optional<double>& mm) { return mm ? length(*mm) : QString("–"); };
    // Who took it, when and with what, where that is known.
    const auto taken = [&](const char* field, const QRectF& row) {
        const std::string how = m_document.job().survey.how_taken(hole.id, field);
        if (!how.empty()) place({QString("taken:") + field, row, {}, words(how), {}});
    };
    taken("pivot_mm", page.row({words("pivot"), or_dash(r.pivot_mm), t.ink, unit, r.pivot_mm ? words(r.pivot_state) : words("missing")}));
    const QRectF hole_row = page.row({words("hole"), or_dash(r.hole_max_mm) + " × " + or_dash(r.hole_min_mm), t.ink, unit,
                                      is_doubtful(r, "hole_max_mm") ? words("doubtful")
                                      : r.pegged                    ? words("pegged")
                                                                    : words("not pegged")});
    taken("hole_max_mm", hole_row);
    page.row({words("plate"), or_dash(hole.thickness_mm), t.ink, unit, r.thickness_mm ? words("here") : words("plate's")});
    if (hole.wobble)
        page.row({words("by wobble"), length(hole.wobble->hole_mm), t.ink, unit, words("leans %1°").arg(hole.wobble->tilt_deg, 0, 'f', 1)});
}

/// The bush that is planned, and to what the hole is opened.
void PivotsStation::write_bush(Column& page, const DerivedHole& hole) {
    const Theme& t = page.inks();
    const QString unit = words(m_document.job().length.symbol);
    if (!hole.plan) return page.gap(8);
    const BushPlanResult& plan = *hole.plan;
    if (hole.decision == "bush" && plan.bush) {
        const Bush& bush = *plan.bush;
        page.row({words("bush"), words(bush.id), t.blued, {}, hole.record.bush ? words("taken") : words("%1 there").arg(bush.quantity)});
        page.row({words("bore · Ø"), length(bush.bore_mm) + " · " + length(bush.outside_mm), t.blued, unit, " "});
        page.row({words("height"), length(bush.height_mm), t.blued, unit,
                  bush.height_mm > *hole.thickness_mm ? words("face down") : words("flush")});
        page.row({words("wall left"), length(*plan.wall_mm), t.blued, unit, words("round it")});
    }
    if (hole.decision != "leave" && plan.broach_to_mm)
        page.row({words("open to"), length(*plan.broach_to_mm), t.blued, unit,
                  words("+%1").arg(length(*plan.broach_to_mm - *hole.record.pivot_mm))});
    if (hole.decision != "leave" && plan.sink_depth_mm)
        page.row(
            {words("oil sink"), length(*plan.sink_diameter_mm) + " · " + length(*plan.sink_depth_mm), t.blued, unit, words("Ø · deep")});
    page.gap(8);
}

void PivotsStation::write_schools(Column& page, QPainter& painter, const DerivedHole& hole) {
    const Theme& t = inks(painter);
    const auto clearances = clearances_of(hole);
    if (clearances.empty()) return;
    page.section(words("CLEARANCE, THREE SCHOOLS, %1").arg(words(m_document.job().length.symbol)));
    for (const SchoolClearance& school : clearances) {
        const bool on = school.school == m_document.job().survey.pivots.clearance.school;
        const QRectF line = page.line(words(school.words), on ? t.ink : t.steel, Type::note, on, 4);
        if (on) painter.fillRect(QRectF(line.left() - 6, line.top() + 2, 3, line.height() - 4), t.blued);
        write(painter, type(Type::note), t.steel, {line.right() - 60, line.top() + 14}, words("leans %1°").arg(school.tilt_deg, 0, 'f', 1),
              1);
        write(painter, type(Type::figure, on), on ? t.ink : t.steel, {line.right(), line.top() + 14}, length(school.clearance_mm), 1);
        place({"school:" + words(school.school),
               line.adjusted(-6, 0, 6, 0),
               [this, id = school.school] { m_document.edit(choose_clearance_school(id)); },
               words(school.why),
               {}});
    }
    const bool up = m_document.job().survey.pivots.method == "broach-up";
    place({"method",
           page.line(up ? words("under-size bush, broached up (M)") : words("nearest bore, fitted direct (M)"), t.blued, Type::note, false,
                     4),
           [this] { other_method(); },
           words("Largest bore the pivot does not enter, broached open; or the nearest bore fitted as it is"),
           {}});
    page.gap(8);
}

QString PivotsStation::effect_in_words(const DerivedHole& hole, size_t which) {
    QString hint = words("+ too deep, − too shallow");
    const auto& simulated = effects(hole);
    for (size_t k = 0; k < 3 && 3 * which + k < simulated.size(); ++k) {
        const SimulatedEffect& s = simulated[3 * which + k];
        hint += "\n" + words(s.when) +
                words(": speed swings %1 %, contact begins %2° before the line of centres; %3")
                    .arg(100 * s.speed_swing, 0, 'f', 1)
                    .arg(s.before_centre_deg, 0, 'f', 1)
                    .arg(words(s.verdict));
    }
    return hint;
}

void PivotsStation::write_meshes(Column& page, QPainter& painter, const DerivedHole& hole) {
    if (hole.effects.empty()) return;
    const Theme& t = inks(painter);
    page.section(words("MESH DEPTHS, %1").arg(words(m_document.job().length.symbol)), words("now · worn · true"));
    const auto& simulated = effects(hole);
    constexpr size_t most = 4;
    for (size_t i = 0; i < hole.effects.size() && i < most; ++i) {
        const HoleEffect& effect = hole.effects[i];
        const TrainRecord& train = m_document.job().train;
        const auto ink_for = [&](size_t when) {
            if (simulated.size() <= 3 * i + when) return t.steel;
            return simulated[3 * i + when].verdict == "runs" ? t.verdigris : t.ruby;
        };
        double x = page.right();
        const double figures[] = {effect.at_true_mm, effect.at_worn_centre_mm, effect.as_worn_mm};
        for (size_t k = 0; k < 3; ++k) {
            const QString text = (figures[k] > 0.004 ? "+" : "") + length(figures[k]);
            x -= write(painter, type(Type::text, k == 2), ink_for(2 - k), {x, page.y() + 14}, text, 1) + 10;
        }
        const QString name = words(train.name_of_arbor(effect.wheel_of) + " – " + train.name_of_arbor(effect.pinion_of));
        write(painter, type(Type::note), t.ink, {page.left(), page.y() + 14}, elided(type(Type::note), name, x - page.left()));
        place({"effect:" + QString::number(i), QRectF(page.left(), page.y(), page.room().width(), 20), {}, effect_in_words(hole, i), {}});
        page.gap(20);
    }
    page.gap(8);
}

void PivotsStation::write_remarks(Column& page, const DerivedHole& hole) {
    const Theme& t = page.inks();
    const auto remark = [&](const std::string& text, const QColor& bar) {
        if (page.holds(24)) page.remark(words(text), bar);
    };
    if (hole.plan)
        for (const std::string& warning : hole.plan->warnings) remark(warning, t.amber);
    for (const Finding& finding : m_document.derived().findings)
        if (finding.arbor == hole.arbor && finding.verdict.empty() && (finding.part == hole.id || finding.is("survey.trial")))
            remark(finding.sentence + " " + finding.reason, t.severity(finding.severity));
    const DerivedPivots& pivots = m_document.derived().pivots;
    if (const auto at = pivots.end_shake.find(hole.arbor); at != pivots.end_shake.end())
        remark(at->second.reason, at->second.verdict == "right" ? t.verdigris : t.amber);
    if (const auto at = pivots.runout.find(hole.arbor); at != pivots.runout.end() && at->second.verdict != "true")
        remark(at->second.reason, t.ruby);
    const auto& log = m_document.job().survey.pivots.log;
    const auto redone =
        std::find_if(log.rbegin(), log.rend(), [&](const HoleEvent& event) { return event.hole == hole.id && event.again; });
    if (redone != log.rend()) remark("Done again, " + redone->date + ": " + redone->because, t.steel);
}

}  // namespace echappe
