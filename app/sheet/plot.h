#pragma once

#include <qcustomplot.h>

#include "theme/theme.h"

namespace echappe {

/// Inks, type and quiet lines of the house for an axis of a plot.
void dress(QCPAxis* axis, const Theme& inks);
/// A plot that lies over a canvas, painted where it lies in the house's pixels, fine enough for paper and in its inks.
template <class Plot>
void paint_plot(QPainter& painter, Plot& plot) {
    constexpr double fine = 4;
    const QRectF at(plot.pos() / interface_scale(), plot.size() / interface_scale());
    plot.retheme(inks(painter));
    painter.drawPixmap(at, plot.toPixmap(plot.width(), plot.height(), fine), {});
    plot.retheme(theme());
}
/// A line of a plot, as wide as the interface's scale makes it.
QPen line_of(const QColor& ink, double width, Qt::PenStyle style = Qt::SolidLine);
/// A mark at a point, likewise.
QCPScatterStyle mark_of(QCPScatterStyle::ScatterShape shape, const QColor& ink, double width, const QBrush& inside, double size);
/// A curve through its points, as they are given.
QCPGraph* add_curve(QCustomPlot& plot, const QVector<double>& x, const QVector<double>& y, const QPen& pen);
/// Points without a line between them.
QCPGraph* add_points(QCustomPlot& plot, const QVector<double>& x, const QVector<double>& y, const QCPScatterStyle& style);
/// The room between two curves over the same x, in an ink of its own: behind them.
void add_band(QCustomPlot& plot, const QVector<double>& x, const QVector<double>& low, const QVector<double>& high, const QColor& ink);
/// Words at a place of the plot, in its own coordinates, some pixels beside it.
QCPItemText* add_words(QCustomPlot& plot, double x, double y, const QString& words, const QColor& ink, Qt::Alignment align,
                       const QFont& font);

/// The same on a piece of paper: what lies under them does not cross them.
QCPItemText* on_paper(QCPItemText* words, const Theme& inks);

}  // namespace echappe
