#pragma once

#include "drawing/lettering.h"

namespace echappe {

/// A line of figures: its name at the left, the figure at the right before its unit, and a remark at the end.
struct Row {
    QString name;
    QString figure;
    QColor ink;
    QString unit = {};
    QString remark = {};
    bool strong = true;
    Type size = Type::figure;
};

/// A page from the top down. Who writes says what stands in it, and the column where: it knows how far it has come.
/// What was written comes back as its rectangle, to be made a place.
class Column {
public:
    Column(QPainter& painter, const QRectF& room) : m_painter(painter), m_room(room), m_y(room.top()) {}
    const Theme& inks() const { return echappe::inks(m_painter); }
    QPainter& painter() const { return m_painter; }

    const QRectF& room() const { return m_room; }
    double y() const { return m_y; }
    double left() const { return m_room.left(); }
    double right() const { return m_room.right(); }
    void gap(double px) { m_y += px; }
    void go_to(double y) { m_y = y; }
    /// Whether that much more has room.
    bool holds(double px) const { return m_y + px <= m_room.bottom(); }

    /// The head of a section, and at its right end what is counted or compared.
    void section(const QString& words, const QString& at_right = {});
    /// What the page is about.
    QRectF head(const QString& words, const QColor& ink, Type size = Type::head);
    /// As many lines as the words need.
    QRectF says(const QString& words, const QColor& ink, Type size = Type::note, bool bold = false, double indent = 0);
    /// One line, cut where there is no room.
    QRectF line(const QString& words, const QColor& ink, Type size = Type::note, bool bold = false, double indent = 0);
    /// Name and figure, over a rule.
    QRectF row(const Row& row);
    /// The same without a rule: rows of one group, close together.
    QRectF close_row(const Row& row);
    /// The same with a name of as many lines as it needs, always with room for a unit.
    QRectF long_row(const Row& row);
    /// Words with a bar of their ink beside them.
    QRectF remark(const QString& words, const QColor& bar);
    /// A step to tick: its box, and its words beside it.
    enum class Tick { open, done, passed };
    QRectF step(const QString& words, Tick tick, bool bold = false);
    void rule();

private:
    QRectF taken(double from, double high);
    void write_row(const Row& row, double baseline);
    void take_down(const Row& row, const QRectF& at);

    QPainter& m_painter;
    QRectF m_room;
    double m_y;
};

/// Words one after another, in a new line where there is no room: tabs, choices, links.
class Flow {
public:
    Flow(QPainter& painter, const QRectF& room, double baseline, double between = 14)
        : m_painter(painter), m_room(room), m_x(room.left()), m_baseline(baseline), m_between(between) {}

    /// Underlined where it is what stands. The rectangle is a little larger than the words: easier to hit.
    QRectF say(const QString& words, const QColor& ink, Type size = Type::note, bool bold = false, bool underlined = false);
    double baseline() const { return m_baseline; }
    double x() const { return m_x; }

private:
    QPainter& m_painter;
    QRectF m_room;
    double m_x;
    double m_baseline;
    double m_between;
};

}  // namespace echappe
