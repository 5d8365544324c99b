#include "print/html_pages.h"

#include <QBuffer>
#include <QPageLayout>
#include <QPageSize>
#include <QPdfWriter>
#include <QTextDocument>

#include "exchange/whole_file.h"
#include "theme/theme.h"

namespace echappe {

void write_html_pdf(const QString& path, const QString& html) {
    QBuffer bytes;
    bytes.open(QIODevice::WriteOnly);
    {
        QPdfWriter pdf(&bytes);
        constexpr double margin_mm = 18;
        pdf.setPageSize(QPageSize(QPageSize::A4));
        pdf.setPageMargins(QMarginsF(margin_mm, margin_mm, margin_mm, margin_mm), QPageLayout::Millimeter);
        QTextDocument document;
        document.setDefaultFont(type(Type::note));
        document.setHtml(html);
        document.print(&pdf);
    }
    save_text(path.toStdString(), bytes.data().toStdString());
}

}  // namespace echappe
