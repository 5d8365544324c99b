#pragma once

namespace echappe {

/// Closes every window of the program, or none where one of them is to stay: all are asked before the first is closed.
void quit();

}  // namespace echappe
