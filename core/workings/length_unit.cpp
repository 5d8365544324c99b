#include "workings/length_unit.h"

namespace echappe {

const Record& LengthUnit::record() {
    using In = LengthUnit;
    static const Record record = Fields<In>()
                                     .add("length_unit", &In::symbol, "", "unit shown")
                                     .choices({"mm", "in"})
                                     .because("drawings and cutters are metric in most places");
    return record;
}

}  // namespace echappe
