#pragma once

#include "document/document.h"
#include "drawing/in_place_editor.h"
#include "sheet/column.h"
#include "shell/station.h"

namespace echappe {

/// The whole wheel with its crossings, bore and collet: what the blank is turned and sawn to. Rim and hub are dragged,
/// figures typed; what nobody decided follows the rule.
class BlankView : public Station {
    Q_OBJECT
public:
    explicit BlankView(Document& document, QWidget* parent);

    /// Which part is shown; the mesh is looked up by its two arbors, so that it stays when the job changes.
    void show_part(const DerivedMesh& mesh, bool wheel);
    const BlankResult* blank() const;
    InPlaceEditor& editor() { return *m_editor; }

signals:
    void left();

protected:
    void paint(QPainter& painter) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    QList<Action> make_actions() override;

private:
    using Size = std::optional<double> BlankChoice::*;
    const DerivedMesh* mesh() const;
    const std::string& part_name() const;
    BlankChoice decided() const;
    void decide(const BlankChoice& choice);
    void ask(const QString& tag, Size size, double now_mm);
    void set_arms(long long arms);
    void paint_wheel(QPainter& painter, const DerivedMesh& mesh, const BlankResult& blank);
    void paint_sizes(QPainter& painter, const BlankResult& blank);
    static void across(QPainter& painter, QPointF a, QPointF b);
    void paint_arm_width(QPainter& painter, const QString& tag, QPointF at, double angle, Size size, double wide_mm);
    void write_decided(Column& page, QPainter& painter, const QString& tag, const QString& words, Size size, double mm);
    void write_to_turn(Column& page, QPainter& painter, const BlankResult& blank);
    void write_weight(Column& page, const BlankResult& blank);
    void write_inertia(Column& page, const BlankResult& blank);
    void paint_column(QPainter& painter, const DerivedMesh& mesh, const BlankResult& blank);
    void paint_section(QPainter& painter, const BlankResult& blank, const QRectF& room);
    void figure(QPainter& painter, const QString& tag, QPointF baseline, const QString& words, Size size, double mm, int align);
    double column() const;
    double scale(const BlankResult& blank) const;
    QPointF middle() const;
    QString length(double mm, bool with_unit = true) const;

    InPlaceEditor* m_editor;
    std::string m_wheel_of;
    std::string m_pinion_of;
    bool m_wheel = true;
    Size m_dragged = nullptr;
    std::optional<BlankResult> m_trial;  ///< while a circle is dragged
    BlankChoice m_trial_choice;
};

}  // namespace echappe
