#pragma once

#include <string>

/// A random walk over two windows, the jobs of a folder, drawers, recordings and sheets that are left open, by keys, places and files
/// alone. What the windows tell as kept is told on standard output, a line each: "kept 2 2-17" (job 2 has the part 2-17), "drawer 5".
/// "fault …" where one job's things are seen in another, or anything is there twice. Returns the exit code.
int walk(const std::string& folder, unsigned seed, int steps);
