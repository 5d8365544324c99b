#include "cards/derive.h"

#include <algorithm>
#include <cmath>

#include "making/passes.h"
#include "number/input_error.h"
#include "number/units.h"
#include "pivots/clearance.h"
#include "workings/sum.h"

namespace echappe {
namespace {

/// The rim of a wheel as it mostly is, for what is joined to it.
CutRingInput usual_rim(const DerivedMesh& mesh, const BlankResult& blank) {
    CutRingInput in;
    in.teeth = mesh.wheel, in.module_mm = mesh.module_mm.value, in.outside_mm = mesh.sizes.wheel.outside_diameter_mm;
    in.root_mm = mesh.sizes.wheel.root_diameter_mm, in.thickness_mm = blank.thickness_mm;
    constexpr double usual_rim_mm = 2.2;
    in.rim_inner_mm = in.root_mm - 2 * std::max(usual_rim_mm, blank.rim_mm);
    return in;
}

/// With what its teeth are cut: from the drawer, or ground to their gap.
struct CutterAtHand {
    std::string words;
    std::optional<FlyCutterResult> fly;
};
void name_cutter(DerivedCard& card, const CutterAtHand& cutter) {
    card.fly = cutter.fly;
    for (CardStep& step : card.steps)
        if (step.id == "depth" && !cutter.words.empty()) step.tool = cutter.words;
}

/// Passes to that depth, and the land on the tooth to look for at each.
void tell_passes(DerivedCard& card, const DerivedMesh& mesh, bool wheel) {
    const MeshForms forms = mesh_forms(mesh.geometry(), false, 24);
    const CardStep* outside = card.step("outside");
    if (!outside || !outside->size) return;
    // Steel in more and lighter passes.
    const std::vector<double> shares = wheel ? std::vector<double>{0.6, 0.9, 1} : std::vector<double>{0.4, 0.7, 0.9, 1};
    std::string words;
    for (const CuttingPass& pass : cutting_passes(wheel ? forms.wheel : forms.pinion, mesh.module_mm.value,
                                                  outside->read_mm.value_or(outside->size->nominal_mm), shares))
        words += (words.empty() ? "Passes, and the land that each leaves on a tip: " : "; ") + print_fixed(pass.depth_mm, 2) + " deep, " +
                 print_fixed(pass.land_mm, 2);
    for (CardStep& step : card.steps)
        if (step.id == "depth") step.check = words + " mm.";
}

class FromDecisions {
public:
    explicit FromDecisions(const CardSources& from)
        : m_from(from), m_head(from.making_record.dividing_head ? from.making_record.dividing_head : from.workshop.head) {}

    DerivedCards run() {
        // Arbors and pivots before the holes that are fitted to them, those before what hangs on them.
        for (const auto& [arbor, runout] : m_from.pivots.runout) straighten(arbor, runout);
        for (const DerivedHole& hole : m_from.pivots.holes) pivot(hole);
        for (const DerivedHole& hole : m_from.pivots.holes) bush(hole);
        for (const DerivedMesh& mesh : m_from.train.meshes) made_new(mesh, false);
        for (const JobArbor& arbor : m_from.train_record.arbors) arbor_made(arbor);
        for (const DerivedMesh& mesh : m_from.train.meshes) {
            made_new(mesh, true);
            teeth_mended(mesh);
        }
        for (const BegunPart& part : m_from.record.begun) begun(part);
        shop();
        m_out.hour_price = m_from.stores.hour_price;
        return std::move(m_out);
    }

private:
    const CardSources& m_from;
    std::optional<DividingHead> m_head;
    DerivedCards m_out;

    /// Begins a card; one that cannot be planned is left out, and why is told.
    template <class F>
    void card(const std::string& kind, const std::string& of, const std::string& name, const std::string& because, F&& plan) {
        const PartCard* kept = m_from.record.card(kind + ":" + of);
        DerivedCard card;
        const auto begin = [&](const PartCard* with) {
            card = {};
            card.kind = kind, card.id = kind + ":" + of, card.name = name, card.because = because;
            plan(card, with);
        };
        try {
            begin(kept);
        } catch (const InputError& error) {
            const std::string fault = error.field() + ": got " + error.got() + ", takes " + error.accepts();
            if (!kept || kept->readings.empty()) {
                m_out.faults[of] = fault;
                return;
            }
            // A reading that no part can have does not take the card away: it is planned without, and told.
            PartCard unread = *kept;
            unread.readings.clear();
            try {
                begin(&unread);
            } catch (const InputError&) {
                m_out.faults[of] = fault;
                return;
            }
            for (CardStep& step : card.steps)
                if (step.id == kept->readings.back().step) {
                    step.read_mm = kept->readings.back().value_mm, step.right = false;
                    step.verdict = "That cannot be (" + fault + "): take it back and read it again.";
                }
        }
        find_stock(card, kept, m_from.stores);
        reckon_time(card, kept, m_from.stores);
        m_out.minutes_left += card.minutes_left;
        if (card.cost) m_out.cost = m_out.cost.value_or(0) + *card.cost;
        m_out.cards.push_back(std::move(card));
    }
    /// "Third wheel"; an arbor that is called after its wheel is not called twice.
    std::string name(const std::string& arbor, const std::string& part) const {
        const std::string called = m_from.train_record.name_of_arbor(arbor), noun = part.substr(0, part.find(','));
        return called.ends_with(noun) ? called + part.substr(noun.size()) : called + " " + part;
    }
    void wait_for(DerivedCard& card, const std::string& id) const {
        if (m_out.card(id)) card.waits_for.push_back(id);
    }

    void straighten(const std::string& arbor, const ArborRunoutResult& runout) {
        if (runout.verdict != "straighten") return;
        const ArborRecord* record = m_from.survey.pivots.arbor(arbor);
        card("straighten", arbor, name(arbor, "arbor"), runout.reason, [&](DerivedCard& card, const PartCard* kept) {
            plan_straighten(card, record->tir_before_mm.value_or(*record->tir_mm), runout.limit_mm, record->hardened, kept);
        });
    }
    void pivot(const DerivedHole& hole) {
        if (hole.decision != "repivot-first" || !hole.record.pivot_mm) return;
        card("pivot", hole.id, hole.name + ", pivot", "The pivot comes first: " + hole.reason,
             [&](DerivedCard& card, const PartCard* kept) {
                 const std::string arbor = hole.id.substr(0, hole.id.rfind('.'));
                 const ArborRecord* record = m_from.survey.pivots.arbor(arbor);
                 plan_pivot(card, {*hole.record.pivot_mm, hole.record.pivot_state, {}, record ? record->hardened : true}, kept);
             });
    }
    void bush(const DerivedHole& hole) {
        if (hole.decision != "bush" || !hole.plan || !hole.plan->bush || !hole.record.pivot_mm) return;
        card("bush", hole.id, hole.name + ", bush", "The hole is to be bushed: " + hole.reason,
             [&](DerivedCard& card, const PartCard* kept) {
                 plan_bush_card(card, {*hole.plan, *hole.record.pivot_mm, hole.thickness_mm.value_or(0)}, kept);
                 // Ticked at the Pivots, it is done here too.
                 for (CardStep& step : card.steps) step.done = step.done || hole.record.done;
             });
    }
    std::vector<std::string> bushes_of(const std::string& arbor) const {
        std::vector<std::string> ids;
        for (const DerivedCard& card : m_out.cards)
            if (card.kind == "bush" && card.id.starts_with("bush:" + arbor + ".")) ids.push_back(card.id);
        return ids;
    }
    static double root_of(const DerivedMesh& mesh, bool wheel) { return (wheel ? mesh.sizes.wheel : mesh.sizes.pinion).root_diameter_mm; }

    /// Wheel and pinion were both lost, so their arbor was too.
    bool arbor_lost(const std::string& arbor) const {
        return m_from.train_record.choice(arbor + ".wheel") && m_from.train_record.choice(arbor + ".pinion");
    }
    const DerivedMesh* mesh_with(const std::string& part, bool wheel) const {
        for (const DerivedMesh& mesh : m_from.train.meshes)
            if ((wheel ? mesh.wheel_part : mesh.pinion_part) == part) return &mesh;
        return nullptr;
    }
    std::optional<double> plates_at(const std::string& arbor) const {
        const ArborRecord* record = m_from.survey.pivots.arbor(arbor);
        return record ? record->plates_mm : std::nullopt;
    }
    static double long_of_pinion(const DerivedMesh& mesh) { return 6 * mesh.module_mm.value; }

    void made_new(const DerivedMesh& mesh, bool wheel) {
        const std::string& part = wheel ? mesh.wheel_part : mesh.pinion_part;
        const Choice* choice = m_from.train_record.choice(part);
        if (!choice) return;
        const std::string& arbor = wheel ? mesh.wheel_of : mesh.pinion_of;
        const std::string because = "Lost, and chosen to have " + std::to_string(choice->count) + ".";
        if (wheel) new_wheel(mesh, because);
        else if (mesh.sizes.pinion.outside_diameter_mm > 0)
            card("pinion", part, name(arbor, "pinion"), because, [&](DerivedCard& card, const PartCard* kept) {
                PinionMaking making{mesh.sizes.pinion.outside_diameter_mm, root_of(mesh, false), mesh.module_mm.value, mesh.pinion, m_head};
                making.on_its_arbor = arbor_lost(arbor);
                constexpr double usual_plates = 40, pivots = 8;
                making.arbor_long_mm = plates_at(arbor).value_or(usual_plates) + pivots;
                making.seat_mm = std::max(0.5, 0.6 * root_of(mesh, false));
                if (m_from.wood) return plan_wooden_pinion(card, making, kept), forbid(card, what_forbids(mesh, false), kept);
                plan_pinion(card, making, kept);
                name_cutter(card, cutter_for(mesh, "pinion")), tell_passes(card, mesh, false);
                forbid(card, what_forbids(mesh, false), kept);
                card.waits_for = bushes_of(arbor);
            });
    }
    /// What a part that is cut by this mesh rests on and nobody read, and what is found of it.
    std::vector<CardStep> what_forbids(const DerivedMesh& mesh, bool wheel) const {
        std::vector<CardStep> steps;
        const auto ask = [&](const std::string& id, const std::string& words, const std::string& why,
                             const std::optional<QuantityKey>& key) {
            CardStep step;
            step.id = id, step.words = words, step.check = why;
            if (key) step.reads = true, step.asks = key, step.tool = key->declared().how, step.size = CardSize{};
            steps.push_back(std::move(step));
        };
        if (mesh.module_known == Known::assumed) {
            const QuantityKey key{"centre_distance_mm", {}, mesh.wheel_of, mesh.pinion_of};
            ask("first-module", "Read " + name_in_words(key) + ": the module is assumed",
                "No size of this mesh was read. Metal cut by an assumed module is spoilt.", key);
        }
        if (const auto weight = doubted(wheel ? mesh.wheel_part : mesh.pinion_part)) {
            const auto& restore = m_from.train.restore;
            const bool can_ask = restore && restore->next_measurement;
            const std::string why = "Its count was chosen at " + print_fixed(100 * *weight, 0) + " %.";
            if (can_ask)
                ask("first-count", "Read " + name_in_words(restore->next_measurement->key) + ": it tells most about the count", why,
                    restore->next_measurement->key);
            else ask("first-count", "Settle the count at the Train first", why, {});
        }
        const MadeMesh& made = m_from.making.of(mesh);
        long long found = 0;
        for (const std::string& caution : made.cautions)
            if (!caution.starts_with("Do not cut yet"))
                ask("first-found-" + std::to_string(++found), "Look at what was found of this mesh", caution, {});
        if (made.depth && made.depth->excess() > 1)
            ask("first-depth", "Its holes do not stand at the depth that this pair wants: see Teeth",
                made.depth->locks ? "At the depth that was read the pair binds." : "At the depth that was read the pair runs badly.", {});
        return steps;
    }
    std::string name_in_words(const QuantityKey& key) const {
        const auto& all = m_from.train.measurables;
        const auto at = std::find_if(all.begin(), all.end(), [&](const Measurable& one) { return one.key == key; });
        return at == all.end() ? name_of(key) : at->name;
    }
    /// The weight of a count that was chosen against others that fit nearly as well.
    std::optional<double> doubted(const std::string& part) const {
        const Choice* choice = m_from.train_record.choice(part);
        if (!choice) return {};
        double weight = choice->weight;
        // As it is weighed now, with what was read since.
        if (const auto& restore = m_from.train.restore; restore && restore->complete) {
            // A strike's counts are weighed apart from the timekeeping's: what is not asked of now keeps the weight it was chosen at.
            std::optional<double> now;
            for (const Candidate& one : restore->candidates)
                if (const auto at = one.counts.find(part); at != one.counts.end())
                    now = now.value_or(0) + (at->second == choice->count ? one.weight : 0);
            weight = now.value_or(weight);
        }
        constexpr double sure = 0.9;
        return weight < sure ? std::optional(weight) : std::nullopt;
    }
    void new_wheel(const DerivedMesh& mesh, const std::string& because) {
        const MadeMesh& made = m_from.making.of(mesh);
        if (!made.wheel_blank) return;
        card("wheel", mesh.wheel_part, name(mesh.wheel_of, "wheel"), because, [&](DerivedCard& card, const PartCard* kept) {
            const WheelMaking making{*made.wheel_blank, root_of(mesh, true), mesh.module_mm.value, mesh.wheel, m_head};
            if (m_from.wood)
                return plan_wooden_wheel(card, making, m_from.wood->wheel_wood, kept), forbid(card, what_forbids(mesh, true), kept);
            plan_wheel(card, making, kept);
            name_cutter(card, cutter_for(mesh, "wheel")), tell_passes(card, mesh, true);
            forbid(card, what_forbids(mesh, true), kept);
            wait_for(card, "pinion:" + mesh.wheel_of + ".pinion");
            wait_for(card, "arbor:" + mesh.wheel_of);
        });
    }
    PivotMaking pivot_at(const std::string& arbor, const std::string& end) const {
        PivotMaking pivot;
        pivot.end = end;
        constexpr double usual_pivot = 1, usual_plate = 2;
        const DerivedHole* hole = m_from.pivots.hole(arbor + "." + end);
        pivot.plate_mm = hole ? hole->thickness_mm.value_or(usual_plate) : usual_plate;
        if (hole) pivot.hole_mm = hole->record.hole_min_mm;
        pivot.clearance_mm = clearance_by(m_from.survey.pivots.clearance, pivot.hole_mm.value_or(usual_pivot), pivot.plate_mm);
        return pivot;
    }
    void arbor_made(const JobArbor& of) {
        const std::string& arbor = of.train.id;
        // A wooden arbor is one piece with its leaves: the pinion's card has it.
        if (!arbor_lost(arbor) || m_from.wood) return;
        const DerivedMesh* drives = mesh_with(arbor + ".wheel", true);
        const DerivedMesh* driven = mesh_with(arbor + ".pinion", false);
        card("arbor", arbor, name(arbor, "arbor"), "Its wheel and pinion are lost, and it with them.",
             [&](DerivedCard& card, const PartCard* kept) {
                 ArborMaking making;
                 making.plates_mm = plates_at(arbor);
                 making.escape = m_from.train_record.escape_arbor == arbor;
                 if (driven) making.pinion_mm = driven->sizes.pinion.outside_diameter_mm, making.pinion_long_mm = long_of_pinion(*driven);
                 const auto& blank = drives ? m_from.making.of(*drives).wheel_blank : std::nullopt;
                 constexpr double usual_body = 3;
                 making.body_mm = blank ? blank->arbor_mm : usual_body;
                 if (driven) making.body_mm = std::min(making.body_mm, root_of(*driven, false));
                 if (blank) making.collet_mm = making.body_mm;
                 making.leaves = driven && driven->sizes.pinion.outside_diameter_mm > 0;
                 for (const std::string& plate : plate_names()) making.pivots.push_back(pivot_at(arbor, plate));
                 plan_arbor(card, making, kept);
                 if (driven) forbid(card, what_forbids(*driven, false), kept);
                 wait_for(card, "pinion:" + arbor + ".pinion");
                 for (const std::string& id : bushes_of(arbor)) card.waits_for.push_back(id);
             });
    }

    /// Where the chain of power is known to it, wound.
    std::optional<double> torque_at(const std::string& arbor) const {
        for (const DerivedDrive& drive : m_from.power.drives)
            if (drive.chain)
                for (const PowerAtArbor& at : drive.chain->arbors)
                    if (at.id == arbor && at.torque_N_mm > 0) return at.torque_N_mm;
        return {};
    }
    /// The nearest of the drawer that is made for it; empty: none.
    CutterAtHand cutter_for(const DerivedMesh& mesh, const char* part) const {
        if (m_from.stores.cutters.empty()) return {};
        CutterInput in;
        in.mesh = mesh.geometry(), in.part = part, in.stock = m_from.stores.cutters;
        try {
            const std::vector<CutterFit> fits = nearest_cutters(in).cutters;
            if (!fits.empty() && fits.front().suits)
                return {"cutter " + fits.front().id + ", off by " + print_fixed(fits.front().shape_error_um, 0) + " µm at most", {}};
            // Near is not near enough: said, and what to cut it with.
            FlyCutterInput gap;
            gap.mesh = in.mesh, gap.part = part;
            return {
                "fly cutter made to the gap of the drawing: no cutter of the drawer is within " +
                    print_fixed(1000 * off_at_most_modules * mesh.module_mm.value, 0) + " µm" +
                    (fits.empty() ? "" : " (" + fits.front().id + " would leave " + print_fixed(fits.front().shape_error_um, 0) + " µm)"),
                fly_cutter(gap)};
        } catch (const InputError&) {
            // A form that no cutter of the drawer has.
        }
        return {};
    }

    void teeth_mended(const DerivedMesh& mesh) {
        const ConditionRecord* condition = m_from.survey.condition(mesh.wheel_part);
        if (!condition || m_from.train_record.choice(mesh.wheel_part)) return;
        const std::string& verdict = condition->verdict;
        if (verdict != "missing teeth" && verdict != "worn teeth") return;
        const MadeMesh& made = m_from.making.of(mesh);
        if (!made.wheel_blank) return;
        TeethWaysInput asked;
        asked.wheel = usual_rim(mesh, *made.wheel_blank),
        asked.damaged = verdict == "worn teeth" ? std::vector<long long>() : condition->teeth;
        asked.wheel.torque_N_mm = torque_at(mesh.wheel_of);
        // What was read of the rim, at whichever card, goes before what rims mostly are.
        for (const char* kind : {"ring:", "teeth:"})
            if (const PartCard* kept = m_from.record.card(kind + mesh.wheel_part))
                if (const CardReading* rim = kept->reading("rim"); rim && rim->value_mm < asked.wheel.root_mm)
                    asked.wheel.rim_inner_mm = rim->value_mm;
        TeethWaysResult ways;
        try {
            ways = teeth_ways(asked);
        } catch (const InputError&) {
            return;  // a tooth beyond its count: the survey says so
        }
        if (m_from.wood) no_ring_of_wood(ways);
        const WayChosen* chosen = m_from.record.way_of(mesh.wheel_part);
        const std::string way = chosen ? chosen->way : begun_way(mesh.wheel_part).value_or(ways.advised);
        const std::string because = "It was found with " + verdict + (chosen && !chosen->because.empty() ? ". " + chosen->because : ".");
        const auto plan_way = [&](DerivedCard& card, const std::string& by, const PartCard* kept) {
            if (m_from.wood && by == "let in") return plan_wooden_teeth(card, asked.wheel, m_from.wood->wheel_wood, condition->teeth, kept);
            if (m_from.wood)
                return plan_wooden_wheel(card, {*made.wheel_blank, root_of(mesh, true), mesh.module_mm.value, mesh.wheel, m_head},
                                         m_from.wood->wheel_wood, kept);
            for (const TeethWay& one : ways.ways)
                if (one.way == by && by == "let in") plan_let_in(card, asked.wheel, one, condition->teeth, kept);
            if (by == "ring") {
                plan_ring(card, asked.wheel, m_head, kept);
                name_cutter(card, cutter_for(mesh, "wheel")), tell_passes(card, mesh, true);
                forbid(card, what_forbids(mesh, true), kept);
            }
            if (by == "new wheel")
                plan_wheel(card, {*made.wheel_blank, root_of(mesh, true), mesh.module_mm.value, mesh.wheel, m_head}, kept);
        };
        // A way takes as long as its card.
        for (TeethWay& one : ways.ways) {
            DerivedCard scratch;
            scratch.kind = kind_of_way(one.way);
            if (!one.possible) continue;
            try {
                plan_way(scratch, one.way, nullptr);
                reckon_time(scratch, nullptr, m_from.stores);
                one.minutes = scratch.minutes;
            } catch (const InputError&) {
                // What its card wants first is told there; the way's own estimate stands.
            }
        }
        const auto with_ways = [&](DerivedCard& card) { card.ways = ways.ways, card.way = way; };
        if (way == "new wheel") {
            // Before metal or wood is taken for it: what can be undone goes first.
            const std::string first =
                "The old wheel first: with its depth set anew, or turned over on its arbor so that the other flanks drive, it "
                "may run. What is made anew comes last; the old one stays with the clock.";
            const size_t before = m_out.cards.size();
            new_wheel(mesh, because);
            if (m_out.cards.size() > before)
                with_ways(m_out.cards.back()), m_out.cards.back().notes.insert(m_out.cards.back().notes.begin(), first);
            return;
        }
        card(kind_of_way(way), mesh.wheel_part, name(mesh.wheel_of, way == "ring" ? "wheel, ring" : "wheel, teeth let in"), because,
             [&](DerivedCard& card, const PartCard* kept) {
                 plan_way(card, way, kept);
                 with_ways(card);
             });
    }
    /// Solder and a ring are for metal; teeth of wood are let in or the wheel is made anew.
    static void no_ring_of_wood(TeethWaysResult& ways) {
        for (TeethWay& one : ways.ways) {
            if (one.way == "ring") one.possible = false, one.reason = "The wheel is of wood: nothing is soldered on it.";
            if (one.way == "let in" && one.possible)
                one.reason = "Only the damaged teeth go: blocks with the grain along the tooth, glued.";
        }
        if (ways.advised != "ring") return;
        ways.advised = ways.ways.front().possible ? "let in" : "new wheel";
    }
    /// A card that was begun stays, whatever its readings advise now: it says so itself.
    std::optional<std::string> begun_way(const std::string& part) const {
        for (const char* way : {"ring", "let in"}) {
            const PartCard* kept = m_from.record.card(kind_of_way(way) + ":" + part);
            if (kept && !kept->done.empty()) return way;
        }
        return {};
    }
    static std::string kind_of_way(const std::string& way) { return way == "let in" ? "teeth" : way == "ring" ? "ring" : "wheel"; }

    DrawnMaking drawn_making(const std::string& of) const {
        DrawnMaking making;
        making.part = drawn(of), making.of = of, making.head = m_head;
        if (of == "escape wheel") {
            const EscapeWheelInput& in = m_from.escapement.wheel_input;
            making.teeth = in.teeth, making.outside_mm = m_from.escapement.wheel->outside_diameter_mm;
            making.bore_mm = m_from.escapement.wheel->bore_mm;
        }
        return making;
    }
    FlatPart drawn(const std::string& of) const {
        const DerivedStrike& strike = m_from.strike;
        if (of == "snail" && strike.snail && strike.measured) return solid_of(strike.snail_input, *strike.snail);
        if (of == "rack" && strike.rack && strike.rack_measured) return solid_of(strike.rack_input, *strike.rack);
        if (of == "count wheel" && strike.wheel && strike.measured) return solid_of(strike.wheel_input, *strike.wheel);
        if (of == "alarm cam" && m_from.alarm.cam && m_from.alarm.measured) return solid_of(m_from.alarm.cam_input, *m_from.alarm.cam);
        if (of == "pallets" && m_from.escapement.pallets_input)
            return solid_of(*m_from.escapement.pallets_input, pallets_part(*m_from.escapement.pallets_input));
        if (of == "escape wheel" && m_from.escapement.wheel) return solid_of(m_from.escapement.wheel_input, *m_from.escapement.wheel);
        throw InputError("of", "\"" + of + "\", which is not measured yet", "a part that is drawn: measure it at Strike or Beat first");
    }
    /// What is on or under a plate where a hole is to be, in words; and all of it drawn.
    std::vector<std::string> look_what_is_there(const CircleOfHoles& holes, DerivedCard& card) const {
        std::vector<std::string> out;
        if (holes.plate.empty() || !holes.radius_mm) return out;
        HoleCircleInput in;
        in.holes = holes.count, in.radius_mm = *holes.radius_mm, in.start_deg = holes.start_deg;
        const std::vector<HoleOnCircle> points = hole_circle(in).points;
        constexpr double usual_hole = 2, clear_mm = 2, pivot_hole_mm = 1;
        const double r = holes.through_mm.value_or(usual_hole) / 2;
        for (const JobArbor& arbor : m_from.train_record.arbors) {
            if (arbor.position_mm.size() != 2) continue;
            const Point at{arbor.position_mm[0] - holes.middle_x_mm, arbor.position_mm[1] - holes.middle_y_mm};
            const DerivedMesh* mesh = mesh_with(arbor.train.id + ".wheel", true);
            const double wheel = mesh ? mesh->sizes.wheel.outside_diameter_mm / 2 : 0;
            card.in_the_way.push_back({at, pivot_hole_mm});
            if (wheel > 0) card.in_the_way.push_back({at, wheel});
            for (size_t i = 0; i < points.size(); ++i) {
                const double d = std::hypot(points[i].x_mm - at[0], points[i].y_mm - at[1]);
                const std::string hole = "Hole " + std::to_string(i + 1);
                if (d < r + clear_mm)
                    out.push_back(hole + " runs into the pivot hole of " + arbor.called() + ": turn the circle, or another radius.");
                else if (d < r + wheel) out.push_back(hole + " lies over the wheel of " + arbor.called() + ": nothing may stand in there.");
            }
        }
        return out;
    }

    void begun(const BegunPart& part) {
        const std::string kind = word_of(part.is), because = "Begun by hand.";
        if (const auto* set = part.as<ConcentricSet>()) return begun_set(part, *set);
        card(kind, part.id, part.name, because, [&](DerivedCard& card, const PartCard* kept) {
            if (const auto* turned = part.as<TurnedShape>()) plan_turned(card, *turned, kept);
            else if (const auto* flat = part.as<FlatShape>()) plan_flat(card, *flat, kept);
            else if (const auto* holes = part.as<CircleOfHoles>()) plan_circle(card, *holes, look_what_is_there(*holes, card), kept);
            else if (const auto* pieces = part.as<EqualPieces>()) plan_equal(card, *pieces, kept);
            else if (const auto* spring = part.as<SpringPiece>()) plan_spring(card, *spring, kept);
            else plan_drawn(card, drawn_making(part.as<DrawnPart>()->of), kept);
        });
    }
    /// A card for each part, the outermost first: each is turned to the bore of the one before.
    void begun_set(const BegunPart& part, const ConcentricSet& set) {
        const auto id = [&](size_t i) { return "set:" + part.id + "." + std::to_string(i + 1); };
        for (size_t i = set.parts.size(); i-- > 0;)
            card("set", part.id + "." + std::to_string(i + 1), set.parts[i].name, "Of the set “" + part.name + "”, from the outside in.",
                 [&](DerivedCard& card, const PartCard* kept) {
                     plan_of_set(card, set, i, kept, i + 1 < set.parts.size() ? m_from.record.card(id(i + 1)) : nullptr);
                     if (i + 1 < set.parts.size()) wait_for(card, id(i + 1));
                 });
    }

    /// What the cards that are not done want and the drawers have not, each once.
    void shop() {
        const auto want = [&](const std::string& words, const std::string& card) {
            for (StockWanted& line : m_out.shopping)
                if (line.words == words) {
                    if (line.for_cards.back() != card) line.for_cards.push_back(card);
                    return;
                }
            m_out.shopping.push_back({words, {card}});
        };
        for (const DerivedCard& card : m_out.cards) {
            if (card.finished()) continue;
            const CardStep* take = card.step("take");
            if (card.stock && card.stock->from.empty() && take && !take->done && !m_from.stores.metal.empty()) {
                const CardStock& s = *card.stock;
                want(s.material + ", " + s.form + " " + print_short(s.size_mm, 3) + " mm" +
                         (s.width_mm > 0 ? ", " + print_fixed(s.width_mm, 0) + " wide" : "") + ", " + print_fixed(s.length_mm, 0) + " long",
                     card.name);
            }
            for (const CardStep& step : card.steps)
                if (!step.short_of.empty()) want(step.short_of, card.name);
        }
    }
};

PartCard& card_of(CardsRecord& record, const std::string& id) {
    for (PartCard& card : record.cards)
        if (card.id == id) return card;
    PartCard card;
    card.id = id;
    record.cards.push_back(std::move(card));
    return record.cards.back();
}

}  // namespace

const DerivedCard* DerivedCards::card(const std::string& id) const {
    const auto at = std::find_if(cards.begin(), cards.end(), [&](const DerivedCard& one) { return one.id == id; });
    return at == cards.end() ? nullptr : &*at;
}

bool DerivedCards::can_begin(const DerivedCard& one) const {
    return std::all_of(one.waits_for.begin(), one.waits_for.end(), [this](const std::string& id) {
        const DerivedCard* other = card(id);
        return !other || other->finished();
    });
}

DerivedCards derive_cards(const CardsRecord& record, const TrainRecord& train_record, const DerivedTrain& train,
                          const MakingRecord& making_record, const DerivedMaking& making, const SurveyRecord& survey,
                          const DerivedPivots& pivots, const DerivedStrike& strike, const DerivedAlarm& alarm,
                          const DerivedEscapement& escapement, const DerivedPower& power, const std::optional<WoodRecord>& wood,
                          const WorkshopHead& workshop, const Stores& stores) {
    return FromDecisions({record, train_record, train, making_record, making, survey, pivots, strike, alarm, escapement, power, wood,
                          workshop, stores})
        .run();
}

std::vector<Finding> findings_of_cards(const DerivedCards& derived) {
    std::vector<Finding> all;
    for (const DerivedCard& card : derived.cards)
        for (const CardStep& step : card.steps)
            if (!step.right)
                all.push_back({"cards.out:" + card.id + ":" + step.id, "fault", card.name + ": a size is out of its limits.",
                               step.words + ". " + step.verdict, "", ""});
    return all;
}

Edit<CardsRecord> end_step(const std::string& card, const std::string& step, const std::optional<double>& read_mm, const std::string& date,
                           const std::optional<double>& minutes) {
    return {"Done: " + step, [=](CardsRecord& record) {
                PartCard& kept = card_of(record, card);
                if (!kept.is_done(step)) kept.done.push_back(step);
                if (read_mm) kept.readings.push_back({step, *read_mm, date});
                std::erase_if(kept.times, [&](const CardTime& one) { return one.step == step && minutes; });
                if (minutes) kept.times.push_back({step, *minutes});
            }};
}

Edit<CardsRecord> take_stock(const std::string& card, const std::string& from) {
    return {"Taken: " + from, [=](CardsRecord& record) { card_of(record, card).taken_from = from; }};
}

Edit<CardsRecord> take_back(const std::string& card) {
    return {"Step open again", [=](CardsRecord& record) {
                PartCard& kept = card_of(record, card);
                if (kept.done.empty()) return;
                const std::string step = kept.done.back();
                kept.done.pop_back();
                std::erase_if(kept.readings, [&](const CardReading& one) { return one.step == step; });
                std::erase_if(kept.times, [&](const CardTime& one) { return one.step == step; });
                if (step == "take") kept.taken_from.clear();
            }};
}

Edit<CardsRecord> overrule(const std::string& card, const std::string& step, const std::string& because, const std::string& date) {
    return {because.empty() ? "Forbids again" : "Overruled: " + step, [=](CardsRecord& record) {
                PartCard& kept = card_of(record, card);
                std::erase_if(kept.overruled, [&](const CardOverruled& one) { return one.step == step; });
                if (!because.empty()) kept.overruled.push_back({step, because, date});
            }};
}

Edit<CardsRecord> tick_tooth(const std::string& card, long long tooth, bool spoilt) {
    return {(spoilt ? "Cut in the wrong place: tooth " : "Tooth ") + std::to_string(tooth), [=](CardsRecord& record) {
                card_of(record, card).ticks.push_back({tooth, spoilt});
            }};
}

Edit<CardsRecord> untick_tooth(const std::string& card) {
    return {"Tooth open again", [=](CardsRecord& record) {
                PartCard& kept = card_of(record, card);
                if (!kept.ticks.empty()) kept.ticks.pop_back();
            }};
}

}  // namespace echappe
