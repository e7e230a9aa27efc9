// All settings in one table, kept between runs.
#pragma once

#include <QVariant>

class QSettings;

namespace lacquer {

struct SettingRow {
    const char* key;
    QVariant otherwise;
    const char* words;
};

/// Every setting that there is.
const QList<SettingRow>& setting_rows();

/// A setting's value, or what holds otherwise; `key` must be in the table.
QVariant setting(const QSettings& settings, const char* key);

}  // namespace lacquer
