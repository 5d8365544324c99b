#include "print/picture_sheet.h"

#include <algorithm>

namespace echappe {
namespace {

constexpr double margin_mm = 12, top_mm = 20, foot_mm = 12;

void print_picture(Sheet& sheet, const QString& name, const std::function<void(QPainter&)>& draw, QSizeF size) {
    sheet.text(margin_mm, 14, 15, name, true);
    const QSizeF room(sheet.width_mm() - 2 * margin_mm, sheet.height_mm() - top_mm - foot_mm);
    const double mm_a_pixel = std::min(room.width() / size.width(), room.height() / size.height());
    sheet.painter.save();
    sheet.painter.translate(sheet.at(margin_mm, top_mm));
    sheet.painter.scale(mm_a_pixel * sheet.px, mm_a_pixel * sheet.px);
    sheet.painter.setClipRect(QRectF(QPointF(), size));
    draw(sheet.painter);
    sheet.painter.restore();
}

/// How wide each column is, mm: by its longest word, the last takes what is left over.
QList<double> columns_of(Sheet& sheet, const PrintTable& table, double points) {
    QList<double> wide;
    for (const QStringList& row : table.rows)
        for (qsizetype i = 0; i < row.size(); ++i) {
            if (i >= wide.size()) wide << 0;
            wide[i] = std::max(wide[i], sheet.wide(row[i], points, &row == &table.rows.front()) + 5);
        }
    const double room = sheet.width_mm() - 2 * margin_mm;
    double sum = 0;
    for (const double one : wide) sum += one;
    // Where they are wider than the paper they give way alike, and their words wrap.
    if (sum > room)
        for (double& one : wide) one *= room / sum;
    return wide;
}

void print_table(Sheet& sheet, const PrintTable& table, double& y) {
    constexpr double points = 9;
    const double last = sheet.height_mm() - foot_mm;
    const auto room_for = [&](double mm) {
        if (y + mm <= last) return;
        sheet.next_page();
        y = top_mm;
    };
    if (table.rows.size() < 2) return;
    room_for(20);
    sheet.text(margin_mm, y, 11, table.title, true);
    y += 6;
    const QList<double> wide = columns_of(sheet, table, points);
    for (const QStringList& row : table.rows) {
        room_for(10);
        double x = margin_mm, high = 0;
        for (qsizetype i = 0; i < row.size(); ++i) {
            high = std::max(high, sheet.wrapped(x, y, wide[i] - 2, points, row[i], &row == &table.rows.front()));
            x += wide[i];
        }
        y += high + 1.2;
        sheet.line(margin_mm, y - 3.4, x, y - 3.4, 0.08);
    }
    y += 6;
}

}  // namespace

Printout picture_sheet(const QString& name, const std::function<void(QPainter&)>& draw, QSizeF size, const QList<PrintTable>& tables) {
    return {name, QPageSize::A4, QPageLayout::Landscape, [=](Sheet& sheet) {
                print_picture(sheet, name, draw, size);
                if (tables.isEmpty()) return;
                sheet.next_page();
                double y = top_mm;
                for (const PrintTable& table : tables) print_table(sheet, table, y);
            }};
}

}  // namespace echappe
