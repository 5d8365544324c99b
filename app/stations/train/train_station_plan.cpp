#include <algorithm>
#include <cmath>
#include <set>

#include "drawing/dots.h"
#include "drawing/plate_art.h"
#include "drawing/wheel_art.h"
#include "drawing/words.h"
#include "number/constants.h"
#include "number/units.h"
#include "sheet/marks.h"
#include "stations/train/train_station.h"
#include "theme/theme.h"
#include "train/hands.h"
#include "train/next_measurement.h"

// The plan: what is drawn where it stands.

namespace echappe {
namespace {

constexpr long long plan_points_per_flank = 2;  ///< on the plan a tooth is a few pixels: more would not be seen
constexpr size_t ghosts_shown = 6;
constexpr double unseen_px = 0.25;  ///< a wheel that changed by less is not painted anew

const BlankResult* blank_of(const std::optional<BlankResult>& blank) { return blank ? &*blank : nullptr; }

/// As it stands beside the pinion; nothing for one that is lost or not there.
QString pinion_count_text(const DerivedArbor& arbor) {
    if (!arbor.pinion.count.present() || arbor.pinion.known == Known::missing) return {};
    return QString::number(arbor.pinion.count.value) + (arbor.pinion.doubted ? "?" : "");
}

QRectF pinion_count_box(const DerivedArbor& arbor, QPointF centre) {
    const QString text = pinion_count_text(arbor);
    if (text.isEmpty()) return {};
    const double half = width_of(type(Type::note, true), text) / 2 + 4;
    return {centre.x() - 22 - 2 * half, centre.y() - 21, 2 * half, 16};
}

}  // namespace

void TrainStation::paint_coil(QPainter& painter, QPointF a, QPointF b, double sigma, const QColor& colour) {
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

QColor TrainStation::ink_of(Strain::Pull pull, const Theme& inks) {
    return pull == Strain::Pull::much ? inks.ruby : pull == Strain::Pull::some ? inks.amber : inks.verdigris;
}

void TrainStation::paint_plate(QPainter& painter, const View& view) {
    PlateArt::paint(painter, m_document.job(), {view.px_per_mm, view.origin, false});
    if (m_document.job().train.plate) paint_plate_handles(painter, view);
    // A hole in the back plate that is not opposite.
    const Theme& t = inks(painter);
    painter.setBrush(Qt::NoBrush);
    for (const DerivedArbor& arbor : m_document.derived().train.arbors) {
        if (arbor.back_x_mm == arbor.x_mm && arbor.back_y_mm == arbor.y_mm) continue;
        const QPointF back = view.at(arbor.back_x_mm, arbor.back_y_mm);
        painter.setPen(QPen(t.steel, 1, Qt::DotLine));
        painter.drawLine(view.at(arbor.x_mm, arbor.y_mm), back);
        painter.drawEllipse(back, 5, 5);
        write(painter, type(Type::note), t.steel, back + QPointF(9, 4), words("back"));
    }
}

/// What of the plate can be taken hold of: its pillars, and its right and upper edge.
void TrainStation::paint_plate_handles(QPainter& painter, const View& view) {
    const Theme& t = inks(painter);
    const Plate& plate = *m_document.job().train.plate;
    for (size_t i = 0; i < plate.pillars.size(); ++i) {
        const double reach = std::max(7.0, plate.pillar_mm / 2 * view.px_per_mm);
        place({"pillar:" + QString::number(i),
               QRectF(view.at(plate.pillars[i][0], plate.pillars[i][1]) - QPointF(reach, reach), QSizeF(2 * reach, 2 * reach)),
               {},
               words("A pillar: drag it; the right button takes it away"),
               {}});
    }
    const LengthUnit& unit = m_document.job().length;
    const auto handle = [&](const QString& tag, QPointF at, QPointF way, const QString& says) {
        const QPointF grip[] = {at - way, at + way};
        painter.setPen(QPen(t.blued, 2));
        painter.drawLine(grip[0], grip[1]);
        place({tag, QRectF(at - QPointF(9, 9), QSizeF(18, 18)), {}, says, {}});
    };
    handle("plate:width", view.at(plate.width_mm / 2, plate.height_mm * 0.3), {0, 9},
           words("The plate is %1 wide: drag, or F12 types it").arg(words(unit.write(plate.width_mm, unit.turned()))));
    handle("plate:height", view.at(plate.width_mm * 0.22, plate.height_mm), {9, 0},
           words("The plate is %1 high: drag, or F12 types it").arg(words(unit.write(plate.height_mm, unit.turned()))));
}

void TrainStation::paint_arbor(QPainter& painter, const View& view, const DerivedArbor& arbor) {
    const Theme& t = inks(painter);
    const Derived& derived = m_document.derived();
    const double turned = 2 * pi * arbor.turns_per_s * m_motion.seconds();
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
    if (drawn.empty() && arbor.wheel.count.known()) {
        const bool cut = derived.escapement.wheel && arbor.id == m_document.job().train.escape_arbor;
        QPainterPath wheel = cut ? WheelArt::escape_wheel(*derived.escapement.wheel)
                                 : WheelArt::escape_wheel(arbor.wheel.count.value, arbor.wheel_radius_mm);
        // Its teeth lean the way it turns.
        if (arbor.turns_per_s > 0) wheel = QTransform::fromScale(1, -1).map(wheel);
        paint_part(painter, view, id + ".wheel", centre, wheel, turned, brass, rim);
    }
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
                      kept.ink == pen.color() && kept.image.devicePixelRatio() == dots_in_pixel(painter);
    if (!same || (!m_motion.running() && kept.angle != angle)) {
        const double half = std::max({-bounds.left(), bounds.right(), -bounds.top(), bounds.bottom()}) * view.px_per_mm + 2;
        const double dots = dots_in_pixel(painter);
        QImage image(QSize(static_cast<int>(2 * half * dots) + 1, static_cast<int>(2 * half * dots) + 1),
                     QImage::Format_ARGB32_Premultiplied);
        image.setDevicePixelRatio(dots);
        image.fill(Qt::transparent);
        QPainter into(&image);
        into.setRenderHint(QPainter::Antialiasing);
        into.translate(QRectF(QPointF(), image.deviceIndependentSize()).center());
        into.scale(view.px_per_mm, -view.px_per_mm);
        into.rotate(angle * 180 / pi);
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
        painter.rotate((kept.angle - angle) * 180 / pi);
    }
    const QSizeF size = kept.image.deviceIndependentSize();
    painter.drawImage(QPointF(-size.width() / 2, -size.height() / 2), kept.image);
    painter.restore();
}

/// Every candidate still in the running as a dashed circle at its own size, stronger with its weight.
void TrainStation::paint_ghosts(QPainter& painter, const View& view, const DerivedArbor& arbor) {
    const Theme& t = inks(painter);
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
        const double angle = pi * (0.80 + 0.09 * static_cast<double>(i));
        if (i < rows_shown)
            write(painter, type(Type::note, i == 0), i == 0 ? t.brass_ink : t.steel,
                  centre + QPointF(radius * std::cos(angle) - 4, -radius * std::sin(angle)), QString::number(ghost->teeth), 1);
    }
    const bool open = !arbor.wheel.count.known() || (arbor.pinion.count.present() && !arbor.pinion.count.known());
    if (open) paint_lost(painter, arbor, centre, arbor.wheel_radius_mm * view.px_per_mm);
    painter.setPen(QPen(t.steel, 1.2, Qt::DashLine));
    painter.setBrush(t.sheet);
    painter.drawEllipse(centre, 6, 6);
}

/// Nothing tells the count yet: a wheel of the usual size, and where to give it.
void TrainStation::paint_lost(QPainter& painter, const DerivedArbor& arbor, QPointF centre, double radius) {
    const Theme& t = inks(painter);
    painter.setPen(QPen(arbor.id == m_document.selection().subject() ? t.blued : t.steel, 1.2, Qt::DashLine));
    if (arbor.wheel.count.present() && !arbor.wheel.count.known()) painter.drawEllipse(centre, radius, radius);
    const auto ask = [&](const QString& part, QPointF at) {
        write(painter, type(Type::head, true), t.amber, at, "?", 0);
        place({part, QRectF(at.x() - 14, at.y() - 20, 28, 28), [this, id = arbor.id] { m_document.selection().select(id); },
               words("Not counted yet. Double click to give the count"), [this, p = part.toStdString()] { edit_count(p); }});
    };
    if (arbor.wheel.count.present() && !arbor.wheel.count.known()) ask(words(arbor.id) + ".wheel", centre + QPointF(0, radius * 0.6));
    if (arbor.pinion.count.present() && !arbor.pinion.count.known()) ask(words(arbor.id) + ".pinion", centre + QPointF(-22, 6));
}

void TrainStation::paint_springs(QPainter& painter, const View& view) {
    const Derived& derived = m_document.derived();
    const auto hole = [&](const std::string& id) {
        const DerivedArbor& arbor = *derived.train.arbor(id);
        return view.at(arbor.x_mm, arbor.y_mm);
    };
    for (const Strain& strain : derived.train.strain) {
        if (strain.key.kind != "centre_distance_mm") continue;
        paint_coil(painter, hole(*strain.key.wheel_of), hole(*strain.key.pinion_of), strain.sigma, ink_of(strain.pull(), inks(painter)));
    }
}

/// Where the reading that tells most is to be taken.
void TrainStation::paint_next(QPainter& painter, const View& view) {
    const Theme& t = inks(painter);
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
    const QString leaves = words(leaves_in_words(restore->entropy_bits, derived.train.next_bits.value_or(0)));
    const auto box_at = [&](double dx, double dy) {
        return QRectF(std::clamp(at.x() + dx, left_column + 30.0, width() - 190.0), std::clamp(at.y() + dy, top() + 8, height() - 60.0),
                      176, 40);
    };
    QRectF box = box_at(-214, -128);
    for (const QPointF& other : {QPointF(-214, -128), QPointF(-240, -60), QPointF(-214, 60), QPointF(60, -128), QPointF(60, 60)})
        if (nothing_written_in(box_at(other.x(), other.y()))) {
            box = box_at(other.x(), other.y());
            break;
        }
    painter.setPen(QPen(t.amber, 1));
    painter.drawLine(at,
                     QPointF(std::clamp(at.x(), box.left() + 12, box.right() - 12), at.y() > box.center().y() ? box.bottom() : box.top()));
    painter.setBrush(t.sheet);
    painter.drawRect(box);
    write(painter, type(Type::note, true), t.ink, box.topLeft() + QPointF(8, 16), words("measure this next"));
    write(painter, type(Type::note), t.amber, box.topLeft() + QPointF(8, 32), leaves);
    place({"next", box, [this, key] { emit quantity_wanted(key); }, words("Puts the calliper line on this reading (F2)"), {}});
}

/// On the wheel, in the first of the ways that keeps clear of other arbors and of what is written already.
QPointF TrainStation::label_place(const View& view, const DerivedArbor& arbor, double away) const {
    const QPointF centre = view.at(arbor.x_mm, arbor.y_mm);
    constexpr double clear_px = 70;
    QPointF best;
    double widest = -1;
    best = centre + QPointF(0, away);
    constexpr double slant = 0.707;
    for (const QPointF way : {QPointF(0, 1), QPointF(0, -1), QPointF(-1, 0), QPointF(1, 0), QPointF(-slant, slant), QPointF(slant, slant),
                              QPointF(-slant, -slant), QPointF(slant, -slant)}) {
        const QPointF at = centre + way * away;
        const QRectF box(at - QPointF(24, 18), QSizeF(48, 24));
        if (std::any_of(m_written.begin(), m_written.end(), [&](const QRectF& other) { return other.intersects(box); })) continue;
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
    const Theme& t = inks(painter);
    const auto& arbors = m_document.derived().train.arbors;
    const bool none_measured = std::all_of(arbors.begin(), arbors.end(), [](const DerivedArbor& arbor) { return arbor.position_assumed; });
    m_written.clear();
    for (const DerivedArbor& arbor : arbors)
        if (const QRectF box = pinion_count_box(arbor, view.at(arbor.x_mm, arbor.y_mm)); !box.isNull()) m_written.push_back(box);
    for (const DerivedArbor& arbor : arbors) {
        const QPointF centre = view.at(arbor.x_mm, arbor.y_mm);
        paint_wheel_counts(painter, view, arbor);
        paint_pinion_count(painter, arbor, centre);
        place({"arbor:" + words(arbor.id),
               QRectF(centre.x() - 14, centre.y() - 14, 28, 28),
               [this, id = arbor.id] { m_document.selection().select(id); },
               words(arbor.name),
               {},
               {},
               words(arbor.name),
               arbor.id == m_document.selection().subject(),
               true});
        if (arbor.position_assumed && !none_measured)
            write(painter, type(Type::note), t.steel, centre + QPointF(9, -7), words("place assumed"));
    }
}

/// The count on the wheel with its period below, and at its rim the count of every further wheel on the arbor.
void TrainStation::paint_wheel_counts(QPainter& painter, const View& view, const DerivedArbor& arbor) {
    constexpr double roomy = 60, tight = 40;
    const Theme& t = inks(painter);
    const QPointF centre = view.at(arbor.x_mm, arbor.y_mm);
    const double radius = arbor.wheel_radius_mm * view.px_per_mm;
    const QPointF at = radius > roomy   ? label_place(view, arbor, radius * 0.5)
                       : radius > tight ? label_place(view, arbor, radius * 0.6)
                                        : centre + QPointF(0, radius + 16);
    const bool told = arbor.wheel.known != Known::missing;
    if (arbor.wheel.count.present() && told) {
        const QRectF box = on_paper(painter, type(Type::head, true), arbor.wheel.known == Known::derived ? t.blued : t.ink, at,
                                    QString::number(arbor.wheel.count.value) + (arbor.wheel.doubted ? "?" : ""));
        m_written.push_back(box);
        place({words(arbor.id) + ".wheel",
               box,
               [this, id = arbor.id] { m_document.selection().select(id); },
               words("Teeth. Double click to change the count, ? when it is lost, 96? when it is doubted"),
               [this, p = arbor.id + ".wheel"] { edit_count(p); },
               {},
               words("%1, wheel").arg(words(arbor.name)),
               false,
               true});
    }
    if (arbor.period_s && radius > roomy && told)
        on_paper(painter, type(Type::note), t.blued, at + QPointF(0, 20), words(print_span(*arbor.period_s)));
    for (const DerivedMesh& mesh : m_document.derived().train.meshes) {
        if (mesh.wheel_of != arbor.id || mesh.wheel_part == arbor.id + ".wheel") continue;
        const double rim = mesh.sizes.wheel.pitch_diameter_mm / 2 * view.px_per_mm * 0.8;
        on_paper(painter, type(Type::figure, true), t.ink, centre + QPointF(-0.707, -0.707) * rim, QString::number(mesh.wheel));
    }
}

/// Beside the pinion, so that it can be read and changed where it is.
void TrainStation::paint_pinion_count(QPainter& painter, const DerivedArbor& arbor, QPointF centre) {
    const Theme& t = inks(painter);
    if (pinion_count_text(arbor).isEmpty()) return;
    const QString text = pinion_count_text(arbor);
    const QRectF box = pinion_count_box(arbor, centre);
    const QPointF at(box.center().x(), box.top() + 12);
    QColor paper = t.sheet;
    paper.setAlphaF(0.88f);
    painter.fillRect(box, paper);
    write(painter, type(Type::note, true), arbor.pinion.known == Known::derived ? t.blued : t.steel, at, text, 0);
    place({QString::fromStdString(arbor.id) + ".pinion",
           box.adjusted(-4, -4, 4, 4),
           [this, id = arbor.id] { m_document.selection().select(id); },
           words("Leaves. Double click to change the count, ? when it is lost, 12? when it is doubted"),
           [this, part = arbor.id + ".pinion"] { edit_count(part); },
           {},
           words("%1, pinion").arg(words(arbor.name)),
           false,
           true});
}

/// A small dial at every arbor that carries a hand, with what the hand gains in a year.
void TrainStation::paint_hands(QPainter& painter, const View& view) {
    const Theme& t = inks(painter);
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
            const QPointF way(std::cos(i * pi / 6), std::sin(i * pi / 6));
            painter.drawLine(centre + way * (dial - 5), centre + way * (dial - 1));
        }
        const auto hand = [&](double turns_per_s, double thick, double length) {
            const double turned = pi / 2 + 2 * pi * turns_per_s * m_motion.seconds();
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
        on_paper(painter, type(Type::note, true), t.blued, centre + QPointF(0, dial + 15), words(gain_in_words(*arbor.hand_s_per_year)));
    }
}

}  // namespace echappe
