#include "print/tooth_sheet.h"

#include <QDate>
#include <QFileInfo>
#include <QPainter>
#include <QPdfWriter>
#include <algorithm>
#include <cstdio>

#include "drawing/canvas.h"
#include "drawing/wheel_art.h"
#include "number/input_error.h"
#include "number/units.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double largest_on_a4_mm = 165;
constexpr int dots_per_inch = 1200;  ///< 0.02 mm steps; outlines are vectors and finer
const QColor black(Qt::black);

/// Paints in mm, y downwards, with fonts in points.
class Sheet {
public:
    explicit Sheet(QPdfWriter& writer) : painter(&writer), px(writer.logicalDpiX() / 25.4) {
        painter.setRenderHint(QPainter::Antialiasing);
    }
    QPainter painter;
    double px;

    QPointF at(double x, double y) const { return {x * px, y * px}; }
    void line(double x1, double y1, double x2, double y2, double mm = 0.15) {
        painter.setPen(QPen(black, mm * px));
        painter.drawLine(at(x1, y1), at(x2, y2));
    }
    void text(double x, double y, double points, const QString& words, bool bold = false) {
        painter.setFont(word_font(points, bold));
        painter.setPen(black);
        painter.drawText(at(x, y), words);
    }
    void outline(const QPainterPath& path, double x, double y, double scale) {
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
    void circle(double x, double y, double radius) {
        QPen pen(black, 0.1 * px);
        pen.setDashPattern({12, 5, 3, 5});
        painter.setPen(pen);
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(at(x, y), radius * px, radius * px);
    }
};

void check_scales(Sheet& sheet) {
    constexpr double x = 20, y = 270;
    sheet.line(x, y, x + 100, y, 0.25);
    sheet.line(x, y, x, y - 100, 0.25);
    for (int mm = 0; mm <= 100; ++mm) {
        const double tick = mm % 10 == 0 ? 3 : mm % 5 == 0 ? 2 : 1;
        sheet.line(x + mm, y, x + mm, y + tick, 0.1);
        sheet.line(x, y - mm, x - tick, y - mm, 0.1);
    }
    sheet.text(x, y + 8, 8, "100 mm in both directions: measure both before you trust the drawing.");
}

}  // namespace

void print_tooth_sheet(const QString& path, const Job& job, const DerivedMesh& mesh, bool wheel) {
    const PartSizes& part = wheel ? mesh.sizes.wheel : mesh.sizes.pinion;
    const QFileInfo info(path);
    if (!QFileInfo(info.absolutePath()).isWritable())
        throw InputError("export", "\"" + path.toStdString() + "\", which cannot be written", "a folder that can be written");
    // Beside the target first: a full disk must not leave half a sheet under the right name.
    const QString beside = path + ".part";
    {
        QPdfWriter writer(beside);
        writer.setPageSize(QPageSize(part.outside_diameter_mm <= largest_on_a4_mm ? QPageSize::A4 : QPageSize::A3));
        writer.setPageMargins(QMarginsF(0, 0, 0, 0));
        writer.setResolution(dots_per_inch);
        writer.setTitle(QString::fromStdString(job.title));
        writer.setCreator("Echappe");
        Sheet sheet(writer);
        const long long count = wheel ? mesh.wheel : mesh.pinion;
        sheet.text(20, 20, 16, QString::fromStdString(job.title), true);
        sheet.text(
            20, 27, 9,
            QString("Job %1 · %2 · %3")
                .arg(QString::fromStdString(job.number), QString::fromStdString(job.workshop), QDate::currentDate().toString(Qt::ISODate)));
        const QString owner = QString::fromStdString(job.name_of_arbor(wheel ? mesh.wheel_of : mesh.pinion_of));
        const QString mate = QString::fromStdString(job.name_of_arbor(wheel ? mesh.pinion_of : mesh.wheel_of));
        sheet.text(20, 38, 13,
                   QString("%1 %2, %3 %4, for %5").arg(owner, wheel ? "wheel" : "pinion").arg(count).arg(wheel ? "teeth" : "leaves", mate),
                   true);
        double y = 46;
        const auto row = [&](const QString& name, double mm) {
            sheet.text(20, y, 9, name);
            sheet.text(62, y, 11, QString::fromStdString(print_fixed(mm, 3)) + " mm", true);
            sheet.text(92, y, 9, QString::fromStdString(print_fixed(mm / 25.4, 4)) + " in");
            y += 6.5;
        };
        row("module", mesh.module_mm.value);
        row("blank, over the tips", part.outside_diameter_mm);
        row("depth of cut", part.depth_of_cut_mm);
        row("pitch diameter", part.pitch_diameter_mm);
        row("root diameter", part.root_diameter_mm);
        row("gap at pitch circle", part.gap_mm);
        row("centre distance with mate", mesh.sizes.centre_distance_mm);
        for (const std::string& caution : mesh.cautions) {
            sheet.text(20, y + 1, 9, QString::fromStdString(caution), true);
            y += 5.5;
        }
        const std::optional<BlankResult>& blank = wheel ? mesh.wheel_blank : mesh.pinion_blank;
        const QPainterPath& outline = WheelArt::part(mesh.geometry(), wheel, 40, blank ? &*blank : nullptr);
        const double radius = part.outside_diameter_mm / 2;
        const double x = std::max(30 + radius, 130 - std::max(0.0, radius - 65));
        const double centre = std::max(140.0, 97 + radius);
        sheet.outline(outline, x, centre, 1);
        sheet.circle(x, centre, part.pitch_diameter_mm / 2);
        sheet.line(x - 3, centre, x + 3, centre);
        sheet.line(x, centre - 3, x, centre + 3);
        sheet.text(x - 8, centre + part.outside_diameter_mm / 2 + 8, 9, "1 : 1");
        constexpr double enlarged = 10;
        sheet.painter.save();
        sheet.painter.setClipRect(QRectF(sheet.at(138, 24), sheet.at(196, 80)));
        sheet.outline(outline, 160 - part.pitch_diameter_mm / 2 * enlarged, 52, enlarged);
        sheet.painter.restore();
        sheet.text(140, 85, 9, "10 : 1");
        check_scales(sheet);
        sheet.text(20, 287, 8,
                   QString("Teeth: %1. Wear eye protection; no gloves at rotating spindles.").arg(school_of(mesh.form.school).words));
    }
    if (std::rename(beside.toLocal8Bit().constData(), path.toLocal8Bit().constData()) != 0)
        throw InputError("export", "\"" + path.toStdString() + "\", which cannot be written", "a place that can be written");
}

}  // namespace echappe
