#include "escapement/pallets_part.h"

#include <algorithm>
#include <cmath>

#include "making/crossings.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* pallets_part_source = "corners of the tangential layout; areas and moments by Green's theorem";
constexpr int arc_pieces = 24;

// As usual where nothing was decided.
constexpr double usual_pallets_bore = 0.10, usual_pallets_hub = 0.26;  // of the wheel's radius
constexpr double usual_pallets_thickness = 0.45;                       // of a pitch: half as thick again as the wheel
constexpr double least_nib_deg = 8, most_nib_deg = 50, nib_step_deg = 1;
constexpr double usual_pallets_arm = 0.9;  // of a pallet's width
constexpr double usual_clear = 0.25;       // of a pitch, between the body and the tips
constexpr double face_beyond = 1.6;        // of a recoil's face, as far as it goes on beyond the landing

struct Body {
    double bore = 0, hub = 0, nib = 0, clear = 0;
    std::vector<Point> outline;
};

/// Nearest that the segment from a to b comes to the escape arbor.
double nearest(Vector a, Vector b, Vector to) {
    const Vector along = b - a;
    const double share = std::clamp(dot(to - a, along) / dot(along, along), 0.0, 1.0);
    return length(a + share * along - to);
}

/// A pallet's corners about the pallet arbor: inner and outer end of its face.
struct Nib {
    Vector inner, outer;
};
Nib nib_of(const Pallet& pallet) {
    const Vector begins = pallet.arc ? pallet.locking : pallet.let_off + face_beyond * (pallet.locking - pallet.let_off);
    return length(begins) < length(pallet.let_off) ? Nib{begins, pallet.let_off} : Nib{pallet.let_off, begins};
}

/// How far its two sides go up about the pallet arbor.
struct Reach {
    double inner, outer;
};

/// From the hub's foot out to the entry, round it, over the top and down to the exit; anticlockwise, so exit first.
Body body_with(const EscapementAction& layout, double bore, double hub, double nib) {
    Body body{bore, hub, nib, 0, {}};
    const Vector wheel{0, -layout.centre_mm};
    const Nib entry = nib_of(layout.entry), exit = nib_of(layout.exit);
    const auto add = [&](Vector at) { body.outline.push_back({at.x, at.y}); };
    const auto arc_up = [&](Vector from, double by) {
        for (int i = 0; i <= arc_pieces; ++i) add(turned(from, by * i / arc_pieces));
    };
    const auto arc_down = [&](Vector from, double by) {
        for (int i = arc_pieces; i >= 0; --i) add(turned(from, by * i / arc_pieces));
    };
    const double r = hub / 2;
    // The sides of a pallet reach up together, the outer one by the arm's width more: the exit's anticlockwise from its face.
    const auto reach = [&](const Nib& of, double side) {
        const double between = side * std::atan2(cross(of.outer, of.inner), dot(of.outer, of.inner));
        const double arm = usual_pallets_arm * (length(of.outer) - length(of.inner)) / length(of.outer);
        return Reach{side * (nib + std::max(0.0, -between)), side * (nib + arm + std::max(0.0, between))};
    };
    const Reach exit_up = reach(exit, 1), entry_up = reach(entry, -1);
    add({0, -r});
    arc_down(exit.inner, exit_up.inner);
    arc_up(exit.outer, exit_up.outer);
    constexpr double shoulder = 50 * rad_per_deg;  // of the hub's round top, to each side
    for (int i = 0; i <= arc_pieces; ++i) {
        const double from_top = shoulder * (1 - 2.0 * i / arc_pieces);
        add({r * std::sin(from_top), r * std::cos(from_top)});
    }
    arc_down(entry.outer, entry_up.outer);
    arc_up(entry.inner, entry_up.inner);
    const Vector inner_from = turned(exit.inner, exit_up.inner), inner_to = turned(entry.inner, entry_up.inner);
    body.clear = std::min(nearest({0, -r}, inner_from, wheel), nearest(inner_to, {0, -r}, wheel)) - layout.radius_mm;
    return body;
}

/// As short a reach as leaves the body clear of the teeth.
Body body_of(const EscapementAction& layout, const PalletsShape& shape) {
    const double radius = layout.radius_mm, space = layout.centre_mm - radius;
    const double hub = shape.hub_mm.value_or(std::min(usual_pallets_hub * radius, 1.2 * space));
    const double bore = shape.bore_mm.value_or(std::min(usual_pallets_bore * radius, 0.45 * hub));
    if (bore >= hub) throw InputError("bore_mm", print_short(bore), "less than the hub's " + print_short(hub, 4) + " mm");
    if (hub / 2 >= space)
        throw InputError("hub_mm", print_short(hub), "less than " + print_short(2 * space, 4) + ": it stands in the wheel's teeth");
    if (shape.nib_deg) return body_with(layout, bore, hub, *shape.nib_deg * rad_per_deg);
    const double wanted = usual_clear * layout.pitch_rad() * radius;
    Body best;
    for (double nib = least_nib_deg; nib <= most_nib_deg; nib += nib_step_deg) {
        Body body = body_with(layout, bore, hub, nib * rad_per_deg);
        if (best.outline.empty() || body.clear > best.clear) best = std::move(body);
        if (best.clear >= wanted) break;
    }
    return best;
}

/// The layout with its pallets in beat: midway between the two let-offs.
EscapementAction in_beat(EscapementAction action, const EscapementBeat& beat) {
    const double zero = beat.zero_rad.value_or(0);
    for (Pallet* pallet : {&action.entry, &action.exit})
        for (Vector* corner : {&pallet->locking, &pallet->let_off}) *corner = turned(*corner, zero);
    return action;
}

double impulse_circle(const Pallet& pallet) {
    return std::abs(cross(pallet.locking, pallet.let_off)) / length(pallet.let_off - pallet.locking);
}

}  // namespace

std::vector<Point> pallets_outline(const EscapementAction& layout, const PalletsShape& shape) { return body_of(layout, shape).outline; }

PalletsPartResult pallets_part(const PalletsPartInput& in) {
    EscapementAction layout = action_of(in.escapement);
    const EscapementBeat beat = beat_of(layout);
    layout = in_beat(layout, beat);
    const Body body = body_of(layout, in.shape);
    PalletsPartResult out;
    out.outline = body.outline;
    out.centre_distance_mm = layout.centre_mm;
    out.across_locking_mm = length(layout.exit.locking - layout.entry.locking);
    out.across_let_off_mm = length(layout.exit.let_off - layout.entry.let_off);
    out.entry_impulse_circle_mm = impulse_circle(layout.entry), out.exit_impulse_circle_mm = impulse_circle(layout.exit);
    out.clear_mm = body.clear;
    out.bore_mm = body.bore, out.hub_mm = body.hub, out.nib_deg = body.nib / rad_per_deg;
    out.thickness_mm = in.shape.thickness_mm.value_or(usual_pallets_thickness * layout.pitch_rad() * layout.radius_mm);
    out.state = word_for(beat.state);
    if (beat.entry && beat.exit && beat.state == EscapementState::runs) {
        if (layout.entry.arc) out.entry_lock_deg = beat.entry->lock / rad_per_deg, out.exit_lock_deg = beat.exit->lock / rad_per_deg;
        out.entry_lift_deg = beat.entry->lift / rad_per_deg, out.exit_lift_deg = beat.exit->lift / rad_per_deg;
        out.entry_drop_deg = beat.entry->drop / rad_per_deg, out.exit_drop_deg = beat.exit->drop / rad_per_deg;
    } else {
        out.warnings.push_back(std::string("Pallets cut so would not run: it ") + out.state + ".");
    }
    if (body.clear <= 0) out.warnings.push_back("The body stands in the teeth: a smaller hub, or pallets that reach further up.");
    const Moments all = moments_of(out.outline), bore = moments_of_disc(out.bore_mm / 2);
    const double g_per_mm2 = in.shape.density_kg_m3 * 1e-6 * out.thickness_mm;
    out.mass_g = g_per_mm2 * (all.area - bore.area);
    out.inertia_g_mm2 = g_per_mm2 * (all.polar - bore.polar);
    out.files = part_files(in.format, drawing_of(in, out), solid_of(in, out));
    return out;
}

FlatPart solid_of(const PalletsPartInput& in, const PalletsPartResult& out) {
    FlatPart part{"pallets over " + print_short(in.escapement.span) + " of " + std::to_string(in.escapement.teeth),
                  out.outline,
                  {},
                  {},
                  out.thickness_mm};
    if (out.bore_mm > 0) part.holes.push_back({{0, 0}, out.bore_mm / 2});
    return part;
}

Drawing drawing_of(const PalletsPartInput& in, const PalletsPartResult& out) {
    Drawing drawing{solid_of(in, out).title, {{"outline", {out.outline}, {}, {}}}};
    DrawingLayer bore{"bore", {}, {}, {{0, 0}}};
    if (out.bore_mm > 0) bore.circles.push_back({{0, 0}, out.bore_mm / 2});
    DrawingLayer circles{"impulse circles",
                         {},
                         {{{0, 0}, out.entry_impulse_circle_mm}, {{0, 0}, out.exit_impulse_circle_mm}},
                         {},
                         DrawingLayer::Of::construction};
    DrawingLayer wheel{"wheel",
                       {},
                       {{{0, -out.centre_distance_mm}, in.escapement.radius_mm}},
                       {{0, -out.centre_distance_mm}},
                       DrawingLayer::Of::construction};
    for (DrawingLayer* layer : {&bore, &circles, &wheel}) drawing.layers.push_back(std::move(*layer));
    return drawing;
}

std::vector<Working> explain_pallets_part(const PalletsPartInput& in, const PalletsPartResult& out) {
    std::vector<Working> list = {
        work_out("half angle of the pallets", "β = 180 s ÷ E",
                 {given("s", "pitches between the pallets", in.escapement.span, ""),
                  given("E", "teeth", static_cast<double>(in.escapement.teeth), "")},
                 "deg", pallets_part_source, [](auto x) { return 180 * x[0] / x[1]; }),
        work_out("pallet arbor above the escape arbor", "C = R ÷ cos β − d",
                 {given("R", "radius of the tips", in.escapement.radius_mm, "mm"),
                  given("β", "half angle", 180 * in.escapement.span / static_cast<double>(in.escapement.teeth), "deg"),
                  given("d", "nearer", in.escapement.depth_change_mm, "mm")},
                 "mm", pallets_part_source, [](auto x) { return x[0] / std::cos(x[1] * rad_per_deg) - x[2]; })};
    list.back().notes.push_back(
        "Leave the faces full by what hardening and polishing take, and try them at this distance in a depthing "
        "tool before the holes are drilled.");
    for (const std::string& warning : out.warnings) list.back().notes.push_back(warning);
    return list;
}

const Record& PalletsShape::record() {
    using In = PalletsShape;
    static const Record record =
        Fields<In>()
            .add("bore_mm", &In::bore_mm, "mm", "for the pallet arbor", between(0, 200))
            .add("hub_mm", &In::hub_mm, "mm", "diameter of the body round it", above(0, 500))
            .add("nib_deg", &In::nib_deg, "deg", "reach of each pallet above its face, about the pallet arbor", between(1, 90))
            .add("thickness_mm", &In::thickness_mm, "mm", "of the pallets, wider than the wheel", above(0, 50))
            .add("density_kg_m3", &In::density_kg_m3, "kg/m³", "of the metal", above(0, 30000))
            .because("steel");
    return record;
}

const Record& PalletsPartInput::record() {
    using In = PalletsPartInput;
    static const Record record = [] {
        Fields<In> fields;
        fields.add("escapement", &In::escapement, "", "its layout").required().add("shape", &In::shape, "", "of the body");
        return Record(add_part_format(fields));
    }();
    return record;
}

const Record& PalletsPartResult::record() {
    using Out = PalletsPartResult;
    static const Record record =
        Fields<Out>()
            .add("outline", &Out::outline, "mm", "anticlockwise, about the pallet arbor, midway between the two let-offs")
            .add("centre_distance_mm", &Out::centre_distance_mm, "mm", "escape arbor to pallet arbor")
            .add("across_locking_mm", &Out::across_locking_mm, "mm", "from one locking corner straight to the other")
            .add("across_let_off_mm", &Out::across_let_off_mm, "mm", "from one let-off corner straight to the other")
            .add("entry_impulse_circle_mm", &Out::entry_impulse_circle_mm, "mm", "radius that the entry's impulse face is tangent to")
            .add("exit_impulse_circle_mm", &Out::exit_impulse_circle_mm, "mm", "and the exit's")
            .add("clear_mm", &Out::clear_mm, "mm", "between the body and the tips")
            .add("bore_mm", &Out::bore_mm, "mm", "for the pallet arbor")
            .add("hub_mm", &Out::hub_mm, "mm", "diameter of the body round it")
            .add("nib_deg", &Out::nib_deg, "deg", "reach of each pallet above its face")
            .add("thickness_mm", &Out::thickness_mm, "mm", "of the pallets")
            .add("entry_lock_deg", &Out::entry_lock_deg, "deg", "as it will be")
            .add("exit_lock_deg", &Out::exit_lock_deg, "deg", "as it will be")
            .add("entry_lift_deg", &Out::entry_lift_deg, "deg", "as it will be")
            .add("exit_lift_deg", &Out::exit_lift_deg, "deg", "as it will be")
            .add("entry_drop_deg", &Out::entry_drop_deg, "deg", "as it will be")
            .add("exit_drop_deg", &Out::exit_drop_deg, "deg", "as it will be")
            .add("state", &Out::state, "", "runs, trips or catches")
            .add("mass_g", &Out::mass_g, "g", "of the pallets")
            .add("inertia_g_mm2", &Out::inertia_g_mm2, "g·mm²", "about their arbor")
            .add("warnings", &Out::warnings, "", "what speaks against it")
            .include(&Out::files);
    return record;
}

const Calculation& pallets_part_calculation() {
    static const Calculation calculation = declare<PalletsPartInput, PalletsPartResult>(
        "escapement.pallets", "Pallets to be cut: their outline, its sizes, and the locks and drops they will have.", pallets_part_source,
        pallets_part, explain_pallets_part);
    return calculation;
}

}  // namespace echappe
