#pragma once

#include "teeth/geometry.h"
#include "teeth/record.h"
#include "workings/edit.h"

namespace echappe {

/// The form of tooth of a mesh, whose other sizes stand in `geometry`. Throws InputError when its sizes cannot be.
Edit<TeethRecord> set_form(const std::string& wheel_of, const std::string& pinion_of, GeometryInput geometry, const FormChoice& form);

}  // namespace echappe
