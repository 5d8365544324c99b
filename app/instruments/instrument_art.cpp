#include "instruments/instrument_art.h"

#include "theme/theme.h"

namespace echappe {

void paint_calliper(QPainter& painter, QPointF at) {
    painter.setPen(QPen(theme().ink, 1.4));
    painter.setBrush(Qt::NoBrush);
    const QPointF beam[] = {at, at + QPointF(56, 0), at + QPointF(56, 6), at + QPointF(10, 6), at + QPointF(3, 22), at};
    painter.drawPolyline(beam, 6);
    const QPointF jaw[] = {at + QPointF(22, -3), at + QPointF(38, -3), at + QPointF(38, 9),
                           at + QPointF(27, 9),  at + QPointF(21, 22), at + QPointF(22, -3)};
    painter.drawPolyline(jaw, 6);
}

void paint_gauge(QPainter& painter, QPointF at) {
    painter.setPen(QPen(theme().ink, 1.4));
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(at + QPointF(10, 10), 8, 8);
    painter.drawRect(QRectF(at + QPointF(7, 7), QSizeF(6, 6)));
    painter.drawLine(at + QPointF(18, 10), at + QPointF(56, 10));
    painter.drawRect(QRectF(at + QPointF(44, 3), QSizeF(9, 14)));
}

void paint_reference(QPainter& painter, QPointF at) {
    painter.setPen(QPen(theme().ink, 1.4));
    painter.setBrush(Qt::NoBrush);
    const QPointF middle = at + QPointF(28, 10);
    painter.drawEllipse(middle, 17, 17);
    for (const QPointF& way : {QPointF(0, -1), QPointF(1, 0), QPointF(0, 1), QPointF(-1, 0)})
        painter.drawLine(middle + way * 13, middle + way * 17);
    painter.drawLine(middle, middle + QPointF(-5, -7));
    painter.drawLine(middle, middle + QPointF(3, -12));
}

}  // namespace echappe
