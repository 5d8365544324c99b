#include <catch2/catch.hpp>
#include <random>

#include "core/slow_apart.h"
#include "parts/template_sheet.h"

using namespace echappe;

namespace {

/// Parts as they are mixed on a bench: doors, hands, washers, brackets, cocks.
std::vector<FlatShape> mixed(std::mt19937& chance, int count) {
    std::uniform_real_distribution<double> size(10, 95);
    std::uniform_int_distribution<int> kind(0, 4);
    std::vector<FlatShape> parts;
    for (int i = 0; i < count; ++i) {
        FlatShape one;
        switch (kind(chance)) {
            case 0:
                one.shape = "panel", one.width_mm = size(chance), one.height_mm = size(chance),
                one.rise_mm = std::min(6.0, *one.width_mm / 4);
                break;
            case 1:
                one.shape = "hand", one.length_mm = size(chance) + 10, one.boss_mm = 7, one.hole_mm = 2, one.tail_mm = 9;
                break;
            case 2:
                one.shape = "washer", one.width_mm = size(chance), one.hole_mm = 3;
                break;
            case 3:
                one.shape = "bracket", one.width_mm = 12, one.height_mm = size(chance), one.bend_at_mm = 20;
                break;
            default:
                one.shape = "cock", one.width_mm = 24, one.height_mm = 14, one.length_mm = size(chance) + 20, one.tongue_mm = 10;
                one.slit_mm = 0.6, one.slit_depth_mm = 9;
        }
        parts.push_back(one);
    }
    return parts;
}

/// Outlines as they lie on one sheet, one each.
std::vector<std::vector<Point>> laid(const std::vector<FlatPart>& parts, const TemplateResult& out, const TemplateInput& in,
                                     long long sheet) {
    std::vector<std::vector<Point>> all;
    for (const TemplatePlace& place : out.places)
        if (place.sheet == sheet && !place.tiled)
            all.push_back(template_drawing(parts, {place}, in, sheet).layers.front().outlines.front());
    return all;
}

void check_apart(const TemplateInput& in) {
    std::vector<FlatPart> parts;
    for (const FlatShape& shape : in.parts) {
        FlatShapeInput one;
        one.shape = shape;
        parts.push_back(solid_of(one, flat_shape(one)));
    }
    const TemplateResult out = template_sheet(in);
    for (long long sheet = 1; sheet <= out.sheets; ++sheet) {
        const auto all = laid(parts, out, in, sheet);
        for (size_t a = 0; a < all.size(); ++a)
            for (size_t b = a + 1; b < all.size(); ++b) CHECK(apart_mm(all[a], all[b]) >= in.gap_mm - 1e-6);
    }
}

}  // namespace

TEST_CASE("no two outlines on a hundred sheets are nearer than the gap, by another library's distance") {
    std::mt19937 chance(9);
    for (int i = 0; i < 100; ++i) {
        TemplateInput in;
        in.parts = mixed(chance, 6);
        in.gap_mm = std::uniform_real_distribution<double>(0.5, 6)(chance);
        INFO("sheet " << i);
        check_apart(in);
    }
}

TEST_CASE("a large panel, a hand and a spacer on one sheet keep the gap") {
    TemplateInput in;
    FlatShape panel, hand, spacer;
    panel.shape = "panel", panel.width_mm = 160, panel.height_mm = 240;
    hand.shape = "hand", hand.length_mm = 45, hand.boss_mm = 7, hand.hole_mm = 2;
    spacer.shape = "spacer", spacer.width_mm = 14, spacer.hole_mm = 5;
    in.parts = {panel, hand, spacer};
    check_apart(in);
}

TEST_CASE("a part that is larger than a sheet lies over several, which together show every corner of it once at least") {
    TemplateInput in;
    FlatShape panel;
    panel.shape = "panel", panel.width_mm = 320, panel.height_mm = 410;
    in.parts = {panel};
    const TemplateResult out = template_sheet(in);
    CHECK(out.sheets == static_cast<long long>(out.places.size()));
    FlatShapeInput one;
    one.shape = panel;
    const std::vector<FlatPart> parts = {solid_of(one, flat_shape(one))};
    const size_t corners = parts.front().outline.size();
    std::vector<int> shown(corners, 0);
    for (long long sheet = 1; sheet <= out.sheets; ++sheet) {
        const auto outline = template_drawing(parts, out.places, in, sheet).layers.front().outlines.front();
        for (size_t i = 0; i < corners; ++i) {
            const Point& p = outline[i];
            const bool inside = p[0] >= in.margin_mm - 1e-6 && p[0] <= in.sheet_width_mm - in.margin_mm + 1e-6 &&
                                p[1] >= in.margin_mm - 1e-6 && p[1] <= in.sheet_height_mm - in.margin_mm + 1e-6;
            shown[i] += inside;
        }
    }
    for (const int times : shown) CHECK(times >= 1);
}
