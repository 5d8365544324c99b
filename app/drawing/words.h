#pragma once

#include <QString>
#include <exception>
#include <string>

namespace echappe {

/// The core's texts, for the screen.
inline QString words(const std::string& text) { return QString::fromStdString(text); }

/// What went wrong, as it is said to a person: "drum diameter: got nothing, takes a number above 0". The names of fields, which the
/// command line and the files use ("drives[0].drum_diameter_mm"), do not reach the window.
QString fault_in_words(const std::exception& fault);

}  // namespace echappe
