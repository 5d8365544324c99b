#include <QDir>

#include "document/pictures.h"
#include "document/today.h"
#include "stations/survey/survey_station.h"
#include "survey/edits.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double margin = 18;

}  // namespace

void SurveyStation::paint_column(QPainter& painter, const QRectF& room) {
    const Theme& t = theme();
    painter.fillRect(room, t.sheet);
    painter.fillRect(QRectF(room.left(), 0, 1, height()), t.rule);
    const QRectF inner = room.adjusted(margin, 0, -margin, 0);
    double y = 20;
    if (!m_document.derived().survey.safe) y = paint_safety(painter, inner, y);
    else if (const Spot* now = spot(); now && !m_parts) y = paint_vocabulary(painter, *now, inner, y);
    paint_list(painter, inner, y);
    write(painter, word_font(8), t.steel, {inner.left(), height() - 24.0},
          m_parts     ? QString()
          : m_earlier ? tr("a key notes it, once more takes it back · / note")
                      : legend({"survey.next", "survey.before|survey.after", "survey.peg", "survey.note"}, " · ") + tr(" · drop a photo"));
    write(painter, word_font(8), t.steel, {inner.left(), height() - 9.0},
          m_parts     ? tr("Y back to the plates · Ctrl+P the map and list")
          : m_earlier ? tr("E back to what it wants · Y parts · Ctrl+P prints all")
                      : legend({"survey.earlier", "survey.parts"}, " · ") + tr(" · Ctrl+P the map and list"));
}

/// Nobody's hands go in before this is ticked, or passed over with a reason that stays with the job.
double SurveyStation::paint_safety(QPainter& painter, const QRectF& room, double y) {
    const Theme& t = theme();
    write(painter, figure_font(16), t.ruby, {room.left(), y + 14}, tr("Before hands go in"));
    y += 30;
    bool first = true;
    for (const SafetyStep& step : safety_steps()) {
        const SafetyRecord* record = m_document.job().survey.step(step.id);
        constexpr double hang = 19;
        const QColor ink = record ? t.verdigris : t.ink;
        const double from = y;
        write_wrapped(painter, word_font(10, true), ink, {room.left(), y}, hang, record ? record->done ? "✓" : "–" : "○");
        y += write_wrapped(painter, word_font(10, true), ink, {room.left() + hang, y}, room.width() - hang, words(step.words)) + 3;
        place({"safety:" + words(step.id),
               QRectF(room.left(), from, room.width(), y - from),
               [this, id = step.id] { m_document.edit(tick_safety(id, "", today())); },
               words(step.why),
               {}});
        if (!record && first) {
            y += write_wrapped(painter, word_font(9), t.steel, {room.left() + 14, y}, room.width() - 14, words(step.why)) + 6;
            write(painter, word_font(9), t.blued, {room.left() + 14, y + 12}, tr("S ticks it · Shift+S passes over, with a reason"));
            y += 22;
            first = false;
        } else if (record && !record->because.empty()) {
            y += write_wrapped(painter, word_font(8.5), t.steel, {room.left() + 14, y}, room.width() - 14, words(record->because)) + 4;
        }
    }
    return y + 14;
}

double SurveyStation::paint_vocabulary(QPainter& painter, const Spot& spot, const QRectF& room, double y) {
    const Theme& t = theme();
    write(painter, figure_font(14), t.ink, {room.left(), y + 12}, words(spot.name));
    y += 24;
    if (m_earlier) {
        write(painter, word_font(9.5), t.steel, {room.left(), y + 10}, tr("what an earlier hand did to it"));
        y += 20;
    } else if (spot.kind == "hole") {
        const double wide = write(painter, word_font(9.5), spot.pegged ? t.verdigris : t.amber, {room.left(), y + 10},
                                  spot.pegged ? tr("pegged clean (P)") : tr("not pegged yet (P; Shift+P the whole plate)"));
        place({"pegged",
               QRectF(room.left(), y - 4, wide, 20),
               [this, part = spot.part, pegged = spot.pegged] { m_document.edit(peg_hole(part, !pegged)); },
               tr("Readings from before pegging are marked doubtful"),
               {}});
        y += 20;
    }
    for (const Word& word : vocabulary(spot)) y = paint_word(painter, word, room, y);
    if (const ConditionRecord* condition = m_document.job().survey.condition(spot.part)) y = paint_note(painter, *condition, room, y);
    return y + 18;
}

/// Its key and itself; once it is said, why it matters.
double SurveyStation::paint_word(QPainter& painter, const Word& word, const QRectF& room, double y) {
    const Theme& t = theme();
    const QRectF line(room.left() - 6, y, room.width() + 12, 22);
    if (word.said) painter.fillRect(QRectF(line.left(), line.top() + 2, 3, 18), word.ink);
    painter.setPen(QPen(word.said ? word.ink : t.rule, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRoundedRect(QRectF(line.left() + 10, line.top() + 2, 18, 18), 3, 3);
    write(painter, word_font(9.5, true), word.said ? word.ink : t.steel, line.topLeft() + QPointF(19, 15),
          QString(QChar(word.key)).toUpper(), 0);
    write(painter, word_font(10, word.said), word.said ? word.ink : t.ink, line.topLeft() + QPointF(38, 15), word.words);
    place({word.tag, line, [this, say = word.say] { attempt(say); }, word.why, {}});
    y += 23;
    if (word.said && !word.why.isEmpty())
        y += write_wrapped(painter, word_font(8.5), t.steel, {room.left() + 32, y - 2}, room.width() - 32, word.why) + 4;
    return y;
}

/// The note of a spot and its picture.
double SurveyStation::paint_note(QPainter& painter, const ConditionRecord& condition, const QRectF& room, double y) {
    const Theme& t = theme();
    if (!condition.note.empty())
        y += 4 + write_wrapped(painter, word_font(9.5), t.ink, {room.left(), y + 4}, room.width(), words(condition.note));
    if (condition.photo.empty()) return y;
    const QString file = pictures_folder(m_document.path()) + "/" + words(condition.photo);
    if (!m_photos.contains(file)) m_photos[file] = QPixmap(file).scaled(540, 220, Qt::KeepAspectRatio, Qt::SmoothTransformation);
    const QPixmap& photo = m_photos[file];
    if (photo.isNull())
        return y + 8 +
               write_wrapped(painter, word_font(9), t.amber, {room.left(), y + 4}, room.width(),
                             tr("photo %1 is not in %2").arg(words(condition.photo), pictures_folder(m_document.path())));
    const double scale = std::min(room.width() / photo.width(), 110.0 / photo.height());
    const QRectF at(room.left(), y + 8, photo.width() * scale, photo.height() * scale);
    painter.drawPixmap(at, photo, photo.rect());
    return at.bottom();
}

/// What wants a decision, or what earlier hands did: the other list is one key away.
void SurveyStation::paint_list(QPainter& painter, const QRectF& room, double y) {
    const Theme& t = theme();
    const auto& survey = m_document.derived().survey;
    const auto& lines = m_earlier ? survey.earlier : survey.needed;
    write(painter, word_font(8.5, true), t.steel, {room.left(), y + 8},
          m_earlier ? tr("WHAT EARLIER HANDS DID") : tr("WANTS A DECISION OR WORK, IN ORDER"));
    write(painter, word_font(8.5), t.steel, {room.right(), y + 8}, QString::number(lines.size()), 1);
    y += 18;
    const double floor = height() - 42.0;
    if (lines.empty()) {
        const auto unseen = std::count_if(survey.spots.begin(), survey.spots.end(), [](const Spot& s) { return s.verdict.empty(); });
        write_wrapped(painter, word_font(9.5), m_earlier || unseen > 0 ? t.steel : t.verdigris, {room.left(), y}, room.width(),
                      m_earlier    ? tr("Nothing noted yet.")
                      : unseen > 0 ? tr("Nothing so far; %1 places still to be looked at, Enter goes to the next.").arg(unseen)
                                   : tr("Nothing open: everything was looked at and is in order."));
        return;
    }
    size_t told = 0;
    for (const SurveyLine& line : lines) {
        if (y + 20 > floor - (told + 1 < lines.size() ? 18 : 0)) break;
        painter.setPen(Qt::NoPen);
        painter.setBrush(line.severity.empty() ? t.blued : t.severity(line.severity));
        painter.drawEllipse(QPointF(room.left() + 4, y + 9), 3, 3);
        const QFontMetricsF metrics(word_font(9.5));
        write(painter, word_font(9.5), t.ink, {room.left() + 14, y + 13},
              metrics.elidedText(words(line.sentence), Qt::ElideRight, room.width() - 14));
        place({(m_earlier ? "done:" : "needed:") + words(line.part),
               QRectF(room.left(), y, room.width(), 19),
               [this, part = line.part] { go_to(part); },
               words(line.reason),
               {}});
        y += 20;
        ++told;
    }
    if (told < lines.size())
        write(painter, word_font(9), t.steel, {room.left() + 14, y + 11}, tr("and %1 more: Ctrl+P prints all").arg(lines.size() - told));
}

}  // namespace echappe
