// Four movements that stand in no demo, each from an empty bench to a finished part by keys alone: no mouse, and no sheet unfolded.
#include <QPlainTextEdit>
#include <catch2/catch.hpp>
#include <map>

#include "app/bench.h"
#include "stations/make/make_station.h"
#include "stations/pivots/pivots_station.h"
#include "stations/strike/strike_station.h"
#include "stations/survey/survey_station.h"

using namespace echappe;

namespace {

/// What a calliper would say, by the field that is asked.
using Truth = std::map<std::string, QString>;

const Truth usual = {{"pivot_mm", "1.20"}, {"hole_min_mm", "1.25"},  {"hole_max_mm", "1.26"}, {"thickness_mm", "2.6"}, {"tir_mm", "0.02"},
                     {"plates_mm", "40"},  {"shoulders_mm", "39.7"}, {"flatness_mm", "0"},    {"pillar_out_mm", "0"},  {"sway_mm", "1.1"}};

class ByKeys : public Bench {
public:
    int keys = 0, figures = 0;

    explicit ByKeys(const QString& movement, const QString& plate) {
        window.jobs().begin(Job());
        window.show_station("train");
        settle();
        type(movement);
        press(Qt::Key_Return);
        press(Qt::Key_F12);
        type(plate);
        press(Qt::Key_Return);
    }
    Station& station() { return window.shown(); }
    /// Every key goes to where the keyboard stands.
    QWidget& there() { return window.focusWidget() ? *window.focusWidget() : static_cast<QWidget&>(window); }
    void press(Qt::Key key, Qt::KeyboardModifiers with = {}) {
        QTest::keyClick(&there(), key, with);
        ++keys;
        QCoreApplication::processEvents();
    }
    /// Figures and words are no keys to be learnt: they are counted by themselves.
    void type(const QString& text) {
        QTest::keyClicks(&there(), text);
        figures += static_cast<int>(text.size());
        QCoreApplication::processEvents();
    }
    void go_to(int number) {
        QTest::keyClick(&window, static_cast<Qt::Key>(Qt::Key_0 + number), Qt::ControlModifier);
        ++keys;
        settle();
        window.grab();
        // From the line to the picture.
        for (int guard = 0; guard < 3 && &there() != &station(); ++guard) press(Qt::Key_Escape);
    }
    /// By Tab to a place of the picture, and Enter.
    void take(const QString& tag, Station* on = nullptr) {
        Station& picture = on ? *on : station();
        picture.grab();
        for (int guard = 0; guard < 120 && picture.stands_on() != tag; ++guard) press(Qt::Key_Tab);
        INFO(tag.toStdString());
        REQUIRE(picture.stands_on() == tag);
        press(Qt::Key_Return);
        settle();
        picture.grab();
    }
    /// F4, and every open size typed and ended by Tab; what nobody can tell here is passed by Tab.
    void type_sizes(const Truth& truth, Station* on = nullptr) {
        Station& picture = on ? *on : station();
        press(Qt::Key_F4);
        go_on_typing(truth, picture);
    }
    void go_on_typing(const Truth& truth, Station& picture) {
        QStringList passed;
        for (int guard = 0; guard < 60 && typing_in_place(); ++guard) {
            const QString id = picture.size_round().at();
            const std::string field = id.section('.', -1).toStdString();
            const auto known = truth.contains(id.toStdString()) ? truth.find(id.toStdString()) : truth.find(field);
            if (passed.contains(id)) break;
            passed << id;
            if (known != truth.end()) type(known->second);
            press(Qt::Key_Tab);
            INFO("refused: " << window.calliper().message().toStdString());
            REQUIRE(picture.size_round().at() != id);
        }
        press(Qt::Key_Escape);
    }
    /// Safe first, then every spot in order, both plates pegged, and every reading that the line asks for.
    void survey(const Truth& truth) {
        go_to(1);
        for (int guard = 0; guard < 30 && !derived().survey.safe; ++guard) press(Qt::Key_S);
        REQUIRE(derived().survey.safe);
        const auto open = [this] {
            const auto& spots = derived().survey.spots;
            return std::count_if(spots.begin(), spots.end(), [](const Spot& spot) { return spot.verdict.empty(); });
        };
        for (int guard = 0; guard < 200 && open() > 0; ++guard) {
            press(Qt::Key_G);
            if (open() > 0) press(Qt::Key_Return);
        }
        CHECK(open() == 0);
        go_to(4);
        press(Qt::Key_Left);
        press(Qt::Key_P, Qt::ShiftModifier);
        press(Qt::Key_Right);
        press(Qt::Key_P, Qt::ShiftModifier);
        for (int guard = 0;; ++guard) {
            const SurveyQuestion* now = window.calliper().plates().question();
            if (!now || now->taken || now->cannot) break;
            INFO(now->subject << " " << now->field << ": " << window.calliper().message().toStdString());
            REQUIRE(guard < 200);
            const auto known = truth.find(std::string(now->field));
            if (known != truth.end()) type(known->second);
            else type("n");
            press(Qt::Key_Return);
        }
    }
    /// Begins a part by its letter, types its sizes, and goes through its card.
    void make(Qt::Key letter, const Truth& truth) {
        go_to(8);
        press(Qt::Key_N);
        press(letter);
        settle();
        type_sizes(truth);
        auto& make = dynamic_cast<MakeStation&>(station());
        REQUIRE(make.card());
        const std::string id = make.card()->id;
        for (int guard = 0; guard < 80; ++guard) {
            const DerivedCard* card = derived().cards.card(id);
            REQUIRE(card);
            const CardStep* next = card->next();
            if (!next) break;
            INFO(id << " " << next->id << ": " << next->words << " / " << window.calliper().message().toStdString());
            REQUIRE(guard < 79);
            if (next->reads) type(QString::number(next->size->nominal_mm, 'f', 2));
            else
                for (int back = 0; back < 4 && (&there() != &station() || !station().stands_on().isEmpty()); ++back) press(Qt::Key_Escape);
            press(Qt::Key_Return);
        }
        REQUIRE(derived().cards.card(id));
        CHECK(derived().cards.card(id)->finished());
    }
    /// No sheet was unfolded on the way.
    void no_more() {
        for (auto* card : window.findChildren<SumCard*>()) CHECK_FALSE(card->shows_more());
    }
    /// Besides the figures that are read, and the words of the train.
    void took_at_most(int most) {
        CHECK(keys <= most);
        CHECK(figures > 0);
    }
};

}  // namespace

TEST_CASE("a regulator goes from an empty bench to a finished stud by keys alone") {
    ByKeys bench("great 144, centre 12/96, third 12/90, escape 12/30; 3600 beats; 8 days from 16 turns", "arched 120 x 180");
    bench.survey(usual);
    bench.go_to(5);
    bench.take("begin:weight");
    bench.type_sizes(
        {{"drum_diameter_mm", "42"}, {"line_diameter_mm", "1.2"}, {"weight_kg", "3.1"}, {"moving_pulleys", "1"}, {"room_mm", "1250"}});
    CHECK(bench.derived().power.drives.front().weight);
    bench.go_to(6);
    bench.take("begin:pendulum");
    bench.take("size:part.0.diameter_mm");
    bench.go_on_typing({{"part.0.diameter_mm", "6"},
                        {"part.0.length_mm", "1100"},
                        {"part.0.top_mm", "0"},
                        {"part.0.mass_kg", "0.24"},
                        {"part.1.diameter_mm", "150"},
                        {"part.1.thickness_mm", "55"},
                        {"part.1.centre_mm", "998"},
                        {"part.1.mass_kg", "6"},
                        {"nut_pitch_mm", "0.75"},
                        {"swing_deg", "2"},
                        {"length_mm", "18"},
                        {"width_mm", "12"},
                        {"thickness_mm", "0.12"}},
                       bench.station());
    CHECK(bench.derived().oscillator.compound);
    bench.make(Qt::Key_B, {{"lands[0].diameter_mm", "4"}});
    bench.no_more();
    bench.took_at_most(180);
}

TEST_CASE("a spring clock with its strike goes from an empty bench to a finished pillar by keys alone") {
    ByKeys bench(
        "great 96, centre 8/84, third 7/78, escape 7/27; centre 1 h; 8 days from 16 turns; "
        "strike: strike great 84, 8/64 pin wheel, 8/56 locking, 7/48 warning, 6 fly",
        "round 140");
    bench.survey(usual);
    bench.go_to(5);
    bench.take("begin:spring");
    bench.type_sizes({{"barrel_bore_mm", "44"},
                      {"barrel_arbor_mm", "14"},
                      {"strip_thickness_mm", "0.4"},
                      {"strip_width_mm", "22"},
                      {"thickness_mm", "0.4"},
                      {"width_mm", "22"},
                      {"height_mm", "24"},
                      {"length_mm", "1800"},
                      {"arbor_mm", "14"}});
    bench.go_to(7);
    bench.take("begin:countwheel hours-and-halves");
    bench.press(Qt::Key_T);
    for (const char* role : {"pin wheel", "locking", "warning"})
        for (const JobArbor& arbor : bench.job().train.arbors)
            if (QString::fromStdString(bench.job().train.name_of_arbor(arbor.train.id)).toLower() == role)
                bench.take("role:" + QString::fromStdString(arbor.train.id));
    INFO(bench.derived().strike_train.together_fault << bench.derived().strike_train.fault);
    bench.type_sizes({{"pins", "8"}, {"seconds_per_blow", "1.5"}, {"hammer_falls_in_deg", "30"}, {"warning_run_deg", "180"}});
    CHECK(bench.derived().strike_train.together);
    bench.press(Qt::Key_C);
    bench.make(Qt::Key_C, {});
    bench.no_more();
    bench.took_at_most(290);
}

TEST_CASE("a watch goes from an empty bench to a finished screw by keys alone") {
    ByKeys bench("great 80, centre 10/80, third 10/75, fourth 10/70, escape 7/15; centre 1 h, 18000 beats, 36 hours from 4.5 turns",
                 "round 42 gilt");
    Truth fine = usual;
    fine["pivot_mm"] = "0.18", fine["hole_min_mm"] = "0.20", fine["hole_max_mm"] = "0.20", fine["thickness_mm"] = "1.2";
    fine["plates_mm"] = "4.2", fine["shoulders_mm"] = "4.17", fine["sway_mm"] = "0.1";
    bench.survey(fine);
    bench.go_to(5);
    bench.take("begin:spring");
    bench.type_sizes({{"barrel_bore_mm", "15"},
                      {"barrel_arbor_mm", "5"},
                      {"thickness_mm", "0.17"},
                      {"width_mm", "2.4"},
                      {"height_mm", "2.6"},
                      {"length_mm", "560"},
                      {"arbor_mm", "5"}});
    bench.go_to(6);
    bench.take("begin:balance");
    bench.type_sizes({{"spring.length_mm", "190"},
                      {"spring.width_mm", "0.18"},
                      {"spring.thickness_mm", "0.035"},
                      {"pins_to_stud_mm", "6"},
                      {"swing_deg", "270"},
                      {"beat_error_ms", "0.6"}});
    CHECK(bench.job().oscillator->as<Balance>()->spring);
    bench.make(Qt::Key_E, {});
    bench.no_more();
    bench.took_at_most(220);
}

TEST_CASE("a wooden clock goes from an empty bench to a finished bracket by keys alone") {
    ByKeys bench("great 64, centre 8/60, third 6/54, escape 6/28; centre 1 h, 5040 beats, 30 hours from 3.75 turns",
                 "rectangle 100 x 140 oak 90");
    Truth wooden = usual;
    wooden["pivot_mm"] = "2.2", wooden["hole_min_mm"] = "2.4", wooden["hole_max_mm"] = "2.45", wooden["thickness_mm"] = "9";
    bench.survey(wooden);
    bench.go_to(5);
    bench.take("begin:weight");
    bench.type_sizes(
        {{"drum_diameter_mm", "40"}, {"line_diameter_mm", "2"}, {"weight_kg", "1.2"}, {"moving_pulleys", "0"}, {"room_mm", "1500"}});
    bench.go_to(6);
    bench.take("begin:pendulum");
    bench.take("size:part.0.diameter_mm");
    bench.go_on_typing({{"part.0.diameter_mm", "3"},
                        {"part.0.length_mm", "540"},
                        {"part.0.top_mm", "0"},
                        {"part.0.mass_kg", "0.03"},
                        {"part.1.diameter_mm", "60"},
                        {"part.1.thickness_mm", "8"},
                        {"part.1.centre_mm", "515"},
                        {"part.1.mass_kg", "0.12"},
                        {"nut_pitch_mm", "1"},
                        {"swing_deg", "5"}},
                       bench.station());
    CHECK(bench.derived().oscillator.compound);
    bench.go_to(3);
    bench.press(Qt::Key_G);
    Bench::settle();
    bench.make(Qt::Key_K, {});
    bench.no_more();
    bench.took_at_most(215);
}
