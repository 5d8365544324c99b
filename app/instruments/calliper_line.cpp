#include "instruments/calliper_line.h"

#include <QKeyEvent>
#include <QPainterPath>
#include <cmath>

#include "number/input_error.h"
#include "number/units.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double label_x = 92;
constexpr double words_x = 330;
constexpr double tray_width = 292;

const Unit& typed_unit(const Job& job, const QuantityKey& key) {
    if (key.kind == "period_s") return base_unit(Dimension::time);
    if (key.kind == "beats_per_hour") return base_unit(Dimension::number);
    return *find_unit(job.length_unit, Dimension::length);
}

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
    const Unit& unit = typed_unit(m_document.job(), now->key);
    m_line->insert(QString::fromStdString(print_in(*reading, unit, unit.symbol == "in" ? 4 : 2, false)));
    tell(tr("Simulated reading. Enter keeps it; F3 reads again."), false);
}

void CalliperLine::explain() {
    if (const Measurable* now = asked()) tell(QString::fromStdString(now->how), false);
}

void CalliperLine::tell(const QString& sentence, bool fault) {
    m_message = sentence;
    m_fault = fault;
    update();
}

double CalliperLine::expected_u(const QuantityKey& key) const {
    // The workshop's instrument as the solver takes it: said once, there.
    const RestoreInput workshop;
    if (key.kind == "centre_distance_mm") return workshop.centre_u_mm;
    if (key.kind == "module_mm") return 0.003;
    if (key.kind == "pendulum_length_mm") return 5;
    if (key.kind == "beats_per_hour") return 1;
    if (key.kind == "period_s") return 0.5;
    return workshop.calliper_u_mm;
}

void CalliperLine::store() {
    const Measurable* now = asked();
    if (!now) return;
    const QuantityKey key = now->key;
    const QString name = QString::fromStdString(now->name);
    try {
        const Reading reading = parse_reading(m_line->text().toStdString(), typed_unit(m_document.job(), key), now->name);
        if (!(reading.value > 0)) throw InputError(now->name, m_line->text().toStdString(), "a number above 0");
        const bool simulated = m_message.startsWith(tr("Simulated"));
        m_wanted.reset();
        m_line->clear();
        m_document.store_reading(key, reading.value, reading.u.value_or(expected_u(key)),
                                 simulated ? tr("calliper, simulated") : tr("calliper"));
        tell(tr("Kept: %1 %2. Undo with Ctrl+Z.").arg(name, QString::fromStdString(print_short(reading.value, 7) + " " + key.unit())),
             false);
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
    if (now)
        write(painter, word_font(10), t.steel, {label_x + 196, 52},
              QString::fromUtf8(typed_unit(m_document.job(), now->key).symbol.data(),
                                static_cast<int>(typed_unit(m_document.job(), now->key).symbol.size())));
    const double room = width() - words_x - tray_width - 16;
    write(painter, word_font(8.5), t.steel, {words_x, 20}, tr("Enter keeps it and goes on  ·  Tab another  ·  ? how to take it"));
    QString line = m_message;
    QColor ink = m_fault ? t.ruby : t.blued;
    const auto& restore = m_document.derived().restore;
    if (line.isEmpty() && restore && restore->next_measurement && now && now->key == restore->next_measurement->key)
        line = tr("of all readings this one tells most: %1 bit")
                   .arg(std::max(restore->next_measurement->expected_entropy_drop_bits,
                                 restore->next_measurement->then_entropy_drop_bits.value_or(0)),
                        0, 'f', 1);
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
