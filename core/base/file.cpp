#include "core/base/file.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <filesystem>
#include <random>
#include <system_error>
#include <vector>

#include "core/base/descriptor.h"

namespace lacquer {

namespace {

namespace fs = std::filesystem;

Fault file_fault(const char* id, const std::string& path, std::string message, std::string mend) {
    return {id, std::move(message), std::move(mend), {path, {}, 0, 0}, Severity::fault};
}

Fault unwritable(const std::string& path, const std::string& why) {
    return file_fault("file.unwritable", path, "the file cannot be written: " + why,
                      "the old file is as it was; save to another folder, or make room");
}

bool write_all(int fd, std::string_view text) {
    while (!text.empty()) {
        const ssize_t written = ::write(fd, text.data(), text.size());
        if (written < 0 && errno == EINTR) continue;
        if (written <= 0) return false;
        text.remove_prefix(static_cast<std::size_t>(written));
    }
    return true;
}

// Where a link, or a chain of them, leads, whether anything is there or not.
fs::path followed(fs::path path) {
    constexpr int most_links = 40;
    std::error_code code;
    for (int i = 0; i < most_links && fs::is_symlink(path, code); ++i) {
        const fs::path to = fs::read_symlink(path, code);
        if (code) break;
        path = to.is_absolute() ? to : path.parent_path() / to;
    }
    return path;
}

// A new file in this folder, with the rights that the user's mask leaves. -1, with errno, if there can be none.
int new_file_in(const fs::path& folder, std::string& path) {
    constexpr int most_tries = 16;
    std::random_device random;
    int fd = -1;
    for (int i = 0; i < most_tries; ++i) {
        // Short, whatever the name of the file is: together they could be longer than names may be.
        path = (folder / (".lacquer-" + std::to_string(random()))).string();
        fd = ::open(path.c_str(), O_RDWR | O_CREAT | O_EXCL | O_CLOEXEC, 0666);
        if (fd >= 0 || errno != EEXIST) break;
    }
    return fd;
}

}  // namespace

Result<Done> write_whole_file(const std::string& path, std::string_view text) {
    const fs::path target = followed(path);
    struct stat old {};
    const bool replaces = ::stat(target.c_str(), &old) == 0;
    if (replaces && !S_ISREG(old.st_mode)) return unwritable(path, "what is there is not a plain file");
    const fs::path folder = target.parent_path();
    std::string part;
    Descriptor file(new_file_in(folder, part));
    if (file.get() < 0) return unwritable(path, std::strerror(errno));
    // Only root may give a file away; for all others it stays their own.
    if (replaces && (old.st_uid != ::geteuid() || old.st_gid != ::getegid()))
        (void)!::fchown(file.get(), old.st_uid, old.st_gid);
    const bool whole = write_all(file.get(), text) && (!replaces || ::fchmod(file.get(), old.st_mode & 07777U) == 0) &&
                       ::fsync(file.get()) == 0;
    const int write_error = errno;
    if (!whole || !file.close_now() || ::rename(part.c_str(), target.c_str()) != 0) {
        const int error = whole ? errno : write_error;
        ::unlink(part.c_str());
        return unwritable(path, std::strerror(error));
    }
    (void)sync_path(folder.empty() ? "." : folder.string());
    return Done{};
}

Result<Done> make_folder(const std::string& path) {
    std::vector<fs::path> missing;
    std::error_code code;
    for (fs::path at = path; !at.empty() && !fs::is_directory(at, code); at = at.parent_path()) missing.push_back(at);
    for (auto at = missing.rbegin(); at != missing.rend(); ++at) {
        // Another program may have made it meanwhile.
        if (::mkdir(at->c_str(), 0777) != 0 && errno != EEXIST) return unwritable(path, std::strerror(errno));
        (void)sync_path(at->has_parent_path() ? at->parent_path().string() : ".");
    }
    return fs::is_directory(path, code) ? Result<Done>(Done{}) : Result<Done>(unwritable(path, "it is not a folder"));
}

bool sync_path(const std::string& path) {
    Descriptor file(::open(path.c_str(), O_RDONLY | O_CLOEXEC));
    return file.get() >= 0 && ::fsync(file.get()) == 0;
}

Result<Done> write_output(const std::string& path, std::string_view bytes) {
    struct stat there {};
    const bool passes_on = ::stat(path.c_str(), &there) == 0 && !S_ISREG(there.st_mode) && !S_ISDIR(there.st_mode);
    if (!passes_on) return write_whole_file(path, bytes);
    Descriptor file(::open(path.c_str(), O_WRONLY | O_CLOEXEC | O_NOCTTY));
    if (file.get() < 0 || !write_all(file.get(), bytes) || !file.close_now())
        return unwritable(path, std::strerror(errno));
    return Done{};
}

Result<std::string> read_whole_file(const std::string& path, std::size_t most) {
    // A pipe without a writer must not be waited for, and what is opened must be what was looked at.
    Descriptor file(::open(path.c_str(), O_RDONLY | O_NONBLOCK | O_CLOEXEC | O_NOCTTY));
    if (file.get() < 0) {
        if (errno == ENOENT || errno == ENOTDIR)
            return file_fault("file.missing", path, "there is no such file", "look for it elsewhere");
        return file_fault("file.unreadable", path, std::string("the file cannot be read: ") + std::strerror(errno),
                          "check who may read it");
    }
    struct stat is {};
    if (::fstat(file.get(), &is) != 0 || !S_ISREG(is.st_mode))
        return file_fault("file.unreadable", path, "it is not a file", "choose a plain file");
    const auto too_large = [&] {
        return file_fault("file.size", path, "the file is larger than " + std::to_string(most / 1024 / 1024) + " MB",
                          "choose another file");
    };
    if (static_cast<std::uint64_t>(is.st_size) > most) return too_large();
    std::string text;
    std::string block(std::size_t{64} * 1024, '\0');
    // However long it was a moment ago: it may be written to, or cut, while it is read.
    while (text.size() <= most) {
        const ssize_t count = ::read(file.get(), block.data(), block.size());
        if (count < 0 && errno == EINTR) continue;
        if (count < 0) return file_fault("file.unreadable", path, "the file cannot be read", "check who may read it");
        if (count == 0) return text;
        text.append(block, 0, static_cast<std::size_t>(count));
    }
    return too_large();
}

std::optional<FileStamp> stamp_of(const std::string& path) {
    struct stat is {};
    if (::stat(path.c_str(), &is) != 0) return std::nullopt;
    return FileStamp{is.st_dev, is.st_ino, is.st_size,
                     static_cast<std::int64_t>(is.st_mtim.tv_sec) * 1'000'000'000 + is.st_mtim.tv_nsec};
}

}  // namespace lacquer
