#pragma once

#include <QPainter>
#include <QString>

namespace echappe {

/// Width of a line of text, from the store of what was laid out before.
double width_of(const QFont& font, const QString& text);
/// Text at a baseline; returns its width. Align −1 left, 0 middle, 1 right of x.
double write(QPainter& painter, const QFont& font, const QColor& colour, QPointF baseline, const QString& text, int align = -1);
/// Text wrapped in a width from a top left corner; returns its height.
double write_wrapped(QPainter& painter, const QFont& font, const QColor& colour, QPointF top_left, double width, const QString& text);

}  // namespace echappe
