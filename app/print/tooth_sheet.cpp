#include "print/tooth_sheet.h"

#include <algorithm>

#include "drawing/canvas.h"
#include "drawing/wheel_art.h"
#include "drawing/words.h"
#include "number/units.h"
#include "print/part_sheet.h"

namespace echappe {
namespace {

constexpr double largest_on_a4_mm = 165;

}  // namespace

Printout tooth_sheet(const Job& job, const DerivedMesh& mesh, const MadeMesh& made, bool wheel) {
    const PartSizes& part = wheel ? mesh.sizes.wheel : mesh.sizes.pinion;
    const auto page = part.outside_diameter_mm <= largest_on_a4_mm ? QPageSize::A4 : QPageSize::A3;
    return {words("teeth"), page, QPageLayout::Portrait, [job, mesh, made, wheel](Sheet& sheet) {
                const PartSizes& sizes = wheel ? mesh.sizes.wheel : mesh.sizes.pinion;
                const long long count = wheel ? mesh.wheel : mesh.pinion;
                write_head(sheet, job);
                const QString owner = QString::fromStdString(job.train.name_of_arbor(wheel ? mesh.wheel_of : mesh.pinion_of));
                const QString mate = QString::fromStdString(job.train.name_of_arbor(wheel ? mesh.pinion_of : mesh.wheel_of));
                sheet.text(
                    20, 38, 13,
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
                row("blank, over the tips", sizes.outside_diameter_mm);
                row("depth of cut", sizes.depth_of_cut_mm);
                row("pitch diameter", sizes.pitch_diameter_mm);
                row("root diameter", sizes.root_diameter_mm);
                row("gap at pitch circle", sizes.gap_mm);
                row("centre distance with mate", mesh.sizes.centre_distance_mm);
                for (const std::string& caution : made.cautions) {
                    sheet.text(20, y + 1, 9, QString::fromStdString(caution), true);
                    y += 5.5;
                }
                const std::optional<BlankResult>& blank = wheel ? made.wheel_blank : made.pinion_blank;
                const QPainterPath& outline = WheelArt::part(mesh.geometry(), wheel, 40, blank ? &*blank : nullptr);
                const double radius = sizes.outside_diameter_mm / 2;
                const double x = std::max(30 + radius, 130 - std::max(0.0, radius - 65));
                const double centre = std::max(140.0, 97 + radius);
                sheet.outline(outline, x, centre, 1);
                sheet.circle(x, centre, sizes.pitch_diameter_mm / 2);
                sheet.line(x - 3, centre, x + 3, centre);
                sheet.line(x, centre - 3, x, centre + 3);
                sheet.text(x - 8, centre + sizes.outside_diameter_mm / 2 + 8, 9, "1 : 1");
                constexpr double enlarged = 10;
                sheet.painter.save();
                sheet.painter.setClipRect(QRectF(sheet.at(138, 24), sheet.at(196, 80)));
                sheet.outline(outline, 160 - sizes.pitch_diameter_mm / 2 * enlarged, 52, enlarged);
                sheet.painter.restore();
                sheet.text(140, 85, 9, "10 : 1");
                check_scales(sheet);
                sheet.text(
                    20, 287, 8,
                    QString("Teeth: %1. Wear eye protection; no gloves at rotating spindles.").arg(school_of(mesh.form.school).words));
            }};
}

}  // namespace echappe
