// All settings in one table, kept between runs. Those with a label stand on the page of preferences.
#pragma once

#include <QStringList>
#include <QVariant>

class QSettings;

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

/// A setting's value, or what holds otherwise; `key` must be in the table.
QVariant setting(const QSettings& settings, const char* key);

}  // namespace lacquer
