#pragma once

#include <QDialog>
#include <QLabel>
#include <QTabWidget>
#include <QTableWidget>

#include "document/workshop.h"

namespace echappe {

/// The workshop's drawers: cutters with the gap each leaves, dividing plates, leaves of watch pinions, bushes to scale, reamers. What is
/// typed is kept at once, when the whole list can be read.
class StockSheet : public QDialog {
    Q_OBJECT
public:
    explicit StockSheet(Workshop& workshop, QWidget* parent = nullptr);

    QTableWidget& cutters() { return *m_cutters; }
    QTableWidget& plates() { return *m_plates; }
    QTableWidget& leaves() { return *m_leaves; }
    QTableWidget& bushes() { return *m_bushes; }
    QTableWidget& reamers() { return *m_reamers; }
    QTableWidget& strips() { return *m_strips; }
    /// The drawer of bushes from the list that ships: fitted sizes, or numbered ones to be broached up.
    void take_shipped_bushes(bool numbered);
    /// One more row of the list in front, a copy of the last.
    void add_row();
    void remove_row();
    QString said() const { return m_said->text(); }
    /// Closing asks first while something typed is not kept.
    void reject() override;

private:
    QTableWidget* make_table(const QString& name, const QStringList& columns);
    void fill();
    void fill_pivot_drawers(const Stock& stock);
    void fill_stores(const Stock& stock);
    void keep();
    bool may_close();
    QTableWidget& front() const { return *static_cast<QTableWidget*>(m_tabs->currentWidget()); }

    Workshop& m_workshop;
    QTabWidget* m_tabs;
    QTableWidget* m_cutters;
    QTableWidget* m_plates;
    QTableWidget* m_leaves;
    QTableWidget* m_bushes;
    QTableWidget* m_reamers;
    QTableWidget* m_strips;
    QTableWidget* m_metal;
    QTableWidget* m_tools;
    QLabel* m_said;
    Stock m_shown;  ///< what the tables were filled from: an edit is what leads from it to what stands in them
    bool m_keeping = false;
    bool m_filling = false;
    bool m_all_kept = true;
};

}  // namespace echappe
