#include "drawing/plate_art.h"

#include <QPainter>
#include <QPixmap>
#include <algorithm>
#include <cmath>
#include <map>
#include <tuple>

#include "drawing/canvas.h"
#include "drawing/dots.h"
#include "number/constants.h"
#include "theme/theme.h"

namespace echappe {

QPointF PlateMap::way(double direction_deg) const {
    const double a = direction_deg * pi / 180;
    return {(mirrored ? -1 : 1) * std::cos(a), -std::sin(a)};
}

namespace PlateArt {

QPainterPath outline(const Plate& plate, const PlateMap& map) {
    const QRectF box = QRectF(map.at(-plate.width_mm / 2, plate.height_mm), map.at(plate.width_mm / 2, 0)).normalized();
    QPainterPath path;
    if (plate.shape == "round") {
        const double radius = std::min(box.width(), box.height()) / 2;
        path.addEllipse(box.center(), radius, radius);
        return path;
    }
    if (plate.shape != "arched") {
        QPolygonF edge;
        for (const auto& [x, y] : outline_of(plate)) edge << map.at(x, y);
        path.addPolygon(edge);
        path.closeSubpath();
        return path;
    }
    const double arch = std::min(box.width() * 0.24, box.height() * 0.2);
    path.moveTo(box.bottomLeft());
    path.lineTo(box.left(), box.top() + arch);
    path.quadTo(box.topLeft(), {box.left() + arch, box.top()});
    path.lineTo(box.right() - arch, box.top());
    path.quadTo(box.topRight(), {box.right(), box.top() + arch});
    path.lineTo(box.bottomRight());
    path.closeSubpath();
    return path;
}

PlateMap fitted(const Job& job, const Derived& derived, const QRectF& room, bool mirrored) {
    double left = 0, right = 1, bottom = 0, top = 1;
    if (job.train.plate) {
        left = -job.train.plate->width_mm / 2;
        right = job.train.plate->width_mm / 2;
        top = job.train.plate->height_mm;
    }
    const double around_mm = std::min(6.0, (right - left) / 8);
    for (const DerivedArbor& arbor : derived.train.arbors) {
        left = std::min(left, arbor.x_mm - around_mm);
        right = std::max(right, arbor.x_mm + around_mm);
        bottom = std::min(bottom, arbor.y_mm - around_mm);
        top = std::max(top, arbor.y_mm + around_mm);
    }
    PlateMap map;
    map.mirrored = mirrored;
    map.px_per_mm = std::max(0.05, std::min(room.width() / (right - left), room.height() / (top - bottom)));
    const double middle = (left + right) / 2 * (mirrored ? -1 : 1);
    map.origin = {room.center().x() - middle * map.px_per_mm, room.center().y() + (top + bottom) / 2 * map.px_per_mm};
    return map;
}

QString title(bool behind, double room) {
    constexpr double roomy = 270;
    if (!behind) return room < roomy ? "FRONT, from the dial" : "FRONT PLATE, seen from the dial";
    return room < roomy ? "BACK, from behind (mirrored)" : "BACK PLATE, seen from behind (mirrored)";
}

void paint(QPainter& painter, const Job& job, const PlateMap& map) {
    if (!job.train.plate) return;
    const Theme& t = inks(painter);
    // Dashed: of a usual size, nobody measured it.
    painter.setPen(QPen(job.train.plate->assumed ? t.steel : t.rule, 1, job.train.plate->assumed ? Qt::DashLine : Qt::SolidLine));
    painter.setBrush(t.sheet);
    painter.drawPath(outline(*job.train.plate, map));
    // Cocks and bridges are on the back plate: through the front one they are seen as dashes.
    painter.setBrush(map.mirrored ? QBrush(t.ground) : QBrush(Qt::NoBrush));
    painter.setPen(QPen(t.brass, 1, map.mirrored ? Qt::SolidLine : Qt::DotLine));
    for (const Cock& cock : job.train.plate->cocks) {
        QPolygonF edge;
        for (const auto& [x, y] : cock.corners) edge << map.at(x, y);
        painter.drawPolygon(edge);
        if (!edge.isEmpty()) write(painter, type(Type::note), t.steel, edge.boundingRect().center(), words(cock.name), 0);
    }
    painter.setBrush(t.ground);
    painter.setPen(QPen(t.steel, 0.8));
    const double radius = job.train.plate->pillar_mm / 2 * map.px_per_mm;
    for (const auto& pillar : job.train.plate->pillars) painter.drawEllipse(map.at(pillar[0], pillar[1]), radius, radius);
}

QPainterPath worn_hole(QPointF centre, double radius, QPointF walk) {
    QPainterPath path;
    path.addEllipse(centre, radius, radius);
    const double length = std::hypot(walk.x(), walk.y());
    if (length < 0.01) return path;
    const QPointF side(-walk.y() / length * radius, walk.x() / length * radius);
    QPainterPath between;
    between.addPolygon(QPolygonF({centre + side, centre + walk + side, centre + walk - side, centre - side}));
    between.closeSubpath();
    QPainterPath end;
    end.addEllipse(centre + walk, radius, radius);
    return path.united(between).united(end).simplified();
}

QColor ink(const std::string& decision, const Theme& t) {
    if (decision == "leave") return t.verdigris;
    if (decision == "clean" || decision == "close") return t.amber;
    return decision.empty() ? t.steel : t.ruby;
}

namespace {

void draw_mark(QPainter& painter, QPointF at, double r, const std::string& decision, bool done) {
    const Theme& t = inks(painter);
    const QColor colour = done ? t.steel : ink(decision, t);
    painter.setPen(QPen(colour, decision.empty() ? 1 : 1.8, decision.empty() ? Qt::DotLine : Qt::SolidLine));
    painter.setBrush(Qt::NoBrush);
    if (decision == "plug") painter.drawRect(QRectF(at.x() - r, at.y() - r, 2 * r, 2 * r));
    else painter.drawEllipse(at, r, r);
    painter.setBrush(decision.empty() ? t.sheet : t.steel);
    painter.setPen(QPen(t.ink, 0.7));
    painter.drawEllipse(at, r * 0.5, r * 0.5);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(colour, 1.8));
    if (decision == "bush") painter.drawEllipse(at, r + 3, r + 3);
    if (decision == "close")
        for (int i = 0; i < 4; ++i) {
            const double a = pi / 4 + i * pi / 2;
            const QPointF way(std::cos(a), std::sin(a));
            painter.drawLine(at + way * (r + 5), at + way * (r + 1));
        }
    if (decision == "clean") painter.drawArc(QRectF(at.x() - r - 4, at.y() - r - 4, 2 * r + 8, 2 * r + 8), 30 * 16, 120 * 16);
    if (decision == "repivot-first") {
        painter.drawLine(at + QPointF(-r - 3, -r - 3), at + QPointF(r + 3, r + 3));
        painter.drawLine(at + QPointF(-r - 3, r + 3), at + QPointF(r + 3, -r - 3));
    }
    if (done) {
        painter.setPen(QPen(t.ink, 2.2));
        painter.drawLine(at + QPointF(-r - 7, r + 5), at + QPointF(r + 7, -r - 5));
    }
}

}  // namespace

void stamp(QPainter& painter, const Sign& sign, QPointF at, double reach, const std::function<void(QPainter&, QPointF)>& draw) {
    if (!for_screen(painter)) {
        painter.save();
        draw(painter, at);
        painter.restore();
        return;
    }
    constexpr double fine = 64;  ///< sizes a 64th of a pixel apart are told apart
    constexpr size_t most = 2000;
    using Key = std::tuple<int, int, int, unsigned, int, bool>;
    static std::map<Key, QPixmap> stamps;
    const double ratio = dots_in_pixel(painter);
    const Key key{sign.kind,         sign.variant, static_cast<int>(sign.radius * fine), sign.ink, static_cast<int>(ratio * fine),
                  inks(painter).dark};
    const int size = static_cast<int>(std::ceil(2 * reach));
    if (stamps.size() > most) stamps.clear();
    QPixmap& picture = stamps[key];
    if (picture.isNull()) {
        picture = QPixmap(QSize(size, size) * ratio);
        picture.setDevicePixelRatio(ratio);
        picture.fill(Qt::transparent);
        QPainter into(&picture);
        into.setRenderHint(QPainter::Antialiasing);
        draw(into, {size / 2.0, size / 2.0});
    }
    painter.drawPixmap(at - QPointF(size / 2.0, size / 2.0), picture);
}

void mark(QPainter& painter, QPointF at, double r, const std::string& decision, bool done) {
    const auto& known = hole_decisions();
    const auto which = static_cast<int>(std::find(known.begin(), known.end(), decision) - known.begin());
    stamp(painter, {Sign::decision, 2 * which + (done ? 1 : 0), r}, at, r + 10,
          [&](QPainter& into, QPointF middle) { draw_mark(into, middle, r, decision, done); });
}

std::optional<QPointF> Labels::room_for(QPointF at, double radius, QSizeF size, const QRectF& within) {
    const double away = radius + 7;
    const QPointF places[] = {{away, -size.height() / 2},
                              {-away - size.width(), -size.height() / 2},
                              {-size.width() / 2, -away - size.height()},
                              {-size.width() / 2, away},
                              {away, -size.height() - 4},
                              {away, 4},
                              {-away - size.width(), -size.height() - 4},
                              {-away - size.width(), 4}};
    for (const QPointF& place : places) {
        const QRectF box(at + place, size);
        if (!within.contains(box) ||
            std::any_of(m_taken.begin(), m_taken.end(), [&](const QRectF& taken) { return taken.intersects(box); }))
            continue;
        m_taken.push_back(box);
        return box.topLeft();
    }
    return {};
}

void Labels::write_beside(QPainter& painter, QPointF at, double radius, const QRectF& within, const QString& name, const QColor& name_ink,
                          const QString& what, const QColor& what_ink) {
    const QFont bold = type(Type::note, true);
    const QFont plain = type(Type::note);
    constexpr double widest = 130;
    const QString shown = elided(bold, name, widest);
    const double wide = std::max(width_of(bold, shown), width_of(plain, what));
    const auto corner = room_for(at, radius, QSizeF(wide, 26), within);
    if (!corner) return;
    const bool left_of = corner->x() + wide <= at.x();
    const double x = left_of ? corner->x() + wide : corner->x();
    write(painter, bold, name_ink, {x, corner->y() + 11}, shown, left_of ? 1 : -1);
    write(painter, plain, what_ink, {x, corner->y() + 24}, what, left_of ? 1 : -1);
}

}  // namespace PlateArt
}  // namespace echappe
