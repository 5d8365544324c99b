#include "workings/card_station.h"

#include "drawing/words.h"

namespace echappe {

CardStation::CardStation(Document& document, std::vector<SumCard::Tab> tabs, QWidget* parent)
    : Station(document, parent), m_card(new SumCard(document, std::move(tabs), this)) {
    connect(m_card, &SumCard::told, this, &CardStation::told);
}

void CardStation::lay_out() { put(*m_card, QRectF(width() - SumCard::wide, 0, SumCard::wide, height())); }

QList<Action> CardStation::make_actions() {
    const auto leaf = [this](int by) { return [this, by] { m_card->show_sum(m_card->shown() + by); }; };
    QList<Action> sheets = {{"sheet.next", words("The next sheet"), {Qt::Key_PageDown}, leaf(1), {}, words("next sum")},
                            {"sheet.before", words("The sheet before"), {Qt::Key_PageUp}, leaf(-1)}};
    for (Action& action : sheets) action.of_every_station = true;
    return climbing() + sheets;
}

}  // namespace echappe
