#include "stations/make/make_station.h"

#include <QTemporaryDir>
#include <catch2/catch.hpp>

#include "app/bench.h"
#include "job/new_job.h"
#include "train/edits.h"

using namespace echappe;

namespace {

const char* const ring = "ring:tide-1.wheel";

struct MakeBench : Bench {
    MakeBench() {
        window.show_station("make");
        settle();
    }
    MakeStation& station() { return dynamic_cast<MakeStation&>(window.shown()); }
    QString page() {
        station().grab();
        return station().page();
    }
    const DerivedCard& card(const std::string& id) {
        const DerivedCard* found = derived().cards.card(id);
        REQUIRE(found);
        return *found;
    }
    void key(Qt::Key key) {
        QTest::keyClick(&station(), key);
        settle();
    }
    void choose_card(const char* id) {
        station().grab();
        REQUIRE(station().act(QString("card:") + id));
        settle();
    }
    /// Through the steps to the teeth, as drawn.
    void work_up_to_teeth() {
        for (int guard = 0; !card(ring).next()->divides; ++guard) {
            INFO(card(ring).next()->id << ": " << window.calliper().message().toStdString() << " / "
                                       << window.calliper().line().text().toStdString());
            REQUIRE(guard < 20);
            if (card(ring).next()->asks) read_simulated();
            else if (card(ring).next()->reads) read(QString::number(card(ring).next()->size->nominal_mm, 'f', 2));
            else key(Qt::Key_Return);
        }
    }
};

}  // namespace

TEST_CASE("the tide wheel is re-toothed by its card alone, and a seat that is turned too deep is caught with a way out") {
    MakeBench bench;
    bench.choose_card(ring);
    // Nothing of its mesh was read: that comes before metal is taken, and a key does not pass over it.
    CHECK(bench.page().contains("Not to be cut yet"));
    bench.key(Qt::Key_Return);
    CHECK(bench.card(ring).next()->id == "first-module");
    bench.read("25 kg");
    CHECK(bench.card(ring).next()->id == "first-module");
    bench.read_simulated();
    CHECK_FALSE(bench.card(ring).step("first-module"));
    CHECK(bench.page().contains("blank from 2 mm cast brass"));
    bench.document().undo_stack()->undo();
    CHECK(bench.card(ring).next()->id == "first-module");
    bench.document().undo_stack()->redo();
    bench.key(Qt::Key_Return);
    CHECK(bench.page().contains("inside of the rim"));
    bench.read_simulated();
    CHECK(bench.page().contains("Turn the teeth off to the seat"));
    // Enter does not pass over a reading.
    bench.key(Qt::Key_Return);
    CHECK(bench.card(ring).next()->id == "seat");
    const double seat = bench.card(ring).step("seat")->size->nominal_mm, bore = bench.card(ring).step("ring")->size->nominal_mm;
    CHECK(bench.window.calliper().line().accessibleName().contains("seat"));
    bench.read(QString::number(seat - 0.1, 'f', 2));
    CHECK(bench.card(ring).step("ring")->size->nominal_mm == Approx(bore - 0.1).margin(0.006));
    CHECK(bench.page().contains("Under by 0.1"));
    const auto out = [&] {
        return std::any_of(bench.derived().findings.begin(), bench.derived().findings.end(),
                           [](const Finding& f) { return f.is("cards.out"); });
    };
    CHECK(out());
    // Taken back, it is read again.
    bench.key(Qt::Key_B);
    CHECK(bench.card(ring).next()->id == "seat");
    CHECK_FALSE(out());
    bench.work_up_to_teeth();
    CHECK(bench.page().contains("tooth 1"));
    for (int tooth = 1; tooth <= 3; ++tooth) bench.key(Qt::Key_Return);
    CHECK(bench.page().contains("tooth 4"));
    bench.key(Qt::Key_X);
    CHECK(bench.page().contains("tooth 4"));
    CHECK(bench.card(ring).cut() == 3);
    bench.key(Qt::Key_B);
    bench.key(Qt::Key_B);
    CHECK(bench.page().contains("tooth 3"));
    bench.document().undo_stack()->undo();
    CHECK(bench.page().contains("tooth 4"));
    for (int guard = 0; bench.card(ring).next() && guard < 100; ++guard) bench.key(Qt::Key_Return);
    CHECK(bench.page().contains("Done, to its last check"));
}

TEST_CASE("the third arbor's wheel waits for its pinion, and comes as soon as its count is chosen") {
    MakeBench bench;
    CHECK_FALSE(bench.derived().cards.card("wheel:third.wheel"));
    bench.window.show_station("train");
    for (int i = 0; i < 4; ++i) bench.read_simulated();
    bench.document().edit(choose(bench.derived().train, 0, "2026-11-30"));
    bench.window.show_station("make");
    bench.settle();
    CHECK(bench.page().contains("waits for what it is joined to"));
    bench.choose_card("wheel:third.wheel");
    CHECK(bench.page().contains("mm engraving brass"));
    bench.key(Qt::Key_Return);
    // Where the sheet in the drawer is thicker than the wheel, it is faced down first.
    if (bench.card("wheel:third.wheel").next()->id == "face") bench.read_simulated();
    CHECK(bench.page().contains("Saw a disc"));
    bench.key(Qt::Key_F);
    CHECK(bench.page().contains("Saw a disc"));
    CHECK_FALSE(bench.page().contains("PARTS TO MAKE"));
    bench.key(Qt::Key_F);
    bench.key(Qt::Key_Return);
    bench.read_simulated();
    CHECK(bench.card("wheel:third.wheel").step("bore")->done);
    CHECK(bench.card("wheel:third.wheel").step("bore")->right);
}

TEST_CASE("ticks of a dividing table are kept with the job, file and all") {
    MakeBench bench;
    bench.choose_card(ring);
    bench.work_up_to_teeth();
    for (int tooth = 1; tooth <= 20; ++tooth) bench.key(Qt::Key_Return);
    const QTemporaryDir folder;
    const QString path = folder.filePath("ring.echappe.json");
    bench.document().save_as(path);
    bench.window.open_file(path);
    bench.settle();
    CHECK(*bench.card(ring).next_tooth() == 21);
}

TEST_CASE("on a movement of one's own begun from an empty bench a lost wheel that is chosen comes to be made, tooth by tooth") {
    MakeBench bench;
    bench.window.jobs().begin(Job());
    bench.window.show_station("make");
    bench.settle();
    CHECK(bench.page().contains("Nothing to make yet"));
    bench.window.jobs().begin(new_job("great 96, centre 8/84, third 7/?, escape 7/30; centre 1 h; 8022.86 beats"));
    bench.window.show_station("make");
    bench.settle();
    CHECK(bench.page().contains("Nothing to make yet"));
    REQUIRE(bench.derived().train.restore);
    bench.document().edit(choose(bench.derived().train, 0, "2026-11-30"));
    bench.settle();
    const std::string id = "wheel:third.wheel";
    CHECK(bench.card(id).table->rows.size() == 78);
    // What forbids it is asked for on the line, one after the other; a reason overrules what nobody can read.
    bench.station().choose_card(id);
    int asked = 0;
    for (; bench.card(id).next()->forbids && asked < 6; ++asked) {
        CHECK(bench.page().contains("Not to be cut yet"));
        bench.key(Qt::Key_Return);
        REQUIRE(bench.card(id).next()->forbids);
        const CardStep next = *bench.card(id).next();
        if (next.asks && next.asks->kind == "centre_distance_mm") bench.read("34.2");
        else bench.document().edit(overrule(id, next.id, "The old rubbing shows it.", "2026-12-01"));
        bench.settle();
    }
    CHECK(asked > 0);
    bench.key(Qt::Key_Return);
    // The sheet that is sold is thicker than the wheel: it is faced down first.
    REQUIRE(bench.card(id).next()->id == "face");
    bench.read(QString::number(bench.card(id).next()->size->nominal_mm, 'f', 2));
    CHECK(bench.page().contains("Saw a disc"));
    bench.key(Qt::Key_Return);
    bench.read("nonsense");
    CHECK(bench.card(id).next()->id == "bore");
    CHECK(bench.window.calliper().message().contains("takes a number"));
    bench.read(QString::number(bench.card(id).next()->size->nominal_mm, 'f', 2));
    CHECK(bench.card(id).next()->id == "outside");
}

TEST_CASE("the third arbor is made new by its cards alone, and readings that are wrong on purpose are caught with a way out") {
    MakeBench bench;
    bench.window.show_station("train");
    for (int i = 0; i < 4; ++i) bench.read_simulated();
    bench.document().edit(choose(bench.derived().train, 0, "2026-11-30"));
    bench.window.show_station("make");
    bench.settle();
    // Spoilt on the way: an outside turned under, a tooth in the wrong place, a rod that runs out, a pivot too thin.
    const std::map<std::string, std::pair<double, const char*>> wrong = {{"pinion:third.pinion/outside", {-0.3, "trial gap"}},
                                                                         {"arbor:third/stock-runout", {0.08, "another place of the rod"}},
                                                                         {"arbor:third/turn-front", {-0.06, "bush its hole smaller"}},
                                                                         {"wheel:third.wheel/bore", {0.06, "the collet is turned to it"}}};
    for (const char* id : {"pinion:third.pinion", "arbor:third", "wheel:third.wheel"}) {
        bench.choose_card(id);
        for (int guard = 0; bench.card(id).next() && guard < 400; ++guard) {
            const CardStep step = *bench.card(id).next();
            const auto spoil = wrong.find(std::string(id) + "/" + step.id);
            if (step.divides) {
                if (bench.card(id).cut() == 3) {
                    bench.key(Qt::Key_X);
                    CHECK(bench.card(id).cut() == 3);
                    // Skipped, it comes again at the end.
                    bench.key(Qt::Key_K);
                    bench.key(Qt::Key_Return);
                    CHECK(bench.card(id).ticks.back().tooth == 5);
                    CHECK(*bench.card(id).next_tooth() == 4);
                }
                bench.key(Qt::Key_Return);
            } else if (!step.reads) {
                bench.key(Qt::Key_Return);
            } else if (spoil != wrong.end()) {
                bench.read(QString::number(step.size->nominal_mm + spoil->second.first, 'f', 2));
                INFO(id << " " << step.id);
                CHECK_FALSE(bench.card(id).step(step.id)->right);
                CHECK(bench.page().contains(spoil->second.second));
                bench.key(Qt::Key_B);
                bench.read(QString::number(step.size->nominal_mm, 'f', 2));
            } else {
                bench.read(QString::number(step.size->nominal_mm, 'f', 2));
            }
        }
        INFO(id);
        CHECK(bench.card(id).finished());
        CHECK(std::all_of(bench.card(id).steps.begin(), bench.card(id).steps.end(), [](const CardStep& step) { return step.right; }));
    }
}
