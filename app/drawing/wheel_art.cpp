#include "drawing/wheel_art.h"

#include <cmath>
#include <map>
#include <numbers>

#include "teeth/profile.h"

namespace echappe {
namespace {

/// What an outline hangs on, as one line.
using Key = std::string;

Key key_of(const char* what, const GeometryInput& mesh, long long points) {
    Key key = what;
    const auto add = [&](double x) { (key += ' ') += std::to_string(x); };
    key += mesh.form.school;
    add(static_cast<double>(mesh.wheel));
    add(static_cast<double>(mesh.pinion));
    add(mesh.module_mm);
    add(static_cast<double>(points));
    add(mesh.form.trundle_diameter_mm.value_or(0));
    add(mesh.form.pinion_profile_shift.value_or(9));
    const LeafShape leaf = mesh.form.leaf.value_or(LeafShape{});
    for (const double x : {leaf.addendum_m, leaf.thickness_m, leaf.tip_radius_m}) add(x);
    for (const auto* half : {&mesh.form.wheel_half, &mesh.form.pinion_half})
        for (const Point& p : *half)
            for (const double x : p) add(x);
    return key;
}

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

}  // namespace

const QPainterPath& WheelArt::part(const GeometryInput& mesh, bool wheel, long long points, const BlankResult* blank) {
    Key key = key_of(wheel ? "wheel " : "pinion ", mesh, points);
    if (blank)
        for (const double x : {static_cast<double>(blank->arms), blank->rim_mm, blank->hub_diameter_mm, blank->arm_at_rim_mm,
                               blank->arm_at_hub_mm, blank->bore_mm})
            (key += ' ') += std::to_string(x);
    return kept(key, [&] {
        const MeshForms forms = mesh_forms(mesh, false, points);
        const ToothForm& form = wheel ? forms.wheel : forms.pinion;
        QPainterPath path = closed(form_outline(form, mesh.module_mm, points));
        for (const auto& hole : form_holes(form, mesh.module_mm, std::max<long long>(4, points / 2))) path.addPath(closed(hole));
        if (!blank) return path;
        for (const auto& opening : blank->crossings) path.addPath(closed(opening));
        path.addEllipse({0, 0}, blank->bore_mm / 2, blank->bore_mm / 2);
        return path;
    });
}

const QPainterPath& WheelArt::wheel_sector(const GeometryInput& mesh, long long points, long long each_side) {
    return kept(key_of("sector ", mesh, points * 4096 + each_side), [&] {
        const std::vector<Point> whole = form_outline(mesh_forms(mesh, false, points).wheel, mesh.module_mm, points);
        const auto per_tooth = static_cast<long long>(whole.size()) / mesh.wheel;
        std::vector<Point> sector{{0, 0}};
        for (long long i = (mesh.wheel - each_side) * per_tooth; i < (mesh.wheel + each_side + 1) * per_tooth; ++i)
            sector.push_back(whole[static_cast<size_t>(i % static_cast<long long>(whole.size()))]);
        return closed(sector);
    });
}

const QPainterPath& WheelArt::trundles(const GeometryInput& mesh) {
    return kept(key_of("trundles ", mesh, 0), [&] {
        QPainterPath path;
        const ToothForm pinion = mesh_forms(mesh, false, 4).pinion;
        for (const auto& hole : form_holes(pinion, mesh.module_mm, 8)) path.addPath(closed(hole));
        return path;
    });
}

QPainterPath WheelArt::escape_wheel(const EscapeWheelResult& wheel) {
    QPainterPath path = closed(wheel.outline);
    for (const auto& opening : wheel.crossings) path.addPath(closed(opening));
    path.addEllipse({0, 0}, wheel.bore_mm / 2, wheel.bore_mm / 2);
    return path;
}

const QPainterPath& WheelArt::escape_wheel(long long teeth, double radius_mm) {
    return kept("escape " + std::to_string(teeth) + " " + std::to_string(radius_mm), [&] {
        EscapeWheelInput in;
        in.teeth = teeth, in.tip_diameter_mm = 2 * radius_mm;
        return escape_wheel(escape_wheel_part(in));
    });
}

}  // namespace echappe
