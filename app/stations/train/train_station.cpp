#include "stations/train/train_station.h"

#include <QKeyEvent>
#include <algorithm>
#include <cmath>
#include <set>

#include "document/bench_hand.h"
#include "document/today.h"
#include "drawing/plate_art.h"
#include "drawing/wheel_art.h"
#include "drawing/words.h"
#include "making/edits.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "sheet/marks.h"
#include "theme/theme.h"
#include "train/edits.h"

namespace echappe {
namespace {

constexpr double tooth_room_mm = 1.5;  ///< beyond the pitch circle

QString percent(double weight) {
    if (weight > 0.995) return weight > 0.9995 ? ">99.9 %" : QString::number(100 * weight, 'f', 1) + " %";
    return weight < 0.005 ? "<1 %" : QString::number(100 * weight, 'f', 0) + " %";
}

}  // namespace

TrainStation::TrainStation(const Workbench& bench)
    : Station(bench.document, nullptr),
      m_motion(bench.motion),
      m_workshop(bench.workshop),
      m_line(bench.line),
      m_search(bench.document),
      m_counting(bench.document),
      m_question(new QLineEdit(this)),
      m_editor(new InPlaceEditor(this)),
      m_writing(new WritingSheet(bench.document, this)) {
    setAccessibleName(words("Train"));
    tell_cutters();
    connect(&m_workshop, &Workshop::changed, this, &TrainStation::tell_cutters);
    m_editor->setAccessibleName(words("count"));
    connect(m_editor, &InPlaceEditor::refused, this, [this](const QString& sentence) { emit told(sentence, true); });
    m_question->hide();
    wear(*m_question, Type::text);
    m_question->setAccessibleName(words("train asked for"));
    m_question->installEventFilter(this);
    // Up to five stages of usual counts answer within a keystroke.
    connect(m_question, &QLineEdit::textChanged, this, [this](const QString& text) {
        if (!text.trimmed().isEmpty()) m_search.ask(text);
    });
    connect(&m_search, &TrainSearch::moved, this, qOverload<>(&QWidget::update));
    connect(m_writing, &WritingSheet::closed, this, &TrainStation::written);
    connect(m_writing, &WritingSheet::told, this, &TrainStation::told);
    connect(m_writing, &WritingSheet::resized, this, &TrainStation::place_sheets);
    connect(m_writing, &WritingSheet::led_on, this, [this](bool back) {
        setFocusProxy(nullptr);
        setFocus(back ? Qt::BacktabFocusReason : Qt::TabFocusReason);
    });
    connect(&m_document, &Document::opened, m_writing, &WritingSheet::drop);
    connect(&m_document, &Document::opened, this, [this] {
        m_taking_in = false;
        m_counting.set_again(false);
        m_question->hide();
    });
    connect(&m_document, &Document::changed, this, &TrainStation::follow_job);
    follow_job();
    connect(&m_document.selection(), &Selection::changed, this, [this] {
        m_moved_mm.reset();
        update();
    });
    connect(&m_document.weigher(), &Weigher::moved, this, qOverload<>(&QWidget::update));
    connect(&m_motion, &Motion::moved, this, &TrainStation::follow_motion);
    connect(&m_motion, &Motion::changed, this, qOverload<>(&QWidget::update));
}

QRectF TrainStation::room_of(const View& view, const DerivedArbor& arbor) const {
    constexpr double hand = 34;
    double largest_mm = arbor.wheel_radius_mm;
    for (const DerivedMesh& mesh : m_document.derived().train.meshes)
        if (mesh.pinion_of == arbor.id) largest_mm = std::max(largest_mm, mesh.sizes.pinion.outside_diameter_mm / 2);
    const double reach = std::max(hand, (largest_mm + tooth_room_mm) * view.px_per_mm + 4);
    return QRectF(view.at(arbor.x_mm, arbor.y_mm) - QPointF(reach, reach), QSizeF(2 * reach, 2 * reach));
}

void TrainStation::follow_motion() {
    if (!isVisible()) return;
    constexpr double unseen = 0.35;
    const View view = view_of_plate();
    for (const DerivedArbor& arbor : m_document.derived().train.arbors) {
        const QRectF room = room_of(view, arbor);
        const double turned = 2 * pi * arbor.turns_per_s * m_motion.seconds();
        double& before = m_turned[arbor.id];
        if (std::abs(turned - before) * room.width() / 2 < unseen) continue;
        before = turned;
        update_in(room);
    }
}

TrainStation::View TrainStation::view_of_plate() const {
    if (m_dragged_view) return *m_dragged_view;
    double low_x = 0, high_x = 0, low_y = 0, high_y = 0;
    const auto take = [&](double x, double y, double around) {
        low_x = std::min(low_x, x - around);
        high_x = std::max(high_x, x + around);
        low_y = std::min(low_y, y - around);
        high_y = std::max(high_y, y + around);
    };
    for (const DerivedArbor& arbor : m_document.derived().train.arbors) take(arbor.x_mm, arbor.y_mm, arbor.wheel_radius_mm + tooth_room_mm);
    if (const auto& plate = m_document.job().train.plate) {
        take(-plate->width_mm / 2, 0, 0);
        take(plate->width_mm / 2, plate->height_mm, 0);
    }
    const QRectF room(left_column + 10, 22 + top(), width() - left_column - 34, height() - 62 - top());
    View view;
    view.px_per_mm = std::max(0.1, std::min(room.width() / std::max(high_x - low_x, 1.0), room.height() / std::max(high_y - low_y, 1.0)));
    view.origin =
        QPointF(room.center().x() - (low_x + high_x) / 2 * view.px_per_mm, room.center().y() + (low_y + high_y) / 2 * view.px_per_mm);
    return view;
}

void TrainStation::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.ground);
    if (m_document.derived().train.arbors.empty()) {
        paint_empty_bench(painter);
        return;
    }
    const View view = view_of_plate();
    paint_plate(painter, view);
    // Wheels larger than the plan end where the column begins.
    painter.save();
    painter.setClipRect(QRectF(left_column, top(), width() - left_column, height() - top()));
    for (const DerivedArbor& arbor : m_document.derived().train.arbors) {
        if (!wants(room_of(view, arbor))) continue;
        const bool lost_wheel = arbor.wheel.known == Known::missing && arbor.wheel.count.present();
        const bool lost_pinion = !arbor.wheel.count.present() && arbor.pinion.count.present() && !arbor.pinion.count.known();
        if (lost_wheel || lost_pinion) paint_ghosts(painter, view, arbor);
        else paint_arbor(painter, view, arbor);
    }
    painter.restore();
    paint_springs(painter, view);
    paint_labels(painter, view);
    if (!m_depthing) paint_next(painter, view);
    paint_hands(painter, view);
    if (m_question->isVisible()) {
        paint_preview(painter, view);
        paint_search(painter);
    } else if (m_depthing) {
        paint_depthing(painter, view);
    } else {
        Column page = column(painter, 22 + top());
        write_restored(page, painter);
        write_evidence(page, painter);
    }
    paint_foot(painter, view);
}

Column TrainStation::column(QPainter& painter, double from) const {
    constexpr double foot = 78;
    return {painter, QRectF(QPointF(column_x, from), QPointF(left_column - 8.0, height() - foot))};
}

/// What is lost leaves too many combinations for a keystroke: how far the weighing is, and how to end it.
void TrainStation::write_weighing(Column& page, QPainter& painter) {
    const Theme& t = inks(painter);
    const QString combinations = words(print_many(static_cast<double>(*m_document.derived().train.to_weigh)));
    const bool running = m_document.weigher().running();
    const double from = page.y();
    page.section(running ? words("WEIGHING WHAT IS LOST") : words("NOT WEIGHED"));
    const QRectF bar(page.left(), page.y(), page.room().width(), 8);
    painter.setPen(QPen(t.rule, 1));
    painter.setBrush(t.sheet);
    painter.drawRect(bar);
    if (running) painter.fillRect(QRectF(bar.topLeft(), QSizeF(bar.width() * m_document.weigher().done(), bar.height())), t.brass);
    page.gap(16);
    const QRectF done = page.head(running ? QString::number(100 * m_document.weigher().done(), 'f', 0) + " %" : QString("–"), t.ink);
    write(painter, type(Type::text), t.blued, {done.right(), done.top() + 18}, running ? words("stop  Esc") : words("weigh them"), 1);
    place({"weighing",
           QRectF(QPointF(page.left() - 6, from), done.bottomRight()),
           [this, running] { running ? m_document.weigher().stop() : m_document.weigh(); },
           running ? words("Click to stop") : words("Click to weigh them all"),
           {}});
    page.says(words("%1 combinations of the lost counts. Any further reading of a lost arbor's mesh, or narrower limits, cuts them down.")
                  .arg(combinations),
              t.steel);
    page.gap(20);
}

void TrainStation::write_too_many(Column& page) {
    const Theme& t = page.inks();
    const auto all = counting_round(m_document.job().train);
    const auto open = std::count_if(all.begin(), all.end(), [](const CountQuestion& question) { return question.open(); });
    page.section(words("TO BE COUNTED"));
    page.head(QString::number(open), t.ink, Type::great);
    page.line(words("wheels and pinions"), t.steel);
    page.says(words("Give what can be counted. When only a few are left, what keeps time and fits the holes tells them."), t.steel);
    page.gap(20);
}

void TrainStation::write_restored(Column& page, QPainter& painter) {
    const DerivedTrain& train = m_document.derived().train;
    if (train.to_weigh) return write_weighing(page, painter);
    if (train.too_many || m_taking_in) return write_too_many(page);
    if (!train.restore || train.restore->candidates.empty()) return;
    page.section(train.chosen ? words("CHOSEN FOR WHAT IS LOST") : words("WHAT IS LOST"));
    for (size_t i = 0; i < std::min(rows_shown, train.restore->candidates.size()); ++i) write_candidate(page, painter, i);
    page.says(train.chosen              ? words("Chosen. Click it again, or undo, to open the question.")
              : train.restore->conflict ? words("No counts fit every reading: see the findings.")
              : train.restore->fit > 1  ? words("%1 of %2 still fit. Sizes tell them apart: take the reading below.")
                                             .arg(train.restore->fit)
                                             .arg(train.restore->considered)
                                       : words("One of %1 fits. Enter or a click chooses it.").arg(train.restore->considered),
              inks(painter).steel);
    page.gap(14);
}

/// Its counts, and its weight as a bar; the likeliest is larger.
void TrainStation::write_candidate(Column& page, QPainter& painter, size_t which) {
    const Theme& t = inks(painter);
    const DerivedTrain& train = m_document.derived().train;
    const Candidate& candidate = train.restore->candidates[which];
    const bool first = which == 0;
    const bool shown = train.shown_candidate == which;
    const bool chosen = shown && train.chosen;
    constexpr double percent_wide = 62, least_bar = 20;
    const QString counts = words(counts_in_words(candidate));
    const QFont font = type_to_fit(first ? Type::great : Type::head, shown, counts, page.room().width() - percent_wide - least_bar - 10);
    const QRectF row(page.left() - 8, page.y(), page.room().width() + 10, first ? 36 : 27);
    const double base = row.bottom() - 9;
    const double text = write(painter, font, chosen ? t.blued : shown ? t.ink : t.steel, {page.left(), base}, counts);
    const double bar_x = page.left() + std::max(first ? 108.0 : 84.0, text + 10);
    const double full = std::max(0.0, page.right() - bar_x - percent_wide);
    painter.fillRect(QRectF(bar_x, base - (first ? 12 : 9), std::max(2.0, full * candidate.weight), first ? 9 : 7),
                     shown ? t.brass : t.pale_brass);
    write(painter, type(Type::text), t.ink, {bar_x + full * candidate.weight + 7, base - 1}, percent(candidate.weight));
    if (hasFocus() && shown) {
        painter.setPen(QPen(t.blued, 1, Qt::DotLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(row);
    }
    place({"candidate:" + QString::number(which),
           row,
           [this, which, chosen] {
               chosen ? m_document.edit(withdraw_choice()) : m_document.edit(choose(m_document.derived().train, which, today()));
           },
           chosen ? words("Click to withdraw the choice") : words("Click to choose these counts; undo takes it back"),
           {},
           {},
           words("candidate %1").arg(which + 1),
           chosen});
    page.go_to(row.bottom() + 2);
}

void TrainStation::write_evidence(Column& page, QPainter& painter) {
    constexpr double two_lines = 38;
    if (m_document.job().train.measurements.empty()) return;
    page.section(words("EVIDENCE AND ITS STRAIN"));
    for (const Measurement& measured : m_document.job().train.measurements) {
        if (!page.holds(two_lines)) break;
        write_measurement(page, painter, measured);
    }
}

/// What was read, and how hard the train that fits all of it pulls at it.
void TrainStation::write_measurement(Column& page, QPainter& painter, const Measurement& measured) {
    const Theme& t = inks(painter);
    const auto& strains = m_document.derived().train.strain;
    const auto strain = std::find_if(strains.begin(), strains.end(), [&](const Strain& s) { return s.key == measured.evidence.key; });
    const bool believed = !measured.left_out && strain != strains.end();
    const double from = page.y();
    page.line(words(m_document.job().train.name_of_quantity(measured.evidence.key)), measured.left_out ? t.steel : t.ink);
    page.gap(-4);
    const std::string declared = measured.evidence.key.unit();
    const QString unit = declared == "1/h" ? words("an hour") : words(declared);
    const QString value = declared == "s"
                              ? words(print_span(measured.evidence.value) + " ± " + print_span(measured.evidence.u))
                              : words(print_short(measured.evidence.value, 6)) + " ± " + QString::number(measured.evidence.u) + " " + unit;
    const double base = page.y() + 14;
    page.line(value, t.steel);
    if (believed) {
        const QColor ink = ink_of(strain->pull(), t);
        const bool pulls = strain->pull() != Strain::Pull::none;
        const double told = write(painter, type(Type::note, pulls), ink, {page.right(), base},
                                  pulls ? words("%1 × its ± off").arg(std::abs(strain->sigma), 0, 'f', 1) : words("fits"), 1);
        // As long as it is strained, and never into its own figure.
        const QPointF coil(left_column - 92.0, base - 4);
        const double room = page.right() - told - 6 - coil.x();
        paint_coil(painter, coil, coil + QPointF(std::min(room, 30 + 4 * std::min(std::abs(strain->sigma), 6.0)), 0), strain->sigma, ink);
    } else {
        write(painter, type(Type::note), t.steel, {page.right(), base}, measured.left_out ? words("left out") : words("waits"), 1);
    }
    place({"evidence:" + words(measured.id),
           QRectF(QPointF(page.left() - 6, from), QPointF(page.right(), page.y())),
           [this, key = measured.evidence.key, out = measured.left_out] { m_document.edit(leave_out(key, !out)); },
           measured.left_out ? words("Click to believe it again") : words("Click to leave it out and see what the rest says"),
           {}});
    page.gap(3);
}

void TrainStation::paint_foot(QPainter& painter, const View& view) {
    const Theme& t = inks(painter);
    const QPointF from(column_x, height() - 24.0);
    scale_bar(painter, from, view.px_per_mm);
    const auto& arbors = m_document.derived().train.arbors;
    if (std::all_of(arbors.begin(), arbors.end(), [](const DerivedArbor& arbor) { return arbor.position_assumed; }))
        write(painter, type(Type::note), t.steel, from + QPointF(0, -26), words("places and sizes assumed"));
    write(painter, type(Type::note), t.steel, {width() - 20.0, height() - 18.0},
          (m_motion.running() ? words("turning, ") : words("standing, ")) + m_motion.speed_text() +
              words("   ·   Space  ·  Shift+Space one beat  ·  [ slower  ] faster"),
          1);
}

long long TrainStation::count_at(const std::string& part) const {
    const DerivedArbor& arbor = *m_document.derived().train.arbor(part.substr(0, part.find('.')));
    return (part.ends_with(".wheel") ? arbor.wheel : arbor.pinion).count.value;
}

void TrainStation::edit_count(const std::string& part) {
    const QRectF box = place_of(QString::fromStdString(part));
    m_editor->ask(QString::fromStdString(part).replace('.', ' '),
                  box.isNull() ? QRectF(width() / 2.0 - 34, 30, 68, 32) : QRectF(box.center(), QSizeF()),
                  words(count_as_typed(m_document.job().train, part)), [this, part](const QString& text) {
                      m_document.edit(count_taken(part, read_count(part, text.toStdString()), taken_with("by eye")));
                  });
}

bool TrainStation::eventFilter(QObject* watched, QEvent* event) {
    if (watched == m_question && event->type() == QEvent::KeyPress && search_key(static_cast<QKeyEvent*>(event)->key())) return true;
    return Canvas::eventFilter(watched, event);
}

/// What the drawer can cut, for questions that must fit between the holes.
void TrainStation::tell_cutters() {
    std::vector<double> modules;
    for (const Cutter& cutter : m_workshop.stock().cutters)
        if (cutter.part == "wheel" && cutter.quantity > 0) modules.push_back(cutter.module_mm);
    m_search.set_cutters(std::move(modules));
}

void TrainStation::choose_shown() {
    const DerivedTrain& train = m_document.derived().train;
    if (train.shown_candidate && !train.chosen) m_document.edit(choose(m_document.derived().train, *train.shown_candidate, today()));
}

QList<Action> TrainStation::make_actions() {
    const QString menu = words("&Edit");
    const auto find = [this] {
        // A hand is asked for by its name.
        const JobArbor* subject = m_document.job().train.arbor(m_document.selection().subject());
        ask_for_trains(subject && subject->hand ? QString::fromStdString(*subject->hand) : QString());
    };
    const auto divide = [this] {
        const auto head = m_workshop.stock().head();
        if (!head) throw InputError("plates", "none in the drawer", "a dividing plate with its worm ratio: Ctrl+Shift+W");
        m_document.edit(divide_with(*head));
    };
    return depthing_actions() + climbing() + structure_actions() +
           QList<Action>{
               {"train.choose", words("Choose the counts that are shown"), {Qt::Key_Return}, [this] { choose_shown(); }},
               {"train.stop",
                words("Stop weighing"),
                {Qt::Key_Escape},
                [this] { m_document.weigher().stop(); },
                {},
                {},
                [this] { return m_document.weigher().running(); }},
               {"train.wheel",
                words("Change the wheel's count…"),
                {words("Ctrl+T")},
                [this] { edit_count(m_document.selection().subject() + ".wheel"); },
                menu,
                {},
                {},
                true},
               {"train.pinion",
                words("Change the pinion's count…"),
                {words("Ctrl+L")},
                [this] { edit_count(m_document.selection().subject() + ".pinion"); },
                menu},
               {"train.recount", words("Count once more, or end counting"), {words("Ctrl+Shift+T")}, [this] { count_again(); }, menu},
               {"train.write", words("Write the train down…"), {words("Ctrl+W")}, [this] { write_down(); }, menu},
               {"train.find", words("Find a train…"), {words("Ctrl+F")}, find, menu},
               {"train.divide", words("Divide with the workshop's plates"), {}, divide, menu, {}, {}, true}};
}

std::vector<Scene> TrainStation::scenes() {
    const auto read = [this](int times) {
        for (int i = 0; i < times; ++i) {
            m_line.send_simulated();
            m_line.ask_next(1);
        }
    };
    const auto depthing = [this] {
        show_depthing(true);
        move_hole({-18.5, 159.4});
    };
    const auto find = [this] {
        m_document.selection().select("tide");
        ask_for_trains("tide");
    };
    const auto take = [this] {
        m_search.take();
        close_search();
    };
    const auto back = [this] {
        m_document.undo_stack()->undo();
        m_document.selection().select("third");
    };
    // A clock that stands in no demo.
    const auto write = [this] {
        m_writing->write(words("84, 8/75, ?/?, 8/30\nstrike: 84, 8/78, 8/56, 7\n4500 beats, 7 days from 16 turns"));
    };
    const auto found = [this, picked = false]() mutable {
        if (m_search.running()) return false;
        if (!std::exchange(picked, true)) m_search.pick(3);
        return true;
    };
    const auto kind = [this] {
        m_document.begin({});
        begin("fusee");
    };
    return {{"bench-empty", {}, [this] { m_document.begin({}); }},
            {"bench-writing", {}, write},
            {"bench-kind", {}, kind},
            {"train-before", "tide-house"},
            {"train-one-reading", {}, [read] { read(1); }},
            {"train-measured", {}, [read] { read(3); }, {}, {}, "module, Centre"},
            {"train-chosen", {}, [this] { m_document.edit(choose(m_document.derived().train, 0, today())); }, {}, {}, "module, Centre"},
            {"train-depthing", {}, depthing, {}, [this] { show_depthing(false); }},
            {"train-finder", {}, find, found},
            {"train-tide", {}, take, {}, back}};
}

QList<PrintTable> TrainStation::print_tables() {
    PrintTable table{words("Arbors, from the power up"),
                     {{words("arbor"), words("what"), words("figure"), words("unit"), words("±"), words("state")}}};
    const auto& train = m_document.derived().train;
    for (const DerivedArbor& arbor : train.arbors)
        for (const Quantity& one : train.quantities)
            if (one.arbor == arbor.id)
                table.rows << QStringList{words(arbor.name), words(one.name),   words(one.text),
                                          words(one.unit),   words(one.u_text), words(one.state)};
    PrintTable findings{words("Findings"), {{words("how grave"), words("what"), words("why")}}};
    for (const Finding& one : m_document.derived().findings)
        findings.rows << QStringList{words(one.verdict.empty() ? one.severity : one.verdict), words(one.sentence), words(one.reason)};
    return {table, findings};
}

void TrainStation::lay_out() {
    m_editor->leave();
    place_sheets();
}

}  // namespace echappe
