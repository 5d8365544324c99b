#include "document/workshop.h"

#include <QDir>
#include <QFile>
#include <QLockFile>
#include <map>

#include "document/folders.h"
#include "drawing/words.h"
#include "number/input_error.h"

namespace echappe {
namespace {

std::string shipped(const QString& name) {
    QFile file(":/stock/" + name);
    return file.open(QIODevice::ReadOnly) ? file.readAll().toStdString() : std::string();
}

Stock shipped_stock() {
    return {cutters_from_csv(shipped("cutters.csv")), plates_from_csv(shipped("plates.csv")),   leaves_from_csv(shipped("leaves.csv")),
            bushes_from_csv(shipped("bushes.csv")),   reamers_from_csv(shipped("reamers.csv")), strips_from_csv(shipped("strips.csv")),
            metal_from_csv(shipped("metal.csv")),     tools_from_csv(shipped("tools.csv")),     {}};
}

}  // namespace

QString Workshop::folder() { return data_folder() + "/stock"; }

std::vector<Bush> Workshop::shipped_bushes(bool numbered) {
    return bushes_from_csv(shipped(numbered ? "bushes-numbered.csv" : "bushes.csv"));
}

std::shared_ptr<Workshop> Workshop::shared() {
    static std::map<QString, std::weak_ptr<Workshop>> all;
    const QString where = folder();
    std::shared_ptr<Workshop> one = all[where].lock();
    if (!one) all[where] = one = std::shared_ptr<Workshop>(new Workshop(where));
    return one;
}

Workshop::Workshop(const QString& folder) : m_folder(folder) {
    load();
    connect(&m_watch, &FileWatch::moved, this, [this] {
        const Stock before = m_stock;
        const QString fault = m_fault;
        load();
        if (m_stock != before || m_fault != fault) emit changed();
    });
}

/// As the files are now; drawers that are not there are those that ship.
void Workshop::load() {
    const bool there = QDir(m_folder).exists();
    m_watch.follow_folder(there ? m_folder : QString());
    try {
        Stock kept = shipped_stock();
        if (there) {
            Stock own = load_stock(m_folder.toStdString());
            const auto take = [&](const char* file, auto list) {
                if (QFile::exists(m_folder + "/" + file)) kept.*list = std::move(own.*list);
            };
            take("cutters.csv", &Stock::cutters);
            take("plates.csv", &Stock::plates);
            take("leaves.csv", &Stock::leaves);
            take("bushes.csv", &Stock::bushes);
            take("reamers.csv", &Stock::reamers);
            take("strips.csv", &Stock::strips);
            take("metal.csv", &Stock::metal);
            take("tools.csv", &Stock::tools);
            take("times.csv", &Stock::times);
        }
        m_stock = std::move(kept);
        m_fault.clear();
    } catch (const InputError& error) {
        // What could be read before stays in use.
        if (m_stock == Stock()) m_stock = shipped_stock();
        m_fault = fault_in_words(error);
    }
}

/// One at a time, whichever process it is; what lies there is read again before and after.
void Workshop::keep(const std::function<void()>& write) {
    QDir().mkpath(m_folder);
    QLockFile lock(m_folder + "/.lock");
    constexpr int patience_ms = 3000;
    if (!lock.tryLock(patience_ms) && lock.error() == QLockFile::LockFailedError)
        throw InputError("stock", "drawers that another window is writing into", "a moment's patience");
    load();
    if (!m_fault.isEmpty()) throw InputError("stock", m_fault.toStdString(), "that row mended in " + m_folder.toStdString());
    try {
        write();
    } catch (...) {
        emit changed();
        throw;
    }
    load();
    emit changed();
}

void Workshop::change(const std::function<void(Stock&)>& edit) {
    keep([&] {
        Stock after = m_stock;
        edit(after);
        if (after != m_stock) keep_changes(m_folder.toStdString(), m_stock, after);
    });
}

void Workshop::change(const Stock& before, const Stock& after) {
    if (before == after) return;
    keep([&] { keep_changes(m_folder.toStdString(), before, after); });
}

}  // namespace echappe
