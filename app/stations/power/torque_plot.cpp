#include "stations/power/torque_plot.h"

#include <algorithm>

#include "drawing/words.h"
#include "number/units.h"
#include "power/enough.h"
#include "sheet/plot.h"

namespace echappe {
namespace {

const Qt::Alignment right_below = Qt::AlignRight | Qt::AlignTop;
const Qt::Alignment left_above = Qt::AlignLeft | Qt::AlignBottom;

}  // namespace

TorquePlot::TorquePlot(QWidget* parent) : QCustomPlot(parent) {
    setAccessibleName(words("Torque over the run"));
    setAttribute(Qt::WA_TransparentForMouseEvents);
    // The plot takes the system's language for its axes by itself.
    setLocale(QLocale::c());
    axisRect()->setMinimumMargins(QMargins(6, 6, 6, 4));
    constexpr int ticks = 4;
    xAxis->ticker()->setTickCount(ticks);
    yAxis->ticker()->setTickCount(ticks);
    retheme(theme());
}

void TorquePlot::retheme(const Theme& inks) {
    m_inks = inks;
    setBackground(m_inks.ground);
    dress(xAxis, m_inks);
    dress(yAxis, m_inks);
    xAxis->setLabel(words("turns run, from wound"));
    show_run(m_power);
}

void TorquePlot::show_run(const DerivedDrive& power) {
    m_power = power;
    clearGraphs();
    clearItems();
    m_now = nullptr;
    if (power.torque.empty()) return;
    draw_need();
    draw_set_up();
    draw_winding();
    draw_torque();
    fit_axes();
    const Theme& t = m_inks;
    m_now = new QCPItemStraightLine(this);
    m_now->setPen(line_of(t.ink, 1, Qt::DotLine));
    m_now_words = on_paper(add_words(*this, 0, 0, {}, t.ink, left_above, type_on_screen(Type::figure, true)), t);
    show_wound(m_wound);
}

void TorquePlot::show_wound(double share) {
    m_wound = share;
    if (!m_now) return;
    const double at = (1 - share) * run();
    m_now->point1->setCoords(at, 0);
    m_now->point2->setCoords(at, 1);
    // At its ends the curve's own figures stand.
    const bool between = share > 0.03 && share < 0.97;
    m_now_words->setVisible(between);
    m_now_words->setText(words(print_short(m_power.torque_at(share), 3)));
    m_now_words->position->setCoords(at, m_power.torque_at(share));
    replot(QCustomPlot::rpQueuedReplot);
}

/// The least that runs, and what is right above it.
void TorquePlot::draw_need() {
    if (!m_power.right_N_mm) return;
    const Theme& t = m_inks;
    const auto& [low, high] = *m_power.right_N_mm;
    const QVector<double> ends = {0, run()};
    add_band(*this, ends, {low, low}, {high, high}, t.verdigris);
    add_words(*this, 0, low,
              words("right: %1 to %2 times the least").arg(least_times).arg(words(print_short(high / *m_power.least_N_mm, 2))), t.verdigris,
              left_above, type_on_screen(Type::note));
    const double least = *m_power.least_N_mm;
    add_curve(*this, ends, {least, least}, line_of(t.amber, 1.4, Qt::DashLine));
    add_words(*this, run(), least, words("least that runs, %1").arg(words(print_short(least, 3))), t.amber, right_below,
              type_on_screen(Type::note));
}

/// For a fusee, what its best set-up would give.
void TorquePlot::draw_set_up() {
    if (!m_power.set_up) return;
    const auto& torque = m_power.set_up->torque_N_mm;
    QVector<double> x, y;
    for (size_t q = 0; q < torque.size(); ++q) {
        x << run() * static_cast<double>(q) / static_cast<double>(torque.size() - 1);
        y << torque[q];
    }
    add_curve(*this, x, y, line_of(m_inks.verdigris, 1.4, Qt::DashLine));
}

/// What it took to wind lies above what it gives: the gap is lost between the coils.
void TorquePlot::draw_winding() {
    const auto& up = m_power.drive.torque_up;
    if (up.empty()) return;
    const Theme& t = m_inks;
    const double top = up.back()[0];
    QVector<double> x, y;
    for (const auto& [turns, torque] : up) x << top - turns, y << torque;
    add_curve(*this, x, y, line_of(t.steel, 1.2))->setScatterStyle(mark_of(QCPScatterStyle::ssTriangle, t.steel, 1.2, t.ground, 7));
    const auto middle = static_cast<qsizetype>(up.size() / 2);
    on_paper(add_words(*this, x[middle], y[middle], words("being wound"), t.steel, Qt::AlignHCenter | Qt::AlignBottom,
                       type_on_screen(Type::note)),
             t);
}

void TorquePlot::draw_torque() {
    const Theme& t = m_inks;
    QVector<double> x, y;
    for (const auto& [turns, torque] : m_power.torque) x << turns, y << torque;
    QCPGraph* curve = add_curve(*this, x, y, line_of(t.blued, 2.6));
    if (m_power.log) curve->setScatterStyle(mark_of(QCPScatterStyle::ssCircle, t.blued, 1.6, t.sheet, 7));
    on_paper(
        add_words(*this, x.front(), y.front(), words(print_short(y.front(), 3)), t.ink, left_above, type_on_screen(Type::figure, true)), t);
    on_paper(add_words(*this, x.back(), y.back(), words(print_short(y.back(), 3)), t.ink, Qt::AlignRight | Qt::AlignBottom,
                       type_on_screen(Type::figure, true)),
             t);
}

void TorquePlot::resizeEvent(QResizeEvent* event) {
    fit_axes();
    QCustomPlot::resizeEvent(event);
}

void TorquePlot::fit_axes() {
    double most = m_power.least_N_mm ? 2.1 * *m_power.least_N_mm : 0;
    // Over the curve stands what it says, however low the plot is.
    constexpr double words_high = 22, axis_high = 54;
    const double high = std::max(3 * words_high, height() / interface_scale() - axis_high);
    for (const auto& [turns, torque] : m_power.torque) most = std::max(most, torque * high / (high - words_high));
    for (const auto& [turns, torque] : m_power.drive.torque_up) most = std::max(most, torque * 1.08);
    xAxis->setRange(0, run());
    yAxis->setRange(0, most);
}

}  // namespace echappe
