#include "exchange/archive.h"

#include <zip.h>

#include <algorithm>
#include <memory>

#include "exchange/whole_file.h"
#include "number/input_error.h"

namespace echappe {
namespace {

namespace fs = std::filesystem;

struct Close {
    void operator()(zip_t* zip) const { zip_discard(zip); }
};
using Zip = std::unique_ptr<zip_t, Close>;

[[noreturn]] void refuse(const fs::path& path, const std::string& why, const std::string& takes) {
    throw InputError("archive", "\"" + path.filename().string() + "\" (" + why + ")", takes);
}

Zip open(const fs::path& path, int how) {
    int fault = 0;
    Zip zip(zip_open(path.c_str(), how, &fault));
    if (zip) return zip;
    zip_error_t error;
    zip_error_init_with_code(&error, fault);
    const std::string why = zip_error_strerror(&error);
    zip_error_fini(&error);
    refuse(path, why, "a ZIP archive");
}

/// No name that would leave the folder it is unpacked into.
bool stays_inside(const std::string& name) {
    const fs::path path(name);
    return !name.empty() && path.is_relative() && std::none_of(path.begin(), path.end(), [](const fs::path& part) { return part == ".."; });
}

/// "clock.pictures" beside "clock.echappe.json".
std::string pictures_of(const std::string& job) { return job.substr(0, job.find('.')) + ".pictures"; }

}  // namespace

void write_archive(const fs::path& path, const std::vector<ArchivedFile>& files) {
    const fs::path beside = path.string() + ".part";
    std::error_code gone;
    fs::remove(beside, gone);
    Zip zip = open(beside, ZIP_CREATE | ZIP_EXCL);
    for (const ArchivedFile& file : files) {
        zip_source_t* source = zip_source_buffer(zip.get(), file.content.data(), file.content.size(), 0);
        if (!source || zip_file_add(zip.get(), file.name.c_str(), source, ZIP_FL_ENC_UTF_8) < 0) {
            zip_source_free(source);
            refuse(path, zip_strerror(zip.get()), "room and a folder that can be written");
        }
    }
    zip_t* whole = zip.release();
    if (zip_close(whole) != 0) {
        const std::string why = zip_strerror(whole);
        zip_discard(whole);
        refuse(path, why, "room and a folder that can be written");
    }
    fs::rename(beside, path);
}

std::vector<ArchivedFile> read_archive(const fs::path& path) {
    const Zip zip = open(path, ZIP_RDONLY);
    std::vector<ArchivedFile> files;
    const zip_int64_t count = zip_get_num_entries(zip.get(), 0);
    constexpr zip_uint64_t largest = 512ULL << 20;
    for (zip_int64_t i = 0; i < count; ++i) {
        zip_stat_t is;
        zip_stat_init(&is);
        if (zip_stat_index(zip.get(), static_cast<zip_uint64_t>(i), 0, &is) != 0)
            refuse(path, zip_strerror(zip.get()), "an archive that is whole");
        const std::string name = is.name;
        if (name.ends_with('/')) continue;
        if (!stays_inside(name)) refuse(path, "a file \"" + name + "\" that leads out of it", "an archive of a job");
        if (is.size > largest) refuse(path, "\"" + name + "\" of more than 512 MB", "pictures of ordinary size");
        zip_file_t* file = zip_fopen_index(zip.get(), static_cast<zip_uint64_t>(i), 0);
        std::string content(is.size, '\0');
        const bool whole = file && zip_fread(file, content.data(), is.size) == static_cast<zip_int64_t>(is.size);
        if (file) zip_fclose(file);
        if (!whole) refuse(path, "\"" + name + "\" cannot be read", "an archive that is whole");
        files.push_back({name, std::move(content)});
    }
    return files;
}

std::vector<ArchivedFile> job_with_pictures(const fs::path& job) {
    const std::string name = job.filename().string();
    std::vector<ArchivedFile> files = {{name, read_text(job)}};
    const fs::path pictures = job.parent_path() / pictures_of(name);
    if (!fs::is_directory(pictures)) return files;
    for (const auto& entry : fs::recursive_directory_iterator(pictures))
        if (entry.is_regular_file())
            files.push_back({(pictures_of(name) / fs::relative(entry.path(), pictures)).generic_string(), read_text(entry.path())});
    std::sort(files.begin() + 1, files.end(), [](const ArchivedFile& a, const ArchivedFile& b) { return a.name < b.name; });
    return files;
}

fs::path unpack_job(const fs::path& archive, const fs::path& folder) {
    const std::vector<ArchivedFile> files = read_archive(archive);
    const auto job = std::find_if(files.begin(), files.end(), [](const ArchivedFile& file) {
        return file.name.ends_with(".echappe.json") && file.name.find('/') == std::string::npos;
    });
    if (job == files.end()) refuse(archive, "no job in it", "an archive with a job file (.echappe.json)");
    for (const ArchivedFile& file : files)
        if (fs::exists(folder / file.name))
            throw InputError("folder", "\"" + (folder / file.name).string() + "\", which is there already",
                             "a folder without it: nothing is written over");
    for (const ArchivedFile& file : files) {
        fs::create_directories((folder / file.name).parent_path());
        save_text(folder / file.name, file.content);
    }
    return folder / job->name;
}

}  // namespace echappe
