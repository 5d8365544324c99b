#include "making/concentric.h"

#include "making/fit_limits.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* concentric_source = "ISO 286-1 and 286-2, 2010; walls by workshop practice";
constexpr double over_wall_mm = 0.1;

std::string place(size_t i, const char* field) { return "parts[" + std::to_string(i) + "]." + field; }

MadeSize exact(double nominal) { return {nominal, nominal, nominal}; }
MadeSize within(double nominal, SizeLimits limits) { return {nominal, nominal + limits.upper_mm, nominal + limits.lower_mm}; }

void give_sizes(const ConcentricInput& in, ConcentricResult& out) {
    for (size_t i = 0; i < in.parts.size(); ++i) {
        const ConcentricPart& part = in.parts[i];
        ConcentricPartResult made;
        made.name = part.name;
        if (part.bore_mm) made.bore = exact(*part.bore_mm);
        else if (i > 0) made.bore = exact(out.parts[i - 1].outside->nominal_mm);
        if (part.outside_mm) made.outside = exact(*part.outside_mm);
        else if (i + 1 < in.parts.size() && in.parts[i + 1].bore_mm) made.outside = exact(*in.parts[i + 1].bore_mm);
        else if (made.bore) made.outside = exact(made.bore->nominal_mm + 2 * part.wall_mm + over_wall_mm);
        else throw InputError(place(i, "outside_mm"), "nothing", "its diameter, or the bore of what goes on it");
        if (made.bore && made.bore->nominal_mm >= made.outside->nominal_mm)
            throw InputError(place(i, "outside_mm"), print_short(made.outside->nominal_mm),
                             "more than its bore of " + print_short(made.bore->nominal_mm) + " mm");
        out.parts.push_back(std::move(made));
    }
}

void give_limits(const ConcentricInput& in, ConcentricResult& out) {
    for (size_t i = 0; i < in.parts.size(); ++i) {
        const auto& fit = in.parts[i].fit;
        if (!fit) continue;
        const size_t slash = fit->find('/');
        if (i == 0 || slash == std::string::npos)
            throw InputError(place(i, "fit"), "\"" + *fit + "\"",
                             i == 0 ? "nothing: there is no part inside the first" : "hole and shaft, as in \"H7/g6\"");
        MadeSize &bore = *out.parts[i].bore, &inner = *out.parts[i - 1].outside;
        bore = within(bore.nominal_mm, hole_limits(fit->substr(0, slash), bore.nominal_mm, place(i, "fit")));
        inner = within(inner.nominal_mm, shaft_limits(fit->substr(slash + 1), inner.nominal_mm, place(i, "fit")));
    }
}

void judge(const ConcentricInput& in, ConcentricResult& out) {
    for (size_t i = 0; i < out.parts.size(); ++i) {
        ConcentricPartResult& part = out.parts[i];
        if (part.bore) part.wall_min_mm = (part.outside->min_mm - part.bore->max_mm) / 2;
        if (part.wall_min_mm && *part.wall_min_mm < in.parts[i].wall_mm - 1e-9)
            out.warnings.push_back(part.name + ": its wall is down to " + print_fixed(*part.wall_min_mm, 3) + " mm, less than " +
                                   print_fixed(in.parts[i].wall_mm, 2) + " mm.");
        if (i == 0 || !part.bore) continue;
        const MadeSize& inner = *out.parts[i - 1].outside;
        part.clearance = ClearanceRange{part.bore->max_mm - inner.min_mm, part.bore->min_mm - inner.max_mm};
        if (!in.parts[i].fit && part.clearance->min_mm < 0)
            out.warnings.push_back(part.name + " does not go onto " + out.parts[i - 1].name + ": it is short of " +
                                   print_fixed(-part.clearance->min_mm, 3) + " mm.");
        else if (!in.parts[i].fit && part.clearance->min_mm == 0)
            out.warnings.push_back(part.name + " on " + out.parts[i - 1].name + " has no fit: say one, as in H7/g6.");
    }
}

}  // namespace

ConcentricResult fit_concentric(const ConcentricInput& in) {
    if (in.parts.empty()) throw InputError("parts", "none", "the parts from the inside out");
    ConcentricResult out;
    give_sizes(in, out);
    give_limits(in, out);
    judge(in, out);
    for (size_t i = out.parts.size(); i > 0; --i) out.order.push_back(out.parts[i - 1].name);
    return out;
}

std::vector<Working> explain_concentric(const ConcentricInput&, const ConcentricResult& out) {
    std::vector<Working> list;
    for (const ConcentricPartResult& part : out.parts)
        if (part.wall_min_mm)
            list.push_back(
                work_out(part.name + ", thinnest wall", "w = (least outside − largest bore) ÷ 2",
                         {given("o", "least outside", part.outside->min_mm, "mm"), given("b", "largest bore", part.bore->max_mm, "mm")},
                         "mm", concentric_source, [](auto x) { return (x[0] - x[1]) / 2; }));
    if (list.empty())
        list.push_back(work_out(out.parts.front().name, "as told", {given("o", "outside", out.parts.front().outside->nominal_mm, "mm")},
                                "mm", concentric_source, [](auto x) { return x[0]; }));
    for (const std::string& warning : out.warnings) list.back().notes.push_back(warning);
    list.back().notes.push_back("Made from the outside in: each part is turned to the bore of the one before, reamed under size first.");
    return list;
}

const Record& ConcentricPart::record() {
    using In = ConcentricPart;
    static const Record record = Fields<In>()
                                     .add("name", &In::name, "", "of the part")
                                     .required()
                                     .add("outside_mm", &In::outside_mm, "mm", "diameter; empty: it follows", above(0, 50))
                                     .add("bore_mm", &In::bore_mm, "mm", "diameter; empty: it follows", above(0, 50))
                                     .add("fit", &In::fit, "", "with the part inside it, as in \"H7/g6\"")
                                     .add("length_mm", &In::length_mm, "mm", "along the arbor", above(0, 1000))
                                     .add("wall_mm", &In::wall_mm, "mm", "that must remain", above(0, 50))
                                     .because("less bends when it is squeezed on");
    return record;
}

const Record& ConcentricInput::record() {
    static const Record record = Fields<ConcentricInput>().add("parts", &ConcentricInput::parts, "", "from the inside out").required();
    return record;
}

const Record& MadeSize::record() {
    using Out = MadeSize;
    static const Record record = Fields<Out>()
                                     .add("nominal_mm", &Out::nominal_mm, "mm", "by which it is called")
                                     .add("max_mm", &Out::max_mm, "mm", "the largest that is right")
                                     .add("min_mm", &Out::min_mm, "mm", "the smallest");
    return record;
}

const Record& ClearanceRange::record() {
    using Out = ClearanceRange;
    static const Record record =
        Fields<Out>().add("max_mm", &Out::max_mm, "mm", "most play").add("min_mm", &Out::min_mm, "mm", "least; negative: it presses");
    return record;
}

const Record& ConcentricPartResult::record() {
    using Out = ConcentricPartResult;
    static const Record record = Fields<Out>()
                                     .add("name", &Out::name, "", "of the part")
                                     .add("bore", &Out::bore, "", "its limits")
                                     .add("outside", &Out::outside, "", "its limits")
                                     .add("wall_min_mm", &Out::wall_min_mm, "mm", "thinnest")
                                     .add("clearance", &Out::clearance, "", "to the part inside");
    return record;
}

const Record& ConcentricResult::record() {
    using Out = ConcentricResult;
    static const Record record = Fields<Out>()
                                     .add("parts", &Out::parts, "", "from the inside out")
                                     .add("order", &Out::order, "", "that they are made in")
                                     .add("warnings", &Out::warnings, "", "what speaks against it");
    return record;
}

const Calculation& concentric_calculation() {
    static const Calculation calculation = declare<ConcentricInput, ConcentricResult>(
        "fit.concentric", "Arbor, pipes and hands on each other: sizes from the outside in, with limits, walls and play.",
        concentric_source, fit_concentric, explain_concentric);
    return calculation;
}

}  // namespace echappe
