#include "desktop/document/demos.h"

#include <QCoreApplication>
#include <QDir>
#include <algorithm>
#include <tuple>

#include "core/finish/file.h"
#include "desktop/document/document.h"

namespace lacquer {

namespace {

DrivenBy driven_by(const Finish& finish) {
    if (!finish.signals.empty()) return DrivenBy::by_signals;
    if (!finish.cues.empty()) return DrivenBy::by_cues;
    bool moves = !finish.responses.empty();
    for_each_step(finish, [&](const Coat&, const Step& step) {
        moves = moves || step.formula.find("time") != std::string::npos;
    });
    return moves ? DrivenBy::by_time : DrivenBy::by_hand;
}

}  // namespace

QString driven_words(DrivenBy by) {
    switch (by) {
        case DrivenBy::by_cues:
            return QObject::tr("Answer cues");
        case DrivenBy::by_signals:
            return QObject::tr("Follow signals");
        case DrivenBy::by_time:
            return QObject::tr("Run with time");
        case DrivenBy::by_hand:
            return QObject::tr("Moved by hand");
    }
    return {};
}

QString demo_folder() {
    constexpr int most_levels = 4;
    QDir folder(QCoreApplication::applicationDirPath());
    for (int level = 0; level < most_levels; ++level) {
        // Beside the sources, or where they were installed.
        for (const char* place : {"demo/finishes", "share/lacquer/demo/finishes"}) {
            const QString found = folder.filePath(QLatin1String(place));
            if (QDir(found).exists()) return found;
        }
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
        demos.append(
            {file.absoluteFilePath(), qs(opened->finish.name), qs(opened->finish.brief), driven_by(opened->finish)});
    }
    std::sort(demos.begin(), demos.end(),
              [](const Demo& a, const Demo& b) { return std::tie(a.by, a.name) < std::tie(b.by, b.name); });
    return demos;
}

}  // namespace lacquer
