#pragma once

#include "document/document.h"
#include "document/workshop.h"
#include "drawing/canvas.h"
#include "sheet/column.h"
#include "stations/power/torque_plot.h"
#include "workings/card_station.h"

namespace echappe {

/// What drives: the spring, fusee or weight as it winds and lets down, its torque over the run against the need, and the flow of
/// power along the train to the swing it keeps up.
class PowerStation : public CardStation {
    Q_OBJECT
public:
    explicit PowerStation(const Workbench& bench);

    ReadingRound* own_round() const override { return !m_line.torque().asked() && sizes_open() ? nullptr : &m_line.torque(); }
    bool beside_workings() const override { return false; }
    bool shows_something() const override { return power() != nullptr; }
    std::vector<Scene> scenes() override;
    bool reads(const std::string& header) const override;
    size_t read_table(Job& job, const std::string& csv) override;

    /// How far it is wound, 1 wound to 0 run down; dragged in the picture.
    double wound() const { return m_wound; }
    void wind_to(double share);
    const DerivedDrive* power() const;
    /// Strips of the drawer ranked for this barrel; none for a weight, or while sizes are missing.
    std::optional<SpringMatchResult> strips() const;

protected:
    void paint(QPainter& painter) override;
    QList<Action> make_actions() override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void showEvent(QShowEvent* event) override;
    void lay_out() override;
    QList<PrintTable> print_tables() override;
    void paint_over(QPainter& painter) override;
    void changeEvent(QEvent* event) override;

private:
    std::string torque_csv() const;
    void refresh();
    std::vector<SumCard::Tab> tabs();
    SumAnswer measured() const;
    SumAnswer ranked() const;
    SumCard::Tab assembly() const;
    SumCard::Tab outcomes() const;
    SumCard::Tab cone_table() const;
    /// What is typed goes into the drive of the train that is shown.
    SumCard::Take typed_for_drive(std::function<void(DriveRecord&, const std::string& field, const std::string& word)> type) const;
    SumCard::Take typed_into_drive() const;
    void paint_nothing(QPainter& painter);
    void begin_with(const std::string& kind);
    void paint_drive(QPainter& painter, const DerivedDrive& power, const QRectF& room);
    DrawnSizes own_sizes() const override;
    void paint_weight(QPainter& painter, const DerivedDrive& power, const WeightDrive& drive, const QRectF& room, Dimensions& sizes);
    void write_missing(QPainter& painter, const DerivedDrive& power, const QRectF& room);
    struct Fall;
    void paint_fall(QPainter& painter, const Fall& fall, const WeightDriveResult& w, const WeightDrive& drive, Dimensions& sizes);
    void paint_hanging(QPainter& painter, const Fall& fall, const WeightDriveResult& w, const WeightDrive& drive, Dimensions& sizes);
    void paint_barrel(QPainter& painter, const DerivedDrive& power, QPointF middle, double radius);
    static void paint_coils(QPainter& painter, const SpringSizeInput& in, const Coils& coils, QPointF middle, double px);
    struct Cone;
    void paint_cone(QPainter& painter, const Cone& cone);
    void paint_chain(QPainter& painter, const Cone& cone);
    void paint_spring(QPainter& painter, const DerivedDrive& power, const QRectF& room, Dimensions& sizes);
    void paint_fusee(QPainter& painter, const DerivedDrive& power, const FuseeDrive& drive, const QRectF& room, Dimensions& sizes);
    void paint_rewind(QPainter& painter, const DerivedDrive& power, const RewoundDrive& drive, const QRectF& room, Dimensions& sizes);
    void write_torque(QPainter& painter, const DerivedDrive& power, const QRectF& room);
    void place_plot();
    QString loss_in_words(const PowerAtArbor& from, const PowerAtArbor& to) const;
    struct Stream;
    void paint_flow(QPainter& painter, const DerivedDrive& power, const QRectF& room);
    void paint_loss(QPainter& painter, const Stream& flow, const PowerAtArbor& from, const PowerAtArbor& to, size_t which);
    void paint_station_of_power(QPainter& painter, const PowerAtArbor& arbor, QPointF at, double wide);
    void write_flow(QPainter& painter, const DerivedDrive& power, const Stream& flow);
    void paint_swing(QPainter& painter, const DerivedDrive& power, QPointF pivot, double length);

    /// What stands where: the drive at the left, its torque at the right, the flow below.
    struct Rooms {
        QRectF drive, torque, flow;
    };
    Rooms rooms() const;
    static constexpr double verdict_high = 84;  ///< below the plot

    Workshop& m_workshop;
    CalliperLine& m_line;
    TorquePlot* m_plot;
    double m_wound = 1;
    QRectF m_picture;  ///< of the drive: dragging in it winds
    bool m_dragging = false;
    std::string m_kind;
};

}  // namespace echappe
