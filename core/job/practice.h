#pragma once

#include <cstdint>

#include "job/job.h"

namespace echappe {

/// A movement with its truth, hidden from the job: what the simulated instruments read.
struct HiddenMesh {
    std::string wheel_of;
    std::string pinion_of;
    double module_mm = 0;
    double centre_error_mm = 0;  ///< how far the holes are from what the teeth want
    static const Record& record();
};

struct HiddenMovement {
    std::string format = "echappe practice";
    long long seed = 1;
    TrainInput train;
    std::vector<HiddenMesh> meshes;
    std::vector<MeshForm> forms;
    double pendulum_length_mm = 0;
    static const Record& record();

    /// The true size; none when the movement has no such thing.
    std::optional<double> truth(const QuantityKey& key) const;
};

/// Throws InputError naming the place.
HiddenMovement practice_from_text(const std::string& text);

/// A calliper that reads to 0.01 mm with 0.01 mm noise (one sigma). The same seed, quantity and turn give
/// the same reading.
class SimulatedCalliper {
public:
    static constexpr double resolution_mm = 0.01;
    static constexpr double noise_mm = 0.01;
    explicit SimulatedCalliper(HiddenMovement movement) : m_movement(std::move(movement)) {}

    /// The `turn`-th reading of this quantity, in mm; none when the calliper cannot take it.
    std::optional<double> read(const QuantityKey& key, std::uint64_t turn) const;

private:
    HiddenMovement m_movement;
};

}  // namespace echappe
