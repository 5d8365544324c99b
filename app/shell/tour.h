#pragma once

#include <QSize>
#include <QString>

namespace echappe {

class MainWindow;

/// Renders every main view of the demo into a folder, one PNG each, and says where. Returns the exit code.
int take_tour(MainWindow& window, const QString& folder, QSize size);
/// Renders every station that has something to show of the job that is open.
int show_round(MainWindow& window, const QString& folder, QSize size);
/// "1280x800". Throws InputError.
QSize read_window_size(const QString& text);

}  // namespace echappe
