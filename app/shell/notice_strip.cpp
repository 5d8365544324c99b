#include "shell/notice_strip.h"

#include <QFontMetricsF>

#include "drawing/words.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr int line_high = 30;

}  // namespace

NoticeStrip::NoticeStrip(Document& document, QWidget* parent) : Canvas(parent), m_document(document) {
    setAccessibleName(words("Notices"));
    setFocusPolicy(Qt::TabFocus);
    connect(&document, &Document::standing_changed, this, &NoticeStrip::refresh);
    refresh();
}

QSize NoticeStrip::fixed_size() const { return {0, std::max(1, line_high * static_cast<int>(m_document.standing().size()))}; }

void NoticeStrip::refresh() {
    fix_size();
    setVisible(!m_document.standing().empty());
    update();
}

void NoticeStrip::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.sheet);
    painter.fillRect(QRectF(0, 0, 6, height()), t.ruby);
    painter.fillRect(QRectF(0, height() - 1, width(), 1), t.rule);
    const QFont font = type(Type::text);
    const QFont act = type(Type::text, true);
    const QString save = words("Save elsewhere…");
    const double button = width_of(act, save) + 36;
    double y = 0;
    for (const QString& sentence : m_document.standing()) {
        const QRectF row(18, y, width() - 18 - button, line_high);
        const QString shown = elided(font, sentence, row.width() - 12);
        write(painter, font, t.ruby, {row.left(), y + 20}, shown);
        place({"notice", row, {}, sentence, {}});
        y += line_high;
    }
    const QRectF at(width() - button, 0, button, line_high);
    write(painter, act, t.blued, {at.right() - 18, 20}, save, 1);
    place({"save elsewhere", at, [this] { emit save_elsewhere_wanted(); }, words("Ctrl+Shift+S"), {}});
}

}  // namespace echappe
