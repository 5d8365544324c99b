#pragma once

#include "drawing/in_place_editor.h"
#include "instruments/reading_round.h"
#include "survey/trials.h"
#include "workings/card_station.h"

namespace echappe {

/// The selected arbor lying between its plates: end shake, side shake and runout to be seen; the sums of the bench for its pivot; and
/// the trials of the finished pieces, alone, in pairs and all together.
class BetweenView : public CardStation {
    Q_OBJECT
public:
    BetweenView(Document& document, PlateRound& readings, QWidget* parent);

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
    DrawnSizes own_sizes() const override;

private:
    /// The arbor seen from the side, between its plates, to scale along it.
    struct Elevation {
        const DerivedHole& front;
        const DerivedHole& back;
        const ArborRecord* read = nullptr;
        QRectF picture = {};
        double px = 1;                        ///< a millimetre
        double axis = 0;                      ///< its height in the picture
        double x0 = 0, shoulder = 0, x1 = 0;  ///< the front plate, the shoulder towards the back one, the back plate
        double body = 0;                      ///< half as thick as the arbor
        bool shoulders_known = false;
        double shake_mm = 0;
        double times = 1;  ///< how much wider the shake is drawn

        double pivot_radius(const DerivedHole& hole) const { return hole.record.pivot_mm.value_or(1.0) / 2 * px; }
        double along(double share) const { return x0 + (shoulder - x0) * share; }
        /// A part that was read to stand so far from the front plate, else at this share of the way.
        double stands(const std::optional<double>& from_front_mm, double share) const {
            return read && read->plates_mm && from_front_mm ? x0 + *from_front_mm * px : along(share);
        }
        double wheel_x() const { return stands(read ? read->wheel_from_front_mm : std::nullopt, 0.66); }
        double pinion_x() const { return stands(read ? read->pinion_from_front_mm : std::nullopt, 0.32); }
    };
    Elevation elevation(const QRectF& room, const DerivedHole& front, const DerivedHole& back) const;
    void paint_elevation(QPainter& painter, const QRectF& room);
    void paint_plate_end(QPainter& painter, const Elevation& e, const DerivedHole& hole, double face_x, double outwards);
    void paint_body(QPainter& painter, const Elevation& e, const DerivedArbor& arbor);
    void paint_bow(QPainter& painter, const Elevation& e, const DerivedArbor& arbor);
    void paint_shake(QPainter& painter, const Elevation& e, const EndShakeResult& shake);
    void paint_rim(QPainter& painter, double x, double axis_y, double thick, double radius_px, const QRectF& room, bool pinion);
    void write_sizes(QPainter& painter, const Elevation& e);
    void paint_trials(QPainter& painter, const QRectF& room);
    void paint_check(QPainter& painter, const TrialCheck& check, QPointF at);
    void write_marked(QPainter& painter, const TrialCheck& now, const QRectF& room);
    QString length(double mm) const;

    PlateRound& m_readings;
    InPlaceEditor* m_editor;
    std::vector<TrialCheck> m_trials;
    std::vector<std::string> m_marked;  ///< arbors of the trial that F speaks of
};

}  // namespace echappe
