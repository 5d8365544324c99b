#pragma once

#include <qcustomplot.h>

#include "power/derive.h"
#include "theme/theme.h"

namespace echappe {

/// The torque over one run, against the least that runs and what is right; what it took to wind; and how far it is wound now.
class TorquePlot : public QCustomPlot {
    Q_OBJECT
public:
    explicit TorquePlot(QWidget* parent);
    void show_run(const DerivedDrive& power);
    /// 1 wound to 0 run down.
    void show_wound(double share);
    /// Inks and papers anew.
    void retheme(const Theme& inks);

private:
    void draw_need();
    void draw_set_up();
    void draw_winding();
    void draw_torque();
    void fit_axes();
    void resizeEvent(QResizeEvent* event) override;
    double run() const { return m_power.torque.empty() ? 1 : m_power.torque.back()[0]; }

    Theme m_inks = theme();
    DerivedDrive m_power;
    double m_wound = 1;
    QCPItemStraightLine* m_now = nullptr;
    QCPItemText* m_now_words = nullptr;
};

}  // namespace echappe
