#include "desktop/shell/looking_after.h"

#include <sys/utsname.h>

#include <thread>

#include "core/base/file.h"
#include "core/base/version.h"
#include "core/picture/reader.h"
#include "desktop/document/state_files.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/core_words.h"
#include "desktop/shell/main_window.h"

namespace lacquer {

namespace {

std::filesystem::path running_folder() { return state_folder("running"); }

QString start_line() {
    utsname names{};
    const bool told = uname(&names) == 0;
    return QStringLiteral("Lacquer %1 starts; %2 %3, %4 threads, Qt %5")
        .arg(qs(std::string(program_version())), QString::fromLatin1(told ? names.sysname : "?"),
             QString::fromLatin1(told ? names.release : "?"))
        .arg(std::thread::hardware_concurrency())
        .arg(QString::fromLatin1(qVersion()));
}

// The record of a Lacquer that ended in the middle of something, kept where it can be looked at.
std::optional<std::string> ended_in_the_middle() {
    const std::optional<std::string> record = take_ended_run(running_folder());
    if (!record) return std::nullopt;
    const std::filesystem::path file = last_end_file();
    std::error_code code;
    std::filesystem::create_directories(file.parent_path(), code);
    if (!write_whole_file(file.string(), *record)) return std::nullopt;
    return was_doing(*record);
}

}  // namespace

std::filesystem::path last_end_file() { return state_folder("log") / "last-end.txt"; }

LookingAfter::LookingAfter() : record_(std::make_shared<RunRecord>(running_folder())) {}

PassWatch LookingAfter::watch() const {
    return [record = record_](const RenderRequest& request, const Pass& pass) {
        std::string words = "drawing ";
        for (const PassStep& step : pass.steps) words += (&step == &pass.steps.front() ? "" : ", ") + step.name;
        words += " of " + request.checked->finish->name;
        if (!request.finish_path.empty()) words += " (" + request.finish_path + ")";
        return record->doing(words);
    };
}

void LookingAfter::note(const QString& words) {
    record_->did(words.toStdString());
    if (log_ != nullptr) log_->line(words);
}

void LookingAfter::follow(Models& models, MainWindow& window) {
    Document& document = models.document;
    log_ = std::make_unique<LogFile>(state_folder("log"), document.disk());
    log_->line(start_line());
    connect(&document, &Document::said, this, [this](const QString& words) { note(words); });
    connect(&window, &MainWindow::ran, this, [this](const QString& action) { note(tr("action %1").arg(action)); });
    document.disk().then(
        this, [] { return ended_in_the_middle(); },
        [&document](const std::optional<std::string>& doing) {
            if (!doing) return;
            const QString words =
                doing->empty()
                    ? tr("Lacquer was ended without being asked to. Help, What happened last time shows more")
                    : tr("Lacquer was ended while %1. Help, What happened last time shows more").arg(qs(*doing));
            document.say(words, Tone::failed);
        });
    document.disk().then(
        this,
        [] {
            std::string error;
            const Walls walls = reader_walls(error);
            return error.empty() ? missing_walls(walls) : std::string();
        },
        [&document](const std::string& missing) {
            if (missing.empty()) return;
            document.say(tr("Whatever reads pictures is not walled in on this system%1").arg(core_words(missing)),
                         Tone::failed);
        });
}

}  // namespace lacquer
