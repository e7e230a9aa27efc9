#include "desktop/shell/settings.h"

#include <QByteArray>
#include <QSettings>
#include <cstring>

namespace lacquer {

const QList<SettingRow>& setting_rows() {
    static const QList<SettingRow> rows = {
        {"window/geometry", QByteArray(), "where the window was"},
        {"window/ladder_width", 460, "width of the ladder, pixels"},
        {"window/dials_height", 264, "height of the dials, pixels"},
        {"link/port", 9127, "UDP port at which a game is listened to"},
        {"link/everywhere", false, "listen to other machines, too, and not to this one alone"},
        {"file/folder", QString(), "folder of the last file"},
        {"file/recent", QStringList(), "finishes that were opened or saved of late, newest first"},
    };
    return rows;
}

QVariant setting(const QSettings& settings, const char* key) {
    for (const SettingRow& row : setting_rows()) {
        if (std::strcmp(row.key, key) == 0) return settings.value(QString::fromLatin1(key), row.otherwise);
    }
    return {};
}

}  // namespace lacquer
