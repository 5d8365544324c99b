#pragma once

#include "drawing/motion.h"
#include "workings/card_station.h"

namespace echappe {

/// Escape wheel and pallets to scale, in slow motion; how deep the pallets stand and how much room there is, nudged to see what would
/// follow, and the log of what was moved.
class EscapementView : public CardStation {
    Q_OBJECT
public:
    EscapementView(Document& document, Motion& motion, QWidget* parent);

    /// Tries another depth, mm nearer than it stands now; nothing is kept.
    void try_nearer(double mm);
    double tried_mm() const { return m_tried; }
    /// What it would be: the job's own, at the depth that is tried.
    DerivedEscapement shown() const;
    /// The move that is tried was made.
    void keep();
    void next_bridge();
    void refresh();

signals:
    void left();

protected:
    void paint(QPainter& painter) override;
    QList<Action> make_actions() override;

private:
    /// Where the picture stands: millimetres of the plane in the room.
    struct Frame {
        QPointF escape;  ///< the escape arbor
        double px = 1;
        QPointF at(Vector mm) const { return escape + QPointF(mm.x * px, -mm.y * px); }
    };
    const DerivedEscapement& now() const { return m_document.derived().escapement; }
    std::vector<SumCard::Tab> tabs();
    SumAnswer layout_sheet() const;
    SumAnswer seen_sheet() const;
    SumAnswer settings_sheet() const;
    /// The depth that what is seen tells becomes the one it was found at.
    void take_seen();
    double swing() const;
    QRectF picture() const;
    void paint_nothing(QPainter& painter);
    void paint_wheel(QPainter& painter, const DerivedEscapement& d, const Frame& frame, double tip_rad);
    void paint_pallet(QPainter& painter, const DerivedEscapement& d, const Frame& frame, const Pallet& pallet, double pallets_rad,
                      bool holds);
    void paint_action(QPainter& painter, const DerivedEscapement& d, const Frame& frame);
    void write_pallet(QPainter& painter, const DerivedEscapement& d, const Frame& frame, const Pallet& pallet, const PalletAction& action);
    void paint_swing(QPainter& painter, const DerivedEscapement& d, const QRectF& room);
    void paint_gauge(QPainter& painter, const DerivedEscapement& d, const QRectF& room);
    void write_verdict(QPainter& painter, const DerivedEscapement& d, const QRectF& room);

    Motion& m_motion;
    double m_tried = 0;
    std::string m_bridge = "both";
};

}  // namespace echappe
