#include "print/sheet.h"

#include <QBuffer>
#include <QFontMetricsF>
#include <QPainterPath>
#include <QPdfWriter>
#include <QPrinter>

#include "document/today.h"
#include "drawing/words.h"
#include "exchange/whole_file.h"

namespace echappe {
namespace {

void lay(QPagedPaintDevice& device, const Printout& part) {
    device.setPageSize(QPageSize(part.size));
    device.setPageOrientation(part.way);
    device.setPageMargins(QMarginsF(0, 0, 0, 0));
}

void paint_parts(QPagedPaintDevice& device, const QString& title, const std::vector<Printout>& parts, bool turns_paper) {
    if (parts.empty()) return;
    lay(device, parts.front());
    Sheet sheet(device, title, turns_paper);
    for (size_t i = 0; i < parts.size(); ++i) {
        if (i > 0) sheet.next_page(parts[i].size, parts[i].way);
        parts[i].paint(sheet);
    }
}

}  // namespace

Sheet::Sheet(QPagedPaintDevice& device, const QString& running_title, bool turns_paper)
    : painter(&device), px(device.logicalDpiX() / 25.4), m_device(device), m_running_title(running_title), m_turns_paper(turns_paper) {
    painter.setRenderHint(QPainter::Antialiasing);
    number_page();
}

void Sheet::number_page() {
    constexpr double from_edge = 12, from_top = 7;
    const QString words_there = words("%1 · %2 · page %3").arg(m_running_title, words(today())).arg(++m_page);
    text(width_mm() - from_edge - wide(words_there, 7.5), from_top, 7.5, words_there);
}

void Sheet::next_page() {
    m_device.newPage();
    number_page();
}

void Sheet::next_page(QPageSize::PageSizeId size, QPageLayout::Orientation way) {
    if (m_turns_paper) {
        lay(m_device, {{}, size, way, {}});
        return next_page();
    }
    m_device.newPage();
    m_turned = way != m_device.pageLayout().orientation();
    painter.resetTransform();
    if (m_turned) {
        painter.translate(0, m_device.pageLayout().fullRect(QPageLayout::Millimeter).height() * px);
        painter.rotate(-90);
    }
    number_page();
}

double Sheet::width_mm() const {
    const QSizeF paper = m_device.pageLayout().fullRect(QPageLayout::Millimeter).size();
    return m_turned ? paper.height() : paper.width();
}

double Sheet::height_mm() const {
    const QSizeF paper = m_device.pageLayout().fullRect(QPageLayout::Millimeter).size();
    return m_turned ? paper.width() : paper.height();
}

void Sheet::line(double x1, double y1, double x2, double y2, double mm) {
    painter.setPen(QPen(black, mm * px));
    painter.drawLine(at(x1, y1), at(x2, y2));
}

void Sheet::text(double x, double y, double points, const QString& words, bool bold) {
    painter.setFont(paper_font(points, bold));
    painter.setPen(black);
    painter.drawText(at(x, y), words);
}

double Sheet::wrapped(double x, double y, double width, double points, const QString& words, bool bold) {
    const QFont font = paper_font(points, bold);
    const QFontMetricsF metrics(font, painter.device());
    painter.setFont(font);
    painter.setPen(black);
    const QRectF room(at(x, y) - QPointF(0, metrics.ascent()), QSizeF(width * px, 1e7));
    QRectF taken;
    painter.drawText(room, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, words, &taken);
    return taken.height() / px;
}

double Sheet::wide(const QString& words, double points, bool bold) {
    return QFontMetricsF(paper_font(points, bold), painter.device()).horizontalAdvance(words) / px;
}

void Sheet::outline(const QPainterPath& path, double x, double y, double scale) {
    painter.save();
    painter.translate(at(x, y));
    painter.scale(px * scale, -px * scale);
    QPen pen(black, 0.12 * px);
    pen.setCosmetic(true);
    painter.setPen(pen);
    painter.setBrush(Qt::NoBrush);
    painter.drawPath(path);
    painter.restore();
}

void Sheet::circle(double x, double y, double radius) {
    QPen pen(black, 0.1 * px);
    pen.setDashPattern({12, 5, 3, 5});
    painter.setPen(pen);
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(at(x, y), radius * px, radius * px);
}

void write_pdf(const QString& path, const QString& title, const std::vector<Printout>& parts) {
    // In memory first: the writer does not say when a disk is full.
    QBuffer pdf;
    pdf.open(QIODevice::WriteOnly);
    {
        QPdfWriter writer(&pdf);
        writer.setResolution(dots_per_inch);
        writer.setTitle(title);
        writer.setCreator("Echappe");
        paint_parts(writer, title, parts, true);
    }
    save_text(path.toStdString(), pdf.data().toStdString());
}

void print_on(QPrinter& printer, const QString& title, const std::vector<Printout>& parts) {
    printer.setFullPage(true);
    printer.setDocName(title);
    paint_parts(printer, title, parts, false);
}

}  // namespace echappe
