#pragma once

#include <QObject>
#include <QString>

#include "stock/stock.h"

namespace echappe {

/// What the workshop has to cut with. It belongs to the bench, not to a job: CSV files in the user's folder, begun from the
/// lists that ship with the application.
class Workshop : public QObject {
    Q_OBJECT
public:
    explicit Workshop(QObject* parent = nullptr);

    const Stock& stock() const { return m_stock; }
    /// Keeps it and writes the files. Throws InputError when they cannot be written; the lists then stay as they were.
    void set_stock(const Stock& stock);
    /// Why the user's own lists could not be read, else empty: the shipped ones then stand in and nothing is written over.
    const QString& fault() const { return m_fault; }
    static QString folder();
    /// One of the two made-up lists that ship: fitted sizes in steps of 0.1 mm, or numbered under-size bores.
    static std::vector<Bush> shipped_bushes(bool numbered);

signals:
    void changed();

private:
    Stock m_stock;
    QString m_fault;
};

}  // namespace echappe
