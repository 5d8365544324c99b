#pragma once

#include "beat/in_beat.h"
#include "instruments/listener.h"
#include "stations/beat/beats_round.h"
#include "workings/card_station.h"

namespace echappe {

/// Listening to the movement: rate, limp and amplitude by its sound, the beats laid round its wheels, tick over tock; what was heard
/// goes into the log.
class ListeningView : public CardStation {
    Q_OBJECT
public:
    ListeningView(Document& document, QWidget* parent);

    /// Listens to what is chosen, or no more.
    void toggle();
    void stop();
    /// A recording, as fast as it can be read. What cannot be read is told.
    void listen_to(const QString& path);
    /// The stand-in, as fast as it can be made, until so much was heard.
    void hurry(double seconds);
    Heard heard() const { return m_listener.heard(); }
    void keep();
    void refresh();
    /// The arbor round which the beats are laid; the escape wheel first.
    std::vector<LaidRound> wheels() const { return wheels_to_lay_round(movement()); }
    void next_wheel(int by);

signals:
    void left();

protected:
    void paint(QPainter& painter) override;
    QList<Action> make_actions() override;
    void showEvent(QShowEvent* event) override;
    void hideEvent(QHideEvent* event) override;

private:
    /// What one may listen to: the stand-in, each microphone, the recording that was opened last.
    struct Source {
        enum class Is { nothing, stand_in, device, file } is = Is::nothing;
        QString name;  ///< of a device, or a file's path
        bool operator==(const Source&) const = default;
    };
    QList<Source> sources() const;
    QString words_of_source() const;
    /// What the stand-in hears now; nothing where the job has none, or where the movement would stand still.
    std::optional<TickingInput> stand_in(std::uint64_t turn) const;
    void look_for_devices();
    void next_source();
    void start(std::unique_ptr<SoundSource> source);
    void ask_for_file();
    void next_side();
    void put_right();
    std::vector<SumCard::Tab> tabs();
    SumAnswer heard_sheet() const;
    SumAnswer kept_sheet() const;
    void frame();
    const BeatAnalysisResult* result() const { return m_now.told.get(); }
    BeatAnalysisInput asked(const SoundSource& source) const;
    const OscillatorRecord* oscillator() const;
    std::optional<bool> even_is_right() const;
    std::string longer_side() const;
    bool balance() const { return oscillator() && oscillator()->as<Balance>(); }
    InBeatAdvice advice() const;
    BeatsTold movement() const;
    QRectF dial() const;
    QRectF foot() const;
    void paint_figures(QPainter& painter, const QRectF& room);
    void paint_round(QPainter& painter);
    void paint_happenings(QPainter& painter);
    /// A part of the picture, painted once.
    struct Kept {
        QString key;
        double scale = 1;
        QPixmap picture;
    };
    void paint_kept(QPainter& painter, const QRectF& room, Kept& kept, const std::function<void(QPainter&)>& paint) const;
    void write_figure(QPainter& painter, Column& page, const QString& name, const QString& figure, const QString& unit, const QColor& ink);
    void write_beat(Column& page);

    Listener m_listener;
    QTimer m_frames;
    Heard m_now;
    Kept m_laid, m_hills;
    QStringList m_devices;
    Source m_source;
    QString m_file;
    int m_wheel = 0;
    std::optional<bool> m_even_is_right;  ///< as somebody saw it
    std::uint64_t m_turn = 0;             ///< how often the stand-in was listened to
};

}  // namespace echappe
