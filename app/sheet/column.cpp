#include "sheet/column.h"

#include <QFontMetricsF>
#include <algorithm>

#include "drawing/lettered.h"
#include "sheet/marks.h"

namespace echappe {
namespace {

constexpr double unit_wide = 46;    ///< kept free for the unit, so that figures stand under one another
constexpr double remark_wide = 94;  ///< and for the remark, where a row has one
constexpr double row_high = 22;
constexpr double line_high = 20;

}  // namespace

QRectF Column::taken(double from, double high) {
    m_y = from + high;
    return {m_room.left(), from, m_room.width(), high};
}

void Column::section(const QString& words, const QString& at_right) {
    write(m_painter, type(Type::note, true), inks().steel, {m_room.left(), m_y + 12}, words);
    if (!at_right.isEmpty()) write(m_painter, type(Type::note), inks().steel, {m_room.right(), m_y + 12}, at_right, 1);
    m_y += line_high;
}

QRectF Column::head(const QString& words, const QColor& ink, Type size) {
    const QFont font = type_to_fit(size, true, words, m_room.width());
    const double ascent = QFontMetricsF(font).ascent();
    write(m_painter, font, ink, {m_room.left(), m_y + ascent}, words);
    return taken(m_y, ascent + 10);
}

QRectF Column::says(const QString& words, const QColor& ink, Type size, bool bold, double indent) {
    if (words.isEmpty()) return taken(m_y, 0);
    return taken(m_y, write_wrapped(m_painter, type(size, bold), ink, {m_room.left() + indent, m_y}, m_room.width() - indent, words) + 4);
}

QRectF Column::line(const QString& words, const QColor& ink, Type size, bool bold, double indent) {
    const QFont font = type(size, bold);
    write(m_painter, font, ink, {m_room.left() + indent, m_y + 14}, elided(font, words, m_room.width() - indent));
    return taken(m_y, line_high);
}

void Column::write_row(const Row& row, double baseline) {
    const Theme& t = inks();
    double x = m_room.right();
    if (!row.remark.isEmpty()) write(m_painter, type(Type::note), t.steel, {x, baseline}, row.remark, 1);
    if (!row.remark.isEmpty() || !row.unit.isEmpty()) {
        x -= row.remark.isEmpty() ? unit_wide - 4 : remark_wide;
        write(m_painter, type(Type::note), t.steel, {x, baseline}, row.unit);
        x -= 4;
    }
    const double wide = write(m_painter, type(row.size, row.strong), row.ink, {x, baseline}, row.figure, 1);
    const double name_room = x - wide - 8 - m_room.left();
    write(m_painter, type(Type::note), t.steel, {m_room.left(), baseline}, elided(type(Type::note), row.name, name_room));
    take_down(row, {m_room.left(), baseline - 14, m_room.width(), row_high});
}

void Column::take_down(const Row& row, const QRectF& at) {
    const QString words = QStringList({row.name, row.figure, row.unit, row.remark}).join(' ').simplified();
    TakingDown::figure(m_painter, {words, at, row.name, row.figure, row.unit});
}

QRectF Column::row(const Row& row) {
    write_row(row, m_y + 14);
    const QRectF at = taken(m_y, row_high);
    rule();
    return at;
}

QRectF Column::close_row(const Row& row) {
    write_row(row, m_y + 14);
    return taken(m_y, row_high);
}

QRectF Column::long_row(const Row& row) {
    constexpr double name_share = 0.56, least_share = 0.3, between = 8;
    const Theme& t = inks();
    const double from = m_y, wide = width_of(type(row.size, row.strong), row.figure);
    const double beside = m_room.width() - unit_wide - wide - between;
    // A list that leaves its name no room stands under it, in as many lines as it needs.
    const bool under = beside < least_share * m_room.width();
    const double name_wide = under ? m_room.width() : std::min(name_share * m_room.width(), beside);
    const double name_high = write_wrapped(m_painter, type(Type::note), t.steel, {m_room.left(), from + 2}, name_wide, row.name) + 4;
    double high = std::max(row_high - 2, name_high);
    if (under) {
        const QString figure = row.unit.isEmpty() ? row.figure : row.figure + ' ' + row.unit;
        high = name_high +
               write_wrapped(m_painter, type(Type::text, row.strong), row.ink, {m_room.left(), from + name_high}, m_room.width(), figure);
    } else {
        write(m_painter, type(Type::note), t.steel, {m_room.right() - unit_wide + 4, from + 14}, row.unit);
        write(m_painter, type(row.size, row.strong), row.ink, {m_room.right() - unit_wide, from + 14}, row.figure, 1);
    }
    take_down(row, {m_room.left(), from, m_room.width(), high});
    return taken(from, high + 2);
}

void Column::rule() { m_painter.fillRect(QRectF(m_room.left(), m_y - 2, m_room.width(), 1), inks().rule); }

QRectF Column::remark(const QString& words, const QColor& bar) {
    constexpr double indent = 10, thick = 3;
    const QRectF at = says(words, inks().ink, Type::note, false, indent);
    m_painter.fillRect(QRectF(at.left(), at.top() + 1, thick, at.height() - 4), bar);
    return at;
}

QRectF Column::step(const QString& words, Tick tick, bool bold) {
    constexpr double indent = 24;
    const Theme& t = inks();
    const QColor ink = tick == Tick::open ? t.ink : bold ? t.verdigris : t.steel;
    tick_box(m_painter, {m_room.left(), m_y + 1}, tick);
    return says(words, ink, Type::text, bold, indent);
}

QRectF Flow::say(const QString& words, const QColor& ink, Type size, bool bold, bool underlined) {
    const QFont font = type(size, bold);
    const double wide = width_of(font, words);
    if (m_x > m_room.left() && m_x + wide > m_room.right()) {
        m_x = m_room.left();
        m_baseline += 22;
    }
    write(m_painter, font, ink, {m_x, m_baseline}, words);
    if (underlined) m_painter.fillRect(QRectF(m_x, m_baseline + 4, wide, 2), ink);
    const QRectF at(m_x - 4, m_baseline - 15, wide + 8, 22);
    m_x += wide + m_between;
    return at;
}

}  // namespace echappe
