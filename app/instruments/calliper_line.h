#pragma once

#include <QElapsedTimer>
#include <QLineEdit>
#include <deque>

#include "document/document.h"
#include "drawing/canvas.h"
#include "instruments/field_round.h"
#include "instruments/strike_round.h"
#include "instruments/torque_round.h"

namespace echappe {

/// The line that takes readings: always there. It asks for the most useful one, and Enter stores it and goes on. What is typed
/// belongs to the question it was typed for: Enter and Tab keep it, and where another question comes up before that it waits for
/// its own.
class CalliperLine : public Canvas {
    Q_OBJECT
public:
    explicit CalliperLine(Document& document, QWidget* parent = nullptr);

    QLineEdit& line() { return *m_line; }
    /// What the solver's round asks for; nullptr when nothing can be measured.
    const Measurable* asked() const { return m_solver.measurable(); }
    void ask(const QuantityKey& key);
    void ask_next(int step);
    /// Asks for these readings from now on.
    void take(ReadingRound& round);
    const ReadingRound& round() const { return *m_round; }
    SolverRound& solver() { return m_solver; }
    PlateRound& plates() { return m_plates; }
    TorqueRound& torque() { return m_torque; }
    LookRound& looks() { return m_looks; }
    StrikeRound& strikes() { return m_strikes; }
    FieldRound& hands() { return m_hands; }
    FieldRound& together() { return m_together; }
    FieldRound& alarm() { return m_alarm; }
    FieldRound& wood() { return m_wood; }
    /// Types the simulated instrument's reading into the line, as its cable would.
    void send_simulated();
    bool has_simulated() const;
    void explain();
    void tell(const QString& sentence, bool fault);
    /// What was said last.
    const QString& message() const { return m_message; }

    /// Whether this key, pressed anywhere in the window but in an entry, is typed into the line: figures and signs always, all that
    /// can be typed while something stands there.
    bool wants(const QKeyEvent& key) const;
    /// Types it there.
    void take_key(QKeyEvent& key);
    /// Whether the picture that is shown answers such a key itself: then it is the line's only while that has the focus.
    void ask_picture_first(std::function<bool(const QKeyEvent&)> answers) { m_picture_answers = std::move(answers); }
    /// Whether a figure typed now goes to the line. It is seen on the line.
    bool takes_figures() const;
    void show_who_takes_figures();

    /// What was typed and not kept, each with what for.
    QStringList unkept() const;
    void forget_unkept();
    /// To the question that something was typed for last and not kept.
    void back_to_unkept();

signals:
    /// The station is wanted where these readings are asked for.
    void station_wanted(ReadingRound* round);
    /// Escape on an empty line: back to the picture.
    void left();
    /// A key that is none of the line's: of the station that is shown.
    void station_key(QKeyEvent* key);

protected:
    void paint(QPainter& painter) override;
    bool eventFilter(QObject* watched, QEvent* event) override;
    void lay_out() override;
    QSize fixed_size() const override { return {0, 70}; }

private:
    struct Question {
        ReadingRound* round = nullptr;  ///< none: nothing was asked yet, or it is being kept
        QString id;
        QString name;
        bool operator==(const Question&) const = default;
    };
    struct Unkept {
        Question question;
        QString text;
        bool simulated = false;
        std::function<void()> ask_again;
    };
    Question question() const;
    bool of_the_picture(const QKeyEvent& key) const;
    bool is_of_the_window(const QKeyEvent& event) const;
    bool key(QKeyEvent& event);
    void store();
    void refresh();
    void follow_question();
    void paint_keys(QPainter& painter, double x, double end);
    /// As if it were typed.
    void press(const LineKey& key);
    void paint_message(QPainter& painter, double x, double room);

    Document& m_document;
    std::function<bool(const QKeyEvent&)> m_picture_answers;
    SolverRound m_solver;
    PlateRound m_plates;
    TorqueRound m_torque;
    LookRound m_looks;
    StrikeRound m_strikes;
    FieldRound m_hands, m_together, m_alarm, m_wood;
    ReadingRound* m_round;
    QLineEdit* m_line;
    Question m_typed_for;               ///< the question that stands in the line
    std::function<void()> m_ask_again;  ///< it, once something is typed
    std::deque<Unkept> m_unkept;
    QElapsedTimer m_kept;  ///< since a reading was kept
    QString m_message;
    bool m_fault = false;
    bool m_simulated = false;  ///< what stands in the line came from the stand-in and was not touched since
};

}  // namespace echappe
