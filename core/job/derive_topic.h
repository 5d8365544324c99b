#pragma once

#include <algorithm>
#include <exception>
#include <string>

#include "job/derived.h"

namespace echappe {

/// What throws in one topic leaves the others derived and says so in `faults`, until the topic is derived again. `clear` takes
/// away what was half done.
template <class Work, class Clear>
void derive_topic(Derived& derived, const std::string& topic, const Work& work, const Clear& clear) {
    std::erase_if(derived.faults, [&](const TopicFault& fault) { return fault.topic == topic; });
    try {
        work();
    } catch (const std::exception& error) {
        clear();
        derived.faults.push_back({topic, error.what()});
    }
}

}  // namespace echappe
