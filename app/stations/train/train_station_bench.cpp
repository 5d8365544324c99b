#include <QFileInfo>
#include <QRegularExpression>

#include "document/pictures.h"
#include "document/recent.h"
#include "drawing/words.h"
#include "job/edits.h"
#include "job/kinds.h"
#include "stations/train/train_station.h"
#include "theme/theme.h"

namespace echappe {

void TrainStation::write_down() {
    m_writing->open();
    setFocusProxy(m_writing);
    place_sheets();
    update();
}

void TrainStation::written() {
    setFocusProxy(nullptr);
    setFocus();
    const auto& restore = m_document.derived().train.restore;
    if (restore && !restore->candidates.empty() && !m_document.derived().train.chosen) {
        const std::string part = restore->candidates.front().counts.begin()->first;
        m_document.selection().select(part.substr(0, part.find('.')));
    }
    update();
}

/// An empty bench has nothing to show but the sheet to write on; a movement that came otherwise takes its place.
void TrainStation::follow_job() {
    const bool empty = m_document.job().train.arbors.empty();
    if (empty && m_writing->isHidden()) write_down();
    if (!empty && !m_writing->isHidden() && m_writing->text().trimmed().isEmpty()) m_writing->drop();
    // Begun on a movement with too much open, counting goes on to the last.
    m_taking_in = m_document.derived().train.too_many || (m_taking_in && m_counting.some_open());
    update();
}

void TrainStation::place_sheets() {
    put(*m_writing, QRectF(0, 0, width(), m_writing->wanted_height()));
    put(*m_question, QRectF(column_x - 2, 44, left_column - column_x - 8, 30));
    update();
}

double TrainStation::top() const { return m_writing->isVisible() ? m_writing->height() : 0; }

void TrainStation::paint_empty_bench(QPainter& painter) {
    const Theme& t = inks(painter);
    const double left = column_x, middle = width() / 2.0 + 10;
    double y = top() + 44;
    const auto heading = [&](double x, const QString& words) { write(painter, type(Type::note, true), t.steel, {x, y}, words); };
    heading(left, words("OR BEGIN FROM A KIND OF MOVEMENT"));
    heading(middle, words("OR OPEN A JOB"));
    constexpr double row = 30;
    const auto line = [&](const QString& tag, QPointF at, const QString& words, const QString& beside, const std::function<void()>& go) {
        const double wide = write(painter, type(Type::figure, true), t.blued, at, words);
        if (!beside.isEmpty()) write(painter, type(Type::note), t.steel, at + QPointF(wide + 10, 0), beside);
        place({tag, QRectF(at.x() - 6, at.y() - 20, wide + 12, row - 2), go, {}, {}});
    };
    double down = y + row;
    for (const KindOfMovement& kind : kinds_of_movement()) {
        line("kind:" + words(kind.id), {left, down}, words(kind.words), {}, [this, id = kind.id] { begin(id); });
        down += row;
    }
    down = y + row;
    line("open", {middle, down}, words("from a file…"), words("Ctrl+O, or drop it here"), [this] { emit file_wanted({}); });
    constexpr int shown = 5;
    for (const QString& path : recent_jobs().mid(0, shown)) {
        down += row;
        line("recent:" + path, {middle, down}, QFileInfo(path).fileName().section('.', 0, 0), words("opened lately"),
             [this, path] { emit file_wanted(path); });
    }
    down += row + 26;
    write(painter, type(Type::note, true), t.steel, {middle, down}, words("MADE UP, TO TRY THINGS ON"));
    for (const auto& [id, title] :
         {std::pair{"tide-house", words("Tide-house regulator")}, std::pair{"waiting-room", words("Waiting-room clock of Merrow Pier")},
          std::pair{"watch", words("Lamplighter's watch")}, std::pair{"granary", words("Granary bell-clock of Low Marren")}}) {
        down += row;
        line(QString("demo:") + id, {middle, down}, title, {}, [this, name = QString(id)] { emit demo_wanted(name); });
    }
}

ReadingRound* TrainStation::own_round() const { return m_counting.again() || m_taking_in ? &m_counting : nullptr; }

/// Once more, or what is still open is lost and the solver's.
void TrainStation::count_again() {
    const bool counting = own_round() != nullptr;
    m_taking_in = false;
    m_counting.set_again(!counting);
    emit round_changed();
    emit told(counting ? words("Counting ended: what has no count is lost, and weighed.")
                       : words("Every count once more, from the power up. Ctrl+Shift+T ends it."),
              false);
}

void TrainStation::take_picture(const QString& path) {
    const std::string kept = keep_picture(m_document.pictures(), path, "whole").toStdString();
    m_document.edit(photograph_whole(kept));
    emit told(words("Kept as the picture of the whole; Ctrl+I shows it."), false);
}

/// Holes by their places; other columns of arbors are readings of the plates.
bool TrainStation::reads(const std::string& header) const {
    return header.find("arbor") != std::string::npos && words(header).contains(QRegularExpression("[,;\\s]x_mm\\b"));
}

size_t TrainStation::read_table(Job& job, const std::string& csv) { return keep_places_csv(job.train, csv); }

size_t TrainStation::read_drawing(Job& job, const QString& path) { return keep_places_dxf(job.train, path.toStdString()); }

/// What the kind has is there at once; its counts are asked for where they stand.
void TrainStation::begin(const std::string& kind) {
    m_document.edit(begin_of_kind(kind));
    m_writing->open();
    m_writing->first_lost();
}

}  // namespace echappe
