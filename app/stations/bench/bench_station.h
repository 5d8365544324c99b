#pragma once

#include "document/errand.h"
#include "drawing/plate_art.h"
#include "drawing/words.h"
#include "report/papers.h"
#include "report/steps.h"
#include "report/today.h"
#include "workings/card_station.h"
#include "workings/step_clock.h"

namespace echappe {

/// The whole job from the door to the next service: what is next and why, a key each; parts out and in; where oil goes; what is wrong when
/// it stops; and the bench with all jobs on it.
class BenchStation : public CardStation {
    Q_OBJECT
public:
    explicit BenchStation(const Workbench& bench);

    enum class Picture { order, parts, oil, diagnosis, jobs };

    bool beside_workings() const override { return false; }
    bool shows_something() const override { return !m_document.job().train.arbors.empty(); }
    std::vector<Scene> scenes() override;
    Printout printed() override;
    QString place_for_pictures() const override { return words("the diary"); }
    void take_picture(const QString& path) override;

    Picture picture() const { return m_picture; }
    void show_picture(Picture picture);
    const JobOrder& order() const;
    const DiagnoseResult& diagnosis() const;
    /// What was read of the folder last.
    const BenchToday& today() const { return m_today; }
    bool looking() const { return m_looking; }
    /// The folder of jobs that is looked through.
    QString folder() const;
    void look_through(const QString& words = {});
    void take_look(BenchToday seen);
    /// Page or pages, by the ending; what is told of it. Throws InputError.
    QString write_paper_to(const QString& path, const std::string& paper, const std::string& reader);

protected:
    void paint(QPainter& painter) override;
    QList<Action> make_actions() override;
    void showEvent(QShowEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;

private:
    static constexpr double top_px = 40;  ///< of the pictures' names
    const BenchRecord& record() const { return m_document.job().bench; }
    QList<Action> picture_actions();
    QList<Action> step_actions();
    std::vector<SumCard::Tab> tabs();
    void refresh();
    void done();
    void pass_over();
    void wait();
    void undo_step();
    void answer(size_t result);
    void go(int by);
    const JobStep* step() const;
    static QString wait_in_words(const JobStep& step);
    void ask_folder();
    void write_paper(const std::string& paper, const std::string& reader);
    void write_job_archive();
    void unpack_archive();
    void find_job();
    void end_step(const std::string& id);
    void ask(const QString& what, const QString& stands, const std::function<void(const QString&)>& take);
    void ask_picture();
    void begin_or_end_run();
    void note_stop();

    /// Beside the sheets, where they stand.
    double wide() const { return m_picture == Picture::order ? width() - SumCard::wide : width(); }
    void write_pictures(QPainter& painter);
    void paint_order(QPainter& painter);
    void paint_step_large(QPainter& painter, const QRectF& room, const JobStep& step);
    void paint_parts(QPainter& painter);
    /// How far down they go.
    double paint_moves(QPainter& painter, const QRectF& room, const QString& head, const std::vector<PartMove>& moves, bool back);
    void paint_oil(QPainter& painter);
    void paint_wheels_behind(QPainter& painter, const PlateMap& map, const std::string& plate);
    void paint_diagnosis(QPainter& painter);
    void paint_symptoms(QPainter& painter, const QRectF& room);
    void paint_causes(QPainter& painter, const QRectF& room);
    void paint_jobs(QPainter& painter);
    void paint_clock(QPainter& painter, const JobOnBench& job, QPointF foot, double high);
    void paint_today(QPainter& painter, const QRectF& room);

    Workshop& m_workshop;
    CalliperLine& m_line;
    InPlaceEditor* m_editor;
    Picture m_picture = Picture::order;
    std::string m_step;  ///< chosen; empty: the next
    double m_scrolled = 0, m_long = 0;
    mutable JobOrder m_order;
    mutable DiagnoseResult m_diagnosis;
    mutable std::optional<std::uint64_t> m_order_of, m_diagnosis_of;  ///< revision of the job
    mutable std::string m_order_at;                                   ///< the minute
    BenchToday m_today;
    QString m_words;
    StepClock m_clock;
    bool m_looking = false;
    size_t m_seen = 0, m_to_see = 0;  ///< of the folder's files
    Errand m_looker;
};

}  // namespace echappe
