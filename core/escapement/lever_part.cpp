#include "escapement/lever_part.h"

#include <algorithm>
#include <cmath>

#include "exchange/metal.h"
#include "making/crossings.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* lever_part_source = "corners of the tangential layout; pieces united by their outlines; moments by Green's theorem";

// As usual where nothing was decided; of the wheel's radius.
constexpr double usual_lever_bore = 0.08, usual_lever_hub = 0.26, usual_lever_arm = 0.13, usual_lever_thickness = 0.08, usual_reach = 1.5;
constexpr double usual_length = 2.5;  // of a stone, of its face
constexpr double usual_held = 0.55;   // of its length
constexpr double usual_slot = 0.10;   // of the fork, of the way from staff to impulse pin
constexpr double usual_fork = 3;      // widths of its slot deep

Shape polygon(std::initializer_list<Vector> corners) {
    Shape out;
    for (const Vector at : corners) out.push_back(corner_at(at));
    return out;
}
Shape disc(Vector at, double radius) { return disc_shape(corner_at(at), radius); }
Shape bar(Vector a, Vector b, double wide) { return bar_shape(corner_at(a), corner_at(b), wide); }

/// The shape with everything decided.
struct Decided {
    double bore, hub, arm, held, slot, fork_depth;
    std::optional<double> fork;  ///< ends of the horns from the arbor, where the staff's place is known
};
Decided decided(const LeverAction& layout, const LeverShape& shape) {
    const double radius = layout.tooth.toe;
    Decided out{};
    out.bore = shape.bore_mm.value_or(usual_lever_bore * radius);
    out.hub = shape.hub_mm.value_or(std::min(usual_lever_hub * radius, 1.7 * (layout.centre_mm - radius)));
    out.arm = shape.arm_mm.value_or(usual_lever_arm * radius);
    out.held = shape.held.value_or(usual_held);
    if (out.bore >= out.hub) throw InputError("bore_mm", print_short(out.bore), "less than the hub's " + print_short(out.hub, 4) + " mm");
    const LeverAndBalance& link = layout.lever;
    if (!link.staff_mm || !link.impulse_pin_mm) return out;
    out.slot = shape.fork_slot_mm.value_or(usual_slot * *link.impulse_pin_mm);
    out.fork_depth = shape.fork_depth_mm.value_or(usual_fork * out.slot);
    // The pin comes in by half of the slot's depth.
    out.fork = *link.staff_mm - *link.impulse_pin_mm + out.fork_depth / 2;
    if (*out.fork - out.fork_depth <= out.hub / 2)
        throw InputError("fork_depth_mm", print_short(out.fork_depth), "less: the slot would reach the hub");
    return out;
}

/// Where a stone's slot begins and ends along its sides, from the locking corner.
struct Slot {
    double from, to;
};
Slot slot_of(const Decided& shape, double stone_length) { return {stone_length * (1 - shape.held), stone_length}; }

void add_stone(Metal& body, const LeverPallet& pallet, const Decided& shape, double stone_length) {
    const auto [from, to] = slot_of(shape, stone_length);
    const Vector along = 1 / length(pallet.face) * pallet.face, face = pallet.let_off - pallet.locking;
    const Vector across = face - dot(face, along) * along;
    const double wall = 0.3 * shape.arm;
    const Vector wide = wall / length(across) * across;
    // From the face's middle, square to the sides: a box round the end of the stone.
    const Vector begins = pallet.locking + from * along, ends = pallet.locking + (to + wall) * along;
    body.add(polygon({begins - wide, begins + across + wide, ends + across + wide, ends - wide}));
    body.add(bar({0, 0}, 0.5 * (begins + ends + across), shape.arm));
}

void cut_slot(Metal& body, const LeverPallet& pallet, double stone_length) {
    const auto stone = stone_of(pallet, stone_length);
    body.take(polygon({stone[0], stone[1], stone[2], stone[3]}));
}

/// The lever up to its horns, an arc about the staff between them.
void add_fork(Metal& body, const LeverAction& layout, const Decided& shape) {
    if (!shape.fork) {
        body.add(bar({0, 0}, {0, usual_reach * layout.tooth.toe}, shape.arm));
        return;
    }
    const double ends = *shape.fork, bottom = ends - shape.fork_depth, head = std::max(shape.arm, 4 * shape.slot);
    body.add(bar({0, 0}, {0, bottom}, shape.arm));
    body.add(bar({0, bottom - head / 2}, {0, ends}, head));
    body.take(bar({0, bottom}, {0, ends + shape.slot}, shape.slot));
    // Round the way of the impulse pin.
    body.take(disc({0, *layout.lever.staff_mm}, *layout.lever.impulse_pin_mm - shape.fork_depth / 2 + 0.02 * head));
}

double stone_length(const LeverPallet& pallet, const LeverShape& shape) {
    return shape.stone_length_mm.value_or(usual_stone_length_mm(pallet));
}

LeverAction in_beat(LeverAction action, double zero) {
    for (LeverPallet* pallet : {&action.entry, &action.exit})
        for (Vector* at : {&pallet->locking, &pallet->let_off, &pallet->face, &pallet->middle}) *at = turned(*at, zero);
    return action;
}

/// Nearest of the outline to the escape arbor with the lever at its bankings, less the wheel.
double clear_of_wheel(const LeverAction& layout, const std::vector<Point>& outline, double banked) {
    double least = 1e9;
    for (const double at : {-banked, 0.0, banked})
        for (const Point& p : outline) least = std::min(least, length(Vector{0, layout.centre_mm} + turned({p[0], p[1]}, at)));
    return least - std::max(layout.tooth.toe, layout.tooth.heel);
}

LeverAction action_of(const LeverPartInput& in) {
    if (in.lever.has_value() == in.pin.has_value())
        throw InputError("lever", in.lever ? "two layouts" : "none", "just one of `lever` and `pin`");
    return in.lever ? action_of(*in.lever) : action_of(*in.pin);
}

double width_of(const LeverPallet& pallet) { return std::abs(cross(pallet.face, pallet.let_off - pallet.locking)) / length(pallet.face); }

double face_angle_deg(const LeverPallet& pallet) {
    const Vector face = pallet.let_off - pallet.locking;
    return std::abs(std::atan2(cross(pallet.face, face), dot(pallet.face, face))) / rad_per_deg;
}

}  // namespace

std::array<Vector, 4> stone_of(const LeverPallet& pallet, double length_mm) {
    const Vector along = 1 / length(pallet.face) * pallet.face, face = pallet.let_off - pallet.locking;
    const Vector end = pallet.locking + length_mm * along;
    // Its end is square to the sides.
    return {pallet.locking, pallet.let_off, end + face - dot(face, along) * along, end};
}

double usual_stone_length_mm(const LeverPallet& pallet) { return usual_length * length(pallet.let_off - pallet.locking); }

std::vector<Point> lever_outline(const LeverAction& layout, const LeverShape& shape) {
    const Decided all = decided(layout, shape);
    Metal body;
    body.add(disc({0, 0}, all.hub / 2));
    add_fork(body, layout, all);
    for (const LeverPallet* pallet : {&layout.entry, &layout.exit})
        if (pallet->pin) {
            body.add(bar({0, 0}, pallet->middle, all.arm));
            body.add(disc(pallet->middle, std::max(all.arm / 2, 2 * pallet->radius)));
        } else {
            add_stone(body, *pallet, all, stone_length(*pallet, shape));
        }
    for (const LeverPallet* pallet : {&layout.entry, &layout.exit})
        if (!pallet->pin) cut_slot(body, *pallet, stone_length(*pallet, shape));
    return body.outline();
}

LeverPartResult lever_part(const LeverPartInput& in) {
    LeverAction layout = action_of(in);
    const EscapementBeat beat = beat_of(layout);
    layout = in_beat(layout, beat.zero_rad.value_or(0));
    const Decided shape = decided(layout, in.shape);
    LeverPartResult out;
    out.outline = lever_outline(layout, in.shape);
    out.centre_distance_mm = layout.centre_mm;
    out.bore_mm = shape.bore, out.hub_mm = shape.hub, out.arm_mm = shape.arm, out.fork_mm = shape.fork;
    out.thickness_mm = in.shape.thickness_mm.value_or(usual_lever_thickness * layout.tooth.toe);
    out.clear_mm = clear_of_wheel(layout, out.outline, beat.least_rad.value_or(0) + layout.lever.run_deg * rad_per_deg);
    out.state = word_for(beat.state);
    if (in.pin) {
        out.pin_mm = in.pin->pin_mm;
        for (const LeverPallet* pallet : {&layout.entry, &layout.exit}) out.pins.push_back({pallet->middle.x, pallet->middle.y});
    } else {
        out.entry_width_mm = width_of(layout.entry), out.exit_width_mm = width_of(layout.exit);
        out.stone_length_mm = stone_length(layout.entry, in.shape);
        out.entry_face_deg = face_angle_deg(layout.entry), out.exit_face_deg = face_angle_deg(layout.exit);
        for (const LeverPallet* pallet : {&layout.entry, &layout.exit}) {
            out.stones.emplace_back();
            for (const Vector at : stone_of(*pallet, stone_length(*pallet, in.shape))) out.stones.back().push_back({at.x, at.y});
        }
    }
    if (beat.state != EscapementState::runs) out.warnings.push_back(std::string("A lever made so would not run: it ") + out.state + ".");
    if (out.clear_mm <= 0) out.warnings.push_back("The body stands over the teeth: give it a plane of its own, above or below the wheel.");
    if (!shape.fork) out.warnings.push_back("Left straight: tell where staff and impulse pin stand, and it gets its fork.");
    const Moments all = moments_of(out.outline), bore = moments_of_disc(out.bore_mm / 2);
    const double g_per_mm2 = in.shape.density_kg_m3 * 1e-6 * out.thickness_mm;
    out.mass_g = g_per_mm2 * (all.area - bore.area);
    out.inertia_g_mm2 = g_per_mm2 * (all.polar - bore.polar);
    out.out_of_poise_g_mm = g_per_mm2 * std::hypot(all.first[0], all.first[1]);
    out.files = part_files(in.format, drawing_of(in, out), solid_of(in, out));
    return out;
}

FlatPart solid_of(const LeverPartInput&, const LeverPartResult& out) {
    FlatPart part{out.pins.empty() ? "lever for stones" : "lever for pins", out.outline, {}, {}, out.thickness_mm};
    if (out.bore_mm > 0) part.holes.push_back({{0, 0}, out.bore_mm / 2});
    for (const Point& pin : out.pins) part.holes.push_back({pin, *out.pin_mm / 2});
    return part;
}

Drawing drawing_of(const LeverPartInput& in, const LeverPartResult& out) {
    const LeverAction layout = action_of(in);
    DrawingLayer holes{"holes", {}, {}, {{0, 0}}};
    for (const auto& hole : solid_of(in, out).holes) holes.circles.push_back(hole);
    DrawingLayer wheel{
        "wheel", {}, {{{0, -out.centre_distance_mm}, layout.tooth.toe}}, {{0, -out.centre_distance_mm}}, DrawingLayer::Of::construction};
    DrawingLayer staff{"staff", {}, {}, {}, DrawingLayer::Of::construction};
    if (layout.lever.staff_mm) {
        staff.marks.push_back({0, *layout.lever.staff_mm});
        if (layout.lever.impulse_pin_mm) staff.circles.push_back({{0, *layout.lever.staff_mm}, *layout.lever.impulse_pin_mm});
    }
    return {solid_of(in, out).title, {{"outline", {out.outline}, {}, {}}, {"stones", out.stones, {}, {}}, holes, wheel, staff}};
}

std::vector<Working> explain_lever_part(const LeverPartInput& in, const LeverPartResult& out) {
    const LeverAction layout = action_of(in);
    const double half = 180 * layout.span / static_cast<double>(layout.teeth);
    std::vector<Working> list = {
        work_out("half angle of the pallets", "β = 180 s ÷ E",
                 {given("s", "pitches between the pallets", layout.span, ""), given("E", "teeth", static_cast<double>(layout.teeth), "")},
                 "deg", lever_part_source, [](auto x) { return 180 * x[0] / x[1]; })};
    list.back().notes.push_back("The lines from the pallet arbor to the corners stand " + print_fixed(90 - half, 2) +
                                "° to each side below the level: the slots' places follow.");
    for (const std::string& warning : out.warnings) list.back().notes.push_back(warning);
    return list;
}

const Record& LeverShape::record() {
    using In = LeverShape;
    static const Record record =
        Fields<In>()
            .add("bore_mm", &In::bore_mm, "mm", "for the pallet arbor", between(0, 50))
            .add("hub_mm", &In::hub_mm, "mm", "diameter of the body round it", above(0, 100))
            .add("arm_mm", &In::arm_mm, "mm", "width of the arms and of the lever", above(0, 50))
            .add("stone_length_mm", &In::stone_length_mm, "mm", "from the locking corner along its side", above(0, 50))
            .add("held", &In::held, "", "share of a stone's length that stands in its slot", between(0.2, 0.9))
            .add("fork_slot_mm", &In::fork_slot_mm, "mm", "width of the fork's slot: the impulse pin and its play", above(0, 20))
            .add("fork_depth_mm", &In::fork_depth_mm, "mm", "of that slot, from the ends of the horns", above(0, 20))
            .add("thickness_mm", &In::thickness_mm, "mm", "of the body", above(0, 20))
            .add("density_kg_m3", &In::density_kg_m3, "kg/m³", "of the metal", above(0, 30000))
            .because("steel");
    return record;
}

const Record& LeverPartInput::record() {
    using In = LeverPartInput;
    static const Record record = [] {
        Fields<In> fields;
        fields.add("lever", &In::lever, "", "layout with stones")
            .add("pin", &In::pin, "", "or with pins")
            .add("shape", &In::shape, "", "of the body");
        return Record(add_part_format(fields));
    }();
    return record;
}

const Record& LeverPartResult::record() {
    using Out = LeverPartResult;
    static const Record record =
        Fields<Out>()
            .add("outline", &Out::outline, "mm", "anticlockwise, about the pallet arbor, midway between the two let-offs")
            .add("stones", &Out::stones, "mm", "entry and exit as they stand in their slots")
            .add("pins", &Out::pins, "mm", "middles of the pins, entry and exit")
            .add("centre_distance_mm", &Out::centre_distance_mm, "mm", "escape arbor to pallet arbor")
            .add("entry_width_mm", &Out::entry_width_mm, "mm", "the entry's stone across, and so its slot")
            .add("exit_width_mm", &Out::exit_width_mm, "mm", "and the exit's")
            .add("stone_length_mm", &Out::stone_length_mm, "mm", "from the locking corner along its side")
            .add("entry_face_deg", &Out::entry_face_deg, "deg", "entry's impulse face against the stone's sides")
            .add("exit_face_deg", &Out::exit_face_deg, "deg", "and the exit's")
            .add("pin_mm", &Out::pin_mm, "mm", "diameter of the pins")
            .add("fork_mm", &Out::fork_mm, "mm", "from the pallet arbor to the ends of the horns")
            .add("clear_mm", &Out::clear_mm, "mm", "between body and teeth at the bankings; negative: over each other")
            .add("bore_mm", &Out::bore_mm, "mm", "for the pallet arbor")
            .add("hub_mm", &Out::hub_mm, "mm", "diameter of the body round it")
            .add("arm_mm", &Out::arm_mm, "mm", "width of the arms")
            .add("thickness_mm", &Out::thickness_mm, "mm", "of the body")
            .add("state", &Out::state, "", "runs, trips or catches")
            .add("mass_g", &Out::mass_g, "g", "of the body, without stones and pins")
            .add("out_of_poise_g_mm", &Out::out_of_poise_g_mm, "g·mm", "of the body about its arbor")
            .add("inertia_g_mm2", &Out::inertia_g_mm2, "g·mm²", "about its arbor")
            .add("warnings", &Out::warnings, "", "what speaks against it")
            .include(&Out::files);
    return record;
}

const Calculation& lever_part_calculation() {
    static const Calculation calculation = declare<LeverPartInput, LeverPartResult>(
        "escapement.body", "A lever to be cut: arms with slots or holes, fork, and what its stones are ground to.", lever_part_source,
        lever_part, explain_lever_part);
    return calculation;
}

}  // namespace echappe
