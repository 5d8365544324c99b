#include "exchange/table.h"
#include "fuzz.h"
#include "stock/stock.h"

using namespace echappe;
using namespace echappe::fuzz;

namespace {

/// The tables of one input: they are parted by a line with a stroke.
std::string part(std::string_view all, int which) {
    for (int i = 0; i < which; ++i) {
        const size_t end = all.find("\n|\n");
        all = end == std::string_view::npos ? std::string_view() : all.substr(end + 3);
    }
    return std::string(all.substr(0, all.find("\n|\n")));
}

}  // namespace

// A drawer as it was, as it is here and as it is on the disk: what was changed here is carried over, or the clash is told; what
// stands on the disk besides is not lost.
extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string_view all = text_of(data, size);
    answered([&] {
        const Table table = table_from_csv(std::string(all));
        must(table_from_csv(table_to_csv(table)).columns.size() == table.columns.size(), "a table that was written has its columns again");
    });
    answered([&] {
        const Table before = table_from_csv(part(all, 0)), after = table_from_csv(part(all, 1)), there = table_from_csv(part(all, 2));
        if (before.columns != after.columns) return;
        const CarriedOver out = carry_over(before, after, there);
        must(!out.clashes.empty() || out.table.columns.size() >= there.columns.size(), "no column is lost");
        if (!out.clashes.empty()) must(out.table == there, "a clash leaves all as it is");
        must(carry_over(before, before, there).table.rows.size() == there.rows.size(), "what was not changed changes nothing");
        for (const auto& row : out.table.rows) must(row.size() == out.table.columns.size(), "rows are as wide as the table");
    });
    answered([&] {
        const std::string csv = part(all, 0);
        for (const auto& bush : bushes_from_csv(csv)) must(bush.bore_mm > 0, "a bush has a bore");
        metal_from_csv(csv);
        tools_from_csv(csv);
        times_from_csv(csv);
    });
    return 0;
}
