#include "print/hole_sheet.h"

#include <cmath>

#include "drawing/plate_art.h"
#include "drawing/words.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr double left_mm = 12;
constexpr double row_mm = 28;
constexpr double last_row_mm = 172;  ///< of 210: the foot is below

QString mm(double value) { return words(print_fixed(value, 2)); }

void head(Sheet& sheet, const Job& job, const QString& what, double right) {
    sheet.text(left_mm, 14, 15, words(job.title) + " · " + what, true);
    sheet.text(left_mm, 20, 9, QString("Job %1 · %2 · all in mm").arg(words(job.number), words(job.workshop)));
    sheet.line(left_mm, 23, right, 23, 0.4);
}

void box(Sheet& sheet, double x, double y, bool ticked) {
    constexpr double size = 4.5;
    sheet.painter.setPen(QPen(black, 0.3 * sheet.px));
    sheet.painter.setBrush(Qt::NoBrush);
    sheet.painter.drawRect(QRectF(sheet.at(x, y - size), sheet.at(x + size, y)));
    if (!ticked) return;
    sheet.line(x, y, x + size, y - size, 0.4);
    sheet.line(x, y - size, x + size, y, 0.4);
}

bool with_a_row(const DerivedHole& hole) {
    return hole.plan && (hole.decision == "bush" || hole.decision == "plug" || hole.decision == "close");
}

/// Name and decision, offset, reamers with boxes, bush, finished hole: from left to right as the hands go. How high it is, mm.
double hole_row(Sheet& sheet, const DerivedHole& hole, double y) {
    const BushPlanResult& plan = *hole.plan;
    sheet.text(left_mm, y + 9, 16, words(hole.name), true);
    sheet.text(left_mm, y + 15, 10, words(words_for_decision(hole.decision)) + (hole.record.done ? ", done" : ""));
    sheet.text(left_mm, y + 20, 8,
               "pivot " + mm(*hole.record.pivot_mm) + ", hole " + mm(*hole.record.hole_max_mm) + " × " + mm(*hole.record.hole_min_mm));
    if (hole.decision == "bush" || hole.decision == "plug") {
        const Offset move = table_move(hole);
        sheet.text(78, y + 6, 8, "inside up, table");
        const bool off = std::hypot(move.x, move.y) >= 0.005;
        sheet.text(78, y + 14, off ? 18 : 12, off ? words(move_in_words(move)).chopped(3) : QString("as it is"), true);
    }
    if (plan.bush && hole.decision == "bush") {
        sheet.text(140, y + 6, 8, "ream");
        double x = 140;
        for (size_t i = 0; i < plan.reamers_mm.size(); ++i) {
            box(sheet, x, y + 20, i < hole.record.reamed_mm.size());
            sheet.text(x, y + 14, i + 1 == plan.reamers_mm.size() ? 16 : 13, mm(plan.reamers_mm[i]), i + 1 == plan.reamers_mm.size());
            x += 17;
        }
        sheet.text(232, y + 6, 8, "bush");
        sheet.text(232, y + 13, 15, words(plan.bush->id), true);
        sheet.text(232, y + 19, 8, mm(plan.bush->bore_mm) + " / " + mm(plan.bush->outside_mm) + " / " + mm(plan.bush->height_mm));
    } else {
        sheet.text(140, y + 12, 11,
                   hole.decision == "close" ? "round punch, flat stump, light blows; broach"
                                            : "bore out, turned plug, drill anew on the true centre");
    }
    if (plan.broach_to_mm) {
        sheet.text(266, y + 6, 8, "open to");
        sheet.text(266, y + 14, 16, mm(*plan.broach_to_mm), true);
    }
    box(sheet, 281, y + 21, hole.record.done);
    QStringList warnings;
    for (const std::string& warning : plan.warnings) warnings << words(warning);
    const double said = warnings.isEmpty() ? 0 : sheet.wrapped(78, y + 25.5, 200, 8, warnings.join("  "));
    const double high = std::max(row_mm, 24 + said);
    sheet.line(left_mm, y + high, 287, y + high, 0.15);
    return high;
}

void plate_map(Sheet& sheet, const Job& job, const Derived& derived, const std::string& plate, const QRectF& room_mm) {
    const QRectF room(sheet.at(room_mm.left(), room_mm.top()), sheet.at(room_mm.right(), room_mm.bottom()));
    const PlateMap map = PlateArt::fitted(job, derived, room, plate == "back");
    QPen pen(black, 0.2 * sheet.px);
    sheet.painter.setPen(pen);
    sheet.painter.setBrush(Qt::NoBrush);
    if (job.train.plate) sheet.painter.drawPath(PlateArt::outline(*job.train.plate, map));
    sheet.text(room_mm.left(), room_mm.top() - 2, 9, PlateArt::title(plate == "back", INFINITY), true);
    if (job.train.plate)
        for (const auto& pillar : job.train.plate->pillars)
            sheet.painter.drawEllipse(map.at(pillar[0], pillar[1]), job.train.plate->pillar_mm / 2 * map.px_per_mm,
                                      job.train.plate->pillar_mm / 2 * map.px_per_mm);
    for (const Spot& spot : derived.survey.spots) {
        if (spot.plate != plate || (spot.kind != "hole" && spot.kind != "pillar")) continue;
        const QPointF at = map.at(spot.x_mm, spot.y_mm);
        sheet.painter.setPen(pen);
        sheet.painter.setBrush(spot.severity == "fault" ? QBrush(black) : QBrush(Qt::NoBrush));
        sheet.painter.drawEllipse(at, 1.3 * sheet.px, 1.3 * sheet.px);
        if (spot.kind == "pillar" && spot.severity.empty()) continue;
        const DerivedHole* hole = derived.pivots.hole(spot.part);
        const QString name = words(hole ? job.train.name_of_arbor(spot.arbor) : spot.name);
        QStringList said;
        if (!spot.verdict.empty()) said << words(spot.verdict);
        if (hole && !hole->decision.empty()) said << words(words_for_decision(hole->decision));
        const QString what = said.isEmpty() ? QString("not looked at") : said.join(" · ");
        // To the right of the spot, or to the left of it where the plate ends.
        constexpr double beside_mm = 2.5;
        const double x = at.x() / sheet.px;
        const bool right = x + beside_mm + sheet.wide(what, 7.5) < room_mm.right();
        sheet.text(right ? x + beside_mm : x - beside_mm - sheet.wide(name, 8, true), at.y() / sheet.px, 8, name, true);
        sheet.text(right ? x + beside_mm : x - beside_mm - sheet.wide(what, 7.5), at.y() / sheet.px + 3.4, 7.5, what);
    }
}

}  // namespace

Printout hole_sheet(const Job& job, const Derived& derived) {
    return {words("holes"), QPageSize::A4, QPageLayout::Landscape, [job, derived](Sheet& sheet) {
                const auto foot = [&] {
                    sheet.text(left_mm, 205, 8.5,
                               "From the inside outwards, oil sink outside. Each wheel alone between the plates before the next hole. Eye "
                               "protection; no gloves at the spindle; plate clamped.");
                };
                head(sheet, job, "holes", 287);
                double y = 24;
                for (const DerivedHole& hole : derived.pivots.holes) {
                    if (!with_a_row(hole)) continue;
                    if (y > last_row_mm) {
                        foot();
                        sheet.next_page();
                        head(sheet, job, "holes, next", 287);
                        y = 24;
                    }
                    y += hole_row(sheet, hole, y);
                }
                QStringList elsewhere;
                for (const DerivedHole& hole : derived.pivots.holes)
                    if (hole.decision != "leave" && !with_a_row(hole))
                        elsewhere << words(hole.name + ": " + (hole.decision.empty() ? "not measured" : words_for_decision(hole.decision)));
                constexpr qsizetype in_a_line = 4;
                const double lines_mm = 8 + 5.0 * static_cast<double>((elsewhere.size() + in_a_line - 1) / in_a_line);
                if (!elsewhere.isEmpty() && y + lines_mm > 200) {
                    foot();
                    sheet.next_page();
                    head(sheet, job, "holes, next", 287);
                    y = 24;
                }
                if (!elsewhere.isEmpty()) {
                    sheet.text(left_mm, y + 6, 9, QString("Not on this sheet, and not to be left alone (%1):").arg(elsewhere.size()), true);
                    for (qsizetype i = 0; i < elsewhere.size(); i += in_a_line, y += 5)
                        sheet.text(left_mm, y + 11, 9, elsewhere.mid(i, in_a_line).join("   ·   "));
                    y += 8;
                }
                for (const ShoppingLine& line : derived.pivots.shopping) {
                    sheet.text(left_mm, y + 6, 9,
                               QString("To order: %1, %2 wanted, %3 there").arg(words(line.words)).arg(line.wanted).arg(line.there), true);
                    y += 6;
                }
                foot();
            }};
}

Printout survey_sheet(const Job& job, const Derived& derived) {
    return {words("survey"), QPageSize::A4, QPageLayout::Portrait, [job, derived](Sheet& sheet) {
                head(sheet, job, "survey", 198);
                plate_map(sheet, job, derived, "front", QRectF(12, 32, 88, 118));
                plate_map(sheet, job, derived, "back", QRectF(108, 32, 88, 118));
                double y = 162;
                const auto list = [&](const QString& title, const std::vector<SurveyLine>& lines, bool to_tick) {
                    const auto room_for = [&](double mm) {
                        if (y + mm <= 282) return;
                        sheet.next_page();
                        head(sheet, job, "survey, next", 198);
                        y = 26;
                    };
                    room_for(16);
                    sheet.text(left_mm, y, 11, title, true);
                    for (const SurveyLine& line : lines) {
                        room_for(6);
                        y += 5.6;
                        if (to_tick) box(sheet, left_mm, y, false);
                        sheet.text(left_mm + 7, y - 0.8, 10, words(line.sentence), true);
                        if (line.reason.empty()) continue;
                        y += 3.2 + sheet.wrapped(left_mm + 7, y + 3.2, 178, 7.5, words(line.reason)) - 2.6;
                    }
                    y += 11;
                };
                list("Wants a decision or work, in order", derived.survey.needed, true);
                if (!derived.survey.earlier.empty()) list("Earlier repairs", derived.survey.earlier, false);
            }};
}

}  // namespace echappe
