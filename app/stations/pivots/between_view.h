#pragma once

#include "drawing/in_place_editor.h"
#include "survey/trials.h"
#include "workings/card_station.h"

namespace echappe {

/// The selected arbor lying between its plates: end shake, side shake and runout to be seen; the sums of the bench for its pivot; and
/// the trials of the finished pieces, alone, in pairs and all together.
class BetweenView : public CardStation {
    Q_OBJECT
public:
    explicit BetweenView(Document& document, QWidget* parent);

    InPlaceEditor& editor() { return *m_editor; }
    /// Keeps how the arbors of the marked trial ran.
    void trial(bool runs);
    /// Alone, then each of its pairs, then the whole train.
    void next_trial();
    void ask_coast();
    const TrialCheck* marked() const;
    /// What is shown follows from the job anew.
    void refresh();

signals:
    void left();

protected:
    void paint(QPainter& painter) override;
    QList<Action> make_actions() override;

private:
    void paint_elevation(QPainter& painter, const QRectF& room);
    void paint_plate_end(QPainter& painter, const DerivedHole& hole, double face_x, double axis_y, double outwards, double px,
                         const QRectF& room);
    void paint_rim(QPainter& painter, double x, double axis_y, double thick, double radius_px, const QRectF& room, bool pinion);
    void dimension(QPainter& painter, double from_x, double to_x, double y, const QString& words, const QColor& ink);
    void paint_trials(QPainter& painter, const QRectF& room);
    void paint_check(QPainter& painter, const TrialCheck& check, QPointF at, double radius);
    QString length(double mm) const;

    InPlaceEditor* m_editor;
    std::vector<TrialCheck> m_trials;
    std::vector<std::string> m_marked;  ///< arbors of the trial that F speaks of
};

}  // namespace echappe
