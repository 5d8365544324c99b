#include "power/rewind.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "power/torque_log.h"

namespace echappe {
namespace {

constexpr double sound_Mohm = 1;
constexpr double like_its_twin = 0.15;
constexpr double light_gf = 3, heavy_gf = 30;
constexpr const char* rewind_source = "work = mean torque × angle";

std::string number(double value) { return print_short(value, 3); }

void check_electrics(const RewindInput& in, RewindResult& out) {
    const auto say = [&](const std::string& sentence, bool forbids) {
        out.checks.push_back(sentence);
        out.checked.push_back({sentence, forbids});
    };
    if (in.continuity_ohm) {
        bool shorted = false;
        std::string words = "Coil " + number(*in.continuity_ohm) + " Ω";
        if (in.continuity_wanted_ohm) {
            const double off = *in.continuity_ohm / *in.continuity_wanted_ohm - 1;
            shorted = off < -like_its_twin;
            words += std::abs(off) <= like_its_twin ? ": as it should be."
                     : shorted                      ? ": low, turns are shorted. Do not connect it."
                                                    : ": high, a bad joint or the wrong coil.";
        } else {
            words += ": it conducts; give what it should be, and it can be judged.";
        }
        say(words, shorted);
    }
    if (in.insulation_Mohm) {
        const bool sound = *in.insulation_Mohm >= sound_Mohm;
        say("Insulation " + number(*in.insulation_Mohm) + " MΩ" + (sound ? ": sound." : ": leaks to the frame. Do not connect it."),
            !sound);
    }
    if (in.contact_gf)
        say("Contacts press with " + number(*in.contact_gf) + " gf" +
                (*in.contact_gf < light_gf   ? ": light, they will burn."
                 : *in.contact_gf > heavy_gf ? ": heavy, they take power from the train."
                                             : ": usual.") +
                " Lacquer or oil between them stops it.",
            false);
}

}  // namespace

const Record& RewindInput::record() {
    using In = RewindInput;
    static const Record record =
        Fields<In>()
            .add("minutes", &In::minutes, "min", "from one rewind to the next", above(0, 1e5))
            .required()
            .add("arbor_turns", &In::arbor_turns, "", "of the driven arbor in that time", above(0, 1e5))
            .required()
            .add("torque_wound_N_mm", &In::torque_wound_N_mm, "N mm", "there, just wound", above(0, 1e7))
            .required()
            .add("torque_before_N_mm", &In::torque_before_N_mm, "N mm", "just before it winds again; absent: a weight", above(0, 1e7))
            .add("least_N_mm", &In::least_N_mm, "N mm", "that just keeps the movement going", above(0, 1e7))
            .add("days_stored", &In::days_stored, "d", "that the drive behind a remontoire lasts", above(0, 1000))
            .add("continuity_ohm", &In::continuity_ohm, "Ω", "of the coil, disconnected", between(0, 1e7))
            .add("continuity_wanted_ohm", &In::continuity_wanted_ohm, "Ω", "by its label or its twin", above(0, 1e7))
            .add("insulation_Mohm", &In::insulation_Mohm, "MΩ", "coil to frame, disconnected", between(0, 1e6))
            .add("contact_gf", &In::contact_gf, "gf", "pressure of the contacts", between(0, 1e4));
    return record;
}

const Record& RewindResult::record() {
    using Out = RewindResult;
    static const Record record = Fields<Out>()
                                     .add("mean_N_mm", &Out::mean_N_mm, "N mm", "over the time")
                                     .add("flatness", &Out::flatness, "", "(wound − before) ÷ mean")
                                     .add("energy_J", &Out::energy_J, "J", "of one rewind")
                                     .add("energy_day_J", &Out::energy_day_J, "J", "in a day")
                                     .add("rewinds_a_day", &Out::rewinds_a_day, "", "how often")
                                     .add("times", &Out::times, "", "mean ÷ least that runs")
                                     .add("verdict", &Out::verdict, "", "in words")
                                     .add("checks", &Out::checks, "", "what the electrical readings say")
                                     .add("cautions", &Out::cautions, "", "where it can hurt");
    return record;
}

RewindResult rewind_drive(const RewindInput& in) {
    const double before = in.torque_before_N_mm.value_or(in.torque_wound_N_mm);
    if (before > in.torque_wound_N_mm)
        throw InputError("torque_before_N_mm", print_short(before), "at most the torque just wound, " + print_short(in.torque_wound_N_mm));
    RewindResult out;
    constexpr double day_min = 1440;
    out.mean_N_mm = (in.torque_wound_N_mm + before) / 2;
    out.flatness = (in.torque_wound_N_mm - before) / out.mean_N_mm;
    out.energy_J = out.mean_N_mm / 1000 * 2 * pi * in.arbor_turns;
    out.rewinds_a_day = day_min / in.minutes;
    out.energy_day_J = out.energy_J * out.rewinds_a_day;
    out.verdict = "Level within " + print_fixed(100 * out.flatness, 1) + " %";
    if (in.least_N_mm) {
        const DriveVerdict verdict = judge_drive(out.mean_N_mm, before, *in.least_N_mm);
        out.times = out.mean_N_mm / *in.least_N_mm;
        out.verdict += "; " + verdict.word + ": " + verdict.reason;
    } else {
        out.verdict += ".";
    }
    if (in.days_stored)
        out.verdict += " The drive behind it must give " + number(out.energy_day_J * *in.days_stored) + " J in " + number(*in.days_stored) +
                       " days, and what its own train loses.";
    check_electrics(in, out);
    out.cautions.push_back(
        "Electrical readings only dead and disconnected. Where mains come in: isolate, and leave it to a licensed electrician where the "
        "law says so.");
    return out;
}

std::vector<Working> explain_rewind(const RewindInput& in, const RewindResult& out) {
    Working energy = work_out("energy of a rewind", "E = 2 π n (M1 + M2) ÷ 2000",
                              {{"n", "turns of the arbor", {in.arbor_turns, 0}, "", 0},
                               {"M1", "wound", {in.torque_wound_N_mm, 0}, "N mm", 0},
                               {"M2", "before the next", {in.torque_before_N_mm.value_or(in.torque_wound_N_mm), 0}, "N mm", 0}},
                              "J", rewind_source, [](auto x) { return pi * x[0] * (x[1] + x[2]) / 1000; });
    energy.notes = out.checks;
    energy.notes.insert(energy.notes.begin(), out.verdict);
    return {energy};
}

const Calculation& rewind_calculation() {
    static const Calculation calculation =
        declare<RewindInput, RewindResult>("rewind.drive", "A rewound or remontoire drive: torque, energy, and its electrical checks.",
                                           rewind_source, rewind_drive, explain_rewind);
    return calculation;
}

}  // namespace echappe
