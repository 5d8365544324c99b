#include "beat/record.h"

namespace echappe {

const Record& RateEvent::record() {
    using In = RateEvent;
    static const Record record =
        Fields<In>()
            .add("reference_s", &In::reference_s, "s", "when, by the reference", between(-1e12, 1e12))
            .required()
            .add("what", &In::what, "", "was done")
            .required()
            .add("amount", &In::amount, "", "turns of the nut or of screws, grams on the tray, mm of the pins; positive is meant to gain",
                 between(-1e4, 1e4))
            .add("means", &In::means, "", "nut, tray, pins or screws.0; empty: the nut of a pendulum, the pins of a balance")
            .add("expected_s_per_day", &In::expected_s_per_day, "s/d", "change told before it was done", between(-1e5, 1e5));
    return record;
}

const Record& RateLog::record() {
    using In = RateLog;
    static const Record record =
        Fields<In>()
            .add("reading_u_s", &In::reading_u_s, "s", "standard uncertainty of a look", above(0, 1e4))
            .because("by eye and a seconds hand; 0.1 with a camera or a click")
            .add("wanted_u_s_per_day", &In::wanted_u_s_per_day, "s/d", "how sure the rate should be", above(0, 1e4))
            .because("closer than the clock keeps its rate from day to day")
            .add("looks", &In::looks, "", "at the clock beside the reference")
            .add("events", &In::events, "", "what was done to the rate");
    return record;
}

}  // namespace echappe
