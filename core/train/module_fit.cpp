#include "train/module_fit.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* module_fit_source = "least squares, each reading weighed by 1/u²";
constexpr long long mate_pinion = 10;
constexpr long long mate_wheel = 60;

/// Modules that cutters are usually made for.
const std::vector<double>& usual_modules() {
    static const std::vector<double> modules = {0.05, 0.06, 0.07, 0.08, 0.09, 0.1,  0.12, 0.14, 0.16, 0.18, 0.2,  0.22, 0.25,
                                                0.28, 0.3,  0.35, 0.4,  0.45, 0.5,  0.55, 0.6,  0.65, 0.7,  0.75, 0.8,  0.85,
                                                0.9,  1,    1.1,  1.25, 1.5,  1.75, 2,    2.25, 2.5,  2.75, 3,    3.5,  4};
    return modules;
}

struct Fit {
    double module_mm = 0;
    double u_mm = 0;
    double misfit = 0;
    std::vector<MeshSize> sizes;
};

void check(const ModuleFitInput& in) {
    if (in.evidence.empty()) throw InputError("evidence", "nothing", "at least one size of the mesh");
    for (size_t i = 0; i < in.evidence.size(); ++i) {
        const Evidence& item = in.evidence[i];
        const std::string place = "evidence[" + std::to_string(i) + "]";
        const std::string& kind = item.key.kind;
        if (item.key.declared().unit != "mm" || item.key.declared().of == EvidenceKind::Of::movement)
            throw InputError(place + ".kind", "\"" + kind + "\"", "a size of the mesh: a centre distance, a diameter or a module");
        if (!(item.value > 0)) throw InputError(place + ".value", "nothing", "above 0, up to 1e9");
        if (!(item.u > 0)) throw InputError(place + ".u", "nothing", "above 0, up to 1e9");
        const bool wants_wheel = kind.starts_with("wheel") || kind == "centre_distance_mm";
        const bool wants_pinion = kind.starts_with("pinion") || kind == "centre_distance_mm";
        if (wants_wheel && !in.wheel) throw InputError("wheel", "nothing", "the teeth of the wheel, for " + kind);
        if (wants_pinion && !in.pinion) throw InputError("pinion", "nothing", "the leaves of the pinion, for " + kind);
    }
}

Fit fit_in(const ModuleFitInput& in, const FormChoice& form) {
    Fit fit;
    double kk = 0;
    double kx = 0;
    for (const Evidence& item : in.evidence) {
        fit.sizes.push_back(mesh_size(item.key.kind, form, in.wheel.value_or(mate_wheel), in.pinion.value_or(mate_pinion)));
        const auto& [k, fixed] = fit.sizes.back();
        kk += k * k / (item.u * item.u);
        kx += k * (item.value - fixed) / (item.u * item.u);
    }
    fit.module_mm = kx / kk;
    fit.u_mm = 1 / std::sqrt(kk);
    for (size_t i = 0; i < in.evidence.size(); ++i) {
        const double off = (in.evidence[i].value - fit.sizes[i].at(fit.module_mm)) / in.evidence[i].u;
        fit.misfit += off * off;
    }
    return fit;
}

std::vector<FormOdds> odds(const ModuleFitInput& in) {
    std::vector<FormOdds> forms;
    double least = INFINITY;
    for (const char* school : {"cycloidal-clock", "involute-20"}) {
        const Fit fit = fit_in(in, {school});
        forms.push_back({school, fit.module_mm, fit.misfit, 0});
        least = std::min(least, fit.misfit);
    }
    double sum = 0;
    for (FormOdds& form : forms) sum += form.weight = std::exp(-(form.misfit - least) / 2);
    for (FormOdds& form : forms) form.weight /= sum;
    std::stable_sort(forms.begin(), forms.end(), [](const FormOdds& a, const FormOdds& b) { return a.weight > b.weight; });
    return forms;
}

}  // namespace

const Record& ModuleFitInput::record() {
    using In = ModuleFitInput;
    static const Record record =
        Fields<In>()
            .add("wheel", &In::wheel, "", "teeth of the wheel", between(4, 1000))
            .add("pinion", &In::pinion, "", "leaves of the pinion", between(4, 200))
            .include(&In::form)
            .add("evidence", &In::evidence, "", "sizes read: kinds, values and uncertainties as in train.restore")
            .required()
            .add("stock_modules_mm", &In::stock_modules_mm, "mm", "cutters at hand; empty: the usual series", above(0, 50));
    return record;
}

const Record& ModuleResidual::record() {
    using Out = ModuleResidual;
    static const Record record = Fields<Out>()
                                     .add("kind", &Out::kind, "", "of the reading")
                                     .add("value", &Out::value, "mm", "measured")
                                     .add("predicted", &Out::predicted, "mm", "by the module found")
                                     .add("residual_mm", &Out::residual_mm, "mm", "measured − predicted")
                                     .add("sigma", &Out::sigma, "", "the same over its uncertainty");
    return record;
}

const Record& FormOdds::record() {
    using Out = FormOdds;
    static const Record record = Fields<Out>()
                                     .add("school", &Out::school, "", "form of tooth")
                                     .add("module_mm", &Out::module_mm, "mm", "module if it is this form")
                                     .add("misfit", &Out::misfit, "", "sum of squares")
                                     .add("weight", &Out::weight, "", "probability among the forms tried");
    return record;
}

const Record& ModuleFitResult::record() {
    using Out = ModuleFitResult;
    static const Record record = Fields<Out>()
                                     .add("module_mm", &Out::module_mm, "mm", "pitch diameter per tooth")
                                     .add("u_mm", &Out::u_mm, "mm", "its standard uncertainty")
                                     .add("misfit", &Out::misfit, "", "sum of squares of the residuals over their u")
                                     .add("diametral_pitch", &Out::diametral_pitch, "1/in", "teeth per inch of pitch diameter")
                                     .add("circular_pitch_mm", &Out::circular_pitch_mm, "mm", "along the pitch circle")
                                     .add("residuals", &Out::residuals, "", "reading by reading")
                                     .add("nearest_stock_module_mm", &Out::nearest_stock_module_mm, "mm", "the nearest cutter's, by ratio")
                                     .add("forms", &Out::forms, "", "how well each form explains the sizes, best first");
    return record;
}

ModuleFitResult fit_module(const ModuleFitInput& in) {
    check(in);
    const Fit fit = fit_in(in, in.form);
    ModuleFitResult out;
    out.module_mm = fit.module_mm;
    out.u_mm = fit.u_mm;
    out.misfit = fit.misfit;
    out.diametral_pitch = 25.4 / fit.module_mm;
    out.circular_pitch_mm = pi * fit.module_mm;
    for (size_t i = 0; i < in.evidence.size(); ++i) {
        const Evidence& item = in.evidence[i];
        const double predicted = fit.sizes[i].at(fit.module_mm);
        out.residuals.push_back({item.key.kind, item.value, predicted, item.value - predicted, (item.value - predicted) / item.u});
    }
    const auto& stock = in.stock_modules_mm.empty() ? usual_modules() : in.stock_modules_mm;
    out.nearest_stock_module_mm = *std::min_element(stock.begin(), stock.end(), [&](double a, double b) {
        return std::abs(std::log(a / fit.module_mm)) < std::abs(std::log(b / fit.module_mm));
    });
    if (in.form.school == "cycloidal-clock" || in.form.school == "involute-20") out.forms = odds(in);
    return out;
}

Working module_working(const std::string& name, const std::vector<Evidence>& evidence, const std::vector<std::string>& words,
                       const std::vector<MeshSize>& sizes) {
    std::vector<Term> terms;
    std::vector<double> weights;
    std::string formula = "m = weighted mean of";
    for (size_t i = 0; i < evidence.size(); ++i) {
        const auto& [k, fixed] = sizes[i];
        weights.push_back(k * k / (evidence[i].u * evidence[i].u));
        const std::string symbol = "x" + std::to_string(i + 1);
        const std::string less = fixed == 0 ? symbol : "(" + symbol + (fixed > 0 ? " − " : " + ") + print_short(std::abs(fixed), 6) + ")";
        formula += (i ? ", " : " ") + less + " ÷ " + print_short(k, 6);
        terms.push_back({symbol, words[i], {evidence[i].value, evidence[i].u}, "mm", 0});
    }
    return work_out(name, formula, terms, "mm", module_fit_source, [=](auto x) {
        double sum = 0;
        double all = 0;
        for (size_t i = 0; i < x.size(); ++i) {
            sum += weights[i] * sizes[i].module_of(x[i]);
            all += weights[i];
        }
        return sum / all;
    });
}

std::vector<Working> explain_module_fit(const ModuleFitInput& in, const ModuleFitResult& out) {
    std::vector<std::string> words;
    for (const Evidence& item : in.evidence) words.push_back(item.key.declared().words);
    Working working = module_working("module", in.evidence, words, fit_in(in, in.form).sizes);
    for (const ModuleResidual& residual : out.residuals)
        working.notes.push_back(residual.kind + ": " + print_fixed(residual.residual_mm, 3) + " mm, " + print_fixed(residual.sigma, 1) +
                                " times its uncertainty");
    for (const FormOdds& form : out.forms)
        working.notes.push_back(form.school + ": " + print_fixed(100 * form.weight, 1) + " %, module " + print_short(form.module_mm, 4) +
                                " mm");
    working.notes.push_back("nearest cutter: module " + print_short(out.nearest_stock_module_mm) + " mm");
    return {working};
}

const Calculation& module_fit_calculation() {
    static const Calculation calculation = declare<ModuleFitInput, ModuleFitResult>(
        "tooth.module", "Module of a mesh from its sizes, with residuals, the nearest cutter and the likelier form.", module_fit_source,
        fit_module, explain_module_fit);
    return calculation;
}

}  // namespace echappe
