#include <cmath>
#include <functional>
#include <vector>

#include "beat/readings.h"
#include "fuzz.h"
#include "job/file.h"
#include "number/numeral.h"
#include "number/units.h"
#include "survey/round.h"
#include "topic.h"
#include "train/reading.h"

using namespace echappe;
using namespace echappe::fuzz;

namespace {

const Job& demo() {
    static const Job job = job_from_text(read_text(DEMO_FOLDER "/tide-house.echappe.json")).job;
    return job;
}

void must_be_finite(double value) { must(std::isfinite(value), "what is read is finite"); }

/// The entries, each by the way it reads.
std::vector<std::function<void(const std::string&)>> entries() {
    static const Derived derived = derive(demo());
    std::vector<std::function<void(const std::string&)>> all;
    all.push_back([](const std::string& text) {
        if (const auto number = read_number(text)) must_be_finite(*number);
    });
    all.push_back([](const std::string& text) { must_be_finite(read_look(text, 1.7e9).shown_s); });
    for (const Unit& unit : units())
        all.push_back([&unit](const std::string& text) {
            const Reading reading = parse_reading(text, unit, "entry");
            must_be_finite(reading.value);
            if (reading.u) must(std::isfinite(*reading.u) && *reading.u > 0, "an uncertainty is finite and above 0");
        });
    for (const Measurable& measurable : derived.train.measurables)
        all.push_back([&measurable](const std::string& text) {
            must_be_finite(read_evidence(demo().train, demo().length, measurable.key, text).value);
        });
    for (const SurveyQuestion& question : survey_round(demo().survey, demo().train, demo().length, derived.pivots))
        all.push_back([question](const std::string& text) { must_be_finite(read_survey(demo().train, demo().length, question, text)); });
    return all;
}

}  // namespace

// What is typed or pasted at the bench: the entry that the first letter names takes it as a finite figure or says what it takes.
extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const auto all = entries();
    if (size == 0) return 0;
    answered([&] { all[data[0] % all.size()](std::string(text_of(data + 1, size - 1))); });
    return 0;
}
