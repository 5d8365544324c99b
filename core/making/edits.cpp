#include "making/edits.h"

#include <algorithm>

namespace echappe {

Edit<MakingRecord> set_blank(const std::string& part, const BlankChoice& choice) {
    std::string words = part;
    std::replace(words.begin(), words.end(), '.', ' ');
    return {"Blank of " + words, [=](MakingRecord& making) {
                std::erase_if(making.blanks, [&](const PartBlank& blank) { return blank.part == part; });
                if (!(choice == BlankChoice())) making.blanks.push_back({part, choice});
            }};
}

Edit<MakingRecord> divide_with(const DividingHead& head) {
    return {"Divide with the workshop's plates", [=](MakingRecord& making) { making.dividing_head = head; }};
}

}  // namespace echappe
