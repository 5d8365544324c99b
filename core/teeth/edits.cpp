#include "teeth/edits.h"

namespace echappe {

Edit<TeethRecord> set_form(const std::string& wheel_of, const std::string& pinion_of, GeometryInput geometry, const FormChoice& form) {
    geometry.form = form;
    tooth_geometry(geometry);
    return {"Teeth of " + wheel_of + "-" + pinion_of + ": " + school_of(form.school).words, [=](TeethRecord& teeth) {
                std::erase_if(teeth.forms, [&](const MeshForm& f) { return f.wheel_of == wheel_of && f.pinion_of == pinion_of; });
                if (!(form == FormChoice())) teeth.forms.push_back({wheel_of, pinion_of, form});
            }};
}

}  // namespace echappe
