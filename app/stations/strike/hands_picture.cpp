#include "stations/strike/hands_picture.h"

#include <QPainterPath>
#include <algorithm>

#include "drawing/lettering.h"
#include "drawing/words.h"
#include "number/units.h"
#include "sheet/marks.h"
#include "theme/theme.h"

namespace echappe {
namespace {

// Behind the dial nothing is asked for its length: drawn as is usual, mm.
constexpr double plate_mm = 2.5, behind_mm = 17, dial_mm = 1.2, beyond_mm = 2.5;
constexpr double cannon_from = 4.5, cannon_wheel = 2, hour_from = 9.5, hour_wheel = 1.8;

/// Axis from left to right, mm from the front plate.
class Section {
public:
    Section(QPainter& painter, const QRectF& room, const DerivedHands& hands, Dimensions& sizes)
        : m_painter(painter), m_room(room), m_hands(hands), m_r(hands.drawn), m_t(inks(painter)), m_sizes(sizes) {
        const double wide = plate_mm + behind_mm + *m_r.glass_height_mm + beyond_mm;
        m_px = std::min(room.width() / wide, room.height() / (high_over_pipe * *m_r.hour_mm));
        m_left = room.center().x() - wide * m_px / 2;
        m_axis = room.top() + 0.6 * room.height();
    }
    void paint() {
        plates();
        motion_wheels();
        pipes();
        spring();
        hands();
        rooms();
        names();
        point();
    }

private:
    static constexpr double high_over_pipe = 3.5;
    QPainter& m_painter;
    QRectF m_room;
    const DerivedHands& m_hands;
    const HandsRecord& m_r;
    const Theme& m_t;
    Dimensions& m_sizes;
    double m_px = 1, m_left = 0, m_axis = 0;

    double x(double mm) const { return m_left + (plate_mm + mm) * m_px; }
    double dial() const { return behind_mm - dial_mm; }
    double over_dial(double mm) const { return x(behind_mm + mm); }

    void solid(const QRectF& at, const QColor& fill, const QColor& ink) {
        m_painter.setPen(QPen(ink, 1));
        m_painter.setBrush(fill);
        m_painter.drawRect(at);
    }
    void brass(const QRectF& at) { solid(at, m_t.pale_brass, m_t.brass); }
    /// A tube's wall above and below the axis.
    void wall(double from, double to, double bore, double outside) {
        const double high = (outside - bore) / 2 * m_px;
        brass({x(from), m_axis - outside / 2 * m_px, (to - from) * m_px, high});
        brass({x(from), m_axis + bore / 2 * m_px, (to - from) * m_px, high});
    }
    /// A disc on such a tube, cut.
    void disc(double from, double thick, double bore, double outside) { wall(from, from + thick, bore, outside); }

    void plates() {
        const double top = m_room.top() + 18;
        solid({x(-plate_mm), top, plate_mm * m_px, m_room.bottom() - top - 8}, m_t.pale_brass, m_t.brass);
        // The dial has room for the hour pipe.
        const double hole = (*m_r.hour_mm / 2 + 0.5) * m_px;
        solid({x(dial()), top, dial_mm * m_px, m_axis - hole - top}, m_t.sheet, m_t.ink);
        solid({x(dial()), m_axis + hole, dial_mm * m_px, m_room.bottom() - 8 - m_axis - hole}, m_t.sheet, m_t.ink);
        m_painter.setPen(QPen(m_t.steel, 2));
        m_painter.drawLine(QPointF(over_dial(*m_r.glass_height_mm), top), QPointF(over_dial(*m_r.glass_height_mm), m_room.bottom() - 8));
    }
    double cannon_wheel_mm() const { return *m_r.cannon_mm * 1.75; }
    double hour_wheel_mm() const { return *m_r.hour_mm * 1.9; }
    void motion_wheels() {
        // The minute wheel on its stud below, in mesh with both.
        const double stud = m_axis + (cannon_wheel_mm() / 2 + *m_r.cannon_mm * 0.55) * m_px, thick = 0.5 * *m_r.cannon_mm * m_px;
        solid({x(0), stud - thick * 0.28, (hour_from + hour_wheel + 1) * m_px, thick * 0.56}, m_t.steel, m_t.ink);
        const double reach = *m_r.cannon_mm * 0.55 * m_px;
        brass({x(cannon_from), stud - reach, cannon_wheel * m_px, 2 * reach});
        const double pinion = stud - (m_axis + hour_wheel_mm() / 2 * m_px);
        if (pinion > 0) brass({x(hour_from), stud - pinion, hour_wheel * m_px, 2 * pinion});
    }
    void pipes() {
        const double end = behind_mm + *m_r.minute_height_mm + *m_r.hand_thickness_mm + 1.4;
        solid({x(-plate_mm) - 6, m_axis - *m_r.arbor_mm / 2 * m_px, x(end) - x(-plate_mm) + 6, *m_r.arbor_mm * m_px}, m_t.steel, m_t.ink);
        wall(cannon_from, behind_mm + *m_r.minute_height_mm, *m_r.cannon_bore_mm, *m_r.cannon_mm);
        disc(cannon_from, cannon_wheel, *m_r.cannon_bore_mm, cannon_wheel_mm());
        wall(hour_from, behind_mm + *m_r.hour_height_mm, *m_r.hour_bore_mm, *m_r.hour_mm);
        disc(hour_from, hour_wheel, *m_r.hour_bore_mm, hour_wheel_mm());
    }
    void spring() {
        const std::string& kind = m_r.friction.kind;
        const double from = x(0) + 2, to = x(cannon_from) - 2, r = *m_r.cannon_mm * 0.8 * m_px;
        m_painter.setPen(QPen(m_t.blued, 2.2));
        m_painter.setBrush(Qt::NoBrush);
        for (const int side : {-1, 1}) {
            const double at = m_axis + side * *m_r.arbor_mm * 0.75 * m_px;
            if (kind == "coil") {
                for (int turn = 0; turn < 4; ++turn) m_painter.drawEllipse(QPointF(from + (turn + 0.5) * (to - from) / 4, at), 4, 4);
                continue;
            }
            if (kind == "pinched") continue;
            QPainterPath bow(QPointF(to, m_axis + side * *m_r.arbor_mm * 0.55 * m_px));
            bow.quadTo(QPointF(from - 2, m_axis + side * r * 0.7), QPointF(to - 3, m_axis + side * r));
            m_painter.drawPath(bow);
        }
        if (kind == "pinched")
            for (const int side : {-1, 1}) {
                // Pressed in at its middle onto the arbor.
                const double y = m_axis + side * *m_r.cannon_mm / 2 * m_px, at = x((cannon_from + hour_from) / 2 + 1.2);
                m_painter.drawPolyline(QPolygonF({{at - 8, y + side * 7}, {at, y - side * 2}, {at + 8, y + side * 7}}));
            }
    }
    void hands() {
        const double thick = std::max(2.0, *m_r.hand_thickness_mm * m_px), top = m_room.top();
        const auto hand = [&](double height, double bore, double reach) {
            const double at = over_dial(height), low = m_axis - bore / 2 * m_px;
            solid({at, top + reach, thick, low - top - reach}, m_t.blued, m_t.blued);
            solid({at, m_axis + bore / 2 * m_px, thick, 0.35 * bore * m_px}, m_t.blued, m_t.blued);
        };
        hand(*m_r.hour_height_mm, *m_r.hour_bore_mm + 0.4, 0.28 * (m_axis - top));
        hand(*m_r.minute_height_mm, *m_r.arbor_mm, 30);
        // Washer and taper pin hold it against the spring.
        const double at = over_dial(*m_r.minute_height_mm + *m_r.hand_thickness_mm);
        brass({at, m_axis - *m_r.arbor_mm * 0.95 * m_px, 0.5 * m_px, 2 * *m_r.arbor_mm * 0.95 * m_px});
        m_painter.setPen(QPen(m_t.ink, 3, Qt::SolidLine, Qt::RoundCap));
        m_painter.drawLine(QPointF(at + 0.9 * m_px, m_axis - *m_r.arbor_mm * 0.9 * m_px),
                           QPointF(at + 0.9 * m_px, m_axis + *m_r.arbor_mm * 0.9 * m_px));
    }
    QColor ink_of(const HandsRoom* room) const { return !room ? m_t.steel : room->right ? m_t.verdigris : m_t.ruby; }
    const HandsRoom* find(const std::vector<HandsRoom>& rooms, const char* between) const {
        const auto at = std::find_if(rooms.begin(), rooms.end(), [&](const HandsRoom& room) { return room.between == between; });
        return at == rooms.end() ? nullptr : &*at;
    }
    static QString figure(const HandsRoom* room) { return room ? words(print_fixed(room->mm, 2)) : QStringLiteral("?"); }

    void rooms() {
        const double thick = *m_r.hand_thickness_mm;
        const auto between = [&](const char* name, double from, double to, double y) {
            const HandsRoom* room = find(m_hands.heights, name);
            dimension_line(m_painter, {over_dial(from), y}, {over_dial(to), y}, ink_of(room), 5);
            on_paper(m_painter, type(Type::text, true), ink_of(room), {(over_dial(from) + over_dial(to)) / 2, y - 8}, figure(room));
        };
        const double top = m_room.top(), high = m_axis - top;
        between("dial and hour hand", 0, *m_r.hour_height_mm, top + 0.5 * high);
        between("hour and minute hand", *m_r.hour_height_mm + thick, *m_r.minute_height_mm, top + 0.38 * high);
        between("minute hand and glass", *m_r.minute_height_mm + thick, *m_r.glass_height_mm, top + 0.26 * high);
        const auto play = [&](const char* name, double at, double r, double y, double aside) {
            const HandsRoom* room = find(m_hands.pipes, name);
            const QPointF from(x(at), m_axis - r / 2 * m_px), to(x(at) - aside, y);
            m_painter.setPen(QPen(ink_of(room), 1.2));
            m_painter.drawLine(from, to);
            on_paper(m_painter, type(Type::text, true), ink_of(room), to - QPointF(0, 4), words("play %1").arg(figure(room)));
        };
        play("hour pipe on the cannon", 13.6, *m_r.cannon_mm, top + 0.46 * high, x(13.6) - x(dial()) + 36);
        play("cannon on the arbor", 8.4, *m_r.arbor_mm, top + 0.22 * high, 34);
    }
    /// Where the sizes are that are typed.
    void point() {
        const double top = m_room.top(), high = m_axis - top;
        m_sizes.at("arbor_mm", {x(-plate_mm) + 2, m_axis});
        m_sizes.at("end_shake_mm", {x(-plate_mm / 2), m_axis + *m_r.arbor_mm / 2 * m_px});
        m_sizes.at("cannon_bore_mm", {x(cannon_from + 0.4), m_axis - *m_r.cannon_bore_mm / 2 * m_px});
        m_sizes.at("cannon_mm", {x(cannon_from + cannon_wheel + 1), m_axis + *m_r.cannon_mm / 2 * m_px});
        m_sizes.at("hour_mm", {over_dial(*m_r.hour_height_mm * 0.5), m_axis - *m_r.hour_mm / 2 * m_px});
        m_sizes.at("hour_bore_mm", {over_dial(*m_r.hour_height_mm * 0.5), m_axis + *m_r.hour_bore_mm / 2 * m_px});
        m_sizes.at("hour_height_mm", {over_dial(*m_r.hour_height_mm), top + 0.56 * high});
        m_sizes.at("minute_height_mm", {over_dial(*m_r.minute_height_mm), top + 0.44 * high});
        m_sizes.at("hand_thickness_mm", {over_dial(*m_r.minute_height_mm + *m_r.hand_thickness_mm / 2), top + 34});
        m_sizes.at("glass_height_mm", {over_dial(*m_r.glass_height_mm), top + 0.2 * high});
    }
    void names() {
        const QFont font = type(Type::note);
        const double low = m_room.bottom() + 8;
        const auto name = [&](double at, const QString& text, int align = 0) { write(m_painter, font, m_t.steel, {at, low}, text, align); };
        name(x(-plate_mm / 2), words("front plate"));
        name(x(dial() + dial_mm / 2), words("dial"));
        name(over_dial(*m_r.glass_height_mm), words("glass"));
        name(x(9.6), words("minute wheel"));
        const double high = m_axis - cannon_wheel_mm() / 2 * m_px - 7;
        write(m_painter, font, m_t.brass_ink, {x(cannon_from + cannon_wheel / 2), high}, words("cannon"), 0);
        write(m_painter, font, m_t.brass_ink, {x(hour_from + hour_wheel / 2), m_axis - hour_wheel_mm() / 2 * m_px - 7}, words("hour wheel"),
              0);
        const double top = m_room.top();
        write(m_painter, font, m_t.blued, {over_dial(*m_r.minute_height_mm) + 10, top + 26}, words("minute hand"), -1);
        write(m_painter, font, m_t.blued, {x(dial()) - 8, top + 0.28 * (m_axis - top) + 10}, words("hour hand"), 1);
        scale_bar(m_painter, {m_room.left() + 4, low + 16}, m_px, 90);
    }
};

}  // namespace

void paint_hands_section(QPainter& painter, const QRectF& room, const DerivedHands& hands, Dimensions& sizes) {
    Section(painter, room, hands, sizes).paint();
}

void paint_hand_level(QPainter& painter, const QRectF& room, const HandsRecord& record, const DerivedHands& hands, Dimensions& sizes) {
    const Theme& t = inks(painter);
    const QPointF arbor(room.left() + 60, room.top() + 30), tip(room.left() + 0.52 * room.width(), arbor.y());
    const double reach = tip.x() - arbor.x();
    painter.setPen(QPen(t.blued, 1));
    painter.setBrush(t.blued);
    painter.drawPolygon(QPolygonF({arbor + QPointF(-26, -4), arbor + QPointF(0, -8), tip - QPointF(0, 1), tip + QPointF(0, 1),
                                   arbor + QPointF(0, 8), arbor + QPointF(-26, 4)}));
    painter.setBrush(t.sheet);
    painter.setPen(QPen(t.ink, 1.4));
    painter.drawEllipse(arbor, 7, 7);
    const HandsFrictionInput& in = record.friction;
    if (in.hand_centre_mm && in.hand_length_mm && *in.hand_length_mm > 0) {
        const QPointF centre = arbor + QPointF(reach * std::clamp(*in.hand_centre_mm / *in.hand_length_mm, 0.0, 1.0), 0);
        cross(painter, centre, 6, QPen(t.ink, 1.4));
    }
    painter.setPen(QPen(t.ink, 1));
    painter.drawLine(tip, tip + QPointF(0, 46));
    painter.setBrush(t.pale_brass);
    painter.setPen(QPen(t.brass, 1.2));
    painter.drawRect(QRectF(tip + QPointF(-11, 46), QSizeF(22, 20)));
    const double share = in.hand_centre_mm && in.hand_length_mm && *in.hand_length_mm > 0 ? *in.hand_centre_mm / *in.hand_length_mm : 0.3;
    const QPointF balance = arbor + QPointF(reach * std::clamp(share, 0.1, 0.9), 0);
    sizes.between("hand_length_mm", arbor + QPointF(0, -22), tip + QPointF(0, -22));
    sizes.between("hand_centre_mm", arbor + QPointF(0, 22), balance + QPointF(0, 22));
    sizes.in("hand_g", balance + QPointF(40, 28));
    write(painter, type(Type::note), t.steel, tip + QPointF(18, 62), words("slips at"));
    sizes.in("slips_at_g", tip + QPointF(104, 62));
    if (!hands.friction) return;
    const HandsFrictionResult& friction = *hands.friction;
    const QColor ink = friction.state == "right" ? t.verdigris : friction.state == "little" ? t.amber : t.ruby;
    const double x = room.left() + 0.62 * room.width();
    write(painter, type(Type::great, true), ink, {x, room.top() + 40}, words("%1 N mm").arg(words(print_fixed(friction.torque_N_mm, 2))),
          -1);
    if (friction.times)
        write(painter, type(Type::text), ink, {x, room.top() + 62},
              words("%1 times the hand's own; 1.5 to 2 is right").arg(words(print_fixed(*friction.times, 1))), -1);
}

}  // namespace echappe
