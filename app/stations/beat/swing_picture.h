#pragma once

#include <QPainter>

#include "oscillator/derive.h"
#include "sheet/dimensions.h"

namespace echappe {

/// What keeps time, drawn to scale: a pendulum from its suspension down, or a balance with its spring seen from above.
/// Nothing is worked out here but where things lie on the screen.
class SwingPicture {
public:
    struct Stand {
        double swing = 0;   ///< now, as a share of the swing to one side, −1 to 1
        std::string means;  ///< the one that is marked
        double amount = 0;  ///< of it, tried
    };
    /// Something in the picture that can be taken hold of.
    struct Handle {
        QString means;
        QRectF rect;
        QPointF way;             ///< a drag along this gains
        double px_per_unit = 1;  ///< of the means' own unit
    };
    SwingPicture(QPainter& painter, const OscillatorRecord& oscillator, const DerivedOscillator& swings, const QRectF& room,
                 const Stand& stand, Dimensions& sizes);
    void paint();
    const std::vector<Handle>& handles() const { return m_handles; }

private:
    void paint_pendulum();
    double lowest_mm() const;
    double strip_mm() const;
    void paint_unmeasured(QPointF pivot, double angle, double px);
    void point_at_body(size_t which, const PendulumPart& body, QPointF pivot, double px);
    void point_at_pendulum(QPointF pivot, double px);
    void point_at_balance(QPointF middle, double px);
    void write_balance(QPointF middle, double bottom);
    void paint_part(const PendulumPart& part, QPointF pivot, double angle, double px);
    void paint_length(QPointF pivot, double px);
    void paint_nut(const QRectF& room);
    void paint_tray(QPointF pivot, double angle, double px);
    void paint_balance();
    void paint_rim(QPointF middle, double angle, double px);
    void paint_screws(size_t which, QPointF middle, double angle, double px);
    void paint_overhang(QPointF middle, double px, double outer_mm, double over_deg);
    void paint_spring(QPointF middle, double angle, double px);
    void paint_in_beat(QPointF middle, double px);
    void paint_regulator(QPointF middle, double px, double outer_mm);
    double rim_radius_mm() const;
    bool marked(const std::string& means) const { return m_stand.means == means; }
    double tried(const std::string& means) const { return marked(means) ? m_stand.amount : 0; }

    QPainter& m_painter;
    const DerivedOscillator& m_swings;
    const OscillatorRecord& m_o;
    const Pendulum* m_p;  ///< what swings is one
    const Balance* m_b;   ///< of these two
    QRectF m_room;
    Stand m_stand;
    Dimensions& m_sizes;
    std::vector<Handle> m_handles;
};

}  // namespace echappe
