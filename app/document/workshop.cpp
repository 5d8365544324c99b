#include "document/workshop.h"

#include <QDir>
#include <QFile>

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

Workshop::Workshop(QObject* parent) : QObject(parent), m_stock(shipped_stock()) {
    if (!QDir(folder()).exists()) return;
    try {
        Stock kept = load_stock(folder().toStdString());
        // Drawers that an earlier version did not know begin with what ships.
        if (!QFile::exists(folder() + "/bushes.csv")) kept.bushes = m_stock.bushes;
        if (!QFile::exists(folder() + "/reamers.csv")) kept.reamers = m_stock.reamers;
        if (!QFile::exists(folder() + "/strips.csv")) kept.strips = m_stock.strips;
        if (!QFile::exists(folder() + "/metal.csv")) kept.metal = m_stock.metal;
        if (!QFile::exists(folder() + "/tools.csv")) kept.tools = m_stock.tools;
        m_stock = std::move(kept);
    } catch (const InputError& error) {
        m_fault = fault_in_words(error);
    }
}

void Workshop::set_stock(const Stock& stock) {
    if (!m_fault.isEmpty())
        throw InputError("stock", m_fault.toStdString(), "that row mended in " + folder().toStdString() + ", then a new start");
    save_stock(folder().toStdString(), stock);
    m_stock = stock;
    emit changed();
}

}  // namespace echappe
