// The picture of the Make station: parts in their order, the step that is next, the dividing table.
#include <QPainterPath>
#include <algorithm>
#include <cmath>
#include <set>

#include "cards/sheets.h"
#include "drawing/words.h"
#include "number/constants.h"
#include "number/units.h"
#include "sheet/marks.h"
#include "stations/make/card_drawing.h"
#include "stations/make/make_station.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double parts_wide = 262, row_high = 58;
constexpr double roomy = 900;  // narrower, the list of steps goes, and the parts make way for the sheets

QPointF on(QPointF middle, double r, double deg) { return middle + r * QPointF(std::cos(deg * pi / 180), -std::sin(deg * pi / 180)); }

QString move_in_words(const DividingRow& row) {
    QStringList parts;
    if (row.turns > 0) parts << (row.turns == 1 ? words("1 turn") : words("%1 turns").arg(row.turns));
    if (row.holes > 0) parts << (row.holes == 1 ? words("1 hole") : words("%1 holes").arg(row.holes));
    return parts.isEmpty() ? words("where it stands") : parts.join(words(" and "));
}

}  // namespace

double MakeStation::left_px() const { return width() > roomy || m_show != Show::sheets ? parts_wide : 0; }

double MakeStation::right_px() const {
    if (m_show == Show::sheets) return width() - SumCard::wide;
    return width() > roomy ? width() - SumCard::wide - 10 : width() - 16;
}

void MakeStation::lay_out() {
    CardStation::lay_out();
    m_card->setVisible(m_show == Show::sheets && !m_large);
}

void MakeStation::paint_nothing(QPainter& painter) {
    const Theme& t = inks(painter);
    Column page(painter, QRectF(22, 40, 560, 300));
    page.head(words("Nothing to make yet"), t.ink);
    page.says(words("Parts come here by themselves: a lost count that is chosen at the Train, a hole that is to be bushed, a bent arbor, a "
                    "wheel that "
                    "the Survey found with missing or worn teeth."),
              t.steel, Type::text);
    Flow flow(painter, QRectF(22, 0, width() - 44.0, height()), page.y() + 26, 26);
    place({"make:begin", flow.say(words("begin a part by hand"), t.blued, Type::figure, true), [this] { act_on("make.begin"); },
           words("stud, foot, hand, door, pipes, holes: by its sizes")});
}

void MakeStation::paint_begin(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    Column page(painter, room);
    page.head(words("Begin a part"), t.ink);
    page.says(words("Press its letter. It begins with usual sizes: type yours on the drawing."), t.steel, Type::text);
    page.gap(10);
    const auto& all = parts_to_begin();
    const double half = room.width() / 2, top = page.y();
    const size_t rows = (all.size() + 1) / 2;
    const double row_step = std::min(52.0, (room.bottom() - top - 30) / static_cast<double>(rows));
    for (size_t i = 0; i < all.size(); ++i) {
        const QPointF at(room.left() + (i >= rows ? half : 0), top + 24 + row_step * static_cast<double>(i % rows));
        write(painter, type(Type::text, true), t.steel, at, QString(QChar('A' + static_cast<char>(i))));
        // As it begins: what has a shape of its own is drawn.
        DerivedCard shape;
        if (const auto* turned = std::get_if<TurnedShape>(&all[i].is)) shape.turned = *turned;
        if (const auto* flat = std::get_if<FlatShape>(&all[i].is)) {
            FlatShapeInput in;
            in.shape = *flat;
            shape.flat = solid_of(in, flat_shape(in));
        }
        if (shape.turned || shape.flat) paint_small(painter, QRectF(at.x() + 24, at.y() - 22, 60, 30), shape, t.ink, false);
        write(painter, type(Type::text), t.blued, at + QPointF(98, 0), elided(type(Type::text), words(all[i].words), half - 108));
        place({"begin:" + words(all[i].id), QRectF(at.x() - 4, at.y() - 19, half - 10, 28), [this, i] { begin(parts_to_begin()[i]); },
               words(all[i].words)});
    }
}

void MakeStation::paint_part(QPainter& painter, const DerivedCard& part, const QRectF& row) {
    const Theme& t = inks(painter);
    const bool waits = !derived().can_begin(part);
    if (&part == card()) {
        painter.setPen(QPen(t.blued, 1.4));
        painter.setBrush(t.sheet);
        painter.drawRoundedRect(row, 4, 4);
    }
    paint_small(painter, QRectF(row.left() + 14, row.top() + 4, 50, row.height() - 8), part, part.finished() ? t.verdigris : t.ink, waits);
    const double x = row.left() + 74, room = row.right() - x - 6;
    const QFont font = type_to_fit(Type::text, false, words(part.name), room);
    write(painter, font, t.ink, {x, row.center().y() - 3}, elided(font, words(part.name), room));
    const auto done = std::count_if(part.steps.begin(), part.steps.end(), [](const CardStep& step) { return step.done; });
    const bool wrong = std::any_of(part.steps.begin(), part.steps.end(), [](const CardStep& step) { return !step.right; });
    const CardStep* first = part.next();
    const QString state = part.finished()  ? words("done")
                          : first->forbids ? words("not to be cut yet")
                          : waits          ? words("waits for what it is joined to")
                                           : words("%1 of %2 steps").arg(done).arg(part.steps.size());
    write(painter, type(Type::note),
          wrong             ? t.ruby
          : part.finished() ? t.verdigris
                            : t.steel,
          {x, row.center().y() + 15}, elided(type(Type::note), wrong ? words("a size is out") : state, room));
    place({"card:" + words(part.id), row, [this, id = part.id] { choose_card(id); }, words(part.because)});
}

void MakeStation::paint_unplanned(QPainter& painter, const BegunPart& part, const QRectF& row) {
    const Theme& t = inks(painter);
    const std::string id = "begun:" + part.id;
    if (m_chosen == id) {
        painter.setPen(QPen(t.blued, 1.4));
        painter.setBrush(t.sheet);
        painter.drawRoundedRect(row, 4, 4);
    }
    const double x = row.left() + 74, room = row.right() - x - 6;
    write(painter, type(Type::text), t.ink, {x, row.center().y() - 3}, elided(type(Type::text), words(part.name), room));
    write(painter, type(Type::note), t.amber, {x, row.center().y() + 15}, words("wants a size"));
    place({"card:" + words(id), row, [this, id] { choose_card(id); }, words(derived().faults.at(part.id))});
}

void MakeStation::paint_parts(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    painter.save();
    Column page(painter, room.adjusted(14, 14, -8, 4000));
    page.section(words("PARTS TO MAKE"), words("in their order"));
    constexpr double foot = 34;
    const QRectF list(room.left(), page.y() + 2, room.width(), room.bottom() - foot - page.y());
    painter.setClipRect(list);
    std::map<std::string, QRectF> rows;
    auto next_row = [&, y = page.y() + 6 - m_scrolled]() mutable {
        const QRectF row(room.left() + 8, y, room.width() - 16, row_high);
        y += row_high + 4;
        m_long = y + m_scrolled + 60;
        return row;
    };
    // What waits for what: a line up to the part that comes before.
    for (const DerivedCard& part : cards()) {
        const QRectF row = rows[part.id] = next_row();
        painter.setPen(QPen(t.steel, 1));
        painter.setBrush(Qt::NoBrush);
        for (const std::string& before : part.waits_for) {
            const auto at = rows.find(before);
            if (at == rows.end()) continue;
            const double x = row.left() + 5, from = row.center().y(), to = at->second.center().y() + 3;
            painter.drawPolyline(QPolygonF() << QPointF(x + 8, from) << QPointF(x, from) << QPointF(x, to) << QPointF(x + 8, to));
        }
        // What has no room for its words is scrolled to.
        if (list.contains(row)) paint_part(painter, part, row);
    }
    for (const BegunPart& part : record().begun)
        if (derived().faults.contains(part.id))
            if (const QRectF row = next_row(); list.contains(row)) paint_unplanned(painter, part, row);
    painter.restore();
    Flow flow(painter, QRectF(room.left() + 16, 0, room.width() - 20, height()), room.bottom() - 10, 14);
    place({"make:begin", flow.say(words("begin a part"), t.blued, Type::text), [this] { act_on("make.begin"); },
           words("stud, foot, hand, door, pipes, holes: by its sizes")});
}

void MakeStation::paint_ways(Column& page, const DerivedCard& part) {
    const Theme& t = page.inks();
    for (const TeethWay& way : part.ways) {
        const bool chosen = way.way == part.way;
        const QString figures = way.possible ? words("keeps %1 % of the rim, about %2 min")
                                                   .arg(words(print_fixed(way.keeps_percent, 0)), words(print_fixed(way.minutes, 0)))
                                             : words(way.reason);
        const QRectF at = page.line((chosen ? words("● %1: ") : words("○ %1: ")).arg(words(way.way)) + figures, chosen ? t.ink : t.steel,
                                    Type::note, chosen);
        const std::string wheel = part.id.substr(part.id.find(':') + 1);
        if (way.possible && !chosen)
            place({"way:" + words(way.way), at, [this, wheel, id = way.way] { choose(wheel, id); }, words(way.reason)});
    }
}

void MakeStation::paint_step(QPainter& painter, const QRectF& room, const DerivedCard& part) {
    const Theme& t = inks(painter);
    Column page(painter, room);
    page.section(words(part.name).toUpper());
    page.says(words(part.because), t.steel);
    if (!m_large) paint_ways(page, part);
    const CardStep* next = part.next();
    if (!next) {
        page.line(words("Done, to its last check."), t.verdigris, Type::great, true);
        paint_large(painter, QRectF(room.left(), page.y() + 6, room.width(), room.bottom() - page.y() - 12), part, m_document.job().length);
        return;
    }
    page.gap(6);
    if (next->forbids)
        page.remark(words("Not to be cut yet. Type the reading into the line below; or overrule it, with a reason (S)."), t.amber),
            page.gap(4);
    page.says(words(next->words), t.ink, m_large ? Type::great : Type::head, true);
    if (next->size && !next->asks) {
        const CardSize& size = *next->size;
        page.gap(4);
        const QString symbol = words(m_document.job().length.symbol);
        if (size.only_limit()) {
            page.line(words("%1 %2 at most").arg(length(size.max_mm), symbol), t.blued, Type::great, true);
            page.says(words(size.because), t.steel, Type::text);
        } else {
            page.line(words("%1 %2").arg(length(size.nominal_mm), symbol), t.blued, Type::great, true);
            page.says(words("%1 to %2 %3 is right, %4").arg(length(size.min_mm), length(size.max_mm), symbol, words(size.because)), t.steel,
                      Type::text);
        }
    }
    QStringList how;
    if (next->id == "take" && part.stock) how << words(part.stock->verdict);
    if (!next->tool.empty()) how << words(next->tool);
    if (next->rpm)
        how << (next->feed_mm
                    ? words("%1 turns a minute, %2 mm a turn").arg(words(print_fixed(*next->rpm, 0)), words(print_fixed(*next->feed_mm, 3)))
                    : words("%1 turns a minute").arg(words(print_fixed(*next->rpm, 0))));
    constexpr double warm_C = 60;
    if (next->heat_C > warm_C) how << words("up to %1 °C").arg(words(print_fixed(next->heat_C, 0)));
    how << words("about %1 min").arg(words(print_fixed(next->minutes, 0)));
    page.says(how.join("  ·  "), t.ink, Type::text);
    if (!next->short_of.empty()) page.says(words("Not in the drawers: %1").arg(words(next->short_of)), t.amber, Type::text);
    if (!next->check.empty()) page.says(words(next->check), t.steel, Type::text);
    if (const HeatBorne* spoilt = part.spoilt_by(*next))
        page.remark(
            words("So hot a step spoils what is there: %1 at %2 °C.").arg(words(spoilt->what), words(print_fixed(spoilt->bears_C, 0))),
            t.ruby);
    if (next->id == "join")
        for (const JointWay& way : part.joints)
            page.says(words("%1: %2").arg(words(way.way), words(way.reason)), way.possible ? t.ink : t.steel);
    if (!next->caution.empty()) {
        page.gap(4);
        page.remark(words(next->caution), t.amber);
    }
    for (const CardStep& step : part.steps)
        if (!step.right)
            page.gap(4),
                page.remark(words("%1: %2 %3. %4")
                                .arg(words(step.words), length(*step.read_mm), words(m_document.job().length.symbol), words(step.verdict)),
                            t.ruby);
    if (!m_large)
        for (const std::string& note : part.notes)
            if (page.holds(200)) page.says(words(note), t.steel);
    page.gap(6);
    QStringList keys = {"make.done", "make.back", "make.sheets", "make.large"};
    if (next->divides)
        keys << "make.spoilt"
             << "make.skip";
    if (!part.ways.empty()) keys << "make.way";
    page.says(legend(keys), t.steel);
    constexpr double least_high = 110;
    if (!page.holds(least_high)) return;
    const QRectF below(room.left(), page.y() + 6, room.width(), room.bottom() - page.y() - 12);
    if (next->divides) paint_dividing(painter, below, part);
    else paint_drawing(painter, below, part);
}

/// Large, with what can be typed of it where it is, the rest in a column beside it.
void MakeStation::paint_drawing(QPainter& painter, const QRectF& room, const DerivedCard& part) {
    const DrawnSizes drawn = sizes();
    constexpr double column = 176, least_wide = 380;
    if (drawn.empty() || room.width() < least_wide) return paint_large(painter, room, part, m_document.job().length);
    Dimensions dimensions(painter, drawn, asked_size());
    const QRectF picture = room.adjusted(0, 0, -column, 0);
    paint_large(painter, picture, part, m_document.job().length, &dimensions);
    dimensions.rest();
    dimensions.lay_out({picture.right() + 12, picture.top() + 4, column - 12, picture.height() - 8});
    place_sizes(painter, dimensions);
}

/// The teeth in a ring, cut ones filled, and what the crank does next.
void MakeStation::paint_dividing(QPainter& painter, const QRectF& room, const DerivedCard& part) {
    const Theme& t = inks(painter);
    const auto teeth = static_cast<long long>(part.table->rows.size());
    const double r = std::min(room.height(), 0.46 * room.width()) / 2 - 14;
    const QPointF middle(room.left() + r + 16, room.center().y());
    std::set<long long> cut, spoilt;
    for (const CardTick& tick : part.ticks) (tick.spoilt ? spoilt : cut).insert(tick.tooth);
    const long long now = tooth_now().value_or(0);
    const double each = 360.0 / static_cast<double>(teeth), dot = std::min(9.0, pi * r / static_cast<double>(teeth) * 0.8);
    for (long long tooth = 1; tooth <= teeth; ++tooth) {
        const QPointF at = on(middle, r, 90 - each * static_cast<double>(tooth - 1));
        const bool is_cut = cut.contains(tooth);
        painter.setPen(QPen(spoilt.contains(tooth) && !is_cut ? t.ruby : is_cut ? t.verdigris : t.steel, tooth == now ? 2 : 1));
        painter.setBrush(is_cut ? QBrush(t.verdigris) : tooth == now ? QBrush(t.blued) : QBrush(Qt::NoBrush));
        painter.drawEllipse(at, tooth == now ? dot + 3 : dot, tooth == now ? dot + 3 : dot);
    }
    write(painter, type(Type::great, true), t.ink, middle + QPointF(0, 6), QString::number(now), 0);
    write(painter, type(Type::note), t.steel, middle + QPointF(0, 24), words("of %1").arg(teeth), 0);
    if (now == 0) return;
    const DividingRow& row = part.table->rows[static_cast<size_t>(now - 1)];
    Column page(painter, QRectF(middle.x() + r + 34, middle.y() - 58, room.right() - middle.x() - r - 40, 140));
    page.line(words("tooth %1").arg(now), t.steel, Type::figure);
    if (part.table->circle > 0) {
        page.gap(12);
        page.line(move_in_words(row), t.blued, Type::great, true);
        // Two circles of one plate: the second move is made with the plate let go, before the tooth is cut.
        if (const auto second = part.table->second_circle; second && now > 1)
            page.says((part.table->second_holes < 0 ? words("plate %1 back, of %2") : words("plate %1 on, of %2"))
                          .arg(std::abs(part.table->second_holes))
                          .arg(*second),
                      t.blued, Type::figure, true);
        page.line(words("pin in hole %1 of %2").arg(row.hole).arg(part.table->circle), t.ink, Type::figure);
    }
    page.says(words(part.table->verdict), t.steel);
}

void MakeStation::paint_steps(QPainter& painter, const QRectF& room, const DerivedCard& part) {
    Column page(painter, room);
    page.section(words("FROM STOCK TO FITTED"), words("%1 min left").arg(words(print_fixed(part.minutes_left, 0))));
    // The step that is next stays in sight.
    const auto next =
        std::find_if(part.steps.begin(), part.steps.end(), [](const CardStep& step) { return !step.done; }) - part.steps.begin();
    constexpr std::ptrdiff_t before_it = 6;
    const std::ptrdiff_t first =
        part.steps.size() > 14 ? std::clamp<std::ptrdiff_t>(next - before_it, 0, static_cast<std::ptrdiff_t>(part.steps.size()) - 12) : 0;
    for (size_t i = static_cast<size_t>(first); i < part.steps.size(); ++i) {
        const CardStep& step = part.steps[i];
        if (!page.holds(34)) break;
        QString line = words(step.words);
        if (step.read_mm) line += words(", read %1").arg(length(*step.read_mm));
        else if (step.divides && part.table) line += words(", %1 of %2").arg(part.cut()).arg(part.table->rows.size());
        page.step(line, step.done ? Column::Tick::done : Column::Tick::open, &step == part.next());
    }
}

void MakeStation::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.ground);
    const DerivedCard* now = card();
    if (m_show == Show::beginning) return paint_begin(painter, QRectF(32, 30, width() - 64, height() - 40));
    if (!now && record().begun.empty()) return paint_nothing(painter);
    if (m_large && now) return paint_step(painter, QRectF(32, 24, width() - 64, height() - 40), *now);
    const double left = left_px(), right = right_px();
    if (left > 0) {
        paint_parts(painter, QRectF(0, 0, left, height()));
        painter.setPen(QPen(t.steel, 0.6));
        painter.drawLine(QPointF(left, 14), QPointF(left, height() - 14));
    }
    const QRectF middle(left + 18, 14, right - left - 30, height() - 24);
    if (!now) {
        Column page(painter, middle);
        page.head(words("It wants a size"), t.ink);
        const auto fault = derived().faults.find(begun_of(record(), m_chosen));
        if (fault != derived().faults.end()) page.says(words(fault->second), t.amber, Type::text);
        page.says(words("Type it here, or into the line below."), t.steel, Type::text);
        list_sizes(painter, {page.left(), page.y() + 12, 260, height() - page.y() - 40});
        return;
    }
    paint_step(painter, middle, *now);
    if (m_show != Show::sheets && width() > roomy) paint_steps(painter, QRectF(right, 14, SumCard::wide - 6, height() - 24), *now);
}

}  // namespace echappe
