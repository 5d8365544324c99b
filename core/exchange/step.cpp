// The solid modeller is large and seldom wanted: it lives in a module of its own that is loaded when a STEP file is asked for.
#include "exchange/step.h"

#include <dlfcn.h>
#include <unistd.h>

#include <filesystem>

#include "exchange/step_module.h"
#include "exchange/whole_file.h"
#include "number/input_error.h"

namespace echappe {
namespace {

constexpr const char* module_name = "libechappe_step.so";
constexpr const char* how_to_get_it = "dxf or svg, or the package with STEP export beside the program";

struct Module {
    StepWrite write = nullptr;
    StepTurn turn = nullptr;
    StepVolume volume = nullptr;

    Module() {
        std::error_code fault;
        const auto beside = std::filesystem::read_symlink("/proc/self/exe", fault).parent_path();
        for (const auto& folder : {beside, beside / ".." / "lib" / "echappe"}) {
            void* handle = dlopen((folder / module_name).c_str(), RTLD_NOW | RTLD_LOCAL);
            if (!handle) continue;
            write = reinterpret_cast<StepWrite>(dlsym(handle, "echappe_step_write"));
            turn = reinterpret_cast<StepTurn>(dlsym(handle, "echappe_step_turn"));
            volume = reinterpret_cast<StepVolume>(dlsym(handle, "echappe_step_volume"));
            if (write && turn && volume) return;
        }
    }
};

const Module& module() {
    static const Module loaded;
    return loaded;
}

void require_module() {
    if (!step_available()) throw InputError("format", "step, whose component is not installed", how_to_get_it);
}

/// A file with a name, which the modeller wants, gone when it is no longer needed.
struct ScratchFile {
    std::filesystem::path path;
    ScratchFile() {
        std::string name = (std::filesystem::temp_directory_path() / "echappe-XXXXXX.step").string();
        const int file = mkstemps(name.data(), 5);
        if (file < 0)
            throw InputError("format", "step, for which no scratch file can be made",
                             "room in " + std::filesystem::temp_directory_path().string());
        close(file);
        path = name;
    }
    ~ScratchFile() {
        std::error_code fault;
        std::filesystem::remove(path, fault);
    }
    ScratchFile(const ScratchFile&) = delete;
    ScratchFile& operator=(const ScratchFile&) = delete;
};

template <class Part>
std::string written_by(void (*write)(const Part&, const std::string&, std::string&), const Part& part) {
    const ScratchFile scratch;
    std::string fault;
    write(part, scratch.path, fault);
    if (!fault.empty()) throw InputError("format", "step: " + fault, "dxf or svg");
    std::string text = read_text(scratch.path);
    // The modeller does not say when its disk is full.
    if (text.find("END-ISO-10303-21;") == std::string::npos)
        throw InputError("format", "step, whose scratch file was cut short", "room in " + std::filesystem::temp_directory_path().string());
    return text;
}

}  // namespace

bool step_available() { return module().write != nullptr; }

std::string to_step(const FlatPart& part) {
    require_module();
    return written_by(module().write, part);
}

std::string to_step(const TurnedSolid& part) {
    require_module();
    return written_by(module().turn, part);
}

std::string to_step(const Solid& part) {
    return std::visit([](const auto& one) { return to_step(one); }, part);
}

double step_volume_mm3(const std::string& step) {
    require_module();
    const ScratchFile scratch;
    save_text(scratch.path, step, false);
    const double volume = module().volume(scratch.path);
    if (!(volume > 0)) throw InputError("step", "no solid", "a STEP text with one");
    return volume;
}

}  // namespace echappe
