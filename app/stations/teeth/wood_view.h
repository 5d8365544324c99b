#pragma once

#include "wood/derive.h"
#include "workings/card_station.h"

namespace echappe {

/// A wooden wheel in this season: as it was cut and as it is, drawn many times too much, with its grain, and how its mesh goes deeper
/// and shallower round a turn.
class WoodView : public CardStation {
    Q_OBJECT
public:
    explicit WoodView(Document& document, QWidget* parent);
    /// The mesh that is shown, looked up by its arbors.
    void show_mesh(const DerivedMesh& mesh);

signals:
    void left();

protected:
    void paint(QPainter& painter) override;
    QList<Action> make_actions() override;

private:
    /// What stands beside it, and the picture, anew.
    void show_wheel();
    const WoodMesh* mesh() const;
    DrawnSizes own_sizes() const override;
    void paint_nothing(QPainter& painter);
    void paint_wheel(QPainter& painter, const QRectF& room, const WoodMesh& mesh);
    void paint_round(QPainter& painter, const QRectF& room, const WoodMesh& mesh);

    std::string m_wheel_of, m_pinion_of;
};

}  // namespace echappe
