#pragma once

#include <QObject>

namespace echappe {

class Finder;
class HelpSheet;
class MainWindow;
class StockSheet;

/// What opens over the window and closes again: finder, drawers, help, preferences, and the question for a reason.
class SheetDesk : public QObject {
    Q_OBJECT
public:
    explicit SheetDesk(MainWindow& window);

    Finder* open_finder();
    /// The drawers of cutters, plates and leaves.
    StockSheet* open_stock();
    void open_preferences();
    HelpSheet& help();
    /// Asks why a finding is overruled, and keeps it.
    void ask_overrule(const std::string& finding);

private:
    MainWindow& m_window;
    HelpSheet* m_help = nullptr;
};

}  // namespace echappe
