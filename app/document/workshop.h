#pragma once

#include <QObject>
#include <QString>
#include <functional>
#include <memory>

#include "document/file_watch.h"
#include "stock/stock.h"

namespace echappe {

/// What the workshop has to cut with. It belongs to the bench, not to a job: CSV files in the user's folder, begun from the
/// lists that ship with the application. One for all windows of the process; other processes and editors may write the files too,
/// and what they write is seen.
class Workshop : public QObject {
    Q_OBJECT
public:
    /// The one of the user's folder.
    static std::shared_ptr<Workshop> shared();
    Workshop(const Workshop&) = delete;

    const Stock& stock() const { return m_stock; }
    /// Changes what lies in the files now, and nothing else of it. Throws InputError when they cannot be read or written; all then
    /// stays as it was.
    void change(const std::function<void(Stock&)>& edit);
    /// The same, told by what stood there before and after: what was written there meanwhile stays. Throws InputError where that
    /// was changed too; `stock` is then what stands there.
    void change(const Stock& before, const Stock& after);
    /// Why the user's own lists could not be read, else empty: the shipped ones then stand in and nothing is written over.
    const QString& fault() const { return m_fault; }
    static QString folder();
    /// One of the two made-up lists that ship: fitted sizes in steps of 0.1 mm, or numbered under-size bores.
    static std::vector<Bush> shipped_bushes(bool numbered);

signals:
    void changed();

private:
    explicit Workshop(const QString& folder);
    void load();
    void keep(const std::function<void()>& write);

    QString m_folder;
    Stock m_stock;
    QString m_fault;
    FileWatch m_watch;
};

}  // namespace echappe
