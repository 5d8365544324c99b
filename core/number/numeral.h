#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace echappe {

/// The one reader of numbers: every entry, file and command takes its figures through it, so that none of them can be other
/// than finite, and "35.12" and "35,12" mean the same everywhere, whatever the system's language.

/// A decimal number, point or comma, with or without sign ("−" too) and exponent: "35.12", ",35", "+1e-3". White space of any
/// kind around it is passed over. Nothing for any other word, for "nan" and "inf", and for what a double cannot hold (1e999).
std::optional<double> read_number(std::string_view text);

/// Digits with or without a sign, up to 18 of them. Nothing for any other word.
std::optional<long long> read_whole(std::string_view text);

/// What was pasted as it would be typed: no-break and thin spaces, line ends and tabs are spaces, a typographic minus is a
/// hyphen; nothing around it.
std::string as_typed(std::string_view text);

/// The text in quotation marks, cut after some 60 letters: a sentence stays one.
std::string in_quotes(std::string_view text);

/// In small letters, where the alphabet is ours.
std::string lower(std::string_view text);

/// "a, b, c".
std::string listed(const std::vector<std::string>& words);

/// Cut after at most `most` bytes, never within a letter, with "…" for what is left out.
std::string shortened(std::string_view text, size_t most);

}  // namespace echappe
