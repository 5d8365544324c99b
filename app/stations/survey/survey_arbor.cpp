#include <algorithm>
#include <cmath>

#include "drawing/dots.h"
#include "drawing/wheel_art.h"
#include "drawing/words.h"
#include "number/constants.h"
#include "number/units.h"
#include "stations/survey/survey_station.h"
#include "theme/theme.h"

namespace echappe {
/// The arbor between its plates, seen from the side: places along it are a sign, its spots are what matters.
void SurveyStation::paint_arbor(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    const DerivedArbor* arbor = m_document.derived().train.arbor(m_document.selection().subject());
    if (!arbor) return;
    const auto& survey = m_document.derived().survey;
    // Where there is little room, only what the spot needs stands beside the arbor.
    constexpr double roomy = 620;
    const std::string kind = spot() ? spot()->kind : "";
    const bool wheel_face = room.width() >= roomy || kind == "wheel";
    const bool indicator = indicator_mm().has_value() && (room.width() >= roomy || kind == "arbor");
    const double face = wheel_face ? std::min(room.height() - 24, room.width() * 0.3) : 0;
    Column page(painter, room.adjusted(2, 6, -face - (indicator ? 130 : 0), 0));
    page.section(words(arbor->name).toUpper() + words(" ARBOR"));
    page.gap(-4);
    if (const auto way = survey.way_up.find(arbor->id); way != survey.way_up.end())
        page.line(words("goes with its %1").arg(words(way->second)), t.steel);
    const Side side{room.left() + 88, room.right() - face - 110 - (indicator ? 120 : 0), room.top() + 46 + (room.height() - 60) / 2,
                    std::min(150.0, room.height() - 92)};
    paint_side(painter, *arbor, side);
    paint_spot_at(painter, arbor->id + ".front", side, 0.0, 0);
    paint_spot_at(painter, arbor->id + ".pinion", side, 0.3, -20);
    paint_spot_at(painter, arbor->id, side, 0.46, 26);
    paint_spot_at(painter, arbor->id + ".wheel", side, 0.62, -side.high * 0.2 - 20);
    paint_spot_at(painter, arbor->id + ".back", side, 1.0, 0);
    if (indicator) paint_indicator(painter, QRectF(side.right + 104, room.top() + 34, 110, room.height() - 40));
    if (wheel_face) paint_wheel_face(painter, *arbor, QRectF(room.right() - face, room.top() + 14, face, face));
}

void SurveyStation::paint_side(QPainter& painter, const DerivedArbor& arbor, const Side& side) {
    const Theme& t = inks(painter);
    // Plates, cut.
    painter.setPen(QPen(t.brass, 1));
    painter.setBrush(QBrush(t.brass, Qt::BDiagPattern));
    for (const double share : {0.0, 1.0}) painter.drawRect(QRectF(side.along(share) - 7, side.middle - side.high / 2, 14, side.high));
    write(painter, type(Type::note), t.steel, {side.along(0), side.middle + side.high / 2 + 14}, words("front"), 0);
    write(painter, type(Type::note), t.steel, {side.along(1), side.middle + side.high / 2 + 14}, words("back"), 0);
    painter.setPen(QPen(t.ink, 0.8));
    painter.setBrush(t.steel);
    painter.drawRect(QRectF(side.left - 9, side.middle - 2, side.right - side.left + 18, 4));
    painter.drawRect(QRectF(side.left + 9, side.middle - 4.5, side.right - side.left - 18, 9));
    if (arbor.wheel.count.present()) {
        double largest = 1;
        for (const DerivedArbor& other : m_document.derived().train.arbors) largest = std::max(largest, other.wheel_radius_mm);
        const double tall = std::clamp(arbor.wheel_radius_mm / largest, 0.35, 1.0) * side.high * 0.86;
        painter.setPen(QPen(t.brass, 1));
        painter.setBrush(t.pale_brass);
        painter.drawRect(QRectF(side.along(0.62) - 5, side.middle - tall / 2, 10, tall));
    }
    if (!arbor.pinion.count.present()) return;
    const QPointF pinion(side.along(0.3), side.middle);
    painter.setPen(QPen(t.ink, 0.8));
    painter.setBrush(t.steel);
    painter.drawRect(QRectF(pinion - QPointF(17, 11), QSizeF(34, 22)));
    painter.setPen(QPen(t.sheet, 0.8));
    for (const double line : {-5.0, 0.0, 5.0}) painter.drawLine(pinion + QPointF(-17, line), pinion + QPointF(17, line));
}

/// A spot of the arbor with its word: holes outside the plates, the rest above or below.
void SurveyStation::paint_spot_at(QPainter& painter, const std::string& part, const Side& side, double share, double lift) {
    const Theme& t = inks(painter);
    const QPointF at(side.along(share), side.middle + lift);
    for (const Spot& s : m_document.derived().survey.spots) {
        if (s.part != part) continue;
        paint_spot(painter, s, at, 7);
        const bool hole = s.kind == "hole";
        const double beside = hole ? 0 : lift < 0 ? -31 : 27;
        const double out = hole ? (share < 0.5 ? -14 : 14) : 0;
        const int align = hole ? (share < 0.5 ? 1 : -1) : 0;
        write(painter, type(Type::note, true), m_shown == s.part ? t.blued : t.ink, at + QPointF(out, beside), words(s.kind), align);
        write(painter, type(Type::note), ink_of(s, t), at + QPointF(out, beside + 13), word_of(s), align);
    }
}

/// Filled once and stamped from then on: a crossed wheel of a hundred teeth takes longer than all the rest of the picture.
void SurveyStation::paint_face(QPainter& painter, const QPainterPath& outline, QPointF middle, double radius) {
    const Theme& t = inks(painter);
    const double ratio = dots_in_pixel(painter);
    const int size = 2 * static_cast<int>(std::ceil(radius + 4));
    if (m_face.outline != outline || m_face.dark != t.dark || m_face.picture.devicePixelRatio() != ratio) {
        m_face = {outline, t.dark, QPixmap(QSize(size, size) * ratio)};
        m_face.picture.setDevicePixelRatio(ratio);
        m_face.picture.fill(Qt::transparent);
        QPainter into(&m_face.picture);
        into.setRenderHint(QPainter::Antialiasing);
        into.translate(size / 2.0, size / 2.0);
        into.setPen(QPen(t.brass, 0));
        into.setBrush(t.pale_brass);
        into.drawPath(outline);
    }
    painter.drawPixmap(middle - QPointF(size / 2.0, size / 2.0), m_face.picture);
}

const DerivedMesh* SurveyStation::mesh_of_wheel(const DerivedArbor& arbor) const {
    for (const DerivedMesh& mesh : m_document.derived().train.meshes)
        if (mesh.wheel_of == arbor.id) return &mesh;
    return nullptr;
}

long long SurveyStation::teeth_of(const DerivedArbor& arbor) const {
    const DerivedMesh* mesh = mesh_of_wheel(arbor);
    return mesh ? mesh->wheel : arbor.wheel.count.known() ? arbor.wheel.count.value : 0;
}

/// The wheel as it lies before one: a click on a tooth marks it as damaged.
void SurveyStation::paint_wheel_face(QPainter& painter, const DerivedArbor& arbor, const QRectF& room) {
    const Theme& t = inks(painter);
    const DerivedMesh* mesh = mesh_of_wheel(arbor);
    const long long count = teeth_of(arbor);
    if (count < 4 || !arbor.wheel.count.present()) return;
    const QPointF middle = room.center();
    const double radius = room.width() / 2 - 12;
    QPainterPath outline;
    if (mesh) {
        const double px = radius / (mesh->sizes.wheel.outside_diameter_mm / 2);
        const auto& blank = m_document.derived().making.of(*mesh).wheel_blank;
        outline = QTransform::fromScale(px, -px).map(WheelArt::part(mesh->geometry(), true, 4, blank ? &*blank : nullptr));
    } else {
        outline = QTransform::fromScale(1, -1).map(WheelArt::escape_wheel(count, radius));
    }
    paint_face(painter, outline, middle, radius);
    paint_teeth_to_mark(painter, arbor.id + ".wheel", count, middle, radius);
    m_wheel_caption = QRectF(middle.x() - 110, room.bottom() - 12, 220, 26);
    painter.setPen(QPen(t.blued, 1.4));
    painter.drawLine(middle + QPointF(radius + 4, 0), middle + QPointF(radius + 11, 0));
    QStringList list;
    if (const ConditionRecord* condition = m_document.job().survey.condition(arbor.id + ".wheel"))
        for (const long long tooth : condition->teeth) list << QString::number(tooth);
    write(painter, type(Type::note), list.isEmpty() ? t.steel : t.ruby, {middle.x(), room.bottom() + 4},
          list.isEmpty() ? words("click a damaged tooth, or Shift+T")
                         : (list.size() == 1 ? words("tooth %1 of %2") : words("teeth %1 of %2")).arg(list.join(", ")).arg(count),
          0);
}

/// Each tooth is a place; those that are bent or missing are marked.
void SurveyStation::paint_teeth_to_mark(QPainter& painter, const std::string& wheel, long long count, QPointF middle, double radius) {
    const Theme& t = inks(painter);
    const ConditionRecord* condition = m_document.job().survey.condition(wheel);
    const double step = 2 * pi / static_cast<double>(count);
    const double reach = std::max(3.0, std::min(9.0, radius * step / 2));
    for (long long tooth = 1; tooth <= count; ++tooth) {
        const double angle = step * static_cast<double>(tooth - 1);
        const QPointF at = middle + QPointF(std::cos(angle), -std::sin(angle)) * (radius - 3);
        if (condition && std::find(condition->teeth.begin(), condition->teeth.end(), tooth) != condition->teeth.end()) {
            painter.setPen(QPen(t.ruby, 2));
            painter.setBrush(t.ruby);
            painter.drawEllipse(at, 3.4, 3.4);
        }
        place({.tag = "tooth:" + QString::number(tooth),
               .rect = QRectF(at - QPointF(reach, reach), QSizeF(2 * reach, 2 * reach)),
               .click = [this, tooth] { toggle_tooth(tooth); },
               .hint = words("Tooth %1, anticlockwise from the mark; click when it is bent or missing").arg(tooth),
               .passed = true});
    }
}

std::optional<double> SurveyStation::indicator_mm() const {
    if (!m_document.calliper()) return {};
    constexpr double deg_per_s = 40;  ///< while the movement runs: a slow turn by hand
    return m_document.calliper()->indicator_mm(m_document.selection().subject(), m_angle_deg + deg_per_s * m_motion.seconds());
}

void SurveyStation::turn_arbor(double degrees) {
    if (m_indicated != m_document.selection().subject()) {
        m_indicated = m_document.selection().subject();
        m_highest = m_lowest = indicator_mm().value_or(0);
    }
    m_angle_deg += degrees;
    const double now = indicator_mm().value_or(0);
    m_highest = std::max(m_highest, now);
    m_lowest = std::min(m_lowest, now);
    update();
}

/// A dial with a needle: a division is a hundredth of a millimetre.
void SurveyStation::paint_indicator(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    const QPointF middle(room.center().x(), room.top() + 60);
    constexpr double radius = 44;
    constexpr double mm_a_turn = 0.4;
    painter.setPen(QPen(t.ink, 1.2));
    painter.setBrush(t.sheet);
    painter.drawEllipse(middle, radius, radius);
    for (int i = 0; i < 40; ++i) {
        const double a = i * 2 * pi / 40;
        const QPointF way(std::sin(a), -std::cos(a));
        painter.setPen(QPen(t.steel, i % 10 == 0 ? 1.4 : 0.7));
        painter.drawLine(middle + way * (radius - (i % 10 == 0 ? 8 : 5)), middle + way * (radius - 2));
    }
    const bool fresh = m_indicated != m_document.selection().subject();
    const auto way_of = [&](double mm) {
        const double a = mm / mm_a_turn * 2 * pi;
        return QPointF(std::sin(a), -std::cos(a));
    };
    if (!fresh) {
        painter.setPen(QPen(t.amber, 1.4));
        for (const double end : {m_lowest, m_highest})
            painter.drawLine(middle + way_of(end) * (radius - 10), middle + way_of(end) * (radius + 4));
    }
    painter.setPen(QPen(t.ruby, 1.8));
    painter.drawLine(middle - way_of(*indicator_mm()) * 8, middle + way_of(*indicator_mm()) * (radius - 7));
    painter.setBrush(t.ink);
    painter.setPen(Qt::NoPen);
    painter.drawEllipse(middle, 2.6, 2.6);
    const double y = middle.y() + radius + 18;
    write(painter, type(Type::note), t.steel, {middle.x(), y}, words("SIMULATED"), 0);
    write(painter, type(Type::figure, true), fresh ? t.steel : t.ink, {middle.x(), y + 20},
          fresh ? words("turn it") : words(print_fixed(indicator_tir_mm(), 2)) + words(" mm TIR"), 0);
    write(painter, type(Type::note), t.steel, {middle.x(), y + 36}, words("I turns, Space runs"), 0);
    place({"indicator",
           QRectF(room.left(), room.top(), room.width(), 160),
           [this] { turn_arbor(15); },
           words("A division is 0.01 mm; each click turns the arbor by 15 degrees"),
           {}});
}

}  // namespace echappe
