#pragma once

#include <QMenu>

#include "document/document.h"
#include "document/workshop.h"
#include "drawing/motion.h"
#include "sheet/column.h"
#include "shell/station.h"
#include "stations/teeth/blank_view.h"
#include "stations/teeth/mesh_trial.h"
#include "stations/teeth/wood_view.h"

namespace echappe {

/// The selected mesh at its true centre distance, its sizes on the drawing, and what to cut it with.
class TeethStation : public Station {
    Q_OBJECT
public:
    explicit TeethStation(const Workbench& bench);

    bool shows_something() const override { return mesh() != nullptr; }
    std::vector<Scene> scenes() override;
    QString writes(const QString& ending) const override;
    bool writes_from_anywhere() const override { return true; }
    void write_to(const QString& path) override { export_part(path); }
    Printout printed() override;
    Solid solid() const override { return solid_part(); }

    /// The mesh in the picture; nullptr when the subject is in none.
    const DerivedMesh* mesh() const;
    /// Which of the two parts the exports take.
    bool wheel_selected() const { return m_wheel; }
    void select_part(bool wheel);
    /// The subject's other mesh.
    void other_mesh();
    /// The mesh tried at another depth than was measured.
    MeshTrial& trial() { return m_trial; }
    /// The whole wheel with its crossings instead of the mesh.
    void show_blank(bool shown);
    bool blank_shown() const { return m_blank->isVisible(); }
    void show_wood(bool shown);
    bool wood_shown() const { return m_wood->isVisible(); }
    ReadingRound* own_round() const override { return wood_shown() ? &m_line.wood() : nullptr; }
    BlankView& blank() { return *m_blank; }
    /// The forms of tooth this mesh may have; the caller shows it and lets it go.
    QMenu* form_menu();
    /// What goes wrong in real movements, to be tried on this mesh.
    QMenu* fault_menu();
    /// The form of one part from the outline in a DXF or CSV. Throws InputError.
    void trace_part(bool wheel, const QString& path);
    /// The stock's cutters for the selected part, nearest first.
    const CutterResult& cutters();
    void zoom(double factor, QPointF about);
    void fit();

    /// Writes the selected part; the ending of the path says how (.svg, .dxf, .pdf). Throws InputError.
    void export_part(const QString& path) const;
    /// The selected part as it is made solid, for STEP. Throws InputError.
    FlatPart solid_part() const;

protected:
    void lay_out() override;
    void paint(QPainter& painter) override;
    void wheelEvent(QWheelEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    QList<Action> make_actions() override;

private:
    void follow_motion();
    double m_turned = 0;  ///< the wheel, as painted last
    QPointF middle() const;
    double right_column() const;
    double px_per_mm(const DerivedMesh& mesh) const;
    /// Wheel and pinion as they stand in the picture.
    struct PairView {
        const DerivedMesh& mesh;
        double scale;  ///< pixels a millimetre
        QPointF pitch_point;
        double wheel_radius_mm = 0;
        double wheel_angle = 0;
        MeshTrial::Stand stand = {};
        QPointF wheel_centre = {}, pinion_centre = {};
        double seen = 0;  ///< half the angle of the wheel that is in view
    };
    PairView pair_view(const DerivedMesh& mesh, double scale, QPointF pitch_point);
    void paint_pair(QPainter& painter, const DerivedMesh& mesh, double scale, QPointF pitch_point);
    static void paint_profile(QPainter& painter, const PairView& pair, const QPainterPath& path, QPointF centre, double angle,
                              const QColor& fill, const QColor& ink);
    void paint_profiles(QPainter& painter, const PairView& pair);
    static void paint_pitch_circles(QPainter& painter, const PairView& pair);
    void write_size(Column& page, const QString& name, const QString& value, const QString& how, const QColor& ink);
    void write_module_and_depth(Column& page, const DerivedMesh& mesh);
    void write_of_form(Column& page, const DerivedMesh& mesh);
    void write_running(Column& page);
    void write_faults(Column& page, QPainter& painter, const DerivedMesh& mesh);
    void paint_where_it_runs(QPainter& painter, double left, double right, double y);
    void paint_depth_read(QPainter& painter, const DerivedMesh& mesh, double y);
    void paint_sizes(QPainter& painter, const DerivedMesh& mesh, double scale, QPointF pitch_point);
    void paint_dimensions(QPainter& painter, const DerivedMesh& mesh, double scale, QPointF pitch_point);
    void paint_running(QPainter& painter, const DerivedMesh& mesh);
    void paint_speed(QPainter& painter, const QRectF& box);
    void paint_touching(QPainter& painter, const QRectF& box);
    void paint_depths(QPainter& painter, const DerivedMesh& mesh);
    double depth_at(double x) const;
    double depth_x(double mm) const;
    void try_depth(double mm);
    void paint_card(QPainter& painter, const DerivedMesh& mesh);
    /// A size to work to, on the card below.
    struct Item {
        QString name, value, note;
        std::function<void()> click;
    };
    std::vector<Item> items_of_lantern(const DerivedMesh& mesh);
    std::vector<Item> items_to_cut(const DerivedMesh& mesh);
    QString dividing_of(const DerivedMesh& mesh, const QString& otherwise) const;
    void paint_items(QPainter& painter, const std::vector<Item>& items, double top);
    void set_form(const FormChoice& form);
    /// The mesh that is acted on. Throws InputError when the subject is in none.
    const DerivedMesh& the_mesh() const;
    void ask_fault(const MeshTrial::Fault& fault);
    void ask_trundle();
    void ask_shift();
    void ask_trace(bool wheel);

    Motion& m_motion;
    Workshop& m_workshop;
    MeshTrial m_trial;
    BlankView* m_blank;
    WoodView* m_wood;
    CalliperLine& m_line;
    InPlaceEditor* m_editor;
    std::optional<CutterResult> m_cutters;  ///< kept while the part and the stock stay
    CutterInput m_cutters_for;
    bool m_wheel = true;
    bool m_other = false;
    double m_zoom = 1;
    QPointF m_pan;
    QPointF m_drag;
    static constexpr double card_height = 148;
    static constexpr double roomy = 640;  ///< narrower than this the columns say less
    enum class Dragged { picture, pinion, depth } m_dragged = Dragged::picture;
};

}  // namespace echappe
