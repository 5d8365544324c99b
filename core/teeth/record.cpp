#include "teeth/record.h"

#include <algorithm>

namespace echappe {

const Record& MeshForm::record() {
    using In = MeshForm;
    static const Record record = Fields<In>()
                                     .add("wheel_of", &In::wheel_of, "", "arbor of the wheel")
                                     .required()
                                     .add("pinion_of", &In::pinion_of, "", "arbor of the pinion")
                                     .required()
                                     .include(&In::form);
    return record;
}

const Record& TeethRecord::record() {
    using In = TeethRecord;
    static const Record record = Fields<In>().add("forms", &In::forms, "", "forms of the meshes that are not of the clock's school");
    return record;
}

FormChoice TeethRecord::form_of(const std::string& wheel_of, const std::string& pinion_of) const {
    const auto at =
        std::find_if(forms.begin(), forms.end(), [&](const MeshForm& f) { return f.wheel_of == wheel_of && f.pinion_of == pinion_of; });
    return at == forms.end() ? FormChoice() : at->form;
}

}  // namespace echappe
