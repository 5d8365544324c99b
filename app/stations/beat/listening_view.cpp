#include "stations/beat/listening_view.h"

#include <QFileDialog>
#include <algorithm>
#include <cmath>
#include <map>

#include "beat/edits.h"
#include "beat/sheets.h"
#include "document/today.h"
#include "drawing/words.h"
#include "number/input_error.h"
#include "number/units.h"
#include "oscillator/swing_typed.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double figures_wide = 206;
constexpr double figures_high = 128;
constexpr int frame_ms = 16;

}  // namespace

ListeningView::ListeningView(Document& document, QWidget* parent) : CardStation(document, {}, parent) {
    setAccessibleName(words("Listening"));
    m_card->set_tabs(tabs());
    m_frames.setInterval(frame_ms);
    m_frames.setTimerType(Qt::PreciseTimer);
    connect(&m_frames, &QTimer::timeout, this, &ListeningView::frame);
    connect(&document, &Document::changed, this, &ListeningView::refresh);
    connect(&document, &Document::opened, this, [this] {
        stop();
        m_now = {};
        m_even_is_right.reset();
        m_source = {};
    });
}

QList<ListeningView::Source> ListeningView::sources() const {
    QList<Source> all;
    if (stand_in(0)) all << Source{Source::Is::stand_in, {}};
    for (const QString& device : m_devices) all << Source{Source::Is::device, device};
    if (!m_file.isEmpty()) all << Source{Source::Is::file, m_file};
    return all;
}

QString ListeningView::words_of_source() const {
    if (!m_now.from.isEmpty()) return m_now.from;
    const Source source = m_source.is != Source::Is::nothing ? m_source : sources().value(0);
    return source.is == Source::Is::nothing    ? words("nothing to listen with")
           : source.is == Source::Is::stand_in ? words("simulated pickup")
                                               : source.name.section('/', -1);
}

std::optional<TickingInput> ListeningView::stand_in(std::uint64_t turn) const {
    if (!m_document.calliper()) return {};
    const auto& pallets = m_document.job().pallets;
    return m_document.calliper()->ticking(m_document.job().rate_log, pallets ? moved_since_mm(*pallets) : 0, turn);
}

void ListeningView::look_for_devices() {
    // Asking the system takes a while: only when somebody comes, and when another is wanted.
    m_devices = sound_devices();
}

void ListeningView::next_source() {
    look_for_devices();
    const QList<Source> all = sources();
    if (all.isEmpty()) return emit told(words("No microphone and no pickup is there: plug one in, or F opens a recording."), true);
    m_source = all[(all.indexOf(m_source) + 1) % all.size()];
    m_now.from.clear();
    update();
}

const OscillatorRecord* ListeningView::oscillator() const {
    const auto& oscillator = m_document.job().oscillator;
    return oscillator ? &*oscillator : nullptr;
}

BeatsTold ListeningView::movement() const {
    return beats_of(m_document.job().train, m_document.derived().train, m_document.derived().escapement);
}

BeatAnalysisInput ListeningView::asked(const SoundSource& source) const {
    BeatAnalysisInput asked;
    if (balance()) {
        // As it was typed, else as lever and impulse pin make it.
        asked.lift_angle_deg = oscillator()->as<Balance>()->lift_angle_deg;
        if (const auto& lift = m_document.derived().escapement.lift_angle_rad; lift && !asked.lift_angle_deg)
            asked.lift_angle_deg = in_degrees(*lift);
    }
    if (source.keeps_time()) return asked;
    asked.recorder_ppm = m_document.job().rate_log.recorder_ppm;
    asked.recorder_u_ppm = m_document.job().rate_log.recorder_u_ppm;
    return asked;
}

void ListeningView::start(std::unique_ptr<SoundSource> source) {
    const BeatAnalysisInput asked = this->asked(*source);
    const QString warning = source->warning();
    emit told(warning.isEmpty() ? words("Listening to %1.").arg(source->name()) : warning, !warning.isEmpty());
    m_listener.start(std::move(source), movement(), asked);
    m_even_is_right.reset();
    m_frames.start();
    frame();
}

void ListeningView::toggle() {
    if (m_now.listening) return stop();
    if (m_source.is == Source::Is::nothing) m_source = sources().value(0);
    attempt([this] {
        switch (m_source.is) {
            case Source::Is::file:
                return start(recording(m_source.name));
            case Source::Is::device:
                return start(sound_device(m_source.name));
            case Source::Is::stand_in:
                if (const auto movement = stand_in(m_turn++)) return start(simulated_pickup(*movement));
                throw InputError("simulated pickup", "a movement that stands still", "pallets that let off with the swing there is");
            default:
                throw InputError("listening", "no microphone and no pickup", "one that is plugged in, or a recording: F");
        }
    });
}

void ListeningView::hurry(double seconds) {
    const auto movement = stand_in(m_turn++);
    if (!movement) return;
    m_source = {Source::Is::stand_in, {}};
    start(simulated_pickup(*movement, seconds));
}

void ListeningView::listen_to(const QString& path) {
    attempt([this, path] {
        start(recording(path));
        m_file = path;
        m_source = {Source::Is::file, path};
    });
}

void ListeningView::ask_for_file() {
    const QString path = QFileDialog::getOpenFileName(this, words("A recording"), {}, words("Recordings (*.wav *.flac *.ogg)"));
    if (!path.isEmpty()) listen_to(path);
}

void ListeningView::stop() {
    m_listener.stop();
    m_frames.stop();
    m_now = m_listener.heard();
    refresh();
}

void ListeningView::frame() {
    const auto before = m_now.told;
    m_now = m_listener.heard();
    if (!m_now.listening) {
        m_frames.stop();
        if (!m_now.fault.isEmpty()) emit told(m_now.fault, true);
    }
    if (m_now.told != before || !m_now.listening) refresh();
    // The figures stand for a second; the hand and the level move.
    else update_in(dial()), update_in(QRectF(0, 0, figures_wide + 24, 66));
}

void ListeningView::refresh() {
    if (!isVisible()) return;
    m_card->show_part(words("What is heard"));
    update();
}

void ListeningView::showEvent(QShowEvent*) { look_for_devices(); }

void ListeningView::hideEvent(QHideEvent*) { stop(); }

void ListeningView::keep() {
    if (!result()) return emit told(words("Nothing is heard yet: Enter listens."), true);
    m_document.edit(keep_heard(*result(), m_now.from.toStdString(), longer_side(), wall_clock_s()));
    emit told(words("Kept. What stands out of it is among the findings."), false);
}

void ListeningView::next_side() {
    const std::optional<bool> now = even_is_right();
    if (!now) m_even_is_right = true;
    else if (*now) m_even_is_right = false;
    else m_even_is_right.reset(), m_now.even_is_right.reset();
    refresh();
}

void ListeningView::put_right() {
    const InBeatAdvice what = advice();
    if (what.turn_deg == 0) return emit told(words("Not known yet how far and which way: listen, and say which side with T."), true);
    const auto edit = put_in_beat(what.turn_deg, balance(), wall_clock_s());
    m_document.edit(edit);
    stop();
    m_now = {};
    refresh();
    emit told(words("Kept: %1. Listen again: Enter.").arg(words(edit.name)), false);
}

std::optional<bool> ListeningView::even_is_right() const { return m_even_is_right ? m_even_is_right : m_now.even_is_right; }

std::string ListeningView::longer_side() const {
    return result() ? side_of_longer_beat(result()->longer_beat, even_is_right(), balance()) : std::string();
}

InBeatAdvice ListeningView::advice() const {
    if (!result()) return {};
    const DerivedEscapement& pallets = m_document.derived().escapement;
    const double let_off_deg = pallets.beat.least_rad ? in_degrees(*pallets.beat.least_rad) : 0;
    return advise_beat(result()->beat_error_ms, longer_side(), m_document.job().oscillator, let_off_deg, result()->beats_per_hour);
}

QList<Action> ListeningView::make_actions() {
    return CardStation::make_actions() +
           QList<Action>{
               {"listen.toggle", words("Start or stop listening"), {Qt::Key_Return}, [this] { toggle(); }, {}, words("listen")},
               {"listen.source", words("Another pickup or microphone"), {Qt::Key_S}, [this] { next_source(); }, {}, words("source")},
               {"listen.file", words("Open a recording…"), {Qt::Key_F}, [this] { ask_for_file(); }, {}, words("recording")},
               {"listen.wheel", words("Round the next wheel"), {Qt::Key_Right}, [this] { next_wheel(1); }, {}, words("wheel")},
               {"listen.wheel-before", words("Round the wheel before"), {Qt::Key_Left}, [this] { next_wheel(-1); }},
               {"listen.side",
                words("Which way it swings at the tick, as it is seen"),
                {Qt::Key_T},
                [this] { next_side(); },
                {},
                words("side")},
               {"listen.keep", words("Keep what is heard in the log"), {Qt::Key_K}, [this] { keep(); }, {}, words("keep")},
               {"listen.put-right", words("Done: put in beat as advised"), {Qt::Key_B}, [this] { put_right(); }, {}, words("put in beat")},
               {"listen.leave", words("Back to the swing"), {Qt::Key_L, Qt::Key_Escape}, [this] { emit left(); }, {}, words("back")}};
}

void ListeningView::next_wheel(int by) {
    const int count = static_cast<int>(wheels().size());
    m_wheel = (m_wheel + by + count) % count;
    update();
}

std::vector<SumCard::Tab> ListeningView::tabs() {
    using Swings = std::optional<OscillatorRecord>;
    const auto into_log = SumCard::typed_into_part<RateLog>(
        m_document,
        [](RateLog& log, const std::string& field, const std::string& word) { type_into_record(RateLog::record(), &log, field, word); });
    const auto into_swings =
        SumCard::typed_into_part<Swings>(m_document, [this](Swings& swings, const std::string& field, const std::string& word) {
            if (swings) type_with_swings(OscillatorRecord::record(), &*swings, field, word, m_document.derived().oscillator.bob_mm());
        });
    const auto take = [into_log, into_swings](const QString& name, const std::string& field, const std::string& word) {
        RateLog::record().find(field) ? into_log(name, field, word) : into_swings(name, field, word);
    };
    return {{words("heard"), words("What all the beats together tell."), [this] { return heard_sheet(); }, take},
            {words("kept"), words("What was heard before, and what was done."), [this] { return kept_sheet(); }, {}}};
}

SumAnswer ListeningView::heard_sheet() const {
    SumAnswer answer;
    if (oscillator()) {
        std::vector<std::string> fields = {"swing_deg"};
        if (balance()) fields.push_back("lift_angle_deg");
        answer.asked = lines_of(OscillatorRecord::record(), oscillator(), fields);
    }
    for (const SumLine& line : lines_of(RateLog::record(), &m_document.job().rate_log, {"recorder_ppm", "recorder_u_ppm"}))
        answer.asked.push_back(line);
    if (result()) answer.found = heard_lines(*result());
    else
        answer.found.push_back(
            {"none", "", "Enter listens. A pickup clamped to the movement hears more than a microphone beside it.", "", ""});
    return answer;
}

SumAnswer ListeningView::kept_sheet() const {
    SumAnswer answer;
    answer.found = kept_lines(m_document.job().rate_log);
    if (answer.found.empty()) answer.found.push_back({"none", "", "Nothing was kept yet: K keeps what is heard.", "", ""});
    return answer;
}

/// What is dear to paint is painted once and kept until something else is told; on paper and into a file it is painted as it is.
void ListeningView::paint_kept(QPainter& painter, const QRectF& room, Kept& kept, const std::function<void(QPainter&)>& paint) const {
    if (!for_screen(painter)) return paint(painter);
    const double scale = painter.worldTransform().m11() * painter.device()->devicePixelRatioF();
    const QString key = QString("%1 %2 %3 %4x%5 %6")
                            .arg(quintptr(m_now.told.get()))
                            .arg(quintptr(m_now.tick.get()))
                            .arg(m_wheel)
                            .arg(room.width())
                            .arg(room.height())
                            .arg(inks(painter).dark);
    if (kept.key != key || kept.scale != scale) {
        kept = {key, scale, QPixmap((room.size() * scale).toSize())};
        kept.picture.fill(Qt::transparent);
        QPainter on(&kept.picture);
        on.scale(scale, scale);
        on.translate(-room.topLeft());
        paint(on);
    }
    painter.drawPixmap(room, kept.picture, kept.picture.rect());
}

QRectF ListeningView::dial() const {
    const double left = figures_wide + 30;
    return {left, 44, width() - SumCard::wide - left - 16, height() - figures_high - 76};
}

QRectF ListeningView::foot() const { return {18, height() - figures_high + 2, width() - SumCard::wide - 36.0, figures_high - 34}; }

void ListeningView::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.ground);
    paint_figures(painter, QRectF(18, 14, figures_wide, height() - figures_high - 16));
    paint_round(painter);
    paint_happenings(painter);
    if (m_now.tick || m_now.tock) {
        paint_kept(painter, foot().adjusted(-2, -2, 2, 2), m_hills,
                   [this](QPainter& on) { paint_tick_and_tock(on, foot(), m_now.tick.get(), m_now.tock.get()); });
        static const BeatAnalysisResult nothing;
        const auto& beats = m_document.derived().train.beats_per_hour;
        write_tick_and_tock(painter, foot(), result() ? *result() : nothing,
                            beats ? impulse_ms(m_document.derived().escapement, *beats) : std::nullopt);
    } else {
        Column empty(painter, foot());
        empty.says(words("Here stand the mean tick over the mean tock, by their loudness, once some beats are heard."), t.steel);
    }
    Column page(painter, QRectF(18, height() - 26.0, width() - SumCard::wide - 30, 24));
    page.line(
        legend({"listen.toggle", "listen.source", "listen.file", "listen.wheel", "listen.side", "listen.keep", "listen.leave"}, " · "),
        t.steel);
}

void ListeningView::write_figure(QPainter& painter, Column& page, const QString& name, const QString& figure, const QString& unit,
                                 const QColor& ink) {
    page.line(name, inks(painter).steel);
    const double base = page.y() + 22;
    const double wide = write(painter, type(Type::great, true), ink, {page.left(), base}, figure);
    write(painter, type(Type::text), inks(painter).steel, {page.left() + wide + 6, base}, unit);
    page.go_to(base + 14);
}

void ListeningView::paint_figures(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    Column page(painter, room);
    page.section(words("BY ITS SOUND"));
    place({"source",
           page.line(words_of_source(), t.blued, Type::text),
           [this] { next_source(); },
           words("the next pickup, microphone or recording"),
           {}});
    const QRectF bar(page.left(), page.y() + 4, room.width(), 6);
    painter.fillRect(bar, t.rule);
    // Down to 60 dB under full scale; at full scale it is cut off.
    constexpr double least_level = 1e-3, cut_off = 0.98;
    const double loud = 1 - std::log10(std::max(least_level, m_now.level)) / std::log10(least_level);
    if (m_now.listening)
        painter.fillRect(QRectF(bar.topLeft(), QSizeF(bar.width() * std::min(1.0, loud), bar.height())),
                         m_now.level > cut_off ? t.ruby : t.verdigris);
    page.go_to(bar.bottom() + 10);
    place({"listen",
           page.line(m_now.listening ? words("listening, %1: stop").arg(words(print_span(std::floor(m_now.seconds)))) : words("listen"),
                     t.blued, Type::figure, true),
           [this] { toggle(); },
           {},
           {}});
    page.gap(8);
    if (!result()) {
        page.says(m_now.listening ? (m_now.seconds < 8 ? words("It listens for the beat.")
                                                       : words("No beat stands out yet. Move the pickup closer, or make the room quieter."))
                                  : words("The sound tells rate, beat error and what comes back with every wheel."),
                  t.ink, Type::text);
        return;
    }
    const BeatAnalysisResult& heard = *result();
    const double u = std::max(heard.u_s_per_day, 0.01);
    write_figure(painter, page, words("rate, against %1 an hour").arg(words(print_short(heard.beats_per_hour, 8))),
                 (heard.rate_s_per_day > 0 ? "+" : "") + words(print_within(heard.rate_s_per_day, u)),
                 words("± %1 s/d").arg(words(print_within(u, u))), t.ink);
    if (m_now.listening) page.says(words(listen_on_in_words(heard, m_document.job().rate_log.wanted_u_s_per_day)), t.steel);
    page.gap(6);
    const bool limps = heard.beat_error_ms > limp_limit_ms(m_document.job().oscillator, heard.beats_per_hour) + 2 * heard.beat_error_u_ms;
    const double limp_u = std::max(heard.beat_error_u_ms, 0.005);
    if (!heard.beat_error_untold.empty()) page.says(words(heard.beat_error_untold), t.ink);
    else
        write_figure(painter, page, words("beat error"), words(print_within(heard.beat_error_ms, limp_u)),
                     words("± %1 ms").arg(words(print_within(limp_u, limp_u))), limps ? t.amber : t.ink);
    if (heard.amplitude_deg)
        write_figure(painter, page, words("amplitude"), words(print_fixed(*heard.amplitude_deg, 0)) + "°",
                     words("± %1° by its lift").arg(words(print_fixed(heard.amplitude_u_deg.value_or(0), 0))), t.ink);
    write_beat(page);
}

/// What to do about the limp, and which way.
void ListeningView::write_beat(Column& page) {
    const Theme& t = page.inks();
    const std::optional<bool> even = even_is_right();
    const QString ways[2] = {balance() ? words("clockwise") : words("to the right"),
                             balance() ? words("anticlockwise") : words("to the left")};
    place({"side",
           page.says(even ? words("at the tick it swings %1").arg(ways[*even ? 0 : 1]) : words("which way does it swing at the tick?"),
                     t.blued),
           [this] { next_side(); },
           words("Look at it, and say: it tells which way to put it right."),
           {}});
    page.gap(4);
    if (result()->longer_beat.empty()) return;
    const InBeatAdvice what = advice();
    if (!what.missing.empty()) {
        page.says(words("To be given: %1.").arg(words(what.missing)), t.steel);
        return;
    }
    page.says(words(what.words), t.ink);
    if (what.turn_deg == 0) return;
    page.gap(2);
    place({"put-right",
           page.line(words("done: put right so"), t.blued, Type::text, true),
           [this] { put_right(); },
           words("Kept in the log; listen again after it"),
           {}});
    place({"keep",
           page.line(words("keep what is heard"), t.blued, Type::text),
           [this] { keep(); },
           words("In the log, and among the findings"),
           {}});
}

/// The time that was heard as a line over the foot: where beats were heard, and each thing that happened at its own time.
void ListeningView::paint_happenings(QPainter& painter) {
    if (!result() || result()->happenings.empty() || result()->seconds <= 0) return;
    const Theme& t = inks(painter);
    constexpr double thick = 4, apart = 10;
    const QRectF line(dial().left(), foot().top() - 9, dial().width(), thick);
    const auto x_of = [&](double s) { return line.left() + line.width() * std::clamp(s / result()->seconds, 0.0, 1.0); };
    painter.fillRect(line, t.verdigris);
    // What is seen, not what it means: that the sheet says, with its doubts.
    static const std::map<std::string, QString> seen = {{"set going", words("first beat at %1")},
                                                        {"stops", words("last beat at %1")},
                                                        {"hidden", words("not heard from %1")},
                                                        {"set going again", words("not in its former beat from %1")}};
    double free = line.left();
    for (const Happening& happening : result()->happenings) {
        painter.fillRect(QRectF(QPointF(x_of(happening.from_s), line.top()), QPointF(x_of(happening.to_s), line.bottom())), t.amber);
        const bool begins = happening.kind == "set going" || happening.kind == "set going again";
        const double at_s = begins ? happening.to_s : happening.from_s;
        const QString label = seen.at(happening.kind).arg(words(print_span(std::round(at_s))));
        const double wide = QFontMetricsF(type(Type::note)).horizontalAdvance(label);
        const double left = std::min(x_of(at_s), line.right() - wide);
        if (left < free) continue;  // no room: the sheet has it
        write(painter, type(Type::note), t.ink, {left, line.bottom() + 13}, label);
        free = left + wide + apart;
    }
}

void ListeningView::paint_round(QPainter& painter) {
    const Theme& t = inks(painter);
    const std::vector<LaidRound> all = wheels();
    const LaidRound& wheel = all[static_cast<size_t>(m_wheel) % all.size()];
    const QRectF room = dial();
    Column page(painter, QRectF(room.left(), 14, room.width(), 30));
    page.section(words("BEATS ROUND THE WHEEL: OUT IS LATE"));
    static const BeatAnalysisResult nothing;
    const auto& cut = m_document.derived().escapement.wheel;
    const EscapeWheelResult* escape = cut ? &*cut : nullptr;
    BeatsRound laid(painter, room, result() ? *result() : nothing, wheel, escape);
    paint_kept(painter, room.adjusted(-4, -4, 4, 4), m_laid,
               [&](QPainter& on) { BeatsRound(on, room, result() ? *result() : nothing, wheel, escape).paint(); });
    laid.write_sizes();
    if (m_now.listening && m_now.last && m_now.beat_s > 0) {
        const double beats = (m_now.seconds - m_now.last->at_s) / m_now.beat_s;
        const double turn = wheel.escape
                                ? (static_cast<double>(m_now.last->number) + std::floor(beats)) / static_cast<double>(wheel.places())
                                : m_now.seconds / wheel.period_s;
        laid.paint_hand(turn);
    }
    Flow names(painter, QRectF(room.left(), room.bottom() + 4, room.width(), 18), room.bottom() + 20, 14);
    for (size_t i = 0; i < all.size(); ++i)
        place({"wheel:" + words(all[i].name),
               names.say(words(all[i].name), i == static_cast<size_t>(m_wheel) % all.size() ? t.ink : t.blued, Type::note,
                         i == static_cast<size_t>(m_wheel) % all.size(), i == static_cast<size_t>(m_wheel) % all.size()),
               [this, i] {
                   m_wheel = static_cast<int>(i);
                   update();
               },
               words("one turn in %1").arg(words(print_span(all[i].period_s))),
               {}});
}

}  // namespace echappe
