#pragma once

namespace echappe {

/// Files of data/ that people read and change, as they were when this was built.
extern const char* const diagnosis_json;
extern const char* const cautions_json;

}  // namespace echappe
