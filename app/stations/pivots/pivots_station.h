#pragma once

#include "document/document.h"
#include "document/workshop.h"
#include "drawing/in_place_editor.h"
#include "drawing/plate_art.h"
#include "shell/station.h"
#include "stations/pivots/between_view.h"

namespace echappe {

/// Both plates with what is decided for every hole; the selected hole large with its reamers; its card.
class PivotsStation : public Station {
    Q_OBJECT
public:
    explicit PivotsStation(const Workbench& bench);

    ReadingRound* round() const override { return &m_line.plates(); }
    bool beside_workings() const override { return false; }
    std::vector<Scene> scenes() override;
    QString writes(const QString& ending) const override { return ending == "pdf" ? tr("holes") : QString(); }
    void write_to(const QString& path) override;
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
    void paint(QPainter& painter) override;
    QList<Action> make_actions() override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void paint_plate(QPainter& painter, const QString& plate, const QRectF& room);
    void paint_progress(QPainter& painter, const QRectF& room);
    void paint_large(QPainter& painter, const DerivedHole& hole, const QRectF& room);
    void paint_true_and_worn(QPainter& painter, const DerivedHole& hole, const QRectF& room, double px, double times, const PlateMap& view);
    void paint_reamers(QPainter& painter, const DerivedHole& hole, const QRectF& room);
    void paint_steps(QPainter& painter, const DerivedHole& hole, const QRectF& room);
    void paint_offset(QPainter& painter, const DerivedHole& hole, const QRectF& room);
    void paint_card(QPainter& painter, const QRectF& room);
    double paint_decision(QPainter& painter, const DerivedHole& hole, const QRectF& room, double y);
    double paint_figures(QPainter& painter, const DerivedHole& hole, const QRectF& room, double y);
    double paint_schools(QPainter& painter, const DerivedHole& hole, const QRectF& room, double y);
    double paint_meshes(QPainter& painter, const DerivedHole& hole, const QRectF& room, double y);
    double paint_notes(QPainter& painter, const DerivedHole& hole, const QRectF& room, double y);
    QString length(double mm, int more = 0) const;
    const std::vector<SimulatedEffect>& effects(const DerivedHole& hole);

    Workshop& m_workshop;
    CalliperLine& m_line;
    InPlaceEditor* m_editor;
    BetweenView* m_between;
    std::string m_effects_of;
    std::uint64_t m_effects_at = 0;
    std::vector<SimulatedEffect> m_effects;
};

}  // namespace echappe
