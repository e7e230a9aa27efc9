#include "desktop/document/watched_files.h"

#include <QFileInfo>

namespace lacquer {

WatchedFiles::WatchedFiles(QObject* parent) : QObject(parent) {
    constexpr int settled_after_ms = 150;
    settled_.setSingleShot(true);
    settled_.setInterval(settled_after_ms);
    const auto soon = [this] { settled_.start(); };
    connect(&watcher_, &QFileSystemWatcher::fileChanged, this, soon);
    connect(&watcher_, &QFileSystemWatcher::directoryChanged, this, soon);
    connect(&settled_, &QTimer::timeout, this, &WatchedFiles::changed);
}

void WatchedFiles::watch(const QStringList& paths) {
    QStringList wanted;
    for (const QString& path : paths) {
        const QFileInfo file(path);
        const QString place = file.exists() ? file.absoluteFilePath() : file.absolutePath();
        if (QFileInfo::exists(place) && !wanted.contains(place)) wanted.append(place);
    }
    const QStringList watched = watcher_.files() + watcher_.directories();
    QStringList gone;
    for (const QString& path : watched) {
        if (!wanted.contains(path)) gone.append(path);
    }
    QStringList fresh;
    for (const QString& path : wanted) {
        if (!watched.contains(path)) fresh.append(path);
    }
    if (!gone.isEmpty()) watcher_.removePaths(gone);
    if (!fresh.isEmpty()) watcher_.addPaths(fresh);
}

}  // namespace lacquer
