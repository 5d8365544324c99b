#pragma once

#include "shell/station.h"
#include "workings/sum_card.h"

namespace echappe {

/// A picture with sheets of figures at its right: Up and Down go along the ladder, Tab leafs through the sheets.
class CardStation : public Station {
    Q_OBJECT
public:
    SumCard& card() { return *m_card; }

protected:
    CardStation(Document& document, std::vector<SumCard::Tab> tabs, QWidget* parent);
    QList<Action> make_actions() override;
    void lay_out() override;

    SumCard* m_card;
};

}  // namespace echappe
