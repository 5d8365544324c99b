#include "stations/teeth/blank_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <cmath>

#include "drawing/wheel_art.h"
#include "drawing/words.h"
#include "making/edits.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "sheet/marks.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double wide_column = 234;
constexpr double narrow_column = 196;
constexpr double roomy = 640;  ///< narrower than this the sizes stand in the column, not on the wheel
constexpr double foot_high = 34;
constexpr double reach_px = 7;  ///< how near a circle is taken hold of
constexpr long long points_per_flank = 12;

struct Material {
    const char* words;
    double density_kg_m3;
};
constexpr Material materials[] = {{"engraving brass", 8500}, {"gilding bronze", 8800}, {"tool steel", 7850}, {"boxwood", 900}};

}  // namespace

BlankView::BlankView(Document& document, QWidget* parent) : Station(document, parent), m_editor(new InPlaceEditor(this)) {
    setAccessibleName(words("Blank"));
    m_editor->setAccessibleName(words("size of the blank"));
    hide();
    connect(&document, &Document::changed, this, qOverload<>(&QWidget::update));
    connect(m_editor, &InPlaceEditor::refused, this, [this](const QString& sentence) { emit told(sentence, true); });
}

void BlankView::show_part(const DerivedMesh& mesh, bool wheel) {
    m_wheel_of = mesh.wheel_of;
    m_pinion_of = mesh.pinion_of;
    m_wheel = wheel || !m_document.derived().making.of(mesh).pinion_blank;
    m_trial.reset();
    m_editor->leave();
    update();
}

const DerivedMesh* BlankView::mesh() const { return m_document.derived().train.mesh(m_wheel_of, m_pinion_of); }

const BlankResult* BlankView::blank() const {
    if (m_trial) return &*m_trial;
    const DerivedMesh* shown = mesh();
    if (!shown) return nullptr;
    const MadeMesh& made = m_document.derived().making.of(*shown);
    const auto& blank = m_wheel ? made.wheel_blank : made.pinion_blank;
    return blank ? &*blank : nullptr;
}

const std::string& BlankView::part_name() const { return m_wheel ? mesh()->wheel_part : mesh()->pinion_part; }
BlankChoice BlankView::decided() const { return m_document.job().making.blank_of(part_name()); }

void BlankView::decide(const BlankChoice& choice) {
    if (!mesh()) throw InputError("blank", "a wheel that is in no mesh now", "another");
    // Refused here, with the sentence, before it gets into the job.
    plan_blank({mesh()->geometry(), m_wheel ? "wheel" : "pinion", choice});
    m_document.edit(set_blank(part_name(), choice));
}

void BlankView::set_arms(long long arms) {
    BlankChoice choice = decided();
    choice.arms = arms;
    attempt([&] { decide(choice); });
}

void BlankView::ask(const QString& tag, Size size, double now_mm) {
    const LengthUnit& unit = m_document.job().length;
    m_editor->ask(QString::fromStdString(part_name() + ", ").replace('.', ' ') + tag, place_of(tag),
                  words(unit.write(now_mm, unit.toothed(), false)), [this, size](const QString& text) {
                      BlankChoice choice = decided();
                      if (text.trimmed().isEmpty()) (choice.*size).reset();
                      else choice.*size = parse_reading(text.toStdString(), m_document.job().length.unit(), "size").value;
                      decide(choice);
                  });
}

QString BlankView::length(double mm, bool with_unit) const {
    const LengthUnit& unit = m_document.job().length;
    return words(unit.write(mm, unit.turned(), with_unit));
}

double BlankView::column() const { return width() < roomy ? narrow_column : wide_column; }

QPointF BlankView::middle() const { return {(width() - column()) / 2, (height() - foot_high) / 2 + 12}; }

double BlankView::scale(const BlankResult& blank) const {
    return std::min(width() - column() - 60, height() - foot_high - 84) / blank.outside_diameter_mm;
}

void BlankView::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.ground);
    const DerivedMesh* shown = mesh();
    const BlankResult* planned = blank();
    if (!shown || !planned) {
        write(painter, type(Type::head, true), t.ink, {24, 60}, words("No wheel to blank here"));
        write_wrapped(painter, type(Type::text), t.steel, {24, 78}, 460,
                      words("Select an arbor whose wheel is in a mesh. B goes back to the teeth."));
        return;
    }
    paint_wheel(painter, *shown, *planned);
    paint_sizes(painter, *planned);
    paint_column(painter, *shown, *planned);
    scale_bar(painter, {24, height() - 40.0}, scale(*planned));
    const QString keys = legend({"blank.more-arms|blank.fewer-arms", "blank.leave"});
    write(painter, type(Type::note), t.steel, {24, height() - 12.0},
          width() < roomy ? words("Drag rim or hub  ·  click a figure  ·  ") + keys
                          : words("Drag the rim or the hub  ·  click a figure to type it, empty for the rule  ·  ") + keys);
}

void BlankView::paint_wheel(QPainter& painter, const DerivedMesh& mesh, const BlankResult& blank) {
    const Theme& t = inks(painter);
    const double px = scale(blank);
    painter.save();
    painter.translate(middle());
    painter.scale(px, -px);
    QPen pen(t.brass, 1.0);
    pen.setCosmetic(true);
    painter.setPen(pen);
    painter.setBrush(t.pale_brass);
    painter.drawPath(WheelArt::part(mesh.geometry(), m_wheel, points_per_flank, &blank));
    painter.restore();
    QPen chain(t.blued, 0.9);
    chain.setDashPattern({10, 4, 2, 4});
    painter.setPen(chain);
    painter.setBrush(Qt::NoBrush);
    const PartSizes& sizes = m_wheel ? mesh.sizes.wheel : mesh.sizes.pinion;
    painter.drawEllipse(middle(), sizes.pitch_diameter_mm / 2 * px, sizes.pitch_diameter_mm / 2 * px);
    // The collet's shoulder stands behind the wheel.
    painter.setPen(QPen(t.steel, 0.9, Qt::DotLine));
    painter.drawEllipse(middle(), blank.collet_shoulder_mm / 2 * px, blank.collet_shoulder_mm / 2 * px);
    painter.setPen(QPen(t.ink, 1));
    painter.drawLine(middle() - QPointF(6, 0), middle() + QPointF(6, 0));
    painter.drawLine(middle() - QPointF(0, 6), middle() + QPointF(0, 6));
    if (blank.arms == 0) return;
    // What can be taken hold of.
    painter.setPen(QPen(t.blued, m_dragged ? 1.4 : 0.8));
    const double root = sizes.root_diameter_mm / 2;
    for (const double radius : {root - blank.rim_mm, blank.hub_diameter_mm / 2}) painter.drawEllipse(middle(), radius * px, radius * px);
}

/// A figure that is typed by a click: blued when decided, steel by the rule.
void BlankView::figure(QPainter& painter, const QString& tag, QPointF baseline, const QString& name, Size size, double mm, int align) {
    const Theme& t = inks(painter);
    const bool set = (decided().*size).has_value();
    const double wide = write(painter, type(Type::text, true), set ? t.blued : t.steel, baseline, name + length(mm), align);
    const double left = baseline.x() - (align < 0 ? 0 : align == 0 ? wide / 2 : wide);
    place({tag,
           QRectF(left - 6, baseline.y() - 17, wide + 12, 24),
           [this, tag, size, mm] { ask(tag, size, mm); },
           set ? words("Decided; clear it to follow the rule") : words("By the rule; click to decide otherwise"),
           {}});
}

/// Sizes where they are: the rim across the first opening, the hub between two arms, the arms across their ends.
void BlankView::paint_sizes(QPainter& painter, const BlankResult& blank) {
    if (blank.arms == 0 || width() < roomy) return;
    const Theme& t = inks(painter);
    const double px = scale(blank);
    const DerivedMesh& shown = *mesh();
    const double root = (m_wheel ? shown.sizes.wheel : shown.sizes.pinion).root_diameter_mm / 2;
    const double rim = root - blank.rim_mm;
    const double hub = blank.hub_diameter_mm / 2;
    const double step = 2 * pi / static_cast<double>(blank.arms);
    const auto at = [&](double radius, double angle) {
        return middle() + QPointF(radius * std::cos(angle), -radius * std::sin(angle)) * px;
    };
    const double first = step / 2;
    across(painter, at(rim, first), at(root, first));
    // As far in as the words need to stand clear of the rim.
    const double words_wide = width_of(type(Type::text, true), words("hub Ø ") + length(blank.hub_diameter_mm));
    const double clear = (words_wide / 2 * std::abs(std::cos(first)) + 10 * std::abs(std::sin(first)) + 8) / px;
    figure(painter, "rim", at(rim - clear, first) + QPointF(0, 5), words("rim "), &BlankChoice::rim_mm, blank.rim_mm, 0);
    // As far out as the words need between two arms, on the side away from the arm that carries figures.
    const double hub_way = step * static_cast<double>((blank.arms + 1) / 2) + step / 2;
    const double out = std::min(rim - 20 / px, std::max(hub + 18 / px, (words_wide / 2 + 10) / std::sin(step / 2) / px));
    painter.setPen(QPen(t.blued, 0.8));
    painter.drawLine(at(hub, hub_way), at(out - 10 / px, hub_way));
    figure(painter, "hub", at(out, hub_way) + QPointF(0, 8), words("hub Ø "), &BlankChoice::hub_diameter_mm, blank.hub_diameter_mm, 0);
    const double inset = 5 / px + (rim - hub) * 0.06;
    paint_arm_width(painter, "arm at rim", at(rim - inset, step), step, &BlankChoice::arm_at_rim_mm, blank.arm_at_rim_mm);
    paint_arm_width(painter, "arm at hub", at(hub + inset, step), step, &BlankChoice::arm_at_hub_mm, blank.arm_at_hub_mm);
}

void BlankView::across(QPainter& painter, QPointF a, QPointF b) {
    painter.setPen(QPen(inks(painter).blued, 1));
    painter.drawLine(a, b);
    for (const QPointF& end : {a, b}) painter.drawEllipse(end, 2, 2);
}

void BlankView::paint_arm_width(QPainter& painter, const QString& tag, QPointF at, double angle, Size size, double wide_mm) {
    const QPointF side = QPointF(std::sin(angle), std::cos(angle)) * wide_mm / 2 * scale(*blank());
    across(painter, at - side, at + side);
    // Near the hub the next arm is close on one side: the words stand on the other.
    const bool at_hub = size == &BlankChoice::arm_at_hub_mm;
    figure(painter, tag, at + (at_hub ? side + QPointF(8, 6) : -side - QPointF(10, -4)), {}, size, wide_mm, at_hub ? -1 : 1);
}

void BlankView::paint_column(QPainter& painter, const DerivedMesh& mesh, const BlankResult& blank) {
    const Theme& t = inks(painter);
    const double x = width() - column();
    painter.fillRect(QRectF(x - 12, 0, column() + 12, height()), t.ground);
    Column title(painter, QRectF(24, 18, x - 60, 60));
    title.head(QString::number(m_wheel ? mesh.wheel : mesh.pinion), t.ink, Type::great);
    title.gap(-6);
    title.line(words("%1 wheel, blank").arg(words(m_document.job().train.name_of_arbor(m_wheel ? mesh.wheel_of : mesh.pinion_of))), t.steel,
               Type::text);
    Column page(painter, QRectF(QPointF(x, 26), QPointF(width() - 20.0, height() - foot_high)));
    write_to_turn(page, painter, blank);
    write_weight(page, blank);
    write_inertia(page, blank);
    for (const std::string& warning : blank.warnings) page.says(words(warning), t.amber, Type::note, true);
    page.says(words(m_document.derived().making.of(mesh).blank_fault), t.ruby, Type::note, true);
    paint_section(painter, blank, {x, page.y(), column() - 20, height() - foot_high - page.y()});
}

/// A size that is decided by a click on it.
void BlankView::write_decided(Column& page, QPainter& painter, const QString& tag, const QString& words, Size size, double mm) {
    const QRectF row = page.close_row({words, {}, {}});
    figure(painter, tag, {row.right(), row.top() + 14}, {}, size, mm, 1);
}

void BlankView::write_to_turn(Column& page, QPainter& painter, const BlankResult& blank) {
    const Theme& t = inks(painter);
    page.section(words("TURN AND CROSS OUT"));
    page.close_row({words("over the tips"), length(blank.outside_diameter_mm), t.ink});
    write_decided(page, painter, "thickness", words("thickness"), &BlankChoice::thickness_mm, blank.thickness_mm);
    write_decided(page, painter, "bore", words("bore"), &BlankChoice::bore_mm, blank.bore_mm);
    page.close_row({words("collet seat"), length(blank.collet_seat_mm), t.blued});
    page.close_row({words("collet shoulder"), length(blank.collet_shoulder_mm), t.blued});
    const QRectF arms = page.close_row({words("arms"), {}, {}});
    const double base = arms.top() + 14;
    write(painter, type(Type::figure, true), t.blued, {arms.right() - 62, base}, "−", 0);
    write(painter, type(Type::figure, true), decided().arms ? t.blued : t.steel, {arms.right() - 34, base},
          blank.arms == 0 ? words("solid") : QString::number(blank.arms), 0);
    write(painter, type(Type::figure, true), t.blued, {arms.right() - 4, base}, "+", 0);
    const QSizeF reach(28, 26);
    place({"fewer arms", QRectF({arms.right() - 76, base - 18}, reach), [this, n = blank.arms] { set_arms(n <= 3 ? 0 : n - 1); }, {}, {}});
    place({"more arms",
           QRectF({arms.right() - 18, base - 18}, reach),
           [this, n = blank.arms] { set_arms(n < 3 ? 3 : std::min(8LL, n + 1)); },
           {},
           {}});
    if (width() < roomy && blank.arms > 0) {
        write_decided(page, painter, "rim", words("rim"), &BlankChoice::rim_mm, blank.rim_mm);
        write_decided(page, painter, "hub", words("hub"), &BlankChoice::hub_diameter_mm, blank.hub_diameter_mm);
        write_decided(page, painter, "arm at rim", words("arm at rim"), &BlankChoice::arm_at_rim_mm, blank.arm_at_rim_mm);
        write_decided(page, painter, "arm at hub", words("arm at hub"), &BlankChoice::arm_at_hub_mm, blank.arm_at_hub_mm);
    }
    page.gap(10);
}

void BlankView::write_weight(Column& page, const BlankResult& blank) {
    const Theme& t = page.inks();
    page.section(words("WEIGHT"));
    size_t material = 0;
    for (size_t i = 0; i < std::size(materials); ++i)
        if (materials[i].density_kg_m3 == decided().density_kg_m3) material = i;
    place({"material",
           page.line(words(materials[material].words) + QString(", %1 kg/m³").arg(decided().density_kg_m3), t.blued),
           [this, next = materials[(material + 1) % std::size(materials)].density_kg_m3] {
               BlankChoice choice = decided();
               choice.density_kg_m3 = next;
               attempt([&] { decide(choice); });
           },
           words("Click for another material"),
           {}});
    page.close_row({words("crossed out"), words(print_short(blank.mass_g, 3)) + " g", t.ink});
    if (width() >= roomy) page.close_row({words("solid"), words(print_short(blank.solid_mass_g, 3)) + " g", t.steel});
    page.close_row({words("saved"), QString::number(blank.saved_percent, 'f', 0) + " %", t.verdigris});
    page.gap(10);
}

void BlankView::write_inertia(Column& page, const BlankResult& blank) {
    const Theme& t = page.inks();
    page.section(width() < roomy ? words("INERTIA") : words("INERTIA ABOUT THE ARBOR"));
    const auto inertia = [](double i) { return QString::number(i, 'f', i < 10 ? 2 : i < 100 ? 1 : 0) + " g·mm²"; };
    page.close_row({words("crossed out"), inertia(blank.inertia_g_mm2), t.ink});
    if (width() >= roomy) page.close_row({words("solid"), inertia(blank.solid_inertia_g_mm2), t.steel});
    page.close_row({words("saved"), QString::number(blank.inertia_saved_percent, 'f', 0) + " %", t.verdigris});
    page.gap(4);
}

/// The wheel on its collet and arbor, cut through the middle.
void BlankView::paint_section(QPainter& painter, const BlankResult& blank, const QRectF& room) {
    if (room.height() < 124 || blank.collet_shoulder_mm == 0) return;
    const Theme& t = inks(painter);
    const double px = std::min(room.width() * 0.5 / blank.collet_shoulder_mm, 34 / blank.thickness_mm);
    const double mid = room.center().x();
    const double top = room.top() + 44;
    const double thick = blank.thickness_mm * px;
    const double shoulder = std::max(thick * 0.8, 10.0);
    const auto box = [&](double width_mm, double from, double to) {
        return QRectF(mid - width_mm / 2 * px, from, width_mm * px, to - from);
    };
    painter.setPen(QPen(t.ink, 1));
    painter.setBrush(t.pale_brass);
    for (const double side : {-1.0, 1.0}) {
        const double edge = side < 0 ? room.left() : room.right();
        const double bore = mid + side * blank.bore_mm / 2 * px;
        painter.drawRect(QRectF(QPointF(std::min(edge, bore), top), QPointF(std::max(edge, bore), top + thick)));
    }
    painter.setBrush(t.brass);
    painter.drawRect(box(blank.bore_mm, top - 4, top + thick));
    painter.drawRect(box(blank.collet_shoulder_mm, top + thick, top + thick + shoulder));
    painter.setBrush(t.dark ? t.steel.darker(190) : t.steel.lighter(165));
    painter.drawRect(box(blank.arbor_mm, top - 16, top + thick + shoulder + 12));
    painter.setBrush(Qt::NoBrush);
    write(painter, type(Type::note), t.steel, {room.left(), top - 26}, words("wheel on its collet, in section"));
    write(painter, type(Type::note), t.steel, {room.left(), top + thick + shoulder + 28}, words("shoulder behind, rivet in front"));
}

void BlankView::mousePressEvent(QMouseEvent* event) {
    const BlankResult* planned = blank();
    m_dragged = nullptr;
    if (planned && planned->arms > 0 && event->button() == Qt::LeftButton) {
        const QPointF from = event->position() - middle();
        const double radius = std::hypot(from.x(), from.y());
        const DerivedMesh& shown = *mesh();
        const double root = (m_wheel ? shown.sizes.wheel : shown.sizes.pinion).root_diameter_mm / 2;
        const double px = scale(*planned);
        if (std::abs(radius - planned->hub_diameter_mm / 2 * px) < reach_px) m_dragged = &BlankChoice::hub_diameter_mm;
        else if (std::abs(radius - (root - planned->rim_mm) * px) < reach_px) m_dragged = &BlankChoice::rim_mm;
    }
    if (!m_dragged) return Canvas::mousePressEvent(event);
    m_trial_choice = decided();
}

void BlankView::mouseMoveEvent(QMouseEvent* event) {
    if (!m_dragged) return Canvas::mouseMoveEvent(event);
    const DerivedMesh& shown = *mesh();
    const QPointF from = event->position() - middle();
    const double radius = std::hypot(from.x(), from.y()) / scale(*blank());
    const double root = (m_wheel ? shown.sizes.wheel : shown.sizes.pinion).root_diameter_mm / 2;
    constexpr double grain_mm = 0.05;
    const double wanted = m_dragged == &BlankChoice::rim_mm ? root - radius : 2 * radius;
    BlankChoice choice = m_trial_choice;
    choice.*m_dragged = std::max(grain_mm, std::round(wanted / grain_mm) * grain_mm);
    try {
        BlankInput input{shown.geometry(), m_wheel ? "wheel" : "pinion", choice};
        input.points_per_flank = 8;
        m_trial = plan_blank(input);
        m_trial_choice = choice;
    } catch (const InputError&) {
        // Further than it can go: it stays where it last could be.
    }
    update();
}

void BlankView::mouseReleaseEvent(QMouseEvent* event) {
    if (!m_dragged) return Canvas::mouseReleaseEvent(event);
    m_dragged = nullptr;
    const bool moved = m_trial.has_value();
    m_trial.reset();
    if (moved) attempt([&] { decide(m_trial_choice); });
    update();
}

QList<Action> BlankView::make_actions() {
    const auto planned = [this] { return blank() != nullptr; };
    const auto more = [this] { set_arms(blank()->arms < 3 ? 3 : std::min(8LL, blank()->arms + 1)); };
    const auto fewer = [this] { set_arms(blank()->arms <= 3 ? 0 : blank()->arms - 1); };
    return climbing() + QList<Action>{{"blank.more-arms", words("One arm more"), {Qt::Key_A}, more, {}, words("arms"), planned},
                                      {"blank.fewer-arms", words("One arm less"), {Qt::SHIFT | Qt::Key_A}, fewer, {}, {}, planned},
                                      {"blank.leave",
                                       words("Back to the mesh"),
                                       {Qt::Key_B, Qt::Key_Escape},
                                       [this] { emit left(); },
                                       {},
                                       words("back to the mesh")}};
}

}  // namespace echappe
