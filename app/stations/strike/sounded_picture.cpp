#include "stations/strike/sounded_picture.h"

#include "drawing/words.h"
#include "sheet/column.h"
#include "sound/blows.h"
#include "theme/theme.h"

namespace echappe {

void paint_sounded(QPainter& painter, const QRectF& room, const StrikeRound::Sounded& sounded) {
    const Theme& t = inks(painter);
    const BlowsResult& heard = *sounded.as;
    Column page(painter, room);
    page.section(words("AS IT SOUNDED AT %1").arg(words(words_of_time(sounded.hour)).toUpper()));
    page.line(words(heard.verdict), t.steel);
    const QRectF band(room.left(), page.y() + 2, room.width(), room.bottom() - page.y() - 18);
    const double wide = band.width() / static_cast<double>(heard.loudness.size());
    QPolygonF shape;
    const auto at = [&](size_t i, double side) {
        return QPointF(band.left() + static_cast<double>(i) * wide, band.center().y() - side * heard.loudness[i] * band.height() / 2);
    };
    for (size_t i = 0; i < heard.loudness.size(); ++i) shape << at(i, 1);
    for (size_t i = heard.loudness.size(); i > 0; --i) shape << at(i - 1, -1);
    painter.setPen(Qt::NoPen);
    painter.setBrush(t.brass);
    painter.drawPolygon(shape);
    for (size_t i = 0; i < heard.blows.size(); ++i) {
        const bool early = i < static_cast<size_t>(heard.early);
        const double x = band.left() + heard.blows[i].at_s / heard.seconds * band.width();
        painter.setPen(QPen(early ? t.ruby : t.blued, 1.4));
        painter.drawLine(QPointF(x, band.top()), QPointF(x, band.bottom()));
        write(painter, type(Type::note), early ? t.ruby : t.steel, {x, band.bottom() + 13}, QString::number(i + 1), 0);
    }
    write(painter, type(Type::note), t.steel, {band.right(), band.bottom() + 13}, words("%1 s").arg(heard.seconds, 0, 'f', 1), 1);
}

}  // namespace echappe
