#include "train/written.h"

#include "fuzz.h"
#include "job/derived.h"
#include "job/file.h"

using namespace echappe;
using namespace echappe::fuzz;

// The text of a movement, by itself and over a job: what is read without a fault is a job, and reads the same when written.
extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const Job demo = job_from_text(read_text(DEMO_FOLDER "/tide-house.echappe.json")).job;
    const std::string text(text_of(data, size));
    for (const Job& before : {Job(), demo}) {
        const Written written = read_written(text, before.train, before.teeth);
        for (const WrittenFault& fault : written.faults)
            must(fault.at + fault.length <= text.size() && !fault.accepts.empty(), "a fault stands in the text and says what it takes");
        if (!written.faults.empty() || written.train.arbors.empty()) continue;
        Job job = before;
        job.train = written.train;
        job.teeth.forms = written.forms;
        must(job_from_text(job_to_text(job)).faults.empty(), "what is read without a fault is a job");
        const std::string again = write_down(job.train, job.teeth);
        const Written back = read_written(again, job.train, job.teeth);
        must(back.faults.empty() && write_down(back.train, {back.forms}) == again, "what is written down is read again");
    }
    return 0;
}
