#include <filesystem>

#include "exchange/file_names.h"
#include "fuzz.h"
#include "job/edits.h"
#include "job/file.h"
#include "job/pictures.h"

using namespace echappe;
using namespace echappe::fuzz;

// Titles that are pasted from anywhere, and what files and pictures are called after them.
extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string title(text_of(data, size));
    const std::string name = file_name_of(title, "job");
    must(!name.empty() && name.size() <= 120, "a name is neither empty nor too long");
    must(is_plain_name(name) && name.find('/') == std::string::npos, "a name is plain");
    must(file_name_of(name, "job") == name, "a name is its own name");
    must(one_line(one_line(title)) == one_line(title), "one line is one line");
    must(pictures_beside(name + ".echappe.json") != pictures_beside(name + "x.echappe.json"), "two jobs have two folders");
    must(!is_plain_name(title) || !std::filesystem::path(title).is_absolute(), "a plain name is no whole path");
    answered([&] {
        Job job;
        retitle({{"title", title}}).change(job);
        must(job.title.find('\n') == std::string::npos, "a title stands on one line");
        must(!job_from_text(job_to_text(job)).damaged, "a job by that title can be read again");
        pictures_folder_of("/nowhere/" + name + ".echappe.json");
    });
    return 0;
}
