#pragma once

#include "document/errand.h"
#include "drawing/words.h"
#include "strike/derive.h"
#include "workings/card_station.h"

namespace echappe {

/// What counts the hours, shows them and wakes people, a picture each: count wheel or rack and snail to scale, stepped strike by strike
/// and blow by blow, faults put in by a click, and below it the day; the strike's train as it must stand when the plates close; pipes
/// and hands cut through; the alarm's cam turned with the time.
class StrikeStation : public CardStation {
    Q_OBJECT
public:
    explicit StrikeStation(const Workbench& bench);

    enum class Picture { count, together, hands, alarm };

    ReadingRound* own_round() const override;
    bool beside_workings() const override { return false; }
    bool shows_something() const override { return there(m_picture); }
    Picture picture() const { return m_picture; }
    void show_picture(Picture picture);
    std::vector<Scene> scenes() override;
    QString writes(const QString& ending) const override;
    void write_to(const QString& path) override;
    Solid solid() const override;

    /// Where it stands: so many strikes are struck, and so many blows of the next.
    size_t struck() const { return m_struck; }
    long long blows() const { return m_blows; }
    /// On to the end of the next strike, or back to the beginning of the last.
    void step(int strikes);
    void give_blow();

protected:
    void paint(QPainter& painter) override;
    QList<Action> make_actions() override;
    void showEvent(QShowEvent* event) override;

private:
    static constexpr double top_px = 40;  ///< of the pictures' names
    /// Of what counts, in their order.
    enum Sheet { count_sheet, heard_sheet, part_sheet, train_sheet, rack_sheet };
    const DerivedStrike& strike() const { return m_document.derived().strike; }
    StrikeRecord record() const { return m_document.job().strike.value_or(StrikeRecord()); }
    const StruckHour* next() const;
    void refresh();
    void go_to(size_t struck);
    void take_heard();
    void listen();
    void listen_to(const QString& path);
    QString listens_for() const override { return words("one strike"); }
    void take_sound(const QString& path) override { listen_to(path); }
    /// Listened to last, where the sound is at hand.
    const StrikeRound::Sounded* sounded() const;
    /// Whether there is room for it.
    bool shows_sound() const;
    double picture_high() const;
    void put_right();
    bool there(Picture picture) const;
    /// What is written of the picture that is shown; no name: nothing that was measured.
    struct Written {
        QString name;
        FlatPart part;
    };
    Written written_part() const;
    std::vector<SumCard::Tab> tabs();
    std::vector<SumCard::Tab> tabs_of_count();
    DrawnSizes own_sizes() const override;
    DrawnSizes sizes_of_train(const StrikeRecord& strike) const;
    SumCard::Tab fly_tab() const;
    std::vector<std::string> drawn_fields() const;
    SumCard::Take taken_into_strike() const;
    QList<Action> picture_actions();
    /// The names of the pictures, along the top.
    void write_pictures(QPainter& painter);
    void paint_nothing(QPainter& painter);
    void paint_count(QPainter& painter);
    void paint_standing(QPainter& painter);
    void ask_roles(QPainter& painter);
    void paint_hands(QPainter& painter);
    void paint_alarm(QPainter& painter);
    void invite(QPainter& painter, const QString& head, const QStringList& words, const QString& place, const QString& button,
                const std::function<void()>& begin);
    void ask_seen(bool hammer);
    void turn_alarm(double hours);
    void stop_listening();
    double wide() const;
    void write_where(QPainter& painter, const QRectF& room);
    void paint_day(QPainter& painter, const QRectF& room);
    void paint_strike(QPainter& painter, size_t which, const QRectF& room, double dot);

    CalliperLine& m_line;
    Picture m_picture = Picture::count;
    bool m_of_rack = false;  ///< its sheet is among those of the card
    size_t m_struck = 0;
    long long m_blows = 0;
    double m_alarm_h = 5;  ///< time at which the alarm's cam is shown
    Errand m_listener;
};

}  // namespace echappe
