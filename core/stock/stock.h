#pragma once

#include <filesystem>

#include "cards/stores.h"
#include "making/cutters.h"
#include "making/dividing.h"
#include "number/input_error.h"
#include "pivots/bush_plan.h"
#include "power/spring_match.h"
#include "teeth/trace.h"

namespace echappe {

/// A dividing plate in the drawer, with the head it belongs to.
struct StockPlate {
    std::string id;
    long long worm_ratio = 60;
    std::vector<long long> circles;
    bool operator==(const StockPlate&) const = default;
};

/// A named leaf of the workshop's table of pinion forms.
struct StockLeaf {
    std::string id;
    LeafShape shape;
    std::string note;
    bool operator==(const StockLeaf&) const = default;
};

/// A hand or machine reamer in the drawer.
struct Reamer {
    std::string id;
    double diameter_mm = 0;
    bool operator==(const Reamer&) const = default;
};

/// What a workshop has to work with: CSV files in one folder, `cutters.csv`, `plates.csv`, `leaves.csv`, `bushes.csv`, `reamers.csv`,
/// `strips.csv`, `metal.csv`, `tools.csv`, `times.csv`.
struct Stock {
    std::vector<Cutter> cutters;
    std::vector<StockPlate> plates;
    std::vector<StockLeaf> leaves;
    std::vector<Bush> bushes;
    std::vector<Reamer> reamers;
    std::vector<Strip> strips;
    std::vector<Bar> metal;
    std::vector<ToolInDrawer> tools;
    std::vector<TimeTaken> times;
    bool operator==(const Stock&) const = default;

    /// The head of the first plate with all plates of its ratio; none without plates.
    std::optional<DividingHead> head() const;
    std::vector<double> reamer_sizes() const;
    /// An hour's price is a row of the tools: kind "hour".
    Stores stores() const;
};

/// CSV with a header row; further columns are left alone. Throws InputError naming row and column, rows counted from 2 as an
/// editor shows them.
std::vector<Cutter> cutters_from_csv(const std::string& text);
std::vector<StockPlate> plates_from_csv(const std::string& text);
std::vector<StockLeaf> leaves_from_csv(const std::string& text);
std::vector<Bush> bushes_from_csv(const std::string& text);
std::vector<Reamer> reamers_from_csv(const std::string& text);
std::vector<Strip> strips_from_csv(const std::string& text);
std::vector<Bar> metal_from_csv(const std::string& text);
std::vector<ToolInDrawer> tools_from_csv(const std::string& text);
std::vector<TimeTaken> times_from_csv(const std::string& text);
std::string cutters_to_csv(const std::vector<Cutter>& cutters);
std::string plates_to_csv(const std::vector<StockPlate>& plates);
std::string leaves_to_csv(const std::vector<StockLeaf>& leaves);
std::string bushes_to_csv(const std::vector<Bush>& bushes);
std::string reamers_to_csv(const std::vector<Reamer>& reamers);
std::string strips_to_csv(const std::vector<Strip>& strips);
std::string metal_to_csv(const std::vector<Bar>& metal);
std::string tools_to_csv(const std::vector<ToolInDrawer>& tools);
std::string times_to_csv(const std::vector<TimeTaken>& times);

/// Reads the folder; a file that is not there is an empty list. Throws InputError.
Stock load_stock(const std::filesystem::path& folder);
/// Each file is written whole or not at all.
void save_stock(const std::filesystem::path& folder, const Stock& stock);
/// The same was changed meanwhile by somebody else.
class StockClash : public InputError {
public:
    using InputError::InputError;
};

/// Does what leads from `before` to `after` on the files as they are now: what another window or program wrote there meanwhile stays,
/// and so do columns that are not known here. Files that are not there are begun from `before`. Throws StockClash where both changed
/// the same; then nothing is written.
void keep_changes(const std::filesystem::path& folder, const Stock& before, const Stock& after);

const Calculation& cutters_calculation();
/// `tooth.trace`, with the outlines of its file.
const Calculation& trace_calculation();
/// `bush.plan`, with the bushes of its file.
const Calculation& bush_plan_calculation();

}  // namespace echappe
