#include <cstdlib>
#include <filesystem>
#include <set>

#include "exchange/archive.h"
#include "exchange/file_names.h"
#include "in_memory.h"

using namespace echappe;
using namespace echappe::fuzz;
namespace fs = std::filesystem;

namespace {

/// A folder of its own, in memory where the system has such.
fs::path make_folder() {
    std::string name = (fs::exists("/dev/shm") ? "/dev/shm" : fs::temp_directory_path().string()) + "/echappe-fuzz-XXXXXX";
    must(mkdtemp(name.data()) != nullptr, "a folder can be made");
    return name;
}

}  // namespace

// An archive from anywhere: the job and its pictures come out of it, or a sentence; nothing else is written, and nothing outside.
extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const fs::path folder = make_folder();
    const fs::path to = folder / "to";
    const std::string zip = in_memory(data, size);
    answered([&] {
        for (const std::string& name : names_in_archive(zip)) must(is_plain_name(name), "a name that is told stays where it is unpacked");
    });
    answered([&] {
        const UnpackedJob out = unpack_job(zip, to);
        must(fs::is_regular_file(out.job) && out.job.parent_path() == to, "the job lies in the folder");
        const std::string job = out.job.filename().string();
        for (const auto& entry : fs::recursive_directory_iterator(to)) {
            const std::string inside = fs::relative(entry.path(), to).generic_string();
            must(!entry.is_symlink(), "no link comes out");
            must(entry.is_directory() || inside == job || inside.starts_with(pictures_beside(job) + "/"),
                 "only the job and its pictures come out");
        }
    });
    fs::remove_all(to);
    must(fs::is_empty(folder), "nothing is written outside");
    return 0;
}
