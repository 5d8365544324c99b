#include "pivots/wear.h"

#include <cmath>
#include <numbers>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* source = "statics of the arbor: torque ÷ pitch radius at each mesh, action equal to reaction";
constexpr double rad_per_deg = std::numbers::pi / 180;

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
            .add("pressure_deg", &In::pressure_deg, "deg", "mean angle of the push from the common tangent", between(0, 60));
    return record;
}

const Record& PushInput::record() {
    using In = PushInput;
    static const Record record = Fields<In>()
                                     .add("direction", &In::direction, "", "which way the arbor turns, seen from the dial")
                                     .choices({"cw", "ccw"})
                                     .add("meshes", &In::meshes, "", "what it meshes with")
                                     .required()
                                     .add("efficiency", &In::efficiency, "", "of torque passed on by the arbor", between(0.1, 1));
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
            .add("shares", &Out::shares, "", "what each mesh adds");
    return record;
}

PushResult push_on_arbor(const PushInput& in) {
    if (in.meshes.empty()) throw InputError("meshes", "none", "at least one mesh that pushes");
    const double sense = in.direction == "ccw" ? 1 : -1;
    PushResult out;
    double x = 0, y = 0, all = 0;
    for (const MeshPush& mesh : in.meshes) {
        const double line = mesh.line_deg * rad_per_deg;
        const double apart = mesh.pressure_deg * rad_per_deg;
        // Along the arbor's own motion at the pitch point where it is driven, against it where it drives.
        const double along = (mesh.driven ? 1 : -1) * sense * std::cos(apart);
        const double size = (mesh.driven ? 1 : in.efficiency) / mesh.radius_mm;
        const double fx = size * (-std::sin(line) * along - std::cos(line) * std::sin(apart));
        const double fy = size * (std::cos(line) * along - std::sin(line) * std::sin(apart));
        out.shares.push_back({mesh.name, turned(std::atan2(fy, fx) / rad_per_deg), size});
        x += fx;
        y += fy;
        all += size;
    }
    for (PushShare& share : out.shares) share.share /= all;
    out.direction_deg = turned(std::atan2(y, x) / rad_per_deg);
    out.torque_arm_mm = 1 / std::max(std::hypot(x, y), 1e-9);
    return out;
}

std::vector<Working> explain_push(const PushInput& in, const PushResult& out) {
    std::vector<Working> list;
    for (size_t i = 0; i < in.meshes.size(); ++i) {
        const MeshPush& mesh = in.meshes[i];
        Working working = work_out("push of the mesh with " + mesh.name + ", per N mm", mesh.driven ? "F = 1 ÷ r" : "F = η ÷ r",
                                   {{"r", "pitch radius", {mesh.radius_mm, 0}, "mm", 0}, {"η", "efficiency", {in.efficiency, 0}, "", 0}},
                                   "N", source, [&mesh](auto x) { return (mesh.driven ? 1 : x[1]) / x[0]; });
        working.notes = {"pushes " + way_in_words(out.shares[i].direction_deg) + " (" + print_fixed(out.shares[i].direction_deg, 0) + "°)"};
        list.push_back(std::move(working));
    }
    list.back().notes.push_back("together " + way_in_words(out.direction_deg) + " (" + print_fixed(out.direction_deg, 0) +
                                "°); both meshes taken in one plane, weight of the wheels left out");
    return list;
}

const Calculation& push_calculation() {
    static const Calculation calculation = declare<PushInput, PushResult>(
        "pivot.push", "Where the train pushes an arbor, and so where its holes wear.", source, push_on_arbor, explain_push);
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
