#include <sys/stat.h>

#include <catch2/catch.hpp>
#include <filesystem>

#include "exchange/whole_file.h"
#include "number/input_error.h"
#include "support/files.h"

using namespace echappe;
namespace fs = std::filesystem;

namespace {

mode_t mode_of(const fs::path& path) {
    struct stat found {};
    REQUIRE(stat(path.c_str(), &found) == 0);
    return found.st_mode & 07777;
}

}  // namespace

TEST_CASE("on a full disk the old file stands and nothing lies beside it") {
    const Folder folder;
    save_text(folder / "a.csv", "as it was");
    {
        const FullDisk full(1000);
        CHECK_THROWS_AS(save_text(folder / "a.csv", std::string(100000, 'x')), InputError);
    }
    CHECK(read_text(folder / "a.csv") == "as it was");
    CHECK(folder.files() == 1);
}

TEST_CASE("files that belong together are all replaced or none") {
    const Folder folder;
    save_text(folder / "a.csv", "old a");
    save_text(folder / "b.csv", "old b");
    {
        const FullDisk full(1000);
        CHECK_THROWS_AS(save_texts({{folder / "a.csv", "new a"}, {folder / "b.csv", std::string(100000, 'x')}}), InputError);
    }
    CHECK(read_text(folder / "a.csv") == "old a");
    CHECK(read_text(folder / "b.csv") == "old b");
    save_texts({{folder / "a.csv", "new a"}, {folder / "b.csv", "new b"}});
    CHECK(read_text(folder / "a.csv") == "new a");
    CHECK(read_text(folder / "b.csv") == "new b");
    CHECK(folder.files() == 2);
}

TEST_CASE("a new file may be read by whom the system's mask lets, a file that is there keeps its own mode") {
    const Folder folder;
    const mode_t before = umask(077);
    save_text(folder / "private.json", "{}");
    umask(002);
    save_text(folder / "shared.json", "{}");
    umask(before);
    CHECK(mode_of(folder / "private.json") == 0600);
    CHECK(mode_of(folder / "shared.json") == 0664);
    chmod((folder / "shared.json").c_str(), 0640);
    save_text(folder / "shared.json", "{ }");
    CHECK(mode_of(folder / "shared.json") == 0640);
}

TEST_CASE("a write-protected file is not replaced, and the sentence says so") {
    const Folder folder;
    save_text(folder / "a.json", "kept");
    chmod((folder / "a.json").c_str(), 0444);
    CHECK_THROWS_WITH(save_text(folder / "a.json", "other"), Catch::Contains("write-protected"));
    CHECK(read_text(folder / "a.json") == "kept");
}

TEST_CASE("a link is followed, one that leads nowhere yet too") {
    const Folder folder;
    fs::create_directory(folder / "far");
    save_text(folder / "far/job.json", "old");
    fs::create_symlink("far/job.json", folder / "link");
    fs::create_symlink("link", folder / "link to link");
    fs::create_symlink("far/not yet.json", folder / "dangling");
    save_text(folder / "link to link", "new");
    save_text(folder / "dangling", "made");
    CHECK(read_text(folder / "far/job.json") == "new");
    CHECK(read_text(folder / "far/not yet.json") == "made");
    CHECK(fs::is_symlink(folder / "link to link"));
    CHECK(fs::is_symlink(folder / "dangling"));
    CHECK(behind_links(folder / "link to link") == behind_links(folder / "far/job.json"));
}

TEST_CASE("a stamp tells whether what lies at a path is still what was there") {
    const Folder folder;
    CHECK_FALSE(stamp_of(folder / "a").there);
    save_text(folder / "a", "one");
    const FileStamp one = stamp_of(folder / "a");
    CHECK(one.there);
    // Written again the same: nothing has changed.
    save_text(folder / "a", "one");
    CHECK(stamp_of(folder / "a").same_content(one));
    save_text(folder / "a", "two");
    CHECK_FALSE(stamp_of(folder / "a").same_content(one));
    fs::remove(folder / "a");
    CHECK_FALSE(stamp_of(folder / "a").same_content(one));
}

TEST_CASE("what cannot be written says where and why") {
    const Folder folder;
    CHECK_THROWS_WITH(save_text(folder / "no such folder/a", "x"), Catch::Contains("No such file or directory"));
    fs::create_directory(folder / "folder");
    CHECK_THROWS_AS(save_text(folder / "folder", "x"), InputError);
    CHECK_THROWS_WITH(read_text(folder / "nothing"), Catch::Contains("nothing"));
    // A name as long as the system allows has room for what lies beside it while it is written.
    const std::string longest = (folder.path / std::string(250, 'n')).string();
    save_text(longest, "x");
    CHECK(read_text(longest) == "x");
    save_text(folder / "empty", "");
    CHECK(read_text(folder / "empty").empty());
}
