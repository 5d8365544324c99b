#pragma once

#include <stdexcept>
#include <string>

namespace echappe {

/// What was given cannot be used. `what()` is one sentence that names the field, what it got and
/// what it takes: "arbors[1].pinion: got 0, takes 4 to 200". What was given is cut when it is long.
class InputError : public std::runtime_error {
public:
    InputError(std::string field, std::string got, std::string accepts);

    const std::string& field() const { return m_field; }
    const std::string& got() const { return m_got; }
    const std::string& accepts() const { return m_accepts; }

private:
    std::string m_field;
    std::string m_got;
    std::string m_accepts;
};

}  // namespace echappe
