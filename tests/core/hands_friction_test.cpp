#include "train/hands_friction.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"

using namespace echappe;

namespace {

HandsFrictionInput bowed() {
    HandsFrictionInput in;
    in.length_mm = 20, in.width_mm = 8, in.thickness_mm = 0.4, in.flattened_mm = 1.2, in.radius_mm = 5;
    in.hand_g = 6, in.hand_centre_mm = 22, in.hand_length_mm = 110;
    return in;
}

}  // namespace

TEST_CASE("a leaf pressed flat pushes as a beam on two ends does whose bending is summed in small pieces") {
    const HandsFrictionInput in = bowed();
    const double force = *hands_friction(in).force_N;
    // Slope and deflection by adding up the curvature M ÷ (E I) from the middle to one end.
    const double stiff = 105000 * 8 * std::pow(0.4, 3) / 12;
    constexpr int pieces = 20000;
    const double dx = 10.0 / pieces;
    double slope = 0, bent = 0;
    for (int i = 0; i < pieces; ++i) {
        const double from_end = 10 - (i + 0.5) * dx;
        slope += force / 2 * from_end / stiff * dx;
        bent += slope * dx;
    }
    CHECK(bent == Approx(1.2).epsilon(1e-3));
}

TEST_CASE("a coil pushes as the twist of its wire summed along it does") {
    HandsFrictionInput in;
    in.kind = "coil", in.wire_mm = 0.6, in.coil_mm = 9, in.turns = 4, in.compressed_mm = 3, in.radius_mm = 4.5;
    const double force = *hands_friction(in).force_N;
    // Each mm of the wire twists by F D/2 ÷ (G J) and gives D/2 of that along the axis.
    const double J = pi * std::pow(0.6, 4) / 32, wire = pi * 9 * 4;
    CHECK(force * 4.5 / (78000 * J) * wire * 4.5 == Approx(3));
    in.coil_mm = 0.5;
    CHECK_THROWS_WITH(hands_friction(in), Catch::StartsWith("coil_mm"));
}

TEST_CASE("a hand stays where it is put just while the friction is more than its weight times its arm") {
    HandsFrictionInput in = bowed();
    in.kind = "measured", in.torque_N_mm = 6e-3 * 9.80665 * 22;
    CHECK(*hands_friction(in).times == Approx(1));
    // In balance nothing is left for a thread.
    CHECK(*hands_friction(in).thread_g == Approx(0).margin(1e-9));
    in.torque_N_mm = *in.torque_N_mm * 0.98;
    CHECK(hands_friction(in).state == "slips");
    in.torque_N_mm = *in.torque_N_mm * 1.7;
    CHECK(hands_friction(in).state == "right");
    in.most_N_mm = 1;
    CHECK(hands_friction(in).state == "bends");
    // The thread's weight at the tip and the hand's own together make the torque.
    in.most_N_mm.reset();
    const HandsFrictionResult out = hands_friction(in);
    CHECK(9.80665e-3 * (*out.thread_g * 110 + 6 * 22) == Approx(*in.torque_N_mm));
}

TEST_CASE("what is missing is asked for by its name, and no coil gets oil") {
    HandsFrictionInput in = bowed();
    in.thickness_mm.reset();
    CHECK_THROWS_WITH(hands_friction(in), Catch::StartsWith("thickness_mm: got nothing"));
    in = {};
    in.kind = "pinched";
    CHECK_THROWS_WITH(hands_friction(in), Catch::StartsWith("force_N"));
    in.force_N = 20, in.radius_mm = 2.5;
    CHECK(hands_friction(in).torque_N_mm == Approx(0.13 * 20 * 2.5 * 2));
    in.kind = "coil";
    CHECK_THAT(hands_friction(in).verdict, Catch::Contains("nothing on the coils"));
}
