#include "core/base/file.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <system_error>

namespace lacquer {

namespace {

namespace fs = std::filesystem;

Fault file_fault(const char* id, const std::string& path, std::string message, std::string mend) {
    return {id, std::move(message), std::move(mend), {path, {}, 0, 0}, Severity::fault};
}

// An open file descriptor that closes itself.
class Descriptor {
public:
    explicit Descriptor(int fd) : fd_(fd) {}
    ~Descriptor() { (void)close_now(); }
    Descriptor(const Descriptor&) = delete;
    Descriptor& operator=(const Descriptor&) = delete;
    int get() const { return fd_; }
    bool close_now() {
        const int fd = fd_;
        fd_ = -1;
        return fd < 0 || ::close(fd) == 0;
    }

private:
    int fd_;
};

bool write_all(int fd, std::string_view text) {
    while (!text.empty()) {
        const ssize_t written = ::write(fd, text.data(), text.size());
        if (written < 0 && errno == EINTR) continue;
        if (written <= 0) return false;
        text.remove_prefix(static_cast<std::size_t>(written));
    }
    return true;
}

}  // namespace

Result<Done> write_whole_file(const std::string& path, std::string_view text) {
    std::error_code code;
    // A link stays a link: what it points to is replaced.
    const fs::path target = fs::is_symlink(path, code) ? fs::weakly_canonical(path, code) : fs::path(path);
    std::string part = target.string() + ".XXXXXX";
    const auto failed = [&](int error) {
        return file_fault("file.unwritable", path, std::string("the file cannot be written: ") + std::strerror(error),
                          "the old file is as it was; save to another folder, or make room");
    };
    Descriptor file(::mkstemp(part.data()));
    if (file.get() < 0) return failed(errno);
    struct stat old {};
    const bool replaces = ::stat(target.c_str(), &old) == 0;
    const mode_t mask = ::umask(0);
    ::umask(mask);
    const mode_t mode = replaces ? (old.st_mode & 07777U) : (0666U & ~mask);
    const bool whole = write_all(file.get(), text) && ::fchmod(file.get(), mode) == 0 && ::fsync(file.get()) == 0;
    const int write_error = errno;
    if (!whole || !file.close_now() || ::rename(part.c_str(), target.c_str()) != 0) {
        const int error = whole ? errno : write_error;
        ::unlink(part.c_str());
        return failed(error);
    }
    const fs::path folder = target.parent_path();
    Descriptor directory(::open(folder.empty() ? "." : folder.c_str(), O_RDONLY | O_DIRECTORY));
    if (directory.get() >= 0) (void)::fsync(directory.get());
    return Done{};
}

Result<std::string> read_whole_file(const std::string& path, std::size_t most) {
    std::error_code code;
    if (!fs::exists(path, code)) {
        return file_fault("file.missing", path, "there is no such file", "look for it elsewhere");
    }
    if (!fs::is_regular_file(path, code)) {
        return file_fault("file.unreadable", path, "it is not a file", "open a .lacquer file");
    }
    std::ifstream stream(path, std::ios::binary);
    std::string text;
    std::string block(std::size_t{64} * 1024, '\0');
    while (stream && text.size() <= most) {
        stream.read(block.data(), static_cast<std::streamsize>(block.size()));
        text.append(block, 0, static_cast<std::size_t>(stream.gcount()));
    }
    if (text.size() > most) {
        return file_fault("file.size", path, "the file is larger than " + std::to_string(most / 1024 / 1024) + " MB",
                          "open another file");
    }
    if (!stream.eof()) return file_fault("file.unreadable", path, "the file cannot be read", "check who may read it");
    return text;
}

}  // namespace lacquer
