#include "sheet/marks.h"

#include <QFontMetricsF>
#include <QLineF>
#include <cmath>

namespace echappe {

void tick_box(QPainter& painter, QPointF top_left, Column::Tick tick) {
    constexpr double box = 14;
    const Theme& t = inks(painter);
    const QRectF at(top_left, QSizeF(box, box));
    painter.setPen(QPen(tick == Column::Tick::open ? t.steel : t.verdigris, 1.4));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(at);
    if (tick == Column::Tick::done) tick_mark(painter, at.center(), box * 0.34, t.verdigris);
    if (tick == Column::Tick::passed) painter.drawLine(at.center() - QPointF(4, 0), at.center() + QPointF(4, 0));
}

void tick_mark(QPainter& painter, QPointF middle, double size, const QColor& ink) {
    painter.setPen(QPen(ink, 2.4));
    painter.drawPolyline(QPolygonF({middle + QPointF(-size, 0), middle + QPointF(-size * 0.2, size * 0.8), middle + QPointF(size, -size)}));
}

void cross(QPainter& painter, QPointF at, double size, const QPen& pen) {
    painter.setPen(pen);
    painter.drawLine(at - QPointF(size, 0), at + QPointF(size, 0));
    painter.drawLine(at - QPointF(0, size), at + QPointF(0, size));
}

QRectF on_paper(QPainter& painter, const QFont& font, const QColor& ink, QPointF middle, const QString& words) {
    const double half = width_of(font, words) / 2 + 4;
    const double high = QFontMetricsF(font).capHeight() + 10;
    const QRectF piece(middle.x() - half, middle.y() - high + 5, 2 * half, high);
    QColor paper = inks(painter).sheet;
    paper.setAlphaF(0.88f);
    painter.fillRect(piece, paper);
    write(painter, font, ink, middle, words, 0);
    return piece;
}

void dimension_line(QPainter& painter, QPointF from, QPointF to, const QColor& ink, double stroke) {
    painter.setPen(QPen(ink, 1));
    painter.drawLine(from, to);
    const QLineF along(from, to);
    const QPointF across = along.length() > 0
                               ? QPointF(along.normalVector().unitVector().dx(), along.normalVector().unitVector().dy()) * stroke
                               : QPointF(0, stroke);
    for (const QPointF& end : {from, to}) painter.drawLine(end - across, end + across);
}

void dimension(QPainter& painter, QPointF from, QPointF to, const QString& words, const QColor& ink) {
    dimension_line(painter, from, to, ink);
    const QFont font = type(Type::text, true);
    const double wide = width_of(font, words) + 12;
    const QPointF middle = (from + to) / 2;
    painter.fillRect(QRectF(middle.x() - wide / 2, middle.y() - 8, wide, 16), inks(painter).ground);
    write(painter, font, ink, middle + QPointF(0, 4), words, 0);
}

double round_below(double most) {
    const double power = std::pow(10, std::floor(std::log10(most)));
    return most >= 5 * power ? 5 * power : most >= 2 * power ? 2 * power : power;
}

void scale_bar(QPainter& painter, QPointF from, double px_per_mm, double longest_px) {
    const double mm = round_below(longest_px / px_per_mm);
    const QPointF to = from + QPointF(mm * px_per_mm, 0);
    painter.setPen(QPen(inks(painter).ink, 1.4));
    painter.drawLine(from, to);
    for (const QPointF& end : {from, to}) painter.drawLine(end - QPointF(0, 4), end + QPointF(0, 4));
    write(painter, type(Type::note), inks(painter).ink, (from + to) / 2 - QPointF(0, 8), QString::number(mm) + " mm", 0);
}

}  // namespace echappe
