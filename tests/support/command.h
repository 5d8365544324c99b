#pragma once

#include <sys/wait.h>
#include <unistd.h>

#include <cstdio>
#include <fstream>
#include <sstream>
#include <string>

/// What a command printed and how it ended.
struct Ran {
    int exit = -1;
    std::string out;
    std::string err;
};

inline std::string read_file(const std::string& path) {
    std::ifstream in(path, std::ios::binary);
    std::ostringstream all;
    all << in.rdbuf();
    return all.str();
}

/// Runs a shell command with `input` on its standard input.
inline Ran run_command(const std::string& command, const std::string& input = "") {
    char folder[] = "/tmp/echappe-cli-XXXXXX";
    const std::string at = mkdtemp(folder);
    std::ofstream(at + "/in", std::ios::binary) << input;
    const int status = std::system(("( " + command + " ) <" + at + "/in >" + at + "/out 2>" + at + "/err").c_str());
    Ran ran{WIFEXITED(status) ? WEXITSTATUS(status) : -1, read_file(at + "/out"), read_file(at + "/err")};
    for (const char* name : {"/in", "/out", "/err"}) std::remove((at + name).c_str());
    rmdir(at.c_str());
    return ran;
}
