#include "stations/strike/alarm_picture.h"

#include <QTransform>
#include <algorithm>
#include <cmath>

#include "drawing/lettering.h"
#include "drawing/words.h"
#include "number/units.h"
#include "sheet/marks.h"
#include "strike/scheme.h"
#include "theme/theme.h"

namespace echappe {
namespace {

/// The follower's lever: its arbor at the right, its nose over the cam's top.
void paint_follower(QPainter& painter, QPointF nose, double nose_px, double reach, bool fallen) {
    const Theme& t = inks(painter);
    const QPointF arbor(nose.x() + reach, nose.y() - 0.16 * reach), knee(nose.x(), nose.y() - 0.2 * reach);
    for (const auto& [ink, wide] : {std::pair{t.ink, 9.0}, {t.steel, 7.0}}) {
        painter.setPen(QPen(ink, wide, Qt::SolidLine, Qt::RoundCap, Qt::MiterJoin));
        painter.drawLine(arbor, knee);
        painter.setPen(QPen(ink, wide - 2, Qt::SolidLine, Qt::FlatCap));
        painter.drawLine(knee, nose - QPointF(0, nose_px));
    }
    painter.setPen(QPen(fallen ? t.verdigris : t.ink, 1.4));
    painter.setBrush(t.steel);
    painter.drawEllipse(nose - QPointF(0, nose_px), std::max(2.5, nose_px), std::max(2.5, nose_px));
    painter.setPen(QPen(t.ink, 1.4));
    painter.setBrush(t.sheet);
    painter.drawEllipse(arbor, 5, 5);
}

QPolygonF outline_of(const TimeCamResult& cam, double px) {
    QPolygonF out;
    for (const Point& p : cam.outline) out << QPointF(p[0] * px, -p[1] * px);
    return out;
}

void paint_strip(QPainter& painter, const QRectF& strip, const TimeCamInput& in, double from, double now, const QColor& ink) {
    const Theme& t = inks(painter);
    QPolygonF line;
    constexpr int pieces = 720;
    for (int i = 0; i <= pieces; ++i) {
        const double hour = from + in.turn_h * i / pieces, up = 1 - fallen_mm(in, hour - in.falls_h.front()) / in.drop_mm;
        line << QPointF(strip.left() + strip.width() * i / pieces, strip.bottom() - up * strip.height());
    }
    painter.setPen(QPen(t.steel, 0.8));
    painter.drawLine(strip.bottomLeft(), strip.bottomRight());
    painter.setPen(QPen(ink, 2));
    painter.drawPolyline(line);
    const double part = std::fmod(std::fmod(now - from, in.turn_h) + in.turn_h, in.turn_h) / in.turn_h;
    painter.setPen(QPen(t.blued, 1.4));
    painter.drawLine(QPointF(strip.left() + part * strip.width(), strip.top() - 6),
                     QPointF(strip.left() + part * strip.width(), strip.bottom() + 4));
}

void write_hours(QPainter& painter, const QRectF& strip, double turn_h, double from) {
    const int each = turn_h > 12 ? 3 : 1;
    for (int i = 0; i < static_cast<int>(turn_h); i += each) {
        const double hour = std::fmod(from + i - 1 + turn_h, turn_h) + 1;
        write(painter, type(Type::note), inks(painter).steel, {strip.left() + strip.width() * i / turn_h, strip.bottom() + 18},
              words(print_short(hour, 4)), 0);
    }
}

}  // namespace

void paint_alarm_cam(QPainter& painter, const QRectF& room, const DerivedAlarm& alarm, double set_h, double hour, Dimensions& sizes) {
    const Theme& t = inks(painter);
    const TimeCamInput& in = alarm.cam_input;
    const double high_mm = 2 * in.radius_mm + in.radius_mm, px = std::min(room.height() / high_mm, room.width() / (4 * in.radius_mm));
    const QPointF middle(room.left() + 0.4 * room.width(), room.bottom() - in.radius_mm * px - 10);
    const double since = hour - set_h;
    // What the follower meets stands at the top; the cam goes clockwise.
    QTransform stands;
    stands.translate(middle.x(), middle.y());
    stands.rotate(since / in.turn_h * 360 - 90);
    painter.setPen(QPen(t.brass, 1));
    painter.setBrush(t.pale_brass);
    painter.drawPolygon(stands.map(outline_of(*alarm.cam, px)));
    painter.setBrush(t.ground);
    painter.drawEllipse(middle, std::max(4.0, in.bore_mm / 2 * px), std::max(4.0, in.bore_mm / 2 * px));
    const double r = (in.radius_mm - fallen_mm(in, since)) * px;
    paint_follower(painter, middle - QPointF(0, r), in.nose_mm * px, 1.5 * in.radius_mm * px, lets_go(in, since));
    // How far it falls.
    const double at = middle.x() - in.radius_mm * px - 26;
    dimension_line(painter, {at, middle.y() - in.radius_mm * px}, {at, middle.y() - (in.radius_mm - in.drop_mm) * px}, t.steel);
    sizes.in("drop_mm", {at - 34, middle.y() - (in.radius_mm - in.drop_mm / 2) * px + 4});
    const double top = middle.y() - r;
    sizes.at("force_N", {middle.x() + in.radius_mm * px, top - 0.24 * in.radius_mm * px});
    sizes.at("nose_mm", {middle.x() + 3, top - in.nose_mm * px});
    sizes.at("radius_mm", middle + in.radius_mm * px * QPointF(0.87, -0.5));
    sizes.group(words("bore and setting"), middle + QPointF(std::max(4.0, in.bore_mm / 2 * px), 0), {"bore_mm", "play_deg", "holds_N_mm"});
    sizes.group(words("lets go"), middle + QPointF(6, -(in.radius_mm - in.drop_mm) * px * 0.9), {"set_h", "edge_deg"});
    scale_bar(painter, {room.left() + 4, room.bottom() - 2}, px, 90);
}

QRectF paint_alarm_day(QPainter& painter, const QRectF& room, const DerivedAlarm& alarm, double set_h, double hour) {
    const Theme& t = inks(painter);
    TimeCamInput in = alarm.cam_input;
    for (double& fall : in.falls_h) fall += set_h;
    const QRectF strip(room.left() + 8, room.top() + 26, room.width() - 16, alarm.silent ? 30 : 54);
    paint_strip(painter, strip, in, 1, hour, t.brass);
    write_hours(painter, strip, in.turn_h, 1);
    // When it may let go: late by the edge, either way by the play.
    const double error_h = (alarm.cam->late_min + alarm.cam->play_min) / 60;
    const double set = std::fmod(set_h - 1 + in.turn_h, in.turn_h) / in.turn_h, wide = std::max(3.0, error_h / in.turn_h * strip.width());
    painter.fillRect(QRectF(strip.left() + set * strip.width(), strip.top() - 8, wide, 5), t.ruby);
    if (alarm.silent) {
        const QRectF night(strip.left(), strip.bottom() + 46, strip.width(), 30);
        paint_strip(painter, night, alarm.silent_input, 0, hour, t.steel);
        for (int h = 0; h < 24; h += 3)
            write(painter, type(Type::note), t.steel, {night.left() + night.width() * h / 24, night.bottom() + 18}, QString::number(h), 0);
        write(painter, type(Type::note), t.steel, {night.right(), night.top() - 8}, words("up: the strike is silent, hours of 24"), 1);
    }
    return strip;
}

}  // namespace echappe
