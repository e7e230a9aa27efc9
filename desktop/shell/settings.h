// All settings in one table, kept between runs. Those with a label stand on the page of preferences.
#pragma once

#include <QPointer>
#include <QStringList>
#include <QVariantMap>

#include "desktop/document/disk.h"

namespace lacquer {

struct SettingRow {
    const char* key;
    QVariant otherwise;
    const char* words;
    const char* label = nullptr;            ///< on the page of preferences; null for what is only remembered
    const char* unit = "";                  ///< of a number
    double least = 0;                       ///< of a number
    double most = 0;                        ///< of a number; 0 for what is none
    std::vector<const char*> choices = {};  ///< what it can be, if that is given
    bool at_start = false;                  ///< holds from the next start on
};

/// Every setting that there is.
const QList<SettingRow>& setting_rows();

/// The values of the settings: read once, and written by the disk's thread as they change.
class Settings {
public:
    /// Without a file, the usual one of this user.
    explicit Settings(QString file = {});

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
    QPointer<Disk> disk_;
};

}  // namespace lacquer
