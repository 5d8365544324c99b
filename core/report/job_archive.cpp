#include "report/job_archive.h"

#include "exchange/archive.h"
#include "number/input_error.h"

namespace echappe {
namespace {

constexpr const char* job_archive_source = "ZIP, by libzip";

}  // namespace

JobArchiveResult job_archive(const JobArchiveInput& in) {
    JobArchiveResult out;
    if (in.job.empty() == in.folder.empty())
        throw InputError("job", in.job.empty() ? "nothing" : "a job and a folder",
                         "the job that is put into it, or the folder it is unpacked into");
    if (in.job.empty()) out.job = unpack_job(in.archive, in.folder).string();
    else write_archive(in.archive, job_with_pictures(in.job));
    for (const ArchivedFile& file : read_archive(in.archive)) out.files.push_back(file.name);
    return out;
}

std::vector<Working> explain_job_archive(const JobArchiveInput&, const JobArchiveResult& out) {
    std::vector<Working> list = {work_out("files in it", "n", {given("n", "files", static_cast<double>(out.files.size()), "")}, "",
                                          job_archive_source, [](auto x) { return x[0]; })};
    for (const std::string& file : out.files) list.back().notes.push_back(file);
    return list;
}

const Record& JobArchiveInput::record() {
    using In = JobArchiveInput;
    static const Record record = Fields<In>()
                                     .add("archive", &In::archive, "", "path of the ZIP")
                                     .required()
                                     .add("job", &In::job, "", "path of the job file that is put into it with its pictures")
                                     .add("folder", &In::folder, "", "into which it is unpacked");
    return record;
}

const Record& JobArchiveResult::record() {
    using Out = JobArchiveResult;
    static const Record record =
        Fields<Out>().add("files", &Out::files, "", "in it").add("job", &Out::job, "", "path of the job that was unpacked");
    return record;
}

const Calculation& job_archive_calculation() {
    static const Calculation calculation =
        declare<JobArchiveInput, JobArchiveResult>("job.archive", "A job file and its folder of pictures in one ZIP, and unpacked again.",
                                                   job_archive_source, job_archive, explain_job_archive);
    return calculation;
}

}  // namespace echappe
