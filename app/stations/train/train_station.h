#pragma once

#include <QImage>
#include <QLineEdit>
#include <QPen>
#include <map>

#include "document/document.h"
#include "drawing/in_place_editor.h"
#include "drawing/motion.h"
#include "drawing/words.h"
#include "instruments/count_round.h"
#include "sheet/column.h"
#include "shell/station.h"
#include "stations/train/train_search.h"
#include "stations/train/writing_sheet.h"
#include "train/places.h"

namespace echappe {

/// The plan of the movement, turning; the candidates for what is lost; the evidence and its strain.
class TrainStation : public Station {
    Q_OBJECT
public:
    explicit TrainStation(const Workbench& bench);

    QString place_for_pictures() const override { return words("the whole movement"); }
    /// Of the whole movement.
    void take_picture(const QString& path) override;
    bool reads(const std::string& header) const override;
    size_t read_table(Job& job, const std::string& csv) override;
    /// The circles of it as the holes of the movement.
    bool reads_drawings() const override { return true; }
    size_t read_drawing(Job& job, const QString& path) override;
    std::vector<Scene> scenes() override;
    /// Counts, from when too much is open to be weighed, or when all are counted once more; else as the solver says.
    ReadingRound* own_round() const override;
    void count_again();

    /// Opens the sheet on which the movement is written down.
    void write_down();
    void fill_subject_menu(QMenu& menu) override;
    WritingSheet& writing() { return *m_writing; }
    /// Begins from a kind of movement, by its id.
    void begin(const std::string& kind);

    /// Opens the editor on a count, as in "centre.wheel".
    void edit_count(const std::string& part);

    /// Opens the line that asks for trains, with this question.
    void ask_for_trains(const QString& question);
    void close_search();
    TrainSearch& search() { return m_search; }
    /// The distances to set for the selected arbor, the arcs and where they cross.
    void show_depthing(bool shown);
    bool depthing_shown() const { return m_depthing; }
    /// Tries the hole elsewhere; keep_hole() puts it into the job.
    void move_hole(QPointF to_mm);
    void keep_hole();

protected:
    void paint(QPainter& painter) override;
    QList<Action> make_actions() override;
    bool eventFilter(QObject* watched, QEvent* event) override;
    void lay_out() override;
    QList<PrintTable> print_tables() override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void fill_menu(QMenu& menu, const Place* place, const QPointF& at) override;

private:
    static constexpr double left_column = 250;
    static constexpr double column_x = 22;
    static constexpr size_t rows_shown = 4;  ///< candidates
    static QColor ink_of(Strain::Pull pull, const Theme& inks);
    /// A coil between two points; its turns stretch with the strain.
    static void paint_coil(QPainter& painter, QPointF a, QPointF b, double sigma, const QColor& colour);
    struct View {
        double px_per_mm = 1;
        QPointF origin;  ///< where 0, 0 of the plate lies
        QPointF at(double x_mm, double y_mm) const { return {origin.x() + x_mm * px_per_mm, origin.y() - y_mm * px_per_mm}; }
    };
    View view_of_plate() const;
    double top() const;  ///< below the sheet that is written on
    void written();
    /// Only what has moved far enough to be seen is painted anew.
    void follow_motion();
    QRectF room_of(const View& view, const DerivedArbor& arbor) const;
    void follow_job();
    void place_sheets();
    std::string train_id() const;
    QRectF at_subject() const;
    void add(const Edit<TrainRecord>& edit);
    void take_subject_away();
    void ask_of_subject(
        const QString& what, const std::string& stands,
        const std::function<Edit<TrainRecord>(const TrainRecord&, const std::string& arbor, const std::string& text)>& edit);
    void turn_lantern();
    void ask_place();
    void ask_distance();
    void ask_plate();
    void place_by_distances();
    /// A hole, a pillar or an edge of the plate drawn elsewhere: all of one drag is one step of undo.
    void drag_to(QPointF to);
    Edit<TrainRecord> dragged_to(echappe::Place to_mm) const;
    void ask_move();
    void ask_escapement();
    void paint_plate_handles(QPainter& painter, const View& view);
    std::optional<size_t> pillar_at(QPointF at) const;
    void fill_plate_menu(QMenu& menu, QPointF at);
    const DerivedArbor* arbor_under(QPointF at) const;
    static echappe::Place mm_at(const View& view, QPointF at) {
        return {(at.x() - view.origin.x()) / view.px_per_mm, (view.origin.y() - at.y()) / view.px_per_mm};
    }
    QList<Action> structure_actions();
    void paint_empty_bench(QPainter& painter);
    void paint_plate(QPainter& painter, const View& view);
    void paint_arbor(QPainter& painter, const View& view, const DerivedArbor& arbor);
    void paint_lost(QPainter& painter, const DerivedArbor& arbor, QPointF centre, double radius);
    void paint_ghosts(QPainter& painter, const View& view, const DerivedArbor& arbor);
    void paint_springs(QPainter& painter, const View& view);
    void paint_next(QPainter& painter, const View& view);
    QPointF label_place(const View& view, const DerivedArbor& arbor, double away) const;
    void paint_labels(QPainter& painter, const View& view);
    void paint_wheel_counts(QPainter& painter, const View& view, const DerivedArbor& arbor);
    void paint_pinion_count(QPainter& painter, const DerivedArbor& arbor, QPointF centre);
    long long count_at(const std::string& part) const;
    /// The left column, from below the sheet or from a height of its own.
    Column column(QPainter& painter, double top) const;
    void write_too_many(Column& page);
    void write_weighing(Column& page, QPainter& painter);
    void write_restored(Column& page, QPainter& painter);
    void write_candidate(Column& page, QPainter& painter, size_t which);
    void write_evidence(Column& page, QPainter& painter);
    void write_measurement(Column& page, QPainter& painter, const Measurement& measured);
    bool search_key(int key);
    void paint_search(QPainter& painter);
    void write_found(Column& page, QPainter& painter);
    void write_solution(Column& page, QPainter& painter, size_t which);
    void write_picked(Column& page, const FoundTrain& train);
    void paint_preview(QPainter& painter, const View& view);
    void paint_hands(QPainter& painter, const View& view);
    void paint_foot(QPainter& painter, const View& view);
    DepthingInput depthing_asked() const;
    void paint_depthing(QPainter& painter, const View& view);
    void paint_loupe(QPainter& painter, const DepthingInput& input, const DepthingResult& result);
    void paint_arcs(QPainter& painter, const View& view, const DepthingInput& input, const DepthingResult& result);
    void write_depthing(Column& page, const DepthingInput& input, const DepthingResult& result);
    QList<Action> depthing_actions();
    void choose_shown();
    void tell_cutters();

    Motion& m_motion;
    Workshop& m_workshop;
    CalliperLine& m_line;
    /// A wheel or pinion as painted last: kept until its size, ink or stand changes; while the movement runs it is
    /// turned instead of painted anew.
    struct Picture {
        QImage image;
        double angle = 0;
        double px_per_mm = 0;
        qsizetype points = 0;
        QRectF bounds_mm;
        QColor fill, ink;
    };
    void paint_part(QPainter& painter, const View& view, const QString& tag, QPointF centre, const QPainterPath& path, double angle,
                    const QColor& fill, const QPen& pen);

    std::vector<QRectF> m_written;  ///< figures on the plan, painted so far
    std::map<QString, Picture> m_pictures;
    std::map<std::string, double> m_turned;  ///< as painted last
    TrainSearch m_search;
    mutable CountRound m_counting;
    bool m_taking_in = false;  ///< counts are asked for first
    bool m_depthing = false;
    bool m_hole_dragged = false;
    std::string m_dragged;  ///< the place that is taken hold of: "arbor:centre", "pillar:0", "plate:width"
    QPointF m_dragged_from;
    std::optional<View> m_dragged_view;  ///< the plan as it was: it must not run away from the hand
    int m_drag_session = 0;
    std::optional<QPointF> m_moved_mm;
    QLineEdit* m_question;
    InPlaceEditor* m_editor;
    WritingSheet* m_writing;
};

}  // namespace echappe
