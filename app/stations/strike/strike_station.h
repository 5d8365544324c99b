#pragma once

#include "strike/derive.h"
#include "workings/card_station.h"

namespace echappe {

/// What counts the hours, stepped strike by strike and blow by blow: count wheel or rack and snail to scale, faults put in by a click,
/// and below it the day, what it strikes against what it should and what was heard.
class StrikeStation : public CardStation {
    Q_OBJECT
public:
    explicit StrikeStation(const Workbench& bench);

    ReadingRound* round() const override { return &m_line.strikes(); }
    bool beside_workings() const override { return false; }
    bool shows_something() const override { return strike().there; }
    std::vector<Scene> scenes() override;
    QString writes(const QString& ending) const override;
    void write_to(const QString& path) override;
    FlatPart solid() const override;

    /// Where it stands: so many strikes are struck, and so many blows of the next.
    size_t struck() const { return m_struck; }
    long long blows() const { return m_blows; }
    /// On to the end of the next strike, or back to the beginning of the last.
    void step(int strikes);
    void give_blow();

protected:
    void paint(QPainter& painter) override;
    QList<Action> make_actions() override;
    void showEvent(QShowEvent* event) override;

private:
    const DerivedStrike& strike() const { return m_document.derived().strike; }
    StrikeRecord record() const { return m_document.job().strike.value_or(StrikeRecord()); }
    const StruckHour* next() const;
    void refresh();
    void go_to(size_t struck);
    void take_heard();
    std::vector<SumCard::Tab> tabs();
    void paint_nothing(QPainter& painter);
    void write_where(QPainter& painter, const QRectF& room);
    void paint_day(QPainter& painter, const QRectF& room);
    void paint_strike(QPainter& painter, size_t which, const QRectF& room, double dot);

    CalliperLine& m_line;
    size_t m_struck = 0;
    long long m_blows = 0;
};

}  // namespace echappe
