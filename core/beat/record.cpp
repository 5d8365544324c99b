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
            .add("means", &In::means, "",
                 "nut, tray, pins, screws.0, or beat: the crutch or the collet by degrees, positive to the right or clockwise; empty: the "
                 "nut of a pendulum, the pins of a balance")
            .add("expected_s_per_day", &In::expected_s_per_day, "s/d", "change told before it was done", between(-1e5, 1e5));
    return record;
}

const Record& HeardFault::record() {
    using In = HeardFault;
    static const Record record = Fields<In>()
                                     .add("kind", &In::kind, "", "wave: once a turn; tooth: a beat or two of every turn")
                                     .choices({"wave", "tooth"})
                                     .required()
                                     .add("period_s", &In::period_s, "s", "of a turn", above(0, 1e7))
                                     .required()
                                     .add("arbor", &In::arbor, "", "that turns in this time; empty: none of the train")
                                     .add("amplitude_ms", &In::amplitude_ms, "ms", "to one side; a tooth: how late", between(-1e5, 1e5))
                                     .add("u_ms", &In::u_ms, "ms", "standard uncertainty", between(0, 1e5));
    return record;
}

const Record& HeardRate::record() {
    using In = HeardRate;
    static const Record record =
        Fields<In>()
            .add("reference_s", &In::reference_s, "s", "when, by the reference", between(-1e12, 1e12))
            .required()
            .add("from", &In::from, "", "with what it was heard")
            .add("seconds", &In::seconds, "s", "that were listened to", between(0, 1e7))
            .add("rate_s_per_day", &In::rate_s_per_day, "s/d", "positive gains", between(-1e6, 1e6))
            .add("u_s_per_day", &In::u_s_per_day, "s/d", "standard uncertainty", between(0, 1e6))
            .add("beat_error_ms", &In::beat_error_ms, "ms", "half the difference of two successive beats", between(0, 1e5))
            .add("beat_error_u_ms", &In::beat_error_u_ms, "ms", "standard uncertainty", between(0, 1e5))
            .add("longer_side", &In::longer_side, "",
                 "where the bob is in the longer beat, or which way a balance swings out in it; empty: nobody looked")
            .choices({"", "left", "right", "cw", "ccw"})
            .add("amplitude_deg", &In::amplitude_deg, "deg", "of a balance", between(0, 720))
            .add("faults", &In::faults, "", "what came back with a turn");
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
            .add("recorder_ppm", &In::recorder_ppm, "ppm", "its own time gains so many millionths", between(-10000, 10000))
            .add("recorder_u_ppm", &In::recorder_u_ppm, "ppm", "how sure that is; 1 is 0.09 s/d", between(0, 10000))
            .because("of a recorder that was never compared with a better clock; most are within 20 to 50")
            .add("looks", &In::looks, "", "at the clock beside the reference")
            .add("events", &In::events, "", "what was done to the rate")
            .add("heard", &In::heard, "", "rate and beat error by the sound");
    return record;
}

}  // namespace echappe
