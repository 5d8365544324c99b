#include "parts/thread.h"

#include <algorithm>
#include <cmath>
#include <regex>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* thread_source = "BS 93 (BA), ISO 261, 68-1 and 1501 (metric), ASME B1.1 (UN), BS 84 (Whitworth)";
constexpr double inch_mm = 25.4;

/// A system's own depth of thread on the screw; the whole depth that tables of tapping drills count per cent of, in pitches; and what share
/// of that a tap bears and a nut wants.
struct Form {
    const char* system;
    double screw_depth, table_depth;
    double most, least;
};
constexpr Form metric{"metric", 0.61343, 0.64952, 0.86, 0.5}, ba{"BA", 0.6, 0.6, 1, 0.6}, unified{"UN", 0.61343, 0.64952, 0.86, 0.5},
    whitworth{"Whitworth", 0.64033, 0.64033, 0.95, 0.5};

struct Thread {
    const Form* form;
    double diameter_mm, pitch_mm;
};

[[noreturn]] void refuse(const std::string& got) {
    throw InputError(
        "thread", "\"" + got + "\"",
        "M and a diameter (M3, M3x0.35), BA and a number to 16 (BA 6), UN with its threads an inch (UN 4-40), or W and a fraction "
        "(W 1/8)");
}

/// ISO 262, coarse; under a millimetre ISO 1501.
double coarse_pitch(double diameter, const std::string& got) {
    static const std::vector<std::array<double, 2>> rows = {
        {0.3, 0.08}, {0.35, 0.09}, {0.4, 0.1}, {0.5, 0.125}, {0.6, 0.15}, {0.7, 0.175}, {0.8, 0.2}, {0.9, 0.225}, {1, 0.25},
        {1.1, 0.25}, {1.2, 0.25},  {1.4, 0.3}, {1.6, 0.35},  {1.7, 0.35}, {1.8, 0.35},  {2, 0.4},   {2.2, 0.45},  {2.5, 0.45},
        {3, 0.5},    {3.5, 0.6},   {4, 0.7},   {5, 0.8},     {6, 1},      {8, 1.25},    {10, 1.5},  {12, 1.75}};
    for (const auto& [d, p] : rows)
        if (std::abs(d - diameter) < 1e-9) return p;
    throw InputError("thread", "\"" + got + "\"", "a coarse size from M0.3 to M12, or its pitch with it (M3x0.35)");
}

/// BS 84, threads an inch.
Thread read_whitworth(const std::string& got, const std::string& size, const std::string& threads) {
    static const std::vector<std::pair<double, double>> rows = {{1. / 16, 60}, {3. / 32, 48}, {1. / 8, 40}, {5. / 32, 32},
                                                                {3. / 16, 24}, {7. / 32, 24}, {1. / 4, 20}, {5. / 16, 18},
                                                                {3. / 8, 16},  {7. / 16, 14}, {1. / 2, 12}};
    const size_t slash = size.find('/');
    const double inches = std::stod(size.substr(0, slash)) / std::stod(size.substr(slash + 1));
    if (!threads.empty()) {
        const double an_inch = std::stod(threads);
        if (!(an_inch >= 4 && an_inch <= 120) || !(inches > 0 && inches < 1)) refuse(got);
        return {&whitworth, inches * inch_mm, inch_mm / an_inch};
    }
    for (const auto& [d, an_inch] : rows)
        if (std::abs(d - inches) < 1e-9) return {&whitworth, inches * inch_mm, inch_mm / an_inch};
    throw InputError("thread", "\"" + got + "\"", "a size from W 1/16 to W 1/2, or its threads an inch with it (W 1/8-40)");
}

/// To so many figures.
double to_figures(double value, int figures) {
    const double step = std::pow(10.0, std::floor(std::log10(value)) - figures + 1);
    return step * std::round(value / step);
}

Thread read_ba(const std::string& got, long long number) {
    if (number > 16) refuse(got);
    const double exact = std::pow(0.9, static_cast<double>(number));
    return {&ba, to_figures(6 * std::pow(exact, 1.2), 2), std::round(100 * exact) / 100};
}

Thread read_unified(const std::string& got, const std::string& size, double threads) {
    const size_t slash = size.find('/');
    const double inches =
        slash == std::string::npos ? 0.060 + 0.013 * std::stod(size) : std::stod(size.substr(0, slash)) / std::stod(size.substr(slash + 1));
    if (!(inches > 0 && inches < 1) || !(threads >= 4 && threads <= 120)) refuse(got);
    return {&unified, inches * inch_mm, inch_mm / threads};
}

Thread read(const std::string& got) {
    static const std::regex m(R"(\s*[Mm]\s*(\d+(?:\.\d+)?)(?:\s*[xX×]\s*(\d*\.?\d+))?\s*)");
    static const std::regex b(R"(\s*(?:BA|ba)\s*(\d{1,2})\s*|\s*(\d{1,2})\s*(?:BA|ba)\s*)");
    static const std::regex u(R"(\s*(?:UN|un)[CFcf]?\s*(\d{1,2}|\d/\d{1,2})\s*-\s*(\d{1,3})\s*)");
    static const std::regex w(R"(\s*(?:BSW|bsw|W|w)\s*(\d{1,2}/\d{1,2})\s*(?:-\s*(\d{1,3}))?\s*)");
    std::smatch is;
    if (std::regex_match(got, is, m)) {
        const double diameter = std::stod(is[1]);
        const double pitch = is[2].matched ? std::stod(is[2]) : coarse_pitch(diameter, got);
        if (!(diameter > 0.2 && diameter < 60) || !(pitch > 0.05 && pitch < diameter / 2)) refuse(got);
        return {&metric, diameter, pitch};
    }
    if (std::regex_match(got, is, b)) return read_ba(got, std::stoll(is[1].matched ? is[1] : is[2]));
    if (std::regex_match(got, is, w)) return read_whitworth(got, is[1], is[2]);
    if (std::regex_match(got, is, u)) return read_unified(got, is[1], std::stod(is[2]));
    refuse(got);
}

}  // namespace

ThreadResult thread_sizes(const ThreadInput& in) {
    const Thread thread = read(in.thread);
    ThreadResult out;
    out.system = thread.form->system;
    out.diameter_mm = thread.diameter_mm, out.pitch_mm = thread.pitch_mm;
    out.drill_mm = thread.diameter_mm - thread.pitch_mm;
    out.core_mm = thread.diameter_mm - 2 * thread.form->screw_depth * thread.pitch_mm;
    constexpr double clears = 1.05;
    out.clears_mm = std::ceil(20 * clears * thread.diameter_mm) / 20;
    const double hole = in.drill.value_or(out.drill_mm);
    out.engagement = std::max(0.0, (thread.diameter_mm - hole) / (2 * thread.form->table_depth * thread.pitch_mm));
    out.verdict = "Drill " + print_fixed(hole, 2) + " mm: " + print_fixed(100 * out.engagement, 0) +
                  " % of the thread, as tables of drills count it. ";
    if (out.engagement > thread.form->most) out.verdict += "The tap would break: drill " + print_fixed(out.drill_mm, 2) + " mm.";
    else if (out.engagement < thread.form->least) out.verdict += "It strips: a smaller drill, or the next size of screw.";
    else out.verdict += "A turn forward, half a turn back, oil on steel; a blind hole is emptied often.";
    return out;
}

std::vector<Working> explain_thread(const ThreadInput&, const ThreadResult& out) {
    std::vector<Working> list = {work_out("drill before the tap", "d = D − p",
                                          {given("D", "diameter", out.diameter_mm, "mm"), given("p", "pitch", out.pitch_mm, "mm")}, "mm",
                                          thread_source, [](auto x) { return x[0] - x[1]; })};
    list.back().notes.push_back(out.verdict);
    return list;
}

const Record& ThreadInput::record() {
    using In = ThreadInput;
    static const Record record = Fields<In>()
                                     .add("thread", &In::thread, "", "as in \"M3\", \"M3x0.35\", \"BA 6\", \"UN 4-40\", \"W 1/8\"")
                                     .required()
                                     .add("drill", &In::drill, "mm", "that is there, in place of the right one", above(0, 60));
    return record;
}

const Record& ThreadResult::record() {
    using Out = ThreadResult;
    static const Record record = Fields<Out>()
                                     .add("system", &Out::system, "", "metric, BA, UN or Whitworth")
                                     .add("diameter_mm", &Out::diameter_mm, "mm", "over the thread")
                                     .add("pitch_mm", &Out::pitch_mm, "mm", "from thread to thread")
                                     .add("drill_mm", &Out::drill_mm, "mm", "before the tap")
                                     .add("engagement", &Out::engagement, "",
                                          "depth of thread in that hole against the whole one, as tables of tapping drills count it")
                                     .add("core_mm", &Out::core_mm, "mm", "of the screw under its thread")
                                     .add("clears_mm", &Out::clears_mm, "mm", "hole that the screw goes through")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& thread_calculation() {
    static const Calculation calculation =
        declare<ThreadInput, ThreadResult>("hole.tap", "A thread's sizes and the drill before its tap: metric, BA, UN or Whitworth.",
                                           thread_source, thread_sizes, explain_thread);
    return calculation;
}

}  // namespace echappe
