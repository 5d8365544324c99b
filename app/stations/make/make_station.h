#pragma once

#include "cards/derive.h"
#include "shell/station.h"
#include "stations/make/card_round.h"

namespace echappe {

/// The parts that are to be made, drawn in the order in which they can be; the chosen one's step large enough for the machine, with its
/// size, tool, check and caution, and the dividing table with a tick a tooth.
class MakeStation : public Station {
    Q_OBJECT
public:
    explicit MakeStation(const Workbench& bench);

    ReadingRound* round() const override { return &m_round; }
    bool beside_workings() const override { return false; }
    bool shows_something() const override { return !cards().empty(); }
    std::vector<Scene> scenes() override;

    /// The chosen one; nullptr where nothing is to be made.
    const DerivedCard* card() const;
    void choose_card(const std::string& id);

protected:
    void paint(QPainter& painter) override;
    QList<Action> make_actions() override;

private:
    const std::vector<DerivedCard>& cards() const { return m_document.derived().cards.cards; }
    void go(int by);
    /// One key goes on: a tooth, or the step.
    void go_on();
    void go_back();
    void spoil();
    void paint_nothing(QPainter& painter);
    void paint_parts(QPainter& painter, const QRectF& room);
    double paint_part(QPainter& painter, const DerivedCard& card, double y, double px_per_mm, double wide);
    void paint_step(QPainter& painter, const QRectF& room, const DerivedCard& card);
    void paint_dividing(QPainter& painter, const QRectF& room, const DerivedCard& card);
    /// The part from the front, its diameters as circles to scale: the one that is made now, those that are done, those to come.
    void paint_drawing(QPainter& painter, const QRectF& room, const DerivedCard& card);
    void paint_steps(QPainter& painter, const QRectF& room, const DerivedCard& card);
    QString length(double mm) const;

    CalliperLine& m_line;
    mutable CardRound m_round;
    std::string m_card;
    bool m_large = false;  ///< one step fills the picture
};

}  // namespace echappe
