#include "workings/sum_card.h"

#include <QWheelEvent>
#include <algorithm>
#include <cmath>

#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double margin = 18;

}  // namespace

SumCard::SumCard(Document& document, std::vector<Tab> tabs, QWidget* parent)
    : Canvas(parent), m_document(document), m_tabs(std::move(tabs)), m_editor(new InPlaceEditor(this)) {
    setAccessibleName(tr("Sums of the bench"));
    connect(m_editor, &InPlaceEditor::refused, this, [this](const QString& sentence) { emit told(sentence, true); });
}

SumCard::Tab SumCard::of_sum(Document& document, const QString& name, const Calculation& sum, std::function<std::string()> part,
                             std::function<std::map<std::string, double>()> facts) {
    return {name, echappe::words(sum.sentence),
            [&document, &sum, part, facts] { return answer_sum(sum, facts(), typed_into(document.job().survey.pivots, sum.verb, part())); },
            [&sum, part](Job& job, const std::string& field, const std::string& word) {
                type_into(job.survey.pivots, sum, part(), field, word);
            }};
}

void SumCard::show_part(const QString& title) {
    if (title != m_title) m_editor->leave();
    m_title = title;
    refresh();
}

void SumCard::set_tabs(std::vector<Tab> tabs) {
    m_tabs = std::move(tabs);
    show_sum(0);
}

void SumCard::refresh() {
    m_answer = m_tabs.empty() ? SumAnswer() : tab().answer();
    update();
}

void SumCard::show_sum(int which) {
    const int count = std::max(1, static_cast<int>(m_tabs.size()));
    m_sum = (which % count + count) % count;
    m_scrolled = 0;
    m_editor->leave();
    refresh();
}

void SumCard::ask(const SumLine& line) {
    if (!tab().take) return;
    const QRectF at = place_of("sum:" + words(line.field));
    constexpr double room = 130;
    m_editor->ask(tr("%1 · %2, %3").arg(m_title, tab().words, words(line.words)),
                  QRectF(at.right() - room, at.top(), room, std::max(24.0, at.height())), words(line.text),
                  [this, field = line.field](const QString& text) {
                      m_document.edit(tr("Figures: %1").arg(tab().words),
                                      [&](Job& job) { tab().take(job, field, text.trimmed().toStdString()); });
                  });
    m_editor->setPlaceholderText(line.unit.empty() ? QString() : tr("in %1").arg(words(line.unit)));
}

void SumCard::paint(QPainter& painter) {
    const Theme& t = theme();
    painter.fillRect(rect(), t.sheet);
    painter.fillRect(QRectF(0, 0, 1, height()), t.rule);
    if (m_tabs.empty()) return;
    const QRectF inner = QRectF(rect()).adjusted(margin, 0, -margin, 0);
    const double top = paint_tabs(painter, inner, 26) + 12;
    painter.save();
    painter.setClipRect(QRectF(0, top, width(), height() - top));
    double y = top + 4 - m_scrolled;
    write(painter, figure_font(14), t.blued, {inner.left(), y + 14}, m_title);
    y += 22;
    y += write_wrapped(painter, word_font(9), t.steel, {inner.left(), y}, inner.width(), tab().sentence) + 6;
    y = paint_asked(painter, inner, y);
    m_long = paint_found(painter, inner, y + 8) + m_scrolled + 12;
    painter.restore();
    if (m_long - m_scrolled > height()) {
        painter.fillRect(QRectF(1, height() - 22.0, width() - 1.0, 22), t.sheet);
        write(painter, word_font(8.5, true), t.blued, {width() - margin, height() - 7.0}, tr("more below: turn the wheel"), 1);
    }
}

void SumCard::wheelEvent(QWheelEvent* event) {
    const double most = std::max(0.0, m_long - height());
    m_scrolled = std::clamp(m_scrolled - event->angleDelta().y() / 2.0, 0.0, most);
    m_editor->leave();
    update();
}

/// A step with its tick; a caution stands under the step it belongs to.
double SumCard::paint_step(QPainter& painter, const SumLine& line, const QRectF& room, double y) {
    const Theme& t = theme();
    constexpr double box = 14, indent = 24;
    const bool done = line.from == "done";
    if (line.from == "caution")
        return write_wrapped(painter, word_font(9), t.amber, {room.left() + indent, y}, room.width() - indent, words(line.text)) + 7;
    painter.setPen(QPen(done ? t.verdigris : t.steel, 1.4));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(QRectF(room.left(), y + 1, box, box));
    if (done) {
        painter.setPen(QPen(t.verdigris, 2.4));
        painter.drawPolyline(QPolygonF({{room.left() + 3, y + 8}, {room.left() + 6, y + 12}, {room.left() + 13, y + 2}}));
    }
    const double high =
        write_wrapped(painter, word_font(9.5), done ? t.steel : t.ink, {room.left() + indent, y}, room.width() - indent, words(line.text));
    place({"step:" + words(line.field),
           QRectF(room.left(), y, room.width(), high + 4),
           [this, line, done] {
               attempt([&] {
                   m_document.edit(done ? tr("Step open again") : tr("Step done"),
                                   [&](Job& job) { tab().take(job, line.field, done ? "" : "done"); });
               });
           },
           {},
           {}});
    return high + 6;
}

double SumCard::paint_tabs(QPainter& painter, const QRectF& room, double y) {
    const Theme& t = theme();
    double x = room.left();
    for (int i = 0; i < static_cast<int>(m_tabs.size()); ++i) {
        const Tab& sheet = m_tabs[static_cast<size_t>(i)];
        const bool on = i == m_sum;
        const double across = width_of(word_font(9, on), sheet.words);
        if (x + across > room.right()) {
            x = room.left();
            y += 22;
        }
        write(painter, word_font(9, on), on ? t.ink : t.blued, {x, y}, sheet.words);
        if (on) painter.fillRect(QRectF(x, y + 4, across, 2), t.ink);
        place({"tab:" + sheet.words, QRectF(x - 4, y - 14, across + 8, 22), [this, i] { show_sum(i); }, sheet.sentence, {}});
        x += across + 14;
    }
    return y;
}

double SumCard::paint_asked(QPainter& painter, const QRectF& room, double y) {
    const Theme& t = theme();
    constexpr double unit_wide = 40;
    for (const SumLine& line : m_answer.asked) {
        const bool missing = line.from == "missing";
        const double words_wide = room.width() * 0.56;
        const double high =
            std::max(20.0, write_wrapped(painter, word_font(8.5), t.steel, {room.left(), y + 2}, words_wide, words(line.words)) + 4);
        const QColor ink = missing ? t.ruby : line.from == "typed" ? t.blued : line.from == "job" ? t.ink : t.steel;
        write(painter, word_font(8), t.steel, {room.right() - unit_wide + 4, y + 14}, words(line.unit));
        write(painter, figure_font(10.5, line.from != "usual"), ink, {room.right() - unit_wide, y + 14},
              missing             ? tr("type it")
              : line.text.empty() ? tr("–")
                                  : words(line.text),
              1);
        painter.fillRect(QRectF(room.left(), y + high, room.width(), 1), t.rule);
        place({"sum:" + words(line.field),
               QRectF(room.left(), y, room.width(), high),
               [this, line] { ask(line); },
               words(line.words) + (line.from == "job"     ? tr("\nfrom what was read; click to try another")
                                    : line.from == "usual" ? tr("\nusual; click to change")
                                                           : tr("\nclick to type; empty takes it out")),
               {}});
        y += high + 2;
    }
    return y;
}

double SumCard::paint_found(QPainter& painter, const QRectF& room, double y) {
    const Theme& t = theme();
    if (!m_answer.fault.empty())
        return y + write_wrapped(painter, word_font(9.5), t.ruby, {room.left(), y}, room.width(), words(m_answer.fault));
    constexpr double unit_wide = 40;
    constexpr int short_text = 18;
    for (const SumLine& line : m_answer.found) {
        if (line.from == "done" || line.from == "open" || line.from == "caution") {
            y += paint_step(painter, line, room, y);
            continue;
        }
        const QString text = words(line.text);
        if (text.size() > short_text || line.words.empty()) {
            if (!line.words.empty() && text.contains(QString::fromUtf8(" · ")))
                write(painter, word_font(8), t.steel, {room.left(), y + 10}, words(line.words)), y += 13;
            y += write_wrapped(painter, word_font(9.5), t.ink, {room.left(), y}, room.width(), text) + 5;
            continue;
        }
        const double high = std::max(
            19.0, write_wrapped(painter, word_font(8.5), t.steel, {room.left(), y + 2}, room.width() * 0.6, words(line.words)) + 3);
        write(painter, word_font(8), t.steel, {room.right() - unit_wide + 4, y + 14}, words(line.unit));
        write(painter, figure_font(11.5), t.blued, {room.right() - unit_wide, y + 14}, text, 1);
        QString why;
        for (const Working& working : m_answer.workings)
            if (working.unit == line.unit && std::abs(working.result.value - text.toDouble()) <= 1e-4 * std::abs(working.result.value))
                why = words(working.in_words());
        place({"found:" + words(line.field), QRectF(room.left(), y, room.width(), high), {}, why, {}});
        y += high;
    }
    return y;
}

}  // namespace echappe
