#pragma once

#include <qcustomplot.h>

#include "beat/derive.h"
#include "theme/theme.h"

namespace echappe {

/// How far the clock was ahead of the reference, look by look, with the line of each stretch, its band, what was done between,
/// and the room's temperature below.
class RatePlot : public QCustomPlot {
    Q_OBJECT
public:
    explicit RatePlot(QWidget* parent);
    void show_log(const DerivedBeat& beat);
    /// Where it would go on after such a change; none: nothing is tried.
    void show_trial(const std::vector<std::array<double, 2>>& line);
    /// Inks and papers anew.
    void retheme(const Theme& inks);
    /// The look that is picked, by the order of the reference; −1 none.
    int picked() const { return m_picked; }
    void pick(int look);

signals:
    void look_picked(int look);

protected:
    void mousePressEvent(QMouseEvent* event) override;

private:
    void draw_stretch(const RateStretch& stretch);
    void draw_event(const RateEvent& event);
    void fit_axes();
    Theme m_inks = theme();
    DerivedBeat m_beat;
    QCPAxisRect* m_warmth;
    std::vector<std::array<double, 2>> m_trial;
    int m_picked = -1;
};

}  // namespace echappe
