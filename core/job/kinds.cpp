#include "job/kinds.h"

#include <algorithm>

#include "job/new_job.h"
#include "number/input_error.h"
#include "number/numeral.h"

namespace echappe {

const std::vector<KindOfMovement>& kinds_of_movement() {
    static const std::vector<KindOfMovement> kinds = {
        {"regulator", "weight regulator, eight days", "great ?, centre ?/?, third ?/?, escape ?/?\ncentre 1 h, seconds hand on escape",
         "weight", "pendulum"},
        {"thirty-hours", "thirty hours, one weight for both trains",
         "great ?, second ?/?, escape ?/?\nstrike: strike great ?, pin ?/?, warning ?/?, fly ?\ngreat 1 h", "weight", "pendulum"},
        {"spring-strike", "going barrel, count-wheel strike",
         "barrel ?, intermediate ?/?, centre ?/?, third ?/?, escape ?/?\n"
         "strike: strike barrel ?, strike second ?/?, pin ?/?, locking ?/?, warning ?/?, fly ?\ncentre 1 h",
         "spring", "pendulum"},
        {"fusee", "two trains with fusees",
         "great ?, centre ?/?, third ?/?, escape ?/?\nstrike: strike great ?, pin ?/?, pallet ?/?, warning ?/?, fly ?\ncentre 1 h", "fusee",
         "pendulum"},
        {"rewound", "rewound every few minutes by electricity", "centre ?, third ?/?, escape ?/?\ncentre 1 h", "rewound", "pendulum"},
        {"alarm", "alarm with pin pallets",
         "barrel ?, centre ?/?, third ?/?, fourth ?/?, escape ?/?\nalarm: alarm barrel ?, alarm escape ?/?\ncentre 1 h", "spring",
         "balance"},
        {"watch", "watch with a lever", "barrel ?, centre ?/?, third ?/?, fourth ?/?, escape ?/?\ncentre 1 h, seconds hand on fourth",
         "spring", "balance"},
        {"wooden", "wooden wall clock with quarters",
         "great ?, centre lantern ?/?, escape lantern ?/?\nquarters: quarter great ?, quarter pin lantern ?/?, quarter fly lantern ?\n"
         "hours: hour great ?, hour pin lantern ?/?, hour fly lantern ?\ncentre 1 h",
         "weight", "pendulum"},
        {"turret", "tower clock with two trains", "great ?, centre ?/?, escape ?/?\nstrike: strike great ?, pin ?/?, fly ?\ncentre 1 h",
         "weight", "pendulum"},
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
    return job;
}

}  // namespace echappe
