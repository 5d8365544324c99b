#include "stations/pivots/between_view.h"

#include <QKeyEvent>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "document/today.h"
#include "drawing/words.h"
#include "number/input_error.h"
#include "number/units.h"
#include "sheet/marks.h"
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

BetweenView::BetweenView(Document& document, PlateRound& readings, QWidget* parent)
    : CardStation(document, tabs(document), parent), m_readings(readings), m_editor(new InPlaceEditor(this)) {
    setAccessibleName(words("Between the plates"));
    connect(m_editor, &InPlaceEditor::refused, this, [this](const QString& sentence) { emit told(sentence, true); });
    connect(&document, &Document::changed, this, [this] { refresh(); });
    connect(&document.selection(), &Selection::changed, this, [this] {
        m_editor->leave();
        if (std::find(m_marked.begin(), m_marked.end(), m_document.selection().subject()) == m_marked.end())
            m_marked = {m_document.selection().subject()};
        refresh();
    });
}

/// Of the arbor itself, and of its pivots.
DrawnSizes BetweenView::own_sizes() const {
    const std::string& arbor = m_document.selection().subject();
    DrawnSizes sizes = m_readings.sizes({arbor});
    for (DrawnSize& size : m_readings.sizes({arbor + ".front", arbor + ".back"}))
        if (size.line.field == "pivot_mm") sizes.push_back(std::move(size));
    return sizes;
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

QString BetweenView::length(double mm) const { return words(m_document.job().length.write(mm, m_document.job().length_decimals())); }

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
    emit told(runs ? words("Kept: %1 runs freely, end shake felt.").arg(name)
                   : words("Kept: %1 does not run; finished holes of it are back on the list.").arg(name),
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
    m_editor->ask(words("%1, coast").arg(words(now->name)), box, stands, [this, arbors = now->arbors](const QString& text) {
        const double seconds = read_coast(text.toStdString());
        TrialRecord record;
        record.arbors = arbors;
        record.free = record.end_shake = true;
        record.coast_s = seconds;
        m_document.edit(trial_made(record, today()));
    });
    m_editor->setPlaceholderText(words("seconds to rest"));
}

QList<Action> BetweenView::make_actions() {
    const auto end = [this](const char* plate) {
        return [this, plate] { m_document.selection().select_hole(m_document.selection().subject(), plate); };
    };
    return CardStation::make_actions() +
           QList<Action>{
               {"between.front", words("Its front end"), {Qt::Key_Left}, end("front"), {}, words("front or back")},
               {"between.back", words("Its back end"), {Qt::Key_Right}, end("back")},
               {"between.runs", words("It runs"), {Qt::Key_F}, [this] { trial(true); }, {}, words("runs")},
               {"between.stuck", words("It does not run"), {Qt::SHIFT | Qt::Key_F}, [this] { trial(false); }, {}, words("does not")},
               {"between.next", words("The next trial"), {Qt::Key_X}, [this] { next_trial(); }, {}, words("next trial")},
               {"between.coast", words("Seconds to rest"), {Qt::Key_W}, [this] { ask_coast(); }, {}, words("seconds to rest")},
               {"between.leave",
                words("Back to the holes"),
                {Qt::Key_E, Qt::Key_Escape},
                [this] { emit left(); },
                {},
                words("back to the plates")}};
}

void BetweenView::paint(QPainter& painter) {
    painter.fillRect(rect(), inks(painter).ground);
    const double left = width() - SumCard::wide;
    paint_elevation(painter, QRectF(16, 0, left - 32, height() - trials_high));
    painter.fillRect(QRectF(16, height() - trials_high, left - 32, 1), inks(painter).rule);
    paint_trials(painter, QRectF(16, height() - trials_high, left - 32, trials_high));
}

void BetweenView::paint_rim(QPainter& painter, double x, double axis_y, double thick, double radius_px, const QRectF& room, bool pinion) {
    const Theme& t = inks(painter);
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
void BetweenView::paint_plate_end(QPainter& painter, const Elevation& e, const DerivedHole& hole, double face_x, double outwards) {
    const Theme& t = inks(painter);
    const double px = e.px, axis_y = e.axis;
    const QRectF& room = e.picture;
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
    write(painter, type(Type::text, here), here ? t.blued : t.steel, {label_x, room.bottom() + 15}, words(hole.plate), 0);
    if (here) painter.fillRect(QRectF(label_x - 16, room.bottom() + 19, 32, 2), t.blued);
    if (hole.record.pivot_mm && hole.record.hole_max_mm)
        write(painter, type(Type::note), t.steel, {label_x, room.bottom() + 33},
              words("side shake %1").arg(length(*hole.record.hole_max_mm - *hole.record.pivot_mm)), 0);
    place({"plate:" + words(hole.plate),
           QRectF(std::min(face_x, far) - 6, room.top(), std::abs(thick) + 12, room.height() + 36),
           [this, plate = hole.plate] { m_document.selection().select_hole(m_document.selection().subject(), plate); },
           words("The sums speak of the pivot at this end"),
           {}});
}

/// Where the arbor stands in the picture. It lies against the front plate: the whole shake opens at the back; too long, it reaches
/// into the plate.
BetweenView::Elevation BetweenView::elevation(const QRectF& room, const DerivedHole& front, const DerivedHole& back) const {
    constexpr double usual_mm = 30;
    Elevation e{front, back};
    e.read = m_document.job().survey.pivots.arbor(m_document.selection().subject());
    e.picture = {room.left() + 90, room.top() + 92, room.width() - 180, room.height() - 160};
    e.px = e.picture.width() / (e.read && e.read->plates_mm ? *e.read->plates_mm : usual_mm);
    e.axis = e.picture.center().y();
    e.shoulders_known = e.read && e.read->plates_mm && e.read->shoulders_mm;
    if (e.shoulders_known) e.shake_mm = *e.read->plates_mm - *e.read->shoulders_mm;
    if (e.shoulders_known) e.times = times_for(e.shake_mm * e.px);
    e.x0 = e.picture.left();
    e.x1 = e.picture.right();
    e.shoulder = e.x1 - std::clamp(e.shake_mm * e.px * e.times, -40.0, 60.0);
    e.body = std::max(e.pivot_radius(front), e.pivot_radius(back)) * 1.9;
    return e;
}

void BetweenView::paint_elevation(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    const auto& derived = m_document.derived();
    const std::string& subject = m_document.selection().subject();
    const DerivedArbor* arbor = derived.train.arbor(subject);
    const DerivedHole* front = derived.pivots.hole(subject + ".front");
    const DerivedHole* back = derived.pivots.hole(subject + ".back");
    Column page(painter, room.adjusted(2, 14, 0, 0));
    if (!arbor || !front || !back) {
        page.head(words("No arbor yet"), t.ink);
        return;
    }
    page.section(words(arbor->name).toUpper() + words(" BETWEEN THE PLATES"));
    if (const auto way = derived.survey.way_up.find(arbor->id); way != derived.survey.way_up.end()) {
        page.gap(-4);
        page.line(words("goes with its %1").arg(words(way->second)), t.steel);
    }
    const Elevation e = elevation(room, *front, *back);
    paint_plate_end(painter, e, *front, e.x0, -1);
    paint_plate_end(painter, e, *back, e.x1, 1);
    paint_body(painter, e, *arbor);
    if (e.read && e.read->tir_mm && *e.read->tir_mm > 0) paint_bow(painter, e, *arbor);
    painter.setPen(QPen(t.steel, 0.8, Qt::DashDotLine));
    painter.drawLine(QPointF(e.x0 - 60, e.axis), QPointF(e.x1 + 60, e.axis));
    if (!e.read || !e.read->plates_mm)
        write(painter, type(Type::note), t.steel, {e.x1, e.picture.top() - 36}, words("distance of the plates not read: a sign only"), 1);
    if (e.shoulders_known) paint_shake(painter, e, derived.pivots.end_shake.at(arbor->id));
    write_sizes(painter, e);
}

/// What is read of it, where it is.
void BetweenView::write_sizes(QPainter& painter, const Elevation& e) {
    const DrawnSizes drawn = sizes();
    Dimensions dimensions(painter, drawn, asked_size());
    const QString arbor = words(m_document.selection().subject());
    using Name = Dimensions::Name;
    const double above = e.picture.top() - 14, foot = e.picture.bottom();
    dimensions.between(arbor + ".shoulders_mm", {e.x0, above}, {e.shoulder, above}, Name::written);
    // Where its parts stand, from the front plate on, and under them the whole way.
    double low = foot + 12;
    constexpr double row = 19;
    const auto from_front = [&](const char* field, double x) {
        const QString id = arbor + field;
        if (!dimensions.has(id)) return;
        painter.setPen(QPen(inks(painter).steel, 0.7));
        painter.drawLine(QPointF(x, e.axis), QPointF(x, low + 4));
        dimensions.between(id, {e.x0, low}, {x, low});
        low += row;
    };
    from_front(".pinion_from_front_mm", e.pinion_x());
    from_front(".wheel_from_front_mm", e.wheel_x());
    dimensions.between(arbor + ".plates_mm", {e.x0, low}, {e.x1, low}, Name::written);
    for (const DerivedHole* hole : {&e.front, &e.back})
        dimensions.in(words(hole->id) + ".pivot_mm", {hole == &e.front ? e.x0 - 45 : e.x1 + 45, e.axis + 5});
    dimensions.at(arbor + ".tir_mm", {e.along(0.8), e.axis + e.body});
    dimensions.rest();
    const double left = std::max(e.wheel_x() + 24, e.along(0.7));
    dimensions.lay_out({left, e.axis + e.body + 8, e.x1 - left - 4, foot - e.axis - e.body - 8});
    place_sizes(painter, dimensions);
}

/// The arbor itself: pivots, body, wheel and pinion.
void BetweenView::paint_body(QPainter& painter, const Elevation& e, const DerivedArbor& arbor) {
    const Theme& t = inks(painter);
    constexpr double usual_thickness_mm = 2, beyond = 4;
    painter.setPen(QPen(t.ink, 0.9));
    painter.setBrush(t.steel);
    const auto pivot = [&](const DerivedHole& hole, double from, double way) {
        const double to = from + way * (hole.thickness_mm.value_or(usual_thickness_mm) * e.px + beyond);
        const double radius = e.pivot_radius(hole);
        painter.drawRect(QRectF(QPointF(std::min(from, to), e.axis - radius), QPointF(std::max(from, to), e.axis + radius)));
    };
    pivot(e.front, e.x0, -1);
    pivot(e.back, e.shoulder, 1);
    painter.setBrush(e.shoulders_known ? QBrush(t.steel) : QBrush(t.steel, Qt::Dense5Pattern));
    painter.drawRect(QRectF(e.x0, e.axis - e.body, e.shoulder - e.x0, 2 * e.body));
    if (arbor.wheel.count.present())
        paint_rim(painter, e.wheel_x(), e.axis, std::max(8.0, 1.6 * e.px), arbor.wheel_radius_mm * e.px, e.picture, false);
    double pinion_mm = 0;
    for (const DerivedMesh& mesh : m_document.derived().train.meshes)
        if (mesh.pinion_of == arbor.id) pinion_mm = mesh.sizes.pinion.pitch_diameter_mm / 2;
    if (pinion_mm > 0) paint_rim(painter, e.pinion_x(), e.axis, 40, std::max(pinion_mm * e.px, e.body + 5), e.picture, true);
}

/// The line of a bent arbor, as it stands at its high side.
void BetweenView::paint_bow(QPainter& painter, const Elevation& e, const DerivedArbor& arbor) {
    const Theme& t = inks(painter);
    const double high = std::min(*e.read->tir_mm / 2 * e.px * bow_times, e.picture.height() * 0.3);
    QPainterPath bow(QPointF(e.x0, e.axis));
    bow.quadTo(QPointF((e.x0 + e.shoulder) / 2, e.axis - 2 * high), QPointF(e.shoulder, e.axis));
    const auto& runouts = m_document.derived().pivots.runout;
    const auto runout = runouts.find(arbor.id);
    const QColor ink = runout != runouts.end() && runout->second.verdict == "true" ? t.verdigris : t.ruby;
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(ink, 1.6, Qt::DashLine));
    painter.drawPath(bow);
    const QPointF top(e.along(0.49), e.axis - high - 30);
    write(painter, type(Type::text, true), ink, top, words("runs out %1").arg(length(*e.read->tir_mm)), 0);
    write(painter, type(Type::note), ink, top + QPointF(0, 14), words("TIR, drawn × %1").arg(bow_times), 0);
}

void BetweenView::paint_shake(QPainter& painter, const Elevation& e, const EndShakeResult& shake) {
    const Theme& t = inks(painter);
    const QColor ink = shake.verdict == "right" ? t.verdigris : shake.verdict == "binds" ? t.ruby : t.amber;
    const double from = std::min(e.shoulder, e.x1), to = std::max(e.shoulder, e.x1), radius = e.pivot_radius(e.back);
    painter.fillRect(QRectF(QPointF(from, e.axis - e.body), QPointF(to, e.axis - radius)), ink);
    painter.fillRect(QRectF(QPointF(from, e.axis + radius), QPointF(to, e.axis + e.body)), ink);
    const QPointF label(e.x1 - 14, e.picture.top() + 20);
    painter.setPen(QPen(ink, 1));
    painter.drawLine(label + QPointF(0, 20), QPointF((e.shoulder + e.x1) / 2, e.axis - e.body));
    write(painter, type(Type::figure, true), ink, label, words("end shake %1").arg(length(e.shake_mm)), 1);
    write(painter, type(Type::note), t.steel, label + QPointF(0, 15),
          words(shake.verdict) + (e.times > 1 ? words(", drawn × %1").arg(e.times) : QString()), 1);
}

void BetweenView::paint_check(QPainter& painter, const TrialCheck& check, QPointF at) {
    constexpr double radius = 11;
    const Theme& t = inks(painter);
    if (check.kind == "alone") {
        const bool subject = check.arbors.front() == m_document.selection().subject();
        write(painter, type(Type::note, true), subject ? t.blued : t.ink, at + QPointF(radius + 6, -6), words(check.name));
    }
    const bool now = same_arbors(check.arbors, m_marked);
    const QColor ink = check.failed() ? t.ruby : check.passed() ? t.verdigris : t.steel;
    painter.setPen(QPen(now ? t.blued : ink, now ? 2.6 : 1.4, check.last ? Qt::SolidLine : Qt::DotLine));
    painter.setBrush(t.sheet);
    painter.drawEllipse(at, radius, radius);
    const double s = radius * 0.5;
    if (check.passed()) tick_mark(painter, at, s, ink);
    if (check.failed()) {
        painter.setPen(QPen(ink, 2.4));
        painter.drawLine(at + QPointF(-s, -s), at + QPointF(s, s));
        painter.drawLine(at + QPointF(-s, s), at + QPointF(s, -s));
    }
    QString tag = "trial";
    for (const std::string& arbor : check.arbors) tag += ":" + words(arbor);
    const QString how = check.passed() ? words("runs") : check.failed() ? words("does not run") : words("not tried");
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
    const Theme& t = inks(painter);
    const TrainList* train = m_document.selection().train();
    if (!train || m_trials.empty()) return;
    const auto ran = std::count_if(m_trials.begin(), m_trials.end(), [](const TrialCheck& c) { return c.passed(); });
    Column(painter, room.adjusted(2, 10, -4, 0)).section(words("TRIALS IN THE PLATES, %1").arg(words(train->name).toUpper()));
    write(painter, type(Type::figure, true), t.ink, {room.right() - 4, room.top() + 24},
          words("%1 of %2 run").arg(ran).arg(m_trials.size()), 1);
    const double alone_y = room.top() + 54, pair_y = alone_y + 46, train_y = pair_y + 40;
    for (const auto& [word, y] :
         {std::pair{words("alone"), alone_y}, std::pair{words("in pairs"), pair_y}, std::pair{words("all together"), train_y}})
        write(painter, type(Type::text), t.steel, {room.left() + 2, y + 4}, word);
    const double first = room.left() + 120;
    const double step = std::min(124.0, (room.right() - first - 40) / static_cast<double>(std::max<size_t>(1, train->arbors.size() - 1)));
    const auto x_of = [&](const std::string& arbor) {
        const auto at = std::find(train->arbors.begin(), train->arbors.end(), arbor) - train->arbors.begin();
        return first + step * static_cast<double>(at);
    };
    const auto place_of_check = [&](const TrialCheck& check) {
        return QPointF((x_of(check.arbors.front()) + x_of(check.arbors.back())) / 2, check.kind == "alone"  ? alone_y
                                                                                     : check.kind == "pair" ? pair_y
                                                                                                            : train_y);
    };
    painter.setPen(QPen(t.rule, 1.2));
    for (const TrialCheck& check : m_trials) {
        const QPointF at = place_of_check(check);
        if (check.kind == "pair")
            for (const std::string& arbor : check.arbors) painter.drawLine(QPointF(x_of(arbor), alone_y), at);
        else if (check.kind != "alone") painter.drawLine(QPointF(first, at.y()), QPointF(x_of(train->arbors.back()), at.y()));
    }
    for (const TrialCheck& check : m_trials) paint_check(painter, check, place_of_check(check));
    if (const TrialCheck* now = marked()) write_marked(painter, *now, room);
}

/// The trial that is marked: how it went, and how long the train coasts.
void BetweenView::write_marked(QPainter& painter, const TrialCheck& now, const QRectF& room) {
    const Theme& t = inks(painter);
    Flow line(painter, room.adjusted(2, 0, 0, 0), room.bottom() - 34);
    line.say(words(now.name), t.blued, Type::text, true);
    line.say(now.passed()   ? words("runs freely, end shake felt")
             : now.failed() ? words("does not run")
                            : words("not tried yet: a light touch must run it"),
             now.failed() ? t.ruby : t.ink, Type::text);
    const QString before = now.last && now.last->coast_before_s ? words(", before %1 s").arg(*now.last->coast_before_s) : QString();
    const QString coast =
        now.last && now.last->coast_s ? words("at rest after %1 s").arg(*now.last->coast_s) + before : words("W: seconds to rest");
    place({"coast",
           line.say(coast, t.blued, Type::text),
           [this] { ask_coast(); },
           words("From a light touch at the great wheel to rest: kept, and compared at the next trial"),
           {}});
    Column foot(painter, room.adjusted(2, room.height() - 29, 0, 0));
    if (!now.reason.empty()) foot.line(words(now.reason), now.failed() ? t.ruby : t.amber, Type::text);
    else
        foot.line(legend({"between.runs", "between.stuck", "between.next", "between.coast", "between.front|between.back", "sheet.next",
                          "between.leave"}),
                  t.steel);
}

}  // namespace echappe
