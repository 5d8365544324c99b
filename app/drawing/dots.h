#pragma once

#include <QPainter>

#include "theme/theme.h"

namespace echappe {

/// Dots of the screen in a pixel of the house's: for pictures that are painted ahead.
inline double dots_in_pixel(const QPainter& painter) { return painter.device()->devicePixelRatioF() * interface_scale(); }

}  // namespace echappe
