#pragma once

#include <QElapsedTimer>
#include <QObject>
#include <QTimer>
#include <ctime>

namespace echappe {

/// The drawn movement's own time: runs, pauses, slower, faster, one beat on. All pictures share it.
class Motion : public QObject {
    Q_OBJECT
public:
    explicit Motion(QObject* parent = nullptr);

    double seconds() const { return m_seconds; }
    bool running() const { return m_timer.isActive(); }
    double speed() const;
    QString speed_text() const;

    void toggle();
    void faster() { change_speed(1); }
    void slower() { change_speed(-1); }
    void step(double seconds);

signals:
    void moved();
    /// It was started, stopped, stepped or made faster or slower by hand; it has moved too.
    void changed();

private:
    void change_speed(int by);
    void keep_quiet();
    QTimer m_timer;
    QElapsedTimer m_clock;
    double m_seconds = 0;
    int m_speed = 2;
    std::clock_t m_used = 0;  ///< of the processor, at the last frame
    double m_took_ms = 0;     ///< a frame, about
};

}  // namespace echappe
