#include "stations/power/power_station.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "number/input_error.h"
#include "number/units.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double drive_share = 0.44;  ///< of the width; the torque has the rest
constexpr double upper_share = 0.56;  ///< of the height; the flow has the rest

const std::vector<std::string>& fields_of(const std::string& kind) {
    static const std::vector<std::string> weight = {"drum_diameter_mm", "line_diameter_mm", "weight_kg",      "moving_pulleys",
                                                    "drum_length_mm",   "room_mm",          "least_weight_kg"};
    static const std::vector<std::string> spring = {"barrel_bore_mm", "arbor_mm",  "barrel_height_mm",   "width_mm",
                                                    "thickness_mm",   "length_mm", "opened_diameter_mm", "end",
                                                    "cracked",        "least_N_mm"};
    static const std::vector<std::string> fusee = {"barrel_bore_mm",
                                                   "arbor_mm",
                                                   "barrel_height_mm",
                                                   "width_mm",
                                                   "thickness_mm",
                                                   "length_mm",
                                                   "opened_diameter_mm",
                                                   "end",
                                                   "barrel_diameter_mm",
                                                   "line_diameter_mm",
                                                   "large_diameter_mm",
                                                   "small_diameter_mm",
                                                   "cracked",
                                                   "least_N_mm"};
    return kind == "weight" ? weight : kind == "spring" ? spring : fusee;
}

}  // namespace

PowerStation::PowerStation(Document& document, Workshop& workshop, QWidget* parent)
    : Canvas(parent), m_document(document), m_workshop(workshop), m_card(new SumCard(document, {}, this)) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Power"));
    connect(m_card, &SumCard::told, this, &PowerStation::told);
    connect(&document, &Document::changed, this, &PowerStation::refresh);
    connect(&document, &Document::subject_changed, this, &PowerStation::refresh);
}

const DerivedPower* PowerStation::power() const {
    const TrainList* train = m_document.train();
    for (const DerivedPower& power : m_document.derived().power)
        if (train && power.train == train->id) return &power;
    return m_document.derived().power.empty() ? nullptr : &m_document.derived().power.front();
}

void PowerStation::refresh() {
    const DerivedPower* now = power();
    const std::string kind = now ? now->drive.kind : "";
    if (kind != m_kind) {
        m_kind = kind;
        m_wound = 1;
        m_card->set_tabs(now ? tabs() : std::vector<SumCard::Tab>());
    }
    m_card->show_part(now ? words(m_document.job().name_of_arbor(now->arbor)) + tr(", drive") : QString());
    update();
}

SumAnswer PowerStation::measured() const {
    SumAnswer answer;
    const DerivedPower* now = power();
    if (!now) return answer;
    answer.asked = lines_of(DriveRecord::record(), &now->drive, fields_of(now->drive.kind));
    if (now->verdict) answer.found.push_back({"verdict", "", now->verdict->reason, "", ""});
    if (!now->missing.empty()) answer.found.push_back({"missing", "", "To be given: " + now->missing + ".", "", ""});
    const bool weight = now->drive.kind == "weight";
    answer.found.push_back(
        {"caution", "",
         weight ? "A falling weight breaks feet and floors: hook it last, with the click seen to hold, and stand aside."
                : "A wound spring is stored energy. Let down with a key that fits, hand in a glove, eyes covered; never open a "
                  "wound barrel. In doubt leave it to someone practised.",
         "", ""});
    answer.fault = now->fault;
    return answer;
}

std::optional<SpringMatchResult> PowerStation::strips() const {
    const DerivedPower* now = power();
    if (!now || now->drive.kind == "weight" || !now->spring || !now->drive.barrel_height_mm || !now->turns) return {};
    const DriveRecord& drive = now->drive;
    SpringMatchInput in;
    in.barrel_bore_mm = *drive.barrel_bore_mm;
    in.arbor_mm = *drive.arbor_mm;
    in.barrel_height_mm = *drive.barrel_height_mm;
    in.turns_needed = *now->turns;
    in.least_N_mm = now->least_N_mm;
    in.end = drive.end;
    if (now->log) in.mean_N_mm = now->log->mean_N_mm;
    if (drive.width_mm && drive.thickness_mm)
        in.old = OldSpring{*drive.width_mm, *drive.thickness_mm, now->spring->length_mm, 1, drive.opened_diameter_mm, drive.cracked};
    if (drive.kind == "fusee") {
        if (!now->barrel_turns) return {};
        // The barrel turns less often than the fusee, and its torque is as much higher.
        const double gear = *now->turns / *now->barrel_turns;
        in.turns_needed = *now->barrel_turns;
        if (in.least_N_mm) *in.least_N_mm *= gear;
        if (in.mean_N_mm) *in.mean_N_mm *= gear;
    }
    in.stock = m_workshop.stock().strips;
    try {
        return match_spring(in);
    } catch (const InputError&) {
        return {};  // neither least torque nor an old spring: nothing to match
    }
}

SumAnswer PowerStation::ranked() const {
    SumAnswer answer;
    const auto match = strips();
    if (!match) {
        answer.fault = "Strips are ranked once barrel, arbor, height and a torque are known.";
        return answer;
    }
    answer.found.push_back({"wanted_N_mm", "wanted at the barrel: " + match->wanted_from, print_short(match->wanted_N_mm, 4), "N mm", ""});
    for (const SchoolOfSprings& school : match->schools)
        answer.found.push_back({"school", "", "The old spring, by " + school.school + ": " + school.verdict + ". " + school.why, "", ""});
    constexpr size_t shown = 7;
    for (size_t i = 0; i < match->ranked.size() && i < shown; ++i) {
        const MatchedStrip& m = match->ranked[i];
        answer.found.push_back({"strip", "",
                                m.id + ", " + print_short(m.width_mm) + " × " + print_short(m.thickness_mm) + " × " +
                                    print_fixed(m.length_mm, 0) + " mm: " + m.verdict + ". " + m.reason,
                                "", ""});
    }
    return answer;
}

std::vector<SumCard::Tab> PowerStation::tabs() {
    const auto part = [this] { return power() ? power()->arbor + ".drive" : std::string(); };
    const auto facts = [this] {
        std::map<std::string, double> known;
        const DerivedPower* now = power();
        if (!now) return known;
        known = numbers_of(DriveRecord::record(), &now->drive);
        if (now->drive.kind == "weight" && now->turns) known["turns"] = *now->turns;
        if (now->drive.kind == "fusee" && now->turns) known["fusee_turns"] = *now->turns;
        if (now->turns) known["turns_needed"] = *now->turns;
        return known;
    };
    const auto sum = [&](const QString& name, const Calculation& calculation) {
        return SumCard::of_sum(m_document, name, calculation, part, facts);
    };
    std::vector<SumCard::Tab> list = {{tr("as measured"), tr("What is there. A figure is typed where it stands; empty takes it out."),
                                       [this] { return measured(); },
                                       [this](Job& job, const std::string& field, const std::string& word) {
                                           const std::string train = power()->train;
                                           for (DriveRecord& drive : job.drives)
                                               if (drive.train == train) type_into_record(DriveRecord::record(), &drive, field, word);
                                       }}};
    if (m_kind == "weight") {
        list.push_back(sum(tr("weight"), weight_drive_calculation()));
        return list;
    }
    list.push_back({tr("strips"), tr("Strips of the drawer, nearest to the torque wanted first."), [this] { return ranked(); }, {}});
    list.push_back(sum(tr("room"), spring_size_calculation()));
    list.push_back(sum(tr("torque"), spring_torque_calculation()));
    if (m_kind == "fusee") {
        list.push_back(sum(tr("cone"), fusee_calculation()));
        list.push_back(sum(tr("set-up"), fusee_set_up_calculation()));
    }
    return list;
}

void PowerStation::wind_to(double share) {
    m_wound = std::clamp(share, 0.0, 1.0);
    update();
}

void PowerStation::keyPressEvent(QKeyEvent* event) {
    constexpr double step = 0.05;
    switch (event->key()) {
        case Qt::Key_Up:
        case Qt::Key_Down:
            return m_document.climb(event->key() == Qt::Key_Up ? 1 : -1);
        case Qt::Key_Left:
            return wind_to(m_wound + step);
        case Qt::Key_Right:
            return wind_to(m_wound - step);
        case Qt::Key_Home:
            return wind_to(1);
        case Qt::Key_End:
            return wind_to(0);
        case Qt::Key_Tab:
            return m_card->show_sum(m_card->shown() + 1);
        case Qt::Key_Backtab:
            return m_card->show_sum(m_card->shown() - 1);
        default:
            Canvas::keyPressEvent(event);
    }
}

void PowerStation::mousePressEvent(QMouseEvent* event) {
    m_dragging = event->button() == Qt::LeftButton && m_picture.contains(event->position());
    if (!m_dragging) Canvas::mousePressEvent(event);
}

void PowerStation::mouseMoveEvent(QMouseEvent* event) {
    if (!m_dragging) return Canvas::mouseMoveEvent(event);
    // Down lets down, as a weight falls.
    wind_to(1 - (event->position().y() - m_picture.top()) / m_picture.height());
}

void PowerStation::mouseReleaseEvent(QMouseEvent*) { m_dragging = false; }

void PowerStation::resizeEvent(QResizeEvent*) { m_card->setGeometry(width() - SumCard::wide, 0, SumCard::wide, height()); }

void PowerStation::paint_nothing(QPainter& painter) {
    const Theme& t = theme();
    write(painter, figure_font(18), t.ink, {22, 60}, tr("No drive yet"));
    write_wrapped(painter, word_font(11), t.steel, {22, 78}, 460, tr("Say what drives the train, then give its sizes:"));
    double x = 22;
    for (const auto& [kind, name] : {std::pair{"weight", tr("a weight")}, std::pair{"spring", tr("a spring in a going barrel")},
                                     std::pair{"fusee", tr("a spring and fusee")}}) {
        const double wide = write(painter, word_font(12, true), t.blued, {x, 124}, name);
        place({QString("begin:") + kind,
               QRectF(x - 6, 102, wide + 12, 32),
               [this, k = std::string(kind)] {
                   const TrainList* train = m_document.train();
                   if (!train) return;
                   m_document.edit(tr("Drive"), [&, id = train->id](Job& job) {
                       DriveRecord drive;
                       drive.train = id;
                       drive.kind = k;
                       job.drives.push_back(drive);
                   });
               },
               {},
               {}});
        x += wide + 30;
    }
}

void PowerStation::paint(QPainter& painter) {
    const Theme& t = theme();
    painter.fillRect(rect(), t.ground);
    const DerivedPower* now = power();
    m_picture = {};
    if (!now) return paint_nothing(painter);
    const double wide = width() - SumCard::wide;
    const double high = height() * upper_share;
    paint_drive(painter, *now, QRectF(16, 0, wide * drive_share - 16, high));
    paint_torque(painter, *now, QRectF(wide * drive_share + 10, 0, wide * (1 - drive_share) - 30, high));
    painter.fillRect(QRectF(16, high, wide - 32, 1), t.rule);
    paint_flow(painter, *now, QRectF(16, high, wide - 32, height() - high));
}

void PowerStation::paint_drive(QPainter& painter, const DerivedPower& power, const QRectF& room) {
    const Theme& t = theme();
    const std::string& kind = power.drive.kind;
    const QString title = kind == "weight" ? tr("WEIGHT AND LINE") : kind == "spring" ? tr("SPRING IN ITS BARREL") : tr("BARREL AND FUSEE");
    write(painter, word_font(8.5, true), t.steel, {room.left() + 2, room.top() + 26}, title);
    const double turns = power.turns.value_or(0);
    write(painter, word_font(9), t.steel, {room.left() + 2, room.top() + 42}, tr("drag it, or ← winds and → lets down"));
    m_picture = room.adjusted(0, 56, 0, -44);
    if (kind == "weight") paint_weight(painter, power, m_picture);
    else if (kind == "spring") paint_spring(painter, power, m_picture);
    else paint_fusee(painter, power, m_picture);
    if (turns > 0)
        write(painter, figure_font(13), t.blued, {room.left() + 2, room.bottom() - 14},
              tr("%1 of %2 turns left").arg(m_wound * turns, 0, 'f', 1).arg(turns, 0, 'f', 1));
}

void PowerStation::paint_weight(QPainter& painter, const DerivedPower& power, const QRectF& room) {
    const Theme& t = theme();
    const DriveRecord& drive = power.drive;
    if (!power.weight) {
        write_wrapped(painter, word_font(10.5), t.steel, room.topLeft() + QPointF(2, 10), room.width() - 20,
                      tr("To be given: %1.").arg(words(power.missing)));
        return;
    }
    const WeightDriveResult& w = *power.weight;
    const double space_mm = std::max(drive.room_mm.value_or(w.fall_mm), w.fall_mm);
    const double drum = std::clamp(*drive.drum_diameter_mm * 0.75, 26.0, 54.0);
    const QPointF axis(room.left() + room.width() * 0.38, room.top() + drum / 2 + 6);
    const double top = axis.y() + drum / 2 + 26;
    const double px = (room.bottom() - 52 - top) / space_mm;
    const double fallen = (1 - m_wound) * w.fall_mm;
    // The room it has, and what one winding takes of it.
    const double scale_x = room.left() + 14;
    painter.setPen(QPen(t.steel, 1));
    painter.drawLine(QPointF(scale_x, top), QPointF(scale_x, top + space_mm * px));
    const QColor fits = w.fall_mm <= space_mm + 1e-9 && w.warnings.empty() ? t.verdigris : t.amber;
    painter.fillRect(QRectF(scale_x - 3, top, 6, w.fall_mm * px), fits);
    write(painter, word_font(9), t.ink, {scale_x + 10, top + w.fall_mm * px - 4}, tr("falls %1 mm").arg(w.fall_mm, 0, 'f', 0));
    if (drive.room_mm)
        write(painter, word_font(8.5), t.steel, {scale_x + 10, top + *drive.room_mm * px + 12},
              tr("room %1 mm").arg(*drive.room_mm, 0, 'f', 0));
    // Drum, wound line over it.
    painter.setPen(QPen(t.brass, 1.2));
    painter.setBrush(t.pale_brass);
    painter.drawEllipse(axis, drum / 2, drum / 2);
    painter.setPen(QPen(t.ink, 1.4));
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(axis, drum / 2 + 2.5, drum / 2 + 2.5);
    painter.setBrush(t.steel);
    painter.drawEllipse(axis, 3, 3);
    const double y = top + fallen * px;
    const bool pulley = drive.moving_pulleys > 0;
    const double line_x = axis.x() + drum / 2 + 2.5;
    const double body_x = pulley ? line_x + 11 : line_x;
    painter.setPen(QPen(t.ink, 1.4));
    painter.drawLine(QPointF(line_x, axis.y()), QPointF(line_x, y));
    if (pulley) {
        painter.drawLine(QPointF(line_x + 22, room.top() - 4), QPointF(line_x + 22, y));
        painter.drawLine(QPointF(line_x + 14, room.top() - 4), QPointF(line_x + 30, room.top() - 4));
        painter.setBrush(t.sheet);
        painter.drawEllipse(QPointF(body_x, y), 11, 11);
    }
    const QRectF body(body_x - 15, y + (pulley ? 14 : 2), 30, 46);
    painter.setPen(QPen(t.brass, 1.2));
    painter.setBrush(t.pale_brass);
    painter.drawRoundedRect(body, 4, 4);
    write(painter, figure_font(13), t.ink, {body.right() + 10, body.center().y() + 2}, tr("%1 kg").arg(*drive.weight_kg, 0, 'f', 2));
    if (w.weight_least_kg)
        write(painter, word_font(9.5, true), w.verdict.starts_with("Right") ? t.verdigris : t.amber,
              {body.right() + 10, body.center().y() + 19},
              tr("%1 to %2 kg is right").arg(*w.weight_least_kg, 0, 'f', 2).arg(*w.weight_most_kg, 0, 'f', 2));
    write(painter, word_font(9), t.ink, {axis.x() + drum / 2 + 44, axis.y() + 4},
          tr("drum ⌀ %1 mm").arg(*drive.drum_diameter_mm, 0, 'f', 1));
    if (w.layers > 1)
        write(painter, word_font(8.5), t.amber, {axis.x() + drum / 2 + 44, axis.y() + 19}, tr("%1 layers of line").arg(w.layers));
}

void PowerStation::paint_barrel(QPainter& painter, const DerivedPower& power, QPointF middle, double radius) {
    const Theme& t = theme();
    painter.setPen(QPen(t.brass, 1.4));
    painter.setBrush(t.pale_brass);
    painter.drawEllipse(middle, radius * 1.09, radius * 1.09);
    painter.setBrush(t.sheet);
    painter.drawEllipse(middle, radius, radius);
    const DriveRecord& drive = power.drive;
    if (!power.spring) return;
    SpringSizeInput in;
    in.barrel_bore_mm = *drive.barrel_bore_mm;
    in.arbor_mm = *drive.arbor_mm;
    in.thickness_mm = *drive.thickness_mm;
    in.length_mm = power.spring->length_mm;
    // The top turns go: what is not needed stays wound at the end of the run.
    const double needed = power.barrel_turns.value_or(power.turns.value_or(power.spring->turns));
    const double wound = std::max(0.0, power.spring->turns - (1 - m_wound) * std::min(needed, power.spring->turns));
    const Coils coils = coils_wound(in, wound);
    const double px = radius / (in.barrel_bore_mm / 2);
    painter.setPen(QPen(t.blued, std::clamp(in.thickness_mm * px * 0.55, 0.7, 2.2)));
    painter.setBrush(Qt::NoBrush);
    const auto pack = [&](double from_mm, double count, double step_mm) {
        const int whole = static_cast<int>(count);
        for (int i = 0; i <= whole; ++i) {
            const double r = (from_mm + (i + 0.5) * step_mm) * px;
            if (i < whole) painter.drawEllipse(middle, r, r);
            else
                painter.drawArc(QRectF(middle - QPointF(r, r), QSizeF(2 * r, 2 * r)), 90 * 16,
                                static_cast<int>(-(count - whole) * 360 * 16));
        }
    };
    pack(in.arbor_mm / 2, coils.on_arbor, in.thickness_mm);
    pack(in.barrel_bore_mm / 2, coils.at_wall, -in.thickness_mm);
    // What goes over from one pack to the other.
    QPainterPath over;
    constexpr int steps = 40;
    for (int i = 0; i <= steps; ++i) {
        const double share = static_cast<double>(i) / steps;
        const double r = (coils.arbor_radius_mm + (coils.wall_radius_mm - coils.arbor_radius_mm) * share) * px;
        const double angle = 1.57 - share * 3.6;
        const QPointF at = middle + QPointF(std::cos(angle), -std::sin(angle)) * r;
        if (i == 0) over.moveTo(at);
        else over.lineTo(at);
    }
    painter.drawPath(over);
    painter.setPen(QPen(t.ink, 1));
    painter.setBrush(t.steel);
    painter.drawEllipse(middle, in.arbor_mm / 2 * px, in.arbor_mm / 2 * px);
    painter.setBrush(t.sheet);
    const double square = in.arbor_mm / 2 * px * 0.45;
    painter.drawRect(QRectF(middle - QPointF(square, square), QSizeF(2 * square, 2 * square)));
}

void PowerStation::paint_spring(QPainter& painter, const DerivedPower& power, const QRectF& room) {
    const Theme& t = theme();
    const double radius = std::min(room.width(), room.height()) / 2 * 0.84;
    paint_barrel(painter, power, {room.left() + radius * 1.14, room.center().y()}, radius);
    if (!power.spring) {
        write_wrapped(painter, word_font(10.5), t.steel, room.topLeft() + QPointF(2, 4), room.width() - 20,
                      tr("To be given: %1.").arg(words(power.missing)));
        return;
    }
    const double x = room.left() + radius * 2.34;
    double y = room.center().y() - 58;
    const auto figure = [&](const QString& value, const QString& name, const QColor& ink) {
        write(painter, figure_font(13), ink, {x, y}, value);
        write(painter, word_font(8.5), t.steel, {x, y + 14}, name);
        y += 40;
    };
    const SpringSizeResult& s = *power.spring;
    const bool enough = !power.turns || s.turns >= *power.turns;
    figure(QString::number(s.turns, 'f', 1), tr("turns it gives"), enough ? t.ink : t.ruby);
    figure(tr("%1 %").arg(100 * s.fill, 0, 'f', 0), tr("of the room"), s.fill >= 0.45 && s.fill <= 0.6 ? t.ink : t.amber);
    figure(tr("%1 mm").arg(s.length_mm, 0, 'f', 0), tr("of strip"), t.ink);
}

void PowerStation::paint_fusee(QPainter& painter, const DerivedPower& power, const QRectF& room) {
    const Theme& t = theme();
    const DriveRecord& drive = power.drive;
    const double radius = std::min(room.width() * 0.25, room.height() * 0.36);
    const QPointF barrel(room.left() + radius * 1.16, room.center().y());
    paint_barrel(painter, power, barrel, radius);
    if (!drive.barrel_diameter_mm || !drive.large_diameter_mm || !drive.small_diameter_mm || !power.turns) {
        write_wrapped(painter, word_font(10), t.steel, {room.left() + radius * 2.6, room.top() + 8}, room.width() - radius * 2.6,
                      tr("The fusee's ends and the barrel's outside give its picture."));
        return;
    }
    // The cone from the side, standing on its great wheel: small end up.
    const double px = radius * 1.09 / (*drive.barrel_diameter_mm / 2);
    const double large = *drive.large_diameter_mm / 2 * px;
    const double small = *drive.small_diameter_mm / 2 * px;
    const double grooves = std::max(2.0, *power.turns);
    const double pitch = std::min(9.0, room.height() * 0.62 / grooves);
    const QPointF foot(room.right() - large - 14, room.center().y() + grooves * pitch / 2);
    // Between the ends the cone follows a straight spring: 1 ÷ ρ rises evenly with the barrel's turns, told near enough by 1 ÷ ρ².
    const auto radius_at = [&](double from_large) {
        const double share = from_large / grooves;
        const double inverse = 1 / (large * large) + (1 / (small * small) - 1 / (large * large)) * share;
        return 1 / std::sqrt(inverse);
    };
    painter.setPen(QPen(t.brass, 1));
    painter.setBrush(t.pale_brass);
    painter.drawRect(QRectF(foot.x() - large * 1.25, foot.y(), large * 2.5, 9));
    for (int i = 0; i < static_cast<int>(grooves); ++i) {
        const double r = radius_at(i + 0.5);
        painter.drawRoundedRect(QRectF(foot.x() - r, foot.y() - (i + 1) * pitch, 2 * r, pitch), pitch / 2, pitch / 2);
    }
    painter.setBrush(t.steel);
    painter.drawRect(QRectF(foot.x() - 5, foot.y() - grooves * pitch - 16, 10, 16));
    // Wound, the line lies on the cone up to its small end; run down it has gone over to the barrel.
    const double at = m_wound * grooves;
    painter.setPen(QPen(t.ink, 2));
    for (int i = 0; i + 0.5 < at; ++i) {
        const double r = radius_at(i + 0.5);
        painter.drawLine(QPointF(foot.x() - r, foot.y() - (i + 0.5) * pitch), QPointF(foot.x() + r, foot.y() - (i + 0.5) * pitch));
    }
    const double r = radius_at(std::min(at, grooves));
    painter.drawLine(QPointF(foot.x() - r, foot.y() - at * pitch), barrel + QPointF(radius * 1.09 * 0.8, -radius * 1.09 * 0.6));
    write(painter, word_font(9), t.steel, {foot.x(), foot.y() + 24},
          tr("⌀ %1 to %2 mm").arg(*drive.large_diameter_mm, 0, 'f', 1).arg(*drive.small_diameter_mm, 0, 'f', 1), 0);
}

void PowerStation::paint_torque(QPainter& painter, const DerivedPower& power, const QRectF& room) {
    const Theme& t = theme();
    write(painter, word_font(8.5, true), t.steel, {room.left(), room.top() + 26}, tr("TORQUE OVER THE RUN, N mm"));
    if (power.torque.empty()) {
        write_wrapped(painter, word_font(10.5), t.steel, room.topLeft() + QPointF(0, 44), room.width(),
                      power.fault.empty() ? tr("To be given: %1.").arg(words(power.missing)) : words(power.fault));
        return;
    }
    write(painter, word_font(9), t.steel, {room.left(), room.top() + 42},
          tr("at the %1 arbor, from %2").arg(words(m_document.job().name_of_arbor(power.arbor)).toLower(), words(power.torque_from)));
    const QRectF plot = room.adjusted(42, 62, -6, -96);
    const double run = power.torque.back()[0];
    double most = power.least_N_mm ? 2.1 * *power.least_N_mm : 0;
    for (const auto& [turns, torque] : power.torque) most = std::max(most, torque * 1.12);
    const auto at = [&](double turns, double torque) {
        return QPointF(plot.left() + turns / run * plot.width(), plot.bottom() - torque / most * plot.height());
    };
    if (power.least_N_mm) {
        constexpr double least_times = 1.5, most_times = 2;
        QColor band = t.verdigris;
        band.setAlphaF(0.18f);
        painter.fillRect(QRectF(at(0, most_times * *power.least_N_mm), at(run, least_times * *power.least_N_mm)), band);
        write(painter, word_font(8.5), t.verdigris, at(run, most_times * *power.least_N_mm) + QPointF(-4, 13),
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
    if (!power.verdict) return;
    const std::string& word = power.verdict->word;
    const QColor ink = word == "right" ? t.verdigris : word == "strong" ? t.amber : t.ruby;
    write(painter, figure_font(15), ink, {room.left(), room.bottom() - 54}, words(word).left(1).toUpper() + words(word).mid(1));
    write_wrapped(painter, word_font(9.5), t.ink, {room.left(), room.bottom() - 48}, room.width(), words(power.verdict->reason));
}

void PowerStation::paint_swing(QPainter& painter, const PowerChainResult& chain, QPointF pivot, double length) {
    const Theme& t = theme();
    const bool pendulum = chain.semi_arc_deg.has_value();
    const double start = pendulum ? *chain.semi_arc_deg : *chain.amplitude_deg;
    const double end = pendulum ? *chain.semi_arc_end_deg : *chain.amplitude_end_deg;
    if (pendulum) {
        // The arc is drawn as wide as can be told apart; the figure says how wide it is.
        constexpr double times = 6;
        const double half = std::min(start * times, 50.0) * 3.14159265 / 180;
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
        painter.drawArc(QRectF(middle - QPointF(34, 34), QSizeF(68, 68)), 90 * 16, static_cast<int>(-std::min(start, 360.0) * 16));
    }
    const QPointF below = pivot + QPointF(0, length + 30);
    write(painter, figure_font(13), t.ink, below, tr("± %1°").arg(start, 0, 'f', start < 20 ? 1 : 0), 0);
    if (std::abs(end - start) > 0.05)
        write(painter, word_font(9), t.steel, below + QPointF(0, 15), tr("%1° at the end").arg(end, 0, 'f', end < 20 ? 1 : 0), 0);
}

void PowerStation::paint_flow(QPainter& painter, const DerivedPower& power, const QRectF& room) {
    const Theme& t = theme();
    write(painter, word_font(8.5, true), t.steel, {room.left() + 2, room.top() + 24}, tr("WHERE THE POWER GOES"));
    if (!power.chain) {
        write_wrapped(
            painter, word_font(10), t.steel, {room.left() + 2, room.top() + 34}, room.width() - 20,
            tr("The flow to the swing is drawn once the drive's torque and what swings are known: its mass or its spring, at Beat."));
        return;
    }
    const auto& arbors = power.chain->arbors;
    const double swing_room = 118;
    const double first = room.left() + 30;
    const double step = (room.right() - swing_room - first - 30) / static_cast<double>(std::max<size_t>(1, arbors.size() - 1));
    const double axis = room.top() + 92;
    const double widest = 46;
    const auto half = [&](size_t i) { return widest / 2 * arbors[i].power_W / arbors.front().power_W; };
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
        place({"loss:" + QString::number(i),
               QRectF(xm - 30, bottom, 60, 44),
               {},
               tr("Mesh of %1 and %2 with the pivots of the second. By the leaves, until the mesh is simulated at Teeth.")
                   .arg(words(m_document.job().name_of_arbor(arbors[i].id)), words(m_document.job().name_of_arbor(arbors[i + 1].id))),
               {}});
    }
    for (size_t i = 0; i < arbors.size(); ++i) {
        const QPointF at(first + step * static_cast<double>(i), axis);
        const bool subject = arbors[i].id == m_document.subject();
        painter.setPen(QPen(subject ? t.blued : t.brass, subject ? 2.4 : 1.4));
        painter.setBrush(t.sheet);
        painter.drawEllipse(at, 7, 7);
        write(painter, word_font(10, true), subject ? t.blued : t.ink, at + QPointF(0, -40),
              words(m_document.job().name_of_arbor(arbors[i].id)), 0);
        write(painter, word_font(9), t.steel, at + QPointF(0, -27), tr("%1 N mm").arg(words(print_short(arbors[i].torque_N_mm, 3))), 0);
        QString hint = tr("power %1 µW").arg(words(print_short(1e6 * arbors[i].power_W, 3)));
        if (arbors[i].tooth_load_N) hint += tr("\ntooth load on its pinion %1 N").arg(words(print_short(*arbors[i].tooth_load_N, 3)));
        place({"arbor:" + words(arbors[i].id),
               QRectF(at - QPointF(24, 50), QSizeF(48, 64)),
               [this, id = arbors[i].id] { m_document.select(id); },
               hint,
               {}});
    }
    const double x = room.right() - swing_room / 2;
    const double last_x = first + step * static_cast<double>(arbors.size() - 1);
    painter.setPen(QPen(t.brass, 1.4));
    painter.drawLine(QPointF(last_x + 8, axis), QPointF(x - 30, axis));
    write(painter, word_font(9, true), t.ink, {last_x + 20, axis + 44},
          tr("%1 µJ a beat").arg(words(print_short(1e6 * power.chain->energy_per_beat_J, 3))), 1);
    paint_swing(painter, *power.chain, {x, room.top() + 56}, std::min(96.0, room.height() - 150));
    double y = room.top() + 186;
    write(painter, word_font(10, true), t.ink, {room.left() + 2, y},
          tr("%1 % of the power reaches the escape wheel").arg(100 * power.chain->efficiency, 0, 'f', 0));
    const bool assumed = m_document.job().oscillator && !m_document.job().oscillator->Q_measured;
    y += 6;
    y += write_wrapped(painter, word_font(9.5), t.ink, {room.left() + 2, y}, room.width() - swing_room - 16, words(power.chain->verdict));
    if (assumed)
        write(painter, word_font(8.5), t.steel, {room.left() + 2, y + 14},
              tr("with Q %1 assumed: measured from how the swing dies away it would be surer")
                  .arg(m_document.job().oscillator->Q, 0, 'f', 0));
}

}  // namespace echappe
