#pragma once

#include <QPainter>

#include "escapement/derive.h"
#include "sheet/dimensions.h"

namespace echappe {

/// Escape wheel and pallets drawn to scale as they stand at a moment of the swing, with lock, lift and drop beside each pallet.
/// Nothing is worked out here but where things lie on the screen.
class EscapementPicture {
public:
    EscapementPicture(QPainter& painter, const DerivedEscapement& escapement, const QRectF& room);
    /// `period`: of the swing, from its end on the anticlockwise side.
    void paint(double period);
    /// Where the sizes are that are typed.
    void point(Dimensions& sizes) const;

private:
    QPointF at(Vector mm) const { return m_escape + QPointF(mm.x * m_px, -mm.y * m_px); }
    /// A spot of the pallets, about their arbor, with them turned so.
    QPointF place(Vector own, double pallets_rad) const { return at(Vector{0, m_centre} + turned(own, pallets_rad)); }
    QPen outline(const QColor& ink) const;
    void paint_wheel(double tip_rad);
    void paint_pallets(const EscapementAction& action, double pallets_rad, double held);
    void paint_body(double pallets_rad);
    void paint_stones(const LeverAction& action, double pallets_rad, double held);
    void paint_face(QPointF from, QPointF to, bool holds);
    void paint_arbor();
    void paint_drop(const PalletAction& action);
    void write_pallet(double side, const PalletAction& action);

    QPainter& m_painter;
    const DerivedEscapement& m_escapement;
    double m_radius, m_centre;
    QRectF m_room;
    QPointF m_escape;  ///< the escape arbor
    double m_px;       ///< a millimetre
};

}  // namespace echappe
