#include "desktop/document/log_file.h"

#include <spdlog/logger.h>
#include <spdlog/sinks/rotating_file_sink.h>

#include <exception>
#include <string>

#include "desktop/document/disk.h"

namespace lacquer {

// Made, and used, on the disk's thread only.
class LogFile::Sink {
public:
    explicit Sink(std::filesystem::path folder) : folder_(std::move(folder)) {}

    void line(const std::string& words) noexcept {
        if (folder_.empty()) return;
        try {
            if (logger_ == nullptr) {
                const std::string path = (folder_ / "lacquer.log").string();
                logger_ = std::make_unique<spdlog::logger>(
                    "lacquer", std::make_shared<spdlog::sinks::rotating_file_sink_st>(path, most_bytes, 1));
                logger_->set_pattern("%Y-%m-%d %H:%M:%S.%e %P  %v");
                logger_->flush_on(spdlog::level::info);
                logger_->set_error_handler([](const std::string&) {});
            }
            // As an argument: braces in it mean nothing.
            logger_->info("{}", words);
        } catch (const std::exception&) {
            // A log that cannot be written must not keep anybody from working.
            folder_.clear();
        }
    }

private:
    std::filesystem::path folder_;
    std::unique_ptr<spdlog::logger> logger_;
};

LogFile::LogFile(const std::filesystem::path& folder, Disk& disk)
    : sink_(std::make_shared<Sink>(folder)), disk_(disk) {}

void LogFile::line(const QString& words) {
    QString one = words;
    one.replace(QLatin1Char('\n'), QLatin1Char(' '));
    disk_.later([sink = sink_, text = one.left(2000).toStdString()] { sink->line(text); });
}

}  // namespace lacquer
