#include "document/workshop.h"

#include <QDir>
#include <QFile>

#include "document/journal.h"
#include "number/input_error.h"

namespace echappe {
namespace {

std::string shipped(const QString& name) {
    QFile file(":/stock/" + name);
    return file.open(QIODevice::ReadOnly) ? file.readAll().toStdString() : std::string();
}

Stock shipped_stock() {
    return {cutters_from_csv(shipped("cutters.csv")), plates_from_csv(shipped("plates.csv")), leaves_from_csv(shipped("leaves.csv"))};
}

}  // namespace

QString Workshop::folder() { return QDir::cleanPath(Journal::folder() + "/../stock"); }

Workshop::Workshop(QObject* parent) : QObject(parent), m_stock(shipped_stock()) {
    if (!QDir(folder()).exists()) return;
    try {
        m_stock = load_stock(folder().toStdString());
    } catch (const InputError& error) {
        m_fault = QString::fromUtf8(error.what());
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
