#include "job/kinds.h"

#include <algorithm>
#include <cmath>

#include "job/new_job.h"
#include "number/input_error.h"
#include "number/numeral.h"
#include "topic.h"
#include "train/layout.h"

namespace echappe {

namespace {

/// A plate that nobody measured is as large as what is drawn on it, and no smaller than usual.
void fit_around(Plate& plate, const Job& job) {
    const auto [left, right, low, high] = extent_of(derive(job).train);
    constexpr double margin = 1.08;
    const double times = std::max({1.0, margin * (right - left) / plate.width_mm, margin * (high - low) / plate.height_mm});
    const auto larger = [&](double mm) { return std::round(mm * times); };
    plate.width_mm = larger(plate.width_mm);
    plate.height_mm = larger(plate.height_mm);
    for (auto& [x, y] : plate.pillars) x = larger(x), y = larger(y);
}

}  // namespace

const std::vector<KindOfMovement>& kinds_of_movement() {
    static const std::vector<KindOfMovement> kinds = {
        {"regulator", "weight regulator, eight days", "great ?, centre ?/?, third ?/?, escape ?/?\ncentre 1 h, seconds hand on escape",
         "weight", "pendulum", "about arched 140 x 200; pillars 9 at -58 10, 58 10, -58 165, 58 165", "deadbeat"},
        {"thirty-hours", "thirty hours, one weight for both trains",
         "great ?, second ?/?, escape ?/?\nstrike: strike great ?, pin ?/?, warning ?/?, fly ?\ngreat 1 h", "weight", "pendulum",
         "about rectangle 120 x 150; pillars 9 at -50 10, 50 10, -50 140, 50 140", "recoil"},
        {"spring-strike", "going barrel, count-wheel strike",
         "barrel ?, intermediate ?/?, centre ?/?, third ?/?, escape ?/?\n"
         "strike: strike barrel ?, strike second ?/?, pin ?/?, locking ?/?, warning ?/?, fly ?\ncentre 1 h",
         "spring", "pendulum", "about rectangle 110 x 130; pillars 7 at -48 8, 48 8, -48 122, 48 122", "recoil"},
        {"fusee", "two trains with fusees",
         "great ?, centre ?/?, third ?/?, escape ?/?\nstrike: strike great ?, pin ?/?, pallet ?/?, warning ?/?, fly ?\ncentre 1 h", "fusee",
         "pendulum", "about arched 150 x 180; pillars 9 at -65 10, 65 10, -62 150, 62 150", "recoil"},
        {"rewound", "rewound every few minutes by electricity", "centre ?, third ?/?, escape ?/?\ncentre 1 h", "rewound", "pendulum",
         "about rectangle 90 x 120; pillars 7 at -38 8, 38 8, -38 112, 38 112", "deadbeat"},
        {"alarm", "alarm with pin pallets",
         "barrel ?, centre ?/?, third ?/?, fourth ?/?, escape ?/?\nalarm: alarm barrel ?, alarm escape ?/?\ncentre 1 h", "spring",
         "balance", "about round 70; pillars 4 at -28 20, 28 20, 0 66", "pin-pallet"},
        {"watch", "watch with a lever", "barrel ?, centre ?/?, third ?/?, fourth ?/?, escape ?/?\ncentre 1 h, seconds hand on fourth",
         "spring", "balance", "about round 42; pillars 2 at -16 12, 16 12, -13 33, 13 33", "lever"},
        {"wooden", "wooden wall clock with quarters",
         "great ?, centre lantern ?/?, escape lantern ?/?\nquarters: quarter great ?, quarter pin lantern ?/?, quarter fly lantern ?\n"
         "hours: hour great ?, hour pin lantern ?/?, hour fly lantern ?\ncentre 1 h",
         "weight", "pendulum", "about rectangle 150 x 200 beech 90", "verge"},
        {"turret", "tower clock with two trains", "great ?, centre ?/?, escape ?/?\nstrike: strike great ?, pin ?/?, fly ?\ncentre 1 h",
         "weight", "pendulum", "about A 700 x 900 steel", "pin-wheel"},
    };
    return kinds;
}

Job begin_from(const std::string& id) {
    const auto& kinds = kinds_of_movement();
    const auto kind = std::find_if(kinds.begin(), kinds.end(), [&](const KindOfMovement& k) { return k.id == id; });
    if (kind == kinds.end()) {
        std::vector<std::string> ids;
        for (const KindOfMovement& one : kinds) ids.push_back(one.id);
        throw InputError("kind", in_quotes(id), listed(ids));
    }
    Job job = new_job(kind->text);
    for (const TrainList& train : job.train.trains) {
        DriveRecord drive;
        drive.train = train.id;
        drive.is = drive_kind(kind->drive);
        job.power.drives.push_back(drive);
    }
    job.oscillator = oscillator_of(kind->swings);
    job.train.plate = read_plate(kind->plate);
    fit_around(*job.train.plate, job);
    job.train.escapement = kind->escapement;
    return job;
}

}  // namespace echappe
