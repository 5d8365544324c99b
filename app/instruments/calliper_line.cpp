#include "instruments/calliper_line.h"

#include <QKeyEvent>
#include <QPainterPath>
#include <cmath>

#include "job/reading.h"
#include "number/input_error.h"
#include "number/units.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double label_x = 92;
constexpr double words_x = 330;
constexpr double tray_width = 292;

void paint_calliper(QPainter& painter, QPointF at) {
    painter.setPen(QPen(theme().ink, 1.4));
    painter.setBrush(Qt::NoBrush);
    const QPointF beam[] = {at, at + QPointF(56, 0), at + QPointF(56, 6), at + QPointF(10, 6), at + QPointF(3, 22), at};
    painter.drawPolyline(beam, 6);
    const QPointF jaw[] = {at + QPointF(22, -3), at + QPointF(38, -3), at + QPointF(38, 9),
                           at + QPointF(27, 9),  at + QPointF(21, 22), at + QPointF(22, -3)};
    painter.drawPolyline(jaw, 6);
}

}  // namespace

CalliperLine::CalliperLine(Document& document, QWidget* parent) : Canvas(parent), m_document(document), m_line(new QLineEdit(this)) {
    setFixedHeight(70);
    m_line->setFont(figure_font(18));
    m_line->setAccessibleName(tr("Reading"));
    m_line->installEventFilter(this);
    connect(&document, &Document::changed, this, &CalliperLine::refresh);
    connect(m_line, &QLineEdit::textEdited, this, [this] { tell({}, false); });
    refresh();
}

const Measurable* CalliperLine::asked() const {
    const auto& all = m_document.derived().measurables;
    if (m_wanted)
        for (const Measurable& m : all)
            if (m.key == *m_wanted) return &m;
    return all.empty() ? nullptr : &all.front();
}

void CalliperLine::ask(const QuantityKey& key) {
    m_wanted = key;
    m_line->setFocus();
    m_line->selectAll();
    update();
}

void CalliperLine::ask_next(int step) {
    const auto& all = m_document.derived().measurables;
    const Measurable* now = asked();
    if (!now) return;
    const auto count = static_cast<std::ptrdiff_t>(all.size());
    const std::ptrdiff_t at = (now - all.data() + step + count) % count;
    m_wanted = all[static_cast<size_t>(at)].key;
    tell({}, false);
}

bool CalliperLine::has_simulated() const { return m_document.calliper().has_value(); }

void CalliperLine::send_simulated() {
    const Measurable* now = asked();
    if (!now || !m_document.calliper()) return tell(tr("No simulated instrument here: it comes with the demo."), true);
    const auto reading = m_document.calliper()->read(now->key, m_turn[now->key]++);
    if (!reading) return tell(tr("A calliper cannot take \"%1\". Tab picks another.").arg(QString::fromStdString(now->name)), true);
    // Through the line itself, key by key, so that it takes the same way as typing.
    m_line->setFocus();
    m_line->clear();
    const Unit& unit = *find_unit(m_document.job().length_unit, Dimension::length);  // a calliper reads lengths only
    m_line->insert(QString::fromStdString(print_in(*reading, unit, unit.symbol == "in" ? 4 : 2, false)));
    tell(tr("Simulated reading. Enter keeps it; F3 reads again."), false);
    m_simulated = true;
}

void CalliperLine::explain() {
    if (const Measurable* now = asked()) tell(QString::fromStdString(now->how), false);
}

void CalliperLine::tell(const QString& sentence, bool fault) {
    m_message = sentence;
    m_fault = fault;
    m_simulated = false;
    update();
}

void CalliperLine::store() {
    const Measurable* now = asked();
    if (!now) return;
    const QuantityKey key = now->key;
    const QString name = QString::fromStdString(now->name);
    try {
        const Evidence reading = read_evidence(m_document.job(), key, m_line->text().toStdString());
        const QString typed = m_line->text().trimmed();
        const bool simulated = m_simulated;
        m_wanted.reset();
        m_line->clear();
        m_document.store_reading(reading, simulated ? tr("calliper, simulated") : tr("calliper"));
        const QString kept = reading.value > 0 ? QString::fromStdString(print_short(reading.value, 7) + " " + key.unit()) : typed;
        tell(tr("Kept: %1 %2. Undo with Ctrl+Z.").arg(name, kept), false);
    } catch (const InputError& error) {
        m_line->selectAll();
        tell(error.what(), true);
    }
}

void CalliperLine::refresh() {
    m_line->setEnabled(asked() != nullptr);
    update();
}

bool CalliperLine::eventFilter(QObject* watched, QEvent* event) {
    if (watched == m_line && event->type() == QEvent::KeyPress) {
        const auto* key = static_cast<QKeyEvent*>(event);
        switch (key->key()) {
            case Qt::Key_Return:
            case Qt::Key_Enter:
                store();
                return true;
            case Qt::Key_Tab:
                ask_next(1);
                return true;
            case Qt::Key_Backtab:
                ask_next(-1);
                return true;
            case Qt::Key_Question:
                explain();
                return true;
            default:
                break;
        }
    }
    return Canvas::eventFilter(watched, event);
}

void CalliperLine::resizeEvent(QResizeEvent*) { m_line->setGeometry(static_cast<int>(label_x), 26, 190, 36); }

void CalliperLine::paint(QPainter& painter) {
    const Theme& t = theme();
    painter.fillRect(rect(), t.dark ? t.sheet : QColor(Qt::white));
    painter.fillRect(QRectF(0, 0, width(), 2), t.ink);
    paint_calliper(painter, {18, 28});
    const Measurable* now = asked();
    write(painter, word_font(9), t.steel, {label_x, 20}, now ? QString::fromStdString(now->name) : tr("nothing to measure here"));
    if (now) write(painter, word_font(10), t.steel, {label_x + 196, 52}, QString::fromStdString(typed_as(m_document.job(), now->key)));
    const double room = width() - words_x - tray_width - 16;
    write(painter, word_font(8.5), t.steel, {words_x, 20}, tr("Enter keeps it and goes on  ·  Tab another  ·  ? how to take it"));
    QString line = m_message;
    QColor ink = m_fault ? t.ruby : t.blued;
    const auto& restore = m_document.derived().restore;
    if (line.isEmpty() && restore && restore->next_measurement && now && now->key == restore->next_measurement->key)
        line = tr("of all readings this one tells most: %1 bit").arg(m_document.derived().next_bits.value_or(0), 0, 'f', 1);
    else if (line.isEmpty() && now && now->taken) line = tr("taken already; a new reading replaces it");
    write_wrapped(painter, word_font(9), ink, {words_x, 29}, room, line);
    if (!has_simulated()) return;
    const QRectF tray(width() - tray_width, 12, tray_width - 18, 46);
    painter.setPen(QPen(t.rule, 1));
    painter.setBrush(t.ground);
    painter.drawRect(tray);
    write(painter, word_font(8.5), t.steel, tray.topLeft() + QPointF(12, 18), tr("calliper, SIMULATED"));
    write(painter, word_font(9), t.ink, tray.topLeft() + QPointF(12, 36), tr("reads the hidden movement, ±0.01 mm"));
    write(painter, word_font(9.5, true), t.blued, tray.topRight() + QPointF(-12, 18), tr("read F3"), 1);
    place({"simulated",
           tray,
           [this] { send_simulated(); },
           tr("A stand-in for practice: types a reading of the demo's hidden movement"),
           {}});
}

}  // namespace echappe
