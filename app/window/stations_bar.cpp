#include "window/stations_bar.h"

#include "theme/theme.h"

namespace echappe {
namespace {

/// The job's name, and under it where it belongs and whether it is kept.
struct Heading {
    QString name;
    QString under;
    bool operator==(const Heading&) const = default;
};

Heading heading_of(const Document& document) {
    const Job& job = document.job();
    QStringList under;
    if (!job.place.empty()) under << QString::fromStdString(job.place);
    if (!job.number.empty())
        under << StationsBar::tr("%1 job %2").arg(QString::fromStdString(job.workshop), QString::fromStdString(job.number));
    under << (!document.read_only().isEmpty() ? StationsBar::tr("read only")
              : document.dirty()              ? StationsBar::tr("not saved yet")
              : document.path().isEmpty()     ? StationsBar::tr("not a file yet")
                                              : StationsBar::tr("saved"));
    return {document.display_name() + (document.dirty() ? "  •" : ""), under.join(" · ")};
}

}  // namespace

StationsBar::StationsBar(Document& document, QStringList stations, QWidget* parent)
    : Canvas(parent), m_document(document), m_stations(std::move(stations)) {
    setFixedHeight(52);
    setAccessibleName(tr("Stations"));
    connect(&document, &Document::changed, this, [this, shown = Heading()]() mutable {
        if (Heading now = heading_of(m_document); !(now == shown)) {
            shown = std::move(now);
            update();
        }
    });
}

void StationsBar::show_station(int index) {
    m_shown = index;
    update();
}

void StationsBar::paint(QPainter& painter) {
    const Theme& t = theme();
    painter.fillRect(rect(), t.band);
    const Heading heading = heading_of(m_document);
    write(painter, word_font(11.5, true), t.on_band, {18, 23}, heading.name);
    QColor quiet = t.on_band;
    quiet.setAlphaF(0.72f);
    write(painter, word_font(8.5), quiet, {18, 41}, heading.under);
    double x = 336;
    for (int i = 0; i < m_stations.size(); ++i) {
        const QRectF tab(x, 8, 92, 44);
        if (i == m_shown) {
            painter.fillRect(tab, t.ground);
            painter.fillRect(QRectF(tab.left(), tab.top(), tab.width(), 3), t.brass);
        }
        write(painter, word_font(11, i == m_shown), i == m_shown ? t.ink : t.on_band, {tab.center().x(), 31}, m_stations[i], 0);
        write(painter, word_font(7.5), i == m_shown ? t.steel : quiet, {tab.center().x(), 45}, tr("Ctrl+%1").arg(i + 1), 0);
        place({"station:" + m_stations[i], tab, [this, i] { emit chosen(i); }, {}, {}});
        x += 96;
    }
    const double w = write(painter, word_font(9), quiet, {width() - 20.0, 30}, tr("Find  Ctrl+K"), 1);
    place({"finder", QRectF(width() - 30.0 - w, 10, w + 20, 34), [this] { emit finder_wanted(); }, {}, {}});
}

}  // namespace echappe
