#pragma once

#include "document/document.h"
#include "drawing/canvas.h"
#include "drawing/motion.h"
#include "drawing/words.h"
#include "sheet/column.h"
#include "stations/beat/escapement_view.h"
#include "stations/beat/listening_view.h"
#include "stations/beat/rate_plot.h"
#include "stations/beat/swing_picture.h"
#include "workings/card_station.h"

namespace echappe {

/// What keeps time: the pendulum or balance as something one turns, the log of its rate, and what to do about it. A turn that is
/// tried shows the rate that would follow; Enter keeps it as done, and the looks after it tell what really came of it.
class BeatStation : public CardStation {
    Q_OBJECT
public:
    explicit BeatStation(const Workbench& bench);

    ReadingRound* own_round() const override;
    bool beside_workings() const override { return false; }
    bool shows_something() const override { return oscillator().has_value(); }
    std::vector<Scene> scenes() override;
    bool reads(const std::string& header) const override;
    size_t read_table(Job& job, const std::string& csv) override;
    QString writes(const QString& ending) const override;
    void write_to(const QString& path) override;
    Solid solid() const override;
    Printout printed() override;

    RatePlot& plot() { return *m_plot; }
    /// The means that is turned; nullptr when there is none.
    const RateMeans* means() const;
    void choose_means(const std::string& id);
    void next_means(int by);
    double amount() const { return m_amount; }
    /// Tries an amount of it, to its least step; nothing is kept.
    void try_amount(double amount);
    void try_advised();
    /// The rate that would follow, s/d; none before there is one.
    std::optional<double> expected() const;
    /// What was tried was done, now by the reference of the last look.
    void keep();
    /// Wheel and pallets over the swing, or the swing again.
    void show_escapement(bool shown);
    bool escapement_shown() const { return m_escapement->isVisible(); }
    EscapementView& escapement() { return *m_escapement; }
    /// Listening over the swing, or the swing again.
    void show_listening(bool shown);
    QString listens_for() const override { return words("its rate and beat"); }
    void take_sound(const QString& path) override;
    bool listening_shown() const { return m_listening->isVisible(); }
    ListeningView& listening() { return *m_listening; }
    void remove_picked_look();
    void pick_look(int by);

protected:
    void paint(QPainter& painter) override;
    QList<Action> make_actions() override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void lay_out() override;
    QList<PrintTable> print_tables() override;
    void paint_over(QPainter& painter) override;
    void changeEvent(QEvent* event) override;
    void showEvent(QShowEvent* event) override;

private:
    const DerivedBeat& beat() const { return m_document.derived().beat; }
    const DerivedOscillator& swings() const { return m_document.derived().oscillator; }
    const std::optional<OscillatorRecord>& oscillator() const { return m_document.job().oscillator; }
    void refresh();
    std::vector<SumCard::Tab> tabs();
    SumCard::Tab part_tab(size_t part) const;
    SumCard::Tab positions_tab(const QString& name, const QString& sentence, std::vector<PositionRate> Balance::*list);
    SumCard::Tab measured_tab() const;
    SumCard::Tab balance_tab();
    SumCard::Tab suspension_tab();
    SumCard::Tab sum_tab(const QString& name, const Calculation& sum);
    SumCard::Tab screws_tab() const;
    SumCard::Tab wheel_tab() const;
    /// A nested record of the balance, made when its first figure is typed; what is found of it is told below.
    template <class Nested>
    SumCard::Tab nested_tab(const QString& name, const QString& sentence, std::optional<Nested> Balance::*member,
                            std::function<void(SumAnswer&)> tell = {}) const;
    DrawnSizes own_sizes() const override;
    DrawnSizes sizes_of_pendulum(const Pendulum& pendulum) const;
    DrawnSizes sizes_of_balance(const Balance& balance) const;
    SumAnswer measured() const;
    void add_to(OscillatorRecord& oscillator, const std::string& word) const;
    std::map<std::string, double> facts() const;
    double picture_wide() const;
    QRectF picture() const;
    void paint_nothing(QPainter& painter);
    void paint_rate(QPainter& painter, const QRectF& room);
    void paint_swing(QPainter& painter);
    void write_means(Column& page, QPainter& painter);
    void write_trial(Column& page, QPainter& painter, const RateMeans& now);
    void write_outcomes(Column& page);
    QString known_of_rate() const;
    QString heard_last() const;

    Motion& m_motion;
    CalliperLine& m_line;
    RatePlot* m_plot;
    EscapementView* m_escapement;
    ListeningView* m_listening;
    std::string m_means;
    double m_amount = 0;
    double m_change = 0;  ///< of the rate by it, s/d
    std::vector<SwingPicture::Handle> m_handles;
    std::optional<SwingPicture::Handle> m_held;
    QPointF m_held_at;
    double m_held_from = 0;
    std::string m_shape;  ///< of the tabs: kind and how many parts
};

}  // namespace echappe
