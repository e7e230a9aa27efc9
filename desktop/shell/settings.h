// The settings, kept between runs.
#pragma once

#include <QPointer>
#include <QVariantMap>
#include <optional>

#include "core/base/result.h"
#include "desktop/document/disk.h"
#include "desktop/shell/setting_rows.h"

namespace lacquer {

/// The values of the settings: read once, and written by the disk's thread as they change.
class Settings {
public:
    /// Without a file, the usual one of this user.
    explicit Settings(QString file = {});

    /// Why what the file held is not what holds; nothing where there is no file. It is kept beside the file as soon as
    /// something is set.
    const std::optional<Fault>& fault() const { return fault_; }

    /// From now on `disk` writes; until then whoever sets a value waits for it.
    void write_by(Disk& disk) { disk_ = &disk; }

    /// A setting's value, or what holds otherwise; `key` must be in the table.
    QVariant value(const char* key) const;
    void set_value(const char* key, const QVariant& value);
    /// Several at once, written in one go.
    void set_values(const QVariantMap& values);

private:
    QString file_;
    QVariantMap values_;
    std::optional<Fault> fault_;
    QPointer<Disk> disk_;
};

}  // namespace lacquer
