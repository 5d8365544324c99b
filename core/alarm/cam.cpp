#include "alarm/cam.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* cam_source = "geometry of a round nose over a corner; virtual work";
constexpr double least_times = 1.5;  // workshop practice, as of the hands

/// Hours from each fall to the next, once round.
std::vector<double> gaps(const TimeCamInput& in) {
    std::vector<double> all;
    for (size_t i = 0; i < in.falls_h.size(); ++i) {
        const double next = i + 1 < in.falls_h.size() ? in.falls_h[i + 1] : in.falls_h.front() + in.turn_h;
        all.push_back(next - in.falls_h[i]);
    }
    return all;
}

double edge_of(const TimeCamInput& in) { return in.edge_deg * rad_per_deg; }
double low_mm(const TimeCamInput& in) { return in.radius_mm - in.drop_mm; }

void check(const TimeCamInput& in) {
    if (in.falls_h.empty()) throw InputError("falls_h", "none", "the times at which the follower falls, as in [0]");
    if (in.drop_mm >= in.radius_mm) throw InputError("drop_mm", print_short(in.drop_mm), "less than the radius");
    const double most_deg = std::asin(low_mm(in) / in.radius_mm) / rad_per_deg;
    if (in.edge_deg >= most_deg)
        throw InputError("edge_deg", print_short(in.edge_deg),
                         "less than " + print_short(most_deg, 3) + "°: such an edge never comes down to the low part");
    if (in.needed_mm && *in.needed_mm > in.drop_mm) throw InputError("needed_mm", print_short(*in.needed_mm), "not more than the drop");
    for (const double gap : gaps(in)) {
        if (gap <= 0)
            throw InputError("falls_h", "times out of their order",
                             "times that rise, all within a turn of " + print_short(in.turn_h) + " h");
        if (in.stays_h + in.rise_h > gap + 1e-9)
            throw InputError("stays_h", print_short(in.stays_h) + " h down and " + print_short(in.rise_h) + " h of rise",
                             "both together up to " + print_short(gap) + " h, when it must be up to fall again");
    }
}

/// From the corner to where its straight edge meets the low part: the sine rule in the triangle of arbor, corner and foot.
double foot_rad(const TimeCamInput& in) { return std::asin(in.radius_mm * std::sin(edge_of(in)) / low_mm(in)) - edge_of(in); }

double needed_mm(const TimeCamInput& in) { return in.needed_mm.value_or(in.drop_mm / 2); }

/// Hours since the fall before this time, which is told from the first fall's hour.
double since_fall_h(const TimeCamInput& in, double hour) {
    double since = std::fmod(hour, in.turn_h);
    if (since < 0) since += in.turn_h;
    size_t i = in.falls_h.size() - 1;
    while (i > 0 && in.falls_h[i] - in.falls_h.front() > since) --i;
    return since - (in.falls_h[i] - in.falls_h.front());
}

/// Which part of the rise is behind it, so far after a fall: 0 below, 1 up.
double risen(const TimeCamInput& in, double angle) {
    const double a_hour = 2 * pi / in.turn_h, begins = std::max(foot_rad(in), in.stays_h * a_hour);
    return std::clamp((angle - begins) / (in.rise_h * a_hour), 0.0, 1.0);
}

/// Whether a nose that stands so high touches the edge itself, and not its corner, with the corner passed by this angle.
bool on_edge(const TimeCamInput& in, double height, double angle) {
    // Along the edge from its corner, inwards.
    const double to = angle + edge_of(in);
    return (in.radius_mm * std::cos(angle) - height) * std::cos(to) + in.radius_mm * std::sin(angle) * std::sin(to) >= 0;
}

/// Height of the nose's middle over the arbor, held by the corner that has passed by this angle, or by the edge behind it.
double nose_over_corner_mm(const TimeCamInput& in, double angle) {
    const double edge = edge_of(in), passed = std::min(angle, pi / 2 - edge), r = in.radius_mm;
    if (passed + edge > 0) {
        const double by_edge = (in.nose_mm + r * std::sin(edge)) / std::sin(passed + edge);
        if (on_edge(in, by_edge, passed)) return by_edge;
    }
    const double beside = r * std::sin(passed);
    return r * std::cos(passed) + std::sqrt(std::max(0.0, in.nose_mm * in.nose_mm - beside * beside));
}

/// Turn of the cam from its corner until the nose has fallen so far.
double passed_rad(const TimeCamInput& in, double fall) {
    const double r = in.radius_mm, height = r + in.nose_mm - fall, edge = edge_of(in);
    const double by_edge = std::asin(std::min(1.0, (in.nose_mm + r * std::sin(edge)) / height)) - edge;
    if (on_edge(in, height, by_edge)) return by_edge;
    return std::acos(std::clamp((r * r + height * height - in.nose_mm * in.nose_mm) / (2 * r * height), -1.0, 1.0));
}

std::vector<Point> outline_of(const TimeCamInput& in) {
    std::vector<Point> outline;
    const auto at = [&](double angle, double radius) { outline.push_back({radius * std::cos(angle), radius * std::sin(angle)}); };
    constexpr double step = 1.5 * rad_per_deg;
    const auto arc = [&](double from, double to, const auto& radius) {
        const int pieces = std::max(1, static_cast<int>(std::ceil((to - from) / step)));
        for (int k = 0; k <= pieces; ++k) {
            const double part = static_cast<double>(k) / pieces;
            at(from + part * (to - from), radius(part));
        }
    };
    const double a_hour = 2 * pi / in.turn_h, low = low_mm(in);
    const std::vector<double> gap = gaps(in);
    for (size_t i = 0; i < gap.size(); ++i) {
        const double fall = (in.falls_h[i] - in.falls_h.front()) * a_hour, foot = fall + foot_rad(in);
        const double rise = std::max(foot, fall + in.stays_h * a_hour), up = rise + in.rise_h * a_hour;
        at(fall, in.radius_mm);
        arc(foot, rise, [&](double) { return low; });
        arc(rise, up, [&](double part) { return low + part * in.drop_mm; });
        if (fall + gap[i] * a_hour > up + 1e-9) arc(up, fall + gap[i] * a_hour, [&](double) { return in.radius_mm; });
    }
    return outline;
}

void lay_out_steps(const TimeCamInput& in, TimeCamResult& out) {
    const double deg = 360 / in.turn_h;
    for (const double fall : in.falls_h) {
        const auto step = [&](double hour, const char* does) {
            const double round = std::fmod(hour, in.turn_h);
            out.steps.push_back({round, std::fmod((hour - in.falls_h.front()) * deg + 360, 360), does});
        };
        step(fall, "falls");
        step(fall + in.stays_h, "is lifted");
        step(fall + in.stays_h + in.rise_h, "is up");
    }
}

void judge(const TimeCamInput& in, TimeCamResult& out) {
    const double low = in.radius_mm - in.drop_mm;
    if (in.bore_mm > 0 && low - in.bore_mm / 2 < std::max(1.0, in.bore_mm / 4))
        out.warnings.push_back("Only " + print_fixed(low - in.bore_mm / 2, 2) +
                               " mm are left beside the bore: a smaller drop or a larger cam.");
    if (in.nose_mm > in.drop_mm)
        out.warnings.push_back("The follower's end is rounder than the drop is deep: it rolls in and lets go late.");
    constexpr double minutes = 60, hair_h = 1e-6;
    if (!lets_go(in, out.late_min / minutes + hair_h))
        out.warnings.push_back("The follower meets the rise before it has fallen far enough to let go: let it stay down longer.");
    if (out.times && *out.times < 1)
        out.warnings.push_back("Lifting turns the cam back: its setting holds " + print_fixed(*in.holds_N_mm, 1) + " N mm of " +
                               print_fixed(*out.drag_N_mm, 1) + ". More friction at the setting, or a longer rise.");
    else if (out.times && *out.times < least_times)
        out.warnings.push_back("The setting holds only " + print_fixed(*out.times, 1) + " times what lifting asks: 1.5 is wanted.");
    out.verdict = "It lets go " + print_fixed(out.late_min, 1) + " min after the corner is reached" +
                  (in.play_deg > 0 ? ", and up to " + print_fixed(out.play_min, 1) + " min either way for the play." : ".");
    constexpr double much_min = 5;
    if (out.late_min + out.play_min > much_min) out.verdict += " Set so that it lets go at the time wanted, always from the same side.";
    for (const std::string& warning : out.warnings) out.verdict += " " + warning;
}

}  // namespace

double cam_radius_mm(const TimeCamInput& in, double hour) {
    const double angle = since_fall_h(in, hour) * 2 * pi / in.turn_h;
    if (angle < foot_rad(in)) return in.radius_mm * std::sin(edge_of(in)) / std::sin(angle + edge_of(in));
    return in.radius_mm - in.drop_mm + risen(in, angle) * in.drop_mm;
}

double fallen_mm(const TimeCamInput& in, double hour) {
    const double angle = since_fall_h(in, hour) * 2 * pi / in.turn_h;
    // The corner holds it up by its round nose, and later the rise, which is long against the nose.
    const double past_corner = in.radius_mm + in.nose_mm - nose_over_corner_mm(in, angle);
    return std::min(past_corner, (1 - risen(in, angle)) * in.drop_mm);
}

bool lets_go(const TimeCamInput& in, double hour) { return fallen_mm(in, hour) >= needed_mm(in); }

TimeCamResult time_cam(const TimeCamInput& in) {
    check(in);
    TimeCamResult out;
    constexpr double minutes = 60;
    out.deg_per_min = 360 / (in.turn_h * minutes);
    lay_out_steps(in, out);
    out.late_min = passed_rad(in, needed_mm(in)) / rad_per_deg / out.deg_per_min;
    out.play_min = in.play_deg / 2 / out.deg_per_min;
    if (in.force_N) {
        const double rise_rad = in.rise_h * 2 * pi / in.turn_h;
        out.drag_N_mm = *in.force_N * (in.drop_mm / rise_rad + in.friction * (in.radius_mm - in.drop_mm / 2));
        if (in.holds_N_mm) out.times = *in.holds_N_mm / *out.drag_N_mm;
    }
    out.outline = outline_of(in);
    judge(in, out);
    out.files = part_files(in.format, drawing_of(solid_of(in, out)), solid_of(in, out));
    return out;
}

FlatPart solid_of(const TimeCamInput& in, const TimeCamResult& out) {
    FlatPart part{"cam, once round in " + print_short(in.turn_h) + " h", out.outline, {}, {}, in.thickness_mm};
    if (in.bore_mm > 0) part.holes.push_back({{0, 0}, in.bore_mm / 2});
    return part;
}

std::vector<Working> explain_time_cam(const TimeCamInput& in, const TimeCamResult& out) {
    std::vector<Working> list = {
        work_out("lets go after the corner", "t = α ÷ w",
                 {given("α", "turn of the cam until the nose has fallen enough", passed_rad(in, needed_mm(in)) / rad_per_deg, "deg"),
                  given("w", "it turns in a minute", out.deg_per_min, "deg")},
                 "min", cam_source, [](auto x) { return x[0] / x[1]; })};
    if (out.drag_N_mm)
        list.push_back(work_out("torque of lifting", "T = F (h ÷ α + µ r)",
                                {given("F", "follower on the cam", *in.force_N, "N"), given("h", "drop", in.drop_mm, "mm"),
                                 given("α", "angle of the rise", in.rise_h * 2 * pi / in.turn_h, "rad"),
                                 given("µ", "friction", in.friction, ""), given("r", "mean radius", in.radius_mm - in.drop_mm / 2, "mm")},
                                "N mm", cam_source, [](auto x) { return x[0] * (x[1] / x[2] + x[3] * x[4]); }));
    list.back().notes.push_back(out.verdict);
    return list;
}

const Record& TimeCamInput::record() {
    using In = TimeCamInput;
    static const Record record = [] {
        Fields<In> fields;
        fields.add("turn_h", &In::turn_h, "h", "once round", above(0, 1000))
            .label("turns once in")
            .because("an alarm's, on the hour pipe's motion")
            .add("falls_h", &In::falls_h, "h", "times at which the follower falls, in their order", between(0, 1000))
            .required()
            .add("stays_h", &In::stays_h, "h", "down, before it is lifted again", between(0, 1000))
            .label("stays down")
            .add("rise_h", &In::rise_h, "h", "in which it is lifted", above(0, 1000))
            .label("lifted within")
            .because("gentle, and long over before the next fall")
            .add("radius_mm", &In::radius_mm, "mm", "of the high part", above(0, 500))
            .required()
            .add("drop_mm", &In::drop_mm, "mm", "that the follower falls", above(0, 500))
            .required()
            .add("edge_deg", &In::edge_deg, "deg", "that the drop's edge leans from the radius", between(0, 80))
            .label("edge leans by")
            .add("nose_mm", &In::nose_mm, "mm", "radius of the follower's end; 0: an edge", between(0, 50))
            .label("follower's nose radius")
            .add("needed_mm", &In::needed_mm, "mm", "of the fall, that lets go; empty: half of it", above(0, 500))
            .add("play_deg", &In::play_deg, "deg", "of the cam on its arbor and in its mesh", between(0, 30))
            .label("play of the cam")
            .add("force_N", &In::force_N, "N", "of the follower on the cam", above(0, 1000))
            .add("friction", &In::friction, "", "between them", between(0, 1))
            .because("steel on brass with a trace of grease")
            .add("holds_N_mm", &In::holds_N_mm, "N mm", "friction by which the cam is set", above(0, 1e5))
            .label("friction of its setting")
            .add("bore_mm", &In::bore_mm, "mm", "for its pipe", between(0, 200))
            .add("thickness_mm", &In::thickness_mm, "mm", "of the cam", above(0, 50))
            .because("plate as it is sold for such parts");
        return Record(add_part_format(fields));
    }();
    return record;
}

const Record& TimeCamStep::record() {
    using Out = TimeCamStep;
    static const Record record = Fields<Out>()
                                     .add("hour", &Out::hour, "h", "time")
                                     .add("deg", &Out::deg, "deg", "of the cam from the first fall on")
                                     .add("does", &Out::does, "", "what the follower does");
    return record;
}

const Record& TimeCamResult::record() {
    using Out = TimeCamResult;
    static const Record record = Fields<Out>()
                                     .add("deg_per_min", &Out::deg_per_min, "deg", "that the cam turns in a minute")
                                     .add("steps", &Out::steps, "", "once round")
                                     .add("late_min", &Out::late_min, "min", "from the corner until enough has fallen")
                                     .add("play_min", &Out::play_min, "min", "either way, for the play")
                                     .add("drag_N_mm", &Out::drag_N_mm, "N mm", "torque that lifting asks of the cam")
                                     .add("times", &Out::times, "", "friction of the setting over that")
                                     .add("outline", &Out::outline, "mm", "anticlockwise, the first fall on +x")
                                     .add("warnings", &Out::warnings, "", "what speaks against it")
                                     .add("verdict", &Out::verdict, "", "in words")
                                     .include(&Out::files);
    return record;
}

const Calculation& time_cam_calculation() {
    static const Calculation calculation = declare<TimeCamInput, TimeCamResult>(
        "alarm.cam",
        "A cam that goes with the time, for an alarm, a silent night or one blow in passing: laid out, when it lets go, whether it slips.",
        cam_source, time_cam, explain_time_cam);
    return calculation;
}

}  // namespace echappe
