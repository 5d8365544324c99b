#include "stations/train/writing_sheet.h"

#include <QKeyEvent>
#include <QPainter>
#include <QTextBlock>
#include <algorithm>

#include "document/bench_hand.h"
#include "drawing/lettering.h"
#include "drawing/words.h"
#include "theme/theme.h"
#include "train/edits.h"

namespace echappe {
namespace {

constexpr int margin = 22;
constexpr int title_high = 34;
constexpr int foot_high = 50;
constexpr int most_lines = 6;

/// The place in the window's text of a byte of the core's.
int place_of_byte(const std::string& text, size_t byte) {
    return static_cast<int>(QString::fromUtf8(text.data(), static_cast<qsizetype>(std::min(byte, text.size()))).size());
}

}  // namespace

WritingSheet::WritingSheet(Document& document, QWidget* parent) : Canvas(parent), m_document(document), m_text(new QPlainTextEdit(this)) {
    m_text->setAccessibleName(words("the train, written down"));
    wear(*m_text, Type::great, true);
    m_text->setFrameShape(QFrame::NoFrame);
    m_text->setTabChangesFocus(false);
    m_text->setPlaceholderText(words("144, 12/96, ?/?, 12/30"));
    m_text->setVerticalScrollBarPolicy(Qt::ScrollBarAsNeeded);
    m_text->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_text->installEventFilter(this);
    connect(m_text, &QPlainTextEdit::textChanged, this, [this] {
        if (!m_opening) read();
        emit resized();
    });
    setFocusProxy(m_text);
    connect(&document, &Document::changed, this, &WritingSheet::follow_job);
    hide();
}

/// What is typed from now on is one step of undo, over the job as it is now.
void WritingSheet::begin_on_job() {
    m_session = m_document.begin_session();
    m_train = m_document.job().train;
    m_teeth = m_document.job().teeth;
    m_written = {m_train, m_teeth.forms};
    m_left = write_down(m_train, m_teeth);
}

/// A reading that is kept beside the sheet is none of its text. Arbors and counts that were changed elsewhere are: the text follows.
void WritingSheet::follow_job() {
    if (!isVisible() || m_reading) return;
    if (write_down(m_document.job().train, m_document.job().teeth) == m_left) return;
    begin_on_job();
    // What cannot be read yet is still being typed: it stays. An empty sheet waits for a movement, and this is one.
    if (!m_faults.empty() || text().trimmed().isEmpty()) return;
    m_opening = true;
    m_text->setPlainText(words(m_train.arbors.empty() ? std::string() : m_left));
    m_text->moveCursor(QTextCursor::End);
    m_opening = false;
    update();
}

void WritingSheet::open() {
    begin_on_job();
    m_opening = true;
    const bool left = !m_unread.isEmpty();
    m_text->setPlainText(left ? m_unread : words(m_train.arbors.empty() ? std::string() : m_left));
    m_opening = false;
    m_faults.clear();
    show();
    raise();
    m_text->setFocus();
    m_text->moveCursor(QTextCursor::End);
    if (left) read();
    else mark_faults();
    emit resized();
}

void WritingSheet::finish() {
    m_unread = m_faults.empty() ? QString() : text();
    hide();
    emit closed();
    if (!m_unread.isEmpty())
        emit told(words("The text has a word that cannot be read: it is kept as it stands, and Ctrl+W goes back to it."), true);
}

void WritingSheet::write(const QString& text) {
    m_text->selectAll();
    m_text->insertPlainText(text);
}

QStringList WritingSheet::unkept() const {
    const QString there = isVisible() && !m_faults.empty() ? text() : m_unread;
    return there.isEmpty() ? QStringList() : QStringList{words("the train, written down: %1").arg(there.simplified().left(60))};
}

void WritingSheet::read() {
    const std::string typed = text().toStdString();
    Written written = read_written(typed, m_train, m_teeth);
    m_faults = std::move(written.faults);
    mark_faults();
    update();
    if (!m_faults.empty()) return;
    note_counts(written.train, m_train, taken_with("written down"));
    const WrittenDown now{std::move(written.train), std::move(written.forms)};
    m_reading = true;
    try {
        m_document.edit(write_train_down(m_written, now), {}, m_session);
    } catch (...) {
        m_reading = false;
        throw;
    }
    m_reading = false;
    m_written = now;
    m_left = write_down(m_document.job().train, m_document.job().teeth);
}

/// A wave under the word, as long as it is there.
void WritingSheet::mark_faults() {
    const std::string typed = text().toStdString();
    QList<QTextEdit::ExtraSelection> marks;
    for (const WrittenFault& fault : m_faults) {
        QTextEdit::ExtraSelection mark;
        mark.cursor = m_text->textCursor();
        mark.cursor.setPosition(place_of_byte(typed, fault.at));
        mark.cursor.setPosition(place_of_byte(typed, fault.at + fault.length), QTextCursor::KeepAnchor);
        mark.format.setUnderlineStyle(QTextCharFormat::WaveUnderline);
        mark.format.setUnderlineColor(theme().ruby);
        marks << mark;
    }
    m_text->setExtraSelections(marks);
}

bool WritingSheet::next_lost(bool back) {
    QTextCursor found =
        m_text->document()->find("?", m_text->textCursor(), back ? QTextDocument::FindBackward : QTextDocument::FindFlags());
    if (found.isNull()) {
        QTextCursor from(m_text->document());
        if (back) from.movePosition(QTextCursor::End);
        found = m_text->document()->find("?", from, back ? QTextDocument::FindBackward : QTextDocument::FindFlags());
    }
    if (!found.isNull()) m_text->setTextCursor(found);
    return !found.isNull();
}

void WritingSheet::first_lost() {
    m_text->moveCursor(QTextCursor::Start);
    next_lost(false);
}

void WritingSheet::drop() {
    m_unread.clear();
    m_faults.clear();
    hide();
    emit closed();
}

bool WritingSheet::key(const QKeyEvent& event) {
    const bool shift = event.modifiers() == Qt::ShiftModifier;
    if (event.key() == Qt::Key_Escape) return finish(), true;
    if ((event.key() == Qt::Key_Return || event.key() == Qt::Key_Enter) && !shift) {
        if (m_faults.empty()) finish();
        return true;
    }
    const bool back = event.key() == Qt::Key_Backtab;
    if (event.key() == Qt::Key_Tab || back) {
        if (!next_lost(back)) emit led_on(back);
        return true;
    }
    return false;
}

bool WritingSheet::eventFilter(QObject* watched, QEvent* event) {
    if (watched == m_text && event->type() == QEvent::KeyPress && key(*static_cast<QKeyEvent*>(event))) return true;
    return Canvas::eventFilter(watched, event);
}

double WritingSheet::wanted_height() const {
    int lines = 0;
    for (QTextBlock block = m_text->document()->begin(); block.isValid(); block = block.next()) lines += std::max(1, block.lineCount());
    const double line = m_text->fontMetrics().lineSpacing() / interface_scale();
    return title_high + std::clamp(lines, 1, most_lines) * line + 14 + foot_high;
}

void WritingSheet::lay_out() { put(*m_text, QRectF(margin - 6, title_high, width() - 2 * margin + 12, height() - title_high - foot_high)); }

QString WritingSheet::what_it_takes() const {
    if (!m_faults.empty()) {
        const WrittenFault& fault = m_faults.front();
        return words("Not read: got %1, takes %2").arg(words(fault.got), words(fault.accepts));
    }
    if (text().trimmed().isEmpty())
        return words("From the power up, pinion over wheel; ? where a count is lost. The movement grows as you write.");
    return words(
        "strike: 84, 8/78 … · from centre 64: 57/75, 87 tide hand · lantern 8/64 · 96? doubted · centre 1 h · 3600 beats · 8 days from 16 "
        "turns");
}

void WritingSheet::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.sheet);
    painter.fillRect(QRectF(0, height() - 1, width(), 1), t.rule);
    painter.fillRect(QRectF(margin, height() - foot_high, width() - 2 * margin, 1), m_faults.empty() ? t.blued : t.ruby);
    write_wrapped(painter, type(Type::text), m_faults.empty() ? t.steel : t.ruby, {margin + 0.0, height() - foot_high + 7.0},
                  width() - 2.0 * margin, what_it_takes());
    echappe::write(painter, type(Type::note, true), t.steel, {margin + 0.0, 24}, words("THE TRAIN, WRITTEN DOWN"));
    echappe::write(
        painter, type(Type::note), t.steel, {width() - margin + 0.0, 24},
        words("Enter done · Shift+Enter another train · %1").arg(text().contains('?') ? words("Tab next ?") : words("Tab leads on")), 1);
}

}  // namespace echappe
