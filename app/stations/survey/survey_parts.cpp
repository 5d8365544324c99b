#include <QKeyEvent>
#include <algorithm>

#include "number/input_error.h"
#include "stations/survey/survey_station.h"
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
    m_editor->ask(there ? tr("part %1").arg(text) : tr("one more part"), QRectF(30, 60, width() - 420.0, 26), text,
                  [this, line, there](const QString& typed) {
                      if (there && line >= m_document.job().survey.tally.size())
                          throw InputError("part", "a line that is gone", "the list as it is now");
                      if (typed.trimmed().isEmpty() && there)
                          return m_document.edit(tr("Take a part off the list"), [&](Job& job) {
                              job.survey.tally.erase(job.survey.tally.begin() + static_cast<std::ptrdiff_t>(line));
                          });
                      TallyLine part = part_from(typed);
                      m_document.edit(tr("Part: %1").arg(words(part.name)), [&](Job& job) {
                          if (there) {
                              part.state = job.survey.tally[line].state;
                              job.survey.tally[line] = part;
                          } else {
                              job.survey.tally.push_back(part);
                          }
                      });
                  });
    m_editor->setPlaceholderText(tr("part; tray; which way round it goes"));
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
            m_document.edit(tr("%1: %2").arg(words(tally[m_line].name), words(state)),
                            [&](Job& job) { job.survey.tally[m_line].state = state; });
            m_line = std::min(m_line + 1, tally.size() - 1);
            update();
        };
    };
    return {{"tally.add",
             tr("A part taken out"),
             {Qt::Key_A, Qt::Key_Insert},
             [this] { ask_part(m_document.job().survey.tally.size()); },
             {},
             tr("a part taken out"),
             listed},
            {"tally.up", tr("The part above"), {Qt::Key_Up}, along(-1), {}, tr("choose"), listed},
            {"tally.down", tr("The part below"), {Qt::Key_Down}, along(1), {}, {}, listed},
            {"tally.back", tr("Put back"), {Qt::Key_B}, say("back"), {}, tr("put back"), on_a_line},
            {"tally.replaced", tr("Replaced"), {Qt::Key_R}, say("replaced"), {}, tr("replaced"), on_a_line},
            {"tally.left", tr("Left over"), {Qt::Key_L}, say("left over"), {}, tr("left over"), on_a_line},
            {"tally.out", tr("Out"), {Qt::Key_O}, say("out"), {}, tr("out"), on_a_line},
            {"tally.change",
             tr("Change the line"),
             {Qt::Key_Return},
             [this] { ask_part(m_line); },
             {},
             tr("changes, empty takes it off"),
             on_a_line}};
}

void SurveyStation::paint_parts(QPainter& painter, const QRectF& room) {
    const Theme& t = theme();
    const auto& tally = m_document.job().survey.tally;
    const auto count = [&](const char* state) {
        return std::count_if(tally.begin(), tally.end(), [&](const TallyLine& line) { return line.state == state; });
    };
    write(painter, figure_font(16), t.ink, {room.left(), room.top() + 22}, tr("Parts by their trays"));
    const auto open = count("out");
    const auto over = count("left over");
    write(painter, word_font(10),
          over   ? t.amber
          : open ? t.steel
                 : t.verdigris,
          {room.right(), room.top() + 22},
          tr("%1 taken out · %2 back · %3 replaced · %4 left over").arg(tally.size()).arg(count("back")).arg(count("replaced")).arg(over),
          1);
    double y = room.top() + 44;
    // A tray is a column of its parts.
    std::vector<std::string> trays;
    for (const TallyLine& line : tally)
        if (std::find(trays.begin(), trays.end(), line.tray) == trays.end()) trays.push_back(line.tray);
    std::sort(trays.begin(), trays.end());
    const double wide = (room.width() - 16) / 2;
    double column_y[2] = {y, y};
    for (size_t tray = 0; tray < trays.size(); ++tray) {
        const size_t side = column_y[0] <= column_y[1] ? 0 : 1;
        const double x = room.left() + static_cast<double>(side) * (wide + 16);
        double line_y = column_y[side] + 34;
        const double from = column_y[side];
        size_t in_it = 0;
        for (const TallyLine& line : tally) in_it += line.tray == trays[tray];
        painter.setPen(QPen(t.rule, 1));
        painter.setBrush(t.sheet);
        painter.drawRoundedRect(QRectF(x, from, wide, 38 + 34.0 * static_cast<double>(in_it)), 6, 6);
        write(painter, figure_font(13), t.brass_ink, {x + 14, from + 24},
              trays[tray].empty() ? tr("no tray") : tr("Tray %1").arg(words(trays[tray])));
        for (size_t i = 0; i < tally.size(); ++i) {
            const TallyLine& line = tally[i];
            if (line.tray != trays[tray]) continue;
            if (i == m_line) {
                painter.setPen(QPen(t.blued, 1.4));
                painter.setBrush(t.dark ? t.ground : QColor(Qt::white));
                painter.drawRoundedRect(QRectF(x + 6, line_y, wide - 12, 32), 3, 3);
            }
            const QColor ink = line.state == "left over" ? t.amber : line.state == "out" ? t.steel : t.verdigris;
            write(painter, word_font(10, true), t.ink, {x + 16, line_y + 14}, words(line.name));
            write(painter, word_font(8.5), t.steel, {x + 16, line_y + 27}, words(line.way));
            write(painter, word_font(9.5), ink, {x + wide - 18, line_y + 20},
                  line.state == "out"    ? tr("taken out")
                  : line.state == "back" ? tr("put back")
                                         : words(line.state),
                  1);
            place({"part:" + QString::number(i),
                   QRectF(x + 6, line_y, wide - 12, 32),
                   [this, i] {
                       m_line = i;
                       update();
                   },
                   {},
                   [this, i] { ask_part(i); }});
            line_y += 34;
        }
        column_y[side] = line_y + 18;
    }
    write(painter, word_font(9), t.steel, {room.left(), room.bottom() - 4},
          legend({"tally.add", "tally.up|tally.down", "tally.back", "tally.replaced", "tally.left", "tally.out", "tally.change"}, " · "));
}

}  // namespace echappe
