#pragma once

#include <QPageLayout>
#include <QPageSize>
#include <QPagedPaintDevice>
#include <QPainter>
#include <functional>
#include <vector>

#include "theme/theme.h"

class QPrinter;

namespace echappe {

inline constexpr int dots_per_inch = 1200;  ///< 0.02 mm steps; outlines are vectors and finer
inline const QColor black(Qt::black);

/// Pages of paper. Paints in mm, y downwards, with fonts in points; each page tells whose it is and which.
class Sheet {
public:
    /// `turns_paper`: whether a page may lie otherwise than the one before; else its picture is turned on the paper there is.
    Sheet(QPagedPaintDevice& device, const QString& running_title, bool turns_paper);
    QPainter painter;
    double px;

    /// The next page, as large as this one; painting begins at its top.
    void next_page();
    /// The same in another form of paper.
    void next_page(QPageSize::PageSizeId size, QPageLayout::Orientation way);
    double width_mm() const;
    double height_mm() const;

    QPointF at(double x, double y) const { return {x * px, y * px}; }
    void line(double x1, double y1, double x2, double y2, double mm = 0.15);
    void text(double x, double y, double points, const QString& words, bool bold = false);
    /// As many lines as the words need in a width, the first one's baseline at y; how high they stand, mm.
    double wrapped(double x, double y, double width, double points, const QString& words, bool bold = false);
    /// How wide words are, mm.
    double wide(const QString& words, double points, bool bold = false);
    void outline(const QPainterPath& path, double x, double y, double scale);
    void circle(double x, double y, double radius);

private:
    void number_page();
    QPagedPaintDevice& m_device;
    QString m_running_title;
    bool m_turns_paper;
    bool m_turned = false;  ///< this page, on paper that lies the other way
    int m_page = 0;
};

/// Something that can be printed: a name for its file, how its paper lies, and who paints it, from the first page on.
struct Printout {
    QString name;
    QPageSize::PageSizeId size = QPageSize::A4;
    QPageLayout::Orientation way = QPageLayout::Portrait;
    std::function<void(Sheet&)> paint;
};

/// All of them, one after the other, into one PDF, whole or not at all. Throws InputError when it cannot be written.
void write_pdf(const QString& path, const QString& title, const std::vector<Printout>& parts);
/// The same on a printer, or on its preview: all on paper as the first of them takes it.
void print_on(QPrinter& printer, const QString& title, const std::vector<Printout>& parts);

}  // namespace echappe
