#include "stations/bench/bench_station.h"

#include <QTemporaryDir>
#include <catch2/catch.hpp>

#include "app/bench.h"
#include "app/pdf.h"
#include "document/settings.h"
#include "exchange/whole_file.h"
#include "job/new_job.h"
#include "report/known.h"

using namespace echappe;

namespace {

struct JobBench : Bench {
    JobBench() { to_bench(); }
    void to_bench() {
        window.show_station("bench");
        settle();
    }
    BenchStation& station() { return dynamic_cast<BenchStation&>(window.shown()); }
    QString page() {
        station().grab();
        return station().page();
    }
    void key(Qt::Key key) {
        QTest::keyClick(&window.shown(), key);
        settle();
    }
    const BenchRecord& record() { return job().bench; }
    void own_movement() {
        window.jobs().begin(new_job("great 96, centre 8/84, third 7/78, escape 7/30; centre 1 h; 8022.86 beats"));
        to_bench();
    }
};

}  // namespace

TEST_CASE("a movement of one's own is led from receipt to hand-over by one key, and nothing is asked before its turn") {
    JobBench bench;
    bench.own_movement();
    CHECK(bench.page().contains("Receive it"));
    std::vector<std::string> went;
    for (int guard = 0; bench.station().order().next() && guard < 60; ++guard) {
        const JobStep next = *bench.station().order().next();
        for (const std::string& before : next.after) {
            const JobStep* first = bench.station().order().step(before);
            CHECK((!first || first->over()));
        }
        went.push_back(next.id);
        bench.key(Qt::Key_Return);
    }
    REQUIRE(went.size() > 12);
    CHECK(went.back() == "hand-over");
    CHECK(std::find(went.begin(), went.end(), "let-down") < std::find(went.begin(), went.end(), "dismantle"));
    CHECK_FALSE(bench.record().closed.empty());
    CHECK(bench.page().contains("Handed over"));
    // All of it in the diary, in one line a step, and out of it again.
    CHECK(bench.record().diary.size() >= went.size());
    const size_t lines = bench.record().diary.size();
    bench.document().undo_stack()->undo();
    CHECK(bench.record().diary.size() == lines - 1);
    CHECK(bench.record().closed.empty());
}

TEST_CASE("a step is passed over, waits and opens again by its key, and what must be before it is said") {
    JobBench bench;
    bench.own_movement();
    bench.key(Qt::Key_X);
    CHECK(bench.station().order().step("receive")->state == "passed");
    bench.key(Qt::Key_W);
    bench.answer("3 d, the owner's word");
    CHECK(bench.station().order().step("scope")->state == "waits");
    CHECK(bench.station().order().step("scope")->waits_for == "the owner's word");
    CHECK_FALSE(bench.station().order().step("scope")->until.empty());
    bench.key(Qt::Key_B);
    CHECK(bench.station().order().step("scope")->state == "open");
    // A step further down is chosen: it says what comes first.
    bench.station().grab();
    REQUIRE(bench.station().act("step:dismantle"));
    bench.key(Qt::Key_Return);
    CHECK(bench.window.calliper().message().contains("Before it"));
    CHECK(bench.station().order().step("dismantle")->state == "open");
}

TEST_CASE("on the tide house runs for minutes and stops leads to the pallets, by the job's own knowledge and a few tests") {
    JobBench bench;
    bench.key(Qt::Key_D);
    bench.station().grab();
    REQUIRE(bench.station().act("symptom:stops-after-minutes"));
    bench.settle();
    CHECK(bench.page().contains("runs some minutes, then stops"));
    int tests = 0;
    for (; tests < 4; ++tests) {
        const DiagnoseResult now = bench.station().diagnosis();
        if (now.causes.front().id == "pallets-deep" && now.causes.front().probability > 0.6) break;
        const DiagnosisTest& test = *shipped_diagnosis().test(now.next_test->id);
        size_t answer = 0;
        double best = -1;
        for (size_t i = 0; i < test.results.size(); ++i) {
            const auto at = test.results[i].given.find("pallets-deep");
            const double p = at == test.results[i].given.end() ? test.results[i].otherwise : at->second;
            if (p > best) best = p, answer = i;
        }
        bench.key(static_cast<Qt::Key>(Qt::Key_1 + static_cast<int>(answer)));
    }
    CHECK(bench.station().diagnosis().causes.front().id == "pallets-deep");
    CHECK(bench.page().contains("the pallets are too deep"));
    // Found, it is kept with the job.
    REQUIRE(bench.station().act("cause:pallets-deep"));
    CHECK(bench.record().cause == "pallets-deep");
}

TEST_CASE("the waiting room's strike that counts one too few leads to its rack") {
    JobBench bench;
    bench.window.open_demo("waiting-room");
    bench.to_bench();
    CHECK(movement_of(bench.job()).strike == "rack");
    const DiagnoseResult now = bench.station().diagnosis();
    const auto share = [&](const char* id) {
        for (const CauseNow& cause : now.causes)
            if (cause.id == id) return cause.probability;
        return 0.0;
    };
    CHECK(share("rack-tail") > 0.2);
    CHECK(share("slot-wide") == 0);
    CHECK(share("hands-foul") < 0.05);
}

TEST_CASE("oil is ticked place by place, and the step is done when only what is dry is left") {
    JobBench bench;
    bench.key(Qt::Key_O);
    CHECK(bench.page().contains("OIL AND GREASE"));
    CHECK(bench.page().contains("Teeth of wheels"));
    const auto left = [&] {
        const auto& oil = bench.station().order().oil;
        return std::count_if(oil.begin(), oil.end(), [](const OilPlace& place) { return !place.done && place.what != "dry"; });
    };
    const auto all = left();
    REQUIRE(all > 5);
    bench.key(Qt::Key_Return);
    CHECK(left() == all - 1);
    bench.key(Qt::Key_B);
    CHECK(left() == all);
    for (int guard = 0; left() > 0 && guard < 80; ++guard) bench.key(Qt::Key_Return);
    CHECK(bench.station().order().step("oil")->by_itself);
}

TEST_CASE("the four demos lie on one bench with those that went home behind them, and one is opened by a click") {
    JobBench bench;
    bench.key(Qt::Key_A);
    for (int guard = 0; bench.station().looking() && guard < 200; ++guard) QTest::qWait(20);
    REQUIRE_FALSE(bench.station().looking());
    const BenchToday& today = bench.station().today();
    CHECK(today.jobs.size() == 8);
    CHECK(today.evidence.size() == 3);
    CHECK(bench.page().contains("TODAY"));
    const auto state = [&](const char* file) {
        for (const JobOnBench& job : today.jobs)
            if (job.file == file) return job.state;
        return std::string();
    };
    CHECK(state("watch.echappe.json") == "on test");
    CHECK(state("closed-1.echappe.json") == "closed");
    REQUIRE(bench.station().act("job:granary.echappe.json"));
    bench.settle();
    CHECK(QString::fromStdString(bench.job().title).contains("granary", Qt::CaseInsensitive));
}

TEST_CASE("a test run, a stop and where the hands stood are told on the sheet, and dangers stand on its first look") {
    JobBench bench;
    bench.own_movement();
    bench.key(Qt::Key_R);
    CHECK(bench.record().runs.size() == 1);
    bench.key(Qt::Key_S);
    bench.answer("3:20");
    CHECK(bench.record().runs.front().stops.front().hands == "3:20");
    bench.type("sum:stop.hands", "3:25");
    CHECK(bench.record().runs.front().stops.front().hands == "3:25");
    bench.type("sum:run.level", "yes");
    CHECK(bench.record().runs.front().level);
    bench.station().grab();
    REQUIRE(bench.station().act("danger:mercury"));
    bench.settle();
    CHECK(bench.page().contains("vapour poisons"));
    bench.type("sum:promised", "2026-12-24");
    CHECK(bench.record().promised == "2026-12-24");
}

TEST_CASE("the papers of a job are pages that can be handed to its owner") {
    JobBench bench;
    const QTemporaryDir folder;
    for (const char* paper : {"condition", "estimate", "done", "job sheet"}) {
        const QString pdf = folder.filePath(QString(paper).replace(' ', '-') + ".pdf");
        bench.station().write_paper_to(pdf, paper, "owner");
        INFO(paper);
        CHECK(pages_of(pdf) >= 1);
        CHECK(words_on(pdf).contains("Tide-house regulator"));
    }
    CHECK(words_on(folder.filePath("estimate.pdf")).contains("What is proposed"));
    const QString page = folder.filePath("sheet.html");
    bench.station().write_paper_to(page, "job sheet", "colleague");
    QFile file(page);
    REQUIRE(file.open(QIODevice::ReadOnly));
    CHECK(file.readAll().contains("Order of work"));
}

TEST_CASE("stops at one place of an arbor's turn lead to it, in the window") {
    JobBench bench;
    bench.window.open_demo("granary");
    bench.window.show_station("bench");
    bench.settle();
    bench.key(Qt::Key_R);
    // The third turns in 400 s: these are 2.4, 5.4, 9.4 and 12.4 of its turns.
    for (const char* hands : {"0:16", "0:36", "1:03", "1:23"}) {
        bench.key(Qt::Key_S);
        bench.answer(hands);
    }
    REQUIRE(bench.station().order().stops.culprit);
    CHECK(*bench.station().order().stops.culprit == "third");
    bench.key(Qt::Key_D);
    CHECK(bench.page().contains("stood alike"));
    bench.key(Qt::Key_S);
    bench.editor().setText("noon");
    QTest::keyClick(&bench.editor(), Qt::Key_Return);
    CHECK(bench.typing_in_place());
    QTest::keyClick(&bench.editor(), Qt::Key_Escape);
}

TEST_CASE("a picture stands in the diary, lies with the job, and goes into the papers") {
    JobBench bench;
    bench.own_movement();
    const QTemporaryDir folder;
    QImage picture(40, 30, QImage::Format_RGB32);
    picture.fill(Qt::darkYellow);
    REQUIRE(picture.save(folder.filePath("bench.png")));
    bench.station().take_picture(folder.filePath("bench.png"));
    REQUIRE_FALSE(bench.record().diary.empty());
    const auto pictured =
        std::find_if(bench.record().diary.begin(), bench.record().diary.end(), [](const DiaryLine& line) { return !line.photo.empty(); });
    REQUIRE(pictured != bench.record().diary.end());
    const QString page = folder.filePath("sheet.html");
    bench.station().write_paper_to(page, "job sheet", "colleague");
    CHECK(QString::fromStdString(read_text(page.toStdString())).contains("data:image/png;base64"));
}
