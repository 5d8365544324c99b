#include <algorithm>
#include <map>

#include "survey/record.h"

namespace echappe {

const std::vector<ConditionWord>& conditions_for(const std::string& kind) {
    using List = std::vector<ConditionWord>;
    static const std::map<std::string, List> all = {
        {"hole",
         {{'g', "good", "good", ""},
          {'w', "worn", "worn oval", "fault"},
          {'l', "large", "large, round", "caution"},
          {'d', "dirty", "dirty", "caution"},
          {'b', "bushed", "bushed before", ""},
          {'u', "punched", "punched up", "caution"},
          {'c', "cracked", "cracked", "fault"}}},
        {"wheel",
         {{'g', "good", "sound", ""},
          {'b', "bent teeth", "bent teeth", "fault"},
          {'m', "missing teeth", "missing teeth", "fault"},
          {'w', "worn teeth", "worn teeth", "caution"},
          {'l', "loose", "loose on its arbor", "fault"},
          {'c', "cracked crossing", "cracked crossing", "fault"},
          {'o', "out of true", "out of true", "caution"}}},
        {"pinion",
         {{'g', "good", "sound", ""},
          {'w', "worn leaves", "worn leaves", "caution"},
          {'r', "rusted", "rusted", "fault"},
          {'s', "scored", "scored", "caution"},
          {'l', "loose trundles", "loose trundles", "fault"}}},
        {"arbor",
         {{'g', "good", "straight", ""},
          {'b', "bent", "bent", "fault"},
          {'r', "rusted", "rusted", "caution"},
          {'f', "fly", "its fly loose or stiff", "caution"}}},
        {"plate", {{'g', "good", "flat", ""}, {'b', "bent", "bent", "fault"}, {'c', "cracked", "cracked", "fault"}}},
        {"pillar", {{'g', "good", "straight", ""}, {'b', "bent", "bent", "fault"}, {'l', "loose", "loose", "fault"}}},
        {"drive",
         {{'g', "good", "sound", ""},
          {'t', "tired", "tired spring", "caution"},
          {'r', "rusted", "rusted spring", "fault"},
          {'c', "cracked", "cracked spring", "fault"},
          {'h', "hook", "hook torn", "fault"},
          {'f', "frayed", "frayed line", "fault"},
          {'k', "click", "click or its rivet worn", "fault"},
          {'b', "click spring", "click spring weak or cracked", "fault"},
          {'w', "ratchet", "ratchet wheel's teeth worn", "fault"},
          {'s', "stop work", "stop work worn or missing", "caution"}}},
        {"pallets",
         {{'g', "good", "sound", ""},
          {'w', "worn", "worn pits", "caution"},
          {'d', "deep", "too deep", "fault"},
          {'l', "loose", "loose", "fault"},
          {'c', "chipped", "chipped", "fault"},
          {'s', "suspension", "suspension spring bent or cracked", "fault"},
          {'u', "crutch", "crutch loose or out of line", "caution"}}},
        {"hand",
         {{'g', "good", "sound", ""},
          {'s', "slips", "slips", "fault"},
          {'b', "bent", "bent", "caution"},
          {'l', "loose", "loose", "caution"}}}};
    static const List none;
    const auto at = all.find(kind);
    return at == all.end() ? none : at->second;
}

const std::vector<SafetyStep>& safety_steps() {
    static const std::vector<SafetyStep> steps = {
        {"power", "Power off every train: let down, weights off",
         "Every one: going, strike, chime, alarm, and a fusee's set-up after its run. A wound spring or a weight that runs off hurts hands "
         "and strips teeth. Let down with a key of the right fit, hand in a glove, "
         "eyes covered; never open a barrel that is wound. When in doubt leave it to someone practised."},
        {"swing", "Pendulum or balance taken off or locked",
         "So that nothing swings against the suspension or the hairspring while it is turned over."},
        {"danger", "Looked for luminous paint, mains and mercury",
         "Old luminous paint: do not open or scrape. Mains: isolate, and leave it to a licensed electrician where the law says so. "
         "Mercury: keep "
         "upright, over a tray. Local rules come first."},
        {"pictures", "Photographed as found", "Earlier repairs, which way nuts and washers face: you will need it to put it back."}};
    return steps;
}

const std::vector<EarlierWork>& earlier_works_for(const std::string& kind) {
    using List = std::vector<EarlierWork>;
    static const EarlierWork soldered = {'s', "soldered", "soft soldered",
                                         "Solder hides cracks, and its flux residue keeps corroding the steel near it. Warmed again "
                                         "it draws the temper of what is near: look under it first."};
    static const EarlierWork glued = {'g', "glued", "glued",
                                      "It holds by its glue alone. Warmth and solvent loosen it: before cleaning, not in the bath."};
    static const EarlierWork reversed = {'x', "reversed", "turned over",
                                         "Worn flanks were taken out of use by turning it over: both sides are worn, and it goes back the "
                                         "same way; where that runs no more, a ring of new teeth keeps the wheel."};
    static const EarlierWork part_replaced = {
        'r', "replaced", "not the first maker's",
        "Its count and sizes are a repairer's: where the train does not come out, put ? behind this count before the others."};
    static const std::map<std::string, List> all = {
        {"hole",
         {{'o', "opened", "opened out",
           "The hole says nothing of the first pivot: where both pivots of the arbor are alike, the other plate has the maker's size."},
          {'d', "drawn", "drawn over",
           "Punched or filed to one side to alter a depth. Its middle is not where the maker had it: set out the true centre before "
           "bushing."},
          soldered,
          glued}},
        {"wheel",
         {part_replaced,
          {'t', "tooth let in", "teeth let in", "Look for a sound dovetail and for teeth that stand above their neighbours."},
          {'z', "stretched", "rim stretched",
           "Hammered out to deepen it: no longer round. Take its diameter in several places, and its runout."},
          {'f', "filed", "teeth filed or topped", "Its outside diameter misleads: find the module from distance or from the pinion."},
          reversed,
          soldered}},
        {"pinion",
         {part_replaced,
          {'m', "moved", "wheel moved along it",
           "A fresh part of the leaves was brought into mesh: see that wheel and pinion still run clear of everything else."},
          {'f', "filed", "leaves filed or stoned",
           "Leaves are thinner than the form wants: try the mesh with its wear before judging depth."},
          reversed}},
        {"arbor",
         {part_replaced,
          {'v', "re-pivoted", "re-pivoted", "The plug stands no bending: straighten with care, and try that it sits fast."},
          {'b', "straightened", "straightened before",
           "Bent twice it may break the third time: leave it if depth and hand bear it; another arbor comes last."},
          soldered}},
        {"plate",
         {{'n', "signed", "name or date scratched in", "A date is part of its history: photograph it, and leave it."},
          {'h', "spare holes", "holes that serve nothing",
           "Moved arbors, or a plate from another movement: doubt distances taken between holes that nothing runs in."},
          soldered}},
        {"pillar",
         {part_replaced,
          {'f', "shortened", "shortened or shimmed", "The plates' distance is not the maker's: judge end shake anew."},
          soldered}},
        {"drive",
         {{'r', "replaced", "not the first maker's", "Its width, thickness and length are a repairer's: judge it by its torque."},
          {'k', "cut short", "broken end hooked again", "It is shorter than it was: fewer turns, and each of them pulls harder."}}},
        {"pallets",
         {part_replaced,
          {'f', "re-faced", "faces stoned",
           "What was taken off makes the drop larger and the lock less: the depth must be closed by as much before anything is judged."},
          {'m', "moved", "moved on their arbor", "The beat was set by it: see that it sits fast before the crutch is bent."},
          soldered}},
        {"hand",
         {{'r', "replaced", "not the first maker's", "Its length may not suit the dial's ring."},
          {'c', "bushed", "centre bushed or pinched", "It may stand off the square: see that both hands meet at twelve."},
          soldered}}};
    static const List none;
    const auto at = all.find(kind);
    return at == all.end() ? none : at->second;
}

const EarlierWork* earlier_work(const std::string& kind, const std::string& id) {
    const auto& works = earlier_works_for(kind);
    const auto at = std::find_if(works.begin(), works.end(), [&](const EarlierWork& work) { return work.id == id; });
    return at == works.end() ? nullptr : &*at;
}

}  // namespace echappe
