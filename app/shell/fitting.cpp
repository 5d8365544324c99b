#include "shell/fitting.h"

#include <QApplication>
#include <QEvent>
#include <QMainWindow>
#include <QScreen>
#include <algorithm>
#include <cmath>

#include "document/settings.h"
#include "drawing/words.h"
#include "ladder/ladder.h"
#include "shell/station.h"
#include "theme/theme.h"
#include "workings/workings_panel.h"

namespace echappe {

Fitting::Fitting(QMainWindow& window, Ladder& ladder, WorkingsPanel& workings)
    : QObject(&window), m_window(window), m_ladder(ladder), m_workings(workings) {
    fit_to_screen();
    window.installEventFilter(this);
}

void Fitting::fit_to_screen() {
    const QSizeF least(1024, 700), usual(1280, 800);
    const QSize frame(16, 48);  // no window manager's own is larger, and none tells it before the window is shown
    const QSize room = m_window.screen()->availableGeometry().size() - frame;
    m_window.setMinimumSize((least * interface_scale()).toSize().boundedTo(room));
    if (!m_window.isVisible()) m_window.resize((usual * interface_scale()).toSize().boundedTo(room));
}

/// The picture is the largest thing: in a narrow window the ladder says less, and the workings fold until they are wanted.
void Fitting::share_room() {
    constexpr double roomy = 1180;
    const double wide = m_window.width() / interface_scale();
    m_ladder.set_wide(wide);
    const bool folded = m_fold == Fold::folded || (m_fold == Fold::by_room && wide < roomy);
    m_workings.setVisible(m_wanted && !folded);
}

bool Fitting::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::Resize || event->type() == QEvent::StyleChange) share_room();
    return QObject::eventFilter(watched, event);
}

void Fitting::step_scale(int tenths) { take_scale(tenths == 0 ? 1 : std::round(interface_scale() * 10 + tenths) / 10); }

void Fitting::take_scale(double scale) {
    if (scale == interface_scale()) return;
    set_interface_scale(scale);
    Settings().setValue("scale", interface_scale());
    fit_to_screen();
    emit told(words("All of it at %1 %. Ctrl+0 is the usual size.").arg(std::lround(100 * interface_scale())), false);
}

void Fitting::set_dark(bool dark) {
    apply_theme(dark);
    for (QWidget* widget : QApplication::allWidgets()) widget->update();
}

void Fitting::choose_look(const QString& look) {
    Settings().setValue("theme", look);
    set_dark(look.isEmpty() ? desktop_is_dark() : look == "dark");
}

void Fitting::order_focus(const QList<QWidget*>& first, const QList<Station*>& stations, const QList<QWidget*>& last) {
    QList<QWidget*> stops = first;
    for (Station* station : stations) {
        stops << station;
        for (auto* over : station->findChildren<QWidget*>())
            if (over->focusPolicy() & Qt::TabFocus) stops << over;
    }
    stops += last;
    for (qsizetype i = 1; i < stops.size(); ++i) QWidget::setTabOrder(stops[i - 1], stops[i]);
}

void Fitting::show_workings(bool wanted) {
    m_wanted = wanted;
    share_room();
}

void Fitting::fold_workings() {
    m_fold = m_workings.isHidden() ? Fold::unfolded : Fold::folded;
    share_room();
}

void Fitting::unfold_workings() {
    if (m_workings.isHidden()) fold_workings();
}

void Fitting::remember(const QString& station) const {
    Settings kept;
    kept.setValue("window/geometry", m_window.saveGeometry());
    kept.setValue("window/station", station);
    kept.setValue("window/workings", static_cast<int>(m_fold));
}

QString Fitting::come_back() {
    const Settings kept;
    m_window.restoreGeometry(kept.value("window/geometry").toByteArray());
    m_fold = static_cast<Fold>(std::clamp(kept.value("window/workings", 0).toInt(), 0, 2));
    share_room();
    return kept.value("window/station", "train").toString();
}

}  // namespace echappe
