#include "stations/teeth/wood_view.h"

#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "drawing/words.h"
#include "number/units.h"
#include "sheet/marks.h"
#include "theme/theme.h"
#include "wood/frame.h"
#include "wood/let_in.h"
#include "wood/sheets.h"

namespace echappe {
namespace {

/// All of it stands on the picture.
std::vector<std::string> drawn_in_wood() {
    return {"made_moisture", "made_humidity", "made_celsius", "now_moisture", "now_humidity", "now_celsius",
            "wheel_wood",    "rings",         "plate_wood",   "plate_rings",  "plates"};
}

/// Middle and radius of the wheel in its picture; the pinion has room beside it.
std::pair<QPointF, double> stand_of(const QRectF& room) {
    return {QPointF(room.left() + 0.43 * room.width(), room.center().y()), std::min(room.height() * 0.44, room.width() * 0.38)};
}

}  // namespace

WoodView::WoodView(Document& document, QWidget* parent) : CardStation(document, {}, parent) {
    setAccessibleName(words("Wood"));
    hide();
    m_card->set_tabs(
        {{words("wood"), words("Kinds, grain and moisture, when its wheels were round and now."),
          [this] { return wood_sheet(m_document.job().wood.value_or(WoodRecord()), m_document.derived().wood, m_wheel_of, m_pinion_of); },
          SumCard::typed_into_part<std::optional<WoodRecord>>(document, type_into_part<WoodRecord>), drawn_in_wood},
         SumCard::of_sum(
             document, words("let in"), wood_let_in_calculation(), [this] { return m_wheel_of + ".wheel"; },
             [this] {
                 const DerivedMesh* shown = m_document.derived().train.mesh(m_wheel_of, m_pinion_of);
                 if (!shown) return std::map<std::string, double>();
                 return std::map<std::string, double>{{"count", static_cast<double>(shown->wheel)}, {"module_mm", shown->module_mm.value}};
             }),
         SumCard::of_sum(
             document, words("frame"), wood_frame_calculation(), [] { return std::string("frame"); },
             [] { return std::map<std::string, double>(); })});
    connect(&document, &Document::changed, this, [this] {
        if (isVisible()) show_wheel();
    });
}

void WoodView::show_mesh(const DerivedMesh& mesh) {
    m_wheel_of = mesh.wheel_of, m_pinion_of = mesh.pinion_of;
    show_wheel();
}

void WoodView::show_wheel() {
    const DerivedArbor* wheel = m_document.derived().train.arbor(m_wheel_of);
    m_card->show_part(wheel ? words(wheel->name) : QString());
    update();
}

/// Moisture then and now, or the room's air instead; then what it is of.
DrawnSizes WoodView::own_sizes() const {
    const auto& wood = m_document.job().wood;
    if (!wood) return {};
    DrawnSizes drawn = drawn_from(lines_of(WoodRecord::record(), &*wood, drawn_in_wood()), drawn_in_wood(),
                                  SumCard::typed_into_part<std::optional<WoodRecord>>(m_document, type_into_part<WoodRecord>));
    const bool made = wood->made_moisture || (wood->made_humidity && wood->made_celsius),
               now = wood->now_moisture || (wood->now_humidity && wood->now_celsius);
    for (DrawnSize& size : drawn)
        size.may_stay = size.line.field.starts_with("made_") ? made : size.line.field.starts_with("now_") ? now : true;
    return drawn;
}

const WoodMesh* WoodView::mesh() const {
    const auto& all = m_document.derived().wood.meshes;
    const auto at =
        std::find_if(all.begin(), all.end(), [this](const WoodMesh& m) { return m.wheel_of == m_wheel_of && m.pinion_of == m_pinion_of; });
    return at == all.end() ? nullptr : &*at;
}

QList<Action> WoodView::make_actions() {
    return CardStation::make_actions() +
           QList<Action>{{"wood.leave", words("Back to the teeth"), {Qt::Key_Escape, Qt::Key_G}, [this] { emit left(); }}};
}

void WoodView::paint_nothing(QPainter& painter) {
    const Theme& t = inks(painter);
    Column page(painter, QRectF(22, 40, 520, 260));
    page.head(m_document.derived().wood.there ? words("What was its moisture?") : words("Is it of wood?"), t.ink);
    page.says(
        words(
            "Wood swells and shrinks with the air: across the grain ten times as much as along it. A wheel goes oval, its mesh deeper and "
            "shallower twice a turn."),
        t.steel, Type::text);
    if (m_document.derived().wood.there) {
        page.says(
            words("Type the moisture, or the room's air: as it was when the wheels were cut and as it is now. The meter is read into the "
                  "line."),
            t.steel, Type::text);
        return list_sizes(painter, {page.left(), page.y() + 14, 300, height() - page.y() - 40});
    }
    Flow flow(painter, QRectF(22, 0, width() - 44.0, height()), page.y() + 26, 26);
    place({"begin:wood", flow.say(words("wheels of wood"), t.blued, Type::figure, true), [this] { m_document.edit(begin_wood()); },
           words("begins it; every step can be undone")});
}

void WoodView::paint_wheel(QPainter& painter, const QRectF& room, const WoodMesh& mesh) {
    const Theme& t = inks(painter);
    const double cut = mesh.input.diameter_mm / 2, along = mesh.season.along_mm / 2, across = mesh.season.across_mm / 2;
    // Too much by so many times that it is seen.
    constexpr double seen = 0.07;
    const double most = std::max({std::abs(along - cut), std::abs(across - cut), 1e-6});
    const double times = std::max(1.0, round_below(seen * cut / most));
    const auto [middle, r] = stand_of(room);
    const auto px = [&](double mm) { return (cut + (mm - cut) * times) / cut * r; };
    // The grain stands upright: with it the wheel keeps its size, across it it grows.
    QPainterPath now;
    now.addEllipse(middle, px(across), px(along));
    painter.setPen(QPen(t.brass, 1.4));
    painter.setBrush(t.pale_brass);
    painter.drawPath(now);
    painter.save();
    painter.setClipPath(now);
    painter.setPen(QPen(t.brass, 0.7));
    constexpr int lines = 26;
    for (int i = 0; i < lines; ++i) {
        const double x = middle.x() + px(across) * (2.0 * (i + 0.5) / lines - 1), bow = 5 * std::sin(1.9 * i);
        QPainterPath grain(QPointF(x, middle.y() - px(along)));
        grain.cubicTo(QPointF(x + bow, middle.y() - 20), QPointF(x - bow, middle.y() + 30), QPointF(x + bow / 2, middle.y() + px(along)));
        painter.drawPath(grain);
    }
    painter.restore();
    painter.setPen(QPen(t.ink, 1, Qt::DashLine));
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(middle, r, r);
    cross(painter, middle, 6, QPen(t.ink, 1));
    // The pinion at the right, where the wheel is widest.
    const double pinion = std::max(14.0, r * 0.16);
    const QPointF at(middle.x() + r + pinion * 0.8, middle.y());
    painter.setPen(QPen(t.ink, 1));
    painter.setBrush(t.steel);
    painter.drawEllipse(at, pinion, pinion);
    const auto figure = [&](QPointF where, const QString& words) { on_paper(painter, type(Type::text, true), t.ink, where, words); };
    const LengthUnit& unit = m_document.job().length;
    const auto length = [&](double mm) { return words(unit.write(mm, unit.turned())); };
    figure(middle - QPointF(0, px(along) + 8), words("with the grain %1").arg(length(mesh.season.along_mm)));
    figure(middle + QPointF(0, 26), words("across it %1").arg(length(mesh.season.across_mm)));
    write(painter, type(Type::note), t.steel, {room.left(), room.bottom() - 6},
          words("dashed: as it was cut, %1; what it grew is drawn %2 times").arg(length(mesh.input.diameter_mm), words(print_short(times))),
          -1);
}

/// Depth round a turn, and what such teeth bear.
void WoodView::paint_round(QPainter& painter, const QRectF& room, const WoodMesh& mesh) {
    const Theme& t = inks(painter);
    const double most = 1.3 * std::max({std::abs(mesh.deepest_mm), std::abs(mesh.shallowest_mm), 1.2 * mesh.bears_mm()});
    const double middle = room.center().y(), px = room.height() / 2 / most;
    const auto y = [&](double deeper) { return middle + deeper * px; };
    painter.setPen(QPen(t.steel, 0.8));
    painter.drawLine(QPointF(room.left(), middle), QPointF(room.right(), middle));
    // Deeper is down, as the pinion goes into the wheel.
    painter.setPen(QPen(t.ruby, 1, Qt::DashLine));
    const double bears = mesh.bears_mm();
    painter.drawLine(QPointF(room.left(), y(bears)), QPointF(room.right(), y(bears)));
    write(painter, type(Type::note), t.ruby, {room.right(), y(bears) + 15}, words("deeper than this such teeth bind"), 1);
    QPolygonF line;
    constexpr int pieces = 180;
    for (int i = 0; i <= pieces; ++i) line << QPointF(room.left() + room.width() * i / pieces, y(mesh.deeper_mm(360.0 * i / pieces)));
    painter.setPen(QPen(mesh.too_deep() ? t.ruby : t.verdigris, 2));
    painter.drawPolyline(line);
    write(painter, type(Type::note), t.steel, {room.left(), middle - 5}, words("as it was"), -1);
    for (int quarter = 0; quarter <= 4; ++quarter)
        write(painter, type(Type::note), t.steel, {room.left() + room.width() * quarter / 4, room.bottom() + 16},
              words("%1°").arg(90 * quarter),
              quarter == 0   ? -1
              : quarter == 4 ? 1
                             : 0);
}

void WoodView::paint(QPainter& painter) {
    painter.fillRect(rect(), inks(painter).ground);
    const WoodMesh* shown = mesh();
    if (!shown) return paint_nothing(painter);
    const Theme& t = inks(painter);
    const double wide = width() - SumCard::wide, round_high = 170;
    Column page(painter, QRectF(18, 14, wide - 36, 70));
    page.section(words("THE WHEEL OF %1, THIS SEASON").arg(words(m_document.derived().train.arbor(m_wheel_of)->name).toUpper()));
    page.line(shown->too_deep()      ? words("binds: up to %1 mm deeper than it was cut").arg(words(print_fixed(shown->deepest_mm, 2)))
              : shown->too_shallow() ? words("hardly holds: up to %1 mm shallower").arg(words(print_fixed(-shown->shallowest_mm, 2)))
                                     : words("runs: %1 to %2 mm deeper than it was cut")
                                           .arg(words(print_fixed(shown->shallowest_mm, 2)), words(print_fixed(shown->deepest_mm, 2))),
              shown->too_deep() || shown->too_shallow() ? t.ruby : t.verdigris, Type::figure, true);
    constexpr double column = 178;
    const QRectF picture(18, 76, wide - 36 - column, height() - 76 - round_high);
    paint_wheel(painter, picture, *shown);
    const DrawnSizes drawn = sizes();
    Dimensions dimensions(painter, drawn, asked_size());
    const auto [middle, r] = stand_of(picture);
    dimensions.group(words("when cut"), middle + r * QPointF(0.7, -0.71), {"made_moisture", "made_humidity", "made_celsius"});
    dimensions.group(words("now"), middle + r * QPointF(0.97, -0.2), {"now_moisture", "now_humidity", "now_celsius"});
    dimensions.group(words("wood and grain"), middle + r * QPointF(0.6, 0.5),
                     {"wheel_wood", "rings", "plate_wood", "plate_rings", "plates"});
    dimensions.lay_out({picture.right() + 12, picture.top(), column - 12, picture.height() - 30});
    place_sizes(painter, dimensions);
    Column below(painter, QRectF(18, height() - round_high, wide - 36, round_high));
    below.section(words("DEPTH ROUND A TURN OF THE WHEEL"), words("down: deeper"));
    paint_round(painter, QRectF(22, height() - round_high + 26, wide - 44, round_high - 54), *shown);
}

}  // namespace echappe
