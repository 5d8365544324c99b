#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "number/units.h"
#include "stations/power/power_station.h"
#include "theme/theme.h"

namespace echappe {

/// What it took to wind, above what it gives: the gap is lost between the coils. For a fusee, what its best set-up would give.
void PowerStation::paint_wound_log(QPainter& painter, const DerivedDrive& power, const std::function<QPointF(double, double)>& at) {
    const Theme& t = theme();
    const double run = power.torque.back()[0];
    if (power.set_up) {
        QPainterPath set_up;
        const auto& torque = power.set_up->torque_N_mm;
        for (size_t q = 0; q < torque.size(); ++q) {
            const QPointF point = at(run * static_cast<double>(q) / static_cast<double>(torque.size() - 1), torque[q]);
            if (q == 0) set_up.moveTo(point);
            else set_up.lineTo(point);
        }
        painter.setPen(QPen(t.verdigris, 1.4, Qt::DashLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawPath(set_up);
    }
    if (power.drive.torque_up.empty()) return;
    const double top = power.drive.torque_up.back()[0];
    QPainterPath up;
    for (const auto& [turns, torque] : power.drive.torque_up) {
        const QPointF point = at(top - turns, torque);
        if (up.isEmpty()) up.moveTo(point);
        else up.lineTo(point);
    }
    painter.setPen(QPen(t.steel, 1.2));
    painter.setBrush(Qt::NoBrush);
    painter.drawPath(up);
    for (const auto& [turns, torque] : power.drive.torque_up) {
        const QPointF point = at(top - turns, torque);
        painter.drawPolygon(QPolygonF({point + QPointF(-4, 3), point + QPointF(4, 3), point + QPointF(0, -4)}));
    }
    const auto& [middle_turns, middle_torque] = power.drive.torque_up[power.drive.torque_up.size() / 2];
    write(painter, word_font(8.5), t.steel, at(top - middle_turns, middle_torque) + QPointF(0, -8), tr("being wound"), 0);
}

void PowerStation::paint_torque(QPainter& painter, const DerivedDrive& power, const QRectF& room) {
    const Theme& t = theme();
    write(painter, word_font(8.5, true), t.steel, {room.left(), room.top() + 26}, tr("TORQUE OVER THE RUN, N mm"));
    if (power.torque.empty()) {
        write_wrapped(painter, word_font(10.5), t.steel, room.topLeft() + QPointF(0, 44), room.width(),
                      power.fault.empty() ? tr("To be given: %1.").arg(words(power.missing)) : words(power.fault));
        return;
    }
    write(painter, word_font(9), t.steel, {room.left(), room.top() + 42},
          tr("at the %1 arbor, from %2")
              .arg(words(m_document.job().train.name_of_arbor(power.arbor)).toLower(), words(words_for(power.torque_from))));
    // The verdict stands below in two lines, in three where there is little room.
    const double said = room.width() > 280 ? 54 : 68;
    const QRectF plot = room.adjusted(42, 62, -6, -said - 42);
    const double run = power.torque.back()[0];
    double most = power.least_N_mm ? 2.1 * *power.least_N_mm : 0;
    for (const auto& [turns, torque] : power.torque) most = std::max(most, torque * 1.12);
    for (const auto& [turns, torque] : power.drive.torque_up) most = std::max(most, torque * 1.08);
    const auto at = [&](double turns, double torque) {
        return QPointF(plot.left() + turns / run * plot.width(), plot.bottom() - torque / most * plot.height());
    };
    if (power.right_N_mm) {
        QColor band = t.verdigris;
        band.setAlphaF(0.18f);
        painter.fillRect(QRectF(at(0, (*power.right_N_mm)[1]), at(run, (*power.right_N_mm)[0])), band);
        write(painter, word_font(8.5), t.verdigris, at(run, (*power.right_N_mm)[1]) + QPointF(-4, 13),
              tr("right: 1.5 to 2 times the least"), 1);
        painter.setPen(QPen(t.amber, 1.4, Qt::DashLine));
        painter.drawLine(at(0, *power.least_N_mm), at(run, *power.least_N_mm));
        write(painter, word_font(8.5), t.amber, at(run, *power.least_N_mm) + QPointF(-4, 13),
              tr("least that runs, %1").arg(words(print_short(*power.least_N_mm, 3))), 1);
    }
    painter.setPen(QPen(t.steel, 1));
    painter.drawLine(plot.bottomLeft(), plot.bottomRight());
    painter.drawLine(plot.bottomLeft(), plot.topLeft());
    write(painter, word_font(8.5), t.steel, plot.bottomLeft() + QPointF(-6, 4), "0", 1);
    write(painter, word_font(8.5), t.steel, plot.bottomLeft() + QPointF(0, 16), tr("wound"));
    write(painter, word_font(8.5), t.steel, plot.bottomRight() + QPointF(0, 16), tr("after %1 turns").arg(run, 0, 'f', 1), 1);
    QPainterPath curve;
    for (size_t i = 0; i < power.torque.size(); ++i) {
        const QPointF point = at(power.torque[i][0], power.torque[i][1]);
        if (i == 0) curve.moveTo(point);
        else curve.lineTo(point);
    }
    paint_wound_log(painter, power, at);
    painter.setPen(QPen(t.blued, 2.6));
    painter.setBrush(Qt::NoBrush);
    painter.drawPath(curve);
    if (power.log) {
        painter.setBrush(t.sheet);
        painter.setPen(QPen(t.blued, 1.6));
        for (const auto& [turns, torque] : power.torque) painter.drawEllipse(at(turns, torque), 3.6, 3.6);
    }
    for (const auto& ends : {power.torque.front(), power.torque.back()})
        write(painter, figure_font(11.5), t.ink, at(ends[0], ends[1]) + QPointF(ends[0] == 0 ? 4 : -4, -10), words(print_short(ends[1], 3)),
              ends[0] == 0 ? -1 : 1);
    painter.setPen(QPen(t.ink, 1, Qt::DotLine));
    const double now = (1 - m_wound) * run;
    painter.drawLine(at(now, 0), QPointF(at(now, 0).x(), plot.top()));
    if (m_wound < 0.97 && m_wound > 0.03)
        write(painter, figure_font(11.5), t.ink, at(now, power.torque_at(m_wound)) + QPointF(5, -10),
              words(print_short(power.torque_at(m_wound), 3)));
    if (!power.verdict) return;
    const std::string& word = power.verdict->word;
    const QColor ink = word == "right" ? t.verdigris : word == "strong" ? t.amber : t.ruby;
    write(painter, figure_font(15), ink, {room.left(), room.bottom() - said}, words(word).left(1).toUpper() + words(word).mid(1));
    write_wrapped(painter, word_font(9.5), t.ink, {room.left(), room.bottom() - said + 6}, room.width(), words(power.verdict->reason));
}

void PowerStation::paint_swing(QPainter& painter, const DerivedDrive& power, QPointF pivot, double length) {
    const Theme& t = theme();
    const PowerChainResult& now = *power.chain_at(m_wound);
    const PowerChainResult& chain = *power.chain;
    const bool pendulum = chain.semi_arc_deg.has_value();
    const double swing = pendulum ? *now.semi_arc_deg : *now.amplitude_deg;
    const double start = pendulum ? *chain.semi_arc_deg : *chain.amplitude_deg;
    const double end = pendulum ? *chain.semi_arc_end_deg : *chain.amplitude_end_deg;
    if (pendulum) {
        // The arc is drawn as wide as can be told apart; the figure says how wide it is.
        constexpr double times = 6;
        const double half = std::min(swing * times, 50.0) * 3.14159265 / 180;
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
    write(painter, figure_font(13), t.ink, below, tr("± %1°").arg(swing, 0, 'f', swing < 20 ? 1 : 0), 0);
    write(painter, word_font(9, true), t.ink, below + QPointF(0, 16),
          tr("%1 a beat").arg(words(print_energy_of_beat(now.energy_per_beat_J, 3))), 0);
    if (std::abs(end - start) > 0.05)
        write(painter, word_font(9), t.steel, below + QPointF(0, 31),
              tr("from %1° to %2°").arg(start, 0, 'f', start < 20 ? 1 : 0).arg(end, 0, 'f', end < 20 ? 1 : 0), 0);
}

QString PowerStation::loss_in_words(const PowerAtArbor& from, const PowerAtArbor& to) const {
    const Job& job = m_document.job();
    QString text = tr("Mesh of %1 and %2").arg(words(job.train.name_of_arbor(from.id)), words(job.train.name_of_arbor(to.id)));
    const auto& meshes = m_document.derived().power.meshes;
    if (const auto mesh = meshes.find(from.id + "-" + to.id); mesh != meshes.end())
        text += tr(": passes on %1 %, by the simulation of its teeth at their depth").arg(100 * mesh->second.efficiency, 0, 'f', 1);
    text += to.pivot_friction_N_mm > 0
                ? tr(";\nthe pivots of %1 take %2 N mm")
                      .arg(words(job.train.name_of_arbor(to.id)), words(print_short(to.pivot_friction_N_mm, 2)))
                : tr(";\nthe pivots of %1 were not measured: their friction is left out").arg(words(job.train.name_of_arbor(to.id)));
    return text;
}

void PowerStation::paint_flow(QPainter& painter, const DerivedDrive& power, const QRectF& room) {
    const Theme& t = theme();
    write(painter, word_font(8.5, true), t.steel, {room.left() + 2, room.top() + 24}, tr("WHERE THE POWER GOES"));
    if (!power.chain) {
        write_wrapped(
            painter, word_font(10), t.steel, {room.left() + 2, room.top() + 34}, room.width() - 20,
            tr("The flow to the swing is drawn once the drive's torque and what swings are known: its mass or its spring, at Beat."));
        return;
    }
    const PowerChainResult& chain = *power.chain_at(m_wound);
    const auto& arbors = chain.arbors;
    const double most_W = power.chain->arbors.front().power_W;
    const double swing_room = 118;
    const double first = room.left() + 30;
    const double step = (room.right() - swing_room - first - 30) / static_cast<double>(std::max<size_t>(1, arbors.size() - 1));
    const double axis = room.top() + 92;
    const double widest = 46;
    const auto half = [&](size_t i) { return widest / 2 * arbors[i].power_W / most_W; };
    for (size_t i = 0; i + 1 < arbors.size(); ++i) {
        const double x0 = first + step * static_cast<double>(i), x1 = x0 + step;
        QPolygonF band({{x0, axis - half(i)}, {x1, axis - half(i + 1)}, {x1, axis + half(i + 1)}, {x0, axis + half(i)}});
        painter.setPen(Qt::NoPen);
        painter.setBrush(t.pale_brass);
        painter.drawPolygon(band);
        // What is lost falls away below the band, as wide as it is.
        const double lost = 2 * (half(i) - half(i + 1));
        const double xm = (x0 + x1) / 2;
        const double bottom = axis + (half(i) + half(i + 1)) / 2;
        painter.setBrush(t.ruby);
        painter.drawRect(QRectF(xm - lost / 2, bottom, std::max(1.0, lost), 22));
        write(painter, word_font(9, true), t.ruby, {xm, bottom + 36}, tr("−%1 %").arg(100 * arbors[i + 1].lost_share, 0, 'f', 1), 0);
        place({"loss:" + QString::number(i), QRectF(xm - 30, bottom, 60, 44), {}, loss_in_words(arbors[i], arbors[i + 1]), {}});
    }
    for (size_t i = 0; i < arbors.size(); ++i) {
        const QPointF at(first + step * static_cast<double>(i), axis);
        const bool subject = arbors[i].id == m_document.selection().subject();
        painter.setPen(QPen(subject ? t.blued : t.brass, subject ? 2.4 : 1.4));
        painter.setBrush(t.sheet);
        painter.drawEllipse(at, 7, 7);
        write(painter, word_font(10, true), subject ? t.blued : t.ink, at + QPointF(0, -40),
              words(m_document.job().train.name_of_arbor(arbors[i].id)), 0);
        write(painter, word_font(9), t.steel, at + QPointF(0, -27), tr("%1 N mm").arg(words(print_short(arbors[i].torque_N_mm, 3))), 0);
        QString hint = tr("power %1").arg(words(print_power_of_train(arbors[i].power_W, 3)));
        if (arbors[i].tooth_load_N) hint += tr("\ntooth load on its pinion %1 N").arg(words(print_short(*arbors[i].tooth_load_N, 3)));
        place({"arbor:" + words(arbors[i].id),
               QRectF(at - QPointF(24, 50), QSizeF(48, 64)),
               [this, id = arbors[i].id] { m_document.selection().select(id); },
               hint,
               {}});
    }
    const double x = room.right() - swing_room / 2;
    const double last_x = first + step * static_cast<double>(arbors.size() - 1);
    painter.setPen(QPen(t.brass, 1.4));
    painter.drawLine(QPointF(last_x + 8, axis), QPointF(x - 30, axis));
    paint_swing(painter, power, {x, room.top() + 56}, std::min(96.0, room.height() - 160));
    double y = room.top() + 172;
    write(painter, word_font(10, true), t.ink, {room.left() + 2, y},
          tr("%1 % of the power reaches the escape wheel").arg(100 * chain.efficiency, 0, 'f', 0));
    const bool assumed = m_document.job().oscillator && !m_document.job().oscillator->Q_measured;
    y += 6;
    y += write_wrapped(painter, word_font(9.5), t.ink, {room.left() + 2, y}, room.width() - swing_room - 16, words(power.chain->verdict));
    const double swing_bottom = room.top() + 224;
    for (const std::string& line : power.wear)
        y += write_wrapped(painter, word_font(9), t.amber, {room.left() + 2, y + 3},
                           room.width() - (y < swing_bottom ? swing_room + 16 : 4), words(line)) +
             3;
    if (assumed && y + 18 < room.bottom())
        write(painter, word_font(8.5), t.steel, {room.left() + 2, y + 14},
              tr("with Q %1 assumed: measured from how the swing dies away it would be surer")
                  .arg(m_document.job().oscillator->Q, 0, 'f', 0));
}

}  // namespace echappe
