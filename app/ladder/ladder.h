#pragma once

#include "document/document.h"
#include "drawing/canvas.h"

namespace echappe {

/// The selected train as rungs, great wheel at the bottom and escape wheel at the top: the way power climbs.
class Ladder : public Canvas {
    Q_OBJECT
public:
    explicit Ladder(Document& document, QWidget* parent = nullptr);

protected:
    void paint(QPainter& painter) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void paint_rung(QPainter& painter, const DerivedArbor& arbor, const QRectF& rung, double mm_to_px);
    Document& m_document;
};

}  // namespace echappe
