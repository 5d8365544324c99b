#include "workings/finding.h"

namespace echappe {

const Record& Finding::record() {
    static const Record record = Fields<Finding>()
                                     .add("id", &Finding::id, "", "stable id")
                                     .add("severity", &Finding::severity, "", "fault, caution or note")
                                     .add("sentence", &Finding::sentence, "", "the judgement")
                                     .add("reason", &Finding::reason, "", "why")
                                     .add("arbor", &Finding::arbor, "", "where to look")
                                     .add("verdict", &Finding::verdict, "", "accepted or overruled by the craftsman, else empty");
    return record;
}

}  // namespace echappe
