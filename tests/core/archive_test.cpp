#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>

#include "exchange/archive.h"
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
