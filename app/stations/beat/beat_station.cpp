#include "stations/beat/beat_station.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <algorithm>
#include <cmath>

#include "beat/edits.h"
#include "beat/readings.h"
#include "beat/sheets.h"
#include "drawing/words.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "oscillator/edits.h"
#include "print/part_sheet.h"
#include "sheet/plot.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double narrow_column = 380;  ///< of the column of the rate: less says less
constexpr double rate_high = 112;
constexpr double means_high = 158;

QString rate_within(double rate, double u) { return (rate > 0 ? "+" : "") + words(print_within(rate, u)); }
QString rate_words(double rate, int decimals = 1) { return (rate > 0 ? "+" : "") + words(print_fixed(rate, decimals)); }

}  // namespace

BeatStation::BeatStation(const Workbench& bench)
    : CardStation(bench.document, {}, nullptr),
      m_motion(bench.motion),
      m_line(bench.line),
      m_plot(new RatePlot(this)),
      m_escapement(new EscapementView(bench.document, bench.motion, this)),
      m_listening(new ListeningView(bench.document, this)) {
    m_escapement->hide();
    m_listening->hide();
    connect(m_listening, &ListeningView::told, this, &BeatStation::told);
    connect(m_listening, &ListeningView::left, this, [this] { show_listening(false); });
    connect(m_escapement, &EscapementView::told, this, &BeatStation::told);
    connect(m_escapement, &EscapementView::round_changed, this, &BeatStation::round_changed);
    connect(m_escapement, &EscapementView::left, this, [this] { show_escapement(false); });
    BeatStation::lay_out();
    setAccessibleName(words("Beat"));
    connect(&m_document, &Document::changed, this, &BeatStation::refresh);
    connect(&m_motion, &Motion::moved, this, [this] {
        if (isVisible()) update_in(picture());
    });
    connect(m_plot, &RatePlot::look_picked, this, [this](int look) {
        if (look >= 0)
            emit told(words("%1. Delete takes this look out.").arg(words(look_in_words(beat().looks[static_cast<size_t>(look)]))), false);
        setFocus();
    });
}

ReadingRound* BeatStation::own_round() const {
    if (escapement_shown() && m_escapement->size_round().wanted()) return &m_escapement->size_round();
    return &m_line.looks();
}

const RateMeans* BeatStation::means() const {
    if (const RateMeans* chosen = beat().means_by(m_means)) return chosen;
    return beat().means.empty() ? nullptr : &beat().means.front();
}

void BeatStation::choose_means(const std::string& id) {
    if (const RateMeans* now = means(); now && now->id == id) return;
    m_means = id;
    try_amount(0);
}

void BeatStation::next_means(int by) {
    const auto& all = beat().means;
    const RateMeans* now = means();
    if (!now) return;
    const auto count = static_cast<std::ptrdiff_t>(all.size());
    choose_means(all[static_cast<size_t>((now - all.data() + by + count) % count)].id);
}

void BeatStation::try_amount(double amount) {
    const RateMeans* now = means();
    const double wanted = now ? std::clamp(std::round(amount / now->step) * now->step, -now->most, now->most) : 0;
    std::optional<double> change;
    // What cannot be turned so far is told, and the trial stays where it was; where even that went with an edit, it ends.
    attempt([&] { change = now ? rate_change(*oscillator(), *m_document.derived().train.beats_per_hour, *now, wanted) : 0; });
    if (!change) return wanted == m_amount ? try_amount(0) : void();
    m_amount = wanted;
    m_change = *change;
    m_plot->show_trial(m_amount != 0 ? goes_on(beat(), m_change) : std::vector<std::array<double, 2>>());
    update();
}

void BeatStation::try_advised() {
    if (const RateMeans* now = means(); now && now->advised) try_amount(*now->advised);
}

std::optional<double> BeatStation::expected() const {
    const RateMeans* now = means();
    if (!now || !beat().now()) return {};
    return beat().now()->rate_s_per_day + m_change;
}

void BeatStation::keep() {
    const RateMeans* now = means();
    if (!now || m_amount == 0) {
        emit told(words("Nothing is tried: turn it first, with ← and → or by dragging; A takes what is advised."), true);
        return;
    }
    if (beat().looks.empty()) {
        emit told(words("Look at the clock first: what is done is kept between two looks."), true);
        return;
    }
    // Just after the last look: the next one opens the stretch that tells what came of it.
    const RateEvent event =
        done_to_rate(*oscillator(), *m_document.derived().train.beats_per_hour, *now, m_amount, beat().looks.back().reference_s + 1);
    m_document.edit(rate_event(event));
    try_amount(0);
    emit told(words("Kept: %1. Look again when it has run.").arg(words(event.what)), false);
}

void BeatStation::remove_picked_look() {
    if (m_plot->picked() < 0) return;
    const double at = beat().looks[static_cast<size_t>(m_plot->picked())].reference_s;
    m_plot->pick(-1);
    m_document.edit(look_taken_out(at));
}

void BeatStation::show_listening(bool shown) {
    m_escapement->hide();
    m_listening->setVisible(shown);
    if (!shown) return setFocus();
    lay_out();
    m_listening->refresh();
    m_listening->setFocus();
}

void BeatStation::take_sound(const QString& path) {
    show_listening(true);
    m_listening->listen_to(path);
}

void BeatStation::show_escapement(bool shown) {
    m_listening->hide();
    m_escapement->setVisible(shown);
    emit round_changed();
    if (!shown) return setFocus();
    lay_out();
    m_escapement->refresh();
    m_escapement->setFocus();
}

void BeatStation::showEvent(QShowEvent*) { refresh(); }

void BeatStation::refresh() {
    // A plot nobody sees costs the edit that others wait for.
    if (!isVisible()) return;
    const auto* pendulum = oscillator() ? oscillator()->as<Pendulum>() : nullptr;
    const auto* balance = oscillator() ? oscillator()->as<Balance>() : nullptr;
    const std::string shape = pendulum  ? "pendulum" + std::to_string(pendulum->parts.size())
                              : balance ? "balance" + std::to_string(balance->screws.size())
                                        : "";
    if (shape != m_shape) {
        m_shape = shape;
        m_card->set_tabs(shape.empty() ? std::vector<SumCard::Tab>() : tabs());
    }
    m_card->show_part(!oscillator() ? QString() : pendulum ? words("Pendulum") : words("Balance and spring"));
    m_plot->show_log(beat());
    try_amount(m_amount);
}

double BeatStation::picture_wide() const {
    constexpr double share = 0.47, least = 200, most = 420;
    return std::clamp((width() - SumCard::wide) * share, least, most);
}

QRectF BeatStation::picture() const { return {12, 46, picture_wide(), height() - 60.0}; }

void BeatStation::lay_out() {
    CardStation::lay_out();
    const double left = picture_wide() + 24;
    // Never without room: the plot paints itself whenever its size changes, shown or not.
    constexpr double least = 80;
    put(*m_plot,
        {left, rate_high, std::max(least, width() - SumCard::wide - left - 12), std::max(least, height() - rate_high - means_high)});
    put(*m_escapement, rect());
    put(*m_listening, rect());
}

QString BeatStation::writes(const QString& ending) const {
    const bool written = ending == "svg" || ending == "dxf" || ending == "pdf" || ending == "step";
    return written && escapement_shown() ? m_escapement->part() : QString();
}

void BeatStation::write_to(const QString& path) { save_drawing(path.toStdString(), m_escapement->to_cut().drawing); }

Solid BeatStation::solid() const { return m_escapement->to_cut().solid; }

Printout BeatStation::printed() {
    if (!escapement_shown() || m_escapement->part().isEmpty()) return Station::printed();
    const EscapementView::Cut cut = m_escapement->to_cut();
    QList<PrintedSize> sizes;
    for (const SumLine& line : cut.sizes.found) sizes.push_back({words(line.words), words(line.text), words(line.unit)});
    return part_sheet(m_document.job(), m_escapement->part(), cut.drawing, sizes);
}

QList<PrintTable> BeatStation::print_tables() {
    PrintTable looks{words("Looks at the clock"), {{words("look")}}};
    for (const RateObservation& look : beat().looks) looks.rows << QStringList{words(look_in_words(look))};
    return CardStation::print_tables() << looks;
}

void BeatStation::paint_over(QPainter& painter) { paint_plot(painter, *m_plot); }

void BeatStation::changeEvent(QEvent* event) {
    if (event->type() == QEvent::StyleChange) m_plot->retheme(theme());
    Canvas::changeEvent(event);
}

QList<Action> BeatStation::make_actions() {
    const auto turn = [this](double steps) { return [this, steps] { try_amount(m_amount + steps * (means() ? means()->step : 0)); }; };
    const QString menu = words("&Rate");
    return CardStation::make_actions() +
           QList<Action>{{"beat.less", words("Turn it back by its least step"), {Qt::Key_Left}, turn(-1), {}, words("turn it")},
                         {"beat.more", words("Turn it on by its least step"), {Qt::Key_Right}, turn(1)},
                         {"beat.much-less", words("Turn it back by eight steps"), {Qt::SHIFT | Qt::Key_Left}, turn(-8)},
                         {"beat.much-more", words("Turn it on by eight steps"), {Qt::SHIFT | Qt::Key_Right}, turn(8)},
                         {"beat.advised", words("Try what is advised"), {Qt::Key_A}, [this] { try_advised(); }, menu, words("as advised")},
                         {"beat.keep", words("Done: keep what was tried"), {Qt::Key_Return}, [this] { keep(); }, menu, words("done")},
                         {"beat.means",
                          words("Another means: nut, tray, pins, screws"),
                          {Qt::Key_M},
                          [this] { next_means(1); },
                          menu,
                          words("another")},
                         {"beat.nothing", words("Try nothing"), {Qt::Key_Escape, Qt::Key_Home}, [this] { try_amount(0); }},
                         {"beat.escapement",
                          words("Escape wheel and pallets"),
                          {Qt::Key_E},
                          [this] { show_escapement(!escapement_shown() || just_come()); },
                          menu,
                          words("escapement")},
                         {"beat.listen",
                          words("Listen to it"),
                          {Qt::Key_L},
                          [this] { show_listening(!listening_shown() || just_come()); },
                          menu,
                          words("listen")},
                         {"beat.next-look", words("The next look on the plot"), {Qt::Key_N}, [this] { pick_look(1); }, menu},
                         {"beat.look-before", words("The look before it"), {Qt::SHIFT | Qt::Key_N}, [this] { pick_look(-1); }, menu},
                         {"beat.remove", words("Take the picked look out"), {Qt::Key_Delete}, [this] { remove_picked_look(); }, menu},
                         {"beat.write",
                          words("Write the looks as CSV…"),
                          {},
                          [this] { emit csv_wanted(words("looks.csv"), looks_to_csv(m_document.job().rate_log)); },
                          menu}};
}

bool BeatStation::reads(const std::string& header) const { return header.find("reference_s") != std::string::npos; }

size_t BeatStation::read_table(Job& job, const std::string& csv) { return keep_looks_csv(job.rate_log, csv); }

std::vector<Scene> BeatStation::scenes() {
    return {{"beat-pendulum", "tide-house", [this] { try_amount(-0.125); }},
            {"beat-balance", "watch", [this] { try_advised(), card().show_sum(4); }},
            {"beat-escapement", "tide-house", [this] { show_escapement(true); }, {}, [this] { show_escapement(false); }},
            {"beat-lever", "watch", [this] { show_escapement(true); }, {}, [this] { show_escapement(false); }},
            {"beat-pallets",
             "waiting-room",
             [this] {
                 show_escapement(true);
                 m_escapement->card().show_sum(5);
             },
             {},
             [this] {
                 m_escapement->card().show_sum(0);
                 show_escapement(false);
             }},
            {"beat-listening", "tide-house",
             [this] {
                 show_listening(true);
                 constexpr double minutes_s = 480;
                 m_listening->hurry(minutes_s);
             },
             [this] { return !m_listening->heard().listening; }, [this] { show_listening(false); }}};
}

void BeatStation::pick_look(int by) {
    const int looks = static_cast<int>(beat().looks.size());
    if (looks == 0) return emit told(words("No looks yet: the line below takes the first."), true);
    const int now = m_plot->picked();
    m_plot->pick(now < 0 ? (by > 0 ? 0 : looks - 1) : (now + by + looks) % looks);
}

void BeatStation::mousePressEvent(QMouseEvent* event) {
    setFocus();
    m_held.reset();
    for (const SwingPicture::Handle& handle : m_handles)
        if (event->button() == Qt::LeftButton && handle.rect.contains(event->position())) m_held = handle;
    if (!m_held) return Canvas::mousePressEvent(event);
    choose_means(m_held->means.toStdString());
    m_held_at = event->position();
    m_held_from = m_amount;
}

void BeatStation::mouseMoveEvent(QMouseEvent* event) {
    if (!m_held) return Canvas::mouseMoveEvent(event);
    const double along = QPointF::dotProduct(event->position() - m_held_at, m_held->way);
    try_amount(m_held_from + along / m_held->px_per_unit);
}

void BeatStation::mouseReleaseEvent(QMouseEvent*) { m_held.reset(); }

void BeatStation::paint_nothing(QPainter& painter) {
    const Theme& t = inks(painter);
    Column page(painter, QRectF(22, 40, picture_wide() - 30, 300));
    page.head(words("Nothing swings yet"), t.ink);
    page.says(words("Say what keeps time; then give its sizes on the right."), t.steel, Type::text);
    page.gap(12);
    for (const auto& [kind, name] : {std::pair{"pendulum", words("a pendulum")}, std::pair{"balance", words("a balance and spring")}}) {
        place({QString("begin:") + kind,
               page.line(name, t.blued, Type::figure, true),
               [this, k = std::string(kind)] { m_document.edit(begin_swinging(k)); },
               {},
               {}});
        page.gap(14);
    }
}

void BeatStation::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.ground);
    const double left = picture_wide() + 24;
    const QRectF right(left, 0, width() - SumCard::wide - left - 12, height());
    m_handles.clear();
    if (oscillator()) paint_swing(painter);
    else paint_nothing(painter);
    paint_rate(painter, QRectF(right.left(), 0, right.width(), rate_high));
    Column page(painter, QRectF(right.left(), height() - means_high + 2, right.width(), means_high - 4));
    write_means(page, painter);
    write_outcomes(page);
}

void BeatStation::paint_swing(QPainter& painter) {
    const Theme& t = inks(painter);
    Column page(painter, QRectF(18, 14, picture_wide() - 16, 200));
    page.section(oscillator()->as<Pendulum>() ? words("PENDULUM, TO SCALE") : words("BALANCE AND SPRING, FROM ABOVE"));
    page.gap(-4);
    page.line(picture_wide() < 260 ? words("F4 types the sizes, ← slower, → faster")
                                   : words("click a size, or F4 walks them · ← slower, → faster"),
              t.steel);
    const bool drawable = beat().fault.empty() && (swings().pendulum || swings().balance || swings().wheel);
    if (!drawable) {
        page.says(beat().fault.empty() ? words("To be given: %1.").arg(words(swings().missing)) : words(beat().fault),
                  beat().fault.empty() ? t.steel : t.ruby, Type::text);
        return list_sizes(painter, {page.left(), page.y() + 10, page.room().width(), height() - page.y() - 30});
    }
    SwingPicture::Stand stand;
    if (m_motion.running() || m_motion.seconds() != 0)
        stand.swing = std::sin(2 * pi * m_motion.seconds() * m_document.derived().train.beats_per_hour.value_or(3600) / 7200);
    if (const RateMeans* now = means()) stand.means = now->id;
    stand.amount = m_amount;
    const DrawnSizes drawn = sizes();
    Dimensions dimensions(painter, drawn, asked_size());
    SwingPicture swing(painter, *oscillator(), swings(), picture(), stand, dimensions);
    swing.paint();
    m_handles = swing.handles();
    for (const SwingPicture::Handle& handle : m_handles)
        place({"hold:" + handle.means, handle.rect, [] {}, words("drag it: the rate follows"), {}});
    place_sizes(painter, dimensions);
}

void BeatStation::paint_rate(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    Column page(painter, room.adjusted(0, 14, 0, 0));
    page.section(words("RATE"));
    const RateFitResult* now = beat().now();
    if (!now) {
        if (!m_document.job().rate_log.heard.empty()) page.says(heard_last(), t.ink, Type::text);
        page.says(beat().looks.empty()
                      ? words("No looks yet. Type how far the clock is ahead of the reference, and again a day later: +12.4.")
                      : words(beat().advice),
                  t.ink, Type::text);
        return;
    }
    const bool trial = m_amount != 0 && expected();
    const double base = page.y() + 24;
    double x = room.left();
    const double u = trial ? rate_u_after(*now, *means(), *expected() - now->rate_s_per_day) : now->u_s_per_day;
    x += write(painter, type(trial ? Type::head : Type::great, true), trial ? t.steel : t.ink, {x, base},
               rate_within(now->rate_s_per_day, now->u_s_per_day)) +
         8;
    if (trial) {
        x += write(painter, type(Type::head), t.steel, {x, base}, QString::fromUtf8("→")) + 8;
        x += write(painter, type(Type::great, true), t.verdigris, {x, base}, rate_within(*expected(), u)) + 8;
    }
    x += write(painter, type(Type::text), t.steel, {x, base}, words("s/d  ± %1").arg(words(print_within(u, u)))) + 22;
    if (room.width() > narrow_column)
        write(painter, type(Type::note), t.steel, {x, base}, trial ? words("as it would be") : words(now->way_in_words()));
    page.go_to(base + 12);
    page.says(known_of_rate(), t.steel);
}

QString BeatStation::heard_last() const {
    const HeardRate& last = m_document.job().rate_log.heard.back();
    return words("Heard %1: %2.").arg(words(time_in_words(last.reference_s)), words(heard_in_words(last)));
}

/// What else is known of the rate: warmth, sizes, misread looks.
QString BeatStation::known_of_rate() const {
    QStringList known;
    if (beat().per_K)
        known << words("A kelvin warmer: %1 ± %2 s/d%3.")
                     .arg(rate_words(beat().per_K->value, 2))
                     .arg(beat().per_K->u, 0, 'f', 2)
                     .arg(swings().per_K_by_rod ? words(", by the rod alone %1 s/d").arg(rate_words(*swings().per_K_by_rod, 2))
                                                : QString());
    if (swings().by_sizes_s_per_day) known << words("Its sizes alone give %1 s/d.").arg(rate_words(*swings().by_sizes_s_per_day, 0));
    if (!m_document.job().rate_log.heard.empty()) known << heard_last();
    if (const auto misread = beat().now()->outliers.size()) known << words("%1 misread, left out.").arg(misread);
    const bool little_room = m_plot->width() <= narrow_column;
    return little_room ? known.value(0) : known.join(' ');
}

void BeatStation::write_means(Column& page, QPainter& painter) {
    const Theme& t = inks(painter);
    const RateMeans* now = means();
    if (!now) {
        if (beat().now()) page.says(words(beat().advice), t.ink, Type::text);
        return;
    }
    Flow list(painter, page.room(), page.y() + 14, 18);
    for (const RateMeans& one : beat().means) {
        const bool on = &one == now;
        place({"means:" + words(one.id),
               list.say(words(one.name), on ? t.ink : t.blued, Type::text, on, on),
               [this, id = one.id] { choose_means(id); },
               words(one.advice),
               {}});
    }
    page.go_to(list.baseline() + 12);
    write_trial(page, painter, *now);
    const QRectF advice = page.says(words(now->advice.empty() ? beat().advice : now->advice), t.ink, Type::text);
    if (now->advised) place({"advised", advice, [this] { try_advised(); }, words("Click to try it"), {}});
    page.gap(4);
}

/// What is tried with the means, and the word that keeps it.
void BeatStation::write_trial(Column& page, QPainter& painter, const RateMeans& now) {
    const Theme& t = inks(painter);
    const double keep_base = page.room().top() + 14;
    const bool tried = m_amount != 0;
    Flow line(painter, page.room(), page.y() + 14, 8);
    line.say(tried ? words(amount_in_words(*oscillator(), now, m_amount)) : words("as it is"), tried ? t.verdigris : t.steel, Type::figure,
             true);
    if (tried) {
        line.say(words(m_amount > 0 ? now.gains : now.loses), t.verdigris, Type::text);
        const double wide = write(painter, type(Type::text, true), t.blued, {page.right() - 4, keep_base}, words("done: keep it"), 1);
        place({"keep",
               QRectF(page.right() - wide - 12, keep_base - 18, wide + 12, 26),
               [this] { keep(); },
               words("Kept in the log between two looks"),
               {}});
    } else if (page.room().width() > narrow_column) {
        write(painter, type(Type::note), t.steel, {page.right(), line.baseline()},
              legend({"beat.less|beat.more", "beat.advised", "beat.means", "beat.keep"}, " · "), 1);
    }
    page.go_to(line.baseline() + 8);
}

void BeatStation::write_outcomes(Column& page) {
    for (auto stretch = beat().stretches.rbegin(); stretch != beat().stretches.rend(); ++stretch) {
        if (!stretch->began_with) continue;
        if (!page.holds(16)) return;
        page.says(words("%1  %2: %3")
                      .arg(words(time_in_words(stretch->began_with->reference_s)), words(stretch->began_with->what),
                           words(outcome_in_words(*stretch))),
                  page.inks().brass_ink);
    }
}

}  // namespace echappe
