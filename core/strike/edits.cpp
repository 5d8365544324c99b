#include "strike/edits.h"

#include <algorithm>
#include <cmath>

namespace echappe {
namespace {

using StrikePart = std::optional<StrikeRecord>;

/// The fault at one place becomes the next of its kinds, and after the last of them none.
Edit<StrikePart> next_of(const std::string& name, const std::vector<StrikeFault>& kinds) {
    return {name, [kinds](StrikePart& strike) {
                if (!strike) return;
                for (size_t i = 0; i < kinds.size(); ++i) {
                    const auto at = std::find(strike->faults.begin(), strike->faults.end(), kinds[i]);
                    if (at == strike->faults.end()) continue;
                    if (i + 1 < kinds.size()) *at = kinds[i + 1];
                    else strike->faults.erase(at);
                    return;
                }
                strike->faults.push_back(kinds.front());
            }};
}

}  // namespace

Edit<std::optional<StrikeRecord>> begin_strike(const std::string& kind, const std::string& scheme) {
    return {kind == "rack" ? "rack and snail" : "count wheel", [kind, scheme](StrikePart& strike) {
                if (!strike) strike.emplace();
                strike->kind = kind, strike->scheme = scheme;
                strike->faults.clear();
            }};
}

Edit<std::optional<StrikeRecord>> try_slot(long long slot) {
    return next_of("slot " + std::to_string(slot) + " tried", {{"slot wide", slot, {}, {}, {}}, {"slot shallow", slot, {}, {}, {}}});
}

Edit<std::optional<StrikeRecord>> try_tooth(long long tooth) {
    return next_of("tooth " + std::to_string(tooth) + " tried", {{"tooth lost", {}, tooth, {}, {}}});
}

Edit<std::optional<StrikeRecord>> try_step(long long step) {
    return next_of("step " + std::to_string(step) + " tried", {{"step off", {}, {}, step, 1}, {"step off", {}, {}, step, -1}});
}

Edit<std::optional<StrikeRecord>> hear_strike(const HeardStrike& heard, std::optional<double> seconds_per_blow) {
    return {"strike heard", [heard, seconds_per_blow](StrikePart& strike) {
                if (!strike) return;
                if (!strike->seconds_per_blow) strike->seconds_per_blow = seconds_per_blow;
                constexpr double same = 1e-6;
                for (HeardStrike& one : strike->heard)
                    if (std::abs(one.hour - heard.hour) < same) {
                        one = heard;
                        return;
                    }
                strike->heard.push_back(heard);
            }};
}

Edit<std::optional<StrikeRecord>> mend_strike() {
    return {"strike put right", [](StrikePart& strike) {
                if (!strike) return;
                strike->mended.insert(strike->mended.end(), strike->faults.begin(), strike->faults.end());
                strike->faults.clear();
                strike->heard.clear();
            }};
}

Edit<std::optional<StrikeRecord>> set_role(const std::string& role, const std::string& arbor) {
    return {"arbor that " + (role == "pins" ? std::string("carries the pins") : role), [role, arbor](StrikePart& strike) {
                if (!strike) strike.emplace();
                if (role == "pins") strike->pin_arbor = arbor;
                else if (role == "locks") strike->locking = arbor;
                else strike->warning = arbor;
                const bool known = std::find(strike->whole.begin(), strike->whole.end(), arbor) != strike->whole.end() ||
                                   std::find(strike->gathering.begin(), strike->gathering.end(), arbor) != strike->gathering.end();
                if (role != "pins" && !known) strike->whole.push_back(arbor);
            }};
}

Edit<std::optional<StrikeRecord>> try_whole(const std::string& what) { return next_of(what + " tried", {{what, {}, {}, {}, {}}}); }

Edit<std::optional<StrikeRecord>> try_faults(const std::vector<StrikeFault>& faults) {
    return {faults.empty() ? "strike without faults" : "strike as it was heard", [faults](StrikePart& strike) {
                if (strike) strike->faults = faults;
            }};
}

}  // namespace echappe
