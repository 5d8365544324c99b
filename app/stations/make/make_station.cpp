#include "stations/make/make_station.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <set>

#include "document/today.h"
#include "drawing/words.h"
#include "number/units.h"
#include "sheet/column.h"
#include "sheet/marks.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double parts_wide = 262, steps_wide = 300;
constexpr double roomy = 900;  // narrower, the list of steps goes below

QPointF on(QPointF middle, double r, double deg) {
    return middle + r * QPointF(std::cos(deg * std::numbers::pi / 180), -std::sin(deg * std::numbers::pi / 180));
}

QString move_in_words(const DividingRow& row) {
    QStringList parts;
    if (row.turns > 0) parts << (row.turns == 1 ? QObject::tr("1 turn") : QObject::tr("%1 turns").arg(row.turns));
    if (row.holes > 0) parts << (row.holes == 1 ? QObject::tr("1 hole") : QObject::tr("%1 holes").arg(row.holes));
    return parts.isEmpty() ? QObject::tr("where it stands") : parts.join(QObject::tr(" and "));
}

}  // namespace

MakeStation::MakeStation(const Workbench& bench)
    : Station(bench.document, nullptr), m_line(bench.line), m_round(bench.document, [this] { return card(); }) {
    setAccessibleName(tr("Make"));
    connect(&m_document, &Document::changed, this, qOverload<>(&QWidget::update));
}

const DerivedCard* MakeStation::card() const {
    if (const DerivedCard* chosen = m_document.derived().cards.card(m_card)) return chosen;
    return cards().empty() ? nullptr : &cards().front();
}

void MakeStation::choose_card(const std::string& id) {
    m_card = id;
    // The same round asks something else now.
    if (isVisible()) m_line.take(m_round);
    update();
}

void MakeStation::go(int by) {
    if (cards().empty()) return;
    const auto count = static_cast<std::ptrdiff_t>(cards().size());
    const std::ptrdiff_t now = card() - cards().data();
    choose_card(cards()[static_cast<size_t>((now + by + count) % count)].id);
}

void MakeStation::go_on() {
    const DerivedCard* now = card();
    const CardStep* next = now ? now->next() : nullptr;
    if (!next) return;
    if (next->divides) {
        if (const auto tooth = now->next_tooth()) m_document.edit(tick_tooth(now->id, *tooth));
        return;
    }
    if (next->reads) return emit told(tr("This step ends with a reading: type it into the line."), true);
    m_document.edit(end_step(now->id, next->id, {}, today()));
}

void MakeStation::go_back() {
    const DerivedCard* now = card();
    if (!now) return;
    const CardStep* next = now->next();
    // Within the table the last tooth, else the last step.
    const bool in_table = next && next->divides && !now->ticks.empty();
    if (in_table) m_document.edit(untick_tooth(now->id));
    else m_document.edit(take_back(now->id));
}

void MakeStation::spoil() {
    const DerivedCard* now = card();
    const CardStep* next = now ? now->next() : nullptr;
    if (!next || !next->divides) return;
    const long long tooth = *now->next_tooth();
    m_document.edit(tick_tooth(now->id, tooth, true));
    emit told(
        tr("Cut in the wrong place, beside tooth %1: fill it with a let-in piece if it stands alone, or take the next blank. Go back to "
           "the first hole and count up before the next cut.")
            .arg(tooth),
        true);
}

QList<Action> MakeStation::make_actions() {
    const auto some = [this] { return card() != nullptr; };
    const auto cutting = [this] { return card() && card()->next() && card()->next()->divides; };
    return {{"make.done",
             tr("On: the step is done, or the tooth is cut"),
             {Qt::Key_Return, Qt::Key_Enter},
             [this] { go_on(); },
             {},
             tr("on"),
             some},
            {"make.back", tr("Back: the last step or tooth is open again"), {Qt::Key_B}, [this] { go_back(); }, {}, tr("back"), some},
            {"make.spoilt", tr("Cut in the wrong place"), {Qt::Key_X}, [this] { spoil(); }, {}, tr("cut in the wrong place"), cutting},
            {"make.next", tr("The next part"), {Qt::Key_Down, Qt::Key_Right}, [this] { go(1); }, {}, {}, some},
            {"make.before", tr("The part before"), {Qt::Key_Up, Qt::Key_Left}, [this] { go(-1); }, {}, {}, some},
            {"make.large",
             tr("One step fills the picture, to be read from afar"),
             {Qt::Key_F},
             [this] {
                 m_large = !m_large;
                 update();
             },
             {},
             tr("large"),
             some}};
}

std::vector<Scene> MakeStation::scenes() {
    const auto cut = [this] {
        choose_card("ring:tide-1.wheel");
        const auto as_drawn = [this](const char* step) {
            if (const DerivedCard* now = m_document.derived().cards.card("ring:tide-1.wheel"); now && now->step(step))
                m_document.edit(end_step(now->id, step, now->step(step)->size->nominal_mm, "2026-11-30"));
        };
        as_drawn("rim"), as_drawn("seat"), as_drawn("ring");
        for (const char* step : {"ring-outside", "join"}) m_document.edit(end_step("ring:tide-1.wheel", step, {}, "2026-11-30"));
        as_drawn("outside");
        for (const char* step : {"depth", "trial"}) m_document.edit(end_step("ring:tide-1.wheel", step, {}, "2026-11-30"));
        constexpr long long cut_so_far = 27;
        for (long long tooth = 1; tooth <= cut_so_far; ++tooth) m_document.edit(tick_tooth("ring:tide-1.wheel", tooth));
    };
    return {{"make-dividing", "tide-house", cut}};
}

QString MakeStation::length(double mm) const {
    const LengthUnit& unit = m_document.job().length;
    return words(unit.write(mm, unit.toothed(), false));
}

void MakeStation::paint_nothing(QPainter& painter) {
    const Theme& t = theme();
    Column page(painter, QRectF(22, 40, 560, 300));
    page.head(tr("Nothing to make yet"), t.ink);
    page.says(
        tr("Parts come here by themselves: a lost count that is chosen at the Train, a hole that is to be bushed, a wheel that the Survey "
           "found with missing or worn teeth."),
        t.steel, Type::text);
}

double MakeStation::paint_part(QPainter& painter, const DerivedCard& part, double y, double px_per_mm, double wide) {
    const Theme& t = theme();
    const bool chosen = &part == card(), waits = !m_document.derived().cards.can_begin(part);
    const double r = std::clamp(part.outside_mm / 2 * px_per_mm, 7.0, 26.0), high = std::max(2 * r + 12, 54.0);
    const QRectF row(8, y, wide - 16, high);
    if (chosen) {
        painter.setPen(QPen(t.blued, 1.4));
        painter.setBrush(t.sheet);
        painter.drawRoundedRect(row, 4, 4);
    }
    const QPointF middle(row.left() + 38, row.center().y());
    const bool steel = part.kind == "pinion";
    painter.setPen(QPen(part.finished() ? t.verdigris : steel ? t.ink : t.brass, 1.4, waits ? Qt::DashLine : Qt::SolidLine));
    painter.setBrush(steel ? t.steel : t.pale_brass);
    painter.drawEllipse(middle, r, r);
    if (part.kind == "ring" || part.kind == "bush") {
        painter.setBrush(t.ground);
        painter.drawEllipse(middle, 0.72 * r, 0.72 * r);
    }
    const double x = row.left() + 76, room = row.right() - x - 6;
    const QFont font = type_to_fit(Type::text, chosen, words(part.name), room);
    write(painter, font, t.ink, {x, row.center().y() - 3}, elided(font, words(part.name), room));
    const auto done = std::count_if(part.steps.begin(), part.steps.end(), [](const CardStep& step) { return step.done; });
    const QString state = part.finished() ? tr("done")
                          : waits         ? tr("waits for another part")
                                          : tr("%1 of %2 steps").arg(done).arg(part.steps.size());
    write(painter, type(Type::note), part.finished() ? t.verdigris : t.steel, {x, row.center().y() + 15},
          elided(type(Type::note), state, room));
    place({"card:" + words(part.id), row, [this, id = part.id] { choose_card(id); }, words(part.because)});
    return high + 6;
}

void MakeStation::paint_parts(QPainter& painter, const QRectF& room) {
    Column page(painter, room.adjusted(14, 14, -8, 0));
    page.section(tr("PARTS TO MAKE"), tr("in their order"));
    double largest = 1;
    for (const DerivedCard& part : cards()) largest = std::max(largest, part.outside_mm);
    double y = page.y() + 6;
    for (const DerivedCard& part : cards()) {
        if (y > room.bottom() - 50) break;
        y += paint_part(painter, part, y, 52 / largest, room.width());
    }
}

void MakeStation::paint_step(QPainter& painter, const QRectF& room, const DerivedCard& part) {
    const Theme& t = theme();
    Column page(painter, room);
    page.section(words(part.name).toUpper());
    page.says(words(part.because), t.steel);
    const CardStep* next = part.next();
    if (!next) {
        page.line(tr("Done, to its last check."), t.verdigris, Type::great, true);
        return;
    }
    page.gap(6);
    page.says(words(next->words), t.ink, m_large ? Type::great : Type::head, true);
    if (next->size) {
        const CardSize& size = *next->size;
        page.gap(4);
        const QString symbol = words(m_document.job().length.symbol);
        page.line(tr("%1 %2").arg(length(size.nominal_mm), symbol), t.blued, Type::great, true);
        page.line(tr("%1 to %2 %3 is right, %4").arg(length(size.min_mm), length(size.max_mm), symbol, words(size.because)), t.steel,
                  Type::text);
    }
    QStringList how;
    if (!next->tool.empty()) how << words(next->tool);
    if (next->rpm) how << tr("%1 turns a minute").arg(words(print_fixed(*next->rpm, 0)));
    if (!how.isEmpty()) page.says(how.join("  ·  "), t.ink, Type::text);
    if (!next->check.empty()) page.says(words(next->check), t.steel, Type::text);
    if (!next->caution.empty()) {
        page.gap(4);
        page.remark(words(next->caution), t.amber);
    }
    for (const CardStep& step : part.steps)
        if (!step.right)
            page.gap(4), page.remark(words(step.words + ": " + print_fixed(*step.read_mm, 2) + " mm. " + step.verdict), t.ruby);
    page.gap(6);
    page.line(legend({"make.done", "make.back", "make.spoilt", "make.large"}), t.steel);
    constexpr double least_high = 120;
    if (!page.holds(least_high)) return;
    const QRectF below(room.left(), page.y() + 6, room.width(), room.bottom() - page.y() - 12);
    if (next->divides) paint_dividing(painter, below, part);
    else paint_drawing(painter, below, part);
}

/// The teeth in a ring, cut ones filled, and what the crank does next.
void MakeStation::paint_dividing(QPainter& painter, const QRectF& room, const DerivedCard& part) {
    const Theme& t = theme();
    const auto teeth = static_cast<long long>(part.table->rows.size());
    const double r = std::min(room.height(), 0.46 * room.width()) / 2 - 14;
    const QPointF middle(room.left() + r + 16, room.center().y());
    std::set<long long> cut, spoilt;
    for (const CardTick& tick : part.ticks) (tick.spoilt ? spoilt : cut).insert(tick.tooth);
    const long long now = part.next_tooth().value_or(0);
    const double each = 360.0 / static_cast<double>(teeth), dot = std::min(9.0, std::numbers::pi * r / static_cast<double>(teeth) * 0.8);
    for (long long tooth = 1; tooth <= teeth; ++tooth) {
        const QPointF at = on(middle, r, 90 - each * static_cast<double>(tooth - 1));
        const bool is_cut = cut.contains(tooth);
        painter.setPen(QPen(spoilt.contains(tooth) && !is_cut ? t.ruby : is_cut ? t.verdigris : t.steel, tooth == now ? 2 : 1));
        painter.setBrush(is_cut ? QBrush(t.verdigris) : tooth == now ? QBrush(t.blued) : QBrush(Qt::NoBrush));
        painter.drawEllipse(at, tooth == now ? dot + 3 : dot, tooth == now ? dot + 3 : dot);
    }
    write(painter, type(Type::great, true), t.ink, middle + QPointF(0, 6), QString::number(now), 0);
    write(painter, type(Type::note), t.steel, middle + QPointF(0, 24), tr("of %1").arg(teeth), 0);
    if (now == 0) return;
    const DividingRow& row = part.table->rows[static_cast<size_t>(now - 1)];
    Column page(painter, QRectF(middle.x() + r + 34, middle.y() - 58, room.right() - middle.x() - r - 40, 140));
    page.line(tr("tooth %1").arg(now), t.steel, Type::figure);
    if (part.table->circle > 0) {
        page.gap(12);
        page.line(move_in_words(row), t.blued, Type::great, true);
        page.line(tr("pin in hole %1 of %2").arg(row.hole).arg(part.table->circle), t.ink, Type::figure);
    }
    page.says(words(part.table->verdict), t.steel);
}

void MakeStation::paint_drawing(QPainter& painter, const QRectF& room, const DerivedCard& part) {
    const Theme& t = theme();
    // Steps that make a diameter of the part itself.
    static const std::set<std::string> diameters = {"blank", "bore", "outside", "rim", "seat", "ring", "ring-outside", "ream", "broach"};
    const CardStep* next = part.next();
    double largest = 0;
    for (const CardStep& step : part.steps)
        if (step.size && diameters.contains(step.id)) largest = std::max(largest, step.read_mm.value_or(step.size->nominal_mm));
    if (largest <= 0) return;
    const double px = (std::min(room.height(), 0.7 * room.width()) - 24) / largest;
    const QPointF middle(room.left() + largest / 2 * px + 12, room.center().y());
    const auto circle = [&](double diameter, const QPen& pen) {
        painter.setPen(pen);
        painter.drawEllipse(middle, diameter / 2 * px, diameter / 2 * px);
    };
    painter.setBrush(Qt::NoBrush);
    for (const CardStep& step : part.steps) {
        if (!step.size || !diameters.contains(step.id) || &step == next) continue;
        const double diameter = step.read_mm.value_or(step.size->nominal_mm);
        circle(diameter, step.done ? QPen(t.verdigris, 1.4) : QPen(t.steel, 0.8, Qt::DashLine));
    }
    cross(painter, middle, 7, QPen(t.ink, 1));
    const bool of_now = next->size && diameters.contains(next->id);
    if (of_now) {
        const double r = next->size->nominal_mm / 2 * px;
        circle(next->size->nominal_mm, QPen(t.blued, 2.6));
        dimension_line(painter, middle - QPointF(r, 0), middle + QPointF(r, 0), t.blued, 5);
        on_paper(painter, type(Type::figure, true), t.blued, middle + QPointF(0, -9), length(next->size->nominal_mm));
    } else if (next->id == "depth" && next->size) {
        // What the cutter takes, from the outside in.
        const double outside = part.step("outside")->read_mm.value_or(part.step("outside")->size->nominal_mm);
        circle(outside - 2 * next->size->nominal_mm, QPen(t.blued, 2.6));
        on_paper(painter, type(Type::figure, true), t.blued, middle + QPointF(0, -9), tr("%1 deep").arg(length(next->size->nominal_mm)));
    }
    scale_bar(painter, {room.right() - 120, room.bottom() - 8}, px, 90);
}

void MakeStation::paint_steps(QPainter& painter, const QRectF& room, const DerivedCard& part) {
    Column page(painter, room);
    page.section(tr("FROM STOCK TO FITTED"));
    for (const CardStep& step : part.steps) {
        if (!page.holds(24)) break;
        const bool now = &step == part.next();
        QString line = words(step.words);
        if (step.read_mm) line += tr(", read %1").arg(length(*step.read_mm));
        else if (step.divides && part.table) line += tr(", %1 of %2").arg(part.cut()).arg(part.table->rows.size());
        page.step(line, step.done ? Column::Tick::done : Column::Tick::open, now);
    }
}

void MakeStation::paint(QPainter& painter) {
    const Theme& t = theme();
    painter.fillRect(rect(), t.ground);
    const DerivedCard* now = card();
    if (!now) return paint_nothing(painter);
    if (m_large) return paint_step(painter, QRectF(32, 24, width() - 64, height() - 40), *now);
    paint_parts(painter, QRectF(0, 0, parts_wide, height()));
    painter.setPen(QPen(t.steel, 0.6));
    painter.drawLine(QPointF(parts_wide, 14), QPointF(parts_wide, height() - 14));
    const bool wide = width() > roomy;
    const double right = wide ? width() - steps_wide - 16 : width() - 16;
    paint_step(painter, QRectF(parts_wide + 18, 14, right - parts_wide - 30, height() - 24), *now);
    if (wide) paint_steps(painter, QRectF(right, 14, steps_wide, height() - 24), *now);
}

}  // namespace echappe
