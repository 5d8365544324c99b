#include <QDir>

#include "stations/survey/survey_station.h"
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
    paint_needed(painter, inner, y);
    write(painter, word_font(8), t.steel, {inner.left(), height() - 24.0},
          m_parts ? QString() : tr("Enter next · ← → spots · P pegged · / note"));
    write(painter, word_font(8), t.steel, {inner.left(), height() - 9.0},
          m_parts ? tr("Y back to the plates · Ctrl+P the map and list") : tr("drop a photo · Y parts · Ctrl+P the map and list"));
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
               [this, id = step.id] { m_document.tick_safety(id, {}); },
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
    const ConditionRecord* condition = m_document.job().survey.condition(spot.part);
    write(painter, figure_font(14), t.ink, {room.left(), y + 12}, words(spot.name));
    y += 24;
    if (spot.kind == "hole") {
        const HoleRecord* hole = m_document.job().survey.hole(spot.part);
        const bool pegged = hole && hole->pegged;
        const double wide = write(painter, word_font(9.5), pegged ? t.verdigris : t.amber, {room.left(), y + 10},
                                  pegged ? tr("pegged clean (P)") : tr("not pegged yet (P)"));
        place({"pegged",
               QRectF(room.left(), y - 4, wide, 20),
               [this, part = spot.part, pegged] { m_document.set_pegged({part}, !pegged); },
               tr("Readings from before pegging are marked doubtful"),
               {}});
        y += 20;
    }
    const Spot here = spot;
    for (const ConditionWord& word : conditions_for(spot.kind)) {
        const bool on = condition && condition->verdict == word.id;
        const QColor ink = word.severity.empty() ? t.verdigris : t.severity(word.severity);
        const QRectF line(room.left() - 6, y, room.width() + 12, 22);
        if (on) painter.fillRect(QRectF(line.left(), line.top() + 2, 3, 18), ink);
        painter.setPen(QPen(on ? ink : t.rule, 1));
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(QRectF(room.left() + 4, y + 2, 18, 18), 3, 3);
        write(painter, word_font(9.5, true), on ? ink : t.steel, {room.left() + 13, y + 15}, QString(QChar(word.key)).toUpper(), 0);
        write(painter, word_font(10, on), on ? ink : t.ink, {room.left() + 32, y + 15}, words(word.words));
        place({"verdict:" + words(word.id),
               line,
               [this, here, id = word.id] { attempt([&] { m_document.set_condition(here, id); }); },
               {},
               {}});
        y += 23;
    }
    if (condition && !condition->note.empty())
        y += 4 + write_wrapped(painter, word_font(9.5), t.ink, {room.left(), y + 4}, room.width(), words(condition->note));
    if (condition && !condition->photo.empty()) {
        const QString file = m_document.pictures_folder() + "/" + words(condition->photo);
        if (!m_photos.contains(file)) m_photos[file] = QPixmap(file).scaled(540, 220, Qt::KeepAspectRatio, Qt::SmoothTransformation);
        const QPixmap& photo = m_photos[file];
        const double scale = photo.isNull() ? 1 : std::min(room.width() / photo.width(), 110.0 / photo.height());
        const QRectF at(room.left(), y + 8, photo.width() * scale, photo.height() * scale);
        if (photo.isNull())
            y += 8 + write_wrapped(painter, word_font(9), t.amber, {room.left(), y + 4}, room.width(),
                                   tr("photo %1 is not in %2").arg(words(condition->photo), m_document.pictures_folder()));
        else {
            painter.drawPixmap(at, photo, photo.rect());
            y = at.bottom();
        }
    }
    return y + 18;
}

void SurveyStation::paint_needed(QPainter& painter, const QRectF& room, double y) {
    const Theme& t = theme();
    const auto& needed = m_document.derived().survey.needed;
    write(painter, word_font(8.5, true), t.steel, {room.left(), y + 8}, tr("WANTS A DECISION OR WORK, IN ORDER"));
    write(painter, word_font(8.5), t.steel, {room.right(), y + 8}, QString::number(needed.size()), 1);
    y += 18;
    const double floor = height() - 42.0;
    if (needed.empty()) {
        write_wrapped(painter, word_font(9.5), t.verdigris, {room.left(), y}, room.width(),
                      tr("Nothing open: every spot that was looked at is in order."));
        return;
    }
    size_t told = 0;
    for (const Needed& need : needed) {
        if (y + 20 > floor - (told + 1 < needed.size() ? 18 : 0)) break;
        const QColor ink = t.severity(need.severity);
        painter.setPen(Qt::NoPen);
        painter.setBrush(ink);
        painter.drawEllipse(QPointF(room.left() + 4, y + 9), 3, 3);
        const QFontMetricsF metrics(word_font(9.5));
        write(painter, word_font(9.5), t.ink, {room.left() + 14, y + 13},
              metrics.elidedText(words(need.sentence), Qt::ElideRight, room.width() - 14));
        place({"needed:" + words(need.part),
               QRectF(room.left(), y, room.width(), 19),
               [this, part = need.part] { go_to(part); },
               words(need.reason),
               {}});
        y += 20;
        ++told;
    }
    if (told < needed.size())
        write(painter, word_font(9), t.steel, {room.left() + 14, y + 11}, tr("and %1 more: Ctrl+P prints all").arg(needed.size() - told));
}

}  // namespace echappe
