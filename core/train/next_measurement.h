#pragma once

#include "train/restore_model.h"

namespace echappe::restore {

/// A candidate with its weight, as the search holds it.
struct Weighed {
    double weight;
    const Model::Counts* counts;
    const std::vector<MeshFit>* fits;
};
inline constexpr size_t weighed_at_most = 256;

/// The measurement with the largest expected drop of the entropy of the weights, if it were taken with the
/// workshop's instrument; none when under 0.01 bit is left to learn. Only what can be measured is proposed:
/// a lost part has no outside diameter. Expected drop = mutual information of candidate and reading, the
/// reading's distribution being a mixture of Gaussians (integrated to about 1e-3 bit).
std::optional<NextMeasurement> next_measurement(const Model& model, const std::vector<Weighed>& candidates);

/// Entropy drop in bits from a reading distributed N(mean, sigma²) under each candidate.
struct Prediction {
    double weight;
    double mean;
    double sigma;
};
double information_bits(const std::vector<Prediction>& predictions);

}  // namespace echappe::restore

namespace echappe {

/// What a reading should leave of the counts that still compete, as one says it: "it should leave about 3 of 131", "1 or 2 of the 4", "it
/// should settle it". Counts are weighed: so many equally likely ones leave as much open (2 to the entropy).
std::string leaves_in_words(double entropy_bits, double drop_bits);

}  // namespace echappe
