#include "exchange/file_names.h"

#include <rapidcheck/catch.h>
#include <catch2/catch.hpp>
#include <set>

#include "exchange/whole_file.h"
#include "job/edits.h"
#include "job/pictures.h"
#include "support/demo.h"
#include "support/files.h"

using namespace echappe;
namespace fs = std::filesystem;

TEST_CASE("a clock's title becomes a name that every file system, archive and dialog takes") {
    CHECK(file_name_of("12\" dial clock", "job") == "12-inch-dial-clock");
    CHECK(file_name_of("Smith's 8\" drop dial", "job") == "smiths-8-inch-drop-dial");
    CHECK(file_name_of("\"The Owl\"", "job") == "the-owl");
    CHECK(file_name_of("Clock No. 3", "job") == "clock-no.-3");
    CHECK(file_name_of("a/b\\c:d*e?f", "job") == "a-b-c-d-e-f");
    CHECK(file_name_of("Turmuhr Möllen\nOst", "job") == "turmuhr-möllen-ost");
    CHECK(file_name_of("../../etc/passwd", "job") == "etc-passwd");
    CHECK(file_name_of(".hidden", "job") == "hidden");
    CHECK(file_name_of("ends in a dot.", "job") == "ends-in-a-dot");
}

TEST_CASE("a title of nothing that can stand in a name gives the name that is usual") {
    for (const char* title : {"", "   ", "\"", "///", "...", "\n\t", "-"}) CHECK(file_name_of(title, "job") == "job");
}

TEST_CASE("a name is cut between letters, not within one, and is short enough for what saving puts around it") {
    std::string title;
    for (int i = 0; i < 200; ++i) title += "ö";
    const std::string name = file_name_of(title, "job");
    CHECK(name.size() == 120);
    CHECK(name.size() % 2 == 0);
}

TEST_CASE("any bytes for a title give a name that is plain, on one line, and its own name again") {
    REQUIRE(rc::check("a name", [](const std::string& title) {
        const std::string name = file_name_of(title, "job");
        RC_ASSERT(!name.empty());
        RC_ASSERT(is_plain_name(name));
        RC_ASSERT(name.find('/') == std::string::npos);
        RC_ASSERT(one_line(name) == name);
        RC_ASSERT(file_name_of(name, "job") == name);
    }));
}

TEST_CASE("pasted lines become one line") {
    CHECK(one_line("Regulator\r\nof Port\tSallow\n") == "Regulator of Port Sallow");
    CHECK(one_line("  two   words ") == "two words");
    CHECK(one_line("line\xe2\x80\xa8separator") == "line separator");
    CHECK(one_line("Möbel – “8″”") == "Möbel – “8″”");
}

TEST_CASE("a name that is taken gets a number, so that no file is proposed twice") {
    const Folder folder;
    CHECK(free_name(folder.path, "clock", ".echappe.json") == folder / "clock.echappe.json");
    save_text(folder / "clock.echappe.json", "{}");
    CHECK(free_name(folder.path, "clock", ".echappe.json") == folder / "clock-2.echappe.json");
    save_text(folder / "clock-2.echappe.json", "{}");
    CHECK(free_name(folder.path, "clock", ".echappe.json") == folder / "clock-3.echappe.json");
}

TEST_CASE("two clocks by numbers have two folders of pictures") {
    std::set<std::string> folders;
    for (const char* name : {"Clock No. 3.echappe.json", "Clock No. 4.echappe.json", "Clock No.json", "plain.json", "plain", "a.b.c.json"})
        folders.insert(pictures_beside(name));
    CHECK(folders.size() == 5);  // plain and plain.json are one: no job is called plain
    CHECK(pictures_beside("Clock No. 3.echappe.json") == "Clock No. 3.pictures");
    CHECK(pictures_beside("regulator.echappe.json") == "regulator.pictures");
    CHECK(job_stem(".json") == ".json");
}

TEST_CASE("pictures that an earlier version kept under a shorter name are found until there is a folder of its own") {
    const Folder folder;
    const fs::path job = folder / "clock no. 3.echappe.json";
    CHECK(pictures_folder_of(job) == folder / "clock no. 3.pictures");
    fs::create_directory(folder / "clock no.pictures");
    CHECK(pictures_folder_of(job) == folder / "clock no.pictures");
    fs::create_directory(folder / "clock no. 3.pictures");
    CHECK(pictures_folder_of(job) == folder / "clock no. 3.pictures");
}

TEST_CASE("a name in an archive is plain when it leads nowhere and nothing on its way is hidden") {
    for (const char* name : {"clock.echappe.json", "clock.pictures/one.png", "clock no. 3.pictures/more/two.jpg", "ü.json"})
        CHECK(is_plain_name(name));
    for (const char* name : {"", "/etc/passwd", "../out.json", "a/../b", ".bash_profile", "a/.config/autostart/x.desktop", "a//b", "a/",
                             "C:\\windows", "a\\b", "line\nbreak", "./here"}) {
        INFO(name);
        CHECK_FALSE(is_plain_name(name));
    }
}

TEST_CASE("a title that was pasted over lines stands on one, and what was not touched is left as it is by then") {
    Job job = demo::job();
    const std::string owner = job.owner;
    job.note = "written meanwhile";
    retitle({{"title", "Regulator\nof the tide-house"}, {"scope", "clean\nand oil"}}).change(job);
    CHECK(job.title == "Regulator of the tide-house");
    CHECK(job.scope == "clean\nand oil");
    CHECK(job.owner == owner);
    CHECK(job.note == "written meanwhile");
}

TEST_CASE("a title of inches upon inches makes no name that is too long for a file system") {
    std::string title;
    for (int i = 0; i < 60; ++i) title += "0\"";
    CHECK(file_name_of(title, "job").size() <= 120);
    CHECK(file_name_of(file_name_of(title, "job"), "job") == file_name_of(title, "job"));
}

TEST_CASE("a job names every picture that belongs to it, once each place") {
    Job job = demo::job();
    const size_t before = pictures_named(job).size();
    job.photo = "whole.png";
    job.survey.condition_at("centre.front").photo = "hole.png";
    job.bench.diary.push_back({});
    job.bench.diary.back().photo = "page.jpg";
    const auto names = pictures_named(job);
    CHECK(names.size() == before + 3);
    for (const char* name : {"whole.png", "hole.png", "page.jpg"}) CHECK(std::count(names.begin(), names.end(), name) == 1);
}
