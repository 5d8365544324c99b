#include "stations/beat/swing_picture.h"

#include <QObject>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "drawing/lettering.h"
#include "drawing/words.h"
#include "number/constants.h"
#include "number/units.h"
#include "oscillator/drawn_bodies.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double stud_deg = 62;         ///< where the stud stands, anticlockwise from the right
constexpr double nut_px_per_turn = 84;  ///< of the enlarged nut

QPointF on_circle(QPointF middle, double radius, double deg) {
    return middle + QPointF(std::cos(deg * pi / 180), -std::sin(deg * pi / 180)) * radius;
}

}  // namespace

SwingPicture::SwingPicture(QPainter& painter, const OscillatorRecord& oscillator, const DerivedOscillator& swings, const QRectF& room,
                           const Stand& stand, Dimensions& sizes)
    : m_painter(painter),
      m_swings(swings),
      m_o(oscillator),
      m_p(m_o.as<Pendulum>()),
      m_b(m_o.as<Balance>()),
      m_room(room),
      m_stand(stand),
      m_sizes(sizes) {}

void SwingPicture::paint() {
    if (m_p) paint_pendulum();
    else paint_balance();
}

double SwingPicture::lowest_mm() const {
    double lowest = m_swings.pendulum->length_mm * 1.06;
    for (const PendulumPart& part : whole_parts(*m_p) ? m_p->parts : std::vector<PendulumPart>()) {
        const double reach = part.shape == "rod" || part.shape == "cylinder" ? part.length_mm.value_or(0) : part.diameter_mm.value_or(0);
        lowest = std::max(lowest, part.top_mm ? *part.top_mm + reach : part.centre_mm.value_or(0) + reach / 2);
    }
    return lowest;
}

void SwingPicture::paint_part(const PendulumPart& part, QPointF pivot, double angle, double px) {
    const Theme& t = inks(m_painter);
    m_painter.save();
    m_painter.translate(pivot);
    m_painter.rotate(angle);
    const bool upright = part.shape == "rod" || part.shape == "cylinder";
    const double across = part.diameter_mm.value_or(0) * px;
    const double high = upright ? part.length_mm.value_or(0) * px : across;
    const double middle = (part.centre_mm ? *part.centre_mm : *part.top_mm + high / px / 2) * px;
    m_painter.setPen(QPen(part.shape == "rod" ? t.steel : t.brass, 1.2));
    m_painter.setBrush(part.shape == "rod" ? t.steel : t.pale_brass);
    if (part.shape == "rod") m_painter.drawRect(QRectF(-std::max(1.0, across / 2), middle - high / 2, std::max(2.0, across), high));
    else if (part.shape == "cylinder") m_painter.drawRect(QRectF(-across / 2, middle - high / 2, across, high));
    else if (part.shape == "point") m_painter.drawEllipse(QPointF(0, middle), 3, 3);
    else {
        m_painter.drawEllipse(QPointF(0, middle), across / 2, across / 2);
        if (part.shape == "lens") {
            m_painter.setBrush(Qt::NoBrush);
            m_painter.drawEllipse(QPointF(0, middle), across / 2 - 3, across / 2 - 3);
        }
    }
    m_painter.restore();
}

/// The simple pendulum's length beside the rod: the one figure that everything here hangs on.
void SwingPicture::paint_length(QPointF pivot, double px) {
    const Theme& t = inks(m_painter);
    const double length = m_swings.pendulum->length_mm;
    const double x = m_room.left() + 16;
    const double foot = pivot.y() + length * px;
    m_painter.setPen(QPen(t.steel, 1));
    m_painter.drawLine(QPointF(x - 6, pivot.y()), QPointF(pivot.x() - 18, pivot.y()));
    m_painter.drawLine(QPointF(x, pivot.y()), QPointF(x, foot));
    m_painter.setPen(QPen(t.steel, 1, Qt::DashLine));
    m_painter.drawLine(QPointF(x - 6, foot), QPointF(pivot.x() + 40, foot));
    const double y = pivot.y() + length * px * 0.36;
    m_painter.fillRect(QRectF(x - 4, y - 18, 112, 40), t.ground);
    write(m_painter, type(Type::figure, true), t.ink, {x + 6, y}, words("%1 mm").arg(length, 0, 'f', 2));
    write(m_painter, type(Type::note), t.steel, {x + 6, y + 15}, words("centre of swing"));
}

void SwingPicture::paint_tray(QPointF pivot, double angle, double px) {
    if (!m_p->tray_mm) return;
    const Theme& t = inks(m_painter);
    m_painter.save();
    m_painter.translate(pivot);
    m_painter.rotate(angle);
    const double y = *m_p->tray_mm * px;
    m_painter.setPen(QPen(marked("tray") ? t.blued : t.brass, marked("tray") ? 2.4 : 1.4));
    m_painter.drawLine(QPointF(-12, y), QPointF(12, y));
    m_painter.drawLine(QPointF(-12, y), QPointF(-12, y - 4));
    m_painter.drawLine(QPointF(12, y), QPointF(12, y - 4));
    const double grams = tried("tray");
    if (grams > 0) {
        const double size = std::min(16.0, 4 + 2 * std::sqrt(grams));
        m_painter.setBrush(t.brass);
        m_painter.drawRect(QRectF(-size / 2, y - size * 0.7, size, size * 0.7));
    }
    m_painter.restore();
    m_handles.push_back({"tray", QRectF(pivot.x() - 24, pivot.y() + y - 20, 48, 30), {0, 1}, 6});
}

/// The rating nut from the front, much enlarged: what is turned, with its marks going by.
void SwingPicture::paint_nut(const QRectF& room) {
    const Theme& t = inks(m_painter);
    const double turns = tried("nut");
    const bool on = marked("nut");
    const QRectF body(room.left(), room.top() + 16, room.width(), room.height() - 42);
    m_painter.setPen(QPen(t.steel, 1.4));
    m_painter.setBrush(t.steel);
    m_painter.drawRect(QRectF(body.center().x() - 4, room.top(), 8, room.height() - 14));
    m_painter.setPen(QPen(on ? t.blued : t.brass, on ? 2.4 : 1.4));
    m_painter.setBrush(t.pale_brass);
    m_painter.drawRoundedRect(body, 5, 5);
    // Its rim as a drum: an eighth of a turn from mark to mark, seen foreshortened.
    m_painter.save();
    m_painter.setClipRect(body.adjusted(2, 2, -2, -2));
    for (int eighth = 0; eighth < 8; ++eighth) {
        const double angle = (turns + eighth / 8.0) * 2 * pi;
        const double facing = std::cos(angle);
        if (facing <= 0.05) continue;
        const double x = body.center().x() + std::sin(angle) * body.width() / 2;
        const bool index = eighth == 0;
        m_painter.setPen(QPen(index ? t.ruby : t.brass_ink, index ? 3 : 1.2));
        m_painter.drawLine(QPointF(x, body.top() + (index ? 4 : 9)), QPointF(x, body.bottom() - (index ? 4 : 9)));
    }
    m_painter.restore();
    m_painter.setPen(QPen(t.ink, 1.4));
    m_painter.drawLine(QPointF(body.center().x(), body.top() - 9), QPointF(body.center().x(), body.top() - 2));
    write(m_painter, type(Type::note), t.steel, {body.left() - 4, room.bottom() - 6}, words("rating nut"), 0);
    write(m_painter, type(Type::note, true), t.verdigris, {body.right() + 8, body.center().y() - 4}, QString::fromUtf8("→ ") + words("up"));
    write(m_painter, type(Type::note, true), t.verdigris, {body.right() + 8, body.center().y() + 10}, words("faster"));
    write(m_painter, type(Type::note, true), t.amber, {body.left() - 8, body.center().y() - 4}, words("down") + QString::fromUtf8(" ←"), 1);
    write(m_painter, type(Type::note, true), t.amber, {body.left() - 8, body.center().y() + 10}, words("slower"), 1);
    m_handles.push_back({"nut", body.adjusted(-40, -10, 40, 10), {1, 0}, nut_px_per_turn});
}

/// A body's diameter lies across it where it is large enough; its other sizes are pointed at.
void SwingPicture::point_at_body(size_t which, const PendulumPart& body, QPointF pivot, double px) {
    const QString of = QString("part.%1.").arg(which);
    const bool upright = body.shape == "rod" || body.shape == "cylinder", measured = whole_parts(*m_p);
    const double length = m_swings.pendulum->length_mm, unmeasured_bob = length * 0.13;
    const double across = measured ? body.diameter_mm.value_or(0) : upright ? 0 : unmeasured_bob;
    const double high = !upright ? across : measured ? body.length_mm.value_or(0) : length;
    const double middle = !measured        ? (upright ? length / 2 : length)
                          : body.centre_mm ? *body.centre_mm
                                           : body.top_mm.value_or(0) + high / 2;
    const auto spot = [&](double share, double side) { return pivot + QPointF(across / 2 * side, middle + high * share) * px; };
    constexpr double wide_px = 56;
    if (upright) {
        m_sizes.at(of + "top_mm", spot(-0.44, 0.7));
        m_sizes.at(of + "diameter_mm", spot(-0.30, 0.7));
        m_sizes.at(of + "mass_kg", spot(-0.22, 0.7));
        m_sizes.at(of + "length_mm", spot(0.02, 0.7));
        return;
    }
    const double y = pivot.y() + (middle - high / 2) * px - 12;
    if (across * px >= wide_px)
        m_sizes.between(of + "diameter_mm", {pivot.x() - across / 2 * px - 14, y}, {pivot.x() + across / 2 * px + 14, y});
    else m_sizes.at(of + "diameter_mm", spot(-0.3, 0.9));
    m_sizes.at(of + "thickness_mm", spot(0.25, 0.8));
    m_sizes.at(of + "centre_mm", spot(0, 1));
    if (across * px >= wide_px) m_sizes.in(of + "mass_kg", spot(0, 0) + QPointF(0, 5));
    else m_sizes.at(of + "mass_kg", spot(0.3, 0.8));
}

/// Of the suspension spring, as it is drawn; a sign where it was not read.
double SwingPicture::strip_mm() const {
    constexpr double usual_share = 0.02;
    const auto& strip = m_p->suspension;
    return strip && strip->length_mm ? *strip->length_mm : usual_share * m_swings.pendulum->length_mm;
}

void SwingPicture::point_at_pendulum(QPointF pivot, double px) {
    const std::vector<DrawnBody> bodies = drawn_bodies(*m_p);
    for (size_t i = 0; i < bodies.size(); ++i) point_at_body(i, bodies[i].part, pivot, px);
    const double strip_px = strip_mm() * px;
    m_sizes.group(words("suspension spring"), pivot + QPointF(2, strip_px / 2),
                  {"suspension.length_mm", "suspension.width_mm", "suspension.thickness_mm"});
    const double low = lowest_mm(), swing = m_o.swing_deg.value_or(0);
    m_sizes.at("rod", pivot + QPointF(0, low * 0.12 * px));
    m_sizes.at("tray_mm", pivot + QPointF(12, m_p->tray_mm.value_or(low * 0.42) * px));
    m_sizes.at("mass_kg", pivot + QPointF(0, m_swings.pendulum->length_mm * px));
    m_sizes.at("swing_deg", pivot + QPointF(std::sin(swing * pi / 180), std::cos(swing * pi / 180)) * low * px);
    const double half = m_p->case_width_mm.value_or(0) / 2 * px, foot = pivot.y() + low * px + 14;
    if (half > 0) m_sizes.between("case_width_mm", {pivot.x() - half, foot}, {pivot.x() + half, foot});
    else m_sizes.at("case_width_mm", {pivot.x() + 60, foot - 20});
}

void SwingPicture::paint_pendulum() {
    const Theme& t = inks(m_painter);
    constexpr double nut_high = 92, left_share = 0.40, beside = 16;
    const QPointF pivot(m_room.left() + m_room.width() * left_share, m_room.top() + 14);
    const double px = (m_room.height() - nut_high - 50) / lowest_mm();
    const double swing = m_o.swing_deg.value_or(0);
    const double angle = -m_stand.swing * swing;
    // Cock and suspension spring.
    m_painter.setPen(QPen(t.ink, 1.4));
    m_painter.setBrush(t.sheet);
    m_painter.drawRect(QRectF(pivot.x() - 15, pivot.y() - 12, 30, 10));
    m_painter.setPen(QPen(t.blued, 3, Qt::SolidLine, Qt::FlatCap));
    m_painter.drawLine(pivot, pivot + QPointF(-std::sin(angle * pi / 180), std::cos(angle * pi / 180)) * strip_mm() * px);
    double half = 54;
    if (m_p->case_width_mm) {
        half = std::max(half, *m_p->case_width_mm / 2 * px);
        m_painter.setPen(QPen(t.rule, 3));
        for (const double side : {-half, half}) m_painter.drawLine(pivot + QPointF(side, 40), pivot + QPointF(side, lowest_mm() * px + 12));
    }
    paint_length(pivot, px);
    m_painter.setPen(QPen(t.steel, 1, Qt::DotLine));
    for (const double side : {-swing, swing}) {
        const QPointF end = pivot + QPointF(std::sin(side * pi / 180), std::cos(side * pi / 180)) * lowest_mm() * px;
        m_painter.drawLine(pivot, end);
    }
    if (!whole_parts(*m_p)) paint_unmeasured(pivot, angle, px);
    else
        for (const PendulumPart& part : m_p->parts) paint_part(part, pivot, angle, px);
    paint_tray(pivot, angle, px);
    paint_nut(QRectF(pivot.x() - 44, m_room.bottom() - nut_high + 14, 88, nut_high - 22));
    point_at_pendulum(pivot, px);
    const double left = std::min(pivot.x() + half + beside, m_room.right() - 110);
    m_sizes.lay_out({QPointF(left, pivot.y() + 8), QPointF(m_room.right(), m_room.bottom() - nut_high)});
    // Under the nut, beside what is left of the rod.
    m_sizes.at("nut_pitch_mm", {pivot.x() + 4, m_room.bottom() - 18});
    m_sizes.lay_out({pivot.x() + 22, m_room.bottom() - 24, m_room.right() - pivot.x() - 22, 24});
}

/// Nobody measured the bob: a rod, and a dashed sign of a bob at the centre of swing.
void SwingPicture::paint_unmeasured(QPointF pivot, double angle, double px) {
    PendulumPart rod;
    rod.shape = "rod";
    rod.diameter_mm = 4;
    rod.length_mm = lowest_mm();
    rod.top_mm = 0;
    paint_part(rod, pivot, angle, px);
    m_painter.save();
    m_painter.translate(pivot);
    m_painter.rotate(angle);
    m_painter.setPen(QPen(inks(m_painter).brass, 1.4, Qt::DashLine));
    m_painter.setBrush(inks(m_painter).ground);
    const double r = m_swings.pendulum->length_mm * 0.065 * px;
    m_painter.drawEllipse(QPointF(0, m_swings.pendulum->length_mm * px), r, r);
    m_painter.restore();
}

double SwingPicture::rim_radius_mm() const {
    if (m_swings.wheel) return m_b->wheel->rim_outside_mm / 2;
    double radius = 0;
    for (const BalanceScrews& pair : m_b->screws) radius = std::max(radius, pair.radius_mm * 0.97);
    if (radius > 0) return radius;
    return whole_spring(*m_b) ? std::sqrt(whole_spring(*m_b)->length_mm) * 0.75 : 8;
}

void SwingPicture::paint_rim(QPointF middle, double angle, double px) {
    const Theme& t = inks(m_painter);
    const double outside = rim_radius_mm() * px;
    const double inside = m_swings.wheel ? m_b->wheel->rim_inside_mm / 2 * px : outside * 0.9;
    const auto arms = m_swings.wheel ? m_b->wheel->arms : 2;
    const double arm = m_swings.wheel ? std::max(2.0, m_b->wheel->arm_width_mm * px) : outside * 0.08;
    QPainterPath rim;
    rim.addEllipse(middle, outside, outside);
    rim.addEllipse(middle, inside, inside);
    m_painter.setPen(QPen(t.brass, 1.2, m_swings.wheel ? Qt::SolidLine : Qt::DashLine));
    m_painter.setBrush(t.pale_brass);
    for (long long i = 0; i < arms; ++i) {
        m_painter.save();
        m_painter.translate(middle);
        m_painter.rotate(-angle - 360.0 * static_cast<double>(i) / static_cast<double>(arms));
        m_painter.drawRect(QRectF(0, -arm / 2, inside + 1, arm));
        m_painter.restore();
    }
    m_painter.drawPath(rim);
    for (size_t i = 0; i < m_b->screws.size(); ++i) paint_screws(i, middle, angle, px);
    if (!m_swings.poise || !m_swings.poise->heavy_deg) return;
    // From 12, clockwise as seen from the dial.
    const QPointF heavy = on_circle(middle, (outside + inside) / 2, 90 - *m_swings.poise->heavy_deg + angle);
    m_painter.setPen(Qt::NoPen);
    m_painter.setBrush(t.ruby);
    m_painter.drawEllipse(heavy, 6, 6);
    write(m_painter, type(Type::note, true), t.ruby, heavy + QPointF(10, 4), words("heavy"));
}

/// A pair of screws, opposite each other; standing still they can be taken hold of.
void SwingPicture::paint_screws(size_t which, QPointF middle, double angle, double px) {
    const Theme& t = inks(m_painter);
    const BalanceScrews& pair = m_b->screws[which];
    const std::string means = "screws." + std::to_string(which);
    const bool on = marked(means);
    const double at = 90 + 42 * static_cast<double>(which) + angle;
    const double moved = -tried(means) * pair.pitch_mm.value_or(1);
    const double size = std::clamp(std::cbrt(pair.mass_mg) * 0.55 * px, 5.0, 15.0);
    for (const double side : {0.0, 180.0}) {
        const QPointF place = on_circle(middle, (pair.radius_mm + moved) * px, at + side);
        m_painter.save();
        m_painter.translate(place);
        m_painter.rotate(-(at + side));
        m_painter.setPen(QPen(on ? t.blued : t.ink, on ? 2.2 : 1));
        m_painter.setBrush(t.brass);
        m_painter.drawRect(QRectF(-size / 2, -size / 2, size, size));
        m_painter.drawLine(QPointF(size / 2, -size / 2), QPointF(size / 2, size / 2));
        m_painter.restore();
        if (m_stand.swing != 0) continue;
        m_handles.push_back({words(means), QRectF(place - QPointF(14, 14), QSizeF(28, 28)), on_circle({0, 0}, 1, at + side + 180),
                             pair.pitch_mm.value_or(1) * px * 6});
    }
}

/// Coil by coil from the collet to the pins and on to the stud; it winds and unwinds with the swing.
void SwingPicture::paint_spring(QPointF middle, double angle, double px) {
    const Theme& t = inks(m_painter);
    const double collet = rim_radius_mm() * 0.11;
    const double outer = rim_radius_mm() * 0.56;
    const double coils = whole_spring(*m_b)->length_mm / (pi * (collet + outer));
    const double stud = 360 * coils;  // the whole turn of the strip, collet to its end
    QPainterPath strip;
    constexpr int steps_a_coil = 60;
    const int steps = static_cast<int>(coils * steps_a_coil);
    for (int i = 0; i <= steps; ++i) {
        const double share = static_cast<double>(i) / steps;
        const double radius = collet + (outer - collet) * share;
        // The collet's end goes round with the balance, the stud's stays.
        const double at = stud_deg - stud * (1 - share) + angle * (1 - share);
        const QPointF point = on_circle(middle, radius * px, at);
        if (i == 0) strip.moveTo(point);
        else strip.lineTo(point);
    }
    m_painter.setBrush(Qt::NoBrush);
    m_painter.setPen(QPen(t.blued, 1.3));
    m_painter.drawPath(strip);
    m_painter.setPen(QPen(t.ink, 1));
    m_painter.setBrush(t.brass);
    m_painter.drawEllipse(middle, collet * px, collet * px);
    m_painter.setBrush(t.steel);
    m_painter.drawEllipse(middle, collet * px * 0.45, collet * px * 0.45);
    paint_regulator(middle, px, outer);
}

void SwingPicture::paint_regulator(QPointF middle, double px, double outer_mm) {
    const Theme& t = inks(m_painter);
    const bool on = marked("pins");
    const double per_mm = 180 / (pi * outer_mm);  // degrees of the outer coil for a mm of strip
    const double between = m_b->pins_to_stud_mm.value_or(3);
    // The strip runs anticlockwise to the stud: the pins stand before it, and go back from it to shorten the spring.
    const double rest = stud_deg - between * per_mm;
    const double pins = rest - tried("pins") * per_mm;
    const QPointF stud = on_circle(middle, outer_mm * px, stud_deg);
    m_painter.setPen(QPen(t.ink, 1.4));
    m_painter.setBrush(t.sheet);
    m_painter.drawRect(QRectF(stud - QPointF(6, 6), QSizeF(12, 12)));
    write(m_painter, type(Type::note), t.steel, stud + QPointF(9, -6), words("stud"));
    if (m_b->overhang_mm && *m_b->overhang_mm > 0) paint_overhang(middle, px, outer_mm, std::min(*m_b->overhang_mm * per_mm, 70.0));
    const double arm_end = rim_radius_mm() * 1.14 * px;
    m_painter.setPen(QPen(on ? t.blued : t.steel, on ? 3 : 2));
    m_painter.drawLine(on_circle(middle, outer_mm * px * 0.86, pins), on_circle(middle, arm_end, pins));
    m_painter.setBrush(t.sheet);
    m_painter.setPen(QPen(on ? t.blued : t.ink, 1.6));
    for (const double off : {-3.5, 3.5}) m_painter.drawEllipse(on_circle(middle, outer_mm * px + off, pins), 2.6, 2.6);
    m_painter.setPen(QPen(t.rule, 1));
    m_painter.drawArc(QRectF(middle - QPointF(arm_end, arm_end), QSizeF(2 * arm_end, 2 * arm_end)), static_cast<int>((rest - 34) * 16),
                      68 * 16);
    const QPointF along = on_circle({0, 0}, 1, pins - 90);
    m_handles.push_back({"pins", QRectF(on_circle(middle, arm_end, pins) - QPointF(20, 20), QSizeF(40, 40)), along, arm_end / outer_mm});
    m_handles.push_back({"pins", QRectF(on_circle(middle, outer_mm * px, pins) - QPointF(14, 14), QSizeF(28, 28)), along, px});
    const QPointF faster = on_circle(middle, arm_end + 16, rest - 30);
    const QPointF slower = on_circle(middle, arm_end + 16, rest + 30);
    write(m_painter, type(Type::note, true), t.verdigris, faster, words("faster"), 0);
    write(m_painter, type(Type::note, true), t.amber, slower, words("slower"), 0);
}

/// The line of centres, where the impulse pin rests beside it, and which way the collet goes: true angles, the balance at rest.
void SwingPicture::paint_in_beat(QPointF middle, double px) {
    if (!m_swings.in_beat) return;
    const Theme& t = inks(m_painter);
    constexpr double down = 270;
    const double off = m_swings.in_beat->turn_deg;
    const double reach = rim_radius_mm() * 0.88 * px;
    m_painter.setBrush(Qt::NoBrush);
    m_painter.setPen(QPen(t.ink, 1, Qt::DashDotLine));
    m_painter.drawLine(on_circle(middle, reach * 0.66, down), on_circle(middle, reach, down));
    const bool known = !m_b->longer_beat.empty();
    for (const double side : {-1.0, 1.0}) {
        // Anticlockwise is +: a longer beat that swings out clockwise leaves the pin clockwise of the line.
        if (known && (side > 0) != (m_b->longer_beat == "ccw")) continue;
        m_painter.setPen(QPen(t.ruby, 1.2, known ? Qt::SolidLine : Qt::DotLine));
        m_painter.drawLine(on_circle(middle, reach * 0.66, down + side * off), on_circle(middle, reach, down + side * off));
        m_painter.setBrush(known ? t.ruby : t.ground);
        m_painter.drawEllipse(on_circle(middle, reach * 0.8, down + side * off), 4, 4);
        m_painter.setBrush(Qt::NoBrush);
        if (!known) continue;
        // The collet's arrow goes the same way as the pin rests.
        const double r = rim_radius_mm() * 0.2 * px;
        m_painter.setPen(QPen(t.ruby, 1.8));
        m_painter.drawArc(QRectF(middle - QPointF(r, r), QSizeF(2 * r, 2 * r)), 120 * 16, static_cast<int>(side * 70 * 16));
        const double tip = 120 + side * 70;
        for (const double back : {3.5, -3.5}) m_painter.drawLine(on_circle(middle, r, tip), on_circle(middle, r + back, tip - side * 16));
    }
    const QString word = known ? (m_b->longer_beat == "cw" ? words("collet %1° clockwise") : words("collet %1° anticlockwise"))
                               : words("collet %1°: longer beat's side");
    write(m_painter, type(Type::note, true), t.ruby, on_circle(middle, rim_radius_mm() * 1.12 * px, down) + QPointF(0, 12),
          word.arg(off, 0, 'f', 1), 0);
}

/// What hangs over beyond the stud, not bent to the spiral.
void SwingPicture::paint_overhang(QPointF middle, double px, double outer_mm, double over_deg) {
    QPainterPath out;
    constexpr int pieces = 12;
    for (int i = 0; i <= pieces; ++i) {
        const QPointF point = on_circle(middle, (outer_mm + 0.08 * outer_mm * i / pieces) * px, stud_deg + over_deg * i / pieces);
        if (i == 0) out.moveTo(point);
        else out.lineTo(point);
    }
    m_painter.setPen(QPen(inks(m_painter).blued, 1.3, Qt::DotLine));
    m_painter.setBrush(Qt::NoBrush);
    m_painter.drawPath(out);
}

void SwingPicture::point_at_balance(QPointF middle, double px) {
    const double rim = rim_radius_mm() * px;
    const double spring = whole_spring(*m_b) ? std::min(0.55 * rim, std::sqrt(whole_spring(*m_b)->length_mm) * 0.55 * px) : 0.5 * rim;
    const auto on = [&](double radius, double deg) { return on_circle(middle, radius, deg); };
    m_sizes.at("swing_deg", on(rim * 1.02, 62));
    m_sizes.group(words("screws"), on(rim * 1.04, 88), {"screws.mass_mg", "screws.radius_mm", "screws.pitch_mm"});
    m_sizes.group(words("stud and pins"), on(spring, 44), {"pins_to_stud_mm", "overhang_mm", "division_mm"});
    m_sizes.group(
        words("rim"), on(rim * 0.98, 12),
        {"wheel.rim_outside_mm", "wheel.rim_inside_mm", "wheel.rim_height_mm", "wheel.arm_width_mm", "wheel.hub_mm", "inertia_kg_m2"});
    m_sizes.group(words("spring"), on(spring, -24), {"spring.length_mm", "spring.width_mm", "spring.thickness_mm"});
    m_sizes.at("beat_error_ms", on(rim * 0.8, -88));
}

void SwingPicture::paint_balance() {
    double widest = rim_radius_mm() * 1.2;
    for (const BalanceScrews& pair : m_b->screws) widest = std::max(widest, pair.radius_mm * 1.12);
    constexpr double picture_share = 0.58, beside = 24;
    const double wide = m_room.width() * picture_share;
    const double px = std::min(wide / 2 - 14, m_room.height() / 2 - 70) / widest;
    const QPointF middle(m_room.left() + wide / 2, m_room.top() + widest * px + 28);
    const double angle = m_stand.swing * m_o.swing_deg.value_or(0);
    paint_rim(middle, angle, px);
    if (whole_spring(*m_b)) paint_spring(middle, angle, px);
    if (m_stand.swing == 0) paint_in_beat(middle, px);
    point_at_balance(middle, px);
    m_sizes.lay_out({QPointF(m_room.left() + wide + beside, m_room.top() + 20), m_room.bottomRight()});
    write_balance(middle, middle.y() + widest * px + 36);
}

/// What follows, large, under the balance.
void SwingPicture::write_balance(QPointF middle, double y) {
    const Theme& t = inks(m_painter);
    const double wide = 1.2 * (middle.x() - m_room.left());
    const auto figure = [&](const QString& value, const QString& name) {
        const double x = m_room.left() + 4;
        write(m_painter, type_to_fit(Type::head, true, value, wide), t.blued, {x, y}, value);
        write(m_painter, type(Type::note), t.steel, {x, y + 15}, elided(type(Type::note), name, wide));
        y += 44;
    };
    if (m_swings.balance) figure(words(print_inertia(m_swings.balance->inertia_kg_m2, 2)), words("inertia for the beats"));
    if (m_swings.balance && m_swings.balance->s_per_day_per_mm_of_spring)
        figure(words("%1 s/d").arg(*m_swings.balance->s_per_day_per_mm_of_spring, 0, 'f', 0), words("for 1 mm of spring"));
    if (m_swings.poise && m_swings.poise->poise_s_per_day)
        figure(words("± %1 s/d").arg(*m_swings.poise->poise_s_per_day, 0, 'f', 1), words("by want of poise"));
}

}  // namespace echappe
