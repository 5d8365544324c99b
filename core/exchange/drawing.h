#pragma once

#include <array>
#include <filesystem>
#include <string>
#include <vector>

namespace echappe {

using Point = std::array<double, 2>;

/// A drawing in mm, y upwards, to be written to a file or painted. Every outline is closed: its last point
/// joins its first and is not repeated.
struct DrawingLayer {
    std::string name;
    std::vector<std::vector<Point>> outlines;
    struct Circle {
        Point centre;
        double radius_mm;
    };
    std::vector<Circle> circles;
    std::vector<Point> marks;  ///< small crosses: never on a layer of cuts
    enum class Of { cut, mark, construction };
    Of of = Of::cut;  ///< cut through; scribed or punched; only to be looked at
    /// Words, about the middle of their line.
    struct Note {
        Point at;
        double high_mm;
        std::string words;
    };
    std::vector<Note> notes = {};
};
inline constexpr double mark_mm = 1;  ///< from a cross's middle to its ends

struct Drawing {
    std::string title;
    std::vector<DrawingLayer> layers;
};

/// The same with the crosses of each layer of cuts on a layer of marks of their own: a layer of cuts holds cuts and nothing else.
Drawing separated(const Drawing& drawing);

/// SVG 1.1 at true size (width and height in mm). Coordinates to 0.1 µm. Cuts black, marks blue, constructions grey.
std::string to_svg(const Drawing& drawing);
/// DXF (AutoCAD 2000, units mm) with a layer each, written by dxflib: cuts black, marks blue, constructions grey. Crosses of a layer of
/// cuts go on a layer "… centres" of their own; notes are texts. Runs of an outline that lie on a circle are arcs.
std::string to_dxf(const Drawing& drawing);

/// Written whole, as the ending of its name says. Throws InputError.
void save_drawing(const std::filesystem::path& path, const Drawing& drawing);

/// Signed area enclosed by an outline, mm²; positive when anticlockwise.
double area_mm2(const std::vector<Point>& outline);

}  // namespace echappe
