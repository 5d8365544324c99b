#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace echappe::written {

/// A word of the text and where it stands.
struct Word {
    enum class Is { name, quoted, number, sign };
    Is is = Is::name;
    std::string text;  ///< of a quoted one without its marks
    size_t at = 0;
    size_t length = 0;

    size_t end() const { return at + length; }
    bool sign(char c) const { return is == Is::sign && text.size() == 1 && text[0] == c; }
    /// In any case of letters.
    bool says(std::string_view word) const;
};

/// What stands between two commas.
struct Item {
    std::vector<Word> words;
    size_t at = 0;
    size_t end = 0;
};

/// What stands between two semicolons or line ends: "head: item, item".
struct Statement {
    std::vector<Word> head;  ///< before the colon; empty without one
    bool headed = false;
    std::vector<Item> items;
};

/// Cuts the text at line ends, semicolons, colons and commas that stand in no quotation marks. An empty item stands for nothing.
std::vector<Statement> statements_of(std::string_view text);

/// "Great" for "great".
std::string capital(std::string text);

}  // namespace echappe::written
