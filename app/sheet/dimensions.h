#pragma once

#include <QStringList>
#include <QTransform>

#include "drawing/lettering.h"
#include "exchange/drawing.h"
#include "sheet/drawn_size.h"

namespace echappe {

/// The sizes of a drawing as they are painted on it. The drawing says where each one is; how it looks follows from what is known of it:
/// read in ink, assumed in grey, open with a dash in amber, the one that is asked in a frame.
class Dimensions {
public:
    Dimensions(QPainter& painter, const DrawnSizes& sizes, QString asked) : m_painter(painter), m_sizes(sizes), m_asked(std::move(asked)) {}

    bool has(const QString& id) const { return size_by(m_sizes, id) != nullptr; }
    /// Whether its name is written with it, where the drawing does not say what it is.
    enum class Name { left_out, written };
    /// From edge to edge, its figure in a gap of the line.
    void between(const QString& id, QPointF from, QPointF to, Name name = Name::left_out);
    /// Where the thing is large enough for it: the baseline's middle.
    void in(const QString& id, QPointF middle, Name name = Name::left_out);
    /// Pointed at: its words stand in a column beside the drawing.
    void at(const QString& id, QPointF spot) { m_pointed.push_back({id, spot, {}}); }
    /// The sizes of one thing: under its name, which points at it.
    void group(const QString& head, QPointF spot, const QStringList& ids);
    /// All that was given no place goes into the column too, pointing nowhere.
    void rest();
    /// The column at the right of the drawing in which those stand that are pointed at.
    void lay_out(const QRectF& column);

    /// What was painted, and where.
    struct Stood {
        const DrawnSize* size;
        QRectF at;
    };
    const std::vector<Stood>& stood() const { return m_stood; }
    /// Where the drawing's millimetres lie, y downwards: for those who write it to a file.
    void lie_at(const QTransform& mm_to_px) { m_mm_to_px = mm_to_px; }
    /// What stood on the drawing as notes of a layer in millimetres, name and figure.
    DrawingLayer layer(const std::string& name) const;

private:
    struct Pointed {
        QString id;
        std::optional<QPointF> spot;
        QString head;  ///< the name of a group, instead of a size
        bool grouped = false;
        QString label = {};  ///< of a member: its own without the group's name
    };
    struct Ink {
        QColor name, figure;
        bool strong;
    };
    Ink ink_of(const DrawnSize& size) const;
    QString figure_of(const DrawnSize& size) const;
    QString written_of(const DrawnSize& size, Name name) const;
    bool placed(const QString& id) const;
    double high_of(const Pointed& one, double column_wide) const;
    void point(QPointF from, QPointF to, bool asked);
    QRectF write_callout(const DrawnSize& size, const QString& label, const QRectF& column, double baseline);
    QString label_of(const Pointed& one, const DrawnSize& size) const { return one.label.isEmpty() ? size.label : one.label; }
    void keep(const DrawnSize& size, const QRectF& at);

    QPainter& m_painter;
    const DrawnSizes& m_sizes;
    QString m_asked;
    std::vector<Pointed> m_pointed;
    std::vector<Stood> m_stood;
    QTransform m_mm_to_px;
    bool m_tight = false;  ///< the column that is laid out has little room
};

}  // namespace echappe
