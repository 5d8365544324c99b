#include "cards/derive.h"

#include <algorithm>

#include "number/input_error.h"

namespace echappe {
namespace {

class FromDecisions {
public:
    FromDecisions(const CardsRecord& record, const TrainRecord& train_record, const DerivedTrain& train, const MakingRecord& making_record,
                  const DerivedMaking& making, const SurveyRecord& survey, const DerivedPivots& pivots)
        : m_record(record),
          m_train_record(train_record),
          m_train(train),
          m_head(making_record.dividing_head),
          m_making(making),
          m_survey(survey),
          m_pivots(pivots) {}

    DerivedCards run() {
        // Holes first: pivots are fitted to them.
        for (const DerivedHole& hole : m_pivots.holes) bush(hole);
        for (const DerivedMesh& mesh : m_train.meshes) {
            made_new(mesh, true);
            made_new(mesh, false);
            ring(mesh);
        }
        return std::move(m_out);
    }

private:
    const CardsRecord& m_record;
    const TrainRecord& m_train_record;
    const DerivedTrain& m_train;
    const std::optional<DividingHead>& m_head;
    const DerivedMaking& m_making;
    const SurveyRecord& m_survey;
    const DerivedPivots& m_pivots;
    DerivedCards m_out;

    /// Begins a card; one that cannot be planned is left out.
    template <class F>
    void card(const std::string& kind, const std::string& of, const std::string& name, const std::string& because, F&& plan) {
        DerivedCard card;
        card.kind = kind, card.id = kind + ":" + of, card.name = name, card.because = because;
        try {
            plan(card, m_record.card(card.id));
        } catch (const InputError&) {
            return;
        }
        m_out.cards.push_back(std::move(card));
    }
    /// "Third wheel"; an arbor that is called after its wheel is not called twice.
    std::string name(const std::string& arbor, const std::string& part) const {
        const std::string called = m_train_record.name_of_arbor(arbor), noun = part.substr(0, part.find(','));
        return called.ends_with(noun) ? called + part.substr(noun.size()) : called + " " + part;
    }

    void bush(const DerivedHole& hole) {
        if (hole.decision != "bush" || !hole.plan || !hole.plan->bush || !hole.record.pivot_mm) return;
        card("bush", hole.id, hole.name + ", bush", "The hole is to be bushed: " + hole.reason,
             [&](DerivedCard& card, const PartCard* kept) {
                 plan_bush_card(card, {*hole.plan, *hole.record.pivot_mm, hole.thickness_mm.value_or(0)}, kept);
             });
    }
    std::vector<std::string> bushes_of(const std::string& arbor) const {
        std::vector<std::string> ids;
        for (const DerivedCard& card : m_out.cards)
            if (card.kind == "bush" && card.id.starts_with("bush:" + arbor + ".")) ids.push_back(card.id);
        return ids;
    }
    static double root_of(const DerivedMesh& mesh, bool wheel) { return (wheel ? mesh.sizes.wheel : mesh.sizes.pinion).root_diameter_mm; }
    void made_new(const DerivedMesh& mesh, bool wheel) {
        const std::string& part = wheel ? mesh.wheel_part : mesh.pinion_part;
        const Choice* choice = m_train_record.choice(part);
        if (!choice) return;
        const MadeMesh& made = m_making.of(mesh);
        const std::string& arbor = wheel ? mesh.wheel_of : mesh.pinion_of;
        const std::string because = "Lost, and chosen to have " + std::to_string(choice->count) + ".";
        if (wheel && made.wheel_blank)
            card("wheel", part, name(arbor, "wheel"), because, [&](DerivedCard& card, const PartCard* kept) {
                plan_wheel(card, {*made.wheel_blank, root_of(mesh, true), mesh.module_mm.value, mesh.wheel, m_head}, kept);
                const std::string pinion = "pinion:" + arbor + ".pinion";
                if (m_out.card(pinion)) card.waits_for.push_back(pinion);
            });
        if (!wheel && mesh.sizes.pinion.outside_diameter_mm > 0)
            card("pinion", part, name(arbor, "pinion"), because, [&](DerivedCard& card, const PartCard* kept) {
                plan_pinion(card, {mesh.sizes.pinion.outside_diameter_mm, root_of(mesh, false), mesh.module_mm.value, mesh.pinion, m_head},
                            kept);
                card.waits_for = bushes_of(arbor);
            });
    }
    void ring(const DerivedMesh& mesh) {
        const ConditionRecord* condition = m_survey.condition(mesh.wheel_part);
        if (!condition || m_train_record.choice(mesh.wheel_part)) return;
        const std::string& verdict = condition->verdict;
        if (verdict != "missing teeth" && verdict != "worn teeth") return;
        const MadeMesh& made = m_making.of(mesh);
        if (!made.wheel_blank) return;
        card("ring", mesh.wheel_part, name(mesh.wheel_of, "wheel, ring"), "It was found with " + verdict + ".",
             [&](DerivedCard& card, const PartCard* kept) {
                 CutRingInput in;
                 in.teeth = mesh.wheel, in.module_mm = mesh.module_mm.value, in.outside_mm = mesh.sizes.wheel.outside_diameter_mm;
                 in.root_mm = root_of(mesh, true), in.thickness_mm = made.wheel_blank->thickness_mm;
                 constexpr double usual_rim_mm = 2.2;
                 in.rim_inner_mm = in.root_mm - 2 * std::max(usual_rim_mm, made.wheel_blank->rim_mm);
                 plan_ring(card, in, m_head, kept);
             });
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
                          const DerivedPivots& pivots) {
    return FromDecisions(record, train_record, train, making_record, making, survey, pivots).run();
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

Edit<CardsRecord> end_step(const std::string& card, const std::string& step, const std::optional<double>& read_mm,
                           const std::string& date) {
    return {"Done: " + step, [=](CardsRecord& record) {
                PartCard& kept = card_of(record, card);
                if (!kept.is_done(step)) kept.done.push_back(step);
                if (read_mm) kept.readings.push_back({step, *read_mm, date});
            }};
}

Edit<CardsRecord> take_back(const std::string& card) {
    return {"Step open again", [=](CardsRecord& record) {
                PartCard& kept = card_of(record, card);
                if (kept.done.empty()) return;
                const std::string step = kept.done.back();
                kept.done.pop_back();
                std::erase_if(kept.readings, [&](const CardReading& one) { return one.step == step; });
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
