#include "desktop/document/operations_folder.h"

#include <QDir>

namespace lacquer {

OperationsFolder::OperationsFolder(std::string folder, QObject* parent) : QObject(parent), folder_(std::move(folder)) {
    settled_.setSingleShot(true);
    settled_.setInterval(80);
    connect(&settled_, &QTimer::timeout, this, [this] {
        watch();
        emit changed();
    });
    connect(&watcher_, &QFileSystemWatcher::directoryChanged, &settled_, qOverload<>(&QTimer::start));
    connect(&watcher_, &QFileSystemWatcher::fileChanged, &settled_, qOverload<>(&QTimer::start));
    if (folder_.empty()) return;
    QDir().mkpath(QString::fromStdString(folder_));
    watch();
}

// A file that was replaced is another file to the watcher, so all are named again.
void OperationsFolder::watch() {
    QStringList paths{QString::fromStdString(folder_)};
    for (const OperationFile& file : operation_files_in(folder_)) paths.append(QString::fromStdString(file.path));
    const QStringList watched = watcher_.files() + watcher_.directories();
    for (const QString& path : std::as_const(paths)) {
        if (!watched.contains(path)) watcher_.addPath(path);
    }
}

}  // namespace lacquer
