// All settings in one table. Those with a label stand on the page of preferences.
#pragma once

#include <QList>
#include <QVariant>
#include <vector>

namespace lacquer {

struct SettingRow {
    const char* key;
    QVariant otherwise;  ///< what holds until it is set; whatever it is set to is of the same kind
    const char* words;
    const char* label = nullptr;            ///< on the page of preferences; null for what is only remembered
    const char* unit = "";                  ///< of a number
    double least = 0;                       ///< of a number, or of each one of a list
    double most = 0;                        ///< the same; 0 for what is none
    std::vector<const char*> choices = {};  ///< what it can be, if that is given
    bool at_start = false;                  ///< holds from the next start on
};

/// Every setting that there is.
const QList<SettingRow>& setting_rows();

}  // namespace lacquer
