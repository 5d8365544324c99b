#pragma once

#include "document/document.h"
#include "drawing/canvas.h"

namespace echappe {

/// The selected train as rungs, great wheel at the bottom and escape wheel at the top: the way power climbs.
class Ladder : public Canvas {
    Q_OBJECT
public:
    explicit Ladder(Document& document, QWidget* parent = nullptr);
    /// Narrower in a narrow window, of which it takes an eighth.
    void set_wide(double window);

signals:
    /// All that can be done with the selected arbor is wanted in this menu.
    void menu_wanted(QMenu* menu);

protected:
    void fill_menu(QMenu& menu, const Place* place, const QPointF& at) override;
    QSize fixed_size() const override { return {m_wide, 0}; }
    void lay_out() override { scroll_to_subject(); }
    void wheelEvent(QWheelEvent* event) override;
    void paint(QPainter& painter) override;
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;

private:
    struct Part {
        Count count;
        Known known = Known::missing;
        bool operator==(const Part&) const = default;
    };
    struct Rung {
        std::string arbor;
        QString name;
        Part wheel;
        Part pinion;
        double radius_mm = 0;  ///< of the wheel
        QString period;
        bool period_open = false;  ///< hangs on a count that was not decided
        QString direction;
        QString way;  ///< the same in a word
        QStringList marks;
        std::string worst;  ///< of the findings that wait there
        bool subject = false;
        bool operator==(const Rung&) const = default;
    };
    /// All that is painted from the document. Most edits leave it as it is, and painting it is a tenth of an edit.
    struct Content {
        QString train;
        bool several = false;  ///< trains
        double largest_mm = 1;
        std::vector<Rung> rungs;  ///< from the great wheel up
        QString beats;
        QString run;
        bool operator==(const Content&) const = default;
    };
    Content content() const;
    Rung rung_of(const DerivedArbor& arbor) const;
    void paint_head(QPainter& painter);
    void paint_discs(QPainter& painter, const Rung& rung, QPointF centre, double radius);
    void paint_rung(QPainter& painter, const Rung& rung, const QRectF& room);
    double step() const;  ///< from rung to rung
    double most_scrolled() const;
    void scroll_to_subject();

    /// Between which rungs the one that is held would go: beside this one, above or below it.
    struct Drop {
        std::string beside;
        bool above = true;
        double y = 0;
    };
    std::optional<Drop> drop_at(const std::string& held, double y) const;
    void paint_held(QPainter& painter);

    Document& m_document;
    Content m_content;
    std::string m_held;  ///< the arbor that is taken hold of
    QPointF m_held_from;
    QPointF m_hand;
    bool m_dragging = false;
    int m_wide = 224;
    double m_scrolled = 0;  ///< down from the top: the great wheel stands at the bottom first
};

}  // namespace echappe
