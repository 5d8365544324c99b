#include <zip.h>

#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <set>

#include "exchange/archive.h"
#include "exchange/file_names.h"
#include "exchange/whole_file.h"
#include "number/input_error.h"
#include "report/job_archive.h"
#include "support/demo.h"
#include "support/files.h"

using namespace echappe;
namespace fs = std::filesystem;

TEST_CASE("a job with its pictures goes into one archive and comes back as it was, byte by byte") {
    const Folder from, to;
    const fs::path job = from.path / "clock.echappe.json";
    save_text(job, demo::text("granary.echappe.json"));
    fs::create_directories(from.path / "clock.pictures/more");
    std::string bytes;
    for (int i = 0; i < 70000; ++i) bytes += static_cast<char>(i * 7919 >> 3);
    save_text(from.path / "clock.pictures/one.png", bytes);
    save_text(from.path / "clock.pictures/more/two.jpg", "x");
    const fs::path zip = from.path / "clock.zip";
    CHECK(job_archive({zip.string(), job.string(), ""}).files.size() == 3);
    const JobArchiveResult back = job_archive({zip.string(), "", to.path.string()});
    CHECK(read_text(back.job) == read_text(job));
    CHECK(read_text(to.path / "clock.pictures/one.png") == bytes);
    CHECK(read_text(to.path / "clock.pictures/more/two.jpg") == "x");
    // What is there is not written over.
    CHECK_THROWS_WITH(unpack_job(zip, to.path), Catch::Contains("nothing is written over"));
}

TEST_CASE("an archive that would write outside of its folder, or is none, is refused") {
    const Folder folder;
    const fs::path bad = folder.path / "bad.zip";
    write_archive(bad, {{"../out.echappe.json", "{}"}});
    CHECK_THROWS_WITH(read_archive(bad), Catch::Contains("leads out of it"));
    save_text(folder.path / "text.zip", "no archive");
    CHECK_THROWS_AS(read_archive(folder.path / "text.zip"), InputError);
    write_archive(bad, {{"picture.png", "x"}});
    CHECK_THROWS_WITH(unpack_job(bad, folder.path), Catch::Contains("no job in it"));
    CHECK_THROWS_AS(write_archive(folder.path / "nowhere/there.zip", {{"a", "b"}}), InputError);
    CHECK_THROWS_WITH(job_archive({bad.string(), "", ""}), Catch::StartsWith("job"));
}

namespace {

/// Every file below a folder, hidden ones too.
std::set<std::string> all_in(const fs::path& folder) {
    std::set<std::string> names;
    for (const auto& entry : fs::recursive_directory_iterator(folder))
        if (!entry.is_directory()) names.insert(fs::relative(entry.path(), folder).generic_string());
    return names;
}

const std::string job_text = demo::text("granary.echappe.json");

}  // namespace

TEST_CASE("only the job and its pictures come out of an archive, whatever else lies in it") {
    const Folder folder;
    const fs::path zip = folder / "in.zip", to = folder / "to";
    write_archive(zip, {{"clock.echappe.json", job_text},
                        {"clock.pictures/one.png", "1"},
                        {"other.pictures/two.png", "2"},
                        {"run.sh", "#!/bin/sh"},
                        {"bin/tool", "x"}});
    const UnpackedJob out = unpack_job(zip, to);
    CHECK(out.job == to / "clock.echappe.json");
    CHECK(all_in(to) == std::set<std::string>{"clock.echappe.json", "clock.pictures/one.png"});
    CHECK(out.left_in == std::vector<std::string>{"other.pictures/two.png", "run.sh", "bin/tool"});
    CHECK(job_archive({zip.string(), "", (folder / "again").string()}).left_in == out.left_in);
}

TEST_CASE("hidden, absolute and doubled names refuse the whole archive, and nothing of it is written") {
    for (const char* name : {".bash_profile", "clock.pictures/.hidden.png", ".config/autostart/evil.desktop", "/tmp/echappe-out.json",
                             "clock.pictures/../../up.png"}) {
        INFO(name);
        const Folder folder;
        write_archive(folder / "in.zip", {{"clock.echappe.json", job_text}, {name, "x"}});
        CHECK_THROWS_WITH(unpack_job(folder / "in.zip", folder / "to"), Catch::Contains("hidden or leads out of it"));
        CHECK(all_in(folder.path) == std::set<std::string>{"in.zip"});
    }
}

TEST_CASE("a link in an archive is refused, and so is a folder of pictures that is one") {
    const Folder folder;
    const fs::path zip = folder / "in.zip";
    {
        zip_t* made = zip_open(zip.c_str(), ZIP_CREATE, nullptr);
        zip_file_add(made, "clock.echappe.json", zip_source_buffer(made, job_text.data(), job_text.size(), 0), 0);
        const auto at = zip_file_add(made, "clock.pictures/one.png", zip_source_buffer(made, "/etc/passwd", 11, 0), 0);
        zip_file_set_external_attributes(made, static_cast<zip_uint64_t>(at), 0, ZIP_OPSYS_UNIX, 0120777u << 16);
        REQUIRE(zip_close(made) == 0);
    }
    CHECK_THROWS_WITH(unpack_job(zip, folder / "to"), Catch::Contains("a link"));
    write_archive(folder / "good.zip", {{"clock.echappe.json", job_text}, {"clock.pictures/one.png", "1"}});
    fs::create_directories(folder / "there/elsewhere");
    fs::create_directory_symlink(folder / "there/elsewhere", folder / "there/clock.pictures");
    CHECK_THROWS_WITH(unpack_job(folder / "good.zip", folder / "there"), Catch::Contains("a link"));
    CHECK(all_in(folder / "there/elsewhere").empty());
}

TEST_CASE("an archive that would be larger than all of a job is refused before any of it is unpacked") {
    const Folder folder;
    const fs::path zip = folder / "in.zip";
    write_archive(zip, {{"clock.echappe.json", job_text}, {"clock.pictures/one.png", std::string(3000, 'x')}});
    // The length that its directory tells is made four gigabytes.
    std::string bytes = read_text(zip);
    const size_t entry = bytes.rfind("PK\x01\x02");
    constexpr size_t length_at = 24;
    for (size_t i = 0; i < 4; ++i) bytes[entry + length_at + i] = '\xf0';
    save_text(zip, bytes);
    CHECK_THROWS_WITH(unpack_job(zip, folder / "to"), Catch::Contains("1024 MB when it is unpacked"));
    // A smaller lie is found when it is read.
    for (size_t i = 0; i < 4; ++i) bytes[entry + length_at + i] = i == 1 ? '\x20' : '\0';
    save_text(zip, bytes);
    CHECK_THROWS_AS(unpack_job(zip, folder / "to"), InputError);
    CHECK_FALSE(fs::exists(folder / "to/clock.pictures/one.png"));
}

TEST_CASE("a job file by any name goes into an archive and comes out again") {
    for (const char* name : {"plain.json", "Clock No. 3.echappe.json", "x.y.json"}) {
        INFO(name);
        const Folder folder;
        save_text(folder / name, job_text);
        fs::create_directory(folder / pictures_beside(name));
        save_text(folder / pictures_beside(name) / "one.png", "1");
        job_archive({(folder / "a.zip").string(), (folder / name).string(), ""});
        const JobArchiveResult back = job_archive({(folder / "a.zip").string(), "", (folder / "to").string()});
        CHECK(read_text(back.job) == job_text);
        CHECK(all_in(folder / "to").size() == 2);
    }
}

TEST_CASE("one customer's archive never holds another's pictures, where an earlier version put them into one folder too") {
    const Folder folder;
    Job three = demo::job("granary");
    three.photo = "three.png";
    save_job(folder / "clock no. 3.echappe.json", three);
    save_text(folder / "clock no. 4.echappe.json", job_text);
    fs::create_directory(folder / "clock no.pictures");
    save_text(folder / "clock no.pictures/three.png", "3");
    save_text(folder / "clock no.pictures/four.png", "4");
    std::vector<std::string> names;
    for (const ArchivedFile& file : job_with_pictures(folder / "clock no. 3.echappe.json")) names.push_back(file.name);
    CHECK(names == std::vector<std::string>{"clock no. 3.echappe.json", "clock no. 3.pictures/three.png"});
    CHECK(job_with_pictures(folder / "clock no. 4.echappe.json").size() == 1);
}

TEST_CASE("two jobs in one archive are refused: which of them is meant nobody can tell") {
    const Folder folder;
    write_archive(folder / "in.zip", {{"a.echappe.json", job_text}, {"b.echappe.json", job_text}});
    CHECK_THROWS_WITH(unpack_job(folder / "in.zip", folder / "to"), Catch::Contains("an archive of one job"));
}
