#pragma once

#include "making/record.h"
#include "workings/edit.h"

namespace echappe {

/// How the blank of a part is to be; `part` as in "third.wheel".
Edit<MakingRecord> set_blank(const std::string& part, const BlankChoice& choice);

/// The head that divides, with its plates.
Edit<MakingRecord> divide_with(const DividingHead& head);

}  // namespace echappe
