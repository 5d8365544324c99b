#include "stock/stock.h"

#include <sstream>

#include "exchange/csv_sheet.h"
#include "exchange/outline_in.h"
#include "exchange/table.h"
#include "exchange/whole_file.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

template <class List>
List list_of(const std::filesystem::path& path, List (*read)(const std::string&)) {
    if (!std::filesystem::exists(path)) return {};
    try {
        return read(read_text(path));
    } catch (const InputError& error) {
        throw InputError(path.filename().string() + ", " + error.field(), error.got(), error.accepts());
    }
}

CutterResult nearest_from_file(const CutterInput& input) {
    CutterInput in = input;
    if (!in.stock_file.empty()) {
        if (!std::filesystem::is_regular_file(in.stock_file))
            throw InputError("stock_file", "\"" + in.stock_file + "\"", "a CSV file that is there");
        for (Cutter& cutter : list_of(std::filesystem::path(in.stock_file), cutters_from_csv)) in.stock.push_back(std::move(cutter));
    }
    if (in.stock.empty()) throw InputError("stock", "nothing", "cutters here, or a CSV in stock_file");
    return nearest_cutters(in);
}

BushPlanResult plan_from_file(const BushPlanInput& input) {
    BushPlanInput in = input;
    if (!in.stock_file.empty()) {
        if (!std::filesystem::is_regular_file(in.stock_file))
            throw InputError("stock", "\"" + in.stock_file + "\"", "a list of bushes, or a CSV file that is there");
        for (Bush& bush : list_of(std::filesystem::path(in.stock_file), bushes_from_csv)) in.stock.push_back(std::move(bush));
    }
    return plan_bush(in);
}

SpringMatchResult match_from_file(const SpringMatchInput& input) {
    SpringMatchInput in = input;
    if (!in.stock_file.empty()) {
        if (!std::filesystem::is_regular_file(in.stock_file))
            throw InputError("stock", "\"" + in.stock_file + "\"", "a list of strips, or a CSV file that is there");
        for (Strip& strip : list_of(std::filesystem::path(in.stock_file), strips_from_csv)) in.stock.push_back(std::move(strip));
    }
    return match_spring(in);
}

TraceResult trace_from_file(const TraceInput& input) {
    TraceInput in = input;
    if (!in.file.empty())
        for (auto& outline : outlines_from_file(in.file)) in.outlines.push_back(std::move(outline));
    return trace_tooth(in);
}

}  // namespace

std::optional<DividingHead> Stock::head() const {
    if (plates.empty()) return {};
    DividingHead head{plates.front().worm_ratio, {}};
    for (const StockPlate& plate : plates)
        if (plate.worm_ratio == head.worm_ratio) head.plates.push_back(plate.circles);
    return head;
}

std::vector<double> Stock::reamer_sizes() const {
    std::vector<double> sizes;
    for (const Reamer& reamer : reamers) sizes.push_back(reamer.diameter_mm);
    return sizes;
}

Stores Stock::stores() const {
    Stores out;
    out.metal = metal, out.tools = tools, out.times = times, out.cutters = cutters;
    for (const ToolInDrawer& tool : tools)
        if (tool.kind == "hour") out.hour_price = tool.price;
    return out;
}

std::vector<Bush> bushes_from_csv(const std::string& text) {
    enum { id, bore, outside, height, quantity };
    Sheet<5> sheet(text, {"id", "bore_mm", "outside_mm", "height_mm", "quantity"});
    std::vector<Bush> list;
    while (const auto row = sheet.next()) {
        Bush bush{(*row)[id], sheet.number(*row, bore, 0.01, 100), sheet.number(*row, outside, 0.01, 100),
                  sheet.number(*row, height, 0.01, 100)};
        if (!(*row)[quantity].empty()) bush.quantity = sheet.count(*row, quantity, 0, 100000);
        if (bush.outside_mm <= bush.bore_mm)
            throw InputError(sheet.place(outside), "\"" + (*row)[outside] + "\"", "more than the bore, " + (*row)[bore]);
        list.push_back(std::move(bush));
    }
    return list;
}

std::vector<Reamer> reamers_from_csv(const std::string& text) {
    enum { id, diameter };
    Sheet<2> sheet(text, {"id", "diameter_mm"});
    std::vector<Reamer> list;
    while (const auto row = sheet.next()) list.push_back({(*row)[id], sheet.number(*row, diameter, 0.05, 100)});
    return list;
}

std::vector<Strip> strips_from_csv(const std::string& text) {
    enum { id, width, thickness, longest, end, quantity };
    Sheet<6> sheet(text, {"id", "width_mm", "thickness_mm", "length_mm", "end", "quantity"});
    std::vector<Strip> list;
    while (const auto row = sheet.next()) {
        Strip strip;
        strip.id = (*row)[id];
        strip.width_mm = sheet.number(*row, width, 0.1, 500);
        strip.thickness_mm = sheet.number(*row, thickness, 0.01, 10);
        strip.length_mm = sheet.number(*row, longest, 1, 100000);
        if (!(*row)[end].empty()) strip.end = (*row)[end];
        if (!(*row)[quantity].empty()) strip.quantity = sheet.count(*row, quantity, 0, 100000);
        list.push_back(std::move(strip));
    }
    return list;
}

std::string strips_to_csv(const std::vector<Strip>& strips) {
    std::string out = "id,width_mm,thickness_mm,length_mm,end,quantity\n";
    for (const Strip& s : strips)
        out += row_of({s.id, print_short(s.width_mm, 12), print_short(s.thickness_mm, 12), print_short(s.length_mm, 12), s.end,
                       std::to_string(s.quantity)});
    return out;
}

std::string bushes_to_csv(const std::vector<Bush>& bushes) {
    std::string out = "id,bore_mm,outside_mm,height_mm,quantity\n";
    for (const Bush& b : bushes)
        out += row_of(
            {b.id, print_short(b.bore_mm, 12), print_short(b.outside_mm, 12), print_short(b.height_mm, 12), std::to_string(b.quantity)});
    return out;
}

std::string reamers_to_csv(const std::vector<Reamer>& reamers) {
    std::string out = "id,diameter_mm\n";
    for (const Reamer& r : reamers) out += row_of({r.id, print_short(r.diameter_mm, 12)});
    return out;
}

std::vector<Cutter> cutters_from_csv(const std::string& text) {
    enum { id, part, school, module, least, most, quantity, note };
    Sheet<8> sheet(text, {"id", "part", "school", "module_mm", "leaves_min", "leaves_max", "quantity", "note"});
    std::vector<Cutter> list;
    while (const auto row = sheet.next()) {
        Cutter cutter;
        cutter.id = (*row)[id];
        if (!(*row)[part].empty()) cutter.part = (*row)[part];
        if (cutter.part != "wheel" && cutter.part != "pinion")
            throw InputError(sheet.place(part), "\"" + cutter.part + "\"", "wheel or pinion");
        try {
            if (!(*row)[school].empty()) cutter.school = school_of((*row)[school]).id;
        } catch (const InputError& error) {
            throw InputError(sheet.place(school), error.got(), error.accepts());
        }
        cutter.module_mm = sheet.number(*row, module, 0.01, 50);
        if (!(*row)[least].empty()) cutter.leaves_min = sheet.count(*row, least, 4, 200);
        if (!(*row)[most].empty()) cutter.leaves_max = sheet.count(*row, most, 4, 200);
        if (!(*row)[quantity].empty()) cutter.quantity = sheet.count(*row, quantity, 0, 1000);
        cutter.note = (*row)[note];
        list.push_back(std::move(cutter));
    }
    return list;
}

std::vector<StockPlate> plates_from_csv(const std::string& text) {
    enum { id, ratio, circles };
    Sheet<3> sheet(text, {"id", "worm_ratio", "circles"});
    std::vector<StockPlate> list;
    while (const auto row = sheet.next()) {
        StockPlate plate{(*row)[id], sheet.count(*row, ratio, 1, 1000), {}};
        std::istringstream words((*row)[circles]);
        for (std::string word; words >> word;) plate.circles.push_back(sheet.count({"", "", word}, circles, 2, 1000));
        if (plate.circles.empty()) throw InputError(sheet.place(circles), "nothing", "circles of holes with spaces between: 15 16 17");
        list.push_back(std::move(plate));
    }
    return list;
}

std::vector<StockLeaf> leaves_from_csv(const std::string& text) {
    enum { id, addendum, thickness, radius, note };
    Sheet<5> sheet(text, {"id", "addendum_m", "thickness_m", "tip_radius_m", "note"});
    std::vector<StockLeaf> list;
    while (const auto row = sheet.next())
        list.push_back(
            {(*row)[id],
             {sheet.number(*row, addendum, 0.01, 3), sheet.number(*row, thickness, 0.01, 3), sheet.number(*row, radius, 0.01, 100)},
             (*row)[note]});
    return list;
}

std::string cutters_to_csv(const std::vector<Cutter>& cutters) {
    std::string out = "id,part,school,module_mm,leaves_min,leaves_max,quantity,note\n";
    const auto count = [](const std::optional<long long>& n) { return n ? std::to_string(*n) : std::string(); };
    for (const Cutter& c : cutters)
        out += row_of({c.id, c.part, c.school, print_short(c.module_mm, 12), count(c.leaves_min), count(c.leaves_max),
                       std::to_string(c.quantity), c.note});
    return out;
}

std::string plates_to_csv(const std::vector<StockPlate>& plates) {
    std::string out = "id,worm_ratio,circles\n";
    for (const StockPlate& plate : plates) {
        std::string circles;
        for (const long long circle : plate.circles) circles += (circles.empty() ? "" : " ") + std::to_string(circle);
        out += row_of({plate.id, std::to_string(plate.worm_ratio), circles});
    }
    return out;
}

std::string leaves_to_csv(const std::vector<StockLeaf>& leaves) {
    std::string out = "id,addendum_m,thickness_m,tip_radius_m,note\n";
    for (const StockLeaf& leaf : leaves)
        out += row_of({leaf.id, print_short(leaf.shape.addendum_m, 12), print_short(leaf.shape.thickness_m, 12),
                       print_short(leaf.shape.tip_radius_m, 12), leaf.note});
    return out;
}

Stock load_stock(const std::filesystem::path& folder) {
    return {list_of(folder / "cutters.csv", cutters_from_csv), list_of(folder / "plates.csv", plates_from_csv),
            list_of(folder / "leaves.csv", leaves_from_csv),   list_of(folder / "bushes.csv", bushes_from_csv),
            list_of(folder / "reamers.csv", reamers_from_csv), list_of(folder / "strips.csv", strips_from_csv),
            list_of(folder / "metal.csv", metal_from_csv),     list_of(folder / "tools.csv", tools_from_csv),
            list_of(folder / "times.csv", times_from_csv)};
}

namespace {

/// Every drawer as the file it is.
std::vector<FileText> drawers_of(const std::filesystem::path& folder, const Stock& stock) {
    return {{folder / "cutters.csv", cutters_to_csv(stock.cutters)}, {folder / "plates.csv", plates_to_csv(stock.plates)},
            {folder / "leaves.csv", leaves_to_csv(stock.leaves)},    {folder / "bushes.csv", bushes_to_csv(stock.bushes)},
            {folder / "reamers.csv", reamers_to_csv(stock.reamers)}, {folder / "strips.csv", strips_to_csv(stock.strips)},
            {folder / "metal.csv", metal_to_csv(stock.metal)},       {folder / "tools.csv", tools_to_csv(stock.tools)},
            {folder / "times.csv", times_to_csv(stock.times)}};
}

void make_folder(const std::filesystem::path& folder) {
    std::error_code error;
    std::filesystem::create_directories(folder, error);
    if (error) throw InputError("stock", "\"" + folder.string() + "\" (" + error.message() + ")", "a folder that can be written");
}

}  // namespace

void save_stock(const std::filesystem::path& folder, const Stock& stock) {
    make_folder(folder);
    save_texts(drawers_of(folder, stock));
}

void keep_changes(const std::filesystem::path& folder, const Stock& before, const Stock& after) {
    make_folder(folder);
    const std::vector<FileText> was = drawers_of(folder, before), is = drawers_of(folder, after);
    std::vector<FileText> changed;
    for (size_t i = 0; i < was.size(); ++i) {
        const bool there = std::filesystem::exists(was[i].path);
        if (there && was[i].text == is[i].text) continue;
        const Table on_disk = table_from_csv(there ? read_text(was[i].path) : was[i].text);
        const CarriedOver carried = carry_over(table_from_csv(was[i].text), table_from_csv(is[i].text), on_disk);
        if (!carried.clashes.empty())
            throw StockClash(was[i].path.stem().string(), "a change where another was made meanwhile: " + carried.clashes.front(),
                             "your change once more, on what stands there now");
        changed.push_back({was[i].path, table_to_csv(carried.table)});
    }
    save_texts(changed);
}

const Calculation& trace_calculation() {
    static const Calculation calculation = declare<TraceInput, TraceResult>(
        "tooth.trace", "A form of tooth taken from the outline of a part: traced, photographed or measured.",
        "flanks read off where the outline crosses circles about the arbor", trace_from_file, explain_trace);
    return calculation;
}

const Calculation& bush_plan_calculation() {
    static const Calculation calculation = declare<BushPlanInput, BushPlanResult>(
        "bush.plan", "One worn hole decided and planned: bush from the drawer, reamers, offset to the original centre, finished hole.",
        "workshop practice with both methods and three schools of clearance; wear by geometry", plan_from_file, explain_bush_plan);
    return calculation;
}

const Calculation& spring_match_calculation() {
    static const Calculation calculation = declare<SpringMatchInput, SpringMatchResult>(
        "spring.match", "Which strip of the drawer drives as wanted: ranked by torque over the going turns, with length, turns and stress.",
        "bending of the strip over the going turns, against a measured torque", match_from_file, explain_spring_match);
    return calculation;
}

const Calculation& cutters_calculation() {
    static const Calculation calculation = declare<CutterInput, CutterResult>(
        "cutter.nearest", "Which cutter of the workshop's stock comes nearest, and what its shape and centre distance would be off.",
        "gaps of the forms themselves, compared at one height", nearest_from_file, explain_cutters);
    return calculation;
}

}  // namespace echappe
