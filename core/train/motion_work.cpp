#include "train/motion_work.h"

#include <algorithm>
#include <cmath>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* motion_work_source = "minute wheel ÷ cannon × hour wheel ÷ minute pinion; m1 (N1 + n1) = m2 (N2 + n2)";
constexpr double module_ratio_at_most = 1.5;

/// Pairs of stock modules for which both meshes have one centre distance; without stock the set as it is.
void take(const MotionWorkInput& in, const MotionWork& set, std::vector<MotionWork>& out) {
    if (in.stock_modules_mm.empty()) return out.push_back(set);
    for (const double minute : in.stock_modules_mm)
        for (const double hour : in.stock_modules_mm) {
            const double one = minute * static_cast<double>(set.cannon_pinion + set.minute_wheel) / 2;
            const double two = hour * static_cast<double>(set.minute_pinion + set.hour_wheel) / 2;
            if (std::abs(one / two - 1) > in.stock_tolerance || (in.equal_modules && minute != hour)) continue;
            MotionWork fitted = set;
            fitted.minute_module_mm = minute;
            fitted.hour_module_mm = hour;
            fitted.centre_distance_mm = (one + two) / 2;
            out.push_back(fitted);
        }
}

}  // namespace

const Record& MotionWorkInput::record() {
    using In = MotionWorkInput;
    static const Record record =
        Fields<In>()
            .add("ratio", &In::ratio, "", "turns of the cannon per turn of the hour wheel", between(2, 100))
            .because("the hour hand goes round once in twelve hours")
            .add("wheel", &In::wheel, "", "teeth of minute and hour wheel")
            .add("pinion", &In::pinion, "", "leaves of cannon and minute pinion")
            .add("equal_modules", &In::equal_modules, "", "only sets that one module serves")
            .add("stock_modules_mm", &In::stock_modules_mm, "mm", "only pairs of these modules", above(0, 50))
            .add("stock_tolerance", &In::stock_tolerance, "", "how far the two centre distances may part, relative", between(0, 0.1))
            .because("0.2 % of a centre distance is within what depths bear")
            .add("best", &In::best, "", "how many to list", between(1, 100000))
            .because("what can be looked through by eye");
    return record;
}

const Record& MotionWork::record() {
    using Out = MotionWork;
    static const Record record = Fields<Out>()
                                     .add("cannon_pinion", &Out::cannon_pinion, "", "leaves, on the centre arbor")
                                     .add("minute_wheel", &Out::minute_wheel, "", "teeth, driven by it")
                                     .add("minute_pinion", &Out::minute_pinion, "", "leaves, on the minute wheel")
                                     .add("hour_wheel", &Out::hour_wheel, "", "teeth, driven by it")
                                     .add("module_ratio", &Out::module_ratio, "", "hour mesh ÷ minute mesh")
                                     .add("equal_modules", &Out::equal_modules, "", "one module serves both")
                                     .add("minute_module_mm", &Out::minute_module_mm, "mm", "from stock")
                                     .add("hour_module_mm", &Out::hour_module_mm, "mm", "from stock")
                                     .add("centre_distance_mm", &Out::centre_distance_mm, "mm", "of both meshes")
                                     .add("sum", &Out::sum, "", "teeth and leaves together");
    return record;
}

const Record& MotionWorkResult::record() {
    using Out = MotionWorkResult;
    static const Record record = Fields<Out>()
                                     .add("solutions", &Out::solutions, "", "equal modules first, then the fewest teeth")
                                     .add("count", &Out::count, "", "all of them, also beyond the list")
                                     .add("complete", &Out::complete, "", "every set of counts was looked at");
    return record;
}

MotionWorkResult find_motion_work(const MotionWorkInput& in) {
    for (const auto& [name, range] : {std::pair("wheel", in.wheel), std::pair("pinion", in.pinion)})
        if (range.min > range.max)
            throw InputError(name, std::to_string(range.min) + " to " + std::to_string(range.max), "min not above max");
    MotionWorkResult out;
    for (long long cannon = in.pinion.min; cannon <= in.pinion.max; ++cannon)
        for (long long minute = in.wheel.min; minute <= in.wheel.max; ++minute)
            for (long long pinion = in.pinion.min; pinion <= in.pinion.max; ++pinion) {
                // hour = ratio × cannon × pinion ÷ minute, a whole number or none.
                const long long above = in.ratio * cannon * pinion;
                if (above % minute != 0) continue;
                const long long hour = above / minute;
                if (hour < in.wheel.min || hour > in.wheel.max) continue;
                MotionWork set{cannon, minute, pinion, hour};
                set.module_ratio = static_cast<double>(cannon + minute) / static_cast<double>(pinion + hour);
                set.equal_modules = cannon + minute == pinion + hour;
                set.sum = cannon + minute + pinion + hour;
                if (in.equal_modules && !set.equal_modules) continue;
                if (std::max(set.module_ratio, 1 / set.module_ratio) > module_ratio_at_most) continue;
                take(in, set, out.solutions);
            }
    out.count = static_cast<long long>(out.solutions.size());
    std::stable_sort(out.solutions.begin(), out.solutions.end(), [](const MotionWork& a, const MotionWork& b) {
        return a.equal_modules != b.equal_modules ? a.equal_modules : a.sum < b.sum;
    });
    if (out.count > in.best) out.solutions.resize(static_cast<size_t>(in.best));
    return out;
}

std::vector<Working> explain_motion_work(const MotionWorkInput&, const MotionWorkResult& out) {
    std::vector<Working> workings;
    for (const MotionWork& set : out.solutions) {
        const auto term = [](const char* symbol, const char* meaning, long long count) {
            return Term{symbol, meaning, {static_cast<double>(count), 0}, "", 0};
        };
        workings.push_back(work_out("hour hand", "i = N1 ÷ n1 × N2 ÷ n2",
                                    {term("N1", "minute wheel", set.minute_wheel), term("n1", "cannon pinion", set.cannon_pinion),
                                     term("N2", "hour wheel", set.hour_wheel), term("n2", "minute pinion", set.minute_pinion)},
                                    "", motion_work_source, [](auto x) { return x[0] / x[1] * x[2] / x[3]; }));
        workings.back().notes.push_back(set.equal_modules ? "one module serves both meshes"
                                                          : "the hour mesh needs " + print_short(set.module_ratio, 5) +
                                                                " times the minute mesh's module");
        if (workings.size() == 8) break;
    }
    return workings;
}

const Calculation& motion_work_calculation() {
    static const Calculation calculation = declare<MotionWorkInput, MotionWorkResult>(
        "motion.find", "Motion work: every set of cannon, minute and hour counts on one centre distance.", motion_work_source,
        find_motion_work, explain_motion_work);
    return calculation;
}

}  // namespace echappe
