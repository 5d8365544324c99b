#pragma once

#include "cards/derive.h"
#include "stations/make/card_round.h"
#include "workings/card_station.h"
#include "workings/step_clock.h"

namespace echappe {

/// The parts that are to be made, drawn in the order in which they can be; the chosen one's step large enough for the machine, with its
/// size, tool, check and caution, and the dividing table with a tick a tooth.
class MakeStation : public CardStation {
    Q_OBJECT
public:
    explicit MakeStation(const Workbench& bench);

    ReadingRound* own_round() const override;
    bool beside_workings() const override { return false; }
    bool shows_something() const override { return !cards().empty(); }
    std::vector<Scene> scenes() override;
    Printout printed() override;
    QString writes(const QString& ending) const override;
    void write_to(const QString& path) override;
    Solid solid() const override;

    /// The chosen one; nullptr where nothing is to be made, or what was begun cannot be planned yet.
    const DerivedCard* card() const;
    void choose_card(const std::string& id);
    /// A page for each card, in their order; templates of all flat parts at 1:1.
    Printout all_cards() const;
    Printout templates() const;

protected:
    void paint(QPainter& painter) override;
    void lay_out() override;
    QList<Action> make_actions() override;
    bool other_key(QKeyEvent& event) override;
    void wheelEvent(QWheelEvent* event) override;

private:
    enum class Show { steps, sheets, beginning };
    const DerivedCards& derived() const { return m_document.derived().cards; }
    const std::vector<DerivedCard>& cards() const { return derived().cards; }
    const CardsRecord& record() const { return m_document.job().cards; }
    /// All that can be chosen: cards, and begun parts that want a size first ("begun:2").
    std::vector<std::string> chosen_of() const;
    void refresh();
    void go(int by);
    /// One key goes on: a tooth, or the step.
    void go_on();
    void end(const DerivedCard& card, const CardStep& step, const std::optional<double>& read_mm);
    /// Since the step was come to; nothing where that is no time of work.
    void go_back();
    void spoil();
    /// The tooth that is to be cut now: the next one behind those that were skipped.
    std::optional<long long> tooth_now() const;
    void skip();
    void show(Show what);
    void begin(const PartToBegin& part);
    void drop();
    void next_way();
    void next_paper();
    void choose(const std::string& wheel, const std::string& way);
    void beep(const DividingRow& row) const;
    std::vector<SumCard::Tab> tabs();
    std::string id_shown() const;
    SumCard::Take typed_into_card() const;
    DrawnSizes own_sizes() const override;
    void paint_drawing(QPainter& painter, const QRectF& room, const DerivedCard& part);

    double left_px() const;
    double right_px() const;
    void paint_nothing(QPainter& painter);
    void paint_begin(QPainter& painter, const QRectF& room);
    void paint_parts(QPainter& painter, const QRectF& room);
    void paint_part(QPainter& painter, const DerivedCard& card, const QRectF& row);
    void paint_unplanned(QPainter& painter, const BegunPart& part, const QRectF& row);
    void paint_step(QPainter& painter, const QRectF& room, const DerivedCard& card);
    void paint_ways(Column& page, const DerivedCard& card);
    void paint_dividing(QPainter& painter, const QRectF& room, const DerivedCard& card);
    void paint_steps(QPainter& painter, const QRectF& room, const DerivedCard& card);
    QString length(double mm) const;

    Workshop& m_workshop;
    CalliperLine& m_line;
    mutable CardRound m_round;
    std::string m_chosen;
    bool m_large = false;  ///< one step fills the picture
    bool m_beeps = false;
    long long m_skipped_to = 1;
    Show m_show = Show::steps;
    int m_paper = 0;  ///< of the templates, among those that printers take
    double m_scrolled = 0, m_long = 0;
    StepClock m_clock;
};

}  // namespace echappe
