#include "exchange/whole_file.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <fstream>
#include <memory>
#include <random>
#include <sstream>
#include <utility>

#include "exchange/write_all.h"
#include "number/input_error.h"

namespace echappe {
namespace {

constexpr int most_links = 40;  ///< as the kernel has it

std::string reason() { return std::strerror(errno); }

InputError cannot_be_written(const std::filesystem::path& path, const std::string& why) {
    return {"file", "\"" + path.string() + "\" (" + why + ")", "a place with room that can be written; the old file is untouched"};
}

/// One file written beside its target, to be put in its place or to vanish.
class Beside {
public:
    Beside(const std::filesystem::path& asked, bool sync) : m_asked(asked), m_target(behind_links(asked)), m_sync(sync) {}
    void write_text(const std::string& text) {
        struct stat old {};
        const bool there = stat(m_target.c_str(), &old) == 0;
        // The folder alone would decide whether a rename may go over it: that is not what its owner meant.
        if (there && ((old.st_mode & (S_IWUSR | S_IWGRP | S_IWOTH)) == 0 || access(m_target.c_str(), W_OK) != 0))
            throw InputError("file", "\"" + path().string() + "\", which is write-protected", "another name, or leave to write this one");
        open_new();
        if (there) take_over(old);
        if (!write_all(m_fd, text)) fail();
        if (m_sync && fsync(m_fd) != 0) fail();
        if (close(std::exchange(m_fd, -1)) != 0) fail();
    }
    ~Beside() {
        if (m_fd >= 0) close(m_fd);
        if (!m_beside.empty()) unlink(m_beside.c_str());
    }
    Beside(const Beside&) = delete;
    Beside& operator=(const Beside&) = delete;

    void put_in_place() {
        if (rename(m_beside.c_str(), m_target.c_str()) != 0) fail();
        m_beside.clear();
        if (m_sync) sync_folder();
    }

private:
    const std::filesystem::path& path() const { return m_asked; }
    [[noreturn]] void fail() const { throw cannot_be_written(path(), reason()); }

    void open_new() {
        std::random_device random;
        do {
            const std::string name = "." + m_target.filename().string().substr(0, 200) + "." + std::to_string(random()) + ".part";
            m_beside = m_target.parent_path() / name;
            m_fd = ::open(m_beside.c_str(), O_CREAT | O_EXCL | O_WRONLY | O_CLOEXEC, 0666);
        } while (m_fd < 0 && errno == EEXIST);
        if (m_fd >= 0) return;
        const std::string why = reason();
        m_beside.clear();
        throw cannot_be_written(path(), why);
    }

    /// Whose it was and who may read it; where that is not allowed the writer's own stands.
    void take_over(const struct stat& old) const {
        if (old.st_uid != geteuid() || old.st_gid != getegid())
            if (fchown(m_fd, old.st_uid, old.st_gid) != 0) errno = 0;
        if (fchmod(m_fd, old.st_mode & 07777) != 0) errno = 0;
    }

    /// The new name must outlive a power cut as the bytes do; file systems that cannot say so are left to their own ways.
    void sync_folder() const {
        const int folder = ::open(m_target.parent_path().c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
        if (folder < 0) return;
        fsync(folder);
        close(folder);
    }

    std::filesystem::path m_asked;
    std::filesystem::path m_target;
    std::filesystem::path m_beside;
    bool m_sync;
    int m_fd = -1;
};

}  // namespace

bool write_all(int file, std::string_view text) {
    while (!text.empty()) {
        const ssize_t written = write(file, text.data(), text.size());
        if (written < 0 && errno == EINTR) continue;
        if (written == 0) errno = ENOSPC;
        if (written <= 0) return false;
        text.remove_prefix(static_cast<size_t>(written));
    }
    return true;
}

std::filesystem::path behind_links(const std::filesystem::path& path) {
    std::error_code error;
    std::filesystem::path at = std::filesystem::absolute(path, error);
    for (int i = 0; i < most_links && std::filesystem::is_symlink(at, error); ++i) {
        const std::filesystem::path next = std::filesystem::read_symlink(at, error);
        if (error) break;
        at = next.is_absolute() ? next : at.parent_path() / next;
    }
    // The folders on the way may be links too.
    const std::filesystem::path folder = std::filesystem::weakly_canonical(at.parent_path(), error);
    return error ? at : folder / at.filename();
}

void save_text(const std::filesystem::path& path, const std::string& text, bool sync) {
    Beside file(path, sync);
    file.write_text(text);
    file.put_in_place();
}

void save_texts(const std::vector<FileText>& files) {
    std::vector<std::unique_ptr<Beside>> written;
    for (const FileText& file : files) {
        written.push_back(std::make_unique<Beside>(file.path, true));
        written.back()->write_text(file.text);
    }
    for (const auto& file : written) file->put_in_place();
}

std::string read_text(const std::filesystem::path& path, std::uintmax_t most) {
    const std::string quoted = "\"" + path.string() + "\"";
    std::error_code error;
    const auto size = std::filesystem::file_size(path, error);
    if (error) throw InputError("file", quoted + " (" + error.message() + ")", "a file that can be read");
    if (size > most) throw InputError("file", std::to_string(size >> 20) + " MB", "a file under " + std::to_string(most >> 20) + " MB");
    std::ifstream in(path, std::ios::binary);
    std::ostringstream text;
    if (size > 0) text << in.rdbuf();
    if (!in) throw InputError("file", quoted + ", which cannot be read", "a file that can be read");
    return text.str();
}

std::uint64_t content_hash(std::string_view text) {
    std::uint64_t hash = 14695981039346656037u;
    for (const char c : text) hash = (hash ^ static_cast<unsigned char>(c)) * 1099511628211u;
    return hash;
}

FileStamp stamp_of(const std::filesystem::path& path) {
    struct stat found {};
    if (stat(path.c_str(), &found) != 0 || !S_ISREG(found.st_mode)) return {};
    try {
        return {true, found.st_mtim.tv_sec, content_hash(read_text(path))};
    } catch (const InputError&) {
        return {true, found.st_mtim.tv_sec, 0};  // there, and not what was read
    }
}

}  // namespace echappe
