#pragma once

#include <fstream>
#include <sstream>
#include <string>

#include "job/file.h"
#include "simulate/practice.h"
#include "train/derive.h"

namespace demo {

inline std::string text(const std::string& file) {
    std::ifstream in(std::string(DEMO_FOLDER) + "/" + file);
    std::ostringstream all;
    all << in.rdbuf();
    return all.str();
}

/// The tide-house regulator as it stands at the start: third arbor lost, beats and one module known.
inline echappe::Job job() { return echappe::job_from_text(text("tide-house.echappe.json")).job; }

/// "waiting-room"
inline echappe::Job job(const std::string& name) { return echappe::job_from_text(text(name + ".echappe.json")).job; }

/// Its hidden truth: 90 and 12.
inline echappe::HiddenMovement truth() { return echappe::practice_from_text(text("tide-house.practice.json")); }

inline echappe::QuantityKey centre_distance(const std::string& wheel, const std::string& pinion) {
    return {"centre_distance_mm", {}, wheel, pinion};
}
inline echappe::QuantityKey wheel_diameter(const std::string& arbor) { return {"wheel_outside_diameter_mm", arbor, {}, {}}; }
inline echappe::QuantityKey pinion_diameter(const std::string& arbor) { return {"pinion_outside_diameter_mm", arbor, {}, {}}; }

inline echappe::Evidence of_arbor(const std::string& kind, const std::string& arbor, double value, double u) {
    return {{kind, arbor, {}, {}}, value, u};
}

/// What the solver is asked for a job.
inline echappe::RestoreInput question(const echappe::Job& job) { return echappe::restore_input(job.train, job.teeth); }

/// Adds the true value of a quantity as a reading.
inline void measure(echappe::Job& job, const echappe::QuantityKey& key, double u, double spoil_mm = 0) {
    const std::string id = "t" + std::to_string(job.train.measurements.size());
    job.train.measurements.push_back({id, {key, *truth().truth(key) + spoil_mm, u}, "test", "", "", false});
}

/// All that can be read on the demo, exactly, with the uncertainties a calliper deserves.
inline echappe::Job measured_job() {
    echappe::Job all = job();
    measure(all, centre_distance("centre", "third"), 0.05);
    measure(all, centre_distance("third", "escape"), 0.05);
    measure(all, wheel_diameter("centre"), 0.02);
    measure(all, pinion_diameter("escape"), 0.02);
    all.train.measurements.push_back(
        {"leaf", {{"module_mm", {}, "third", "escape"}, 0.6, 0.006}, "rubbing of the escape pinion", "", "", false});
    return all;
}

}  // namespace demo
