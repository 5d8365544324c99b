#include "wood/season.h"

#include <algorithm>
#include <cmath>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* season_source = "Hailwood and Horrobin, 1946; Wood Handbook, Forest Products Laboratory, 2010";
constexpr double along_share = 1.0 / 30;  // of the tangential change; the handbook has 20 to 40 times less
constexpr double saturated = 30;          // %: beyond, wood does not swell any further

const WoodKind& kind_of(const std::string& id, const char* field) {
    for (const WoodKind& kind : wood_kinds())
        if (kind.id == id) return kind;
    throw InputError(field, id, "one of the kinds of wood");
}

double moisture_of(const Season& season, const char* field) {
    if (season.moisture) return *season.moisture;
    if (!season.humidity) throw InputError(field, "nothing", "moisture, or the room's humidity");
    return equilibrium_moisture(season.celsius, *season.humidity / 100);
}

/// Per cent of size for each per cent of moisture, in a direction of the rings.
double change(const WoodKind& wood, const std::string& rings) { return rings == "tangential" ? wood.tangential : wood.radial; }

/// What something grows to.
double grown(double size, double per_cent_each, double moisture) { return size * (1 + per_cent_each * moisture / 100); }

std::string in_words(const WoodSeasonInput& in, const WoodSeasonResult& out) {
    std::string words = "The wheel is " + print_fixed(out.along_mm, 2) + " mm along the grain and " + print_fixed(out.across_mm, 2) +
                        " mm across it: oval by " + print_fixed(out.oval_mm, 2) + " mm.";
    if (out.depth_across_mm) {
        const double deepest = std::max(*out.depth_along_mm, *out.depth_across_mm),
                     shallowest = std::min(*out.depth_along_mm, *out.depth_across_mm);
        words +=
            " Round a turn its mesh goes from " + print_fixed(shallowest, 2) + " to " + print_fixed(deepest, 2) + " mm deeper than it was.";
        if (deepest > 0) words += " Leave " + print_fixed(deepest, 2) + " mm when it is cut in such air.";
    }
    if (std::max(out.made_moisture, out.now_moisture) > saturated) words += " So wet it does not swell any further: dry it slowly first.";
    if (in.wheel_wood == "boxwood") words += " Boxwood's figures are an estimate: measure a piece of it.";
    return words;
}

}  // namespace

double equilibrium_moisture(double t, double h) {
    const double w = 349 + 1.29 * t + 0.0135 * t * t, k = 0.805 + 0.000736 * t - 0.00000273 * t * t;
    const double k1 = 6.27 - 0.00938 * t - 0.000303 * t * t, k2 = 1.91 + 0.0407 * t - 0.000293 * t * t;
    const double kh = k * h;
    return 1800 / w * (kh / (1 - kh) + (k1 * kh + 2 * k1 * k2 * kh * kh) / (1 + k1 * kh + k1 * k2 * kh * kh));
}

const std::vector<WoodKind>& wood_kinds() {
    // Wood Handbook; boxwood is not in it: as beech.
    static const std::vector<WoodKind> all = {{"oak", 0.365, 0.180},   {"red oak", 0.369, 0.158}, {"cherry", 0.248, 0.126},
                                              {"maple", 0.353, 0.165}, {"walnut", 0.274, 0.190},  {"beech", 0.431, 0.190},
                                              {"boxwood", 0.43, 0.19}};
    return all;
}

WoodSeasonResult wood_season(const WoodSeasonInput& in) {
    WoodKind wheel = kind_of(in.wheel_wood, "wheel_wood");
    wheel.tangential = in.tangential.value_or(wheel.tangential), wheel.radial = in.radial.value_or(wheel.radial);
    const WoodKind& plate = kind_of(in.plate_wood, "plate_wood");
    WoodSeasonResult out;
    out.made_moisture = moisture_of(in.made, "made"), out.now_moisture = moisture_of(in.now, "now");
    const double more = std::min(out.now_moisture, saturated) - std::min(out.made_moisture, saturated);
    // Sawn across the end of a log both directions of the rings lie in its plane, and the grain in neither.
    const bool end = in.rings == "end";
    out.along_mm = grown(in.diameter_mm, end ? wheel.radial : along_share * wheel.tangential, more);
    out.across_mm = grown(in.diameter_mm, end ? wheel.tangential : change(wheel, in.rings), more);
    out.oval_mm = std::abs(out.across_mm - out.along_mm);
    if (in.centre_distance_mm) {
        const double plates = in.plates == "along" ? along_share * plate.tangential : change(plate, in.plate_rings);
        out.centre_distance_mm = grown(*in.centre_distance_mm, plates, more);
        const double apart = *out.centre_distance_mm - *in.centre_distance_mm;
        out.depth_along_mm = (out.along_mm - in.diameter_mm) / 2 - apart;
        out.depth_across_mm = (out.across_mm - in.diameter_mm) / 2 - apart;
        out.clearance_mm = std::max({0.0, *out.depth_along_mm, *out.depth_across_mm});
    }
    out.verdict = in_words(in, out);
    return out;
}

std::vector<Working> explain_wood_season(const WoodSeasonInput& in, const WoodSeasonResult& out) {
    const WoodKind& kind = kind_of(in.wheel_wood, "wheel_wood");
    const double each = in.rings == "end"          ? in.tangential.value_or(kind.tangential)
                        : in.rings == "tangential" ? in.tangential.value_or(kind.tangential)
                                                   : in.radial.value_or(kind.radial);
    std::vector<Working> list = {
        work_out("across the grain it grows to", "d = d₀ (1 + s ΔM ÷ 100)",
                 {given("d₀", "as it was cut", in.diameter_mm, "mm"), given("s", "of size for 1 % of moisture", each, "%"),
                  given("ΔM", "more moisture", std::min(out.now_moisture, saturated) - std::min(out.made_moisture, saturated), "%")},
                 "mm", season_source, [](auto x) { return x[0] * (1 + x[1] * x[2] / 100); })};
    list.back().notes.push_back(out.verdict);
    return list;
}

const Record& Season::record() {
    using In = Season;
    static const Record record = Fields<In>()
                                     .add("moisture", &In::moisture, "%", "of the wood, as a meter reads it", between(0, 200))
                                     .add("humidity", &In::humidity, "%", "of the room's air, where no meter did", between(0, 99))
                                     .add("celsius", &In::celsius, "°C", "of the room", between(-1, 55))
                                     .because("a room that is lived in");
    return record;
}

const Record& WoodSeasonInput::record() {
    using In = WoodSeasonInput;
    static const Record record = [] {
        std::vector<std::string> kinds;
        for (const WoodKind& kind : wood_kinds()) kinds.push_back(kind.id);
        return Record(
            Fields<In>()
                .add("wheel_wood", &In::wheel_wood, "", "of the wheel")
                .choices(kinds)
                .because("wheels are of fruit wood")
                .add("plate_wood", &In::plate_wood, "", "of the plates")
                .choices(kinds)
                .because("plates are of oak")
                .add("tangential", &In::tangential, "%", "of the wheel's size for 1 % of moisture, along the rings", between(0, 2))
                .add("radial", &In::radial, "%", "and across the rings", between(0, 2))
                .add("rings", &In::rings, "", "across the grain in the wheel's plane; end: sawn across the log")
                .choices({"radial", "tangential", "end"})
                .because("quarter-sawn stands best")
                .add("diameter_mm", &In::diameter_mm, "mm", "over the tips, as it was cut", above(0, 5000))
                .required()
                .add("centre_distance_mm", &In::centre_distance_mm, "mm", "of its mesh, then", above(0, 5000))
                .add("plates", &In::plates, "", "the plates' grain along that distance or across it")
                .choices({"across", "along"})
                .because("the worse of the two")
                .add("plate_rings", &In::plate_rings, "", "of the plates, across their grain")
                .label("rings of the plates")
                .choices({"radial", "tangential"})
                .because("quarter-sawn stands best")
                .add("made", &In::made, "", "as it was cut")
                .required()
                .add("now", &In::now, "", "as it is, or will be")
                .required());
    }();
    return record;
}

const Record& WoodSeasonResult::record() {
    using Out = WoodSeasonResult;
    static const Record record =
        Fields<Out>()
            .add("made_moisture", &Out::made_moisture, "%", "as it was cut")
            .label("moisture when cut")
            .add("now_moisture", &Out::now_moisture, "%", "as it is")
            .label("moisture now")
            .add("along_mm", &Out::along_mm, "mm", "diameter along the grain; of a wheel sawn across the log, across its rings")
            .add("across_mm", &Out::across_mm, "mm", "diameter across the grain")
            .add("oval_mm", &Out::oval_mm, "mm", "between the two")
            .add("centre_distance_mm", &Out::centre_distance_mm, "mm", "of its mesh now")
            .add("depth_along_mm", &Out::depth_along_mm, "mm", "deeper, with the grain towards the pinion")
            .add("depth_across_mm", &Out::depth_across_mm, "mm", "deeper, across the grain")
            .add("clearance_mm", &Out::clearance_mm, "mm", "to leave when it is cut")
            .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& wood_season_calculation() {
    static const Calculation calculation = declare<WoodSeasonInput, WoodSeasonResult>(
        "wood.season", "A wooden wheel through the seasons: its diameters along and across the grain, and the depth of its mesh.",
        season_source, wood_season, explain_wood_season);
    return calculation;
}

}  // namespace echappe
