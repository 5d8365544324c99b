#pragma once

#include <QObject>
#include <QPointF>
#include <QTimer>

#include "document/errand.h"
#include "job/derived.h"
#include "teeth/mesh_simulation.h"

namespace echappe {

/// The mesh in the picture turned in real contact at a depth one tries. The job keeps what was measured; a trial is only
/// looked at.
class MeshTrial : public QObject {
    Q_OBJECT
public:
    explicit MeshTrial(QObject* parent = nullptr);

    /// Takes the mesh; a new one is tried at its measured depth.
    void take(const DerivedMesh& mesh);
    double depth_mm() const { return m_input.depth_error_mm; }
    double measured_depth_mm() const { return m_measured_mm; }
    bool is_trial() const;
    void set_depth(double mm);
    void reset() { set_depth(m_measured_mm); }

    /// What goes wrong in real movements, tried one by one; lengths in mm, friction without a unit.
    struct Fault {
        const char* words;
        double MeshSimulationInput::*size;
        double least, most;
    };
    static const std::vector<Fault>& faults();
    double size(double MeshSimulationInput::*size) const { return m_input.*size; }
    double fault(const Fault& fault) const { return m_input.*fault.size; }
    void set_fault(const Fault& fault, double size);
    bool any_fault() const;
    void clear_faults();

    /// One pitch, or a whole turn of the pinion.
    bool whole_turn() const { return m_input.span == "turn"; }
    void show_whole_turn(bool whole);

    const MeshSimulationResult& result() const { return m_result; }
    double friction() const { return m_input.friction; }
    /// Depths at which it runs well; none while they are looked for, or when there are none.
    const std::optional<DepthWindow>& window() const { return m_window; }
    bool looking() const { return m_looking; }

    /// How the pair stands when the wheel has turned by this angle (rad, anticlockwise positive). Wheel's centre at the
    /// origin, pinion's on +x; lengths mm.
    struct Stand {
        double pinion_angle = 0;
        QPointF contact;
        double through = 0;  ///< 0 to 1: where in the pitch, or in the turn
    };
    Stand stand(double wheel_angle, bool anticlockwise) const;

signals:
    void window_found();

private:
    void run();
    void look_for_window();
    void start_looking();

    MeshSimulationInput m_input;
    MeshSimulationResult m_result;
    double m_measured_mm = 0;
    std::string m_name;  ///< of the mesh
    std::optional<DepthWindow> m_window;
    bool m_looking = false;
    QTimer m_pause;  ///< after the last change: the search need not race with typing
    Errand m_looker;
};

}  // namespace echappe
