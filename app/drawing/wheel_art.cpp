#include "drawing/wheel_art.h"

#include <cmath>
#include <map>
#include <numbers>

#include "teeth/profile.h"

namespace echappe {
namespace {

constexpr long long driven_wheel_leaves = 30;  ///< a driven part of so many is a wheel to the eye

using Key = std::tuple<int, long long, long long, double, long long, bool>;

/// Enough for every wheel of a movement and its ghosts at two finenesses.
constexpr size_t kept_at_most = 200;

template <class Make>
const QPainterPath& kept(const Key& key, Make make) {
    static std::map<Key, QPainterPath> paths;
    if (paths.size() > kept_at_most) paths.clear();
    const auto [at, fresh] = paths.try_emplace(key);
    if (fresh) at->second = make();
    return at->second;
}

QPainterPath closed(const std::vector<Point>& outline) {
    QPolygonF polygon;
    polygon.reserve(static_cast<int>(outline.size()));
    for (const Point& p : outline) polygon << QPointF(p[0], p[1]);
    QPainterPath path;
    path.setFillRule(Qt::OddEvenFill);
    path.addPolygon(polygon);
    path.closeSubpath();
    return path;
}

/// Openings between straight arms: a quiet convention of the drawing, not a part's measure.
void cross_out(QPainterPath& path, double rim, double hub, double arm, int arms) {
    if (rim - hub < arm) return;
    const double step = 2 * std::numbers::pi / arms;
    for (int i = 0; i < arms; ++i) {
        const double from = step * i;
        const double outer = std::asin(arm / 2 / rim);
        const double inner = std::asin(std::min(1.0, arm / 2 / hub));
        const auto on = [&](double radius, double angle) { return QPointF(radius * std::cos(angle), radius * std::sin(angle)); };
        QPainterPath opening;
        opening.moveTo(on(hub, from + inner));
        constexpr int pieces = 16;
        for (int k = 0; k <= pieces; ++k) opening.lineTo(on(rim, from + outer + (step - 2 * outer) * k / pieces));
        for (int k = 0; k <= pieces; ++k) opening.lineTo(on(hub, from + step - inner - (step - 2 * inner) * k / pieces));
        opening.closeSubpath();
        path.addPath(opening);
    }
}

}  // namespace

bool WheelArt::is_driven_wheel(long long leaves) { return leaves >= driven_wheel_leaves; }

const QPainterPath& WheelArt::wheel(long long teeth, long long mate, double module_mm, long long points, bool crossings) {
    return kept({0, teeth, mate, module_mm, points, crossings}, [&] {
        QPainterPath path = closed(wheel_outline(teeth, mate, module_mm, false, points));
        const double radius = module_mm * static_cast<double>(teeth) / 2;
        if (crossings)
            cross_out(path, radius - 4.4 * module_mm, std::max(radius * 0.22, 3 * module_mm), radius * 0.11, radius > 25 ? 6 : 5);
        return path;
    });
}

const QPainterPath& WheelArt::wheel_sector(long long teeth, long long mate, double module_mm, long long points, long long each_side) {
    return kept({3, teeth, mate, module_mm, points * 4096 + each_side, false}, [&] {
        const std::vector<Point> whole = wheel_outline(teeth, mate, module_mm, false, points);
        const auto per_tooth = static_cast<long long>(whole.size()) / teeth;
        std::vector<Point> sector{{0, 0}};
        for (long long i = (teeth - each_side) * per_tooth; i < (teeth + each_side + 1) * per_tooth; ++i)
            sector.push_back(whole[static_cast<size_t>(i % static_cast<long long>(whole.size()))]);
        return closed(sector);
    });
}

const QPainterPath& WheelArt::pinion(long long mate, long long leaves, double module_mm, long long points) {
    return kept({1, mate, leaves, module_mm, points, false}, [&] {
        QPainterPath path = closed(pinion_outline(mate, leaves, module_mm, points));
        const double radius = module_mm * static_cast<double>(leaves) / 2;
        // A large driven wheel is crossed out like any wheel.
        if (leaves >= driven_wheel_leaves)
            cross_out(path, radius - 4.6 * module_mm, std::max(radius * 0.22, 3 * module_mm), radius * 0.11, 5);
        return path;
    });
}

const QPainterPath& WheelArt::escape_wheel(long long teeth, double radius_mm) {
    return kept({2, teeth, 0, radius_mm, 0, false}, [&] {
        std::vector<Point> outline;
        const double pitch = 2 * std::numbers::pi / static_cast<double>(teeth);
        for (long long i = 0; i < teeth; ++i) {
            const double at = pitch * static_cast<double>(i);
            for (const auto& [radius, angle] : {std::pair{0.80, -0.62}, {1.0, -0.06}, {1.0, 0.0}, {0.80, -0.10}})
                outline.push_back({radius * radius_mm * std::cos(at + angle * pitch), radius * radius_mm * std::sin(at + angle * pitch)});
        }
        QPainterPath path = closed(outline);
        cross_out(path, radius_mm * 0.68, radius_mm * 0.24, radius_mm * 0.11, 5);
        return path;
    });
}

}  // namespace echappe
