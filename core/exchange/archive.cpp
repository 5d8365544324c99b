#include "exchange/archive.h"

#include <zip.h>

#include <algorithm>
#include <memory>
#include <set>

#include "exchange/file_names.h"
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

/// What one entry is, before anything of it is read.
struct Entry {
    zip_uint64_t at = 0;
    std::string name;
    std::uint64_t size = 0;
};

bool is_link(zip_t* zip, zip_uint64_t at) {
    zip_uint8_t system = 0;
    zip_uint32_t attributes = 0;
    constexpr zip_uint32_t kind = 0170000, link = 0120000;
    return zip_file_get_external_attributes(zip, at, 0, &system, &attributes) == 0 && ((attributes >> 16) & kind) == link;
}

/// Every file of an archive that may be unpacked; what may not be refuses the whole of it.
std::vector<Entry> entries_of(zip_t* zip, const fs::path& path) {
    const zip_int64_t count = zip_get_num_entries(zip, 0);
    if (count < 0 || static_cast<std::uint64_t>(count) > most_archived)
        refuse(path, std::to_string(count) + " files", "at most " + std::to_string(most_archived));
    std::vector<Entry> entries;
    std::set<std::string> names;
    std::uint64_t whole = 0;
    for (zip_uint64_t i = 0; i < static_cast<zip_uint64_t>(count); ++i) {
        zip_stat_t is;
        zip_stat_init(&is);
        if (zip_stat_index(zip, i, 0, &is) != 0 || !(is.valid & ZIP_STAT_NAME) || !(is.valid & ZIP_STAT_SIZE))
            refuse(path, zip_strerror(zip), "an archive that is whole");
        const std::string name = is.name;
        if (name.ends_with('/')) continue;
        if (!is_plain_name(name))
            refuse(path, "a file \"" + one_line(name) + "\" that is hidden or leads out of it", "an archive of a job");
        if (is_link(zip, i)) refuse(path, "\"" + name + "\", a link", "an archive of a job: its files and nothing that leads elsewhere");
        if (!names.insert(name).second) refuse(path, "\"" + name + "\" a second time", "an archive that holds each file once");
        if (is.size > largest_archive || whole + is.size > largest_archive)
            refuse(path, "more than " + std::to_string(largest_archive >> 20) + " MB when it is unpacked", "less than that in all");
        whole += is.size;
        entries.push_back({i, name, is.size});
    }
    return entries;
}

/// As much as was announced, and no more: what is announced wrong is not whole.
std::string content_of(zip_t* zip, const fs::path& path, const Entry& entry) {
    const std::unique_ptr<zip_file_t, int (*)(zip_file_t*)> file(zip_fopen_index(zip, entry.at, 0), zip_fclose);
    std::string content;
    constexpr std::uint64_t piece = 1 << 20;
    bool whole = file != nullptr;
    while (whole && content.size() < entry.size) {
        const size_t had = content.size();
        content.resize(had + std::min(piece, entry.size - had));
        const zip_int64_t got = zip_fread(file.get(), content.data() + had, content.size() - had);
        whole = got > 0;
        content.resize(had + static_cast<size_t>(std::max<zip_int64_t>(got, 0)));
    }
    char more = 0;
    // The end is read too: there the sum of what was read is checked.
    if (!whole || zip_fread(file.get(), &more, 1) != 0) refuse(path, "\"" + entry.name + "\" cannot be read", "an archive that is whole");
    return content;
}

bool at_top(const std::string& name) { return name.find('/') == std::string::npos; }

/// The one job that lies at the top of it.
std::string job_in(const fs::path& archive, const std::vector<Entry>& entries) {
    for (const char* ending : {".echappe.json", ".json"}) {
        std::vector<std::string> jobs;
        for (const Entry& entry : entries)
            if (at_top(entry.name) && entry.name.ends_with(ending)) jobs.push_back(entry.name);
        if (jobs.size() == 1) return jobs.front();
        if (jobs.size() > 1) refuse(archive, "\"" + jobs[0] + "\" and \"" + jobs[1] + "\"", "an archive of one job");
    }
    refuse(archive, "no job in it", "an archive with a job file (.echappe.json)");
}

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

std::vector<std::string> names_in_archive(const fs::path& path) {
    const Zip zip = open(path, ZIP_RDONLY);
    std::vector<std::string> names;
    for (Entry& entry : entries_of(zip.get(), path)) names.push_back(std::move(entry.name));
    return names;
}

std::vector<ArchivedFile> read_archive(const fs::path& path) {
    const Zip zip = open(path, ZIP_RDONLY);
    std::vector<ArchivedFile> files;
    for (const Entry& entry : entries_of(zip.get(), path)) files.push_back({entry.name, content_of(zip.get(), path, entry)});
    return files;
}

UnpackedJob unpack_job(const fs::path& archive, const fs::path& folder) {
    const Zip zip = open(archive, ZIP_RDONLY);
    const std::vector<Entry> entries = entries_of(zip.get(), archive);
    const std::string job = job_in(archive, entries);
    const std::string pictures = pictures_beside(job) + "/";
    UnpackedJob out{folder / job, {}};
    std::vector<Entry> wanted;
    std::uint64_t whole = 0;
    for (const Entry& entry : entries) {
        if (entry.name != job && !entry.name.starts_with(pictures)) {
            out.left_in.push_back(entry.name);
            continue;
        }
        if (fs::exists(fs::symlink_status(folder / entry.name)))
            throw InputError("folder", "\"" + (folder / entry.name).string() + "\", which is there already",
                             "a folder without it: nothing is written over");
        whole += entry.size;
        wanted.push_back(entry);
    }
    std::error_code none;
    fs::create_directories(folder, none);
    if (const fs::space_info room = fs::space(folder, none); !none && room.available < whole)
        throw InputError("folder", std::to_string(room.available >> 20) + " MB of free room",
                         "room for the " + std::to_string((whole >> 20) + 1) + " MB that come out of it");
    // A folder of pictures that is a link would lead elsewhere.
    if (fs::is_symlink(fs::symlink_status(folder / pictures_beside(job))))
        throw InputError("folder", "\"" + (folder / pictures_beside(job)).string() + "\", a link", "a folder without it");
    for (const Entry& entry : wanted) {
        fs::create_directories((folder / entry.name).parent_path());
        save_text(folder / entry.name, content_of(zip.get(), archive, entry));
    }
    return out;
}

}  // namespace echappe
