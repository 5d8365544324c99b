#include "print/sheet.h"

#include <QFileInfo>
#include <cstdio>

#include "number/input_error.h"

namespace echappe {

void write_pdf(const QString& path, const QString& title, QPageSize::PageSizeId size, QPageLayout::Orientation way,
               const std::function<void(Sheet&, QPdfWriter&)>& paint) {
    if (!QFileInfo(QFileInfo(path).absolutePath()).isWritable())
        throw InputError("export", "\"" + path.toStdString() + "\", which cannot be written", "a folder that can be written");
    // Beside the target first: a full disk must not leave half a sheet under the right name.
    const QString beside = path + ".part";
    {
        QPdfWriter writer(beside);
        writer.setPageSize(QPageSize(size));
        writer.setPageOrientation(way);
        writer.setPageMargins(QMarginsF(0, 0, 0, 0));
        writer.setResolution(dots_per_inch);
        writer.setTitle(title);
        writer.setCreator("Echappe");
        Sheet sheet(writer);
        paint(sheet, writer);
    }
    if (std::rename(beside.toLocal8Bit().constData(), path.toLocal8Bit().constData()) != 0)
        throw InputError("export", "\"" + path.toStdString() + "\", which cannot be written", "a place that can be written");
}

}  // namespace echappe
