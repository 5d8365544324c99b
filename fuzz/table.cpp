#include <functional>
#include <vector>

#include "beat/readings.h"
#include "exchange/outline_in.h"
#include "fuzz.h"
#include "job/file.h"
#include "power/readings.h"
#include "stock/stock.h"
#include "survey/round.h"
#include "train/places.h"

using namespace echappe;
using namespace echappe::fuzz;

namespace {

/// Reads a list, and what is written of it reads back the same.
template <class Item>
void list(const std::string& csv, std::vector<Item> (*read)(const std::string&), std::string (*write)(const std::vector<Item>&)) {
    const std::string written = write(read(csv));
    must(write(read(written)) == written, "a list that was written reads back the same");
}

void looks(const std::string& csv) {
    RateLog log;
    keep_looks_csv(log, csv);
    RateLog again;
    keep_looks_csv(again, looks_to_csv(log));
    must(looks_to_csv(again) == looks_to_csv(log), "looks that were written read back the same");
}

void torque(const std::string& csv) {
    DriveRecord drive;
    keep_torque_csv(drive, csv);
    DriveRecord again;
    keep_torque_csv(again, torque_to_csv(drive));
    must(torque_to_csv(again) == torque_to_csv(drive), "torques that were written read back the same");
}

void holes(const std::string& csv) {
    Job job;
    for (const char* name : {"great", "centre", "third"}) job.train.arbors.emplace_back().train.id = name;
    keep_survey_csv(job.survey.pivots, job.train, csv);
    must(job_to_text(job_from_text(job_to_text(job)).job) == job_to_text(job), "holes that were read are kept");
}

void places(const std::string& csv) {
    Job job;
    for (const char* name : {"great", "centre", "third"}) job.train.arbors.emplace_back().train.id = name;
    keep_places_csv(job.train, csv);
    must(job_to_text(job_from_text(job_to_text(job)).job) == job_to_text(job), "places that were read are kept");
}

const std::vector<std::function<void(const std::string&)>> readers = {
    holes,
    looks,
    torque,
    [](const std::string& csv) { list(csv, cutters_from_csv, cutters_to_csv); },
    [](const std::string& csv) { list(csv, plates_from_csv, plates_to_csv); },
    [](const std::string& csv) { list(csv, leaves_from_csv, leaves_to_csv); },
    [](const std::string& csv) { list(csv, bushes_from_csv, bushes_to_csv); },
    [](const std::string& csv) { list(csv, reamers_from_csv, reamers_to_csv); },
    [](const std::string& csv) { list(csv, strips_from_csv, strips_to_csv); },
    [](const std::string& csv) { outlines_from_csv(csv); },
    places,
};

}  // namespace

// Every table that is read. The first letter says which, "a" the first of the list above; the rest is the table.
extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size == 0) return 0;
    const std::string csv(text_of(data + 1, size - 1));
    answered([&] { readers[static_cast<unsigned char>(data[0] - 'a') % readers.size()](csv); });
    return 0;
}
