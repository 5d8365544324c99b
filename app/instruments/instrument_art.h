#pragma once

#include <QPainter>

namespace echappe {

// The instruments, as they stand at the left of the line.
void paint_calliper(QPainter& painter, QPointF at);
/// A lever on a square, with its weight: the torque gauge.
void paint_gauge(QPainter& painter, QPointF at);
/// The reference: a plain dial.
void paint_reference(QPainter& painter, QPointF at);

}  // namespace echappe
