#pragma once

#include "cards/derive.h"
#include "workings/sum.h"

namespace echappe {

/// Sizes of a part that was begun by hand, as they are typed; of one that was decided elsewhere what is known of it.
SumAnswer card_sizes_sheet(const CardsRecord& record, const DerivedCards& derived, const std::string& card);
/// What is typed there: a size, why its teeth are mended in the way that was chosen, or why it is cut though something forbids it. Throws
/// InputError.
void type_into_card(CardsRecord& record, const std::string& card, const std::string& field, const std::string& word,
                    const std::string& date = {});
/// Metal, minutes and money of a card, and of all.
SumAnswer card_stock_sheet(const DerivedCards& derived, const std::string& card);
/// What must be bought.
SumAnswer card_shopping_sheet(const DerivedCards& derived);
/// Id of the part begun by hand that a card, or one that cannot be planned yet, belongs to: "3" of "set:3.2"; empty: decided elsewhere.
std::string begun_of(const CardsRecord& record, const std::string& card);

}  // namespace echappe
