#pragma once

#include <QPainterPath>
#include <QPixmap>
#include <map>

#include "document/document.h"
#include "drawing/in_place_editor.h"
#include "drawing/motion.h"
#include "drawing/plate_art.h"
#include "sheet/column.h"
#include "shell/station.h"

namespace echappe {

/// The movement looked over: both plates and the selected arbor with every hole, wheel and pinion as a spot to judge with one key;
/// what needs a decision; the parts by their trays.
class SurveyStation : public Station {
    Q_OBJECT
public:
    explicit SurveyStation(const Workbench& bench);

    ReadingRound* own_round() const override { return &m_line_below.plates(); }
    bool beside_workings() const override { return false; }
    std::vector<Scene> scenes() override;
    Printout printed() override;
    QString place_for_pictures() const override;
    void take_picture(const QString& path) override { add_photo(path); }

    /// The spot that is judged: "centre.wheel".
    const Spot* spot() const;
    void go_to(const std::string& part);
    /// The next spot without a verdict, after this one.
    void next_open();
    InPlaceEditor& editor() { return *m_editor; }
    void write_note();
    void add_photo(const QString& path);
    void show_parts(bool shown);
    bool parts_shown() const { return m_parts; }
    /// What earlier hands did, instead of the state things are in.
    void show_earlier(bool shown);
    bool earlier_shown() const { return m_earlier; }
    /// Turns the arbor under the dial indicator.
    void turn_arbor(double degrees);
    std::optional<double> indicator_mm() const;
    /// Highest less lowest since the arbor was put in.
    double indicator_tir_mm() const { return m_highest - m_lowest; }

protected:
    void paint(QPainter& painter) override;
    QList<Action> make_actions() override;
    bool other_key(QKeyEvent& event) override;

private:
    /// A word that can be said of a spot, with its key.
    struct Word {
        char key;
        QString tag;
        QString words;
        QColor ink;
        bool said = false;
        QString why;  ///< it matters
        std::function<void()> say;
    };
    /// Of its kind: the verdicts, or what an earlier hand may have done.
    std::vector<Word> vocabulary(const Spot& spot, const Theme& inks);
    bool word_key(const QString& letter);
    void safety_key(bool overrule);
    void toggle_tooth(long long tooth);
    /// The damaged teeth of the arbor's wheel, by their numbers.
    void type_teeth();
    const DerivedMesh* mesh_of_wheel(const DerivedArbor& arbor) const;
    /// Known, or as the solver has it; 0 none.
    long long teeth_of(const DerivedArbor& arbor) const;
    void paint_plate(QPainter& painter, const std::string& plate, const QRectF& room);
    void paint_spot(QPainter& painter, const Spot& spot, QPointF at, double radius);
    /// Places along the arbor between its plates.
    struct Side {
        double left, right, middle, high;
        double along(double share) const { return left + (right - left) * share; }
    };
    void paint_arbor(QPainter& painter, const QRectF& room);
    void paint_side(QPainter& painter, const DerivedArbor& arbor, const Side& side);
    void paint_spot_at(QPainter& painter, const std::string& part, const Side& side, double share, double lift);
    void paint_face(QPainter& painter, const QPainterPath& outline, QPointF middle, double radius);
    void paint_wheel_face(QPainter& painter, const DerivedArbor& arbor, const QRectF& room);
    void paint_teeth_to_mark(QPainter& painter, const std::string& wheel, long long count, QPointF middle, double radius);
    void paint_indicator(QPainter& painter, const QRectF& room);
    void paint_column(QPainter& painter, const QRectF& room);
    void write_safety(Column& page);
    void write_vocabulary(Column& page, QPainter& painter, const Spot& spot);
    void write_word(Column& page, QPainter& painter, const Word& word);
    void write_note_of(Column& page, QPainter& painter, const ConditionRecord& condition);
    void write_list(Column& page, QPainter& painter);
    void paint_parts(QPainter& painter, const QRectF& room);
    double paint_tray(QPainter& painter, const std::string& tray, const QRectF& room);
    void paint_part_line(QPainter& painter, size_t part, const QRectF& at);
    void ask_part(size_t line);
    QList<Action> tally_actions();
    void step(int by);
    void peg(bool whole_plate);
    void survey_anew();
    QColor ink_of(const Spot& spot, const Theme& inks) const;
    /// Under its name: what was found, or what an earlier hand did.
    QString word_of(const Spot& spot) const;

    Motion& m_motion;
    CalliperLine& m_line_below;
    QRectF m_wheel_caption;  ///< under the face of the wheel
    InPlaceEditor* m_editor;
    std::string m_spot;
    std::string m_shown;  ///< while painting: the spot that is judged, looked up once
    bool m_parts = false;
    bool m_earlier = false;
    size_t m_line = 0;  ///< of the tally
    double m_angle_deg = 0;
    double m_highest = 0;
    double m_lowest = 0;
    std::string m_indicated;  ///< the arbor under the indicator
    std::map<QString, QPixmap> m_photos;
    struct Face {
        QPainterPath outline;
        bool dark = false;
        QPixmap picture;
    };
    Face m_face;  ///< of the wheel shown last
};

}  // namespace echappe
