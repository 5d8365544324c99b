#pragma once

#include <string>

#include "teeth/form_choice.h"

namespace echappe {

/// A size of a mesh as its module gives it: per_module × m + fixed.
struct MeshSize {
    double per_module = 0;
    double fixed_mm = 0;  ///< a trundle of given diameter does not grow with the module

    double at(double module_mm) const { return per_module * module_mm + fixed_mm; }
    double module_of(double size_mm) const { return (size_mm - fixed_mm) / per_module; }
};

/// The size that a kind of evidence speaks of (a centre distance, a diameter over the tips or at the roots, a module) in a form
/// of tooth. A lantern wheel's height is that for trundles of 1.1 m, whatever their diameter: under 0.1 m from the truth for
/// trundles of 1.0 to 1.25 m.
MeshSize mesh_size(const std::string& kind, const FormChoice& form, long long wheel, long long pinion);

}  // namespace echappe
