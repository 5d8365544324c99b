#include "instruments/calliper_line.h"

#include <QAccessible>
#include <QApplication>
#include <QCoreApplication>
#include <QKeyEvent>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "drawing/in_place_editor.h"
#include "drawing/words.h"
#include "number/input_error.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double label_x = 92;
constexpr double words_x = 330;
constexpr double tray_width = 292;

}  // namespace

CalliperLine::CalliperLine(Document& document, QWidget* parent)
    : Canvas(parent),
      m_document(document),
      m_solver(document),
      m_plates(document),
      m_torque(document),
      m_looks(document),
      m_strikes(document),
      m_hands(hands_round(document)),
      m_together(together_round(document)),
      m_alarm(alarm_round(document)),
      m_wood(wood_round(document)),
      m_round(&m_solver),
      m_line(new QLineEdit(this)) {
    fix_size();
    wear(*m_line, Type::great, true);
    setAccessibleName(words("Calliper line"));
    m_line->setMaxLength(longest_entry);
    m_line->installEventFilter(this);
    connect(&document, &Document::changed, this, [this] {
        if (m_line->text().isEmpty() && m_round->follow_job()) tell({}, false);
        refresh();
    });
    connect(&document, &Document::opened, this, [this] {
        m_plates.begin();
        // What was said of the job before is not said of this one.
        tell({}, false);
    });
    connect(qApp, &QApplication::focusChanged, this, &CalliperLine::show_who_takes_figures);
    connect(&document.selection(), &Selection::changed, this, [this] {
        m_round->follow_subject();
        refresh();
    });
    connect(m_line, &QLineEdit::textEdited, this, [this](const QString& text) {
        // From the first letter on the question is held: what is asked next must not change under the hand.
        if (!text.isEmpty() && !m_ask_again) m_ask_again = m_round->hold();
        if (text.isEmpty()) m_ask_again = {};
        m_simulated = false;
        if (text.size() < longest_entry) tell({}, false);
        else tell(words("Cut after %1 letters: a reading is shorter.").arg(longest_entry), true);
    });
    refresh();
}

void CalliperLine::ask(const QuantityKey& key) {
    take(m_solver);
    m_solver.ask(key);
    refresh();
    m_line->setFocus();
    m_line->selectAll();
}

void CalliperLine::take(ReadingRound& round) {
    m_round = &round;
    if (!m_document.job().survey.pivots.holes.empty()) m_round->follow_subject();
    tell({}, false);
    refresh();
}

void CalliperLine::ask_next(int step) {
    // Tab as Enter: some instruments end their reading with it.
    if (!m_line->text().isEmpty()) {
        if (step > 0) return store();
        return tell(words("%1 stands here for %2: Enter keeps it, Escape takes it out.").arg(m_line->text().left(40), m_typed_for.name),
                    true);
    }
    m_round->step(step);
    tell({}, false);
    refresh();
}

bool CalliperLine::has_simulated() const { return m_document.calliper().has_value() && m_round->has_stand_in(); }

void CalliperLine::send_simulated() {
    try {
        const QString reading = m_round->simulated();
        // Through the line itself, key by key, so that it takes the same way as typing.
        m_line->setFocus();
        m_line->clear();
        m_line->insert(reading);
        m_ask_again = m_round->hold();
        tell(words("Simulated reading. Enter keeps it; F3 reads again."), false);
        m_simulated = true;
    } catch (const InputError& error) {
        tell(fault_in_words(error), true);
    }
}

void CalliperLine::explain() {
    if (const auto now = m_round->asked()) tell(now->how, false);
}

void CalliperLine::tell(const QString& sentence, bool fault) {
    m_message = sentence;
    m_fault = fault;
    m_line->setAccessibleDescription(sentence);
    if (QAccessible::isActive() && !sentence.isEmpty()) {
        QAccessibleEvent said(m_line, QAccessible::Alert);
        QAccessible::updateAccessibility(&said);
    }
    update();
}

void CalliperLine::store() {
    if (!m_round->asked()) return;
    const QString text = m_line->text();
    if (text.trimmed().isEmpty() && !m_round->takes_nothing()) return;
    // An instrument may end its reading with two line ends: the second is no answer to the next question.
    constexpr int two_line_ends_ms = 150;
    if (text.isEmpty() && m_kept.isValid() && m_kept.elapsed() < two_line_ends_ms) return;
    // While it is being kept it belongs to no question: what comes up next must not take it for its own.
    const Question typed_for = std::exchange(m_typed_for, {});
    try {
        const QString kept = m_round->keep(text, m_simulated);
        m_line->clear();
        m_ask_again = {};
        m_simulated = false;
        m_kept.start();
        refresh();
        tell(kept, false);
    } catch (const std::exception& error) {
        m_typed_for = typed_for;
        m_line->selectAll();
        tell(fault_in_words(error), true);
    }
}

CalliperLine::Question CalliperLine::question() const {
    const auto now = m_round->asked();
    return {m_round, now ? now->id : QString(), now ? now->name : QString()};
}

/// Where another question has come up, what was typed for the one before waits for it, and what waits for this one stands again.
void CalliperLine::follow_question() {
    Question now = question();
    if (now == m_typed_for) return;
    if (m_typed_for.round && !m_line->text().isEmpty()) {
        std::erase_if(m_unkept, [&](const Unkept& old) { return old.question == m_typed_for; });
        m_unkept.push_back({m_typed_for, m_line->text(), m_simulated, m_ask_again});
    }
    m_typed_for = std::move(now);
    m_ask_again = {};
    const auto waits = std::find_if(m_unkept.begin(), m_unkept.end(), [&](const Unkept& old) { return old.question == m_typed_for; });
    m_line->setText(waits == m_unkept.end() ? QString() : waits->text);
    m_simulated = waits != m_unkept.end() && waits->simulated;
    if (waits == m_unkept.end()) return;
    m_ask_again = waits->ask_again;
    m_unkept.erase(waits);
}

QStringList CalliperLine::unkept() const {
    QStringList list;
    for (const Unkept& one : m_unkept) list << one.question.name + ": " + one.text.left(40);
    if (!m_line->text().isEmpty()) list << m_typed_for.name + ": " + m_line->text().left(40);
    return list;
}

void CalliperLine::forget_unkept() {
    m_unkept.clear();
    m_line->clear();
    m_ask_again = {};
    update();
}

void CalliperLine::back_to_unkept() {
    if (m_unkept.empty()) return;
    const Unkept last = m_unkept.back();
    emit station_wanted(last.question.round);
    take(*last.question.round);
    if (last.ask_again) last.ask_again();
    refresh();
    m_line->setFocus();
}

void CalliperLine::refresh() {
    if (m_typed_for.round || m_line->text().isEmpty()) follow_question();
    const auto now = m_round->asked();
    m_line->setEnabled(now.has_value());
    m_line->setVisible(now.has_value());
    const QString asked = now ? words("%1, %2").arg(now->name, now->typed_as) : words("readings");
    if (m_line->accessibleName() != asked) m_line->setAccessibleName(asked);
    show_who_takes_figures();
}

bool CalliperLine::of_the_picture(const QKeyEvent& key) const {
    const QString text = key.text();
    const bool figure_or_sign = !text.isEmpty() && text[0].isPrint() && !text[0].isLetter() && !text[0].isSpace();
    return figure_or_sign && !m_line->hasFocus() && m_picture_answers && m_picture_answers(key);
}

bool CalliperLine::takes_figures() const {
    return m_line->isEnabled() && !of_the_picture(QKeyEvent(QEvent::KeyPress, Qt::Key_1, Qt::NoModifier, QStringLiteral("1")));
}

void CalliperLine::show_who_takes_figures() {
    m_line->setPlaceholderText(takes_figures() || !m_line->isEnabled() ? QString() : words("F2"));
    update();
}

bool CalliperLine::wants(const QKeyEvent& key) const {
    if (key.modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier) || of_the_picture(key)) return false;
    const bool stands = !m_line->text().isEmpty();
    switch (key.key()) {
        case Qt::Key_Return:
        case Qt::Key_Enter:
        case Qt::Key_Tab:
        case Qt::Key_Backtab:
        case Qt::Key_Backspace:
            return stands;
        default:
            break;
    }
    const QString text = key.text();
    if (text.isEmpty() || !text[0].isPrint()) return false;
    if (stands) return true;
    const auto now = m_round->asked();
    if (now && now->whole) return text[0].isDigit();
    return text[0].isDigit() || QString::fromUtf8("+-.,−±").contains(text[0]) || (now && now->letters.contains(text[0]));
}

void CalliperLine::take_key(QKeyEvent& key) {
    if (!m_line->isEnabled()) return tell(words("“%1” goes nowhere: nothing is asked here.").arg(key.text()), true);
    if (!m_line->hasFocus()) {
        m_line->setFocus();
        // Typing goes on where it stopped: coming to the line does not put all of it up to be written over.
        m_line->end(false);
    }
    QCoreApplication::sendEvent(m_line, &key);
}

bool CalliperLine::is_of_the_window(const QKeyEvent& event) const {
    const bool of_the_line = event.matches(QKeySequence::Paste) || event.matches(QKeySequence::SelectAll);
    return m_line->text().isEmpty() && (event.modifiers() & Qt::ControlModifier) && !of_the_line;
}

bool CalliperLine::eventFilter(QObject* watched, QEvent* event) {
    // While nothing stands here there is nothing of the line's own to undo: Ctrl+Z is the job's.
    if (watched == m_line && event->type() == QEvent::ShortcutOverride && is_of_the_window(static_cast<const QKeyEvent&>(*event))) {
        event->ignore();
        return true;
    }
    if (watched == m_line && event->type() == QEvent::KeyPress && key(*static_cast<QKeyEvent*>(event))) return true;
    return Canvas::eventFilter(watched, event);
}

bool CalliperLine::key(QKeyEvent& event) {
    if (m_line->text().isEmpty() && !(event.modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::ShiftModifier)) &&
        m_round->key_on_empty_line(event.key())) {
        tell({}, false);
        refresh();
        return true;
    }
    switch (event.key()) {
        case Qt::Key_Return:
        case Qt::Key_Enter:
            store();
            return true;
        case Qt::Key_Tab:
            ask_next(1);
            return true;
        case Qt::Key_Backtab:
            ask_next(-1);
            return true;
        case Qt::Key_Question:
            if (!m_line->text().isEmpty()) return false;  // a count that is doubted
            explain();
            return true;
        case Qt::Key_Escape:
            if (m_line->text().isEmpty()) return emit left(), true;
            m_line->clear();
            m_ask_again = {};
            tell({}, false);
            return true;
        default:
            // F6 to F12 and Insert name, place and add what the line is about: they work from here too.
            if (event.key() != Qt::Key_Insert && (event.key() < Qt::Key_F1 || event.key() > Qt::Key_F35)) return false;
            emit station_key(&event);
            return true;
    }
}

void CalliperLine::lay_out() { put(*m_line, {label_x, 26, 190, 36}); }

/// What the keys do here; a click on the words does it too. What has no room is left out whole, from the last but one.
void CalliperLine::paint_keys(QPainter& painter, double x, double end) {
    const QFont small = type(Type::note);
    const QString between = "  ·  ";
    auto keys = m_round->keys();
    if (takes_figures()) keys.push_back({words("Esc picture"), {Qt::Key_Escape}});
    else keys = {{words("figures answer the picture; F2 brings them to this line"), {Qt::Key_F2}}};
    const auto wide = [&] {
        QStringList all;
        for (const LineKey& one : keys) all << one.words;
        return width_of(small, all.join(between));
    };
    while (keys.size() > 2 && x + wide() > end) keys.erase(keys.end() - 2);
    for (const LineKey& one : keys) {
        if (&one != &keys.front()) x += write(painter, small, inks(painter).steel, {x, 20}, between);
        const double length = write(painter, small, inks(painter).steel, {x, 20}, one.words);
        if (!one.keys.empty()) place({"key:" + one.words, QRectF(x - 3, 4, length + 6, 22), [this, one] { press(one); }, {}, {}});
        x += length;
    }
}

void CalliperLine::press(const LineKey& key) {
    m_line->setFocus();
    m_line->end(false);
    for (const Qt::Key one : key.keys) {
        const bool printed = one < Qt::Key_Escape;
        QKeyEvent event(QEvent::KeyPress, one, Qt::NoModifier, printed ? QString(QChar(one)).toLower() : QString());
        QCoreApplication::sendEvent(m_line, &event);
    }
}

void CalliperLine::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.dark ? t.sheet : QColor(Qt::white));
    painter.fillRect(QRectF(0, 0, width(), 2), t.ink);
    if (m_line->isEnabled()) m_round->paint_instrument(painter, {18, 28});
    // A stroke under the line where the next figure goes.
    if (takes_figures()) painter.fillRect(QRectF(label_x, 63, 190, 3), t.blued);
    const auto now = m_round->asked();
    write(painter, type(Type::note), t.steel, {label_x, 20}, now ? now->name : QString());
    if (now) write(painter, type(Type::text), t.steel, {label_x + 196, 52}, now->typed_as);
    const double room = width() - words_x - tray_width - 16;
    const double name_wide = now ? width_of(type(Type::note), now->name) : 0;
    const double keys_x = std::max(words_x, label_x + name_wide + 18);
    if (now) paint_keys(painter, keys_x, words_x + room);
    const double said_x = std::max(words_x + 20, label_x + 196 + (now ? width_of(type(Type::text), now->typed_as) : 0) + 14);
    paint_message(painter, said_x, words_x + room - said_x);
    if (!now || !has_simulated()) return;
    const QRectF tray(width() - tray_width, 12, tray_width - 18, 46);
    painter.setPen(QPen(t.rule, 1));
    painter.setBrush(t.ground);
    painter.drawRect(tray);
    write(painter, type(Type::note), t.steel, tray.topLeft() + QPointF(12, 18), words("%1, SIMULATED").arg(m_round->instrument()));
    write(painter, type(Type::note), t.ink, tray.topLeft() + QPointF(12, 36), m_round->precision());
    write(painter, type(Type::text, true), t.blued, tray.topRight() + QPointF(-12, 18), words("read F3"), 1);
    place({"simulated",
           tray,
           [this] { send_simulated(); },
           words("A stand-in for practice: types a reading of the demo's hidden movement"),
           {}});
}

/// What was just said, else what is still to be kept elsewhere, else a word about the question.
void CalliperLine::paint_message(QPainter& painter, double x, double room) {
    const Theme& t = inks(painter);
    const QFont font = type(Type::note);
    if (!m_message.isEmpty()) {
        write_wrapped(painter, font, m_fault ? t.ruby : t.blued, {x, 29}, room, m_message);
    } else if (!m_unkept.empty()) {
        const Unkept& last = m_unkept.back();
        const QString reminder =
            words("typed and not kept: %1 for %2. Shift+F2 goes back to it.").arg(last.text.left(40), last.question.name);
        write_wrapped(painter, font, t.amber, {x, 29}, room, reminder);
        place({"unkept", QRectF(x, 26, room, 36), [this] { back_to_unkept(); }, unkept().join("\n"), {}});
    } else if (const auto now = m_round->asked()) {
        write_wrapped(painter, font, now->warns ? t.amber : t.blued, {x, 29}, room, now->note);
    }
}

}  // namespace echappe
