#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

#include "exchange/drawing.h"

namespace echappe {
namespace {

constexpr double margin_mm = 2;

/// Not by printf: that asks the system's language for the point.
std::string figure(double value) {
    std::array<char, 400> buffer{};
    const double plain = value == 0 ? 0.0 : value;
    return {buffer.data(), std::to_chars(buffer.data(), buffer.data() + buffer.size(), plain, std::chars_format::fixed, 4).ptr};
}

std::string escaped(const std::string& text) {
    std::string out;
    for (const char c : text) out += c == '<' ? "&lt;" : c == '&' ? "&amp;" : c == '"' ? "&quot;" : std::string(1, c);
    return out;
}

struct Box {
    double left = 1e300, bottom = 1e300, right = -1e300, top = -1e300;
    void take(double x, double y, double around) {
        left = std::min(left, x - around);
        right = std::max(right, x + around);
        bottom = std::min(bottom, y - around);
        top = std::max(top, y + around);
    }
};

Box bounds(const Drawing& drawing) {
    Box box;
    for (const DrawingLayer& layer : drawing.layers) {
        for (const auto& outline : layer.outlines)
            for (const Point& p : outline) box.take(p[0], p[1], margin_mm);
        for (const auto& circle : layer.circles) box.take(circle.centre[0], circle.centre[1], circle.radius_mm + margin_mm);
        for (const Point& p : layer.marks) box.take(p[0], p[1], mark_mm + margin_mm);
        constexpr double half_a_letter = 0.3;
        for (const auto& note : layer.notes) {
            const double half = half_a_letter * note.high_mm * static_cast<double>(note.words.size());
            for (const double x : {note.at[0] - half, note.at[0] + half}) box.take(x, note.at[1], note.high_mm);
        }
    }
    if (box.left > box.right) box.take(0, 0, margin_mm);
    return box;
}

const char* colour_of(DrawingLayer::Of of) {
    return of == DrawingLayer::Of::cut ? "black" : of == DrawingLayer::Of::mark ? "blue" : "grey";
}

}  // namespace

Drawing separated(const Drawing& drawing) {
    Drawing out;
    out.title = drawing.title;
    for (const DrawingLayer& layer : drawing.layers) {
        out.layers.push_back(layer);
        if (layer.of != DrawingLayer::Of::cut || layer.marks.empty()) continue;
        out.layers.back().marks.clear();
        out.layers.push_back({layer.name + " centres", {}, {}, layer.marks, DrawingLayer::Of::mark});
    }
    return out;
}

// SVG's y runs downwards: every y is written with its sign changed.
std::string to_svg(const Drawing& mixed) {
    const Drawing drawing = separated(mixed);
    const Box box = bounds(drawing);
    const std::string width = figure(box.right - box.left);
    const std::string height = figure(box.top - box.bottom);
    std::string out = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" + width +
                      "mm\" height=\"" + height + "mm\" viewBox=\"" + figure(box.left) + " " + figure(-box.top) + " " + width + " " +
                      height + "\">\n<title>" + escaped(drawing.title) + "</title>\n";
    for (const DrawingLayer& layer : drawing.layers) {
        out += "<g id=\"" + escaped(layer.name) + "\" fill=\"none\" stroke=\"" + colour_of(layer.of) + "\" stroke-width=\"0.05\">\n";
        for (const auto& outline : layer.outlines) {
            out += "<path d=\"";
            for (size_t i = 0; i < outline.size(); ++i) out += (i == 0 ? "M" : " L") + figure(outline[i][0]) + "," + figure(-outline[i][1]);
            out += " Z\"/>\n";
        }
        for (const auto& circle : layer.circles)
            out += "<circle cx=\"" + figure(circle.centre[0]) + "\" cy=\"" + figure(-circle.centre[1]) + "\" r=\"" +
                   figure(circle.radius_mm) + "\"/>\n";
        for (const Point& p : layer.marks)
            out += "<path d=\"M" + figure(p[0] - mark_mm) + "," + figure(-p[1]) + " h" + figure(2 * mark_mm) + " M" + figure(p[0]) + "," +
                   figure(-p[1] - mark_mm) + " v" + figure(2 * mark_mm) + "\"/>\n";
        for (const auto& note : layer.notes)
            out += "<text x=\"" + figure(note.at[0]) + "\" y=\"" + figure(-note.at[1] + note.high_mm / 3) + "\" font-size=\"" +
                   figure(note.high_mm) + "\" text-anchor=\"middle\" stroke=\"none\" fill=\"" + colour_of(layer.of) + "\">" +
                   escaped(note.words) + "</text>\n";
        out += "</g>\n";
    }
    return out + "</svg>\n";
}

double area_mm2(const std::vector<Point>& outline) {
    double twice = 0;
    for (size_t i = 0; i < outline.size(); ++i) {
        const Point& a = outline[i];
        const Point& b = outline[(i + 1) % outline.size()];
        twice += a[0] * b[1] - b[0] * a[1];
    }
    return twice / 2;
}

}  // namespace echappe
