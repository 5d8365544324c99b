#include "escapement/sheets.h"

#include "escapement/edits.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr double deg = 180 / pi;

std::vector<std::string> layout_fields(const std::string& kind) {
    std::vector<std::string> fields = {"tip_diameter_mm", "span"};
    const auto also = [&](std::initializer_list<const char*> more) { fields.insert(fields.end(), more.begin(), more.end()); };
    if (kind == "deadbeat" || kind == "lever") also({"school"});
    if (kind != "recoil") also({"lock_deg"});
    also({"lift_deg", "drop_deg"});
    if (kind == "lever") also({"draw_deg", "tooth_share", "tooth_width_deg"});
    if (kind == "pin") also({"pin_mm", "undercut_deg"});
    if (kind == "lever" || kind == "pin") also({"run_deg", "staff_mm", "impulse_pin_mm", "guard_mm", "roller_mm"});
    also({"depth_mm", "friction"});
    return fields;
}

std::vector<std::string> seen_fields(const std::string& kind) {
    std::vector<std::string> fields;
    if (kind != "recoil") fields = {"seen_entry_lock_deg", "seen_exit_lock_deg"};
    fields.insert(fields.end(),
                  {"seen_entry_drop_deg", "seen_exit_drop_deg", "seen_least_deg", "seen_entry_word", "seen_exit_word", "seen_u_deg"});
    return fields;
}

}  // namespace

SumAnswer pallets_layout_sheet(const PalletsRecord& record, const DerivedEscapement& d) {
    SumAnswer answer;
    answer.asked = lines_of(PalletsRecord::record(), &record, layout_fields(d.kind));
    for (SumLine& line : answer.asked) {
        if (!line.text.empty()) continue;
        if (line.field == "school") line.text = usual_school(d.kind);
        else if (line.field == "span" && d.teeth) line.text = print_short(usual_span(d.kind, *d.teeth));
        else continue;
        line.from = "usual";
        line.because = "usual for such an escapement, until it is counted";
    }
    answer.fault = d.fault;
    if (!d.layout) return answer;
    Found found(answer);
    found.says("centre distance now", centre_mm(*d.now), "mm", 3);
    const bool balance = d.kind == "lever" || d.kind == "pin";
    if (balance && d.beat.least_rad) found.says("lever to each side until it lets off", *d.beat.least_rad * deg, "deg", 2);
    if (d.lift_angle_rad) found.says("lift angle of the balance", *d.lift_angle_rad * deg, "deg", 1);
    if (d.needed_rad) found.says("least swing to each side", *d.needed_rad * deg, "deg", 2);
    return answer;
}

SumAnswer pallets_seen_sheet(const PalletsRecord& record, const DerivedEscapement& d) {
    SumAnswer answer;
    answer.asked = lines_of(PalletsRecord::record(), &record, seen_fields(d.kind));
    answer.fault = d.cause_fault;
    if (!d.cause) {
        if (d.layout && answer.fault.empty())
            Found(answer).sentence("none", "Nothing is read yet: a lock, a drop or a word of one pallet is enough to begin with.");
        return answer;
    }
    answer.found.push_back({"depth", "depth by what is seen", print_measured(d.cause->depth_mm, d.cause->depth_u_mm), "mm", ""});
    answer.found.push_back({"apart", "pallets apart", print_measured(d.cause->apart_mm, d.cause->apart_u_mm), "mm", ""});
    answer.found.push_back({"cause", "", d.cause->verdict, "", ""});
    return answer;
}

SumAnswer pallets_settings_sheet(const PalletsRecord& record) {
    SumAnswer answer;
    for (size_t i = 0; i < record.settings.size(); ++i) {
        const PalletsSetting& one = record.settings[i];
        const std::string what = one.date + ", " + one.bridge + ", " + move_pallets(one.bridge, one.nearer_mm, "").name;
        bool first = true;
        for (SumLine line : lines_of(PalletsSetting::record(), &one, {"swing_deg", "least_deg", "ran_min", "limp_ms", "came_of_it"})) {
            line.field = std::to_string(i) + "." + line.field;
            if (first) line.words = what + ": " + line.words;
            first = false;
            answer.asked.push_back(line);
        }
        if (!one.expected_deg) continue;
        const std::string came = one.least_deg ? print_fixed(*one.least_deg, 2) + "° came" : "what came is not known yet";
        answer.found.push_back({"expected " + std::to_string(i), "",
                                one.date + ": needs " + print_fixed(*one.expected_deg, 2) + "° was expected, " + came + ".", "", ""});
    }
    if (record.settings.empty()) answer.found.push_back({"none", "", "Nothing was moved yet.", "", ""});
    return answer;
}

void type_into_teeth(PalletsRecord& record, const std::string& field, const std::string& word) {
    const size_t dot = field.find('.');
    if (dot == std::string::npos) return type_into_record(WheelFaults::record(), &record.faults, field, word);
    std::vector<BadTooth>& teeth = record.faults.teeth;
    const size_t which = std::stoul(field.substr(0, dot));
    const std::string own = field.substr(dot + 1);
    if (word.empty() && own == "tooth" && which < teeth.size()) {
        teeth.erase(teeth.begin() + static_cast<std::ptrdiff_t>(which));
        return;
    }
    if (which >= teeth.size()) teeth.emplace_back();
    type_into_record(BadTooth::record(), &teeth.at(which), own, word);
}

SumAnswer pallets_teeth_sheet(const PalletsRecord& record, const DerivedEscapement& d, const std::optional<double>& beats_per_hour) {
    SumAnswer answer;
    answer.asked = lines_of(WheelFaults::record(), &record.faults, {"eccentric_mm", "eccentric_tooth", "entry_pit_mm", "exit_pit_mm"});
    for (size_t i = 0; i <= record.faults.teeth.size(); ++i) {
        const bool there = i < record.faults.teeth.size();
        const BadTooth tooth = there ? record.faults.teeth[i] : BadTooth();
        const std::vector<std::string> fields =
            there ? std::vector<std::string>{"tooth", "short_mm", "bent_deg"} : std::vector<std::string>{"tooth"};
        for (SumLine line : lines_of(BadTooth::record(), &tooth, fields)) {
            line.field = std::to_string(i) + "." + line.field;
            if (!there) line.words = "another bad tooth, by its number", line.text.clear(), line.from = "unknown", line.because.clear();
            answer.asked.push_back(line);
        }
    }
    Found found(answer);
    if (!d.now) return answer;
    try {
        const EscapementRoundResult round = escapement_round(*d.now, record.faults, d.swing_rad, beats_per_hour);
        found.sentence("verdict", round.verdict);
        const auto least = [&](const char* what, std::optional<double> ToothOnPallets::*one, const char* unit, int decimals) {
            const ToothOnPallets* worst = nullptr;
            for (const ToothOnPallets& tooth : round.teeth)
                if (tooth.*one && (!worst || *(tooth.*one) < *(worst->*one))) worst = &tooth;
            if (!worst) return;
            found.says(std::string(what) + (round.alike ? "" : ", tooth " + std::to_string(worst->tooth)), *(worst->*one), unit, decimals);
        };
        least("least lock on the entry", &ToothOnPallets::entry_lock_deg, "deg", 2);
        least("least lock on the exit", &ToothOnPallets::exit_lock_deg, "deg", 2);
        least("least drop from the entry", &ToothOnPallets::entry_drop_deg, "deg", 2);
        least("least drop from the exit", &ToothOnPallets::exit_drop_deg, "deg", 2);
        if (!round.alike) {
            least("earliest let-off, entry", &ToothOnPallets::entry_late_ms, "ms", 1);
            least("earliest let-off, exit", &ToothOnPallets::exit_late_ms, "ms", 1);
        }
        found.says("least swing for every tooth", round.least_semi_arc_deg, "deg", 2);
    } catch (const InputError& error) {
        answer.fault = error.what();
    }
    return answer;
}

SumAnswer escape_wheel_sheet(const PalletsRecord& record, const DerivedEscapement& d) {
    SumAnswer answer;
    std::vector<std::string> fields = {"undercut_deg", "tooth_depth_mm",  "thickness_mm", "bore_mm",
                                       "rim_mm",       "hub_diameter_mm", "arm_mm",       "arms"};
    if (d.kind == "deadbeat" || d.kind == "recoil") fields.insert(fields.begin() + 1, "tip_mm");
    answer.asked = lines_of(EscapeWheelShape::record(), &record.wheel, fields);
    answer.fault = d.wheel_fault;
    if (!d.wheel) return answer;
    Found found(answer);
    const EscapeWheelResult& w = *d.wheel;
    found.says("blank, over the tips", w.outside_diameter_mm, "mm", 3);
    found.says("depth of cut", w.tooth_depth_mm, "mm", 3);
    found.says("from tooth to tooth", w.index_deg, "deg", 4);
    found.says("the face beside the middle", w.face_offset_mm, "mm", 3);
    found.says("face to the next back: the cutter", w.space_deg, "deg", 1);
    found.says(d.kind == "lever" || d.kind == "pin" ? "length of the tooth's face" : "land at the tips", w.tip_mm, "mm", 2);
    found.says("thickness", w.thickness_mm, "mm", 2);
    found.says("bore", w.bore_mm, "mm", 2);
    found.says("mass", w.mass_g, "g", 2);
    found.says("inertia", w.inertia_g_mm2, "g·mm²", 1);
    for (const std::string& warning : w.warnings) found.sentence(warning, warning);
    return answer;
}

namespace {
SumAnswer lever_part_sheet(const PalletsRecord& record, const DerivedEscapement& d) {
    SumAnswer answer;
    Found found(answer);
    std::vector<std::string> fields = {"bore_mm", "hub_mm",       "arm_mm",        "stone_length_mm",
                                       "held",    "fork_slot_mm", "fork_depth_mm", "thickness_mm"};
    if (d.kind == "pin") fields.erase(fields.begin() + 3, fields.begin() + 5);
    answer.asked = lines_of(LeverShape::record(), &record.lever_body, fields);
    try {
        const LeverPartResult p = lever_part(*d.lever_input);
        found.says("from the escape arbor", p.centre_distance_mm, "mm", 3);
        found.says("entry's stone and slot, wide", p.entry_width_mm, "mm", 3);
        found.says("exit's stone and slot, wide", p.exit_width_mm, "mm", 3);
        found.says("stones long", p.stone_length_mm, "mm", 3);
        found.says("entry's face against its sides", p.entry_face_deg, "deg", 1);
        found.says("exit's face against its sides", p.exit_face_deg, "deg", 1);
        found.says("holes for the pins", p.pin_mm, "mm", 3);
        found.says("arbor to the ends of the horns", p.fork_mm, "mm", 3);
        found.says("body clear of the teeth by", p.clear_mm, "mm", 2);
        found.says("out of poise", 1000 * p.out_of_poise_g_mm, "mg·mm", 1);
        found.says("mass", 1000 * p.mass_g, "mg", 1);
        for (const std::string& warning : p.warnings) found.sentence(warning, warning);
    } catch (const InputError& error) {
        answer.fault = error.what();
    }
    return answer;
}
}  // namespace

SumAnswer pallets_part_sheet(const PalletsRecord& record, const DerivedEscapement& d) {
    SumAnswer answer;
    Found found(answer);
    if (!d.pallets_input) {
        if (d.lever_input) return lever_part_sheet(record, d);
        return answer;
    }
    answer.asked = lines_of(PalletsShape::record(), &record.body, {"bore_mm", "hub_mm", "nib_deg", "thickness_mm"});
    try {
        const PalletsPartResult p = pallets_part(*d.pallets_input);
        found.says("from the escape arbor", p.centre_distance_mm, "mm", 3);
        found.says("across the locking corners", p.across_locking_mm, "mm", 3);
        found.says("across the let-off corners", p.across_let_off_mm, "mm", 3);
        found.says("entry face tangent to radius", p.entry_impulse_circle_mm, "mm", 3);
        found.says("exit face tangent to radius", p.exit_impulse_circle_mm, "mm", 3);
        found.says("body clear of the tips by", p.clear_mm, "mm", 2);
        found.says("lock, entry", p.entry_lock_deg, "deg", 2);
        found.says("lock, exit", p.exit_lock_deg, "deg", 2);
        found.says("drop from the entry", p.entry_drop_deg, "deg", 2);
        found.says("drop from the exit", p.exit_drop_deg, "deg", 2);
        found.says("mass", p.mass_g, "g", 2);
        for (const std::string& warning : p.warnings) found.sentence(warning, warning);
        found.sentence("harden", "Harden glass-hard and let down to straw at the nibs only. Leave metal for polishing.");
    } catch (const InputError& error) {
        answer.fault = error.what();
    }
    return answer;
}

}  // namespace echappe
