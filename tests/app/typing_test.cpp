#include <QApplication>
#include <QClipboard>
#include <catch2/catch.hpp>
#include <limits>

#include "app/bench.h"
#include "app/hands.h"
#include "drawing/in_place_editor.h"
#include "drawing/motion.h"
#include "job/file.h"
#include "stations.h"
#include "stations/beat/beat_station.h"
#include "stations/pivots/pivots_station.h"
#include "stations/power/power_station.h"
#include "stations/survey/survey_station.h"
#include "train/edits.h"
#include "workings/sum_card.h"

using namespace echappe;

namespace {

struct TypingBench : Bench {
    QLineEdit& line() { return window.calliper().line(); }
    /// Every picture that may have the focus, each with its station in front.
    std::vector<std::pair<std::string, QWidget*>> pictures() {
        std::vector<std::pair<std::string, QWidget*>> all = {{"train", &window.ladder()}};
        for (const StationRow& row : station_rows()) all.emplace_back(row.id.toStdString(), window.station(row.id));
        return all;
    }
    QString message() { return window.calliper().message(); }
    void at(const std::string& station, QWidget* picture) {
        window.show_station(QString::fromStdString(station));
        window.calliper().forget_unkept();
        picture->setFocus();
    }
    /// The survey's first question of this reading.
    void ask_survey(const std::string& subject) {
        window.show_station("survey");
        window.calliper().plates().go_to(subject);
        settle();
    }
    double reading_of(const std::string& part) { return job().survey.pivots.hole(part)->pivot_mm.value_or(-1); }
};

}  // namespace

TEST_CASE("a figure typed on any station stands in the line whole, from its first sign on") {
    TypingBench bench;
    for (const auto& [station, picture] : bench.pictures())
        for (const char* figure : {".35", ",35", "0.6", "+12.4", "-3", "1 3/8 in", "35.12±0.02", "15thou", "0"}) {
            bench.at(station, picture);
            if (!bench.line().isEnabled()) continue;
            INFO("station " << station << ", " << figure);
            const bool running = bench.window.motion().running();
            QTest::keyClicks(picture, QString(figure).at(0));
            QTest::keyClicks(&bench.line(), QString::fromUtf8(figure).mid(1));
            CHECK(bench.line().text() == QString::fromUtf8(figure));
            CHECK(bench.window.motion().running() == running);
        }
}

TEST_CASE("while something stands in the line no key of a station acts, and typing goes on there") {
    TypingBench bench;
    for (const auto& [station, picture] : bench.pictures()) {
        bench.at(station, picture);
        if (!bench.line().isEnabled()) continue;
        INFO("station " << station);
        const Job before = bench.job();
        QTest::keyClick(picture, '1');
        picture->setFocus();
        // Letters, blanks and brackets that would act on the picture or the movement.
        QTest::keyClicks(picture, " 3/8 in[gwcdpmtfb");
        CHECK(bench.line().text() == "1 3/8 in[gwcdpmtfb");
        CHECK(bench.job() == before);
        CHECK_FALSE(bench.window.motion().running());
    }
}

TEST_CASE(".35 is kept as 0.35 mm") {
    TypingBench bench;
    bench.ask_survey("centre.front");
    QTest::keyClicks(&survey_of(bench.window), ".");
    QTest::keyClicks(&bench.line(), "35");
    QTest::keyClick(&bench.line(), Qt::Key_Return);
    REQUIRE(bench.document().undo_stack()->count() == 1);
    const QString kept = bench.document().undo_stack()->undoText();
    INFO(kept.toStdString());
    bool found = false;
    for (const HoleRecord& hole : bench.job().survey.pivots.holes)
        found = found || hole.pivot_mm == 0.35 || hole.hole_max_mm == 0.35 || hole.hole_min_mm == 0.35 || hole.sway_mm == 0.35;
    for (const PlateRecord& plate : bench.job().survey.pivots.plates)
        found = found || plate.thickness_mm == 0.35 || plate.flatness_mm == 0.35;
    CHECK(found);
}

TEST_CASE("the movement is stepped a beat by a key that no figure needs") {
    TypingBench bench;
    bench.window.show_station("train");
    const double before = bench.window.motion().seconds();
    QTest::keyClick(&train_of(bench.window), Qt::Key_Space, Qt::ShiftModifier);
    CHECK(bench.window.motion().seconds() > before);
}

TEST_CASE("Tab keeps what was typed as Enter does, and the reading goes to the question it was typed for") {
    TypingBench bench;
    bench.window.show_station("train");
    const QuantityKey asked = bench.window.calliper().asked()->key;
    QTest::keyClicks(&bench.line(), "35.12");
    QTest::keyClick(&bench.line(), Qt::Key_Tab);
    REQUIRE(bench.job().train.measurements.back().evidence.key == asked);
    CHECK(bench.job().train.measurements.back().evidence.value == 35.12);
    CHECK(bench.line().text().isEmpty());
    const size_t kept = bench.job().train.measurements.size();
    // What an instrument sends after its Tab does not answer the next question.
    QTest::keyClick(&bench.line(), Qt::Key_Return);
    CHECK(bench.job().train.measurements.size() == kept);
    // Back is refused with a word while something stands there.
    QTest::keyClicks(&bench.line(), "12");
    QTest::keyClick(&bench.line(), Qt::Key_Backtab);
    CHECK(bench.line().text() == "12");
    CHECK(bench.message().contains("Enter keeps it"));
    bench.window.calliper().forget_unkept();
}

TEST_CASE("a reading typed for one hole never goes to another that is looked at meanwhile") {
    TypingBench bench;
    bench.window.show_station("pivots");
    bench.document().selection().select_hole("great", "front");
    Bench::settle();
    const size_t edits = static_cast<size_t>(bench.document().undo_stack()->count());
    QTest::keyClicks(&bench.line(), "5.55");
    bench.document().selection().select_hole("centre", "back");
    Bench::settle();
    CHECK(bench.line().text().isEmpty());
    REQUIRE(bench.window.unkept().size() == 1);
    CHECK(bench.window.unkept().front().contains("5.55"));
    QTest::keyClick(&bench.line(), Qt::Key_Return);
    CHECK(static_cast<size_t>(bench.document().undo_stack()->count()) == edits);
    // It stands again where it was typed.
    QTest::keyClick(&bench.window, Qt::Key_F2, Qt::ShiftModifier);
    CHECK(bench.document().selection().subject() == "great");
    CHECK(bench.line().text() == "5.55");
    QTest::keyClick(&bench.line(), Qt::Key_Escape);
    CHECK(bench.window.unkept().isEmpty());
}

TEST_CASE("what was typed and not kept waits when the station is left, and is asked about before the job goes") {
    TypingBench bench;
    bench.window.show_station("train");
    const QuantityKey asked = bench.window.calliper().asked()->key;
    QTest::keyClicks(&bench.line(), "35.12");
    bench.window.show_station("survey");
    CHECK(bench.line().text().isEmpty());
    CHECK(bench.window.unkept().size() == 1);
    CHECK(bench.window.calliper().grab().isNull() == false);
    CHECK(bench.window.calliper().tags().contains("unkept"));
    bench.window.show_station("train");
    CHECK(bench.line().text() == "35.12");
    // Closing asks, from another station too; going back to it is the safe answer.
    bench.window.show_station("beat");
    Hands hands;
    hands.press("Go back to it");
    bench.window.close();
    CHECK(hands.asked.contains("35.12"));
    CHECK(bench.window.isVisible());
    CHECK(train_of(bench.window).isVisible());
    CHECK(bench.line().text() == "35.12");
    QTest::keyClick(&bench.line(), Qt::Key_Return);
    CHECK(bench.job().train.measurements.back().evidence.key == asked);
    CHECK(bench.window.unkept().isEmpty());
}

TEST_CASE("two arbors of one name are two questions") {
    TypingBench bench;
    bench.document().edit("names", [](Job& job) {
        for (JobArbor& arbor : job.train.arbors) arbor.name = "Wheel";
    });
    bench.window.show_station("pivots");
    bench.document().selection().select_hole("great", "front");
    QTest::keyClicks(&bench.line(), "5.55");
    bench.document().selection().select_hole("centre", "front");
    CHECK(bench.line().text().isEmpty());
    CHECK(bench.window.unkept().size() == 1);
    bench.window.calliper().forget_unkept();
}

TEST_CASE("the question does not change under the hand that types") {
    TypingBench bench;
    bench.window.show_station("train");
    const QuantityKey asked = bench.window.calliper().asked()->key;
    QTest::keyClicks(&bench.line(), "35");
    // Another reading comes in from elsewhere: what tells most now is another.
    for (const Measurable& other : bench.derived().train.measurables)
        if (!(other.key == asked) && other.key.kind == "wheel_outside_diameter_mm") {
            bench.document().edit(store_reading(bench.job().train, {other.key, 60.1, 0.05}, "other", {"", "2026-11-28", "calliper"}));
            break;
        }
    CHECK(bench.window.calliper().asked()->key == asked);
    CHECK(bench.line().text() == "35");
    QTest::keyClicks(&bench.line(), ".12");
    QTest::keyClick(&bench.line(), Qt::Key_Return);
    CHECK(bench.job().train.measurements.back().evidence.key == asked);
    CHECK(bench.job().train.measurements.back().evidence.value == 35.12);
}

TEST_CASE("that a reading cannot be taken is said on purpose, told, and undone by one key") {
    TypingBench bench;
    bench.ask_survey("centre.front");
    const Job before = bench.job();
    QTest::keyClicks(&bench.line(), "n");
    CHECK(bench.job() == before);  // a letter alone does nothing
    QTest::keyClicks(&bench.line(), "an");
    QTest::keyClick(&bench.line(), Qt::Key_Return);
    CHECK(bench.job() == before);  // nor does a word that only begins with it
    QTest::keyClick(&bench.line(), Qt::Key_Escape);
    QTest::keyClicks(&bench.line(), "n");
    QTest::keyClick(&bench.line(), Qt::Key_Return);
    CHECK_FALSE(bench.job() == before);
    CHECK(bench.message().startsWith("Cannot be measured"));
    QTest::keyClick(&survey_of(bench.window), Qt::Key_Z, Qt::ControlModifier);
    CHECK(bench.job() == before);
}

TEST_CASE("an instrument that ends its reading with two line ends answers one question") {
    TypingBench bench;
    bench.ask_survey("centre.front");
    const int before = bench.document().undo_stack()->count();
    QTest::keyClicks(&bench.line(), "1.71");
    QTest::keyClick(&bench.line(), Qt::Key_Return);
    QTest::keyClick(&bench.line(), Qt::Key_Enter);
    CHECK(bench.document().undo_stack()->count() == before + 1);
    CHECK(bench.message().startsWith("Kept"));
}

TEST_CASE("pasted text is read whatever stands around the figure, and too much of it is cut with a word") {
    TypingBench bench;
    bench.window.show_station("train");
    QApplication::clipboard()->setText(QString::fromUtf8("\u00a035,12 mm\r\n"));
    bench.line().setFocus();
    bench.line().paste();
    QTest::keyClick(&bench.line(), Qt::Key_Return);
    CHECK(bench.job().train.measurements.back().evidence.value == 35.12);
    QApplication::clipboard()->setText(QString(10000, '7'));
    bench.line().paste();
    CHECK(bench.line().text().size() < 1000);
    CHECK(bench.message().contains("Cut"));
    QTest::keyClick(&bench.line(), Qt::Key_Return);
    CHECK(bench.message().size() < 400);
    bench.window.calliper().forget_unkept();
}

TEST_CASE("an editor opens with what stands there, and what is typed waits when one clicks beside it") {
    TypingBench bench;
    bench.window.show_station("train");
    train_of(bench.window).edit_count("centre.wheel");
    InPlaceEditor& editor = *train_of(bench.window).findChild<InPlaceEditor*>();
    CHECK(editor.text() == "96");
    editor.clear();
    QTest::keyClicks(&editor, "98");
    QTest::mouseClick(&train_of(bench.window), Qt::LeftButton, {}, QPoint(5, 5));
    train_of(bench.window).setFocus();
    CHECK_FALSE(editor.isVisible());
    CHECK(bench.shown("centre") == 96);
    REQUIRE(bench.window.unkept().size() == 1);
    // Another editor of the same picture is another question.
    train_of(bench.window).edit_count("great.wheel");
    CHECK(editor.text() == "144");
    QTest::keyClick(&editor, Qt::Key_Escape);
    train_of(bench.window).edit_count("centre.wheel");
    CHECK(editor.text() == "98");
    QTest::keyClick(&editor, Qt::Key_Tab);
    CHECK(bench.shown("centre") == 98);
    CHECK(bench.window.unkept().isEmpty());
    // A lost count stands as lost, whatever is drawn for it.
    train_of(bench.window).edit_count("third.wheel");
    CHECK(editor.text() == "?");
    QTest::keyClick(&editor, Qt::Key_Return);
    CHECK(bench.job().train.arbor("third")->train.wheel.is == Count::Is::lost);
}

TEST_CASE("a reason, a note and a coast open with what was said before") {
    TypingBench bench;
    bench.window.show_station("survey");
    survey_of(bench.window).go_to("third.back");
    bench.document().edit("Note", [](Job& job) { job.survey.condition_at("third.back").note = "silt in the sink"; });
    survey_of(bench.window).write_note();
    CHECK(survey_of(bench.window).editor().text() == "silt in the sink");
    // Left by changing the station, it is there again.
    QTest::keyClicks(&survey_of(bench.window).editor(), "washed");
    bench.window.show_station("train");
    CHECK(bench.job().survey.condition("third.back")->note == "silt in the sink");
    CHECK(bench.window.unkept().size() == 1);
    bench.window.show_station("survey");
    survey_of(bench.window).write_note();
    CHECK(survey_of(bench.window).editor().text() == "washed");
    QTest::keyClick(&survey_of(bench.window).editor(), Qt::Key_Return);
    CHECK(bench.job().survey.condition("third.back")->note == "washed");
}

TEST_CASE("Beat and the trials take no figure that is not finite, and saving goes on") {
    TypingBench bench;
    bench.window.show_station("beat");
    const size_t looks = bench.job().rate_log.looks.size();
    for (const char* text : {"nan", "+nan", "inf", "1e999", "+12.4 nanC"}) {
        QTest::keyClicks(&bench.line(), text);
        QTest::keyClick(&bench.line(), Qt::Key_Return);
        CHECK(bench.message().contains("takes"));
        QTest::keyClick(&bench.line(), Qt::Key_Escape);
    }
    CHECK(bench.job().rate_log.looks.size() == looks);
    CHECK_NOTHROW(job_to_text(bench.job()));
}

TEST_CASE("the axes of the rate show figures as the rest does, whatever the system's language") {
    QLocale::setDefault(QLocale(QLocale::German, QLocale::Germany));
    {
        TypingBench bench;
        bench.window.show_station("beat");
        for (QWidget* widget : bench.window.findChildren<QWidget*>()) {
            INFO(widget->metaObject()->className());
            if (!widget->isWindow()) CHECK(widget->locale().decimalPoint() == ".");
        }
    }
    QLocale::setDefault(QLocale::c());
}

TEST_CASE("Enter on an empty line is no mistake: nothing is said, nothing is kept, at any station") {
    Bench bench;
    for (const StationRow& row : station_rows()) {
        bench.window.show_station(row.id);
        Bench::settle();
        const QString said = bench.window.calliper().message();
        const int edits = bench.document().undo_stack()->index();
        bench.read("");
        bench.read("  ");
        INFO(row.id.toStdString() << ": " << bench.window.calliper().message().toStdString());
        CHECK(bench.document().undo_stack()->index() == edits);
        CHECK_FALSE(bench.window.calliper().message().contains("takes"));
        CHECK((bench.window.calliper().message() == said || bench.window.calliper().message().isEmpty()));
        bench.window.calliper().line().clear();
    }
}
