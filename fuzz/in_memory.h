#pragma once

#include <sys/mman.h>
#include <unistd.h>

#include <string>

#include "fuzz.h"

namespace echappe::fuzz {

/// A file that lies in memory and holds what is tried; its path.
inline std::string in_memory(const std::uint8_t* data, std::size_t size) {
    static const int file = memfd_create("tried", 0);
    must(ftruncate(file, 0) == 0 && pwrite(file, data, size, 0) == static_cast<ssize_t>(size), "a file in memory can be written");
    return "/proc/self/fd/" + std::to_string(file);
}

}  // namespace echappe::fuzz
