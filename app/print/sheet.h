#pragma once

#include <QPainter>
#include <QPdfWriter>
#include <functional>

#include "theme/theme.h"

namespace echappe {

inline constexpr int dots_per_inch = 1200;  ///< 0.02 mm steps; outlines are vectors and finer
inline const QColor black(Qt::black);

/// Paints in mm, y downwards, with fonts in points.
class Sheet {
public:
    explicit Sheet(QPdfWriter& writer) : painter(&writer), px(writer.logicalDpiX() / 25.4) {
        painter.setRenderHint(QPainter::Antialiasing);
    }
    QPainter painter;
    double px;

    QPointF at(double x, double y) const { return {x * px, y * px}; }
    void line(double x1, double y1, double x2, double y2, double mm = 0.15) {
        painter.setPen(QPen(black, mm * px));
        painter.drawLine(at(x1, y1), at(x2, y2));
    }
    void text(double x, double y, double points, const QString& words, bool bold = false) {
        painter.setFont(paper_font(points, bold));
        painter.setPen(black);
        painter.drawText(at(x, y), words);
    }
    /// How wide words are, mm.
    double wide(const QString& words, double points, bool bold = false) {
        return QFontMetricsF(paper_font(points, bold), painter.device()).horizontalAdvance(words) / px;
    }
    /// As much of the words as a width holds.
    QString fitted(const QString& words, double points, double mm) {
        return QFontMetricsF(paper_font(points), painter.device()).elidedText(words, Qt::ElideRight, mm * px);
    }
    void outline(const QPainterPath& path, double x, double y, double scale) {
        painter.save();
        painter.translate(at(x, y));
        painter.scale(px * scale, -px * scale);
        QPen pen(black, 0.12 * px);
        pen.setCosmetic(true);
        painter.setPen(pen);
        painter.setBrush(Qt::NoBrush);
        painter.drawPath(path);
        painter.restore();
    }
    void circle(double x, double y, double radius) {
        QPen pen(black, 0.1 * px);
        pen.setDashPattern({12, 5, 3, 5});
        painter.setPen(pen);
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(at(x, y), radius * px, radius * px);
    }
};

/// Writes a PDF, whole or not at all: beside the place first. Throws InputError when it cannot be written.
void write_pdf(const QString& path, const QString& title, QPageSize::PageSizeId size, QPageLayout::Orientation way,
               const std::function<void(Sheet&, QPdfWriter&)>& paint);

}  // namespace echappe
