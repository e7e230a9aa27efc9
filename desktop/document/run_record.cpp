#include "desktop/document/run_record.h"

#include <fcntl.h>
#include <fmt/core.h>
#include <sys/mman.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cstring>
#include <ctime>
#include <mutex>
#include <system_error>
#include <vector>

#include "core/base/file.h"
#include "core/base/version.h"
#include "desktop/document/state_files.h"

namespace lacquer {

namespace {

namespace fs = std::filesystem;

constexpr std::size_t line_bytes = 256;
constexpr std::size_t head_lines = 1;
constexpr std::size_t doing_lines = 8;
constexpr std::size_t did_lines = 24;
constexpr std::size_t page_bytes = line_bytes * (head_lines + doing_lines + did_lines);
constexpr const char* run_ending = ".run";
constexpr std::size_t number_length = 8;  // that orders them, with the space behind it
constexpr std::string_view doing_mark = "doing: ";

std::string now_in_words() {
    const std::time_t now = std::time(nullptr);
    std::tm parts{};
    std::array<char, 32> words{};
    localtime_r(&now, &parts);
    return {words.data(), std::strftime(words.data(), words.size(), "%Y-%m-%d %H:%M:%S", &parts)};
}

}  // namespace

class RunRecord::Page {
public:
    explicit Page(const fs::path& folder) {
        std::error_code code;
        fs::create_directories(folder, code);
        path_ = folder / own_file_name({}, run_ending);
        const int file = ::open(path_.c_str(), O_RDWR | O_CREAT | O_TRUNC | O_CLOEXEC | O_NOFOLLOW, 0600);
        if (file < 0) return;
        // A page of a file without room for it could not be written: the program would be ended by it.
        if (::posix_fallocate(file, 0, page_bytes) == 0) {
            void* at = ::mmap(nullptr, page_bytes, PROT_READ | PROT_WRITE, MAP_SHARED, file, 0);
            if (at != MAP_FAILED) bytes_ = static_cast<char*>(at);
        }
        ::close(file);
        for (std::size_t line = 0; line < page_bytes / line_bytes; ++line) put(line, {});
        put(0, "Lacquer " + std::string(program_version()) + ", started " + now_in_words());
    }

    ~Page() {
        if (bytes_ != nullptr) ::munmap(bytes_, page_bytes);
        ::unlink(path_.c_str());
    }
    Page(const Page&) = delete;
    Page& operator=(const Page&) = delete;

    // The line that was taken, or none if all are.
    std::optional<std::size_t> begin(std::string_view words) {
        const std::lock_guard lock(mutex_);
        const auto free = std::find(taken_.begin(), taken_.end(), false);
        if (free == taken_.end()) return std::nullopt;
        *free = true;
        const std::size_t line = head_lines + static_cast<std::size_t>(free - taken_.begin());
        put(line, std::string(doing_mark) + std::string(words));
        return line;
    }

    void end(std::size_t line) {
        const std::lock_guard lock(mutex_);
        taken_[line - head_lines] = false;
        put(line, {});
    }

    void did(std::string_view words) {
        const std::lock_guard lock(mutex_);
        // Numbered, as the oldest line is written over by the newest.
        put(head_lines + doing_lines + next_ % did_lines, fmt::format("{:06}  {}  {}", next_, now_in_words(), words));
        ++next_;
    }

private:
    void put(std::size_t line, std::string_view words) {
        if (bytes_ == nullptr) return;
        char* at = bytes_ + line * line_bytes;
        const std::size_t length = std::min(words.size(), line_bytes - 1);
        std::transform(words.begin(), words.begin() + static_cast<std::ptrdiff_t>(length), at,
                       [](char c) { return static_cast<unsigned char>(c) < ' ' ? ' ' : c; });
        std::memset(at + length, ' ', line_bytes - 1 - length);
        at[line_bytes - 1] = '\n';
    }

    fs::path path_;
    std::mutex mutex_;
    char* bytes_ = nullptr;
    std::array<bool, doing_lines> taken_{};
    std::size_t next_ = 0;
};

RunRecord::RunRecord(const fs::path& folder) : page_(folder.empty() ? nullptr : std::make_shared<Page>(folder)) {}

RunRecord::~RunRecord() = default;

std::shared_ptr<void> RunRecord::doing(std::string_view words) {
    if (page_ == nullptr) return nullptr;
    const std::optional<std::size_t> line = page_->begin(words);
    if (!line) return nullptr;
    return {page_.get(), [page = page_, line](void*) { page->end(*line); }};
}

void RunRecord::did(std::string_view words) {
    if (page_ != nullptr) page_->did(words);
}

std::optional<std::string> take_ended_run(const fs::path& folder) {
    std::error_code code;
    std::vector<std::pair<fs::file_time_type, fs::path>> ended;
    for (auto entry = fs::directory_iterator(folder, code); !code && entry != fs::directory_iterator();
         entry.increment(code)) {
        const fs::path& path = entry->path();
        if (path.extension() != run_ending || is_running(path.filename().string())) continue;
        std::error_code gone;
        ended.emplace_back(fs::last_write_time(path, gone), path);
    }
    std::sort(ended.begin(), ended.end());
    std::optional<std::string> newest;
    for (const auto& [time, path] : ended) {
        const Result<std::string> text = read_whole_file(path.string(), page_bytes);
        fs::remove(path, code);
        if (!text) continue;
        std::vector<std::string> lines;
        for (std::size_t at = 0; at < text->size(); at += line_bytes) {
            std::string line = text->substr(at, line_bytes);
            line.erase(line.find_last_not_of(std::string_view(" \n\0", 3)) + 1);
            if (!line.empty()) lines.push_back(std::move(line));
        }
        const auto done = std::find_if(lines.begin() + (lines.empty() ? 0 : 1), lines.end(),
                                       [](const std::string& line) { return !line.starts_with(doing_mark); });
        std::sort(done, lines.end());
        std::for_each(done, lines.end(), [](std::string& line) { line.erase(0, number_length); });
        newest.emplace();
        for (const std::string& line : lines) *newest += line + '\n';
    }
    return newest;
}

std::string was_doing(std::string_view record) {
    std::string words;
    for (std::size_t at = 0; at < record.size();) {
        const std::size_t end = std::min(record.find('\n', at), record.size());
        const std::string_view line = record.substr(at, end - at);
        if (line.starts_with(doing_mark))
            words += (words.empty() ? "" : "; ") + std::string(line.substr(doing_mark.size()));
        at = end + 1;
    }
    return words;
}

}  // namespace lacquer
