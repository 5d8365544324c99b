#include <QDir>
#include <QTemporaryDir>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "app/bench.h"
#include "app/pdf.h"
#include "document/journal.h"
#include "exchange/outline_in.h"
#include "exchange/whole_file.h"
#include "stations/make/make_station.h"

using namespace echappe;

namespace {

/// An empty bench at Make, drawers as they ship.
struct EmptyMakeBench : Bench {
    EmptyMakeBench() {
        window.jobs().begin(Job());
        window.show_station("make");
        settle();
    }
    MakeStation& station() { return dynamic_cast<MakeStation&>(window.shown()); }
    QString page() {
        station().grab();
        return station().page();
    }
    void key(Qt::Key key) {
        QTest::keyClick(&station(), key);
        settle();
    }
    /// By its letter on the page of parts.
    void begin(const std::string& id) {
        key(Qt::Key_N);
        for (size_t i = 0; i < parts_to_begin().size(); ++i)
            if (parts_to_begin()[i].id == id) return key(static_cast<Qt::Key>(Qt::Key_A + static_cast<int>(i)));
        FAIL(id);
    }
    const DerivedCard& card(const std::string& id) {
        const DerivedCard* found = derived().cards.card(id);
        INFO(id);
        REQUIRE(found);
        return *found;
    }
    /// On with Enter, readings as drawn, up to a step.
    void work_to(const std::string& id, const std::string& step) {
        station().choose_card(id);
        settle();
        for (int guard = 0; card(id).next() && card(id).next()->id != step && guard < 40; ++guard)
            if (card(id).next()->reads) read(QString::number(card(id).next()->size->nominal_mm, 'f', 2));
            else key(Qt::Key_Return);
    }
};

}  // namespace

TEST_CASE("a set of pipes and hands is begun from an empty bench by a letter and made from the outside in") {
    EmptyMakeBench bench;
    CHECK(bench.page().contains("Nothing to make yet"));
    bench.begin("set");
    CHECK(bench.page().contains("HOUR HAND"));
    // Sizes are typed on the sheet that came with it.
    bench.type("sum:parts[0].outside_mm", "2.4");
    CHECK(bench.card("set:1.1").outside_mm == Approx(2.4));
    bench.key(Qt::Key_S);
    bench.work_to("set:1.4", "bore");
    const double pipe = bench.card("set:1.3").step("outside")->size->nominal_mm;
    const double bore = bench.card("set:1.4").next()->size->nominal_mm;
    bench.read(QString::number(bore + 0.04, 'f', 2));
    CHECK(bench.page().contains("Over its largest by 0.0"));
    CHECK(bench.card("set:1.3").step("outside")->size->nominal_mm == Approx(pipe + 0.04).margin(0.006));
    bench.work_to("set:1.4", "");
    CHECK(bench.card("set:1.4").finished());
    CHECK(bench.derived().cards.can_begin(bench.card("set:1.3")));
    CHECK_FALSE(bench.derived().cards.can_begin(bench.card("set:1.2")));
}

TEST_CASE("what is begun wrongly says what it wants, and is taken off the list again") {
    EmptyMakeBench bench;
    bench.begin("holes");
    bench.type("sum:radius_mm", "");
    CHECK(bench.page().contains("wants a size"));
    CHECK(bench.page().contains("radius_mm"));
    bench.type("sum:radius_mm", "32");
    CHECK(bench.card("holes:1").step("mark")->size->nominal_mm == Approx(32 * std::sqrt(3.0)));
    CHECK(bench.station().act_on("make.drop"));
    bench.settle();
    CHECK(bench.page().contains("Nothing to make yet"));
    bench.document().undo_stack()->undo();
    CHECK(bench.derived().cards.card("holes:1"));
}

TEST_CASE("three dial feet are read, and the longer ones come to the shortest") {
    EmptyMakeBench bench;
    bench.begin("equal");
    bench.key(Qt::Key_S);
    for (const char* read : {"9.42", "9.37", "9.40"}) bench.read(read);
    CHECK(bench.page().contains("Take 0.05 mm off piece 1"));
    CHECK(bench.page().contains("Set the stop by piece 2"));
    bench.read("9.37");
    bench.read("9.37");
    CHECK(bench.page().contains("does not rock"));
}

TEST_CASE("metal that a card takes is gone from the drawer, and comes back with undo") {
    EmptyMakeBench bench;
    Workshop& workshop = bench.window.workshop();
    const auto length = [&] {
        double sum = 0;
        for (const Bar& bar : workshop.stock().metal) sum += bar.length_mm;
        return sum;
    };
    const double before = length();
    bench.begin("stud");
    bench.key(Qt::Key_S);
    const double wanted = bench.card("turned:1").stock->length_mm;
    CHECK(bench.page().contains("are left then"));
    bench.key(Qt::Key_Return);
    CHECK(bench.card("turned:1").step("take")->done);
    CHECK(length() == Approx(before - wanted));
    CHECK(load_stock(Workshop::folder().toStdString()).metal == workshop.stock().metal);
    CHECK(bench.job().cards.card("turned:1")->taken_from == "MS8");
    bench.document().undo_stack()->undo();
    CHECK(length() == Approx(before));
    CHECK_FALSE(bench.card("turned:1").step("take")->done);
    CHECK(workshop.fault().isEmpty());
}

TEST_CASE("a wooden door is drawn by a few sizes and printed at one to one, to be measured on the paper") {
    EmptyMakeBench bench;
    bench.begin("panel");
    for (const auto& [field, value] : {std::pair("width_mm", "150"), std::pair("height_mm", "230"), std::pair("frame_mm", "30")})
        bench.type(QString("sum:") + field, value);
    const QTemporaryDir folder;
    const QString pdf = folder.filePath("templates.pdf");
    write_pdf(pdf, "door", {bench.station().templates()});
    CHECK(pages_of(pdf) == 1);
    CHECK(words_on(pdf).contains("panel or door"));
    QProcess render;
    render.start("pdftoppm", {"-r", "254", "-png", "-singlefile", pdf, folder.filePath("page")});
    REQUIRE(render.waitForFinished());
    const QImage page(folder.filePath("page.png"));
    REQUIRE(page.width() == Approx(2100).margin(2));
    const auto dark = [&](int x, int y) { return qGray(page.pixel(x, y)) < 160; };
    // Across the middle of the sheet: left edge, opening, right edge.
    std::vector<int> edges;
    for (int x = 5; x < 2095; ++x)
        if (dark(x, 1700) && !dark(x - 1, 1700)) edges.push_back(x);
    REQUIRE(edges.size() == 4);
    CHECK(edges[3] - edges[0] == Approx(1500).margin(3));
    CHECK(edges[1] - edges[0] == Approx(300).margin(3));
    std::vector<int> rows;
    for (int y = 150; y < 2960; ++y)
        if (dark(edges[0] + 200, y) && !dark(edges[0] + 200, y - 1)) rows.push_back(y);
    REQUIRE(rows.size() >= 2);
    // Lettering at its foot and the scale's ticks lie outside or inside of these two.
    CHECK(std::any_of(rows.begin(), rows.end(), [&](int y) { return std::abs(y - rows.front() - 2300) <= 3; }));
    // The other readers: what the DXF holds is what the card says.
    const QString dxf = folder.filePath("door.dxf");
    bench.station().write_to(dxf);
    const auto outlines = outlines_from_file(dxf.toStdString());
    double largest = 0;
    for (const auto& outline : outlines) largest = std::max(largest, std::abs(area_mm2(outline)));
    CHECK(largest == Approx(150 * 230).epsilon(1e-3));
    // Its sizes go along as texts on a layer of their own, which another program reads.
    QProcess reader;
    reader.start("/usr/bin/python3", {"-c",
                                      "import ezdxf, sys\n"
                                      "for t in ezdxf.readfile(sys.argv[1]).modelspace().query('TEXT'):\n"
                                      "    print(t.dxf.layer, t.plain_text())",
                                      dxf});
    REQUIRE(reader.waitForFinished());
    const QString notes = QString::fromUtf8(reader.readAllStandardOutput());
    for (const char* size : {"150 mm", "230 mm", "30 mm"}) CHECK(notes.contains(size));
    CHECK(notes.count("sizes ") == notes.count("\n"));
}

TEST_CASE("all cards are printed one a page, with steps, limits and cautions") {
    EmptyMakeBench bench;
    bench.begin("pillar");
    bench.begin("hand");
    const QTemporaryDir folder;
    const QString pdf = folder.filePath("cards.pdf");
    write_pdf(pdf, "cards", {bench.station().all_cards()});
    CHECK(pages_of(pdf) == 2);
    const QString text = words_on(pdf);
    CHECK(text.contains("Caution: Eyes covered"));
    CHECK(text.contains("turns a minute"));
    CHECK(text.contains("Square hole"));
}

TEST_CASE("a way of mending teeth is changed by a key, and the card of that way is there") {
    Bench bench;
    bench.window.show_station("make");
    auto& station = dynamic_cast<MakeStation&>(bench.window.shown());
    station.choose_card("ring:tide-1.wheel");
    CHECK(station.card()->way == "ring");
    QTest::keyClick(&station, Qt::Key_W);
    bench.settle();
    CHECK(station.card()->id == "wheel:tide-1.wheel");
    // The reason is the craftsman's own, and stays with the choice.
    QTest::keyClick(&station, Qt::Key_S);
    bench.type("sum:why this way", "The rim is cracked.");
    CHECK(bench.job().cards.way_of("tide-1.wheel")->because == "The rim is cracked.");
    CHECK(station.card()->because.find("The rim is cracked.") != std::string::npos);
    QTest::keyClick(&station, Qt::Key_S);
    QTest::keyClick(&station, Qt::Key_W);
    bench.settle();
    CHECK(station.card()->id == "ring:tide-1.wheel");
}

TEST_CASE("a thousand power cuts in a dividing table lose no tooth that was on the disk") {
    const QTemporaryDir state;
    const QByteArray before = qgetenv("ECHAPPE_STATE");
    qputenv("ECHAPPE_STATE", state.path().toUtf8());
    const std::string id = "ring:tide-1.wheel";
    std::vector<qint64> whole;  // length of the journal after each tooth
    QByteArray bytes;
    constexpr long long teeth = 60;
    {
        Document document;
        document.open_demo("tide-house");
        const auto journal = [&] {
            const QDir folder(Journal::folder());
            const QStringList files = folder.entryList({"*.json"}, QDir::Files);
            QFile file(folder.filePath(files.value(0)));
            return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
        };
        for (long long tooth = 1; tooth <= teeth; ++tooth) {
            document.edit(tick_tooth(id, tooth));
            bytes = journal();
            whole.push_back(bytes.size());
        }
        document.undo_stack()->setClean();
    }
    REQUIRE(whole.back() > whole.front());
    std::mt19937 chance(2026);
    std::uniform_int_distribution<qint64> where(whole.front(), whole.back());
    for (const QFileInfo& old : QDir(Journal::folder()).entryInfoList(QDir::Files)) QFile::remove(old.filePath());
    const QString path = Journal::folder() + "/cut.json";
    for (int cut = 0; cut < 1000; ++cut) {
        const qint64 at = where(chance);
        QFile file(path);
        REQUIRE(file.open(QIODevice::WriteOnly | QIODevice::Truncate));
        file.write(bytes.left(at));
        file.close();
        const auto found = Journal::left_behind();
        REQUIRE(found.size() == 1);
        const Job job = job_from_text(found.front().job_text.toStdString()).job;
        const auto on_disk = std::upper_bound(whole.begin(), whole.end(), at) - whole.begin();
        const PartCard* card = job.cards.card(id);
        REQUIRE(card);
        INFO("cut at byte " << at);
        // Every tooth whose line was whole, in order; the one being written may be there too.
        REQUIRE(static_cast<std::ptrdiff_t>(card->ticks.size()) >= on_disk);
        REQUIRE(static_cast<std::ptrdiff_t>(card->ticks.size()) <= on_disk + 1);
        for (size_t i = 0; i < card->ticks.size(); ++i) REQUIRE(card->ticks[i].tooth == static_cast<long long>(i) + 1);
    }
    qputenv("ECHAPPE_STATE", before);
}
