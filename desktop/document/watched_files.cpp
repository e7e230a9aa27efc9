#include "desktop/document/watched_files.h"

#include <QDateTime>
#include <QFileInfo>
#include <QFileSystemWatcher>
#include <QMetaObject>
#include <QTimer>
#include <functional>
#include <utility>

namespace lacquer {

class WatchedFiles::Watcher : public QObject {
public:
    explicit Watcher(std::function<void()> told) : watcher_(this), settled_(this) {
        constexpr int settled_after_ms = 150;
        settled_.setSingleShot(true);
        settled_.setInterval(settled_after_ms);
        const auto soon = [this] { settled_.start(); };
        connect(&watcher_, &QFileSystemWatcher::fileChanged, this, soon);
        connect(&watcher_, &QFileSystemWatcher::directoryChanged, this, soon);
        connect(&settled_, &QTimer::timeout, this, std::move(told));
    }

    void watch(const QStringList& paths, const QDateTime& asked) {
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
        if (fresh.isEmpty()) return;
        watcher_.addPaths(fresh);
        // What was written before it was watched.
        for (const QString& path : fresh) {
            const QFileInfo file(path);
            if (file.isFile() && file.lastModified() > asked) settled_.start();
        }
    }

private:
    QFileSystemWatcher watcher_;
    QTimer settled_;
};

WatchedFiles::WatchedFiles(QObject* parent)
    : QObject(parent),
      watcher_(new Watcher([this] { QMetaObject::invokeMethod(this, &WatchedFiles::changed, Qt::QueuedConnection); })) {
    watcher_->moveToThread(&thread_);
    connect(&thread_, &QThread::finished, watcher_, &QObject::deleteLater);
    thread_.start();
}

WatchedFiles::~WatchedFiles() {
    thread_.quit();
    thread_.wait();
}

void WatchedFiles::watch(const QStringList& paths) {
    ++asked_;
    const auto take = [this, paths, asked = QDateTime::currentDateTime()] {
        watcher_->watch(paths, asked);
        --asked_;
    };
    QMetaObject::invokeMethod(watcher_, take, Qt::QueuedConnection);
}

}  // namespace lacquer
