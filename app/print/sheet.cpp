#include "print/sheet.h"

#include <QBuffer>

#include "exchange/whole_file.h"

namespace echappe {

void write_pdf(const QString& path, const QString& title, QPageSize::PageSizeId size, QPageLayout::Orientation way,
               const std::function<void(Sheet&, QPdfWriter&)>& paint) {
    // In memory first: the writer does not say when a disk is full.
    QBuffer pdf;
    pdf.open(QIODevice::WriteOnly);
    {
        QPdfWriter writer(&pdf);
        writer.setPageSize(QPageSize(size));
        writer.setPageOrientation(way);
        writer.setPageMargins(QMarginsF(0, 0, 0, 0));
        writer.setResolution(dots_per_inch);
        writer.setTitle(title);
        writer.setCreator("Echappe");
        Sheet sheet(writer);
        paint(sheet, writer);
    }
    save_text(path.toStdString(), pdf.data().toStdString());
}

}  // namespace echappe
