#include "pivots/wear.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* wear_source = "statics of the arbor: torque ÷ pitch radius at each mesh, action equal to reaction";

double turned(double deg) { return std::fmod(std::fmod(deg, 360) + 360, 360); }

}  // namespace

const Record& Offset::record() {
    static const Record record =
        Fields<Offset>().add("x", &Offset::x, "mm", "to the right, seen from the dial").add("y", &Offset::y, "mm", "upwards");
    return record;
}

Wear wear_of(double hole_max_mm, double original_mm, double direction_deg) {
    Wear wear;
    wear.original_mm = original_mm;
    wear.worn_mm = std::max(0.0, hole_max_mm - original_mm);
    wear.offset_mm = wear.worn_mm / 2;
    const double way = direction_deg * rad_per_deg;
    wear.to_centre = {-wear.offset_mm * std::cos(way), -wear.offset_mm * std::sin(way)};
    return wear;
}

const Record& MeshPush::record() {
    using In = MeshPush;
    static const Record record =
        Fields<In>()
            .add("name", &In::name, "", "the arbor on the other side")
            .add("driven", &In::driven, "", "true where this arbor is driven, false where it drives")
            .add("line_deg", &In::line_deg, "deg", "from this arbor to the other, anticlockwise from +x seen from the dial",
                 between(-360, 360))
            .required()
            .add("radius_mm", &In::radius_mm, "mm", "pitch radius of this arbor's part", above(0, 5000))
            .required()
            .add("pressure_deg", &In::pressure_deg, "deg", "mean angle of the push from the common tangent", between(0, 60))
            .add("along", &In::along, "", "where on the arbor: 0 at the front plate, 1 at the back plate", between(-2, 3))
            .because("the middle: both pivots share alike until it is said where the part stands");
    return record;
}

const Record& ArborPull::record() {
    using In = ArborPull;
    static const Record record =
        Fields<In>()
            .add("name", &In::name, "", "what pulls: line, chain, weight of the arbor")
            .add("direction_deg", &In::direction_deg, "deg", "which way, anticlockwise from +x seen from the dial", between(-360, 360))
            .because("a weight hangs down")
            .add("force_N", &In::force_N, "N", "how hard", between(0, 1e5))
            .required()
            .add("along", &In::along, "", "where on the arbor: 0 at the front plate, 1 at the back plate", between(-2, 3))
            .because("the middle: both pivots share alike until it is said where the part stands");
    return record;
}

const Record& PushInput::record() {
    using In = PushInput;
    static const Record record = Fields<In>()
                                     .add("direction", &In::direction, "", "which way the arbor turns, seen from the dial")
                                     .choices({"cw", "ccw"})
                                     .because("hands go clockwise, seen from the dial")
                                     .add("meshes", &In::meshes, "", "what it meshes with")
                                     .required()
                                     .add("efficiency", &In::efficiency, "", "of torque passed on by the arbor", between(0.1, 1))
                                     .because("cycloidal teeth in good depth with oiled pivots lose 3 to 7 %")
                                     .add("torque_N_mm", &In::torque_N_mm, "N mm", "through the arbor", above(0, 1e7))
                                     .add("pulls", &In::pulls, "", "line, chain and weight; they want the torque");
    return record;
}

const Record& PushShare::record() {
    using Out = PushShare;
    static const Record record = Fields<Out>()
                                     .add("name", &Out::name, "", "the arbor on the other side")
                                     .add("direction_deg", &Out::direction_deg, "deg", "which way it pushes")
                                     .add("share", &Out::share, "", "of all pushes");
    return record;
}

const Record& PushResult::record() {
    using Out = PushResult;
    static const Record record =
        Fields<Out>()
            .add("direction_deg", &Out::direction_deg, "deg", "where the pivots press and the holes wear, anticlockwise from +x")
            .add("torque_arm_mm", &Out::torque_arm_mm, "mm", "push = torque of the arbor ÷ this")
            .add("shares", &Out::shares, "", "what each mesh and pull adds")
            .add("front_deg", &Out::front_deg, "deg", "where its front pivot presses")
            .add("back_deg", &Out::back_deg, "deg", "where its back pivot presses")
            .add("front_N", &Out::front_N, "N", "how hard, where the torque is given")
            .add("back_N", &Out::back_N, "N", "the same at the back");
    return record;
}

namespace {

/// Forces on an arbor as its two bearings take them.
struct Bearings {
    double front_x = 0, front_y = 0, back_x = 0, back_y = 0;
    void take(double direction_deg, double size, double along) {
        const double x = size * std::cos(direction_deg * rad_per_deg), y = size * std::sin(direction_deg * rad_per_deg);
        front_x += (1 - along) * x, front_y += (1 - along) * y;
        back_x += along * x, back_y += along * y;
    }
};

double way_of(double x, double y) { return turned(std::atan2(y, x) / rad_per_deg); }

/// Which way a mesh pushes: along the arbor's own motion at the pitch point where it is driven, against it where it drives.
double push_deg(const MeshPush& mesh, double sense) {
    const double line = mesh.line_deg * rad_per_deg;
    const double apart = mesh.pressure_deg * rad_per_deg;
    const double along = (mesh.driven ? 1 : -1) * sense * std::cos(apart);
    return way_of(-std::sin(line) * along - std::cos(line) * std::sin(apart), std::cos(line) * along - std::sin(line) * std::sin(apart));
}

}  // namespace

PushResult push_on_arbor(const PushInput& in) {
    if (in.meshes.empty()) throw InputError("meshes", "none", "at least one mesh that pushes");
    if (!in.pulls.empty() && !in.torque_N_mm) throw InputError("torque_N_mm", "nothing", "the torque that the pulls are weighed against");
    const double sense = in.direction == "ccw" ? 1 : -1;
    const double torque = in.torque_N_mm.value_or(1);
    PushResult out;
    Bearings at;
    double all = 0;
    const auto take = [&](const std::string& name, double direction_deg, double size, double along) {
        out.shares.push_back({name, direction_deg, size});
        at.take(direction_deg, size, along);
        all += size;
    };
    for (const MeshPush& mesh : in.meshes)
        take(mesh.name, push_deg(mesh, sense), torque * (mesh.driven ? 1 : in.efficiency) / mesh.radius_mm, mesh.along);
    for (const ArborPull& pull : in.pulls) take(pull.name, turned(pull.direction_deg), pull.force_N, pull.along);
    for (PushShare& share : out.shares) share.share /= all;
    const double x = at.front_x + at.back_x, y = at.front_y + at.back_y;
    out.direction_deg = way_of(x, y);
    out.front_deg = way_of(at.front_x, at.front_y);
    out.back_deg = way_of(at.back_x, at.back_y);
    out.torque_arm_mm = torque / std::max(std::hypot(x, y), 1e-9);
    if (in.torque_N_mm) out.front_N = std::hypot(at.front_x, at.front_y), out.back_N = std::hypot(at.back_x, at.back_y);
    return out;
}

std::vector<Working> explain_push(const PushInput& in, const PushResult& out) {
    std::vector<Working> list;
    const auto way = [](double deg) { return way_in_words(deg) + " (" + print_fixed(deg, 0) + "°)"; };
    for (size_t i = 0; i < in.meshes.size(); ++i) {
        const MeshPush& mesh = in.meshes[i];
        Working working = work_out("push of the mesh with " + mesh.name + (in.torque_N_mm ? "" : ", per N mm"),
                                   mesh.driven ? "F = T ÷ r" : "F = η × T ÷ r",
                                   {{"T", "torque", {in.torque_N_mm.value_or(1), 0}, "N mm", 0},
                                    {"r", "pitch radius", {mesh.radius_mm, 0}, "mm", 0},
                                    {"η", "efficiency", {in.efficiency, 0}, "", 0}},
                                   "N", wear_source, [&mesh](auto x) { return (mesh.driven ? 1 : x[2]) * x[0] / x[1]; });
        working.notes = {"pushes " + way(out.shares[i].direction_deg)};
        list.push_back(std::move(working));
    }
    auto& notes = list.back().notes;
    for (const ArborPull& pull : in.pulls)
        notes.push_back(pull.name + " pulls " + way(turned(pull.direction_deg)) + " with " + print_short(pull.force_N, 3) + " N");
    notes.push_back("together " + way(out.direction_deg) + (in.pulls.empty() ? "; line, chain and weight left out" : ""));
    if (angle_between_deg(out.front_deg, out.back_deg) > 1)
        notes.push_back("at the front pivot " + way(out.front_deg) + ", at the back one " + way(out.back_deg));
    return list;
}

const Calculation& push_calculation() {
    static const Calculation calculation = declare<PushInput, PushResult>(
        "pivot.push", "Where the train pushes an arbor, and so where its holes wear.", wear_source, push_on_arbor, explain_push);
    return calculation;
}

double angle_between_deg(double a, double b) {
    const double apart = turned(a - b);
    return std::min(apart, 360 - apart);
}

std::string way_in_words(double direction_deg) {
    static constexpr const char* ways[] = {"to the right", "up and to the right",  "up",   "up and to the left",
                                           "to the left",  "down and to the left", "down", "down and to the right"};
    return ways[static_cast<size_t>(std::lround(turned(direction_deg) / 45)) % 8];
}

}  // namespace echappe
