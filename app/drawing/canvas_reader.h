#pragma once

namespace echappe {

/// From now on every canvas is read out: each of its places, lines of figures and words is a child with a name, a role, a value, a
/// state and an action, by the toolkit's own interface for screen readers.
void read_canvases_aloud();

}  // namespace echappe
