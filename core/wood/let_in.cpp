#include "wood/let_in.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* let_in_source = "beam and shear; Wood Handbook, Forest Products Laboratory, 2010, table 5-3";
constexpr double across_share = 1.0 / 20;  // of the strength along the grain
constexpr double whole_modules = 2.25;
constexpr double tooth_of_pitch = 0.48;  // as thick at its root as at the pitch circle, and no more
constexpr double wanted_margin = 6;      // for wood that ages and is struck

/// Modulus of rupture of clear, dry wood.
struct WoodStrength {
    const char* id;
    double bending_N_mm2;
};
constexpr WoodStrength strengths[] = {{"cherry", 85}, {"maple", 109}, {"beech", 103}, {"oak", 105}, {"walnut", 101}, {"red oak", 99}};

double strength_of(const std::string& id) {
    for (const WoodStrength& wood : strengths)
        if (id == wood.id) return wood.bending_N_mm2;
    throw InputError("wood", id, "cherry, maple, beech, oak, red oak or walnut");
}

void judge(const WoodLetInInput& in, WoodLetInResult& out) {
    if (in.rim_mm && out.depth_mm > 0.6 * *in.rim_mm)
        out.warnings.push_back("The block goes through " + print_fixed(out.depth_mm, 1) + " of " + print_fixed(*in.rim_mm, 1) +
                               " mm of rim: more than 0.6 of it breaks the wheel; let in less deep, or a plate behind.");
    constexpr long long most_lost = 5;
    if (in.lost > most_lost)
        out.warnings.push_back("More than five side by side: let them in as two blocks, the second when the first is dry.");
    if (out.across_margin >= 1 && out.along_margin > 3 * out.across_margin)
        out.warnings.push_back("Cut across the grain such teeth break " + print_fixed(out.along_margin / out.across_margin, 0) +
                               " times sooner: the block's grain runs outwards, along its teeth.");
    const double least = std::min(out.along_margin, out.glue_margin);
    out.verdict = least < 1 ? "It would not bear the load: a deeper block, a pin of hard wood through it, or the load is looked at first."
                  : least < wanted_margin
                      ? "It bears the load with " + print_fixed(least, 1) + " times to spare; six are wanted for wood that ages."
                      : "It bears the load " + print_fixed(least, 0) + " times over, glued with hide glue that can be undone.";
    for (const std::string& warning : out.warnings) out.verdict += " " + warning;
}

}  // namespace

WoodLetInResult wood_let_in(const WoodLetInInput& in) {
    if (in.lost >= in.count) throw InputError("lost", std::to_string(in.lost), "fewer than the wheel has");
    WoodLetInResult out;
    const double pitch = pi * in.module_mm, radius = in.module_mm * static_cast<double>(in.count) / 2;
    const double high = in.height_mm.value_or(whole_modules * in.module_mm);
    out.depth_mm = in.depth_mm.value_or(high);
    // From the middle of one gap to the middle of another.
    out.block_mm = pitch * static_cast<double>(in.lost) * (radius - 1.25 * in.module_mm) / radius;
    out.block_foot_mm = out.block_mm + 2 * out.depth_mm * std::tan(in.flare_deg * rad_per_deg);
    out.force_N = in.torque_N_mm / radius;
    const double thick = tooth_of_pitch * pitch;
    out.bending_N_mm2 = out.force_N * high * 6 / (in.thickness_mm * thick * thick);
    const double strength = strength_of(in.wood);
    const auto over = [](double strong, double load) { return load > 0 ? strong / load : 1e6; };
    out.along_margin = over(strength, out.bending_N_mm2);
    out.across_margin = over(across_share * strength, out.bending_N_mm2);
    // The force pulls one side of the block and turns it: both sides in shear about the middle, the nearer of the arms.
    const double side = out.depth_mm / std::cos(in.flare_deg * rad_per_deg) * in.thickness_mm;
    const double turns = out.force_N * (high + out.depth_mm / 2) / out.block_mm;
    out.glue_margin = over(in.glue_N_mm2 * side, turns + out.force_N / 2);
    judge(in, out);
    return out;
}

std::vector<Working> explain_wood_let_in(const WoodLetInInput& in, const WoodLetInResult& out) {
    const double pitch = pi * in.module_mm;
    std::vector<Working> list = {
        work_out("bending at the root", "s = 6 F h ÷ (b t²)",
                 {given("F", "force at the pitch circle", out.force_N, "N"),
                  given("h", "tooth", in.height_mm.value_or(whole_modules * in.module_mm), "mm"),
                  given("b", "thickness", in.thickness_mm, "mm"), given("t", "tooth at its root", tooth_of_pitch * pitch, "mm")},
                 "N/mm²", let_in_source, [](auto x) { return 6 * x[0] * x[1] / (x[2] * x[3] * x[3]); })};
    list.back().notes.push_back(out.verdict);
    return list;
}

const Record& WoodLetInInput::record() {
    using In = WoodLetInInput;
    static const Record record = [] {
        std::vector<std::string> woods;
        for (const WoodStrength& known : strengths) woods.push_back(known.id);
        return Record(Fields<In>()
                          .add("wood", &In::wood, "", "of the block")
                          .choices(woods)
                          .because("as the wheel's")
                          .add("count", &In::count, "", "teeth of the wheel, or leaves", between(4, 1000))
                          .required()
                          .add("lost", &In::lost, "", "side by side", between(1, 100))
                          .because("one tooth")
                          .add("module_mm", &In::module_mm, "mm", "of the teeth", above(0, 50))
                          .required()
                          .add("thickness_mm", &In::thickness_mm, "mm", "of the wheel", above(0, 500))
                          .required()
                          .add("height_mm", &In::height_mm, "mm", "of a tooth; empty: 2.25 modules", above(0, 200))
                          .add("depth_mm", &In::depth_mm, "mm", "of the block below the roots; empty: as the tooth is high", above(0, 500))
                          .add("flare_deg", &In::flare_deg, "deg", "that each side leans outwards going in", between(0, 30))
                          .because("one in seven, as a joiner cuts it")
                          .add("rim_mm", &In::rim_mm, "mm", "below the roots", above(0, 500))
                          .add("torque_N_mm", &In::torque_N_mm, "N mm", "on this wheel", between(0, 1e7))
                          .add("glue_N_mm2", &In::glue_N_mm2, "N/mm²", "shear that the joint is trusted with", above(0, 30))
                          .because("a third of what sound wood shears at"));
    }();
    return record;
}

const Record& WoodLetInResult::record() {
    using Out = WoodLetInResult;
    static const Record record = Fields<Out>()
                                     .add("block_mm", &Out::block_mm, "mm", "at the roots, along the rim")
                                     .add("block_foot_mm", &Out::block_foot_mm, "mm", "at its foot")
                                     .add("depth_mm", &Out::depth_mm, "mm", "below the roots")
                                     .add("force_N", &Out::force_N, "N", "at a tooth's pitch circle")
                                     .add("bending_N_mm2", &Out::bending_N_mm2, "N/mm²", "at a tooth's root")
                                     .add("along_margin", &Out::along_margin, "", "strength with the grain along the tooth over that")
                                     .add("across_margin", &Out::across_margin, "", "with the grain across it")
                                     .add("glue_margin", &Out::glue_margin, "", "of the joint")
                                     .add("warnings", &Out::warnings, "", "what speaks against it")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& wood_let_in_calculation() {
    static const Calculation calculation = declare<WoodLetInInput, WoodLetInResult>(
        "wood.let-in", "Wooden teeth or leaves let in along the grain: the block, and whether it bears the load.", let_in_source,
        wood_let_in, explain_wood_let_in);
    return calculation;
}

}  // namespace echappe
