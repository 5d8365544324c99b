#include "stations/make/make_station.h"

#include <QTemporaryDir>
#include <catch2/catch.hpp>

#include "app/bench.h"
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
            if (card(ring).next()->reads) read(QString::number(card(ring).next()->size->nominal_mm, 'f', 2));
            else key(Qt::Key_Return);
        }
    }
};

}  // namespace

TEST_CASE("the tide wheel is re-toothed by its card alone, and a seat that is turned too deep is caught with a way out") {
    MakeBench bench;
    bench.choose_card(ring);
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
    CHECK(bench.page().contains("waits for another part"));
    bench.choose_card("wheel:third.wheel");
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
