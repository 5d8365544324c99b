// Metal, tools and minutes: what cards take from the drawers.
#include <algorithm>

#include "exchange/csv_sheet.h"
#include "parts/material.h"
#include "stock/stock.h"

namespace echappe {
namespace {

template <class Sheet, class Row>
std::optional<double> price_of(const Sheet& sheet, const Row& row, size_t column) {
    if (row[column].empty()) return {};
    return sheet.number(row, column, 0, 1e7);
}

std::string price_in_words(const std::optional<double>& price) { return price ? print_short(*price, 8) : ""; }

}  // namespace

std::vector<Bar> metal_from_csv(const std::string& text) {
    enum { id, form, of, size, width, long_by, price };
    Sheet<7> sheet(text, {"id", "form", "material", "size_mm", "width_mm", "length_mm", "price"});
    std::vector<Bar> list;
    while (const auto row = sheet.next()) {
        static const std::array forms = {"rod", "bar", "sheet", "wire", "tube"};
        if (std::find(forms.begin(), forms.end(), (*row)[form]) == forms.end())
            throw InputError(sheet.place(form), in_quotes((*row)[form]), "rod, bar, sheet, wire or tube");
        Bar bar;
        bar.id = (*row)[id], bar.form = (*row)[form], bar.material = material((*row)[of], sheet.place(of)).id;
        bar.size_mm = sheet.number(*row, size, 0.01, 1000);
        if (!(*row)[width].empty()) bar.width_mm = sheet.number(*row, width, 0, 5000);
        bar.length_mm = sheet.number(*row, long_by, 0, 1e5);
        bar.price = price_of(sheet, *row, price);
        list.push_back(std::move(bar));
    }
    return list;
}

std::vector<ToolInDrawer> tools_from_csv(const std::string& text) {
    enum { id, kind, size, quantity, price };
    Sheet<5> sheet(text, {"id", "kind", "size", "quantity", "price"});
    std::vector<ToolInDrawer> list;
    while (const auto row = sheet.next()) {
        ToolInDrawer tool{(*row)[id], (*row)[kind], (*row)[size], 1, price_of(sheet, *row, price)};
        if (!(*row)[quantity].empty()) tool.quantity = sheet.count(*row, quantity, 0, 100000);
        list.push_back(std::move(tool));
    }
    return list;
}

std::vector<TimeTaken> times_from_csv(const std::string& text) {
    enum { kind, step, minutes };
    Sheet<3> sheet(text, {"kind", "step", "minutes"});
    std::vector<TimeTaken> list;
    while (const auto row = sheet.next()) list.push_back({(*row)[kind], (*row)[step], sheet.number(*row, minutes, 0, 1e5)});
    return list;
}

std::string metal_to_csv(const std::vector<Bar>& metal) {
    std::string out = "id,form,material,size_mm,width_mm,length_mm,price\n";
    for (const Bar& bar : metal)
        out += row_of({bar.id, bar.form, bar.material, print_short(bar.size_mm, 12), bar.width_mm > 0 ? print_short(bar.width_mm, 12) : "",
                       print_short(bar.length_mm, 12), price_in_words(bar.price)});
    return out;
}

std::string tools_to_csv(const std::vector<ToolInDrawer>& tools) {
    std::string out = "id,kind,size,quantity,price\n";
    for (const ToolInDrawer& tool : tools)
        out += row_of({tool.id, tool.kind, tool.size, std::to_string(tool.quantity), price_in_words(tool.price)});
    return out;
}

std::string times_to_csv(const std::vector<TimeTaken>& times) {
    std::string out = "kind,step,minutes\n";
    for (const TimeTaken& one : times) out += row_of({one.kind, one.step, print_short(one.minutes, 6)});
    return out;
}

}  // namespace echappe
