#pragma once

#include <QString>

namespace echappe {

/// The terms of the trade, as they stand in data/help/terms.md.
QString terms_of_the_trade();
/// "side shake: how far a pivot can move …" for the longest term that stands in these words, alone or in the plural; empty: none.
QString meaning_in(const QString& words);

}  // namespace echappe
