#include "stations/beat/beat_station.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "beat/readings.h"
#include "number/input_error.h"
#include "number/units.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double narrow = 380;  ///< of the column of the rate: less says less
constexpr double rate_high = 112;
constexpr double means_high = 158;

QString rate_words(double rate, int decimals = 1) { return (rate > 0 ? "+" : "") + words(print_fixed(rate, decimals)); }

}  // namespace

BeatStation::BeatStation(const Workbench& bench)
    : CardStation(bench.document, {}, nullptr), m_motion(bench.motion), m_line(bench.line), m_plot(new RatePlot(this)) {
    BeatStation::resizeEvent(nullptr);
    setAccessibleName(tr("Beat"));
    connect(&m_document, &Document::changed, this, &BeatStation::refresh);
    connect(&m_motion, &Motion::moved, this, [this] {
        if (isVisible()) update(picture().toRect());
    });
    connect(m_plot, &RatePlot::look_picked, this, [this](int look) {
        if (look >= 0)
            emit told(tr("%1. Delete takes this look out.").arg(words(look_in_words(beat().looks[static_cast<size_t>(look)]))), false);
        setFocus();
    });
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
        emit told(tr("Nothing is tried: turn it first, with ← and → or by dragging; A takes what is advised."), true);
        return;
    }
    if (beat().looks.empty()) {
        emit told(tr("Look at the clock first: what is done is kept between two looks."), true);
        return;
    }
    // Just after the last look: the next one opens the stretch that tells what came of it.
    const RateEvent event =
        done_to_rate(*oscillator(), *m_document.derived().train.beats_per_hour, *now, m_amount, beat().looks.back().reference_s + 1);
    m_document.edit(words(event.what), [&](Job& job) { job.rate_log.events.push_back(event); });
    try_amount(0);
    emit told(tr("Kept: %1. Look again when it has run.").arg(words(event.what)), false);
}

void BeatStation::remove_picked_look() {
    if (m_plot->picked() < 0) return;
    const double at = beat().looks[static_cast<size_t>(m_plot->picked())].reference_s;
    m_plot->pick(-1);
    m_document.edit(tr("Take a look out"), [&](Job& job) {
        std::erase_if(job.rate_log.looks, [&](const RateObservation& look) { return look.reference_s == at; });
    });
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
    m_card->show_part(!oscillator() ? QString() : pendulum ? tr("Pendulum") : tr("Balance and spring"));
    m_plot->show_log(beat());
    try_amount(m_amount);
}

double BeatStation::picture_wide() const {
    constexpr double share = 0.42, least = 200, most = 300;
    return std::clamp((width() - SumCard::wide) * share, least, most);
}

QRectF BeatStation::picture() const { return {12, 46, picture_wide(), height() - 60.0}; }

void BeatStation::resizeEvent(QResizeEvent* event) {
    CardStation::resizeEvent(event);
    const int left = static_cast<int>(picture_wide()) + 24;
    // Never without room: the plot paints itself whenever its size changes, shown or not.
    constexpr int least = 80;
    m_plot->setGeometry(left, static_cast<int>(rate_high), std::max(least, width() - SumCard::wide - left - 12),
                        std::max(least, height() - static_cast<int>(rate_high + means_high)));
}

void BeatStation::changeEvent(QEvent* event) {
    if (event->type() == QEvent::PaletteChange) m_plot->retheme();
    Canvas::changeEvent(event);
}

QList<Action> BeatStation::make_actions() {
    const auto turn = [this](double steps) { return [this, steps] { try_amount(m_amount + steps * (means() ? means()->step : 0)); }; };
    const QString menu = tr("&Rate");
    return CardStation::make_actions() +
           QList<Action>{
               {"beat.less", tr("Turn it back by its least step"), {Qt::Key_Left}, turn(-1), {}, tr("turn it")},
               {"beat.more", tr("Turn it on by its least step"), {Qt::Key_Right}, turn(1)},
               {"beat.much-less", tr("Turn it back by eight steps"), {Qt::SHIFT | Qt::Key_Left}, turn(-8)},
               {"beat.much-more", tr("Turn it on by eight steps"), {Qt::SHIFT | Qt::Key_Right}, turn(8)},
               {"beat.advised", tr("Try what is advised"), {Qt::Key_A}, [this] { try_advised(); }, menu, tr("as advised")},
               {"beat.keep", tr("Done: keep what was tried"), {Qt::Key_Return}, [this] { keep(); }, menu, tr("done")},
               {"beat.means", tr("Another means: nut, tray, pins, screws"), {Qt::Key_M}, [this] { next_means(1); }, menu, tr("another")},
               {"beat.nothing", tr("Try nothing"), {Qt::Key_Escape, Qt::Key_Home}, [this] { try_amount(0); }},
               {"beat.remove", tr("Take the picked look out"), {Qt::Key_Delete}, [this] { remove_picked_look(); }, menu},
               {"beat.write",
                tr("Write the looks as CSV…"),
                {},
                [this] { emit csv_wanted(tr("looks.csv"), looks_to_csv(m_document.job().rate_log)); },
                menu}};
}

bool BeatStation::reads(const std::string& header) const { return header.find("reference_s") != std::string::npos; }

size_t BeatStation::read_table(Job& job, const std::string& csv) { return keep_looks_csv(job.rate_log, csv); }

std::vector<Scene> BeatStation::scenes() {
    return {{"beat-pendulum", "tide-house", [this] { try_amount(-0.125); }},
            {"beat-balance", "watch", [this] { try_advised(), card().show_sum(4); }}};
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
    const Theme& t = theme();
    write(painter, figure_font(18), t.ink, {22, 60}, tr("Nothing swings yet"));
    write_wrapped(painter, word_font(11), t.steel, {22, 78}, picture_wide() - 30,
                  tr("Say what keeps time; then give its sizes on the right."));
    double y = 140;
    for (const auto& [kind, name] : {std::pair{"pendulum", tr("a pendulum")}, std::pair{"balance", tr("a balance and spring")}}) {
        const double wide = write(painter, word_font(12, true), t.blued, {22, y}, name);
        place({QString("begin:") + kind,
               QRectF(16, y - 22, wide + 12, 32),
               [this, k = std::string(kind)] { m_document.edit(tr("What swings"), [&](Job& job) { job.oscillator = oscillator_of(k); }); },
               {},
               {}});
        y += 40;
    }
}

void BeatStation::paint(QPainter& painter) {
    const Theme& t = theme();
    painter.fillRect(rect(), t.ground);
    const double left = picture_wide() + 24;
    const QRectF right(left, 0, width() - SumCard::wide - left - 12, height());
    m_handles.clear();
    const bool drawable = oscillator() && beat().fault.empty() && (swings().pendulum || swings().balance || swings().wheel);
    if (!oscillator()) {
        paint_nothing(painter);
    } else {
        write(painter, word_font(8.5, true), t.steel, {18, 26},
              oscillator()->as<Pendulum>() ? tr("PENDULUM, TO SCALE") : tr("BALANCE AND SPRING, FROM ABOVE"));
        write(painter, word_font(9), t.steel, {18, 42},
              picture_wide() < 260 ? tr("drag it, or ← slower, → faster") : tr("drag what can be turned, or ← slower, → faster"));
        if (drawable) {
            SwingPicture::Stand stand;
            if (m_motion.running() || m_motion.seconds() != 0)
                stand.swing =
                    std::sin(2 * std::numbers::pi * m_motion.seconds() * m_document.derived().train.beats_per_hour.value_or(3600) / 7200);
            if (const RateMeans* now = means()) stand.means = now->id;
            stand.amount = m_amount;
            SwingPicture swing(painter, *oscillator(), swings(), picture(), stand);
            swing.paint();
            m_handles = swing.handles();
        } else {
            write_wrapped(painter, word_font(10.5), beat().fault.empty() ? t.steel : t.ruby, {18, 64}, picture_wide() - 16,
                          beat().fault.empty() ? tr("To be given: %1.").arg(words(swings().missing)) : words(beat().fault));
        }
        for (const SwingPicture::Handle& handle : m_handles)
            place({"hold:" + handle.means, handle.rect, [] {}, tr("drag it: the rate follows"), {}});
    }
    paint_rate(painter, QRectF(right.left(), 0, right.width(), rate_high));
    const double y = paint_means(painter, QRectF(right.left(), height() - means_high, right.width(), means_high));
    paint_outcomes(painter, QRectF(right.left(), y, right.width(), height() - y));
}

void BeatStation::paint_rate(QPainter& painter, const QRectF& room) {
    const Theme& t = theme();
    write(painter, word_font(8.5, true), t.steel, {room.left(), 26}, tr("RATE"));
    const RateFitResult* now = beat().now();
    if (!now) {
        write_wrapped(painter, word_font(10.5), t.ink, {room.left(), 38}, room.width(),
                      beat().looks.empty()
                          ? tr("No looks yet. Type how far the clock is ahead of the reference, and again a day later: +12.4.")
                          : words(beat().advice));
        return;
    }
    const bool trial = m_amount != 0 && expected();
    const double rate = now->rate_s_per_day;
    double x = room.left();
    x += write(painter, figure_font(trial ? 18 : 26), trial ? t.steel : t.ink, {x, 58}, rate_words(rate)) + 8;
    if (trial) {
        x += write(painter, figure_font(18, false), t.steel, {x, 58}, QString::fromUtf8("→")) + 8;
        x += write(painter, figure_font(26), t.verdigris, {x, 58}, rate_words(*expected())) + 8;
    }
    x += write(painter, word_font(11), t.steel, {x, 58}, tr("s/d  ± %1").arg(now->u_s_per_day, 0, 'f', 1)) + 22;
    const QString under = trial                          ? tr("as it would be")
                          : rate > 2 * now->u_s_per_day  ? tr("gains")
                          : rate < -2 * now->u_s_per_day ? tr("loses")
                                                         : tr("not told from nought");
    if (room.width() > narrow) write(painter, word_font(9), t.steel, {x, 58}, under);
    QStringList known;
    if (beat().per_K)
        known << tr("A kelvin warmer: %1 ± %2 s/d%3.")
                     .arg(rate_words(beat().per_K->value, 2))
                     .arg(beat().per_K->u, 0, 'f', 2)
                     .arg(swings().per_K_by_rod ? tr(", by the rod alone %1 s/d").arg(rate_words(*swings().per_K_by_rod, 2)) : QString());
    if (swings().by_sizes_s_per_day)
        known << tr("Its sizes alone would have it keep %1 s/d.").arg(rate_words(*swings().by_sizes_s_per_day, 0));
    if (!now->outliers.empty()) known << tr("%1 misread, left out.").arg(now->outliers.size());
    if (room.width() <= narrow) known = known.mid(0, 1);
    write_wrapped(painter, word_font(9), t.steel, {room.left(), 70}, room.width(), known.join(' '));
}

double BeatStation::paint_means(QPainter& painter, const QRectF& room) {
    const Theme& t = theme();
    double y = room.top() + 16;
    if (beat().means.empty()) {
        if (!beat().advice.empty() && beat().now())
            write_wrapped(painter, word_font(10), t.ink, {room.left(), y - 8}, room.width(), words(beat().advice));
        return y + 24;
    }
    double x = room.left();
    const RateMeans* now = means();
    for (const RateMeans& one : beat().means) {
        const bool on = &one == now;
        const double wide = write(painter, word_font(10.5, on), on ? t.ink : t.blued, {x, y}, words(one.name));
        if (on) painter.fillRect(QRectF(x, y + 4, wide, 2), t.ink);
        place({"means:" + words(one.id),
               QRectF(x - 4, y - 16, wide + 8, 26),
               [this, id = one.id] { choose_means(id); },
               words(one.advice),
               {}});
        x += wide + 18;
    }
    y += 28;
    const OscillatorRecord& o = *oscillator();
    const double done = write(painter, figure_font(13), m_amount == 0 ? t.steel : t.verdigris, {room.left(), y},
                              m_amount == 0 ? tr("as it is") : words(amount_in_words(o, *now, m_amount)));
    if (m_amount != 0) {
        write(painter, word_font(9.5), t.verdigris, {room.left() + done + 8, y}, words(m_amount > 0 ? now->gains : now->loses));
        const double wide = write(painter, word_font(10.5, true), t.blued, {room.right() - 4, y - 28}, tr("done: keep it"), 1);
        place({"keep",
               QRectF(room.right() - wide - 12, y - 46, wide + 12, 26),
               [this] { keep(); },
               tr("Kept in the log between two looks"),
               {}});
    } else if (room.width() > narrow) {
        write(painter, word_font(8.5), t.steel, {room.right(), y},
              legend({"beat.less|beat.more", "beat.advised", "beat.means", "beat.keep"}, " · "), 1);
    }
    y += 8;
    const std::string& advice = now->advice.empty() ? beat().advice : now->advice;
    const double high = write_wrapped(painter, word_font(9.5), t.ink, {room.left(), y}, room.width() - 8, words(advice));
    if (now->advised) place({"advised", QRectF(room.left(), y, room.width(), high), [this] { try_advised(); }, tr("Click to try it"), {}});
    return y + high + 16;
}

void BeatStation::paint_outcomes(QPainter& painter, const QRectF& room) {
    const Theme& t = theme();
    double y = room.top();
    for (auto stretch = beat().stretches.rbegin(); stretch != beat().stretches.rend(); ++stretch) {
        if (!stretch->began_with) continue;
        if (y > room.bottom() - 4) return;
        const QString line = tr("%1  %2: %3")
                                 .arg(words(time_in_words(stretch->began_with->reference_s)), words(stretch->began_with->what),
                                      words(outcome_in_words(*stretch)));
        y += write_wrapped(painter, word_font(9), t.brass_ink, {room.left(), y - 12}, room.width() - 8, line) + 2;
    }
}

}  // namespace echappe
