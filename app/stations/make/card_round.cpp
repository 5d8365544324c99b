#include "stations/make/card_round.h"

#include <algorithm>
#include <cmath>

#include "document/today.h"
#include "drawing/words.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {

std::optional<ReadingRound::Asked> CardRound::asked() const {
    const DerivedCard* card = m_card();
    const CardStep* next = card ? card->next() : nullptr;
    if (!next || !next->reads) return {};
    Asked asked;
    asked.name = QObject::tr("%1: %2").arg(words(card->name), words(next->words));
    asked.id = words(card->id + "." + next->id);
    asked.typed_as = words(m_document.job().length.symbol);
    asked.how = QObject::tr("Read the part as it is, at three places; the sizes that follow are worked from this.");
    return asked;
}

QString CardRound::keep(const QString& text, bool) {
    const DerivedCard* card = m_card();
    const CardStep* next = card ? card->next() : nullptr;
    if (!next || !next->reads) throw InputError("reading", text.toStdString(), "nothing: this step ends without one");
    const double read = parse_reading(text.toStdString(), m_document.job().length.unit(), "reading").value;
    const std::string id = card->id, step = next->id;
    m_document.edit(end_step(id, step, read, today()));
    const CardStep* kept = m_document.derived().cards.card(id)->step(step);
    return words(kept->verdict);
}

QString CardRound::simulated() {
    const DerivedCard* card = m_card();
    const CardStep* next = card ? card->next() : nullptr;
    if (!next || !next->reads || !m_document.calliper()) throw InputError("instrument", "none here", "your own: type what you read");
    // As a steady hand makes it: near to the size, another each time.
    const CardSize& size = *next->size;
    constexpr double golden = 0.618, hundredth = 100, steady_mm = 0.03;
    const double part = std::fmod(golden * static_cast<double>(++m_turn), 1.0) - 0.5;
    const double read = std::clamp(size.nominal_mm + part * std::min(steady_mm, size.max_mm - size.min_mm), size.min_mm, size.max_mm);
    return QString::number(std::max(0.0, std::round(hundredth * read) / hundredth), 'f', 2);
}

}  // namespace echappe
