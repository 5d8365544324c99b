#include "report/job_archive.h"

#include <algorithm>

#include "exchange/file_names.h"
#include "exchange/whole_file.h"
#include "job/file.h"
#include "job/pictures.h"
#include "number/input_error.h"

namespace echappe {
namespace {

constexpr const char* job_archive_source = "ZIP, by libzip";

}  // namespace

std::vector<ArchivedFile> job_with_pictures(const std::filesystem::path& job) {
    namespace fs = std::filesystem;
    const std::string name = job.filename().string();
    std::vector<ArchivedFile> files = {{name, read_text(job)}};
    const fs::path folder = pictures_folder_of(job);
    if (!fs::is_directory(folder)) return files;
    const std::string own = pictures_beside(name);
    // A folder by another name may hold pictures of other jobs: of that only what this job names.
    const bool shared = folder.filename() != own;
    const std::vector<std::string> named = shared ? pictures_named(job_from_text(files.front().content).job) : std::vector<std::string>();
    for (const auto& entry : fs::recursive_directory_iterator(folder)) {
        const std::string inside = fs::relative(entry.path(), folder).generic_string();
        // What could not be unpacked again is not packed: what a file manager leaves behind, links.
        if (!entry.is_regular_file() || entry.is_symlink() || !is_plain_name(inside)) continue;
        if (shared && std::find(named.begin(), named.end(), inside) == named.end()) continue;
        files.push_back({own + "/" + inside, read_text(entry.path())});
    }
    std::sort(files.begin() + 1, files.end(), [](const ArchivedFile& a, const ArchivedFile& b) { return a.name < b.name; });
    return files;
}

JobArchiveResult job_archive(const JobArchiveInput& in) {
    JobArchiveResult out;
    if (in.job.empty() == in.folder.empty())
        throw InputError("job", in.job.empty() ? "nothing" : "a job and a folder",
                         "the job that is put into it, or the folder it is unpacked into");
    if (in.job.empty()) {
        const UnpackedJob unpacked = unpack_job(in.archive, in.folder);
        out.job = unpacked.job.string();
        out.left_in = unpacked.left_in;
    } else {
        write_archive(in.archive, job_with_pictures(in.job));
    }
    out.files = names_in_archive(in.archive);
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
    static const Record record = Fields<Out>()
                                     .add("files", &Out::files, "", "in it")
                                     .add("job", &Out::job, "", "path of the job that was unpacked")
                                     .add("left_in", &Out::left_in, "", "files that were not unpacked: neither the job nor its pictures");
    return record;
}

const Calculation& job_archive_calculation() {
    static const Calculation calculation =
        declare<JobArchiveInput, JobArchiveResult>("job.archive", "A job file and its folder of pictures in one ZIP, and unpacked again.",
                                                   job_archive_source, job_archive, explain_job_archive);
    return calculation;
}

}  // namespace echappe
