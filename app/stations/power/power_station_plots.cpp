#include <algorithm>
#include <cmath>

#include "drawing/words.h"
#include "number/constants.h"
#include "number/units.h"
#include "stations/power/power_station.h"
#include "theme/theme.h"

namespace echappe {

/// Above and below the plot: where the torque is told, and what is thought of it.
void PowerStation::write_torque(QPainter& painter, const DerivedDrive& power, const QRectF& room) {
    const Theme& t = inks(painter);
    Column page(painter, room.adjusted(0, 14, 0, 0));
    page.section(words("TORQUE OVER THE RUN, N mm"));
    if (power.torque.empty()) {
        page.says(power.fault.empty() ? words("To be given: %1.").arg(words(power.missing)) : words(power.fault), t.steel, Type::text);
        return;
    }
    page.gap(-4);
    page.line(words("at the %1 arbor, from %2")
                  .arg(words(m_document.job().train.name_of_arbor(power.arbor)).toLower(), words(words_for(power.torque_from))),
              t.steel);
    if (!power.verdict) return;
    const std::string& word = power.verdict->word;
    page.go_to(room.bottom() - verdict_high);
    page.head(words(word).left(1).toUpper() + words(word).mid(1), word == "right" ? t.verdigris : word == "strong" ? t.amber : t.ruby);
    page.gap(-6);
    page.says(words(power.verdict->reason), t.ink, Type::text);
}

void PowerStation::paint_swing(QPainter& painter, const DerivedDrive& power, QPointF pivot, double length) {
    const Theme& t = inks(painter);
    const PowerChainResult& now = *power.chain_at(m_wound);
    const PowerChainResult& chain = *power.chain;
    const bool pendulum = chain.semi_arc_deg.has_value();
    const double swing = pendulum ? *now.semi_arc_deg : *now.amplitude_deg;
    const double start = pendulum ? *chain.semi_arc_deg : *chain.amplitude_deg;
    const double end = pendulum ? *chain.semi_arc_end_deg : *chain.amplitude_end_deg;
    if (pendulum) {
        // The arc is drawn as wide as can be told apart; the figure says how wide it is.
        constexpr double times = 6;
        const double half = std::min(swing * times, 50.0) * rad_per_deg;
        for (const double side : {-1.0, 1.0}) {
            const QPointF bob = pivot + QPointF(side * std::sin(half), std::cos(half)) * length;
            painter.setPen(QPen(t.steel, 1.2, side < 0 ? Qt::DotLine : Qt::SolidLine));
            painter.drawLine(pivot, bob);
            painter.setBrush(side < 0 ? QBrush(Qt::NoBrush) : QBrush(t.pale_brass));
            painter.setPen(QPen(t.brass, 1.4, side < 0 ? Qt::DotLine : Qt::SolidLine));
            painter.drawEllipse(bob, 10, 10);
        }
    } else {
        const QPointF middle = pivot + QPointF(0, length * 0.55);
        painter.setPen(QPen(t.brass, 2));
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(middle, 26, 26);
        painter.setPen(QPen(t.blued, 3));
        painter.drawArc(QRectF(middle - QPointF(34, 34), QSizeF(68, 68)), 90 * 16, static_cast<int>(-std::min(swing, 360.0) * 16));
    }
    const QPointF below = pivot + QPointF(0, length + 30);
    write(painter, type(Type::figure, true), t.ink, below, words("± %1°").arg(words(print_times(swing))), 0);
    write(painter, type(Type::note, true), t.ink, below + QPointF(0, 16),
          words("%1 a beat").arg(words(print_energy_of_beat(now.energy_per_beat_J, 3))), 0);
    if (std::abs(end - start) > 0.05)
        write(painter, type(Type::note), t.steel, below + QPointF(0, 31),
              words("from %1° to %2°").arg(words(print_times(start)), words(print_times(end))), 0);
}

QString PowerStation::loss_in_words(const PowerAtArbor& from, const PowerAtArbor& to) const {
    const Job& job = m_document.job();
    QString text = words("Mesh of %1 and %2").arg(words(job.train.name_of_arbor(from.id)), words(job.train.name_of_arbor(to.id)));
    const auto& meshes = m_document.derived().power.meshes;
    if (const auto mesh = meshes.find(from.id + "-" + to.id); mesh != meshes.end())
        text += words(": passes on %1 %, by the simulation of its teeth at their depth").arg(100 * mesh->second.efficiency, 0, 'f', 1);
    text += to.pivot_friction_N_mm > 0
                ? words(";\nthe pivots of %1 take %2 N mm")
                      .arg(words(job.train.name_of_arbor(to.id)), words(print_short(to.pivot_friction_N_mm, 2)))
                : words(";\nthe pivots of %1 were not measured: their friction is left out").arg(words(job.train.name_of_arbor(to.id)));
    return text;
}

/// Where the flow of power lies in the picture.
struct PowerStation::Stream {
    QRectF room;
    double first, step, axis, most_W, swing_room;
    double x(size_t arbor) const { return first + step * static_cast<double>(arbor); }
    double half(double power_W) const { return widest / 2 * power_W / most_W; }
    static constexpr double widest = 46;
};

void PowerStation::paint_flow(QPainter& painter, const DerivedDrive& power, const QRectF& room) {
    const Theme& t = inks(painter);
    Column page(painter, room.adjusted(2, 12, -18, 0));
    page.section(words("WHERE THE POWER GOES"));
    if (!power.chain) {
        page.says(
            words("The flow to the swing is drawn once the drive's torque and what swings are known: its mass or its spring, at Beat."),
            t.steel, Type::text);
        return;
    }
    const auto& arbors = power.chain_at(m_wound)->arbors;
    constexpr double swing_room = 118, ends = 30;
    const double steps = static_cast<double>(std::max<size_t>(1, arbors.size() - 1));
    const Stream flow{room,
                      room.left() + ends,
                      (room.right() - swing_room - room.left() - 2 * ends) / steps,
                      room.top() + 92,
                      power.chain->arbors.front().power_W,
                      swing_room};
    for (size_t i = 0; i + 1 < arbors.size(); ++i) paint_loss(painter, flow, arbors[i], arbors[i + 1], i);
    for (size_t i = 0; i < arbors.size(); ++i) paint_station_of_power(painter, arbors[i], {flow.x(i), flow.axis}, flow.x(1) - flow.x(0));
    const double x = room.right() - swing_room / 2;
    painter.setPen(QPen(t.brass, 1.4));
    painter.drawLine(QPointF(flow.x(arbors.size() - 1) + 8, flow.axis), QPointF(x - 30, flow.axis));
    paint_swing(painter, power, {x, room.top() + 56}, std::min(96.0, room.height() - 160));
    write_flow(painter, power, flow);
}

/// What is lost falls away below the band, as wide as it is.
void PowerStation::paint_loss(QPainter& painter, const Stream& flow, const PowerAtArbor& from, const PowerAtArbor& to, size_t which) {
    const Theme& t = inks(painter);
    const double x0 = flow.x(which), x1 = flow.x(which + 1), axis = flow.axis;
    const double before = flow.half(from.power_W), after = flow.half(to.power_W);
    painter.setPen(Qt::NoPen);
    painter.setBrush(t.pale_brass);
    painter.drawPolygon(QPolygonF({{x0, axis - before}, {x1, axis - after}, {x1, axis + after}, {x0, axis + before}}));
    const double lost = 2 * (before - after);
    const double middle = (x0 + x1) / 2;
    const double bottom = axis + (before + after) / 2;
    painter.setBrush(t.ruby);
    painter.drawRect(QRectF(middle - lost / 2, bottom, std::max(1.0, lost), 22));
    write(painter, type(Type::note, true), t.ruby, {middle, bottom + 36}, words("−%1 %").arg(100 * to.lost_share, 0, 'f', 1), 0);
    place({"loss:" + QString::number(which), QRectF(middle - 30, bottom, 60, 44), {}, loss_in_words(from, to), {}});
}

void PowerStation::paint_station_of_power(QPainter& painter, const PowerAtArbor& arbor, QPointF at, double wide) {
    const Theme& t = inks(painter);
    const bool subject = arbor.id == m_document.selection().subject();
    painter.setPen(QPen(subject ? t.blued : t.brass, subject ? 2.4 : 1.4));
    painter.setBrush(t.sheet);
    painter.drawEllipse(at, 7, 7);
    const QString name = words(m_document.job().train.name_of_arbor(arbor.id));
    const QFont font = type_to_fit(Type::text, true, name, wide - 10);
    // The first stands at the picture's edge: half of it only has room to the left.
    write(painter, font, subject ? t.blued : t.ink, at + QPointF(0, -41), elided(font, name, std::min(wide - 10, 2 * at.x())), 0);
    write(painter, type(Type::note), t.steel, at + QPointF(0, -27), words("%1 N mm").arg(words(print_short(arbor.torque_N_mm, 3))), 0);
    QString hint = name + words("\npower %1").arg(words(print_power_of_train(arbor.power_W, 3)));
    if (arbor.tooth_load_N) hint += words("\ntooth load on its pinion %1 N").arg(words(print_short(*arbor.tooth_load_N, 3)));
    place({"arbor:" + words(arbor.id),
           QRectF(at - QPointF(24, 50), QSizeF(48, 64)),
           [this, id = arbor.id] { m_document.selection().select(id); },
           hint,
           {},
           {},
           {},
           subject,
           true});
}

/// What reaches the escape wheel, what is thought of it, and where to look for wear.
void PowerStation::write_flow(QPainter& painter, const DerivedDrive& power, const Stream& flow) {
    constexpr double swing_high = 224;
    const Theme& t = inks(painter);
    const QRectF& room = flow.room;
    const auto beside_swing = [&](double y) { return QRectF(room.left() + 2, y, room.width() - flow.swing_room - 16, room.bottom() - y); };
    Column page(painter, beside_swing(room.top() + 158));
    page.line(words("%1 % of the power reaches the escape wheel").arg(100 * power.chain_at(m_wound)->efficiency, 0, 'f', 0), t.ink,
              Type::text, true);
    page.says(words(power.chain->verdict), t.ink, Type::text);
    for (const std::string& line : power.wear) {
        // Below the swing there is the whole width.
        if (page.y() >= room.top() + swing_high) {
            Column below(painter, room.adjusted(2, page.y() - room.top(), -2, 0));
            below.says(words(line), t.amber);
            page.go_to(below.y());
        } else {
            page.says(words(line), t.amber);
        }
    }
    const auto& oscillator = m_document.job().oscillator;
    if (oscillator && !oscillator->Q_measured && page.holds(18))
        page.line(words("with Q %1 assumed: measured from how the swing dies away it would be surer").arg(oscillator->Q, 0, 'f', 0),
                  t.steel);
}

}  // namespace echappe
