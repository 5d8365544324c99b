#include "stations/beat/escapement_picture.h"

#include <QObject>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "drawing/lettering.h"
#include "drawing/wheel_art.h"
#include "drawing/words.h"
#include "number/units.h"
#include "theme/theme.h"

namespace echappe {
EscapementPicture::EscapementPicture(QPainter& painter, const DerivedEscapement& escapement, const QRectF& room)
    : m_painter(painter),
      m_escapement(escapement),
      m_radius(tip_radius_mm(*escapement.now)),
      m_centre(centre_mm(*escapement.now)),
      m_room(room) {
    // From a little under the tips at the pallets' far ends to above the pallet arbor.
    const double low = m_radius * 0.30, high = m_centre + m_radius * 0.16;
    m_px = std::min(room.height() / (high - low), room.width() / (2.1 * m_radius));
    m_escape = QPointF(room.center().x(), room.bottom() + low * m_px);
}

void EscapementPicture::paint(double period) {
    const EscapementBeat& beat = m_escapement.beat;
    const auto stand = stand_at(*m_escapement.now, beat, m_escapement.drawn_swing_rad, period);
    m_painter.save();
    m_painter.setClipRect(m_room);
    const double pallets = stand ? stand->pallets_rad : beat.zero_rad.value_or(0), held = stand ? stand->side : 0;
    const double tip = stand ? stand->tip_rad : pitch_rad(*m_escapement.now) / 4;
    if (const auto* lever = std::get_if<LeverAction>(&*m_escapement.now)) {
        // The lever lies in a plane of its own: behind, so that the action is seen.
        paint_body(pallets);
        paint_wheel(tip);
        paint_stones(*lever, pallets, held);
    } else {
        paint_wheel(tip);
        paint_pallets(std::get<EscapementAction>(*m_escapement.now), pallets, held);
    }
    paint_arbor();
    if (stand) {
        const Theme& t = inks(m_painter);
        m_painter.setPen(QPen(stand->drives ? t.verdigris : t.blued, 2));
        m_painter.setBrush(Qt::NoBrush);
        m_painter.drawEllipse(at(spot(m_radius, stand->tip_rad)), 7, 7);
        paint_drop(*beat.entry);
        paint_drop(*beat.exit);
        write_pallet(-1, *beat.entry);
        write_pallet(1, *beat.exit);
    }
    m_painter.restore();
}

void EscapementPicture::point(Dimensions& sizes) const {
    const auto rim = [&](double deg) { return at(spot(m_radius, deg * rad_per_deg)); };
    const QPointF exit = at({0.74 * m_radius, m_centre - 0.3 * m_radius});
    sizes.group(
        words("as laid out"), exit,
        {"span", "school", "lock_deg", "lift_deg", "drop_deg", "draw_deg", "tooth_share", "tooth_width_deg", "pin_mm", "undercut_deg"});
    sizes.group(words("as read"), rim(58),
                {"seen_entry_lock_deg", "seen_exit_lock_deg", "seen_entry_drop_deg", "seen_exit_drop_deg", "seen_least_deg"});
    sizes.group(words("lever and roller"), at({0.4 * m_radius, m_centre}),
                {"run_deg", "staff_mm", "impulse_pin_mm", "guard_mm", "roller_mm"});
    sizes.at("tip_diameter_mm", rim(44));
}

/// An outline of many corners: one dot of the screen wide. A wider one is laid round point by point, which at 200 % takes most of a frame.
/// Paper has finer dots: there it is as wide as it is said to be.
QPen EscapementPicture::outline(const QColor& ink) const {
    constexpr double finest_screen = 4;
    const double dots = m_painter.deviceTransform().m11();
    return QPen(ink, dots > 1 && dots <= finest_screen ? 1 / dots : 1);
}

void EscapementPicture::paint_wheel(double tip_rad) {
    const Theme& t = inks(m_painter);
    QTransform to_screen;
    to_screen.translate(m_escape.x(), m_escape.y());
    to_screen.scale(m_px, -m_px);
    to_screen.rotate(90 - in_degrees(tip_rad));
    m_painter.setPen(outline(t.brass));
    m_painter.setBrush(t.pale_brass);
    m_painter.drawPath(to_screen.map(WheelArt::escape_wheel(*m_escapement.wheel)));
}

void EscapementPicture::paint_arbor() {
    m_painter.setPen(QPen(inks(m_painter).ink, 1.4));
    m_painter.setBrush(inks(m_painter).sheet);
    m_painter.drawEllipse(at({0, m_centre}), 6, 6);
}

void EscapementPicture::paint_face(QPointF from, QPointF to, bool holds) {
    const Theme& t = inks(m_painter);
    m_painter.setPen(QPen(holds ? t.blued : t.ink, holds ? 3 : 2));
    m_painter.drawLine(from, to);
}

/// Pallets or lever in one piece, as they are cut.
void EscapementPicture::paint_body(double pallets_rad) {
    const Theme& t = inks(m_painter);
    QPolygonF body;
    for (const Point& p : m_escapement.body) body << place({p[0], p[1]}, pallets_rad);
    m_painter.setPen(outline(t.ink));
    m_painter.setBrush(t.steel);
    m_painter.drawPolygon(body);
}

void EscapementPicture::paint_pallets(const EscapementAction& action, double pallets_rad, double held) {
    paint_body(pallets_rad);
    for (const Pallet* pallet : {&action.entry, &action.exit})
        paint_face(place(pallet->let_off, pallets_rad), place(pallet->locking, pallets_rad), pallet->side == held);
}

void EscapementPicture::paint_stones(const LeverAction& action, double pallets_rad, double held) {
    const Theme& t = inks(m_painter);
    for (const LeverPallet* pallet : {&action.entry, &action.exit}) {
        const bool holds = pallet->side == held;
        m_painter.setPen(QPen(holds ? t.blued : t.ink, holds ? 2 : 1));
        m_painter.setBrush(pallet->pin ? t.ink : t.ruby);
        if (pallet->pin) {
            m_painter.drawEllipse(place(pallet->middle, pallets_rad), pallet->radius * m_px, pallet->radius * m_px);
            continue;
        }
        QPolygonF body;
        const double long_mm = m_escapement.lever_input->shape.stone_length_mm.value_or(usual_stone_length_mm(*pallet));
        for (const Vector corner : stone_of(*pallet, long_mm)) body << place(corner, pallets_rad);
        m_painter.drawPolygon(body);
        paint_face(place(pallet->let_off, pallets_rad), place(pallet->locking, pallets_rad), holds);
    }
}

/// The wheel's free turn once this pallet has let off, at the tooth that it let go: outside the rim, from there on.
void EscapementPicture::paint_drop(const PalletAction& action) {
    if (action.drop <= 0) return;
    const Theme& t = inks(m_painter);
    constexpr double outside_px = 7, end_px = 5;
    const double let_off = action.lets_off.tip_rad, radius_px = m_radius * m_px + outside_px;
    const QRectF rim(m_escape.x() - radius_px, m_escape.y() - radius_px, 2 * radius_px, 2 * radius_px);
    m_painter.setPen(QPen(is_little(action.drop) ? t.ruby : t.blued, 3));
    m_painter.setBrush(Qt::NoBrush);
    constexpr double sixteenths = 16;
    m_painter.drawArc(rim, static_cast<int>((90 - in_degrees(let_off)) * sixteenths),
                      static_cast<int>(-in_degrees(action.drop) * sixteenths));
    for (const double end : {let_off, let_off + action.drop})
        m_painter.drawLine(at(spot(m_radius + (outside_px - end_px) / m_px, end)), at(spot(m_radius + (outside_px + end_px) / m_px, end)));
}

/// Lock, lift and drop beside the pallet they are of.
void EscapementPicture::write_pallet(double side, const PalletAction& action) {
    const Theme& t = inks(m_painter);
    const QPointF arbor = at({0, m_centre});
    constexpr double half_wide = 74;
    const double x = std::clamp(arbor.x() + side * m_radius * 0.80 * m_px, m_room.left() + half_wide, m_room.right() - half_wide);
    // A lever's arms lie at the height of their arbor.
    double y = std::holds_alternative<LeverAction>(*m_escapement.now) ? m_room.top() + 40 : arbor.y() - 14;
    write(m_painter, type(Type::note), t.steel, {x, y}, side < 0 ? words("entry") : words("exit"), 0);
    const auto line = [&](const QString& name, double angle, bool little) {
        y += 19;
        write(m_painter, type(Type::text, true), little ? t.ruby : t.ink, {x, y},
              words("%1 %2°").arg(name).arg(in_degrees(angle), 0, 'f', 2), 0);
    };
    if (locks(*m_escapement.now)) line(words("lock"), action.lock, is_little(action.lock));
    line(words("lift"), action.lift, false);
    line(side < 0 ? words("drop after entry") : words("drop after exit"), action.drop, is_little(action.drop));
}

}  // namespace echappe
