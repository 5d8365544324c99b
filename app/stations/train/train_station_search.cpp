// The Train station's left column while trains are looked for.
#include <algorithm>
#include <cmath>

#include "number/units.h"
#include "stations/train/train_station.h"
#include "theme/theme.h"

namespace echappe {

/// The question, what was found, and the picked one's figures.
void TrainStation::paint_search(QPainter& painter) {
    const Theme& t = theme();
    write(painter, word_font(8.5, true), t.steel, {column_x, 34}, tr("FIND A TRAIN"));
    const double closed = write(painter, word_font(8.5), t.blued, {left_column - 8.0, 34}, tr("Esc closes"), 1);
    place({"search:close", QRectF(left_column - 8 - closed, 22, closed, 16), [this] { close_search(); }, {}, {}});
    double y = 98;
    const double wide = left_column - column_x - 12;
    if (!m_search.fault().isEmpty()) {
        write_wrapped(painter, word_font(9), t.ruby, {column_x, y - 8}, wide, m_search.fault());
        return;
    }
    if (!m_search.question()) {
        write_wrapped(painter, word_font(9), t.steel, {column_x, y - 8}, wide,
                      tr("A ratio: 60 from centre to escape\nA hand: tide from great, moon from great, sidereal-day from centre\nMotion "
                         "work: motion, motion 24\n\nThen, as wanted: "
                         "stages 3, teeth 24-120, leaves 8-16, hunting, indexed, even 1.5, use 96, ppm 5, fit (between the holes, with a "
                         "cutter of the drawer)"));
        return;
    }
    y = paint_found(painter, y);
    if (m_search.running()) {
        const QRectF bar(column_x, y, wide, 6);
        painter.fillRect(bar, t.sheet);
        painter.fillRect(QRectF(bar.topLeft(), QSizeF(bar.width() * m_search.done(), 6)), t.brass);
        write(painter, word_font(8.5), t.blued, {column_x, y + 22}, tr("searching; Esc stops"));
    }
}

double TrainStation::paint_found(QPainter& painter, double y) {
    const Theme& t = theme();
    const FindResult& found = m_search.result();
    const double wide = left_column - column_x - 12;
    const auto signed_number = [](double value, int figures) {
        return (value < 0 ? QString("−") : QString("+")) + QString::fromStdString(print_short(std::abs(value), figures));
    };
    const size_t room = static_cast<size_t>(std::max(1.0, (height() - y - 190) / 24));
    const size_t first = m_search.picked() < room ? 0 : m_search.picked() - room + 1;
    for (size_t i = first; i < std::min(found.solutions.size(), first + room); ++i) {
        const FoundTrain& train = found.solutions[i];
        const bool picked = i == m_search.picked();
        const QString words = QString::fromStdString(train_in_words(train, found.pinions_drive));
        const double full = width_of(figure_font(12, picked), words);
        write(painter, figure_font(12 * std::min(1.0, (wide - 64) / full), picked), picked ? t.ink : t.steel, {column_x, y}, words);
        const bool exact = train.error_ppm == 0;
        write(painter, word_font(8.5, picked), exact ? t.verdigris : t.steel, {column_x + wide, y},
              exact ? tr("exact") : signed_number(found.pinions_drive ? -train.error_ppm : train.error_ppm, 2) + tr(" ppm"), 1);
        const QRectF row(column_x - 6, y - 17, wide + 10, 23);
        if (picked) {
            painter.setPen(QPen(t.blued, 1, Qt::DotLine));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(row);
        }
        place({"found:" + QString::number(i), row, [this, i] { m_search.pick(i); },
               tr("Click to see it on the plan; double click takes it"),
               [this, i] {
                   m_search.pick(i);
                   m_search.take();
                   close_search();
               }});
        y += 24;
    }
    if (found.solutions.empty()) {
        if (!m_search.running())
            y += write_wrapped(painter, word_font(9), t.amber, {column_x, y - 8}, wide,
                               tr("No train of these counts. Widen teeth or leaves, or allow a stage more.")) +
                 10;
        return y;
    }
    const FoundTrain& train = found.solutions[std::min(m_search.picked(), found.solutions.size() - 1)];
    const QString error = !train.years_per_day
                              ? tr("exact: never wrong")
                              : tr("%1 s a day\none day wrong in %2 years")
                                    .arg(signed_number(found.pinions_drive ? -train.error_s_per_day : train.error_s_per_day, 3),
                                         QString::fromStdString(print_many(std::floor(*train.years_per_day))));
    y += 4;
    y += write_wrapped(painter, word_font(9.5, true), t.blued, {column_x, y - 8}, wide, error);
    const bool motion = m_search.question() && m_search.question()->motion;
    const QString rest =
        motion
            ? tr("both meshes on one centre distance; %1\n%2 teeth\ncomplete: %3 sets of counts")
                  .arg(train.evenness == 1 ? tr("one module serves both")
                                           : tr("hour mesh %1 × the minute mesh's module").arg(train.evenness, 0, 'f', 3))
                  .arg(train.sum)
                  .arg(QString::fromStdString(print_many(found.considered)))
            : tr("even %1 · hunting in %2 of %3 · %4 teeth\n%5")
                  .arg(train.evenness, 0, 'f', 2)
                  .arg(train.hunting_stages)
                  .arg(train.stages.size())
                  .arg(train.sum)
                  .arg(found.complete ? tr("complete: %1 sets of counts covered").arg(QString::fromStdString(print_many(found.considered)))
                                      : tr("not complete: %1").arg(QString::fromStdString(found.ended)));
    y += write_wrapped(painter, word_font(8.5), t.steel, {column_x, y - 4}, wide, rest);
    write(painter, word_font(9.5, true), t.blued, {column_x, y + 18}, tr("Enter takes it"));
    place({"found:take",
           QRectF(column_x - 6, y + 2, 120, 22),
           [this] {
               m_search.take();
               close_search();
           },
           tr("One edit; undo takes it back"),
           {}});
    return y + 36;
}

/// The picked train's wheels as dashed circles where they would stand.
void TrainStation::paint_preview(QPainter& painter, const View& view) {
    if (!m_search.preview()) return;
    const Theme& t = theme();
    QPen pen(t.amber, 1.6);
    pen.setDashPattern({5, 3});
    painter.setBrush(Qt::NoBrush);
    for (const DerivedMesh& mesh : m_search.preview()->meshes) {
        const DerivedMesh* now = m_document.derived().train.mesh(mesh.wheel_of, mesh.pinion_of);
        if (now && now->wheel == mesh.wheel && now->pinion == mesh.pinion) continue;
        const DerivedArbor& wheel = *m_search.preview()->arbor(mesh.wheel_of);
        const DerivedArbor& pinion = *m_search.preview()->arbor(mesh.pinion_of);
        painter.setPen(pen);
        const double R = mesh.sizes.wheel.pitch_diameter_mm / 2 * view.px_per_mm;
        const double r = mesh.sizes.pinion.pitch_diameter_mm / 2 * view.px_per_mm;
        painter.drawEllipse(view.at(wheel.x_mm, wheel.y_mm), R, R);
        painter.drawEllipse(view.at(pinion.x_mm, pinion.y_mm), r, r);
        write(painter, word_font(9, true), t.amber, view.at(wheel.x_mm, wheel.y_mm) + QPointF(R * 0.7, -R * 0.7),
              QString::number(mesh.wheel));
        write(painter, word_font(9, true), t.amber, view.at(pinion.x_mm, pinion.y_mm) + QPointF(-r * 0.7, r * 0.7 + 10),
              QString::number(mesh.pinion), 1);
    }
}

void TrainStation::ask_for_trains(const QString& question) {
    m_question->setGeometry(static_cast<int>(column_x) - 2, 44, static_cast<int>(left_column - column_x - 8), 30);
    m_question->show();
    m_question->setFocus();
    m_question->setText(question);
    if (question.isEmpty()) m_search.close();
    update();
}

void TrainStation::close_search() {
    m_question->hide();
    m_search.close();
    setFocus();
    update();
}

/// Keys of the line that asks; false when it is for typing.
bool TrainStation::search_key(int key) {
    const size_t at = m_search.picked();
    switch (key) {
        case Qt::Key_Escape:
            if (m_search.running()) m_search.stop(), update();
            else close_search();
            return true;
        case Qt::Key_Down:
            return m_search.pick(std::min(at + 1, std::max<size_t>(m_search.result().solutions.size(), 1) - 1)), true;
        case Qt::Key_Up:
            return m_search.pick(at > 0 ? at - 1 : 0), true;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (m_search.result().solutions.empty()) return true;
            m_search.take();
            return close_search(), true;
        default:
            return false;
    }
}

}  // namespace echappe
