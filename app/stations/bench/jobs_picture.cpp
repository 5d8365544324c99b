// The bench with all jobs on it: on the shelf what waits, on the bench what can be worked, on the wall what runs on test, in the crate what
// went home.
#include <QFileInfo>
#include <QPainterPath>
#include <algorithm>

#include "drawing/words.h"
#include "number/units.h"
#include "sheet/marks.h"
#include "stations/bench/bench_station.h"
#include "theme/theme.h"

namespace echappe {
namespace {

QString when_in_words(const JobOnBench& job) {
    if (!job.closed.empty()) return words("home %1").arg(words(job.closed));
    constexpr size_t day = 10;
    if (!job.until.empty()) return words("until %1").arg(words(job.until.substr(0, day)));
    if (job.late) return words("late: %1").arg(words(job.promised));
    return job.promised.empty() ? QString() : words("promised %1").arg(words(job.promised));
}

/// A name in one line or two, as the words part.
QStringList in_two_lines(const QFont& font, const QString& name, double room) {
    if (width_of(font, name) <= room) return {name};
    QString first, rest;
    for (const QString& word : name.split(' ')) {
        const QString longer = first.isEmpty() ? word : first + ' ' + word;
        if (rest.isEmpty() && width_of(font, longer) <= room) first = longer;
        else rest += (rest.isEmpty() ? "" : " ") + word;
    }
    return {first, elided(font, rest, room)};
}

void board(QPainter& painter, double left, double right, double y) {
    const Theme& t = inks(painter);
    painter.setPen(QPen(t.brass, 1.2));
    painter.setBrush(t.pale_brass);
    painter.drawRect(QRectF(left, y, right - left, 7));
}

}  // namespace

/// Its outline by its kind, a tag under it.
void BenchStation::paint_clock(QPainter& painter, const JobOnBench& job, QPointF foot, double high) {
    const Theme& t = inks(painter);
    const bool cloth = job.state == "waits", home = job.state == "closed";
    painter.setPen(QPen(job.late ? t.ruby : home ? t.steel : t.ink, 1.4, cloth ? Qt::DashLine : Qt::SolidLine));
    painter.setBrush(home ? t.ground : t.sheet);
    const auto box = [&](double wide, double from, double to) {
        return QRectF(foot.x() - wide / 2, foot.y() - to * high, wide, (to - from) * high);
    };
    QPointF dial(foot.x(), foot.y() - 0.78 * high);
    double r = 0.12 * high;
    if (job.kind == "longcase") {
        painter.drawRect(box(0.4 * high, 0, 0.16));
        painter.drawRect(box(0.26 * high, 0.16, 0.62));
        painter.drawRect(box(0.38 * high, 0.62, 0.95));
        QPainterPath arch(QPointF(foot.x() - 0.19 * high, foot.y() - 0.95 * high));
        arch.quadTo(QPointF(foot.x(), foot.y() - 1.06 * high), QPointF(foot.x() + 0.19 * high, foot.y() - 0.95 * high));
        painter.drawPath(arch);
    } else if (job.kind == "watch") {
        r = 0.22 * high, dial = foot - QPointF(0, r + 2);
        painter.drawEllipse(dial, r * 1.15, r * 1.15);
        painter.drawEllipse(dial - QPointF(0, r * 1.45), 0.22 * r, 0.28 * r);
    } else if (job.kind == "wood") {
        painter.drawRect(box(0.5 * high, 0.1, 0.8));
        dial = foot - QPointF(0, 0.5 * high), r = 0.17 * high;
        for (const double x : {-0.12, 0.12}) painter.drawLine(foot + QPointF(x * high, -0.1 * high), foot + QPointF(x * high, 0));
    } else {
        painter.drawRect(box(0.52 * high, 0, 0.66));
        QPainterPath top(QPointF(foot.x() - 0.26 * high, foot.y() - 0.66 * high));
        top.quadTo(QPointF(foot.x(), foot.y() - 0.98 * high), QPointF(foot.x() + 0.26 * high, foot.y() - 0.66 * high));
        painter.drawPath(top);
        dial = foot - QPointF(0, 0.4 * high), r = 0.17 * high;
    }
    painter.setBrush(t.ground);
    painter.drawEllipse(dial, r, r);
    painter.drawLine(dial, dial + QPointF(0, -0.75 * r));
    painter.drawLine(dial, dial + QPointF(0.5 * r, 0.2 * r));
    if (job.state == "on test") {
        // It swings.
        painter.setPen(QPen(t.verdigris, 1.6));
        for (const double out : {1.5, 1.85})
            for (const int from : {150, -30})
                painter.drawArc(QRectF(dial.x() - out * r, dial.y() - out * r, 2 * out * r, 2 * out * r), from * 16, 60 * 16);
    }
    if (!job.danger) return;
    const QPointF sign = foot + QPointF(0.36 * high, -11);
    painter.setPen(QPen(t.ruby, 1.6));
    painter.setBrush(t.sheet);
    painter.drawPolygon(QPolygonF() << sign - QPointF(0, 9) << sign + QPointF(9, 8) << sign + QPointF(-9, 8));
    painter.drawLine(sign - QPointF(0, 3), sign + QPointF(0, 2));
    painter.drawPoint(sign + QPointF(0, 5));
}

void BenchStation::paint_today(QPainter& painter, const QRectF& room) {
    const Theme& t = inks(painter);
    Column page(painter, room);
    if (!m_words.isEmpty()) page.says(words("Only jobs with “%1”; F finds others.").arg(m_words), t.amber, Type::text);
    page.section(words("TODAY"), words("%1 h").arg(words(print_fixed(m_today.minutes_today / 60, 1))));
    for (const JobOnBench& job : m_today.today) {
        if (!page.holds(70)) break;
        const QRectF head = page.line(words(job.title), job.late ? t.ruby : t.ink, Type::text, true);
        page.says(words("%1, about %2\u00a0min").arg(words(job.next), words(print_fixed(job.minutes, 0))), t.steel);
        place({"today:" + words(job.file), head, [this, file = job.file] { emit file_wanted(folder() + "/" + words(file)); },
               words("opens it")});
        page.gap(3);
    }
    if (m_today.today.empty() && !m_looking) page.says(words("Nothing can be done now."), t.steel, Type::text);
    page.gap(6);
    page.section(words("WAITED FOR"));
    for (const JobOnBench& job : m_today.waiting) {
        if (!page.holds(40)) break;
        page.says(
            words("%1: %2%3")
                .arg(words(job.title), words(job.waits_for), job.until.empty() ? QString() : words(", until %1").arg(words(job.until))),
            t.amber);
    }
}

void BenchStation::paint_jobs(QPainter& painter) {
    const Theme& t = inks(painter);
    const double today_wide = 300, right = width() - today_wide - 20;
    if (m_looking) {
        Column page(painter, QRectF(20, top_px + 20, right - 40, 80));
        page.line(
            m_seen > 0 ? words("Looking through the folder: %1 of %2").arg(m_seen).arg(m_to_see) : words("Looking through the folder…"),
            t.steel, Type::text);
        page.line(legend({"bench.enough"}), t.steel);
        return;
    }
    struct Shelf {
        QString name;
        std::vector<std::string> states;
    };
    const std::vector<Shelf> shelves = {{words("on the wall: on test, or ready to go"), {"on test", "ready"}},
                                        {words("on the shelf: waits"), {"waits"}},
                                        {words("on the bench: can be worked"), {"received", "in work", "damaged"}},
                                        {words("gone home"), {"closed"}}};
    const double each = (height() - top_px - 20) / static_cast<double>(shelves.size());
    double y = top_px + 6;
    for (const Shelf& shelf : shelves) {
        const double floor = y + each - 54;
        write(painter, type(Type::note), t.steel, {22, y + 14}, shelf.name);
        board(painter, 18, right, floor);
        std::vector<const JobOnBench*> there;
        for (const JobOnBench& job : m_today.jobs)
            if (std::find(shelf.states.begin(), shelf.states.end(), job.state) != shelf.states.end()) there.push_back(&job);
        const double room = right - 40, wanted = 150,
                     each_wide = there.empty() ? wanted : std::min(wanted, room / static_cast<double>(there.size()));
        double x = 30 + each_wide / 2;
        for (const JobOnBench* job : there) {
            paint_clock(painter, *job, {x, floor}, std::min(each - 80, 100.0));
            constexpr double readable = 60;
            if (each_wide > readable) {
                const QFont font = type(Type::note, job->file == QFileInfo(m_document.path()).fileName().toStdString());
                double line = floor + 21;
                for (const QString& part : in_two_lines(font, words(job->title), each_wide - 8))
                    write(painter, font, job->late ? t.ruby : t.ink, {x, line}, part, 0), line += 14;
                write(painter, type(Type::note), job->late ? t.ruby : t.steel, {x, line},
                      elided(type(Type::note), job->fault.empty() ? when_in_words(*job) : words("damaged"), each_wide - 8), 0);
            }
            place({"job:" + words(job->file), QRectF(x - each_wide / 2, y + 16, each_wide, each - 20),
                   [this, file = job->file] { emit file_wanted(folder() + "/" + words(file)); },
                   words(job->fault.empty() ? job->title + ". " + job->next : job->fault)});
            x += each_wide;
        }
        y += each;
    }
    paint_today(painter, QRectF(right + 14, top_px + 12, today_wide - 10, height() - top_px - 30));
}

}  // namespace echappe
