#include "workings/card_station.h"

#include <QKeyEvent>

namespace echappe {

CardStation::CardStation(Document& document, std::vector<SumCard::Tab> tabs, QWidget* parent)
    : Canvas(parent), m_document(document), m_card(new SumCard(document, std::move(tabs), this)) {
    setFocusPolicy(Qt::StrongFocus);
    connect(m_card, &SumCard::told, this, &CardStation::told);
}

void CardStation::resizeEvent(QResizeEvent*) { m_card->setGeometry(width() - SumCard::wide, 0, SumCard::wide, height()); }

void CardStation::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Up:
        case Qt::Key_Down:
            return m_document.climb(event->key() == Qt::Key_Up ? 1 : -1);
        case Qt::Key_Tab:
            return m_card->show_sum(m_card->shown() + 1);
        case Qt::Key_Backtab:
            return m_card->show_sum(m_card->shown() - 1);
        default:
            Canvas::keyPressEvent(event);
    }
}

}  // namespace echappe
