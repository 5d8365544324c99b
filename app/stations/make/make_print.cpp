// What goes to paper: a card a page, and the templates.
#include <QPainterPath>
#include <algorithm>

#include "drawing/words.h"
#include "number/units.h"
#include "parts/template_sheet.h"
#include "print/part_sheet.h"
#include "stations/make/card_drawing.h"
#include "stations/make/make_station.h"

namespace echappe {
namespace {

void print_steps(Sheet& sheet, const DerivedCard& card, const LengthUnit& unit, double y) {
    const auto length = [&](double mm) { return words(unit.write(mm, unit.turned())); };
    for (const CardStep& step : card.steps) {
        constexpr double last = 276;
        if (y > last) {
            sheet.next_page();
            y = 24;
        }
        // A box to tick at the bench, or the tick.
        sheet.line(20, y - 3, 23, y - 3, 0.15), sheet.line(23, y - 3, 23, y, 0.15), sheet.line(23, y, 20, y, 0.15),
            sheet.line(20, y, 20, y - 3, 0.15);
        if (step.done) sheet.line(20.6, y - 1.4, 21.4, y - 0.5, 0.3), sheet.line(21.4, y - 0.5, 23.4, y - 3.6, 0.3);
        double high = sheet.wrapped(27, y, 100, 9, words(step.words), true);
        if (step.size && step.size->only_limit()) {
            sheet.text(132, y, 10, words("%1 at most").arg(words(unit.write(step.size->max_mm, unit.toothed()))), true);
        } else if (step.size) {
            sheet.text(132, y, 10, length(step.size->nominal_mm), true);
            sheet.text(160, y, 8,
                       words("%1 to %2")
                           .arg(words(unit.write(step.size->min_mm, unit.toothed(), false)),
                                words(unit.write(step.size->max_mm, unit.toothed(), false))));
        }
        if (step.read_mm) sheet.text(132, y + 4, 8, words("read %1").arg(length(*step.read_mm)));
        QStringList small;
        if (!step.tool.empty()) small << words(step.tool);
        if (step.rpm) small << words("%1 turns a minute").arg(words(print_fixed(*step.rpm, 0)));
        constexpr double warm_C = 60;
        if (step.heat_C > warm_C) small << words("up to %1 °C").arg(words(print_fixed(step.heat_C, 0)));
        if (!step.check.empty()) small << words(step.check);
        if (!small.isEmpty()) high += sheet.wrapped(27, y + high + 0.6, 100, 7.5, small.join(" · "));
        if (!step.caution.empty()) high += sheet.wrapped(27, y + high + 0.6, 100, 7.5, words("Caution: %1").arg(words(step.caution)));
        y += std::max(high, step.read_mm ? 9.0 : 5.0) + 3;
    }
}

/// The moves of the crank, tooth by tooth, in columns; one line where every move is the same.
void print_moves(Sheet& sheet, const DerivedCard& card) {
    if (!card.table || card.table->circle == 0) return;
    sheet.next_page();
    sheet.text(20, 24, 14, words("%1: dividing").arg(words(card.name)), true);
    double y = 32 + sheet.wrapped(20, 32, 170, 9, words(card.table->verdict));
    constexpr double last = 280, line = 5, wide = 34;
    double x = 20;
    const double top = y + 4;
    y = top;
    for (const DividingRow& row : card.table->rows) {
        if (y > last) y = top, x += wide;
        if (x > 170) sheet.next_page(), x = 20, y = top;
        sheet.line(x, y - 2.6, x + 2.6, y - 2.6, 0.15), sheet.line(x + 2.6, y - 2.6, x + 2.6, y, 0.15), sheet.line(x + 2.6, y, x, y, 0.15),
            sheet.line(x, y, x, y - 2.6, 0.15);
        const long long plate = row.tooth > 1 ? card.table->second_holes : 0;
        const QString second = plate == 0 ? QString() : plate < 0 ? words(", %1 back").arg(-plate) : words(", %1 on").arg(plate);
        sheet.text(x + 4, y, 8, words("%1: %2 + %3%4").arg(row.tooth).arg(row.turns).arg(row.holes).arg(second));
        y += line;
    }
}

/// The fly cutter's face at 20 : 1, and a ruler that says whether the paper tells the truth.
void print_fly(Sheet& sheet, const DerivedCard& card, const LengthUnit& unit) {
    if (!card.fly) return;
    const FlyCutterResult& cutter = *card.fly;
    const FlyCutterInput usual;
    constexpr double middle = 105, top = 90, least_room = 150;
    const double times = cutter.top_width_mm * 20 < least_room && cutter.ground_mm * 20 < least_room ? 20 : 5;
    sheet.next_page();
    sheet.text(20, 24, 14, words("%1: fly cutter at %2 : 1").arg(words(card.name)).arg(times), true);
    const auto length = [&](double mm) { return words(unit.write(mm, unit.toothed() + 1)); };
    double y = 34;
    for (const auto& [name, figure] : {std::pair{words("flat of the tip"), length(cutter.tip_width_mm)},
                                       {words("across the flanks, blank's outside"), length(cutter.top_width_mm)},
                                       {words("from the tip to there"), length(cutter.ground_mm)},
                                       {words("depth from the blank's outside"), length(cutter.depth_mm)},
                                       {words("relief, a %1 mm bit at %2 mm from the spindle")
                                            .arg(words(print_short(usual.thickness_mm)), words(print_short(usual.radius_mm))),
                                        words("over %1°").arg(words(print_fixed(cutter.least_relief_deg, 1)))}}) {
        sheet.text(20, y, 9, name);
        sheet.text(110, y, 10, figure, true);
        y += 6;
    }
    QPainterPath face;
    QPolygonF edge;
    for (const Point& p : cutter.profile) edge << QPointF(p[0], p[1]);
    face.addPolygon(edge);
    face.closeSubpath();
    sheet.outline(face, middle, top + cutter.ground_mm * times, times);
    sheet.line(middle, top - 6, middle, top + cutter.ground_mm * times + 6, 0.1);
    const double ruler = top + cutter.ground_mm * times + 20;
    sheet.line(middle - 50, ruler, middle + 50, ruler);
    for (int i = 0; i <= 10; ++i) sheet.line(middle - 50 + 10.0 * i, ruler - 2, middle - 50 + 10.0 * i, ruler + 2);
    sheet.text(middle - 50, ruler + 7, 9, words("100 mm, or do not trust it"));
}

void print_card(Sheet& sheet, const Job& job, const DerivedCard& card) {
    write_head(sheet, job);
    sheet.text(20, 38, 14, words(card.name), true);
    double y = 44 + sheet.wrapped(20, 44, 110, 9, words(card.because));
    if (card.stock) {
        const CardStock& stock = *card.stock;
        y +=
            sheet.wrapped(20, y + 1, 110, 9,
                          words("%1, %2 of %3, %4 long, %5 g. %6")
                              .arg(words(stock.material), words(stock.form), words(job.length.write(stock.size_mm, job.length.turned())),
                                   words(job.length.write(stock.length_mm, 0)), words(print_fixed(stock.mass_g, 1)), words(stock.verdict)));
    }
    for (const std::string& note : card.notes) y += sheet.wrapped(20, y + 1, 110, 8, words(note)) + 0.5;
    // The drawing, as large as a corner takes it; the true size is the template's.
    sheet.painter.save();
    sheet.painter.translate(sheet.at(136, 30));
    constexpr double pixels_wide = 300, corner_mm = 60;
    sheet.painter.scale(corner_mm * sheet.px / pixels_wide, corner_mm * sheet.px / pixels_wide);
    paint_large(sheet.painter, QRectF(0, 0, pixels_wide, 230), card, job.length);
    sheet.painter.restore();
    print_steps(sheet, card, job.length, std::max(y + 8, 84.0));
    print_moves(sheet, card);
    print_fly(sheet, card, job.length);
}

/// Each with its name inside it, or where that has no room with its number, which is told at the head of the sheet.
void label_parts(Sheet& sheet, const std::vector<const DerivedCard*>& cards, const std::vector<FlatPart>& parts,
                 const std::vector<TemplatePlace>& places, const TemplateInput& paper, long long which) {
    QStringList numbered;
    for (const TemplatePlace& place : places) {
        if (place.sheet != which) continue;
        const auto part = static_cast<size_t>(place.part - 1);
        double low = 1e18, high = -1e18;
        for (const Point& p : parts[part].outline)
            low = std::min(low, p[place.turned ? 1 : 0]), high = std::max(high, p[place.turned ? 1 : 0]);
        constexpr double inside = 2, letter_mm = 1.4;
        const QString name = words(cards[part]->name);
        const bool fits = static_cast<double>(name.length()) * letter_mm + 2 * inside < high - low;
        const double x = std::max(place.x_mm, paper.margin_mm), y = std::max(place.y_mm, paper.margin_mm);
        sheet.text(fits ? x + inside : std::max(place.x_mm, paper.margin_mm) + (high - low) / 2 - letter_mm / 2,
                   paper.sheet_height_mm - y - inside, 7, fits ? name : QString::number(place.part));
        if (!fits) numbered << words("%1 %2").arg(place.part).arg(name);
    }
    if (!numbered.isEmpty()) sheet.text(paper.margin_mm, 14, 7, numbered.join(", "));
}

void print_templates(Sheet& sheet, const Job& job, const std::vector<const DerivedCard*>& cards, const std::vector<FlatPart>& parts,
                     const TemplateInput& paper) {
    const std::vector<TemplatePlace> places = lay_out(parts, paper);
    long long sheets = 0;
    for (const TemplatePlace& place : places) sheets = std::max(sheets, place.sheet);
    for (long long which = 1; which <= sheets; ++which) {
        if (which > 1) sheet.next_page();
        const Drawing drawing = template_drawing(parts, places, paper, which);
        const auto at = [&](const Point& p) { return sheet.at(p[0], paper.sheet_height_mm - p[1]); };
        QPainterPath path;
        for (const DrawingLayer& layer : drawing.layers) {
            for (const auto& outline : layer.outlines) {
                QPolygonF polygon;
                for (const Point& p : outline) polygon << at(p);
                path.addPolygon(polygon);
                if (outline.size() > 2) path.closeSubpath();
            }
            for (const auto& circle : layer.circles)
                path.addEllipse(at(circle.centre), circle.radius_mm * sheet.px, circle.radius_mm * sheet.px);
            for (const Point& mark : layer.marks) {
                constexpr double arm = 1.5;
                path.moveTo(at({mark[0] - arm, mark[1]})), path.lineTo(at({mark[0] + arm, mark[1]}));
                path.moveTo(at({mark[0], mark[1] - arm})), path.lineTo(at({mark[0], mark[1] + arm}));
            }
        }
        sheet.painter.save();
        sheet.painter.setPen(QPen(black, 0.15 * sheet.px));
        sheet.painter.setBrush(Qt::NoBrush);
        // A part that goes over several sheets ends at the margin of each.
        constexpr double scale_room = 9;
        const QPointF corner = sheet.at(paper.margin_mm - scale_room, paper.margin_mm - scale_room),
                      far = sheet.at(paper.sheet_width_mm - paper.margin_mm + scale_room,
                                     paper.sheet_height_mm - paper.margin_mm + scale_room);
        sheet.painter.setClipRect(QRectF(corner, far));
        sheet.painter.drawPath(path);
        sheet.painter.restore();
        label_parts(sheet, cards, parts, places, paper, which);
        sheet.text(paper.margin_mm, 10, 9,
                   words("%1 – templates at 1 : 1, sheet %2 of %3: 100 mm both ways, or do not trust it")
                       .arg(words(job.title))
                       .arg(which)
                       .arg(sheets),
                   true);
    }
}

/// What printers take; a large part goes over several of them.
const std::vector<QPageSize::PageSizeId>& papers() {
    static const std::vector<QPageSize::PageSizeId> all = {QPageSize::A4, QPageSize::Letter, QPageSize::Legal, QPageSize::A3};
    return all;
}

}  // namespace

void MakeStation::next_paper() {
    m_paper = (m_paper + 1) % static_cast<int>(papers().size());
    emit told(words("Templates on %1.").arg(QPageSize::name(papers()[static_cast<size_t>(m_paper)])), false);
}

Printout MakeStation::printed() {
    const DerivedCard* now = card();
    if (!now) return CardStation::printed();
    return {words(now->name), QPageSize::A4, QPageLayout::Portrait,
            [job = m_document.job(), card = *now](Sheet& sheet) { print_card(sheet, job, card); }};
}

Printout MakeStation::all_cards() const {
    if (cards().empty()) throw InputError("print", "a job without parts to make", "a part: decided elsewhere, or begun by hand");
    return {words("cards"), QPageSize::A4, QPageLayout::Portrait, [job = m_document.job(), all = cards()](Sheet& sheet) {
                for (const DerivedCard& card : all) {
                    if (&card != &all.front()) sheet.next_page();
                    print_card(sheet, job, card);
                }
            }};
}

Printout MakeStation::templates() const {
    std::vector<FlatPart> parts;
    std::vector<DerivedCard> all;
    for (const DerivedCard& card : cards())
        if (card.flat || card.pattern) parts.push_back(card.flat ? *card.flat : *card.pattern), all.push_back(card);
    if (parts.empty()) throw InputError("print", "a job without flat parts", "a hand, bracket, door or panel: begin one by hand");
    TemplateInput paper;
    const QPageSize size(papers()[static_cast<size_t>(m_paper)]);
    paper.sheet_width_mm = size.size(QPageSize::Millimeter).width(), paper.sheet_height_mm = size.size(QPageSize::Millimeter).height();
    return {words("templates"), size.id(), QPageLayout::Portrait, [job = m_document.job(), all, parts, paper](Sheet& sheet) {
                std::vector<const DerivedCard*> cards;
                for (const DerivedCard& card : all) cards.push_back(&card);
                print_templates(sheet, job, cards, parts, paper);
            }};
}

}  // namespace echappe
