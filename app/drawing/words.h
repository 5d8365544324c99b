#pragma once

#include <QString>
#include <string>

namespace echappe {

/// The core's texts, for the screen.
inline QString words(const std::string& text) { return QString::fromStdString(text); }

}  // namespace echappe
