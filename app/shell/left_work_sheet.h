#pragma once

#include <QDialog>
#include <QScrollArea>
#include <functional>

#include "document/journal.h"
#include "drawing/canvas.h"

namespace echappe {

/// The unsaved work of earlier runs, each once, as slips on a spike: what it is of, when it was left, and whether it or the file is
/// newer. The craftsman takes one up, leaves it lying, or throws it away.
class LeftWorkSlips : public Canvas {
    Q_OBJECT
public:
    explicit LeftWorkSlips(std::vector<Journal::Entry> entries, QWidget* parent = nullptr);
    const std::vector<Journal::Entry>& entries() const { return m_entries; }

signals:
    void taken_up(const Journal::Entry& entry);
    void thrown_away(const Journal::Entry& entry);

protected:
    void paint(QPainter& painter) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void paint_slip(QPainter& painter, size_t index, double y);
    void throw_away(size_t index);
    std::vector<Journal::Entry> m_entries;
    std::vector<QString> m_titles;
    std::vector<QString> m_standing;  ///< beside the file as it is now
    std::vector<bool> m_newer_file;
    size_t m_chosen = 0;
    int m_asked = -1;  ///< the slip that was asked to be thrown away once
};

class LeftWorkSheet : public QDialog {
    Q_OBJECT
public:
    LeftWorkSheet(std::vector<Journal::Entry> entries, QWidget* parent);
    LeftWorkSlips& slips() { return *m_slips; }

private:
    LeftWorkSlips* m_slips;
};

}  // namespace echappe
