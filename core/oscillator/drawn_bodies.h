#pragma once

#include "oscillator/record.h"

namespace echappe {

/// A body of a pendulum as its drawing has it.
struct DrawnBody {
    PendulumPart part;
    bool begun = false;  ///< it is among the pendulum's parts; else nothing of it was typed yet
};

/// The bodies of a pendulum as its drawing has them, the rod first: those that were begun, and a rod and a bob where there is none yet.
/// A body keeps its place when another one is begun.
std::vector<DrawnBody> drawn_bodies(const Pendulum& pendulum);
/// The sizes that a body of this shape has, in the order in which they are taken.
const std::vector<std::string>& sizes_of_body(const std::string& shape);
/// Types into the body at this place among them; one that is not begun begins with it. Throws InputError, and nothing is changed.
void type_into_body(Pendulum& pendulum, size_t which, const std::string& field, const std::string& word);

}  // namespace echappe
