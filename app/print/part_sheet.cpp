#include "print/part_sheet.h"

#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "drawing/canvas.h"

namespace echappe {

void write_head(Sheet& sheet, const Job& job) {
    sheet.text(20, 20, 16, QString::fromStdString(job.title), true);
    sheet.text(20, 27, 9, QString("Job %1 · %2").arg(QString::fromStdString(job.number), QString::fromStdString(job.workshop)));
}

void check_scales(Sheet& sheet) {
    constexpr double x = 20, y = 270;
    sheet.line(x, y, x + 100, y, 0.25);
    sheet.line(x, y, x, y - 100, 0.25);
    for (int mm = 0; mm <= 100; ++mm) {
        const double tick = mm % 10 == 0 ? 3 : mm % 5 == 0 ? 2 : 1;
        sheet.line(x + mm, y, x + mm, y + tick, 0.1);
        sheet.line(x, y - mm, x - tick, y - mm, 0.1);
    }
    sheet.text(x, y + 8, 8, "100 mm in both directions: measure both before you trust the drawing.");
}

Printout part_sheet(const Job& job, const QString& name, const Drawing& drawing, const QList<PrintedSize>& sizes) {
    return {name, QPageSize::A4, QPageLayout::Portrait, [job, drawing, sizes](Sheet& sheet) {
                write_head(sheet, job);
                sheet.text(20, 38, 13, QString::fromStdString(drawing.title), true);
                double y = 46;
                for (const PrintedSize& size : sizes) {
                    if (size.name.isEmpty()) {
                        y += sheet.wrapped(20, y, 100, 9, size.value, true) + 1;
                        continue;
                    }
                    sheet.text(20, y, 9, size.name);
                    sheet.text(78, y, 11, QString("%1 %2").arg(size.value, size.unit), true);
                    y += 6;
                }
                QPainterPath path;
                for (const DrawingLayer& layer : drawing.layers) {
                    for (const auto& outline : layer.outlines) {
                        QPolygonF polygon;
                        for (const Point& p : outline) polygon << QPointF(p[0], p[1]);
                        path.addPolygon(polygon);
                        path.closeSubpath();
                    }
                    for (const auto& circle : layer.circles)
                        path.addEllipse(QPointF(circle.centre[0], circle.centre[1]), circle.radius_mm, circle.radius_mm);
                }
                const QRectF box = path.boundingRect();
                // At its true size beside the figures, or under them where it is large.
                constexpr double edge = 196, beside = 112;
                const double x = std::max(20 - box.left(), edge - box.right());
                const double base = (x + box.left() > beside ? 46 : y + 6) + box.bottom();
                sheet.outline(path, x, base, 1);
                sheet.text(edge - 16, base - box.top() + 8, 9, "1 : 1");
                check_scales(sheet);
                sheet.text(20, 287, 8, "Wear eye protection; no gloves at rotating spindles.");
            }};
}

}  // namespace echappe
