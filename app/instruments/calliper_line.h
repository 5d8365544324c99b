#pragma once

#include <QLabel>
#include <QLineEdit>

#include "document/document.h"
#include "drawing/canvas.h"
#include "instruments/torque_round.h"

namespace echappe {

/// The line that takes readings: always there. It asks for the most useful one, and Enter stores it and goes on.
class CalliperLine : public Canvas {
    Q_OBJECT
public:
    explicit CalliperLine(Document& document, QWidget* parent = nullptr);

    QLineEdit& line() { return *m_line; }
    /// What the solver's round asks for; nullptr when nothing can be measured.
    const Measurable* asked() const { return m_solver.measurable(); }
    void ask(const QuantityKey& key);
    void ask_next(int step);
    /// Which readings it asks for.
    enum class Asks { train, plates, torque, looks };
    void take(Asks what);
    PlateRound& plates() { return m_plates; }
    TorqueRound& torque() { return m_torque; }
    /// Types the simulated instrument's reading into the line, as its cable would.
    void send_simulated();
    bool has_simulated() const;
    void explain();
    /// A digit pressed in a picture begins a reading.
    void begin(const QString& text);
    void tell(const QString& sentence, bool fault);

protected:
    void paint(QPainter& painter) override;
    bool eventFilter(QObject* watched, QEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void store();
    void refresh();

    Document& m_document;
    SolverRound m_solver;
    PlateRound m_plates;
    TorqueRound m_torque;
    LookRound m_looks;
    ReadingRound* m_round;
    QLineEdit* m_line;
    QString m_message;
    bool m_fault = false;
    bool m_simulated = false;  ///< what stands in the line came from the stand-in and was not touched since
};

}  // namespace echappe
