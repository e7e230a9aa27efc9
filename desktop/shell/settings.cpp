#include "desktop/shell/settings.h"

#include <QLockFile>
#include <QStandardPaths>
#include <chrono>
#include <cstring>
#include <filesystem>
#include <system_error>
#include <utility>

#include "core/base/file.h"
#include "desktop/shell/settings_text.h"

namespace lacquer {

namespace {

constexpr std::size_t most_bytes = std::size_t{16} << 20U;
constexpr std::chrono::milliseconds patience{2000};  // with another Lacquer that writes them just now

QString usual_file() {
    return QStandardPaths::writableLocation(QStandardPaths::GenericConfigLocation) +
           QStringLiteral("/lacquer/settings.json");
}

// Over what the file holds by then: another Lacquer may have set something else.
void write(const QString& file, const QVariantMap& values) {
    const std::string path = file.toStdString();
    if (!make_folder(std::filesystem::path(path).parent_path().string())) return;
    QLockFile lock(file + QStringLiteral(".lock"));
    // One that never lets go must not keep anything from being set.
    (void)lock.tryLock(patience);
    const Result<std::string> before = read_whole_file(path, most_bytes);
    const bool is_lost = before ? !settings_of(*before) : before.fault().id != "file.missing";
    if (is_lost) {
        std::error_code code;
        std::filesystem::rename(path, path + ".unreadable", code);
        if (code) return;
    }
    // A disk that takes no settings takes no finishes either, and says so there.
    (void)write_whole_file(path, text_with(before ? *before : std::string(), values));
}

}  // namespace

Settings::Settings(QString file) : file_(file.isEmpty() ? usual_file() : std::move(file)) {
    const Result<std::string> text = read_whole_file(file_.toStdString(), most_bytes);
    Result<QVariantMap> values = text ? settings_of(*text) : Result<QVariantMap>(text.fault());
    if (values) {
        values_ = std::move(*values);
    } else if (values.fault().id != "file.missing") {
        fault_ = values.fault();
    }
}

QVariant Settings::value(const char* key) const {
    for (const SettingRow& row : setting_rows()) {
        if (std::strcmp(row.key, key) == 0) return values_.value(QString::fromLatin1(key), row.otherwise);
    }
    return {};
}

void Settings::set_value(const char* key, const QVariant& value) { set_values({{QString::fromLatin1(key), value}}); }

void Settings::set_values(const QVariantMap& values) {
    values_.insert(values);
    if (disk_ != nullptr) {
        disk_->later([file = file_, values] { write(file, values); });
    } else {
        write(file_, values);
    }
}

}  // namespace lacquer
