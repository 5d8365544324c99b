#include "workings/sum_card.h"

#include <QWheelEvent>
#include <algorithm>
#include <cmath>

#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double card_margin = 18;

}  // namespace

SumCard::SumCard(Document& document, std::vector<Tab> tabs, QWidget* parent)
    : Canvas(parent), m_document(document), m_tabs(std::move(tabs)), m_editor(new InPlaceEditor(this)) {
    setAccessibleName(tr("Sums of the bench"));
    setFocusPolicy(Qt::TabFocus);
    connect(m_editor, &InPlaceEditor::refused, this, [this](const QString& sentence) { emit told(sentence, true); });
}

SumCard::Tab SumCard::of_sum(Document& document, const QString& name, const Calculation& sum, std::function<std::string()> part,
                             std::function<std::map<std::string, double>()> facts) {
    return {name, echappe::words(sum.sentence),
            [&document, &sum, part, facts] { return answer_sum(sum, facts(), typed_into(document.job().survey.pivots, sum.verb, part())); },
            typed_into_part<SurveyRecord>(document, [&sum, part](SurveyRecord& survey, const std::string& field, const std::string& word) {
                type_into(survey.pivots, sum, part(), field, word);
            })};
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
                      tab().take(tr("Figures: %1").arg(tab().words), field, text.trimmed().toStdString());
                  });
    m_editor->setPlaceholderText(line.unit.empty() ? QString() : tr("in %1").arg(words(line.unit)));
}

void SumCard::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.sheet);
    painter.fillRect(QRectF(0, 0, 1, height()), t.rule);
    if (m_tabs.empty()) return;
    const QRectF inner = QRectF(rect()).adjusted(card_margin, 0, -card_margin, 0);
    const double top = paint_tabs(painter, inner) + 12;
    painter.save();
    // As long as it was when it was painted last: the foot tells that there is more.
    constexpr double foot = 22;
    const bool more = m_long - m_scrolled > height();
    painter.setClipRect(QRectF(0, top, width(), height() - top - (more ? foot : 0)));
    Column page(painter, inner.adjusted(0, top + 2 - m_scrolled, 0, 0));
    page.head(m_title, t.blued);
    page.gap(-6);
    page.says(tab().sentence, t.steel);
    write_asked(page);
    page.gap(8);
    write_found(page);
    m_long = page.y() + m_scrolled + 12;
    painter.restore();
    if (more) write(painter, type(Type::note, true), t.blued, {width() - card_margin, height() - 7.0}, tr("more below"), 1);
    else if (m_long - m_scrolled > height()) update();
}

void SumCard::wheelEvent(QWheelEvent* event) {
    const double most = std::max(0.0, m_long - height());
    m_scrolled = std::clamp(m_scrolled - event->angleDelta().y() / 2.0, 0.0, most);
    m_editor->leave();
    update();
}

void SumCard::show_place(const QRectF& at) {
    constexpr double tabs_high = 60, around = 24;
    const double over = at.bottom() + around - height(), under = tabs_high - at.top();
    if (over > 0) m_scrolled += over;
    else if (under > 0) m_scrolled = std::max(0.0, m_scrolled - under);
    if (over > 0 || under > 0) repaint();
}

/// A step with its tick; a caution stands under the step it belongs to.
void SumCard::write_step(Column& page, const SumLine& line) {
    constexpr double indent = 24;
    if (line.from == "caution") {
        page.says(words(line.text), page.inks().amber, Type::note, false, indent);
        page.gap(3);
        return;
    }
    const bool done = line.from == "done";
    place({"step:" + words(line.field),
           page.step(words(line.text), done ? Column::Tick::done : Column::Tick::open),
           [this, line, done] {
               attempt([&] { tab().take(done ? tr("Step open again") : tr("Step done"), line.field, done ? "" : "done"); });
           },
           {},
           {}});
    page.gap(2);
}

/// Its height with the lines of tabs.
double SumCard::paint_tabs(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    Flow line(painter, room, 26);
    for (int i = 0; i < static_cast<int>(m_tabs.size()); ++i) {
        const Tab& sheet = m_tabs[static_cast<size_t>(i)];
        const bool on = i == m_sum;
        place({"tab:" + sheet.words,
               line.say(sheet.words, on ? t.ink : t.blued, Type::note, on, on),
               [this, i] { show_sum(i); },
               sheet.sentence,
               {},
               {},
               sheet.words,
               on});
    }
    return line.baseline();
}

QString SumCard::hint_of(const SumLine& line) {
    const QString why = line.because.empty() ? QString() : tr("\nusual: ") + words(line.because);
    if (line.from == "job") return tr("from what was read; click to try another") + why;
    if (line.from == "usual") return tr("usual; click to change") + why;
    return tr("click to type; empty takes it out");
}

void SumCard::write_asked(Column& page) {
    const Theme& t = page.inks();
    for (const SumLine& line : m_answer.asked) {
        const bool missing = line.from == "missing";
        const QColor ink = missing ? t.ruby : line.from == "typed" ? t.blued : line.from == "job" ? t.ink : t.steel;
        const QString figure = missing ? tr("type it") : line.text.empty() ? tr("–") : words(line.text);
        // The label as one writes it beside a dimension; what explains it is a hint, and stands there only where it must be typed.
        const QString label = words(line.words).section(": ", 0, 0), explained = words(line.words).section(": ", 1);
        const QRectF at = page.long_row({label, figure, ink, words(line.unit), {}, line.from != "usual", Type::text});
        if (missing && !explained.isEmpty()) page.says(explained, t.steel);
        page.rule();
        place({"sum:" + words(line.field), at, [this, line] { ask(line); }, words(line.words) + "\n" + hint_of(line), {}});
    }
}

QString SumCard::why(const SumLine& line) const {
    const double value = words(line.text).toDouble();
    for (const Working& working : m_answer.workings)
        if (working.unit == line.unit && std::abs(working.result.value - value) <= 1e-4 * std::abs(working.result.value))
            return words(working.in_words());
    return {};
}

void SumCard::write_found(Column& page) {
    const Theme& t = page.inks();
    if (!m_answer.fault.empty()) {
        page.says(words(m_answer.fault), t.ruby, Type::text);
        return;
    }
    constexpr int short_text = 18;
    for (const SumLine& line : m_answer.found) {
        const QString text = words(line.text);
        if (line.from == "done" || line.from == "open" || line.from == "caution") {
            write_step(page, line);
        } else if (text.size() > short_text || line.words.empty()) {
            if (!line.words.empty() && text.contains(QString::fromUtf8(" · "))) {
                page.line(words(line.words), t.steel);
                page.gap(-6);
            }
            page.says(text, t.ink, Type::text);
        } else {
            place({"found:" + words(line.field), page.long_row({words(line.words), text, t.blued, words(line.unit)}), {}, why(line), {}});
        }
    }
}

}  // namespace echappe
