#include "train/evidence.h"

#include <algorithm>

#include "number/units.h"

namespace echappe {

const std::vector<EvidenceKind>& evidence_kinds() {
    using Of = EvidenceKind::Of;
    static const std::vector<EvidenceKind> kinds = {
        {"beats_per_hour", "1/h", Of::movement, "beats per hour", 1,
         "From a dial with a seconds hand: 3600. Else count beats for a minute and multiply by 60."},
        {"pendulum_length_mm", "mm", Of::movement, "pendulum length", 5,
         "From the bend of the suspension spring to the middle of the bob; the effective length is a little less."},
        {"case_length_mm", "mm", Of::movement, "longest pendulum the case takes", 10,
         "From the suspension to the floor of the case, less half the bob: the pendulum was not longer. Says nothing of a shorter one."},
        {"period_s", "s", Of::arbor, "time of a turn", 0.5, "Mark the arbor and time one full turn."},
        {"run_s", "s", Of::arbor, "run per winding", 7200,
         "From wound to run down, as the owner or the label tells it, with the turns of the winding arbor.", false},
        {"direction", "", Of::arbor, "direction of its hand", 1,
         "Which way its hand must turn, seen from the dial. Counts cannot change it: it tells whether an arbor is missing.", false},
        {"whole_turns", "", Of::arbor, "whole turns", 1,
         "Of an arbor that locks or warns a strike: it turns a whole number of times for one turn of the reference, or as many as are "
         "typed.",
         false},
        {"centre_distance_mm", "mm", Of::mesh, "centre distance", 0.05,
         "Pins in both holes, measure over the outsides, take off half of each pin. In worn holes push both pins to the unworn side."},
        {"wheel_outside_diameter_mm", "mm", Of::arbor, "wheel, outside diameter", 0.02,
         "Jaws across the tips of opposite teeth at three places; the largest counts. With an odd number of teeth turn the wheel "
         "between the jaws."},
        {"pinion_outside_diameter_mm", "mm", Of::arbor, "pinion, outside diameter", 0.02,
         "Jaws across opposite leaves near the unworn end. With an odd number of leaves the reading is a little small."},
        {"wheel_root_diameter_mm", "mm", Of::arbor, "wheel, root diameter", 0.04,
         "Between the bottoms of opposite gaps, with thin jaws or over two wires and back. Files and wear deepen a gap: take several.",
         false},
        {"pinion_root_diameter_mm", "mm", Of::arbor, "pinion, root diameter", 0.04,
         "Between the bottoms of opposite gaps, with thin jaws near the unworn end.", false},
        {"module_mm", "mm", Of::mesh, "module", 0.003,
         "Chord over three tooth spaces at half height, divided by 9.42. A chord is shorter than its arc: by 0.4 % on 60 teeth, by 0.15 % "
         "on 100, and over ten spaces by ten times as much."},
        {"wheel_fragment_deg", "deg", Of::arbor, "fragment of the wheel", 0.5,
         "A piece of the rim: count its tooth spaces and measure the angle they stand over at the centre.", false},
    };
    return kinds;
}

namespace {

const EvidenceKind* find_kind(const std::string& id) {
    const auto& kinds = evidence_kinds();
    const auto at = std::find_if(kinds.begin(), kinds.end(), [&](const EvidenceKind& kind) { return kind.id == id; });
    return at == kinds.end() ? nullptr : &*at;
}

}  // namespace

const EvidenceKind& QuantityKey::declared() const {
    if (const EvidenceKind* found = find_kind(kind)) return *found;
    throw InputError("kind", "\"" + kind + "\"", "a kind of evidence");
}

const Record& QuantityKey::record() {
    using In = QuantityKey;
    static const Record record = [] {
        std::vector<std::string> kinds;
        for (const EvidenceKind& known : evidence_kinds()) kinds.push_back(known.id);
        return Record(Fields<In>()
                          .add("kind", &In::kind, "", "what is known")
                          .required()
                          .choices(kinds)
                          .add("arbor", &In::arbor, "", "of this arbor (a period, a run, a direction, an outside diameter, a fragment)")
                          .add("wheel_of", &In::wheel_of, "", "of the mesh whose wheel is on this arbor")
                          .add("pinion_of", &In::pinion_of, "", "and whose pinion is on this one"));
    }();
    return record;
}

std::string QuantityKey::id() const {
    if (arbor) return kind + ":" + *arbor;
    return wheel_of ? kind + ":" + *wheel_of + "-" + pinion_of.value_or("") : kind;
}

std::string name_of(const QuantityKey& key) {
    const EvidenceKind& kind = key.declared();
    if (kind.of == EvidenceKind::Of::movement) return kind.words;
    if (kind.of == EvidenceKind::Of::mesh) return key.wheel_of.value_or("") + " to " + key.pinion_of.value_or("") + ", " + kind.words;
    const bool of_part = kind.id.starts_with("wheel_") || kind.id.starts_with("pinion_");
    return key.arbor.value_or("") + (of_part ? " " : ", ") + kind.words;
}

const Record& Evidence::record() {
    using In = Evidence;
    static const Record record =
        Fields<In>()
            .include(&In::key)
            .add("value", &In::value, "", "what was measured (all but a direction and whole turns need it)", above(0, 1e9))
            .add("u", &In::u, "", "its standard uncertainty", above(0, 1e9))
            .add("turns", &In::turns, "", "of a run: turns of the arbor from wound to run down; of whole turns: just so many",
                 above(0, 1e5))
            .add("teeth", &In::teeth, "", "of a fragment: tooth spaces counted", between(1, 999))
            .add("direction", &In::direction, "", "of a direction, seen from the dial")
            .choices({"cw", "ccw"});
    return record;
}

std::optional<InputError> fault_of(const Evidence& evidence, const std::string& place) {
    const auto lacks = [&](const char* field, const std::string& takes) { return InputError(place + "." + field, "nothing", takes); };
    const std::string& kind = evidence.key.kind;
    if (!find_kind(kind)) return InputError(place + ".kind", "\"" + kind + "\"", "a kind of evidence");
    const EvidenceKind::Of of = evidence.key.declared().of;
    if (of == EvidenceKind::Of::arbor && !evidence.key.arbor) return lacks("arbor", "the id of an arbor, for " + kind);
    if (of == EvidenceKind::Of::mesh && !evidence.key.wheel_of) return lacks("wheel_of", "the id of an arbor, for " + kind);
    if (of == EvidenceKind::Of::mesh && !evidence.key.pinion_of) return lacks("pinion_of", "the id of an arbor, for " + kind);
    if (kind == "direction") {
        if (!evidence.direction) return lacks("direction", "\"cw\" or \"ccw\", seen from the dial");
        return {};
    }
    if (kind == "whole_turns") return {};
    if (!(evidence.value > 0)) return lacks("value", "above 0, up to 1e9");
    if (!(evidence.u > 0)) return lacks("u", "above 0, up to 1e9");
    if (kind == "run_s" && !evidence.turns) return lacks("turns", "the turns of that arbor from wound to run down");
    if (kind == "wheel_fragment_deg" && !evidence.teeth) return lacks("teeth", "the tooth spaces counted on the fragment");
    return {};
}

}  // namespace echappe
