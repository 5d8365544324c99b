#pragma once

#include <QDialog>
#include <QLineEdit>
#include <QListWidget>
#include <functional>
#include <vector>

namespace echappe {

/// Everything that can be done or looked at, by a few letters of its name.
class Finder : public QDialog {
    Q_OBJECT
public:
    struct Entry {
        QString name;
        QString kind;  ///< "action Ctrl+S", "arbor", "reading"
        std::function<void()> go;
    };
    Finder(std::vector<Entry> entries, QWidget* parent);
    QLineEdit& line() { return *m_line; }
    QListWidget& list() { return *m_list; }

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void refill();
    void go();
    std::vector<Entry> m_entries;
    QLineEdit* m_line;
    QListWidget* m_list;
};

class MainWindow;

/// All that can be done now, the arbors, and the readings.
std::vector<Finder::Entry> entries_of(MainWindow& window);

}  // namespace echappe
