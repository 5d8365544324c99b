#pragma once

#include <string>

namespace echappe {

struct FlatPart;
struct TurnedSolid;

/// What the STEP module gives: the sentence of a fault, empty when it was written; a volume in mm³, 0 when there is none.
/// Both sides come from one build.
using StepWrite = void (*)(const FlatPart& part, const std::string& path, std::string& fault);
using StepTurn = void (*)(const TurnedSolid& part, const std::string& path, std::string& fault);
using StepVolume = double (*)(const std::string& path);

}  // namespace echappe
