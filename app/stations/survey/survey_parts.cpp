#include <QKeyEvent>
#include <algorithm>
#include <set>

#include "drawing/words.h"
#include "number/input_error.h"
#include "stations/survey/survey_station.h"
#include "survey/edits.h"
#include "theme/theme.h"

namespace echappe {
namespace {

/// One part from a line: "washer; D; chamfer outwards". A name may hold a comma.
TallyLine part_from(const QString& text) {
    const QStringList pieces = text.split(';');
    TallyLine line;
    line.name = pieces[0].trimmed().toStdString();
    if (line.name.empty()) throw InputError("part", "nothing", "name; tray; which way round: washer; D; chamfer outwards");
    if (pieces.size() > 1) line.tray = pieces[1].trimmed().toUpper().toStdString();
    if (pieces.size() > 2) line.way = pieces.mid(2).join(';').trimmed().toStdString();
    return line;
}

QString line_of(const TallyLine& part) { return words(part.name + "; " + part.tray + (part.way.empty() ? "" : "; " + part.way)); }

}  // namespace

void SurveyStation::show_parts(bool shown) {
    m_parts = shown;
    m_editor->leave();
    update();
}

/// Types a part anew, or over the one in this line; an empty line takes it away.
void SurveyStation::ask_part(size_t line) {
    const auto& tally = m_document.job().survey.tally;
    const bool there = line < tally.size();
    const QString text = there ? line_of(tally[line]) : QString();
    m_editor->ask(there ? words("part %1").arg(text) : words("one more part"), QRectF(30, 60, width() - 420.0, 26), text,
                  [this, line, there](const QString& typed) {
                      if (there && line >= m_document.job().survey.tally.size())
                          throw InputError("part", "a line that is gone", "the list as it is now");
                      if (typed.trimmed().isEmpty() && there) return m_document.edit(part_off_the_list(line));
                      m_document.edit(there ? part_listed_anew(line, part_from(typed)) : part_listed(part_from(typed)));
                  });
    m_editor->setPlaceholderText(words("part; tray; which way round it goes"));
}

/// Keys of the list of parts, while it is shown: they go before those of the plates.
QList<Action> SurveyStation::tally_actions() {
    const auto listed = [this] { return m_parts; };
    const auto on_a_line = [this] { return m_parts && m_line < m_document.job().survey.tally.size(); };
    const auto along = [this](int by) {
        return [this, by] {
            const auto last = std::max<long long>(0, static_cast<long long>(m_document.job().survey.tally.size()) - 1);
            m_line = static_cast<size_t>(std::clamp<long long>(static_cast<long long>(m_line) + by, 0, last));
            update();
        };
    };
    const auto say = [this](const std::string& state) {
        return [this, state] {
            const auto& tally = m_document.job().survey.tally;
            m_document.edit(part_is(m_line, tally[m_line].name, state));
            m_line = std::min(m_line + 1, tally.size() - 1);
            update();
        };
    };
    return {{"tally.add",
             words("A part taken out"),
             {Qt::Key_A, Qt::Key_Insert},
             [this] { ask_part(m_document.job().survey.tally.size()); },
             {},
             words("a part taken out"),
             listed},
            {"tally.up", words("The part above"), {Qt::Key_Up}, along(-1), {}, words("choose"), listed},
            {"tally.down", words("The part below"), {Qt::Key_Down}, along(1), {}, {}, listed},
            {"tally.back", words("Put back"), {Qt::Key_B}, say("back"), {}, words("put back"), on_a_line},
            {"tally.replaced", words("Replaced"), {Qt::Key_R}, say("replaced"), {}, words("replaced"), on_a_line},
            {"tally.left", words("Left over"), {Qt::Key_L}, say("left over"), {}, words("left over"), on_a_line},
            {"tally.out", words("Out"), {Qt::Key_O}, say("out"), {}, words("out"), on_a_line},
            {"tally.change",
             words("Change the line"),
             {Qt::Key_Return},
             [this] { ask_part(m_line); },
             {},
             words("changes, empty takes it off"),
             on_a_line}};
}

void SurveyStation::paint_parts(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    const auto& tally = m_document.job().survey.tally;
    const auto count = [&](const char* state) {
        return std::count_if(tally.begin(), tally.end(), [&](const TallyLine& line) { return line.state == state; });
    };
    const auto over = count("left over");
    Column page(painter, room.adjusted(0, 4, 0, 0));
    const QRectF title = page.head(words("Parts by their trays"), t.ink);
    write(
        painter, type(Type::text),
        over           ? t.amber
        : count("out") ? t.steel
                       : t.verdigris,
        {title.right(), title.top() + 18},
        words("%1 taken out · %2 back · %3 replaced · %4 left over").arg(tally.size()).arg(count("back")).arg(count("replaced")).arg(over),
        1);
    if (tally.empty())
        page.says(words("Nothing is taken out yet. A writes a part down: what it is, its tray, which way round it goes."), t.steel,
                  Type::text);
    std::set<std::string> trays;
    for (const TallyLine& line : tally) trays.insert(line.tray);
    // A tray is a card of its parts, under the shorter of two columns.
    constexpr double between = 16;
    const double wide = (room.width() - between) / 2;
    double below[2] = {page.y() + 8, page.y() + 8};
    for (const std::string& tray : trays) {
        const size_t side = below[0] <= below[1] ? 0 : 1;
        const double x = room.left() + static_cast<double>(side) * (wide + between);
        below[side] = paint_tray(painter, tray, {x, below[side], wide, 0}) + between;
    }
    write(painter, type(Type::note), t.steel, {room.left(), room.bottom() - 4},
          legend({"tally.add", "tally.up|tally.down", "tally.back", "tally.replaced", "tally.left", "tally.out", "tally.change"}, " · "));
}

double SurveyStation::paint_tray(QPainter& painter, const std::string& tray, const QRectF& room) {
    constexpr double line_high = 34, head_high = 36;
    const Theme& t = inks(painter);
    const auto& tally = m_document.job().survey.tally;
    const auto in_it = std::count_if(tally.begin(), tally.end(), [&](const TallyLine& line) { return line.tray == tray; });
    const QRectF card(room.left(), room.top(), room.width(), head_high + 4 + line_high * static_cast<double>(in_it));
    painter.setPen(QPen(t.rule, 1));
    painter.setBrush(t.sheet);
    painter.drawRoundedRect(card, 6, 6);
    write(painter, type(Type::figure, true), t.brass_ink, card.topLeft() + QPointF(14, 24),
          tray.empty() ? words("no tray") : words("Tray %1").arg(words(tray)));
    double y = card.top() + head_high;
    for (size_t i = 0; i < tally.size(); ++i) {
        if (tally[i].tray != tray) continue;
        paint_part_line(painter, i, {card.left() + 6, y, card.width() - 12, line_high - 2});
        y += line_high;
    }
    return card.bottom();
}

void SurveyStation::paint_part_line(QPainter& painter, size_t part, const QRectF& at) {
    const Theme& t = inks(painter);
    const TallyLine& line = m_document.job().survey.tally[part];
    if (part == m_line) {
        painter.setPen(QPen(t.blued, 1.4));
        painter.setBrush(t.dark ? t.ground : QColor(Qt::white));
        painter.drawRoundedRect(at, 3, 3);
    }
    const QColor ink = line.state == "left over" ? t.amber : line.state == "out" ? t.steel : t.verdigris;
    write(painter, type(Type::text, true), t.ink, at.topLeft() + QPointF(10, 14), words(line.name));
    write(painter, type(Type::note), t.steel, at.topLeft() + QPointF(10, 27), words(line.way));
    write(painter, type(Type::text), ink, at.topRight() + QPointF(-12, 20),
          line.state == "out"    ? words("taken out")
          : line.state == "back" ? words("put back")
                                 : words(line.state),
          1);
    place({"part:" + QString::number(part),
           at,
           [this, part] {
               m_line = part;
               update();
           },
           {},
           [this, part] { ask_part(part); }});
}

}  // namespace echappe
