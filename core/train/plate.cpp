#include "train/plate.h"

#include <algorithm>
#include <cmath>
#include <sstream>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/numeral.h"
#include "number/units.h"

namespace echappe {
namespace {

using Point = std::array<double, 2>;
constexpr int arc_pieces = 96;
constexpr double three_quarters_from = pi / 4;  ///< the sector that is cut out of a three-quarter plate, to pi / 2 further

const std::vector<std::string>& shapes() {
    static const std::vector<std::string> all = {"arched", "round", "rectangle", "three-quarter", "A", "corners"};
    return all;
}
const std::vector<std::string>& materials() {
    static const std::vector<std::string> all = {"brass", "gilt", "steel", "oak", "beech", "cherry"};
    return all;
}
bool of_wood(const std::string& material) { return material != "brass" && material != "gilt" && material != "steel"; }

void arc(std::vector<Point>& out, Point middle, double radius, double from, double to) {
    const int pieces = std::max(2, static_cast<int>(std::ceil(arc_pieces * std::abs(to - from) / (2 * pi))));
    for (int i = 0; i <= pieces; ++i) {
        const double a = from + (to - from) * i / pieces;
        out.push_back({middle[0] + radius * std::cos(a), middle[1] + radius * std::sin(a)});
    }
}

double to_segment(Point p, Point a, Point b) {
    const double dx = b[0] - a[0], dy = b[1] - a[1];
    const double length = dx * dx + dy * dy;
    const double t = length > 0 ? std::clamp(((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / length, 0.0, 1.0) : 0;
    return std::hypot(p[0] - a[0] - t * dx, p[1] - a[1] - t * dy);
}

/// Words and figures of a plate's text, one after the other.
class PlateReader {
public:
    PlateReader(const std::string& text, const std::optional<Plate>& before) : m_text(as_typed(text)), m_plate(before.value_or(Plate())) {
        std::string spaced;
        for (const char c : m_text) {
            if (c == ',' || c == ';') spaced += ' ';
            spaced += c == ',' ? ' ' : c;
            if (c == ';') spaced += ' ';
        }
        std::istringstream words(spaced);
        for (std::string word; words >> word;) m_words.push_back(word);
    }

    Plate read() {
        if (m_words.empty()) refuse("nothing");
        if (m_words[0] != "pillars" && m_words[0] != "cock") read_outline();
        while (m_at < m_words.size()) {
            if (m_words[m_at] == ";") ++m_at;
            else if (m_words[m_at] == "pillars") read_pillars();
            else if (m_words[m_at] == "cock") read_cock();
            else read_material();
        }
        if (m_pillars_told)
            for (const Point& pillar : m_plate.pillars) m_plate.hold_pillar(pillar);
        return std::move(m_plate);
    }

private:
    std::string m_text;
    Plate m_plate;
    std::vector<std::string> m_words;
    size_t m_at = 0;
    bool m_pillars_told = false;

    [[noreturn]] static void refuse(const std::string& got) {
        throw InputError(
            "plate", got,
            "its shape and sizes in mm, as in arched 120 x 180, round 42, rectangle 100 x 140 oak 90, A 110 x 200, three-quarter 44, "
            "corners -50 0, 50 0, 0 120; and behind semicolons pillars 9 at -40 10, 40 10; cock balance -5 30, 5 30, 0 45");
    }
    std::optional<double> number() {
        if (m_at >= m_words.size()) return {};
        const auto value = read_number(m_words[m_at]);
        if (value) ++m_at;
        return value;
    }
    double size(const char* field) {
        const auto value = number();
        const Range& range = Plate::record().find(field)->range;
        if (!value) refuse(m_at < m_words.size() ? in_quotes(m_words[m_at]) : in_quotes(m_text));
        if (!range.holds(*value)) throw InputError("plate", in_quotes(m_words[m_at - 1]), range.sentence());
        return *value;
    }
    std::vector<Point> points() {
        std::vector<Point> out;
        while (const auto x = number()) {
            const auto y = number();
            if (!y) refuse("a place without its height, " + in_quotes(m_words[m_at - 1]));
            constexpr double far = 1e4;
            if (std::abs(*x) > far || std::abs(*y) > far) refuse(in_quotes(m_words[m_at - 1]));
            out.push_back({*x, *y});
        }
        return out;
    }
    void read_outline() {
        m_plate.assumed = m_words[m_at] == "about";
        if (m_plate.assumed && ++m_at >= m_words.size()) refuse(in_quotes(m_text));
        const std::string& word = m_words[m_at];
        const auto shape = std::find(shapes().begin(), shapes().end(), word == "a" ? "A" : word);
        if (shape == shapes().end()) refuse(in_quotes(word));
        m_plate.shape = *shape;
        ++m_at;
        m_plate.corners.clear();
        if (m_plate.shape == "corners") {
            m_plate.corners = points();
            if (m_plate.corners.size() < 3) refuse(std::to_string(m_plate.corners.size()) + " corners");
            double left = 0, right = 0, top = 0;
            for (const auto& [x, y] : m_plate.corners) left = std::min(left, x), right = std::max(right, x), top = std::max(top, y);
            m_plate.width_mm = 2 * std::max({-left, right, 0.5});
            m_plate.height_mm = std::max(top, 1.0);
            return;
        }
        m_plate.width_mm = size("width_mm");
        if (m_at < m_words.size() && (m_words[m_at] == "x" || m_words[m_at] == "\u00d7")) ++m_at;
        const bool one_size = m_plate.shape == "round" || m_plate.shape == "three-quarter";
        m_plate.height_mm = one_size ? m_plate.width_mm : size("height_mm");
    }
    void read_pillars() {
        ++m_at;
        if (const auto across = number()) {
            if (!Plate::record().find("pillar_mm")->range.holds(*across)) refuse(in_quotes(m_words[m_at - 1]));
            m_plate.pillar_mm = *across;
        }
        if (m_at < m_words.size() && m_words[m_at] == "at") ++m_at, m_plate.pillars = points(), m_pillars_told = true;
    }
    /// One of the same name goes; without corners it is taken off.
    void read_cock() {
        Cock cock;
        if (++m_at < m_words.size() && m_words[m_at] != ";" && !read_number(m_words[m_at])) cock.name = m_words[m_at++];
        cock.corners = points();
        if (cock.corners.size() == 1 || cock.corners.size() == 2) refuse(std::to_string(cock.corners.size()) + " corners of a cock");
        std::erase_if(m_plate.cocks, [&](const Cock& old) { return old.name == cock.name; });
        if (!cock.corners.empty()) m_plate.cocks.push_back(std::move(cock));
    }
    void read_material() {
        const auto material = std::find(materials().begin(), materials().end(), m_words[m_at]);
        if (material == materials().end()) refuse(in_quotes(m_words[m_at]));
        m_plate.material = *material;
        ++m_at;
        m_plate.grain_deg = of_wood(m_plate.material) ? number() : std::nullopt;
        if (m_plate.grain_deg && !Plate::record().find("grain_deg")->range.holds(*m_plate.grain_deg)) refuse(in_quotes(m_words[m_at - 1]));
    }
};

std::string listed(const std::vector<Point>& points) {
    std::string text;
    for (const auto& [x, y] : points) text += (text.empty() ? "" : ", ") + print_plain(x) + " " + print_plain(y);
    return text;
}

}  // namespace

const Record& Cock::record() {
    using In = Cock;
    static const Record record = Fields<In>()
                                     .add("name", &In::name, "", "what it carries")
                                     .add("corners", &In::corners, "mm", "in order round it, seen from the dial", between(-10000, 10000))
                                     .required();
    return record;
}

const Record& Plate::record() {
    using In = Plate;
    static const Record record =
        Fields<In>()
            .add("width_mm", &In::width_mm, "mm", "width", above(0, 10000))
            .required()
            .add("height_mm", &In::height_mm, "mm", "height; 0, 0 is the middle of the lower edge", above(0, 10000))
            .required()
            .add("shape", &In::shape, "", "outline")
            .choices(shapes())
            .because("most longcase dials and plates suit it; a usual one, until it is measured")
            .add("pillar_mm", &In::pillar_mm, "mm", "diameter of a pillar", above(0, 100))
            .because("of a clock with plates 3 mm thick")
            .add("pillars", &In::pillars, "mm", "where the pillars stand")
            .add("corners", &In::corners, "mm", "of a plate by its corners, in order round it", between(-10000, 10000))
            .add("material", &In::material, "", "of the plates")
            .choices(materials())
            .because("most plates are of brass")
            .add("grain_deg", &In::grain_deg, "deg", "of wood: which way its grain runs", between(-180, 180))
            .add("cocks", &In::cocks, "", "bridges and cocks on the back plate")
            .add("assumed", &In::assumed, "", "of a usual size: nobody measured it");
    return record;
}

bool Plate::wooden() const { return of_wood(material); }

std::vector<Point> outline_of(const Plate& plate) {
    const double half = plate.width_mm / 2, high = plate.height_mm;
    std::vector<Point> out;
    if (plate.shape == "corners" && plate.corners.size() >= 3) return plate.corners;
    const double radius = std::min(half, high / 2);
    const Point middle = {0, high / 2};
    if (plate.shape == "round") {
        arc(out, middle, radius, 0, 2 * pi);
        out.pop_back();
    } else if (plate.shape == "three-quarter") {
        arc(out, middle, radius, three_quarters_from + pi / 2, three_quarters_from + 2 * pi);
        out.push_back(middle);
    } else if (plate.shape == "A") {
        constexpr double foot = 0.22, shoulder = 0.36;  // of the half width, of the height
        out = {{-half, 0},
               {-half + 2 * foot * half, 0},
               {-0.18 * half, shoulder * high},
               {0.18 * half, shoulder * high},
               {half - 2 * foot * half, 0},
               {half, 0},
               {0.45 * half, high},
               {-0.45 * half, high}};
    } else if (plate.shape == "rectangle") {
        out = {{-half, 0}, {half, 0}, {half, high}, {-half, high}};
    } else {
        const double arch = std::min(plate.width_mm * 0.24, high * 0.2);
        const auto corner = [&](Point from, Point by, Point to) {
            constexpr int pieces = 12;
            for (int i = 0; i <= pieces; ++i) {
                const double t = static_cast<double>(i) / pieces, s = 1 - t;
                out.push_back({s * s * from[0] + 2 * s * t * by[0] + t * t * to[0], s * s * from[1] + 2 * s * t * by[1] + t * t * to[1]});
            }
        };
        out = {{-half, 0}, {half, 0}};
        corner({half, high - arch}, {half, high}, {half - arch, high});
        corner({-half + arch, high}, {-half, high}, {-half, high - arch});
    }
    return out;
}

double Plate::room_at(double x_mm, double y_mm) const {
    if (shape == "round") return std::min(width_mm, height_mm) / 2 - std::hypot(x_mm, y_mm - height_mm / 2);
    if (shape == "arched" || shape == "rectangle") return std::min({width_mm / 2 - std::abs(x_mm), y_mm, height_mm - y_mm});
    const auto edge = outline_of(*this);
    double nearest = INFINITY;
    bool inside = false;
    for (size_t i = 0, j = edge.size() - 1; i < edge.size(); j = i++) {
        nearest = std::min(nearest, to_segment({x_mm, y_mm}, edge[j], edge[i]));
        const bool crosses = (edge[i][1] > y_mm) != (edge[j][1] > y_mm);
        if (crosses && x_mm < (edge[j][0] - edge[i][0]) * (y_mm - edge[i][1]) / (edge[j][1] - edge[i][1]) + edge[i][0]) inside = !inside;
    }
    return inside ? nearest : -nearest;
}

void Plate::hold_pillar(const std::array<double, 2>& at_mm) const {
    const double off = -room_at(at_mm[0], at_mm[1]), half = std::max(width_mm, height_mm) / 2;
    if (!(off > half)) return;
    throw InputError(
        "pillar", print_short(at_mm[0], 5) + ", " + print_short(at_mm[1], 5) + " mm, which is " + print_short(off, 3) + " mm off the plate",
        "a place on the plate, which is " + print_short(width_mm, 5) + " × " + print_short(height_mm, 5) + " mm");
}

Plate read_plate(const std::string& text, const std::optional<Plate>& before) { return PlateReader(text, before).read(); }

std::string write_plate(const Plate& plate) {
    std::string text = (plate.assumed ? "about " : "") + plate.shape;
    if (plate.shape == "corners") text += " " + listed(plate.corners);
    else if (plate.shape == "round" || plate.shape == "three-quarter") text += " " + print_plain(std::min(plate.width_mm, plate.height_mm));
    else text += " " + print_plain(plate.width_mm) + " x " + print_plain(plate.height_mm);
    if (plate.material != "brass") text += (plate.shape == "corners" ? "; " : " ") + plate.material;
    if (plate.grain_deg) text += " " + print_plain(*plate.grain_deg);
    if (!plate.pillars.empty()) text += "; pillars " + print_plain(plate.pillar_mm) + " at " + listed(plate.pillars);
    for (const Cock& cock : plate.cocks) text += "; cock" + (cock.name.empty() ? "" : " " + cock.name) + " " + listed(cock.corners);
    return text;
}

}  // namespace echappe
