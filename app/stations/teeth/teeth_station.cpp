#include "stations/teeth/teeth_station.h"

#include <QCursor>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

#include "drawing/wheel_art.h"
#include "drawing/words.h"
#include "number/constants.h"
#include "number/units.h"
#include "sheet/marks.h"
#include "teeth/edits.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr long long drawn_points_per_flank = 24;
constexpr double tried_step_mm = 0.01;
constexpr double depths_height = 46;    ///< the scale of depths above the card
constexpr double depths_modules = 1.0;  ///< it reaches this far to both sides

}  // namespace

TeethStation::TeethStation(const Workbench& bench)
    : Station(bench.document, nullptr),
      m_motion(bench.motion),
      m_workshop(bench.workshop),
      m_blank(new BlankView(bench.document, this)),
      m_wood(new WoodView(bench.document, this)),
      m_line(bench.line),
      m_editor(new InPlaceEditor(this)) {
    setAccessibleName(words("Teeth"));
    m_editor->setAccessibleName(words("size of the teeth"));
    connect(m_editor, &InPlaceEditor::refused, this, [this](const QString& sentence) { emit told(sentence, true); });
    connect(m_blank, &BlankView::told, this, &TeethStation::told);
    connect(m_blank, &BlankView::left, this, [this] { show_blank(false); });
    connect(m_wood, &WoodView::told, this, &TeethStation::told);
    connect(m_wood, &WoodView::left, this, [this] { show_wood(false); });
    connect(&m_workshop, &Workshop::changed, this, [this] {
        m_cutters.reset();
        update();
    });
    connect(&m_document, &Document::changed, this, qOverload<>(&QWidget::update));
    connect(&m_document.selection(), &Selection::changed, this, [this] {
        m_editor->leave();
        m_other = false;
        m_wheel = !mesh() || mesh()->wheel_of == m_document.selection().subject();
        fit();
        if (blank_shown()) show_blank(true);
        if (wood_shown()) show_wood(true);
    });
    connect(&m_motion, &Motion::moved, this, &TeethStation::follow_motion);
    connect(&m_motion, &Motion::changed, this, qOverload<>(&QWidget::update));
    connect(&m_trial, &MeshTrial::window_found, this, qOverload<>(&QWidget::update));
}

/// Only when the teeth have moved far enough to be seen.
void TeethStation::follow_motion() {
    const DerivedMesh* shown = mesh();
    if (!isVisible() || !shown) return;
    constexpr double unseen = 0.35;
    const DerivedArbor& arbor = *m_document.derived().train.arbor(shown->wheel_of);
    const double turned = 2 * pi * arbor.turns_per_s * m_motion.seconds();
    const double px = std::abs(turned - m_turned) * shown->sizes.wheel.pitch_diameter_mm / 2 * px_per_mm(*shown);
    if (px < unseen) return;
    m_turned = turned;
    update();
}

const DerivedMesh* TeethStation::mesh() const {
    const auto meshes = m_document.derived().train.meshes_of(m_document.selection().subject());
    if (meshes.empty()) return nullptr;
    // The mesh where the subject's wheel drives comes first: it is the one to be cut.
    const auto drives =
        std::find_if(meshes.begin(), meshes.end(), [&](const DerivedMesh* m) { return m->wheel_of == m_document.selection().subject(); });
    const DerivedMesh* first = drives == meshes.end() ? meshes.front() : *drives;
    if (!m_other) return first;
    const auto second = std::find_if(meshes.begin(), meshes.end(), [&](const DerivedMesh* m) { return m != first; });
    return second == meshes.end() ? first : *second;
}

void TeethStation::select_part(bool wheel) {
    m_wheel = wheel;
    update();
}

void TeethStation::other_mesh() {
    m_editor->leave();
    m_other = !m_other;
    m_wheel = !mesh() || mesh()->wheel_of == m_document.selection().subject();
    fit();
}

double TeethStation::right_column() const { return width() < roomy ? 146 : 214; }

QPointF TeethStation::middle() const { return {width() * (width() < roomy ? 0.36 : 0.4), (height() - card_height - depths_height) / 2.0}; }

void TeethStation::fit() {
    m_zoom = 1;
    m_pan = {};
    update();
}

void TeethStation::zoom(double factor, QPointF about) {
    const double before = m_zoom;
    m_zoom = std::clamp(m_zoom * factor, 0.05, 40.0);
    const QPointF pitch_point = middle();
    const QPointF from = about - pitch_point - m_pan;
    m_pan += from * (1 - m_zoom / before);
    update();
}

double TeethStation::px_per_mm(const DerivedMesh& mesh) const {
    // At first sight the whole pinion stands between the pitch point and the right column.
    const double room = std::max(120.0, width() - right_column() - 16 - middle().x());
    const double high = height() - card_height - depths_height - 90;
    return std::min(room, high) / (mesh.sizes.pinion.outside_diameter_mm * 1.02) * m_zoom;
}

void TeethStation::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.ground);
    const DerivedMesh* shown = mesh();
    if (!shown) {
        write(painter, type(Type::head, true), t.ink, {24, 60}, words("No mesh here"));
        write_wrapped(painter, type(Type::text), t.steel, {24, 78}, 460,
                      words("Climb the ladder to an arbor whose counts are known or weighed; its mesh is drawn here to scale."));
        return;
    }
    m_trial.take(*shown);
    if (m_editor->isVisible()) m_editor->raise();
    const double scale = px_per_mm(*shown);
    const QPointF pitch_point = middle() + m_pan;
    painter.save();
    painter.setClipRect(QRectF(0, 0, width(), height() - card_height));
    paint_pair(painter, *shown, scale, pitch_point);
    painter.restore();
    paint_sizes(painter, *shown, scale, pitch_point);
    paint_running(painter, *shown);
    paint_depths(painter, *shown);
    paint_card(painter, *shown);
}

TeethStation::PairView TeethStation::pair_view(const DerivedMesh& mesh, double scale, QPointF pitch_point) {
    const DerivedArbor& arbor = *m_document.derived().train.arbor(mesh.wheel_of);
    PairView pair{mesh, scale, pitch_point};
    pair.wheel_radius_mm = mesh.sizes.wheel.pitch_diameter_mm / 2;
    pair.wheel_angle = 2 * pi * arbor.turns_per_s * m_motion.seconds();
    pair.stand = m_trial.stand(pair.wheel_angle, arbor.turns_per_s >= 0);
    pair.wheel_centre = pitch_point - QPointF(pair.wheel_radius_mm * scale, 0);
    pair.pinion_centre = pair.wheel_centre + QPointF(m_trial.result().centre_distance_mm * scale, 0);
    // As much of the wheel as the picture is high.
    pair.seen = std::asin(std::min(1.0, (height() / scale + 2 * std::abs(m_pan.y()) / scale) / (2 * pair.wheel_radius_mm)));
    return pair;
}

void TeethStation::paint_pair(QPainter& painter, const DerivedMesh& mesh, double scale, QPointF pitch_point) {
    const PairView pair = pair_view(mesh, scale, pitch_point);
    paint_profiles(painter, pair);
    paint_pitch_circles(painter, pair);
    const Theme& t = inks(painter);
    if (!pair.stand.contact.isNull()) {
        painter.setPen(QPen(t.sheet, 1.5));
        painter.setBrush(t.ruby);
        painter.drawEllipse(pair.wheel_centre + QPointF(pair.stand.contact.x(), -pair.stand.contact.y()) * scale, 5, 5);
        painter.setBrush(Qt::NoBrush);
    }
    cross(painter, pair.pinion_centre, 6, QPen(t.ink, 1));
    const double edge = std::max(mesh.sizes.pinion.pitch_diameter_mm / 2 * scale * 1.3, 20.0);
    place({"wheel", QRectF(0, 0, std::max(0.0, pitch_point.x()), height() - card_height), [this] { select_part(true); }, {}, {}});
    place({"pinion",
           QRectF(pitch_point.x() + mesh.sizes.wheel.addendum_mm * scale, pair.pinion_centre.y() - edge, 2 * edge, 2 * edge),
           [this] { select_part(false); },
           words("Drag it to try another depth"),
           {}});
}

void TeethStation::paint_profile(QPainter& painter, const PairView& pair, const QPainterPath& path, QPointF centre, double angle,
                                 const QColor& fill, const QColor& ink) {
    painter.save();
    painter.translate(centre);
    // Paths are of module 1 and scaled here: a new module needs no new path.
    const double px = pair.scale * pair.mesh.module_mm.value;
    painter.scale(px, -px);
    painter.rotate(angle * 180 / pi);
    // Wider pens leave the raster engine's quick way: 1 px, and the ink tells what is selected.
    QPen pen(ink, 1.0);
    pen.setCosmetic(true);
    painter.setPen(pen);
    painter.setBrush(fill);
    painter.drawPath(path);
    painter.restore();
}

/// Wheel and pinion as they stand; a lantern's shrouds are seen through.
void TeethStation::paint_profiles(QPainter& painter, const PairView& pair) {
    const Theme& t = inks(painter);
    const DerivedMesh& mesh = pair.mesh;
    GeometryInput unit = mesh.geometry();
    unit.module_mm = 1;
    if (unit.form.trundle_diameter_mm) *unit.form.trundle_diameter_mm /= mesh.module_mm.value;
    const bool brass = mesh.pinion >= driven_wheel_leaves;
    const QColor steel = brass ? t.pale_brass : t.dark ? t.steel.darker(190) : t.steel.lighter(165);
    const bool lantern = mesh.sizes.trundle_diameter_mm.has_value();
    const QPainterPath whole_pinion = WheelArt::part(unit, false, drawn_points_per_flank, nullptr);
    if (lantern) {
        QColor shroud = steel;
        shroud.setAlphaF(0.35f);
        paint_profile(painter, pair, whole_pinion, pair.pinion_centre, pair.stand.pinion_angle, shroud, t.steel);
    }
    // Only the teeth in view: turned back by whole pitches, one wheel looks like another.
    const double pitch = 2 * pi / static_cast<double>(mesh.wheel);
    const auto each_side = static_cast<long long>(pair.seen / pitch) + 2;
    const bool whole = 2 * each_side + 1 >= mesh.wheel || pair.wheel_centre.x() > 0;
    const QPainterPath wheel = whole ? WheelArt::part(unit, true, drawn_points_per_flank, nullptr)
                                     : WheelArt::wheel_sector(unit, drawn_points_per_flank, each_side);
    // Off its centre a wheel swings as it turns.
    const auto off = [&](double MeshSimulationInput::*size, double angle) {
        return QPointF(std::cos(angle), -std::sin(angle)) * m_trial.size(size) * pair.scale;
    };
    paint_profile(painter, pair, wheel, pair.wheel_centre + off(&MeshSimulationInput::wheel_eccentricity_mm, pair.wheel_angle),
                  whole ? pair.wheel_angle : std::remainder(pair.wheel_angle, pitch), t.pale_brass, m_wheel ? t.blued : t.brass);
    paint_profile(painter, pair, lantern ? WheelArt::trundles(unit) : whole_pinion,
                  pair.pinion_centre + off(&MeshSimulationInput::pinion_eccentricity_mm, pair.stand.pinion_angle - pi),
                  pair.stand.pinion_angle, steel, m_wheel ? t.ink : t.blued);
}

void TeethStation::paint_pitch_circles(QPainter& painter, const PairView& pair) {
    QPen chain(inks(painter).blued, 0.9);
    chain.setDashPattern({10, 4, 2, 4});
    painter.setPen(chain);
    painter.setBrush(Qt::NoBrush);
    const double wheel_px = pair.wheel_radius_mm * pair.scale;
    const int sixteenths = static_cast<int>(std::min(pair.seen * 1.1, pi) * 180 / pi * 16);
    painter.drawArc(QRectF(pair.wheel_centre - QPointF(wheel_px, wheel_px), QSizeF(2 * wheel_px, 2 * wheel_px)), -sixteenths,
                    2 * sixteenths);
    const double pinion_px = pair.mesh.sizes.pinion.pitch_diameter_mm / 2 * pair.scale;
    painter.drawEllipse(pair.pinion_centre, pinion_px, pinion_px);
    painter.drawLine(pair.pitch_point - QPointF(pair.mesh.sizes.wheel.depth_of_cut_mm * pair.scale, 0),
                     pair.pinion_centre + QPointF(pinion_px * 1.5, 0));
}

void TeethStation::paint_sizes(QPainter& painter, const DerivedMesh& mesh, double scale, QPointF pitch_point) {
    const Theme& t = inks(painter);
    const bool narrow = width() < roomy;
    if (pitch_point.x() - mesh.sizes.wheel.outside_diameter_mm * scale > -60) {
        // The whole wheel is in view and may lie under the figures.
        QColor paper = t.ground;
        paper.setAlphaF(0.78f);
        painter.fillRect(QRectF(12, 12, narrow ? 130 : 236, narrow ? 236 : 300), paper);
    }
    const TrainRecord& train = m_document.job().train;
    Column page(painter, QRectF(24, 18, narrow ? 116 : 230, 320));
    page.head(QString::number(mesh.wheel) + " / " + QString::number(mesh.pinion), t.ink, Type::great);
    page.gap(-6);
    page.line((narrow                               ? words("%1 to %2")
               : mesh.pinion >= driven_wheel_leaves ? words("%1 drives %2")
                                                    : words("%1 wheel drives %2 pinion"))
                  .arg(words(train.name_of_arbor(mesh.wheel_of)), words(train.name_of_arbor(mesh.pinion_of))),
              t.steel, Type::text);
    page.gap(4);
    write_module_and_depth(page, mesh);
    write_of_form(page, mesh);
    scale_bar(painter, {24, height() - card_height - depths_height - 12}, scale);
    paint_dimensions(painter, mesh, scale, pitch_point);
}

/// A size with its name above it and below it how it is known.
void TeethStation::write_size(Column& page, const QString& name, const QString& value, const QString& how, const QColor& ink) {
    const bool narrow = width() < roomy;
    page.line(narrow ? name.section(',', 0, 0) : name, page.inks().steel);
    page.gap(-3);
    page.line(value, ink, Type::figure, true);
    page.gap(narrow ? 2 : -3);
    if (!narrow) page.line(how, page.inks().steel);
}

void TeethStation::write_module_and_depth(Column& page, const DerivedMesh& mesh) {
    const Theme& t = page.inks();
    const LengthUnit& unit = m_document.job().length;
    const auto length = [&](double mm) { return words(unit.write(mm, unit.toothed())); };
    const auto ink = [&](Known known) { return known == Known::measured ? t.ink : known == Known::assumed ? t.steel : t.blued; };
    write_size(page, words("module"), length(mesh.module_mm.value),
               mesh.module_known == Known::measured ? words("from readings, ± %1").arg(words(print_fixed(mesh.module_mm.u, 4)))
                                                    : words("assumed, nothing read yet"),
               ink(mesh.module_known));
    const bool trial = m_trial.is_trial();
    write_size(page, words("centre distance, as drawn"), length(m_trial.result().centre_distance_mm),
               trial                                  ? words("a trial; Home goes back")
               : mesh.centre_known == Known::measured ? words("measured between the holes")
                                                      : words("follows from the teeth"),
               trial ? t.amber : ink(mesh.centre_known));
    if (!mesh.depth_mm) return;
    const Measured& depth = *mesh.depth_mm;
    const QString off = length(std::abs(depth.value)) + (depth.value > 0 ? words(" too deep") : words(" too shallow"));
    const QString right = width() < roomy ? words("right") : words("right, ± %1").arg(length(depth.u));
    write_size(page, words("depth"), std::abs(depth.value) <= depth.u ? right : off,
               words("the teeth want %1").arg(length(mesh.sizes.centre_distance_mm)), t.ink);
}

/// What only this form of tooth has.
void TeethStation::write_of_form(Column& page, const DerivedMesh& mesh) {
    const Theme& t = page.inks();
    const LengthUnit& unit = m_document.job().length;
    if (mesh.sizes.trundle_diameter_mm)
        write_size(page, words("trundles"), words(unit.write(*mesh.sizes.trundle_diameter_mm, unit.toothed())),
                   words("in holes on a circle of %1").arg(words(unit.write(*mesh.sizes.drill_circle_mm, unit.toothed()))), t.blued);
    else if (mesh.form.school == "involute-20")
        write_size(page, words("profile shift"), QString::number(mesh.sizes.pinion_profile_shift, 'f', 3) + " m",
                   words("outwards on the pinion, inwards on the wheel"), t.blued);
    else if (width() >= roomy && mesh.sizes.arc_departure_um > 0)
        write_size(page, words("arc stands off the epicycloid"), QString::number(mesh.sizes.arc_departure_um, 'f', 0) + " µm",
                   words("at most, between the two schools"), t.blued);
}

/// Heights along the line of centres, and the pinion across its tips.
void TeethStation::paint_dimensions(QPainter& painter, const DerivedMesh& mesh, double scale, QPointF pitch_point) {
    const Theme& t = inks(painter);
    const LengthUnit& unit = m_document.job().length;
    const auto length = [&](double mm) { return words(unit.write(mm, unit.toothed(), false)); };
    const double low = height() - card_height - depths_height - 52;
    const double root = pitch_point.x() - mesh.sizes.wheel.dedendum_mm * scale;
    const double tip = pitch_point.x() + mesh.sizes.wheel.addendum_mm * scale;
    painter.setPen(QPen(t.blued, 0.8));
    for (const double x : {root, pitch_point.x(), tip}) painter.drawLine(QPointF(x, pitch_point.y()), QPointF(x, low + 6));
    painter.drawLine(QPointF(root, low), QPointF(tip, low));
    for (const double x : {root, pitch_point.x(), tip}) painter.drawLine(QPointF(x - 4, low + 4), QPointF(x + 4, low - 4));
    if (tip - root > 70) {
        write(painter, type(Type::note), t.blued, {root - 6, low + 4}, words("dedendum ") + length(mesh.sizes.wheel.dedendum_mm), 1);
        write(painter, type(Type::note), t.blued, {tip + 8, low + 4}, words("addendum ") + length(mesh.sizes.wheel.addendum_mm));
    }
    const double pinion_x = pitch_point.x() + (m_trial.result().centre_distance_mm - mesh.sizes.wheel.pitch_diameter_mm / 2) * scale;
    const double half = mesh.sizes.pinion.outside_diameter_mm / 2 * scale;
    const double right = pinion_x + half + 26;
    if (right > width() - right_column() - 16) return;
    painter.setPen(QPen(t.blued, 0.8));
    painter.drawLine(QPointF(right, pitch_point.y() - half), QPointF(right, pitch_point.y() + half));
    for (const double y : {pitch_point.y() - half, pitch_point.y() + half}) {
        painter.drawLine(QPointF(pinion_x, y), QPointF(right + 6, y));
        painter.drawLine(QPointF(right - 4, y + 4), QPointF(right + 4, y - 4));
    }
    painter.save();
    painter.translate(right + 14, pitch_point.y() - half * 0.25);
    painter.rotate(-90);
    write(painter, type(Type::note), t.blued, {0, 0}, words("over the tips ") + length(mesh.sizes.pinion.outside_diameter_mm), 0);
    painter.restore();
}

/// What the two profiles do in real contact, and the pinion's speed over one pitch.
void TeethStation::paint_running(QPainter& painter, const DerivedMesh& mesh) {
    const Theme& t = inks(painter);
    const MeshSimulationResult& run = m_trial.result();
    const QRectF room(width() - right_column(), 18, right_column() - 20, height() - card_height - depths_height - 18);
    QColor paper = t.ground;
    paper.setAlphaF(0.86f);
    painter.fillRect(room.adjusted(-12, -18, 20, 0), paper);
    Column page(painter, room);
    page.section(words("IN CONTACT"));
    const bool good = run.verdict == "runs";
    page.says(good ? words("runs well") : words(run.verdict),
              good                     ? t.verdigris
              : run.butts || run.binds ? t.ruby
                                       : t.amber,
              Type::text, true);
    page.gap(6);
    constexpr double speed_high = 84;
    Flow said(painter, room, page.y() + 12, 4);
    said.say(words("speed,"), t.blued);
    said.say(words("touch"), t.brass_ink);
    if (width() >= roomy) said.say(words("over"), t.steel);
    place({"span",
           said.say(m_trial.whole_turn() ? words("its turn") : words("one pitch"), t.blued, Type::note, true),
           [this] {
               m_trial.show_whole_turn(!m_trial.whole_turn());
               update();
           },
           words("One pitch, or a whole turn of the pinion (T)"),
           {}});
    page.go_to(said.baseline() + 8);
    paint_speed(painter, {room.left(), page.y(), room.width(), speed_high});
    page.gap(speed_high + 8);
    write_running(page);
    write_faults(page, painter, mesh);
    constexpr double keys_high = 58;
    if (width() < roomy || page.y() + 4 > room.bottom() - keys_high) return;
    // Beside the picture, under what runs: teeth reach as far as they are zoomed.
    Column keys(painter, room.adjusted(0, room.height() - keys_high, 8, 0));
    for (const QString& line : {legend({"teeth.closer|teeth.farther", "teeth.fit", "teeth.wood"}),
                                legend({"teeth.other-mesh", "teeth.other-part"}), legend({"teeth.blank", "teeth.turn", "teeth.faults"})}) {
        keys.line(line, t.steel);
        keys.gap(-4);
    }
}

void TeethStation::write_running(Column& page) {
    const Theme& t = page.inks();
    const MeshSimulationResult& run = m_trial.result();
    const bool narrow = width() < roomy;
    const LengthUnit& unit = m_document.job().length;
    const auto row = [&](const QString& whole, const QString& brief, const QString& value, const QColor& ink) {
        page.close_row({narrow ? brief : whole, value, ink});
        if (narrow) page.gap(-2);
    };
    row(words("swing of speed"), words("swing"), QString::number(100 * run.velocity_ratio_spread, 'f', 1) + " %", t.blued);
    row(words("error of the pinion"), words("error"),
        QString::number(run.transmission_error_arcmin, 'f', run.transmission_error_arcmin < 10 ? 1 : 0) + "′", t.blued);
    row(words("takes before the line"), words("before"), QString::number(run.engagement_before_centre_deg, 'f', 1) + "°",
        run.engages_early() ? t.amber : t.blued);
    row(words("pairs in touch"), words("pairs"), QString::number(run.contact_ratio, 'f', 2), t.blued);
    row(words("play"), words("play"), words(unit.write(run.backlash_mm, unit.toothed())), run.backlash_mm < 0 ? t.ruby : t.blued);
    row(words("free under the tip"), words("tip"), words(unit.write(run.tip_clearance_mm, unit.toothed())),
        run.tip_clearance_mm < 0 ? t.ruby : t.blued);
    row(words("work through, µ %1").arg(m_trial.friction()), words("work"), QString::number(100 * run.efficiency, 'f', 1) + " %", t.blued);
}

void TeethStation::write_faults(Column& page, QPainter& painter, const DerivedMesh& mesh) {
    const Theme& t = inks(painter);
    const bool faulty = m_trial.any_fault();
    const QRectF at =
        page.line(faulty ? words("with faults tried") : words("try a fault…"), faulty ? t.amber : t.blued, Type::note, faulty);
    place({"faults",
           at,
           [this] {
               QMenu* menu = fault_menu();
               menu->setAttribute(Qt::WA_DeleteOnClose);
               menu->popup(QCursor::pos());
           },
           words("A wheel off its centre, a bent or short tooth, worn leaves, more friction"),
           {}});
    if (width() >= roomy && mesh.module_known == Known::assumed)
        write(painter, type(Type::note), t.steel, {at.right(), at.top() + 14}, words("module assumed"), 1);
}

/// Speed against the steady one; the line of centres and the stand now drawn are marked.
void TeethStation::paint_speed(QPainter& painter, const QRectF& box) {
    const Theme& t = inks(painter);
    const auto& samples = m_trial.result().samples;
    double reach = 0.02;  // at least ± 2 %, so that a good mesh looks calm
    for (const MeshSample& s : samples)
        if (s.velocity_ratio > 0) reach = std::max(reach, std::abs(s.velocity_ratio - 1));
    const auto at = [&](double through, double ratio) {
        return QPointF(box.left() + through * box.width(), box.center().y() - (ratio - 1) / reach * box.height() * 0.46);
    };
    painter.fillRect(box, t.sheet);
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(at(0, 1), at(1, 1));
    QPolygonF line;
    painter.setPen(QPen(t.blued, 1));
    for (size_t i = 0; i < samples.size(); ++i) {
        if (samples[i].velocity_ratio > 0)
            line << at(static_cast<double>(i) / static_cast<double>(samples.size()), samples[i].velocity_ratio);
        const bool handed_over = i + 1 < samples.size() && samples[i + 1].tooth != samples[i].tooth;
        if (handed_over && std::abs(samples[i + 1].velocity_ratio - samples[i].velocity_ratio) > 1e-3) {
            painter.setPen(QPen(t.rule, 1, Qt::DashLine));
            const double x = box.left() + box.width() * static_cast<double>(i + 1) / static_cast<double>(samples.size());
            painter.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()));
            painter.setPen(QPen(t.blued, 1));
        }
    }
    paint_touching(painter, box);
    painter.setPen(QPen(t.blued, 1));
    painter.drawPolyline(line);
    write(painter, type(Type::note), t.steel, box.topLeft() + QPointF(4, 11), "+" + QString::number(100 * reach, 'f', 0) + " %");
    write(painter, type(Type::note), t.steel, box.bottomLeft() + QPointF(4, -4), "−" + QString::number(100 * reach, 'f', 0) + " %");
    const DerivedMesh* shown = mesh();
    const DerivedArbor& arbor = *m_document.derived().train.arbor(shown->wheel_of);
    const double through = m_trial.stand(2 * pi * arbor.turns_per_s * m_motion.seconds(), arbor.turns_per_s >= 0).through;
    painter.setPen(QPen(t.ruby, 1));
    painter.drawLine(QPointF(box.left() + through * box.width(), box.top()), QPointF(box.left() + through * box.width(), box.bottom()));
}

/// Where the teeth touch, as the pinion's angle from the line of centres: above the middle line is behind it.
void TeethStation::paint_touching(QPainter& painter, const QRectF& box) {
    const Theme& t = inks(painter);
    const auto& samples = m_trial.result().samples;
    double reach = 5;
    for (const MeshSample& s : samples) reach = std::max(reach, std::abs(s.contact_deg));
    painter.setPen(QPen(t.brass_ink, 1));
    QPolygonF line;
    for (size_t i = 0; i < samples.size(); ++i) {
        // From one pair to the next it jumps: two lines.
        if (i > 0 && samples[i].tooth != samples[i - 1].tooth) {
            painter.drawPolyline(line);
            line.clear();
        }
        line << QPointF(box.left() + box.width() * static_cast<double>(i) / static_cast<double>(samples.size()),
                        box.center().y() - samples[i].contact_deg / reach * box.height() * 0.46);
    }
    painter.drawPolyline(line);
    const QString degrees = QString::number(reach, 'f', 0) + "°";
    write(painter, type(Type::note), t.brass_ink, box.topRight() + QPointF(-4, 11), "+" + degrees, 1);
    write(painter, type(Type::note), t.brass_ink, box.bottomRight() + QPointF(-4, -4), "−" + degrees, 1);
}

double TeethStation::depth_x(double mm) const {
    const double reach = depths_modules * mesh()->module_mm.value;
    return 150 + (mm + reach) / (2 * reach) * (width() - 150 - right_column() - 10);
}

double TeethStation::depth_at(double x) const {
    const double reach = depths_modules * mesh()->module_mm.value;
    return (x - 150) / (width() - 150 - right_column() - 10) * 2 * reach - reach;
}

void TeethStation::try_depth(double mm) {
    m_trial.set_depth(mm);
    update();
}

/// The scale of depths: where the mesh runs well, what was measured, what is tried.
void TeethStation::paint_depths(QPainter& painter, const DerivedMesh& mesh) {
    const Theme& t = inks(painter);
    const double top = height() - card_height - depths_height;
    painter.fillRect(QRectF(0, top, width(), depths_height), t.sheet);
    painter.fillRect(QRectF(0, top, width(), 1), t.rule);
    const double y = top + 24;
    const LengthUnit& unit = m_document.job().length;
    write(painter, type(Type::note), t.steel, {24, y - 2}, words("depth"));
    const double depth = m_trial.depth_mm();
    write(painter, type(Type::note, true), m_trial.is_trial() ? t.amber : t.ink, {24, y + 13},
          std::abs(depth) < 0.005 ? words("as the teeth want")
                                  : words(unit.write(std::abs(depth), unit.turned())) + (depth > 0 ? words(" deep") : words(" shallow")));
    const double left = depth_x(-depths_modules * mesh.module_mm.value);
    const double right = depth_x(depths_modules * mesh.module_mm.value);
    painter.setPen(QPen(t.rule, 2));
    painter.drawLine(QPointF(left, y), QPointF(right, y));
    paint_where_it_runs(painter, left, right, y);
    paint_depth_read(painter, mesh, y);
    painter.setPen(QPen(t.sheet, 1.5));
    painter.setBrush(m_trial.is_trial() ? t.amber : t.ink);
    const double x = std::clamp(depth_x(depth), left, right);
    const QPointF mark[] = {{x, y - 1}, {x - 7, y - 13}, {x + 7, y - 13}};
    painter.drawPolygon(mark, 3);
    if (width() >= roomy) {
        write(painter, type(Type::note), t.steel, {left - 6, y + 19}, words("shallow"));
        write(painter, type(Type::note), t.steel, {right + 6, y + 19}, words("deep"), 1);
    }
    write(painter, type(Type::note), t.steel, {width() - 20.0, y + 4},
          width() < roomy ? words("← →  Home") : legend({"teeth.deeper|teeth.shallower", "teeth.measured"}), 1);
    place({"depth",
           QRectF(left, top + 2, right - left, depths_height - 4),
           [] {},
           words("Drag to try a depth; the job keeps what was measured"),
           {}});
}

void TeethStation::paint_where_it_runs(QPainter& painter, double left, double right, double y) {
    const Theme& t = inks(painter);
    if (const auto& good = m_trial.window()) {
        QColor green = t.verdigris;
        green.setAlphaF(0.28f);
        const QRectF band(QPointF(depth_x(good->shallowest_mm), y - 8), QPointF(depth_x(good->deepest_mm), y + 8));
        painter.fillRect(band, green);
        write(painter, type(Type::note), t.verdigris, {band.center().x(), y + 19}, words("runs well"), 0);
        return;
    }
    write(painter, type(Type::note), t.steel, {(left + right) / 2, y + 19},
          m_trial.looking() ? words("looking where it runs well…") : words("runs well at no depth"), 0);
}

/// What the holes say, with its uncertainty.
void TeethStation::paint_depth_read(QPainter& painter, const DerivedMesh& mesh, double y) {
    painter.setPen(QPen(inks(painter).ink, 1));
    painter.drawLine(QPointF(depth_x(0), y - 6), QPointF(depth_x(0), y + 6));
    if (!mesh.depth_mm) return;
    dimension_line(painter, {depth_x(mesh.depth_mm->value - mesh.depth_mm->u), y - 11},
                   {depth_x(mesh.depth_mm->value + mesh.depth_mm->u), y - 11}, inks(painter).ink, 3);
}

void TeethStation::show_blank(bool shown) {
    m_blank->setVisible(shown && mesh());
    if (!m_blank->isVisible()) return setFocus();
    lay_out();
    m_blank->show_part(*mesh(), m_wheel);
    m_blank->setFocus();
}

void TeethStation::show_wood(bool shown) {
    m_wood->setVisible(shown && mesh());
    emit round_changed();
    if (!m_wood->isVisible()) return setFocus();
    lay_out();
    m_wood->show_mesh(*mesh());
    m_wood->setFocus();
}

void TeethStation::lay_out() {
    put(*m_blank, rect());
    put(*m_wood, rect());
}

void TeethStation::wheelEvent(QWheelEvent* event) { zoom(std::pow(1.0015, event->angleDelta().y()), event->position()); }

void TeethStation::mousePressEvent(QMouseEvent* event) {
    m_drag = event->position();
    m_dragged = place_of("depth").contains(m_drag)    ? Dragged::depth
                : place_of("pinion").contains(m_drag) ? Dragged::pinion
                                                      : Dragged::picture;
    if (m_dragged == Dragged::depth && mesh()) return try_depth(depth_at(m_drag.x()));
    Canvas::mousePressEvent(event);
}

void TeethStation::mouseMoveEvent(QMouseEvent* event) {
    if (!(event->buttons() & Qt::LeftButton)) return Canvas::mouseMoveEvent(event);
    const QPointF by = event->position() - m_drag;
    m_drag = event->position();
    if (m_dragged == Dragged::depth && mesh()) return try_depth(depth_at(m_drag.x()));
    // Towards the wheel is deeper.
    if (m_dragged == Dragged::pinion && mesh()) return try_depth(m_trial.depth_mm() - by.x() / px_per_mm(*mesh()));
    m_pan += by;
    update();
}

QList<Action> TeethStation::make_actions() {
    const auto faults = [this] {
        QMenu* menu = fault_menu();
        menu->setAttribute(Qt::WA_DeleteOnClose);
        menu->popup(on_screen(middle()));
    };
    const auto turn = [this] {
        m_trial.show_whole_turn(!m_trial.whole_turn());
        update();
    };
    const auto pan = [this](int x, int y) {
        return [this, x, y] {
            constexpr double step_px = 40;
            m_pan += step_px * QPointF(x, y);
            update();
        };
    };
    return climbing() +
           QList<Action>{
               {"teeth.closer", words("Closer"), {Qt::Key_Z}, [this] { zoom(1.25, middle()); }, {}, words("zoom")},
               {"teeth.farther", words("Farther off"), {Qt::SHIFT | Qt::Key_Z}, [this] { zoom(0.8, middle()); }},
               {"teeth.left", words("The picture to the left"), {Qt::ALT | Qt::Key_Left}, pan(-1, 0)},
               {"teeth.right", words("The picture to the right"), {Qt::ALT | Qt::Key_Right}, pan(1, 0)},
               {"teeth.up", words("The picture upwards"), {Qt::ALT | Qt::Key_Up}, pan(0, -1)},
               {"teeth.down", words("The picture downwards"), {Qt::ALT | Qt::Key_Down}, pan(0, 1)},
               {"teeth.fit", words("The whole mesh"), {Qt::Key_W}, [this] { fit(); }, {}, words("whole")},
               {"teeth.deeper",
                words("Try it deeper"),
                {Qt::Key_Left},
                [this] { try_depth(m_trial.depth_mm() + tried_step_mm); },
                {},
                words("tries")},
               {"teeth.shallower", words("Try it shallower"), {Qt::Key_Right}, [this] { try_depth(m_trial.depth_mm() - tried_step_mm); }},
               {"teeth.measured",
                words("Back to the depth that was measured"),
                {Qt::Key_Home},
                [this] { try_depth(m_trial.measured_depth_mm()); },
                {},
                words("measured")},
               {"teeth.other-mesh", words("The arbor's other mesh"), {Qt::Key_M}, [this] { other_mesh(); }, {}, words("other mesh")},
               {"teeth.other-part",
                words("The other part of the mesh"),
                {Qt::Key_P},
                [this] { select_part(!m_wheel); },
                {},
                words("other part")},
               {"teeth.turn", words("One turn of the pinion"), {Qt::Key_T}, turn, {}, words("one turn")},
               {"teeth.faults", words("What goes wrong in real movements"), {Qt::Key_F}, faults, {}, words("faults")},
               {"teeth.blank",
                words("The wheel's blank and crossings"),
                {Qt::Key_B, words("Ctrl+B")},
                [this] { show_blank(!blank_shown() || just_come()); },
                words("&View"),
                words("blank")},
               {"teeth.wood", words("Wooden wheels by the season"), {Qt::Key_G}, [this] { show_wood(!wood_shown()); }, {}, words("wood")}};
}

QString TeethStation::writes(const QString& ending) const {
    const bool written = ending == "svg" || ending == "dxf" || ending == "pdf" || ending == "step";
    if (!written) return {};
    const QString part = m_wheel ? words("wheel") : words("pinion");
    const DerivedMesh* now = mesh();
    return now ? words(m_document.job().train.name_of_arbor(m_wheel ? now->wheel_of : now->pinion_of)) + " " + part : part;
}

}  // namespace echappe
