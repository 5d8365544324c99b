#pragma once

#include <QString>
#include <exception>
#include <string>

namespace echappe {

/// What is said, for the screen: the core's sentences and the window's own. All of it is English (CONTRIBUTING says why).
inline QString words(const std::string& text) { return QString::fromStdString(text); }
inline QString words(const char* text) { return QString::fromUtf8(text); }

/// What went wrong, as it is said to a person: "drum diameter: got nothing, takes a number above 0". The names of fields, which the
/// command line and the files use ("drives[0].drum_diameter_mm"), do not reach the window.
QString fault_in_words(const std::exception& fault);

}  // namespace echappe
