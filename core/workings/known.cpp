#include "workings/known.h"

namespace echappe {

std::string word_for(Known known) {
    switch (known) {
        case Known::measured:
            return "measured";
        case Known::derived:
            return "derived";
        case Known::assumed:
            return "assumed";
        case Known::missing:
            break;
    }
    return "missing";
}

}  // namespace echappe
