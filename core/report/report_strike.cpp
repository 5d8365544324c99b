#include "report/report_strike.h"

namespace echappe {

void tell_strike(Derived& derived, JobReport& report) {
    if (DerivedStrike& strike = derived.strike; strike.there) {
        ReportStrike out;
        out.day = std::move(strike.day);
        out.heard = std::move(strike.heard);
        if (strike.measured) out.count_wheel = std::move(strike.wheel), out.snail = std::move(strike.snail);
        out.train = std::move(derived.strike_train.train);
        out.together = std::move(derived.strike_train.together);
        report.strike = std::move(out);
    }
    if (DerivedAlarm& alarm = derived.alarm; alarm.there) {
        report.alarm.emplace();
        if (alarm.measured) report.alarm->cam = std::move(alarm.cam);
        report.alarm->silent = std::move(alarm.silent);
        report.alarm->ring = std::move(alarm.ring);
    }
    if (DerivedHands& hands = derived.hands; hands.there) {
        report.hands.emplace();
        report.hands->friction = std::move(hands.friction);
        report.hands->rooms = std::move(hands.pipes);
        report.hands->rooms.insert(report.hands->rooms.end(), hands.heights.begin(), hands.heights.end());
        report.hands->oil = std::move(hands.oil);
    }
    report.wood = std::move(derived.wood.meshes);
    report.cards = std::move(derived.cards.cards);
}

const Record& ReportStrike::record() {
    using Out = ReportStrike;
    static const Record record = Fields<Out>()
                                     .add("day", &Out::day, "", "with what is thought to be wrong")
                                     .add("heard", &Out::heard, "", "what would strike as it was heard")
                                     .add("count_wheel", &Out::count_wheel, "", "where it was measured")
                                     .add("snail", &Out::snail, "", "where it was measured")
                                     .add("train", &Out::train, "", "as strike.train")
                                     .add("together", &Out::together, "", "how it stands locked");
    return record;
}

const Record& ReportAlarm::record() {
    using Out = ReportAlarm;
    static const Record record = Fields<Out>()
                                     .add("cam", &Out::cam, "", "where it was measured")
                                     .add("silent", &Out::silent, "", "of the strike at night")
                                     .add("ring", &Out::ring, "", "how many blows, how long");
    return record;
}

const Record& ReportHands::record() {
    using Out = ReportHands;
    static const Record record = Fields<Out>()
                                     .add("friction", &Out::friction, "", "as hands.friction")
                                     .add("rooms", &Out::rooms, "", "between pipes, hands, dial and glass")
                                     .add("oil", &Out::oil, "", "what gets some, and what never");
    return record;
}

}  // namespace echappe
