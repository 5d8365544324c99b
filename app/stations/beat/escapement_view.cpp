#include "stations/beat/escapement_view.h"

#include <QMouseEvent>
#include <algorithm>
#include <cmath>

#include "beat/in_beat.h"
#include "document/today.h"
#include "drawing/lettering.h"
#include "drawing/words.h"
#include "escapement/edits.h"
#include "escapement/sheets.h"
#include "number/input_error.h"
#include "number/units.h"
#include "oscillator/swing_typed.h"
#include "sheet/marks.h"
#include "stations/beat/escapement_picture.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double gauge_wide = 108, column_wide = 160;
constexpr double foot_high = 172, narrow_foot_high = 216;  ///< under the picture: the swing, the verdict, what can be done
constexpr double nudge_mm = 0.005;

/// A balance's swing to whole degrees, a pendulum's to hundredths.
QString degrees(double angle_rad) {
    constexpr double wide_deg = 20;
    const double deg = in_degrees(angle_rad);
    return words("%1°").arg(deg, 0, 'f', deg < wide_deg ? 2 : 0);
}

}  // namespace

EscapementView::EscapementView(Document& document, Motion& motion, QWidget* parent) : CardStation(document, {}, parent), m_motion(motion) {
    setAccessibleName(words("Escapement"));
    m_card->set_tabs(tabs());
    connect(&document, &Document::changed, this, [this] {
        m_tried = 0;
        refresh();
    });
    connect(&motion, &Motion::moved, this, [this] {
        if (isVisible()) update_in(picture());
    });
}

void EscapementView::refresh() {
    if (!isVisible()) return;
    m_card->show_part(words("Wheel and pallets"));
    update();
}

DerivedEscapement EscapementView::shown() const {
    return m_tried == 0 ? now() : at_depth(now(), now().depth_mm + middle_moved_mm(m_bridge, m_tried));
}

void EscapementView::try_nearer(double by_mm) {
    if (!now().layout) return;
    m_tried = std::round(by_mm / nudge_mm) * nudge_mm;
    update();
}

void EscapementView::next_bridge() {
    const auto& all = bridges();
    const auto at = std::find(all.begin(), all.end(), m_bridge);
    m_bridge = at + 1 == all.end() ? all.front() : *(at + 1);
    update();
}

void EscapementView::keep() {
    if (m_tried == 0) return emit told(words("Nothing is tried: ← away, → nearer; B says which bridge."), true);
    const auto needed = shown().needed_rad;
    const auto edit = move_pallets(m_bridge, m_tried, today(), needed ? std::optional(in_degrees(*needed)) : std::nullopt);
    m_document.edit(edit);
    emit told(words("Kept: %1. Let it run, and say in the log what came of it.").arg(words(edit.name)), false);
}

void EscapementView::take_seen() {
    const auto cause = now().cause;
    if (!cause) return emit told(words("Nothing is read yet: locks and drops stand under “as seen”."), true);
    m_document.edit(found_as_seen(*cause));
    emit told(words("Stands at %1, by what is seen.").arg(length(cause->depth_mm)), false);
}

QList<Action> EscapementView::make_actions() {
    const auto by = [this](double steps) { return [this, steps] { try_nearer(m_tried + steps * nudge_mm); }; };
    return CardStation::make_actions() +
           QList<Action>{
               {"pallets.away", words("Away from the wheel by 0.005 mm"), {Qt::Key_Left}, by(-1), {}, words("nudge the pallets")},
               {"pallets.nearer", words("Nearer to the wheel by 0.005 mm"), {Qt::Key_Right}, by(1)},
               {"pallets.far-away", words("Away by 0.05 mm"), {Qt::SHIFT | Qt::Key_Left}, by(-10)},
               {"pallets.far-nearer", words("Nearer by 0.05 mm"), {Qt::SHIFT | Qt::Key_Right}, by(10)},
               {"pallets.bridge",
                words("Both bridges, the front one, the back one"),
                {Qt::Key_B},
                [this] { next_bridge(); },
                {},
                words("which bridge")},
               {"pallets.keep", words("Done: keep what was moved"), {Qt::Key_Return}, [this] { keep(); }, {}, words("done")},
               {"pallets.seen", words("Take the depth that is seen"), {Qt::Key_A}, [this] { take_seen(); }, {}, words("depth as seen")},
               {"pallets.nothing", words("Try nothing"), {Qt::Key_Home}, [this] { try_nearer(0); }},
               {"pallets.leave", words("Back to the swing"), {Qt::Key_E, Qt::Key_Escape}, [this] { emit left(); }, {}, words("back")}};
}

/// Where there are none yet they begin with what is typed.
SumCard::Take EscapementView::typed_into_pallets(
    std::function<void(PalletsRecord&, const std::string& field, const std::string& word)> type) const {
    using Pallets = std::optional<PalletsRecord>;
    return SumCard::typed_into_part<Pallets>(m_document, [type](Pallets& there, const std::string& field, const std::string& word) {
        PalletsRecord pallets = there.value_or(PalletsRecord());
        type(pallets, field, word);
        there = pallets;
    });
}

std::vector<std::string> EscapementView::drawn_fields() const {
    std::vector<std::string> fields;
    for (const SumAnswer& sheet : {pallets_layout_sheet(record(), now()), pallets_seen_sheet(record(), now())})
        for (const SumLine& line : sheet.asked)
            if (line.field != "depth_mm" && line.field != "friction" && line.field != "seen_u_deg" && !line.field.ends_with("_word"))
                fields.push_back(line.field);
    return fields;
}

/// The layout first; what is read of lock and drop may stay.
DrawnSizes EscapementView::own_sizes() const {
    if (now().kind.empty()) return {};
    const auto bob_mm = m_document.derived().oscillator.bob_mm();
    const auto take = typed_into_pallets([bob_mm](PalletsRecord& pallets, const std::string& field, const std::string& word) {
        type_with_swings(PalletsRecord::record(), &pallets, field, word, bob_mm);
    });
    std::vector<SumLine> lines = pallets_layout_sheet(record(), now()).asked;
    for (const SumLine& line : pallets_seen_sheet(record(), now()).asked) lines.push_back(line);
    DrawnSizes drawn = drawn_from(lines, drawn_fields(), take);
    static const std::vector<std::string> needed = {"tip_diameter_mm", "lock_deg", "lift_deg", "drop_deg"};
    for (DrawnSize& size : drawn) size.may_stay = std::find(needed.begin(), needed.end(), size.line.field) == needed.end();
    return drawn;
}

std::vector<SumCard::Tab> EscapementView::tabs() {
    const auto bob_mm = [this] { return m_document.derived().oscillator.bob_mm(); };
    const auto typed = [this](auto type) { return typed_into_pallets(type); };
    const auto take = typed([bob_mm](PalletsRecord& pallets, const std::string& field, const std::string& word) {
        type_with_swings(PalletsRecord::record(), &pallets, field, word, bob_mm());
    });
    const auto came = typed([bob_mm](PalletsRecord& pallets, const std::string& field, const std::string& word) {
        const size_t dot = field.find('.');
        type_with_swings(PalletsSetting::record(), &pallets.settings.at(std::stoul(field.substr(0, dot))), field.substr(dot + 1), word,
                         bob_mm());
    });
    const auto bad_teeth = typed(type_into_teeth);
    const auto cut = [typed](auto PalletsRecord::*shape) {
        return typed([shape](PalletsRecord& pallets, const std::string& field, const std::string& word) {
            auto& part = pallets.*shape;
            type_into_record(std::decay_t<decltype(part)>::record(), &part, field, word);
        });
    };
    return {
        {words("layout"), words("Click a figure to type it; empty takes it out."), [this] { return pallets_layout_sheet(record(), now()); },
         take, [this] { return drawn_fields(); }},
        {words("seen"), words("Locks and drops as they are read tell depth and opening. What was not read stays empty."),
         [this] { return pallets_seen_sheet(record(), now()); }, take, [this] { return drawn_fields(); }},
        {words("log"), words("What was moved, and what came of it."), [this] { return pallets_settings_sheet(record()); }, came, {}, true},
        {words("teeth"),
         words("What is not as laid out, and what each tooth does then. Tooth 1 is the first one marked; an empty number takes one out."),
         [this] { return pallets_teeth_sheet(record(), now(), m_document.derived().train.beats_per_hour); },
         bad_teeth,
         {},
         true},
        {words("wheel"), words("To be cut. What is left empty is as usual for its kind; Ctrl+E and Ctrl+P write and print it."),
         [this] { return escape_wheel_sheet(record(), now()); }, cut(&PalletsRecord::wheel)},
        {words("pallets"),
         words("To be cut from the layout. Locks and drops are told before anything is; Ctrl+E and Ctrl+P write and print them."),
         [this] { return pallets_part_sheet(record(), now()); },
         [this, cut](const QString& name, const std::string& field, const std::string& word) {
             if (now().lever_input) cut (&PalletsRecord::lever_body)(name, field, word);
             else cut (&PalletsRecord::body)(name, field, word);
         }}};
}

namespace {
constexpr int pallets_tab = 5;
}

QString EscapementView::part() const {
    if (!now().wheel) return {};
    if (m_card->shown() != pallets_tab) return words("escape wheel");
    return now().lever_input ? words("lever") : now().pallets_input ? words("pallets") : QString();
}

EscapementView::Cut EscapementView::to_cut() const {
    if (part().isEmpty()) throw InputError("export", "wheel and pallets without sizes", "a layout, on the sheet beside the picture");
    if (m_card->shown() == pallets_tab) {
        if (const auto& lever = now().lever_input) {
            const LeverPartResult body = lever_part(*lever);
            return {drawing_of(*lever, body), solid_of(*lever, body), pallets_part_sheet(record(), now())};
        }
        const PalletsPartResult pallets = pallets_part(*now().pallets_input);
        return {drawing_of(*now().pallets_input, pallets), solid_of(*now().pallets_input, pallets), pallets_part_sheet(record(), now())};
    }
    return {drawing_of(now().wheel_input, *now().wheel), solid_of(now().wheel_input, *now().wheel), escape_wheel_sheet(record(), now())};
}

QString EscapementView::length(double mm) const { return words(m_document.job().length.write(mm, m_document.job().length.toothed())); }

QString EscapementView::bridge_words() const {
    return m_bridge == "both" ? words("both bridges") : m_bridge == "front" ? words("front bridge") : words("back bridge");
}

QRectF EscapementView::picture() const {
    constexpr double narrow = 560;
    const double wide = width() - SumCard::wide - gauge_wide - column_wide - 36;
    return {16, 46, wide, height() - 46.0 - (wide < narrow ? narrow_foot_high : foot_high)};
}

/// At rest a tooth is held on the entry.
double EscapementView::period() const {
    constexpr double rest = 0.22;
    if (!m_motion.running() && m_motion.seconds() == 0) return rest;
    return m_motion.seconds() * m_document.derived().train.beats_per_hour.value_or(3600) / 7200;
}

void EscapementView::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.ground);
    Column page(painter, QRectF(18, 14, picture().width(), 30));
    page.section(words("ESCAPE WHEEL AND PALLETS, TO SCALE"));
    page.gap(-4);
    if (!now().layout) return paint_nothing(painter);
    page.line(words("Space runs it, [ and ] slow it down to a hundredth"), t.steel);
    const DerivedEscapement d = shown();
    const QRectF room = picture();
    EscapementPicture drawing(painter, d, room);
    drawing.paint(period());
    const DrawnSizes drawn = sizes();
    Dimensions dimensions(painter, drawn, asked_size());
    drawing.point(dimensions);
    dimensions.rest();
    dimensions.lay_out({room.right() + 12, room.top(), column_wide - 12, height() - room.top() - 16});
    paint_swing(painter, d, QRectF(room.left(), room.bottom() + 8, room.width(), 46));
    write_verdict(painter, d, QRectF(room.left(), room.bottom() + 50, room.width(), height() - room.bottom() - 54));
    paint_gauge(painter, d);
    place_sizes(painter, dimensions);
}

void EscapementView::paint_nothing(QPainter& painter) {
    const Theme& t = inks(painter);
    Column page(painter, QRectF(18, 46, picture().width(), 200));
    if (!now().fault.empty()) {
        page.says(words("There is no such layout: %1.").arg(words(now().fault)), t.ruby, Type::text);
    } else if (now().kind.empty()) {
        page.says(words("Say in the Arbor menu of the escape arbor what lets its wheel go: deadbeat and recoil pallets, levers with "
                        "stones and with pins are drawn and worked out."),
                  t.steel, Type::text);
    } else {
        page.says(words("To be given: %1.").arg(words(now().missing)), t.steel, Type::text);
        page.gap(8);
        page.says(
            words("Lock and lift are turns of the pallets, drop is the wheel's free turn; a protractor on the pallet arbor and on the "
                  "escape arbor reads them."),
            t.steel, Type::text);
        list_sizes(painter, {page.left(), page.y() + 14, 320, height() - page.y() - 40});
    }
}

/// The swing as an arc laid flat: what it needs, and what it has.
void EscapementView::paint_swing(QPainter& painter, const DerivedEscapement& d, const QRectF& room) {
    const Theme& t = inks(painter);
    const double swing = d.drawn_swing_rad;
    const double widest = std::max(swing, d.needed_rad.value_or(0)) * 1.25;
    const double y = room.top() + 16;
    const auto x = [&](double a) { return room.center().x() + a / widest * room.width() / 2; };
    const auto bar = [&](double a, const QColor& ink) {
        painter.setPen(QPen(ink, 6, Qt::SolidLine, Qt::FlatCap));
        painter.drawLine(QPointF(x(-a), y), QPointF(x(a), y));
    };
    bar(widest, t.rule);
    if (d.swing_rad) bar(swing, t.verdigris);
    write(painter, type(Type::note), t.verdigris, {x(-swing), y + 24},
          d.swing_rad ? words("swings %1").arg(degrees(swing)) : words("swing not measured"), 0);
    if (!d.needed_rad) return;
    const double need = *d.needed_rad, off = heard_off_rad(d).value_or(0);
    const QColor ink = !d.swing_rad || swing >= need + std::abs(off) ? t.ink : t.ruby;
    painter.setPen(QPen(ink, 2));
    for (const double side : {off - need, off + need}) painter.drawLine(QPointF(x(side), y - 8), QPointF(x(side), y + 8));
    write(painter, type(Type::note), ink, {x(off + need), y + 24}, words("needs %1").arg(degrees(need)), 0);
    paint_rest(painter, d, {x(0), y});
}

std::optional<double> EscapementView::heard_off_rad(const DerivedEscapement& d) const {
    const Job& job = m_document.job();
    const auto beats_per_hour = m_document.derived().train.beats_per_hour;
    if (!beats_per_hour) return {};
    const double let_off_deg = d.beat.least_rad ? in_degrees(*d.beat.least_rad) : 0;
    const auto off = out_of_beat_deg(job.rate_log, job.oscillator, let_off_deg, *beats_per_hour);
    return off ? std::optional(*off / in_degrees(1)) : std::nullopt;
}

/// Where it hangs or stands at rest, and which way the let-offs' middle lies from there.
void EscapementView::paint_rest(QPainter& painter, const DerivedEscapement& d, QPointF rest) {
    const auto off = heard_off_rad(d);
    if (!off) return;
    const Theme& t = inks(painter);
    painter.setPen(Qt::NoPen);
    painter.setBrush(t.ink);
    painter.drawPolygon(QPolygonF({rest + QPointF(0, -4), rest + QPointF(-5, -13), rest + QPointF(5, -13)}));
    constexpr double in_beat_deg = 0.005;
    const double deg = in_degrees(*off);
    const bool balance = m_document.job().oscillator && m_document.job().oscillator->as<Balance>();
    const QString way = balance   ? (deg > 0 ? words("clockwise") : words("anticlockwise"))
                        : deg > 0 ? words("to the right")
                                  : words("to the left");
    const QString help = balance   ? (deg > 0 ? words("turn the collet anticlockwise") : words("turn the collet clockwise"))
                         : deg > 0 ? words("bend the crutch's foot to the left")
                                   : words("bend the crutch's foot to the right");
    const bool even = std::abs(deg) < in_beat_deg;
    write(painter, type(Type::note), even ? t.verdigris : t.amber, rest + QPointF(11, -6),
          even ? words("in beat, as heard") : words("let-offs %1° %2 of rest: %3").arg(std::abs(deg), 0, 'f', 2).arg(way, help), -1);
}

EscapementView::Gauge EscapementView::gauge(const DerivedEscapement& d) const {
    Gauge gauge;
    gauge.scale = QRectF(picture().right() + column_wide + 60, 62, 16, height() - 96.0);
    double low = std::min(now().depth_mm, d.depth_mm), high = std::max(now().depth_mm, d.depth_mm);
    if (d.window) low = std::min(low, d.window->low_mm), high = std::max(high, d.window->high_mm);
    if (d.cause)
        low = std::min(low, d.cause->depth_mm - d.cause->depth_u_mm), high = std::max(high, d.cause->depth_mm + d.cause->depth_u_mm);
    const double edge = std::max(0.05, (high - low) * 0.18);
    gauge.low_mm = low - edge;
    gauge.high_mm = high + edge;
    return gauge;
}

/// The window of depth, with where the pallets stand, where they would, and where what is seen puts them.
void EscapementView::paint_gauge(QPainter& painter, const DerivedEscapement& d) {
    const Theme& t = inks(painter);
    const Gauge gauge = m_held ? *m_held : this->gauge(d);
    const QRectF& scale = gauge.scale;
    const LengthUnit& unit = m_document.job().length;
    Column page(painter, QRectF(picture().right() + column_wide + 16, 14, gauge_wide, 40));
    page.section(words("DEPTH, %1").arg(words(unit.symbol)));
    painter.fillRect(scale, t.rule);
    if (d.window)
        painter.fillRect(QRectF(QPointF(scale.left(), gauge.y(d.window->low_mm)), QPointF(scale.right(), gauge.y(d.window->high_mm))),
                         t.verdigris);
    constexpr int ticks = 6;
    const double step = round_below((gauge.high_mm - gauge.low_mm) / ticks / unit.unit().base_per_unit) * unit.unit().base_per_unit;
    painter.setPen(QPen(t.steel, 1));
    for (double at = std::ceil(gauge.low_mm / step) * step; at <= gauge.high_mm; at += step) {
        painter.drawLine(QPointF(scale.left() - 5, gauge.y(at)), QPointF(scale.left(), gauge.y(at)));
        write(painter, type(Type::note), t.steel, {scale.left() - 8, gauge.y(at) + 4}, words(unit.write(at, unit.toothed() - 1, false)), 1);
    }
    if (d.cause) {
        const double x = scale.right() + 4;
        painter.setPen(QPen(t.amber, 2));
        painter.drawLine(QPointF(x, gauge.y(d.cause->depth_mm - d.cause->depth_u_mm)),
                         QPointF(x, gauge.y(d.cause->depth_mm + d.cause->depth_u_mm)));
        painter.setBrush(t.amber);
        painter.drawEllipse(QPointF(x, gauge.y(d.cause->depth_mm)), 3, 3);
    }
    const auto mark = [&](double depth, const QColor& ink, const QString& word) {
        painter.setPen(QPen(ink, 2.4));
        painter.drawLine(QPointF(scale.left() - 3, gauge.y(depth)), QPointF(scale.right() + 6, gauge.y(depth)));
        write(painter, type(Type::note, true), ink, {scale.right() + 9, gauge.y(depth) + 4}, word);
    };
    const QString stands = words(unit.write(d.depth_mm, unit.toothed(), false));
    if (m_tried != 0) mark(now().depth_mm, t.steel, words("is"));
    mark(d.depth_mm, m_tried != 0 ? t.blued : t.ink, stands);
    write(painter, type(Type::note), t.steel, {scale.center().x(), scale.top() - 4}, words("shallow"), 0);
    write(painter, type(Type::note), t.steel, {scale.center().x(), scale.bottom() + 16}, words("deep"), 0);
    place({"depth",
           scale.adjusted(-34, 0, 44, 0),
           {},
           words("how much nearer than their layout the pallets stand; drag it, or ← away, → nearer"),
           {}});
}

void EscapementView::drag_to(double y) {
    try_nearer(end_moved_mm(m_bridge, m_held->depth_mm(std::clamp(y, m_held->scale.top(), m_held->scale.bottom())) - now().depth_mm));
}

void EscapementView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    const bool on_gauge = now().layout && event->button() == Qt::LeftButton && place_of("depth").contains(event->position());
    if (!on_gauge) return CardStation::mousePressEvent(event);
    m_held = gauge(shown());
    drag_to(event->position().y());
}

void EscapementView::mouseMoveEvent(QMouseEvent* event) {
    if (!m_held) return CardStation::mouseMoveEvent(event);
    drag_to(event->position().y());
}

void EscapementView::mouseReleaseEvent(QMouseEvent*) {
    m_held.reset();
    update();
}

void EscapementView::write_verdict(QPainter& painter, const DerivedEscapement& d, const QRectF& room) {
    const Theme& t = inks(painter);
    Column page(painter, room);
    page.head(words(d.word), d.beat.state != EscapementState::runs ? t.ruby : d.little_spare ? t.amber : t.verdigris);
    page.says(words(d.verdict), t.ink, Type::text);
    page.gap(2);
    Flow line(painter, page.room(), page.y() + 14, 16);
    place({"bridge", line.say(bridge_words(), t.blued, Type::text), [this] { next_bridge(); }, words("the next: both, front, back"), {}});
    if (m_tried != 0) {
        line.say(words("tried: %1 %2").arg(length(std::abs(m_tried)), m_tried > 0 ? words("nearer") : words("away")), t.blued, Type::text,
                 true);
        place({"keep",
               line.say(words("done: keep it"), t.blued, Type::text, true),
               [this] { keep(); },
               words("Kept in the log of settings"),
               {}});
    }
    page.go_to(line.baseline() + 8);
    page.says(legend({"pallets.away|pallets.nearer", "pallets.bridge", "pallets.keep", "pallets.seen", "pallets.leave"}, " · "), t.steel);
}

}  // namespace echappe
