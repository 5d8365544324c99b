#include "sheet/plot.h"

namespace echappe {

void dress(QCPAxis* axis, const Theme& t) {
    const bool left = axis->axisType() == QCPAxis::atLeft;
    axis->setBasePen(line_of(t.steel, 1));
    axis->setTickPen(line_of(t.steel, 1));
    axis->setSubTickPen(Qt::NoPen);
    axis->setTickLabelColor(t.steel);
    axis->setTickLabelFont(type_on_screen(Type::note));
    axis->setLabelColor(t.steel);
    axis->setLabelFont(type_on_screen(Type::note));
    axis->grid()->setPen(left ? line_of(t.rule, 0.8) : QPen(Qt::NoPen));
    axis->grid()->setZeroLinePen(left ? line_of(t.steel, 1) : QPen(Qt::NoPen));
}

QPen line_of(const QColor& ink, double width, Qt::PenStyle style) { return QPen(ink, width * interface_scale(), style); }

QCPScatterStyle mark_of(QCPScatterStyle::ScatterShape shape, const QColor& ink, double width, const QBrush& inside, double size) {
    return {shape, line_of(ink, width), inside, size * interface_scale()};
}

QCPGraph* add_curve(QCustomPlot& plot, const QVector<double>& x, const QVector<double>& y, const QPen& pen) {
    QCPGraph* curve = plot.addGraph();
    curve->setData(x, y);
    curve->setPen(pen);
    return curve;
}

QCPGraph* add_points(QCustomPlot& plot, const QVector<double>& x, const QVector<double>& y, const QCPScatterStyle& style) {
    QCPGraph* points = plot.addGraph();
    points->setData(x, y);
    points->setLineStyle(QCPGraph::lsNone);
    points->setScatterStyle(style);
    return points;
}

void add_band(QCustomPlot& plot, const QVector<double>& x, const QVector<double>& low, const QVector<double>& high, const QColor& ink) {
    QColor band = ink;
    band.setAlphaF(0.18f);
    QCPGraph* lower = add_curve(plot, x, low, Qt::NoPen);
    QCPGraph* upper = add_curve(plot, x, high, Qt::NoPen);
    upper->setBrush(band);
    upper->setChannelFillGraph(lower);
}

QCPItemText* add_words(QCustomPlot& plot, double x, double y, const QString& words, const QColor& ink, Qt::Alignment align,
                       const QFont& font) {
    auto* item = new QCPItemText(&plot);
    item->setFont(font);
    item->setColor(ink);
    item->setText(words);
    item->setPositionAlignment(align);
    item->setPadding(QMargins(4, 2, 4, 2));
    item->position->setCoords(x, y);
    return item;
}

QCPItemText* on_paper(QCPItemText* words, const Theme& inks) {
    QColor paper = inks.ground;
    paper.setAlphaF(0.8f);
    words->setBrush(paper);
    words->setPadding(QMargins(3, 0, 3, 0));
    return words;
}

}  // namespace echappe
