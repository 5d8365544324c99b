#pragma once

#include "drawing/motion.h"
#include "escapement/derive.h"
#include "workings/card_station.h"

namespace echappe {

/// Escape wheel and pallets in slow motion; how deep the pallets stand and how much room there is, nudged to see what would follow,
/// and the log of what was moved.
class EscapementView : public CardStation {
    Q_OBJECT
public:
    EscapementView(Document& document, Motion& motion, QWidget* parent);

    /// Tries the bridges nearer by so much than they stand now; nothing is kept.
    void try_nearer(double mm);
    double tried_mm() const { return m_tried; }
    /// What it would be: the job's own, at the depth that is tried.
    DerivedEscapement shown() const;
    void refresh();

    /// What is to be cut: the pallets while their sheet is shown, else the wheel.
    struct Cut {
        Drawing drawing;
        FlatPart solid;
        SumAnswer sizes;
    };
    /// Its name; empty while there is nothing to cut.
    QString part() const;
    /// Throws InputError where there is none.
    Cut to_cut() const;

signals:
    void left();

protected:
    void paint(QPainter& painter) override;
    QList<Action> make_actions() override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;

private:
    /// The scale of depth: deeper is lower, as the pallets come down into the wheel.
    struct Gauge {
        QRectF scale;
        double low_mm = 0, high_mm = 1;
        double y(double depth_mm) const { return scale.top() + (depth_mm - low_mm) / (high_mm - low_mm) * scale.height(); }
        double depth_mm(double at_y) const { return low_mm + (at_y - scale.top()) / scale.height() * (high_mm - low_mm); }
    };
    const DerivedEscapement& now() const { return m_document.derived().escapement; }
    PalletsRecord record() const { return m_document.job().pallets.value_or(PalletsRecord()); }
    std::vector<SumCard::Tab> tabs();
    SumCard::Take typed_into_pallets(std::function<void(PalletsRecord&, const std::string& field, const std::string& word)> type) const;
    DrawnSizes own_sizes() const override;
    /// Fields of the layout and of what is seen that stand on the picture.
    std::vector<std::string> drawn_fields() const;
    /// The move that is tried was made.
    void keep();
    /// The depth that what is seen tells becomes the one it was found at.
    void take_seen();
    void next_bridge();
    void drag_to(double y);
    QString length(double mm) const;
    QString bridge_words() const;
    QRectF picture() const;
    double period() const;
    Gauge gauge(const DerivedEscapement& d) const;
    void paint_nothing(QPainter& painter);
    /// By which it was heard to be out of beat, as it is now.
    std::optional<double> heard_off_rad(const DerivedEscapement& d) const;
    void paint_rest(QPainter& painter, const DerivedEscapement& d, QPointF rest);
    void paint_swing(QPainter& painter, const DerivedEscapement& d, const QRectF& room);
    void paint_gauge(QPainter& painter, const DerivedEscapement& d);
    void write_verdict(QPainter& painter, const DerivedEscapement& d, const QRectF& room);

    Motion& m_motion;
    double m_tried = 0;
    std::string m_bridge = "both";
    std::optional<Gauge> m_held;  ///< as it stood when it was taken hold of
};

}  // namespace echappe
