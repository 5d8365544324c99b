// The Train station's left column while trains are looked for.
#include <algorithm>
#include <cmath>

#include "drawing/words.h"
#include "number/units.h"
#include "stations/train/train_station.h"
#include "theme/theme.h"

namespace echappe {

/// The question, what was found, and the picked one's figures.
void TrainStation::paint_search(QPainter& painter) {
    constexpr double below_question = 86;
    const Theme& t = inks(painter);
    const double closed = write(painter, type(Type::note), t.blued, {left_column - 8.0, 34}, words("Esc closes"), 1);
    place({"search:close", QRectF(left_column - 8 - closed, 20, closed, 18), [this] { close_search(); }, {}, {}});
    Column page = column(painter, 22);
    page.section(words("FIND A TRAIN"));
    page.go_to(below_question);
    if (!m_search.fault().isEmpty()) {
        page.says(m_search.fault(), t.ruby);
        return;
    }
    if (!m_search.question()) {
        page.says(words("A ratio: 60 from centre to escape\nA hand: tide from great, moon from great, sidereal-day from centre\nMotion "
                        "work: motion, motion 24\n\nThen, as wanted: "
                        "stages 3, teeth 24-120, leaves 8-16, hunting, indexed, even 1.5, use 96, ppm 5, fit (between the holes, with a "
                        "cutter of the drawer)"),
                  t.steel);
        return;
    }
    write_found(page, painter);
    if (!m_search.running()) return;
    const QRectF bar(page.left(), page.y(), page.room().width(), 6);
    painter.fillRect(bar, t.sheet);
    painter.fillRect(QRectF(bar.topLeft(), QSizeF(bar.width() * m_search.done(), 6)), t.brass);
    page.gap(8);
    page.line(words("searching; Esc stops"), t.blued);
}

void TrainStation::write_found(Column& page, QPainter& painter) {
    constexpr double row_high = 24, picked_high = 130;
    const FindResult& found = m_search.result();
    const auto room = static_cast<size_t>(std::max(1.0, (page.room().bottom() - page.y() - picked_high) / row_high));
    const size_t first = m_search.picked() < room ? 0 : m_search.picked() - room + 1;
    for (size_t i = first; i < std::min(found.solutions.size(), first + room); ++i) write_solution(page, painter, i);
    if (!found.solutions.empty()) return write_picked(page, found.solutions[std::min(m_search.picked(), found.solutions.size() - 1)]);
    if (!m_search.running())
        page.says(words("No train of these counts. Widen teeth or leaves, or allow a stage more."), inks(painter).amber);
}

void TrainStation::write_solution(Column& page, QPainter& painter, size_t which) {
    constexpr double error_wide = 76;
    const Theme& t = inks(painter);
    const FindResult& found = m_search.result();
    const FoundTrain& train = found.solutions[which];
    const bool picked = which == m_search.picked();
    const QRectF row(page.left() - 6, page.y(), page.room().width() + 8, 23);
    const double base = row.bottom() - 6;
    const QString counts = words(train_in_words(train, found.pinions_drive));
    write(painter, type_to_fit(Type::figure, picked, counts, page.room().width() - error_wide), picked ? t.ink : t.steel,
          {page.left(), base}, counts);
    const bool exact = train.error_ppm == 0;
    const double error = found.pinions_drive ? -train.error_ppm : train.error_ppm;
    write(painter, type(Type::note, picked), exact ? t.verdigris : t.steel, {page.right(), base},
          exact ? words("exact") : words(print_signed(error, 2)) + words(" ppm"), 1);
    if (picked) {
        painter.setPen(QPen(t.blued, 1, Qt::DotLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(row);
    }
    const auto take = [this, which] {
        m_search.pick(which);
        m_search.take();
        close_search();
    };
    place({"found:" + QString::number(which), row, [this, which] { m_search.pick(which); },
           words("Click to see it on the plan; double click takes it"), take});
    page.go_to(row.bottom() + 1);
}

/// How far the picked one is from the ratio, and what it is like to make.
void TrainStation::write_picked(Column& page, const FoundTrain& train) {
    const Theme& t = page.inks();
    const FindResult& found = m_search.result();
    const double a_day = found.pinions_drive ? -train.error_s_per_day : train.error_s_per_day;
    page.gap(4);
    page.says(!train.years_per_day ? words("exact: never wrong")
                                   : words("%1 s a day\none day wrong in %2 years")
                                         .arg(words(print_signed(a_day, 3)), words(print_many(std::floor(*train.years_per_day)))),
              t.blued, Type::text, true);
    const QString covered = words(print_many(found.considered));
    if (m_search.question() && m_search.question()->motion)
        page.says(words("both meshes on one centre distance; %1\n%2 teeth\ncomplete: %3 sets of counts")
                      .arg(train.evenness == 1 ? words("one module serves both")
                                               : words("hour mesh %1 × the minute mesh's module").arg(train.evenness, 0, 'f', 3))
                      .arg(train.sum)
                      .arg(covered),
                  t.steel);
    else
        page.says(words("even %1 · hunting in %2 of %3 · %4 teeth\n%5")
                      .arg(train.evenness, 0, 'f', 2)
                      .arg(train.hunting_stages)
                      .arg(train.stages.size())
                      .arg(train.sum)
                      .arg(found.complete ? words("complete: %1 sets of counts covered").arg(covered)
                                          : words("not complete: %1").arg(words(found.ended))),
                  t.steel);
    place({"found:take",
           page.line(words("Enter takes it"), t.blued, Type::text, true),
           [this] {
               m_search.take();
               close_search();
           },
           words("One edit; undo takes it back"),
           {}});
    page.gap(8);
}

/// The picked train's wheels as dashed circles where they would stand.
void TrainStation::paint_preview(QPainter& painter, const View& view) {
    if (!m_search.preview()) return;
    const Theme& t = inks(painter);
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
        write(painter, type(Type::note, true), t.amber, view.at(wheel.x_mm, wheel.y_mm) + QPointF(R * 0.7, -R * 0.7),
              QString::number(mesh.wheel));
        write(painter, type(Type::note, true), t.amber, view.at(pinion.x_mm, pinion.y_mm) + QPointF(-r * 0.7, r * 0.7 + 10),
              QString::number(mesh.pinion), 1);
    }
}

void TrainStation::ask_for_trains(const QString& question) {
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
