#pragma once

#include <QList>
#include <QObject>

class QMainWindow;
class QWidget;

namespace echappe {

class Ladder;
class Station;
class WorkingsPanel;

/// How the window fits its screen and its panels fit the window: least and usual size, the scale of all of it, what folds where
/// there is no room, and how it stood the last time.
class Fitting : public QObject {
    Q_OBJECT
public:
    Fitting(QMainWindow& window, Ladder& ladder, WorkingsPanel& workings);

    /// Larger or smaller by steps of a tenth; 0 as usual.
    void step_scale(int tenths);
    void take_scale(double scale);
    static void set_dark(bool dark);
    /// "light", "dark", or as the desktop is; kept.
    void choose_look(const QString& look);
    /// Tab leads from the first to the pictures, each with what lies over it, and on to the last.
    static void order_focus(const QList<QWidget*>& first, const QList<Station*>& stations, const QList<QWidget*>& last);
    /// Whether the workings belong beside what is shown.
    void show_workings(bool wanted);
    void fold_workings();
    void unfold_workings();
    /// Which station is shown, with the rest of how the window stands.
    void remember(const QString& station) const;
    /// As it was left the last time; the station that was shown.
    QString come_back();

signals:
    void told(const QString& sentence, bool fault);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void fit_to_screen();
    void share_room();

    QMainWindow& m_window;
    Ladder& m_ladder;
    WorkingsPanel& m_workings;
    /// Folded where the window is narrow, or as it was done by hand.
    enum class Fold { by_room, folded, unfolded };
    Fold m_fold = Fold::by_room;
    bool m_wanted = true;
};

}  // namespace echappe
