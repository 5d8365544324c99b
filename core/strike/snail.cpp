#include "strike/snail.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* snail_source = "cosine rule between rack arbor, snail and tail pin";

/// The angle at the rack arbor between snail and tail pin, with the pin's middle so far from the snail's arbor. Throws InputError.
double tail_angle(const SnailInput& in, double pin_mm, const char* field) {
    const double c = *in.centre_distance_mm, t = in.tail_mm;
    const double cosine = (c * c + t * t - pin_mm * pin_mm) / (2 * c * t);
    if (std::abs(cosine) > 1)
        throw InputError(field, print_short(pin_mm),
                         "a radius that the tail's pin can reach: " + print_short(std::abs(c - t), 4) + " to " + print_short(c + t, 4) +
                             " mm from the snail's arbor");
    return std::acos(cosine);
}

/// Radius of the step with the rack fallen by so many teeth more than for one; nothing where it cannot fall so far.
std::optional<double> radius_after(const SnailInput& in, double teeth) {
    const double pitch = in.tooth_pitch_deg * rad_per_deg;
    if (!in.centre_distance_mm) return in.largest_mm - teeth * in.tail_mm * pitch;
    const double c = *in.centre_distance_mm, t = in.tail_mm;
    const double angle = tail_angle(in, in.largest_mm + in.pin_diameter_mm / 2, "largest_mm") - teeth * pitch;
    if (angle <= 0) return {};
    return std::sqrt(c * c + t * t - 2 * c * t * std::cos(angle)) - in.pin_diameter_mm / 2;
}

/// By how many teeth the rack falls further than on the step for one, onto a step of this radius.
double teeth_fallen(const SnailInput& in, double radius) {
    const double pitch = in.tooth_pitch_deg * rad_per_deg;
    if (!in.centre_distance_mm) return (in.largest_mm - radius) / (in.tail_mm * pitch);
    const double pin = in.pin_diameter_mm / 2;
    return (tail_angle(in, in.largest_mm + pin, "largest_mm") - tail_angle(in, radius + pin, "measured_mm")) / pitch;
}

void compare(const SnailInput& in, SnailStep& step) {
    step.measured_mm = in.measured_mm[static_cast<size_t>(step.hour - 1)];
    const double teeth = teeth_fallen(in, *step.measured_mm);
    step.off_teeth = teeth - static_cast<double>(step.hour - 1);
    // The hook drops behind the last tooth that has passed it.
    step.strikes = std::max(1LL, std::llround(teeth) + 1);
}

/// Steps of equal width, joined straight.
std::vector<Point> outline_of(const SnailResult& out) {
    std::vector<Point> outline;
    constexpr int pieces = 12;
    const double sector = 2 * pi / static_cast<double>(out.steps.size());
    for (size_t i = 0; i < out.steps.size(); ++i)
        for (int k = 0; k <= pieces; ++k) {
            const double at = sector * (static_cast<double>(i) + static_cast<double>(k) / pieces);
            outline.push_back({out.steps[i].radius_mm * std::cos(at), out.steps[i].radius_mm * std::sin(at)});
        }
    return outline;
}

void warn(const SnailInput& in, SnailResult& out) {
    constexpr double risky = 0.3;  // of a tooth: beyond half of one the count is wrong
    for (const SnailStep& step : out.steps) {
        if (!step.off_teeth || std::abs(*step.off_teeth) < risky) continue;
        out.warnings.push_back("The step for " + std::to_string(step.hour) + " is off by " + print_fixed(*step.off_teeth, 2) +
                               " of a tooth" + (*step.strikes != step.hour ? ": it strikes " + std::to_string(*step.strikes) + "." : "."));
    }
    if (in.pin_diameter_mm > 2 * out.least_step_mm && in.pin_diameter_mm > 0)
        out.warnings.push_back("The tail's pin is thicker than two steps are high: see that it clears the step before as it falls.");
}

}  // namespace

SnailResult snail(const SnailInput& in) {
    if (!in.measured_mm.empty() && static_cast<long long>(in.measured_mm.size()) != in.steps)
        throw InputError("measured_mm", std::to_string(in.measured_mm.size()) + " radii", std::to_string(in.steps) + ", one of each step");
    SnailResult out;
    const double begins = in.centre_distance_mm ? tail_angle(in, in.largest_mm + in.pin_diameter_mm / 2, "largest_mm") / rad_per_deg : 0;
    for (long long hour = 1; hour <= in.steps; ++hour) {
        const auto fallen = static_cast<double>(hour - 1);
        const auto radius = hour == 1 ? std::optional(in.largest_mm) : radius_after(in, fallen);
        if (!radius || *radius <= 0)
            throw InputError(
                "largest_mm", print_short(in.largest_mm),
                "a larger snail, a shorter tail or less of a tooth pitch: nothing is left of the step for " + std::to_string(hour));
        SnailStep step;
        step.hour = hour, step.radius_mm = *radius;
        if (in.centre_distance_mm) step.tail_deg = begins - fallen * in.tooth_pitch_deg;
        if (!in.measured_mm.empty()) compare(in, step);
        out.steps.push_back(step);
    }
    out.least_step_mm = in.steps > 1 ? in.largest_mm : 0;
    for (size_t i = 1; i < out.steps.size(); ++i)
        out.least_step_mm = std::min(out.least_step_mm, out.steps[i - 1].radius_mm - out.steps[i].radius_mm);
    out.outline = outline_of(out);
    warn(in, out);
    out.files = part_files(in.format, drawing_of(solid_of(in, out)), solid_of(in, out));
    return out;
}

double centre_or_usual_mm(const SnailInput& in) {
    constexpr double usual = 1.1;  // of the tail: the pin falls nearly towards the snail's arbor
    return in.centre_distance_mm.value_or(usual * in.tail_mm);
}

double tail_rad(const SnailInput& in, double radius_mm) {
    SnailInput told = in;
    told.centre_distance_mm = centre_or_usual_mm(in);
    return tail_angle(told, radius_mm + in.pin_diameter_mm / 2, "largest_mm");
}

FlatPart solid_of(const SnailInput& in, const SnailResult& out) {
    FlatPart part{"snail of " + std::to_string(in.steps) + " steps", out.outline, {}, {}, in.thickness_mm};
    if (in.bore_mm > 0) part.holes.push_back({{0, 0}, in.bore_mm / 2});
    return part;
}

std::vector<Working> explain_snail(const SnailInput& in, const SnailResult& out) {
    std::vector<Working> list;
    if (in.centre_distance_mm) {
        const double c = *in.centre_distance_mm;
        list.push_back(work_out("the tail's angle on the step for one", "φ = arccos((c² + t² − (R + d ÷ 2)²) ÷ (2 c t))",
                                {given("c", "rack arbor to the snail's", c, "mm"), given("t", "tail", in.tail_mm, "mm"),
                                 given("R", "step for one", in.largest_mm, "mm"), given("d", "tail's pin", in.pin_diameter_mm, "mm")},
                                "deg", snail_source, [](auto x) {
                                    const double r = x[2] + x[3] / 2;
                                    return std::acos((x[0] * x[0] + x[1] * x[1] - r * r) / (2 * x[0] * x[1])) / rad_per_deg;
                                }));
    } else {
        list.push_back(
            work_out("a step, nearly", "s = t p",
                     {given("t", "tail", in.tail_mm, "mm"), given("p", "tooth pitch of the rack", in.tooth_pitch_deg * rad_per_deg, "rad")},
                     "mm", snail_source, [](auto x) { return x[0] * x[1]; }));
        list.back().notes.push_back("With the centre distance of rack and snail the steps are exact, and not quite alike.");
    }
    for (const std::string& warning : out.warnings) list.back().notes.push_back(warning);
    return list;
}

const Record& SnailInput::record() {
    using In = SnailInput;
    static const Record record = [] {
        Fields<In> fields;
        fields.add("tooth_pitch_deg", &In::tooth_pitch_deg, "deg", "of the rack's teeth about its arbor", above(0, 30))
            .required()
            .add("tail_mm", &In::tail_mm, "mm", "rack arbor to the tail's pin", above(0, 1000))
            .required()
            .add("centre_distance_mm", &In::centre_distance_mm, "mm", "rack arbor to the snail's; without it steps are alike",
                 above(0, 2000))
            .add("largest_mm", &In::largest_mm, "mm", "radius of the step for one", above(0, 500))
            .required()
            .add("steps", &In::steps, "", "of the snail", between(1, 24))
            .because("a dial of twelve hours")
            .add("pin_diameter_mm", &In::pin_diameter_mm, "mm", "of the tail's pin; 0: a sharp end", between(0, 50))
            .add("measured_mm", &In::measured_mm, "mm", "radii as they are, from the step for one on", between(0, 500))
            .add("bore_mm", &In::bore_mm, "mm", "for its pipe or stud", between(0, 200))
            .add("thickness_mm", &In::thickness_mm, "mm", "of the snail", above(0, 50))
            .because("plate as it is sold for such parts");
        return Record(add_part_format(fields));
    }();
    return record;
}

const Record& SnailStep::record() {
    using Out = SnailStep;
    static const Record record =
        Fields<Out>()
            .add("hour", &Out::hour, "", "that falls on it")
            .add("radius_mm", &Out::radius_mm, "mm", "of the step")
            .add("tail_deg", &Out::tail_deg, "deg", "at the rack arbor, between the snail's arbor and the tail's pin")
            .add("measured_mm", &Out::measured_mm, "mm", "as it is")
            .add("off_teeth", &Out::off_teeth, "", "teeth that the rack falls too far there; negative: not far enough")
            .add("strikes", &Out::strikes, "", "what is gathered on it as it is");
    return record;
}

const Record& SnailResult::record() {
    using Out = SnailResult;
    static const Record record = Fields<Out>()
                                     .add("steps", &Out::steps, "", "from one on")
                                     .add("least_step_mm", &Out::least_step_mm, "mm", "the lowest step")
                                     .add("outline", &Out::outline, "mm", "anticlockwise, the step for one from +x on")
                                     .add("warnings", &Out::warnings, "", "what speaks against it")
                                     .include(&Out::files);
    return record;
}

const Calculation& snail_calculation() {
    static const Calculation calculation = declare<SnailInput, SnailResult>(
        "strike.rack", "Snail for a rack: the radius of each step, the steps as they are, and the snail to be cut.", snail_source, snail,
        explain_snail);
    return calculation;
}

}  // namespace echappe
