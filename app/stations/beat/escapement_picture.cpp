#include "stations/beat/escapement_picture.h"

#include <QObject>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "drawing/lettering.h"
#include "number/units.h"
#include "theme/theme.h"

namespace echappe {
namespace {

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

EscapementPicture::EscapementPicture(QPainter& painter, const DerivedEscapement& escapement, const QRectF& room)
    : m_painter(painter), m_escapement(escapement), m_action(*escapement.now), m_room(room) {
    // From a little under the tips at the pallets' far ends to above the pallet arbor.
    const double low = m_action.radius_mm * 0.30, high = m_action.centre_mm + m_action.radius_mm * 0.12;
    m_px = std::min(room.height() / (high - low), room.width() / (2.1 * m_action.radius_mm));
    m_escape = QPointF(room.center().x(), room.bottom() + low * m_px);
}

void EscapementPicture::paint(double period) {
    const Theme& t = theme();
    const EscapementBeat& beat = m_escapement.beat;
    const auto stand = stand_at(m_action, beat, m_escapement.drawn_swing_rad, period);
    m_painter.save();
    m_painter.setClipRect(m_room);
    paint_wheel(stand ? stand->tip_rad : m_action.pitch_rad() / 4);
    const double pallets = stand ? stand->pallets_rad : beat.zero_rad.value_or(0);
    for (const Pallet* pallet : {&m_action.entry, &m_action.exit}) paint_pallet(*pallet, pallets, stand && stand->side == pallet->side);
    m_painter.setPen(QPen(t.ink, 1.4));
    m_painter.setBrush(t.sheet);
    m_painter.drawEllipse(at({0, m_action.centre_mm}), 6, 6);
    if (stand) {
        m_painter.setPen(QPen(stand->drives ? t.verdigris : t.blued, 2));
        m_painter.setBrush(Qt::NoBrush);
        m_painter.drawEllipse(at({m_action.radius_mm * std::sin(stand->tip_rad), m_action.radius_mm * std::cos(stand->tip_rad)}), 7, 7);
        write_pallet(m_action.entry, *beat.entry);
        write_pallet(m_action.exit, *beat.exit);
    }
    m_painter.restore();
}

void EscapementPicture::paint_wheel(double tip_rad) {
    const Theme& t = theme();
    m_painter.save();
    m_painter.translate(m_escape);
    QPainterPath wheel = wheel_outline(m_action, m_px, tip_rad);
    const double inside = m_action.radius_mm * 0.66 * m_px;
    wheel.addEllipse(QPointF(0, 0), inside, inside);
    m_painter.setPen(QPen(t.brass, 1.2));
    m_painter.setBrush(t.pale_brass);
    m_painter.drawPath(wheel);
    m_painter.restore();
}

/// The face with the metal behind it, on an arm from the pallet arbor.
void EscapementPicture::paint_pallet(const Pallet& pallet, double pallets_rad, bool holds) {
    const Theme& t = theme();
    const Vector arbor{0, m_action.centre_mm};
    const auto turned_to = [&](Vector own, double turn) { return at(arbor + turned(own, pallets_rad + turn)); };
    const Vector along = pallet.locking - pallet.let_off;
    const double face = pallet.arc ? 1 : 1.6;  // a recoil's face goes on beyond the landing
    const Vector begins = pallet.let_off + face * along;
    const double thick = pallet.side * 0.34;  // rad about the arbor: how far the metal goes back
    constexpr int steps = 12;
    QPainterPath body(turned_to(pallet.let_off, 0));
    for (int i = 0; i <= steps; ++i) body.lineTo(turned_to(begins, thick * i / steps));
    for (int i = steps; i > 0; --i) body.lineTo(turned_to(pallet.let_off, thick * i / steps));
    body.closeSubpath();
    const Vector middle = 0.5 * (begins + pallet.let_off);
    const double arm = 0.11 * m_action.radius_mm * m_px;
    for (const auto& [ink, wide] : {std::pair{t.ink, arm + 2}, {t.steel, arm}}) {
        m_painter.setPen(QPen(ink, wide, Qt::SolidLine, Qt::RoundCap));
        m_painter.drawLine(at(arbor), turned_to(middle, thick * 0.9));
    }
    m_painter.setPen(QPen(t.ink, 1));
    m_painter.setBrush(t.steel);
    m_painter.drawPath(body);
    m_painter.setPen(QPen(holds ? t.blued : t.ink, holds ? 3 : 2));
    m_painter.drawLine(turned_to(pallet.let_off, 0), turned_to(begins, 0));
}

/// Lock, lift and drop beside the pallet they are of.
void EscapementPicture::write_pallet(const Pallet& pallet, const PalletAction& action) {
    const Theme& t = theme();
    const QPointF arbor = at({0, m_action.centre_mm});
    const double x = arbor.x() + pallet.side * m_action.radius_mm * 0.80 * m_px;
    double y = arbor.y() - 14;
    write(m_painter, type(Type::note), t.steel, {x, y}, pallet.side < 0 ? QObject::tr("entry") : QObject::tr("exit"), 0);
    const auto line = [&](const QString& name, double angle, bool little) {
        y += 19;
        write(m_painter, type(Type::text, true), little ? t.ruby : t.ink, {x, y},
              QObject::tr("%1 %2°").arg(name).arg(in_degrees(angle), 0, 'f', 2), 0);
    };
    if (pallet.arc) line(QObject::tr("lock"), action.lock, is_little(action.lock));
    line(QObject::tr("lift"), action.lift, false);
    line(QObject::tr("drop"), action.drop, is_little(action.drop));
}

}  // namespace echappe
