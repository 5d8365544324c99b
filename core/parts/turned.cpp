#include "parts/turned.h"

#include <algorithm>
#include <cmath>

#include "making/fit_limits.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "parts/material.h"
#include "parts/thread.h"

namespace echappe {
namespace {

constexpr const char* turned_source = "frusta of cones; ISO 286; a cantilever under a light cut";
constexpr double least_wall_mm = 0.25, light_cut_N = 5, gives_too_much_mm = 0.02;

std::string place(size_t i, const char* field) { return "lands[" + std::to_string(i) + "]." + field; }

double left_of(const TurnedLand& land) { return land.diameter_mm; }
double right_of(const TurnedLand& land) { return land.to_mm.value_or(land.diameter_mm); }

double frustum(double d, double D, double length) { return pi * length * (d * d + d * D + D * D) / 12; }

/// Where it is held for turning the rest.
size_t thickest(const std::vector<TurnedLand>& lands) {
    const auto at = std::max_element(lands.begin(), lands.end(), [](const TurnedLand& a, const TurnedLand& b) {
        return std::max(left_of(a), right_of(a)) < std::max(left_of(b), right_of(b));
    });
    return static_cast<size_t>(at - lands.begin());
}

/// Steps of a cantilever held at `held`, pushed at the outer end of land `i`: each land bends as one that carries force and moment.
double gives_way(const std::vector<TurnedLand>& lands, size_t held, size_t i, double modulus) {
    if (i == held) return 0;
    const double force = light_cut_N;
    // ∫ x² dx ÷ I from the outer end inwards, land by land (Castigliano).
    double sum = 0, from = 0;
    const auto pieces = [&](const TurnedLand& land, bool outer_is_left) {
        constexpr int steps = 64;
        for (int s = 0; s < steps; ++s) {
            const double part = (s + 0.5) / steps, x = from + part * land.length_mm;
            const double d = outer_is_left ? left_of(land) + part * (right_of(land) - left_of(land))
                                           : right_of(land) + part * (left_of(land) - right_of(land));
            sum += x * x / (pi * std::pow(d, 4) / 64) * land.length_mm / steps;
        }
        from += land.length_mm;
    };
    if (i < held)
        for (size_t k = i; k < held; ++k) pieces(lands[k], true);
    else
        for (size_t k = i; k > held; --k) pieces(lands[k], false);
    return force * sum / modulus;
}

void check(const TurnedShape& shape) {
    if (shape.lands.empty()) throw InputError("lands", "none", "at least one length with its diameter");
    for (size_t i = 0; i < shape.lands.size(); ++i) {
        const double thinnest = std::min(left_of(shape.lands[i]), right_of(shape.lands[i]));
        if (shape.bore_mm && *shape.bore_mm >= thinnest)
            throw InputError(place(i, "diameter_mm"), print_short(thinnest),
                             "more than the bore of " + print_short(*shape.bore_mm) + " mm");
    }
}

void size_land(const TurnedShape& shape, size_t i, TurnedLandResult& out) {
    const TurnedLand& land = shape.lands[i];
    const double left = left_of(land), right = right_of(land);
    out.name = land.name.empty() ? "land " + std::to_string(i + 1) : land.name;
    out.nominal_mm = left, out.max_mm = left + 0.02, out.min_mm = left - 0.02;
    if (land.thread) {
        ThreadInput thread;
        thread.thread = *land.thread;
        const ThreadResult sizes = thread_sizes(thread);
        out.nominal_mm = sizes.diameter_mm, out.max_mm = sizes.diameter_mm, out.min_mm = sizes.diameter_mm - 0.1 * sizes.pitch_mm;
    } else if (land.fit) {
        const SizeLimits limits = shaft_limits(*land.fit, left, place(i, "fit"));
        out.max_mm = left + limits.upper_mm, out.min_mm = left + limits.lower_mm;
    }
    if (std::abs(left - right) > 1e-9) {
        ArborTaperInput taper;
        taper.large_diameter_mm = std::max(left, right), taper.small_diameter_mm = std::min(left, right), taper.length_mm = land.length_mm;
        taper.modulus_N_mm2 = material(shape.material).modulus_N_mm2;
        const ArborTaperResult turned = turn_taper(taper);
        out.angle_deg = turned.compound_angle_deg, out.stages = turned.stages;
    }
    if (shape.bore_mm) out.wall_mm = (std::min(left, right) - *shape.bore_mm) / 2;
}

void warn(const TurnedShape& shape, TurnedResult& out) {
    for (const TurnedLandResult& land : out.lands) {
        if (land.wall_mm && *land.wall_mm < least_wall_mm)
            out.warnings.push_back(land.name + ": its wall is down to " + print_fixed(*land.wall_mm, 2) + " mm, less than " +
                                   print_fixed(least_wall_mm, 2) + " mm.");
        if (land.gives_mm > gives_too_much_mm)
            out.warnings.push_back(land.name + ": gives way by " + print_fixed(land.gives_mm, 2) +
                                   " mm under a light cut; turn it between centres, or from the outer end in stages.");
    }
    if (shape.hardened && !material(shape.material).hardens && shape.material != "blue steel")
        out.warnings.push_back(shape.material + " does not harden by heat.");
}

PartFiles turned_files(const TurnedInput& in, const TurnedResult& out) {
    PartFiles files;
    const Drawing drawing = drawing_of(in, out);
    if (in.format == "svg") files.svg = to_svg(drawing);
    if (in.format == "dxf") files.dxf = to_dxf(drawing);
    if (in.format == "step") files.step = to_step(TurnedSolid{drawing.title, half_section(in.shape)});
    return files;
}

}  // namespace

TurnedResult turn_part(const TurnedInput& in) {
    const TurnedShape& shape = in.shape;
    check(shape);
    const Material& of = material(shape.material);
    TurnedResult out;
    const size_t held = thickest(shape.lands);
    for (size_t i = 0; i < shape.lands.size(); ++i) {
        const TurnedLand& land = shape.lands[i];
        TurnedLandResult made;
        size_land(shape, i, made);
        made.from_mm = out.length_mm;
        out.length_mm += land.length_mm;
        made.to_mm = out.length_mm;
        made.gives_mm = gives_way(shape.lands, held, i, of.modulus_N_mm2);
        out.largest_mm = std::max({out.largest_mm, made.max_mm, left_of(land), right_of(land)});
        out.volume_mm3 += frustum(left_of(land), right_of(land), land.length_mm);
        out.lands.push_back(std::move(made));
    }
    if (shape.bore_mm) out.volume_mm3 -= pi * *shape.bore_mm * *shape.bore_mm / 4 * out.length_mm;
    constexpr double to_turn_off = 0.3;
    out.stock_mm = out.largest_mm + to_turn_off;
    out.mass_g = out.volume_mm3 * of.density_kg_m3 * 1e-6;
    warn(shape, out);
    out.files = turned_files(in, out);
    return out;
}

std::vector<Point> half_section(const TurnedShape& shape) {
    const double inner = shape.bore_mm.value_or(0) / 2;
    std::vector<Point> points = {{0, inner}};
    double along = 0;
    const auto add = [&](double x, double r) {
        if (std::hypot(points.back()[0] - x, points.back()[1] - r) > 1e-9) points.push_back({x, r});
    };
    for (const TurnedLand& land : shape.lands) {
        add(along, left_of(land) / 2);
        along += land.length_mm;
        add(along, right_of(land) / 2);
    }
    add(along, inner);
    return points;
}

Drawing drawing_of(const TurnedInput& in, const TurnedResult& out) {
    std::vector<Point> above = half_section(in.shape), whole = above;
    Drawing drawing;
    drawing.title = "turned part, " + in.shape.material;
    if (in.shape.bore_mm) {
        std::vector<Point> below;
        for (auto at = above.rbegin(); at != above.rend(); ++at) below.push_back({(*at)[0], -(*at)[1]});
        drawing.layers.push_back({"section", {above, below}, {}, {}, DrawingLayer::Of::cut});
    } else {
        // One outline round both halves; the two points on the axis are no corners.
        for (auto at = above.rbegin() + 1; at + 1 != above.rend(); ++at) whole.push_back({(*at)[0], -(*at)[1]});
        drawing.layers.push_back({"section", {whole}, {}, {}, DrawingLayer::Of::cut});
    }
    drawing.layers.push_back({"axis", {}, {}, {{0, 0}, {out.length_mm, 0}}, DrawingLayer::Of::construction});
    return drawing;
}

std::vector<Working> explain_turned(const TurnedInput& in, const TurnedResult& out) {
    std::vector<Working> list = {
        work_out("mass", "m = V ρ",
                 {given("V", "volume", out.volume_mm3, "mm³"), given("ρ", "density", material(in.shape.material).density_kg_m3, "kg/m³")},
                 "g", turned_source, [](auto x) { return x[0] * x[1] * 1e-6; })};
    for (const TurnedLandResult& land : out.lands)
        if (land.angle_deg) list.back().notes.push_back(land.name + ": tool rest at " + print_fixed(*land.angle_deg, 2) + "°.");
    for (const std::string& warning : out.warnings) list.back().notes.push_back(warning);
    return list;
}

const Record& TurnedLand::record() {
    using In = TurnedLand;
    static const Record record = Fields<In>()
                                     .add("name", &In::name, "", "\"front pivot\"")
                                     .add("length_mm", &In::length_mm, "mm", "along the part", above(0, 2000))
                                     .required()
                                     .add("diameter_mm", &In::diameter_mm, "mm", "at its left end", above(0, 500))
                                     .required()
                                     .add("to_mm", &In::to_mm, "mm", "diameter at its right end, of a taper", above(0, 500))
                                     .add("fit", &In::fit, "", "shaft's side of a fit, as in \"h6\"")
                                     .add("thread", &In::thread, "", "as in \"BA 6\"");
    return record;
}

const Record& TurnedShape::record() {
    using In = TurnedShape;
    static const Record record = Fields<In>()
                                     .add("material", &In::material, "", "it is made of")
                                     .choices(material_ids())
                                     .because("turned soft, hardened when it fits")
                                     .add("lands", &In::lands, "", "from the left")
                                     .add("bore_mm", &In::bore_mm, "mm", "through it", above(0, 500))
                                     .add("bore_fit", &In::bore_fit, "", "hole's side of a fit, as in \"H7\"")
                                     .add("runout_mm", &In::runout_mm, "mm", "total indicator reading that it may show", above(0, 5))
                                     .add("hardened", &In::hardened, "", "and tempered")
                                     .add("slot_mm", &In::slot_mm, "mm", "width of a screw's slot", above(0, 20))
                                     .add("pin_hole_mm", &In::pin_hole_mm, "mm", "across it, for a taper pin", above(0, 50))
                                     .add("joined_by", &In::joined_by, "", "how it is fixed where it goes")
                                     .choices({"", "retainer", "soft-solder", "silver-solder", "press", "rivets", "taper-pin"})
                                     .because("it is screwed, pinned or free until a joint is said");
    return record;
}

const Record& TurnedInput::record() {
    using In = TurnedInput;
    static const Record record = [] {
        Fields<In> fields;
        fields.include(&In::shape);
        return Record(add_part_format(fields));
    }();
    return record;
}

const Record& TurnedLandResult::record() {
    using Out = TurnedLandResult;
    static const Record record = Fields<Out>()
                                     .add("name", &Out::name, "", "of the land")
                                     .add("from_mm", &Out::from_mm, "mm", "along the part")
                                     .add("to_mm", &Out::to_mm, "mm", "along the part")
                                     .add("nominal_mm", &Out::nominal_mm, "mm", "at its left end")
                                     .add("max_mm", &Out::max_mm, "mm", "the largest that is right")
                                     .add("min_mm", &Out::min_mm, "mm", "the smallest")
                                     .add("angle_deg", &Out::angle_deg, "deg", "of the tool rest, of a taper")
                                     .add("stages", &Out::stages, "", "of a slender taper, the small end first")
                                     .add("wall_mm", &Out::wall_mm, "mm", "over the bore, least")
                                     .add("gives_mm", &Out::gives_mm, "mm", "under 5 N at its outer end, held by the thickest land");
    return record;
}

const Record& TurnedResult::record() {
    using Out = TurnedResult;
    static const Record record = Fields<Out>()
                                     .add("length_mm", &Out::length_mm, "mm", "whole")
                                     .add("largest_mm", &Out::largest_mm, "mm", "diameter")
                                     .add("stock_mm", &Out::stock_mm, "mm", "rod to take")
                                     .add("volume_mm3", &Out::volume_mm3, "mm³", "finished")
                                     .add("mass_g", &Out::mass_g, "g", "finished")
                                     .add("lands", &Out::lands, "", "as they are to be made")
                                     .add("warnings", &Out::warnings, "", "what speaks against it")
                                     .include(&Out::files);
    return record;
}

const Calculation& turned_calculation() {
    static const Calculation calculation = declare<TurnedInput, TurnedResult>(
        "part.turned", "A turned part: limits of its lands, tapers with their stages, walls, mass; drawn, and as a solid.", turned_source,
        turn_part, explain_turned);
    return calculation;
}

}  // namespace echappe
