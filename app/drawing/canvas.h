#pragma once

#include <QPainter>
#include <QWidget>
#include <functional>
#include <vector>

#include "drawing/lettering.h"
#include "drawing/words.h"

namespace echappe {

/// A picture to act on: what is painted may register places that answer to a click.
class Canvas : public QWidget {
    Q_OBJECT
public:
    explicit Canvas(QWidget* parent = nullptr);

    /// Where a place with this tag was last painted; for tests and for the finder.
    QRectF place_of(const QString& tag) const;
    /// All tags painted last, in order.
    QStringList tags() const;
    /// Acts as a click on the place with this tag; false when it is not there.
    bool act(const QString& tag);

signals:
    /// A sentence for the line below; a fault in the ink of one.
    void told(const QString& sentence, bool fault);

protected:
    /// What cannot be done is told in its sentence; nothing else changes. All that a canvas does in answer to an event is
    /// attempted so: nothing thrown gets into the toolkit.
    void attempt(const std::function<void()>& action);
    /// Covers the whole of its rectangle: nothing is painted under it.
    virtual void paint(QPainter& painter) = 0;
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    bool event(QEvent* event) override;

    struct Place {
        QString tag;
        QRectF rect;
        std::function<void()> click;
        QString hint;
        std::function<void()> double_click;
        std::function<QString()> hint_when_asked = {};  ///< instead of a hint, where hundreds of places would write one each
    };
    void place(Place place) { m_places.push_back(std::move(place)); }

private:
    bool answer(QEvent* event);
    const Place* at(const QPointF& point) const;
    std::vector<Place> m_places;
};

}  // namespace echappe
