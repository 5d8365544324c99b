#include "drawing/lettering.h"

#include <QCache>
#include <QFontMetricsF>
#include <QStaticText>

#include "drawing/lettered.h"

namespace echappe {

namespace {

/// What is written, in which font, wrapped at which width; −1 is one line.
struct Inscription {
    QFont font;
    QString text;
    double wrap = -1;

    bool operator==(const Inscription&) const = default;
};

size_t qHash(const Inscription& what, size_t seed = 0) {
    return qHashMulti(seed, what.text, what.font.pixelSize(), what.font.weight(), what.wrap);
}

struct LaidOut {
    QStaticText text;
    double ascent;
};

/// Shaping a text costs several times what drawing it does, and a picture repeats most of its texts from frame to frame.
const LaidOut& laid_out(const Inscription& what) {
    constexpr int texts_kept = 4000;
    static QCache<Inscription, LaidOut> store(texts_kept);
    if (const LaidOut* known = store.object(what)) return *known;
    // "s/d" stays in one piece: a word joiner after the stroke.
    QString text = what.text;
    // A block of plain text knows no other end of a line than this.
    if (what.wrap >= 0) text.replace('\n', QChar(QChar::LineSeparator));
    if (what.wrap >= 0) text.replace("s/d", QString::fromUtf8("s/\u2060d"));
    auto* fresh = new LaidOut{QStaticText(text), QFontMetricsF(what.font).ascent()};
    fresh->text.setTextFormat(Qt::PlainText);
    fresh->text.setPerformanceHint(QStaticText::AggressiveCaching);
    QTextOption option;
    option.setWrapMode(what.wrap < 0 ? QTextOption::NoWrap : QTextOption::WordWrap);
    fresh->text.setTextOption(option);
    if (what.wrap >= 0) fresh->text.setTextWidth(what.wrap);
    fresh->text.prepare(QTransform(), what.font);
    store.insert(what, fresh);
    return *fresh;
}

}  // namespace

double width_of(const QFont& font, const QString& text) { return laid_out({font, text}).text.size().width(); }

QFont type_to_fit(Type size, bool bold, const QString& text, double width) {
    int smaller = static_cast<int>(size);
    while (smaller > static_cast<int>(Type::note) && width_of(type(static_cast<Type>(smaller), bold), text) > width) --smaller;
    return type(static_cast<Type>(smaller), bold);
}

QString elided(const QFont& font, const QString& text, double width) { return QFontMetricsF(font).elidedText(text, Qt::ElideRight, width); }

double write(QPainter& painter, const QFont& font, const QColor& colour, QPointF baseline, const QString& text, int align) {
    const LaidOut& line = laid_out({font, text});
    const double width = line.text.size().width();
    baseline.rx() -= align < 0 ? 0 : align == 0 ? width / 2 : width;
    painter.setFont(font);
    painter.setPen(colour);
    painter.drawStaticText(baseline - QPointF(0, line.ascent), line.text);
    TakingDown::words(painter, text, QRectF(baseline - QPointF(0, line.ascent), line.text.size()));
    return width;
}

double write_wrapped(QPainter& painter, const QFont& font, const QColor& colour, QPointF top_left, double width, const QString& text) {
    const LaidOut& block = laid_out({font, text, width});
    painter.setFont(font);
    painter.setPen(colour);
    painter.drawStaticText(top_left, block.text);
    TakingDown::words(painter, text, QRectF(top_left, block.text.size()));
    return block.text.size().height();
}

}  // namespace echappe
