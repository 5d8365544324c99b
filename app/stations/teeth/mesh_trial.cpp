#include "stations/teeth/mesh_trial.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"

namespace echappe {
namespace {

constexpr long long stands_in_pitch = 60;  ///< per pitch: 2 ms, and the picture moves smoothly between them
constexpr long long stands_in_turn = 24;   ///< per pitch, over a whole turn
constexpr double furthest_modules = 1.5;   ///< beyond it nothing meshes

}  // namespace

MeshTrial::MeshTrial(QObject* parent) : QObject(parent) {
    constexpr int pause_ms = 120;
    m_pause.setSingleShot(true);
    m_pause.setInterval(pause_ms);
    connect(&m_pause, &QTimer::timeout, this, &MeshTrial::start_looking);
}

void MeshTrial::take(const DerivedMesh& mesh) {
    const GeometryInput geometry = mesh.geometry();
    const double measured = mesh.depth_mm ? mesh.depth_mm->value : 0;
    const GeometryInput& old = m_input.mesh;
    const bool same =
        old.wheel == geometry.wheel && old.pinion == geometry.pinion && old.module_mm == geometry.module_mm && old.form == geometry.form;
    if (same && measured == m_measured_mm && mesh.name() == m_name) return;
    if (mesh.name() != m_name) {
        // A fault belongs to the wheel it was tried on.
        const MeshSimulationInput sound;
        for (const Fault& f : faults()) m_input.*f.size = sound.*f.size;
        m_name = mesh.name();
    }
    m_input.mesh = geometry;
    m_measured_mm = measured;
    set_depth(measured);
    if (!same) look_for_window();
}

bool MeshTrial::is_trial() const { return std::abs(m_input.depth_error_mm - m_measured_mm) > 1e-6; }

void MeshTrial::set_depth(double mm) {
    const double most = furthest_modules * m_input.mesh.module_mm;
    m_input.depth_error_mm = std::clamp(mm, -most, most);
    run();
}

void MeshTrial::run() {
    m_input.steps = whole_turn() ? stands_in_turn : stands_in_pitch;
    m_result = simulate_mesh(m_input);
}

const std::vector<MeshTrial::Fault>& MeshTrial::faults() {
    using In = MeshSimulationInput;
    static const std::vector<Fault> list = {
        {"wheel off its centre", &In::wheel_eccentricity_mm, 0, 5}, {"pinion off its centre", &In::pinion_eccentricity_mm, 0, 5},
        {"one tooth bent on", &In::bent_tooth_mm, -5, 5},           {"one tooth short", &In::short_tooth_mm, 0, 5},
        {"step worn into the leaves", &In::wear_step_mm, 0, 2},     {"friction", &In::friction, 0, 1},
    };
    return list;
}

void MeshTrial::set_fault(const Fault& fault, double size) {
    m_input.*fault.size = std::clamp(size, fault.least, fault.most);
    run();
    look_for_window();
}

bool MeshTrial::any_fault() const {
    const MeshSimulationInput sound;
    return std::any_of(faults().begin(), faults().end(), [&](const Fault& f) { return m_input.*f.size != sound.*f.size; });
}

void MeshTrial::clear_faults() {
    const MeshSimulationInput sound;
    for (const Fault& f : faults()) m_input.*f.size = sound.*f.size;
    run();
    look_for_window();
}

void MeshTrial::show_whole_turn(bool whole) {
    m_input.span = whole ? "turn" : "pitch";
    run();
}

void MeshTrial::look_for_window() {
    m_window.reset();
    m_looking = true;
    m_looker.dismiss();
    m_pause.start();
}

void MeshTrial::start_looking() {
    MeshSimulationInput one_pitch = m_input;
    one_pitch.span = "pitch";
    one_pitch.steps = stands_in_pitch;
    const auto found = [this](const std::optional<DepthWindow>& window) {
        m_window = window;
        m_looking = false;
        emit window_found();
    };
    m_looker.send(
        [found, input = one_pitch](const std::stop_token& stop, const Errand::Tell& tell) {
            const auto window = good_depths(input, {stop, {}});
            if (!stop.stop_requested()) tell([found, window] { found(window); });
        },
        // No depth at which it runs: what is wrong with the mesh is said where it is drawn.
        [found](const QString&) { found({}); });
}

MeshTrial::Stand MeshTrial::stand(double wheel_angle, bool anticlockwise) const {
    const auto& samples = m_result.samples;
    Stand out;
    if (samples.empty()) return out;
    const double sense = anticlockwise ? 1 : -1;  // the other way round is the mirror image
    // What repeats: a pitch, or the pitches of one turn of the pinion.
    const double pitches = whole_turn() ? static_cast<double>(m_input.mesh.pinion) : 1;
    const double span = pitches * 2 * pi / static_cast<double>(m_input.mesh.wheel);
    const double turned = sense * wheel_angle / span;
    const double whole = std::floor(turned);
    out.through = turned - whole;
    const double at = out.through * static_cast<double>(samples.size());
    const auto i = std::min(static_cast<size_t>(at), samples.size() - 1);
    const MeshSample& a = samples[i];
    const double rest = at - static_cast<double>(i);
    const double ratio = static_cast<double>(m_input.mesh.wheel) / static_cast<double>(m_input.mesh.pinion);
    const double pinion_deg =
        a.pinion_deg + rest * pitches * 360 / (static_cast<double>(m_input.mesh.wheel) * static_cast<double>(samples.size())) * ratio;
    const double turn = pinion_deg * pi / 180 + whole * pitches * 2 * pi / static_cast<double>(m_input.mesh.pinion);
    out.pinion_angle = pi - sense * turn;
    out.contact = {a.contact_x_mm, sense * a.contact_y_mm};
    return out;
}

}  // namespace echappe
