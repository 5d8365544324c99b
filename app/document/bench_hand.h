#pragma once

#include "document/settings.h"

#include "document/today.h"
#include "train/record.h"

namespace echappe {

/// Whose hand works at this bench, as it was said once; empty: not said.
inline std::string bench_hand() { return Settings().value("hand").toString().toStdString(); }
inline void set_bench_hand(const std::string& name) { Settings().setValue("hand", QString::fromStdString(name)); }
/// What is kept with a count or a reading.
inline Taken taken_with(const std::string& what) { return {bench_hand(), today(), what}; }

}  // namespace echappe
