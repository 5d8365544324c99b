#include "escapement/round.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"

using namespace echappe;

namespace {

EscapementRoundInput regulator_round() {
    EscapementRoundInput in;
    in.escapement = EscapementChoice();
    in.escapement->radius_mm = 20, in.escapement->lock_deg = 1, in.escapement->lift_deg = 2, in.escapement->drop_deg = 1;
    in.semi_arc_deg = 2.1;
    in.beats_per_hour = 3600;
    return in;
}

/// The slow and obvious second way: tips by their own places, the wheel turned until one of them lies on a pallet.
class Turned {
public:
    Turned(const EscapementAction& action, std::vector<Vector> tips) : m_action(action), m_tips(std::move(tips)) {}

    /// From a place of the wheel where tooth `from` was just let off, how far it turns until any tip lands, and which.
    std::pair<double, size_t> falls(const Pallet& on, double wheel, double pallets) const {
        constexpr double step = 0.002 * rad_per_deg;
        for (double by = step; by < 0.3; by += step)
            for (size_t i = 0; i < m_tips.size(); ++i)
                if (inside(on, turned(m_tips[i], -(wheel + by)), pallets) &&
                    !inside(on, turned(m_tips[i], -(wheel + by - step)), pallets)) {
                    double free = by - step, touches = by;
                    for (int k = 0; k < 60; ++k) {
                        const double middle = (free + touches) / 2;
                        (inside(on, turned(m_tips[i], -(wheel + middle)), pallets) ? touches : free) = middle;
                    }
                    return {free, i};
                }
        return {0, 0};
    }

private:
    /// Behind a locking arc, between its corner and a third of a radian along it.
    bool inside(const Pallet& pallet, Vector tip, double pallets) const {
        const Vector own = turned(tip - Vector{0, m_action.centre_mm}, -pallets);
        const double r = length(own), lock = length(pallet.locking), off = length(pallet.let_off);
        if (r < std::min(lock, off) || r > std::max(lock, off)) return false;
        const double along = pallet.side * std::atan2(cross(pallet.locking, own), dot(pallet.locking, own));
        return along > -0.02 && along < 0.3;
    }
    EscapementAction m_action;
    std::vector<Vector> m_tips;
};

}  // namespace

TEST_CASE("a wheel without a fault does at every tooth what its layout says") {
    const EscapementRoundResult out = escapement_round(regulator_round());
    REQUIRE(out.teeth.size() == 30);
    CHECK(out.alike);
    for (const ToothOnPallets& tooth : out.teeth) {
        CHECK(*tooth.entry_lock_deg == Approx(1).margin(1e-9));
        CHECK(*tooth.exit_drop_deg == Approx(1).margin(1e-9));
        CHECK(*tooth.entry_late_ms == Approx(0).margin(1e-9));
    }
    DeadbeatInput layout{30, 7.5, 20, 1, 2, 1, "circular", 0, 2.1};
    const DeadbeatResult whole = deadbeat(layout);
    CHECK((*out.depth_window_mm)[0] == Approx((*whole.depth_window_mm)[0]).margin(1e-9));
    CHECK((*out.depth_window_mm)[1] == Approx((*whole.depth_window_mm)[1]).margin(1e-9));
}

TEST_CASE("a tooth bent back falls further onto both pallets and less far from them, by just its angle") {
    EscapementRoundInput in = regulator_round();
    in.faults.teeth = {{20, 0, -0.3}};
    const EscapementRoundResult out = escapement_round(in);
    // Let off by the exit, the tooth span + ½ before it leaves the entry to it; the entry's let-off leaves the exit to it 7 later.
    CHECK(*out.teeth[11].exit_drop_deg == Approx(1.3).margin(1e-6));
    CHECK(*out.teeth[26].entry_drop_deg == Approx(1.3).margin(1e-6));
    CHECK(*out.teeth[19].entry_drop_deg == Approx(0.7).margin(1e-6));
    CHECK(*out.teeth[19].exit_drop_deg == Approx(0.7).margin(1e-6));
    CHECK(*out.teeth[19].entry_late_ms == Approx(0).margin(1e-9));
    CHECK(out.worst_tooth == 20);
    in.faults.teeth = {{20, 0, -1.2}};
    CHECK(escapement_round(in).state == "catches");
}

TEST_CASE("a short tooth locks less and is let off early by both pallets, as pallets further away would do it") {
    EscapementRoundInput in = regulator_round();
    in.faults.teeth = {{5, 0.02, 0}};
    const EscapementRoundResult out = escapement_round(in);
    CHECK(*out.teeth[4].entry_late_ms < -8);
    CHECK(*out.teeth[4].exit_late_ms < -8);
    // The radius of the whole wheel less by so much: the same let-off against the same middle.
    EscapementAction less = lay_out(*in.escapement);
    const EscapementBeat whole = beat_of(less);
    less.radius_mm -= 0.02;
    const double let_off = corner_on_tips(less, less.entry, less.entry.let_off)->pallets_rad - *whole.zero_rad;
    const double usual = whole.entry->lets_off.pallets_rad - *whole.zero_rad;
    const double swing = 2.1 * rad_per_deg, late_ms = 1000 / pi * (std::asin(-let_off / swing) - std::asin(-usual / swing));
    CHECK(*out.teeth[4].entry_late_ms == Approx(late_ms).epsilon(1e-9));
    const auto per_mm = early_ms_per_mm_short(lay_out(*in.escapement), swing, 3600);
    REQUIRE(per_mm);
    CHECK(*per_mm * 0.02 == Approx(-(*out.teeth[4].entry_late_ms + *out.teeth[4].exit_late_ms) / 2).epsilon(0.02));
    in.faults.teeth = {{5, 0.5, 0}};
    CHECK(escapement_round(in).state == "trips");
    CHECK_THAT(escapement_round(in).verdict, Catch::Contains("Tooth 5 lands beyond"));
}

TEST_CASE("an eccentric wheel's locks and drops are those that a slow search with all its tips finds") {
    EscapementRoundInput in = regulator_round();
    in.faults.eccentric_mm = 0.06;
    in.faults.eccentric_tooth = 4;
    in.faults.teeth = {{9, 0.03, 0.2}};
    const EscapementRoundResult out = escapement_round(in);
    const EscapementAction action = lay_out(*in.escapement);
    std::vector<Vector> tips;
    const double pitch = 12 * rad_per_deg;
    for (int i = 0; i < 30; ++i) {
        const double radius = i == 8 ? 19.97 : 20, place = i * pitch - (i == 8 ? 0.2 * rad_per_deg : 0), high = 3 * pitch;
        // Tooth 1 at the top, the others follow anticlockwise; the wheel's middle lies towards tooth 4.
        tips.push_back(Vector{-radius * std::sin(place), radius * std::cos(place)} + 0.06 * Vector{-std::sin(high), std::cos(high)});
    }
    const Turned wheel(action, tips);
    for (const int tooth : {0, 3, 8, 12, 21, 29}) {
        CAPTURE(tooth);
        // Turned until this tip lies at the entry's let-off corner.
        const double r = length(tips[static_cast<size_t>(tooth)]);
        const auto end = spot_on_circle(action.centre_mm, r, -1, action.entry.let_off);
        REQUIRE(end);
        const double at = end->tip_rad - angle_of(tips[static_cast<size_t>(tooth)]);
        const auto [drop, lands] = wheel.falls(action.exit, at, end->pallets_rad);
        CHECK(*out.teeth[static_cast<size_t>(tooth)].entry_drop_deg * rad_per_deg == Approx(drop).margin(1e-9));
        CHECK(lands == static_cast<size_t>((tooth - 7 + 30) % 30));
    }
    CHECK((*out.depth_window_mm)[1] - (*out.depth_window_mm)[0] < 0.47);
}

TEST_CASE("pallets off their arbor by so much act as an arbor moved the other way") {
    EscapementRoundInput in = regulator_round();
    in.faults.pallets_up_mm = 0.05;
    const EscapementRoundResult out = escapement_round(in);
    EscapementRoundInput moved = regulator_round();
    moved.escapement->depth_change_mm = -0.05;
    const EscapementRoundResult as = escapement_round(moved);
    // To first order: their faces turn about another middle.
    CHECK(*out.teeth[0].entry_drop_deg == Approx(*as.teeth[0].entry_drop_deg).margin(0.03));
    CHECK(*out.teeth[0].entry_lock_deg == Approx(*as.teeth[0].entry_lock_deg).margin(0.03));
}

TEST_CASE("out of a pit the wheel is driven back before a tooth unlocks, and the fall into it is longer by as much") {
    EscapementRoundInput in = regulator_round();
    in.faults.entry_pit_mm = 0.05;
    const EscapementRoundResult out = escapement_round(in);
    CHECK(out.entry_climb_deg == Approx(0.05 / 20 / rad_per_deg).epsilon(0.05));
    CHECK(out.exit_climb_deg == 0);
    CHECK(*out.teeth[0].exit_drop_deg == Approx(1 + out.entry_climb_deg).margin(1e-6));
    CHECK(*out.teeth[0].entry_drop_deg == Approx(1).margin(1e-9));
    CHECK_THAT(out.verdict, Catch::Contains("driven back"));
}

TEST_CASE("a tooth that is not on the wheel is refused") {
    EscapementRoundInput in = regulator_round();
    in.faults.teeth = {{31, 0.1, 0}};
    CHECK_THROWS_WITH(escapement_round(in), Catch::Contains("1 to 30"));
}
