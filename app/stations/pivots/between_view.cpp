#include "stations/pivots/between_view.h"

#include <QKeyEvent>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "document/today.h"
#include "number/input_error.h"
#include "number/units.h"
#include "survey/edits.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double trials_high = 214;
constexpr double bow_times = 40;  ///< how much more a bent arbor is drawn bent

bool same_arbors(std::vector<std::string> a, std::vector<std::string> b) {
    std::sort(a.begin(), a.end());
    std::sort(b.begin(), b.end());
    return a == b;
}

std::vector<SumCard::Tab> tabs(Document& document) {
    static const QStringList names = {"strength", "re-pivot", "end shake", "runout", "taper", "hub", "strip bush"};
    std::vector<SumCard::Tab> list;
    for (int i = 0; i < names.size(); ++i)
        list.push_back(SumCard::of_sum(
            document, names[i], *bench_sums()[static_cast<size_t>(i)], [&document] { return document.selection().hole(); },
            [&document] {
                return facts_of_hole(document.job().survey.pivots, document.derived().pivots, document.derived().train,
                                     document.derived().power, document.selection().hole());
            }));
    return list;
}

/// As much as makes the shake some pixels wide: 1, 2, 5, 10, 20.
double times_for(double shake_px) {
    constexpr double seen_px = 14;
    for (const double times : {1.0, 2.0, 5.0, 10.0})
        if (std::abs(shake_px) * times >= seen_px) return times;
    return 20;
}

}  // namespace

BetweenView::BetweenView(Document& document, QWidget* parent)
    : CardStation(document, tabs(document), parent), m_editor(new InPlaceEditor(this)) {
    setAccessibleName(tr("Between the plates"));
    connect(m_editor, &InPlaceEditor::refused, this, [this](const QString& sentence) { emit told(sentence, true); });
    connect(&document, &Document::changed, this, [this] { refresh(); });
    connect(&document.selection(), &Selection::changed, this, [this] {
        m_editor->leave();
        if (std::find(m_marked.begin(), m_marked.end(), m_document.selection().subject()) == m_marked.end())
            m_marked = {m_document.selection().subject()};
        refresh();
    });
}

void BetweenView::refresh() {
    if (!isVisible()) return;
    update();
    m_trials.clear();
    if (const TrainList* train = m_document.selection().train())
        m_trials = trials_of(m_document.job().survey, m_document.job().train, m_document.derived().train, *train);
    const DerivedHole* hole = m_document.derived().pivots.hole(m_document.selection().hole());
    m_card->show_part(hole ? words(hole->name) : QString());
    if (!marked()) m_marked = {m_document.selection().subject()};
}

QString BetweenView::length(double mm) const {
    const Unit& unit = *find_unit(m_document.job().length.symbol, Dimension::length);
    return words(print_in(mm, unit, m_document.job().length_decimals()));
}

const TrialCheck* BetweenView::marked() const {
    for (const TrialCheck& check : m_trials)
        if (same_arbors(check.arbors, m_marked)) return &check;
    return nullptr;
}

void BetweenView::trial(bool runs) {
    const TrialCheck* now = marked();
    if (!now) return;
    const QString name = words(now->name);
    TrialRecord record;
    record.arbors = now->arbors;
    record.free = record.end_shake = runs;
    m_document.edit(trial_made(record, today()));
    emit told(runs ? tr("Kept: %1 runs freely, end shake felt.").arg(name)
                   : tr("Kept: %1 does not run; finished holes of it are back on the list.").arg(name),
              !runs);
}

void BetweenView::next_trial() {
    std::vector<const TrialCheck*> round;
    for (const TrialCheck& check : m_trials)
        if (std::find(check.arbors.begin(), check.arbors.end(), m_document.selection().subject()) != check.arbors.end())
            round.push_back(&check);
    if (round.empty()) return;
    const auto at = std::find_if(round.begin(), round.end(), [&](const TrialCheck* c) { return same_arbors(c->arbors, m_marked); });
    m_marked = (at == round.end() || at + 1 == round.end() ? round.front() : *(at + 1))->arbors;
    update();
}

void BetweenView::ask_coast() {
    const TrialCheck* now = marked();
    if (!now) return;
    const QRectF at = place_of("coast");
    const QString stands = now->last && now->last->coast_s ? words(print_short(*now->last->coast_s)) : QString();
    const QRectF box = at.isNull() ? QRectF(20, height() - 40, 160, 26) : at;
    m_editor->ask(tr("%1, coast").arg(words(now->name)), box, stands, [this, arbors = now->arbors](const QString& text) {
        const double seconds = read_coast(text.toStdString());
        TrialRecord record;
        record.arbors = arbors;
        record.free = record.end_shake = true;
        record.coast_s = seconds;
        m_document.edit(trial_made(record, today()));
    });
    m_editor->setPlaceholderText(tr("seconds to rest"));
}

QList<Action> BetweenView::make_actions() {
    const auto end = [this](const char* plate) {
        return [this, plate] { m_document.selection().select_hole(m_document.selection().subject(), plate); };
    };
    return CardStation::make_actions() +
           QList<Action>{{"between.front", tr("Its front end"), {Qt::Key_Left}, end("front"), {}, tr("front or back")},
                         {"between.back", tr("Its back end"), {Qt::Key_Right}, end("back")},
                         {"between.runs", tr("It runs"), {Qt::Key_F}, [this] { trial(true); }, {}, tr("runs")},
                         {"between.stuck", tr("It does not run"), {Qt::SHIFT | Qt::Key_F}, [this] { trial(false); }, {}, tr("does not")},
                         {"between.next", tr("The next trial"), {Qt::Key_X}, [this] { next_trial(); }, {}, tr("next trial")},
                         {"between.coast", tr("Seconds to rest"), {Qt::Key_W}, [this] { ask_coast(); }, {}, tr("seconds to rest")},
                         {"between.leave",
                          tr("Back to the holes"),
                          {Qt::Key_E, Qt::Key_Escape},
                          [this] { emit left(); },
                          {},
                          tr("back to the plates")}};
}

void BetweenView::paint(QPainter& painter) {
    painter.fillRect(rect(), theme().ground);
    const double left = width() - SumCard::wide;
    paint_elevation(painter, QRectF(16, 0, left - 32, height() - trials_high));
    painter.fillRect(QRectF(16, height() - trials_high, left - 32, 1), theme().rule);
    paint_trials(painter, QRectF(16, height() - trials_high, left - 32, trials_high));
}

void BetweenView::dimension(QPainter& painter, double from_x, double to_x, double y, const QString& text, const QColor& ink) {
    painter.setPen(QPen(ink, 1));
    painter.drawLine(QPointF(from_x, y), QPointF(to_x, y));
    for (const double x : {from_x, to_x}) painter.drawLine(QPointF(x, y - 4), QPointF(x, y + 4));
    const double wide = width_of(word_font(10, true), text) + 12;
    const double middle = (from_x + to_x) / 2;
    painter.fillRect(QRectF(middle - wide / 2, y - 8, wide, 16), theme().ground);
    write(painter, word_font(10, true), ink, {middle, y + 4}, text, 0);
}

void BetweenView::paint_rim(QPainter& painter, double x, double axis_y, double thick, double radius_px, const QRectF& room, bool pinion) {
    const Theme& t = theme();
    const double reach = std::min(radius_px, std::min(axis_y - room.top(), room.bottom() - axis_y));
    const QRectF disc(x - thick / 2, axis_y - reach, thick, 2 * reach);
    painter.setPen(QPen(pinion ? t.ink : t.brass, 1));
    painter.setBrush(pinion ? t.steel : t.pale_brass);
    painter.drawRect(disc);
    if (pinion) {
        painter.setPen(QPen(t.sheet, 0.9));
        for (const double line : {-0.6, -0.2, 0.2, 0.6})
            painter.drawLine(QPointF(disc.left(), axis_y + line * reach), QPointF(disc.right(), axis_y + line * reach));
    } else if (reach < radius_px) {
        // The rim lies beyond the picture.
        painter.setPen(QPen(t.ground, 3));
        for (const double y : {disc.top() + 5, disc.bottom() - 5})
            painter.drawLine(QPointF(disc.left() - 3, y + 3), QPointF(disc.right() + 3, y - 3));
    }
}

/// One plate cut through its hole: the wall either side of the pivot, the oil sink outside.
void BetweenView::paint_plate_end(QPainter& painter, const DerivedHole& hole, double face_x, double axis_y, double outwards, double px,
                                  const QRectF& room) {
    const Theme& t = theme();
    constexpr double usual_thickness_mm = 2;
    const double thick = hole.thickness_mm.value_or(usual_thickness_mm) * px;
    const double radius = hole.record.hole_max_mm.value_or(hole.record.pivot_mm.value_or(1.0) * 1.1) / 2 * px;
    const double sink_wide = hole.plan && hole.plan->sink_diameter_mm ? *hole.plan->sink_diameter_mm / 2 * px : radius * 2.1;
    const double sink_deep = std::min(thick * 0.5, sink_wide * 0.5);
    const double far = face_x + outwards * thick;
    painter.setPen(QPen(t.brass, 1));
    painter.setBrush(QBrush(t.brass, outwards < 0 ? Qt::BDiagPattern : Qt::FDiagPattern));
    for (const double way : {-1.0, 1.0}) {
        const double end = way < 0 ? room.top() : room.bottom();
        QPainterPath wall(QPointF(face_x, axis_y + way * radius));
        wall.lineTo(far - outwards * sink_deep, axis_y + way * radius);
        wall.quadTo(QPointF(far - outwards * sink_deep * 0.3, axis_y + way * sink_wide * 0.75), QPointF(far, axis_y + way * sink_wide));
        wall.lineTo(far, end);
        wall.lineTo(face_x, end);
        wall.closeSubpath();
        painter.drawPath(wall);
    }
    const bool here = hole.plate == m_document.selection().plate();
    const double label_x = (face_x + far) / 2;
    write(painter, word_font(9.5, here), here ? t.blued : t.steel, {label_x, room.bottom() + 15}, words(hole.plate), 0);
    if (here) painter.fillRect(QRectF(label_x - 16, room.bottom() + 19, 32, 2), t.blued);
    if (hole.record.pivot_mm && hole.record.hole_max_mm)
        write(painter, word_font(8.5), t.steel, {label_x, room.bottom() + 33},
              tr("side shake %1").arg(length(*hole.record.hole_max_mm - *hole.record.pivot_mm)), 0);
    place({"plate:" + words(hole.plate),
           QRectF(std::min(face_x, far) - 6, room.top(), std::abs(thick) + 12, room.height() + 36),
           [this, plate = hole.plate] { m_document.selection().select_hole(m_document.selection().subject(), plate); },
           tr("The sums speak of the pivot at this end"),
           {}});
}

void BetweenView::paint_elevation(QPainter& painter, const QRectF& room) {
    const Theme& t = theme();
    const auto& derived = m_document.derived();
    const DerivedArbor* arbor = derived.train.arbor(m_document.selection().subject());
    const DerivedHole* front = derived.pivots.hole(m_document.selection().subject() + ".front");
    const DerivedHole* back = derived.pivots.hole(m_document.selection().subject() + ".back");
    if (!arbor || !front || !back) {
        write(painter, figure_font(18), t.ink, {room.left() + 6, 60}, tr("No arbor yet"));
        return;
    }
    write(painter, word_font(8.5, true), t.steel, {room.left() + 2, room.top() + 26},
          words(arbor->name).toUpper() + tr(" BETWEEN THE PLATES"));
    if (const auto way = derived.survey.way_up.find(arbor->id); way != derived.survey.way_up.end())
        write(painter, word_font(8.5), t.steel, {room.left() + 2, room.top() + 42}, tr("goes with its %1").arg(words(way->second)));
    const ArborRecord* read = m_document.job().survey.pivots.arbor(arbor->id);
    constexpr double usual_mm = 30;
    const double plates_mm = read && read->plates_mm ? *read->plates_mm : usual_mm;
    const bool shoulders_known = read && read->plates_mm && read->shoulders_mm;
    const QRectF picture(room.left() + 90, room.top() + 92, room.width() - 180, room.height() - 160);
    const double px = picture.width() / plates_mm;
    const double axis = picture.center().y();
    const double x0 = picture.left();
    const double x1 = picture.right();
    const double shake_mm = shoulders_known ? *read->plates_mm - *read->shoulders_mm : 0;
    const double times = shoulders_known ? times_for(shake_mm * px) : 1;
    // The arbor lies against the front plate: the whole shake opens at the back. Too long, it reaches into the plate.
    const double gap = std::clamp(shake_mm * px * times, -40.0, 60.0);
    paint_plate_end(painter, *front, x0, axis, -1, px, picture);
    paint_plate_end(painter, *back, x1, axis, 1, px, picture);
    const auto pivot_radius = [&](const DerivedHole& hole) { return hole.record.pivot_mm.value_or(1.0) / 2 * px; };
    const double body = std::max(pivot_radius(*front), pivot_radius(*back)) * 1.9;
    const double shoulder = x1 - gap;
    painter.setPen(QPen(t.ink, 0.9));
    painter.setBrush(t.steel);
    painter.drawRect(QRectF(x0 - front->thickness_mm.value_or(2) * px - 4, axis - pivot_radius(*front),
                            x0 - (x0 - front->thickness_mm.value_or(2) * px - 4), 2 * pivot_radius(*front)));
    painter.drawRect(QRectF(shoulder, axis - pivot_radius(*back), back->thickness_mm.value_or(2) * px + 4, 2 * pivot_radius(*back)));
    painter.setBrush(shoulders_known ? QBrush(t.steel) : QBrush(t.steel, Qt::Dense5Pattern));
    painter.drawRect(QRectF(x0, axis - body, shoulder - x0, 2 * body));
    const double along = shoulder - x0;
    if (arbor->wheel.count.present())
        paint_rim(painter, x0 + along * 0.66, axis, std::max(8.0, 1.6 * px), arbor->wheel_radius_mm * px, picture, false);
    double pinion_mm = 0;
    for (const DerivedMesh& mesh : derived.train.meshes)
        if (mesh.pinion_of == arbor->id) pinion_mm = mesh.sizes.pinion.pitch_diameter_mm / 2;
    if (pinion_mm > 0) paint_rim(painter, x0 + along * 0.32, axis, 40, std::max(pinion_mm * px, body + 5), picture, true);
    if (read && read->tir_mm && *read->tir_mm > 0) {
        // The line of a bent arbor, as it stands at its high side.
        const double high = std::min(*read->tir_mm / 2 * px * bow_times, picture.height() * 0.3);
        QPainterPath bow(QPointF(x0, axis));
        bow.quadTo(QPointF((x0 + shoulder) / 2, axis - 2 * high), QPointF(shoulder, axis));
        const auto runout = derived.pivots.runout.find(arbor->id);
        const bool is_true = runout != derived.pivots.runout.end() && runout->second.verdict == "true";
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(is_true ? t.verdigris : t.ruby, 1.6, Qt::DashLine));
        painter.drawPath(bow);
        const QColor ink = is_true ? t.verdigris : t.ruby;
        const QPointF top(x0 + along * 0.49, axis - high - 30);
        write(painter, word_font(9.5, true), ink, top, tr("runs out %1").arg(length(*read->tir_mm)), 0);
        write(painter, word_font(8.5), ink, top + QPointF(0, 14), tr("TIR, drawn × %1").arg(bow_times), 0);
    }
    painter.setPen(QPen(t.steel, 0.8, Qt::DashDotLine));
    painter.drawLine(QPointF(x0 - 60, axis), QPointF(x1 + 60, axis));
    if (read && read->plates_mm) dimension(painter, x0, x1, picture.top() - 18, tr("plates %1").arg(length(*read->plates_mm)), t.ink);
    else
        write(painter, word_font(9.5), t.steel, {picture.center().x(), picture.top() - 14},
              tr("distance of the plates not read: a sign only"), 0);
    if (!shoulders_known) return;
    dimension(painter, x0, shoulder, picture.bottom() - 6, tr("shoulders %1").arg(length(*read->shoulders_mm)), t.ink);
    const EndShakeResult& shake = derived.pivots.end_shake.at(arbor->id);
    const QColor ink = shake.verdict == "right" ? t.verdigris : shake.verdict == "binds" ? t.ruby : t.amber;
    painter.fillRect(QRectF(QPointF(std::min(shoulder, x1), axis - body), QPointF(std::max(shoulder, x1), axis - pivot_radius(*back))),
                     ink);
    painter.fillRect(QRectF(QPointF(std::min(shoulder, x1), axis + pivot_radius(*back)), QPointF(std::max(shoulder, x1), axis + body)),
                     ink);
    const QPointF label(x1 - 14, picture.top() + 20);
    painter.setPen(QPen(ink, 1));
    painter.drawLine(label + QPointF(0, 20), QPointF((shoulder + x1) / 2, axis - body));
    write(painter, figure_font(13), ink, label, tr("end shake %1").arg(length(shake_mm)), 1);
    write(painter, word_font(8.5), t.steel, label + QPointF(0, 15),
          words(shake.verdict) + (times > 1 ? tr(", drawn × %1").arg(times) : QString()), 1);
}

void BetweenView::paint_check(QPainter& painter, const TrialCheck& check, QPointF at, double radius) {
    const Theme& t = theme();
    const bool now = same_arbors(check.arbors, m_marked);
    const QColor ink = check.failed() ? t.ruby : check.passed() ? t.verdigris : t.steel;
    painter.setPen(QPen(now ? t.blued : ink, now ? 2.6 : 1.4, check.last ? Qt::SolidLine : Qt::DotLine));
    painter.setBrush(t.sheet);
    painter.drawEllipse(at, radius, radius);
    painter.setPen(QPen(ink, 2.4));
    const double s = radius * 0.5;
    if (check.passed()) painter.drawPolyline(QPolygonF({at + QPointF(-s, 0), at + QPointF(-s * 0.2, s * 0.8), at + QPointF(s, -s)}));
    if (check.failed()) {
        painter.drawLine(at + QPointF(-s, -s), at + QPointF(s, s));
        painter.drawLine(at + QPointF(-s, s), at + QPointF(s, -s));
    }
    QString tag = "trial";
    for (const std::string& arbor : check.arbors) tag += ":" + words(arbor);
    const QString how = check.passed() ? tr("runs") : check.failed() ? tr("does not run") : tr("not tried");
    place({tag,
           QRectF(at - QPointF(radius + 6, radius + 6), QSizeF(2 * radius + 12, 2 * radius + 12)),
           [this, arbors = check.arbors] {
               m_marked = arbors;
               if (std::find(arbors.begin(), arbors.end(), m_document.selection().subject()) == arbors.end())
                   m_document.selection().select(arbors.back());
               update();
           },
           words(check.name) + ": " + how + (check.reason.empty() ? "" : ". " + words(check.reason)),
           {}});
}

void BetweenView::paint_trials(QPainter& painter, const QRectF& room) {
    const Theme& t = theme();
    const TrainList* train = m_document.selection().train();
    if (!train || m_trials.empty()) return;
    const auto ran = std::count_if(m_trials.begin(), m_trials.end(), [](const TrialCheck& c) { return c.passed(); });
    write(painter, word_font(8.5, true), t.steel, {room.left() + 2, room.top() + 22},
          tr("TRIALS IN THE PLATES, %1").arg(words(train->name).toUpper()));
    write(painter, figure_font(13), t.ink, {room.right() - 4, room.top() + 24}, tr("%1 of %2 run").arg(ran).arg(m_trials.size()), 1);
    constexpr double radius = 11;
    const double first = room.left() + 120;
    const double step = std::min(124.0, (room.right() - first - 40) / static_cast<double>(std::max<size_t>(1, train->arbors.size() - 1)));
    const double alone_y = room.top() + 54;
    const double pair_y = alone_y + 46;
    const double train_y = pair_y + 40;
    const auto x_of = [&](const std::string& arbor) {
        const auto at = std::find(train->arbors.begin(), train->arbors.end(), arbor) - train->arbors.begin();
        return first + step * static_cast<double>(at);
    };
    for (const auto& [word, y] :
         {std::pair{tr("alone"), alone_y}, std::pair{tr("in pairs"), pair_y}, std::pair{tr("all together"), train_y}})
        write(painter, word_font(9.5), t.steel, {room.left() + 2, y + 4}, word);
    painter.setPen(QPen(t.rule, 1.2));
    for (const TrialCheck& check : m_trials) {
        if (check.kind == "alone") continue;
        const double y = check.kind == "pair" ? pair_y : train_y;
        const double x = (x_of(check.arbors.front()) + x_of(check.arbors.back())) / 2;
        if (check.kind == "pair")
            for (const std::string& arbor : check.arbors) painter.drawLine(QPointF(x_of(arbor), alone_y), QPointF(x, y));
        else painter.drawLine(QPointF(first, y), QPointF(x_of(train->arbors.back()), y));
    }
    for (const TrialCheck& check : m_trials) {
        const double x = (x_of(check.arbors.front()) + x_of(check.arbors.back())) / 2;
        paint_check(painter, check, {x, check.kind == "alone" ? alone_y : check.kind == "pair" ? pair_y : train_y}, radius);
        if (check.kind != "alone") continue;
        const bool subject = check.arbors.front() == m_document.selection().subject();
        write(painter, word_font(9, true), subject ? t.blued : t.ink, {x + radius + 6, alone_y - 6}, words(check.name));
    }
    const TrialCheck* now = marked();
    if (!now) return;
    const double y = room.bottom() - 34;
    const double name_wide = write(painter, word_font(10.5, true), t.blued, {room.left() + 2, y}, words(now->name));
    const QString state = now->passed()   ? tr("runs freely, end shake felt")
                          : now->failed() ? tr("does not run")
                                          : tr("not tried yet: a light touch must run it");
    const double state_wide = write(painter, word_font(10), now->failed() ? t.ruby : t.ink, {room.left() + 14 + name_wide, y}, state);
    const QString coast = now->last && now->last->coast_s
                              ? tr("at rest after %1 s").arg(*now->last->coast_s) +
                                    (now->last->coast_before_s ? tr(", before %1 s").arg(*now->last->coast_before_s) : QString())
                              : tr("W: seconds to rest");
    const QRectF coast_at(room.left() + 28 + name_wide + state_wide, y - 15, 170, 22);
    write(painter, word_font(10), t.blued, {coast_at.left(), y}, coast);
    place({"coast",
           coast_at,
           [this] { ask_coast(); },
           tr("From a light touch at the great wheel to rest: kept, and compared at the next trial"),
           {}});
    if (!now->reason.empty())
        write(painter, word_font(9.5), now->failed() ? t.ruby : t.amber, {room.left() + 2, y + 19}, words(now->reason));
    else
        write(painter, word_font(8.5), t.steel, {room.left() + 2, y + 19},
              legend({"between.runs", "between.stuck", "between.next", "between.coast", "between.front|between.back", "sheet.next",
                      "between.leave"}));
}

}  // namespace echappe
