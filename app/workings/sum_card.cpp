#include "workings/sum_card.h"

#include <QWheelEvent>
#include <algorithm>
#include <cmath>

#include "drawing/words.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double card_margin = 18;

/// What a sheet says first of its rows: what is asked, what is known, what is assumed; no more of them than there is room for.
struct Grouped {
    std::vector<const SumLine*> asked, known, assumed;
    size_t left_out = 0;
};

Grouped grouped(const std::vector<SumLine>& lines, const std::vector<std::string>& drawn) {
    Grouped groups;
    size_t room = SumCard::most_rows;
    const auto pick = [&](std::vector<const SumLine*>& group, auto of_it) {
        for (const SumLine& line : lines) {
            const bool on_drawing = std::find(drawn.begin(), drawn.end(), line.field) != drawn.end();
            if (on_drawing || room == 0 || !of_it(line)) continue;
            group.push_back(&line);
            --room;
        }
    };
    const auto empty = [](const SumLine& line) { return line.text.empty() || line.from == "missing"; };
    pick(groups.asked, [](const SumLine& line) { return line.from == "missing"; });
    pick(groups.known, [&](const SumLine& line) { return !empty(line) && line.from != "usual"; });
    pick(groups.asked, [&](const SumLine& line) { return line.from != "missing" && line.text.empty(); });
    pick(groups.assumed, [&](const SumLine& line) { return !empty(line) && line.from == "usual"; });
    groups.left_out = lines.size() - groups.asked.size() - groups.known.size() - groups.assumed.size();
    return groups;
}

}  // namespace

SumCard::SumCard(Document& document, std::vector<Tab> tabs, QWidget* parent)
    : Canvas(parent), m_document(document), m_tabs(std::move(tabs)), m_editor(new InPlaceEditor(this)) {
    setAccessibleName(words("Sums of the bench"));
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
    m_more = false;
    m_choosing.clear();
    m_editor->leave();
    refresh();
}

void SumCard::show_more(bool more) {
    m_more = more;
    m_scrolled = 0;
    update();
}

void SumCard::choose(const SumLine& line, const std::string& word) {
    attempt([&] {
        m_choosing.clear();
        tab().take(words("Figures: %1").arg(tab().words), line.field, word);
    });
    update();
}

void SumCard::ask(const SumLine& line) {
    if (!tab().take) return;
    if (!line.choices.empty()) {
        m_choosing = m_choosing == line.field ? std::string() : line.field;
        return update();
    }
    const QRectF at = place_of("sum:" + words(line.field));
    constexpr double room = 130;
    const LengthUnit unit = m_document.job().length;
    const SumLine shown = told_in(unit, line);
    m_editor->ask(words("%1 · %2, %3").arg(m_title, tab().words, words(line.words)),
                  QRectF(at.right() - room, at.top(), room, std::max(24.0, at.height())), words(shown.text),
                  [this, line, unit, stood = words(shown.text)](const QString& text) {
                      // What stands there is rounded: left as it is, it is not a new reading.
                      if (!stood.isEmpty() && text.trimmed() == stood) return;
                      tab().take(words("Figures: %1").arg(tab().words), line.field, typed_in(unit, line, text.trimmed().toStdString()));
                  });
    m_editor->setPlaceholderText(shown.unit.empty() ? QString() : words("in %1").arg(words(shown.unit)));
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
    if (more) write(painter, type(Type::note, true), t.blued, {width() - card_margin, height() - 7.0}, words("more below"), 1);
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
               attempt([&] { tab().take(done ? words("Step open again") : words("Step done"), line.field, done ? "" : "done"); });
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
    const QString why = line.because.empty() ? QString() : words("\nusual: ") + words(line.because);
    if (line.from == "job") return words("from what was read; click to try another") + why;
    if (line.from == "usual") return words("usual; click to change") + why;
    return words("click to type; empty takes it out");
}

void SumCard::write_row(Column& page, const SumLine& line) {
    const Theme& t = page.inks();
    const bool missing = line.from == "missing";
    const QColor ink = missing ? t.ruby : line.from == "typed" ? t.blued : line.from == "job" ? t.ink : t.steel;
    const SumLine shown = told_in(m_document.job().length, line);
    const QString figure = missing             ? words("type it")
                           : line.text.empty() ? words("–")
                                               : words(line.choices.empty() ? shown.text : said(line.text));
    // What explains the label is a hint, and stands there only where it must be typed.
    const QString label = words(line.label()), explained = words(line.explained());
    const QRectF at = page.long_row({label, figure, ink, words(shown.unit), {}, line.from != "usual", Type::text});
    if (missing && !explained.isEmpty()) page.says(explained, t.steel);
    page.rule();
    place({"sum:" + words(line.field), at, [this, line] { ask(line); }, words(line.words) + "\n" + hint_of(line), {}});
    if (m_choosing == line.field) write_choices(page, line);
}

/// The words that can be chosen, one click each.
void SumCard::write_choices(Column& page, const SumLine& line) {
    const Theme& t = page.inks();
    Flow flow(page.painter(), QRectF(page.left() + 10, 0, page.right() - page.left() - 10, height()), page.y() + 14, 18);
    for (const std::string& word : line.choices) {
        const bool now = word == line.text;
        const QString name = word.empty() ? words("not said") : words(said(word));
        place({"choice:" + words(line.field) + ":" + words(word),
               flow.say(name, now ? t.ink : t.blued, Type::text, now, now),
               [this, line, word] { choose(line, word); },
               words("click to choose it"),
               {},
               {},
               name,
               now});
    }
    page.go_to(flow.baseline() + 10);
    page.rule();
}

void SumCard::write_asked(Column& page) {
    const Theme& t = page.inks();
    if (tab().listed || m_more) {
        for (const SumLine& line : m_answer.asked) write_row(page, line);
        if (m_more)
            place({"less", page.line(words("less"), t.blued, Type::text), [this] { show_more(false); },
                   words("only what is asked, known and assumed")});
        return;
    }
    const Grouped groups = grouped(m_answer.asked, tab().drawn ? tab().drawn() : std::vector<std::string>());
    const std::pair<QString, const std::vector<const SumLine*>*> all[] = {
        {words("ASKED NOW"), &groups.asked}, {words("KNOWN"), &groups.known}, {words("ASSUMED"), &groups.assumed}};
    for (const auto& [head, lines] : all) {
        if (lines->empty()) continue;
        page.gap(4);
        page.section(head);
        page.gap(-6);
        for (const SumLine* line : *lines) write_row(page, *line);
    }
    if (groups.left_out == 0) return;
    page.gap(4);
    place({"more", page.line(words("more…"), t.blued, Type::text), [this] { show_more(true); },
           !tab().drawn ? words("all figures of this sheet") : words("all figures of this sheet, those of the drawing too")});
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
            const SumLine shown = told_in(m_document.job().length, line);
            place({"found:" + words(line.field),
                   page.long_row({words(line.words), words(shown.text), t.blued, words(shown.unit)}),
                   {},
                   why(line),
                   {}});
        }
    }
}

}  // namespace echappe
