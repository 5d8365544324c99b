#include "parts/template_sheet.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <polyclipping/clipper.hpp>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

namespace clip = ClipperLib;
constexpr const char* template_sheet_source =
    "polygon clipping and offsets after B. R. Vatti (1992), by the Clipper library; bottom-left order";
constexpr double to_units = 1e5;  ///< the library counts in whole numbers: 10 nm

Point turned(Point at, bool turn) { return turn ? Point{-at[1], at[0]} : at; }

/// An outline that begins at 0, 0, as it lies.
struct Lying {
    std::vector<Point> outline;
    double width = 0, height = 0;
    Point corner{0, 0};  ///< its own lower left before it was moved to 0, 0
};

Lying lie(const FlatPart& part, bool turn) {
    Lying out;
    Point low{1e18, 1e18}, high{-1e18, -1e18};
    for (const Point& at : part.outline) {
        out.outline.push_back(turned(at, turn));
        for (size_t k = 0; k < 2; ++k) low[k] = std::min(low[k], out.outline.back()[k]), high[k] = std::max(high[k], out.outline.back()[k]);
    }
    for (Point& at : out.outline) at = {at[0] - low[0], at[1] - low[1]};
    out.width = high[0] - low[0], out.height = high[1] - low[1], out.corner = low;
    return out;
}

/// Corners that stand less than this off the line between their neighbours are left out: an outline may have thousands.
constexpr double left_out_mm = 0.02;

/// The outline with as few corners as keep within `left_out_mm` of it.
std::vector<Point> simpler(const std::vector<Point>& outline) {
    std::vector<Point> out;
    size_t from = 0;
    const auto off = [&](size_t a, size_t b) {
        const double dx = outline[b][0] - outline[a][0], dy = outline[b][1] - outline[a][1], l = std::hypot(dx, dy);
        double most = 0;
        for (size_t k = a + 1; k < b; ++k) {
            const double x = outline[k][0] - outline[a][0], y = outline[k][1] - outline[a][1];
            most = std::max(most, l > 0 ? std::abs(dx * y - dy * x) / l : std::hypot(x, y));
        }
        return most;
    };
    while (from < outline.size()) {
        out.push_back(outline[from]);
        size_t to = from + 1;
        constexpr size_t longest = 60;
        while (to + 1 < outline.size() && to - from < longest && off(from, to + 1) <= left_out_mm) ++to;
        from = to;
    }
    return out;
}

clip::Path grown(const Lying& part, double by) {
    clip::Path path;
    for (const Point& at : simpler(part.outline)) path.push_back({std::llround(at[0] * to_units), std::llround(at[1] * to_units)});
    clip::ClipperOffset offset(2, left_out_mm * to_units);
    offset.AddPath(path, clip::jtRound, clip::etClosedPolygon);
    clip::Paths out;
    // What was left out of the corners, and of the round ones.
    offset.Execute(out, (by + 2 * left_out_mm) * to_units);
    return out.empty() ? path : out.front();
}

clip::Path moved(clip::Path path, double x, double y) {
    const clip::cInt dx = std::llround(x * to_units), dy = std::llround(y * to_units);
    for (clip::IntPoint& at : path) at.X += dx, at.Y += dy;
    return path;
}

struct Box {
    double left, bottom, right, top;
    bool meets(const Box& o) const { return left < o.right && o.left < right && bottom < o.top && o.bottom < top; }
};

bool overlap(const clip::Path& a, const clip::Path& b) {
    clip::Clipper clipper;
    clipper.AddPath(a, clip::ptSubject, true);
    clipper.AddPath(b, clip::ptClip, true);
    clip::Paths both;
    clipper.Execute(clip::ctIntersection, both, clip::pftNonZero, clip::pftNonZero);
    return !both.empty();
}

/// A sheet that is being laid.
class LyingSheet {
public:
    explicit LyingSheet(const TemplateInput& in) : m_in(in) {}

    /// The lowest place where it lies clear of the others, then the one furthest left.
    std::optional<Point> place_for(const Lying& part, const clip::Path& path) const {
        const double right = m_in.sheet_width_mm - m_in.margin_mm - part.width, top = m_in.sheet_height_mm - m_in.margin_mm - part.height;
        constexpr double fine = 2;
        for (double y = m_in.margin_mm; y <= top + 1e-9; y += fine)
            for (double x = m_in.margin_mm; x <= right + 1e-9;) {
                const auto in_the_way = first_in_the_way(part, path, x, y);
                if (!in_the_way) return Point{x, y};
                // Two that fill their boxes are clear of each other behind the box, and nowhere before.
                const bool certain = fills_box(part) && m_fills[*in_the_way];
                x = certain ? std::max(x + fine, m_boxes[*in_the_way].right + m_in.gap_mm / 2) : x + fine;
            }
        return {};
    }
    void lay(const Lying& part, const clip::Path& path, Point at) {
        m_boxes.push_back(box(part, at[0], at[1]));
        m_paths.push_back(moved(path, at[0], at[1]));
        m_fills.push_back(fills_box(part));
    }

private:
    Box box(const Lying& part, double x, double y) const {
        const double half = m_in.gap_mm / 2;
        return {x - half, y - half, x + part.width + half, y + part.height + half};
    }
    static bool fills_box(const Lying& part) {
        constexpr double nearly = 0.985;
        return std::abs(area_mm2(part.outline)) > nearly * part.width * part.height;
    }
    std::optional<size_t> first_in_the_way(const Lying& part, const clip::Path& path, double x, double y) const {
        const Box here = box(part, x, y);
        for (size_t i = 0; i < m_boxes.size(); ++i)
            if (here.meets(m_boxes[i]) && overlap(moved(path, x, y), m_paths[i])) return i;
        return {};
    }
    const TemplateInput& m_in;
    std::vector<Box> m_boxes;
    std::vector<clip::Path> m_paths;
    std::vector<bool> m_fills;
};

std::vector<FlatPart> drawn(const TemplateInput& in) {
    std::vector<FlatPart> parts;
    for (size_t i = 0; i < in.parts.size(); ++i) try {
            FlatShapeInput shape;
            shape.shape = in.parts[i];
            parts.push_back(solid_of(shape, flat_shape(shape)));
        } catch (const InputError& error) {
            throw InputError("parts[" + std::to_string(i) + "]." + error.field(), error.got(), error.accepts());
        }
    return parts;
}

void lines(DrawingLayer& layer, Point from, Point along, Point across) {
    // Ticks every ten millimetres; the ends are longer.
    layer.outlines.push_back({from, {from[0] + 100 * along[0], from[1] + 100 * along[1]}});
    for (int i = 0; i <= 10; ++i) {
        const double tick = i % 5 == 0 ? 4 : 2;
        const Point at{from[0] + 10 * i * along[0], from[1] + 10 * i * along[1]};
        layer.outlines.push_back({at, {at[0] + tick * across[0], at[1] + tick * across[1]}});
    }
}

}  // namespace

namespace {

/// Sheets that a large part is cut over, each overlapping the one before by a centimetre.
constexpr double overlap_mm = 10;
struct Tiles {
    double step_x = 0, step_y = 0;
    long long across = 1, up = 1;
};
Tiles tiles_for(const Lying& part, const TemplateInput& in) {
    Tiles out{in.sheet_width_mm - 2 * in.margin_mm - overlap_mm, in.sheet_height_mm - 2 * in.margin_mm - overlap_mm, 1, 1};
    const auto count = [](double size, double step) { return std::max(1LL, std::llround(std::ceil((size - overlap_mm) / step - 1e-9))); };
    out.across = count(part.width, out.step_x), out.up = count(part.height, out.step_y);
    return out;
}

/// The fewer sheets of both ways.
bool tiled_turned(const FlatPart& part, const TemplateInput& in) {
    const Tiles as_it_is = tiles_for(lie(part, false), in), turned = tiles_for(lie(part, true), in);
    return turned.across * turned.up < as_it_is.across * as_it_is.up;
}

}  // namespace

std::vector<TemplatePlace> lay_out(const std::vector<FlatPart>& parts, const TemplateInput& in) {
    std::vector<size_t> order(parts.size());
    std::iota(order.begin(), order.end(), 0);
    std::stable_sort(order.begin(), order.end(),
                     [&](size_t a, size_t b) { return area_mm2(parts[a].outline) > area_mm2(parts[b].outline); });
    std::vector<LyingSheet> sheets;
    std::vector<TemplatePlace> places;
    std::vector<size_t> too_large;
    const auto lay = [&](size_t part, size_t sheet, bool turn) {
        const Lying lying = lie(parts[part], turn);
        const clip::Path path = grown(lying, in.gap_mm / 2);
        const auto at = sheets[sheet].place_for(lying, path);
        if (!at) return false;
        sheets[sheet].lay(lying, path, *at);
        places.push_back({static_cast<long long>(part) + 1, static_cast<long long>(sheet) + 1, (*at)[0], (*at)[1], turn, false});
        return true;
    };
    for (const size_t part : order) {
        const bool ever = LyingSheet(in).place_for(lie(parts[part], false), {}) || LyingSheet(in).place_for(lie(parts[part], true), {});
        if (!ever) {
            too_large.push_back(part);
            continue;
        }
        bool laid = false;
        for (size_t sheet = 0; !laid && sheet <= sheets.size(); ++sheet) {
            if (sheet == sheets.size()) sheets.emplace_back(in);
            laid = lay(part, sheet, false) || lay(part, sheet, true);
        }
    }
    // What no sheet holds does not keep the others waiting: it goes over sheets of its own.
    auto next = static_cast<long long>(sheets.size()) + 1;
    for (const size_t part : too_large) {
        const bool turn = tiled_turned(parts[part], in);
        const Tiles tiles = tiles_for(lie(parts[part], turn), in);
        for (long long row = 0; row < tiles.up; ++row)
            for (long long column = 0; column < tiles.across; ++column)
                places.push_back({static_cast<long long>(part) + 1, next++, in.margin_mm - static_cast<double>(column) * tiles.step_x,
                                  in.margin_mm - static_cast<double>(row) * tiles.step_y, turn, true});
    }
    std::stable_sort(places.begin(), places.end(), [](const TemplatePlace& a, const TemplatePlace& b) { return a.part < b.part; });
    return places;
}

Drawing template_drawing(const std::vector<FlatPart>& parts, const std::vector<TemplatePlace>& places, const TemplateInput& in,
                         long long which) {
    Drawing drawing{"templates, sheet " + std::to_string(which),
                    {{"outlines", {}, {}, {}, DrawingLayer::Of::cut},
                     {"holes", {}, {}, {}, DrawingLayer::Of::cut},
                     {"scale", {}, {}, {}, DrawingLayer::Of::construction}}};
    for (const TemplatePlace& place : places) {
        if (place.sheet != which) continue;
        const FlatPart& part = parts[static_cast<size_t>(place.part - 1)];
        const Point corner = lie(part, place.turned).corner;
        const auto on_sheet = [&](Point at) {
            const Point turn = turned(at, place.turned);
            return Point{turn[0] - corner[0] + place.x_mm, turn[1] - corner[1] + place.y_mm};
        };
        const auto outline = [&](const std::vector<Point>& points) {
            drawing.layers[0].outlines.emplace_back();
            for (const Point& at : points) drawing.layers[0].outlines.back().push_back(on_sheet(at));
        };
        outline(part.outline);
        for (const auto& opening : part.openings) outline(opening);
        for (const auto& hole : part.holes) {
            drawing.layers[1].circles.push_back({on_sheet(hole.centre), hole.radius_mm});
            drawing.layers[1].marks.push_back(on_sheet(hole.centre));
        }
    }
    // Where sheets of one part meet: the same crosses on each.
    for (const TemplatePlace& place : places)
        if (place.sheet == which && place.tiled)
            for (const double x : {in.margin_mm + overlap_mm / 2, in.sheet_width_mm - in.margin_mm - overlap_mm / 2})
                for (const double y : {in.margin_mm + overlap_mm / 2, in.sheet_height_mm - in.margin_mm - overlap_mm / 2})
                    drawing.layers[2].marks.push_back({x, y});
    const double out = in.margin_mm / 2;
    lines(drawing.layers[2], {in.margin_mm, out}, {1, 0}, {0, 1});
    lines(drawing.layers[2], {out, in.margin_mm}, {0, 1}, {1, 0});
    return drawing;
}

TemplateResult template_sheet(const TemplateInput& in) {
    if (in.parts.empty()) throw InputError("parts", "none", "at least one flat part");
    if (2 * in.margin_mm + 100 > std::min(in.sheet_width_mm, in.sheet_height_mm))
        throw InputError("sheet_width_mm", print_short(std::min(in.sheet_width_mm, in.sheet_height_mm)),
                         "room for 100 mm between the margins");
    const std::vector<FlatPart> parts = drawn(in);
    TemplateResult out;
    out.places = lay_out(parts, in);
    double area = 0;
    std::vector<bool> counted(parts.size());
    for (const TemplatePlace& place : out.places) {
        out.sheets = std::max(out.sheets, place.sheet);
        if (counted[static_cast<size_t>(place.part - 1)]) continue;
        counted[static_cast<size_t>(place.part - 1)] = true;
        area += area_mm2(parts[static_cast<size_t>(place.part - 1)].outline);
    }
    out.used_percent = 100 * area / (static_cast<double>(out.sheets) * in.sheet_width_mm * in.sheet_height_mm);
    if (in.format == "svg")
        for (long long sheet = 1; sheet <= out.sheets; ++sheet) out.svg.push_back(to_svg(template_drawing(parts, out.places, in, sheet)));
    return out;
}

std::vector<Working> explain_template(const TemplateInput& in, const TemplateResult& out) {
    std::vector<Working> list = {work_out("sheets used", "u = area of the parts ÷ (sheets × area of one)",
                                          {given("u", "of their area", out.used_percent, "%")}, "%", template_sheet_source,
                                          [](auto x) { return x[0]; })};
    list.back().notes.push_back("Print without fitting it to the page, and measure the check scales: 100 mm both ways.");
    list.back().notes.push_back("Glue it on: drill, ream, saw outside the line, file to it. " + std::to_string(in.parts.size()) +
                                " parts.");
    return list;
}

const Record& TemplateInput::record() {
    using In = TemplateInput;
    static const Record record = Fields<In>()
                                     .add("parts", &In::parts, "", "as in part.flat")
                                     .required()
                                     .add("sheet_width_mm", &In::sheet_width_mm, "mm", "of the paper", between(60, 2000))
                                     .because("A4")
                                     .add("sheet_height_mm", &In::sheet_height_mm, "mm", "of the paper", between(60, 2000))
                                     .because("A4")
                                     .add("margin_mm", &In::margin_mm, "mm", "that the printer leaves white", between(8, 60))
                                     .because("the check scales stand in it")
                                     .add("gap_mm", &In::gap_mm, "mm", "between parts", between(0, 50))
                                     .because("a saw goes between them")
                                     .add("format", &In::format, "", "figures only, or the sheets as well")
                                     .choices({"points", "svg"})
                                     .because("figures first; a drawing when it is asked for");
    return record;
}

const Record& TemplatePlace::record() {
    using Out = TemplatePlace;
    static const Record record = Fields<Out>()
                                     .add("part", &Out::part, "", "of the list, counted from 1")
                                     .add("sheet", &Out::sheet, "", "that it lies on")
                                     .add("x_mm", &Out::x_mm, "mm", "of its lower left corner, from the sheet's")
                                     .add("y_mm", &Out::y_mm, "mm", "the same, upwards")
                                     .add("turned", &Out::turned, "", "by a quarter, anticlockwise")
                                     .add("tiled", &Out::tiled, "", "one of several sheets that are glued together at their crosses");
    return record;
}

const Record& TemplateResult::record() {
    using Out = TemplateResult;
    static const Record record = Fields<Out>()
                                     .add("sheets", &Out::sheets, "", "that are wanted")
                                     .add("places", &Out::places, "", "where each part lies")
                                     .add("used_percent", &Out::used_percent, "%", "of the sheets' area")
                                     .add("svg", &Out::svg, "", "each sheet at true size");
    return record;
}

const Calculation& template_calculation() {
    static const Calculation calculation = declare<TemplateInput, TemplateResult>(
        "template.sheet", "Templates of flat parts on sheets of paper at 1:1, with check scales, to be glued on and sawn round.",
        template_sheet_source, template_sheet, explain_template);
    return calculation;
}

}  // namespace echappe
