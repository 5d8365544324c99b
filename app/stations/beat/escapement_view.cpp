#include "stations/beat/escapement_view.h"

#include <QPainterPath>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "document/today.h"
#include "drawing/lettering.h"
#include "drawing/words.h"
#include "number/units.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double rad = std::numbers::pi / 180;
constexpr double gauge_wide = 108;
constexpr double foot_high = 132;
constexpr double nudge_mm = 0.005;

QString degrees(double rad_value, int decimals = 2) { return QString::number(rad_value / rad, 'f', decimals) + QString::fromUtf8("°"); }
QString mm(double value) { return words(print_fixed(value, 3)); }

/// A deadbeat's tooth is undercut, so that only its tip touches; a recoil's stands nearly radial.
QPainterPath wheel_outline(const EscapementAction& action, double px, double tip_rad) {
    QPainterPath path;
    const double foot = action.entry.arc ? -0.17 : -0.06;  // of a pitch from the tip: the acting face's foot
    constexpr double root = 0.79, tip_wide = 0.05, thick = 0.42;
    for (long long i = 0; i < action.teeth; ++i)
        for (const auto& [radius, beside] : {std::pair{root, foot}, {1.0, 0.0}, {1.0, -tip_wide}, {root, foot - thick}}) {
            const double at = tip_rad + (beside - static_cast<double>(i)) * action.pitch_rad();
            const double r = radius * action.radius_mm * px;
            const QPointF point(std::sin(at) * r, -std::cos(at) * r);
            if (path.elementCount() == 0) path.moveTo(point);
            else path.lineTo(point);
        }
    path.closeSubpath();
    return path;
}

}  // namespace

EscapementView::EscapementView(Document& document, Motion& motion, QWidget* parent) : CardStation(document, {}, parent), m_motion(motion) {
    setAccessibleName(tr("Escapement"));
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
    m_card->show_part(tr("Wheel and pallets"));
    update();
}

DerivedEscapement EscapementView::shown() const {
    const double middle = m_bridge == "both" ? m_tried : m_tried / 2;
    return middle == 0 ? now() : at_depth(now(), now().depth_mm + middle);
}

void EscapementView::try_nearer(double by_mm) {
    if (!now().layout) return;
    const double most = now().layout->radius_mm / 8;
    m_tried = std::clamp(std::round(by_mm / nudge_mm) * nudge_mm, -most, most);
    update();
}

void EscapementView::take_seen() {
    const auto& cause = now().cause;
    if (!cause) return emit told(tr("Nothing is read yet: locks and drops stand under “as seen”."), true);
    m_document.edit(tr("Depth as it is seen"), [depth = cause->depth_mm](Job& job) { job.pallets->depth_mm = depth; });
    emit told(tr("Found at %1 mm, by what is seen.").arg(mm(cause->depth_mm)), false);
}

void EscapementView::next_bridge() {
    m_bridge = m_bridge == "both" ? "front" : m_bridge == "front" ? "back" : "both";
    update();
}

void EscapementView::keep() {
    if (m_tried == 0) return emit told(tr("Nothing is tried: ← away, → nearer; B says which bridge."), true);
    PalletsSetting setting;
    setting.date = today();
    setting.bridge = m_bridge;
    setting.nearer_mm = m_tried;
    const QString said = m_tried > 0 ? tr("pallets nearer by %1 mm").arg(mm(m_tried)) : tr("pallets away by %1 mm").arg(mm(-m_tried));
    m_document.edit(said, [&](Job& job) {
        if (!job.pallets) job.pallets.emplace();
        job.pallets->settings.push_back(setting);
    });
    emit told(tr("Kept: %1. Let it run, and say under settings what came of it.").arg(said), false);
}

QList<Action> EscapementView::make_actions() {
    const auto by = [this](double steps) { return [this, steps] { try_nearer(m_tried + steps * nudge_mm); }; };
    return CardStation::make_actions() +
           QList<Action>{{"pallets.away", tr("Away from the wheel by 0.005 mm"), {Qt::Key_Left}, by(-1), {}, tr("nudge the pallets")},
                         {"pallets.nearer", tr("Nearer to the wheel by 0.005 mm"), {Qt::Key_Right}, by(1)},
                         {"pallets.far-away", tr("Away by 0.05 mm"), {Qt::SHIFT | Qt::Key_Left}, by(-10)},
                         {"pallets.far-nearer", tr("Nearer by 0.05 mm"), {Qt::SHIFT | Qt::Key_Right}, by(10)},
                         {"pallets.bridge",
                          tr("Both bridges, the front one, the back one"),
                          {Qt::Key_B},
                          [this] { next_bridge(); },
                          {},
                          tr("which bridge")},
                         {"pallets.keep", tr("Done: keep what was moved"), {Qt::Key_Return}, [this] { keep(); }, {}, tr("done")},
                         {"pallets.seen", tr("Take the depth that is seen"), {Qt::Key_A}, [this] { take_seen(); }, {}, tr("depth as seen")},
                         {"pallets.nothing", tr("Try nothing"), {Qt::Key_Home}, [this] { try_nearer(0); }},
                         {"pallets.leave", tr("Back to the swing"), {Qt::Key_E, Qt::Key_Escape}, [this] { emit left(); }, {}, tr("back")}};
}

std::vector<SumCard::Tab> EscapementView::tabs() {
    const auto take = [](Job& job, const std::string& field, const std::string& word) {
        PalletsRecord pallets = job.pallets.value_or(PalletsRecord());
        type_into_record(PalletsRecord::record(), &pallets, field, word);
        job.pallets = pallets;
    };
    const auto came = [](Job& job, const std::string& field, const std::string& word) {
        const size_t at = std::stoul(field.substr(0, field.find('.')));
        if (!job.pallets || at >= job.pallets->settings.size()) return;
        type_into_record(PalletsSetting::record(), &job.pallets->settings[at], field.substr(field.find('.') + 1), word);
    };
    return {
        {tr("layout"), tr("What is there. A figure is typed where it stands; empty takes it out."), [this] { return layout_sheet(); },
         take},
        {tr("as seen"), tr("Locks and drops as they are read, for depth and opening by them. In degrees; what was not read stays empty."),
         [this] { return seen_sheet(); }, take},
        {tr("settings"), tr("What was moved, and what came of it."), [this] { return settings_sheet(); }, came}};
}

SumAnswer EscapementView::layout_sheet() const {
    SumAnswer answer;
    const PalletsRecord record = m_document.job().pallets.value_or(PalletsRecord());
    std::vector<std::string> fields = {"tip_diameter_mm", "span", "school", "lock_deg", "lift_deg", "drop_deg", "depth_mm", "friction"};
    if (now().kind == "recoil") std::erase_if(fields, [](const std::string& f) { return f == "school" || f == "lock_deg"; });
    answer.asked = lines_of(PalletsRecord::record(), &record, fields);
    if (!now().layout) return answer;
    const DerivedEscapement& d = now();
    const auto found = [&](const char* what, double value, const char* unit, int decimals) {
        answer.found.push_back({what, what, print_fixed(value, decimals), unit, ""});
    };
    found("centre distance now", d.now->centre_mm, "mm", 3);
    if (d.beat.least_rad) found("least swing to each side", *d.beat.least_rad / rad, "deg", 2);
    for (const auto& [name, pallet] : {std::pair{"entry", &d.beat.entry}, {"exit", &d.beat.exit}}) {
        if (!*pallet || d.beat.state == EscapementState::trips || d.beat.state == EscapementState::catches) continue;
        const std::string side = name;
        if (d.kind == "deadbeat") found((side + " lock").c_str(), (*pallet)->lock / rad, "deg", 2);
        found((side + " lift").c_str(), (*pallet)->lift / rad, "deg", 2);
        found((side + " drop").c_str(), (*pallet)->drop / rad, "deg", 2);
    }
    return answer;
}

SumAnswer EscapementView::seen_sheet() const {
    SumAnswer answer;
    const PalletsRecord record = m_document.job().pallets.value_or(PalletsRecord());
    std::vector<std::string> fields = {"seen_entry_lock_deg", "seen_exit_lock_deg", "seen_entry_drop_deg", "seen_exit_drop_deg",
                                       "seen_u_deg"};
    if (now().kind == "recoil") std::erase_if(fields, [](const std::string& f) { return f.find("lock") != std::string::npos; });
    answer.asked = lines_of(PalletsRecord::record(), &record, fields);
    answer.fault = now().cause_fault;
    if (const auto& cause = now().cause) {
        answer.found.push_back({"depth", "depth by what is seen", print_measured(cause->depth_mm, cause->depth_u_mm), "mm", ""});
        answer.found.push_back({"apart", "pallets apart", print_measured(cause->apart_mm, cause->apart_u_mm), "mm", ""});
        answer.found.push_back({"cause", "", cause->verdict, "", ""});
    }
    return answer;
}

SumAnswer EscapementView::settings_sheet() const {
    SumAnswer answer;
    const PalletsRecord record = m_document.job().pallets.value_or(PalletsRecord());
    for (size_t i = 0; i < record.settings.size(); ++i) {
        const PalletsSetting& s = record.settings[i];
        const std::string what =
            s.date + ", " + s.bridge + " " + print_fixed(std::abs(s.nearer_mm), 3) + " mm " + (s.nearer_mm > 0 ? "nearer" : "away");
        answer.asked.push_back({std::to_string(i) + ".swing_deg", what + ": swing after it",
                                s.swing_deg ? print_short(*s.swing_deg, 4) : "", "deg", s.swing_deg ? "job" : "unknown"});
        answer.asked.push_back(
            {std::to_string(i) + ".came_of_it", what + ": what came of it", s.came_of_it, "", s.came_of_it.empty() ? "unknown" : "job"});
    }
    if (record.settings.empty()) answer.found.push_back({"none", "", "Nothing was moved yet.", "", ""});
    return answer;
}

double EscapementView::swing() const {
    const DerivedEscapement& d = now();
    if (d.swing_rad) return *d.swing_rad;
    constexpr double wider = 1.3;  // nobody measured it: a little more than it needs
    return d.beat.least_rad.value_or(2 * rad) * wider;
}

QRectF EscapementView::picture() const { return {16, 46, width() - SumCard::wide - gauge_wide - 36, height() - 46.0 - foot_high}; }

void EscapementView::paint(QPainter& painter) {
    const Theme& t = theme();
    painter.fillRect(rect(), t.ground);
    Column page(painter, QRectF(18, 14, picture().width(), 30));
    page.section(tr("ESCAPE WHEEL AND PALLETS, TO SCALE"));
    page.gap(-4);
    page.line(tr("Space runs it, [ and ] slow it down to a hundredth"), t.steel);
    if (!now().layout) return paint_nothing(painter);
    const DerivedEscapement d = shown();
    const EscapementAction& action = *d.now;
    // From a little under the tips at the pallets' far ends to above the pallet arbor.
    const QRectF room = picture();
    const double low = action.radius_mm * 0.30, high = action.centre_mm + action.radius_mm * 0.12;
    Frame frame;
    frame.px = std::min(room.height() / (high - low), room.width() / (2.1 * action.radius_mm));
    frame.escape = QPointF(room.center().x(), room.bottom() + low * frame.px);
    painter.save();
    painter.setClipRect(room);
    paint_action(painter, d, frame);
    painter.restore();
    paint_swing(painter, d, QRectF(room.left(), room.bottom() + 8, room.width(), 46));
    write_verdict(painter, d, QRectF(room.left(), room.bottom() + 62, room.width(), foot_high - 64));
    paint_gauge(painter, d, QRectF(room.right() + 16, 20, gauge_wide, height() - 40.0));
}

void EscapementView::paint_nothing(QPainter& painter) {
    const Theme& t = theme();
    Column page(painter, QRectF(18, 46, picture().width(), 200));
    if (now().kind.empty())
        return void(page.says(
            tr("Only deadbeat and recoil pallets are drawn and worked out so far. Say which this is in the Arbor menu of its escape "
               "arbor: deadbeat or recoil."),
            t.steel, Type::text));
    page.says(tr("To be given on the right: %1.").arg(words(now().missing)), t.steel, Type::text);
    page.gap(8);
    page.says(tr("Lock and lift are turns of the pallets, drop is the wheel's free turn; a protractor on the pallet arbor and on the "
                 "escape arbor reads them."),
              t.steel, Type::text);
}

void EscapementView::paint_action(QPainter& painter, const DerivedEscapement& d, const Frame& frame) {
    const Theme& t = theme();
    const EscapementAction& action = *d.now;
    double period = 0.25 * (d.kind == "deadbeat" ? 0.9 : 0.8);
    if (m_motion.running() || m_motion.seconds() != 0) {
        const double beats = m_document.derived().train.beats_per_hour.value_or(3600);
        period = m_motion.seconds() * beats / 7200;
    }
    const auto stand = stand_at(action, d.beat, swing(), period);
    paint_wheel(painter, d, frame, stand ? stand->tip_rad : action.pitch_rad() / 4);
    const double pallets = stand ? stand->pallets_rad : d.beat.zero_rad.value_or(0);
    for (const Pallet* pallet : {&action.entry, &action.exit})
        paint_pallet(painter, d, frame, *pallet, pallets, stand && stand->side == pallet->side);
    painter.setPen(QPen(t.ink, 1.4));
    painter.setBrush(t.sheet);
    painter.drawEllipse(frame.at({0, action.centre_mm}), 6, 6);
    if (!stand) return;
    const QPointF tip = frame.at({action.radius_mm * std::sin(stand->tip_rad), action.radius_mm * std::cos(stand->tip_rad)});
    painter.setPen(QPen(stand->drives ? t.verdigris : t.blued, 2));
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(tip, 7, 7);
    if (d.beat.entry) write_pallet(painter, d, frame, action.entry, *d.beat.entry);
    if (d.beat.exit) write_pallet(painter, d, frame, action.exit, *d.beat.exit);
}

void EscapementView::paint_wheel(QPainter& painter, const DerivedEscapement& d, const Frame& frame, double tip_rad) {
    const Theme& t = theme();
    painter.save();
    painter.translate(frame.escape);
    QPainterPath wheel = wheel_outline(*d.now, frame.px, tip_rad);
    const double inside = d.now->radius_mm * 0.66 * frame.px;
    wheel.addEllipse(QPointF(0, 0), inside, inside);
    painter.setPen(QPen(t.brass, 1.2));
    painter.setBrush(t.pale_brass);
    painter.drawPath(wheel);
    painter.restore();
}

/// The face and what it is let into: metal behind it, out to the pallets' arms.
void EscapementView::paint_pallet(QPainter& painter, const DerivedEscapement& d, const Frame& frame, const Pallet& pallet,
                                  double pallets_rad, bool holds) {
    const Theme& t = theme();
    const Vector arbor{0, d.now->centre_mm};
    const auto at = [&](Vector own, double turn) { return frame.at(arbor + turned(own, pallets_rad + turn)); };
    const double thick = pallet.side * 0.34;  // of a turn about the arbor: how far the metal goes back
    QPainterPath body;
    body.moveTo(at(pallet.let_off, 0));
    const Vector out = pallet.arc ? pallet.locking
                                  : Vector{pallet.let_off.x + 1.6 * (pallet.locking.x - pallet.let_off.x),
                                           pallet.let_off.y + 1.6 * (pallet.locking.y - pallet.let_off.y)};
    body.lineTo(at(out, 0));
    constexpr int steps = 12;
    for (int i = 1; i <= steps; ++i) body.lineTo(at(out, thick * i / steps));
    for (int i = steps; i >= 0; --i) body.lineTo(at(pallet.let_off, thick * i / steps));
    body.closeSubpath();
    // The arm goes to the middle of the metal's far end.
    const Vector end = turned({(out.x + pallet.let_off.x) / 2, (out.y + pallet.let_off.y) / 2}, thick * 0.9);
    const double arm = 0.11 * d.now->radius_mm * frame.px;
    for (const auto& [ink, wide] : {std::pair{t.ink, arm + 2}, {t.steel, arm}}) {
        painter.setPen(QPen(ink, wide, Qt::SolidLine, Qt::RoundCap));
        painter.drawLine(frame.at(arbor), at(end, 0));
    }
    painter.setPen(QPen(t.ink, 1));
    painter.setBrush(t.steel);
    painter.drawPath(body);
    painter.setPen(QPen(holds ? t.blued : t.ink, holds ? 3 : 2));
    painter.drawLine(at(pallet.let_off, 0), at(pallet.arc ? pallet.locking : out, 0));
}

/// Lock, lift and drop beside the pallet they are of.
void EscapementView::write_pallet(QPainter& painter, const DerivedEscapement& d, const Frame& frame, const Pallet& pallet,
                                  const PalletAction& action) {
    const Theme& t = theme();
    const Vector arbor{0, d.now->centre_mm};
    const double x = frame.at(arbor).x() + pallet.side * d.now->radius_mm * 0.80 * frame.px;
    double y = frame.at({0, d.now->centre_mm}).y() + 6;
    const auto line = [&](const QString& name, double value, bool low) {
        const QString text = name + " " + degrees(value);
        write(painter, type(Type::text, true), low ? t.ruby : t.ink, {x, y}, text, 0);
        y += 19;
    };
    write(painter, type(Type::note), t.steel, {x, y}, pallet.side < 0 ? tr("entry") : tr("exit"), 0);
    y += 18;
    constexpr double little = 0.3 * rad;
    if (d.kind == "deadbeat") line(tr("lock"), action.lock, action.lock < little);
    line(tr("lift"), action.lift, false);
    line(tr("drop"), action.drop, action.drop < little);
}

/// The swing as an arc laid flat: what it needs, and what it has.
void EscapementView::paint_swing(QPainter& painter, const DerivedEscapement& d, const QRectF& room) {
    const Theme& t = theme();
    const double widest = std::max(swing(), d.beat.least_rad.value_or(0)) * 1.25;
    const double px = room.width() / 2 / widest;
    const double y = room.top() + 16;
    const auto x = [&](double a) { return room.center().x() + a * px; };
    painter.setPen(QPen(t.rule, 6, Qt::SolidLine, Qt::FlatCap));
    painter.drawLine(QPointF(x(-widest), y), QPointF(x(widest), y));
    if (d.swing_rad) {
        painter.setPen(QPen(t.verdigris, 6, Qt::SolidLine, Qt::FlatCap));
        painter.drawLine(QPointF(x(-*d.swing_rad), y), QPointF(x(*d.swing_rad), y));
    }
    if (d.beat.least_rad) {
        const double need = *d.beat.least_rad;
        const bool enough = !d.swing_rad || *d.swing_rad >= need;
        painter.setPen(QPen(enough ? t.ink : t.ruby, 2));
        for (const double side : {-need, need}) painter.drawLine(QPointF(x(side), y - 8), QPointF(x(side), y + 8));
        write(painter, type(Type::note), enough ? t.ink : t.ruby, {x(need), y + 24}, tr("needs %1").arg(degrees(need)), 0);
    }
    write(painter, type(Type::note), t.verdigris, {x(-swing()), y + 24},
          d.swing_rad ? tr("swings %1").arg(degrees(swing())) : tr("swing not measured"), 0);
}

/// The window of depth in hundredths, with where the pallets stand and where they would.
void EscapementView::paint_gauge(QPainter& painter, const DerivedEscapement& d, const QRectF& room) {
    const Theme& t = theme();
    Column page(painter, QRectF(room.left(), room.top() - 6, room.width(), 40));
    page.section(tr("DEPTH, mm"));
    const double here = now().depth_mm;
    double low = std::min(here, d.depth_mm), high = std::max(here, d.depth_mm);
    if (d.window) low = std::min(low, d.window->low_mm), high = std::max(high, d.window->high_mm);
    if (d.cause)
        low = std::min(low, d.cause->depth_mm - d.cause->depth_u_mm), high = std::max(high, d.cause->depth_mm + d.cause->depth_u_mm);
    const double edge = std::max(0.05, (high - low) * 0.18);
    low -= edge, high += edge;
    const QRectF scale(room.left() + 40, room.top() + 26, 16, room.height() - 60);
    // Deeper is lower: the pallets come down into the wheel.
    const auto y = [&](double depth) { return scale.top() + (depth - low) / (high - low) * scale.height(); };
    painter.fillRect(scale, t.rule);
    if (d.window)
        painter.fillRect(QRectF(scale.left(), y(d.window->low_mm), scale.width(), y(d.window->high_mm) - y(d.window->low_mm)), t.verdigris);
    const double step = high - low > 1 ? 0.2 : high - low > 0.4 ? 0.1 : high - low > 0.2 ? 0.05 : 0.02;
    painter.setPen(QPen(t.steel, 1));
    for (double at = std::ceil(low / step) * step; at <= high; at += step) {
        painter.drawLine(QPointF(scale.left() - 5, y(at)), QPointF(scale.left(), y(at)));
        write(painter, type(Type::note), t.steel, {scale.left() - 8, y(at) + 4}, words(print_fixed(at, 2)), 1);
    }
    const auto mark = [&](double depth, const QColor& ink, const QString& word) {
        painter.setPen(QPen(ink, 2.4));
        painter.drawLine(QPointF(scale.left() - 3, y(depth)), QPointF(scale.right() + 6, y(depth)));
        write(painter, type(Type::note, true), ink, {scale.right() + 9, y(depth) + 4}, word);
    };
    if (const auto& cause = now().cause) {
        // Where what is seen puts it, with its uncertainty, beside the scale.
        const double moved = here - m_document.job().pallets->depth_mm;
        const double at = cause->depth_mm + moved;
        painter.setPen(QPen(t.amber, 2));
        painter.drawLine(QPointF(scale.right() + 4, y(at - cause->depth_u_mm)), QPointF(scale.right() + 4, y(at + cause->depth_u_mm)));
        painter.setBrush(t.amber);
        painter.drawEllipse(QPointF(scale.right() + 4, y(at)), 3, 3);
    }
    const bool tried = m_tried != 0;
    mark(here, tried ? t.steel : t.ink, tried ? tr("is") : mm(here));
    if (tried) mark(d.depth_mm, t.blued, mm(d.depth_mm));
    write(painter, type(Type::note), t.steel, {scale.center().x(), scale.top() - 6}, tr("shallow"), 0);
    write(painter, type(Type::note), t.steel, {scale.center().x(), scale.bottom() + 16}, tr("deep"), 0);
    place({"depth", scale.adjusted(-20, 0, 40, 0), [] {}, tr("how much nearer than their layout the pallets stand; ← away, → nearer"), {}});
}

void EscapementView::write_verdict(QPainter& painter, const DerivedEscapement& d, const QRectF& room) {
    const Theme& t = theme();
    Column page(painter, room);
    const bool runs = d.beat.state == EscapementState::runs;
    page.says(words(d.verdict), runs ? t.ink : t.ruby, Type::text);
    page.gap(2);
    const QString bridge = m_bridge == "both" ? tr("both bridges") : m_bridge == "front" ? tr("front bridge") : tr("back bridge");
    if (m_tried != 0)
        page.line(tr("tried: %1 %2 mm %3").arg(bridge, mm(std::abs(m_tried)), m_tried > 0 ? tr("nearer") : tr("away")), t.blued, Type::text,
                  true);
    page.line(bridge + QString::fromUtf8(" · ") +
                  legend({"pallets.away|pallets.nearer", "pallets.bridge", "pallets.keep", "pallets.seen", "pallets.leave"}, " · "),
              t.steel);
}

}  // namespace echappe
