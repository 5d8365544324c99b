#include <QDir>

#include "document/pictures.h"
#include "document/today.h"
#include "drawing/words.h"
#include "sheet/column.h"
#include "stations/survey/survey_station.h"
#include "survey/edits.h"
#include "theme/theme.h"

// The sheet beside the plates: the words of the spot, and what wants a decision.

namespace echappe {
namespace {

constexpr double margin = 18;
constexpr double legend_high = 58;

}  // namespace

void SurveyStation::paint_column(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    painter.fillRect(room, t.sheet);
    painter.fillRect(QRectF(room.left(), 0, 1, height()), t.rule);
    Column page(painter, room.adjusted(margin, 14, -margin, -legend_high));
    if (!m_document.derived().survey.safe) write_safety(page);
    else if (const Spot* now = spot(); now && !m_parts) write_vocabulary(page, painter, *now);
    write_list(page, painter);
    Column foot(painter, room.adjusted(margin, height() - legend_high, -margin, 0));
    foot.says(
        m_parts ? words("Y back to the plates · Ctrl+P the map and list")
        : m_earlier
            ? words("a key notes it, once more takes it back · / note · E back to what it wants · Y parts · Ctrl+P prints all")
            : legend({"survey.next", "survey.before|survey.after", "survey.peg", "survey.note", "survey.earlier", "survey.parts"}, " · ") +
                  words(" · drop a photo · Ctrl+P the map and list"),
        t.steel);
}

/// Nobody's hands go in before this is ticked, or passed over with a reason that stays with the job.
void SurveyStation::write_safety(Column& page) {
    const Theme& t = page.inks();
    page.head(words("Before hands go in"), t.ruby);
    constexpr double indent = 24;
    bool first = true;
    for (const SafetyStep& step : safety_steps()) {
        const SafetyRecord* record = m_document.job().survey.step(step.id);
        place({"safety:" + words(step.id),
               page.step(words(step.words),
                         !record        ? Column::Tick::open
                         : record->done ? Column::Tick::done
                                        : Column::Tick::passed,
                         true),
               [this, id = step.id] { m_document.edit(tick_safety(id, "", today())); },
               words(step.why),
               {}});
        if (!record && std::exchange(first, false)) {
            page.says(words(step.why), t.steel, Type::note, false, indent);
            page.says(words("S ticks it · Shift+S passes over, with a reason"), t.blued, Type::note, false, indent);
        } else if (record && !record->because.empty()) {
            page.says(words(record->because), t.steel, Type::note, false, indent);
        }
        page.gap(2);
    }
    page.gap(12);
}

void SurveyStation::write_vocabulary(Column& page, QPainter& painter, const Spot& spot) {
    const Theme& t = inks(painter);
    page.head(words(spot.name), t.ink);
    page.gap(-4);
    if (m_earlier) {
        page.line(words("earlier repairs of it"), t.steel, Type::text);
    } else if (spot.kind == "hole") {
        place({"pegged",
               page.line(spot.pegged ? words("pegged clean (P)") : words("not pegged yet (P; Shift+P the whole plate)"),
                         spot.pegged ? t.verdigris : t.amber, Type::text),
               [this, part = spot.part, pegged = spot.pegged] { m_document.edit(peg_hole(part, !pegged)); },
               words("Readings from before pegging are marked doubtful"),
               {}});
    }
    page.gap(4);
    for (const Word& word : vocabulary(spot, page.inks())) write_word(page, painter, word);
    if (const ConditionRecord* condition = m_document.job().survey.condition(spot.part)) write_note_of(page, painter, *condition);
    page.gap(14);
}

/// Its key and itself; once it is said, why it matters.
void SurveyStation::write_word(Column& page, QPainter& painter, const Word& word) {
    const Theme& t = inks(painter);
    constexpr double indent = 32;
    const QRectF line = page.line(word.words, word.said ? word.ink : t.ink, Type::text, word.said, indent).adjusted(-6, 0, 6, 2);
    page.gap(3);
    if (word.said) painter.fillRect(QRectF(line.left(), line.top() + 1, 3, 18), word.ink);
    painter.setPen(QPen(word.said ? word.ink : t.rule, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRoundedRect(QRectF(line.left() + 10, line.top() + 1, 18, 18), 3, 3);
    write(painter, type(Type::text, true), word.said ? word.ink : t.steel, line.topLeft() + QPointF(19, 14),
          QString(QChar(word.key)).toUpper(), 0);
    place({word.tag, line, [this, say = word.say] { attempt(say); }, word.why, {}});
    if (word.said) page.says(word.why, t.steel, Type::note, false, indent);
}

/// The note of a spot and its picture.
void SurveyStation::write_note_of(Column& page, QPainter& painter, const ConditionRecord& condition) {
    const Theme& t = inks(painter);
    page.gap(4);
    page.says(words(condition.note), t.ink, Type::text);
    if (condition.photo.empty()) return;
    const QString file = m_document.pictures() + "/" + words(condition.photo);
    if (!m_photos.contains(file)) m_photos[file] = QPixmap(file).scaled(540, 220, Qt::KeepAspectRatio, Qt::SmoothTransformation);
    const QPixmap& photo = m_photos[file];
    if (photo.isNull()) {
        page.says(words("photo %1 is not in %2").arg(words(condition.photo), m_document.pictures()), t.amber);
        return;
    }
    constexpr double most_high = 110;
    const double scale = std::min(page.room().width() / photo.width(), most_high / photo.height());
    const QRectF at(page.left(), page.y() + 4, photo.width() * scale, photo.height() * scale);
    painter.drawPixmap(at, photo, photo.rect());
    page.go_to(at.bottom());
}

/// What wants a decision, or earlier repairs: the other list is one key away.
void SurveyStation::write_list(Column& page, QPainter& painter) {
    const Theme& t = inks(painter);
    const auto& survey = m_document.derived().survey;
    const auto& lines = m_earlier ? survey.earlier : survey.needed;
    page.section(m_earlier ? words("WHAT EARLIER HANDS DID") : words("WANTS A DECISION OR WORK, IN ORDER"), QString::number(lines.size()));
    if (lines.empty()) {
        const auto unseen = std::count_if(survey.spots.begin(), survey.spots.end(), [](const Spot& s) { return s.verdict.empty(); });
        page.says(m_earlier    ? words("Nothing noted yet.")
                  : unseen > 0 ? words("Nothing so far; %1 places still to be looked at, Enter goes to the next.").arg(unseen)
                               : words("Nothing open: everything was looked at and is in order."),
                  m_earlier || unseen > 0 ? t.steel : t.verdigris, Type::text);
        return;
    }
    constexpr double line_high = 20, indent = 14;
    size_t told = 0;
    for (const SurveyLine& line : lines) {
        // The last line is kept for how many there are more.
        if (!page.holds(line_high * (told + 1 < lines.size() ? 2 : 1))) break;
        const QRectF at = page.line(words(line.sentence), t.ink, Type::text, false, indent);
        painter.setPen(Qt::NoPen);
        painter.setBrush(line.severity.empty() ? t.blued : t.severity(line.severity));
        painter.drawEllipse(QPointF(at.left() + 4, at.top() + 10), 3, 3);
        place(
            {(m_earlier ? "done:" : "needed:") + words(line.part), at, [this, part = line.part] { go_to(part); }, words(line.reason), {}});
        ++told;
    }
    if (told < lines.size())
        page.line(words("and %1 more: Ctrl+P prints all").arg(lines.size() - told), t.steel, Type::note, false, indent);
}

}  // namespace echappe
