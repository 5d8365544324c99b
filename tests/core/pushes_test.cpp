#include "pivots/pushes.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "power/drive_pull.h"
#include "support/demo.h"
#include "topic.h"
#include "train/mesh_index.h"

using namespace echappe;

namespace {

struct Movement {
    Job job;
    Derived derived;
    DrivePulls pulls;

    explicit Movement(const std::string& name) : job(demo::job(name)), derived(derive(job)), pulls(drive_pulls(job.train, job.power)) {}
    Pushes pushes() const {
        return pushes_on_pivots(job.survey.pivots, job.train, pulls, MeshIndex(derived.train), derived.train, derived.making);
    }
    /// As seen in a mirror beside it: right is left, and all turns the other way.
    void mirror() {
        for (DerivedArbor& arbor : derived.train.arbors) {
            arbor.x_mm = -arbor.x_mm;
            if (!arbor.direction.empty()) arbor.direction = arbor.direction == "cw" ? "ccw" : "cw";
        }
        for (auto& [arbor, pull] : pulls.at) pull.direction_deg = 180 - pull.direction_deg;
    }
};

const std::vector<std::string> demos = {"tide-house", "waiting-room", "granary", "watch"};

}  // namespace

TEST_CASE("a movement in the mirror is pushed as in the mirror, with its lines and weights") {
    for (const std::string& name : demos) {
        Movement movement(name);
        const Pushes before = movement.pushes();
        movement.mirror();
        const Pushes after = movement.pushes();
        INFO(name);
        REQUIRE_FALSE(before.empty());
        REQUIRE(after.size() == before.size());
        for (const auto& [arbor, push] : before) {
            INFO(arbor);
            const PushResult& other = after.at(arbor);
            CHECK(angle_between_deg(other.front_deg, 180 - push.front_deg) < 1e-6);
            CHECK(angle_between_deg(other.back_deg, 180 - push.back_deg) < 1e-6);
            CHECK(other.front_N.has_value() == push.front_N.has_value());
            if (push.front_N) CHECK(*other.front_N == Approx(*push.front_N));
            if (push.back_N) CHECK(*other.back_N == Approx(*push.back_N));
        }
    }
}

TEST_CASE("twice the torque presses twice as hard, and the arbor's weight stays what it was") {
    for (const std::string& name : demos) {
        Movement movement(name);
        const auto pressed = [&](double torque) {
            for (auto& [arbor, pull] : movement.pulls.at)
                if (pull.torque_N_mm) pull.torque_N_mm = torque;
            return movement.pushes();
        };
        // Far above its weight the weight is nothing.
        const Pushes once = pressed(1e6), twice = pressed(2e6);
        for (const auto& [arbor, push] : once) {
            INFO(name << " " << arbor);
            if (push.front_N) CHECK(*twice.at(arbor).front_N == Approx(2 * *push.front_N).epsilon(1e-3));
            CHECK(angle_between_deg(push.front_deg, twice.at(arbor).front_deg) < 0.1);
        }
        // Without any it hangs by its weight: straight down at both ends.
        for (const auto& [arbor, push] : pressed(1e-9)) {
            INFO(name << " " << arbor);
            if (push.front_N && *push.front_N > 1e-6) CHECK(angle_between_deg(push.front_deg, -90) < 1);
        }
    }
}

TEST_CASE("who does not know where a chain leaves the fusee is told no push of that arbor, and of the others all the same") {
    Movement movement("waiting-room");
    const Pushes before = movement.pushes();
    for (auto& [arbor, pull] : movement.pulls.at) pull.unknown = true;
    const Pushes after = movement.pushes();
    for (const auto& [arbor, pull] : movement.pulls.at) CHECK_FALSE(after.contains(arbor));
    for (const auto& [arbor, push] : before) CHECK(after.contains(arbor) != movement.pulls.at.contains(arbor));
}
