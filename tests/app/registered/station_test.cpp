// A station and a topic that exist in these tests only: the lamp over the bench. Nothing of the house is touched for them.
#include <QMenuBar>
#include <QTemporaryDir>
#include <QTest>
#include <catch2/catch.hpp>

#include "exchange/whole_file.h"
#include "report/report.h"
#include "shell/finder.h"
#include "shell/fitting.h"
#include "shell/main_window.h"
#include "shell/stations_bar.h"
#include "shell/tour.h"
#include "theme/theme.h"
#include "topic.h"
#include "workings/record_json.h"

using namespace echappe;

namespace {

struct LampRecord {
    double power_W = 0;
    static const Record& record() {
        static const Record record = Fields<LampRecord>().add("power_W", &LampRecord::power_W, "W", "of the lamp", between(0, 1000));
        return record;
    }
};

struct DerivedLamp {
    double day_kJ = 0;
    static const Record& record() {
        static const Record record = Fields<DerivedLamp>().add("day_kJ", &DerivedLamp::day_kJ, "kJ", "in a day");
        return record;
    }
};

DerivedLamp derive_lamp(const LampRecord& lamp) { return {lamp.power_W * 86.4}; }

std::vector<Finding> findings_of_lamp(const LampRecord& lamp) {
    if (lamp.power_W <= 100) return {};
    return {{"lamp.hot", "caution", "The lamp is hot.", "Over 100 W it warms the clock.", "", ""}};
}

void set_power(Job& job, double power_W) { job.others.all.insert_or_assign("lamp", Part::of(LampRecord{power_W})); }

double power_of(const Job& job) {
    const LampRecord* lamp = job.others.find<LampRecord>();
    return lamp ? lamp->power_W : 0;
}

class LampRound : public ReadingRound {
public:
    explicit LampRound(Document& document) : m_document(document) {}
    std::optional<Asked> asked() const override {
        Asked asked{"Lamp, power", "On its cap.", "W", {}};
        asked.id = "lamp.power_W";
        return asked;
    }
    std::function<void()> hold() override {
        return [] {};
    }
    void step(int) override {}
    QString keep(const QString& text, bool) override {
        m_document.edit("Reading: lamp, power", [&](Job& job) { set_power(job, text.toDouble()); });
        return "Kept.";
    }
    QString simulated() override { return "40"; }
    QString instrument() const override { return "wattmeter"; }
    std::vector<LineKey> keys() const override { return {{"Enter keeps it", {Qt::Key_Return}}}; }

private:
    Document& m_document;
};

class LampStation : public Station {
public:
    explicit LampStation(const Workbench& bench) : Station(bench.document, nullptr), m_round(bench.document) {}
    ReadingRound* own_round() const override { return const_cast<LampRound*>(&m_round); }
    std::vector<Scene> scenes() override { return {{"lamp", "tide-house"}}; }
    QString painted_legend() const { return legend({"lamp.light", "lamp.out"}); }

protected:
    QList<Action> make_actions() override {
        const auto light = [this](double power_W) {
            return [this, power_W] { m_document.edit("Light the lamp", [power_W](Job& job) { set_power(job, power_W); }); };
        };
        return {{"lamp.light", "Light the lamp", {Qt::Key_G}, light(150), "&Lamp", "light"},
                {"lamp.out", "Put the lamp out", {Qt::SHIFT | Qt::Key_G}, light(0), "&Lamp", "out"}};
    }
    void paint(QPainter& painter) override {
        painter.fillRect(rect(), theme().ground);
        write(painter, type(Type::note), theme().ink, {20, 40}, painted_legend());
    }

private:
    LampRound m_round;
};

/// Once for all tests here: a house that has the lamp.
void put_up_the_lamp() {
    static const bool up = [] {
        register_topic("lamp", "lamp", derive_lamp, found_by(findings_of_lamp));
        register_station({"lamp", "Lamp", [](const Workbench& bench) -> Station* { return new LampStation(bench); }, 9});
        return true;
    }();
    (void)up;
}

struct LampBench {
    LampBench() {
        put_up_the_lamp();
        window = std::make_unique<MainWindow>();
        window->show();
        window->open_demo("tide-house");
        window->show_station("lamp");
    }
    ~LampBench() { document().undo_stack()->setClean(); }
    Document& document() { return window->document(); }
    LampStation& lamp() { return dynamic_cast<LampStation&>(*window->station("lamp")); }
    std::unique_ptr<MainWindow> window;
};

}  // namespace

TEST_CASE("a station that is registered stands on the bar, in the menus, in the finder and in its own legend") {
    LampBench bench;
    bench.window->show_station("train");
    auto& bar = *bench.window->findChild<StationsBar*>();
    bar.grab();
    CHECK(bar.act("station:Lamp"));
    CHECK(&bench.window->shown() == &bench.lamp());
    const auto* menu = bench.window->menuBar()->findChild<QMenu*>("&Lamp");
    REQUIRE(menu);
    CHECK(QString(menu->actions().front()->text()).remove('&') == "Light the lamp\tG");
    const auto entries = entries_of(*bench.window);
    CHECK(std::any_of(entries.begin(), entries.end(),
                      [](const Finder::Entry& e) { return e.name == "Light the lamp" && e.kind == "G, Lamp"; }));
    CHECK(bench.lamp().painted_legend() == QString::fromUtf8("G light  ·  ⇧G out"));
}

TEST_CASE("what it edits is undone, judged, saved, read back and reported") {
    const QTemporaryDir folder;
    LampBench bench;
    QTest::keyClick(&bench.lamp(), Qt::Key_G);
    CHECK(power_of(bench.document().job()) == 150);
    const auto& findings = bench.document().derived().findings;
    CHECK(std::any_of(findings.begin(), findings.end(), [](const Finding& f) { return f.id == "lamp.hot"; }));
    const QString path = folder.filePath("lit.echappe.json");
    REQUIRE(bench.window->save_to(path));
    CHECK(power_of(job_from_text(read_text(path.toStdString())).job) == 150);
    ReportInput input;
    input.job = bench.document().job();
    const JobReport report = job_report(input);
    CHECK_THAT(write_json(JobReport::record(), &report, Empty::null), Catch::Contains("\"day_kJ\": 12960"));
    bench.document().undo_stack()->undo();
    CHECK(power_of(bench.document().job()) == 0);
    // From the finder, with another station in front: it comes to the front and is done.
    bench.window->show_station("teeth");
    for (const Finder::Entry& entry : entries_of(*bench.window))
        if (entry.name == "Light the lamp") entry.go();
    CHECK(&bench.window->shown() == &bench.lamp());
    CHECK(power_of(bench.document().job()) == 150);
}

TEST_CASE("the line asks for its readings while it is shown, and keeps what is typed for it") {
    LampBench bench;
    QLineEdit& line = bench.window->calliper().line();
    QTest::keyClicks(&line, "60");
    QTest::keyClick(&line, Qt::Key_Return);
    CHECK(power_of(bench.document().job()) == 60);
    // Typed and not kept: it waits for this station, and Shift+F2 comes back to it.
    QTest::keyClicks(&line, "75");
    bench.window->show_station("train");
    CHECK(line.text().isEmpty());
    bench.window->calliper().back_to_unkept();
    CHECK(&bench.window->shown() == &bench.lamp());
    CHECK(line.text() == "75");
    bench.window->calliper().forget_unkept();
}

TEST_CASE("the tour takes its picture") {
    LampBench bench;
    const QTemporaryDir folder;
    CHECK(take_tour(*bench.window, folder.path(), QSize(1280, 800)) == 0);
    CHECK(QFile::exists(folder.filePath("lamp.png")));
    CHECK(QFile::exists(folder.filePath("train-before.png")));
    bench.window->fitting().set_dark(false);
}

TEST_CASE("ten stations and the finder stand on the bar of a window of 1024 pixels, each with its name whole") {
    put_up_the_lamp();
    REQUIRE(station_rows().size() == 10);
    MainWindow window;
    window.show();
    window.resize(1024, 700);
    auto& bar = *window.findChild<StationsBar*>();
    bar.grab();
    double right = 0;
    for (const StationRow& row : station_rows()) {
        const QRectF tab = bar.place_of("station:" + row.title);
        INFO(row.title.toStdString());
        CHECK(tab.left() >= right);
        CHECK(tab.width() >= width_of(type(Type::text, true), row.title));
        right = tab.right();
    }
    CHECK(bar.place_of("finder").left() >= right);
    CHECK(bar.place_of("finder").right() <= 1024);
}
