#pragma once

#include <QStringList>

#include "print/sheet.h"

namespace echappe {

/// Rows under a title, the first of them the heads of its columns.
struct PrintTable {
    QString title;
    QList<QStringList> rows;
};

/// A picture as it stands on screen, as large as the paper takes it, and its figures as tables on the pages after it.
/// `draw` paints it in the house's pixels.
Printout picture_sheet(const QString& name, const std::function<void(QPainter&)>& draw, QSizeF size, const QList<PrintTable>& tables);

}  // namespace echappe
