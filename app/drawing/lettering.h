#pragma once

#include <QPainter>
#include <QString>

#include "theme/theme.h"

namespace echappe {

/// Width of a line of text, from the store of what was laid out before.
double width_of(const QFont& font, const QString& text);
/// The largest of the five sizes, up to this one, in which a text is no wider than that; none is below a note.
QFont type_to_fit(Type size, bool bold, const QString& text, double width);
/// As much of a text as a width holds.
QString elided(const QFont& font, const QString& text, double width);
/// Text at a baseline; returns its width. Align −1 left, 0 middle, 1 right of x.
double write(QPainter& painter, const QFont& font, const QColor& colour, QPointF baseline, const QString& text, int align = -1);
/// Text wrapped in a width from a top left corner; returns its height.
double write_wrapped(QPainter& painter, const QFont& font, const QColor& colour, QPointF top_left, double width, const QString& text);

}  // namespace echappe
