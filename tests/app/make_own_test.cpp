// Two whole parts of a movement that stands in no demo, gone through in the window with a wrong reading at every step that takes one.
#include <catch2/catch.hpp>

#include "app/own_bench.h"
#include "stations/make/make_station.h"
#include "teeth/profile.h"
#include "train/edits.h"

using namespace echappe;

namespace {

/// The hidden movement: what the third was, and its modules.
constexpr long long third_wheel = 78, third_pinion = 7;
constexpr double module_below = 0.62, module_above = 0.55;

PartSizes sizes(long long wheel, long long pinion, double module_mm, bool of_wheel) {
    const GeometryResult out = tooth_geometry({wheel, pinion, module_mm, {}});
    return of_wheel ? out.wheel : out.pinion;
}

/// As a calliper would read it.
std::optional<double> hidden(const QuantityKey& key) {
    if (key.kind == "centre_distance_mm" && key.pinion_of == "third") return module_below * (84 + third_pinion) / 2;
    if (key.kind == "centre_distance_mm" && key.wheel_of == "third") return module_above * (third_wheel + 7) / 2;
    if (key.kind == "wheel_outside_diameter_mm" && key.arbor == "centre")
        return sizes(84, third_pinion, module_below, true).outside_diameter_mm;
    if (key.kind == "pinion_outside_diameter_mm" && key.arbor == "escape")
        return sizes(third_wheel, 7, module_above, false).outside_diameter_mm;
    return {};
}

struct MakersBench {
    Bench bench;
    std::vector<std::string> told;  ///< what was said to each wrong reading

    explicit MakersBench(const std::string& movement) {
        bench.window.jobs().begin(own_job("Sluice clock No. 7", movement));
        bench.window.show_station("make");
        Bench::settle();
    }
    MakeStation& station() { return dynamic_cast<MakeStation&>(bench.window.shown()); }
    const DerivedCard& card(const std::string& id) {
        const DerivedCard* found = bench.derived().cards.card(id);
        INFO(id);
        REQUIRE(found);
        return *found;
    }
    void key(Qt::Key key) {
        QTest::keyClick(&station(), key);
        Bench::settle();
    }
    void read(double mm) { bench.read(QString::number(mm, 'f', 3)); }
    /// What forbids it is read, or overruled where nobody can read it.
    void settle_what_forbids(const std::string& id) {
        for (int guard = 0; card(id).next() && card(id).next()->forbids; ++guard) {
            REQUIRE(guard < 12);
            const CardStep next = *card(id).next();
            const auto value = next.asks ? hidden(*next.asks) : std::nullopt;
            if (value) read(*value);
            else bench.document().edit(overrule(id, next.id, "Measured on the rubbing.", "2026-12-01"));
            Bench::settle();
        }
    }
    /// Each step as it comes; where one reads, wrongly first, on both sides.
    void work(const std::string& id) {
        station().choose_card(id);
        settle_what_forbids(id);
        for (int guard = 0; card(id).next() && guard < 400; ++guard) {
            const CardStep step = *card(id).next();
            INFO(id << " " << step.id << ": " << step.words);
            REQUIRE_FALSE(card(id).spoilt_by(step));
            if (!step.reads) {
                key(Qt::Key_Return);
                continue;
            }
            for (const double wrong : {step.size->max_mm + 0.17, step.size->min_mm - 0.17}) {
                if (wrong <= 0) continue;
                read(wrong);
                const CardStep now = *card(id).step(step.id);
                CHECK_FALSE(now.right);
                CHECK(now.verdict.size() > 20);
                told.push_back(step.id + ": " + now.verdict);
                key(Qt::Key_B);
            }
            read(step.size->nominal_mm);
            CHECK(card(id).step(step.id)->right);
        }
        CHECK(card(id).finished());
    }
};

}  // namespace

TEST_CASE("a wheel with its collet on a lost arbor is made through in the window, told at every wrong reading what to do") {
    MakersBench maker("96, 8/84, ?/?, 7/30; 8022.86 beats");
    REQUIRE(maker.bench.derived().train.restore);
    // Nothing was measured: what is likeliest is chosen all the same, as somebody in a hurry would.
    for (size_t rank = 0; rank < maker.bench.derived().train.restore->candidates.size(); ++rank) {
        const auto& counts = maker.bench.derived().train.restore->candidates[rank].counts;
        if (counts.at("third.wheel") != third_wheel || counts.at("third.pinion") != third_pinion) continue;
        maker.bench.document().edit(choose(maker.bench.derived().train, rank, "2026-12-01"));
        break;
    }
    Bench::settle();
    const std::string pinion = "pinion:third.pinion", arbor = "arbor:third", wheel = "wheel:third.wheel";
    CHECK(maker.card(wheel).next()->forbids);
    for (const std::string& id : {pinion, arbor, wheel}) maker.work(id);
    // Hardened once, on the arbor's card, and its leaves polished after that.
    CHECK_FALSE(maker.card(pinion).step("harden"));
    const auto& steps = maker.card(arbor).steps;
    const auto at = [&](const std::string& id) {
        return std::find_if(steps.begin(), steps.end(), [&](const CardStep& step) { return step.id == id; });
    };
    CHECK(at("harden") < at("leaves"));
    CHECK(at("leaves") < at("turn-front"));
    CHECK(maker.card(wheel).step("collet-bore")->read_mm.value() < maker.card(wheel).step("arbor-seat")->read_mm.value());
    CHECK(maker.told.size() > 40);
    if (qEnvironmentVariableIsSet("ECHAPPE_TOLD"))
        for (const std::string& line : maker.told) WARN(line);
}

TEST_CASE("a ring of teeth on an original wheel is made through in the window, told at every wrong reading what to do") {
    MakersBench maker("96, 8/84, 7/78, 7/30; 8022.86 beats");
    Job job = maker.bench.job();
    maker.bench.document().edit(Edit<SurveyRecord>{"Worn", [](SurveyRecord& survey) {
                                                       ConditionRecord& condition = survey.condition_at("third.wheel");
                                                       condition.verdict = "worn teeth";
                                                   }});
    Bench::settle();
    maker.work("ring:third.wheel");
    const DerivedCard& ring = maker.card("ring:third.wheel");
    CHECK(ring.step("join")->tool == "soft-solder");
    CHECK(ring.step("join")->heat_C < 300);
    CHECK(maker.told.size() > 8);
    if (qEnvironmentVariableIsSet("ECHAPPE_TOLD"))
        for (const std::string& line : maker.told) WARN(line);
}

TEST_CASE("a wheel that only two circles together divide shows both moves of the crank, tooth by tooth, and on paper") {
    MakersBench maker("96, 8/84, 7/96, 7/30; 8022.86 beats");
    maker.bench.document().edit(Edit<MakingRecord>{"Head", [](MakingRecord& making) {
                                                       making.dividing_head = DividingHead{40, {{15, 16, 17, 18, 19, 20}}};
                                                   }});
    maker.bench.document().edit(
        Edit<SurveyRecord>{"Worn", [](SurveyRecord& survey) { survey.condition_at("third.wheel").verdict = "worn teeth"; }});
    Bench::settle();
    const std::string ring = "ring:third.wheel";
    maker.station().choose_card(ring);
    maker.settle_what_forbids(ring);
    for (int guard = 0; !maker.card(ring).next()->divides && guard < 30; ++guard) {
        const CardStep step = *maker.card(ring).next();
        if (step.reads) maker.read(step.size->nominal_mm);
        else maker.key(Qt::Key_Return);
    }
    REQUIRE(maker.card(ring).table->second_circle == 16);
    maker.key(Qt::Key_Return);
    maker.station().grab();
    CHECK(maker.station().page().contains("10 holes"));
    INFO(maker.station().page().toStdString());
    CHECK(maker.station().page().contains("plate 4 back, of 16"));
}
