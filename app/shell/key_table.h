#pragma once

#include <QString>

namespace echappe {

class MainWindow;

/// Every key of the window and its stations as a table of the guide, in Markdown.
QString key_table(const MainWindow& window);

}  // namespace echappe
