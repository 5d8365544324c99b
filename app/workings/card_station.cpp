#include "workings/card_station.h"

namespace echappe {

CardStation::CardStation(Document& document, std::vector<SumCard::Tab> tabs, QWidget* parent)
    : Station(document, parent), m_card(new SumCard(document, std::move(tabs), this)) {
    connect(m_card, &SumCard::told, this, &CardStation::told);
}

void CardStation::resizeEvent(QResizeEvent*) { m_card->setGeometry(width() - SumCard::wide, 0, SumCard::wide, height()); }

QList<Action> CardStation::make_actions() {
    return climbing() +
           QList<Action>{
               {"sheet.next", tr("The next sheet"), {Qt::Key_Tab}, [this] { m_card->show_sum(m_card->shown() + 1); }, {}, tr("next sum")},
               {"sheet.before", tr("The sheet before"), {Qt::SHIFT | Qt::Key_Backtab, Qt::Key_Backtab}, [this] {
                    m_card->show_sum(m_card->shown() - 1);
                }}};
}

}  // namespace echappe
