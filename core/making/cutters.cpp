#include "making/cutters.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "teeth/form.h"

namespace echappe {
namespace {

constexpr long long fine = 60;

const ToothForm& part_of(const MeshForms& forms, const std::string& part) { return part == "wheel" ? forms.wheel : forms.pinion; }

/// Half the gap, mm along the arc, at a height above the pitch circle.
double half_gap_mm(const ToothForm& form, double module_mm, double height_mm) {
    const double r = form.pitch_radius() + height_mm / module_mm;
    return r * module_mm * (pi / static_cast<double>(form.count) - half_angle_at(form, r));
}

/// The gap a cutter is made for: its own module and school, and of its range of leaves the nearest.
ToothForm made_for(const CutterInput& in, const Cutter& cutter) {
    const bool same = in.mesh.form.school == cutter.school;
    GeometryInput own{in.mesh.wheel, in.mesh.pinion, cutter.module_mm, same ? in.mesh.form : FormChoice{cutter.school}};
    // Pins go with the module a cutter is made for; a trace of other leaves says nothing.
    if (own.form.trundle_diameter_mm) *own.form.trundle_diameter_mm *= cutter.module_mm / in.mesh.module_mm;
    if (in.part == "pinion") {
        own.pinion = std::max(own.pinion, cutter.leaves_min.value_or(own.pinion));
        own.pinion = std::min(own.pinion, cutter.leaves_max.value_or(own.pinion));
        if (own.pinion != in.mesh.pinion) own.form.pinion_half.clear();
    }
    return part_of(mesh_forms(own, false, fine), in.part);
}

bool in_range(const CutterInput& in, const Cutter& cutter) {
    if (in.part == "wheel") return true;
    return cutter.leaves_min.value_or(in.mesh.pinion) <= in.mesh.pinion && in.mesh.pinion <= cutter.leaves_max.value_or(in.mesh.pinion);
}

CutterFit fit_of(const CutterInput& in, const ToothForm& wanted, const Cutter& cutter) {
    const ToothForm cut = made_for(in, cutter);
    const double m = in.mesh.module_mm;
    CutterFit fit{cutter.id, cutter.school, cutter.module_mm};
    constexpr int heights = 64;
    // The bottom of the gap is the cutter's rounded corner, and the last of the tip is the blank's.
    const double low = -std::min(wanted.dedendum * m, cut.dedendum * cutter.module_mm) * 0.95;
    const double high = std::min(wanted.addendum * m, cut.addendum * cutter.module_mm) * 0.98;
    for (int i = 0; i <= heights; ++i) {
        const double h = low + (high - low) * i / heights;
        const double off = half_gap_mm(wanted, m, h) - half_gap_mm(cut, cutter.module_mm, h);
        fit.shape_error_um = std::max(fit.shape_error_um, 1000 * std::abs(off));
    }
    fit.thickness_error_um = 2000 * (half_gap_mm(wanted, m, 0) - half_gap_mm(cut, cutter.module_mm, 0));
    fit.centre_distance_change_mm = (cutter.module_mm - m) * static_cast<double>(in.mesh.wheel + in.mesh.pinion) / 2;
    fit.suits = cutter.school == in.mesh.form.school && in_range(in, cutter) && fit.shape_error_um <= 1000 * off_at_most_modules * m;
    fit.note = cutter.note;
    if (cutter.school != in.mesh.form.school) fit.note = "another form of tooth" + (fit.note.empty() ? "" : "; " + fit.note);
    else if (in_range(in, cutter) && fit.shape_error_um > 1000 * off_at_most_modules * m)
        fit.note = "another module: off by more than a fiftieth of a module; a fly cutter to the gap instead" +
                   (fit.note.empty() ? "" : "; " + fit.note);
    else if (!in_range(in, cutter)) fit.note = "made for other leaves" + (fit.note.empty() ? "" : "; " + fit.note);
    return fit;
}

}  // namespace

const Record& Cutter::record() {
    using In = Cutter;
    static const Record record = Fields<In>()
                                     .add("id", &In::id, "", "as the drawer is labelled")
                                     .required()
                                     .add("part", &In::part, "", "what it cuts")
                                     .choices({"wheel", "pinion"})
                                     .because("a wheel is cut more often than a pinion")
                                     .add("school", &In::school, "", "form of tooth")
                                     .choices(school_ids())
                                     .because("most wheels of clocks are cut so")
                                     .add("module_mm", &In::module_mm, "mm", "its module", between(0.01, 50))
                                     .required()
                                     .add("leaves_min", &In::leaves_min, "", "fewest leaves it is made for", between(4, 200))
                                     .add("leaves_max", &In::leaves_max, "", "most leaves", between(4, 200))
                                     .add("quantity", &In::quantity, "", "in the drawer", between(0, 1000))
                                     .because("a line of the drawer stands for one piece")
                                     .add("note", &In::note, "", "a word about it");
    return record;
}

const Record& CutterInput::record() {
    using In = CutterInput;
    static const Record record = Fields<In>()
                                     .include(&In::mesh)
                                     .add("part", &In::part, "", "which of the two")
                                     .choices({"wheel", "pinion"})
                                     .because("a wheel is cut more often than a pinion")
                                     .add("stock", &In::stock, "", "cutters at hand")
                                     .add("stock_file", &In::stock_file, "", "CSV with these columns, instead of or beside `stock`");
    return record;
}

const Record& CutterFit::record() {
    using Out = CutterFit;
    static const Record record =
        Fields<Out>()
            .add("id", &Out::id, "", "as the drawer is labelled")
            .add("school", &Out::school, "", "form of tooth")
            .add("module_mm", &Out::module_mm, "mm", "its module")
            .add("shape_error_um", &Out::shape_error_um, "µm", "most that a flank would stand off")
            .add("thickness_error_um", &Out::thickness_error_um, "µm", "of the tooth at the pitch circle; positive: too thick")
            .add("centre_distance_change_mm", &Out::centre_distance_change_mm, "mm", "if both parts were made to its module instead")
            .add("suits", &Out::suits, "", "school, leaves and module are near enough to what it is made for")
            .add("note", &Out::note, "", "a word about it");
    return record;
}

const Record& CutterResult::record() {
    static const Record record = Fields<CutterResult>().add("cutters", &CutterResult::cutters, "", "nearest shape first");
    return record;
}

CutterResult nearest_cutters(const CutterInput& in) {
    const ToothForm wanted = part_of(mesh_forms(in.mesh, false, fine), in.part);
    if (wanted.trundle > 0) throw InputError("part", "\"pinion\" of lantern form", "a part that is cut: trundles are drilled for");
    CutterResult out;
    for (const Cutter& cutter : in.stock)
        if (cutter.part == in.part && cutter.quantity > 0 && !(cutter.school == "lantern" && in.part == "pinion"))
            out.cutters.push_back(fit_of(in, wanted, cutter));
    std::stable_sort(out.cutters.begin(), out.cutters.end(), [](const CutterFit& a, const CutterFit& b) {
        return a.suits != b.suits ? a.suits : a.shape_error_um < b.shape_error_um;
    });
    return out;
}

std::vector<Working> explain_cutters(const CutterInput& in, const CutterResult& out) {
    if (out.cutters.empty()) return {};
    const CutterFit& best = out.cutters.front();
    const Term c{"c", "cutter's module", {best.module_mm, 0}, "mm", 0};
    const Term m{"m", "module wanted", {in.mesh.module_mm, 0}, "mm", 0};
    const Term N{"N", "wheel teeth", {static_cast<double>(in.mesh.wheel), 0}, "", 0};
    const Term n{"n", "pinion leaves", {static_cast<double>(in.mesh.pinion), 0}, "", 0};
    Working working = work_out("change of centre distance with " + best.id, "D = (c − m) × (N + n) ÷ 2", {c, m, N, n}, "mm",
                               "pitch circles of the cutter's module", [](auto x) { return (x[0] - x[1]) * (x[2] + x[3]) / 2; });
    for (const CutterFit& fit : out.cutters) {
        const bool right = fit.shape_error_um < 0.05;
        working.notes.push_back(right ? fit.id + ": as drawn" + (fit.note.empty() ? "" : " (" + fit.note + ")")
                                      : fit.id + ": flanks up to " + print_fixed(fit.shape_error_um, 1) + " µm off, teeth " +
                                            print_fixed(std::abs(fit.thickness_error_um), 1) + " µm too " +
                                            (fit.thickness_error_um < 0 ? "thin" : "thick") +
                                            (fit.note.empty() ? "" : " (" + fit.note + ")"));
        if (working.notes.size() == 6) break;
    }
    return {working};
}

}  // namespace echappe
