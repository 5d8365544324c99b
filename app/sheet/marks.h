#pragma once

#include "sheet/column.h"

namespace echappe {

/// The box of a step, ticked when it is done, struck when it was passed over.
void tick_box(QPainter& painter, QPointF top_left, Column::Tick tick);
/// A tick that fills about so much to each side of its middle.
void tick_mark(QPainter& painter, QPointF middle, double size, const QColor& ink);
/// The cross that marks a centre.
void cross(QPainter& painter, QPointF at, double size, const QPen& pen);

/// Words over a picture: on a piece of paper that lets a little of it through. The baseline's middle; the piece comes back.
QRectF on_paper(QPainter& painter, const QFont& font, const QColor& ink, QPointF middle, const QString& words);

/// The largest 1, 2 or 5 of a power of ten that is not above this.
double round_below(double most);
/// A size along a line from edge to edge, its words in a gap at the middle; the paper under them is the page's.
void dimension(QPainter& painter, QPointF from, QPointF to, const QString& words, const QColor& ink);
/// The line of a size without its words: strokes across its ends.
void dimension_line(QPainter& painter, QPointF from, QPointF to, const QColor& ink, double stroke = 4);
/// How long some millimetres are in the picture, from its left end; 1, 2 or 5 of a power of ten, as long as there is room.
void scale_bar(QPainter& painter, QPointF from, double px_per_mm, double longest_px = 130);

}  // namespace echappe
