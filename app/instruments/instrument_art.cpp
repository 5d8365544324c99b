#include "instruments/instrument_art.h"

#include <QPolygonF>

#include "theme/theme.h"

namespace echappe {

void paint_calliper(QPainter& painter, QPointF at) {
    painter.setPen(QPen(inks(painter).ink, 1.4));
    painter.setBrush(Qt::NoBrush);
    // Upright, with a disc between the jaws: what it is for tells it apart at a glance.
    const QPointF top = at + QPointF(8, -14);
    painter.drawRect(QRectF(top, QSizeF(7, 50)));
    for (int line = 0; line < 8; ++line) painter.drawLine(top + QPointF(4, 24 + 3 * line), top + QPointF(7, 24 + 3 * line));
    const auto jaw = [&](double y, double towards) {
        painter.setBrush(inks(painter).sheet);
        const QPointF edge = top + QPointF(7, y);
        painter.drawPolygon(QPolygonF({edge, edge + QPointF(32, 0), edge + QPointF(24, towards * 5), edge + QPointF(0, towards * 9)}));
    };
    painter.setPen(QPen(inks(painter).brass, 1.4));
    painter.setBrush(inks(painter).pale_brass);
    painter.drawEllipse(top + QPointF(26, 18.5), 9.5, 9.5);
    painter.setPen(QPen(inks(painter).ink, 1.4));
    jaw(9, -1);
    jaw(28, 1);
}

void paint_gauge(QPainter& painter, QPointF at) {
    painter.setPen(QPen(inks(painter).ink, 1.4));
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(at + QPointF(10, 10), 8, 8);
    painter.drawRect(QRectF(at + QPointF(7, 7), QSizeF(6, 6)));
    painter.drawLine(at + QPointF(18, 10), at + QPointF(56, 10));
    painter.drawRect(QRectF(at + QPointF(44, 3), QSizeF(9, 14)));
}

void paint_reference(QPainter& painter, QPointF at) {
    painter.setPen(QPen(inks(painter).ink, 1.4));
    painter.setBrush(Qt::NoBrush);
    const QPointF middle = at + QPointF(28, 10);
    painter.drawEllipse(middle, 17, 17);
    for (const QPointF& way : {QPointF(0, -1), QPointF(1, 0), QPointF(0, 1), QPointF(-1, 0)})
        painter.drawLine(middle + way * 13, middle + way * 17);
    painter.drawLine(middle, middle + QPointF(-5, -7));
    painter.drawLine(middle, middle + QPointF(3, -12));
}

}  // namespace echappe
