#include "escapement/wheel_part.h"

#include <algorithm>
#include <cmath>

#include "making/crossings.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* wheel_part_source = "straight teeth by their corners; areas and moments by Green's theorem";

// As usual, in pitches along the tips, where nothing was decided.
constexpr double knee = 0.94;  // of the radius
constexpr double usual_depth = 1.0, club_depth = 0.5, usual_land = 0.03, back_foot = 0.42, usual_rim = 0.4;
constexpr double widest_rim = 0.1, widest_arm = 0.12;  // of the radius, where teeth are few
constexpr double usual_wheel_thickness = 0.3, usual_wheel_hub = 0.36, usual_wheel_bore = 0.14, usual_wheel_arm = 0.55;

bool pointed(const EscapeWheelInput& in) { return in.kind == "deadbeat" || in.kind == "recoil"; }

double usual_undercut_deg(const std::string& kind) { return kind == "deadbeat" ? 10 : kind == "recoil" ? 3 : kind == "lever" ? 24 : 15; }

double radius_of(const EscapeWheelInput& in) { return in.tip_diameter_mm / 2; }
double pitch_rad(const EscapeWheelInput& in) { return 2 * pi / static_cast<double>(in.teeth); }
double pitch_mm(const EscapeWheelInput& in) { return pitch_rad(in) * radius_of(in); }
double undercut_rad(const EscapeWheelInput& in) { return in.shape.undercut_deg.value_or(usual_undercut_deg(in.kind)) * rad_per_deg; }
double depth_mm(const EscapeWheelInput& in) {
    // Never so deep that the undercut face passes the roots by.
    const double deepest = std::min(0.3, 0.9 * (1 - std::sin(undercut_rad(in)))) * radius_of(in);
    return in.shape.tooth_depth_mm.value_or(std::min((pointed(in) ? usual_depth : club_depth) * pitch_mm(in), deepest));
}

/// Where the acting face, straight from the tip, comes to the roots.
Vector foot_of_face(double radius, double root, double undercut) {
    const double middle = radius * std::sin(undercut);
    if (middle >= root)
        throw InputError("undercut_deg", print_short(undercut / rad_per_deg),
                         "less: a face so far undercut does not come down to the roots at " + print_short(root, 4) + " mm");
    const double along = radius * std::cos(undercut) - std::sqrt(root * root - middle * middle);
    return Vector{0, radius} + along * Vector{-std::sin(undercut), -std::cos(undercut)};
}

/// The tooth on +x, and the floor to the next one, anticlockwise all round.
std::vector<Point> outline_of(const EscapeWheelInput& in) {
    const auto tooth = escape_tooth(in);
    std::vector<Point> outline;
    constexpr int floor_pieces = 6;
    const double root = length(tooth[0]);
    for (long long i = 0; i < in.teeth; ++i) {
        const double turn = static_cast<double>(i) * pitch_rad(in) - pi / 2;
        const auto add = [&](Vector corner) {
            const Vector there = turned(corner, turn);
            outline.push_back({there.x, there.y});
        };
        for (const Vector corner : tooth) add(corner);
        // Anticlockwise from this back to the next face.
        const double from = angle_of(tooth.back()), to = angle_of(tooth[0]) - pitch_rad(in);
        for (int k = 1; k < floor_pieces; ++k) add(spot(root, from + (to - from) * k / floor_pieces));
    }
    return outline;
}

void cross_out(const EscapeWheelInput& in, EscapeWheelResult& out) {
    const double pitch = pitch_mm(in), radius = radius_of(in), root = out.root_diameter_mm / 2;
    const EscapeWheelShape& s = in.shape;
    out.thickness_mm = s.thickness_mm.value_or(usual_wheel_thickness * pitch);
    out.bore_mm = s.bore_mm.value_or(usual_wheel_bore * radius);
    out.hub_diameter_mm = s.hub_diameter_mm.value_or(std::max(usual_wheel_hub * radius, 1.8 * out.bore_mm));
    out.rim_mm = s.rim_mm.value_or(std::min(usual_rim * pitch, widest_rim * radius));
    out.arm_mm = s.arm_mm.value_or(std::min(usual_wheel_arm * pitch, widest_arm * radius));
    out.arms = s.arms.value_or(usual_arms(in.tip_diameter_mm));
    if (out.bore_mm >= 2 * root)
        throw InputError("bore_mm", print_short(out.bore_mm), "less than the " + print_short(2 * root, 4) + " mm between the roots");
    if (out.arms == 1 || out.arms == 2) throw InputError("arms", std::to_string(out.arms), "3 to 8, or 0 for a solid wheel");
    if (out.arms == 0) return;
    const double rim = root - out.rim_mm, hub = out.hub_diameter_mm / 2, share = std::sin(pi / static_cast<double>(out.arms));
    if (rim - hub < 0.5 * pitch || out.arm_mm >= 1.9 * hub * share) {
        if (s.arms || s.rim_mm || s.hub_diameter_mm || s.arm_mm)
            throw InputError("rim_mm", print_short(out.rim_mm),
                             "rim, hub and arms that leave an opening: the roots stand at " + print_short(root, 4) + " mm radius");
        out.arms = 0;
        out.warnings.push_back("Left solid: between the rim and the hub there is too little to open.");
        return;
    }
    out.crossings = wheel_crossings({rim, hub, out.arm_mm, out.arm_mm, out.arms});
}

void weigh(const EscapeWheelInput& in, EscapeWheelResult& out) {
    Moments all = moments_of(out.outline);
    const auto take = [&](const Moments& open) { all = {all.area - open.area, all.polar - open.polar}; };
    take(moments_of_disc(out.bore_mm / 2));
    for (const auto& opening : out.crossings) take(moments_of(opening));
    const double g_per_mm2 = in.shape.density_kg_m3 * 1e-6 * out.thickness_mm;
    out.mass_g = g_per_mm2 * all.area;
    out.inertia_g_mm2 = g_per_mm2 * all.polar;
}

}  // namespace

std::vector<Vector> escape_tooth(const EscapeWheelInput& in) {
    const double radius = radius_of(in), root = radius - depth_mm(in), pitch = pitch_rad(in);
    if (root <= 0.2 * radius) throw InputError("tooth_depth_mm", print_short(depth_mm(in)), "less: nothing is left of the wheel");
    const Vector foot = foot_of_face(radius, root, undercut_rad(in));
    Vector heel;
    if (pointed(in)) {
        const double land = in.shape.tip_mm.value_or(usual_land * pitch_mm(in));
        heel = spot(radius, -land / radius);
    } else {
        if (!in.tooth_width_deg || !in.heel_radius_mm)
            throw InputError(in.tooth_width_deg ? "heel_radius_mm" : "tooth_width_deg", "nothing",
                             "the heel of a club tooth: its radius, and how far it stands behind the locking corner");
        heel = spot(*in.heel_radius_mm, -*in.tooth_width_deg * rad_per_deg);
    }
    // Behind the heel: a back that leans forward would leave the tip standing on nothing. A club's neck is as wide as its face.
    const double neck = pointed(in) ? back_foot * pitch : -0.9 * angle_of(heel);
    const double back = std::min(angle_of(foot) - neck, angle_of(heel) - 0.02 * pitch);
    if (angle_of(foot) - back > 0.92 * pitch || -angle_of(heel) > 0.7 * pitch)
        throw InputError(pointed(in) ? "tip_mm" : "tooth_width_deg",
                         print_short(pointed(in) ? length(heel - Vector{0, radius}) : *in.tooth_width_deg),
                         "a narrower tooth: " + std::to_string(in.teeth) + " of them leave no space between");
    std::vector<Vector> tooth = {foot, Vector{0, radius}, heel};
    // A stone or a pin comes down behind the tooth: so deep its back goes straight to the arbor.
    if (!pointed(in)) tooth.push_back(spot(knee * radius, angle_of(heel)));
    tooth.push_back(spot(root, back));
    return tooth;
}

EscapeWheelInput wheel_of(const LeverAction& action) {
    EscapeWheelInput in;
    in.kind = action.entry.pin ? "pin" : "lever";
    in.teeth = action.teeth;
    in.tip_diameter_mm = 2 * action.tooth.toe;
    in.heel_radius_mm = action.tooth.heel;
    in.tooth_width_deg = action.tooth.width / rad_per_deg;
    in.shape.undercut_deg = action.tooth.undercut / rad_per_deg;
    return in;
}

EscapeWheelResult escape_wheel_part(const EscapeWheelInput& in) {
    EscapeWheelResult out;
    const auto tooth = escape_tooth(in);
    out.outline = outline_of(in);
    out.outside_diameter_mm = 2 * std::max(radius_of(in), length(tooth[2]));
    out.root_diameter_mm = 2 * length(tooth[0]);
    out.tooth_depth_mm = depth_mm(in);
    out.undercut_deg = undercut_rad(in) / rad_per_deg;
    out.face_offset_mm = radius_of(in) * std::sin(undercut_rad(in));
    out.index_deg = 360.0 / static_cast<double>(in.teeth);
    out.tip_mm = length(tooth[2] - tooth[1]);
    out.tip_land_deg = -angle_of(tooth[2]) / rad_per_deg;
    // Seen in one space: this tooth's face, and the back of the tooth before it, a pitch on.
    const Vector face = tooth[1] - tooth[0], back = turned(*(tooth.end() - 2) - tooth.back(), -pitch_rad(in));
    out.space_deg = std::abs(std::atan2(cross(face, back), dot(face, back))) / rad_per_deg;
    cross_out(in, out);
    weigh(in, out);
    constexpr double much_land = 0.5;
    if (pointed(in) && out.tip_land_deg > much_land)
        out.warnings.push_back("The land of " + print_fixed(out.tip_mm, 2) + " mm takes " + print_fixed(out.tip_land_deg, 2) +
                               "° from the drop: the layout takes the tips as points.");
    if (in.kind == "deadbeat" && out.undercut_deg < 5)
        out.warnings.push_back("So little undercut lets the whole face rub where only the tip should touch.");
    out.files = part_files(in.format, drawing_of(in, out), solid_of(in, out));
    return out;
}

FlatPart solid_of(const EscapeWheelInput& in, const EscapeWheelResult& out) {
    FlatPart part{"escape wheel of " + std::to_string(in.teeth), out.outline, out.crossings, {}, out.thickness_mm};
    if (out.bore_mm > 0) part.holes.push_back({{0, 0}, out.bore_mm / 2});
    return part;
}

Drawing drawing_of(const EscapeWheelInput& in, const EscapeWheelResult& out) {
    Drawing drawing{"escape wheel of " + std::to_string(in.teeth),
                    {{"outline", {out.outline}, {}, {}}, {"crossings", out.crossings, {}, {}}}};
    DrawingLayer bore{"bore", {}, {}, {{0, 0}}}, tips{"tips", {}, {{{0, 0}, radius_of(in)}}, {}, DrawingLayer::Of::construction};
    if (out.bore_mm > 0) bore.circles.push_back({{0, 0}, out.bore_mm / 2});
    drawing.layers.push_back(std::move(bore));
    drawing.layers.push_back(std::move(tips));
    return drawing;
}

std::vector<Working> explain_escape_wheel(const EscapeWheelInput& in, const EscapeWheelResult& out) {
    std::vector<Working> list = {
        work_out("the acting face beside the middle", "a = R sin u",
                 {given("R", "radius of the tips", radius_of(in), "mm"), given("u", "undercut", out.undercut_deg, "deg")}, "mm",
                 wheel_part_source, [](auto x) { return x[0] * std::sin(x[1] * rad_per_deg); }),
        work_out("turn from tooth to tooth", "p = 360 ÷ E", {given("E", "teeth", static_cast<double>(in.teeth), "")}, "deg",
                 wheel_part_source, [](auto x) { return 360 / x[0]; })};
    list.front().notes.push_back("The cutter's straight side is set so far beside the line of centres, its other side leans by " +
                                 print_fixed(out.space_deg, 1) + "°.");
    for (const std::string& warning : out.warnings) list.back().notes.push_back(warning);
    return list;
}

const Record& EscapeWheelShape::record() {
    using In = EscapeWheelShape;
    static const Record record = Fields<In>()
                                     .add("undercut_deg", &In::undercut_deg, "deg", "of the acting face, from the radius", between(0, 45))
                                     .add("tip_mm", &In::tip_mm, "mm", "land that is left on a pointed tooth", between(0, 5))
                                     .add("tooth_depth_mm", &In::tooth_depth_mm, "mm", "from the tips to the roots", above(0, 500))
                                     .add("thickness_mm", &In::thickness_mm, "mm", "of the wheel", above(0, 50))
                                     .add("bore_mm", &In::bore_mm, "mm", "for its collet", between(0, 500))
                                     .add("rim_mm", &In::rim_mm, "mm", "left below the roots", above(0, 500))
                                     .add("hub_diameter_mm", &In::hub_diameter_mm, "mm", "between the arms", above(0, 500))
                                     .add("arm_mm", &In::arm_mm, "mm", "width of an arm", above(0, 500))
                                     .add("arms", &In::arms, "", "0 leaves it solid", between(0, 8))
                                     .add("density_kg_m3", &In::density_kg_m3, "kg/m³", "of the metal", above(0, 30000))
                                     .because("engraving brass");
    return record;
}

const Record& EscapeWheelInput::record() {
    using In = EscapeWheelInput;
    static const Record record = [] {
        Fields<In> fields;
        fields.add("kind", &In::kind, "", "of escapement: pointed teeth, club teeth of a lever, teeth for pins")
            .choices({"deadbeat", "recoil", "lever", "pin"})
            .because("most wheels that are made anew are of regulators")
            .add("teeth", &In::teeth, "", "count", between(6, 400))
            .because("most that beat seconds or go with a one-second pendulum have thirty")
            .add("tip_diameter_mm", &In::tip_diameter_mm, "mm", "over the tips; of club teeth over the locking corners", above(0, 1000))
            .required()
            .add("heel_radius_mm", &In::heel_radius_mm, "mm", "of club teeth: where they let off", above(0, 600))
            .add("tooth_width_deg", &In::tooth_width_deg, "deg", "of club teeth: from the locking corner back to the heel", above(0, 40))
            .include(&In::shape);
        return Record(add_part_format(fields));
    }();
    return record;
}

const Record& EscapeWheelResult::record() {
    using Out = EscapeWheelResult;
    static const Record record =
        Fields<Out>()
            .add("outline", &Out::outline, "mm", "anticlockwise, a tip on +x; it turns clockwise")
            .add("crossings", &Out::crossings, "mm", "openings, anticlockwise")
            .add("outside_diameter_mm", &Out::outside_diameter_mm, "mm", "of the blank")
            .add("root_diameter_mm", &Out::root_diameter_mm, "mm", "between the roots")
            .add("tooth_depth_mm", &Out::tooth_depth_mm, "mm", "depth of cut")
            .add("undercut_deg", &Out::undercut_deg, "deg", "of the acting face, from the radius")
            .add("face_offset_mm", &Out::face_offset_mm, "mm", "the acting face passes the middle so far beside it")
            .add("space_deg", &Out::space_deg, "deg", "between an acting face and the back of the tooth before it")
            .add("tip_mm", &Out::tip_mm, "mm", "land, or the length of a club tooth's face")
            .add("tip_land_deg", &Out::tip_land_deg, "deg", "the same as the wheel's turn")
            .add("index_deg", &Out::index_deg, "deg", "from tooth to tooth")
            .add("thickness_mm", &Out::thickness_mm, "mm", "of the wheel")
            .add("bore_mm", &Out::bore_mm, "mm", "for its collet")
            .add("rim_mm", &Out::rim_mm, "mm", "left below the roots")
            .add("hub_diameter_mm", &Out::hub_diameter_mm, "mm", "between the arms")
            .add("arm_mm", &Out::arm_mm, "mm", "width of an arm")
            .add("arms", &Out::arms, "", "0: solid")
            .add("mass_g", &Out::mass_g, "g", "of the wheel")
            .add("inertia_g_mm2", &Out::inertia_g_mm2, "g·mm²", "about its arbor")
            .add("warnings", &Out::warnings, "", "what speaks against it")
            .include(&Out::files);
    return record;
}

const Calculation& escape_wheel_calculation() {
    static const Calculation calculation = declare<EscapeWheelInput, EscapeWheelResult>(
        "escapement.wheel", "An escape wheel to be cut: teeth, crossings, the cutter's setting, mass and inertia.", wheel_part_source,
        escape_wheel_part, explain_escape_wheel);
    return calculation;
}

}  // namespace echappe
