#include "stations/train/train_station.h"

#include <QKeyEvent>
#include <algorithm>
#include <cmath>
#include <numbers>
#include <set>

#include "document/today.h"
#include "drawing/plate_art.h"
#include "drawing/wheel_art.h"
#include "number/input_error.h"
#include "number/units.h"
#include "theme/theme.h"
#include "train/edits.h"

namespace echappe {
namespace {

constexpr long long plan_points_per_flank = 2;  ///< on the plan a tooth is a few pixels: more would not be seen
constexpr size_t rows_shown = 4;
constexpr size_t ghosts_shown = 6;
constexpr double tooth_room_mm = 1.5;  ///< beyond the pitch circle
constexpr double unseen_px = 0.25;     ///< a wheel that changed by less is not painted anew

QString percent(double weight) {
    if (weight > 0.995) return weight > 0.9995 ? ">99.9 %" : QString::number(100 * weight, 'f', 1) + " %";
    return weight < 0.005 ? "<1 %" : QString::number(100 * weight, 'f', 0) + " %";
}

/// A coil between two points; its turns stretch with the strain.
void paint_spring(QPainter& painter, QPointF a, QPointF b, double sigma, const QColor& colour) {
    const QPointF along = b - a;
    const double length = std::hypot(along.x(), along.y());
    if (length < 20) return;
    const QPointF unit = along / length;
    const QPointF side(-unit.y(), unit.x());
    const double coil = std::min(length * 0.4, 26.0);
    const double start = (length - coil) / 2;
    const double swing = 3.5 + std::min(std::abs(sigma), 6.0) * 0.8;
    QPolygonF line;
    line << a << a + unit * start;
    constexpr int bends = 10;
    for (int i = 0; i < bends; ++i) line << a + unit * (start + coil * (i + 0.5) / bends) + side * (i % 2 ? swing : -swing);
    line << a + unit * (start + coil) << b;
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(colour, 1.4));
    painter.drawPolyline(line);
}

QColor ink_of(Strain::Pull pull) {
    return pull == Strain::Pull::much ? theme().ruby : pull == Strain::Pull::some ? theme().amber : theme().verdigris;
}

const BlankResult* blank_of(const std::optional<BlankResult>& blank) { return blank ? &*blank : nullptr; }

/// To a tenth of a second, or to a minute where hours are told.
double rounded(double seconds) { return seconds < 3600 ? std::round(seconds * 10) / 10 : std::round(seconds / 60) * 60; }

}  // namespace

TrainStation::TrainStation(const Workbench& bench)
    : Station(bench.document, nullptr),
      m_motion(bench.motion),
      m_workshop(bench.workshop),
      m_line(bench.line),
      m_search(bench.document),
      m_question(new QLineEdit(this)),
      m_editor(new InPlaceEditor(this)) {
    setAccessibleName(tr("Train"));
    tell_cutters();
    connect(&m_workshop, &Workshop::changed, this, &TrainStation::tell_cutters);
    m_editor->setAccessibleName(tr("count"));
    connect(m_editor, &InPlaceEditor::refused, this, [this](const QString& sentence) { emit told(sentence, true); });
    m_question->hide();
    m_question->setFont(word_font(11));
    m_question->setAccessibleName(tr("train asked for"));
    m_question->installEventFilter(this);
    // Up to five stages of usual counts answer within a keystroke.
    connect(m_question, &QLineEdit::textChanged, this, [this](const QString& text) {
        if (!text.trimmed().isEmpty()) m_search.ask(text);
    });
    connect(&m_search, &TrainSearch::moved, this, qOverload<>(&QWidget::update));
    connect(&m_document, &Document::changed, this, qOverload<>(&QWidget::update));
    connect(&m_document.selection(), &Selection::changed, this, [this] {
        m_moved_mm.reset();
        update();
    });
    connect(&m_document.weigher(), &Weigher::moved, this, qOverload<>(&QWidget::update));
    connect(&m_motion, &Motion::moved, this, qOverload<>(&QWidget::update));
}

TrainStation::View TrainStation::view_of_plate() const {
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
    const QRectF room(left_column + 10, 22, width() - left_column - 34, height() - 62);
    View view;
    view.px_per_mm = std::max(0.1, std::min(room.width() / std::max(high_x - low_x, 1.0), room.height() / std::max(high_y - low_y, 1.0)));
    view.origin =
        QPointF(room.center().x() - (low_x + high_x) / 2 * view.px_per_mm, room.center().y() + (low_y + high_y) / 2 * view.px_per_mm);
    return view;
}

void TrainStation::paint(QPainter& painter) {
    const Theme& t = theme();
    painter.fillRect(rect(), t.ground);
    if (m_document.derived().train.arbors.empty()) {
        write(painter, figure_font(18), t.ink, {column_x, 60}, tr("Nothing on the bench"));
        write_wrapped(painter, word_font(11), t.steel, {column_x, 78}, 460,
                      tr("Open a job with Ctrl+O, drop a job file here, or begin with the demo: Job, then Tide-house regulator."));
        return;
    }
    const View view = view_of_plate();
    paint_plate(painter, view);
    for (const DerivedArbor& arbor : m_document.derived().train.arbors) {
        const bool lost = arbor.wheel.known == Known::missing && arbor.wheel.count.present();
        if (lost) paint_ghosts(painter, view, arbor);
        else paint_arbor(painter, view, arbor);
    }
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
        double y = 34;
        y = paint_candidates(painter, y);
        paint_evidence(painter, y);
    }
    paint_foot(painter, view);
}

void TrainStation::paint_plate(QPainter& painter, const View& view) {
    PlateArt::paint(painter, m_document.job(), {view.px_per_mm, view.origin, false});
}

void TrainStation::paint_arbor(QPainter& painter, const View& view, const DerivedArbor& arbor) {
    const Theme& t = theme();
    const Derived& derived = m_document.derived();
    const double turned = 2 * std::numbers::pi * arbor.turns_per_s * m_motion.seconds();
    const bool subject = arbor.id == m_document.selection().subject();
    const QPointF centre = view.at(arbor.x_mm, arbor.y_mm);
    const QString id = QString::fromStdString(arbor.id);
    QColor brass = t.pale_brass;
    brass.setAlphaF(0.82f);
    const QPen rim(subject ? t.blued : t.brass, 1.0, arbor.wheel.known == Known::assumed ? Qt::DotLine : Qt::SolidLine);
    std::set<std::string> drawn;
    for (const DerivedMesh& mesh : derived.train.meshes) {
        if (mesh.wheel_of != arbor.id || !drawn.insert(mesh.wheel_part).second) continue;
        paint_part(painter, view, QString::fromStdString(mesh.wheel_part), centre,
                   WheelArt::part(mesh.geometry(), true, plan_points_per_flank, blank_of(derived.making.of(mesh).wheel_blank)), turned,
                   brass, rim);
    }
    if (drawn.empty() && arbor.wheel.count.known())
        paint_part(painter, view, id + ".wheel", centre, WheelArt::escape_wheel(arbor.wheel.count.value, arbor.wheel_radius_mm), turned,
                   brass, rim);
    for (const DerivedMesh& mesh : derived.train.meshes) {
        if (mesh.pinion_of != arbor.id) continue;
        // A large driven wheel is a wheel to the eye, and of brass.
        const bool large = mesh.pinion >= driven_wheel_leaves;
        paint_part(
            painter, view, id + ".pinion", centre,
            WheelArt::part(mesh.geometry(), false, large ? plan_points_per_flank : 8, blank_of(derived.making.of(mesh).pinion_blank)),
            mesh.pinion_angle + turned, large ? brass : t.steel, large ? rim : QPen(t.ink, 0.7));
    }
    painter.setPen(Qt::NoPen);
    painter.setBrush(t.ink);
    painter.drawEllipse(view.at(arbor.x_mm, arbor.y_mm), 2.5, 2.5);
}

void TrainStation::paint_part(QPainter& painter, const View& view, const QString& tag, QPointF centre, const QPainterPath& path,
                              double angle, const QColor& fill, const QPen& pen) {
    Picture& kept = m_pictures[tag];
    const QRectF bounds = path.boundingRect();
    const bool same = kept.px_per_mm == view.px_per_mm && kept.points == path.elementCount() &&
                      std::abs(kept.bounds_mm.width() - bounds.width()) * view.px_per_mm < unseen_px && kept.fill == fill &&
                      kept.ink == pen.color() && kept.image.devicePixelRatio() == devicePixelRatioF();
    if (!same || (!m_motion.running() && kept.angle != angle)) {
        const double half = std::max({-bounds.left(), bounds.right(), -bounds.top(), bounds.bottom()}) * view.px_per_mm + 2;
        const double dots = devicePixelRatioF();
        QImage image(QSize(static_cast<int>(2 * half * dots) + 1, static_cast<int>(2 * half * dots) + 1),
                     QImage::Format_ARGB32_Premultiplied);
        image.setDevicePixelRatio(dots);
        image.fill(Qt::transparent);
        QPainter into(&image);
        into.setRenderHint(QPainter::Antialiasing);
        into.translate(QRectF(QPointF(), image.deviceIndependentSize()).center());
        into.scale(view.px_per_mm, -view.px_per_mm);
        into.rotate(angle * 180 / std::numbers::pi);
        QPen thin = pen;
        thin.setCosmetic(true);
        into.setPen(thin);
        into.setBrush(fill);
        into.drawPath(path);
        kept = {image, angle, view.px_per_mm, path.elementCount(), bounds, fill, pen.color()};
    }
    painter.save();
    painter.translate(centre);
    if (kept.angle != angle) {
        painter.setRenderHint(QPainter::SmoothPixmapTransform);
        painter.rotate((kept.angle - angle) * 180 / std::numbers::pi);
    }
    const QSizeF size = kept.image.deviceIndependentSize();
    painter.drawImage(QPointF(-size.width() / 2, -size.height() / 2), kept.image);
    painter.restore();
}

/// Every candidate still in the running as a dashed circle at its own size, stronger with its weight.
void TrainStation::paint_ghosts(QPainter& painter, const View& view, const DerivedArbor& arbor) {
    const Theme& t = theme();
    const Derived& derived = m_document.derived();
    const QPointF centre = view.at(arbor.x_mm, arbor.y_mm);
    painter.setBrush(Qt::NoBrush);
    for (auto ghost = derived.train.ghosts.rbegin(); ghost != derived.train.ghosts.rend(); ++ghost) {
        const size_t i = ghost->candidate;
        if (ghost->arbor != arbor.id || i >= ghosts_shown) continue;
        QColor ink = t.brass;
        ink.setAlphaF(static_cast<float>(0.25 + 0.75 * ghost->weight));
        QPen pen(ink, i == 0 ? 2.0 : 1.2);
        pen.setDashPattern(i == 0 ? QList<qreal>{5, 3} : QList<qreal>{2, 4});
        painter.setPen(pen);
        const double radius = ghost->radius_mm * view.px_per_mm;
        painter.drawEllipse(centre, radius, radius);
        const double angle = std::numbers::pi * (0.80 + 0.09 * static_cast<double>(i));
        if (i < rows_shown)
            write(painter, word_font(8.5, i == 0), i == 0 ? t.brass_ink : t.steel,
                  centre + QPointF(radius * std::cos(angle) - 4, -radius * std::sin(angle)), QString::number(ghost->teeth), 1);
    }
    painter.setPen(QPen(t.steel, 1.2, Qt::DashLine));
    painter.setBrush(t.sheet);
    painter.drawEllipse(centre, 6, 6);
}

void TrainStation::paint_springs(QPainter& painter, const View& view) {
    const Derived& derived = m_document.derived();
    const auto hole = [&](const std::string& id) {
        const DerivedArbor& arbor = *derived.train.arbor(id);
        return view.at(arbor.x_mm, arbor.y_mm);
    };
    for (const Strain& strain : derived.train.strain) {
        if (strain.key.kind != "centre_distance_mm") continue;
        paint_spring(painter, hole(*strain.key.wheel_of), hole(*strain.key.pinion_of), strain.sigma, ink_of(strain.pull()));
    }
}

/// Where the reading that tells most is to be taken.
void TrainStation::paint_next(QPainter& painter, const View& view) {
    const Theme& t = theme();
    const Derived& derived = m_document.derived();
    const auto hole = [&](const std::string& id) {
        const DerivedArbor& arbor = *derived.train.arbor(id);
        return view.at(arbor.x_mm, arbor.y_mm);
    };
    const auto& restore = derived.train.restore;
    if (!restore || !restore->next_measurement || derived.train.chosen) return;
    const QuantityKey& key = restore->next_measurement->key;
    QPointF at;
    if (key.wheel_of && key.pinion_of) {
        const QPointF a = hole(*key.wheel_of);
        const QPointF b = hole(*key.pinion_of);
        painter.setPen(QPen(t.amber, 1.6, Qt::DashLine));
        painter.drawLine(a, b);
        at = (a + b) / 2;
    } else if (key.arbor) {
        at = hole(*key.arbor);
    } else {
        return;
    }
    const double drop = derived.train.next_bits.value_or(0);
    const QString bits = drop < 0.1 ? tr("under 0.1") : QString::number(drop, 'f', 1);
    const QRectF box(std::max(at.x() - 214, left_column + 30.0), at.y() - 128, 176, 40);
    painter.setPen(QPen(t.amber, 1));
    painter.drawLine(at, box.bottomRight() - QPointF(12, 0));
    painter.setBrush(t.sheet);
    painter.drawRect(box);
    write(painter, word_font(9, true), t.ink, box.topLeft() + QPointF(8, 16), tr("not taken yet"));
    write(painter, word_font(8.5), t.amber, box.topLeft() + QPointF(8, 32), tr("measure next: %1 bit").arg(bits));
    place({"next", box, [this, key] { emit quantity_wanted(key); }, tr("Puts the calliper line on this reading (F2)"), {}});
}

/// On the wheel, in the first of four ways that keeps clear of other arbors.
QPointF TrainStation::label_place(const View& view, const DerivedArbor& arbor, double away) const {
    const QPointF centre = view.at(arbor.x_mm, arbor.y_mm);
    constexpr double clear_px = 70;
    QPointF best;
    double widest = -1;
    for (const QPointF way : {QPointF(0, 1), QPointF(0, -1), QPointF(-1, 0), QPointF(1, 0)}) {
        const QPointF at = centre + way * away;
        double nearest = clear_px;
        for (const DerivedArbor& other : m_document.derived().train.arbors)
            if (other.id != arbor.id) nearest = std::min(nearest, QLineF(at, view.at(other.x_mm, other.y_mm)).length());
        if (nearest <= widest) continue;
        widest = nearest;
        best = at;
    }
    return best;
}

void TrainStation::paint_labels(QPainter& painter, const View& view) {
    const Theme& t = theme();
    for (const DerivedArbor& arbor : m_document.derived().train.arbors) {
        const QPointF centre = view.at(arbor.x_mm, arbor.y_mm);
        const double radius = arbor.wheel_radius_mm * view.px_per_mm;
        const QPointF at = radius > 60 ? label_place(view, arbor, radius * 0.5) : centre + QPointF(0, radius + 16);
        const QString part = QString::fromStdString(arbor.id) + ".wheel";
        if (arbor.wheel.count.present() && arbor.wheel.known != Known::missing) {
            const QString text = QString::number(arbor.wheel.count.value) + (arbor.wheel.doubted ? "?" : "");
            const double half = width_of(figure_font(15), text) / 2 + 5;
            const QRectF box(at.x() - half, at.y() - 17, 2 * half, 23);
            QColor paper = t.sheet;
            paper.setAlphaF(0.88f);
            painter.fillRect(box, paper);
            write(painter, figure_font(15), arbor.wheel.known == Known::derived ? t.blued : t.ink, at, text, 0);
            place({part, box, [this, id = arbor.id] { m_document.selection().select(id); },
                   tr("Teeth. Double click to change the count, ? when it is lost, 96? when it is doubted"),
                   [this, p = arbor.id + ".wheel"] { edit_count(p); }});
        }
        if (arbor.period_s && radius > 60 && arbor.wheel.known != Known::missing) {
            const QString span = QString::fromStdString(print_span(*arbor.period_s));
            const double half = width_of(word_font(9), span) / 2 + 4;
            painter.fillRect(QRectF(at.x() - half, at.y() + 8, 2 * half, 16), t.sheet);
            write(painter, word_font(9), t.blued, at + QPointF(0, 20), QString::fromStdString(print_span(*arbor.period_s)), 0);
        }
        paint_pinion_count(painter, arbor, centre);
        for (const DerivedMesh& mesh : m_document.derived().train.meshes) {
            if (mesh.wheel_of != arbor.id || mesh.wheel_part == arbor.id + ".wheel") continue;
            // A further wheel on the same arbor: its count at its rim.
            const QPointF rim = centre + QPointF(-0.707, -0.707) * (mesh.sizes.wheel.pitch_diameter_mm / 2 * view.px_per_mm * 0.8);
            QColor paper = t.sheet;
            paper.setAlphaF(0.88f);
            painter.fillRect(QRectF(rim.x() - 13, rim.y() - 13, 26, 17), paper);
            write(painter, figure_font(11), t.ink, rim, QString::number(mesh.wheel), 0);
        }
        place({"arbor:" + QString::fromStdString(arbor.id),
               QRectF(centre.x() - 14, centre.y() - 14, 28, 28),
               [this, id = arbor.id] { m_document.selection().select(id); },
               QString::fromStdString(arbor.name),
               {}});
        if (arbor.position_assumed) write(painter, word_font(8), t.steel, centre + QPointF(9, -7), tr("place assumed"));
    }
}

/// Beside the pinion, so that it can be read and changed where it is.
void TrainStation::paint_pinion_count(QPainter& painter, const DerivedArbor& arbor, QPointF centre) {
    const Theme& t = theme();
    if (!arbor.pinion.count.present() || arbor.pinion.known == Known::missing) return;
    const QString text = QString::number(arbor.pinion.count.value) + (arbor.pinion.doubted ? "?" : "");
    const double half = width_of(word_font(9, true), text) / 2 + 4;
    const QPointF at = centre + QPointF(-22 - half, -9);
    const QRectF box(at.x() - half, at.y() - 12, 2 * half, 16);
    QColor paper = t.sheet;
    paper.setAlphaF(0.88f);
    painter.fillRect(box, paper);
    write(painter, word_font(9, true), arbor.pinion.known == Known::derived ? t.blued : t.steel, at, text, 0);
    place({QString::fromStdString(arbor.id) + ".pinion", box.adjusted(-4, -4, 4, 4),
           [this, id = arbor.id] { m_document.selection().select(id); },
           tr("Leaves. Double click to change the count, ? when it is lost, 12? when it is doubted"),
           [this, part = arbor.id + ".pinion"] { edit_count(part); }});
}

/// A small dial at every arbor that carries a hand, with what the hand gains in a year.
void TrainStation::paint_hands(QPainter& painter, const View& view) {
    const Theme& t = theme();
    for (const DerivedArbor& arbor : m_document.derived().train.arbors) {
        if (!arbor.hand) continue;
        const QPointF centre = view.at(arbor.x_mm, arbor.y_mm);
        constexpr double dial = 30;
        QColor paper = t.sheet;
        paper.setAlphaF(0.9f);
        painter.setPen(QPen(t.ink, 1));
        painter.setBrush(paper);
        painter.drawEllipse(centre, dial, dial);
        for (int i = 0; i < 12; ++i) {
            const QPointF way(std::cos(i * std::numbers::pi / 6), std::sin(i * std::numbers::pi / 6));
            painter.drawLine(centre + way * (dial - 5), centre + way * (dial - 1));
        }
        const auto hand = [&](double turns_per_s, double thick, double length) {
            const double turned = std::numbers::pi / 2 + 2 * std::numbers::pi * turns_per_s * m_motion.seconds();
            const QPointF way(std::cos(turned), -std::sin(turned));
            painter.setPen(QPen(t.blued, thick, Qt::SolidLine, Qt::RoundCap));
            painter.drawLine(centre - way * 6, centre + way * length);
        };
        // On one axis with another arbor, as hour and minute hand: both are seen.
        const auto& axis = m_document.job().train.arbor(arbor.id)->train.coaxial_with;
        const DerivedArbor* under = axis ? m_document.derived().train.arbor(*axis) : nullptr;
        if (under) hand(under->turns_per_s, 1.4, dial - 3);
        hand(arbor.turns_per_s, 2.4, under ? dial - 13 : dial - 6);
        if (!arbor.hand_s_per_year) continue;
        const double gain = *arbor.hand_s_per_year;
        const QString words = std::abs(gain) < 0.05 ? tr("keeps time exactly")
                                                    : (gain > 0 ? tr("gains ") : tr("loses ")) +
                                                          QString::fromStdString(print_span(rounded(std::abs(gain)))) + tr(" a year");
        const double half = width_of(word_font(9, true), words) / 2 + 4;
        painter.fillRect(QRectF(centre.x() - half, centre.y() + dial + 3, 2 * half, 16), paper);
        write(painter, word_font(9, true), t.blued, centre + QPointF(0, dial + 15), words, 0);
    }
}

/// What is lost leaves too many combinations for a keystroke: how far the weighing is, and how to end it.
double TrainStation::paint_weighing(QPainter& painter, double y) {
    const Theme& t = theme();
    const QString combinations = QString::fromStdString(print_many(static_cast<double>(*m_document.derived().train.to_weigh)));
    const bool running = m_document.weigher().running();
    write(painter, word_font(8.5, true), t.steel, {column_x, y}, running ? tr("WEIGHING WHAT IS LOST") : tr("NOT WEIGHED"));
    y += 20;
    const QRectF bar(column_x, y, left_column - column_x - 14, 8);
    painter.setPen(QPen(t.rule, 1));
    painter.setBrush(t.sheet);
    painter.drawRect(bar);
    if (running) painter.fillRect(QRectF(bar.topLeft(), QSizeF(bar.width() * m_document.weigher().done(), bar.height())), t.brass);
    y += 34;
    write(painter, figure_font(15), t.ink, {column_x, y},
          running ? QString::number(100 * m_document.weigher().done(), 'f', 0) + " %" : QString("–"));
    write(painter, word_font(9.5), t.blued, {bar.right(), y}, running ? tr("stop  Esc") : tr("weigh them"), 1);
    place({"weighing",
           QRectF(column_x - 6, bar.top() - 24, bar.width() + 12, 66),
           [this, running] { running ? m_document.weigher().stop() : m_document.weigh(); },
           running ? tr("Click to stop") : tr("Click to weigh them all"),
           {}});
    y += write_wrapped(
        painter, word_font(9), t.steel, {column_x, y + 10}, bar.width(),
        tr("%1 combinations of the lost counts. Any further reading of a lost arbor's mesh, or narrower limits, cuts them down.")
            .arg(combinations));
    return y + 42;
}

double TrainStation::paint_candidates(QPainter& painter, double y) {
    const Theme& t = theme();
    const Derived& derived = m_document.derived();
    if (derived.train.to_weigh) return paint_weighing(painter, y);
    if (!derived.train.restore || derived.train.restore->candidates.empty()) return y;
    write(painter, word_font(8.5, true), t.steel, {column_x, y}, derived.train.chosen ? tr("CHOSEN FOR WHAT IS LOST") : tr("WHAT IS LOST"));
    y += 34;
    const auto& candidates = derived.train.restore->candidates;
    for (size_t i = 0; i < std::min(rows_shown, candidates.size()); ++i) {
        const bool shown = derived.train.shown_candidate == i;
        const bool chosen = shown && derived.train.chosen;
        const QString counts = QString::fromStdString(counts_in_words(candidates[i]));
        const double wanted = i == 0 ? 22 : 14;
        const double room = left_column - column_x - 100;
        const double size = wanted * std::min(1.0, room / width_of(figure_font(wanted, shown), counts));
        const double text = write(painter, figure_font(size, shown), chosen ? t.blued : shown ? t.ink : t.steel, {column_x, y}, counts);
        const double bar_x = column_x + std::max(i == 0 ? 120.0 : 92.0, text + 12);
        const double full = std::max(0.0, left_column - bar_x - 72);
        painter.fillRect(QRectF(bar_x, y - size * 0.75, std::max(2.0, full * candidates[i].weight), i == 0 ? 9 : 7),
                         shown ? t.brass : t.pale_brass);
        write(painter, word_font(9.5), t.ink, {bar_x + full * candidates[i].weight + 7, y - 1}, percent(candidates[i].weight));
        const QRectF row(column_x - 8, y - size * 1.3, left_column - column_x, size * 1.8);
        if (hasFocus() && shown) {
            painter.setPen(QPen(t.blued, 1, Qt::DotLine));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(row);
        }
        place({"candidate:" + QString::number(i),
               row,
               [this, i, chosen] {
                   chosen ? m_document.edit(withdraw_choice()) : m_document.edit(choose(m_document.derived().train, i, today()));
               },
               chosen ? tr("Click to withdraw the choice") : tr("Click to choose these counts; undo takes it back"),
               {}});
        y += i == 0 ? 34 : 28;
    }
    const size_t in_running = derived.train.in_the_running;
    const QString words = derived.train.chosen ? tr("Chosen. Click it again, or undo, to open the question.")
                          : in_running > 1     ? tr("%1 of %2 considered still fit. Sizes tell them apart: take the reading below.")
                                                 .arg(in_running)
                                                 .arg(derived.train.restore->considered)
                                           : tr("One of %1 fits. Enter or a click chooses it.").arg(derived.train.restore->considered);
    y += write_wrapped(painter, word_font(9), t.steel, {column_x, y - 8}, left_column - column_x - 12, words);
    return y + 26;
}

double TrainStation::paint_evidence(QPainter& painter, double y) {
    const Theme& t = theme();
    const Derived& derived = m_document.derived();
    if (m_document.job().train.measurements.empty()) return y;
    write(painter, word_font(8.5, true), t.steel, {column_x, y}, tr("EVIDENCE AND ITS STRAIN"));
    y += 22;
    for (const Measurement& m : m_document.job().train.measurements) {
        if (y > height() - 92) break;
        const auto strain = std::find_if(derived.train.strain.begin(), derived.train.strain.end(),
                                         [&](const Strain& s) { return s.key == m.evidence.key; });
        const bool believed = !m.left_out && strain != derived.train.strain.end();
        const double sigma = believed ? strain->sigma : 0;
        write(painter, word_font(9), m.left_out ? t.steel : t.ink, {column_x, y},
              QString::fromStdString(m_document.job().train.name_of_quantity(m.evidence.key)));
        const QString unit = QString::fromStdString(m.evidence.key.unit());
        const QString value = QString::fromStdString(print_short(m.evidence.value, 6)) + " ± " + QString::number(m.evidence.u) + " " + unit;
        write(painter, word_font(8.5), t.steel, {column_x, y + 15}, value);
        if (believed) {
            paint_spring(painter, {left_column - 92.0, y + 11}, {left_column - 92.0 + 30 + 4 * std::min(std::abs(sigma), 6.0), y + 11},
                         sigma, ink_of(strain->pull()));
            write(painter, word_font(8.5, strain->pull() != Strain::Pull::none), ink_of(strain->pull()), {left_column - 8.0, y + 15},
                  QString::number(std::abs(sigma), 'f', 1) + " σ", 1);
        } else {
            write(painter, word_font(8.5), t.steel, {left_column - 8.0, y + 15}, m.left_out ? tr("left out") : tr("waits"), 1);
        }
        place({"evidence:" + QString::fromStdString(m.id),
               QRectF(column_x - 6, y - 13, left_column - column_x, 34),
               [this, key = m.evidence.key, out = m.left_out] { m_document.edit(leave_out(key, !out)); },
               m.left_out ? tr("Click to believe it again") : tr("Click to leave it out and see what the rest says"),
               {}});
        y += 38;
    }
    return y;
}

void TrainStation::paint_foot(QPainter& painter, const View& view) {
    const Theme& t = theme();
    const double bar = 20 * view.px_per_mm;
    const QPointF from(column_x, height() - 24.0);
    painter.setPen(QPen(t.ink, 1.4));
    painter.drawLine(from, from + QPointF(bar, 0));
    painter.drawLine(from + QPointF(0, -4), from + QPointF(0, 4));
    painter.drawLine(from + QPointF(bar, -4), from + QPointF(bar, 4));
    write(painter, word_font(8.5), t.ink, from + QPointF(bar / 2, -8), "20 mm", 0);
    write(painter, word_font(8.5), t.steel, {width() - 20.0, height() - 18.0},
          (m_motion.running() ? tr("turning, ") : tr("standing, ")) + m_motion.speed_text() +
              tr("   ·   Space  ·  Shift+Space one beat  ·  [ slower  ] faster"),
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
                  words(count_as_typed(m_document.job().train, part)),
                  [this, part](const QString& text) { m_document.edit(set_count(part, text.toStdString())); });
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
    const QString menu = tr("&Edit");
    const auto find = [this] {
        // A hand is asked for by its name.
        const JobArbor* subject = m_document.job().train.arbor(m_document.selection().subject());
        ask_for_trains(subject && subject->hand ? QString::fromStdString(*subject->hand) : QString());
    };
    const auto divide = [this] {
        const auto head = m_workshop.stock().head();
        if (!head) throw InputError("plates", "none in the drawer", "a dividing plate with its worm ratio: Ctrl+Shift+W");
        m_document.edit(tr("Divide with the workshop's plates"), [&](Job& job) { job.making.dividing_head = head; });
    };
    return depthing_actions() + climbing() +
           QList<Action>{{"train.choose", tr("Choose the counts that are shown"), {Qt::Key_Return}, [this] { choose_shown(); }},
                         {"train.stop",
                          tr("Stop weighing"),
                          {Qt::Key_Escape},
                          [this] { m_document.weigher().stop(); },
                          {},
                          {},
                          [this] { return m_document.weigher().running(); }},
                         {"train.wheel",
                          tr("Change the wheel's count…"),
                          {tr("Ctrl+T")},
                          [this] { edit_count(m_document.selection().subject() + ".wheel"); },
                          menu,
                          {},
                          {},
                          true},
                         {"train.pinion",
                          tr("Change the pinion's count…"),
                          {tr("Ctrl+L")},
                          [this] { edit_count(m_document.selection().subject() + ".pinion"); },
                          menu},
                         {"train.find", tr("Find a train…"), {tr("Ctrl+F")}, find, menu},
                         {"train.divide", tr("Divide with the workshop's plates"), {}, divide, menu, {}, {}, true}};
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
    const auto found = [this, picked = false]() mutable {
        if (m_search.running()) return false;
        if (!std::exchange(picked, true)) m_search.pick(3);
        return true;
    };
    return {{"train-before", "tide-house"},
            {"train-one-reading", {}, [read] { read(1); }},
            {"train-measured", {}, [read] { read(3); }, {}, {}, "module, Centre"},
            {"train-chosen", {}, [this] { m_document.edit(choose(m_document.derived().train, 0, today())); }, {}, {}, "module, Centre"},
            {"train-depthing", {}, depthing, {}, [this] { show_depthing(false); }},
            {"train-finder", {}, find, found},
            {"train-tide", {}, take, {}, back}};
}

void TrainStation::resizeEvent(QResizeEvent*) { m_editor->leave(); }

}  // namespace echappe
