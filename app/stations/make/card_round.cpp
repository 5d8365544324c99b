#include "stations/make/card_round.h"

#include "cards/steady_hand.h"
#include "document/bench_hand.h"
#include "document/today.h"
#include "drawing/words.h"
#include "number/input_error.h"
#include "number/units.h"
#include "train/edits.h"
#include "train/reading.h"

namespace echappe {

std::optional<ReadingRound::Asked> CardRound::asked() const {
    const DerivedCard* card = m_card();
    const CardStep* next = card ? card->next() : nullptr;
    if (!next || !next->reads) return {};
    Asked asked;
    asked.name = words("%1: %2").arg(words(card->name), words(next->words));
    asked.id = words(card->id + "." + next->id);
    asked.typed_as = words(m_document.job().length.symbol);
    if (next->asks) {
        asked.typed_as = words(typed_as(m_document.job().length, *next->asks));
        asked.how = words(next->asks->declared().how);
        asked.note = words(next->check);
        return asked;
    }
    asked.how = words("Read the part as it is, at three places; the sizes that follow are worked from this.");
    return asked;
}

QString CardRound::keep(const QString& text, bool) {
    const DerivedCard* card = m_card();
    const CardStep* next = card ? card->next() : nullptr;
    if (!next || !next->reads) throw InputError("reading", text.toStdString(), "nothing: this step ends without one");
    if (const auto key = next->asks) {
        const Evidence reading = read_evidence(m_document.job().train, m_document.job().length, *key, text.toStdString());
        m_document.edit(store_reading(m_document.job().train, reading, fresh_id(), taken_with("calliper")));
        return words("Kept with the movement: the card follows it. Undo with Ctrl+Z.");
    }
    const double read = parse_reading(text.toStdString(), m_document.job().length.unit(), "reading").value;
    const std::string id = card->id, step = next->id;
    m_end(DerivedCard(*card), CardStep(*next), read);
    const CardStep* kept = m_document.derived().cards.card(id)->step(step);
    return words(kept->verdict);
}

QString CardRound::simulated() {
    const DerivedCard* card = m_card();
    const CardStep* next = card ? card->next() : nullptr;
    if (!next || !next->reads || !m_document.calliper()) throw InputError("instrument", "none here", "your own: type what you read");
    if (next->asks) {
        const auto reading = m_document.calliper()->read(*next->asks, ++m_turn);
        if (!reading) throw InputError(next->words, "a calliper", "another instrument, or your own reading");
        return QString::number(*reading, 'f', 2);
    }
    return QString::number(made_by_a_steady_hand_mm(*next->size, ++m_turn), 'f', 2);
}

}  // namespace echappe
