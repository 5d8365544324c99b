#include <rapidcheck/catch.h>

#include <cmath>

#include "number/input_error.h"
#include "teeth/geometry.h"
#include "train/module_fit.h"
#include "train/restore_model.h"

using namespace echappe;

namespace {

Evidence size(const char* kind, double value, double u = 0.02) { return {{kind, {}, {}, {}}, value, u}; }

/// Sizes of a mesh as the school's own geometry makes them.
ModuleFitInput made(const std::string& school, long long wheel, long long pinion, double module) {
    const GeometryResult sizes = tooth_geometry({wheel, pinion, module, {school}});
    ModuleFitInput in;
    in.wheel = wheel;
    in.pinion = pinion;
    in.form.school = school;
    in.evidence = {
        size("wheel_outside_diameter_mm", sizes.wheel.outside_diameter_mm), size("wheel_root_diameter_mm", sizes.wheel.root_diameter_mm),
        size("pinion_outside_diameter_mm", sizes.pinion.outside_diameter_mm),
        size("pinion_root_diameter_mm", sizes.pinion.root_diameter_mm), size("centre_distance_mm", sizes.centre_distance_mm, 0.05)};
    return in;
}

}  // namespace

TEST_CASE("sizes that a module made give that module back, in every school") {
    for (const std::string school : {"cycloidal-clock", "lantern", "involute-20"})
        for (const double module : {0.2, 0.65, 1.5}) {
            const ModuleFitResult out = fit_module(made(school, 72, 12, module));
            CHECK(out.module_mm == Approx(module).epsilon(1e-9));
            CHECK(out.misfit < 1e-9);
            CHECK(out.circular_pitch_mm == Approx(3.14159265 * module).epsilon(1e-8));
            CHECK(out.diametral_pitch * module == Approx(25.4));
        }
}

TEST_CASE("the module found is the one of least sum of squares: a scan finds none better") {
    ModuleFitInput in = made("cycloidal-clock", 90, 12, 0.6);
    in.evidence[0].value += 0.05;
    in.evidence[4].value -= 0.08;
    const ModuleFitResult out = fit_module(in);
    const auto misfit = [&](double module) {
        double sum = 0;
        for (size_t i = 0; i < in.evidence.size(); ++i)
            sum += std::pow((in.evidence[i].value - out.residuals[i].predicted / out.module_mm * module) / in.evidence[i].u, 2);
        return sum;
    };
    for (double module = 0.55; module < 0.65; module += 1e-4) CHECK(misfit(module) >= out.misfit - 1e-9);
    // One standard uncertainty away the sum has grown by one.
    CHECK(misfit(out.module_mm + out.u_mm) - out.misfit == Approx(1).epsilon(1e-6));
    CHECK(out.residuals[0].sigma > 0);
    CHECK(out.residuals[4].sigma < 0);
}

TEST_CASE("a wheel's tips and roots tell cycloidal from involute: the cycloidal tooth is the higher") {
    CHECK(fit_module(made("cycloidal-clock", 72, 8, 0.6)).forms.front().school == "cycloidal-clock");
    ModuleFitInput later = made("involute-20", 72, 20, 0.6);
    later.form.school = "cycloidal-clock";
    const ModuleFitResult out = fit_module(later);
    CHECK(out.forms.front().school == "involute-20");
    CHECK(out.forms.front().weight > 0.99);
    CHECK(out.forms.front().module_mm == Approx(0.6));
    // A tip alone cannot tell: every form fits one number.
    later.evidence = {size("wheel_outside_diameter_mm", 44.4)};
    for (const FormOdds& form : fit_module(later).forms) CHECK(form.weight == Approx(0.5));
}

TEST_CASE("the nearest cutter is nearest by ratio, and from the workshop's own when given") {
    ModuleFitInput in = made("cycloidal-clock", 90, 12, 0.63);
    CHECK(fit_module(in).nearest_stock_module_mm == 0.65);
    in.stock_modules_mm = {0.5, 0.6, 0.8};
    CHECK(fit_module(in).nearest_stock_module_mm == 0.6);
}

TEST_CASE("a reading whose count is missing asks for it by name") {
    ModuleFitInput in;
    in.wheel = 60;
    CHECK_THROWS_WITH(fit_module(in), Catch::StartsWith("evidence: got nothing"));
    in.evidence = {size("pinion_outside_diameter_mm", 8)};
    CHECK_THROWS_WITH(fit_module(in), Catch::StartsWith("pinion: got nothing"));
    in.evidence = {size("beats_per_hour", 3600)};
    CHECK_THROWS_WITH(fit_module(in), Catch::StartsWith("evidence[0].kind"));
    in.evidence = {size("wheel_outside_diameter_mm", 38, 0)};
    CHECK_THROWS_WITH(fit_module(in), Catch::StartsWith("evidence[0].u"));
}

TEST_CASE("the solver's quick sizes are those of the forms themselves") {
    for (const auto& [N, n] : {std::pair{90LL, 12LL}, std::pair{64LL, 8LL}, std::pair{30LL, 6LL}, std::pair{75LL, 10LL}})
        for (const EvidenceKind& kind : evidence_kinds()) {
            if (!kind.id.ends_with("_diameter_mm")) continue;
            const GeometryResult sizes = tooth_geometry({N, n, 1});
            const PartSizes& part = kind.id.starts_with("wheel") ? sizes.wheel : sizes.pinion;
            const double drawn = kind.id.ends_with("root_diameter_mm") ? part.root_diameter_mm : part.outside_diameter_mm;
            CHECK(mesh_size(kind.id, {}, N, n).at(1) == Approx(drawn).epsilon(1e-12));
        }
    CHECK(mesh_size("centre_distance_mm", {"lantern"}, 90, 12).at(0.5) == Approx(25.5));
    CHECK(mesh_size("module_mm", {"involute-20"}, 90, 12).at(0.5) == Approx(0.5));
}
