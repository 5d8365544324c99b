#include "shell/stations_bar.h"

#include "drawing/words.h"
#include "shell/station.h"
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
    if (!job.number.empty()) under << words("%1 job %2").arg(QString::fromStdString(job.workshop), QString::fromStdString(job.number));
    under << (!document.read_only().isEmpty() ? words("read only")
              : document.dirty()              ? words("not saved yet")
              : document.path().isEmpty()     ? words("not a file yet")
                                              : words("saved"));
    return {document.display_name() + (document.dirty() ? "  •" : ""), under.join(" · ")};
}

}  // namespace

StationsBar::StationsBar(Document& document, QWidget* parent) : Canvas(parent), m_document(document) {
    fix_size();
    setAccessibleName(words("Stations"));
    setFocusPolicy(Qt::TabFocus);
    connect(&document, &Document::changed, this, [this, shown = Heading()]() mutable {
        if (Heading now = heading_of(m_document); !(now == shown)) {
            shown = std::move(now);
            update();
        }
    });
}

void StationsBar::show_station(const QString& id) {
    m_shown = id;
    update();
}

void StationsBar::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.band);
    const Heading heading = heading_of(m_document);
    QColor quiet = t.on_band;
    quiet.setAlphaF(0.72f);
    // Six stations stand beside a long name; for nine on a narrow screen both give way.
    const auto& rows = station_rows();
    constexpr double usual_start = 336, least_start = 190, usual_step = 96, finder_wide = 112;
    const auto count = static_cast<double>(rows.size());
    const double start = std::clamp(width() - finder_wide - count * usual_step, least_start, usual_start);
    const double step = std::min(usual_step, (width() - finder_wide - start) / count);
    const auto fitted = [&](const QFont& font, const QString& text) { return elided(font, text, start - 26); };
    write(painter, type(Type::text, true), t.on_band, {18, 23}, fitted(type(Type::text, true), heading.name));
    write(painter, type(Type::note), quiet, {18, 41}, fitted(type(Type::note), heading.under));
    place({"title", QRectF(8, 4, start - 20, 46), [this] { emit title_wanted(); }, words("Title, owner, maker: Ctrl+I"), {}});
    for (size_t i = 0; i < rows.size(); ++i) {
        const StationRow& row = rows[i];
        const bool on = row.id == m_shown;
        const QRectF tab(start + static_cast<double>(i) * step, 8, step - 4, 44);
        if (on) {
            painter.fillRect(tab, t.ground);
            painter.fillRect(QRectF(tab.left(), tab.top(), tab.width(), 3), t.brass);
        }
        write(painter, type(Type::text, on), on ? t.ink : t.on_band, {tab.center().x(), 31}, row.title, 0);
        write(painter, type(Type::note), on ? t.steel : quiet, {tab.center().x(), 45}, words("Ctrl+%1").arg(i + 1), 0);
        place({"station:" + row.title, tab, [this, id = row.id] { emit chosen(id); }, {}, {}, {}, row.title, on});
    }
    const double w = write(painter, type(Type::note), quiet, {width() - 20.0, 30}, words("Find  Ctrl+K"), 1);
    place({"finder", QRectF(width() - 30.0 - w, 10, w + 20, 34), [this] { emit finder_wanted(); }, {}, {}});
}

}  // namespace echappe
