#include "making/record.h"

#include <algorithm>

namespace echappe {

const Record& PartBlank::record() {
    using In = PartBlank;
    static const Record record =
        Fields<In>().add("part", &In::part, "", "the wheel, as in \"third.wheel\"").required().include(&In::choice);
    return record;
}

const Record& MakingRecord::record() {
    using In = MakingRecord;
    static const Record record = Fields<In>()
                                     .add("blanks", &In::blanks, "", "crossings, bore and thickness decided for single wheels")
                                     .add("dividing_head", &In::dividing_head, "", "the workshop's dividing head");
    return record;
}

BlankChoice MakingRecord::blank_of(const std::string& part) const {
    const auto at = std::find_if(blanks.begin(), blanks.end(), [&](const PartBlank& b) { return b.part == part; });
    return at == blanks.end() ? BlankChoice() : at->choice;
}

}  // namespace echappe
