#include "stations/strike/strike_station.h"

#include <algorithm>
#include <cmath>

#include <QFileDialog>

#include "drawing/words.h"
#include "exchange/drawing.h"
#include "number/input_error.h"
#include "number/units.h"
#include "sheet/column.h"
#include "sound/blows.h"
#include "stations/strike/count_picture.h"
#include "stations/strike/hammer_picture.h"
#include "stations/strike/sounded_picture.h"
#include "strike/edits.h"
#include "strike/sheets.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double head_high = 70;      ///< where it stands, and its keys
constexpr double day_high = 196;      ///< below the picture: the day
constexpr double sounded_high = 108;  ///< above it, what was listened to last

QString time_words(double hour) { return words(words_of_time(hour)); }

QString what_it_does(const StruckHour& one) {
    const QString time = words(words_of_time(one.hour));
    if (one.strikes && one.early > 0) return words("%1: strikes %2, of them %3 at the warning").arg(time).arg(*one.strikes).arg(one.early);
    return one.strikes ? words("%1: strikes %2, should %3").arg(time).arg(*one.strikes).arg(one.should)
                       : words("%1: runs on, should strike %2").arg(time).arg(one.should);
}

}  // namespace

StrikeStation::StrikeStation(const Workbench& bench) : CardStation(bench.document, {}, nullptr), m_line(bench.line) {
    setAccessibleName(words("Strike"));
    m_card->set_tabs(tabs());
    connect(&m_document, &Document::changed, this, &StrikeStation::refresh);
    connect(&m_document, &Document::opened, this, [this] {
        m_listener.call_back();
        m_line.strikes().forget();
    });
}

void StrikeStation::showEvent(QShowEvent*) { refresh(); }

void StrikeStation::refresh() {
    if (!isVisible()) return;
    m_struck = std::min(m_struck, strike().day.size());
    m_blows = 0;
    m_card->setVisible(there(m_picture));
    if (m_picture == Picture::count && m_of_rack != (record().kind == "rack")) {
        m_of_rack = record().kind == "rack";
        m_card->set_tabs(tabs());
    }
    const QString counts = record().kind == "rack" ? words("Rack and snail") : words("Count wheel");
    m_card->show_part(m_picture == Picture::count      ? counts
                      : m_picture == Picture::together ? words("Putting together")
                      : m_picture == Picture::hands    ? words("Hands")
                                                       : words("Alarm"));
    update();
}

const StruckHour* StrikeStation::next() const { return strike().day.empty() ? nullptr : &strike().day[m_struck % strike().day.size()]; }

void StrikeStation::go_to(size_t struck) {
    m_struck = std::min(struck, strike().day.size());
    m_blows = 0;
    update();
}

void StrikeStation::step(int strikes) {
    if (strike().day.empty()) return;
    // Within a strike back is to its own beginning.
    if (strikes < 0 && m_blows > 0) return go_to(m_struck);
    const auto count = static_cast<long long>(strike().day.size());
    const long long to = static_cast<long long>(m_struck) + strikes;
    go_to(static_cast<size_t>(to > count ? 1 : to < 0 ? count : to));
}

void StrikeStation::give_blow() {
    const StruckHour* strike = next();
    if (!strike) return;
    if (m_struck == this->strike().day.size()) m_struck = 0;
    ++m_blows;
    if (strike->strikes && m_blows >= *strike->strikes) return step(1);
    update();
}

void StrikeStation::take_heard() {
    const auto& heard = strike().heard;
    if (!heard) return emit told(words("Nothing is heard yet: it is typed on the sheet “heard”, as 5: 4, 6: 5."), true);
    m_document.edit(try_faults(heard->causes.front().faults));
    emit told(words("Tried: %1.").arg(words(heard->causes.front().words)), false);
}

QList<Action> StrikeStation::make_actions() {
    const auto there = [this] {
        return m_picture == Picture::count ? strike().there : m_picture == Picture::alarm && this->there(m_picture);
    };
    const auto counted = [this] { return m_picture == Picture::count && strike().there; };
    const auto on = [this](int way) {
        if (m_picture == Picture::alarm) turn_alarm(way);
        else step(way);
    };
    const auto finely = [this] {
        constexpr double five_minutes = 5.0 / 60;
        if (m_picture == Picture::alarm) turn_alarm(five_minutes);
        else give_blow();
    };
    return CardStation::make_actions() + picture_actions() +
           QList<Action>{
               {"strike.next",
                words("On to the next hour that is struck"),
                {Qt::Key_Right},
                [on] { on(1); },
                {},
                words("next hour"),
                there},
               {"strike.back", words("Back to the hour before"), {Qt::Key_Left}, [on] { on(-1); }, {}, words("back"), there},
               {"strike.blow", words("One blow; of an alarm five minutes"), {Qt::Key_Period}, finely, {}, words("a blow"), there},
               {"strike.begin", words("Before one o'clock"), {Qt::Key_Home}, [this] { go_to(0); }, {}, {}, counted},
               {"strike.listen",
                words("Listen to a recording of the hour that is asked for"),
                {Qt::Key_R},
                [this] { listen(); },
                {},
                words("listen to a recording"),
                counted},
               {"strike.enough",
                words("Listen no more"),
                {Qt::Key_Escape},
                [this] { stop_listening(); },
                {},
                {},
                [this] { return m_listener.out(); }},
               {"strike.as-heard",
                words("Try what was heard"),
                {Qt::Key_A},
                [this] { take_heard(); },
                {},
                words("try what was heard"),
                counted},
               {"strike.sound",
                words("Try no fault"),
                {Qt::Key_N},
                [this] { m_document.edit(try_faults({})); },
                {},
                words("no fault"),
                counted},
               {"strike.mend", words("What is tried is put right"), {Qt::Key_M}, [this] { put_right(); }, {}, words("put right"), counted},
               {"strike.count-wheel", words("It has a count wheel"), {}, [this] { m_document.edit(begin_strike("countwheel")); }},
               {"strike.rack", words("It has rack and snail"), {}, [this] { m_document.edit(begin_strike("rack")); }}};
}

bool StrikeStation::shows_sound() const {
    // What counts stays large enough to be read; in a low window the message alone tells what was heard.
    constexpr double least_picture = 200;
    return sounded() && height() - top_px - head_high - day_high - sounded_high >= least_picture;
}

double StrikeStation::picture_high() const { return height() - top_px - head_high - day_high - 8 - (shows_sound() ? sounded_high : 0); }

const StrikeRound::Sounded* StrikeStation::sounded() const { return m_line.strikes().sounded(); }

void StrikeStation::listen() {
    const QString path =
        QFileDialog::getOpenFileName(this, words("A recording of one strike"), {}, words("Recordings (*.wav *.flac *.ogg)"));
    if (!path.isEmpty()) listen_to(path);
}

void StrikeStation::listen_to(const QString& path) {
    BlowsInput in = m_line.strikes().to_listen();
    in.file = path.toStdString();
    emit told(words("Listening; Esc stops."), false);
    m_listener.send(
        [this, in, held = JobHeld(m_document), hour = m_line.strikes().hour()](const std::stop_token& stop, const Errand::Tell& tell) {
            const auto heard = std::make_shared<const BlowsResult>(listen_to_strike(in, stop));
            tell([this, held, hour, heard] {
                attempt([&] {
                    if (held.still()) emit told(m_line.strikes().take(hour, *heard), false);
                });
            });
        },
        [this](const QString& why) { emit told(why, true); });
}

void StrikeStation::stop_listening() {
    m_listener.dismiss();
    emit told(words("Stopped: nothing is kept."), false);
}

void StrikeStation::put_right() {
    if (record().faults.empty()) return emit told(words("Nothing is tried: A tries what was heard, and a click tries a fault."), true);
    const QString what = words(echappe::words_of(record().faults.front()));
    m_document.edit(mend_strike());
    emit told(words("Put right: %1. Now let it strike a day, and type what is heard.").arg(what), false);
}

std::vector<SumCard::Tab> StrikeStation::tabs_of_count() {
    const auto take = taken_into_strike();
    std::vector<SumCard::Tab> sheets = {
        {words("strike"), words("How it counts, and what is tried. Click a slot, a tooth or a step in the picture."),
         [this] { return strike_sheet(record(), strike()); }, take},
        {words("heard"),
         words("What was counted by ear, hour by hour, and what would strike so."),
         [this] { return strike_heard_sheet(record(), strike()); },
         take,
         {},
         true},
        {words("to be cut"), words("Count wheel or snail, as it is or to be made anew; Ctrl+E writes it."),
         [this] { return strike_part_sheet(record(), strike()); }, take, [this] { return drawn_fields(); }},
        {words("train"), words("Its wheels: which arbor carries what, whether each locks, how long it runs."),
         [this] { return strike_train_sheet(record(), m_document.derived().strike_train); }, take},
        {words("rack"), words("The rack to be cut, of a strike that has one; Ctrl+E writes it."),
         [this] { return strike_rack_sheet(record(), strike()); }, take}};
    if (record().kind != "rack") sheets.pop_back();
    return sheets;
}

std::vector<Scene> StrikeStation::scenes() {
    return {{"strike-rack", "waiting-room",
             [this] {
                 show_picture(Picture::count);
                 card().show_sum(heard_sheet);
                 m_line.strikes().keep(m_line.strikes().simulated(), true);
                 go_to(5);
                 give_blow();
             }},
            {"strike-hands", "waiting-room", [this] { show_picture(Picture::hands); }, {}, [this] { show_picture(Picture::count); }},
            {"strike-together", "granary", [this] { show_picture(Picture::together); }, {}, [this] { show_picture(Picture::count); }},
            {"strike-count", "granary",
             [this] {
                 card().show_sum(heard_sheet);
                 go_to(4);
             }},
            {"strike-alarm", "granary", [this] { show_picture(Picture::alarm); }, {}, [this] { show_picture(Picture::count); }}};
}

StrikeStation::Written StrikeStation::written_part() const {
    const DerivedStrike& d = strike();
    const DerivedAlarm& alarm = m_document.derived().alarm;
    if (m_picture == Picture::alarm && alarm.measured) return {words("cam"), solid_of(alarm.cam_input, *alarm.cam)};
    if (m_picture != Picture::count) return {};
    if (m_of_rack && m_card->shown() == rack_sheet)
        return d.rack && d.rack_measured ? Written{words("rack"), solid_of(d.rack_input, *d.rack)} : Written();
    if (!d.measured) return {};
    return d.snail ? Written{words("snail"), solid_of(d.snail_input, *d.snail)}
                   : Written{words("count wheel"), solid_of(d.wheel_input, *d.wheel)};
}

QString StrikeStation::writes(const QString& ending) const {
    return ending == "svg" || ending == "dxf" || ending == "step" ? written_part().name : QString();
}

void StrikeStation::write_to(const QString& path) {
    const DerivedStrike& d = strike();
    // A count wheel marks its slots too.
    const bool wheel = m_picture == Picture::count && d.wheel;
    save_drawing(path.toStdString(), wheel ? drawing_of(d.wheel_input, *d.wheel) : drawing_of(std::get<FlatPart>(solid())));
}

Solid StrikeStation::solid() const {
    const Written shown = written_part();
    if (shown.name.isEmpty()) throw InputError("export", "a part without sizes", "the sizes of what is shown, on its sheet");
    return shown.part;
}

void StrikeStation::paint_nothing(QPainter& painter) {
    const Theme& t = inks(painter);
    Column page(painter, QRectF(22, top_px + 30, 520, 260));
    page.head(words("No strike yet"), t.ink);
    page.says(words("Say what counts its hours, and it is stepped through the day blow by blow:"), t.steel, Type::text);
    Flow kinds(painter, QRectF(22, 0, width() - 44.0, height()), page.y() + 26, 26);
    struct Begin {
        const char *kind, *scheme;
        QString name;
    };
    for (const Begin& one : {Begin{"countwheel", "hours", words("count wheel")},
                             {"countwheel", "hours-and-halves", words("with a blow at the half")},
                             {"countwheel", "quarters", words("of quarters")},
                             {"rack", "hours", words("rack and snail")}}) {
        const std::string kind = one.kind, scheme = one.scheme;
        place({"begin:" + words(kind + " " + scheme), kinds.say(one.name, t.blued, Type::figure, true),
               [this, kind, scheme] { m_document.edit(begin_strike(kind, scheme)); }, words("the strike of this job")});
    }
    page.go_to(kinds.baseline() + 14);
    page.says(words("A dial of 24 hours, or a scheme of its own, is said on the sheet then."), t.steel);
    page.says(
        words("What it is heard to strike goes into the line, hour by hour, or is counted in a recording; what would strike so is named."),
        t.steel);
}

/// Where it stands, in words.
void StrikeStation::write_where(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    Column page(painter, room);
    page.section(record().kind == "rack" ? words("RACK AND SNAIL, TO SCALE") : words("COUNT WHEEL, TO SCALE"));
    if (!strike().fault.empty()) return void(page.says(words(strike().fault), t.ruby, Type::text));
    const bool within = m_blows > 0;
    const StruckHour* now = within ? next() : m_struck > 0 ? &strike().day[m_struck - 1] : nullptr;
    if (!now) page.line(words("before one o'clock"), t.steel, Type::figure);
    else if (within && !now->strikes)
        page.line(words("%1: blow %2, and nothing stops it").arg(time_words(now->hour)).arg(m_blows), t.ruby, Type::figure);
    else if (within) page.line(words("%1: blow %2 of %3").arg(time_words(now->hour)).arg(m_blows).arg(*now->strikes), t.ink, Type::figure);
    else page.line(what_it_does(*now), now->right() ? t.verdigris : t.ruby, Type::figure, true);
    page.line(legend({"strike.next", "strike.back", "strike.blow", "strike.listen", "strike.as-heard", "strike.sound", "strike.mend"}),
              t.steel);
}

void StrikeStation::paint_strike(QPainter& painter, size_t which, const QRectF& room, double dot) {
    const Theme& t = inks(painter);
    const StruckHour& one = strike().day[which];
    if (which + (m_blows > 0 ? 0 : 1) == m_struck) painter.fillRect(room, t.sheet);
    const bool right = one.right();
    const double x = room.center().x(), low = room.bottom() - 24;
    const auto at = [&](long long blow) { return QPointF(x, low - (static_cast<double>(blow) - 0.5) * dot); };
    const double r = std::max(1.5, dot * 0.36);
    const long long strikes = one.strikes.value_or(0);
    for (long long blow = 1; blow <= std::max(strikes, one.should); ++blow) {
        painter.setPen(QPen(right ? t.verdigris : blow > one.should || !one.strikes ? t.ruby : t.steel, 1.2));
        // What falls at the warning is struck, and not filled.
        painter.setBrush(blow <= strikes && blow > one.early ? QBrush(right ? t.verdigris : t.ruby) : QBrush(Qt::NoBrush));
        painter.drawEllipse(at(blow), r, r);
    }
    if (!one.strikes) write(painter, type(Type::note, true), t.ruby, {x, low - static_cast<double>(one.should) * dot - 4}, words("on"), 0);
    for (const HeardStrike& heard : record().heard) {
        if (std::abs(heard.hour - one.hour) > 1e-6) continue;
        // What was heard, as a stroke across its column.
        painter.setPen(QPen(t.blued, 2));
        const double y = low - static_cast<double>(heard.strikes.value_or(one.should + 1)) * dot;
        const double half = std::min(2.4 * r, room.width() / 2 - 1);
        painter.drawLine(QPointF(x - half, y), QPointF(x + half, y));
    }
    const bool whole = one.hour == std::floor(one.hour);
    if (whole) write(painter, type(Type::note), t.steel, {x, room.bottom() - 7}, QString::number(one.hour), 0);
    place({"strike:" + QString::number(which + 1), room, [this, which] { go_to(which + 1); }, what_it_does(one)});
}

void StrikeStation::paint_day(QPainter& painter, const QRectF& room) {
    const auto& day = strike().day;
    if (day.empty()) return;
    Column page(painter, room);
    page.section(words("THE DAY: WHAT IT STRIKES AGAINST WHAT IT SHOULD"),
                 record().heard.empty() ? QString() : words("a stroke: as it was heard"));
    long long most = 1;
    for (const StruckHour& one : day) most = std::max({most, one.should, one.strikes.value_or(0)});
    const double wide = room.width() / static_cast<double>(day.size()), high = room.height() - 62;
    for (size_t i = 0; i < day.size(); ++i)
        paint_strike(painter, i, QRectF(room.left() + static_cast<double>(i) * wide, room.top() + 24, wide, room.height() - 24),
                     std::min(14.0, high / static_cast<double>(most)));
}

void StrikeStation::paint_count(QPainter& painter) {
    const DerivedStrike& d = strike();
    if (!d.there) return paint_nothing(painter);
    const double wide = this->wide();
    write_where(painter, QRectF(18, top_px, wide - 36, 80));
    const double work = std::min(220.0, 0.28 * wide), high = picture_high();
    const QRectF picture(18, top_px + head_high, wide - 36 - work, high);
    for (const HammerSpot& spot :
         paint_hammer_work(painter, QRectF(wide - 14 - work, top_px + head_high + 4, work, high - 4), record(), m_blows == 0))
        place({words("whole:" + spot.what), spot.at, [this, what = spot.what] { m_document.edit(try_whole(what)); },
               spot.what == "mesh off" ? words("the pin wheel a tooth off: the hammer hangs on a pin; and sound again")
                                       : words("the run at the warning too short; and sound again")});
    const auto faults = record().faults;
    const auto click = [this](const char* tag, const std::vector<StrikeSpot>& spots, auto edit, const QString& hint) {
        for (const StrikeSpot& spot : spots) {
            const long long number = spot.number;
            place({tag + QString::number(number), spot.at, [this, number, edit] { m_document.edit(edit(number)); }, hint.arg(number)});
        }
    };
    const DrawnSizes drawn = sizes();
    Dimensions dimensions(painter, drawn, asked_size());
    constexpr double column = 148;
    const QRectF counts = picture.adjusted(0, 0, -column - 24, 0);
    if (d.wheel && d.wheel->blows_total > 0) {
        const WheelSpots spots = paint_count_wheel(painter, counts, *d.wheel, d.wheel_input, faults, blows_given(d, m_struck, m_blows),
                                                   m_blows == 0, dimensions);
        place({"whole:detent late", spots.detent, [this] { m_document.edit(try_whole("detent late")); },
               words("the detent comes late; and sound again")});
        click("slot:", spots.slots_of_it, try_slot, words("slot %1: too wide, too shallow, sound again"));
    }
    if (d.snail && next()) {
        const RackSpots spots =
            paint_rack(painter, counts, *d.snail, d.snail_input, faults, rack_stand(d, faults, m_struck, m_blows), dimensions);
        click("tooth:", spots.teeth, try_tooth, words("tooth %1, counted from the one gathered last: lost, and sound again"));
        click("step:", spots.steps, try_step, words("the step for %1: a tooth too far, too little, sound again"));
    }
    dimensions.rest();
    dimensions.lay_out({counts.right() + 12, counts.top() + 8, column - 12, counts.height() - 8});
    place_sizes(painter, dimensions);
    if (shows_sound()) paint_sounded(painter, QRectF(18, height() - day_high - sounded_high, wide - 36, sounded_high - 6), *sounded());
    paint_day(painter, QRectF(18, height() - day_high, wide - 36, day_high - 8));
}

}  // namespace echappe
