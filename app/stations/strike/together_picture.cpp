#include "stations/strike/together_picture.h"

#include <algorithm>
#include <cmath>

#include "drawing/lettering.h"
#include "drawing/words.h"
#include "number/constants.h"
#include "number/units.h"
#include "sheet/marks.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double hammer_at_deg = 152;   ///< where a pin lets the hammer's tail go
constexpr double catches_at_deg = -52;  ///< where the warning piece catches the pin

/// An arbor in the row.
struct Disc {
    std::string id;
    QString name;
    double wheel_mm = 0, pinion_mm = 0;  ///< pitch radii
    QPointF at;                          ///< mm
    bool clockwise = true;
};

class Together {
public:
    Together(QPainter& painter, const QRectF& room, const StrikeRecord& record, const DerivedStrikeTrain& strike, const DerivedTrain& train,
             Dimensions& sizes)
        : m_painter(painter), m_room(room), m_r(record), m_d(strike), m_train(train), m_sizes(sizes), m_t(inks(painter)) {
        row();
    }

    std::vector<TogetherSpot> paint() {
        for (const Disc& disc : m_discs) paint_disc(disc);
        for (const Disc& disc : m_discs) {
            if (disc.id == m_r.pin_arbor) paint_pins(disc);
            if (disc.id == m_r.locking) paint_locking(disc);
            if (disc.id == m_r.warning) paint_warning(disc);
            if (disc.id == m_r.fly) m_sizes.group(words("fly"), at(disc) + QPointF(10, 0), fly_sizes());
        }
        paint_moves();
        return std::move(m_spots);
    }

private:
    QPainter& m_painter;
    QRectF m_room;
    const StrikeRecord& m_r;
    const DerivedStrikeTrain& m_d;
    const DerivedTrain& m_train;
    Dimensions& m_sizes;
    const Theme& m_t;
    std::vector<Disc> m_discs;
    std::vector<TogetherSpot> m_spots;
    double m_px = 1;
    QPointF m_from;

    /// From the pin wheel on, each where it meshes with the one before.
    void row() {
        const auto begin = std::find(m_d.arbors.begin(), m_d.arbors.end(), *m_r.pin_arbor);
        bool up = true, clockwise = true;
        for (auto id = begin; id != m_d.arbors.end(); ++id) {
            const DerivedArbor* arbor = m_train.arbor(*id);
            if (!arbor) continue;
            Disc disc{*id, words(arbor->name), arbor->wheel_radius_mm, 0, {0, 0}, clockwise};
            if (!m_discs.empty()) {
                const DerivedMesh* mesh = m_train.mesh(m_discs.back().id, *id);
                if (!mesh) break;
                disc.pinion_mm = mesh->sizes.pinion.pitch_diameter_mm / 2;
                const double apart = m_discs.back().wheel_mm + disc.pinion_mm, lean = (up ? 24 : -24) * rad_per_deg;
                disc.at = m_discs.back().at + apart * QPointF(std::cos(lean), -std::sin(lean));
                if (arbor->wheel_radius_mm <= 0 || !arbor->wheel.count.present()) disc.wheel_mm = 0;
                up = !up;
            }
            clockwise = !clockwise;
            m_discs.push_back(disc);
        }
        QRectF all;
        for (const Disc& disc : m_discs) {
            const double r = std::max({disc.wheel_mm, 2.5 * disc.pinion_mm, 1.0});
            all = all.united(QRectF(disc.at - QPointF(r, r), QSizeF(2 * r, 2 * r)));
        }
        m_px = std::min(m_room.width() * 0.84 / std::max(1.0, all.width()), m_room.height() * 0.68 / std::max(1.0, all.height()));
        m_from = m_room.center() - all.center() * m_px;
    }
    QPointF on(const Disc& disc, double deg, double mm, double more_px = 0) const {
        return at(disc) + (mm * m_px + more_px) * QPointF(std::cos(deg * rad_per_deg), -std::sin(deg * rad_per_deg));
    }
    QPointF at(const Disc& disc) const { return m_from + disc.at * m_px; }

    void paint_disc(const Disc& disc) {
        m_painter.setPen(QPen(m_t.brass, 1));
        m_painter.setBrush(Qt::NoBrush);
        if (disc.wheel_mm > 0) {
            QColor pale = m_t.pale_brass;
            pale.setAlphaF(0.55F);
            m_painter.setBrush(pale);
            m_painter.drawEllipse(at(disc), disc.wheel_mm * m_px, disc.wheel_mm * m_px);
        } else {
            // A fly: two vanes.
            m_painter.setPen(QPen(m_t.steel, 1));
            m_painter.setBrush(m_t.steel);
            const double r = std::max(16.0, 2.4 * disc.pinion_mm * m_px);
            m_painter.drawRect(QRectF(at(disc) - QPointF(r, 4), QSizeF(2 * r, 8)));
        }
        if (disc.pinion_mm > 0) {
            m_painter.setPen(QPen(m_t.ink, 1));
            m_painter.setBrush(m_t.steel);
            m_painter.drawEllipse(at(disc), disc.pinion_mm * m_px, disc.pinion_mm * m_px);
        }
        m_painter.setPen(QPen(m_t.ink, 1.2));
        m_painter.setBrush(m_t.sheet);
        m_painter.drawEllipse(at(disc), 3.5, 3.5);
        const double low = std::max(disc.wheel_mm * m_px, 22.0) + 17;
        write(m_painter, type(Type::note), m_t.steel, at(disc) + QPointF(0, low), disc.name, 0);
    }
    /// An arc outside a disc, from one angle to another.
    void arc(const Disc& disc, double from, double to, double mm, double more_px, const QColor& ink, double wide) {
        const double r = mm * m_px + more_px;
        m_painter.setPen(QPen(ink, wide, Qt::SolidLine, Qt::FlatCap));
        m_painter.setBrush(Qt::NoBrush);
        m_painter.drawArc(QRectF(at(disc) - QPointF(r, r), QSizeF(2 * r, 2 * r)), static_cast<int>(std::lround(16 * from)),
                          static_cast<int>(std::lround(16 * (to - from))));
    }
    static QStringList fly_sizes() {
        QStringList ids;
        for (const char* field : fly_fields) ids << QStringLiteral("fly.") + field;
        return ids;
    }
    /// A piece of steel along these points.
    void lever(const QPolygonF& along) {
        for (const auto& [ink, wide] : {std::pair{m_t.ink, 8.0}, {m_t.steel, 6.0}}) {
            m_painter.setPen(QPen(ink, wide, Qt::SolidLine, Qt::RoundCap, Qt::MiterJoin));
            m_painter.drawPolyline(along);
        }
    }
    void spot(const QPointF& middle, const char* about) { m_spots.push_back({QRectF(middle - QPointF(60, 14), QSizeF(120, 28)), about}); }

    void paint_pins(const Disc& disc) {
        const StrikeTogetherResult& d = *m_d.together;
        const bool seen = m_r.hammer_falls_in_deg.has_value();
        const double falls = m_r.hammer_falls_in_deg.value_or(d.hammer_usual_deg), on_mm = 0.8 * disc.wheel_mm;
        const QColor ink = !seen ? m_t.steel : d.hammer_right ? m_t.verdigris : m_t.ruby;
        // It goes clockwise: a pin that is to fall comes from further round.
        for (long long k = 0; k < *m_r.pins; ++k) {
            const QPointF pin = on(disc, hammer_at_deg + falls + static_cast<double>(k) * d.pitch_deg, on_mm);
            m_painter.setPen(QPen(m_t.ink, 1));
            m_painter.setBrush(k == 0 ? ink : m_t.steel);
            m_painter.drawEllipse(pin, 4.5, 4.5);
        }
        arc(disc, hammer_at_deg + d.hammer_from_deg, hammer_at_deg + d.hammer_to_deg, on_mm, 10, m_t.verdigris, 4);
        // The tail with its end where pins let it go, the hammer's head beyond.
        const QPointF tail = on(disc, hammer_at_deg, on_mm, 1), pivot = on(disc, hammer_at_deg + 14, disc.wheel_mm, 58);
        const QPointF head = pivot + QPointF(8, -44);
        lever(QPolygonF({tail, pivot, head}));
        m_painter.setPen(QPen(m_t.ink, 1));
        m_painter.setBrush(m_t.ink);
        m_painter.drawRoundedRect(QRectF(head - QPointF(9, 13), QSizeF(18, 15)), 3, 3);
        m_painter.setPen(QPen(m_t.ink, 1.2));
        m_painter.setBrush(m_t.sheet);
        m_painter.drawEllipse(pivot, 4, 4);
        const QPointF words_at = on(disc, 90, disc.wheel_mm, 26);
        m_sizes.in("hammer_falls_in_deg", words_at);
        write(m_painter, type(Type::note), ink, words_at + QPointF(0, 16), seen ? words("to its next fall") : words("just fallen"), 0);
        m_sizes.in("pins", at(disc) + QPointF(0, 30), Dimensions::Name::written);
        write(m_painter, type(Type::note), m_t.verdigris, words_at - QPointF(0, 20),
              words("right: %1° to %2°").arg(words(print_fixed(d.hammer_from_deg, 0)), words(print_fixed(d.hammer_to_deg, 0))), 0);
        spot(words_at + QPointF(0, 12), "hammer");
    }
    void paint_locking(const Disc& disc) {
        const double hoop = 0.62 * std::max(disc.wheel_mm, 3.0);
        // The detent in a hoop's gap, in a pin's way, or down on a cam.
        m_painter.setPen(QPen(m_t.ink, 1));
        if (m_r.locked_by == "pin") {
            m_painter.setBrush(m_t.steel);
            m_painter.drawEllipse(on(disc, 82, hoop), 4.5, 4.5);
        } else if (m_r.locked_by == "cam") {
            QPolygonF cam;
            for (int deg = 92; deg <= 452; deg += 4) cam << on(disc, deg, hoop * (deg < 110 || deg > 440 ? 0.72 : 1));
            m_painter.setPen(QPen(m_t.brass, 2));
            m_painter.setBrush(m_t.pale_brass);
            m_painter.drawPolygon(cam);
        } else {
            arc(disc, 104, 436, hoop, 0, m_t.brass, 5);
        }
        const QPointF nose = on(disc, 90, m_r.locked_by == "cam" ? 0.72 * hoop : hoop, m_r.locked_by == "cam" ? 2 : -4),
                      elbow = on(disc, 90, disc.wheel_mm, 24), arbor = elbow + QPointF(70, 6);
        lever(QPolygonF({nose, elbow, arbor}));
        m_painter.setPen(QPen(m_t.ink, 1.2));
        m_painter.setBrush(m_t.sheet);
        m_painter.drawEllipse(arbor, 4, 4);
        m_sizes.in("locked_by", elbow + QPointF(44, -14), Dimensions::Name::written);
    }
    void paint_warning(const Disc& disc) {
        const StrikeTogetherResult& d = *m_d.together;
        if (!d.warning_wanted_deg) return;
        const bool seen = m_r.warning_run_deg.has_value();
        const double run = seen ? *m_r.warning_run_deg : *d.warning_wanted_deg, on_mm = 0.82 * std::max(disc.wheel_mm, 3.0);
        const QColor ink = !seen ? m_t.steel : d.warning_right ? m_t.verdigris : m_t.ruby;
        // The pin has so far to go to its piece.
        const double way = disc.clockwise ? 1 : -1, pin = catches_at_deg + way * run;
        const double from = catches_at_deg + way * *d.warning_from_deg, to = catches_at_deg + way * *d.warning_to_deg;
        arc(disc, std::min(from, to), std::max(from, to), on_mm, 9, m_t.verdigris, 4);
        m_painter.setPen(QPen(m_t.ink, 1));
        m_painter.setBrush(ink);
        m_painter.drawEllipse(on(disc, pin, on_mm), 4.5, 4.5);
        lever(QPolygonF({on(disc, catches_at_deg, on_mm, -5), on(disc, catches_at_deg, on_mm, 48)}));
        const QPointF words_at = on(disc, 90, disc.wheel_mm, 26);
        m_sizes.in("warning_run_deg", words_at);
        write(m_painter, type(Type::note), ink, words_at + QPointF(0, 16),
              seen ? words("to run at the warning") : words("half a turn to run"), 0);
        spot(words_at + QPointF(0, 12), "warning");
    }
    /// Where a mesh is to be taken apart.
    void paint_moves() {
        for (const StrikeMove& move : m_d.together->moves)
            for (size_t i = 1; i < m_discs.size(); ++i) {
                if (m_discs[i].id != move.pinion_of) continue;
                const QPointF between = at(m_discs[i - 1]) + (at(m_discs[i]) - at(m_discs[i - 1])) * m_discs[i - 1].wheel_mm /
                                                                 (m_discs[i - 1].wheel_mm + m_discs[i].pinion_mm);
                m_painter.setPen(QPen(m_t.ruby, 2));
                m_painter.setBrush(Qt::NoBrush);
                m_painter.drawEllipse(between, 15, 15);
                const long long many = std::abs(move.leaves);
                on_paper(m_painter, type(Type::text, true), m_t.ruby, between + QPointF(0, 36),
                         (move.leaves > 0 ? words("on by %1") : words("back by %1"))
                             .arg(many == 1 ? words("a leaf") : words("%1 leaves").arg(many)));
            }
    }
};

}  // namespace

std::vector<TogetherSpot> paint_together(QPainter& painter, const QRectF& room, const StrikeRecord& record,
                                         const DerivedStrikeTrain& strike, const DerivedTrain& train, Dimensions& sizes) {
    return Together(painter, room, record, strike, train, sizes).paint();
}

}  // namespace echappe
