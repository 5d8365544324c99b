#pragma once

#include <QPainterPath>
#include <functional>

#include "job/derived.h"

namespace echappe {

/// Where a plate's millimetres lie on the screen. Mirrored: seen from behind.
struct PlateMap {
    double px_per_mm = 1;
    QPointF origin;  ///< of 0, 0: the middle of the lower edge
    bool mirrored = false;

    QPointF at(double x_mm, double y_mm) const {
        return {origin.x() + (mirrored ? -x_mm : x_mm) * px_per_mm, origin.y() - y_mm * px_per_mm};
    }
    /// A direction seen from the dial, as a unit step on the screen.
    QPointF way(double direction_deg) const;
};

namespace PlateArt {

/// The outline, as it lies on the screen.
QPainterPath outline(const Plate& plate, const PlateMap& map);
/// The plate and its holes fitted into a room; without an outline the holes alone.
PlateMap fitted(const Job& job, const Derived& derived, const QRectF& room, bool mirrored);
/// Which plate, and from where it is seen; shorter where there is less room.
QString title(bool behind, double room);
/// Outline and pillars.
void paint(QPainter& painter, const Job& job, const PlateMap& map);
/// A worn hole: where its first circle and the circle at its worn end enclose it; `walk` in px.
QPainterPath worn_hole(QPointF true_centre, double radius, QPointF walk);
/// The ink of a decision, and its mark: told apart by shape as well.
QColor ink(const std::string& decision, const Theme& inks);
/// What tells one small sign from another. Numbers, not words: with 500 holes the writing of names is felt.
struct Sign {
    enum Kind { spot, decision } kind;
    int variant;  ///< of its kind
    double radius;
    unsigned ink = 0;
};
/// Draws a small sign once and stamps it from then on: a plate may have hundreds of them.
void stamp(QPainter& painter, const Sign& sign, QPointF at, double reach, const std::function<void(QPainter&, QPointF)>& draw);
void mark(QPainter& painter, QPointF at, double radius, const std::string& decision, bool done);

/// Places labels beside points so that they do not lie over each other.
class Labels {
public:
    void keep_clear(const QRectF& box) { m_taken.push_back(box); }
    /// Top left corner for a label of this size near a point of this radius; none when there is no room.
    std::optional<QPointF> room_for(QPointF at, double radius, QSizeF size, const QRectF& within);

    /// A name and under it a word, beside the point where there is room, towards it; left out where there is none.
    void write_beside(QPainter& painter, QPointF at, double radius, const QRectF& within, const QString& name, const QColor& name_ink,
                      const QString& what, const QColor& what_ink);

private:
    std::vector<QRectF> m_taken;
};

}  // namespace PlateArt
}  // namespace echappe
