#pragma once

#include "drawing/words.h"
#include "instruments/reading_round.h"

namespace echappe {

/// The reading that ends the step of a card, where it ends with one.
class CardRound : public ReadingRound {
public:
    /// `end`: the step is done, with this reading.
    using End = std::function<void(const DerivedCard& card, const CardStep& step, double read_mm)>;
    CardRound(Document& document, std::function<const DerivedCard*()> card, End end)
        : m_document(document), m_card(std::move(card)), m_end(std::move(end)) {}

    std::optional<Asked> asked() const override;
    std::function<void()> hold() override {
        return [] {};
    }
    void step(int) override {}
    QString keep(const QString& text, bool simulated) override;
    QString simulated() override;
    QString instrument() const override { return words("calliper"); }
    QString precision() const override { return words("as a steady hand makes it"); }
    std::vector<LineKey> keys() const override {
        return {{words("Enter keeps it: the step is done"), {Qt::Key_Return}}, {words("? how"), {Qt::Key_Question}}};
    }

private:
    Document& m_document;
    std::function<const DerivedCard*()> m_card;
    End m_end;
    std::uint64_t m_turn = 0;
};

}  // namespace echappe
