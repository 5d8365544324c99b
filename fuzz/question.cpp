#include "train/question.h"
#include "fuzz.h"
#include "job/derived.h"
#include "job/file.h"

using namespace echappe;
using namespace echappe::fuzz;

// The line in which a train is asked for.
extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const Job job = job_from_text(read_text(DEMO_FOLDER "/tide-house.echappe.json")).job;
    answered([&] {
        read_train_question(job.train, std::string(text_of(data, size)), {{0.6, 0.8, 1}, [](long long count) { return count % 7 != 0; }});
    });
    return 0;
}
