#pragma once

#include "train/mesh_size.h"
#include "train/restore.h"

namespace echappe {

/// Sizes read on one mesh, or on one of its parts alone.
struct ModuleFitInput {
    std::optional<long long> wheel;
    std::optional<long long> pinion;
    FormChoice form;
    std::vector<Evidence> evidence;
    std::vector<double> stock_modules_mm;  ///< cutters at hand; empty: the usual series
    static const Record& record();
};

struct ModuleResidual {
    std::string kind;
    double value = 0;
    double predicted = 0;
    double residual_mm = 0;  ///< measured − predicted
    double sigma = 0;
    static const Record& record();
};

/// How well one form of tooth explains the sizes.
struct FormOdds {
    std::string school;
    double module_mm = 0;
    double misfit = 0;
    double weight = 0;  ///< over the forms tried, none preferred beforehand
    static const Record& record();
};

struct ModuleFitResult {
    double module_mm = 0;
    double u_mm = 0;
    double misfit = 0;
    double diametral_pitch = 0;    ///< teeth per inch of pitch diameter: 25.4/m
    double circular_pitch_mm = 0;  ///< π m
    std::vector<ModuleResidual> residuals;
    double nearest_stock_module_mm = 0;
    std::vector<FormOdds> forms;
    static const Record& record();
};

/// Where the mate is unknown a wheel's cycloidal height is taken for a pinion of 10, a pinion's root for a wheel of 60.
/// Least squares module of one mesh from whatever was read, each reading by 1/u², with each reading's residual; and the odds
/// of the forms: exp(−misfit/2) of each, normalised. Throws InputError.
ModuleFitResult fit_module(const ModuleFitInput& input);
/// The weighted mean written out, reading by reading: x ÷ its size in modules. `words` name the readings.
Working module_working(const std::string& name, const std::vector<Evidence>& evidence, const std::vector<std::string>& words,
                       const std::vector<MeshSize>& sizes);
std::vector<Working> explain_module_fit(const ModuleFitInput& input, const ModuleFitResult& result);
const Calculation& module_fit_calculation();

}  // namespace echappe
