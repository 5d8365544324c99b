#pragma once

#include <QString>

namespace echappe {

class MainWindow;

/// Renders every main view of the demo at 1280×800 into a folder, one PNG each, and says where. Returns the exit code.
int take_tour(MainWindow& window, const QString& folder);
/// Renders every station that has something to show of the job that is open.
int show_round(MainWindow& window, const QString& folder);

}  // namespace echappe
