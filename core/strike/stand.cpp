#include "strike/stand.h"

#include <algorithm>

#include "number/constants.h"

namespace echappe {

long long blows_given(const DerivedStrike& strike, size_t struck, long long blows) {
    long long all = blows;
    for (size_t i = 0; i < std::min(struck, strike.day.size()); ++i) all += strike.day[i].strikes.value_or(0);
    return all;
}

RackStand rack_stand(const DerivedStrike& strike, const std::vector<StrikeFault>& faults, size_t struck, long long blows) {
    const SnailResult& snail = *strike.snail;
    const auto steps = static_cast<long long>(snail.steps.size());
    const bool within = blows > 0;
    const StruckHour& now = within ? strike.day[struck % strike.day.size()] : strike.day[struck > 0 ? struck - 1 : 0];
    RackStand stand;
    stand.step = static_cast<size_t>(std::clamp(now.should, 1LL, steps) - 1);
    // A hand that is set wrong shows another hour than the snail.
    long long fallen = now.should;
    for (const StrikeFault& fault : faults) {
        if (fault.what == "hand set")
            stand.step = static_cast<size_t>((now.should - 1 + static_cast<long long>(fault.hour.value_or(1)) - 1) % steps);
        if (fault.what == "tail bent") fallen += fault.teeth.value_or(0);
    }
    fallen = now.strikes.value_or(std::max(1LL, fallen));
    long long stays = 0;
    for (const StrikeFault& fault : faults)
        if (fault.what == "tooth lost" && fault.tooth.value_or(0) <= fallen) stays = std::max(stays, *fault.tooth);
    const long long gathered = within ? std::min(blows, fallen - stays) : fallen;
    stand.left_to_gather = within ? fallen - gathered : 0;
    stand.locked = stand.left_to_gather == 0;
    const double pitch_rad = strike.snail_input.tooth_pitch_deg * rad_per_deg;
    stand.tail_rad = tail_rad(strike.snail_input, snail.steps[stand.step].radius_mm) + static_cast<double>(gathered) * pitch_rad;
    return stand;
}

}  // namespace echappe
