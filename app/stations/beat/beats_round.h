#pragma once

#include <QPainter>

#include "beat/laid_round.h"
#include "drawing/lettering.h"

namespace echappe {

/// The beats round a wheel of the movement, clockwise from the top: each out from the circle by what it is late, in by what it is early.
/// A bad tooth is a dent, an eccentric wheel a wave.
class BeatsRound {
public:
    /// `escape`: the escape wheel as it is cut; nullptr where it is not known.
    BeatsRound(QPainter& painter, const QRectF& room, const BeatAnalysisResult& told, const LaidRound& wheel,
               const EscapeWheelResult* escape);
    /// All but the words; the same until something else is told.
    void paint();
    void write_sizes();
    /// The hand that goes round with the beats.
    void paint_hand(double turn);

private:
    QPointF at(double turn, double late_ms) const;
    void paint_wheel();
    void paint_rings();
    void paint_beats();
    void paint_middle();

    QPainter& m_painter;
    const BeatAnalysisResult& m_told;
    const LaidRound& m_wheel;
    const EscapeWheelResult* m_escape;
    std::vector<TurnPlace> m_places;
    QPointF m_centre;
    double m_radius;
    double m_px_per_ms = 1;
    double m_ring_ms = 1;
};

/// Mean tick above the line and mean tock below it, each by its loudness, over 50 ms; then the words on it, a lever's unlocking and drop
/// where they are told.
void paint_tick_and_tock(QPainter& painter, const QRectF& room, const TickShapes::Loudness* tick, const TickShapes::Loudness* tock);
void write_tick_and_tock(QPainter& painter, const QRectF& room, const BeatAnalysisResult& told, const std::optional<double>& impulse_ms);

}  // namespace echappe
