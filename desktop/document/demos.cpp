#include "desktop/document/demos.h"

#include <QCoreApplication>
#include <QDir>
#include <algorithm>

#include "core/finish/file.h"
#include "desktop/document/document.h"

namespace lacquer {

QString demo_folder() {
    constexpr int most_levels = 4;
    QDir folder(QCoreApplication::applicationDirPath());
    for (int level = 0; level < most_levels; ++level) {
        const QString found = folder.filePath(QStringLiteral("demo/finishes"));
        if (QDir(found).exists()) return found;
        if (!folder.cdUp()) break;
    }
    return {};
}

QList<Demo> demos_in(const QString& folder) {
    QList<Demo> demos;
    if (folder.isEmpty()) return demos;
    for (const QFileInfo& file : QDir(folder).entryInfoList({QStringLiteral("*.lacquer")}, QDir::Files)) {
        const Result<OpenedFinish> opened = load_finish(file.absoluteFilePath().toStdString());
        if (!opened) continue;
        demos.append({file.absoluteFilePath(), qs(opened->finish.name), qs(opened->finish.brief)});
    }
    std::sort(demos.begin(), demos.end(), [](const Demo& a, const Demo& b) { return a.name < b.name; });
    return demos;
}

}  // namespace lacquer
