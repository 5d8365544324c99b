#pragma once

#include "exchange/drawing.h"

/// How far two closed outlines are from each other, mm, by Boost's geometry: 0 where they meet or one lies in the other.
double apart_mm(const std::vector<echappe::Point>& a, const std::vector<echappe::Point>& b);
