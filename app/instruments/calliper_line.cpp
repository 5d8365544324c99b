#include "instruments/calliper_line.h"

#include <QKeyEvent>
#include <QPainterPath>
#include <cmath>

#include "number/input_error.h"
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

/// A lever on a square, with its weight: the torque gauge.
void paint_gauge(QPainter& painter, QPointF at) {
    painter.setPen(QPen(theme().ink, 1.4));
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(at + QPointF(10, 10), 8, 8);
    painter.drawRect(QRectF(at + QPointF(7, 7), QSizeF(6, 6)));
    painter.drawLine(at + QPointF(18, 10), at + QPointF(56, 10));
    painter.drawRect(QRectF(at + QPointF(44, 3), QSizeF(9, 14)));
}

/// The reference: a plain dial.
void paint_reference(QPainter& painter, QPointF at) {
    painter.setPen(QPen(theme().ink, 1.4));
    painter.setBrush(Qt::NoBrush);
    const QPointF middle = at + QPointF(28, 10);
    painter.drawEllipse(middle, 17, 17);
    for (const QPointF& way : {QPointF(0, -1), QPointF(1, 0), QPointF(0, 1), QPointF(-1, 0)})
        painter.drawLine(middle + way * 13, middle + way * 17);
    painter.drawLine(middle, middle + QPointF(-5, -7));
    painter.drawLine(middle, middle + QPointF(3, -12));
}

}  // namespace

CalliperLine::CalliperLine(Document& document, QWidget* parent)
    : Canvas(parent),
      m_document(document),
      m_solver(document),
      m_plates(document),
      m_torque(document),
      m_looks(document),
      m_round(&m_solver),
      m_line(new QLineEdit(this)) {
    setFixedHeight(70);
    m_line->setFont(figure_font(18));
    m_line->setAccessibleName(tr("Reading"));
    m_line->installEventFilter(this);
    connect(&document, &Document::changed, this, &CalliperLine::refresh);
    connect(&document, &Document::subject_changed, this, [this] {
        if (m_round == &m_plates) m_plates.go_to(m_document.hole());
        update();
    });
    connect(m_line, &QLineEdit::textEdited, this, [this] { tell({}, false); });
    refresh();
}

void CalliperLine::ask(const QuantityKey& key) {
    take(Asks::train);
    m_solver.ask(key);
    m_line->setFocus();
    m_line->selectAll();
    update();
}

void CalliperLine::take(Asks what) {
    ReadingRound* const rounds[] = {&m_solver, &m_plates, &m_torque, &m_looks};
    m_round = rounds[static_cast<int>(what)];
    // What is typed must go to the hole that is looked at; before anything was read the round begins at its beginning.
    if (what == Asks::plates && !m_document.job().survey.holes.empty()) m_plates.go_to(m_document.hole());
    m_line->clear();
    tell({}, false);
    refresh();
}

void CalliperLine::ask_next(int step) {
    m_round->step(step);
    tell({}, false);
}

void CalliperLine::begin(const QString& text) {
    m_line->setFocus();
    m_line->setText(text);
}

bool CalliperLine::has_simulated() const { return m_document.calliper().has_value(); }

void CalliperLine::send_simulated() {
    try {
        const QString reading = m_round->simulated();
        // Through the line itself, key by key, so that it takes the same way as typing.
        m_line->setFocus();
        m_line->clear();
        m_line->insert(reading);
        tell(tr("Simulated reading. Enter keeps it; F3 reads again."), false);
        m_simulated = true;
    } catch (const InputError& error) {
        tell(error.what(), true);
    }
}

void CalliperLine::explain() {
    if (const auto now = m_round->asked()) tell(now->how, false);
}

void CalliperLine::tell(const QString& sentence, bool fault) {
    m_message = sentence;
    m_fault = fault;
    m_simulated = false;
    update();
}

void CalliperLine::store() {
    if (!m_round->asked()) return;
    try {
        const QString text = m_line->text();
        const QString kept = m_round->keep(text, m_simulated);
        m_line->clear();
        tell(kept, false);
    } catch (const InputError& error) {
        m_line->selectAll();
        tell(error.what(), true);
    }
}

void CalliperLine::refresh() {
    m_line->setEnabled(m_round->asked().has_value());
    update();
}

bool CalliperLine::eventFilter(QObject* watched, QEvent* event) {
    if (watched == m_line && event->type() == QEvent::KeyPress) {
        const auto* key = static_cast<QKeyEvent*>(event);
        if (m_line->text().isEmpty() && !(key->modifiers() & (Qt::ControlModifier | Qt::AltModifier)) &&
            m_round->key_on_empty_line(key->key(), key->modifiers() & Qt::ShiftModifier)) {
            tell({}, false);
            return true;
        }
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
    if (m_round == &m_torque) paint_gauge(painter, {18, 28});
    else if (m_round == &m_looks) paint_reference(painter, {18, 28});
    else paint_calliper(painter, {18, 28});
    const auto now = m_round->asked();
    write(painter, word_font(9), t.steel, {label_x, 20}, now ? now->name : tr("nothing to measure here"));
    if (now) write(painter, word_font(10), t.steel, {label_x + 196, 52}, now->typed_as);
    const double room = width() - words_x - tray_width - 16;
    const double name_wide = now ? width_of(word_font(9), now->name) : 0;
    const double keys_x = std::max(words_x, label_x + name_wide + 18);
    const QFont small = word_font(8.5);
    write(painter, small, t.steel, {keys_x, 20}, QFontMetricsF(small).elidedText(m_round->keys(), Qt::ElideRight, words_x + room - keys_x));
    QString line = m_message;
    QColor ink = m_fault ? t.ruby : t.blued;
    if (line.isEmpty() && now) {
        line = now->note;
        if (now->warns) ink = t.amber;
    }
    write_wrapped(painter, word_font(9), ink, {words_x + 20, 29}, room - 20, line);
    if (!has_simulated()) return;
    const QRectF tray(width() - tray_width, 12, tray_width - 18, 46);
    painter.setPen(QPen(t.rule, 1));
    painter.setBrush(t.ground);
    painter.drawRect(tray);
    write(painter, word_font(8.5), t.steel, tray.topLeft() + QPointF(12, 18), tr("%1, SIMULATED").arg(m_round->instrument()));
    write(painter, word_font(9), t.ink, tray.topLeft() + QPointF(12, 36), m_round->precision());
    write(painter, word_font(9.5, true), t.blued, tray.topRight() + QPointF(-12, 18), tr("read F3"), 1);
    place({"simulated",
           tray,
           [this] { send_simulated(); },
           tr("A stand-in for practice: types a reading of the demo's hidden movement"),
           {}});
}

}  // namespace echappe
