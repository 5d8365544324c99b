#include "stations/beat/rate_plot.h"

#include <algorithm>
#include <cmath>

#include "drawing/words.h"
#include "sheet/plot.h"

namespace echappe {
namespace {

int warmth_high() { return static_cast<int>(58 * interface_scale()); }

}  // namespace

RatePlot::RatePlot(QWidget* parent) : QCustomPlot(parent), m_warmth(new QCPAxisRect(this)) {
    setAccessibleName(words("Rate log"));
    // The plot takes the system's language for its axes by itself.
    setLocale(QLocale::c());
    plotLayout()->addElement(1, 0, m_warmth);
    plotLayout()->setRowSpacing(0);
    m_warmth->setMaximumSize(QWIDGETSIZE_MAX, warmth_high());
    auto* group = new QCPMarginGroup(this);
    for (QCPAxisRect* rect : {axisRect(), m_warmth}) {
        rect->setMarginGroup(QCP::msLeft | QCP::msRight, group);
        rect->setMinimumMargins(QMargins(8, 6, 8, 4));
    }
    QSharedPointer<QCPAxisTickerDateTime> days(new QCPAxisTickerDateTime);
    days->setDateTimeSpec(Qt::UTC);
    days->setDateTimeFormat("d MMM");
    days->setTickCount(5);
    xAxis->setTicker(days);
    m_warmth->axis(QCPAxis::atBottom)->setTicker(days);
    m_warmth->axis(QCPAxis::atLeft)->ticker()->setTickCount(2);
    xAxis->setTickLabels(false);
    retheme(theme());
}

void RatePlot::retheme(const Theme& inks) {
    m_inks = inks;
    setBackground(m_inks.ground);
    for (QCPAxisRect* rect : {axisRect(), m_warmth})
        for (const auto side : {QCPAxis::atLeft, QCPAxis::atBottom}) dress(rect->axis(side), m_inks);
    yAxis->setLabel(words("ahead, s"));
    m_warmth->axis(QCPAxis::atLeft)->setLabel(words("°C"));
    show_log(m_beat);
}

void RatePlot::draw_stretch(const RateStretch& stretch) {
    const Theme& t = m_inks;
    if (stretch.line.empty()) return;
    QVector<double> x, y, low, high;
    constexpr double covers = 2;  // of its uncertainties: 95 in a hundred
    for (const auto& [at, ahead, u] : stretch.line) {
        x << at;
        y << ahead;
        low << ahead - covers * u;
        high << ahead + covers * u;
    }
    add_band(*this, x, low, high, t.blued);
    add_curve(*this, x, y, line_of(t.blued, 2));
}

void RatePlot::draw_event(const RateEvent& event) {
    const Theme& t = m_inks;
    auto* mark = new QCPItemStraightLine(this);
    mark->setPen(line_of(t.brass_ink, 1.2, Qt::DashLine));
    mark->point1->setCoords(event.reference_s, 0);
    mark->point2->setCoords(event.reference_s, 1);
    auto* words_at = new QCPItemText(this);
    words_at->setClipToAxisRect(true);
    words_at->setFont(type_on_screen(Type::note));
    words_at->setColor(t.brass_ink);
    on_paper(words_at, m_inks);
    words_at->setRotation(-90);
    words_at->setPositionAlignment(Qt::AlignLeft | Qt::AlignTop);
    words_at->position->setTypeX(QCPItemPosition::ptPlotCoords);
    words_at->position->setTypeY(QCPItemPosition::ptAxisRectRatio);
    words_at->position->setCoords(event.reference_s, 0.97);
    constexpr qsizetype longest = 34;
    QString text = words(event.what);
    // Where it is long, without which way the rate goes: the curve shows that.
    if (text.size() > longest && text.contains(": ")) text.truncate(text.lastIndexOf(": "));
    words_at->setText(text.size() > longest ? text.left(longest) + QString::fromUtf8("…") : text);
}

void RatePlot::show_log(const DerivedBeat& beat) {
    m_beat = beat;
    if (m_picked >= static_cast<int>(beat.looks.size())) m_picked = -1;
    const Theme& t = m_inks;
    clearGraphs();
    clearItems();
    for (const RateStretch& stretch : beat.stretches) {
        draw_stretch(stretch);
        if (stretch.began_with) draw_event(*stretch.began_with);
    }
    QVector<double> x, y, bad_x, bad_y, warm_x, warm_y;
    for (const RateStretch& stretch : beat.stretches)
        for (size_t i = stretch.first; i <= stretch.last; ++i) {
            const RateObservation& look = beat.looks[i];
            const auto index = static_cast<long long>(i - stretch.first);
            const bool misread = stretch.fit && std::count(stretch.fit->outliers.begin(), stretch.fit->outliers.end(), index) > 0;
            (misread ? bad_x : x) << look.reference_s;
            (misread ? bad_y : y) << look.shown_s - look.reference_s;
            if (look.temperature_C) warm_x << look.reference_s, warm_y << *look.temperature_C;
        }
    add_points(*this, x, y, mark_of(QCPScatterStyle::ssCircle, t.blued, 1.6, t.sheet, 7));
    add_points(*this, bad_x, bad_y, mark_of(QCPScatterStyle::ssCross, t.ruby, 2.2, Qt::NoBrush, 9));
    QCPGraph* warm = addGraph(m_warmth->axis(QCPAxis::atBottom), m_warmth->axis(QCPAxis::atLeft));
    warm->setData(warm_x, warm_y, true);
    warm->setPen(line_of(t.amber, 1.4));
    if (m_picked >= 0) {
        const RateObservation& look = beat.looks[static_cast<size_t>(m_picked)];
        add_points(*this, {look.reference_s}, {look.shown_s - look.reference_s},
                   mark_of(QCPScatterStyle::ssCircle, t.brass_ink, 2, Qt::NoBrush, 15));
    }
    show_trial(m_trial);
}

void RatePlot::show_trial(const std::vector<std::array<double, 2>>& line) {
    m_trial = line;
    const QString name = "trial";
    for (int i = graphCount() - 1; i >= 0; --i)
        if (graph(i)->name() == name) removeGraph(i);
    if (!line.empty()) {
        QVector<double> x, y;
        for (const auto& [at, ahead] : line) x << at, y << ahead;
        QCPGraph* trial = addGraph();
        trial->setName(name);
        trial->setData(x, y, true);
        trial->setPen(line_of(m_inks.verdigris, 2.2, Qt::DashLine));
    }
    fit_axes();
    replot(QCustomPlot::rpQueuedReplot);
}

void RatePlot::fit_axes() {
    double left = 1e300, right = -1e300, low = 0, high = 0;
    const auto take = [&](double at, double ahead) {
        left = std::min(left, at), right = std::max(right, at);
        low = std::min(low, ahead), high = std::max(high, ahead);
    };
    for (const RateObservation& look : m_beat.looks) take(look.reference_s, look.shown_s - look.reference_s);
    if (!m_beat.looks.empty() && m_beat.now()) take(m_beat.stretches.back().line.back()[0], m_beat.stretches.back().line.back()[1]);
    for (const auto& [at, ahead] : m_trial) take(at, ahead);
    if (left > right) left = 0, right = 86400;
    const double room_for_a_date = 78 * interface_scale();
    xAxis->ticker()->setTickCount(std::max(2, static_cast<int>(width() / room_for_a_date) - 1));
    const double wide = std::max(3600.0, right - left), tall = std::max(1.0, high - low);
    xAxis->setRange(left - 0.04 * wide, right + 0.03 * wide);
    yAxis->setRange(low - 0.1 * tall, high + 0.1 * tall);
    m_warmth->axis(QCPAxis::atBottom)->setRange(xAxis->range());
    double cold = 1e300, warm = -1e300;
    for (const RateObservation& look : m_beat.looks)
        if (look.temperature_C) cold = std::min(cold, *look.temperature_C), warm = std::max(warm, *look.temperature_C);
    m_warmth->setVisible(cold <= warm);
    m_warmth->setMaximumSize(QWIDGETSIZE_MAX, cold <= warm ? warmth_high() : 1);
    xAxis->setTickLabels(cold > warm);
    if (cold <= warm) m_warmth->axis(QCPAxis::atLeft)->setRange(cold - 1, warm + 1);
}

void RatePlot::pick(int look) {
    if (look == m_picked) return;
    m_picked = look;
    show_log(m_beat);
    emit look_picked(look);
}

void RatePlot::mousePressEvent(QMouseEvent* event) {
    constexpr double reach = 12;
    int nearest = -1;
    double distance = reach;
    for (size_t i = 0; i < m_beat.looks.size(); ++i) {
        const RateObservation& look = m_beat.looks[i];
        const QPointF at(xAxis->coordToPixel(look.reference_s), yAxis->coordToPixel(look.shown_s - look.reference_s));
        const double apart = std::hypot(at.x() - event->position().x(), at.y() - event->position().y());
        if (apart < distance) distance = apart, nearest = static_cast<int>(i);
    }
    pick(nearest);
}

}  // namespace echappe
