#include "sheet/dimensions.h"

#include <algorithm>
#include <utility>

#include "drawing/lettered.h"
#include "drawing/words.h"
#include "sheet/marks.h"

namespace echappe {
namespace {

constexpr double callout_high = 20;       ///< of a callout, with its air
constexpr double tall_callout_high = 34;  ///< of one whose name does not fit beside its figure
constexpr double leader_gap = 6;          ///< between words and the line that points

}  // namespace

Dimensions::Ink Dimensions::ink_of(const DrawnSize& size) const {
    const Theme& t = inks(m_painter);
    if (size.id == m_asked) return {t.amber, t.amber, true};
    if (size.open()) return {t.amber, t.amber, true};
    if (!size.known()) return {t.steel, t.steel, false};
    return size.assumed() ? Ink{t.steel, t.steel, false} : Ink{t.steel, t.ink, true};
}

/// "8.0 mm", "steel"; with a dash where it is open.
QString Dimensions::figure_of(const DrawnSize& size) const {
    const bool close = size.line.unit == "deg";
    const QString unit = close ? QString::fromUtf8("°") : words(size.line.unit);
    const QString figure = size.known() ? size.said() : QString::fromUtf8("–");
    return unit.isEmpty() ? figure : figure + (close ? QString() : QStringLiteral(" ")) + unit;
}

QString Dimensions::written_of(const DrawnSize& size, Name name) const {
    return name == Name::written ? size.label + "  " + figure_of(size) : figure_of(size);
}

void Dimensions::keep(const DrawnSize& size, const QRectF& at) {
    m_stood.push_back({&size, at});
    const QString figure = size.known() ? size.said() : QString::fromUtf8("–");
    TakingDown::figure(m_painter, {size.label + " " + figure_of(size), at, size.label, figure, words(size.line.unit)});
}

DrawingLayer Dimensions::layer(const std::string& name) const {
    DrawingLayer layer{name, {}, {}, {}, DrawingLayer::Of::construction};
    const QTransform to_mm = m_mm_to_px.inverted();
    constexpr double letter_px = 12;
    for (const Stood& one : m_stood) {
        const QPointF at = to_mm.map(one.at.center());
        const double high = to_mm.m22() * letter_px;
        layer.notes.push_back({{at.x(), -at.y()}, high, (one.size->label + " " + figure_of(*one.size)).toStdString()});
    }
    return layer;
}

bool Dimensions::placed(const QString& id) const {
    return std::any_of(m_stood.begin(), m_stood.end(), [&](const Stood& one) { return one.size->id == id; }) ||
           std::any_of(m_pointed.begin(), m_pointed.end(), [&](const Pointed& one) { return one.id == id; });
}

void Dimensions::rest() {
    for (const DrawnSize& size : m_sizes)
        if (!placed(size.id)) m_pointed.push_back({size.id, {}, {}});
}

void Dimensions::between(const QString& id, QPointF from, QPointF to, Name name) {
    const DrawnSize* size = size_by(m_sizes, id);
    if (!size) return;
    const QString figure = written_of(*size, name);
    dimension(m_painter, from, to, figure, ink_of(*size).figure);
    const double half = width_of(type(Type::text, true), figure) / 2 + 5;
    keep(*size, QRectF((from + to) / 2 - QPointF(half, 10), QSizeF(2 * half, 20)));
}

void Dimensions::in(const QString& id, QPointF middle, Name name) {
    const DrawnSize* size = size_by(m_sizes, id);
    if (!size) return;
    const Ink ink = ink_of(*size);
    const QRectF at = on_paper(m_painter, type(Type::text, ink.strong), ink.figure, middle, written_of(*size, name));
    keep(*size, at);
}

/// One line where name and figure have room beside each other, else the name above its figure.
QRectF Dimensions::write_callout(const DrawnSize& size, const QString& label, const QRectF& column, double baseline) {
    const Ink ink = ink_of(size);
    const QFont name_font = type(Type::note), figure_font = type(Type::text, ink.strong);
    const QString figure = figure_of(size);
    const double figure_wide = width_of(figure_font, figure), name_wide = width_of(name_font, label);
    constexpr double between_px = 7;
    const bool has_room = name_wide + between_px + figure_wide <= column.width(), one_line = has_room || m_tight;
    const double name_shown = has_room ? name_wide : std::max(0.0, column.width() - between_px - figure_wide);
    const double wide = one_line ? name_shown + between_px + figure_wide : std::min(column.width(), std::max(name_wide, figure_wide));
    const double left = column.left();
    const QRectF at(left - 4, baseline - (one_line ? 14 : 28), wide + 8, one_line ? 19 : 33);
    m_painter.fillRect(at, inks(m_painter).ground);
    if (one_line) {
        write(m_painter, name_font, ink.name, {left, baseline}, elided(name_font, label, name_shown + 0.5));
        write(m_painter, figure_font, ink.figure, {left + name_shown + between_px, baseline}, figure);
    } else {
        write(m_painter, name_font, ink.name, {left, baseline - 15}, elided(name_font, label, column.width()));
        write(m_painter, figure_font, ink.figure, {left, baseline}, figure);
    }
    return at;
}

void Dimensions::group(const QString& head, QPointF spot, const QStringList& ids) {
    std::vector<Pointed> members;
    for (const QString& id : ids)
        if (const DrawnSize* size = size_by(m_sizes, id)) {
            // The group's name need not be said again.
            QString label = size->label;
            for (const QString& begin : {head + ", ", head + " "})
                if (label.startsWith(begin)) label.remove(0, begin.size());
            for (const QString& end : {", " + head, " " + head})
                if (label.endsWith(end)) label.chop(end.size());
            members.push_back({id, spot, {}, true, label});
        }
    if (members.empty()) return;
    m_pointed.push_back({{}, spot, head});
    m_pointed.insert(m_pointed.end(), members.begin(), members.end());
}

double Dimensions::high_of(const Pointed& one, double column_wide) const {
    if (!one.head.isEmpty()) return callout_high + 3;
    const DrawnSize* size = size_by(m_sizes, one.id);
    if (!size) return 0;
    if (m_tight) return callout_high;
    const double wide = width_of(type(Type::note), label_of(one, *size)) + 7 + width_of(type(Type::text, true), figure_of(*size));
    return wide <= column_wide ? callout_high : tall_callout_high;
}

void Dimensions::point(QPointF from, QPointF to, bool asked) {
    const Theme& t = inks(m_painter);
    m_painter.setPen(QPen(asked ? t.amber : t.steel, asked ? 1.6 : 0.7));
    m_painter.setBrush(Qt::NoBrush);
    m_painter.drawPolyline(QPolygonF({from, from - QPointF(leader_gap, 0), to}));
    m_painter.setBrush(m_painter.pen().color());
    m_painter.drawEllipse(to, 1.6, 1.6);
}

/// From the top down in the order of what they point at, pushed apart where they would touch.
void Dimensions::lay_out(const QRectF& column) {
    std::vector<Pointed> list = std::exchange(m_pointed, {});
    std::stable_sort(list.begin(), list.end(), [](const Pointed& a, const Pointed& b) {
        constexpr double last = 1e9;
        return (a.spot ? a.spot->y() : last) < (b.spot ? b.spot->y() : last);
    });
    // Where they do not all have room each takes one line, then they stand closer, and at last the groups lose their names.
    const auto whole = [&] {
        double high = 0;
        for (const Pointed& one : list) high += high_of(one, column.width());
        return high;
    };
    constexpr double closest = 0.8;
    m_tight = whole() > column.height();
    if (closest * whole() > column.height()) std::erase_if(list, [](const Pointed& one) { return !one.head.isEmpty(); });
    const double close = std::clamp(column.height() / std::max(1.0, whole()), closest, 1.0);
    std::vector<double> foot(list.size());
    double y = column.top();
    for (size_t i = 0; i < list.size(); ++i) {
        const bool own_spot = list[i].spot && !list[i].grouped;
        y = std::max(y + close * high_of(list[i], column.width()), own_spot ? list[i].spot->y() + 5 : 0.0);
        foot[i] = y;
    }
    // Those that ran over the foot go up, each as far as the next one pushes it.
    double most = column.bottom();
    for (size_t i = list.size(); i-- > 0;) {
        foot[i] = std::min(foot[i], most);
        most = foot[i] - close * high_of(list[i], column.width());
    }
    for (size_t i = 0; i < list.size(); ++i) {
        const Pointed& one = list[i];
        if (!one.head.isEmpty()) {
            const double wide = write(m_painter, type(Type::note, true), inks(m_painter).ink, {column.left(), foot[i]}, one.head);
            point({column.left() - 4, foot[i] - 4}, *one.spot, false);
            m_painter.fillRect(QRectF(column.left(), foot[i] + 3, wide, 1), inks(m_painter).rule);
            continue;
        }
        const DrawnSize* size = size_by(m_sizes, one.id);
        if (!size) continue;
        const QRectF at = write_callout(*size, label_of(one, *size), column, foot[i]);
        keep(*size, at);
        const bool asked = size->id == m_asked;
        if (one.spot && (!one.grouped || asked)) point({at.left(), foot[i] - 5}, *one.spot, asked);
    }
}

}  // namespace echappe
