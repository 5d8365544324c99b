#include "making/fit_limits.h"

#include <array>
#include <cmath>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* fit_limits_source = "ISO 286-1 and 286-2, 2010";
constexpr double um = 1e-3;
constexpr size_t steps = 8;
constexpr std::array<double, steps> up_to_mm = {3, 6, 10, 18, 30, 50, 80, 120};

using Row = std::array<double, steps>;  // µm, by step of size
/// Width of a grade.
constexpr Row grades[] = {{4, 5, 6, 8, 9, 11, 13, 15},          {6, 8, 9, 11, 13, 16, 19, 22},    {10, 12, 15, 18, 21, 25, 30, 35},
                          {14, 18, 22, 27, 33, 39, 46, 54},     {25, 30, 36, 43, 52, 62, 74, 87}, {40, 48, 58, 70, 84, 100, 120, 140},
                          {60, 75, 90, 110, 130, 160, 190, 220}};
constexpr int first_grade = 5, last_grade_of_k = 7;

/// The end of a shaft's field that its letter fixes.
struct Letter {
    const char* letter;
    bool upper;
    Row um;
};
constexpr Letter letters[] = {{"d", true, {-20, -30, -40, -50, -65, -80, -100, -120}},
                              {"e", true, {-14, -20, -25, -32, -40, -50, -60, -72}},
                              {"f", true, {-6, -10, -13, -16, -20, -25, -30, -36}},
                              {"g", true, {-2, -4, -5, -6, -7, -9, -10, -12}},
                              {"h", true, {0, 0, 0, 0, 0, 0, 0, 0}},
                              {"k", false, {0, 1, 1, 1, 2, 2, 2, 3}},
                              {"m", false, {2, 4, 6, 7, 8, 9, 11, 13}},
                              {"n", false, {4, 8, 10, 12, 15, 17, 20, 23}},
                              {"p", false, {6, 12, 15, 18, 22, 26, 32, 37}},
                              {"s", false, {14, 19, 23, 28, 35, 43, 53, 71}}};

/// s has two steps where the others have one: over 65 mm, and over 100.
double fixed_um(const Letter& letter, size_t step, double nominal_mm) {
    constexpr double half_of_80 = 65, s_over_65 = 59, half_of_120 = 100, s_over_100 = 79;
    if (std::string(letter.letter) == "s") {
        if (step == 6 && nominal_mm > half_of_80) return s_over_65;
        if (step == 7 && nominal_mm > half_of_120) return s_over_100;
    }
    return letter.um[step];
}

size_t step_of(double nominal_mm) {
    for (size_t i = 0; i < steps; ++i)
        if (nominal_mm <= up_to_mm[i]) return i;
    throw InputError("nominal_mm", print_short(nominal_mm), "above 0, up to 120");
}

struct LetterAndGrade {
    std::string letter;
    int grade;
    double width_um;
};
/// Letters and grade of "js6".
LetterAndGrade parts_of(const std::string& word, size_t step, const std::string& field, const char* takes) {
    const size_t digit = word.find_first_of("0123456789");
    const auto refuse = [&] { throw InputError(field, "\"" + word + "\"", takes); };
    if (digit == std::string::npos || digit == 0 || word.size() > digit + 2 ||
        word.find_first_not_of("0123456789", digit) != std::string::npos)
        refuse();
    const int grade = std::stoi(word.substr(digit));
    if (grade < first_grade || grade >= first_grade + static_cast<int>(std::size(grades))) refuse();
    return {word.substr(0, digit), grade, grades[grade - first_grade][step]};
}

std::string in_words(const FitLimitsResult& out) {
    if (out.clearance_min_mm >= 0)
        return "Goes in always, with " + print_fixed(out.clearance_min_mm, 3) + " to " + print_fixed(out.clearance_max_mm, 3) +
               " mm of play.";
    if (out.clearance_max_mm <= 0)
        return "Presses in always, by " + print_fixed(-out.clearance_max_mm, 3) + " to " + print_fixed(-out.clearance_min_mm, 3) + " mm.";
    return "May go in with up to " + print_fixed(out.clearance_max_mm, 3) + " mm of play or press by up to " +
           print_fixed(-out.clearance_min_mm, 3) + " mm: made one to the other.";
}

}  // namespace

SizeLimits hole_limits(const std::string& hole, double nominal_mm, const std::string& field) {
    constexpr const char* takes = "H with a grade of 5 to 11, as in \"H7\"";
    const LetterAndGrade of = parts_of(hole, step_of(nominal_mm), field, takes);
    if (of.letter != "H") throw InputError(field, "\"" + hole + "\"", takes);
    return {of.width_um * um, 0};
}

SizeLimits shaft_limits(const std::string& shaft, double nominal_mm, const std::string& field) {
    constexpr const char* takes = "d, e, f, g, h, js, k, m, n, p or s with a grade of 5 to 11, as in \"g6\"";
    const size_t step = step_of(nominal_mm);
    const auto [letter, grade, width] = parts_of(shaft, step, field, takes);
    if (letter == "js") return {width / 2 * um, -width / 2 * um};
    for (const Letter& one : letters) {
        if (letter != one.letter) continue;
        // k is raised from the nominal up to grade 7 only.
        const double fixed = letter == "k" && grade > last_grade_of_k ? 0 : fixed_um(one, step, nominal_mm);
        return one.upper ? SizeLimits{fixed * um, (fixed - width) * um} : SizeLimits{(fixed + width) * um, fixed * um};
    }
    throw InputError(field, "\"" + shaft + "\"", takes);
}

FitLimitsResult fit_limits(const FitLimitsInput& in) {
    const SizeLimits hole = hole_limits(in.hole, in.nominal_mm), shaft = shaft_limits(in.shaft, in.nominal_mm);
    FitLimitsResult out;
    out.hole_max_mm = in.nominal_mm + hole.upper_mm, out.hole_min_mm = in.nominal_mm + hole.lower_mm;
    out.shaft_max_mm = in.nominal_mm + shaft.upper_mm, out.shaft_min_mm = in.nominal_mm + shaft.lower_mm;
    out.clearance_max_mm = hole.upper_mm - shaft.lower_mm, out.clearance_min_mm = hole.lower_mm - shaft.upper_mm;
    out.verdict = in_words(out);
    return out;
}

std::vector<Working> explain_fit_limits(const FitLimitsInput& in, const FitLimitsResult& out) {
    std::vector<Working> list = {work_out("most play", "c = hole's upper limit − shaft's lower",
                                          {given("H", in.hole, out.hole_max_mm, "mm"), given("s", in.shaft, out.shaft_min_mm, "mm")}, "mm",
                                          fit_limits_source, [](auto x) { return x[0] - x[1]; }),
                                 work_out("least play", "c = hole's lower limit − shaft's upper",
                                          {given("H", in.hole, out.hole_min_mm, "mm"), given("s", in.shaft, out.shaft_max_mm, "mm")}, "mm",
                                          fit_limits_source, [](auto x) { return x[0] - x[1]; })};
    list.back().notes.push_back(out.verdict);
    return list;
}

const Record& FitLimitsInput::record() {
    using In = FitLimitsInput;
    static const Record record = Fields<In>()
                                     .add("nominal_mm", &In::nominal_mm, "mm", "of both", above(0, 120))
                                     .required()
                                     .add("hole", &In::hole, "", "H with its grade, 5 to 11")
                                     .because("what a reamer leaves")
                                     .add("shaft", &In::shaft, "", "d, e, f, g, h, js, k, m, n, p or s with its grade")
                                     .because("turns on it without shake");
    return record;
}

const Record& FitLimitsResult::record() {
    using Out = FitLimitsResult;
    static const Record record = Fields<Out>()
                                     .add("hole_max_mm", &Out::hole_max_mm, "mm", "of the hole")
                                     .add("hole_min_mm", &Out::hole_min_mm, "mm", "of the hole")
                                     .add("shaft_max_mm", &Out::shaft_max_mm, "mm", "of the shaft")
                                     .add("shaft_min_mm", &Out::shaft_min_mm, "mm", "of the shaft")
                                     .add("clearance_max_mm", &Out::clearance_max_mm, "mm", "most play; negative: it presses")
                                     .add("clearance_min_mm", &Out::clearance_min_mm, "mm", "least; negative: it presses")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& fit_limits_calculation() {
    static const Calculation calculation =
        declare<FitLimitsInput, FitLimitsResult>("fit.limits", "Limits of a hole and a shaft that fit into each other, up to 120 mm.",
                                                 fit_limits_source, fit_limits, explain_fit_limits);
    return calculation;
}

}  // namespace echappe
