#include "oscillator/edits.h"

namespace echappe {

Edit<std::optional<OscillatorRecord>> begin_swinging(const std::string& kind) {
    return {"What swings", [fresh = oscillator_of(kind)](std::optional<OscillatorRecord>& there) { there = fresh; }};
}

}  // namespace echappe
