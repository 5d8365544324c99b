#pragma once

#include "document/document.h"
#include "document/workshop.h"
#include "drawing/in_place_editor.h"
#include "drawing/plate_art.h"
#include "sheet/column.h"
#include "shell/station.h"
#include "stations/pivots/between_view.h"

namespace echappe {

/// Both plates with what is decided for every hole; the selected hole large with its reamers; its card.
class PivotsStation : public Station {
    Q_OBJECT
public:
    explicit PivotsStation(const Workbench& bench);

    ReadingRound* own_round() const override;
    bool beside_workings() const override { return false; }
    std::vector<Scene> scenes() override;
    Printout printed() override;
    bool reads(const std::string& header) const override;
    size_t read_table(Job& job, const std::string& csv) override;

    const DerivedHole* hole() const { return m_document.derived().pivots.hole(m_document.selection().hole()); }
    InPlaceEditor& editor() { return *m_editor; }
    /// The next hole with open work, after the selected one.
    void next_open();
    /// The bush of the plan goes from the drawer to the job: the drawer counts it down. Throws InputError.
    void take_bush();
    void next_school();
    void other_method();
    /// Asks for the reason, then overrules; an empty decision goes back to what follows.
    void overrule(const std::string& decision);
    void tick();
    void finish_or_redo();
    /// Keeps how the arbor ran alone between the plates.
    void trial(bool runs);
    /// The selected arbor between its plates, with the sums of the bench and the trials.
    void show_between(bool shown);
    bool between_shown() const { return m_between->isVisible(); }
    BetweenView& between() { return *m_between; }

protected:
    DrawnSizes own_sizes() const override;
    void paint(QPainter& painter) override;
    QList<Action> make_actions() override;
    void lay_out() override;

private:
    void paint_plate(QPainter& painter, const QString& plate, const QRectF& room);
    void paint_progress(QPainter& painter, const QRectF& room);
    void paint_large(QPainter& painter, const DerivedHole& hole, const QRectF& room);
    /// A hole much enlarged: how far from its true centre it has gone.
    struct Enlarged {
        const DerivedHole& hole;
        PlateMap view = {};
        double px = 1;     ///< a millimetre
        double times = 1;  ///< how much more the wear is drawn
        double original_mm = 0;
        QPointF centre = {};   ///< the true one, in the picture
        QPointF hole_at = {};  ///< an old bush stands off it by this
        QPointF walk = {};     ///< and wear has gone this way
        bool apart = false;
    };
    static Enlarged enlarged(const DerivedHole& hole, const QRectF& room);
    void paint_unmeasured(QPainter& painter, const DerivedHole& hole, const QRectF& room);
    void write_sizes(QPainter& painter, const DerivedHole& hole, QPointF centre, double hole_px, double pivot_px, const QRectF& room);
    void paint_planned_bush(QPainter& painter, const Enlarged& large);
    void paint_hole_and_pivot(QPainter& painter, const Enlarged& large);
    void paint_centres(QPainter& painter, const Enlarged& large);
    void paint_push(QPainter& painter, const Enlarged& large, const QRectF& room);
    void paint_pass(QPainter& painter, const DerivedHole& hole, size_t pass, const QRectF& bar);
    void paint_ways_to_read(QPainter& painter, const QRectF& room);
    void paint_reamers(QPainter& painter, const DerivedHole& hole, const QRectF& room);
    void paint_steps(QPainter& painter, const DerivedHole& hole, const QRectF& room);
    void paint_offset(QPainter& painter, const DerivedHole& hole, const QRectF& room);
    void paint_card(QPainter& painter, const QRectF& room);
    void write_decision(Column& page, QPainter& painter, const DerivedHole& hole);
    void write_readings(Column& page, const DerivedHole& hole);
    void write_bush(Column& page, const DerivedHole& hole);
    void write_schools(Column& page, QPainter& painter, const DerivedHole& hole);
    void write_meshes(Column& page, QPainter& painter, const DerivedHole& hole);
    void write_remarks(Column& page, const DerivedHole& hole);
    QString effect_in_words(const DerivedHole& hole, size_t which);
    QString length(double mm, int more = 0) const;
    const std::vector<SimulatedEffect>& effects(const DerivedHole& hole);

    Workshop& m_workshop;
    CalliperLine& m_line;
    InPlaceEditor* m_editor;
    BetweenView* m_between;
    bool m_order = false;  ///< a bush's work is told instead of its reamers
    std::string m_effects_of;
    std::uint64_t m_effects_at = 0;
    std::vector<SimulatedEffect> m_effects;
};

}  // namespace echappe
