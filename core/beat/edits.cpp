#include "beat/edits.h"

#include <cmath>

#include "number/units.h"

namespace echappe {

Edit<RateLog> keep_heard(const BeatAnalysisResult& heard, const std::string& from, const std::string& longer_side, double reference_s) {
    HeardRate kept;
    kept.reference_s = reference_s;
    kept.from = from;
    kept.seconds = heard.seconds;
    kept.rate_s_per_day = heard.rate_s_per_day, kept.u_s_per_day = heard.u_s_per_day;
    kept.beat_error_ms = heard.beat_error_ms, kept.beat_error_u_ms = heard.beat_error_u_ms;
    kept.longer_side = longer_side;
    kept.amplitude_deg = heard.amplitude_deg;
    for (const PeriodicFault& fault : heard.periodic_faults)
        kept.faults.push_back({fault.kind, fault.period_s, fault.arbor.value_or(""), fault.amplitude_ms, fault.u_ms});
    return {"keep what is heard", [kept](RateLog& log) { log.heard.push_back(kept); }};
}

Edit<RateLog> put_in_beat(double turn_deg, bool balance, double reference_s) {
    RateEvent event;
    event.reference_s = reference_s;
    event.means = "beat";
    event.amount = turn_deg;
    const std::string way = balance ? (turn_deg > 0 ? "clockwise" : "anticlockwise") : (turn_deg > 0 ? "to the right" : "to the left");
    event.what = std::string(balance ? "collet turned " : "crutch bent ") + print_short(std::abs(turn_deg), 2) + "° " + way;
    return {event.what, [event](RateLog& log) { log.events.push_back(event); }};
}

Edit<RateLog> look_taken(const RateObservation& look) {
    return {"Look at the clock", [=](RateLog& log) {
                look_taken_out(look.reference_s).change(log);
                log.looks.push_back(look);
            }};
}

Edit<RateLog> look_taken_out(double reference_s) {
    return {"Take a look out",
            [=](RateLog& log) { std::erase_if(log.looks, [&](const RateObservation& look) { return look.reference_s == reference_s; }); }};
}

Edit<RateLog> rate_event(const RateEvent& event) {
    return {event.what, [=](RateLog& log) { log.events.push_back(event); }};
}

}  // namespace echappe
