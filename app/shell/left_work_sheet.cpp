#include "shell/left_work_sheet.h"

#include <QDir>
#include <QKeyEvent>
#include <QVBoxLayout>
#include <algorithm>

#include "drawing/words.h"
#include "job/file.h"
#include "theme/theme.h"
#include "workings/record_json.h"

namespace echappe {
namespace {

constexpr double slip_high = 104;
constexpr double slip_gap = 12;
constexpr double head_high = 74;
constexpr double left = 52;
constexpr int most_seen = 4;

QString day(const QDateTime& time) { return time.toString("yyyy-MM-dd HH:mm"); }

/// What lies in the journal beside what lies in the file.
QString standing_of(const Journal::Entry& entry, const FileStamp& now) {
    if (entry.about.job_path.isEmpty()) return entry.about.demo.isEmpty() ? words("never saved") : words("edits on a demo, never saved");
    if (!now.there) return words("The original file is missing. Recover and save to recreate it");
    if (!now.same_content(entry.about.base))
        return words("THE FILE WAS SAVED LATER, %1: this comes back beside it, without a name")
            .arg(day(QDateTime::fromSecsSinceEpoch(now.modified_s)));
    try {
        const Job saved = load_job(entry.about.job_path.toStdString()).job;
        const Job kept = job_from_text(entry.job_text.toStdString()).job;
        const auto differ = places_changed(patch_between(Job::record(), &saved, &kept));
        return words("newer than its file in %1").arg(differ == 1 ? words("1 place") : words("%1 places").arg(differ));
    } catch (const std::exception&) {
        return words("newer than its file");
    }
}

}  // namespace

LeftWorkSlips::LeftWorkSlips(std::vector<Journal::Entry> entries, QWidget* parent) : Canvas(parent), m_entries(std::move(entries)) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(words("Unsaved work"));
    for (const Journal::Entry& entry : m_entries) {
        const LoadedJob job = job_from_text(entry.job_text.toStdString());
        m_titles.push_back(job.job.title.empty() ? words("Untitled job") : words(job.job.title));
        const FileStamp now = entry.about.job_path.isEmpty() ? FileStamp() : stamp_of(entry.about.job_path.toStdString());
        m_newer_file.push_back(now.there && !now.same_content(entry.about.base));
        m_standing.push_back(entry.fault.isEmpty() ? standing_of(entry, now) : words("not all of it can be read: %1").arg(entry.fault));
    }
    setMinimumHeight(static_cast<int>(interface_scale() * (head_high + static_cast<double>(m_entries.size()) * (slip_high + slip_gap))));
}

void LeftWorkSlips::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.ground);
    write(painter, type(Type::head, true), t.ink, {left, 34}, words("Left unsaved by an earlier run"));
    write(painter, type(Type::text), t.steel, {left, 56},
          words("↑ ↓ choose  ·  Enter recovers it  ·  Delete discards it  ·  Escape leaves it for later"));
    // The spike they are on.
    painter.setPen(QPen(t.steel, 2));
    painter.drawLine(QPointF(26, head_high - 18), QPointF(26, height() - 14.0));
    painter.drawLine(QPointF(20, height() - 14.0), QPointF(32, height() - 14.0));
    for (size_t i = 0; i < m_entries.size(); ++i) paint_slip(painter, i, head_high + static_cast<double>(i) * (slip_high + slip_gap));
}

void LeftWorkSlips::paint_slip(QPainter& painter, size_t index, double y) {
    const Theme& t = inks(painter);
    const Journal::Entry& entry = m_entries[index];
    const QRectF slip(14, y, width() - 30.0, slip_high);
    painter.setPen(QPen(index == m_chosen ? t.blued : t.rule, index == m_chosen ? 2 : 1));
    painter.setBrush(t.sheet);
    painter.drawRect(slip);
    painter.setBrush(t.ground);
    painter.setPen(QPen(t.steel, 1));
    painter.drawEllipse(QPointF(26, y + slip_high / 2), 4, 4);
    const double room = slip.width() - 60;
    write(painter, type(Type::figure, true), t.ink, {left, y + 26}, elided(type(Type::figure, true), m_titles[index], room - 130));
    write(painter, type(Type::text), t.ink, {slip.right() - 14, y + 26}, day(entry.last), 1);
    const QString file = entry.about.job_path.isEmpty() ? words("no file") : QDir::toNativeSeparators(entry.about.job_path);
    write(painter, type(Type::note), t.steel, {left, y + 46}, QFontMetricsF(type(Type::note)).elidedText(file, Qt::ElideMiddle, room));
    const QColor ink = m_newer_file[index] ? t.amber : entry.fault.isEmpty() ? t.verdigris : t.ruby;
    write(painter, type(Type::text), ink, {left, y + 66}, elided(type(Type::text), m_standing[index], room));
    const QString number = QString::number(index);
    const auto act = [&](double x, const QString& tag, const QString& say, const QColor& colour, std::function<void()> click) {
        const double wide = write(painter, type(Type::text, true), colour, {x, y + 92}, say);
        place({tag + number, QRectF(x - 6, y + 76, wide + 12, 24), std::move(click), {}, {}});
        return x + wide + 28;
    };
    place({"slip:" + number, slip, [this, index] { m_chosen = index, m_asked = -1, update(); }, m_standing[index], {}});
    double x = act(left, "take:", words("Take it up"), t.blued, [this, index] { emit taken_up(m_entries[index]); });
    const bool asked = m_asked == static_cast<int>(index);
    act(x, "discard:", asked ? words("Press once more to discard it") : words("Throw it away"), asked ? t.ruby : t.steel,
        [this, index] { throw_away(index); });
}

/// Asked twice; even then it lies aside for a while.
void LeftWorkSlips::throw_away(size_t index) {
    m_chosen = index;
    update();
    if (std::exchange(m_asked, static_cast<int>(index)) != static_cast<int>(index)) return;
    const Journal::Entry entry = m_entries[index];
    const auto at = static_cast<std::ptrdiff_t>(index);
    m_entries.erase(m_entries.begin() + at);
    m_titles.erase(m_titles.begin() + at);
    m_standing.erase(m_standing.begin() + at);
    m_newer_file.erase(m_newer_file.begin() + at);
    m_chosen = 0;
    m_asked = -1;
    emit thrown_away(entry);
}

void LeftWorkSlips::keyPressEvent(QKeyEvent* event) {
    if (m_entries.empty()) return Canvas::keyPressEvent(event);
    const size_t last = m_entries.size() - 1;
    switch (event->key()) {
        case Qt::Key_Up:
        case Qt::Key_Down:
            m_chosen = event->key() == Qt::Key_Up ? m_chosen - std::min<size_t>(m_chosen, 1) : std::min(m_chosen + 1, last);
            m_asked = -1;
            return update();
        case Qt::Key_Return:
        case Qt::Key_Enter:
            return emit taken_up(m_entries[m_chosen]);
        case Qt::Key_Delete:
            return throw_away(m_chosen);
        default:
            Canvas::keyPressEvent(event);
    }
}

LeftWorkSheet::LeftWorkSheet(std::vector<Journal::Entry> entries, QWidget* parent) : QDialog(parent) {
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(words("Unsaved work"));
    const auto seen = std::min<size_t>(entries.size(), most_seen);
    m_slips = new LeftWorkSlips(std::move(entries));
    auto* scroll = new QScrollArea;
    scroll->setWidget(m_slips);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(scroll);
    resize(QSizeF(QSizeF(720, head_high + static_cast<double>(seen) * (slip_high + slip_gap) + 8) * interface_scale()).toSize());
    m_slips->setFocus();
    connect(m_slips, &LeftWorkSlips::taken_up, this, &QDialog::accept);
    connect(m_slips, &LeftWorkSlips::thrown_away, this, [this](const Journal::Entry& entry) {
        Journal::discard(entry);
        if (m_slips->entries().empty()) reject();
    });
}

}  // namespace echappe
