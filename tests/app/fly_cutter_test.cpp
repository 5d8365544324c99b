// A wheel that no cutter of the drawer can cut has its fly cutter drawn on its card, on screen and on paper.
#include <QFileInfo>
#include <catch2/catch.hpp>

#include "app/own_bench.h"
#include "stations/make/make_station.h"
#include "train/edits.h"

using namespace echappe;

TEST_CASE("a card whose teeth no cutter of the drawer cuts has the cutter that is ground to the gap, and it is printed with its sizes") {
    Bench bench;
    Job job = own_job("Sluice clock No. 8", "96, 8/84, ?/?, 7/30; 8022.86 beats");
    bench.window.jobs().begin(job);
    Bench::settle();
    REQUIRE(bench.derived().train.restore);
    bench.document().edit(choose(bench.derived().train, 0, "2026-12-02"));
    bench.window.show_station("make");
    Bench::settle();
    size_t drawn = 0;
    for (const DerivedCard& card : bench.derived().cards.cards) {
        const CardStep* depth = card.step("depth");
        if (!depth) continue;
        INFO(card.id << ": " << depth->tool);
        // It is drawn exactly where it is told.
        CHECK(card.fly.has_value() == (depth->tool.find("fly cutter made to the gap") != std::string::npos));
        if (!card.fly) continue;
        ++drawn;
        CHECK(card.fly->top_width_mm > card.fly->tip_width_mm);
        CHECK(card.fly->warnings.empty());
        auto& station = dynamic_cast<MakeStation&>(bench.window.shown());
        station.choose_card(card.id);
        QTemporaryDir folder;
        write_pdf(folder.filePath("card.pdf"), "card", {station.printed()});
        CHECK(QFileInfo(folder.filePath("card.pdf")).size() > 5000);
    }
    CHECK(drawn > 0);
}
