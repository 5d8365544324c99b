#pragma once

#include <QPainter>
#include <QWidget>
#include <functional>
#include <vector>

#include "drawing/lettered.h"
#include "drawing/lettering.h"
#include "drawing/words.h"

class QMenu;

namespace echappe {

/// A picture to act on: what is painted may register places that answer to a click, to the keyboard and to who reads by ear.
/// All of it is in the house's pixels, which the interface shows larger or smaller; only here they become those of the screen.
class Canvas : public QWidget {
    Q_OBJECT
public:
    explicit Canvas(QWidget* parent = nullptr);

    int width() const;
    int height() const;
    QRect rect() const;

    /// Where a place with this tag was last painted; for tests and for the finder.
    QRectF place_of(const QString& tag) const;
    /// The same in the widget's own pixels.
    QRectF on_widget(const QRectF& at) const;
    /// All tags painted last, in order.
    QStringList tags() const;
    /// Acts as a click on the place with this tag; false when it is not there.
    bool act(const QString& tag);

    /// What is written in the place with this tag.
    QString words_of(const QString& tag) const;
    /// All that is written, in the order of reading.
    QString page() const;
    /// One thing that is read out by itself: a place, a line of figures, or words that stand alone.
    struct Readable {
        QString tag;  ///< of a place; else empty
        QString name;
        QString value;
        QString hint;
        QRectF at;
        bool acts = false;
        bool chosen = false;
        bool selects = false;
    };
    /// The places first, in the order they were painted; then what stands alone.
    const std::vector<Readable>& readables() const;

    /// Each text and where it stands, in the order of painting.
    const std::vector<Lettered>& written() const { return m_written; }

    /// The place that the keyboard stands on; empty: on the picture as a whole.
    const QString& stands_on() const { return m_stands_on; }
    void stand_on(const QString& tag);
    /// What was asked at a place is answered: on to the next one of its kind, and asks there too.
    virtual void lead_on(int by);
    /// What Ctrl+C takes: where the keyboard stands, else all figures. A figure stands in three columns: of what, how much, in what.
    QString to_copy() const;

signals:
    /// A sentence for the line below; a fault in the ink of one.
    void told(const QString& sentence, bool fault);

protected:
    /// What cannot be done is told in its sentence; nothing else changes. All that a canvas does in answer to an event is
    /// attempted so: nothing thrown gets into the toolkit.
    void attempt(const std::function<void()>& action);
    /// Covers the whole of its rectangle: nothing is painted under it.
    virtual void paint(QPainter& painter) = 0;
    /// Puts what lies over the picture where it belongs: at another size, and at another scale.
    virtual void lay_out() {}
    void put(QWidget& child, const QRectF& at) const { child.setGeometry(on_widget(at).toRect()); }
    /// While it is painted: whether any of this room is to be painted anew. Elsewhere nothing is seen of it.
    bool wants(const QRectF& at) const { return m_wanted.isEmpty() || m_wanted.intersects(on_widget(at).toAlignedRect()); }
    /// Only this part of it is painted anew.
    void update_in(const QRectF& at) { QWidget::update(on_widget(at).toAlignedRect()); }
    QPoint on_screen(const QPointF& at) const { return mapToGlobal(on_widget({at, QSizeF()}).topLeft().toPoint()); }
    /// While it is painted: whether the room is still free of words.
    bool nothing_written_in(const QRectF& box) const;
    /// Its measure where it is not the layout's to give; 0 leaves it.
    virtual QSize fixed_size() const { return {0, 0}; }
    void fix_size();
    /// The place the keyboard has come to is to be seen.
    virtual void show_place(const QRectF& /*at*/) {}

    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void changeEvent(QEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    bool event(QEvent* event) override;

    struct Place {
        QString tag;
        QRectF rect;
        std::function<void()> click = {};
        QString hint = {};
        std::function<void()> double_click = {};
        std::function<QString()> hint_when_asked = {};  ///< instead of a hint, where hundreds of places would write one each
        QString name = {};                              ///< what it is, where the words in it do not say it
        bool chosen = false;                            ///< of several; the one that stands
        bool selects = false;                           ///< a click makes it what everything else is about
        bool passed = false;                            ///< by Tab: one of hundreds, with a key of their own
    };
    void place(Place place) { m_places.push_back(std::move(place)); }
    const Place* at(const QPointF& point) const;
    const Place* standing() const;
    /// What can be done here, by the right button or the menu key: `place` is what lies there, if anything does.
    virtual void fill_menu(QMenu& menu, const Place* place, const QPointF& at);

private:
    bool answer(QEvent* event);
    bool answer_key(QKeyEvent& key);
    bool step_place(int by);
    void paint_focus(QPainter& painter) const;
    Readable readable(const Place& place) const;
    std::vector<Readable> read() const;
    QString hint_of(const Place& place) const { return place.hint_when_asked ? place.hint_when_asked() : place.hint; }

    std::vector<Place> m_places;
    std::vector<Lettered> m_written;
    mutable std::vector<Readable> m_readables;  ///< of what was painted last, once it was asked for
    QRegion m_wanted;                           ///< while it is painted; empty: all
    QString m_stands_on;
    bool m_by_keyboard = false;  ///< it came there so; a click is only where the keyboard goes on from
};

}  // namespace echappe
