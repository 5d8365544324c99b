#pragma once

#include "document/document.h"
#include "drawing/canvas.h"
#include "drawing/motion.h"

namespace echappe {

/// The selected mesh at its true centre distance, its sizes on the drawing, and what to cut it with.
class TeethStation : public Canvas {
    Q_OBJECT
public:
    TeethStation(Document& document, Motion& motion, QWidget* parent = nullptr);

    /// The mesh in the picture; nullptr when the subject is in none.
    const DerivedMesh* mesh() const;
    /// Which of the two parts the exports take.
    bool wheel_selected() const { return m_wheel; }
    void select_part(bool wheel);
    /// The subject's other mesh.
    void other_mesh();
    void zoom(double factor, QPointF about);
    void fit();

    /// Writes the selected part; the ending of the path says how (.svg, .dxf, .pdf). Throws InputError.
    void export_part(const QString& path) const;

protected:
    void paint(QPainter& painter) override;
    void wheelEvent(QWheelEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    double px_per_mm(const DerivedMesh& mesh) const;
    void paint_pair(QPainter& painter, const DerivedMesh& mesh, double scale, QPointF pitch_point);
    void paint_sizes(QPainter& painter, const DerivedMesh& mesh, double scale, QPointF pitch_point);
    void paint_dimensions(QPainter& painter, const DerivedMesh& mesh, double scale, QPointF pitch_point);
    void paint_card(QPainter& painter, const DerivedMesh& mesh);

    Document& m_document;
    Motion& m_motion;
    bool m_wheel = true;
    bool m_other = false;
    double m_zoom = 1;
    QPointF m_pan;
    QPointF m_drag;
};

}  // namespace echappe
