#include "train/places.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <filesystem>
#include <fstream>

#include "job/new_job.h"
#include "support/demo.h"
#include "topic.h"

using namespace echappe;

TEST_CASE("every kind of plate is written back as it was read") {
    for (const char* text :
         {"arched 120 x 180", "round 42", "rectangle 100 x 140 oak 90", "A 110 x 200.5 steel", "three-quarter 44",
          "corners -50 0, 50 0, 0 120.25", "corners -50 0, 50 0, 0 120; cherry", "arched 160 x 222; pillars 9 at -70 10, 70 10",
          "about round 42", "round 42; cock balance -5 30, 5 30, 0 41; cock third -9 8, -2 8, -5 14"})
        CHECK(write_plate(read_plate(text)) == text);
    CHECK(read_plate("a 100 200").shape == "A");
    const Plate before = read_plate("round 42; pillars 2.4 at 3 4");
    CHECK(read_plate("pillars 3", before).pillar_mm == 3);
    CHECK(read_plate("rectangle 40 x 50", before).pillars.size() == 1);
    for (const char* wrong :
         {"", "star 3", "round", "round -3", "round nan", "arched 120", "corners 1 2, 3 4", "arched 1 x 2 x 3", "round 42 lead",
          "pillars 9 at 3", "about", "round 42; cock balance 1 2, 3 4", "rectangle 1e9 x 3", "round 42 brass 90"})
        CHECK_THROWS_AS(read_plate(wrong), InputError);
}

TEST_CASE("the room round a hole is the same by the outline's pieces as by its own sum") {
    for (const char* text : {"round 80", "rectangle 100 x 140"}) {
        Plate plate = read_plate(text);
        Plate pieces = plate;
        pieces.shape = "corners";
        pieces.corners = outline_of(plate);
        for (const double x : {-60.0, -20.0, 0.0, 13.0, 45.0})
            for (const double y : {-5.0, 3.0, 40.0, 77.0, 150.0}) {
                if (x == 0 && y == 40 && plate.shape == "round") continue;  // the middle
                const double exact = plate.shape == "round" ? 40 - std::hypot(x, y - 40) : NAN;
                const double room = pieces.room_at(x, y);
                if (plate.shape == "round") CHECK(room == Approx(exact).margin(0.03));
                else CHECK((room > 0) == (std::abs(x) < 50 && y > 0 && y < 140));
            }
    }
    // The sector of a three-quarter plate is open.
    const Plate cut = read_plate("three-quarter 44");
    CHECK(cut.room_at(0, 30) < 0);
    CHECK(cut.room_at(0, 10) > 0);
    CHECK(read_plate("A 100 x 200").room_at(0, 10) < 0);
}

TEST_CASE("two distances cross where a triangle of 3, 4 and 5 has its corner, once on each side") {
    const auto both = crossings_of({0, 0}, 3, {5, 0}, 4, {2, 10});
    REQUIRE(both.size() == 2);
    CHECK(both[0][0] == Approx(1.8));
    CHECK(both[0][1] == Approx(2.4));
    CHECK(both[1][1] == Approx(-2.4));
    CHECK(crossings_of({0, 0}, 2, {5, 0}, 3, {0, 0}).front()[0] == Approx(2));
    CHECK(crossings_of({0, 0}, 1, {5, 0}, 3, {0, 0}).empty());
    CHECK(crossings_of({1, 1}, 1, {1, 1}, 1, {0, 0}).empty());
}

TEST_CASE("a hole is placed by its x and y, or by its distances from two others") {
    Job job = new_job("144, 12/96, 12/90, 12/30");
    set_place(job.train, "great", {0, 0}).change(job.train);
    set_place(job.train, "centre", {50, 0}).change(job.train);
    const DerivedTrain derived = derive(job).train;
    CHECK(read_place(job.train, derived, "third", "-12.5 60,1").places.front() == Place{-12.5, 60.1});
    CHECK(read_place(job.train, derived, "third", "-12.5, 60.1").places.front() == Place{-12.5, 60.1});
    const PlaceTyped crossed = read_place(job.train, derived, "third", "30 from Great, 40 from centre");
    REQUIRE(crossed.places.size() == 2);
    CHECK(std::abs(crossed.places[0][1]) == Approx(24));
    CHECK(read_place(job.train, derived, "third", "30 from Great, 40 from centre other").places[0] == crossed.places[1]);
    for (const char* wrong : {"", "3", "3 x", "3 4 5", "30 from great", "30 from great, 10 from centre", "30 from third, 4 from great",
                              "nan 3", "-3 from great, 4 from centre", "30 from nobody, 4 from great"})
        CHECK_THROWS_AS(read_place(job.train, derived, "third", wrong), InputError);
}

TEST_CASE("measured distances place the holes, and the one that does not fit the others is named first") {
    Job job = new_job("144, 12/96, 12/90, 12/84, 12/30");
    const std::map<std::string, Place> truth = {
        {"great", {0, 40}}, {"centre", {20, 100}}, {"third", {-15, 120}}, {"fourth", {25, 128}}, {"escape", {5, 142}}};
    const auto apart = [&](const std::string& a, const std::string& b) {
        return std::hypot(truth.at(a)[0] - truth.at(b)[0], truth.at(a)[1] - truth.at(b)[1]);
    };
    const auto measure = [&](const std::string& a, const std::string& b, double off) {
        job.train.measurements.push_back({a + b, {{"centre_distance_mm", {}, a, b}, apart(a, b) + off, 0.05}, "calliper", "", "", false});
    };
    // Near enough to know which side each is on.
    for (const auto& [id, at] : truth) set_place(job.train, id, {at[0] + 2, at[1] - 1.5}).change(job.train);
    for (const auto& [a, b] :
         {std::pair("great", "centre"), std::pair("centre", "third"), std::pair("third", "escape"), std::pair("great", "third"),
          std::pair("centre", "escape"), std::pair("great", "escape"), std::pair("third", "fourth"), std::pair("fourth", "escape"),
          std::pair("centre", "fourth"), std::pair("great", "fourth")})
        measure(a, b, 0);
    const PlaceFit exact = fit_places(job.train, derive(job).train);
    REQUIRE(exact.distances.size() == 10);
    for (const PlacedDistance& d : exact.distances) CHECK(std::abs(d.sigma()) < 0.01);
    const auto gap = [&](const PlaceFit& fit, const std::string& a, const std::string& b) {
        return std::hypot(fit.places.at(a)[0] - fit.places.at(b)[0], fit.places.at(a)[1] - fit.places.at(b)[1]);
    };
    CHECK(gap(exact, "great", "escape") == Approx(apart("great", "escape")).margin(0.001));
    // The arbor whose turn is known has not moved.
    CHECK(exact.places.at("centre")[0] == Approx(22).margin(1e-4));
    job.train.measurements[4].evidence.value += 1.5;
    const PlaceFit odd = fit_places(job.train, derive(job).train);
    CHECK(odd.distances.front().wheel_of == "centre");
    CHECK(odd.distances.front().pinion_of == "escape");
    CHECK(odd.distances.front().oddness() > 3);
    CHECK(odd.told_apart);
    // Of four holes with their six distances one is too many: that something is wrong is seen, what it is is not.
    Job four = job;
    std::erase_if(four.train.measurements, [](const Measurement& m) { return m.id.find("fourth") != std::string::npos; });
    const PlaceFit unsure = fit_places(four.train, derive(four).train);
    CHECK(unsure.distances.front().oddness() > 3);
    CHECK_FALSE(unsure.told_apart);
    // A distance of two that do not turn each other is taken too, and one of two that do is their mesh's.
    store_distance(job.train, derive(job).train, "great", "46.2 to Third", "d", {}).change(job.train);
    CHECK(job.train.measurements.back().evidence.key.pinion_of == "third");
    store_distance(job.train, derive(job).train, "third", "25.1±0.02 to centre", "e", {}).change(job.train);
    CHECK(job.train.measurements.back().evidence.key.wheel_of == "centre");
    CHECK(job_from_text(job_to_text(job)).faults.empty());
    CHECK(derive(job).train.problem.empty());
    for (const char* wrong : {"", "46.2", "x to great", "46.2 to nobody", "46.2 to third", "-1 to great"})
        CHECK_THROWS_AS(store_distance(job.train, derive(job).train, "third", wrong, "f", {}), InputError);
    Job placed = job;
    place_by(exact).change(placed.train);
    CHECK(placed.train.arbor("third")->position_mm.size() == 2);
    CHECK_THROWS_AS(fit_places(new_job("144, 12/96").train, derive(new_job("144, 12/96")).train), InputError);
}

TEST_CASE("holes come from a table by their arbors' names, those of the back plate too, and a wrong row changes nothing") {
    Job job = new_job("144, 12/96, 12/90, 12/30");
    CHECK(keep_places_csv(job.train, "arbor;x_mm;y_mm\nGreat;0;35,5\ncentre;-3,25;80\n") == 2);
    CHECK(job.train.arbor_called("great")->position_mm == std::vector<double>{0, 35.5});
    CHECK(job.train.arbor_called("centre")->position_mm == std::vector<double>{-3.25, 80});
    CHECK(keep_places_csv(job.train, "arbor,x_mm,y_mm,back_x_mm,back_y_mm\nthird,10,100,10.2,100\n") == 1);
    const DerivedArbor third = *derive(job).train.arbor(job.train.arbor_called("third")->train.id);
    CHECK(third.back_x_mm == 10.2);
    CHECK(third.x_mm == 10);
    const DerivedPivots pivots = derive(job).pivots;
    CHECK(pivots.hole(third.id + ".back")->x_mm == 10.2);
    CHECK(pivots.hole(third.id + ".front")->x_mm == 10);
    const auto before = job.train.arbor_called("great")->position_mm;
    CHECK_THROWS_AS(keep_places_csv(job.train, "arbor,x_mm,y_mm\ngreat,1,2\nfly,3,4\n"), InputError);
    CHECK_THROWS_AS(keep_places_csv(job.train, "arbor,x_mm,y_mm\ngreat,1,far\n"), InputError);
    CHECK(job.train.arbor_called("great")->position_mm == before);
}

TEST_CASE("holes come from the circles of a drawing whose layers bear the arbors' names") {
    const std::string path = (std::filesystem::temp_directory_path() / "echappe-holes.dxf").string();
    const auto circle = [](const char* layer, double x, double y) {
        return "0\nCIRCLE\n8\n" + std::string(layer) + "\n10\n" + std::to_string(x) + "\n20\n" + std::to_string(y) + "\n30\n0\n40\n1.5\n";
    };
    const auto write = [&](const std::string& entities) {
        std::ofstream(path) << "0\nSECTION\n2\nENTITIES\n" << entities << "0\nENDSEC\n0\nEOF\n";
    };
    Job job = new_job("144, 12/96, 12/90, 12/30");
    write(circle("great", 0, 35) + circle("Centre", -3.5, 80) + circle("centre back", -3.25, 80) + circle("border", 1, 1));
    CHECK(keep_places_dxf(job.train, path) == 3);
    CHECK(job.train.arbor_called("centre")->position_mm == std::vector<double>{-3.5, 80});
    CHECK(job.train.arbor_called("centre")->back_mm == std::vector<double>{-3.25, 80});
    write(circle("0", 3, 4));
    CHECK_THROWS_AS(keep_places_dxf(job.train, path), InputError);
    write("");
    CHECK_THROWS_AS(keep_places_dxf(job.train, path), InputError);
    std::filesystem::remove(path);
}

TEST_CASE("pillars are put up, moved and taken away, and a plate dragged wider takes its corners along") {
    Job job = new_job("144, 12/96, 12/90, 12/30");
    CHECK_THROWS_AS(add_pillar(job.train, {3, 4}), InputError);
    set_plate(job.train, "about corners -50 0, 50 0, 0 120").change(job.train);
    CHECK(job.train.plate->assumed);
    add_pillar(job.train, {3, 4}).change(job.train);
    add_pillar(job.train, {5, 6}).change(job.train);
    move_pillar(job.train, 0, {-3, 4.0004}).change(job.train);
    take_pillar_away(job.train, 1).change(job.train);
    CHECK(job.train.plate->pillars == std::vector<std::array<double, 2>>{{-3, 4}});
    CHECK_THROWS_AS(take_pillar_away(job.train, 1), InputError);
    resize_plate(job.train, 200, 60).change(job.train);
    CHECK_FALSE(job.train.plate->assumed);
    CHECK(write_plate(*job.train.plate).starts_with("corners -100 0, 100 0, 0 60"));
    set_plate(job.train, "round 42").change(job.train);
    resize_plate(job.train, 42, 44).change(job.train);
    CHECK(job.train.plate->width_mm == 44);
}

TEST_CASE("the first hole that is placed takes the drawn movement with it and does not stir it") {
    Job job = new_job("144, 12/96, 12/90, 12/30");
    const DerivedTrain before = derive(job).train;
    set_place(job.train, before.arbors[2].id, {7, -20}).change(job.train);
    const DerivedTrain after = derive(job).train;
    CHECK(after.arbors[2].x_mm == 7);
    CHECK(after.arbors[2].y_mm == -20);
    for (size_t i = 0; i < before.arbors.size(); ++i) {
        CHECK(after.arbors[i].x_mm - before.arbors[i].x_mm == Approx(7 - before.arbors[2].x_mm));
        CHECK(after.arbors[i].y_mm - before.arbors[i].y_mm == Approx(-20 - before.arbors[2].y_mm));
        CHECK(after.arbors[i].position_assumed == (i != 2));
    }
}
