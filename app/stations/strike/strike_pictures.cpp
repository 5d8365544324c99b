#include <cmath>

#include "alarm/sheets.h"
#include "drawing/words.h"
#include "hands/sheets.h"
#include "number/units.h"
#include "sheet/column.h"
#include "stations/strike/alarm_picture.h"
#include "stations/strike/hands_picture.h"
#include "stations/strike/strike_station.h"
#include "stations/strike/together_picture.h"
#include "strike/edits.h"
#include "strike/fly.h"
#include "strike/sheets.h"
#include "theme/theme.h"

namespace echappe {
namespace {

/// What is typed on a sheet of a part that may be missing.
template <class R>
SumCard::Take taken_into(Document& document) {
    return SumCard::typed_into_part<std::optional<R>>(document, type_into_part<R>);
}

}  // namespace

double StrikeStation::wide() const { return width() - SumCard::wide; }

bool StrikeStation::there(Picture picture) const {
    const Job& job = m_document.job();
    switch (picture) {
        case Picture::hands:
            return job.hands.has_value();
        case Picture::alarm:
            return job.alarm.has_value();
        default:
            return job.strike.has_value();
    }
}

/// Of the picture that is shown, from its sheets.
DrawnSizes StrikeStation::own_sizes() const {
    const Job& job = m_document.job();
    if (!there(m_picture)) return {};
    if (m_picture == Picture::hands) {
        static const std::vector<std::string> fields = {
            "slips_at_g",   "hand_g",  "hand_length_mm", "hand_centre_mm",   "arbor_mm",          "cannon_bore_mm",  "cannon_mm",
            "hour_bore_mm", "hour_mm", "hour_height_mm", "minute_height_mm", "hand_thickness_mm", "glass_height_mm", "end_shake_mm"};
        return drawn_from(lines_of(HandsRecord::record(), &*job.hands, fields), fields, taken_into<HandsRecord>(m_document));
    }
    if (m_picture == Picture::alarm) {
        static const std::vector<std::string> fields = {"set_h",   "radius_mm", "drop_mm", "edge_deg",  "nose_mm",
                                                        "bore_mm", "play_deg",  "force_N", "holds_N_mm"};
        DrawnSizes drawn = drawn_from(lines_of(AlarmRecord::record(), &*job.alarm, fields), fields, taken_into<AlarmRecord>(m_document));
        for (DrawnSize& size : drawn) size.may_stay = size.line.field != "radius_mm" && size.line.field != "drop_mm";
        return drawn;
    }
    const StrikeRecord strike = record();
    if (m_picture == Picture::together) return sizes_of_train(strike);
    std::vector<std::string> fields;
    if (m_picture == Picture::count && strike.kind == "rack")
        fields = {"tooth_pitch_deg", "tail_mm", "centre_distance_mm", "largest_mm", "pin_diameter_mm", "bore_mm"};
    else fields = {"diameter_mm", "slot_width_mm", "depth_mm", "bore_mm"};
    DrawnSizes drawn = drawn_from(lines_of(StrikeRecord::record(), &strike, fields), fields, taken_into_strike());
    // What counts is drawn with usual sizes until they are read: only who cuts it waits for them.
    for (DrawnSize& size : drawn) size.may_stay = true;
    return drawn;
}

/// Its train locked, and its fly once an arbor is said to be that.
DrawnSizes StrikeStation::sizes_of_train(const StrikeRecord& strike) const {
    static const std::vector<std::string> fields = {"pins",    "locked_by",  "hammer_falls_in_deg", "warning_run_deg", "seconds_per_blow",
                                                    "hammers", "great_turns"};
    DrawnSizes drawn = drawn_from(lines_of(StrikeRecord::record(), &strike, fields), fields, taken_into_strike());
    for (DrawnSize& size : drawn) size.may_stay = size.line.field == "hammers" || size.line.field == "great_turns";
    if (!strike.fly) return drawn;
    const SumCard::Tab fly = fly_tab();
    for (DrawnSize& size : drawn_from(fly.answer().asked, {std::begin(fly_fields), std::end(fly_fields)}, fly.take, "fly.", words("fly"))) {
        size.may_stay = size.line.field == "timed_s" || size.line.field == "vanes";
        drawn.push_back(std::move(size));
    }
    return drawn;
}

SumCard::Tab StrikeStation::fly_tab() const {
    return SumCard::of_sum(
        m_document, words("fly"), fly_calculation(), [this] { return record().fly.value_or("fly"); },
        [this] { return fly_facts(record(), m_document.derived().strike_train); });
}

/// The fields that stand on the picture: its sheets leave them out.
std::vector<std::string> StrikeStation::drawn_fields() const {
    std::vector<std::string> fields;
    for (const DrawnSize& size : sizes()) fields.push_back(size.line.field);
    return fields;
}

SumCard::Take StrikeStation::taken_into_strike() const {
    return SumCard::typed_into_part<std::optional<StrikeRecord>>(
        m_document, [](std::optional<StrikeRecord>& there, const std::string& field, const std::string& word) {
            StrikeRecord strike = there.value_or(StrikeRecord());
            type_into_strike(strike, field, word);
            there = strike;
        });
}

ReadingRound* StrikeStation::own_round() const {
    if (m_picture == Picture::hands) return &m_line.hands();
    if (m_picture == Picture::alarm) return &m_line.alarm();
    if (m_picture == Picture::count) return &m_line.strikes();
    // Before it can be drawn it waits for its sizes.
    return m_document.derived().strike_train.together ? &m_line.together() : nullptr;
}

void StrikeStation::show_picture(Picture picture) {
    m_picture = picture;
    m_card->set_tabs(tabs());
    refresh();
    emit round_changed();
}

QList<Action> StrikeStation::picture_actions() {
    const auto show = [this](Picture picture) { return [this, chosen = picture] { show_picture(chosen); }; };
    return {{"strike.count", words("What counts the hours"), {Qt::Key_C}, show(Picture::count), {}, words("count")},
            {"strike.together",
             words("How its train stands when the plates close"),
             {Qt::Key_T},
             show(Picture::together),
             {},
             words("putting together")},
            {"strike.hands", words("Hands and motion work, cut through"), {Qt::Key_H}, show(Picture::hands), {}, words("hands")},
            {"strike.alarm", words("The alarm"), {Qt::Key_L}, show(Picture::alarm), {}, words("alarm")}};
}

std::vector<SumCard::Tab> StrikeStation::tabs() {
    const Derived& d = m_document.derived();
    switch (m_picture) {
        case Picture::count:
            return tabs_of_count();
        case Picture::together: {
            const auto take = tabs_of_count().front().take;
            SumCard::Tab train = tabs_of_count()[train_sheet], fly_with_drawn = fly_tab();
            train.drawn = fly_with_drawn.drawn = [this] { return drawn_fields(); };
            return {{words("stands"), words("How it stands locked, before the plates are pinned, and the leaf to move."),
                     [this, &d] { return strike_together_sheet(record(), d.strike_train); }, take, [this] { return drawn_fields(); }},
                    train,
                    fly_with_drawn};
        }
        case Picture::hands: {
            const auto hands = [this] { return m_document.job().hands.value_or(HandsRecord()); };
            const auto take = taken_into<HandsRecord>(m_document);
            return {{words("friction"), words("What presses, and whether it carries the heaviest hand."),
                     [hands, &d] { return hands_friction_sheet(hands(), d.hands); }, take, [this] { return drawn_fields(); }},
                    {words("room"), words("Pipes on each other, heights from the dial to the glass, and what is oiled."),
                     [hands, &d] { return hands_room_sheet(hands(), d.hands); }, take, [this] { return drawn_fields(); }}};
        }
        case Picture::alarm:
            break;
    }
    const auto alarm = [this] { return m_document.job().alarm.value_or(AlarmRecord()); };
    const auto take = taken_into<AlarmRecord>(m_document);
    return {{words("cam"), words("When the cam lets go, and whether it slips; Ctrl+E writes it."),
             [alarm, &d] { return alarm_cam_sheet(alarm(), d.alarm); }, take, [this] { return drawn_fields(); }},
            {words("rings"), words("What it rings with, and how long."), [alarm, &d] { return alarm_ring_sheet(alarm(), d.alarm); }, take}};
}

void StrikeStation::write_pictures(QPainter& painter) {
    const Theme& t = inks(painter);
    Flow names(painter, QRectF(18, 0, wide() - 36, top_px), 24, 26);
    const std::pair<Picture, const char*> all[] = {{Picture::count, "strike.count"},
                                                   {Picture::together, "strike.together"},
                                                   {Picture::hands, "strike.hands"},
                                                   {Picture::alarm, "strike.alarm"}};
    for (const auto& [picture, id] : all) {
        const bool now = picture == m_picture;
        place({"picture:" + QString(id), names.say(legend({id}), now ? t.ink : t.blued, Type::text, now, now),
               [this, chosen = picture] { show_picture(chosen); }, words("another picture of this station")});
    }
}

void StrikeStation::invite(QPainter& painter, const QString& head, const QStringList& lines, const QString& tag, const QString& button,
                           const std::function<void()>& begin) {
    const Theme& t = inks(painter);
    Column page(painter, QRectF(22, top_px + 30, 560, 260));
    page.head(head, t.ink);
    for (const QString& line : lines) page.says(line, t.steel, Type::text);
    Flow flow(painter, QRectF(22, 0, width() - 44.0, height()), page.y() + 26, 26);
    place({tag, flow.say(button, t.blued, Type::figure, true), begin, words("begins it; every step can be undone")});
}

/// Which arbor carries the pins, which locks, which warns: one after the other, by a click.
void StrikeStation::ask_roles(QPainter& painter) {
    const Theme& t = inks(painter);
    const StrikeRecord strike = record();
    const QString role = !strike.pin_arbor ? "pins" : !strike.locking ? "locks" : !strike.warning ? "warns" : "";
    Column page(painter, QRectF(22, top_px + 30, 560, 300));
    page.head(role == "pins"    ? words("Which arbor carries the hammer's pins?")
              : role == "locks" ? words("Which one locks?")
              : role == "warns" ? words("Which one warns?")
                                : words("How many pins has it?"),
              t.ink);
    const Job& job = m_document.job();
    Flow names(painter, QRectF(22, 0, wide() - 44.0, height()), page.y() + 30, 26);
    bool any = false;
    for (const TrainList& train : job.train.trains)
        for (const std::string& id : train.arbors) {
            // Those that wheels join to the hands are none of a strike's own.
            const DerivedArbor* arbor = m_document.derived().train.arbor(id);
            if (!arbor || arbor->period_s) continue;
            any = true;
            if (role.isEmpty()) continue;
            place({"role:" + words(id), names.say(words(arbor->name), t.blued, Type::figure, true),
                   [this, role, id] { m_document.edit(set_role(role.toStdString(), id)); },
                   words("of the train %1").arg(words(train.name))});
        }
    page.go_to(names.baseline() + 16);
    if (!any)
        page.says(
            words(
                "Its train is not here yet: write it down with the others (Ctrl+W at the Train), as in “strike: 84, 8/64, 8/56, 7/48, 6”."),
            t.steel, Type::text);
    page.says(words("What turns just once a blow stands on the sheet “train”."), t.steel);
    const DerivedStrikeTrain& d = m_document.derived().strike_train;
    for (const std::string& fault : {d.fault, d.together_fault})
        if (!fault.empty() && strike.pins) page.says(words(fault), t.ruby, Type::text);
    // Its other sizes wait here until it can be drawn.
    if (any && role.isEmpty()) list_sizes(painter, QRectF(30, page.y() + 20, 260, std::min(360.0, height() - page.y() - 40)));
}

void StrikeStation::paint_standing(QPainter& painter) {
    const Theme& t = inks(painter);
    const DerivedStrikeTrain& d = m_document.derived().strike_train;
    if (!d.together) {
        if (!strike().there) return paint_nothing(painter);
        ask_roles(painter);
        return;
    }
    Column page(painter, QRectF(18, top_px, wide() - 36, 90));
    page.section(words("LOCKED, BEFORE THE PLATES CLOSE · TO SCALE"));
    const bool seen = record().hammer_falls_in_deg || record().warning_run_deg;
    page.says(words(d.together->verdict), !seen ? t.steel : d.together->right ? t.verdigris : t.ruby, Type::text, seen);
    constexpr double column = 156;
    const QRectF room(18, top_px + 96, wide() - 36 - column, height() - top_px - 120);
    const DrawnSizes drawn = sizes();
    Dimensions dimensions(painter, drawn, asked_size());
    for (const TogetherSpot& spot : paint_together(painter, room, record(), d, m_document.derived().train, dimensions)) {
        const bool hammer = spot.about == "hammer";
        place({"seen:" + spot.about, spot.at, [this, hammer] { ask_seen(hammer); },
               hammer ? words("how far the pin wheel turns from locked to the hammer's next fall")
                      : words("how far the warning wheel runs from locked")});
    }
    dimensions.rest();
    dimensions.lay_out({room.right() + 16, room.top(), column - 16, room.height()});
    place_sizes(painter, dimensions);
}

void StrikeStation::ask_seen(bool hammer) {
    emit round_changed();
    FieldRound& round = m_line.together();
    round.go_to(hammer ? "hammer_falls_in_deg" : "warning_run_deg");
    m_line.take(round);
}

void StrikeStation::paint_hands(QPainter& painter) {
    const Derived& d = m_document.derived();
    if (!d.hands.there)
        return invite(
            painter, words("No hands measured yet"),
            {words("Pipes on each other, heights over the dial, and whether the friction carries the hands and lets them be set."),
             words("A thread at the minute hand's tip and a few weights are all it takes.")},
            "begin:hands", words("measure the hands"), [this] { m_document.edit(begin_hands()); });
    Column page(painter, QRectF(18, top_px, wide() - 36, 40));
    page.section(words("MOTION WORK AND HANDS, CUT THROUGH · TO SCALE"), words("play and room in mm"));
    constexpr double level_high = 146, column = 168;
    const DrawnSizes drawn = sizes();
    Dimensions dimensions(painter, drawn, asked_size());
    const QRectF section(18, top_px + 34, wide() - 36 - column, height() - top_px - 74 - level_high);
    paint_hands_section(painter, section, d.hands, dimensions);
    dimensions.lay_out({section.right() + 20, section.top(), column - 20, section.height() + 10});
    Column below(painter, QRectF(18, height() - level_high, wide() - 36, level_high));
    below.section(words("THE MINUTE HAND, LEVEL, WITH A THREAD AT ITS TIP"));
    paint_hand_level(painter, QRectF(18, height() - level_high + 20, wide() - 36, level_high - 24), *m_document.job().hands, d.hands,
                     dimensions);
    place_sizes(painter, dimensions);
}

void StrikeStation::turn_alarm(double hours) {
    const double turn = m_document.derived().alarm.cam_input.turn_h;
    m_alarm_h = std::fmod(m_alarm_h - 1 + hours + turn, turn) + 1;
    constexpr double minutes = 60;
    m_alarm_h = std::round(m_alarm_h * minutes) / minutes;
    // Full hours first.
    if (std::abs(hours) >= 1) m_alarm_h = hours > 0 ? std::floor(m_alarm_h + 1e-9) : std::ceil(m_alarm_h - 1e-9);
    update();
}

void StrikeStation::paint_alarm(QPainter& painter) {
    const Theme& t = inks(painter);
    const DerivedAlarm& d = m_document.derived().alarm;
    if (!d.there || !d.cam)
        return invite(painter, words("No alarm yet"),
                      {words("Its cam lets a follower fall once in twelve hours: when, how surely, and whether its setting slips."),
                       words("What silences a strike at night is a cam of the same kind.")},
                      "begin:alarm", words("an alarm"), [this] { m_document.edit(begin_alarm()); });
    const double set = m_document.job().alarm->set_h;
    Column page(painter, QRectF(18, top_px, wide() - 36, 80));
    page.section(words("THE ALARM'S CAM, TO SCALE"), words("set to %1").arg(words(words_of_time(set))));
    const bool down = lets_go(d.cam_input, m_alarm_h - set);
    page.line(down ? words("%1: it has let go, and rings").arg(words(words_of_time(m_alarm_h)))
                   : words("%1: held").arg(words(words_of_time(m_alarm_h))),
              down ? t.verdigris : t.ink, Type::figure, true);
    page.line(legend({"strike.next", "strike.back"}) + words("  ·  . five minutes on"), t.steel);
    const double low = d.silent ? 178 : 132;
    constexpr double column = 176;
    const QRectF picture(18, top_px + 74, wide() - 36 - column, height() - top_px - 90 - low);
    const DrawnSizes drawn = sizes();
    Dimensions dimensions(painter, drawn, asked_size());
    paint_alarm_cam(painter, picture, d, set, m_alarm_h, dimensions);
    dimensions.rest();
    dimensions.lay_out({picture.right() + 14, picture.top() + 60, column - 14, picture.height() - 60});
    place_sizes(painter, dimensions);
    Column below(painter, QRectF(18, height() - low, wide() - 36, low));
    below.section(words("THE FOLLOWER, ONCE ROUND"), words("ruby: when it may let go, by its edge and the play"));
    paint_alarm_day(painter, QRectF(18, height() - low + 10, wide() - 36, low), d, set, m_alarm_h);
    if (d.ring) {
        Column ring(painter, QRectF(wide() - 194, top_px + 74, 176, 60));
        ring.row({words("rings for"), d.ring->seconds ? words(print_fixed(*d.ring->seconds, 0)) : QStringLiteral("?"), t.ink, words("s")});
        ring.row({words("blows"), words(print_fixed(d.ring->blows, 0)), t.ink});
    }
}

void StrikeStation::paint(QPainter& painter) {
    painter.fillRect(rect(), inks(painter).ground);
    write_pictures(painter);
    switch (m_picture) {
        case Picture::count:
            return paint_count(painter);
        case Picture::together:
            return paint_standing(painter);
        case Picture::hands:
            return paint_hands(painter);
        case Picture::alarm:
            return paint_alarm(painter);
    }
}

}  // namespace echappe
