#pragma once

#include <QPainter>

#include "beat/beat_analysis.h"
#include "drawing/lettering.h"

namespace echappe {

/// What the beats are laid round: a wheel whose turn shows what comes back with it.
struct LaidRound {
    QString name;
    double period_s = 60;
    long long teeth = 0;  ///< drawn on it
    bool escape = false;  ///< every beat at its own tooth
};

/// The beats round a wheel of the movement, clockwise from the top: each out from the circle by what it is late, in by what it is early.
/// A bad tooth is a dent, an eccentric wheel a wave.
class BeatsRound {
public:
    BeatsRound(QPainter& painter, const QRectF& room, const BeatAnalysisResult& told, const LaidRound& wheel);
    /// All but the words; the same until something else is told.
    void paint();
    void write_sizes();
    /// Where a beat's place in the turn is on the circle: for the hand that goes round.
    void paint_hand(double turn);
    /// One turn's places, and how late each is in the middle.
    struct Place {
        double turn = 0;
        double late_ms = 0;
        bool bad = false;
    };
    static std::vector<Place> places_of(const BeatAnalysisResult& told, const LaidRound& wheel);
    static double turn_of(const LaidRound& wheel, long long number, double at_s);

private:
    QPointF at(double turn, double late_ms) const;
    void paint_wheel();
    void paint_rings();
    void paint_beats();
    void paint_middle();

    QPainter& m_painter;
    const BeatAnalysisResult& m_told;
    const LaidRound& m_wheel;
    QPointF m_centre;
    double m_radius;
    double m_px_per_ms = 1;
    double m_ring_ms = 1;
};

/// Mean tick above the line and mean tock below it, each by its loudness, over 50 ms; then the words on it.
void paint_tick_and_tock(QPainter& painter, const QRectF& room, const TickShapes::Loudness* tick, const TickShapes::Loudness* tock);
void write_tick_and_tock(QPainter& painter, const QRectF& room);

}  // namespace echappe
