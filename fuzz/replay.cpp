#include <algorithm>
#include <filesystem>
#include <iostream>
#include <vector>

#include "exchange/whole_file.h"
#include "fuzz.h"

// Tries every file of the folders and files named: the stored corpus as a plain test, with any compiler.
int main(int argc, char** argv) {
    std::vector<std::filesystem::path> files;
    for (int i = 1; i < argc; ++i) {
        if (!std::filesystem::is_directory(argv[i])) files.emplace_back(argv[i]);
        else
            for (const auto& entry : std::filesystem::directory_iterator(argv[i])) files.push_back(entry.path());
    }
    std::sort(files.begin(), files.end());
    for (const auto& file : files) {
        const std::string text = echappe::read_text(file);
        LLVMFuzzerTestOneInput(reinterpret_cast<const std::uint8_t*>(text.data()), text.size());
    }
    std::cout << files.size() << " inputs tried\n";
    return files.empty() ? 1 : 0;
}
