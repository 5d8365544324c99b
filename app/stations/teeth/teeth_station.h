#pragma once

#include "document/document.h"
#include "drawing/canvas.h"
#include "drawing/motion.h"
#include "stations/teeth/mesh_trial.h"

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
    /// The mesh tried at another depth than was measured.
    MeshTrial& trial() { return m_trial; }
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
    QPointF middle() const;
    double right_column() const;
    double px_per_mm(const DerivedMesh& mesh) const;
    void paint_pair(QPainter& painter, const DerivedMesh& mesh, double scale, QPointF pitch_point);
    void paint_sizes(QPainter& painter, const DerivedMesh& mesh, double scale, QPointF pitch_point);
    void paint_dimensions(QPainter& painter, const DerivedMesh& mesh, double scale, QPointF pitch_point);
    void paint_running(QPainter& painter, const DerivedMesh& mesh);
    void paint_speed(QPainter& painter, const QRectF& box);
    void paint_depths(QPainter& painter, const DerivedMesh& mesh);
    double depth_at(double x) const;
    double depth_x(double mm) const;
    void try_depth(double mm);
    void paint_card(QPainter& painter, const DerivedMesh& mesh);

    Document& m_document;
    Motion& m_motion;
    MeshTrial m_trial;
    bool m_wheel = true;
    bool m_other = false;
    double m_zoom = 1;
    QPointF m_pan;
    QPointF m_drag;
    enum class Dragged { picture, pinion, depth } m_dragged = Dragged::picture;
};

}  // namespace echappe
