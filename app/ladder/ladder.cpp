#include "ladder/ladder.h"

#include <QDataStream>
#include <QIODevice>
#include <QKeyEvent>
#include <algorithm>

#include "number/units.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double top = 44;
constexpr double bottom = 50;
constexpr double largest_disc = 46;
constexpr double disc_x = 64;
constexpr double text_x = 124;

/// Dashes for what is not there, thin for what is assumed, full for what is counted.
QPen rim_pen(Known known, const QColor& colour) {
    QPen pen(colour, known == Known::assumed ? 1 : 1.5);
    if (known == Known::missing) pen.setDashPattern({4, 3});
    return pen;
}

QString count_text(const DerivedCount& count) {
    if (!count.count.known()) return "?";
    return QString::number(count.count.value) + (count.known == Known::missing ? "?" : "");
}

/// Findings that wait at an arbor, and how bad the worst is.
struct Waiting {
    int findings = 0;
    std::string worst;
};

Waiting waiting_at(const Document& document, const std::string& arbor) {
    Waiting waiting;
    for (const Finding& finding : document.derived().findings) {
        if (finding.arbor != arbor || !finding.verdict.empty()) continue;
        if (waiting.findings++ == 0) waiting.worst = finding.severity;
    }
    return waiting;
}

bool lost_at(const Document& document, const std::string& arbor) {
    const ArborInput& train = document.job().arbor(arbor)->train;
    return train.wheel.is == Count::Is::lost || train.pinion.is == Count::Is::lost;
}

double largest_wheel_mm(const Document& document) {
    double largest = 1;
    for (const DerivedArbor& arbor : document.derived().arbors) largest = std::max(largest, arbor.wheel_radius_mm);
    return largest;
}

/// Everything `paint` draws from the document. Most edits leave it as it is, and painting the ladder is a tenth of an edit.
QByteArray content_of(const Document& document) {
    QByteArray content;
    QDataStream out(&content, QIODevice::WriteOnly);
    const auto put = [&](const std::string& text) { out << QString::fromStdString(text); };
    const auto put_count = [&](const DerivedCount& count) {
        out << static_cast<qint64>(count.count.value) << count.count.known() << count.count.present() << static_cast<int>(count.known);
    };
    const Derived& derived = document.derived();
    out << static_cast<int>(document.job().trains.size()) << largest_wheel_mm(document) << derived.chosen;
    out << derived.beats_per_hour.value_or(0) << derived.run_s.value_or(0);
    const TrainList* train = document.train();
    if (!train) return content;
    put(train->name);
    for (const std::string& id : train->arbors) {
        put(id);
        const DerivedArbor* arbor = derived.arbor(id);
        if (!arbor) continue;
        const Waiting waiting = waiting_at(document, id);
        put(arbor->name);
        put(arbor->direction);
        put_count(arbor->wheel);
        put_count(arbor->pinion);
        put(waiting.worst);
        out << waiting.findings << lost_at(document, id) << arbor->wheel_radius_mm << arbor->period_s.value_or(0)
            << static_cast<int>(arbor->period_known) << (id == document.subject());
    }
    return content;
}

}  // namespace

Ladder::Ladder(Document& document, QWidget* parent) : Canvas(parent), m_document(document) {
    setFixedWidth(224);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Ladder"));
    connect(&document, &Document::changed, this, [this, shown = QByteArray()]() mutable {
        QByteArray now = content_of(m_document);
        if (now == shown) return;
        shown = std::move(now);
        update();
    });
    connect(&document, &Document::subject_changed, this, qOverload<>(&QWidget::update));
}

void Ladder::paint(QPainter& painter) {
    const Theme& t = theme();
    painter.fillRect(rect(), t.sheet);
    painter.fillRect(QRectF(width() - 1, 0, 1, height()), t.rule);
    const Job& job = m_document.job();
    if (job.trains.empty()) {
        write_wrapped(painter, word_font(10), t.steel, {18, 30}, width() - 36,
                      tr("No train yet. Open a job with Ctrl+O, or the demo from the Job menu."));
        return;
    }
    const TrainList& train = *m_document.train();
    write(painter, word_font(8.5, true), t.steel, {18, 27}, QString::fromStdString(train.name).toUpper());
    const bool several = job.trains.size() > 1;
    write(painter, word_font(8), several ? t.blued : t.steel, {206.0, 27}, several ? tr("other train →") : tr("power climbs ↑"), 1);
    if (several) place({"other train", QRectF(110, 10, 104, 26), [this] { m_document.next_train(); }, tr("Shows the next train (→)"), {}});
    const double largest = largest_wheel_mm(m_document);
    const double step = std::min(150.0, (height() - top - bottom) / static_cast<double>(train.arbors.size()));
    double y = height() - bottom;
    for (const std::string& id : train.arbors) {
        if (const DerivedArbor* arbor = m_document.derived().arbor(id))
            paint_rung(painter, *arbor, {6, y - step + 4, 212, step - 8}, largest_disc / largest);
        y -= step;
    }
    const Derived& derived = m_document.derived();
    if (derived.beats_per_hour)
        write(painter, word_font(9.5), t.blued, {18, height() - 30.0},
              QString::fromStdString(print_short(*derived.beats_per_hour, 7)) + tr(" beats an hour"));
    if (derived.run_s)
        write(painter, word_font(9.5), t.blued, {18, height() - 13.0}, tr("runs ") + QString::fromStdString(print_span(*derived.run_s)));
}

void Ladder::paint_rung(QPainter& painter, const DerivedArbor& arbor, const QRectF& rung, double mm_to_px) {
    const Theme& t = theme();
    const bool subject = arbor.id == m_document.subject();
    if (subject) {
        painter.setPen(QPen(t.blued, 1.5));
        painter.setBrush(t.dark ? t.ground : QColor(Qt::white));
        painter.drawRoundedRect(rung, 4, 4);
    }
    const double middle = rung.center().y();
    const double radius = std::clamp(arbor.wheel_radius_mm * mm_to_px, 17.0, rung.height() / 2 - 3);
    const QPointF centre(disc_x, middle);
    if (arbor.wheel.count.present()) {
        painter.setPen(rim_pen(arbor.wheel.known, t.brass));
        painter.setBrush(arbor.wheel.known == Known::missing ? QBrush(Qt::NoBrush) : QBrush(t.pale_brass));
        painter.drawEllipse(centre, radius, radius);
        write(painter, figure_font(arbor.wheel.known == Known::missing ? 14 : 16),
              arbor.wheel.known == Known::missing ? t.brass_ink : t.ink, centre + QPointF(0, 7), count_text(arbor.wheel), 0);
    }
    if (arbor.pinion.count.present()) {
        const QPointF at = centre + QPointF(radius * 0.78 + 4, radius * 0.62 + 4);
        painter.setPen(rim_pen(arbor.pinion.known, t.steel));
        painter.setBrush(arbor.pinion.known == Known::missing ? QBrush(subject && !t.dark ? QColor(Qt::white) : t.sheet) : QBrush(t.steel));
        painter.drawEllipse(at, 12, 12);
        write(painter, word_font(8.5, true), arbor.pinion.known == Known::missing ? t.steel : t.sheet, at + QPointF(0, 4),
              count_text(arbor.pinion), 0);
    }
    double line = middle - 22;
    const double line_height = 17;
    const QString name = QString::fromStdString(arbor.name);
    const double name_wide = width_of(word_font(11, true), name);
    write(painter, word_font(11 * std::min(1.0, (width() - text_x - 10) / std::max(1.0, name_wide)), true), subject ? t.blued : t.ink,
          {text_x, line}, name);
    const QString span = arbor.period_s ? QString::fromStdString(print_span(*arbor.period_s)) : QString();
    const double span_wide = width_of(word_font(10.5), span);
    const double span_size = 10.5 * std::min(1.0, (width() - text_x - 12) / std::max(1.0, span_wide));
    if (arbor.period_s)
        write(painter, word_font(span_size), arbor.period_known == Known::missing ? t.brass_ink : t.blued,
              {text_x, line += line_height + 1}, span);
    if (!arbor.direction.empty())
        write(painter, word_font(8.5), t.steel, {text_x, line += line_height},
              arbor.direction == "cw" ? tr("turns right ↻") : tr("turns left ↺"));
    const auto [open, worst] = waiting_at(m_document, arbor.id);
    QString marks = lost_at(m_document, arbor.id) ? (m_document.derived().chosen ? tr("chosen") : tr("lost")) : QString();
    if (open > 0) marks += (marks.isEmpty() ? "" : " · ") + (open == 1 ? tr("1 finding") : tr("%1 findings").arg(open));
    if (!marks.isEmpty()) write(painter, word_font(8.5), open > 0 ? t.severity(worst) : t.steel, {text_x, line + line_height}, marks);
    place({"rung:" + QString::fromStdString(arbor.id), rung, [this, id = arbor.id] { m_document.select(id); }, {}, {}});
}

void Ladder::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Up) m_document.climb(1);
    else if (event->key() == Qt::Key_Down) m_document.climb(-1);
    else if (event->key() == Qt::Key_Right) m_document.next_train();
    else QWidget::keyPressEvent(event);
}

}  // namespace echappe
