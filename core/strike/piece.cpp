#include "strike/piece.h"

#include <cmath>

#include "exchange/metal.h"
#include "making/crossings.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* piece_source = "pieces united by their outlines; moments by Green's theorem";

Point on(double deg, double r) { return {r * std::cos(deg * rad_per_deg), r * std::sin(deg * rad_per_deg)}; }

/// Teeth and rim, as one sector from the arbor.
Shape sector_of(const PieceSector& sector) {
    const double wide = sector.tooth_pitch_deg * static_cast<double>(sector.teeth), from = sector.middle_deg - wide / 2;
    const double root = sector.radius_mm - sector.depth_mm;
    Shape out = {{0, 0}, on(from, root)};
    for (long long tooth = 0; tooth < sector.teeth; ++tooth) {
        const double begins = from + static_cast<double>(tooth) * sector.tooth_pitch_deg, ends = begins + sector.tooth_pitch_deg;
        // Steep on the one side, leaning on the other.
        if (sector.clockwise) out.push_back(on(begins, sector.radius_mm));
        else out.push_back(on(begins, root)), out.push_back(on(ends, sector.radius_mm));
        out.push_back(on(ends, root));
    }
    return out;
}

/// What is sawn out between hub and rim.
Shape opening_of(const PieceSector& sector, double hub_mm) {
    const double wide = sector.tooth_pitch_deg * static_cast<double>(sector.teeth),
                 outer = sector.radius_mm - sector.depth_mm - sector.rim_mm;
    const double spoke = std::min(0.25 * wide, std::asin(std::min(1.0, sector.rim_mm / outer)) / rad_per_deg);
    const double from = sector.middle_deg - wide / 2 + spoke, to = sector.middle_deg + wide / 2 - spoke;
    Shape out = {on(sector.middle_deg, std::max(hub_mm, 0.35 * outer))};
    constexpr int pieces = 16;
    for (int i = 0; i <= pieces; ++i) out.push_back(on(from + (to - from) * i / pieces, outer));
    return out;
}

void check(const StrikePieceInput& in) {
    if (in.arms.empty() && !in.sector) throw InputError("arms", "none", "one arm at least, or a sector of teeth");
    if (in.bore_mm >= in.hub_mm)
        throw InputError("bore_mm", print_short(in.bore_mm), "less than the hub's " + print_short(in.hub_mm) + " mm");
    if (!in.sector) return;
    const PieceSector& sector = *in.sector;
    if (sector.depth_mm + sector.rim_mm + in.hub_mm / 2 >= sector.radius_mm)
        throw InputError("sector.radius_mm", print_short(sector.radius_mm), "more than hub, rim and teeth take");
    if (sector.tooth_pitch_deg * static_cast<double>(sector.teeth) > 170)
        throw InputError("sector.teeth", std::to_string(sector.teeth), "a sector of less than half a turn");
}

}  // namespace

StrikePieceResult strike_piece(const StrikePieceInput& in) {
    check(in);
    StrikePieceResult out;
    Metal metal;
    metal.add(disc_shape({0, 0}, in.hub_mm / 2));
    if (in.sector) {
        metal.add(sector_of(*in.sector));
        metal.take(opening_of(*in.sector, in.hub_mm));
        out.chord_mm = 2 * in.sector->radius_mm * std::sin(in.sector->tooth_pitch_deg * rad_per_deg / 2);
    }
    for (const PieceArm& arm : in.arms) {
        const Point end = on(arm.deg, arm.length_mm);
        const double tip = arm.tip_mm.value_or(arm.width_mm);
        metal.add(bar_shape({0, 0}, end, arm.width_mm, tip));
        if (!arm.pin_mm) continue;
        metal.add(disc_shape(end, std::max(tip / 2, *arm.pin_mm)));
        out.pins.push_back(end);
    }
    out.outline = metal.outline();
    const Moments all = moments_of(out.outline), bore = moments_of_disc(in.bore_mm / 2);
    const double g_per_mm2 = in.density_kg_m3 * 1e-6 * in.thickness_mm;
    out.mass_g = g_per_mm2 * (all.area - bore.area);
    out.inertia_g_mm2 = g_per_mm2 * (all.polar - bore.polar);
    out.pull_g_mm = g_per_mm2 * std::hypot(all.first[0], all.first[1]);
    out.falls_to_deg = std::atan2(all.first[1], all.first[0]) / rad_per_deg;
    constexpr double thin = 0.8;
    for (const PieceArm& arm : in.arms)
        if (arm.tip_mm.value_or(arm.width_mm) < thin)
            out.warnings.push_back("An arm is thinner than 0.8 mm at its end: it bends when the train runs against it.");
    out.files = part_files(in.format, drawing_of(solid_of(in, out)), solid_of(in, out));
    return out;
}

FlatPart solid_of(const StrikePieceInput& in, const StrikePieceResult& out) {
    FlatPart part{in.sector ? "rack of " + std::to_string(in.sector->teeth) + " teeth" : std::string("lever of a strike"),
                  out.outline,
                  {},
                  {},
                  in.thickness_mm};
    if (in.bore_mm > 0) part.holes.push_back({{0, 0}, in.bore_mm / 2});
    size_t pin = 0;
    for (const PieceArm& arm : in.arms)
        if (arm.pin_mm) part.holes.push_back({out.pins[pin++], *arm.pin_mm / 2});
    return part;
}

std::vector<Working> explain_strike_piece(const StrikePieceInput& in, const StrikePieceResult& out) {
    std::vector<Working> list;
    if (in.sector)
        list.push_back(
            work_out("from tip to tip", "c = 2 R sin(p ÷ 2)",
                     {given("R", "over the tips", in.sector->radius_mm, "mm"), given("p", "pitch", in.sector->tooth_pitch_deg, "deg")},
                     "mm", piece_source, [](auto x) { return 2 * x[0] * std::sin(x[1] * rad_per_deg / 2); }));
    else
        list.push_back(work_out("falls by", "as drawn", {given("M", "first moment about its arbor", out.pull_g_mm, "g mm")}, "g mm",
                                piece_source, [](auto x) { return x[0]; }));
    for (const std::string& warning : out.warnings) list.back().notes.push_back(warning);
    return list;
}

const Record& PieceArm::record() {
    using In = PieceArm;
    static const Record record = Fields<In>()
                                     .add("deg", &In::deg, "deg", "where it points, anticlockwise from +x", between(-360, 360))
                                     .add("length_mm", &In::length_mm, "mm", "to its end, or to the middle of its pin", above(0, 1000))
                                     .required()
                                     .add("width_mm", &In::width_mm, "mm", "at the hub", above(0, 100))
                                     .because("stiff enough in steel of 2 mm")
                                     .add("tip_mm", &In::tip_mm, "mm", "at its end; empty: as at the hub", above(0, 100))
                                     .add("pin_mm", &In::pin_mm, "mm", "hole for a pin at its end", above(0, 50));
    return record;
}

const Record& PieceSector::record() {
    using In = PieceSector;
    static const Record record = Fields<In>()
                                     .add("teeth", &In::teeth, "", "with two to spare", between(2, 60))
                                     .because("twelve hours and two to spare")
                                     .add("tooth_pitch_deg", &In::tooth_pitch_deg, "deg", "about its arbor", above(0, 30))
                                     .required()
                                     .add("radius_mm", &In::radius_mm, "mm", "over the tips", above(0, 1000))
                                     .required()
                                     .add("depth_mm", &In::depth_mm, "mm", "of a tooth", above(0, 50))
                                     .because("enough for the gathering pallet")
                                     .add("rim_mm", &In::rim_mm, "mm", "left below the teeth", above(0, 100))
                                     .because("twice a tooth")
                                     .add("middle_deg", &In::middle_deg, "deg", "where its middle points", between(-360, 360))
                                     .add("clockwise", &In::clockwise, "", "the teeth's steep side looks that way");
    return record;
}

const Record& StrikePieceInput::record() {
    using In = StrikePieceInput;
    static const Record record = [] {
        Fields<In> fields;
        fields.add("arms", &In::arms, "", "from the hub")
            .add("sector", &In::sector, "", "of teeth, of a rack")
            .add("bore_mm", &In::bore_mm, "mm", "for its stud or arbor", between(0, 200))
            .add("hub_mm", &In::hub_mm, "mm", "diameter of the hub", above(0, 500))
            .required()
            .add("thickness_mm", &In::thickness_mm, "mm", "of the plate", above(0, 50))
            .because("steel as it is sold for such parts")
            .add("density_kg_m3", &In::density_kg_m3, "kg/m³", "of the metal", above(0, 30000))
            .because("tool steel");
        return Record(add_part_format(fields));
    }();
    return record;
}

const Record& StrikePieceResult::record() {
    using Out = StrikePieceResult;
    static const Record record = Fields<Out>()
                                     .add("outline", &Out::outline, "mm", "anticlockwise, its arbor at 0, 0")
                                     .add("pins", &Out::pins, "mm", "middles of their holes")
                                     .add("mass_g", &Out::mass_g, "g", "without pins")
                                     .add("inertia_g_mm2", &Out::inertia_g_mm2, "g mm²", "about its arbor")
                                     .add("pull_g_mm", &Out::pull_g_mm, "g mm", "first moment about the arbor, by which it falls")
                                     .add("falls_to_deg", &Out::falls_to_deg, "deg", "where that points")
                                     .add("chord_mm", &Out::chord_mm, "mm", "from tip to tip of neighbouring teeth")
                                     .add("warnings", &Out::warnings, "", "what speaks against it")
                                     .include(&Out::files);
    return record;
}

const Calculation& strike_piece_calculation() {
    static const Calculation calculation = declare<StrikePieceInput, StrikePieceResult>(
        "strike.piece", "Rack, detent, lifting piece or hammer tail to be cut: outline, weight and by what it falls.", piece_source,
        strike_piece, explain_strike_piece);
    return calculation;
}

}  // namespace echappe
