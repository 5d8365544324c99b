#pragma once

#include "workings/calculation.h"

namespace echappe {

struct EqualSetInput {
    std::vector<double> lengths_mm;   ///< as they were read
    double limit_mm = 0.01;           ///< that may stay between them
    std::optional<double> wanted_mm;  ///< their length; nothing: the shortest is the measure of all
    static const Record& record();
};

/// What one of the set still has over.
struct SetPiece {
    long long piece = 1;  ///< counted from 1
    double take_off_mm = 0;
    static const Record& record();
};

/// What one of the set wants of the length.
struct ShortPiece {
    long long piece = 1;
    double short_mm = 0;
    static const Record& record();
};

struct EqualSetResult {
    double shortest_mm = 0;
    double target_mm = 0;   ///< that all are brought to: what is wanted, else the shortest
    long long stop_by = 1;  ///< the piece that the lathe's stop is set by
    double spread_mm = 0;
    std::vector<SetPiece> take_off;     ///< of those that are too long, the longest first
    std::vector<ShortPiece> too_short;  ///< of those that are shorter than wanted: remade or packed, the others are not cut to them
    bool equal = false;
    std::string verdict;
    static const Record& record();
};

/// Feet, pillars or studs that must be of one length: metal can be taken and not given, so the shortest is the measure of all where no
/// length is wanted. Where one is, what is longer comes down to it, and what is shorter is made anew or packed.
EqualSetResult equal_set(const EqualSetInput& input);
std::vector<Working> explain_equal_set(const EqualSetInput& input, const EqualSetResult& result);
const Calculation& equal_set_calculation();

}  // namespace echappe
